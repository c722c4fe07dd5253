"""Layouts that people draw: rosters, wall planners, month matrices, several tables on one sheet."""

from __future__ import annotations

import calendar
import csv
import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, plain, refused, workbook
from nomarium.reading.layouts.celltimes import time_and_text

E, L = "T07:00/{0}T15:00", "T15:00/{0}T23:00"


def day(number: int, month: int = 9) -> str:
    first = dt.date(2026, month, number)
    return f"{first}/{first + dt.timedelta(1)}"


def week(number: int, month: int = 9) -> str:
    first = dt.date(2026, month, number)
    return f"{first}/{first + dt.timedelta(7)}"


def hours(number: int, start: str, end: str) -> str:
    return f"2026-09-{number:02}T{start}/2026-09-{number:02}T{end}"


KEY = "\n\nKey,,\nE,Early 7:00-15:00,\nN,Night 23:00-7:00,"
ROSTERS = {
    "codes with a key below": (
        f"Yard roster September 2026,,\nName,Mon 7,Tue 8\nFinch,E,OFF\nRoe,N,E{KEY}", [],
        ["Finch: E (Early) " + hours(7, "07:00", "15:00"), "Roe: N (Night) 2026-09-07T23:00/2026-09-08T07:00", "Roe: E (Early) " + hours(8, "07:00", "15:00")],
    ),
    "a key in a table of its own": (
        "Name,7 Sep 2026,8 Sep 2026\nFinch,E,\nRoe,,E\n\nCode,Start,End\nE,07:00,15:00", [],
        ["Finch: E " + hours(7, "07:00", "15:00"), "Roe: E " + hours(8, "07:00", "15:00")],
    ),
    "a key in one line above": (
        '"E = 7:00-15:00, L = 15:00-23:00",,\nName,7 Sep 2026,8 Sep 2026\nFinch,E,L', [],
        ["Finch: E " + hours(7, "07:00", "15:00"), "Finch: L " + hours(8, "15:00", "23:00")],
    ),
    "codes that are told": (
        "Name,7 Sep 2026,8 Sep 2026\nFinch,E,L", ["--set-code", "E=7:00-15:00", "--set-code", "l=Late"],
        ["Finch: E " + hours(7, "07:00", "15:00"), "Finch: L (Late) " + day(8)],
    ),
    "hours": ("Staff,07/09/2026,08/09/2026,25/09/2026\nAnn,9-5,OFF,10:00-13:00", [], ["Ann " + hours(7, "09:00", "17:00"), "Ann " + hours(25, "10:00", "13:00")]),
    "three shifts round the clock": (
        "Name,7 Sep 2026,8 Sep 2026,9 Sep 2026\nAnn,7-3,3-11,11-7", [],
        ["Ann " + hours(7, "07:00", "15:00"), "Ann " + hours(8, "15:00", "23:00"), "Ann 2026-09-09T23:00/2026-09-10T07:00"],
    ),
    "posts": ("Post,5 Sep 2026,6 Sep 2026\nGate,Finch,\nSlip,Roe,Bo", [], ["Gate: Finch " + day(5), "Slip: Roe " + day(5), "Slip: Bo " + day(6)]),
    "rooms": ("Room,7 Sep 2026,8 Sep 2026\nLoft,Knots 9:00-10:00,Rigging", [], ["Knots " + hours(7, "09:00", "10:00") + " @ Loft", "Rigging " + day(8) + " @ Loft"]),
    "marks": ("Steward,5 Sep 2026,12 Sep 2026\nFinch,x,\nRoe,,✓", [], ["Finch " + day(5), "Roe " + day(12)]),
    "a leave chart": ("Leave chart 2026,,\n,7/9,14/9\nFinch,AL,\nRoe,½,S", [], ["Finch: AL " + day(7), "Roe: ½ " + day(7), "Roe: S " + day(14)]),
    "teams and totals": (
        "Rota September 2026,,,\n,Mon 7,Tue 8,Total\nRED,,,\nFinch,E,L,2\nBLUE,,,\nRoe,L,,1\nTotal,2,1,", [],
        ["Finch: E " + day(7), "Finch: L " + day(8), "Roe: L " + day(7)],
    ),
    "months over the numbers": (
        "Duty 2026,,,,,,\n,September,,,,October,\nName,7,14,21,28,5,12\nFinch,Gate,,,Slip,Gate,\nRoe,,Gate,,,,", [],
        ["Finch: Gate " + day(7), "Finch: Slip " + day(28), "Finch: Gate " + day(5, 10), "Roe: Gate " + day(14)],
    ),
    "into the next month": ("Rota from 28 September 2026,,,,\nName,Mon 28,Tue 29,Wed 30,Thu 1\nFinch,E,,,L", [], ["Finch: E " + day(28), "Finch: L " + day(1, 10)]),
    "in French": (
        "Service septembre 2026,,\nNom,lundi 7,mardi 8\nDubois,Porte,Repos\nRoy,,Quai", [], ["Dubois: Porte " + day(7), "Roy: Quai " + day(8)],
    ),
    "numbers over times are a grid": (
        "September 2026,,\nTime,Mon 7,Tue 8\n9:00-10:00,Knots,Rigging", [], ["Knots " + hours(7, "09:00", "10:00"), "Rigging " + hours(8, "09:00", "10:00")],
    ),
    "shifts with their hours down": (
        "Shift,Mon 7 Sep 2026,Tue 8 Sep 2026\nEarly (7-3),Ann,\nLate (3-11),,Bo\nNight (11-7),Cy,", [],
        ["Early: Ann " + hours(7, "07:00", "15:00"), "Late: Bo " + hours(8, "15:00", "23:00"), "Night: Cy 2026-09-07T23:00/2026-09-08T07:00"],
    ),
    "shifts with their hours in columns": (
        "Shift,Start,Finish,Mon 7 Sep 2026,Tue 8 Sep 2026\nEarly,07:00,15:00,Ann,Bo", [], ["Early: Ann " + hours(7, "07:00", "15:00"), "Early: Bo " + hours(8, "07:00", "15:00")],
    ),
    "a month in the corner": ("Sep-26,1,2,3,4,5\nAnn,D,,N,,", [], ["Ann: D " + day(1), "Ann: N " + day(3)]),
    "weeks by their last day": (
        "Week ending,Ann,Bo,Cy\n13/09/2026,Gate,Slip,Shed\n20/09/2026,Slip,Shed,Gate\n27/09/2026,Shed,Gate,Slip", [],
        [f"{name}: {post} {week(at)}" for at, posts in ((7, "Gate Slip Shed"), (14, "Slip Shed Gate"), (21, "Shed Gate Slip")) for name, post in zip(("Ann", "Bo", "Cy"), posts.split(), strict=True)],
    ),
    "shifts across": ("Day,Early,Late\nMon 7 Sep 2026,Ann,Bo", [], ["Ann (Early) " + day(7), "Bo (Late) " + day(7)]),
    "weeks across": ("Class,w/c 7 Sep 2026,w/c 14 Sep 2026\nKnots,Bowline,Splices", [], ["Knots: Bowline " + week(7), "Knots: Splices " + week(14)]),
    "weeks down": (
        "Week beginning,Finch,Roe,Tern\n7 September 2026,Gate,Mess,Slip\n14 September 2026,Slip,Gate,Mess\n21 September 2026,Mess,Slip,Gate", [],
        [f"{name}: {post} {week(at)}" for at, posts in ((7, "Gate Mess Slip"), (14, "Slip Gate Mess"), (21, "Mess Slip Gate")) for name, post in zip(("Finch", "Roe", "Tern"), posts.split(), strict=True)],
    ),
    "names across": ("Date,Finch,Roe\n7 Sep 2026,E,L\n8 Sep 2026,L,E", [], ["Finch: E " + day(7), "Roe: L " + day(7), "Finch: L " + day(8), "Roe: E " + day(8)]),
    "marks under names, and no heading over the dates": (
        ",Finch,Roe,Tern\n7 Sep 2026,x,,x\n14 Sep 2026,,x,x", [], ["Finch " + day(7), "Tern " + day(7), "Roe " + day(14), "Tern " + day(14)],
    ),
    "subjects across, when asked": (
        "Date,Knots,Rigging\n7 Sep 2026,Bowline,Blocks\n14 Sep 2026,Hitches,", ["--as", "roster"],
        ["Knots: Bowline " + day(7), "Rigging: Blocks " + day(7), "Knots: Hitches " + day(14)],
    ),
    "parts of the day across": ("Date,Morning,Afternoon\n7 Sep 2026,Knots,Rigging", [], ["Knots (Morning) " + day(7), "Rigging (Afternoon) " + day(7)]),
    "parts of the day that are told": (
        "Date,Morning,Afternoon\n7 Sep 2026,Knots,Rigging", ["--set-code", "Morning=9:00-12:00"], ["Knots " + hours(7, "09:00", "12:00"), "Rigging (Afternoon) " + day(7)],
    ),
    "sessions with their times": (
        "Date,Session 1 (9:00-10:30),Session 2 (11:00-12:30)\n7 Sep 2026,Knots,Rigging", [], ["Knots " + hours(7, "09:00", "10:30"), "Rigging " + hours(7, "11:00", "12:30")],
    ),
    "posts over parts of the day": (
        "Yard duty,,,,\n,Gate,,Boats,\nDate,AM,PM,AM,PM\n7 Sep 2026,Finch,Roe,Tern,Bo", [],
        [f"{one} {day(7)}" for one in ("Gate: Finch (AM)", "Gate: Roe (PM)", "Boats: Tern (AM)", "Boats: Bo (PM)")],
    ),
    "parts of the day under dates": (
        "Post,7 Sep 2026,,8 Sep 2026,\n,AM,PM,AM,PM\nGate,Finch,Roe,,Bo", [],
        ["Gate: Finch (AM) " + day(7), "Gate: Roe (PM) " + day(7), "Gate: Bo (PM) " + day(8)],
    ),
    "hours under dates": (
        "Post,7 Sep 2026,,8 Sep 2026,\n,9-12,13-15,9-12,13-15\nGate,Finch,Roe,,Bo", [],
        ["Gate: Finch " + hours(7, "09:00", "12:00"), "Gate: Roe " + hours(7, "13:00", "15:00"), "Gate: Bo " + hours(8, "13:00", "15:00")],
    ),
    "parts of the day that begin at a time": (
        "Date,Morning (9:00),Afternoon (1.30pm)\n7 Sep 2026,Knots,Rigging", [], ["Knots " + hours(7, "09:00", "10:00"), "Rigging " + hours(7, "13:30", "14:30")],
    ),
    "parts of the day down, the date written once": (
        "Date,Shift,Nurse 1,Nurse 2\n7 Sep 2026,Early,Finch,Roe\n,Late (14-22),Tern,Bo", ["--as", "roster", "--fill-down", "Date"],
        ["Nurse 1: Finch (Early) " + day(7), "Nurse 2: Roe (Early) " + day(7),
         "Nurse 1: Tern (Late) " + hours(7, "14:00", "22:00"), "Nurse 2: Bo (Late) " + hours(7, "14:00", "22:00")],
    ),
    "places across": (
        "Date,Time,Loft 1,Shed\n7 Sep 2026,9:00-10:30,Knots,\n7 Sep 2026,11:00-12:30,,Steam", [], ["Knots " + hours(7, "09:00", "10:30") + " @ Loft 1", "Steam " + hours(7, "11:00", "12:30") + " @ Shed"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", ROSTERS)
def test_rosters_are_read(name: str, tmp_path: Path) -> None:
    text, arguments, expected = ROSTERS[name]
    assert built(csv_file(tmp_path, text), *arguments) == expected


def grid(
    rows: dict[int, dict[int, str]], months: tuple[int, ...] = (9, 10), named: bool = True
) -> list[list[str]]:
    """A wall planner in pairs of columns: `rows` are the entries by day and month."""
    found = [[part for month in months for part in (calendar.month_name[month], "")]]
    for number in range(1, 32):
        line: list[str] = []
        for month in months:
            exists = number <= calendar.monthrange(2026, month)[1]
            label = (
                f"{dt.date(2026, month, number):%a} {number}"
                if exists and named
                else str(number)
                if exists
                else ""
            )
            line += [label, rows.get(number, {}).get(month, "") if exists else ""]
        found.append(line)
    return found


WALL = {2: {10: "Regatta"}, 4: {9: "Staff day\n18:00 Supper"}, 31: {10: "Haul out"}}
EXPECTED_WALL = [
    "Staff day " + day(4),
    "Supper " + hours(4, "18:00", "19:00"),
    "Regatta " + day(2, 10),
    "Haul out " + day(31, 10),
]


def wall(folder: Path, rows: list[list[str]], title: str = "Planner 2026") -> Path:
    with (folder / "wall.csv").open("w", newline="") as file:
        csv.writer(file).writerows([[title], *rows])
    return folder / "wall.csv"


@pytest.mark.parametrize("named", [True, False])
def test_wall_planners_in_pairs_of_columns(named: bool, tmp_path: Path) -> None:
    assert built(wall(tmp_path, grid(WALL, named=named))) == EXPECTED_WALL


@pytest.mark.parametrize(
    "text",
    [
        "January 2027,,\nMon 4,School reopens,\nThu 14,Open evening,6-8 pm\nMon 18 – Thu 21,Mocks,\nFebruary,,\n15 – 19,Half term,all day",
        "Dates 2026-27,,,\nJanuary,,,\nMon,4,School reopens,\nThu,14,Open evening,6-8 pm\n,18 – 21,Mocks,\nFebruary,,,\n,15 – 19,Half term,all day",
    ],
)
def test_a_list_under_months_in_rows_of_their_own(text: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, text)
    ran = nomarium("build", source, "-o", tmp_path / "out.ics", "--school-year", "2026:2027")
    assert ran.status == 0 and "a month alone" in ran.text, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == [
        "School reopens 2027-01-04/2027-01-05", "Open evening 2027-01-14T18:00/2027-01-14T20:00", "Mocks 2027-01-18/2027-01-22",
        "Half term 2027-02-15/2027-02-20",
    ]  # fmt: skip


def test_months_below_one_another_are_a_list_where_days_are_ranges_and_a_planner_else(tmp_path: Path) -> None:
    text = "January 2027,\n4,Term starts\n{},Mocks\nFebruary,\n2,Fair\n3,Feast"
    for days, told, mocks in (
        ("18 – 21", "a month alone", "2027-01-18/2027-01-22"),
        ("18", "a wall planner", "2027-01-18/2027-01-19"),
    ):
        ran = nomarium("build", csv_file(tmp_path, text.format(days)), "-o", tmp_path / f"{days}.ics")
        assert ran.status == 0 and told in ran.text, ran.text
        assert f"Mocks {mocks}" in [*map(plain, events_in(tmp_path / f"{days}.ics"))]


def test_days_of_a_month_that_go_on_in_the_next_one(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "December 2026,,\n4,Fair,10am-2pm\n12 & 13,Market,\n21 – 3 Jan,Office closed,"
    )
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == [
        "Fair 2026-12-04T10:00/2026-12-04T14:00", "Market 2026-12-12/2026-12-13", "Market 2026-12-13/2026-12-14", "Office closed 2026-12-21/2027-01-04",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "start", "end", "title"),
    [
        ("Parents' evening 4-7pm", 16, 19, "Parents' evening"), ("Fair from 10am to 2pm", 10, 14, "Fair"), ("Open evening (6-8 pm)", 18, 20, "Open evening"),
        ("Meeting at 7pm", 19, None, "Meeting"), ("End of term noon", 12, None, "End of term"), ("9:00-10:30 Knots", 9, 10.5, "Knots"),
        ("Closed until noon", None, None, "Closed until noon"), ("Race 10-12", None, None, "Race 10-12"), ("Room 4", None, None, "Room 4"),
    ],
)  # fmt: skip
def test_the_time_of_a_drawn_entry(text: str, start: float | None, end: float | None, title: str) -> None:
    part, rest = time_and_text(text)
    assert [clock.secs / 3600 if clock else None for clock in (part.start, part.end)] == [start, end]
    assert rest == title


def test_wall_planners_with_one_column_of_days_or_one_below_another(tmp_path: Path) -> None:
    pairs = grid(WALL)
    across = [
        ["", "Sep", "Oct", "Notes"],
        *([str(n), row[1], row[3], "keys" if n == 1 else ""] for n, row in enumerate(pairs[1:], 1)),
    ]
    assert built(wall(tmp_path, across)) == EXPECTED_WALL
    assert (
        "Not used: the column “Notes”"
        in nomarium("build", tmp_path / "wall.csv", "-o", tmp_path / "o.ics").out
    )
    below = [
        row
        for month in (0, 2)
        for row in [[pairs[0][month], ""], *([one[month], one[month + 1]] for one in pairs[1:] if one[month])]
    ]
    assert built(wall(tmp_path, below)) == EXPECTED_WALL


def test_wall_planners_with_days_across_and_merged_spans(tmp_path: Path) -> None:
    rows: list[list[object]] = [["Month", *range(1, 32)], ["September"], ["October"]]
    source = workbook(tmp_path, rows, name="2026.xlsx")
    import openpyxl

    book = openpyxl.load_workbook(source)
    sheet = book.active
    sheet.title = "2026"
    sheet["F2"], sheet["C3"] = "Boat week", "Exams"
    sheet.merge_cells("F2:J2")
    book.save(source)
    assert built(source) == ["Boat week 2026-09-05/2026-09-10", "Exams 2026-10-02/2026-10-03"]
    assert "5 read" not in nomarium("survey", source).out


def test_a_school_year_runs_on_over_the_months_of_a_planner(tmp_path: Path) -> None:
    rows = [["", "Nov", "Dec", "Jan"], *([str(n), "", "", "Regatta" if n == 9 else ""] for n in range(1, 32))]
    assert "--school-year" in refused(wall(tmp_path, rows, "Planner"))
    assert built(tmp_path / "wall.csv", "--school-year", "2026:2027") == ["Regatta 2027-01-09/2027-01-10"]
    assert built(wall(tmp_path, rows, "Planner 2026-27")) == ["Regatta 2027-01-09/2027-01-10"]


MATRICES = {
    "days of each month": ("Committee,Sep 2026,Oct 2026\nSafety,14,12\nLaunch,\"3, 17\",1 & 5", ["Safety " + day(14), "Safety " + day(12, 10), "Launch " + day(3), "Launch " + day(17), "Launch " + day(1, 10), "Launch " + day(5, 10)]),
    "days with the months that head them": ("Event 2026,January,February\nCommittee,12 Jan,9 Feb\nAGM,,23 Feb", ["Committee 2026-01-12/2026-01-13", "Committee 2026-02-09/2026-02-10", "AGM 2026-02-23/2026-02-24"]),
    "a school year above": ("Meetings 2026-27,Sept,Jan\nBoard,14th,11th", ["Board " + day(14), "Board 2027-01-11/2027-01-12"]),
    "times and places beside": ("Meeting,Time,Venue,Sep 2026,Oct 2026\nAGM,7pm,Loft,Tue 8,TBC\nOpen days,,,12-13,-", ["AGM 2026-09-08T19:00/2026-09-08T20:00 @ Loft", "Open days 2026-09-12/2026-09-14"]),
}  # fmt: skip


@pytest.mark.parametrize("name", MATRICES)
def test_month_matrices_are_read(name: str, tmp_path: Path) -> None:
    text, expected = MATRICES[name]
    assert built(csv_file(tmp_path, text)) == expected


TABLES = {
    "side by side, each under its title": (
        "Apprentices,,,Journeymen,\nDate,Event,,Date,Event\n7 Sep 2026,A,,8 Sep 2026,B\n14 Sep 2026,C,,,", [f"A {day(7)}", f"C {day(14)}", f"B {day(8)}"], ["columns A–B", "columns D–E", "“Journeymen”"],
    ),
    "below each other, with other headings": (
        "Races\nDate,Race,Slip\n7 Sep 2026,A,1\n\nMeetings\nWhen,Meeting,Time\n8 Sep 2026,B,18:00", [f"A {day(7)}", "B " + hours(8, "18:00", "19:00")], ["rows from 2", "rows from 6", "“Meetings” over a block"],
    ),
    "a chart of bars beside a list": (
        "Task,Start,End,7 Sep,14 Sep\nKeel,7 Sep 2026,11 Sep 2026,X,\nFrames,14 Sep 2026,14 Sep 2026,,X", ["Keel 2026-09-07/2026-09-12", "Frames " + day(14)], ["Not used", "“14 Sep”"],
    ),
    "weeks in a list": ("w/c,Topic\n7 Sept 2026,Knots\n14 Sept 2026,Ropes", ["Knots " + week(7), "Ropes " + week(14)], ["all seven days"]),
    "a weekday of the week": ("W/C,Day,Topic\n07/09/2026,Thursday,Knots\n14/09/2026,Monday,Ropes\n21/09/2026,Friday,Sails", ["Knots " + day(10), "Ropes " + day(14), "Sails " + day(25)], []),
    "numbered weeks": ("Date,Topic\n2026-W37,Knots\n2026-W38-2,Ropes", ["Knots " + week(7), "Ropes " + day(15)], []),
    "weeks in cells": ("Date,Topic\nw/c 7 September 2026,Knots\nw/c 14 September 2026,Ropes", ["Knots " + week(7), "Ropes " + week(14)], []),
}  # fmt: skip


@pytest.mark.parametrize("name", TABLES)
def test_tables_on_one_sheet_and_weeks_in_lists(name: str, tmp_path: Path) -> None:
    text, expected, said = TABLES[name]
    source = csv_file(tmp_path, text)
    assert built(source) == expected
    out = nomarium("build", source, "-o", tmp_path / "o.ics").out
    assert [words for words in said if words not in out] == []


REFUSED = {
    "two names that meet": ("Date,Skipper,Crew\n5 Sep 2026,Gulls,Terns\n12 Sep 2026,Terns,Gulls", [], ["Skipper"]),
    "posts that do not tell parts of the day apart": (",Gate,,Gate,\nDate,AM,PM,AM,PM\n7 Sep 2026,Finch,Roe,Tern,Bo", [], ["row 2, column D", "the row above"]),
    "a chart of scores": ("Name,7 Sep 2026,14 Sep 2026\nFinch,12,15\nRoe,8,11", [], ["dates stand across"]),
    "a budget": ("Item,Sep 2026,Oct 2026\nRope,120,90\nPaint,30,12", [], ["holds dates"]),
    "numbers of periods": (",7 Sep 2026,8 Sep 2026\n1,Sail,Rope\n2,Oars,", [], ["dates"]),
    "a weekday that does not fit": ("Rota September 2026,,\nName,Mon 7,Wed 8\nFinch,E,L", [], ["2026-09-08 is a Tuesday"]),
    "no month": ("Name,28,29,30,1,2\nFinch,E,E,L,L,E", [], ["of which month"]),
    "no year": ("Name,Mon 7 Sep,Tue 8 Sep\nFinch,E,L", [], ["--school-year"]),
    "hours that became a date": ("Name,7 Sep 2026,8 Sep 2026\nFinch,2026-05-09,E", [], ["row 2, column B", "9:00-17:00"]),
    "a mark that nothing explains": ("Date,AM,PM\n7 Sep 2026,x,\n8 Sep 2026,,x", [], ["row 2, column B", '--set-code "x=TITLE"']),
    "a row without a date": ("Date,Finch,Roe\n7 Sep 2026,E,L\n,L,E\n9 Sep 2026,E,L", [], ["row 3, column A", "no date"]),
    "a time that is none": ("Date,Time,Loft 1,Loft 2\n7 Sep 2026,early,Knots,Sails", [], ["row 2, column B", "“early” is no time"]),
    "a code that is nowhere": ("Name,7 Sep 2026,8 Sep 2026\nFinch,E,L", ["--set-code", "X=7:00-9:00"], ["“X”", "E and L"]),
    "a day that its month lacks": ("2026," + ",".join(map(str, range(1, 32))) + "\nSeptember" + "," * 30 + ",Oops\nOctober,A", [], ["September 2026 has no day 31"]),
    "a weekday in another year": ("Planner 2025,,,\nSeptember,,October,\nTue 1,A,Thu 1,\nWed 2,,Fri 2,\nThu 3,,Sat 3,\nFri 4,,Sun 4,\nSat 5,,Mon 5,", [], ["2025-09-01 is a Monday, not a Tuesday"]),
    "a cell that names no day": ("Meeting,Sep 2026,Oct 2026\nAGM,8,soon\nBoard,9,10", [], ["row 2, column C", "no day of October 2026"]),
    "a date of another month": ("Meeting,Sep 2026,Oct 2026\nAGM,8,2026-11-03\nBoard,9,10", [], ["row 2, column C"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_is_no_such_drawing_is_refused(name: str, tmp_path: Path) -> None:
    text, arguments, said = REFUSED[name]
    out = refused(csv_file(tmp_path, text), *arguments)
    assert [words for words in said if words not in out] == [], out


def test_a_roster_is_split_and_counted_by_person(tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Yard roster September 2026,,\nName,Mon 7,Tue 8\nFinch,E,OFF\nRoe,N,E{KEY}")
    assert nomarium("build", source, "-o", tmp_path / "people", "--split-by", "person").status == 0
    assert len(events_in(tmp_path / "people" / "roe.ics")) == 2
    assert "Roe" in nomarium("tally", source, "--by", "person").out
    assert nomarium("build", source, "-o", tmp_path / "t.csv").status == 0
    assert "Person" in (tmp_path / "t.csv").read_text("utf-8-sig").splitlines()[0]
    assert len(built(tmp_path / "t.csv")) == 3


def test_codes_are_kept_in_a_recipe_and_are_of_no_use_elsewhere(tmp_path: Path) -> None:
    source, recipe = csv_file(tmp_path, "Name,7 Sep 2026,8 Sep 2026\nFinch,E,L"), tmp_path / "r.toml"
    nomarium("survey", source, "--set-code", "E=7:00-15:00", "--save", recipe)
    assert built(source, "--recipe", recipe)[0] == "Finch: E " + hours(7, "07:00", "15:00")
    other = csv_file(tmp_path, "Title,Date\nA,2026-09-07", "list.csv")
    for arguments, said in (
        (["--set-code", "E=9-5"], "no roster"),
        (["--set-code", "E"], "no “=”"),
        (["--set-code", "E=1", "--set-code", "E=2"], "two things"),
    ):
        outcome = nomarium("build", other, "-o", tmp_path / "o.ics", *arguments)
        assert outcome.status == 2 and said in outcome.err
