"""What a row says about repeating, with its dates settled: from the first to the last."""

import datetime as dt
from itertools import islice
from typing import NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text, counted
from nomarium.reading.cells.dates import Day, Days
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.cells.repeatclauses import Months
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.cells.repeatsaid import said
from nomarium.reading.cells.times import Times
from nomarium.reading.columns.clocks import times_in_their_halves
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.together import last_of_weeks, on_one_day, said_together, to_its_week, told_rule
from nomarium.reading.rows.when import Blame, When, recurrence_of
from nomarium.reckoning.rules import NO_END, rule_text, with_local_until
from nomarium.reckoning.starts import starts
from nomarium.reckoning.zones import zone_named

_WHOLE_YEAR = (1, 12)
_DAY = dt.timedelta(days=1)
_LONGEST_RANGE = 400
_WITHIN_DAYS = ("HOURLY", "MINUTELY", "SECONDLY")


class Bounds(NamedTuple):
    """What the command line says about repeats."""

    last_day: dt.date | None = None
    """--until: the end of a repeat that has none."""
    knows_days_off: bool = False
    """Whether days off or public holidays were given."""
    first_day: dt.date | None = None
    """--from: where a repeat begins that says no first day."""
    length_secs: int = 3600
    tells: bool = True
    """Whether a note says how each phrase was understood."""
    zone: str | None = None
    """The zone of times that a repeat says, where the row has none of its own."""


def bounds_of(options: ReadingOptions) -> Bounds:
    """What a reading was told about repeats."""
    return Bounds(
        options.last_repeat,
        options.knows_days_off,
        options.repeats_from,
        options.length_secs,
        options.tells_repeats,
        options.zone,
    )


class Repeated(NamedTuple):
    """A row's date or dates, and how they repeat."""

    when: When
    recurrence: Recurrence
    notes: tuple[Problem, ...] = ()


def repeated(
    when: When, values: dict[str, FieldValue], decisions: Decisions, bounds: Bounds
) -> Repeated | Blame:
    """The recurrence of a row from its `repeat`, `except` and `also-on` cells. `when` is its own date."""
    told, has_first_day = told_rule(when), when.rule is not None
    together = said_together(when, values, bounds.last_day)
    if isinstance(together, Blame):
        return together
    when, repeat = together
    if repeat is not None and repeat.clock is not None:
        clock = times_in_their_halves(repeat.text, repeat.clock, decisions.clock)
        if isinstance(clock, Refusal):
            return Blame("repeat", clock)
        timed = _at_its_time(when, clock, bounds.length_secs, values.get("timezone") or bounds.zone)
        if isinstance(timed, Blame):
            return timed
        when = timed
    begin = when.start.date() if isinstance(when.start, dt.datetime) else when.start
    also = _days(values.get("also-on") or (), begin, decisions)
    if isinstance(also, Refusal):
        return Blame("also-on", also)
    left_out = _days(((repeat.left_out if repeat else ()) + (values.get("except") or ())), begin, decisions)
    if isinstance(left_out, Refusal):
        return Blame("except", left_out)
    if repeat is None and when.rule is not None:  # a first and a last day, and times
        recurrence = recurrence_of(when.rule)._replace(also_on=tuple(also), left_out=tuple(left_out))
        return Repeated(when, recurrence, tuple(_idle(left_out, when.rule, when)))
    if repeat is None and when.recurrence is not None and told is not None:
        known = when.recurrence
        recurrence = known._replace(also_on=(*known.also_on, *also), left_out=(*known.left_out, *left_out))
        return Repeated(when, recurrence, tuple(_idle(left_out, told, when)))
    if repeat is None:
        if left_out and not also:
            message = "The row leaves out dates, and nothing in it repeats."
            return Blame("except", Refusal("except-alone", message, "Say how it repeats, or clear the cell."))
        return Repeated(when, Recurrence(also_on=tuple(also), left_out=tuple(left_out), keeps_length=True))
    if repeat.needs_days_off and not bounds.knows_days_off:
        message = f"“{repeat.text}” leaves out holidays, and nothing says when they are."
        remedy = "Give --days-off FILE or --public-holidays CODE."
        return Blame("repeat", Refusal("days-off-missing", message, remedy))
    if repeat.dates is not None:
        return _on_dates(repeat, when, begin, also, left_out, decisions)
    settled = _bounded(repeat, when, begin, decisions, bounds)
    if isinstance(settled, Blame):
        return settled
    when, rule, notes = settled
    if next(iter(starts(rule, when.start)), None) is None:
        until = f" to {rule.until}" if rule.until else ""
        message = f"No date from {_date(when.start)}{until} is one of “{repeat.text}”."
        return Blame("repeat", Refusal("repeat-never", message, "Correct the repeat or its dates."))
    notes += _idle(left_out, rule, when)
    if told is not None and rule.interval > 1 and not has_first_day:
        notes.append(_counts_from(repeat, next(iter(starts(rule, when.start)))))
    recurrence = Recurrence(
        (rule,), also_on=tuple(also), left_out=tuple(left_out), starts_itself=False, keeps_length=True,
        on_school_days=repeat.on_school_days,
    )  # fmt: skip
    is_own = told is not None and not {"repeat", "repeat-times"}.isdisjoint(values)  # beside weekdays
    return Repeated(when, recurrence, (*([echo(repeat, rule)] if bounds.tells or is_own else []), *notes))


def _at_its_time(when: When, clock: Times, length_secs: int, zone: str | None) -> When | Blame:
    """A row's date or dates at the time that its repeat says, in the zone of this name."""
    assert clock.start is not None
    if isinstance(when.start, dt.datetime):
        if when.start.time() == (dt.datetime.min + dt.timedelta(seconds=clock.start.secs)).time():
            return when
        message = (
            f"The repeat is at {clock_text(clock.start.secs)}, and the row's own time is {when.start:%-H:%M}."
        )
        return Blame("repeat", Refusal("time-conflict", message, "Make them agree."))
    last = when.end - _DAY
    start = dt.datetime.combine(when.start, dt.time()) + dt.timedelta(seconds=clock.start.secs)
    secs = clock.end.secs - clock.start.secs if clock.end is not None else length_secs
    end = dt.datetime.combine(last, dt.time()) + dt.timedelta(seconds=clock.start.secs + secs % 86_400)
    return when._replace(start=start, end=end, zone=zone)


def _counts_from(repeat: Repeat, first: dt.date | dt.datetime) -> Problem:
    """The note of a row that is held in some weeks and says no first day."""
    message = f"“{repeat.text}” counts from {_date(first)}."
    return note("repeat-first", message, "If it is held in the other weeks, give the row its first day.")


def _on_dates(
    repeat: Repeat,
    when: When,
    begin: dt.date,
    also: list[dt.date],
    left_out: list[dt.date],
    decisions: Decisions,
) -> Repeated | Blame:
    """A repeat whose dates a school year gives."""
    assert repeat.dates is not None
    bounds = []
    for day, default in ((repeat.first, begin), (repeat.last, dt.date.max)):
        settled = _near(day, begin, decisions) if day is not None else default
        if isinstance(settled, Refusal):
            return Blame("repeat", settled)
        bounds.append(settled)
    dates = [date for date in repeat.dates(begin) if bounds[0] <= date <= bounds[1]]
    if repeat.span is not None:
        dates = [date for date in dates if date < _after(begin, *repeat.span)]
    dates = dates[: repeat.times]
    if not dates:
        message = f"No date from {begin} on is one of “{repeat.text}”."
        return Blame("repeat", Refusal("repeat-never", message, "Correct the repeat or its dates."))
    told = note("repeat-read", f"“{repeat.text}” is {len(dates)} dates from {dates[0]} to {dates[-1]}.")
    recurrence = Recurrence(
        also_on=(*dates, *also), left_out=tuple(left_out), starts_itself=False, keeps_length=True
    )
    return Repeated(when, recurrence, (told._replace(cell=repeat.text),))


def echo(repeat: Repeat, rule: Rule) -> Problem:
    """What was understood, in plain words and as the rule with its end; its `cell` is the phrase."""
    words = said(rule, repeat.on_school_days)
    told = note("repeat-read", f"“{repeat.text}” is read as {words} ({rule_text(rule)}).")
    return told._replace(cell=repeat.text)


_MOST_COUNTED = 5000
"""Dates of a repeat that are compared with a last day."""


def _bounded(
    repeat: Repeat, when: When, begin: dt.date, decisions: Decisions, bounds: Bounds
) -> tuple[When, Rule, list[Problem]] | Blame:
    """The first date and the rule with its end."""
    rule, notes = _rule_at(repeat.rule, when), list[Problem]()
    if not isinstance(when.start, dt.datetime) and rule.freq in _WITHIN_DAYS:
        message = f"“{repeat.text}” repeats within a day, and the row has no time."
        return Blame(
            "repeat", Refusal("repeat-untimed", message, "Give the row a time, or repeat it by days.")
        )
    of_weeks = last_of_weeks(rule, when)
    if repeat.first is not None:
        first = _near(repeat.first, begin, decisions, back=True)
        if isinstance(first, Refusal):
            return Blame("repeat", first)
        if first < begin:
            message = f"The repeat starts on {first}, and the row's date is {begin}."
            return Blame("repeat", Refusal("date-conflict", message, "Make them agree."))
        when = _moved(when, first - begin)
    when = _moved(when, to_its_week(rule, when))
    begin = _date(when.start)
    ends: dt.date | None = None
    if repeat.last is not None:
        last = _near(repeat.last, begin, decisions)
        if isinstance(last, Refusal):
            return Blame("repeat", last)
        if last < begin:
            message = f"The repeat ends on {last}, before it starts on {begin}."
            return Blame("repeat", Refusal("repeat-ends-early", message, "Correct one of the dates."))
        ends = last if last.year < NO_END else None
    if ends is not None:
        rule = rule._replace(until=ends)
        if (doubt := _ends_elsewhere(repeat, rule, when, ends)) is not None:
            return doubt
    elif repeat.times is not None:
        rule = rule._replace(times=repeat.times)
    elif repeat.span is not None:
        rule = rule._replace(until=_after(begin, *repeat.span) - _DAY)
    elif rule.is_endless and of_weeks is not None:
        rule = rule._replace(until=of_weeks)
        when = on_one_day(when)
        notes.append(_last_day_told())
    elif rule.is_endless and repeat.months is not None and repeat.months[:2] != _WHOLE_YEAR:
        rule = rule._replace(until=_end_of_months(begin, repeat.months))
    elif rule.is_endless:
        if bounds.last_day is None or rule.freq in ("MINUTELY", "SECONDLY"):
            message = f"“{repeat.text}” has no end."
            remedy = "Say until when in the cell (until 18 June), or for all with --until DATE."
            if rule.freq in ("MINUTELY", "SECONDLY"):
                remedy = "Say until when in the cell: COUNT=12, or UNTIL=20270618T150000."
            return Blame("repeat", Refusal("repeat-endless", message, remedy))
        if bounds.last_day < begin:
            rule = rule._replace(until=begin + 400 * _DAY)  # left out by the window, all of it
        else:
            rule = rule._replace(until=bounds.last_day)
    if of_weeks is not None and not notes:
        return _to_its_last_day(rule, when, of_weeks)
    return when, rule, notes


def _to_its_last_day(rule: Rule, when: When, last: dt.date) -> tuple[When, Rule, list[Problem]] | Blame:
    """A row whose repeat has an end of its own, on its first day; a problem where its last day is another end."""
    when = on_one_day(when)
    if not _ends_on(rule, when, last):
        message = f"The row's last day is {last}, and its repeat has another end."
        return Blame("repeat", Refusal("repeat-ends-twice", message, "Make them agree, or leave one blank."))
    return when, rule, [_last_day_told()]


def _ends_on(rule: Rule, when: When, last: dt.date) -> bool:
    """Whether the last date of a rule with an end is that day, or the next one would be after it."""
    endless = rule._replace(until=None, times=None)
    final = max((_date(start) for start in islice(starts(rule, when.start), _MOST_COUNTED)), default=last)
    after = next((day for start in starts(endless, when.start) if (day := _date(start)) > final), dt.date.max)
    return final <= last < after


def _last_day_told() -> Problem:
    message = (
        "The end date of a row that repeats, later than its next date, is read as the repeat's last day."
    )
    return note("repeat-end-date", message)


def _end_of_months(begin: dt.date, months: Months) -> dt.date:
    """The last day of the months in which something is held, for the run of them in which a day is."""
    year = begin.year + (begin.month > months.last)
    return _after(dt.date(year, months.last, 1), 1, "month") - _DAY


def _rule_at(rule: Rule, when: When) -> Rule:
    """A rule whose end in UTC is in the row's own time."""
    zone = zone_named(when.zone) if when.zone and rule.until_is_utc else None
    return with_local_until(rule, when.start, zone)


def _moved(when: When, by: dt.timedelta) -> When:
    return when._replace(start=when.start + by, end=when.end + by)


def _ends_elsewhere(repeat: Repeat, rule: Rule, when: When, ends: dt.date) -> Blame | None:
    """What is wrong with a repeat that says its last day and how long it goes on, too: `14 Sept - 7 Dec (10 weeks)` is thirteen."""
    if repeat.span is not None:
        number, unit = repeat.span
        last = _after(_date(when.start), number, unit) - _DAY
        if 0 <= (last - ends).days < (7 if unit == "week" else 1):
            return None
        message = f"“{repeat.text}” ends on {ends}, and {counted(number, unit)} from {_date(when.start)} end on {last}."
    elif repeat.times is not None:
        held = sum(1 for _ in islice(starts(rule, when.start), _LONGEST_RANGE))
        if repeat.times in (held, held - len(repeat.left_out)):
            return None
        message = (
            f"“{repeat.text}” says {counted(repeat.times, 'time')}, and is {counted(held, 'date')} to {ends}."
        )
    else:
        return None
    return Blame("repeat", Refusal("repeat-ends-twice", message, "Make them agree, or leave one out."))


def _after(begin: dt.date, number: int, unit: str) -> dt.date:
    if unit in ("day", "week"):
        return begin + number * (7 if unit == "week" else 1) * _DAY
    months = begin.month - 1 + number * (12 if unit == "year" else 1)
    year, month = begin.year + months // 12, months % 12 + 1
    for day in range(begin.day, 27, -1):
        try:
            return dt.date(year, month, day)
        except ValueError:
            continue
    return dt.date(year, month, min(begin.day, 28))


def _near(day: Day, begin: dt.date, decisions: Decisions, back: bool = False) -> dt.date | Refusal:
    """A day of a repeat; without a year the first one from the row's date on (`back`: within half a year)."""
    first = begin - 183 * _DAY if back else begin
    last = first + (366 if _has_leap_day(first) else 365) * _DAY - _DAY
    near = decisions._replace(window=(first, last), window_evidence=f"the year from {first}", is_near=True)
    return resolve_day(day, near)


def _has_leap_day(first: dt.date) -> bool:
    leap = first.year if first.month < 3 else first.year + 1
    return leap % 4 == 0 and (leap % 100 != 0 or leap % 400 == 0)


def _days(listed: tuple[Days, ...], begin: dt.date, decisions: Decisions) -> list[dt.date] | Refusal:
    found: list[dt.date] = []
    for days in listed:
        first = _near(days.first, begin, decisions)
        last = _near(days.last, begin, decisions) if days.last else first
        if isinstance(first, Refusal):
            return first
        if isinstance(last, Refusal):
            return last
        if not 0 <= (last - first).days <= _LONGEST_RANGE:
            return Refusal("end-before-start", f"The range from {first} to {last} is none.", "Correct it.")
        found += [first + n * _DAY for n in range((last - first).days + 1)]
    return found


def _idle(left_out: list[dt.date], rule: Rule, when: When) -> list[Problem]:
    """Dates to leave out that are no dates of the repeat: likely a slip."""
    hits = [next(iter(starts(rule, when.start, day, day)), None) is not None for day in left_out]
    idle = [
        str(day)
        for n, day in enumerate(left_out)
        if not any(hits[at] for at in _in_a_row(left_out, n))  # of a range of days, one will do
    ]
    if not idle or len(idle) == len(left_out) > 10:
        return []
    shown = ", ".join(idle[:5])
    return [note("except-idle", f"It leaves out {shown}, on which it would not have been.")]


def _in_a_row(days: list[dt.date], at: int) -> range:
    """The places of the days that follow each other around one of a list."""
    first = last = at
    while first and days[first] - days[first - 1] == _DAY:
        first -= 1
    while last + 1 < len(days) and days[last + 1] - days[last] == _DAY:
        last += 1
    return range(first, last + 1)


def _date(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment
