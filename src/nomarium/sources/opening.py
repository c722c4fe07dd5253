"""What the sources of a command hold, as sources of events: plans, calendars, lists."""

import datetime as dt
from collections.abc import Sequence
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.longtext import (
    long_cell_problem,
    with_long_cells_cut,
    with_long_cells_whole,
)
from nomarium.reading.columns.weekdayletters import with_weekdays_of_letters
from nomarium.reading.layouts.layout import NotRead, Reading
from nomarium.reading.options import ReadingOptions, asks_for_edits, in_one_week
from nomarium.reading.reading import Readings, read_sheets
from nomarium.sheets.sheet import TOP_ROWS, Sheet
from nomarium.sources.lists import ListSource, RefusedSource
from nomarium.sources.source import Source

if TYPE_CHECKING:
    from nomarium.ical.reader import CalendarRead
    from nomarium.reckoning.daysoff import DaysOff
    from nomarium.school.plan import Plan
    from nomarium.sources.edits import Edits


class Opened(NamedTuple):
    """Files that have been opened: tables as sheets, calendar files as what was found in them."""

    sheets: Sequence[Sheet] = ()
    calendars: "Sequence[CalendarRead]" = ()
    people: Sequence[Sheet] = ()
    """Tables of names and addresses, which events are joined with …"""
    places: Sequence[Sheet] = ()
    """… and of names and where they are."""
    terms: Sequence[Sheet] = ()
    """Tables of terms, whose weeks dates may name."""


class Sources:
    """Everything that events come from, in the order in which they are written, and what was said on the way."""

    def __init__(self, is_whole: bool) -> None:
        self.is_whole = is_whole
        """Whether tables were looked at as a whole; else a part of each that seems to settle it."""
        self.listed: list[Source] = []
        self.plans: list[Plan] = []
        self.readings: list[Reading] = []
        """How sheets that are no part of a plan are read, also those whose rows cannot be trusted."""
        self.passed_over: list[NotRead] = []
        self.unread: list[NotRead] = []
        self.refused: list[Source] = []
        self.problems: list[Problem] = []
        """What keeps a source as a whole from being read; those of rows are in the accounts."""
        self.notes: list[Problem] = []
        self.terms: Sequence[tuple[str, dt.date, dt.date]] = ()
        """The terms that were given: names, first and last days."""
        self.edits: Edits | None = None
        """What is done to the events after they are read, when something is."""

    @property
    def taught(self) -> Sequence[Source]:
        """What a tally counts: the classes of the plans, where there are plans; else everything."""
        return [source for source in self.listed if source.is_taught] if self.plans else self.listed

    def take(self, found: Readings) -> list[Reading]:
        """Write down what was found in sheets; the readings whose rows can be trusted."""
        self.passed_over += found.passed_over
        self.unread += found.unread
        self.problems += found.problems
        self.notes += found.notes
        self.refused += map(RefusedSource, found.refused)
        return [reading for reading in found.readings if not reading.problems]

    def take_calendars(self, calendars: "Sequence[CalendarRead]", options: ReadingOptions) -> None:
        """The entries of calendar files, moved to another first day when that was asked for."""
        from nomarium.sources.calendars import calendar_sources

        if options.day_one is not None:
            from nomarium.sources.moved import moved_calendars

            calendars, told = moved_calendars(calendars, options.day_one)
            if told is not None:
                (self.notes if told.severity == "note" else self.problems).append(told)
        self.listed += calendar_sources(calendars, options)

    def take_plan(self, plan: "Plan", identity_name: str, by_rule: bool) -> None:
        """The classes and the days off of a plan, and its sheets of events."""
        from nomarium.sources.plans import plan_sources
        from nomarium.sources.unmet import met_headings

        self.plans.append(plan)
        self.problems += plan.problems
        self.notes += plan.notes
        found = Readings()
        if plan.event_sheets:
            columns = met_headings(plan.event_sheets, plan.options.columns) if plan.options.columns else {}
            found = read_sheets(plan.event_sheets, plan.options._replace(columns=columns), self.is_whole)
        self.listed += plan_sources(plan, self.take(found), identity_name, by_rule)

    def take_unmet(self, sheets: Sequence[Sheet], options: ReadingOptions) -> None:
        """What the options say that sheets, cells and codes mean, and that meets nothing."""
        from nomarium.sources.unmet import unmet_headings, unmet_meanings

        told = self.notes if options.recipe_name else self.problems
        told += unmet_meanings(sheets, options, any(plan.has_drawn_weeks for plan in self.plans))
        if self.plans:
            told += unmet_headings(sheets, options)

    def listing(self, reading: Reading, options: ReadingOptions) -> ListSource:
        """A list as a source, its dates moved to another first day when that was asked for."""
        if options.day_one is None or reading.layout != "events" or reading.is_weekly:
            return ListSource(
                reading, options.closed | reading.closed if reading.is_weekly else reading.closed
            )
        from nomarium.sources.moved import Move, has_own_dates, move_of

        move = move_of(reading, options.day_one) if has_own_dates(reading) else None
        if isinstance(move, Problem):
            self.problems.append(move)
        if not isinstance(move, Move):
            return ListSource(reading, reading.closed)
        self.notes.append(move.told)
        return ListSource(reading, completed=move.moved)


def sources_in(
    opened: Opened,
    options: ReadingOptions,
    days_off: "DaysOff | None" = None,
    identity_name: str = "",
    is_whole: bool = True,
    by_rule: bool = False,
) -> Sources:
    """Find out what every source is. `days_off` close the school of a plan; `identity_name` is what UIDs are made
    from; `is_whole` looks at every row before it decides what a table's dates mean; `by_rule` keeps what repeats as rules."""
    sources, edits = Sources(is_whole), None
    if asks_for_edits(options) or opened.people or opened.places:
        from nomarium.sources.directories import Directories
        from nomarium.sources.edits import Edits, read_with

        directories = Directories(opened.people, opened.places)
        sources.problems += directories.problems
        edits, options = Edits(options, directories), read_with(options)
    if opened.terms:
        from nomarium.school.termweeks import in_terms

        options, problems = in_terms(opened.terms, options)
        sources.problems += problems
        sources.terms = options.term_dates
    plans, others = _plans_in(opened.sheets, options)
    found = read_sheets(others, options, is_whole)
    late = _late_plans(found, others, options)
    if late:
        plans = [*plans, *late]
        taken = {(one.file, one.name) for group in late for one in group}
        found = read_sheets([one for one in others if (one.file, one.name) not in taken], options, is_whole)
    sources.readings = found.readings
    sources.problems += _year_alone(found, options)
    lists = [sources.listing(reading, options) for reading in sources.take(found)]
    for sheets in plans:
        from nomarium.school.plan import read_plan

        if too_long := list(filter(None, map(long_cell_problem, sheets))):
            sources.problems += too_long
            continue
        week = in_one_week(options)
        plan = read_plan(list(map(with_long_cells_whole, sheets)), week, days_off, opened.terms)
        _take_said_beside(plan, sheets, sources)
        taught = {(term.first, term.last) for term in plan.rows.terms}
        if options.day_one is not None and taught - {(week.repeats_from, week.repeats_until)}:
            message = "--day-one counts or moves the dates of lists and calendars, and not those of a plan: its terms say when."
            raise UsageError(Problem("usage", message, "Leave the option out."))
        sources.take_plan(plan, identity_name, by_rule)
    if options.tables or options.weekdays or options.cell or (plans and options.columns):
        sources.take_unmet(opened.sheets, options)
    if opened.calendars:
        sources.take_calendars(opened.calendars, options)
    sources.listed += [*lists, *sources.refused]
    if edits is not None:
        from nomarium.sources.edits import EditedSource

        sources.edits = edits
        sources.problems += edits.misfits(sources.listed)
        sources.listed = [EditedSource(source, edits) for source in sources.listed]
    return sources


def _take_said_beside(plan: "Plan", sheets: Sequence[Sheet], sources: Sources) -> None:
    """What lines above the tables of a plan say of all of it, and `--set` where nothing has a use for it."""
    from nomarium.reading.columns.saidofall import said_of_drawing

    for sheet in sheets:
        top = list(islice(sheet.rows(), TOP_ROWS))
        problems, notes = said_of_drawing(sheet, top, plan.options, option="--override")
        sources.problems += problems
        sources.notes += notes
    if plan.options.defaults and not plan.event_sheets:
        message = f"--set fills what rows of event lists lack, and {plan.file} has no such list."
        sources.notes.append(
            note("set-unmet", message, "To say it of every meeting: --override FIELD=VALUE.")
        )


def _late_plans(found: Readings, sheets: Sequence[Sheet], options: ReadingOptions) -> list[list[Sheet]]:
    """Files of which nothing reads as events, and whose classes stand on weekdays or labels without dates, or on weekdays of
    some weeks or terms; and those of sections of courses."""
    whys = ("blank", "no-weeks", "other-recipe")
    late = [one.sheet for one in found.unread if one.why not in whys]
    late += [reading.sheet for reading in found.readings if reading.is_of_classes]
    if not late or options.layout is not None:
        return []
    from nomarium.school.finding import timetables_in

    named = {(one.file, one.name) for one in late}
    looked_at = (with_long_cells_cut(one) for one in sheets if (one.file, one.name) in named)
    return timetables_in([with_weekdays_of_letters(one) for one in looked_at])


def _year_alone(found: Readings, options: ReadingOptions) -> list[Problem]:
    """A problem for each workbook of which nothing but terms or days off would become a calendar, while what is passed
    over is more; or of which a timetable is passed over that is called so."""
    unread = [one for one in found.passed_over if one.why not in ("blank", "no-rows")]
    if not unread or options.sheets or options.layout is not None:
        return []
    from nomarium.school.finding import are_of_the_year, is_called_timetable, looks_taught

    passed = {one.sheet.file: one.sheet for one in unread if one.why == "no-weeks" or looks_taught(one.sheet)}
    problems = []
    for file, sheet in passed.items():
        read = [reading.sheet for reading in found.readings if reading.sheet.file == file]
        is_about = bool(read) and are_of_the_year(read)
        is_weekly = any(one.sheet is sheet and one.why == "no-weeks" for one in unread)
        if read and (is_about or is_weekly or is_called_timetable(sheet)):
            of_year = ", which is about the year," if is_about else ""
            message = f"Of {file} only {', '.join(one.name for one in read)} could be read{of_year} and not “{sheet.name}”."
            weeks = "To hold its weekdays in some weeks: --from FIRST --until LAST. " if is_weekly else ""
            remedy = (
                f'{weeks}If “{sheet.name}” is a timetable: --table "{sheet.name}=timetable", and --column "HEADING=class" (start, end, room …) '
                f'for headings that are not known; to make a calendar of the rest: --sheet "{read[0].name}".'
            )
            problems.append(Problem("year-alone", message, remedy, sheet.place()))
    return problems


def _plans_in(
    sheets: Sequence[Sheet], options: ReadingOptions
) -> tuple[Sequence[Sequence[Sheet]], Sequence[Sheet]]:
    """The sheets that are plans, and the others; what tells them apart is looked at only where sheets have names."""
    if options.layout not in ("plan", "timetable") and not any(sheet.name for sheet in sheets):
        return (), sheets
    from nomarium.school.finding import plans_in

    cut = map(with_long_cells_cut, sheets)
    return plans_in([with_weekdays_of_letters(sheet) for sheet in cut], options)
