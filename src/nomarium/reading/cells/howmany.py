"""A cell that counts the dates of a row: `6` under `No. of classes`, `6 weeks`."""

import re

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.cells.words import fold

_WEEKS = r"\b(?:weeks?|wks?|semaines?|wochen?|semanas?|weken|settimane)\b"


def read_count(text: str, heading: str) -> Repeat | Refusal:
    """Every week so many times, from 1 on. Its `span` is set where the cell or its heading counts weeks, which a repeat of
    another step or of several weekdays fills with more dates or fewer."""
    match = re.fullmatch(r"(\d{1,5})(?:\s?([^\W\d_]{2,}))?", text)
    if match is None or int(match[1]) == 0:
        message = f"“{text}” does not say how many times the row takes place."
        remedy = "Write a figure, such as 6; or give each date a row of its own."
        return Refusal("number-unread", message, remedy)
    number = int(match[1])
    is_of_weeks = re.search(_WEEKS, fold(match[2] or heading)) is not None
    span = (number, "week") if is_of_weeks else None
    return Repeat(Rule("WEEKLY"), times=number, span=span, text=f"{number} weeks")
