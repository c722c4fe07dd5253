"""Edges of the middle of the program that files seldom reach: bounds, doubles, second builds, what is counted and what is pinned."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from pathlib import Path
from zoneinfo import ZoneInfo

import openpyxl
import pytest
from dateutil.rrule import rrulestr

from helpers import built, csv_file, events_in, nomarium, plain, refused
from nomarium.history.pairing import _each_nearest, _nearest
from nomarium.history.publications import Publication, Publications
from nomarium.history.record import Record, State
from nomarium.history.settling.units import same_date
from nomarium.ical.octets import folded, unfolded
from nomarium.model.event import Event
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.model.refusal import Refusal, too_long
from nomarium.reading.cells.lengths import read_length
from nomarium.reckoning.daysoff import DaysOff
from nomarium.reckoning.rules import RuleFault, parse_rule, with_written_until
from nomarium.reckoning.series import originals
from nomarium.reckoning.starts import starts
from nomarium.reckoning.window import Window
from test_calendar_source import ics, vevent


@pytest.mark.parametrize(
    "rule",
    [
        "FREQ=DAILY;INTERVAL=3;BYDAY=MO,FR;COUNT=9",
        "FREQ=DAILY;INTERVAL=2;BYMONTH=9,12;COUNT=20",
        "FREQ=DAILY;INTERVAL=5;BYMONTHDAY=1,-1,15;COUNT=7",
        "FREQ=DAILY;INTERVAL=7;BYMONTH=10;UNTIL=20281001",
    ],
)
def test_a_daily_rule_with_an_interval_and_days_counts_from_its_first_day(rule: str) -> None:
    first = dt.date(2026, 9, 8)
    judged = [one.date() for one in rrulestr(rule, dtstart=dt.datetime(2026, 9, 8))]
    assert list(starts(parse_rule(rule), first)) == judged


def test_a_rule_until_a_date_is_written_as_its_times_need_it(tmp_path: Path) -> None:
    """RFC 5545, section 3.3.10: UNTIL has the type of DTSTART, and is in UTC where that has a zone."""
    event = (
        "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART{}:20260907T090000|RRULE:FREQ=WEEKLY;UNTIL=20261005"
    )
    for zone, until in (("", "20261005T090000"), (";TZID=America/Halifax", "20261005T120000Z")):
        source = ics(tmp_path, vevent(event.format(zone)))
        assert nomarium("build", source, "-o", tmp_path / "o.ics", "--repeats", "rule").status == 0
        assert f"UNTIL={until}" in (tmp_path / "o.ics").read_text("utf-8").replace("\r\n ", "")
        (tmp_path / "o.ics").unlink()
    rule, start = parse_rule("FREQ=WEEKLY;UNTIL=20261005"), dt.datetime(2026, 9, 7, 9)
    assert with_written_until(rule, start, None).until == dt.datetime(2026, 10, 5, 23, 59, 59)
    written = with_written_until(rule, start, ZoneInfo("America/Halifax"))
    assert written.until == dt.datetime(2026, 10, 6, 2, 59, 59) and written.until_is_utc
    assert with_written_until(written, start, None) == written
    assert with_written_until(rule, start.date(), None).until == dt.date(2026, 10, 5)


def test_an_endless_exception_rule_is_followed_to_the_end_of_the_window(tmp_path: Path) -> None:
    event = "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART;VALUE=DATE:20260901|RRULE:FREQ=DAILY|EXRULE:FREQ=DAILY;INTERVAL=2"
    found = built(ics(tmp_path, vevent(event)), "--until", "2026-09-06")
    assert found == [f"a 2026-09-0{n}/2026-09-0{n + 1}" for n in (2, 4, 6)]


def test_a_window_may_begin_with_the_first_days_that_there_are() -> None:
    event = Event("a", dt.date(1, 1, 2), dt.date(1, 1, 3))
    recurrence = Recurrence(rules=(parse_rule("FREQ=DAILY;COUNT=5"),))
    for day in range(1, 6):
        found = originals(event, recurrence, Window(dt.date(1, 1, day), dt.date(1, 1, 6)))
        assert dt.date(1, 1, 6) in list(found)


def test_a_calendar_of_one_zone_names_it_only_where_every_time_is_in_it(tmp_path: Path) -> None:
    table = "Event,Date,Start,Time zone\nLaunch,2026-09-07,9:00,America/Halifax\nFair,2026-09-08,{},\n"
    for start, is_named in (("", True), ("10:00", False)):
        source = csv_file(tmp_path, table.format(start))
        built(source)
        assert ("X-WR-TIMEZONE:" in (source.with_suffix(".ics")).read_text("utf-8")) == is_named


def test_uids_are_the_same_in_every_version(tmp_path: Path) -> None:
    """Who builds again with a newer version updates the same events: these UIDs are for ever."""
    table = "Event,Date,Start\nLaunch,2026-09-07,9:00\nLaunch,2026-09-07,11:00\nFair,2026-10-12,\n"
    target = tmp_path / "o.ics"
    nomarium("build", csv_file(tmp_path, table, "u.csv"), "-o", target)
    assert [str(event["UID"]) for event in events_in(target)] == [
        "5b54400b-23ed-8feb-ac41-38fc4d14ce90", "8a60d4f4-f613-8e54-a820-984638365445", "e0898d10-ff56-8535-a705-f59a2a8670b0",
    ]  # fmt: skip


def test_stretches_of_days_off_reach_the_last_day_asked_for() -> None:
    off = DaysOff({dt.date(2026, 10, n).toordinal(): "Fair" for n in range(5, 10)})
    found = list(off.stretches(dt.date(2026, 10, 1), dt.date(2026, 10, 7)))
    assert found == [("Fair", dt.date(2026, 10, 5), dt.date(2026, 10, 7))]
    assert list(off.stretches(dt.date(2026, 10, 9), dt.date(2026, 10, 9))) == [
        ("Fair", dt.date(2026, 10, 9), dt.date(2026, 10, 9))
    ]


@pytest.mark.parametrize(
    ("alarm", "kept"),
    [
        ("BEGIN:VALARM|ACTION:DISPLAY|TRIGGER:-PT15M|END:VALARM", 1),
        (
            "BEGIN:VALARM|ACTION:DISPLAY|TRIGGER:-PT15M|END:VALARM|BEGIN:VALARM|ACTION:DISPLAY|TRIGGER:-PT5M|END:VALARM",
            2,
        ),
        ("BEGIN:VALARM|ACTION:DISPLAY|TRIGGER:-PT15M|END:VALARM|COMMENT:behind", 1),
    ],
)
def test_alarms_are_kept_one_by_one(alarm: str, kept: int, tmp_path: Path) -> None:
    built(ics(tmp_path, vevent(f"UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART:20260907T090000|{alarm}")))
    (event,) = events_in(tmp_path / "source.ics")
    assert len(event.walk("VALARM")) == kept
    assert ("COMMENT" in event) == ("COMMENT" in alarm)


def test_lines_of_a_calendar_that_are_none_are_counted(tmp_path: Path) -> None:
    junk = vevent(
        "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART:20260907T090000|?|no line at all|nor this one"
    )
    assert "2 lines" in nomarium("build", ics(tmp_path, junk), "-o", tmp_path / "o.ics").text


def test_lengths_and_the_limit_of_a_cell_of_a_table(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f"Event,Date,Start,Reminder,Notes\nLaunch,2026-09-07,9:00,90m,{'x' * 32_767}\n"
    )
    for name in ("o.csv", "o.xlsx"):
        assert nomarium("build", source, "-o", tmp_path / name).status == 0
    assert "90 min" in (tmp_path / "o.csv").read_text("utf-8")
    longer = csv_file(tmp_path, f"Event,Date,Notes\nLaunch,2026-09-07,{'x' * 32_768}\n", "long.csv")
    ran = nomarium("build", longer, "-o", tmp_path / "long.xlsx")
    assert ran.status == 1 and "32,768 characters does not fit" in ran.err


def test_the_stamp_and_the_sequence_of_a_source_stay(tmp_path: Path) -> None:
    source = ics(
        tmp_path, vevent("UID:1|DTSTAMP:20250203T040506Z|SEQUENCE:4|SUMMARY:a|DTSTART:20260907T090000")
    )
    assert nomarium("build", source, "-o", tmp_path / "o.ics").status == 0
    (event,) = events_in(tmp_path / "o.ics")
    assert event["SEQUENCE"] == 4 and event["DTSTAMP"].dt == dt.datetime(2025, 2, 3, 4, 5, 6, tzinfo=dt.UTC)


def test_a_folder_of_a_split_may_be_there_already_and_may_not(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date,Room\nLaunch,2026-09-07,Slip 1\nFair,2026-09-08,Yard\n")
    for out in (tmp_path / "new" / "deep", tmp_path / "new" / "deep"):
        ran = nomarium("build", source, "-o", f"{out}/", "--split-by", "location")
        assert ran.status == 0, ran.text
    assert sorted(path.name for path in (tmp_path / "new" / "deep").glob("*.ics")) == [
        "slip-1.ics",
        "yard.ics",
    ]


def test_a_place_without_a_name_in_a_directory_is_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date,Room\nLaunch,2026-09-07,Slip 1\n")
    places = csv_file(tmp_path, "Name,Address\n,Quay 2\nSlip 1,Quay 1\n", "places.csv")
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--places", places)
    assert ran.status == 1 and "The row has no name." in ran.err and "places.csv, row 2" in ran.err


def test_pairs_that_are_too_many_to_weigh_take_the_nearest_left() -> None:
    fewer, more = list(range(0, 4000, 2)), list(range(1, 8001, 2))
    assert _nearest(fewer, more) == _each_nearest(fewer, more)
    assert _nearest([10, 12], [9, 11, 30]) == [0, 1]


def test_a_series_that_is_moved_keeps_its_other_dates(tmp_path: Path) -> None:
    moved = "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART:20260907T090000|RRULE:FREQ=WEEKLY;COUNT=3"
    other = "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:b|RECURRENCE-ID:20260914T090000|DTSTART:20260915T100000"
    found = built(ics(tmp_path, f"{vevent(moved)}|{vevent(other)}"))
    assert [one.split(" ")[0] for one in found] == ["a", "b", "a"]
    assert [plain(event) for event in events_in(tmp_path / "source.ics")] == found


def test_meetings_that_are_left_out_are_counted(tmp_path: Path) -> None:
    classes = csv_file(
        tmp_path, "Class,Day,Start,End\nKnots,Mon,9:00,10:00\nSteam,Tue,9:00,10:00\n", "timetable.csv"
    )
    dates = ("--from", "2026-12-01", "--until", "2026-12-13", "--as", "plan")
    ran = nomarium("build", classes, "-o", tmp_path / "o.ics", *dates, "--leave-out", "class=Knots")
    assert ran.status == 0 and "1 meeting left out, as asked." in ran.text, ran.text
    assert {str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")} == {"Steam"}


def test_a_recipe_hands_on_which_rows_it_leaves_out(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date\nLaunch,2026-12-24\nRehearsal,2026-12-22\n")
    first, second = tmp_path / "first.toml", tmp_path / "second.toml"
    first.write_text('leave_out_rows_with = ["Rehearsal"]\n', "utf-8")
    assert nomarium("survey", source, "--recipe", first, "--save", second).status == 0
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--recipe", second).status == 0
    assert [str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")] == ["Launch"]


def test_a_recipe_keeps_what_was_asked_and_nothing_else(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date,Paint\nLaunch,2026-12-24,4\n")
    for options, is_kept in ((("--keep-extra",), True), ((), False)):
        recipe = tmp_path / "r.toml"
        recipe.unlink(missing_ok=True)
        assert nomarium("survey", source, "--save", recipe, *options).status == 0
        assert ("keep_extra = true" in recipe.read_text("utf-8")) == is_kept
        nomarium("build", source, "-o", tmp_path / "o.ics", "--recipe", recipe, "--afresh")
        assert ("DESCRIPTION:Paint: 4" in (tmp_path / "o.ics").read_text("utf-8")) == is_kept
    halves = csv_file(tmp_path, "Exam,Date,Session\nKnots,2026-12-14,AM\nSteam,2026-12-14,PM\n", "exams.csv")
    assert nomarium("survey", halves, "--save", tmp_path / "h.toml").status == 0
    assert nomarium("build", halves, "-o", tmp_path / "h.ics", "--recipe", tmp_path / "h.toml").status == 0
    assert [str(event["DESCRIPTION"]) for event in events_in(tmp_path / "h.ics")] == [
        "Session: AM",
        "Session: PM",
    ]


@pytest.mark.parametrize(
    ("old", "new", "day", "found"),
    [
        ((1, 8, 15), (2, 9, 16), 8, 9),
        ((1, 8, 15), (1, 8), 8, 8),
        ((1, 8, 15), (1, 8), 15, None),
        ((1, 8), (2, 9), 5, None),
        ((1, 8), (5, 9), 5, 5),
    ],
)
def test_a_date_of_a_series_in_its_other_state(
    old: tuple[int, ...], new: tuple[int, ...], day: int, found: int | None
) -> None:
    there = same_date(
        dt.date(2026, 9, day), [dt.date(2026, 9, n) for n in old], [dt.date(2026, 9, n) for n in new]
    )
    assert there == (None if found is None else dt.date(2026, 9, found))


def test_a_record_of_publications_that_another_program_made_has_none(tmp_path: Path) -> None:
    path = tmp_path / "history.sqlite3"
    sqlite3.connect(path).close()
    path.write_bytes(b"")
    assert Publications(path).load("https://saltmarsh.example/c/", "") is None


@pytest.mark.parametrize(
    "rule",
    [
        "FREQ=HOURLY;INTERVAL=5;BYHOUR=9,14,19;COUNT=9",
        "FREQ=HOURLY;INTERVAL=7;COUNT=12",
        "FREQ=MINUTELY;INTERVAL=90;BYHOUR=9,12,15;COUNT=10",
        "FREQ=MINUTELY;INTERVAL=25;BYMINUTE=0,30,50;BYDAY=TU;COUNT=10",
    ],
)
def test_hours_and_minutes_are_counted_over_days(rule: str) -> None:
    first = dt.datetime(2026, 9, 8, 9)
    assert list(starts(parse_rule(rule), first)) == list(rrulestr(rule, dtstart=first))


def test_what_was_put_into_a_calendar_is_listed_by_its_sources(tmp_path: Path) -> None:
    kept = Publications(tmp_path / "history.sqlite3")
    assert kept.parts("https://saltmarsh.example/c/") == []
    state = Publication("https://saltmarsh.example/c/", "t1", "", {}, frozenset(), {}, frozenset())
    kept.keep("https://saltmarsh.example/c/", "b", state)
    kept.keep("https://saltmarsh.example/c/", "a", state)
    assert kept.parts("https://saltmarsh.example/c/") == ["a", "b"] and kept.parts("elsewhere") == []
    assert kept.load("https://saltmarsh.example/c/", "a") == state


def test_a_calendar_is_coloured_only_when_asked(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date\nLaunch,2026-12-24\n")
    for options, colour in (((), ""), (("--color", "teal"), "COLOR:teal")):
        nomarium("build", source, "-o", tmp_path / "o.ics", "--afresh", *options)
        lines = (tmp_path / "o.ics").read_text("utf-8").splitlines()
        assert [line for line in lines if line.startswith("COLOR")] == ([colour] if colour else [])


def test_a_recipe_of_a_table_without_headings_names_its_columns_by_letters(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Launch,2026-12-24,x\nFair,2026-12-31,y\n")
    assert nomarium("survey", source, "--save", tmp_path / "r.toml").status == 0
    text = (tmp_path / "r.toml").read_text("utf-8")
    assert 'A = "summary"' in text and 'B = "date"' in text and "C =" not in text
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--recipe", tmp_path / "r.toml").status == 0
    assert len(events_in(tmp_path / "o.ics")) == 2


def test_a_class_that_is_renamed_has_the_name_where_its_code_stood(tmp_path: Path) -> None:
    table = "Class,Day,Start,End\nK1,Mon,9:00,10:00\nK2,Tue,9:00,10:00\n"
    classes = csv_file(tmp_path, table, "timetable.csv")
    dates = ("--from", "2026-12-07", "--until", "2026-12-11", "--as", "plan")
    ran = nomarium("build", classes, "-o", tmp_path / "o.ics", *dates, "--rename", "K1=K1 and K1 again")
    assert ran.status == 0, ran.text
    assert [str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")] == ["K1 and K1 again", "K2"]


def test_a_calendar_that_is_moved_is_told_by_its_file(tmp_path: Path) -> None:
    source = ics(tmp_path, vevent("UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART;VALUE=DATE:20260907"))
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--day-one", "2026-10-05", "--json")
    moved = [one for one in json.loads(ran.out)["notes"] if one["code"] == "dates-moved"]
    assert [one["file"] for one in moved] == [str(source)]
    assert [plain(event) for event in events_in(tmp_path / "o.ics")] == ["a 2026-10-05/2026-10-06"]


@pytest.mark.parametrize("interval", (2, 3, 5, 7))
def test_a_rule_keeps_its_step_wherever_a_window_begins(interval: int) -> None:
    first = dt.date(2026, 9, 8)
    for rule in (
        f"FREQ=DAILY;INTERVAL={interval}",
        f"FREQ=WEEKLY;INTERVAL={interval}",
        f"FREQ=MONTHLY;INTERVAL={interval}",
    ):
        whole = [
            one for one in starts(parse_rule(rule), first, None, dt.date(2028, 12, 31)) if one.year == 2028
        ]
        for day in range(1, 15):
            begin = dt.date(2028, 1, day)
            found = starts(parse_rule(rule), first, begin, dt.date(2028, 12, 31))
            assert [one for one in found if one >= begin] == [one for one in whole if one >= begin]


def test_a_rule_that_ends_in_utc_is_kept_where_no_zone_is(tmp_path: Path) -> None:
    event = "UID:1|DTSTAMP:20260101T000000Z|SUMMARY:a|DTSTART:20260907T090000Z|RRULE:FREQ=WEEKLY;UNTIL=20260921T090000Z"
    source = ics(tmp_path, vevent(event))
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--repeats", "rule").status == 0
    assert "RRULE:FREQ=WEEKLY;UNTIL=20260921T090000Z" in (tmp_path / "o.ics").read_text("utf-8")
    assert len(built(source, "--afresh")) == 3


def test_a_state_that_is_built_again_keeps_its_place_and_has_the_later_date(tmp_path: Path) -> None:
    kept = Record(tmp_path / "h.sqlite3")
    first = State("/o.ics", "2026-09-01T09:00:00Z", "2026-09-01T09:00:00Z", [("a.csv", "d1")], "", 3, {})
    kept.keep(first, "same", {"o.ics": b"x"})
    kept.keep(
        first._replace(written="2026-09-02T09:00:00Z", again="2026-09-02T09:00:00Z"), "same", {"o.ics": b"x"}
    )
    kept.keep(first._replace(out="/p.ics", again="2026-09-05T09:00:00Z"), "same", {})
    (state,) = kept.states("/o.ics")
    assert (state.written, state.again) == ("2026-09-01T09:00:00Z", "2026-09-02T09:00:00Z")


@pytest.mark.parametrize(
    "rule",
    [
        "FREQ=DAILY;BYHOUR=9,17;COUNT=7",
        "FREQ=WEEKLY;BYDAY=TU,FR;BYHOUR=8;BYMINUTE=0,30;COUNT=9",
        "FREQ=MONTHLY;BYMONTHDAY=1,8;BYHOUR=7,12;COUNT=8",
    ],
)
def test_times_of_a_rule_before_its_first_moment_are_none(rule: str) -> None:
    for first in (dt.datetime(2026, 9, 8, 12), dt.datetime(2026, 9, 8, 8, 15)):
        assert list(starts(parse_rule(rule), first)) == list(rrulestr(rule, dtstart=first))


def test_a_class_whose_code_stands_twice_in_a_title_is_renamed_once(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date,Class\nK1: knots for K1,2026-12-07,K1\n")
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--rename", "K1=Keel")
    assert ran.status == 0, ran.text
    assert [str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")] == ["Keel: knots for K1"]


@pytest.mark.parametrize("sign", ["ö", "船", "⛵"])
def test_a_line_of_several_octets_a_character_is_folded_as_late_as_can_be(sign: str) -> None:
    lines = folded(f"DESCRIPTION:{sign * 90}").removesuffix("\r\n").split("\r\n")
    sizes = [len(line.encode()) for line in lines]
    assert len(lines) > 2
    assert max(sizes) <= 75
    assert min(sizes[:-1]) > 75 - len(sign.encode())
    assert unfolded("\r\n".join(lines)) == [f"DESCRIPTION:{sign * 90}"]


def test_a_value_that_nothing_has_names_five_that_are_there_and_counts_the_others(tmp_path: Path) -> None:
    rows = "\n".join(f"2026-12-{day:02},Trials,Loft {name}" for day, name in enumerate("ABCDEFG", 1))
    source = csv_file(tmp_path, f"Date,What,Where\n{rows}")
    said = nomarium("build", source, "-o", tmp_path / "o.ics", "--only", "location=Quarry")
    assert said.status == 1
    assert "“Loft E” and 2 others." in said.text


def test_the_next_event_of_a_blank_day_is_the_first_of_that_date(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,What\n2026-12-01,Knots\n2026-12-07,Tar\n2026-12-07,Oak")
    said = nomarium("why", source, "--on", "2026-12-03").out
    assert "Tar" in said
    assert "Oak" not in said


@pytest.mark.parametrize(
    ("rule", "is_possible"),
    [
        ("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=28,31", True),
        ("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30,31", False),
        ("FREQ=YEARLY;BYMONTH=2,3;BYMONTHDAY=31", True),
        ("FREQ=YEARLY;BYMONTH=4;BYMONTHDAY=-31", False),
    ],
)
def test_a_rule_is_impossible_when_none_of_its_days_is_in_any_of_its_months(
    rule: str, is_possible: bool
) -> None:
    found = parse_rule(rule)
    assert isinstance(found, RuleFault) is not is_possible


@pytest.mark.parametrize(
    ("text", "secs"),
    [
        ("1 h and 30 min", 5400),
        ("1 h, 30 min", 5400),
        ("1 h or 30 min", None),
        ("2 boats 30 min", None),
        ("1 h of 30 min", None),
    ],
)
def test_a_length_is_the_sum_of_its_parts_and_of_nothing_else(text: str, secs: int | None) -> None:
    found = read_length(text)
    assert (None if isinstance(found, Refusal) else found) == secs


def test_free_times_of_nothing_are_none_and_no_failure(tmp_path: Path) -> None:
    source = tmp_path / "empty.ics"
    source.write_bytes(b"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n")
    outcome = nomarium("free", source, "--length", "30m")
    assert (outcome.status, "There is no event and no school day to look at." in outcome.text) == (0, True)


def test_a_week_without_a_year_is_that_of_the_school_year_and_nothing_without_one(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Week of 7 September,Mon,Tue\n9:00,Knots,Sails")
    assert "year" in refused(source)
    assert built(source, "--school-year", "2026:2027")[0] == "Knots 2026-09-07T09:00/2026-09-07T10:00"


@pytest.mark.parametrize(
    ("month", "longest"),
    [(1, 31), (2, 29), (3, 31), (4, 30), (5, 31), (6, 30), (7, 31), (8, 31), (9, 30), (10, 31), (11, 30), (12, 31)],
)  # fmt: skip
def test_a_day_that_a_month_never_has_is_refused_and_its_last_one_is_not(month: int, longest: int) -> None:
    known = parse_rule(f"FREQ=YEARLY;BYMONTH={month};BYMONTHDAY={longest};COUNT=2")
    assert isinstance(known, Rule)
    beyond = parse_rule(f"FREQ=YEARLY;BYMONTH={month};BYMONTHDAY={longest + 1};COUNT=2")
    assert isinstance(beyond, RuleFault)
    assert beyond.part == "BYMONTHDAY"


def test_a_text_of_the_longest_length_is_read_and_one_longer_is_not() -> None:
    assert too_long("x" * 10, 10) is None
    refusal = too_long("x" * 11, 10)
    assert refusal is not None
    assert "11 characters" in refusal.message


def test_times_of_a_table_are_those_of_the_events_to_the_second(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Start,End\nA,2026-09-07,09:45:30,23:59\nB,2026-09-08,,")
    assert nomarium("build", source, "-o", tmp_path / "o.xlsx").status == 0
    page = openpyxl.load_workbook(tmp_path / "o.xlsx").active
    assert page is not None
    heads = [cell.value for cell in page[1]]
    start, end = heads.index("Start"), heads.index("End")
    assert (page[2][start].value, page[2][end].value) == (dt.time(9, 45, 30), dt.time(23, 59))
    assert (page[3][start].value, page[3][end].value) == (None, None)
    assert page.freeze_panes == "B2"


@pytest.mark.parametrize(
    ("rows", "floats"),
    [("A,2026-09-07,9:00", True), ("A,2026-09-07,", False), ("A,2026-09-07,\nB,2026-09-08,9:00", True)],
)
def test_times_without_a_zone_are_told_where_there_are_some(rows: str, floats: bool, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Title,Date,Start\n{rows}")
    assert ("Times float" in nomarium("build", source, "-o", tmp_path / "o.ics").out) is floats
    zoned = nomarium("build", source, "-o", tmp_path / "z.ics", "--timezone", "America/Halifax")
    assert "Times float" not in zoned.out


@pytest.mark.parametrize(
    ("heads", "row", "moved"),
    [
        ("Event,Date", "A,2026-09-07", "2027-09-06"),
        ("Event,Start,End", "A,2026-09-07 9:00,2026-09-07 10:00", "2027-09-06"),
        ("Event,Week,Day", "A,1,Mon", "2027-09-06"),
    ],
)
def test_the_first_day_moves_dates_and_begins_programmes(
    heads: str, row: str, moved: str, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, f"{heads}\n{row}")
    told = nomarium("build", source, "-o", tmp_path / "o.ics", "--day-one", "2027-09-06")
    assert told.status == 0, told.text
    assert [plain(event)[2:12] for event in events_in(tmp_path / "o.ics")] == [moved]
    assert ("later" in told.out or "moved" in told.out) is (heads != "Event,Week,Day")


def test_a_line_across_a_table_keeps_its_own_title_under_a_template(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Subject,Paper,Date\nKnots,1,2026-09-07\nHarbour closed on 8 September 2026,,\nSails,2,2026-09-09",
    )
    found = [event.rpartition(" ")[0] for event in built(source, "--title", "{Subject}: paper {Paper}")]
    assert sorted(found) == ["Harbour closed", "Knots: paper 1", "Sails: paper 2"]


def test_guests_are_asked_to_reply_where_a_column_or_an_override_says_so(tmp_path: Path) -> None:
    table = "Event,Date,Attendees,RSVP\nLaunch,2026-09-07,ada@saltmarsh.example; ivy@saltmarsh.example,yes\nFair,2026-09-08,ada@saltmarsh.example,\nTea,2026-09-09,,\n"
    source = csv_file(tmp_path, table)
    built(source)

    def asked(path: Path) -> list[list[str]]:
        people = [event.get("ATTENDEE", []) for event in events_in(path)]
        listed = [one if isinstance(one, list) else [one] for one in people]
        return [[person.params.get("RSVP", "") for person in one] for one in listed]

    calendar = source.with_suffix(".ics")
    assert asked(calendar) == [["TRUE", "TRUE"], [""], []]
    all_asked = tmp_path / "asked.ics"
    assert nomarium("build", calendar, "-o", all_asked, "--override", "rsvp=yes").status == 0
    assert asked(all_asked) == [["TRUE", "TRUE"], ["TRUE"], []]
    assert [plain(event) for event in events_in(all_asked)] == [plain(event) for event in events_in(calendar)]


def test_a_date_of_a_floating_series_that_is_left_out_stays_out_of_its_rule(tmp_path: Path) -> None:
    visit = "UID:1|RECURRENCE-ID:20270111T090000|DTSTART:20270111T140000|DTEND:20270111T150000|SUMMARY:Visit"
    knots = "UID:1|DTSTART:20270104T090000|DTEND:20270104T100000|RRULE:FREQ=WEEKLY;COUNT=3|SUMMARY:Knots"
    source = ics(tmp_path, f"{vevent(knots)}|{vevent(visit)}")
    target = tmp_path / "out.ics"
    ran = nomarium("build", source, "-o", target, "--leave-out", "title=Visit", "--repeats", "rule")
    assert ran.status == 0
    (series,) = events_in(target)
    assert series["EXDATE"].dts[0].dt == dt.datetime(2027, 1, 11, 9)
