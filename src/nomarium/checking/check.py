"""Everything that is checked of the events of some sources, in one pass."""

import datetime as dt
from collections.abc import Callable, Sequence

from nomarium.checking.clashes import Clashes
from nomarium.checking.doubles import ClockChanges, Doubles
from nomarium.checking.finding import CODES, Finding
from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.reckoning.window import Window
from nomarium.sources.dated import on_dates
from nomarium.sources.source import Source


def checked(
    sources: Sequence[Source],
    window: Window,
    zone_name: str | None,
    progress: Callable[[int], None] | None = None,
    horizon: dt.date | None = None,
) -> tuple[list[Finding], int]:
    """What is wrong among the events of sources, by kind and first date, and how many events there are. The accounts of
    the sources are complete then; `progress` hears of the count on the way. `horizon` is the last date of repeats without
    an end, where the window has none."""

    def where(number: int, row: int) -> str:
        return str(sources[number].place(row or None))

    clashes, doubles, clocks = Clashes(where), Doubles(where), ClockChanges(where)
    count = 0
    for number, source in enumerate(sources):
        people_of = _People(source.calendars.persons_of)
        for _, _, (event, _, is_skipped, _) in on_dates((source,), window, zone_name, horizon):
            count += 1
            if progress is not None and not count & 1023:
                progress(count)
            if not source.calendars.everywhere:  # what is about the year itself is nobody's
                clashes.take(event, number, people_of(event))
                doubles.take(event, number)
                clocks.take(event, number, is_skipped)
        for note in source.account.all_notes() if not source.revises else ():
            if note.code == "time-skipped":  # reading has moved it on, and says so
                clocks.take_moved(number, note.place.row)
    found = [*clashes.findings(), *doubles.findings(), *clocks.findings()]
    found.sort(key=lambda one: (CODES.index(one.code), one.dates[:1], one.who))
    return found, count


class _People:
    """Who has an event beside its teachers, found once for all that say the same of their people."""

    def __init__(self, persons_of: Callable[[Event], tuple[str, ...]] | None) -> None:
        self._persons_of = persons_of
        self._known: dict[object, tuple[str, ...]] = {}

    def __call__(self, event: Event) -> tuple[str, ...]:
        if self._persons_of is None:
            return ()
        details = event.details
        mark = (details.facets, details.audience, details.attendees)
        known = self._known.get(mark)
        if known is None:
            taught = frozenset(values_of(event, "teacher"))
            known = self._known[mark] = tuple(name for name in self._persons_of(event) if name not in taught)
        return known
