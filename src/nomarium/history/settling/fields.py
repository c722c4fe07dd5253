"""What of an event people can change in a calendar, field by field, told apart from the noise that calendar applications add."""

import datetime as dt
from _blake2 import blake2b
from collections.abc import Callable, Mapping
from itertools import islice
from typing import Final, Literal

from nomarium.history.differences import words
from nomarium.model.entry import Entry, as_utc
from nomarium.model.event import Details, Event, Person
from nomarium.model.recurrence import Recurrence
from nomarium.reckoning.rules import rule_text
from nomarium.reckoning.series import originals
from nomarium.reckoning.window import Window

Field = Literal[
    "when", "repeat", "summary", "location", "description", "categories", "organizer", "attendees", "url", "conference",
    "status", "privacy", "busy", "reminder", "color", "priority", "geo", "other",
]  # fmt: skip
FIELDS: Final[tuple[Field, ...]] = (
    "when", "repeat", "summary", "location", "description", "categories", "organizer", "attendees", "url", "conference",
    "status", "privacy", "busy", "reminder", "color", "priority", "geo", "other",
)  # fmt: skip
"""Start, end and all-day are one: `when`. School data (X-NOMARIUM-…) is nobody's to change in a calendar."""
_NOISE: Final = (
    "X-",
    "CREATED",
    "LAST-MODIFIED",
    "DTSTAMP",
    "REQUEST-STATUS",
    "RECURRENCE-ID",
    "ACKNOWLEDGED",
)
"""Lines that applications add, change and drop without anybody's doing."""
_DETAILS: Final = Event._fields.index("details")
_UID: Final = Details._fields.index("uid")
_MOST_STARTS: Final = 800
"""So many starts of two rules are compared."""


def value_of(field: Field, entry: Entry) -> str:
    """What an event says in a field, in one form for all ways to say it; blank where it says nothing."""
    return _VALUES[field](entry)


def is_plainly_same(one: Entry, other: Entry) -> bool:
    """Whether two events say the same to the letter, as nearly all do; False says nothing."""
    mine, theirs = one.event, other.event
    if mine[:_DETAILS] != theirs[:_DETAILS] or one.zone is not other.zone:
        return False
    here, there = mine.details, theirs.details
    if here is there:
        return True
    return (
        here.recurrence is None is there.recurrence
        and here[:_UID] == there[:_UID]
        and _lines(here.other) == _lines(there.other)
    )


def digest_of(text: str) -> str:
    """Ten hexadecimal digits for a value: enough to see that it is another one."""
    return blake2b(text.encode("utf-8", "replace"), digest_size=5).hexdigest()


def digest_of_all(entry: Entry) -> str:
    """The same of everything that an event says."""
    return digest_of("\0".join(value_of(field, entry) for field in FIELDS))


def is_edit(field: Field, ours: Entry, theirs: Entry) -> bool:
    """Whether what a calendar says is another thing than what it was given, and not only said in another way."""
    mine, other = value_of(field, ours), value_of(field, theirs)
    if mine == other:
        return False
    if field == "when":  # a floating time comes back in the zone of whoever looked at it
        return not (_floats(ours) != _floats(theirs) and _on_clock(ours.event) == _on_clock(theirs.event))
    if field == "repeat":
        return not _is_same_repeat(ours, theirs)
    if field == "reminder":  # applications put in alarms of their own, and leave out those of others
        return bool(mine and other)
    if field == "other":  # what an application does not know it drops
        return bool(set(other.split("\n")) - set(mine.split("\n")) - {""})
    return True


def with_field(event: Event, field: Field, theirs: Entry) -> Event:
    """An event with what a calendar says in a field."""
    other = theirs.event
    if field == "when":
        return _with_when(event, theirs)
    if field in ("summary", "location", "description"):
        return event._replace(**{field: getattr(other, field)})
    details = event.details
    if field == "other":
        noise = tuple(line for line in details.other if line not in _lines(details.other))
        return event._replace(details=details._replace(other=(*_lines(other.details.other), *noise)))
    if field == "repeat":
        return event._replace(details=details._replace(recurrence=other.details.recurrence))
    name = "reminder_secs" if field == "reminder" else field
    return event._replace(details=details._replace(**{name: getattr(other.details, name)}))


def with_replies(event: Event, theirs: Entry) -> Event:
    """An event whose guests have answered as the calendar says: an answer is no edit, and stays."""
    known = {_address(person): person for person in theirs.event.details.attendees}
    attendees = event.details.attendees
    if not known or not attendees:
        return event
    answered = tuple(
        person._replace(parameters=known[_address(person)].parameters)
        if _address(person) in known
        else person
        for person in attendees
    )
    return (
        event._replace(details=event.details._replace(attendees=answered)) if answered != attendees else event
    )


def _with_when(event: Event, theirs: Entry) -> Event:
    """An event at the times of a calendar, told in its own zone."""
    other = theirs.event
    start, end = other.start, other.end
    if not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime):
        return event._replace(start=start, end=end, zone=None)
    if theirs.zone is None:
        return event._replace(start=start, end=end)
    if not isinstance(event.start, dt.datetime):
        return event._replace(start=start, end=end, zone=other.zone)
    if event.zone is None:  # it floats: the zone is that of the application
        return event._replace(start=start, end=end)
    zone = zone_of(event)
    moved = [_local(as_utc(moment, theirs.zone), zone) for moment in (start, end)]
    return event._replace(start=moved[0], end=moved[1])


def zone_of(event: Event) -> dt.tzinfo | None:
    """The zone of an event's times; None where they float."""
    from nomarium.reckoning.zones import zone_named

    return None if event.zone is None else dt.UTC if event.zone == "UTC" else zone_named(event.zone)


def _local(utc: dt.date | dt.datetime, zone: dt.tzinfo | None) -> dt.date | dt.datetime:
    if not isinstance(utc, dt.datetime):
        return utc
    return utc.replace(tzinfo=dt.UTC).astimezone(zone).replace(tzinfo=None, fold=0)


def _floats(entry: Entry) -> bool:
    return entry.zone is None and isinstance(entry.event.start, dt.datetime)


def _on_clock(event: Event) -> tuple[dt.date | dt.datetime, dt.date | dt.datetime]:
    return event.start, event.end


def _when(entry: Entry) -> str:
    event = entry.event
    start, end = (as_utc(moment, entry.zone).isoformat() for moment in (event.start, event.end))
    return f"{start}/{end}{'Z' if entry.zone is not None and not event.is_all_day else ''}"


def _repeat(entry: Entry) -> str:
    recurrence = entry.event.details.recurrence
    if recurrence is None:
        return ""
    rules = [rule_text(rule) for rule in (*recurrence.rules, *recurrence.excluding)]
    also = [as_utc(day, entry.zone).isoformat() for day in recurrence.also_on]
    also += [
        "/".join(as_utc(day, entry.zone).isoformat() for day in period) for period in recurrence.also_until
    ]
    return "\n".join((*rules, *sorted(also)))


def _is_same_repeat(ours: Entry, theirs: Entry) -> bool:
    """Whether two rules say the same dates from the same start on, however they are spelled. EXDATEs are settled apart."""
    mine, other = ours.event.details.recurrence, theirs.event.details.recurrence
    if mine is None or other is None:
        return False
    begin = theirs.event

    def dates(recurrence: Recurrence) -> list[dt.date | dt.datetime]:
        plain = recurrence._replace(left_out=(), starts_itself=True)
        return list(islice(originals(begin, plain, Window()), _MOST_STARTS))

    return dates(mine) == dates(other)


def _address(person: Person) -> str:
    return (person.email or person.name).casefold()


def _attendees(entry: Entry) -> str:
    people = entry.event.details.attendees
    return "\n".join(sorted(f"{_address(person)}{'?' if person.optional else ''}" for person in people))


def _lines(other: tuple[str, ...]) -> tuple[str, ...]:
    """The lines that people may have put into an event: attachments, comments, contacts; nothing of alarms."""
    found, depth = [], 0
    for line in other:
        if line.startswith("BEGIN:"):
            depth += 1
        elif line.startswith("END:"):
            depth -= 1
        elif not depth and not line.upper().startswith(_NOISE):
            found.append(line)
    return tuple(found)


def _organizer(entry: Entry) -> str:
    person = entry.event.details.organizer
    return _address(person) if person else ""


def _geo(entry: Entry) -> str:
    geo = entry.event.details.geo
    return f"{geo[0]:.4f};{geo[1]:.4f}" if geo else ""


_VALUES: Final[Mapping[Field, Callable[[Entry], str]]] = {
    "when": _when,
    "repeat": _repeat,
    "summary": lambda one: words(one.event.summary),
    "location": lambda one: words(one.event.location),
    "description": lambda one: words(one.event.description),
    "categories": lambda one: "\n".join(sorted(one.event.details.categories)),
    "organizer": _organizer,
    "attendees": _attendees,
    "url": lambda one: one.event.details.url.strip(),
    "conference": lambda one: one.event.details.conference.strip(),
    # what RFC 5545 takes for said where nothing is said (3.8.1.3, 3.8.2.7, 3.8.1.9), and applications say
    "status": lambda one: one.event.details.status.replace("CONFIRMED", ""),
    "privacy": lambda one: one.event.details.privacy.replace("PUBLIC", ""),
    "busy": lambda one: "free" if one.event.details.busy is False else "",
    "priority": lambda one: str(one.event.details.priority or ""),
    "reminder": lambda one: "" if one.event.details.reminder_secs is None else str(one.event.details.reminder_secs),
    "color": lambda one: one.event.details.color.casefold(),
    "geo": _geo,
    "other": lambda one: "\n".join(sorted(_lines(one.event.details.other))),
}  # fmt: skip
