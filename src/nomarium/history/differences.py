"""What is different between two states of a calendar: added, removed, moved, changed, and what of each."""

import datetime as dt
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import Final, Literal, NamedTuple

from nomarium.history.pairing import pair_moved
from nomarium.history.revisions import Sketch
from nomarium.model.entry import Series
from nomarium.model.event import Details, Event
from nomarium.model.uids import is_made_uid
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import zone_named
from nomarium.sources.dated import on_dates
from nomarium.sources.source import Source

What = Literal["added", "removed", "moved", "changed"]
_DETAILS: Final = (
    "categories", "audience", "organizer", "attendees", "url", "conference", "status", "privacy", "busy", "reminder_secs", "color",
    "priority", "geo",
)  # fmt: skip
_COMPARED: Final = Details._fields.index("uid")
"""The fields of details that say what an event is; those after them are its identity."""


class Dated(NamedTuple):
    """An event on one of its dates, as a calendar has it."""

    event: Event
    uid: str
    """Of a series that of the series; blank where the source gives none."""
    recurrence_id: str = ""
    """Its original start, when it is one of a series (RFC 5545, 3.8.4.4)."""
    number: int = 0
    """Which it is on its side, from 0: what tells events without a UID apart."""

    @property
    def key(self) -> tuple[str, str]:
        return self.uid, self.recurrence_id


class Difference(NamedTuple):
    """One event that is not as it was."""

    what: What
    old: Dated | None
    new: Dated | None
    fields: tuple[str, ...] = ()
    """What of it is another, `start` and `end` first."""

    @property
    def shown(self) -> Dated:
        """The event as it is now, or was last."""
        found = self.new or self.old
        assert found is not None
        return found


class Differences(NamedTuple):
    """All of them, in the order of dates."""

    listed: Sequence[Difference]
    unchanged: int
    loose_count: int
    """Events that are floating on one side and in a zone on the other, at the same time of the clock: taken as unchanged in that."""


def dated_in(
    sources: Sequence[Source], window: Window, zone_name: str | None, horizon: dt.date | None,
    progress: Callable[[int], None] | None = None,
) -> Iterator[Dated]:  # fmt: skip
    """The events of sources on each of their dates; repeats without an end are followed to the `horizon`. `progress` hears
    of their number on the way."""
    for number, (_, item, found) in enumerate(on_dates(sources, window, zone_name, horizon)):
        if progress is not None and not number & 1023:
            progress(number)
        main = item.main if isinstance(item, Series) else None
        if main is not None and main.event.details.recurrence is not None:
            yield Dated(found.event, main.event.details.uid, found.original.isoformat(), number)
        else:
            yield Dated(found.event, found.event.details.uid, "", number)


def differences(old: Iterable[Dated], new: Iterable[Dated]) -> Differences:
    """Pair two states: by UID, where the source vouches for it; the others by likeness, as a build over an older calendar
    does (`pairing`)."""
    before, after = list(old), list(new)
    by_key = {one.key: one for one in before if one.uid}
    pairs: list[tuple[Dated, Dated, tuple[str, ...]]] = []
    open_new, taken = [], set[int]()
    for one in after:
        there = by_key.get(one.key) if one.uid else None
        fields = _fields(there, one) if there is not None and there.number not in taken else ()
        if there is not None and there.number not in taken and (not fields or not is_made_uid(one.uid)):
            pairs.append((there, one, fields))
            taken.add(there.number)
        else:
            open_new.append(one)
    open_old = [one for one in before if one.number not in taken]
    olds, news = (
        {f"{one.uid or one.number}\0{one.recurrence_id}": one for one in side}
        for side in (open_old, open_new)
    )
    found = pair_moved(
        (_sketch(key, one) for key, one in olds.items()), (_sketch(key, one) for key, one in news.items())
    )
    pairs += [(olds[gone], news[key], _fields(olds[gone], news[key])) for key, gone in found.items()]
    met, met_new = {one.number for one, _, _ in pairs}, {one.number for _, one, _ in pairs}
    differs = [_difference(a, b, fields) for a, b, fields in pairs if fields]
    unchanged = len(pairs) - len(differs)
    differs += [Difference("removed", one, None) for one in before if one.number not in met]
    differs += [Difference("added", None, one) for one in after if one.number not in met_new]
    differs.sort(
        key=lambda one: (_first_day(one), one.shown.event.start.isoformat(), one.shown.event.summary)
    )
    return Differences(differs, unchanged, sum(_is_loose(a.event, b.event) for a, b, _ in pairs))


def _first_day(one: Difference) -> dt.date:
    return min(side.event.first_day for side in (one.old, one.new) if side is not None)


def _sketch(key: str, one: Dated) -> Sketch:
    event = one.event
    start, end = (moment.isoformat().replace("-", "").replace(":", "") for moment in (event.start, event.end))
    return Sketch(
        key,
        event.summary,
        start,
        end,
        event.location,
        hash(event._replace(row_number=0, details=event.details._replace(uid="", dtstamp="", sequence=0))),
    )


def _difference(old: Dated, new: Dated, fields: tuple[str, ...]) -> Difference:
    return Difference("moved" if "start" in fields or "end" in fields else "changed", old, new, fields)


def _fields(old: Dated, new: Dated) -> tuple[str, ...]:
    """The fields in which two states of an event differ."""
    a, b = old.event, new.event
    found = [
        name
        for name, x, y in (("start", a.start, b.start), ("end", a.end, b.end))
        if not _is_same(x, a.zone, y, b.zone)
    ]
    found += [
        name
        for name in ("summary", "location", "description")
        if words(getattr(a, name)) != words(getattr(b, name))
    ]
    found += [
        name for name in _DETAILS if (getattr(a.details, name) or None) != (getattr(b.details, name) or None)
    ]
    mine, theirs = dict(a.details.facets), dict(b.details.facets)
    if mine and theirs:  # a calendar from elsewhere has no school data: that is no change
        found += [
            name
            for name in dict.fromkeys((*mine, *theirs))
            if mine.get(name) != theirs.get(name) and name != "room"
        ]
    return tuple(found)


def words(text: str) -> str:
    """A text as people compare it: without regard to how its lines are broken."""
    return " ".join(text.split())


def _is_same(
    one: dt.date | dt.datetime, zone: str | None, other: dt.date | dt.datetime, other_zone: str | None
) -> bool:
    """Whether two moments are one: the same instant in whatever zone; a floating one is that of the clock."""
    if not isinstance(one, dt.datetime) or not isinstance(other, dt.datetime):
        return one == other and isinstance(one, dt.datetime) == isinstance(other, dt.datetime)
    if zone == other_zone or zone is None or other_zone is None:
        return one == other
    return _instant(one, zone) == _instant(other, other_zone)


def _instant(moment: dt.datetime, zone_name: str) -> dt.datetime:
    zone = dt.UTC if zone_name == "UTC" else zone_named(zone_name)
    return (
        moment.replace(tzinfo=zone).astimezone(dt.UTC) if zone is not None else moment.replace(tzinfo=dt.UTC)
    )


def _is_loose(old: Event, new: Event) -> bool:
    return isinstance(old.start, dt.datetime) and (old.zone is None) != (new.zone is None)
