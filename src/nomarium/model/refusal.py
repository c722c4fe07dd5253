"""What a parser gives instead of a value: why the text is none, and what to do. Callers add where."""

from typing import Literal, NamedTuple

from nomarium.model.problem import Place, Problem

Why = Literal["", "missing", "unlike", "several"]
"""`missing`: there is nothing to read; `unlike`: nothing in the text is like what it should be;
`several`: it could be two things."""


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
