"""Lists of classes with a column for each weekday or label, in which ticks, times or periods stand."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.choices import read_yes_no
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.drawnheads import days_across, letter_columns
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.planheads import LESSONS, field_of, plain
from nomarium.school.roomcolumns import ROOM
from nomarium.sheets.sheet import Row, Sheet, cell_text, column_texts

_HEAD_ROWS = 40
_MARKS = frozenset("x X * • ● ✓ ✔".split())
_PERIODS = r"(?:[Pp]\s?)?\d{1,2}[a-z]?(?:(?:\s*[-–,/&+]\s*|\s+)(?:[Pp]\s?)?\d{1,2}[a-z]?)*"


class DaysInRows(NamedTuple):
    """A list of classes whose days stood in columns, with a row for each."""

    sheet: Sheet
    days: list[str]
    """The weekdays or labels that headed the columns, also where nothing stands under them."""


def days_in_rows(sheet: Sheet, labels: frozenset[str] = frozenset()) -> DaysInRows | None:
    """The sheet with its weekdays, or labels, in one column, `Day`, and what stood under them in another, `Time`,
    `Period` or, beside times, `Room`: a row for each day that has one, one row where they are only ticked. `labels` are known ones, in their compared
    form. None where it is no such list."""
    rows = list(sheet.rows())
    at, days, fields = _head_of(rows, labels)
    if at < 0 or {"label", "meets"} & fields:
        return None
    cells = [row[n] for _, row in rows[at + 1 :] for n in days if n < len(row) and _says(row[n])]
    kind = _kind_of(cells)
    has_when = bool({"period", "time", "start"} & fields) or _has_times(rows[at + 1 :], days)
    if kind == "Period" and has_when and set(map(cell_text, cells)) == {"1"}:
        kind = "ticks"  # beside their period, or their times
    if not kind and has_when and "room" not in fields and are_rooms(cells):
        kind = "Room"
    if not kind or (kind == "ticks" and not has_when):
        return None
    again = partial(_in_rows, rows, at, days, kind)
    return DaysInRows(sheet._replace(read_rows=again), list(days.values()))


def _says(cell: Cell) -> bool:
    """Whether a cell under a day says that something is held: a dash says that nothing is."""
    text = cell_text(cell)
    return bool(text) and not is_idle(text)


def _has_times(rows: Sequence[Row], days: Mapping[int, str]) -> bool:
    """Whether a column beside those of days holds nothing but times, `Begins` over 8:30."""
    width = max((len(row) for _, row in rows), default=0)
    columns = (
        [row[n] for _, row in rows if n < len(row) and cell_text(row[n])]
        for n in range(width)
        if n not in days
    )
    return any(cells and all(map(is_time, cells)) for cells in columns)


def _in_rows(rows: Sequence[Row], at: int, days: Mapping[int, str], kind: str) -> Iterator[Row]:
    width = max(len(row) for _, row in rows)
    beside = _beside_each(rows[at][1], days)
    gone = {column for of_day in beside for column in list(of_day.values())[1:]} | set(days)
    for n, (number, row) in enumerate(rows):
        cells = [*row, *[""] * (width - len(row))]
        own = ["" if m in gone and n >= at else cell for m, cell in enumerate(cells)]
        held = {m: cells[m] for m in days if _says(cells[m])}
        if n <= at:
            yield number, [*own, *(("Day", "" if kind == "ticks" else kind) if n == at else ("", ""))]
        elif kind == "ticks" or not held:
            ticked = ", ".join(days[m] for m, cell in held.items() if read_yes_no(cell) is not False)
            yield number, [*own, ticked, ""]
        else:
            for m, cell in held.items():
                for of_day in beside:
                    own[min(of_day.values())] = cells[of_day[m]]
                for one in _each_time(cell) if kind == "Time" else [cell]:
                    yield number, [*own, days[m], one]


def _each_time(cell: Cell) -> list[Cell]:
    """The times of a cell that holds several, `10:35-11:25, 13:00-13:50`, a line or a comma apart; else the cell."""
    parts = [part for part in re.split(r"\s*[\n;,&]\s*", cell_text(cell)) if part]
    return list(parts) if len(parts) > 1 and all(map(is_time, parts)) else [cell]


def _beside_each(head: Sequence[Cell], days: Mapping[int, str]) -> list[dict[int, int]]:
    """For each heading that stands again beside each day, `Mon, Room, Wed, Room`: day column → its column."""
    found: list[dict[int, int]] = []
    columns = sorted(days)
    ends = [*columns[1:], len(head)]
    names = [plain(cell_text(cell)) for cell in head]
    for n in range(columns[0] + 1, ends[0]):
        of_day = {
            day: next((m for m in range(day + 1, end) if names[m] == names[n]), -1)
            for day, end in zip(columns, ends, strict=True)
        }
        if names[n] and min(of_day.values()) > 0 and names.count(names[n]) == len(columns):
            found.append(of_day)
    return found


def _head_of(rows: Sequence[Row], labels: frozenset[str]) -> tuple[int, dict[int, str], set[str]]:
    """The index of a row that heads classes and two days or more (-1: none), column → weekdays or label, and the
    fields of its other headings."""
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = {n: text for n, cell in enumerate(row) if (text := cell_text(cell))}
        letters = letter_columns(row)
        fields = {
            n: field
            for n, text in texts.items()
            if n not in letters and (field := field_of(text, "timetable"))
        }
        days = days_across({n: text for n, text in texts.items() if n not in fields}, labels) | letters
        named = next((n for n, field in fields.items() if field == "class"), -1)
        if named >= 0 and plain(texts[named]) in LESSONS and _are_slots(rows[at + 1 :], named):
            continue  # Lesson | Mon | Tue: a drawn week
        if "class" in fields.values() and len(days) > 1 and len(set(days.values())) == len(days):
            return at, days, set(fields.values())
    return -1, {}, set()


def _are_slots(rows: Sequence[Row], column: int) -> bool:
    """Whether what is headed as classes are periods, times and breaks: `1`, `2`, `Break`, `3`."""
    texts = column_texts(rows, column)
    slots = [text for text in texts if is_period(text) or is_break(text) or is_time(text)]
    return len(slots) > 1 and len(slots) * 4 >= len(texts) * 3


def are_rooms(cells: Sequence[Cell]) -> bool:
    """Whether all that stands under weekdays is where a class is held then: `L1`, `Sail loft`."""
    texts = list(map(cell_text, cells))
    are_short = bool(texts) and not any("\n" in text for text in texts)  # a class, its teacher and its room
    return are_short and all(is_place(text) or re.fullmatch(ROOM, text) for text in texts)


def are_ticks(cells: Sequence[Cell]) -> bool:
    """Whether all cells are ticks, or answers."""
    return all(
        cell_text(cell) in _MARKS
        or isinstance(cell, bool)
        or cell_text(cell).casefold() in ("yes", "no", "y", "n")
        for cell in cells
    )


def _kind_of(cells: Sequence[Cell]) -> str:
    """What stands under weekdays: `ticks`, `Time`, `Period`, or nothing that can be told."""
    if not cells:
        return ""
    if are_ticks(cells):
        return "ticks"
    if all(is_time(cell) for whole in cells for cell in _each_time(whole)):
        return "Time"
    return "Period" if all(re.fullmatch(_PERIODS, cell_text(cell)) for cell in cells) else ""
