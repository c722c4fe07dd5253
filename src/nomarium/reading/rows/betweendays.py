"""What a first day and a last day mean for a row: one event that lasts, one on each day, or one on a weekday of each week."""

import datetime as dt
from typing import TYPE_CHECKING

from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text
from nomarium.reading.cells.times import Clock

if TYPE_CHECKING:
    from nomarium.model.recurrence import Rule

REPEATED = ("repeat", "weeks")
"""Values of `Said.spans`: a repeat or a weekday of this row says on which of the days it is held."""


def rule_between(
    weekdays: tuple[int, ...], spans: str, first: dt.date, last: dt.date, start: Clock, end: Clock,
    notes: list[str],
) -> "Rule | Refusal | None":  # fmt: skip
    """How times repeat from a first to a last day; None when they are the ends of one long event."""
    from nomarium.model.recurrence import Rule

    days = (last - first).days
    is_of_some = spans != "whole" and set(weekdays) != {first.weekday()} and len(weekdays) <= days
    within = {(first + dt.timedelta(n)).weekday() for n in range(min(days, 6) + 1)}
    if weekdays and is_of_some and days <= 6 and not within.issuperset(weekdays):
        message = f"From {first} to {last} not all of its weekdays come."
        return Refusal("weekday-unknown", message, "Correct the weekdays, or the days.")
    if weekdays and (days > 6 or spans == "weeks" or is_of_some):
        notes.append("spans-weekly")
        return Rule("WEEKLY", until=last, weekdays=tuple((0, weekday) for weekday in weekdays))
    if spans in ("whole", *REPEATED) or (days == 1 and end.secs <= start.secs):
        return None
    if spans == "daily":
        notes.append("spans-daily")
        return Rule("DAILY", until=last)
    if spans == "weekday":
        message = f"From {first} to {last}, both on a {first:%A}: every week, on each of these days, or one long event?"
        remedy = "For every week give it a column of weekdays, or a repeat (“weekly”); else say --spans daily or --spans whole."
        return Refusal("spans-open", message, remedy)
    message = (
        f"From {first} to {last}, {clock_text(start.secs)} to {clock_text(end.secs)}: an event on each of these days, or "
        "one long event?"
    )
    return Refusal("spans-open", message, "Say which: --spans daily or --spans whole.")


def weekly_or_long(weekdays: tuple[int, ...], spans: str, first: dt.date, last: dt.date) -> Refusal | None:
    """What is open in a row without a time whose weekday is not that of its first day, or is that of both its days, weeks
    apart: a long event has no weekday but that on which it begins."""
    days = (last - first).days
    if not weekdays or days < 7 or spans in ("whole", *REPEATED):
        return None
    if first.weekday() in weekdays and last.weekday() not in weekdays:
        return None
    message = f"From {first} to {last}, on a {first + dt.timedelta((weekdays[0] - first.weekday()) % 7):%A}, and no time: an event every week, or one long event?"
    return Refusal("weekly-open", message, "Say which: --set repeat=weekly or --spans whole.")
