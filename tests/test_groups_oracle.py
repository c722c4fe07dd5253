"""Timetables of several groups in the forms in which schools draw and list them: each comes back as the meetings of a plain
reckoning, with room, teacher and group, or is asked about; never as others."""

from __future__ import annotations

import csv
import datetime as dt
import random
import re
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

import openpyxl
import pytest

from helpers import nomarium

Rows = list[list[object]]
Sheets = list[tuple[str, Rows]]
Meeting = tuple[str, str, str]
"""What is taught, by whom and where."""

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday")
LABELS = {"weekdays": WEEKDAYS, "days": ("Day 1", "Day 2", "Day 3", "Day 4"), "letters": ("A", "B", "C", "D"), "names": ("Keel", "Rib", "Plank", "Deck"), "weeks": tuple(f"{week} {day}" for week in "AB" for day in WEEKDAYS)}  # fmt: skip
SUBJECTS = ("Knots", "Rigging", "Caulking", "Steaming", "Charts", "Varnish", "Oars", "Tides")
TEACHERS = ("Quill", "Tern", "Gull", "Brine", "Hawser", "Finch")
ROOMS = (("Loft 1", "Slip 2", "Shed A", "Loft 2"), ("101", "204", "12", "14"), ("Library", "Slip", "Forge", "Shed"), ("R1", "R2", "R3", "R4"))  # fmt: skip
GROUPS = (("Apprentices", "Journeymen"), ("7A", "7B", "8A"), ("Year 1", "Year 2"), ("Class 1A", "Class 1B"), ("A1", "A2", "J1"), ("Keelers", "Deckhands", "Riggers"))  # fmt: skip
BELLS = (("08:30", "09:20"), ("09:35", "10:25"), ("10:45", "11:35"), ("12:30", "13:20"))
TERM = (dt.date(2026, 9, 7), dt.date(2026, 10, 9))
OFF = (dt.date(2026, 9, 16), dt.date(2026, 9, 28))


class School(NamedTuple):
    kind: str
    groups: tuple[str, ...]
    taught: dict[tuple[str, int, str], Meeting]
    """By label, period and group."""

    def days(self) -> dict[dt.date, str]:
        found: dict[dt.date, str] = {}
        day, labels = TERM[0], LABELS[self.kind]
        while day <= TERM[1]:
            if day.weekday() < 5 and day not in OFF:
                week = "AB"[(day - TERM[0]).days // 7 % 2]
                weekday = WEEKDAYS[day.weekday()]
                cycled = labels[len(found) % len(labels)]
                found[day] = {"weekdays": weekday, "weeks": f"{week} {weekday}"}.get(self.kind, cycled)
            day += dt.timedelta(1)
        return found

    def meetings(self) -> set[tuple[str, ...]]:
        return {
            (day.isoformat(), *BELLS[period], *self.taught[label, period, group], group)
            for day, here in self.days().items()
            for label, period, group in self.taught
            if label == here
        }

    def weeks(self) -> list[tuple[str, list[str]]]:
        """The labels of each drawing, with the week that it is of."""
        if self.kind != "weeks":
            return [("", [*LABELS[self.kind]])]
        return [(week, [one for one in LABELS["weeks"] if one[0] == week]) for week in "AB"]


def school(choose: random.Random) -> School:
    kind, groups, rooms = choose.choice([*LABELS]), choose.choice(GROUPS), choose.choice(ROOMS)
    of = {(group, subject): (choose.choice(TEACHERS), choose.choice(rooms)) for group in groups for subject in SUBJECTS}  # fmt: skip
    taught: dict[tuple[str, int, str], Meeting] = {}
    for label in LABELS[kind]:
        for period in range(len(BELLS)):
            busy: set[str] = set()
            before = [one[0] for (day, at, _), one in taught.items() if (day, at) == (label, period - 1)]
            for group in groups:
                for subject in choose.sample(SUBJECTS, len(SUBJECTS)):
                    teacher, room = of[group, subject]
                    if not {teacher, room, subject} & busy and subject not in before:
                        busy |= {teacher, room, subject}
                        taught[label, period, group] = (subject, teacher, room)
                        break
    return School(kind, groups, taught)


class Drawing:
    """How one workbook is written."""

    def __init__(self, made: School, choose: random.Random) -> None:
        self.made, self.choose = made, choose
        self.mark = choose.choice(("\n", " / ", ", ", " - ", "()", "@"))
        self.line = choose.choice(("number", "name", "times", "both", "columns"))
        self.clock = choose.choice((str, lambda text: text.lstrip("0").replace(":", "."), _with_half))

    def cell(self, label: str, period: int, group: str, *others: str) -> str:
        held = self.made.taught.get((label, period, group))
        if held is None:
            return ""
        subject, teacher, room = held
        if self.mark == "()":
            return f"{subject} ({', '.join((teacher, room, *others))})"
        if self.mark == "@":
            return f"{subject} ({teacher}) @ {room}"
        return self.mark.join((subject, *others, teacher, room))

    def heads(self, period: int) -> list[object]:
        times = [self.clock(one) for one in BELLS[period]]
        span = "–".join(times)
        return {"number": [period + 1], "name": [f"Lesson {period + 1}"], "times": [span], "both": [f"{period + 1} ({span})"], "columns": [period + 1, *times]}[self.line]  # fmt: skip

    def corner(self) -> list[object]:
        word = self.choose.choice(("Time", "") if self.line == "times" else ("Period", "Lesson", ""))
        return [word, "Start", "End"] if self.line == "columns" else [word]

    def day(self, label: str) -> str:
        return label[2:] if self.made.kind == "weeks" else label

    def grid(self, group: str, labels: list[str]) -> Rows:
        lines = [[*self.heads(n), *(self.cell(one, n, group) for one in labels)] for n in range(len(BELLS))]
        return [[*self.corner(), *map(self.day, labels)], *lines]


def _with_half(text: str) -> str:
    hours, minutes = map(int, text.split(":"))
    return f"{(hours - 1) % 12 + 1}:{minutes:02} {'am' if hours < 12 else 'pm'}"


def a_sheet_a_group(one: Drawing) -> Sheets:
    return [(f"{group}{f' - Week {week}' if week else ''}", one.grid(group, labels)) for week, labels in one.made.weeks() for group in one.made.groups]  # fmt: skip


def one_below_the_other(one: Drawing) -> Sheets:
    rows: Rows = [["Saltmarsh School of Boatbuilding"], []]
    for week, labels in one.made.weeks():
        for group in one.made.groups:
            rows += [
                [f"{group} – Week {week}" if week else f"Timetable: {group}"],
                *one.grid(group, labels),
                [],
            ]
    return [("Timetable", rows)]


def side_by_side(one: Drawing) -> Sheets:
    parts = [[[f"{group} Week {week}" if week else group], *one.grid(group, labels)] for week, labels in one.made.weeks() for group in one.made.groups]  # fmt: skip
    wide = [[row + [""] * (max(map(len, part)) + 1 - len(row)) for row in part] for part in parts]
    return [("Sheet1", [[cell for row in rows for cell in row] for rows in zip(*wide, strict=True)])]


def a_sheet_a_day(one: Drawing) -> Sheets:
    lines = range(len(BELLS))
    return [(label if one.made.kind == "weeks" else one.day(label), [[*one.corner(), *one.made.groups], *([*one.heads(n), *(one.cell(label, n, group) for group in one.made.groups)] for n in lines)]) for label in LABELS[one.made.kind]]  # fmt: skip


def days_down(one: Drawing) -> Sheets:
    found: Sheets = []
    for week, labels in one.made.weeks():
        rows: Rows = [["Day", *one.corner(), *one.made.groups]]
        for label in labels:
            for n in range(len(BELLS)):
                cells = [one.cell(label, n, group) for group in one.made.groups]
                rows.append([one.day(label) if n == 0 else "", *one.heads(n), *cells])
        found.append((f"Week {week}" if week else "Timetable", rows))
    return found


def a_row_a_group(one: Drawing) -> Sheets:
    one.line = "both" if one.line == "columns" else one.line
    found: Sheets = []
    for week, labels in one.made.weeks():
        heads: Rows = [["Group"], [""]]
        for label in labels:
            heads[0] += [one.day(label), *[""] * (len(BELLS) - 1)]
            heads[1] += [one.heads(n)[0] for n in range(len(BELLS))]
        rows: Rows = [[group, *(one.cell(label, n, group) for label in labels for n in range(len(BELLS)))] for group in one.made.groups]  # fmt: skip
        found.append((f"Week {week}" if week else "Timetable", heads + rows))
    return found


def a_row_a_meeting(one: Drawing) -> Sheets:
    one.line = "number"
    fields = ["Group", "Subject", "Teacher", "Room"]
    one.choose.shuffle(fields)
    rows: Rows = [[*(["Week"] if one.made.kind == "weeks" else []), "Day", "Period", *fields]]
    for (label, period, group), (subject, teacher, room) in one.made.taught.items():
        said = {"Group": group, "Subject": subject, "Teacher": teacher, "Room": room}
        week = [label[0]] if one.made.kind == "weeks" else []
        rows.append([*week, one.day(label), period + 1, *(said[field] for field in fields)])
    return [("Classes", rows)]


FORMS: tuple[Callable[[Drawing], Sheets], ...] = (a_sheet_a_group, one_below_the_other, side_by_side, a_sheet_a_day, days_down, a_row_a_group, a_row_a_meeting)  # fmt: skip


def written(path: Path, sheets: Sheets) -> Path:
    book = openpyxl.Workbook()
    book.remove(book.active)
    for name, rows in sheets:
        sheet = book.create_sheet(name)
        for row in rows:
            sheet.append([cell if cell != "" else None for cell in row])
    book.save(path)
    return path


@pytest.mark.parametrize("form", FORMS, ids=lambda form: form.__name__)
@pytest.mark.parametrize("seed", range(6))
def test_timetables_of_groups_come_back_as_they_were_drawn(
    seed: int, form: Callable[[Drawing], Sheets], tmp_path: Path
) -> None:
    choose = random.Random(f"{seed} {form.__name__}")
    made = school(choose)
    one = Drawing(made, choose)
    sheets = form(one)
    if one.line in ("number", "name"):
        sheets.append(("Bells", [["Period", "Start", "End"], *([n + 1, *times] for n, times in enumerate(BELLS))]))  # fmt: skip
    if made.kind == "names":
        sheets.append(("Cycle", [["Label"], *([label] for label in LABELS["names"])]))
    sheets += [("Terms", [["Term", "First day", "Last day"], ["Autumn", *TERM]]), ("Days off", [["Date", "Reason"], *([day, "No classes"] for day in OFF)])]  # fmt: skip
    source, target = written(tmp_path / "school.xlsx", sheets), tmp_path / "out.csv"
    outcome = nomarium("build", source, "-o", target)
    if outcome.status == 1:
        asked = re.search(r'A teacher: --cell "([^"]+)"', outcome.text)
        assert asked is not None, outcome.text
        outcome = nomarium("build", source, "-o", target, "--cell", asked[1])
    assert outcome.status == 0, outcome.text
    with target.open(encoding="utf-8-sig", newline="") as lines:
        held = {tuple(row[name] for name in ("Date", "Start", "End", "Title", "Teacher", "Room", "Group")) for row in csv.DictReader(lines)}  # fmt: skip
    assert held == made.meetings()
