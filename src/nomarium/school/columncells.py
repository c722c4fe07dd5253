"""What the cells of a column of a plan's table hold."""

from collections.abc import Callable, Iterator, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.sheets.sheet import Row, cell_text

MOSTLY: Final = 0.8
"""The share of a column's cells that must be of a kind for the column to be of it."""


def filled_in(rows: Sequence[Row], column: int) -> Iterator[Cell]:
    """The cells of a column that hold something."""
    return (row[column] for _, row in rows if column < len(row) and cell_text(row[column]))


def mostly(rows: Sequence[Row], column: int, test: Callable[[Cell], bool], share: float = MOSTLY) -> bool:
    """Whether most filled cells of a column are of a kind."""
    found = [test(cell) for cell in filled_in(rows, column)]
    return bool(found) and sum(found) >= share * len(found)
