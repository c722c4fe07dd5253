"""Text set in columns, as newsletters have it: which lines of a page stand side by side, and in which order they are read."""

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise
from statistics import median
from typing import Final, NamedTuple

from nomarium.sheets.pdftext import Line

_FEWEST: Final = 4
"""Lines that a column of text has."""
_SHORT_TEXT: Final = 12
"""Characters that most lines of a column of text have, and a column of dates or times has not."""
_LONG_TEXT: Final = 28
"""The same, where the lines of two columns stand at one height, as the rows of a table do."""
_AT_ONE_HEIGHT: Final = 0.6
"""Share of the lines of the shorter column beside which a line stands, from which on they are rows."""
_SAME_HEIGHT: Final = 1.0
"""Points by which what stands on one base line differs at most."""
_FARTHEST: Final = 1.8
"""Heights of a line from one line to the next, for most lines of a column."""
_GUTTER: Final = 0.8
"""Heights of a line that lie free between two columns."""


class _Zone(NamedTuple):
    """Lines between whose pieces a gutter lies free."""

    first: int
    end: int
    gutter: float
    size: int


def in_reading_order(lines: Sequence[Line]) -> list[list[Line]]:
    """The lines of a page in parts that are read one after the other: where text stands in columns, column after column."""
    zone = max(_zones(lines), key=lambda one: one.size, default=None)
    if zone is None:
        return [list(lines)] if lines else []
    beside = lines[zone.first : zone.end]
    return [
        *in_reading_order(lines[: zone.first]),
        *in_reading_order(list(_side(beside, zone.gutter, is_left=True))),
        *in_reading_order(list(_side(beside, zone.gutter, is_left=False))),
        *in_reading_order(lines[zone.end :]),
    ]


def _zones(lines: Sequence[Line]) -> Iterator[_Zone]:
    if not lines:
        return
    height = median(line.height for line in lines)
    for gutter in _gutters(lines, height):
        half = _GUTTER * height / 2
        free = [
            not any(piece.left < gutter + half and piece.right > gutter - half for piece in line.pieces)
            for line in lines
        ]
        first = 0
        while first < len(lines):
            end = first
            while end < len(lines) and free[end]:
                end += 1
            if end > first and _are_columns(lines[first:end], gutter, height):
                yield _Zone(first, end, gutter, sum(len(line.pieces) for line in lines[first:end]))
            first = end + 1


def _gutters(lines: Sequence[Line], height: float) -> list[float]:
    """Where a gutter may lie: right before what several lines, or pieces of lines, begin with."""
    lefts = Counter(round(piece.left / 2) for line in lines for piece in line.pieces)
    leftmost = min(lefts)
    return [
        2 * left - (_GUTTER / 2 + 0.1) * height
        for left, count in lefts.items()
        if count >= _FEWEST - 1 and left > leftmost
    ]


def _are_columns(lines: Sequence[Line], gutter: float, height: float) -> bool:
    """Whether text runs down on both sides of a gutter, and the lines on its sides are no rows of a table."""
    sides = [list(_side(lines, gutter, is_left)) for is_left in (True, False)]
    if min(map(len, sides)) < _FEWEST:
        return False
    steps = [median(b.top - a.top for a, b in pairwise(side)) for side in sides]
    if max(steps) > _FARTHEST * height:
        return False
    at_one_height = sum(_is_row(line, gutter) for line in lines)
    are_rows = at_one_height >= _AT_ONE_HEIGHT * min(map(len, sides))
    least = _LONG_TEXT if are_rows else _SHORT_TEXT
    return all(median(len(line.text) for line in side) > least for side in sides)


def _is_row(line: Line, gutter: float) -> bool:
    """Whether the pieces on both sides of a gutter stand on one base line."""
    left = [piece.bottom for piece in line.pieces if piece.left < gutter]
    right = [piece.bottom for piece in line.pieces if piece.left >= gutter]
    return bool(left and right) and abs(left[-1] - right[0]) < _SAME_HEIGHT


def _side(lines: Sequence[Line], gutter: float, is_left: bool) -> Iterator[Line]:
    for line in lines:
        pieces = tuple(piece for piece in line.pieces if (piece.left < gutter) == is_left)
        if pieces:
            yield Line(line.top, line.bottom, pieces)
