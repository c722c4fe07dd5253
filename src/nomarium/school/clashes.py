"""Teachers, rooms and classes that a timetable puts in two places at once."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.limits import MOST_AT_ONCE
from nomarium.school.meetings import Meeting
from nomarium.school.planheads import plain
from nomarium.school.timetable import Slot


class Clash(NamedTuple):
    """Two meetings at the same time that share somebody or a room; `times` is how often they do."""

    kind: str
    name: str
    one: str
    other: str
    first: dt.date
    times: int


def clashes_in(meetings: Sequence[Meeting]) -> list[Clash]:
    """Pairs of classes that clash, the first date of each: of a class at one time with so many others at most."""
    found: dict[tuple[str, str, str, str], list[dt.date]] = defaultdict(list)
    names: dict[tuple[str, str, str, str], tuple[str, str, str]] = {}
    busy: dict[tuple[str, str], list[tuple[int, int, str]]] = {}
    shared: dict[int, list[tuple[tuple[str, str], str]]] = {}
    day: dt.date | None = None
    for meeting in meetings:
        slot = meeting.slot
        if meeting.day.date != day:
            day, busy = meeting.day.date, {}
        start, end, code = meeting.start_secs, meeting.end_secs, slot.code
        if (keys := shared.get(id(slot))) is None:
            keys = shared[id(slot)] = _keys(slot)
        for here, name in keys:
            others = busy.get(here)
            if others is None:
                busy[here] = [(start, end, code)]
                continue
            at_once = 0
            for other_start, other_end, other in others:
                if other_start < end and start < other_end:
                    first, second = sorted((other, code))
                    key = (*here, first, second)
                    found[key].append(meeting.day.date)
                    names.setdefault(key, (name, first, second))
                    at_once += 1
                    if at_once == MOST_AT_ONCE:
                        break  # a yard for everybody: all pairs of a hundred classes would tell no more
            others.append((start, end, code))
    return [Clash(key[0], *names[key], dates[0], len(dates)) for key, dates in found.items()]


def joined(parts: Iterable[Sequence[Clash]]) -> list[Clash]:
    """The clashes of stretches of the year, in their order, as those of the whole."""
    found: dict[tuple[str, str, str, str], Clash] = {}
    for clash in (one for part in parts for one in part):
        key = (clash.kind, plain(clash.name), clash.one, clash.other)
        before = found.get(key)
        found[key] = clash if before is None else before._replace(times=before.times + clash.times)
    return list(found.values())


def _keys(slot: Slot) -> list[tuple[tuple[str, str], str]]:
    """What a slot keeps busy, by kind and compared name, with the name as it is written."""
    kept = [("class", slot.code), ("room", slot.room), *[("teacher", one) for one in slot.teachers]]
    return [((kind, plain(name)), name) for kind, name in kept if name]
