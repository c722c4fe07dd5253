"""The dated events of any sources: what everything gets that looks at events and writes none."""

import datetime as dt
from collections.abc import Iterable, Iterator
from typing import NamedTuple

from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.reckoning.series import Occurrence, dates_of
from nomarium.reckoning.window import Window
from nomarium.sources.source import Source


class OnDate(NamedTuple):
    """An event of a source on one of its dates."""

    source: Source
    item: Event | Series
    """What the source gave, with its repeat if it has one."""
    found: Occurrence


def on_dates(
    sources: Iterable[Source],
    window: Window,
    zone_name: str | None = None,
    horizon: dt.date | None = None,
) -> Iterator[OnDate]:
    """The events of all sources on each of their dates in a window, source by source. The accounts of a source are
    complete when the next one begins.

    `zone_name` is the zone of times in zones that only their file explains; UTC when it is None. `horizon` is the last
    date of series without an end, where the window has none.
    """
    for source in sources:
        here = window.also_without(source.days_off)
        followed = here if here.last else here._replace(last=horizon)
        for item in source.events():
            is_wanted = False
            is_endless = isinstance(item, Series) and item.is_endless
            for one in dates_of(item, followed if is_endless else here, zone_name):
                is_wanted = True
                yield OnDate(source, item, one)
            if not is_wanted:
                source.leave_out(item)


def dated_events(
    sources: Iterable[Source],
    window: Window,
    zone_name: str | None = None,
    horizon: dt.date | None = None,
) -> Iterator[Event]:
    """The same as events alone."""
    return (one.found.event for one in on_dates(sources, window, zone_name, horizon))
