"""Targets that are one file with every dated event in it, which neither shares out nor carries over anything."""

import datetime as dt
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO

from nomarium.ical.lines import body_writer
from nomarium.model.event import Event
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.closing import Closing
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import WrittenFile, replace_file

if TYPE_CHECKING:
    from nomarium.targets.target import Shared


class OneFileTarget(Closing):
    """Takes events one by one and, at the end, replaces the file in one go. What the file is, its heirs say: `_take` and
    `_write`."""

    def __init__(self, target: Path | None, identities: Identities) -> None:
        """`target` is None for a dry run."""
        self._target = target
        self._uid_of = identities.uid_of
        self._body_of = body_writer()
        self._count = 0
        self._first: dt.date | None = None
        self._last: dt.date | None = None
        self.has_floating = False
        self.changes: dict[str, int] = {}
        self.untold_count = 0

    def write(self, event: Event, last_start: dt.date | None = None, calendars: Calendars = BY_VALUE) -> None:
        """Take an event. One file has neither rules nor parts: the rest makes no difference to it."""
        uid = self._uid_of(event, self._body_of(event))
        if event.zone is None and isinstance(event.start, dt.datetime):
            self.has_floating = True
        first, last = event.first_day, event.last_day
        self._first = first if self._first is None else min(self._first, first)
        self._last = last if self._last is None else max(self._last, last)
        self._count += 1
        self._take(event, uid)

    def _take(self, event: Event, uid: str) -> None:
        raise NotImplementedError

    def _write(self, file: BinaryIO) -> None:
        raise NotImplementedError

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        return (self._first, self._last) if self._first and self._last else None

    @property
    def shared(self) -> "Shared | None":
        """None: one file is in the order of its events."""
        return None

    def finish(self) -> list[WrittenFile]:
        """Write the file and put it in its place."""
        if self._target is None:
            return []
        replace_file(self._target, self._write)
        return [WrittenFile(str(self._target), self._count)]

    def kept_files(self) -> list[str]:
        """None: there is one file."""
        return []
