"""The titles over drawn weeks: which of them are those of a drawing, and which the sheet's."""

import re
from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.school.drawnheads import CORNERS, heads_names, texts_but_corners
from nomarium.school.drawnowners import kind_of_heading
from nomarium.sheets.sheet import Row, cell_text

_MOST_ABOVE: Final = 3
"""Rows above the days in which a title may stand."""
_LABEL: Final = r"[^\W\d_]+(?:\s[^\W\d_]+)?\s*:"
_LABELLED: Final = re.compile(
    rf"(?P<label>{_LABEL})\s*(?P<value>[^:;|]*?[^:;|\s,–—-])(?=\s*(?:[;|,–—-]\s*|\s){_LABEL}|\s*[;|]|\s*$)"
)
"""Labels of a line with what they say, `Class: 7A   Room: Loft 1`."""
_LEADS: Final = ("group", "teacher", "room")
"""Whose a drawing is, of several things that are said of it: the first of these."""


class SaidAbove(NamedTuple):
    """What labels above a drawing say of all its classes."""

    whose: str = ""
    """Whose it is, as its title says it, `Class: 7A`."""
    others: Mapping[str, str] = MappingProxyType({})
    """What else, by part: the room, the teacher."""
    unused: tuple[str, ...] = ()
    """What of it is none of its classes': a class has a tutor, and lessons with others."""


def said_of_drawing(rows: Sequence[Row], at: int, first: int, last: int) -> SaidAbove:
    """What labels say in the rows above the days, which stand in row `at`, of the columns from `first` to `last`."""
    said: dict[str, tuple[str, str]] = {}
    unused = list[str]()
    for n in range(max(at - _MOST_ABOVE, 0), at):
        for label, value in _labels_in(rows[n][1][first : last + 1]):
            kind = kind_of_heading(label)
            if kind == "teacher" and label.casefold() == "tutor" and "group" in said:
                unused.append(f"{label}: {value}")
            elif kind:
                said.setdefault(kind, (label, value))
    lead = next((kind for kind in _LEADS if kind in said), "")
    if not lead:
        return SaidAbove()
    others = {kind: value for kind, (_, value) in said.items() if kind != lead}
    return SaidAbove(": ".join(said[lead]), others, tuple(unused))


def _labels_in(cells: Sequence[Cell]) -> list[tuple[str, str]]:
    """The labels of a row with what they say, in one cell or in two."""
    texts = [text for cell in cells if (text := cell_text(cell).strip())]
    if len(texts) == 2 and ":" not in texts[1] and kind_of_heading(texts[0].strip(" :")):
        return [(texts[0].strip(" :"), texts[1])]
    return [
        (match["label"].strip(" :"), match["value"]) for text in texts for match in _LABELLED.finditer(text)
    ]


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
