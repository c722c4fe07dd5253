"""Texts that speak of days and are no dates that can be read: `First week of October`, `the twenty-eighth of November`."""

import re
from itertools import pairwise
from typing import Final

from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.words import Lexicon, fold

_VAGUE: Final = re.compile(
    r"(?i)(?:early|mid|late|(?:the\s+)?(?:end|beginning|start|middle)\s+of|(?:the\s+)?(?:first|second|third|last|1st|2nd|3rd|4th)\s+(?:w/c|(?:week|half|weekend|few days|(?:mon|tue|wed|thu|fri|sat|sun)\w*\.?)\s+(?:of|in)))[\s-]+(?P<month>[^\W\d]+)\b"
)
"""A part of a month, which is no date: `First week of October`, `Mid-November`."""
_DAY_IN_WORDS: Final = re.compile(
    r"(?i)\b(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth|\w+teenth|twentieth|thirtieth|(?:twenty|thirty)[- ]\w+)\s+(?:day\s+)?of\s+(?P<month>[^\W\d]{3,})"
)
"""A day in words: `the twenty-eighth of November`."""
_OPEN_MONTH: Final = re.compile(r"(?i)(?P<month>[^\W\d]{3,})\s*\((?:date\s+)?tb[acd]\)")
"""A month whose day is to come: `October (tbc)`."""
_NUMBERS: Final = re.compile(r"\d{1,2}(?:st|nd|rd|th)?(?:[-–/&+]\d{1,2}(?:st|nd|rd|th)?)*")
"""Days of a month, `24/25`."""


def is_like_a_date(text: str, lexicon: Lexicon) -> bool:
    """Whether a number stands beside the name of a month, or one such as `14th` behind a weekday."""
    if keeps_books(text):
        return False
    vague = _VAGUE.match(text.strip())
    if (
        vague is not None
        and fold(vague["month"]) in lexicon.months
        and re.search(r"[:–—-]\s*\w", text[vague.end() :])
    ):
        return True
    in_words = _DAY_IN_WORDS.search(text)
    open_month = _OPEN_MONTH.match(text.strip())
    if any(one is not None and fold(one["month"]) in lexicon.months for one in (in_words, open_month)):
        return True
    words = [fold(word).strip(".,;:()") for word in text.split()]
    return any(
        (a in lexicon.months and _NUMBERS.fullmatch(b))
        or (b in lexicon.months and _NUMBERS.fullmatch(a))
        or (a in lexicon.weekdays and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)", b))
        for a, b in pairwise(words)
    )
