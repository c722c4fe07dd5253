"""Days off on sheets of another form: one that holds nothing but dates, `INSET days`, or terms and holidays together."""

import re
from collections.abc import Iterator, Mapping
from functools import partial
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.repeats import read_day_list
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.datewords import looks_like_date
from nomarium.sheets.sheet import Row, Sheet, cell_text

_PARTS: Final = r"\s*(?:[;\n]|,(?!\s*\d{4})|&|\band\b)\s*"
_HEADINGS: Final = ("Name", "First day")


def dates_off(sheet: Sheet) -> Sheet | None:
    """The sheet as a table of days off, a row for each of its dates, all called as it is; None where it holds anything else
    than dates, several in a cell among them, and words without figures."""
    rows = list(_rows_in(sheet))
    has_other = any(date is None for _, date in rows)
    found: list[Row] = [(number, [sheet.name, date]) for number, date in rows if date is not None]
    if has_other or not found or _are_pairs(sheet):
        return None
    listed = [(max(found[0][0] - 1, 1), [*_HEADINGS]), *found]
    return sheet._replace(read_rows=partial(iter, listed), merged=())


def _are_pairs(sheet: Sheet) -> bool:
    """Whether each row has two dates: they may be a first and a last day, and the days between would be taught."""
    counts = {sum(bool(cell_text(cell)) and looks_like_date(cell) for cell in row) for _, row in sheet.rows()}
    return counts - {0} == {2}


def _rows_in(sheet: Sheet) -> Iterator[tuple[int, Cell | None]]:
    """The dates of each row; None for a cell that has figures and is none."""
    for number, row in sheet.rows():
        for cell in row:
            text = cell_text(cell)
            if looks_like_date(cell):
                yield number, cell
            elif any(map(str.isdigit, text)):
                yield from ((number, date) for date in _listed(text))


def _listed(text: str) -> list[str | None]:
    """The dates of a cell that lists several; each must say its month. None for what is no such list, or a title with a
    year, `INSET days 2026-27`, which is passed over."""
    if re.fullmatch(r"\D*20\d\d(?:\s?[-–/]\s?(?:20)?\d\d)?\W*", text):
        return []
    days = read_day_list(text, ENGLISH)
    pieces = [piece for piece in re.split(_PARTS, text) if piece]
    are_whole = all(looks_like_date(piece) for piece in pieces)
    if isinstance(days, Refusal) or len(days) != len(pieces) or not are_whole:
        return [None]
    return [*pieces]


def rows_with(sheet: Sheet, columns: Mapping[str, int], are_off: bool) -> Sheet:
    """The rows of a sheet of terms and holidays that are the one or the other, under its headings."""
    named, dated = columns["name"], columns["first"]

    def rows() -> Iterator[Row]:
        listed = list(sheet.rows())
        first = next(
            n for n, (_, row) in enumerate(listed) if dated < len(row) and looks_like_date(row[dated])
        )
        for n, (number, row) in enumerate(listed):
            is_head = n == first - 1 or (n < first and not are_off)
            if is_head or (n >= first and named < len(row) and is_off(cell_text(row[named])) == are_off):
                yield number, row

    return sheet._replace(read_rows=rows)
