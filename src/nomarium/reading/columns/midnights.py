"""Whether 00:00 in a column of dates is a midnight, or only how a program writes a date."""

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.moments import Moment
from nomarium.reading.columns.column import Column

Heard = tuple[int, tuple[Cell, ...], list[Moment | None], int | None]
"""A row's number, its cells, their moments (None: blank or unread), what its weekday column says."""


def midnight_columns(
    columns: Sequence[Column], heard: Iterable[Heard], plain_days: Mapping[int, set[dt.date]]
) -> tuple[frozenset[int], frozenset[int]]:
    """Columns that are dates although their cells say 00:00, and typed ones in which a date is a midnight. `plain_days` are
    those, by column, of rows that are not among the `heard`."""
    clocks: dict[int, set[int]] = {}
    bare = set(plain_days)
    timed_cells: set[int] = set()
    for _, cells, moments, _ in heard:
        for column, cell, moment in zip(columns, cells, moments, strict=False):
            if moment is None or moment.first is None:
                continue
            if moment.start is None:
                bare.add(column.at)
            else:
                clocks.setdefault(column.at, set()).add(moment.start.secs)
                if isinstance(cell, dt.datetime):
                    timed_cells.add(column.at)
    date_only = {index for index, secs in clocks.items() if secs == {0}}
    return frozenset(date_only), frozenset(timed_cells & bare)
