"""Text and documents as sources: lines, tables in documents, mail."""

from __future__ import annotations

import zipfile
from email.message import EmailMessage
from pathlib import Path

import pytest

from helpers import built, events_in, nomarium, plain


def text_file(folder: Path, text: str, name: str = "dates.txt") -> Path:
    lines = text.strip("\n").splitlines()
    indent = min(len(line) - len(line.lstrip()) for line in lines if line.strip())
    path = folder / name
    path.write_text("\n".join(line[indent:] for line in lines) + "\n", "utf-8")
    return path


LINES: dict[str, tuple[str, list[str], list[str], list[str]]] = {
    # text, options, events, what is told
    "a newsletter with its own date, a closure, days of a range": (
        """
        SALTMARSH NEWSLETTER
        Issue 4 – 25 September 2026

        Dates for your diary
        • Thu 8 Oct – Parents' evening, 6.30pm, Hall
        • Mon 12 Oct – Thanksgiving, school closed
        • 19–23 Oct – Fall break
        • Tue 5 Jan – Term starts
        """, [],
        ["Parents' evening 2026-10-08T18:30/2026-10-08T19:30 @ Hall", "Thanksgiving, school closed 2026-10-12/2026-10-13",
         "Fall break 2026-10-19/2026-10-24", "Term starts 2027-01-05/2027-01-06"],
        ["Days without a year are set between 2026-08-25 and 2027-08-24, by line 2: “Issue 4 – 25 September 2026”"],
    ),
    "a day's programme under its title, on a clock of twelve hours": (
        """
        OPEN DAY PROGRAMME
        Saturday 26 September 2026

        09.30  Doors open
        11.45 – 12.30  Launch of Heron, Main slip
        12.30 – 1.30   Lunch
        1.30 – 3.00    Workshops
        """, [],
        ["Doors open 2026-09-26T09:30/2026-09-26T11:45", "Launch of Heron 2026-09-26T11:45/2026-09-26T12:30 @ Main slip",
         "Lunch 2026-09-26T12:30/2026-09-26T13:30", "Workshops 2026-09-26T13:30/2026-09-26T15:00"],
        ["Times under one date run forward through the day: 12.30 – 1.30, 1.30 – 3.00 in the afternoon"],
    ),
    "the school year in the title, columns apart by spaces": (
        """
        ROWING FIXTURES 2026-27
        Sat 5 Sept   v Gull Island      2.30pm
        Sat 9 Jan    v Lightkeepers     2.00pm
        """, [],
        ["v Gull Island 2026-09-05T14:30/2026-09-05T15:30", "v Lightkeepers 2027-01-09T14:00/2027-01-09T15:00"],
        ["by line 1: “ROWING FIXTURES 2026-27”"],
    ),
    "terms whose dates stand under their names": (
        """
        Autumn Term 2026
        Tuesday 8 September 2026 to Friday 18 December 2026
        Half term: Monday 26 October to Friday 30 October 2026
        """, [],
        ["Autumn Term 2026 2026-09-08/2026-12-19", "Half term 2026-10-26/2026-10-31"], [],
    ),
    "courses that are held weekly": (
        """
        Evening classes
        Knots for beginners: Mondays 6-8pm from 5 October 2026 for 2 weeks, Loft 2
        Sail repair: Wednesdays 7-9pm, 7 October – 14 October 2026, Shed 4
        Mon 26 Oct to Tue 27 Oct 2026, 9am - 3.30pm daily: Holiday club
        """, [],
        ["Knots for beginners 2026-10-05T18:00/2026-10-05T20:00 @ Loft 2", "Knots for beginners 2026-10-12T18:00/2026-10-12T20:00 @ Loft 2",
         "Sail repair 2026-10-07T19:00/2026-10-07T21:00 @ Shed 4", "Sail repair 2026-10-14T19:00/2026-10-14T21:00 @ Shed 4",
         "Holiday club 2026-10-26T09:00/2026-10-26T15:30", "Holiday club 2026-10-27T09:00/2026-10-27T15:30"],
        ["“every Monday for 2 weeks” is read as"],
    ),
    "an examination timetable, with lengths": (
        """
        EXAM TIMETABLE – January 2027
        Monday 11 January
          9:00am  Rigging Paper 1 (1h 30m)  Hall
          1:30pm  French Listening (45m)    Room 204
        Tuesday 12 January
          9:00am  Navigation (2h)           Hall
        """, [],
        ["Rigging Paper 1 2027-01-11T09:00/2027-01-11T10:30 @ Hall", "French Listening 2027-01-11T13:30/2027-01-11T14:15 @ Room 204",
         "Navigation 2027-01-12T09:00/2027-01-12T11:00 @ Hall"], [],
    ),
    "a rota under a month in its title": (
        "Café rota, November 2026\nSun 1: Robin & Max\nSun 8: Tobias, Ruth", [],
        ["Robin & Max 2026-11-01/2026-11-02", "Tobias, Ruth 2026-11-08/2026-11-09"], [],
    ),
    "days of a month, some of them ranges": (
        "September 2026\n1  Term starts\n8  Staff meeting 4pm\n24-25 School trip", [],
        ["Term starts 2026-09-01/2026-09-02", "Staff meeting 2026-09-08T16:00/2026-09-08T17:00", "School trip 2026-09-24/2026-09-26"], [],
    ),
    "labels before what they say": (
        """
        SPRING FAIR
        When: Saturday 17 April 2027, 11am – 3pm
        Where: Main slip

        Date: 3 October 2026
        Time: 10:00-12:00
        Event: Keel laying
        Place: Shed 4
        """, [],
        ["SPRING FAIR 2027-04-17T11:00/2027-04-17T15:00 @ Main slip", "Keel laying 2026-10-03T10:00/2026-10-03T12:00 @ Shed 4"], [],
    ),
    "numbers before lines, several days in one, an end without a start": (
        """
        1. 8 September 2026 – Induction
        2. 12, 13 and 14 October 2026 – Trials (weather permitting)
        3. Fri 18 & Sat 19 December 2026 – Regatta
        4. 21 December 2026 – Last day of term, finish 12 noon
        """, [],
        ["Induction 2026-09-08/2026-09-09", "Trials (weather permitting) 2026-10-12/2026-10-13", "Trials (weather permitting) 2026-10-13/2026-10-14",
         "Trials (weather permitting) 2026-10-14/2026-10-15", "Regatta 2026-12-18/2026-12-19", "Regatta 2026-12-19/2026-12-20",
         "Last day of term, finish 12 noon 2026-12-21/2026-12-22"], [],
    ),
    "a date, a time, a title and a place on a line each": (
        "Thursday, October 8, 2026\n7:00 PM - 9:00 PM\nOpen mic night\nThe Loft Café, 12 Water Street", [],
        ["Open mic night 2026-10-08T19:00/2026-10-08T21:00 @ The Loft Café, 12 Water Street"], [],
    ),
    "a letter dated below its close, and words that are no place": (
        """
        Dear families,

        - Monday 12 October: school closed (Thanksgiving)
        - Thursday 22 and Friday 23 October: conferences, 3:30–6:30pm
        - Fri 5 March: Dance, 9pm–late, Loft 2
        - Interviews: week of 11 January

        Kind regards,
        P. Finch
        28 September 2026
        """, [],
        ["school closed (Thanksgiving) 2026-10-12/2026-10-13", "conferences 2026-10-22T15:30/2026-10-22T18:30", "conferences 2026-10-23T15:30/2026-10-23T18:30",
         "Dance 2027-03-05T21:00/2027-03-05T22:00 @ Loft 2", "Interviews 2027-01-11/2027-01-18"],
        ["by line 10: “28 September 2026”"],
    ),
    "a label before the date, and who meets behind it": (
        "Season 2026/27\nRound 1: 12/09/2026 10:00 Saltmarsh vs Gull Island\nRound 2: 19/09/2026 11:00, Harbour, Main slip", [],
        ["Round 1: Saltmarsh vs Gull Island 2026-09-12T10:00/2026-09-12T11:00", "Round 2 2026-09-19T11:00/2026-09-19T12:00 @ Harbour"], [],
    ),
    "the school year below the list": (
        "Events\nFri 18 Sept: Movie night, 6:30-8:30pm, Gym\nSat 9 Jan: Fun run (ages 13+)\n2026-2027 school year", [],
        ["Movie night 2026-09-18T18:30/2026-09-18T20:30 @ Gym", "Fun run (ages 13+) 2027-01-09/2027-01-10"], [],
    ),
    "rows of dots, and brackets of other kinds": (
        "Closures 2026-27\nThanksgiving ............ October 12\nMarch break ...... March 15-19\nSunday 4 October 2026 [2pm]: Sail past\nMeeting notes 5 October 2026", [],
        ["Thanksgiving 2026-10-12/2026-10-13", "March break 2027-03-15/2027-03-20", "Sail past 2026-10-04T14:00/2026-10-04T15:00"], [],
    ),
    "labels among other lines": (
        "Events 2026-27\nThu 8 Oct – Parents' evening, 6.30pm, Hall\nSpring fair\nWhen: Saturday 17 April 2027, 11am – 3pm\nWhere: Main slip\n"
        "Date: 3 October 2026\nEvent: Keel laying\nFri 30 Oct: Disco", [],
        ["Parents' evening 2026-10-08T18:30/2026-10-08T19:30 @ Hall", "Spring fair 2027-04-17T11:00/2027-04-17T15:00 @ Main slip",
         "Keel laying 2026-10-03/2026-10-04", "Disco 2026-10-30/2026-10-31"], [],
    ),
    "a bulletin with a number before its date": (
        "BOATHOUSE BULLETIN no. 12, Friday 2 October 2026\nSat 10 Oct: slip clearing\nTue 13 & Tue 20 Oct: first aid, 7-9.30pm", [],
        ["slip clearing 2026-10-10/2026-10-11", "first aid 2026-10-13T19:00/2026-10-13T21:30", "first aid 2026-10-20T19:00/2026-10-20T21:30"], [],
    ),
    "minutes, and a meeting to come": (
        "Minutes of the Harbour Committee\nheld on Tuesday 15 September 2026 at 7pm in Loft 2\n\nNext meeting: Tuesday 20 October 2026, 7pm, Loft 2.\nThe meeting closed at 8.45pm.", [],
        ["Next meeting 2026-10-20T19:00/2026-10-20T20:00 @ Loft 2"], ["Passed over, for it says a time and no event: “The meeting closed at 8.45pm.”"],
    ),
    "lines in French, no weekday before the day": (
        "Réunion des parents : mardi 6 octobre 2026, 18h30, salle 204\nVacances : du 19 au 23 octobre 2026", [],
        ["Réunion des parents 2026-10-06T18:30/2026-10-06T19:30 @ salle 204", "Vacances 2026-10-19/2026-10-24"], [],
    ),
    "date, title, times, place": (
        """
        Events at the yard

        Fri 16 April 2027: Marketing webinar, 10–11am, Sail loft
        Sat 17 April 2027 - Open day (Slip 1)
        - Mon 19 April 2027, 7pm: Families' evening at the Rigging loft
        Bring your friends!
        """, [],
        ["Marketing webinar 2027-04-16T10:00/2027-04-16T11:00 @ Sail loft", "Open day 2027-04-17/2027-04-18 @ Slip 1",
         "Families' evening 2027-04-19T19:00/2027-04-19T20:00 @ Rigging loft"],
        ["line 3 has the date “Fri 16 April 2027”", "5 rows read = 3 events + 2 notes"],
    ),
    "a date over lines with times": (
        """
        Saturday 12 September 2026

        10.00 Welcome (Main slip)
        10.30 Tour of the yard
        12 noon Lunch
        1.15pm Launch, Slip 1
        Sunday 13 September 2026
        11.00 Races
        """, [],
        ["Welcome 2026-09-12T10:00/2026-09-12T10:30 @ Main slip", "Tour of the yard 2026-09-12T10:30/2026-09-12T12:00",
         "Lunch 2026-09-12T12:00/2026-09-12T13:15", "Launch 2026-09-12T13:15/2026-09-12T14:15 @ Slip 1",
         "Races 2026-09-13T11:00/2026-09-13T12:00"],
        ["lasts until the next line under the same date, if that is within four hours"],
    ),
    "a month over days, marks, quotations and a paragraph": (
        """
        ---
        date: 2026-01-01
        ---
        ## September 2026

        - **Sat 5**: Regatta, 10am, Slip 2
        - Sun 6th Prize giving
        > On Fri 18 September we said no.
        ```
        Mon 7 September 2026: code
        ```

        Choir rehearsal
        Tue 22 September 2026, 19:00-20:30
        Rigging loft
        """, [],
        ["Regatta 2026-09-05T10:00/2026-09-05T11:00 @ Slip 2", "Prize giving 2026-09-06/2026-09-07",
         "Choir rehearsal 2026-09-22T19:00/2026-09-22T20:30 @ Rigging loft"], ["3 events + 10 notes"],
    ),
    "dates over one line each": (
        """
        Monday 7 June 2027
        Inset day
        Tuesday 8 June 2027
        Sports day
        Wednesday 9 June 2027
        9.00 Race
        """, [], ["Inset day 2027-06-07/2027-06-08", "Sports day 2027-06-08/2027-06-09", "Race 2027-06-09T09:00/2027-06-09T10:00"], [],
    ),
    "halves of the day, and lengths": (
        """
        Monday 7 June 2027
        AM  Navigation 1
        PM  Rigging 1

        Tuesday 8 June 2027
        9.00  Navigation 2   1h 30
        1.30  Rigging 2      2h
        """, [],
        ["Navigation 1 (AM) 2027-06-07/2027-06-08", "Rigging 1 (PM) 2027-06-07/2027-06-08",
         "Navigation 2 2027-06-08T09:00/2027-06-08T10:30", "Rigging 2 2027-06-08T13:30/2027-06-08T15:30"], [],
    ),
    "another language": (
        """
        Termine Herbst 2026
        Montag, 7. September 2026: Schulbeginn
        Fr 18.09.2026, 19 Uhr: Elternabend, Aula
        """, [], ["Schulbeginn 2026-09-07/2026-09-08", "Elternabend 2026-09-18T19:00/2026-09-18T20:00 @ Aula"], [],
    ),
    "courses by shortened weekdays, with a day that they skip": (
        """
        Courses
        Level 1: 7 Oct - 4 Nov 2026, Weds 18:00-20:00 (no class 28 Oct)
        Yoga, Tue & Thu 6-7pm, 6 to 13 October 2026
        """, [],
        ["Level 1 2026-10-07T18:00/2026-10-07T20:00", "Level 1 2026-10-14T18:00/2026-10-14T20:00", "Level 1 2026-10-21T18:00/2026-10-21T20:00",
         "Level 1 2026-11-04T18:00/2026-11-04T20:00", "Yoga 2026-10-06T18:00/2026-10-06T19:00", "Yoga 2026-10-08T18:00/2026-10-08T19:00",
         "Yoga 2026-10-13T18:00/2026-10-13T19:00"], [],
    ),
    "dates listed behind a title, names of feasts, a half term, a deadline": (
        """
        Bins: 2, 16 and 30 October 2026
        Garden waste: 2 Nov, 7 Dec 2026, 4 Jan 2027
        Good Friday 26 March 2027
        Half term 26-30 Oct 2026
        Final balance by 30 April 2027
        """, [],
        ["Bins 2026-10-02/2026-10-03", "Bins 2026-10-16/2026-10-17", "Bins 2026-10-30/2026-10-31", "Garden waste 2026-11-02/2026-11-03",
         "Garden waste 2026-12-07/2026-12-08", "Garden waste 2027-01-04/2027-01-05", "Good Friday 2027-03-26/2027-03-27",
         "Half term 2026-10-26/2026-10-31", "Final balance 2027-04-30/2027-05-01"], [],
    ),
    "a place beside the date, under its title": (
        """
        3. Next meeting
        Tuesday 13 October 2026, 7.30 pm, staff room

        A. Whipping and splicing
        Saturday 3 October 2026, 9.30-12.30, Sail Loft. Tutor: Ada Quill.
        """, [],
        ["Next meeting 2026-10-13T19:30/2026-10-13T20:30 @ staff room", "A. Whipping and splicing 2026-10-03T09:30/2026-10-03T12:30 @ Sail Loft"], [],
    ),
    "a day and its time to another day and its time; between; hours of four figures": (
        """
        Water off Thu 15/10/2026 8am - Fri 16/10/2026 noon
        Inspection 14 Oct 2026 between 9 and 11
        Road closed, 0700 to 1000 on 15 October 2026
        """, [],
        ["Water off 2026-10-15T08:00/2026-10-16T12:00", "Inspection 2026-10-14T09:00/2026-10-14T11:00", "Road closed 2026-10-15T07:00/2026-10-15T10:00"],
        ["another day with a time are one long event"],
    ),
    "weekdays under their weeks": (
        """
        Week of Sept 7, 2026
          Tue   First day of school
          Wed   Picture day 9:00-11:30
        w/c 14 September 2026
          Mon: Meeting, 6:30 pm, library
        """, [],
        ["First day of school 2026-09-08/2026-09-09", "Picture day 2026-09-09T09:00/2026-09-09T11:30", "Meeting 2026-09-14T18:30/2026-09-14T19:30 @ library"], [],
    ),
    "the next day's weekday as a heading": (
        """
        Saturday 17 October 2026
        0900 Loading
        1500 Rigging
        Sunday
        1000 Race
        """, [],
        ["Loading 2026-10-17T09:00/2026-10-17T10:00", "Rigging 2026-10-17T15:00/2026-10-17T16:00", "Race 2026-10-18T10:00/2026-10-18T11:00"], [],
    ),
    "lengths beside halves of the day, and codes before titles": (
        """
        Monday 7 June 2027
        AM  Navigation 1 (1h30)

        R1 | Sat 12/6/2027 | Saltmarsh - Gull Island | 15:00
        """, [],
        ["Navigation 1 (1h30) (AM) 2027-06-07/2027-06-08", "R1: Saltmarsh - Gull Island 2027-06-12T15:00/2027-06-12T16:00"], [],
    ),
    "lines broken where the width ended are one sentence": (
        """
        Dear all,

        I am writing to let you know that the annual regatta of the school will be
        held on Saturday 12 September 2026 from 10am at the main slip, and that all
        families are welcome.

        The prizegiving takes place on Sunday 13 September 2026
        at 4pm in the hall. Please bring a cake.
        """, [],
        ["Annual regatta of the school 2026-09-12T10:00/2026-09-12T11:00 @ Main slip", "Prizegiving 2026-09-13T16:00/2026-09-13T17:00 @ Hall"], [],
    ),
    "days with their numbers under a week, and what goes on below them": (
        """
        LAUNCH WEEK, 7–11 June 2027

        Mon 7   Opening, 9am, Main Slip
        10–12 Rope workshop, Loft 2
        Tue 8   Varnish clinic 9.30-11.30 (Shed 4)
        Wed 9   Regatta
        """, [],
        ["LAUNCH WEEK 2027-06-07/2027-06-12", "Opening 2027-06-07T09:00/2027-06-07T10:00 @ Main Slip", "Rope workshop 2027-06-07T10:00/2027-06-07T12:00 @ Loft 2",
         "Varnish clinic 2027-06-08T09:30/2027-06-08T11:30 @ Shed 4", "Regatta 2027-06-09/2027-06-10"], [],
    ),
    "days of a month and of the next; a time below an event; a day nobody has": (
        """
        December 2026
        4 Fair
        10am-2pm
        12 ???
        21–Jan 1 Winter break
        28 – 3 Jan Office closed
        """, [],
        ["Fair 2026-12-04T10:00/2026-12-04T14:00", "??? 2026-12-12/2026-12-13", "Winter break 2026-12-21/2027-01-02", "Office closed 2026-12-28/2027-01-04"], [],
    ),
    "times over titles; hours of the house are no events, an open house is": (
        "Saturday 8 May 2027\nDoors 9.30\n10.00\nTalks\nLoft 2\nOpen house 11am-1pm\nOpen 9am-4pm\nGate (3.15-3.35pm): Osei", [],
        ["Talks 2027-05-08T10:00/2027-05-08T11:00 @ Loft 2", "Open house 2027-05-08T11:00/2027-05-08T13:00", "Gate 2027-05-08T15:15/2027-05-08T15:35 @ Osei"], [],
    ),
    "words that papers use of themselves, and events use, too": (
        """
        Report cards issued Friday 20 November 2026
        Sailing trip 21 November 2026 (subject to weather)
        Rain date: Sunday 22 November 2026
        Timetable issued 4 May 2026
        """, [],
        ["Report cards issued 2026-11-20/2026-11-21", "Sailing trip (subject to weather) 2026-11-21/2026-11-22", "Rain date 2026-11-22/2026-11-23"], [],
    ),
    "brackets stay whole, and quotations": (
        """
        Last day before break: Fri 18 Dec 2026 (noon dismissal)
        15 Oct 2026 – Maritime Museum (depart 08:45, return 15:30)
        Feb 11, 2027, 7pm: Mei Lin, "Junks, and the Pearl River" (NB: Hall, not Loft)
        Mon 14 Dec 2026   17:00   Meeting 4   Staff room (with supper)
        Week 2: July 12 - 13 2027    Beginners    9:00 am - 12:00 pm
        Fri 16 Oct 2026 – Last day of half term, finish at 2pm
        """, [],
        ["Last day before break (dismissal) 2026-12-18T12:00/2026-12-18T13:00", "Maritime Museum 2026-10-15T08:45/2026-10-15T15:30",
         "Mei Lin 2027-02-11T19:00/2027-02-11T20:00", "Meeting 4 2026-12-14T17:00/2026-12-14T18:00 @ Staff room",
         "Week 2: Beginners 2027-07-12T09:00/2027-07-12T12:00", "Week 2: Beginners 2027-07-13T09:00/2027-07-13T12:00", "Last day of half term, finish at 2pm 2026-10-16/2026-10-17"], [],
    ),
    "surnames before forenames are no titles before places": (
        "Thursday 5 November 2026\n4:00  Bauer, Otto\n4:10  Chen, Wei\n4:20  (break)\n4:30  Doyle, Nora", [],
        ["Bauer, Otto 2026-11-05T16:00/2026-11-05T16:10", "Chen, Wei 2026-11-05T16:10/2026-11-05T16:20", "(break) 2026-11-05T16:20/2026-11-05T16:30",
         "Doyle, Nora 2026-11-05T16:30/2026-11-05T17:30"], [],
    ),
    "minutes: what was, and what is next": (
        """
        2. Matters arising. The gate was mended on 22 September 2026.
        Date of next meeting: Tuesday 3 November 2026 at 7 pm in the Library.
        """, [],
        ["Date of next meeting 2026-11-03T19:00/2026-11-03T20:00 @ Library"], [],
    ),
    "an agenda: dates that its titles speak of": (
        """
        Agenda – Board meeting 24 September 2026

        18:00 Welcome
        18:05 Minutes of 25 June
        18:45 Dates of next meetings: 22 October, 26 November
        19:00 Close
        """, [],
        ["Welcome 2026-09-24T18:00/2026-09-24T18:05", "Minutes of 25 June 2026-09-24T18:05/2026-09-24T18:45",
         "Dates of next meetings: 22 October 2026-09-24T18:45/2026-09-24T19:00", "Close 2026-09-24T19:00/2026-09-24T20:00"], [],
    ),
    "weekdays under a range without a year, and times with dots": (
        """
        What's on this week (28 Sept – 2 Oct)
        Tue: Y6 trip to museum
        Wed: Flu vaccinations from 9.15am
        Thu: Harvest festival, 2pm in church
        """, ["--school-year", "2026:2027"],
        ["Y6 trip to museum 2026-09-29/2026-09-30",
         "Flu vaccinations 2026-09-30T09:15/2026-09-30T10:15", "Harvest festival 2026-10-01T14:00/2026-10-01T15:00 @ church"], [],
    ),
    "a poster: what, where, when": (
        "Harbour Choir\nCHRISTMAS CONCERT\nSt Brendan's Church\nSaturday 12th December 2026 at 7.30pm\n(doors 7pm)", [],
        ["CHRISTMAS CONCERT 2026-12-12T19:30/2026-12-12T20:30 @ St Brendan's Church"], [],
    ),
    "the head of an agenda, and papers that it speaks of": (
        """
        AGENDA
        Safety committee
        Monday, October 5, 2026
        3:30 p.m. – 5:00 p.m.
        Staff room

        1. Approval of the minutes of September 7
        2. Next meeting: November 2, same time
        """, [],
        ["Safety committee 2026-10-05T15:30/2026-10-05T17:00 @ Staff room", "Next meeting 2026-11-02T15:30/2026-11-02T17:00"], [],
    ),
    "a column of weekdays, and ranges with weekdays under a month": (
        """
        Monday     Jan 18 2027    9:00-11:00    Math 10
        Wednesday  Jan 20 2027                  Study day
        February 2027
        Mon 15 - Fri 19  Reading week
        """, [],
        ["Math 10 2027-01-18T09:00/2027-01-18T11:00", "Study day 2027-01-20/2027-01-21", "Reading week 2027-02-15/2027-02-20"], [],
    ),
    "a table whose columns are apart by spaces": (
        "SCHEDULE OF FINALS\n"
        "Day       Date         Time         Exam       Room\n"
        "Monday    Jan 18 2027  9:00-11:00   Math 10    Hall\n"
        "Monday    Jan 18 2027  13:00-15:00  French 11  Loft\n"
        "Wednesday Jan 20 2027               Study day\n"
        "\n"
        "Bring your own pens.", [],
        ["Math 10 2027-01-18T09:00/2027-01-18T11:00 @ Hall", "French 11 2027-01-18T13:00/2027-01-18T15:00 @ Loft", "Study day 2027-01-20/2027-01-21"],
        ["the columns under the headings of line 2", "5 rows read = 3 events + 2 notes"],
    ),
    "what no reader sees, over several lines": (
        "Dates\n<!-- of last year:\nSat 13 September 2025: Race\n-->\nSat 12 September 2026: Race", [], ["Race 2026-09-12/2026-09-13"], [],
    ),
    "short lines that go on, and a line that does not": (
        """
        The autumn regatta will be held on
        Saturday 12 September 2026 at the main slip.

        Bring your own lunch and a warm coat with you
        13 September 2026: Feast
        """, [],
        ["Autumn regatta 2026-09-12/2026-09-13 @ Main slip", "Feast 2026-09-13/2026-09-14"], [],
    ),
    "codes before titles, and the place behind them": (
        "R1 | Sat 12/6/2027 | 15:00 | Saltmarsh - Gull Island | Slip 2", [], ["R1: Saltmarsh - Gull Island 2027-06-12T15:00/2027-06-12T16:00 @ Slip 2"], [],
    ),
    "the head of a mail that another one passes on": (
        "Please note!\n\nFrom: Harbour office <office@harbour.example>\nDate: Fri, Sep 11, 2026 at 4:12 PM\nSubject: Works\nTo: Lena Moss\n\n"
        "Inspection: Tue 20 Oct 2026, 9-11am", [], ["Inspection 2026-10-20T09:00/2026-10-20T11:00"], [],
    ),
    "labels of an event are no head of a mail": (
        "Events\n\nSubject: Race\nDate: Sat 12 Sept 2026\nFrom: 10:00\nTo: 12:00\nPlace: Slip 1", [], ["Race 2026-09-12T10:00/2026-09-12T12:00 @ Slip 1"], [],
    ),
    "labels under a title that stands alone": (
        "Holiday club\n\nWhere: Main shed\nWhen: 26th to 27th October 2026\nTime: 9.00am to 3.30pm\nCost: £18 a day", [],
        ["Holiday club 2026-10-26T09:00/2026-10-26T15:30 @ Main shed", "Holiday club 2026-10-27T09:00/2026-10-27T15:30 @ Main shed"], [],
    ),
    "times alone, and the day on the command line": (
        "10.00 Welcome\n10.30 Tour", ["--set", "date=2026-09-17"],
        ["Welcome 2026-09-17T10:00/2026-09-17T10:30", "Tour 2026-09-17T10:30/2026-09-17T11:30"], [],
    ),
    "hours of four figures before what begins with a number": (
        "Saturday 12 September 2026\n0830 Briefing\n0900 1st race\n0940 2nd race\n1030 Tea", [],
        ["Briefing 2026-09-12T08:30/2026-09-12T09:00", "1st race 2026-09-12T09:00/2026-09-12T09:40",
         "2nd race 2026-09-12T09:40/2026-09-12T10:30", "Tea 2026-09-12T10:30/2026-09-12T11:30"], [],
    ),
    "days of a French month with their hours, from one to the other, and without a weekday": (
        "Calendrier – Septembre 2026\n\nmardi 1 : rentrée à 8 h 30\njeudi 3 : visite, 9h\ndu mercredi 9 au vendredi 11 : stage de voile\n30 : photos", [],
        ["rentrée 2026-09-01T08:30/2026-09-01T09:30", "visite 2026-09-03T09:00/2026-09-03T10:00",
         "stage de voile 2026-09-09/2026-09-12", "photos 2026-09-30/2026-10-01"], [],
    ),
    "ranges in words under a month": (
        "September 2026\n\nTue 1: First day\nWed 9 to Fri 11: Sailing course\nfrom Mon 14 to Wed 16: Exams", [],
        ["First day 2026-09-01/2026-09-02", "Sailing course 2026-09-09/2026-09-12", "Exams 2026-09-14/2026-09-17"], [],
    ),
    "German weekdays in two letters, of which Dutch has some": (
        "Plan 2026\n\nMo 07.09. 08:00–09:30 Knotenkunde (Werft 1)\nDi 08.09. 9 Uhr Holzkunde\nMi 09.09. 13:00–16:15 Segelmachen\nDo 10.09. ganztägig Ausflug\nFr 11.09. 10 Uhr Prüfung",
        ["--school-year", "2026:2027"],
        ["Knotenkunde 2026-09-07T08:00/2026-09-07T09:30 @ Werft 1", "Holzkunde 2026-09-08T09:00/2026-09-08T10:00",
         "Segelmachen 2026-09-09T13:00/2026-09-09T16:15", "Ausflug 2026-09-10/2026-09-11",
         "Prüfung 2026-09-11T10:00/2026-09-11T11:00"], [],
    ),
    "an hour alone that ends what is said": (
        "Sat 17 October 2026: All hands from 9\nSun 18 October 2026: Launch at 10\nThu 22 October 2026: Class of 9 visits", [],
        ["All hands 2026-10-17T09:00/2026-10-17T10:00", "Launch 2026-10-18T10:00/2026-10-18T11:00",
         "Class of 9 visits 2026-10-22/2026-10-23"], [],
    ),
    "hours alone from one to the other": (
        "Thu 24 Sept 2026: Parents' evening 6 till 8, hall\nSat 3 Oct 2026: Jumble sale (10 to 12)\nSun 4 Oct 2026: Story time, ages 5 till 8", [],
        ["Parents' evening 2026-09-24T18:00/2026-09-24T20:00 @ hall", "Jumble sale 2026-10-03T10:00/2026-10-03T12:00",
         "Story time, ages 5 till 8 2026-10-04/2026-10-05"], [],
    ),
    "all day before the date": (
        "All day Tue 20 October 2026: Work party\nWed 21 October 2026: Launch, 10am", [],
        ["Work party 2026-10-20/2026-10-21", "Launch 2026-10-21T10:00/2026-10-21T11:00"], [],
    ),
    "when over what and a place of two parts": (
        "6:30pm Thursday 17 September 2026\nOpen evening\nMain Hall, Saltmarsh School\n\n7pm Friday 2 October 2026\nHarvest supper\nSail loft. Bring a dish.", [],
        ["Open evening 2026-09-17T18:30/2026-09-17T19:30 @ Main Hall, Saltmarsh School", "Harvest supper 2026-10-02T19:00/2026-10-02T20:00"], [],
    ),
    "times of both days": (
        "Event: Boat fair\nDate: Sat 5 & Sun 6 December 2026\nTime: 10:00 - 16:00 both days", [],
        ["Boat fair 2026-12-05T10:00/2026-12-05T16:00", "Boat fair 2026-12-06T10:00/2026-12-06T16:00"], [],
    ),
    "pictures before the lines, hours as Americans shorten them, two days of a month in figures": (
        "Save the dates!\n\n✅ 9/12/2026 – Boat wash 9a–1p\n✅ 11/26–27 – Thanksgiving break\n⭐️ 12/4/2026 – Pancakes 8–10:30am", ["--school-year", "2026:2027"],
        ["Boat wash 2026-09-12T09:00/2026-09-12T13:00", "Thanksgiving break 2026-11-26/2026-11-28", "Pancakes 2026-12-04T08:00/2026-12-04T10:30"], [],
    ),
    "dots that lead from the day to what is on": (
        "Dates\n\nSeptember 2026\n8 ...... First day\n15 ..... Picture day\n24 . . . . Curriculum night (6:30 PM)", [],
        ["First day 2026-09-08/2026-09-09", "Picture day 2026-09-15/2026-09-16", "Curriculum night 2026-09-24T18:30/2026-09-24T19:30"], [],
    ),
    "a line that names the week of the days below it": (
        "Notices for the week beginning Sunday 6 September 2026\n\nSunday\n8am Service\n10am Walk\n\nMonday\n7.30pm Council, church room", [],
        ["Service 2026-09-06T08:00/2026-09-06T10:00", "Walk 2026-09-06T10:00/2026-09-06T11:00", "Council 2026-09-07T19:30/2026-09-07T20:30 @ church room"], [],
    ),
    "days behind a label": (
        "Event: Boat fair\nDate: Sat 5, Sun 6 and Mon 7 December 2026\nTime: 10-4", ["--school-year", "2026:2027"],
        ["Boat fair 2026-12-05T10:00/2026-12-05T16:00", "Boat fair 2026-12-06T10:00/2026-12-06T16:00", "Boat fair 2026-12-07T10:00/2026-12-07T16:00"], [],
    ),
    "times down and places across, apart by spaces": (
        "Open Day Saturday 10 October 2026\nTIME     SHED 1            LOFT           SLIP\n10:00    Steam bending     Sail making    Launch\n11:00    Caulking          -              Races",
        [], ["Steam bending 2026-10-10T10:00/2026-10-10T11:00 @ SHED 1", "Sail making 2026-10-10T10:00/2026-10-10T11:00 @ LOFT",
             "Launch 2026-10-10T10:00/2026-10-10T11:00 @ SLIP", "Caulking 2026-10-10T11:00/2026-10-10T12:00 @ SHED 1", "Races 2026-10-10T11:00/2026-10-10T12:00 @ SLIP"],
        ["Read as a drawing: the columns under line 2"],
    ),
    "times down in the evening, without a heading over them": (
        "Open evening Thursday 15 October 2026\n          Apprentices      Journeymen\n6.30      Welcome          Tour\n7.00      Tour             Welcome", [],
        ["Welcome 2026-10-15T18:30/2026-10-15T19:00 @ Apprentices", "Tour 2026-10-15T18:30/2026-10-15T19:00 @ Journeymen",
         "Tour 2026-10-15T19:00/2026-10-15T19:30 @ Apprentices", "Welcome 2026-10-15T19:00/2026-10-15T19:30 @ Journeymen"], [],
    ),
    "a programme with its rooms is no drawing": (
        "Saturday 10 October 2026\nTime     Session          Room\n10:00    Welcome          Hall\n11:00    Talk             Loft", [],
        ["Welcome 2026-10-10T10:00/2026-10-10T11:00 @ Hall", "Talk 2026-10-10T11:00/2026-10-10T12:00 @ Loft"], [],
    ),
    "an evening that goes on past seven": (
        "Thursday 15 October 2026\n6.00 Welcome\n6.30 Tour\n7.00 Questions", [],
        ["Welcome 2026-10-15T18:00/2026-10-15T18:30", "Tour 2026-10-15T18:30/2026-10-15T19:00", "Questions 2026-10-15T19:00/2026-10-15T20:00"],
        ["run forward through the day: 6.00, 6.30, 7.00 in the afternoon"],
    ),
    "weekdays behind the days of a month": (
        "Sept 2026\n3 Thu - Staff only\n14 Mon - Settling in 6-7pm\n23 Wed-25 Fri - Camp", [],
        ["Staff only 2026-09-03/2026-09-04", "Settling in 2026-09-14T18:00/2026-09-14T19:00", "Camp 2026-09-23/2026-09-26"], [],
    ),
    "Polish days without a year": (
        "Kalendarz 2026\n7 września (poniedziałek), 8:00 – rozpoczęcie\n17 września, godz. 17.00–18.30: zebranie, sala 3\n1–3 października: obóz", ["--school-year", "2026:2027"],
        ["rozpoczęcie 2026-09-07T08:00/2026-09-07T09:00", "zebranie 2026-09-17T17:00/2026-09-17T18:30 @ sala 3", "obóz 2026-10-01/2026-10-04"], [],
    ),
    "Norwegian months beside weekdays that Danish has, too": (
        "Frister 2026\nmandag 7. september kl. 08.30: Skolestart\nfredag 18. desember: Avslutning, kl. 12", ["--school-year", "2026:2027"],
        ["Skolestart 2026-09-07T08:30/2026-09-07T09:30", "Avslutning 2026-12-18T12:00/2026-12-18T13:00"], [],
    ),
    "Dutch ranges": (
        "Najaar 2026\nma 7 sept. 8.30 uur - Opening\ndo 1 t/m vr 2 oktober: Kamp\n19 t/m 23 oktober herfstvakantie", ["--school-year", "2026:2027"],
        ["Opening 2026-09-07T08:30/2026-09-07T09:30", "Kamp 2026-10-01/2026-10-03", "herfstvakantie 2026-10-19/2026-10-24"], [],
    ),
    "Italian and French lines that begin with the first of two days": (
        "Programma settembre 2026\nlunedì 7 settembre ore 8:30 Inizio\ngiovedì 17 settembre dalle 17 alle 19 Riunione dei genitori, Aula magna\ndal 21 al 25 settembre Settimana della vela", [],
        ["Inizio 2026-09-07T08:30/2026-09-07T09:30", "Riunione dei genitori 2026-09-17T17:00/2026-09-17T19:00 @ Aula magna", "Settimana della vela 2026-09-21/2026-09-26"], [],
    ),
    "hours from one to the other in French and Spanish": (
        "Agenda 2026\nlunes 7 de septiembre de 2026, 9:00 h. Inicio\nsábado 26 de septiembre de 2026 a las 11. Regata", [],
        ["Inicio 2026-09-07T09:00/2026-09-07T10:00", "Regata 2026-09-26T11:00/2026-09-26T12:00"], [],
    ),
    "open doors from one hour to the other": (
        "Programme 2026\nSam. 12 sept. 2026 : Portes ouvertes de 10h à 17h\nMer. 16 sept. 2026 18h30 – Conseil (salle B)", [],
        ["Portes ouvertes 2026-09-12T10:00/2026-09-12T17:00", "Conseil 2026-09-16T18:30/2026-09-16T19:30 @ salle B"], [],
    ),
    "a day that ends a line over one that begins with its weekday": (
        "Lofting workshop – Sunday, September 6, 2026\nSail workshop – Sunday, September 13\nMonday the 14th of September 2026: Harbour clean-up, Main slip", [],
        ["Lofting workshop 2026-09-06/2026-09-07", "Sail workshop 2026-09-13/2026-09-14", "Harbour clean-up 2026-09-14/2026-09-15 @ Main slip"], [],
    ),
    "weeks under a month": (
        "Jan 2027\nMon 4 INSET\nw/c 18 Mock exams", [], ["INSET 2027-01-04/2027-01-05", "Mock exams 2027-01-18/2027-01-25"], [],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", LINES)
def test_lines_are_read_and_what_is_taken_for_what_is_told(name: str, tmp_path: Path) -> None:
    text, options, events, told = LINES[name]
    source = text_file(tmp_path, text)
    ran = nomarium("build", source, "-o", tmp_path / "out.ics", *options)
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == events
    for part in told:
        assert part in ran.text


REFUSED = {
    "prose": ("Dear all,\nit will be open again on Saturday 12 September 2026 at 10.00, come early.\nSat 19 Sept 2026: Race", "line 2", "It is a sentence"),
    "several times on a line": ("Sat 12 Sept 2026: 10-12 Knots; 2-4 Sails", "line 1", "more than one date or time"),
    "several days on a line": ("Mon 7 (bring oars), Tue 8 and Thu 10 September 2026: Regatta", "line 1", "more than one date or time"),
    "rows of a table under a title": ("Mocks\nDate,Session,Paper,Length\nMon 11 Jan 2027,AM,Maths 1,1h30\nMon 11 Jan 2027,PM,French,45 min", "column B “Session”", "nothing says at what time “AM” and “PM” begin"),
    "a second time on a line": ("High water: 27 Oct 2026 06:12, 18:40", "line 1", "more than one date or time"),
    "hours of no day under a day with a title": ("Camp: July 12-16 2027 Navigation\nHours 9:00 - 3:30 daily", "line 2", "stands below an event with a date of its own"),
    "labels with nothing to call it": ("From: 14 September 2026 09:00", "line 1", "says when, and no line beside it says what"),
    "several dates on a line": ("Harbour meetings 2027\nJan 12, Feb 9, Mar 9", "line 2", "more than one date or time"),
    "a line that repeats": ("Every Monday from 7 September 2026, 6pm: rowing", "line 1", "again and again"),
    "weekdays that repeat": ("Sat 12 Sept 2026: Race\nTuesdays 7pm: choir practice", "line 2", "again and again"),
    "a date over several lines": ("Tuesday 8 June 2027:\nSports day\nand prize giving", "line 1", "The date stands alone"),
    "after midnight": ("Friday 11 September 2026\n19.30 Concert\n21.30 Disco\n00.30 Carriages", "line 4", "may be on the next day"),
    "not held": ("The regatta will not be held on Saturday 12 September 2026 this year.\nSat 19 Sept 2026: Race", "line 1", "It is a sentence"),
    "closed to some": ("School is closed to visitors on Monday 26 October 2026 all of the day.", "line 1", "It is a sentence"),
    "closed from a time": ("The office will be closed on Monday 26 October 2026 from 1 pm.", "line 1", "It is a sentence"),
    "two dates": ("The autumn term begins on Monday 7 September 2026 and ends on Friday 18 December 2026.", "line 1", "It is a sentence"),
    "a condition": ("If it rains on 12 September 2026 the open day will be held in the shed.", "line 1", "It is a sentence"),
    "a choir": ("The choir meets every Tuesday at 7pm in the loft.", "line 1", "It is a sentence"),
    "a weekday in a week": ("w/b 14 Sept 2026  Parents' evening Thurs 4-7", "line 1", "a weekday or a time in it"),
    "weekdays of a range": ("Camp: 5-30 October 2026, 9am-3pm, not on the Wed", "line 1", "again and again"),
    "a time of all": ("Fri 9 Oct 2026 – Quartet\nFri 6 Nov 2026 – Songs\nAll concerts 7.30pm in the loft unless stated.", "line 3", "events of other lines"),
    "for some weeks": ("Classes begin Thursday 1 October 2026 at 6.30pm and run for six weeks.", "line 1", "It is a sentence"),
    "two times in a sentence": ("The trip leaves at 8:15am on Thursday 8 October 2026 and returns at about 4pm.", "line 1", "It is a sentence"),
    "every second week": ("Sale – every second Monday from 21 September 2026", "line 1", "again and again"),
    "titles over or under": ("News of the term\n7 September 2026\nOpen day\nShed 3\n18 September 2026\nConcert", "line 2", "The date stands alone"),
    "times without a date": ("10.00 Welcome\n10.30 Tour", "", "--set date="),
    "below an event of another day": ("Sat 12 September 2026\n10.00 Start\nSun 13 Sept 2026: Regatta, 2pm\nTea in the hall 4pm", "line 4", "stands below an event"),
    "all from one time to another": ("5 Sept 2026: Ada & Tom\nAll from 9.45 to 12.30 at the pontoon.", "line 2", "events of other lines"),
    "several weekdays under a week": ("w/c 14 Sept 2026\nGate (8.15-8.35): Mon Osei, Tue Quill", "line 2", "on several weekdays"),
    "a time of nothing": ("Sat 8 May 2027\n9am\nSun 9 May 2027: Fair", "line 2", "a time, and not of what"),
    "more of when, and nothing of what": ("Tues 13 Oct 2026 after 3\nWed 14 Oct 2026: Race", "line 1", "no line beside it says what"),
    "the hour of the tide beside another": ("Lift-out: Saturday 17 October 2026, high water 11.42. All hands from 9.", "line 1", "more than one date or time"),
    "German that nothing but its weekdays show": (
        "am 15.9.2026: Elternabend\nDie Ferien beginnen am Montag, 12. Oktober und enden am Freitag, 23. Oktober.", "line 2", "It is a sentence",
    ),
    "a week by its number": ("Mon 7 Sept 2026: Tour\nWeek 44: Half term\nTue 3 Nov 2026: Back", "line 2", "names a week by its number"),
    "a week by its number in Swedish": ("tis 18/8 2026 Upprop\nv 44 Höstlov\nfre 18/12 2026 kl 11.00 Avslutning", "line 2", "names a week by its number"),
    "a weekday of a month": ("Mon 7 Sept 2026: Opening\nlast Sat in Oct: Regatta", "line 2", "none can be read in it"),
    "a part of a month": ("Mon 7 Sept 2026: Opening\nFirst week of October 2026: book week\nMid-November 2026: mocks", "line 2: “First week of October 2026", "none can be read in it"),
    "a weekday of which the date above has two": (
        "12–20 September 2026: Festival\nSaturday 9am Parade", "line 2", "begins with a weekday",
    ),
    "a number that may be an hour": ("Mon 7 Sept 2026\n9.30 Briefing\n11 Heat 2\n2pm Final", "line 3", "may be an hour"),
    "a length in metres is no date": ("HW 07:55 (3.9m)\nSat 5 June 2027: Race", "line 1", "neither it nor a line above it has a date"),
    "a sentence whose date has a full stop in it": (
        "der Elternabend findet am Donnerstag, dem 24. September 2026, um 19.30 Uhr in der Aula statt.\nMi 11.11.2026, 17:00 Uhr: Umzug", "line 1", "It is a sentence",
    ),
    "from one day to another, late": ("From Friday 2 October 2026 until Friday 18 December 2026 the library will open late.", "line 1", "It is a sentence"),
    "two things, and the time of the second": ("Fri 9 October 2026: Cake sale at break; disco 6pm", "line 1", "more than one date or time"),
    "a time of a programme shows nothing for another": ("w/c 5 October 2026\nWed Trip 9-3\nThu Jabs 10am\nw/c 12 October 2026\nWed Open evening 5-7", "line 5", "morning or in the afternoon"),
    "months without days": ("15/01/2027 Mock interviews\n09/2026   Induction", "line 2", "seems to hold a date"),
    "a sentence below the last of the dates": ("Open mornings\n\nTuesday 6 October 2026\nThursday 15 October 2026\n\nWe look forward to seeing you.", "line 3", "The date stands alone"),
    "a time with no title below it": ("Sat 8 May 2027\n10.00\n11.00 Lunch", "line 2", "a time, and not of what"),
    "a weekday and its day, and no month": ("* tues 6 oct 2026 dentist\n* weds 14th, 2ish - meet Kedge", "line 2", "seems to hold a date"),
    "two days with a stroke": ("* tues 6 oct 2026 dentist\n* w/e 24/25 oct boat show", "line 2", "seems to hold a date"),
    "a wrong weekday": ("Fri 17 April 2027: Open day", "line 1", "is a Saturday, not a Friday"),
    "no such day": ("Fri 16 April 2027: Race\nWed 31 April 2027: Race", "line 2", ""),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_lines_that_cannot_be_read_are_refused_by_number(name: str, tmp_path: Path) -> None:
    text, where, says = REFUSED[name]
    ran = nomarium("build", text_file(tmp_path, text), "-o", tmp_path / "out.ics")
    assert ran.status == 1 and where in ran.err and says in ran.err, ran.text


SENTENCES = {
    "The regatta will be held on Saturday 12 September 2026 at the main slip from 10am.": "Regatta 2026-09-12T10:00/2026-09-12T11:00 @ Main slip",
    "On Monday 14 September 2026 the keel of the ketch will be laid in the big shed at 2.30pm!": "Keel of the ketch 2026-09-14T14:30/2026-09-14T15:30 @ Big shed",
    "Join us for the Harvest Supper on Friday 9 October 2026, 7pm, in the sail loft.": "Harvest Supper 2026-10-09T19:00/2026-10-09T20:00 @ Sail loft",
    "You are warmly invited to the launch of the Tern on Sat 17 October 2026 at 11am at Slip 1.": "Launch of the Tern 2026-10-17T11:00/2026-10-17T12:00 @ Slip 1",
    "Our open day takes place on Saturday 12 September 2026, 10am to 4pm, at the yard.": "Open day 2026-09-12T10:00/2026-09-12T16:00 @ Yard",
    "There will be a concert in the chapel on Thursday 10 December 2026 at 7.30 pm.": "Concert 2026-12-10T19:30/2026-12-10T20:30 @ Chapel",
    "The parents' evening for Year 7 is on Tuesday 6 October 2026 between 4pm and 7pm.": "Parents' evening for Year 7 2026-10-06T16:00/2026-10-06T19:00",
    "Half term is from 26 October 2026 to 30 October 2026 this time.": "Half term 2026-10-26/2026-10-31",
    "Please return the consent form by Friday 4 September 2026 at the latest.": "Deadline: consent form 2026-09-04/2026-09-05",
    "The deadline for boat-building bursaries is 30 September 2026.": "Deadline: boat-building bursaries 2026-09-30/2026-10-01",
}  # fmt: skip


@pytest.mark.parametrize("sentence", SENTENCES)
def test_a_sentence_says_its_event(sentence: str, tmp_path: Path) -> None:
    source = text_file(
        tmp_path,
        f"Bring boots, for it is wet there. {sentence}\nTickets cost 12.50 each; ring 902 555 0123 to have one.",
    )
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [plain(event) for event in events_in(tmp_path / "out.ics")] == [SENTENCES[sentence]]


def test_a_letter_is_no_event_and_neither_are_minutes_or_the_past(tmp_path: Path) -> None:
    text = """
    Saltmarsh, 1 May 2027

    Dear families,
    the last regatta was held on 13 September 2026 in fine weather.
    The next regatta will be held on 12 June 2027 at the main slip.
    Doors open at 9am.

    Yours sincerely,
    R. Finch, Examinations, 2 May 2027
    """
    ran = nomarium("build", text_file(tmp_path, text), "-o", tmp_path / "out.ics")
    assert [plain(event) for event in events_in(tmp_path / "out.ics")] == [
        "Next regatta 2027-06-12/2027-06-13 @ Main slip"
    ], ran.text
    minutes = text_file(
        tmp_path,
        "Minutes of the boat committee, 3 September 2026\nThe next meeting will be on 1 October 2026 at 4pm in the loft.",
        "m.txt",
    )
    nomarium("build", minutes, "-o", tmp_path / "m.ics")
    assert [plain(event) for event in events_in(tmp_path / "m.ics")] == [
        "Next meeting 2026-10-01T16:00/2026-10-01T17:00 @ Loft"
    ]


def test_numbers_that_are_prices_or_telephones_are_no_times(tmp_path: Path) -> None:
    source = text_file(
        tmp_path,
        "Sat 12 Sept 2026: Regatta, 10am\nTickets cost $12.50 each\nPhone 902 555 0123\nThe course is 12.5 km",
    )
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0 and "1 event + 3 notes" in ran.out, ran.text


def test_a_table_with_bars_is_one_and_its_text_lines(tmp_path: Path) -> None:
    text = """
    # Fixtures

    | Date       | **Opponent** | Time  |
    |------------|:------------:|-------|
    | 12/09/2026 | Tidewater    | 14:00 |
    | 19/09/2026 | Harbour      | 10:30 |

    Sat 26 September 2026: Dinner, 7pm
    """
    ran = nomarium("build", text_file(tmp_path, text, "fixtures.md"), "-o", tmp_path / "out.ics")
    assert [plain(event) for event in events_in(tmp_path / "out.ics")] == [
        "Tidewater 2026-09-12T14:00/2026-09-12T15:00", "Harbour 2026-09-19T10:30/2026-09-19T11:30",
        "Dinner 2026-09-26T19:00/2026-09-26T20:00",
    ], ran.text  # fmt: skip
    assert "line 8 has the date" in ran.text


def test_text_is_asked_for_where_it_looks_like_a_table(tmp_path: Path) -> None:
    source = text_file(tmp_path, "Fri 16 April 2027: Marketing webinar, 10–11am, Sail loft", "dates.csv")
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 1
    assert nomarium("build", source, "-o", tmp_path / "out.ics", "--as", "text").status == 0


W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'
ODT = (
    'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" '
    'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"'
)
ROWS = [["Date", "Event", "Time", "Place"], ["Sat 12 September 2026", "Regatta", "10.00-12.30", "Slip 2"],
        ["Fri 18 September 2026", "Fair", "7pm", "Loft"]]  # fmt: skip
EVENTS = [
    "Regatta 2026-09-12T10:00/2026-09-12T12:30 @ Slip 2",
    "Fair 2026-09-18T19:00/2026-09-18T20:00 @ Loft",
]


def word_paragraph(text: str, extra: str = "") -> str:
    return f'<w:p><w:r>{extra}<w:t xml:space="preserve">{text}</w:t></w:r></w:p>'


def word_table(rows: list[list[str]]) -> str:
    cells = ("".join(f"<w:tc>{word_paragraph(cell)}</w:tc>" for cell in row) for row in rows)
    return f"<w:tbl>{''.join(f'<w:tr>{row}</w:tr>' for row in cells)}</w:tbl>"


def docx(folder: Path, body: str, head: str = "") -> Path:
    path = folder / "dates.docx"
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(
            "word/document.xml",
            f'<?xml version="1.0"?>{head}<w:document {W}><w:body>{body}</w:body></w:document>',
        )
        archive.writestr(
            "word/footnotes.xml",
            f"<w:footnotes {W}>{word_paragraph('Mon 7 Sept 2026: footnote')}</w:footnotes>",
        )
    return path


def odt(folder: Path, body: str) -> Path:
    path = folder / "dates.odt"
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.text")
        archive.writestr(
            "content.xml",
            f"<office:document-content {ODT}><office:body><office:text>{body}</office:text></office:body></office:document-content>",
        )
    return path


def odt_table(rows: list[list[str]]) -> str:
    cells = (
        "".join(f"<table:table-cell><text:p>{cell}</text:p></table:table-cell>" for cell in row)
        for row in rows
    )
    return (
        f"<table:table>{''.join(f'<table:table-row>{row}</table:table-row>' for row in cells)}</table:table>"
    )


def page(folder: Path, body: str) -> Path:
    path = folder / "dates.html"
    path.write_text(
        f"<!DOCTYPE html><html><head><title>Sat 5 Sept 2026</title></head><body>{body}</body></html>", "utf-8"
    )
    return path


def mail(folder: Path, text: str, kind: str = "text/plain", more: str = "") -> Path:
    path = folder / "dates.eml"
    head = "From: a@s.example\nTo: b@s.example\nSubject: Dates\nDate: Thu, 3 Sep 2026 10:00:00 +0000\nMIME-Version: 1.0\n"
    path.write_text(f"{head}{more}Content-Type: {kind}; charset=utf-8\n\n{text}", "utf-8")
    return path


HTML_ROWS = "".join(f"<tr>{''.join(f'<td>{cell}</td>' for cell in row)}</tr>" for row in ROWS)
UNSEEN = "<w:p><w:del><w:r><w:t>Mon 7 Sept 2026: gone</w:t></w:r></w:del></w:p>" + word_paragraph(
    "Tue 8 Sept 2026: hidden", "<w:rPr><w:vanish/></w:rPr>"
)
DOCUMENTS = {
    "a table in Word, deleted and hidden text": (docx, word_paragraph("Dates") + word_table(ROWS) + UNSEEN, EVENTS),
    "lines in Word": (docx, word_paragraph("Sat 12 September 2026: Regatta, 10.00-12.30, Slip 2") + word_paragraph("Fri 18 September 2026, 7pm: Fair, Loft"), EVENTS),
    "a table in OpenDocument, an annotation": (
        odt, f"<text:h>Dates</text:h><text:p>See<office:annotation><text:p>Mon 7 Sept 2026</text:p></office:annotation></text:p>{odt_table(ROWS)}", EVENTS,
    ),
    "a table in a page, menus and scripts": (page, f"<nav>1 May 2026</nav><script>'Mon 7 Sept 2026'</script><table>{HTML_ROWS}</table>", EVENTS),
    "spans in a page": (
        page, "<table><tr><th>Date</th><th>Event</th></tr><tr><td rowspan='2'>12 Sept 2026</td><td>Regatta</td></tr><tr><td>Fair</td></tr></table>",
        ["Regatta 2026-09-12/2026-09-13", "Fair 2026-09-12/2026-09-13"],
    ),
    "dates over all columns of a page's table": (
        page,
        "<table><tr><td colspan='3'>Sat 12 September 2026</td></tr><tr><td>09:00</td><td>Boats</td><td>Hall</td></tr><tr><td>10:00</td><td>Talk</td><td>Loft</td></tr>"
        "<tr><td colspan='3'>Sun 13 September 2026</td></tr><tr><td>10:00</td><td>Race</td><td>Slip 1</td></tr></table>",
        ["Boats 2026-09-12T09:00/2026-09-12T10:00 @ Hall", "Talk 2026-09-12T10:00/2026-09-12T11:00 @ Loft", "Race 2026-09-13T10:00/2026-09-13T11:00 @ Slip 1"],
    ),
    "cards: a day, and beside it a title, a time and a place": (
        page,
        "<table><tr><td>SEP<br>12<br>2026</td><td><b>Regatta</b><br>10:00 am - 4:00 pm<br>Main slip</td></tr><tr><td>SEP<br>19<br>2026</td><td>Open day<br>all day</td></tr>"
        "<tr><td>OCT<br>8<br>2026</td><td>Talk<br>Ida Holm<br>7:30 pm<br>Sail loft</td></tr></table>",
        ["Regatta 2026-09-12T10:00/2026-09-12T16:00 @ Main slip", "Open day 2026-09-19/2026-09-20", "Talk, Ida Holm 2026-10-08T19:30/2026-10-08T20:30 @ Sail loft"],
    ),
    "lists in a page": (page, "<h2>Sat 12 September 2026</h2><ul><li>10.00-12.30 Regatta (Slip 2)</li></ul>", EVENTS[:1]),
    "tables that only place text, within and beside tables of dates": (
        page,
        f"<table role='presentation'><tr><td><p>Dates</p><table>{HTML_ROWS}</table><p>Sun 20 September 2026: Feast</p></td></tr></table>",
        [*EVENTS, "Feast 2026-09-20/2026-09-21"],
    ),
    "dates over tables, places without a heading, and cells of two lines": (
        page,
        "<h2>Programme</h2><h3>Saturday 12 June 2027</h3><table><tr><td>09:00</td><td>Registration</td><td>Foyer</td></tr><tr><td>09:30–10:30</td>"
        "<td>Opening talk<br>I. Holm</td><td>Hall</td></tr></table><h3>Sunday 13 June 2027</h3><table><tr><td>10:00</td><td>Race</td><td>Slip 1</td></tr>"
        "<tr><td>16:30</td><td>Prizes</td><td>Hall</td></tr></table>",
        ["Registration 2027-06-12T09:00/2027-06-12T10:00 @ Foyer", "Opening talk, I. Holm 2027-06-12T09:30/2027-06-12T10:30 @ Hall",
         "Race 2027-06-13T10:00/2027-06-13T11:00 @ Slip 1", "Prizes 2027-06-13T16:30/2027-06-13T17:30 @ Hall"],
    ),
    "parts of the day with their hours across": (
        page,
        "<table><tr><th>Date</th><th>Morning (9:00)</th><th>Afternoon (13:30)</th></tr><tr><td>Mon 18 Jan 2027</td><td>Lofting</td><td>Rigging</td></tr>"
        "<tr><td>Tue 19 Jan 2027</td><td>Navigation</td><td></td></tr></table>",
        ["Lofting 2027-01-18T09:00/2027-01-18T10:00", "Rigging 2027-01-18T13:30/2027-01-18T14:30", "Navigation 2027-01-19T09:00/2027-01-19T10:00"],
    ),
    "dates over all columns of a table in Word": (
        docx,
        word_table([["Day"], ["09:00", "Boats", "Hall"], ["Next"], ["10:00", "Race", "Slip 1"]]).replace("Day", "Sat 12 September 2026").replace("Next", "Sun 13 September 2026")
        .replace("<w:tc>", '<w:tc><w:tcPr><w:gridSpan w:val="3"/></w:tcPr>', 1),
        ["Boats 2026-09-12T09:00/2026-09-12T10:00 @ Hall", "Race 2026-09-13T10:00/2026-09-13T11:00 @ Slip 1"],
    ),
    "a box in Word": (docx, word_table([["Dates\nSat 12 September 2026: Regatta, 10.00-12.30, Slip 2"]]), EVENTS[:1]),
    "the table of a mail, and what stands beside it": (
        lambda folder, text: mail(folder, text, "text/html"),
        f"<html><body><p>Sun 20 September 2026: Feast</p><table>{HTML_ROWS}</table></body></html>", [*EVENTS, "Feast 2026-09-20/2026-09-21"],
    ),
    "events that a page says to machines": (
        page,
        '<script type="application/ld+json">{"@graph": [{"@type": "SportsEvent", "name": "Regatta", "startDate": "2026-09-12T10:00", '
        '"endDate": "2026-09-12T12:30", "location": {"name": "Slip 2"}}]}</script><table><tr><td>12 Sept 2026</td><td>Regatta</td></tr></table>',
        EVENTS[:1],
    ),
    "the lines of a mail, and what it quotes": (
        mail, "Dear all,\n\nSat 12 September 2026: Regatta, 10.00-12.30, Slip 2\n\n> Mon 14 September 2026: old\n", EVENTS[:1],
    ),
    "the table of a mail": (lambda folder, text: mail(folder, text, "text/html"), f"<html><body><table>{HTML_ROWS}</table></body></html>", EVENTS),
    "the calendar of a mail": (
        lambda folder, text: mail(folder, text, "text/calendar"),
        "BEGIN:VCALENDAR\nVERSION:2.0\nBEGIN:VEVENT\nUID:1@s\nDTSTART:20260912T100000\nDTEND:20260912T123000\nSUMMARY:Regatta\nLOCATION:Slip 2\n"
        "END:VEVENT\nEND:VCALENDAR\n", EVENTS[:1],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", DOCUMENTS)
def test_documents_are_read_and_what_nobody_sees_is_no_event(name: str, tmp_path: Path) -> None:
    write, body, events = DOCUMENTS[name]
    ran = nomarium("build", write(tmp_path, body), "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == events, ran.text


def test_places_in_documents_are_named_as_people_see_them(tmp_path: Path) -> None:
    wrong = [ROWS[0], ["Sun 12 September 2026", "Regatta", "", ""]]
    ran = nomarium(
        "build",
        docx(tmp_path, word_table(ROWS) + word_paragraph("Then:") + word_table(wrong)),
        "-o",
        tmp_path / "o.ics",
    )
    assert ran.status == 1 and "dates.docx, table 2, row 2, column A “Date”" in ran.err
    ran = nomarium(
        "build",
        docx(tmp_path, word_paragraph("Dates") + word_paragraph("Sun 12 September 2026: Regatta")),
        "-o",
        tmp_path / "o.ics",
    )
    assert ran.status == 1 and "dates.docx, line 2" in ran.err and "is a Saturday, not a Sunday" in ran.err


def test_what_is_damaged_or_made_to_do_harm_is_refused(tmp_path: Path) -> None:
    entity = docx(tmp_path, word_table(ROWS), '<!DOCTYPE x [<!ENTITY a "aaaa">]>')
    ran = nomarium("build", entity, "-o", tmp_path / "o.ics")
    assert ran.status == 1 and "DOCTYPE" in ran.err and "Traceback" not in ran.text
    whole = docx(tmp_path, word_table(ROWS)).read_bytes()
    for cut in (len(whole) // 2, len(whole) - 30):
        (tmp_path / "cut.docx").write_bytes(whole[:cut])
        ran = nomarium("build", tmp_path / "cut.docx", "-o", tmp_path / "o.ics")
        assert ran.status == 1 and "Traceback" not in ran.text and not (tmp_path / "o.ics").exists()


def test_attachments_are_named_as_not_read(tmp_path: Path) -> None:
    message = EmailMessage()
    message["From"], message["To"], message["Subject"], message["Date"] = (
        "a@s.example",
        "b@s.example",
        "Dates",
        "Thu, 3 Sep 2026 10:00:00 +0000",
    )
    message.set_content("Sat 12 September 2026: Regatta")
    message.add_attachment(b"Date,Event", maintype="text", subtype="csv", filename="year.csv")
    (tmp_path / "dates.eml").write_bytes(message.as_bytes())
    ran = nomarium("build", tmp_path / "dates.eml", "-o", tmp_path / "o.ics")
    assert ran.status == 0 and "Not read: the attachments “year.csv”." in ran.out


def test_a_time_lasts_until_the_next_line_of_its_heading_and_of_no_other(tmp_path: Path) -> None:
    text = (
        "Sat 12 September 2026\n9am Welcome\n10am Trials\n9.30am Harbour tour\n\n"
        "Sun 13 September 2026: Regatta, 10am\nSun 13 September 2026: Crew supper, 5pm\n"
    )
    (tmp_path / "x.txt").write_text(text, "utf-8")
    assert [line.split(" (")[0] for line in built(tmp_path / "x.txt")] == [
        "Welcome 2026-09-12T09:00/2026-09-12T10:00",
        "Trials 2026-09-12T10:00/2026-09-12T11:00",
        "Harbour tour 2026-09-12T09:30/2026-09-12T10:30",
        "Regatta 2026-09-13T10:00/2026-09-13T11:00",
        "Crew supper 2026-09-13T17:00/2026-09-13T18:00",
    ]


def test_a_part_of_a_page_is_a_page(tmp_path: Path) -> None:
    (tmp_path / "x.html").write_text("<ul><li>12 Sep 2026 Regatta <em>10:00 - 16:00</em></li></ul>", "utf-8")
    assert built(tmp_path / "x.html") == ["Regatta 2026-09-12T10:00/2026-09-12T16:00"]


def test_days_of_a_mail_follow_its_date(tmp_path: Path) -> None:
    head = "From: Fern <f@saltmarsh.example>\nTo: o@saltmarsh.example\nSubject: Dates\nDate: Mon, 28 Sep 2026 09:00:00 -0300\n\n"
    (tmp_path / "x.eml").write_text(
        f"{head}Wed 30th - inspection, 9am sharp, all sheds\nFri 2nd - open evening 6-8pm\nSat 12 Dec - supper\n",
        "utf-8",
    )
    outcome = nomarium("build", tmp_path / "x.eml", "-o", tmp_path / "o.ics")
    assert "Days without a month are those after 28 September 2026" in outcome.text
    assert [*map(plain, events_in(tmp_path / "o.ics"))] == [
        "inspection 2026-09-30T09:00/2026-09-30T10:00 @ all sheds",
        "open evening 2026-10-02T18:00/2026-10-02T20:00",
        "supper 2026-12-12/2026-12-13",
    ]


def test_text_beside_what_a_page_says_to_machines_is_told(tmp_path: Path) -> None:
    said = '{"@context":"https://schema.org","@type":"Event","name":"Regatta","startDate":"2026-09-12T10:00"}'
    text = "<p>Sat 12 September 2026: Regatta, 10am</p><p>Sat 19 September 2026: Supper</p><p>Slip 7 was built in 1931</p>"
    (tmp_path / "x.html").write_text(
        f'<html><script type="application/ld+json">{said}</script><body>{text}</body></html>', "utf-8"
    )
    outcome = nomarium("build", tmp_path / "x.html", "-o", tmp_path / "o.ics")
    assert "1 event" in outcome.text
    assert "of its text, “Sat 19 September 2026: Supper” may be another one." in outcome.text


def test_a_message_whose_text_only_says_where_to_look_is_read_from_its_page(tmp_path: Path) -> None:
    message = EmailMessage()
    message["Subject"], message["From"], message["To"] = "Dates", "a@example.org", "b@example.org"
    message.set_content("Please open this message in a program that shows pages.")
    message.add_alternative(
        "<p>Fri 16 October 2026: Open day, 10-11am, Loft 1</p><p>See you there.</p>", subtype="html"
    )
    (tmp_path / "dates.eml").write_bytes(message.as_bytes())
    assert built(tmp_path / "dates.eml") == ["Open day 2026-10-16T10:00/2026-10-16T11:00 @ Loft 1"]
