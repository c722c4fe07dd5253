"""What of a line is the title, the place and the time; and what only looks like one of them."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from helpers import built, nomarium, refused

YEAR = ("--school-year", "2026:2027")
SAID: dict[str, tuple[str, list[str]]] = {
    "a number that counts what follows is no hour": (
        "11 January 2027, 2 sessions\n13.01.2027, 3 Boote zu Wasser\n14 January 2027 - 8 lessons on ropes",
        ["2 sessions 2027-01-11/2027-01-12", "3 Boote zu Wasser 2027-01-13/2027-01-14", "8 lessons on ropes 2027-01-14/2027-01-15"],
    ),
    "German weekdays that are English words": (
        "Termine\n\nMo 7.12. 19 Uhr Vorstand\nSo 17.1. 11–13 Uhr Empfang\nDo 24.12.–Sa 26.12. Ferien",
        ["Empfang 2027-01-17T11:00/2027-01-17T13:00", "Ferien 2026-12-24/2026-12-27", "Vorstand 2026-12-07T19:00/2026-12-07T20:00"],
    ),
    "the days of a week named over them": (
        "WEEK AHEAD (7–11 Dec 2026)\n\nMon  Keel  Assembly 8:40 (hall)\nWed  Plank  --\nThu  Deck  Trip, 9:00",
        ["Deck Trip 2026-12-10T09:00/2026-12-10T10:00", "Keel Assembly 2026-12-07T08:40/2026-12-07T09:40 @ hall"],
    ),
    "a length or the tide is no place": (
        "17 Jan 2027 10:30 Tide flats – 6 km\nHaul-out of Heron is set for Saturday 9 January 2027 at high water (11:20).",
        ["Haul-out of Heron 2027-01-09T11:20/2027-01-09T12:20", "Tide flats 2027-01-17T10:30/2027-01-17T11:30"],
    ),
    "when people come is no second time": (
        "Sat 27 March 2027, 7.30pm: Concert, St Brendan's (call 6.15)\nFr 29.1.2027 18:30 Versammlung (Einlass 18 Uhr)",
        ["Concert 2027-03-27T19:30/2027-03-27T20:30 @ St Brendan's", "Versammlung (Einlass 18 Uhr) 2027-01-29T18:30/2027-01-29T19:30"],
    ),
    "when people come, and when it starts": (
        "Supper, Sun 31 January 2027 at 7 for 7.30pm\nMon 25 January 2027 - Dinner, 6.30pm for 7pm, Loft\nTea for 12, Thu 28 January 2027, 4pm",
        ["Dinner 2027-01-25T19:00/2027-01-25T20:00 @ Loft", "Supper 2027-01-31T19:30/2027-01-31T20:30", "Tea for 12 2027-01-28T16:00/2027-01-28T17:00"],
    ),
    "words with commas and no spaces between them": (
        "7 Dec 2027,Board\nWed 9 Dec 2026,6pm,Talk,Loft", ["Board 2027-12-07/2027-12-08", "Talk 2026-12-09T18:00/2026-12-09T19:00 @ Loft"],
    ),
    "how many people, and days one after the other": (
        "Team of 6, 10 February 2027\nTable for 12, Thu 28 January 2027, 4pm\nFair 5, 6 December 2026",
        ["Fair 2026-12-05/2026-12-06", "Fair 2026-12-06/2026-12-07", "Table for 12 2027-01-28T16:00/2027-01-28T17:00", "Team of 6 2027-02-10/2027-02-11"],
    ),
    "what a dash or a colon parts is no place by itself": (
        "Sat 16 Jan 2027 14:30 Saltmarsh – Quay (H)\nSun 17 Jan 2027 10:00 Opening – Mayor\nMon 18 Jan 2027 13:15 Duty: Bell, Osei",
        ["Duty: Bell, Osei 2027-01-18T13:15/2027-01-18T14:15", "Opening – Mayor 2027-01-17T10:00/2027-01-17T11:00", "Saltmarsh – Quay (H) 2027-01-16T14:30/2027-01-16T15:30"],
    ),
    "all day under a date": (
        "Tuesday 19 January 2027\nAll day: Osei out\n3.45pm Union, Loft 1", ["Osei out 2027-01-19/2027-01-20", "Union 2027-01-19T15:45/2027-01-19T16:45 @ Loft 1"],
    ),
    "when doors open, before the time": (
        "6 Feb 2027 Quiz (doors 6.30) 7pm\nAGM: Monday, 8 March 2027, 19:30, Main Loft (tea from 7)",
        ["AGM 2027-03-08T19:30/2027-03-08T20:30 @ Main Loft", "Quiz (doors 6.30) 2027-02-06T19:00/2027-02-06T20:00"],
    ),
    "what a meeting has agreed": (
        "Minutes of the meeting held on 7 December 2026\n1. Open day: agreed Saturday 27 March 2027, 10–4.", ["Open day 2027-03-27T10:00/2027-03-27T16:00"],
    ),
    "a feast and its date behind a comma": ("Good Friday, 26 March 2027", ["Good Friday 2027-03-26/2027-03-27"]),
    "weekdays before their days": (
        "Knots: Tuesdays 12 & 19 January 2027, 7-9pm, Loft 2", [f"Knots 2027-01-{day}T19:00/2027-01-{day}T21:00 @ Loft 2" for day in (12, 19)],
    ),
    "days and hours under a month": (
        "Bookings – December 2026\n\nTue 1st   0800–1200   Heron\nMon 7th   0900        crane (2 hrs)\n24th–1st – Closed",
        ["Closed 2026-12-24/2027-01-02", "Heron 2026-12-01T08:00/2026-12-01T12:00", "crane 2026-12-07T09:00/2026-12-07T11:00"],
    ),
    "how many places are left is no place": ("Sun 13 Dec 2026 8:00 Seal Island 6h (full)", ["Seal Island (full) 2026-12-13T08:00/2026-12-13T14:00"]),
    "two weekdays of the week over them": (
        "Watch, w/c Mon 7 December 2026\n\nMon Quill\nTue & Thu Perrin\nSat–Sun duty officer",
        ["Perrin 2026-12-08/2026-12-09", "Perrin 2026-12-10/2026-12-11", "Quill 2026-12-07/2026-12-08", "duty officer 2026-12-12/2026-12-14"],
    ),
    "a deadline in brackets": ("Round 1 (by 12 Dec 2026): Quill v Perrin", ["Deadline: Round 1 (Quill v Perrin) 2026-12-12/2026-12-13"]),
    "a season counted in Roman figures": (
        "I  Friday 4 December 2026, 19.30: Handel\nII  Friday 29 January 2027, 19.30: Folk night",
        ["I: Handel 2026-12-04T19:30/2026-12-04T20:30", "II: Folk night 2027-01-29T19:30/2027-01-29T20:30"],
    ),
    "a bulletin of a week": (
        "Staff bulletin 14 – week of 7 December 2026\n\nMONDAY\n8.30 briefing, staff room\nWEDNESDAY\n15.45 union meeting",
        ["briefing 2026-12-07T08:30/2026-12-07T09:30 @ staff room", "union meeting 2026-12-09T15:45/2026-12-09T16:45"],
    ),
    "cards with their titles above their dates": (
        "Knot night\nFriday 11 December 2026\n7pm – 9pm · Sail loft\nBring a rope\n\nWinter swim\nSunday 13 December 2026\nFrom 10:00, Slip 1",
        ["Knot night 2026-12-11T19:00/2026-12-11T21:00 @ Sail loft", "Winter swim 2026-12-13T10:00/2026-12-13T11:00 @ Slip 1"],
    ),
    "how long it lasts": ("Splicing: Thursday 28 January 2027 at 4pm for 2 hours", ["Splicing 2027-01-28T16:00/2027-01-28T18:00"]),
    "what is struck out": ("~~30 Jan 2027: Open day~~\n6 Feb 2027: Open day, Loft", ["Open day 2027-02-06/2027-02-07 @ Loft"]),
    "a number that is the hour": ("11.01.2027, 10 Uhr Knoten", ["Knoten 2027-01-11T10:00/2027-01-11T11:00"]),
    "a list of days that ends in months": (
        "Payment dates: 15 January 2027, 15 April 2027, 15 July 2027.", [f"Payment dates 2027-{a}-15/2027-{a}-16" for a in ("01", "04", "07")],
    ),
    "a clause is no place": (
        "Fri 18 December 2026 - Last day of term, school closes at 1.15pm", ["Last day of term 2026-12-18T13:15/2026-12-18T14:15"],
    ),
    "people beside each other are no places": (
        "13 December 2026, 4.30pm: Tiller (viola), Bosun (piano)", ["Tiller (viola), Bosun (piano) 2026-12-13T16:30/2026-12-13T17:30"],
    ),
    "of two columns that which is named as a place": (
        "Tuesday 1 December 2026\n  8.45-9.35   Knots   Quill   Loft 1\n  9.35-10.25  Steam   Stoker  Shed 3",
        ["Knots 2026-12-01T08:45/2026-12-01T09:35 @ Loft 1", "Steam 2026-12-01T09:35/2026-12-01T10:25 @ Shed 3"],
    ),
    "a week in the middle of a sentence is no place": (
        "There will be a fire drill in the week beginning 7 December 2026.", ["Fire drill 2026-12-07/2026-12-14"],
    ),
    "when it begins belongs to a term, and not to a match": (
        "Tue 5 January 2027: Term begins 8.45am\nSat 9 January 2027: Match starts 2.30pm",
        ["Match 2027-01-09T14:30/2027-01-09T15:30", "Term begins 2027-01-05T08:45/2027-01-05T09:45"],
    ),
    "when they come back is no start": (
        "Wed 9 December 2026: Museum trip (return 4.30pm)\nThu 10 December 2026: Harbour, back at 5pm",
        ["Harbour, back at 5pm 2026-12-10/2026-12-11", "Museum trip (return 4.30pm) 2026-12-09/2026-12-10"],
    ),
    "ordinals from weekday to weekday under their month": (
        "DECEMBER 2026\nTue 1st - Thu 3rd: Mock exams\nMon 14th to Fri 18th: Project week",
        ["Mock exams 2026-12-01/2026-12-04", "Project week 2026-12-14/2026-12-19"],
    ),
    "an hour by the clock": ("Coffee: Sunday 6 December 2026, at 11 o’clock in the loft", ["Coffee 2026-12-06T11:00/2026-12-06T12:00 @ loft"]),
    "a day without its year before a time with a dot": (
        "Mo 07.09.2026   Schulbeginn, 8.00 Uhr\nFr 18.09. - So 20.09.  Regatta\nMi 23.09.    19.30   Elternabend 7a (Raum 12)",
        ["Elternabend 7a 2026-09-23T19:30/2026-09-23T20:30 @ Raum 12", "Regatta 2026-09-18/2026-09-21", "Schulbeginn 2026-09-07T08:00/2026-09-07T09:00"],
    ),
    "nothing but a name in brackets": ("Tue 8 Dec 2026 14:00–16:00 (Quill)", ["Quill 2026-12-08T14:00/2026-12-08T16:00"]),
    "a Saturday without a game": (
        "Sat 5 Dec 2026    HARBOUR XI   2.30pm\nSat 12 Dec 2026   free\nSat 19 Dec 2026   Oak Point   1.30pm",
        ["HARBOUR XI 2026-12-05T14:30/2026-12-05T15:30", "Oak Point 2026-12-19T13:30/2026-12-19T14:30"],
    ),
    "from and until when belong to a title that has no time": (
        "From 18 January 2027: the lift is out of order\nClosed until Fri 12 February 2027\nVanaf 1 maart 2027: nieuwe tijden\n"
        "Half term from 15 to 19 February 2027",
        ["Closed until Fri 12 February 2027 2027-02-12/2027-02-13", "From 18 January 2027: the lift is out of order 2027-01-18/2027-01-19",
         "Half term 2027-02-15/2027-02-20", "Vanaf 1 maart 2027: nieuwe tijden 2027-03-01/2027-03-02"],
    ),
    "from and to what time of one day": (
        "Sale from 12 January 2027, 10am to 4pm\nEntries until 13 January 2027, 5pm\nFrom 3pm on 14 January 2027: Tea\nMi 9.12. ab 13 Uhr Segeln",
        ["Entries 2027-01-13T17:00/2027-01-13T18:00", "Sale 2027-01-12T10:00/2027-01-12T16:00", "Segeln 2026-12-09T13:00/2026-12-09T14:00",
         "Tea 2027-01-14T15:00/2027-01-14T16:00"],
    ),
    "dates with their year behind a comma over times": (
        "Thursday, January 14, 2027\n  8:30 AM - 9:00 AM   Coffee\n  9:00 AM             Hulls (Loft 1) / Tar (Shed 2)\nFriday, January 15\n  9:00 AM             Tour",
        ["Coffee 2027-01-14T08:30/2027-01-14T09:00", "Hulls (Loft 1) / Tar (Shed 2) 2027-01-14T09:00/2027-01-14T10:00", "Tour 2027-01-15T09:00/2027-01-15T10:00"],
    ),
    "what is numbered or counted is no time": (
        "Mon 11 January 2027: Practical, groups 1-3\nTue 12 January 2027: Lofts 1-3 closed\nWed 13 January 2027: 3-5 helpers needed\n"
        "Thu 14 January 2027: Levels 1-3 exam, 9-11\nFri 15 January 2027: Work on the boats 10-3",
        ["3-5 helpers needed 2027-01-13/2027-01-14", "Levels 1-3 exam 2027-01-14T09:00/2027-01-14T11:00", "Lofts 1-3 closed 2027-01-12/2027-01-13",
         "Practical, groups 1-3 2027-01-11/2027-01-12", "Work on the boats 2027-01-15T10:00/2027-01-15T15:00"],
    ),
    "months and days in columns": (
        "Diary 2027\n\nJAN   9   Seed order closes\n     23   AGM, Sail loft, 2pm\nFEB   6   Potato day 10-12\n     20   Pruning workshop",
        ["AGM 2027-01-23T14:00/2027-01-23T15:00 @ Sail loft", "Potato day 2027-02-06T10:00/2027-02-06T12:00", "Pruning workshop 2027-02-20/2027-02-21",
         "Seed order closes 2027-01-09/2027-01-10"],
    ),
    "days in a column under a title with their month": (
        "What's on in January 2027\n\n4      Office reopens\n5-8    Enrolment week\n19/26  Rope class, 6pm",
        ["Enrolment week 2027-01-05/2027-01-09", "Office reopens 2027-01-04/2027-01-05", "Rope class 2027-01-19T18:00/2027-01-19T19:00", "Rope class 2027-01-26T18:00/2027-01-26T19:00"],
    ),
    "days with their own month and year under a month": (
        "January 2027\n\n4 Office\n5-8 January 2027: Enrolment week", ["Enrolment week 2027-01-05/2027-01-09", "Office 2027-01-04/2027-01-05"],
    ),
    "a journey in labels": (
        "Bus trip to the quay\nDate: Saturday 16 January 2027\nDepart: 8:15 am from the yard gate\nReturn: approx. 6 pm",
        ["Bus trip to the quay 2027-01-16T08:15/2027-01-16T18:00"],
    ),
    "a label that is the subject of its sentence": (
        "Minutes\n\n1. Regatta: it will be held on Saturday 12 June 2027 from 10:00 to 16:00 at the Main slip.\n2. Dinner: this is on Friday 18 June 2027 at 7pm in the Loft.",
        ["Dinner 2027-06-18T19:00/2027-06-18T20:00 @ Loft", "Regatta 2027-06-12T10:00/2027-06-12T16:00 @ Main slip"],
    ),
    "what was moved to its day": (
        "Dates\n\n- Sports day: it has been postponed to 12 June 2027\n- Swim moved to 4 June 2027", ["Sports day 2027-06-12/2027-06-13", "Swim 2027-06-04/2027-06-05"],
    ),
    "all day, beside a time in brackets": ("20 February 2027 Festival, all day (bus leaves 6:45 AM)", ["Festival (bus leaves 6:45 AM) 2027-02-20/2027-02-21"]),
    "when people come, before the title": (
        "Thursday 10 June 2027\n18.00 Walk\n19.30 for 20.00  Dinner, Anchor Hotel",
        ["Dinner 2027-06-10T20:00/2027-06-10T21:00 @ Anchor Hotel", "Walk 2027-06-10T18:00/2027-06-10T20:00"],
    ),
    "when it ends, behind the title": (
        "14 September 2026, 2pm: Tar (until 4.30pm)\n\nTuesday 15 September 2026\n14.00 Knots, ends 16.30\n18.00 Supper",
        ["Knots 2026-09-15T14:00/2026-09-15T16:30", "Supper 2026-09-15T18:00/2026-09-15T19:00", "Tar 2026-09-14T14:00/2026-09-14T16:30"],
    ),
    "a short year before a colon, and a price": (
        "Sat 12 Sep 26: Fair (am)\nFri 25 Sep 26: Non-uniform day, bring 1.00", ["Fair (am) 2026-09-12/2026-09-13", "Non-uniform day, bring 1.00 2026-09-25/2026-09-26"],
    ),
    "a course that starts and goes on": (
        "1. Lofting (2 weeks) starts 14 Sept 2026, Mondays 6.30-8.30pm\n2. Tar: 19 Sept 2026, 10-4",
        ["Lofting 2026-09-14T18:30/2026-09-14T20:30", "Lofting 2026-09-21T18:30/2026-09-21T20:30", "Tar 2026-09-19T10:00/2026-09-19T16:00"],
    ),
    "an agenda, its day said again": (
        "Agenda, 3 May 2027\n\n10:00 Welcome\n10:10 Minutes of 5 April 2027\n10:20 Regatta on 3 May 2027\n11:30 Close",
        ["Close 2027-05-03T11:30/2027-05-03T12:30", "Minutes of 5 April 2027 2027-05-03T10:10/2027-05-03T10:20", "Regatta 2027-05-03T10:20/2027-05-03T11:30",
         "Welcome 2027-05-03T10:00/2027-05-03T10:10"],
    ),
    "lines of a paragraph broken behind a sentence": (
        "The committee will meet on Monday 12 April 2027 at 7pm in Loft A. All are welcome! The regatta itself takes\nplace on Saturday 12 June 2027, from 10am until 4pm.",
        ["Committee 2027-04-12T19:00/2027-04-12T20:00 @ Loft A", "Regatta itself 2027-06-12T10:00/2027-06-12T16:00"],
    ),
    "an appointment in lines": (
        "Wed, Dec 9, 2026\n2:15 PM - 2:45 PM\nSlip survey with Finch\nLocation: Slip 4", ["Slip survey with Finch 2026-12-09T14:15/2026-12-09T14:45 @ Slip 4"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", SAID)
def test_what_a_line_says(kind: str, tmp_path: Path) -> None:
    text, events = SAID[kind]
    source = tmp_path / "letter.txt"
    source.write_text(text + "\n", "utf-8")
    assert sorted(built(source, *YEAR)) == sorted(events)


WEEKLY = "Mondays 7-8pm from 3 May to 17 May 2027"
EACH = [
    "Tar 2027-05-03T19:00/2027-05-03T20:00",
    "Tar 2027-05-10T19:00/2027-05-10T20:00",
    "Tar 2027-05-17T19:00/2027-05-17T20:00",
]
UNDER: dict[str, tuple[str, str]] = {
    "with its last day and its count": ("Tar – Mondays, 7–8pm, 3 May – 17 May 2027 (3 weeks)", ""),
    "under a title": (f"Tar\n  {WEEKLY}", ""), "labelled": (f"Tar\nWhen: {WEEKLY}\nWhere: Shed 4", " @ Shed 4"),
    "labelled, the days apart": ("Tar\nDates: 3 May - 17 May 2027\nDays: Mondays\nTime: 7-8pm", ""),
    "a card each": (f"Tar\n{WEEKLY}\nShed 4\n\nKnots\nSaturday 1 May 2027, 9-10am\nShed 4", " @ Shed 4"),
}  # fmt: skip


@pytest.mark.parametrize("kind", UNDER)
def test_weekdays_that_repeat_are_not_daily_wherever_their_title_stands(kind: str, tmp_path: Path) -> None:
    text, where = UNDER[kind]
    source = tmp_path / "notice.txt"
    source.write_text(text + "\n", "utf-8")
    assert sorted(one for one in built(source) if one.startswith("Tar")) == [f"{one}{where}" for one in EACH]


def test_a_place_of_other_lines_is_no_title(tmp_path: Path) -> None:
    source = tmp_path / "season.txt"
    source.write_text(
        "Opening   Fri 2 Oct 2026   19:30   Sail loft\nSongs     Sat 3 Oct 2026   19:30   Sail loft\n          Sun 4 Oct 2026   15:00   Sail loft\n",
        "utf-8",
    )
    assert "nothing of it says what" in refused(source)


def test_a_title_of_a_list_that_names_a_date_is_asked_about(tmp_path: Path) -> None:
    source = tmp_path / "tasks.txt"
    source.write_text(
        "To do before the regatta (12 June 2027)\n- Order buoys - by 1 May 2027\n- Book band - by 8 May 2027\n",
        "utf-8",
    )
    assert "it may be the title of the list, or an event" in refused(source)


def test_terms_with_their_year_are_sections(tmp_path: Path) -> None:
    source = tmp_path / "terms.md"
    source.write_text(
        "## Autumn term 2026\nFair: 8 September\nSupper: 18 December\n\n## Spring term 2027\nFair: 4 January\nSupper: 25 March\n",
        "utf-8",
    )
    built(source, *YEAR)
    assert source.with_suffix(".ics").read_text("utf-8").count("CATEGORIES:Autumn term 2026") == 2


def test_times_that_are_daily_are_of_all(tmp_path: Path) -> None:
    source = tmp_path / "school.txt"
    source.write_text(
        "5-9 July 2027: Knots\n12-16 July 2027: Sails\n\nDaily 9.30am-3.30pm. Fee 120.\n", "utf-8"
    )
    assert "Daily 9.30am-3.30pm" in refused(source)


def test_two_weekly_lines_under_one_title_are_two(tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(f"Tar\n  {WEEKLY}\n  Thursdays 6-7pm from 6 May to 20 May 2027\n", "utf-8")
    assert len(built(source)) == 6


@pytest.mark.parametrize(
    "when",
    [
        "monthly on Mondays, 3 May - 28 June 2027, 7-8pm", "weekdays 3 May - 14 May 2027, 7-8pm", "weekends from 1 May to 30 May 2027, 10-4",
        "3 May 2027, 7-8pm, then weekly", "Monday 3 May 2027 (weekly), 7-8pm", "3 - 28 May 2027 except Tuesdays, 10-4",
        "1 May - 30 June 2027, Sat and Sun only, 10-4", "4 May 2027 for 6 weeks, 7-8pm", "Tuesday 4 May 2027 to Tuesday 22 June 2027, 7-8pm",
    ],
)  # fmt: skip
@pytest.mark.parametrize("form", ["Tar: {}\nSupper: 1 May 2027\n", "Tar\nWhen: {}\nWhere: Shed 4\n"])
def test_what_else_a_line_says_of_its_days_stops_it(when: str, form: str, tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(form.format(when), "utf-8")
    refused(source)


def test_titles_with_such_words_stay_titles(tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(
        "5 June 2027: Supper, members only\n7 June 2027: The monthly meeting\n12 June 2027: Weekend regatta\n",
        "utf-8",
    )
    assert len(built(source)) == 3


def test_a_line_of_a_programme_with_another_day_is_refused(tmp_path: Path) -> None:
    source = tmp_path / "agenda.txt"
    source.write_text("3 May 2027\n10:00 Welcome\n11:00 Regatta on 12 June 2027\n11:30 Close\n", "utf-8")
    assert "it may be held then, or speak of it" in refused(source)


def test_a_word_behind_a_comma_cancels_and_leaves_no_comma(tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text("- Open day 3 June 2027 CANCELLED\n- Regatta: cancelled (was 20 June 2027)\n", "utf-8")
    built(source)
    text = source.with_suffix(".ics").read_text("utf-8")
    assert (text.count("STATUS:CANCELLED"), "SUMMARY:Open day\n" in text, "SUMMARY:Regatta\n" in text) == (
        2,
        True,
        True,
    )


@pytest.mark.parametrize(
    "line",
    [
        "14/01/2027, 10 evenings: Knots",
        "2027-01-14, 6 weeks, Knots",
        "11.01.2027, 10 Abende",
        "Sailmaking from 14 January 2027, 7pm, 8 sessions",
        "Kurs B: mittwochs 19–20.30 Uhr, ab 11.11.2026, 8 Termine",
    ],
)
def test_a_line_that_counts_its_dates_is_no_single_event(line: str, tmp_path: Path) -> None:
    source = tmp_path / "course.txt"
    source.write_text(line + "\n", "utf-8")
    assert "held again and again" in refused(source, *YEAR)


@pytest.mark.parametrize(
    "line",
    [
        "Session 2: one week later",
        "First Saturday – Market",
        "Fire alarms: first Mon of each quarter",
        "Mast Row closed: two days from 16 December 2026",
        "Session 4: to be arranged",
        "- Slip closed 21st to 3rd",
        "- No session on 22 or 29",
        "Wed 13 January 2027: as Tuesday",
        "Last Friday of the month: Market",
        "Session 2: same time, the following Tuesday",
        "Fri 11 December 2026: Early finish 13:00. Carols 11:30, Loft",
        "~~30 Jan 2027: Open day~~ moved to 6 Feb 2027",
        "Meeting 4, 16 February 2027",
        "Knots: Tuesdays 13, 20 January 2027",
        "Sail 2, 13, 14 February 2027",
        "From 18 Jan 2027 the tea bar opens 10-12 (not Fri)",
        "Swimming (from 18 January 2027) 9-10am",
        "Late bus 5pm from Monday 18 January 2027",
        "Ab 18. Januar 2027 ist bis 17 Uhr offen",
        "18 January 2027 onwards: late bus at 5pm",
        "The pool will be heated from 18 January 2027.",
        "w/c Mon 5 April 2027: Tues–Fri only",
        "Not 18 February 2027",
        "Tue 19 January 2027 7.30pm Loft 2",
        "Tue 19 January 2027, 2:15 PM (Atlantic)",
        "Dinner moved from 4 June 2027 to 11 June 2027",
        "- Sports day: postponed from 5 June 2027 to 12 June 2027",
        "22 February 2027: all day inventory, disco 6pm",
        "22 February 2027, 14.00 Interviews until 5",
        "22 February 2027: Lengths 7-9am; Lessons 4-6pm",
        "22 February 2027, 14.00 Interviews -16.30",
    ],
)
def test_a_line_that_says_another_day_or_time_too_is_refused(line: str, tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(f"Session 1: Tue 12 January 2027, 4pm\n{line}\n", "utf-8")
    assert "line 2" in refused(source)


@pytest.mark.parametrize(("times", "is_told"), [("7.30 8.00", True), ("7.30 19.30", False), ("7.30 11.00", False), ("7.30pm 8", False), ("07:30 08:00", False)])  # fmt: skip
def test_times_that_could_be_evenings_are_said_to_be_mornings(
    times: str, is_told: bool, tmp_path: Path
) -> None:
    rows = "\n".join(f"{day} Dec 2026,{time},Concert {day}" for day, time in enumerate(times.split(), 4))
    source = tmp_path / "season.csv"
    source.write_text(f"Date,Time,Event\n{rows}\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics").text
    assert ("Times such as “7.30” are in the morning" in said) is is_told


@pytest.mark.parametrize("day", ["from 12 January 2027", "From Tuesday 12 January 2027"])
def test_a_first_day_without_a_last_one_is_no_single_day(day: str, tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text(f"Date,Time,What\n{day},6pm,Yoga\n13 January 2027,7pm,Board\n", "utf-8")
    assert f"“{day}” says a first day, and no last one." in refused(source)


def test_tables_one_below_the_other_in_a_text_give_each_line_once(tmp_path: Path) -> None:
    source = tmp_path / "all.txt"
    source.write_text(
        "Lot,Viewing\nDinghy,2-4 Dec 2026\n\nMeeting,Q1,Q2\nBoard,14 Jan 2027,15 Apr 2027\n\nDate,AM lead\n7 Dec 2026,Quill\n",
        "utf-8",
    )
    said = nomarium("build", source, "-o", tmp_path / "o.ics", "--partial", "--json", *YEAR)
    account = json.loads(said.out)["ledger"]
    assert (account["events"], account["rejected"], account["notes"]) == (2, 1, 3), said.text


def test_a_part_of_a_month_is_no_date_and_no_remark(tmp_path: Path) -> None:
    source = tmp_path / "dates.txt"
    source.write_text("• 1 Dec 2026 – applications open\n• by end of Feb – offers\n", "utf-8")
    assert "line 2: “by end of Feb – offers”" in refused(source)


def test_the_remedy_for_names_of_two_languages_is_one_of_them(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Evento,Fecha\nA,1 mar 2027\nB,4 set 2027\nC,5 out 2027\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics").text
    assert "--language pl" not in said


def test_figures_with_a_dot_that_are_a_time_are_no_date(tmp_path: Path) -> None:
    source = tmp_path / "letter.txt"
    source.write_text("Lunch will be at 12.30 in the mess.\n", "utf-8")
    assert "line 1: “Lunch will be at 12.30 in the mess.”" in refused(source, *YEAR)


def test_titles_that_say_nothing_are_none_whatever_else_the_row_has(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    rows = ("Launch", "None", "free", "Last updated", "Freeboard check", "Nonesuch")
    listed = "\n".join(f"{title},2026-12-0{n},9:00,10:00" for n, title in enumerate(rows, 1))
    source.write_text(f"Event,Date,Start,End\n{listed}\n", "utf-8")
    assert [event.split(" 2026")[0] for event in built(source)] == ["Launch", "Freeboard check", "Nonesuch"]


def test_a_side_that_meets_nobody_plays_no_game(tmp_path: Path) -> None:
    source = tmp_path / "fixtures.csv"
    source.write_text(
        "Home,Away,Date\nOak,Tern,2026-12-05\nBYE,Oak,2026-12-12\nTern,bye,2026-12-19\n", "utf-8"
    )
    assert built(source) == ["Oak v Tern 2026-12-05/2026-12-06"]


def test_what_a_page_strikes_out_is_no_event(tmp_path: Path) -> None:
    source = tmp_path / "fixtures.html"
    source.write_text(
        "<html><body><ul><li>Sat 5 Dec 2026, 2pm Saltmarsh v Kedge</li><li><del>Sat 19 Dec 2026, 11am Bollard v Saltmarsh</del></li>"
        "<li>Sat 12 Dec 2026, <s>2pm</s> 2.30pm Anchor v Saltmarsh</li></ul></body></html>",
        "utf-8",
    )
    assert sorted(built(source)) == [
        "Anchor v Saltmarsh 2026-12-12T14:30/2026-12-12T15:30",
        "Saltmarsh v Kedge 2026-12-05T14:00/2026-12-05T15:00",
    ]


def test_a_line_that_stands_further_in_is_of_the_day_above_it(tmp_path: Path) -> None:
    source = tmp_path / "flyer.txt"
    source.write_text(
        "February 2027\n\nMon 15   Ropes and knots   10am-noon   Loft 1\n         Painting buoys    1-3pm       Shed 2\n",
        "utf-8",
    )
    assert built(source) == [
        "Ropes and knots 2027-02-15T10:00/2027-02-15T12:00 @ Loft 1",
        "Painting buoys 2027-02-15T13:00/2027-02-15T15:00 @ Shed 2",
    ]
    flush = tmp_path / "flush.txt"
    flush.write_text(source.read_text("utf-8").replace("         P", "P"), "utf-8")
    assert "it may be of that day, or of another" in refused(flush)


def test_a_sentence_with_a_weekday_and_a_time_is_not_passed_over(tmp_path: Path) -> None:
    source = tmp_path / "letter.txt"
    source.write_text(
        "The fair is on Saturday 23 January 2027 from 10am to 2pm.\n\nThere is a meeting on Friday at 3.30pm.\n",
        "utf-8",
    )
    assert "line 3: “There is a meeting on Friday at 3.30pm.”" in refused(source)


def test_what_opens_and_is_no_event_keeps_its_verb(tmp_path: Path) -> None:
    source = tmp_path / "letter.txt"
    source.write_text(
        "Dear all, booking opens on 25 January 2027. The fair opens on 30 January 2027.\n", "utf-8"
    )
    assert built(source) == ["Booking opens 2027-01-25/2027-01-26", "Fair 2027-01-30/2027-01-31"]


def test_a_cell_that_says_all_day_is_not_over_with_its_slot(tmp_path: Path) -> None:
    source = tmp_path / "week.csv"
    source.write_text(
        "Time,2027-01-11,2027-01-12\n09:30-11:00,Lofting,Trip (all day)\n11:30-13:00,Knots,\n", "utf-8"
    )
    assert built(source) == [
        "Lofting 2027-01-11T09:30/2027-01-11T11:00",
        "Trip (all day) 2027-01-12/2027-01-13",
        "Knots 2027-01-11T11:30/2027-01-11T13:00",
    ]


def test_months_by_their_letters_and_counts_that_are_no_days(tmp_path: Path) -> None:
    source = tmp_path / "year.csv"
    source.write_text(
        "2027 checks,J,F,M,A,M,J,J,A,S,O,N,D\nCrane,,8,,,,,,,6,,,\nSlip,4,,,,,,,,,,,\n", "utf-8"
    )
    assert built(source) == [
        "Crane 2027-02-08/2027-02-09",
        "Crane 2027-09-06/2027-09-07",
        "Slip 2027-01-04/2027-01-05",
    ]
    counts = tmp_path / "counts.csv"
    for rows in (
        "Launched,Jan 2027,Feb 2027,Total\nSlip 1,4,3,7\nSlip 2,2,6,8\n",
        "Launched,Jan 2027,Feb 2027\nSlip 1,4,3\nSlip 2,2,6\nAll,6,9\n",
    ):
        counts.write_text(rows, "utf-8")
        refused(counts)


def test_words_for_hours_in_a_roster_are_told(tmp_path: Path) -> None:
    source = tmp_path / "roster.csv"
    source.write_text("Staff,Mon 11/1/2027,Tue 12/1/2027\nTanner,7am-3pm,close\nRoach,close,9-5\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.csv").text
    assert "Codes without times are all-day events: close (2 cells)" in said


def test_a_line_before_one_with_two_starts_ends_at_the_second(tmp_path: Path) -> None:
    source = tmp_path / "programme.txt"
    source.write_text("Fri 18 June 2027\n10.30am ... Knots\n5pm Tar\n7 for 7.30pm Supper\n", "utf-8")
    assert built(source) == [
        "Knots 2027-06-18T10:30/2027-06-18T11:30",
        "Tar 2027-06-18T17:00/2027-06-18T19:30",
        "Supper 2027-06-18T19:30/2027-06-18T20:30",
    ]


def test_slots_of_uneven_lengths_in_a_grid_last_until_the_next(tmp_path: Path) -> None:
    source = tmp_path / "week.csv"
    source.write_text(
        "Time,2027-01-11,2027-01-12\n8:30,Lofting,\n9:25,Knots,Tar\n10:15,,\n10:35,Shop,\n12:00,Lunch,\n",
        "utf-8",
    )
    assert "Shop 2027-01-11T10:35/2027-01-11T12:00" in built(source)
    said = nomarium("build", source, "-o", tmp_path / "o.csv").text
    assert "a slot without an end lasts until the next begins." in said


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("OPEN EVENING\n\nThursday 4 March 2027\n6pm - 8pm\nSail loft, Quay Road", ["OPEN EVENING 2027-03-04T18:00/2027-03-04T20:00 @ Sail loft, Quay Road"]),
        ("Year 8 will be visiting the Maritime Museum on Thursday 4 February 2027.", ["Year 8 visiting the Maritime Museum 2027-02-04/2027-02-05"]),
        ("The choir will be singing at Tern Bay church on Sunday 7 March 2027 at 3pm.", ["Choir singing 2027-03-07T15:00/2027-03-07T16:00 @ Tern Bay church"]),
        ("Riggers will be taking part in a regatta on Saturday 13 March 2027.", ["Riggers taking part in a regatta 2027-03-13/2027-03-14"]),
        ("The band will be playing in the main hall on Friday 12 March 2027 at 7pm.", ["Band playing 2027-03-12T19:00/2027-03-12T20:00 @ Main hall"]),
        ("The fair will be in the canteen on Friday 12 March 2027.", ["Fair 2027-03-12/2027-03-13 @ Canteen"]),
    ],
)  # fmt: skip
def test_what_somebody_is_doing_is_of_the_title(text: str, expected: list[str], tmp_path: Path) -> None:
    (tmp_path / "letter.txt").write_text(text, "utf-8")
    assert built(tmp_path / "letter.txt") == expected
