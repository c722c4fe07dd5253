"""Grids with their times across and a row for each date and place: bookings of rooms, `Date | Room | 9:00 | 10:00`."""

from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.grid import read_grid
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, RowsAgain, cell_text, is_blank

_HEAD_ROWS: Final = 12
_LEAST: Final = 2
"""Times across, at least."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as such a grid, or say why it is none."""
    found = _places_in(top)
    if found is None:
        message = f"{top.sheet.title} has no times over rows of dates and places."
        return not_read(top.sheet, "no-grid", "it is no grid", "grid-none", message)
    number, at = found

    def rows() -> Iterator[Row]:
        date: Cell = ""
        for n, row in top.sheet.rows():
            if n <= number:
                yield n, ["" if column == at else cell for column, cell in enumerate(row)]
                continue
            if len(row) <= at or not cell_text(row[at]):
                yield n, row
                continue
            date = row[at - 1] if cell_text(row[at - 1]) else date  # written once for all its places
            yield n, [*row[: at - 1], date, *_placed(row, at)[at:]]

    return read_grid(top.sheet._replace(read_rows=RowsAgain(rows)), top.options)


def _places_in(top: Top) -> tuple[int, int] | None:
    """The number of the row of times, and the column of places right of the dates; None where there are none."""
    filled = [(number, row) for number, row in top.rows if not is_blank(row)]
    for index, (number, row) in enumerate(filled[:_HEAD_ROWS]):
        headed = [n for n, cell in enumerate(row) if cell_text(cell)]
        at = next((n for n in headed if _heads_places(row[n])), None)
        if at is None or at != headed[0] + 1 or len(headed) - 2 < _LEAST:
            continue
        are_times = all(time_of(row[n]) is not NOTHING for n in headed[2:])
        below = [cells for _, cells in filled[index + 1 :] if len(cells) > at and cell_text(cells[at])]
        dates = [cells[headed[0]] for cells in below]
        are_dated = bool(dates and cell_text(dates[0])) and all(
            looks_like_date(cell, top.lexicon) for cell in filter(cell_text, dates)
        )
        are_open = not any(
            "\n" in cell_text(cell) or "@" in cell_text(cell) for cells in below for cell in cells
        )
        return (number, at) if are_times and are_dated and are_open else None
    return None


def _heads_places(cell: Cell) -> bool:
    match = match_exactly(cell_text(cell))
    return match is not None and match.field in ("location", "room")


def _placed(row: Sequence[Cell], at: int) -> list[Cell]:
    """A row without its place, which each of its entries has instead."""
    place = cell_text(row[at]) if at < len(row) else ""
    return [
        "" if n == at else f"{text} @ {place}" if n > at and place and (text := cell_text(cell)) else cell
        for n, cell in enumerate(row)
    ]
