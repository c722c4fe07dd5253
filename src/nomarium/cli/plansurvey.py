"""A survey of plans: terms, school days, labels, bells, classes."""

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING

from nomarium.cli.render import as_json, markup, report_table, rest_text, shortened
from nomarium.model.wording import counted
from nomarium.school.facts import PlanFacts, facts_of
from nomarium.school.plan import Plan
from nomarium.school.plantables import table_title

if TYPE_CHECKING:
    from rich.console import Console


def print_plan(console: "Console", plan: Plan, details: bool) -> None:
    """Explain a plan: its days in a table, its bells and classes in a line each, with `details` in tables of their own."""

    facts = facts_of(plan)
    zone = plan.settings.zone or "no time zone: times float"
    console.print(f"[bold]{markup(plan.file)}[/bold]: a plan, {markup(zone)}")
    count = len(plan.year.labels.names)
    how = "each date has its own" if plan.year.has_dates else f"moving {facts.moves}"
    cycle = f"cycle of {count} labels, {how}" if count else "no cycle"
    days_off = f"{counted(facts.days_off, 'row')} of days off"
    special = f"{counted(facts.special_days, 'row')} of special days"
    console.print(f"{markup(cycle)}; {days_off}, {special}")
    _print_sheets(console, plan, details)
    _print_terms(console, plan, facts, details)
    if details:
        rows = [(one.schedule, str(one.periods), one.first, one.last) for one in facts.bells]
        _print_table(console, ("Bells", "Periods", "From", "To"), rows, 1)
        _print_classes(console, facts)
    else:
        bells = [
            f"{one.schedule} ({counted(one.periods, 'period')}, {one.first}–{one.last})"
            for one in facts.bells
        ]
        _print_line(console, "Bells", bells, "schedule")
        classes = [f"{one.name} {one.meetings:,}" for one in facts.classes]
        _print_line(
            console,
            counted(len(classes), "class", "classes") + " with their meetings",
            classes,
            "class",
            "classes",
        )
    for clash in facts.clashes[:5]:
        times = f" {clash.times} times" if clash.times > 1 else ""
        said = f"clash: {clash.kind} {clash.name} is in {clash.one} and {clash.other} at once{times}, first on {clash.first}"
        console.print(markup(said))
    if len(facts.clashes) > 5:
        console.print(f"… and {len(facts.clashes) - 5} more clashes")


def _print_table(
    console: "Console", heads: Sequence[str], rows: Iterable[Sequence[str]], left: int, thing: str = "", rest: int = 0
) -> None:  # fmt: skip
    """A table whose first columns stand to the left, the others to the right, and how many more things there are."""
    table = report_table()
    for n, head in enumerate(heads):
        table.add_column(markup(head), justify="left" if n < left else "right")
    for row in rows:
        table.add_row(*map(markup, row))
    console.print(table)
    if rest:
        console.print(rest_text(rest, thing))


def _print_line(console: "Console", head: str, texts: Sequence[str], thing: str, plural: str = "") -> None:
    """Things in a row; of many the first."""
    if texts:
        shown, rest = shortened(texts, details=False)
        more = f" {rest_text(rest, thing, plural)}" if rest else ""
        console.print(markup(f"{head}: {', '.join(shown)}{more}"))


def _print_sheets(console: "Console", plan: Plan, details: bool) -> None:
    """What each sheet was taken for, where that is not plain from its name."""
    if all(one.kind.why == "its name" for one in plan.taken):
        return
    rows = [
        (
            one.sheet.name or one.sheet.file,
            table_title(one.kind.table),
            one.kind.why + (f"; or {table_title(one.kind.other)}" if one.kind.other else ""),
        )
        for one in plan.taken
    ]
    shown, rest = shortened(rows, details)
    _print_table(console, ("Sheet", "Taken for", "Because of"), shown, 3, "sheet" if rest else "", rest)


def _print_terms(console: "Console", plan: Plan, facts: PlanFacts, details: bool) -> None:
    labels = plan.year.labels.names
    lacks = any(term.unlabelled for term in facts.terms)
    heads = ("Term", "First day", "Last day", "School days", *labels, *(["no label"] if lacks else []))
    rows = [
        (
            term.name, str(term.first), str(term.last), str(term.school_days),
            *(str(term.labels[label]) for label in labels), *([str(term.unlabelled)] if lacks else []),
        )
        for term in facts.terms
    ]  # fmt: skip
    shown, rest = shortened(rows, details)
    _print_table(console, heads, shown, 3, "term", rest)


def _print_classes(console: "Console", facts: PlanFacts) -> None:
    rows = [
        (
            one.code, one.name if one.name != one.code else "", str(one.meetings), f"{one.hours:,.1f}",
            str(one.not_met or ""),
        )
        for one in facts.classes
    ]  # fmt: skip
    _print_table(console, ("Class", "Name", "Meetings", "Hours", "Not met"), rows, 2)


def plan_facts(plan: Plan) -> dict[str, object]:
    """The same for programs."""
    facts = facts_of(plan)
    return {
        "file": plan.file, "sheets": [{"sheet": one.sheet.name or one.sheet.file, "table": one.kind.table, "why": one.kind.why, "other": one.kind.other} for one in plan.taken],
        "time_zone": plan.settings.zone, "moves": facts.moves, "labels": list(plan.year.labels.names),
        "terms": [as_json(term._asdict()) for term in facts.terms], "bells": [as_json(one._asdict()) for one in facts.bells],
        "classes": [as_json(one._asdict()) for one in facts.classes], "clashes": [as_json(one._asdict()) for one in facts.clashes],
        "days": [{"date": str(day.date), "label": day.label, "term": day.term, "week": day.week} for day in plan.year.days],
    }  # fmt: skip
