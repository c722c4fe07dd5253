"""The properties of a VEVENT to the fields of an event."""

import datetime as dt
import re
from collections.abc import Callable, Mapping
from functools import partial
from types import MappingProxyType
from typing import Final

from nomarium.ical.colors import CSS3_COLORS
from nomarium.ical.contentlines import property_head, split_list
from nomarium.ical.kept import Told, kept_components, kept_lines, stamp_of, whole
from nomarium.ical.octets import unescaped
from nomarium.ical.values import FindsZones, instant_of
from nomarium.ical.valuetypes import fits, in_form
from nomarium.model.entry import Instant, as_utc
from nomarium.model.event import FACETS, Details, Person
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.reckoning.rules import RuleFault, parse_rule, with_local_until
from nomarium.reckoning.values import length_of

_CLASSES = frozenset(("PUBLIC", "PRIVATE", "CONFIDENTIAL"))
_FITS: Final[Mapping[str, Callable[[str], bool]]] = MappingProxyType({
    "SEQUENCE": in_form(r"[0-9]{1,9}"),
    "PRIORITY": in_form(r"[0-9]"),
    "TRANSP": in_form(r"(?i)OPAQUE|TRANSPARENT"),
    "STATUS": in_form(r"(?i)CONFIRMED|TENTATIVE|CANCELLED"),
    "CLASS": in_form(r"[A-Za-z0-9-]+"),
    "COLOR": lambda text: text.casefold() in CSS3_COLORS,
    "GEO": partial(fits, "GEO", "GEO"),
})  # fmt: skip
"""Which values a property of an event may have (RFC 5545, 3.8; RFC 7986, 5.9)."""
_FACETS = (*FACETS, "periods")


class Properties:
    """The properties of one VEVENT, each with its head and value as they stand."""

    __slots__ = ("many", "once", "other", "parts")

    def __init__(self) -> None:
        self.once: dict[str, tuple[str, str]] = {}
        self.many: dict[str, list[tuple[str, str]]] = {}
        self.other: list[str] = []
        """Lines of properties that have no field."""
        self.parts: list[str] = []
        """Lines of components inside it: alarms."""


def event_details(
    found: Properties,
    recurrence: Recurrence | None,
    reminder_secs: int | None,
    other: tuple[str, ...],
    zones: FindsZones,
    told: Told,
) -> Details:
    """The details of a VEVENT; `told` takes each line that cannot go out."""
    once = found.once

    def fit(name: str) -> str:
        head, value = once.get(name, ("", ""))
        text = value.strip()
        if not text or _FITS[name](text):
            return text
        told("value-unfit", f"{head}:{value}")
        return ""

    uid = unescaped(once["UID"][1]).strip() if "UID" in once else ""
    dtstamp = stamp_of(*once["DTSTAMP"], zones, told) if "DTSTAMP" in once else ""
    sequence = whole(fit("SEQUENCE"))
    if len(once) <= 8 and not found.many and once.keys() <= _PLAIN:
        return Details(uid=uid, reminder_secs=reminder_secs, dtstamp=dtstamp, other=other,
                       sequence=sequence)  # fmt: skip
    busy, status, privacy = fit("TRANSP").upper(), fit("STATUS").upper(), fit("CLASS").upper()
    if privacy and privacy not in _CLASSES:  # a level that others know
        other, privacy = (":".join(once["CLASS"]), *other), ""
    return Details(
        categories=_texts([value for _, value in found.many.get("CATEGORIES", ())]),
        audience=_texts([once["X-NOMARIUM-AUDIENCE"][1]] if "X-NOMARIUM-AUDIENCE" in once else []),
        organizer=_person(*once["ORGANIZER"]) if "ORGANIZER" in once else None,
        attendees=tuple(_person(*pair) for pair in found.many.get("ATTENDEE", ())),
        url=once["URL"][1].strip() if "URL" in once else "",
        conference=once["CONFERENCE"][1].strip() if "CONFERENCE" in once else "",
        status=status,
        privacy=privacy,
        busy=busy == "OPAQUE" if busy else None,
        reminder_secs=reminder_secs,
        color=fit("COLOR").casefold(),
        priority=int(priority) if (priority := fit("PRIORITY")) else None,
        geo=_position(fit("GEO")),
        uid=uid,
        facets=tuple(
            (name, unescaped(once[key][1]))
            for name in _FACETS
            if (key := f"X-NOMARIUM-{name.upper()}") in once
        ),
        recurrence=recurrence,
        sequence=sequence,
        dtstamp=dtstamp,
        other=other,
    )


_PLAIN = frozenset(("UID", "DTSTAMP", "SEQUENCE", "DTSTART", "DTEND", "DURATION", "SUMMARY", "LOCATION",
                    "DESCRIPTION", "RECURRENCE-ID"))  # fmt: skip


def _texts(values: list[str]) -> tuple[str, ...]:
    parts = (unescaped(part).strip() for value in values for part in split_list(value))
    return tuple(dict.fromkeys(part for part in parts if part))


def _person(head: str, value: str) -> Person:
    read = property_head(f"{head}:", len(head))
    params = dict(read.params) if read else {}
    name = params.pop("CN", "")
    optional = params.get("ROLE", "").upper() == "OPT-PARTICIPANT"
    if optional:
        del params["ROLE"]
    address = value.strip()
    email = (
        address[7:] if address[:7].lower() == "mailto:" else "" if address == "invalid:nomail" else address
    )
    if not re.search("[@:]", email):  # a name where an address must stand
        name, email = name or email, ""
    rest = "".join(
        f';{key}="{text}"' if re.search("[:;,]", text) else f";{key}={text}" for key, text in params.items()
    )
    return Person(name, email, optional, rest)


def _position(text: str) -> tuple[float, float] | None:
    north, _, east = text.partition(";")
    return (float(north), float(east)) if text else None


def alarm_secs(
    found: Properties, summary: str, zones: FindsZones, told: Told
) -> tuple[int | None, tuple[str, ...]]:
    """The reminder, when the event's one alarm is as plain as those that are written here, and the
    lines to keep otherwise; `told` takes each that cannot go out."""
    lines, other = found.parts, kept_lines(found.other, zones, told)
    if not lines:
        return None, other
    if lines.count("BEGIN:VALARM") == 1 and len(lines) <= 5:
        values = dict(line.split(":", 1) for line in lines[1:-1] if ":" in line)
        trigger = length_of(values.get("TRIGGER", ""))
        plain = values.keys() <= {"ACTION", "DESCRIPTION", "TRIGGER"} and values.get("ACTION") == "DISPLAY"
        titled = unescaped(values.get("DESCRIPTION", "")) in ("", summary)
        if plain and titled and trigger is not None and trigger <= dt.timedelta(0):
            return round(-trigger.total_seconds()), other
    return None, (*other, *kept_components(lines, zones, told))


def recurrence_of(
    found: Properties, start: Instant, zones: FindsZones, keeps_length: bool
) -> tuple[Recurrence | None, tuple[str, str, str] | None]:
    """How a VEVENT repeats, in its start's own local time; or (property, value, why) of what is wrong."""
    many = found.many
    if not many.keys() & {"RRULE", "RDATE", "EXRULE", "EXDATE"}:
        return None, None
    rules: dict[str, list[Rule]] = {"RRULE": [], "EXRULE": []}
    for name, into in rules.items():
        for _, value in many.get(name, ()):
            if not value.strip():
                continue
            rule = parse_rule(value.strip())
            if isinstance(rule, RuleFault):
                return None, (name, value, rule.message)
            into.append(with_local_until(rule, start.local, start.zone))
    dates: list[dt.date | dt.datetime] = []
    periods: list[tuple[dt.datetime, dt.datetime]] = []
    left_out: list[dt.date | dt.datetime] = []
    for name, listed in (("RDATE", dates), ("EXDATE", left_out)):
        for head, values in many.get(name, ()):
            for value in values.split(","):
                first, slash, last = value.partition("/")
                moment = instant_of(head, first, zones) if first.strip() else None
                if isinstance(moment, str):
                    return None, (name, value, moment)
                if moment is None:
                    continue
                local = _in_zone_of(start, moment)
                if slash and isinstance(local, dt.datetime):
                    end = _period_end(head, local, last, start, zones)
                    if end is not None:
                        periods.append((local, end))
                        continue
                listed.append(local)
    if not (rules["RRULE"] or dates or periods or left_out):
        return None, None
    return Recurrence(
        tuple(rules["RRULE"]), tuple(rules["EXRULE"]), tuple(dates), tuple(periods), tuple(left_out),
        keeps_length=keeps_length,
    ), None  # fmt: skip


def _in_zone_of(start: Instant, moment: Instant) -> dt.date | dt.datetime:
    """A moment in the local time of a start; a date for an all-day event."""
    local = moment.local
    if not isinstance(local, dt.datetime):
        return local
    if not isinstance(start.local, dt.datetime):
        return local.date()
    if moment.zone is None or start.zone is None or moment.zone is start.zone:
        return local
    utc = as_utc(local, moment.zone)
    assert isinstance(utc, dt.datetime)
    return utc.replace(tzinfo=dt.UTC).astimezone(start.zone).replace(tzinfo=None, fold=0)


def _period_end(
    head: str, local: dt.datetime, text: str, start: Instant, zones: FindsZones
) -> dt.datetime | None:
    length = length_of(text)
    if length is not None:
        return local + length
    end = instant_of(head, text, zones)
    found = _in_zone_of(start, end) if isinstance(end, Instant) else None
    return found if isinstance(found, dt.datetime) and found >= local else None
