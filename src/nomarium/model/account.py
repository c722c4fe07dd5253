"""The account of every row read and what became of it."""


class Ledger:
    """Counts of rows (of entries, where a layout is drawn): `read` is always the sum of the rest."""

    def __init__(self, unit: str = "rows", is_plan: bool = False) -> None:
        """`is_plan`: its rows are used to make events, and are no events themselves."""
        self.unit = unit
        self.is_plan = is_plan
        self.events = self.blank = self.notes = self.left_out = self.rejected = 0

    @property
    def read(self) -> int:
        return self.events + self.blank + self.notes + self.left_out + self.rejected

    def add(self, other: "Ledger") -> None:
        """Take another account into this one."""
        self.is_plan = self.is_plan or other.is_plan
        self.unit = other.unit if not self.read or other.unit == self.unit else "rows and entries"
        for name in ("events", "blank", "notes", "left_out", "rejected"):
            setattr(self, name, getattr(self, name) + getattr(other, name))

    def as_dict(self) -> dict[str, int]:
        return {
            "read": self.read,
            "events": self.events,
            "blank": self.blank,
            "notes": self.notes,
            "left_out": self.left_out,
            "rejected": self.rejected,
        }

    def __str__(self) -> str:
        word = "used" if self.is_plan else "event" if self.events == 1 else "events"
        parts = [f"{self.events:,} {word}"]
        parts += [
            f"{self.blank:,} blank",
            f"{self.notes:,} {'note' if self.notes == 1 else 'notes'}",
        ]
        parts += [f"{self.left_out:,} left out", f"{self.rejected:,} rejected"]
        unit = self.unit if self.read != 1 else {"rows": "row", "entries": "entry"}.get(self.unit, "")
        return f"{self.read:,} {unit} read = {' + '.join(parts)}"
