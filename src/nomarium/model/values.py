"""What an event says in one of its fields: for those who pick, split, count or name events by it."""

import re

from nomarium.model.event import FACETS, Event

VALUE_FIELDS = (
    "summary", "location", "description", "categories", "audience", "organizer", "attendees", "url", "conference",
    "status", "privacy", "busy", "color", "priority", "timezone", "uid", *FACETS,
)  # fmt: skip
"""The fields that say anything but when."""


def values_of(event: Event, field: str) -> tuple[str, ...]:
    """The values that an event has of one of `VALUE_FIELDS`, each once; none when it says nothing."""
    if field in FACETS:
        return _facet_values(event, field)
    details = event.details
    texts: tuple[str, ...]
    if field in ("summary", "location", "description"):
        texts = (getattr(event, field),)
    elif field in ("categories", "audience"):
        texts = getattr(details, field)
    elif field in ("organizer", "attendees"):
        people = details.attendees if field == "attendees" else (details.organizer,)
        texts = tuple(one.name or one.email for one in people if one)
    elif field == "busy":
        texts = () if details.busy is None else ("yes" if details.busy else "no",)
    elif field == "priority":
        texts = () if details.priority is None else (str(details.priority),)
    else:
        texts = (event.zone or "",) if field == "timezone" else (getattr(details, field),)
    return tuple(dict.fromkeys(text for text in texts if text))


def _facet_values(event: Event, field: str) -> tuple[str, ...]:
    text = event.location if field == "room" else ""
    for name, value in event.details.facets:
        if name == field:
            text = value
    return parted(text, field) if text else ()


def parted(text: str, field: str) -> tuple[str, ...]:
    """The values of one text of school data: groups are parted by commas, too.

    >>> parted("R. Finch; M. Roe", "teacher")
    ('R. Finch', 'M. Roe')
    """
    parts = re.split(r"[;,\n]" if field == "group" else r"[;\n]", text)
    return tuple(dict.fromkeys(value for part in parts if (value := " ".join(part.split()))))
