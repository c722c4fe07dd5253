"""The calendar file, judged by independent libraries and by the letter of RFC 5545."""

from __future__ import annotations

import datetime as dt
import re
from pathlib import Path
from zoneinfo import ZoneInfo

import icalendar
import pytest
import recurring_ical_events
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from helpers import csv_file, events_in, nomarium
from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.ical.octets import escaped, folded, parameter, unescaped, unfolded
from nomarium.ical.vtimezone import vtimezone
from nomarium.model.event import NO_DETAILS, Details, Event, Person
from nomarium.reckoning.zones import after_gap, elapsed, local_time_kind
from nomarium.targets.calendarfile import CalendarHead
from nomarium.targets.calendars import CalendarTarget
from nomarium.targets.identities import Identities
from nomarium.targets.splitting import slug


def written(folder: Path, events: list[Event], name: str = "Calendar") -> Path:
    path = folder / "out.ics"
    output = CalendarTarget(
        path, CalendarHead(name, "teal"), "20270101T000000Z", "", True, False, Identities(name)
    )
    with output:
        for event in events:
            output.write(event)
        output.finish()
    return path


def assert_well_formed(data: bytes) -> None:
    """RFC 5545: CRLF ends every line, none is over 75 octets, every TZID is defined."""
    assert data.endswith(b"\r\n")
    assert b"\n" not in data.replace(b"\r\n", b"")
    assert max(len(line) for line in data.split(b"\r\n")) <= 75
    text = data.decode().replace("\r\n ", "")
    used = set(re.findall(r"^DT\w+;TZID=([^:]+):", text, re.MULTILINE))
    defined = set(re.findall(r"^TZID:(.+)\r$", text, re.MULTILINE))
    assert used == defined


texts = st.text(st.characters(codec="utf-8", exclude_categories=("Cc", "Cs")), max_size=90)
moments = st.datetimes(dt.datetime(2020, 1, 1), dt.datetime(2035, 1, 1)).map(
    lambda m: m.replace(microsecond=0, fold=0)  # the model's times are on the wall clock: RFC 5545, 3.3.5
)
timed = st.builds(
    lambda summary, start, secs, zone, place, notes, row: Event(
        summary, start, start + dt.timedelta(seconds=secs), zone, place, notes, NO_DETAILS, row
    ),
    texts.filter(str.strip), moments, st.integers(0, 10**6),
    st.sampled_from([None, "UTC", "America/Halifax", "Europe/Paris", "Asia/Kathmandu"]), texts, texts, st.just(1),
)  # fmt: skip
all_day = st.builds(
    lambda summary, day, days: Event(summary, day, day + dt.timedelta(days=days)),
    texts.filter(str.strip), st.dates(dt.date(2020, 1, 1), dt.date(2035, 1, 1)), st.integers(1, 40),
)  # fmt: skip


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(timed | all_day, min_size=1, max_size=6))
def test_an_independent_library_reads_the_same_events(tmp_path, events: list[Event]) -> None:
    path = written(tmp_path, events)
    assert_well_formed(path.read_bytes())
    for event, read in zip(events, events_in(path), strict=True):
        zone = ZoneInfo(event.zone) if event.zone else None
        start = read.decoded("DTSTART")
        if isinstance(event.start, dt.datetime):
            assert start.replace(tzinfo=None) == event.start
            expected = event.start.replace(tzinfo=zone).utcoffset() if zone else None
            assert start.utcoffset() == expected
        else:
            assert start == event.start
        if event.end > event.start:
            assert read.decoded("DTEND").isoformat()[:19] == event.end.isoformat()
        lines = str.maketrans(dict.fromkeys("\u2028\u2029", "\n"))  # some readers part lines there
        texts = (event.summary.translate(lines), event.location.translate(lines))
        assert (str(read["SUMMARY"]), str(read.get("LOCATION", ""))) == texts


@given(st.text(max_size=300))
def test_folding_and_escaping_can_be_undone(text: str) -> None:
    clean = text.encode("utf-8", "replace").decode()
    line = folded("X:" + escaped(clean))
    assert all(len(piece) <= 75 for piece in line.encode("utf-8", "replace").split(b"\r\n"))
    (whole,) = unfolded(line)
    assert escaped(unescaped(whole[2:])) == whole[2:]


def test_text_that_has_everything() -> None:
    assert escaped("a\\b;c,d\r\ne\x07f") == r"a\\b\;c\,d\nef"
    assert unescaped(escaped("Oak; ash,\n\\elm")) == "Oak; ash,\n\\elm"
    assert parameter('Quill, "Maren"') == "\"Quill, ^'Maren^'\""
    assert folded("é" * 60) == "é" * 37 + "\r\n " + "é" * 23 + "\r\n"


def test_every_field_is_where_the_standard_has_it(tmp_path) -> None:
    details = Details(
        ("Launches", "Public, free"), ("Apprentices",), Person("Quill, Maren", "maren@saltmarsh.example"),
        (Person("", "t@saltmarsh.example"), Person("Odile", "", True)), "https://saltmarsh.example",
        "https://join.saltmarsh.example/1", "TENTATIVE",
        "PRIVATE", False, 900, "teal", 1, (44.65, -63.57), "own-uid", (("teacher", "R. Finch"),),
    )  # fmt: skip
    event = Event("A", dt.datetime(2027, 4, 5, 9), dt.datetime(2027, 4, 5, 10), None, "", "", details, 2)
    (read,) = events_in(written(tmp_path, [event]))
    assert read["UID"] == "own-uid"
    assert read["CATEGORIES"].cats == ["Launches", "Public, free"]
    assert (read["ORGANIZER"], read["ORGANIZER"].params["CN"]) == (
        "mailto:maren@saltmarsh.example",
        "Quill, Maren",
    )
    assert [person.params.get("ROLE") for person in read["ATTENDEE"]] == [None, "OPT-PARTICIPANT"]
    assert (read["STATUS"], read["CLASS"], read["TRANSP"], read["PRIORITY"]) == (
        "TENTATIVE",
        "PRIVATE",
        "TRANSPARENT",
        1,
    )
    assert (read["GEO"].latitude, read["GEO"].longitude) == (44.65, -63.57)
    assert (read["COLOR"], read["URL"]) == ("teal", "https://saltmarsh.example")
    assert read["CONFERENCE"] == "https://join.saltmarsh.example/1"
    assert (read["X-NOMARIUM-AUDIENCE"], read["X-NOMARIUM-TEACHER"]) == ("Apprentices", "R. Finch")
    assert read.walk("VALARM")[0].decoded("TRIGGER") == dt.timedelta(minutes=-15)


def test_the_calendar_says_its_name_and_colour(tmp_path) -> None:
    data = written(
        tmp_path, [Event("A", dt.date(2027, 4, 5), dt.date(2027, 4, 6))], "Boats; sheds"
    ).read_bytes()
    for line in (b"NAME:Boats\\; sheds", b"X-WR-CALNAME:Boats\\; sheds", b"COLOR:teal"):
        assert b"\r\n" + line + b"\r\n" in data
    assert icalendar.Calendar.from_ical(data)["VERSION"] == "2.0"


@pytest.mark.parametrize(
    "zone", ["America/Halifax", "Europe/London", "Australia/Lord_Howe", "Africa/Casablanca", "Asia/Tokyo"]
)
def test_the_vtimezone_alone_gives_the_right_offsets(zone: str) -> None:
    """A reader that knows no zones, only the file's VTIMEZONE, finds the offset of every day's noon."""
    first, last = dt.date(2026, 9, 1), dt.date(2028, 6, 30)
    component = icalendar.Calendar.from_ical(
        "BEGIN:VCALENDAR\r\n"
        + vtimezone(zone, first, last).replace(zone, "Custom/Zone")
        + "END:VCALENDAR\r\n"
    ).walk("VTIMEZONE")[0]
    changes = []
    for part in component.subcomponents:
        rdates = part.get("RDATE", [])
        rdates = rdates if isinstance(rdates, list) else [rdates]
        starts = [part.decoded("DTSTART")] + [one.dt for rdate in rdates for one in rdate.dts]
        changes += [(start - part.decoded("TZOFFSETFROM"), part.decoded("TZOFFSETTO")) for start in starts]
    changes.sort()
    for n in range((last - first).days + 1):
        noon = dt.datetime.combine(first + n * dt.timedelta(days=1), dt.time(12))
        expected = noon.replace(tzinfo=ZoneInfo(zone)).utcoffset()
        instant = noon - expected
        assert [offset for at, offset in changes if at <= instant][-1] == expected, noon


def test_both_sides_of_a_clock_change(tmp_path) -> None:
    text = "Date,Start,End,Title\n2027-03-13,12:00,13:00,Before\n2027-03-14,12:00,13:00,After"
    target = tmp_path / "o.ics"
    assert (
        nomarium("build", csv_file(tmp_path, text), "-o", target, "--timezone", "America/Halifax").status == 0
    )
    calendar = icalendar.Calendar.from_ical(target.read_bytes())
    found = recurring_ical_events.of(calendar).between((2027, 3, 1), (2027, 4, 1))
    starts = [event.decoded("DTSTART").astimezone(dt.UTC).hour for event in found]
    assert starts == [16, 15]


def test_local_times_at_a_change() -> None:
    zone = ZoneInfo("America/Halifax")
    assert local_time_kind(dt.datetime(2027, 3, 14, 2, 30), zone) == "skipped"
    assert local_time_kind(dt.datetime(2027, 11, 7, 1, 30), zone) == "repeated"
    assert local_time_kind(dt.datetime(2027, 4, 5, 1, 30), zone) == "plain"
    assert after_gap(dt.datetime(2027, 3, 14, 2, 30), zone) == dt.datetime(2027, 3, 14, 3, 30)
    assert elapsed(dt.datetime(2027, 3, 13, 22), dt.timedelta(hours=12), zone) == dt.datetime(2027, 3, 14, 11)


def test_an_alarm_for_every_event_that_has_none(tmp_path) -> None:
    source = csv_file(
        tmp_path,
        "Date,Start,Title,Reminder\n2027-04-05,9:00,A,\n2027-04-05,9:00,B,1 day\n2027-04-05,9:00,C,no",
    )
    target = tmp_path / "o.ics"
    assert nomarium("build", source, "-o", target, "--reminder", "15m").status == 0
    triggers = [event.walk("VALARM")[0].decoded("TRIGGER") for event in events_in(target)]
    assert triggers == [dt.timedelta(minutes=-15), dt.timedelta(days=-1), dt.timedelta(minutes=-15)]


def test_uids_are_uuids_and_say_nothing_of_times_or_places() -> None:
    identities = Identities("Calendar")
    uids = [
        identities.uid_of(
            Event("A", dt.datetime(2027, 4, 5, hour), dt.datetime(2027, 4, 5, 12)), f"body {hour}"
        )
        for hour in (8, 9)
    ]
    assert len(set(uids)) == 2
    assert all(
        re.fullmatch(r"[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-a[0-9a-f]{3}-[0-9a-f]{12}", uid) for uid in uids
    )
    moved = Identities("Calendar").uid_of(Event("A", dt.date(2027, 4, 5), dt.date(2027, 4, 6)), "other")
    assert moved == uids[0]
    assert Identities("Other").uid_of(Event("A", dt.date(2027, 4, 5), dt.date(2027, 4, 6)), "") != moved


def test_a_build_report_without_events_has_no_span() -> None:
    assert BuildReport().span is None
    assert BuildOptions(None, "a", "a", "").partial is False


@pytest.mark.parametrize(
    ("text", "name"),
    [
        ("Loft A/B: Élise", "loft-a-b-elise"),
        ("../..", ""),
        ("CON", "con-"),
        ("東京", "東京"),
        ("x" * 99, "x" * 80),
    ],
)
def test_file_names_are_safe_everywhere(text: str, name: str) -> None:
    assert slug(text) == name
