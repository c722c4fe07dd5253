"""What a roster is before its cells are read: filled cells with what heads them."""

import re
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import hours_in
from nomarium.reading.layouts.headdates import Days
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text

_SESSIONS = (
    r"(?:(?:earl(?:y|ies)|lates?|nights?|days?|twilights?)(?: shift| duty)?|(?:(?:early |late |mid-?)?(?:morning|afternoon|evening|eve|night|lunch(?:time)?|breakfast|dinner|noon|midday)s?|am|pm|a\.m\.|p\.m\.|"
    r"(?:session|period|slot|block|shift|lesson|part|half|talk|workshop|activity|stunde|seance|sitzung)\s*\w{1,2}|(?:1st|2nd|3rd|4th|first|second|third|last) (?:session|half|period|shift)|"
    r"matin|apres-midi|soir|vormittags?|nachmittags?|abends?|ochtend|middag|avond|manana|tarde|noche))(?:\s*\(.*\)|\s*[:,–-]?\s*\d[\d:.]*\s*(?:[ap]m)?\s*(?:[–-]|to)\s*\d[\d:.]*\s*(?:[ap]m)?)?"
)


class Slot(NamedTuple):
    """One filled cell of a roster."""

    row: int
    column: int
    label: str
    """The name, post or class that heads it."""
    cell: Cell
    days: Days
    time: Part = NOTHING
    """The hours of its row or column, where these say them."""
    is_place: bool = False
    """Whether its label is a place, in which the cell's text happens."""
    is_session: bool = False
    """Whether its label is a part of the day."""
    categories: tuple[str, ...] = ()
    part: str = ""
    """The part of its day, `AM`, where the row under the dates says it."""
    group: str = ""
    """What stands above its heading, where several columns share one heading: the post over `AM` and `PM`."""
    stands_alone: bool = False
    """Whether nothing but its date heads it: what the cell says is what is on."""
    where: str = ""
    """The place that its row says."""
    occasion: str = ""
    """What stands over its date, `Regatta`."""

    @property
    def text(self) -> str:
        return cell_text(self.cell)


def is_session(cell: Cell) -> bool:
    """Whether a heading names a part of the day, or a span of hours.

    >>> is_session("AM"), is_session("Morning (9-12)"), is_session("9:00-12:00"), is_session("Loft")
    (True, True, True, False)
    """
    text = cell_text(cell)
    return re.fullmatch(_SESSIONS, fold(text).strip()) is not None or hours_in(text) is not NOTHING


def halves_day(label: str) -> bool:
    """Whether the label of a row is a half of the day, and nobody's name or post."""
    return re.fullmatch(r"[ap]\.?m\.?|mornings?|afternoons?|evenings?|eve", fold(label).strip()) is not None


def carried(row: Sequence[Cell], first: int, last: int) -> dict[int, str]:
    """Column → the text that stands over it in an upper row of headings: its own, or the nearest on its left."""
    found: dict[int, str] = {}
    text = ""
    for n in range(first, last + 1):
        text = (cell_text(row[n]) if n < len(row) else "") or text
        found[n] = text
    return found


class Drawing(NamedTuple):
    """A roster as it is drawn, before its cells are read."""

    slots: Sequence[Slot]
    kind: str
    """What stands where, for the note."""
    label_heading: str
    others: Sequence[Row] = ()
    """Rows that are no part of it: titles, keys, remarks."""
    problems: Sequence[Problem] = ()
    headed: Mapping[int, Mapping[int, Days]] = MappingProxyType({})
    """By the number of a row of headings: the days of its columns."""
    notes: Sequence[Problem] = ()
