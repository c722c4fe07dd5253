"""Where a reading writes down what it finds: the ledger, the problems, the notes, the rejected rows."""

from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.account import Ledger
from nomarium.model.problem import Problem
from nomarium.sheets.sheet import Cell


class RejectedRow(NamedTuple):
    """A row that became no event, as it stood, and why."""

    headings: tuple[str, ...]
    cells: tuple[Cell, ...]
    reasons: tuple[Problem, ...]


class Notebook:
    """The account of one reading. Everything is kept in the order in which it was found."""

    def __init__(self) -> None:
        self.ledger = Ledger()
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []
        self.rejected: list[RejectedRow] = []
        self.note_rows: list[tuple[int, str]] = []
        """Rows that count as notes, (row number, text), the first hundred of them."""
        self._counted: dict[str, tuple[int, Problem]] = {}

    def reject(self, headings: Sequence[str], cells: Sequence[Cell], reasons: Sequence[Problem]) -> None:
        """Account for a row that became no event."""
        self.ledger.rejected += 1
        self.problems.extend(reasons)
        self.rejected.append(RejectedRow(tuple(headings), tuple(cells), tuple(reasons)))

    def note_row(self, number: int, text: str) -> None:
        """Account for a row that holds words about the table, not an event."""
        self.ledger.notes += 1
        if len(self.note_rows) < 100:
            self.note_rows.append((number, text))

    def count(self, problem: Problem, key: str = "") -> None:
        """A note that many rows may give: it is told once for each code and key, with the first row and
        their number."""
        key = f"{problem.code} {key}"
        seen, first = self._counted.get(key, (0, problem))
        self._counted[key] = (seen + 1, first)

    def all_notes(self) -> list[Problem]:
        """The notes, the counted ones last."""
        counted = []
        for times, first in self._counted.values():
            more = f" (so in {times:,} rows; this is the first)" if times > 1 else ""
            counted.append(first._replace(message=first.message + more))
        return sorted(self.notes + counted, key=lambda note: note.place.row or 0)
