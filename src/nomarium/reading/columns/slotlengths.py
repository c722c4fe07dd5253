"""Starts that follow each other faster than events without an end last: told, since these would overlap."""

import datetime as dt
from collections import Counter
from collections.abc import Sequence
from itertools import pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.times import Times, clock_of_time, read_times
from nomarium.reading.columns.column import Column
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_LOOKED_AT = 60
"""Rows from which the steps are taken."""
_LEAST = 3


def slots_told(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], options: ReadingOptions
) -> list[Problem]:
    """A note where most rows start before the one above them on the same date has lasted its usual length, and nothing says
    how long rows last."""
    fields = {column.field: column.at for column in columns}
    at = fields.get("time", fields.get("start"))
    if (
        at is None
        or fields.keys() & {"end", "end-date", "duration", "repeat"}
        or options.default_length_secs is not None
    ):
        return []
    date_at = fields.get("date", -1)
    dated = [
        row for row in rows[:_LOOKED_AT] if date_at < 0 or (date_at < len(row) and cell_text(row[date_at]))
    ]
    starts = [start for row in dated if (start := _start(row, at, date_at)) is not None]
    return steps_told(starts, options, sheet.place(None, at))


def steps_told(starts: Sequence[tuple[str, int]], options: ReadingOptions, place: Place) -> list[Problem]:
    """The same of starts in seconds, each with the text of its day, in the order in which they stand."""
    steps = [b[1] - a[1] for a, b in pairwise(starts) if a[0] == b[0]]
    short = [step for step in steps if 0 < step < options.length_secs]
    if len(short) < _LEAST or len(short) * 3 < len(starts) * 2 or options.default_length_secs is not None:
        return []
    minutes = Counter(short).most_common(1)[0][0] // 60
    message = f"Rows start {counted(minutes, 'minute')} after each other and say no end: each lasts {counted(options.length_secs // 60, 'minute')} all the same."
    remedy = f"To give them another length: --default-length {minutes}m."
    return [note("slots-overlap", message, remedy).at(place)]


def _start(row: Sequence[Cell], at: int, date_at: int) -> tuple[str, int] | None:
    """The date of a row as it stands, and when it starts, in seconds; None where it says an end, or no time."""
    cell = row[at] if at < len(row) else ""
    clock = clock_of_time(cell) if isinstance(cell, dt.time) else None
    times = read_times(cell_text(cell)) if clock is None and cell_text(cell) else None
    if isinstance(times, Times):
        clock = times.start if times.end is None else None
    return None if clock is None else (cell_text(row[date_at]) if 0 <= date_at < len(row) else "", clock.secs)
