"""The fields that few events have, from the values of a row's cells."""

import datetime as dt
from typing import TYPE_CHECKING

from nomarium.model.event import FACETS, NO_DETAILS, Details
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.rows.when import Part, When

if TYPE_CHECKING:
    from nomarium.model.recurrence import Recurrence


def details_of(
    values: dict[str, FieldValue],
    when: When,
    reminder_secs: int | None,
    recurrence: "Recurrence | None" = None,
) -> Details:
    """The details of an event. An event without any gets the one shared value for that."""
    busy = values.get("busy")
    may_be = "TENTATIVE" if when.is_tentative or busy == "TENTATIVE" else ""
    details = Details(
        categories=tuple(
            dict.fromkeys((*(values.get("categories") or ()), *(values.get("more-categories") or ())))
        ),
        audience=values.get("audience") or (),
        organizer=values.get("organizer"),
        attendees=(values.get("attendees") or ()) + (values.get("optional-attendees") or ()),
        url=values.get("url") or "",
        status=values.get("status") or may_be,
        privacy=_privacy(values),
        busy=True if busy == "TENTATIVE" else busy,
        reminder_secs=reminder_secs,
        color=values.get("color") or "",
        priority=values.get("priority"),
        geo=values.get("geo"),
        uid=values.get("uid") or "",
        facets=tuple((name, values[name]) for name in FACETS if values.get(name)),
        recurrence=recurrence,
    )
    return NO_DETAILS if details == NO_DETAILS else details


def _privacy(values: dict[str, FieldValue]) -> str:
    """PUBLIC, PRIVATE or CONFIDENTIAL from a sensitivity and a yes or no, the stricter of the two."""
    privacy: str = values.get("privacy") or ""
    return "PRIVATE" if values.get("private") and privacy in ("", "PUBLIC") else privacy


def lead_of(values: dict[str, FieldValue], when: When, day: Part, time: Part) -> int | None:
    """How long before the start the alarm is, in seconds: a length, or the time from a moment of its own."""
    if values.get("reminder-on") is False:
        return None
    length: int | None = values.get("reminder")
    if length is not None or day.first is None or time.start is None:
        return length
    start = when.start if isinstance(when.start, dt.datetime) else dt.datetime.combine(when.start, dt.time())
    at = dt.datetime.combine(day.first, dt.time()) + dt.timedelta(seconds=time.start.secs)
    return max(round((start - at).total_seconds()), 0)
