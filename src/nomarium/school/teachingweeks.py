"""The weeks of a term in which classes meet, as a column of a timetable lists them: `1-6`, `1, 3, 5`, `odd`."""

import datetime as dt
import re
from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import fold
from nomarium.school.cycleweeks import are_cycle_weeks, is_every_week
from nomarium.school.plantables import Item
from nomarium.school.timetable import Slot
from nomarium.school.year import Year

_MOST: Final = 53
_LEAD: Final = r"\b(?:teaching|term|calendar)\b|\b(?:weeks?|wks?\.?|w|semaines?|kw|uke|vecka|v|only)\b\.?"
_PARITY: Final = {"odd": 1, "even": 0, "impair": 1, "pair": 0, "ungerade": 1, "gerade": 0}


class Placed(NamedTuple):
    """Slots with the dates of the weeks in which they meet."""

    slots: list[Slot]
    problems: list[Problem]
    notes: list[Problem]


def weeks_listed(text: str) -> frozenset[int] | None:
    """The numbers of weeks that a cell lists, None for any other.

    >>> sorted(weeks_listed("Weeks 1-3, 5")), sorted(weeks_listed("1 to 6 odd")), weeks_listed("A")
    ([1, 2, 3, 5], [1, 3, 5], None)
    """
    said = re.sub(_LEAD, " ", fold(text))
    parity = next((odd for word, odd in _PARITY.items() if re.search(rf"\b{word}s?\b", said)), None)
    said = re.sub(rf"\b(?:{'|'.join(_PARITY)})s?\b", " ", said).strip(" ,;:()")
    found: set[int] = set() if said else set(range(1, _MOST + 1))
    if not said and parity is None:
        return None
    for part in re.split(r"\s*(?:[,;&+/]|\band\b|\bet\b|\bund\b)\s*", said) if said else ():
        span = re.fullmatch(r"(\d{1,2})(?:\s*(?:-|–|—|to|bis|a)\s*(\d{1,2}))?", part)
        if span is None or not 1 <= int(span[1]) <= int(span[2] or span[1]) <= _MOST:
            return None
        found.update(range(int(span[1]), int(span[2] or span[1]) + 1))
    return frozenset(week for week in found if parity is None or week % 2 == parity)


def with_teaching_weeks(items: Sequence[Item]) -> list[Item]:
    """Rows whose column of weeks lists those of the term, with them apart from weeks that take turns. `odd` alone could be
    weeks of the calendar, too: it counts only beside numbers."""
    texts = [text for item in items if (text := item.text("week")) and not is_every_week(text)]
    listed = [weeks_listed(text) for text in texts]
    are_all = bool(texts) and all(listed)
    has_numbers = any(re.search(r"\d", text) and not are_cycle_weeks(text) for text in texts)
    if not are_all or not has_numbers:
        return list(items)
    return [
        item._replace(cells={**item.cells, "week": "", "teaching": "" if is_every_week(text) else text})
        if (text := item.text("week"))
        else item
        for item in items
    ]


def placed_in_weeks(slots: Sequence[Slot], year: Year) -> Placed:
    """Slots that name weeks, with the dates of these: by their numbers in each term, weeks without school uncounted, or by
    those of the calendar (ISO 8601) where no term has so many."""
    found = Placed([], [], [])
    asked = {
        week for slot in slots for week in weeks_listed(slot.weeks) or () if re.search(r"\d", slot.weeks)
    }
    if not any(slot.weeks for slot in slots) or not year.days:
        return found._replace(slots=list(slots))
    most = max(day.week for day in year.days)
    of_calendar = {day.date.isocalendar().week for day in year.days}
    by_calendar = max(asked, default=0) > most and asked <= of_calendar
    for slot in slots:
        weeks = weeks_listed(slot.weeks) if slot.weeks else None
        if weeks is None:
            found.slots.append(slot)
            continue
        if re.search(r"\d", slot.weeks) and not by_calendar and max(weeks, default=0) > most:
            message = f"“{slot.weeks}” goes beyond the weeks with school, which are {most}."
            remedy = "Correct the weeks, or the terms and days off."
            found.problems.append(Problem("week-beyond", message, remedy, slot.place, slot.cell))
            continue
        dates = frozenset(
            day.date
            for day in year.days
            if (day.date.isocalendar().week if by_calendar else day.week) in weeks
        )
        found.slots.append(slot._replace(dates=dates))
    first = next(slot for slot in slots if slot.weeks)
    found.notes.append(_told(year, by_calendar).at(first.place))
    return found


def _told(year: Year, by_calendar: bool) -> Problem:
    if by_calendar:
        message = "The weeks of classes are those of the calendar (ISO 8601): no term has so many."
        return note("weeks-counted", message)
    begins = {(day.term, day.week): day.date for day in reversed(year.days)}
    shown = [
        f"{term or 'the term'} from {date}"
        for (term, week), date in sorted(begins.items(), key=lambda one: one[1])
        if week == 1
    ]
    message = f"The weeks of classes are counted in each term, week 1 of {' and of '.join(shown)}"
    idle = _idle_weeks([day.date for day in year.days if day.term == year.days[0].term])
    message += f"; the week of {idle[0]} has no school and no number." if idle else "."
    return note(
        "weeks-counted", message, "If weeks without school count, give the rows their First day and Last day."
    )


def _idle_weeks(dates: Sequence[dt.date]) -> list[dt.date]:
    """The Mondays between the first and the last of some dates whose weeks have none of them."""
    mondays = {date - dt.timedelta(days=date.weekday()) for date in dates}
    count = (max(mondays) - min(mondays)).days // 7
    every = [min(mondays) + dt.timedelta(weeks=n) for n in range(count)]
    return [monday for monday in every if monday not in mondays]
