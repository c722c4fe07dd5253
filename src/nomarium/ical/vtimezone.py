"""VTIMEZONE (RFC 5545, 3.6.5): the offsets that the times of a calendar need."""

import datetime as dt
from collections import defaultdict

from nomarium.ical.octets import folded
from nomarium.reckoning.zones import Change, changes, zone_named

_DAY = dt.timedelta(days=1)


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
    for one in found:
        groups[one[1:]].append(one.local)
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
