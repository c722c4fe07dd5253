"""Rules in plain English, for people to check."""

from nomarium.model.recurrence import Rule
from nomarium.model.wording import MONTHS, WEEKDAYS, listed

_PERIODS = {"YEARLY": "year", "MONTHLY": "month", "WEEKLY": "week", "DAILY": "day", "HOURLY": "hour",
            "MINUTELY": "minute", "SECONDLY": "second"}  # fmt: skip
_WORKDAYS = {(0, day) for day in range(5)}


def said(rule: Rule, on_school_days: bool = False) -> str:
    """A rule in words.

    >>> said(Rule("MONTHLY", weekdays=((2, 3), (4, 3))))
    'every month on the 2nd and 4th Thursday'
    """
    period = _PERIODS[rule.freq]
    text = f"every {period}" if rule.interval == 1 else f"every {rule.interval} {period}s"
    parts = [part for part in (_days(rule, on_school_days), _dates(rule), _times(rule)) if part]
    if rule.months:
        parts.append("in " + listed([MONTHS[month - 1] for month in rule.months]))
    if rule.weeks:
        parts.append(
            "in "
            + listed([f"week {week}" if week > 0 else f"week {-week} from the end" for week in rule.weeks])
        )
    text = " ".join([text, *parts])
    if rule.until is not None:
        text += f" until {rule.until:%Y-%m-%d}"
    if rule.times is not None:
        text += ", once" if rule.times == 1 else f", {rule.times} times"
    return text


def _days(rule: Rule, on_school_days: bool) -> str:
    if not rule.weekdays:
        return ""
    workdays = "school days" if on_school_days else "weekdays"
    if set(rule.weekdays) == _WORKDAYS:
        if rule.positions:
            return f"on the {listed([_ordinal(n) for n in rule.positions])} {workdays[:-1]}"
        return f"on {workdays} (Monday to Friday)"
    plain = [WEEKDAYS[day] for number, day in rule.weekdays if not number]
    named = [f"{_ordinal(number)} {WEEKDAYS[day]}" for number, day in rule.weekdays if number]
    if named and len({day for number, day in rule.weekdays if number}) == 1:
        numbers = listed([_ordinal(number) for number, _ in rule.weekdays if number])
        named = [f"{numbers} {WEEKDAYS[rule.weekdays[0][1]]}"]
    text = "on " + listed([*plain, *(f"the {name}" for name in named)])
    return text + (
        f" (the {listed([_ordinal(n) for n in rule.positions])} of these)" if rule.positions else ""
    )


def _dates(rule: Rule) -> str:
    parts = []
    if rule.month_days:
        parts.append("on the " + listed([_ordinal(day, "day") for day in rule.month_days]))
    if rule.year_days:
        parts.append("on " + listed([f"day {day}" for day in rule.year_days]) + " of the year")
    if rule.positions and not rule.weekdays:
        parts.append(f"(the {listed([_ordinal(n) for n in rule.positions])} of these)")
    return " ".join(parts)


def _times(rule: Rule) -> str:
    parts = [
        f"at {name} {listed([str(n) for n in numbers])}"
        for name, numbers in (("hour", rule.hours), ("minute", rule.minutes), ("second", rule.seconds))
        if numbers
    ]
    return " ".join(parts)


def _ordinal(number: int, of_what: str = "") -> str:
    if number == -1:
        return f"last {of_what}".strip()
    if number < 0:
        return f"{_ordinal(-number)} last {of_what}".strip()
    ending = {1: "st", 2: "nd", 3: "rd"}.get(number % 10 if number // 10 % 10 != 1 else 0, "th")
    return f"{number}{ending}"
