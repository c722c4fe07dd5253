"""Spreadsheets that read as event lists, grids, months and the like."""

from collections.abc import Callable, Container, Iterator
from typing import TYPE_CHECKING

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.reading.layouts.layout import Reading
from nomarium.sheets.sheet import Sheet, is_blank
from nomarium.sources.source import BY_VALUE, Calendars, Source

if TYPE_CHECKING:
    from nomarium.model.entry import Series
    from nomarium.reading.rows.plainrows import ReaderOf


class ListSource(Source):
    """One sheet, whatever its layout: each event is one of its rows, or entries."""

    def __init__(
        self,
        reading: Reading,
        days_off: Container[int] = frozenset(),
        calendars: Calendars = BY_VALUE,
        completed: Callable[[Event], Event] | None = None,
    ) -> None:
        """`completed` adds to each event what only its surroundings know, such as people's addresses."""
        self.reading = reading
        self.accounts = (Account(reading.sheet.title),)
        self.may_repeat = reading.may_repeat
        self.names_columns = reading.table is not None
        self.days_off = days_off
        self.calendars = calendars
        self._completed = completed

    def events(self) -> "Iterator[Event | Series]":
        events = self.reading.events(self.account)
        return events if self._completed is None else map(self._completed, events)

    def events_by(self, reader_of: "ReaderOf") -> "Iterator[Event | Series]":
        from nomarium.reading.rows.tableevents import TableEvents

        events = self.reading.events
        if self._completed is not None or not isinstance(events, TableEvents):
            return self.events()
        return events(self.account, reader_of)

    def leave_out(self, item: "Event | Series") -> None:
        several, row = self.account.several, item.row_number if isinstance(item, Event) else 0
        if row in several:  # the row is left out with the last of its events
            several[row] -= 1
            if several[row]:
                return
        self.account.leave_out()

    def place(self, row_number: int | None, field: str = "") -> Place:
        table = self.reading.table
        column = table.column(field) if table is not None and field else None
        at, heading = (column.at, column.heading) if column else (None, "")
        return self.reading.sheet.place(row_number, at, heading)

    @property
    def contradicts(self) -> bool:
        return bool(self.account.rejected) and not self.reading.is_whole


class RefusedSource(Source):
    """A sheet that is refused as a whole: none of its rows is an event, and each is counted."""

    may_repeat = False
    names_columns = True

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        self.accounts = (Account(sheet.title),)

    def events(self) -> "Iterator[Event | Series]":
        ledger = self.account.ledger
        for _, row in self.sheet.rows():
            ledger.read += 1
            if is_blank(row):
                ledger.blank += 1
            else:
                ledger.rejected += 1
        return iter(())

    def place(self, row_number: int | None, field: str = "") -> Place:
        return self.sheet.place(row_number)
