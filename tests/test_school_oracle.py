"""Workbooks as schools keep them, every table in one of many forms, must come back as the meetings of a plain reckoning."""

from __future__ import annotations

import calendar
import datetime as dt
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import NamedTuple

import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import built

Rows = list[list[object]]
Sheets = dict[str, Rows]

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday")
CLASSES = ("Knots", "Sails", "Steam", "Lofting", "Rigging 2", "Marine Law")
ROOMS = dict(zip(CLASSES, ("Loft 2", "Shed 4", "Slip 1", "204", "B12", "Hall"), strict=True))
TEACHERS = dict(
    zip(CLASSES, ("Mx Bell", "D. Roe", "Ana Cole", "Mx Bell", "P. Finch", "Ana Cole"), strict=True)
)
TIMES = (("08:30", "09:20"), ("09:35", "10:25"), ("11:00", "11:50"), ("13:00", "13:50"))
SHORT = (("08:30", "09:00"), ("09:15", "09:45"), ("10:00", "10:30"), ("10:45", "11:15"))
PERIODS = range(len(TIMES))
TERMS = (
    ("Fall", dt.date(2026, 9, 8), dt.date(2026, 10, 16)),
    ("Winter", dt.date(2027, 1, 5), dt.date(2027, 1, 29)),
)
KINDS = {
    "weekdays": WEEKDAYS,
    "days": ("Day 1", "Day 2", "Day 3", "Day 4"),
    "letters": ("A", "B", "C", "D", "E"),
    "weeks": ("A", "B"),
}
OFF_DAYS = st.sets(st.sampled_from([dt.date(2026, 9, 21), dt.date(2026, 10, 5), dt.date(2027, 1, 18)]))


class Slot(NamedTuple):
    label: int
    weekday: int
    """Of a class in A and B weeks; -1 elsewhere."""
    period: int


class School(NamedTuple):
    kind: str
    off: tuple[tuple[str, dt.date, dt.date], ...]
    slots: dict[Slot, str]

    @property
    def labels(self) -> tuple[str, ...]:
        return KINDS[self.kind]

    def days(self) -> Iterator[tuple[dt.date, int]]:
        """Each school day with the place of its label."""
        mondays: list[int] = []
        count = 0
        for _, first, last in TERMS:
            for ordinal in range(first.toordinal(), last.toordinal() + 1):
                date = dt.date.fromordinal(ordinal)
                if date.weekday() > 4 or any(a <= date <= b for _, a, b in self.off):
                    continue
                monday = ordinal - date.weekday()
                if monday not in mondays:
                    mondays.append(monday)
                by_kind = {"weekdays": date.weekday(), "weeks": (len(mondays) - 1) % 2}
                yield date, by_kind.get(self.kind, count % len(self.labels))
                count += 1

    def held(self, label: int, period: int, weekday: int = -1) -> str:
        return self.slots.get(Slot(label, weekday, period), "")

    def expected(self, bells: Callable[[dt.date], tuple[tuple[str, str], ...]]) -> list[str]:
        found = []
        for date, label in self.days():
            weekday = date.weekday() if self.kind == "weeks" else -1
            for period in PERIODS:
                if code := self.held(label, period, weekday):
                    start, end = bells(date)[period]
                    found.append(f"{code} {date}T{start}/{date}T{end} @ {ROOMS[code]}")
        return sorted(found)


@st.composite
def schools(draw: st.DrawFn) -> School:
    kind = draw(st.sampled_from(list(KINDS)))
    weekdays = range(5) if kind == "weeks" else [-1]
    places = [Slot(n, day, p) for n in range(len(KINDS[kind])) for day in weekdays for p in PERIODS]
    # the last label has a class: nothing else could tell that there is one, where no table says so
    last = Slot(len(KINDS[kind]) - 1, weekdays[-1], 0)
    chosen = draw(st.lists(st.sampled_from(places), min_size=6, max_size=24, unique=True)) + [
        Slot(n, weekdays[0], 1) for n in range(len(KINDS[kind]))
    ]
    names = draw(
        st.lists(st.sampled_from(CLASSES), min_size=len(chosen) + 1, max_size=len(chosen) + 1).filter(
            lambda drawn: len(set(drawn)) > 2
        )
    )
    off = tuple(
        (name, day, day + dt.timedelta(days=draw(st.sampled_from([0, 0, 1]))))
        for name, day in zip(("Staff day", "Harbour day", "Fall break"), sorted(draw(OFF_DAYS)), strict=False)
    )
    return School(kind, off, dict(zip([*chosen, last], names, strict=True)))


# -- the tables of the year ------------------------------------------------------------------------------------


def typed(date: dt.date) -> object:
    return dt.datetime(date.year, date.month, date.day)


def said(first: dt.date, last: dt.date) -> str:
    return f"{first:%d %B %Y}" if first == last else f"{first:%d %B %Y} – {last:%d %B %Y}"


YEARS: tuple[Callable[[School], Sheets], ...] = (
    lambda school: {
        "Terms": [["Name", "First day", "Last day"], *[[name, typed(a), typed(b)] for name, a, b in TERMS]],
        "Days off": [["Name", "First day", "Last day"], *[[n, typed(a), typed(b)] for n, a, b in school.off]],
    },
    lambda school: {
        "Semesters": [["Year 2026-27"], ["Semester", "Dates"], *[[n, said(a, b)] for n, a, b in TERMS], [], ["Subject to change"]],
        "Holidays": [["What", "When"], *[[n, said(a, b)] for n, a, b in school.off]],
    },
    lambda school: {
        "Calendar": [["", "Begins", "Ends"], *[[n, f"{a}", f"{b}"] for n, a, b in TERMS]],
        "No school": [["From", "To", "Reason"], *[[f"{a}", f"{b}", n] for n, a, b in school.off]],
    },
    lambda school: {
        "Key dates": [
            ["Date", "Day", "Event"],
            *[
                [typed(date), f"{date:%A}", text]
                for date, text in sorted(
                    [(a, f"First day of {n} term") for n, a, _ in TERMS]
                    + [(b, f"Last day of {n} term") for n, _, b in TERMS]
                    + [(a + dt.timedelta(n), f"{name} – no school") for name, a, b in school.off for n in range((b - a).days + 1)]
                )
            ],
        ],
    },
)  # fmt: skip


def no_cycle(_: School) -> Sheets:
    return {}


def listed_cycle(school: School) -> Sheets:
    return {} if school.kind == "weekdays" else {"Cycle": [["Label"], *[[label] for label in school.labels]]}


def dated_cycle(school: School) -> Sheets:
    if school.kind == "weekdays":
        return {}
    if school.kind == "weeks":
        weeks = {date - dt.timedelta(days=date.weekday()): school.labels[n] for date, n in school.days()}
        return {
            "A-B weeks": [["Week beginning", "Week"], *[[typed(day), week] for day, week in weeks.items()]]
        }
    open_days: Rows = [[f"{date:%d %B %Y}", f"{date:%a}", school.labels[n]] for date, n in school.days()]
    closed: Rows = [[f"{a:%d %B %Y}", f"{a:%a}", "No school"] for _, a, _ in school.off]
    return {"Letter days": [["Date", "Day", "Cycle day"], *open_days, *closed]}


def drawn_cycle(school: School) -> Sheets:
    """A month after another, with the label under each number."""
    labels = {date: school.labels[n] for date, n in school.days()}
    rows: Rows = []
    for year, month in sorted({(date.year, date.month) for date in labels}):
        rows += [[f"{calendar.month_name[month]} {year}"], list(calendar.day_abbr)]
        for week in calendar.Calendar().monthdatescalendar(year, month):
            rows.append(
                [
                    "\n".join(filter(None, (str(d.day), labels.get(d, "")))) if d.month == month else ""
                    for d in week
                ]
            )
        rows.append([])
    return {"Letter days": rows} if school.kind in ("days", "letters") else listed_cycle(school)


CYCLES = (no_cycle, listed_cycle, dated_cycle, drawn_cycle)


# -- bells -----------------------------------------------------------------------------------------------------


def same_bells(_: dt.date) -> tuple[tuple[str, str], ...]:
    return TIMES


def short_fridays(date: dt.date) -> tuple[tuple[str, str], ...]:
    return SHORT if date.weekday() == 4 else TIMES


Bells = tuple[Callable[[], Sheets], Callable[[dt.date], tuple[tuple[str, str], ...]]]
BELLS: tuple[Bells, ...] = (
    (lambda: {"Bells": [["Period", "Start", "End"], *[[n + 1, *TIMES[n]] for n in PERIODS]]}, same_bells),
    (lambda: {"MS daily schedule": [["Slot", "Begins", "Ends"], *[[f"Period {n + 1}", *TIMES[n]] for n in PERIODS], ["Lunch", "11:50", "13:00"]]}, same_bells),
    (lambda: {"Bell times": [["Lesson", "Time"], *[[f"P{n + 1}", " – ".join(TIMES[n])] for n in PERIODS]]}, same_bells),
    (lambda: {"Bells": [["Period", "Mon-Thu", "Friday"], *[[n + 1, "-".join(TIMES[n]), "-".join(SHORT[n])] for n in PERIODS]]}, short_fridays),
    (
        lambda: {"Bells": [["", "Monday–Thursday", "", "Friday", ""], ["Period", "Start", "End", "Start", "End"],
                           *[[n + 1, *TIMES[n], *SHORT[n]] for n in PERIODS]]},
        short_fridays,
    ),
    (
        lambda: {"Regular bells": [["Period", "Start", "End"], *[[n + 1, *TIMES[n]] for n in PERIODS]],
                 "Friday bells": [["Period", "Start", "End"], *[[n + 1, *SHORT[n]] for n in PERIODS]]},
        short_fridays,
    ),
)  # fmt: skip


# -- timetables ------------------------------------------------------------------------------------------------


def meetings(school: School) -> list[tuple[Slot, str]]:
    return sorted(school.slots.items(), key=lambda one: (one[1], one[0]))


def when(school: School, slot: Slot) -> list[object]:
    return (
        [school.labels[slot.label]]
        if slot.weekday < 0
        else [school.labels[slot.label], WEEKDAYS[slot.weekday]]
    )


def day_heads(school: School) -> list[object]:
    heads = {
        "weekdays": ["Weekday"],
        "days": ["Cycle day"],
        "letters": ["Letter day"],
        "weeks": ["Week", "Day"],
    }
    return list(heads[school.kind])


def export(school: School) -> Sheets:
    rows = [
        [code, "01", TEACHERS[code], *when(school, slot), slot.period + 1, ROOMS[code], 24]
        for slot, code in meetings(school)
    ]
    return {
        "Export": [["Course name", "Section", "Teacher", *day_heads(school), "Pd", "Room", "Students"], *rows]
    }


def written_once(school: School) -> Sheets:
    rows: Rows = [["Course", "Teacher", *day_heads(school), "Block", "Room"]]
    above = ""
    for slot, code in meetings(school):
        shown = [code, TEACHERS[code]] if code != above else ["", ""]
        rows.append([*shown, *when(school, slot), f"P{slot.period + 1}", ROOMS[code]])
        above = code
    return {"Classes": rows}


def lists(school: School) -> Sheets:
    held: dict[tuple[str, int, int], list[int]] = {}
    for slot, code in meetings(school):
        held.setdefault((code, slot.weekday, slot.period), []).append(slot.label)
    if school.kind == "weeks":
        return export(school)
    rows = [
        [code, ", ".join(school.labels[n] for n in sorted(days)), period + 1, ROOMS[code]]
        for (code, _, period), days in held.items()
    ]
    return {"Master schedule": [["Subject", *day_heads(school), "Period", "Room"], *rows]}


def met(school: School) -> Sheets:
    if school.kind not in ("days", "letters"):
        return export(school)
    between = " P" if school.kind == "days" else ""
    held: dict[str, list[str]] = {}
    for slot, code in meetings(school):
        held.setdefault(code, []).append(f"{school.labels[slot.label]}{between}{slot.period + 1}")
    return {
        "Sections": [
            ["Class", "Meetings", "Room"],
            *[[code, "; ".join(slots), ROOMS[code]] for code, slots in held.items()],
        ]
    }


def column_a_day(school: School) -> Sheets:
    if school.kind == "weeks":
        return export(school)
    rows = [
        [
            code,
            ROOMS[code],
            *[
                ", ".join(str(p + 1) for p in PERIODS if school.held(n, p) == code)
                for n in range(len(school.labels))
            ],
        ]
        for code in sorted(set(school.slots.values()))
    ]
    return {"Classes": [["Class", "Room", *school.labels], *rows]}


def cell(code: str) -> str:
    return f"{code}\n{ROOMS[code]}" if code else ""


def drawn(school: School) -> Sheets:
    if school.kind == "weeks":
        heads = [f"{day[:3]} {week}" for week in school.labels for day in WEEKDAYS]
        rows = [
            [f"P{p + 1}", *[cell(school.held(n, p, day)) for n in range(2) for day in range(5)]]
            for p in PERIODS
        ]
        return {"Timetable": [["", *heads], *rows]}
    rows = [[f"P{p + 1}", *[cell(school.held(n, p)) for n in range(len(school.labels))]] for p in PERIODS]
    return {"Week": [["Period", *school.labels], *rows[:2], ["Break"], *rows[2:]]}


def turned(school: School) -> Sheets:
    if school.kind == "weeks":
        return {
            f"Week {week}": [
                ["", *[f"Period {p + 1}" for p in PERIODS]],
                *[[day, *[cell(school.held(n, p, d)) for p in PERIODS]] for d, day in enumerate(WEEKDAYS)],
            ]
            for n, week in enumerate(school.labels)
        }
    rows = [[label, *[cell(school.held(n, p)) for p in PERIODS]] for n, label in enumerate(school.labels)]
    return {"Timetable": [["Day", *[f"Period {p + 1}" for p in PERIODS]], *rows]}


def row_a_teacher(school: School) -> Sheets:
    if school.kind == "weeks":
        return drawn(school)
    heads = [label if p == 0 else "" for label in school.labels for p in PERIODS]
    rows = [
        [
            name,
            *[
                cell(code) if (code := school.held(n, p)) and TEACHERS[code] == name else ""
                for n in range(len(school.labels))
                for p in PERIODS
            ],
        ]
        for name in sorted({TEACHERS[code] for code in school.slots.values()})
    ]
    return {
        "Master schedule": [
            ["Teacher", *heads],
            ["", *[f"P{p + 1}" for _ in school.labels for p in PERIODS]],
            *rows,
        ]
    }


def sheet_a_teacher(school: School) -> Sheets:
    if school.kind == "weeks":
        return turned(school)
    return {
        name: [
            ["Period", *school.labels],
            *[
                [
                    p + 1,
                    *[
                        cell(code) if (code := school.held(n, p)) and TEACHERS[code] == name else ""
                        for n in range(len(school.labels))
                    ],
                ]
                for p in PERIODS
            ],
        ]
        for name in sorted({TEACHERS[code] for code in school.slots.values()})
    }


TIMETABLES = (export, written_once, lists, met, column_a_day, drawn, turned, row_a_teacher, sheet_a_teacher)


def save(path: Path, sheets: Sheets) -> Path:
    book = openpyxl.Workbook()
    book.remove(book.active)
    for name, rows in sheets.items():
        sheet = book.create_sheet(name)
        for row in rows:
            sheet.append([value if value != "" else None for value in row])
    book.save(path)
    return path


@pytest.mark.parametrize("timetable", TIMETABLES, ids=lambda form: form.__name__)
@settings(max_examples=12, deadline=None)
@given(
    school=schools(), year=st.sampled_from(YEARS), cycle=st.sampled_from(CYCLES), bells=st.sampled_from(BELLS)
)
def test_a_school_comes_back_as_it_keeps_its_tables(
    timetable: Callable[[School], Sheets], school: School, year: Callable[[School], Sheets], cycle: Callable[[School], Sheets], bells: Bells
) -> None:  # fmt: skip
    write_bells, ringing = bells
    sheets = {**year(school), **cycle(school), **write_bells(), **timetable(school)}
    with tempfile.TemporaryDirectory() as folder:
        found = built(
            save(Path(folder) / "school.xlsx", {name: rows for name, rows in sheets.items() if len(rows) > 1})
        )
    assert sorted(found) == school.expected(ringing)
