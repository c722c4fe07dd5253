"""One dated thing on a calendar (RFC 5545, 3.6.1)."""

import datetime as dt
from typing import TYPE_CHECKING, Final, NamedTuple

if TYPE_CHECKING:
    from nomarium.model.recurrence import Recurrence


FACETS = ("class", "teacher", "room", "group", "division", "term", "label", "period", "person")
"""The school data of an event, in the order in which it is written."""


class Person(NamedTuple):
    """Someone with a calendar address (RFC 5545, 3.3.3). `email` may be empty, `name` too, not both."""

    name: str
    email: str
    optional: bool = False
    """True for an attendee whose presence is not required (ROLE=OPT-PARTICIPANT)."""
    parameters: str = ""
    """More parameters as a calendar file had them, such as `;PARTSTAT=ACCEPTED`; written back."""


def asked_to_reply(person: Person) -> Person:
    """An attendee with RSVP=TRUE."""
    if ";RSVP=TRUE" in person.parameters.upper():
        return person
    return person._replace(parameters=f"{person.parameters};RSVP=TRUE")


class Details(NamedTuple):
    """The fields that few events have, apart, so that the many without cost nothing for them."""

    categories: tuple[str, ...] = ()
    audience: tuple[str, ...] = ()
    """The groups who should see it; written as X-NOMARIUM-AUDIENCE, used to split."""
    organizer: Person | None = None
    attendees: tuple[Person, ...] = ()
    url: str = ""
    conference: str = ""
    """The link, or the number to dial, by which people join from elsewhere (RFC 7986, 5.11)."""
    status: str = ""
    """CONFIRMED, TENTATIVE, CANCELLED or nothing (RFC 5545, 3.8.1.11)."""
    privacy: str = ""
    """PUBLIC, PRIVATE, CONFIDENTIAL or nothing (RFC 5545, 3.8.1.3)."""
    busy: bool | None = None
    """False is TRANSP:TRANSPARENT, True is TRANSP:OPAQUE (RFC 5545, 3.8.2.7), None is unsaid."""
    reminder_secs: int | None = None
    """How long before the start an alarm is shown, in seconds."""
    color: str = ""
    """A CSS3 colour name (RFC 7986, 5.9)."""
    priority: int | None = None
    """1 (highest) to 9 (lowest), 0 undefined (RFC 5545, 3.8.1.9)."""
    geo: tuple[float, float] | None = None
    """Latitude and longitude in degrees (RFC 5545, 3.8.1.6)."""
    uid: str = ""
    """The identity that the source itself gives, or nothing: then one is made when writing."""
    facets: tuple[tuple[str, str], ...] = ()
    """School data kept with the event, such as ("teacher", "R. Finch"), in a fixed order."""
    recurrence: "Recurrence | None" = None
    """How it repeats; None once it is expanded, or when it never did."""
    sequence: int = 0
    """Its revision in the calendar file it comes from (RFC 5545, 3.8.7.4)."""
    dtstamp: str = ""
    """Its DTSTAMP there, as it stands; nothing when the source has none."""
    other: tuple[str, ...] = ()
    """Content lines of a calendar file that no field holds, unfolded; written back as they were."""


NO_DETAILS = Details()


class Event(NamedTuple):
    """An event, all-day or timed. A named tuple, because a million of them pass through one by one.

    `start` and `end` are both dates (all-day) or both naive date-times, which are local times in
    `zone`. `end` is exclusive, as in the file: the day after an all-day event's last day.
    """

    summary: str
    start: dt.date | dt.datetime
    end: dt.date | dt.datetime
    zone: str | None = None
    """IANA name of the zone of `start` and `end`, "UTC", or None for floating times."""
    location: str = ""
    description: str = ""
    details: Details = NO_DETAILS
    row_number: int = 0
    """The row of the source, as its sheet shows it; no part of the event's content."""

    @property
    def is_all_day(self) -> bool:
        return not isinstance(self.start, dt.datetime)

    @property
    def first_day(self) -> dt.date:
        """The local date on which it begins."""
        return self.start.date() if isinstance(self.start, dt.datetime) else self.start

    @property
    def last_day(self) -> dt.date:
        """The last local date that it touches (inclusive)."""
        if not isinstance(self.end, dt.datetime):
            return max(self.end - dt.timedelta(days=1), self.first_day)
        ends_at_midnight = self.end.time() == dt.time(0) and self.end > self.start
        return self.end.date() - dt.timedelta(days=1) if ends_at_midnight else self.end.date()


TAKEN: Final[Event] = Event("", dt.date.min, dt.date.min)
"""Stands in a stream for an event that has been written already."""
