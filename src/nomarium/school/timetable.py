"""The timetable: which class meets on which labels in which periods, from a list, `Meets` cells or grids."""

import datetime as dt
import re
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.problem import Place, Problem, note
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.rows.barred import barred_in
from nomarium.reading.rows.saidbeside import Held, says_more
from nomarium.school.bells import Bell
from nomarium.school.classrows import ClassRows
from nomarium.school.codes import Codes
from nomarium.school.meets import WeekdayMeets, read_meets
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item
from nomarium.school.yeartables import Dates


class Slot(NamedTuple):
    """A class in one period of the days of one label, from one row or cell."""

    code: str
    """The class's code."""
    label: str
    """Blank: on every label."""
    period: str
    title: str = ""
    room: str = ""
    teachers: tuple[str, ...] = ()
    group: str = ""
    terms: tuple[str, ...] = ()
    division: str = ""
    notes: str = ""
    first: dt.date | None = None
    last: dt.date | None = None
    place: Place = Place()
    cell: str = ""
    own: Bell | None = None
    """When it is, where its row says that itself: then no bell schedule does."""
    weeks: str = ""
    """The weeks of the term in which it meets, as its row lists them; blank: in all."""
    dates: frozenset[dt.date] | None = None
    """The school days of these weeks."""


class Timetable(NamedTuple):
    slots: list[Slot]
    problems: list[Problem]
    notes: list[Problem]


class Known(NamedTuple):
    """What the cells of a timetable may name."""

    labels: Codes
    periods: Codes
    terms: Codes
    weekdays_work: bool
    """Whether weekday names are labels: where the cycle is by weekday or there is none."""


_SHORT = (
    *tuple((name[:size], name) for name in WEEKDAYS for size in (2, 3, 4)),
    ("Thurs", "Thursday"),
    ("Tues", "Tuesday"),
)


_ALL_TERMS = frozenset(("fullyear", "year", "allyear", "yearlong", "both", "all", "wholeyear", "annee", "fy"))
"""What a Term cell says that names every term."""


def labels_of(known: Known) -> Codes:
    """Labels, and weekday names where they work as labels."""
    if not known.weekdays_work:
        return known.labels
    plural = tuple((f"{name}s", name) for name in WEEKDAYS)
    own = tuple((name, name) for name in known.labels.names)
    taken = {plain(name) for name in known.labels.names}
    short = tuple(pair for pair in _SHORT if plain(pair[0]) not in taken)
    return Codes("label", [*known.labels.names, *WEEKDAYS], [*short, *plural, *own])


def read_list(rows: ClassRows, known: Known, dates: Dates) -> Timetable:
    """Read a Timetable in list form."""
    found = Timetable([], [], [])
    labels = labels_of(known)
    met = [text for item in rows.items if (text := item.text("meets") or _day_and_period(item))]
    by_letters = WeekdayMeets(met, known.periods) if known.weekdays_work and not known.labels.names else None
    seen: dict[tuple[object, ...], Item] = {}
    for item in rows.items:
        own = rows.bells.get(id(item))
        times = (own.start_secs, own.end_secs) if own else ()
        mark = (item.table.sheet.title, *times, *((field, item.text(field)) for field in item.cells))
        if mark in seen:
            message = f"The row says the same as row {seen[mark].number}: it counts once."
            found.notes.append(note("row-repeated", message).at(item.place()))
            continue
        seen[mark] = item
        slots = _slots_of(item, labels, by_letters, known, dates, rows)
        if isinstance(slots, list):
            found.slots.extend(slots)
        else:
            found.problems.extend(slots)
    return found


def _slots_of(
    item: Item, labels: Codes, by_letters: WeekdayMeets | None, known: Known, dates: Dates, rows: ClassRows
) -> list[Slot] | tuple[Problem, ...]:
    code = item.text("class")
    if not code:
        return (
            item.problem("class-missing", "class", "The row has no class.", "Give it one, or take it out."),
        )
    problems = list[Problem]()
    pairs: list[tuple[str, str]] = []
    if item.text("meets"):
        if item.text("label") or item.text("period"):
            message = "The row has Meets beside Label or Period."
            return (item.problem("meets-twice", "meets", message, "Use one way or the other."),)
        read = by_letters.read(item.text("meets")) if by_letters is not None else None
        if read is None:
            read = read_meets(item.text("meets"), labels, known.periods)
        if isinstance(read, Refusal):
            problems.append(read.problem(item.place("meets"), item.text("meets")))
        else:
            pairs = read
    elif by_letters is not None and isinstance(read := by_letters.read(_day_and_period(item)), list):
        pairs = read  # Mon-1
    else:
        pairs = _combined(item, labels, known.periods, problems, rows)
    terms: tuple[str, ...] = ()
    if item.text("term") and plain(item.text("term")) not in _ALL_TERMS:
        read_terms = known.terms.read(item.cells["term"])
        if isinstance(read_terms, Refusal):
            problems.append(read_terms.problem(item.place("term"), item.text("term")))
        else:
            terms = read_terms
    ends: list[dt.date | None] = []
    for field in ("first", "last"):
        day = dates.read(item, field)
        if isinstance(day, Problem):
            problems.append(day)
        else:
            ends.append(day)
    if problems:
        return tuple(problems)
    first, last = ends
    if first and last and last < first:
        return (
            item.problem(
                "end-before-start", "last", f"It ends on {last}, before {first}.", "Correct one of them."
            ),
        )
    teachers = tuple(
        name for part in re.split(r"[;\n]", item.text("teacher")) if (name := " ".join(part.split()))
    )
    return [
        Slot(
            code, label, period, item.text("title"), item.text("room"), teachers, item.text("group"), terms,
            item.text("division"), item.text("notes"), first, last, item.place("period" if "period" in item.cells else "meets"),
            item.text("period") or item.text("meets") or item.text("time") or item.text("start"), rows.bells.get(id(item)),
            item.text("teaching"),
        )
        for label, period in pairs
    ]  # fmt: skip


def said_of_days(slots: Iterable[Slot]) -> list[Problem]:
    """A problem for each row or cell whose words say when its class meets or not, besides what its columns say: a timetable has no place
    for them."""
    said: dict[tuple[str, dt.date | None, dt.date | None], str] = {}
    found: dict[tuple[Place, str], Problem] = {}
    for slot in slots:
        for text in (slot.code, slot.title, slot.room, slot.notes):
            key = (text, slot.first, slot.last)
            if key not in said:
                said[key] = _clause_of(text, slot) if text else ""
            if said[key] and not (slot.weeks and text != slot.notes):
                message = f"“{said[key]}” seems to say when the class meets or does not, and is not read."
                remedy = "Give the row a First day and a Last day, or the week in which it meets (column Week), or list the day in Days off; and take the words out."
                found[slot.place, text] = Problem("held-unread", message, remedy, slot.place, text)
    return list(found.values())


def _clause_of(text: str, slot: Slot) -> str:
    barred = barred_in(text, ENGLISH)
    if barred is not None:
        return "" if barred.are_holidays else barred.text
    held = Held(None, Rule("WEEKLY", until=slot.last), slot.first or dt.date.min)
    return says_more(text, held, ENGLISH)


def _day_and_period(item: Item) -> str:
    """What stands as the period of a row that says no day, where both may be in one cell."""
    return "" if item.text("label") else item.text("period")


def _combined(
    item: Item, labels: Codes, periods: Codes, problems: list[Problem], rows: ClassRows
) -> list[tuple[str, str]]:
    """Every combination of the Label and Period cells; an empty Label is every label. A row with times of its own needs
    no period, and has it as it stands."""
    has_times = id(item) in rows.bells
    if not item.text("period") and not has_times:
        if not any(item.text(field) for field in ("time", "start")):  # else its time is a problem already
            remedy = "Give it one, or its times, or a Meets cell."
            problems.append(item.problem("period-missing", "period", "The row has no period.", remedy))
        return []
    found: list[tuple[str, ...]] = []
    for field, codes in (("label", labels), ("period", periods)):
        if not item.text(field):
            found.append(("",))
            continue
        if field == "period" and has_times:
            found.append((item.text("period"),))
            continue
        read = (
            _weekdays(item, rows.weekdays)
            if field == "label" and rows.weekdays
            else codes.read(item.cells[field])
        )
        if isinstance(read, Refusal):
            problems.append(read.problem(item.place(field), item.text(field)))
            return []
        found.append(read)
    return [(label, period) for label in found[0] for period in found[1]]


def _weekdays(item: Item, codes: WeekdayCodes) -> tuple[str, ...] | Refusal:
    days = codes.read(item.text("label"))
    return days if isinstance(days, Refusal) else tuple(WEEKDAYS[day] for day in days)


def merged_slots(slots: Sequence[Slot]) -> list[Slot]:
    """Slots of the same class at the same time on several sheets are one, of all the people and the room that
    they name; in two rooms, or of two groups with their own teachers, they are two."""
    found: dict[tuple[object, ...], list[Slot]] = {}
    for slot in slots:
        times = (slot.own.start_secs, slot.own.end_secs) if slot.own else slot.period
        key = (plain(slot.code), slot.label, times, slot.terms, slot.first, slot.last, slot.weeks)
        here = found.setdefault(key, [])
        at = next((n for n, one in enumerate(here) if _may_be_one(one, slot)), None)
        if at is None:
            here.append(slot)
            continue
        other = here[at]
        teachers = tuple(dict.fromkeys((*other.teachers, *slot.teachers)))
        groups = "; ".join(dict.fromkeys(one for one in (other.group, slot.group) if one))
        here[at] = other._replace(teachers=teachers, group=groups, room=other.room or slot.room)
    return [slot for here in found.values() for slot in here]


def _may_be_one(one: Slot, other: Slot) -> bool:
    """Whether two slots of a class at one time may be one meeting."""
    if one.room and other.room:
        return plain(one.room) == plain(other.room)
    are_groups = bool(one.group and other.group) and plain(one.group) != plain(other.group)
    have_own = bool(one.teachers and other.teachers) and not set(one.teachers) & set(other.teachers)
    return not (are_groups and have_own)
