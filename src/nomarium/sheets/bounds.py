"""How much of a sheet's rows is read."""

from collections.abc import Iterator, Sequence

from nomarium.model.cell import Cell
from nomarium.model.errors import SourceError
from nomarium.model.limits import MOST_BLANK_ROWS, MOST_COLUMNS
from nomarium.model.problem import Place, Problem
from nomarium.sheets.sheet import Row, is_blank


def bounded(rows: Iterator[Row], name: str, sheet_name: str = "") -> Iterator[Row]:
    """Rows without what is far right of or below all that they hold: blank cells beyond the columns that there may be,
    and of a long run of blank rows all but the first. Raises SourceError for a row that holds more cells than it may."""
    blank_count = 0
    for number, row in rows:
        if len(row) > MOST_COLUMNS:
            row = _trimmed(row, number, name, sheet_name)
        if any(row) or not is_blank(row):
            blank_count = 0
        else:
            blank_count += 1
            if blank_count > MOST_BLANK_ROWS:
                continue
        yield number, row


def _trimmed(row: Sequence[Cell], number: int, name: str, sheet_name: str) -> Sequence[Cell]:
    width = len(row)
    while width and row[width - 1] in ("", None):
        width -= 1
    if width > MOST_COLUMNS:
        message = f"Row {number} of {name} has {width:,} cells, and {MOST_COLUMNS:,} are read at most."
        remedy = "Delete what stands far beside the table, and save it again."
        raise SourceError(Problem("source-beyond", message, remedy, Place(name, sheet_name, number)))
    return row[:width]
