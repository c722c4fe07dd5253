"""compare and recall: what has become of a calendar, and how it is taken back."""

from __future__ import annotations

import csv
import datetime as dt
import json
from collections import Counter
from pathlib import Path

import icalendar
import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import csv_file, nomarium
from nomarium.history.differences import Dated, differences
from nomarium.history.letter import sentence
from nomarium.model.event import Details, Event, Person

HEAD = "Date,Start,End,Event,Where,Teacher,Notes"
OLD = ["2026-11-12,9:25,10:15,Rigging,Sail loft,R. Finch,", "2026-11-13,9:00,10:00,Lofting,Mould loft,A. Plover,Bring a rule",
       "2026-11-16,,,Staff day,,,", "2026-11-17,9:00,10:00,Knots,Sail loft,R. Finch,"]  # fmt: skip

CASES = {
    "the same": (OLD, {}, []),
    "moved and elsewhere": (
        ["2026-11-12,10:35,11:25,Rigging,Mould loft,R. Finch,", *OLD[1:]], {"moved": 1},
        ["Thu 12 Nov 2026: Rigging moved from 9:25–10:15 to 10:35–11:25, now in Mould loft."],
    ),
    "another day": (
        ["2026-11-19,9:25,10:15,Rigging,Sail loft,R. Finch,", *OLD[1:]], {"moved": 1},
        ["Thu 12 Nov 2026: Rigging moved to Thu 19 Nov 2026, 9:25–10:15."],
    ),
    "another day and time": (
        ["2026-11-19,10:35,11:25,Rigging,Sail loft,R. Finch,", *OLD[1:]], {"moved": 1},
        ["Thu 12 Nov 2026: Rigging moved from 9:25–10:15 to Thu 19 Nov 2026, 10:35–11:25."],
    ),
    "an earlier day": (
        [*OLD[:3], "2026-11-10,9:00,10:00,Knots,Sail loft,R. Finch,"], {"moved": 1},
        ["Tue 10 Nov 2026: Knots moved from Tue 17 Nov 2026, 9:00–10:00, to Tue 10 Nov 2026, 9:00–10:00."],
    ),
    "a new end": (["2026-11-12,9:25,10:45,Rigging,Sail loft,R. Finch,", *OLD[1:]], {"moved": 1}, ["Rigging moved its end from 10:15 to 10:45."]),
    "another place": ([OLD[0], OLD[1].replace("Mould loft", "Slip 1"), *OLD[2:]], {"changed": 1}, ["Lofting: now in Slip 1."]),
    "another teacher": ([OLD[0], OLD[1].replace("A. Plover", "O. Tern"), *OLD[2:]], {"changed": 1}, ["Lofting: teacher now O. Tern (was A. Plover)."]),
    "other notes": ([OLD[0], OLD[1].replace("a rule", "a plane"), *OLD[2:]], {"changed": 1}, ["Lofting: with other notes."]),
    "renamed": ([OLD[0].replace("Rigging", "Splicing"), *OLD[1:]], {"changed": 1}, ["Rigging: now called “Splicing”."]),
    "renamed and moved": (
        [OLD[0].replace("Rigging", "Rigging II").replace("9:25,10:15", "10:35,11:25"), *OLD[1:]], {"moved": 1},
        ["Rigging moved from 9:25–10:15 to 10:35–11:25, now called “Rigging II”."],
    ),
    "gone": (OLD[1:], {"removed": 1}, ["Rigging (9:25–10:15, Sail loft) is gone."]),
    "new": ([*OLD, "2026-12-01,,,Open day,Slip 1,,"], {"added": 1}, ["Tue 1 Dec 2026: Open day (all day, Slip 1) is new."]),
    "all day becomes timed": ([*OLD[:2], "2026-11-16,9:00,10:00,Staff day,,,", OLD[3]], {"moved": 1}, ["Staff day moved from all day to 9:00–10:00."]),
    "two move": (
        ["2026-11-12,10:25,11:15,Rigging,Sail loft,R. Finch,", OLD[1], OLD[2], "2026-11-18,9:00,10:00,Knots,Sail loft,R. Finch,"], {"moved": 2}, [],
    ),
}  # fmt: skip


def lists(folder: Path, new: list[str]) -> tuple[Path, Path]:
    return csv_file(folder, "\n".join([HEAD, *OLD]), "old.csv"), csv_file(
        folder, "\n".join([HEAD, *new]), "new.csv"
    )


def facts_of(*arguments: object) -> dict[str, list[dict[str, object]]]:
    facts = json.loads(nomarium("compare", *arguments, "--json").out)
    assert isinstance(facts, dict)
    return facts


@pytest.mark.parametrize("built", ["spreadsheets", "calendars", "a calendar and a spreadsheet"])
@pytest.mark.parametrize("name", CASES)
def test_differences_are_told_as_a_letter(name: str, built: str, tmp_path: Path) -> None:
    new, counts, sentences = CASES[name]
    old_file, new_file = lists(tmp_path, new)
    zone = ["--timezone", "America/Halifax"]
    if built != "spreadsheets":
        assert nomarium("build", old_file, "-o", tmp_path / "old.ics", *zone).status == 0
        old_file = tmp_path / "old.ics"
    if built == "calendars":
        assert nomarium("build", new_file, "-o", tmp_path / "new.ics", *zone).status == 0
        new_file = tmp_path / "new.ics"
    outcome = nomarium("compare", old_file, new_file, *zone)
    assert outcome.status == 0, outcome.text
    assert [one for one in sentences if one not in outcome.out] == [], outcome.out
    facts = facts_of(old_file, new_file, *zone)
    assert {
        what: len(facts[what]) for what in ("added", "removed", "moved", "changed") if facts[what]
    } == counts
    assert nomarium("compare", old_file, new_file, *zone, "--expect-same").status == (1 if counts else 0)


def test_json_has_both_sides_of_what_moved(tmp_path: Path) -> None:
    old, new = lists(tmp_path, CASES["moved and elsewhere"][0])
    (moved,) = facts_of(old, new)["moved"]
    assert moved["fields"] == ["start", "end", "location"]
    assert moved["from"] == {  # type: ignore[comparison-overlap]
        "uid": "", "summary": "Rigging", "start": "2026-11-12T09:25:00", "end": "2026-11-12T10:15:00", "all_day": False, "location": "Sail loft",
    }  # fmt: skip


def vevents(path: Path) -> dict[tuple[str, str], icalendar.Event]:
    events = icalendar.Calendar.from_ical(path.read_bytes()).walk("VEVENT")
    return {
        (str(one["UID"]), str(one.get("RECURRENCE-ID", "") and one["RECURRENCE-ID"].dt)): one
        for one in events
    }


@pytest.mark.parametrize("name", [name for name in CASES if CASES[name][1]])
def test_a_file_of_changes_brings_a_calendar_up_to_date(name: str, tmp_path: Path) -> None:
    """A calendar application takes each event of the file by its UID, if its SEQUENCE is not lower."""
    old_file, new_file = lists(tmp_path, CASES[name][0])
    zone = ["--timezone", "America/Halifax"]
    before, after, changes = tmp_path / "before.ics", tmp_path / "after.ics", tmp_path / "changes.ics"
    assert nomarium("build", old_file, "-o", before, *zone).status == 0
    assert nomarium("build", new_file, "-o", after, *zone).status == 0
    assert nomarium("compare", before, new_file, *zone, "-o", changes).status == 0
    applied = vevents(before)
    for key, event in vevents(changes).items():
        assert (
            int(event.get("SEQUENCE", 0)) > int(applied[key].get("SEQUENCE", 0)) if key in applied else True
        )
        applied[key] = event
    there = sorted(_said(one) for one in applied.values() if one.get("STATUS") != "CANCELLED")
    assert there == sorted(_said(one) for one in vevents(after).values())
    assert nomarium("check", changes).status == 0


def _said(event: icalendar.Event) -> tuple[str, ...]:
    return tuple(
        str(event.get(name, "") and (event[name].dt if name.startswith("DT") else event[name]))
        for name in ("SUMMARY", "DTSTART", "DTEND", "LOCATION")
    )


def test_tables_and_a_letter_for_those_who_must_be_told(tmp_path: Path) -> None:
    old, new = lists(tmp_path, ["2026-11-12,10:35,11:25,Rigging <now>,Mould loft,R. Finch,", *OLD[1:3]])
    for name in ("c.csv", "c.xlsx", "c.html"):
        assert nomarium("compare", old, new, "-o", tmp_path / name).status == 0
    rows = list(csv.reader((tmp_path / "c.csv").read_text("utf-8-sig").splitlines()))
    assert rows[0] == ["What", "Title", "Date", "Time", "Field", "Before", "After"]
    assert ["removed", "Knots", "2026-11-17", "9:00–10:00", "", "Sail loft", ""] in rows
    sheet = openpyxl.load_workbook(tmp_path / "c.xlsx").active
    assert [cell.value for cell in sheet[1]] == rows[0]
    page = (tmp_path / "c.html").read_text("utf-8")
    assert "&lt;now&gt;" in page and "<now>" not in page and "Content-Security-Policy" in page
    assert '<html lang="en">' in page
    assert nomarium("compare", old, new, "-o", tmp_path / "c.txt").status == 2
    assert nomarium("compare", old, new, "-o", tmp_path / "c.ics").status == 2, (
        "OLD has no UIDs that people's calendars know"
    )


def test_what_is_the_same_on_many_dates_is_said_once(tmp_path: Path) -> None:
    days = [f"2026-11-{n:02},9:00,10:00,Lofting,{{}},," for n in range(2, 7)]
    old = csv_file(tmp_path, "\n".join([HEAD, *(day.format("Mould loft") for day in days)]), "old.csv")
    new = csv_file(tmp_path, "\n".join([HEAD, *(day.format("Slip 1") for day in days)]), "new.csv")
    outcome = nomarium("compare", old, new)
    assert "Mon 2 Nov 2026: Lofting: now in Slip 1 (5 dates, to Fri 6 Nov 2026)." in outcome.out
    assert outcome.out.count("Slip 1") == 1
    assert len(facts_of(old, new)["changed"]) == 5


SERIES = """BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Saltmarsh//EN
BEGIN:VEVENT
UID:walk@saltmarsh.example
DTSTAMP:20260101T000000Z
DTSTART:20261105T090000Z
DTEND:20261105T100000Z
SUMMARY:Tide walk
RRULE:FREQ=WEEKLY;COUNT=5
END:VEVENT
BEGIN:VEVENT
UID:walk@saltmarsh.example
DTSTAMP:20260101T000000Z
RECURRENCE-ID:20261119T090000Z
DTSTART:20261119T103000Z
DTEND:20261119T113000Z
SUMMARY:Tide walk
END:VEVENT
END:VCALENDAR
"""


def calendar(folder: Path, text: str, name: str = "c.ics") -> Path:
    path = folder / name
    path.write_bytes(text.replace("\n", "\r\n").encode())
    return path


def test_dates_of_series_are_compared_one_by_one(tmp_path: Path) -> None:
    old = calendar(tmp_path, SERIES)
    new = calendar(
        tmp_path,
        SERIES.replace("DTSTART:20261119T103000Z", "DTSTART:20261119T080000Z").replace("COUNT=5", "COUNT=4"),
        "d.ics",
    )
    facts = facts_of(old, new)
    assert [one["recurrence_id"] for one in facts["removed"]] == ["2026-12-03T09:00:00"]
    assert [(one["from"]["recurrence_id"], one["to"]["start"]) for one in facts["moved"]] == [
        ("2026-11-19T09:00:00", "2026-11-19T08:00:00")
    ]  # type: ignore[index]
    assert facts["unchanged"] == 3
    zoned = SERIES.replace(
        "DTSTART:20261105T090000Z", "DTSTART;TZID=America/Halifax:20261105T050000"
    ).replace("DTEND:20261105T100000Z", "DTEND;TZID=America/Halifax:20261105T060000")
    assert facts_of(old, calendar(tmp_path, zoned, "e.ics"))["unchanged"] == 5, (
        "the same instants in another zone"
    )
    floating = SERIES.replace("00Z\nDTEND", "00\nDTEND").replace("00Z\nSUMMARY", "00\nSUMMARY")
    told = nomarium("compare", old, calendar(tmp_path, floating, "f.ics"))
    assert "float on one side" in told.out


def test_a_recall_withdraws_every_uid_and_each_replaced_date(tmp_path: Path) -> None:
    source = calendar(tmp_path, SERIES)
    out = tmp_path / "back.ics"
    assert nomarium("recall", source, "-o", out).status == 0
    text = out.read_text()
    assert "METHOD:CANCEL" in text and "RRULE" not in text
    back = vevents(out)
    assert len(back) == 2
    assert {(one["STATUS"], int(one["SEQUENCE"])) for one in back.values()} == {("CANCELLED", 1)}
    assert nomarium("recall", source, "-o", out, "--from", "2026-11-19").status == 0
    assert sorted(key[1] for key in vevents(out)) == [
        "2026-11-19 09:00:00+00:00",
        "2026-11-26 09:00:00+00:00",
        "2026-12-03 09:00:00+00:00",
    ]


def test_a_series_without_an_end_is_given_one(tmp_path: Path) -> None:
    source = calendar(tmp_path, SERIES.replace(";COUNT=5", ""))
    outcome = nomarium("recall", source, "-o", tmp_path / "back.ics", "--from", "2026-12-01")
    assert outcome.status == 0 and "has no end: it is given one" in outcome.out
    text = (tmp_path / "back.ics").read_text()
    assert "METHOD:REQUEST" in text and "UNTIL=20261130" in text and "SEQUENCE:1" in text


NOTHING = {
    "nothing later": (SERIES, ["--from", "2027-06-01"], "nothing to withdraw"),
    "no uids": (SERIES.replace("UID:walk@saltmarsh.example\n", ""), [], "no UID"),
}


@pytest.mark.parametrize("name", NOTHING)
def test_what_cannot_be_recalled_is_said(name: str, tmp_path: Path) -> None:
    text, options, message = NOTHING[name]
    out = tmp_path / "back.ics"
    outcome = nomarium("recall", calendar(tmp_path, text), "-o", out, *options)
    assert outcome.status == 1 and message in outcome.err
    assert not out.exists()
    assert nomarium("recall", csv_file(tmp_path, "Date,Event\n2026-11-02,A\n"), "-o", out).status == 2


def test_a_calendar_that_was_recalled_is_empty_again(tmp_path: Path) -> None:
    old, _ = lists(tmp_path, OLD)
    built, back = tmp_path / "o.ics", tmp_path / "back.ics"
    assert nomarium("build", old, "-o", built, "--timezone", "America/Halifax").status == 0
    assert nomarium("recall", built, "-o", back).status == 0
    applied = {**vevents(built), **vevents(back)}
    assert {one["STATUS"] for one in applied.values()} == {"CANCELLED"}


def dated(**fields: object) -> Dated:
    start = dt.datetime(2026, 11, 12, 9, 25)
    own = {name: value for name, value in fields.items() if name in Details._fields}
    event = Event(
        "Rigging", start, start + dt.timedelta(minutes=50), "America/Halifax", details=Details(**own)
    )  # type: ignore[arg-type]
    return Dated(event._replace(**{name: value for name, value in fields.items() if name not in own}), "1")  # type: ignore[arg-type]


QUILL = Person("M. Quill", "m.quill@saltmarsh.example")
FIELDS = {
    "cancelled": ({}, {"status": "CANCELLED"}, "changed", "Rigging: cancelled."),
    "not certain": ({"status": "CONFIRMED"}, {"status": "TENTATIVE"}, "changed", "Rigging: no longer certain."),
    "free": ({"busy": True}, {"busy": False}, "changed", "Rigging: busy now free (was busy)."),
    "categories": ({"categories": ("Hull",)}, {"categories": ("Hull", "Rope")}, "changed", "Rigging: categories now Hull, Rope (was Hull)."),
    "groups": ({"audience": ("Apprentices",)}, {}, "changed", "Rigging: without groups (was Apprentices)."),
    "who leads it": ({}, {"organizer": QUILL}, "changed", "Rigging: organizer now M. Quill."),
    "who comes": ({"attendees": (QUILL,)}, {"attendees": (QUILL, Person("", "o@saltmarsh.example"))}, "changed", "Rigging: attendees now M. Quill, o@saltmarsh.example (was M. Quill)."),
    "no place any more": ({"location": "Slip 1"}, {}, "changed", "Rigging: no longer in Slip 1."),
    "a class of another name": ({"facets": (("class", "A"),)}, {"facets": (("class", "B"),)}, "changed", "Rigging: class now B (was A)."),
    "over night": ({}, {"end": dt.datetime(2026, 11, 13, 1, 0)}, "moved", "Rigging moved its end from 10:15 to Fri 13 Nov 2026."),
    "two things": ({}, {"location": "Slip 1", "url": "https://saltmarsh.example"}, "changed", "Rigging: now in Slip 1, url now https://saltmarsh.example."),
}  # fmt: skip


@pytest.mark.parametrize("name", FIELDS)
def test_each_field_has_its_words(name: str) -> None:
    before, after, what, expected = FIELDS[name]
    (found,) = differences([dated(**before)], [dated(**after)]).listed
    assert (found.what, sentence(found)) == (what, expected)


SAME = {
    "blanks and folds": (
        {"description": "Bring  a fid\nand a knife"},
        {"description": "Bring a fid and a knife"},
    ),
    "the same instant": (
        {},
        {"zone": "UTC", "start": dt.datetime(2026, 11, 12, 13, 25), "end": dt.datetime(2026, 11, 12, 14, 15)},
    ),
    "floating at the same time of the clock": ({}, {"zone": None}),
    "what calendar applications add": (
        {},
        {"other": ("X-APPLICATION-COLOR:7",), "dtstamp": "20270101T000000Z", "sequence": 4},
    ),
    "school data that only one side has": ({"facets": (("class", "A"), ("teacher", "R. Finch"))}, {}),
    "the row": ({"row_number": 4}, {"row_number": 9}),
}


@pytest.mark.parametrize("name", SAME)
def test_what_is_no_change_is_none(name: str) -> None:
    before, after = SAME[name]
    found = differences([dated(**before)], [dated(**after)])
    assert found.listed == [] and found.unchanged == 1


@settings(max_examples=80, deadline=None)
@given(
    st.lists(st.tuples(st.sampled_from("ABC"), st.integers(0, 4), st.integers(8, 10)), max_size=7),
    st.lists(st.tuples(st.sampled_from("ABC"), st.integers(0, 4), st.integers(8, 10)), max_size=7),
)
def test_every_event_of_both_sides_is_accounted_for(
    old: list[tuple[str, int, int]], new: list[tuple[str, int, int]]
) -> None:
    def side(found: list[tuple[str, int, int]]) -> list[Dated]:
        events = []
        for n, (title, day, hour) in enumerate(found):
            start = dt.datetime(2026, 11, 2 + day, hour)
            events.append(Dated(Event(title, start, start + dt.timedelta(hours=1)), "", "", n))
        return events

    found = differences(side(old), side(new))
    kinds = Counter(one.what for one in found.listed)
    paired = kinds["moved"] + kinds["changed"] + found.unchanged
    assert paired + kinds["removed"] == len(old)
    assert paired + kinds["added"] == len(new)
    assert found.unchanged == sum((Counter(old) & Counter(new)).values()), (
        "what is the same on both sides is never told"
    )
    assert sum(one.old is not None for one in found.listed) == len(
        {one.old.number for one in found.listed if one.old}
    )


def test_a_recall_is_a_later_revision_than_what_people_have(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "\n".join([HEAD, *OLD]))
    nomarium("build", source, "-o", tmp_path / "out.ics")
    text = (tmp_path / "out.ics").read_bytes()
    (tmp_path / "edited.ics").write_bytes(text.replace(b"SUMMARY:Rigging", b"SEQUENCE:5\r\nSUMMARY:Rigging"))
    ran = nomarium(
        "recall", tmp_path / "out.ics", "-o", tmp_path / "back.ics", "--edited", tmp_path / "edited.ics"
    )
    assert ran.status == 0
    back = icalendar.Calendar.from_ical((tmp_path / "back.ics").read_bytes()).walk("VEVENT")
    assert {str(one["SUMMARY"]): int(one["SEQUENCE"]) for one in back} == {
        "Rigging": 6,
        "Lofting": 1,
        "Staff day": 1,
        "Knots": 1,
    }
