"""Drawings whose days are numbered with their weekdays, `Mon 11`, below the month that a title names: `Mock exams January 2027`."""

import re
from collections.abc import Iterator, Mapping
from typing import Final

from nomarium.model.problem import note
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.layouts import grid, roster
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthlines import month_after, month_alone, month_in
from nomarium.sheets.sheet import Row, cell_text

_DAY: Final = re.compile(
    r"(?:(?P<before>[^\W\d_]{2,10})\.?,?\s+)?(?P<day>\d{1,2})(?:st|nd|rd|th|\.)?(?:,?\s+\(?(?P<behind>[^\W\d_]{2,10})\.?\)?)?"
)
_LEAST: Final = 2
"""Days with their weekdays from which on they are those of a month."""
_LEAST_BACK: Final = 20
"""Days by which the next number is lower where a new month begins."""


def look(top: Top) -> Reading | NotRead:
    """Read a drawing of days of a month that stands over them, or say why it is none."""
    sheet = top.sheet
    named = _months_of(top)
    if not named:
        message = f"{sheet.title} has no days with their weekdays below the name of a month."
        return not_read(
            sheet, "no-months", "it has no days of a month over them", "date-column-missing", message
        )
    (first, at), text = next(iter(named.items()))
    told = note(
        "month-sections",
        f"The days are those of the month above them: “{cell_text(dict(sheet.rows())[first][at])}” is {text}.",
    )

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [named.get((number, n), cell) for n, cell in enumerate(row)]

    dated = sheet._replace(read_rows=rows, notes=(*sheet.notes, told.at(sheet.place(first, at))))
    drawn = Top(dated, top.options, top.is_whole)
    reading = grid.look(drawn)
    return roster.look(drawn) if isinstance(reading, NotRead) else reading


def _months_of(top: Top) -> Mapping[tuple[int, int], str]:
    """The cells that are days, by row and column, with the month behind each."""
    found: dict[tuple[int, int], str] = {}
    month = next(
        (one for _, text in reversed(top.sheet.said_above) if (one := _month_in(text, top.lexicon))), ""
    )
    last = 0
    for number, row in top.sheet.rows():
        filled = [(n, text) for n, cell in enumerate(row) if (text := cell_text(cell).strip())]
        if len(filled) == 1 and (named := _month_in(filled[0][1], top.lexicon)):
            month, last = named, 0
            continue
        days = [(n, day) for n, text in filled if (day := _day_in(text, top.lexicon))]
        is_label = len(days) == 1 and days[0][0] == filled[0][0]
        if not month or not (is_label or (len(days) >= _LEAST and len(days) + 1 >= len(filled))):
            continue
        for n, day in days:
            if day + _LEAST_BACK < last:
                month = month_after(month, top.lexicon)
            last = day
            found[number, n] = f"{cell_text(row[n]).strip()} {month}"
    return found if len(found) >= _LEAST or all(map(_is_right, found.values())) else {}


def _is_right(date: str) -> bool:
    """Whether the one day found has its weekday in that month: chance has it once in seven."""
    moment = read_moment(date, "date", ENGLISH)
    day = moment.first if isinstance(moment, Moment) else None
    dates = [one.date() for one in day.readings] if day is not None else []
    return day is not None and [one.weekday() for one in dates if one] == [day.weekday]


def _month_in(text: str, lexicon: Lexicon) -> str:
    """The month with its year that a text names, or ends with; nothing where it names none."""
    named = month_alone(text, lexicon) or month_in(text, lexicon) or ""
    return named if re.search(r"\d{4}", named) else ""


def _day_in(text: str, lexicon: Lexicon) -> int:
    """The number of a day beside its weekday; 0 for any other text."""
    match = _DAY.fullmatch(text)
    names = [fold(name) for name in (match["before"], match["behind"]) if name] if match is not None else []
    if match is None or len(names) != 1 or names[0] not in lexicon.weekdays:
        return 0
    return int(match["day"]) if 1 <= int(match["day"]) <= 31 else 0
