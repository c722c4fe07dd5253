"""Columns that are headed as of different weekdays, `Fri training` and `Sat match`, in a list whose rows have one date each."""

from collections.abc import Sequence
from typing import Final

from nomarium.model.problem import Problem
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.sheets.sheet import Sheet

_USED: Final = frozenset(("summary", "class", "time", "start", "end", "when", "location", "room"))


def weekdays_apart(sheet: Sheet, columns: Sequence[Column], lexicon: Lexicon) -> list[Problem]:
    """A problem where columns of titles, times or places are headed as of different weekdays: read together they would be of
    one date."""
    named = [
        (column, days)
        for column in columns
        if column.field in _USED and column.how != "asked" and (days := _weekdays_in(column.heading, lexicon))
    ]
    if len(named) < 2 or len({days for _, days in named}) < 2:
        return []
    headings = listed([f"“{column.heading}”" for column, _ in named])
    message = f"{headings} are headed as of different days, and each row would be of one."
    remedy = "Head each with its weekday alone, and write what is on into the cells (a planner); or give each day rows of its own."
    return [Problem("heading-weekdays", message, remedy, sheet.place(None, named[0][0].at))]


def _weekdays_in(heading: str, lexicon: Lexicon) -> frozenset[int]:
    """The weekdays that a heading names among other words."""
    words = "".join(one if one.isalpha() else " " for one in fold(heading)).split()
    return frozenset(day for word in words if len(word) > 1 and (day := lexicon.weekday(word)) is not None)
