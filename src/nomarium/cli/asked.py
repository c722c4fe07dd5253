"""How every command that takes a SOURCE reads it: the same options, declared once, and what they come to."""

import contextlib
import datetime as dt
import inspect
from collections.abc import Callable, Iterator, Sequence
from typing import TYPE_CHECKING, Annotated, Final, NamedTuple, get_args, get_origin

import typer

from nomarium.cli import eventoptions as event
from nomarium.cli import options as opt
from nomarium.cli.addresses import without_password
from nomarium.cli.panels import FIRST, PANELS, TEN

if TYPE_CHECKING:
    from pathlib import Path

    from nomarium.model.event import Event
    from nomarium.model.problem import Problem
    from nomarium.reading.options import ReadingOptions
    from nomarium.reckoning.window import Window
    from nomarium.sources.daysoff import Skipping
    from nomarium.sources.opening import Opened, Sources

FOLLOWED: Final = dt.timedelta(days=400)
"""How far repeats without an end are followed by what only looks at events, where nothing says until when."""


class Asked:
    """What a command line says about reading, as it was typed. A plain class: a named tuple of so many fields would cost
    every start as much as reading a small list."""

    sources: opt.Sources = None
    sheet: opt.Sheets = None
    layout: opt.As = None
    column: opt.Columns = None
    set_: opt.Sets = None
    recipe: opt.Recipe = None
    keep_extra: opt.KeepExtra = False
    timezone: opt.Timezone = None
    date_order: opt.DateOrder = None
    school_year: opt.SchoolYear = None
    language: opt.Languages = None
    default_length: opt.DefaultLength = None
    fill_down: opt.FillDown = None
    day_one: opt.DayOne = None
    clock: opt.Clock = None
    spans: opt.Spans = None
    swapped: opt.Swapped = None
    hidden_rows: opt.HiddenRows = None
    set_code: opt.SetCodes = None
    weekdays: opt.Weekdays = None
    table: opt.Tables = None
    cell: opt.CellPattern = None
    terms: opt.Terms = None
    title: opt.Title = None
    only: event.Only = None
    leave_out: event.LeaveOut = None
    override: event.Override = None
    rename: event.Rename = None
    people: event.People = None
    places: event.Places = None
    from_: event.From = None
    until: event.Until = None
    days_off: event.DaysOffFiles = None
    public_holidays: event.PublicHolidayCodes = None

    def __init__(self, **said: object) -> None:
        """`said` are the options that were given, by the names of the fields."""
        vars(self).update(said)

    def but(self, **said: object) -> "Asked":
        """The same with some options otherwise."""
        return Asked(**{**vars(self), **said})

    def said(self) -> str:
        """The options that were given, without anything secret: addresses lose their names and passwords."""
        parts = []
        for name, value in vars(self).items():
            if name != "sources" and value != getattr(Asked, name):
                flag = f"--{name.strip('_').replace('_', '-')}"
                values = value if isinstance(value, list) else [value]
                parts += [flag if one is True else f"{flag} {without_password(str(one))}" for one in values]
        return " ".join(parts)

    @property
    def named(self) -> list[str]:
        """The sources, as they were named."""
        return self.sources or []

    def window(self) -> "tuple[dt.date | None, dt.date | None]":
        """The dates of --from and --until."""
        from nomarium.cli.optionvalues import window_options

        return window_options(self.from_, self.until)

    def reading(self, knows_days_off: bool = False) -> "ReadingOptions":
        """The reading options, over those of a recipe. `knows_days_off`: what repeats on school days may be read,
        whether or not this command line says which days are off."""
        from nomarium.cli.optionvalues import edits_asked, meanings_asked, reading_options

        first, until = self.window()
        edits = edits_asked(self.only, self.leave_out, self.override, self.rename, self.people, self.places)
        return reading_options(
            sheet=self.sheet, layout=self.layout, column=self.column, set_=self.set_, keep_extra=self.keep_extra,
            timezone=self.timezone, date_order=self.date_order, school_year=self.school_year, language=self.language,
            default_length=self.default_length, fill_down=self.fill_down, day_one=self.day_one, clock=self.clock,
            spans=self.spans, swapped=self.swapped, hidden_rows=self.hidden_rows, terms=self.terms, title=self.title,
            edits=meanings_asked(edits, self.set_code, self.weekdays, self.table, self.cell), first=first, until=until,
            knows_days_off=knows_days_off or bool(self.days_off or self.public_holidays), recipe=self.recipe,
        )  # fmt: skip

    def files_read(self, reading: "ReadingOptions") -> list[str | None]:
        """Files that are read beside the sources, which no output may be."""
        joined = (*reading.people, *reading.places, *reading.terms, *reading.without)
        return [self.recipe, *(self.days_off or []), *joined]

    def skipping(self, reading: "ReadingOptions") -> "Skipping | None":
        """The dates on which nothing repeats; None when none were given."""
        if not self.days_off and not self.public_holidays:
            return None
        from nomarium.cli.sources import opened
        from nomarium.sources.daysoff import skipping

        with opened(self.days_off or [], ()) as lists:
            return skipping(lists, self.public_holidays or [], reading)

    @contextlib.contextmanager
    def opened(
        self, reading: "ReadingOptions", look: "Callable[[Path, str], None] | None" = None
    ) -> "Iterator[Opened]":
        """The sheets and calendars of the sources; `look` is given each calendar file and its name. Raises SourceError for
        the first that cannot be opened."""
        from nomarium.cli.sources import opened

        with opened(
            self.named, reading.sheets, reading.zone, reading.people, reading.places, reading.terms, look
        ) as found:
            yield found

    @contextlib.contextmanager
    def taken(
        self, reading: "ReadingOptions", look: "Callable[[Path, str], None] | None" = None
    ) -> "Iterator[Taken]":
        """The sources as sources of events, for commands that look at events and write none; `look` as in `opened`."""
        from nomarium.cli.optionvalues import wrong
        from nomarium.reckoning.window import Window
        from nomarium.sources.opening import sources_in

        if not self.named:
            raise wrong("There is no SOURCE to read.", "Name a spreadsheet, a plan or a calendar file.")
        skipped = self.skipping(reading)
        with self.opened(reading, look) as found:
            days_off = skipped.days_off if skipped is not None else None
            sources = sources_in(found, reading, days_off, identity_name=self.named[0])
            first, last = self.window()
            window = Window(first, last).also_without(days_off or frozenset())
            yield Taken(sources, window, reading, skipped.problems if skipped else (), self.named[0])


class Taken(NamedTuple):
    """Sources of events in a window."""

    sources: "Sources"
    window: "Window"
    reading: "ReadingOptions"
    amiss: "Sequence[Problem]"
    """What is wrong with the lists of days off."""
    identity: str
    """The name that UIDs are made from."""

    def events(self) -> "Iterator[Event]":
        """Every event on each of its dates; for a tally of a plan `sources.taught` is what counts."""
        from nomarium.sources.dated import dated_events

        return dated_events(self.sources.listed, self.window, self.reading.zone)

    def problems(self) -> "list[Problem]":
        """Everything that is wrong, once the events have been taken."""
        sources = self.sources
        unmet = sources.edits.unmet()[0] if sources.edits is not None else []
        rows = (
            one for source in sources.listed for account in source.accounts for one in account.all_problems()
        )
        return [*self.amiss, *sources.problems, *unmet, *rows]

    def notes(self) -> "list[Problem]":
        """Everything that was decided, once the events have been taken."""
        sources = self.sources
        unmet = sources.edits.unmet()[1] if sources.edits is not None else []
        rows = (
            one for source in sources.listed for account in source.accounts for one in account.all_notes()
        )
        return [*sources.notes, *rows, *unmet]


def takes_sources(command: Callable[..., None]) -> Callable[..., None]:
    """A command with the options of reading beside its own, which it gets as `asked`; all of them in the order of
    their panels, so that help shows first what most people need. An option of the command's own hides the one of the
    same flag."""
    own = [one for one in inspect.signature(command).parameters.values() if one.name != "asked"]
    taken = {flag_of(one.annotation) for one in own}
    reading = [
        inspect.Parameter(name, inspect.Parameter.KEYWORD_ONLY, default=default, annotation=kind)
        for name, kind in Asked.__annotations__.items()
        for default in [getattr(Asked, name)]
        if flag_of(kind) not in taken
    ]
    names = [one.name for one in reading]

    def run(**values: object) -> None:
        said = {name: values.pop(name) for name in names}
        command(asked=Asked(**said), **values)

    kinds = sorted([*reading, *own], key=lambda one: _rank(one.annotation))
    kinds = [
        one
        if one.kind is inspect.Parameter.KEYWORD_ONLY
        else one.replace(kind=inspect.Parameter.KEYWORD_ONLY)
        for one in kinds
    ]
    run.__signature__ = inspect.Signature(kinds)  # type: ignore[attr-defined]  # what typer looks at
    run.__annotations__ = {one.name: one.annotation for one in kinds}
    run.__doc__ = command.__doc__
    return run


def _info(annotation: object) -> "typer.models.ParameterInfo":
    assert get_origin(annotation) is Annotated
    found: typer.models.ParameterInfo = get_args(annotation)[1]
    return found


def flag_of(annotation: object) -> str:
    """The long form of an option, `--sheet`; SOURCE for the sources."""
    info = _info(annotation)
    return str(info.default) if isinstance(info, typer.models.OptionInfo) else "SOURCE"


def _rank(annotation: object) -> tuple[int, int]:
    """Where an option stands in the help: its panel, and its place in the first one; arguments before all."""
    info = _info(annotation)
    if not isinstance(info, typer.models.OptionInfo):
        return (-1, 0)
    panel, flag = info.rich_help_panel, flag_of(annotation)
    if panel not in PANELS:
        return (len(PANELS), 0)
    return (PANELS.index(panel), TEN.index(flag) if panel == FIRST and flag in TEN else 0)
