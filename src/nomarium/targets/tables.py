"""A table as the target: one dated event a row."""

import datetime as dt
import tempfile
from pathlib import Path
from types import TracebackType
from typing import TYPE_CHECKING, Self

from nomarium.ical.lines import body_writer
from nomarium.model.event import Event
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.eventtable import EventTable, table_kind, write_table
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import WrittenFile, replace_file

if TYPE_CHECKING:
    from nomarium.targets.target import Shared


class TableTarget:
    """Takes events one by one and, at the end, replaces the table in one go."""

    def __init__(self, target: Path, identities: Identities) -> None:
        self._target = target
        self._uid_of = identities.uid_of
        self._body_of = body_writer()
        # the file lives as long as the target; `close` closes it
        self._spool = tempfile.TemporaryFile("w+", encoding="utf-8", errors="replace", newline="")  # noqa: SIM115
        self._table = EventTable(self._spool)
        self._first: dt.date | None = None
        self._last: dt.date | None = None
        self.has_floating = False
        self.changes: dict[str, int] = {}
        self.untold_count = 0

    def write(self, event: Event, last_start: dt.date | None = None, calendars: Calendars = BY_VALUE) -> None:
        """Take an event. A table has neither rules nor parts: the rest makes no difference to it."""
        uid = self._uid_of(event, self._body_of(event))
        if event.zone is None and isinstance(event.start, dt.datetime):
            self.has_floating = True
        self.untold_count += bool(event.details.other)
        first, last = event.first_day, event.last_day
        self._first = first if self._first is None else min(self._first, first)
        self._last = last if self._last is None else max(self._last, last)
        self._table.add(event._replace(details=event.details._replace(uid=uid)))

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        return (self._first, self._last) if self._first and self._last else None

    @property
    def shared(self) -> "Shared | None":
        """None: a table is one file in the order of its rows."""
        return None

    def finish(self) -> list[WrittenFile]:
        """Write the table and put it in its place."""
        kind = table_kind(self._target)
        replace_file(self._target, lambda file: write_table(self._table, kind, file))
        return [WrittenFile(str(self._target), self._table.row_count)]

    def kept_files(self) -> list[str]:
        """None: a table is one file."""
        return []

    def close(self) -> None:
        """Remove what was written on the way."""
        self._spool.close()

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()
