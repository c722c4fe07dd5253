"""Times in the small hours below those of an evening, which are on the next day and take no date from above."""

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.times import Times, read_times
from nomarium.sheets.sheet import Row

EVENING: Final = 18 * 3600
"""From when on it is evening, in seconds."""
SMALL_HOURS: Final = 6 * 3600
"""Until when a time below one of an evening is on the next morning."""


class Nights(NamedTuple):
    """Columns of dates that are written once, and that of the times beside them."""

    dates: frozenset[int]
    time: int

    def secs(self, row: Sequence[Cell]) -> int | None:
        """When a row begins, in seconds of its day; None where it says no time."""
        cell = row[self.time] if self.time < len(row) else ""
        if isinstance(cell, dt.time):
            return cell.hour * 3600 + cell.minute * 60
        times = read_times(cell) if isinstance(cell, str) and cell else None
        return times.start.secs if isinstance(times, Times) and times.start else None


class Watch:
    """What remembers, row by row, whether it is evening."""

    def __init__(self) -> None:
        self._is_evening = False

    def is_past_midnight(self, secs: int | None, is_new_day: bool) -> bool:
        """Whether the next row, at so many seconds, is on the day after that of the rows above it."""
        is_evening = self._is_evening and not is_new_day
        self._is_evening = is_evening or (secs is not None and secs >= EVENING)
        return is_evening and secs is not None and secs < SMALL_HOURS


def without_nights(rows: Iterator[Row], nights: Nights) -> Iterator[Row]:
    """Rows whose dates stand above them, those in the small hours below an evening without."""
    before: Cell = ""
    watch = Watch()
    (date_at, *_) = nights.dates
    for number, row in rows:
        date = row[date_at] if date_at < len(row) else ""
        if watch.is_past_midnight(nights.secs(row), date != before):
            row = [*row[:date_at], "", *row[date_at + 1 :]]
        before = date
        yield number, row
