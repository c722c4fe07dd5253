"""Times beside a drawing that stand in two columns, when something starts and when it ends: read as one."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.slots import is_clear_time
from nomarium.sheets.sheet import Row, cell_text


def with_ends_joined(rows: Sequence[Row]) -> Sequence[Row]:
    """Rows whose first two columns are headed `Start` and `End` with both times in the first; the same where they are not."""
    at = next((at for at, (_, row) in enumerate(rows) if _heads_edges(row)), None)
    if at is None:
        return rows
    body = [(number, _joined(row)) for number, row in rows[at + 1 :]]
    number, head = rows[at]
    return [*rows[:at], (number, [head[0], "", *head[2:]]), *body]


def _heads_edges(row: Sequence[Cell]) -> bool:
    fields = [match.field if (match := match_exactly(cell_text(cell))) else "" for cell in row[:2]]
    return fields == ["start", "end"] and len(row) > 2


def _joined(row: Sequence[Cell]) -> list[Cell]:
    are_times = len(row) > 1 and is_clear_time(row[0]) and is_clear_time(row[1])
    return [f"{cell_text(row[0])}–{cell_text(row[1])}", "", *row[2:]] if are_times else [*row]
