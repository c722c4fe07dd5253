"""Repeats that hang on one date: `Mon 14 Sept 6pm for 10 weeks`, `Monday 14 September and weekly thereafter`."""

import re
from typing import Final, NamedTuple

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day, Days, read_days
from nomarium.reading.cells.repeatphrases import rule_of_phrase
from nomarium.reading.cells.words import Lexicon

_THEN: Final = r"(?i)[\s,;]*(?:and\s+|then\s+|and\s+then\s+)?(?P<often>.+?)(?:\s+(?:thereafter|after(?:wards?| that)|from then(?: on)?))?$"


class Bounds(NamedTuple):
    """What a phrase says beside its date."""

    first: Day | None
    """A first day, `from 14 Sept`."""
    times: int | None
    span: tuple[int, str] | None
    """(10, "week")."""
    is_timed: bool


class Anchored(NamedTuple):
    """How often something comes again from a date on."""

    rule: Rule
    first: Day


def anchored(core: str, bounds: Bounds, lexicon: Lexicon) -> Anchored | None:
    """What a phrase says that is a date once its clauses are taken away, or is nothing and had its first day among them; None
    where it says neither how long nor how often it goes on. Weeks count on the weekday that stands with the date; days, and
    numbers of times, only where it says the time: `14 Sept for 5 days` is one event of five days."""
    found = read_days(core, lexicon) if core else None
    if isinstance(found, Days) and found.last is None and bounds.first is None:
        first, rest = found.first, found.rest
    elif not core and bounds.first is not None and bounds.span is not None:
        first, rest = bounds.first, ""
    else:
        return None
    if rest:
        return _thereafter(rest, first, lexicon)
    unit = bounds.span[1] if bounds.span is not None else "week" if bounds.times is not None else ""
    if not bounds.is_timed or unit not in ("day", "week") or (unit == "week" and first.weekday is None):
        return None
    return Anchored(Rule("DAILY") if unit == "day" else _on_weekday(first), first)


def _thereafter(rest: str, first: Day, lexicon: Lexicon) -> Anchored | None:
    """A date, and how often it comes again."""
    match = re.match(_THEN, rest)
    found = rule_of_phrase(match["often"], lexicon) if match is not None else None
    if found is None or isinstance(found, Refusal):
        return None
    rule, _ = found
    if rule.freq not in ("DAILY", "WEEKLY") or rule.weekdays:
        return None
    if rule.freq == "WEEKLY" and first.weekday is None:
        return None
    return Anchored(rule if rule.freq == "DAILY" else _on_weekday(first, rule.interval), first)


def _on_weekday(first: Day, interval: int = 1) -> Rule:
    assert first.weekday is not None
    return Rule("WEEKLY", interval, weekdays=((0, first.weekday),))
