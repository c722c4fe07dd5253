"""Letters, minutes, newsletters, agendas and programmes as people write them: what runs on from what stands above, who leads a
course and what it costs, and what a paper says of itself."""

from __future__ import annotations

from email.message import EmailMessage
from pathlib import Path

import pytest

from helpers import events_in, nomarium, plain
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.rows.datewithin import date_within


def paper(folder: Path, text: str, name: str = "dates.txt") -> Path:
    path = folder / name
    path.write_text(text, "utf-8")
    return path


def page(folder: Path, body: str) -> Path:
    return paper(folder, f"<html><body>{body}</body></html>", "dates.html")


def mail(folder: Path, text: str, sent: str = "Wed, 3 Feb 2027 09:00:00 -0400") -> Path:
    message = EmailMessage()
    message["From"], message["To"], message["Subject"], message["Date"] = "office@saltmarsh.example", "all@saltmarsh.example", "Dates", sent  # fmt: skip
    message.set_content(text)
    path = folder / "dates.eml"
    path.write_bytes(message.as_bytes())
    return path


SAID = {
    # text, events
    "a week of two months under a title of one": (
        "Rota for November 2026\n\nWeek of 30 November\n- Mon 30: Fair\n- Tue 1: Swim test",
        ["Fair 2026-11-30/2026-12-01", "Swim test 2026-12-01/2026-12-02"],
    ),
    "days of a later month under a month": (
        "February 2027\n\n10–12 March: Trip\n22 – 1 March: Away\nWed 3: Fair",
        ["Trip 2027-03-10/2027-03-13", "Away 2027-02-22/2027-03-02", "Fair 2027-02-03/2027-02-04"],
    ),
    "who leads a course below its name and a blank line": (
        "Evening courses\n\nKnots for Beginners\n\nTutor: B. Tiller\nWednesday 13 January 2027, 6.30–8.00 pm\nSail Loft\nFee $65\n",
        ["Knots for Beginners 2027-01-13T18:30/2027-01-13T20:00 @ Sail Loft"],
    ),
    "who leads a course between its name and its day": (
        "Celestial Navigation\nTutor: M. Quill\nTuesday 12 January 2027, 7.00–9.00 pm\nRoom 5\nFee: $120\n\nKnots\nWednesday 13 January 2027\nLed by: B. Tiller\n6.30–8.00 pm, Sail Loft\nCost $65",
        ["Celestial Navigation 2027-01-12T19:00/2027-01-12T21:00 @ Room 5", "Knots 2027-01-13T18:30/2027-01-13T20:00 @ Sail Loft"],
    ),
    "weeks from a day on": (
        "Knots: three weeks from Wednesday 13 January 2027, 6.30 pm – 8 pm, Sail Loft\nRigging, Fri 15 January 2027, 6pm-8pm (2 weeks), Loft 2",
        ["Knots 2027-01-13T18:30/2027-01-13T20:00 @ Sail Loft", "Knots 2027-01-20T18:30/2027-01-20T20:00 @ Sail Loft", "Knots 2027-01-27T18:30/2027-01-27T20:00 @ Sail Loft",
         "Rigging 2027-01-15T18:00/2027-01-15T20:00 @ Loft 2", "Rigging 2027-01-22T18:00/2027-01-22T20:00 @ Loft 2"],
    ),
    "days on which nothing is on": (
        "Week ahead\n\nMonday 8 March 2027\n- 8.30 Staff briefing\n- Fire practice\n\nTuesday 9 March\n\n- (nothing)\n\nThursday 11 March\n- No events today\n\n"
        "Fri 12 March: nothing planned\nSat 13 March: no fixture\nMon 15 March: Nothing but oars\nTue 16 March: no after-school clubs",
        ["Staff briefing 2027-03-08T08:30/2027-03-08T09:30", "Fire practice 2027-03-08/2027-03-09", "Nothing but oars 2027-03-15/2027-03-16", "no after-school clubs 2027-03-16/2027-03-17"],
    ),
    "a heading that breaks before its date": (
        "Notices for the week beginning Sunday\n7 March 2027\nMonday 8th – Knitting circle, 2 pm (Loft 3)\nSaturday 13th – Jumble sale, 10–12",
        ["Knitting circle 2027-03-08T14:00/2027-03-08T15:00 @ Loft 3", "Jumble sale 2027-03-13T10:00/2027-03-13T12:00"],
    ),
    "minutes with what was agreed and what is to be done": (
        "The launch will be on Saturday 20 March 2027 at 11.00 am at Slip 1. MQ to order bunting by 1 March 2027.\n\n"
        "It was agreed to hold the regatta on 12 June 2027. Entries close on 28 May 2027.\n\nNominations should reach the Secretary no later than 4 March 2027.",
        ["Launch 2027-03-20T11:00/2027-03-20T12:00 @ Slip 1", "Deadline: MQ to order bunting 2027-03-01/2027-03-02", "Regatta 2027-06-12/2027-06-13",
         "Deadline: Entries 2027-05-28/2027-05-29", "Deadline: Nominations 2027-03-04/2027-03-05"],
    ),
    "a letter that says when a school is closed": (
        "As you know, school will be closed for half term from Monday 15 to Friday 19 February 2027. Please note that the school will also be closed on "
        "Friday 12 March 2027 for staff training. On Monday 3 May 2027 the school will be closed.",
        ["School closed for half term 2027-02-15/2027-02-20", "School closed for staff training 2027-03-12/2027-03-13", "School closed 2027-05-03/2027-05-04"],
    ),
    "a notice of a meeting, its agenda and who signs it": (
        "NOTICE IS HEREBY GIVEN that the Annual General Meeting of the Boat Club will be held in the Main Loft on Thursday, 18 March 2027 at 7.30 p.m.\n\n"
        "1. Minutes of the AGM held on 19 March 2026\n2. Treasurer's report for the year to 31 December 2026\n\nLunch with the President, 20 March 2027\n\nA. Moss, Hon. Secretary, 8 February 2027",
        ["Annual General Meeting of the Boat Club 2027-03-18T19:30/2027-03-18T20:30 @ Main Loft", "Lunch with the President 2027-03-20/2027-03-21"],
    ),
    "a season whose dates stand first": (
        "Concert season\n\nSaturday 16 October 2027, 7.30pm\nSea Songs\nHarbour Singers, conductor M. Quill\nMain Loft\n\nSunday 14 November 2027, 3pm\nBrass on the Water\nSlip 1\nFree",
        ["Sea Songs 2027-10-16T19:30/2027-10-16T20:30 @ Main Loft", "Brass on the Water 2027-11-14T15:00/2027-11-14T16:00 @ Slip 1"],
    ),
    "a journey by the number and the weekday of its days": (
        "Trip to Lunenburg\nWed 10 – Fri 12 March 2027\n\nDay 1 – Wednesday\n08:00 Meet at the gate\n\nDay 2: Thursday\n09:00 Sailing",
        ["Trip to Lunenburg 2027-03-10/2027-03-13", "Meet at the gate 2027-03-10T08:00/2027-03-10T09:00", "Sailing 2027-03-11T09:00/2027-03-11T10:00"],
    ),
    "a report of what was, and what comes": (
        "Played on Saturday 6 February 2027 at the Harbour Field. The next match is on Saturday 13 February 2027 against Lunenburg, kick-off 2.15pm.\n\n"
        "We welcomed 40 visitors on 5 January 2027.\n\n- [ ] Order oars by 3 March 2027\n- [x] Book hall (done 1 Feb 2027)",
        ["Next match 2027-02-13T14:15/2027-02-13T15:15", "Order oars 2027-03-03/2027-03-04"],
    ),
    "a date behind its label over times behind theirs": (
        "Date: 22nd April 2027\nArrival: 9.30am\nTalk: 10.00am - 11.00am (Loft 2)\nLunch: 12.00",
        ["Arrival 2027-04-22T09:30/2027-04-22T10:00", "Talk 2027-04-22T10:00/2027-04-22T11:00 @ Loft 2", "Lunch 2027-04-22T12:00/2027-04-22T13:00"],
    ),
    "clubs by their weekdays, in weeks and not in others that a sentence says": (
        "Clubs run from Monday 8 February to Friday 5 March 2027 (not half term 15–19 February).\n\nMonday: Chess, 3.30–4.30, Loft 2\nThursday: Rowing, 3.30–5.00, Slip 1",
        ["Chess 2027-02-08T15:30/2027-02-08T16:30 @ Loft 2", "Chess 2027-02-22T15:30/2027-02-22T16:30 @ Loft 2", "Chess 2027-03-01T15:30/2027-03-01T16:30 @ Loft 2",
         "Rowing 2027-02-11T15:30/2027-02-11T17:00 @ Slip 1", "Rowing 2027-02-25T15:30/2027-02-25T17:00 @ Slip 1", "Rowing 2027-03-04T15:30/2027-03-04T17:00 @ Slip 1"],
    ),
    "days with weekdays of their own, shortened": (
        "INSET days: Tues 1 Sept 2026, Fri 27 Nov 2026, Mon 7 June 2027",
        ["INSET days 2026-09-01/2026-09-02", "INSET days 2026-11-27/2026-11-28", "INSET days 2027-06-07/2027-06-08"],
    ),
    "an invitation with its day and its time in words": (
        "The Journeymen's Graduation\n\non Friday, the twenty-fifth of June 2027\nat half past six in the evening\n\nMain Loft",
        ["The Journeymen's Graduation 2027-06-25T18:30/2027-06-25T19:30 @ Main Loft"],
    ),
    "times behind an article under a day, over another day": (
        "Mardi 8 septembre 2026\n\nde 9h à 10h Réunion des parents (Salle 2)\n\nSamedi 3 octobre 2026\n\nde 17h30 à 18h30 Visite du chantier (Salle 2)",
        ["Réunion des parents 2026-09-08T09:00/2026-09-08T10:00 @ Salle 2", "Visite du chantier 2026-10-03T17:30/2026-10-03T18:30 @ Salle 2"],
    ),
    "minutes in words": (
        "Dentist: Thurs 4 March 2027 at ten to three\nBus: Fri 5 March 2027 at twenty past four",
        ["Dentist 2027-03-04T14:50/2027-03-04T15:50", "Bus 2027-03-05T16:20/2027-03-05T17:20"],
    ),
    "days on which a club does not meet": (
        "Book club 2027\n4 March: Tar\n1 April: no meeting\n3 May: no classes",
        ["Tar 2027-03-04/2027-03-05", "no classes 2027-05-03/2027-05-04"],
    ),
    "days of a week that a line with its title names": (
        "Holiday club 5-9 April 2027\nMon - pirates (9.30-3.30)\nTue - swimming (9.30-12.30)",
        ["Holiday club 2027-04-05/2027-04-10", "pirates 2027-04-05T09:30/2027-04-05T15:30", "swimming 2027-04-06T09:30/2027-04-06T12:30"],
    ),
    "meetings in French, each with its room, under what they are": (
        "Réunions 2027 :\n- mercredi 13 janvier, 18 h (salle B)\n- mercredi 10 février, 18 h (salle B)",
        ["Réunions 2027 2027-01-13T18:00/2027-01-13T19:00 @ salle B", "Réunions 2027 2027-02-10T18:00/2027-02-10T19:00 @ salle B"],
    ),
    "a title that begins with a figure behind its day": (
        "Training, week of 15 March 2027\n\nMon 15  Steady row\nTue 16  6 x 500m, 6.30pm, harbour",
        ["Steady row 2027-03-15/2027-03-16", "6 x 500m 2027-03-16T18:30/2027-03-16T19:30 @ harbour"],
    ),
    "days of a German list with a full stop and a colon": (
        "Termine 2027\n- 3. Februar: Schwimmprüfung, 10.15 Uhr, Hafenbad\n- 5. März: Zeugnisse",
        ["Schwimmprüfung 2027-02-03T10:15/2027-02-03T11:15 @ Hafenbad", "Zeugnisse 2027-03-05/2027-03-06"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", SAID)
def test_a_paper_is_read_as_it_was_meant(name: str, tmp_path: Path) -> None:
    text, events = SAID[name]
    ran = nomarium("build", paper(tmp_path, text), "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == events, ran.text


REFUSED = {
    "a course of which all lines say who and how much": ("Fee: free\nSpeaker: Canon Moss\nThursday 14 January 2027, 7 pm", "The date stands alone"),
    "an exhibition of weeks": ("Exhibition of models: 10 weeks from Tuesday 12 January 2027, 10 am – 4 pm", "again and again"),
    "sessions from a day on": ("Tar: 6 sessions from Mon 18 January 2027, 7pm", "one day from which"),
    "weeks of no weekday": ("Glue, 19 January 2027, 6pm-8pm (5 weeks), Loft 2", "again and again"),
    "days after a time": ("Paint, 20 January 2027, 6pm-8pm for 3 days", "how many days it lasts"),
    "a day in reserve": ("Friday 18 June 2027: Sports day\nIn case of rain: Monday 21 June 2027", "a day in reserve"),
    "a closure from a time on": ("The office will be closed from 1pm on Thursday 25 March 2027.", "It is a sentence"),
    "a time of all days below": ("Boat maintenance\n9.30am–12.30pm, Shed 2\n6 March 2027 – Hull\n13 March 2027 – Deck", "It says a time for events of other lines"),
    "what a club does each month": ("We meet on the first Thursday of each month at 7.30pm in the library.\n4 February 2027: The Wreck", "It says a time for events of other lines"),
    "an hour beside one in the evening": ("Thurs 21/1/2027 - rehearsal 7.30\nThurs 4/2/2027 - extra long, start 7pm\nSat 6/2/2027 - workshop 10-4", "7:30 could be in the morning or in the evening"),
    "a place and a time over days": ("Mar 11 2027  Walk\n\nTALKS (Library, 2pm)\nMar 20 2027  Tall ships\nMar 27 2027  Knots", "It says a time for events of other lines"),
    "two things of which one has a time and a place": ("Week of 8 March 2027\nMon: Assembly (P1), PTA meeting 7pm library\nTue: Swim", "more than one date or time"),
    "a time in words, or hours from one to another": ("Dentist: Thurs 4 March 2027 ten to three", "more than one date or time"),
    "days of leave": ("Annual leave: B. Bell\n1-5 March 2027 (5 days)\n26 March 2027 (0.5 day)", "nothing of it says what"),
    "a day over columns of rooms": ("Programme\n\nThursday 10 June 2027\tRoom A\tRoom B\n09:00–09:45\tKeynote\t\n10:00–10:45\tSteam bending\tSail plans\n", "heads columns"),
    "one day or another": ("Engineer - 8 or 9 February 2027", "more than one date or time"),
    "a second day in figures": ("Then: 20/3/2027 away at Lunenburg (coach 11.30am), 27/3 home to Mahone Bay", "more than one date or time"),
    "entries above a table": ("Week of 1 March 2027\n- Mon 1: Lunch\n- Tue 2: Swim test\n\nDate\tWhat\tWhere\n9 March\tFair\tLoft\n10 March\tTea\tYard\n", "Above the table stand entries"),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_a_paper_leaves_open_is_asked(name: str, tmp_path: Path) -> None:
    text, says = REFUSED[name]
    ran = nomarium("build", paper(tmp_path, text), "-o", tmp_path / "out.ics")
    assert ran.status == 1 and says in ran.err, ran.text
    assert not (tmp_path / "out.ics").exists()


def test_days_of_a_mail_are_in_the_week_that_it_names_and_not_in_the_month_it_was_sent(
    tmp_path: Path,
) -> None:
    text = "Issue 14, week of 1 March 2027\n\n- Mon 1: Lunch in the canteen, 12.15\n- Wed 3: Swim test\n\nComing up\n10–12 March: Trip\n"
    assert nomarium("build", mail(tmp_path, text), "-o", tmp_path / "out.ics").status == 0
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == [
        "Lunch in the canteen 2027-03-01T12:15/2027-03-01T13:15", "Swim test 2027-03-03/2027-03-04", "Trip 2027-03-10/2027-03-13",
    ]  # fmt: skip


def test_the_school_year_of_a_title_beats_the_date_of_a_mail(tmp_path: Path) -> None:
    text = "Term dates 2026–27\n\nTerm starts: Monday 7 September\nTerm ends: Thursday 25 March\n"
    ran = nomarium("build", mail(tmp_path, text), "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == ["Term starts 2026-09-07/2026-09-08", "Term ends 2027-03-25/2027-03-26"]  # fmt: skip


PAGES = {
    "the year of a newsletter over its table": (
        "<h1>The Tidal Times</h1><p>Issue 14 · Week of 1 March 2027</p><table><tr><th>Date</th><th>What</th></tr><tr><td>9 March</td><td>Fair</td></tr></table>",
        ["Fair 2027-03-09/2027-03-10"],
    ),
    "papers of an examination by their session and length": (
        "<h1>Examinations – June 2027</h1><table><tr><th>Date</th><th>Session</th><th>Paper</th><th>Length</th></tr><tr><td rowspan=2>Monday 7 June</td><td>AM (9.00)</td><td>Rigging</td><td>1h 30m</td></tr>"
        "<tr><td>PM (1.30)</td><td>Navigation</td><td>2h</td></tr><tr><td>Tuesday 8 June</td><td>AM (9.00)</td><td>Steam</td><td>1h</td></tr></table>",
        ["Rigging 2027-06-07T09:00/2027-06-07T10:30", "Navigation 2027-06-07T13:30/2027-06-07T15:30", "Steam 2027-06-08T09:00/2027-06-08T10:00"],
    ),
    "a menu of the week in its title": (
        "<h1>Lunch menu – week beginning 8 March 2027</h1><table><tr><th>Monday</th><th>Tuesday</th><th>Wednesday</th></tr><tr><td>Chowder</td><td>Pasta</td><td>Roast</td></tr></table>",
        ["Chowder 2027-03-08/2027-03-09", "Pasta 2027-03-09/2027-03-10", "Roast 2027-03-10/2027-03-11"],
    ),
    "a week behind another word for it": (
        "<h1>This week at Saltmarsh, w/c 8 March 2027</h1><table><tr><td>Mon</td><td>Oars</td></tr><tr><td>Tue</td><td>Swim</td></tr><tr><td>Thu</td><td>Tar</td></tr></table>",
        ["Oars 2027-03-08/2027-03-09", "Swim 2027-03-09/2027-03-10", "Tar 2027-03-11/2027-03-12"],
    ),
    "days of the month in the title of all tables": (
        "<h1>Mock examinations January 2027</h1><h2>Week 1</h2><table><tr><th></th><th>9.00</th><th>1.30</th></tr><tr><td>Mon 11</td><td>Rigging (1h30)</td><td>Navigation (2h)</td></tr></table>"
        "<h2>Week 2</h2><table><tr><th></th><th>9.00</th><th>1.30</th></tr><tr><td>Mon 18</td><td>Knots (45 min)</td><td></td></tr></table>",
        ["Rigging (1h30) 2027-01-11T09:00/2027-01-11T10:30", "Navigation (2h) 2027-01-11T13:30/2027-01-11T15:30", "Knots (45 min) 2027-01-18T09:00/2027-01-18T09:45"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", PAGES)
def test_a_table_of_a_page_has_what_its_headings_say(name: str, tmp_path: Path) -> None:
    body, events = PAGES[name]
    ran = nomarium("build", page(tmp_path, body), "-o", tmp_path / "out.ics")
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == events, ran.text


def test_a_table_of_dates_beside_what_is_read_is_asked_about(tmp_path: Path) -> None:
    rows = "<tr><th>Action</th><th>Owner</th><th>Due</th></tr><tr><td>Order timber</td><td>MQ</td><td>29 Jan</td></tr><tr><td>Book survey</td><td>BT</td><td>5 Feb</td></tr><tr><td>Draft budget</td><td>AM</td><td>next meeting</td></tr>"
    source = page(tmp_path, f"<h1>Actions from meeting of 12 January 2027</h1><table>{rows}</table><p>Next meeting: Tuesday 9 February 2027, 7 pm</p>")  # fmt: skip
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 1 and '--column "Due=date"' in ran.err


@pytest.mark.parametrize("sessions", ["Morning 1,Morning 2,Afternoon 1", "AM1,AM2,PM1", "Session AM,Session PM,Session AM", "am (2),am (3),pm (2)"])  # fmt: skip
def test_sessions_of_a_day_are_neither_titles_nor_hours(sessions: str, tmp_path: Path) -> None:
    rows = zip(sessions.split(","), ("Rigging", "Steam", "Knots"), strict=True)
    lines = "".join(f"7 June 2027,{session},{what}\n" for session, what in rows)
    source = paper(tmp_path, f"Date,Session,Paper\n{lines}", "exams.csv")
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0 and "It names halves of the day" in ran.out
    assert [event["SUMMARY"] for event in events_in(tmp_path / "out.ics")] == ["Rigging", "Steam", "Knots"]
    assert all(not hasattr(event["DTSTART"].dt, "hour") for event in events_in(tmp_path / "out.ics"))


def test_what_is_not_approved_is_asked_about(tmp_path: Path) -> None:
    source = paper(tmp_path, "Name,From,To,Approved\nQuill,1 Mar 2027,5 Mar 2027,Yes\nMoss,15 Mar 2027,16 Mar 2027,No\n", "leave.csv")  # fmt: skip
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 1 and "“No” is not a known status" in ran.err


def test_a_table_below_a_day_that_stands_higher_is_asked_about_with_that_day(tmp_path: Path) -> None:
    slots = "".join(f"<tr><td>{time}</td><td>{who}</td></tr>" for time, who in (("4.30", "Amaro"), ("4.40", "Bell"), ("4.50", "–"), ("5.00", "Osei")))  # fmt: skip
    source = page(tmp_path, f"<h1>Parents' evening – Thursday 11 March 2027</h1><p>Mr Moss (Shed 4)</p><table>{slots}</table>")  # fmt: skip
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 1 and "--set date=2027-03-11" in ran.err
    assert nomarium("build", source, "--set", "date=2027-03-11", "-o", tmp_path / "out.ics").status == 0
    assert [event["SUMMARY"] for event in events_in(tmp_path / "out.ics")] == ["Amaro", "Bell", "Osei", "Parents' evening"]  # fmt: skip


DATED = {
    # a title with a day, months of the rows, the year of the first row or None when it is asked
    "Diary 10 December 2026": ("12 January", 2027),
    "Newsletter of 10 December 2026": ("12 September", 2026),
    "Diary from 20 June 2026": ("12 September", 2026),
    "Printed 3 January 2027": ("12 September", None),
    "Diary 5 May 2027": ("12 November", None),
    "Dates from 7 September 2026 to 18 December 2026": ("12 September", 2026),
}


@pytest.mark.parametrize("title", DATED)
def test_the_day_of_a_title_says_the_year_of_the_days_about_it(title: str, tmp_path: Path) -> None:
    day, year = DATED[title]
    source = paper(tmp_path, f"{title}\n\nDate,Title\n{day},Fair\n", "dates.csv")
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == (0 if year else 1), ran.text
    if year:
        assert [event["DTSTART"].dt.year for event in events_in(tmp_path / "out.ics")] == [year]


WEEKS = {
    "each over its weekdays": "w/c 8 March 2027\nMon,Tue,Wed\nOars,,Tar\nw/c 15 March 2027\nMon,Tue,Wed\n,Glue,\n",
    "weekdays once": "Mon,Tue,Wed\nw/c 8 March 2027,,\nOars,,Tar\nw/c 15 March 2027,,\n,Glue,\n",
}


@pytest.mark.parametrize("name", WEEKS)
@pytest.mark.parametrize("more", [(), ("--day-one", "2027-03-08")], ids=["found", "with the first day"])
def test_rows_that_name_a_week_date_what_is_drawn_below_them(
    name: str, more: tuple[str, ...], tmp_path: Path
) -> None:
    source = paper(tmp_path, WEEKS[name], "week.csv")
    assert nomarium("build", source, "-o", tmp_path / "out.ics", *more).status == 0
    assert sorted(map(plain, events_in(tmp_path / "out.ics"))) == ["Glue 2027-03-16/2027-03-17", "Oars 2027-03-08/2027-03-09", "Tar 2027-03-10/2027-03-11"]  # fmt: skip


def test_days_of_a_week_down_with_times_in_their_cells(tmp_path: Path) -> None:
    source = paper(tmp_path, 'w/c 8 March 2027,\nMon,"Assembly 8.45 (Hall)\nChoir 3.30"\nTue,Swim\nWed,\nThu,Governors 6pm\n', "week.csv")  # fmt: skip
    refused = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert refused.status == 1 and "8:45 could be in the morning or in the evening" in refused.err
    assert nomarium("build", source, "-o", tmp_path / "out.ics", "--clock", "12").status == 0
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == [
        "Assembly (Hall) 2027-03-08T08:45/2027-03-08T09:45", "Choir 2027-03-08T15:30/2027-03-08T16:30", "Swim 2027-03-09/2027-03-10",
        "Governors 2027-03-11T18:00/2027-03-11T19:00",
    ]  # fmt: skip


BRACKETS = {
    "Fair (15 February 2027). Bring boots ·": "15 February 2027",
    "(not half term 15–19 February). ·": "15–19 February",
    "Film “7 September”, 8 October ·": "8 October",
    "Fri 18 Dec (noon dismissal). ·": "Fri 18 Dec",
}


@pytest.mark.parametrize("text", BRACKETS)
def test_a_sentence_that_ends_behind_a_bracket_has_its_whole_date(text: str) -> None:
    found = date_within(text, ENGLISH)
    assert found is not None and found.text == BRACKETS[text]


def test_days_run_into_the_month_after_that_of_the_title(tmp_path: Path) -> None:
    source = paper(tmp_path, "January 2027\nDate,9.00,1.30\nFri 29,Rigging,Knots\nMon 1,Steam,\n", "grid.csv")
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0 and "“Fri 29” is Fri 29 January 2027" in ran.out
    assert [plain(event)[:20] for event in events_in(tmp_path / "out.ics")] == ["Rigging 2027-01-29T0", "Knots 2027-01-29T13:", "Steam 2027-02-01T09:"]  # fmt: skip
