"""A calendar as one settles it: all that bears one UID together, with what is known of it from the last build."""

import datetime as dt
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import islice
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.history.settling.fields import zone_of
from nomarium.history.settling.marks import NO_MARKS, Gone, Marks, gone_in, marks_in
from nomarium.ical.merging import merged
from nomarium.ical.reader import CalendarRead
from nomarium.model.entry import Entry, as_utc
from nomarium.model.event import Event
from nomarium.model.recurrence import Rule
from nomarium.reckoning.rules import with_local_until, with_written_until
from nomarium.reckoning.series import occurrences, originals
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import in_zone

_MOST_DATES: Final = 5_000
_NO_DATES: Final[Mapping[dt.date, Entry]] = MappingProxyType({})
_NO_MARKS: Final[Mapping[dt.date | None, Marks]] = MappingProxyType({})


class Unit(NamedTuple):
    """All entries of one UID."""

    main: Entry | None
    """What repeats, or stands alone."""
    dates: Mapping[dt.date, Entry] = _NO_DATES
    """What replaces a date of it."""
    marks: Mapping[dt.date | None, Marks] = _NO_MARKS
    """What is known of the one that repeats (None), and of each date."""

    @property
    def of_main(self) -> Marks:
        return self.marks.get(None, NO_MARKS)

    @property
    def shown(self) -> Event:
        """The event that a message is about."""
        return self.main.event if self.main is not None else next(iter(self.dates.values())).event


class Units(NamedTuple):
    """A whole calendar."""

    by_uid: Mapping[str, Unit]
    """An event without a UID stands under a name that no UID can be."""
    gone: Mapping[str, Gone] = MappingProxyType({})
    """Events that are not to come back, by UID."""


def units_in(calendars: Iterable[CalendarRead], zone_name: str | None) -> Units:
    """The units of calendar files, in their order; of two states of an event the newer one. Times in zones that only their
    file explains become those of `zone_name`, or UTC."""
    entries: list[Entry] = []
    marks: dict[tuple[str, dt.date | None], Marks] = {}
    gone: dict[str, Gone] = {}
    for calendar in calendars:
        gone |= gone_in(calendar.gone)
        for entry in calendar.entries:
            entries.append(_named(entry, zone_name))
            text = calendar.bases.get(entry.event.row_number)
            if text is not None:
                marks[entry.event.details.uid, _replaced(entry, entry)] = marks_in(text)
    found: dict[str, Unit] = {}
    for number, series in enumerate(merged(entries).series):
        main = series.main
        uid = series.entries[0].event.details.uid
        dates = {_date(main or entry, entry): entry for entry in series.replacing}
        known = {
            day: marks[uid, day] for day in (None, *(_replaced(one, one) for one in series.replacing)) if (uid, day) in marks
        }  # fmt: skip
        found[uid or f"\0{number}"] = Unit(main, dates, known)
    return Units(found, gone)


def with_all_of(edited: Units, given: Units, parts: Sequence[frozenset[str]]) -> Units:
    """The changed calendar with everything of the files whose calendar it is not: nobody has deleted that. `parts` are the
    UIDs of each file of a split; what is in every file tells nothing."""
    everywhere = frozenset.intersection(*parts)
    covered = [part for part in parts if (part - everywhere) & edited.by_uid.keys()]
    seen = frozenset[str]().union(*covered)
    rest = {uid: unit for uid, unit in given.by_uid.items() if uid not in seen and uid not in edited.by_uid}
    return edited._replace(by_uid={**edited.by_uid, **rest})


def _named(entry: Entry, zone_name: str | None) -> Entry:
    """An entry whose zone can be named."""
    if entry.zone is None or entry.event.zone is not None:
        return entry
    from nomarium.reckoning.series import named_zone

    name, zone = named_zone(zone_name) or ("UTC", dt.UTC)
    moved = [
        in_zone(moment.replace(tzinfo=entry.zone), zone) if isinstance(moment, dt.datetime) else moment
        for moment in (entry.event.start, entry.event.end)
    ]
    return entry._replace(event=entry.event._replace(start=moved[0], end=moved[1], zone=name), zone=zone)


def _replaced(main: Entry, entry: Entry) -> dt.date | None:
    return None if entry.original is None else _date(main, entry)


def _date(main: Entry, entry: Entry) -> dt.date:
    """The date of a series that an entry replaces."""
    assert entry.original is not None
    local, zone = entry.original.local, entry.original.zone
    if not isinstance(local, dt.datetime):
        return local
    if zone is None or main.zone is None or zone is main.zone:
        return local.date()
    return in_zone(local.replace(tzinfo=zone), main.zone).date()


def as_entry(event: Event) -> Entry:
    """An event of a source as an entry: the ends of its rules are on its own clock, as those that were read."""
    zone = zone_of(event)
    return Entry(_with_rules(event, lambda rule: with_local_until(rule, event.start, zone)), zone)


def as_written(event: Event) -> Event:
    """A settled event with the ends of its rules as a calendar file must have them."""
    zone = zone_of(event)
    return _with_rules(event, lambda rule: with_written_until(rule, event.start, zone))


def _with_rules(event: Event, changed: Callable[[Rule], Rule]) -> Event:
    recurrence = event.details.recurrence
    if recurrence is None or not recurrence.rules:
        return event
    rules = tuple(map(changed, recurrence.rules))
    return event._replace(details=event.details._replace(recurrence=recurrence._replace(rules=rules)))


def dates_of_rule(entry: Entry) -> Sequence[dt.date]:
    """The dates on which a series starts, those that it leaves out among them; none of an event that stands alone."""
    recurrence = entry.event.details.recurrence
    if recurrence is None:
        return ()
    starts = originals(entry.event, recurrence._replace(left_out=()), Window())
    return [day_of(start) for start in islice(starts, _MOST_DATES)]


def day_of(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment


def same_date(day: dt.date, old: Sequence[dt.date], new: Sequence[dt.date]) -> dt.date | None:
    """The date of a series in its other state: the one in the same place where both have as many, else itself if it is there."""
    if len(old) == len(new) and day in old:
        return new[old.index(day)]
    return day if day in new else None


def on_date(entry: Entry, day: dt.date) -> Entry | None:
    """A series on one of its dates; None where it has none that day."""
    for one in occurrences(entry.event, entry.zone, Window(first=day, last=day)):
        if day_of(one.original) == day:
            details = one.event.details._replace(uid=entry.event.details.uid)
            return Entry(one.event._replace(details=details), entry.zone)
    return None


def left_out_of(entry: Entry) -> frozenset[dt.date]:
    """The dates that a series leaves out."""
    recurrence = entry.event.details.recurrence
    return frozenset(map(day_of, recurrence.left_out)) if recurrence else frozenset()


def last_start_of(event: Event, zone: dt.tzinfo | None) -> dt.date | None:
    """The last date on which an event that repeats starts, as far as it is followed; None for one that does not."""
    days = dates_of_rule(Entry(event, zone))
    return days[-1] if days else None


def utc_text(entry: Entry) -> str:
    """When an entry begins and ends, for comparing."""
    return "/".join(as_utc(moment, entry.zone).isoformat() for moment in (entry.event.start, entry.event.end))
