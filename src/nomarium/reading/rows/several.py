"""Several days in one cell: an event on each."""

import datetime as dt
import re

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.repeats import read_day_list
from nomarium.reading.columns.decisions import Decisions, resolve_day

_PARTED = r"[;,&+\n]|\d/\d{1,2}/\d{1,2}\s|\b(?:and|et|und|y|en|e)\b"
_DOTTED = re.compile(
    r"(?i)(?<![\d.])(?:[^\W\d_]{2,3}\.?\s?[/+&]\s?[^\W\d_]{2,3}\.?,?\s+)?(?P<days>\d{1,2}\.(?:\s?(?:[/+&,]|\bund\b|\bu\.|\bet\b|\boch\b|\bog\b|\ben\b)\s?\d{1,2}\.)+)\s?(?P<month>\d{1,2})\.(?P<year>\d{2,4})?(?!\d)"
)
"""Days of one month before its number, `12./13.12.2026`, `Sa/So 12. und 13.12.`: each has the month behind the last."""
_SLASHES = r"\b(\d{1,2}(?:/\d{1,2})+)(?=\s+[^\W\d_]{3})"


def several_days(text: str, decisions: Decisions) -> list[dt.date] | Refusal | None:
    """The days of a text such as `3/4/5 June 2027` or `Mon 3rd & Tue 4th May 2027`; None when it is no list of days, a refusal
    when one of them cannot be.

    A year that stands once holds for all of them.
    """
    text = with_each_month(text)
    if not re.search(_PARTED, text):
        return None
    text = re.sub(_SLASHES, lambda match: match[1].replace("/", ", "), text)
    listed = read_day_list(text, decisions.lexicon)
    if isinstance(listed, Refusal) or len(listed) < 2 or any(days.last or days.rest for days in listed):
        return None
    days = [one.first for one in listed]
    years = {one.year for day in days for one in day.readings if one.year is not None}
    found = []
    for day in days:
        date = resolve_day(_with_year(day, years), decisions)
        if isinstance(date, Refusal):
            return date
        found.append(date)
    return found


def with_each_month(text: str) -> str:
    """A text whose days of one month stand before its number, each with the month.

    >>> with_each_month("Sa/So 12./13.12.2026: Markt")
    '12.12.2026, 13.12.2026: Markt'
    """
    return _DOTTED.sub(_each_with_month, text) if "." in text else text


def _each_with_month(match: re.Match[str]) -> str:
    end = f"{match['month']}.{match['year'] or ''}"
    return ", ".join(f"{day}.{end}" for day in re.findall(r"\d{1,2}", match["days"]))


def _with_year(day: Day, years: set[int]) -> Day:
    if len(years) != 1 or day.readings[0].year is not None:
        return day
    year = next(iter(years))
    return day._replace(readings=tuple(one._replace(year=year) for one in day.readings))
