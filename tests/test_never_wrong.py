"""Tables that were once read wrongly without a word: now right and told, or refused with what settles it."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path

import openpyxl
import pytest
import xlsxwriter

from helpers import built, csv_file, events_in, nomarium, plain, refused, workbook

RIGHT = {
    "several days in a cell": (
        'Date,Title\n3/4/5 June 2027,A\nMon 7th & Tue 8th June 2027,B\n"7, 9 and 11 Sept 2026",C', [],
        ["A 2027-06-03/2027-06-04", "A 2027-06-04/2027-06-05", "A 2027-06-05/2027-06-06", "B 2027-06-07/2027-06-08",
         "B 2027-06-08/2027-06-09", "C 2026-09-07/2026-09-08", "C 2026-09-09/2026-09-10", "C 2026-09-11/2026-09-12"],
        ["Several days in one cell are an event each"],
    ),
    "days listed under a heading that is no known one": (
        'Officer,Dates of duty\nFinch,"4 Apr, 2 May 2027"\nOak,"11 Apr & 9 May 2027"', [],
        ["Finch 2027-04-04/2027-04-05", "Finch 2027-05-02/2027-05-03", "Oak 2027-04-11/2027-04-12", "Oak 2027-05-09/2027-05-10"],
        ["“Dates of duty”: Read as the date"],
    ),
    "a line below a grid": (
        ",Mon 5 Oct 2026,Tue 6 Oct 2026\n9:00,Knots,Sails\n10:00,Tar,\nPlease bring oars,,\nRegatta Saturday 10 October 2026 10am,,", [],
        ["Knots 2026-10-05T09:00/2026-10-05T10:00", "Sails 2026-10-06T09:00/2026-10-06T10:00", "Tar 2026-10-05T10:00/2026-10-05T11:00",
         "Regatta 2026-10-10T10:00/2026-10-10T11:00"],
        ["5 entries read = 4 events + 1 note"],
    ),
    "a date written once for all its rooms": (
        "Date,Room,8:30,9:30\n5 Oct 2026,Loft 1,Knots,\n,Loft 2,,Tar\n6 Oct 2026,Loft 1,Sails,closed", [],
        ["Knots 2026-10-05T08:30/2026-10-05T09:30 @ Loft 1", "Tar 2026-10-05T09:30/2026-10-05T10:30 @ Loft 2", "Sails 2026-10-06T08:30/2026-10-06T09:30 @ Loft 1"],
        [],
    ),
    "cancelled where the place would stand": (
        "Date,Event,Venue\n3 Oct 2026,Fair,Slip 1\n10 Oct 2026,Regatta,Cancelled", [],
        ["Fair 2026-10-03/2026-10-04 @ Slip 1", "Regatta 2026-10-10/2026-10-11 @ Cancelled"], ["A row that says it is cancelled is written as cancelled"],
    ),
    "remarks after a date": (
        "Date,Title\n7 Sep 2026 (revised),A\n8 Sep 2026*,B", [], ["A 2026-09-07/2026-09-08", "B 2026-09-08/2026-09-09"],
        ["after a date are a remark"],
    ),
    "the school year above": (
        "School calendar 2026-27,\nDate,Event\n7 Sept,Start\n5 Jan,Term", [],
        ["Start 2026-09-07/2026-09-08", "Term 2027-01-05/2027-01-06"], ["by row 1: “School calendar 2026-27”"],
    ),
    "a year above a list that runs on into the next": (
        "Autumn 2026,\nDate,Event\n7 Sept,Start\n12 Oct,Fair\n5 Jan,Term", [],
        ["Start 2026-09-07/2026-09-08", "Fair 2026-10-12/2026-10-13", "Term 2027-01-05/2027-01-06"], ["between 2026-09-01"],
    ),
    "four-figure years are no two-figure years": (
        "Title,Date\nA,26/06/2021\nB,05/06/2021\nC,05/06/2030", [],
        ["A 2021-06-26/2021-06-27", "B 2021-06-05/2021-06-06", "C 2030-06-05/2030-06-06"], ["day first"],
    ),
    "a heading of words over dates": (
        "Assignment,Set,Due\nEssay,07/09/2026,21/09/2026\nModel,14/09/2026,12/10/2026", [],
        ["Essay 2026-09-21/2026-09-22", "Essay: Set 2026-09-07/2026-09-08", "Model 2026-10-12/2026-10-13", "Model: Set 2026-09-14/2026-09-15"],
        ["“Set”"],
    ),
    "times of coming and going": (
        "Name of school,Date of visit,Arrival,Departure\nA,Tue 13 Oct 2026,9.45,2.15\nB,Wed 14 Oct 2026,10,1.30", [],
        ["A 2026-10-13T09:45/2026-10-13T14:15", "B 2026-10-14T10:00/2026-10-14T13:30"], [],
    ),
    "races on courses": (
        "Race,Date,Course,Duty boat\nSpring 1,11 Apr 2027,A,Finch\nEaster,29 Mar 2027,B,Tern", [],
        ["Spring 1 2027-04-11/2027-04-12", "Easter 2027-03-29/2027-03-30"], [],
    ),
    "columns of dates settle the order of each other": (
        "Task,Planned start,Actual finish\nKeel,7/9/2026,18/9/2026\nFrames,21/9/2026,9/10/2026", [],
        ["Keel: Planned start 2026-09-07/2026-09-08", "Keel: Actual finish 2026-09-18/2026-09-19",
         "Frames: Planned start 2026-09-21/2026-09-22", "Frames: Actual finish 2026-10-09/2026-10-10"],
        ["day first: row 2 is “18/9/2026”"],
    ),
    "a number of weeks, with its word or without": (
        "Course,Start date,Weeks,Day,Time\nKnots,8 Sept 2026,2,Tue,18.30-20.30\nSails,10 Sept 2026,2 weeks,Thurs,7-9pm", [],
        [*(f"Knots 2026-09-{day:02}T18:30/2026-09-{day:02}T20:30" for day in (8, 15)),
         *(f"Sails 2026-09-{day}T19:00/2026-09-{day}T21:00" for day in (10, 17))], ["every week on Tuesday, 2 times"],
    ),
    "dates on which what is held between two days is not, and is also": (
        "Title,Day,Date,Time,Not running,Also on\nKnots,Wed,9 Sept - 30 Sept 2026,15.30-16.30,16 Sept & 23 Sept,3 Oct 2026", [],
        [f"Knots 2026-{day}T15:30/2026-{day}T16:30" for day in ("09-09", "09-30", "10-03")], ["an event every week"],
    ),
    "figures and letters of a weekly list that are no weeks": (
        "Class,Day,Time,Year,Set\nRigging,Mon,9-10,1,A\nLofting,Mon,9-10,2,B", ["--from", "2026-09-07", "--until", "2026-09-11"],
        ["Rigging 2026-09-07T09:00/2026-09-07T10:00", "Lofting 2026-09-07T09:00/2026-09-07T10:00"], [],
    ),
    "columns of dates that say until when, and move nothing": (
        "Offer,New moon,Valid until,Not before\nRow,7 Sept 2026,9 Sept 2026,5 Sept 2026", [],
        ["Row: New moon 2026-09-07/2026-09-08", "Row: Valid until 2026-09-09/2026-09-10", "Row: Not before 2026-09-05/2026-09-06"], [],
    ),
    "sessions that make up the title": (
        "Date,Session 1,Session 2\n7 Sept 2026,Ann,Bob", ["--as", "events", "--title", "{Session 1} and {Session 2}"],
        ["Ann and Bob 2026-09-07/2026-09-08"], [],
    ),
    "several dates in each cell, and the year in the heading": (
        'Committee,Dates 2026/27,Room\nSafety,"17 Sept, 12 Nov, 21 Jan",Loft\nFinance,"3 Sept, 5 Nov",Shed', ["--school-year", "2026:2027"],
        [*(f"Safety {day} @ Loft" for day in ("2026-09-17/2026-09-18", "2026-11-12/2026-11-13", "2027-01-21/2027-01-22")),
         *(f"Finance {day} @ Shed" for day in ("2026-09-03/2026-09-04", "2026-11-05/2026-11-06"))], [],
    ),
    "a month written once": (
        "Date,Title\nSat 5th Sept,A\nSun 6th,B\nWed 30th,C\nThu 1st,D\n2nd,E", ["--school-year", "2026:2027"],
        ["A 2026-09-05/2026-09-06", "B 2026-09-06/2026-09-07", "C 2026-09-30/2026-10-01", "D 2026-10-01/2026-10-02",
         "E 2026-10-02/2026-10-03"], ["“Sun 6th” under “Sat 5th Sept”"],
    ),
    "a month and a year written once, over New Year": (
        "Date,Title\nThu 31 Dec 2026,A\nFri 1st,B\n2 Feb 2027,C\nWed 3rd,D", [],
        ["A 2026-12-31/2027-01-01", "B 2027-01-01/2027-01-02", "C 2027-02-02/2027-02-03", "D 2027-02-03/2027-02-04"], [],
    ),
    "a range over the edge of the school year": (
        "Title,Dates\nCamp,Fri 30 July - Sun 1 Aug\nB,5 Sept", ["--school-year", "2026:2027"],
        ["Camp 2027-07-30/2027-08-02", "B 2026-09-05/2026-09-06"], [],
    ),
    "an end in UTC, west of it": (
        "Title,Date,Start,End,Repeat\nA,2027-03-01,20:00,21:00,FREQ=DAILY;UNTIL=20270303T230000Z", ["--timezone", "America/Halifax"],
        ["A 2027-03-01T20:00/2027-03-01T21:00", "A 2027-03-02T20:00/2027-03-02T21:00"], [],
    ),
    "an end in UTC, east of it": (
        "Title,Date,Start,End,Repeat\nA,2027-03-01,08:00,09:00,FREQ=DAILY;UNTIL=20270302T190000Z", ["--timezone", "Pacific/Auckland"],
        [f"A 2027-03-0{day}T08:00/2027-03-0{day}T09:00" for day in (1, 2, 3)], [],
    ),
    "hours of a rule mean nothing on whole days": (
        'Title,Date,Repeat\nA,2027-03-01,"FREQ=DAILY;BYHOUR=9,10;COUNT=3"', [],
        [f"A 2027-03-0{day}/2027-03-0{day + 1}" for day in (1, 2, 3)], [],
    ),
    "more times than anybody counts": (
        "Title,Date,Repeat\nA,2027-03-01,FREQ=DAILY;COUNT=1000000000", ["--until", "2027-03-02"],
        ["A 2027-03-01/2027-03-02", "A 2027-03-02/2027-03-03"], [],
    ),
    "birthdays come back, the 29th of February on the last of it": (
        "Name,Birthday\nMaren,1985-03-04\nPiers,1992-02-29", ["--from", "2027-01-01", "--until", "2028-12-31"],
        ["Maren: Birthday 2027-03-04/2027-03-05", "Maren: Birthday 2028-03-04/2028-03-05",
         "Piers: Birthday 2027-02-28/2027-03-01", "Piers: Birthday 2028-02-29/2028-03-01"], [],
    ),
    "a birthday beside another date": (
        "Name,Date,Birthday\nMaren,2027-09-08,1985-03-04", ["--from", "2027-01-01", "--until", "2027-12-31"],
        ["Maren 2027-09-08/2027-09-09", "Maren: Birthday 2027-03-04/2027-03-05"], ["Birthday"],
    ),
    "a list moved to another first day": (
        "Title,Date\nA,2026-09-07\nB,2026-09-09", ["--day-one", "2027-09-06"],
        ["A 2027-09-06/2027-09-07", "B 2027-09-08/2027-09-09"], ["moved by 364 days"],
    ),
    "its repeats move along": (
        "Title,Date,Repeat,Except\nA,2026-09-07,every Monday until 28 September 2026,2026-09-14", ["--day-one", "2027-01-05"],
        ["A 2027-01-05/2027-01-06", "A 2027-01-19/2027-01-20", "A 2027-01-26/2027-01-27"], ["a Monday is now a Tuesday"],
    ),
    "a journey of several days": (
        "Date,Depart,Return,Destination\nThu 14 Jan 2027,8:45,15:30,Light\nFri 15 - Sun 17 Jan 2027,16:00,18:00,Isle", [],
        ["Light 2027-01-14T08:45/2027-01-14T15:30", "Isle 2027-01-15T16:00/2027-01-17T18:00"], [],
    ),
    "a day over 12 beats the school year": (
        "Who,Date\nQuill,01/09/2027\nBell,31/08/2028", ["--school-year", "2026:2027"],
        ["Quill 2027-09-01/2027-09-02", "Bell 2028-08-31/2028-09-01"], ["31 is no month"],
    ),
    "the first days of numbered weeks": (
        "Wk,Beginning,Topic\n1,4 Jan 2027,Hulls\n2,11 Jan 2027,Keels", [], ["Hulls 2027-01-04/2027-01-11", "Keels 2027-01-11/2027-01-18"], ["all seven days"],
    ),
    "when exams begin, below them": (
        "Exam,Date,Session,Duration\nRigging,10 May 2027,AM,1h 30m\nSails,12 May 2027,PM,2h\nAM = 9.00,,,\nPM = 1.30,,,", [],
        ["Rigging 2027-05-10T09:00/2027-05-10T10:30", "Sails 2027-05-12T13:30/2027-05-12T15:30"], ["AM (9.00)"],
    ),
    "numbered weeks over names": (
        "Group,Week 1,Week 2\nA,Slip,Loft\nB,Loft,", ["--day-one", "2027-01-11"],
        ["A: Slip 2027-01-11/2027-01-18", "A: Loft 2027-01-18/2027-01-25", "B: Loft 2027-01-11/2027-01-18"], ["roster"],
    ),
    "dates under weekdays, and what is on under them": (
        "Week,Mon,Tue,Wed\n1,7 Dec 2026,8 Dec 2026,9 Dec 2026\n,Inset,,Swim\n2,14 Dec 2026,15 Dec 2026,16 Dec 2026\n,,Fair,", [],
        ["Inset 2026-12-07/2026-12-08", "Swim 2026-12-09/2026-12-10", "Fair 2026-12-15/2026-12-16"], ["planner"],
    ),
    "yes and no in a roster": (
        ",7 Dec 2026,8 Dec 2026\nLate club,yes,no\nEarly club,no,yes", [], ["Late club 2026-12-07/2026-12-08", "Early club 2026-12-08/2026-12-09"], ["nothing happens"],
    ),
    "a programme in no regular steps": (
        "7 December 2026,,\n,Loft,Shed\n9.00,Welcome,\n9.30,Hulls,Keels\n10.30,Coffee,Coffee\n12.00,Close,", [],
        ["Welcome 2026-12-07T09:00/2026-12-07T09:30 @ Loft", "Hulls 2026-12-07T09:30/2026-12-07T10:30 @ Loft", "Keels 2026-12-07T09:30/2026-12-07T10:30 @ Shed",
         "Coffee 2026-12-07T10:30/2026-12-07T12:00 @ Loft", "Coffee 2026-12-07T10:30/2026-12-07T12:00 @ Shed", "Close 2026-12-07T12:00/2026-12-07T13:00 @ Loft"], ["lasts until the next one"],
    ),
    "hours without minutes beside others": (
        "Date,Event,Slot\n7 Dec 2026,A,10-11:30\n8 Dec 2026,B,3-4", [], ["A 2026-12-07T10:00/2026-12-07T11:30", "B 2026-12-08T15:00/2026-12-08T16:00"], [],
    ),
    "how often, under Ends after": (
        "Title,Date,Repeats,Ends after\nA,7 Dec 2026,Weekly,2", [], ["A 2026-12-07/2026-12-08", "A 2026-12-14/2026-12-15"], ["2 times"],
    ),
    "a labelled date over a programme": (
        "Subject: Training,,\nDate,18 January 2027,\nVenue,Loft,\nSession,Time,Lead\nWelcome,9:00,DQ\nTools,13:00,TO", [],
        ["Welcome 2027-01-18T09:00/2027-01-18T10:00", "Tools 2027-01-18T13:00/2027-01-18T14:00"], ["The date over the table"],
    ),
    "people are no places": (
        "Thursday 21 January 2027,,\nStudent,4.00,4.10\nAlder,Quill,\nBirch,,Bell", [],
        ["Quill (Alder) 2027-01-21T16:00/2027-01-21T16:10", "Bell (Birch) 2027-01-21T16:10/2027-01-21T16:20"], [],
    ),
    "weekdays that the dates show to be German": (
        "Datum,Zeit,Veranstaltung\nMo. 11.01.27,18.30 Uhr,Abend\nDi. 12.01.27,8.00-12.30,Tag", [],
        ["Abend 2027-01-11T18:30/2027-01-11T19:30", "Tag 2027-01-12T08:00/2027-01-12T12:30"], ["German"],
    ),
    "weeks by the day that they begin": (
        "Date,Topic\nWeek of 4 Jan 2027,Hulls\nWeek of Jan 11 2027,Keels", [], ["Hulls 2027-01-04/2027-01-11", "Keels 2027-01-11/2027-01-18"], ["all seven days"],
    ),
    "weekdays and hours over weeks": (
        "Wk,Mon 9-10,Mon 10-11,Tue 9-10\n11/01/2027,Knots,Sails,\n18/01/2027,,Sails,Tar", [],
        ["Knots 2027-01-11T09:00/2027-01-11T10:00", "Sails 2027-01-11T10:00/2027-01-11T11:00", "Sails 2027-01-18T10:00/2027-01-18T11:00", "Tar 2027-01-19T09:00/2027-01-19T10:00"], ["weekdays across"],
    ),
    "halves of the day over what is on": (
        "Date,AM,PM,Eve\n11 Jan 2027,Boats,,Choir 7-8\n12 Jan 2027,cancelled,Knots,", ["--as", "roster"],
        ["Boats (AM) 2027-01-11/2027-01-12", "Choir 2027-01-11T19:00/2027-01-11T20:00", "Knots (PM) 2027-01-12/2027-01-13"], ["parts of the day"],
    ),
    "numbered sessions beside groups": (
        "Date,Session,Group A,Group B\n11 Jan 2027,1,Knots,Sails\n11 Jan 2027,2,Sails,Knots", ["--as", "roster"],
        ["Group A: Knots (Session 1) 2027-01-11/2027-01-12", "Group B: Sails (Session 1) 2027-01-11/2027-01-12",
         "Group A: Sails (Session 2) 2027-01-11/2027-01-12", "Group B: Knots (Session 2) 2027-01-11/2027-01-12"], [],
    ),
    "months beside several days": (
        'Month,Days,Event\nJanuary,"5, 12",Choir\nMarch,6-7,Fair', ["--school-year", "2026:2027"],
        ["Choir 2027-01-05/2027-01-06", "Choir 2027-01-12/2027-01-13", "Fair 2027-03-06/2027-03-08"], ["put together"],
    ),
    "classes by a number and a letter": (
        "Lesson,Class,Mon 11/1/2027,Tue 12/1/2027\n1,7A,Knots,\n1,7B,Sails,Knots", [],
        ["7A: Knots 2027-01-11/2027-01-12", "7B: Sails 2027-01-11/2027-01-12", "7B: Knots 2027-01-12/2027-01-13"], ["Not used: the column “Lesson”"],
    ),
    "French sides and a time to come": (
        "Date;Heure;Équipe locale;Équipe visiteuse;Terrain\n2027-01-16;à déterminer;Anse;Quai;2", [], ["Anse v Quai 2027-01-16/2027-01-17 @ 2"], ["not known yet"],
    ),
    "how many weeks a stretch lasts": (
        "Name,Start,End,Weeks\nHalf term,2027-01-04,2027-02-12,6\nRest,2027-02-22,2027-03-26,5", [], ["Half term 2027-01-04/2027-02-13", "Rest 2027-02-22/2027-03-27"], ["“Weeks”"],
    ),
    "weekdays by their number over months": (
        "Month,1st Monday,Last Friday\nJanuary,Board,Social\nFebruary,-,Social 7pm", ["--school-year", "2026:2027"],
        ["Board 2027-01-04/2027-01-05", "Social 2027-01-29/2027-01-30", "Social 2027-02-26T19:00/2027-02-26T20:00"], ["weekday that heads the column"],
    ),
    "weeks in the headings of several dates": (
        "Boat,Haul out (w/c),Launch (w/c)\nHeron,11 Jan 2027,1 Mar 2027", [],
        ["Heron: Haul out (w/c) 2027-01-11/2027-01-18", "Heron: Launch (w/c) 2027-03-01/2027-03-08"], ["all seven days"],
    ),
    "a title beside the date, over a programme without headings": (
        "Visit,15 January 2027,\n09:00,Coffee,Mess\n09:30-10:15,Tour,Slips\n11:00,Depart,", [],
        ["Coffee 2027-01-15T09:00/2027-01-15T10:00", "Tour 2027-01-15T09:30/2027-01-15T10:15", "Depart 2027-01-15T11:00/2027-01-15T12:00"], ["“Visit 15 January 2027”"],
    ),
    "a zone in a heading that is the one given": (
        "Date,STARTS AT (AST),Event\n2027-01-14,7:00 PM,Talk", ["--timezone", "America/Halifax"], ["Talk 2027-01-14T19:00/2027-01-14T20:00"], [],
    ),
    "a word that is no zone": ("Date,STARTS AT,Event\n2027-01-14,7:00 PM,Talk", [], ["Talk 2027-01-14T19:00/2027-01-14T20:00"], []),
    "a dash is no place": ("Title,Date,Where,Notes\nA,2026-07-09,-,n/a", [], ["A 2026-07-09/2026-07-10"], []),
    "HTML in notes": ("Title,Date,Notes\nA,2026-07-09,<p>Bring <b>gloves</b></p>", [], ["A 2026-07-09/2026-07-10"], []),
}  # fmt: skip


@pytest.mark.parametrize("name", RIGHT)
def test_read_right_and_told(name: str, tmp_path: Path) -> None:
    text, options, expected, says = RIGHT[name]
    source, target = csv_file(tmp_path, text), tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", target, *options)
    assert (outcome.status, [plain(event) for event in events_in(target)]) == (0, expected), outcome.text
    for part in says:
        assert part in outcome.text


REFUSED = {
    "a month written once, with a weekday that does not fit": ("Date,Title\nSat 5 Sept 2026,A\nSun 7th,B", ["2026-09-07 is a Monday, not a Sunday"]),
    "two figures after a month, far from the school year": (
        "Date,Title\n5 Sept,A\n12 Sept 10,B", ["may be an hour"], "--school-year", "2026:2027",
    ),
    "one figure as a year": ("Date,Title\n5/9/7,A", ["“7” is no year"], "--date-order", "dmy"),
    "a year above a list in no order": (
        "Dates 2026,\nDate,Event\n7 Sept,Start\n12 Mar,Fair\n5 Jan,Term", ["7 September has no year", "--school-year"],
    ),
    "two years above": ("Dates 2026 and 2027,\nDate,Event\n7 Sept,Start", ["has no year"]),
    "a repeat by the second, whose end is the window's": (
        "Title,Date,Start,Repeat\nA,2027-03-01,9:00,FREQ=SECONDLY", ["column D", "has no end", "COUNT="], "--until", "2027-12-31",
    ),
    "whole days by the hour": ("Title,Date,Repeat\nA,2027-03-01,FREQ=HOURLY;COUNT=3", ["column C", "no time"]),
    "a birthday without a window": ("Name,Birthday\nMaren,1985-03-04", ["comes back every year", "--from", "--until"]),
    "a list that cannot move": (
        "Title,Date,Repeat\nA,2026-09-07,monthly until 7 June 2027", ["row 2", "cannot be moved"], "--day-one", "2027-01-05",
    ),
    "a wrong weekday among several days": ("Date,Title\nMon 7 & Wed 8 June 2027,A", ["row 2, column A", "is a Tuesday"]),
    "a cancelled date": ("Date,Title\n7 Sep 2026 (cancelled),A", ["row 2, column A"]),
    "letters that clocks show in one place": ("Title,Date,Start,Time zone\nA,2026-07-09,9:00,BST", ["Write Europe/London"]),
    "and in many": ("Title,Date,Start,Time zone\nA,2026-07-09,9:00,CST", ["America/", "others", "the one that is meant"]),
    "nothing that could be a title": ("Date,Start,End\n2026-09-07,9:00,10:00", ["--set summary=TITLE"]),
    "a heading in --title that is not there": ("Date,Event\n2026-09-07,A", ["“Paper”", "“Event”"], "--title", "{Event}: {Paper}"),
    "figures under a heading that says time": (
        "Clinic time,Date,Person\n0930,7 Sept 2026,Ann\n1400,8 Sept 2026,Cy", ["“Clinic time” holds times", "Clinic time=time"],
    ),
    "times of two things that stand apart": (
        "Tide,Date,High water,Height,Low water\nSpring,12 Sep 2026,09:14,1.9,15:22", ["“High water” holds times", "“Low water” holds times"],
    ),
    "weeks by their numbers, and nothing that counts them": (
        "Module,Date,Time,Weeks\nRigging,7 Sept 2026,9-10,1-6", ["“1-6” does not say how many times"],
    ),
    "a timetable of odd and even weeks, of the term or of the calendar": (
        "Week,Day,Time,Module\nodd,Mon,9-10,Rigging\neven,Tue,9-10,Lofting",
        ["column A “Week”: “odd”", "in which weeks the class meets", "“even”"], "--from", "2026-09-07", "--until", "2026-12-18",
    ),
    "how often, in words that are none": ("Event,Date,Every\nSail,10 Sept 2026,moon", ["“moon” is no repeat"]),
    "rows that are moved": ("Date,Event,New date\n7 Sept 2026,Fair,\n8 Sept 2026,Row,15 Sept 2026", ["“New date” seems to say", "in the place of the old one"]),
    "until when rows repeat, and nothing how": ("Date,Event,Repeat until\n7 Sept 2026,Muster,18 Dec 2026", ["says until when it repeats, and not how"]),
    "how rows repeat, under a heading that is not known": (
        "Date,Event,Repeats on\n7 Sept 2026,Muster,Mondays", ["Read as the repeat", "“Mondays” has no end"],
    ),
    "dates without classes": (
        "Course,Date,No classes\nKnots,7 Sept 2026,14 Sept 2026", ["“No classes” seems to say when a row is not held", "No classes=except"],
    ),
    "dates with a remark that cannot be read, and no title": (
        "Slip,In,Out\n1,Mon 7 Sept 2026,Fri 11 Sept 2026\n2,14/9/26,18/9/26 if fine\n3,20/9/26,21 Sept 2026", ["Out", "--set summary=TITLE"],
    ),
    "sessions of a day beside what could be a title": (
        "Date,Session 1,Session 2,Event\n7 Sept 2026,Ann,Bob,Fair\n8 Sept 2026,Cy,,Race", ["under “Session 1” and “Session 2”", "--as roster"],
    ),
    "numbers beside dates are no day's times": (
        "Slip,Boat,On the slip,Off the slip,Skipper\n1,Petrel,1 Sept 2026,9 Sept 2026,M. Quill\n2,Gannet,3 Sept 2026,,L. Tern",
        ["says what each event is called", "Boat=summary"],
    ),
    "odd and even weeks that nothing counts": (
        "Class,Day,Time,Odd/even\nRigging,Mon,9-10,odd\nLofting,Mon,9-10,even", ["“odd” says in which weeks the class meets"],
        "--from", "2026-09-07", "--until", "2026-12-18",
    ),
    "terms of a list that repeats through all": (
        "Class,Day,Time,Term\nRigging,Mon,9-10,Autumn\nLofting,Tue,9-10,Spring", ["“Term” says in which terms", '--column "Term=term"'],
        "--from", "2026-09-07", "--until", "2026-12-18",
    ),
    "papers of one exam": ("Subject,Paper,Date\nRigging,1,10 May 2027\nRigging,2,12 May 2027\nSails,1,13 May 2027", ["“Paper”, which would be lost", '--title "{Subject}: {Paper}"']),
    "when people leave, beside the time": ("Date,Opponents,Time,Leave\n16 Jan 2027,Quay,11:00,9:30", ["The column “Leave” holds times"]),
    "an arrow through a week": ("Week,Mon,Tue,Wed\n4 Jan 2027,Mocks →,→,\n11 Jan 2027,,Swim,Sail", ["“Mocks →” says that it goes on", "row 2, column C: “→”"]),
    "a shift beside its times": ("Employee,Shift,From,To\nQuill,Early,2026-12-07 06:00,2026-12-07 14:00\nBell,Night,2026-12-08 22:00,2026-12-09 06:00", ['--title "{Employee}: {Shift}"']),
    "a date under another weekday": ("Week,Mon,Tue,Wed\n1,7 Dec 2026,9 Dec 2026,9 Dec 2026\n,Inset,,Swim", ["row 2, column C", "is a Wednesday, not a Tuesday"]),
    "who is away, and why": ("Staff,Type,From,To\nQuill,Leave,11/01/2027,15/01/2027\nBell,Sick,12/01/2027,12/01/2027", ['--title "{Staff}: {Type}"']),
    "when players come, before it begins": ("Event,Date,Call,Curtain\nPanto,14 Jan 2027,18:15,19:30", ["The column “Call” holds times"]),
    "an end on the next day": ("Date,Load,In,Out\n11 Jan 2027,Bisque,16:00,+1 09:00\n13 Jan 2027,Glaze,17:30,+1 11:00", ["The column “Out” holds times"]),
    "days of a week in the cell of a week": ("Name,Jan 11-15 2027,Jan 18-22 2027\nQuill,Leave,Leave (Mon-Wed)\nBell,,Course", ["row 2, column C", "on which days of its week"]),
    "the school year of each row": ("Year,Term,Start\n2026/27,Autumn,7 Sept\n2027/28,Autumn,6 Sept", ["The column “Year” says the school year of each row"], "--school-year", "2026:2027"),
    "a fifth weekday that a month has not": ("Month,1st Monday,5th Monday\nJanuary 2027,Board,Social\nFebruary 2027,Board,", ["row 2, column C", "no such weekday"]),
    "the weekday in a cell and another beside it": ("Date,Day,What\nMon 11 Jan 2027,Tue,X\nTue 12 Jan 2027,Tue,Y", ["row 2, column A", "says Monday, and the column of weekdays Tuesday"]),
    "until which weekday": ("Date,Work,Subject,Due\nMon 11 Jan 2027,Ex 1,Maths,Wed\nTue 12 Jan 2027,Essay,English,Mon 18 Jan", ["The column “Due” holds days"]),
    "groups by their weekdays and times": (
        "Subject,Grade 7,Grade 8\nMaths,Mon 9:00,Tue 9:00\nEnglish,Wed 10:00,Thu 11:00", ["The column “Grade 8” holds times"], "--from", "2027-01-11", "--until", "2027-01-17",
    ),
    "a zone in the heading of times": ("Date,Time (ET),Event\n2027-01-14,7:00 PM,Talk", ["says that its times are ET", "--timezone America/"], "--timezone", "America/Halifax"),
    "a number of days beside a start": ("Name,Start date,Start time,Duration (days)\nCamp,2027-06-01,10:00,3", ["row 2, column D", "leaves open when each day ends"]),
    "times without a heading, some of them in words": (
        "When?,,What\n7 Sept 2026,9am-ish,Assembly\n8 Sept 2026,10.30 - 12,Talk\n9 Sept 2026,pm,Tour\n10 Sept 2026,,Race",
        ["The column B holds times and is none of those that say when", "--column \"B=time\""],
    ),
    "a game put off where its score would stand": (
        "Date,Home,Away,Score\n3 Oct 2026,Gulls,Terns,2-1\n10 Oct 2026,Gulls,Rooks,Postponed",
        ["“Score” says that rows are not held, and is not heard: “Postponed”", "--column \"Score=description\""],
    ),
    "a cancelled lesson under who came, or of what kind it is": (
        "Student,Date,Attended,Type\nOak,7 Sept 2026,Y,First\nOak,14 Sept 2026,cancelled,First\nOak,21 Sept 2026,Y,Postponed",
        ["“Attended” says that rows are not held", "“Type” says that rows are not held"],
    ),
    "numbered weeks that nothing counts": ("Group,Week 1,Week 2\nA,Slip,Loft\nB,Loft,Slip", ["counts in weeks", "--day-one"]),
    "all rows of a refused table are counted": ("Week,Day,Title\n1,1,A\n2,1,B", ["3 rows read", "3 rejected", "--day-one"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_refused_with_what_settles_it(name: str, tmp_path: Path) -> None:
    text, says, *options = REFUSED[name]
    said = refused(csv_file(tmp_path, text), *options)
    for part in says:
        assert part in said


def dated_workbook(path: Path, cells: list[dt.date | str], hidden: tuple[int, ...] = ()) -> Path:
    book = xlsxwriter.Workbook(str(path))
    sheet = book.add_worksheet("Dates")
    form = book.add_format({"num_format": "dd/mm/yyyy"})
    sheet.write_row(0, 0, ["Date", "Title"])
    for row, cell in enumerate(cells, 1):
        if isinstance(cell, str):
            sheet.write(row, 0, cell)
        else:
            sheet.write_datetime(row, 0, dt.datetime(cell.year, cell.month, cell.day), form)
        sheet.write(row, 1, "ABCDEFGH"[row - 1])
    for row in hidden:
        sheet.set_row(row, None, None, {"hidden": True})
    old = book.add_worksheet("Old")
    old.hide()
    old.write_row(0, 0, ["Date", "Title"])
    old.write_row(1, 0, ["2025-09-07", "Of last year"])
    book.close()
    return path


def test_dates_that_another_countrys_settings_exchanged(tmp_path: Path) -> None:
    cells: list[dt.date | str] = [dt.date(2026, 7, 9), dt.date(2026, 8, 9), "14/09/2026"]
    source = dated_workbook(tmp_path / "dates.xlsx", cells)
    assert "--swapped yes" in refused(source)
    assert built(source, "--swapped", "yes")[0] == "A 2026-09-07/2026-09-08"
    assert built(source, "--swapped", "no")[0] == "A 2026-07-09/2026-07-10"
    assert "--swapped …    (… is yes or no)" in nomarium("survey", source).out


@pytest.mark.parametrize(
    "cells",
    [
        [dt.date(2026, 7, 9), dt.date(2026, 8, 20), "14/09/2026"],  # a real 20th
        [dt.date(2026, 7, 9), dt.date(2026, 8, 9), "04/09/2026", "14/09/2026"],  # a text that would be real
        [dt.date(2026, 7, 7), dt.date(2026, 8, 8), "14/09/2026"],  # the same either way
    ],
)
def test_dates_that_nothing_has_exchanged(cells: list[dt.date | str], tmp_path: Path) -> None:
    assert len(built(dated_workbook(tmp_path / "dates.xlsx", cells))) == len(cells)


def test_a_real_day_over_12_cannot_have_been_exchanged(tmp_path: Path) -> None:
    source = dated_workbook(tmp_path / "dates.xlsx", [dt.date(2026, 7, 9), dt.date(2026, 8, 20)])
    assert "there is no month 20" in refused(source, "--swapped", "yes")


def test_hidden_sheets_are_passed_over_and_hidden_rows_told(tmp_path: Path) -> None:
    source = dated_workbook(tmp_path / "dates.xlsx", [dt.date(2026, 9, day) for day in (14, 15, 16)], (2,))
    target = tmp_path / "out.ics"
    said = nomarium("build", source, "-o", target).text
    assert (
        "1 hidden sheet passed over: “Old”" in said
        and "1 row that a filter or a person hides is read" in said
    )
    assert [plain(event)[0] for event in events_in(target)] == ["A", "B", "C"]
    assert [title[0] for title in built(source, "--hidden-rows", "skip")] == ["A", "C"]
    assert built(source, "--sheet", "Old") == ["Of last year 2025-09-07/2025-09-08"]
    wrong = nomarium(
        "build", csv_file(tmp_path, "Date,Title\n2026-09-07,A"), "-o", target, "--hidden-rows", "skip"
    )
    assert wrong.status == 2 and "which rows" in wrong.text


def test_hidden_columns_are_told(tmp_path: Path) -> None:
    source = workbook(
        tmp_path, [["Date", "Event", "Notes"], [dt.date(2026, 9, 7), "Launch", "Key under the mat"]]
    )
    book = openpyxl.load_workbook(source)
    book.active.column_dimensions["C"].hidden = True
    book.save(source)
    said = nomarium("build", source, "-o", tmp_path / "out.ics").text
    assert 'A column that is hidden in the workbook is read too: C. To leave it out: --column "C=".' in said
    without = nomarium("build", source, "-o", tmp_path / "out.ics", "--column", "C=")
    assert without.status == 0 and "is read too" not in without.text
    assert "DESCRIPTION" not in events_in(tmp_path / "out.ics")[0]


def test_titles_over_blocks_are_what_their_rows_belong_to(tmp_path: Path) -> None:
    text = "Class 7A,\nDate,Event\n2026-09-08,Trip\n,\nClass 7B,\nDate,Event\n2026-09-09,Trip\n,\nLater,\n2026-09-10,Row"
    source, target = csv_file(tmp_path, text), tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", target)
    found = [
        (event.decoded("DTSTART").day, event["CATEGORIES"].cats, event["X-NOMARIUM-CLASS"])
        for event in events_in(target)
    ]
    assert found == [
        (8, ["Class 7A"], "Class 7A"),
        (9, ["Class 7B"], "Class 7B"),
        (10, ["Class 7B"], "Class 7B"),
    ]
    assert "“Class 7B” over a block" in outcome.text and "no event: “Later”" in outcome.text


def test_what_was_asked_for_is_kept_in_a_recipe(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Event,Paper,Date,Start\nHistory,1,2026-09-07,3:15\nHistory,2,2026-09-08,3:15"
    )
    recipe, options = tmp_path / "exams.toml", ("--title", "{Event}: {Paper}", "--clock", "12")
    nomarium("survey", source, "--save", recipe, *options)
    expected = [
        "History: 1 2026-09-07T15:15/2026-09-07T16:15",
        "History: 2 2026-09-08T15:15/2026-09-08T16:15",
    ]
    assert built(source, *options) == built(source, "--recipe", recipe) == expected


def test_what_a_recipe_says_must_be_one_of_its_answers(tmp_path: Path) -> None:
    source, recipe = csv_file(tmp_path, "Event,Date\nA,2026-09-07"), tmp_path / "wrong.toml"
    recipe.write_text('clock = "13"\n', "utf-8")
    assert "Use 12 or 24" in refused(source, "--recipe", recipe)


def test_notes_that_hold_html_are_text_and_public_holidays_keep_nobody_busy(tmp_path: Path) -> None:
    text = 'Title,Date,Notes\nA,2026-07-09,"See <a href=""https://saltmarsh.example/t"">the tides</a><br>glaze &lt; 3 mm"'
    source, target = csv_file(tmp_path, text), tmp_path / "out.ics"
    nomarium(
        "build", source, "-o", target, "--public-holidays", "CA-NS", "--show-holidays", "--from", "2026-07-01", "--until", "2026-07-31"
    )  # fmt: skip
    events = {str(event["SUMMARY"]): event for event in events_in(target)}
    assert events.pop("A")["DESCRIPTION"] == "See the tides (https://saltmarsh.example/t)\nglaze < 3 mm"
    assert events and all(event["TRANSP"] == "TRANSPARENT" for event in events.values())


def test_days_of_a_plan_are_not_moved_and_a_calendar_that_repeats_by_months_neither(tmp_path: Path) -> None:
    plan = csv_file(tmp_path, "Name,First day,Last day\nAutumn,2026-09-07,2026-09-11", "terms.csv").parent
    csv_file(plan, "Title,Date\nA,2026-09-07")
    outcome = nomarium("build", plan, "-o", tmp_path / "b.ics", "--day-one", "2027-01-05")
    assert outcome.status == 2 and "terms say when" in outcome.text
    monthly = csv_file(tmp_path, "Event,Date,Repeat\nA,2026-09-07,monthly until 7 December 2026", "m.csv")
    nomarium("build", monthly, "-o", tmp_path / "m.ics", "--repeats", "rule")
    outcome = nomarium("build", tmp_path / "m.ics", "-o", tmp_path / "n.ics", "--day-one", "2027-01-05")
    assert outcome.status == 1 and "cannot be moved" in outcome.text and not (tmp_path / "n.ics").exists()


def test_rows_of_a_table_that_is_refused_as_a_whole_are_not_kept_as_rejected(tmp_path: Path) -> None:
    source, rejects = csv_file(tmp_path, "Week,Day,Title\n1,1,A"), tmp_path / "rejects.csv"
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics", "--rejects", rejects)
    assert outcome.status == 1 and "kept in" not in outcome.text and not rejects.exists()


def test_a_build_is_split_by_one_field_and_says_so(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Room,Teacher\nA,2026-09-07,Loft,Quill")
    outcome = nomarium(
        "build", source, "-o", tmp_path / "out/", "--split-by", "room", "--split-by", "teacher"
    )
    assert outcome.status == 2 and "given twice" in outcome.text and not (tmp_path / "out").exists()


LOST = {
    "the module left of the assessment": ("Module,Assessment,Due\nKnots,Essay,2026-10-12\nKnots,Exam,2027-01-15\nSails,Essay,2026-10-26", ["told apart by “Module”", '--title "{Module}: {Assessment}"']),
    "days in a column that nothing uses": ("Concert,Rehearsals,Date\nSea songs,\"3, 10 and 17 Nov 2026\",2026-11-20", ["“Rehearsals” holds days"]),
    "who is on leave": ("Person,Date from,Date to,Type of leave\nAnn,2026-09-07,2026-09-11,Annual\nBo,2026-09-09,2026-09-09,Sick", ['--title "{Person}: {Type of leave}"']),
    "a date that is open": ("Task,Deadline\nA,2026-09-10\nB,2026-09-15\nC,TBC", ["row 4, column B", "no date"]),
    "the letter of a column without headings": ("Start,8 September 2026\nHalf term,26 October 2026\nFair,\nStart,4 January 2027", ['--fill-down "B"']),
}  # fmt: skip


@pytest.mark.parametrize("name", LOST)
def test_nothing_that_is_needed_is_left_out_silently(name: str, tmp_path: Path) -> None:
    text, said = LOST[name]
    out = refused(csv_file(tmp_path, text))
    assert [words for words in said if words not in out] == []


def test_a_refused_table_shows_its_columns_and_what_each_could_be(tmp_path: Path) -> None:
    text = "Club,Sort,At,Held\nKnots,Beginners,18:00,Tuesday\nSails,Juniors,19:00,Friday at dusk"
    source = csv_file(tmp_path, text)
    said = nomarium("survey", source)
    assert said.status == 1
    for part in (
        "not read: it has no dates",
        "words  summary, location",
        "start      times",
        "Friday at dusk",
    ):
        assert part in said.out
    facts = json.loads(nomarium("survey", source, "--json").out)["unread"]
    could_be = [column["could_be"][:1] for column in facts[0]["columns"]]
    assert could_be == [["summary"], ["summary"], [], ["summary"]]


def test_a_time_above_a_table_and_times_in_titles_are_told(tmp_path: Path) -> None:
    text = "All talks at 7.30pm in the loft\nDate,Talk\n2026-09-14,Knots\n2026-10-12,Steam (7pm)"
    source = csv_file(tmp_path, text)
    said = nomarium("build", source, "-o", tmp_path / "o.ics").text
    assert "Titles that hold a time (row 4: “Steam (7pm)”)" in said
    assert "Above the table stands a time (“All talks at 7.30pm in the loft”)" in said
    assert '--set "start=7.30pm"' in said
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--set", "start=7.30pm")
    assert "stands a time" not in outcome.text
    assert "T193000" in (tmp_path / "o.ics").read_text("utf-8")
    printed = csv_file(tmp_path, "Printed on 26 Nov 2026 10:15\nDate,Talk\n2026-09-14,Knots")
    assert "stands a time" not in nomarium("build", printed, "-o", tmp_path / "o.ics").text


def test_a_month_written_once_is_refused_with_the_option_that_helps(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Month,Day,What\nSeptember,7,Start\n,14,Fair\nOctober,5,Launch")
    year = ("--school-year", "2026:2027")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *year)
    assert (outcome.status, '--fill-down "Month"' in outcome.text) == (1, True), outcome.text
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *year, "--fill-down", "Month")
    assert (outcome.status, "Wrote 3 events" in outcome.text, "--fill-down" in outcome.text) == (
        0,
        True,
        False,
    )


def test_dates_that_begin_in_the_first_column_head_no_roster(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Sept 2026,,,\nMon 7,Tue 8,Wed 9,Thu 10\nKnots 9am,,Steam 2pm,Fair\n,Race 10-12,,AGM 7.30pm"
    )
    assert "holds dates" in refused(source)  # once, Knots was taken for somebody's name


def test_days_with_times_in_one_cell_are_an_event_each_however_far_down_they_stand(tmp_path: Path) -> None:
    lines = [f"2026-09-{n % 28 + 1:02} 10:00,Row {n}" for n in range(700)]
    club = '"Mon 26 Oct to Fri 30 Oct 2026, 9am - 3.30pm",Club'
    found = built(csv_file(tmp_path, "\n".join(["Date,Event", *lines, club])))
    assert [line for line in found if line.startswith("Club")] == [
        f"Club 2026-10-{day}T09:00/2026-10-{day}T15:30" for day in range(26, 31)
    ]
    by_rule = built(csv_file(tmp_path, "\n".join(["Date,Event", *lines, club])), "--repeats", "rule")
    assert sum(line.startswith("Club") for line in by_rule) == 1


def test_a_row_without_a_repeat_among_rows_that_repeat_is_read_as_it_would_be_alone(tmp_path: Path) -> None:
    text = "Date,Last day,Time,Event,Repeat\n7 Sept 2026,,6-8pm,Choir,every Monday for 2 weeks\n21 Sept 2026,22 Sept 2026,9-10am,Club,"
    assert [line.split("/")[0] for line in built(csv_file(tmp_path, text))] == [
        "Choir 2026-09-07T18:00", "Choir 2026-09-14T18:00", "Club 2026-09-21T09:00", "Club 2026-09-22T09:00",
    ]  # fmt: skip
