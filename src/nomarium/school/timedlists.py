"""Lists of lessons on weekdays, each row with its day and its time, `Day | Time | Pupil | Form`: no drawn week."""

from collections.abc import Callable, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.headings import match_exactly
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, cell_text

_LEAST_HEADINGS: Final = 4
_LEAST_ROWS: Final = 2
_OF_PEOPLE: Final = frozenset(("attendees", "person", "class", "group", "teacher", "organizer"))
"""Fields of a heading over names, codes of groups among them; over a room's column of a drawing stands the room itself."""


def is_timed_list(rows: Sequence[Row]) -> bool:
    """Whether the rows below a row of headings each have a weekday in one column and a time in another, and names in a third whose
    heading says so."""
    filled = [row for _, row in rows if sum(map(bool, map(cell_text, row))) >= _LEAST_HEADINGS - 1]
    if len(filled) <= _LEAST_ROWS or sum(map(bool, map(cell_text, filled[0]))) < _LEAST_HEADINGS:
        return False
    head, body = filled[0], filled[1:]
    columns = [n for n, cell in enumerate(head) if cell_text(cell)]
    days = [n for n in columns if _are_all(body, n, lambda cell: weekday_of(cell_text(cell)) is not None)]
    times = [n for n in columns if _are_all(body, n, is_time)]
    named = [n for n in columns if n not in (*days, *times) and _heads_people(cell_text(head[n]))]
    return len(days) == 1 and len(times) in (1, 2) and bool(named)


def _are_all(body: Sequence[Sequence[Cell]], n: int, is_one: Callable[[Cell], bool]) -> bool:
    return all(n < len(row) and bool(cell_text(row[n])) and is_one(row[n]) for row in body)


def _heads_people(heading: str) -> bool:
    match = match_exactly(heading)
    return not any(map(str.isdigit, heading)) and (
        field_of(heading, "timetable") in ("class", "group", "teacher")
        or (match is not None and match.field in _OF_PEOPLE)
    )
