"""Which language the month and weekday names of a table are in, when they are not English."""

import re
from collections.abc import Iterable, Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.datetokens import WORD
from nomarium.reading.cells.languageheads import headed_in
from nomarium.reading.cells.moments import read_moment_text, tidy
from nomarium.reading.cells.namelist import languages_knowing
from nomarium.reading.cells.weeks import date_of_week
from nomarium.reading.cells.words import (
    ENGLISH,
    LIKELY_LANGUAGES,
    Lexicon,
    fold,
    language_name,
    lexicon_of,
)

_SAFE = frozenset(("fr", "de", "es", "nl", "it", "pt", "sv", "da", "nb", "fi"))
"""Languages none of whose month names is another month in any other language of CLDR (as Polish and
Croatian listopad is): when one of them reads everything, no other needs to be asked."""


_MOST_TEXTS = 50
_LONGEST = 60
"""Longer texts are no dates."""
_DATE_IN_WORDS = (
    r".*\b\d{1,2}(?:\.|º|er|e)?\s+(?:\w{1,3}\s+)?[^\W\d_]\S{2,}(?:\s+\S+)?,?\s+(?:\w{1,3}\s+)?\d{4}\b.*"
)
"""A day's figure, a word that may be a month, a year: `7 września 2026`, `7. syyskuuta 2026`."""


_DATE_ALONE = (
    r"\W*[^\W\d_]+\.?,?\s+(?:\w{2,3}\s+)?(?:\d{1,2}[./-]\d{1,2}(?:[./-](?:\d{4}|\d{2})?)?|"
    r"\d{1,2}(?:\.|º|er|e)?\s+(?:\w{1,3}\s+)?[^\W\d_]{3,}\.?(?:\s+(?:\w{1,3}\s+)?\d{4})?)"
)
"""A word that may be a weekday, a day's figure and its month, with a year or without, and no more: `Di 06.10.`, `mardi 8 septembre`."""


_KNOWN_TO_SEVERAL: Final = frozenset(("di", "do", "ma"))
"""Weekdays that are others in another likely language: `di` in German and French, `do` in German and Spanish, `ma` in Dutch and both."""
_OF_TWO_LETTERS: Final = frozenset(
    "mo di mi do fr sa so lu ma me je ve lo ju vi zo wo vr za gi to ti on ke pe".split()
)
"""Weekdays of two letters in the likely languages."""
_LONGEST_WITH_SHORT: Final = 24
"""Characters of a date with such a weekday."""
_LIKELIEST: Final = 10
"""So many of the likely languages share them."""
_SHARED: Final = 2
"""Characters of those."""
_AND_DAY: Final = r"(?i)(?<=\d)(?:\.?\s(?:and|et|und|y|e|en|och|og)\s(?=(?:[^\W\d_]+\.?,?\s)?\d)|,\s(?=\d{1,2}\.?\s(?:de\s)?[^\W\d_]{3,}\.?\s(?:de\s)?\d{4}))"
"""Before the last of several days, whose month is that of all."""
_DOTTED: Final = r"\b\d{1,2}\.\s?\d{1,2}\."
_SURE_OF_DATES: Final = 3
"""Dates with their weekdays that show a language, whatever else looks like one: `Segel ab 10.30`."""
_MOST_OF_DATE = 6
"""Words of a date, with its weekday."""
_ENGLISH_WORDS = frozenset("to on in at of or an by is we the and for from with".split())
"""Words beside English dates that are weekdays or months elsewhere, and show no other language: `21 to 23 October`."""


class LanguageFound(NamedTuple):
    """The names to read with, and how they were found."""

    lexicon: Lexicon
    evidence: str = ""
    rivals: tuple[str, ...] = ()
    """Languages in which the same texts are other dates: nothing may be read until one is chosen."""
    code: str = ""
    """That of the likeliest."""


def asked_lexicon(codes: Sequence[str]) -> Lexicon:
    """English and the languages asked for, theirs first. Raises UsageError for an unknown code."""
    lexicon: Lexicon | None = None
    for code in codes:
        other = lexicon_of(code, with_short=True)
        if other is None:
            message = f"There is no language with the code “{code}”."
            raise UsageError(Problem("language-unknown", message, "Use a code such as fr, de or pt-BR."))
        lexicon = lexicon.extended(other) if lexicon else other
    return lexicon.extended(ENGLISH) if lexicon else ENGLISH


def _days_in(text: str, lexicon: Lexicon) -> tuple[Day | None, ...] | None:
    """The days that a whole text is in a language, or None when it is none."""
    moment = read_moment_text(text, "date", lexicon)
    if isinstance(moment, Refusal) or moment.first is None:
        return None
    return moment.first, moment.last


def _fits(days: tuple[object, ...], texts: Sequence[str]) -> int:
    """How many of the first days of texts fall on the weekdays that they name; figures with full stops are day first."""
    return sum(
        any(
            (date := one.date()) is not None and date.weekday() == day.weekday
            for one in day.readings[: 1 if re.search(_DOTTED, text) else None]
        )
        for found, text in zip(days, texts, strict=True)
        if isinstance(found, tuple) and isinstance(day := found[0], Day) and day.weekday is not None
    )


@lru_cache(maxsize=256)
def month_of_word(word: str) -> int | None:
    """The month, from 1 on, that a word (folded) is in whatever language knows it; None where it is none, or another one elsewhere."""
    codes = languages_knowing((word,))
    lexicons = [lexicon_of(code) for code in codes if code in _SAFE] or [lexicon_of(code) for code in codes]
    months = {one.months[word] for one in lexicons if one is not None and word in one.months}
    return months.pop() if len(months) == 1 else None


@lru_cache(maxsize=64)
def language_of_months(words: frozenset[str]) -> Lexicon | None:
    """The names, the shortest weekdays with them, of the likeliest language in which those words (folded) are all months."""
    for code in LIKELY_LANGUAGES:
        lexicon = lexicon_of(code, with_short=True)
        if lexicon is not None and words <= lexicon.months.keys():
            return lexicon
    return None


def find_language(texts: Sequence[str], around: Iterable[str] = ()) -> LanguageFound | None:
    """The language in which the most of these texts are dates; None when there is none at all.

    `texts` are cells that English cannot read; what stands `around` them tells languages apart that share short names.
    """
    plain = [tidy(re.split(_AND_DAY, text)[-1]) for text in texts if any(map(str.isdigit, text))]
    words: set[str] = set()
    for text in plain:
        listed = [fold(word) for word in re.findall(WORD, text)]
        words |= {*listed, *(a + b for a, b in pairwise(listed))}  # names of two words, such as Meán Fómhair
    words = {word for word in words if not ENGLISH.knows(word) and word not in _ENGLISH_WORDS}
    if not words:
        return None
    best, most = _best_of(words, plain, with_short=False)
    is_short = most < len(plain)
    if is_short:
        shorter, more = _best_of(words, plain, with_short=True)
        best, is_short = (shorter, True) if more > most else (best, False)
    if not best:
        return None
    short = frozenset[str]()
    if not is_short and (rivals := _sharing(words, [*plain, *around])):
        shorter, more = _best_of(words & _KNOWN_TO_SEVERAL, plain, with_short=True)
        if more == most:  # Sa 10.10., Di 11.10.: a weekend in French
            short = frozenset(rivals) & shorter.keys() - best.keys()
            best |= {code: days for code, days in shorter.items() if code in short}
    if len(best) > 1:
        fits = {code: _fits(days, plain) for code, days in best.items()}
        most_fits = max(fits.values())
        best = {code: days for code, days in best.items() if fits[code] == most_fits}
    if len({*best.values()}) > 1 and (headed := headed_in(best, around)):
        best = {headed: best[headed]}
    code, meaning = next(iter(best.items()))
    if code not in LIKELY_LANGUAGES and _are_weekdays_of_a_likely_one(words):
        return None  # Mer 4: a Wednesday in Italian, and no month of Lower Sorbian
    others = tuple(language_name(other) for other, days in best.items() if days != meaning)
    language = lexicon_of(code, is_short or code in short)
    assert language is not None
    evidence = f"names in {language_name(code)}"
    return LanguageFound(
        ENGLISH.extended(language), evidence, (language_name(code), *others) if others else (), code
    )


def _are_weekdays_of_a_likely_one(words: set[str]) -> bool:
    """Whether words (folded) are all weekdays in a language that is likelier than the one in which they are months."""
    likely = (lexicon_of(code) for code in LIKELY_LANGUAGES[:_LIKELIEST])
    return any(words <= lexicon.weekdays.keys() for lexicon in likely if lexicon is not None)


def _sharing(words: set[str], texts: Sequence[str]) -> tuple[str, ...]:
    """The languages between which short weekdays of dates do not tell, among those words; none where they do."""
    if words.isdisjoint(_KNOWN_TO_SEVERAL):
        return ()
    dates = [text for text in texts if len(text) <= _LONGEST_WITH_SHORT and any(map(str.isdigit, text))]
    short = {fold(word) for text in dates for word in re.findall(WORD, text) if len(word) == _SHARED}
    return rivals_of_weekdays(_OF_TWO_LETTERS & short)


def _best_of(
    words: set[str], texts: Sequence[str], with_short: bool
) -> tuple[dict[str, tuple[object, ...]], int]:
    """The languages in which the most of these texts are dates, each with what they are in it; and how many these are."""
    best: dict[str, tuple[object, ...]] = {}
    most = 0
    for code in languages_knowing(words):
        language = lexicon_of(code, with_short)
        assert language is not None
        lexicon = ENGLISH.extended(language)
        days = tuple(_days_in(text, lexicon) for text in texts)
        readable = sum(one is not None for one in days)
        if readable > most:
            best, most = {}, readable
        if readable and readable == most:
            best[code] = days
        if readable == len(texts) and code in _SAFE and not with_short:
            break
    return best, most


def weekday_lexicon(
    words: frozenset[str], least: int = 0, beside: frozenset[str] = frozenset()
) -> Lexicon | None:
    """The same as `_weekdays_in`, by the usual names; by the shortest ones where these are none of them. Names that several
    languages share are read in the one in which the words `beside` them head a table; None when they do in none."""
    found = _weekdays_in(words, least, beside, with_short=False)
    if found is None or (least and _known_of(words, found) < len(words)):
        shorter = _weekdays_in(words, least, beside, with_short=True)  # Lu, Ma, Me, Je, Ve
        if shorter is not None and (found is None or _known_of(words, shorter) > _known_of(words, found)):
            return shorter
        if found is None:
            return None
    if least or not rivals_of_weekdays(words):
        return found
    headed = headed_in(rivals_of_weekdays(words), beside)
    language = lexicon_of(headed, with_short=True) if headed else None
    return ENGLISH.extended(language) if language is not None else None


def rivals_of_weekdays(words: frozenset[str]) -> tuple[str, ...]:
    """The codes of likely languages in all of which these words (folded) are weekdays, other ones in each; none where all mean the same."""
    if words.isdisjoint(_KNOWN_TO_SEVERAL):
        return ()
    meant: dict[tuple[int, ...], str] = {}
    for code in LIKELY_LANGUAGES[:_LIKELIEST]:
        lexicon = lexicon_of(code, with_short=True)
        if lexicon is not None and words <= lexicon.weekdays.keys():
            meant.setdefault(tuple(lexicon.weekdays[word] for word in sorted(words)), code)
    return tuple(meant.values()) if len(meant) > 1 else ()


def _known_of(words: frozenset[str], lexicon: Lexicon) -> int:
    return len(words & lexicon.weekdays.keys())


def _weekdays_in(
    words: frozenset[str], least: int, beside: frozenset[str], with_short: bool
) -> Lexicon | None:
    """English and the language whose weekdays those words (folded) are, all or at `least` so many of them; None when
    there is none, or when two of the likely ones mean other weekdays by them. Of those that mean the same it is the one
    that knows most of the words `beside` them."""
    found: list[tuple[Lexicon, frozenset[tuple[str, int]]]] = []
    for code in languages_knowing((*words, *map(_one_of, words))):
        if found and code not in LIKELY_LANGUAGES:
            break
        lexicon = lexicon_of(code, with_short)
        assert lexicon is not None
        days = {word: lexicon.weekdays.get(word, lexicon.weekdays.get(_one_of(word))) for word in words}
        meant = {(word, day) for word, day in days.items() if day is not None}
        if len(meant) >= (least or len(words)):
            found.append((lexicon, frozenset(meant)))
    most = max(
        (len(meant) for _, meant in found), default=0
    )  # Di, Mi and Do: in Dutch two of them are weekdays
    found = [one for one in found if len(one[1]) == most]
    if len({meant for _, meant in found}) != 1:
        return None
    best = max(
        found, key=lambda one: sum(map(one[0].knows, beside))
    )  # lørdag 5. desember: Norwegian, no Danish
    return ENGLISH.extended(best[0])


def _one_of(word: str) -> str:
    """The weekday of which a word (folded) may be the plural: `montags`, `sabados`."""
    return word.removesuffix("s") if len(word) > _MOST_OF_DATE else word


def _is_english(text: str) -> bool:
    """Whether a text is a line of more than a date that names a month in English."""
    words = [fold(word).strip(".,;:()") for word in text.split()]
    return len(words) > _MOST_OF_DATE and any(word in ENGLISH.months for word in words)


def lexicon_seen(cells: Iterable[str]) -> Lexicon | None:
    """English and the language of those texts that look like dates with a month's name; else of those that are dates with a weekday's
    name and no more, where it reads them all; or None."""
    texts = [text for text in cells if len(text) < _LONGEST]
    said = [date_of_week(text) or text for text in texts]
    dates = [text for text in said if re.fullmatch(_DATE_IN_WORDS, text) and not _is_english(text)]
    found = find_language(dates[:_MOST_TEXTS], texts) if dates else None
    if found is not None:
        return found.lexicon
    alone = [text for text in dict.fromkeys(said) if re.fullmatch(_DATE_ALONE, text)][:_MOST_TEXTS]
    found = find_language(alone, texts) if len(alone) > 1 else None
    if found is None or found.rivals:
        return None
    others = [text for text in alone if _days_in(tidy(text), found.lexicon) is None]
    are_few = 2 * len(others) < len(alone) and len(alone) - len(others) >= _SURE_OF_DATES
    is_no_date = all(not found.lexicon.knows(fold(re.findall(WORD, text)[0])) for text in others)
    return found.lexicon if not others or (are_few and is_no_date) else None
