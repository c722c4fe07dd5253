"""Cells to values, field by field: each distinct cell of a column is read once."""

import datetime as dt
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING, Any, TypeAlias

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.moments import ROLES, Moment, certain, plain_date, read_moment
from nomarium.reading.cells.times import Clock
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.clocks import NO_CLOCK, in_its_half
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.columns.headings import NO_UNIT, HeadingUnit
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.reckoning.zones import change_dates, near_zone_names, zone_named, zones_called
from nomarium.sheets.sheet import cell_text

if TYPE_CHECKING:
    from nomarium.reading.cells.repeats import Cycle

_MIDNIGHT = Clock(0, True)
_HALF_A_YEAR = dt.timedelta(days=183)

FieldValue: TypeAlias = Any
"""What a cell is read as: a text, a number, people … or a Refusal, as its field says."""

REPEAT_FIELDS = ("repeat", "repeat-times", "except", "also-on")

MEMO_SIZE = 20_000
"""Distinct cells of one column that are remembered; when full, a memo starts again."""

_SAYS_NOTHING = frozenset("- -- --- – — n/a n.a. none nil".split())
"""What people put where there is no time and no last day; as the date itself it is still none."""

_FAULT_TEXTS = frozenset(
    "#n/a #ref! #value! #name? #div/0! #null! #num! #spill! #calc! #error! err:502 err:504 err:508 err:509 err:511".split()
)


class CellMemo(dict[Cell, FieldValue]):
    """The values of one column's cells by cell. A blank cell takes the default, if there is one."""

    def __init__(
        self, read: Callable[[Cell], FieldValue], blank: FieldValue = None, default: str = ""
    ) -> None:
        super().__init__()
        self._read = read
        self._default = default
        self._blank = blank

    def __missing__(self, cell: Cell) -> FieldValue:
        if len(self) >= MEMO_SIZE:
            self.clear()
        key, text = cell, cell_text(cell)
        if not text:
            cell = text = self._default
        if not text:
            value = self._blank
        elif text[0] == "'" and (bare := unguarded(text)) != text:
            value = self._read(bare)
        elif fault := fault_of(text):
            value = fault
        else:
            value = self._read(cell)
        self[key] = value
        return value


class TextMemo(CellMemo):
    """The same for a column of any text, most of which stands for itself."""

    def __missing__(self, cell: Cell) -> FieldValue:
        text = cell.strip() if type(cell) is str else ""
        if not text or text[0] in "'#eE" or "<" in text or len(self) >= MEMO_SIZE:
            return super().__missing__(cell)
        self[cell] = text if len(text) > _LONGEST_CANCELLATION else _perhaps_cancelled(text)
        return self[cell]


class CancelledText(str):
    """A text that says that the event is cancelled, and nothing else."""

    __slots__ = ()


_LONGEST_CANCELLATION = 16


def _perhaps_cancelled(text: str) -> str:
    from nomarium.reading.cells.choices import says_cancelled

    return CancelledText(text) if says_cancelled(text) else text


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


def unguarded(text: str) -> str:
    """A text without the apostrophe that keeps a formula's first sign harmless in a spreadsheet.

    >>> unguarded("'+44 555"), unguarded("'tis")
    ('+44 555', "'tis")
    """
    return text[1:] if text[:1] == "'" and text[1:2] in ("=", "+", "-", "@") else text


def fault_of(text: str) -> Refusal | None:
    """The refusal of a spreadsheet's error value, or None for any other text."""
    if text[0] not in "#eE" or text.casefold() not in _FAULT_TEXTS:
        return None
    return Refusal(
        "cell-error",
        f"The spreadsheet shows the error {text}.",
        "Mend its formula, or type the value.",
    )


def part_memo(
    field: str,
    index: int,
    decisions: Decisions,
    counts_1904: bool,
    default: str = "",
    weekday: int | None = None,
    zone_name: str | None = None,
    unit: HeadingUnit = NO_UNIT,
) -> CellMemo:
    """The memo of a column that says when: `Part` values, refusals inside. `unit` is what its heading says."""
    role = ROLES[field]
    drops_midnight = index in decisions.date_only_columns
    adds_midnight = index in decisions.moment_columns
    zone = zone_named(zone_name) if zone_name else None

    clock = decisions.clock or (NO_CLOCK if unit.meridiem else None)

    def plain(cell: Cell) -> Part | None:
        day = plain_date(cell)
        if decisions.is_swapped:
            return None
        if day is None or (zone and day in change_dates(zone, day.year)):
            return None  # the times of a change's date need looking at, one by one
        # what Part(first=day, plain_day=day) does, without the cost of its defaults
        return tuple.__new__(Part, (day, None, None, None, False, False, None, (), None, day, None))

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
        part = _part(moment, decisions, weekday)
        if part.plain_day and zone and part.plain_day in change_dates(zone, part.plain_day.year):
            part = part._replace(plain_day=None)
        if drops_midnight and part.start and part.start.secs == 0:
            part = part._replace(start=None, plain_day=part.first if part.last is None else None)
        elif adds_midnight and part.start is None and part.first and isinstance(cell, dt.date):
            part = part._replace(start=_MIDNIGHT, plain_day=None, notes=(*part.notes, "midnight-start"))
        return part

    return PartMemo(read, default, plain if role != "time" and weekday is None else _unplain)


def _unplain(_cell: Cell) -> None:
    return None


def _last_of_range(day: Day, first: dt.date | None, decisions: Decisions) -> dt.date | Refusal:
    """The last day of a range. One that crosses the edge of the school year is of the year in which it starts."""
    if first is not None and day.readings[0].year is None and first <= dt.date.max - _HALF_A_YEAR:
        window = (first, first + _HALF_A_YEAR)
        near = resolve_day(day, decisions._replace(window=window, window_evidence="", is_near=False))
        if not isinstance(near, Refusal):
            return near
    return resolve_day(day, decisions)


def _part(moment: Moment, decisions: Decisions, weekday: int | None) -> Part:
    first = resolve_day(moment.first, decisions, weekday) if moment.first else None
    if isinstance(first, Refusal):
        return Part(refusal=first)
    last = _last_of_range(moment.last, first, decisions) if moment.last else None
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


def read_zone(cell: Cell) -> str | Refusal:
    """An IANA zone name that exists."""
    name = cell_text(cell).replace(" ", "_")
    if name.upper() in ("UTC", "Z", "GMT"):
        return "UTC"
    if zone_named(name) is not None:
        return name
    if name.isalpha() and len(name) <= 5 and (so_called := zones_called(name)):
        shown = ", ".join(so_called[:5]) + (f" and {len(so_called) - 5} others" if len(so_called) > 5 else "")
        message = f"“{cell_text(cell)}” is no time zone's name; clocks show it in {shown}."
        remedy = (
            f"Write {so_called[0]}." if len(so_called) == 1 else "Write the name of the one that is meant."
        )
        return Refusal("timezone-unknown", message, remedy)
    near = near_zone_names(name)
    remedy = f"Did you mean {' or '.join(near)}?" if near else "Use an IANA name such as America/Halifax."
    return Refusal("timezone-unknown", f"There is no time zone “{cell_text(cell)}”.", remedy)


def value_memo(field: str, default: str = "", unit_secs: int | None = None) -> CellMemo:
    """The memo of a column that says anything but when. `unit_secs` is the unit of a bare number."""
    if field in ("organizer", "attendees", "optional-attendees", "url", "conference", "geo", "color"):
        read, blank = _reader_of_people(field)
    elif field in (
        "status",
        "privacy",
        "private",
        "busy",
        "all-day",
        "reminder-on",
        "cancelled",
        "rsvp",
        "priority",
    ):
        read, blank = _reader_of_choices(field)
    elif field in ("categories", "more-categories", "audience"):
        read, blank = _of_text(_read_list()), ()
    elif field == "duration":
        read, blank = partial(_duration, unit_secs=unit_secs), None
    elif field == "reminder":
        read, blank = _reminder, None
    elif field == "timezone":
        read, blank = read_zone, None
    elif field == "repeat-times":
        read, blank = _whole_number, None
    elif field in REPEAT_FIELDS:
        return repeat_memo(field, ENGLISH, default)
    else:
        return TextMemo(_note_text if field == "description" else cell_text, "", default)
    return CellMemo(read, blank, default)


def _note_text(cell: Cell) -> str:
    text = cell_text(cell)
    if "<" not in text:
        return text
    from nomarium.reading.cells.markup import without_html

    return without_html(text)


def repeat_memo(field: str, lexicon: Lexicon, default: str = "", cycle: "Cycle | None" = None) -> CellMemo:
    """The memo of a column of `REPEAT_FIELDS`; its dates are settled row by row."""
    from nomarium.reading.cells.dates import Days
    from nomarium.reading.cells.repeats import read_day_list, read_repeat

    def read(cell: Cell) -> FieldValue:
        if isinstance(cell, dt.date):
            return (Days(certain(cell.date() if isinstance(cell, dt.datetime) else cell)),)
        return read_day_list(cell_text(cell), lexicon)

    if field == "repeat-times":
        return value_memo(field, default)
    if field == "repeat":
        return CellMemo(lambda cell: read_repeat(cell_text(cell), lexicon, cycle), None, default)
    return CellMemo(read, (), default)


# The readers of fields that few tables have are imported when a table has them: a command's start
# is part of what it costs.


def _read_list() -> Callable[[str], tuple[str, ...]]:
    from nomarium.reading.cells.people import read_list

    return read_list


def _reader_of_people(field: str) -> tuple[Callable[[Cell], FieldValue], FieldValue]:
    from nomarium.ical.colors import CSS3_COLORS
    from nomarium.reading.cells import people

    readers: dict[str, tuple[Callable[[str], FieldValue], FieldValue]] = {
        "organizer": (people.read_person, None),
        "attendees": (people.read_people, ()),
        "optional-attendees": (partial(people.read_people, optional=True), ()),
        "url": (people.read_url, ""),
        "conference": (people.read_conference, ""),
        "geo": (people.read_geo, None),
        "color": (partial(people.read_color, names=CSS3_COLORS), ""),
    }
    read, blank = readers[field]
    return _of_text(read), blank


def _reader_of_choices(field: str) -> tuple[Callable[[Cell], FieldValue], FieldValue]:
    from nomarium.reading.cells import choices

    return {
        "status": (_of_text(choices.read_status), ""),
        "privacy": (_of_text(choices.read_privacy), ""),
        "private": (choices.read_yes_no, None),
        "busy": (choices.read_busy, None),
        "all-day": (choices.read_yes_no, None),
        "reminder-on": (choices.read_yes_no, None),
        "cancelled": (choices.read_yes_no, None),
        "rsvp": (choices.read_yes_no, None),
        "priority": (_of_text(choices.read_priority), None),
    }[field]


def _whole_number(cell: Cell) -> int | Refusal:
    """How many there are, from 1 on."""
    text = cell_text(cell)
    if text.isdecimal() and int(text[:6]) > 0 and len(text) < 6:
        return int(text)
    return Refusal("number-unread", f"“{text}” is no whole number from 1 on.", "Write a figure, such as 6.")


def _of_text(read: Callable[[str], FieldValue]) -> Callable[[Cell], FieldValue]:
    return lambda cell: read(cell_text(cell))


def _reminder(cell: Cell) -> int | Refusal | None:
    """How long before the start, in seconds; a number alone is minutes, a no is none."""
    from nomarium.reading.cells import lengths

    text = fold(cell_text(cell)).strip()
    if text in ("no", "none", "non", "nein", "false", "off", "-", "aucun", "keine", "n"):
        return None
    for ending in (" before", " beforehand", " avant", " vorher", " antes", " ervoor"):
        text = text.removesuffix(ending)
    if isinstance(cell, (dt.time, dt.timedelta)):
        return lengths.length_of_value(cell, 60)
    return lengths.read_length(text, 60)


def _duration(cell: Cell, unit_secs: int | None) -> int | Refusal:
    from nomarium.reading.cells import lengths

    if isinstance(cell, (float, int, dt.time, dt.timedelta)) and not isinstance(cell, (bool, dt.date)):
        return lengths.length_of_value(cell, unit_secs)
    return lengths.read_length(cell_text(cell), unit_secs)
