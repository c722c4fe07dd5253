"""What the rows of a programme leave open: a time between rows that have one, and the day below `Day 2`."""

import re
from collections.abc import Iterator, Sequence
from itertools import groupby, islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.columns.columnnotes import called, letter_of
from nomarium.reading.columns.table import TableReading
from nomarium.sheets.sheet import Row, cell_text

_LATER_DAY: Final = r"(?i)\W*(?:day|jour|tag|d[ií]a|giorno|dag)\s?(?:[2-9]|\d\d|two|three|four|five)\b.*|\W*(?:2nd|3rd|4th|second|third|fourth|next|following|last) day\b.*"
_SAYING_HOW_LONG: Final = frozenset(("end", "duration", "all-day", "end-date", "repeat"))


def with_gaps_asked(table: TableReading) -> TableReading:
    """The table with what its rows leave open told or asked about."""
    day = _day_unheard(table)
    return _with_times_asked(table if day is None else table._replace(problems=(*table.problems, day)))


def _day_unheard(table: TableReading) -> Problem | None:
    """A problem of a row that heads others by their day alone, `Day 2`, which have the date of those above it."""
    marks = [(number, text) for number, text in table.lines if re.fullmatch(_LATER_DAY, text)]
    dated = [c.at for c in table.columns if c.has_days]
    if not marks or (dated and not table.sheet.dates_above):
        return None
    rows = [
        (number, tuple(_cell(row, at) for at in dated))
        for number, row in islice(table.rows(), MOST_TABLE_ROWS)
        if sum(map(bool, map(cell_text, row))) > 1
    ]
    for mark, text in marks:
        above = [day for number, day in rows if number < mark]
        below = [day for number, day in rows if number > mark]
        if above and below and above[-1] == below[0]:
            message = (
                "The row heads others by their day alone, and these would be on the day of those above it."
            )
            return Problem(
                "day-unknown",
                message,
                "Write the date itself: “Sat 16 January 2027”.",
                table.sheet.place(mark),
                text,
            )
    return None


def _with_times_asked(table: TableReading) -> TableReading:
    """The table with a problem of the first such row of a programme, whose date is written once over all rows of its day; with a note
    where each row has its own."""
    columns = table.columns
    times = [c for c in columns if c.field in ("time", "start") and not c.has_days]
    title = table.column("summary")
    if len(times) != 1 or not times[0].blank or times[0].filled < 2 or title is None:
        return table
    found = list(islice(_between(table, times[0].at, title.at), MOST_TABLE_ROWS))
    if not found:
        return table
    number, row = found[0]
    place, text = table.sheet.place(number, times[0].at, times[0].heading), cell_text(row[title.at])
    if table.sheet.dates_above or table.options.fill_down:
        name = times[0].heading or letter_of(table.sheet, times[0])
        message = f"“{text}” has no time, and stands between rows of its day that have one."
        remedy = f'Give it its time, or “all day”; or, if a time written once holds for the rows below it: --fill-down "{name}".'
        return table._replace(problems=(*table.problems, Problem("time-between", message, remedy, place)))
    message = f"{counted(len(found), 'row has', 'rows have')} nothing in {called(table.sheet, times[0])} between rows of the same day that have a time, and last all day: “{text}”."
    told = note("time-between", message, "If they do not, give them their time.")
    return table._replace(notes=(*table.notes, told.at(place)))


def _between(table: TableReading, time_at: int, title_at: int) -> Iterator[Row]:
    dated = [c.at for c in table.columns if c.has_days]
    others = [c.at for c in table.columns if c.field in _SAYING_HOW_LONG]

    def day(one: Row) -> tuple[Cell, ...]:
        return tuple(_cell(one[1], at) for at in dated)

    rows = (one for one in islice(table.rows(), MOST_TABLE_ROWS) if cell_text(_cell(one[1], title_at)))
    for _, group in groupby(rows, day):
        of_day = list(group)
        has_time = [bool(cell_text(_cell(row, time_at))) for _, row in of_day]
        for n, (number, row) in enumerate(of_day):
            is_said = any(cell_text(_cell(row, at)) for at in others)
            if (
                not (has_time[n] or is_said or is_off(cell_text(row[title_at])))
                and any(has_time[:n])
                and any(has_time[n:])
            ):
                yield number, row


def _cell(row: Sequence[Cell], at: int) -> Cell:
    return row[at] if at < len(row) else ""
