"""What two cells of a row, or a heading and its cells, say together: never one of them twice, and never one of them alone."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.severalweekdays import with_each_weekday
from nomarium.sheets.sheet import Area, Sheet
from test_lines_beside_weekdays import plan_book

YEAR = ("--school-year", "2026:2027")
WEEK = ("--from", "2026-09-07", "--until", "2026-09-13")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a count beside days that are written out says no more than these": (
        'Course,Sessions,Dates,Times\nLofting,3,"Sat 3, 10 & 17 Oct 2026",10-4\nCaulking,2,24/25 Oct 2026,9.30am-4.30pm', (),
        ["Lofting 2026-10-03T10:00/2026-10-03T16:00", "Lofting 2026-10-10T10:00/2026-10-10T16:00", "Lofting 2026-10-17T10:00/2026-10-17T16:00", "Caulking 2026-10-24T09:30/2026-10-24T16:30", "Caulking 2026-10-25T09:30/2026-10-25T16:30"],
    ),
    "a count of sessions beside days in a row is of these": (
        "Course,Sessions,Dates,Times\nLofting,3,5-7 Oct 2026,10-4\nKnots,2,12-13 Oct 2026,9.30am-4.30pm", (),
        ["Lofting 2026-10-05T10:00/2026-10-05T16:00", "Lofting 2026-10-06T10:00/2026-10-06T16:00", "Lofting 2026-10-07T10:00/2026-10-07T16:00", "Knots 2026-10-12T09:30/2026-10-12T16:30", "Knots 2026-10-13T09:30/2026-10-13T16:30"],
    ),
    "so it is beside a first and a last day, without times": (
        "Course,Sessions,First day,Last day\nLofting,3,5 Oct 2026,7 Oct 2026", (),
        ["Lofting 2026-10-05/2026-10-06", "Lofting 2026-10-06/2026-10-07", "Lofting 2026-10-07/2026-10-08"],
    ),
    "a course of one week is on each of its days": (
        "Course,Weeks,Dates,Times\nLofting,1,5-7 Oct 2026,10-4", (),
        ["Lofting 2026-10-05T10:00/2026-10-05T16:00", "Lofting 2026-10-06T10:00/2026-10-06T16:00", "Lofting 2026-10-07T10:00/2026-10-07T16:00"],
    ),
    "a count of weeks beside whole days is of these each week": (
        "Course,No. of weeks,Dates\nLofting,2,5-7 Oct 2026", (),
        ["Lofting 2026-10-05/2026-10-08", "Lofting 2026-10-12/2026-10-15"],
    ),
    "a length of all days together": (
        "Course,Hours,Dates,Times\nLofting,18,5-7 Oct 2026,10-4", (),
        ["Lofting 2026-10-05T10:00/2026-10-05T16:00", "Lofting 2026-10-06T10:00/2026-10-06T16:00", "Lofting 2026-10-07T10:00/2026-10-07T16:00"],
    ),
    "several days and several times": (
        'Title,Date,Time\nOars,"5, 7 Oct 2026",9:00-10:00 & 14:00-15:00', (),
        ["Oars 2026-10-05T09:00/2026-10-05T10:00", "Oars 2026-10-05T14:00/2026-10-05T15:00", "Oars 2026-10-07T09:00/2026-10-07T10:00", "Oars 2026-10-07T14:00/2026-10-07T15:00"],
    ),
    "a clear time and an hour": (
        "Date,Service,Time\n4 Oct 2026,Mass,9.30 & 11", (),
        ["Mass 2026-10-04T09:30/2026-10-04T10:30", "Mass 2026-10-04T11:00/2026-10-04T12:00"],
    ),
    "going stands before coming": (
        "Guest,Leaving,Arriving\nP. Cole,16/10/2026,12/10/2026", (),
        ["P. Cole 2026-10-12/2026-10-17"],
    ),
    "going before coming in German": (
        "Gast,Abreise,Anreise\nP. Cole,16.10.2026,12.10.2026", (),
        ["P. Cole 2026-10-12/2026-10-17"],
    ),
    "closing before opening": (
        "Exhibition,Closing date,Opening date\nHulls,16/10/2026,12/10/2026", (),
        ["Hulls 2026-10-12/2026-10-17"],
    ),
    "times of going out and coming back": (
        "Date,Out,Back,Driver,Purpose\n13/10/26,0830,1530,Finch,Museum", (),
        ["Museum 2026-10-13T08:30/2026-10-13T15:30"],
    ),
    "times of signing in and out": (
        "Date,Sign in,Sign out,Visitor\n13/10/26,0830,1530,Cole", (),
        ["Cole 2026-10-13T08:30/2026-10-13T15:30"],
    ),
    "on and off are times of one shift": (
        "Date,On,Off,Name\n13/10/26,0830,1530,Cole", (),
        ["Cole 2026-10-13T08:30/2026-10-13T15:30"],
    ),
    "a planned end is the last day": (
        "Topic,Start date,Target end\nKeel,5/10/2026,16/10/2026", (),
        ["Keel 2026-10-05/2026-10-17"],
    ),
    "deadlines and what is on record beside them": (
        "Payroll 2027,,,\nMonth,Hours submitted by,Approved by,Paid on\nJanuary,18 Jan,20 Jan,29 Jan", (),
        ["January: Hours submitted by 2027-01-18/2027-01-19", "January: Approved by 2027-01-20/2027-01-21", "January: Paid on 2027-01-29/2027-01-30"],
    ),
    "a zone of a town is no time zone": (
        "Zone,What,Date\nNorth shore,Blue box,5 Jan 2027", (),
        ["Blue box 2027-01-05/2027-01-06"],
    ),
    "measures are no dates beside a day": (
        "Tide table October 2026,,\nDay,What,Depth\nThu 1,Race,5.1\nFri 2,Oars,4.2", (),
        ["Race 2026-10-01/2026-10-02", "Oars 2026-10-02/2026-10-03"],
    ),
    "a month beside two columns of days": (
        "Month,Meeting,Papers,What\nOctober 2026,Thursday 15th,8th,Board\nNovember 2026,Thursday 19th,12th,Board", (),
        ["Board 2026-10-15/2026-10-16", "Board: Papers 2026-10-08/2026-10-09", "Board 2026-11-19/2026-11-20", "Board: Papers 2026-11-12/2026-11-13"],
    ),
    "a weekday heads its dates": (
        "Sunday,Event,Where\n20 Dec,Carols,Hall\n27 Dec,Walk,Quay\n3 Jan,Race,Slip 1", YEAR,
        ["Carols 2026-12-20/2026-12-21 @ Hall", "Walk 2026-12-27/2026-12-28 @ Quay", "Race 2027-01-03/2027-01-04 @ Slip 1"],
    ),
    "columns of several weekdays with times": (
        "Building,Mon-Wed,Sat,Sun\nMain loft,8:00-18:00,10:00-14:00,closed", WEEK,
        ["Main loft 2026-09-07T08:00/2026-09-07T18:00 @ Main loft", "Main loft 2026-09-08T08:00/2026-09-08T18:00 @ Main loft", "Main loft 2026-09-09T08:00/2026-09-09T18:00 @ Main loft", "Main loft 2026-09-12T10:00/2026-09-12T14:00 @ Main loft"],
    ),
    "a line of entries under several weekdays": (
        "Mon & Wed,Tue,Thu\n9am Oars,10am Sails,1pm Knots", WEEK,
        ["Oars 2026-09-07T09:00/2026-09-07T10:00", "Oars 2026-09-09T09:00/2026-09-09T10:00", "Sails 2026-09-08T10:00/2026-09-08T11:00", "Knots 2026-09-10T13:00/2026-09-10T14:00"],
    ),
    "a planner with several weekdays in one column": (
        "Week,Mon-Wed,Thu,Fri\n7 Sept,Oars,Sails,Race", YEAR,
        ["Oars 2026-09-07/2026-09-08", "Oars 2026-09-08/2026-09-09", "Oars 2026-09-09/2026-09-10", "Sails 2026-09-10/2026-09-11", "Race 2026-09-11/2026-09-12"],
    ),
    "several weekdays in one column, in German": (
        "Haus,Mo-Mi,Sa/So\nWerft,8:00-18:00,10:00-14:00", WEEK,
        ["Werft 2026-09-07T08:00/2026-09-07T18:00", "Werft 2026-09-08T08:00/2026-09-08T18:00", "Werft 2026-09-09T08:00/2026-09-09T18:00", "Werft 2026-09-12T10:00/2026-09-12T14:00", "Werft 2026-09-13T10:00/2026-09-13T14:00"],
    ),
    "terms stand alone over the rows of two columns": (
        "Event,Date\nAutumn term,\nFirst day,7 Sept 2026\nSpring term,\nFirst day,4 Jan 2027", (),
        ["First day 2026-09-07/2026-09-08", "First day 2027-01-04/2027-01-05"],
    ),
    "no dates to leave out": (
        "Title,Date,Repeat,Except\nSails,6 Oct 2026,weekly for 2 weeks,none", (),
        ["Sails 2026-10-06/2026-10-07", "Sails 2026-10-13/2026-10-14"],
    ),
    "days in a row to leave out": (
        "Title,Date,Repeat,Except\nSails,6 Oct 2026,weekly for 3 weeks,12-16 Oct 2026", (),
        ["Sails 2026-10-06/2026-10-07", "Sails 2026-10-20/2026-10-21"],
    ),
    "a father is no Friday": (
        "Date,Service,Celebrant\nTue 6 Oct 2026,Mass,Fr Oak\nWed 7 Oct 2026,Mass,Fr Pine", (),
        ["Mass 2026-10-06/2026-10-07", "Mass 2026-10-07/2026-10-08"],
    ),
    "titles that say until when": (
        "Date,Event\n18 Sept 2026,Camp 18-20 Sept\n21 Sept 2026,Club Mon - Fri\n23 Sept 2026,Club Mon - Fri\n28 Sept 2026,Fair until 5 October 2026\n28 Dec 2026,Closed 28 Dec - 3 Jan", (),
        ["Camp 18-20 Sept 2026-09-18/2026-09-21", "Club Mon - Fri 2026-09-21/2026-09-26", "Club Mon - Fri 2026-09-23/2026-09-24", "Fair until 5 October 2026 2026-09-28/2026-10-06", "Closed 28 Dec - 3 Jan 2026-12-28/2027-01-04"],
    ),
    "titles that only look so": (
        "Date,Event\n25 Sept 2026,Years 5-6 trip to Sun Valley\n29 Sept 2026,Deadline extended to 30 Sept\n30 Sept 2026,Form 30-31\n1 Oct 2026,Weekly review", (),
        ["Years 5-6 trip to Sun Valley 2026-09-25/2026-09-26", "Deadline extended to 30 Sept 2026-09-29/2026-09-30", "Form 30-31 2026-09-30/2026-10-01", "Weekly review 2026-10-01/2026-10-02"],
    ),
    "so they do in the cells of a month": (
        "September 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,1,2,3,4,5,6\n,,Camp (2-4 Sept),,,,\n7,8,9,10,11,12,13\n,,,,,Fair until Sunday,\n14,15,16,17,18,19,20\nHut to 16th,,,,,,", (),
        ["Camp (2-4 Sept) 2026-09-02/2026-09-05", "Fair until Sunday 2026-09-12/2026-09-14", "Hut to 16th 2026-09-14/2026-09-17"],
    ),
    "a title that is held again and stands on each of its days": (
        "Date,Event\n18 Sept 2026,Yoga (every Friday)\n25 Sept 2026,Yoga (every Friday)", (),
        ["Yoga (every Friday) 2026-09-18/2026-09-19", "Yoga (every Friday) 2026-09-25/2026-09-26"],
    ),
    "lists beside each other, each under its title": (
        "Fixtures 2026/27,,,\nHome games,,Away games,\n5 Sept,v Kilnhead,12 Sept,at Marrow Bay\n9 Jan,v Tern,16 Jan,at Plover", (),
        ["v Kilnhead 2026-09-05/2026-09-06", "v Tern 2027-01-09/2027-01-10", "at Marrow Bay 2026-09-12/2026-09-13", "at Plover 2027-01-16/2027-01-17"],
    ),
    "lists of two columns, turned": (
        "Autumn,,Spring,\nTerm starts,7 Sept,Term starts,4 Jan\nHalf term,26 Oct,Half term,15 Feb", YEAR,
        ["Term starts 2026-09-07/2026-09-08", "Half term 2026-10-26/2026-10-27", "Term starts 2027-01-04/2027-01-05", "Half term 2027-02-15/2027-02-16"],
    ),
    "a key whose codes are parted by spaces": (
        "Crew,7 Sept,8 Sept\nRed,D,O\nBlue,O,N\nD=0700-1900 N=1900-0700 O=off,,", YEAR,
        ["Red: D 2026-09-07T07:00/2026-09-07T19:00", "Blue: N 2026-09-08T19:00/2026-09-09T07:00"],
    ),
    "a key of starts and ends": (
        "Crew,7 Sept,8 Sept\nRed,D,X\nBlue,X,N\nD,7am,7pm\nN,7pm,7am\nX,day off,", YEAR,
        ["Red: D 2026-09-07T07:00/2026-09-07T19:00", "Blue: N 2026-09-08T19:00/2026-09-09T07:00"],
    ),
}  # fmt: skip
REFUSED: dict[str, tuple[str, str]] = {
    "more sessions than days": ('Course,Sessions,Dates\nLofting,4,"3, 10 & 17 Oct 2026"', "names 3 days, and another cell says that it takes place 4 times"),
    "fewer sessions than days in a row": ("Course,Sessions,Dates\nLofting,2,5-9 Oct 2026", "a first and a last day that make it 5"),
    "days in a row at times, for weeks": ("Course,Weeks,Dates,Times\nLofting,2,5-9 Oct 2026,10-4", "on which days of the others is open"),
    "several days and a last day": ('Title,First day,Last day\nOars,"5, 7 Oct 2026",9 Oct 2026', "names several days, and a last day"),
    "several times and one end": ("Title,Date,Start,End\nOars,5 Oct 2026,9:00 & 14:00,16:00", "begins at several times, and its end"),
    "titles that only say how often": ("Date,Notes,Where\n5 Jan 2027,every other week,Loft", "would be the title of its event"),
    "days until which to sign up": ('Title,Date,Sign-up by\nOars,5 Oct 2026,"1, 2 Oct 2026"', "holds days and is none of those that say when"),
    "a title that is held again, on one day": ("Date,Event\n10 Sept 2026,Race (every Thursday)", "says that it is held again"),
    "so in a drawn week": ("Time,Mon 7 Sept 2026,Tue 8 Sept 2026\n9:00-10:00,Oars,Sails every Tue", "says that it is held again"),
    "days of a title beside times": ("Date,Event,Start,End\n18 Sept 2026,Camp 18-20 Sept,9:00,15:00", "lasts until 2026-09-20, and it stands on one day"),
    "other days in a title": ("Date,Event\n26 Sept 2026,Oars 26th & 27th", "names other days beside the one"),
    "a list that goes on beside itself": ("7 Sept 2026,Race,4 Jan 2027,Quiz\n26 Oct 2026,Fair,15 Feb 2027,Ball", "The column C holds days"),
    "days or hours in a drawn month": ("SEPTEMBER 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,1,2,3,4,5,6\n,,,,Camp (4-6),,", "could be from one hour to another, or on these days"),
    "a mark among codes with hours": ("Crew,7 Sept 2026,8 Sept 2026\nRed,D,X\nBlue,X,D\nD=7-15,,", "Nothing says what “X” stands for"),
    "weekdays without a heading": ("Oars,Monday,9-10\nSails,Tuesday,10-11", "no heading over its columns"),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_what_is_said_together_is_read_together(kind: str, tmp_path: Path) -> None:
    text, options, expected = READ[kind]
    assert built(csv_file(tmp_path, text), *options) == expected


@pytest.mark.parametrize("kind", REFUSED)
def test_what_does_not_agree_is_refused(kind: str, tmp_path: Path) -> None:
    text, words = REFUSED[kind]
    assert words in refused(csv_file(tmp_path, text))


@pytest.mark.parametrize("heading", ["Backup date", "List date", "Latest day", "Bank date", "Lost date"])
def test_a_word_that_is_nearly_a_heading_of_last_days_is_none(heading: str, tmp_path: Path) -> None:
    dated = csv_file(tmp_path, f"Date,Event,{heading}\n5 Oct 2026,Launch,7 Oct 2026")
    assert built(dated) == ["Launch 2026-10-05/2026-10-06", f"Launch: {heading} 2026-10-07/2026-10-08"]


def test_a_slip_of_the_finger_in_a_heading_is_read(tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, "Strat date,Event,Lasst day\n5 Oct 2026,Launch,7 Oct 2026")) == [
        "Launch 2026-10-05/2026-10-08"
    ]


def test_a_cell_under_several_weekdays_is_named_by_its_own_column() -> None:
    rows = [(1, ["Hall", "Mon-Wed", "Sat", "Sun"]), (2, ["Loft", "9-10", "", "9-11", "by key"])]
    sheet = with_each_weekday(Sheet("hall.csv", "", lambda: rows, merged=(Area(1, 1, 1, 2),)), ENGLISH)
    _, cells = list(sheet.rows())[1]
    assert cells == ["Loft", "9-10", "9-10", "9-10", "", "9-11", "by key"]
    assert [sheet.place(2, n).column for n in range(len(cells))] == ["A", "B", "B", "B", "C", "D", "E"]
    assert sheet.merged == (Area(1, 1, 1, 4),)


def test_sessions_without_hours_are_told_and_given_them(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Room,Mon 7 Sept 2026,,Tue 8 Sept 2026,\n,AM,PM,AM,PM\nLoft 1,Oars,Sails,Oars,"
    )
    said = nomarium("build", source, "-o", tmp_path / "out.ics").text
    assert (
        'Sessions without times are all-day events: AM and PM. To give them times: --set-code "AM=9:00-12:00"'
        in said
    )
    timed = built(source, "--set-code", "AM=9:00-12:00", "--set-code", "PM=1:00-4:00")
    assert [line.split(" @ ")[0].rsplit(" ", 1)[1] for line in timed] == [
        "2026-09-07T09:00/2026-09-07T12:00",
        "2026-09-07T13:00/2026-09-07T16:00",
        "2026-09-08T09:00/2026-09-08T12:00",
    ]


_WEEKLY_ROTAS = {
    "two weekdays among the headings": (
        "Week beginning,Gate Mon,Gate (Thu)\n7 Sept,Finch,Moss\n14 Sept,Cole,Finch", YEAR,
        ["Gate: Finch 2026-09-07/2026-09-08", "Gate: Moss 2026-09-10/2026-09-11", "Gate: Cole 2026-09-14/2026-09-15", "Gate: Finch 2026-09-17/2026-09-18"],
    ),
    "one weekday with its whole name": (
        "Week beginning,Gate,Saturday steward\n7 Sept,Finch,Moss", YEAR,
        ["Gate: Finch 2026-09-07/2026-09-14", "steward: Moss 2026-09-12/2026-09-13"],
    ),
    "weekdays in the plural": (
        "Week beginning,Gate Mondays,Fuel (Sat)\n7 Sept,Finch,Moss", YEAR,
        ["Gate: Finch 2026-09-07/2026-09-08", "Fuel: Moss 2026-09-12/2026-09-13"],
    ),
    "weekdays of rows": (
        "Duty,w/c 7 Sept,w/c 14 Sept\nGate Monday,Finch,Moss\nGate Friday,Cole,Finch", YEAR,
        ["Gate: Finch 2026-09-07/2026-09-08", "Gate: Cole 2026-09-11/2026-09-12", "Gate: Moss 2026-09-14/2026-09-15", "Gate: Finch 2026-09-18/2026-09-19"],
    ),
    "weekdays of another language": (
        "Semaine du,Quai lundi,Quai jeudi\n8 février 2027,Finch,Moss", (),
        ["Quai: Finch 2027-02-08/2027-02-09", "Quai: Moss 2027-02-11/2027-02-12"],
    ),
    "a deck and a surname": (
        "Post,w/c 7 Sept,w/c 14 Sept\nSun deck,Finch,Moss\nJoe Friday,Cole,Finch", YEAR,
        ["Sun deck: Finch 2026-09-07/2026-09-14", "Joe Friday: Cole 2026-09-07/2026-09-14", "Sun deck: Moss 2026-09-14/2026-09-21", "Joe Friday: Finch 2026-09-14/2026-09-21"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", _WEEKLY_ROTAS)
def test_a_weekday_in_a_label_of_a_weekly_roster_is_that_day(kind: str, tmp_path: Path) -> None:
    text, options, wanted = _WEEKLY_ROTAS[kind]
    assert sorted(built(csv_file(tmp_path, text), "--as", "roster", *options)) == sorted(wanted)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("Week beginning,Bell Mon-Wed,Bell Thu & Fri\n7 Sept,Finch,Moss", "does not say on which one day"),
        ("Date,Gate Mon,Gate Thu\n7 Sept,Finch,Moss\n14 Sept,Cole,Finch", "names a weekday that 7 September 2026 is not"),
    ],
)  # fmt: skip
def test_a_label_of_other_weekdays_than_its_dates_is_asked_about(
    text: str, words: str, tmp_path: Path
) -> None:
    assert words in refused(csv_file(tmp_path, text), "--as", "roster", *YEAR)


@pytest.mark.parametrize("heading", ["Bus leaves", "Bus back", "Depart", "Return at", "Meet at"])
def test_times_with_a_point_beside_the_start_are_not_passed_over(heading: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f"Match,Date,Start,{heading}\nv Tern,12 Oct 2026,10.30,8.15\nv Bay,19 Oct 2026,11.00,"
    )
    assert f"“{heading}” holds times and is none of those that say when" in refused(source)


def test_sums_with_a_point_are_passed_over_and_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Match,Date,Start,Cash back\nv Tern,12 Oct 2026,10.30,8.15")
    said = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert said.status == 0
    assert "Not used: the column “Cash back”" in said.text


@pytest.mark.parametrize("heading", ["Show", "Performance", "First half"])
def test_what_begins_after_the_doors_is_not_passed_over(heading: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Date,Title,Doors,{heading},Finish\n12 Oct 2026,Sea songs,6.30,7.30,9.45")
    assert f'If it is when the row begins: --column "{heading}=start"' in refused(source)


def test_prices_beside_the_doors_are_passed_over(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Title,Doors,Finish,Adult\n12 Oct 2026,Sea songs,6.30,9.45,12.50")
    assert built(source) == ["Sea songs 2026-10-12T18:30/2026-10-12T21:45"]


@pytest.mark.parametrize(
    ("heading", "cells"),
    [
        ("Tuesday", "6 Oct 2026|20 Jan 2027"),
        ("Tuesday dates", "6 Oct 2026|20 Jan 2027"),
        ("Date (Tuesdays)", "6 Oct 2026|20 Jan 2027"),
        ("Tue date", "6 Oct 2026|20 Jan 2027"),
        ("Dates (all Tuesdays)", "6 Oct 2026|13 Oct; 20 Jan 2027"),
        ("Week commencing Tuesday", "6 Oct 2026|20 Jan 2027"),
        ("Date (le mardi)", "6 octobre 2026|20 octobre 2026|20 janvier 2027"),
    ],
)
def test_a_weekday_that_heads_dates_is_that_of_all(heading: str, cells: str, tmp_path: Path) -> None:
    rows = "\n".join(f"Board {n},{cell}" for n, cell in enumerate(cells.split("|")))
    said = refused(csv_file(tmp_path, f"Meeting,{heading}\n{rows}"))
    assert "20 January 2027 is a Wednesday, and the heading says Tuesday" in said


@pytest.mark.parametrize(
    ("heading", "day", "wanted"),
    [
        ("Date (Tue/Thu)", "8 Oct 2026", "2026-10-08/2026-10-09"),
        ("Week ending Friday", "9 Oct 2026", "2026-10-03/2026-10-10"),
        ("Date (Mon-Fri)", "9 Oct 2026", "2026-10-09/2026-10-10"),
        ("Date (not Mondays)", "9 Oct 2026", "2026-10-09/2026-10-10"),
    ],
)
def test_other_weekdays_in_a_heading_deny_nothing(
    heading: str, day: str, wanted: str, tmp_path: Path
) -> None:
    assert built(csv_file(tmp_path, f"Meeting,{heading}\nBoard,{day}")) == [f"Board {wanted}"]


@pytest.mark.parametrize(
    ("heading", "cell", "words"),
    [
        ("Time (pm)", "9am", "The time is in the morning, and what heads it says pm"),
        ("Start (am)", "14:00", "The time is in the afternoon, and what heads it says am"),
        ("Start (am)", "2pm-4pm", "The time is in the afternoon, and what heads it says am"),
    ],
)
def test_a_time_in_the_other_half_than_its_heading_says_is_asked_about(
    heading: str, cell: str, words: str, tmp_path: Path
) -> None:
    assert words in refused(csv_file(tmp_path, f"Event,Date,{heading}\nFair,12 Oct 2026,{cell}"))


@pytest.mark.parametrize(
    ("heading", "cell", "wanted"),
    [("Time (pm)", "14:00", "T14:00/2026-10-12T15:00"), ("Start (am)", "11-1pm", "T11:00/2026-10-12T13:00"), ("Time (pm)", "12-1", "T12:00/2026-10-12T13:00")],
)  # fmt: skip
def test_a_time_in_the_half_that_its_heading_says_agrees(
    heading: str, cell: str, wanted: str, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, f"Event,Date,{heading}\nFair,12 Oct 2026,{cell}")
    assert built(source) == [f"Fair 2026-10-12{wanted}"]


def test_the_time_above_a_table_is_told_where_some_rows_have_none(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Meetings are at 5.30 pm unless stated,,\nDate,Meeting,Time\n6 Oct 2026,Board,\n7 Oct 2026,Crew,6 pm",
    )
    told = nomarium("build", source, "-o", tmp_path / "out.ics").text
    assert (
        'some of its rows have none: their events last all day. If it is the time of all: --set "time=5.30 pm"'
        in told
    )
    assert built(source, "--set", "time=5.30 pm") == [
        "Board 2026-10-06T17:30/2026-10-06T18:30",
        "Crew 2026-10-07T18:00/2026-10-07T19:00",
    ]


@pytest.mark.parametrize("hours", [" 10am-4pm", ", 10-4pm", " at 10:00", " (10:00 to 16:00)"])
def test_hours_above_a_programme_are_those_of_the_whole(hours: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f'"Fair Saturday 12 June 2027{hours}",\nTime,What\n10:30,Opening\n15:30,Raffle'
    )
    assert "Its times are those of the whole day" in nomarium("survey", source).text
    assert built(source) == [
        "Opening 2027-06-12T10:30/2027-06-12T11:30",
        "Raffle 2027-06-12T15:30/2027-06-12T16:30",
    ]


def test_a_rota_whose_post_is_a_word_for_people_is_no_list(tmp_path: Path) -> None:
    rows = "Date,Lead,Second\n6 Oct 2026,Finch,Moss\n20 Oct 2026,Moss,Cole\n27 Oct 2026,Cole,Finch"
    assert "The same names stand under “Second” and under “Lead”" in refused(csv_file(tmp_path, rows))
    assert built(csv_file(tmp_path, f"Gate rota,,\n{rows}"))[:2] == [
        "Lead: Finch 2026-10-06/2026-10-07",
        "Second: Moss 2026-10-06/2026-10-07",
    ]


_HELD = ("--from", "2026-10-05", "--until", "2026-10-11")


@pytest.mark.parametrize(
    "rows",
    [
        "Event,Date,Time\nOars,5 Oct 2026,{}",
        ",Mon 5 Oct 2026,Tue 6 Oct 2026\n{},Oars,\n10:00-11:00,,Sails",
        "Time,Mon,Tue\n{},Oars,\n10:00-11:00,,Sails",
        ",Mon 5 Oct 2026,Tue 6 Oct 2026\n1 {},Oars,\n2 10:00-11:00,,Sails\n3 11:00-12:00,,Knots",
    ],
)
def test_a_time_and_the_length_behind_it_agree(rows: str, tmp_path: Path) -> None:
    options = _HELD if "Time,Mon" in rows else ()
    assert "9:00-10:00 (45 min)" in refused(csv_file(tmp_path, rows.format("9:00-10:00 (45 min)")), *options)
    agreeing = csv_file(tmp_path, rows.format("9:00-10:00 (60 min)"))
    assert built(agreeing, *options)[0] == "Oars 2026-10-05T09:00/2026-10-05T10:00"


def test_a_length_is_no_post_of_a_roster(tmp_path: Path) -> None:
    source = csv_file(tmp_path, ",Mon 5 Oct 2026,Tue 6 Oct 2026\n9:00-10:00 (45 min),Oars,Sails")
    refused(source)
    assert "“45 min” is a length, where a name" in refused(source, "--as", "roster")


@pytest.mark.parametrize("heading", ["Service", "Mass", "Match", "Departure"])
def test_times_beside_the_dates_of_a_roster_are_those_of_its_rows(heading: str, tmp_path: Path) -> None:
    text = f"Date,{heading},Reading,Prayers,Tea\nSun 4 Oct 2026,10.30am,Cole,Fir,Elm\nSun 11 Oct 2026,10.30am,Fir,Elm,Cole"
    assert built(csv_file(tmp_path, text)) == [
        f"{who} 2026-10-{day}T10:30/2026-10-{day}T11:30"
        for day, all_of_day in (
            ("04", ("Reading: Cole", "Prayers: Fir", "Tea: Elm")),
            ("11", ("Reading: Fir", "Prayers: Elm", "Tea: Cole")),
        )
        for who in all_of_day
    ]


@pytest.mark.parametrize(
    ("weekday", "day", "length"), [("Wednesday", 7, 1), ("Friday", 9, 1), ("Monday", 5, 7)]
)
def test_a_weekday_beside_the_weeks_of_a_roster_says_which_of_their_days(
    weekday: str, day: int, length: int, tmp_path: Path
) -> None:
    text = f"Bin day,Week,Black,Green\n{weekday},{day} Oct 2026,x,\n{weekday},{day + 7} Oct 2026,,x"
    assert built(csv_file(tmp_path, text)) == [
        f"Black 2026-10-{day:02}/2026-10-{day + length:02}",
        f"Green 2026-10-{day + 7:02}/2026-10-{day + 7 + length:02}",
    ]


@pytest.mark.parametrize("often", ["(yearly)", "(every week)", "(and monthly after)", "(jährlich)"])
def test_how_often_in_brackets_behind_a_date_is_no_remark(often: str, tmp_path: Path) -> None:
    said = refused(csv_file(tmp_path, f"Date,Event\n13 Oct 2026 {often},Domain\n5 Nov 2026,Race"))
    assert "says how often the row is held" in said and "column “Repeat”" in said


@pytest.mark.parametrize("heading", ["Pool", "", "Session", "Activity"])
def test_times_under_weekdays_beside_what_is_held_are_a_week_whatever_heads_it(
    heading: str, tmp_path: Path
) -> None:
    text = f"Swimming,,\n{heading},Mon,Wed\nLane swim,06:30-09:00,06:30-08:00\nLessons,16:00-18:00,"
    assert sorted(built(csv_file(tmp_path, text), *WEEK)) == [
        "Lane swim 2026-09-07T06:30/2026-09-07T09:00",
        "Lane swim 2026-09-09T06:30/2026-09-09T08:00",
        "Lessons 2026-09-07T16:00/2026-09-07T18:00",
    ]


DRAWN = ",Mon,Tue,Wed\n9:00-9:50,Rigging,Knots,Rigging\n10:00-10:50,Oars,,Sails"
ABOVE = {
    "one below the other": ("Teacher: R. Finch,,,\nRoom: Loft 1,,,\n", {"teacher": "R. Finch", "room": "Loft 1"}),
    "in cells beside them": ("Class,7A,,\nRoom,Loft 1,,\n", {"group": "7A", "room": "Loft 1"}),
    "in one cell": ("Class: 7A   Room: Loft 1   Tutor: Finch,,,\n", {"group": "7A", "room": "Loft 1"}),
    "in one cell, parted by bars": ("Room: Loft 1 | Teacher: R. Finch,,,\n", {"teacher": "R. Finch", "room": "Loft 1"}),
    "alone": ("Class: 7A,,,\n", {"group": "7A"}),
}  # fmt: skip


@pytest.mark.parametrize("kind", ABOVE)
def test_what_labels_above_a_drawn_week_say_is_of_all_its_classes(kind: str, tmp_path: Path) -> None:
    above, said = ABOVE[kind]
    target = tmp_path / "out.csv"
    outcome = nomarium("build", csv_file(tmp_path, above + DRAWN), "-o", target, *WEEK)
    assert outcome.status == 0, outcome.text
    rows = list(csv.DictReader(target.read_text("utf-8-sig").splitlines()))
    assert len(rows) == 5
    assert {part: row.get(part.title(), "") for row in rows for part in said} == said
    assert {
        row.get(part, "") for row in rows for part in ("Teacher", "Room", "Group") if part.lower() not in said
    } <= {""}
    assert ("Not used, above the classes: “Tutor: Finch”" in outcome.text) == ("Tutor" in above)


DUE = {
    "Boat,Next service,Last serviced,Last inspection\nSkiff,1 Nov 2026,1 Aug 2026,3 Mar 2026\nSloop,15 Oct 2026,15 Sep 2026,4 Mar 2026": [
        "Skiff: Next service 2026-11-01/2026-11-02", "Sloop: Next service 2026-10-15/2026-10-16",
    ],
    "Name,Last visit,Next visit\nCole,1 Aug 2026,1 Nov 2026": ["Cole: Next visit 2026-11-01/2026-11-02"],
    "Task,Due,Last done\nOil winch,1 Nov 2026,1 Aug 2026": ["Oil winch 2026-11-01/2026-11-02"],
    "Item,Bought,Warranty ends,Next check\nWinch,1 Aug 2024,1 Aug 2027,1 Nov 2026": [
        "Winch: Warranty ends 2027-08-01/2027-08-02", "Winch: Next check 2026-11-01/2026-11-02",
    ],
}  # fmt: skip


@pytest.mark.parametrize("text", DUE)
def test_what_is_due_is_in_the_title_and_what_was_done_last_is_no_event(text: str, tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, text)) == DUE[text]


@pytest.mark.parametrize(("first", "last"), [("First session", "Last session"), ("Start date", "End date")])
def test_one_weekday_for_the_first_and_the_last_of_many_weeks_may_be_weekly(
    first: str, last: str, tmp_path: Path
) -> None:
    text = f"Class,{first},{last},Time\nOars,1 Sep 2026,1 Dec 2026,9-10am"
    source = csv_file(tmp_path, text)
    assert "every week, on each of these days, or one long event?" in refused(source)
    assert len(built(source, "--set", "repeat=weekly")) == 14
    assert len(built(source, "--spans", "daily")) == 92
    assert len(built(csv_file(tmp_path, text.replace("1 Dec", "11 Sep")))) == 11


MONTHS = {
    "October 2026": [["Day", "Event"], [5, "Launch"], [6, "Race"]],
    "November 2026": [["Day", "Event"], [14, "Fair"]],
}


def test_a_sheet_for_each_month_may_have_one_row(tmp_path: Path) -> None:
    assert built(plan_book(tmp_path, MONTHS)) == [
        "Launch 2026-10-05/2026-10-06", "Race 2026-10-06/2026-10-07", "Fair 2026-11-14/2026-11-15",
    ]  # fmt: skip


def test_a_sheet_with_the_headings_of_another_is_never_passed_over(tmp_path: Path) -> None:
    terms = {
        "Autumn": [["Day", "Event"], ["Mon 5 Oct 2026", "Launch"]],
        "Spring": [["Day", "Event"], ["Monday", "Fair"]],
    }
    assert "“Spring”" in refused(plan_book(tmp_path, terms))
    terms["Spring"] = [["Day", "Event"]]
    assert built(plan_book(tmp_path, terms)) == ["Launch 2026-10-05/2026-10-06"]


@pytest.mark.parametrize(
    "text",
    [
        "Week no,Date,Fri training,Sat match\n1,4/5 Sept 2026,6-8pm,v Rib 2pm\n2,11/12 Sept 2026,6-8pm,v Plank 2pm",
        "Date,Monday time,Tuesday time,Class\n5 Oct 2026,9am,10am,Oars\n12 Oct 2026,9am,10am,Sails",
        "Week of,Fri training,Sat match\n31 Aug 2026,6-8pm,v Rib 2pm\n7 Sept 2026,6-8pm,v Plank 2pm",
    ],
)
def test_columns_of_different_weekdays_are_no_one_event(text: str, tmp_path: Path) -> None:
    assert "are headed as of different days" in refused(csv_file(tmp_path, text))


def test_contacts_of_different_weekdays_say_nothing_of_when(tmp_path: Path) -> None:
    text = (
        "Date,Event,Mon-Fri contact,Weekend contact\n5 Oct 2026,Launch,Finch,Oak\n6 Oct 2026,Race,Finch,Oak"
    )
    assert built(csv_file(tmp_path, text)) == ["Launch 2026-10-05/2026-10-06", "Race 2026-10-06/2026-10-07"]


@pytest.mark.parametrize(
    "words",
    ["Starts 2pm, ends 4pm", "9am start", "Time: 2pm - 4pm. Venue: Slip 1", "10:00-12:00 in the loft"],
)
def test_times_in_words_beside_rows_without_any_are_told(words: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        f'Event,Date,Notes\nLaunch,5 Oct 2026,"{words}"\nFair,7 Oct 2026,bring cash\nRace,8 Oct 2026,wet',
    )
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert f"Words beside the rows hold times (row 2: “{words}”)" in outcome.text
    timed = csv_file(tmp_path, f'Event,Date,Time,Notes\nLaunch,5 Oct 2026,2pm,"{words}"', "timed.csv")
    assert "hold times" not in nomarium("build", timed, "-o", tmp_path / "out.ics").text
    blank = csv_file(
        tmp_path,
        f'Event,Date,Time,Notes\nLaunch,5 Oct 2026,2pm,\nFair at 3.15pm,7 Oct 2026,,"{words}"',
        "blank.csv",
    )
    told = nomarium("build", blank, "-o", tmp_path / "out.ics").text
    assert "row 3: “Fair at 3.15pm”" in told and f"(row 3: “{words}”)" in told


@pytest.mark.parametrize(("heading", "read"), [("Klo", True), ("Uur", True), ("Zonk", False)])
def test_hours_with_and_without_minutes_are_never_passed_over(
    heading: str, read: bool, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, f"Date,{heading},Event\n2026-10-05,14-16,Launch\n2026-10-06,9.00,Race")
    if read:
        assert built(source) == [
            "Launch 2026-10-05T14:00/2026-10-05T16:00",
            "Race 2026-10-06T09:00/2026-10-06T10:00",
        ]
    else:
        assert f"The column “{heading}” holds times" in refused(source)


UNDER = {
    "acts of stages": (
        "Stage,Sat 12 June 2027,,Sun 13 June 2027,\n,Time,Act,Time,Act\nMain,12:00,Quay Quartet,13:00,Rib Trio\nSmall,12:30,Tar Duo,,",
        ["Main: Quay Quartet 2027-06-12T12:00/2027-06-12T13:00", "Main: Rib Trio 2027-06-13T13:00/2027-06-13T14:00", "Small: Tar Duo 2027-06-12T12:30/2027-06-12T13:30"],
    ),
    "opponents of teams": (
        "Team,Sat 3 Oct 2026,,Sat 10 Oct 2026,\n,KO,Opponent,KO,Opponent\nU10,9:00,Rib,10:00,Plank\nU12,11:00,Deck,,",
        ["U10: Rib 2026-10-03T09:00/2026-10-03T10:00", "U10: Plank 2026-10-10T10:00/2026-10-10T11:00", "U12: Deck 2026-10-03T11:00/2026-10-03T12:00"],
    ),
    "bookings of rooms": (
        "Date,Room,9:00,10:00,11:00\n5 Oct 2026,Loft 1,Rigging,Sails,\n5 Oct 2026,Loft 2,,Knots,Tar\n6 Oct 2026,Loft 1,Sails,,",
        ["Rigging 2026-10-05T09:00/2026-10-05T10:00 @ Loft 1", "Sails 2026-10-05T10:00/2026-10-05T11:00 @ Loft 1", "Knots 2026-10-05T10:00/2026-10-05T11:00 @ Loft 2",
         "Tar 2026-10-05T11:00/2026-10-05T12:00 @ Loft 2", "Sails 2026-10-06T09:00/2026-10-06T10:00 @ Loft 1"],
    ),
    "weeks below titles make no events of these": (
        "Week 1 (5-9 Oct 2026),,\nMon,Tue,Wed\nPasta,Curry,Pie\nWeek 2 (12-16 Oct 2026),,\nMon,Tue,Wed\nClosed,Stew,Soup",
        ["Pasta 2026-10-05/2026-10-06", "Curry 2026-10-06/2026-10-07", "Pie 2026-10-07/2026-10-08", "Stew 2026-10-13/2026-10-14", "Soup 2026-10-14/2026-10-15"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", UNDER)
def test_what_stands_under_dates_and_beside_them_is_read_together(kind: str, tmp_path: Path) -> None:
    text, events = UNDER[kind]
    assert sorted(built(csv_file(tmp_path, text))) == sorted(events)
