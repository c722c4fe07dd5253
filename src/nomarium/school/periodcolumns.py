"""Lists of classes with a column for each period of each weekday, `Mon 1`, `Mon 2`, in which ticks or rooms stand."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.school.daycolumns import are_rooms, are_ticks
from nomarium.school.drawnheads import days_and_periods
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12


def classes_in_periods(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each period of a class, with its day and, where rooms stand in the cells, its room; None where
    it is no such list."""
    for number, head in islice(sheet.rows(), _HEAD_ROWS):
        slots = days_and_periods(head)
        fields = {field_of(cell_text(cell), "timetable") for n, cell in enumerate(head) if n not in slots}
        if not slots or "class" not in fields or fields & {"label", "meets", "period", "time", "start"}:
            continue
        below = (row for at, row in sheet.rows() if at > number)
        cells = [row[n] for row in below for n in slots if n < len(row) and cell_text(row[n])]
        is_ticked = are_ticks(cells)
        if cells and (is_ticked or ("room" not in fields and are_rooms(cells))):
            return sheet._replace(
                read_rows=partial(_in_rows, sheet, number, head, slots, is_ticked), merged=()
            )
    return None


def _in_rows(
    sheet: Sheet, number: int, head: Sequence[Cell], slots: Mapping[int, tuple[str, str]], is_ticked: bool
) -> Iterator[Row]:
    others = [n for n in range(len(head)) if n not in slots]
    field = "Time" if all(is_time(slot) for _, slot in slots.values()) else "Period"
    for at, row in sheet.rows():
        own = [row[n] if n < len(row) else "" for n in others]
        if at < number:
            yield at, list(row)
        elif at == number:
            yield at, [*own, "Day", field, *(() if is_ticked else ("Room",))]
        else:
            for n, (day, slot) in slots.items():
                if n < len(row) and cell_text(row[n]):
                    yield at, [*own, day, slot, *(() if is_ticked else (row[n],))]
