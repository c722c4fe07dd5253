"""What an earlier build wrote, so that building again updates the same events.

An event that is found unchanged keeps its DTSTAMP and SEQUENCE; one that changed gets the next
SEQUENCE (RFC 5545, 3.8.7.4); one that moved or was renamed keeps its UID too.
"""

import datetime as dt
import re
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path
from typing import NamedTuple

from nomarium.ical.blocks import blocks_of
from nomarium.ical.lines import head_of
from nomarium.ical.octets import folded, unescaped, unfolded
from nomarium.model.event import Event

_HEAD_NAMES = ("BEGIN:VEVENT", "UID:", "DTSTAMP:", "SEQUENCE:")


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
    summary: str
    start: str
    """As DTSTART writes it, without its parameters."""
    location: str
    body: int = 0
    """Hash of its lines after DTSTAMP and SEQUENCE, as in `EarlierEvent`."""


def read_earlier(path: Path) -> dict[str, EarlierEvent]:
    """The events of an earlier build by UID. A file that is no calendar gives none."""
    found = {}
    for block in blocks_of(path):
        head, body = _split(block)
        sequence = head.get("SEQUENCE", "0")
        found[unescaped(head.get("UID", ""))] = EarlierEvent(
            int(sequence) if sequence.isdigit() else 0, head.get("DTSTAMP", ""), hash(body)
        )
    found.pop("", None)
    return found


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


def revision_of(
    uid: str, body: str, earlier: EarlierEvent | None, dtstamp: str, sequence: int = 0
) -> Revision:
    """How to write an event whose UID an earlier build has, or had not (None); `sequence` is the one that
    its source gives it."""
    if earlier is None:
        return Revision(uid, sequence, dtstamp)
    if earlier.body == hash(body):
        return Revision(uid, max(earlier.sequence, sequence), earlier.dtstamp or dtstamp)
    return Revision(uid, max(earlier.sequence + 1, sequence), dtstamp)


def sketch_of(event: Event, uid: str, body: str) -> Sketch:
    """What serves to recognise an event of this build."""
    start = event.start.isoformat().replace("-", "").replace(":", "")
    return Sketch(uid, event.summary, start, event.location, hash(body))


def sketch_of_block(block: str) -> Sketch:
    """The same of a VEVENT's text."""
    values: dict[str, str] = {}
    for line in unfolded(block):
        head, _, value = line.partition(":")
        values.setdefault(head.partition(";")[0], unescaped(value))
    wanted = (values.get(name, "") for name in ("UID", "SUMMARY", "DTSTART", "LOCATION"))
    uid, summary, start, location = wanted
    return Sketch(uid, summary, start.rstrip("Z"), location, hash(_split(block)[1]))


def zone_of_block(block: str) -> str | None:
    """The zone of a VEVENT's start, or None when it floats, is in UTC or all-day."""
    found = re.search(r"^DTSTART;(?:[^:]*;)?TZID=\"?([^:;\"]+)", block, re.MULTILINE)
    return found[1] if found else None


def day_of_block(block: str) -> dt.date | None:
    """The date of a VEVENT's start, or None when it has none that is a date."""
    found = re.search(r"^DTSTART[^:]*:(\d{4})(\d\d)(\d\d)", block, re.MULTILINE)
    try:
        return dt.date(int(found[1]), int(found[2]), int(found[3])) if found else None
    except ValueError:
        return None


def pair_moved(gone: Iterable[Sketch], new: Iterable[Sketch]) -> dict[str, str]:
    """New UID → the UID of the earlier event that it is, where one event clearly became another.

    First by everything: an event that an earlier build had under a UID carried over from before.
    Then by title: events of one title are paired in the order of their dates, when as many are
    new as are gone, else each new one with the nearest that is gone. Then by time and place: one
    gone and one new at the same start in the same location are one event renamed.
    """
    gone, new = list(gone), list(new)
    pairs: dict[str, str] = {}
    for old_group, new_group in _groups(gone, new, lambda one: (str(one.body),)):
        pairs.update((b.uid, a.uid) for a, b in zip(old_group, new_group, strict=False))
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (one.summary,)):
        pairs.update(_paired_by_date(old_group, new_group))
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (one.start, one.location)):
        if len(old_group) == len(new_group) == 1 and "T" in old_group[0].start:
            pairs[new_group[0].uid] = old_group[0].uid
    return pairs


def _unpaired(
    gone: list[Sketch], new: list[Sketch], pairs: dict[str, str]
) -> tuple[list[Sketch], list[Sketch]]:
    taken = set(pairs.values())
    return [one for one in gone if one.uid not in taken], [one for one in new if one.uid not in pairs]


def _groups(
    gone: Iterable[Sketch], new: Iterable[Sketch], key: Callable[[Sketch], tuple[str, ...]]
) -> list[tuple[list[Sketch], list[Sketch]]]:
    old_groups = defaultdict[tuple[str, ...], list[Sketch]](list)
    new_groups = defaultdict[tuple[str, ...], list[Sketch]](list)
    for one in gone:
        old_groups[key(one)].append(one)
    for one in new:
        new_groups[key(one)].append(one)
    return [(old_groups[k], group) for k, group in new_groups.items() if k in old_groups]


def _paired_by_date(gone: list[Sketch], new: list[Sketch]) -> Iterator[tuple[str, str]]:
    gone, new = sorted(gone, key=lambda one: one.start), sorted(new, key=lambda one: one.start)
    if len(gone) == len(new):
        yield from ((b.uid, a.uid) for a, b in zip(gone, new, strict=True))
        return
    days = [_day_number(one.start) for one in gone]
    for one in new:
        if not gone:
            return
        day = _day_number(one.start)
        at = bisect_left(days, day)
        if at == len(days) or (at and day - days[at - 1] <= days[at] - day):
            at -= 1  # the one before is nearer
        yield one.uid, gone.pop(at).uid
        days.pop(at)


def _day_number(start: str) -> int:
    try:
        return dt.date.fromisoformat(start[:8]).toordinal()
    except ValueError:
        return 0


def cancelled(block: str, dtstamp: str) -> str:
    """An earlier event's text, withdrawn: STATUS:CANCELLED and the next SEQUENCE, unless it is already."""
    head, body = _split(block)
    if "STATUS:CANCELLED\r\n" in body:
        return block
    lines = [line for line in unfolded(body) if not line.startswith("STATUS:")]
    before_alarm = next((n for n, line in enumerate(lines) if line == "BEGIN:VALARM"), len(lines) - 1)
    lines.insert(before_alarm, "STATUS:CANCELLED")
    sequence = head.get("SEQUENCE", "0")
    opening = head_of(unescaped(head.get("UID", "")), dtstamp, int(sequence) + 1 if sequence.isdigit() else 1)
    return opening + "".join(map(folded, lines))


def with_revision(block: str, revision: Revision) -> str:
    """A block of this build with another head."""
    return head_of(revision.uid, revision.dtstamp, revision.sequence) + _split(block)[1]
