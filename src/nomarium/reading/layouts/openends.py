"""Lines of text that say from when, or until when, something is, by one day: `From 18 January the library closes at 5pm`."""

import re
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.linetimes import EDGES
from nomarium.reading.layouts.textlines import TextLine, has_several_days

_FROM: Final = (
    r"as of|as from|(?:with )?effect from|w\.?e\.?f\.?|effective(?: from| on)?|from|starting(?: on| from)?|beginning(?: on)?|commencing(?: on)?|since|"
    r"ab(?: dem)?|seit(?: dem)?|à partir (?:du|de)|a partir (?:du|del?|do)|dès le|depuis le|desde(?: el)?|vanaf|sinds|met ingang van|a partire dal?|dal|från(?: och med)?|fr\.o\.m\.?|od"
)
_UNTIL: Final = (
    r"until|till|up to|up until|through|thru|before|after|prior to|bis(?: zum)?|vor dem|nach dem|jusqu['’]au|avant le|après le|hasta(?: el)?|"
    r"antes del?|tot(?: en met)?|voor|fino al|prima del|do|till och med|t\.o\.m\.?"
)
_OPEN_BEFORE: Final = re.compile(rf"(?i)(?<![^\W\d_])(?:{_FROM}|{_UNTIL})(?: the)?\s*:?\s*$")
_TIMES: Final = re.compile(
    r"(?i)\d{1,2}(?:[:.h]\d\d)?(?:\s*(?:[ap]\.?m\.?)?\s*(?:[-–—]|to|until)\s*\d{1,2}(?:[:.h]\d\d)?)?\s?(?:[ap]\.?m\.?|uhr|uur|h(?:rs?|eures?)?|o['’]clock)(?![^\W\d_])|\d{1,2}:\d\d(?:\s*[-–—]\s*\d{1,2}:\d\d)?"
)
_NO_TIME: Final = "\0"
"""Where a time stood."""
_FIGURES_ON: Final = r"\d.*"
_NAME: Final = re.compile(r"([^\W\d_]{2,11})[.,]*\s*$")
"""The last word before the figures, of a weekday or a month perhaps."""
_OPEN_BEHIND: Final = re.compile(r"(?i)[\s,(]*(?:onwards?|and after|(?:and )?thereafter|vanaf|en adelante)\b")
_DUE: Final = re.compile(
    r"(?i)\b(?:deadline|due|closing|closes?|frist|fällig|abgabe|anmeld\w*|délai|plazo|entr(?:y|ies)|applications?|apply|bookings?|book|rsvp|regist\w+|sign[- ]?up|orders?|tickets?|submi\w+|repl(?:y|ies)|return|vot(?:e|ing)|nominat\w+|inscri\w+|pay\w*|before)\b"
)
"""Words of a thing that is due by a time of a day: `Entries until 12 January, 5pm`."""
_FIRST_TO_LAST: Final = re.compile(
    r"(?i)\d\W*(?:[ap]\.?m\.?\W*)?(?:to|until|till|bis|jusqu'à|hasta|tot)\W*\d"
)
"""From a time to another, in words: both are of the one day."""
GOES_ON: Final = Refusal(
    "text-open", "The line says one day from which, or until which, something is at a time: on which other days it is, nothing says.",
    "Write it as one line with its day, “Mon 18 January: Tea bar, 10–12”, or put it into a table with a column Repeat (“every weekday until 26 March”).",
)  # fmt: skip


def is_open(line: TextLine, lexicon: Lexicon) -> bool:
    """Whether the one day of a line is that from which, or until which, something is."""
    if not line.date or line.repeat or line.date not in line.text:
        return False
    before, _, behind = line.text.partition(line.date)
    return is_open_day(before, line.date, behind, lexicon)


def is_open_day(before: str, date: str, behind: str, lexicon: Lexicon) -> bool:
    """Whether a date with what stands around it is one day from which, or until which, something is. A time may stand before it,
    `from 3pm on 12 January`, and is no day."""
    day = re.sub(_TIMES, _NO_TIME, date)
    if has_several_days(day.strip(EDGES)):
        return False
    is_time_first = _TIMES.match(re.sub(r"^\D*", "", date)) is not None
    own = re.sub(_FIGURES_ON, "", day)
    leads = own[own.find(_NO_TIME) + 1 :] if is_time_first else f"{before}{own}"
    while (name := _NAME.search(leads)) is not None and lexicon.knows(fold(name[1])):
        leads = leads[: name.start()]
    return _OPEN_BEFORE.search(leads) is not None or _OPEN_BEHIND.match(behind) is not None


def goes_on(line: TextLine, lexicon: Lexicon) -> Refusal | None:
    """Why a line that says from or until when something is at a time is no one event; so is one that says nothing else, and
    could stand over others. What is due by then is one."""
    if not is_open(line, lexicon):
        return None
    is_timed = bool(line.time) or line.has_time
    if not is_timed:
        says_more = any(map(str.isalpha, _OPEN_BEFORE.sub("", line.rest)))
        return None if says_more else GOES_ON
    is_due = _DUE.search(line.text) is not None or _FIRST_TO_LAST.search(line.text) is not None
    return None if is_due else GOES_ON
