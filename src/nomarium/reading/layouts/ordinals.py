"""Months down and weekdays by their number in a month across, `1st Monday`, `Last Friday`: what is on stands in the cells."""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.drawn import DrawnEntry, after_remarks, date_part, entries_of_cell
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import Month, month_head, with_years
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_HEAD_ROWS: Final = 20
_ORDINALS: Final = {
    "first": 1, "1st": 1, "second": 2, "2nd": 2, "third": 3, "3rd": 3, "fourth": 4, "4th": 4, "fifth": 5, "5th": 5, "last": -1,
}  # fmt: skip
_HEAD: Final = r"(?:the\s+)?(\w+)\s+([^\W\d_]+)(?:\s+(?:of|in)\s+(?:the\s+)?month)?"


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as months against weekdays by their number, or say why it is none."""
    sheet, lexicon = top.sheet, top.lexicon
    rows = [(number, row) for number, row in sheet.rows() if not is_blank(row)]
    heads = ((at, _heads(row, lexicon)) for at, (_, row) in enumerate(rows[:_HEAD_ROWS]))
    at, days = next(((at, found) for at, found in heads if len(found) > 1), (0, {}))
    body = [(number, row, month_head(row[0], lexicon)) for number, row in rows[at + 1 :]]
    named = [month for _, _, month in body if month is not None]
    if not days or len(named) < 2:
        message = f"{sheet.title} has no months below weekdays by their number."
        return not_read(sheet, "no-months", "it has no months", "date-column-missing", message)
    months = with_years(top, named, rows[: at + 1])
    if isinstance(months, Problem):
        return NotRead(sheet, "month-unnamed", "nothing says which year it is", months)
    numbers = [number for number, _, month in body if month is not None]
    by_row = dict(zip(numbers, months, strict=True))
    entries = list(_entries(sheet, rows[at + 1 :], days, by_row))
    others = [*rows[:at], *((number, row) for number, row, month in body if month is None)]
    told = note(
        "layout-ordinals", "Read by months and weekdays: in each month on the weekday that heads the column."
    )
    return Reading(
        sheet,
        "matrix",
        partial(after_remarks, sheet, entries, top.options, others),
        (*sheet.notes, told.at(sheet.place())),
    )


def _heads(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, tuple[int, int]]:
    """Column → which of its weekdays in a month it is, and the weekday, 0 for Monday."""
    found: dict[int, tuple[int, int]] = {}
    for n, cell in enumerate(row):
        match = re.fullmatch(_HEAD, fold(cell_text(cell)).strip()) if n else None
        if match and match[1] in _ORDINALS and match[2] in lexicon.weekdays:
            found[n] = _ORDINALS[match[1]], lexicon.weekdays[match[2]]
    return found


def _entries(
    sheet: Sheet, body: Sequence[Row], days: Mapping[int, tuple[int, int]], months: Mapping[int, Month]
) -> Iterator[DrawnEntry | Problem]:
    for number, row in body:
        for n, (ordinal, weekday) in days.items() if number in months else ():
            text = cell_text(row[n]) if n < len(row) else ""
            if not text or is_idle(text):
                continue
            date = _date(months[number], ordinal, weekday)
            if date is None:
                message, remedy = (
                    "Its month has no such weekday.",
                    "Put it under another one, or take it out.",
                )
                yield Problem("date-impossible", message, remedy, sheet.place(number, n), text)
            else:
                yield from entries_of_cell(sheet, number, n, text, date_part(date))


def _date(month: Month, ordinal: int, weekday: int) -> dt.date | None:
    """The day of a month that is its so-manieth weekday, -1 for the last; None where it has no fifth."""
    first = dt.date(*month, 1)
    days = [first + dt.timedelta(n) for n in range(31)]
    of_month = [day for day in days if day.month == first.month and day.weekday() == weekday]
    index = ordinal - 1 if ordinal > 0 else -1
    return of_month[index] if index < len(of_month) else None
