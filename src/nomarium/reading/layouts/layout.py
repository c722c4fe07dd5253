"""What every layout has: one look at the top of a sheet gives a reading of it, or says why there is none."""

import re
from collections.abc import Callable, Iterator
from functools import cached_property
from importlib import import_module
from itertools import islice
from typing import TYPE_CHECKING, Literal, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.lexicons import lexicon_of_numbered, lexicon_of_weekdays, with_months
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import TOP_ROWS, Row, Sheet

if TYPE_CHECKING:
    from nomarium.reading.columns.column import Column
    from nomarium.reading.columns.table import TableReading

Why = Literal[
    "blank", "no-rows", "no-dates", "no-day-one", "no-titles", "other-recipe", "no-grid", "no-month",
    "month-unnamed", "no-day", "day-unnamed", "no-planner", "no-weekdays", "no-sections", "no-language",
    "no-roster", "no-wall", "no-matrix", "no-weeks", "no-lines", "undated", "no-months",
]  # fmt: skip
"""Why a sheet does not read as a layout: what the others go by."""


_WORD = r"[^\W\d_]{2,}"


class Top:
    """A sheet whose first rows have been read, and what of them several layouts ask for."""

    def __init__(self, sheet: Sheet, options: ReadingOptions, is_whole: bool = False) -> None:
        """`is_whole`: every row is looked at, even where a part would settle what its dates mean."""
        self.sheet = sheet
        self.options = options
        self.is_whole = is_whole

    @cached_property
    def rows(self) -> list[Row]:
        """The first rows, blank ones included."""
        return list(islice(self.sheet.rows(), TOP_ROWS))

    @cached_property
    def is_one_column(self) -> bool:
        """Whether the rows hold one text each, some with figures among words, and the first heads no column: lines that somebody
        put into a table."""
        from nomarium.reading.columns.headings import match_exactly

        cells = [[cell for cell in row if cell != ""] for _, row in self.rows]
        texts = [row[0] for row in cells if row]
        if any(len(row) > 1 for row in cells) or not all(isinstance(text, str) for text in texts):
            return False
        first = re.split(r"\s{2,}", str(texts[0]).strip()) if texts else []
        worded = [
            text for text in texts if re.search(r"\d", str(text)) and len(re.findall(_WORD, str(text))) > 1
        ]
        return len(worded) > 1 and not any(map(match_exactly, first))

    @cached_property
    def seen(self) -> Lexicon | None:
        """The names of the one other language in which the texts write their dates; None when English is enough,
        or what to use has been said."""
        if self.options.languages:
            return None
        from nomarium.reading.cells.languages import lexicon_seen

        return lexicon_seen(cell for _, row in self.rows for cell in row if isinstance(cell, str))

    @cached_property
    def lexicon(self) -> Lexicon:
        """The names of the language that the dates or the weekdays show."""
        known = self.seen or self.of_weekdays
        if self.options.languages:
            return known
        return with_months(self.rows, lexicon_of_numbered(self.rows, known))

    @cached_property
    def of_weekdays(self) -> Lexicon:
        """English or the languages asked for; else the language that knows a whole row of weekdays."""
        return lexicon_of_weekdays(self.rows, self.options)

    @cached_property
    def of_both(self) -> Lexicon:
        """The names of the language that the weekdays show, and those of the one that the dates do."""
        return self.of_weekdays.extended(self.seen) if self.seen is not None else self.of_weekdays


class Reading(NamedTuple):
    """A sheet and the way to its events, whatever its layout."""

    sheet: Sheet
    layout: str
    events: Callable[[Account], Iterator[Event]]
    """What becomes of every row, or entry, goes into the account."""
    notes: tuple[Problem, ...] = ()
    problems: tuple[Problem, ...] = ()
    """What keeps the sheet as a whole from being read."""
    may_repeat: bool = False
    """Whether its rows may say that they repeat."""
    is_whole: bool = True
    """Whether every row was looked at to settle what its dates mean."""
    table: "TableReading | None" = None
    """The columns and decisions, when it is an event list."""
    is_weekly: bool = False
    """Whether its rows have weekdays and no dates: they repeat in the weeks that are taught."""
    closed: frozenset[int] = frozenset()
    """Days (ordinals) on which these are not held, as lines beside them say."""
    is_of_classes: bool = False
    """Whether rows are classes as a timetable could say them and a list cannot: held in some weeks or terms only, or sections of courses."""
    has_sessions: bool = False
    """Whether rows have the times of the sessions that they name."""


class NotRead(NamedTuple):
    """A sheet that does not read as events, and why."""

    sheet: Sheet
    why: Why
    reason: str
    """The same for people, to follow the sheet's name."""
    problem: Problem
    """The same as a problem, for when nothing else reads as events either."""
    columns: "tuple[Column, ...]" = ()
    """What was found out about its columns, where it has some."""


def not_read(sheet: Sheet, why: Why, reason: str, code: str, message: str, remedy: str = "") -> NotRead:
    """A sheet that does not read as a layout, with the problem that this is when nothing else reads it."""
    return NotRead(sheet, why, reason, Problem(code, message, remedy, sheet.place()))


class Layout(NamedTuple):
    """A way in which tables are laid out."""

    name: str
    """What --as takes and the survey says."""
    module: str
    """Its module in this folder, imported when it is tried: most sources are lists."""
    function: str = "look"
    only_after: frozenset[Why] = frozenset()
    """Tried only when the sheet is no plain list for one of these reasons; none: always."""
    with_set: str = ""
    """Tried only when --set gives this field; nothing: whatever it gives."""
    asked_as: tuple[str, ...] = ()
    """Other names by which --as asks for it."""

    def look(self, top: Top) -> Reading | NotRead:
        """Read a sheet in this layout, or say why it is none."""
        look: Callable[[Top], Reading | NotRead] = getattr(
            import_module(f"nomarium.reading.layouts.{self.module}"), self.function
        )
        return look(top)


_NO_DATES = frozenset[Why](("no-dates", "no-day-one"))
_DRAWN = frozenset[Why](("no-dates", "no-titles", "no-rows"))
LAYOUTS: tuple[Layout, ...] = (
    Layout("day", "daysheet", with_set="date"),
    Layout("events", "eventlist"),
    Layout("month", "month"),
    Layout("grid", "grid"),
    Layout("planner", "planner", asked_as=("grid",)),
    Layout("planner", "weekdates", asked_as=("grid",)),
    Layout("day", "daysheet", only_after=frozenset(("no-dates", "no-titles", "no-rows")), asked_as=("grid",)),
    Layout("events", "eventlist", "look_in_its_language", frozenset(("no-dates", "no-rows"))),
    Layout("events", "monthbeside", only_after=_NO_DATES),
    Layout("events", "monthsections", only_after=_DRAWN | _NO_DATES),
    Layout("grid", "daysundermonth", only_after=_DRAWN | _NO_DATES),
    Layout("grid", "placesbeside", only_after=frozenset(("no-titles",))),
    Layout("events", "headtimes", only_after=frozenset(("no-titles",))),
    Layout("events", "headyears", only_after=_NO_DATES),
    Layout("events", "monthcolumns", only_after=_DRAWN),
    Layout("wall", "wall", only_after=_DRAWN | {"no-day-one"}, asked_as=("month",)),
    Layout("matrix", "matrix", only_after=_DRAWN, asked_as=("month",)),
    Layout("events", "headdays", only_after=_DRAWN),
    Layout("events", "daypairs", only_after=_DRAWN),
    Layout("matrix", "ordinals", only_after=_DRAWN),
    Layout("roster", "roster", only_after=_DRAWN | {"no-weeks", "no-day-one"}),
    Layout("roster", "roster", "look_over_weekdays", only_after=_NO_DATES),
    Layout("roster", "weekrosters", only_after=_DRAWN | _NO_DATES),
    Layout("events", "weekdays", only_after=_NO_DATES),
    Layout("events", "sections", only_after=_NO_DATES),
    Layout("events", "weekly", only_after=_NO_DATES),
    Layout("events", "weekcells", only_after=_NO_DATES),
    Layout("events", "onside", only_after=_DRAWN),
    Layout("text", "lines", only_after=_DRAWN),
)
"""In the order in which they are tried: the first that reads a sheet has it."""
