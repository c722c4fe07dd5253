"""Programmes in relative days: week 2, Wednesday; day 17."""

import datetime as dt
import re

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon, fold

_FORMS = "Write a week's number, and a day's number or its weekday."


def are_calendar_weeks(day_one: dt.date, first: str) -> bool:
    """Whether weeks are those of the year (ISO 8601), and not counted from `day_one`: they say so, `KW 37`, or the first of them,
    with its heading before it perhaps, is just the week of that date, and not the first one.

    >>> are_calendar_weeks(dt.date(2026, 9, 7), "Week 37"), are_calendar_weeks(dt.date(2026, 9, 7), "Week 3")
    (True, False)
    """
    number = re.search(r"\d{1,2}(?!\d)", first)
    if number is None or re.match(r"(?i)\s*(?:kw|cw|calendar week|kalenderwoche)\b", first):
        return number is not None
    return int(number[0]) > 1 and int(number[0]) == day_one.isocalendar().week


def day_of_programme(
    day_one: dt.date, week: str, day: str, lexicon: Lexicon, of_year: bool = False
) -> dt.date | Refusal:
    """The date of a week and a day, either of which may be blank, counted from week 1 day 1; or, `of_year`, in that week of the
    year on or after that of `day_one` (ISO 8601).

    Day numbers without a week are calendar days. A weekday is the first such day of its week, whose
    first day is that of `day_one`.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> day_of_programme(dt.date(2027, 4, 5), "Week 2", "Wed", ENGLISH)
    datetime.date(2027, 4, 14)
    """
    weeks = 1
    if week:
        number = _number(week)
        if number is None:
            return Refusal("week-unread", f"“{week}” is not a week's number.", _FORMS)
        weeks = number
    if week and of_year:
        year, first, _ = day_one.isocalendar()
        try:
            begin = dt.date.fromisocalendar(year + (weeks < first), weeks, 1)
        except ValueError:
            return Refusal("week-unread", f"{year + (weeks < first)} has no week {weeks}.", _FORMS)
        return day_of_programme(begin, "1", day, lexicon)
    if not day:
        return day_one + dt.timedelta(days=(weeks - 1) * 7)
    weekday = lexicon.weekdays.get(fold(day).strip())
    if weekday is not None:
        offset = (weekday - day_one.weekday()) % 7
    else:
        number = _number(day)
        if number is None:
            return Refusal("day-unread", f"“{day}” is not a day's number and no weekday.", _FORMS)
        if week and not 1 <= number <= 7:
            return Refusal("day-unread", f"A week has days 1 to 7, not {number}.", _FORMS)
        offset = number - 1
    try:
        return day_one + dt.timedelta(days=(weeks - 1) * 7 + offset)
    except OverflowError:
        return Refusal("day-unread", f"Day {day} is too far away.", _FORMS)


def _number(text: str) -> int | None:
    """The number of `3`, `Week 3`, `W3`, `Day 3`, `3rd`."""
    match = re.fullmatch(r"(?:[^\W\d_]+[.\s]*)?(\d{1,5})(?:st|nd|rd|th|\.0|\.)?", text.strip(), re.IGNORECASE)
    return int(match[1]) if match else None
