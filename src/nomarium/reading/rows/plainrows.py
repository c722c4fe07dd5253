"""The commonest rows by the shortest way: a date with a start and an end, a title, perhaps a place and a description.

Everything here could be left to the reader of all rows, at about three times the cost a row.
"""

import datetime as dt
from collections.abc import Callable, Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.model.event import NO_DETAILS, Event
from nomarium.reading.cells.choices import CANCELLING_STARTS
from nomarium.reading.cells.memo import CellMemo

PlainReader = Callable[[int, Sequence[Cell]], Event | None]
"""Gives the event of a row of this number about which nothing is open, and None for all other rows."""

PLAIN_FIELDS = ("date", "start", "end", "summary", "location", "description")
"""The columns that a plain table may have; the first four it must have."""


def never(_number: int, _row: Sequence[Cell]) -> None:
    """For tables none of whose rows are plain."""


def plain_reader(
    at: Mapping[str, int], memos: Mapping[str, CellMemo], width: int, zone_name: str | None
) -> PlainReader:
    """What reads rows of this many cells; `at` is the column of each of `PLAIN_FIELDS`, -1 for none."""
    date_at, start_at, end_at, summary_at, location_at, description_at = (at[field] for field in PLAIN_FIELDS)
    dates, starts, ends = memos["date"], memos["start"], memos["end"]
    locations, descriptions = memos["location"], memos["description"]
    combine, new = dt.datetime.combine, tuple.__new__

    def plainly(number: int, row: Sequence[Cell]) -> Event | None:
        if len(row) != width:
            return None
        day = dates[row[date_at]].plain_day
        start = starts[row[start_at]].plain_time
        end = ends[row[end_at]].plain_time
        summary = row[summary_at]
        if day is None or start is None or end is None or end <= start or type(summary) is not str:
            return None
        summary = summary.strip()
        # an error value, an example row, a guarded formula; a bracket or a word that may cancel it; a dash
        if not summary or summary[0] in "#E'-–—" or summary[-1] == ")" or summary[:4] in CANCELLING_STARTS:
            return None
        location = locations[row[location_at] if location_at >= 0 else ""]
        description = descriptions[row[description_at] if description_at >= 0 else ""]
        if type(location) is not str or type(description) is not str:
            return None
        # what Event(…) does, without the cost of its defaults
        return new(Event, (
            summary, combine(day, start), combine(day, end), zone_name, location, description, NO_DETAILS, number,
        ))  # fmt: skip

    return plainly
