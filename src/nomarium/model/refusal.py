"""What a parser gives instead of a value: why the text is none, and what to do. Callers add where."""

from typing import Literal, NamedTuple

from nomarium.model.limits import LONGEST_CELL
from nomarium.model.problem import Place, Problem

Why = Literal["", "missing", "unlike", "several"]
"""`missing`: there is nothing to read; `unlike`: nothing in the text is like what it should be;
`several`: it could be two things."""


def too_long(text: str, most: int = LONGEST_CELL) -> "Refusal | None":
    """The refusal of a text that is too long for what it should be; None when it is not."""
    if len(text) <= most:
        return None
    message = f"It has {len(text):,} characters; of such a text {most:,} are read at most."
    return Refusal("cell-long", message, "Put the words into a column of their own.")


class Refusal(NamedTuple):
    """A text that could not be read."""

    code: str
    message: str
    remedy: str = ""
    why: Why = ""
    """What others go by who try something else."""

    def problem(self, place: Place, cell: str | None = None) -> Problem:
        """The refusal as a problem at a place."""
        return Problem(self.code, self.message, self.remedy, place, cell)


BEYOND = Refusal(
    "date-beyond", "Its dates go beyond the years 1 to 9999.", "Correct the date, or the length of time."
)
"""A day beyond those that a date can have: the last of 9999 has none after it."""
