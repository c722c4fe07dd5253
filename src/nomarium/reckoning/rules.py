"""Recurrence rules between their text and plain data (RFC 5545, 3.3.10)."""

import contextlib
import datetime as dt
import re
from functools import lru_cache
from typing import NamedTuple

from nomarium.model.entry import as_utc
from nomarium.model.recurrence import FREQUENCIES, Rule
from nomarium.reckoning.values import moment_of

WEEKDAY_CODES = ("MO", "TU", "WE", "TH", "FR", "SA", "SU")


NO_END = 9000
"""UNTIL in this year or later is how some programs write that there is no end (99991231T235959Z)."""


class RuleFault(NamedTuple):
    """A rule that cannot be: which part, and why."""

    part: str
    message: str


class _RuleError(Exception):
    def __init__(self, part: str, why: str) -> None:
        super().__init__(why)
        self.fault = RuleFault(part, why)


_NUMBERS: dict[str, tuple[str, int, int, bool]] = {
    # part: (field, lowest, highest, whether it counts from the end when negative)
    "BYMONTH": ("months", 1, 12, False),
    "BYWEEKNO": ("weeks", 1, 53, True),
    "BYYEARDAY": ("year_days", 1, 366, True),
    "BYMONTHDAY": ("month_days", 1, 31, True),
    "BYHOUR": ("hours", 0, 23, False),
    "BYMINUTE": ("minutes", 0, 59, False),
    "BYSECOND": ("seconds", 0, 60, False),
    "BYSETPOS": ("positions", 1, 366, True),
}
_LONGEST_MONTH = (31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)


@lru_cache(maxsize=4096)
def parse_rule(text: str) -> Rule | RuleFault:
    """The rule of a text such as `FREQ=WEEKLY;BYDAY=MO,WE;COUNT=10`, or which of its parts is wrong.

    More is taken than RFC 5545 allows where the meaning is plain: any order and case of the parts, a
    BY-part that a frequency may not have (it limits), BYSETPOS alone, ±1 before a weekday of a week.

    >>> parse_rule("FREQ=MONTHLY;BYDAY=-1FR").weekdays
    ((-1, 4),)
    >>> parse_rule("FREQ=YEARLY;BYMONTH=13").message
    'BYMONTH=13 is not within 1 to 12.'
    """
    try:
        return _parsed(text)
    except _RuleError as error:
        return error.fault


def _parsed(text: str) -> Rule:
    parts: dict[str, str] = {}
    plain = re.sub(r"\s", "", text.upper()).removeprefix("RRULE:")
    for piece in plain.split(";"):
        name, sign, value = piece.partition("=")
        if not piece:
            continue
        if not sign or not value:
            raise _RuleError(name, f"{piece} has no value.")
        if parts.setdefault(name, value) != value:
            raise _RuleError(name, f"{name} is given twice, as {parts[name]} and {value}.")
    freq = parts.pop("FREQ", "")
    if freq not in FREQUENCIES:
        raise _RuleError("FREQ", f"FREQ={freq} is no frequency." if freq else "It has no FREQ.")
    values: dict[str, object] = {"freq": freq, "interval": _whole(parts, "INTERVAL") or 1}
    if parts.get("COUNT", "").startswith("-"):  # some programs write COUNT=-1 for no end
        del parts["COUNT"]
    values["times"] = _whole(parts, "COUNT")
    if "UNTIL" in parts:
        if values["times"] is not None:
            raise _RuleError("COUNT", "It has both COUNT and UNTIL, which may contradict each other.")
        values["until"], values["until_is_utc"] = _until(parts.pop("UNTIL"))
    for name, (field, low, high, signed) in _NUMBERS.items():
        if name in parts:
            values[field] = _numbers(name, parts.pop(name), low, high, signed)
    if "BYDAY" in parts:
        values["weekdays"] = _weekdays(parts.pop("BYDAY"), freq, bool(values.get("weeks")))
    if "WKST" in parts:
        code = parts.pop("WKST")
        if code not in WEEKDAY_CODES:
            raise _RuleError("WKST", f"WKST={code} is no weekday.")
        values["week_start"] = WEEKDAY_CODES.index(code)
    if parts.get("RSCALE", "GREGORIAN") != "GREGORIAN":
        raise _RuleError("RSCALE", f"RSCALE={parts['RSCALE']}: only the Gregorian calendar is known.")
    for name in parts:
        if name not in ("RSCALE", "SKIP") and not name.startswith("X-"):
            raise _RuleError(name, f"{name} is no part of a rule.")
    rule = Rule(**values)  # type: ignore[arg-type]
    _refuse_impossible(rule)
    return rule


def with_local_until(rule: Rule, first: dt.date | dt.datetime, zone: dt.tzinfo | None) -> Rule:
    """A rule whose UNTIL is in the local time of its first date-time, and a date where that is a date (3.3.10)."""
    until = rule.until
    if not isinstance(until, dt.datetime):
        return rule
    if rule.until_is_utc and zone is not None:
        with contextlib.suppress(OverflowError):  # of the year 1: no zone makes a difference
            until = until.replace(tzinfo=dt.UTC).astimezone(zone).replace(tzinfo=None, fold=0)
    is_timed = isinstance(first, dt.datetime)
    return rule._replace(until=until if is_timed else until.date(), until_is_utc=False)


def with_written_until(rule: Rule, first: dt.date | dt.datetime, zone: dt.tzinfo | None) -> Rule:
    """The same the other way: UNTIL as a calendar file must have it, in UTC where its first date-time has a zone."""
    until = rule.until
    if until is None or rule.until_is_utc:
        return rule
    if not isinstance(first, dt.datetime):
        return rule._replace(until=until.date() if isinstance(until, dt.datetime) else until)
    if not isinstance(until, dt.datetime):
        until = dt.datetime.combine(until, dt.time(23, 59, 59))
    if zone is None:
        return rule._replace(until=until)
    return rule._replace(until=as_utc(until, zone), until_is_utc=True)


def _whole(parts: dict[str, str], name: str) -> int | None:
    text = parts.pop(name, None)
    if text is None:
        return None
    if not re.fullmatch(r"[0-9]{1,18}", text) or int(text) == 0:
        raise _RuleError(name, f"{name}={text} is not a whole number from 1.")
    return int(text)


def _numbers(name: str, text: str, low: int, high: int, signed: bool) -> tuple[int, ...]:
    found = set()
    for piece in text.split(","):
        if not re.fullmatch(r"[+-]?\d{1,4}", piece):
            raise _RuleError(name, f"{name}={text} is not a list of whole numbers.")
        number = int(piece)
        if not low <= (abs(number) if signed else number) <= high:
            shown = f"{low} to {high}" + (f" or -{low} to -{high}" if signed else "")
            raise _RuleError(name, f"{name}={piece} is not within {shown}.")
        found.add(59 if name == "BYSECOND" and number == 60 else number)  # 3.3.10: a leap second
    return tuple(sorted(found))


def _weekdays(text: str, freq: str, has_weeks: bool) -> tuple[tuple[int, int], ...]:
    found = []
    for piece in text.split(","):
        match = re.fullmatch(r"([+-]?\d{1,2})?([A-Z]{2})", piece)
        if not match or match[2] not in WEEKDAY_CODES:
            raise _RuleError("BYDAY", f"BYDAY={piece} is no weekday.")
        ordinal = int(match[1] or 0)
        if match[1] and not 1 <= abs(ordinal) <= 53:
            raise _RuleError("BYDAY", f"BYDAY={piece}: a weekday's number is 1 to 53 or -1 to -53.")
        if ordinal and (freq not in ("YEARLY", "MONTHLY") or has_weeks):
            if abs(ordinal) > 1:
                where = "with BYWEEKNO" if has_weeks else f"in a {freq} rule"
                raise _RuleError("BYDAY", f"BYDAY={piece}: a weekday has no number {where}.")
            ordinal = 0  # the first or last Tuesday of a week is its Tuesday
        found.append((ordinal, WEEKDAY_CODES.index(match[2])))
    return tuple(dict.fromkeys(found))


def _until(text: str) -> tuple[dt.date | dt.datetime | None, bool]:
    """The last moment, and whether it is in UTC; None for one that means no end."""
    try:
        found = moment_of(text)
        if found is None:
            raise ValueError
        day, offset = found
        is_utc = offset is not None and isinstance(day, dt.datetime)
        until = day - offset if offset is not None and isinstance(day, dt.datetime) else day
    except (ValueError, OverflowError) as error:
        raise _RuleError("UNTIL", f"UNTIL={text} is not a date.") from error
    return (None, False) if until.year >= NO_END else (until, is_utc)


def _refuse_impossible(rule: Rule) -> None:
    """Refuse a rule that can never match, where one part shows it."""
    if rule.months and rule.month_days:
        longest = max(_LONGEST_MONTH[month - 1] for month in rule.months)
        if min(map(abs, rule.month_days)) > longest:
            days = ",".join(map(str, rule.month_days))
            raise _RuleError("BYMONTHDAY", f"BYMONTHDAY={days}: BYMONTH leaves no month with such a day.")
    if rule.freq == "MONTHLY" and rule.weekdays and all(abs(number) > 5 for number, _ in rule.weekdays):
        raise _RuleError("BYDAY", "BYDAY: no month has a weekday more than five times.")


def rule_text(rule: Rule) -> str:
    """The text of a rule, its parts in the order of the RFC's grammar.

    >>> rule_text(Rule("WEEKLY", 2, weekdays=((0, 1),)))
    'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU'
    """
    parts = [f"FREQ={rule.freq}"]
    if rule.until is not None:
        parts.append(f"UNTIL={until_text(rule.until, rule.until_is_utc)}")
    if rule.times is not None:
        parts.append(f"COUNT={rule.times}")
    if rule.interval != 1:
        parts.append(f"INTERVAL={rule.interval}")
    for name in ("BYSECOND", "BYMINUTE", "BYHOUR"):
        parts += _listed(rule, name)
    if rule.weekdays:
        days = ",".join(f"{number or ''}{WEEKDAY_CODES[day]}" for number, day in rule.weekdays)
        parts.append(f"BYDAY={days}")
    for name in ("BYMONTHDAY", "BYYEARDAY", "BYWEEKNO", "BYMONTH", "BYSETPOS"):
        parts += _listed(rule, name)
    if rule.week_start:
        parts.append(f"WKST={WEEKDAY_CODES[rule.week_start]}")
    return ";".join(parts)


def _listed(rule: Rule, name: str) -> list[str]:
    values = getattr(rule, _NUMBERS[name][0])
    return [f"{name}={','.join(map(str, values))}"] if values else []


def until_text(until: dt.date | dt.datetime, is_utc: bool) -> str:
    """A date or date-time as UNTIL writes it."""
    if isinstance(until, dt.datetime):
        return f"{until:%Y%m%dT%H%M%S}" + ("Z" if is_utc else "")
    return f"{until:%Y%m%d}"
