"""Days from which, or until which, something is: one day is said, and others are meant."""

import re
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold

_FROM: Final = (
    r"as of|as from|(?:with )?effect from|w\.?e\.?f\.?|effective(?: from| on)?|from|starting(?: on| from)?|beginning(?: on)?|commencing(?: on)?|since|"
    r"ab(?: dem)?|seit(?: dem)?|à partir (?:du|de)|a partir (?:du|del?|do)|dès le|depuis le|desde(?: el)?|vanaf|sinds|met ingang van|a partire dal?|dal|från(?: och med)?|fr\.o\.m\.?|od"
)
_UNTIL: Final = (
    r"until|till|up to|up until|through|thru|before|after|prior to|bis(?: zum)?|vor dem|nach dem|jusqu['’]au|avant le|après le|hasta(?: el)?|"
    r"antes del?|tot(?: en met)?|voor|fino al|prima del|do|till och med|t\.o\.m\.?"
)
_OPEN_BEFORE: Final = rf"(?i)(?<![^\W\d_])(?:{_FROM}|{_UNTIL})(?: the)?\s*:?\s*$"
_TIMES: Final = r"(?i)\d{1,2}(?:[:.h]\d\d)?(?:\s*(?:[ap]\.?m\.?)?\s*(?:[-–—]|to|until)\s*\d{1,2}(?:[:.h]\d\d)?)?\s?(?:[ap]\.?m\.?|uhr|uur|h(?:rs?|eures?)?|o['’]clock)(?![^\W\d_])|\d{1,2}:\d\d(?:\s*[-–—]\s*\d{1,2}:\d\d)?"
_NO_TIME: Final = "\0"
"""Where a time stood."""
_FIGURES_ON: Final = r"\d.*"
_NAME: Final = r"([^\W\d_]{2,11})[.,]*\s*$"
"""The last word before the figures, of a weekday or a month perhaps."""
_OPEN_BEHIND: Final = r"(?i)[\s,(]*(?:onwards?|and after|(?:and )?thereafter|vanaf|en adelante)\b"
_FIRST_WORDS: Final = frozenset(
    "as with effect w.e.f. wef w.e.f effective from starting beginning commencing since ab seit à a dès depuis desde vanaf sinds met dal från fr.o.m. fr.o.m od "
    "until till up through thru before after prior bis vor nach jusqu'au jusqu’au avant après hasta antes tot voor fino prima do t.o.m. t.o.m "
    "onward onwards and thereafter en".split()
)
"""The words with which those that say *from* or *until* begin."""
_EDGES: Final = " ,;:–—-|"


def may_be_open(text: str) -> bool:
    """Whether some word of a text could say *from* or *until*: most have none, which is quickly told."""
    return not _FIRST_WORDS.isdisjoint(word.strip("(,;:)") for word in text.casefold().split())


def without_lead(text: str) -> str:
    """A text without the words before a day that say *from* or *until* at its end."""
    return re.sub(_OPEN_BEFORE, "", text)


def is_open_day(before: str, date: str, behind: str, lexicon: Lexicon) -> bool:
    """Whether a date with what stands around it is one day from which, or until which, something is. A time may stand before it,
    `from 3pm on 12 January`, and is no day."""
    day = re.sub(_TIMES, _NO_TIME, date)
    if has_several_days(day.strip(_EDGES)):
        return False
    is_time_first = re.match(_TIMES, re.sub(r"^\D*", "", date)) is not None
    own = re.sub(_FIGURES_ON, "", day)
    leads = own[own.find(_NO_TIME) + 1 :] if is_time_first else f"{before}{own}"
    while (name := re.search(_NAME, leads)) is not None and lexicon.knows(fold(name[1])):
        leads = leads[: name.start()]
    return re.search(_OPEN_BEFORE, leads) is not None or re.match(_OPEN_BEHIND, behind) is not None


def has_several_days(date: str) -> bool:
    """Whether a date, as it is written, is a range or a list of days.

    >>> has_several_days("2026-11-09"), has_several_days("November 9, 2026"), has_several_days("9–11 November")
    (False, False, True)
    """
    whole = re.sub(r"\d+-\d+-\d+", "0", re.sub(r",\s*(?:19|20)\d\d\b", "", date))
    return (
        re.search(r"\d.*(?:[-–—]|\b(?:to|until|till|au|al|bis|tot|til|do|a)\b|[,&]|\band\b).*\d", whole)
        is not None
    )
