"""Several dates in a cell, each with times of its own: `Fri 5 March 2pm & 7pm, Sat 6 March 7pm`."""

import datetime as dt
import re

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.times import Clock, Times, read_times
from nomarium.reading.columns.clocks import in_its_half
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.columns.headings import NO_UNIT

_PARTED = r"\s*[,;&+\n]\s*|\s+(?:and|und|et|y|e|en)\s+"
_CLEAR = re.compile(r"\d[:.h]\d\d|\d\s?[ap]\.?m\b|\d\s?(?:h|uhr|uur)\b|noon|midnight", re.IGNORECASE)
"""What is a time and nothing else: a bare number may be another day."""


def showings(text: str, decisions: Decisions) -> list[tuple[dt.date, Times]] | Refusal | None:
    """The dates of a text with their times, once for each time; None where some date has none, or something else stands there."""
    pieces = re.split(_PARTED, text)
    if len(pieces) < 2 or not _CLEAR.search(text):
        return None
    found: list[tuple[dt.date, Times]] = []
    day: dt.date | None = None
    is_timed = True
    for piece in pieces:
        times = read_times(piece) if _CLEAR.search(piece) else None
        if not isinstance(times, Times) or times.start is None:
            moment = read_moment(piece, "date", decisions.lexicon) if piece else None
            if (
                not is_timed
                or not isinstance(moment, Moment)
                or moment.first is None
                or moment.last is not None
            ):
                return None
            resolved = resolve_day(moment.first, decisions)
            if isinstance(resolved, Refusal):
                return resolved
            day, times, is_timed = resolved, Times(moment.start, moment.end), moment.start is not None
        if times.start is not None:
            settled = _in_their_halves(piece, times, decisions)
            if day is None or settled is None:
                return None
            found.append((day, settled))
            is_timed = True
    return found if len(found) > 1 and is_timed else None


def _in_their_halves(text: str, times: Times, decisions: Decisions) -> Times | None:
    """Times by the clock of their table; None where nothing settles in which half of the day they are."""
    start, end = times.start, times.end
    if decisions.clock is not None:
        moment = in_its_half(text, Moment(start=start, end=end), decisions.clock, NO_UNIT)
        if isinstance(moment, Refusal):
            return None
        start, end = moment.start, moment.end
    return None if _is_open(start) or _is_open(end) else times._replace(start=start, end=end)


def _is_open(clock: Clock | None) -> bool:
    return clock is not None and clock.is_doubtful and not clock.has_meridiem
