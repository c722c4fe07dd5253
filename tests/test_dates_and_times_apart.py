"""Dates and times that stand apart from their rows: limits beside starts, several times a cell, a week below its table,
months drawn without their year."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused, workbook

SEPTEMBER = "Mon,Tue,Wed,Thu,Fri,Sat,Sun\n,1,2,3 Oars,4,5,6\n7,8,9,10,11,12,13\n14,15,16,17,18,19,20\n21,22,23,24,25,26,27\n28,29,30,,,,"
FEBRUARY = "Mon,Tue,Wed,Thu,Fri,Sat,Sun\n1,2,3 Oars,4,5,6,7\n8,9,10,11,12,13,14\n15,16,17,18,19,20,21\n22,23,24,25,26,27,28"
MARCH = (
    "1,2,3 Walk,4,5,6,7\n8,9,10,11,12,13,14\n15,16,17,18,19,20,21\n22,23,24,25,26,27,28\n29,30,31 Play,,,,"
)
DRIVERS = "Driver,Mon,Tue\nQuill,07:00-15:00,OFF\nOsei,OFF,14:00-22:00\n"
WEEK = ("--from", "2026-09-07", "--until", "2026-09-08")
RADIO = ("--from", "2026-09-11", "--until", "2026-09-13")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a limit beside a start": (
        "Task,Start,Due\nPaint,1 Sep 2026,30 Oct 2026\nTar,3 Sep 2026,4 Nov 2026", (),
        ["Paint 2026-09-01/2026-09-02", "Paint: Due 2026-10-30/2026-10-31", "Tar 2026-09-03/2026-09-04", "Tar: Due 2026-11-04/2026-11-05"],
    ),
    "a limit beside a start and an end": (
        "Task,Start,End,Deadline\nPaint,1 Sep 2026,3 Sep 2026,30 Oct 2026", (), ["Paint 2026-09-01/2026-09-04", "Paint: Deadline 2026-10-30/2026-10-31"],
    ),
    "an opening and a limit": (
        "Fund,Opens,Deadline\nTide,1 Sep 2026,30 Oct 2026", (), ["Tide: Deadline 2026-10-30/2026-10-31", "Tide: Opens 2026-09-01/2026-09-02"],
    ),
    "an opening, an end and a limit": (
        "Fund,Opens,End date,Deadline\nTide,1 Sep 2026,3 Sep 2026,30 Oct 2026", (), ["Tide 2026-09-01/2026-09-04", "Tide: Deadline 2026-10-30/2026-10-31"],
    ),
    "times without a heading beside dates, and a row cut short": (
        "Date,,Hall,Loft 2\n13/09/2026,9:00,Oars,Tar\n14/09/2026,10:00,Rope,\n15/09/2026", (),
        ["Oars 2026-09-13T09:00/2026-09-13T10:00 @ Hall", "Rope 2026-09-14T10:00/2026-09-14T11:00 @ Hall", "Tar 2026-09-13T09:00/2026-09-13T10:00 @ Loft 2"],
    ),
    "an opening and a closing are first and last": ("Fund,Opens,Closes\nTide,1 Sep 2026,3 Sep 2026", (), ["Tide 2026-09-01/2026-09-04"]),
    "how far a task is": ("Task,Date,Status\nPaint,1 Sep 2026,Done\nTar,3 Sep 2026,In progress", (), ["Paint 2026-09-01/2026-09-02", "Tar 2026-09-03/2026-09-04"]),
    "several times a cell": (
        "Film,Date,Time\nTide,14 Sep 2026,\"14:00, 17:00 & 20:00\"\nReef,15 Sep 2026,15:00", (),
        ["Reef 2026-09-15T15:00/2026-09-15T16:00", "Tide 2026-09-14T14:00/2026-09-14T15:00", "Tide 2026-09-14T17:00/2026-09-14T18:00",
         "Tide 2026-09-14T20:00/2026-09-14T21:00"],
    ),
    "several times a cell with their ends": (
        "Film,Date,Time\nTide,14 Sep 2026,10:00-12:00 and 2pm-4pm", (), ["Tide 2026-09-14T10:00/2026-09-14T12:00", "Tide 2026-09-14T14:00/2026-09-14T16:00"],
    ),
    "several starts a cell": ("Film,Date,Start,End\nTide,14 Sep 2026,2pm & 4pm,", (), ["Tide 2026-09-14T14:00/2026-09-14T15:00", "Tide 2026-09-14T16:00/2026-09-14T17:00"]),
    "the week of a table below it": (
        f"{DRIVERS}Week beginning 14/09/2026,,", (), ["Osei 2026-09-15T14:00/2026-09-15T22:00", "Quill 2026-09-14T07:00/2026-09-14T15:00"],
    ),
    "the week of weekdays down, below them": ("Mon,Knots\nTue,Oars\nWeek commencing 14 September 2026,", (), ["Knots 2026-09-14/2026-09-15", "Oars 2026-09-15/2026-09-16"]),
    "a year and a month in two rows": (f"2026,,,,,,\nSeptember,,,,,,\n{SEPTEMBER}", (), ["Oars 2026-09-03/2026-09-04"]),
    "a month without a year goes on from the one before": (
        f"February 2027,,,,,,\n{FEBRUARY}\nMarch,,,,,,\n{MARCH}", (),
        ["Oars 2027-02-03/2027-02-04", "Play 2027-03-31/2027-04-01", "Walk 2027-03-03/2027-03-04"],
    ),
    "a month over another year's end": (
        f"September 2026,,,,,,\n{SEPTEMBER}\nJanuary,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,,,,1 Rest,2,3", (), ["Oars 2026-09-03/2026-09-04", "Rest 2027-01-01/2027-01-02"],
    ),
    "weekdays and the weekend over columns": (
        "Time,Weekdays,Weekend\n06:00,Early,Hymns\n10:00,Mix,Brunch", RADIO,
        ["Brunch 2026-09-12T10:00/2026-09-12T14:00", "Brunch 2026-09-13T10:00/2026-09-13T14:00", "Early 2026-09-11T06:00/2026-09-11T10:00",
         "Hymns 2026-09-12T06:00/2026-09-12T10:00", "Hymns 2026-09-13T06:00/2026-09-13T10:00", "Mix 2026-09-11T10:00/2026-09-11T14:00"],
    ),
    "times and places of the days in rows of a roster": (
        ",13/09/2026,20/09/2026\nKO,2pm,3pm\nU11,v Harbour,v Quay 10am\nU13,,v Slip\nVenue,Slip 1,Loft 2", (),
        ["U11: v Harbour 2026-09-13T14:00/2026-09-13T15:00 @ Slip 1", "U11: v Quay 2026-09-20T10:00/2026-09-20T11:00 @ Loft 2",
         "U13: v Slip 2026-09-20T15:00/2026-09-20T16:00 @ Loft 2"],
    ),
    "starts and ends of the days in rows of a roster": (
        ",Mon 14 Sep 2026,Tue 15 Sep 2026\nStart,9:00,9:30\nEnd,10:00,10:45\nKnots,Quill,Osei", (),
        ["Knots: Osei 2026-09-15T09:30/2026-09-15T10:45", "Knots: Quill 2026-09-14T09:00/2026-09-14T10:00"],
    ),
    "shifts, nights and who is on call, across": (
        "Date,Early,Night,On call\n13/09/2026,Quill,Barr,Dr Moss\n14/09/2026,Quill,Barr,Dr Lund", (),
        ["Barr (Night) 2026-09-13/2026-09-14", "Barr (Night) 2026-09-14/2026-09-15", "Dr Lund (On call) 2026-09-14/2026-09-15",
         "Dr Moss (On call) 2026-09-13/2026-09-14", "Quill (Early) 2026-09-13/2026-09-14", "Quill (Early) 2026-09-14/2026-09-15"],
    ),
    "opening hours are no days of a month": (
        "Shop,Mon,Tue,Wed,Thu,Fri,Sat,Sun\nCafe,,,,,8-3,9-4,10-2", RADIO,
        ["Cafe 2026-09-11T08:00/2026-09-11T15:00", "Cafe 2026-09-12T09:00/2026-09-12T16:00", "Cafe 2026-09-13T10:00/2026-09-13T14:00"],
    ),
    "days of a programme, numbered beside their dates": (
        "Day 1,Monday 5 July 2027\n10:00-11:00,Tides\n11:00,Coffee\nDay 2,Tuesday 6 July 2027\n9:00,Winds", (),
        ["Coffee 2027-07-05T11:00/2027-07-05T12:00", "Tides 2027-07-05T10:00/2027-07-05T11:00", "Winds 2027-07-06T09:00/2027-07-06T10:00"],
    ),
    "numbers of days in rows of months": (
        "Month,Refuse,Garden\nSept 2026,\"3, 17\",10th\nOct 2026,1 & 15,-", (),
        ["Garden 2026-09-10/2026-09-11", "Refuse 2026-09-03/2026-09-04", "Refuse 2026-09-17/2026-09-18", "Refuse 2026-10-01/2026-10-02",
         "Refuse 2026-10-15/2026-10-16"],
    ),
    "remarks right of the days of a month": (
        "September 2026,,,,,,\nWk,Mon,Tue,Wed,Thu,Fri,Notes\n1,,1,2,3,4,Rest\n2,7,8 Oars,9,10,11 Tar,Drill", (), ["Oars 2026-09-08/2026-09-09", "Tar 2026-09-11/2026-09-12"],
    ),
    "one date out of order under a year": (
        "Exam dates 2027,\nExam,Date\nMaths,17 May\nArt,3 June\nFrench,26 April", (), ["Art 2027-06-03/2027-06-04", "French 2027-04-26/2027-04-27", "Maths 2027-05-17/2027-05-18"],
    ),
    "dates that run on from a year into the next": (
        "Events 2027,\nEvent,Date\nFair,12 Sept\nSupper,3 Dec\nWalk,14 March", (), ["Fair 2027-09-12/2027-09-13", "Supper 2027-12-03/2027-12-04", "Walk 2028-03-14/2028-03-15"],
    ),
    "a line of a drawn week with a name beside its time": (
        "Period,Time,Mon,Tue\nGate duty,8:20-8:45,Quill,Osei\n1,8:45-9:40,Knots,Oars\nClubs,15:30-16:30,Chess,", WEEK,
        ["Chess 2026-09-07T15:30/2026-09-07T16:30", "Knots 2026-09-07T08:45/2026-09-07T09:40", "Oars 2026-09-08T08:45/2026-09-08T09:40",
         "Osei 2026-09-08T08:20/2026-09-08T08:45", "Quill 2026-09-07T08:20/2026-09-07T08:45"],
    ),
    "names over the times of a drawn week that lies on its side": (
        ",Before school,Break,Lunch 1,After school\n,8:20-8:45,10:30-10:50,12:00-12:30,15:30-15:50\nMonday,Quill,Osei,Barr,Moss\nTuesday,Osei,Barr,Moss,Quill",
        ("--from", "2026-09-08", "--until", "2026-09-08"),
        ["Barr 2026-09-08T10:30/2026-09-08T10:50", "Moss 2026-09-08T12:00/2026-09-08T12:30", "Osei 2026-09-08T08:20/2026-09-08T08:45",
         "Quill 2026-09-08T15:30/2026-09-08T15:50"],
    ),
    "a slot of a grid with a name beside its time": (
        "Period,Time,Mon 7 Sep 2026,Tue 8 Sep 2026\n1,8:45-9:40,Knots,Oars\n2,9:45-10:40,Oars,\nClubs,15:30-16:30,Chess,", (),
        ["Chess (Clubs) 2026-09-07T15:30/2026-09-07T16:30", "Knots 2026-09-07T08:45/2026-09-07T09:40", "Oars 2026-09-07T09:45/2026-09-07T10:40",
         "Oars 2026-09-08T08:45/2026-09-08T09:40"],
    ),
    "sums right of the days of a roster": (
        "w/c 12 October 2026,,,,,,\nName,Mon,Tue,Wed,Thu,Fri,Total hrs\nQuill,9-5,,off,9-5,,16", (),
        ["Quill 2026-10-12T09:00/2026-10-12T17:00", "Quill 2026-10-15T09:00/2026-10-15T17:00"],
    ),
    "classes beside the times of a dated grid": (
        "Block,,Mon 7 Sep 2026,Tue 8 Sep 2026\nA,8.45-9.15,7A,7A\nB,9.15-10.10,9C,\nC,10.20-10.50,9K,8B", (),
        ["7A 2026-09-07T08:45/2026-09-07T09:15", "7A 2026-09-08T08:45/2026-09-08T09:15", "8B 2026-09-08T10:20/2026-09-08T10:50",
         "9C 2026-09-07T09:15/2026-09-07T10:10", "9K 2026-09-07T10:20/2026-09-07T10:50"],
    ),
    "periods with their times in one cell of a dated grid": (
        ",Mon 7 Sep 2026,Tue 8 Sep 2026\n1 (8:45-9:40),Knots,Oars\n2 (9:45-10:40),Oars,\n15:30-16:30 Clubs,Chess,Free", (),
        ["Chess (Clubs) 2026-09-07T15:30/2026-09-07T16:30", "Knots 2026-09-07T08:45/2026-09-07T09:40", "Oars 2026-09-07T09:45/2026-09-07T10:40",
         "Oars 2026-09-08T08:45/2026-09-08T09:40"],
    ),
    "duties under two lines of titles": (
        "Harbour School,,,\nDuty – Spring,,,\n,,Mon,Tue\nMorning gate,8.15-8.40,Quill,Osei\nLunch hall,12.00-12.40,Barr,Lund", WEEK,
        ["Barr 2026-09-07T12:00/2026-09-07T12:40", "Lund 2026-09-08T12:00/2026-09-08T12:40", "Osei 2026-09-08T08:15/2026-09-08T08:40",
         "Quill 2026-09-07T08:15/2026-09-07T08:40"],
    ),
    "hours in all are no times of a day": (
        "Rota week commencing 7 Sept 2026,,,,,,\nName,Role,Mon,Tue,Wed,Thu,Fri,Hours\nQuill,Cook,9-5,,,,,8\nBarr,Mate,HOL,,,,9-5,8", (),
        ["Barr 2026-09-11T09:00/2026-09-11T17:00", "Barr: HOL 2026-09-07/2026-09-08", "Quill 2026-09-07T09:00/2026-09-07T17:00"],
    ),
    "numbers of tasks are no dates": (
        "WBS,Task,Start,Finish\n1,Design,7 Sep 2026,25 Sep 2026\n1.1,Lines,7 Sep 2026,11 Sep 2026", (), ["Design 2026-09-07/2026-09-26", "Lines 2026-09-07/2026-09-12"],
    ),
    "who is absent is not what is on": (
        "Date,Time,Teacher absent,Class,Cover\n7 Sep 2026,9:00-10:00,Ms Quill,7A,Mr Osei\n8 Sep 2026,9:00-10:00,Mr Lund,9C,Mr Osei", (),
        ["7A 2026-09-07T09:00/2026-09-07T10:00", "9C 2026-09-08T09:00/2026-09-08T10:00"],
    ),
    "a subject in French": ("Date,Matière,Surveillant\n14 juin 2027,Histoire,M. Barr", (), ["Histoire 2027-06-14/2027-06-15"]),
    "the title of a lecture": ("Lecture title,Speaker,Date\nTides,Dr Moss,5 Oct 2026", (), ["Tides 2026-10-05/2026-10-06"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_what_stands_apart_is_read(kind: str, tmp_path: Path) -> None:
    table, options, events = READ[kind]
    assert sorted(built(csv_file(tmp_path, table), *options)) == sorted(events)


GRID = "Period,Mon 7 Sep 2026,Tue 8 Sep 2026\n9.00-9.45,Knots,Oars\n"
GRID_EVENTS = [
    "Knots 2026-09-07T09:00/2026-09-07T09:45",
    "Oars 2026-09-08T09:00/2026-09-08T09:45",
    "Sails 2026-09-07T10:00/2026-09-07T10:45",
]
BREAKS: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a break between the slots of dates": (f"{GRID},BREAK,BREAK\n10.00-10.45,Sails,", (), GRID_EVENTS),
    "the same in one cell, merged": (f"{GRID},Morning break (15 min),\n10.00-10.45,Sails,", (), GRID_EVENTS),
    "rooms below the classes of dates": (
        f"{GRID},Room 1,Room 2\n10.00-10.45,Sails,\n,Loft 3,", (),
        ["Knots 2026-09-07T09:00/2026-09-07T09:45 @ Room 1", "Oars 2026-09-08T09:00/2026-09-08T09:45 @ Room 2", "Sails 2026-09-07T10:00/2026-09-07T10:45 @ Loft 3"],
    ),
    "a break between times across": (
        "Date,9.00-9.45,Break,10.00-10.45\nMon 7 Sep 2026,Knots,,Sails\nTue 8 Sep 2026,Oars,,", (), GRID_EVENTS,
    ),
    "breaks of a programme": (
        "Saturday 12 June 2027,,\nTime,Loft A,Loft B\n9.00-9.45,Knots,Oars\n,BREAK,BREAK\n10.00-10.45,Sails,\n11.00-11.45,,Tar", (),
        ["Knots 2027-06-12T09:00/2027-06-12T09:45 @ Loft A", "Oars 2027-06-12T09:00/2027-06-12T09:45 @ Loft B", "Sails 2027-06-12T10:00/2027-06-12T10:45 @ Loft A",
         "Tar 2027-06-12T11:00/2027-06-12T11:45 @ Loft B"],
    ),
    "a break in a drawn week": (
        ",Mon,Tue\n9.00-9.45,Knots,Oars\n,BREAK,BREAK\n10.00-10.45,Sails,", WEEK, GRID_EVENTS,
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", BREAKS)
def test_a_break_without_a_time_is_no_event_and_goes_to_none(kind: str, tmp_path: Path) -> None:
    table, options, events = BREAKS[kind]
    assert sorted(built(csv_file(tmp_path, table), *options)) == sorted(events)


REFUSED: dict[str, tuple[str, tuple[str, ...], str]] = {
    "what stands beside a break between two slots": (f"{GRID},BREAK,Chess\n10.00-10.45,Sails,", (), "has no time of its own"),
    "the same in a drawn week": (",Mon,Tue\n9.00-9.45,Knots,Oars\n,BREAK,Chess\n10.00-10.45,Sails,", WEEK, "No line says in which period"),
    "several times a cell that nothing uses": ("Drug,Start date,Given at\nSalve,14 Sep 2026,\"08:00, 14:00, 20:00\"", (), "“Given at” holds times"),
    "several times that overlap": ("Film,Date,Time\nTide,14 Sep 2026,7:30pm & 8pm", (), "is not a time"),
    "several times in one half of the day or the other": ("Film,Date,Time\nTide,14 Sep 2026,2.00 & 7.30\nReef,15 Sep 2026,7.30", (), "2:00 could be in the morning or in the afternoon"),
    "weeks between the entries of a table": (
        "Driver,Mon,Tue\nQuill,7:00-15:00,\nWeek beginning 14/09/2026,,\nOsei,7:00-15:00,\nWeek beginning 21/09/2026,,", ("--day-one", "2026-09-14"), "5 rows read = 5 rejected",
    ),
    "half a year back or on, under a year": ("Events 2027,\nEvent,Date\nFair,12 Sept\nSupper,3 Dec\nRegatta,14 June", (), "has no year"),
    "a line of a drawn week that nothing times": ("Period,Mon,Tue\n1 (8:45-9:40),Knots,Oars\n2 (9:45-10:40),Oars,Knots\nClubs,Chess,Choir", WEEK, "No line says in which period"),
    "candidates and their roles are no places": ("Time,Candidate,Role\n09:00,Ada Barr,Rigger\n09:45,Finn Moss,Rigger\n10:30,Mara Lund,Cook", ("--set", "date=2026-10-06"), "what each event is called"),
    "times over the dates of a roster": (",10:00,11:00\n,13/09/2026,20/09/2026\nU11,v Harbour,v Quay\nU13,v Slip,v Quay", (), "Row 1 holds times over the dates"),
    "two rows of times in a roster": (",13/09/2026,20/09/2026\nU11,v Harbour,v Quay\nTime,10:00,11:00\nU13,v Quay,v Slip\nTime,12:00,13:00", (), "both headed “Time”"),
    "numbers of days that are none of the month": (f"February 2027,,,,,,\n{FEBRUARY}\n29,30,31 Play,,,,", (), "Day 29 of February 2027"),
}  # fmt: skip


@pytest.mark.parametrize("kind", REFUSED)
def test_what_stands_apart_and_is_open_is_refused(kind: str, tmp_path: Path) -> None:
    table, options, said = REFUSED[kind]
    assert said in refused(csv_file(tmp_path, table), *options)


def test_a_roster_of_dated_weekdays_beside_another_sheet_is_no_timetable(tmp_path: Path) -> None:
    rows = [
        ["Duty roster, week of 7 September 2026", "", ""],
        ["", "Mon 7", "Tue 8", "Wed 9", "Thu 10"],
        ["Gate 8:15-8:45", "Quill", "Moss", "Lund", "Barr"],
    ]
    book = workbook(tmp_path, rows, more={"About": [["Ask the office."]]})
    assert sorted(built(book))[0] == "Gate: Barr 2026-09-10T08:15/2026-09-10T08:45"


def test_who_is_absent_is_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Absent,Class\n7 Sep 2026,Ms Quill,7A")
    assert "“Absent”" in nomarium("build", source, "-o", tmp_path / "a.ics").text


def test_a_limit_above_a_table_is_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Registration closes: 1 October 2026,\nCourse,Date\nKnots,22 Oct 2026")
    outcome = nomarium("build", source, "-o", tmp_path / "a.ics")
    assert "“Registration closes: 1 October 2026” stands above the table and is no event" in outcome.text


def test_hours_in_all_beside_a_roster_are_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Name,7 Sep 2026,8 Sep 2026,Hours\nQuill,9-5,,8\nBarr,,9-5,8")
    assert "Not used: the column “Hours”" in nomarium("build", source, "-o", tmp_path / "a.ics").text
