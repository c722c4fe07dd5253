"""Groups, teachers or rooms and the periods or times of a weekday, which the sheet is called after, or of weekdays: in each cell the class."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.planheads import field_of, plain
from nomarium.school.roomcolumns import rooms_in_rows
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_WHOSE: Final = {
    "Group": frozenset("form forms group groups class classes section year grade set classe klasse gruppe groupe clase grupo".split()),
    "Teacher": frozenset("teacher teachers staff tutor lehrer professeur profesor docente instructor name".split()),
    "Room": frozenset("room rooms rm place salle raum aula sala".split()),
}  # fmt: skip


class _Head(NamedTuple):
    number: int
    at: int
    """The column of names."""
    kind: str
    """What they are: `Group`, `Teacher` or `Room`."""
    slots: Mapping[int, tuple[str, Cell]]
    """The weekday and the period or time of each column."""
    field: str
    """What the columns say: `Period` or `Time`."""


def groups_in_rows(sheet: Sheet, labels: frozenset[str] = frozenset()) -> Sheet | None:
    """The sheet with a row for each class of its weekday, or of the weekdays over its columns, `Mon 9:00`; None where neither says
    one, or no periods stand across or down. `labels` of a cycle, in their compared form, are days like weekdays."""
    called = sheet.name.strip()
    day = called if weekday_of(called) is not None or (called and plain(called) in labels) else ""
    heads = (_head(number, row, day) for number, row in islice(sheet.rows(), _HEAD_ROWS))
    head = next(filter(None, heads), None)
    if head is not None and (day or drawn_week(sheet) is None):
        return sheet._replace(read_rows=partial(_in_rows, sheet, head), merged=())
    return rooms_in_rows(sheet._replace(read_rows=partial(_with_day, sheet, day)), True) if day else None


def _head(number: int, row: Sequence[Cell], day: str) -> _Head | None:
    filled = {n: cell for n, cell in enumerate(row) if cell_text(cell)}
    at = min(filled, default=-1)
    if at < 0 or len(filled) < 3:
        return None
    word = fold(cell_text(filled.pop(at))).strip(" .:")
    kind = next((kind for kind, words in _WHOSE.items() if word in words), "")
    if not kind:
        return None
    slots = {n: (day, cell) if day else _day_and_slot(cell_text(cell)) for n, cell in filled.items()}
    if not all(one for one, _ in slots.values()):
        return None
    if all(is_time(cell) for _, cell in slots.values()):
        return _Head(number, at, kind, slots, "Time")
    return (
        _Head(number, at, kind, slots, "Period")
        if all(is_period(cell) for _, cell in slots.values())
        else None
    )


def _day_and_slot(text: str) -> tuple[str, str]:
    """The weekday of a heading and the period or time behind it, `Mon 9:00`, `Tue P2`; blank where it is no such heading."""
    first, _, rest = text.strip().partition(" ")
    return (first, rest.strip()) if weekday_of(first.strip(".,:")) is not None and rest else ("", "")


def _in_rows(sheet: Sheet, head: _Head) -> Iterator[Row]:
    for number, row in sheet.rows():
        if number == head.number:
            yield number, ["Class", "Day", head.field, head.kind]
        elif number < head.number:
            yield number, [" ".join(text for cell in row if (text := cell_text(cell)))]
        else:
            name = row[head.at] if head.at < len(row) else ""
            for n, (day, slot) in head.slots.items():
                text = cell_text(row[n]) if n < len(row) else ""
                if text and not is_idle(text) and plain(text):
                    yield number, [text, day, slot, name]


def _with_day(sheet: Sheet, day: str) -> Iterator[Row]:
    """The rows with a column of its weekday before them, from that of the headings on, which say periods or times."""
    is_below = False
    for number, row in sheet.rows():
        is_head = not is_below and any(
            field_of(cell_text(cell), "timetable") in ("period", "time", "start") for cell in row
        )
        has_any = any(map(cell_text, row))
        yield number, ["Day" if is_head else day if is_below and has_any else "", *row]
        is_below = is_below or is_head
