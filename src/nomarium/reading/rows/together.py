"""What several cells of a row say about repeating, as one: how often, on which weekday, how many times, until which last day."""

import datetime as dt
from itertools import islice

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.rows.when import Blame, When
from nomarium.reckoning.starts import starts

_MOST_COUNTED = 10_000


def said_together(
    when: When, values: dict[str, FieldValue], last_day: object
) -> tuple[When, Repeat | None] | Blame:
    """The repeat of a row from its cells, None where only its date's own cell or its last day says one; and its date without
    what went into the repeat. `last_day` is the end of all rows that have none."""
    repeat: Repeat | None = values.get("repeat")
    counted: Repeat | None = values.get("repeat-times")
    if repeat is None and counted is None:
        return when, None
    told = told_rule(when)
    has_last = when.rule is not None or (
        told is not None and told.until is not None and told.until != last_day
    )
    weekday: int | None = values.get("weekday")
    if repeat is None:
        assert counted is not None
        weekdays = told.weekdays if told is not None else () if weekday is None else ((0, weekday),)
        until = told.until if told is not None and has_last else None
        found: Repeat | Blame = counted._replace(
            rule=Rule("WEEKLY", weekdays=weekdays, until=until), times=None, span=None
        )
    elif told is not None:
        found = _on_weekdays_of(told, repeat, told.until if has_last else None)
    else:
        found = _on_weekday(weekday, repeat)
    if isinstance(found, Blame):
        return found
    if counted is not None:
        found = _so_often(found, counted, repeat is not None, when)
    return found if isinstance(found, Blame) else (when._replace(rule=None), found)


def told_rule(when: When) -> Rule | None:
    """The rule that the date's own cell says, or a first and a last day."""
    if when.rule is not None:
        return when.rule
    return when.recurrence.rules[0] if when.recurrence is not None and when.recurrence.rules else None


def _has_end(repeat: Repeat) -> bool:
    return bool(not repeat.rule.is_endless or repeat.last or repeat.times or repeat.span)


def _on_weekday(weekday: int | None, repeat: Repeat) -> Repeat:
    """A repeat by weeks on the weekday that a column of its own says, where it says none itself."""
    own = repeat.rule
    if weekday is None or repeat.dates is not None or own.freq != "WEEKLY" or own.weekdays:
        return repeat
    return repeat._replace(rule=own._replace(weekdays=((0, weekday),)))


def _on_weekdays_of(told: Rule, repeat: Repeat, last: dt.date | None) -> Repeat | Blame:
    """A repeat on the weekdays that the date's own cell says, to its own end or the last day of the row."""
    own = repeat.rule
    differs = told.freq != "WEEKLY" or own.freq != "WEEKLY"
    if repeat.dates is not None or differs or (own.weekdays and set(own.weekdays) != set(told.weekdays)):
        message = f"“{repeat.text}” does not go with the weekday of the row."
        remedy = "Say both in one cell (first Tuesday of the month), or leave one of them out."
        return Blame("repeat", Refusal("repeat-weekday", message, remedy))
    until = own.until if _has_end(repeat) else last
    return repeat._replace(rule=own._replace(weekdays=told.weekdays, until=until))


def _so_often(repeat: Repeat, counted: Repeat, has_phrase: bool, when: When) -> Repeat | Blame:
    """A repeat as often as a column of its own says; where something else ends it too, both must say the same."""
    if not _has_end(repeat):
        if not has_phrase:
            return repeat._replace(times=counted.times)
        return repeat._replace(times=None if counted.span else counted.times, span=counted.span)
    dates = None
    if not repeat.last and not repeat.span and not repeat.times:
        dates = sum(1 for _ in islice(starts(repeat.rule, when.start), _MOST_COUNTED))
        if dates == counted.times:
            return repeat
    found = f"a first and a last day that make it {dates}" if dates is not None else f"“{repeat.text}”"
    message = f"The row takes place {counted.times} times by one cell, and another says {found}."
    return Blame(
        "repeat-times", Refusal("repeat-ends-twice", message, "Make them agree, or leave one blank.")
    )
