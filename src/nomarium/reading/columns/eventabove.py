"""An event of its own that labelled rows above a table say, `Event: Open day`, `Date: 3 October`, beside the rows of the table."""

from collections.abc import Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.head import TableHead, looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.sheets.sheet import Sheet, cell_text

_LEAST = 2
"""Rows from which on an event is labelled."""


def event_above(sheet: Sheet, head: TableHead, lexicon: Lexicon) -> list[Problem]:
    """A problem where rows above a table are labelled as the title and the date of an event: it would be lost as a remark."""
    if len(head.title_rows) < _LEAST:
        return []
    said: dict[str, tuple[int, str]] = {}
    for number, row in islice(sheet.rows(), head.rows_above):
        label, value = _label_in(row)
        match = match_exactly(label) if label and cell_text(value) else None
        if match is not None and match.field == "date" and looks_like_date(value, lexicon):
            said.setdefault("date", (number, f"“{label}: {cell_text(value)}”"))
        elif match is not None and match.field == "summary" and isinstance(value, str):
            said.setdefault("summary", (number, f"“{label}: {value.strip()}”"))
    if said.keys() != {"date", "summary"}:
        return []
    first = min(said.values())
    message = f"Above the table stands an event of its own, which is not read: {listed([text for _, text in sorted(said.values())])}."
    remedy = "Give it a row of the table, or a file of its own; or take it out."
    return [Problem("event-above", message, remedy, sheet.place(first[0]))]


def place_above(sheet: Sheet, head: TableHead) -> list[Problem]:
    """A note of a place that a row above a table says, `Room: Loft 1`, whose rows say none."""
    for number, row in islice(sheet.rows(), head.rows_above):
        label, value = _label_in(row)
        match = match_exactly(label) if label and isinstance(value, str) and value.strip() else None
        if match is not None and match.field in ("location", "room"):
            message = f"Above the table stands “{label}: {cell_text(value)}”, and its rows say no place."
            remedy = f'If it is that of all: --set "location={cell_text(value)}".'
            return [note("place-above", message, remedy).at(sheet.place(number))]
    return []


def _label_in(row: Sequence[Cell]) -> tuple[str, Cell]:
    """The label of a row and what stands behind it, in one cell or two; blank for another row."""
    filled = [cell for cell in row if cell_text(cell)]
    if len(filled) == 1 and isinstance(filled[0], str):
        label, colon, value = filled[0].partition(":")
        return (label.strip(), value.strip()) if colon else ("", "")
    if len(filled) == 2 and isinstance(filled[0], str):
        return filled[0].strip(" :"), filled[1]
    return "", ""
