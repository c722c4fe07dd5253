"""Time zones: clock changes, local times that one skips or repeats (RFC 5545, 3.3.5), elapsed time."""

import datetime as dt
from functools import lru_cache
from typing import TYPE_CHECKING, Literal, NamedTuple

from nomarium.model.limits import LONGEST_ZONE

if TYPE_CHECKING:
    from zoneinfo import ZoneInfo  # imported where zones are made: floating times need none

_DAY = dt.timedelta(days=1)
_WEEK = 7 * _DAY
_UTC = dt.UTC
_FIRST_DAY, _LAST_DAY = dt.date(3, 1, 1), dt.date(9998, 11, 30)
"""Between them the clock of any zone can be told without leaving the years that a date can have."""


class Change(NamedTuple):
    """One clock change of a zone."""

    local: dt.datetime
    """The local time at which it happens, by the clock before it."""
    offset_before: dt.timedelta
    offset_after: dt.timedelta
    name: str
    is_dst: bool
    """True when the time after it is daylight time."""


LocalTime = Literal["plain", "skipped", "repeated"]


@lru_cache(maxsize=64)
def zone_named(name: str) -> "ZoneInfo | None":
    """The zone of an IANA name, or None when there is no such zone."""
    from zoneinfo import ZoneInfo

    if len(name) > LONGEST_ZONE:
        return None  # looking for a name of a thousand parts takes more than the stack
    try:
        return ZoneInfo(name)
    except (ValueError, OSError, KeyError):  # ZoneInfoNotFoundError is a KeyError
        return None


@lru_cache(maxsize=32)
def zones_called(letters: str) -> tuple[str, ...]:
    """The zones of the time zone database (one a region, by its zone1970.tab) whose clocks show `letters`, such as
    BST, in winter or summer of these years."""
    from importlib.resources import files
    from zoneinfo import ZoneInfo

    table = (files("tzdata") / "zoneinfo" / "zone1970.tab").read_text("utf-8")
    names = [line.split("\t")[2] for line in table.splitlines() if line and not line.startswith("#")]
    moments = (dt.datetime(2026, 1, 15), dt.datetime(2026, 7, 15))
    return tuple(
        name for name in names if letters.upper() in [ZoneInfo(name).tzname(moment) for moment in moments]
    )


def near_zone_names(text: str) -> list[str]:
    """Zone names that a person may have meant, best first: by city, then by spelling."""
    import difflib
    from zoneinfo import available_timezones

    wanted = text.strip().replace(" ", "_").lower()
    names = sorted(available_timezones())
    by_city = [name for name in names if wanted and name.lower().rsplit("/", 1)[-1] == wanted]
    if by_city:
        return by_city
    lower = {name.lower(): name for name in names}
    return [lower[name] for name in difflib.get_close_matches(wanted, lower, n=3, cutoff=0.6)]


def local_time_kind(moment: dt.datetime, zone: dt.tzinfo) -> LocalTime:
    """Whether a naive local time happens once, never (skipped) or twice (repeated) in a zone."""
    first = moment.replace(tzinfo=zone, fold=0).utcoffset()
    second = moment.replace(tzinfo=zone, fold=1).utcoffset()
    if first == second or first is None or second is None:
        return "plain"
    return "skipped" if second > first else "repeated"


def after_gap(moment: dt.datetime, zone: dt.tzinfo) -> dt.datetime:
    """A skipped local time moved on by the gap: what the offset before it means (RFC 5545, 3.3.5)."""
    return in_zone(moment.replace(tzinfo=zone, fold=0), zone)


def in_zone(moment: dt.datetime, zone: dt.tzinfo) -> dt.datetime:
    """An aware date-time as the naive local time of a zone."""
    return moment.astimezone(_UTC).astimezone(zone).replace(tzinfo=None, fold=0)


def elapsed(start: dt.datetime, length: dt.timedelta, zone: dt.tzinfo | None) -> dt.datetime:
    """The local time when an exact length has passed since a local start, across any clock change."""
    if zone is None:
        return start + length
    return in_zone(start.replace(tzinfo=zone, fold=0).astimezone(_UTC) + length, zone)


@lru_cache(maxsize=512)
def change_dates(zone: dt.tzinfo, year: int) -> frozenset[dt.date]:
    """The local dates of a year on which the zone's clock changes."""
    first, last = dt.date(year, 1, 1), dt.date(year, 12, 31)
    found = set[dt.date]()
    for change in changes(zone, first, last):
        after = change.local + change.offset_after - change.offset_before
        found |= {change.local.date(), after.date()}
    return frozenset(found)


def changes(zone: dt.tzinfo, first: dt.date, last: dt.date) -> list[Change]:
    """The clock changes of a zone between two dates, a little more on both sides, in order."""
    low = dt.datetime.combine(max(first, _FIRST_DAY) - _DAY, dt.time(0))
    high = dt.datetime.combine(min(last, _LAST_DAY) + 2 * _DAY, dt.time(0))
    found = (change for year in range(low.year, high.year + 1) for change in _changes_of(zone, year))
    return [change for change in found if low <= change.local < high]


@lru_cache(maxsize=512)
def _changes_of(zone: dt.tzinfo, year: int) -> tuple[Change, ...]:
    """The clock changes of a zone in a year of UTC."""
    at, end = (dt.datetime(one, 1, 1, tzinfo=_UTC) for one in (year, year + 1))
    found = []
    before = _state(at, zone)
    while at < end:
        following = min(at + _WEEK, end)
        after = _state(following, zone)
        if after != before:  # no zone changes its clock twice in a week
            found.append(_change_between(at, following, zone))
        at, before = following, after
    return tuple(found)


def _state(moment: dt.datetime, zone: dt.tzinfo) -> tuple[dt.timedelta | None, str | None]:
    local = moment.astimezone(zone)
    return local.utcoffset(), local.tzname()


def _change_between(low: dt.datetime, high: dt.datetime, zone: dt.tzinfo) -> Change:
    """The change between two instants a week apart, found by halving to the second."""
    state = _state(low, zone)
    second = dt.timedelta(seconds=1)
    while high - low > second:
        middle = low + dt.timedelta(seconds=(high - low).total_seconds() // 2)
        if _state(middle, zone) == state:
            low = middle
        else:
            high = middle
    before, after = low.astimezone(zone), high.astimezone(zone)
    offset_before = before.utcoffset() or dt.timedelta(0)
    return Change(
        local=(high + offset_before).replace(tzinfo=None),
        offset_before=offset_before,
        offset_after=after.utcoffset() or dt.timedelta(0),
        name=after.tzname() or "",
        is_dst=bool(after.dst()),
    )
