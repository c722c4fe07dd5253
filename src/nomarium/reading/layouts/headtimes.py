"""Lists whose headings say what happens, and whose cells when: `Date`, `Morning prayer`, `Evensong` over times of day."""

from collections.abc import Sequence
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.head import find_head
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.table import data_rows
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import TOP_ROWS, Row, cell_text, is_blank

_HEADINGS: Final = ("Date", "Time", "Title")
_LEAST: Final = 2
"""Columns of times from which on their headings are the titles."""


class _Columns(NamedTuple):
    date: int
    weekday: int | None
    titles: dict[int, str]
    """Column → its heading."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet whose headings are titles, or say why it is none."""
    sheet = top.sheet
    head = find_head(sheet, top.lexicon, top.options.header_row)
    columns = None
    if head is not None and head.header_rows:
        sample = [row for _, row in islice(data_rows(sheet, head), TOP_ROWS) if not is_blank(row)]
        columns = _columns_of(top, head.headings, sample)
    if head is None or columns is None:
        message = f"{sheet.title} has no columns of times under headings that say what happens."
        return not_read(sheet, "no-weekdays", "its headings are no titles", "summary-column-missing", message)
    first = head.header_rows[-1]
    idle = sum(
        is_idle(cell_text(row[at]))
        for _, row in data_rows(sheet, head)
        for at in columns.titles
        if at < len(row)
    )

    def rows() -> list[Row]:
        found: list[Row] = [(first, _HEADINGS)]
        for number, row in data_rows(sheet, head):
            date = row[columns.date] if columns.date < len(row) else ""
            if columns.weekday is not None and isinstance(date, str):
                date = f"{cell_text(row[columns.weekday])} {date}".strip()
            for at, title in columns.titles.items():
                cell = row[at] if at < len(row) else ""
                if cell_text(cell) and not is_idle(cell_text(cell)):
                    found.append((number, (date, cell, title)))
        return found

    named = ", ".join(f"“{title}”" for title in dict.fromkeys(columns.titles.values()))
    message = f"The headings {named} say what happens, and the times below them when."
    told = [note("layout-head-titles", message, "If not: --as events.")]
    if idle:
        told.append(note("slots-idle", f"Cells in which nothing is held (a dash, “closed” …): {idle}."))
    above = [
        (number, " ".join(filter(None, map(cell_text, row))))
        for number, row in islice(sheet.rows(), head.first_row)
        if number in head.title_rows
    ]
    listed = sheet._replace(
        read_rows=rows, merged=(), notes=(*sheet.notes, *(one.at(sheet.place()) for one in told)),
        said_above=(*sheet.said_above, *above),
    )  # fmt: skip
    options = top.options._replace(header_row=first)
    return list_in(Top(listed, options, top.is_whole), listed, top.seen)


def _columns_of(top: Top, headings: Sequence[str], sample: Sequence[Sequence[Cell]]) -> _Columns | None:
    """The columns, where all but the date and its weekday hold times and nothing else; numbers alone may count something."""
    date = weekday = None
    titles: dict[int, str] = {}
    for at, heading in enumerate(headings):
        cells = [row[at] for row in sample if at < len(row) and cell_text(row[at])]
        if not cells:
            continue
        about = Contents(cells, top.lexicon)
        match = match_exactly(heading)
        if about.dates == 1 and date is None:
            date = at
        elif about.weekdays == 1 and weekday is None:
            weekday = at
        elif heading and match is None and all(_is_time(cell) or is_idle(cell_text(cell)) for cell in cells):
            titles[at] = heading
        else:
            return None
    cells = [row[at] for row in sample for at in titles if at < len(row)]
    if (
        date is None
        or len(titles) < _LEAST
        or all(cell_text(cell).isdecimal() or not _is_time(cell) for cell in cells)
    ):
        return None
    return _Columns(date, weekday, titles)


def _is_time(cell: Cell) -> bool:
    return time_of(cell) is not NOTHING
