"""Rows that are no events: notes among and below the table, or events with something missing."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.columns.headings import normal
from nomarium.sheets.sheet import cell_text

_TOTAL_WORDS = frozenset(
    "total totals sum subtotal grand count average totaal totaux summe gesamt suma".split()
)

_RULING = frozenset("-_=~*+:·—–─━═ ")


def note_text(row: Sequence[Cell], headings: Sequence[str], fields: Sequence[str], dated: bool) -> str | None:
    """The text of a row that is a note, or None when it must be taken for an event.

    A note repeats the headings, rules a line, holds one lone text left of everything (a section title) or
    outside the columns of the event, counts something up, or has a date and nothing else (an empty slot).

    `fields` has one field a column; `dated` tells whether a cell of the row reads as a date.
    """
    filled = [(n, cell_text(cell)) for n, cell in enumerate(row) if cell_text(cell)]
    texts = [text for _, text in filled]
    if dated:
        slots = ("date", "when", "start", "end-date", "end", "day", "week", "time", "all-day")
        only_slots = all(n < len(fields) and fields[n] in slots for n, _ in filled)
        return " ".join(texts) if only_slots else None
    is_rule = all(len(text) > 2 and set(text) <= _RULING for text in texts)
    if is_rule or _repeats_headings(filled, headings):
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
        return None  # an event whose date was forgotten, or written once for a group
    return texts[0]


def _repeats_headings(filled: Sequence[tuple[int, str]], headings: Sequence[str]) -> bool:
    same = [
        n < len(headings) and headings[n] != "" and normal(text) == normal(headings[n]) for n, text in filled
    ]
    return len(filled) >= 2 and all(same)
