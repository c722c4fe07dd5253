"""The language that lines of text are in, by the names of months and weekdays beside their figures."""

import re
from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.reading.cells.datetokens import WORD
from nomarium.reading.cells.languages import lexicon_seen, weekday_lexicon
from nomarium.reading.cells.namelist import known_by_likely
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.textlines import BULLET, MARKS
from nomarium.sheets.sheet import Row, cell_text

_LOOKED_AT: Final = 500
"""Lines in which the words beside days are looked at."""
_IN_WORDS: Final = (
    r"\b\d{1,2}\.?\s+(?:de\s+|d['’])?(?P<month>[^\W\d]{3,})\b\.?(?P<year>\s+(?:de\s+)?\d{4}\b)?"
)
_BEFORE_DAY: Final = r"\b([^\W\d]{5,})[.,]*\s+(?:d[ea][nm]\s+|[lei]{1,2}l?\s+)?\d{1,2}\b"
_ENGLISH_LEADS: Final = frozenset("on from by to at in of for the no do so".split())
"""Words of English before a day that are weekdays elsewhere, `On 30/11`: alone they tell no language."""
_LEADS: Final = frozenset(
    "de du le les des el las au ab am um bis vom von van om op das alle dal del dalle il den der die het ore kl".split()
)
"""Words of other languages before a day or a time, `de 9h à 10h`, that are weekdays in rare ones."""
_ALSO_ARTICLES: Final = frozenset(("la", "al"))
"""Weekdays in Finnish and Basque that are articles elsewhere: alone they tell no language, either."""
_BY_COMMA: Final = re.compile(r"^\W*([^\W\d]{2}),\s*\d")
"""Such a word with a comma before its day, `Do, 19. Nov.`: a weekday all the same."""
_BEFORE_FIGURES: Final = re.compile(r"^\W*([^\W\d]{2})\.?\s+\d{1,2}\.\s?(?:\d{1,2}\.|[^\W\d]{3})")
"""Such a word before a day with full stops, `So 17.1.`: a weekday, where others stand there, too, `Mo 7.12.`."""
_WITHIN: Final = re.compile(r"(?<!\w)(M[oi]|D[io]|Fr|S[ao])\.?,?\s+\d{1,2}\.\s?(?:\d{1,2}\.|[^\W\d]{3})")
"""A German weekday before a day with full stops, wherever it stands: `Konzert: Do 5. Nov.`."""
_SHORT_BEFORE_DATE: Final = re.compile(
    r"(?<!\w)([^\W\d]{2,4})\.?,?\s+\d{1,2}\.?\s+[^\W\d]{3,}\.?,?\s+\d{4}\b"
)
"""What may be a weekday before a whole date, `sortie mer. 4 nov. 2026`."""
_ENGLISH_ONLY: Final = frozenset("tu we th su".split())
_LABEL: Final = re.compile(r"^\W*([^\W\d]{2,10})\.?:\s")
"""A word that begins a line, with a colon: `Di: Fisch`, of which two are weekdays."""
_BEHIND_DAY: Final = re.compile(r"\d\.?\s*\(([^\W\d]{2,10})\.?\)")
"""A weekday in brackets behind its day, `17.11. (Di.)`."""
_BEHIND_FIGURES: Final = re.compile(r"^\W*\d{1,2}\.\d{1,2}\.(?:\d{2,4})?\s+([^\W\d]{2})\.?\s+\S")
"""One of two letters behind a day in figures, `4.12. Fr  Nikolausfeier`, of which two are weekdays."""
_MONTH_OF_YEAR: Final = r"\b([^\W\d]{3,})\s+(20\d\d)\b"
_ANY_YEAR: Final = 2024
"""A year that has all days: only the language of the names is looked for."""


def lexicon_of_lines(lines: Sequence[Row], top: Top) -> Lexicon:
    """The names of months and weekdays, with those of the language that knows the words beside the days."""
    lexicon = top.lexicon
    if top.options.languages:
        return lexicon
    texts = [cell_text(row[0]) for _, row in lines[:_LOOKED_AT] if row]
    weekdays = (
        frozenset(word for text in texts for word in _before_days(text) if not lexicon.knows(word)) - _LEADS
    )
    beside = frozenset(fold(word) for text in texts for word in re.findall(WORD, text)) if weekdays else None
    tell = weekdays - (
        (_ENGLISH_LEADS | _ALSO_ARTICLES)
        - {fold(word) for form in (_BY_COMMA, _WITHIN) for text in texts for word in form.findall(text)}
    )
    leads = frozenset(fold(word) for text in texts for word in _BEFORE_FIGURES.findall(text))
    if len(leads) > 1 and leads & weekdays and leads.isdisjoint(_ENGLISH_ONLY):
        tell = weekdays = weekdays | leads
    known = weekday_lexicon(weekdays, 1, beside) if beside and tell else None
    lexicon = lexicon.extended(known) if known is not None else lexicon
    for form in (_LABEL, _BEHIND_FIGURES):
        labels = frozenset(fold(word) for text in texts for word in form.findall(text))
        if labels - lexicon.weekdays.keys() and len(labels) > 1:
            known = weekday_lexicon(labels, 2, labels)
            lexicon = lexicon.extended(known) if known is not None else lexicon
    dates = [date for text in texts for date in _in_words(text, lexicon)]
    seen = lexicon_seen(dates) if dates else None
    return lexicon.extended(seen) if seen is not None else lexicon


def _before_days(text: str) -> Iterator[str]:
    """The words, folded, that stand before a day: any that begins a line, and those that name something in a likely language."""
    plain = " ".join(MARKS.sub("", BULLET.sub("", text)).split())
    if (first := re.match(r"([^\W\d]{2,})[.,]*\s+\d", plain)) is not None:
        yield fold(first[1])
    if (behind := _BEHIND_DAY.search(plain)) is not None:
        yield fold(behind[1])
    yield from map(fold, _WITHIN.findall(plain))
    short = frozenset(map(fold, _SHORT_BEFORE_DATE.findall(plain))) - _LEADS - _ENGLISH_LEADS - _ALSO_ARTICLES
    yield from filter(known_by_likely, short)
    yield from filter(known_by_likely, (fold(match[1]) for match in re.finditer(_BEFORE_DAY, plain)))


def _in_words(text: str, lexicon: Lexicon) -> Iterator[str]:
    """The days with a word behind them that may be a month and is none so far; each with a year."""
    for match in re.finditer(_IN_WORDS, text):
        month = fold(match["month"])
        if month not in lexicon.months and (match["year"] or known_by_likely(month)):
            yield match[0] if match["year"] else f"{match[0]} {_ANY_YEAR}"
    for month, year in re.findall(_MONTH_OF_YEAR, text) if "20" in text else ():
        if fold(month) not in lexicon.months and known_by_likely(fold(month)):
            yield f"1 {month} {year}"  # Kalender Dezember 2026
