"""Dates down and periods across, what is taught on each date in each period: a row for each class, held on that date alone."""

from collections.abc import Iterator, Mapping
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.problem import note
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.datewords import looks_like_date
from nomarium.school.daycolumns import are_ticks
from nomarium.school.drawnlines import Slot, is_time, slot_in
from nomarium.school.planheads import field_of
from nomarium.school.roomcolumns import class_and_room
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_TOP_ROWS: Final = 2000
_LEAST: Final = 2
_CODE: Final = 2
"""Characters of a block, `A` or `3B`."""
_HEADINGS: Final = ("Class", "Room", "Period", "First day", "Last day")


class _Head(NamedTuple):
    at: int
    date: int
    slots: Mapping[int, Slot]


def classes_on_dates(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each class that stands under a period beside a date; None where dates do not stand left of periods."""
    rows = list(islice(sheet.rows(), _TOP_ROWS + 1))
    head = next((one for at in range(min(len(rows), _HEAD_ROWS)) if (one := _head_of(rows, at))), None)
    if head is None or len(rows) > _TOP_ROWS:
        return None
    message = "The classes are held on the dates beside them, and on no others."
    told = note("dated-periods", message).at(sheet.place(rows[head.at][0], head.date))
    return sheet._replace(read_rows=partial(_in_rows, rows, head), merged=(), notes=(*sheet.notes, told))


def _head_of(rows: list[Row], at: int) -> _Head | None:
    texts = {n: text for n, cell in enumerate(rows[at][1]) if (text := cell_text(cell))}
    date = min(texts, default=-1)
    slots = {n: slot for n, text in texts.items() if n > date and (slot := slot_in(n, [text])) is not None}
    is_headed = date >= 0 and field_of(texts[date], "cycle") == "date"
    if (
        not is_headed
        or len(slots) < _LEAST
        or len(slots) < len(texts) - 1
        or any(map(is_time, texts.values()))
    ):
        return None
    below = [row for _, row in rows[at + 1 :] if any(map(cell_text, row))]
    dated = [row for row in below if date < len(row) and looks_like_date(row[date])]
    texts_below = [text for row in below for n in slots if n < len(row) and (text := cell_text(row[n]))]
    are_codes = are_ticks(texts_below) or all(len(text) <= _CODE for text in texts_below)  # blocks, marks
    return _Head(at, date, slots) if len(dated) == len(below) >= _LEAST and not are_codes else None


def _in_rows(rows: list[Row], head: _Head) -> Iterator[Row]:
    for n, (number, row) in enumerate(rows):
        if n == head.at:
            yield number, list(_HEADINGS)
            continue
        held = {m: text for m in head.slots if m < len(row) and (text := cell_text(row[m]))}
        if n < head.at or not held:
            yield number, [cell for cell in row if cell_text(cell)][:1] if n < head.at else []
            continue
        for m, text in held.items():
            slot = head.slots[m]
            if not (is_idle(text) or is_break(cell_text(slot.heading))):
                name, room = class_and_room(text)
                yield number, [name, room, slot.period, row[head.date], row[head.date]]
