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


def window_of(
    kind: Kind,
    events: Sequence[Shown],
    first: dt.date | None,
    last: dt.date | None,
    today: dt.date,
    names: Names,
) -> tuple[dt.date, dt.date]:
    """The dates that are drawn. From the first one that is asked for; else from today, when the calendar goes on, else
    from its first event, in whole weeks and months. To the last one; else one week, month or year, or all of an agenda."""
    begins = min((one.event.first_day for one in events), default=today)
    ends = max((one.event.last_day for one in events), default=today)
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
    begin = first.replace(day=1)
    return dt.date(begin.year + 1, begin.month, 1) - _DAY


def pages_of(kind: Kind, first: dt.date, last: dt.date, names: Names) -> list[Page]:
    """A page a week or month; an agenda and a year are one, a year of more than twelve months several."""
    if kind == "agenda":
        return [Page(names.span(first, last), first, last)]
    if kind == "week":
        pages = []
        while first <= last:
            end = min(first + 6 * _DAY, last)
            pages.append(Page(names.span(first, end), first, end))
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
