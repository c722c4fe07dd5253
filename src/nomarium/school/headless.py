"""Sheets of names and dates, or of periods and times, without a row of headings, and stretches of days without names, as the tables they are."""

import re
from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final

from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_MOST_ROWS: Final = 60
"""Rows of the longest sheet that is looked at: terms, holidays and rotations are short."""
_HEADINGS: Final = ("Name", "First day", "Last day")


def with_headings(sheet: Sheet) -> Sheet:
    """A sheet whose rows are each a name and one or two dates, or a period and its times, with headings above the first of them; one that says nothing but
    a first and a last day, with a name for these days; any other as it is."""
    rows = list(islice(sheet.rows(), _MOST_ROWS + 1))
    if len(rows) > _MOST_ROWS:
        return sheet
    wide = [one for one in rows if sum(map(bool, map(cell_text, one[1]))) > 1]
    if not wide and (apart := _dates_apart(rows)):
        rows = wide = apart
    if _is_one_stretch(wide):
        return sheet._replace(read_rows=lambda: _named(rows, wide[0][0]))
    head = _head_of_dates(wide) or _head_of_bells(wide)
    return sheet._replace(read_rows=lambda: _headed(rows, wide[0][0], head)) if head else sheet


def _dates_apart(rows: Sequence[Row]) -> list[Row]:
    """Rows that are each one text, `Term starts 11 January 2027`, as a name and a date; nothing where one of them is none."""
    found: list[Row] = []
    for number, row in rows:
        text = next(filter(None, map(cell_text, row)), "")
        parts = (
            text[: at.start()].strip(" :–—-") for at in re.finditer(r"(?:\s|:)(?=[^\W\d_]*\.?,?\s*\d)", text)
        )
        named = [(name, text[len(name) :].strip(" :–—-")) for name in parts if name]
        date = next(((name, said) for name, said in named if looks_like_date(said)), None)
        if date is not None:
            found.append((number, [*date]))
        elif text:
            return []
    return found


def _head_of_dates(rows: Sequence[Row]) -> dict[int, str]:
    """The columns of the names and of the dates and their headings, where every row has both and nothing else."""
    filled = [{n for n, cell in enumerate(row) if cell_text(cell)} for _, row in rows]
    used = sorted(set().union(*filled))
    if not 2 <= len(used) <= len(_HEADINGS):
        return {}
    whole = [n for n in used if all(n in one for one in filled)]
    names = [n for n in whole if not any(looks_like_date(row[n]) for _, row in rows)]
    dates = [n for n in used if n not in names]
    cells = (row[n] for _, row in rows for n in dates if n < len(row) and cell_text(row[n]))
    if len(names) != 1 or not set(whole) & set(dates) or not all(map(looks_like_date, cells)):
        return {}
    return {names[0]: _HEADINGS[0], **dict(zip(dates, _HEADINGS[1:], strict=False))}


def _head_of_bells(rows: Sequence[Row]) -> dict[int, str]:
    """The same for periods and their times, before or behind them."""
    filled = [{n for n, cell in enumerate(row) if cell_text(cell)} for _, row in rows]
    used = sorted(set().union(*filled))
    if (
        not 2 <= len(used) <= len(_HEADINGS)
        or len(rows) < len(_HEADINGS) - 1
        or any(one != {*used} for one in filled)
    ):
        return {}
    times = [n for n in used if all(is_time(row[n]) for _, row in rows)]
    if len(times) != len(used) - 1:
        return {}
    named = ("Time",) if len(times) == 1 else ("Start", "End")
    return {**dict.fromkeys(used, "Period"), **dict(zip(times, named, strict=True))}


def _headed(rows: Sequence[Row], first: int, named: dict[int, str]) -> Iterator[Row]:
    head = [named.get(column, "") for column in range(max(named) + 1)]
    for number, row in rows:
        if number == first:
            yield 0, head
        yield number, row


def _is_one_stretch(rows: Sequence[Row]) -> bool:
    """Whether a sheet is two headings, of a first and a last day, over two dates."""
    if len(rows) != 2 or any(len(list(filter(cell_text, row))) != len(_HEADINGS) - 1 for _, row in rows):
        return False
    fields = {field_of(cell_text(cell), "terms", {}) for cell in rows[0][1] if cell_text(cell)}
    return fields == {"first", "last"} and all(
        looks_like_date(cell) for cell in rows[1][1] if cell_text(cell)
    )


def _named(rows: Sequence[Row], head: int) -> Iterator[Row]:
    for number, row in rows:
        yield number, [_HEADINGS[0] if number == head else "Term" if any(map(cell_text, row)) else "", *row]


def with_periods(sheet: Sheet) -> Sheet:
    """A drawn rotation whose lines have no periods, each day's blocks in their order, with the number of each line before it."""
    rows = list(islice(sheet.rows(), _MOST_ROWS + 1))
    wide = [[cell_text(cell) for cell in row] for _, row in rows if any(map(cell_text, row))]
    if (
        len(rows) > _MOST_ROWS
        or len(wide) < len(_HEADINGS)
        or not all(map(all, wide))
        or len({*map(len, wide)}) > 1
    ):
        return sheet
    blocks, *others = ({row[n] for row in wide[1:]} for n in range(len(wide[0])))
    if not blocks & set().union(*others) or set(wide[0]) & blocks:
        return sheet
    return sheet._replace(read_rows=lambda: _numbered(rows))


def _numbered(rows: Sequence[Row]) -> Iterator[Row]:
    line = -1
    for number, row in rows:
        line += any(map(cell_text, row))
        yield number, [line if line else "Period", *row] if any(map(cell_text, row)) else row
