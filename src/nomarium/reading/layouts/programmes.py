"""The times of a day's programme in lines of text: they run forward, `12.30 – 1.30` and then `1.30`, and each lasts
until the next."""

import re
from collections.abc import Iterator, Sequence, Set
from itertools import pairwise
from typing import Final

from nomarium.reading.cells.times import Clock, Times, read_times
from nomarium.reading.layouts.linetimes import time_in
from nomarium.reading.layouts.textlines import TextLine, is_sentence
from nomarium.reading.rows.opendays import has_several_days
from nomarium.sheets.sheet import Row

_HALF: Final = 12 * 3600
_LONGEST_OPEN: Final = 4 * 3600
"""Seconds until the next line, up to which one without an end lasts until then."""
_SMALL_HOURS: Final = 6 * 3600
_EVENING: Final = 18 * 3600
_LEAST: Final = 2
"""Lines with times from which on a line with a date over them dates a programme."""


def heads_of_programmes(lines: Sequence[TextLine]) -> frozenset[int]:
    """The lines that say a date and what is on, and date the times below them, `Parents' evening, 12 November` over `Doors
    18:15`: each line with a date is such a one, and from the first time below it on each line has one; or most of them
    begin with one, and none is a sentence, `Room bookings, 8 December` over `Room 1` and `9:00 Finance`."""
    found: set[int] = set()
    under: dict[int, list[TextLine]] = {}
    head: TextLine | None = None
    for line in lines:
        if line.date:
            if line.time or line.has_time or has_several_days(line.date) or is_sentence(line):
                return frozenset()
            head, under[line.number] = line, []
        elif head is not None and (line.time or under[head.number]):
            under[head.number].append(line)
    for number, below in under.items():
        if not (_are_programme(below) or _are_mostly_programme(below)):
            return frozenset()
        found.add(number)
    return frozenset(found)


def _are_programme(lines: Sequence[TextLine]) -> bool:
    return len(lines) >= _LEAST and all(line.time and not is_sentence(line) for line in lines)


def _are_mostly_programme(lines: Sequence[TextLine]) -> bool:
    begin = sum(bool(line.time) and line.text.startswith(line.time) for line in lines)
    return begin > _LEAST and begin * 3 >= len(lines) * 2 and not any(map(is_sentence, lines))


def is_diary(lines: Sequence[TextLine]) -> bool:
    """Whether several lines that are days and nothing else stand over lists: what a list says without a time is on that day, too."""
    over = sum(
        bool(line.date) and not (line.time or line.has_time) and not any(map(str.isalpha, line.rest))
        and after.is_bullet and not after.date
        for line, after in pairwise(lines)
    )  # fmt: skip
    return over >= _LEAST


def forward_through_days(rows: Sequence[Row]) -> tuple[list[Row], list[tuple[int, str]]]:
    """Rows (date, time, …) in which a time without am or pm that is earlier than the one above it, of the same date, is in
    the afternoon, as is an end before its start; and these times, with their lines. A day with a time of 13:00 or later
    is on the 24-hour clock, and left as it is."""
    found, moved = list[Row](), list[tuple[int, str]]()
    before, of_date = 0, ""
    by_24 = _dates_by_24(rows)
    has_evenings = not by_24 and _go_into_evenings(rows)
    for number, (date, text, *rest) in rows:
        times = read_times(str(text)) if text else None
        if not text and (begun := time_in(str(date)))[0]:  # Council, 12 November, 7.00 pm, over 7.00 Welcome
            start_of_all = start_of(begun[0])
            before = start_of_all.secs - 1 if start_of_all is not None else 0  # the first part begins with it
            of_date = begun[1].strip(" ,")
            found.append((number, (date, text, *rest)))
            continue
        if date != of_date:
            before, of_date = 0, str(date)
        if not isinstance(times, Times) or times.start is None or of_date in by_24:
            found.append((number, (date, text, *rest)))
            continue
        start = _after(times.start, before)
        if has_evenings and times.start.is_doubtful and start == times.start.secs:
            start += _HALF
        end = None if times.end is None else _after(times.end, start)
        if start != times.start.secs or (times.end is not None and end != times.end.secs):
            moved.append((number, str(text)))
            text = _with_half(start) + (f" - {_with_half(end)}" if end is not None else "")
        found.append((number, (date, text, *rest)))
        before = start
    return found, moved


def _go_into_evenings(rows: Sequence[Row]) -> bool:
    """Whether a date's times go on from a time before seven, `6.30`, to one from seven on, `7.00`, and none says am or pm: a
    day that begins so early is in the evening, where an hour before seven is in the afternoon."""
    starts = [(cells[0], start) for _, cells in rows if (start := start_of(str(cells[1]))) is not None]
    if any(clock.has_meridiem for _, clock in starts):
        return False
    return any(
        here.is_doubtful and not after.is_doubtful and here.secs < after.secs < _HALF
        for (date, here), (of_date, after) in pairwise(starts)
        if date == of_date
    )


def with_ends(rows: Sequence[Row], under: Set[int]) -> Iterator[Row]:
    """The rows whose times without an end last to the start of the next one under the same date, unless that is hours away: a service
    at 10.30 does not last until evensong. `under` are the lines that have theirs from above."""
    for (number, cells), (after_number, following) in pairwise([*rows, (0, ("",) * 2)]):
        date, time, *rest = cells
        here, after = start_of(str(time)), start_of(str(following[1]))
        is_next = after_number in under and date == following[0] and not cells[5]
        is_near = here is not None and after is not None and 0 < after.secs - here.secs <= _LONGEST_OPEN
        if is_next and is_near and not _has_end(str(time)):
            begun = re.split(r"\s+for\s+", str(following[1]))[-1]  # 7 for 7.30pm
            begins = re.split(r"\s*(?:[-–—]|\bto\b|\buntil\b)\s*", begun)[0]
            time = f"{time}-{begins}"
        yield number, (date, time, *rest)


def is_after_midnight(line: TextLine, before: Row | None, date: str) -> bool:
    """Whether a line under a date is earlier than those above it, in the small hours: it may be on the next day."""
    if before is None or before[1][0] != date or not before[1][1]:
        return False
    here, there = start_of(line.time), start_of(str(before[1][1]))
    return here is not None and there is not None and here.secs < _SMALL_HOURS and there.secs >= _EVENING


def start_of(text: str) -> Clock | None:
    """When a text of times begins; None for one that says no time."""
    times = read_times(text) if text else None
    return times.start if isinstance(times, Times) else None


def _has_end(text: str) -> bool:
    times = read_times(text)
    return isinstance(times, Times) and times.end is not None


def _with_half(secs: int) -> str:
    """A time with am or pm: written by 24 hours it would show how others are meant."""
    hours, minutes = secs // 3600 % 24, secs // 60 % 60
    return f"{hours % 12 or 12}:{minutes:02} {'pm' if hours > 11 else 'am'}"


def _after(clock: Clock, before: int) -> int:
    """The seconds of a time that follows another one."""
    can_move = not clock.has_meridiem and clock.secs < before and before < clock.secs + _HALF
    return clock.secs + _HALF if can_move and clock.secs < _HALF else clock.secs


def _dates_by_24(rows: Sequence[Row]) -> frozenset[str]:
    """The dates of which a time can only be on the 24-hour clock."""
    found = set[str]()
    for _, (date, text, *_) in rows:
        times = read_times(str(text)) if text and str(date) not in found else None
        if isinstance(times, Times):
            clocks = [clock for clock in (times.start, times.end) if clock is not None]
            if any(clock.secs >= _HALF + 3600 and not clock.has_meridiem for clock in clocks):
                found.add(str(date))
    return frozenset(found)
