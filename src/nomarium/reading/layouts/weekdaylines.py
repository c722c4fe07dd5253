"""Lines that begin with a weekday, under a line that names a week or a day: `Wednesday: Trials, 9.30am` under `Week beginning
7 September 2026`, `Sunday` under `Saturday 12 September 2026`."""

import datetime as dt
import re
from typing import Final, NamedTuple

from nomarium.model.wording import MONTHS
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.lineforms import clocked
from nomarium.reading.layouts.linetimes import LEADING, time_in
from nomarium.reading.layouts.textlines import TextLine

_BEGINS: Final = re.compile(r"^(?P<name>[^\W\d_]{2,})\.?(?:\s*(?P<sign>[:,|–—-])\s*|\s+|$)")
_TO_OTHER: Final = re.compile(
    r"^\.?\s*(?:[-–—/&+]|to|and|bis|und|et|au)\s*(?P<name>[^\W\d_]{2,})\.?(?=[\s:,|–—-]|$)\s*[:,|–—-]?\s*"
)
"""A second weekday behind the first, `Sat–Sun`, `Mon & Tue`."""
_NUMBER: Final = re.compile(
    r"(\d{1,2})(?:(?:st|nd|rd|th)(?=[\s:,|–—-]|$)[\s:,|–—-]*|\.?(?=[\s:,|–—-]|$)[\s:,|–—-]*(?!\s*(?:[ap]\.?m\b|\d)))"
)
_WEEK_LAST: Final = r"(?i)\b(?:semaine|woche|semana|settimana)\W*$|^\W*week\W*$"
_OF_WEEK: Final = r"(?i)\bweek ahead\b|\b(?:this|the|next|coming) week\b|\b(?:week|woche|semaine|semana|settimana|kw)\s*\d{1,2}\b|^\W*week\W*$"
"""Words that name a week as such; a *launch week* is what is on."""
_TO_DAY: Final = re.compile(r"\d\D*(?:[-–—]|\b(?:to|bis|au|al)\b)\D*\d")
_SHORT: Final = 4
"""Letters up to which a weekday's name is an abbreviation, and often another word."""
_MOST_DAYS: Final = 31
"""Days of the longest range among which a weekday is looked for."""
_LEAST_OF_WEEK: Final = 4
"""Days of a range from which on it is a week that begins on a Monday, `28 Sept – 2 Oct`."""
_UNKNOWN_YEAR: Final = 1
"""A year without a 29 February, for days whose year is not said."""


def names_week(date: str) -> bool:
    """Whether the date of a line is the first day of a week, `w/c 7 September`."""
    return re.search(r"(?i)\bw/?[cb]\b", date) is not None


def is_of_week(line: TextLine) -> bool:
    """Whether a line names a week, by its first day or, `semaine du 9 au 13 novembre`, by its first and last."""
    return names_week(line.date) or (
        not (line.time or line.has_time)
        and (
            re.search(_WEEK_LAST, line.rest) is not None
            or (_TO_DAY.search(line.date) is not None and re.search(_OF_WEEK, line.rest) is not None)
        )
    )


class OnWeekday(NamedTuple):
    date: str
    rest: str
    """What the line says behind its weekday."""
    is_clear: bool
    """Whether a sign, a time or nothing stands behind the weekday, and no word that it could belong to."""
    is_numbered: bool = False
    """Whether the line says the number of the day, too."""


def on_weekday(line: TextLine, heading: str, lexicon: Lexicon, is_week: bool = False) -> OnWeekday | None:
    """The day of a line that begins with a weekday: the first of that name from the day of a heading on, and within its days.
    None where the line does not begin so, or the heading leaves open which day it is."""
    text = clocked(_with_columns(line), lexicon)
    match = _BEGINS.match(text)
    weekday = lexicon.weekdays.get(fold(match["name"])) if match else None
    if match is None or weekday is None:
        return None
    both = _both_days(text, match, heading, lexicon)
    if both is not None:
        return both
    rest = text[match.end() :]
    number = _NUMBER.match(rest)
    is_clear = bool(match["sign"]) or not rest or LEADING.match(rest) is not None or number is not None
    if len(match["name"]) < _SHORT and not is_clear and not is_week:
        return None  # Sun cream
    days = _days_of(heading, lexicon).get(weekday, [])
    number = number or next(
        (said for one in days if (said := re.match(rf"({one.day})\s+", rest))), None
    )  # Tue 16  6 x 500 m
    numbered = [one for one in days if number is not None and int(number[1]) == one.day]
    if len(numbered or days) != 1:
        return None  # none, or two Saturdays within 12–20 September
    (day,) = numbered or days
    if number is not None and numbered:
        rest = rest[number.end() :]  # Mon 7  Opening, under 7–11 June
    year = f" {day.year}" if day.year != _UNKNOWN_YEAR else ""
    return OnWeekday(
        f"{match['name']} {day.day} {MONTHS[day.month - 1]}{year}", rest, is_clear, bool(numbered)
    )


def _with_columns(line: TextLine) -> str:
    """The text of a line with its columns parted, unless one of them says a time among words: then they are words of one title,
    `Mon  Keel  Assembly 8:40`."""
    _, *columns = line.parted.split(" | ")
    return line.text if any(all(time_in(one)) for one in columns) else line.parted


def _both_days(text: str, first: re.Match[str], heading: str, lexicon: Lexicon) -> OnWeekday | None:
    """The days of a line that begins with two weekdays of the week of a heading, from one to the other or the two of them."""
    other = _TO_OTHER.match(text, first.end("name"))
    other = other or _TO_OTHER.match(text[first.end("name") :])
    names = (fold(first["name"]), fold(other["name"])) if other is not None else ()
    if other is None or not all(name in lexicon.weekdays for name in names):
        return None
    found = [_days_of(heading, lexicon).get(lexicon.weekdays[name], []) for name in names]
    if any(len(days) != 1 for days in found) or found[0][0] >= found[1][0]:
        return None
    (begin,), (end,) = found
    sign = " & " if re.search(r"[&+/]|\b(?:and|und|et)\b", other[0]) and (end - begin).days > 1 else " – "
    year = f" {end.year}" if end.year != _UNKNOWN_YEAR else ""
    days = f"{begin.day} {MONTHS[begin.month - 1]}{year}{sign}{end.day} {MONTHS[end.month - 1]}{year}"
    rest = text[first.end("name") :][other.end() :] if other.string != text else text[other.end() :]
    return OnWeekday(days, rest, True)


def begins_with_weekday(text: str, lexicon: Lexicon) -> bool:
    match = _BEGINS.match(text)
    return match is not None and fold(match["name"]) in lexicon.weekdays


def _days_of(heading: str, lexicon: Lexicon) -> dict[int, list[dt.date]]:
    """The days of a heading by their weekdays: those that it names, or the seven from it on. A week without a year begins on a
    Monday, which the row of each day then says with its date, to be checked with its year."""
    moment = read_moment(heading, "date", lexicon)
    if not isinstance(moment, Moment) or moment.first is None:
        return {}
    is_week, named = "week-span" in moment.notes, moment.first.weekday
    first = _only(moment.first, named if named is not None else 0 if is_week else None)
    last = _only(moment.last, None) if moment.last is not None else None
    if first is None or (moment.last is not None and last is None):
        return {}
    count = 7 if last is None else min(_MOST_DAYS, (last - first).days + 1)
    begins_week = is_week or (last is not None and count >= _LEAST_OF_WEEK)
    if first.year != _UNKNOWN_YEAR:
        weekday = first.weekday()
    elif named is not None or begins_week:
        weekday = named or 0
    else:
        return {}
    found: dict[int, list[dt.date]] = {}
    for n in range(count):
        found.setdefault((weekday + n) % 7, []).append(first + dt.timedelta(days=n))
    return found


def _only(day: Day, weekday: int | None) -> dt.date | None:
    """The one date that a day can be; of several, the one on this weekday."""
    dates = {date for one in day.readings if (date := one.date(_UNKNOWN_YEAR)) is not None}
    if len(dates) > 1:
        dates = {date for date in dates if date.weekday() == weekday}
    return dates.pop() if len(dates) == 1 else None
