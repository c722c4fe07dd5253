"""The titles over drawn weeks: which of them are those of a drawing, and which the sheet's."""

import re
from collections.abc import Callable, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.school.drawnheads import CORNERS, heads_names, texts_but_corners
from nomarium.sheets.sheet import Row, cell_text

_MOST_ABOVE: Final = 3
"""Rows above the days in which a title may stand."""


def titles_of(
    rows: Sequence[Row], at: int, first: int, last: int, day: Callable[[str], tuple[str, ...]]
) -> tuple[list[str], str]:
    """What stands above a drawing, the nearest first, and in its corner; it takes the columns from `first` to `last`, with its days
    in row `at`, and `day` gives the days that a text names."""
    above: list[str] = []
    for n in range(at - 1, max(at - _MOST_ABOVE - 1, -1), -1):
        texts = _titles_in(rows[n][1][first : last + 1])
        if len(texts) > 1 or (not texts and above):
            break
        above += texts
    corner = [text for cell in rows[at][1][first : last + 1] if (text := cell_text(cell)) and not day(text)]
    is_title = len(corner) == 1 and not re.fullmatch(CORNERS, corner[0]) and not heads_names(corner[0])
    return above, corner[0] if is_title else ""


def of_sheet(titles: Sequence[Sequence[str]]) -> frozenset[str]:
    """The titles of a sheet, of those over each of its drawings: what stands over the first one beyond what others have."""
    if len(titles) < 2:
        return frozenset()
    return frozenset(titles[0][max(map(len, titles[1:])) :])


def heads_drawings(row: Sequence[Cell], drawings: int) -> bool:
    """Whether a row has a title for each of several drawings that stand side by side below it."""
    return drawings > 1 and len(_titles_in(row)) == drawings


def _titles_in(cells: Sequence[Cell]) -> list[str]:
    return [text for text in texts_but_corners(cells) if not heads_names(text)]
