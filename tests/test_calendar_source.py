"""Calendar files as a source: what happens to them in real life, series, merging, tables and jCal."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path
from zoneinfo import ZoneInfo

import icalendar
import pytest
import recurring_ical_events
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from helpers import csv_file, events_in, nomarium, plain, refused
from nomarium.ical.reader import read_calendar
from nomarium.model.event import Details, Event, Person
from test_calendar_file import all_day, assert_well_formed, timed, written


def ics(folder: Path, events: str, head: str = "", name: str = "source.ics", end: str = "\r\n") -> Path:
    """A calendar file from the lines of its events."""
    lines = [
        "BEGIN:VCALENDAR",
        "VERSION:2.0",
        "PRODID:-//Saltmarsh//EN",
        *head.split("|"),
        *events.split("|"),
    ]
    path = folder / name
    kept = ["" if line == "?" else line for line in lines if line]  # a question mark stands for a blank line
    path.write_bytes(end.join([*kept, "END:VCALENDAR", ""]).encode())
    return path


def vevent(lines: str) -> str:
    return f"BEGIN:VEVENT|{lines}|END:VEVENT"


PLAIN = "UID:1|DTSTAMP:20270101T000000Z|SUMMARY:Launch|DTSTART:20270405T090000|DTEND:20270405T100000"

# name: (lines of the file after its opening, the one event that they make)
BRUISES = {
    "plain": (vevent(PLAIN), "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "no uid, dtstamp, nor more": (vevent("SUMMARY:Launch|DTSTART:20270405T090000"), "Launch 2027-04-05T09:00/2027-04-05T09:00"),
    "a bare date": (vevent("SUMMARY:Launch|DTSTART:20270405"), "Launch 2027-04-05/2027-04-06"),
    "an empty rule": (vevent(PLAIN + "|RRULE:"), "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "no end of the event": (f"BEGIN:VEVENT|{PLAIN}", "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "folded in the middle of a name": (vevent("SUMM|\tARY:Lau|  nch|DTSTART:20270405"), "Lau nch 2027-04-05/2027-04-06"),
    "folded without a space": (vevent("DTSTART:20270405|SUMMARY:" + "Launch of the great schooner from the main slip, then"
                               " a picnic|party"), "Launch of the great schooner from the main slip, then a picnicparty 2027-04-05/2027-04-06"),
    "a text broken over lines": (vevent("DTSTART:20270405|SUMMARY:Launch|and picnic"), "Launch\nand picnic 2027-04-05/2027-04-06"),
    "blank lines in a fold": (vevent("SUMMARY|?| :Launch|DTSTART|?| :20270405"), "Launch 2027-04-05/2027-04-06"),
    "a line that is none": (vevent("SUMMARY:Launch|DTSTART:20270405|STATUS=CONFIRMED"), "Launch 2027-04-05/2027-04-06"),
    "lower case": ("begin:vevent|summary:Launch|dtstart:20270405T090000|end:vevent", "Launch 2027-04-05T09:00/2027-04-05T09:00"),
    "a colon in quotes": (vevent(PLAIN + '|ATTENDEE;CN="Quill: Maren":mailto:maren@saltmarsh.example'), "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "a duration": (vevent("SUMMARY:Launch|DTSTART:20270405T090000|DURATION:PT90M"), "Launch 2027-04-05T09:00/2027-04-05T10:30"),
    "a duration of days": (vevent("SUMMARY:Launch|DTSTART;VALUE=DATE:20270405|DURATION:P3D"), "Launch 2027-04-05/2027-04-08"),
    "in UTC": (vevent("SUMMARY:Launch|DTSTART:20270405T120000Z|DTEND:20270405T130000Z"), "Launch 2027-04-05T12:00Z/2027-04-05T13:00Z"),
    "the end in another zone": (vevent("SUMMARY:Launch|DTSTART;TZID=America/Halifax:20270405T090000|DTEND;TZID=Europe/Paris:20270405T150000"),
                                "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "a zone that CLDR maps": (vevent("SUMMARY:Launch|DTSTART;TZID=Atlantic Standard Time:20270405T090000"), "Launch 2027-04-05T09:00/2027-04-05T09:00"),
    "a long name of a zone": (vevent("SUMMARY:Launch|DTSTART;TZID=/saltmarsh.example/2026/America/Halifax:20270405T090000"), "Launch 2027-04-05T09:00/2027-04-05T09:00"),
    "a to-do beside it": (vevent(PLAIN) + "|BEGIN:VTODO|SUMMARY:Varnish|END:VTODO", "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "two calendars in a file": ("END:VCALENDAR|BEGIN:VCALENDAR|" + vevent(PLAIN), "Launch 2027-04-05T09:00/2027-04-05T10:00"),
    "no title": (vevent("DTSTART:20270405"), "(no title) 2027-04-05/2027-04-06"),
    "an all-day end on its start": (vevent("SUMMARY:Launch|DTSTART;VALUE=DATE:20270405|DTEND;VALUE=DATE:20270405"), "Launch 2027-04-05/2027-04-06"),
    "dashes in a time": (vevent("SUMMARY:Launch|DTSTART:2027-04-05T09:00:00"), "Launch 2027-04-05T09:00/2027-04-05T09:00"),
}  # fmt: skip


@pytest.mark.parametrize("end", ["\r\n", "\n", "\r"], ids=["crlf", "lf", "cr"])
@pytest.mark.parametrize("name", BRUISES)
def test_a_bruised_file_is_read(name: str, end: str, tmp_path: Path) -> None:
    lines, expected = BRUISES[name]
    source = ics(tmp_path, lines, end=end)
    target = tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", target)
    assert outcome.status == 0, outcome.text
    assert [plain(event) for event in events_in(target)] == [expected]
    assert_well_formed(target.read_bytes())


REFUSED = {
    "no start": (vevent("UID:1|SUMMARY:Launch"), ["line 4", "no DTSTART"]),
    "an end before the start": (vevent("SUMMARY:Launch|DTSTART:20270405T090000|DTEND:20270405T080000"), ["DTEND", "before it starts"]),
    "a rule that cannot be": (vevent(PLAIN + "|RRULE:FREQ=YEARLY;BYMONTH=13"), ["RRULE", "BYMONTH=13"]),
    "a rule without an end": (vevent(PLAIN + "|RRULE:FREQ=DAILY"), ["“Launch” repeats without an end", "--until"]),
    "a zone that nothing explains": (vevent("SUMMARY:Launch|DTSTART;TZID=Slip Time:20270405T090000"), ["Slip Time", "--timezone"]),
    "no date": (vevent("SUMMARY:Launch|DTSTART:tomorrow"), ["DTSTART", "is not a date"]),
    "nothing in it": ("", ["no event to write"]),
    "a length that is none": (vevent("SUMMARY:A|DTSTART:20270405T090000|DURATION:long"), ["DURATION", "is no duration"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_cannot_be_read_is_refused_at_its_line(name: str, tmp_path: Path) -> None:
    lines, says = REFUSED[name]
    target = tmp_path / "out.ics"
    outcome = nomarium("build", ics(tmp_path, lines), "-o", target)
    assert outcome.status == 1
    assert [part for part in says if part not in outcome.text] == []
    assert not target.exists()


OWN_ZONE = (
    "BEGIN:VTIMEZONE|TZID:Yard|BEGIN:STANDARD|DTSTART:19701101T020000|RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU|"
    "TZOFFSETFROM:-0300|TZOFFSETTO:-0400|END:STANDARD|BEGIN:DAYLIGHT|DTSTART:19700308T020000|"
    "RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU|TZOFFSETFROM:-0400|TZOFFSETTO:-0300|END:DAYLIGHT|END:VTIMEZONE|"
)


def test_a_zone_that_only_the_file_explains_is_written_in_utc_or_as_asked(tmp_path: Path) -> None:
    lines = vevent(
        "UID:1|SUMMARY:Launch|DTSTART;TZID=Yard:20270301T090000|DURATION:PT1H|RRULE:FREQ=WEEKLY;COUNT=3"
    )
    source = ics(tmp_path, OWN_ZONE + lines)
    nomarium("build", source, "-o", tmp_path / "utc.ics")
    starts = [f"{event.decoded('DTSTART'):%m%d %H:%MZ}" for event in events_in(tmp_path / "utc.ics")]
    assert starts == ["0301 13:00Z", "0308 13:00Z", "0315 12:00Z"]
    nomarium("build", source, "-o", tmp_path / "zone.ics", "--timezone", "America/Halifax")
    starts = [f"{event.decoded('DTSTART'):%m%d %H:%M %z}" for event in events_in(tmp_path / "zone.ics")]
    assert starts == ["0301 09:00 -0400", "0308 09:00 -0400", "0315 09:00 -0300"]


def test_a_zone_that_nothing_explains_is_the_one_asked_for(tmp_path: Path) -> None:
    source = ics(tmp_path, vevent("SUMMARY:Launch|DTSTART;TZID=Slip Time:20270405T090000|DURATION:PT1H"))
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics", "--timezone", "America/Halifax")
    assert (
        "“Slip Time” is explained by nothing; its times are read in America/Halifax, as asked" in outcome.out
    )
    assert f"{events_in(tmp_path / 'out.ics')[0].decoded('DTSTART'):%H:%M %z}" == "09:00 -0300"


MASTER = "UID:1|SUMMARY:Rigging|DTSTART;TZID=America/Halifax:20270301T090000|DTEND;TZID=America/Halifax:20270301T100000"
NEW = "UID:1|SUMMARY:Moved|DTSTART;TZID=America/Halifax:20270309T140000|DTEND;TZID=America/Halifax:20270309T160000"
SERIES = {
    "a rule": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4"),
    "left out": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4|EXDATE;TZID=America/Halifax:20270308T090000,20270315T090000"),
    "left out in UTC": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4|EXDATE:20270308T130000Z,20270315T120000Z"),
    "added": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=2|RDATE;TZID=America/Halifax:20270310T110000"),
    "added with an end": vevent(MASTER + "|RDATE;VALUE=PERIOD;TZID=America/Halifax:20270310T110000/PT3H"),
    "until a time in UTC": vevent(MASTER + "|RRULE:FREQ=WEEKLY;UNTIL=20270322T120000Z"),
    "a start that its rule misses": vevent(MASTER + "|RRULE:FREQ=WEEKLY;BYDAY=WE;COUNT=3"),
    "two rules": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=3|RRULE:FREQ=MONTHLY;COUNT=3"),
    "one replaced": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4") + "|" + vevent(NEW + "|RECURRENCE-ID;TZID=America/Halifax:20270308T090000"),
    "one replaced, by UTC, and first": vevent(NEW + "|RECURRENCE-ID:20270308T130000Z") + "|" + vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4"),
    "all later ones moved": vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4") + "|" + vevent(NEW + "|RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=America/Halifax:20270308T090000"),
    "a replacement alone": vevent(NEW + "|RECURRENCE-ID;TZID=America/Halifax:20270308T090000"),
    "all-day": vevent("UID:2|SUMMARY:Regatta|DTSTART;VALUE=DATE:20270301|DTEND;VALUE=DATE:20270303|RRULE:FREQ=MONTHLY;BYDAY=1MO;COUNT=3|EXDATE;VALUE=DATE:20270405"),
}  # fmt: skip


@pytest.mark.parametrize(
    "options", [[], ["--repeats", "rule"], ["--from", "2027-03-09", "--until", "2027-03-20"]]
)
@pytest.mark.parametrize("name", SERIES)
def test_a_series_has_the_occurrences_that_an_independent_library_finds(
    name: str, options: list[str], tmp_path: Path
) -> None:
    source = ics(tmp_path, SERIES[name])
    target = tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", target, *options)
    first, last = (
        (dt.date(2027, 3, 9), dt.date(2027, 3, 20))
        if "--from" in options
        else (dt.date(2026, 1, 1), dt.date(2029, 1, 1))
    )

    def found(path: Path) -> list[tuple[str, str, str]]:
        calendar = icalendar.Calendar.from_ical(path.read_bytes())
        events = recurring_ical_events.of(calendar).between(first, last + dt.timedelta(days=1))
        return sorted(
            (str(e["SUMMARY"]), e["DTSTART"].dt.isoformat(), e["DTEND"].dt.isoformat()) for e in events
        )

    expected = found(source)
    if not expected:
        assert outcome.status == 1
        return
    assert outcome.status == 0, outcome.text
    assert found(target) == expected
    uids = [str(event["UID"]) for event in events_in(target)]
    assert len(uids) == len(set(uids))


def test_a_replaced_date_has_one_identity_however_its_date_is_written(tmp_path: Path) -> None:
    found = []
    for name in ("one replaced", "one replaced, by UTC, and first"):
        nomarium("build", ics(tmp_path, SERIES[name]), "-o", tmp_path / "out.ics", "--afresh")
        found.append({str(event["SUMMARY"]): str(event["UID"]) for event in events_in(tmp_path / "out.ics")})
    assert found[0]["Moved"] == found[1]["Moved"]


def test_the_newest_state_of_an_event_is_taken(tmp_path: Path) -> None:
    old = ics(tmp_path, vevent("UID:1|SEQUENCE:1|SUMMARY:Old|DTSTART:20270405T090000"), name="old.ics")
    new = ics(tmp_path, vevent("UID:1|SEQUENCE:2|SUMMARY:New|DTSTART:20270406T090000"), name="new.ics")
    later = ics(
        tmp_path,
        vevent("UID:1|SEQUENCE:2|DTSTAMP:20270202T000000Z|SUMMARY:Later|DTSTART:20270407T090000"),
        name="later.ics",
    )
    target = tmp_path / "out.ics"
    for sources in ([old, new], [new, old]):
        outcome = nomarium("build", *sources, "-o", target, "--afresh")
        assert [str(event["SUMMARY"]) for event in events_in(target)] == ["New"]
        assert "1 older state of events with the same UID is left out" in outcome.out
        assert "2 entries read = 1 event + 1 left out" in outcome.out
    nomarium("build", later, new, "-o", target, "--afresh")
    assert [str(event["SUMMARY"]) for event in events_in(target)] == ["Later"]


def test_duplicates_under_different_uids_are_told_and_written_once_when_asked(tmp_path: Path) -> None:
    calendar = ics(tmp_path, vevent(PLAIN))
    table = csv_file(
        tmp_path, "Title,Date,Start,End\nLaunch,2027-04-05,9:00,10:00\nPicnic,2027-04-05,12:00,13:00"
    )
    target = tmp_path / "out.ics"
    outcome = nomarium("build", calendar, table, "-o", target)
    assert (
        "1 event says the same as another: each stays. To write each once: --merge-duplicates." in outcome.out
    )
    assert len(events_in(target)) == 3
    outcome = nomarium("build", calendar, table, "-o", target, "--merge-duplicates", "--afresh")
    assert len(events_in(target)) == 2
    assert "3 rows and entries read = 2 events + 1 left out" in outcome.out


def test_unknown_properties_alarms_and_parameters_are_kept(tmp_path: Path) -> None:
    kept = [
        "X-SLIP-NUMBER;X-KIND=main:4", "CREATED:20270101T000000Z", "BEGIN:VALARM", "ACTION:EMAIL", "TRIGGER:-PT1H", "END:VALARM",
        "ATTENDEE;CN=Maren Quill;PARTSTAT=ACCEPTED:mailto:maren@saltmarsh.example",
    ]  # fmt: skip
    source = ics(tmp_path, vevent("|".join([PLAIN, *kept])), name="a.ics")
    nomarium("build", source, "-o", tmp_path / "b.ics")
    lines = (tmp_path / "b.ics").read_text().replace("\n ", "").splitlines()
    assert [line for line in kept if line not in lines] == []


def test_a_cancelling_file_cancels(tmp_path: Path) -> None:
    source = ics(tmp_path, vevent(PLAIN), head="METHOD:CANCEL")
    nomarium("build", source, "-o", tmp_path / "out.ics")
    assert [str(event["STATUS"]) for event in events_in(tmp_path / "out.ics")] == ["CANCELLED"]


def contents(path: Path) -> list[list[bytes]]:
    """Each event's lines, without when it was revised."""
    return [
        [line for line in e.to_ical().splitlines() if not line.startswith(b"DTSTAMP")]
        for e in events_in(path)
    ]


def test_a_calendar_becomes_a_table_and_comes_back(tmp_path: Path) -> None:
    lines = (
        MASTER
        + "|RRULE:FREQ=WEEKLY;COUNT=3|LOCATION:Loft\\, upper|CATEGORIES:Rigging,Public|STATUS:TENTATIVE|GEO:44.65;-63.57"
    )
    source = ics(
        tmp_path,
        vevent(lines)
        + "|"
        + vevent("UID:9|SUMMARY:=Keel|DTSTART;VALUE=DATE:20270401|DTEND;VALUE=DATE:20270403"),
    )
    first = tmp_path / "first.ics"
    assert nomarium("build", source, "-o", first).status == 0
    for ending in ("csv", "xlsx", "json"):
        table = tmp_path / f"table.{ending}"
        assert nomarium("build", source, "-o", table).status == 0
        again = tmp_path / f"{ending}.ics"
        outcome = nomarium("build", table, "-o", again)
        assert outcome.status == 0, outcome.text
        assert contents(again) == contents(first)


def test_a_table_is_in_the_words_of_the_starter(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Title,Date,Start,End,Repeat\nKeel,2027-01-04,9:00,24:00,every Monday until 11 Jan\nSail,2027-01-05,,,",
    )
    table = tmp_path / "table.csv"
    assert nomarium("build", source, "-o", table, "--timezone", "America/Halifax").status == 0
    rows = table.read_text("utf-8-sig").splitlines()
    assert rows[0] == "Title,Date,Start,End,End date,All day,Time zone,UID"
    assert rows[1].startswith("Keel,2027-01-04,09:00,00:00,2027-01-05,,America/Halifax,")
    assert rows[3].startswith("Sail,2027-01-05,,,,yes,,")
    assert nomarium("build", source, "-o", table, "--repeats", "rule").status == 2
    assert nomarium("build", source, "-o", tmp_path / "out.doc").status == 2


def test_jcal_is_json_and_a_broken_one_is_refused(tmp_path: Path) -> None:
    source = ics(tmp_path, vevent(PLAIN))
    target = tmp_path / "out.json"
    assert nomarium("build", source, "-o", target).status == 0
    name, _, components = json.loads(target.read_text())
    assert (name, [component[0] for component in components]) == ("vcalendar", ["vevent"])
    assert ["dtstart", {}, "date-time", "2027-04-05T09:00:00"] in components[0][1]
    target.write_text(target.read_text()[:80])
    assert "no whole jCal document" in refused(target)


def test_a_rule_goes_through_jcal_as_it_stands(tmp_path: Path) -> None:
    rule = "RRULE:FREQ=MONTHLY;UNTIL=20270930;INTERVAL=2;BYDAY=1MO,3MO"
    source = ics(tmp_path, vevent(f"UID:1|DTSTART;VALUE=DATE:20270405|SUMMARY:Keel|{rule}"))
    target, dated = tmp_path / "out.json", tmp_path / "dated.ics"
    assert nomarium("build", source, "-o", target, "--repeats", "rule").status == 0
    (rules,) = [entry[3] for entry in json.loads(target.read_text())[2][0][1] if entry[0] == "rrule"]
    assert rules == {"freq": "MONTHLY", "until": "2027-08-16", "interval": 2, "byday": ["1MO", "3MO"]}
    assert nomarium("build", target, "-o", dated).status == 0
    days = [str(event["DTSTART"].dt) for event in events_in(dated)]
    assert days == ["2027-04-05", "2027-04-19", "2027-06-07", "2027-06-21", "2027-08-02", "2027-08-16"]


rich = st.builds(
    lambda event, details: event._replace(details=details),
    timed | all_day,
    st.builds(
        Details,
        categories=st.lists(st.text("abc ,;é", min_size=1, max_size=5).map(str.strip).filter(bool), max_size=2, unique=True).map(tuple),
        status=st.sampled_from(["", "CONFIRMED", "CANCELLED"]), busy=st.sampled_from([None, True, False]),
        organizer=st.none() | st.just(Person("Quill; Maren", "m@saltmarsh.example")),
        reminder_secs=st.none() | st.integers(0, 10**6), priority=st.none() | st.integers(0, 9),
        facets=st.sampled_from([(), (("class", "Knots 1"), ("teacher", "R. Finch; O. Tern"))]),
    ),
)  # fmt: skip


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(rich, min_size=1, max_size=5))
def test_writing_and_reading_is_a_fixed_point(tmp_path: Path, events: list[Event]) -> None:
    once = written(tmp_path, events).read_bytes()
    found = read_calendar(once, "out.ics")
    assert found.problems == []
    read = [entry.event for entry in found.entries]
    for one, other in zip(read, events, strict=True):
        lines = str.maketrans(dict.fromkeys("\u2028\u2029", "\n"))  # some readers part lines there
        said = (other.location.translate(lines), other.description.translate(lines))
        assert (one.start, one.end, one.zone, one.location, one.description) == (*other[1:4], *said)
        kept = one.details._replace(uid="", dtstamp="", sequence=0)
        assert kept == other.details
    assert written(tmp_path, read).read_bytes() == once
    assert (
        nomarium(
            "build",
            tmp_path / "out.ics",
            "-o",
            tmp_path / "again.ics",
            "--name",
            "Calendar",
            "--color",
            "teal",
            "--afresh",
        ).status
        == 0
    )
    assert (tmp_path / "again.ics").read_bytes() == once


@settings(max_examples=150, deadline=None)
@given(st.binary(max_size=200), st.integers(0, 400))
def test_garbage_in_a_calendar_file_is_no_crash(noise: bytes, at: int) -> None:
    text = (
        "BEGIN:VCALENDAR\r\n"
        + (OWN_ZONE + SERIES["one replaced"]).replace("|", "\r\n")
        + "\r\nEND:VCALENDAR\r\n"
    ).encode()
    found = read_calendar(text[:at] + noise + text[at:], "noise.ics")
    assert len(found.entries) + len(found.problems) <= 4


def test_zone_offsets_hold_on_both_sides_of_a_change(tmp_path: Path) -> None:
    source = ics(tmp_path, vevent(MASTER + "|RRULE:FREQ=WEEKLY;COUNT=4"))
    nomarium("build", source, "-o", tmp_path / "out.ics")
    starts = [event.decoded("DTSTART") for event in events_in(tmp_path / "out.ics")]
    assert [start.utcoffset() for start in starts] == [
        start.replace(tzinfo=ZoneInfo("America/Halifax")).utcoffset() for start in starts
    ]
    assert {f"{start:%H:%M}" for start in starts} == {"09:00"}
