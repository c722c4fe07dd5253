"""What a check finds: a kind of trouble, whose, when, and the events that it is between."""

import datetime as dt
from typing import Final, NamedTuple

from nomarium.model.event import Event

CLASHES: Final = ("clash-teacher", "clash-room", "clash-class", "clash-group", "clash-person")
CODES: Final = (*CLASHES, "duplicate", "clock-skipped", "clock-repeated")
"""The kinds of findings; those of a calendar file's text begin with `rfc-` and are in `conformance.RFC_CODES`."""


class Party(NamedTuple):
    """One of the events of a finding."""

    summary: str
    start: str
    """ISO 8601, local."""
    end: str
    uid: str
    source: str
    """Where it stands: file, sheet and row, or the line of a calendar file."""


class Finding(NamedTuple):
    """A kind of trouble, once for all of its dates."""

    code: str
    who: str
    """Whose it is: the teacher, the room …; nothing where it is nobody's."""
    dates: tuple[dt.date, ...]
    events: tuple[Party, ...]
    message: str


def party(event: Event, source: str) -> Party:
    """An event as findings show it."""
    return Party(event.summary, event.start.isoformat(), event.end.isoformat(), event.details.uid, source)
