"""What a plan comes to, in figures, for people who look before they build."""

import datetime as dt
from collections import Counter, defaultdict
from typing import NamedTuple

from nomarium.model.wording import WEEKDAYS, clock_text
from nomarium.school.bells import weekday_key
from nomarium.school.clashes import Clash, clashes_in
from nomarium.school.events import values_of
from nomarium.school.plan import Plan
from nomarium.school.planheads import plain


class TermFacts(NamedTuple):
    name: str
    first: dt.date
    last: dt.date
    school_days: int
    labels: dict[str, int]
    """How often each label falls, in the order of the cycle."""
    unlabelled: int
    """School days without a label although there is a cycle: they have no classes."""


class BellFacts(NamedTuple):
    schedule: str
    """Schedule, label and division, as far as they are said."""
    periods: int
    first: str
    last: str


class ClassFacts(NamedTuple):
    code: str
    name: str
    meetings: int
    hours: float
    not_met: int


class PlanFacts(NamedTuple):
    """A plan in figures."""

    moves: str
    terms: list[TermFacts]
    days_off: int
    special_days: int
    bells: list[BellFacts]
    classes: list[ClassFacts]
    clashes: list[Clash]


def facts_of(plan: Plan) -> PlanFacts:
    """Count what a plan comes to."""
    terms: dict[str, list[tuple[dt.date, dt.date]]] = defaultdict(list)
    for term in plan.rows.terms:
        terms[term.name].append((term.first, term.last))
    if not terms and plan.year.first and plan.year.last:
        terms[""].append((plan.year.first, plan.year.last))
    term_facts = []
    for name, spans in terms.items():
        days = [day for day in plan.year.days if plain(day.term) == plain(name)]
        counts = Counter(day.label for day in days)
        labels = {label: counts[label] for label in plan.year.labels.names}
        unlabelled = counts[""] if plan.year.labels.names else 0
        term_facts.append(
            TermFacts(name, min(a for a, _ in spans), max(b for _, b in spans), len(days), labels, unlabelled)
        )
    meetings, seconds = Counter[str](), Counter[str]()
    for meeting in plan.meetings:
        meetings[plain(meeting.slot.code)] += 1
        seconds[plain(meeting.slot.code)] += meeting.end_secs - meeting.start_secs
    lost = Counter(plain(one.slot.code) for one in plan.not_met)
    names = {plain(slot.code): values_of(plan, slot)["name"] for slot in plan.slots}
    classes = [
        ClassFacts(code, names[key], meetings[key], round(seconds[key] / 3600, 2), lost[key])
        for key, code in plan.classes.items()
    ]
    return PlanFacts(
        plan.year.moves,
        term_facts,
        len(plan.rows.days_off),
        len(plan.rows.specials),
        _bells(plan),
        classes,
        clashes_in(plan.meetings),
    )


def _bells(plan: Plan) -> list[BellFacts]:
    found = []
    of_weekday = {weekday_key(n): f"{name}s" for n, name in enumerate(WEEKDAYS)}
    for (_, label, _), bells in plan.bells.sets.items():
        if not bells:
            continue
        item = next(iter(bells.values())).item
        of_label = of_weekday.get(label) or item.text("label")
        called = ", ".join(
            part for part in (item.text("schedule") or "Regular", of_label, item.text("division")) if part
        )
        starts, ends = (
            min(bell.start_secs for bell in bells.values()),
            max(bell.end_secs for bell in bells.values()),
        )
        found.append(BellFacts(called, len(bells), clock_text(starts), clock_text(ends)))
    return found
