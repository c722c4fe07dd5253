"""Slots of the day: morning or afternoon, dashes in which nothing happens, times in places where nobody looks for them."""

from __future__ import annotations

import datetime as dt
from pathlib import Path
from typing import Any

import pytest
import xlsxwriter
from hypothesis import given
from hypothesis import strategies as st

from helpers import built, csv_file, events_in, nomarium, plain, refused
from nomarium.reading.cells.times import Clock
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.layouts.slots import Line, forward, time_of

DAY = "Thursday 12 November 2026"

SETTLED: dict[str, tuple[list[str], str, str, list[str]]] = {
    "over before seven": (["4.00-4.10", "4.10-4.20"], "", "", ["16:00", "16:10"]),
    "a morning that goes on to noon": (["6.30", "7.30", "9.00", "12.00", "1.00"], "", "", ["6:30", "7:30", "9:00", "12:00", "13:00"]),
    "an evening by its name": (["6.30", "6.50", "7.10"], "", "Parents' evening", ["18:30", "18:50", "19:10"]),
    "an evening in French": (["6.30", "7.30"], "", "Réunion du soir", ["18:30", "19:30"]),
    "an evening as asked": (["6.30", "7.10"], "12", "", ["18:30", "19:10"]),
    "a morning as asked": (["6.30", "7.10"], "24", "Parents' evening", ["6:30", "7:10"]),
    "by the 24-hour clock": (["6:30", "9:00", "14:00"], "", "", ["6:30", "9:00", "14:00"]),
    "a zero in front": (["06:30", "07:30"], "", "", ["6:30", "7:30"]),
    "am and pm said": (["6.30am", "7.30pm"], "", "", ["6:30", "19:30"]),
    "after noon": (["11:30", "12:30", "1:30", "2:30"], "", "", ["11:30", "12:30", "13:30", "14:30"]),
}  # fmt: skip


def lines(headings: list[str]) -> list[Line]:
    return [Line(at, text, time_of(text)) for at, text in enumerate(headings)]


def starts(slots: list[Line]) -> list[str]:
    found = []
    for line in slots:
        assert line.time.refusal is None and line.time.start is not None
        minutes = line.time.start.secs // 60
        found.append(f"{minutes // 60}:{minutes % 60:02}")
    return found


@pytest.mark.parametrize("name", SETTLED)
def test_slots_are_in_one_half_of_the_day(name: str) -> None:
    headings, asked, above, expected = SETTLED[name]
    assert starts(forward(lines(headings), asked, above)) == expected


@pytest.mark.parametrize("headings", [["6.30", "7.10"], ["5.00", "6.00", "7.00", "8.00"]])
def test_slots_that_could_be_in_either_half_are_refused(headings: list[str]) -> None:
    settled = forward(lines(headings))
    refusals = [line.time.refusal for line in settled if line.time.refusal]
    assert refusals and all("morning or in the afternoon" in one.message for one in refusals)
    assert all("--clock 12" in one.remedy for one in refusals)


@given(st.integers(7, 11), st.integers(1, 8), st.sampled_from([20, 30, 45, 60]))
def test_slots_from_a_morning_on_run_forward(hour: int, count: int, step: int) -> None:
    begins = [hour * 60 + n * step for n in range(count)]
    written = [f"{(at // 60 - 1) % 12 + 1}:{at % 60:02}" for at in begins]  # as a clock face shows them
    settled = forward(lines(written))
    assert [line.time.start.secs // 60 for line in settled if line.time.start] == begins


@given(st.lists(st.integers(0, 47), min_size=1, max_size=8, unique=True).map(sorted))
def test_times_of_the_24_hour_clock_stay_as_they_are(halves: list[int]) -> None:
    written = [f"{at // 2:02}:{at % 2 * 30:02}" for at in halves]
    settled = forward(lines(written))
    assert [line.time.start for line in settled] == [
        Clock(at * 1800, line.time.start.has_meridiem)
        for at, line in zip(halves, settled, strict=True)
        if line.time.start
    ]


RIGHT: dict[str, tuple[str, list[str], list[str], list[str]]] = {
    "a parents' evening": (
        f"Parents' evening {DAY}\n,M. Quill,O. Tern\n4.00-4.10,Fenn,-\n4.10-4.20,,Lark", [],
        ["Fenn (M. Quill) 2026-11-12T16:00/2026-11-12T16:10", "Lark (O. Tern) 2026-11-12T16:10/2026-11-12T16:20"],
        ["4.00-4.10, 4.10-4.20 in the afternoon", "nothing happens"],
    ),
    "a day as asked": (
        f"{DAY}\n,Slip,Loft\n6.30,Fenn,Quill\n7.10,Lark,", ["--clock", "24"],
        ["Fenn 2026-11-12T06:30/2026-11-12T07:10 @ Slip", "Quill 2026-11-12T06:30/2026-11-12T07:10 @ Loft",
         "Lark 2026-11-12T07:10/2026-11-12T07:50 @ Slip"], [],
    ),
    "dashes in a grid": (
        "Time,Mon 7 Sept 2026,Tue 8 Sept 2026\n3.45-4.45,Knots,-\n4.45-5.45,Choir,n/a", [],
        ["Knots 2026-09-07T15:45/2026-09-07T16:45", "Choir 2026-09-07T16:45/2026-09-07T17:45"],
        ["“-” is no event: nothing happens there. (so in 2 rows", "4 entries read = 2 events + 2 notes"],
    ),
    "dashes in a planner": (
        "Week beginning,Mon,Tue,Wed\n7 September 2026,R. Finch,–,n/a\n14 September 2026,-,O. Tern,", [],
        ["R. Finch 2026-09-07/2026-09-08", "O. Tern 2026-09-15/2026-09-16"], ["(so in 3 rows"],
    ),
    "afternoons in a drawn month": (
        "April 2027\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,,,1,2,3,4\n,,,3.45 Choir,-,,\n5,6,7,8,9,10,11\n,,4-5 Launch,,9.00 Haul,,\n"
        "12,13,14,15,16,17,18\n,,,,,,\n19,20,21,22,23,24,25\n,,,,,,\n26,27,28,29,30,,\n,,,,,,", [],
        ["Choir 2027-04-01T15:45/2027-04-01T16:45", "Launch 2027-04-07T16:00/2027-04-07T17:00", "Haul 2027-04-09T09:00/2027-04-09T10:00"],
        ["Times from 1:00 to 6:59 are in the afternoon", "--clock 24"],
    ),
    "a When beside a date is the time": (
        "Club,When,Dates\nKnots,3.45-4.45,7 Sept 2026\nSails,4-5,8 Sept 2026", [],
        ["Knots 2026-09-07T15:45/2026-09-07T16:45", "Sails 2026-09-08T16:00/2026-09-08T17:00"], [],
    ),
    "a When that says the date again": (
        "Club,When,Date\nKnots,7 Sept 2026 9am,7 Sept 2026", [], ["Knots 2026-09-07T09:00/2026-09-07T10:00"], [],
    ),
    "a slot of times is the time": (
        "Club,Slot,Date\nKnots,15:45-16:45,7 Sept 2026", [], ["Knots 2026-09-07T15:45/2026-09-07T16:45"], [],
    ),
    "a slot of names is none": ("Club,Slot,Date\nKnots,9A,7 Sept 2026", [], ["Knots 2026-09-07/2026-09-08"], []),
    "opening hours in their season": (
        "Activity,Opening hours,Season\nMuseum,10-4,1 May to 3 May 2027", [],
        [f"Museum 2027-05-0{day}T10:00/2027-05-0{day}T16:00" for day in (1, 2, 3)], ["an event on each of these days"],
    ),
    "a day with its time to another day with its time": (
        "Date,Event\nThu 15/10/2026 8am - Fri 16/10/2026 noon,Water off\n15-16 Oct 2026 8am - noon,Tours", [],
        ["Water off 2026-10-15T08:00/2026-10-16T12:00", *[f"Tours 2026-10-{day}T08:00/2026-10-{day}T12:00" for day in (15, 16)]],
        ["another day with a time are one long event"],
    ),
    "a time in the heading of the dates": (
        "Task,Due (11.59pm)\nLofting,18/09/2026", ["--default-length", "1m"], ["Lofting 2026-09-18T23:59/2026-09-19T00:00"],
        ["The time that stands in the heading"],
    ),
    "a column of times beats the heading": (
        "Task,Date (9:00),Time\nLofting,18/09/2026,10:00", [], ["Lofting 2026-09-18T10:00/2026-09-18T11:00"], [],
    ),
    "a date alone over the times of one day": (
        "7 September 2026,\nTime,Event\n9:00,A\n10:00,B", [], ["A 2026-09-07T09:00/2026-09-07T10:00", "B 2026-09-07T10:00/2026-09-07T11:00"],
        ["The date over the table is that of its rows"],
    ),
    "a date that is called one": (
        "Date: Monday 7 September 2026,\nTime,Event\n2pm,A\n3pm,B", [], ["A 2026-09-07T14:00/2026-09-07T15:00", "B 2026-09-07T15:00/2026-09-07T16:00"],
        ["The date over the table is that of its rows"],
    ),
    "a date over figures that run through the day": (
        "Fri 13 Nov 2026,,\nSlot,Candidate,Where\n9.00,Quill,Loft\n9.40,Roe,Loft\n10.20,Finch,Loft", ["--column", "Candidate=summary"],
        [f"{who} 2026-11-13T{start}/2026-11-13T{end} @ Loft" for who, start, end in (("Quill", "09:00", "10:00"), ("Roe", "09:40", "10:40"), ("Finch", "10:20", "11:20"))],
        ["The date over the table is that of its rows"],
    ),
    "a date over the times of one day": (
        "Appointments for 7 September 2026\nTime,Family,Room\n9:00,Fenn,Loft\n9:15,Quill,Loft", ["--default-length", "15m"],
        ["Fenn 2026-09-07T09:00/2026-09-07T09:15 @ Loft", "Quill 2026-09-07T09:15/2026-09-07T09:30 @ Loft"], ["The date over the table is that of its rows"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", RIGHT)
def test_times_are_found_wherever_they_stand(name: str, tmp_path: Path) -> None:
    text, options, expected, says = RIGHT[name]
    target = tmp_path / "out.ics"
    outcome = nomarium("build", csv_file(tmp_path, text), "-o", target, *options)
    assert (outcome.status, [plain(event) for event in events_in(target)]) == (0, expected), outcome.text
    for part in says:
        assert part in outcome.text


def test_dotted_figures_are_dates_only_where_one_can_be_no_time(tmp_path: Path) -> None:
    """`4.10` is four in the afternoon or the tenth month's fourth day; `24.12` is no time of day."""
    target = tmp_path / "out.ics"
    outcome = nomarium(
        "build", csv_file(tmp_path, "24.12,Feast\n06.12,Fair"), "-o", target, "--school-year", "2026:2027"
    )
    assert [plain(event) for event in events_in(target)] == [
        "Feast 2026-12-24/2026-12-25",
        "Fair 2026-12-06/2026-12-07",
    ], outcome.text
    assert "holds dates" in refused(
        csv_file(tmp_path, "5.10,Feast\n06.12,Fair"), "--school-year", "2026:2027"
    )


REFUSED: dict[str, tuple[Any, ...]] = {
    "an evening or a morning": (f"Parents' day {DAY}\n,Mr Quill,Ms Tern\n6.30,Fenn,Lark\n7.10,,Fenn", ["row 3", "--clock 12"]),
    "cells on both sides of noon, one of them said": (
        "Week beginning,Mon,Tue\n7 September 2026,3.45 Choir,5pm Knots", ["row 2, column B", "3:45 could be"],
    ),
    "what happens at the times that head columns": (
        "Sunday,8.00am,10.30am,Preacher\n6 Sept 2026,Supper,Regatta,R. Finch", ["“8.00am” is headed by a time", '--column "8.00am="'],
        "--column", "Preacher=summary",
    ),
    "and where nobody asked for them": (
        "Sunday,8.00am,10.30am,Preacher\n6 Sept 2026,Supper,Regatta,R. Finch", ["“8.00am” is headed by a time"],
    ),
    "nothing that could be a title": ("Date,High water,Height (m)\n7 Sep 2026,04:12,1.9\n8 Sep 2026,05:03,2.0", ["→ To give all of them one title"]),
    "a When of words": ("Club,When,Date\nKnots,After lunch,7 Sept 2026", ["column B “When”", "is not a time"]),
    "times among the groups": ("Club,Group,Date\nKnots,15:45-16:45,7 Sept 2026", ["“Group” holds times", '--column "Group=time"']),
    "times among breaks in a column of words": (
        "Slot,Candidate,Where\n9.00,Quill,Loft\n9.40,Roe,Loft\nBREAK,,\n10.20,Finch,Loft", ["“Slot” holds times", '--column "Slot=time"'],
        "--set", "date=2026-11-13", "--column", "Candidate=summary",
    ),
    "times among the notes": ("Club,Notes,Date\nKnots,9am,7 Sept 2026", ["“Notes” holds times"]),
    "a title that says from when": ("Timetable from 7 September 2026\nTime,Family\n9:00,Fenn\n9:15,Quill", ["holds dates"]),
    "a title that keeps the books": ("Last updated 7 September 2026\nTime,Family\n9:00,Fenn\n9:15,Quill", ["holds dates"]),
    "a title over weekdays": ("Rota 7 September 2026\nDay,Time,Family\nMon,9:00,Fenn\nTue,9:15,Quill", ["--day-one"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_times_that_nothing_settles_are_refused(name: str, tmp_path: Path) -> None:
    text, says, *options = REFUSED[name]
    said = refused(csv_file(tmp_path, text), *options)
    for part in says:
        assert part in said


def test_times_that_a_workbook_holds_are_open_too(tmp_path: Path) -> None:
    """A workbook makes 4:00 in the night of a typed 4:00."""
    path = tmp_path / "evening.xlsx"
    book = xlsxwriter.Workbook(str(path))
    sheet, clock = book.add_worksheet(), book.add_format({"num_format": "h:mm"})
    sheet.write_row(0, 0, ["Interviews, 12 November 2026"])
    sheet.write_row(1, 1, ["Mr Quill", "Ms Tern"])
    for row, (minute, names) in enumerate([(0, ["Fenn", "Lark"]), (20, ["Marsh", ""])], 2):
        sheet.write_datetime(row, 0, dt.time(4, minute), clock)
        sheet.write_row(row, 1, names)
    book.close()
    target = tmp_path / "out.ics"
    outcome = nomarium("build", path, "-o", target)
    assert outcome.status == 0, outcome.text
    assert sorted(str(event["DTSTART"].dt) for event in events_in(target)) == [
        "2026-11-12 16:00:00", "2026-11-12 16:00:00", "2026-11-12 16:20:00",
    ]  # fmt: skip


HEADINGS = {
    "Due (11.59pm)": (86_340, None), "Date (9:00-10:00)": (32_400, 36_000), "Due by 4pm": (57_600, None), "Deadline (noon)": (43_200, None),
    "Date (dd.mm.yyyy)": None, "Date 2026": None, "Date (2026-27)": None, "Date 1": None, "Afternoon": None, "Term 3.2": None,
}  # fmt: skip


@pytest.mark.parametrize("heading", HEADINGS)
def test_headings_say_times_only_where_they_say_them(heading: str) -> None:
    times = unit_of(heading).times
    found = None if times is None else (times.start and times.start.secs, times.end and times.end.secs)
    assert found == HEADINGS[heading]


SPANS = {
    "on the 24-hour clock": ["9.00{}9.50", "10.10{}11.00", "13.15{}14.05", "15.15{}16.15"],
    "on the 12-hour clock": ["9.00{}9.50", "10.10{}11.00", "1.15{}2.05", "3.15{}4.15"],
    "with halves": ["9.00am{}9.50am", "10.10am{}11.00am", "1.15pm{}2.05pm", "3.15pm{}4.15pm"],
    "with one half for both": ["9.00{}9.50am", "10.10{}11am", "1.15{}2.05 p.m.", "3.15{}4.15pm"],
}
DAYS = ["7 Sep 2026", "8 Sep 2026", "9 Sep 2026", "10 Sep 2026"]
CLASSES = ["Knots", "Sails", "Steam", "Lofting"]


@pytest.mark.parametrize("joined", ["-", " - ", "–", " to "])
@pytest.mark.parametrize("name", SPANS)
def test_times_with_dots_are_no_dates_wherever_they_are_drawn(name: str, joined: str, tmp_path: Path) -> None:
    spans = [span.format(joined) for span in SPANS[name]]
    held = [[CLASSES[n] if n == at else "" for n in range(4)] for at in range(4)]
    forms = {
        "week": [
            ["Time", "Mon", "Tue", "Wed", "Thu"],
            *[[span, *row] for span, row in zip(spans, held, strict=True)],
        ],
        "dates": [["", *DAYS], *[[span, *row] for span, row in zip(spans, held, strict=True)]],
        "down": [["Date", *spans], *[[day, *row] for day, row in zip(DAYS, held, strict=True)]],
        "list": [["Date", "Time", "Event"], *map(list, zip(DAYS, spans, CLASSES, strict=True))],
    }
    times = [("09:00", "09:50"), ("10:10", "11:00"), ("13:15", "14:05"), ("15:15", "16:15")]
    wanted = [
        f"{title} 2026-09-{7 + n:02}T{begin}/2026-09-{7 + n:02}T{end}"
        for n, (title, (begin, end)) in enumerate(zip(CLASSES, times, strict=True))
    ]
    for form, rows in forms.items():
        options = ["--from", "2026-09-07", "--until", "2026-09-10"] if form == "week" else []
        source = csv_file(tmp_path, "\n".join(",".join(row) for row in rows), f"{form}.csv")
        outcome = nomarium("build", source, "-o", tmp_path / f"{form}.ics", *options)
        if outcome.status:  # doubt is told: 3.15 to 4.15 down a column of dates
            assert "→" in outcome.err, outcome.text
        else:
            assert sorted(map(plain, events_in(tmp_path / f"{form}.ics"))) == sorted(wanted), form
    assert (tmp_path / "list.ics").is_file()
    assert (tmp_path / "dates.ics").is_file()


WEEK_DRAWN = (
    "time,Mon 11 Jan 2027,Tue 12 Jan 2027,Wed 13 Jan 2027\n"
    "9.45-11.15,Rigging till 10.30,off,Sails (from 10)\n"
    '11.30-12.30,Knots 11.30,"Knots, doors 11.45",Tar from noon\n'
    "1.00-2.30,Oars 1.15,Closed,9.00 Trip\n"
)


def test_a_cell_begins_when_it_says_within_its_slot_and_an_idle_one_is_none(tmp_path: Path) -> None:
    source = csv_file(tmp_path, WEEK_DRAWN)
    lines = nomarium("build", source, "-o", tmp_path / "week.ics")
    assert lines.status == 0
    found = {
        (str(event.get("SUMMARY")), f"{event.decoded('DTSTART'):%a %H:%M}", f"{event.decoded('DTEND'):%H:%M}")
        for event in events_in(tmp_path / "week.ics")
    }
    assert found == {
        ("Rigging till 10.30", "Mon 09:45", "11:15"), ("Sails (from 10)", "Wed 10:00", "11:15"),
        ("Knots 11.30", "Mon 11:30", "12:30"), ("Knots, doors 11.45", "Tue 11:45", "12:30"),
        ("Tar from noon", "Wed 12:00", "12:30"), ("Oars 1.15", "Mon 13:15", "14:30"), ("9.00 Trip", "Wed 13:00", "14:30"),
    }  # fmt: skip
    assert "begins then, and ends with its slot: “Sails (from 10)”" in lines.text
    assert "not used, only that of its slot: “Rigging till 10.30”" in lines.text
    assert "9 entries read = 7 events + 2 notes" in lines.text


@pytest.mark.parametrize("word", ["Segel ab 10.00", "Segel ab 10.30", "Boot 12.5", "Kurs 3.4."])
def test_a_word_with_figures_does_not_hide_the_language_of_dated_weekdays(word: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f";Mo 11.1.;Di 12.1.;Mi 13.1.;Do 14.1.\n8.00-9.30;{word};;Tau;\n9.45-11.45;;Boot;{word};\n"
    )
    assert len(built(source, "--school-year", "2026:2027")) == 4


CREW = (
    "Launch crew\n=========\n\tDeputy\tCrew lead\tDay\t{0}\nwk1\tT. Lunn\tI. Corriveau\t11 Jan 2027\t7:30-9:00\n"
    "wk2\tH. Brisk\tM. Doucette\t18 Jan 2027\t7:30-9:00\nwk3\tT. Lunn\tI. Corriveau\t25 Jan 2027\t7:30-9:00\n* swap and tell the office\n"
)  # fmt: skip


@pytest.mark.parametrize("heading", ["Slot", "Shift", "Session", "Time"])
def test_a_tabbed_table_below_a_title_is_no_lines_and_its_remedy_works(heading: str, tmp_path: Path) -> None:
    source = tmp_path / "crew.txt"
    source.write_text(CREW.format(heading))
    assert "--as roster" in refused(source)
    assert sorted(built(source, "--as", "roster")[:2]) == [
        "Crew lead: I. Corriveau 2027-01-11T07:30/2027-01-11T09:00",
        "Deputy: T. Lunn 2027-01-11T07:30/2027-01-11T09:00",
    ]


@pytest.mark.parametrize(
    ("titles", "expected"),
    [
        (("9.00 Oars", "10.30 Tar", "Trip"), ["Oars 2027-01-11T09:00", "Tar 2027-01-12T10:30", "Trip 2027-01-13/"]),
        (("Oars (9.00)", "Tar 3.30", "Trip"), ["Oars 2027-01-11T09:00", "Tar 2027-01-12T15:30", "Trip 2027-01-13/"]),
        (("Chapter 9.10", "Read chapter 9.20", "Trip"), ["Chapter 9.10 2027-01-11/", "Read chapter 9.20 2027-01-12/", "Trip 2027-01-13/"]),
        (("Unit 9.10", "Unit 9.20", "Unit 10.50"), ["Unit 9.10 2027-01-11/", "Unit 9.20 2027-01-12/", "Unit 10.50 2027-01-13/"]),
        (("Raffle 2.50", "Cake 1.50", "Trip"), ["Raffle 2.50 2027-01-11/", "Cake 1.50 2027-01-12/", "Trip 2027-01-13/"]),
    ],
)  # fmt: skip
def test_times_with_dots_in_titles_are_times_or_told(
    titles: tuple[str, ...], expected: list[str], tmp_path: Path
) -> None:
    source = csv_file(
        tmp_path, "Date,Event\n" + "".join(f"2027-01-{11 + n},{title}\n" for n, title in enumerate(titles))
    )
    assert [one[: len(wanted)] for one, wanted in zip(built(source), expected, strict=True)] == expected
    text = nomarium("survey", source).text
    assert "Titles that hold a time" in text or "a title and its time" in text


def test_two_columns_of_timed_words_ask_for_a_roster_and_are_told_of_as_a_title(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Lesson,Group A,Group B\n2027-01-11,9.00 Oars,11.00 Oars\n2027-01-12,10.30 Tar,9.00 Tar\n"
    )
    assert "--as roster" in refused(source)
    assert len(built(source, "--as", "roster")) == 4
    assert "Titles that hold a time" in nomarium("survey", source, "--title", "{Group A}: {Group B}").text


@pytest.mark.parametrize("heading", ["Wk beg", "Wk. Commencing", "Week comm.", "WK STARTING"])
def test_shortened_headings_of_weeks_give_all_seven_days(heading: str, tmp_path: Path) -> None:
    rows = "11/1/27,Moss,Pell\n18/1/27,Pell,Moss\n25/1/27,Moss,Pell\n"
    as_list = csv_file(tmp_path, f"{heading},Title\n11/1/27,Oars\n18/1/27,Tar\n")
    assert built(as_list) == ["Oars 2027-01-11/2027-01-18", "Tar 2027-01-18/2027-01-25"]
    drawn = built(csv_file(tmp_path, f"{heading},Slip 1,Slip 2\n{rows}"))
    assert len(drawn) == 6
    assert all(
        any(
            week in one
            for week in ("2027-01-11/2027-01-18", "2027-01-18/2027-01-25", "2027-01-25/2027-02-01")
        )
        for one in drawn
    )


def test_slots_without_a_session_are_no_events_and_are_told(tmp_path: Path) -> None:
    week = "Wk beg 18/1/27,Mon,Tue,Wed\n8.15-9.45,Oars,no class,No lesson today.\n10.05-11.35,No 7 crew,Tar,No class distinctions\n"
    source = csv_file(tmp_path, week)
    assert [one.rpartition(" ")[0] for one in sorted(built(source))] == [
        "No 7 crew",
        "No class distinctions",
        "Oars",
        "Tar",
    ]
    assert "nothing happens there" in nomarium("build", source, "-o", tmp_path / "out.ics").text


def test_hours_above_words_are_not_passed_over_for_another_column(tmp_path: Path) -> None:
    table = "Date,9-11,11-1{}\n2027-02-01,RF,TM{}\n2027-02-02,OP,RF{}\n2027-02-03,OP,TM{}\n"
    source = csv_file(tmp_path, table.format(",Key holder", *[",Moss"] * 3))
    assert "“9-11” and “11-1”, which may be hours, is not read" in refused(
        source, "--column", "Key holder=summary"
    )
    left_out = ("--column", "9-11=", "--column", "11-1=", "--column", "Key holder=summary")
    assert [one.split()[0] for one in built(source, *left_out)] == ["Moss"] * 3
    assert "RF 2027-02-01T09:00/2027-02-01T11:00" in built(csv_file(tmp_path, table.format("", "", "", "")))
