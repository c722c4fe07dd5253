"""Where events go that would lie upon each other: side by side in the hours of a day, one below another over days."""

import datetime as dt
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.pictures.shown import Shown

_DAY = dt.timedelta(days=1)


class Block(NamedTuple):
    """The part of a timed event that lies in one day."""

    one: Shown
    begin: int
    """Minutes after midnight, as the end."""
    end: int
    lane: int = 0
    """Which of the lanes beside each other it is in, from 0 …"""
    lanes: int = 1
    """… and how many these are."""


class Band(NamedTuple):
    """A long event over some of the days of a row."""

    one: Shown
    first: int
    """The column of its first day, from 0; the last is inclusive."""
    last: int
    lane: int
    goes_on: bool = False
    """Whether it has days after the row's last one."""
    began: bool = False
    """Whether it has days before the row's first one."""


def blocks_on(date: dt.date, shown: Iterable[Shown], grain: int = 1, shortest: int = 0) -> list[Block]:
    """The timed events of a date side by side, in the order of their starts; those that overlap, directly or by others
    between them, share the width.

    Each takes the first lane that is free, which is as few lanes as can be. `grain`: how many minutes a row of the
    drawing has; begins and ends are rounded to it, and none is shorter;
    nor than the `shortest` that can be drawn.
    """
    midnight = dt.datetime.combine(date, dt.time())
    parts = []
    for one in shown:
        event = one.event
        if one.is_long or not isinstance(event.start, dt.datetime) or not isinstance(event.end, dt.datetime):
            continue
        begin = max(int((event.start - midnight).total_seconds() // 60), 0)
        end = min(int((event.end - midnight).total_seconds() // 60), 24 * 60)
        if begin < 24 * 60 and end >= begin and event.first_day <= date <= event.last_day:
            top = round(begin / grain) * grain
            parts.append(Block(one, top, max(round(end / grain) * grain, top + max(grain, shortest))))
    parts.sort(key=lambda part: (part.begin, -part.end, part.one.event.summary))
    found, cluster, reach = list[Block](), list[Block](), -1
    for part in parts:
        if part.begin >= reach:
            found += _laned(cluster)
            cluster, reach = [], -1
        cluster.append(part)
        reach = max(reach, part.end)
    return found + _laned(cluster)


def _laned(cluster: Sequence[Block]) -> list[Block]:
    ends, lanes = list[int](), list[int]()
    for part in cluster:
        lane = next((n for n, end in enumerate(ends) if end <= part.begin), len(ends))
        if lane == len(ends):
            ends.append(0)
        ends[lane] = part.end
        lanes.append(lane)
    return [part._replace(lane=lane, lanes=len(ends)) for part, lane in zip(cluster, lanes, strict=True)]


def bands_over(days: Sequence[dt.date | None], shown: Iterable[Shown]) -> list[Band]:
    """The long events that touch days in a row, each in the first lane that is free over all of its days. None is a
    column without a day, before the first one or after the last."""
    found, taken = list[Band](), list[set[int]]()
    columns = {day: n for n, day in enumerate(days) if day is not None}
    parts = []
    for one in shown:
        if not one.is_long:
            continue
        event = one.event
        touched = [n for day, n in columns.items() if event.first_day <= day <= event.last_day]
        if touched:
            parts.append((touched[0], -len(touched), one, touched))
    parts.sort(key=lambda part: (part[0], part[1], part[2].event.summary))
    for first, _, one, touched in parts:
        last = touched[-1]
        wanted = set(range(first, last + 1))
        lane = next((n for n, columns_taken in enumerate(taken) if not columns_taken & wanted), len(taken))
        if lane == len(taken):
            taken.append(set())
        taken[lane] |= wanted
        goes_on, began = one.event.last_day > max(columns), one.event.first_day < min(columns)
        found.append(Band(one, first, last, lane, goes_on, began))
    return found


def weekdays_needed(shown: Iterable[Shown], asked: frozenset[int]) -> frozenset[int]:
    """The weekdays that are drawn: those asked for, else Monday to Friday and what else has an event of its own: a long
    one over a weekend needs none."""
    if asked:
        return asked
    needed = {0, 1, 2, 3, 4}
    for one in shown:
        event = one.event
        if (event.last_day - event.first_day).days < 2:
            needed |= {event.first_day.weekday(), event.last_day.weekday()}
    return frozenset(needed)


def weeks_of(first: dt.date, last: dt.date, first_weekday: int) -> list[list[dt.date]]:
    """The whole weeks that touch some dates."""
    begin = first - (first.weekday() - first_weekday) % 7 * _DAY
    weeks = []
    while begin <= last:
        weeks.append([begin + n * _DAY for n in range(7)])
        begin += 7 * _DAY
    return weeks


def months_of(first: dt.date, last: dt.date) -> list[dt.date]:
    """The first day of each month that touches some dates."""
    found, month = [], first.replace(day=1)
    while month <= last:
        found.append(month)
        month = next_month(month)
    return found


def next_month(day: dt.date) -> dt.date:
    """The first day of the month after a date's."""
    return dt.date(day.year + day.month // 12, day.month % 12 + 1, 1)
