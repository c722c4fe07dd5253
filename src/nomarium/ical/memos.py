"""Values of calendar files that come again and again, each read once."""

from nomarium.ical.filezones import ZoneNames
from nomarium.ical.kept import stamp_of
from nomarium.ical.values import instant_of
from nomarium.model.entry import Instant

_MOST = 50_000


class MomentMemo(dict[str, "Instant | str"]):
    """The moments of one property head by value, each read once."""

    def __init__(self, head: str, zones: ZoneNames) -> None:
        super().__init__()
        self._head = head
        self._zones = zones

    def __missing__(self, value: str) -> Instant | str:
        if len(self) > _MOST:
            self.clear()
        moment = self[value] = instant_of(self._head, value, self._zones)
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

    def _told(self, _code: str) -> None:
        self._is_plain = False
