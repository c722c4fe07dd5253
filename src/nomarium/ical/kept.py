"""What of a calendar file goes out again as it stands: lines of properties and components that have no field here.

A line is passed on only when it is what RFC 5545, 3.1 calls a content line, of a name that a standard knows or that begins
with X-: anything else makes strict readers refuse the whole file.
"""

import datetime as dt
import re
from collections.abc import Callable, Iterable, Sequence
from functools import lru_cache
from typing import Final

from nomarium.ical.contentlines import strict_head
from nomarium.ical.values import FindsZones, instant_of
from nomarium.ical.valuetypes import fits
from nomarium.model.entry import as_utc
from nomarium.reckoning.values import length_of, moment_of

_NAMES: Final = frozenset(
    # RFC 5545, 3.8; RFC 7986, 5; RFC 9073, 6; RFC 9074, 5 to 8; RFC 9253, 8
    "ATTACH ATTENDEE CATEGORIES CLASS COMMENT COMPLETED CONTACT CREATED DESCRIPTION DTEND DTSTAMP DTSTART DUE DURATION "
    "EXDATE EXRULE FREEBUSY GEO LAST-MODIFIED LOCATION ORGANIZER PERCENT-COMPLETE PRIORITY RDATE RECURRENCE-ID RELATED-TO "
    "REPEAT REQUEST-STATUS RESOURCES RRULE SEQUENCE STATUS SUMMARY TRANSP TRIGGER UID URL ACTION "
    "COLOR CONFERENCE IMAGE NAME REFRESH-INTERVAL SOURCE "
    "CALENDAR-ADDRESS LOCATION-TYPE PARTICIPANT-TYPE RESOURCE-TYPE STRUCTURED-DATA STYLED-DESCRIPTION "
    "ACKNOWLEDGED PROXIMITY CONCEPT LINK REFID".split()
)
_STAMPS: Final = frozenset(("DTSTAMP", "CREATED", "LAST-MODIFIED", "COMPLETED", "ACKNOWLEDGED"))
"""Properties whose value must be in UTC."""
_LENGTHS: Final = frozenset(("TRIGGER", "DURATION", "REFRESH-INTERVAL"))
"""Properties whose value is a length of time, or a moment in its place."""
_COMPONENTS: Final = frozenset(("VALARM", "PARTICIPANT", "VLOCATION", "VRESOURCE"))
_DEEPEST: Final = 4
Told = Callable[[str, str], None]
"""Takes the code of what was decided about a line, and the line: `value-unfit`, left out; `stamp-floating`, taken for UTC."""
_WHOLE: Final = re.compile(r"[0-9]{1,9}")
"""Digits that any reader takes for a number (RFC 5545, 3.3.8)."""


def whole(text: str, otherwise: int = 0) -> int:
    """A whole number of a calendar file; `otherwise` for a text that is none, or is too long for one."""
    return int(text) if _WHOLE.fullmatch(text) else otherwise


def stamp_of(head: str, value: str, zones: FindsZones, told: Told) -> str:
    """A date-time as a stamp in UTC, `20270412T090000Z`; a floating one is taken for UTC. Blank when it is none."""
    if len(value) == 16 and value[15] == "Z" and (plain := _plain_stamp(value)):
        return plain  # nearly every one
    moment = instant_of(head, value, zones)
    if isinstance(moment, str) or not isinstance(moment.local, dt.datetime):
        told("value-unfit", f"{head}:{value}")
        return ""
    if moment.zone is None:
        told("stamp-floating", f"{head}:{value}")
    try:
        utc = as_utc(moment.local, moment.zone)
    except OverflowError:
        told("value-unfit", f"{head}:{value}")
        return ""
    return utc.isoformat().replace("-", "").replace(":", "")[:15] + "Z"


@lru_cache(maxsize=4096)
def _plain_stamp(value: str) -> str:
    """A stamp that is written as it should be; blank for any other."""
    try:
        found = moment_of(value[:15])
    except ValueError:
        return ""
    return value if found is not None and isinstance(found[0], dt.datetime) else ""


@lru_cache(maxsize=4096)
def _name_of(head: str) -> str:
    """The name that a head without quotes says, blank where no strict reader would take the line."""
    return strict_head(f"{head}:").partition(";")[0].upper()


def kept_lines(lines: Iterable[str], zones: FindsZones, told: Told) -> tuple[str, ...]:
    """The lines of properties that go out as they stand; `told` takes the code of each that does not."""
    found = []
    for line in lines:
        kept = _kept(line, zones, told)
        if kept:
            found.append(kept)
    return tuple(found)


def kept_components(lines: Iterable[str], zones: FindsZones, told: Told) -> list[str]:
    """The lines of components inside an event, whole ones of kinds that an event may hold."""
    whole_ones, current, open_kinds = list[str](), list[str](), list[str]()
    for line in lines:
        name, _, value = line.partition(":")
        kind = value.strip().upper()
        if name == "BEGIN":
            open_kinds.append(kind)
            current.append(f"BEGIN:{kind}")
        elif name == "END":
            if not open_kinds or open_kinds.pop() != kind:
                told("value-unfit", line)
                current, open_kinds = [], []
                continue
            current.append(f"END:{kind}")
            if not open_kinds:
                is_known = current[0][6:] in _COMPONENTS or current[0].startswith("BEGIN:X-")
                if is_known and (current[0] != "BEGIN:VALARM" or _is_alarm(current)):
                    whole_ones += current
                else:
                    told("value-unfit", current[0])
                current = []
        elif len(open_kinds) <= _DEEPEST:
            kept = _kept(line, zones, told)
            if kept:
                current.append(kept)
    if current:  # begun, and not ended
        told("value-unfit", current[0])
    return whole_ones


def _is_alarm(lines: Sequence[str]) -> bool:
    """Whether an alarm says what it must (RFC 5545, 3.6.6)."""
    return all(any(re.match(f"{name}[;:]", line) for line in lines) for name in ("ACTION", "TRIGGER"))


def _kept(line: str, zones: FindsZones, told: Told) -> str:
    """A line as it goes out, blank for one that cannot."""
    head = line.partition(":")[0]
    if '"' in head:  # a colon may stand in the quotes
        head = strict_head(line)
    name = _name_of(head)
    if name not in _NAMES and not name.startswith("X-"):
        told("value-unfit", line)
        return ""
    value = line[len(head) + 1 :]
    if name in _LENGTHS and length_of(value) is None and isinstance(instant_of(head, value, zones), str):
        told("value-unfit", line)
        return ""
    if name not in _STAMPS:
        if fits(name, head, value):
            return line
        told("value-unfit", line)
        return ""
    stamp = stamp_of(head, value, zones, told)
    return f"{name}:{stamp}" if stamp else ""
