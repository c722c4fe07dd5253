"""The slots of a drawing: what headings that say a time mean together, one after the other through the day."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.times import DAY_SECS, SURE_CLOCK, Clock, Times, read_times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.clocks import as_typed, clock_from, half_open
from nomarium.reading.columns.headings import heads_times, match_exactly
from nomarium.reading.columns.nights import EVENING, SMALL_HOURS
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, Sheet, cell_text

_OTHER_FIELDS = frozenset(("class", "group", "room", "location", "audience", "teacher", "person", "division"))
_OTHERS = frozenset(
    "age ages year years yr grade grades group groups form forms class classes room rooms court lane table team set unit level bay boat crew race heat bout leg match game event item "
    "klasse klassen gruppe gruppen raum alter classe groupe salle".split()
)
_FIGURES = r"[\d\W]+[A-Za-z]?"
_NOON, _MORNING = DAY_SECS // 2, 7 * 3600
_LATE_WORDS = (
    "pm",
    "afternoon",
    "evening",
    "eve",
    "night",
    "soir",
    "apres-midi",
    "abend",
    "nachmittag",
    "tarde",
    "noche",
    "avond",
)

_LATE_SHIFTS = frozenset(("late", "lates", "spat", "spatschicht", "laat"))
_EARLY_WORDS = frozenset("am morning matin vormittag morgen manana ochtend".split())
NEXT_MORNING = "Times in the small hours below those of an evening are on the next morning: {}."
"""What is said of slots `after_midnight`."""
RUN_ON = "Lines that say only when they begin last until the next one, the last of them as long as most."
"""What is said where `line_ends` has given lines their ends."""


@dataclass(frozen=True)
class Line:
    """A row or a column of the grid: what its heading says."""

    index: int
    """Row number, or 0-based column within the rows."""
    heading: Cell
    time: Part = NOTHING


def in_part_of_day(time: Part, label: str) -> Part:
    """The hours of an entry that stands under a part of the day, `PM` or *Morning*, in that half of it; of a late shift those that
    begin before seven, `3-11`."""
    words = re.findall(r"[a-z-]+", fold(label))
    start = time.start
    is_late_shift = start is not None and start.secs < _MORNING and not _LATE_SHIFTS.isdisjoint(words)
    is_late = any(word in _LATE_WORDS for word in words) or is_late_shift
    is_open = start is not None and not start.has_meridiem and 3600 <= start.secs < _NOON
    if start is None or not is_open or not (is_late or any(word in _EARLY_WORDS for word in words)):
        return time
    start = Clock(start.secs + (_NOON if is_late else 0), True)
    return time._replace(start=start, end=end_after(start.secs, time.end) if time.end else None)


_PART_OF_DAY = r"(?i)(?:morning|afternoon|evening)\b|[ap]\.?m\b\.?\s*\("
"""A heading that names a part of the day, and when it begins."""


def time_of(cell: Cell) -> Part:
    """What a heading says about the time, or NOTHING when it says none."""
    if isinstance(cell, (dt.time, dt.timedelta)) or (isinstance(cell, float) and 0 < cell < 1):
        moment = read_moment(cell, "time", Lexicon({}, {}))
        return NOTHING if isinstance(moment, Refusal) else Part(start=moment.start)
    if isinstance(cell, (float, int, dt.date)):
        return NOTHING
    text = cell_text(cell)
    if re.match(_PART_OF_DAY, text):
        return NOTHING  # Morning (9:00) is what is on, and begins then
    times = read_times(text) if any(map(str.isdigit, text)) or text.isalpha() or " " in text else None
    if not isinstance(times, Times) or times.is_unknown:
        return NOTHING
    return Part(start=times.start, end=times.end, is_all_day=times.is_all_day)


CODE = r"\d{1,2}\s?[A-Za-z]"
"""A number with a letter, a class or an hour: `7A`."""


def are_codes(cells: Sequence[Cell], heading: str = "") -> bool:
    """Whether headings are numbers with a letter each, and no hours that run from the morning into the afternoon: `7A`, `8A` are
    classes, also where none is `7B`. What heads them may say that they are times."""
    texts = [text for cell in cells if (text := cell_text(cell).strip())]
    if not texts or not all(re.fullmatch(CODE, text) for text in texts):
        return False
    numbers = [int(text[:-1]) for text in texts]
    if {text[-1] for text in texts} in ({"h"}, {"u"}) and all(a < b for a, b in pairwise(numbers)):
        return False  # 9h, 10h, 11h
    if any(text[-1] not in "aApP" for text in texts):
        return True
    if heads_times(heading):
        return False
    hours = [int(text[:-1]) % 12 + (12 if text[-1] in "pP" else 0) for text in texts]
    return not (hours[0] < 12 <= hours[-1] and all(a < b for a, b in pairwise(hours)))


def number_others(heading: str, cells: Sequence[Cell]) -> bool:
    """Whether a heading is that of people, classes or places, so that numbers below it are no hours: rooms `4.10`, ages `5-7`."""
    match = match_exactly(heading)
    is_of_field = match is not None and match.field in _OTHER_FIELDS
    if not is_of_field and _OTHERS.isdisjoint(re.findall(r"[^\W\d_]+", fold(heading))):
        return False
    return all(
        isinstance(cell, str) and re.fullmatch(_FIGURES, cell) and not re.search(SURE_CLOCK, cell)
        for cell in cells
    )


def typed_hours(rows: Sequence[Row], column: int, heading: str) -> list[Row]:
    """The rows, the numbers of a column as texts where they are hours that a workbook took for numbers: 9.3 for `9.30`. They run
    forward through a day, and what heads them says that they are times, or nothing, and some have minutes."""
    numbers = [row[column] for _, row in rows if column < len(row) and cell_text(row[column])]
    hours = [cell for cell in numbers if isinstance(cell, (int, float)) and not isinstance(cell, bool)]
    minutes = [round(cell % 1 * 100, 6) for cell in hours]
    if (
        len(hours) < max(2, len(numbers))
        or not (heads_times(heading) or (not heading and any(minutes)))
        or not all(1 <= cell < 24 for cell in hours)
        or not all(part < 60 and part == int(part) for part in minutes)
        or sum(b <= a for a, b in pairwise(hours)) > 1
    ):
        return [*rows]
    texts = iter([f"{int(cell)}.{int(part):02}" for cell, part in zip(hours, minutes, strict=True)])
    return [
        (number, [*row[:column], next(texts), *row[column + 1 :]])
        if column < len(row) and cell_text(row[column])
        else (number, row)
        for number, row in rows
    ]


def heads_clocks(row: Sequence[Cell]) -> bool:
    """Whether a row is headed by the dates below it, and times with dots stand beside that, `Date`, `9.10`, `10.10`: these are none."""
    match = match_exactly(cell_text(row[0])) if row else None
    clocks = [text for cell in row[1:] if (text := cell_text(cell))]
    return (
        match is not None
        and match.field in ("date", "day", "when")
        and bool(clocks)
        and all(
            isinstance(cell, str) and re.fullmatch(r"(?:[01]?\d|2[0-3])\.[0-5]\d", cell) for cell in clocks
        )
    )


def is_clear_time(cell: Cell) -> bool:
    """Whether a heading says a time and is no mere number, or two of them, which could be days."""
    is_number = re.fullmatch(r"\W*\d{1,2}(?:\W+\d{1,2})?\W*", cell_text(cell)) is not None
    is_clock = not is_number or re.search(r"\d[.:]\d\d", cell_text(cell)) is not None
    return is_clock and time_of(cell).start is not None


def forward(lines: Sequence[Line], asked: str = "", above: str = "") -> list[Line]:
    """The slots with their half of the day settled: they run forward through it.

    A day that begins at `4.00`, without am or pm, begins in the afternoon when it is over before seven, or when `asked`
    (`--clock`) or a word of the texts `above` says so. Where it could go on into the morning or into the evening, each
    open slot is refused.
    """
    morning = _run(lines)
    first = next((line for line in lines if line.time.start), None)
    if first is None or not _is_open(first):
        return morning
    if asked == "24" or (not asked and clock_from(clocks_of(lines)).clock == "24"):
        return morning
    afternoon = _run([replace(line, time=_later(line.time)) if line is first else line for line in lines])
    starts = [line.time.start.secs for line in afternoon if line.time.start]
    if asked == "12":
        return afternoon
    if any(b < a for a, b in pairwise(starts)):
        return [_settled(line) for line in morning]
    is_said = any(word in _LATE_WORDS for word in fold(above).replace("'", " ").split())
    if is_said or all(line.time.start.secs < _MORNING for line in morning if line.time.start):
        return afternoon
    return [_refused(line) if _is_open(line) else line for line in lines]


def later(lines: Sequence[Line], settled: Sequence[Line]) -> list[str]:
    """The headings of slots that are later in the day than they are written."""
    pairs = zip(lines, settled, strict=True)
    return [cell_text(now.heading) for was, now in pairs if _clock_secs(was) != _clock_secs(now)]


def clocks_of(lines: Iterable[Line]) -> list[tuple[Clock, str]]:
    """The times of slots, each with its text, as typed: those of a workbook know nothing of am and pm."""
    return [
        (
            Clock(clock.secs, False, clock.secs < _MORNING) if isinstance(line.heading, dt.time) else clock,
            _text_of(line),
        )
        for line in lines
        for clock in (line.time.start, line.time.end)
        if clock
    ]


def _clock_secs(line: Line) -> list[int]:
    return [clock.secs for clock in (line.time.start, line.time.end) if clock]


def _text_of(line: Line) -> str:
    """A heading as typed: a workbook's own time shows a zero in front that nobody wrote."""
    return "" if isinstance(line.heading, dt.time) else cell_text(line.heading)


def _is_open(line: Line) -> bool:
    """Whether a slot begins between 1:00 and 6:59, and nothing in its heading says in which half of the day."""
    start = line.time.start
    if start is None:
        return False
    return start.is_doubtful or (isinstance(line.heading, dt.time) and as_typed(start).is_doubtful)


def _later(time: Part) -> Part:
    assert time.start is not None
    return time._replace(start=Clock(time.start.secs + _NOON, True))


def _settled(line: Line) -> Line:
    start = line.time.start
    return replace(line, time=line.time._replace(start=start._replace(is_doubtful=False))) if start else line


def _refused(line: Line) -> Line:
    assert line.time.start is not None
    return replace(line, time=line.time._replace(refusal=half_open(line.time.start)))


def _run(lines: Sequence[Line]) -> list[Line]:
    """Each slot after the one before: `1:30` under `12:30` is in the afternoon, and so is what follows."""
    found: list[Line] = []
    before = 0
    for line in lines:
        start, end = line.time.start, line.time.end
        if start is None:
            found.append(line)
            continue
        # a workbook holds a typed 1:30 as a time of its own, and knows nothing of am and pm either
        is_open = not start.has_meridiem or isinstance(line.heading, dt.time)
        if is_open and (start.secs < _MORNING or before >= _NOON):
            start = end_after(before, start)
        counts_to_24 = start.secs >= _NOON + 3600 and not start.has_meridiem  # 19:30-8:00: till the morning
        if end is not None and not end.has_meridiem and not counts_to_24:
            end = end_after(start.secs, end)
        before = start.secs
        found.append(Line(line.index, line.heading, line.time._replace(start=start, end=end)))
    return found


def end_after(before: int, clock: Clock) -> Clock:
    """A time of the 12-hour clock in its afternoon, where only that is after another; any other as it stands."""
    is_early = 3600 <= clock.secs < _NOON and clock.secs < before < clock.secs + _NOON
    return Clock(clock.secs + _NOON, True) if is_early else clock


def after_midnight(slots: Sequence[Part]) -> list[bool]:
    """Which slots are on the next morning: those that begin in the small hours after one of an evening, and what runs on from
    there."""
    found: list[bool] = []
    before, is_next = 0, False
    for slot in slots:
        secs = slot.start.secs if slot.start else before
        if secs < before:
            is_next = before >= EVENING and secs < SMALL_HOURS
        found.append(is_next and slot.start is not None)
        before = secs
    return found


def night_refused(sheet: Sheet, slots: Sequence[tuple[int, int, Cell]]) -> Problem | None:
    """A problem of the first time (row number, column, cell) of a day that is on the next one: of which date it is, is open."""
    nights = after_midnight([time_of(cell) for _, _, cell in slots])
    for (row, column, cell), is_next in zip(slots, nights, strict=True):
        if is_next:
            message = "It is earlier than the time before it under its date: it may be on the next day."
            remedy = "Give what happens then a row of its own, with its date."
            return Problem("text-night", message, remedy, sheet.place(row, column), cell_text(cell))
    return None


def _starts_of(slots: Sequence[Part]) -> list[int | None]:
    """When slots begin, in seconds after the first midnight."""
    nights = after_midnight(slots)
    return [
        slot.start.secs + DAY_SECS * is_next if slot.start else None
        for slot, is_next in zip(slots, nights, strict=True)
    ]


_LEAST_USUAL, _LONGEST_USUAL = 30 * 60, 6 * 3600
"""A registration is shorter than a lesson, and what lies between a morning and an evening is longer."""


def usual_step(slots: Sequence[Part], idle: Collection[int] = ()) -> tuple[int | None, bool]:
    """The seconds from most slots to the next, or for which those last that say their end; and whether they are those of half of
    them or more. What follows a slot in which nothing is on (`idle`, by index) is not asked; of several that are as common it is the
    first that a lesson may have."""
    starts = _starts_of(slots)
    begun = [(at, secs) for at, secs in enumerate(starts) if secs is not None]
    steps = Counter(b - a for (at, a), (_, b) in pairwise(begun) if slots[at].end is None and at not in idle)
    steps += Counter(end.secs - secs for at, secs in begun if (end := slots[at].end) and at not in idle)
    steps = Counter({step: often for step, often in steps.items() if step > 0})
    count = max(steps.values(), default=0)
    common = [step for step, often in steps.items() if often == count]
    lessons = (step for step in common if _LEAST_USUAL <= step <= _LONGEST_USUAL)
    usual = next(lessons, min(common, default=None))
    return usual, count * 2 >= steps.total() > 0


def slot_ends(slots: Sequence[Part], usual: int | None) -> list[Clock | None]:
    """When each slot ends: as it says, else where the next begins, but no later than the usual step, where there is one; past
    midnight only where another follows there."""
    ends: list[Clock | None] = []
    starts = _starts_of(slots)
    for at, (slot, start) in enumerate(zip(slots, starts, strict=True)):
        if slot.end or start is None:
            ends.append(slot.end)
            continue
        following = next((secs for secs in starts[at + 1 :] if secs is not None and secs > start), None)
        known = [secs for secs in (following, start + usual if usual else None) if secs is not None]
        midnight = DAY_SECS if max(start, following or 0) < DAY_SECS else 2 * DAY_SECS
        end = min(*known, midnight) if known else 0
        ends.append(Clock(end if end <= DAY_SECS else end - DAY_SECS, True) if known else None)
    return ends


def line_ends(slots: Sequence[Part], idle: Collection[int] = (), length_secs: int = 0) -> list[Clock | None]:
    """When each of the lines of a day ends that may say only when they begin: where the next begins, but no later than the usual
    step, where there is one; the last lasts as long as most. One before a line in which nothing is on (`idle`, by index), `12:00
    End`, lasts until that, however long it is. Where `length_secs` are said, all last so long."""
    if length_secs:
        return [slot.end or (Clock(slot.start.secs + length_secs) if slot.start else None) for slot in slots]
    usual, is_usual = usual_step(slots, idle)
    capped = slot_ends(slots, usual)
    until_next = slot_ends(slots, None)
    ends = capped if is_usual else [*until_next[:-1], *capped[-1:]]
    return [until_next[n] if n + 1 in idle and slots[n + 1].start else end for n, end in enumerate(ends)]
