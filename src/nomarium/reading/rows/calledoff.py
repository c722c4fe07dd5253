"""Titles that say that what they name is not held, or not then: `Race (cancelled)`, `Race – moved to 9 September`."""

import datetime as dt
import re
from typing import Final

from nomarium.model.problem import note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import (
    ends_cancelled,
    says_cancelled,
    says_put_off,
)
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.moves import moved_away, row_moved
from nomarium.reading.cells.movesabroad import STARTS, moved_abroad
from nomarium.reading.cells.notheld import ends_not_held, has_word_of
from nomarium.reading.cells.words import ENGLISH

CANCELLED = note("row-cancelled", "A row that says it is cancelled is written as cancelled.")
_JOINTS: Final = (":", " - ", " – ")
_SIGNS: Final = "[](){}*~!/|"
"""What people put around the word so that it is seen."""
_BEHIND: Final = r"(?P<title>.*[^\s,;:/|*–—-])(?:(?:\s+[-–—]|:|[,;])\s+(?P<word>\S+)|[,;]?\s+(?P<loud>[^\W\d_a-zß-ÿ]+)[!.]?)"
_OPEN: Final = (
    r"(?i)(?P<signs>[\[({*~!]*)\s*(?P<word>cancell?ed)\b(?P<more>[\])}*~!]*)[\s*:–—-]*(?P<title>\w.*)"
)
_CLOSED: Final = (
    r"(?i)(?!.*\b(?:if|not|unless|when|or|be|gets?)\s+cancel)(?P<title>\w.*?)\s*(?:[-–—:;,(\[/|*~]+\s*|\s)(?:(?:now|has|have|is|was|are|been)\s+)*cancell?ed\b"
    r"(?P<why>\s(?:due|because|owing|as|by|until)\b.*|\s*[-–—:;,(].*|[\s\])}*~!.]*)"
)
"""A title, and behind it that it is cancelled, and why."""
_MOVE: Final = (
    r"(?i)(?:\s[-–—]\s|[:;,]\s|\s?[(\[]|\s(?=(?:has|have|is|was|now|been)\s)|(?<=\w)\s(?=\S+(?: \S+){0,5} (?:to|until|till|for)\s)|"
    r"(?<=\w)\s(?=(?:put (?:back|off)|brought forward|delayed|moved)(?: by)? (?:an?|one|two|three|\d+) ))\s*"
    r"(?:(?:has|have|is|was|been)\s+)*"
    r"(?P<said>(?:moved|postponed|re-?scheduled|put (?:off|back)|brought forward|delayed|deferred|changed|new|now)\b[^()\[\]]*)[)\].!]*$"
)

_PUT_OFF: Final = (
    r"(?i)\w.*[\w),:;–—-] (?:(?:is|was|has|have|been|now) )*(?:"
    r"(?:postponed|deferred|called off|abandoned)(?: (?:until further notice|indefinitely|to a (?:later|new|future) date|(?:due|because|owing|as)\b.*))?|"
    r"(?:delayed|suspended) (?:until further notice|indefinitely)|to be (?:re-?scheduled|rearranged)|"
    r"new date (?:tbc|tba|to follow|to be \w+))[\s.!]*"
)
"""A title, and behind it that it is not held then, with nothing of when it is."""
_PUT_OFF_WORDS: Final = (
    "ostponed", "eferred", "called off", "bandoned", "until further notice", "indefinitely", "to be re", "new date",
)  # fmt: skip
_MOVED: Final = (
    "moved",
    "postponed",
    "scheduled",
    "put ",
    "brought",
    "delayed",
    "deferred",
    "changed",
    "new ",
    "now ",
)
"""One of them is in each such title: the pattern is compiled when it is needed."""


def without_cancellation(summary: str) -> str | None:
    """A title without the word in front (or behind, in brackets, after a dash or in capitals) that cancels it; a word that stands
    alone stays, and so does a title that says why; None when there is none.

    >>> without_cancellation("CANCELLED: Race"), without_cancellation("Race (fällt aus)"), without_cancellation("Cancelled debts")
    ('Race', 'Race', None)
    >>> without_cancellation("Cancelled!"), without_cancellation("Race - cancelled"), without_cancellation("Race POSTPONED")
    ('Cancelled!', 'Race', 'Race POSTPONED')
    >>> without_cancellation("CANCELLED - Play: The Gale"), without_cancellation("Race [CANCELLED]")
    ('Play: The Gale', 'Race')
    >>> without_cancellation("*CANCELLED* Race"), without_cancellation("Race - cancelled due to wind")
    ('Race', 'Race - cancelled due to wind')
    """
    for joint in _JOINTS:
        first, sign, rest = summary.partition(joint)
        if sign and rest.strip() and says_cancelled(first.strip(_SIGNS)):
            return _bare(rest, summary, first)
    before, bracket, last = summary.rpartition("(")
    word = last.removesuffix(")")
    if bracket and before.strip() and says_cancelled(word):
        return _bare(before, summary, word)
    behind = re.fullmatch(_BEHIND, summary) if ends_cancelled(summary.rpartition(" ")[2]) else None
    said = (behind["word"] or behind["loud"]) if behind is not None else ""
    if behind is not None and ends_cancelled(said):
        return _bare(behind["title"], summary, said)
    if says_cancelled(summary) or ends_not_held(summary):
        return summary
    folded = summary.casefold()
    if any(word in folded for word in _PUT_OFF_WORDS) and re.fullmatch(_PUT_OFF, " ".join(summary.split())):
        return summary
    return _cancelled_loudly(" ".join(summary.split())) if "ance" in folded else None


def is_off(summary: str) -> bool:
    """Whether a title says that it is not held, or on another day than its own."""
    return without_cancellation(summary) is not None or moved_title(summary, dt.date.min) is not None


def _cancelled_loudly(summary: str) -> str | None:
    """The same for a word between signs or in capitals before a title, and for one behind it with a reason."""
    opened = re.fullmatch(_OPEN, summary)
    if opened is not None and (opened["signs"] or opened["more"] or opened["word"].isupper()):
        return opened["title"]
    closed = re.fullmatch(_CLOSED, summary)
    if closed is None:
        return None
    return summary if re.search(r"\w", closed["why"]) else closed["title"]


def _bare(title: str, summary: str, word: str) -> str:
    """A title without the word that cancels it; one that says it is put off keeps it, for a date without it is still to come."""
    return summary if says_put_off(word.strip(_SIGNS)) else title.strip()


def moved_title(summary: str, start: dt.date) -> Refusal | None:
    """Why a title that says it is moved, `Race (moved to 9 September)`, cannot stand on its date; None for others, and where the
    date is that to which it is moved."""
    folded = summary.casefold()
    moved = re.search(_MOVE, " ".join(summary.split())) if any(word in folded for word in _MOVED) else None
    refusal = moved_away(moved["said"]) if moved is not None else None
    if moved is not None and refusal is not None:
        from nomarium.reading.rows.datewithin import date_within  # few titles say so

        within = date_within(f"· {moved['said']} ·", ENGLISH)
        return None if within is not None and _is_on(start, within.moment) else refusal
    abroad = moved_abroad(" ".join(summary.split())) if has_word_of(folded, STARTS) else None
    return None if abroad is None or _is_on(start, abroad[1]) else row_moved(abroad[0])


def _is_on(start: dt.date, moment: Moment) -> bool:
    """Whether the day to which something is moved is this one."""
    day = moment.last or moment.first  # moved from 14 to 21 November
    return day is not None and any((one.month, one.day) == (start.month, start.day) for one in day.readings)
