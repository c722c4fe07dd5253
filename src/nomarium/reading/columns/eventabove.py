"""An event of its own that labelled rows above a table say, `Event: Open day`, `Date: 3 October`, beside the rows of the table."""

import re
from collections.abc import Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.bycontent import LIMITS
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_exactly, normal
from nomarium.sheets.sheet import Sheet, cell_text

_OF_LIMITS = rf"{LIMITS}|\b(?:opens?|opening|ends?|starts?|begins?)\b"
_LEAST = 2
"""Rows from which on an event is labelled, and entries with a day are a list."""
_ENTRY = re.compile(
    r"\s*(?:[-*•–·]\s+)?(?:(?P<weekday>[^\W\d_]{2,10})\.?,?\s+)?\d{1,2}(?:st|nd|rd|th|er|\.)?(?:\s+(?P<month>[^\W\d_]{3,})\.?(?:,?\s+\d{4})?)?"
    r"(?:\s*[:–—,]|\s-)\s*[^\W\d]"
)
"""A line that begins with its day and says what is on, `- Mon 1: Lunch in the canteen`."""


def event_above(sheet: Sheet, head: TableHead, lexicon: Lexicon) -> list[Problem]:
    """A problem where rows above a table are labelled as the title and the date of an event: it would be lost as a remark."""
    if len(head.title_rows) < _LEAST:
        return []
    entries = _entries_above(sheet, head, lexicon)
    if len(entries) >= _LEAST:
        number, text = entries[0]
        message = f"Above the table stand entries with days of their own, which are not read: “{text}” and {counted(len(entries) - 1, 'other')}."
        by_line = (
            "or read all of the file line by line, with --as text" if sheet.read_lines else "or take them out"
        )
        return [
            Problem("event-above", message, f"Give each a row of the table; {by_line}.", sheet.place(number))
        ]
    said: dict[str, tuple[int, str]] = {}
    for number, row in islice(sheet.rows(), head.rows_above):
        label, value = _label_in(row)
        match = match_exactly(label) if label and cell_text(value) else None
        if match is not None and match.field == "date" and looks_like_date(value, lexicon):
            said.setdefault("date", (number, f"“{label}: {cell_text(value)}”"))
        elif match is not None and match.field == "summary" and isinstance(value, str):
            said.setdefault("summary", (number, f"“{label}: {value.strip()}”"))
    if said.keys() != {"date", "summary"}:
        return []
    first = min(said.values())
    message = f"Above the table stands an event of its own, which is not read: {listed([text for _, text in sorted(said.values())])}."
    remedy = "Give it a row of the table, or a file of its own; or take it out."
    return [Problem("event-above", message, remedy, sheet.place(first[0]))]


def _entries_above(sheet: Sheet, head: TableHead, lexicon: Lexicon) -> list[tuple[int, str]]:
    """The rows above a table that stand alone, begin with a day and say what is on."""
    found = []
    for number, row in islice(sheet.rows(), head.rows_above):
        filled = [text for cell in row if (text := cell_text(cell).strip())]
        entry = _ENTRY.match(filled[0]) if len(filled) == 1 else None
        if entry is None:
            continue
        if fold(entry["weekday"] or "") in lexicon.weekdays or fold(entry["month"] or "") in lexicon.months:
            found.append((number, filled[0]))
    return found


def limits_above(sheet: Sheet, head: TableHead, lexicon: Lexicon) -> list[Problem]:
    """A note of each date above a table that ends or opens something, `Registration closes: | 15 October 2026`, and is none of its
    rows' own."""
    notes = []
    for number, row in islice(sheet.rows(), head.rows_above):
        filled = [cell for cell in row if cell_text(cell)]
        text = " ".join(map(cell_text, filled))
        is_limit = len(filled) == 2 and re.search(_OF_LIMITS, normal(cell_text(filled[0]))) is not None
        if is_limit and looks_like_date(filled[1], lexicon):
            message = f"“{text}” stands above the table and is no event."
            remedy = "If it is one, give it a row of the table."
            notes.append(note("date-above", message, remedy).at(sheet.place(number)))
    return notes


def place_above(sheet: Sheet, head: TableHead) -> list[Problem]:
    """A note of a place that a row above a table says, `Room: Loft 1`, whose rows say none."""
    for number, row in islice(sheet.rows(), head.rows_above):
        label, value = _label_in(row)
        match = match_exactly(label) if label and isinstance(value, str) and value.strip() else None
        if match is not None and match.field in ("location", "room"):
            message = f"Above the table stands “{label}: {cell_text(value)}”, and its rows say no place."
            remedy = f'If it is that of all: --set "location={cell_text(value)}".'
            return [note("place-above", message, remedy).at(sheet.place(number))]
    return []


def _label_in(row: Sequence[Cell]) -> tuple[str, Cell]:
    """The label of a row and what stands behind it, in one cell or two; blank for another row."""
    filled = [cell for cell in row if cell_text(cell)]
    if len(filled) == 1 and isinstance(filled[0], str):
        label, colon, value = filled[0].partition(":")
        return (label.strip(), value.strip()) if colon else ("", "")
    if len(filled) == 2 and isinstance(filled[0], str):
        return filled[0].strip(" :"), filled[1]
    return "", ""
