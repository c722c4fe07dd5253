"""Messy lists through the real program: every event right, or a refusal that names cell and remedy."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from helpers import built, csv_file, nomarium, refused, workbook

RIGHT = {
    "a title above, blank rows, a section, headings again, a total and a note below": (
        """
        Saltmarsh launches

        Date,Event,Place

        2027-04-05,Launch,Slip 1
        Autumn term,,
        2027-09-06,Start,Hall
        Date,Event,Place
        2027-09-07,Race,Bay
        2027-09-08,-,
        Total,3,
        Please note the tides
        """,
        [],
        ["Launch 2027-04-05/2027-04-06 @ Slip 1", "Start 2027-09-06/2027-09-07 @ Hall", "Race 2027-09-07/2027-09-08 @ Bay"],
    ),
    "no headings: by content": (
        "2027-04-05,9:00,Launch,Slip\n2027-04-06,10:00,Picnic,Slip",
        [],
        ["Launch 2027-04-05T09:00/2027-04-05T10:00 @ Slip", "Picnic 2027-04-06T10:00/2027-04-06T11:00 @ Slip"],
    ),
    "headings that say nothing": (
        "Column1,Column2,Column3\n2027-04-05,Launch,9:00\n2027-04-06,Picnic,10:00",
        [],
        ["Launch 2027-04-05T09:00/2027-04-05T10:00", "Picnic 2027-04-06T10:00/2027-04-06T11:00"],
    ),
    "a lone description beside a date is the title": (
        "Date,Description\n2027-04-05,Launch", [], ["Launch 2027-04-05/2027-04-06"],
    ),
    "German with semicolons and dots": (
        "Datum;Uhrzeit;Veranstaltung;Ort\n5. April 2027;9 Uhr;Stapellauf;Slip\n31.12.2027;;Silvester;",
        [],
        ["Stapellauf 2027-04-05T09:00/2027-04-05T10:00 @ Slip", "Silvester 2027-12-31/2028-01-01"],
    ),
    "French names found from the cells": (
        "Date,Titre\n5 avril 2027,Régate\n6 août 2027,Fête", [], ["Régate 2027-04-05/2027-04-06", "Fête 2027-08-06/2027-08-07"],
    ),
    "start and end hold whole moments": (
        "Subject,Start,End\nA,25/4/2027 9:00,25/4/2027 10:00", [], ["A 2027-04-25T09:00/2027-04-25T10:00"],
    ),
    "Start holds dates beside Start time": (
        "Title,Start,Start time,End time\nA,2027-04-05,9:00,10:00", [], ["A 2027-04-05T09:00/2027-04-05T10:00"],
    ),
    "the weekday column settles the order": (
        "Date,Day,Title\n06/04/2027,Tuesday,A\n04/05/2027,Tuesday,B", [], ["A 2027-04-06/2027-04-07", "B 2027-05-04/2027-05-05"],
    ),
    "the unit in the heading settles the order": (
        "Date (mm/dd/yyyy),Title\n04/05/2027,A", [], ["A 2027-04-05/2027-04-06"],
    ),
    "the end date settles the order": (
        "Date,End date,Title\n05/04/2027,07/04/2027,A\n09/04/2027,01/05/2027,B", [], ["A 2027-04-05/2027-04-08", "B 2027-04-09/2027-05-02"],
    ),
    "the school year settles the order": (
        "Date,Title\n05/09/2026,A\n", ["--school-year", "2026-09-01:2027-06-30"], ["A 2026-09-05/2026-09-06"],
    ),
    "a day over 12 settles the order, also with dots and short years": (
        "Date,Title\n5.4.27,A\n27.4.27,B", [], ["A 2027-04-05/2027-04-06", "B 2027-04-27/2027-04-28"],
    ),
    "years from the school year": (
        "Date,Title\n5 April,A\n12 Sept,B", ["--school-year", "2026:2027"], ["A 2027-04-05/2027-04-06", "B 2026-09-12/2026-09-13"],
    ),
    "years from neighbours": (
        "Date,Title\n20 March 2027,A\n5 April,B", [], ["A 2027-03-20/2027-03-21", "B 2027-04-05/2027-04-06"],
    ),
    "ranges, inclusive as people write them": (
        "Name,When\nTerm,24–28 Oct 2027\nMix,5 April 2027 9:00-10:00", [], ["Term 2027-10-24/2027-10-29", "Mix 2027-04-05T09:00/2027-04-05T10:00"],
    ),
    "a date range with times within a day is an event each day": (
        "Name,When,Start,End\nCruise,5–7 April 2027,9:00,16:00", [],
        [f"Cruise 2027-04-{day:02}T09:00/2027-04-{day:02}T16:00" for day in (5, 6, 7)],
    ),
    "or one long event, as asked": (
        "Name,When,Start,End\nCruise,5–7 April 2027,9:00,16:00", ["--spans", "whole"], ["Cruise 2027-04-05T09:00/2027-04-07T16:00"],
    ),
    "midnights": (
        """
        Start,End,All day,Subject
        17 Sept 2027 00:00,18 Sept 2027 00:00,yes,A
        19 Sept 2027 00:00,19 Sept 2027 10:00,no,B
        20 Sept 2027 19:00,20 Sept 2027 00:00,no,C
        """,
        [],
        ["A 2027-09-17/2027-09-18", "B 2027-09-19T00:00/2027-09-19T10:00", "C 2027-09-20T19:00/2027-09-21T00:00"],
    ),
    "a column of midnights is dates": (
        "Date,Title\n2027-04-05 00:00:00,A", [], ["A 2027-04-05/2027-04-06"],
    ),
    "7pm to 9 ends in the evening, TBC is all-day": (
        "Date,Start,End,Title\n2027-04-05,7pm,9,A\n2027-04-06,TBC,,B", [], ["A 2027-04-05T19:00/2027-04-05T21:00", "B 2027-04-06/2027-04-07"],
    ),
    "an end past midnight with its date": (
        "Date,End date,Start,End,Event\n2027-04-05,2027-04-06,22:00,1:00,Late", [], ["Late 2027-04-05T22:00/2027-04-06T01:00"],
    ),
    "a length in the heading's unit": (
        "Date,Start,Length (min),Title\n2027-04-05,9:00,45,A", [], ["A 2027-04-05T09:00/2027-04-05T09:45"],
    ),
    "--column, --set and --default-length": (
        "Date,Time,Opponent,Ground\n2027-04-05,9:00,Gulls,Bay",
        ["--column", "Opponent=summary", "--column", "Ground=", "--set", "location=Main slip", "--default-length", "2h"],
        ["Gulls 2027-04-05T09:00/2027-04-05T11:00 @ Main slip"],
    ),
    "--fill-down": (
        "Date,Title\n2027-04-05,A\n,B", ["--fill-down", "Date"], ["A 2027-04-05/2027-04-06", "B 2027-04-05/2027-04-06"],
    ),
    "two columns that agree are one": (
        "Title,Subject,Date\nA,A,2027-04-05", [], ["A 2027-04-05/2027-04-06"],
    ),
    "weeks and days from day one": (
        "Week,Day,Title\n1,1,A\n2,Wed,B", ["--day-one", "2027-04-05"], ["A 2027-04-05/2027-04-06", "B 2027-04-14/2027-04-15"],
    ),
    "running day numbers are calendar days": (
        "Day,Title\nDay 1,A\nDay 17,B", ["--day-one", "2027-04-05"], ["A 2027-04-05/2027-04-06", "B 2027-04-21/2027-04-22"],
    ),
    "texts that look like formulas stay texts": (
        "Title,Date\n=1+1,2027-04-05\n'+44 555,2027-04-06", [], ["=1+1 2027-04-05/2027-04-06", "+44 555 2027-04-06/2027-04-07"],
    ),
    "a window keeps what touches it": (
        "Title,Date,End date\nA,2027-04-01,2027-04-05\nB,2027-04-06,\nC,2027-04-10,", ["--from", "2027-04-05", "--until", "2027-04-06"],
        ["A 2027-04-01/2027-04-06", "B 2027-04-06/2027-04-07"],
    ),
    "zones by row, and offsets into the zone": (
        "Date,Title,Time zone,Start\n2027-04-05,A,UTC,9:00\n2027-04-05T12:00:00Z,B,America/Halifax,", [],
        ["A 2027-04-05T09:00Z/2027-04-05T10:00Z", "B 2027-04-05T09:00/2027-04-05T10:00"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", RIGHT)
def test_read_as_meant(name: str, tmp_path) -> None:
    text, options, expected = RIGHT[name]
    assert built(csv_file(tmp_path, text), *options) == expected


REFUSED = {
    "an order that nothing settles": ("Date,Title\n04/05/2027,A", ["row 2, column A “Date”", "4 May 2027 or 5 April 2027", "--date-order dmy"]),
    "orders that contradict each other": ("Date,Title\n13/04/2027,A\n04/13/2027,B", ["row 2 “13/04/2027”", "row 3 “04/13/2027”"]),
    "no year anywhere": ("Date,Title\n5 April,A", ["5 April has no year", "--school-year"]),
    "an impossible date": ("Date,Title\n31/02/2027,A", ["row 2, column A “Date”: “31/02/2027”", "no such date"]),
    "a weekday that is not the date's": ("Date,Title\nMon 6 April 2027,A", ["is a Tuesday, not a Monday"]),
    "an end before its start": ("Date,Start,End,Title\n2027-04-05,15:30,14:30,A", ["column C “End”: “14:30”", "past midnight give the end date"]),
    "an end and no start": ("Date,Start,End,Title\n2027-04-05,9:00,,A\n2027-04-05,,10:00,B", ["row 3, column C", "no start time"]),
    "a length against the end": ("Date,Start,End,Length,Title\n2027-04-05,9:00,10:00,2h,A", ["length is not the time from 09:00 to 10:00"]),
    "a date written once for a group": ("Date,Title\n2027-04-05,A\n,B", ["row 3", '--fill-down "Date"']),
    "headings and no rows": ("Date,Title\n", ["headings and no rows", "must not replace"]),
    "an error value": ("Date,Title\n2027-04-05,#N/A", ["row 2, column B “Title”: “#N/A”", "shows the error"]),
    "an unquoted comma": ("Date,Title,Place\n2027-04-05,Launch, big,Slip\n2027-04-06,A,B\n2027-04-07,A,B", ["row 2", "cut in two"]),
    "an unquoted comma in every row": ("Date,Event\nApril 5, 2027,Launch", ["cut in two"]),
    "a weekday for a date": ("Event,Date\nA,Friday", ["names a weekday but no date"]),
    "two dates in a cell": ("Event,Date\nA,2027-04-05 or 2027-04-06", ["after the date is not a time"]),
    "a title forgotten": ("Date,Title,Place\n2027-04-05,A,B\n2027-04-05,,Slip", ["row 3, column B", "when and not what"]),
    "two titles that differ": ("Title,Subject,Date\nA,B,2027-04-05", ["“Title” and “Subject”", "they differ", "--column"]),
    "no column of dates": ("a,b\n1,2", ["No column", "--set date="]),
    "a list of contacts": ("Name,Email,Date of birth\nMaren,m@saltmarsh.example,1980-01-02", ["No column", "holds dates"]),
    "a start that is no time": ("Title,Date,Start\nA,2027-04-05,soon after nine", ["column C", "is not a time"]),
    "no title": ("Date,Skipper,Vessel\n2027-04-05,Harbour,Bay", ["Skipper=summary", "“Vessel”"]),
    "weeks without day one": ("Week,Day,Title\n1,1,A", ["--day-one"]),
    "month names of two languages": ("Date,Title\n15 listopad 2027,A", ["Polish or Croatian", "--language"]),
    "a repeat": ("Title,Date,Repeat\nA,2027-04-05,every Monday", ["row 2, column C", "has no end", "--until"]),
    "one uid twice": ("Title,Date,UID\nA,2027-04-05,x1\nB,2027-04-06,x1", ["row 3", "uid “x1” already"]),
    "an unknown zone": ("Title,Date,Start,Time zone\nA,2027-04-05,9:00,Halifax", ["America/Halifax"]),
    "a quote that never closes": ('Date,Title\n2027-04-05,"Launch\n2027-04-06,Picnic', ["row 2", "never closes"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_refused_with_the_cell_and_the_remedy(name: str, tmp_path) -> None:
    text, says = REFUSED[name]
    said = refused(csv_file(tmp_path, text))
    assert [part for part in says if part not in said] == []
    assert "Traceback" not in said


def test_opponent_is_found_when_it_is_the_only_column_of_words(tmp_path) -> None:
    assert built(csv_file(tmp_path, "Date,Opponent\n2027-04-05,Gulls")) == ["Gulls 2027-04-05/2027-04-06"]


def test_a_clock_change_is_told_with_what_was_done(tmp_path) -> None:
    source = csv_file(
        tmp_path, "Date,Start,End,Title\n2027-03-14,02:30,04:00,Skipped\n2027-11-07,01:30,02:30,Twice"
    )
    target = tmp_path / "o.ics"
    outcome = nomarium("build", source, "-o", target, "--timezone", "America/Halifax")
    assert "row 2: The clock change skips this local time: it is moved on by the gap" in outcome.out
    assert "row 3: The clock change repeats this local time: the first is taken" in outcome.out
    assert b"DTSTART;TZID=America/Halifax:20270314T033000" in target.read_bytes()


def test_a_length_is_exact_across_a_clock_change(tmp_path) -> None:
    source = csv_file(tmp_path, "Date,Start,Length,Title\n2027-03-13,22:00,12 h,Watch")
    assert built(source, "--timezone", "America/Halifax") == ["Watch 2027-03-13T22:00/2027-03-14T11:00"]


def test_a_full_export_reads_as_it_stands(tmp_path) -> None:
    from helpers import events_in
    from nomarium.cli.demo import write_samples

    write_samples(tmp_path)
    source = tmp_path / "office-records.csv"
    built(source, "--timezone", "America/Halifax")
    order, staff_day, bursary = events_in(source.with_suffix(".ics"))
    alarm = order.walk("VALARM")[0]
    assert alarm.decoded("TRIGGER") == dt.timedelta(minutes=-15)
    assert [str(person) for person in order["ATTENDEE"]] == [
        "mailto:tobias@saltmarsh.example", "mailto:piers@saltmarsh.example", "mailto:odile@saltmarsh.example"
    ]  # fmt: skip
    assert order["ATTENDEE"][2].params["ROLE"] == "OPT-PARTICIPANT"
    assert (order["PRIORITY"], order.get("CLASS"), order["TRANSP"]) == (1, None, "OPAQUE")
    assert staff_day.decoded("DTEND") == dt.date(2026, 11, 12)
    assert (bursary["CLASS"], bursary["TRANSP"]) == ("PRIVATE", "OPAQUE")


def test_workbook_cells_keep_their_types_and_merged_dates_hold_for_their_rows(tmp_path) -> None:
    rows = [
        ["Date", "Start", "End", "Title", "Room"],
        [dt.date(2027, 4, 5), dt.time(9), dt.time(10, 30), "A", 12],
        [None, 0.375, 0.5, "B", None],
        [46489, 9, "10am", "C", "Loft"],
        [True, None, None, None, None],
    ]
    assert built(workbook(tmp_path, rows[:4], ["A2:A3"])) == [
        "A 2027-04-05T09:00/2027-04-05T10:30 @ 12",
        "B 2027-04-05T09:00/2027-04-05T12:00",
        "C 2027-04-12T09:00/2027-04-12T10:00 @ Loft",
    ]
    assert "row 5" in refused(workbook(tmp_path, [*rows[:4], [True, None, None, "D", None]], name="bad.xlsx"))


def test_error_cells_and_uncomputed_formulas_are_problems_of_their_rows(tmp_path) -> None:
    said = refused(workbook(tmp_path, [["Date", "Title"], ["=A1+1", "A"], [dt.date(2027, 4, 5), "#N/A"]]))
    assert "row 2, column A “Date”" in said
    assert "formula without a saved result" in said
    assert "row 3, column B “Title”: “#N/A”" in said


def test_the_1904_date_system_is_honoured(tmp_path) -> None:
    rows = [["Date", "Title"], [dt.date(2027, 4, 5), "A"]]
    assert built(workbook(tmp_path, rows, from_1904=True)) == ["A 2027-04-05/2027-04-06"]


def test_headings_over_two_rows(tmp_path) -> None:
    rows = [
        ["Event", "Start", None, "End", None],
        [None, "Date", "Time", "Date", "Time"],
        ["A", dt.date(2027, 4, 5), dt.time(9), dt.date(2027, 4, 6), dt.time(10)],
    ]
    assert built(workbook(tmp_path, rows, ["B1:C1", "D1:E1"])) == ["A 2027-04-05T09:00/2027-04-06T10:00"]


def test_sheets_that_read_as_events_are_read_and_the_others_named(tmp_path) -> None:
    more = {"More": [["Date", "Title"], ["2027-04-06", "B"]], "Contacts": [["Name", "Telephone"], ["X", "1"]]}
    source = workbook(tmp_path, [["Date", "Title"], ["2027-04-05", "A"]], more=more)
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert "passed over" in outcome.out
    assert "“Contacts”: it has no dates" in outcome.out
    assert "2 rows read = 2 events" in outcome.out
    assert built(source, "--sheet", "more") == ["B 2027-04-06/2027-04-07"]
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--sheet", "None").status == 2


def test_a_grid_of_dates_and_times_with_merged_slots(tmp_path) -> None:
    rows = [
        ["Boat week"],
        [None, "5 April 2027", "6 April 2027"],
        ["9:00", "Ribs\nShed", "Rope @ Loft"],
        ["10:00", None, "Sails"],
        ["11:00–11:45", "Knots", None],
        ["All day", "Open shed", None],
    ]
    expected = [
        "Ribs 2027-04-05T09:00/2027-04-05T11:00 @ Shed",
        "Rope 2027-04-06T09:00/2027-04-06T10:00 @ Loft",
        "Sails 2027-04-06T10:00/2027-04-06T11:00",
        "Knots 2027-04-05T11:00/2027-04-05T11:45",
        "Open shed 2027-04-05/2027-04-07",
    ]
    assert built(workbook(tmp_path, rows, ["B3:B4", "B6:C6"])) == expected
    turned = [
        list(column)
        for column in zip(
            *([None, *row[1:]] if n == 1 else [*row, None, None][:3] for n, row in enumerate(rows[1:5], 1)),
            strict=True,
        )
    ]
    assert sorted(built(workbook(tmp_path, turned, ["B2:C2"], name="t.xlsx"), "--as", "grid")) == sorted(
        expected[:4]
    )


def test_a_grid_cell_outside_its_dates_is_refused(tmp_path) -> None:
    text = "Time,5 April 2027,6 April 2027\n9:00,A,B,stray\nlater,C,\n10:00,D,"
    said = refused(csv_file(tmp_path, text))
    assert "stands outside the grid" in said
    assert "“later” is no time" in said


MONTH = """
April 2027,,,,,,
Mon,Tue,Wed,Thu,Fri,Sat,Sun
,,,1,2,3,4
,,,Assembly,9:00 Keel laying,,
5,6,7,8,9,10,11
"Timber
14:00–15:30 Sails",,,,,,
12,13,14,15 Launch,16,17,18
"""


def test_a_month_drawn_in_cells(tmp_path) -> None:
    assert built(csv_file(tmp_path, MONTH)) == [
        "Assembly 2027-04-01/2027-04-02",
        "Keel laying 2027-04-02T09:00/2027-04-02T10:00",
        "Timber 2027-04-05/2027-04-06",
        "Sails 2027-04-05T14:00/2027-04-05T15:30",
        "Launch 2027-04-15/2027-04-16",
    ]


def test_a_merged_band_of_a_month_is_one_event(tmp_path) -> None:
    rows = [
        ["April 2027"],
        ["Mon", "Tue", "Wed", "Thu", "Fri"],
        [5, 6, 7, 8, 9],
        ["Cruise", None, None, None, "End"],
    ]
    assert built(workbook(tmp_path, rows, ["A4:D4"])) == [
        "Cruise 2027-04-05/2027-04-09",
        "End 2027-04-09/2027-04-10",
    ]


def test_a_month_whose_numbers_do_not_fit_is_refused(tmp_path) -> None:
    assert "does not fall on the weekday" in refused(
        csv_file(tmp_path, MONTH.replace("April", "May")), "--as", "month"
    )
    assert "which month it is" in refused(
        csv_file(tmp_path, MONTH.replace("April 2027", "Plan")), "--as", "month"
    )


LEDGER_KEYS = ("events", "blank", "notes", "left_out", "rejected")


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.lists(st.lists(st.sampled_from(
        ["", " ", "2027-04-05", "05/04/2027", "31/02/2027", "Launch", "Date", "Title", "9:00", "7pm–9", "TBC", "#N/A",
         "=1", '"', "a,b", "Mon", "April 2027", "é\u2028x", "\x00", "1", "46489", "Total", "24–28 Oct"]
    ), max_size=5), max_size=8),
    st.booleans(),
)  # fmt: skip
def test_no_garbage_ends_in_a_traceback_and_every_row_is_accounted_for(tmp_path, rows, with_header) -> None:
    import csv

    source = tmp_path / "garbage.csv"
    with source.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows([["Date", "Title", "Start"], *rows] if with_header else rows)
    outcome = nomarium("build", source, "-o", tmp_path / "g.ics", "--json", "--partial")
    assert outcome.status in (0, 1)
    facts = json.loads(outcome.out)
    if "ledger" in facts:
        assert facts["ledger"]["read"] == sum(facts["ledger"][key] for key in LEDGER_KEYS)
    assert all(problem["message"] for problem in facts["problems"])


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.binary(max_size=300))
def test_no_bytes_end_in_a_traceback(tmp_path, data: bytes) -> None:
    for name in ("noise.csv", "noise.xlsx"):
        (tmp_path / name).write_bytes(data)
        assert nomarium("survey", tmp_path / name).status in (0, 1)


def test_blank_columns_left_of_a_table_are_no_part_of_it(tmp_path: Path) -> None:
    grid = "Time,Mon 7 Sept 2026,Tue 8 Sept 2026\n9:00,Knots,\n10:00,Tar,Oak"
    wanted = built(csv_file(tmp_path, grid))
    assert (
        built(csv_file(tmp_path, "\n".join(f",,{line}" for line in grid.splitlines()), name="moved.csv"))
        == wanted
    )
    listed = csv_file(tmp_path, ",Date,Title\n,2026-09-07,Regatta\n,soon,Tide", name="list.csv")
    assert "row 3, column B “Date”: “soon”" in refused(listed)
    below = csv_file(tmp_path, ",Date,Title\n,2026-09-07,Regatta\nx,2026-09-08,Tide", name="below.csv")
    assert len(built(below)) == 2


@pytest.mark.parametrize("space", ["\u00a0", "\u202f", "\u2009"])
def test_spaces_of_other_widths_are_spaces(space: str, tmp_path: Path) -> None:
    rows = [
        ["Vehicle", "Mon 7 Sep 2026", "Tue 8 Sep 2026"],
        ["Van 1", "Quill", ""],
        ["Van 2", "", "Lund at Loft 1"],
    ]
    wanted = built(csv_file(tmp_path, "\n".join(",".join(row) for row in rows)))
    spaced = [[cell.replace(" ", space) for cell in row] for row in rows]
    assert wanted[0].startswith("Van 1: Quill")
    assert built(csv_file(tmp_path, "\n".join(",".join(row) for row in spaced), name="spaced.csv")) == wanted
    assert built(workbook(tmp_path, spaced)) == wanted
