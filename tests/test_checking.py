"""check: who is in two places at once, what is there twice, what a clock change does, what breaks RFC 5545."""

from __future__ import annotations

import datetime as dt
import io
import json
import random
from itertools import combinations
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import csv_file, nomarium
from nomarium.checking.clashes import Clashes
from nomarium.checking.conformance import conformance
from nomarium.cli.demo import write_samples
from nomarium.model.event import Details, Event

HEAD = "Date,Start,End,Event,Room,Teacher,Group,Status,Busy,Attendees"

LISTS = {
    "a room": ("2026-10-05,9:00,10:00,A,Loft,,,,,\n2026-10-05,9:59,10:30,B,loft ,,,,,", ["clash-room Loft 1"]),
    "touching is no clash": ("2026-10-05,9:00,10:00,A,Loft,,,,,\n2026-10-05,10:00,10:30,B,Loft,,,,,", []),
    "all day never": ("2026-10-05,,,A,Loft,,,,,\n2026-10-05,10:00,10:30,B,Loft,,,,,", []),
    "a teacher in two rooms": ("2026-10-05,9:00,10:00,A,Loft,R. Finch,,,,\n2026-10-05,9:30,10:30,B,Shed,R. Finch; O. Tern,,,,", ["clash-teacher R. Finch 1"]),
    "a group": ("2026-10-05,9:00,10:00,A,,,Apprentices,,,\n2026-10-05,9:30,10:30,B,,,Apprentices,,,", ["clash-group Apprentices 1"]),
    "somebody invited": ("2026-10-05,9:00,10:00,A,,,,,,m@x.example\n2026-10-05,9:30,10:30,B,,,,,,m@x.example; n@x.example", ["clash-person m@x.example 1"]),
    "cancelled and free do not count": (
        "2026-10-05,9:00,10:00,A,Loft,,,cancelled,,\n2026-10-05,9:30,10:30,B,Loft,,,,,\n2026-10-05,9:30,10:30,C,Loft,,,,free,", [],
    ),
    "no places": ("2026-10-05,9:00,10:00,A,Online,,,,,\n2026-10-05,9:30,10:30,B,online,,,,,\n2026-10-05,9:30,10:30,C,TBC,,,,,\n2026-10-05,9:30,10:30,D,TBC,,,,,", []),
    "many dates are one finding": (
        "\n".join(f"2026-10-{n:02},9:00,10:00,A,Loft,,,,,\n2026-10-{n:02},9:30,10:30,B,Loft,,,,," for n in range(5, 9)), ["clash-room Loft 4"],
    ),
    "the same twice": ("2026-10-05,9:00,10:00,A,Loft,R. Finch,,,,\n2026-10-05,9:00,10:00,A,Loft,R. Finch,,,,", ["duplicate  1"]),
    "the same title at another place": ("2026-10-05,9:00,10:00,A,Loft,,,,,\n2026-10-05,9:00,10:00,A,Shed,,,,,", []),
}  # fmt: skip


def found_in(*arguments: object) -> list[str]:
    outcome = nomarium("check", *arguments, "--json")
    facts = json.loads(outcome.out)
    assert outcome.status == (1 if facts["findings"] or facts["problems"] else 0)
    return [f"{one['code']} {one['who']} {len(one['dates'])}" for one in facts["findings"]]


@pytest.mark.parametrize("name", LISTS)
def test_lists_are_checked_before_they_are_built(name: str, tmp_path: Path) -> None:
    rows, expected = LISTS[name]
    assert found_in(csv_file(tmp_path, f"{HEAD}\n{rows}\n")) == expected


def test_a_finding_names_both_events_and_their_rows(tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"{HEAD}\n{LISTS['a teacher in two rooms'][0]}\n")
    (finding,) = json.loads(nomarium("check", source, "--json").out)["findings"]
    assert finding["dates"] == ["2026-10-05"]
    assert [(one["summary"], one["start"], one["source"].rpartition(", ")[2]) for one in finding["events"]] == [
        ("A", "2026-10-05T09:00:00", "row 2"), ("B", "2026-10-05T09:30:00", "row 3"),
    ]  # fmt: skip
    text = nomarium("check", source)
    assert "R. Finch has “A” and “B” at once. On 2026-10-05." in text.out
    assert nomarium("check", source, "--allow", "clash-teacher").status == 0
    assert nomarium("check", source, "--allow", "clash-*").status == 0
    wrong = nomarium("check", source, "--allow", "clash-boat")
    assert wrong.status == 2 and "clash-teacher" in wrong.err


def test_clock_changes_are_found_in_lists_and_calendars(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Date,Start,End,Event\n2026-11-01,01:30,03:00,Night\n2027-03-14,02:30,04:00,Dawn\n2026-11-02,13:00,14:00,Day\n",
    )
    assert found_in(source, "--timezone", "America/Halifax") == ["clock-skipped  1", "clock-repeated  1"]
    assert nomarium("build", source, "-o", tmp_path / "o.ics", "--timezone", "America/Halifax").status == 0
    assert found_in(tmp_path / "o.ics") == ["clock-repeated  1"], "what was built has been moved on"


def test_several_sources_and_zones_are_compared_at_the_same_moment(tmp_path: Path) -> None:
    zoned = csv_file(tmp_path, "Date,Start,End,Event,Room\n2026-10-05,9:00,10:00,A,Loft\n", "a.csv")
    floating = csv_file(
        tmp_path,
        "Date,Start,End,Event,Room\n2026-10-05,9:30,10:30,B,Loft\n2026-10-05,12:00,13:00,C,Loft\n",
        "b.csv",
    )
    utc = csv_file(
        tmp_path, "Date,Start,End,Event,Room,Time zone\n2026-10-05,12:30,12:45,D,Loft,UTC\n", "c.csv"
    )
    assert nomarium("build", zoned, "-o", tmp_path / "a.ics", "--timezone", "America/Halifax").status == 0
    assert found_in(tmp_path / "a.ics", floating) == ["clash-room Loft 1"], (
        "a floating time is that of the others' zone"
    )
    assert found_in(tmp_path / "a.ics", utc) == ["clash-room Loft 1"], "12:30 UTC is 9:30 in Halifax"


def test_a_plan_is_checked_with_its_people(tmp_path: Path) -> None:
    write_samples(tmp_path)
    assert found_in(tmp_path / "year") == []
    timetable = tmp_path / "year" / "timetable.csv"
    lines = timetable.read_text("utf-8").splitlines()
    timetable.write_text("\n".join([*lines, lines[1].replace("KN1", "KN9")]) + "\n", "utf-8")
    found = found_in(tmp_path / "year")
    assert any(one.startswith("clash-teacher R. Finch") for one in found)
    assert any(one.startswith("clash-room") for one in found)


seconds = st.integers(0, 40)


@settings(max_examples=150, deadline=None)
@given(st.lists(st.tuples(seconds, st.integers(1, 12), st.integers(0, 3)), max_size=9))
def test_the_sweep_finds_what_comparing_all_pairs_finds(spans: list[tuple[int, int, int]]) -> None:
    clashes = Clashes(lambda source, row: f"{source} {row}")
    midnight = dt.datetime(2026, 10, 5)
    events = [
        Event(
            f"E{n}",
            midnight + dt.timedelta(minutes=a),
            midnight + dt.timedelta(minutes=a + b),
            details=Details(facets=(("teacher", f"T{who}"),)),
        )
        for n, (a, b, who) in enumerate(spans)
    ]
    for event in events:
        clashes.take(event, 0)
    found = {(one.who, *sorted(party.summary for party in one.events)) for one in clashes.findings()}
    every = {
        (a.details.facets[0][1], *sorted((a.summary, b.summary)))
        for a, b in combinations(events, 2)
        if a.details.facets == b.details.facets and a.start < b.end and b.start < a.end
    }
    assert found <= every
    busy = {who for who, *_ in every}
    assert {who for who, *_ in found} == busy, "nobody who clashes is passed over"
    most = max(
        (sum(e.start <= one.start < e.end and e.details == one.details for e in events) for one in events),
        default=0,
    )
    assert most > 4 or found == every


def test_one_place_for_many_is_one_finding_and_no_list_of_all_pairs() -> None:
    clashes = Clashes(lambda *_: "")
    dice = random.Random(5)
    for day in range(20):
        for n in range(100):
            start = dt.datetime(2026, 10, 1, 9, dice.randrange(30)) + dt.timedelta(days=day)
            clashes.take(Event(f"Class {n}", start, start + dt.timedelta(hours=1), location="Yard"), 0)
    (finding,) = clashes.findings()
    assert (finding.code, finding.who, len(finding.dates)) == ("clash-room", "Yard", 20)


GOOD = """BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Saltmarsh//EN
BEGIN:VEVENT
UID:1@saltmarsh.example
DTSTAMP:20260101T000000Z
DTSTART:20261005T090000Z
DTEND:20261005T100000Z
SUMMARY:Rigging
RRULE:FREQ=WEEKLY;COUNT=3
BEGIN:VALARM
ACTION:DISPLAY
TRIGGER:-PT15M
DESCRIPTION:Rigging
END:VALARM
END:VEVENT
END:VCALENDAR
"""

BROKEN = {
    "nothing": ("", "", []),
    "no version": ("VERSION:2.0\n", "", ["rfc-missing 1"]),
    "no uid": ("UID:1@saltmarsh.example\n", "", ["rfc-missing 4"]),
    "no stamp": ("DTSTAMP:20260101T000000Z\n", "", ["rfc-missing 4"]),
    "no start": ("DTSTART:20261005T090000Z\n", "", ["rfc-missing 4"]),
    "two titles": ("SUMMARY:Rigging", "SUMMARY:Rigging\nSUMMARY:Lofting", ["rfc-doubled 9"]),
    "a stamp that floats": ("20260101T000000Z", "20260101T000000", ["rfc-value 6"]),
    "no date": ("20261005T090000Z", "5 October", ["rfc-value 7"]),
    "a date as a time": ("DTSTART:20261005T090000Z", "DTSTART:20261005", ["rfc-value 7", "rfc-value 8"]),
    "an end before": ("DTEND:20261005T100000Z", "DTEND:20261005T080000Z", ["rfc-order 8"]),
    "an end and a length": ("SUMMARY:Rigging", "DURATION:PT1H\nSUMMARY:Rigging", ["rfc-doubled 8"]),
    "count and until": ("COUNT=3", "COUNT=3;UNTIL=20261231T000000Z", ["rfc-value 10"]),
    "no rule": ("FREQ=WEEKLY", "FREQ=TIDALLY", ["rfc-value 10"]),
    "a zone that nothing explains": (
        "DTSTART:20261005T090000Z",
        "DTSTART;TZID=Salt/Marsh:20261005T090000",
        ["rfc-zone 7"],
    ),
    "an alarm without a trigger": ("TRIGGER:-PT15M\n", "", ["rfc-alarm 11"]),
    "a status of its own": ("SUMMARY:Rigging", "STATUS:PERHAPS\nSUMMARY:Rigging", ["rfc-value 9"]),
    "no end": ("END:VCALENDAR\n", "", ["rfc-structure 1"]),
    "crossed ends": (
        "END:VALARM\nEND:VEVENT",
        "END:VEVENT\nEND:VALARM",
        ["rfc-structure 15", "rfc-structure 16"],
    ),
    "a line that is none": ("SUMMARY:Rigging", "SUMMARY:Rigging\nknots and splices", ["rfc-line 10"]),
    "a long line": ("SUMMARY:Rigging", "SUMMARY:" + "x" * 80, ["rfc-line-long 9"]),
    "a control character": ("SUMMARY:Rigging", "SUMMARY:Rig\x07ging", ["rfc-control 9"]),
}


@pytest.mark.parametrize("name", BROKEN)
def test_what_breaks_the_standard_is_found_with_its_line(name: str) -> None:
    old, new, expected = BROKEN[name]
    assert old in GOOD
    text = GOOD.replace(old, new, 1) if old else GOOD
    found = conformance(text.replace("\n", "\r\n").encode(), "c.ics")
    assert [f"{one.code} {one.events[0].source.rpartition(' ')[2]}" for one in found] == expected


def test_folds_and_bare_line_ends_are_seen(tmp_path: Path) -> None:
    folded = GOOD.replace("SUMMARY:Rigging", "SUMMARY:Rigging and\n  lofting").replace("\n", "\r\n")
    assert conformance(folded.encode(), "c.ics") == []
    path = tmp_path / "c.ics"
    path.write_bytes(GOOD.encode())
    assert set(found_in(path)) == {"rfc-line-end  0"}
    assert nomarium("check", path, "--allow", "rfc-line-end").status == 0


def test_what_is_built_here_keeps_to_the_standard(tmp_path: Path) -> None:
    write_samples(tmp_path)
    for source, options in (
        ("year", []),
        ("launch-days.csv", ["--timezone", "America/Halifax", "--reminder", "15m"]),
        ("office-records.csv", []),
    ):
        out = tmp_path / "o.ics"
        assert nomarium("build", tmp_path / source, "-o", out, "--afresh", *options).status == 0
        assert [one for one in found_in(out) if one.startswith("rfc")] == [], source


def test_clashes_of_a_plan_name_the_rows_of_its_timetable(tmp_path: Path) -> None:
    write_samples(tmp_path)
    timetable = tmp_path / "year" / "timetable.csv"
    lines = timetable.read_text("utf-8").splitlines()
    timetable.write_text("\n".join([*lines, lines[1].replace("KN1", "KN9")]) + "\n", "utf-8")
    outcome = nomarium("check", tmp_path / "year", "--json")
    (finding, *_) = json.loads(outcome.out)["findings"]
    assert [one["source"].partition(", sheet ")[2] for one in finding["events"]] == [
        "“timetable”, row 2, column C “Period”", "“timetable”, row 13, column C “Period”",
    ]  # fmt: skip
    assert len(finding["dates"]) == 90


ENDLESS = (
    "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Saltmarsh//EN", "BEGIN:VEVENT", "UID:1@s.example", "DTSTAMP:20260101T000000Z",
    "DTSTART:20200106T100000", "DTEND:20200106T110000", "RRULE:FREQ=WEEKLY", "SUMMARY:Rigging", "LOCATION:Loft", "END:VEVENT",
    "BEGIN:VEVENT", "UID:2@s.example", "DTSTAMP:20260101T000000Z", "DTSTART:20200106T103000", "DTEND:20200106T113000",
    "SUMMARY:Knots", "LOCATION:Loft", "END:VEVENT", "END:VCALENDAR", "",
)  # fmt: skip


def test_a_repeat_without_an_end_is_followed_as_by_those_that_look(tmp_path: Path) -> None:
    path = tmp_path / "endless.ics"
    path.write_bytes("\r\n".join(ENDLESS).encode())
    assert found_in(path) == ["clash-room Loft 1"]


def test_a_calendar_from_standard_input_is_held_to_the_standard(monkeypatch: pytest.MonkeyPatch) -> None:
    given = io.TextIOWrapper(io.BytesIO("\n".join(ENDLESS).encode()))
    monkeypatch.setattr("sys.stdin", given)
    outcome = nomarium("check", "-", "--allow", "clash-room")
    assert (
        outcome.status == 1
        and "all 21 with LF alone" in outcome.out
        and "standard input, line 1" in outcome.out
    )
