"""Dates that a line of a programme speaks of and is not held on: `18:05 Minutes of 25 June`."""

import re
from typing import Final

from nomarium.reading.layouts.linetimes import EDGES
from nomarium.reading.layouts.textlines import TextLine

_SPEAKS_OF: Final = re.compile(r"(?i)(?:\b(?:of|from|for|since|until|by|dates?|du|de|vom|vor)\W*|:\s*)$")
"""Words before a date that a title speaks of."""


def without_mention(line: TextLine, date: str) -> TextLine:
    """A line under a date without that one, said once more, and without another that its words speak of."""
    rest = _behind_time(line) if date else ""
    if not rest:
        return line
    lead = re.match(r"(?:[^\W\d_]+\s+)?", line.date)
    before = rest[: rest.find(line.date)] + (lead[0] if lead else "")
    if _bare(line.date) == date and before.strip(EDGES):
        around = f"{rest[: rest.find(line.date)]} {rest[rest.find(line.date) + len(line.date) :]}"
        return line._replace(
            date="", rest=" ".join(around.split()).strip(EDGES)
        )  # the day above it, once more
    return line._replace(date="", rest=rest) if _SPEAKS_OF.search(before) else line


def mentions_day(line: TextLine, date: str) -> bool:
    """Whether a line that begins with its time names another day than that above it behind what is on, `11:00 Regatta on 12 June`:
    it may be held then, or speak of it."""
    rest = _behind_time(line)
    return _bare(line.date) != date and any(map(str.isalpha, rest[: max(rest.find(line.date), 0)]))


def _bare(date: str) -> str:
    """A date without the word that leads to it."""
    return re.sub(r"(?i)^(?:on|am|le|el|op)\s+", "", date)


def _behind_time(line: TextLine) -> str:
    """What a line says behind the time with which it begins; "" where it has no date, or begins with no time."""
    if not line.date or not line.time or not line.text.startswith(line.time):
        return ""
    return line.text[len(line.time) :].strip(EDGES)
