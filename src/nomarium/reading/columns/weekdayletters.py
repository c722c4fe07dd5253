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
_FROM_SUNDAY: Final = ("smtwtfs", "dlmmjvs", "dlmxjvs")
"""A whole week that begins on a Sunday: in English, French and Spanish."""
_HEAD_ROWS: Final = 20

Named = tuple[int, Sequence[str]]
"""The first of some columns, and the weekdays of them."""


def with_weekdays_of_letters(sheet: Sheet) -> Sheet:
    """The sheet with the names of weekdays in the place of their letters, where a row of its top has these; and a note of it."""
    top = islice(sheet.rows(), _HEAD_ROWS)
    found = next(((number, *named) for number, row in top if (named := _week_in(row)) is not None), None)
    if found is None:
        return sheet
    head, first, names = found

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [*row[:first], *names, *row[first + len(names) :]] if number == head else row

    message = f"The letters that head columns of row {head} are read as {names[0]} to {names[-1]}."
    told = note("weekday-letters", message, "If they are not, write other headings.").at(
        sheet.place(head, first)
    )
    return sheet._replace(read_rows=RowsAgain(rows), notes=(*sheet.notes, told))


def _week_in(row: Sequence[Cell]) -> Named | None:
    """Where a row has the letters of a week and no other beside them, and its weekdays."""
    letters = "".join(text.casefold() if len(text := cell_text(cell)) == 1 else " " for cell in row)
    for run in letters.split():
        at = letters.index(run)
        if run in _FROM_SUNDAY:
            return at, (WEEKDAYS[-1], *WEEKDAYS[:-1])
        if run[:5] in _WEEKS and run[5:] in _WEEKENDS:
            return at, WEEKDAYS[: len(run)]
    return None
