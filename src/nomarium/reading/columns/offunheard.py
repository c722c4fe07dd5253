"""Columns of something else that say of some rows that they are not held: each stops the table."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.event import FACETS
from nomarium.model.problem import Problem
from nomarium.reading.cells.choices import says_not_held
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import called
from nomarium.reading.columns.whenwords import is_of_record
from nomarium.sheets.sheet import Sheet, cell_text

_SCORE: Final = r"\d{1,3}\s?[-–:]\s?\d{1,3}"
_NO_SCORE: Final = r"(?i)p\s?[-–/.]?\s?p\.?|ppd\.?|w\s?[/.]\s?o\.?"
"""What stands among scores for a match that was put off, or that one side did not come to."""
_DEAF: Final = frozenset((*FACETS, "categories", "attendees", "organizer", "audience"))
"""Fields whose cells say who comes, or of what kind something is."""


def rows_called_off(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]
) -> dict[int, Problem]:
    """A problem for each column that nothing uses, or that says who or of what kind, and of which nobody said what it is, where a
    cell says no more than that its row is cancelled or postponed, `Score` over `2-1` and `Postponed`."""
    found: dict[int, Problem] = {}
    if any(column.field == "status" for column in columns):
        return found  # what is said elsewhere is of something else, a payment say
    for column in columns:
        is_deaf = (column.is_ignored or column.field in _DEAF) and column.how != "asked"
        if not is_deaf or not column.heading or not column.filled or is_of_record(column.heading):
            continue
        texts = (cell_text(row[column.at]) for row in rows if column.at < len(row) and row[column.at])
        held = list(texts)
        are_scores = any(text[:1].isdigit() and re.fullmatch(_SCORE, text) for text in held)
        said = next((text for text in held if says_not_held(text)), "")
        said = said or next((text for text in held if are_scores and re.fullmatch(_NO_SCORE, text)), "")
        if said:
            message = (
                f"The column {called(sheet, column)} says that rows are not held, and is not heard: “{said}”."
            )
            hear = (
                f'To hear it, and to keep what else it says: --column "{column.heading}=description"'
                if column.is_ignored
                else "Write it into a column Status, or into the notes of its row"
            )
            if re.fullmatch(_NO_SCORE, said):
                hear = f"If its match was put off, write “Postponed”, and then: {hear.partition(': ')[2]}"
            remedy = f'{hear}; if it says nothing of the rows: --column "{column.heading}={column.field}".'
            place = sheet.place(None, column.at, column.heading)
            found[column.at] = Problem("column-called-off", message, remedy, place)
    return found
