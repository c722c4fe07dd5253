"""What several cells of a row say about repeating, as one: how often, on which weekday, how many times, until which last day."""

import datetime as dt
from calendar import monthrange
from itertools import islice

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.rows.when import Blame, When
from nomarium.reckoning.starts import starts

_MOST_COUNTED = 10_000
_WEEK = 7
_TWO_ENDS = Refusal(
    "repeat-ends-twice", "The row says twice where its repeat ends.", "Make them agree, or leave one blank."
)

_NO_WEEKDAY = Refusal(
    "repeat-weekday", "", "Write it like 1st and 3rd Tuesday of the month; or give the row its weekday."
)


def said_together(
    when: When, values: dict[str, FieldValue], last_day: object
) -> tuple[When, Repeat | None] | Blame:
    """The repeat of a row from its cells, None where only its date's own cell or its last day says one; and its date without
    what went into the repeat. `last_day` is the end of all rows that have none."""
    repeat: Repeat | None = values.get("repeat")
    counted: Repeat | None = values.get("repeat-times")
    if repeat is None and counted is not None and counted.times is None:
        repeat, counted = counted, None  # which weeks of a month, and not how many
    last: Day | None = values.get("repeat-until")
    if repeat is None and counted is None:
        if last is None:
            return when, None
        return _weekly_until(when, last, values.get("weekdays") or ())
    told = told_rule(when)
    has_last = when.rule is not None or (
        told is not None and told.until is not None and told.until != last_day
    )
    weekdays: tuple[int, ...] = values.get("weekdays") or ()
    if repeat is None:
        assert counted is not None
        held = told.weekdays if told is not None else tuple((0, day) for day in weekdays)
        until = told.until if told is not None and has_last else None
        found: Repeat | Blame = counted._replace(
            rule=Rule("WEEKLY", weekdays=held, until=until), times=None, span=None
        )
        if not held and (of_days := _on_each_day(counted, when)) is not None:
            if isinstance(of_days, Blame):
                return of_days
            found, when = of_days, on_one_day(when)
    elif told is not None:
        found = _on_weekdays_of(told, weekdays, repeat, told.until if has_last else None, when)
    else:
        found = _on_weekdays(weekdays, repeat, when)
    if isinstance(found, Repeat) and found.nth and not (found.rule.weekdays or found.rule.month_days):
        found = Blame("repeat", _NO_WEEKDAY._replace(message=f"“{found.text}” does not say which weekday."))
    if isinstance(found, Blame):
        return found
    ends = counted is not None or last is not None
    if ends and not _has_end(found) and (of_weeks := last_of_weeks(found.rule, when)) is not None:
        found, when = found._replace(rule=found.rule._replace(until=of_weeks)), on_one_day(when)
    if counted is not None:
        found = _so_often(found, counted, when)
    if last is not None and not isinstance(found, Blame):
        found = Blame("repeat-until", _TWO_ENDS) if _has_end(found) else found._replace(last=last)
    return found if isinstance(found, Blame) else (when._replace(rule=None), found)


def _weekly_until(when: When, last: Day, weekdays: tuple[int, ...]) -> tuple[When, Repeat] | Blame:
    """The repeat of a row that says until when, and how often by no more than its weekday."""
    told = told_rule(when)
    held = told.weekdays if told is not None else tuple((0, day) for day in weekdays)
    if not held:
        message = "The row says until when it repeats, and not how."
        return Blame("repeat-until", Refusal("repeat-until-alone", message, "Say how in a column “Repeat”."))
    if when.rule is not None:
        return Blame("repeat-until", _TWO_ENDS)
    rule = Rule("WEEKLY", weekdays=held)
    return when, Repeat(rule, last=last, text="weekly")


def told_rule(when: When) -> Rule | None:
    """The rule that the date's own cell says, or a first and a last day."""
    if when.rule is not None:
        return when.rule
    return when.recurrence.rules[0] if when.recurrence is not None and when.recurrence.rules else None


def _on_each_day(counted: Repeat, when: When) -> Repeat | Blame | None:
    """The repeat of a row that is held on some days of one week, `5-7 Oct`, as often as a cell says: on each of them; None for a row
    of one day, of more than a week, or one that lasts all of these days each week."""
    days = _days_long(when)
    if not 0 < days < _WEEK:
        return None
    begin = when.start.date() if isinstance(when.start, dt.datetime) else when.start
    each_day = counted._replace(rule=Rule("DAILY", until=begin + dt.timedelta(days)), times=None, span=None)
    if counted.span is None or counted.times == 1:
        return each_day
    if not _are_of_one_day(when):
        return None
    message = f"It is held on {days + 1} days in a row, and for {counted.times} weeks: on which days of the others is open."
    remedy = "Give it a column of weekdays; or, if it is held once, leave the number of weeks blank."
    return Blame("repeat-times", Refusal("spans-open", message, remedy))


def last_of_weeks(rule: Rule, when: When) -> dt.date | None:
    """The last day of a row that repeats by this rule, where it is no less than a week or the second date away: the last of its
    dates and not of its first one. So is a nearer one of a row on weekdays whose times are those of one day, `9:00` to `10:50`."""
    days = _days_long(when)
    if days <= 0:
        return None
    found = list(islice(starts(rule, when.start), 2))
    gap = (found[1] - found[0]).days if len(found) == 2 else 10**6
    if days < min(gap, 7 if rule.freq == "WEEKLY" else gap) and not (rule.weekdays and _are_of_one_day(when)):
        return None
    begin = when.start.date() if isinstance(when.start, dt.datetime) else when.start
    return begin + dt.timedelta(days)


def _are_of_one_day(when: When) -> bool:
    """Whether a row's times are a start and a later end of the clock, as those of each of several days are."""
    start, end = when.start, when.end
    return isinstance(start, dt.datetime) and isinstance(end, dt.datetime) and start.time() < end.time()


def to_its_week(rule: Rule, when: When) -> dt.timedelta:
    """From a row's first day to the first of its weekdays: every second Thursday from a Sunday on begins that week's
    Thursday, though by the RFC's weeks the Sunday belongs to the week before."""
    if rule.freq != "WEEKLY" or rule.interval == 1 or not rule.weekdays:
        return dt.timedelta(0)
    weekday = when.start.weekday()
    return dt.timedelta(min((of_week - weekday) % 7 for _, of_week in rule.weekdays))


def on_one_day(when: When) -> When:
    """The first of the days from a row's first to its last."""
    return when._replace(end=when.end - dt.timedelta(_days_long(when)))


def _days_long(when: When) -> int:
    return (when.end - when.start).days - (not isinstance(when.start, dt.datetime))


def _has_end(repeat: Repeat) -> bool:
    return bool(not repeat.rule.is_endless or repeat.last or repeat.times or repeat.span)


def _on_weekdays(weekdays: tuple[int, ...], repeat: Repeat, when: When) -> Repeat | Blame:
    """A repeat on the weekdays that a column of its own says, where it says none itself: by weeks; by months on the one of the month
    that the row's date is; daily on several of them."""
    own = repeat.rule
    if weekdays and repeat.nth:
        of_month = tuple((number, day) for number in repeat.nth for day in weekdays)
        return repeat._replace(rule=own._replace(month_days=(), weekdays=of_month), nth=())
    if not weekdays or repeat.dates is not None or own.weekdays:
        return repeat
    if own.freq == "MONTHLY" and not own.month_days:
        return _on_weekday_of_month(weekdays, repeat, when)
    if own.freq != "WEEKLY" and not (own.freq == "DAILY" and own.interval == 1 and len(weekdays) > 1):
        return repeat
    return repeat._replace(rule=own._replace(freq="WEEKLY", weekdays=tuple((0, day) for day in weekdays)))


def _on_weekday_of_month(weekdays: tuple[int, ...], repeat: Repeat, when: When) -> Repeat | Blame:
    """A monthly repeat of a row that names a weekday: on the second Tuesday, where its date is one."""
    first = when.start
    names = listed([WEEKDAYS[day] for day in weekdays])
    if weekdays != (first.weekday(),):
        message = f"“{repeat.text}” on {names} begins on {first:%Y-%m-%d}, a {WEEKDAYS[first.weekday()]}."
        return Blame("repeat", Refusal("repeat-weekday", message, "Correct the weekday or the date."))
    number = (first.day + 6) // 7
    if number > 3 and first.day + 7 > monthrange(first.year, first.month)[1]:
        message = f"“{repeat.text}” on {names} from {first:%Y-%m-%d} could be the {number}th or the last of each month."
        remedy = f"Say which in the cell: {number}th {names} of the month, or last {names} of the month."
        return Blame("repeat", Refusal("repeat-ambiguous", message, remedy))
    return repeat._replace(rule=repeat.rule._replace(weekdays=((number, weekdays[0]),)))


def _on_weekdays_of(
    told: Rule, weekdays: tuple[int, ...], repeat: Repeat, last: dt.date | None, when: When
) -> Repeat | Blame:
    """A repeat on the weekdays that the date's own cell says, to its own end or the last day of the row."""
    named = weekdays or tuple(day for _, day in told.weekdays)
    is_among = when.start.weekday() in named or bool(repeat.nth)
    if told.freq == "WEEKLY" and repeat.rule.freq != "WEEKLY" and is_among:
        found = _on_weekdays(named, repeat, when)
        if isinstance(found, Blame):
            return found
        if found is not repeat:
            return found if _has_end(found) else found._replace(rule=found.rule._replace(until=last))
    own, held = repeat.rule, tuple((0, day) for day in weekdays) or told.weekdays
    differs = told.freq != "WEEKLY" or own.freq != "WEEKLY"
    if repeat.dates is not None or differs or (own.weekdays and set(own.weekdays) != set(held)):
        message = f"“{repeat.text}” does not go with the weekday of the row."
        remedy = "Say both in one cell (first Tuesday of the month), or leave one of them out."
        return Blame("repeat", Refusal("repeat-weekday", message, remedy))
    until = own.until if _has_end(repeat) else last
    return repeat._replace(rule=own._replace(weekdays=held, until=until))


def _so_often(repeat: Repeat, counted: Repeat, when: When) -> Repeat | Blame:
    """A repeat as often as a column of its own says; where something else ends it too, both must say the same."""
    if not _has_end(repeat):
        rule = repeat.rule
        if counted.span is None or (rule.freq == "WEEKLY" and rule.interval == 1 and len(rule.weekdays) < 2):
            return repeat._replace(times=counted.times)
        return repeat._replace(span=counted.span)
    dates = None
    if not repeat.last and not repeat.span and not repeat.times:
        found = list(islice(starts(repeat.rule, when.start + to_its_week(repeat.rule, when)), _MOST_COUNTED))
        dates = len(found)
        is_same = dates == counted.times
        if counted.span is not None and found:  # so many weeks, each of which may have several
            in_week = (found[-1] - when.start).days // 7 + 1
            is_same = counted.span[0] - repeat.rule.interval < in_week <= counted.span[0]
        if is_same:
            return repeat
    other = f"a first and a last day that make it {dates}" if dates is not None else f"“{repeat.text}”"
    message = f"The row takes place {counted.times} times by one cell, and another says {other}."
    return Blame(
        "repeat-times", Refusal("repeat-ends-twice", message, "Make them agree, or leave one blank.")
    )
