"""Weekdays that head columns as single letters, `M T W T F`: each alone could be two, in their order they are the week."""

from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import WEEKDAYS
from nomarium.sheets.sheet import Row, RowsAgain, Sheet, cell_text

_WEEKS: Final = ("mtwtf", "mdmdf", "lmmjv", "lmxjv", "lmmgv", "mdwdv")
"""The letters of Monday to Friday in English, German, French and Spanish, Spanish, Italian, Dutch."""
_WEEKENDS: Final = ("ss", "sd", "sz", "")
_HEAD_ROWS: Final = 20


def with_weekdays_of_letters(sheet: Sheet) -> Sheet:
    """The sheet with the names of weekdays in the place of their letters, where a row of its top has these; and a note of it."""
    found = next(
        (
            (number, at, count)
            for number, row in islice(sheet.rows(), _HEAD_ROWS)
            for at, count in _week_in(row)
        ),
        None,
    )
    if found is None:
        return sheet
    head, first, count = found

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [*row[:first], *WEEKDAYS[:count], *row[first + count :]] if number == head else row

    message = (
        f"The letters that head columns of row {head} are read as {WEEKDAYS[0]} to {WEEKDAYS[count - 1]}."
    )
    told = note("weekday-letters", message, "If they are not, write other headings.").at(
        sheet.place(head, first)
    )
    return sheet._replace(read_rows=RowsAgain(rows), notes=(*sheet.notes, told))


def _week_in(row: Sequence[Cell]) -> Iterator[tuple[int, int]]:
    """Where a row has the letters of a week, and how many."""
    letters = "".join(text.casefold() if len(text := cell_text(cell)) == 1 else " " for cell in row)
    for week in _WEEKS:
        at = letters.find(week)
        if at >= 0 and (at == 0 or letters[at - 1] == " "):
            end = letters[at + 5 :].partition(" ")[0]
            if end in _WEEKENDS:
                yield at, 5 + len(end)
