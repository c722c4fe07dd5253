"""Weeks with their dates written out: weekdays across, a row of dates under them for each week, and what is on below each date."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.layouts.drawn import (
    DrawnEntry,
    after_remarks,
    date_part,
    entries_of_cell,
    merged_from,
    padded_rows,
)
from nomarium.reading.layouts.headdates import Days, heads_dates, settled_dates
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.narrowcells import in_whole_lines
from nomarium.reading.layouts.unusedcolumns import unused_columns
from nomarium.sheets.sheet import Row, Sheet, cell_text

_OTHERS = 3
"""Columns beside the weekdays, at most: a week's number, remarks."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as weeks with their dates, or say why it is none."""
    top = Top(in_whole_lines(top.sheet), top.options, top.is_whole)
    sheet, lexicon = top.sheet, top.of_weekdays
    rows = padded_rows(sheet)
    head = next(
        (at for at, (_, row) in enumerate(rows) if len(weekday_columns(row, lexicon, _OTHERS)) > 1), None
    )
    weekdays = weekday_columns(rows[head][1], lexicon, _OTHERS) if head is not None else {}
    body = rows[head + 1 :] if head is not None else []
    dated = [number for number, row in body if _is_of_dates(row, weekdays, top)]
    entered = [row for number, row in body if number not in dated]
    are_labelled = any(cell_text(cell) for row in entered for cell in row[: min(weekdays, default=0)])
    are_dates = any(heads_dates([row[n]], top.lexicon) for row in entered for n in weekdays if n < len(row))
    if head is None or not dated or body[0][0] != dated[0] or not entered or are_labelled or are_dates:
        message = f"{sheet.title} has no dates under weekdays."
        return not_read(sheet, "no-planner", "it has no dates under weekdays", "planner-none", message)
    by_row = dict(body)
    cells = [
        ((number, n), number, by_row[number][n])
        for number in dated
        for n in weekdays
        if n < len(by_row[number]) and cell_text(by_row[number][n])
    ]
    keys = dict(enumerate(key for key, _, _ in cells))
    headed = settled_dates(
        top, [(at, number, cell) for at, (_, number, cell) in enumerate(cells)], rows[:head]
    )
    days = {keys[at]: one for at, one in headed.days.items()}
    entries = [*headed.problems, *_entries(sheet, body, weekdays, days)]
    told = [
        note("layout-planner", "Read as a planner: weekdays across, and the dates of each week under them.").at(sheet.place()),
        *headed.notes,
        *unused_columns(sheet, rows[head][1], [row for row in body if row[0] not in dated], weekdays),
    ]  # fmt: skip
    return Reading(
        sheet,
        "planner",
        partial(after_remarks, sheet, entries, top.options, rows[:head]),
        (*sheet.notes, *told),
    )


def _is_of_dates(row: Sequence[Cell], weekdays: Mapping[int, int], top: Top) -> bool:
    """Whether all that stands under the weekdays is dates, several."""
    filled = [row[n] for n in weekdays if n < len(row) and cell_text(row[n])]
    return len(filled) > 1 and all(heads_dates([cell], top.lexicon) for cell in filled)


def _entries(
    sheet: Sheet, body: Sequence[Row], weekdays: Mapping[int, int], days: Mapping[tuple[int, int], Days]
) -> Iterator[DrawnEntry | Problem]:
    """What stands under the dates, each cell on its own; one that is merged over several, on all of them."""
    merged = merged_from(sheet)
    dated: dict[int, Days] = {}
    numbers = {number for number, _ in days}
    for number, row in body:
        if number in numbers:
            dated = {n: one for (at, n), one in days.items() if at == number}
            for n, one in dated.items():
                if one.first.weekday() != weekdays[n]:
                    said = WEEKDAYS[one.first.weekday()]
                    message = f"{one.first} is a {said}, not a {WEEKDAYS[weekdays[n]]}."
                    remedy = "Correct the date, or the weekday above."
                    yield Problem("date-weekday", message, remedy, sheet.place(number, n), cell_text(row[n]))
            continue
        for n in weekdays:
            text = cell_text(row[n]) if n < len(row) else ""
            if not text:
                continue
            if n not in dated:
                message, remedy = "The cell stands under no date.", "Write its date above it, or take it out."
                yield Problem("month-stray", message, remedy, sheet.place(number, n), text)
                continue
            area = merged.get((number, n))
            last = area.last_column - sheet.first_column if area is not None else n
            ends = max(one.last for at, one in dated.items() if n <= at <= last)
            yield from entries_of_cell(sheet, number, n, text, date_part(dated[n].first, ends))
