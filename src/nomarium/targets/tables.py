"""A table as the target: one dated event a row."""

import tempfile
from pathlib import Path
from typing import BinaryIO

from nomarium.model.event import Event
from nomarium.targets.eventtable import EventTable, table_kind, write_table
from nomarium.targets.identities import Identities
from nomarium.targets.onefile import OneFileTarget


class TableTarget(OneFileTarget):
    """A table, whose rows are kept in a file on the way."""

    def __init__(self, target: Path, identities: Identities, is_dry: bool = False) -> None:
        super().__init__(None if is_dry else target, identities)
        self._kind = table_kind(target)
        # the file lives as long as the target; `close` closes it
        self._spool = tempfile.TemporaryFile("w+", encoding="utf-8", errors="replace", newline="")  # noqa: SIM115
        self._table = EventTable(self._spool)

    def _take(self, event: Event, uid: str) -> None:
        self.untold_count += bool(event.details.other)
        self._table.add(event._replace(details=event.details._replace(uid=uid)))

    def _write(self, file: BinaryIO) -> None:
        write_table(self._table, self._kind, file)

    def close(self) -> None:
        """Remove what was written on the way."""
        self._spool.close()
