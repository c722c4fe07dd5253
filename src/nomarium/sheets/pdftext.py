"""Letters to lines: which stand beside each other, where words part, and where columns may."""

from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.sheets.pdfpages import Letter

_WORD_GAP: Final = 0.13
"""Of the height of a line of type: a wider gap parts words."""
_COLUMN_GAP: Final = 0.9
"""The same for pieces that need not belong together."""


class Piece(NamedTuple):
    """Words that stand beside each other with no more than a space between them."""

    left: float
    right: float
    text: str
    bottom: float


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
        pieces[-1] = Piece(
            before.left, max(before.right, letter.right), f"{before.text}{space}{letter.text}", before.bottom
        )
    return Line(min(one.top for one in row), max(one.bottom for one in row), tuple(pieces))


def text_of(letters: Sequence[Letter]) -> str:
    """The text of a cell, a line of type a line."""
    return "\n".join(line.text for line in lines_of(letters))
