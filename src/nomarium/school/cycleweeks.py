"""The weeks of a cycle, A and B, in which the rows of a timetable meet, as a column of weeks says."""

import datetime as dt
import re
from collections.abc import Callable, Sequence

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item
from nomarium.school.yeartables import CycleRow

_WEEK = r"(?i)\s*(?:weeks?|wk|semaine|woche)?\s*[-:]?\s*(?P<week>[A-D]|[1-4])\s*"
_RUN = r"(?i)ab|abc|abcd"
"""Letters of weeks that take turns, all of them from the first on: a class has each of these."""
_EVERY = frozenset(("all", "every", "each", "both", "weekly", "every week", "all weeks", "both weeks"))


def weeks_found(items: Sequence[Item]) -> list[CycleRow]:
    """The cycle of weeks that a column of weeks beside weekdays shows: a label for each weekday of each week."""
    weeks = sorted({week for item in items for week in _weeks_of(item.text("week"))})
    if len(weeks) < 2 or "".join(weeks) not in ("ABCD"[: len(weeks)], "1234"[: len(weeks)]):
        return []
    codes = WeekdayCodes([item.text("label") for item in items], ENGLISH)
    first: dict[tuple[str, int], Item] = {}
    for item in items:
        days = codes.read(item.text("label"))
        for week in _weeks_of(item.text("week")) or weeks:
            for day in () if isinstance(days, Refusal) else days:
                first.setdefault((week, day), item)
    return [
        CycleRow(f"{week} {WEEKDAYS[day]}", "", day, week, None, item)
        for (week, day), item in sorted(first.items(), key=lambda one: one[0])
    ]


def as_weeks(
    items: Sequence[Item], cycle: Sequence[CycleRow], is_school: Callable[[dt.date], bool]
) -> list[CycleRow]:
    """A Cycle table that lists weeks, `Week A` and `Week B`, with a date a week or a date a day or without dates, as a label
    for each weekday of each week in which there `is_school`; nothing where its labels are not the weeks that a column of weeks beside weekdays names."""
    codes = WeekdayCodes([item.text("label") for item in items], ENGLISH)
    said = {
        week
        for item in items
        if plain(item.text("week")) not in _EVERY
        for week in (_weeks_of(item.text("week")) or (plain(item.text("week")),))
    } - {""}
    known = {_name(row.label) for row in cycle}
    if (
        not said
        or not said <= known
        or not codes.are_days
        or any(row.week or row.weekday is not None for row in cycle)
    ):
        return []
    if any(row.date is None for row in cycle):
        return [_day_of(row, day, None) for row in cycle for day in range(7)]
    weekdays = sorted({day for item in items for day in _days_in(codes, item)} | set(range(5)))
    mondays = [row.date - dt.timedelta(days=row.date.weekday()) for row in cycle if row.date is not None]
    if len(set(mondays)) < len(mondays):
        return [_day_of(row, row.date.weekday(), row.date) for row in cycle if row.date is not None]
    return [
        _day_of(row, day, monday + dt.timedelta(days=day))
        for row, monday in zip(cycle, mondays, strict=True)
        for day in weekdays
        if is_school(monday + dt.timedelta(days=day))
    ]


def _day_of(row: CycleRow, day: int, date: dt.date | None) -> CycleRow:
    week = _name(row.label)
    return CycleRow(f"{week} {WEEKDAYS[day]}", "", day, week, date, row.item)


def _days_in(codes: WeekdayCodes, item: Item) -> Sequence[int]:
    days = codes.read(item.text("label"))
    return () if isinstance(days, Refusal) else days


def are_cycle_weeks(text: str) -> bool:
    """Whether a cell names weeks that take turns, `A` or `1 & 2`."""
    return bool(_weeks_of(text))


def is_every_week(text: str) -> bool:
    return plain(text) in _EVERY or text in _EVERY


def told(rows: Sequence[CycleRow]) -> Problem:
    """A note of the weeks that were found, for nothing but the timetable says that they take turns."""
    weeks = list(dict.fromkeys(row.week for row in rows))
    message = f"The weeks {listed(weeks)} take turns, as the column Week shows; the first week is {weeks[0]}."
    remedy = "If it is another, or the weeks are those of one term: a table Cycle, or First day and Last day for each row."
    return note("cycle-weeks", message, remedy).at(rows[0].item.table.sheet.place())


def in_cycle_weeks(
    items: Sequence[Item], cycle: Sequence[CycleRow], by_weekday: bool
) -> tuple[list[Item | None], list[Problem], list[Problem]]:
    """Rows that name weekdays, with the labels of those in the weeks that their week column says; `by_weekday`: also those
    of every week. None, and a problem, for a row whose weeks the cycle has not: it would meet in all of them, unseen; None, and a note,
    for one that falls on no date of a table of weeks."""
    codes = WeekdayCodes([item.text("label") for item in items], ENGLISH)
    known = {_name(row.week) for row in cycle if row.week}
    found: list[Item | None] = []
    problems, notes = list[Problem](), list[Problem]()
    is_dated = any(row.date is not None for row in cycle)
    for item in items:
        text = item.text("week")
        weeks = set(_weeks_of(text)) or ({plain(text)} & known if text else set())
        is_every = not text or plain(text) in _EVERY
        if not is_every and not (weeks and weeks <= known):
            problems.append(_unknown(item, text, known))
            found.append(None)
            continue
        if is_every and not (by_weekday and known):
            found.append(item)
            continue
        days = codes.read(item.text("label"))
        labels = [
            row.label
            for row in cycle
            if (is_every or _name(row.week) in weeks)
            and (row.label == item.text("label") if isinstance(days, Refusal) else row.weekday in days)
        ]
        if not labels and is_dated:
            message = f"No school day is a {item.text('label')} of week {listed(sorted(weeks)) or 'A or B'}: the class does not meet then."
            notes.append(note("week-never", message).at(item.place("label")))
            found.append(None)
            continue
        if not labels and not is_every:
            message = f"“{item.text('label')}” is no day of week {listed(sorted(weeks))} of the cycle."
            problems.append(item.problem("week-label", "label", message, "Correct the day or the week."))
            found.append(None)
            continue
        found.append(item._replace(cells={**item.cells, "label": ", ".join(labels)}) if labels else item)
    return found, problems, notes


def _unknown(item: Item, text: str, known: set[str]) -> Problem:
    has = f"the cycle's weeks are {listed(sorted(known))}" if known else "the plan has no cycle of weeks"
    message = f"“{text}” says in which weeks the class meets, and {has}."
    remedy = (
        "Weeks are letters or numbers such as A and B, each on a row or more, or in a column Week of the table Cycle; "
        "for a stretch of weeks give the row its dates, First day and Last day."
    )
    return item.problem("week-unknown", "week", message, remedy)


def _weeks_of(text: str) -> tuple[str, ...]:
    """The weeks that a cell lists, `A` or `Week 1 & 3`; none where it says anything else."""
    parts = (
        [re.fullmatch(_WEEK, part) for part in re.split(r"[,;/&+]|\band\b|\bet\b|\bund\b", text)]
        if text
        else []
    )
    if re.fullmatch(_RUN, text.strip()):
        return tuple(text.strip().upper())
    return tuple(match["week"].upper() for match in parts if match) if all(parts) else ()


def _name(week: str) -> str:
    """A week of a cycle as rows name it."""
    named = _weeks_of(week)
    return named[0] if len(named) == 1 else plain(week)
