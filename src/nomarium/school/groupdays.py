"""Sheets that are called after weekdays: groups, teachers or rooms down, periods or times across, in each cell the class."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_WHOSE: Final = {
    "Group": frozenset("form forms group groups class classes tutor section year grade set classe klasse gruppe groupe clase grupo".split()),
    "Teacher": frozenset("teacher teachers staff tutor lehrer professeur profesor docente instructor name".split()),
    "Room": frozenset("room rooms rm place salle raum aula sala".split()),
}  # fmt: skip


class _Head(NamedTuple):
    number: int
    at: int
    """The column of names."""
    kind: str
    """What they are: `Group`, `Teacher` or `Room`."""
    slots: Mapping[int, Cell]
    field: str
    """What heads the others: `Period` or `Time`."""


def groups_in_rows(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each class of its weekday; None where it is called after none, or no periods stand across."""
    if weekday_of(sheet.name.strip()) is None:
        return None
    head = next(filter(None, (_head(number, row) for number, row in islice(sheet.rows(), _HEAD_ROWS))), None)
    return None if head is None else sheet._replace(read_rows=partial(_in_rows, sheet, head), merged=())


def _head(number: int, row: Sequence[Cell]) -> _Head | None:
    filled = {n: cell for n, cell in enumerate(row) if cell_text(cell)}
    at = min(filled, default=-1)
    if at < 0 or len(filled) < 3:
        return None
    word = fold(cell_text(filled.pop(at))).strip(" .:")
    kind = next((kind for kind, words in _WHOSE.items() if word in words), "")
    if not kind:
        return None
    if all(is_time(cell) for cell in filled.values()):
        return _Head(number, at, kind, filled, "Time")
    return _Head(number, at, kind, filled, "Period") if all(map(is_period, filled.values())) else None


def _in_rows(sheet: Sheet, head: _Head) -> Iterator[Row]:
    for number, row in sheet.rows():
        if number == head.number:
            yield number, ["Class", "Day", head.field, head.kind]
        elif number < head.number:
            yield number, [" ".join(text for cell in row if (text := cell_text(cell)))]
        else:
            name = row[head.at] if head.at < len(row) else ""
            for n, slot in head.slots.items():
                text = cell_text(row[n]) if n < len(row) else ""
                if text and not is_idle(text) and plain(text):
                    yield number, [text, sheet.name.strip(), slot, name]
