"""All the sheets of a build: which read as events, in which layout, and which are passed over."""

from collections.abc import Callable, Iterator, Sequence
from itertools import islice
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.reading.cells.memo import REPEAT_FIELDS
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.columns import heading_missing
from nomarium.reading.columns.head import looks_like_date
from nomarium.reading.columns.headings import FIELDS, match_exactly, normal
from nomarium.reading.layouts.eventlist import SAMPLE_ROWS, NotRead, TableReading, read_table
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.reader import read_events
from nomarium.sheets.sheet import Sheet, cell_text


class Reading(NamedTuple):
    """A sheet and the way to its events, whatever its layout."""

    sheet: Sheet
    events: Callable[[Account], Iterator[Event]]
    layout: str = "events"
    is_whole: bool = True
    table: TableReading | None = None
    """The columns and decisions, when it is an event list."""
    notes: tuple[Problem, ...] = ()
    problems: tuple[Problem, ...] = ()

    @property
    def may_repeat(self) -> bool:
        """Whether its rows may say that they repeat."""
        if self.table is None:
            return False
        fields = {column.field for column in self.table.columns} | set(self.table.options.defaults)
        return not fields.isdisjoint(REPEAT_FIELDS)

    @property
    def options_keep_extra(self) -> bool:
        """Whether columns without a field go into the description."""
        return self.table is not None and self.table.options.keep_extra


class Readings:
    """What was found in the sheets of all sources."""

    def __init__(self) -> None:
        self.readings: list[Reading] = []
        self.passed_over: list[NotRead] = []
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []


def read_sheets(sheets: Sequence[Sheet], options: ReadingOptions, whole: bool = False) -> Readings:
    """Decide how each sheet is read. A sheet that reads as nothing is passed over and named;
    when it is the only one, or was asked for by name, that is a problem."""
    found = Readings()
    for sheet in sheets:
        reading = read_sheet(sheet, options, whole)
        if isinstance(reading, NotRead):
            found.passed_over.append(reading)
            continue
        found.readings.append(reading)
        found.notes += reading.notes
        found.problems += reading.problems
    asked = {name.casefold() for name in options.sheets}
    files_read = {reading.sheet.file for reading in found.readings}
    for passed in list(found.passed_over):
        if passed.sheet.name.casefold() in asked or passed.sheet.file not in files_read:
            found.problems.append(passed.problem)
            found.passed_over.remove(passed)
    if len(found.problems) > 1:
        found.problems = _telling(found.problems)
    found.problems += _headings_missing(found.readings, options)
    return found


def _telling(problems: list[Problem]) -> list[Problem]:
    """Without the blank sheets of a workbook, when a better reason is there too."""
    telling = [one for one in problems if one.code != "table-blank"]
    return telling or problems[:1]


def read_sheet(sheet: Sheet, options: ReadingOptions, whole: bool = False) -> Reading | NotRead:
    """Decide how one sheet is read: as asked, else as a list, else as a month or a grid."""
    if options.layout in ("grid", "month"):
        return _read_drawn(sheet, options, options.layout)
    table = read_table(sheet, options, whole)
    if isinstance(table, TableReading):
        return _as_list(table)
    tried: list[NotRead] = []
    if options.layout is None:
        for layout in ("month", "grid"):
            drawn = _read_drawn(sheet, options, layout)
            if isinstance(drawn, Reading):
                return drawn
            tried.append(drawn)
    seen: Lexicon | None = None
    if not options.languages and table.problem.code in ("date-column-missing", "table-empty"):
        from nomarium.reading.cells.languages import lexicon_seen

        texts = (
            cell for _, row in islice(sheet.rows(), SAMPLE_ROWS) for cell in row if isinstance(cell, str)
        )
        seen = lexicon_seen(texts)
        if seen is not None:
            table = read_table(sheet, options, whole, seen)
    if isinstance(table, NotRead) and table.problem.code in ("date-column-missing", "day-one-missing"):
        table = _dated_above(sheet, options, whole, seen, table)
    if isinstance(table, TableReading):
        return _as_list(table)
    return next((drawn for drawn in tried if drawn.problem.code == "month-unnamed"), table)


def _dated_above(
    sheet: Sheet, options: ReadingOptions, whole: bool, seen: Lexicon | None, missing: NotRead
) -> TableReading | NotRead:
    """The reading of a list whose dates stand above its rows, by week or by day; else what is `missing`."""
    from nomarium.reading.layouts.drawn import lexicon_of_weekdays
    from nomarium.reading.layouts.sections import dated_by_sections
    from nomarium.reading.layouts.weekdays import dated_weekdays

    lexicon = seen or lexicon_of_weekdays(sheet.rows(), options)
    for dated in (dated_weekdays(sheet, options, lexicon), dated_by_sections(sheet, lexicon)):
        table = read_table(dated, options, whole, seen) if dated is not None else None
        if isinstance(table, TableReading):
            return table
    if missing.problem.code == "date-column-missing" and (remedy := _remedy_of_shape(sheet, lexicon)):
        return missing._replace(problem=missing.problem._replace(remedy=remedy))
    return missing


def _remedy_of_shape(sheet: Sheet, lexicon: Lexicon) -> str:
    """What to do with a table without a column of dates, as its shape suggests; nothing when it suggests none."""
    from nomarium.reading.layouts.weekdays import has_weekdays

    top = [row for _, row in islice(sheet.rows(), SAMPLE_ROWS)]
    named = [row for row in top if row and match_exactly(cell_text(row[0])) is not None]
    if len(named) > 1 and len(top) <= len(FIELDS):
        return "It seems to lie on its side: copy it and paste it transposed, with a row for each event."
    if any(sum(looks_like_date(cell, lexicon) for cell in row) > 1 for row in top):
        return (
            "Its dates stand across: put times into the first column (a grid), or make a row for each event."
        )
    if has_weekdays(sheet, lexicon):
        return "For one week, say which: --day-one 2027-04-12. A timetable that repeats is part of a plan."
    return ""


def _as_list(table: TableReading) -> Reading:
    return Reading(
        table.sheet, lambda account: read_events(table, account), "events", table.decisions.is_whole, table,
        table.notes, table.problems,
    )  # fmt: skip


def _read_drawn(sheet: Sheet, options: ReadingOptions, layout: str) -> Reading | NotRead:
    # imported here: most sources are lists
    from nomarium.reading.layouts.drawn import lexicon_of_weekdays
    from nomarium.reading.layouts.grid import read_grid
    from nomarium.reading.layouts.month import read_month
    from nomarium.reading.layouts.planner import read_planner
    from nomarium.reading.layouts.weekdays import dated_weekdays

    drawn = (read_grid if layout == "grid" else read_month)(sheet, options)
    if layout == "grid" and isinstance(drawn, NotRead):
        dated = dated_weekdays(sheet, options, lexicon_of_weekdays(sheet.rows(), options))
        drawn = read_grid(dated, options) if dated is not None else drawn
        if isinstance(drawn, NotRead):
            drawn = read_planner(sheet, options) or drawn
    return drawn if isinstance(drawn, NotRead) else Reading(sheet, drawn.events, layout, notes=drawn.notes)


def _headings_missing(readings: Sequence[Reading], options: ReadingOptions) -> list[Problem]:
    """Headings that `--column` or `--fill-down` name and no table has."""
    tables = [reading.table for reading in readings if reading.table]
    if not tables:
        return []
    there = {normal(c.heading) for table in tables for c in table.columns}
    there |= {c.heading.casefold() for table in tables for c in table.columns}
    letters = {chr(65 + n) for n in range(26)}
    named = [(heading, "--column") for heading in options.columns] + [
        (heading, "--fill-down") for heading in options.fill_down
    ]
    if options.recipe_name:
        named = [(heading, f"The recipe {options.recipe_name}") for heading, _ in named]
    return [
        heading_missing(tables[0].sheet, tables[0].columns, heading, option)
        for heading, option in named
        if heading.casefold() not in there and normal(heading) not in there and heading not in letters
    ]
