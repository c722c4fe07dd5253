"""Lists of classes in parts, each under the day it is for: a line `Monday`, the classes of Monday below it."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.school.daylines import day_alone
from nomarium.school.drawnheads import are_cycle_letters
from nomarium.school.plancolumns import columns_of
from nomarium.school.planheads import field_of, plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_MOST_ROWS: Final = 2000
_WHEN: Final = frozenset(("period", "time", "start"))


class InParts(NamedTuple):
    """A list of classes in parts, with the day of each class in its row."""

    sheet: Sheet
    told: Problem


def days_above(sheet: Sheet, labels: frozenset[str] = frozenset()) -> InParts | None:
    """The sheet with the day of each part in a column, `Day`, whose lines and repeated headings say nothing else any more;
    None where it has no such lines above all of its classes, or a column of days."""
    rows = list(sheet.rows())
    if len(rows) > _MOST_ROWS:
        return None
    at, columns, _ = columns_of(rows, "timetable")
    if at < 0 or "class" not in columns or not _WHEN & columns.keys() or "meets" in columns:
        return None
    labels |= _letters_alone(rows)
    days = {n: day for n, (_, row) in enumerate(rows) if (day := day_alone(row, labels))}
    classes = [n for n, (_, row) in enumerate(rows) if n > at and sum(map(bool, map(cell_text, row))) > 1]
    label = columns.get("label", -1)
    own = [cell_text(rows[n][1][label]) for n in classes if 0 <= label < len(rows[n][1])]
    if not days or not classes or min(days) > classes[0] or any(own):
        return None
    message = f"The classes below a line that is a day ({listed(list(dict.fromkeys(days.values())))}) are on that day."
    told = note("days-above", message).at(sheet.place(rows[min(days)][0]))
    return InParts(sheet._replace(read_rows=partial(_in_rows, rows, at, days, label)), told)


def _letters_alone(rows: Sequence[Row]) -> frozenset[str]:
    """The letters from A on that stand alone in rows, in their compared form; none where they are no such run."""
    texts = [[text for cell in row if (text := cell_text(cell))] for _, row in rows]
    letters = {one[0] for one in texts if len(one) == 1 and re.fullmatch("[A-Z]", one[0])}
    return frozenset(map(plain, letters)) if are_cycle_letters(letters) else frozenset()


def _in_rows(rows: Sequence[Row], at: int, days: dict[int, str], label: int) -> Iterator[Row]:
    """The rows, each with its day in the column of these, or in one behind all others where there is none (-1)."""
    width = max(len(row) for _, row in rows)
    head = [cell_text(cell) for cell in rows[at][1]]
    day = ""
    for n, (number, row) in enumerate(rows):
        wide = [*row, *([""] * (width - len(row)))]
        day = days.get(n, day)
        if n < at:
            yield number, wide
        elif n == at:
            yield number, [*wide, "Day" if label < 0 else "", ""]
        elif n in days or _is_head(row, head):
            said = next(filter(None, map(cell_text, row)), "")
            yield number, [*([""] * width), "", said]  # beside the columns: a note
        else:
            wide += ["", ""]
            if sum(map(bool, map(cell_text, row))) > 1:
                wide[label if label >= 0 else width] = day
            yield number, wide


def _is_head(row: Sequence[Cell], head: Sequence[str]) -> bool:
    """Whether a row says the headings again."""
    texts = [cell_text(cell) for cell in row]
    return any(texts) and all(
        text == above or ((not text) == (not above) and field_of(text, "timetable") is not None)
        for text, above in zip(texts, head, strict=False)
        if text or above
    )
