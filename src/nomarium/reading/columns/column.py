"""One column of a table: what it is taken for and why, and which of two has a field that both claim."""

from typing import Literal, NamedTuple

How = Literal["asked", "heading", "content", ""]

WEEKS_LONG = "how many weeks it lasts, as its first and its last day say"
PART_OF_DAY = "one of several parts of a day"
"""The evidence for a column that is taken for nothing, since what happens in one session of many is no row's title."""
ONLY_WORDS = "the only column of words"
BESIDE_NAMES = "the only column of words beside names of classes"
"""Evidence that a column is the title."""


class Column(NamedTuple):
    """One column of a table: what it is taken for, and why."""

    at: int
    """Its place within the rows, from 0."""
    heading: str
    field: str = ""
    """The field or part of one; "" when it is left out or names none."""
    how: How = ""
    evidence: str = ""
    samples: tuple[str, ...] = ()
    filled: int = 0
    blank: int = 0
    is_weak: bool = False
    has_days: bool = False
    """Whether some sampled cell holds a date: a column of times alone settles nothing about dates."""
    is_clock: bool = False
    """Whether most of its cells are times of day."""
    twin_of: int | None = None
    """The index of an earlier column of the same field, with which it must agree on every row."""

    is_kept: bool = False
    """Whether its cells go into the description, though it is no field."""

    @property
    def is_ignored(self) -> bool:
        return not self.field


def without_weak_rivals(columns: list[Column]) -> list[Column]:
    strong = {c.field for c in columns if c.field and not c.is_weak}
    rest = []
    for column in columns:
        if column.is_weak and (column.field in strong or (column.field == "date" and "when" in strong)):
            column = column._replace(field="", how="", evidence=f"another column is the {column.field}")
        elif column.is_weak and column.field == "start" and "time" in strong:
            column = column._replace(field="", how="", evidence="another column says when it starts")
        elif column.is_weak:
            strong.add(column.field)
        rest.append(column)
    return rest


def with_rivals(columns: list[Column]) -> list[Column]:
    """Mark columns that claim a field again; what was asked for beats what a heading claims."""
    first: dict[str, Column] = {}
    marked: list[Column] = []
    is_dated = any(c.field in ("date", "when") and c.filled for c in columns)
    for column in columns:
        earlier = first.setdefault(column.field, column) if column.field else None
        if earlier is not None and earlier is not column:
            if earlier.how == "asked" != column.how:
                column = column._replace(field="", how="", evidence=f"another column is the {column.field}")
            elif column.how == "asked" != earlier.how:
                marked[earlier.at] = earlier._replace(
                    field="", how="", evidence="another column was asked for"
                )
                first[column.field] = column
            elif column.filled == 0 or earlier.filled == 0:
                empty = column if column.filled == 0 else earlier
                dropped = empty._replace(field="", how="", evidence="empty, and another column has the field")
                if empty is column:
                    column = dropped
                else:
                    marked[earlier.at] = dropped
                    first[column.field] = column
            elif column.field == "categories":
                column = column._replace(field="more-categories")
            elif column.field == "milestone" or (column.field == "week" and is_dated):
                pass
            else:
                column = column._replace(twin_of=earlier.at)
        marked.append(column)
    return marked
