"""Repeats that hang on one date: `Mon 14 Sept 6pm for 10 weeks`, `Monday 14 September and weekly thereafter`."""

import re
from typing import TYPE_CHECKING, Final

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day, Days, read_days
from nomarium.reading.cells.repeatphrases import rule_of_phrase
from nomarium.reading.cells.words import Lexicon

if TYPE_CHECKING:
    from nomarium.reading.cells.repeats import Repeat

_THEN: Final = r"(?i)[\s,;]*(?:and\s+|then\s+|and\s+then\s+)?(?P<often>.+?)(?:\s+(?:thereafter|after(?:wards?| that)|from then(?: on)?))?$"


def anchored(core: str, clauses: "Repeat", lexicon: Lexicon) -> "Repeat | None":
    """The repeat of a phrase that is a date once its clauses are taken away, or is nothing and had its first day among them; None
    where it says neither how long nor how often it goes on. Weeks count on the weekday that stands with the date; days, and
    numbers of times, only where it says the time: `14 Sept for 5 days` is one event of five days."""
    found = read_days(core, lexicon) if core else None
    if isinstance(found, Days) and found.last is None and clauses.first is None:
        first, rest = found.first, found.rest
    elif not core and clauses.first is not None and clauses.span is not None:
        first, rest = clauses.first, ""
    else:
        return None
    if rest:
        return _thereafter(rest, first, clauses, lexicon)
    unit = clauses.span[1] if clauses.span is not None else "week" if clauses.times is not None else ""
    if unit == "week" and first.weekday is not None and clauses.clock is not None:
        return clauses._replace(rule=_on_weekday(first), first=first)
    if unit == "day" and clauses.span is not None and clauses.clock is not None:
        return clauses._replace(rule=Rule("DAILY"), first=first, times=clauses.span[0], span=None)
    return None


def _thereafter(rest: str, first: Day, clauses: "Repeat", lexicon: Lexicon) -> "Repeat | None":
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
    return clauses._replace(
        rule=rule if rule.freq == "DAILY" else _on_weekday(first, rule.interval), first=first
    )


def _on_weekday(first: Day, interval: int = 1) -> Rule:
    assert first.weekday is not None
    return Rule("WEEKLY", interval, weekdays=((0, first.weekday),))
