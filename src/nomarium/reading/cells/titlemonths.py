"""Titles that are a month and its year and nothing else, in the forms and the languages in which drawings are headed."""

import re
from typing import Final

from nomarium.reading.cells.words import ENGLISH, Lexicon, fold

_FORMS: Final = (
    r"(?P<word>[^\W\d_]{3,})(?:\.?,?\s+(?:de\s+|del\s+)?(?P<year>(?:19|20|21)\d\d)|\.?\s?['’]\s?(?P<of_century>\d\d)|-(?P<of_hundred>\d\d))",
    r"(?P<year>(?:19|20|21)\d\d)[\s,]+(?P<word>[^\W\d_]{3,})\.?",
    r"(?P<month>0?[1-9]|1[0-2])\s?[/.-]\s?(?P<year>(?:19|20|21)\d\d)",
    r"(?P<year>(?:19|20|21)\d\d)\s?[/.-]\s?(?P<month>0?[1-9]|1[0-2])",
)
"""`Octobre 2026`, `Oct '26`, `Oct-26`; `2026 October`; `10/2026`; `2026-10`."""
_LONGEST: Final = 30


def month_and_year(text: str, lexicon: Lexicon = ENGLISH) -> tuple[int, int] | None:
    """(year, month) of a text that is a month and its year, whatever language it is in; None for any other.

    >>> month_and_year("Oct '26"), month_and_year("2026-10"), month_and_year("octobre 2026"), month_and_year("Oct 26")
    ((2026, 10), (2026, 10), (2026, 10), None)
    """
    text = text.strip()
    match = (
        next(filter(None, (re.fullmatch(form, text) for form in _FORMS)), None)
        if len(text) <= _LONGEST
        else None
    )
    if match is None:
        return None
    said = match.groupdict()
    year = said["year"] or f"20{said.get('of_century') or said.get('of_hundred')}"
    month = int(said["month"]) if said.get("month") else _month(fold(said["word"]), lexicon)
    return None if month is None else (int(year), month)


def _month(word: str, lexicon: Lexicon) -> int | None:
    if word in lexicon.months:
        return lexicon.months[word]
    from nomarium.reading.cells.languages import month_of_word  # reads the list of all names

    return month_of_word(word)
