"""The dated events of any sources: what everything gets that looks at events and writes none."""

from collections.abc import Iterable, Iterator

from nomarium.model.event import Event
from nomarium.reckoning.series import dates_of
from nomarium.reckoning.window import Window
from nomarium.sources.source import Source


def dated_events(sources: Iterable[Source], window: Window, zone_name: str | None = None) -> Iterator[Event]:
    """The events of all sources on each of their dates in a window, source by source. The accounts of a source are
    complete when the next one begins.

    `zone_name` is the zone of times in zones that only their file explains; UTC when it is None.
    """
    for source in sources:
        here = window.also_without(source.days_off)
        for item in source.events():
            is_wanted = False
            for one in dates_of(item, here, zone_name):
                is_wanted = True
                yield one.event
            if not is_wanted:
                source.leave_out(item)
