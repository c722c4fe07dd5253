"""What pictures say of an event beside its title: when, where, whose, whether it stands."""

import datetime as dt

from nomarium.model.event import Event
from nomarium.pictures.names import Names


def clock(moment: dt.datetime) -> str:
    """A time of day.

    >>> clock(dt.datetime(2026, 9, 8, 8, 5))
    '8:05'
    """
    return f"{moment.hour}:{moment.minute:02}"


def minutes_text(minutes: int) -> str:
    """Minutes after midnight as a clock shows them; 24:00 is the midnight at the end.

    >>> minutes_text(485)
    '8:05'
    """
    return f"{minutes // 60}:{minutes % 60:02}"


def times_text(event: Event) -> str:
    """From when to when, on one day; `22:00–1:30` ends the next morning. Nothing for an all-day event."""
    start, end = event.start, event.end
    if not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime):
        return ""
    return clock(start) if end == start else f"{clock(start)}–{clock(end)}"


def days_text(event: Event, names: Names) -> str:
    """Until when an event of several days goes, with its times; nothing for one of a day."""
    if event.last_day == event.first_day:
        return ""
    until = f"until {names.short_day(event.last_day)}"
    return f"{until} {clock(event.end)}" if isinstance(event.end, dt.datetime) else until


def state_text(event: Event) -> str:
    """What is particular about it: cancelled, tentative; nothing for one that simply happens."""
    return {"CANCELLED": "cancelled", "TENTATIVE": "not certain"}.get(event.details.status, "")


def place_text(event: Event) -> str:
    """Where it is, in one line."""
    return " ".join(event.location.split())


def title_text(event: Event) -> str:
    """Its title in one line, never blank."""
    return " ".join(event.summary.split()) or "(no title)"
