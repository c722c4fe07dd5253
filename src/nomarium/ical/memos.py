"""Values of calendar files that come again and again, each read once."""

import datetime as dt

from nomarium.ical.filezones import ZoneNames
from nomarium.ical.kept import stamp_of
from nomarium.ical.values import instant_of
from nomarium.model.entry import Instant
from nomarium.reckoning.values import plain_moment

_MOST = 50_000


class MomentMemo(dict[str, "Instant | str"]):
    """The moments of one property head by value, each read once."""

    def __init__(self, head: str, zones: ZoneNames) -> None:
        super().__init__()
        self._head = head
        self._zones = zones
        self._placed: tuple[str | None, dt.tzinfo | None] | None = (None, None) if ";" not in head else None
        """The name and the zone of its local times, once a first one has found them."""

    def __missing__(self, value: str) -> Instant | str:
        if len(self) > _MOST:
            self.clear()
        moment: Instant | str | None = None
        if self._placed is not None:
            try:
                if (local := plain_moment(value)) is not None:
                    moment = tuple.__new__(Instant, (local, *self._placed))
            except ValueError:  # said below
                pass
        if moment is None:
            moment = instant_of(self._head, value, self._zones)
            if type(moment) is Instant and len(value) == 15:
                self._placed = moment[1:]
        self[value] = moment
        return moment


class StampMemo(dict[str, str]):
    """The stamps of DTSTAMP by value, blank for what must be looked at more closely."""

    def __init__(self, zones: ZoneNames) -> None:
        super().__init__()
        self._zones = zones
        self._is_plain = True

    def __missing__(self, value: str) -> str:
        if len(self) > _MOST:
            self.clear()
        self._is_plain = True
        stamp = stamp_of("DTSTAMP", value, self._zones, self._told)
        self[value] = stamp if self._is_plain else ""
        return self[value]

    def _told(self, _code: str, _line: str) -> None:
        self._is_plain = False
