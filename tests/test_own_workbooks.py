"""Workbooks as schools keep them: sheets called after weekdays, blocks that are counted, remarks that name bells, a person's slots."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import pytest

from helpers import built, nomarium, refused
from test_own_tables import plan_book

Rows = list[list[object]]
BELLS: Rows = [["Period", "Start", "End"], ["1", "8:30", "9:20"], ["2", "9:25", "10:15"]]
TWO_WEEKS: Rows = [["Autumn", "7 Sep 2026", "18 Sep 2026"]]
ROTATION: Rows = [["Day 1", "Day 2", "Day 3"], ["A", "C", "B"], ["B", "A", "C"]]
BOOKS: dict[str, tuple[dict[str, Rows], list[str]]] = {
    "a sheet each weekday": ({
        "Monday": [["Time", "Class", "Room"], ["8:30-9:20", "Rigging", "Loft A"]], "Tuesday": [["Time", "Class", "Room"], ["8:30-9:20", "Oars", "Shed 1"]],
        "Terms": [["Name", "First day", "Last day"], ["Autumn", "7 Sep 2026", "8 Sep 2026"]],
    }, ["Oars 2026-09-08T08:30/2026-09-08T09:20 @ Shed 1", "Rigging 2026-09-07T08:30/2026-09-07T09:20 @ Loft A"]),
    "blocks of a rotation whose times are counted": ({
        "Rotation": ROTATION, "Blocks": [["Block", "Class"], ["A", "Rigging"], ["B", "Maths"], ["C", "Oars"]],
        "Times": [["1st block", "8:30", "9:30"], ["2nd block", "9:40", "10:40"]], "Terms": [["Fall", "8 Sep 2026", "9 Sep 2026"]],
    }, ["Maths 2026-09-08T09:40/2026-09-08T10:40", "Oars 2026-09-09T08:30/2026-09-09T09:30", "Rigging 2026-09-08T08:30/2026-09-08T09:30", "Rigging 2026-09-09T09:40/2026-09-09T10:40"]),
    "a person's slots, numbered, some of them free": ({
        "My slots": [["Slot", "When", "What", "Where"], ["1", "Day 1 P1", "Rigging", "Loft A"], ["2", "Day 1 P2", "Free", ""], ["3", "Day 2 P1", "Maths", "Room 3"], ["4", "Day 2 P2", "", ""]],
        "Bells": BELLS, "Terms": [["Autumn", "7 Sep 2026", "8 Sep 2026"]],
    }, ["Maths 2026-09-08T08:30/2026-09-08T09:20 @ Room 3", "Rigging 2026-09-07T08:30/2026-09-07T09:20 @ Loft A"]),
    "what and where beside days and periods": ({
        "Week": [["Day", "Period", "What", "Where"], ["Mon", "1", "Rigging", "Loft A"], ["Tue", "2", "Maths", "Room 3"]], "Bells": BELLS,
        "Terms": [["Autumn", "7 Sep 2026", "8 Sep 2026"]],
    }, ["Maths 2026-09-08T09:25/2026-09-08T10:15 @ Room 3", "Rigging 2026-09-07T08:30/2026-09-07T09:20 @ Loft A"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", BOOKS)
def test_workbooks_as_schools_keep_them(kind: str, tmp_path: Path) -> None:
    sheets, events = BOOKS[kind]
    assert sorted(built(plan_book(tmp_path, sheets))) == sorted(events)


def letter_days(tmp_path: Path, remark: str) -> Path:
    """A plan whose letter days have a remark on the second of them."""
    days = [
        ["Date", "Day", "Notes"],
        [dt.date(2026, 9, 8), "A", "Photo day"],
        [dt.date(2026, 9, 9), "B", remark],
    ]
    bells = [
        ["Regular Day", "", ""],
        *BELLS,
        ["", "", ""],
        ["Early Release", "", ""],
        ["Period", "Start", "End"],
        ["1", "8:30", "9:00"],
        ["2", "9:05", "9:35"],
    ]
    classes = [["Course", "Period", "Days"], ["Rigging", "1", "A"], ["Maths", "2", "B"]]
    return plan_book(tmp_path, {"Sections": classes, "Bells": bells, "Calendar": days})


def test_a_remark_beside_a_letter_day_names_its_bells(tmp_path: Path) -> None:
    source = letter_days(tmp_path, "Early release")
    assert sorted(built(source)) == [
        "Maths 2026-09-09T09:05/2026-09-09T09:35",
        "Rigging 2026-09-08T08:30/2026-09-08T09:20",
    ]
    assert "“Notes” names the bells of some dates" in nomarium("build", source, "-o", tmp_path / "a.ics").text


def test_a_remark_that_names_bells_which_are_not_there_is_refused(tmp_path: Path) -> None:
    assert "Early dismissal at noon" in refused(letter_days(tmp_path, "Early dismissal at noon"))


SIX_DAYS: Rows = [
    ["M. Quill – 2026-27"], ["Period", "Keel", "Rib", "Plank"], ["1 (8:45-9:40)", "Knots / L2", "", "Sails / L4"], ["2 (9:45-10:40)", "Sails / L4", "Knots / L2", ""],
]  # fmt: skip


def test_a_teacher_s_own_week_is_of_the_teacher_and_not_of_the_year_in_its_title(tmp_path: Path) -> None:
    cycle: Rows = [["Label"], ["Keel"], ["Rib"], ["Plank"]]
    terms: Rows = [["Autumn", "7 Sep 2026", "9 Sep 2026"]]
    source = plan_book(tmp_path, {"My timetable": SIX_DAYS, "Cycle": cycle, "Terms": terms})
    assert nomarium("build", source, "-o", tmp_path / "c", "--split-by", "teacher").status == 0
    assert [path.name for path in (tmp_path / "c").iterdir()] == ["m-quill.ics"]


def test_days_of_a_cycle_that_nothing_names_are_asked_for_by_name(tmp_path: Path) -> None:
    source = plan_book(tmp_path, {"My timetable": SIX_DAYS, "Terms": [["Autumn", "7 Sep 2026", "9 Sep 2026"]]})  # fmt: skip
    said = nomarium("build", source, "-o", tmp_path / "a.ics", "--table", "My timetable=timetable")
    assert said.status == 1 and "If Keel, Rib and Plank are the days of a cycle" in said.err
