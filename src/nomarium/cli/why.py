"""`nomarium why`: how each event of a date came about, or why there is none."""

import datetime as dt
from typing import TYPE_CHECKING, Annotated, NamedTuple

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import FOLLOWED, Asked, takes_sources
from nomarium.cli.panels import FIRST
from nomarium.cli.render import say, say_json, say_problems

if TYPE_CHECKING:
    from collections.abc import Sequence

    from nomarium.cli.asked import Taken
    from nomarium.model.problem import Problem
    from nomarium.model.trail import Step
    from nomarium.school.reasons import DateFacts
    from nomarium.sources.tracing import Looked, Traced

EXAMPLE = "Example: nomarium why year.xlsx --on 2026-11-12 --event Rigging"


class Told(NamedTuple):
    """An event with the way to it."""

    summary: str
    start: str
    end: str
    steps: "Sequence[Step]"


@takes_sources
def why(
    asked: Asked,
    on: Annotated[
        str, typer.Option("--on", metavar="DATE", help="The date that is asked about.", rich_help_panel=FIRST)
    ],
    event: Annotated[
        str | None,
        typer.Option(
            "--event",
            metavar="TEXT",
            help="Only events with this in their title, and classes of that name that do not meet.",
            rich_help_panel=FIRST,
        ),
    ] = None,
    json: opt.Json = False,
) -> None:
    """Say how each event of a date came about, from the cell to the calendar, or why there is none on it."""
    from nomarium.cli.optionvalues import date_option
    from nomarium.sources.tracing import look_at

    date = date_option(on, "--on")
    reading = asked.reading()
    if reading.repeats_until is None:
        reading = reading._replace(horizon=date + FOLLOWED)
    text = (event or "").casefold()
    with asked.taken(reading) as taken:
        looked = look_at(
            taken.sources.listed,
            date,
            lambda one: text in one.summary.casefold(),
            taken.window,
            date + FOLLOWED,
            reading.zone,
        )
        facts = _of_plans(taken, date, text)
        told = _events(taken, looked.traced, text)
        reasons = [*(facts.reasons if facts else ()), *_left_out(looked.traced)]
        if not told and not (facts and facts.absent):
            reasons += _otherwise(looked, date, event or "")
        problems = taken.problems()
    if json:
        say_json({
            "date": date, "school_day": facts.is_school_day if facts else None, "label": facts.label if facts else None,
            "week": facts.week if facts else None, "term": facts.term if facts else None, "reasons": reasons,
            "events": [{**one._asdict(), "steps": [step._asdict() for step in one.steps]} for one in told], "problems": problems,
        })  # fmt: skip
    else:
        _print(date, facts, reasons, told, problems)
    raise typer.Exit(1 if problems else 0)


def _of_plans(taken: "Taken", date: dt.date, text: str) -> "DateFacts | None":
    """What the first plan knows of the date, with why classes that are asked about do not meet."""
    from nomarium.school.planheads import plain
    from nomarium.school.reasons import classes_like, date_facts, why_not

    facts: DateFacts | None = None
    for plan in taken.sources.plans:
        found = date_facts(plan, date)
        if text:
            meeting = {plain(one.slot.code) for one in plan.meetings if one.day.date == date}
            absent = [key for key in classes_like(plan, text) if key not in meeting]
            lines = [line for key in absent for line in why_not(plan, date, key)]
            found = found._replace(reasons=[*found.reasons, *lines], absent=bool(absent))
        facts = found if facts is None else facts._replace(reasons=[*facts.reasons, *found.reasons])
    return facts


def _events(taken: "Taken", traced: "list[Traced]", text: str) -> list[Told]:
    """The events of the date, by start, with the way to each."""
    wanted = [one for one in traced if one.is_taken and text in one.event.summary.casefold()]
    wanted.sort(key=lambda one: one.event.start.isoformat())
    return [
        Told(one.event.summary, one.event.start.isoformat(), one.event.end.isoformat(), _steps(taken, one))
        for one in wanted
    ]


def _steps(taken: "Taken", one: "Traced") -> "Sequence[Step]":
    from nomarium.model.trail import Step
    from nomarium.school.reasons import meeting_steps, meetings_by_uid
    from nomarium.sources.tracing import calendar_steps, edit_steps, list_source_of, list_steps

    listed = list_source_of(one.source)
    if listed is not None:
        return list_steps(one, listed.reading, taken.reading.zone)
    if one.source.is_taught:
        for plan in taken.sources.plans:
            found = meetings_by_uid(plan, one.event.first_day, taken.identity).get(one.event.details.uid)
            if found is not None:
                return [*meeting_steps(plan, *found), *edit_steps(one)]
    if one.source.calendars.everywhere:
        return [
            Step(
                "year",
                str(one.source.place(None)),
                "It says what the date is in the school year (see above).",
            )
        ]
    return calendar_steps(one)


def _left_out(traced: "list[Traced]") -> list[str]:
    return [
        f"“{one.event.summary}” is left out, as --only or --leave-out asks."
        for one in traced
        if not one.is_taken
    ]


def _otherwise(looked: "Looked", date: dt.date, text: str) -> list[str]:
    """Where there is no event: which are nearest."""
    what = f"with “{text}” in its title" if text else "at all"
    lines = [f"There is no event {what} on {date}."]
    if looked.after is not None:
        lines.append(f"The next one is “{looked.after.summary}” on {looked.after.first_day}.")
    elif looked.before is not None:
        lines.append(f"The last one was “{looked.before.summary}” on {looked.before.last_day}.")
    elif text:
        lines.append("No date has one: look at the titles with view.")
    return lines


def _print(
    date: dt.date, facts: "DateFacts | None", reasons: "Sequence[str]", told: "Sequence[Told]", problems: "Sequence[Problem]"
) -> None:  # fmt: skip
    say_problems(problems)
    about = ""
    if facts is not None:
        parts = [facts.label, facts.term, f"week {facts.week}" if facts.week else ""]
        about = " · " + ", ".join(filter(None, parts)) if facts.is_school_day else " · no school"
    say(f"{date:%A} {date}{about}")
    for line in reasons:
        say(f"  {line}")
    for one in told:
        say()
        start, end = (text[11:16].removeprefix("0") for text in (one.start, one.end))
        say(f"{f'{start}–{end}' if start else 'all day'}  {one.summary}")
        for step in one.steps:
            where = f"  ({step.where})" if step.where else ""
            say(f"  {step.what:<10} {step.text}{where}")
