"""Who is in two places at once: a sweep over the starts of what each teacher, room, class, group and person has."""

import datetime as dt
from array import array
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator
from functools import lru_cache
from typing import Final, NamedTuple

from nomarium.checking.finding import Finding, Party
from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.model.wording import counted
from nomarium.reckoning.zones import change_dates, zone_named

_EPOCH: Final = dt.datetime(1970, 1, 1)
_KINDS: Final = (
    ("teacher", "teacher"),
    ("room", "room"),
    ("class", "class"),
    ("group", "group"),
    ("person", "person"),
)
_NO_PLACES: Final = frozenset(("", "tbc", "tba", "tbd", "online", "various", "several", "-", "–", "n/a"))
"""What stands for no one place: nobody can be in it twice."""
_MOST_BESIDE: Final = 3
"""Others at the same time that one event is compared with: a yard for everybody needs no list of all pairs."""
_MOST_AT_ONCE: Final = 100
_MOST_PAIRS: Final = 20
"""Pairs of one name from which on it is one finding."""


class _Kept(NamedTuple):
    """Of an event what a finding needs."""

    summary: str
    uid: str
    source: int
    row: int


class Clashes:
    """Takes events one by one; in little memory, for there may be a million."""

    def __init__(self, where: Callable[[int, int], str]) -> None:
        """`where` says where a row of a source stands, by their numbers."""
        self._where = where
        self._starts, self._ends, self._offsets = array("q"), array("q"), array("l")
        """In UTC, and how far the local clock is before it; seconds. Floating times as they stand, until the end."""
        self._floating: list[int] = []
        self._zones = Counter[str]()
        self._kept: list[_Kept] = []
        self._of: dict[tuple[str, str], array[int]] = defaultdict(lambda: array("l"))
        """(kind, name as compared) → the numbers of its events."""
        self._names: dict[tuple[str, str], str] = {}
        self._keys: dict[object, tuple[tuple[str, str], ...]] = {}
        """School data and place → whose they are: the same for all meetings of a class."""

    def take(self, event: Event, source: int, persons: tuple[str, ...] = ()) -> None:
        """Take an event of a source, by its number; `persons` are those who have it, beside its attendees."""
        start, end = event.start, event.end
        details = event.details
        if not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime) or end <= start:
            return
        if details.status == "CANCELLED" or details.busy is False:
            return
        mark = (details.facets, event.location, details.attendees, persons)
        keys = self._keys.get(mark)
        if keys is None:
            keys = self._keys[mark] = tuple(self._whose(event, persons))
        if not keys:
            return
        number = len(self._kept)
        if event.zone is None:
            self._floating.append(number)
        else:
            self._zones[event.zone] += 1
        offset = _offset(start, event.zone)
        self._starts.append(round((start - _EPOCH).total_seconds()) - offset)
        self._ends.append(round((end - _EPOCH).total_seconds()) - _offset(end, event.zone))
        self._offsets.append(offset)
        self._kept.append(_Kept(event.summary, details.uid, source, event.row_number))
        for key in keys:
            self._of[key].append(number)

    def _whose(self, event: Event, persons: tuple[str, ...]) -> Iterator[tuple[str, str]]:
        people = (*values_of(event, "attendees"), *persons)
        for kind, field in _KINDS:
            names = values_of(event, field) if kind != "person" else (*values_of(event, field), *people)
            for name in names:
                plain = " ".join(name.casefold().split())
                if kind == "room" and (plain in _NO_PLACES or "://" in plain):
                    continue
                key = (kind, plain)
                self._names.setdefault(key, name)
                yield key

    def findings(self) -> Iterator[Finding]:
        """The clashes of everybody, each pair of titles once with all of its dates. Floating times are compared in the zone
        that most of the others have."""
        zone = self._zones.most_common(1)[0][0] if self._zones else None
        for number in self._floating if zone else ():
            offset = _offset(_EPOCH + dt.timedelta(seconds=self._starts[number]), zone)
            self._starts[number] -= offset
            self._ends[number] -= offset
            self._offsets[number] = offset
        self._floating = []
        for key, numbers in self._of.items():
            yield from self._of_one(key, sorted(numbers, key=self._starts.__getitem__))

    def _of_one(self, key: tuple[str, str], numbers: Iterable[int]) -> Iterator[Finding]:
        starts, ends, kept = self._starts, self._ends, self._kept
        pairs: dict[tuple[str, str], list[tuple[int, int]]] = {}
        at_once: list[int] = []
        for number in numbers:
            begin = starts[number]
            at_once = [other for other in at_once if ends[other] > begin][-_MOST_AT_ONCE:]
            for other in at_once[-_MOST_BESIDE:]:
                one, two = kept[other], kept[number]
                if self._is_twin(number, other):
                    continue
                first, second = sorted((one.summary, two.summary))
                pairs.setdefault((first, second), []).append((other, number))
            at_once.append(number)
        if not pairs:
            return
        kind, name = key[0], self._names[key]
        if len(pairs) > _MOST_PAIRS:
            met = [pair for found in pairs.values() for pair in found]
            yield self._finding(
                kind, name, met, f"{counted(len(pairs), 'pair')} of events of {name} are at once."
            )
            return
        for (first, second), met in pairs.items():
            yield self._finding(kind, name, met, f"{name} has “{first}” and “{second}” at once.")

    def _is_twin(self, number: int, other: int) -> bool:
        """Whether two are the same event twice, which is a finding of its own."""
        return (self._starts[number], self._ends[number], self._kept[number].summary) == (
            self._starts[other], self._ends[other], self._kept[other].summary,
        )  # fmt: skip

    def _finding(self, kind: str, name: str, met: list[tuple[int, int]], message: str) -> Finding:
        dates = sorted({_local(self._starts[number], self._offsets[number]).date() for _, number in met})
        often = (
            f" On {counted(len(dates), 'date')}, first on {dates[0]}."
            if len(dates) > 1
            else f" On {dates[0]}."
        )
        return Finding(
            f"clash-{kind}", name, tuple(dates), tuple(self._party(one) for one in met[0]), message + often
        )

    def _party(self, number: int) -> Party:
        one = self._kept[number]
        start, end = (
            _local(stamps[number], self._offsets[number]).isoformat() for stamps in (self._starts, self._ends)
        )
        return Party(one.summary, start, end, one.uid, self._where(one.source, one.row))


def _local(secs: int, offset: int) -> dt.datetime:
    return _EPOCH + dt.timedelta(seconds=secs + offset)


@lru_cache(10_000)
def _offset_on(date: dt.date, zone_name: str) -> int | None:
    """How many seconds a zone's clock is before UTC all through a date; None where it changes."""
    zone = zone_named(zone_name)
    if zone is None:
        return 0
    return (
        None
        if date in change_dates(zone, date.year)
        else _offset_at(dt.datetime.combine(date, dt.time(12)), zone)
    )


def _offset_at(moment: dt.datetime, zone: dt.tzinfo) -> int:
    offset = moment.replace(tzinfo=zone).utcoffset()
    return round(offset.total_seconds()) if offset is not None else 0


def _offset(moment: dt.datetime, zone_name: str | None) -> int:
    """How many seconds a zone's clock is before UTC; 0 for floating times."""
    if not zone_name or zone_name == "UTC":
        return 0
    offset = _offset_on(moment.date(), zone_name)
    if offset is None:
        zone = zone_named(zone_name)
        offset = _offset_at(moment, zone) if zone is not None else 0
    return offset
