"""The parts that read calendar text, each by itself: frame, zones, values, merging, rules that say a series."""

from __future__ import annotations

import datetime as dt
from pathlib import Path
from zoneinfo import ZoneInfo

import icalendar
import pytest
from hypothesis import given
from hypothesis import strategies as st

from helpers import events_in, nomarium, plain
from nomarium.ical.contentlines import parsed, unfolder_of
from nomarium.ical.files import is_calendar
from nomarium.ical.filezones import FileZone, read_vtimezone
from nomarium.ical.frame import blocks_in, read_frame, with_plain_ends
from nomarium.ical.merging import merged
from nomarium.ical.octets import folded, unfolded
from nomarium.ical.values import UnknownZone, instant_of
from nomarium.model.entry import Entry, Instant, Series, as_utc
from nomarium.model.event import Details, Event
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.reckoning.asrule import as_rule
from nomarium.reckoning.daysoff import DaysOff, EndlessDays, PublicHolidays, named_days
from nomarium.reckoning.series import dates_of, occurrences
from nomarium.reckoning.values import length_of, moment_of, offset_of
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import zone_named
from test_calendar_source import PLAIN, ics, vevent

HALIFAX = ZoneInfo("America/Halifax")

# -- values of the RFC -------------------------------------------------------------------------------------------

MOMENTS = [
    ("20270405", (dt.date(2027, 4, 5), None)), ("2027-04-05", (dt.date(2027, 4, 5), None)),
    ("20270405T090000", (dt.datetime(2027, 4, 5, 9), None)), ("20270405T0900", (dt.datetime(2027, 4, 5, 9), None)),
    ("20270405T090000Z", (dt.datetime(2027, 4, 5, 9), dt.timedelta(0))),
    ("2027-04-05T09:00:00-03:00", (dt.datetime(2027, 4, 5, 9), dt.timedelta(hours=-3))),
    ("20270405T240000", (dt.datetime(2027, 4, 6), None)), ("20270405T235960", (dt.datetime(2027, 4, 5, 23, 59, 59), None)),
    ("20270405T090000.123", (dt.datetime(2027, 4, 5, 9), None)), ("tomorrow", None), ("", None), ("2027", None), ("20270405T9", None),
]  # fmt: skip


@pytest.mark.parametrize(("text", "expected"), MOMENTS)
def test_moments_as_the_standard_writes_them(text: str, expected: object) -> None:
    assert moment_of(text) == expected


@pytest.mark.parametrize(
    "text", ["20270230", "20271301T090000", "20270405T250000", "00000101", "20270405T096000"]
)
def test_a_moment_that_there_is_not(text: str) -> None:
    with pytest.raises(ValueError, match=r"."):
        moment_of(text)


OFFSETS = [("+0100", 60), ("-0330", -210), ("+05:30", 330), ("Z", 0), ("0200", 120), ("+010000", 60), ("1", None), ("+1:00", None), ("", None)]  # fmt: skip


@pytest.mark.parametrize(("text", "minutes"), OFFSETS)
def test_offsets(text: str, minutes: int | None) -> None:
    assert offset_of(text) == (None if minutes is None else dt.timedelta(minutes=minutes))


LENGTHS = [("PT15M", 900), ("-PT15M", -900), ("P1W", 604_800), ("P1DT2H", 93_600), ("+PT0S", 0), ("P", None), ("PT", 0), ("15M", None), ("P1M", None)]  # fmt: skip


@pytest.mark.parametrize(("text", "secs"), LENGTHS)
def test_lengths(text: str, secs: int | None) -> None:
    found = length_of(text)
    assert (found.total_seconds() if found is not None else None) == secs


class Zones:
    """Knows one zone, by one name."""

    def of_head(self, head: str):
        return ("America/Halifax", HALIFAX) if "Halifax" in head else UnknownZone("Nothing explains it.")


def test_an_instant_is_in_the_zone_of_its_head_and_says_why_it_is_none() -> None:
    assert instant_of("DTSTART;TZID=Halifax", "20270405T090000", Zones()) == Instant(
        dt.datetime(2027, 4, 5, 9), "America/Halifax", HALIFAX
    )
    assert instant_of("DTSTART;TZID=Halifax", "20270405", Zones()) == Instant(dt.date(2027, 4, 5))
    assert instant_of("DTSTART;TZID=Halifax", "20270405T090000Z", Zones()) == Instant(
        dt.datetime(2027, 4, 5, 9), "UTC", dt.UTC
    )
    assert instant_of("DTSTART", "20270405T090000+0200", Zones()) == Instant(
        dt.datetime(2027, 4, 5, 7), "UTC", dt.UTC
    )
    assert isinstance(instant_of("DTSTART;TZID=x", "20270405T090000", Zones()), UnknownZone)
    for text in ("soon", "20270230T000000"):
        wrong = instant_of("DTSTART", text, Zones())
        assert isinstance(wrong, str)
        assert not isinstance(wrong, UnknownZone)


def test_utc_is_worked_out_where_there_is_a_zone() -> None:
    local = dt.datetime(2027, 7, 1, 9)
    assert as_utc(local, HALIFAX) == dt.datetime(2027, 7, 1, 12)
    assert as_utc(local, None) == local
    assert as_utc(dt.date(2027, 7, 1), HALIFAX) == dt.date(2027, 7, 1)
    assert Instant(local, "America/Halifax", HALIFAX).utc == dt.datetime(2027, 7, 1, 12)


# -- the frame -----------------------------------------------------------------------------------------------------


def frame_of(*lines: str):
    data = with_plain_ends("\r\n".join(lines).encode())
    blocks = list(blocks_in(data))
    return read_frame(data, blocks, unfolder_of(data)), blocks


def test_a_frame_has_the_calendars_own_properties_and_not_those_of_its_parts() -> None:
    frame, blocks = frame_of(
        "BEGIN:VCALENDAR", "X-WR-CALNAME:Slips\\, lofts", "COLOR:Teal", "METHOD:publish", "X-WR-TIMEZONE:America/Halifax",
        "BEGIN:VEVENT", "SUMMARY:x", "END:VEVENT", "BEGIN:VTODO", "SUMMARY:y", "COLOR:red", "BEGIN:VALARM", "ACTION:DISPLAY", "END:VALARM",
        "END:VTODO", "BEGIN:VJOURNAL", "END:VJOURNAL", "END:VCALENDAR",
    )  # fmt: skip
    assert (frame.name, frame.color, frame.methods) == ("Slips, lofts", "teal", ["PUBLISH"])
    assert frame.default_zone == ("America/Halifax", zone_named("America/Halifax"))
    assert frame.others == {"VTODO": 1, "VJOURNAL": 1}
    assert (len(blocks), frame.is_unfinished, frame.is_cancelled) == (1, False, False)


def test_a_frame_without_its_end_is_unfinished_and_one_that_cancels_says_so() -> None:
    frame, _ = frame_of("BEGIN:VCALENDAR", "METHOD:CANCEL", "BEGIN:VEVENT", "END:VEVENT")
    assert frame.is_unfinished
    assert frame.is_cancelled
    both, _ = frame_of(
        "BEGIN:VCALENDAR",
        "METHOD:CANCEL",
        "END:VCALENDAR",
        "BEGIN:VCALENDAR",
        "METHOD:PUBLISH",
        "END:VCALENDAR",
    )
    assert not both.is_cancelled


def test_the_first_name_counts_and_utc_is_no_default_zone() -> None:
    frame, _ = frame_of(
        "BEGIN:VCALENDAR", "NAME:One", "X-WR-CALNAME:Two", "X-WR-TIMEZONE:UTC", "END:VCALENDAR"
    )
    assert (frame.name, frame.default_zone) == ("One", None)


@pytest.mark.parametrize("data", [
    b"begin:vcalendar\nbegin:vevent\nsummary:x\nend:vevent\nend:vcalendar\n",
    b"BEGIN:VCALENDAR\rBEGIN:VEVENT\rSUMMARY:x\rEND:VEVENT\rEND:VCALENDAR\r",
    b"\xef\xbb\xbfBEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:x\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
    "BEGIN:VCALENDAR\nBEGIN:VEVENT\nSUMMARY:x\nEND:VEVENT\nEND:VCALENDAR\n".encode("utf-16"),
    b"BEGIN:VEVENT\nSUMMARY:x\nEND:VEVENT\n",
])  # fmt: skip
def test_events_are_found_whatever_the_line_ends_and_the_case(data: bytes) -> None:
    plain_ends = with_plain_ends(data)
    blocks = list(blocks_in(plain_ends))
    assert len(blocks) == 1
    assert b"x" in plain_ends[blocks[0].start : blocks[0].end]


def test_an_event_without_its_end_stops_where_the_next_begins() -> None:
    data = with_plain_ends(
        b"BEGIN:VCALENDAR\nBEGIN:VEVENT\nSUMMARY:a\nBEGIN:VEVENT\nSUMMARY:b\nEND:VEVENT\nEND:VCALENDAR\n"
    )
    blocks = list(blocks_in(data))
    assert [block.is_finished for block in blocks] == [False, True]
    assert b"SUMMARY:b" not in data[blocks[0].start : blocks[0].end]


CALENDARS = [
    (b"BEGIN:VCALENDAR\r\n", True), (b"\xef\xbb\xbfbegin:vcalendar\n", True), (b"\n\nBEGIN:VEVENT\n", True),
    (b'["vcalendar", []]', True), (b' [ [ "vcalendar"', True), (b"Title,Date\n", False), (b"BEGIN:VCARD\n", False), (b"", False),
    ("BEGIN:VCALENDAR\n".encode("utf-16"), True), (b'["a"]', False),
]  # fmt: skip


@pytest.mark.parametrize(("head", "expected"), CALENDARS)
def test_a_calendar_file_is_told_by_its_first_bytes(head: bytes, expected: bool) -> None:
    assert is_calendar(head) is expected


@given(st.text(st.characters(codec="utf-8", exclude_characters="\r\n"), max_size=300))
def test_folding_loses_nothing_and_keeps_lines_short(text: str) -> None:
    line = folded("SUMMARY:" + text)
    assert all(len(piece) <= 75 for piece in line.encode("utf-8").split(b"\r\n"))
    assert "".join(unfolded(line)) == "SUMMARY:" + text


CONTENT_LINES = [
    ("SUMMARY:x", ("SUMMARY", {}, "x")), ("summary;LANGUAGE=en:x:y", ("SUMMARY", {"LANGUAGE": "en"}, "x:y")),
    ('ATTENDEE;CN="Quill: M":mailto:m@x', ("ATTENDEE", {"CN": "Quill: M"}, "mailto:m@x")), ("no line", None), (":x", None), ("", None),
    ("SUMMARY;en:x", ("SUMMARY", {}, "x")), ('SUMMARY;"a:b":x', ("SUMMARY", {}, "x")),
]  # fmt: skip


@pytest.mark.parametrize(("line", "expected"), CONTENT_LINES)
def test_content_lines(line: str, expected: object) -> None:
    found = parsed(line)
    assert (found and (found[0].name, found[0].params, found[1])) == expected


# -- zones that only the file explains ---------------------------------------------------------------------------

RULED = (
    "TZID:Slips|BEGIN:STANDARD|DTSTART:20201101T020000|TZOFFSETFROM:-0300|TZOFFSETTO:-0400|RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU|"
    "END:STANDARD|BEGIN:DAYLIGHT|DTSTART:20200308T020000|TZOFFSETFROM:-0400|TZOFFSETTO:-0300|RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU|END:DAYLIGHT"
)  # fmt: skip


def file_zone(lines: str) -> FileZone:
    tzid, zone, _ = read_vtimezone(lines.split("|"))
    assert tzid == "Slips"
    assert zone is not None
    return zone


@given(st.datetimes(dt.datetime(2021, 1, 1), dt.datetime(2035, 12, 31)))
def test_a_ruled_zone_has_the_offsets_of_the_zone_it_copies(local: dt.datetime) -> None:
    both = (file_zone(RULED), HALIFAX)
    for fold in (0, 1):
        ours, theirs = (local.replace(tzinfo=zone, fold=fold).utcoffset() for zone in both)
        assert ours == theirs
    ours, theirs = (local.replace(tzinfo=dt.UTC).astimezone(zone) for zone in both)
    assert (ours.replace(tzinfo=None), ours.fold) == (theirs.replace(tzinfo=None), theirs.fold)


@pytest.mark.parametrize(
    "local", [dt.datetime(2028, 11, 5, 1), dt.datetime(2028, 11, 5, 1, 59), dt.datetime(2028, 3, 12, 2, 30)]
)
def test_repeated_and_skipped_hours_of_a_ruled_zone(local: dt.datetime) -> None:
    for fold in (0, 1):
        ours, theirs = (
            local.replace(tzinfo=zone, fold=fold).utcoffset() for zone in (file_zone(RULED), HALIFAX)
        )
        assert ours == theirs, fold


def test_a_zone_of_dates_and_one_whose_rule_has_ended() -> None:
    dated = file_zone(
        "TZID:Slips|BEGIN:STANDARD|DTSTART:20200101T000000|RDATE:20250101T000000|TZOFFSETFROM:+0100|TZOFFSETTO:+0200|END:STANDARD"
    )
    assert dt.datetime(2026, 1, 1, tzinfo=dated).utcoffset() == dt.timedelta(hours=2)
    ended = file_zone(
        RULED.replace("BYDAY=1SU", "BYDAY=1SU;UNTIL=20221106T050000Z").replace(
            "BYDAY=2SU", "BYDAY=2SU;UNTIL=20220313T060000Z"
        )
    )
    assert dt.datetime(2030, 7, 1, tzinfo=ended).utcoffset() == dt.timedelta(hours=-4), (
        "no summer time any more"
    )


@pytest.mark.parametrize(
    "lines", ["TZID:Slips", "TZID:Slips|BEGIN:STANDARD|DTSTART:20200101T000000|END:STANDARD"]
)
def test_a_definition_that_defines_nothing_is_no_zone(lines: str) -> None:
    assert read_vtimezone(lines.split("|"))[1] is None


def test_the_name_that_a_definition_mentions_is_a_hint() -> None:
    assert read_vtimezone(["TZID:x", "X-LIC-LOCATION:America/Halifax"])[2] == "America/Halifax"


# -- merging -------------------------------------------------------------------------------------------------------


def entry(
    uid: str, sequence: int = 0, stamp: str = "", title: str = "x", original: int | None = None
) -> Entry:
    start = dt.datetime(2027, 4, 5, 9)
    event = Event(
        title,
        start,
        start + dt.timedelta(hours=1),
        details=Details(uid=uid, sequence=sequence, dtstamp=stamp),
    )
    return Entry(event, None, Instant(dt.datetime(2027, 4, original, 9)) if original else None)


AGES = {
    "the higher sequence": ((1, "2"), (0, "9"), 0), "then the later stamp": ((1, "1"), (1, "2"), 1),
    "of two equal ages the later in order": ((1, "1"), (1, "1"), 1), "a stamp beats none": ((0, "1"), (0, ""), 0),
}  # fmt: skip


@pytest.mark.parametrize("name", AGES)
def test_which_state_of_an_event_stays(name: str) -> None:
    first, second, stays = AGES[name]
    entries = [entry("u", *first, title="0"), entry("u", *second, title="1")]
    found = merged(entries)
    assert [series.main.event.summary for series in found.series if series.main] == [str(stays)]
    assert found.superseded == [entries[1 - stays]]


def test_entries_of_one_uid_are_a_series_and_those_without_one_stand_alone() -> None:
    series, alone, moved = entry("u"), entry(""), entry("u", original=6)
    found = merged([series, alone, moved, entry("")])
    assert [len(one.entries) for one in found.series] == [2, 1, 1]
    assert found.series[0] == Series(series, (moved,))
    assert merged([moved]).series == [Series(None, (moved,))]
    assert Series(series, (moved,)).entries == (series, moved)


def test_two_states_of_one_replaced_date_are_one() -> None:
    old, new = entry("u", 1, original=6), entry("u", 2, original=6)
    found = merged([entry("u"), new, old])
    assert found.series[0].replacing == (new,)
    assert found.superseded == [old]


# -- rules that say a series ---------------------------------------------------------------------------------------


def weekly(**more: object) -> Event:
    start = dt.datetime(2027, 2, 1, 9)
    recurrence = Recurrence((Rule("WEEKLY", times=8, **more),))
    return Event(
        "Sail",
        start,
        start + dt.timedelta(hours=1),
        "America/Halifax",
        details=Details(uid="u", recurrence=recurrence),
    )


def test_a_whole_series_is_one_rule() -> None:
    event = weekly()
    found = list(occurrences(event, HALIFAX, Window()))
    ruled = as_rule(event, HALIFAX, found)
    assert ruled is not None
    assert (ruled.date_count, ruled.apart) == (8, [])
    assert ruled.last_start == dt.datetime(2027, 3, 22, 9)
    assert ruled.event.details.uid == "u"


def test_days_off_become_exceptions_and_a_rule_that_leaves_out_too_much_is_none() -> None:
    event = weekly()
    off = frozenset([dt.date(2027, 2, 8).toordinal(), dt.date(2027, 2, 22).toordinal()])
    found = list(occurrences(event, HALIFAX, Window(days_off=off)))
    ruled = as_rule(event, HALIFAX, found)
    assert ruled is not None
    assert ruled.event.details.recurrence is not None
    assert ruled.event.details.recurrence.left_out == (
        dt.datetime(2027, 2, 8, 9),
        dt.datetime(2027, 2, 22, 9),
    )
    assert as_rule(event, HALIFAX, found[:1]) is None, "one date needs no rule"
    assert as_rule(event, HALIFAX, [found[0], found[-1]]) is None, "six exceptions for two dates say little"


def test_dates_that_an_entry_of_their_own_replaces_stay_apart() -> None:
    event = weekly()
    main = Entry(event, HALIFAX)
    changed = event._replace(summary="Race", details=Details(uid="u"))
    cancelled = event._replace(
        start=dt.datetime(2027, 2, 15, 9),
        end=dt.datetime(2027, 2, 15, 10),
        details=Details(uid="u", status="CANCELLED"),
    )
    series = Series(main, (
        Entry(changed, HALIFAX, Instant(event.start, "America/Halifax", HALIFAX)),
        Entry(cancelled, HALIFAX, Instant(dt.datetime(2027, 2, 15, 9), "America/Halifax", HALIFAX)),
    ))  # fmt: skip
    ruled = as_rule(event, HALIFAX, list(dates_of(series, Window())))
    assert ruled is not None
    assert sorted((one.event.summary, one.event.details.status) for one in ruled.apart) == [
        ("Race", ""),
        ("Sail", "CANCELLED"),
    ]
    assert ruled.date_count == 6


def test_a_replaced_date_at_its_own_time_survives_a_build_by_rule(tmp_path: Path) -> None:
    series = PLAIN + "|RRULE:FREQ=DAILY;COUNT=6"
    race = PLAIN.replace("Launch", "Race").replace("0405T", "0406T") + "|RECURRENCE-ID:20270406T090000"
    gone = PLAIN.replace("0405T", "0408T") + "|RECURRENCE-ID:20270408T090000|STATUS:CANCELLED"
    source = ics(tmp_path, "|".join(map(vevent, (series, race, gone))))
    out = tmp_path / "o.ics"
    assert nomarium("build", source, "-o", out, "--repeats", "rule").status == 0
    said = sorted(
        (str(event["SUMMARY"]), str(event.get("STATUS", "")), "RRULE" in event) for event in events_in(out)
    )
    assert said == [("Launch", "", True), ("Launch", "CANCELLED", False), ("Race", "", False)]
    master = next(event for event in events_in(out) if "RRULE" in event)
    left_out = master["EXDATE"] if isinstance(master["EXDATE"], list) else [master["EXDATE"]]
    assert sorted(str(d.dt)[:10] for one in left_out for d in one.dts) == ["2027-04-06", "2027-04-08"]


def test_a_repeat_across_a_clock_change_keeps_its_exact_length() -> None:
    """A night of 8 hours lasts 8 hours in the night of the change, too, in a calendar file (RFC 5545, 3.8.5.3)."""
    start = dt.datetime(2027, 3, 12, 22)
    rule = Recurrence((Rule("DAILY", times=3),))
    event = Event(
        "Watch", start, dt.datetime(2027, 3, 13, 6), "America/Halifax", details=Details(recurrence=rule)
    )
    exact = [one.event.end.hour for one in occurrences(event, HALIFAX, Window())]
    clock = [
        one.event.end.hour
        for one in occurrences(
            event._replace(details=Details(recurrence=rule._replace(keeps_length=True))), HALIFAX, Window()
        )
    ]
    assert exact == [6, 7, 6]
    assert clock == [6, 6, 6]


# -- days off ------------------------------------------------------------------------------------------------------


def test_days_off_have_names_and_stretches() -> None:
    days = [
        Event("Storm", dt.date(2027, 1, 4), dt.date(2027, 1, 7)),
        Event("Fog", dt.date(2027, 1, 6), dt.date(2027, 1, 8)),
    ]
    off = DaysOff(named_days(days))
    assert off.name_of(dt.date(2027, 1, 6).toordinal()) == "Storm", "the first that says so"
    assert dt.date(2027, 1, 8).toordinal() not in off
    assert "2027-01-06" not in off
    assert [(name, str(a), str(b)) for name, a, b in off.stretches(dt.date(2027, 1, 5), dt.date(2027, 12, 31))] == [
        ("Storm", "2027-01-05", "2027-01-06"), ("Fog", "2027-01-07", "2027-01-07"),
    ]  # fmt: skip
    assert not DaysOff()


def test_endless_days_are_found_in_any_order() -> None:
    rule = Recurrence((Rule("WEEKLY", interval=2),))
    event = Event("Closed", dt.date(2027, 1, 4), dt.date(2027, 1, 6), details=Details(recurrence=rule))
    off = DaysOff(growing=[EndlessDays(Series(Entry(event)))])
    far, near = dt.date(2037, 1, 13), dt.date(2027, 1, 5)
    assert off.name_of(near.toordinal()) == "Closed"
    assert [day.isoformat() for day in (far, near) if day.toordinal() in off] == ["2027-01-05"]
    assert (dt.date(2027, 1, 4) + dt.timedelta(days=14 * 300)).toordinal() in off


def test_public_holidays_by_code() -> None:
    holidays = PublicHolidays("ca-ns")
    assert holidays.name_of(dt.date(2027, 7, 1).toordinal()) == "Canada Day"
    assert holidays.name_of(dt.date(2027, 7, 2).toordinal()) is None
    names = [event.summary for event in holidays.events(dt.date(2027, 12, 24), dt.date(2027, 12, 31))]
    assert "Christmas Day" in names


def test_our_reading_of_a_whole_file_is_that_of_an_independent_library(tmp_path: Path) -> None:
    lines = "|".join(
        vevent(PLAIN.replace("UID:1", f"UID:{n}").replace("Launch", f"Launch {n}")) for n in range(30)
    )
    source = ics(tmp_path, lines)
    out = tmp_path / "o.ics"
    assert nomarium("build", source, "-o", out).status == 0
    theirs = list(icalendar.Calendar.from_ical(source.read_bytes()).walk("VEVENT"))
    assert [plain(event) for event in events_in(out)] == [plain(event) for event in theirs]
