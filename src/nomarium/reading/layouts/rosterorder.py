"""Spans that stand side by side over a roster and follow each other, `6-9` and `9-12`: none of them is half a day before the one
that it begins after."""

from collections.abc import Iterable, Mapping, Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.problem import Problem
from nomarium.model.wording import clock_text
from nomarium.reading.layouts.rosterslots import Slot
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Sheet

_HALF_DAY: Final = 12 * 3600
_REMEDY: Final = "Write am or pm with each, or all of them by the 24-hour clock."


def out_of_order(sheet: Sheet, slots: Sequence[Slot]) -> list[Problem]:
    """A problem of the first spans of one date that follow each other by the clock of twelve hours, and not by the half of the day
    that they were taken for."""
    dates: dict[object, list[Slot]] = {}
    for slot in slots:
        if slot.time is not NOTHING and slot.time.end is not None:
            dates.setdefault(slot.days.first, []).append(slot)
    for of_date in dates.values():
        for by in (
            _by_place((one.column, one) for one in of_date),
            _by_place((one.row, one) for one in of_date),
        ):
            for before, after in pairwise([by[at] for at in sorted(by)]):
                if _turns_back(before.time, after.time):
                    return [_problem(sheet, before, after)]
    return []


def _by_place(placed: Iterable[tuple[int, Slot]]) -> Mapping[int, Slot]:
    """The first entry of each column, or row, that has one time for all of its entries."""
    found: dict[int, list[Slot]] = {}
    for at, slot in placed:
        found.setdefault(at, []).append(slot)
    return {at: some[0] for at, some in found.items() if len({one.time for one in some}) == 1}


def _turns_back(before: Part, after: Part) -> bool:
    """Whether one span begins where the other ends, half a day too early, and neither says its half."""
    first, end, start = before.start, before.end, after.start
    if first is None or end is None or start is None or end.secs <= first.secs:
        return False
    return end.secs - start.secs == _HALF_DAY and start.secs < first.secs


def _problem(sheet: Sheet, before: Slot, after: Slot) -> Problem:
    times = [clock_text(one.time.start.secs) for one in (before, after) if one.time.start is not None]
    message = f"One column begins at {times[0]} and the one that follows it at {times[1]}: in which half of the day they are is open."
    return Problem("clock-open", message, _REMEDY, sheet.place(after.row, after.column))
