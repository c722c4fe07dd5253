"""Rosters of weekdays across, names or posts down: the week that they are of stands in the title, above each part, at the head of
the names, in a column beside them, or is said by `--day-one`."""

import datetime as dt
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import begins_week, looks_like_date
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.columns.table import fill_down_columns, filled_rows
from nomarium.reading.layouts import roster
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.weekdays import dated_weekdays, dates_of_weekdays
from nomarium.reading.layouts.weektitles import week_of
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_OTHERS = 3
"""Columns beside the weekdays, at most: a week, a name, a sum."""


class WeekColumn(NamedTuple):
    """A column of weeks beside one of names."""

    at: int
    head: int
    """The number of the row of weekdays."""
    heading: str


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a roster whose weekdays get the dates of their week, or say why it is none."""
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    lexicon = top.of_both
    column = week_column(rows, lexicon)
    dated = dated_weekdays(top, lexicon) if column is None else _dated(top, column, lexicon)
    if isinstance(dated, Problem):
        return NotRead(top.sheet, "day-unnamed", "a row has no week", dated)
    if dated is not None:
        return roster.look(Top(dated, top.options, True))
    message = f"{top.sheet.title} has no weekdays that a week could date."
    return not_read(top.sheet, "no-weekdays", "it has no weekdays", "date-column-missing", message)


def week_column(rows: Sequence[Row], lexicon: Lexicon) -> WeekColumn | None:
    """The column of weeks of a table that has several rows for a week, one for each name; None for another table."""
    head = next(
        (at for at, (_, row) in enumerate(rows) if len(weekday_columns(row, lexicon, _OTHERS)) > 1), None
    )
    if head is None:
        return None
    before = min(weekday_columns(rows[head][1], lexicon, _OTHERS))
    below = [row for _, row in rows[head + 1 :]]
    filled = {at: [row[at] for row in below if at < len(row) and cell_text(row[at])] for at in range(before)}
    weeks = [at for at, cells in filled.items() if cells and all(_is_week(cell, lexicon) for cell in cells)]
    names = [at for at, cells in filled.items() if at not in weeks and len(cells) * 2 > len(below)]
    if len(weeks) != 1 or len(names) != 1 or not all(isinstance(cell, str) for cell in filled[names[0]]):
        return None
    at = weeks[0]
    several = len(set(filled[at])) < len(filled[names[0]]) and len(set(filled[names[0]])) > 1
    return WeekColumn(at, rows[head][0], cell_text(rows[head][1][at])) if several else None


def _is_week(cell: Cell, lexicon: Lexicon) -> bool:
    return looks_like_date(cell, lexicon) or begins_week(cell, lexicon)


def _dated(top: Top, column: WeekColumn, lexicon: Lexicon) -> Sheet | Problem:
    """The sheet with the weekdays, dated, above the rows of each week; what is wrong with the first row without one."""
    sheet, at = top.sheet, column.at
    head = next(row for number, row in sheet.rows() if number == column.head)
    down = fill_down_columns([cell_text(cell) for cell in head], top.options, sheet.first_column)
    weekdays = weekday_columns(head, lexicon, _OTHERS)
    made: list[Row] = []
    week: Cell = ""
    first: dt.date | None = None
    for number, row in filled_rows(sheet, sheet.rows(), down):
        if number <= column.head or is_blank(row):
            continue
        cell = row[at] if at < len(row) else ""
        text, place = cell_text(cell), sheet.place(number, at, column.heading)
        if not text:
            remedy = (
                f'If a week written once holds for the rows below it: --fill-down "{column.heading or "A"}".'
            )
            return Problem("date-missing", "The row has a name and no week.", remedy, place)
        if cell != week:
            week = cell
            said = text if begins_week(text, lexicon) else f"Week commencing {text}"
            day = week_of([said], weekdays[min(weekdays)], lexicon, top.options)
            if day is None:
                message = f"“{text}” is no day on which its week can begin."
                return Problem(
                    "date-unread", message, "Give the week its first day, like 2026-09-07.", place, text
                )
            first = first or day
            dates = dates_of_weekdays(weekdays, day)
            made.append((number, [dates.get(n, "" if n == at else cell) for n, cell in enumerate(head)]))
        made.append((number, [*row[:at], "", *row[at + 1 :]]))
    told = note("weekdays-dated", f"The weekdays are dated from {first} on (the column “{column.heading}”).")
    notes = (*sheet.notes, told.at(sheet.place()))
    return sheet._replace(read_rows=lambda: made, merged=(), notes=notes, dates_above=True)
