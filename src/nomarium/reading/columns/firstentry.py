"""Whether the first row of a list without headings is an event like the others, though its day is not settled yet."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.daycells import about_days, looks_like_date, names_day
from nomarium.sheets.sheet import Row

_FEW: Final = 2
"""Days whole weeks apart that may be so by chance; cells and rows that show a table."""
_LOOKED_AT: Final = 12
"""Rows below the first that show what columns hold."""
_CLEAR_TIME: Final = r"(?i)(?:[01]?\d|2[0-3])(?:[:.h][0-5]\d\b|\s?[ap]\.?m\b)(?!\.\d)"


def is_entry(row: Sequence[Cell], rows_below: Sequence[Row], lexicon: Lexicon) -> bool:
    """Whether a row over the first one with a date is an event of a list without headings: a day that is not settled (`TBC`,
    `Friday`, `mid May`) over the date, cells of the same make as those below (`Slip 1` over `Slip 2`), or a time over times."""
    if _has_time_as_below(row, rows_below):
        return True
    below = rows_below[0][1] if rows_below else ()
    under = [n for n, cell in enumerate(below) if looks_like_date(cell, lexicon) or names_day(cell, lexicon)]
    if len(under) != 1 or len(row) <= under[0]:
        return False
    over = row[under[0]]
    if over != "":
        column = [low[under[0]] for _, low in rows_below if under[0] < len(low)]
        return names_day(over, lexicon) and not _heads(over, column, lexicon)
    makes = {(n, make) for _, low in rows_below[:12] for n, cell in enumerate(low) if (make := _make(cell))}
    return any((n, _make(cell)) in makes for n, cell in enumerate(row))


def _has_time_as_below(row: Sequence[Cell], rows_below: Sequence[Row]) -> bool:
    """Whether a row of several cells has a clear time in a column in which two rows below it have one, too: no heading is a time."""
    timed = [n for n, cell in enumerate(row) if isinstance(cell, str) and re.match(_CLEAR_TIME, cell)]
    if not timed or sum(cell != "" for cell in row) < _FEW:
        return False
    return any(
        sum(
            n < len(low) and isinstance(low[n], str) and bool(re.match(_CLEAR_TIME, str(low[n])))
            for _, low in rows_below[:_LOOKED_AT]
        )
        >= _FEW
        for n in timed
    )


def _heads(cell: Cell, column: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether a weekday or a month, `Sunday`, is a heading: the date below it is on that weekday, or in that month; or days without
    a year stand below a weekday whole weeks apart."""
    word = fold(str(cell)).strip()
    weekday = lexicon.weekday(word)
    moment = read_moment(column[0], "either", lexicon)
    if isinstance(moment, Refusal) or moment.first is None:
        return False
    dates = [date for reading in moment.first.readings if (date := reading.date())]
    if dates or weekday is None:
        return any(weekday == date.weekday() or lexicon.months.get(word) == date.month for date in dates)
    days = about_days(column, lexicon)
    return len(days) > _FEW and all(_are_weeks_apart(one, other) for one, other in pairwise(days))


def _are_weeks_apart(one: int, other: int) -> bool:
    """Whether two days (ordinals) of a year that is not known are whole weeks apart, in the same or over its end."""
    return (other - one) % 7 == 0 if other >= one else (other - one) % 7 in (5, 6)


def _make(cell: Cell) -> str | None:
    """A text that ends in a number, without it: `Slip ` of `Slip 1`."""
    numbered = re.fullmatch(r"(\D*[^\W\d]\D*)\d{1,2}[a-z]?", cell) if isinstance(cell, str) else None
    return numbered[1] if numbered else None
