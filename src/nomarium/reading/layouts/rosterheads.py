"""The headings of a roster with dates down: in one row or two, over dates that go on in their month, and what stands over them."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.columns.headings import heads_times, match_exactly
from nomarium.reading.columns.runningmonths import RunningMonths, find_running_months
from nomarium.reading.layouts.codes import is_of_key
from nomarium.reading.layouts.headdates import heads_dates, month_in_title, numbered_days
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosterslots import carried
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEAD_ROWS = 30


class Heads(NamedTuple):
    """A sheet with a row of headings over a column of dates."""

    above: list[Row]
    """The rows over the headings."""
    number: int
    """The number of the row of headings, the lower one of two."""
    cells: Sequence[Cell]
    date_at: int
    """The column of the dates."""
    is_split: bool
    """Whether the headings are in two rows, with that of the dates in the first of them."""
    body: list[Row]
    """The rows below, each of whose dates has its month."""
    running: RunningMonths | None
    """What gave months to dates without one."""


def heads_of(top: Top) -> Heads | None:
    """The headings of a sheet, and what stands over and below them; None where none stand over dates."""
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    running = find_running_months((), [row for _, row in rows], top.lexicon)
    rows = [*running.joined(rows)] if running else rows
    found = _head_over_dates(top, rows)
    if found is None:
        return None
    at, date_at = found
    cells, is_split = rows[at][1], _is_split(rows[at:], date_at)
    if is_split:
        at += 1
        lower = rows[at][1]
        first = next(n for n, cell in enumerate(lower) if cell_text(cell))
        cells = [*cells[:first], *lower[first:]]
    return Heads(rows[:at], rows[at][0], cells, date_at, is_split, rows[at + 1 :], running)


def _is_split(rows: Sequence[Row], date_at: int) -> bool:
    """Whether the headings go on in the row below the first: each of what stands there is headed by what stands over several of
    them, and nothing stands there where the first heads the dates."""
    if len(rows) < 3:
        return False
    upper, lower = rows[0][1], rows[1][1]
    texts = {n: text for n, cell in enumerate(lower) if (text := cell_text(cell))}
    first = min(texts, default=date_at)
    over = {n for n, cell in enumerate(upper) if n >= first and cell_text(cell)}
    is_headed = date_at < first and first in over and over <= texts.keys() and len(over) < len(texts)
    return is_headed and not any(map(str.isdigit, "".join(texts.values())))


def groups_over(heads: Heads, columns: Sequence[int]) -> dict[int, str]:
    """What stands over each column in the row above the headings, where that tells equal headings apart, or is the first half of
    headings that are split."""
    if not heads.above or (_repeated(heads.cells, columns) is None and not heads.is_split):
        return {}
    over = carried(heads.above[-1][1], min(heads.date_at + 1, columns[0]), columns[-1])
    pairs = [(over[n], cell_text(heads.cells[n]).casefold()) for n in columns]
    return (
        {n: over[n] for n in columns}
        if len(set(pairs)) == len(pairs) and all(over[n] for n in columns)
        else {}
    )


def headed_twice(top: Top, heads: Heads, columns: Sequence[int]) -> Problem | None:
    """A problem where columns share a heading, and the row above does not tell them apart: what it says would be lost."""
    at = _repeated(heads.cells, columns)
    if at is None or not heads.above or len(list(filter(cell_text, heads.above[-1][1]))) < 2:
        return None
    message = "Several columns have this heading, and the row above does not tell them apart."
    remedy = "Write into the row above what each is about."
    return Problem(
        "roster-headings", message, remedy, top.sheet.place(heads.number, at), cell_text(heads.cells[at])
    )


def _repeated(head: Sequence[Cell], columns: Sequence[int]) -> int | None:
    """The second of two columns that have one heading."""
    seen = set[str]()
    for n in columns:
        text = cell_text(head[n]).casefold()
        if text in seen:
            return n
        seen.add(text)
    return None


def _head_over_dates(top: Top, rows: Sequence[Row]) -> tuple[int, int] | None:
    """The index of a row of headings over a column that is mostly dates, and that column."""
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = [text for cell in row if (text := cell_text(cell))]
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        are_two = filled == [1, 2]  # names or posts, over dates that nothing heads
        if (
            (len(texts) < 3 and not are_two)
            or any(len(text) > 40 for text in texts)
            or heads_dates(row, top.lexicon)
        ):
            continue
        body = rows[at + 1 :]
        used_below = {cell_text(cell) for _, r in body[1:] for cell in r[1:]}
        if any(is_of_key(r, used_below) for r in (row, *(r for _, r in body[:1]))):
            continue  # what codes stand for, and its headings
        for column in range(min(len(row), 4)):
            wide = [r for _, r in body if sum(map(bool, map(cell_text, r))) > 1]  # and no words below them
            used_texts = {cell_text(cell) for r in wide for n, cell in enumerate(r) if n != column}
            wide = [r for r in wide if not is_of_key(r, used_texts)]
            cells = [r[column] for r in wide if column < len(r) and cell_text(r[column])]
            dates = sum(heads_dates([cell], top.lexicon) for cell in cells)
            if cells and dates >= max(1, len(cells) * 0.6) and not _are_clocks(row[column], cells):
                return at, column
            if _are_days_of_a_month(top, rows[:at], cells, cell_text(row[column])):
                return at, column
        return None
    return None


def _are_clocks(heading: Cell, cells: Sequence[Cell]) -> bool:
    """Whether cells under a heading of times are times with dots, `9.10`, and no days."""
    return heads_times(cell_text(heading)) and all(time_of(cell) is not NOTHING for cell in cells)


def _are_days_of_a_month(top: Top, above: Sequence[Row], cells: Sequence[Cell], heading: str) -> bool:
    """Whether cells are the numbers of days, `Mon 1`, or `1` under a heading of dates, whose month heads them or stands above."""
    texts = [top.sheet.name, *(cell_text(cell) for _, row in above for cell in row), heading]
    days = numbered_days([(n, 0, cell) for n, cell in enumerate(cells)], top.lexicon, {})
    match = match_exactly(heading)
    are_named = all(re.search(r"[^\W\d_]", cell_text(cell)) for cell in cells)
    are_headed = month_in_title(heading, top.lexicon) or (
        match is not None and match.field in ("date", "day")
    )
    rises = all(a.day < b.day for a, b in pairwise(days))
    return (
        len(days) > 2
        and (are_named or (are_headed and rises))
        and any(month_in_title(text, top.lexicon) for text in texts)
    )
