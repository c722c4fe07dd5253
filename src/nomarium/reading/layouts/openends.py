"""Lines of text that say from when, or until when, something is, by one day: `From 18 January the library closes at 5pm`."""

import re
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.textlines import TextLine
from nomarium.reading.rows.opendays import is_open_day, may_be_open, without_lead

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
    if not line.date or line.repeat or not may_be_open(line.text) or line.date not in line.text:
        return False
    before, _, behind = line.text.partition(line.date)
    return is_open_day(before, line.date, behind, lexicon)


def goes_on(line: TextLine, lexicon: Lexicon) -> Refusal | None:
    """Why a line that says from or until when something is at a time is no one event; so is one that says nothing else, and
    could stand over others. What is due by then is one."""
    if not is_open(line, lexicon):
        return None
    is_timed = bool(line.time) or line.has_time
    if not is_timed:
        says_more = any(map(str.isalpha, without_lead(line.rest)))
        return None if says_more else linerefusals.NO_TITLE
    is_due = _DUE.search(line.text) is not None or _FIRST_TO_LAST.search(line.text) is not None
    return None if is_due else GOES_ON
