"""Rows that are no events: notes among and below the table; and what is wrong with a row as a whole, or with a cell
before it is even read, as problems at their place."""

import re
from collections.abc import Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.times import read_times
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.dateparts import DateParts
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import normal
from nomarium.reading.rows.when import Blame
from nomarium.sheets.sheet import Sheet, cell_text

_TOTAL_WORDS = frozenset(
    "total totals sum subtotal grand count average totaal totaux totale somme summe gesamt anzahl suma summa razem celkem yhteensa toplam".split()
)

_RULING = frozenset("-_=~*+:·—–─━═ ")

_BESIDE = {"except": "repeat", "also-on": "repeat", "repeat-until": "repeat"}
"""The column to blame for a field that has none of its own; else the date's."""


def workbook_faults(
    sheet: Sheet, columns: Sequence[Column], fields: Sequence[str], number: int, row: Sequence[Cell]
) -> list[Problem]:
    """The problems of cells that the workbook itself marks as errors."""
    found = []
    for n, field in enumerate(fields):
        fault = sheet.faults.get((number, n + sheet.first_column))
        if fault and field and not cell_text(row[n]):
            message = f"The cell shows {fault}." if fault.startswith("#") else f"The cell holds {fault}."
            remedy = (
                "Mend its formula, or type the value; then save the workbook in a spreadsheet application."
            )
            place = sheet.place(number, n, columns[n].heading)
            found.append(Problem("cell-error", message, remedy, place, fault))
    return found


def too_wide(sheet: Sheet, header_width: int, number: int, row: Sequence[Cell], index: int) -> Problem:
    """A row of text with more cells than there are headings; `index` is the first cell too many."""
    message = (
        f"The row has {len(row)} cells and there are {header_width} headings: a text with a "
        "delimiter in it may have been cut in two."
    )
    remedy = "Put quotation marks around that text, or give the last column a heading."
    return Problem("row-too-wide", message, remedy, sheet.place(number, index), cell_text(row[index]))


def blamed(
    sheet: Sheet, columns: Sequence[Column], at: Mapping[str, int], number: int, row: Sequence[Cell], blame: Blame,
    may_fill_down: bool, from_above: bool = False,
) -> Problem:  # fmt: skip
    """A blame as a problem at its cell. `at` is where each field stands; `may_fill_down`: earlier rows
    had a date, so that a missing one may hold from above; `from_above`: those are taken from there."""
    field, refusal = blame.field, blame.refusal
    index = at.get(field, at.get(_BESIDE.get(field, "date"), -1))
    if index < 0:
        return refusal.problem(sheet.place(number), "")
    heading = columns[index].heading
    if refusal.why == "missing" and field == "date" and from_above and may_fill_down:
        remedy = "Give it a date: one that stands above holds for no time after midnight below an evening."
        refusal = refusal._replace(remedy=remedy)
    elif (
        refusal.why == "missing"
        and not cell_text(row[index])
        and may_fill_down
        and not _says_no_time(columns, at, row)
    ):
        called, what = (
            heading or column_letter(index + sheet.first_column),
            {"week": "week", "summary": "title"}.get(field, "date"),
        )
        remedy = f'Give it a {what}; or, if a {what} written once holds for the rows below it: --fill-down "{called}".'
        refusal = refusal._replace(remedy=remedy)
    text = cell_text(row[index])
    if columns[index].is_clock and not looks_like_date(row[index]):
        as_time = read_times(text)  # half past eight, among times
        refusal = as_time if isinstance(as_time, Refusal) else refusal
    return refusal.problem(sheet.place(number, index, heading), text)


def _says_no_time(columns: Sequence[Column], at: Mapping[str, int], row: Sequence[Cell]) -> bool:
    """Whether a row has no time where most others have: with a day from above it would last all of that."""
    timed = [n for field in ("time", "start") if (n := at.get(field, len(row))) < len(row)]
    is_usual = any(columns[n].filled > columns[n].blank for n in timed)
    return is_usual and not any(any(map(str.isdigit, cell_text(row[n]))) for n in timed)


def untitled(is_made: bool) -> Blame:
    """The blame of a row that has a date and no title, which may be made of columns (`--title`)."""
    remedy = "Give it a title, or take the row out."
    message = "The row says when and not what" + (
        ", by the columns that its title is made of." if is_made else "."
    )
    return Blame("summary", Refusal("summary-missing", message, remedy, "missing"))


def without_month(blame: Blame, row: Sequence[Cell], at: Mapping[str, int], parts: object) -> Blame:
    """The blame of a day that stands beside a column of months, which is blank there."""
    text = cell_text(row[at["date"]]) if "date" in at else ""
    if (
        not isinstance(parts, DateParts)
        or not parts.gap
        or not re.fullmatch(r"\d{1,2}(?:\s?[-–]\s?\d{1,2})?", text)
    ):
        return blame
    remedy = f'If a month written once holds for the rows below it: --fill-down "{parts.gap}"; or give the row its month.'
    return blame._replace(refusal=Refusal("date-no-month", "The row has a day and no month.", remedy))


def note_text(
    row: Sequence[Cell], headings: Sequence[str], fields: Sequence[str], dated: bool, has_slots: bool = True
) -> str | None:
    """The text of a row that is a note, or None when it must be taken for an event.

    A note repeats the headings, rules a line, holds one lone text left of everything (a section title) or
    outside the columns of the event, counts something up, or has a date and nothing else (an empty slot).

    `fields` has one field a column; `dated` tells whether a cell of the row reads as a date; `has_slots`, whether the
    table lists dates on most of which nothing happens.
    """
    filled = [(n, text) for n, cell in enumerate(row) if (text := cell_text(cell))]
    texts = [text for _, text in filled]
    if dated:
        slots = ("date", "when", "end-date", "day", "week", "all-day")
        only_slots = all(n < len(fields) and fields[n] in slots for n, _ in filled)
        return " ".join(texts) if only_slots and has_slots else None
    is_rule = all(len(text) > 2 and set(text) <= _RULING for text in texts)
    if is_rule or repeats_headings(row, headings):
        return " | ".join(texts)
    first_word = normal(texts[0]).split()
    if first_word and first_word[0] in _TOTAL_WORDS and len(filled) <= max(3, len(headings) // 2):
        return " ".join(texts)
    if len(filled) != 1:
        return None
    at = filled[0][0]
    used = [n for n, field in enumerate(fields) if field]
    field = fields[at] if at < len(fields) else ""
    if field in ("summary", "class") and (len(used) < 3 or at != used[0]):
        from nomarium.reading.rows.lone import is_remark  # few rows are alone

        if not is_remark(texts[0]):
            return None  # an event whose date was forgotten, or written once for a group
    return texts[0]


def repeats_headings(row: Sequence[Cell], headings: Sequence[str]) -> bool:
    """Whether a row says the headings of its table again."""
    said_count = 0
    for n, cell in enumerate(row):
        if text := cell_text(cell):
            if n >= len(headings) or headings[n] == "" or normal(text) != normal(headings[n]):
                return False  # most rows at their first cell
            said_count += 1
    return said_count >= 2
