"""Times in the cells of a drawn week, one below the other in their order: `7:00` below `5:00` of an afternoon is in its evening,
and so it is on the other days of the drawing."""

from collections.abc import Collection, Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text
from nomarium.reading.cells.times import DAY_SECS, Clock
from nomarium.reading.columns.clocks import clock_from, half_open
from nomarium.reading.layouts.slots import end_after
from nomarium.reading.rows.when import Part

_NOON: Final = DAY_SECS // 2
_SEVEN: Final = 7 * 3600
_NINE: Final = 9 * 3600


TOLD: Final = "Times from 1:00 to 6:59 are in the afternoon, and those below them in its evening, on other days too: {}."
"""What is said of drawings in which `in_evenings` finds any."""


def in_evenings(columns: Sequence[Sequence[tuple[Part, str]]]) -> list[list[Part]]:
    """The times of the columns of a drawing, each with the text that it stands in: those of an evening say that they are. One that is in
    the evening in some column, and in another stands among times that are open as well, is refused there; so is one from seven to nine
    where all the others of the drawing are past noon. The same parts where no column has an evening."""
    parts = [[part for part, _ in column] for column in columns]
    heard = [
        (clock, text)
        for column in columns
        for part, text in column
        for clock in (part.start, part.end)
        if clock
    ]
    if clock_from(heard).clock == "24":
        return parts
    late = [_late_in(column) for column in parts]
    known = {
        clock.secs
        for column, found in zip(parts, late, strict=True)
        for n in found
        if (clock := column[n].start)
    }
    if known:
        return [_said(column, found, known) for column, found in zip(parts, late, strict=True)]
    starts = [part.start for column in parts for part in column if part.start]
    settled = [start for start in starts if not _could_be_late(start)]
    if len(settled) < 2 or any(start.secs < _NOON and not start.is_doubtful for start in settled):
        return parts
    return [
        [_asked(part) if part.start and _could_be_late(part.start) else part for part in column]
        for column in parts
    ]


def _could_be_late(clock: Clock) -> bool:
    return _is_open(clock) and clock.secs < _NINE


def _asked(part: Part) -> Part:
    refusal = half_open(part.start) if part.start else None
    return part._replace(refusal=refusal)


def _late_in(column: Sequence[Part]) -> set[int]:
    """Which times of a column are in the evening, since they stand below those of an afternoon, and all run forward then."""
    found, run = set[int](), list[int]()
    for n, part in enumerate(column):
        if part.start is None:
            continue
        secs = part.start.secs + _NOON * part.start.is_doubtful
        if _is_open(part.start) and run and run[-1] > _NOON and run[-1] <= secs + _NOON:
            secs += _NOON
            found.add(n)
        run.append(secs)
    return found if all(a <= b for a, b in pairwise(run)) else set()


def _said(column: Sequence[Part], late: Collection[int], known: Collection[int]) -> list[Part]:
    opens = {n: part.start.secs for n, part in enumerate(column) if part.start and _is_open(part.start)}
    others = {n for n, secs in opens.items() if n not in late and secs in known}
    are_all = others | {*late} == opens.keys()
    found = list[Part]()
    for n, part in enumerate(column):
        if part.start is None or not (n in late or n in others or part.start.is_doubtful):
            found.append(part)
        elif n not in others or are_all:
            start = Clock(part.start.secs + _NOON, True)
            found.append(
                part._replace(start=start, end=end_after(start.secs, part.end) if part.end else None)
            )
        else:
            message = f"{clock_text(part.start.secs)} is in the evening on another day, below times of an afternoon; here it could be in the morning, too."
            found.append(part._replace(refusal=Refusal("clock-open", message, "Write am or pm behind it.")))
    return found


def _is_open(clock: Clock) -> bool:
    return not clock.has_meridiem and _SEVEN <= clock.secs < _NOON
