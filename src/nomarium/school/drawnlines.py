"""The lines of a drawn week: what the headings of a row or a column say, a period, a time, or both."""

import datetime as dt
import re
from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.lengths import read_length
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.columns.clocks import as_typed
from nomarium.reading.layouts.namedslots import NAME, is_break
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.school.planheads import field_of
from nomarium.school.turning import on_its_side
from nomarium.sheets.sheet import Sheet, cell_text

_PERIOD: Final = r"(?i)(?:(?:period|per\.?|pd\.?|p|block|lesson|slot|hour|stunde|heure|periode|bloc|module|mod)\s*)?(?P<code>\d{1,2}[A-Za-z]?|(?-i:I{1,3}|IV|VI{0,3}|IX|X)|(?<![A-Za-z])[A-Z])(?:\s*(?:st|nd|rd|th)?(?:\s*(?:period|hour|lesson|stunde))?)?\.?"


_HALF: Final = r"(?:\s?(?i:[ap]\.?m\b\.?))?"
_CLOCK: Final = rf"\d{{1,2}}[:.h]\d\d{_HALF}"
_HOUR: Final = rf"\d{{1,2}}(?:[:.h]\d\d)?{_HALF}"
_TWO_CLOCKS: Final = r"(\d{1,2}[:.h]\d\d)\s+(\d{1,2}[:.h]\d\d)"
_FOUR_FIGURES: Final = r"(?:0\d|1\d)[0-5]\d"
"""A time such as 0830, beside the days of a week; 2026 is a year."""


class Slot(NamedTuple):
    """A line of a drawing that classes stand in: a period, a time, or both."""

    at: int
    """Index of its row, or its column."""
    period: str
    heading: Cell
    time: Part


def is_time(cell: Cell) -> bool:
    """Whether a cell is a time of day, or a span of them; no number alone."""
    if isinstance(cell, dt.time) or (isinstance(cell, float) and 0 < cell < 1):
        return True
    text = cell_text(cell)
    if not re.search(
        r"\d[:.h]\d\d|\d\s?(?:[ap]\.?m|h\b|uhr\b)|noon|\d\s*(?:[-–—]|\bto\b|\bbis\b|\btill?\b|\buntil\b)\s*\d",
        text,
        re.IGNORECASE,
    ):
        return False
    times = read_times(text)
    return isinstance(times, Times) and times.start is not None


def is_period(cell: Cell) -> bool:
    """Whether a cell names a period by its number or letter: `3`, `P3`, `Block B`."""
    return re.fullmatch(_PERIOD, cell_text(cell)) is not None


def slot_in(at: int, cells: Sequence[Cell]) -> Slot | None:
    """What the headings of a line say: its period, its time, or both in one cell (`1 (8:45–9:30)`)."""
    period, time, shown = "", NOTHING, ""
    starts: list[Part] = []
    for cell in cells:
        text = " ".join(cell_text(cell).split())
        code = re.fullmatch(_PERIOD, text)
        if (pair := re.fullmatch(_TWO_CLOCKS, text)) is not None:
            cell = text = f"{pair[1]}-{pair[2]}"  # a start over its end, or beside it
        own = time_of(cell) if is_time(cell) or re.fullmatch(_FOUR_FIGURES, text) else NOTHING
        if own.start is not None and not isinstance(
            cell, str
        ):  # typed, and open which half of the day it is in
            own = own._replace(start=as_typed(own.start))
            text = text.removeprefix("0")
        if own is not NOTHING:
            starts.append(own)
        elif code is not None:
            period = period or code["code"]
        elif (both := _period_and_time(text)) is not None:
            period, one = both
            starts.append(one)
        elif is_break(text):
            period = period or text
        else:
            return None
        shown = shown or text
    if starts:
        time = starts[0]
        if time.end is None and len(starts) > 1:
            time = time._replace(end=starts[1].start)
    return Slot(at, period, shown, time) if period or time is not NOTHING else None


def _names_line(text: str) -> bool:
    """Whether a text beside the days may be what a line is called, `Clubs`: a few words without a figure."""
    return re.fullmatch(NAME, text) is not None and field_of(text, "timetable") is None


def named_slot(at: int, cells: Sequence[Cell]) -> Slot | None:
    """What the headings of a line say where one is a time and another the name of what is then, `Clubs`, `Before school`."""
    texts = [" ".join(cell_text(cell).split()) for cell in cells]
    names = [text for text in texts if _names_line(text)]
    if len(texts) != len(names) + 1 or len(names) != 1:
        return None
    slot = slot_in(at, [cell for cell, text in zip(cells, texts, strict=True) if text != names[0]])
    is_timed = slot is not None and not slot.period and slot.time.end is not None
    return slot._replace(period=names[0], heading=names[0]) if slot is not None and is_timed else None


def _period_and_time(text: str) -> tuple[str, Part] | None:
    """A period and its time in one text."""
    forms = (
        r"(?P<period>.*?[^\s(–-])[\s:,(–-]+(?P<time>\d{1,2}[:.h]\d\d.*?)\)?",
        rf"(?P<period>.*?[^\s(–-])[\s:,]*\((?P<time>{_HOUR}\s*[-–]\s*{_HOUR})\)",
        rf"(?P<time>{_CLOCK}\s*[-–]\s*{_CLOCK})[\s:,(–-]+(?P<period>.+?)\)?",
        rf"(?P<time>{_CLOCK})[\s:,–-]+(?P<period>[^\W\d].{{0,13}})",
    )
    for form in forms:
        match = re.fullmatch(form, text)
        time = time_of(match["time"].strip()) if match else NOTHING
        if match is None or time is NOTHING:
            continue
        code = re.fullmatch(_PERIOD, match["period"].strip())
        if type(read_length(match["period"])) is int:  # 9:00-10:00 (45 min)
            said = read_times(text)
            return "", time._replace(refusal=said) if isinstance(said, Refusal) else time
        if code is not None or is_break(match["period"]) or len(match["period"]) <= 14:
            return (code["code"] if code else match["period"].strip()), time
    return None


def heads_of_lines(sheet: Sheet) -> list[str]:
    """The words that head the columns of lines with times or periods, where nothing says that they are days."""
    rows = [row for _, row in sheet.rows() if any(map(cell_text, row))]
    for head, below in pairwise(rows):
        names = [text for cell in head[1:] if (text := cell_text(cell))]
        are_names = len(set(names)) == len(names) > 1 and all(
            re.fullmatch(r"[^\W\d_]{2,20}", text) for text in names
        )
        label = re.sub(r"\s*\([^()]*\d[^()]*\)$", "", cell_text(below[0]))  # 1 (8:45–9:40)
        if are_names and (is_time(below[0]) or is_period(label)):
            return names
    return []


def labels_drawn(sheets: Iterable[Sheet]) -> set[str]:
    """The words that head the columns, or the lines, of drawings that may be weeks of labels which nothing names yet."""
    found = set[str]()
    for sheet in sheets:
        found |= {*(heads_of_lines(sheet) or heads_of_lines(on_its_side(sheet)))}
    return found
