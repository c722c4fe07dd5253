"""One VEVENT as it was read, and the series that those of one UID make (RFC 5545, 3.8.4.4)."""

import datetime as dt
from typing import NamedTuple

from nomarium.model.event import Event


class Instant(NamedTuple):
    """A date, or a local date-time and its zone."""

    local: dt.date | dt.datetime
    zone_name: str | None = None
    """IANA name or "UTC"; None for floating times, dates, and zones that only the file explains."""
    zone: dt.tzinfo | None = None

    @property
    def utc(self) -> dt.date | dt.datetime:
        """A zoned date-time as naive UTC; anything else as it stands."""
        return as_utc(self.local, self.zone)


def as_utc(local: dt.date | dt.datetime, zone: dt.tzinfo | None) -> dt.date | dt.datetime:
    """A local date-time in a zone as naive UTC; without a zone, or a date, as it stands."""
    if zone is None or not isinstance(local, dt.datetime):
        return local
    return local.replace(tzinfo=zone).astimezone(dt.UTC).replace(tzinfo=None)


class Entry(NamedTuple):
    """One VEVENT."""

    event: Event
    """Its recurrence, if any, is in its details. Times are local in its zone."""
    zone: dt.tzinfo | None = None
    """The zone of its times; not None with `event.zone` None when only the file explains the zone."""
    original: Instant | None = None
    """The start that it replaces in its series (RECURRENCE-ID)."""
    and_following: bool = False
    """Whether it holds for all later ones too (RANGE=THISANDFUTURE)."""


class Series(NamedTuple):
    """All entries of one UID: the one that repeats (or stands alone), and those that replace a date of it."""

    main: Entry | None
    replacing: tuple[Entry, ...] = ()

    @property
    def entries(self) -> tuple[Entry, ...]:
        """All of them, the one that repeats first."""
        return self.replacing if self.main is None else (self.main, *self.replacing)

    @property
    def is_endless(self) -> bool:
        recurrence = self.main.event.details.recurrence if self.main else None
        return recurrence is not None and any(rule.is_endless for rule in recurrence.rules)
