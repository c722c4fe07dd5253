"""The recurrence engine: the local starts that a rule gives, in order, one by one (RFC 5545, 3.3.10).

Everything is counted in days since 0001-01-01 (`date.toordinal`) and seconds of the day; dates and
date-times are made only for what is taken. The days that a rule allows in a month, or in a year,
depend only on its parts, the weekday of the first and the length: each such set is worked out once.
No clock change plays a part here: a rule speaks of local times.
"""

import datetime as dt
from bisect import bisect_left
from collections.abc import Container, Iterable, Iterator
from functools import lru_cache
from itertools import islice, product, takewhile
from math import gcd
from typing import NamedTuple, TypeVar

from nomarium.model.recurrence import Rule

_LAST_DAY = dt.date.max.toordinal()
_MONTH_LENGTHS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
_UNITS = {"HOURLY": 24, "MINUTELY": 1440, "SECONDLY": 86_400}

_T = TypeVar("_T")
Start = tuple[int, int]
"""A day's ordinal and the seconds since its midnight."""


def starts(
    rule: Rule,
    first: dt.date | dt.datetime,
    from_day: dt.date | None = None,
    last_day: dt.date | None = None,
    closed: Container[int] = frozenset(),
) -> Iterator[dt.date | dt.datetime]:
    """The starts of a rule from `first` on, dates for a date, naive date-times for a date-time.

    Lazy: an endless rule costs what is taken from it; a rule that can never match ends by itself.
    UNTIL in UTC is to be made local before (`with_local_until`). `from_day` and `last_day` (both
    inclusive) skip what is outside without making it, where the rule has no COUNT. `closed` are
    ordinals of days that are taken away before BYSETPOS looks.

    >>> rule = Rule("MONTHLY", weekdays=((-1, 4),), times=2)
    >>> [str(day) for day in starts(rule, dt.date(2027, 1, 4))]
    ['2027-01-29', '2027-02-26']
    """
    if not isinstance(first, dt.datetime) and rule.freq not in _UNITS:
        rule = rule._replace(hours=(), minutes=(), seconds=())  # 3.3.10: without meaning on whole days
    secs = first.hour * 3600 + first.minute * 60 + first.second if isinstance(first, dt.datetime) else 0
    last = min(_ordinal_of_until(rule), last_day.toordinal() if last_day else _LAST_DAY)
    low = from_day.toordinal() if from_day and rule.times is None else 0
    begin = (first.toordinal(), secs)
    if _is_daywise(rule):
        days: Iterable[int] = _days(rule, begin[0], max(low, begin[0]), last, closed)
        if rule.times is not None:
            days = islice(days, rule.times)
        if low == 0 and from_day:
            days = (day for day in days if day >= from_day.toordinal())
        if not isinstance(first, dt.datetime):
            return map(dt.date.fromordinal, days)
        time, combine = first.time(), dt.datetime.combine
        timed: Iterator[dt.datetime] = (combine(dt.date.fromordinal(day), time) for day in days)
        if isinstance(rule.until, dt.datetime) and rule.until.time() < time:
            until = rule.until
            timed = takewhile(lambda moment: moment <= until, timed)
        return timed
    found: Iterable[Start] = _timed(rule, begin, low, last, closed)
    if rule.times is not None:
        found = islice(found, rule.times)
    moments: Iterator[dt.datetime] = (_moment(start) for start in found)
    if isinstance(rule.until, dt.datetime):
        limit = rule.until
        moments = takewhile(lambda moment: moment <= limit, moments)
    if low == 0 and from_day:
        moments = (moment for moment in moments if moment.date() >= from_day)
    return moments if isinstance(first, dt.datetime) else (moment.date() for moment in moments)


def _moment(start: Start) -> dt.datetime:
    return dt.datetime.fromordinal(start[0]) + dt.timedelta(seconds=start[1])


def _ordinal_of_until(rule: Rule) -> int:
    return rule.until.toordinal() if rule.until else _LAST_DAY


def _is_daywise(rule: Rule) -> bool:
    """Whether each day has one start, at the time of the first: then days are all there is to count."""
    return rule.freq not in _UNITS and not (rule.hours or rule.minutes or rule.seconds)


# -- days ---------------------------------------------------------------------------------------------


def _days(rule: Rule, begin: int, low: int, last: int, closed: Container[int]) -> Iterable[int]:
    """The days of a rule of one start a day, from `low` to `last`; `begin` is where intervals count from."""
    if rule.freq == "DAILY" and _is_plain(rule) and not closed:
        return range(low + (begin - low) % rule.interval, last + 1, rule.interval)
    if rule.freq == "WEEKLY" and _is_plain(rule) and not closed:
        return _weekly(rule, begin, low, last)
    return _from_to(_picked(rule, begin, low, last, closed), low, last)


def _picked(rule: Rule, begin: int, low: int, last: int, closed: Container[int]) -> Iterator[int]:
    for period in _periods(rule, begin, low, last):
        days: Iterable[int] = (day for day in period if day not in closed) if closed else period
        if rule.positions:
            days = _at_positions([*days], rule.positions)
        yield from days


def _from_to(days: Iterable[int], low: int, last: int) -> Iterator[int]:
    for day in days:
        if day > last:
            return
        if day >= low:
            yield day


def _at_positions(items: list[_T], positions: tuple[int, ...]) -> list[_T]:
    size = len(items)
    at = {n - 1 if n > 0 else size + n for n in positions if abs(n) <= size}
    return [items[n] for n in sorted(at)]


def _is_plain(rule: Rule) -> bool:
    """Whether nothing but an interval and, weekly, weekdays shapes a daily or weekly rule."""
    has_weekdays = rule.weekdays and rule.freq == "DAILY"
    return not (
        rule.months or rule.month_days or rule.year_days or rule.weeks or rule.positions or has_weekdays
    )


def _weekly(rule: Rule, begin: int, low: int, last: int) -> Iterable[int]:
    monday = begin - (begin - 1 - rule.week_start) % 7  # the first day of the first week
    offsets = sorted({(day - rule.week_start) % 7 for _, day in rule.weekdays}) or [begin - monday]
    step = 7 * rule.interval
    week = monday + max(low - monday, 0) // step * step
    if len(offsets) == 1:
        day = week + offsets[0]
        return range(day if day >= low else day + step, last + 1, step)
    every = (day + offset for day in range(week, last + 1, step) for offset in offsets)
    return _from_to(every, low, last)


def _periods(rule: Rule, begin: int, low: int, last: int) -> Iterator[Iterable[int]]:
    """The allowed days of each period (year, month, week or day), in order, from about `low` on."""
    if rule.freq == "YEARLY":
        year = dt.date.fromordinal(begin).year
        at = year + max(dt.date.fromordinal(max(low, 1)).year - year, 0) // rule.interval * rule.interval
        for number in range(at, dt.date.fromordinal(last).year + 1, rule.interval):
            yield _days_of_year(_shape(rule, begin), number)
    elif rule.freq == "MONTHLY":
        yield from _months(rule, begin, low, last)
    elif rule.freq == "WEEKLY":
        shape = _shape(rule, begin)
        monday = begin - (begin - 1 - rule.week_start) % 7
        step = 7 * rule.interval
        for week in range(monday + max(low - monday, 0) // step * step, last + 1, step):
            yield [day for day in range(max(week, 1), min(week + 7, _LAST_DAY + 1)) if _allows(shape, day)]
    else:
        shape = _shape(rule, begin)
        # from its first day on, not from the year 1
        for year in range(dt.date.fromordinal(max(low, begin)).year, dt.date.fromordinal(last).year + 1):
            for day in _days_of_year(shape, year):
                if (day - begin) % rule.interval == 0:
                    yield (day,)


def _months(rule: Rule, begin: int, low: int, last: int) -> Iterator[Iterable[int]]:
    shape = _shape(rule, begin)
    is_simple = not (shape.weeks or shape.year_days)
    first, lowest, final = (dt.date.fromordinal(max(day, 1)) for day in (begin, low, last))
    at = first.year * 12 + first.month - 1
    skipped = max(lowest.year * 12 + lowest.month - 1 - at, 0) // rule.interval * rule.interval
    for number in range(at + skipped, final.year * 12 + final.month, rule.interval):
        year, month = divmod(number, 12)
        if shape.months and month + 1 not in shape.months:
            continue
        start = dt.date(year, month + 1, 1).toordinal()
        length = _month_length(year, month)
        if is_simple:
            offsets = _days_of_month(shape.month_days, shape.weekdays, (start - 1) % 7, length)
            yield [start + offset for offset in offsets]
        else:
            days = _days_of_year(shape, year)
            yield days[bisect_left(days, start) : bisect_left(days, start + length)]


class _Shape(NamedTuple):
    """The parts of a rule that choose days, with what its first day fills in."""

    months: tuple[int, ...]
    weeks: tuple[int, ...]
    year_days: tuple[int, ...]
    month_days: tuple[int, ...]
    weekdays: tuple[tuple[int, int], ...]
    week_start: int
    ordinals_in_month: bool
    """Whether a numbered weekday counts within its month, or within its year."""


@lru_cache(maxsize=4096)
def _shape(rule: Rule, begin: int) -> _Shape:
    months, month_days, weekdays = rule.months, rule.month_days, rule.weekdays
    if not (rule.weeks or rule.year_days or month_days or weekdays):
        first = dt.date.fromordinal(begin)
        if rule.freq == "YEARLY":
            months, month_days = months or (first.month,), (first.day,)
        elif rule.freq == "MONTHLY":
            month_days = (first.day,)
        elif rule.freq == "WEEKLY":
            weekdays = ((0, first.weekday()),)
    in_month = rule.freq == "MONTHLY" or bool(months)
    return _Shape(months, rule.weeks, rule.year_days, month_days, weekdays, rule.week_start, in_month)


def _month_length(year: int, month: int) -> int:
    """`month` counts from 0."""
    return 29 if month == 1 and _is_leap(year) else _MONTH_LENGTHS[month]


def _is_leap(year: int) -> bool:
    return year % 4 == 0 and (year % 100 != 0 or year % 400 == 0)


@lru_cache(maxsize=8192)
def _days_of_month(
    month_days: tuple[int, ...], weekdays: tuple[tuple[int, int], ...], first_weekday: int, length: int
) -> tuple[int, ...]:
    """The days of a month, counted from 0, that two BY-parts allow together."""
    return tuple(
        n
        for n in range(length)
        if (not month_days or n + 1 in month_days or n - length in month_days)
        and (not weekdays or _is_weekday(weekdays, (first_weekday + n) % 7, n, length))
    )


def _is_weekday(weekdays: tuple[tuple[int, int], ...], weekday: int, n: int, length: int) -> bool:
    """Whether day `n` (from 0) of a stretch of `length` days is one of these, perhaps numbered, weekdays."""
    from_start, from_end = n // 7 + 1, -((length - 1 - n) // 7 + 1)
    return any(day == weekday and number in (0, from_start, from_end) for number, day in weekdays)


def _days_of_year(shape: _Shape, year: int) -> tuple[int, ...]:
    start = dt.date(year, 1, 1).toordinal()
    offsets = _year_offsets(shape, (start - 1) % 7, _is_leap(year), _is_leap(year - 1))
    return tuple([start + offset for offset in offsets])


@lru_cache(maxsize=4096)
def _year_offsets(shape: _Shape, first_weekday: int, leap: bool, leap_before: bool) -> tuple[int, ...]:
    """The days of a year of one kind, counted from 0, that all parts allow together."""
    length = 366 if leap else 365
    found: list[int] = []
    start = 0
    for month, plain_length in enumerate(_MONTH_LENGTHS):
        month_length = plain_length + (leap and month == 1)
        if not shape.months or month + 1 in shape.months:
            numbered = shape.weekdays if shape.ordinals_in_month else ()
            days = _days_of_month(shape.month_days, numbered, (first_weekday + start) % 7, month_length)
            found += [start + n for n in days]
        start += month_length
    if shape.weekdays and not shape.ordinals_in_month:
        found = [n for n in found if _is_weekday(shape.weekdays, (first_weekday + n) % 7, n, length)]
    if shape.year_days:
        found = [n for n in found if n + 1 in shape.year_days or n - length in shape.year_days]
    if shape.weeks:
        weeks = _week_numbers(shape.week_start, first_weekday, length, 366 if leap_before else 365)
        found = [n for n in found if not {*weeks[n]}.isdisjoint(shape.weeks)]
    return tuple(found)


@lru_cache(maxsize=256)
def _week_numbers(week_start: int, first_weekday: int, length: int, before: int) -> list[tuple[int, int]]:
    """Each day's week number from the start and, negative, from the end of the year that its week is in.

    The first week has at least four days in the year (RFC 5545, 3.3.10, BYWEEKNO).
    """

    def first_week(weekday: int) -> int:
        """The offset from 1 January of the day on which week 1 begins."""
        lead = (weekday - week_start) % 7
        return -lead if lead <= 3 else 7 - lead

    here = first_week(first_weekday)
    earlier = first_week((first_weekday - before) % 7) - before
    later = first_week((first_weekday + length) % 7) + length
    beyond = later + 371  # long enough: only its first week reaches into this year
    numbers = []
    for n in range(length):
        start, end = (earlier, here) if n < here else (here, later) if n < later else (later, beyond)
        count = (end - start) // 7
        number = (n - start) // 7 + 1
        numbers.append((number, number - count - 1))
    return numbers


def _allows(shape: _Shape, day: int) -> bool:
    """Whether one day is allowed, by the set of its year."""
    days = _days_of_year_set(shape, dt.date.fromordinal(day).year)
    return day in days


@lru_cache(maxsize=256)
def _days_of_year_set(shape: _Shape, year: int) -> frozenset[int]:
    return frozenset(_days_of_year(shape, year))


# -- times of day -------------------------------------------------------------------------------------


def _timed(rule: Rule, begin: Start, low: int, last: int, closed: Container[int]) -> Iterator[Start]:
    """The starts of a rule with times of its own, from `begin` on."""
    found = _within_days(rule, begin, low, last, closed) if rule.freq in _UNITS else (
        _times_on_days(rule, begin, low, last, closed)
    )  # fmt: skip
    for start in found:
        if start[0] > last:
            return
        if start >= begin and start[0] >= low:
            yield start


def _times_on_days(rule: Rule, begin: Start, low: int, last: int, closed: Container[int]) -> Iterator[Start]:
    """Days of a daily or longer rule, each with every time of day that the rule names."""
    secs = begin[1]
    times = sorted(
        hour * 3600 + minute * 60 + second
        for hour, minute, second in product(
            rule.hours or (secs // 3600,), rule.minutes or (secs // 60 % 60,), rule.seconds or (secs % 60,)
        )
    )
    shape_only = rule._replace(hours=(), minutes=(), seconds=())
    if not rule.positions:
        for day in _from_to(_picked(shape_only, begin[0], low, last, closed), max(low, begin[0]), last):
            for time in times:
                yield day, time
        return
    for period in _periods(shape_only, begin[0], low, last):
        every = [(day, time) for day in period if day not in closed for time in times]
        yield from _at_positions(every, rule.positions)


def _within_days(rule: Rule, begin: Start, low: int, last: int, closed: Container[int]) -> Iterator[Start]:
    """The starts of an hourly, minutely or secondly rule, day by day."""
    units = _UNITS[rule.freq]
    unit_secs = 86_400 // units
    first_unit = begin[1] // unit_secs
    within = _within_unit(rule, begin[1])
    if rule.positions:
        within = _at_positions(within, rule.positions)
    allowed = _allowed_units(rule, units)
    step = gcd(rule.interval, units)
    if not within or (allowed is not None and all((unit - first_unit) % step for unit in allowed)):
        return  # no unit that the interval reaches is allowed: on no day will there be one
    days_rule = Rule("DAILY", 1, months=rule.months, weeks=rule.weeks, year_days=rule.year_days,
                     month_days=rule.month_days, weekdays=rule.weekdays, week_start=rule.week_start)  # fmt: skip
    for day in _days(days_rule, begin[0], max(low, begin[0]), last, closed):
        skipped = (first_unit - (day - begin[0]) * units) % rule.interval
        for unit in range(skipped, units, rule.interval):
            if allowed is None or unit in allowed:
                for secs in within:
                    yield day, unit * unit_secs + secs


def _within_unit(rule: Rule, secs: int) -> list[int]:
    """The seconds within an hour, minute or second at which a rule starts."""
    if rule.freq == "SECONDLY":
        return [0]
    seconds = rule.seconds or (secs % 60,)
    if rule.freq == "MINUTELY":
        return sorted(seconds)
    return sorted(m * 60 + s for m, s in product(rule.minutes or (secs // 60 % 60,), seconds))


def _allowed_units(rule: Rule, units: int) -> frozenset[int] | None:
    """The hours, minutes or seconds of a day that BY-parts allow; None: all."""
    parts = [rule.hours or range(24)]
    if units > 24:
        parts.append(rule.minutes or range(60))
    if units > 1440:
        parts.append(rule.seconds or range(60))
    is_free = not (rule.hours or (units > 24 and rule.minutes) or (units > 1440 and rule.seconds))
    if is_free:
        return None
    found = []
    for numbers in product(*parts):
        unit = 0
        for number in numbers:
            unit = unit * 60 + number
        found.append(unit)
    return frozenset(found)
