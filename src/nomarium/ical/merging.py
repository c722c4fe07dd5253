"""Many VEVENTs to series, the newest state of each (RFC 5546, 2.1.5)."""

from collections import defaultdict
from collections.abc import Iterable
from typing import NamedTuple

from nomarium.model.entry import Entry, Series


class Merged(NamedTuple):
    """The series of all calendar files, in the order in which they were first met."""

    series: list[Series]
    superseded: list[Entry]
    """Entries of which a newer state is there."""


def merged(entries: Iterable[Entry]) -> Merged:
    """Group entries by UID. Of two with one UID (and one RECURRENCE-ID) the higher SEQUENCE stays, then
    the later DTSTAMP, then the later in order."""
    groups: dict[object, list[Entry]] = defaultdict(list)
    for number, entry in enumerate(entries):
        groups[entry.event.details.uid or number].append(entry)
    series, superseded = [], []
    for group in groups.values():
        if len(group) == 1:
            entry = group[0]
            series.append(Series(entry) if entry.original is None else Series(None, (entry,)))
            continue
        best: dict[object, Entry] = {}
        for entry in group:
            key = entry.original.utc if entry.original is not None else None
            other = best.get(key)
            if other is None or _age(entry) >= _age(other):
                best[key] = entry
            if other is not None:
                superseded.append(other if best[key] is entry else entry)
        main = best.pop(None, None)
        series.append(Series(main, tuple(best.values())))
    return Merged(series, superseded)


def _age(entry: Entry) -> tuple[int, str]:
    details = entry.event.details
    return details.sequence, details.dtstamp
