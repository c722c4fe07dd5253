"""Days and months that another country's settings have exchanged when a file was opened.

An application that expects the month first makes 09/07/2026 a real date, 7 September for 9 July, and leaves
14/09/2026 the text it was: what is real has no day over 12, and what is text always has one.
"""

import datetime as dt
import re
from collections.abc import Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.columns.column import Column
from nomarium.reading.options import Swapped
from nomarium.sheets.sheet import Sheet

_FIGURES = r"(?s)\s*(\d{1,2})[./-](\d{1,2})[./-](?:\d\d)?\d\d(?!\d).*"
_FEWEST = 2
"""So many real dates there must be, all of them without a day over 12."""


def swapped_dates(
    sheet: Sheet, columns: Sequence[Column], rows: Mapping[tuple[Cell, ...], int], asked: Swapped
) -> list[Problem]:
    """A problem for a table whose real dates look exchanged, until somebody has said whether they are. `rows` are the
    distinct cells of the date columns, and the number of the first row that has them."""
    if asked:
        return []
    for n, column in enumerate(columns):
        cells = [(row[n], number) for row, number in rows.items()]
        real = [(cell, number) for cell, number in cells if isinstance(cell, dt.date)]
        if len(real) < _FEWEST:
            continue
        texts = [
            match for cell, _ in cells if isinstance(cell, str) and (match := re.fullmatch(_FIGURES, cell))
        ]
        if (
            texts
            and all(cell.day <= 12 for cell, _ in real)
            and any(cell.day != cell.month for cell, _ in real)
            and all((int(match[1]) > 12) != (int(match[2]) > 12) for match in texts)
        ):
            return [_problem(sheet, column, *next((c, r) for c, r in real if c.day != c.month), texts[0][0])]
    return []


def _problem(sheet: Sheet, column: Column, cell: dt.date, row: int, text: str) -> Problem:
    other = _exchanged(cell)
    message = (
        f"Days and months may be exchanged: “{text.strip()}” is still text, and no real date of the column has a day over "
        f"12, as when a file is opened under another country's settings. This one is {cell.day} {cell:%B} or {other.day} {other:%B}."
    )
    remedy = "Say --swapped yes to exchange them back, or --swapped no when they are right."
    return Problem(
        "dates-swapped", message, remedy, sheet.place(row, column.at, column.heading), str(cell)[:10]
    )


def exchanged_back(cell: dt.date) -> dt.date | Refusal:
    """A real date with its day and month exchanged; one whose day is no month cannot have been exchanged."""
    if cell.day > 12:
        message = f"{cell:%Y-%m-%d} cannot have been exchanged: there is no month {cell.day}."
        return Refusal("dates-swapped", message, "Leave --swapped yes out, or correct the date.")
    return _exchanged(cell)


def _exchanged(cell: dt.date) -> dt.date:
    return cell.replace(month=cell.day, day=cell.month)
