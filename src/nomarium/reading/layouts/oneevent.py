"""A text of one event, whose lines are when, where and what in any order: a poster."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.layouts.asides import may_title
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.textlines import TextLine
from nomarium.sheets.sheet import Row

_MOST_WORDS: Final = 9
_LEAST_CAPITALS: Final = 2
_LEADS_ON: Final = r"\b(?:to|to its|to our|to the|invit\w+|presents?|dear \w+|of|for|the|at)\W*$|^dear\b"
_NO_TITLE: Final = r"[£$€@]|https?:|^(?:with|by|from|for|tickets?|entry|admission|free|rsvp|all welcome)\b"


def with_title_of_poster(rows: Sequence[Row], lines: Sequence[TextLine]) -> list[Row]:
    """The row of the one event of a text, with its place where the title was and the title from a line in capitals."""
    if len(rows) != 1:
        return list(rows)
    number, row = rows[0]
    event = EventRow(*map(str, row))
    if event.place or not is_place(event.title):
        return list(rows)
    free = [
        line for line in lines if line.number != number and line.text != event.title and _may_be_title(line)
    ]
    title = next((line.text for line in free if _is_in_capitals(line.text)), "")
    stands_last = rf"(?:^|,\s*){re.escape(event.title)}\W*$"
    if not title and any(re.search(stands_last, line.text) for line in lines if line.number >= number):
        title = _over(free, number)
    return [(number, event._replace(title=title, place=event.title))] if title else list(rows)


def _over(lines: Sequence[TextLine], number: int) -> str:
    """The last line over when it is that may be its title: what stands higher says whose it is, or invites."""
    above = [line.text for line in lines if line.number < number]
    return next((text.strip(" :") for text in reversed(above) if not _goes_on(text)), "")


def _goes_on(text: str) -> bool:
    """Whether a text leads to what stands below it, `invites you to its`."""
    return text[:1].islower() or re.search(_LEADS_ON, text.casefold()) is not None


def _is_in_capitals(text: str) -> bool:
    """Whether half of the words of a text are in capitals, and some are."""
    words = [word for word in re.findall(r"[^\W\d_]+", text) if len(word) > 1]
    return sum(map(str.isupper, words)) >= max(_LEAST_CAPITALS, len(words) / 2)


def _may_be_title(line: TextLine) -> bool:
    return (
        not (line.date or line.time or is_place(line.text))
        and may_title(line)
        and len(line.text.split()) <= _MOST_WORDS
        and any(map(str.isalpha, line.text))
        and re.search(_NO_TITLE, line.text.casefold()) is None
    )
