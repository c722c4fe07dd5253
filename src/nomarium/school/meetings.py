"""Slots on the days of the year: dated meetings of every class, neighbouring periods joined."""

from collections import defaultdict
from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.school.bells import Bell, Bells, Rung, bells_on, is_usual
from nomarium.school.planheads import plain
from nomarium.school.settings import Settings
from nomarium.school.timetable import Slot
from nomarium.school.year import NO_LABEL, SchoolDay, Year
from nomarium.school.yeartables import Special

_MOST_TOLD: Final = 5
"""Rows that a note names."""


class Meeting(NamedTuple):
    """One dated occasion of a class, after joining."""

    slot: Slot
    day: SchoolDay
    label: str
    bells: tuple[Bell, ...]
    """The periods that it takes, in order."""

    @property
    def start_secs(self) -> int:
        return self.bells[0].start_secs

    @property
    def end_secs(self) -> int:
        bells = self.bells
        return bells[0].end_secs if len(bells) == 1 else max(bell.end_secs for bell in bells)

    @property
    def period(self) -> str:
        """The bell's Name, else its code; `1–2` when joined."""
        names = [bell.name or bell.period for bell in self.bells]
        return names[0] if len(names) == 1 or not names[-1] else f"{names[0]}–{names[-1]}"


class NotMet(NamedTuple):
    """An occasion that a named schedule left out."""

    slot: Slot
    day: SchoolDay


class Met(NamedTuple):
    """What the year makes of the timetable."""

    meetings: list[Meeting]
    not_met: list[NotMet]
    problems: list[Problem]
    notes: list[Problem]


def meet(slots: Sequence[Slot], year: Year, bells: Bells, settings: Settings) -> Met:
    """Expand slots over the school days, in the order of dates and times."""
    problems = _unknown_schedules(year, bells)
    missing: dict[int, tuple[Slot, list[tuple[SchoolDay, Rung]]]] = {}
    clashes: dict[tuple[int, str], Problem] = {}
    not_met: list[NotMet] = []
    found: list[Meeting] = []
    singles: dict[int, tuple[Bell, ...]] = {}
    held = set[int]()
    groups = _groups(slots)
    divisions = sorted({plain(slot.division) for slot in slots})
    for day in year.days:
        here: list[Meeting] = []
        for division in divisions:
            if division in day.closed:
                continue
            special = day.special_of(division)
            label = label_for(day, division, year)
            if label is None:
                continue
            schedule, is_named = schedule_of(special, bells)
            rung = bells_on(bells, schedule, is_named, label, day.weekday, division)
            if rung.clash is not None:
                clashes.setdefault((rung.clash.place.row or 0, label), rung.clash)
            for slot in _on(groups, division, label, day, year):
                held.add(id(slot))
                bell = slot.own or rung.bells.get(slot.period)
                if bell is not None:
                    here.append(Meeting(slot, day, label, singles.setdefault(id(bell), (bell,))))
                elif rung.is_named:
                    not_met.append(NotMet(slot, day))
                else:
                    missing.setdefault(id(slot), (slot, []))[1].append((day, rung))
        found += _joined(here, settings)
    problems += clashes.values()
    problems += [_no_bell(slot, days, bells) for slot, days in missing.values()]
    never = [slot for slot in slots if id(slot) not in held] if year.days else []
    problems += [_off_its_date(slot) for slot in never if slot.first and slot.first == slot.last]
    others = [slot for slot in never if not slot.first or slot.first != slot.last]
    return Met(found, not_met, problems, _never_told(others))


def _off_its_date(slot: Slot) -> Problem:
    message = f"{slot.code} is on {slot.first} alone, and that is no school day of its division."
    remedy = "Correct the date, or make it a school day in a table Special days."
    return Problem("class-never", message, remedy, slot.place, slot.cell)


def _never_told(slots: Sequence[Slot]) -> list[Problem]:
    """A note of the rows that make no meeting: no school day is theirs."""
    if not slots:
        return []
    rows = list(dict.fromkeys(f"{slot.code} (row {slot.place.row})" for slot in slots))
    more = f" and {len(rows) - _MOST_TOLD} more" if len(rows) > _MOST_TOLD else ""
    message = f"No school day is one of {', '.join(rows[:_MOST_TOLD])}{more}: nothing is written of {'it' if len(rows) == 1 else 'them'}."
    remedy = "Their days, terms and dates say when they meet: correct these if they should."
    return [note("class-never", message, remedy).at(slots[0].place)]


def label_for(day: SchoolDay, division: str, year: Year) -> str | None:
    """The label of a day for a division; None when it has no classes then."""
    own = next((one for one in day.division_specials if plain(one.division) == division), None)
    if own is not None and own.label:
        return None if plain(own.label) == NO_LABEL else year.labels.find(own.label)
    if not day.in_cycle:
        return None
    if year.labels.names and not day.label:
        return None
    return day.label


def schedule_of(special: Special | None, bells: Bells) -> tuple[str, bool]:
    """The name of the schedule that rings, in compared form, and whether a special day named it."""
    if special is None or not special.bells:
        return "", False
    name = bells.schedules.find(special.bells) or special.bells
    return ("" if is_usual(plain(name), bells) else plain(name)), True


def _groups(slots: Sequence[Slot]) -> dict[tuple[str, str], list[Slot]]:
    """Slots by division and label; weekday labels by their number, blank labels under blank."""
    found: dict[tuple[str, str], list[Slot]] = defaultdict(list)
    for slot in slots:
        found[plain(slot.division), plain(slot.label)].append(slot)
    return found


_WEEKDAY_NAMES = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")


def _on(
    groups: dict[tuple[str, str], list[Slot]], division: str, label: str, day: SchoolDay, year: Year
) -> list[Slot]:
    """The slots of a division on a day."""
    weekday = _WEEKDAY_NAMES[day.weekday]
    labels = dict.fromkeys(
        [plain(label), "", *([weekday] if year.moves == "by weekday" or not year.labels.names else [])]
    )
    found = []
    for one in labels:
        for slot in groups.get((division, one), ()):
            if slot.terms and plain(day.term) not in {plain(term) for term in slot.terms}:
                continue
            if (slot.first and day.date < slot.first) or (slot.last and day.date > slot.last):
                continue
            if slot.dates is not None and day.date not in slot.dates:
                continue
            found.append(slot)
    return found


def _joined(here: list[Meeting], settings: Settings) -> list[Meeting]:
    """The meetings of one day in order, neighbouring periods of one class in one room made one."""
    here.sort(key=lambda one: (one.bells[0].start_secs, one.bells[0].end_secs, one.slot.code))
    if not settings.join:
        return here
    open_ones: dict[tuple[str, ...], int] = {}
    found: list[Meeting] = []
    for one in here:
        slot = one.slot
        key = (plain(slot.code), plain(slot.room), slot.title, slot.group, *slot.teachers)
        at = open_ones.get(key)
        if at is not None:
            before = found[at]
            gap = one.start_secs - before.end_secs
            if 0 <= gap <= settings.join_gap_secs:
                found[at] = before._replace(bells=(*before.bells, *one.bells))
                continue
        open_ones[key] = len(found)
        found.append(one)
    return found


def _no_bell(slot: Slot, days: list[tuple[SchoolDay, Rung]], bells: Bells) -> Problem:
    """A period that has no bell on some days of its class."""
    dates = [str(day.date) for day, _ in days]
    shown = ", ".join(dates[:3]) + (f" and {len(dates) - 3} more dates" if len(dates) > 3 else "")
    label = f" of label {days[0][0].label}" if days[0][0].label else ""
    message = f"{slot.code} meets in period {slot.period}, which has no bell on {shown}{label}."
    there = ", ".join(days[0][1].bells) or "none"
    remedy = f"The bells of that day are {there}. Add the period to them, or correct the timetable."
    if days[0][1].is_of_label:
        remedy += " (The rows of a label replace all rows without one, so they must list every period.)"
    if not bells.sets:
        remedy = "There is no Bells table: add one that says when each period is."
    return Problem("bell-missing", message, remedy, slot.place, slot.cell)


def _unknown_schedules(year: Year, bells: Bells) -> list[Problem]:
    found: dict[int, Problem] = {}
    for day in year.days:
        for special in (day.special, *day.division_specials):
            if special is not None and special.bells and bells.schedules.find(special.bells) is None:
                refusal = bells.schedules.unknown(special.bells)
                place = special.item.place("bells")
                found.setdefault(special.item.number, refusal.problem(place, special.bells))
    return list(found.values())
