"""Rosters with their weeks across, each headed by a date, and the weekdays down: `Week of 11 Jan` over `Mon`, `Tue`."""

import datetime as dt
import re
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.weeks import is_numbered_week
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.drawn import merged_from, padded_rows
from nomarium.reading.layouts.headdates import Days, headed_by_weeks, heads_dates
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosteracross import carried_days
from nomarium.reading.layouts.rosterslots import Drawing, Slot, halves_day
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.layouts.unusedcolumns import unused_columns
from nomarium.reading.layouts.weektitles import begins_week
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS = 30
_WITH_REMARK = r"(?P<day>[^\W\d_]+)\.?\s*(?:\((?P<remark>.*)\))?"
_LEAST_SHARE = 0.5
"""Of the cells of the column of weekdays; the others are then refused one by one."""


class _Weekday(NamedTuple):
    day: int
    remark: str
    """What stands in brackets behind it."""


class _Block(NamedTuple):
    """The rows under one row of weeks."""

    head: int
    """Its index among the rows."""
    weeks: list[int]
    """The columns that are headed by a week."""
    at: int
    """The column of weekdays."""
    parts: dict[int, str]
    """Column → what heads it in the row below the weeks: `Lead`, `Helper`."""


def weeks_across(top: Top) -> Drawing | None:
    """A roster of weekdays down and weeks across; None for any other sheet."""
    rows = padded_rows(top.sheet)
    blocks = [block for at in range(len(rows)) if (block := _block(top, rows, at)) is not None]
    if not blocks or blocks[0].head > _HEAD_ROWS:
        return None
    first = blocks[0].head
    slots: list[Slot] = []
    problems: list[Problem] = []
    remarks: dict[int, str] = {}
    others, told = list(rows[:first]), dict[Problem, None]()
    heading = "Post"
    for block, end in zip(blocks, [*(one.head for one in blocks[1:]), len(rows)], strict=True):
        number, head = rows[block.head]
        headed = headed_by_weeks(top, number, head, block.weeks, rows[:first])
        body = rows[block.head + 1 + bool(block.parts) : end]
        weekdays = _weekdays(body, block.at, top.lexicon)
        begin = next((one.day for one in weekdays.values()), None)
        if begin is None or not all(begins_week(days.first, begin) for days in headed.days.values()):
            return None
        problems += headed.problems
        told |= dict.fromkeys(headed.notes)
        columns = _under(head, block)
        heading = cell_text(head[block.at + 1]) if block.weeks[0] > block.at + 1 else heading
        remarks |= {number: one.remark for number, one in weekdays.items() if one.remark}
        used = {*range(block.weeks[0]), *columns}
        told |= dict.fromkeys(unused_columns(top.sheet, head, body, used))
        drawn = _slots(top.sheet, body, block, carried_days(headed.days, columns), weekdays)
        slots += drawn.slots
        others += drawn.others
        problems += drawn.problems
    if len(slots) < 2 and not problems:
        return None
    notes = [*told, *_remarks_told(top.sheet, remarks)]
    return Drawing(slots, "weeks across, weekdays down", heading, others, problems, notes=notes)


def _weekday(text: str, lexicon: Lexicon) -> _Weekday | None:
    match = re.fullmatch(_WITH_REMARK, text.strip())
    day = lexicon.weekdays.get(fold(match["day"]).strip()) if match else None
    return _Weekday(day, match["remark"] or "") if match and day is not None else None


def _weekdays(body: Sequence[Row], at: int, lexicon: Lexicon) -> dict[int, _Weekday]:
    """Row number → the weekday that begins it, or that stands above it, once for several rows."""
    found: dict[int, _Weekday] = {}
    above: _Weekday | None = None
    for number, row in body:
        text = cell_text(row[at])
        above = _weekday(text, lexicon) if text else above
        if above is not None:
            found[number] = above
    return found


def _block(top: Top, rows: Sequence[Row], at: int) -> _Block | None:
    """A row whose last headings are days of different weeks, with weekdays one below the other left of them."""
    _, head = rows[at]
    lexicon = top.lexicon
    weeks = [n for n in range(1, len(head)) if cell_text(head[n]) and heads_dates([head[n]], lexicon)]
    if not weeks and top.options.day_one is not None:
        weeks = [n for n in range(1, len(head)) if is_numbered_week(cell_text(head[n]))]
    if len(weeks) < 2:
        return None
    below = rows[at + 1 :]
    for n in range(weeks[0]):
        texts = [text for _, row in below if (text := cell_text(row[n]))]
        days = [day.day for text in texts if (day := _weekday(text, lexicon)) is not None]
        rises = sum(b > a for a, b in pairwise(days))
        if rises and len(days) >= len(texts) * _LEAST_SHARE:
            return _Block(at, weeks, n, _parts(below[0][1], n, weeks[0], lexicon))
    return None


def _parts(row: Sequence[Cell], at: int, first: int, lexicon: Lexicon) -> dict[int, str]:
    """What heads each column in a second row of headings, which has no weekday and comes back under each week."""
    cells = {n: text for n, cell in enumerate(row) if n >= first and (text := cell_text(cell))}
    is_body = _weekday(cell_text(row[at]), lexicon) is not None
    return cells if not is_body and len(cells) > len(set(map(str.casefold, cells.values()))) else {}


def _under(head: Sequence[Cell], block: _Block) -> list[int]:
    """The columns of the weeks: each from its heading on to the next, as far as no other heading stands there."""
    columns = list[int]()
    for n in range(block.weeks[0], len(head)):
        if n not in block.weeks and cell_text(head[n]):
            break
        columns.append(n)
    return columns


class _Drawn(NamedTuple):
    slots: list[Slot]
    others: list[Row]
    problems: list[Problem]


def _slots(
    sheet: Sheet,
    body: Sequence[Row],
    block: _Block,
    weeks: Mapping[int, Days],
    weekdays: Mapping[int, _Weekday],
) -> _Drawn:
    """The filled cells, each on the weekday of its row in the week of its column."""
    drawn = _Drawn([], [], [])
    merged = merged_from(sheet)
    for number, row in body:
        filled = [n for n in weeks if cell_text(row[n])]
        if not filled:
            drawn.others.append((number, row))
            continue
        weekday = weekdays.get(number)
        if weekday is None:
            text = cell_text(row[block.at])
            problem = Problem(
                "weekday-unknown", f"“{text}” is not one weekday.",
                "Write one weekday there, and nothing else.", sheet.place(number, block.at), text,
            )  # fmt: skip
            drawn.problems.append(problem)
            continue
        left = [row[n] for n in range(block.weeks[0]) if n != block.at and cell_text(row[n])]
        time = next((said for cell in left if (said := time_of(cell)) is not NOTHING), NOTHING)
        label = ", ".join(cell_text(cell) for cell in left if time_of(cell) is NOTHING)
        for n in filled:
            area = merged.get((number, n))
            last_row = area.last_row + 1 if area is not None else number
            last_column = area.last_column - sheet.first_column if area is not None else n
            ends = weekdays.get(last_row, weekday)
            days = Days(
                _dated(weeks[n].first, weekday.day), _dated(weeks.get(last_column, weeks[n]).first, ends.day)
            )
            part = "" if last_column > n else block.parts.get(n, "")
            drawn.slots.append(
                Slot(
                    number, n, label or part, row[n], days, time, part=part if label else "",
                    is_session=halves_day(label or part), stands_alone=not (label or part),
                )
            )  # fmt: skip
    return drawn


def _dated(begins: dt.date, weekday: int) -> dt.date:
    return begins + dt.timedelta((weekday - begins.weekday()) % 7)


def _remarks_told(sheet: Sheet, remarks: Mapping[int, str]) -> list[Problem]:
    """A note of what stands in brackets behind weekdays."""
    return [
        note("date-remark", f"“({text})” behind a weekday is a remark and not read.").at(sheet.place(number))
        for number, text in remarks.items()
    ]
