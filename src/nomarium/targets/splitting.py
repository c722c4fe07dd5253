"""One calendar into many: the values of a field by which events go into files, and what those files are called."""

import re
import unicodedata
from collections.abc import Iterable

from nomarium.model.event import Event
from nomarium.sources.source import BY_VALUE, Calendars

SPLIT_FIELDS = (
    "audience", "categories", "class", "division", "group", "label", "location", "organizer", "period",
    "person", "room", "status", "teacher", "term",
)  # fmt: skip
"""Fields that a build can be split by."""

_RESERVED = frozenset("con prn aux nul com1 com2 com3 com4 lpt1 lpt2 lpt3".split())


class Splitter:
    """Finds the values that an event has of one field; school data is parted once for each distinct text."""

    def __init__(self, field: str) -> None:
        self.field = field
        self._marks = r"[;,\n]" if field == "group" else r"[;\n]"
        self._parted: dict[str, tuple[str, ...]] = {}

    def values_of(self, event: Event, calendars: Calendars = BY_VALUE) -> tuple[str, ...]:
        """The values of an event, each once; `no FIELD` when it has none. `calendars` knows whose it is."""
        if self.field == "person":
            return self._stated(calendars.persons_of(event) if calendars.persons_of else ())
        field, details = self.field, event.details
        if field == "audience":
            return self._stated(details.audience)
        if field == "categories":
            return self._stated(details.categories)
        if field == "organizer":
            person = details.organizer
            return self._stated([person.name or person.email] if person else ())
        if field == "location":
            return self._stated([event.location])
        if field == "status":
            return self._stated([details.status])
        text = event.location if field == "room" else ""
        for name, value in details.facets:
            if name == field:
                text = value
        values = self._parted.get(text)
        if values is None:
            parts = (" ".join(part.split()) for part in re.split(self._marks, text))
            values = self._parted[text] = self._stated(parts)
        return values

    def _stated(self, values: Iterable[str]) -> tuple[str, ...]:
        return tuple(value for value in dict.fromkeys(values) if value) or (f"no {self.field}",)


def file_names(values: Iterable[str]) -> dict[str, str]:
    """A file name for each value, safe everywhere and different even without regard to case."""
    names: dict[str, str] = {}
    taken: set[str] = set()
    for value in sorted(values):
        stem = slug(value) or "calendar"
        name, number = stem, 2
        while name.casefold() in taken:
            name, number = f"{stem}-{number}", number + 1
        taken.add(name.casefold())
        names[value] = f"{name}.ics"
    return names


def slug(text: str) -> str:
    """A text as a file name for any system: letters, figures and hyphens.

    >>> slug("Loft A/B: Élise")
    'loft-a-b-elise'
    """
    plain = unicodedata.normalize("NFKD", text.casefold())
    plain = "".join(mark for mark in plain if not unicodedata.combining(mark))
    name = re.sub(r"[^\w]+|_+", "-", plain).strip("-")[:80].rstrip("-")
    return f"{name}-" if name in _RESERVED else name
