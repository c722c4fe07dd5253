"""Classes whose first and last days stand in one cell, `01/04-04/23`, as exports of sections have them."""

import re
from collections.abc import Iterator
from functools import partial
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_TOP_ROWS: Final = 300
_MOSTLY: Final = 0.8
_PARTED: Final = r"\s*(?:[–—]|\s-\s|\bto\b|\buntil\b|(?<=\d)-(?=\d))\s*"


def ranges_apart(sheet: Sheet) -> Sheet | None:
    """The sheet with the first and the last day of its classes in columns of their own; None where it has no column of both."""
    for number, row in islice(sheet.rows(), _HEAD_ROWS):
        fields = [field_of(cell_text(cell), "timetable") for cell in row]
        if "class" not in fields or {"first", "last"} & set(fields):
            continue
        below = [one for at, one in islice(sheet.rows(), _TOP_ROWS) if at > number]
        for n, field in enumerate(fields):
            cells = [one[n] for one in below if n < len(one) and cell_text(one[n])]
            if (
                field is None
                and cell_text(row[n])
                and cells
                and sum(map(_is_range, cells)) >= _MOSTLY * len(cells)
            ):
                return sheet._replace(read_rows=partial(_in_rows, sheet, number, n))
        return None
    return None


def _is_range(cell: Cell) -> bool:
    """Whether a cell is a first and a last day of weeks, in two parts that are both dates."""
    text = cell_text(cell)
    moment = read_moment(text, "date", ENGLISH) if any(map(str.isdigit, text)) else None
    return isinstance(moment, Moment) and moment.last is not None and len(re.split(_PARTED, text)) == 2


def _in_rows(sheet: Sheet, head: int, column: int) -> Iterator[Row]:
    for number, row in sheet.rows():
        cells = [*row, *[""] * (column + 1 - len(row))]
        if number < head:
            yield number, cells
            continue
        own = [*cells[:column], "", *cells[column + 1 :]]
        if number == head:
            yield number, [*own, "First day", "Last day"]
        else:
            parts = (
                re.split(_PARTED, cell_text(cells[column]))
                if _is_range(cells[column])
                else [cell_text(cells[column]), ""]
            )
            yield number, [*own, *parts]
