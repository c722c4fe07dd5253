"""Columns that are no part of a drawing: told, never dropped in silence."""

from collections.abc import Collection, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.sheets.sheet import Row, Sheet, cell_text


def unused_columns(
    sheet: Sheet, headings: Sequence[Cell], rows: Sequence[Row], used: Collection[int]
) -> list[Problem]:
    """A note of the columns that hold something and are no part of a drawing, by their headings or their letters."""
    filled = [
        at
        for at in range(len(headings))
        if at not in used and any(at < len(row) and cell_text(row[at]) for _, row in rows)
    ]
    names = [
        f"“{cell_text(headings[at])}”" if cell_text(headings[at]) else column_letter(at + sheet.first_column)
        for at in filled
    ]
    if not names:
        return []
    message = f"Not used: the column{'s' if len(names) > 1 else ''} {', '.join(names)}."
    return [note("column-unused", message).at(sheet.place())]
