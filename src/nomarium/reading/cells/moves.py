"""Remarks that move a row to another day or time: `moved to 9 September`, `now 3pm`."""

import re
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.movesabroad import STARTS, moved_abroad
from nomarium.reading.cells.words import ENGLISH

LONGEST_MOVE: Final = 60
_MOVED: Final = r"(?i)(?:moved|postponed|re-?scheduled|put (?:off|back)|brought forward|delayed|deferred)(?:(?: from\b.*?)? (?:to|until|till|for)\b(.*)|(?: by)? (?:an?|one|two|three|\d+) (?:min(?:ute)?s?|hours?|days?|weeks?|months?))?"
_LATER: Final = r"(?i)tomorrow|(?:the )?(?:next|following) (?:day|week|month|term|year)|(?:an?)?other (?:date|day|time)|a (?:later|new|future) (?:date|day|time)"
_CHANGED: Final = r"(?i)(?:now|changed? to|(?:(?:now|note|please note|nb)[:,]? )?(?:new|changed|revised|different|later|earlier) (?:date|time|day|start)(?: time)?(?: is)?)(?: (?:on|at|to|from))?[ :–-]+(\d.*|[^\W\d_]{3,9}\.? \d.*|(?:next )?[^\W\d_]{3,9})"
_AWAY: Final = ("moved", "postponed", "re-sched", "resched", "put ", "brought", "delayed", "deferred")
_OTHERWISE: Final = (
    "now",
    "change",
    "note",
    "please note",
    "nb",
    "new ",
    "revised ",
    "different ",
    "later ",
    "earlier ",
)
MOVES: Final = STARTS | frozenset(
    "move|post|re-s|resc|put |brou|dela|now |now:|new |chan|note|plea|nb: |nb n|revi|diff|late|earl".split(
        "|"
    )
)
"""What such remarks begin with: most texts are spared the patterns."""


def moved_away(text: str) -> Refusal | None:
    """Why a row cannot stand whose remark moves it, `moved to 9 Sept`, `postponed`, `now 3pm`; None for other texts."""
    plain = text.strip(" .!*()")
    moved = re.fullmatch(_MOVED, plain) if plain.casefold().startswith(_AWAY) else None
    changed = re.fullmatch(_CHANGED, plain) if plain.casefold().startswith(_OTHERWISE) else None
    if moved is None and changed is None:
        abroad = moved_abroad(plain) if plain[:4].casefold().strip() in STARTS else None
        return row_moved(text) if abroad is not None and plain.startswith(abroad[0]) else None
    match = changed or moved
    towards = (match[1] or "").strip(" :") if match is not None else ""
    said = towards.removeprefix("next ")
    if said and not ENGLISH.knows(said.casefold()) and re.fullmatch(_LATER, towards) is None:
        moments = [read_moment(said, role, ENGLISH) for role in ("date", "time")]
        if not any(isinstance(one, Moment) and (one.first or one.start) for one in moments):
            return None  # moved to the main hall
    return row_moved(text)


def row_moved(text: str) -> Refusal:
    """Why a row cannot stand of which this is said."""
    message = f"“{text}” says that the row is not held on its date, or at its time."
    remedy = "Give the row the new one and take the remark out, or write “cancelled”."
    return Refusal("row-moved", message, remedy)
