"""Months written once: `Sun 6th` below `Sat 5th Sept` is a day of the same month, or of the next one when it is smaller."""

import re
from collections.abc import Collection, Iterable, Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import read_days
from nomarium.reading.cells.words import ENGLISH_MONTHS, Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_RUNNING: Final = re.compile(
    r"(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})(?P<ordinal>st|nd|rd|th|\.)?", re.IGNORECASE
)
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

    def renamed(self, head: TableHead) -> TableHead:
        """The head as it stands."""
        return head

    def asking(self, options: ReadingOptions, head: TableHead) -> ReadingOptions:
        """The options as they stand."""
        return options

    def told(self, sheet: Sheet, columns: Sequence[Column], filled: Collection[str]) -> Problem:
        """A note of what was supplied."""
        message = f"A day without a month is of the month above it, or of the next when it is smaller: “{self.first}” under “{self.above}”."
        return note("date-months-run-on", message).at(sheet.place(None, self.at, columns[self.at].heading))

    def joined(self, rows: Iterable[Row]) -> Iterator[Row]:
        """Rows whose days all have their months."""
        last: tuple[int, int, int | None] | None = None
        for number, row in rows:
            cell = row[self.at] if self.at < len(row) else ""
            text = cell_text(cell) if isinstance(cell, str) else ""
            running = _running(text, self.lexicon)
            if running is None:
                last = _month_of(text, self.lexicon) or (last if text or cell == "" else None)
                yield number, row
            elif last is None:
                yield number, row
            else:
                day, month, year = last
                if running < day:
                    year = year if year is None or month < 12 else year + 1
                    month = month % 12 + 1
                last = running, month, year
                cells = list(row)
                name = ENGLISH_MONTHS[month - 1].split()[0].capitalize()
                cells[self.at] = f"{text.rstrip('.')} {name}{f' {year}' if year is not None else ''}"
                yield number, cells


def find_running_months(sample: Sequence[Sequence[Cell]], lexicon: Lexicon) -> RunningMonths | None:
    """The column in which months are written once, or None."""
    width = max(map(len, sample), default=0)
    for at in range(width):
        cells = [row[at] for row in sample if at < len(row)]
        different = {cell for cell in cells if type(cell) is str and len(cell) <= _LONGEST}
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
    return None


def _running(text: str, lexicon: Lexicon) -> int | None:
    """The day of a cell that has a weekday or an ordinal with it and no month; None for any other."""
    if not text or not (text[0].isalpha() or text[-1].isalpha() or text[-1] == "."):
        return None  # 05/09/2026 is nothing of the kind
    match = _RUNNING.fullmatch(text)
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


def _month_of(text: str, lexicon: Lexicon) -> tuple[int, int, int | None] | None:
    """Day, month and year (if said) of the last day that a cell names; None for what names none, or leaves it open."""
    days = read_days(text, lexicon) if text and not text.isdigit() else None
    if days is None or isinstance(days, Refusal):
        return None
    day = days.last or days.first
    if len({(one.month, one.day) for one in day.readings}) != 1:
        return None
    one = day.readings[0]
    return one.day, one.month, one.year
