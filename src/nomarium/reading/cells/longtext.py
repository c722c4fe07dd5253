"""Cells of thousands of characters: what finds out how a table is read looks at the first of them only, and the rows keep all.

Patterns that look for a day or a time among words take the square of a text's length, or more.
"""

import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_LINE, LONGEST_LIST, LONGEST_LOOK
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal, too_long
from nomarium.sheets.sheet import TOP_ROWS, Row, RowsAgain, Sheet, cell_text

CUT = "⟨…⟩"
"""What ends a text that is not whole. Nobody types it, so that a cut text can never pass for a whole one."""


class LongText(str):
    """The first part of a text, by which it is looked at."""

    whole: str

    __slots__ = ("whole",)


def with_long_cells_cut(sheet: Sheet) -> Sheet:
    """A sheet whose long cells, if its first rows have any, are looked at by their first part."""
    if not any(_has_long_cell(row) for _, row in islice(sheet.rows(), TOP_ROWS)):
        return sheet
    return sheet._replace(read_rows=RowsAgain(lambda: _with_cut_cells(sheet.rows())), is_cut=True)


def _has_long_cell(row: Sequence[Cell]) -> bool:
    return any(type(cell) is str and len(cell) > LONGEST_LOOK for cell in row)


def _with_cut_cells(rows: Iterable[Row]) -> Iterator[Row]:
    for number, row in rows:
        if _has_long_cell(row):
            row = [_cut(cell) if type(cell) is str and len(cell) > LONGEST_LOOK else cell for cell in row]
        yield number, row


def _cut(cell: str) -> LongText:
    short = LongText(re.sub(_GAP, "  ", cell[:LONGEST_LOOK]) + CUT)
    short.whole = cell
    return short


def long_cell_problem(sheet: Sheet) -> Problem | None:
    """The problem of the first cell of a sheet that is longer than one of a plan may be; None where there is none."""
    for number, row in islice(sheet.rows(), TOP_ROWS):
        for at, cell in enumerate(row):
            whole = cell.whole if isinstance(cell, LongText) else cell
            refusal = too_long(whole, LONGEST_LIST) or cut_refusal(whole) if isinstance(whole, str) else None
            if refusal is not None:
                return refusal.problem(sheet.place(number, at), cell_text(whole))
    return None


def with_whole_cells(rows: Iterable[Row]) -> Iterator[Row]:
    """Rows as they stand in their source, where they were cut to be looked at."""
    for number, row in rows:
        if any(type(cell) is LongText for cell in row):
            row = [cell.whole if isinstance(cell, LongText) else cell for cell in row]
        yield number, row


def with_long_cells_whole(sheet: Sheet) -> Sheet:
    """A sheet that was looked at, with all that its cells hold."""
    if not sheet.is_cut:
        return sheet
    return sheet._replace(read_rows=RowsAgain(lambda: with_whole_cells(sheet.rows())), is_cut=False)


def cut_refusal(text: str) -> Refusal | None:
    """Why a text that was made of a cut one cannot be written; None for a whole one."""
    if CUT not in text:
        return None
    message = f"It has more than {LONGEST_LOOK:,} characters, and is read by its first ones only."
    return Refusal("cell-long", message, "Put the words into a column of their own.")


def without_long_lines(lines: Sequence[Row]) -> tuple[list[Row], list[tuple[int, str, Refusal]]]:
    """Lines of text without those that no page has, and with figures among these what is wrong with each: it may say a date.
    Those that are no words are shorter by far."""
    kept, refused = list[Row](), list[tuple[int, str, Refusal]]()
    for number, row in lines:
        text = row[0] if row and isinstance(row[0], str) else ""
        has_words = len(text) <= LONGEST_LINE and not re.search(_NO_WORDS, re.sub(_LINK, " ", text))
        if len(text) <= LONGEST_LOOK or has_words:
            kept.append((number, row))
            continue
        if any(map(str.isdigit, text)):
            message = f"The line has {len(text):,} characters, too many to find a date among them."
            refused.append(
                (number, text, Refusal("cell-long", message, "Break it into lines, or take it out."))
            )
        kept.append((number, ["" if any(map(str.isdigit, text)) else text[:LONGEST_LOOK]]))
    return kept, refused


_GAP = r"\s{4,}"
_NO_WORDS = r"\S{100}|\s{100}"
_LINK = r"https?://\S{1,1000}"
