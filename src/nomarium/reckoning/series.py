"""Series of events: the occurrences of one that repeats, and what replaces some of them
(RFC 5545, 3.8.4.4 and 3.8.5)."""

import datetime as dt
import heapq
from collections.abc import Container, Iterable, Iterator
from itertools import takewhile
from typing import NamedTuple

from nomarium.model.entry import Entry, Series, as_utc
from nomarium.model.errors import SourceError
from nomarium.model.event import Event
from nomarium.model.limits import MOST_DATES
from nomarium.model.problem import Problem
from nomarium.model.recurrence import Recurrence
from nomarium.model.uids import occurrence_uid
from nomarium.reckoning.starts import starts
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import after_gap, change_dates, elapsed, in_zone, local_time_kind, zone_named

_DAY = dt.timedelta(days=1)


class Occurrence(NamedTuple):
    """One dated event of a series."""

    event: Event
    original: dt.date | dt.datetime
    """Its start as the rule gives it, by which it can be replaced."""
    is_skipped: bool = False
    """Whether a clock change skips its local time, so that it was moved on."""
    is_replaced: bool = False
    """Whether an entry of its own replaces what the rule gives: no rule can say it."""


def originals(event: Event, recurrence: Recurrence, window: Window) -> Iterator[dt.date | dt.datetime]:
    """The local starts of an event that repeats, in order, each once, from about the window's first day.

    Starts on days off are left out, unless they were asked for one by one.
    """
    begin = event.start
    reach = (event.end - event.start).days + 2
    first = window.first - reach * _DAY if window.first and window.first.toordinal() > reach else None
    closed = window.days_off if recurrence.on_school_days else frozenset[int]()
    streams: list[Iterable[dt.date | dt.datetime]] = [
        starts(rule, begin, first, window.last, closed) for rule in recurrence.rules
    ]
    untils = [rule.until for rule in recurrence.rules if rule.until is not None]
    began_too_late = untils and all(_day(begin) > _day(until) for until in untils)
    asked = sorted({_like(begin, day) for day in recurrence.also_on} | {p[0] for p in recurrence.also_until})
    if recurrence.starts_itself and not began_too_late:
        streams.append([begin])
    if window.days_off:
        off = window.days_off
        streams = [(day for day in stream if day.toordinal() not in off) for stream in streams]
    streams.append(asked)
    merged = streams[0] if len(streams) == 1 else heapq.merge(*streams)
    left_out = {
        day for day in recurrence.left_out if isinstance(day, dt.datetime) == isinstance(begin, dt.datetime)
    }
    dates_out = {day for day in recurrence.left_out if not isinstance(day, dt.datetime)}
    for rule in recurrence.excluding:
        left_out.update(takewhile(lambda day: _day(day) <= (window.last or dt.date.max), starts(rule, begin)))
    previous = None
    for count, day in enumerate(merged):
        if count > MOST_DATES:
            raise _too_many(event)
        if day == previous:
            continue
        previous = day
        if day in left_out or (dates_out and _day(day) in dates_out):
            continue
        if window.last is not None and _day(day) > window.last:
            return
        yield day


def _too_many(event: Event) -> SourceError:
    message = f"“{event.summary}” has more than {MOST_DATES:,} dates, the most that one event may have."
    return SourceError(
        Problem("dates-beyond", message, "Give its repeat an end, or ask for fewer: --from and --until.")
    )


def _day(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment


def _like(begin: dt.date | dt.datetime, day: dt.date | dt.datetime) -> dt.date | dt.datetime:
    """An added date as a start of the same kind: at the event's time of day, or without a time."""
    if isinstance(begin, dt.datetime):
        return day if isinstance(day, dt.datetime) else dt.datetime.combine(day, begin.time())
    return _day(day)


def occurrences(
    event: Event, zone: dt.tzinfo | None, window: Window, to_zone: tuple[str, dt.tzinfo] | None = None
) -> Iterator[Occurrence]:
    """The dated events of one that repeats, in order, within a window (an event without a recurrence is
    its only one). Endless when the rule and the window are.

    Times in a zone that only its file explains (`zone` without `event.zone`) become `to_zone`'s, or UTC.
    """
    recurrence = event.details.recurrence
    if recurrence is None:
        alone = Occurrence(_settled(event, zone, to_zone), event.start)
        if window.takes(alone.event):
            yield alone
        return
    details = event.details._replace(recurrence=None)
    make = _Maker(event._replace(details=details), recurrence, zone)
    ends: dict[dt.date | dt.datetime, dt.datetime] = dict(recurrence.also_until)
    for original in originals(event, recurrence, window):
        try:
            found = make.at(original, ends.get(original))
            found = found._replace(event=_settled(found.event, zone, to_zone))
        except OverflowError:  # beyond the year 9999, where there are no dates
            return
        if window.takes(found.event):
            yield found


class _Maker:
    """Makes the event of each start."""

    def __init__(self, event: Event, recurrence: Recurrence, zone: dt.tzinfo | None) -> None:
        self.event = event
        self.uid = event.details.uid
        self.zone = zone if event.zone != "UTC" else None
        self.length = event.end - event.start
        self.exact = self.length
        if self.zone and isinstance(event.start, dt.datetime) and isinstance(event.end, dt.datetime):
            self.exact = event.end.replace(tzinfo=self.zone).astimezone(dt.UTC) - event.start.replace(
                tzinfo=self.zone
            ).astimezone(dt.UTC)
        self.keeps_length = recurrence.keeps_length

    def at(self, start: dt.date | dt.datetime, end: dt.datetime | None = None) -> Occurrence:
        event, details = self.event, self.event.details
        if self.uid:
            details = details._replace(uid=occurrence_uid(self.uid, start))
        original, is_skipped = start, False
        ends: dt.date | dt.datetime = end or start + self.length
        if isinstance(start, dt.datetime) and self.zone is not None and not end:
            changes = change_dates(self.zone, start.year)
            if start.date() in changes:
                is_skipped = local_time_kind(start, self.zone) == "skipped"
                start = after_gap(start, self.zone) if is_skipped else start
            if self.keeps_length:
                ends = max(ends, start)
            elif self.exact != self.length or is_skipped or _crosses(start, ends, self.zone):  # type: ignore[arg-type]
                ends = elapsed(start, self.exact, self.zone)
        new = event._replace(start=start, end=ends, details=details)
        return Occurrence(new, original, is_skipped)


def _crosses(start: dt.datetime, end: dt.datetime, zone: dt.tzinfo) -> bool:
    """Whether a clock change may lie between two local times."""
    days = [start.date() + n * _DAY for n in range((end.date() - start.date()).days + 1)]
    return any(day in change_dates(zone, day.year) for day in days[:400])


def _settled(event: Event, zone: dt.tzinfo | None, to_zone: tuple[str, dt.tzinfo] | None) -> Event:
    """An event whose zone can be named."""
    start, end = event.start, event.end
    if event.zone is not None or zone is None or not isinstance(start, dt.datetime):
        return event
    if not isinstance(end, dt.datetime):
        return event
    name, target = to_zone or ("UTC", dt.UTC)
    moved = [in_zone(moment.replace(tzinfo=zone), target) for moment in (start, end)]
    return event._replace(start=moved[0], end=moved[1], zone=name)


def series_occurrences(
    series: Series, window: Window, to_zone: tuple[str, dt.tzinfo] | None = None
) -> Iterator[Occurrence]:
    """The dated events of a series within a window, in order, those that replace others among them."""
    main = series.main
    recurrence = main.event.details.recurrence if main else None
    if main is None or recurrence is None:
        replaced = {_original(main, entry) for entry in series.replacing} if main else set()
        if main is not None and _key(main, main.event.start) not in replaced:
            yield from occurrences(main.event, main.zone, window, to_zone)
        for entry in series.replacing:
            yield from _replacement(entry, window, to_zone)
        return
    withdrawn = {_key(main, day) for day in recurrence.left_out}
    replacing = {_original(main, entry): entry for entry in series.replacing}
    replacing = {day: entry for day, entry in replacing.items() if not _is_stale(main, entry, day)}
    following = [(day, entry) for day, entry in replacing.items() if entry.and_following]
    following.sort(key=lambda pair: pair[0].isoformat())
    kept = _shifted(main, following, replacing, window, to_zone) if following else (
        _kept(main, replacing, window, to_zone)
    )  # fmt: skip
    new = [
        one
        for day, entry in replacing.items()
        if day not in withdrawn
        for one in _replacement(entry, window, to_zone)
    ]
    yield from heapq.merge(sorted(new, key=_begin), kept, key=_begin) if new else kept


def dates_of(item: Event | Series, window: Window, zone_name: str | None = None) -> Iterator[Occurrence]:
    """An event of any source, or a series, on each of its dates in a window, in order."""
    alone = _alone(item)
    if alone is not None:  # most have one date, which is their own
        return iter((Occurrence(alone, alone.start),) if window.takes(alone) else ())
    to_zone = named_zone(zone_name)
    if isinstance(item, Series):
        return series_occurrences(item, window, to_zone)
    return occurrences(item, zone_named(item.zone) if item.zone else None, window, to_zone)


def _alone(item: Event | Series) -> Event | None:
    """The event that has one date, in a zone that is known; None for anything else."""
    if isinstance(item, Event):
        return item if item.details.recurrence is None else None
    main = item.main
    if main is None or item.replacing or (main.zone is not None and main.event.zone is None):
        return None
    return main.event if main.event.details.recurrence is None else None


def named_zone(name: str | None) -> tuple[str, dt.tzinfo] | None:
    """A zone with its name, as `occurrences` takes it."""
    zone = zone_named(name) if name else None
    return (name, zone) if name and zone else None


def _begin(one: Occurrence) -> str:
    return one.event.start.isoformat()


def _kept(
    main: Entry,
    replacing: Container[dt.date | dt.datetime],
    window: Window,
    to_zone: tuple[str, dt.tzinfo] | None,
) -> Iterator[Occurrence]:
    """The occurrences of a series that nothing replaces. A replaced date stands for every start on it."""
    for found in occurrences(main.event, main.zone, window, to_zone):
        if replacing and (_key(main, found.original) in replacing or _day(found.original) in replacing):
            continue
        yield found


def _shifted(
    main: Entry, following: list[tuple[dt.date | dt.datetime, Entry]], replacing: Container[dt.date | dt.datetime],
    window: Window, to_zone: tuple[str, dt.tzinfo] | None,
) -> Iterator[Occurrence]:  # fmt: skip
    """The occurrences of a series of which some entries change all later ones, too."""
    event, recurrence = main.event, main.event.details.recurrence
    assert recurrence is not None
    moves = [(day.isoformat(), entry.event, _shift(main, entry)) for day, entry in following]
    farthest = max(abs(move) for _, _, move in moves) + 2 * _DAY
    wide = window._replace(
        first=window.first - farthest if window.first else None,
        last=window.last + farthest if window.last else None,
    )
    for original in originals(event, recurrence, wide):
        key = _key(main, original)
        if key in replacing:
            continue
        source, start = event, original
        for since, changed, move in moves:
            if since < key.isoformat():
                source, start = changed, original + move
        made = _Maker(
            source._replace(details=source.details._replace(recurrence=None, uid="")), recurrence, main.zone
        )
        found = made.at(start)
        uid = occurrence_uid(event.details.uid, original) if event.details.uid else ""
        dated = _settled(found.event, main.zone, to_zone)
        dated = dated._replace(details=dated.details._replace(uid=uid))
        if window.takes(dated):
            yield Occurrence(dated, original, found.is_skipped)


def _replacement(entry: Entry, window: Window, to_zone: tuple[str, dt.tzinfo] | None) -> Iterator[Occurrence]:
    """The event that replaces one date of a series, with a UID of its own."""
    details = entry.event.details._replace(recurrence=None)
    if details.uid and entry.original is not None:
        details = details._replace(uid=occurrence_uid(details.uid, local_original(entry)))
    for one in occurrences(entry.event._replace(details=details), entry.zone, window, to_zone):
        original = local_original(entry) if entry.original is not None else one.original
        yield one._replace(is_replaced=True, original=original)


def local_original(entry: Entry) -> dt.date | dt.datetime:
    """The replaced start in the entry's own local time, as the series itself would have called it."""
    assert entry.original is not None
    local = entry.original.local
    if not isinstance(local, dt.datetime) or not isinstance(entry.event.start, dt.datetime):
        return _day(local)
    if entry.original.zone is None or entry.zone is None:
        return local
    return in_zone(local.replace(tzinfo=entry.original.zone), entry.zone)


def _key(main: Entry, day: dt.date | dt.datetime) -> dt.date | dt.datetime:
    """A start of a series as starts are compared: in UTC when it has a zone."""
    return as_utc(day, main.zone)


def _original(main: Entry, entry: Entry) -> dt.date | dt.datetime:
    """The start that an entry replaces, as `_key` would give it: a date in a series of dates, whatever
    it is written as; a floating time is one of the series' own zone."""
    assert entry.original is not None
    local, zone = entry.original.local, entry.original.zone
    if not isinstance(main.event.start, dt.datetime):
        return _day(local)
    return as_utc(local, zone or main.zone)


def _is_stale(main: Entry, entry: Entry, day: dt.date | dt.datetime) -> bool:
    """Whether an entry with a rule of its own is left over from an earlier state of the series: older
    than the series, which has no such start any more."""
    details = entry.event.details
    if details.recurrence is None or details.sequence >= main.event.details.sequence:
        return False
    recurrence = main.event.details.recurrence
    assert recurrence is not None
    around = Window(_day(day) - _DAY, _day(day) + _DAY)
    return all(_key(main, start) != day for start in originals(main.event, recurrence, around))


def _shift(main: Entry, entry: Entry) -> dt.timedelta:
    """By how much an entry moves the start that it replaces, on the clock of the series."""
    start, original = entry.event.start, local_original(entry)
    if not isinstance(start, dt.datetime) or not isinstance(original, dt.datetime):
        return _day(start) - _day(original)
    if entry.zone is not None and main.zone is not None and entry.zone is not main.zone:
        start = in_zone(start.replace(tzinfo=entry.zone), main.zone)
        original = in_zone(original.replace(tzinfo=entry.zone), main.zone)
    return start - original
