"""Bell schedules: which bells ring for a division on a day, and when each period is."""

import re
from collections import defaultdict
from collections.abc import Sequence
from itertools import islice
from typing import NamedTuple

from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text, counted
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.offwords import changes_bells
from nomarium.reading.cells.times import Clock
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.school.bellsheets import bare_schedule
from nomarium.school.codes import Codes
from nomarium.school.datewords import looks_like_date
from nomarium.school.itemlengths import length_said, length_unlike
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.school.yeartables import Special
from nomarium.sheets.sheet import Sheet, cell_text

REGULAR = "Regular"
_USUAL = r"(?:regular|normal|standard|usual|ordinary|default)(?:days?|schedule|bells?|times|timetable)?"
"""What the regular bells are called, in compared form, where no others are."""
_LONGEST_TEXT = 80
"""Longer ones are prose."""
_HALF = 43_200
_LONGEST, _LONGEST_PAUSE = 6 * 3600, 3 * 3600
"""A period, or a pause before the next one, that would be longer is no afternoon but a slip or another order."""
_FROM = 6 * 3600
"""A school day's clock runs from 06:00: an earlier time without am or pm is in the afternoon."""


class Bell(NamedTuple):
    """One period of one bell schedule."""

    period: str
    start_secs: int
    end_secs: int
    name: str
    item: Item


Key = tuple[str, str, str]
"""Schedule, label (or `weekday_key`), division; compared forms, blank for any."""


class Bells(NamedTuple):
    """All bell schedules."""

    sets: dict[Key, dict[str, Bell]]
    periods: Codes
    schedules: Codes
    problems: list[Problem]
    notes: list[Problem]


class Rung(NamedTuple):
    """The bells that ring for a division on a date."""

    bells: dict[str, Bell]
    is_named: bool
    """Whether a special day named the schedule."""
    is_of_label: bool
    """Whether the rows of the label replaced those without one."""
    clash: Problem | None = None


def read_bells(table: Table | None, labels: Codes) -> Bells:
    """Read the Bells table. 12-hour times run forward through each set."""
    problems, notes = list[Problem](), list[Problem]()
    items = _written_once(_written_once(table.items if table else [], "label", notes), "schedule", notes)
    usual = _usual_of({plain(item.text("schedule")) for item in items})
    groups: dict[Key, list[Item]] = defaultdict(list)
    weekdays = WeekdayCodes([text for item in items if (text := item.text("label"))], ENGLISH)
    for item in items:
        if not item.text("period"):
            problems.append(
                item.problem("period-missing", "period", "The row has no period.", "Give it one.")
            )
            continue
        for label in _labels(item, labels, weekdays, problems):
            schedule = item.text("schedule")
            key = "" if plain(schedule) in usual else plain(schedule)
            groups[key, label, plain(item.text("division"))].append(item)
    periods = Codes("period", [item.text("period") for item in items if item.text("period")])
    named = dict.fromkeys(text for item in items if (text := item.text("schedule")))
    others = [(bare, name) for name in named if (bare := bare_schedule(name))]
    schedules = Codes("bell schedule", dict.fromkeys([REGULAR, *named]), others)
    bells = Bells({}, periods, schedules, problems, notes)
    told = set[int]()
    for group_key, group in groups.items():
        bells.sets[group_key] = _set(group, periods, problems, notes, told)
    return bells


def _written_once(items: list[Item], field: str, notes: list[Problem]) -> list[Item]:
    """Rows of bells whose label or schedule is written once a group: the first row says one, and the blank ones would otherwise
    be one set with a period twice."""
    blank = [item.text("period") for item in items if not item.text(field)]
    if not items or not items[0].text(field) or len(set(blank)) == len(blank):
        return items
    found = list[Item]()
    for item in items:
        above = found[-1].cells.get(field, "") if found and not item.text(field) else None
        found.append(item if above is None else item._replace(cells={**item.cells, field: above}))
    heading = items[0].table.headings.get(field, field)
    message = (
        f"“{heading}” is written once a group: {counted(len(blank), 'row has', 'rows have')} it from above."
    )
    notes.append(note("group-once", message).at(items[0].place(field)))
    return found


def unrung(bells: Bells, specials: Sequence[Special], sheets: Sequence[Sheet]) -> list[Problem]:
    """A note of each named schedule that rings on no date, for no special day names it; a problem where a row of the `sheets` has
    a date and seems to speak of it, and is not read as one of its days."""
    named = {plain(special.bells) for special in specials if special.bells}
    found = []
    for (schedule, _, _), held in bells.sets.items():
        item = next((bell.item for bell in held.values()), None)
        if item is None or not schedule or schedule in named:
            continue
        named.add(schedule)
        name = item.text("schedule")
        if (spoken := _spoken_of(name, sheets)) is not None:
            sheet, number, text = spoken
            message = f"“{text}” has a date and seems to speak of the bells “{name}”, which ring on no date as the plan stands."
            remedy = "Name their dates in a table Special days (Date, Bells), and take the row out here."
            found.append(Problem("bells-open", message, remedy, sheet.place(number)))
            continue
        message = f"The bells “{name}” ring on no date, for nothing says on which."
        remedy = "Name them in the table Special days (Date, Bells); bells of some weekdays or labels have these in a column Label."
        found.append(note("bells-unrung", message, remedy).at(item.place("schedule")))
    return found


def _spoken_of(schedule: str, sheets: Sequence[Sheet]) -> tuple[Sheet, int, str] | None:
    """Where a row with a date speaks of a schedule by its name, or as such ones are called, `Early closing`."""
    name, changes = rf"\b{re.escape(fold(schedule))}\b", changes_bells(schedule)
    for sheet in sheets:
        for number, row in islice(sheet.rows(), MOST_TABLE_ROWS):
            texts = [text for cell in row if (text := cell_text(cell)) and len(text) <= _LONGEST_TEXT]
            said = (
                text for text in texts if re.search(name, fold(text)) or (changes and changes_bells(text))
            )
            found = next(said, "")
            if found and any(map(looks_like_date, row)):
                return sheet, number, found
    return None


def weekday_key(day: int) -> str:
    """What bells of a weekday are kept under, which no label in compared form can be: a cycle may have a label 4."""
    return f"- {day}"


def _labels(item: Item, labels: Codes, weekdays: WeekdayCodes, problems: list[Problem]) -> list[str]:
    """The labels that a row is for, in compared form; weekdays by `weekday_key`; blank for every day."""
    text = item.text("label")
    if not text:
        return [""]
    found = labels.read(item.cells["label"])
    if not isinstance(found, Refusal):
        return [plain(label) for label in found]
    from nomarium.school.settings import read_school_days

    days = read_school_days(text)
    if days is None and not isinstance(codes := weekdays.read(text), Refusal):
        days = codes  # M, T, Th, F
    if days is not None:
        return [weekday_key(day) for day in days]
    problems.append(found.problem(item.place("label"), text))
    return []


def _set(
    group: list[Item], periods: Codes, problems: list[Problem], notes: list[Problem], told: set[int]
) -> dict[str, Bell]:
    """One set of bells, its times run forward through the day."""
    read = [(item, pair) for item in group if (pair := _times(item, problems)) is not None]
    forward = _forward(read) or _by_itself(read)
    found: dict[str, Bell] = {}
    moved = [
        item
        for (item, (start, end)), (a, b) in zip(read, forward, strict=True)
        if (start.secs, end.secs) != (a, b)
    ]
    if moved and moved[0].number not in told:
        told.update(item.number for item in moved)
        shown = ", ".join(f"row {item.number}" for item in moved[:6]) + (
            " and more" if len(moved) > 6 else ""
        )
        verb = "is" if len(moved) == 1 else "are"
        message = f"Bells without am or pm run forward through the day: {shown} {verb} in the afternoon."
        notes.append(note("bells-forward", message).at(moved[0].place("start"), moved[0].text("start")))
    for (item, _), (start_secs, end_secs) in zip(read, forward, strict=True):
        period = periods.find(item.text("period")) or item.text("period")
        if period in found:
            message = f"Period {period} is in row {found[period].item.number} of the same schedule already."
            problems.append(
                item.problem(
                    "period-twice", "period", message, "Keep one of the rows, or name another schedule."
                )
            )
            continue
        if end_secs <= start_secs:
            message = f"Period {period} ends at {clock_text(end_secs)}, before it starts at {clock_text(start_secs)}."
            problems.append(item.problem("end-before-start", "end", message, "Correct its times."))
            continue
        if (unlike := length_unlike(item, start_secs, end_secs)) is not None:
            problems.append(unlike)
            continue
        rival = next(
            (one for one in found.values() if one.start_secs < end_secs and start_secs < one.end_secs), None
        )
        if rival is not None:
            message = (
                f"Period {period} ({clock_text(start_secs)}–{clock_text(end_secs)}) overlaps period {rival.period} "
                f"({clock_text(rival.start_secs)}–{clock_text(rival.end_secs)}, row {rival.item.number})."
            )
            problems.append(
                item.problem(
                    "bells-overlap", "start", message, "Correct the times; write am and pm if in doubt."
                )
            )
            continue
        found[period] = Bell(period, start_secs, end_secs, item.text("name"), item)
    return found


def _times(item: Item, problems: list[Problem]) -> tuple[Clock, Clock] | None:
    clocks: list[Clock | None] = []
    if cell_text(item.cells.get("time", "")):
        moment = _moment(item, "time", problems)
        if moment is None:
            return None
        clocks = [moment.start, moment.end]
    else:
        for field in ("start", "end"):
            if not item.text(field):
                clocks.append(None)
                continue
            moment = _moment(item, field, problems)
            if moment is None:
                return None
            clocks.append(moment.start)
            if field == "start" and moment.end is not None and not item.text("end"):
                clocks.append(moment.end)
                break
    start, end = clocks[0], clocks[1] if len(clocks) > 1 else None
    length = length_said(item)
    if isinstance(length, Problem):
        problems.append(length)
        return None
    if start is not None and end is None and length is not None:
        end = start._replace(secs=start.secs + length)
    if start is None or end is None:
        field = "start" if start is None else "end"
        problems.append(
            item.problem("bell-missing", field, f"The period has no {field}.", "Give it its time.")
        )
        return None
    return start, end


def _moment(item: Item, field: str, problems: list[Problem]) -> Moment | None:
    moment = read_moment(item.cells[field], "time", ENGLISH, item.table.sheet.counts_1904)
    if isinstance(moment, Refusal):
        problems.append(moment.problem(item.place(field), item.text(field)))
        return None
    if moment.start is None:
        problems.append(
            item.problem("time-unread", field, f"“{item.text(field)}” is not a time.", "Write it like 9:30.")
        )
        return None
    return moment


def _forward(read: list[tuple[Item, tuple[Clock, Clock]]]) -> list[tuple[int, int]] | None:
    """The times with each no earlier than the one before, in the order of the rows; None when none fits."""
    previous = _FROM
    found = []
    for item, (start, end) in read:
        at = _next(start, previous, item, "start")
        if at is None:
            return None
        to = _next(end, at, item, "end")
        if to is None:
            return None
        found.append((at, to))
        previous = to
    return found


def _is_open(clock: Clock, item: Item, field: str) -> bool:
    """Whether a time may be in either half of the day: 1:00 to 11:59, and no am or pm was said."""
    if not 3600 <= clock.secs < _HALF:
        return False
    is_typed_as_time = not isinstance(item.cells.get(field if field in item.cells else "time"), str)
    return is_typed_as_time or not clock.has_meridiem


def _next(clock: Clock, previous: int, item: Item, field: str) -> int | None:
    """The time, in the half of the day that puts it at or after another; None when neither does."""
    if clock.secs >= previous:
        return clock.secs
    later = clock.secs + _HALF
    longest = _HALF if previous == _FROM else _LONGEST if field == "end" else _LONGEST_PAUSE
    farthest = previous + longest
    return later if _is_open(clock, item, field) and previous <= later <= farthest else None


def _by_itself(read: list[tuple[Item, tuple[Clock, Clock]]]) -> list[tuple[int, int]]:
    """The times when the rows stand in no order: each from 06:00 on, each end after its start."""
    found = []
    for item, (start, end) in read:
        at = start.secs + _HALF if start.secs < _FROM and _is_open(start, item, "start") else start.secs
        to = end.secs
        if to <= at and _is_open(end, item, "end") and at < to + _HALF <= at + _LONGEST:
            to += _HALF
        found.append((at, to))
    return found


def _usual_of(named: set[str]) -> set[str]:
    """The names of the regular bells, in compared form: none and `Regular`; where neither is there, the one that means it."""
    regular = {"", plain(REGULAR)}
    likely = {name for name in named if re.fullmatch(_USUAL, name)}
    return likely if len(likely) == 1 and not named & regular else regular


def is_usual(schedule: str, bells: Bells) -> bool:
    """Whether the name of a schedule, in compared form, means the regular bells: no others are called so."""
    return re.fullmatch(_USUAL, schedule) is not None and all(key[0] != schedule for key in bells.sets)


def bells_on(bells: Bells, schedule: str, is_named: bool, label: str, weekday: int, division: str) -> Rung:
    """The bells of a day: those of the label replace those without one, those of the division likewise.

    `schedule` is in compared form, blank for the regular one.
    """
    sets, division = bells.sets, plain(division)
    of_label = _for(sets, schedule, plain(label), division) if label else None
    of_weekday = _for(sets, schedule, weekday_key(weekday), division)
    if of_label and of_weekday and not is_named and of_label is not of_weekday:
        one, other = next(iter(of_label.values())).item, next(iter(of_weekday.values())).item
        message = f"Bells for the label {label} (row {one.number}) and for its weekday (row {other.number}) meet on one date."
        clash = one.problem("bells-clash", "label", message, "Name a schedule for that date in Special days.")
        return Rung(of_label, is_named, True, clash)
    special = of_label or of_weekday
    if special:
        return Rung(special, is_named, True)
    return Rung(_for(sets, schedule, "", division) or {}, is_named, False)


def _for(
    sets: dict[Key, dict[str, Bell]], schedule: str, label: str, division: str
) -> dict[str, Bell] | None:
    return sets.get((schedule, label, division)) or (sets.get((schedule, label, "")) if division else None)
