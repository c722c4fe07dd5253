"""Cells to values, field by field: each distinct cell of a column is read once."""

import datetime as dt
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING, Any, TypeAlias

from nomarium.model.cell import FAULT_TEXTS, Cell
from nomarium.model.limits import LONGEST_CELL
from nomarium.model.refusal import BEYOND, Refusal
from nomarium.reading.cells.choices import CANCELLING_STARTS, says_cancelled, says_cancelled_why
from nomarium.reading.cells.ditto import DITTO, LONGEST_DITTO, ditto_of
from nomarium.reading.cells.moments import certain
from nomarium.reading.cells.moves import LONGEST_MOVE, MOVES, moved_away
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reckoning.zones import near_zone_names, zone_named, zones_called
from nomarium.sheets.sheet import cell_text

if TYPE_CHECKING:
    from nomarium.reading.cells.repeats import Cycle


FieldValue: TypeAlias = Any
"""What a cell is read as: a text, a number, people … or a Refusal, as its field says."""

_NONE = frozenset(("none", "nil", "n/a", "-", "–", "—"))
"""What stands in a cell of dates to leave out, or to add, where there are none."""
REPEAT_FIELDS = ("repeat", "repeat-times", "repeat-until", "except", "also-on")

MEMO_SIZE = 20_000
"""Distinct cells of one column that are remembered; when full, a memo starts again."""


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
        key = cell
        try:
            value = self._value(cell, cell_text(cell))
        except OverflowError:
            value = BEYOND
        self[key] = value
        return value

    def _value(self, cell: Cell, text: str) -> FieldValue:
        if not text:
            cell = text = self._default
        if not text:
            return self._blank
        if text[0] == "'" and (bare := unguarded(text)) != text:
            return self._read(bare)
        return fault_of(text) or self._read(cell)


_NOTHING = frozenset(("-", "--", "---", "–", "—", "n/a", "N/A", "n.a."))
"""What people put where there is nothing to say."""


class TextMemo(CellMemo):
    """The same for a column of any text, most of which stands for itself."""

    def __missing__(self, cell: Cell) -> FieldValue:
        text = cell.strip() if type(cell) is str else ""
        if len(text) > LONGEST_MOVE and text[0] not in "'#eE" and "<" not in text:
            may_cancel = text[:4] in CANCELLING_STARTS and len(text) <= LONGEST_CELL
            return _perhaps_cancelled(text) if may_cancel else text  # few long texts come twice
        if text in _NOTHING:
            self[cell] = ""
            return ""
        if len(text) <= LONGEST_DITTO and text.casefold() in DITTO:
            self[cell] = ditto_of(text)
            return self[cell]
        may_fault = text[:1] in ("'", "#") or (text[:1] in ("e", "E") and text.casefold() in FAULT_TEXTS)
        if not text or may_fault or "<" in text or len(self) >= MEMO_SIZE:
            return super().__missing__(cell)
        if text[:4].casefold() in MOVES and len(text) <= LONGEST_MOVE and (moved := moved_away(text)):
            self[cell] = moved
        else:
            may_cancel = len(text) <= _LONGEST_CANCELLATION or text[:4] in CANCELLING_STARTS
            self[cell] = _perhaps_cancelled(text) if may_cancel else text
        return self[cell]


class CancelledText(str):
    """A text that says that the event is cancelled, and nothing else."""

    __slots__ = ()


_LONGEST_CANCELLATION = 16


def _perhaps_cancelled(text: str) -> str:
    is_short = len(text) <= _LONGEST_CANCELLATION
    is_cancelled = (is_short and says_cancelled(text)) or (
        text[:4] in CANCELLING_STARTS and says_cancelled_why(text)
    )
    return CancelledText(text) if is_cancelled else text


def unguarded(text: str) -> str:
    """A text without the apostrophe that keeps a formula's first sign harmless in a spreadsheet.

    >>> unguarded("'+44 555"), unguarded("'tis")
    ('+44 555', "'tis")
    """
    is_guarded = text[:1] == "'" and (text[1:2] in ("=", "+", "-", "@") or text[1:].casefold() in FAULT_TEXTS)
    return text[1:] if is_guarded else text


def fault_of(text: str) -> Refusal | None:
    """The refusal of a spreadsheet's error value, or None for any other text."""
    if text[0] not in "#eE" or text.casefold() not in FAULT_TEXTS:
        return None
    return Refusal(
        "cell-error",
        f"The spreadsheet shows the error {text}.",
        "Mend its formula, or type the value.",
    )


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


def looks_like_zone(cell: Cell) -> bool:
    """Whether a cell is a zone's name or what clocks show of one, or is written as a name is, `Atlantic/Halifax`."""
    text = cell_text(cell)
    return (
        "/" in text
        or isinstance(read_zone(cell), str)
        or (text.isalpha() and len(text) <= 5 and bool(zones_called(text)))
    )


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
        "confirmed",
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


def repeat_memo(
    field: str, lexicon: Lexicon, default: str = "", cycle: "Cycle | None" = None, heading: str = ""
) -> CellMemo:
    """The memo of a column of `REPEAT_FIELDS`; its dates are settled row by row. Under a heading that ends in “every”, the
    cells go on from it: `2 weeks`."""
    from nomarium.reading.cells.dates import Days
    from nomarium.reading.cells.repeats import read_day_list, read_repeat

    def read(cell: Cell) -> FieldValue:
        if isinstance(cell, dt.date):
            return (Days(certain(cell.date() if isinstance(cell, dt.datetime) else cell)),)
        text = cell_text(cell)
        return () if text.casefold() in _NONE else read_day_list(text, lexicon)

    if field == "repeat-times":
        from nomarium.reading.cells.howmany import read_count
        from nomarium.reading.cells.nthweekdays import weeks_said

        def read_times(cell: Cell) -> FieldValue:
            text = cell_text(cell)
            return weeks_said(text, lexicon) or read_count(text, heading)

        return CellMemo(read_times, None, default)
    if field == "repeat":
        from nomarium.reading.cells.nthweekdays import with_nth

        said_before = "every " if fold(heading).split()[-1:] == ["every"] else ""

        def read_phrase(cell: Cell) -> FieldValue:
            text = cell_text(cell)
            if len(text) == 1 and text.isalpha():
                message = f"“{text}” could be how often, weekly or monthly, or a weekday."
                return Refusal("repeat-ambiguous", message, "Write it out: weekly, Wednesday.")
            found = with_nth(read_repeat(text, lexicon, cycle), text, lexicon)
            whole = read_repeat(said_before + text, lexicon, cycle) if said_before else found
            said = whole if isinstance(found, Refusal) and not isinstance(whole, Refusal) else found
            if isinstance(said, Refusal) and said.why == "unlike":
                from nomarium.reading.cells.repeatweekdays import weekly_on  # few phrases come here

                return weekly_on(text, lexicon) or said
            return said

        return CellMemo(read_phrase, None, default)
    if field == "repeat-until":
        return CellMemo(lambda cell: _one_day(read(cell), cell), None, default)
    return CellMemo(read, (), default)


def _one_day(listed: FieldValue, cell: Cell) -> FieldValue:
    """The one day of a list that has no more."""
    if isinstance(listed, Refusal):
        return listed._replace(remedy="Write the last day of the repeat, like 2027-04-12.")
    if len(listed) == 1 and listed[0].last is None:
        return listed[0].first
    return Refusal("date-several", f"“{cell_text(cell)}” is more than one day.", "Write the last day alone.")


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
        "confirmed": (choices.read_yes_no, None),
        "rsvp": (choices.read_yes_no, None),
        "priority": (_of_text(choices.read_priority), None),
    }[field]


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
