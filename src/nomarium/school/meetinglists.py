"""Classes whose days and times stand together, several in a cell: `Mon 9:00-10:00, Wed 11:00-12:00`, also those of two weeks,
`A Mon P1, B Tue P3`."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.meetingcells import are_meetings, meetings_in
from nomarium.reading.columns.weekdaycolumn import days_and_time
from nomarium.school.codes import weekday_of
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_TOP_ROWS: Final = 300
_IN_WEEK: Final = r"(?i)(?:(?:(?:week|wk)\.?\s*)?(?P<week>[A-D])\s*[-:]?\s+)?(?P<day>[^\W\d_]{2,9})\.?\s*(?:(?:p(?:er(?:iod)?)?\.?\s*)?(?P<period>\d{1,2})|(?P<time>\d{1,2}[:.]\d\d.*))"


def meetings_in_rows(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each meeting that a cell of its classes names, and columns Day and Time, also Period and Week where
    cells name weeks; None where no cell names several, or the column of times none with its days."""
    for number, row in islice(sheet.rows(), _HEAD_ROWS):
        fields = [field_of(cell_text(cell), "timetable") for cell in row]
        if "class" not in fields or {"label", "period"} & set(fields):
            continue
        below = [one for at, one in islice(sheet.rows(), _TOP_ROWS) if at > number]
        for n, field in enumerate(fields):
            texts = [text for one in below if n < len(one) and (text := cell_text(one[n]))]
            if field != "class" and texts and are_meetings(texts, field == "time"):
                return sheet._replace(read_rows=partial(_in_rows, sheet, number, n))
            if field != "class" and texts and all(map(_weeks_in, texts)):
                return sheet._replace(read_rows=partial(_in_weeks, sheet, number, n))
        columns = [n for n, field in enumerate(fields) if field != "class" and _hold_meetings(below, n)]
        return (
            sheet._replace(read_rows=partial(_in_columns, sheet, number, columns))
            if len(columns) > 1
            else None
        )
    return None


def _hold_meetings(rows: Sequence[Sequence[Cell]], column: int) -> bool:
    """Whether the cells of a column are a meeting each, a weekday with its period or its time, or blank."""
    texts = [text for row in rows if column < len(row) and (text := cell_text(row[column]))]
    return bool(texts) and all(_meeting(text) is not None for text in texts)


def _meeting(text: str) -> tuple[str, str, str, str] | None:
    """The day, the time, the period and the week, if any, of a cell that is one meeting; None for any other."""
    match = re.fullmatch(_IN_WEEK, text.strip())
    if match is None or weekday_of(match["day"]) is None:
        return None
    return match["day"], match["time"] or "", match["period"] or "", (match["week"] or "").upper()


def _in_columns(sheet: Sheet, head: int, columns: Sequence[int]) -> Iterator[Row]:
    """The rows with the meetings of several columns one below the other."""
    for number, row in sheet.rows():
        if number < head or not any(map(cell_text, row)):
            yield number, row
            continue
        own = ["" if n in columns else cell for n, cell in enumerate(row)]
        own += [""] * (max(columns) + 1 - len(own))
        if number == head:
            yield number, [*own, "Day", "Time", "Period", "Week"]
            continue
        found = [_meeting(cell_text(row[n])) for n in columns if n < len(row) and cell_text(row[n])]
        for said in found or [None]:
            yield number, [*own, *(said or ("", "", "", ""))]


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


def _weeks_in(text: str) -> list[tuple[str, str, str, str]]:
    """The day, the time, the period and the week of each meeting of a cell, the first of which names its week, as do others
    where it is another; nothing for any other cell."""
    found, week = list[tuple[str, str, str, str]](), ""
    for piece in meetings_in(text):
        match = re.fullmatch(_IN_WEEK, piece.strip())
        week = (match["week"] or week).upper() if match else ""
        if match is None or not week or weekday_of(match["day"]) is None:
            return []
        found.append((match["day"], match["time"] or "", match["period"] or "", week))
    return found


def _in_weeks(sheet: Sheet, head: int, column: int) -> Iterator[Row]:
    for number, row in sheet.rows():
        cells = [*row, *[""] * (column + 1 - len(row))]
        if number < head or not any(map(cell_text, row)):
            yield number, row
            continue
        own = [*cells[:column], "", *cells[column + 1 :]]
        if number == head:
            yield number, [*own, "Day", "Time", "Period", "Week"]
        else:
            for said in _weeks_in(cell_text(cells[column])) or [("", "", "", "")]:
                yield number, [*own, *said]
