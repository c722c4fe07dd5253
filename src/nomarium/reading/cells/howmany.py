"""A cell that counts the dates of a row: `6` under `No. of classes`, `6 weeks`."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.cells.words import fold
from nomarium.sheets.sheet import cell_text

_WEEKS = r"\b(?:weeks?|wks?|semaines?|wochen?|semanas?|weken|settimane)\b"
_LONGER = r"^(?:days?|hours?|hrs?|mins?|minutes?|months?|years?|tage?|jours?|mois|stunden|heures?|monate?)$"
"""Units of which several are no number of weeks."""


def counts_weeks(heading: str, cells: Sequence[Cell]) -> bool:
    """Whether a column of lengths counts weeks: its heading says so, `Duration (weeks)`, or half of its cells or more."""
    texts = [cell_text(cell) for cell in cells]
    in_weeks = sum(re.fullmatch(rf"\d{{1,2}}\s?{_WEEKS}", fold(text)) is not None for text in texts)
    bare = all(text.isdigit() for text in texts)
    return in_weeks * 2 >= len(texts) > 0 or (bare and re.search(_WEEKS, fold(heading)) is not None)


def read_count(text: str, heading: str) -> Repeat | Refusal:
    """Every week so many times, from 1 on. Its `span` is set where the cell or its heading counts weeks, which a repeat of
    another step or of several weekdays fills with more dates or fewer."""
    match = re.fullmatch(r"(\d{1,5})(?:\s?([^\W\d_]{2,}))?", text)
    is_longer = match is not None and re.search(_LONGER, fold(match[2] or "")) and int(match[1]) > 1
    if match is None or int(match[1]) == 0 or is_longer:
        message = f"“{text}” does not say how many times the row takes place."
        remedy = "Write a figure, such as 6; or give each date a row of its own."
        return Refusal("number-unread", message, remedy)
    number = int(match[1])
    is_of_weeks = re.search(_WEEKS, fold(match[2] or heading)) is not None
    span = (number, "week") if is_of_weeks else None
    return Repeat(
        Rule("WEEKLY"),
        times=number,
        span=span,
        text=f"{heading.strip()}: {text}" if heading.strip() else text,
    )
