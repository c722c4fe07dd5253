"""Months that head columns or rows, each with the year that it or what stands above it says."""

import datetime as dt
import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.yearsabove import year_above
from nomarium.reading.layouts.headdates import month_named
from nomarium.reading.layouts.layout import Top
from nomarium.sheets.sheet import Row, cell_text

Month = tuple[int, int]
"""(year, month)"""
_LETTERS = "JFMAMJJASOND"
_MOST_YEARS = 2
"""Years between the first and the last month of a drawing, at most."""

_CLOCK = re.compile(
    r"(?i)(?P<day>.*?\S)[\s,–-]+(?P<time>(?:at\s+)?\d{1,2}(?:[:.]\d\d(?:\s?[ap]\.?m\.?)?|\s?[ap]\.?m\.?)(?:\s*(?:[-–—]|to)\s*\d.*)?|\d{1,2}(?:[:.]\d\d)?\s?[-–—]\s?\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m\.?)"
)


def month_head(cell: Cell, lexicon: Lexicon) -> tuple[int | None, int] | None:
    """The month that a heading is, with its year when it says it; None for any other."""
    if isinstance(cell, dt.date):
        return (cell.year, cell.month) if cell.day == 1 else None
    text = cell_text(cell) if isinstance(cell, str) else ""
    return month_named(text, lexicon) if 2 < len(text) <= 20 else None


def months_across(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, tuple[int | None, int]]:
    """Column → month of the headings of a row that are months; nothing where their years are far apart: `Nov 3` and `Nov 10` are
    days of one year."""
    found = {n: month for n, cell in enumerate(row) if (month := month_head(cell, lexicon)) is not None}
    years = [year for year, _ in found.values() if year is not None]
    return found if not years or max(years) - min(years) <= _MOST_YEARS else {}


def months_by_letter(row: Sequence[Cell]) -> dict[int, tuple[int | None, int]]:
    """The twelve months that head neighbouring columns with their first letters, from any of them on; nothing otherwise.

    >>> months_by_letter(["Task", *"SONDJFMAMJJA"])[1]
    (None, 9)
    """
    at = [n for n, cell in enumerate(row) if n and isinstance(cell, str) and len(cell.strip()) == 1]
    letters = "".join(cell_text(row[n]) for n in at).upper()
    first = (_LETTERS * 2).find(letters) if len(letters) == len(_LETTERS) else -1
    if first < 0 or at[-1] - at[0] != len(_LETTERS) - 1:
        return {}
    return {n: (None, (first + after) % len(_LETTERS) + 1) for after, n in enumerate(at)}


def with_years(
    top: Top, months: Sequence[tuple[int | None, int]], above: Sequence[Row]
) -> list[Month] | Problem:
    """The months in their order, each in its year: its own, that of the one before it, or what stands above them all.

    A month that is smaller than the one before it is in the next year.
    """
    year = _first_year(top, months, above)
    if year is None:
        place = top.sheet.place(above[-1][0] if above else None)
        message = f"{top.sheet.title} is drawn by months, and nothing says of which year."
        return Problem("month-unnamed", message, "Say which: --school-year 2026:2027.", place)
    found: list[Month] = []
    for own, month in months:
        year = own if own is not None else year + (bool(found) and month < found[-1][1])
        found.append((year, month))
    return found


def _first_year(top: Top, months: Sequence[tuple[int | None, int]], above: Sequence[Row]) -> int | None:
    first = months[0][1]
    if months[0][0] is not None:
        return months[0][0]
    if top.options.school_year is not None:
        low, high = top.options.school_year
        fitting = [
            y for y in range(low.year, high.year + 1) if low.replace(day=1) <= dt.date(y, first, 1) <= high
        ]
        return fitting[0] if len(fitting) == 1 else None
    title_rows = tuple(number for number, _ in above)
    head = TableHead((), title_rows[-1] + 1 if title_rows else 1, (), title_rows)
    said = year_above(top.sheet, head)
    return None if said is None else said.of_month(first)


def day_and_clock(text: str) -> tuple[str, str]:
    """A day of a month without the clear time behind it, and this; blank where there is none.

    >>> day_and_clock("Mon 14, 7pm"), day_and_clock("Sat 26"), day_and_clock("14-16")
    (('Mon 14', '7pm'), ('Sat 26', ''), ('14-16', ''))
    """
    match = _CLOCK.fullmatch(text.strip())
    return (match["day"].strip(" ,"), match["time"]) if match is not None else (text, "")
