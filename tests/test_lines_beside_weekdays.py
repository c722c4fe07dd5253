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


def test_a_remark_beside_a_dated_cycle_names_bells_or_is_left_out(tmp_path: Path) -> None:
    days = [["Date", "Label", "Note"], ["2027-02-08", "Keel", ""], ["2027-02-09", "Rib", "Early closing"]]
    classes = [["Class", "Label", "Period"], ["Knots", "Keel", "1"], ["Tar", "Rib", "1"]]
    source = plan_book(tmp_path, {"Classes": classes, "Bells": [["Period", "Start", "End"], ["1", "8:30", "9:20"]], "Days": days})  # fmt: skip
    said = refused(source)
    assert "“Early closing”" in said
    assert 'leave it out: --column "Note="' in said
    assert len(built(source, "--column", "Note=")) == 2


def test_weekdays_on_sheets_of_their_own_with_groups_across(tmp_path: Path) -> None:
    monday = [["Time", "7A", "7B"], ["9:00-10:00", "Knots (Quill)", "Tar (Osei)"]]
    tuesday = [["Time", "7A", "7B"], ["9:00-10:00", "Tar (Osei)", "Knots (Quill)"]]
    said = [["Classes begin 8 February 2027 and end 23 February 2027"], ["No classes 15–19 February (half term)"]]  # fmt: skip
    source = plan_book(tmp_path, {"Monday": monday, "Tuesday": tuesday, "Notes": said})
    days = [("Knots", "Tar"), ("Tar", "Knots")]
    assert "“Quill” may be a room or a teacher" in refused(source)
    assert sorted(built(source, "--cell", "class (teacher)")) == sorted(
        f"{name} {day}T09:00/{day}T10:00" for week in (FIRST, LAST) for day, names in zip(week, days, strict=True) for name in names
    )  # fmt: skip
    one_day = nomarium("build", plan_book(tmp_path, {"Monday": monday, "Tuesday": tuesday}), "-o", tmp_path / "o.ics", "--set", "date=2027-02-08")  # fmt: skip
    assert one_day.status == 1
    assert not (tmp_path / "o.ics").exists()


def test_weekdays_with_their_times_head_the_columns(tmp_path: Path) -> None:
    tutors = [["Tutor", "Mon 9:00", "Tue 9:00"], ["Quill", "Heron", ""], ["Osei", "", "Tern"]]
    terms = [["Spring term: 8 February – 5 March 2027"], ["Half term: 15–26 February 2027"]]
    assert built(plan_book(tmp_path, {"Tutors": tutors, "Term dates": terms})) == [
        "Heron 2027-02-08T09:00/2027-02-08T10:00", "Tern 2027-02-09T09:00/2027-02-09T10:00",
        "Heron 2027-03-01T09:00/2027-03-01T10:00", "Tern 2027-03-02T09:00/2027-03-02T10:00",
    ]  # fmt: skip


def test_a_class_beside_its_code_is_what_it_is_called(tmp_path: Path) -> None:
    rows = [["Code", "Class", "Day", "Time"], ["K1", "Knots", "Mon", "9:00-10:00"], ["T1", "Tar", "Tue", "9:00-10:00"]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert built(plan_book(tmp_path, {"Classes": rows, "Terms": terms})) == HALF_TERM[:2]


def test_where_only_the_edges_of_a_year_can_be_read_nothing_is_built(tmp_path: Path) -> None:
    week = [["Rig 1", "mornings", "Loft 1"], ["Sail 1", "evenings from 19:00", "Loft 2"]]
    dates = [["Start", "2027-01-04", ""], ["End", "2027-03-26", ""], ["No school", "2027-02-15", "2027-02-19"]]  # fmt: skip
    times = [["P1", "8:45", "9:45"], ["P2", "9:50", "10:50"]]
    assert "which is about the year" in refused(plan_book(tmp_path, {"TT": week, "Times": times, "Dates": dates}))  # fmt: skip


KEYS = [
    "Key: E 0600-1400; L 1400-2200; RD rest day",
    '"Shifts: E (early) 06:00-14:00 | L (late) 14:00-22:00 | RD off"',
    '"E = early 06:00-14:00, L = late 14:00-22:00, RD = rest day"',
]


@pytest.mark.parametrize("key", KEYS)
def test_a_key_in_one_line_gives_codes_their_times(key: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Name,Fri 1 Jan 2027,Sat 2 Jan 2027\nQuill,E,RD\nBell,RD,L\n{key}\n")
    times = [event.split(" 2027", 1)[1] for event in built(source)]
    assert times == ["-01-01T06:00/2027-01-01T14:00", "-01-02T14:00/2027-01-02T22:00"]


def test_a_side_without_an_opponent_has_no_game(tmp_path: Path) -> None:
    rows = "Team,Opponent,Date,K.O.,Result\n1st XI,Heron,09/01/2027,14:00,\n1st XI,,23/01/2027,,{}\n"
    assert built(csv_file(tmp_path, rows.format("BYE"))) == ["1st XI v Heron 2027-01-09T14:00/2027-01-09T15:00"]  # fmt: skip
    assert "row 3" in refused(csv_file(tmp_path, rows.format(""), "open.csv"))


HEADLESS = [
    ["Apprentices Year 1"],
    ["Mon", "08:30-10:00", "Rigging", "RQ", "L1"],
    ["", "10:15-11:45", "Sails", "MO", "L2"],
    ["Tue", "08:30-10:00", "Design", "HB", "S3"],
    ["Apprentices Year 2"],
    ["Tue", "10:15-11:45", "Design", "HB", "S3"],
]
YEAR = [["Spring", "8 Feb 2027 to 23 Feb 2027"], ["Half terms", "26-30 Oct 2026 and 15-19 Feb 2027"]]


def test_classes_without_headings_under_their_groups(tmp_path: Path) -> None:
    source = plan_book(tmp_path, {"Lessons": HEADLESS, "Year planner": YEAR})
    of_week = [("Rigging", 0, "08:30", "10:00", "L1"), ("Sails", 0, "10:15", "11:45", "L2"), ("Design", 1, "08:30", "10:00", "S3"), ("Design", 1, "10:15", "11:45", "S3")]  # fmt: skip
    assert sorted(built(source)) == sorted(
        f"{name} {week[day]}T{start}/{week[day]}T{end} @ {room}" for week in (FIRST, LAST) for name, day, start, end, room in of_week
    )  # fmt: skip


def test_a_class_is_never_called_after_a_time(tmp_path: Path) -> None:
    rows = [["", "Mon", "Tue"], ["P1 (9:00-10:00)", "10:15-11:45", "Rig 1"], ["P2 (10:00-11:00)", "Rig 1", "8:30-9:15"]]  # fmt: skip
    assert "is a time, and stands where a class should" in refused(plan_book(tmp_path, {"Timetable": rows}), *WEEKS)  # fmt: skip


def test_periods_of_weekdays_in_one_cell(tmp_path: Path) -> None:
    load = [["Teacher", "Class", "Periods"], ["Quill", "Knots", "Mon 1; Tue 2"], ["Osei", "Tar", "Tue 1-2"]]
    bells = [["Period", "Start", "End"], ["1", "9:00", "10:00"], ["2", "10:00", "11:00"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert sorted(built(plan_book(tmp_path, {"Load": load, "Bells": bells, "Terms": terms}))) == [
        "Knots 2027-02-08T09:00/2027-02-08T10:00",
        "Knots 2027-02-09T10:00/2027-02-09T11:00",
        "Tar 2027-02-09T09:00/2027-02-09T11:00",
    ]


def test_times_beside_the_dates_of_a_roster_are_those_of_its_cells(tmp_path: Path) -> None:
    down = "Slot,Quill,Osei,Bell\n11/01/2027 09:00,Heron,Tern,\n11/01/2027 09:20,Gull,,Tern\n12/01/2027 09:00,,Heron,Gull\n13/01/2027 09:00,Tern,,\n"
    assert sorted(built(csv_file(tmp_path, down), "--date-order", "dmy", "--as", "roster"))[:2] == [
        "Bell: Gull 2027-01-12T09:00/2027-01-12T09:20",
        "Bell: Tern 2027-01-11T09:20/2027-01-11T09:40",
    ]
    across = ",Sat 16 Jan 2027 10am,Sat 23 Jan 2027 11am\nGate,Quill,Bell\nBar,Osei,Quill\n"
    assert sorted(built(csv_file(tmp_path, across, "across.csv"))) == [
        "Bar: Osei 2027-01-16T10:00/2027-01-16T11:00", "Bar: Quill 2027-01-23T11:00/2027-01-23T12:00",
        "Gate: Bell 2027-01-23T11:00/2027-01-23T12:00", "Gate: Quill 2027-01-16T10:00/2027-01-16T11:00",
    ]  # fmt: skip


def test_a_day_of_a_cycle_is_no_part_of_the_day(tmp_path: Path) -> None:
    rows = "Date,Day,Period 1 (9-10),Period 2 (10-11)\n2027-01-04,Keel,Rig,Sail\n2027-01-05,Rib,Sail,Rig\n"
    assert [event.split(" 2027")[0] for event in built(csv_file(tmp_path, rows))] == ["Rig", "Sail", "Sail", "Rig"]  # fmt: skip


def test_times_among_the_words_of_titles(tmp_path: Path) -> None:
    rows = "Date,What\n12 Jan 2027,Choir 7pm\n13 Jan 2027,Board 6.30pm\n14 Jan 2027,Payslips\n15 Jan 2027,Bus leaves 8am returns 4pm\n"
    source = csv_file(tmp_path, rows)
    assert built(source) == [
        "Choir 2027-01-12T19:00/2027-01-12T20:00", "Board 2027-01-13T18:30/2027-01-13T19:30",
        "Payslips 2027-01-14/2027-01-15", "Bus leaves 8am returns 4pm 2027-01-15/2027-01-16",
    ]  # fmt: skip
    assert built(source, "--column", "What=summary")[0] == "Choir 2027-01-12T19:00/2027-01-12T20:00"
    assert built(source, "--set", "all-day=yes")[0] == "Choir 7pm 2027-01-12/2027-01-13"


def test_the_heading_of_dates_may_say_their_year(tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, "Date (2027),What\n12 Jan,Choir\n14 Oct,Band\n"))[1] == "Band 2027-10-14/2027-10-15"  # fmt: skip
    quarters = "Meeting,Q1 2027,Q4 2027\nBoard,20 Jan,20 Oct\nAudit,13 Jan,13 Oct\n"
    said = built(csv_file(tmp_path, quarters), "--school-year", "2026:2027")
    assert "Board: Q4 2027 2027-10-20/2027-10-21" in said


def test_hours_in_a_column_without_a_heading_are_asked_about(tmp_path: Path) -> None:
    rows = "1 Jan 2027,New Year,closed\n16 Jan 2027,Volunteers,9-12\n20 Feb 2027,Volunteers,9-12\n"
    assert "The column C holds times" in refused(csv_file(tmp_path, rows))


def test_sheets_that_are_called_after_the_days_of_a_cycle(tmp_path: Path) -> None:
    keel = [["Time", "Apprentices", "Journeymen"], ["9:00-10:00", "Rig (L1)", "Tides (S3)"]]
    rib = [["Time", "Apprentices", "Journeymen"], ["9:00-10:00", "Sail (L2)", "Law (S3)"]]
    days = [["Date", "Cycle"], ["2027-02-08", "Keel"], ["2027-02-09", "Rib"], ["2027-02-10", "Keel"]]
    source = plan_book(tmp_path, {"Keel": keel, "Rib": rib, "Days": days})
    assert sorted(built(source)) == sorted(
        f"{name} {day}T09:00/{day}T10:00 @ {room}"
        for day, held in (("2027-02-08", keel), ("2027-02-09", rib), ("2027-02-10", keel))
        for name, room in (cell.rstrip(")").split(" (") for cell in held[1][1:])
    )


def test_sections_with_their_first_and_last_days_in_one_cell(tmp_path: Path) -> None:
    rows = (
        "CRN,Subj,Crse,Sec,Title,Days,Time,Location,Instructor,Date (MM/DD)\n10231,RIG,101,01,Rigging,MW,0900-1015,LFT 1,Quill R,02/08-02/24\n"
        "10233,SAL,210,01,Sails,F,0900-1150,LFT 2,Osei M,02/08-02/24\n10235,DES,400,01,Thesis,,TBA,,Bell H,02/08-02/24\n"
    )  # fmt: skip
    held = built(csv_file(tmp_path, rows, "export.csv"), "--school-year", "2026:2027")
    assert [one for one in held if one.startswith("Sails")] == [f"Sails 2027-02-{day}T09:00/2027-02-{day}T11:50 @ LFT 2" for day in (12, 19)]  # fmt: skip
    assert len(held) == 8


def test_lessons_by_their_numbers_are_no_classes(tmp_path: Path) -> None:
    rows = [
        ["Lesson", "Time", "Mon", "Tue"],
        ["1", "8.30-9.20", "Knots\nQuill\nLoft 1", "Tar\nOsei\nShed 2"],
        ["Break", "9.20-9.40"],
        ["2", "9.40-10.30", "Tar\nOsei\nShed 2", "Knots\nQuill\nLoft 1"],
    ]
    held = built(plan_book(tmp_path, {"Master": rows}), "--from", "2027-02-08", "--until", "2027-02-09")
    assert sorted(held) == [
        "Knots 2027-02-08T08:30/2027-02-08T09:20 @ Loft 1", "Knots 2027-02-09T09:40/2027-02-09T10:30 @ Loft 1",
        "Tar 2027-02-08T09:40/2027-02-08T10:30 @ Shed 2", "Tar 2027-02-09T08:30/2027-02-09T09:20 @ Shed 2",
    ]  # fmt: skip


@pytest.mark.parametrize(("knots", "tar", "rooms"), [("x", "x", ("", "")), ("Loft 1", "Shed 2", (" @ Loft 1", " @ Shed 2"))])  # fmt: skip
def test_a_column_for_each_period_of_each_weekday(
    knots: str, tar: str, rooms: tuple[str, str], tmp_path: Path
) -> None:
    rows = [["Class", "Teacher", "Mon P1", "Mon P2", "Tue P1", "Tue P2"], ["Knots", "Quill", knots, "", "", knots], ["Tar", "Osei", "", tar, tar, ""]]  # fmt: skip
    bells = [["Period", "Start", "End"], ["P1", "9:00", "10:00"], ["P2", "10:00", "11:00"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert sorted(built(plan_book(tmp_path, {"Timetable": rows, "Bells": bells, "Terms": terms}))) == [
        f"Knots 2027-02-08T09:00/2027-02-08T10:00{rooms[0]}", f"Knots 2027-02-09T10:00/2027-02-09T11:00{rooms[0]}",
        f"Tar 2027-02-08T10:00/2027-02-08T11:00{rooms[1]}", f"Tar 2027-02-09T09:00/2027-02-09T10:00{rooms[1]}",
    ]  # fmt: skip


def test_classes_are_held_while_they_are_effective(tmp_path: Path) -> None:
    rows = [["Class", "Days", "Start", "End", "Effective from", "Effective to"], ["Knots", "MT", "09:00", "10:00", "2027-02-08", "2027-02-09"]]  # fmt: skip
    book = plan_book(tmp_path, {"Timetable": rows, "Bells": [["Period", "Start", "End"], ["1", "9:00", "10:00"]]})  # fmt: skip
    assert built(book, *WEEKS) == [HALF_TERM[0], "Knots 2027-02-09T09:00/2027-02-09T10:00"]


def test_a_week_of_a_cycle_whose_days_stand_on_another_sheet(tmp_path: Path) -> None:
    week = [["Form 1"], ["", "Keel", "Rib"], ["8:30", "Knots", "Tar"], ["9:25", "Rig", "Knots"], ["10:15", "Break", "Break"], ["10:35", "Shop", "Shop"], ["12:00", "End", "End"]]  # fmt: skip
    days = [["Date", "Cycle day"], ["2027-02-08", "Keel"], ["2027-02-09", "Rib"], ["2027-02-10", "Keel"]]
    held = built(plan_book(tmp_path, {"Form 1": week, "Calendar": days}))
    assert len(held) == 9 and "Shop 2027-02-08T10:35/2027-02-08T12:00" in held


def test_groups_over_days_that_come_again_are_those_of_their_classes(tmp_path: Path) -> None:
    rows = [["Time", "Apprentices", "", "Journeymen", ""], ["", "Mon", "Tue", "Mon", "Tue"], ["9:00-10:00", "Knots", "", "Masts", "Tar"]]  # fmt: skip
    source = plan_book(tmp_path, {"Timetable": rows})
    said = nomarium(
        "build", source, "-o", tmp_path / "o.csv", "--from", "2027-02-08", "--until", "2027-02-09"
    )
    assert said.status == 0, said.text
    lines = (tmp_path / "o.csv").read_text("utf-8-sig").splitlines()
    assert ["Apprentices" in line for line in lines[1:]] == [True, False, False]
    assert ["Journeymen" in line for line in lines[1:]] == [False, True, True]


def test_bells_that_lie_on_their_side_and_halves_of_the_day(tmp_path: Path) -> None:
    rows = [["Day", "Session", "Subject"], ["Mon", "AM", "Knots"], ["Tue", "PM", "Tar"]]
    bells = [["Period", "AM", "PM"], ["Start", "9:00", "13:00"], ["End", "12:00", "16:00"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert built(plan_book(tmp_path, {"Timetable": rows, "Bells": bells, "Terms": terms})) == [
        "Knots 2027-02-08T09:00/2027-02-08T12:00",
        "Tar 2027-02-09T13:00/2027-02-09T16:00",
    ]


def test_several_times_of_a_weekday_in_one_cell(tmp_path: Path) -> None:
    rows = [["Subject", "Rm", "Mon", "Tue"], ["Knots", "L1", "9:00-10:00\n13:00-14:00", ""], ["Tar", "S2", "", "9:00-10:00"]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert built(plan_book(tmp_path, {"Lessons": rows, "Terms": terms})) == [
        "Knots 2027-02-08T09:00/2027-02-08T10:00 @ L1",
        "Knots 2027-02-08T13:00/2027-02-08T14:00 @ L1",
        "Tar 2027-02-09T09:00/2027-02-09T10:00 @ S2",
    ]


def test_times_without_ends_on_a_sheet_for_each_weekday_last_until_the_next(tmp_path: Path) -> None:
    monday = [["Time", "Loft 1", "Shed 2"], ["8:30", "Knots (A1)", ""], ["9:25", "Tar (J1)", "Rig (A1)"], ["10:15", "", ""]]  # fmt: skip
    tuesday = [["Time", "Loft 1", "Shed 2"], ["8:30", "Rig (J1)", ""], ["9:25", "Tar (A1)", ""]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    source = plan_book(tmp_path, {"Monday": monday, "Tuesday": tuesday, "Terms": terms})
    assert sorted(built(source)) == [
        "Knots 2027-02-08T08:30/2027-02-08T09:25 @ Loft 1", "Rig 2027-02-08T09:25/2027-02-08T10:15 @ Shed 2",
        "Rig 2027-02-09T08:30/2027-02-09T09:25 @ Loft 1", "Tar 2027-02-08T09:25/2027-02-08T10:15 @ Loft 1",
        "Tar 2027-02-09T09:25/2027-02-09T10:20 @ Loft 1",
    ]  # fmt: skip
    assert nomarium("build", source, "-o", tmp_path / "o.csv").status == 0
    assert "A1" in (tmp_path / "o.csv").read_text("utf-8-sig").split("Group")[1]


def test_the_heading_of_groups_is_no_group(tmp_path: Path) -> None:
    rows = [["Group", "Mon", "Tue"], ["A1 (9:00-10:00)", "Knots", "Tar"], ["J1 (13:00-14:00)", "Masts", "Rig"]]  # fmt: skip
    source = plan_book(tmp_path, {"Timetable": rows})
    out = tmp_path / "o.csv"
    assert nomarium("build", source, "-o", out, "--from", "2027-02-08", "--until", "2027-02-09").status == 0
    head, *lines = (line.split(",") for line in out.read_text("utf-8-sig").splitlines())
    assert [line[head.index("Group")] for line in lines] == ["A1", "J1", "A1", "J1"]


def test_days_off_without_headings(tmp_path: Path) -> None:
    rows = [["Course", "Mon", "Tue", "Begins", "Ends"], ["Knots", "Y", "", "9:00", "10:00"], ["Tar", "", "Y", "9:00", "10:00"]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-16"]]
    closed = [["Date"], ["2027-02-15"]]
    source = plan_book(tmp_path, {"Timetable": rows, "Terms": terms, "Days off": closed})
    assert built(source) == [*HALF_TERM[:2], "Tar 2027-02-16T09:00/2027-02-16T10:00"]
    for name in ("Days off", "Closures"):  # a first and a last day, or two days
        pairs = plan_book(tmp_path, {"Timetable": rows, "Terms": terms, name: [["", ""], ["2027-02-10", "2027-02-16"]]})  # fmt: skip
        out = tmp_path / f"{name}.csv"
        assert nomarium("build", pairs, "-o", out).status == 1 and not out.exists()


def test_groups_under_each_day_beside_periods(tmp_path: Path) -> None:
    bells = [["Period", "Start", "End"], ["1", "9:00", "10:00"], ["2", "10:00", "11:00"]]
    rows = [["", "MON", "", "TUE", ""], ["Period", "Apprentices", "Journeymen", "Apprentices", "Journeymen"], ["1", "Knots", "Masts", "Tar", ""], ["2", "", "", "", "Sails"]]  # fmt: skip
    source, out = plan_book(tmp_path, {"Timetable": rows, "Bells": bells}), tmp_path / "o.csv"
    assert nomarium("build", source, "-o", out, "--from", "2027-02-08", "--until", "2027-02-09").status == 0
    head, *lines = (line.split(",") for line in out.read_text("utf-8-sig").splitlines())
    assert sorted((line[0], line[head.index("Group")]) for line in lines) == [
        ("Knots", "Apprentices"), ("Masts", "Journeymen"), ("Sails", "Journeymen"), ("Tar", "Apprentices"),
    ]  # fmt: skip
    rooms = [["", "MON", "", "", "TUE", "", ""], ["Period", *["Apprentices", "Journeymen", "Rooms"] * 2], ["1", "Knots", "Masts", "L1 / S2", "Tar", "", "L1"]]  # fmt: skip
    beside = plan_book(tmp_path, {"Timetable": rooms, "Bells": bells})
    target = tmp_path / "rooms.csv"
    said = nomarium("build", beside, "-o", target, "--from", "2027-02-08", "--until", "2027-02-09")
    assert said.status == 1 and "“Rooms” heads a column of each day" in said.text


def test_classes_that_are_called_as_periods_could_be(tmp_path: Path) -> None:
    rows = [["Teacher", "Class", "Mon", "Tue"], ["Quill", "7A", "1", "2"], ["Bell", "7B", "2", ""]]
    bells = [["Period", "Start", "End"], ["1", "9:00", "10:00"], ["2", "10:00", "11:00"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert built(plan_book(tmp_path, {"Timetable": rows, "Bells": bells, "Terms": terms})) == [
        "7A 2027-02-08T09:00/2027-02-08T10:00", "7B 2027-02-08T10:00/2027-02-08T11:00", "7A 2027-02-09T10:00/2027-02-09T11:00",
    ]  # fmt: skip


def test_times_on_sheets_for_weekdays_last_no_longer_than_most(tmp_path: Path) -> None:
    times = [
        ["Time", "Loft 1", "Shed 2"],
        *[[time, "Knots", ""] for time in ("9:00", "10:00", "11:00", "1:00")],
    ]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    source = plan_book(tmp_path, {"Monday": times, "Tuesday": times[:3], "Terms": terms})
    held = built(source)
    assert "Knots 2027-02-08T09:00/2027-02-08T12:00 @ Loft 1" in held  # and is not held over lunch
    assert "Knots 2027-02-08T13:00/2027-02-08T14:00 @ Loft 1" in held
    said = nomarium("build", source, "-o", tmp_path / "o.csv").text
    assert "Lines that say only when they begin last until the next one" in said


def test_a_place_in_bells_on_their_side_is_that_of_the_file(tmp_path: Path) -> None:
    rows = [["Period", "1", "2"], ["Mon", "Knots", "Tar"], ["Tue", "Tar", ""]]
    bells = [["Period", "1", "2"], ["Start", "9:00", "10:00"], ["End", "9:50", "9:40"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    said = refused(plan_book(tmp_path, {"Timetable": rows, "Bells": bells, "Terms": terms}))
    assert "row 3, column C “End”: “9:40”" in said


def test_days_on_which_weeks_begin_are_no_numbers_of_weeks(tmp_path: Path) -> None:
    for heading, days in (("Week beg.", ("4th", "11th")), ("Week", ("4", "11", "18", "25", "1"))):
        rows = "\n".join(f"{day},Quill,Osei" for day in days)
        source = csv_file(tmp_path, f"{heading},Mon,Tue\n{rows}\n", f"{heading}.csv")
        said = refused(source, "--day-one", "2027-01-04")
        assert f"“{days[0]}” is the day on which a week begins" in said
    weeks = csv_file(tmp_path, "Week,Mon,Tue\n1,Quill,Osei\n2,Bell,\n", "weeks.csv")
    assert built(weeks, "--day-one", "2027-01-04")[-1] == "Bell 2027-01-11/2027-01-12"


def test_a_survey_says_what_sheets_are_taken_for_in_the_end(tmp_path: Path) -> None:
    week = [["", "Keel", "Rib"], ["8:30-9:20", "Knots", "Tar"]]
    days = [["Date", "Cycle day"], ["2027-02-08", "Keel"], ["2027-02-09", "Rib"], ["2027-02-10", "Keel"]]
    said = nomarium("survey", plan_book(tmp_path, {"Form 1": week, "Calendar": days})).text
    assert "a week drawn with the labels of the cycle" in said and "nothing in it says so" not in said
