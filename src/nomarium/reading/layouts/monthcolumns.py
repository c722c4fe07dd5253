"""Lists side by side, one under each month: `Jan | Feb` over `4 Term begins | 1 Talk`."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.wording import MONTHS
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import months_across, with_years
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEADINGS: Final = ("Date", "Title")
_ENTRY: Final = re.compile(
    r"(?:(?P<weekday>[^\W\d_]{2,9})\.?,?\s+)?(?P<first>\d{1,2})(?:st|nd|rd|th|\.)?(?:\s?[-–—]\s?(?P<last>\d{1,2})(?:st|nd|rd|th)?)?"
    r"(?=[\s:,–—-])\s*[:,–—-]?\s*(?P<title>[^\W\d_].*|\d.*[^\W\d_]{2}.*)"
)
"""A day, or days, of the month above, and what is on."""


class _Drawing(NamedTuple):
    head: int
    """The index of the row of months."""
    months: dict[int, tuple[int | None, int]]
    """Column → its month, with its year where it says one."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as lists under months side by side, or say why it is none."""
    rows = list(top.sheet.rows())
    drawing = _drawing(rows, top)
    if drawing is None:
        message = f"{top.sheet.title} has no months side by side over days and what is on."
        return not_read(top.sheet, "no-months", "it has no months over days", "date-column-missing", message)
    years = with_years(top, list(drawing.months.values()), rows[: drawing.head])
    if isinstance(years, Problem):
        return NotRead(top.sheet, "month-unnamed", "nothing says which year it is", years)
    found: list[Row] = [*rows[: drawing.head], (rows[drawing.head][0], _HEADINGS)]
    for column, (year, month) in zip(drawing.months, years, strict=True):
        for number, row in rows[drawing.head + 1 :]:
            for line in cell_text(row[column] if column < len(row) else "").splitlines():
                if (match := _ENTRY.fullmatch(line.strip())) is not None:
                    found.append((number, (_date_of(match, f"{MONTHS[month - 1]} {year}"), match["title"])))
    message = f"Read as lists side by side, one under each month of row {rows[drawing.head][0]}, from {MONTHS[years[0][1] - 1]} {years[0][0]} on."
    told = note("layout-month-columns", message).at(top.sheet.place())
    listed = top.sheet._replace(
        read_rows=lambda: sorted(found, key=lambda one: one[0]), merged=(), notes=(*top.sheet.notes, told)
    )
    options = top.options._replace(header_row=rows[drawing.head][0])
    return list_in(Top(listed, options, top.is_whole), listed, top.seen)


def _date_of(match: re.Match[str], month: str) -> str:
    days = match["first"] + (f"–{match['last']}" if match["last"] else "")
    return f"{match['weekday'] or ''} {days} {month}".strip()


def _drawing(rows: Sequence[Row], top: Top) -> _Drawing | None:
    """The months that head the columns; None where a cell below them is no day with what is on."""
    for at, (_, row) in enumerate(rows[:10]):
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        months = months_across(row, top.lexicon)
        if len(months) < 2 or len(months) < len(filled):
            continue
        if not all((a[1] - b[1]) % 12 in (0, 11) for a, b in pairwise(months.values())):
            return None  # the months do not follow each other
        cells = [
            line.strip()
            for _, below in rows[at + 1 :]
            if not is_blank(below)
            for cell in below
            for line in cell_text(cell).splitlines()
            if line.strip()
        ]
        is_such = cells and all(_ENTRY.fullmatch(text) for text in cells)
        beside = any(
            cell_text(cell) for _, below in rows[at + 1 :] for n, cell in enumerate(below) if n not in months
        )
        return _Drawing(at, months) if is_such and not beside else None
    return None
