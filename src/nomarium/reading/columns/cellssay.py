"""What a heading stands for by the cells under it, where that is another field than its words say."""

import datetime as dt
import re

from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.headings import normal
from nomarium.sheets.sheet import cell_text

ARRIVING = frozenset(("arrives", "arrival", "arrival date", "arriving", "arrive", "check in", "checkin"))
LEAVING = frozenset(("leaves", "leave", "leaving", "departs", "departure", "depart"))
_NAMES = frozenset(
    (
        "group",
        "class",
        "room",
        "teacher",
        "audience",
        "division",
        "label",
        "term",
        "person",
        "location",
        "description",
    )
)
"""Fields of words: a column of dates is none of them, whatever its heading."""


def coming_and_going(columns: list[Column], contents: list[Contents]) -> dict[int, str]:
    """The columns of times of which one says when people come and the other when they go."""
    found = {}
    for field, words in (("start", ARRIVING), ("end", LEAVING)):
        timed = [
            c.at for c in columns
            if c.how == "heading" and normal(c.heading) in words and contents[c.at].cells and _are_times(contents[c.at])
        ]  # fmt: skip
        if len(timed) != 1:
            return {}
        found[timed[0]] = field
    return found


def _are_times(about: Contents) -> bool:
    """Whether every cell can be a time, also a figure alone."""
    read = [read_times(cell_text(cell)) for cell in about.different if isinstance(cell, (str, int))]
    clocks = all(isinstance(one, Times) and (one.start is not None or one.is_unknown) for one in read)
    return clocks and all(isinstance(cell, (str, int, dt.time)) for cell in about.different)


def are_whole(about: Contents) -> bool:
    """Whether every cell is a whole number, with a word before it or none: `Day 8`."""
    return all(re.fullmatch(r"[^\W\d]*\s*\d{1,3}", cell_text(cell)) for cell in about.different)


def another_field(
    field: str, about: Contents, columns: list[Column], contents: list[Contents], has_date: bool
) -> tuple[str, str] | None:
    """What a heading of words, of when, of a week or of a period stands for by its cells, where that is another field."""
    if field in _NAMES and about.begins_with_dates and about.dates >= MOSTLY:
        return "", "its cells are dates"
    if field == "time" and not has_date and about.dates >= MOSTLY:
        return "when", "its cells are dates with times"
    if field == "when" and any(c.field == "date" and contents[c.at].dates for c in columns):
        return _when_beside_a_date(columns, about)
    if field in ("period", "label") and about.are_clear_times and not says_time(columns):
        return "time", "its cells are times"
    if field == "week" and about.dates >= MOSTLY:
        return "date", "its cells are dates"
    return None


def _when_beside_a_date(columns: list[Column], about: Contents) -> tuple[str, str]:
    """What a column headed `When` is where another is the date: the time, or the date again; never nothing unseen."""
    if about.dates >= MOSTLY:
        return "date", "its cells are dates"
    if about.times < MOSTLY and says_time(columns):
        return "", "its cells are neither dates nor times"
    return "time", "another column is the date"


def says_time(columns: list[Column]) -> bool:
    return any(c.field in ("time", "start") for c in columns)
