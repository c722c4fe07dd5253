"""build --edited: what people changed in the calendar stays, whoever else changed what."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

import icalendar
import pytest
import recurring_ical_events

from helpers import csv_file, nomarium

ZONE = ZoneInfo("America/Halifax")
FIELDS: Mapping[str, tuple[str, tuple[str, str, str], str, Callable[[str], Any]]] = {
    # field: heading, (at first, by the source, by people), property, its value as an application writes it
    "summary": ("Event", ("Knots", "Knots II", "Knots and splices"), "SUMMARY", str),
    "location": ("Where", ("Slip 1", "Slip 2", "Slip 3"), "LOCATION", str),
    "description": ("Notes", ("bring a rule", "bring a plane", "bring tea"), "DESCRIPTION", str),
    "categories": ("Category", ("Course", "Exam", "Trip"), "CATEGORIES", lambda text: [text]),
    "organizer": ("Organizer", ("a@s.example", "b@s.example", "c@s.example"), "ORGANIZER", lambda text: f"mailto:{text}"),
    "attendees": ("Attendees", ("a@s.example", "b@s.example", "c@s.example"), "ATTENDEE", lambda text: f"mailto:{text}"),
    "url": ("Link", ("https://s.example/1", "https://s.example/2", "https://s.example/3"), "URL", str),
    "status": ("Status", ("tentative", "cancelled", "confirmed"), "STATUS", str.upper),
    "privacy": ("Privacy", ("private", "confidential", "public"), "CLASS", str.upper),
    "busy": ("Busy", ("free", "busy", "busy"), "TRANSP", lambda text: "OPAQUE" if text == "busy" else "TRANSPARENT"),
    "priority": ("Priority", ("5", "1", "9"), "PRIORITY", int),
    "color": ("Colour", ("navy", "red", "green"), "COLOR", str),
    "when": ("Start", ("9:00", "10:00", "11:00"), "DTSTART", lambda text: _moment(text)),
}  # fmt: skip
"""Each field on a row of its own, whose other fields nobody touches."""
DAYS = {field: dt.date(2026, 11, 2 + n) for n, field in enumerate(FIELDS)}
ROW = {"Event": "Lofting", "Where": "Mould loft", "Notes": "", "Category": "", "Organizer": "", "Attendees": "", "Link": "",
       "Status": "", "Privacy": "", "Busy": "", "Priority": "", "Colour": "", "Start": "9:00"}  # fmt: skip


def _moment(text: str) -> dt.time:
    return dt.time.fromisoformat(text.zfill(5))


def source(folder: Path, state: int) -> Path:
    """The list; `state` 0 as it was at first, 1 as the source changed it, 2 as people did."""
    lines = ["UID,Date,End," + ",".join(ROW)]
    for field, (heading, values, _, _) in FIELDS.items():
        row = {**ROW, heading: values[state]}
        lines.append(f"{field}@s.example,{DAYS[field]},16:00," + ",".join(row.values()))
    return csv_file(folder, "\n".join(lines), "list.csv")


def build(folder: Path, *more: object) -> Any:
    return nomarium(
        "build", folder / "list.csv", "-o", folder / "year.ics", "--timezone", "America/Halifax", *more
    )


def edit(
    folder: Path, change: Callable[[dict[str, icalendar.Event]], None], name: str = "edited.ics"
) -> Path:
    """What an application exports after people's changes: sorted properties, other stamps, alarms and X- lines of its own."""
    calendar = icalendar.Calendar.from_ical((folder / "year.ics").read_bytes())
    events = {str(event["UID"]): event for event in calendar.walk("VEVENT")}
    change(events)
    calendar.subcomponents = [one for one in calendar.subcomponents if one.name != "VEVENT"]
    for event in events.values():
        event["DTSTAMP"] = icalendar.vDDDTypes(dt.datetime(2026, 12, 1, tzinfo=dt.UTC))
        event["LAST-MODIFIED"] = icalendar.vDDDTypes(dt.datetime(2026, 12, 1, tzinfo=dt.UTC))
        event["X-APPLICATION-SORT"] = icalendar.vText("1")
        event.pop("X-NOMARIUM-BASE", None)
        alarm = icalendar.Alarm()
        alarm.add("ACTION", "AUDIO")
        alarm.add("TRIGGER", dt.timedelta(minutes=-10))
        event.add_component(alarm)
        calendar.add_component(event)
    path = folder / name
    path.write_bytes(calendar.to_ical(sorted=True))
    return path


def nothing(_: dict[str, icalendar.Event]) -> None:
    """People left it as it was."""


def put(event: icalendar.Event, name: str, value: Any) -> None:
    event.pop(name, None)
    if name == "DTSTART" and isinstance(value, dt.time):
        start = event_start(event.get("DTEND").dt, value)
        value = start.astimezone(dt.UTC)  # applications spell zones as they like
    event.add(name, value)


def event_start(end: dt.datetime, time: dt.time) -> dt.datetime:
    return end.replace(hour=time.hour, minute=time.minute)


def found(folder: Path, name: str = "year.ics") -> dict[str, icalendar.Event]:
    calendar = icalendar.Calendar.from_ical((folder / name).read_bytes())
    return {str(event["UID"]): event for event in calendar.walk("VEVENT")}


def says(event: icalendar.Event, field: str) -> str:
    """What an event says in a field, as the list writes it."""
    name = FIELDS[field][2]
    if field == "when":
        return f"{event['DTSTART'].dt.hour}:00"
    value = event.get(name)
    if field == "busy":
        return "free" if value == "TRANSPARENT" else "busy"
    if field == "categories":
        return str(value.to_ical().decode()) if value is not None else ""
    if field in ("status", "privacy"):
        return str(value or {"status": "confirmed", "privacy": "public"}[field]).lower()
    return str(value if value is not None else "").replace("mailto:", "")


def people_change(state: int) -> Callable[[dict[str, icalendar.Event]], None]:
    def change(events: dict[str, icalendar.Event]) -> None:
        for field, (_, values, name, written) in FIELDS.items():
            put(events[f"{field}@s.example"], name, written(values[state]))

    return change


SCENES = {
    # source's state, people's state, --prefer, what stands at the end (None: refused)
    "nobody": (0, 0, None, 0),
    "the source": (1, 0, None, 1),
    "people": (0, 2, None, 2),
    "both alike": (1, 1, None, 1),
    "both differently": (1, 2, None, None),
    "both, the source preferred": (1, 2, "source", 1),
    "both, people preferred": (1, 2, "edited", 2),
    "people, whoever is preferred": (0, 2, "source", 2),
    "the source, whoever is preferred": (1, 0, "edited", 1),
}


@pytest.mark.parametrize("scene", SCENES)
def test_every_field_by_whoever_changed_it(tmp_path: Path, scene: str) -> None:
    mine, theirs, prefer, wanted = SCENES[scene]
    source(tmp_path, 0)
    assert build(tmp_path).status == 0
    edited = edit(tmp_path, people_change(theirs) if theirs else nothing)
    source(tmp_path, mine)
    more = ("--edited", edited, *(("--prefer", prefer) if prefer else ()))
    before = (tmp_path / "year.ics").read_bytes()
    ran = build(tmp_path, *more)
    if wanted is None:
        conflicting = {field for field, one in FIELDS.items() if one[1][1] != one[1][2]}
        assert ran.status == 1 and (tmp_path / "year.ics").read_bytes() == before
        problems = json.loads(build(tmp_path, *more, "--json").out)["problems"]
        assert (
            sum("was changed on both sides" in one["message"] for one in problems)
            == len(conflicting)
            == len(problems)
        )
        assert (
            "list.csv, row 2" in ran.text and "it was “Knots” before, the source says “Knots II”" in ran.text
        )
        assert (
            "edited.ics says “Knots and splices”" in ran.text
            and "--prefer source or --prefer edited" in ran.text
        )
        return
    assert ran.status == 0, ran.text
    for field, (_, values, _, _) in FIELDS.items():
        assert says(found(tmp_path)[f"{field}@s.example"], field) == values[wanted], field
    # the same again, with the same export, without it, and with one of the result: nothing changes and no edit comes undone
    after = (tmp_path / "year.ics").read_bytes()
    for again in (more, (), ("--edited", edit(tmp_path, nothing, "later.ics"))):
        assert build(tmp_path, *again).status == 0
        assert (tmp_path / "year.ics").read_bytes() == after, again
    # an edit outlives what the source changes elsewhere
    listed = (tmp_path / "list.csv").read_text().replace("Mould loft", "Sail loft")
    (tmp_path / "list.csv").write_text(listed)
    assert build(tmp_path, *more).status == 0
    for field, (_, values, _, _) in FIELDS.items():
        event = found(tmp_path)[f"{field}@s.example"]
        assert says(event, field) == values[wanted]
        assert event["LOCATION"] == ("Sail loft" if field != "location" else values[wanted])


def test_a_settled_event_has_a_sequence_over_both_sides(tmp_path: Path) -> None:
    source(tmp_path, 0)
    build(tmp_path)

    def change(events: dict[str, icalendar.Event]) -> None:
        people_change(2)(events)
        for event in events.values():
            put(event, "SEQUENCE", 7)

    build(tmp_path, "--edited", edit(tmp_path, change))
    assert {int(event["SEQUENCE"]) for event in found(tmp_path).values()} == {8}


LIST = """
    Event,Date,Start,End,Where
    Rigging,2026-11-12,9:25,10:30,Slip 2
    Rigging,2026-11-19,9:25,10:30,Slip 2
    Knots,2026-11-13,11:00,12:00,Loft
    Open day,2026-11-21,,,
    Paint,2026-11-24,13:00,14:00,Shed
"""


def titled(folder: Path) -> dict[str, list[icalendar.Event]]:
    titles: dict[str, list[icalendar.Event]] = {}
    for event in found(folder).values():
        titles.setdefault(str(event["SUMMARY"]), []).append(event)
    return titles


def without(*titles: str) -> Callable[[dict[str, icalendar.Event]], None]:
    def change(events: dict[str, icalendar.Event]) -> None:
        for uid in [uid for uid, event in events.items() if event["SUMMARY"] in titles]:
            del events[uid]

    return change


def with_cake(events: dict[str, icalendar.Event]) -> None:
    cake = icalendar.Event()
    cake.add("UID", "cake@people.example")
    cake.add("SUMMARY", "Cake")
    cake.add("DTSTART", dt.datetime(2026, 11, 25, 15, tzinfo=ZONE))
    cake.add("DTEND", dt.datetime(2026, 11, 25, 16, tzinfo=ZONE))
    events["cake@people.example"] = cake


def change_list(folder: Path, old: str, new: str) -> None:
    path = folder / "list.csv"
    text = path.read_text()
    assert old in text
    path.write_text(text.replace(old, new))


def first_build(folder: Path, *more: object) -> None:
    csv_file(folder, LIST, "list.csv")
    assert build(folder, *more).status == 0


def test_what_people_deleted_stays_deleted_until_the_source_changes_it(tmp_path: Path) -> None:
    first_build(tmp_path)
    edited = edit(tmp_path, without("Paint"))
    for more in (("--edited", edited), ("--edited", edited), ()):
        ran = build(tmp_path, *more)
        assert ran.status == 0 and "Paint" not in titled(tmp_path)
        assert "1 event stays out: people deleted it: “Paint” on Tue 24 Nov 2026" in ran.text
    change_list(tmp_path, "Shed", "Shed 2")
    ran = build(tmp_path, "--edited", edited, "--prefer", "edited")
    assert ran.status == 0 and "Paint" not in titled(tmp_path)
    change_list(tmp_path, "Shed 2", "Shed 3")
    for _ in range(3):
        ran = build(tmp_path, "--edited", edited)
        assert ran.status == 0 and "is back" in ran.text
        assert titled(tmp_path)["Paint"][0]["LOCATION"] == "Shed 3"


def test_of_many_that_people_deleted_four_are_named_and_the_others_counted(tmp_path: Path) -> None:
    rows = "".join(f"Row {n},2026-11-{10 + n},9:00,10:00,Slip\n" for n in range(7))
    csv_file(tmp_path, f"Event,Date,Start,End,Where\n{rows}", "list.csv")
    assert build(tmp_path).status == 0
    edited = edit(tmp_path, without(*(f"Row {n}" for n in range(6))))
    ran = build(tmp_path, "--edited", edited)
    assert ran.status == 0
    assert "6 events stay out: people deleted them: “Row 0” on Tue 10 Nov 2026; “Row 1” on" in ran.text
    assert "“Row 3” on Fri 13 Nov 2026; and 2 more." in ran.text


def test_what_people_added_stays_and_goes_when_they_delete_it(tmp_path: Path) -> None:
    first_build(tmp_path)
    edited = edit(tmp_path, with_cake)
    for more in (("--edited", edited), (), ("--edited", edited)):
        assert build(tmp_path, *more).status == 0
        assert [str(one["UID"]) for one in titled(tmp_path)["Cake"]] == ["cake@people.example"]
    assert build(tmp_path, "--edited", edit(tmp_path, without("Cake"))).status == 0
    assert "Cake" not in titled(tmp_path)


def test_one_that_both_added_is_one_with_the_uid_of_the_source(tmp_path: Path) -> None:
    first_build(tmp_path)
    edited = edit(tmp_path, with_cake)
    change_list(tmp_path, "Open day", "Cake,2026-11-25,15:00,16:00,Galley\nOpen day")
    for _ in range(3):
        ran = build(tmp_path, "--edited", edited)
        assert ran.status == 0
        cakes = titled(tmp_path)["Cake"]
        assert (
            len(cakes) == 1 and cakes[0]["UID"] != "cake@people.example" and cakes[0]["LOCATION"] == "Galley"
        )
    assert "1 event was added on both sides" in ran.text
    # brought up to date, the application has both: that adds none
    assert build(tmp_path, "--edited", edit(tmp_path, with_cake)).status == 0
    assert len(titled(tmp_path)["Cake"]) == 1


def test_what_the_source_dropped_goes_unless_people_changed_it(tmp_path: Path) -> None:
    first_build(tmp_path)
    untouched = edit(tmp_path, nothing, "untouched.ics")
    edited = edit(
        tmp_path,
        lambda events: put(
            next(one for one in events.values() if one["SUMMARY"] == "Paint"), "LOCATION", "Slip 9"
        ),
    )
    change_list(tmp_path, "Paint,2026-11-24,13:00,14:00,Shed", "")
    ran = build(tmp_path, "--edited", edited)
    assert ran.status == 1 and "“Paint” on Tue 24 Nov 2026 is no longer in the source" in ran.text
    assert build(tmp_path, "--edited", edited, "--prefer", "edited", "-o", tmp_path / "kept.ics").status == 0
    for _ in range(2):
        assert build(tmp_path, "--edited", untouched).status == 0
        assert "Paint" not in titled(tmp_path), "and an export that still has it does not bring it back"
    ran = build(tmp_path, "--edited", edited)
    assert ran.status == 1, "changed after it was dropped"
    for _ in range(2):
        assert build(tmp_path, "--edited", edited, "--prefer", "source").status == 0
        assert "Paint" not in titled(tmp_path)
    assert build(tmp_path, "--edited", edited).status == 0, "that is decided"
    assert "Paint" not in titled(tmp_path)


def test_a_row_that_moves_keeps_what_people_changed_of_it(tmp_path: Path) -> None:
    first_build(tmp_path)

    def rename(events: dict[str, icalendar.Event]) -> None:
        event = next(one for one in events.values() if one["SUMMARY"] == "Knots")
        put(event, "SUMMARY", "Knots and splices")

    edited = edit(tmp_path, rename)
    uid = str(titled(tmp_path)["Knots"][0]["UID"])
    assert build(tmp_path, "--edited", edited).status == 0
    change_list(tmp_path, "Knots,2026-11-13,11:00,12:00", "Knots,2026-11-16,10:00,11:00")
    assert build(tmp_path, "--edited", edited).status == 0
    event = found(tmp_path)[uid]
    assert event["SUMMARY"] == "Knots and splices" and event["DTSTART"].dt == dt.datetime(
        2026, 11, 16, 10, tzinfo=ZONE
    )
    assert "Knots" not in titled(tmp_path) and len(found(tmp_path)) == 5


def test_without_a_last_build_every_difference_is_asked_about(tmp_path: Path) -> None:
    source(tmp_path, 0)
    build(tmp_path)
    edited = edit(tmp_path, people_change(2))
    (tmp_path / "year.ics").unlink()
    ran = build(tmp_path, "--edited", edited, "--json")
    asked = [one["message"] for one in json.loads(ran.out)["problems"]]
    assert (
        ran.status == 1
        and len(asked) == len(FIELDS)
        and all("what it was before is not known" in one for one in asked)
    )
    assert not (tmp_path / "year.ics").exists()
    assert build(tmp_path, "--edited", edited, "--prefer", "edited").status == 0
    assert says(found(tmp_path)["location@s.example"], "location") == "Slip 3"


def test_a_calendar_that_was_changed_where_it_stands_is_settled_by_the_history(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("NOMARIUM_HISTORY", str(tmp_path / "history.sqlite3"))
    first_build(tmp_path)
    edit(tmp_path, without("Paint"), "year.ics")
    change_list(tmp_path, "Loft", "Mould loft")
    ran = build(tmp_path, "--edited", tmp_path / "year.ics")
    assert ran.status == 0, ran.text
    assert "Paint" not in titled(tmp_path) and titled(tmp_path)["Knots"][0]["LOCATION"] == "Mould loft"


def test_another_calendar_is_not_taken_for_one_in_which_all_was_deleted(tmp_path: Path) -> None:
    first_build(tmp_path)
    other = tmp_path / "other.ics"
    before = (tmp_path / "year.ics").read_bytes()
    for text in ("", "BEGIN:VEVENT\r\nUID:1@x\r\nDTSTART:20261101T100000\r\nSUMMARY:Else\r\nEND:VEVENT\r\n"):
        other.write_text(f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{text}END:VCALENDAR\r\n")
        ran = build(tmp_path, "--edited", other)
        assert ran.status == 1 and "it is not what people made of this calendar" in ran.text
    assert (tmp_path / "year.ics").read_bytes() == before


@pytest.mark.parametrize(
    ("more", "said"),
    [
        (("--prefer", "source"), "Give the calendar that people changed: --edited CALENDAR."),
        (("--edited", "year.ics", "--prefer", "mine"), "--prefer mine is neither source nor edited."),
        (("--edited", "list.csv"), "is no calendar file."),
    ],
)
def test_what_makes_no_sense_is_refused(tmp_path: Path, more: tuple[str, ...], said: str) -> None:
    first_build(tmp_path)
    more = tuple(str(tmp_path / one) if one.endswith((".ics", ".csv")) else one for one in more)
    ran = build(tmp_path, *more)
    assert ran.status == 2 and said in ran.text


def test_an_export_with_an_event_that_cannot_be_read_is_refused(tmp_path: Path) -> None:
    first_build(tmp_path)
    edited = edit(tmp_path, nothing)
    edited.write_text(
        edited.read_text().replace("DTSTART;TZID=America/Halifax:20261124T130000", "DTSTART:soon")
    )
    ran = build(tmp_path, "--edited", edited)
    assert ran.status == 1 and "soon" in ran.text


def test_a_split_is_settled_by_the_calendars_that_are_given(tmp_path: Path) -> None:
    csv_file(
        tmp_path,
        "Event,Date,Teacher\nRigging,2026-11-12,Finch\nKnots,2026-11-13,Plover\nPaint,2026-11-16,Finch",
        "list.csv",
    )
    out = tmp_path / "calendars"
    run = ("build", tmp_path / "list.csv", "-o", out, "--split-by", "teacher")
    assert nomarium(*run).status == 0
    (tmp_path / "year.ics").write_bytes((out / "finch.ics").read_bytes())
    edited = edit(tmp_path, without("Paint"))
    for _ in range(2):
        assert nomarium(*run, "--edited", edited).status == 0
        assert [str(one["SUMMARY"]) for one in found(out, "finch.ics").values()] == ["Rigging"]
        assert [str(one["SUMMARY"]) for one in found(out, "plover.ics").values()] == ["Knots"]


def test_the_report_for_machines_counts_what_was_settled(tmp_path: Path) -> None:
    first_build(tmp_path)

    def change(events: dict[str, icalendar.Event]) -> None:
        without("Paint")(events)
        with_cake(events)

    facts = json.loads(build(tmp_path, "--edited", edit(tmp_path, change), "--json", "--dry-run").out)
    assert facts["edited"] == {"added": 1, "deleted": 1} and facts["events"] == 5
    assert facts["ledger"]["read"] == 5 and "Paint" in titled(tmp_path)


SERIES = """
    Event,Date,Start,End,Where,Repeat
    Rigging,2026-11-03,9:25,10:30,Slip 2,every Tuesday until 2026-12-15
    Open day,2026-11-21,,,,
"""
TUESDAYS = [dt.date(2026, 11, day) for day in (3, 10, 17, 24)] + [
    dt.date(2026, 12, day) for day in (1, 8, 15)
]


def series_build(folder: Path, *more: object) -> Any:
    return build(folder, "--repeats", "rule", *more)


def first_series(folder: Path) -> None:
    csv_file(folder, SERIES, "list.csv")
    assert series_build(folder).status == 0


def at(day: dt.date, hour: int, minute: int = 0) -> dt.datetime:
    return dt.datetime(day.year, day.month, day.day, hour, minute, tzinfo=ZONE)


def rigging(events: dict[str, icalendar.Event]) -> icalendar.Event:
    return next(one for one in events.values() if one["SUMMARY"] == "Rigging" and "RECURRENCE-ID" not in one)


def replaced(series: icalendar.Event, original: dt.datetime, **changes: Any) -> icalendar.Event:
    """One date of a series as people changed it."""
    one = icalendar.Event()
    for name in ("UID", "SUMMARY", "LOCATION"):
        one.add(name, series[name])
    one.add("DTSTART", original)
    one.add("DTEND", original + dt.timedelta(minutes=65))
    one.add("RECURRENCE-ID", original)
    for name, value in changes.items():
        put(one, name, value)
    return one


def moved(
    day: dt.date, to: dt.datetime, hour: int = 9, minute: int = 25
) -> Callable[[dict[str, icalendar.Event]], None]:
    def change(events: dict[str, icalendar.Event]) -> None:
        one = replaced(rigging(events), at(day, hour, minute), DTSTART=to, DTEND=to + dt.timedelta(hours=1))
        events["replaced"] = one

    return change


def dates(folder: Path) -> list[tuple[str, str, str]]:
    """What an independent reader of the calendar sees: start, title, place."""
    calendar = icalendar.Calendar.from_ical((folder / "year.ics").read_bytes())
    seen = recurring_ical_events.of(calendar).between(dt.date(2026, 10, 1), dt.date(2027, 6, 1))
    listed = [
        (f"{one['DTSTART'].dt:%m-%d %H:%M}", str(one["SUMMARY"]), str(one.get("LOCATION", "")))
        for one in seen
        if one.get("STATUS") != "CANCELLED"
    ]
    return sorted(listed)


def riggings(
    days: list[dt.date], time: str = "09:25", title: str = "Rigging", place: str = "Slip 2"
) -> list[tuple[str, str, str]]:
    return [(f"{day:%m-%d} {time}", title, place) for day in days]


OPEN_DAY = [("11-21 00:00", "Open day", "")]


def settled_twice(folder: Path, edited: Path, *more: object) -> list[tuple[str, str, str]]:
    """What a build with an export gives, and again, and again without it."""
    assert series_build(folder, "--edited", edited, *more).status == 0
    first, text = dates(folder), (folder / "year.ics").read_bytes()
    for again in (("--edited", edited, *more), ()):
        ran = series_build(folder, *again)
        assert ran.status == 0 and (folder / "year.ics").read_bytes() == text, again
    return first


def test_a_date_that_people_moved_keeps_its_time_and_takes_what_only_the_source_changed(
    tmp_path: Path,
) -> None:
    first_series(tmp_path)
    edited = edit(tmp_path, moved(TUESDAYS[1], at(TUESDAYS[1], 14)))
    rest = [TUESDAYS[0], *TUESDAYS[2:]]
    assert settled_twice(tmp_path, edited) == sorted(
        [*riggings(rest), ("11-10 14:00", "Rigging", "Slip 2"), *OPEN_DAY]
    )
    change_list(tmp_path, "Slip 2", "Slip 7")
    wanted = [*riggings(rest, place="Slip 7"), ("11-10 14:00", "Rigging", "Slip 7"), *OPEN_DAY]
    assert settled_twice(tmp_path, edited) == sorted(wanted)
    change_list(tmp_path, "9:25,10:30", "8:00,9:00")
    wanted = [*riggings(rest, "08:00", place="Slip 7"), ("11-10 14:00", "Rigging", "Slip 7"), *OPEN_DAY]
    assert settled_twice(tmp_path, edited) == sorted(wanted)
    # the result, exported again as it is: still so
    assert settled_twice(tmp_path, edit_all(tmp_path)) == sorted(wanted)


def edit_all(folder: Path) -> Path:
    """An export of the calendar as it was built, with every entry of each UID."""
    path = folder / "export.ics"
    calendar = icalendar.Calendar.from_ical((folder / "year.ics").read_bytes())
    for event in calendar.walk("VEVENT"):
        event.pop("X-NOMARIUM-BASE", None)
    path.write_bytes(calendar.to_ical(sorted=True))
    return path


def test_dates_that_people_take_out_and_those_that_the_source_does(tmp_path: Path) -> None:
    first_series(tmp_path)

    def take_out(events: dict[str, icalendar.Event]) -> None:
        rigging(events).add("EXDATE", at(TUESDAYS[2], 9, 25))

    edited = edit(tmp_path, take_out)
    assert settled_twice(tmp_path, edited) == sorted([*riggings([*TUESDAYS[:2], *TUESDAYS[3:]]), *OPEN_DAY])
    off = csv_file(tmp_path, "Name,Date\nStorm,2026-12-01", "off.csv")
    wanted = sorted([*riggings([*TUESDAYS[:2], TUESDAYS[3], *TUESDAYS[5:]]), *OPEN_DAY])
    for _ in range(3):
        assert series_build(tmp_path, "--edited", edited, "--days-off", off).status == 0
        assert dates(tmp_path) == wanted

    # people put a date back
    def put_back(events: dict[str, icalendar.Event]) -> None:
        rigging(events).pop("EXDATE")

    edited = edit(tmp_path, put_back, "back.ics")
    for _ in range(2):
        assert series_build(tmp_path, "--edited", edited, "--days-off", off).status == 0
        assert dates(tmp_path) == sorted([*riggings(TUESDAYS), *OPEN_DAY])


def test_a_series_that_both_sides_changed_and_a_date_that_is_cancelled(tmp_path: Path) -> None:
    first_series(tmp_path)

    def change(events: dict[str, icalendar.Event]) -> None:
        series = rigging(events)
        events["replaced"] = replaced(series, at(TUESDAYS[3], 9, 25), STATUS="CANCELLED")
        put(series, "SUMMARY", "Rigging and ropes")

    edited = edit(tmp_path, change)
    change_list(tmp_path, "9:25,10:30", "10:35,11:30")
    wanted = [*riggings([*TUESDAYS[:3], *TUESDAYS[4:]], "10:35", "Rigging and ropes"), *OPEN_DAY]
    assert settled_twice(tmp_path, edited) == sorted(wanted)


def test_a_series_that_moves_to_another_weekday_takes_its_changed_date_along(tmp_path: Path) -> None:
    first_series(tmp_path)
    edited = edit(tmp_path, moved(TUESDAYS[1], at(TUESDAYS[1], 14)))
    assert series_build(tmp_path, "--edited", edited).status == 0
    change_list(
        tmp_path, "2026-11-03,9:25,10:30,Slip 2,every Tuesday", "2026-11-04,9:25,10:30,Slip 2,every Wednesday"
    )
    change_list(tmp_path, "2026-12-15", "2026-12-16")
    wednesdays = [day + dt.timedelta(days=1) for day in TUESDAYS]
    wanted = [*riggings([wednesdays[0], *wednesdays[2:]]), ("11-10 14:00", "Rigging", "Slip 2"), *OPEN_DAY]
    assert settled_twice(tmp_path, edited) == sorted(wanted)


def test_a_date_that_people_moved_and_the_source_dropped_is_asked_about(tmp_path: Path) -> None:
    first_series(tmp_path)
    edited = edit(tmp_path, moved(TUESDAYS[6], at(TUESDAYS[6], 14)))
    assert series_build(tmp_path, "--edited", edited).status == 0
    change_list(tmp_path, "2026-12-15", "2026-12-08")
    ran = series_build(tmp_path, "--edited", edited)
    assert ran.status == 1 and "“Rigging” on Tue 15 Dec 2026 is no longer in the source" in ran.text
    kept = [*riggings(TUESDAYS[:6]), ("12-15 14:00", "Rigging", "Slip 2"), *OPEN_DAY]
    assert series_build(tmp_path, "--edited", edited, "--prefer", "edited").status == 0
    assert dates(tmp_path) == sorted(kept)
    assert settled_twice(tmp_path, edited, "--prefer", "source") == sorted(
        [*riggings(TUESDAYS[:6]), *OPEN_DAY]
    )


def test_a_series_that_people_added_stays_with_what_it_replaces(tmp_path: Path) -> None:
    first_series(tmp_path)

    def add(events: dict[str, icalendar.Event]) -> None:
        one = icalendar.Event()
        one.add("UID", "choir@people.example")
        one.add("SUMMARY", "Choir")
        one.add("LOCATION", "Galley")
        one.add("DTSTART", at(dt.date(2026, 11, 5), 12))
        one.add("DTEND", at(dt.date(2026, 11, 5), 13))
        one.add("RRULE", {"FREQ": "WEEKLY", "COUNT": 3})
        events["choir@people.example"] = one
        events["choir 2"] = replaced(one, at(dt.date(2026, 11, 12), 12), SUMMARY="Choir, long")

    choir = [
        ("11-05 12:00", "Choir", "Galley"),
        ("11-12 12:00", "Choir, long", "Galley"),
        ("11-19 12:00", "Choir", "Galley"),
    ]
    assert settled_twice(tmp_path, edit(tmp_path, add)) == sorted([*riggings(TUESDAYS), *OPEN_DAY, *choir])


def test_people_make_a_series_of_one_event_and_one_event_of_a_series(tmp_path: Path) -> None:
    first_series(tmp_path)

    def change(events: dict[str, icalendar.Event]) -> None:
        rigging(events).pop("RRULE")
        day = next(one for one in events.values() if one["SUMMARY"] == "Open day")
        day.add("RRULE", {"FREQ": "DAILY", "COUNT": 2})

    edited = edit(tmp_path, change)
    change_list(tmp_path, "Slip 2", "Slip 7")
    wanted = [*riggings(TUESDAYS[:1], place="Slip 7"), *OPEN_DAY, ("11-22 00:00", "Open day", "")]
    assert settled_twice(tmp_path, edited) == sorted(wanted)


def test_the_same_dates_said_in_another_way_are_no_conflict(tmp_path: Path) -> None:
    first_series(tmp_path)
    edited = edit(tmp_path, lambda events: put(rigging(events), "RRULE", {"FREQ": "WEEKLY", "COUNT": 6}))
    change_list(tmp_path, "2026-12-15", "2026-12-08")
    assert settled_twice(tmp_path, edited) == sorted([*riggings(TUESDAYS[:6]), *OPEN_DAY])
