"""The columns of the tables of events that a build writes, and what is under each."""

from typing import Final

from nomarium.model.event import FACETS

EVENT_COLUMNS: Final[dict[str, str]] = {
    "Title": "summary", "Date": "date", "Start": "start", "End": "end", "End date": "end-date", "All day": "all-day", "Location": "location",
    "Description": "description", "Categories": "categories", "Audience": "audience", "Organizer": "organizer", "Attendees": "attendees",
    "Optional attendees": "optional-attendees", "RSVP": "rsvp", "URL": "url", "Conference": "conference", "Status": "status",
    "Privacy": "privacy", "Busy": "busy", "Reminder": "reminder", "Color": "color", "Priority": "priority", "Coordinates": "geo",
    "Time zone": "timezone", "UID": "uid", **{name.capitalize(): name for name in FACETS},
}  # fmt: skip
"""Heading → field."""
_ALWAYS: Final = ("Title", "Date", "Start", "End")


def columns_as_written(headings: tuple[str, ...]) -> dict[str, str]:
    """What the headings of a table mean that a build has written, with an identity for each event; nothing for any other table."""
    is_ours = (
        headings[: len(_ALWAYS)] == _ALWAYS
        and "UID" in headings
        and all(one in EVENT_COLUMNS for one in headings)
    )
    return {one: EVENT_COLUMNS[one] for one in headings} if is_ours else {}
