"""Lines beside weekdays that say when there is no school, and what else of a timetable was wrong in silence."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from pathlib import Path

import openpyxl
import pytest

from helpers import built, csv_file, nomarium, refused, workbook

DRAWN = ",Mon,Tue\n9:00-10:00,Knots,Tar\n"
LISTED = "Day,Time,Class\nMon,9:00-10:00,Knots\nTue,9:00-10:00,Tar\n"
WEEKS = ("--from", "2027-02-08", "--until", "2027-02-23")
FIRST, LAST = ("2027-02-08", "2027-02-09"), ("2027-02-22", "2027-02-23")
HALF_TERM = [
    f"{name} {day}T09:00/{day}T10:00" for monday, tuesday in (FIRST, LAST) for name, day in (("Knots", monday), ("Tar", tuesday))
]  # fmt: skip


@pytest.mark.parametrize("rows", [DRAWN, LISTED], ids=["drawn", "listed"])
@pytest.mark.parametrize(
    "line",
    [
        "No classes 15–19 February 2027",
        "Half term: 15 Feb to 19 Feb",
        "Half term w/c 15 Feb 2027",
        '"Closed 15/02/2027, 16/02/2027 and 17/02/2027"',
        "15–19 February 2027: half term",
        "Half term,2027-02-15,2027-02-19",
        '"Term dates: 4 Jan – 12 Feb 2027, 22 Feb – 26 Mar 2027"',
        '"Spring 2027 (4 January to 26 March, no classes 15–19 February)"',
    ],
)
def test_a_line_beside_weekdays_takes_days_out(line: str, rows: str, tmp_path: Path) -> None:
    below = csv_file(tmp_path, f"{rows}{line}\n", "below.csv")
    above = csv_file(tmp_path, f"{line}\n\n{rows}", "above.csv")
    for source in (below, above):
        if rows == DRAWN and line.startswith("Half term,"):
            refused(source, *WEEKS)  # its dates could be classes of the drawing
        else:
            assert sorted(built(source, *WEEKS)) == sorted(HALF_TERM)


@pytest.mark.parametrize("rows", [DRAWN, LISTED], ids=["drawn", "listed"])
def test_a_line_beside_weekdays_says_their_weeks(rows: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Timetable 8 February to 1 March 2027; half term 15–19 February\n\n{rows}")
    more = ["Knots 2027-03-01T09:00/2027-03-01T10:00"]
    assert sorted(built(source)) == sorted(HALF_TERM + more)
    said = nomarium("build", source, "-o", tmp_path / "o.ics").text
    assert "line-" not in said
    assert "Timetable 8 February to 1 March 2027" in said


@pytest.mark.parametrize("rows", [DRAWN, LISTED], ids=["drawn", "listed"])
def test_days_off_that_cannot_be_read_stop_a_timetable(rows: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"{rows}No classes from 3/4/2027\n")
    assert "“No classes from 3/4/2027” seems to say when there is no school" in refused(source, *WEEKS)


@pytest.mark.parametrize(
    "line", ["Updated 16/02/2027", "Valid from 8 February 2027", "Printed 16 February 2027"]
)
def test_a_line_about_the_paper_dates_no_rows(line: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Timetable from 8 February 2027\n{DRAWN}{line}\n")
    weekly = [
        f"{name} 2027-02-{day:02}T09:00/2027-02-{day:02}T10:00" for name, day in (("Knots", 8), ("Tar", 9))
    ]
    assert "--from" in refused(source)
    assert built(source, "--from", "2027-02-08", "--until", "2027-02-09") == weekly


def test_rows_in_periods_without_their_times_are_asked_about(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Class,Day,Period\nKnots,Mon,1\nTar,Tue,2\n", "classes.csv")
    assert "nothing says when the periods are" in refused(source, *WEEKS)
    bells = csv_file(tmp_path, "Period,Start,End\n1,9:00,10:00\n2,10:00,11:00\n", "bells.csv")
    said = nomarium("build", source, bells, "-o", tmp_path / "o.ics", "--as", "plan", *WEEKS)
    assert said.status == 0, said.text
    assert len(built(source, *WEEKS, "--column", "Period=description")) == 6


DATES = [["2027-02-08", "Term starts"], ["2027-02-15", "Half term begins"], ["2027-02-22", "School resumes"], ["2027-02-23", "Term ends"]]  # fmt: skip


def drawn(folder: Path, **more: Sequence[Sequence[object]]) -> Path:
    week = [["Spring 2027", "Mon", "Tue"], ["P1 (9:00–10:00)", "Rig 1 / Loft 1", "Rig 2 / Loft 1"]]
    return plan_book(folder, {"Quill": week, **more})


def plan_book(folder: Path, sheets: Mapping[str, Sequence[Sequence[object]]]) -> Path:
    """A workbook of these sheets alone."""
    path = workbook(folder, [], more=dict(sheets))
    book = openpyxl.load_workbook(path)
    del book["Events"]
    book.save(path)
    return path


def test_school_that_resumes_ends_the_days_off(tmp_path: Path) -> None:
    assert sorted(built(drawn(tmp_path, Dates=DATES))) == sorted(
        one.replace("Knots", "Rig 1").replace("Tar", "Rig 2") + " @ Loft 1" for one in HALF_TERM
    )


def test_a_sheet_with_days_without_school_is_not_passed_over(tmp_path: Path) -> None:
    diary = [["Date", "What", "Who"], ["2027-02-12", "Reports due", "staff"], ["2027-02-15", "Inset day", "all"]]  # fmt: skip
    source = drawn(tmp_path, Diary=diary)
    assert "“Inset day” in Diary seems to say that there is no school" in refused(source, *WEEKS)
    assert len(built(source, *WEEKS, "--table", "Diary=events")) == 8
    assert len(built(source, *WEEKS, "--table", "Diary=")) == 6
    diary[2][1] = "Photo day"
    assert len(built(drawn(tmp_path, Diary=diary), *WEEKS)) == 6


PATTERNS = [
    ["Course", "Meeting Times", "Room", "Start", "End"],
    ["Knots", "MW 9:00-10:15", "Loft 1", "2027-02-08", "2027-02-10"],
    ["Tar", "F 9:00-10:00; M 15:00-15:50", "Loft 2", "2027-02-08", "2027-02-12"],
    ["Oak", "Tue 10:00-11:00 and Thu 14:00-15:00", "Shed 3", "2027-02-08", "2027-02-11"],
]


def listed(rows: list[list[str]]) -> str:
    return "\n".join(",".join(row) for row in rows) + "\n"


def test_courses_with_several_days_and_times_in_a_cell_are_a_timetable(tmp_path: Path) -> None:
    held = [
        "Knots 2027-02-08T09:00/2027-02-08T10:15 @ Loft 1", "Knots 2027-02-10T09:00/2027-02-10T10:15 @ Loft 1",
        "Oak 2027-02-09T10:00/2027-02-09T11:00 @ Shed 3", "Oak 2027-02-11T14:00/2027-02-11T15:00 @ Shed 3",
        "Tar 2027-02-08T15:00/2027-02-08T15:50 @ Loft 2", "Tar 2027-02-12T09:00/2027-02-12T10:00 @ Loft 2",
    ]  # fmt: skip
    open_one = ["Hulls", "ARR", "", "2027-02-08", "2027-02-12"]
    assert sorted(built(csv_file(tmp_path, listed([*PATTERNS, open_one])))) == held
    assert sorted(built(csv_file(tmp_path, listed([*PATTERNS[:2], open_one])))) == held[:2]


def test_a_dated_cycle_may_have_days_off_without_a_label(tmp_path: Path) -> None:
    days = [["Date", "Event", "Day"], ["2027-02-08", "", "1"], ["2027-02-09", "Staff day", ""], ["2027-02-10", "", "2"], ["2027-02-11", "", "1"]]  # fmt: skip
    week = [["", "Day 1", "Day 2"], ["9:00-10:00", "Knots", "Tar"]]
    source = plan_book(tmp_path, {"Week": week, "Calendar": days})
    assert built(source) == [
        "Knots 2027-02-08T09:00/2027-02-08T10:00",
        "Tar 2027-02-10T09:00/2027-02-10T10:00",
        "Knots 2027-02-11T09:00/2027-02-11T10:00",
    ]


def test_titles_with_days_of_their_own_are_asked_about(tmp_path: Path) -> None:
    rows = "Player,Practice 1,Game\nHeron,Mon 11 Jan 2027,Sat 16 Jan 10am v Tern\nTern,Tue 12 Jan 2027,Sat 16 Jan 10am v Heron\n"
    assert "“Sat 16 Jan 10am v Tern”" in refused(csv_file(tmp_path, rows))
    own = "Date,What\n11 Jan 2027,Choir (Mon 11 Jan)\n12 Jan 2027,Board of 12 Jan\n"
    assert len(built(csv_file(tmp_path, own))) == 2


def test_a_month_matrix_may_say_weekdays_and_times(tmp_path: Path) -> None:
    rows = ',January 2027,February 2027\nAGM,"Sat 9th, noon","Mon 8th, 7pm and 15th, 8pm"\nQuiz,4th at 5pm,5th 7-9pm\n'
    assert sorted(built(csv_file(tmp_path, rows))) == [
        "AGM 2027-01-09T12:00/2027-01-09T13:00", "AGM 2027-02-08T19:00/2027-02-08T20:00", "AGM 2027-02-15T20:00/2027-02-15T21:00",
        "Quiz 2027-01-04T17:00/2027-01-04T18:00", "Quiz 2027-02-05T19:00/2027-02-05T21:00",
    ]  # fmt: skip


def test_a_remark_beside_a_dated_cycle_that_changes_the_bells_is_asked_about(tmp_path: Path) -> None:
    days = [["Date", "Label", "Note"], ["2027-02-08", "Keel", ""], ["2027-02-09", "Rib", "Early closing"]]
    classes = [["Class", "Label", "Period"], ["Knots", "Keel", "1"], ["Tar", "Rib", "1"]]
    source = plan_book(tmp_path, {"Classes": classes, "Bells": [["Period", "Start", "End"], ["1", "8:30", "9:20"]], "Days": days})  # fmt: skip
    assert "on which dates the bells or the timetable change" in refused(source)
    assert len(built(source, "--column", "Note=")) == 2
