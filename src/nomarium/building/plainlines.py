"""The commonest rows straight to the lines of their events, at about half the cost of an event in between.

What a row must be to be plain is said by `reading.rows.plainrows`; all others come as events.
"""

from collections.abc import Sequence
from functools import partial
from operator import itemgetter
from typing import TYPE_CHECKING

from nomarium.ical.lines import (
    Memo,
    TimeLines,
    description_line,
    details_lines,
    location_line,
    summary_line,
)
from nomarium.model.cell import Cell
from nomarium.model.event import NO_DETAILS, TAKEN, Event
from nomarium.reading.rows.plainrows import (
    PLAIN_FIELDS,
    PlainReader,
    PlainTable,
    ReaderOf,
    event_reader,
    plain_title,
)

if TYPE_CHECKING:
    from nomarium.targets.target import PlainTarget


def lines_into(target: "PlainTarget") -> ReaderOf:
    """What makes a reader of plain rows that puts their events into a target, and gives `TAKEN` for each."""
    return partial(_reader, target)


def _reader(target: "PlainTarget", table: PlainTable) -> PlainReader:
    lines = _Lines(table)
    if not lines.starts.is_short:
        return event_reader(table)
    date_at, start_at, end_at, summary_at, location_at, description_at = (
        table.at[field] for field in PLAIN_FIELDS
    )
    days, begins, ends, titles = lines.days, lines.begins, lines.ends, lines.titles
    places, rest, width, zone = lines.places, lines.rest, table.width, table.zone_name
    descriptions, write = table.memos["description"], target.write_plain
    rest_of = itemgetter(*table.rest.indices) if table.rest is not None else None

    def plainly(number: int, row: Sequence[Cell]) -> Event | None:
        if len(row) != width:
            return None
        day, begin, end, title = (
            days[row[date_at]],
            begins[row[start_at]],
            ends[row[end_at]],
            titles[row[summary_at]],
        )
        if day is None or begin is None or end is None or title is None or end[0] <= begin[0]:
            return None
        place = places[row[location_at]] if location_at >= 0 else lines.place
        description = descriptions[row[description_at] if description_at >= 0 else ""]
        if place is None or type(description) is not str:
            return None
        more = ""
        if rest_of is not None:
            found = rest[rest_of(row)]
            if found is None:
                return None
            more, room = found
            place = place or room
        body = (
            f"{day[1]}{begin[1]}{day[2]}{end[1]}{title[1]}{place}"
            f"{description_line(description) if description else ''}{more}END:VEVENT\r\n"
        )
        write(zone, title[0], day[0], body, number)
        return TAKEN

    return plainly


class _Lines:
    """The finished lines of the cells of a table, each distinct one made once; None for cells that need a closer look."""

    def __init__(self, table: PlainTable) -> None:
        self.starts, self.stops = TimeLines("DTSTART", table.zone_name), TimeLines("DTEND", table.zone_name)
        self._table = table
        self.days = Memo[Cell, tuple[int, str, str] | None](self._day)
        """The day as a number, and how the lines of its start and its end begin."""
        self.begins = Memo[Cell, tuple[int, str] | None](partial(self._clock, "start"))
        """The seconds since midnight, and how the line of such a time ends."""
        self.ends = Memo[Cell, tuple[int, str] | None](partial(self._clock, "end"))
        self.titles = Memo[Cell, tuple[str, str] | None](self._title)
        """The title, and its line."""
        self.places = Memo[Cell, str | None](self._place)
        self.place = self._place("")
        """The line of rows without a column of places."""
        self.rest = Memo[Cell | tuple[Cell, ...], tuple[str, str] | None](self._more)
        """The lines of the other columns, and that of the room."""

    def _day(self, cell: Cell) -> tuple[int, str, str] | None:
        day = self._table.memos["date"][cell].plain_day
        if day is None:
            return None
        number = day.toordinal()
        return number, self.starts.days[number], self.stops.days[number]

    def _clock(self, field: str, cell: Cell) -> tuple[int, str] | None:
        time = self._table.memos[field][cell].plain_time
        if time is None:
            return None
        return (time.hour * 60 + time.minute) * 60 + time.second, self.starts.clocks[time]

    def _title(self, cell: Cell) -> tuple[str, str] | None:
        title = plain_title(cell)
        return (title, summary_line(title)) if title else None

    def _place(self, cell: Cell) -> str | None:
        place = self._table.memos["location"][cell]
        return location_line(place) if type(place) is str else None

    def _more(self, cells: Cell | tuple[Cell, ...]) -> tuple[str, str] | None:
        assert self._table.rest is not None
        found = self._table.rest[cells]
        if found is None:
            return None
        details, room = found
        return "" if details is NO_DETAILS else details_lines(details), location_line(room)
