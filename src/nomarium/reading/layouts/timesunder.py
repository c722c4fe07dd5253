"""Dates across over pairs of columns, `Time` and what is on then: each time goes into the cell that it is of."""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.headdates import heads_dates
from nomarium.reading.layouts.layout import Top
from nomarium.sheets.sheet import Row, RowsAgain, cell_text, is_blank

_HEAD_ROWS: Final = 12
_LEAST: Final = 2
"""Dates, and columns of times below them."""


def with_times_joined(top: Top) -> Top:
    """The top of a sheet, with the times of such pairs in the cells right of them; the sheet's own where it has none."""
    found = _pairs_in(top)
    if found is None:
        return top
    number, times = found

    def rows() -> Iterator[Row]:
        for n, row in top.sheet.rows():
            if n == number:  # what heads the columns of a date besides is the same under each
                yield n, ["" if at >= min(times) else cell for at, cell in enumerate(row)]
            elif n > number:
                yield n, _joined(row, times)
            else:
                yield n, row

    return Top(top.sheet._replace(read_rows=RowsAgain(rows), merged=()), top.options, top.is_whole)


def _pairs_in(top: Top) -> tuple[int, list[int]] | None:
    """The number of the row that heads pairs of columns below dates, and its columns of times; None where none does."""
    filled = [(number, row) for number, row in top.rows[:_HEAD_ROWS] if not is_blank(row)]
    for (_, dates), (number, row) in pairwise(filled):
        days = [n for n, cell in enumerate(dates) if heads_dates([cell], top.lexicon)]
        if len(days) < _LEAST or any(cell_text(cell) for cell in row[: days[0]]):
            continue
        times = [n for n, cell in enumerate(row) if _heads_times(cell)]
        others = [n for n, cell in enumerate(row) if cell_text(cell) and n not in times]
        if len(times) >= _LEAST and others == [n + 1 for n in times] and times == days:
            return number, times
    return None


def _heads_times(cell: Cell) -> bool:
    match = match_exactly(cell_text(cell)) if cell_text(cell) else None
    return match is not None and match.field in ("time", "start")


def _joined(row: Sequence[Cell], times: Sequence[int]) -> list[Cell]:
    cells = list(row)
    for n in times:
        if n < len(cells) and cell_text(cells[n]):
            entry = cell_text(cells[n + 1]) if n + 1 < len(cells) else ""
            cells[n] = f"{cell_text(cells[n])} {entry}".strip()
        elif n + 1 < len(cells):
            cells[n] = cells[n + 1]
        if n + 1 < len(cells):
            cells[n + 1] = ""
    return cells
