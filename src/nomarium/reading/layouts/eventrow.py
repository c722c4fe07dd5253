"""The row of a list that lines of text come to."""

from typing import Final, NamedTuple

COLUMNS: Final = {
    "Date": "date", "Time": "time", "Event": "summary", "Where": "location",
    "Notes": "description", "Length": "duration", "Repeat": "repeat", "Except": "except",
}  # fmt: skip
"""The headings of lines made rows, and the fields that their columns are, whatever stands in them."""
HEADINGS: Final = tuple(COLUMNS)
ALWAYS: Final = 6
"""Columns that every list of lines has; the others only where a line fills them."""


class EventRow(NamedTuple):
    """Texts as the columns of HEADINGS have them."""

    date: str
    time: str
    title: str
    place: str = ""
    notes: str = ""
    length: str = ""
    repeat: str = ""
    without: str = ""
    """The days on which it is not held."""
