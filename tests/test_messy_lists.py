"""More lists as people keep them, each with one oddity: read as meant, or refused at the cell."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused, workbook

RIGHT = {
    "German weekdays settle the figures": ("Tag;Datum;Fach\nMo;07.09.2026;Knoten\nMi;09.09.2026;Segel", [], ["Knoten 2026-09-07/2026-09-08", "Segel 2026-09-09/2026-09-10"]),
    "French weekdays, cut short": ("Jour;Date;Activité\nlun.;07/09/2026;A\njeu.;10/09/2026;B", [], ["A 2026-09-07/2026-09-08", "B 2026-09-10/2026-09-11"]),
    "a German programme": ("Woche;Tag;Titel\n1;Montag;A\n2;Dienstag;B", ["--day-one", "2026-09-07"], ["A 2026-09-07/2026-09-08", "B 2026-09-15/2026-09-16"]),
    "words that are no weekdays in any language": ("Tag;Datum;Titel\nrot;17.09.2026;A", [], ["A 2026-09-17/2026-09-18"]),
    "an open end": (
        "Date,Time,Title\n2026-09-07,9:00 - ?,A\n2026-09-07,9:00 –,B\n2026-09-07,9:00-TBC,C", [],
        ["A 2026-09-07T09:00/2026-09-07T10:00", "B 2026-09-07T09:00/2026-09-07T10:00", "C 2026-09-07T09:00/2026-09-07T10:00"],
    ),
    "dashes for no time": (
        "Date,Start,End,Title\n2026-09-07,n/a,-,A\n2026-09-07,9:00,–,B", [], ["A 2026-09-07/2026-09-08", "B 2026-09-07T09:00/2026-09-07T10:00"],
    ),
    "a dash for no last day": ("Start date,End date,Title\n2026-09-07,-,A\n2026-09-08,2026-09-09,B", [], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-10"]),
    "ruled lines": ("Date;Title\n----------;-----\n2026-09-07;A\n==========;=====", [], ["A 2026-09-07/2026-09-08"]),
    "times that are whole moments": ("Title,Time\nA,7 Sep 2026 9am\nB,8 Sep 2026 10-11am", [], ["A 2026-09-07T09:00/2026-09-07T10:00", "B 2026-09-08T10:00/2026-09-08T11:00"]),
    "the terms of a year": ("Term,Starts,Ends\nAutumn,1 Sept 2026,18 Dec 2026", [], ["Autumn 2026-09-01/2026-12-19"]),
    "home and away": ("Date,KO,Opponent,H/A\nSat 12 Sep 2026,14:30,Tide Side,H", ["--column", "Opponent=summary"], ["Tide Side 2026-09-12T14:30/2026-09-12T15:30"]),
    "an examination and its session": ("Exam,Date,Session\nKnots 1,17/09/2026,AM", [], ["Knots 1 2026-09-17/2026-09-18"]),
    "a weekday and the school year settle the order, day first": (
        "Date,Title\nMon 7/9,A\nTue 8/9,B", ["--school-year", "2026:2027"], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09"],
    ),
    "and month first": (
        "Date,Title\nMon 9/7,A\nTue 9/8,B", ["--school-year", "2026:2027"], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09"],
    ),
    "day, month and year in columns": (
        "Month,Day,Year,Title\nSeptember,7,2026,A\n10,8th,2026,B", [], ["A 2026-09-07/2026-09-08", "B 2026-10-08/2026-10-09"],
    ),
    "day and month in columns": (
        "Day,Month,Title\n7,Sep,A\n8,1,B", ["--school-year", "2026:2027"], ["A 2026-09-07/2026-09-08", "B 2027-01-08/2027-01-09"],
    ),
    "the month written once a group": (
        "Month,Date,Title\nSept,7,A\n,8,B\nOct,1,C", ["--fill-down", "Month", "--school-year", "2026:2027"],
        ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09", "C 2026-10-01/2026-10-02"],
    ),
    "German parts of dates": (
        "Tag;Monat;Jahr;Titel\n7.;März;2027;A\n8.;Dez.;2027;B", [], ["A 2027-03-07/2027-03-08", "B 2027-12-08/2027-12-09"],
    ),
    "a month beside whole dates stays unused": ("Month,Date,Title\nSeptember,2026-09-07,A", [], ["A 2026-09-07/2026-09-08"]),
    "spaces that do not break": ("Date,Title\n\u00a07\u00a0Sept 2026\u00a0,A", [], ["A 2026-09-07/2026-09-08"]),
    "a month first and a range": (
        'Date,Title\n"Sept 7-11, 2026",A\n"Dec 28, 2026 - Jan 3, 2027",B', [], ["A 2026-09-07/2026-09-12", "B 2026-12-28/2027-01-04"],
    ),
    "a range over the new year without years": (
        "Date,Title\n2026-12-01,A\n28/12-3/1,B", [], ["A 2026-12-01/2026-12-02", "B 2026-12-28/2027-01-04"],
    ),
    "month first by a day over 12, short years": ("Date,Title\n12/25/26,A\n1/3/27,B", [], ["A 2026-12-25/2026-12-26", "B 2027-01-03/2027-01-04"]),
    "Spanish": (
        "Fecha,Hora,Evento,Lugar\n7 de septiembre de 2026,9:00 a 10:30,A,Grada\n12 de septiembre de 2026,de 14 a 15 h,B,", [],
        ["A 2026-09-07T09:00/2026-09-07T10:30 @ Grada", "B 2026-09-12T14:00/2026-09-12T15:00"],
    ),
    "Dutch": ("Datum,Tijd,Wat,Waar\nma 7 sep 2026,9.00-10.30 uur,A,Helling", [], ["A 2026-09-07T09:00/2026-09-07T10:30 @ Helling"]),
    "French": (
        "Date,Horaire,Intitulé,Lieu\nlundi 7 septembre 2026,de 9h à 10h30,A,Cale\nmar. 8 sept. 2026,14h,B,", [],
        ["A 2026-09-07T09:00/2026-09-07T10:30 @ Cale", "B 2026-09-08T14:00/2026-09-08T15:00"],
    ),
    "a title that begins like a total": (
        "Title,Date,Start\nTotal eclipse,2026-08-12,10:00\nTotal,1,", [], ["Total eclipse 2026-08-12T10:00/2026-08-12T11:00"],
    ),
    "ISO dates beside figures": (
        "Date,Title\n2026-09-07,A\n08/09/2026,B\n13/09/2026,C", [], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09", "C 2026-09-13/2026-09-14"],
    ),
    "noons and midnights in both clocks": (
        "Date,Start,End,Title\n2026-09-07,12:00 am,12:30 am,A\n2026-09-07,12 pm,12:45 pm,B\n2026-09-07,11pm,12am,C", [],
        ["A 2026-09-07T00:00/2026-09-07T00:30", "B 2026-09-07T12:00/2026-09-07T12:45", "C 2026-09-07T23:00/2026-09-08T00:00"],
    ),
    "offsets and local times in one column": (
        "Start,End,Title\n2026-09-07T09:00Z,2026-09-07T10:00Z,A\n2026-09-07T09:00+02:00,2026-09-07T10:00+02:00,B\n2026-09-07 09:00,2026-09-07 10:00,C",
        ["--timezone", "America/Halifax"],
        ["A 2026-09-07T06:00/2026-09-07T07:00", "B 2026-09-07T04:00/2026-09-07T05:00", "C 2026-09-07T09:00/2026-09-07T10:00"],
    ),
    "not all day, and no times": ("Date,Title,All day\n2026-09-07,A,No", [], ["A 2026-09-07/2026-09-08"]),
    "all day beats times": ("Date,Start,End,Title,All day event\n2026-09-07,9:00,10:00,A,TRUE", [], ["A 2026-09-07/2026-09-08"]),
    "days with times are one long event": (
        "Start Date,Start Time,End Date,End Time,Subject\n2026-09-07,9:00,2026-09-09,17:00,A", [], ["A 2026-09-07T09:00/2026-09-09T17:00"],
    ),
    "lines within quotes": ('Date,Title,Notes\n2026-09-07,A,"one\ntwo"\n2026-09-08,B,', [], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09"]),
    "a group of headings over the date and its times": (
        "Title,When,,\n,Date,From,To\nA,2026-09-07,9:00,10:00", [], ["A 2026-09-07T09:00/2026-09-07T10:00"],
    ),
    "starts and ends, each with its date and time": (
        "Title,Start,,End,\n,Date,Time,Date,Time\nA,2026-09-07,9:00,2026-09-08,10:00", [], ["A 2026-09-07T09:00/2026-09-08T10:00"],
    ),
    "the only column of times under a heading of its own": (
        "Date,Match,Bully-off\n2026-09-07,A,15:00\n2026-09-08,B,", [], ["A 2026-09-07T15:00/2026-09-07T16:00", "B 2026-09-08/2026-09-09"],
    ),
    "meetings of committees, a column a term, with their times": (
        'Committee,Autumn,Spring\nFinance,"22 Sept 2026, 5.30pm","19 Jan 2027, 5.30pm"\nBoard,"6 Oct 2026, 6pm",2 Feb 2027', [],
        ["Finance: Autumn 2026-09-22T17:30/2026-09-22T18:30", "Finance: Spring 2027-01-19T17:30/2027-01-19T18:30",
         "Board: Autumn 2026-10-06T18:00/2026-10-06T19:00", "Board: Spring 2027-02-02/2027-02-03"],
    ),
    "several days behind the name of their month": (
        'Date,Event\nDec 11 & 12 2026,A\n"Oct 5, 12, 19 and 26, 2026",B\n"June 5 & 6, 2027",C', [],
        ["A 2026-12-11/2026-12-12", "A 2026-12-12/2026-12-13", "B 2026-10-05/2026-10-06", "B 2026-10-12/2026-10-13", "B 2026-10-19/2026-10-20",
         "B 2026-10-26/2026-10-27", "C 2027-06-05/2027-06-06", "C 2027-06-06/2027-06-07"],
    ),
    "courses, and who gives them": (
        "Date,Course,Provider\n2026-09-03,First aid,Red Lamp\n2026-09-17,Safeguarding,In house\n2026-09-24,Chart work,In house", [],
        ["First aid 2026-09-03/2026-09-04", "Safeguarding 2026-09-17/2026-09-18", "Chart work 2026-09-24/2026-09-25"],
    ),
    "slots of one day, whose date stands beside the title": (
        "Vaccination,Thursday 8 October 2026,,\nSlot,Child,Class,Consent\n9.00,Ada Eze,A1,y\n9.10,Nora Doyle,A2,y\n9.15,Otto Bauer,A1,n", [],
        ["Ada Eze 2026-10-08T09:00/2026-10-08T10:00", "Nora Doyle 2026-10-08T09:10/2026-10-08T10:10", "Otto Bauer 2026-10-08T09:15/2026-10-08T10:15"],
    ),
    "bookings of rooms": (
        "Room,Booked by,From,Until,Purpose\nLoft 1,Varga,2026-10-05 08:00,2026-10-05 10:00,Knots\nShed 2,Osei,2026-10-06 22:00,2026-10-07 02:00,Kiln", [],
        ["Knots 2026-10-05T08:00/2026-10-05T10:00 @ Loft 1", "Kiln 2026-10-06T22:00/2026-10-07T02:00 @ Shed 2"],
    ),
    "a row written across the table that speaks of what is issued": (
        "Date,Event\n2026-10-05,A\nReport cards issued Friday 20 November 2026,", [], ["A 2026-10-05/2026-10-06", "Report cards issued 2026-11-20/2026-11-21"],
    ),
    "lengths of whole days without a start": (
        "Date,Event,Duration\n2026-09-07,Camp,2 days\n2026-09-14,Fair,1 day", [], ["Camp 2026-09-07/2026-09-09", "Fair 2026-09-14/2026-09-15"],
    ),
    "several weekdays in a language of which one name is English, too": (
        "Kurs,Tag,Zeit,Beginn,Ende\nKnoten,Mo,18:00-20:00,14.09.2026,21.09.2026\nSegeln,Di/Do,19.00-20.30,15.09.2026,17.09.2026", [],
        ["Knoten 2026-09-14T18:00/2026-09-14T20:00", "Knoten 2026-09-21T18:00/2026-09-21T20:00", "Segeln 2026-09-15T19:00/2026-09-15T20:30",
         "Segeln 2026-09-17T19:00/2026-09-17T20:30"],
    ),
    "titles over their times in a cell, under headings": (
        'Date,Event,Notes\n2026-09-07,"Race\n10:00-12:00\nSlip 1",a\n2026-09-08,"Talk\n7.30pm",b\n2026-09-09,Feast,c', [],
        ["Race 2026-09-07T10:00/2026-09-07T12:00 @ Slip 1", "Talk 2026-09-08T19:30/2026-09-08T20:30", "Feast 2026-09-09/2026-09-10"],
    ),
    "a time of the last change is no start": ("Date,Match,Updated at\n2026-09-07,A,15:00", [], ["A 2026-09-07/2026-09-08"]),
    "a time of event is no title of event": (
        "Name of event,Date,Time of event\nA,2026-09-07,9:00", [], ["A 2026-09-07T09:00/2026-09-07T10:00"],
    ),
    "kick-offs on a pitch": ("Date,Match,Kick-off,Pitch\n2026-09-07,A,15:00,Bay", [], ["A 2026-09-07T15:00/2026-09-07T16:00 @ Bay"]),
    "dates in a language of which no heading is known": (
        "Dyddiad,Digwyddiad\n7 Medi 2026,A\n8 Hydref 2026,B", [], ["A 2026-09-07/2026-09-08", "B 2026-10-08/2026-10-09"],
    ),
    "Portuguese weekdays of two words": (
        'Data,Título,Hora\nsegunda-feira 7 de setembro de 2026,Regata,9h00\n"terça-feira, 8 de setembro de 2026",Vela,10h', [],
        ["Regata 2026-09-07T09:00/2026-09-07T10:00", "Vela 2026-09-08T10:00/2026-09-08T11:00"],
    ),
    "Finnish with a weekday": ("Päivä,Tapahtuma\nmaanantai 7. syyskuuta 2026,Vesillelasku", [], ["Vesillelasku 2026-09-07/2026-09-08"]),
    "a week is a range of dates": ("Week,Event\n7-11 Sept 2026,Camp\n14-18 Sept 2026,Exams", [], ["Camp 2026-09-07/2026-09-12", "Exams 2026-09-14/2026-09-19"]),
    "lists of weekdays between two dates": (
        "Title,Days,Start Date,End Date,Start Time,End Time\nA,\"Mon, Wed\",2026-09-07,2026-09-14,9:00,10:00\nB,Tuesday,2026-09-08,2026-09-15,9:00,10:00", [],
        ["A 2026-09-07T09:00/2026-09-07T10:00", "A 2026-09-09T09:00/2026-09-09T10:00", "A 2026-09-14T09:00/2026-09-14T10:00",
         "B 2026-09-08T09:00/2026-09-08T10:00", "B 2026-09-15T09:00/2026-09-15T10:00"],
    ),
    "lists of weekdays under a heading of their own": (
        "Title,Turns,From,Until,Start,End\nA,Mon & Thu,2026-09-07,2026-09-14,9:00,10:00", [],
        ["A 2026-09-07T09:00/2026-09-07T10:00", "A 2026-09-10T09:00/2026-09-10T10:00", "A 2026-09-14T09:00/2026-09-14T10:00"],
    ),
    "single weekdays are checked, not repeated": ("Title,Days,Date\nA,Mon,2026-09-07\nB,Tue,2026-09-08", [], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09"]),
    "dots without years": ("Date,Title\n1.9,A\n13.9,B", ["--school-year", "2026:2027"], ["A 2026-09-01/2026-09-02", "B 2026-09-13/2026-09-14"]),
    "weeks and weekdays of a roster": (
        "Week,Day,Duty\n1,Monday,Finch\n2,Tue,Doe", ["--day-one", "2026-09-07"], ["Finch 2026-09-07/2026-09-08", "Doe 2026-09-15/2026-09-16"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", RIGHT)
def test_read_as_meant(name: str, tmp_path: Path) -> None:
    text, options, expected = RIGHT[name]
    assert built(csv_file(tmp_path, text), *options) == expected


GRIDS = {
    "times down run into the afternoon": (
        ",2026-09-07,2026-09-08\n11:30am,Keel,\n12:30,,Plank\n1:30,Ribs,\n7:00,Late,", "1:30, 7:00 in the afternoon",
        ["Keel 2026-09-07T11:30/2026-09-07T12:30", "Plank 2026-09-08T12:30/2026-09-08T13:30", "Ribs 2026-09-07T13:30/2026-09-07T14:30", "Late 2026-09-07T19:00/2026-09-07T20:00"],
    ),
    "and so do ranges": (
        ",2026-09-07,2026-09-08\n11:30-12:30,Keel,\n12:30-1:30,,Plank\n1:30-2:30,Ribs,", "12:30-1:30, 1:30-2:30 in the afternoon",
        ["Keel 2026-09-07T11:30/2026-09-07T12:30", "Plank 2026-09-08T12:30/2026-09-08T13:30", "Ribs 2026-09-07T13:30/2026-09-07T14:30"],
    ),
    "times across": (
        ",9:00,12:00,1:00\n2026-09-07,Keel,,Ribs\n2026-09-08,,Plank,", "1:00 in the afternoon",
        ["Keel 2026-09-07T09:00/2026-09-07T12:00", "Ribs 2026-09-07T13:00/2026-09-07T16:00", "Plank 2026-09-08T12:00/2026-09-08T13:00"],
    ),
    "slots over midnight stay as they are": (
        ",2026-09-07,2026-09-08\n22:00-23:00,Keel,\n23:00-0:00,,Plank", "Read as a grid",
        ["Keel 2026-09-07T22:00/2026-09-07T23:00", "Plank 2026-09-08T23:00/2026-09-09T00:00"],
    ),
    "an earlier morning stays one": (
        ",2026-09-07,2026-09-08\n9:00,Keel,\n8:00,,Plank", "Read as a grid",
        ["Keel 2026-09-07T09:00/2026-09-07T10:00", "Plank 2026-09-08T08:00/2026-09-08T09:00"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", GRIDS)
def test_slots_of_a_grid_run_forward(name: str, tmp_path: Path) -> None:
    text, told, expected = GRIDS[name]
    source = csv_file(tmp_path, text)
    assert sorted(built(source)) == sorted(expected)
    assert told in nomarium("survey", source).text


def test_typed_times_of_a_workbook_run_forward_too(tmp_path: Path) -> None:
    days = [dt.date(2026, 9, 7), dt.date(2026, 9, 8)]
    source = workbook(
        tmp_path, [[None, *days], [dt.time(12, 30), "Keel", None], [dt.time(1, 30), None, "Ribs"]]
    )
    assert built(source) == [
        "Keel 2026-09-07T12:30/2026-09-07T13:30",
        "Ribs 2026-09-08T13:30/2026-09-08T14:30",
    ]


PLANNERS = {
    "weeks down, weekdays across": (
        "Week commencing,Mon,Tue\n2026-09-07,Keel,Ribs\n2026-09-14,,Sail", [],
        ["Keel 2026-09-07/2026-09-08", "Ribs 2026-09-08/2026-09-09", "Sail 2026-09-15/2026-09-16"], "3 entries",
    ),
    "the weekday above settles the figures": ("W/C,Mon,Tue,Wed,Thu,Fri\n07/09/2026,Keel,,,,Ribs", [], ["Keel 2026-09-07/2026-09-08", "Ribs 2026-09-11/2026-09-12"], "week a row"),
    "in French": ("Semaine du;lundi;mardi;mercredi;jeudi;vendredi\n7/9/2026;Keel;;;;Ribs", [], ["Keel 2026-09-07/2026-09-08", "Ribs 2026-09-11/2026-09-12"], "week a row"),
    "a week counted from Sunday": ("W/C,Mon,Sun\n6 Sep 2026,Keel,Ribs", [], ["Ribs 2026-09-06/2026-09-07", "Keel 2026-09-07/2026-09-08"], "week a row"),
    "columns beside and headings again": (
        "Year planner,,,,\nWk,Week of,Mon,Tue,Remarks\n1,7 Sept 2026,9:00 Keel,,short\nWk,Week of,Mon,Tue,Remarks\n2,14 Sept 2026\nHoliday\n3,21 Sept 2026,,Sail", [],
        ["Keel 2026-09-07T09:00/2026-09-07T10:00", "Sail 2026-09-22/2026-09-23"], "5 entries read = 2 events + 3 notes",
    ),
    "without years": ("W/C,Mon,Tue\n7 Sept,Keel,\n4 Jan,,Sail", ["--school-year", "2026:2027"], ["Keel 2026-09-07/2026-09-08", "Sail 2027-01-05/2027-01-06"], "week a row"),
}  # fmt: skip


@pytest.mark.parametrize("name", PLANNERS)
def test_planners_date_each_cell(name: str, tmp_path: Path) -> None:
    text, options, expected, told = PLANNERS[name]
    source = csv_file(tmp_path, text)
    assert sorted(built(source, *options)) == sorted(expected)
    assert told in nomarium("build", source, "-o", tmp_path / "again.ics", *options).text


def test_two_lines_in_a_planner_are_two_events(tmp_path: Path) -> None:
    rows = [["Week", "Mon", "Tue"], [dt.date(2026, 9, 7), "Keel\n14:00 Ribs", None]]
    assert built(workbook(tmp_path, rows)) == [
        "Keel 2026-09-07/2026-09-08",
        "Ribs 2026-09-07T14:00/2026-09-07T15:00",
    ]


REFUSED = {
    "a planner's week without a date": ("W/C,Mon,Tue\n2026-09-07,Keel,\n,Ribs,", ["row 3, column A", "no date"]),
    "a planner's week on another weekday": ("W/C,Mon,Tue\n2026-09-07,Keel,\n2026-09-16,Ribs,", ["row 3, column A", "a Wednesday", "Monday"]),
    "a planner's week that is none": ("W/C,Mon,Tue\n2026-09-07,Keel,\n2026-09-14,,Sail\nsoon,Ribs,", ["row 4, column A", "“soon” is not a date"]),
    "a time zone after a time": ("Date,Time,Title\n2026-09-07,9:00 AST,A", ["row 2, column B", "“AST” after the time", "--timezone"]),
    "a range that a spreadsheet made a date": ("Date,Time,Title\n2026-09-07,2026-10-09 9:00,A", ["row 2, column B", "turns 9-10 into a date"]),
    "a German weekday that is not the date's": ("Tag;Datum;Fach\nMo;07.09.2026;Knoten\nMi;08.09.2026;Segel", ["row 3, column B", "a Tuesday, not a Wednesday"]),
    "a week written once": ("Week,Day,Title\n1,Mon,A\n2,Mon,B\n,Tue,C", ["row 4, column A “Week”", '--fill-down "Week"'], "--day-one", "2026-09-07"),
    "times between two dates that could be each day's": (
        "Title,Start date,End date,Start,End\nA,2026-09-07,2026-09-10,9:00,10:00",
        ["row 2, column C “End date”", "--spans daily or --spans whole"],
    ),
    "weekdays as one word that could be two": ("Title,Days,Start Date,End Date,Start Time,End Time\nA,TH,2026-09-07,2026-09-16,9:00,10:00", ["row 2, column B “Days”: “TH”", '--weekdays "TH=Thu"']),
    "weekdays without an end": ("Title,Day,Date,Start\nA,Mon/Wed,2026-09-07,9:00", ["row 2, column B", "has no end", "--until"]),
    "a month that nothing names": ("Mon,Tue,Wed,Thu,Fri,Sat,Sun\n,1,2,3,4,5,6\n,Race,,,,,\n7,8,9,10,11,12,13", ["nothing says which month it is"]),
    "a month that is none": ("Day,Month,Year,Title\n7,9,2026,A\n8,13,2026,B", ["row 3", "of month “13”", "is not a date"]),
    "a day that its month lacks": ("Day,Month,Year,Title\n7,9,2026,A\n31,9,2026,B", ["row 3", "31 September 2026", "30 days"]),
    "parts without a year": ("Day,Month,Title\n7,Sep,A", ["7 September has no year", "--school-year"]),
    "a weekday of two words that is not the date's": (
        'Data,Título\n"terça-feira, 7 de setembro de 2026",Regata\n8 de setembro de 2026,Vela', ["row 2, column A", "a Monday, not a Tuesday"],
    ),
    "a month alone": ("Date,Title\nSeptember 2026,A", ["row 2, column A", "no day"]),
    "a week that its year lacks": ("Date,Title\n2026-W54,A", ["row 2, column A", "no week 2026-W54"]),
    "names of months that two languages share": ("Datum,Naslov\n15 listopad 2027,Regata", ["Polish or Croatian", "--language"]),
    "an end that nobody knows": ("Date,Time,Title\n2026-09-07,19:00 till they drop,A", ["row 2, column B", "“they drop” is not a time"]),
    "two clocks in a cell": ("Date,Time,Title\n2026-09-07,7:30pm & 8pm,A", ["row 2, column B", "is not a time"]),
    "a start that is on another date": ("Date,Start,Title\n2026-09-08,2026-09-07 09:00,A", ["row 2, column B", "Make them agree"]),
    "a number for a length": ("Date,Start,Duration,Title\n2026-09-07,9:00,90,A", ["row 2, column C", "hours or minutes"]),
    "an end in the morning": ("Date,Start,End,Title\n2026-09-07,20:00,19:00,A", ["row 2, column C", "before it starts"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_refused_at_the_cell(name: str, tmp_path: Path) -> None:
    text, says, *options = REFUSED[name]
    said = refused(csv_file(tmp_path, text), *options)
    for part in says:
        assert part in said


def test_parts_of_dates_in_a_workbook_with_merged_months(tmp_path: Path) -> None:
    rows = [["Month", "Weekday", "Date", "Event"], ["September", "Mon", 7, "A"], [None, "Tue", 8, "B"], ["October", "Thu", 1, "C"]]  # fmt: skip
    source = workbook(tmp_path, rows, merged=["A2:A3"])
    found = built(source, "--school-year", "2026:2027")
    assert found == ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09", "C 2026-10-01/2026-10-02"]


def test_what_was_put_together_is_told_and_kept_in_a_recipe(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Day,Month,Year,Title\n7,9,2026,A\n8,10,2026,B")
    recipe = tmp_path / "parts.toml"
    outcome = nomarium("survey", source, "--save", recipe)
    assert "put together" in outcome.text and outcome.status == 0
    assert built(source, "--recipe", recipe) == ["A 2026-09-07/2026-09-08", "B 2026-10-08/2026-10-09"]


def test_rejected_rows_in_parts_are_mended_and_built_again(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Day,Month,Year,Title\n7,9,2026,A\n31,9,2026,B")
    rejects = tmp_path / "rejects.csv"
    outcome = nomarium("build", source, "-o", tmp_path / "x.ics", "--rejects", rejects, "--partial")
    assert outcome.status == 1 and "31 September 2026" in rejects.read_text("utf-8")
    rejects.write_text(rejects.read_text("utf-8").replace("31 September", "30 September"), "utf-8")
    assert built(rejects) == ["B 2026-09-30/2026-10-01"]


@pytest.mark.parametrize(
    ("options", "count"),
    [
        ([], 3),
        (["--column", "Weekday=repeat"], 3),
        (["--column", "Weekday=", "--spans", "whole"], 1),
        (["--column", "Weekday=", "--spans", "daily"], 15),
    ],
)
def test_a_weekday_between_two_dates_and_times_are_an_event_a_week(
    options: list[str], count: int, tmp_path: Path
) -> None:
    source = csv_file(
        tmp_path, "Title,Weekday,Start date,End date,Start,End\nA,Monday,2026-09-07,2026-09-21,9:00,10:00"
    )
    assert len(built(source, *options)) == count


def test_a_column_without_a_heading_is_told_of_and_can_be_kept(tmp_path: Path) -> None:
    source = workbook(tmp_path, [["Event", None, "Date"], ["A", "tide permitting", "2026-09-07"]])
    target = tmp_path / "out.ics"
    assert "Not used: the column B." in nomarium("build", source, "-o", target).text
    kept = nomarium("build", source, "-o", target, "--keep-extra")
    assert kept.status == 0 and "Column B: tide permitting" in target.read_text("utf-8")


@pytest.mark.parametrize("asked", ["Day=", "Month=categories"])
def test_a_field_that_was_asked_for_leaves_the_parts_apart(asked: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Day,Month,Title,When\n7,Sep,A,2027-09-08")
    assert built(source, "--column", asked) == ["A 2027-09-08/2027-09-09"]


@pytest.mark.parametrize(
    ("text", "is_told"),
    [
        ("Date,Event\n2026-09-07,Assembly at 9:00\n2026-09-08,Tea\n2026-09-09,Oars", True),
        ("Date,Event\n2026-09-07,Tea\n2026-09-08,Launch 2pm\n2026-09-09,Oars", True),
        ("Date,Event\n2026-09-07,3 boats\n2026-09-08,10K race", False),
        ("Date,Start,Event\n2026-09-07,8:30,9:00 - Assembly", False),
        ("Date,Event\n2026-09-07 8:30,9:00 - Assembly", False),
    ],
)
def test_times_in_titles_are_told_where_nothing_else_says_any(
    text: str, is_told: bool, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, text)
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert outcome.status == 0 and ("Titles that hold a time" in outcome.text) is is_told


@pytest.mark.parametrize(
    ("cell", "expected"),
    [
        ("Fri 5 Mar 2027 2pm & 7pm, Sat 6 Mar 2027 7pm", ["03-05T14", "03-05T19", "03-06T19"]),
        ("Fri 5 March 2027, 10:00 and 14:00", ["03-05T10", "03-05T14"]),
        ("5 March 2027 10am; 6 March 2027 2pm–4pm\n& 6pm", ["03-05T10", "03-06T14", "03-06T18"]),
        ("5 and 6 March 2027, 7pm", ["03-05T19", "03-06T19"]),
        ("Fri 5 & Sat 6 March 2027 7pm, Sun 7 March 2pm", ["03-05T19", "03-06T19", "03-07T14"]),
        ("4, 5 and 6 March at 7pm, 7 March 2027 at 2pm", ["03-04T19", "03-05T19", "03-06T19", "03-07T14"]),
        (
            "Thu 4 March 2027, Fri 5 March 7pm; Sat 6 March 2pm & 7pm",
            ["03-04T19", "03-05T19", "03-06T14", "03-06T19"],
        ),
    ],
)
def test_dates_with_times_of_their_own_in_a_cell_are_each_an_event_in_their_zone(
    cell: str, expected: list[str], tmp_path: Path
) -> None:
    rows = [["Film", "Date"], ["Keel", cell], ["Tar", "20 March 2027 8pm"]]
    source = workbook(tmp_path, rows)
    found = built(source, "--timezone", "America/Halifax")
    assert [line.split("/")[0] for line in found if line.startswith("Keel")] == [
        f"Keel 2027-{one}:00" for one in expected
    ]
    assert {str(event["DTSTART"].params.get("TZID")) for event in events_in(source.with_suffix(".ics"))} == {
        "America/Halifax"
    }


@pytest.mark.parametrize(
    ("cell", "told"),
    [
        ("5 June 2027 2.30 & 7.30", "“2.30 & 7.30” after the date is not a time."),
        ("Fri 5 & 2pm, Sat 6 March 2027 7pm", "column B “Date”: “Fri 5 & 2pm, Sat 6 March 2027 7pm”"),
        ("5 June 2027 2pm, 6 June 2027", "“2pm, 6 June 2027” after the date is not a time."),
        ("Fri 5 June 2027 2pm & 7pm, Sat 6 June 2027 7pm", "2027-06-05 is a Saturday, not a Friday."),
    ],
)
def test_dates_of_which_some_have_no_clear_time_are_refused(cell: str, told: str, tmp_path: Path) -> None:
    rows = [["Film", "Date"], ["Keel", cell], ["Tar", "20 March 2027 8pm"]]
    assert told in refused(workbook(tmp_path, rows), "--timezone", "America/Halifax")


def test_birthdays_without_a_year_need_only_a_window(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Name,Birthday\nQuill,3 March\nOsei,29 February\nMarlow,30 Nov")
    assert "--from 2026-09-01 --until 2027-08-31" in refused(source)
    for window, expected in (
        (("2027-01-01", "2027-12-31"), ["2027-03-03", "2027-02-28", "2027-11-30"]),
        (("2026-09-01", "2027-08-31"), ["2027-03-03", "2027-02-28", "2026-11-30"]),
        (("1999-09-01", "2000-08-31"), ["2000-03-03", "2000-02-29", "1999-11-30"]),
    ):
        found = built(source, "--from", window[0], "--until", window[1])
        assert [line.split()[-1].split("/")[0] for line in found] == expected


@pytest.mark.parametrize("days", ["Mon & Wed", "Mon/Wed", "Mon, Wed"])
def test_several_weekdays_from_a_first_to_a_last_day_are_held_every_week(days: str, tmp_path: Path) -> None:
    rows = [
        ["Hirer", "Day", "From", "To", "Start date", "End date", "Not on"],
        ["Choir", "Tue", "19:00", "21:00", "12/01/2027", "26/01/2027", ""],
        ["Judo", days, "17:30", "18:45", "11/01/2027", "25/01/2027", "18/01"],
        ["Fair", "Sat-Sun", "10:00", "16:00", "16/01/2027", "17/01/2027", ""],
    ]
    found = built(workbook(tmp_path, rows))
    assert [line.split("/")[0][:-6] for line in found] == [
        "Choir 2027-01-12", "Choir 2027-01-19", "Choir 2027-01-26", "Judo 2027-01-11", "Judo 2027-01-13", "Judo 2027-01-20",
        "Judo 2027-01-25", "Fair 2027-01-16", "Fair 2027-01-17",
    ]  # fmt: skip


def test_a_school_year_over_a_table_holds_days_beyond_its_dated_ones(tmp_path: Path) -> None:
    rows = "Term dates 2026/27,,\nAutumn,1 September 2026,18 December 2026\nHalf term,26 October,30 October\nFete,26 June,"
    assert built(csv_file(tmp_path, rows))[-1] == "Fete 2027-06-26/2027-06-27"


def test_slots_without_an_end_that_would_overlap_are_told(tmp_path: Path) -> None:
    slots = ["3:00,Heron", "3:15,", "3:30,Tern", "3:45,Rest", "4:00,Gull"]
    source = csv_file(tmp_path, "\n".join(['"Sign-up: Ms Quill, Wednesday 10 March 2027"', *slots]))
    text = nomarium("build", source, "-o", tmp_path / "o.ics").text
    assert "Rows start 15 minutes after each other and say no end: each lasts 60 minutes" in text
    assert "--default-length 15m" in text
    found = built(source, "--default-length", "15m")
    assert found[0] == "Heron 2027-03-10T15:00/2027-03-10T15:15"
    rows = ["Date,Time,Title", *(f"{n}/3/2027,3:15pm,Trial" for n in range(13, 20))]
    assert (
        "after each other"
        not in nomarium(
            "build", csv_file(tmp_path, "\n".join(rows), "days.csv"), "-o", tmp_path / "d.ics"
        ).text
    )


@pytest.mark.parametrize(("every", "count"), [("1", 8), ("2", 6), ("two", 0)])
def test_a_column_that_counts_weeks_between_dates_is_never_passed_over(
    every: str, count: int, tmp_path: Path
) -> None:
    rows = [["Activity", "Date", "Time", "Frequency", "Interval", "Until"]]
    rows += [["Swim", "7 Sept 2026", "2pm", "Weekly", "1", "28 Sept 2026"], ["Row", "8 Sept 2026", "2pm", "Weekly", every, "29 Sept 2026"]]  # fmt: skip
    source = workbook(tmp_path, rows)
    if count:
        assert len(built(source)) == count
    else:
        assert "The column “Interval” may say when" in refused(source)


@pytest.mark.parametrize(
    ("rows", "expected"),
    [
        ([["Class", "Mon 7 Sept 2026", "Tue 8 Sept 2026"], ["7A", "Photos", "Trip"], ["8A", "", "Swim"]],
         ["7A: Photos 2026-09-07/2026-09-08", "7A: Trip 2026-09-08/2026-09-09", "8A: Swim 2026-09-08/2026-09-09"]),
        ([["Teacher", "Mon 7 Sept 2026", "Tue 8 Sept 2026"], ["Quill", "7A", "9P"], ["Osei", "8A", "7A"]],
         ["Osei: 7A 2026-09-08/2026-09-09", "Osei: 8A 2026-09-07/2026-09-08", "Quill: 7A 2026-09-07/2026-09-08", "Quill: 9P 2026-09-08/2026-09-09"]),
        ([["Time", "Mon 7 Sept 2026", "Tue 8 Sept 2026"], ["7A", "Photos", "Trip"], ["8A", "", "Swim"]],
         ["Photos 2026-09-07T07:00/2026-09-07T08:00", "Swim 2026-09-08T08:00/2026-09-08T09:00", "Trip 2026-09-08T07:00/2026-09-08T08:00"]),
        ([["", "Mon 7 Sept 2026", "Tue 8 Sept 2026"], ["11a", "Photos", "Trip"], ["12p", "", "Swim"], ["1p", "Knots", ""]],
         ["Knots 2026-09-07T13:00/2026-09-07T14:00", "Photos 2026-09-07T11:00/2026-09-07T12:00", "Swim 2026-09-08T12:00/2026-09-08T13:00", "Trip 2026-09-08T11:00/2026-09-08T12:00"]),
        ([["Date", "Time", "Event"], ["7 Sept 2026", "7a", "Launch"]], ["Launch 2026-09-07T07:00/2026-09-07T08:00"]),
        ([["Name", "Mon 7 Sept 2026", "Tue 8 Sept 2026"], ["Quill", "7a-3p", "OFF"], ["Osei", "OFF", "3p-11p"]],
         ["Osei 2026-09-08T15:00/2026-09-08T23:00", "Quill 2026-09-07T07:00/2026-09-07T15:00"]),
    ],
    ids=["classes down", "classes in cells", "hours by heading", "hours that run on", "a time column", "hours to hours"],
)  # fmt: skip
def test_a_number_with_a_or_p_is_a_class_unless_something_says_hours(
    rows: list[list[str]], expected: list[str], tmp_path: Path
) -> None:
    assert sorted(built(workbook(tmp_path, rows))) == expected


def test_a_column_of_numbers_with_a_or_p_that_nothing_heads_is_asked_about(tmp_path: Path) -> None:
    rows = [["7 Sept 2026", "7A", "Photos"], ["8 Sept 2026", "8A", "Trip"], ["9 Sept 2026", "9A", "Talk"]]
    assert '--column "B=time"' in refused(workbook(tmp_path, rows))


HEADED = {
    "ages": (["Ages", "5-7", "8-10", "11-13"], ["11-13: Knots 2026-11-03/2026-11-04", "5-7: Swim 2026-11-02/2026-11-03", "8-10: Sail 2026-11-02/2026-11-03"]),
    "rooms": (["Room", "4.10", "4.20", "5.15"], ["Knots 2026-11-03/2026-11-04 @ 5.15", "Sail 2026-11-02/2026-11-03 @ 4.20", "Swim 2026-11-02/2026-11-03 @ 4.10"]),
    "classes": (["Class", "7-1", "7-2", "8-1"], ["7-1: Swim 2026-11-02/2026-11-03", "7-2: Sail 2026-11-02/2026-11-03", "8-1: Knots 2026-11-03/2026-11-04"]),
    "hours": (["", "9-10", "10-11", "11-12"], ["Knots 2026-11-03T11:00/2026-11-03T12:00", "Sail 2026-11-02T10:00/2026-11-02T11:00", "Swim 2026-11-02T09:00/2026-11-02T10:00"]),
    "clocks": (["Class", "9:00", "10:00", "11:00"], ["Knots 2026-11-03T11:00/2026-11-03T12:00", "Sail 2026-11-02T10:00/2026-11-02T11:00", "Swim 2026-11-02T09:00/2026-11-02T10:00"]),
    "classes with hours": (["Class", "Joinery 9-10", "Lofting 10-11", "Tar 11-12"],
                           ["Joinery: Swim 2026-11-02T09:00/2026-11-02T10:00", "Lofting: Sail 2026-11-02T10:00/2026-11-02T11:00", "Tar: Knots 2026-11-03T11:00/2026-11-03T12:00"]),
}  # fmt: skip


@pytest.mark.parametrize("name", HEADED)
def test_figures_down_a_drawing_are_hours_only_where_nothing_else_heads_them(
    name: str, tmp_path: Path
) -> None:
    (head, *labels), expected = HEADED[name]
    rows = [[head, "Mon 2 Nov 2026", "Tue 3 Nov 2026"], [labels[0], "Swim", ""], [labels[1], "Sail", ""], [labels[2], "", "Knots"]]  # fmt: skip
    assert sorted(built(csv_file(tmp_path, "\n".join(",".join(row) for row in rows)))) == expected


@pytest.mark.parametrize(
    ("heading", "cells", "expected"),
    [
        ("Price", ["12.30", "14.15", "9.45"], "2026-11-02/2026-11-03"),
        ("Ref", ["12.30", "14.15", "9.45"], "2026-11-02/2026-11-03"),
        ("Hire times", ["12.30", "14.15", "9.45"], "2026-11-02T12:30/2026-11-02T13:30"),
        ("Bus", ["12.30", "14.15", "9.45"], "2026-11-02T12:30/2026-11-02T13:30"),
        ("Price", ["12:30", "14:15", "9:45"], "2026-11-02T12:30/2026-11-02T13:30"),
    ],
)
def test_figures_with_a_dot_are_times_unless_their_heading_is_about_something_else(
    heading: str, cells: list[str], expected: str, tmp_path: Path
) -> None:
    rows = [["Date", "Event", heading], ["2 Nov 2026", "Swim", cells[0]], ["3 Nov 2026", "Row", cells[1]], ["4 Nov 2026", "Sail", cells[2]]]  # fmt: skip
    assert built(workbook(tmp_path, rows))[0] == f"Swim {expected}"


@pytest.mark.parametrize("cell", ["Room 9.15", "Psalm 9.15", "Ex. 4.30", "10-12 yrs", "3-5 helpers"])
def test_figures_in_a_cell_that_number_or_count_are_no_hours(cell: str, tmp_path: Path) -> None:
    rows = [["", "Mon 2 Nov 2026", "Tue 3 Nov 2026"], ["Quill", cell, "Swim"], ["Osei", "Row", "Swim"]]
    assert f"Quill: {cell} 2026-11-02/2026-11-03" in built(workbook(tmp_path, rows))


def test_a_title_that_begins_with_a_numbered_group_has_no_hours(tmp_path: Path) -> None:
    (tmp_path / "trips.txt").write_text(
        "Thu 5 Nov 2026: Group 10-12 trip\nFri 6 Nov 2026: Youth group 10-12\nSat 7 Nov 2026: Exercise 4.30",
        "utf-8",
    )
    assert built(tmp_path / "trips.txt") == [
        "Group 10-12 trip 2026-11-05/2026-11-06",
        "Youth group 2026-11-06T10:00/2026-11-06T12:00",
        "Exercise 4.30 2026-11-07/2026-11-08",
    ]


def test_counts_below_headings_are_no_hours(tmp_path: Path) -> None:
    rows = [["Date", "Boys", "Girls"], ["2 Nov 2026", "12", "15"], ["3 Nov 2026", "11", "9"]]
    assert "says what each event is called" in refused(csv_file(tmp_path, "\n".join(map(",".join, rows))))
    rows = [["Date", "Matins", "Evensong"], ["2 Nov 2026", "8", "5.30"], ["3 Nov 2026", "9", "6"]]
    assert built(csv_file(tmp_path, "\n".join(map(",".join, rows))))[:2] == [
        "Matins 2026-11-02T08:00/2026-11-02T09:00",
        "Evensong 2026-11-02T17:30/2026-11-02T18:30",
    ]


@pytest.mark.parametrize("times", [("9:10", "10:10", "11:10"), ("9.10", "10.10", "11.10"), (9.1, 10.1, 11.1)])
@pytest.mark.parametrize("head", ["Time", ""])
def test_times_with_dots_down_a_drawing_are_no_dates_and_numbers_of_a_workbook_are_times(
    head: str, times: tuple[str | float, ...], tmp_path: Path
) -> None:
    titles = [["Swim", "Row"], ["Sail", "Tar"], ["Rope", "Knot"]]
    body = [[time, *row] for time, row in zip(times, titles, strict=True)]
    day = [["Programme 7 Sept 2026"], [head, "Hall", "Loft"], *body]
    assert built(workbook(tmp_path, day))[:2] == [
        "Swim 2026-09-07T09:10/2026-09-07T10:10 @ Hall",
        "Row 2026-09-07T09:10/2026-09-07T10:10 @ Loft",
    ]
    grid = [[head, "Mon 7 Sept 2026", "Tue 8 Sept 2026"], *body]
    assert sorted(built(workbook(tmp_path, grid)))[-2:] == [
        "Swim 2026-09-07T09:10/2026-09-07T10:10",
        "Tar 2026-09-08T10:10/2026-09-08T11:10",
    ]


def test_times_with_dots_across_dates_or_beside_weekdays_are_no_dates(tmp_path: Path) -> None:
    across = "{head},9.10,10.10,11.10\n7 Sept 2026,Swim,Row,\n8 Sept 2026,Sail,,Tar"
    options = ("--school-year", "2026:2027", "--date-order", "dmy", "--timezone", "America/Halifax")
    refused(csv_file(tmp_path, across.format(head="Name")), *options)
    found = built(csv_file(tmp_path, across.format(head="Date")), *options)
    assert "Swim 2026-09-07T09:10/2026-09-07T10:10" in found and len(found) == 4
    week = csv_file(tmp_path, "Time,Mon,Tue\n9.10,Swim,Row\n10.10,Sail,\n11.10,,Tar")
    found = built(week, "--from", "2026-09-07", "--until", "2026-09-11")
    assert "Row 2026-09-08T09:10/2026-09-08T10:10" in found and len(found) == 4


def test_nights_are_not_taken_for_as_many_days(tmp_path: Path) -> None:
    rows = [["Event", "Date", "Nights"], ["Camp", "7 Sept 2026", "4"]]
    assert "“4” has no unit" in refused(workbook(tmp_path, rows))
    rows[0][2] = "Days"
    assert built(csv_file(tmp_path, "\n".join(map(",".join, rows)))) == ["Camp 2026-09-07/2026-09-11"]


PLACES_ACROSS = {
    "dates and times down": "Date,Time,Hall,Loft\n7 Sept 2026,9:10,Swim,Row\n8 Sept 2026,9:10,Sail,Tar",
    "a date over each part": "Monday 7 September 2026\nTime,Hall,Loft\n9:10-10:10,Swim,Row\n\nTuesday 8 September 2026\nTime,Hall,Loft\n9:10-10:10,Sail,Tar",
    "with dots": "Day 1 - Monday 7 September 2026\nTime,Hall,Loft\n9.10,Swim,Row\n10.10,,Knots\nDay 2 - Tuesday 8 September 2026\nTime,Hall,Loft\n9.10,Sail,Tar\n10.10,Rope,",
    "dates at the head": "Mon 7 Sept 2026,Hall,Loft\n9.10,Swim,Row\n10.10,,Knots\nTue 8 Sept 2026,Hall,Loft\n9.10,Sail,Tar\n10.10,Rope,",
}  # fmt: skip


@pytest.mark.parametrize("name", PLACES_ACROSS)
def test_two_places_across_are_where_things_happen_and_no_titles(name: str, tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, PLACES_ACROSS[name]), "--timezone", "America/Halifax")
    expected = [
        "Row 2026-09-07T09:10/2026-09-07T10:10 @ Loft",
        "Sail 2026-09-08T09:10/2026-09-08T10:10 @ Hall",
        "Swim 2026-09-07T09:10/2026-09-07T10:10 @ Hall",
        "Tar 2026-09-08T09:10/2026-09-08T10:10 @ Loft",
    ]
    assert sorted(line for line in found if "T09:10/" in line) == expected


def test_times_with_dots_beside_places_are_no_dates_whatever_the_options(tmp_path: Path) -> None:
    text = "Programme 7 September 2026\nTime,Hall,Loft\n9.10,Swim,Row\n10.10,Sail,Tar"
    options = ("--school-year", "2026:2027", "--date-order", "dmy")
    assert "Tar 2026-09-07T10:10/2026-09-07T11:10 @ Loft" in built(
        csv_file(tmp_path, text), *options, "--timezone", "America/Halifax"
    )


@pytest.mark.parametrize("heads", ["Staff,Students", "Event,Event 2", "Girls,Boys"])
def test_of_two_columns_that_say_what_happens_none_is_passed_over(heads: str, tmp_path: Path) -> None:
    text = f"Date,{heads}\n7 Sept 2026,Swim,Row\n8 Sept 2026,Sail,Tar"
    assert "--column" in refused(csv_file(tmp_path, text))


def test_who_is_there_beside_a_title_is_no_second_title(tmp_path: Path) -> None:
    text = "Date,Event,Staff,Students\n7 Sept 2026,Swim,Quill,7A\n8 Sept 2026,Row,Osei,8A"
    assert built(csv_file(tmp_path, text)) == ["Swim 2026-09-07/2026-09-08", "Row 2026-09-08/2026-09-09"]
