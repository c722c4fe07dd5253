"""Columns that say when under a heading nobody foresaw: read, or refused; passed over only when they are about something else."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest
import xlsxwriter

from helpers import built, csv_file, nomarium, refused

WEEKS = ["--from", "2026-09-07", "--until", "2026-09-27"]

UNHEARD = {
    "how often, in words": ("Date,Time,Course,Runs\n7 Sep 2026,6pm,Steam,weekly\n9 Sep 2026,7pm,Loft,fortnightly to Christmas", []),
    "whether it is on": ("Date,Event,Going ahead\n7 Sep 2026,Steam,Yes\n9 Sep 2026,Loft,No", []),
    "held or not": ("Date,Event,Held?\n7 Sep 2026,Steam,Yes\n9 Sep 2026,Loft,No", []),
    "the half of the day beside a time that it changes": ("Date,Time,Event,Half\n7 Sep 2026,9.00,Quiz,PM\n9 Sep 2026,2.00,Race,PM", []),
    "early and late": ("Date,Name,Shift\n7 Sep 2026,Ann,Early\n9 Sep 2026,Bob,Late", []),
    "weeks that are skipped": ("Class,Day,Time,Skip weeks\nKnots,Monday,9-10am,half-term\nSails,Tuesday,10-11am,", WEEKS),
    "term time only": ("Class,Day,Time,Term-time only\nKnots,Monday,9-10am,Y\nSails,Tuesday,10-11am,N", WEEKS),
    "months": ("Class,Day,Time,Months\nKnots,Monday,9-10am,Sept-Nov\nSails,Tuesday,10-11am,All", WEEKS),
    "running weeks": ("Club,Day,Time,Weeks running\nKnots,Monday,15:30-16:30,Weeks 2-11\nSails,Tuesday,15:30-16:30,Weeks 2-10", WEEKS),
    "in the holidays": ("Club,Day,Time,Holiday cover\nKnots,Monday,15:30-16:30,No\nSails,Tuesday,15:30-16:30,Yes", WEEKS),
    "a break": ("Date,Course,From,To,Break\n7 Sep 2026,Steam,9:00,15:00,45 min\n9 Sep 2026,Loft,9:00,15:00,30 min", []),
}  # fmt: skip


@pytest.mark.parametrize("name", UNHEARD)
def test_a_column_that_may_say_when_stops_the_table_until_it_is_left_out(name: str, tmp_path: Path) -> None:
    text, options = UNHEARD[name]
    source, heading = csv_file(tmp_path, text), text.split("\n")[0].split(",")[-1]
    said = refused(source, *options)
    assert f"The column “{heading}” may say when rows are held, and is not read" in said
    assert built(source, *options, "--column", f"{heading}=")  # the remedy, to the letter


OTHERS = {
    "what to bring": "Date,Event,Kit needed,Bus\n7 Sep 2026,Fair,Old clothes,Yes\n8 Sep 2026,Visit,Boots on Tuesday,No",
    "money and sizes": "Date,Event,Day rate,Class size\n7 Sep 2026,Steam,45,14\n9 Sep 2026,Loft,50,15",
    "parts of the date": "Month,Day,Date,Event\nSeptember,7,2026-09-07,Fair\nOctober,8,2026-10-08,Visit",
    "a remark": "Date,Event,Kit list\n7 Sep 2026,Fair,daily\n8 Sep 2026,Visit,weekly",
    "words now and then beside a class": "Class,Date,Sub\nKnots,2026-09-07,\nSails,2026-09-08,Quill",
    "halves that the times say": "Date,Session,Time,Paper\n7 June 2027,AM,9.00,Navigation\n7 June 2027,PM,1.30,Rigging",
    "the school term of a date": "Date,Event,School term\n7 Sep 2026,Open,Autumn\n12 Jan 2027,Race,Spring",
}


@pytest.mark.parametrize("name", OTHERS)
def test_a_column_about_something_else_is_a_note(name: str, tmp_path: Path) -> None:
    assert len(built(csv_file(tmp_path, OTHERS[name]))) == 2


TITLES = {
    "holidays": ("Holiday,First day,Last day\nHalf term,26 Oct 2026,30 Oct 2026\nChristmas,21 Dec 2026,4 Jan 2027", "Half term"),
    "evenings": ("Date,Evening\n7 Sep 2026,Quiz\n8 Sep 2026,Night sail", "Quiz"),
}  # fmt: skip


@pytest.mark.parametrize("name", TITLES)
def test_what_may_be_called_after_a_time_is_a_title(name: str, tmp_path: Path) -> None:
    text, title = TITLES[name]
    assert built(csv_file(tmp_path, text))[0].startswith(title)


READ = {
    "answers under Confirmed": (
        "Date,Event,Confirmed\n7 Sep 2026,A,Y\n8 Sep 2026,B,N\n9 Sep 2026,C,", [], ["CONFIRMED", "TENTATIVE", ""],
    ),
    "words under Confirmed": ("Date,Event,Confirmed\n7 Sep 2026,A,confirmed\n8 Sep 2026,B,provisional", [], ["CONFIRMED", "TENTATIVE"]),
}  # fmt: skip


@pytest.mark.parametrize("name", READ)
def test_what_is_confirmed_is_the_status(name: str, tmp_path: Path) -> None:
    text, options, expected = READ[name]
    target = tmp_path / "out.ics"
    outcome = nomarium("build", csv_file(tmp_path, text), "-o", target, *options)
    assert outcome.status == 0, outcome.text
    lines = target.read_text("utf-8").split("BEGIN:VEVENT")[1:]
    assert [one.partition("STATUS:")[2].partition("\n")[0].strip() for one in lines] == expected


DATED = {
    "a number of classes": (
        "Class,Day,Time,No. classes\nKnots,Monday,9:00-10:00,2", ["--from", "2026-09-07", "--until", "2026-12-18"],
        ["Knots 2026-09-07T09:00/2026-09-07T10:00", "Knots 2026-09-14T09:00/2026-09-14T10:00"],
    ),
    "counted under another heading, as the remedy says": (
        "Class,Day,Time,Rehearsals\nKnots,Monday,9:00-10:00,2", ["--from", "2026-09-07", "--until", "2026-12-18", "--column", "Rehearsals=repeat-times"],
        ["Knots 2026-09-07T09:00/2026-09-07T10:00", "Knots 2026-09-14T09:00/2026-09-14T10:00"],
    ),
    "so many weeks of a phrase": (
        "Date,Event,Repeat,No. of weeks\n7 Sep 2026,A,Mon and Wed,1\n8 Sep 2026,B,every Tuesday,2", ["--until", "2026-12-18"],
        ["A 2026-09-07/2026-09-08", "A 2026-09-09/2026-09-10", "B 2026-09-08/2026-09-09", "B 2026-09-15/2026-09-16"],
    ),
    "so many times of a phrase": (
        "Date,Event,Repeat,No. of times\n7 Sep 2026,A,Mon and Wed,3", [],
        ["A 2026-09-07/2026-09-08", "A 2026-09-09/2026-09-10", "A 2026-09-14/2026-09-15"],
    ),
    "a running time is a length": (
        "Date,Event,Run time\n12 Sep 2026 19:30,Film,1h 50", [], ["Film 2026-09-12T19:30/2026-09-12T21:20"],
    ),
    "how often, on the weekday of the row": (
        "Class,Day,Time,Frequency\nKnots,Tuesday,9:00-10:00,weekly\nSails,Wednesday,9:00-10:00,fortnightly", WEEKS,
        ["Knots 2026-09-08T09:00/2026-09-08T10:00", "Knots 2026-09-15T09:00/2026-09-15T10:00", "Knots 2026-09-22T09:00/2026-09-22T10:00",
         "Sails 2026-09-09T09:00/2026-09-09T10:00", "Sails 2026-09-23T09:00/2026-09-23T10:00"],
    ),
    "so many, on the weekday of the row": (
        "Class,Day,Time,No. classes\nKnots,Tuesday,9:00-10:00,2", WEEKS,
        ["Knots 2026-09-08T09:00/2026-09-08T10:00", "Knots 2026-09-15T09:00/2026-09-15T10:00"],
    ),
    "not on, and also on": (
        "Class,Day,Time,Not on,Also on\nKnots,Tuesday,9:00-10:00,15 Sept,19 Sept", WEEKS,
        ["Knots 2026-09-08T09:00/2026-09-08T10:00", "Knots 2026-09-19T09:00/2026-09-19T10:00", "Knots 2026-09-22T09:00/2026-09-22T10:00"],
    ),
    "every, in the heading": (
        "Date,Event,Every\n7 Sep 2026,A,month\n9 Sep 2026,B,2 weeks", ["--until", "2026-10-08"],
        ["A 2026-09-07/2026-09-08", "A 2026-10-07/2026-10-08", "B 2026-09-09/2026-09-10", "B 2026-09-23/2026-09-24", "B 2026-10-07/2026-10-08"],
    ),
    "a year in a column of its own": ("Event,Date,Year\nA,7 Sep,2026\nB,8 Jan,2027", [], ["A 2026-09-07/2026-09-08", "B 2027-01-08/2027-01-09"]),
    "dates in columns that differ by a number": (
        "Event,Date 1,Date 2,Time\nA,7 Sep 2026,14 Sep 2026,9am\nB,8 Sep 2026,,10am", [],
        ["A 2026-09-07T09:00/2026-09-07T10:00", "A 2026-09-14T09:00/2026-09-14T10:00", "B 2026-09-08T10:00/2026-09-08T11:00"],
    ),
    "a class every week, with its length and without an end": (
        "Class,Day,Start,Duration,First day,Last day\nKnots,Mon,18:00,90 min,7 Sep 2026,14 Sep 2026", [],
        ["Knots 2026-09-07T18:00/2026-09-07T19:30", "Knots 2026-09-14T18:00/2026-09-14T19:30"],
    ),
    "until when it repeats, as the remedy says": (
        "Date,Event,Repeats,Repeat until,Start time\n7 Sep 2026,A,Weekly,14 Sep 2026,6pm", ["--column", "Repeat until=end-date"],
        ["A 2026-09-07T18:00/2026-09-07T19:00", "A 2026-09-14T18:00/2026-09-14T19:00"],
    ),
    "until when it repeats, in a column of its own": (
        "Date,Event,Repeats,Repeat until,Start time\n7 Sep 2026,A,fortnightly,14 Sep,6pm\n8 Sep 2026,B,,,7pm", [],
        ["A 2026-09-07T18:00/2026-09-07T19:00", "B 2026-09-08T19:00/2026-09-08T20:00"],
    ),
    "from its first day on, to the end of all": (
        "Class,Day,Time,First day\nKnots,Wednesday,9:00-10:00,2026-09-11", ["--until", "2026-09-24"],
        ["Knots 2026-09-16T09:00/2026-09-16T10:00", "Knots 2026-09-23T09:00/2026-09-23T10:00"],
    ),
    "every second week from a Sunday on": (
        "Class,Day,Time,First day,Repeat\nKnots,Thursday,9:00-10:00,2026-09-06,fortnightly", ["--until", "2026-09-25"],
        ["Knots 2026-09-10T09:00/2026-09-10T10:00", "Knots 2026-09-24T09:00/2026-09-24T10:00"],
    ),
    "a last day within the first week": (
        "Class,Day,Time,First day,Last day,Repeat\nKnots,Thursday,9:00-10:00,2026-09-10,2026-09-12,weekly", [],
        ["Knots 2026-09-10T09:00/2026-09-10T10:00"],
    ),
    "starts and ends by weekdays": (
        "Class,Day,Starts,Ends,Time\nKnots,Wednesday,2026-09-07,2026-09-16,9:00-10:00", [],
        ["Knots 2026-09-09T09:00/2026-09-09T10:00", "Knots 2026-09-16T09:00/2026-09-16T10:00"],
    ),
    "two weekdays beside a frequency": (
        "Class,Day,Frequency,Time\nKnots,Mon & Wed,fortnightly,9:00-10:00\nSails,Friday,weekly,9:00-10:00", ["--from", "2026-09-07", "--until", "2026-09-18"],
        ["Knots 2026-09-07T09:00/2026-09-07T10:00", "Knots 2026-09-09T09:00/2026-09-09T10:00",
         "Sails 2026-09-11T09:00/2026-09-11T10:00", "Sails 2026-09-18T09:00/2026-09-18T10:00"],
    ),
    "so many weeks of two days": (
        "Class,Day,Time,Number of weeks\nKnots,Mon & Tue,9:00-10:00,1", ["--from", "2026-09-07", "--until", "2026-12-18"],
        ["Knots 2026-09-07T09:00/2026-09-07T10:00", "Knots 2026-09-08T09:00/2026-09-08T10:00"],
    ),
    "daily among weekdays": (
        "Class,Day,First day,Last day,Time\nA,Monday,2026-09-07,2026-09-14,9:00-10:00\nB,Daily,2026-09-07,2026-09-08,9:00-10:00", [],
        ["A 2026-09-07T09:00/2026-09-07T10:00", "A 2026-09-14T09:00/2026-09-14T10:00", "B 2026-09-07T09:00/2026-09-07T10:00", "B 2026-09-08T09:00/2026-09-08T10:00"],
    ),
    "plural, or with every": (
        "Class,Day,First day,Last day,Time\nA,Thursdays,2026-09-07,2026-09-17,9:00-10:00\nB,every Friday,2026-09-07,2026-09-17,9:00-10:00", [],
        ["A 2026-09-10T09:00/2026-09-10T10:00", "A 2026-09-17T09:00/2026-09-17T10:00", "B 2026-09-11T09:00/2026-09-11T10:00"],
    ),
    "minutes, and places at least": (
        "Date,Event,Time,Mins,Min,Bus\n7 Sep 2026,A,9:00,45,5,yes\n8 Sep 2026,A,9:00,90,6,no", [], ["A 2026-09-07T09:00/2026-09-07T09:45", "A 2026-09-08T09:00/2026-09-08T10:30"],
    ),
    "quarter past three is no 15 March": (
        "Club,Day,Time,Starts w/c,No of weeks\nKnots,Wednesday,3.15 - 4.15pm,14 Sept 2026,2\nSteam,Monday,3.15 - 4pm,21 Sept 2026,1", [],
        ["Knots 2026-09-16T15:15/2026-09-16T16:15", "Knots 2026-09-23T15:15/2026-09-23T16:15", "Steam 2026-09-21T15:15/2026-09-21T16:00"],
    ),
    "teams are no titles": ("Date,Details,Team\n7 Sep 2026,Steam,A\n8 Sep 2026,Loft,B", [], ["Steam 2026-09-07/2026-09-08", "Loft 2026-09-08/2026-09-09"]),
    "two days of a fair": (
        "Event,Day,Date,End date\nFair,Fri & Sat,2026-09-11,2026-09-12\nGala,Sunday,2026-09-20,\nRow,Sunday,2026-09-27,", [],
        ["Fair 2026-09-11/2026-09-13", "Gala 2026-09-20/2026-09-21", "Row 2026-09-27/2026-09-28"],
    ),
    "classes that repeat are the titles, beside lofts": (
        "Course,Evening,Time,Begins,No. of weeks,Loft\nKnots,Tuesdays,7-9pm,22 Sept 2026,1,Loft 2\nSails,Thursdays,7-9pm,24 Sept 2026,1,Shed 4", [],
        ["Knots 2026-09-22T19:00/2026-09-22T21:00", "Sails 2026-09-24T19:00/2026-09-24T21:00"],
    ),
    "the days of a fair": (
        "Event,Day,Date,End date\nFair,Sat-Sun,2026-09-12,2026-09-13\nGala,Saturday,2026-09-19,\nRow,Sunday,2026-09-20,", [],
        ["Fair 2026-09-12/2026-09-14", "Gala 2026-09-19/2026-09-20", "Row 2026-09-20/2026-09-21"],
    ),
    "a journey leaves first": (
        "Leg,Depart,Arrive,Date\nOslo,08:10,11:45,12 Sept 2026", [], ["Oslo 2026-09-12T08:10/2026-09-12T11:45"],
    ),
    "a journey of several days": (
        "Trip,Departure,Arrival\nOslo,12/09/2026,13/09/2026\nBergen,19/09/2026,20/09/2026", [],
        ["Oslo 2026-09-12/2026-09-14", "Bergen 2026-09-19/2026-09-21"],
    ),
    "a visit whose end stands first": (
        "Group,Leaves,Arrives,Date\nA,20:00,9:00,12 Sept 2026", [], ["A 2026-09-12T09:00/2026-09-12T20:00"],
    ),
    "first and last of one kind": (
        "Hirer,Hire start date,Hire end date\nChoir,14/09/2026,18/09/2026", [], ["Choir 2026-09-14/2026-09-19"],
    ),
    "first and last, and a day of its own": (
        "Show,On view from,On view until,Opening\nKeels,14/09/2026,18/09/2026,13/09/2026", [],
        ["Keels 2026-09-14/2026-09-19", "Keels: Opening 2026-09-13/2026-09-14"],
    ),
    "booking is before the event": (
        "Course,Booking from,Booking until,Held on\nSteam,1 Sep 2026,20 Sep 2026,3 Oct 2026", [],
        ["Steam 2026-10-03/2026-10-04", "Steam: Booking from 2026-09-01/2026-09-02", "Steam: Booking until 2026-09-20/2026-09-21"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", DATED)
def test_what_says_when_by_its_heading_and_its_cells(name: str, tmp_path: Path) -> None:
    text, options, expected = DATED[name]
    assert built(csv_file(tmp_path, text), *options) == expected


STOPPED = {
    "weeks off of a let": (
        "Hirer,Day,From,To,Start date,End date,Weeks off\nChoir,Monday,18:00,20:00,7 Sep 2026,14 Dec 2026,26 Oct",
        ["when a row is not held", '--column "Weeks off=except"'],
    ),
    "a count beside another end": (
        "Date,Event,Repeat,No. of weeks\n7 Sep 2026,A,weekly until 12 Dec,4", ["4 times by one cell", "Make them agree"],
    ),
    "a count beside a first and a last day": (
        "Class,Day,Time,First day,Last day,No. of weeks\nKnots,Mon,9:00-10:00,7 Sep 2026,14 Dec 2026,4", ["4 times by one cell", "make it 15"],
    ),
    "how several dates repeat": (
        "Service,First check,Next due,Every\nBoiler,3 Mar 2026,3 Mar 2027,12 months", ["nothing says which of its dates does", '--column "Next due=date"'],
    ),
    "hours from a first to a last day": ("Course,Start,Finish,Duration\nKnots,7 Sep 2026,28 Sep 2026,2 hours", ["a length of hours", "no start time"]),
    "a last day of a row that does not repeat": (
        "Date,Event,Repeats,End date,Start time\n7 Sep 2026,A,,14 Sep 2026,6pm", ["until a later day", "no end time"],
    ),
    "several stretches of a row": (
        "Event,Start date 1,End date 1,Start date 2,End date 2\nA,07/09/2026,09/09/2026,14/09/2026,15/09/2026", ["they differ"],
    ),
    "when a club begins, and not until when": (
        "Club,Day,Time,Starts\nKnots,Monday,3.30-4.30pm,14 Sept 2026\nSails,Tuesday,4-5pm,8 Sept 2026", ["nothing says until when", '--column "Starts=date"'],
    ),
    "weeks, or one long event": (
        "Class,Day,First day,Last day\nKnots,Monday,7 Sep 2026,14 Dec 2026", ["every week, or one long event", "--set repeat=weekly or --spans whole"],
    ),
    "a weekday that is not the start's": ("Event,Day,Start\nKnots,Wednesday,2026-10-05 9:00", ["a Monday, not a Wednesday"]),
    "parts of days of the week": (
        "Class,Day,First day,Last day,Time\nA,Monday shift 1,2026-09-07,2026-09-28,9-10\nB,Tuesday shift 2,2026-09-07,2026-09-28,7-8pm", ["“Day” may say when", "“Monday shift 1”"],
    ),
    "in and out, one of them in words": (
        "Boat,In,Out,Slip\nHeron,Mon 7/9 0800,Fri 11/9 1700,1\nPlover,Mon 14/9 0800,Wed 16/9 1200,2\nDunlin,14/9 pm,18/9 am,1\nTern,21/9,,3",
        ['--column "In=date"', '--column "Out=end-date"'],
    ),
    "no weekday among them": (
        "Class,Day,First day,Last day,Time\nA,Monday,2026-09-07,2026-09-28,9-10\nB,,2026-09-07,2026-09-28,9-10", ["row 3", "has no weekday as the others"],
    ),
    "two weekdays of one date": (
        "Class,Day,Date,Time\nA,Monday,2026-09-07,9-10\nB,Tuesday,2026-09-08,9-10\nC,Sunday,2026-09-13,9-10\nD,Monday,2026-09-14,9-10\nE,Mon or Wed,2026-09-14,9-10",
        ["row 6", "“Mon or Wed” is not one weekday"],
    ),
    "no end of a season": ("Class,Day,Time,Season end\nKnots,Monday,9-10,2026-10-12", ["until when a row is held", "Season end=end-date"], *WEEKS),
    "the last day twice": (
        "Class,Day,Time,Repeat,Repeat until\nKnots,Monday,9-10,weekly 3 times,2026-09-21", ["says twice where its repeat ends"], *WEEKS,
    ),
    "a count of weeks beside a shorter stretch": (
        "Class,Day,Time,First day,Last day,Number of weeks\nKnots,Mon & Tue,9:00-10:00,2026-09-07,2026-09-15,3", ["3 times by one cell", "make it 4"],
    ),
    "every month, on a weekday": ("Class,Day,Time,Frequency\nKnots,Tuesday,9-10am,monthly", ["does not go with the weekday"], *WEEKS),
    "two weekdays that differ": ("Class,Day,Time,Repeat\nKnots,Tuesday,9-10am,every Wednesday", ["does not go with the weekday"], *WEEKS),
    "two slots are no start and end": ("Date,Name,Slot 1,Slot 2\n7 Sep 2026,Ann,9:00,10:00\n8 Sep 2026,Bob,9:30,", ["“Slot 1” holds times"]),
    "moved by a remark": ("Date,Event,Notes\n8 Sep 2026,Steam,moved to 9 Sep\n9 Sep 2026,Loft,moved to Loft 2", ["row 2", "not held on its date"]),
    "postponed": ("Date,Event,Notes\n8 Sep 2026,Steam,Postponed until Friday\n9 Sep 2026,Loft,", ["not held on its date"]),
    "names under posts": ("Date,Gate,Bar,Tower\n12/09/2026,Ann,Bob,Cyd\n13/09/2026,Dee,Eve,Fay", ["--as roster"]),
    "another rate is no other date": ("Date,Event,Day date\n7 Sep 2026,A,8 Sep 2026", ["Both “Date” and “Day date”"]),
}  # fmt: skip


@pytest.mark.parametrize("name", STOPPED)
def test_stopped_with_what_settles_it(name: str, tmp_path: Path) -> None:
    text, says, *options = STOPPED[name]
    said = refused(csv_file(tmp_path, text), *options)
    assert [part for part in says if part not in said] == [], said


def test_halves_of_the_day_without_times_stay_as_words(tmp_path: Path) -> None:
    source, target = csv_file(tmp_path, "Exam,Date,Session\nKnots,17/09/2026,AM"), tmp_path / "out.ics"
    assert "names halves of the day" in nomarium("build", source, "-o", target).text
    assert "DESCRIPTION:Session: AM" in target.read_text("utf-8")


def test_names_of_sheets_say_what_their_rows_lack(tmp_path: Path) -> None:
    source, target = tmp_path / "yard.xlsx", tmp_path / "out.csv"
    with xlsxwriter.Workbook(str(source)) as book:
        for name in ("Slip 1", "Races", "Sheet3", "Autumn 2026"):
            sheet = book.add_worksheet(name)
            sheet.write_row(0, 0, ["Date", "Event"])
            sheet.write_row(1, 0, ["2026-09-07", f"Of {name}"])
    outcome = nomarium("build", source, "-o", target)
    rows = {row["Title"]: row for row in csv.DictReader(target.read_text("utf-8-sig").splitlines())}
    assert (rows["Of Slip 1"]["Categories"], rows["Of Slip 1"]["Location"]) == ("Slip 1", "Slip 1"), (
        outcome.text
    )
    assert [rows[f"Of {name}"]["Categories"] for name in ("Races", "Sheet3", "Autumn 2026")] == [
        "Races",
        "",
        "",
    ]
    assert "“Slip 1”, the sheet's name, is the category of its rows and its room" in outcome.text
