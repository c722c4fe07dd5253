"""Events that have no row of columns, lines and cells of drawings: what they say themselves, and what --set says of all."""

from collections.abc import Mapping
from typing import Final

from nomarium.model.event import NO_DETAILS, Details, Event
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import FieldValue, value_memo
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.when import When

_SET_FIELDS: Final = (
    "location", "description", "categories", "audience", "organizer", "attendees", "url", "conference", "status",
    "privacy", "busy", "color", "priority", "geo",
)  # fmt: skip


def given_fields(options: ReadingOptions) -> dict[str, FieldValue]:
    """The values that --set gives to events that have no columns."""
    found = {f: value_memo(f, text)[""] for f, text in options.defaults.items() if f in _SET_FIELDS}
    return {field: value for field, value in found.items() if not isinstance(value, Refusal)}


def event_alone(
    title: str, when: When, number: int, given: Mapping[str, FieldValue], place: str = "", rest: str = ""
) -> Event:
    """The event of a line: its place and what else it says are its own, all else is given."""
    fields = {field: value for field, value in given.items() if field not in ("location", "description")}
    if when.recurrence is not None:
        fields["recurrence"] = when.recurrence
    details = Details(**fields) if fields else NO_DETAILS
    return Event(
        title, when.start, when.end, when.zone, place or given.get("location", ""), rest or given.get("description", ""),
        details, number,
    )  # fmt: skip
