"""Time zones: local times that a clock change skips or repeats, and VTIMEZONE (RFC 5545, 3.6.5)."""

import datetime as dt
from collections import defaultdict
from functools import lru_cache
from typing import TYPE_CHECKING, Literal, NamedTuple

from nomarium.ical.octets import folded

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

    try:
        return ZoneInfo(name)
    except (ValueError, OSError, KeyError):  # ZoneInfoNotFoundError is a KeyError
        return None


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


def local_time_kind(moment: dt.datetime, zone: "ZoneInfo") -> LocalTime:
    """Whether a naive local time happens once, never (skipped) or twice (repeated) in a zone."""
    first = moment.replace(tzinfo=zone, fold=0).utcoffset()
    second = moment.replace(tzinfo=zone, fold=1).utcoffset()
    if first == second or first is None or second is None:
        return "plain"
    return "skipped" if second > first else "repeated"


def after_gap(moment: dt.datetime, zone: "ZoneInfo") -> dt.datetime:
    """A skipped local time moved on by the gap: what the offset before it means (RFC 5545, 3.3.5)."""
    return in_zone(moment.replace(tzinfo=zone, fold=0), zone)


def in_zone(moment: dt.datetime, zone: "ZoneInfo") -> dt.datetime:
    """An aware date-time as the naive local time of a zone."""
    return moment.astimezone(_UTC).astimezone(zone).replace(tzinfo=None, fold=0)


def elapsed(start: dt.datetime, length: dt.timedelta, zone: "ZoneInfo | None") -> dt.datetime:
    """The local time when an exact length has passed since a local start, across any clock change."""
    if zone is None:
        return start + length
    return in_zone(start.replace(tzinfo=zone, fold=0).astimezone(_UTC) + length, zone)


@lru_cache(maxsize=512)
def change_dates(zone: "ZoneInfo", year: int) -> frozenset[dt.date]:
    """The local dates of a year on which the zone's clock changes."""
    first, last = dt.date(year, 1, 1), dt.date(year, 12, 31)
    found = set[dt.date]()
    for change in changes(zone, first, last):
        after = change.local + change.offset_after - change.offset_before
        found |= {change.local.date(), after.date()}
    return frozenset(found)


def changes(zone: "ZoneInfo", first: dt.date, last: dt.date) -> list[Change]:
    """The clock changes of a zone between two dates, a little more on both sides, in order."""
    low = dt.datetime.combine(max(first, _FIRST_DAY) - _DAY, dt.time(0))
    high = dt.datetime.combine(min(last, _LAST_DAY) + 2 * _DAY, dt.time(0))
    found = (change for year in range(low.year, high.year + 1) for change in _changes_of(zone, year))
    return [change for change in found if low <= change.local < high]


@lru_cache(maxsize=512)
def _changes_of(zone: "ZoneInfo", year: int) -> tuple[Change, ...]:
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


def _state(moment: dt.datetime, zone: "ZoneInfo") -> tuple[dt.timedelta | None, str | None]:
    local = moment.astimezone(zone)
    return local.utcoffset(), local.tzname()


def _change_between(low: dt.datetime, high: dt.datetime, zone: "ZoneInfo") -> Change:
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


def vtimezone(name: str, first: dt.date, last: dt.date) -> str:
    """A VTIMEZONE, folded, with the offsets that local times between two dates need (both inclusive).

    It opens with the change before the first date, or, where the zone has none in the year before,
    with an observance of its own that starts then.
    """
    zone = zone_named(name)
    if zone is None:
        raise ValueError(f"no time zone {name}")
    year_before = max(first, dt.date(3, 1, 1)) - 370 * _DAY
    found = changes(zone, year_before, last)
    if not found or found[0].local.date() > first:
        start = dt.datetime.combine(year_before, dt.time(0))
        local = start.replace(tzinfo=zone)
        offset = local.utcoffset() or dt.timedelta(0)
        found.insert(0, Change(start, offset, offset, local.tzname() or name, bool(local.dst())))
    groups = defaultdict[tuple[dt.timedelta, dt.timedelta, str, bool], list[dt.datetime]](list)
    for local_start, *kind in found:
        groups[tuple(kind)].append(local_start)  # type: ignore[index]
    lines = ["BEGIN:VTIMEZONE", f"TZID:{name}"]
    for (before, after, zone_name, is_dst), starts in groups.items():
        kind_name = "DAYLIGHT" if is_dst else "STANDARD"
        lines += [f"BEGIN:{kind_name}", f"DTSTART:{starts[0]:%Y%m%dT%H%M%S}"]
        if len(starts) > 1:
            lines.append("RDATE:" + ",".join(f"{start:%Y%m%dT%H%M%S}" for start in starts[1:]))
        lines += [f"TZOFFSETFROM:{utc_offset(before)}", f"TZOFFSETTO:{utc_offset(after)}"]
        lines += [f"TZNAME:{zone_name}", f"END:{kind_name}"]
    lines.append("END:VTIMEZONE")
    return "".join(map(folded, lines))


def utc_offset(offset: dt.timedelta) -> str:
    """An offset as RFC 5545, 3.3.14 writes it, with seconds only where it has some.

    >>> utc_offset(dt.timedelta(hours=-3, minutes=-30))
    '-0330'
    """
    secs = round(offset.total_seconds())
    sign, secs = ("-", -secs) if secs < 0 else ("+", secs)
    text = f"{sign}{secs // 3600:02}{secs // 60 % 60:02}"
    return text + f"{secs % 60:02}" if secs % 60 else text
