"""A calendar file that holds only what is new, has changed or is gone: for those who can upload a file and nothing more."""

import datetime as dt
from collections.abc import Iterable, Iterator, Sequence
from pathlib import Path
from typing import NamedTuple

from nomarium.history.differences import Dated, Difference
from nomarium.history.recall import Recalled
from nomarium.ical.lines import body_writer, event_head, with_original
from nomarium.model.errors import UsageError
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.model.uids import lasting_uid
from nomarium.targets.calendarfile import CalendarHead, head_text
from nomarium.targets.replacing import replace_file


class Revised(NamedTuple):
    """An event as it is to be written: whose UID, in which revision, as which date of a series."""

    event: Event
    uid: str
    sequence: int
    recurrence_id: str = ""
    """Its original start, ISO 8601; nothing for one that is no date of a series."""


def write_changes(listed: Sequence[Difference], path: Path, dtstamp: str) -> int:
    """Write what is different; how many events that is. Raises UsageError where the older state has no UIDs."""
    revised = [_revised(one) for one in listed]
    write_revised(revised, path, CalendarHead(""), dtstamp)  # without a name: it must not rename a calendar
    return len(revised)


def _revised(one: Difference) -> Revised:
    if one.old is None:
        assert one.new is not None
        event = one.new.event
        uid = one.new.uid or lasting_uid("compare", event.summary, event.start.isoformat())
        return Revised(event, uid, event.details.sequence, one.new.recurrence_id)
    old = one.old
    if not old.uid:
        message = "The events of OLD have no UIDs, so that no calendar would know which ones these are."
        raise UsageError(Problem("usage", message, "Give the calendar file that people have as OLD."))
    if one.new is None:
        return withdrawn(old)
    sequence = max(old.event.details.sequence + 1, one.new.event.details.sequence)
    return Revised(one.new.event, old.uid, sequence, old.recurrence_id)


def withdrawn(one: Dated) -> Revised:
    """An event as cancelled, in the revision after its own."""
    details = one.event.details._replace(status="CANCELLED", recurrence=None)
    return Revised(
        one.event._replace(details=details), one.uid, one.event.details.sequence + 1, one.recurrence_id
    )


def write_recall(taken: Recalled, path: Path, dtstamp: str) -> None:
    """Write what takes a calendar back: METHOD:CANCEL; METHOD:REQUEST where a series gets an end instead (RFC 5546, 3.2)."""
    revised = [withdrawn(one) for one in taken.withdrawn]
    shortened = [Revised(event, event.details.uid, event.details.sequence + 1) for event in taken.shortened]
    method = "REQUEST" if shortened else "CANCEL"
    write_revised([*revised, *shortened], path, CalendarHead("", method=method), dtstamp)


def write_revised(revised: Iterable[Revised], path: Path, head: CalendarHead, dtstamp: str) -> None:
    """Write events as one calendar file, replaced whole."""
    listed = list(revised)
    events = [one.event for one in listed]
    zones = {event.zone for event in events if event.zone}
    first = min((event.first_day for event in events), default=dt.date(1970, 1, 1))
    last = max((event.last_day for event in events), default=first)
    floats = any(event.zone is None and not event.is_all_day for event in events)
    text = (
        head_text(head, zones, first, last, floats) + "".join(_blocks(listed, dtstamp)) + "END:VCALENDAR\r\n"
    )
    replace_file(path, lambda file: file.write(text.encode("utf-8", "replace")))


def _blocks(listed: Sequence[Revised], dtstamp: str) -> Iterator[str]:
    body_of = body_writer()
    for one in listed:
        event = one.event
        if one.recurrence_id:
            event = with_original(event, _moment(one.recurrence_id))
        yield event_head(one.uid, dtstamp, one.sequence) + body_of(event)


def _moment(text: str) -> dt.date | dt.datetime:
    return dt.datetime.fromisoformat(text) if "T" in text else dt.date.fromisoformat(text)
