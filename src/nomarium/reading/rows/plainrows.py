"""The commonest rows by the shortest way: a date with a start and an end, a title, perhaps a place and a description.

Everything here could be left to the reader of all rows, at about three times the cost a row.
"""

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from operator import itemgetter
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.event import FACETS, NO_DETAILS, Details, Event
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import MEMO_SIZE, CellMemo
from nomarium.reading.cells.notheld import may_be_off
from nomarium.reading.rows.calledoff import is_off
from nomarium.reading.rows.details import details_of
from nomarium.reading.rows.titles import IDLE_STARTS, may_say_days
from nomarium.reading.rows.when import When
from nomarium.reading.rows.whenreader import WhenReader

PlainReader = Callable[[int, Sequence[Cell]], Event | None]
"""Gives the event of a row of this number about which nothing is open, and None for all other rows; `TAKEN` where it has taken the event
itself."""

PLAIN_FIELDS = ("date", "start", "end", "summary", "location", "description")
"""The columns that a plain table may have; the first four it must have."""


_ASKING = frozenset(("time", "end-date", "duration", "all-day", "timezone", "week", "milestone"))
"""Columns that say when in other ways."""


def never(_number: int, _row: Sequence[Cell]) -> None:
    """For tables none of whose rows are plain."""


class PlainTable(NamedTuple):
    """A table whose commonest rows are plain: where the cells of `PLAIN_FIELDS` stand, and what they are read as."""

    at: Mapping[str, int]
    """The column of each, -1 for none."""
    memos: Mapping[str, CellMemo]
    rest: "RestMemo | None"
    """The details of the columns that say anything else; None when there are none."""
    width: int
    """How many cells a row has."""
    zone_name: str | None


ReaderOf = Callable[[PlainTable], PlainReader]


def plain_table_of(
    when: WhenReader, texts: Mapping[str, CellMemo], rest: Sequence[tuple[str, CellMemo, int]], width: int
) -> PlainTable | None:
    """What is plain about a table; None where no row is. Other columns may be there whose cells say the same whatever the row."""
    at = {field: when.at.get(field, -1) for field in PLAIN_FIELDS}
    if when.known & _ASKING or min(at[field] for field in PLAIN_FIELDS[:4]) < 0 or when.days is not None:
        return None
    has_columns = any(index >= 0 for _, _, index in rest)
    if any(name not in _SIMPLE for name, _, _ in rest) or (rest and not has_columns):
        return None
    return PlainTable(at, {**when.parts, **texts}, RestMemo(rest) if rest else None, width, when.zone_name)


def plain_title(cell: Cell) -> str:
    """A title that stands for itself; nothing for an error value, an example row, a guarded formula, a dash, a bracket or a word
    that may cancel it, and several lines."""
    title = cell.strip() if type(cell) is str else ""
    if (
        not title
        or title[0] in "#E'-–—*[(~!"
        or title[-1] in ")]*~!"
        or title[:4] in IDLE_STARTS
        or "\n" in title
        or may_say_days(title)
        or (may_be_off(title) and is_off(title))
    ):
        return ""
    return title


def event_reader(table: PlainTable) -> PlainReader:
    """What reads the plain rows of a table as events."""
    date_at, start_at, end_at, summary_at, location_at, description_at = (
        table.at[field] for field in PLAIN_FIELDS
    )
    memos, width, zone_name, rest = table.memos, table.width, table.zone_name, table.rest
    dates, starts, ends = memos["date"], memos["start"], memos["end"]
    locations, descriptions = memos["location"], memos["description"]
    combine, new = dt.datetime.combine, tuple.__new__
    rest_of = itemgetter(*rest.indices) if rest is not None else None

    def plainly(number: int, row: Sequence[Cell]) -> Event | None:
        if len(row) != width:
            return None
        day = dates[row[date_at]].plain_day
        start = starts[row[start_at]].plain_time
        end = ends[row[end_at]].plain_time
        summary = plain_title(row[summary_at])
        if day is None or start is None or end is None or end <= start or not summary:
            return None
        location = locations[row[location_at] if location_at >= 0 else ""]
        description = descriptions[row[description_at] if description_at >= 0 else ""]
        if type(location) is not str or type(description) is not str:
            return None
        details = NO_DETAILS
        if rest_of is not None:
            found = rest[rest_of(row)]  # type: ignore[index]  # there is one where there is `rest_of`
            if found is None:
                return None
            details, room = found
            location = location or room
        # what Event(…) does, without the cost of its defaults
        return new(Event, (
            summary, combine(day, start), combine(day, end), zone_name, location, description, details, number,
        ))  # fmt: skip

    return plainly


class RestMemo(dict[Cell | tuple[Cell, ...], tuple[Details, str] | None]):
    """The details, and the room, of rows by the cells of their other columns; None for rows that need a closer look."""

    def __init__(self, rest: Sequence[tuple[str, CellMemo, int]]) -> None:
        super().__init__()
        self._columns = [(name, memo) for name, memo, index in rest if index >= 0]
        self.indices = [index for _, _, index in rest if index >= 0]
        self._fixed = {name: memo[""] for name, memo, index in rest if index < 0}

    def __missing__(self, key: Cell | tuple[Cell, ...]) -> tuple[Details, str] | None:
        cells = key if isinstance(key, tuple) else (key,)
        values = {
            name: memo[cell] for (name, memo), cell in zip(self._columns, cells, strict=True)
        } | self._fixed
        found = None
        if not any(type(value) is Refusal for value in values.values()):
            found = details_of(values, _ANY_TIME, None), values.get("room") or ""
        if len(self) >= MEMO_SIZE:
            self.clear()
        self[key] = found
        return found


_ANY_TIME = When(dt.date.min, dt.date.min, None)
_SIMPLE = frozenset(
    ("categories", "audience", "organizer", "attendees", "optional-attendees", "url", "conference", "status", "more-categories",
     "privacy", "private", "busy", "color", "priority", "geo", *FACETS)
)  # fmt: skip
"""Columns whose cells say the same whatever the row is; others need the row's date, or tell of something."""
