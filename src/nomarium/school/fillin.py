"""What a sheet holds that each teacher of a plan fills in: its labels across, its periods with their times down."""

from typing import NamedTuple

from nomarium.model.problem import Place, Problem
from nomarium.model.wording import WEEKDAYS, clock_text
from nomarium.school.plan import Plan


class FillIn(NamedTuple):
    teachers: list[str]
    labels: list[str]
    lines: list[tuple[str, str]]
    """(period, its time) in the order of the day."""


def fill_in(plan: Plan) -> FillIn | Problem:
    """The teachers, labels and periods of a plan, or what it lacks."""
    taught = [name for slot in plan.slots for name in slot.teachers]
    named = [code for code, kind in plan.naming.kinds.items() if kind == "teacher"]
    rows = [plan.naming.of("teacher", code) for code in named]
    teachers = dict.fromkeys(
        [*taught, *(row.code for row in rows if row), *(one.name for one in plan.people.persons)]
    )
    bells = plan.bells.sets.get(("", "", "")) or next(iter(plan.bells.sets.values()), {})
    lines = sorted(bells.values(), key=lambda bell: bell.start_secs)
    labels = list(plan.year.labels.names) or [WEEKDAYS[day] for day in plan.settings.school_days]
    for there, what in (
        (teachers, "teachers: no table People or Names has one"),
        (lines, "periods: there is no table Bells"),
    ):
        if not there:
            return Problem("fill-in-lacking", f"The plan names no {what}.", "Add it.", Place(plan.file))
    times = [(bell.period, f"{clock_text(bell.start_secs)}-{clock_text(bell.end_secs)}") for bell in lines]
    return FillIn(list(teachers), labels, times)
