"""Timetables of two weeks as schools draw them; blocks in a square; sections of courses; terms by their number."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import pytest

from helpers import built, refused
from test_own_tables import plan_book as workbook

Rows = list[list[object]]
TIMES: Rows = [["P1", "8:45", "9:45"], ["P2", "9:50", "10:50"]]
TERM: Rows = [["Term", "Start", "End"], ["Autumn", "7 Sep 2026", "18 Sep 2026"]]
A_AND_B = [
    "Knots 2026-09-07T08:45/2026-09-07T09:45", "Sails 2026-09-08T09:50/2026-09-08T10:50", "Steam 2026-09-14T08:45/2026-09-14T09:45",
    "Knots 2026-09-15T09:50/2026-09-15T10:50",
]  # fmt: skip
TWO_WEEKS: dict[str, Rows] = {
    "a column of weeks beside the days": [["Week", "Day", "P1", "P2"], ["A", "Mon", "Knots", ""], ["A", "Tue", "", "Sails"], ["B", "Mon", "Steam", ""], ["B", "Tue", "", "Knots"]],
    "a column of weeks behind the days": [["Day", "Week", "P1", "P2"], ["Mon", "A", "Knots", ""], ["Tue", "A", "", "Sails"], ["Mon", "B", "Steam", ""], ["Tue", "B", "", "Knots"]],
    "weeks by number, each written once": [["Week", "Day", "P1", "P2"], [1, "Mon", "Knots", ""], ["", "Tue", "", "Sails"], [2, "Mon", "Steam", ""], ["", "Tue", "", "Knots"]],
    "a row of weeks over the days": [["Week", "A", "", "B", ""], ["", "Mon", "Tue", "Mon", "Tue"], ["P1", "Knots", "", "Steam", ""], ["P2", "", "Sails", "", "Knots"]],
    "lines with the week over its days": [["", "P1", "P2"], ["Week A"], ["Mon", "Knots", ""], ["Tue", "", "Sails"], ["Week B"], ["Mon", "Steam", ""], ["Tue", "", "Knots"]],
}  # fmt: skip


@pytest.mark.parametrize("kind", TWO_WEEKS)
def test_each_week_of_a_drawn_timetable_has_its_own_classes(kind: str, tmp_path: Path) -> None:
    source = workbook(tmp_path, {"Timetable": TWO_WEEKS[kind], "Times": TIMES, "Terms": TERM})
    assert sorted(built(source)) == sorted(A_AND_B)


@pytest.mark.parametrize("kind", ["a column of weeks beside the days", "lines with the week over its days"])
def test_weeks_by_their_dates_say_which_is_which(kind: str, tmp_path: Path) -> None:
    weeks: Rows = [
        ["Week beginning", "Week"],
        *([dt.date(2026, 9, 7) + dt.timedelta(7 * n), "BA"[n % 2]] for n in range(4)),
    ]
    source = workbook(tmp_path, {"Timetable": TWO_WEEKS[kind], "Times": TIMES, "Weeks": weeks})
    events = built(source)
    assert "Steam 2026-09-07T08:45/2026-09-07T09:45" in events
    assert "Sails 2026-09-15T09:50/2026-09-15T10:50" in events
    assert len(events) == 8


TWICE: dict[str, Rows] = {
    "days that come again": [["Day", "P1", "P2"], ["Mon", "Knots", ""], ["Tue", "", "Sails"], ["Mon", "Steam", ""], ["Tue", "", "Knots"]],
    "weeks by words that are none": [["Wk type", "Day", "P1", "P2"], ["Red", "Mon", "Knots", ""], ["Red", "Tue", "", "Sails"], ["Blue", "Mon", "Steam", ""], ["Blue", "Tue", "", "Knots"]],
}  # fmt: skip


@pytest.mark.parametrize("kind", TWICE)
def test_days_that_come_twice_are_asked_about(kind: str, tmp_path: Path) -> None:
    source = workbook(tmp_path, {"Timetable": TWICE[kind], "Times": TIMES, "Terms": TERM})
    said = refused(source)
    assert "Monday stands twice here" in said
    assert "row 4" in said


def test_a_day_goes_on_in_a_second_drawing_with_other_periods(tmp_path: Path) -> None:
    drawn: Rows = [["", "Mon", "Tue"], ["P1", "Knots", ""], [], ["", "Mon", "Tue"], ["P2", "Steam", ""]]
    source = workbook(tmp_path, {"Timetable": drawn, "Times": TIMES, "Terms": TERM})
    assert len(built(source)) == 4


BLOCKS: Rows = [["Class", "Block"], ["Knots", "A"], ["Sails", "B"]]
SQUARES: dict[str, Rows] = {
    "days down": [["Day", "P1", "P2"], ["1", "A", "B"], ["2", "B", "A"]],
    "days across": [["Period", "1", "2"], ["P1", "A", "B"], ["P2", "B", "A"]],
    "no corner": [["", "P1", "P2"], ["1", "A", "B"], ["2", "B", "A"]],
}


@pytest.mark.parametrize("kind", SQUARES)
def test_a_rotation_in_a_square(kind: str, tmp_path: Path) -> None:
    term: Rows = [TERM[0], ["Autumn", "7 Sep 2026", "8 Sep 2026"]]
    bells: Rows = [["Period", "Start", "End"], *TIMES]
    source = workbook(tmp_path, {"Rotation": SQUARES[kind], "Bells": bells, "Classes": BLOCKS, "Terms": term})
    assert sorted(built(source)) == [
        "Knots 2026-09-07T08:45/2026-09-07T09:45", "Knots 2026-09-08T09:50/2026-09-08T10:50",
        "Sails 2026-09-07T09:50/2026-09-07T10:50", "Sails 2026-09-08T08:45/2026-09-08T09:45",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("head", "courses"),
    [
        (["Course"], [["BOAT101"], ["BOAT101"]]),
        (["Subject", "Course number"], [["BOAT", 101], ["BOAT", 101]]),
    ],
    ids=["course and section", "subject, number and section"],
)
def test_sections_of_a_course_are_classes_of_their_own(
    head: list[str], courses: list[list[object]], tmp_path: Path
) -> None:
    day, last = dt.date(2026, 9, 7), dt.date(2026, 9, 11)
    listed: Rows = [
        [*head, "Section", "Title", "Days", "Begin", "End", "Start Date", "End Date"],
        [*courses[0], "01", "Knots", "MW", "9:00", "9:50", day, last],
        [*courses[1], "02", "Knots", "T", "13:00", "14:00", day, last],
    ]
    source = workbook(tmp_path, {"Export": listed})
    assert len(built(source)) == 3
    said = source.with_suffix(".ics").read_text("utf-8")
    assert said.count("X-NOMARIUM-CLASS:Knots (BOAT") == 3
    assert "101 01)" in said
    assert "101 02)" in said


def test_terms_are_known_by_their_number(tmp_path: Path) -> None:
    terms: Rows = [["Term 1", "7 Sep 2026 – 11 Sep 2026"], ["Term 2", "14 Sep 2026 – 18 Sep 2026"]]
    classes: Rows = [["Class", "Day", "Time", "Term"], ["Knots", "Mon", "9-10am", "1"], ["Sails", "Tue", "9-10am", "T2"], ["Steam", "Wed", "1-2pm", "Both"]]  # fmt: skip
    source = workbook(tmp_path, {"Terms": terms, "Classes": classes})
    assert sorted(built(source)) == [
        "Knots 2026-09-07T09:00/2026-09-07T10:00", "Sails 2026-09-15T09:00/2026-09-15T10:00",
        "Steam 2026-09-09T13:00/2026-09-09T14:00", "Steam 2026-09-16T13:00/2026-09-16T14:00",
    ]  # fmt: skip


def test_names_over_a_drawing_that_may_be_days_are_asked_for(tmp_path: Path) -> None:
    drawn: Rows = [["", "Keel", "Rib", "Plank"], ["08:30-09:30", "Knots", "Sails", ""], ["09:40-10:40", "", "Knots", "Sails"]]  # fmt: skip
    source = workbook(tmp_path, {"Timetable": drawn, "Terms": TERM})
    assert "If Keel, Rib and Plank are the days of a cycle, list them in a table Cycle" in refused(source)
    source = workbook(tmp_path, {"Timetable": drawn, "Terms": TERM, "Cycle": [["Label"], ["Keel"], ["Rib"], ["Plank"]]})  # fmt: skip
    assert len(built(source)) == 13


def test_dates_of_weeks_that_take_turns_stand_under_their_weekdays(tmp_path: Path) -> None:
    first = dt.date(2026, 9, 7)
    calendar: Rows = [["Week", "Mon", "Tue", "Wed", "Thu", "Fri"]]
    calendar += [["BA"[n], *(first + dt.timedelta(7 * n + day) for day in range(5))] for n in range(2)]
    classes: Rows = [["Class", "Week", "Day", "Period"], ["Knots", "A", "Mon", "P1"], ["Sails", "B", "Tue", "P2"]]  # fmt: skip
    bells: Rows = [["Period", "Start", "End"], *TIMES]
    source = workbook(tmp_path, {"Calendar": calendar, "Timetable": classes, "Bells": bells, "Terms": TERM})
    assert sorted(built(source)) == ["Knots 2026-09-14T08:45/2026-09-14T09:45", "Sails 2026-09-08T09:50/2026-09-08T10:50"]  # fmt: skip


LISTED: dict[str, Rows] = {
    "on a sheet called Lessons": [
        ["Day", "Period", "Class"],
        ["Monday", "P1", "Knots"],
        ["Tuesday", "P2", "Sails"],
    ],
    "days and periods under When": [["Class", "When"], ["Knots", "Mon P1"], ["Sails", "Tue P2"]],
}


@pytest.mark.parametrize("kind", LISTED)
def test_lessons_of_a_week(kind: str, tmp_path: Path) -> None:
    bells: Rows = [["Period", "Start", "End"], *TIMES]
    term: Rows = [TERM[0], ["Autumn", "7 Sep 2026", "11 Sep 2026"]]
    source = workbook(tmp_path, {"Lessons": LISTED[kind], "Bells": bells, "Terms": term})
    assert sorted(built(source)) == ["Knots 2026-09-07T08:45/2026-09-07T09:45", "Sails 2026-09-08T09:50/2026-09-08T10:50"]  # fmt: skip
