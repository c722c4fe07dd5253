"""The yardsticks: what the same file costs by other means. Run as `python -m benchmarks.peers NAME IN OUT`.

floor     the source's cells (csv.reader, python-calamine) and one f-string an event, without a single check:
          what pure Python cannot go below
pipeline  csv.DictReader, dateutil's parser and the icalendar library, as a script would put them together
cells     python-calamine reading the workbook's cells, and nothing else
"""

from __future__ import annotations

import csv
import datetime as dt
import sys
import uuid
from collections.abc import Iterator, Sequence
from hashlib import blake2b
from itertools import islice
from typing import Any
from zoneinfo import ZoneInfo

ZONE = "America/Halifax"


def floor(source: str, target: str) -> None:
    rows = _texts(source) if source.endswith(".csv") else _cells(source)
    with open(target, "w", newline="", encoding="utf-8") as out:
        out.write("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//floor//EN\r\n")
        for title, day, start, end, where, notes, kinds in rows:
            h = blake2b(f"{title}{day}".encode(), digest_size=16).hexdigest()
            description = notes.replace(",", "\\,").replace("\n", "\\n")
            out.write(
                f"BEGIN:VEVENT\r\nUID:{h[:8]}-{h[8:12]}-{h[12:16]}-{h[16:20]}-{h[20:]}\r\nDTSTAMP:20260901T000000Z\r\n"
                f"DTSTART;TZID={ZONE}:{day}T{start}\r\nDTEND;TZID={ZONE}:{day}T{end}\r\n"
                f"SUMMARY:{title}\r\nLOCATION:{where}\r\n"
                f"{f'DESCRIPTION:{description}' + chr(13) + chr(10) if notes else ''}CATEGORIES:{kinds}\r\nEND:VEVENT\r\n"
            )
        out.write("END:VCALENDAR\r\n")


def _texts(source: str) -> Iterator[Sequence[Any]]:
    with open(source, newline="", encoding="utf-8") as file:
        for title, date, start, end, *rest in islice(csv.reader(file), 1, None):
            yield title, date[6:] + date[3:5] + date[:2], _clock(start), _clock(end), *rest


def _clock(text: str) -> str:
    hour, _, rest = text.partition(":")
    return f"{int(hour) % 12 + 12 * (rest[3] == 'P'):02}{rest[:2]}00"


def _cells(source: str) -> Iterator[Sequence[Any]]:
    from python_calamine import load_workbook

    for title, day, start, end, *rest in islice(
        load_workbook(source).get_sheet_by_index(0).iter_rows(), 1, None
    ):
        yield title, str(day).replace("-", ""), str(start).replace(":", ""), str(end).replace(":", ""), *rest


def pipeline(source: str, target: str) -> None:
    from dateutil import parser
    from icalendar import Calendar, Event

    zone, now = ZoneInfo(ZONE), dt.datetime(2026, 9, 1, tzinfo=dt.UTC)
    calendar = Calendar()
    calendar.add("prodid", "-//pipeline//EN")
    calendar.add("version", "2.0")
    with open(source, newline="", encoding="utf-8") as file:
        for row in csv.DictReader(file):
            event = Event()
            event.add("uid", str(uuid.uuid4()))
            event.add("dtstamp", now)
            for name, cell in (("dtstart", "Start"), ("dtend", "End")):
                event.add(
                    name, parser.parse(f"{row['Date']} {row[cell]}", dayfirst=True).replace(tzinfo=zone)
                )
            event.add("summary", row["Title"])
            event.add("location", row["Location"])
            if row["Description"]:
                event.add("description", row["Description"])
            event.add("categories", row["Categories"].split(", "))
            calendar.add_component(event)
    with open(target, "wb") as out:
        out.write(calendar.to_ical())


def cells(source: str, _target: str) -> None:
    from python_calamine import load_workbook

    for _row in load_workbook(source).get_sheet_by_index(0).iter_rows():
        pass


if __name__ == "__main__":
    {"floor": floor, "pipeline": pipeline, "cells": cells}[sys.argv[1]](sys.argv[2], sys.argv[3])
