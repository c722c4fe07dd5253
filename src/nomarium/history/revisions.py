"""What an earlier build wrote, so that building again updates the same events.

An event that is found unchanged keeps its DTSTAMP and SEQUENCE; one that changed gets the next
SEQUENCE (RFC 5545, 3.8.7.4); one that is gone may stay as cancelled.
"""

import datetime as dt
import re
from pathlib import Path
from typing import NamedTuple

from nomarium.ical.blocks import blocks_of
from nomarium.ical.kept import whole
from nomarium.ical.lines import event_head
from nomarium.ical.octets import folded, unescaped, unfolded
from nomarium.model.event import Event
from nomarium.reckoning.values import moment_of
from nomarium.reckoning.window import Window

_STAMP = r"\d{8}T\d{6}Z"
_HEAD_NAMES = ("BEGIN:VEVENT", "UID:", "DTSTAMP:", "SEQUENCE:", "X-NOMARIUM-BASE:")


class EarlierEvent(NamedTuple):
    """What must be known of an event of an earlier build."""

    sequence: int
    dtstamp: str
    body: int
    """Hash of its lines after DTSTAMP and SEQUENCE; good within this process only."""


class Revision(NamedTuple):
    """How an event of this build is written: whose UID, which SEQUENCE, which DTSTAMP."""

    uid: str
    sequence: int
    dtstamp: str


class Sketch(NamedTuple):
    """What of an event serves to recognise it when its UID does not."""

    uid: str
    """Of a replaced date its `key_of`."""
    summary: str
    start: str
    """As DTSTART writes it, without its parameters and without Z."""
    end: str
    """DTEND or DURATION, in the same way."""
    location: str
    body: int = 0
    """Hash of its lines after DTSTAMP and SEQUENCE, as in `EarlierEvent`."""

    def touches(self, window: Window) -> bool:
        """Whether it is, at least in part, in a window of dates; yes where its dates cannot be told."""
        try:
            first, last = (dt.date.fromisoformat(text[:8]) for text in (self.start, self.end))
        except ValueError:
            return True
        if last > first and self.end[8:] in ("", "T000000"):  # exclusive
            last -= dt.timedelta(days=1)
        return not (window.first and last < window.first) and not (window.last and first > window.last)

    @property
    def when(self) -> tuple[str, str]:
        """Its start and end, by the clock."""
        return self.start, self.end


def read_earlier(path: Path) -> dict[str, EarlierEvent]:
    """The events of an earlier build by UID. A file that is no calendar gives none."""
    found = {}
    for block in blocks_of(path):
        head, body = _split(block)
        stamp = head.get("DTSTAMP", "")
        found[key_of(unescaped(head.get("UID", "")), _replaced_in(block))] = EarlierEvent(
            whole(head.get("SEQUENCE", "")), stamp if re.fullmatch(_STAMP, stamp) else "", hash(body)
        )
    found.pop("", None)
    return found


def key_of(uid: str, original: str) -> str:
    """What a VEVENT is known by: its UID, and of a replaced date the value of its RECURRENCE-ID (RFC 5545, 3.8.4.4)."""
    return f"{uid}\0{original}" if original else uid


def _replaced_in(block: str) -> str:
    if "\r\nRECURRENCE-ID" not in block:
        return ""
    found = re.search(r"^RECURRENCE-ID[^:]*:(.*?)\r?$", block, re.MULTILINE)
    return found[1] if found else ""


def _split(block: str) -> tuple[dict[str, str], str]:
    """A block's head properties by name, and the rest of its text."""
    at, head = 0, {}
    while block.startswith(_HEAD_NAMES, at) or block[at : at + 1] in (" ", "\t"):
        end = block.index("\r\n", at) + 2
        while block[end : end + 1] in (" ", "\t"):  # folded
            end = block.index("\r\n", end) + 2
        name, _, value = block[at:end].replace("\r\n ", "").rstrip("\r\n").partition(":")
        head[name] = value
        at = end
    return head, block[at:]


def body_of_block(block: str) -> str:
    """A VEVENT's text without its head properties."""
    return _split(block)[1]


def revision_of(uid: str, body: str, earlier: EarlierEvent | None, dtstamp: str, sequence: int) -> Revision:
    """How to write an event whose UID an earlier build has, or had not (None); `sequence` is the one that
    its source gives it."""
    if earlier is None:
        return Revision(uid, sequence, dtstamp)
    if earlier.body == hash(body):
        return Revision(uid, max(earlier.sequence, sequence), earlier.dtstamp or dtstamp)
    return Revision(uid, max(earlier.sequence + 1, sequence), dtstamp)


def sketch_of(event: Event, uid: str, body: str) -> Sketch:
    """What serves to recognise an event of this build."""
    start, end = (moment.isoformat().replace("-", "").replace(":", "") for moment in (event.start, event.end))
    return Sketch(uid, event.summary, start, end, event.location, hash(body))


def sketch_of_block(block: str) -> Sketch:
    """The same of a VEVENT's text."""
    values: dict[str, str] = {}
    for line in unfolded(block):
        head, _, value = line.partition(":")
        values.setdefault(head.partition(";")[0], unescaped(value))
    uid, summary, start, location = (
        values.get(name, "") for name in ("UID", "SUMMARY", "DTSTART", "LOCATION")
    )
    end = values.get("DTEND") or values.get("DURATION") or start
    key = key_of(uid, values.get("RECURRENCE-ID", ""))
    return Sketch(key, summary, start.rstrip("Z"), end.rstrip("Z"), location, hash(_split(block)[1]))


def zone_of_block(block: str) -> str | None:
    """The zone of a VEVENT's start, or None when it floats, is in UTC or all-day."""
    found = re.search(r"^DTSTART;(?:[^:]*;)?TZID=\"?([^:;\"]+)", block, re.MULTILINE)
    return found[1] if found else None


def day_of_block(block: str) -> dt.date | None:
    """The date of a VEVENT's start, or None when it has none that is a date."""
    found = re.search(r"^DTSTART[^:]*:(.*?)\r?$", block, re.MULTILINE)
    try:
        read = moment_of(found[1]) if found else None
    except (ValueError, OverflowError):
        return None
    if read is None:
        return None
    return read[0].date() if isinstance(read[0], dt.datetime) else read[0]


def cancelled(block: str, dtstamp: str) -> str:
    """An earlier event's text, withdrawn: STATUS:CANCELLED and the next SEQUENCE, unless it is already."""
    head, body = _split(block)
    if "STATUS:CANCELLED\r\n" in body:
        return block
    lines = [line for line in unfolded(body) if not line.startswith("STATUS:")]
    before_alarm = next((n for n, line in enumerate(lines) if line == "BEGIN:VALARM"), len(lines) - 1)
    lines.insert(before_alarm, "STATUS:CANCELLED")
    opening = event_head(unescaped(head.get("UID", "")), dtstamp, whole(head.get("SEQUENCE", "")) + 1)
    return opening + "".join(map(folded, lines))


def with_revision(block: str, revision: Revision) -> str:
    """A block of this build with another head."""
    return event_head(revision.uid, revision.dtstamp, revision.sequence) + _split(block)[1]
