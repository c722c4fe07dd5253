"""What the cells of a column say about when, each distinct one read once and settled by the table's decisions."""

import datetime as dt
import re
from collections.abc import Callable

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.memo import MEMO_SIZE, CellMemo, FieldValue
from nomarium.reading.cells.moments import ROLES, Moment, Role, plain_date, read_moment
from nomarium.reading.cells.times import Clock
from nomarium.reading.columns.clocks import NO_CLOCK, ClockFound, in_its_half
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.columns.headings import NO_UNIT, HeadingUnit
from nomarium.reading.options import Order
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.reckoning.zones import change_dates, zone_named

_MIDNIGHT = Clock(0, True)
_HALF_A_YEAR = dt.timedelta(days=183)
_SAYS_NOTHING = frozenset("- -- --- – — n/a n.a. none nil".split())
"""What people put where there is no time and no last day; as the date itself it is still none."""


class PartMemo(CellMemo):
    """The same for what a cell says about when: `Part` values, with a refusal inside when it is none."""

    def __init__(
        self, read: Callable[[Cell], FieldValue], default: str, plain: Callable[[Cell], Part | None]
    ) -> None:
        """`plain` gives the parts of cells that need no look at anything else, and None for all others."""
        super().__init__(read, NOTHING, default)
        self._plain = plain

    def __missing__(self, cell: Cell) -> FieldValue:
        part = self._plain(cell)
        if part is not None and len(self) < MEMO_SIZE:
            self[cell] = part
            return part
        value = super().__missing__(cell)
        if isinstance(value, Refusal):
            value = self[cell] = Part(refusal=value)
        return value


def part_memo(
    field: str, index: int, decisions: Decisions, counts_1904: bool, default: str = "", weekday: int | None = None,
    zone_name: str | None = None, unit: HeadingUnit = NO_UNIT,
) -> CellMemo:  # fmt: skip
    """The memo of a column that says when: `Part` values, refusals inside. `unit` is what its heading says."""
    role = ROLES[field]
    drops_midnight = index in decisions.date_only_columns
    adds_midnight = index in decisions.moment_columns
    zone = zone_named(zone_name) if zone_name else None

    clock = decisions.clock or (NO_CLOCK if unit.meridiem else None)
    if clock is not None and field == "end":
        clock = clock._replace(are_evenings=False)  # its start says which half it is in

    def read(cell: Cell) -> Part:
        if (
            field not in ("date", "when")
            and isinstance(cell, str)
            and cell.strip().casefold() in _SAYS_NOTHING
        ):
            return Part(notes=("cell-dash",))
        if decisions.is_swapped and isinstance(cell, dt.date) and role != "time":
            from nomarium.reading.columns.swapped import exchanged_back

            exchanged = exchanged_back(cell)
            if isinstance(exchanged, Refusal):
                return Part(refusal=exchanged)
            cell = exchanged
        moment = read_moment(cell, role, decisions.lexicon, counts_1904)
        if isinstance(moment, Refusal):
            return Part(refusal=moment)
        if clock is not None:
            moment = in_its_half(cell, moment, clock, unit)
            if isinstance(moment, Refusal):
                return Part(refusal=moment)
        if unit.is_utc and moment.start is not None and moment.offset_secs is None:
            moment = moment._replace(offset_secs=0)
        part = _part(moment, decisions, None if unit.week else weekday)
        if part.first and part.last is None and (unit.week or {"week-span", "week-ended"} & set(part.notes)):
            part = _of_week(part, weekday, unit.week == "ends" or "week-ended" in part.notes)
        if unit.times and part.first and part.last is None and part.plain_day:
            start, end = unit.times[:2]
            return part._replace(start=start, end=end, plain_day=None, notes=(*part.notes, "heading-time"))
        if part.plain_day and zone and part.plain_day in change_dates(zone, part.plain_day.year):
            part = part._replace(plain_day=None)
        if drops_midnight and part.start and part.start.secs == 0:
            part = part._replace(start=None, plain_day=part.first if part.last is None else None)
        elif adds_midnight and part.start is None and part.first and isinstance(cell, dt.date):
            part = part._replace(start=_MIDNIGHT, plain_day=None, notes=(*part.notes, "midnight-start"))
        return part

    return PartMemo(read, default, _plain_reader(role, decisions, unit, weekday, zone, clock))


def _plain_reader(
    role: Role,
    decisions: Decisions,
    unit: HeadingUnit,
    weekday: int | None,
    zone: dt.tzinfo | None,
    clock: ClockFound | None,
) -> Callable[[Cell], Part | None]:
    """What gives the parts of cells that need no look at anything else, and None for all others."""
    takes_days = role != "time" and weekday is None and not (decisions.is_swapped or unit.week or unit.times)
    may_be_evening = clock is not None and clock.are_evenings
    takes_clocks = role != "date" and not (unit.meridiem or unit.is_utc or may_be_evening)
    is_twelve = clock is not None and clock.clock == "12"

    def plain(cell: Cell) -> Part | None:
        if takes_clocks and type(cell) is str and (time := _plain_clock(cell, is_twelve)) is not None:
            return time
        if not takes_days:
            return None
        day = plain_date(cell) or (_figures(cell, decisions.order) if type(cell) is str else None)
        if day is None or (zone and day in change_dates(zone, day.year)):
            return None  # the times of a change's date need looking at, one by one
        # what Part(first=day, plain_day=day) does, without the cost of its defaults
        return tuple.__new__(Part, (day, None, None, None, False, False, None, (), None, day, None))

    return plain


_FIGURES = re.compile(r"([0-9]{1,2})([/.-])([0-9]{1,2})\2([0-9]{4})").fullmatch
_CLOCK = re.compile(r"([0-9]{1,2}):([0-5][0-9])(?: ?([AaPp])[Mm])?").fullmatch


def _figures(text: str, order: Order) -> dt.date | None:
    """The date of figures such as `17/09/2026` in the order of their table; None for any other text, and where nothing settles
    the order."""
    if order not in ("dmy", "mdy") or (match := _FIGURES(text)) is None:
        return None
    first, _, second, year = match.groups()
    day, month = (first, second) if order == "dmy" else (second, first)
    try:
        return dt.date(int(year), int(month), int(day))
    except ValueError:
        return None


def _plain_clock(text: str, is_twelve: bool) -> Part | None:
    """The part of a time of day to the minute about which nothing is open, `9:15 PM` or `14:05`; None for any other text. Midnight
    may be the end of a day, and is left to a closer look."""
    match = _CLOCK(text)
    if match is None:
        return None
    hour, minute, half = int(match[1]), int(match[2]), match[3]
    if half:
        if not 1 <= hour <= 12:
            return None
        hour = hour % 12 + (12 if half in "Pp" else 0)
    elif hour > (12 if is_twelve else 23) or (1 <= hour <= 6 and text[0] != "0"):
        return None
    secs = hour * 3600 + minute * 60
    if secs == 0:
        return None
    # what Part(start=…, plain_time=…) does, without the cost of its defaults
    clock = Clock(secs, bool(half))
    return tuple.__new__(
        Part, (None, None, clock, None, False, False, None, (), None, None, dt.time(hour, minute))
    )


def _of_week(part: Part, weekday: int | None, ends: bool) -> Part:
    """The week that begins (or ends) on a part's day, all seven days of it; or its one day that a column of weekdays
    names."""
    assert part.first is not None
    if ends:
        part = part._replace(first=part.first - dt.timedelta(6))
    assert part.first is not None
    notes = tuple(code for code in part.notes if code not in ("week-span", "week-ended"))
    if weekday is not None:
        first = part.first + dt.timedelta((weekday - part.first.weekday()) % 7)
        return part._replace(first=first, plain_day=first if part.plain_day else None, notes=notes)
    return part._replace(last=part.first + dt.timedelta(6), plain_day=None, notes=(*notes, "week-span"))


def last_of_range(day: Day, first: dt.date | None, decisions: Decisions) -> dt.date | Refusal:
    """The last day of a range. One that crosses the edge of the school year is of the year in which it starts."""
    if first is not None and day.readings[0].year is None and first <= dt.date.max - _HALF_A_YEAR:
        window = (first, first + _HALF_A_YEAR)
        near = resolve_day(day, decisions._replace(window=window, window_evidence="", is_near=False))
        if not isinstance(near, Refusal):
            return near
    return resolve_day(day, decisions)


def _part(moment: Moment, decisions: Decisions, weekday: int | None) -> Part:
    own = moment.first.weekday if moment.first else None
    if own is not None and weekday is not None and own != weekday:
        message = f"The cell says {WEEKDAYS[own]}, and the column of weekdays {WEEKDAYS[weekday]}."
        return Part(refusal=Refusal("date-weekday", message, "Correct one of them."))
    first = resolve_day(moment.first, decisions, weekday) if moment.first else None
    if isinstance(first, Refusal):
        return Part(refusal=first)
    last = last_of_range(moment.last, first, decisions) if moment.last else None
    if isinstance(last, Refusal):
        return Part(refusal=last)
    if first and last and last < first:
        message = f"The range ends on {last}, before it starts on {first}."
        return Part(refusal=Refusal("end-before-start", message, "Correct the range."))
    rest = moment[4:]
    is_plain = not any(rest[:3]) and moment.offset_secs is None and not moment.notes
    clock = moment.start
    plain_time = None
    if (
        is_plain
        and clock
        and first is None
        and clock.secs < 86_400
        and not clock.is_doubtful
        and not moment.end
    ):
        plain_time = dt.time(clock.secs // 3600, clock.secs // 60 % 60, clock.secs % 60)
    plain_day = first if is_plain and last is None and clock is None and moment.end is None else None
    return Part(
        first, last, clock, moment.end, moment.is_all_day, moment.is_unknown,
        moment.offset_secs, moment.notes, None, plain_day, plain_time,
    )  # fmt: skip
