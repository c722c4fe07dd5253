"""The zones that a calendar file names: IANA's, those that CLDR maps, or the file's own VTIMEZONE
(RFC 5545, 3.6.5)."""

import datetime as dt
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from functools import lru_cache
from itertools import accumulate
from typing import NamedTuple

from nomarium.ical.contentlines import parsed, property_head
from nomarium.ical.values import UnknownZone
from nomarium.model.recurrence import Rule
from nomarium.reckoning.rules import parse_rule
from nomarium.reckoning.starts import starts
from nomarium.reckoning.values import moment_of, offset_of
from nomarium.reckoning.zones import zone_named

_NEVER = dt.datetime(1, 1, 1)


class Observance(NamedTuple):
    """One STANDARD or DAYLIGHT part of a VTIMEZONE."""

    start: dt.datetime
    """Local, by the clock before it."""
    offset_from: dt.timedelta
    offset_to: dt.timedelta
    rules: tuple[Rule, ...] = ()
    dates: tuple[dt.datetime, ...] = ()


class FileZone(dt.tzinfo):
    """A zone that only the file itself explains. A repeated local time is its first occurrence, a skipped one takes the offset
    before the gap (RFC 5545, 3.3.5); the other way with `fold`, as in every zone of Python."""

    def __init__(self, name: str, observances: tuple[Observance, ...]) -> None:
        self.name = name
        self._observances = observances
        self._years: dict[int, _Offsets] = {}

    def _in(self, year: int) -> "_Offsets":
        if year not in self._years:
            self._years[year] = _Offsets.of(self._before(year))
        return self._years[year]

    def _before(self, year: int) -> list[tuple[dt.datetime, Observance]]:
        """The onsets that matter for a year: the last one of each observance before it, and those in it."""
        first, last = dt.date(max(year - 1, 1), 1, 1), dt.date(min(year + 1, 9999), 12, 31)
        found = []
        for one in self._observances:
            onsets = [one.start, *(day for day in one.dates if first <= day.date() <= last)]
            onsets += [max(before)] if (before := [day for day in one.dates if day.date() < first]) else []
            for rule in one.rules:
                onsets += _onsets(rule, one.start, first, last)
                if rule.until is not None and rule.until.year < year:
                    since = dt.date(rule.until.year - 1, 1, 1)
                    onsets += _onsets(rule, one.start, since, rule.until)
            found += [(onset, one) for onset in onsets]
        return sorted(found, key=lambda pair: pair[0])

    def _at(self, local: dt.datetime) -> dt.timedelta:
        known = self._in(local.year)
        since = known.since_later if local.fold else known.since_local
        return known.offsets[bisect_right(since, local.replace(fold=0))]

    def utcoffset(self, moment: dt.datetime | None) -> dt.timedelta:
        return self._at(moment.replace(tzinfo=None)) if moment else dt.timedelta(0)

    def dst(self, _moment: dt.datetime | None) -> dt.timedelta | None:
        return None

    def tzname(self, _moment: dt.datetime | None) -> str:
        return self.name

    def fromutc(self, moment: dt.datetime) -> dt.datetime:
        plain = moment.replace(tzinfo=None)
        known = self._in(plain.year)
        offset = known.offsets[bisect_right(known.since_utc, plain)]
        local = plain + offset
        return local.replace(tzinfo=self, fold=int(self._at(local) != offset))


class _Offsets(NamedTuple):
    """The offsets of a year one after another, and from when each but the first holds: by the clock, by its later reading, and in UTC."""

    offsets: tuple[dt.timedelta, ...]
    since_local: list[dt.datetime]
    since_later: list[dt.datetime]
    """The same for times with `fold`: those that are repeated are after the clock was put back, those that are skipped after it was put
    forward."""
    since_utc: list[dt.datetime]

    @classmethod
    def of(cls, onsets: Sequence[tuple[dt.datetime, Observance]]) -> "_Offsets":
        first = onsets[0][1].offset_from if onsets else dt.timedelta(0)
        none = dt.timedelta(0)
        local = [_shifted(onset, max(one.offset_to - one.offset_from, none)) for onset, one in onsets]
        later = [_shifted(onset, min(one.offset_to - one.offset_from, none)) for onset, one in onsets]
        utc = [_shifted(onset, -one.offset_from) for onset, one in onsets]
        # each from the latest of those before it: an offset that another overtakes never comes first
        return cls(
            (first, *(one.offset_to for _, one in onsets)),
            [*accumulate(local, max)],
            [*accumulate(later, max)],
            [*accumulate(utc, max)],
        )


def _shifted(moment: dt.datetime, by: dt.timedelta) -> dt.datetime:
    """A moment moved, as far as the years go."""
    try:
        return moment + by
    except OverflowError:
        return dt.datetime.min if by < dt.timedelta(0) else dt.datetime.max


Zone = dt.tzinfo


class ZoneNames:
    """Finds the zone of each TZID of one file."""

    def __init__(self, own: dict[str, FileZone], hints: dict[str, str]) -> None:
        """`own` are the file's VTIMEZONEs by TZID, `hints` the IANA names that they mention."""
        self._own = own
        self._hints = hints
        self._found: dict[str, tuple[str | None, Zone | None]] = {}
        self._by_head: dict[str, tuple[str | None, Zone | None] | str] = {}
        self.fallback: str | None = None
        """The IANA name of the zone of a TZID that nothing explains."""
        self.unknown: dict[str, str] = {}
        """TZIDs that are no zone's name, and how their zone was found."""

    def find(self, tzid: str) -> tuple[str | None, Zone | None]:
        """(IANA name, zone); (None, zone) when only the file's VTIMEZONE explains it; (None, None) when
        nothing does."""
        if tzid not in self._found:
            self._found[tzid] = self._find(tzid)
        return self._found[tzid]

    def of_head(self, head: str) -> tuple[str | None, Zone | None] | str:
        """The zone of a property by its head, such as `DTSTART;TZID=…`; (None, None) when it names none,
        a text that says why when nothing explains it."""
        if head not in self._by_head:
            read = property_head(f"{head}:", len(head)) if "TZID" in head.upper() else None
            tzid = read.params.get("TZID", "") if read else ""
            found = self.find(tzid) if tzid else (None, None)
            self._by_head[head] = (
                found if found[1] or not tzid else UnknownZone(f"Nothing explains the zone “{tzid}”.")
            )
        return self._by_head[head]

    def _find(self, tzid: str) -> tuple[str | None, Zone | None]:
        name = tzid.strip().strip('"')
        if name.upper() in ("UTC", "GMT", "Z", "ETC/UTC"):
            return "UTC", dt.UTC
        zone = zone_named(name)
        if zone is not None:
            return name, zone
        for known, why in ((self._hints.get(tzid, ""), "as its definition says"), *_candidates(name)):
            zone = zone_named(known) if known else None
            if zone is not None:
                self.unknown[tzid] = f"is {known}, {why}"
                return known, zone
        if tzid in self._own:
            self.unknown[tzid] = "is read by the definition in the file; its events are written in UTC"
            return None, self._own[tzid]
        if self.fallback is not None:
            self.unknown[tzid] = f"is explained by nothing; its times are read in {self.fallback}, as asked"
            return self.fallback, zone_named(self.fallback)
        return None, None


def _onsets(rule: Rule, start: dt.datetime, first: dt.date, last: dt.date) -> Iterator[dt.datetime]:
    """The local times at which an observance begins."""
    return (day for day in starts(rule, start, first, last) if isinstance(day, dt.datetime))


def _candidates(name: str) -> list[tuple[str, str]]:
    """IANA names that a zone's name may stand for: by CLDR's map, or as its last parts."""
    found = [(_cldr_map().get(name.casefold(), ""), "by the zone map of CLDR")]
    parts = name.strip("/").split("/")
    for size in (3, 2):
        if len(parts) > size - 1:
            found.append(("/".join(parts[-size:]), "as its last parts say"))
    return found


@lru_cache(maxsize=1)
def _cldr_map() -> dict[str, str]:
    from babel.core import get_global

    return {name.casefold(): zone for name, zone in get_global("windows_zone_mapping").items()}


def read_vtimezone(lines: list[str]) -> tuple[str, FileZone | None, str]:
    """The TZID, the zone, and the IANA name that a VTIMEZONE mentions; lines without its BEGIN and END."""
    tzid = hint = ""
    observances: list[Observance] = []
    inside: list[tuple[str, str]] | None = None
    is_odd = False
    for line in lines:
        found = parsed(line)
        if found is None:
            continue
        name, value = found[0].name, found[1].strip()
        if name == "BEGIN":
            inside = []
        elif name == "END":
            one = _observance(inside or [])
            observances += [one] if one else []
            is_odd = is_odd or (one is not None and not all(map(_is_seasonal, one.rules)))
            inside = None
        elif inside is not None:
            inside.append((name, value))
        elif name == "TZID":
            tzid = value
        elif name == "X-LIC-LOCATION":
            hint = value
    is_known = observances and not is_odd
    zone = FileZone(tzid, tuple(sorted(observances, key=lambda one: one.start))) if is_known else None
    return tzid, zone, hint


def _is_seasonal(rule: Rule) -> bool:
    """Whether a rule can be one of clocks that are put forward and back: not several times a day."""
    return rule.freq in ("YEARLY", "MONTHLY", "WEEKLY", "DAILY") and all(
        len(part) <= 1 for part in (rule.hours, rule.minutes, rule.seconds)
    )


def _observance(properties: list[tuple[str, str]]) -> Observance | None:
    values = dict(properties)
    start = _local(values.get("DTSTART", ""))
    before, after = _offset(values.get("TZOFFSETFROM", "")), _offset(values.get("TZOFFSETTO", ""))
    if after is None:
        return None
    rules = []
    for name, value in properties:
        rule = parse_rule(value) if name == "RRULE" else None
        if isinstance(rule, Rule):
            rules.append(_in_local(rule, before if before is not None else after))
    dates = [_local(text) for name, value in properties if name == "RDATE" for text in value.split(",")]
    found = tuple(day for day in dates if day)
    return Observance(start or _NEVER, before if before is not None else after, after, tuple(rules), found)


def _offset(text: str) -> dt.timedelta | None:
    """An offset that a zone can have: less than a day."""
    found = offset_of(text)
    return found if found is not None and abs(found) < dt.timedelta(days=1) else None


def _in_local(rule: Rule, offset_before: dt.timedelta) -> Rule:
    """An observance's rule, whose UNTIL is in UTC, by its own clock (RFC 5545, 3.6.5)."""
    if rule.until_is_utc and isinstance(rule.until, dt.datetime):
        return rule._replace(until=rule.until + offset_before, until_is_utc=False)
    return rule


def _local(text: str) -> dt.datetime | None:
    """The local time of an onset; a date is its midnight."""
    try:
        found = moment_of(text.strip())
    except ValueError:
        return None
    if found is None:
        return None
    local, _ = found
    return local if isinstance(local, dt.datetime) else dt.datetime.combine(local, dt.time(0))
