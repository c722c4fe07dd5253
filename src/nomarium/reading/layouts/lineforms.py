"""Lines of text in one form: hours with colons, days beside their weekdays and before their months, plain signs."""

import re
from typing import Final

from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.layouts.linetimes import french_hours, with_clocks
from nomarium.reading.rows.several import with_each_month

_DAYS_BEHIND_MONTH: Final = re.compile(
    r"\b(?P<month>[^\W\d_]{3,}\.?)\s+(?P<days>\d{1,2}(?:\s?,\s?\d{1,2})*(?:,?\s?(?:,|&|and)\s?\d{1,2}))(?=\s*[-–—:]\s|\s*[@(;]|,?\s+(?:at|from)\s|,\s*\d{1,2}(?:[.:]\d\d)?\s?(?:[-–]\s?\d{1,2}(?:[.:]\d\d)?\s?)?[ap]\.?m\b|\s*$)"
)
_WITH_H: Final = frozenset(("fr", "pt", "es", "it", "ca", "ro"))
_ISO: Final = r"\d{4}-\d\d-\d\d(?:[T ]\d\d:\d\d(?::\d\d)?)?"
_LEADERS: Final = re.compile(r"(?<=\S)\s*(?:\.{4,}|(?:\.\s){3,}\.?|_{4,}|…{2,})\s*(?=\S)")
"""Dots that lead the eye from a day to what is on: `8 ...... First day`."""
_THREE_DOTS: Final = re.compile(
    r"^(\W*(?:[^\W\d_/]+\.?,?\s+|w/[bce]\s+)?\d{1,2}(?:\s+[^\W\d_]{3,9})?)\.{3}\s?(?=[^\W\d_])"
)
"""The same, and fewer, behind a day that begins the line."""

_ORDINALS: Final = (
    "first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth "
    "seventeenth eighteenth nineteenth twentieth twenty-first twenty-second twenty-third twenty-fourth twenty-fifth twenty-sixth "
    "twenty-seventh twenty-eighth twenty-ninth thirtieth thirty-first"
).split()
_DAY_IN_WORDS: Final = re.compile(
    rf"(?i)\b(?:the\s+)?(?P<day>{'|'.join(word.replace('-', '[- ]') for word in reversed(_ORDINALS))})\s+(?:day\s+)?of\s+(?P<month>[^\W\d_]{{3,}})(?=[\s,.:;)]|$)"
)
"""A day in words, `the twenty-fifth of June`."""


def with_day_in_figures(text: str) -> str:
    """A line whose day stands in words with it in figures, as invitations write it.

    >>> with_day_in_figures("on Friday, the twenty-fifth of June 2027"), with_day_in_figures("the first of many")
    ('on Friday, 25 June 2027', 'the first of many')
    """

    def said(match: re.Match[str]) -> str:
        if fold(match["month"]) not in ENGLISH.months:
            return match[0]
        return f"{_ORDINALS.index(match['day'].casefold().replace(' ', '-')) + 1} {match['month']}"

    return _DAY_IN_WORDS.sub(said, text) if " of " in text else text


def with_plain_signs(text: str) -> str:
    """A line with spaces in the place of dots that lead the eye, and a dash where Dutch writes `t/m` and an interval of
    ISO 8601 has a slash."""
    if ".." in text or "…" in text or "__" in text or ". ." in text:
        text = _THREE_DOTS.sub(r"\1   ", _LEADERS.sub("   ", text))
    text = with_each_month(text)
    if "/" not in text:
        return text
    text = re.sub(rf"({_ISO})/(?={_ISO})", r"\1 – ", text)
    return re.sub(r"(?i)\bt/m\b", "–", text)


def with_month_behind(text: str, lexicon: Lexicon) -> str:
    """A text that lists days behind their month, `Nov 16, 18, 20 – Safety course`, with the month behind the days."""

    def behind(match: re.Match[str]) -> str:
        days = [int(day) for day in re.findall(r"\d+", match["days"])]
        are_days = (
            fold(match["month"]).strip(".") in lexicon.months and days == sorted(set(days)) and days[-1] <= 31
        )
        *first, last = map(str, days)
        return f"{', '.join(first)} and {last} {match['month']}" if are_days else match[0]

    return _DAYS_BEHIND_MONTH.sub(behind, text)


def clocked(text: str, lexicon: Lexicon) -> str:
    """A text with colons in its hours, those with an h, `18h30`, where it may be in a language that writes them so."""
    text = with_clocks(text)
    return with_clocks(french_hours(text)) if not _WITH_H.isdisjoint(lexicon.languages) else text
