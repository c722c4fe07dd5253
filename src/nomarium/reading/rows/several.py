"""Several days in one cell: an event on each."""

import datetime as dt
import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.namelist import known_by_likely
from nomarium.reading.cells.repeats import read_day_list
from nomarium.reading.cells.weekdaypairs import with_days_apart
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.decisions import Decisions, resolve_day

_PARTED = r"[;,&+\n]|\w/(?:[^\W\d_]{2,9}\.?,?\s)?\d{1,2}(?:/\d{1,2}|st|nd|rd|th)*\s+[^\W\d_]{3}|[^\W\d_]{3}\.?\s\d{1,2}(?:/\d{1,2}){2}|\b(?:and|et|und|y|en|e)\b"
_DOTTED = re.compile(
    r"(?i)(?<![\d.])(?:[^\W\d_]{2,3}\.?\s?[/+&]\s?[^\W\d_]{2,3}\.?,?\s+)?(?P<days>\d{1,2}\.(?:\s?(?:[/+&,]|\bund\b|\bu\.|\bet\b|\boch\b|\bog\b|\ben\b)\s?\d{1,2}\.)+)\s?(?P<month>\d{1,2})\.(?P<year>\d{2,4})?(?!\d)"
)
"""Days of one month before its number, `12./13.12.2026`, `Sa/So 12. und 13.12.`: each has the month behind the last."""
_NAMED: Final = r"(?i)(?<![\w.:])(?:(?:les|los\s+d[ií]as|los|(?:ne)?i\s+giorni|n?os\s+dias)\s+)?(?P<days>\d{1,2}\.?(?:(?:,\s?\d{1,2}\.?)*\s(?:und|u\.|et|y|e|en|och|og|i|oraz|ja)\s\d{1,2}\.?|(?<=\.)\s?[,/&+]\s?\d{1,2}\.)+)\s+(?:de\s+|d['’])?(?P<month>[^\W\d_]{3,})"
"""The same before its name, as languages other than English join them."""
_LAST_DAY: Final = 31
_OF_WEEKDAYS = re.compile(
    r"(?i)(?P<names>[^\W\d_]{3,}s(?:\s?(?:[&+/,]|and)\s?[^\W\d_]{3,}s)*)(?!\w)\s*(?:[:,–-]\s*|\s+on\s+)?(?=\d|[^\W\d_]{3,9}\.?\s\d)"
)
"""Weekdays in the plural, before a list of days."""
_MOST_RUN_ON: Final = 183
"""Days over which a list goes on into the next year."""
_MOST_UNORDERED: Final = 92
"""Days by which one of a list may stand before an earlier one."""


def several_days(text: str, decisions: Decisions) -> list[dt.date] | Refusal | None:
    """The days of a text such as `3/4/5 June 2027` or `Mon 3rd & Tue 4th May 2027`; None when it is no list of days, a refusal
    when one of them cannot be."""
    text, weekdays = _weekdays_before(with_each_month(text), decisions)
    if not re.search(_PARTED, text):
        return None
    text = with_days_apart(text, decisions.lexicon)
    listed = read_day_list(text, decisions.lexicon)
    if isinstance(listed, Refusal) or len(listed) < 2 or any(days.last or days.rest for days in listed):
        return None
    found = run_on([one.first for one in listed], decisions)
    for day in found if isinstance(found, list) and weekdays else ():
        if day.weekday() not in weekdays:
            message = f"{day} is a {WEEKDAYS[day.weekday()]}, and the list is said to be of other days."
            return Refusal("date-weekday", message, "Correct the weekday or the date.")
    return found


def _weekdays_before(text: str, decisions: Decisions) -> tuple[str, frozenset[int]]:
    """A list of days without the weekdays that it is said to be of, `Tuesdays: 15, 22 and 29 Sept`, and these."""
    match = _OF_WEEKDAYS.match(text)
    if match is None:
        return text, frozenset()
    names = re.findall(r"[^\W\d_]{4,}", fold(match["names"]))
    if names == ["weekends"]:
        return text[match.end() :], frozenset((5, 6))
    known_days = decisions.lexicon.weekdays
    days = [None if name in known_days else known_days.get(name.removesuffix("s")) for name in names]  # Tues
    known = frozenset(day for day in days if day is not None)
    return (text[match.end() :], known) if known and None not in days else (text, frozenset())


def run_on(days: Sequence[Day], decisions: Decisions) -> list[dt.date] | Refusal:
    """The dates of a list of days. One without a year has that of the next day that says it, else of the one before, and the
    list runs on over the end of a year: `7 Dec, 4 Jan 2027` begins in 2026. A school year says it of each."""
    is_each = decisions.window is not None and not decisions.is_near
    is_each |= all(day.readings[0].year is None for day in days)
    found = [
        resolve_day(day, decisions) if is_each or day.readings[0].year is not None else None for day in days
    ]
    for n in (*reversed(range(len(days) - 1)), *range(1, len(days))):
        if found[n] is None and isinstance(following := found[n + 1] if n + 1 < len(days) else None, dt.date):
            found[n] = _beside(days[n], following, decisions, is_before=True)
        elif found[n] is None and isinstance(before := found[n - 1], dt.date):
            found[n] = _beside(days[n], before, decisions, is_before=False)
    refused = next((one for one in found if isinstance(one, Refusal)), None)
    return refused if refused is not None else [one for one in found if isinstance(one, dt.date)]


def with_each_month(text: str) -> str:
    """A text whose days of one month stand before its number, each with the month; before its name, with *and* between them.

    >>> with_each_month("Sa/So 12./13.12.2026: Markt")
    '12.12.2026, 13.12.2026: Markt'
    >>> with_each_month("5. und 6. November"), with_each_month("5 y 6 de noviembre"), with_each_month("5 e 6 pontoni")
    ('5 and 6 November', '5 and 6 noviembre', '5 e 6 pontoni')
    """
    text = _DOTTED.sub(_each_with_month, text) if "." in text else text
    return re.sub(_NAMED, _joined_by_and, text)


def _joined_by_and(match: re.Match[str]) -> str:
    days = [int(day) for day in re.findall(r"\d+", match["days"])]
    are_days = known_by_likely(fold(match["month"])) and days == sorted(set(days)) and days[-1] <= _LAST_DAY
    return f"{' and '.join(map(str, days))} {match['month']}" if are_days else match[0]


def _each_with_month(match: re.Match[str]) -> str:
    end = f"{match['month']}.{match['year'] or ''}"
    return ", ".join(f"{day}.{end}" for day in re.findall(r"\d{1,2}", match["days"]))


def _beside(day: Day, other: dt.date, decisions: Decisions, *, is_before: bool) -> dt.date | Refusal:
    """The date of a day without a year that stands before or behind a date of its list."""
    forward = -1 if is_before else 1
    years = (other.year, other.year + forward)
    same, over = (
        resolve_day(day._replace(readings=tuple(one._replace(year=year) for one in day.readings)), decisions)
        for year in years
    )
    away = (same - other).days * forward if isinstance(same, dt.date) else None
    if away is not None and away >= 0:
        return same
    if isinstance(over, dt.date) and abs((over - other).days) <= _MOST_RUN_ON:
        return over
    if away is None or away >= -_MOST_UNORDERED:
        return same
    message = f"A day of the list has no year, and may be in {years[0]} or in {years[1]}."
    return Refusal("date-no-year", message, "Write the year of each.")
