"""view in the terminal: every event is there, cut with a sign or counted, at any width."""

from __future__ import annotations

import datetime as dt
import json
import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import csv_file, nomarium
from nomarium.model.event import Event
from nomarium.pictures.names import names_in
from nomarium.pictures.paging import pages_of, window_of
from nomarium.pictures.shown import Show, Shown, in_order, keys_of
from nomarium.pictures.terminal.agenda import agenda
from nomarium.pictures.terminal.lines import plain, width_of
from nomarium.pictures.terminal.month import month
from nomarium.pictures.terminal.week import week
from nomarium.pictures.terminal.year import year
from test_pictures import ALL, MONDAY, show_of, some_events

NAMES = names_in("en", None)
LIST = """
    Date,Start,End,Event,Where,Teacher
    2026-11-02,9:00,10:30,Rigging,Sail loft,R. Finch
    2026-11-02,10:00,11:00,Lofting,Mould loft,A. Plover
    2026-11-04,,,Staff day,,
    2026-11-07,10:00,12:00,Regatta,Slip 1,
    2026-12-01,9:00,9:50,Steam bending,Steam shed,R. Finch
"""


def lines_of(lines: object) -> list[str]:
    return [plain(line) for line in lines]  # type: ignore[attr-defined]


def counted(text: str) -> int:
    return sum(int(n) for n in re.findall(r"(?<![\w-])\+(\d+)", text))


@settings(max_examples=60, deadline=None)
@given(st.integers(0, 100_000), st.integers(60, 200))
def test_no_line_is_wider_than_the_terminal_and_no_event_is_lost(seed: int, width: int) -> None:
    events = [event._replace(summary=chr(0x100 + n)) for n, event in enumerate(some_events(seed))]
    show, sunday = show_of(events, days=29), MONDAY + dt.timedelta(days=6)
    of_week, of_month = show.within(MONDAY, sunday), show.within(MONDAY, dt.date(2026, 11, 30))
    days = [MONDAY + dt.timedelta(days=n) for n in range(7)]
    drawn = {
        "agenda": (show, agenda(show, NAMES, width)),
        "week": (of_week, week(of_week, NAMES, width, days, None)),
        "month": (of_month, month(of_month, NAMES, width, ALL, dt.date(2026, 11, 1))),
        "year": (None, year(show._replace(last=dt.date(2027, 10, 31)), NAMES, width)),
    }
    for name, (part, lines) in drawn.items():
        texts = lines_of(lines)
        assert [line for line in texts if width_of(line) > width] == [], name
        text = "\n".join(texts)
        if part is not None:
            letters = {one for one in text if 0x100 <= ord(one) < 0x200}
            assert len(letters) + counted(text) >= len(part.events), name
            assert name != "agenda" or counted(text) == 0


def test_an_agenda_says_when_what_and_where(tmp_path: Path) -> None:
    source = csv_file(tmp_path, LIST)
    outcome = nomarium("view", source, "--from", "2026-11-01", "--until", "2026-11-30")
    assert outcome.status == 0, outcome.text
    assert "Mon 2 November 2026" in outcome.out
    assert re.search(r"9:00–10:30 +▌ Rigging +Sail loft", outcome.out)
    assert re.search(r"all day +▌ Staff day", outcome.out)
    assert "Steam bending" not in outcome.out


def test_a_week_has_its_overlaps_side_by_side_and_days_that_are_needed(tmp_path: Path) -> None:
    source = csv_file(tmp_path, LIST)
    outcome = nomarium("view", source, "--as", "week", "--from", "2026-11-02")
    row = next(line for line in outcome.out.splitlines() if line.startswith("10:00"))
    assert re.search(r"│▌.*▌Loft", row), "Rigging goes on beside Lofting, which begins"
    assert "Sat 7 Nov" in outcome.out and "Sun 8 Nov" not in outcome.out
    narrow = nomarium(
        "view", source, "--as", "week", "--from", "2026-11-02", "--days", "Mon-Fri", "--hours", "9-10"
    )
    assert "1 event on other weekdays" in narrow.out
    assert "Sat 7 Nov" not in narrow.out
    assert "before 9:00 or after 10:00" in narrow.out
    assert "1 event after 2026-11-08" in outcome.out


def test_dates_without_an_event_are_said_to_be_empty(tmp_path: Path) -> None:
    outcome = nomarium("view", csv_file(tmp_path, LIST), "--from", "2028-01-01", "--as", "month")
    assert outcome.status == 0
    assert "Nothing is from 2028-01-01 to 2028-01-31" in outcome.out


def test_a_month_and_a_year_are_drawn_from_any_source(tmp_path: Path) -> None:
    source = csv_file(tmp_path, LIST)
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--timezone", "America/Halifax").status == 0
    outcome = nomarium(
        "view", tmp_path / "o.ics", source, "--as", "month", "--from", "2026-11-01", "--color-by", "calendar"
    )
    assert outcome.out.count("9:00 Rigging") == 2
    assert "▌ events  ┃ o" in outcome.out or "▌ o  ┃ events" in outcome.out, (
        "the legend tells the sources apart"
    )
    whole = nomarium("view", source, "--as", "year")
    assert "November 2026" in whole.out and "October 2027" in whole.out
    assert re.search(r" 2[▁▃▅█]", whole.out)


WINDOWS = {
    "from today when it goes on": ("week", None, None, dt.date(2026, 11, 11), "2026-11-09 2026-11-15"),
    "else from the first event": ("month", None, None, dt.date(2027, 6, 1), "2026-11-01 2026-11-30"),
    "from the day that is asked for": (
        "week",
        dt.date(2026, 11, 4),
        None,
        dt.date(2026, 1, 1),
        "2026-11-04 2026-11-10",
    ),
    "all of a window": (
        "month",
        dt.date(2026, 11, 4),
        dt.date(2027, 1, 3),
        dt.date(2026, 1, 1),
        "2026-11-04 2027-01-03",
    ),
    "a year is the school year": ("year", None, None, dt.date(2026, 11, 20), "2026-11-01 2027-10-31"),
    "an agenda to the last event": ("agenda", None, None, dt.date(2026, 1, 1), "2026-11-02 2026-12-01"),
    "everything": ("all", None, None, dt.date(2026, 11, 20), "2026-11-02 2026-12-01"),
}


@pytest.mark.parametrize("name", WINDOWS)
def test_the_window_follows_from_the_events_and_what_is_asked(name: str) -> None:
    kind, first, last, today, expected = WINDOWS[name]
    events = [
        Shown(Event("A", dt.date(2026, 11, 2), dt.date(2026, 11, 3))),
        Shown(Event("B", dt.date(2026, 12, 1), dt.date(2026, 12, 2))),
    ]
    assert " ".join(map(str, window_of(kind, events, first, last, today, NAMES))) == expected  # type: ignore[arg-type]


def test_pages_are_weeks_of_drawn_days_months_and_years() -> None:
    assert [page.heading for page in pages_of("week", MONDAY, dt.date(2026, 11, 15), NAMES, frozenset(range(5)))] == [
        "2–6 November 2026", "9–13 November 2026",
    ]  # fmt: skip
    months = pages_of("month", MONDAY, dt.date(2027, 1, 2), NAMES, ALL)
    assert [page.heading for page in months] == ["November 2026", "December 2026", "January 2027"]
    assert len(pages_of("year", MONDAY, dt.date(2028, 1, 2), NAMES, ALL)) == 2


def test_a_repeat_without_an_end_is_followed_and_a_plan_shows_its_labels(tmp_path: Path) -> None:
    calendar = tmp_path / "c.ics"
    calendar.write_text(
        "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:x\nBEGIN:VEVENT\nUID:1\nDTSTAMP:20260101T000000Z\nDTSTART:20261102T090000\n"
        "DTEND:20261102T100000\nRRULE:FREQ=WEEKLY\nSUMMARY:Tide walk\nEND:VEVENT\nEND:VCALENDAR\n"
    )
    outcome = nomarium("view", calendar, "--from", "2026-11-01", "--as", "month")
    assert outcome.status == 0, outcome.text
    assert outcome.out.count("Tide walk") == 5
    from nomarium.cli.demo import write_samples

    write_samples(tmp_path)
    plan = nomarium(
        "view", tmp_path / "year", "--as", "week", "--from", "2026-11-09", "--only", "teacher=R. Finch"
    )
    assert re.search(r"│Rib +│Plank", plan.out)
    assert "Remembrance Day" in plan.out


REFUSED = {
    "no view": (["--as", "fortnight"], "is no view"),
    "two views": (["--as", "week", "--as", "year"], "one view at a time"),
    "hours of a month": (["--as", "month", "--hours", "8-16"], "--hours narrows a week"),
    "hours": (["--as", "week", "--hours", "16-8"], "not from an hour until a later one"),
    "days": (["--as", "week", "--days", "Kelday"], "names no weekdays"),
    "colour": (["--color-by", "start"], "cannot be coloured"),
    "ending": (["-o", "out.gif"], "does not say by its ending"),
    "paper": (["--paper", "a5"], "no size of paper"),
    "a folder that is none": (["-o", "nowhere/out.png"], "There is no folder"),
}


@pytest.mark.parametrize("name", REFUSED)
def test_what_makes_no_sense_is_refused(name: str, tmp_path: Path) -> None:
    options, message = REFUSED[name]
    outcome = nomarium("view", csv_file(tmp_path, LIST), *options)
    assert outcome.status == 2
    assert message in outcome.err


def test_problems_are_told_and_no_picture_replaces_an_old_one(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Event\n2026-11-02,A\n2026-31-31,B\n")
    out = tmp_path / "m.png"
    out.write_bytes(b"old")
    outcome = nomarium("view", source, "--as", "month", "-o", out)
    assert outcome.status == 1
    assert "2026-31-31" in outcome.err
    assert out.read_bytes() == b"old"
    on_screen = nomarium("view", source)
    assert on_screen.status == 1 and "Mon 2 November" in on_screen.out, "what could be read can be looked at"
    same = nomarium("view", source, "-o", source.with_suffix(".png"), "--recipe", tmp_path / "none.toml")
    assert same.status == 1


def test_json_has_the_same_facts(tmp_path: Path) -> None:
    facts = json.loads(
        nomarium(
            "view", csv_file(tmp_path, LIST), "--json", "--from", "2026-11-01", "--until", "2026-11-05"
        ).out
    )
    assert [one["summary"] for one in facts["events"]] == ["Rigging", "Lofting", "Staff day"]
    assert (facts["first_day"], facts["last_day"], facts["problems"]) == ("2026-11-01", "2026-11-05", [])


def test_names_and_first_weekdays_are_those_of_the_language_and_the_zone() -> None:
    french = names_in("fr", "America/Halifax")
    assert (french.months[8], french.days[0], french.first_weekday) == ("septembre", "lundi", 6)
    assert names_in("xx", None).months[0] == "January"
    assert names_in("de", "Europe/Berlin").first_weekday == 0
    shown = in_order([Shown(Event("x", MONDAY, MONDAY + dt.timedelta(days=1)), "k")])
    show = Show("S", shown, MONDAY, MONDAY, keys_of(shown))
    assert "novembre" in "\n".join(lines_of(agenda(show, french, 60)))
