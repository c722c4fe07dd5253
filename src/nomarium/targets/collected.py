"""The events of the sources as they come, each with the UID that it would be written with, for those who go on with them."""

import datetime as dt
from collections.abc import Callable
from typing import TYPE_CHECKING

from nomarium.history.settling.identity import Coming
from nomarium.ical.lines import body_writer
from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.closing import Closing
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import WrittenFile

if TYPE_CHECKING:
    from nomarium.targets.target import Shared


class CollectedTarget(Closing):
    """Takes events one by one and keeps them."""

    untold_count = 0

    def __init__(self, identities: Identities) -> None:
        self._uid_of = identities.uid_of
        self._body_of = body_writer()
        self.coming: list[Coming] = []
        self.has_floating = False
        self.changes: dict[str, int] = {}
        self._place: Callable[[int], Place] = lambda _: Place()

    def begin(self, place: Callable[[int], Place]) -> None:
        """The events of another source begin, whose rows stand at these places."""
        self._place = place

    def write(self, event: Event, last_start: dt.date | None = None, calendars: Calendars = BY_VALUE) -> None:
        """Take an event of the source."""
        uid = self._uid_of(event, self._body_of(event))
        if event.zone is None and isinstance(event.start, dt.datetime):
            self.has_floating = True
        self.coming.append(Coming(event, uid, self._place(event.row_number), calendars, last_start))

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        if not self.coming:
            return None
        last = max(max(one.event.last_day, one.last_start or one.event.last_day) for one in self.coming)
        return min(one.event.first_day for one in self.coming), last

    @property
    def shared(self) -> "Shared | None":
        """None: every event must be here."""
        return None

    def finish(self) -> list[WrittenFile]:
        """Nothing is written."""
        return []

    def kept_files(self) -> list[str]:
        """None: nothing is written."""
        return []
