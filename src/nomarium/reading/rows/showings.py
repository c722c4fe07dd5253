"""Several dates in a cell, each with times of its own: `Fri 5 March 2pm & 7pm, Sat 6 March 7pm`."""

import datetime as dt
import re

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.clocks import times_in_their_halves
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.rows.several import run_on

_PARTED = r"\s*[,;&+\n]\s*|\s+(?:and|und|et|y|e|en)\s+"
_CLEAR = re.compile(r"\d[:.h]\d\d|\d\s?[ap]\.?m\b|\d\s?(?:h|uhr|uur)\b|noon|midnight", re.IGNORECASE)
"""What is a time and nothing else: a bare number may be another day."""
_HOUR = re.compile(r"1?\d|2[0-3]")
_DAY_ALONE = re.compile(
    r"(?:(?P<weekday>[^\W\d_]{2,}\.?)\s+)?(?P<number>\d{1,2})(?:st|nd|rd|th)?\.?", re.IGNORECASE
)


def showings(text: str, decisions: Decisions) -> list[tuple[dt.date, Times]] | Refusal | None:
    """The dates of a text with their times, once for each time; None where some date has none, or something else stands there.
    Days before a date have its month and its times: `Fri 4 & Sat 5 Dec 7.30pm, Sun 6 Dec 2pm`."""
    pieces = re.split(_PARTED, text)
    if len(pieces) < 2 or not _CLEAR.search(text):
        return None
    days: list[Day] = []
    found: list[tuple[int, Times]] = []
    untimed: list[int] = []
    numbers: list[str] = []
    for piece in pieces:
        times = read_times(piece) if _CLEAR.search(piece) else None
        if not isinstance(times, Times) or times.start is None:
            if _DAY_ALONE.fullmatch(piece):
                numbers.append(piece)
                continue
            moment = read_moment(piece, "date", decisions.lexicon) if piece else None
            if not isinstance(moment, Moment) or moment.first is None or moment.last is not None:
                return None
            earlier = [_with_number(number, moment.first, decisions) for number in numbers]
            if not all(earlier):
                return None
            untimed += range(len(days), len(days) + len(numbers) + 1)
            days += [*filter(None, earlier), moment.first]
            numbers, times = [], Times(moment.start, moment.end)
        if times.start is not None:
            settled = times_in_their_halves(piece, times, decisions.clock)
            if not days or numbers or isinstance(settled, Refusal):
                return None
            found += [(n, settled) for n in untimed or [len(days) - 1]]
            untimed = []
    if len(found) < 2 or untimed or numbers:
        return None
    dates = run_on(days, decisions)
    return dates if isinstance(dates, Refusal) else [(dates[n], times) for n, times in found]


def times_each(text: str, decisions: Decisions) -> list[str]:
    """The times of a text that lists some and nothing else, `14:00, 17:00 & 20:00`, each by itself; none where a piece is no
    time, or where nothing settles in which half of the day it is."""
    pieces = re.split(_PARTED, text)
    has_clear = len(pieces) > 1 and any(map(_CLEAR.search, pieces))
    for piece in pieces:
        is_clock = _CLEAR.search(piece) or (has_clear and _HOUR.fullmatch(piece))  # 9.30 & 11
        times = read_times(piece) if is_clock else None
        if (
            not isinstance(times, Times)
            or times.start is None
            or isinstance(times_in_their_halves(piece, times, decisions.clock), Refusal)
        ):
            return []
    return pieces if len(pieces) > 1 else []


def _with_number(text: str, day: Day, decisions: Decisions) -> Day | None:
    """A day that has only its number, and perhaps its weekday, in the month of another; None where something else stands there."""
    match = _DAY_ALONE.fullmatch(text)
    weekday = fold(match["weekday"]).strip(".") if match is not None and match["weekday"] else ""
    if match is None or len(day.readings) > 1 or (weekday and weekday not in decisions.lexicon.weekdays):
        return None
    reading = day.readings[0]._replace(day=int(match["number"]))
    return Day((reading,), decisions.lexicon.weekdays[weekday] if weekday else None, day.has_short_year)
