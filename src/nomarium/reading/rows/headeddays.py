"""The weekdays that the heading of the dates names, `Date (Tuesdays)`: what it says of all rows, none of them may deny."""

import datetime as dt
import re

from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.words import fold
from nomarium.reading.rows.whenreader import WhenReader

_WRITTEN_OUT = 5
"""Letters of the shortest weekday that is written out, *lundi*: `Wed` and `Sun` begin other words."""
_BESIDE = frozenset("date dates day days all every on".split())
"""What stands beside a short weekday that is one."""


def weekdays_headed(when: WhenReader) -> frozenset[int]:
    """The weekdays, 0 for Monday, that the heading of the column of dates names; none where another column says weekdays, and where
    it is about ends of weeks or from one weekday to another."""
    if not when.dated or when.dated not in when.at or when.days is not None:
        return frozenset()
    heading = when.reading.columns[when.at[when.dated]].heading
    words = re.findall(r"[^\W\d_]+", fold(heading))
    lexicon = when.reading.decisions.lexicon
    days = {word: lexicon.weekday(word) for word in words}
    named = {word: day for word, day in days.items() if day is not None}
    if not named:
        return frozenset()
    is_short = any(len(word) < _WRITTEN_OUT for word in named) and not set(words) - named.keys() <= _BESIDE
    if is_short or re.search(r"[–—-]|\b(?:to|w/?e|end|ends|ending|not|except|before|after)\b", fold(heading)):
        return frozenset()
    return frozenset(named.values())


def denied(weekdays: frozenset[int], day: dt.date) -> Refusal:
    """Why a row cannot be on a day of another weekday than its heading says of all."""
    said = listed([WEEKDAYS[one] for one in sorted(weekdays)])
    message = f"{day.day} {day:%B %Y} is a {WEEKDAYS[day.weekday()]}, and the heading says {said}."
    return Refusal("date-weekday", message, "Correct the date, or take the weekday out of the heading.")
