"""How something came about: one step from the cells of a source to a date on a calendar."""

from typing import NamedTuple


class Step(NamedTuple):
    """What was looked at, where it stands, and what it did."""

    what: str
    """A table or a field: `timetable`, `bells`, `date` …"""
    where: str
    """The place as messages name it; nothing where there is none."""
    text: str
