"""What the person asked for about reading, in one frozen value that every stage may look at."""

import datetime as dt
from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Literal, NamedTuple

from nomarium.model.refusal import Refusal

Order = Literal["", "dmy", "mdy", "ymd"]
"""How dates in figures are read; nothing: as their table shows."""
Layout = Literal[
    "events", "plan", "timetable", "grid", "month", "planner", "day", "roster", "wall", "matrix", "text"
]
"""What a source may be said to be."""
Clock = Literal["", "12", "24"]
Spans = Literal["", "daily", "whole"]
Swapped = Literal["", "yes", "no"]
HiddenRows = Literal["", "skip", "read"]


class ReadingOptions(NamedTuple):
    """How tables are to be read; what is empty or None is found from the table itself."""

    sheets: tuple[str, ...] = ()
    layout: Layout | None = None
    columns: Mapping[str, str] = MappingProxyType({})
    """Heading (or column letter) → field, "" to leave the column out."""
    defaults: Mapping[str, str] = MappingProxyType({})
    """Field → the value where a row has none."""
    keep_extra: bool = False
    zone: str | None = None
    """IANA name; None makes floating times."""
    date_order: Order = ""
    school_year: tuple[dt.date, dt.date] | None = None
    """First and last date (inclusive) of the window that dates without a year fall in."""
    languages: tuple[str, ...] = ()
    default_length_secs: int | None = None
    """Length of a timed event with no end; None is an hour."""
    fill_down: tuple[str, ...] = ()
    """Headings whose blank cells take the value above."""
    day_one: dt.date | None = None
    """The date of week 1 day 1."""
    clock: Clock = ""
    """By which clock times without am or pm are read; nothing: as their table shows."""
    spans: Spans = ""
    """Whether a first day, a last day and times are an event each day, or one long one; nothing: as the columns show."""
    swapped: Swapped = ""
    """Whether days and months of a workbook's own dates were exchanged when the file was opened; nothing: unsaid."""
    hidden_rows: HiddenRows = ""
    """What becomes of rows that are hidden in a workbook; nothing: they are read, and told of."""
    codes: Mapping[str, str] = MappingProxyType({})
    """Code in drawn cells → its times, its name, or both."""
    title: str = ""
    """A template of titles, `{Subject}: {title}`; nothing: the summary as it stands."""
    sides: tuple[str, ...] = ()
    """The headings in it of sides that meet: without one of them, a row says of no meeting."""
    header_row: int | None = None
    """The row of the headings, 0 for none; from a recipe."""
    only: tuple[tuple[str, str], ...] = ()
    """(field, value): events that have none of a field's values are left out; `*` is any text."""
    dropped: tuple[tuple[str, str], ...] = ()
    """(field, value): events with one of them are left out."""
    overrides: Mapping[str, str] = MappingProxyType({})
    """Field → the value in every row, whatever stands there."""
    renamed: Mapping[str, str] = MappingProxyType({})
    """Titles or codes as they stand → what to call the event or the class."""
    from_recipe: frozenset[str] = frozenset()
    """What of these comes from a recipe, and may meet nothing: `only`, `leave_out`, and titles of `renamed`."""
    left_out: tuple[str, ...] = ()
    """Texts: rows that have one as a whole cell are left out; from a recipe."""
    tables: Mapping[str, str] = MappingProxyType({})
    """Sheet (or file) → the table of a plan that it is, "" to leave it out."""
    cell: str = ""
    """What the parts of a drawn cell are, `class, room / teacher`; nothing: as all cells show."""
    weekdays: Mapping[str, str] = MappingProxyType({})
    """Weekday code, `TH` → the weekdays that it means."""
    tells_repeats: bool = True
    """Whether each phrase of a repeat is told as it was understood; where one note tells of all, it is not."""
    weeks_of: str = ""
    """What says from when to when weekdays repeat, where the command line does not: “, in the terms of …”."""
    closed: frozenset[int] = frozenset()
    """The days, by ordinal, on which weekdays without dates do not repeat: those between terms."""
    heard: frozenset[int] = frozenset()
    """Numbers of lines beside the rows that have been heard already: they are no events."""
    repeats_until: dt.date | None = None
    """The last date that is asked for; repeats without an end of their own end there."""
    horizon: dt.date | None = None
    """Until when repeats without an end are followed by those who only look, where nothing says it."""
    repeats_from: dt.date | None = None
    """The first date of a repeat that says none of its own."""
    knows_days_off: bool = False
    """Whether dates on which nothing repeats were given."""
    cycle: Callable[[str], Callable[[dt.date], list[dt.date]] | None] | None = None
    """What reads phrases about a school year, such as “every Day 3”; from a plan."""
    people: tuple[str, ...] = ()
    """Files of names and addresses, which events are joined with …"""
    places: tuple[str, ...] = ()
    """… and of places and where they are."""
    without: tuple[str, ...] = ()
    """Calendar files whose events are not written again; from a recipe."""
    split_by: tuple[str, ...] = ()
    """The fields by which a build is split; from a recipe."""
    terms: tuple[str, ...] = ()
    """Files with the names and dates of terms, whose weeks dates may name."""
    term_dates: tuple[tuple[str, dt.date, dt.date], ...] = ()
    """What these hold: the name, the first and the last day of each."""
    term_week: Callable[[str], tuple[dt.date, dt.date] | Refusal | None] | None = None
    """What reads weeks of terms, such as “Week 3 Term 2”; from these or from a plan."""
    recipe_name: str = ""
    """The recipe that some of this comes from, for messages."""

    @property
    def last_repeat(self) -> dt.date | None:
        """The last date of a repeat that has no end of its own."""
        return self.repeats_until or self.horizon

    @property
    def length_secs(self) -> int:
        """The length of a timed event with no end."""
        return 3600 if self.default_length_secs is None else self.default_length_secs


def asks_for_edits(options: ReadingOptions) -> bool:
    """Whether anything is to be done to events after they are read."""
    return bool(options.only or options.dropped or options.overrides or options.renamed or options.title)


def in_one_week(options: ReadingOptions) -> ReadingOptions:
    """The options for what repeats on weekdays: the week that `--day-one` begins is when, where nothing else says it."""
    first = options.day_one
    if first is None or options.repeats_from is not None or options.repeats_until is not None:
        return options
    last = min(first.toordinal() + 6, dt.date.max.toordinal())
    return options._replace(repeats_from=first, repeats_until=dt.date.fromordinal(last))
