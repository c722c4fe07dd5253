"""Lists of the weeks of teaching, each with its number and a date: `1, 7 Sept`, `2, 14 Sept`, `Reading week, 12 Oct`, `6, 19 Oct`."""

import datetime as dt
import re
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import fold
from nomarium.school.datewords import looks_like_date, read_date
from nomarium.school.keydates import NAMELESS
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

WHY_WEEKS: Final = "weeks with their numbers and dates"
_HEADS: Final = r"\b(?:week|wk|semaine|woche|kw|semana|uke|vecka|uge)s?\b"
_NUMBER: Final = (
    r"(?i)(?:(?:teaching\s+)?(?:week|wk|w|semaine|woche|semana|uke|vecka|uge)\.?\s*)?(?P<week>\d{1,2})"
)
_LEAST: Final = 3
_HEAD_ROWS: Final = 10
_WEEK: Final = dt.timedelta(weeks=1)


class NumberedWeeks(NamedTuple):
    """What a list of weeks says of the year."""

    terms: Sheet
    """Its stretches of weeks, as a table of terms."""
    account: Account
    told: Problem
    problems: tuple[Problem, ...] = ()
    """Words beside a week that seem to say that there is no school on some of its days."""


class Uncounted(NamedTuple):
    """A list of weeks whose numbers do not count them."""

    sheet: Sheet
    problem: Problem


class _Week(NamedTuple):
    row: int
    number: int
    date: dt.date

    @property
    def monday(self) -> dt.date:
        return self.date - dt.timedelta(days=self.date.weekday())


def numbered_weeks(sheet: Sheet) -> NumberedWeeks | Uncounted | None:
    """The terms that a list of weeks shows: the weeks of a term count from 1, one after the other, and what stands between them
    without a number is none. None for any other sheet, and for the weeks of the calendar (ISO 8601)."""
    rows = list(sheet.rows())
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        heads = [n for n, cell in enumerate(row) if re.search(_HEADS, fold(cell_text(cell)))]
        if not heads:
            continue
        width = max(len(below) for _, below in rows)
        for numbers in heads:
            for dates in range(width):
                weeks = _weeks(rows[at + 1 :], numbers, dates) if dates != numbers else []
                if len(weeks) >= _LEAST:
                    return _found(sheet, weeks, dates) if _are_counted(weeks) else _uncounted(sheet, weeks)
    return None


def _weeks(rows: Sequence[Row], numbers: int, dates: int) -> list[_Week]:
    """The weeks of two columns; none where these are no numbers and dates."""
    listed_rows = [
        (number, re.fullmatch(_NUMBER, cell_text(row[numbers])), row[dates])
        for number, row in rows
        if max(numbers, dates) < len(row) and cell_text(row[numbers])
    ]
    told = [(number, int(match["week"]), cell) for number, match, cell in listed_rows if match is not None]
    days = _days([cell for _, _, cell in told])
    return [_Week(row, number, day) for (row, number, _), day in zip(told, days, strict=False)]


def _are_counted(weeks: Sequence[_Week]) -> bool:
    """Whether each number follows the one above it, or begins again at 1, and each date is in a later week."""
    return weeks[0].number == 1 and all(
        after.number in (1, before.number + 1) and after.monday > before.monday
        for before, after in pairwise(weeks)
    )


def _uncounted(sheet: Sheet, weeks: Sequence[_Week]) -> Uncounted | None:
    if all(week.number == week.date.isocalendar().week for week in weeks):
        return None
    message = f"{sheet.name or sheet.file} numbers weeks, and its numbers do not go up by one from 1."
    remedy = f'Correct them, or leave the sheet out: --table "{sheet.name or sheet.file}=".'
    return Uncounted(sheet, Problem("weeks-uncounted", message, remedy, sheet.place(weeks[0].row)))


def _days(cells: Sequence[Cell]) -> list[dt.date]:
    """The dates of weeks, of which all begin on one weekday but for the first of a stretch; none where a cell is no date, or where
    the order of its figures is open all the same."""
    if not cells or not all(map(looks_like_date, cells)):
        return []
    readings = list[list[dt.date]]()
    for cell in cells:
        moment = read_date(cell)
        first = moment.first if isinstance(moment, Moment) else None
        found = (
            [day for one in first.readings if one.year is not None and (day := one.date())] if first else []
        )
        if not found:
            return []
        readings.append(found)
    chosen = [found[0] for found in readings]
    if any(len(found) > 1 for found in readings):
        orders = [[found[min(n, len(found) - 1)] for found in readings] for n in range(2)]
        weekly = [
            days for days in orders if len({day.weekday() for day in days}) == 1 and days == sorted(days)
        ]
        if len(weekly) != 1:
            return []
        chosen = weekly[0]
    return chosen


def _found(sheet: Sheet, weeks: Sequence[_Week], dates: int) -> NumberedWeeks:
    terms = list[list[_Week]]()
    for week in weeks:
        if week.number == 1:
            terms.append([])
        terms[-1].append(week)
    rows: list[Row] = [(0, ["Name", "First day", "Last day"])]
    shown = list[str]()
    for n, term in enumerate(terms, start=1):
        name = NAMELESS if len(terms) == 1 else f"{NAMELESS} {n}"
        rows += [
            (first.row, [name, first.date, last.monday + dt.timedelta(6)]) for first, last in _stretches(term)
        ]
        shown.append(f"{counted(len(term), 'week')} from {term[0].date}")
    message = f"{sheet.name or sheet.file} is taken for Terms: {WHY_WEEKS}, {listed(shown)}."
    remedy = f'If it is none: --table "{sheet.name or sheet.file}=".'
    account = Account(f"{sheet.file}, {sheet.name}", is_plan=True)
    ledger, there = account.ledger, [row for number, row in sheet.rows() if number]
    ledger.read, ledger.blank, ledger.events = len(there), sum(map(is_blank, there)), len(weeks)
    ledger.notes = ledger.read - ledger.blank - ledger.events
    as_terms = sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0)
    told = note("table-found", message, remedy).at(sheet.place())
    return NumberedWeeks(as_terms, account, told, tuple(_closed(sheet, weeks, dates)))


def _closed(sheet: Sheet, weeks: Sequence[_Week], dates: int) -> Iterator[Problem]:
    """A problem for each week beside which stands that there is no school."""
    numbers = {week.row: week.number for week in weeks}
    for row, cells in sheet.rows():
        for n, cell in enumerate(cells):
            if row in numbers and n != dates and is_off(cell_text(cell)):
                message = f"“{cell_text(cell)}” beside week {numbers[row]} seems to say that there is no school, and on which days is not read."
                remedy = "List the days in a table Days off, and take the words out here; or take out the week's number."
                yield Problem("weeks-closed", message, remedy, sheet.place(row, n), cell_text(cell))


def _stretches(weeks: Sequence[_Week]) -> list[tuple[_Week, _Week]]:
    """The first and the last of the weeks that follow one another."""
    found = list[tuple[_Week, _Week]]()
    for week in weeks:
        if found and found[-1][1].monday + _WEEK == week.monday:
            found[-1] = found[-1][0], week
        else:
            found.append((week, week))
    return found
