"""The account of one source: every row that was read, what became of it, and what is to be said about it."""

from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem
from nomarium.model.wording import counted

PARTS = ("events", "blank", "notes", "left_out", "rejected")
"""What can become of a row."""
_MOST_NOTE_ROWS = 100


class Ledger:
    """Counts of rows (of entries, where a layout is drawn).

    `read` is counted where rows come from, the parts where it is decided what they are: `lost` compares the two.
    """

    def __init__(self, unit: str = "rows", is_plan: bool = False) -> None:
        """`is_plan`: its rows are used to make events, and are no events themselves."""
        self.unit = unit
        self.is_plan = is_plan
        self.read = 0
        self.events = self.blank = self.notes = self.left_out = self.rejected = 0

    @property
    def lost(self) -> int:
        """Rows that were read and are none of the parts; less than 0 when some are counted twice."""
        return self.read - (self.events + self.blank + self.notes + self.left_out + self.rejected)

    def add(self, other: "Ledger") -> None:
        """Take another account into this one."""
        self.is_plan = self.is_plan or other.is_plan
        self.unit = other.unit if not self.read or other.unit == self.unit else "rows and entries"
        for name in ("read", *PARTS):
            setattr(self, name, getattr(self, name) + getattr(other, name))

    def as_dict(self) -> dict[str, int]:
        return {name: getattr(self, name) for name in ("read", *PARTS)}

    @property
    def is_plain(self) -> bool:
        """Whether every row is an event, or used."""
        return self.read == self.events

    def __str__(self) -> str:
        word = "used" if self.is_plan else "event" if self.events == 1 else "events"
        parts = [
            f"{self.events:,} {word}" if self.events else "", f"{self.blank:,} blank" if self.blank else "",
            counted(self.notes, "note") if self.notes else "", f"{self.left_out:,} left out" if self.left_out else "",
            f"{self.rejected:,} rejected" if self.rejected else "",
        ]  # fmt: skip
        unit = self.unit if self.read != 1 else {"rows": "row", "entries": "entry"}.get(self.unit, "")
        return f"{self.read:,} {unit} read = {' + '.join(filter(None, parts)) or f'0 {word}'}"


class RejectedRow(NamedTuple):
    """A row that became no event, as it stood, and why."""

    headings: tuple[str, ...]
    cells: tuple[Cell, ...]
    reasons: tuple[Problem, ...]


class Account:
    """What a source writes down while its rows are read, in the order in which it is found.

    Complete when the last event has been taken.
    """

    def __init__(self, title: str = "", unit: str = "rows", is_plan: bool = False) -> None:
        """`title` is what reports call the source; an account without one has no line of its own."""
        self.title = title
        self.ledger = Ledger(unit, is_plan)
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []
        self.rejected: list[RejectedRow] = []
        self.note_rows: list[tuple[int, str]] = []
        """Rows that count as notes, (row number, text), the first hundred of them."""
        self.several: dict[int, int] = {}
        """Rows that have made several events, and how many of them are not left out."""
        self._counted: dict[str, tuple[int, Problem]] = {}

    def reject(self, headings: Sequence[str], cells: Sequence[Cell], reasons: Sequence[Problem]) -> None:
        """Account for a row that became no event."""
        self.ledger.rejected += 1
        self.problems.extend(reasons)
        self.rejected.append(RejectedRow(tuple(headings), tuple(cells), tuple(reasons)))

    def note_row(self, number: int, text: str) -> None:
        """Account for a row that holds words about the table, not an event."""
        self.ledger.notes += 1
        if len(self.note_rows) < _MOST_NOTE_ROWS:
            self.note_rows.append((number, text))

    def note_made_events(self, number: int, count: int) -> None:
        """A row that was counted as a note has made so many events."""
        self.ledger.notes -= 1
        self.ledger.events += 1
        self.note_rows = [one for one in self.note_rows if one[0] != number]
        if count > 1:
            self.several[number] = count

    def leave_out(self, count: int = 1) -> None:
        """So many rows that made events are left out after all: no date of them is wanted."""
        self.ledger.events -= count
        self.ledger.left_out += count

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

    def all_problems(self) -> list[Problem]:
        """The problems; one more when rows were lost, which is a fault of the program and must never be silent."""
        lost = self.ledger.lost
        if not lost:
            return self.problems
        message = (
            f"The account does not add up: {self.ledger}. {abs(lost):,} too {'few' if lost > 0 else 'many'}."
        )
        remedy = "This is a fault of Nomarium, not of the file: please report it, with the file if you can."
        return [*self.problems, Problem("rows-lost", message, remedy, Place(self.title))]
