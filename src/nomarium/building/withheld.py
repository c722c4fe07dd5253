"""What a calendar holds already, so that it is not written again: by UID, else by title and time, one for one."""

import datetime as dt
from collections import defaultdict
from collections.abc import Container, Iterable, Iterator

from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.reckoning.zones import zone_named
from nomarium.school.planheads import plain

_Key = tuple[str, str, dt.date | dt.datetime, dt.date | dt.datetime]


class Withheld:
    """The events of calendars, each of which stands for one event that is not to be written."""

    def __init__(self, events: Iterable[Event], own_uids: Container[str] = frozenset()) -> None:
        """`events` are dated. `own_uids`: UIDs of the sources; what has one of them is met by it, and by nothing else,
        so that a double of the same title and time stays."""
        self.count = 0
        """How many events have been left out for it."""
        self._uids: set[str] = set()
        self._held: dict[_Key, list[int]] = defaultdict(list)
        """By what they are known by: the numbers of the events that are not met by their UIDs."""
        self._met: set[int] = set()
        for number, event in enumerate(events):
            uid = event.details.uid
            if uid:
                self._uids.add(uid)
            if not uid or uid not in own_uids:
                for key in _keys_of(event):
                    self._held[key].append(number)

    def takes_by_uid(self, item: Event | Series) -> bool:
        """Whether an event, or a series, is left out for its UID."""
        event = item.entries[0].event if isinstance(item, Series) else item
        if event.details.uid not in self._uids:
            return False
        self.count += 1
        return True

    def takes(self, event: Event) -> bool:
        """Whether a dated event is left out for its title and time."""
        for key in _keys_of(event, asks=True):
            for number in self._held.get(key, ()):
                if number not in self._met:
                    self._met.add(number)
                    self.count += 1
                    return True
        return False


def _keys_of(event: Event, asks: bool = False) -> Iterator[_Key]:
    """What an event is known by: the moment where it has a zone, the time on the clock where it or the other floats."""
    title, start, end = plain(event.summary), event.start, event.end
    zone = zone_named(event.zone) if event.zone else None
    if zone is None or not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime):
        yield title, "floating", start, end
        if asks:
            yield title, "zoned", start, end
        return
    first, last = (
        moment.replace(tzinfo=zone).astimezone(dt.UTC).replace(tzinfo=None) for moment in (start, end)
    )
    yield title, "UTC", first, last
    yield title, "floating" if asks else "zoned", start, end
