"""Differences in words, as a letter to those concerned has them: `Rigging moved from 9:25 to 10:35, now in the Mould loft`."""

import datetime as dt
from collections.abc import Iterator, Sequence
from itertools import groupby
from operator import itemgetter
from typing import Final

from nomarium.history.differences import Dated, Difference
from nomarium.model.event import Event, Person
from nomarium.model.wording import WEEKDAYS

_MONTHS: Final = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
_ALIKE: Final = 3
"""Dates from which on the same sentence is said once for all of them."""
_CALLED: Final = {
    "summary": "title",
    "reminder_secs": "reminder",
    "audience": "groups",
    "categories": "categories",
}


def letter(listed: Sequence[Difference]) -> Iterator[tuple[dt.date, list[str]]]:
    """The sentences of each date, in the order of dates; of what moved, the date that it had. What is said of several dates
    alike is said once, at the first of them."""
    said = [(_day(one), sentence(one)) for one in listed]
    dates: dict[str, list[dt.date]] = {}
    for day, text in said:
        dates.setdefault(text, []).append(day)
    once = dict.fromkeys(
        (day, text) for day, text in said if len(dates[text]) < _ALIKE or day == dates[text][0]
    )
    for day, group in groupby(once, key=itemgetter(0)):
        yield day, [_with_dates(text, dates[text]) for _, text in group]


def _with_dates(text: str, dates: Sequence[dt.date]) -> str:
    if len(dates) < _ALIKE:
        return text
    return f"{text.removesuffix('.')} ({len(dates)} dates, to {day_text(dates[-1])})."


def _day(one: Difference) -> dt.date:
    return min(side.event.first_day for side in (one.old, one.new) if side is not None)


def day_text(day: dt.date) -> str:
    """A date as a letter has it.

    >>> day_text(dt.date(2026, 11, 12))
    'Thu 12 Nov 2026'
    """
    return f"{WEEKDAYS[day.weekday()][:3]} {day.day} {_MONTHS[day.month - 1]} {day.year}"


def sentence(one: Difference) -> str:
    """What has become of an event."""
    event = one.shown.event
    if one.what in ("added", "removed"):
        place = f", {event.location}" if event.location else ""
        verb = "is new" if one.what == "added" else "is gone"
        return f"{event.summary} ({_time(event)}{place}) {verb}."
    assert one.old is not None and one.new is not None
    before, after = one.old.event, one.new.event
    parts = [_change(field, before, after) for field in one.fields if field not in ("start", "end")]
    if one.what == "moved":
        return f"{before.summary} {', '.join([f'moved {_move(before, after)}', *parts])}."
    return f"{before.summary}: {', '.join(parts)}."


def _move(before: Event, after: Event) -> str:
    if before.first_day != after.first_day:
        old, new = _time(before), _time(after)
        at_new = "" if old == new == "all day" else f", {new}"
        if before.first_day < after.first_day:  # the sentence stands at the date that it had
            return f"{f'from {old} ' if old != new else ''}to {day_text(after.first_day)}{at_new}"
        at_old = "" if not at_new else f", {old},"
        return f"from {day_text(before.first_day)}{at_old} to {day_text(after.first_day)}{at_new}"
    if before.start == after.start:
        return f"its end from {_end(before)} to {_end(after)}"
    return f"from {_time(before)} to {_time(after)}"


def _time(event: Event) -> str:
    if not isinstance(event.start, dt.datetime) or not isinstance(event.end, dt.datetime):
        return "all day" if event.last_day == event.first_day else f"all day until {day_text(event.last_day)}"
    return f"{event.start.hour}:{event.start.minute:02}–{event.end.hour}:{event.end.minute:02}"


def _end(event: Event) -> str:
    if isinstance(event.end, dt.datetime) and event.end.date() == event.first_day:
        return f"{event.end.hour}:{event.end.minute:02}"
    return day_text(event.last_day)


def _change(field: str, before: Event, after: Event) -> str:
    old, new = value_text(field, before), value_text(field, after)
    if field == "location":
        return f"now in {new}" if new else f"no longer in {old}"
    if field == "status" and new in ("CANCELLED", "TENTATIVE"):
        return "cancelled" if new == "CANCELLED" else "no longer certain"
    if field == "summary":
        return f"now called “{new}”"
    if field == "description":
        return "with other notes"
    name = _CALLED.get(field, field)
    return (
        f"{name} now {new} (was {old})"
        if old and new
        else f"{name} now {new}"
        if new
        else f"without {name} (was {old})"
    )


def value_text(field: str, event: Event) -> str:
    """What an event says in a field, in one line."""
    if field in ("start", "end"):
        if isinstance(event.start, dt.datetime) and isinstance(event.end, dt.datetime):
            return (event.start if field == "start" else event.end).isoformat(" ", "minutes")
        return (event.first_day if field == "start" else event.last_day).isoformat()
    if field in ("summary", "location", "description"):
        return " ".join(str(getattr(event, field)).split())
    value = dict(event.details.facets).get(field) or getattr(event.details, field, "")
    if field == "busy":
        return "" if value is None else "busy" if value else "free"
    if isinstance(value, Person):
        return value.name or value.email
    if isinstance(value, tuple):
        return ", ".join((one.name or one.email) if isinstance(one, Person) else str(one) for one in value)
    return "" if value is None else str(value)


def rows_of(listed: Sequence[Difference]) -> list[list[str | int | float]]:
    """The differences as rows of a table, headings first: one a field that is another."""
    rows: list[list[str | int | float]] = [["What", "Title", "Date", "Time", "Field", "Before", "After"]]
    for one in listed:
        event = one.shown.event
        time = _time(event) if isinstance(event.start, dt.datetime) else ""
        head = [one.what, event.summary, _day(one).isoformat(), time]
        if not one.fields:
            rows.append([*head, "", *(("", event.location) if one.what == "added" else (event.location, ""))])
        for field in one.fields:
            assert one.old is not None and one.new is not None
            rows.append(
                [
                    *head,
                    _CALLED.get(field, field),
                    value_text(field, one.old.event),
                    value_text(field, one.new.event),
                ]
            )
    return rows


def as_facts(one: Dated) -> dict[str, object]:
    """An event for a machine: ISO 8601, the end of an all-day one its last day."""
    event = one.event
    facts: dict[str, object] = {
        "uid": one.uid, "summary": event.summary, "start": event.start.isoformat(),
        "end": event.end.isoformat() if isinstance(event.end, dt.datetime) else event.last_day.isoformat(),
        "all_day": event.is_all_day, "location": event.location,
    }  # fmt: skip
    if one.recurrence_id:
        facts["recurrence_id"] = one.recurrence_id
    return facts
