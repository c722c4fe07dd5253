"""Counting meetings: how many, how many periods and hours, for each class, label, teacher, room or category."""

import datetime as dt
from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.school.codes import natural
from nomarium.school.events import class_names
from nomarium.school.events import values_of as slot_values
from nomarium.school.plan import Plan
from nomarium.school.planheads import plain

SPANS = ("month", "term")


class Line(NamedTuple):
    """What one class (teacher, room …) gets."""

    name: str
    meetings: int
    periods: int
    hours: float
    by_span: dict[str, int]
    """Meetings by month (`2026-09`) or term."""
    not_met: int = 0
    """Periods that a named schedule of a special day left out."""
    is_uneven: bool = False
    """Whether it has at least two periods fewer than another class with as many in a cycle."""


class Tally(NamedTuple):
    """The counts of a plan or a calendar."""

    kind: str
    span: str
    spans: tuple[str, ...]
    lines: tuple[Line, ...]
    labels: dict[str, dict[str, int]]
    """How often each label falls, by span, in the order of the cycle."""
    school_days: dict[str, int]
    """School days by span; empty for a calendar, which does not say."""
    uncounted: int = 0
    """Timed events that have no such value."""


def tally_of(
    events: Iterable[Event],
    kind: str,
    span: str,
    plan: Plan | None = None,
    terms: Sequence[tuple[str, dt.date, dt.date]] = (),
) -> Tally:
    """Count timed events by a field. `plan` adds what a calendar does not know: days, losses, unevenness. `terms` (name, first and
    last day) are those of events that name none."""
    meetings, periods, seconds = Counter[str](), Counter[str](), Counter[str]()
    by_span: dict[str, Counter[str]] = defaultdict(Counter)
    spans: dict[str, dt.date] = {}
    labels: dict[str, dict[str, set[dt.date]]] = defaultdict(lambda: defaultdict(set))
    uncounted = 0
    for event in events:
        if not isinstance(event.start, dt.datetime) or not isinstance(event.end, dt.datetime):
            continue
        facets = dict(event.details.facets)
        values = values_of(event, kind)
        here = (
            f"{event.start:%Y-%m}"
            if span == "month"
            else facets.get("term", "") or _term_of(event.start.date(), terms)
        )
        if facets.get("label"):
            labels[facets["label"]][here].add(event.start.date())
        if not values:
            uncounted += 1
            continue
        spans[here] = min(spans.get(here, event.start.date()), event.start.date())
        for value in values:
            meetings[value] += 1
            periods[value] += int(facets.get("periods", "1"))
            seconds[value] += round((event.end - event.start).total_seconds())
            by_span[value][here] += 1
    lost, uneven = (_lost(plan, kind), _uneven(plan, periods)) if plan else (Counter[str](), frozenset[str]())
    lines = tuple(
        Line(name, meetings[name], periods[name], round(seconds[name] / 3600, 2), dict(by_span[name]), lost[name],
             kind == "class" and name in uneven)
        for name in sorted(meetings.keys() | lost.keys(), key=natural)
    )  # fmt: skip
    counted = {label: {one: len(days) for one, days in found.items()} for label, found in labels.items()}
    school_days: dict[str, int] = {}
    if plan is not None:
        counted, school_days = _of_year(plan, span, spans)
    ordered = tuple(sorted(spans, key=lambda one: spans[one]))
    if plan is None:
        counted = dict(sorted(counted.items(), key=lambda pair: natural(pair[0])))
    return Tally(kind, span, ordered, lines, counted, school_days, uncounted)


def _term_of(day: dt.date, terms: Sequence[tuple[str, dt.date, dt.date]]) -> str:
    return next((name for name, first, last in terms if first <= day <= last), "")


def _lost(plan: Plan, kind: str) -> Counter[str]:
    found, classes = Counter[str](), class_names(plan)
    for slot, day in plan.not_met:
        values = slot_values(plan, slot)
        if kind == "teacher":
            found.update(plan.naming.name("teacher", one) for one in slot.teachers)
        elif kind == "label":
            found[day.label] += 1
        else:
            name = {
                "class": classes[plain(slot.code)],
                "room": values["room"],
                "group": values["group"],
                "division": slot.division,
            }.get(kind, "")
            found[name] += 1
    del found[""]
    return found


def _uneven(plan: Plan, periods: Counter[str]) -> frozenset[str]:
    """Classes with at least two periods fewer than another that has as many in a cycle, in the same terms."""
    shares: dict[tuple[object, ...], set[str]] = defaultdict(set)
    slots: dict[str, set[object]] = defaultdict(set)
    kinds: dict[str, set[object]] = defaultdict(set)
    size = len(plan.year.labels.names) or 5
    for slot in plan.slots:
        key = plain(slot.code)
        slots[key] |= {(slot.label, slot.period)} if slot.label else {(n, slot.period) for n in range(size)}
        kinds[key].add((slot.terms, slot.first, slot.last, slot.division))
    names = class_names(plan)
    for key, own in slots.items():
        shares[len(own), frozenset(kinds[key])].add(names[key])
    return frozenset(
        name
        for group in shares.values()
        for name in group
        if max(periods[one] for one in group) - periods[name] >= 2
    )


def _of_year(
    plan: Plan, span: str, spans: dict[str, dt.date]
) -> tuple[dict[str, dict[str, int]], dict[str, int]]:
    labels: dict[str, Counter[str]] = {label: Counter() for label in plan.year.labels.names}
    days = Counter[str]()
    for day in plan.year.days:
        here = f"{day.date:%Y-%m}" if span == "month" else day.term
        days[here] += 1
        spans[here] = min(spans.get(here, day.date), day.date)
        if day.label:
            labels[day.label][here] += 1
    return {label: dict(counts) for label, counts in labels.items()}, dict(days)


_HEADS = {"categories": "Category", "summary": "Title", "attendees": "Attendee"}


def table_of(tally: Tally) -> list[list[str | int | float]]:
    """A tally as rows of a table, headings first."""
    heads: list[str | int | float] = [
        _HEADS.get(tally.kind, tally.kind.capitalize()),
        *tally.spans,
        "Meetings",
        "Periods",
        "Hours",
        "Not met",
        "Uneven",
    ]
    rows: list[list[str | int | float]] = [heads]
    for line in tally.lines:
        counts = [line.by_span.get(span, 0) for span in tally.spans]
        rows.append(
            [
                line.name,
                *counts,
                line.meetings,
                line.periods,
                line.hours,
                line.not_met,
                "uneven" if line.is_uneven else "",
            ]
        )
    return rows
