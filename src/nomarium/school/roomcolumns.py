"""Days and periods down, rooms, groups or weeks across: in each cell the class that has the room, that the group has, or that is
held in that week."""

import re
from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final, NamedTuple

from nomarium.reading.cells.placewords import is_place
from nomarium.school.drawnheads import heads_parts
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_TOP_ROWS: Final = 300
_WHEN: Final = frozenset(("label", "period", "time", "start", "end", "week"))
ROOM: Final = r"(?i)(?:room|rm|salle|raum|aula)?\s*[a-z]{0,2}\d{1,4}[a-z]?"
_GROUP: Final = (
    r"(?i)(?:year|yr|form|group|grade|set|stream|classe|klasse|gruppe)\s*\w{1,3}|\d{1,2}\s?[a-z]{1,2}"
)
_WEEK: Final = r"(?i)(?:week|wk)\.?\s*([a-d]|[1-4])"
_TAUGHT_BY: Final = r"(.*\S)(?:\s+[–—-]\s+|\s*[/\n]\s*|\s*\(\s*)([^()/\n]+?)\s*\)?"


class _Head(NamedTuple):
    at: int
    rooms: dict[int, str]
    kind: str
    """The heading of what heads the columns, `Room`, `Group` or `Week`."""
    beside: str
    """What stands in every cell behind its class and a sign, `Teacher` or `Room`; nothing where some have no such part."""
    once: int
    """The column of days where each is written once over its periods; -1 where every row has its own."""


_CODE: Final = r"(?i)(?:(?:year|yr|form|grade|group)\s*)?[A-Z]{0,3}\d{1,2}[A-Z]?"
"""A group by its code, `A1`: no teacher has a figure."""


def rooms_in_rows(sheet: Sheet, of_groups: bool = False) -> Sheet | None:
    """The sheet with a row for each class that has a room, and columns Class, Room (or Group) and, where cells say it, Teacher; None where
    it has no column a room or a group beside its days and its periods or times. `of_groups`: what heads columns is a group, where
    nothing else can be told."""
    head = _head_of(list(islice(sheet.rows(), _TOP_ROWS)), of_groups)
    return None if head is None else sheet._replace(read_rows=lambda: _in_rows(sheet, head))


def _head_of(rows: Sequence[Row], of_groups: bool) -> _Head | None:
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        fields = {n: field_of(text, "timetable") for n, cell in enumerate(row) if (text := cell_text(cell))}
        when = {field for field in fields.values() if field in _WHEN}
        rooms = {
            n: text
            for n, cell in enumerate(row)
            if fields.get(n) not in _WHEN and (text := cell_text(cell)) and not heads_parts(text)
        }
        if "label" not in when or not when & {"period", "time", "start"} or len(rooms) < 2:
            continue
        are_groups = all(re.fullmatch(_GROUP, text) for text in rooms.values())
        weeks = [re.fullmatch(_WEEK, text) for text in rooms.values()]
        are_rooms = all(is_place(text) or re.fullmatch(ROOM, text) for text in rooms.values())
        are_groups = are_groups or (of_groups and not are_rooms)
        if not (are_groups or all(weeks) or are_rooms):
            return None
        cells = [
            text
            for _, under in rows[at + 1 :]
            for n in rooms
            if n < len(under) and (text := cell_text(under[n]))
        ]
        if not cells or any(text.isdecimal() for text in cells):
            return None
        return _Head(
            at,
            rooms,
            "Week" if all(weeks) else "Group" if are_groups else "Room",
            _beside(cells, are_groups),
            _once(rows[at + 1 :], next(n for n, field in fields.items() if field == "label")),
        )
    return None


def _once(below: Sequence[Row], days: int) -> int:
    """The column of days if some rows with a class leave it blank, so that it holds from above; else -1."""
    full = [row for _, row in below if len(list(filter(cell_text, row))) > 1]
    return days if any(not cell_text(row[days]) for row in full) else -1


def _beside(cells: Sequence[str], of_groups: bool) -> str:
    parts = [match[2] for text in cells if (match := re.fullmatch(_TAUGHT_BY, text)) is not None]
    if len(parts) < len(cells):
        return ""
    are_rooms = all(is_place(part) or re.fullmatch(ROOM, part) for part in parts)
    if not of_groups and all(re.fullmatch(_CODE, part) for part in parts):
        return "Group"
    return "Room" if are_rooms and of_groups else "Teacher"


def _in_rows(sheet: Sheet, head: _Head) -> Iterator[Row]:
    for n, (number, row) in enumerate(sheet.rows()):
        own = ["" if m in head.rooms and n >= head.at else cell for m, cell in enumerate(row)]
        own += [""] * (max(head.rooms) + 1 - len(own))
        if n <= head.at:
            beside = "Room" if head.kind == "Week" else head.beside or "Teacher"
            yield number, [*own, *(("Class", beside, head.kind) if n == head.at else ("", "", ""))]
            continue
        is_taken = False
        for m, room in head.rooms.items():
            text = cell_text(row[m]) if m < len(row) else ""
            taught = re.fullmatch(_TAUGHT_BY, text) if head.beside else None
            if not text:
                continue
            if head.once >= 0 and is_taken:
                own[head.once] = ""  # written once over all that its row has, too
            is_taken = True
            if head.kind == "Week":
                yield number, [*own, *class_and_room(text), re.sub(_WEEK, r"\1", room)]
            else:
                yield number, [*own, taught[1] if taught else text, taught[2] if taught else "", room]


def class_and_room(text: str) -> tuple[str, str]:
    """The class of a cell, and the room that stands in brackets behind it."""
    within = re.fullmatch(r"(.*\S)\s*\(([^()]+)\)", text)
    if within is None or not (is_place(within[2]) or re.fullmatch(ROOM, within[2])):
        return text, ""
    return within[1], within[2]
