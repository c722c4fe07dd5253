"""Which bells ring on each school day of a plan, whoever meets in them."""

import datetime as dt
from collections.abc import Iterator
from typing import NamedTuple

from nomarium.model.wording import WEEKDAYS
from nomarium.school.bells import bells_on
from nomarium.school.meetings import label_for, schedule_of
from nomarium.school.plan import Plan
from nomarium.school.planheads import plain


class Ring(NamedTuple):
    """One period of one date."""

    date: dt.date
    label: str
    period: str
    """The bell's name, else its code."""
    start_secs: int
    end_secs: int


def rings(plan: Plan) -> Iterator[Ring]:
    """The periods of every school day, each once however many divisions have it at that time."""
    divisions = sorted({plain(slot.division) for slot in plan.slots}) or [""]
    for day in plan.year.days:
        here: dict[Ring, None] = {}
        for division in divisions:
            label = None if division in day.closed else label_for(day, division, plan.year)
            if label is None:
                continue
            schedule, is_named = schedule_of(day.special_of(division), plan.bells)
            rung = bells_on(plan.bells, schedule, is_named, label, day.weekday, division)
            for bell in rung.bells.values():
                here[
                    Ring(
                        day.date,
                        label or WEEKDAYS[day.weekday],
                        bell.name or bell.period,
                        bell.start_secs,
                        bell.end_secs,
                    )
                ] = None
        yield from here
