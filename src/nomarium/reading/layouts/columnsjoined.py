"""Columns that say one thing together: a time and its half of the day, how often and every how many."""

import datetime as dt
import re
from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.table import TableReading, data_rows
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HALVES: Final = frozenset(("am", "pm"))
_HALF_HEADING: Final = re.compile(r"am\W*(?:or|/)?\W*pm", re.IGNORECASE)
_INTERVAL_HEADING: Final = re.compile(r"(?:repeat |recurrence )?interval|every", re.IGNORECASE)
_TIMED: Final = ("time", "start", "end")
_UNITS: Final = {
    **dict.fromkeys(("daily", "day", "days"), "days"),
    **dict.fromkeys(("weekly", "week", "weeks"), "weeks"),
    **dict.fromkeys(("monthly", "month", "months"), "months"),
    **dict.fromkeys(("yearly", "year", "years", "annual", "annually"), "years"),
}


def with_columns_joined(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with `9:00 AM` for the cells of a time and of the half beside it, and with `every 2 weeks` for *Weekly* and an
    interval of 2; None where no columns are such."""
    halves = _halves_beside(table.columns)
    interval = _interval_of(table)
    if not halves and interval is None:
        return None
    heads = table.head.header_rows

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            cells = list(row)
            if number not in heads:
                for at, half_at in halves.items():
                    _join(cells, at, half_at, _with_half)
                if interval is not None:
                    _join(cells, *interval, _with_interval)
            yield number, cells

    intervals = dict([interval] if interval else [])
    told = (
        *_told(
            sheet, table, "halves-joined", halves, "The halves of the day beside {} are those of its times."
        ),
        *_told(sheet, table, "intervals-joined", intervals, "The intervals of {} say every how many."),
    )
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, *told))


def _told(
    sheet: Sheet, table: TableReading, code: str, pairs: dict[int, int], message: str
) -> Iterator[Problem]:
    if pairs:
        named = listed([f"“{table.columns[at].heading}”" for at in pairs])
        yield note(code, message.format(named)).at(sheet.place())


def _is_headed(column: Column, form: re.Pattern[str]) -> bool:
    return form.fullmatch(column.heading.strip().replace(".", "")) is not None


def _halves_beside(columns: Sequence[Column]) -> dict[int, int]:
    """Column of times → the one right of it, of their halves of the day."""
    return {
        before.at: column.at
        for before, column in pairwise(columns)
        if before.field in _TIMED
        and column.is_ignored
        and column.how != "asked"
        and _is_headed(column, _HALF_HEADING)
        and {_half(text) for text in column.samples} <= _HALVES
    }


def _interval_of(table: TableReading) -> tuple[int, int] | None:
    """The column that says how often and the one that says every how many, where all its rows can be read together."""
    repeat = table.column("repeat")
    column = next((c for c in table.columns if c.is_ignored and _is_headed(c, _INTERVAL_HEADING)), None)
    if repeat is None or column is None or column.how == "asked":
        return None
    for _, row in data_rows(table.sheet, table.head):
        number = cell_text(row[column.at]) if column.at < len(row) else ""
        often = fold(cell_text(row[repeat.at])) if repeat.at < len(row) else ""
        if number and not (number.isdecimal() and int(number) > 0 and (often in _UNITS or number == "1")):
            return None
    return repeat.at, column.at


def _join(cells: list[Cell], at: int, other: int, together: Callable[[Cell, Cell], str]) -> None:
    if max(at, other) < len(cells) and cell_text(cells[at]) and (said := together(cells[at], cells[other])):
        cells[at], cells[other] = said, ""


def _half(cell: Cell) -> str:
    return fold(cell_text(cell)).replace(".", "").replace(" ", "")


def _with_half(time: Cell, half: Cell) -> str:
    """A time with its half of the day; nothing where this is none."""
    clock = f"{(time.hour - 1) % 12 + 1}:{time.minute:02}" if isinstance(time, dt.time) else cell_text(time)
    return f"{clock} {_half(half)}" if _half(half) in _HALVES else ""


def _with_interval(often: Cell, number: Cell) -> str:
    """*Weekly* and 2 in words; an interval of one leaves it as it is, and nothing where there is none."""
    if not cell_text(number):
        return ""
    count = int(cell_text(number))
    return cell_text(often) if count == 1 else f"every {count} {_UNITS[fold(cell_text(often))]}"
