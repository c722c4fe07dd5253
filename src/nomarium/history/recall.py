"""Which events of a calendar are to be withdrawn, and how: whole series, single dates, or what comes from a date on
(RFC 5546, 3.2.5)."""

import datetime as dt
from collections.abc import Iterator
from typing import NamedTuple

from nomarium.history.differences import Dated
from nomarium.ical.merging import merged
from nomarium.ical.reader import CalendarRead
from nomarium.model.entry import Entry, Series
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem
from nomarium.model.wording import counted
from nomarium.reckoning.series import series_occurrences
from nomarium.reckoning.window import Window

_DAY = dt.timedelta(days=1)


class Recalled(NamedTuple):
    """What is taken back."""

    withdrawn: list[Dated]
    shortened: list[Event]
    """Series without an end, as they are to go on: with one."""
    problems: list[Problem]

    def told(self) -> Iterator[str]:
        """What it comes to, in lines."""
        if self.withdrawn:
            yield f"{counted(len(self.withdrawn), 'event is', 'events are')} withdrawn."
        for event in self.shortened:
            yield f"“{event.summary}” has no end: it is given one, so that its later dates go (METHOD:REQUEST)."


def recalled(calendar: CalendarRead, first: dt.date | None) -> Recalled:
    """Withdraw every event of a calendar, or what is on a date or later: of a series that began before, each later date;
    one without an end gets an end instead."""
    found = Recalled([], [], [])
    place = Place(calendar.file)
    nameless = sum(not entry.event.details.uid for entry in calendar.entries)
    for series in merged(calendar.entries).series:
        _take(series, first, found)
    if nameless:
        message = f"{counted(nameless, 'event has', 'events have')} no UID: no calendar could know which to take out."
        found.problems.append(
            Problem(
                "recall-nameless", message, "Take them out by hand, or recall the file that was built.", place
            )
        )
    elif not found.withdrawn and not found.shortened:
        when = f" from {first} on" if first else ""
        found.problems.append(
            Problem(
                "recall-nothing",
                f"There is nothing to withdraw{when}.",
                "Look at the calendar: nomarium view.",
                place,
            )
        )
    return found


def over_revisions(taken: Recalled, theirs: CalendarRead) -> Recalled:
    """The same in revisions that are over those of a calendar that people have changed."""
    highest: dict[str, int] = {}
    for entry in theirs.entries:
        details = entry.event.details
        highest[details.uid] = max(highest.get(details.uid, 0), details.sequence)

    def raised(event: Event, uid: str) -> Event:
        details = event.details
        return event._replace(details=details._replace(sequence=max(details.sequence, highest.get(uid, 0))))

    return taken._replace(
        withdrawn=[one._replace(event=raised(one.event, one.uid)) for one in taken.withdrawn],
        shortened=[raised(event, event.details.uid) for event in taken.shortened],
    )


def _take(series: Series, first: dt.date | None, found: Recalled) -> None:
    main = series.main
    if (
        first is None
        or main is None
        or main.event.details.recurrence is None
        or main.event.first_day >= first
    ):
        for entry in series.entries:
            if _is_open(entry) and (first is None or entry.event.last_day >= first):
                found.withdrawn.append(_dated(entry))
        return
    if series.is_endless:
        recurrence = main.event.details.recurrence
        rules = tuple(
            rule._replace(until=first - _DAY, until_is_utc=False, times=None) if rule.is_endless else rule
            for rule in recurrence.rules
        )
        details = main.event.details._replace(recurrence=recurrence._replace(rules=rules))
        found.shortened.append(main.event._replace(details=details))
        return
    for one in series_occurrences(series, Window(first=first), None):
        found.withdrawn.append(Dated(one.event, main.event.details.uid, one.original.isoformat()))


def _is_open(entry: Entry) -> bool:
    return entry.event.details.status != "CANCELLED"


def _dated(entry: Entry) -> Dated:
    original = entry.original.local.isoformat() if entry.original is not None else ""
    return Dated(entry.event, entry.event.details.uid, original)
