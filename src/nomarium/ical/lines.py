"""Events to VEVENT text: what each field becomes, in a fixed order (RFC 5545, 3.6.1; RFC 7986)."""

import datetime as dt
from collections.abc import Callable
from typing import TypeVar

from nomarium.ical.octets import MAX_OCTETS, bare, escaped, folded, parameter
from nomarium.model.event import NO_DETAILS, Details, Event, Person

_UID_AT = Details._fields.index("uid")
MEMO_SIZE = 20_000
"""How many finished lines of one property are kept; when full, a memo starts again."""
SHARED_SIZE = 1_000
"""The same of details as a whole; events of a calendar file share none, and are looked up in vain."""


_Key = TypeVar("_Key")
_Made = TypeVar("_Made")


class Memo(dict[_Key, _Made]):
    """What is made once for each distinct key, texts mostly."""

    def __init__(self, make: Callable[[_Key], _Made]) -> None:
        super().__init__()
        self._make = make

    def __missing__(self, key: _Key) -> _Made:
        if len(self) >= MEMO_SIZE:
            self.clear()
        made = self[key] = self._make(key)
        return made


def _clock(time: dt.time) -> str:
    """A time of day as RFC 5545, 3.3.12 writes it."""
    return time.isoformat("seconds").replace(":", "")


def _day(ordinal: int) -> str:
    """A date as RFC 5545, 3.3.4 writes it, from its number: a year has fewer dates than date-times."""
    return dt.date.fromordinal(ordinal).isoformat().replace("-", "")


class TimeLines:
    """Finished lines of DTSTART or DTEND in one zone (None: floating), put together from a memo of days and one of clock
    times: a year has few of both, and too many of their pairs to keep."""

    def __init__(self, name: str, zone: str | None) -> None:
        head = f"{name};TZID={parameter(zone)}:" if zone and zone != "UTC" else f"{name}:"
        tail = "Z\r\n" if zone == "UTC" else "\r\n"
        self.days = Memo[int, str](lambda ordinal: f"{head}{_day(ordinal)}T")
        self.clocks = Memo[dt.time, str](lambda time: _clock(time) + tail)
        self._dates = Memo[int, str](lambda ordinal: f"{name};VALUE=DATE:{_day(ordinal)}\r\n")
        self.is_short = len(head) <= MAX_OCTETS - len("20270412T090000Z")
        """Whether its lines need no folding."""

    def line(self, time: dt.date | dt.datetime) -> str:
        """The line of a date, or of a date with its time."""
        if not isinstance(time, dt.datetime):
            return self._dates[time.toordinal()]
        line = self.days[time.toordinal()] + self.clocks[time.time()]
        return line if self.is_short else folded(line.removesuffix("\r\n"))


def summary_line(text: str) -> str:
    return folded("SUMMARY:" + escaped(text))


def location_line(text: str) -> str:
    return folded("LOCATION:" + escaped(text)) if text else ""


def description_line(text: str) -> str:
    return folded("DESCRIPTION:" + escaped(text)) if text else ""


def details_lines(details: Details) -> str:
    """The lines of details without a repeat or an alarm, which depend on the rest of their event."""
    return _details(Event("", dt.date.min, dt.date.min, details=details))


def body_writer() -> Callable[[Event], str]:
    """A function from an event to the lines of its VEVENT after DTSTAMP and SEQUENCE, with its own memos."""
    summaries = Memo[str, str](summary_line)
    locations = Memo[str, str](location_line)
    facets = Memo[tuple[str, str], str](lambda facet: folded(_facet(*facet)))
    known: dict[tuple[object, ...], str] = {}
    shared: dict[int, tuple[Details, str]] = {}
    """The lines of details that many events share, by their identity; held with them, so that it stays theirs."""

    def detail_lines(event: Event) -> str:
        """The lines of its details, made once for all events that differ in nothing but UID, school data and kept lines.

        These are put together line by line: a district has more combinations than a memo can hold.
        """
        details = event.details
        if details.reminder_secs is not None or details.recurrence is not None:
            return _details(event)
        if not details.uid and not details.facets and not details.other:
            found = shared.get(id(details))
            if found is None or found[0] is not details:
                if len(shared) >= SHARED_SIZE:
                    shared.clear()
                found = shared[id(details)] = details, _details(event)
            return found[1]
        key = details[:_UID_AT]
        lines = known.get(key)
        if lines is None:
            if len(known) >= MEMO_SIZE:
                known.clear()
            alone = details._replace(facets=(), other=())
            lines = known[key] = _details(event._replace(details=alone))
        if details.facets:
            lines += "".join([facets[facet] for facet in details.facets])
        return lines + "".join(map(folded, details.other)) if details.other else lines

    zones: dict[str | None, tuple[TimeLines, TimeLines]] = {}

    def body_of(event: Event) -> str:
        summary, start, end, zone, location, description, details, _ = event
        if zone not in zones:
            zones[zone] = TimeLines("DTSTART", zone), TimeLines("DTEND", zone)
        starts, ends = zones[zone]
        # RFC 5545, 3.8.2.2: DTEND must be later than DTSTART, so a moment has none
        if type(start) is dt.datetime is type(end) and starts.is_short and end != start:
            times = (
                f"{starts.days[start.toordinal()]}{starts.clocks[start.time()]}"
                f"{ends.days[end.toordinal()]}{ends.clocks[end.time()]}"
            )
        else:
            times = starts.line(start) + ("" if end == start else ends.line(end))
        return (
            f"{times}{summaries[summary]}{locations[location]}"
            f"{description_line(description) if description else ''}"
            f"{'' if details is NO_DETAILS else detail_lines(event)}END:VEVENT\r\n"
        )

    return body_of


def event_head(uid: str, dtstamp: str, sequence: int) -> str:
    """The opening lines of a VEVENT. `dtstamp` is written as it stands; sequence 0 is left unsaid."""
    uid_line = f"UID:{uid}\r\n" if len(uid) == 36 else folded(f"UID:{escaped(uid)}")
    revision = f"SEQUENCE:{sequence}\r\n" if sequence else ""
    return f"BEGIN:VEVENT\r\n{uid_line}DTSTAMP:{dtstamp}\r\n{revision}"


def _details(event: Event) -> str:
    """The lines of the fields that few events have, `Details` from categories to the alarm."""
    details = event.details
    lines = _recurrence(event) if details.recurrence else []
    if details.categories:
        lines.append("CATEGORIES:" + ",".join(map(escaped, details.categories)))
    if details.organizer:
        lines.append(_person("ORGANIZER", details.organizer))
    for person in details.attendees:
        lines.append(_person("ATTENDEE", person))
    if details.url:
        lines.append("URL:" + bare(details.url))
    if details.conference:
        # RFC 7986, 5.11: the value's type must be said
        lines.append("CONFERENCE;VALUE=URI:" + bare(details.conference))
    if details.status:
        lines.append("STATUS:" + details.status)
    if details.privacy:
        lines.append("CLASS:" + details.privacy)
    if details.busy is not None:
        lines.append("TRANSP:" + ("OPAQUE" if details.busy else "TRANSPARENT"))
    if details.priority is not None:
        lines.append(f"PRIORITY:{details.priority}")
    if details.geo:
        lines.append(f"GEO:{details.geo[0]:.6f};{details.geo[1]:.6f}")
    if details.color:
        lines.append("COLOR:" + bare(details.color))
    if details.audience:
        lines.append("X-NOMARIUM-AUDIENCE:" + ",".join(map(escaped, details.audience)))
    lines += [_facet(name, value) for name, value in details.facets]
    lines += details.other
    if details.reminder_secs is not None:
        # RFC 5545, 3.6.6: a DISPLAY alarm must have a description
        lines += ["BEGIN:VALARM", "ACTION:DISPLAY", "DESCRIPTION:" + escaped(event.summary)]
        lines += ["TRIGGER:" + duration(-details.reminder_secs), "END:VALARM"]
    return "".join(map(folded, lines))


def _facet(name: str, value: str) -> str:
    return f"X-NOMARIUM-{name.upper()}:{escaped(value)}"


def _recurrence(event: Event) -> list[str]:
    """RRULE, RDATE and EXDATE of an event that repeats by rule (RFC 5545, 3.8.5)."""
    from nomarium.reckoning.rules import rule_text

    recurrence = event.details.recurrence
    assert recurrence is not None
    lines = [f"RRULE:{rule_text(rule)}" for rule in recurrence.rules]
    for name, days in (("RDATE", recurrence.also_on), ("EXDATE", recurrence.left_out)):
        times = TimeLines(name, event.zone)
        lines += [times.line(day).replace("\r\n ", "").removesuffix("\r\n") for day in days]
    return lines


def _person(name: str, person: Person) -> str:
    head = name
    if person.name:
        head += f";CN={parameter(person.name)}"
    if person.optional:
        head += ";ROLE=OPT-PARTICIPANT"
    head += person.parameters
    # an address is required (3.3.3); a person known by name alone gets one that goes nowhere
    address = (
        person.email
        if ":" in person.email
        else f"mailto:{person.email}"
        if person.email
        else "invalid:nomail"
    )
    return f"{head}:{address}"


def duration(secs: int) -> str:
    """A DURATION value (RFC 5545, 3.3.6).

    >>> duration(-900), duration(93600), duration(0)
    ('-PT15M', 'P1DT2H', 'PT0S')
    """
    sign, secs = ("-", -secs) if secs < 0 else ("", secs)
    days, secs = divmod(secs, 86_400)
    hours, minutes, seconds = secs // 3600, secs // 60 % 60, secs % 60
    time = "".join(f"{n}{unit}" for n, unit in ((hours, "H"), (minutes, "M"), (seconds, "S")) if n)
    if not time and not days:
        return "PT0S"
    return f"{sign}P{f'{days}D' if days else ''}{f'T{time}' if time else ''}"


def recurrence_id(original: dt.date | dt.datetime, event: Event) -> tuple[str, str]:
    """Which date of its series an event is (RFC 5545, 3.8.4.4): the line's head, and its value."""
    value = original.isoformat().replace("-", "").replace(":", "")
    if not isinstance(original, dt.datetime):
        return "RECURRENCE-ID;VALUE=DATE", value
    if event.zone == "UTC":
        return "RECURRENCE-ID", f"{value}Z"
    return (f"RECURRENCE-ID;TZID={event.zone}" if event.zone else "RECURRENCE-ID"), value


def with_original(event: Event, original: dt.date | dt.datetime) -> Event:
    """An event as the date of a series that has this start."""
    line = ":".join(recurrence_id(original, event))
    rest = (own for own in event.details.other if not own.startswith("RECURRENCE-ID"))
    return event._replace(details=event.details._replace(other=(line, *rest)))
