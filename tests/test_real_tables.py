"""Tables as schools, clubs and offices keep them: what a person reads at a glance, or a refusal that helps."""

from __future__ import annotations

from pathlib import Path
from textwrap import dedent

import pytest

from helpers import built, csv_file, nomarium, refused

READ: dict[str, tuple[str, list[str], list[str]]] = {
    "a full-width line that closes the school": (
        """
        Date,Time,Event,Room
        2027-04-12,9:00,Sail,Loft
        SCHOOL CLOSED Tuesday 13 April 2027,,,
        2027-04-14,9:00,Oars,Loft
        """, [],
        ["Sail 2027-04-12T09:00/2027-04-12T10:00 @ Loft", "SCHOOL CLOSED 2027-04-13/2027-04-14", "Oars 2027-04-14T09:00/2027-04-14T10:00 @ Loft"],
    ),
    "half term across the table": (
        """
        Date,Event,Where
        24/05/2027,Sail,Slip 1
        HALF TERM – Monday 31 May 2027 to Friday 4 June 2027,,
        07/06/2027,Oars,Slip 2
        """, [],
        ["Sail 2027-05-24/2027-05-25 @ Slip 1", "HALF TERM 2027-05-31/2027-06-05", "Oars 2027-06-07/2027-06-08 @ Slip 2"],
    ),
    "performances under one title, filled down": (
        """
        Show,Date,Curtain up
        The Keel,2027-04-12,18:30
        ,2027-04-13,18:30
        ,2027-04-14,14:00
        """, ["--fill-down", "Show"],
        [f"The Keel 2027-04-{day}T{time}/2027-04-{day}T{end}" for day, time, end in
         ((12, "18:30", "19:30"), (13, "18:30", "19:30"), (14, "14:00", "15:00"))],
    ),
    "afternoons of an after-school club": (
        """
        Date,Club,Time
        12/04/2027,Knots,3.45-4.45
        13/04/2027,Ropes,3:30 - 4:15
        """, [], ["Knots 2027-04-12T15:45/2027-04-12T16:45", "Ropes 2027-04-13T15:30/2027-04-13T16:15"],
    ),
    "school days that end in the afternoon": (
        """
        Date,Event,From,To
        2027-04-12,Open day,8.30,3.15
        2027-04-13,Governors,11,1
        """, [], ["Open day 2027-04-12T08:30/2027-04-12T15:15", "Governors 2027-04-13T11:00/2027-04-13T13:00"],
    ),
    "a leading zero is a 24-hour clock": (
        """
        Date,Event,Start,End
        2027-04-12,Night watch,01:30,03:00
        2027-04-13,Early watch,05:00,06:30
        """, [], ["Night watch 2027-04-12T01:30/2027-04-12T03:00", "Early watch 2027-04-13T05:00/2027-04-13T06:30"],
    ),
    "a heading that says pm": (
        "Date,Event,Start (pm),End (pm)\n2027-04-12,Club,2:00,3:15", [], ["Club 2027-04-12T14:00/2027-04-12T15:15"],
    ),
    "a heading that says UTC": (
        "Date,Event,Start (UTC),End (UTC)\n2027-04-12,Call,12:00,13:15", ["--timezone", "America/Halifax"], ["Call 2027-04-12T09:00/2027-04-12T10:15"],
    ),
    "hours, and not a time of day": (
        "Date,Event,Start,Hours\n2027-04-12,Club,12:00,2\n2027-04-13,Club,12:00,1.5", [],
        ["Club 2027-04-12T12:00/2027-04-12T14:00", "Club 2027-04-13T12:00/2027-04-13T13:30"],
    ),
    "days, and not a time of day": (
        "Start date,Course,Days\n2027-04-12,Knots,3\n2027-04-20,Camp,5", [], ["Knots 2027-04-12/2027-04-15", "Camp 2027-04-20/2027-04-25"],
    ),
    "a course of so many weeks": (
        """
        Course,Day,Start date,Time,No. of weeks
        Knots,Monday,2027-04-12,9:00-10:00,3
        """, [], [f"Knots 2027-04-{day}T09:00/2027-04-{day}T10:00" for day in (12, 19, 26)],
    ),
    "a weekly class with a first and a last day": (
        """
        Class,Day,First,Last,Start,End
        Ropes,Tue,2027-04-13,2027-04-27,18:00,19:00
        """, [], [f"Ropes 2027-04-{day}T18:00/2027-04-{day}T19:00" for day in (13, 20, 27)],
    ),
    "a holiday club each day": (
        """
        Club,Dates,Time
        Sail club,5-7 July 2027,10:00-15:00
        """, [], [f"Sail club 2027-07-0{day}T10:00/2027-07-0{day}T15:00" for day in (5, 6, 7)],
    ),
    "a regatta from one moment to another": (
        "Event,Start date,Start time,End date,End time\nRegatta,2027-07-05,10:00,2027-07-07,15:00", [], ["Regatta 2027-07-05T10:00/2027-07-07T15:00"],
    ),
    "years that run on from the first": (
        """
        Date,Event
        5 Sept 2026,A
        3 Oct,B
        9 Jan,C
        """, [], ["A 2026-09-05/2026-09-06", "B 2026-10-03/2026-10-04", "C 2027-01-09/2027-01-10"],
    ),
    "sessions and speakers": (
        """
        Date,Session,Talk,Speaker
        2027-04-12,AM,Knots,Quill
        2027-04-12,PM,Rope,Tern
        """, [], ["Knots 2027-04-12/2027-04-13", "Rope 2027-04-12/2027-04-13"],
    ),
    "numbers beside duties": (
        "Date,No,Duty\n2027-04-12,1,Finch on gate\n2027-04-13,2,Tern on slip", [],
        ["Finch on gate 2027-04-12/2027-04-13", "Tern on slip 2027-04-13/2027-04-14"],
    ),
    "yes and no under an event's heading": (
        "Date,Lunch event,What\n2027-04-12,yes,Sail\n2027-04-13,no,Rope", [], ["Sail 2027-04-12/2027-04-13", "Rope 2027-04-13/2027-04-14"],
    ),
    "dashes are no events": (
        "Date,Event\n2027-04-12,Sail\n2027-04-13,-\n2027-04-14,n/a\n2027-04-15,—", [], ["Sail 2027-04-12/2027-04-13"],
    ),
    "a conference and its deadline": (
        """
        Conference,Abstract deadline,Starts,Ends
        Rope Congress,2027-01-15,2027-05-03,2027-05-05
        """, [], ["Rope Congress 2027-05-03/2027-05-06", "Rope Congress: Abstract deadline 2027-01-15/2027-01-16"],
    ),
    "cut-offs and pay days": (
        "Period,Cut-off,Pay day\nApril,2027-04-20,2027-04-28", [],
        ["April: Cut-off 2027-04-20/2027-04-21", "April: Pay day 2027-04-28/2027-04-29"],
    ),
    "guests who arrive and leave": (
        "Guest,Leaves,Arrives\nQuill,2027-04-15,2027-04-12", [], ["Quill 2027-04-12/2027-04-16"],
    ),
    "terms and their half terms": (
        "Term,First day,Half term,Last day\nAutumn,2026-09-07,2026-10-26,2026-12-18", [],
        ["Autumn 2026-09-07/2026-12-19", "Autumn: Half term 2026-10-26/2026-10-27"],
    ),
    "footers": (
        """
        Date,Event
        2027-04-12,Sail
        ,
        Total,1
        Last updated 3 March 2027,
        """, [], ["Sail 2027-04-12/2027-04-13"],
    ),
    "a footer in the table's own columns": (
        "Event,Date\nSail,2027-04-12\nLast updated,2027-03-03", [], ["Sail 2027-04-12/2027-04-13"],
    ),
    "two unknown columns of times": (
        """
        Was,Datum,Beginnt um,Endet um
        A,12.04.2027,9:00,10:30
        B,13.04.2027,14:00,16:00
        """, [], ["A 2027-04-12T09:00/2027-04-12T10:30", "B 2027-04-13T14:00/2027-04-13T16:00"],
    ),
    "dates of a row added and left out, without a repeat": (
        'Title,Date,Also on,Except\nA,2027-04-12,"2027-04-14, 2027-04-16",2027-04-14', [], ["A 2027-04-12/2027-04-13", "A 2027-04-16/2027-04-17"],
    ),
    "a range of times after an ISO date": (
        "Title,When\nRope,2027-03-13 10:00-12:00", ["--timezone", "America/Halifax"], ["Rope 2027-03-13T10:00/2027-03-13T12:00"],
    ),
    "a late bar": (
        "Date,Event,Start,End\n2027-04-12,Ceilidh,8pm,1am", [], ["Ceilidh 2027-04-12T20:00/2027-04-13T01:00"],
    ),
    "a heading with brackets, as asked": (
        "Name,Name (full),Date\nK,Knots for all,2027-04-12", ["--column", "Name (full)=summary"], ["Knots for all 2027-04-12/2027-04-13"],
    ),
    "a programme of weeks, days and times": (
        """
        Week,Day,Start,End,Event
        1,Monday,9:00,10:00,Knots
        2,Tuesday,9:00,10:30,Rope
        """, ["--day-one", "2027-04-12"], ["Knots 2027-04-12T09:00/2027-04-12T10:00", "Rope 2027-04-20T09:00/2027-04-20T10:30"],
    ),
    "a day sheet whose title says the day": (
        """
        Launch day – Saturday 12 June 2027,,
        Time,Loft,Slip 1
        9:00,Rope work,Caulking
        10:30,-,Launch
        1:30,Prizes,free
        """, [],
        ["Rope work 2027-06-12T09:00/2027-06-12T10:30 @ Loft", "Caulking 2027-06-12T09:00/2027-06-12T10:30 @ Slip 1",
         "Launch 2027-06-12T10:30/2027-06-12T12:00 @ Slip 1", "Prizes 2027-06-12T13:30/2027-06-12T15:00 @ Loft"],
    ),
    "an evening for parents, a column a teacher": (
        """
        ,Mr Quill,Ms Tern
        16:00-16:10,Anna,Bo
        16:10-16:20,,Cy
        """, ["--set", "date=2027-06-12"],
        ["Anna (Mr Quill) 2027-06-12T16:00/2027-06-12T16:10", "Bo (Ms Tern) 2027-06-12T16:00/2027-06-12T16:10",
         "Cy (Ms Tern) 2027-06-12T16:10/2027-06-12T16:20"],
    ),
    "rounds of a league, each under its own title": (
        """
        Round 1 – Saturday 5 September 2026,,
        Home,Away,Time
        Keel,Rib,10:00
        Mast,Sail,11:00
        Round 2 – Saturday 12 September 2026,,
        Home,Away,Time
        Rib,Mast,10:00
        """, ["--title", "{Home} v {Away}"],
        ["Keel v Rib 2026-09-05T10:00/2026-09-05T11:00", "Mast v Sail 2026-09-05T11:00/2026-09-05T12:00",
         "Rib v Mast 2026-09-12T10:00/2026-09-12T11:00"],
    ),
    "leave, its days and who has it": (
        "Employee,Leave type,From,To,Days\nQuill,Holiday,2026-08-03,2026-08-14,12", ["--title", "{Employee}: {Leave type}"],
        ["Quill: Holiday 2026-08-03/2026-08-15"],
    ),
    "tasks whose status is none of a calendar's": (
        "Task,Owner,Start,End,Status\nCaulk,Quill,2026-09-07,2026-09-11,Done\nPaint,Tern,2026-09-14,2026-09-18,In progress", [],
        ["Caulk 2026-09-07/2026-09-12", "Paint 2026-09-14/2026-09-19"],
    ),
    "fixtures of a season": (
        """
        Fixture list 2026/27,,,
        Date,Opposition,Venue,KO
        Sat 5 Sep,Harbour,Home,2.30
        Sat 9 Jan,Cove,Home,2.15
        """, [], ["Harbour 2026-09-05T14:30/2026-09-05T15:30 @ Home", "Cove 2027-01-09T14:15/2027-01-09T15:15 @ Home"],
    ),
    "German evenings": (
        """
        Date;Uhrzeit;Veranstaltung;Ort
        Mo, 07.09.2026;18:00 - 20:00 Uhr;Elternabend;Aula
        Di, 08.09.2026;ab 19 Uhr;Chor;Halle
        """, [], ["Elternabend 2026-09-07T18:00/2026-09-07T20:00 @ Aula", "Chor 2026-09-08T19:00/2026-09-08T20:00 @ Halle"],
    ),
    "night shifts": (
        "Start,Finish,Name\n2026-09-07 22:00,06:00,Quill\n2026-09-08 14:00,22:00,Tern", [],
        ["Quill 2026-09-07T22:00/2026-09-08T06:00", "Tern 2026-09-08T14:00/2026-09-08T22:00"],
    ),
    "bookings of a room": (
        "Room,From,To,Booked by\nLoft,07/09/2026 09:00,07/09/2026 11:00,Quill\nLoft,14/09/2026 13:00,14/09/2026 15:00,Tern", [],
        ["Quill 2026-09-07T09:00/2026-09-07T11:00 @ Loft", "Tern 2026-09-14T13:00/2026-09-14T15:00 @ Loft"],
    ),
    "weeks and topics": (
        "w/c,Topic\n7 Sept 2026,Knots\n14 Sept 2026,Ropes", [], ["Knots 2026-09-07/2026-09-14", "Ropes 2026-09-14/2026-09-21"],
    ),
    "a regatta on two days, with times": (
        "Event,Date,Time\nRegatta,Sat 5th & Sun 6th Sept 2026,10am-4pm", [],
        ["Regatta 2026-09-05T10:00/2026-09-05T16:00", "Regatta 2026-09-06T10:00/2026-09-06T16:00"],
    ),
    "examinations, two columns for a title": (
        """
        Subject,Paper,Date,Start
        History,Paper 1,2027-05-10,09:00
        History,Paper 2,2027-05-10,13:30
        """, ["--title", "{Subject}: {Paper}"],
        ["History: Paper 1 2027-05-10T09:00/2027-05-10T10:00", "History: Paper 2 2027-05-10T13:30/2027-05-10T14:30"],
    ),
    "hours under parts of the day": (
        """
        Date,AM,PM,Evening
        Mon 7 Sep 2026,Induction,Tour of sheds,
        Tue 8 Sep 2026,Assessment 9-12,Sailing 2-4,Film: 7.30
        """, [],
        ["Induction (AM) 2026-09-07/2026-09-08", "Tour of sheds (PM) 2026-09-07/2026-09-08", "Assessment 2026-09-08T09:00/2026-09-08T12:00",
         "Sailing 2026-09-08T14:00/2026-09-08T16:00", "Film 2026-09-08T19:30/2026-09-08T20:30"],
    ),
    "hours of work in a drawn month, and figures that count": (
        """
        September 2026,,,,
        Mon,Tue,Wed,Thu,Fri
        ,1,2,3,4
        ,Sale 10-4,Rooms 9-12,Heron 3-2,Race 10-12
        7,8,9,10,11
        ,Launch at 10,,,
        14,15,16,17,18
        ,,,,
        """, [],
        ["Sale 2026-09-01T10:00/2026-09-01T16:00", "Rooms 9-12 2026-09-02/2026-09-03", "Heron 3-2 2026-09-03/2026-09-04",
         "Race 10-12 2026-09-04/2026-09-05", "Launch 2026-09-08T10:00/2026-09-08T11:00"],
    ),
    "a range over noon among times with am and pm": (
        """
        Event,When
        Welcome,"Fri, Sept 4, 2026 @ 5:30 PM"
        Exhibition,"Oct 1-2, 2026, 10-4 daily"
        """, [],
        ["Welcome 2026-09-04T17:30/2026-09-04T18:30", "Exhibition 2026-10-01T10:00/2026-10-01T16:00", "Exhibition 2026-10-02T10:00/2026-10-02T16:00"],
    ),
    "appointments that are dates": (
        """
        Appointment,Patient,Notes
        2026-09-14 09:00,Ana,new
        2026-09-14 09:20,Bo,
        """, [], ["Ana 2026-09-14T09:00/2026-09-14T10:00", "Bo 2026-09-14T09:20/2026-09-14T10:20"],
    ),
    "German dates under a heading that is a title elsewhere": (
        """
        Termin,Was,Wo
        Mo 14.09.2026 10:00,Elternrat,Werft 1
        Di 15.09.2026 18:30,Elternabend,Halle
        """, [], ["Elternrat 2026-09-14T10:00/2026-09-14T11:00 @ Werft 1", "Elternabend 2026-09-15T18:30/2026-09-15T19:30 @ Halle"],
    ),
    "weekdays but for one, in brackets": (
        """
        Course,Start,End,Days,Time
        Ropes,Tue 15 Sep 2026,Tue 29 Sep 2026,Tuesdays (not 22 Sep 2026),7-9pm
        """, [], ["Ropes 2026-09-15T19:00/2026-09-15T21:00", "Ropes 2026-09-29T19:00/2026-09-29T21:00"],
    ),
    "a title over its time and its place in a cell of a drawn month": (
        """
        September 2026,,,,
        Mon,Tue,Wed,Thu,Fri
        ,1,2,3,4
        ,"Assembly
        9am","9.30
        Chapel
        Sail loft","Trip
        Hall","Regatta
        10am-4pm
        Main slip
        Supper 7pm"
        7,8,9,10,11
        ,,,,
        14,15,16,17,18
        ,,,,
        """, [],
        ["Assembly 2026-09-01T09:00/2026-09-01T10:00", "Chapel 2026-09-02T09:30/2026-09-02T10:30 @ Sail loft", "Trip 2026-09-03/2026-09-04",
         "Hall 2026-09-03/2026-09-04", "Regatta 2026-09-04T10:00/2026-09-04T16:00 @ Main slip", "Supper 2026-09-04T19:00/2026-09-04T20:00"],
    ),
    "a title over its time in days down a month": (
        """
        September 2026,
        Sat 12,"Regatta
        10am–4pm
        Main slip"
        Sun 13,"Service, 9am"
        October 2026,
        Fri 30,Walk 6.30pm
        """, [], ["Regatta 2026-09-12T10:00/2026-09-12T16:00 @ Main slip", "Service 2026-09-13T09:00/2026-09-13T10:00", "Walk 2026-10-30T18:30/2026-10-30T19:30"],
    ),
    "hours in words below titles in a drawn month": (
        "Oktober 2026;;;;;;\nMo;Di;Mi;Do;Fr;Sa;So\n;;;1;2;3;4\n;;;\"Prüfung\n10 Uhr\";\"Ausflug\nganztägig\";;\n5;6;7;8;9;10;11\n;;;;;;\n12;13;14;15;16;17;18\n;;;;;;", [],
        ["Prüfung 2026-10-01T10:00/2026-10-01T11:00", "Ausflug 2026-10-02/2026-10-03"],
    ),
    "several times in a cell, each with its title": (
        """
        September 2026,,,,
        Mon,Tue,Wed,Thu,Fri
        ,1,2,3,4
        ,"Assembly 9am, Chapel 10am",Lunch 12.30-1.30 / Games 2pm,,
        7,8,9,10,11
        ,,,,
        14,15,16,17,18
        ,,,,
        """, [],
        ["Assembly 2026-09-01T09:00/2026-09-01T10:00", "Chapel 2026-09-01T10:00/2026-09-01T11:00",
         "Lunch 2026-09-02T12:30/2026-09-02T13:30", "Games 2026-09-02T14:00/2026-09-02T15:00"],
    ),
    "several times in a cell of a roster": (
        """
        ,Mon 12 Oct 2026,Tue 13 Oct 2026
        Apprentices,Knots 9-12 / Ropes 1-4,Hull 9-12
        Journeymen,Sails 9-12,"Sails 9-12
        Hull 1-4"
        """, [],
        ["Apprentices: Knots 2026-10-12T09:00/2026-10-12T12:00", "Apprentices: Ropes 2026-10-12T13:00/2026-10-12T16:00",
         "Apprentices: Hull 2026-10-13T09:00/2026-10-13T12:00", "Journeymen: Sails 2026-10-12T09:00/2026-10-12T12:00",
         "Journeymen: Sails 2026-10-13T09:00/2026-10-13T12:00", "Journeymen: Hull 2026-10-13T13:00/2026-10-13T16:00"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", READ)
def test_read_at_a_glance(name: str, tmp_path: Path) -> None:
    text, options, expected = READ[name]
    assert built(csv_file(tmp_path, dedent(text).strip("\n")), *options) == [
        one.replace(":00:00", ":00") for one in expected
    ]


HELPED: dict[str, tuple[str, list[str], list[str]]] = {
    "a title without a date": (
        "Date,Event,Room\n2027-04-12,Sail,Loft\n,Oars,Slip", ["row 3, column A “Date”", '--fill-down "Date"'], [],
    ),
    "a date without a title": (
        "Show,Date\nThe Keel,2027-04-12\n,2027-04-13", ["row 3, column A “Show”", '--fill-down "Show"'], [],
    ),
    "papers that their subject does not tell apart": (
        "Subject,Paper,Date\nHistory,Paper 1,2027-05-10\nHistory,Paper 2,2027-05-10", ['--title "{Subject}: {Paper}"'], [],
    ),
    "each day, or one long event": (
        "Event,Start date,End date,Start,End\nA,2027-04-12,2027-04-14,9:00,15:00", ["--spans daily or --spans whole"], ["--spans", "daily"],
    ),
    "a time that goes on for days without an end": (
        "Título,Fecha,Hora de inicio,Fecha de finalización\nA,12/04/2027,9:00,14/04/2027", ["no end time"], [],
    ),
    "a column of times that nothing says what it is": (
        "Date,Start,End,Event,Muster\n2027-04-12,9:00,10:00,A,8:30\n2027-04-13,9:00,10:00,B,8:45", ["column E “Muster”", '--column "Muster="'],
        ["--column", "Muster="],
    ),
    "two columns that only together are a title": (
        "Employee,Leave type,From,To\nQuill,Holiday,2026-08-03,2026-08-14", ['--title "{Employee}: {Leave type}"'],
        ["--title", "{Employee}: {Leave type}"],
    ),
    "an open day of which no date is known": (
        "Date,Event,Time\nTBC,Open day,\n2026-09-07,Knots,9:00", ["row 2, column A “Date”: “TBC”", "no date"], [],
    ),
    "a roster of one week": ("Name,Mon,Tue,Wed\nQuill,E,L,OFF\nTern,L,E,E", ["--day-one"], []),
    "a tide table, whose rows have no names": (
        "Tide table June 2027,,\nDate,High,Height\n12 June,10:42,4.5", ["--set summary=TITLE"], ["--set", "summary=High water"],
    ),
    "a day sheet of no day": (
        "Time,Loft,Slip 1\n9:00,Rope work,Caulking\n10:30,Oars,Launch", ["--set date=2027-04-12"], ["--set", "date=2027-06-12"],
    ),
    "a cell beside a day sheet": (
        "Time,Loft,Slip 1\n9:00,Rope work,Caulking,Who?\n10:30,Oars,Launch", ["row 2, column D: “Who?”", "outside the day sheet"], [],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", HELPED)
def test_refused_with_advice_that_works(name: str, tmp_path: Path) -> None:
    text, says, advice = HELPED[name]
    source = csv_file(tmp_path, text)
    said = refused(source, *(["--set", "date=2027-06-12"] if "beside a day sheet" in name else []))
    for part in says:
        assert part in said
    if advice:
        assert built(source, *advice)


def test_a_day_sheet_says_how_it_was_read(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Time,Loft,Slip 1\n9:00,Rope work,-\n1:30,Oars,Launch")
    outcome = nomarium("survey", source, "--set", "date=2027-06-12")
    for part in (
        "drawn as a day sheet",
        "the programme of 2027-06-12",
        "nothing happens",
        "1:30 in the afternoon",
    ):
        assert part in outcome.text


def test_milestones_have_the_year_above_and_are_blamed_at_their_own_cell(tmp_path: Path) -> None:
    text = "Meeting,Papers due,Date of meeting\nFinance,1 Sept,15 Sept\nBoard,1 March,15 March"
    assert built(csv_file(tmp_path, f"Committee dates 2026-27,,\n{text}")) == [
        "Finance 2026-09-15/2026-09-16",
        "Finance: Papers due 2026-09-01/2026-09-02",
        "Board 2027-03-15/2027-03-16",
        "Board: Papers due 2027-03-01/2027-03-02",
    ]
    (tmp_path / "other").mkdir()
    rows = [f"Board,2027-0{month}-01,2027-0{month}-15" for month in range(1, 9)]
    wrong = "\n".join([text.splitlines()[0], *rows, "Board,2027-02-30,2027-09-15"])
    assert "row 10, column B “Papers due”: “2027-02-30”" in refused(csv_file(tmp_path / "other", wrong))


@pytest.mark.parametrize("cell", ["Open 9am (doors 8.30)", '"10am\nRace 11am"'])
def test_a_drawn_cell_that_leaves_open_what_is_when_is_refused(cell: str, tmp_path: Path) -> None:
    said = refused(
        csv_file(
            tmp_path,
            f"September 2026,,,,\nMon,Tue,Wed,Thu,Fri\n,1,2,3,4\n,{cell},,Fair 2pm,\n7,8,9,10,11\n,,,,\n14,15,16,17,18\n,,,,",
        )
    )
    assert "The cell says more than one time." in said


def test_hours_without_a_heading_are_no_days(tmp_path: Path) -> None:
    said = refused(
        csv_file(
            tmp_path,
            "Room bookings for Saturday 10 October 2026,,\nShed 1,9-11,Scouts\n,11-1,Model club\nLoft,10-12.30,Yoga",
        )
    )
    assert "4 rows read = 4 rejected" in said
