"""Classes whose days and times stand together, several in a cell: `Mon 9:00-10:00, Wed 11:00-12:00`."""

from collections.abc import Iterator
from functools import partial
from itertools import islice
from typing import Final

from nomarium.reading.columns.meetingcells import are_meetings, meetings_in
from nomarium.reading.columns.weekdaycolumn import days_and_time
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_TOP_ROWS: Final = 300


def meetings_in_rows(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each meeting that a cell of its classes names, and columns Day and Time; None where no cell names
    several, or the column of times none with its days."""
    for number, row in islice(sheet.rows(), _HEAD_ROWS):
        fields = [field_of(cell_text(cell), "timetable") for cell in row]
        if "class" not in fields or {"label", "period"} & set(fields):
            continue
        below = [one for at, one in islice(sheet.rows(), _TOP_ROWS) if at > number]
        for n, field in enumerate(fields):
            texts = [text for one in below if n < len(one) and (text := cell_text(one[n]))]
            if field != "class" and texts and are_meetings(texts, field == "time"):
                return sheet._replace(read_rows=partial(_in_rows, sheet, number, n))
        return None
    return None


def _in_rows(sheet: Sheet, head: int, column: int) -> Iterator[Row]:
    for number, row in sheet.rows():
        cells = [*row, *[""] * (column + 1 - len(row))]
        own = [*cells[:column], "", *cells[column + 1 :]] if number >= head else cells
        text = cell_text(cells[column])
        if number <= head or not text:
            yield number, [*own, *(("Day", "Time") if number == head else ("", ""))]
            continue
        for piece in meetings_in(text):
            days, time = days_and_time(piece)
            yield number, [*own, days, time]
