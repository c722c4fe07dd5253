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
    busy: dict[tuple[str, str], list[Meeting]] = {}
    day: dt.date | None = None
    for meeting in meetings:
        if meeting.day.date != day:
            day, busy = meeting.day.date, {}
        slot = meeting.slot
        for kind, name in (
            ("class", slot.code),
            ("room", slot.room),
            *(("teacher", one) for one in slot.teachers),
        ):
            if not name:
                continue
            others = busy.setdefault((kind, plain(name)), [])
            for other in others:
                if other.start_secs < meeting.end_secs and meeting.start_secs < other.end_secs:
                    pair = sorted((other.slot.code, slot.code))
                    key = kind, plain(name), *pair
                    found[key].append(meeting.day.date)  # type: ignore[index]
                    names.setdefault(key, (name, *pair))  # type: ignore[arg-type]
            others.append(meeting)
    return [Clash(key[0], *names[key], dates[0], len(dates)) for key, dates in found.items()]
