"""When everybody is free: by date, and by label and period of the cycle, from the events of any sources."""

import datetime as dt
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.reckoning.intervals import Interval, gaps, is_free, joined
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import zone_named
from nomarium.school.planheads import plain
from nomarium.school.ringing import Ring
from nomarium.sources.dated import on_dates
from nomarium.sources.source import Source

_DAY: Final = dt.timedelta(days=1)
_EPOCH: Final = dt.datetime(1970, 1, 1)
_FIELDS: Final = (
    "teacher",
    "room",
    "class",
    "group",
    "division",
    "audience",
    "attendees",
    "organizer",
    "person",
)
"""What of an event names somebody who has it."""


class Wanted(NamedTuple):
    """What is looked for."""

    length_secs: int
    who: tuple[str, ...] = ()
    """Who must be free; everybody of all sources when nobody is named."""
    between: tuple[int, int] | None = None
    """Seconds of the day; as the events are when not given."""
    weekdays: frozenset[int] = frozenset()
    window: Window = Window()
    zone_name: str | None = None
    horizon: dt.date | None = None


class Slot(NamedTuple):
    """A stretch of one date in which all are free, in local time."""

    start: dt.datetime
    end: dt.datetime
    label: str
    """Of its date in the cycle."""
    utc: tuple[dt.datetime, dt.datetime]


class Regular(NamedTuple):
    """A period of the days of a label, and on how many of them all are free in all of it."""

    label: str
    period: str
    start: dt.time
    end: dt.time
    free: int
    of: int


class Free(NamedTuple):
    """What was found."""

    slots: Sequence[Slot]
    regular: Sequence[Regular]
    busy: Sequence[tuple[dt.datetime, dt.datetime]]
    """When somebody has something, joined, in UTC."""
    first: dt.date | None
    last: dt.date | None
    zone_name: str | None
    unknown: Sequence[str]
    """Names that no event has."""
    names: Sequence[str]
    """All that events have."""


class _Taken(NamedTuple):
    """An event as far as it matters here."""

    start: dt.date | dt.datetime
    end: dt.date | dt.datetime
    zone: str | None
    is_theirs: bool


def free_times(
    sources: Sequence[Source],
    rings: Iterable[Ring],
    wanted: Wanted,
    progress: Callable[[int], None] | None = None,
) -> Free:
    """Find when all are free. `rings` are the periods of plans; without any those that events say they are in. The accounts of
    the sources are complete then."""
    looking = {plain(name) for name in wanted.who}
    names, met = dict[str, str](), set[str]()
    taken, said = list[_Taken](), list[Ring]()
    count = 0
    for source in sources:
        whose = _Whose(source)
        for _, _, found in on_dates((source,), wanted.window, wanted.zone_name, wanted.horizon):
            event = found.event
            count += 1
            if progress is not None and not count & 1023:
                progress(count)
            mine = whose(event)
            names |= mine
            met |= looking & mine.keys()
            ring = _ring_of(event)
            if ring is not None:
                said.append(ring)
            is_banner = source.calendars.everywhere or (event.is_all_day and not mine)
            blocks = event.details.status != "CANCELLED" and event.details.busy is not False and not is_banner
            is_theirs = blocks and (not looking or bool(looking & mine.keys()))
            taken.append(_Taken(event.start, event.end, event.zone, is_theirs))
    zone_name = wanted.zone_name or _commonest(taken)
    planned = list(rings)
    return _found(taken, planned or said, bool(planned), wanted, zone_name)._replace(
        unknown=[name for name in wanted.who if plain(name) not in met], names=list(names.values())
    )


class _Whose:
    """Who has an event, by names as they are compared; found once for all that say the same of it."""

    def __init__(self, source: Source) -> None:
        self._source = source
        self._known: dict[object, dict[str, str]] = {}

    def __call__(self, event: Event) -> dict[str, str]:
        details = event.details
        mark = (details.facets, event.location, details.audience, details.attendees, details.organizer)
        known = self._known.get(mark)
        if known is None:
            known = self._known[mark] = {plain(name): name for name in self._names(event) if plain(name)}
        return known

    def _names(self, event: Event) -> Iterator[str]:
        for field in _FIELDS:
            for name in values_of(event, field):
                yield name
                code = self._source.codes.get((field, name))
                if code:
                    yield code
        people = (*event.details.attendees, *([event.details.organizer] if event.details.organizer else []))
        yield from (person.email for person in people if person.email)
        persons_of = self._source.calendars.persons_of
        if persons_of is not None:
            yield from persons_of(event)


def _ring_of(event: Event) -> Ring | None:
    """The period that an event says it is in, of which label; None when it says neither or takes several."""
    facets = dict(event.details.facets)
    label, period = facets.get("label", ""), facets.get("period", "")
    start, end = event.start, event.end
    if (
        not label
        or not period
        or "–" in period
        or not isinstance(start, dt.datetime)
        or not isinstance(end, dt.datetime)
    ):
        return None
    return Ring(start.date(), label, period, _secs(start), _secs(end)) if end.date() == start.date() else None


def _secs(moment: dt.datetime) -> int:
    return moment.hour * 3600 + moment.minute * 60 + moment.second


def _commonest(taken: Iterable[_Taken]) -> str | None:
    zones = Counter(one.zone for one in taken if one.zone is not None)
    named = [zone for zone, _ in zones.most_common() if zone != "UTC"]
    return (named or ["UTC"])[0] if zones else None


class _Clock:
    """Local times of one zone as seconds that pass evenly, and back."""

    def __init__(self, zone_name: str | None) -> None:
        self.zone = dt.UTC if zone_name in (None, "UTC") else zone_named(zone_name or "")

    def instant(self, local: dt.datetime, zone_name: str | None) -> int:
        zone = self.zone if zone_name is None else dt.UTC if zone_name == "UTC" else zone_named(zone_name)
        return round(
            (local.replace(tzinfo=zone).astimezone(dt.UTC).replace(tzinfo=None) - _EPOCH).total_seconds()
        )

    def local(self, instant: int) -> dt.datetime:
        utc = (_EPOCH + dt.timedelta(seconds=instant)).replace(tzinfo=dt.UTC)
        return utc.astimezone(self.zone).replace(tzinfo=None, fold=0)

    def at(self, day: dt.date, secs: int) -> int:
        return self.instant(dt.datetime.combine(day, dt.time()) + dt.timedelta(seconds=secs), None)


def _found(
    taken: Sequence[_Taken], rings: Sequence[Ring], is_whole: bool, wanted: Wanted, zone_name: str | None
) -> Free:
    """`is_whole`: the rings are all that there are, not only those in which somebody meets."""
    clock = _Clock(zone_name)
    busy: list[Interval] = []
    starts, ends, days = list[int](), list[int](), set[dt.date]()
    for one in taken:
        if isinstance(one.start, dt.datetime) and isinstance(one.end, dt.datetime):
            first, last = clock.instant(one.start, one.zone), clock.instant(one.end, one.zone)
            local, until = clock.local(first), clock.local(last)
            days.add(local.date())
            if until.date() == local.date():  # what goes on over night says nothing of the day's hours
                starts.append(_secs(local))
                ends.append(_secs(until))
        else:
            first, last = clock.at(_day(one.start), 0), clock.at(_day(one.end), 0)
        if one.is_theirs and last > first:
            busy.append((first, last))
    whole = joined(busy)
    shown = [(_moment(a), _moment(b)) for a, b in whole]
    label_of = {ring.date: ring.label for ring in rings}
    looked = sorted(_dates(days, label_of.keys(), wanted))
    between = wanted.between or ((min(starts), max(ends)) if starts else None)
    free = Free(
        [], [], shown, looked[0] if looked else None, looked[-1] if looked else None, zone_name, (), ()
    )
    if between is None or not looked:
        return free
    slots = [
        Slot(clock.local(a), clock.local(b), label_of.get(day, ""), (_moment(a), _moment(b)))
        for day in looked
        for a, b in gaps(whole, clock.at(day, between[0]), clock.at(day, between[1]), wanted.length_secs)
    ]
    return free._replace(
        slots=slots, regular=_regular(whole, rings, is_whole, set(looked), between, wanted, clock)
    )


def _dates(days: set[dt.date], taught: Iterable[dt.date], wanted: Wanted) -> Iterator[dt.date]:
    """The dates that are looked at: school days where they are known, else Monday to Friday and other weekdays with events."""
    taught = set(taught)
    first = wanted.window.first or min((*days, *taught), default=None)
    last = wanted.window.last or max((*days, *taught), default=None)
    if first is None or last is None:
        return
    weekdays = wanted.weekdays or {*range(5), *(day.weekday() for day in days)}
    for n in range((last - first).days + 1):
        day = first + n * _DAY
        if day in taught if taught and not wanted.weekdays else day.weekday() in weekdays:
            yield day


def _regular(
    busy: Sequence[Interval], rings: Sequence[Ring], is_whole: bool, looked: set[dt.date], between: tuple[int, int], wanted: Wanted, clock: _Clock
) -> list[Regular]:  # fmt: skip
    """How often each period is free, best first. The times of a period are those that it has most often."""
    dates: dict[tuple[str, str], dict[tuple[int, int], set[dt.date]]] = defaultdict(lambda: defaultdict(set))
    order = dict[str, int]()
    labels: dict[str, set[dt.date]] = defaultdict(set)
    for ring in rings:
        if ring.date in looked:
            order.setdefault(ring.label, len(order))
            labels[ring.label].add(ring.date)
            dates[ring.label, ring.period][ring.start_secs, ring.end_secs].add(ring.date)
    found = []
    for (label, period), times in dates.items():
        for (start, end), ringing in times.items():
            if end - start < wanted.length_secs or start < between[0] or end > between[1]:
                continue
            elsewhere = {day for other, some in times.items() if other != (start, end) for day in some}
            mine = ringing if is_whole else labels[label] - elsewhere
            free = sum(is_free(busy, clock.at(day, start), clock.at(day, end)) for day in mine)
            found.append(Regular(label, period, _time(start), _time(end), free, len(mine)))
    return sorted(found, key=lambda one: (-one.free / one.of, -one.of, one.start, order[one.label]))


def whatever_label(regular: Iterable[Regular]) -> list[Regular]:
    """The same for each period whatever the label: on how many of all days it is free."""
    whole: dict[tuple[str, dt.time, dt.time], tuple[int, int]] = {}
    for one in regular:
        free, of = whole.get((one.period, one.start, one.end), (0, 0))
        whole[one.period, one.start, one.end] = free + one.free, of + one.of
    found = [Regular("", period, start, end, free, of) for (period, start, end), (free, of) in whole.items()]
    return sorted(found, key=lambda one: (-one.free / one.of, -one.of, one.start))


def _moment(instant: int) -> dt.datetime:
    return _EPOCH + dt.timedelta(seconds=instant)


def _time(secs: int) -> dt.time:
    return (_EPOCH + dt.timedelta(seconds=secs % 86_400)).time()


def _day(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment
