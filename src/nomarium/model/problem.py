"""The one record of something wrong or worth saying about the input."""

from typing import Final, Literal, NamedTuple

Severity = Literal["problem", "note"]


LINES: Final = "text"
"""What the sheet of the lines of a document is called."""


def sheet_called(name: str) -> str:
    """How messages call a sheet; a table of a document by its number, and its lines by nothing but theirs.

    >>> sheet_called("Fixtures"), sheet_called("table 2"), sheet_called("text")
    ('sheet “Fixtures”', 'table 2', '')
    """
    if not name or name == LINES:
        return ""
    return name if name.startswith(("table ", "page ", "pages ")) else f"sheet “{name}”"


class Place(NamedTuple):
    """Where something stands in a source, as the person sees it. Empty parts are unknown."""

    file: str = ""
    sheet: str = ""
    row: int | None = None
    """1-based, as the sheet numbers it."""
    column: str = ""
    """The column's letter, such as "C"."""
    heading: str = ""
    unit: str = "row"
    """What `row` counts: rows of a sheet, lines of a calendar file."""

    def __str__(self) -> str:
        parts = [self.file, sheet_called(self.sheet)]
        parts.append(f"{self.unit} {self.row}" if self.row else "")
        if self.column:
            parts.append(f"column {self.column}" + (f" “{self.heading}”" if self.heading else ""))
        elif self.heading:
            parts.append(self.heading)
        return ", ".join(part for part in parts if part)


class Problem(NamedTuple):
    """What was found, where, and what to do about it.

    A `problem` keeps a row out of the calendar or stops the build; a `note` tells of a decision.
    """

    code: str
    """Stable and documented in docs/problems.md, such as "date-ambiguous"."""
    message: str
    remedy: str = ""
    place: Place = Place()
    cell: str | None = None
    """The cell's text as it stood."""
    severity: Severity = "problem"

    def at(self, place: Place, cell: str | None = None) -> "Problem":
        """The same problem with its place filled in (and the cell's text, when given)."""
        return self._replace(place=place, cell=self.cell if cell is None else cell)


def note(code: str, message: str, remedy: str = "") -> Problem:
    """A decision worth telling, which keeps nothing out."""
    return Problem(code, message, remedy, severity="note")


def column_letter(index: int) -> str:
    """The letter of a 0-based column: 0 is A, 25 is Z, 26 is AA."""
    letters = ""
    index += 1
    while index:
        index, rest = divmod(index - 1, 26)
        letters = chr(65 + rest) + letters
    return letters
