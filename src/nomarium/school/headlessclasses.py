"""Classes in rows without headings, each with its weekday and its time or period: `Mon`, `8:30-10:00`, `Rigging`, `Loft 1`, under lines
that are groups."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.rows.datewithin import date_within
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.roomcolumns import ROOM
from nomarium.sheets.sheet import Row, Sheet, cell_text

_TOP_ROWS: Final = 300
_LEAST_CELLS: Final = 3
_INITIALS: Final = r"[A-Z]{2,3}|(?:[A-Z]\.\s?)+[A-Z][\w'’-]+|(?i:mr|mrs|ms|miss|dr|mme|m|herr|frau)\.?\s.+"


class _Columns(NamedTuple):
    day: int
    slot: int
    """Where the time stands, or the period."""
    fields: dict[int, str]
    """The headings of all columns."""


class Headed(NamedTuple):
    sheet: Sheet
    notes: tuple[Problem, ...]


def headless_classes(sheet: Sheet) -> Headed | None:
    """The sheet with headings above its classes, and a column of the groups that lines alone are; a weekday that stands once over its
    times is that of all of them. None for any other sheet."""
    sheet = _with_days_before(sheet)
    rows = list(islice(sheet.rows(), _TOP_ROWS))
    wide = [row for _, row in rows if sum(map(bool, map(cell_text, row))) >= _LEAST_CELLS]
    columns = _columns(wide) if len(wide) > 1 else None
    if columns is None:
        return None
    once = sum(not (columns.day < len(row) and cell_text(row[columns.day])) for row in wide)
    message = f"A weekday written once over its times holds for {counted(once, 'row')} below it."
    notes = (note("weekday-once", message).at(sheet.place(None, columns.day)),) if once else ()
    return Headed(sheet._replace(read_rows=partial(_in_rows, sheet, columns), merged=()), notes)


def _with_days_before(sheet: Sheet) -> Sheet:
    """A sheet whose weekdays stand alone over their times, with each day before its rows; the sheet itself for any other."""
    rows = list(islice(sheet.rows(), _TOP_ROWS))
    filled = [[text for cell in row if (text := cell_text(cell))] for _, row in rows]
    days = [n for n, texts in enumerate(filled) if len(texts) == 1 and weekday_of(texts[0]) is not None]
    first = next((n for n, texts in enumerate(filled) if len(texts) >= _LEAST_CELLS), -1)
    is_timed = first >= 0 and bool(rows[first][1]) and is_time(rows[first][1][0])
    if not days or not is_timed or days[0] > first:
        return sheet
    return sheet._replace(
        read_rows=partial(_days_before, sheet), first_column=sheet.first_column - 1, merged=()
    )


def _days_before(sheet: Sheet) -> Iterator[Row]:
    day = ""
    for number, row in sheet.rows():
        filled = [text for cell in row if (text := cell_text(cell))]
        is_day = len(filled) == 1 and weekday_of(filled[0]) is not None
        day = filled[0] if is_day else day
        yield number, [day if len(filled) >= _LEAST_CELLS else "", *row]


def _columns(rows: Sequence[Sequence[Cell]]) -> _Columns | None:
    width = max(map(len, rows))
    texts = [[cell_text(row[n]) if n < len(row) else "" for row in rows] for n in range(width)]
    day = next(
        (
            n
            for n, one in enumerate(texts)
            if one[0] and all(weekday_of(text) is not None for text in one if text)
        ),
        -1,
    )
    if day < 0:
        return None
    slot, heading = next(
        (
            (n, name)
            for n, one in enumerate(texts)
            for test, name in ((is_time, "Time"), (is_period, "Period"))
            if n > day and all(map(test, one))
        ),
        (-1, ""),
    )
    names = [n for n in range(width) if n > slot and any(map(str.isalpha, "".join(texts[n])))]
    has_others = any(any(texts[n]) for n in range(max(slot, 0)) if n != day)  # Week 1 | Monday | 9:00
    if slot < 0 or has_others or not names or not all(texts[names[0]]):
        return None
    fields = {day: "Day", slot: heading, names[0]: "Class"}
    for n in names[1:]:
        filled = [text for text in texts[n] if text]
        is_room = all(is_place(text) or re.fullmatch(ROOM, text) for text in filled)
        is_teacher = all(re.fullmatch(_INITIALS, text) for text in filled)
        name = "Room" if is_room else "Teacher" if is_teacher else "Notes"
        fields[n] = name if name not in fields.values() else ""
    return _Columns(day, slot, fields)


def _in_rows(sheet: Sheet, columns: _Columns) -> Iterator[Row]:
    head = [columns.fields.get(n, "") for n in range(max(columns.fields) + 1)]
    group, day, is_begun = "", "", False
    for number, row in sheet.rows():
        filled = [text for cell in row if (text := cell_text(cell))]
        is_class = len(filled) >= _LEAST_CELLS
        if (
            len(filled) == 1
            and date_within(f"{filled[0]} ·", ENGLISH) is None
            and any(map(str.isalpha, filled[0]))
            and weekday_of(filled[0]) is None
        ):
            group, day = filled[0], ""
        if is_class and not is_begun:
            yield 0, [*head, "Group", ""]
            is_begun = True
        if not is_class:
            yield number, [*[""] * (len(head) + 1), " ".join(filled)]  # beside the columns: a note
            continue
        cells = [*row, *[""] * (len(head) - len(row))][: len(head)]
        day = cells[columns.day] = cell_text(cells[columns.day]) or day
        yield number, [*cells, group, ""]
