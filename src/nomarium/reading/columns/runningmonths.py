"""Months written once: `Sun 6th` below `Sat 5th Sept` is a day of the same month, or of the next one when it is smaller; numbers
alone rise within their month, `Jan 12`, `19`, `26`, `Feb 2`, `9`."""

import datetime as dt
import re
from collections.abc import Collection, Iterable, Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import read_days
from nomarium.reading.cells.words import ENGLISH_MONTHS, Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import is_placeholder, match_exactly
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_RUNNING: Final = r"(?i)(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})(?P<ordinal>st|nd|rd|th|\.)?"
_OF_DATES: Final = frozenset(("date", "when", "day"))
_LAST_DAY: Final = 31
_WITH_MORE: Final = 3
"""Characters from which on a text is more than the number of a day."""
_LOOKED_AT: Final = 60
"""Rows in which a workbook's numbers are looked for."""
_REMARK: Final = r"\s*\([^()]*\)$"
"""What stands in brackets behind a day."""
_LONGEST: Final = 18
"""Characters of a weekday and a day."""
_MOSTLY: Final = 0.8
"""The share of a column's cells that must be days, with their months or without."""


class RunningMonths(NamedTuple):
    """The column whose days go on from the month above them."""

    at: int
    lexicon: Lexicon
    first: str
    """The first cell without a month, and what is above it."""
    above: str
    has_numbers: bool = False
    """Whether days may be numbers alone."""

    def renamed(self, head: TableHead) -> TableHead:
        """The head as it stands."""
        return head

    def asking(self, options: ReadingOptions, head: TableHead) -> ReadingOptions:
        """The options as they stand."""
        return options

    def told(self, sheet: Sheet, columns: list[Column], filled: Collection[str]) -> Problem:
        """A note of what was supplied."""
        return self.said(sheet.place(None, self.at, columns[self.at].heading))

    def said(self, place: Place) -> Problem:
        """The same, wherever the column is."""
        message = f"A day without a month is of the month above it, or of the next when it is smaller: “{self.first}” under “{self.above}”."
        return note("date-months-run-on", message).at(place)

    def joined(self, rows: Iterable[Row]) -> Iterator[Row]:
        """Rows whose days all have their months."""
        last: tuple[int, int, int | None] | None = None
        for number, row in rows:
            cell = row[self.at] if self.at < len(row) else ""
            text = cell_text(cell) if isinstance(cell, str) or self.has_numbers else ""
            alone = _number_alone(cell) if self.has_numbers else None
            running = alone or _running(text, self.lexicon)
            if running is None:
                last = _month_of(cell, self.lexicon) or (last if text or cell == "" else None)
                yield number, row
            elif last is None or (alone is not None and alone <= last[0]):
                yield number, row
            else:
                day, month, year = last
                if running < day:
                    year = year if year is None or month < 12 else year + 1
                    month = month % 12 + 1
                last = running, month, year
                cells = list(row)
                name = ENGLISH_MONTHS[month - 1].split()[0].capitalize()
                remark = "".join(re.findall(_REMARK, text))
                day_said = text.removesuffix(remark).rstrip(". ")
                cells[self.at] = f"{day_said} {name}{f' {year}' if year is not None else ''}{remark}"
                yield number, cells


def find_running_months(
    headings: Sequence[str], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> RunningMonths | None:
    """The column in which months are written once, or None."""
    width = max(map(len, sample), default=0)
    numbered = []  # columns some of whose cells may be numbers alone
    for at in range(width):
        cells = [row[at] for row in sample if at < len(row)]
        different = {cell for cell in cells if type(cell) is str and len(cell) <= _LONGEST}
        if any(0 < len(text) < _WITH_MORE for text in different) or any(
            type(cell) is not str for cell in cells[:_LOOKED_AT]
        ):
            numbered.append(at)
        if not any(_running(text.strip(), lexicon) is not None for text in different):
            continue
        texts = [text for cell in cells if isinstance(cell, str) and (text := cell_text(cell))]
        above, first, known = "", "", 0
        for text in texts:
            if _running(text, lexicon) is not None:
                known += bool(above)
                first = first or (text if above else "")
            elif _month_of(text, lexicon) is not None:
                known += 1
                above = text if not first else above
        if first and known >= _MOSTLY * len(texts):
            return RunningMonths(at, lexicon, first, above)
    return _with_numbers_alone(headings, sample, numbered, lexicon)


def in_another_language(
    headings: Sequence[str], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> Lexicon | None:
    """The names in which a column of dates says its days where it has an unknown word before a number, `Mardi 6`; else None."""
    for at, heading in enumerate(headings):
        match = match_exactly(heading)
        if match is None or match.field not in _OF_DATES:
            continue
        texts = [cell_text(row[at]) for row in sample if at < len(row) and isinstance(row[at], str)]
        running = (re.fullmatch(_RUNNING, text) for text in texts if len(text) <= _LONGEST)
        words = {fold(one["weekday"]) for one in running if one is not None and one["weekday"]}
        if words and not words <= lexicon.weekdays.keys() | lexicon.months.keys():
            from nomarium.reading.cells.languages import lexicon_seen

            return lexicon_seen(texts)
    return None


def _with_numbers_alone(
    headings: Sequence[str], sample: Sequence[Sequence[Cell]], columns: Sequence[int], lexicon: Lexicon
) -> RunningMonths | None:
    """The one of some columns that is of dates of which most are numbers alone that rise in their month, or None."""
    for at in columns:
        heading = headings[at] if at < len(headings) else ""
        match = match_exactly(heading)
        if not is_placeholder(heading) and (match is None or match.field not in _OF_DATES):
            continue
        cells = [cell for row in sample if at < len(row) and cell_text(cell := row[at])]
        if not any(map(_number_alone, cells)):
            continue
        first, above, last, known = "", "", None, 0
        for cell in cells:
            day = _number_alone(cell)
            if day is None:
                last = month[0] if (month := _month_of(cell, lexicon)) is not None else None
                above, known = (above if first else cell_text(cell)), known + (last is not None)
            elif last is None or day <= last:
                break
            else:
                first, last, known = first or cell_text(cell), day, known + 1
        else:
            if first and known >= _MOSTLY * len(cells):
                return RunningMonths(at, lexicon, first, above, has_numbers=True)
    return None


def _number_alone(cell: Cell) -> int | None:
    """The day that a number alone may be."""
    text = cell_text(cell) if isinstance(cell, (str, int, float)) and not isinstance(cell, bool) else ""
    return int(text) if text.isascii() and text.isdigit() and 1 <= int(text[:3]) <= _LAST_DAY else None


def _running(text: str, lexicon: Lexicon) -> int | None:
    """The day of a cell that has a weekday or an ordinal with it and no month; None for any other."""
    if not text or not (text[0].isalpha() or text[-1].isalpha() or text[-1] in ".)"):
        return None  # 05/09/2026 is nothing of the kind
    if not any(map(str.isdigit, text)):
        return None
    match = re.fullmatch(_RUNNING, re.sub(_REMARK, "", text) if text[-1] == ")" else text)
    if match is None or not 1 <= int(match["day"]) <= 31:
        return None
    weekday = match["weekday"]
    if weekday is not None:
        return (
            int(match["day"])
            if fold(weekday) in lexicon.weekdays and fold(weekday) not in lexicon.months
            else None
        )
    return int(match["day"]) if match["ordinal"] else None


def _month_of(cell: Cell, lexicon: Lexicon) -> tuple[int, int, int | None] | None:
    """Day, month and year (if said) of the last day that a cell names; None for what names none, or leaves it open."""
    if isinstance(cell, dt.date):
        return cell.day, cell.month, cell.year
    text = cell_text(cell) if isinstance(cell, str) else ""
    days = read_days(text, lexicon) if text and not text.isdigit() else None
    if days is None or isinstance(days, Refusal):
        return None
    day = days.last or days.first
    if len({(one.month, one.day) for one in day.readings}) != 1:
        return None
    one = day.readings[0]
    return one.day, one.month, one.year
