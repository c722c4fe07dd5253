"""Weeks drawn with the times in their cells: who teaches stands below, studios head columns, and evenings follow afternoons."""

from __future__ import annotations

from pathlib import Path

import openpyxl
import pytest

from helpers import built, csv_file, nomarium, refused, workbook
from test_lines_beside_weekdays import plan_book
from test_whose_classes import MON, TUE, rows_of

WEEK = ("--from", MON, "--until", "2027-02-13")
WED, SAT = "2027-02-10", "2027-02-13"
STUDIOS: list[list[object]] = [
    ["Classes in the lofts, 2027"], ["Monday", "", "Tuesday", ""], ["Loft 1", "Shed 2", "Loft 1", "Shed 2"],
    ["4:00-5:00 Oars\nMs Finch", "7:00-8:00 Tar\nMr Osei", "", "9:30-10:30am Knots\nMs Vane"],
    ["5:00-6:00 Rig\nMs Finch", "closed", "7:00-8:00 Glue\nMs Finch", ""], ["7:00-8:00 Charts\nMs Finch"],
]  # fmt: skip


def week_book(folder: Path, rows: list[list[object]], merged: tuple[str, ...] = ()) -> Path:
    """A workbook of one sheet called Week."""
    path = workbook(folder, rows, merged)
    book = openpyxl.load_workbook(path)
    book["Events"].title = "Week"
    book.save(path)
    return path


def test_studios_under_days_are_the_rooms_of_classes_that_say_their_times(tmp_path: Path) -> None:
    source = week_book(tmp_path, STUDIOS, merged=("A2:B2", "C2:D2"))
    assert [one[:5] for one in rows_of(source, *WEEK)] == [
        ("Oars", MON, "16:00", "Loft 1", "Ms Finch"), ("Rig", MON, "17:00", "Loft 1", "Ms Finch"),
        ("Charts", MON, "19:00", "Loft 1", "Ms Finch"), ("Tar", MON, "19:00", "Shed 2", "Mr Osei"),
        ("Knots", TUE, "09:30", "Shed 2", "Ms Vane"), ("Glue", TUE, "19:00", "Loft 1", "Ms Finch"),
    ]  # fmt: skip
    text = nomarium("survey", source, *WEEK).text
    assert "run forward through the day: 4:00-5:00 Oars" in text
    assert "1 cell says that nothing is taught" in text


@pytest.mark.parametrize(
    ("cell", "expected"),
    [
        ("4:00-4:45pm Oars", ("Oars", "16:00", "")),
        ("Oars 4:00-4:45pm", ("Oars", "16:00", "")),
        ("Oars\n4:00-4:45pm\nMs Finch", ("Oars", "16:00", "Ms Finch")),
        ("4:00-4:45pm\nOars\nMs Finch", ("Oars", "16:00", "Ms Finch")),
        ("Oars (Ms Finch)\n4pm", ("Oars", "16:00", "Ms Finch")),
    ],
)
def test_a_cell_says_its_class_its_time_and_its_teacher_in_any_order(cell: str, expected: tuple[str, ...], tmp_path: Path) -> None:  # fmt: skip
    teacher = bool(expected[2])
    other = cell.replace("Oars", "Tar").replace("Finch", "Vane").replace("4:", "5:").replace("4pm", "5pm")
    terms = [["Term", "First day", "Last day"], ["Spring", MON, TUE]]
    source = plan_book(tmp_path, {"Week": [["Monday", "Tuesday"], [cell, other]], "Terms": terms})
    assert [(one[0], one[2], one[4]) for one in rows_of(source)] == [
        expected,
        ("Tar", "17:00", "Ms Vane" if teacher else ""),
    ]


def test_several_classes_in_a_cell_are_each_at_their_own_time(tmp_path: Path) -> None:
    cell = "9:00-10:00am Oars\nMs Finch\n10:15-11:00am Rig\nMr Osei"
    source = week_book(tmp_path, [["Monday", "Tuesday"], [cell, "9:00-10:00am Tar\nMs Vane"]])
    assert [(one[0], one[1], one[2], one[4]) for one in rows_of(source, *WEEK)] == [
        ("Oars", MON, "09:00", "Ms Finch"), ("Rig", MON, "10:15", "Mr Osei"), ("Tar", TUE, "09:00", "Ms Vane"),
    ]  # fmt: skip


def test_a_class_without_a_time_among_those_that_say_theirs_is_asked_about(tmp_path: Path) -> None:
    rows = [["Monday", "Tuesday"], ["9:00-10:00am Oars\nMs Finch", "Tar\nMs Vane"], ["10:15-11:00am Rig\nMs Finch", "1-2pm Glue\nMs Vane"]]  # fmt: skip
    assert "No line says in which period, or at which time, this is." in refused(week_book(tmp_path, rows), *WEEK)  # fmt: skip


ORDER = ["Monday", "Tuesday", "Saturday"]


@pytest.mark.parametrize(
    ("rows", "starts"),
    [
        ([["4:00 Oars", "7:00 Tar", "9:00 Rig"], ["7:30 Glue", "", "10:00 Knots"], ["7:00 Ash", "", ""]], ["4:00 pm", "7:00 am", "7:30 am"]),
        ([["4:00 Oars", "7:00 Tar", "9:00 Rig"], ["5:30 Glue", "", "10:00 Knots"], ["7:00 Ash", "", ""]], ["4:00 pm", "5:30 pm", "7:00 pm"]),
        ([["16:00 Oars", "7:00 Tar", "9:00 Rig"], ["17:30 Glue", "", "10:00 Knots"], ["7:00 Ash", "", ""]], ["4:00 pm", "5:30 pm", "7:00 am"]),
        ([["10:00 Oars", "7:00 Tar", "9:00 Rig"], ["11:30 Glue", "", "10:00 Knots"], ["12:15 Ash", "", ""]], ["10:00 am", "11:30 am", "12:15 pm"]),
    ],
    ids=["no order", "in order", "24-hour", "over noon"],
)  # fmt: skip
def test_a_time_below_those_of_an_afternoon_is_in_its_evening(rows: list[list[object]], starts: list[str], tmp_path: Path) -> None:  # fmt: skip
    found = built(week_book(tmp_path, [ORDER, *rows]), *WEEK)
    times = [f"{int(one.split('T')[1][:2]) % 12 or 12}{one.split('T')[1][2:5]} {'pm' if one.split('T')[1] >= '12' else 'am'}" for one in found if MON in one.split("/")[0]]  # fmt: skip
    assert sorted(times) == sorted(starts)
    is_late = "7:00 pm" in starts
    assert any(f"Tar {TUE}T{'19' if is_late else '07'}:00" in one for one in found)
    assert any(f"Rig {SAT}T09:00" in one for one in found)


def test_an_evening_that_may_be_a_morning_on_another_day_is_asked_about(tmp_path: Path) -> None:
    rows = [["5:30-6:30 Oars", "7:00-8:00 Tar", "7:00-8:00 Rig"], ["7:00-8:00 Glue", "", "8:00-9:00 Knots"]]
    text = refused(week_book(tmp_path, [ORDER, *rows]), *WEEK)
    assert "7:00 is in the evening on another day, below times of an afternoon; here it could be in the morning" in text  # fmt: skip
    said = [[cell.replace("7:00-8:00 Rig", "7:00-8:00am Rig") for cell in row] for row in rows]
    assert any(f"Rig {SAT}T07:00" in one for one in built(week_book(tmp_path, [ORDER, *said]), *WEEK))


def test_a_column_of_terms_that_nothing_reads_stops_the_build(tmp_path: Path) -> None:
    classes = [["Class", "Day", "Start", "End", "Offered"], ["Oars", "Mon", "9:00", "10:00", "S1"], ["Rig", "Mon", "10:15", "11:00", "S2"]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["S1", MON, "2027-02-12"], ["S2", "2027-02-15", "2027-02-19"]]
    source = plan_book(tmp_path, {"Classes": classes, "Terms": terms})
    assert "The column “Offered” says in which terms classes are held" in refused(source)
    assert [one[:2] for one in rows_of(source, "--column", "Offered=term")] == [("Oars", MON), ("Rig", "2027-02-15")]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": [[*classes[0][:4], "Trm"], *classes[1:]], "Terms": terms})
    assert [one[:2] for one in rows_of(source)] == [("Oars", MON), ("Rig", "2027-02-15")]


def test_codes_are_no_days_although_a_spreadsheet_could_count_them(tmp_path: Path) -> None:
    text = "CRN,Title,Date\n20113,Oars,2027-02-08\n20114,Rig,2027-02-09\n"
    assert len(built(csv_file(tmp_path, text))) == 2
    near = csv_file(tmp_path, text.replace("201", "464"), "near.csv")
    assert "holds days and is none of those that say when" in refused(near)


def test_the_weeks_that_a_title_says_have_the_year_of_the_school_year(tmp_path: Path) -> None:
    text = "Winter session: Feb 8 - Mar 5\nClass,Days,Time\nOars,M/W,4:00-4:30pm\n"
    message = refused(csv_file(tmp_path, text))
    assert "“Winter session: Feb 8 - Mar 5” says in which weeks" in message
    assert "not of which year" in message
    found = built(tmp_path / "events.csv", "--school-year", "2026:2027")
    assert (len(found), found[0]) == (8, "Oars 2027-02-08T16:00/2027-02-08T16:30")
    assert found[-1] == "Oars 2027-03-03T16:00/2027-03-03T16:30"


@pytest.mark.parametrize("asked", [(), ("--column", "Service=summary")], ids=["found", "asked"])
def test_times_before_titles_are_theirs_also_where_the_column_was_asked_for(asked: tuple[str, ...], tmp_path: Path) -> None:  # fmt: skip
    text = "Date,Service,Reader\n2027-02-14,8am Matins,A Osei\n2027-02-14,10.30am Blessing of boats,B Vane\n2027-02-21,8am Matins,\n"
    source = csv_file(tmp_path, text)
    assert built(source, *asked)[:2] == [
        "Matins 2027-02-14T08:00/2027-02-14T09:00", "Blessing of boats 2027-02-14T10:30/2027-02-14T11:30",
    ]  # fmt: skip
    assert "8am Matins 2027-02-14/2027-02-15" in built(source, *asked, "--set", "all-day=yes")


SAID = [
    "All classes 45 minutes",
    "Classes are 45 min long",
    "Each session lasts 45 mins.",
    "45-minute lessons",
]


@pytest.mark.parametrize("said", SAID)
def test_how_long_classes_last_is_what_a_line_beside_them_says(said: str, tmp_path: Path) -> None:
    week = f"Classes,,\n,Mon,Tue\n6:15am,Oars,Tar\n9:30am,Rig,\n5:30pm,Oars,Glue\n{said},,\n"
    source = csv_file(tmp_path, week, "week.csv")
    ends = {one.split("/")[1] for one in built(source, *WEEK)}
    assert ends == {f"{day}T{end}" for day, end in ((MON, "07:00"), (TUE, "07:00"), (MON, "10:15"), (MON, "18:15"), (TUE, "18:15"))}  # fmt: skip
    assert f"last as long as “{said}” says" in nomarium("survey", source, *WEEK).text
    dated = csv_file(tmp_path, f"Week of 8 Feb 2027,,\n{week}", "dated.csv")
    assert {one.split("/")[1] for one in built(dated)} == ends
    listed = csv_file(tmp_path, f"{said}\nDate,Class,Start\n{MON},Oars,9:00\n", "listed.csv")
    assert built(listed) == [f"Oars {MON}T09:00/{MON}T09:45"]
    assert built(listed, "--default-length", "2h") == [f"Oars {MON}T09:00/{MON}T11:00"]


@pytest.mark.parametrize("said", ["Arrive 15 minutes before class", "45 minutes between classes", "Bus every 20 min"])  # fmt: skip
def test_other_minutes_are_no_length(said: str, tmp_path: Path) -> None:
    listed = csv_file(tmp_path, f"{said}\nDate,Class,Start\n{MON},Oars,9:00\n")
    assert built(listed) == [f"Oars {MON}T09:00/{MON}T10:00"]


@pytest.mark.parametrize(
    ("said", "last"),
    [
        ("Clubs start week beginning 8 February 2027 - end Friday 5 March 2027", "2027-03-01"),
        ("Starts 8 February 2027, ends 5 March 2027", "2027-03-01"),
        ("Clubs run from 8 February to 5 March 2027", "2027-03-01"),
        ("4 weeks from 8 February 2027", "2027-03-01"),
        ("8th February 2027 for 4 weeks", "2027-03-01"),
    ],
)
def test_lines_that_say_when_clubs_run_are_the_weeks_of_their_table(said: str, last: str, tmp_path: Path) -> None:  # fmt: skip
    source = csv_file(tmp_path, f'SPRING CLUBS,,\n"{said}",,\nClub,Day,Time\nOars,Monday,3.30-4.30pm\n')
    found = built(source)
    assert (found[0][:15], found[-1][5:15], len(found)) == (f"Oars {MON}", last, 4)


@pytest.mark.parametrize("said", ["Registration opens 8 February 2027 and ends 5 March 2027", "Fees due 8 February 2027 for 4 weeks", "Open day 8 February 2027"])  # fmt: skip
def test_lines_about_something_else_are_no_weeks(said: str, tmp_path: Path) -> None:
    text = f'SPRING CLUBS,,\n"{said}",,\nClub,Day,Time\nOars,Monday,3.30-4.30pm\n'
    assert "from when to when they repeat" in refused(csv_file(tmp_path, text))


BELOW: list[list[object]] = [
    ["Monday", "Tuesday", "Wednesday"],
    ["4:00-4:45 Oars", "4:00-4:45 Rig", ""], ["Ms Finch", "Mr Osei", ""],
    ["5:00-6:00 Tar", "5:15-6:00 Glue", "7:00-8:00 pm Charts"], ["Mr Osei", "", "Ms Finch"],
]  # fmt: skip


def test_who_teaches_may_stand_in_the_cell_below_and_the_class_below_its_time(tmp_path: Path) -> None:
    expected = [("Oars", MON, "16:00", "Ms Finch"), ("Tar", MON, "17:00", "Mr Osei"), ("Rig", TUE, "16:00", "Mr Osei"),
                ("Glue", TUE, "17:15", ""), ("Charts", WED, "19:00", "Ms Finch")]  # fmt: skip
    apart = [
        row
        for given in BELOW
        for row in (
            [[one.rpartition(" ")[0] for one in map(str, given)], [one.rpartition(" ")[2] for one in map(str, given)]]
            if ":" in str(given)
            else [given]
        )
    ]  # fmt: skip
    for rows in (BELOW, apart):
        found = rows_of(week_book(tmp_path, rows), *WEEK)
        assert [(one[0], one[1], one[2], one[4]) for one in found] == expected


def test_a_row_without_times_now_and_then_belongs_to_nobody(tmp_path: Path) -> None:
    rows: list[list[object]] = [
        *BELOW[:3],
        ["", "Knots", ""],
        ["5:00-6:00 Tar", "5:15-6:00 Glue", "6:00-6:30 Charts"],
    ]
    said = refused(week_book(tmp_path, rows), *WEEK)
    assert "row 4, column B: “Knots”" in said and "Write its time into the cell" in said


def test_a_lone_hour_from_seven_to_nine_is_asked_about_where_all_others_are_past_noon(tmp_path: Path) -> None:
    rows: list[list[object]] = [
        ["Monday", "Tuesday"],
        ["4:00-5:00 Oars", "7:00-8:00 Rig"],
        ["5:00-6:00 Tar", ""],
    ]
    source = week_book(tmp_path, rows)
    assert "row 2, column B: “7:00-8:00 Rig”\n    7:00 could be in the morning or in the evening" in refused(
        source, *WEEK
    )
    assert "1 rejected" in nomarium("build", source, *WEEK, "-o", tmp_path / "o.ics", "--partial").text
    listed = csv_file(tmp_path, "\n".join(",".join(map(str, row)) for row in rows))
    assert "7:00 could be in the morning" in refused(listed, *WEEK)
