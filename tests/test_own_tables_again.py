"""The tables that a build writes are read as they stand: what is written out as a table and built again is the same calendar."""

import datetime as dt
import random
from pathlib import Path

import icalendar
import pytest

from helpers import csv_file, events_in, nomarium
from nomarium.model.eventcolumns import EVENT_COLUMNS, columns_as_written
from test_calendar_source import ics, vevent

TITLES = (
    "4.1|Mon|7pm|2026|no|Total|Week 3|AM|P1|TBC|12 May|May|Sat 12|Closed|Date|Title|1/2|Q&A|#1|Note: bring oars|A / B|Knots (Loft 1)|"
    "Knots @ Loft|10-12|9:00|9.30 Talk|Updated 3 March 2026|Page 1 of 2|Birthday: Otto|Ends|All day|Yes|U11|7A|Key|OFF|Lunch|weekly|"
    "Week A|Day 1|Night|1h30|90 min|Dec 11 & 12|=1+1|#N/A"
).split("|")
PLACES = ("", "4.1", "12", "9:00", "Mon", "TBC", "H", "1/2", "2026", "May", "yes", "B-12")
WORDS = ("", "4.1", "Mon", "2026", "yes", "12", "May", "12 May 2026", "9:00", "x")


def _content(path: Path) -> list[tuple[str, ...]]:
    found = []
    for event in events_in(path):
        categories = event.get("CATEGORIES")
        named = (
            [str(one) for one in categories.cats] if isinstance(categories, icalendar.prop.vCategory) else []
        )
        texts = [str(event.get(name) or "") for name in ("SUMMARY", "LOCATION", "DESCRIPTION", "UID")]
        found.append((*texts, str(event.decoded("DTSTART")), str(event.decoded("DTEND")), *named))
    return sorted(found)


@pytest.mark.parametrize("seed", range(12))
@pytest.mark.parametrize("ending", ["csv", "xlsx"])
def test_what_is_written_as_a_table_is_read_as_it_stands(seed: int, ending: str, tmp_path: Path) -> None:
    draw = random.Random(seed)
    events = []
    for number in range(draw.choice([1, 3, 8])):
        day = dt.date(2026, 9, 1) + dt.timedelta(draw.randrange(200))
        begins = dt.datetime.combine(day, dt.time(draw.randrange(24), draw.choice([0, 15, 45])))
        ends = begins + dt.timedelta(minutes=draw.choice([15, 60, 300]))
        timed = f"DTSTART:{begins:%Y%m%dT%H%M%S}|DTEND:{ends:%Y%m%dT%H%M%S}"
        last = day + dt.timedelta(draw.choice([1, 5]))
        when = draw.choice([timed, f"DTSTART;VALUE=DATE:{day:%Y%m%d}|DTEND;VALUE=DATE:{last:%Y%m%d}"])
        said = {
            "LOCATION": draw.choice(PLACES),
            "DESCRIPTION": draw.choice(WORDS),
            "CATEGORIES": draw.choice(WORDS),
        }
        more = "".join(f"|{name}:{text}" for name, text in said.items() if text)
        events.append(vevent(f"UID:{number}@saltmarsh.example|SUMMARY:{draw.choice(TITLES)}|{when}{more}"))
    source, table, again = ics(tmp_path, "|".join(events)), tmp_path / f"t.{ending}", tmp_path / "again.ics"
    assert nomarium("build", source, "-o", tmp_path / "o.ics").status == 0
    assert nomarium("build", source, "-o", table).status == 0
    told = nomarium("build", table, "-o", again)
    assert told.status == 0, told.text
    assert _content(again) == _content(tmp_path / "o.ics")


def test_only_the_tables_of_a_build_are_read_as_they_stand(tmp_path: Path) -> None:
    headings = ("Title", "Date", "Start", "End", "Location", "UID")
    assert columns_as_written(headings) == {one: EVENT_COLUMNS[one] for one in headings}
    assert columns_as_written(headings[:-1]) == {}
    assert columns_as_written((*headings, "Cox")) == {}
    assert columns_as_written(("Date", "Title", "Start", "End", "UID")) == {}
    of_a_person = csv_file(tmp_path, "Title,Date,Start,End\nKnots,2026-09-07,3:45,4:45")
    assert nomarium("build", of_a_person, "-o", tmp_path / "p.ics").status == 0
    assert str(events_in(tmp_path / "p.ics")[0].decoded("DTSTART").time()) == "15:45:00"
