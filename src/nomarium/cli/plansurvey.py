"""A survey of plans: terms, school days, labels, bells, classes."""

from typing import TYPE_CHECKING

from nomarium.cli.render import as_json
from nomarium.model.wording import counted
from nomarium.school.facts import facts_of
from nomarium.school.plan import Plan

if TYPE_CHECKING:
    from rich.console import Console

_MOST_CLASSES = 40


def print_plan(console: "Console", plan: Plan) -> None:
    """Explain a plan."""
    from rich.markup import escape
    from rich.table import Table

    facts = facts_of(plan)
    zone = plan.settings.zone or "no time zone: times float"
    console.print(f"[bold]{escape(plan.file)}[/bold]: a plan, {escape(zone)}")
    cycle = (
        f"cycle of {len(plan.year.labels.names)} labels, moving {facts.moves}"
        if plan.year.labels.names
        else "no cycle"
    )
    days_off = f"{counted(facts.days_off, 'row')} of days off"
    special = f"{counted(facts.special_days, 'row')} of special days"
    console.print(f"{escape(cycle)}; {days_off}, {special}")
    console.print()
    table = Table(show_edge=False, pad_edge=False, header_style="bold")
    labels = plan.year.labels.names
    for head in (
        "Term",
        "First day",
        "Last day",
        "School days",
        *labels,
        *(["no label"] if any(t.unlabelled for t in facts.terms) else []),
    ):
        table.add_column(
            escape(head), justify="left" if head in ("Term", "First day", "Last day") else "right"
        )
    for term in facts.terms:
        counts = [str(term.labels[label]) for label in labels]
        more = [str(term.unlabelled)] if any(t.unlabelled for t in facts.terms) else []
        table.add_row(
            escape(term.name), str(term.first), str(term.last), str(term.school_days), *counts, *more
        )
    console.print(table)
    console.print()
    if facts.bells:
        table = Table(show_edge=False, pad_edge=False, header_style="bold")
        for head in ("Bells", "Periods", "From", "To"):
            table.add_column(head, justify="left" if head == "Bells" else "right")
        for bells in facts.bells:
            table.add_row(escape(bells.schedule), str(bells.periods), bells.first, bells.last)
        console.print(table)
        console.print()
    if facts.classes:
        table = Table(show_edge=False, pad_edge=False, header_style="bold")
        for head in ("Class", "Name", "Meetings", "Hours", "Not met"):
            table.add_column(head, justify="left" if head in ("Class", "Name") else "right")
        for one in facts.classes[:_MOST_CLASSES]:
            name = one.name if one.name != one.code else ""
            table.add_row(
                escape(one.code), escape(name), str(one.meetings), f"{one.hours:,.1f}", str(one.not_met or "")
            )
        console.print(table)
        if len(facts.classes) > _MOST_CLASSES:
            console.print(f"… and {len(facts.classes) - _MOST_CLASSES} more classes; tally counts them all.")
        console.print()
    for clash in facts.clashes[:5]:
        times = f" {clash.times} times" if clash.times > 1 else ""
        console.print(
            escape(
                f"clash: {clash.kind} {clash.name} is in {clash.one} and {clash.other} at once{times}, first on {clash.first}"
            )
        )
    if len(facts.clashes) > 5:
        console.print(f"… and {len(facts.clashes) - 5} more clashes")


def plan_facts(plan: Plan) -> dict[str, object]:
    """The same for programs."""
    facts = facts_of(plan)
    return {
        "file": plan.file, "time_zone": plan.settings.zone, "moves": facts.moves, "labels": list(plan.year.labels.names),
        "terms": [as_json(term._asdict()) for term in facts.terms], "bells": [as_json(one._asdict()) for one in facts.bells],
        "classes": [as_json(one._asdict()) for one in facts.classes], "clashes": [as_json(one._asdict()) for one in facts.clashes],
        "days": [{"date": str(day.date), "label": day.label, "term": day.term, "week": day.week} for day in plan.year.days],
    }  # fmt: skip
