"""Drawings without days: a row a teacher, room or class and the periods across, or turned, which are held on every school day."""

import re
from collections.abc import Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.weeks import is_numbered_week
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.layouts.namedslots import is_break
from nomarium.reading.rows.sectiondate import date_of_title
from nomarium.school.datewords import looks_like_date
from nomarium.school.daycolumns import are_ticks
from nomarium.school.daysheets import day_of
from nomarium.school.drawncells import DrawnWeek, Grid
from nomarium.school.drawnheads import heads_names
from nomarium.school.drawnlines import Slot, is_time, slot_in
from nomarium.school.timedlists import is_timed_list
from nomarium.school.turning import turn, turned
from nomarium.school.widerows import take_wide
from nomarium.sheets.sheet import Row, Sheet, cell_text

WHY_DAILY: Final = "periods across a row for each teacher, room or group"
_HEAD_ROWS: Final = 12
_TOP_ROWS: Final = 400
_LEAST_PERIODS: Final = 2
_SCHOOL_DAYS: Final = 5


def daily_week(sheet: Sheet) -> DrawnWeek | None:
    """The classes of a sheet that is called after no day and has its periods or times on one side, names of teachers, rooms or groups under a heading that
    says so on the other, and no day; None for any other. They have no label: they meet on every one."""
    rows = list(islice(sheet.rows(), _TOP_ROWS + 1))
    if len(rows) > _TOP_ROWS or day_of(sheet.name) or is_timed_list(rows):
        return None
    return _across(Grid(sheet, rows)) or _across(Grid(turned(sheet, rows), turn(rows), sheet))


def told_daily(sheet: Sheet) -> Problem:
    """A note that nothing on a sheet says on which days its classes meet."""
    message = "Nothing here says on which days its classes meet: they meet on every school day."
    return note("every-day", message, "If they meet on some, give the sheet a column Day.").at(sheet.place())


def _across(grid: Grid) -> DrawnWeek | None:
    for at, (_, row) in enumerate(grid.rows[:_HEAD_ROWS]):
        under = _periods_of(row)
        if not under or not any(heads_names(grid.filled(at, c)) for c in range(min(under))):
            continue
        below = _with_times_below(grid, at, under)[1].stop
        if _says_when(grid.rows[:at], grid.rows[below:], under):
            return None
        found = DrawnWeek([], [], [], [], 0, [], [], [], [])
        found.others.extend(grid.rows[:at])
        days = {min(under): ()}
        under, heads = _with_times_below(grid, at, under)
        idle, unused = take_wide(found, grid, heads, len(grid.rows), days, under, "")
        if any(held.week for held in found.held):  # weeks that take turns are weeks of weekdays
            found.held[:] = [held._replace(labels=WEEKDAYS[:_SCHOOL_DAYS]) for held in found.held]
        return found._replace(idle=idle, unused=unused) if found.held else None
    return None


def _with_times_below(grid: Grid, at: int, under: dict[int, Slot]) -> tuple[dict[int, Slot], range]:
    """The periods of row `at` with the times that the row below says of each, and the rows of these headings."""
    row = grid.rows[at + 1][1] if at + 1 < len(grid.rows) else ()
    has_names = any(cell_text(cell) for cell in row[: min(under)])
    timed = {
        n: slot_in(n, [slot.heading, row[n]]) for n, slot in under.items() if n < len(row) and is_time(row[n])
    }
    slots = {n: slot for n, slot in timed.items() if slot is not None}
    if has_names or slots.keys() != under.keys():
        return under, range(at, at + 1)
    return slots, range(at, at + 2)


def numbers_periods(sheet: Sheet) -> bool:
    """Whether a sheet is such a drawing of periods by their names or numbers: times alone may be those of one evening, letters
    alone groups, and over numbered weeks its classes are no daily ones."""
    week = daily_week(sheet)
    if week is None or any(is_numbered_week(cell_text(cell)) for _, row in sheet.rows() for cell in row):
        return False
    slots = [slot for slots in week.slots for slot in slots]
    are_letters = all(re.fullmatch(r"[A-Za-z]", cell_text(slot.heading)) for slot in slots)
    return all(slot.period for slot in slots) and not are_letters


def _periods_of(row: Sequence[Cell]) -> dict[int, Slot]:
    """Column → the period or time that heads it, of a row in which nothing but breaks stands between them; none of any other."""
    texts = {n: text for n, cell in enumerate(row) if (text := cell_text(cell))}
    slots = {n: slot for n, text in texts.items() if (slot := slot_in(n, [text])) is not None}
    taught = [slot for slot in slots.values() if not is_break(cell_text(slot.heading))]
    are_several = len({(slot.period, slot.time) for slot in taught}) == len(taught) >= _LEAST_PERIODS
    is_whole = are_several and all(n in slots for n in texts if n > min(slots))
    return slots if is_whole else {}


def _says_when(above: Sequence[Row], below: Sequence[Row], under: dict[int, Slot]) -> bool:
    """Whether a drawing is of some date, or its cells are times, dates, marks or numbers and no classes."""
    titles = [cell for _, row in above for cell in row if cell_text(cell)]
    cells = [row[n] for _, row in below for n in under if n < len(row) and cell_text(row[n])]
    are_numbers = sum(re.fullmatch(r"[\d.,%]+", cell_text(cell)) is not None for cell in cells) * 2 > len(
        cells
    )
    return (
        any(date_of_title(cell, ENGLISH) for cell in titles)
        or are_ticks(cells)
        or are_numbers
        or any(looks_like_date(cell) or is_time(cell) for cell in cells)
    )
