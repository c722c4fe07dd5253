"""Which readings of a day a weekday, the school year and the other end of a range leave."""

import datetime as dt
from collections.abc import Iterator

from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.dates import Day, DayReading
from nomarium.reading.options import Order

IN_SCHOOL_YEAR = "only then is it in the school year"
"""What a date of another year can contradict."""


def left_readings(
    day: Day, weekday: int | None, school_year: tuple[dt.date, dt.date] | None, until: Day | None = None
) -> tuple[tuple[DayReading, ...], str]:
    """The readings that the weekday and the school year leave (all, when they leave none), and why. `until`: the other end of its range."""
    readings = day.readings
    reason = _calendar_reason(day, until)
    if weekday is not None:
        left = tuple(one for one in readings if _may_be_on(one, weekday, school_year))
        if left and len(left) < len(readings):
            readings, reason = left, f"only then is it a {WEEKDAYS[weekday]}"
    if school_year is not None and len(readings) > 1:
        first, last = school_year
        left = tuple(one for one in readings if _may_be_within(one, first, last))
        if left and len(left) < len(readings):
            readings, reason = left, IN_SCHOOL_YEAR
    return readings, reason


def _calendar_reason(day: Day, until: Day | None) -> str:
    one = day.readings[0]
    if one.day <= 12 and until is not None:
        one = until.readings[0]
    if one.day <= 12 and one.year is None:
        return "its figures have a full stop"
    figure = one.day if one.day > 12 else (one.year or 0) % 100
    return f"{figure} is no month"


def _may_be_on(one: DayReading, weekday: int, school_year: tuple[dt.date, dt.date] | None) -> bool:
    if one.year is not None:
        date = one.date()
        return date is not None and date.weekday() == weekday
    return school_year is None or any(date.weekday() == weekday for date in dates_within(one, *school_year))


def _may_be_within(one: DayReading, first: dt.date, last: dt.date) -> bool:
    return any(dates_within(one, first, last))


def dates_within(one: DayReading, first: dt.date, last: dt.date) -> Iterator[dt.date]:
    """The dates that a reading may be between two others, both inclusive."""
    for year in [one.year] if one.year else range(first.year, last.year + 1):
        date = one.date(year)
        if date is not None and first <= date <= last:
            yield date


def runs_forward(first: Day, last: Day, order: Order) -> bool:
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
