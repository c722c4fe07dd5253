"""Free times as files: VFREEBUSY (RFC 5545, 3.6.4), which says when and not what, and a table."""

import csv
import datetime as dt
import io
from collections.abc import Iterable, Sequence
from pathlib import Path

from nomarium._version import VERSION
from nomarium.ical.octets import folded
from nomarium.model.uids import lasting_uid
from nomarium.model.wording import WEEKDAYS
from nomarium.targets.replacing import replace_file

HEADINGS = ("Date", "Day", "Label", "Start", "End", "Minutes")
Pair = tuple[dt.datetime, dt.datetime]
"""Start and end."""


def write_freebusy(free: Sequence[Pair], busy: Sequence[Pair], path: Path, dtstamp: str) -> None:
    """Write when all are free and when somebody has something, in UTC and without titles."""
    moments = [moment for pair in (*free, *busy) for moment in pair]
    lines = [
        "BEGIN:VCALENDAR",
        "VERSION:2.0",
        f"PRODID:-//Nomarium//Nomarium {VERSION}//EN",
        "BEGIN:VFREEBUSY",
    ]
    lines += [f"UID:{lasting_uid('free', *map(_utc, moments))}", f"DTSTAMP:{dtstamp}"]
    if moments:
        lines += [f"DTSTART:{_utc(min(moments))}", f"DTEND:{_utc(max(moments))}"]
    lines += [f"FREEBUSY;FBTYPE=FREE:{_utc(start)}/{_utc(end)}" for start, end in free]
    lines += [f"FREEBUSY;FBTYPE=BUSY:{_utc(start)}/{_utc(end)}" for start, end in busy]
    lines += ["END:VFREEBUSY", "END:VCALENDAR"]
    replace_file(path, lambda file: file.write("".join(map(folded, lines)).encode()))


def write_free_table(slots: Iterable[tuple[dt.datetime, dt.datetime, str]], path: Path) -> None:
    """Write free times, one a row: start, end and label of the date."""
    text = io.StringIO()
    rows = csv.writer(text)
    rows.writerow(HEADINGS)
    for start, end, label in slots:
        minutes, day = round((end - start).total_seconds() / 60), start.date()
        rows.writerow([day, WEEKDAYS[day.weekday()], label, f"{start:%H:%M}", f"{end:%H:%M}", minutes])
    replace_file(path, lambda file: file.write(text.getvalue().encode()))


def _utc(moment: dt.datetime) -> str:
    return f"{moment:%Y%m%dT%H%M%S}Z"
