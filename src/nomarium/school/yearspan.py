"""From when to when classes are taught, where no table of terms says it; and on which weekdays."""

from collections.abc import Sequence

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.options import ReadingOptions
from nomarium.school.keydates import NAMELESS
from nomarium.school.plantables import Item
from nomarium.school.settings import Settings
from nomarium.school.yeartables import Dates, Term

_FIRST, _LAST = "2026-09-07", "2026-12-18"


def term_of_classes(
    items: Sequence[Item], dates: Dates, options: ReadingOptions, notes: list[Problem], is_alone: bool
) -> Term | Problem | None:
    """The one stretch of dates in which classes are taught: as the command line says, else from the first to the last
    day of the rows, where each has both. None where there are no classes."""
    if not items:
        return None
    first, last = options.repeats_from, options.repeats_until
    if first is not None and last is not None:
        return Term(NAMELESS, first, last, "", items[0])
    spans = (
        [(dates.read(item, "first"), dates.read(item, "last")) for item in items] if dates.decisions else []
    )
    days = [(a, b) for a, b in spans if a is not None and b is not None]
    known = [(a, b) for a, b in days if not isinstance(a, Problem) and not isinstance(b, Problem)]
    if known and len(known) == len(items):
        begin, end = min(a for a, _ in known), max(b for _, b in known)
        message = f"Classes are taught from {begin} to {end}: the first and the last day of their rows."
        notes.append(note("terms-of-classes", message).at(items[0].place("first")))
        return Term(NAMELESS, begin, end, "", items[0])
    message = "The plan has classes, and nothing says from when to when they are taught."
    remedy = f"Say so: --from {_FIRST} --until {_LAST}, or --terms FILE"
    remedy += (
        f"; for one week only, --day-one {_FIRST}."
        if is_alone
        else ", or add a table Terms (Name, First day, Last day)."
    )
    if first is not None or last is not None:
        missing = f"--until {_LAST}" if last is None else f"--from {_FIRST}"
        remedy = f"Give {missing} too."
    return Problem("terms-missing", message, remedy, items[0].table.sheet.place())


def with_weekdays(
    settings: Settings, codes: WeekdayCodes | None, items: Sequence[Item], notes: list[Problem]
) -> Settings:
    """The settings with every weekday that classes name as a school day."""
    if codes is None or settings.school_days != Settings().school_days:
        return settings
    named = {
        day
        for item in items
        if not isinstance(days := codes.read(item.text("label")), Refusal)
        for day in days
    }
    more = sorted(named - set(settings.school_days))
    if not more:
        return settings
    message = f"{listed([WEEKDAYS[day] for day in more])} {'is a school day' if len(more) == 1 else 'are school days'} too: classes meet then."
    notes.append(note("school-days-found", message).at(items[0].table.sheet.place()))
    return settings._replace(school_days=tuple(sorted({*settings.school_days, *more})))
