"""Which weekday of a month a row is held on, where the weekday itself stands in another cell: `1st & 3rd`, `last of the month`."""

import re
from typing import Final

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.words import Lexicon

_OF_MONTH: Final = r"(?i)\s*(?:\b(?:weeks?|wks?)\b)?\s*(?:\b(?:of|in)\s+(?:the|each|every|a)?\s*month\b|\b(?:each|every|a)\s+month\b|\bmonthly\b)?$"
_MONDAY: Final = "Monday"
_LONGEST: Final = 60
_EVERY: Final = frozenset(("every", "all", "each", "weekly", "every week", "all weeks", "each week"))


def nth_of_month(text: str, lexicon: Lexicon) -> tuple[int, ...]:
    """Which of a weekday's dates in a month a text says, -1 for the last; nothing where it says none, or names a weekday itself.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> nth_of_month("1st & 3rd", ENGLISH), nth_of_month("last of the month", ENGLISH), nth_of_month("every 2nd", ENGLISH)
    ((1, 3), (-1,), ())
    """
    if len(text) > _LONGEST:
        return ()
    bare = re.sub(_OF_MONTH, "", " ".join(text.split()))
    if not bare or any(map(str.isdigit, re.sub(r"\d(?:st|nd|rd|th|ers?|[eè]me|e|\.)(?!\w)", "", bare))):
        return ()
    found = read_repeat(f"{bare} {_MONDAY}", lexicon)
    if not isinstance(found, Repeat) or found.rule.freq != "MONTHLY" or found.rule.interval > 1:
        return ()
    return tuple(number for number, day in found.rule.weekdays if number and day == 0)


def with_nth(found: Repeat | Refusal | None, text: str, lexicon: Lexicon) -> Repeat | Refusal | None:
    """What a cell says of repeating, with which of a weekday's dates in a month it says where nothing else is understood, or
    days of the month that these may be."""
    if isinstance(found, Refusal) and found.why == "several":
        return found
    may_be = not isinstance(found, Repeat) or bool(found.rule.month_days and not found.rule.weekdays)
    nth = nth_of_month(text, lexicon) if may_be else ()
    if not nth:
        return found
    return (
        found._replace(nth=nth) if isinstance(found, Repeat) else Repeat(Rule("MONTHLY"), nth=nth, text=text)
    )


def weeks_said(text: str, lexicon: Lexicon) -> Repeat | None:
    """The repeat that a cell under a heading of weeks says in words: `1st & 3rd` of a month, or `every`; None for a number of them."""
    if text.casefold() in _EVERY:
        return Repeat(Rule("WEEKLY"), text=text)
    nth = nth_of_month(text, lexicon)
    return Repeat(Rule("MONTHLY"), nth=nth, text=text) if nth else None
