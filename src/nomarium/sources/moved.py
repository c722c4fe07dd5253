"""Lists with dates of their own, moved to another first day: last year's programme for this year."""

import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple

from nomarium.ical.reader import CalendarRead
from nomarium.model.account import Account
from nomarium.model.entry import Entry
from nomarium.model.errors import SourceError
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.model.refusal import BEYOND
from nomarium.model.wording import counted
from nomarium.reading.layouts.layout import Reading

_RELATIVE = frozenset(("week", "day"))


class Move(NamedTuple):
    """By how much a list is moved, and what is to be said of it."""

    by: dt.timedelta
    told: Problem

    def moved(self, event: Event) -> Event:
        """An event on its new dates: its times stay, and its repeat moves along. Raises SourceError for one that would
        leave the years that a date can have."""
        recurrence = event.details.recurrence
        try:
            new = event._replace(start=event.start + self.by, end=event.end + self.by)
            if recurrence is None:
                return new
            return new._replace(details=event.details._replace(recurrence=_moved(recurrence, self.by)))
        except OverflowError as error:
            raise SourceError(BEYOND.problem(self.told.place, event.summary)) from error


def has_own_dates(reading: Reading) -> bool:
    """Whether a sheet says its dates, and does not count them from a first day."""
    table = reading.table
    fields = {column.field for column in table.columns} if table is not None else set()
    return bool(fields & {"date", "when", "start", "milestone"}) and not fields & _RELATIVE


def move_of(reading: Reading, first_day: dt.date) -> Move | Problem | None:
    """The move of a list whose first date is to be `first_day`; None when it has no event, a problem when something in
    it cannot be moved. Every row is read for it."""
    sheet = reading.sheet
    return _move(reading.events(Account(sheet.title)), first_day, sheet.place)


def moved_calendars(
    calendars: Sequence[CalendarRead], first_day: dt.date
) -> tuple[Sequence[CalendarRead], Problem | None]:
    """Calendars with all their entries moved together, and what is to be said of it: a problem when something in them
    cannot be moved."""

    def place(line: int | None) -> Place:
        return Place(calendars[0].file, "", line, unit="line")

    move = _move((entry.event for calendar in calendars for entry in calendar.entries), first_day, place)
    if not isinstance(move, Move):
        return calendars, move
    told = move.told._replace(
        message=f"{move.told.message} Their UIDs stay: where the old ones are, they are replaced."
    )
    return [
        calendar.with_entries([_entry_moved(entry, move) for entry in calendar.entries])
        for calendar in calendars
    ], told


def _entry_moved(entry: Entry, move: Move) -> Entry:
    original = entry.original and entry.original._replace(local=entry.original.local + move.by)
    return entry._replace(event=move.moved(entry.event), original=original)


def _move(
    events: Iterable[Event], first_day: dt.date, place: Callable[[int | None], Place]
) -> Move | Problem | None:
    first: dt.date | None = None
    for event in events:
        first = event.first_day if first is None else min(first, event.first_day)
        recurrence = event.details.recurrence
        if recurrence is not None and not all(map(_is_movable, (*recurrence.rules, *recurrence.excluding))):
            message = (
                f"“{event.summary}” repeats by months or years, and cannot be moved by a number of days."
            )
            remedy = "Give its new repeat, or take it out."
            return Problem("move-repeat", message, remedy, place(event.row_number))
    if first is None or first == first_day:
        return None
    days = (first_day - first).days
    message = f"Its dates are moved by {counted(abs(days), 'day')}: the first, {first}, is now {first_day}."
    if days % 7:
        message += f" They fall on other weekdays: a {first:%A} is now a {first_day:%A}."
    return Move(dt.timedelta(days), note("dates-moved", message).at(place(None)))


def _is_movable(rule: Rule) -> bool:
    by_calendar = rule.months or rule.weeks or rule.year_days or rule.month_days or rule.positions
    return rule.freq not in ("YEARLY", "MONTHLY") and not by_calendar


def _moved(recurrence: Recurrence, by: dt.timedelta) -> Recurrence:
    return recurrence._replace(
        rules=tuple(_rule_moved(rule, by) for rule in recurrence.rules),
        excluding=tuple(_rule_moved(rule, by) for rule in recurrence.excluding),
        also_on=tuple(day + by for day in recurrence.also_on),
        also_until=tuple((first + by, last + by) for first, last in recurrence.also_until),
        left_out=tuple(day + by for day in recurrence.left_out),
    )


def _rule_moved(rule: Rule, by: dt.timedelta) -> Rule:
    return rule._replace(
        until=rule.until + by if rule.until else None,
        weekdays=tuple((ordinal, (day + by.days) % 7) for ordinal, day in rule.weekdays),
        week_start=(rule.week_start + by.days) % 7,
    )
