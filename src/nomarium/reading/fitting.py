"""Which readings of a day a weekday, the school year and the other end of a range leave."""

from __future__ import annotations

import datetime as dt

from nomarium.reading.dates import Day, Reading
from nomarium.reading.decisions import WEEKDAYS


def left_readings(
    day: Day, weekday: int | None, school_year: tuple[dt.date, dt.date] | None
) -> tuple[tuple[Reading, ...], str]:
    """The readings that the weekday and the school year leave (all, when they leave none), and why."""
    readings = day.readings
    reason = _calendar_reason(day)
    if weekday is not None:
        left = tuple(one for one in readings if one.year is None or _is_on(one, weekday))
        if left and len(left) < len(readings):
            readings, reason = left, f"only then is it a {WEEKDAYS[weekday]}"
    if school_year is not None and len(readings) > 1:
        first, last = school_year
        left = tuple(one for one in readings if _may_be_within(one, first, last))
        if left and len(left) < len(readings):
            readings, reason = left, "only then is it in the school year"
    return readings, reason


def _calendar_reason(day: Day) -> str:
    one = day.readings[0]
    figure = one.day if one.day > 12 else (one.year or 0) % 100
    return f"{figure} is no month"


def _is_on(one: Reading, weekday: int) -> bool:
    date = one.date()
    return date is not None and date.weekday() == weekday


def _may_be_within(one: Reading, first: dt.date, last: dt.date) -> bool:
    years = [one.year] if one.year else range(first.year, last.year + 1)
    return any((date := one.date(year)) is not None and first <= date <= last for year in years)


def runs_forward(first: Day, last: Day, order: str) -> bool:
    """Whether a range of two days, read in an order, need not end before it starts."""
    starts = [one for one in first.readings if one.order in ("", order)]
    ends = [one for one in last.readings if one.order in ("", order)]
    for start in starts:
        for end in ends:
            a, b = start.date(2000), end.date(2000)
            same_kind = (start.year is None) == (end.year is None)
            if a and b and (not same_kind or a <= b):
                return True
    return False
