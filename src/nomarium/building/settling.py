"""What a build says of the changes that people made in the calendar: the decisions as notes, what only they can decide as
problems."""

import datetime as dt
from collections.abc import Sequence
from typing import Final

from nomarium.building.report import BuildReport
from nomarium.history.letter import day_text, value_text
from nomarium.history.settling.choices import Clash
from nomarium.history.settling.fields import Field
from nomarium.history.settling.settle import Conflict, Outcome, Told, What, told_of
from nomarium.model.entry import Entry
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.targets.settled import Edited, SettledTarget

_CALLED: Final[dict[Field, str]] = {
    "when": "time", "repeat": "repeat", "summary": "title", "location": "place", "description": "notes",
    "busy": "free or busy", "other": "attachments and the like", "color": "colour",
}  # fmt: skip
_MOST_NAMED: Final = 4
_TEXTS: Final[dict[What, tuple[str, str]]] = {
    "kept": ("{} what people changed in it", "keeps|keep"),
    "added": ("{}: people added {them}", "stays|stay"),
    "deleted": ("{} out: people deleted {them}", "stays|stay"),
    "returned": ("{} back: people deleted {them}, and the source has changed {them} since", "is|are"),
    "refused": ("{} as the source has {them}, otherwise than people do", "goes on|go on"),
    "joined": ("{} on both sides and one event now, with the source's identity", "was added|were added"),
    "dropped": ("{} gone: the source no longer has {them}, and nobody changed {them} in the calendar", "is|are"),
}  # fmt: skip


def settle(target: SettledTarget, edited: Edited, report: BuildReport) -> None:
    """Settle what has come with what people changed, and tell what was decided."""
    if not _is_related(target, edited, report):
        return
    found = target.settle()
    report.problems += problems_of(found, edited.name, edited.option)
    notes, report.settled = notes_of(found, edited.name)
    report.notes += notes
    if not found.written and not found.conflicts:
        message = "No event is left: what the source has people deleted, what they left the source has not."
        remedy = "An empty calendar must not replace a full one: build with --afresh and without --edited to have the source alone."
        report.problems.append(Problem("no-events", message, remedy, Place(edited.name)))
    report.event_count = len(found.written)
    report.span, report.has_floating = target.span, target.has_floating


def problems_of(found: Outcome, name: str, option: str = "") -> list[Problem]:
    """What only a person can decide. `name` is what the changed calendar is called, `option` what a command line must say
    before --prefer."""
    return [_problem(one, name, option) for one in found.conflicts]


def notes_of(found: Outcome, name: str) -> tuple[list[Problem], dict[str, int]]:
    """What was decided, and how often of each kind."""
    notes, counts = list[Problem](), dict[str, int]()
    for what in _TEXTS:
        listed = list(told_of(found.told, what))
        if listed:
            counts[what] = len(listed)
            notes.append(_note(what, listed, name))
    return notes, counts


def _is_related(target: SettledTarget, edited: Edited, report: BuildReport) -> bool:
    """Whether the calendar can be what people made of this one: nothing of another calendar may be taken for deletions."""
    if target.knows_some or report.problems:
        return not report.problems
    empty = "holds no event" if not edited.units.by_uid else "has none of the events that this build is about"
    message = f"{edited.name} {empty}: it is not what people made of this calendar."
    remedy = "Give the calendar into which the earlier build was put, as it is exported now."
    report.problems.append(Problem("edited-unrelated", message, remedy, Place(edited.name)))
    return False


def _note(what: What, listed: Sequence[Told], name: str) -> Problem:
    text, verbs = _TEXTS[what]
    is_one = len(listed) == 1
    verb = verbs.split("|")[not is_one]
    said = text.format(f"{counted(len(listed), 'event')} {verb}", them="it" if is_one else "them")
    named = "; ".join(_named(one) for one in listed[:_MOST_NAMED])
    more = f"; and {len(listed) - _MOST_NAMED:,} more" if len(listed) > _MOST_NAMED else ""
    return note(f"edited-{what}", f"{said}: {named}{more}.").at(Place(name))


def _named(one: Told) -> str:
    fields = f" ({', '.join(_CALLED.get(field, field) for field in one.fields)})" if one.fields else ""
    return f"{_event_text(one.event)}{fields}"


def _event_text(event: Event) -> str:
    return f"“{event.summary}” on {day_text(event.first_day)}"


def _problem(one: Conflict, name: str, option: str) -> Problem:
    place = one.coming.place if one.coming is not None else Place(name)
    named = _event_text(one.event)
    if one.clash is None:
        message = f"{named} is no longer in the source, and people changed it in {name}."
        if one.is_first:
            message = (
                f"{named} is in {name} and not in the source; whether people changed it is not known here."
            )
        remedy = f"{option}--prefer source lets it go, {option}--prefer edited keeps it as people have it."
        return Problem("edit-dropped", message, remedy, place, one.event.summary)
    clash = one.clash
    field = _CALLED.get(clash.field, clash.field)
    sides = f"the source says {_said(clash, clash.source)}, {name} says {_said(clash, clash.edited)}"
    if clash.is_first:
        message = f"The {field} of {named} differs, and what it was before is not known: {sides}."
    else:
        message = f"The {field} of {named} was changed on both sides: it was {_said(clash, clash.base)} before, {sides}."
    remedy = f"Make them agree, or decide for all: {option}--prefer source or {option}--prefer edited."
    return Problem("edit-conflict", message, remedy, place, _said(clash, clash.source).strip("“”"))


def _said(clash: Clash, entry: Entry | None) -> str:
    """What an event says in the field, for people."""
    if entry is None:
        return "another"
    event = entry.event
    if clash.field == "when":
        return _when(event)
    if clash.field == "repeat":
        recurrence = event.details.recurrence
        from nomarium.reckoning.rules import rule_text

        return (
            " and ".join(map(rule_text, recurrence.rules)) if recurrence and recurrence.rules else "no repeat"
        )
    if clash.field == "busy":
        return "free" if event.details.busy is False else "busy"
    if clash.field == "reminder":
        secs = event.details.reminder_secs
        return "nothing" if secs is None else f"{secs // 60} minutes before"
    name = {"other": "other"}.get(clash.field, clash.field)
    text = value_text(name, event)
    return f"“{text}”" if text else "nothing"


def _when(event: Event) -> str:
    start, end = event.start, event.end
    if not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime):
        last = f" to {day_text(event.last_day)}" if event.last_day > event.first_day else ""
        return f"{day_text(event.first_day)}{last}, all day"
    last = f"{day_text(end.date())} " if end.date() != start.date() else ""
    return f"{day_text(start.date())}, {start:%-H:%M}–{last}{end:%-H:%M}"
