"""The row of a list that lines of text come to."""

import re
from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.placewords import is_place
from nomarium.sheets.sheet import Row

COLUMNS: Final = {
    "Date": "date", "Time": "time", "Event": "summary", "Where": "location",
    "Notes": "description", "Length": "duration", "Repeat": "repeat", "Except": "except",
    "Section": "categories",
}  # fmt: skip
"""The headings of lines made rows, and the fields that their columns are, whatever stands in them."""
HEADINGS: Final = tuple(COLUMNS)
ALWAYS: Final = 6
"""Columns that every list of lines has; the others only where a line fills them."""

_NAME: Final = re.compile(r"[A-ZÀ-Þ][^\W\d_]*(?:[-'’][^\W\d_]+)*")
_LEAST_NAMES: Final = 3


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
    section: str = ""
    """The heading over several lines, where others stand under others."""


def with_whole_names(rows: Sequence[Row]) -> list[Row]:
    """The rows, where most titles with a place are surnames and the places forenames, `Bauer, Otto`, or all those of one date
    are names, `Finch, Bell` and `Amaro`, with both as the title."""
    placed = [n for n, (_, cells) in enumerate(rows) if cells[3]]
    named = [n for n in placed if _is_name(rows[n][1][2]) and _is_name(rows[n][1][3]) and not rows[n][1][4]]
    named = [n for n in named if not is_place(str(rows[n][1][3]))]
    places = {rows[n][1][3] for n in named}
    of_all = len(named) >= _LEAST_NAMES and len(named) * 3 >= len(placed) * 2
    if len(places) * 2 <= len(named):
        return list(rows)  # Concert, Aula; Matinee, Aula: places come back
    of_people = {
        n for n in named if of_all or _are_names([cells for _, cells in rows if cells[0] == rows[n][1][0]])
    }
    return [
        (number, (cells[0], cells[1], f"{cells[2]}, {cells[3]}", "", *cells[4:]))
        if n in of_people
        else (number, cells)
        for n, (number, cells) in enumerate(rows)
    ]


def _is_name(cell: Cell) -> bool:
    return _NAME.fullmatch(str(cell)) is not None


def _are_names(rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether the rows of one date say nothing but names, of which several stand in twos."""
    said = all(_is_name(row[2]) and (not row[3] or _is_name(row[3])) for row in rows)
    return said and len(rows) >= _LEAST_NAMES and sum(bool(row[3]) for row in rows) > 1
