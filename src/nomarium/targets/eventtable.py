"""Dated events as a table, under the headings of the starter file, so that `build` reads them back."""

import csv
import datetime as dt
import io
from collections.abc import Iterator
from pathlib import Path
from typing import BinaryIO, TextIO

from nomarium.model.errors import SourceError
from nomarium.model.event import FACETS, Event, Person
from nomarium.model.eventcolumns import EVENT_COLUMNS
from nomarium.model.problem import Problem
from nomarium.targets.workbooks import Book, guarded, head_format, is_fault, write_workbook

HEADINGS = tuple(EVENT_COLUMNS)
_ALWAYS = 4
"""Columns that stay even when they are empty."""
_DATES, _TIMES = (1, 4), (2, 3)
_MOST_CHARACTERS = 32_767
_DAY = dt.timedelta(days=1)


def cells_of(event: Event) -> list[str]:
    """An event as the cells of `HEADINGS`: ISO dates, times to the minute where they have no seconds."""
    start, end, details = event.start, event.end, event.details
    if isinstance(start, dt.datetime) and isinstance(end, dt.datetime):
        times = [_clock(start), _clock(end)]
        last = end.date().isoformat() if end.date() != start.date() else ""
        zone = event.zone or ""
        when = [start.date().isoformat(), *times, last, ""]
    else:
        last_day = end - _DAY
        zone = ""
        when = [start.isoformat(), "", "", last_day.isoformat() if last_day > start else "", "yes"]
    geo = details.geo
    facets = dict(details.facets)
    return [
        event.summary, *when, event.location, event.description,
        "; ".join(details.categories), "; ".join(details.audience),
        _person(details.organizer) if details.organizer else "",
        "; ".join(_person(one) for one in details.attendees if not one.optional),
        "; ".join(_person(one) for one in details.attendees if one.optional),
        "yes" if details.attendees and all(";RSVP=TRUE" in one.parameters for one in details.attendees) else "",
        details.url, details.conference, details.status.casefold(), details.privacy.casefold(),
        "" if details.busy is None else "yes" if details.busy else "no",
        _length(details.reminder_secs), details.color,
        "" if details.priority is None else str(details.priority),
        f"{geo[0]:.6f}; {geo[1]:.6f}" if geo else "", zone, details.uid,
        *(facets.get(name, "") for name in FACETS),
    ]  # fmt: skip


def _clock(moment: dt.datetime) -> str:
    return moment.strftime("%H:%M:%S" if moment.second else "%H:%M")


def _person(person: Person) -> str:
    return f"{person.name} <{person.email}>" if person.name and person.email else person.name or person.email


def _length(secs: int | None) -> str:
    if secs is None:
        return ""
    return f"{secs // 60} min" if secs % 60 == 0 else f"PT{secs}S"


class EventTable:
    """A table in the making: rows go to a spool, so that empty columns can be left out at the end."""

    def __init__(self, spool: TextIO) -> None:
        self._spool = spool
        self._write = csv.writer(spool).writerow
        self._used = [n < _ALWAYS for n in range(len(HEADINGS))]
        self.row_count = 0

    def add(self, event: Event) -> None:
        """Append an event."""
        cells = cells_of(event)
        for n, cell in enumerate(cells):
            if cell and not self._used[n]:
                self._used[n] = True
        self._write(cells)
        self.row_count += 1

    def _rows(self) -> Iterator[list[str]]:
        self._spool.seek(0)
        for cells in csv.reader(self._spool):
            yield [cell for cell, used in zip(cells, self._used, strict=True) if used]

    def _columns(self) -> list[int]:
        return [n for n, used in enumerate(self._used) if used]

    def write_csv(self, target: BinaryIO) -> None:
        """Write it as CSV in UTF-8. The mark at its front tells spreadsheet applications the encoding."""
        text = io.TextIOWrapper(target, encoding="utf-8-sig", errors="replace", newline="")
        writer = csv.writer(text)
        writer.writerow([HEADINGS[n] for n in self._columns()])
        for cells in self._rows():
            writer.writerow(map(guarded, cells))
        text.flush()
        text.detach()

    def write_xlsx(self, target: BinaryIO) -> None:
        """Write it as a workbook of one sheet, with real dates and times."""
        columns = self._columns()

        def fill(book: Book) -> None:
            bold = head_format(book)
            date = book.add_format({"num_format": "yyyy-mm-dd"})
            time = {
                5: book.add_format({"num_format": "hh:mm"}),
                8: book.add_format({"num_format": "hh:mm:ss"}),
            }
            page = book.add_worksheet("Events")
            page.freeze_panes(1, 1)
            for at, n in enumerate(columns):
                page.set_column(at, at, _width(n))
                page.write_string(0, at, HEADINGS[n], bold)
            for row, cells in enumerate(self._rows(), 1):
                for at, (n, cell) in enumerate(zip(columns, cells, strict=True)):
                    if not cell:
                        continue
                    if n in _DATES:
                        page.write_datetime(row, at, dt.datetime.fromisoformat(cell), date)
                    elif n in _TIMES:
                        page.write_number(row, at, _fraction(cell), time[len(cell)])
                    else:
                        page.write_string(row, at, f"'{cell}" if is_fault(cell) else _fitting(cell, n))
            page.autofilter(0, 0, self.row_count, len(columns) - 1)

        write_workbook(target, "Events", fill, is_long=True)


def _width(n: int) -> int:
    return {0: 30, 1: 11, 2: 7, 3: 7, 4: 11, 5: 8, 6: 20, 7: 36}.get(n, 16)


def _fraction(clock: str) -> float:
    hour, minute, second = ([int(part) for part in clock.split(":")] + [0])[:3]
    return (hour * 3600 + minute * 60 + second) / 86_400


def _fitting(cell: str, n: int) -> str:
    """A text that a workbook's cell can hold. Raises SourceError rather than cut it."""
    if len(cell) <= _MOST_CHARACTERS:
        return cell
    message = f"A {HEADINGS[n]} of {len(cell):,} characters does not fit into a workbook's cell ({_MOST_CHARACTERS:,})."
    raise SourceError(Problem("cell-too-long", message, "Write a .csv instead."))


def table_kind(path: Path) -> str:
    """csv or xlsx, for a file to be written as a table; nothing for any other."""
    ending = path.suffix.lower()
    return ending[1:] if ending in (".csv", ".xlsx") else ""


def write_table(table: EventTable, kind: str, target: BinaryIO) -> None:
    """Write a table in its form."""
    (table.write_csv if kind == "csv" else table.write_xlsx)(target)
