"""Teachers, rooms and classes that a timetable puts in two places at once."""

from __future__ import annotations

import datetime as dt
from collections import defaultdict
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.school.meetings import Meeting
from nomarium.school.tables import plain


class Clash(NamedTuple):
    """Two meetings at the same time that share somebody or a room; `times` is how often they do."""

    kind: str
    name: str
    one: str
    other: str
    first: dt.date
    times: int


def clashes_in(meetings: Sequence[Meeting]) -> list[Clash]:
    """Every pair of classes that clash, the first date of each."""
    found: dict[tuple[str, str, str, str], list[dt.date]] = defaultdict(list)
    names: dict[tuple[str, str, str, str], tuple[str, str, str]] = {}
    busy: dict[tuple[str, str], list[tuple[int, int, str]]] = {}
    day: dt.date | None = None
    for meeting in meetings:
        slot = meeting.slot
        if meeting.day.date != day:
            day, busy = meeting.day.date, {}
        start, end, code = meeting.start_secs, meeting.end_secs, slot.code
        for kind, name in (
            ("class", code),
            ("room", slot.room),
            *[("teacher", one) for one in slot.teachers],
        ):
            if not name:
                continue
            here = kind, plain(name)
            others = busy.get(here)
            if others is None:
                busy[here] = [(start, end, code)]
                continue
            for other_start, other_end, other in others:
                if other_start < end and start < other_end:
                    first, second = sorted((other, code))
                    key = (*here, first, second)
                    found[key].append(meeting.day.date)
                    names.setdefault(key, (name, first, second))
            others.append((start, end, code))
    return [Clash(key[0], *names[key], dates[0], len(dates)) for key, dates in found.items()]
