"""Times whose half of the day stands in a column of its own, `9:00` and `AM`: both in one."""

import datetime as dt
import re
from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.table import TableReading
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HALVES: Final = frozenset(("am", "pm"))
_HEADING: Final = re.compile(r"am\W*(?:or|/)?\W*pm", re.IGNORECASE)
_TIMED: Final = ("time", "start", "end")


def with_halves(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with `9:00 AM` for the cells of a time and of the half beside it; None where no column is one of halves."""
    pairs = {}
    for before, column in zip(table.columns, table.columns[1:], strict=False):
        if (
            not column.field
            and column.heading
            and _HEADING.fullmatch(column.heading.strip().replace(".", ""))
        ):
            halves = {_half(text) for text in column.samples}
            if column.how != "asked" and halves and halves <= _HALVES and before.field in _TIMED:
                pairs[before.at] = column.at
    if not pairs:
        return None
    heads = table.head.header_rows

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, row if number in heads else _joined(row, pairs)

    named = listed([f"“{table.columns[at].heading}”" for at in pairs])
    message = f"The halves of the day beside {named} are those of its times."
    told = note("halves-joined", message).at(sheet.place())
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, told))


def _half(cell: Cell) -> str:
    return fold(cell_text(cell)).replace(".", "").replace(" ", "")


def _joined(row: Sequence[Cell], pairs: dict[int, int]) -> list[Cell]:
    cells = list(row)
    for at, half_at in pairs.items():
        half = _half(cells[half_at]) if half_at < len(cells) else ""
        if half in _HALVES and cell_text(cells[at]):
            time = cells[at]
            clock = (
                f"{(time.hour - 1) % 12 + 1}:{time.minute:02}"
                if isinstance(time, dt.time)
                else cell_text(time)
            )
            cells[at], cells[half_at] = f"{clock} {half}", ""
    return cells
