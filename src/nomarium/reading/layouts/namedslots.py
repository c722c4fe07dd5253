"""What stands beside the time of a slot: the number of its period, or a name, in a column of its own or in the same cell."""

import re
from collections.abc import Collection
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.lengths import length_behind, without_length
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING, Part

_NUMBER: Final = (
    r"(?:(?:p|per|period|lesson|block|slot|session|stunde|std|heure|h)\.?\s?)?\d{0,2}[a-z]?|[ap]\.?m\.?|registration|tutor|"
    r"(?:(?:morning|afternoon|mid-?morning|first|second|long|short|lunch|tea|coffee)\s)?(?:break|recess|pause|pausa)|lunch(?:\s?time)?|mittag(?:spause)?|recreation|recreo"
)
NAME: Final = r"[^\W\d_]{3,}(?:[ '’/&-]+[^\W\d_]+){0,3}"
"""What a slot may be called, `Gate duty`: a few words without a figure."""
_BREAKS: Final = (
    r"(?:morning |afternoon |mid-?morning |first |second |long |short )?(?:break|recess|lunch(?: ?(?:time|break))?|snack|passing(?: time)?|interval|dinner|nutrition|pause|recre(?:o|ation)|"
    r"dejeuner|mittag(?:spause)?|grosse pause|pauze|almuerzo|repas|diner)\b.*"
)
_DAY_ENDS: Final = r"(?:the )?end(?: of (?:the )?(?:school )?day)?|finish|home(?: ?time)?|dismissal|school (?:ends|closes|finishes)|fin|schluss|einde|salida"
_CLOCK: Final = r"\d{1,2}(?:[:.h]\d\d(?:\s?[ap]\.?m\b\.?)?|\s?[ap]\.?m\b\.?)"
_SPAN: Final = rf"(?P<time>{_CLOCK}\s*[-–—]\s*{_CLOCK})"
_HALF_DAY: Final = 12 * 3600
_FORMS: Final = (
    rf"(?i)(?P<name>.*?[^\s:,(–-])[\s:,(–-]+{_SPAN}\)?",
    rf"(?i){_SPAN}[\s:,(–-]+(?P<name>.+?)\)?",
)


def slot_of(cell: Cell) -> tuple[str, Part]:
    """The name beside a time and the time that a heading says; NOTHING where it says none.

    >>> slot_of("1 (8:45-9:40)")[0], slot_of("15:30-16:30 Clubs")[0], slot_of("Clubs")[1] is NOTHING
    ('1', 'Clubs', True)
    """
    if (time := time_of(cell)) is not NOTHING or not isinstance(cell, str):
        return "", time
    bare, length = without_length(cell.strip())  # 1 8:45-9:40 (55 min)
    if length:
        name, time = slot_of(bare)
        return (name, time) if time.end is not None and _lasts(time, cell) else ("", NOTHING)
    for form in _FORMS:
        match = re.fullmatch(form, cell.strip())
        name = match["name"] if match is not None else ""
        if match is not None and (numbers_slot(name) or re.fullmatch(NAME, name)):
            return name, time_of(match["time"])
    return "", NOTHING


def _lasts(time: Part, text: str) -> bool:
    """Whether a time is as long as the brackets behind it say."""
    assert time.start is not None and time.end is not None
    return (time.end.secs - time.start.secs - (length_behind(text.strip()) or 0)) % _HALF_DAY == 0


def is_slot(cell: Cell) -> bool:
    """Whether a heading is a time, or one beside the number of a period: not one beside a name, which may be a shift's."""
    name, time = slot_of(cell)
    return time is not NOTHING and numbers_slot(name)


def numbers_slots(texts: Collection[str]) -> bool:
    """Whether texts beside times number them or name breaks, and half of them at most name what is then, `Clubs`."""
    names = [text for text in texts if not numbers_slot(text)]
    return len(names) * 2 <= len(texts) and all(re.fullmatch(NAME, text) for text in names)


def numbers_slot(text: str) -> bool:
    """Whether a text is the number of a period or names a break; a blank one says no more."""
    return re.fullmatch(_NUMBER, fold(text)) is not None


def is_break(text: str) -> bool:
    """Whether a text names a break, or lunch, or the end of the day."""
    return re.fullmatch(rf"{_BREAKS}|{_DAY_ENDS}", fold(text)) is not None
