"""What is to be drawn: events in their order, what each is coloured by, and what is known of each date."""

import datetime as dt
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.reckoning.zones import zone_named
from nomarium.school.events import label_title

if TYPE_CHECKING:
    from nomarium.school.plan import Plan

_DAY = dt.timedelta(days=1)
NOTHING = ""
"""The key of events that have no value of the field by which they are coloured."""


class Shown(NamedTuple):
    """An event as it is drawn."""

    event: Event
    key: str = NOTHING
    """The value by which it is coloured, the first of several."""
    color: str = ""
    """The CSS name of a colour of its own; nothing: that of its key."""

    @property
    def is_long(self) -> bool:
        """Whether it is drawn over days, and not in the hours of one: all-day, or a day long and longer."""
        event = self.event
        return event.is_all_day or event.end - event.start >= _DAY

    @property
    def spans_days(self) -> bool:
        """Whether it is long and touches several days: a month draws it as a band."""
        return self.is_long and self.event.last_day > self.event.first_day


class Day(NamedTuple):
    """What is known of a date beside its events."""

    label: str = ""
    """What it is called in the cycle, with the name of a special day."""
    short: str = ""
    """Its label alone."""
    term: str = ""
    off: str = ""
    """The name of the day off that it is."""
    is_school: bool = False


class Show(NamedTuple):
    """Everything that a picture needs."""

    heading: str
    events: Sequence[Shown]
    """By first day, long ones first, then by start and title."""
    first: dt.date
    last: dt.date
    """The dates that are drawn, inclusive."""
    keys: Mapping[str, int] = {}
    """What events are coloured by, each with its number; the commonest first."""
    days: Mapping[dt.date, Day] = {}
    label_count: int = 0
    """Events that only say the label of their date, and stand beside its number."""

    @property
    def legend(self) -> list[tuple[str, int, str]]:
        """What colours stand for: each key that is drawn with its number, and the colour of its own that its events
        share, if they do."""
        own: dict[str, set[str]] = {}
        for one in self.events:
            own.setdefault(one.key, set()).add(one.color)
        return [
            (key, n, next(iter(own[key])) if len(own[key]) == 1 else "")
            for key, n in self.keys.items()
            if key in own
        ]

    @property
    def by_day(self) -> dict[dt.date, list[Shown]]:
        """The events that touch each date of the window."""
        found = defaultdict[dt.date, list[Shown]](list)
        for one in self.events:
            day, last = max(one.event.first_day, self.first), min(one.event.last_day, self.last)
            while day <= last:
                found[day].append(one)
                day += _DAY
        return found

    def mark_of(self, day: dt.date, found: Iterable[Shown] = ()) -> str:
        """What stands beside a date's number: its label; the day off that it is, unless an event says that."""
        known = self.days.get(day)
        if known is None:
            return ""
        said = {one.event.summary for one in found if one.is_long}
        return known.label or ("" if known.off in said else known.off)

    def within(self, first: dt.date, last: dt.date) -> "Show":
        """The part of it that touches these dates."""
        events = [one for one in self.events if one.event.first_day <= last and one.event.last_day >= first]
        return self._replace(events=events, first=first, last=last)


_COLORING = ("categories", "class")
"""What events are coloured by when nothing is said: the first that some event has."""


def field_of(events: Iterable[Event]) -> str:
    """The field by which events are coloured when nothing is said; nothing where they have none. Where events have colours
    of their own, it is one whose values go with them, so that a legend can tell what each means."""
    listed = list(events)
    found = [field for field in _COLORING if any(values_of(event, field) for event in listed)]
    return next((field for field in found if _goes_with_colors(listed, field)), found[0] if found else "")


def _goes_with_colors(events: Iterable[Event], field: str) -> bool:
    colors: dict[str, str] = {}
    for event in events:
        values = values_of(event, field)
        if values and colors.setdefault(values[0], event.details.color) != event.details.color:
            return False
    return True


def shown_by(event: Event, field: str, calendar: str = "", has_own: bool = True) -> Shown:
    """An event coloured by a field, `calendar` or nothing; by a colour of its own where it `has_own`."""
    if field in ("", "calendar"):
        key = calendar if field else NOTHING
    else:
        key = next(iter(values_of(event, field)), NOTHING)
    return Shown(event, key, event.details.color if has_own else "")


def in_zone(event: Event, zone_name: str | None) -> Event:
    """An event in local times of a zone, where it is in another."""
    if not zone_name or not event.zone or event.zone == zone_name or event.is_all_day:
        return event
    zone = zone_named(zone_name)
    return _moved(event, zone, zone_name) if zone is not None else event


def _moved(event: Event, zone: dt.tzinfo, zone_name: str) -> Event:
    own = zone_named(event.zone or "")
    if own is None or not isinstance(event.start, dt.datetime) or not isinstance(event.end, dt.datetime):
        return event
    start, end = (
        one.replace(tzinfo=own).astimezone(zone).replace(tzinfo=None) for one in (event.start, event.end)
    )
    return event._replace(start=start, end=max(start, end), zone=zone_name)


def in_order(events: Iterable[Shown]) -> list[Shown]:
    """As people read them: by day, long ones first, then by start, end and title."""
    return sorted(events, key=_place)


def _place(one: Shown) -> tuple[dt.date, bool, str, str, str]:
    event = one.event
    long = one.is_long
    return (
        event.first_day,
        not long,
        "" if long else event.start.isoformat(),
        event.end.isoformat(),
        event.summary,
    )


def keys_of(events: Iterable[Shown]) -> dict[str, int]:
    """Each key with its number, the commonest first; events without a value have none."""
    counts = Counter(one.key for one in events if one.key != NOTHING)
    ranked = sorted(counts, key=lambda key: (-counts[key], key))
    return {key: n for n, key in enumerate(ranked)}


def days_of(plans: Iterable["Plan"]) -> dict[dt.date, Day]:
    """What plans know of the dates of their year."""
    found = dict[dt.date, Day]()
    for plan in plans:
        for row in plan.rows.days_off:
            if not row.division:
                for ordinal in range(row.first.toordinal(), row.last.toordinal() + 1):
                    found[dt.date.fromordinal(ordinal)] = Day(off=row.name)
        for day in plan.year.days:
            short = plan.year.label_names.get(day.label) or day.label
            found[day.date] = Day(label_title(plan, day), short, day.term, "", True)
    return found


def without_labels(events: Iterable[Shown], days: Mapping[dt.date, Day]) -> list[Shown]:
    """The events but for those that say no more than the label of their date, which stands at its number."""
    return [one for one in events if not _is_label(one.event, days.get(one.event.first_day))]


def _is_label(event: Event, day: Day | None) -> bool:
    return (
        day is not None
        and event.is_all_day
        and event.summary == day.label
        and event.last_day == event.first_day
    )
