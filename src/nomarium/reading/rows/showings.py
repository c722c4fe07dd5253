"""Several dates in a cell, each with times of its own: `Fri 5 March 2pm & 7pm, Sat 6 March 7pm`."""

import datetime as dt
import re
from collections.abc import Sequence

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
_HALF = re.compile(r"\d\s?([ap])\.?m\b", re.IGNORECASE)
_ONE = re.compile(r"\d{1,2}(?:[:.]\d\d)?")
_LONGEST_LIST = 80
_SPAN = re.compile(r"\d{1,2}(?:[:.]\d\d)?\s?[-–—]\s?\d{1,2}(?:[:.]\d\d)?")
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


def times_each(text: str, decisions: Decisions) -> tuple[list[str], Refusal | None]:
    """The times of a text that lists some and nothing else, `14:00, 17:00 & 20:00`, each by itself, none for any other; and why
    it is open in which half of the day they are."""
    pieces = listed_times(text)
    for piece in pieces:
        times = read_times(piece)
        settled = times_in_their_halves(piece, times, decisions.clock) if isinstance(times, Times) else times
        if isinstance(settled, Refusal):
            return [], settled
    return pieces, None


def listed_times(text: str) -> list[str]:
    """The times of a text that lists some and nothing else, each as it stands, with the half of the day that the next one says;
    none for any other.

    >>> listed_times("10 & 2.30pm"), listed_times("2.30 and 7.30pm"), listed_times("2-5 & 6-8"), listed_times("10 & 2")
    (['10am', '2.30pm'], ['2.30pm', '7.30pm'], ['2-5', '6-8'], [])
    """
    pieces = re.split(_PARTED, text.strip()) if len(text) <= _LONGEST_LIST else []
    if len(pieces) < 2 or not all(piece[:1].isdigit() or _CLEAR.search(piece) for piece in pieces):
        return []
    pieces = _in_halves(pieces)
    has_clear = any(map(_CLEAR.search, pieces))
    are_spans = all(map(_SPAN.fullmatch, pieces))
    for piece in pieces:
        is_clock = _CLEAR.search(piece) or are_spans or (has_clear and _HOUR.fullmatch(piece))  # 9.30 & 11
        times = read_times(piece) if is_clock else None
        if not isinstance(times, Times) or times.start is None:
            return []
    return pieces


def _in_halves(pieces: Sequence[str]) -> list[str]:
    """Times in order, those without a half of the day in that of the next one, or before noon where that would be too late."""
    found = list[str]()
    half, follows = "", 0
    for piece in reversed(pieces):
        said = _HALF.search(piece)
        half = said[1].lower() if said is not None else half if _ONE.fullmatch(piece) else ""
        if said is None and half:
            if half == "p" and _start_secs(f"{piece}pm") >= follows:
                half = "a"
            piece = f"{piece}{half}m" if _start_secs(f"{piece}{half}m") >= 0 else piece  # 14:00 & 7pm
        follows = _start_secs(piece)
        found.insert(0, piece)
    return found


def _start_secs(text: str) -> int:
    """When a time is; -1 for any other text."""
    times = read_times(text)
    return times.start.secs if isinstance(times, Times) and times.start is not None else -1


def _with_number(text: str, day: Day, decisions: Decisions) -> Day | None:
    """A day that has only its number, and perhaps its weekday, in the month of another; None where something else stands there."""
    match = _DAY_ALONE.fullmatch(text)
    weekday = fold(match["weekday"]).strip(".") if match is not None and match["weekday"] else ""
    if match is None or len(day.readings) > 1 or (weekday and weekday not in decisions.lexicon.weekdays):
        return None
    reading = day.readings[0]._replace(day=int(match["number"]))
    return Day((reading,), decisions.lexicon.weekdays[weekday] if weekday else None, day.has_short_year)
