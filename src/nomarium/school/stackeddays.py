"""Days that stand one below the other, each with its periods across: beside the day, or in the row below it."""

import re
from collections.abc import Callable, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.drawnheads import CORNERS, heads_names
from nomarium.school.drawnlines import Slot, slot_in
from nomarium.sheets.sheet import Row, cell_text


class StackedHead(NamedTuple):
    """What heads the lines of one day."""

    begin: int
    """The row (0-based) in which the day stands."""
    at: int
    """That of its periods."""
    names: tuple[str, ...]
    """The day, or days."""
    under: dict[int, Slot]
    """The period of each column."""


def stacked_heads(rows: Sequence[Row], day_of: Callable[[str], tuple[str, ...]]) -> list[StackedHead]:
    """The rows that begin with a day and go on with two periods or more, and those of a day alone above a row of periods, whose
    first cell may say what its lines are, `Room`."""
    found = []
    for at, (_, row) in enumerate(rows):
        filled = [(n, cell) for n, cell in enumerate(row) if cell_text(cell)]
        names = day_of(cell_text(filled[0][1])) if filled else ()
        begin = at
        if names and len(filled) == 1 and at + 1 < len(rows):
            at += 1
            filled = [(n, cell) for n, cell in enumerate(rows[at][1]) if cell_text(cell)]
            corner = cell_text(filled[0][1]) if filled else ""
            filled = filled[1:] if heads_names(corner) or re.fullmatch(CORNERS, corner) else filled
        else:
            filled = filled[1:]
        if names and (under := _periods_of(filled)):
            found.append(StackedHead(begin, at, names, under))
    return found


def _periods_of(cells: Sequence[tuple[int, Cell]]) -> dict[int, Slot]:
    """Column → period of the cells of a row; nothing where they are not two or more, and breaks."""
    under = {n: slot for n, cell in cells if (slot := slot_in(n, [cell])) is not None}
    breaks = sum(is_break(cell_text(cell)) for _, cell in cells)
    return under if len(under) > 1 and len(under) + breaks >= len(cells) else {}
