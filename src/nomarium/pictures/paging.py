"""Which dates are drawn, and what goes on a page of its own."""

import datetime as dt
from collections.abc import Sequence
from typing import Literal, NamedTuple

from nomarium.pictures.lanes import months_of, next_month
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Shown

Kind = Literal["agenda", "week", "month", "year"]
_DAY = dt.timedelta(days=1)


class Page(NamedTuple):
    """What is drawn in one go."""

    heading: str
    first: dt.date
    last: dt.date
    days: Sequence[dt.date] = ()
    """Of a week: the days that have a column."""


def window_of(
    kind: Kind | Literal["all"],
    events: Sequence[Shown],
    first: dt.date | None,
    last: dt.date | None,
    today: dt.date,
    names: Names,
) -> tuple[dt.date, dt.date]:
    """The dates that are drawn. From the first one that is asked for; else from today, when the calendar goes on, else
    from its first event, in whole weeks and months. To the last one; else one week, month or year, or all of an agenda.
    `all` is everything."""
    begins = min((one.event.first_day for one in events), default=today)
    ends = max((one.event.last_day for one in events), default=today)
    if kind == "all":
        return first or begins, max(last or ends, first or begins)
    if first is None and kind == "year" and ends < _year_from(begins):
        first = begins.replace(day=1)  # a school year is one, however much of it is over
    if first is None:
        start = begins if last is not None or not begins <= today <= ends else today
        first = _whole(kind, start, names)
    if last is None:
        last = _end(kind, first, max(ends, first))
    return first, max(first, last)


def _whole(kind: Kind, day: dt.date, names: Names) -> dt.date:
    if kind == "week":
        return day - (day.weekday() - names.first_weekday) % 7 * _DAY
    return day if kind == "agenda" else day.replace(day=1)


def _end(kind: Kind, first: dt.date, ends: dt.date) -> dt.date:
    if kind == "week":
        return first + 6 * _DAY
    if kind == "month":
        return next_month(first) - _DAY
    if kind == "agenda":
        return ends
    return _year_from(first) - _DAY


def _year_from(day: dt.date) -> dt.date:
    """The first day after twelve months that begin with a date's."""
    return dt.date(day.year + 1, day.month, 1)


def pages_of(kind: Kind, first: dt.date, last: dt.date, names: Names, weekdays: frozenset[int]) -> list[Page]:
    """A page a week or month; an agenda and a year are one, a year of more than twelve months several. `weekdays` are
    those that have a column."""
    if kind == "agenda":
        return [Page(names.span(first, last), first, last)]
    if kind == "week":
        pages = []
        while first <= last:
            end = min(first + 6 * _DAY, last)
            dates = [first + n * _DAY for n in range((end - first).days + 1)]
            days = [day for day in dates if day.weekday() in weekdays] or dates
            pages.append(Page(names.span(days[0], days[-1]), first, end, days))
            first += 7 * _DAY
        return pages
    months = months_of(first, last)
    step = 1 if kind == "month" else 12
    parts = [months[n : n + step] for n in range(0, len(months), step)]
    return [
        Page(
            names.month(part[0]) if kind == "month" else f"{names.month(part[0])} – {names.month(part[-1])}",
            max(part[0], first),
            min(next_month(part[-1]) - _DAY, last),
        )
        for part in parts
    ]
