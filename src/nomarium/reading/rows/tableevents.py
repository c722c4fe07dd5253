"""A table and the way to its events."""

from collections.abc import Iterator

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.refusal import BEYOND
from nomarium.reading.cells.longtext import cut_refusal, with_whole_cells
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.plainrows import ReaderOf, event_reader, never
from nomarium.reading.rows.reader import RowReader
from nomarium.reading.rows.when import Blame


class TableEvents:
    """What gives the events of a table. Its plain rows may be read by a reader of the caller's own."""

    def __init__(self, table: TableReading) -> None:
        self._table = table

    def __call__(self, account: Account, reader_of: ReaderOf = event_reader) -> Iterator[Event]:
        return _events(self._table, account, reader_of)


def _events(reading: TableReading, account: Account, reader_of: ReaderOf) -> Iterator[Event]:
    """The events of a table in the order of its rows, up to the first that is rejected where only a part of them was looked
    at. What becomes of every row goes into `account`. `reader_of` makes what reads the commonest rows."""
    reader = RowReader(reading, account)
    plainly, read, ledger = reader.plain_reader(reader_of), reader.read, account.ledger
    if reading.sheet.is_cut:
        plainly = never
    ledger.notes += len(reading.head.title_rows)
    ledger.blank += reading.head.blank_rows
    for number in reading.head.title_rows:
        account.note_rows.append((number, "above the table"))
    count = reading.head.rows_above  # apart from what becomes of them, so that a row that is lost shows
    plain_count = last_number = 0  # kept here as long as they can be: this is done a million times
    if reading.head.title_rows and reading.lines:
        from nomarium.reading.rows.linesaround import events_above

        yield from events_above(reading, account)
    rows = with_whole_cells(reading.rows()) if reading.sheet.is_cut else reading.rows()
    try:
        for number, row in rows:
            count += 1
            event = plainly(number, row)
            if event is not None:
                plain_count += 1
                last_number = number
                yield event
                continue
            ledger.events += plain_count
            plain_count = 0
            try:
                found = read(number, row)
            except OverflowError:
                reader.reject(number, row, Blame("date", BEYOND))
                found = None
            if reading.sheet.is_cut and (cut := cut_refusal(repr(found))):
                reader.reject(number, row, Blame("description", cut))  # of a title whose parts are cut, too
                found = None
            if found is None:
                if account.rejected and not reading.is_whole:
                    break  # what a part of the table has settled may be why: it is looked at as a whole, and read again
                continue
            ledger.events += 1
            last_number = number
            if type(found) is list:
                account.several[number] = len(found)
                yield from found
            else:
                yield found  # type: ignore[misc]  # a list was told apart by its type, for speed
        reader.conclude(last_number)
    finally:
        ledger.events += plain_count
        ledger.read = count
