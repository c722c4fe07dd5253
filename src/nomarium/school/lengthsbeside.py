"""Lengths that a timetable says beside its periods: a class is as long as its bells, and what says otherwise is no part of them."""

import re
from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted
from nomarium.reading.cells.lengths import read_length
from nomarium.school.bells import Bells
from nomarium.school.itemlengths import length_unit
from nomarium.school.plantables import Item

_OF_PERIODS: Final = r"(?i)(?P<count>\d{1,2}|single|double|triple)\s*(?:periods?|lessons?|blocks?|slots?|p)?"
_NUMBERS: Final = {"single": 1, "double": 2, "triple": 3}


def lengths_unlike_bells(items: Sequence[Item], bells: Bells) -> list[Problem]:
    """A problem for each row whose length is that of none of the bells of its periods, and for one that no one understands."""
    return [found for item in items if (found := _unlike(item, bells)) is not None]


def _unlike(item: Item, bells: Bells) -> Problem | None:
    text, period = item.text("length"), item.text("period")
    if not text or not period or item.text("start") or item.text("time"):
        return None
    periods = bells.periods.read(period)
    if isinstance(periods, Refusal):
        return None  # told where the periods are read
    counts = re.fullmatch(_OF_PERIODS, text)
    if counts is not None and not text.isdecimal():
        number = _NUMBERS.get(counts["count"].casefold()) or int(counts["count"])
        if number == len(periods):
            return None
        said = counted(len(periods), "period")
    else:
        length = read_length(text, length_unit(item))
        rung = [*_rung(periods, bells)]
        if isinstance(length, Refusal) or not rung or int(length) in rung:
            return length.problem(item.place("length"), text) if isinstance(length, Refusal) else None
        said = " or ".join(dict.fromkeys(counted(secs // 60, "minute") for secs in rung))
    message = f"The row says how long the class is, and its period makes it {said}."
    remedy = "Name all of its periods, 1-2, or give it its times; or clear the length."
    return item.problem("length-conflict", "length", message, remedy)


def _rung(periods: Sequence[str], bells: Bells) -> Iterator[int]:
    """How long these periods are together in each set of bells that has them, with what is between them and without, in seconds."""
    for of_day in bells.sets.values():
        rung = [of_day[one] for one in periods if one in of_day]
        if rung and len(rung) == len(periods):
            yield max(bell.end_secs for bell in rung) - min(bell.start_secs for bell in rung)
            yield sum(bell.end_secs - bell.start_secs for bell in rung)
