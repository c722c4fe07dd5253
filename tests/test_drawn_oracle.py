"""Random events, drawn in every layout that can hold them: each drawing comes back as exactly its events, or is refused;
never as others."""

from __future__ import annotations

import calendar
import csv
import datetime as dt
import io
from collections import defaultdict
from collections.abc import Callable
from typing import NamedTuple

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nomarium.model.account import Account
from nomarium.reading.layouts.layout import NotRead
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import read_sheet
from nomarium.sheets.sheet import Row, Sheet

TITLES = [
    "Regatta",
    "Keel laying",
    "Slip inspection",
    "Haul-out",
    "Rope walk",
    "Open day",
    "Sail loft tour",
    "Mast day",
]
POSTS = ["Gate", "Slip", "Loft", "Shed"]
JOBS = ["Bosun", "Coxswain", "Lookout", "Galley"]
PEOPLE = ["R. Finch", "O. Tern", "M. Quill", "J. Avocet", "T. Fenn"]
HOURS = ["09:00-10:00", "10:00-11:00", "11:15-12:15", "13:00-14:30", "15:00-16:00"]
MONTHS = [(2026, 9), (2026, 10), (2026, 11)]
MONDAY = dt.date(2026, 9, 7)

Drawn = list[list[str]]
Facts = set[tuple[str, str, str]]
"""Title, start and exclusive end of each event."""


class Read(NamedTuple):
    facts: Facts
    layout: str
    problems: list[str]
    lost: int
    """Entries that were read and are nowhere in the account."""


def read(table: Drawn, layout: str | None = None) -> Read | None:
    """What the core reads; None when it refuses the table as a whole."""
    text = io.StringIO()
    csv.writer(text).writerows(table)
    rows: list[Row] = [
        (number, list(row)) for number, row in enumerate(csv.reader(io.StringIO(text.getvalue())), 1)
    ]
    sheet = Sheet("drawing.csv", "", lambda: iter(rows))
    reading = read_sheet(sheet, ReadingOptions(zone="America/Halifax", layout=layout), whole=True)
    if isinstance(reading, NotRead):
        return None
    account = Account()
    facts = {(event.summary, f"{event.start}", f"{event.end}") for event in reading.events(account)}
    ledger = account.ledger
    parts = ledger.events + ledger.blank + ledger.notes + ledger.left_out + ledger.rejected
    problems = [problem.message for problem in account.problems]
    return Read(facts, reading.layout, problems, ledger.read - parts)


def all_day(title: str, date: dt.date) -> tuple[str, str, str]:
    return title, f"{date}", f"{date + dt.timedelta(1)}"


def timed(title: str, date: dt.date, hours: str) -> tuple[str, str, str]:
    start, end = hours.split("-")
    return title, f"{date} {start}:00", f"{date} {end}:00"


# -- days with titles ---------------------------------------------------------------------------------------------

DAYS = st.dictionaries(
    st.sampled_from([dt.date(year, month, n) for year, month in MONTHS for n in range(1, calendar.monthrange(year, month)[1] + 1)]),
    st.sampled_from(TITLES), min_size=3, max_size=20,
)  # fmt: skip


def as_wall_in_pairs(days: dict[dt.date, str]) -> Drawn:
    table = [["Planner 2026"], [part for _, month in MONTHS for part in (calendar.month_name[month], "")]]
    for n in range(1, 32):
        row: list[str] = []
        for year, month in MONTHS:
            exists = n <= calendar.monthrange(year, month)[1]
            date = dt.date(year, month, n) if exists else None
            row += [f"{date:%a} {n}" if date else "", days.get(date, "") if date else ""]
        table.append(row)
    return table


def as_wall_with_months_down(days: dict[dt.date, str]) -> Drawn:
    table = [["2026", *map(str, range(1, 32))]]
    for year, month in MONTHS:
        count = calendar.monthrange(year, month)[1]
        cells = [days.get(dt.date(year, month, n), "") if n <= count else "" for n in range(1, 32)]
        table.append([calendar.month_name[month], *cells])
    return table


def as_planner(days: dict[dt.date, str]) -> Drawn:
    table = [["Week beginning", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]]
    first = min(days) - dt.timedelta(min(days).weekday())
    while first <= max(days):
        week = [first + dt.timedelta(n) for n in range(7)]
        table.append([f"{first:%d %B %Y}", *(days.get(date, "") for date in week)])
        first += dt.timedelta(7)
    return table


def as_month(days: dict[dt.date, str]) -> Drawn:
    """Its first month only: see `in_first_month`."""
    year, month = MONTHS[0]
    table = [[f"{calendar.month_name[month]} {year}"], ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]]
    for week in calendar.Calendar().monthdatescalendar(year, month):
        inside = [date if date.month == month else None for date in week]
        table.append([str(date.day) if date else "" for date in inside])
        table.append([days.get(date, "") if date else "" for date in inside])
    return table


def as_list_in_sections(days: dict[dt.date, str]) -> Drawn:
    table: Drawn = [["Event", "Place"]]
    for date in sorted(days):
        table += [[f"{date:%A %d %B %Y}", ""], [days[date], "Slip"]]
    return table


def in_first_month(days: dict[dt.date, str]) -> dict[dt.date, str]:
    return {date: title for date, title in days.items() if (date.year, date.month) == MONTHS[0]}


DRAWINGS: dict[str, tuple[Callable[[dict[dt.date, str]], Drawn], str]] = {
    "a wall planner in pairs": (as_wall_in_pairs, "wall"),
    "a wall planner with months down": (as_wall_with_months_down, "wall"),
    "a planner of weeks": (as_planner, "planner"),
    "a month": (as_month, "month"),
    "sections": (as_list_in_sections, "events"),
}


@pytest.mark.parametrize("name", DRAWINGS)
@settings(max_examples=40, deadline=None)
@given(days=DAYS)
def test_days_come_back_from_every_drawing(name: str, days: dict[dt.date, str]) -> None:
    draw, layout = DRAWINGS[name]
    drawn = in_first_month(days) if layout == "month" else days
    if len(drawn) < 2:
        return
    found = read(draw(drawn))
    assert found is not None
    assert (found.facts, found.problems, found.lost) == (
        {all_day(title, date) for date, title in drawn.items()},
        [],
        0,
    )


@pytest.mark.parametrize("name", [name for name, (_, layout) in DRAWINGS.items() if layout != "events"])
@settings(max_examples=20, deadline=None)
@given(days=DAYS, data=st.data())
def test_dashes_in_a_drawing_are_no_events(name: str, days: dict[dt.date, str], data: st.DataObject) -> None:
    draw, layout = DRAWINGS[name]
    drawn = in_first_month(days) if layout == "month" else days
    if len(drawn) < 4:
        return
    idle = data.draw(st.sets(st.sampled_from(sorted(drawn)), min_size=1, max_size=len(drawn) - 3))
    marks = {date: "–" if date in idle else title for date, title in drawn.items()}
    found = read(draw(marks))
    assert found is not None
    expected = {all_day(title, date) for date, title in drawn.items() if date not in idle}
    assert (found.facts, found.problems, found.lost) == (expected, [], 0)


# -- slots of days ------------------------------------------------------------------------------------------------

SLOTS = st.dictionaries(
    st.tuples(st.integers(0, 4), st.sampled_from(HOURS)), st.sampled_from(TITLES), min_size=3, max_size=15
)


def facts_of(slots: dict[tuple[int, str], str]) -> Facts:
    return {timed(title, MONDAY + dt.timedelta(n), hours) for (n, hours), title in slots.items()}


def as_grid(slots: dict[tuple[int, str], str]) -> Drawn:
    dates = [MONDAY + dt.timedelta(n) for n in range(5)]
    head = ["Time", *(f"{date:%a %d %b %Y}" for date in dates)]
    return [head, *([hours, *(slots.get((n, hours), "") for n in range(5))] for hours in HOURS)]


def turned(table: Drawn) -> Drawn:
    return [list(column) for column in zip(*table, strict=True)]


def as_week(slots: dict[tuple[int, str], str]) -> Drawn:
    head = ["Time", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday"]
    return [["Week of 7 September 2026"], head, *as_grid(slots)[1:]]


GRIDS: dict[str, Callable[[dict[tuple[int, str], str]], Drawn]] = {
    "dates across": as_grid,
    "times across": lambda slots: turned(as_grid(slots)),
    "weekdays of one week": as_week,
}


@pytest.mark.parametrize("name", GRIDS)
@settings(max_examples=40, deadline=None)
@given(slots=SLOTS)
def test_slots_come_back_from_every_grid(name: str, slots: dict[tuple[int, str], str]) -> None:
    found = read(GRIDS[name](slots))
    assert found is not None
    assert (found.facts, found.problems, found.lost) == (facts_of(slots), [], 0)


@settings(max_examples=40, deadline=None)
@given(
    st.dictionaries(
        st.tuples(st.sampled_from(POSTS), st.sampled_from(HOURS)), st.sampled_from(TITLES), min_size=4
    )
)
def test_a_day_sheet_comes_back(slots: dict[tuple[str, str], str]) -> None:
    table = [["Open day, Saturday 22 May 2027"], ["Time", *POSTS]]
    table += [[hours, *(slots.get((post, hours), "") for post in POSTS)] for hours in HOURS]
    found = read(table)
    assert found is not None
    expected = {timed(title, dt.date(2027, 5, 22), hours) for (_, hours), title in slots.items()}
    assert (found.facts, found.problems, found.lost) == (expected, [], 0)


# -- who is where -------------------------------------------------------------------------------------------------

DUTIES = st.dictionaries(
    st.tuples(st.sampled_from(JOBS), st.integers(0, 6)), st.sampled_from(PEOPLE), min_size=4
)


def roster(duties: dict[tuple[str, int], str]) -> Drawn:
    head = ["Post", *(f"{MONDAY + dt.timedelta(n):%d/%m/%Y}" for n in range(7))]
    return [head, *([post, *(duties.get((post, n), "") for n in range(7))] for post in JOBS)]


@pytest.mark.parametrize("is_turned", [False, True])
@settings(max_examples=40, deadline=None)
@given(duties=DUTIES)
def test_a_roster_comes_back_both_ways(is_turned: bool, duties: dict[tuple[str, int], str]) -> None:
    table = turned(roster(duties)) if is_turned else roster(duties)
    table[0][0] = "Date" if is_turned else "Post"
    found = read(table)
    if (
        found is None or found.problems
    ):  # 07/09 to 13/09: the last says which figure is the day, where it is there
        return
    by_day: dict[int, set[str]] = defaultdict(set)
    for (post, n), person in duties.items():
        by_day[n].add(f"{post}: {person}")
    assert found.facts == {
        all_day(title, MONDAY + dt.timedelta(n)) for n, titles in by_day.items() for title in titles
    }
    assert found.lost == 0
