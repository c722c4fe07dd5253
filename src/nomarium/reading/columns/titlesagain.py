"""Titles that say that what they name is held again, `Sailing (every Thursday)`, and stand on one day."""

import re
from collections import Counter
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter
from nomarium.reading.cells.oftenwords import WEEKDAY
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.sheets.sheet import Sheet, cell_text

AGAIN: Final = "“{}” says that it is held again, and it stands on one day."
_OF_REPEATS: Final = ("repeat", "repeat-times", "repeat-until", "day", "week")
_LONGEST_TITLE: Final = 200
_WORDS: Final = ("every ", "each ", "daily", "days")
_AGAIN: Final = (
    rf"(?i)\b(?:(?:every|each)\s+(?:(?:other|second|2nd|third|3rd|alternate)\s+)?(?:day|week|month|fortnight|weekday|school day|(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?s?)\b"
    rf"|daily(?=\s*(?:$|[)\],;]|until|till|from|at\b|\d))|(?<=[(,–-]\s){WEEKDAY}s\b|(?<=\(){WEEKDAY}s\b)"
)
"""Words by which a title says that what it names is held again."""


def says_again(title: str) -> str:
    """The words by which a title says that what it names is held again, `every Thursday`; nothing where it says no such thing."""
    folded = title.casefold()
    if len(title) > _LONGEST_TITLE or not any(word in folded for word in _WORDS):
        return ""
    match = re.search(_AGAIN, title)
    return match[0] if match is not None else ""


def titles_held_again(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> list[Problem]:
    """A problem where a title says that it is held again, and stands on one day: it would be held once. What stands on several is."""
    title = next((c for c in columns if c.field == "summary" and c.how != "asked"), None)
    date = next((c for c in columns if c.field in ("date", "when", "start") and c.has_days), None)
    if title is None or date is None or any(c.field in _OF_REPEATS and c.filled for c in columns):
        return []
    said = "\n".join({cell for row in rows if title.at < len(row) and isinstance(cell := row[title.at], str)})
    if not any(word in said.casefold() for word in _WORDS):
        return []
    texts = Counter(
        cell_text(row[title.at])
        for row in rows
        if max(title.at, date.at) < len(row) and looks_like_date(row[date.at], lexicon)
    )
    once = next((text for text, often in texts.items() if often == 1 and says_again(text)), None)
    if once is None:
        return []
    name = title.heading or column_letter(title.at + sheet.first_column)
    remedy = f'Say it in a column headed Repeat (“every Tuesday until 18 June”), or give each date a row; to keep the titles as they are: --column "{name}=summary".'
    return [Problem("title-again", AGAIN.format(once), remedy, sheet.place(None, title.at, title.heading))]
