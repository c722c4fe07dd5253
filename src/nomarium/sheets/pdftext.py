"""Letters to lines: which stand beside each other, where words part, and where columns may."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.sheets.pdfpages import Letter

_WORD_GAP: Final = 0.13
"""Of the height of a line of type: a wider gap parts words."""
_COLUMN_GAP: Final = 0.9
"""The same for pieces that need not belong together."""
_WIDE_SPACE: Final = 0.28
"""The same for a gap that is more than a space."""
_LEAST_PIECES: Final = 3
"""Parts of a line in one piece that may all be columns: a heading has a word there by chance."""
_RIGHT_THERE: Final = 0.5
_SAME_PLACE: Final = 2.0
"""Points by which what stands in one column begins apart at most."""


class Piece(NamedTuple):
    """Words that stand beside each other with no more than a space between them."""

    left: float
    right: float
    text: str
    bottom: float
    gaps: tuple[tuple[float, float, int], ...] = ()
    """Where its words part: the right edge of one, the left edge of the next, and where that begins in the text."""


class Line(NamedTuple):
    """The pieces of a line of type, from left to right."""

    top: float
    bottom: float
    pieces: tuple[Piece, ...]

    @property
    def text(self) -> str:
        return " ".join(piece.text for piece in self.pieces)

    @property
    def height(self) -> float:
        return self.bottom - self.top


def lines_of(letters: Sequence[Letter]) -> list[Line]:
    """The lines of type from the top down: letters whose middles stand at one height."""
    rows: list[list[Letter]] = []
    for letter in sorted(letters, key=lambda one: one.top + one.bottom):
        middle = (letter.top + letter.bottom) / 2
        if rows and _stands_in(rows[-1], middle):
            rows[-1].append(letter)
        else:
            rows.append([letter])
    return [_line(row) for row in rows]


def _stands_in(row: Sequence[Letter], middle: float) -> bool:
    """Whether a height is within the line of the letter that was put there first."""
    first = row[0]
    size = first.bottom - first.top
    return abs(middle - (first.top + first.bottom) / 2) < 0.4 * max(size, 1.0)


def _line(row: Sequence[Letter]) -> Line:
    ordered = sorted(row, key=lambda one: one.left)
    pieces: list[Piece] = []
    for letter in ordered:
        height = max(letter.bottom - letter.top, 1.0)
        gap = letter.left - pieces[-1].right if pieces else 0.0
        if not pieces or gap > _COLUMN_GAP * height:
            pieces.append(Piece(letter.left, letter.right, letter.text, letter.bottom))
            continue
        space = " " if gap > _WORD_GAP * height else ""
        before = pieces[-1]
        begin = (before.right, letter.left, len(before.text) + 1)
        pieces[-1] = before._replace(
            right=max(before.right, letter.right),
            text=f"{before.text}{space}{letter.text}",
            gaps=(*before.gaps, begin) if space else before.gaps,
        )
    return Line(min(one.top for one in row), max(one.bottom for one in row), tuple(pieces))


def parted_at(line: Line, edges: Sequence[float]) -> Line:
    """A line with its pieces parted where one of their words begins at one of some places, in their order: right there, or
    nearly so behind more than a space."""
    pieces: list[Piece] = []
    for piece in line.pieces:
        begin, left = 0, piece.left
        for right, after, at in piece.gaps:
            is_wide = after - right > _WIDE_SPACE * line.height
            near = _SAME_PLACE if is_wide else _RIGHT_THERE
            if bisect_left(edges, after + near) > bisect_right(edges, after - near):
                pieces.append(Piece(left, right, piece.text[begin : at - 1], piece.bottom))
                begin, left = at, after
        pieces.append(piece if not begin else Piece(left, piece.right, piece.text[begin:], piece.bottom))
    is_heading = len(line.pieces) == 1 and len(pieces) < _LEAST_PIECES
    return line if is_heading else line._replace(pieces=tuple(pieces))


def text_of(letters: Sequence[Letter]) -> str:
    """The text of a cell, a line of type a line."""
    return "\n".join(line.text for line in lines_of(letters))
