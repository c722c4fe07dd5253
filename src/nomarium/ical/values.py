"""Values of date and time properties (RFC 5545, 3.3.4 and 3.3.5) in their zones."""

import datetime as dt
from typing import Protocol

from nomarium.model.entry import Instant
from nomarium.reckoning.values import moment_of


class UnknownZone(str):
    """Why a moment cannot be read: nothing explains its zone."""

    __slots__ = ()


class FindsZones(Protocol):
    """What resolves a TZID."""

    def of_head(self, head: str) -> tuple[str | None, dt.tzinfo | None] | str: ...


def instant_of(head: str, value: str, zones: FindsZones) -> Instant | str:
    """The moment of a property by its head (`DTSTART;TZID=…`) and value, or what is wrong with it."""
    text = value.strip()
    try:
        found = moment_of(text)
    except (ValueError, OverflowError):
        return f"There is no such moment as {text}."
    if found is None:
        return f"“{text}” is not a date or a date-time."
    local, offset = found
    if not isinstance(local, dt.datetime):
        return Instant(local)
    if offset is not None:
        return Instant(local - offset, "UTC", dt.UTC)
    return _placed(local, head, zones)


def _placed(local: dt.datetime, head: str, zones: FindsZones) -> Instant | str:
    if ";" not in head:
        return Instant(local)
    found = zones.of_head(head)
    return found if isinstance(found, str) else Instant(local, *found)
