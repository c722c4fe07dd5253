"""A table and the way to its events."""

from collections.abc import Iterator

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.plainrows import ReaderOf, event_reader
from nomarium.reading.rows.reader import read_events


class TableEvents:
    """What gives the events of a table. Its plain rows may be read by a reader of the caller's own."""

    def __init__(self, table: TableReading) -> None:
        self._table = table

    def __call__(self, account: Account, reader_of: ReaderOf = event_reader) -> Iterator[Event]:
        return read_events(self._table, account, reader_of)
