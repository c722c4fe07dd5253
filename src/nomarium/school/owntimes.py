"""Classes whose rows say themselves when they meet: their times, in the half of the day that all of them show."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text, counted
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.times import DAY_SECS, Clock
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.clocks import ClockFound, as_typed, clock_from, clock_told, half_of
from nomarium.reading.columns.headings import NO_UNIT
from nomarium.reading.options import ReadingOptions
from nomarium.school.bells import Bell
from nomarium.school.itemlengths import length_said, length_unlike
from nomarium.school.plantables import Item
from nomarium.sheets.sheet import cell_text

_Field = Literal["time", "start", "end"]
_FIELDS: tuple[_Field, ...] = ("time", "start", "end")
_NOON = DAY_SECS // 2


def own_bells(
    items: Sequence[Item], options: ReadingOptions, problems: list[Problem], notes: list[Problem]
) -> dict[int, Bell]:
    """The times of rows that have their own, by the identity of the row. What is wrong is added to the lists."""
    moments: dict[int, dict[_Field, Moment]] = {}
    for item in items:
        read = {field: moment for field in _FIELDS if (moment := _moment(item, field, problems)) is not None}
        if read:
            moments[id(item)] = read
    found = _clock(items, moments, options)
    bells: dict[int, Bell] = {}
    for item in items:
        times = moments.get(id(item))
        if times is None:
            continue
        bell = _bell(item, times, found, options.length_secs)
        if isinstance(bell, Problem):
            problems.append(bell)
        else:
            bells[id(item)] = bell
    if bells:
        first = next(item for item in items if id(item) in bells)
        notes += [told.at(first.table.sheet.place()) for told in clock_told(found)]
        notes += _overlaps_told(items, bells, moments, options)
    return bells


def _overlaps_told(
    items: Sequence[Item],
    bells: dict[int, Bell],
    moments: dict[int, dict[_Field, Moment]],
    options: ReadingOptions,
) -> list[Problem]:
    """A note where a row that says no end lasts into the next one of its day, as long as the usual length is."""
    if options.default_length_secs is not None:
        return []
    for one, following in pairwise(items):
        bell, after, said = bells.get(id(one)), bells.get(id(following)), moments.get(id(one), {})
        is_open = (
            not one.text("length")
            and all(moment.end is None for moment in said.values())
            and "end" not in said
        )
        is_of_day = one.table is following.table and one.text("label") == following.text("label")
        if bell and after and is_open and is_of_day and bell.start_secs < after.start_secs < bell.end_secs:
            message = (
                f"Rows that say no end last {counted(options.length_secs // 60, 'minute')}, and “{one.text('class')}” so runs on into "
                f"“{following.text('class')}”."
            )
            remedy = "Write their ends, or give them another length: --default-length 40m."
            return [
                note("slots-overlap", message, remedy).at(one.place("time" if "time" in said else "start"))
            ]
    return []


def _moment(item: Item, field: _Field, problems: list[Problem]) -> Moment | None:
    cell = item.cells.get(field, "")
    if not cell_text(cell):
        return None
    moment = read_moment(cell, "time", ENGLISH, item.table.sheet.counts_1904)
    if isinstance(moment, Refusal):
        problems.append(moment.problem(item.place(field), cell_text(cell)))
        return None
    if moment.start is None:
        message = f"“{cell_text(cell)}” is not a time."
        problems.append(item.problem("time-unread", field, message, "Write it like 9:30 or 9:30-10:20."))
        return None
    return moment


def _typed(item: Item, field: _Field, clock: Clock) -> Clock:
    """A time as it was typed: a workbook's own knows nothing of am and pm."""
    return clock if isinstance(item.cells.get(field), str) else as_typed(clock)


def _clock(
    items: Sequence[Item], moments: dict[int, dict[_Field, Moment]], options: ReadingOptions
) -> ClockFound:
    if options.clock:
        return ClockFound(options.clock, "as asked")
    return clock_from(
        (_typed(item, field, clock), item.text(field))
        for item in items
        for field, moment in moments.get(id(item), {}).items()
        for clock in (moment.start, moment.end)
        if clock is not None
    )


def _bell(item: Item, times: dict[_Field, Moment], found: ClockFound, length_secs: int) -> Bell | Problem:
    field: _Field = "time" if "time" in times else "start"
    if field not in times:
        return item.problem("start-missing", "end", "The class has an end and no start.", "Give it one.")
    start, end = times[field].start, times[field].end
    end_field = field
    if end is None and "end" in times:
        end, end_field = times["end"].start, "end"
    assert start is not None
    halves = []
    for name, clock in ((field, start), (end_field, end)):
        half = half_of(_typed(item, name, clock), found, NO_UNIT) if clock is not None else None
        if isinstance(half, Refusal):
            return half.problem(item.place(name), item.text(name))
        halves.append(half)
    begins, ends = halves
    assert begins is not None
    said = length_said(item)
    if isinstance(said, Problem):
        return said
    length_secs = length_secs if said is None else said
    end_secs = ends.secs if ends is not None else begins.secs + length_secs
    if (
        ends is not None
        and end_secs <= begins.secs
        and not ends.has_meridiem
        and end_secs + _NOON > begins.secs
    ):
        end_secs += _NOON
    if end_secs <= begins.secs or end_secs > DAY_SECS:
        message = f"The class ends at {clock_text(end_secs % DAY_SECS)}, before it starts at {clock_text(begins.secs)}."
        return item.problem("end-before-start", end_field, message, "Correct its times.")
    if (unlike := length_unlike(item, begins.secs, end_secs)) is not None:
        return unlike
    return Bell(item.text("period"), begins.secs, end_secs, "", item)
