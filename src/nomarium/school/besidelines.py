"""Columns left of a drawn week that say whose its lines are, or where they are held, beside their periods or times."""

from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.school.drawncells import Grid
from nomarium.school.drawnowners import part_of_heading


class Beside(NamedTuple):
    """What is said beside the lines of a drawing."""

    columns: Mapping[int, str]
    """The columns that say it, each with its field."""
    said: Mapping[int, Mapping[str, str]]
    """Row → field → its text, also where one holds for the rows below it."""
    once: frozenset[str]
    """The headings of columns whose texts are written once over the lines that they hold for."""


def beside_lines(
    grid: Grid, at: int, end: int, left: Sequence[int], is_line: Callable[[int, Sequence[int]], bool]
) -> Beside:
    """What the columns `left` of the days say of each row below row `at`, the headings; nothing where none of them is headed by a part
    of a class, or where the others say no period or time: `is_line` tells that of a row and columns."""
    columns = {c: field for c in left if (field := part_of_heading(grid.filled(at, c)))}
    others = [c for c in left if c not in columns]
    if not columns or not others or not any(is_line(n, others) for n in range(at + 1, end)):
        return Beside({}, {}, frozenset())
    said: dict[int, Mapping[str, str]] = {}
    once = set[str]()
    above = dict[str, str]()
    for n in range(at + 1, end):
        here = dict[str, str]()
        for c, field in columns.items():
            text, is_blank = grid.spread(n, c), not grid.filled(n, c)
            if not text and field != "room" and is_line(n, others):
                text = above.get(field, "")  # a blank room is none
            if text:
                here[field] = text
                once |= {grid.filled(at, c)} if is_blank else set()
        above = here
        said[n] = MappingProxyType(here)
    return Beside(columns, said, frozenset(once))
