"""A series as one VEVENT with a rule, wherever a rule can say the same occurrences."""

import datetime as dt
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.entry import as_utc
from nomarium.model.event import Event
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.reckoning.series import Occurrence, occurrences
from nomarium.reckoning.starts import starts
from nomarium.reckoning.window import Window

_MOST_LEFT_OUT = 2
"""A rule that leaves out more than this many times what it keeps says little: dated events say it better."""


class RuleEvent(NamedTuple):
    """An event that repeats by rule, the dated events that its rule cannot say, and its last start."""

    event: Event
    apart: list[Occurrence]
    last_start: dt.date | dt.datetime
    date_count: int
    """Occurrences that the rule stands for."""


def as_rule(event: Event, zone: dt.tzinfo | None, found: Sequence[Occurrence]) -> RuleEvent | None:
    """The occurrences `found` of an event by one rule with EXDATEs; None where that cannot be.

    Whoever reads the result by RFC 5545 gets the same occurrences: what a rule would move (an end
    across a clock change) is left out of it and stays a dated event.
    """
    recurrence = event.details.recurrence
    if recurrence is None or len(recurrence.rules) != 1 or len(found) < 2:
        return None
    if zone is not None and event.zone is None:
        return None
    wanted = {one.original: one for one in found if not one.is_replaced}
    if len(wanted) < 2:
        return None
    rule = recurrence.rules[0]
    given = _between(rule, event.start, min(wanted), max(wanted))
    hits = [start for start in given if start in wanted]
    if len(hits) < 2:
        return None
    given = given[given.index(hits[0]) : given.index(hits[-1]) + 1]
    if len(given) - len(hits) > _MOST_LEFT_OUT * len(hits):
        return None
    first = wanted[hits[0]]
    ended = _ended(rule, given, event, zone)
    plain = first.event._replace(start=first.original, details=event.details._replace(recurrence=None))
    if first.is_skipped:
        return None
    said = {one.original: one for one in _said(plain, zone, ended, hits[0])}
    if list(said) != given:
        return None
    same = {start for start in hits if _is_same(said[start].event, wanted[start].event)}
    left_out = tuple(start for start in given if start not in same)
    if len(same) < 2:
        return None
    details = plain.details._replace(recurrence=Recurrence((ended,), left_out=left_out))
    apart = [one for one in found if one.is_replaced or one.original not in same]
    return RuleEvent(plain._replace(details=details), apart, given[-1], len(same))


def _between(
    rule: Rule, begin: dt.date | dt.datetime, first: dt.date | dt.datetime, last: dt.date | dt.datetime
) -> list[dt.date | dt.datetime]:
    first_day, last_day = (day.date() if isinstance(day, dt.datetime) else day for day in (first, last))
    return [start for start in starts(rule, begin, first_day, last_day) if first <= start <= last]


def _ended(rule: Rule, given: list[dt.date | dt.datetime], event: Event, zone: dt.tzinfo | None) -> Rule:
    """The rule with the end that these starts have; UNTIL in UTC where DTSTART has a zone (3.3.10)."""
    if rule.times is not None:
        return rule._replace(times=len(given))
    last = given[-1]
    has_zone = event.zone is not None and isinstance(last, dt.datetime)
    until = as_utc(last, zone) if has_zone and event.zone != "UTC" else last
    return rule._replace(until=until, until_is_utc=has_zone)


def _said(plain: Event, zone: dt.tzinfo | None, rule: Rule, begin: dt.date | dt.datetime) -> list[Occurrence]:
    """What a reader makes of the rule."""
    local = rule
    if rule.until_is_utc and isinstance(rule.until, dt.datetime) and zone is not None:
        until = rule.until.replace(tzinfo=dt.UTC).astimezone(zone).replace(tzinfo=None, fold=0)
        local = rule._replace(until=until, until_is_utc=False)
    elif rule.until_is_utc:
        local = rule._replace(until_is_utc=False)
    details = plain.details._replace(recurrence=Recurrence((local,)), uid="")
    return list(occurrences(plain._replace(start=begin, details=details), zone, Window()))


def _is_same(said: Event, wanted: Event) -> bool:
    return (said.start, said.end) == (wanted.start, wanted.end)
