"""A list with the month in one column, written once over its rows or in each, and the days of it in another: `September | Open
house | Wed 16th, 6:30pm`."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import MONTHS
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import day_and_clock, month_head, with_years
from nomarium.reading.layouts.monthsections import DAYS, day_in_month
from nomarium.sheets.sheet import Row, cell_text

_HEAD_ROWS: Final = 12
_MONTH: Final = frozenset("month months mois monat mes maand mese mês miesiac manad maned".split())
_FIELDS: Final = frozenset(("date", "when", "day"))
_LEAST_MONTHS: Final = 2


class _Columns(NamedTuple):
    head: int
    """Index of the row of headings."""
    month: int
    days: tuple[int, ...]


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list with a column of months beside one of days, or say why it is none."""
    rows = list(top.sheet.rows())
    columns = _columns_of(rows, top)
    if columns is None:
        message = f"{top.sheet.title} has no column of months beside one of days."
        return not_read(
            top.sheet, "no-months", "it has no months beside days", "date-column-missing", message
        )
    said = {
        number: month
        for number, row in rows[columns.head + 1 :]
        if columns.month < len(row) and (month := month_head(row[columns.month], top.lexicon)) is not None
    }
    years = with_years(top, list(said.values()), rows[: columns.head])
    if isinstance(years, Problem):
        return NotRead(top.sheet, "month-unnamed", "nothing says which year it is", years)
    months = {
        number: f"{MONTHS[month - 1]} {year}" for number, (year, month) in zip(said, years, strict=True)
    }
    first = next(iter(months))
    message = f"The days are those of the months beside them: row {first} is in {months[first]}."
    told = note("month-sections", message).at(top.sheet.place(first, columns.month))
    made = top.sheet._replace(
        read_rows=partial(_dated, top, rows, columns, months), merged=(), notes=(*top.sheet.notes, told)
    )
    return list_in(Top(made, top.options, top.is_whole), made, top.seen)


def _columns_of(rows: Sequence[Row], top: Top) -> _Columns | None:
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        named = next((n for n, cell in enumerate(row) if fold(cell_text(cell)).strip(" .") in _MONTH), -1)
        if named < 0:
            continue
        below = [one for _, one in rows[at + 1 :] if sum(map(bool, map(cell_text, one))) > 1]
        months = [one[named] for one in below if named < len(one) and cell_text(one[named])]
        if len(months) < _LEAST_MONTHS or any(month_head(cell, top.lexicon) is None for cell in months):
            return None
        days = tuple(n for n, cell in enumerate(row) if n != named and _holds_days(n, cell, below))
        return _Columns(at, named, days) if days else None
    return None


def _holds_days(at: int, heading: Cell, rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether all cells of a column are days of a month; under a heading that says nothing of when, by more than their figures."""
    cells = [row[at] for row in rows if at < len(row) and cell_text(row[at])]
    match = match_heading(cell_text(heading))
    is_headed = match is not None and match.field in _FIELDS
    return bool(cells) and all(map(_is_day, cells)) and (is_headed or all(map(_is_sure_day, cells)))


def _is_day(cell: Cell) -> bool:
    return DAYS.fullmatch(day_and_clock(cell_text(cell))[0]) is not None


def _is_sure_day(cell: Cell) -> bool:
    """Whether a day is written with its weekday or as an ordinal, `Thursday 15th`, and is no mere number."""
    return not cell_text(cell).isdecimal()


def _dated(top: Top, rows: Sequence[Row], columns: _Columns, months: dict[int, str]) -> Iterator[Row]:
    """The rows, those with days with the month beside or above them."""
    month = ""
    for n, (number, row) in enumerate(rows):
        cells = list(row)
        if columns.month < len(cells) and n >= columns.head:
            cells[columns.month] = ""
        month = months.get(number, month)
        for at in columns.days if n > columns.head and month else ():
            if at < len(cells) and cell_text(cells[at]):
                cells[at] = _in(cell_text(cells[at]), month, top.lexicon)
        yield number, cells


def _in(text: str, month: str, lexicon: Lexicon) -> str:
    """Days in the month beside them; those that name it themselves, `Nov 16-20`, in its year."""
    day, time = day_and_clock(text)
    named = {
        lexicon.months[word] for word in re.findall(r"[^\W\d_]{3,}", fold(day)) if word in lexicon.months
    }
    name, year = month.split()
    if not named:
        return day_in_month(text, month, lexicon)
    return f"{day}, {year} {time}".strip() if named == {MONTHS.index(name) + 1} else text
