"""Columns of hours and minutes with a point, `8.15`, that are times and no prices."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.whenwords import heads_clock, is_before_start
from nomarium.sheets.sheet import cell_text


def are_dotted_times(
    column: Column, about: Contents, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]
) -> bool:
    """Whether all cells are hours and minutes with a point, `8.15`, under a word of times or soon after people come: prices are not."""
    texts = map(cell_text, about.different)
    if not all(re.fullmatch(r"(?:[01]?\d|2[0-3])\.[0-5][05]", text) for text in texts):
        return False
    return heads_clock(column.heading) or _follow(columns, column.at, rows)


def _follow(columns: Sequence[Column], at: int, rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether the times of a column are soon after those at which people come, `Show` 7.30 after `Doors` 6.30, in every row."""
    come = next((c.at for c in columns if c.field in ("time", "start") and is_before_start(c.heading)), None)
    if come is None:
        return False
    pairs = [(_minutes(row[come]), _minutes(row[at])) for row in rows if max(come, at) < len(row) and row[at]]
    return all(
        first is not None and second is not None and 0 < (second - first) % _HALF_DAY <= _SOON
        for first, second in pairs
    )


_HALF_DAY, _SOON = 12 * 60, 3 * 60
"""Minutes; those within which what people come for begins."""


def _minutes(cell: Cell) -> int | None:
    found = re.fullmatch(r"(\d{1,2})[.:](\d\d)", cell_text(cell).strip())
    return int(found[1]) * 60 + int(found[2]) if found is not None else None
