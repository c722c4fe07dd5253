"""free: when everybody can meet."""

from __future__ import annotations

import csv
import json
from pathlib import Path
from typing import Any

import icalendar
import pytest
from hypothesis import given
from hypothesis import strategies as st

from helpers import csv_file, nomarium
from nomarium.reckoning.intervals import gaps, is_free, joined

LIST = """
    Event,Date,Start,End,Teacher,Room,Attendees,Status
    Rigging,2026-11-09,9:00,10:00,R. Finch,Loft,,
    Knots,2026-11-09,10:30,12:00,M. Quill,Slip 1,,
    Paint,2026-11-09,13:00,15:00,R. Finch; O. Tern,Shed,,
    Called off,2026-11-09,12:00,13:00,R. Finch,Shed,,cancelled
    Visit,2026-11-10,9:00,11:00,,Slip 1,b.plover@s.example,
    Leave,2026-11-11,,,M. Quill,,,
    Storm day,2026-11-12,,,,,,
    Rigging,2026-11-13,9:00,10:00,R. Finch,Loft,,
"""


def look(source: object, *more: object) -> dict[str, Any]:
    ran = nomarium("free", source, "--json", *more)
    assert ran.status == 0, ran.text
    return json.loads(ran.out)


def slots(found: dict[str, Any]) -> list[str]:
    return [f"{one['start'][5:16].replace('T', ' ')}-{one['end'][11:16]}" for one in found["slots"]]


CASES: dict[str, tuple[tuple[str, ...], list[str]]] = {
    "everybody": (
        ("--length", "1h"),
        ["11-09 12:00-13:00", "11-10 11:00-15:00", "11-12 09:00-15:00", "11-13 10:00-15:00"],
    ),
    "a teacher, also beside another one": (
        ("--length", "1h", "--who", "r finch", "--until", "2026-11-10"), ["11-09 10:00-13:00", "11-10 09:00-15:00"],
    ),
    "two": (("--length", "1h", "--who", "R. Finch", "--who", "M. Quill", "--until", "2026-11-09"), ["11-09 12:00-13:00"]),
    "a whole day of leave": (("--length", "1h", "--who", "M. Quill", "--from", "2026-11-11", "--until", "2026-11-12", "--between", "9-15"), ["11-12 09:00-15:00"]),
    "a room": (("--length", "1h", "--who", "slip 1", "--until", "2026-11-10"), ["11-09 09:00-10:30", "11-09 12:00-15:00", "11-10 11:00-15:00"]),
    "a guest": (("--length", "1h", "--who", "b.plover@s.example", "--until", "2026-11-10"), ["11-09 09:00-15:00", "11-10 11:00-15:00"]),
    "other hours": (("--length", "1h", "--between", "8:00-16:00", "--until", "2026-11-09"), ["11-09 08:00-09:00", "11-09 12:00-13:00", "11-09 15:00-16:00"]),
    "some days": (("--length", "4h", "--days", "Tue,Fri"), ["11-10 11:00-15:00", "11-13 10:00-15:00"]),
    "a gap must be as long": (("--length", "61m", "--until", "2026-11-09"), []),
}  # fmt: skip


@pytest.mark.parametrize("case", CASES)
def test_free_times_by_date(tmp_path: Path, case: str) -> None:
    options, wanted = CASES[case]
    source = csv_file(tmp_path, LIST)
    found = slots(look(source, *options))
    assert [one for one in found if not one.startswith("11-11")] == wanted
    if case == "everybody":
        assert not [one for one in found if one.startswith("11-11")], "who is on leave is not free"


def test_zones_floating_times_and_a_clock_change(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Event,Date,Start,End,Time zone\nA,2026-11-09,09:00,10:00,America/Halifax\nB,2026-11-09,16:00,17:00,UTC\nC,2026-11-09,10:00,11:00,America/Halifax",
    )
    other = csv_file(tmp_path, "Event,Date,Start,End\nD,2026-11-09,14:00,15:00", "floating.csv")
    found = nomarium("free", source, other, "--json", "--length", "30m")
    facts = json.loads(found.out)
    assert (
        slots(facts) == ["11-09 11:00-12:00", "11-09 13:00-14:00"] and facts["timezone"] == "America/Halifax"
    )
    night = csv_file(
        tmp_path, "Event,Date,Start,End\nA,2027-03-14,00:00,01:00\nB,2027-03-14,04:00,05:00", "night.csv"
    )
    zone = ("--timezone", "America/Halifax")
    assert slots(look(night, "--length", "2h", *zone)) == ["03-14 01:00-04:00"], (
        "two hours that pass, of three on the clock"
    )
    assert slots(look(night, "--length", "2h 1m", *zone)) == []


def test_by_label_and_period_of_a_plan_and_of_its_calendar(tmp_path: Path) -> None:
    year = tmp_path / "year"
    year.mkdir()
    csv_file(year, "Name,First day,Last day\nAutumn,2026-09-07,2026-09-18", "terms.csv")
    csv_file(year, "Label\nKeel\nRib", "cycle.csv")
    csv_file(year, "Period,Start,End\n1,9:00,9:50\n2,10:00,10:50\n3,11:00,11:20", "bells.csv")
    csv_file(
        year,
        "Class,Label,Period,Teacher,Room\nRigging,Keel,1,R. Finch,Loft\nKnots,Rib,2,M. Quill,Loft\nPaint,Rib,3,R. Finch,Shed\nTar,Keel,3,O. Tern,Shed",
        "timetable.csv",
    )
    csv_file(year, "Event,Date,Start,End,Teacher\nMeeting,2026-09-08,9:00,9:30,R. Finch", "events.csv")
    two = ("--length", "45m", "--who", "R. Finch", "--who", "M. Quill")
    found = look(year, *two)
    assert [(one["label"], one["period"], one["free"], one["of"]) for one in found["regular"]] == [
        ("Keel", "2", 5, 5), ("Rib", "1", 4, 5), ("Keel", "1", 0, 5), ("Rib", "2", 0, 5),
    ]  # fmt: skip
    text = nomarium("free", year, *two).out
    assert "Keel days, period 2 (10:00–10:50): free on 5 of 5" in text
    assert "Mon 7 Sep 2026 · Keel: 9:50–11:20" in text
    every = look(year, *two, "--every-label")["regular"]
    assert [(one["label"], one["period"], one["free"], one["of"]) for one in every] == [
        ("", "2", 5, 10),
        ("", "1", 4, 10),
    ]
    assert nomarium("build", year, "-o", tmp_path / "year.ics").status == 0
    built = look(tmp_path / "year.ics", *two)
    assert ("Keel", "1", 0, 5) in [
        (one["label"], one["period"], one["free"], one["of"]) for one in built["regular"]
    ]
    assert [one["start"] for one in built["slots"]] == [one["start"] for one in found["slots"]]


def test_files_and_pictures_of_free_times(tmp_path: Path) -> None:
    source = csv_file(tmp_path, LIST)
    asked = ("free", source, "--length", "1h", "--timezone", "America/Halifax", "--until", "2026-11-10")
    for ending in ("ics", "csv", "png", "pdf", "svg"):
        ran = nomarium(*asked, "-o", tmp_path / f"free.{ending}")
        assert ran.status == 0 and (tmp_path / f"free.{ending}").stat().st_size > 100, ran.text
    text = (tmp_path / "free.ics").read_text()
    busy = icalendar.Calendar.from_ical(text).walk("VFREEBUSY")
    assert len(busy) == 1 and "Rigging" not in text and "R. Finch" not in text
    assert "FREEBUSY;FBTYPE=FREE:20261109T160000Z/20261109T170000Z" in text
    assert "FREEBUSY;FBTYPE=BUSY:20261109T130000Z/20261109T140000Z" in text
    with (tmp_path / "free.csv").open() as file:
        rows = list(csv.DictReader(file))
    assert rows[0] == {
        "Date": "2026-11-09",
        "Day": "Monday",
        "Label": "",
        "Start": "12:00",
        "End": "13:00",
        "Minutes": "60",
    }


@pytest.mark.parametrize(
    ("more", "said"),
    [
        (("--length", "1h", "--who", "R. Finsh"), "Did you mean R. Finch?"),
        (("--length", "soon"), "--length"),
        (("--length", "1h", "--between", "16:00-8:00"), "is not from one time of the day to a later one"),
        (("--length", "1h", "--days", "never"), "names no weekdays"),
        (("--length", "1h", "-o", "free.txt"), "does not say by its ending"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused(tmp_path: Path, more: tuple[str, ...], said: str) -> None:
    ran = nomarium("free", csv_file(tmp_path, LIST), *more)
    assert ran.status == 2 and said in ran.text


SPANS = st.lists(
    st.tuples(st.integers(0, 60), st.integers(0, 20)).map(lambda pair: (pair[0], pair[0] + pair[1]))
)


@given(SPANS, st.integers(0, 40), st.integers(1, 40), st.integers(1, 9))
def test_gaps_are_what_is_left_of_the_minutes(
    spans: list[tuple[int, int]], start: int, more: int, length: int
) -> None:
    taken = {n for a, b in spans for n in range(a, b)}
    end = start + more
    busy = joined(span for span in spans if span[0] < span[1])
    found = list(gaps(busy, start, end, length))
    free, run = list[tuple[int, int]](), start
    for n in range(start, end + 1):
        if n == end or n in taken:
            if n - run >= length:
                free.append((run, n))
            run = n + 1
    assert found == free
    assert is_free(busy, start, end) == (not taken & set(range(start, end)))
