"""Cells that hold a title and, on lines of their own, its time and its place: a column for each of them."""

from collections.abc import Iterator
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.columns.table import TableReading
from nomarium.sheets.sheet import Row, Sheet

_LOOKED_AT: Final = 40
_LEAST: Final = 2
_SAYING_WHEN: Final = frozenset(("time", "start", "end", "duration", "class"))


def with_cells_apart(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with two more columns, for the times and the places that its cells of titles hold; None where most of these
    cells hold no time on a line of its own, as nearly everywhere."""
    title = table.column("summary")
    if title is None or title.how == "asked" or _SAYING_WHEN & {column.field for column in table.columns}:
        return None
    heads, at = table.head.header_rows, title.at
    first = (row for number, row in islice(sheet.rows(), _LOOKED_AT) if number not in heads)
    lines = [found for row in first if at < len(row) and (found := _lines(row[at]))]
    several = [found for found in lines if len(found) > 1]
    timed = sum(any(map(_is_time, found)) for found in several)
    if timed < _LEAST or timed * 2 < len(lines):
        return None
    width = max(len(table.head.headings), len(table.columns))

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            whole = [*row, *[""] * (width - len(row))]
            if number in heads:
                yield number, [*whole, "Time", "Where"]
            else:
                whole[at], time, place = _apart(whole[at])
                yield number, [*whole, time, place]

    message = (
        "Cells that hold a title, and on lines of their own its time and its place, are a column for each."
    )
    told = note("title-cells", message).at(sheet.place(None, at))
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, told))


def _apart(cell: Cell) -> tuple[Cell, str, str]:
    """The title, the time and the place of a cell."""
    lines = _lines(cell)
    if len(lines) < 2:
        return cell, "", ""
    timed = next((line for line in lines[1:] if _is_time(line)), lines[0] if _is_time(lines[0]) else "")
    time, beside = _time_and_place(timed) if timed else ("", "")
    others = [line for line in lines if line != timed]
    place = beside or (others.pop() if len(others) > 1 and is_place(others[-1]) else "")
    return "\n".join(others), time, place


def _time_and_place(line: str) -> tuple[str, str]:
    """A line that is a time, or one and then a place, `7 PM, Chart room`."""
    from nomarium.reading.layouts.linetimes import time_in  # few lists have such cells

    time, rest = time_in(line)
    return (time, rest) if rest and is_place(rest) else (line, "")


def _lines(cell: Cell) -> list[str]:
    return [line.strip() for line in cell.split("\n") if line.strip()] if isinstance(cell, str) else []


def _is_time(line: str) -> bool:
    """Whether a line is a time that can be nothing else, or says that something lasts all day."""
    from nomarium.reading.layouts.linetimes import reads_as_time  # few lists have such cells

    times = read_times(line)
    is_whole = reads_as_time(line) or (isinstance(times, Times) and times.is_all_day)
    return is_whole or bool(_time_and_place(line)[1])
