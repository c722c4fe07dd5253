"""One calendar into many: the values of a field by which events go into files, and what those files are called."""

import re
import unicodedata
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from itertools import product
from pathlib import Path

from nomarium.model.event import Event
from nomarium.model.values import parted, values_of
from nomarium.sources.source import BY_VALUE, Calendars

SPLIT_FIELDS = (
    "audience", "categories", "class", "division", "group", "label", "location", "organizer", "period",
    "person", "room", "status", "teacher", "term",
)  # fmt: skip
"""Fields that a build can be split by."""
_PARTED = "\x1f"
"""Between the two values by which a calendar is one of two fields: no text has it."""

_RESERVED = frozenset(
    ("con", "prn", "aux", "nul", *(f"{port}{n}" for port in ("com", "lpt") for n in range(10)))
)


class Splitter:
    """Finds into which calendars an event goes, by its values of one field or of two."""

    def __init__(self, fields: Sequence[str]) -> None:
        self._fields = tuple(fields)
        self._parted: dict[tuple[str, str], tuple[str, ...]] = {}
        """Values of school data, parted once for each distinct text."""

    def names_of(self, event: Event, calendars: Calendars = BY_VALUE) -> tuple[str, ...]:
        """The names of its calendars, each once: the value, `no FIELD` when it has none; of two fields, both (see `shown`).
        `calendars` knows whose it is."""
        if len(self._fields) == 1:
            return self._values_of(event, self._fields[0], calendars)
        values = (self._values_of(event, field, calendars) for field in self._fields)
        return tuple(map(_PARTED.join, product(*values)))

    def _values_of(self, event: Event, field: str, calendars: Calendars) -> tuple[str, ...]:
        values: tuple[str, ...]
        if field == "person":
            values = calendars.persons_of(event) if calendars.persons_of else values_of(event, field)
            return tuple(value for value in dict.fromkeys(values) if value) or ("no person",)
        text = next((value for name, value in event.details.facets if name == field), None)
        if text is None:
            return values_of(event, field) or (f"no {field}",)
        found = self._parted.get((field, text))
        if found is None:
            found = self._parted[field, text] = parted(text, field) or (f"no {field}",)
        return found


def shown(name: str) -> str:
    """A calendar's name as people see it."""
    return name.replace(_PARTED, " / ")


def found_in(folder: Path, fields: Sequence[str]) -> list[Path]:
    """The calendar files of earlier splits in a folder."""
    patterns = ("*.ics", "*/*.ics") if len(fields) > 1 else ("*.ics",)
    return sorted(path for pattern in patterns for path in folder.glob(pattern) if path.is_file())


def file_names(values: Collection[str]) -> dict[str, str]:
    """A file for each calendar's name, in a folder when it is of two fields: safe everywhere and different even
    without regard to case."""
    by_first: dict[str, dict[str, str]] = {}
    for value in values:
        first, _, last = value.rpartition(_PARTED)
        by_first.setdefault(first, {})[last] = value
    folders = distinct_names(by_first.keys() - {""}, "")
    names: dict[str, str] = {}
    for first, inside in by_first.items():
        folder = f"{folders[first]}/" if first else ""
        names |= {inside[last]: folder + name for last, name in distinct_names(inside, ".ics").items()}
    return names


def distinct_names(values: Iterable[str], ending: str) -> dict[str, str]:
    names: dict[str, str] = {}
    taken: set[str] = set()
    numbers = Counter[str]()  # long names share their beginning: each goes on where the one before ended
    for value in sorted(values):
        stem = slug(value) or "calendar"
        name = stem
        while name.casefold() in taken:
            numbers[stem] += 1
            name = f"{stem}-{numbers[stem] + 1}"
        taken.add(name.casefold())
        names[value] = f"{name}{ending}"
    return names


_LONGEST_OCTETS = 200
"""Most systems allow 255 octets, the ending and a number included."""


def slug(text: str) -> str:
    """A text as a file name for any system: letters, figures and hyphens.

    >>> slug("Loft A/B: Élise")
    'loft-a-b-elise'
    """
    plain = unicodedata.normalize("NFKD", text.casefold())
    plain = "".join(mark for mark in plain if not unicodedata.combining(mark))
    name = re.sub(r"[^\w]+|_+", "-", plain.casefold()).strip("-")[:80]
    name = name.encode()[:_LONGEST_OCTETS].decode("utf-8", "ignore").rstrip("-")
    return f"{name}-" if name in _RESERVED else name
