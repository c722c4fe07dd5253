"""Titles that say more days than the one on which they stand: until when, `Camp 18-20 Sept`, `Fair until Sunday`, or on which others,
`Oars 15th & 17th`."""

import datetime as dt
import re
from calendar import monthrange
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.rows.datewithin import date_within
from nomarium.reading.rows.titles import may_say_days
from nomarium.reading.rows.when import When

_UNTIL_WEEKDAY: Final = re.compile(
    r"(?i)(?:\b(?P<from>[^\W\d_]{2,10})\.?\s?[-–—]\s?|(?:\b(?P<first>[^\W\d_]{2,10})\.?\s)?\b(?:until|till|to|thru|through|bis)\s+(?:(?:the following|next)\s+)?)"
    r"(?P<day>[^\W\d_]{2,10})\W*$"
)
_UNTIL_DATE: Final = re.compile(
    r"(?i)\b(?:until|till|to|thru|through|bis|jusqu['’]au)\s+(?:the\s+)?\(?\s*\0\W*$"
)
_UNTIL_NUMBER: Final = re.compile(
    r"(?i)\b(?:until|till|to|thru|through)\s+(?:the\s+|(?P<weekday>[^\W\d_]{3,9})\.?\s+)?(?P<number>\d{1,2})(?:st|nd|rd|th)\)?\W*$"
)
_OTHERS: Final = re.compile(r"(?P<first>\d{1,2})(?:st|nd|rd|th)?\s?(?:,|&|\+|and)\s?\d{1,2}(?:st|nd|rd|th)\b")
_MOVING: Final = re.compile(
    r"(?i)\b(?:moved|postponed|changed|extended|brought|deferred|rescheduled|put|back)\b"
)
_LONGEST: Final = 120
"""Days over which a title may say that something goes on."""
_LONGEST_TITLE: Final = 200
TITLE_SPAN: Final = "title-span"
_DAY_AND_COLON: Final = re.compile(r"(?:^|[;,\n/])\W*([^\W\d_]{2,10})\.?\s?(?::|\s[–—-])\s")
_OF_ITS_DAYS: Final = Refusal(
    "title-days", "The title says on which of its days it is, and would be all of them.", "Write each of these days on a row of its own, with its date."
)  # fmt: skip
_LISTED: Final = Refusal(
    "title-days", "The title names other days beside the one on which it stands.", "Write it on each of these days, without the others."
)  # fmt: skip


def with_days_of_title(title: str, when: When, lexicon: Lexicon = ENGLISH) -> When | Refusal | None:
    """When an event of one day is whose title says until which day it lasts; why it is open where it has times, or where the title
    lists other days; None where it says nothing of that."""
    if len(title) > _LONGEST_TITLE or not may_say_days(title) or when.rule or when.recurrence:
        return None
    is_timed = isinstance(when.start, dt.datetime)
    first = when.start.date() if isinstance(when.start, dt.datetime) else when.start
    if not is_timed and (when.end - when.start).days != 1:
        return _OF_ITS_DAYS if _is_of_some_days(title, lexicon) else None
    last = _last_day(title, first, lexicon)
    if isinstance(last, Refusal) or last is None:
        return last
    if is_timed:
        message = f"Its title says that it lasts until {last}, and it stands on one day, from {when.start:%H:%M} to {when.end:%H:%M}."
        remedy = "Write it on each of its days, without them in the title; in a list its last day may have a column of its own."
        return Refusal("title-days", message, remedy)
    return when._replace(end=last + dt.timedelta(1), notes=(*when.notes, TITLE_SPAN))


def _is_of_some_days(title: str, lexicon: Lexicon) -> bool:
    """Whether the title of a stretch says what is on which of its days, `Mon: Inset; Tue: Term starts`."""
    return any(lexicon.weekday(fold(day)) is not None for day in _DAY_AND_COLON.findall(title))


def _last_day(title: str, first: dt.date, lexicon: Lexicon) -> dt.date | Refusal | None:
    """The last day that a title names of what begins on this one; why it is open; None where it names none."""
    if _MOVING.search(title):
        return None
    weekday = _UNTIL_WEEKDAY.search(title)
    if weekday is not None and (day := lexicon.weekdays.get(fold(weekday["day"]))) is not None:
        begins = lexicon.weekdays.get(fold(weekday["from"] or weekday["first"] or ""), first.weekday())
        away = (day - first.weekday()) % 7
        is_range = weekday["from"] is None or fold(weekday["from"]) in lexicon.weekdays
        return first + dt.timedelta(away) if away and is_range and begins == first.weekday() else None
    if (others := _OTHERS.search(title)) is not None and int(others["first"]) == first.day:
        return _LISTED
    number = _UNTIL_NUMBER.search(title)
    if number is not None and first.day < int(number["number"]) <= monthrange(first.year, first.month)[1]:
        return _on_its_weekday(first.replace(day=int(number["number"])), number["weekday"], lexicon)
    found = date_within(title, lexicon) if any(map(str.isdigit, title)) else None
    if found is None or found.moment.first is None:
        return None
    is_until = found.moment.last is None and _UNTIL_DATE.search(found.rest) is not None
    starts = None if is_until else found.moment.first
    ends = found.moment.first if is_until else found.moment.last
    if ends is None or (starts is not None and not _may_be(starts, first)):
        return None
    last = _next(ends, first)
    return last if last is not None and 0 < (last - first).days <= _LONGEST else None


def _on_its_weekday(day: dt.date, weekday: str | None, lexicon: Lexicon) -> dt.date | Refusal:
    said = lexicon.weekdays.get(fold(weekday)) if weekday else None
    if said is None or said == day.weekday():
        return day
    message = f"{day} is a {WEEKDAYS[day.weekday()]}, not a {WEEKDAYS[said]}."
    return Refusal("date-weekday", message, "Correct the weekday or the date in the title.")


def _may_be(day: Day, date: dt.date) -> bool:
    return any(
        (one.month, one.day) == (date.month, date.day) and one.year in (None, date.year)
        for one in day.readings
    )


def _next(day: Day, first: dt.date) -> dt.date | None:
    """The first date after another one that a day can be."""
    dates = [
        date
        for one in day.readings
        for year in ((one.year,) if one.year else (first.year, first.year + 1))
        if (date := one.date(year)) is not None and date > first
    ]
    return min(dates, default=None)
