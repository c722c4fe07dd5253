"""Twelve or twenty-four hours: what a table's times settle together.

`3.45` alone is the night by the 24-hour clock; where no time of the table is 13:00 or later, none begins with a zero and
none says am or pm, people mean the afternoon.
"""

import datetime as dt
import re
from collections.abc import Iterable, Iterator, Sequence
from typing import Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_PHRASE
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text
from nomarium.reading.cells.moments import ROLES, Moment, read_moment
from nomarium.reading.cells.times import DAY_SECS, Clock, Times, either_or
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.headings import NO_UNIT, HeadingUnit, unit_of
from nomarium.reading.columns.strokes import Strokes, has_stroke, strokes_in, strokes_told
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_NOON = DAY_SECS // 2
_HOUR = 3600
_EARLY = 6 * 3600
_EVENING = 17 * 3600
_TEN = 10 * 3600
_NINE = 9 * 3600
_SEVEN = 7 * 3600
"""Who writes hours from 1 to 5 without a zero, beside others by the 24-hour clock, may mean the afternoon."""
_OPEN_HOURS = r"(?i)\d[:.h]\d\d|\d\s?[ap]\.?m|\bat\s\d|\d\s?[-–—]\s?\d"
"""What a phrase has at least that says a time."""
_PHRASED = ("date", "when")
"""The fields whose cells may be phrases that say times."""
_EVENINGS = r"(?i)\b(?:evenings?|nights?(?!\s*(?:school|shift))|supper|dinner|disco|ceilidh|soir[eé]es?|abend|abendessen|soir|noche|cena)\b"
_LATE = ("7", "8", "9")
_SEVEN_TO_TEN = r"[7-9](?:[:.][0-5]\d)?\s*(?:[-–].*)?$"
_REMEDY = "Write am or pm with it, or say how all are meant: --clock 12 (afternoon) or --clock 24 (night)."
_REMEDY_LATE = "Write am or pm with it; or, if all such times are in the morning: --clock 24."

Clocks = Literal["", "12", "24", "mixed"]
"""`12`: times without am or pm from 1:00 to 6:59 are in the afternoon; `24`: all are as they stand; `mixed`: others say am
or pm, so that one without is open; nothing: no time needs to know."""


class ClockFound(NamedTuple):
    """How times without am or pm are read, and why."""

    clock: Clocks = ""
    evidence: str = ""
    is_whole: bool = True
    """Whether every row was looked at; a later one may say otherwise."""
    are_evenings: bool = False
    """Whether all that say their half of the day are in the evening, so that 7:30 may be, too."""
    strokes: Strokes = Strokes()


NO_CLOCK = ClockFound()


def find_clock(
    sheet: Sheet, columns: Sequence[Column], rows: Iterable[Sequence[Cell]], options: ReadingOptions, lexicon: Lexicon,
    is_whole: bool,
) -> ClockFound:  # fmt: skip
    """Look at the times of some rows, all of them when `is_whole`."""
    looked_at = list(rows)
    parted = (
        strokes_in((row[c.at] for row in looked_at if c.at < len(row)), ROLES[c.field], lexicon)
        for c in columns
        if c.field in ("date", "when", "time", "start")
    )
    strokes = max(parted, key=lambda one: (bool(one.first), one.are_open), default=Strokes())
    if options.clock:
        return ClockFound(options.clock, "as asked", strokes=strokes)
    timed = [
        c for c in columns if c.field in ROLES and c.field != "end-date" and not unit_of(c.heading).meridiem
    ]

    def heard() -> Iterator[tuple[Clock, str]]:
        """The times of each different cell, as far as they are asked for: the first past noon says it all."""
        for column in timed:
            at, role = column.at, ROLES[column.field]
            for cell in dict.fromkeys([row[at] for row in looked_at if at < len(row)]):
                if text := cell_text(cell):
                    moment = read_moment(cell, role, lexicon, sheet.counts_1904)
                    if isinstance(moment, Moment):
                        yield from ((one, text) for one in _clocks_of(cell, moment))
                    elif column.field in _PHRASED:
                        yield from _clocks_in_phrase(text)
        for column in columns:
            if column.field == "repeat":
                for text in dict.fromkeys(
                    cell_text(row[column.at]) for row in looked_at if column.at < len(row)
                ):
                    yield from _clocks_in_phrase(text)

    found = clock_from(heard())._replace(is_whole=is_whole, strokes=strokes)
    title = next((c.at for c in columns if c.field == "summary"), None)
    if found.clock in ("", "12") and title is not None:
        found = found._replace(are_evenings=_are_of_evenings(looked_at, title, [c.at for c in timed]))
    return found


def _clocks_in_phrase(text: str) -> Iterator[tuple[Clock, str]]:
    """The times that a phrase says, `Mondays 4.00-5.00, 7 Sept - 28 Sept`, with what it says them in."""
    from nomarium.reading.cells.repeatclauses import without_times

    if len(text) <= LONGEST_PHRASE and re.search(_OPEN_HOURS, text) is not None:
        rest, times = without_times(text)
        for clock in (times.start, times.end) if times is not None else ():
            if clock is not None:
                yield clock, " ".join(word for word in text.split() if word not in rest.split())


def _are_of_evenings(rows: Sequence[Sequence[Cell]], title: int, timed: Sequence[int]) -> bool:
    """Whether some row is called after the evening, `Quiz night`, and says 7:30 or so without a half of the day."""
    cells = {row[at] for at in timed for row in rows if at < len(row)}
    open_cells = {cell for cell in cells if _may_be_late(cell)}
    return bool(open_cells) and any(
        title < len(row)
        and any(at < len(row) and row[at] in open_cells for at in timed)
        and re.search(_EVENINGS, cell_text(row[title]))
        for row in rows
    )


def _may_be_late(cell: Cell) -> bool:
    """Whether a cell is a time from 7:00 to 9:59, and nothing in it says the half of the day."""
    if isinstance(cell, dt.time):
        return _SEVEN <= cell.hour * 3600 < _TEN
    return isinstance(cell, str) and cell[:1] in _LATE and re.match(_SEVEN_TO_TEN, cell) is not None


def clock_from(heard: Iterable[tuple[Clock, str]]) -> ClockFound:
    """What these times, each with the text that it stands in, say together."""
    says_meridiem = doubtful = evening = ""
    others = is_morning = says_morning = False
    open_hours, evenings = list[int](), list[int]()
    for clock, text in heard:
        if clock.has_meridiem and clock.secs not in (0, _NOON, DAY_SECS):
            says_meridiem = says_meridiem or text
            others |= clock.secs < _EVENING
            says_morning |= clock.secs < _TEN
            evenings += [clock.secs] if clock.secs >= _EVENING else []
        elif clock.is_doubtful:
            doubtful = doubtful or text
        elif clock.secs >= _NOON + 3600 or clock.secs < 3600 or _has_zero(text):
            return ClockFound("24", f"“{text}” is by the 24-hour clock")
        elif _SEVEN <= clock.secs < _TEN:
            evening = evening or text
            is_morning |= clock.secs >= _NINE
            open_hours += [clock.secs + _NOON] if clock.secs < _NINE else []
        else:
            others = True
    is_beside = any(abs(a - b) <= _HOUR for a in open_hours for b in evenings)  # 7.30, beside 7pm
    if evening and says_meridiem and (not others or (is_beside and not says_morning)):
        return ClockFound("mixed", f"“{says_meridiem}” says which half of the day", are_evenings=True)
    if not doubtful and evening and not (others or is_morning or says_meridiem):
        return ClockFound("", f"“{evening}”")
    if not doubtful:
        return NO_CLOCK
    if says_meridiem:
        return ClockFound("mixed", f"“{says_meridiem}” says which half of the day")
    return ClockFound("12", "no time is 13:00 or later or begins with a zero, and none says am or pm")


def _has_zero(text: str) -> bool:
    """Whether an hour has a zero in front (in `08:30`, `8:30-09:15`; not in `8:05` or in a date before it)."""
    words = text.replace("-", " ").replace("–", " ").split()
    return any(
        word[0] == "0" and len(word) > 2 and word[1:2].isdigit() and word[2] in ":.h" for word in words
    )


def _clocks_of(cell: Cell, moment: Moment) -> list[Clock]:
    found = [clock for clock in (moment.start, moment.end) if clock is not None]
    return [as_typed(clock) for clock in found] if _is_typed(cell) else found


def _is_typed(cell: Cell) -> bool:
    """Whether a workbook made a time of what was typed: it knows nothing of am and pm."""
    return isinstance(cell, (dt.time, float)) and not isinstance(cell, bool)


def as_typed(clock: Clock) -> Clock:
    """A workbook's own time as somebody typed it: it may be open which half of the day was meant."""
    return Clock(clock.secs, False, 3600 <= clock.secs < 7 * 3600)


def in_its_half(cell: Cell, moment: Moment, found: ClockFound, unit: HeadingUnit) -> Moment | Refusal:
    """A cell's times with their half of the day settled, which may not be another one than its heading says."""
    if moment.start is None and moment.end is None:
        return moment
    if (found.strokes.are_open or not found.is_whole) and has_stroke(cell):
        return either_or(cell_text(cell))
    if moment.start is not None and (denied := _denied(moment.start, unit)) is not None:
        return denied
    settled: list[Clock | None] = []
    if moment.start and moment.end and moment.end.secs < moment.start.secs:
        found = found._replace(are_evenings=False)  # 9-4
    end = past_noon(moment.start, moment.end) if is_settled_by_rows(found) else moment.end
    for clock in (moment.start, end):
        half = half_of(as_typed(clock) if clock and _is_typed(cell) else clock, found, unit)
        if isinstance(half, Refusal):
            return half
        settled.append(half)
    start, end = settled
    if (
        unit.meridiem
        and start
        and end
        and end.secs < start.secs
        and moment.end
        and not moment.end.has_meridiem
    ):
        end = Clock(
            (end.secs + _NOON) % DAY_SECS, True
        )  # `10-1` in a morning ends after noon, at night after midnight
    end = in_evening(start, end) if found.clock == "12" else end
    if start and _is_typed(cell) and not start.has_meridiem:
        start = moment.start
    return moment._replace(start=start, end=end)


def _denied(start: Clock, unit: HeadingUnit) -> Refusal | None:
    """Why a cell cannot be that begins in the other half of the day than its heading says, `9am` under *Time (pm)*."""
    is_early = start.has_meridiem and start.secs < _NOON
    is_late = (start.has_meridiem and start.secs >= _NOON) or start.secs >= _NOON + 3600
    if not (is_early if unit.meridiem == "pm" else is_late and unit.meridiem == "am"):
        return None
    said = "morning" if is_early else "afternoon"
    message = f"The time is in the {said}, and what heads it says {unit.meridiem}."
    return Refusal("time-half", message, "Correct the time or the heading.")


def times_in_their_halves(text: str, times: Times, found: ClockFound | None) -> Times | Refusal:
    """The times that a text says beside something else, with their half of the day settled; a refusal where nothing does."""
    start, end = times.start, times.end
    if found is not None:
        moment = in_its_half(text, Moment(start=start, end=end), found, NO_UNIT)
        if isinstance(moment, Refusal):
            return moment
        start, end = moment.start, moment.end
    is_told = found is not None and found.evidence == "as asked"
    for clock in (start, end):
        if clock is not None and clock.is_doubtful and not clock.has_meridiem and not is_told:
            return half_open(clock)
    return times._replace(start=start, end=end)


def is_settled_by_rows(found: ClockFound) -> bool:
    """Whether times of a table show their halves of the day one by one: among 13:00 and 14:30, `9-5` ends at five in the afternoon
    all the same."""
    return found.clock == "mixed" or (found.clock == "24" and found.evidence != "as asked")


def past_noon(start: Clock | None, end: Clock | None) -> Clock | None:
    """An end before a start from seven to one o'clock, `10-4`, is in the afternoon: the night would be too long."""
    is_morning = start is not None and not start.has_meridiem and _SEVEN <= start.secs < _NOON + 3600
    if start is None or end is None or not is_morning or not end.is_doubtful or end.secs >= start.secs:
        return end
    return Clock(end.secs + _NOON, True)


def in_evening(start: Clock | None, end: Clock | None) -> Clock | None:
    """An end from seven to noon before a start from noon on, `12-8`, is in the evening, on the clock of twelve hours."""
    if start is None or end is None or end.has_meridiem or not _SEVEN <= end.secs < _NOON <= start.secs:
        return end
    return Clock(end.secs + _NOON, True) if end.secs + _NOON > start.secs else end


def half_of(clock: Clock | None, found: ClockFound, unit: HeadingUnit) -> Clock | Refusal | None:
    """A time with its half of the day settled, or why it cannot be."""
    if clock is None or clock.has_meridiem:
        return clock
    is_hour = 3600 <= clock.secs < _NOON + 3600
    if unit.meridiem and is_hour:
        return Clock(clock.secs % _NOON + (_NOON if unit.meridiem == "pm" else 0), True)
    if found.clock == "12" and clock.secs >= _NOON + 3600 and clock.secs != DAY_SECS:
        why = "as --clock 12 asks" if found.evidence == "as asked" else found.evidence
        message = f"{clock_text(clock.secs)} does not fit the 12-hour clock ({why})."
        return Refusal("clock-conflict", message, "Correct it, or say --clock 24.")
    if not clock.is_doubtful:
        return half_open(clock) if found.are_evenings and _SEVEN <= clock.secs < _TEN else clock
    if found.clock == "12":
        return Clock(clock.secs + _NOON, True)
    if found.clock == "24":
        is_told = found.evidence == "as asked" or clock.secs >= _EARLY
        return Clock(clock.secs) if is_told else clock  # still open: the row's note says so
    return half_open(clock) if found.clock == "mixed" or not found.is_whole else clock


def half_open(clock: Clock) -> Refusal:
    """Nothing says which half of the day is meant."""
    is_late = clock.secs >= _SEVEN
    half, remedy = ("evening", _REMEDY_LATE) if is_late else ("afternoon", _REMEDY)
    message = f"{clock_text(clock.secs)} could be in the morning or in the {half}."
    return Refusal("clock-open", message, remedy)


def morning_told(found: ClockFound) -> list[Problem]:
    """A note that times from seven to nine are in the morning, where nothing says so and every time of a list could be in the
    evening as well."""
    if found.clock or not found.evidence or found.are_evenings:
        return []
    message = (
        f"Times such as {found.evidence} are in the morning: nothing says which half of the day they are in."
    )
    return [note("clock-morning", message, "If they are in the evening, write 7:30 pm or 19:30.")]


def written_clock(found: ClockFound) -> tuple[ClockFound, list[Problem]]:
    """The clock of a table that a build has written, in place of what its times show; and a note where some of them could by
    themselves be in the afternoon."""
    message = "Times before 7:00 are in the morning or at night, as the build that wrote the table had them."
    told = note("clock-written", message, "If some were typed into it for the afternoon: --clock 12.")
    return ClockFound("24", "as asked"), [told] if found.clock in ("12", "mixed") else []


def clock_told(found: ClockFound) -> list[Problem]:
    """The decisions as notes, where some were made."""
    told = strokes_told(found.strokes)
    if found.clock != "12" or found.evidence == "as asked":
        return told
    message = (
        f"Times from 1:00 to 6:59 are in the afternoon, those from 7:00 on in the morning: {found.evidence}."
    )
    return [*told, note("clock-12", message, "If they are not: --clock 24.")]
