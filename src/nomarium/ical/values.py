"""Values of date and time properties (RFC 5545, 3.3.4 to 3.3.6), liberally read."""

import datetime as dt
import re
from typing import Protocol

from nomarium.model.entry import Instant

_MOMENT = r"(\d{4})-?(\d\d)-?(\d\d)(?:[T ]?(\d\d):?(\d\d)(?::?(\d\d)(?:\.\d+)?)?\s?(Z|[+-]\d\d:?\d\d)?)?"


class FindsZones(Protocol):
    """What resolves a TZID."""

    def of_head(self, head: str) -> tuple[str | None, dt.tzinfo | None] | str: ...


def instant_of(head: str, value: str, zones: FindsZones) -> Instant | str:
    """The moment of a property by its head (`DTSTART;TZID=…`) and value, or what is wrong with it."""
    text = value.strip()
    if len(text) == 15 and text[8] == "T" and text[:8].isdigit() and text[9:].isdigit():
        plain = _plain(text)
        if plain is None:
            return f"There is no such moment as {text}."
        return _placed(plain, head, zones)
    match = re.fullmatch(_MOMENT, text, re.IGNORECASE)
    if match is None:
        return f"“{text}” is not a date or a date-time."
    year, month, day, hour, minute, second, offset = match.groups()
    try:
        date = dt.date(int(year), int(month), int(day))
        if hour is None:
            return Instant(date)
        is_midnight = int(hour) == 24 and int(minute) == 0  # no hour of RFC 5545, yet met
        time = dt.time(0) if is_midnight else dt.time(int(hour), int(minute), min(int(second or 0), 59))
    except ValueError:
        return f"There is no such moment as {text}."
    local = dt.datetime.combine(date, time) + dt.timedelta(days=is_midnight)
    if offset:
        return Instant(local - _offset(offset.upper()), "UTC", dt.UTC)
    return _placed(local, head, zones)


def _placed(local: dt.datetime, head: str, zones: FindsZones) -> Instant | str:
    if ";" not in head:
        return Instant(local)
    found = zones.of_head(head)
    return found if isinstance(found, str) else Instant(local, *found)


def _plain(text: str) -> dt.datetime | None:
    try:
        return dt.datetime(
            int(text[:4]),
            int(text[4:6]),
            int(text[6:8]),
            int(text[9:11]),
            int(text[11:13]),
            min(int(text[13:]), 59),
        )
    except ValueError:
        return None


def _offset(text: str) -> dt.timedelta:
    if text == "Z":
        return dt.timedelta(0)
    digits = text[1:].replace(":", "")
    size = dt.timedelta(hours=int(digits[:2]), minutes=int(digits[2:]))
    return -size if text[0] == "-" else size


def length_of(text: str) -> dt.timedelta | None:
    """A DURATION value (3.3.6), or None.

    >>> length_of("-PT15M") == -dt.timedelta(minutes=15), length_of("P1DT2H").days
    (True, 1)
    """
    match = re.fullmatch(
        r"([+-])?P(?=.)(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?", text.strip().upper()
    )
    if match is None:
        return None
    weeks, days, hours, minutes, seconds = (int(part or 0) for part in match.groups()[1:])
    try:
        length = dt.timedelta(weeks=weeks, days=days, hours=hours, minutes=minutes, seconds=seconds)
    except OverflowError:
        return None
    return -length if match[1] == "-" else length
