"""Two times with a stroke between, `14:00/19:30`: from the first to the second, or two of them."""

import re
from collections.abc import Iterable
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.moments import Moment, Role, read_moment
from nomarium.reading.cells.words import Lexicon

_STROKE: Final = r"\d[:.h]\d\d\s*/\s*\d{1,2}[:.h]\d\d"


class Strokes(NamedTuple):
    """What the cells of a table show of such times."""

    first: str = ""
    """The first cell with a stroke; nothing where there is none."""
    are_open: bool = False
    """Whether others say one time alone, so that these may be two as well."""


def has_stroke(cell: Cell) -> bool:
    """Whether a cell says two times with a stroke between."""
    behind = cell.partition("/")[0].rstrip() if isinstance(cell, str) and "/" in cell else ""
    return behind[-3:-2] in (":", ".", "h") and re.search(_STROKE, str(cell)) is not None


def strokes_in(cells: Iterable[Cell], role: Role, lexicon: Lexicon) -> Strokes:
    """What these cells show, read as `role`."""
    each = dict.fromkeys(cells)
    first = next((cell for cell in each if has_stroke(cell)), None)
    if first is None:
        return Strokes()
    read = [read_moment(cell, role, lexicon) for cell in each]
    says_start = any(isinstance(one, Moment) and one.start is not None and one.end is None for one in read)
    return Strokes(str(first), says_start)


def strokes_told(found: Strokes) -> list[Problem]:
    """A note that such times are from the first to the second."""
    if not found.first or found.are_open:
        return []
    message = f"Times with a stroke between are from the first to the second, as no cell says one alone: “{found.first}”."
    return [note("time-strokes", message, "If they are two times, write them like 14:00 & 19:30.")]
