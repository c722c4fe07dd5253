"""Days that share what stands around them, each beside its own weekday: `Mon-Fri 7-11 Sept`, `Sat/Sun 12/13 Sept`, `26/27 September`."""

import re
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold

_TH: Final = r"(?:st|nd|rd|th)?"
_AND: Final = r"(?:\s?[/&+]\s?|\s+and\s+)"
_WEEKDAYS_OF_RANGE: Final = rf"\b(?P<a>[^\W\d_]{{2,9}})\.?\s?(?:[-–—]|to)\s?(?P<b>[^\W\d_]{{2,9}})\.?,?\s+(?P<first>\d{{1,2}}{_TH})\s?(?:[-–—/]|to)\s?(?P<last>\d{{1,2}}{_TH})(?=\.?\s*[^\W\d_]{{3}})"
_DAYS_BY_SLASH: Final = rf"(?<![\d/.])(?<!\bw/[bce] )(?:\b(?P<weekdays>[^\W\d_]{{2,9}}\.?(?:{_AND}[^\W\d_]{{2,9}}\.?){{1,2}}),?\s+)?(?P<days>\d{{1,2}}{_TH}(?:{_AND}\d{{1,2}}{_TH}){{1,2}})(?=\s+(?P<month>[^\W\d_]{{3,}}))"
_WHOLE_DAYS_BY_SLASH: Final = (
    rf"(?<![\d/.])(?:\b(?P<weekday>[^\W\d_]{{2,9}})\.?,?\s+)?(?P<day>\d{{1,2}}{_TH})(?:\s+(?P<own>[^\W\d_]{{3,9}})\.?)?\s?/\s?"
    rf"(?=(?:(?P<other>[^\W\d_]{{2,9}})\.?,?\s+)?\d{{1,2}}{_TH}\s+(?P<month>[^\W\d_]{{3,}}))"
)


def with_both_weekdays(text: str, lexicon: Lexicon) -> str:
    """A text with the weekdays of a range each beside its day.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> with_both_weekdays("Mon-Fri 16-20 Nov", ENGLISH)
    'Mon 16 – Fri 20 Nov'
    """

    def beside(match: re.Match[str]) -> str:
        are_known = fold(match["a"]) in lexicon.weekdays and fold(match["b"]) in lexicon.weekdays
        return f"{match['a']} {match['first']} – {match['b']} {match['last']}" if are_known else match[0]

    return re.sub(_WEEKDAYS_OF_RANGE, beside, text)


def with_days_apart(text: str, lexicon: Lexicon) -> str:
    """A text whose days are parted by a slash, or stand behind as many weekdays, with *and* between them, each beside its own.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> with_days_apart("Sat/Sun 12/13 Dec", ENGLISH), with_days_apart("Sat 3rd/Sun 4th Oct", ENGLISH)
    ('Sat 12 and Sun 13 Dec', 'Sat 3rd and Sun 4th Oct')
    >>> with_days_apart("9/10 boats", ENGLISH)
    '9/10 boats'
    """

    def apart(match: re.Match[str]) -> str:
        days = re.split(_AND, match["days"])
        if "/" not in match[0] and not match["weekdays"]:
            return match[0]
        numbers = [int(re.sub(r"\D", "", day)) for day in days]
        are_days = fold(match["month"]) in lexicon.months and numbers == sorted(set(numbers))
        if not are_days or numbers[-1] > 31:
            return match[0]
        weekdays = [name.strip(". ") for name in re.split(_AND, match["weekdays"] or "") if name]
        if not all(fold(name) in lexicon.weekdays for name in weekdays):
            return f"{match['weekdays']} {' and '.join(days)}"
        if len(weekdays) == len(days):
            days = [f"{weekday} {day}" for weekday, day in zip(weekdays, days, strict=True)]
        return " and ".join(days)

    def whole_apart(match: re.Match[str]) -> str:
        names = [name for name in (match["weekday"], match["other"]) if name]
        months = [name for name in (match["own"], match["month"]) if name]
        is_known = all(fold(name) in lexicon.weekdays for name in names)
        is_known = is_known and all(fold(name) in lexicon.months for name in months)
        return f"{match[0].rstrip('/ ')} and " if is_known and (names or match["own"]) else match[0]

    if "/" not in text and "&" not in text and "+" not in text and " and " not in text:
        return text
    return re.sub(_WHOLE_DAYS_BY_SLASH, whole_apart, re.sub(_DAYS_BY_SLASH, apart, text))
