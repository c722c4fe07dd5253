"""Settled events as the resources of a calendar server: one for each UID with all its replaced dates (RFC 4791, 4.1)."""

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.history.revisions import body_of_block
from nomarium.history.settling.marks import NO_MARKS, marks_text
from nomarium.history.settling.settle import Settled
from nomarium.history.settling.units import as_written
from nomarium.ical.blocks import blocks_in_text
from nomarium.ical.lines import body_writer, event_head, with_original
from nomarium.ical.octets import escaped, folded, unescaped, unfolded
from nomarium.model.event import Event, Person
from nomarium.model.uids import lasting_uid
from nomarium.targets.calendarfile import CalendarHead, head_text

_PART: Final = "X-NOMARIUM-PART"
_PLAIN_NAME: Final = re.compile(r"[A-Za-z0-9][A-Za-z0-9@._-]{0,120}")


class Resource(NamedTuple):
    """One UID as it is to be put."""

    uid: str
    text: str
    """The whole calendar object that is sent."""
    blocks: str
    """Its events as they are kept in the record, with what is known of their source."""
    body: str
    """What it says, without its revision: the same again need not be sent."""


def resources(settled: Iterable[Settled], part: str, dtstamp: str, invites: bool) -> dict[str, Resource]:
    """The resources of settled events, by UID. `part` is the set of sources that they are of; guests are written to by the
    server only where it `invites` (RFC 6638, 7.1)."""
    grouped: dict[str, list[Settled]] = {}
    for one in settled:
        grouped.setdefault(one.uid, []).append(one)
    body_of = body_writer()
    return {uid: _resource(uid, group, part, dtstamp, invites, body_of) for uid, group in grouped.items()}


def _resource(
    uid: str,
    group: Sequence[Settled],
    part: str,
    dtstamp: str,
    invites: bool,
    body_of: Callable[[Event], str],
) -> Resource:
    sent, kept, bodies = [], [], []
    mark = folded(f"{_PART}:{escaped(part)}")
    zones, first, last, floats = set[str](), None, None, False
    for one in group:
        event = as_written(one.event)
        event = _with_guests(event, invites)
        written = with_original(event, one.original) if one.original is not None else event
        body = body_of(written)
        head = event_head(uid, event.details.dtstamp or dtstamp, one.sequence)
        text = marks_text(
            one.marks._replace(is_unseen=False, is_back=False) if one.marks is not NO_MARKS else one.marks
        )
        sent.append(f"{head}{mark}{body}")
        kept.append(f"{head}{folded(f'X-NOMARIUM-BASE:{text}') if text else ''}{body}")
        bodies.append(body)
        if event.zone:
            zones.add(event.zone)
        floats |= event.zone is None and not event.is_all_day
        first = min(first or event.first_day, event.first_day)
        last = max(last or event.last_day, event.last_day, one.last_start or event.last_day)
    assert first is not None and last is not None
    frame = head_text(CalendarHead(""), zones, first, last, floats)
    return Resource(uid, f"{frame}{''.join(sent)}END:VCALENDAR\r\n", "".join(kept), "".join(bodies))


def _with_guests(event: Event, invites: bool) -> Event:
    """An event about which the server writes to its guests, or to nobody."""
    details = event.details
    if not details.attendees and details.organizer is None:
        return event

    def told(person: Person) -> Person:
        rest = re.sub(r"(?i);SCHEDULE-(?:AGENT|STATUS|FORCE-SEND)=[^;]*", "", person.parameters)
        return person._replace(parameters=rest if invites else f"{rest};SCHEDULE-AGENT=NONE")

    organizer = told(details.organizer) if details.organizer else None
    attendees = tuple(map(told, details.attendees))
    return event._replace(details=details._replace(organizer=organizer, attendees=attendees))


def name_for(uid: str) -> str:
    """What the resource of a UID is called.

    >>> name_for("42@saltmarsh.example"), name_for("a b/c") == name_for("a b/c")
    ('42@saltmarsh.example.ics', True)
    """
    return f"{uid if _PLAIN_NAME.fullmatch(uid) else lasting_uid('resource', uid)}.ics"


def part_of(text: str) -> str | None:
    """The set of sources that a resource says it is of; None where it says nothing."""
    if _PART not in text.upper():
        return None
    for line in unfolded(text.replace("\r\n", "\n").replace("\n", "\r\n")):
        name, _, value = line.partition(":")
        if name.partition(";")[0].upper() == _PART:
            return unescaped(value).strip()
    return None


def blocks_by_uid(text: str) -> dict[str, str]:
    """The events of a kept calendar as they stand, by UID."""
    found: dict[str, str] = {}
    for block in blocks_in_text(text):
        uid = next((unescaped(line[4:]).strip() for line in unfolded(block) if line.startswith("UID:")), "")
        found[uid] = found.get(uid, "") + block
    return found


def body_of_blocks(blocks: str) -> str:
    """What events say, without their revisions."""
    return "".join(map(body_of_block, blocks_in_text(blocks)))


def calendar_text(blocks: Mapping[str, str], gone: Iterable[str]) -> str:
    """A calendar as it is kept in the record."""
    lines = "".join(folded(f"X-NOMARIUM-GONE:{escaped(text)}") for text in gone)
    return f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{lines}{''.join(blocks.values())}END:VCALENDAR\r\n"
