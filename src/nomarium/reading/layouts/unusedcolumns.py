"""Columns that are no part of a drawing: told, never dropped in silence."""

from collections.abc import Collection, Iterable, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.reading.cells.choices import says_not_held
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


def called_off_beside(sheet: Sheet, rows: Iterable[Row], used: Collection[int | None]) -> list[Problem]:
    """A problem of each cell beside a drawing, in none of the columns used, that says no more than that its row is not held."""
    found = []
    for number, row in rows:
        for at, cell in enumerate(row):
            text = cell_text(cell) if at not in used else ""
            if says_not_held(text):
                message = "It says that the row is not held, and stands in no column that is read."
                remedy = f"Write it behind each entry of the row that is not held (“… - {text}”), and take it out here."
                found.append(Problem("column-called-off", message, remedy, sheet.place(number, at), text))
    return found
