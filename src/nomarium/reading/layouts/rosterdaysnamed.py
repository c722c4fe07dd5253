"""The weekdays that the labels of a roster name, `Chapel Mon` over weeks: what stands there is on that day, and not all week."""

import datetime as dt
import re
from collections.abc import Iterable
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.people import PERSON
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.headdates import Days
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosterslots import Drawing, Slot

_LEAST: Final = 3
"""Letters of the shortest weekday beside other words: *Fr* is as well a title, and *Mo* a name."""
_WHOLE_NAME: Final = 5
"""Letters of the shortest weekday written out: *Sun* alone is as well a deck."""


class _Named(NamedTuple):
    """A label that names weekdays at its beginning or end: these, 0 for Monday, and what else it says."""

    days: tuple[int, ...]
    rest: str
    begins: bool
    is_whole: bool
    """Whether the names are written out."""


def on_named_days(top: Top, drawing: Drawing) -> Drawing:
    """The drawing with each entry of a week on the weekday that its label names. A label of several weekdays, and one of a
    weekday that is not that of the dates, are problems."""
    named = _named_in(top.of_weekdays.extended(top.lexicon), {slot.label for slot in drawing.slots})
    several = len({day for one in named.values() for day in one.days}) > 1
    are_weekly = several and len({slot.days.first.weekday() for slot in drawing.slots}) == 1
    slots, problems, moved = list[Slot](), dict[str, Problem](), dict[str, Slot]()
    for slot in drawing.slots:
        one = named.get(slot.label)
        first, last = slot.days
        is_week = (last - first).days in range(3, 7)
        if one is None or not (is_week or are_weekly):
            slots.append(slot)
            continue
        day = first + dt.timedelta((one.days[0] - first.weekday()) % 7)
        if len(one.days) > 1 or day > last:
            problems.setdefault(slot.label, _doubt(top, slot, is_week))
        elif is_week:
            moved.setdefault(slot.label, slot)
            slots.append(slot._replace(label=one.rest, days=Days(day, day)))
        else:
            slots.append(slot)
    notes = [*drawing.notes, *_told(top, [*moved.values()])]
    return drawing._replace(slots=slots, problems=[*drawing.problems, *problems.values()], notes=notes)


def _named_in(lexicon: Lexicon, labels: Iterable[str]) -> dict[str, _Named]:
    """The labels that name weekdays: where others name another weekday in the same place; else with whole names, which are not
    the last words of somebody's name."""
    found = {label: one for label in labels if (one := _named(lexicon, label)) is not None}
    days = {begins: {one.days for one in found.values() if one.begins == begins} for begins in (True, False)}
    return {
        label: one
        for label, one in found.items()
        if len(days[one.begins]) > 1 or (one.is_whole and (one.begins or re.fullmatch(PERSON, label) is None))
    }


def _named(lexicon: Lexicon, label: str) -> _Named | None:
    words = list(re.finditer(r"[^\W\d_]+", label))
    days = [lexicon.weekday(fold(word.group())) if len(word.group()) >= _LEAST else None for word in words]
    named = [(word, day) for word, day in zip(words, days, strict=True) if day is not None]
    if not 0 < len(named) < len(words) or (days[0] is None and days[-1] is None):
        return None
    rest = label
    for word, _ in reversed(named):
        rest = rest[: word.start()] + rest[word.end() :]
    rest = re.sub(r"\(\W*\)", "", rest).strip(" .,:;–-/&")
    if (alone := re.fullmatch(r"\(([^()]*)\)", rest)) is not None:
        rest = alone[1].strip()
    is_whole = all(len(word.group()) >= _WHOLE_NAME for word, _ in named)
    return _Named(tuple(dict.fromkeys(day for _, day in named)), rest, days[0] is not None, is_whole)


def _doubt(top: Top, slot: Slot, is_week: bool) -> Problem:
    """The problem of a label whose weekdays are not those of its date or its week."""
    if is_week:
        message = f"“{slot.label}” does not say on which one day of its week it is, and would be all of it."
        remedy = "Give each day a column of its own, with its weekday in the heading."
    else:
        message = f"“{slot.label}” names a weekday that {slot.days.first.day} {slot.days.first:%B %Y} is not."
        remedy = (
            "If the dates stand for their weeks, head them “Week beginning”; if not, take the weekday out."
        )
    return Problem("roster-label-day", message, remedy, top.sheet.place(slot.row, slot.column), slot.label)


def _told(top: Top, slots: list[Slot]) -> list[Problem]:
    if not slots:
        return []
    labels = listed([f"“{slot.label}”" for slot in slots])
    message = f"What names a weekday is on that day of each week, and not all of it: {labels}."
    return [note("roster-days-named", message).at(top.sheet.place(None, slots[0].column))]
