"""`nomarium survey`: look at a spreadsheet and say how it would be read."""

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import eventoptions as event
from nomarium.cli import options as opt
from nomarium.cli.render import say_json
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem

if TYPE_CHECKING:
    from nomarium.building.report import BuildReport
    from nomarium.reading.options import ReadingOptions

EXAMPLE = "Example: nomarium survey export.xlsx --save export.toml"


def survey(
    sources: opt.Sources,
    sheet: opt.Sheets = None,
    layout: opt.As = None,
    column: opt.Columns = None,
    set_: opt.Sets = None,
    recipe: opt.Recipe = None,
    keep_extra: opt.KeepExtra = False,
    timezone: opt.Timezone = None,
    date_order: opt.DateOrder = None,
    school_year: opt.SchoolYear = None,
    language: opt.Languages = None,
    default_length: opt.DefaultLength = None,
    fill_down: opt.FillDown = None,
    day_one: opt.DayOne = None,
    clock: opt.Clock = None,
    spans: opt.Spans = None,
    swapped: opt.Swapped = None,
    hidden_rows: opt.HiddenRows = None,
    set_code: opt.SetCodes = None,
    weekdays: opt.Weekdays = None,
    table: opt.Tables = None,
    cell: opt.CellPattern = None,
    terms: opt.Terms = None,
    title: opt.Title = None,
    only: event.Only = None,
    leave_out: event.LeaveOut = None,
    override: event.Override = None,
    rename: event.Rename = None,
    people: event.People = None,
    places: event.Places = None,
    from_: event.From = None,
    until: event.Until = None,
    save: Annotated[
        str | None,
        typer.Option(
            "--save",
            metavar="FILE",
            help="Keep the reading as a recipe (.toml).",
            rich_help_panel=opt.REPORT,
        ),
    ] = None,
    json: opt.Json = False,
) -> None:
    """Look at a spreadsheet or a plan and say how it would be read: columns, dates, terms, every row's fate."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.building.build import build as build_calendar
    from nomarium.building.options import BuildOptions
    from nomarium.cli.optionvalues import edits_asked, meanings_asked, reading_options, window_options
    from nomarium.cli.outputs import check_outputs
    from nomarium.cli.sources import calendar_name, opened
    from nomarium.cli.surveyreport import say_survey, survey_facts

    sources = sources or []
    if not sources:
        raise UsageError(Problem("usage", "There is no SOURCE to look at.", "Name a spreadsheet."))
    first, last = window_options(from_, until)
    reading = reading_options(
        sheet=sheet, layout=layout, column=column, set_=set_, keep_extra=keep_extra, timezone=timezone,
        date_order=date_order, school_year=school_year, language=language, default_length=default_length,
        fill_down=fill_down, day_one=day_one, clock=clock, spans=spans, swapped=swapped, hidden_rows=hidden_rows, terms=terms, title=title, edits=meanings_asked(edits_asked(only, leave_out, override, rename, people, places), set_code, weekdays, table, cell), first=first, until=last, knows_days_off=True, recipe=recipe,
    )  # fmt: skip
    read_too = [recipe, *reading.people, *reading.places, *reading.terms]
    check_outputs({"--save": save}, sources, read_too)
    called = calendar_name(sources, "-")
    dry = BuildOptions(None, called, called, "19700101T000000Z", last_day=last)
    with opened(
        sources, reading.sheets, reading.zone, reading.people, reading.places, reading.terms
    ) as found:
        report = build_calendar(found, reading, dry)
    if save and report.readings:
        _keep(report, reading, Path(save))
    if json:
        say_json(survey_facts(report, sources, reading, save))
    else:
        say_survey(report, sources, reading, save)
    raise typer.Exit(1 if report.problems else 0)


def _keep(report: "BuildReport", reading: "ReadingOptions", path: Path) -> None:
    """Save how the sheets were read. Raises SourceError when the recipe cannot be written."""
    from nomarium.sources.recipe import recipe_refusal, recipe_text
    from nomarium.targets.replacing import replace_file

    text = recipe_text(report.readings, reading, path.name)
    try:
        replace_file(path, lambda file: file.write(text.encode()))
    except OSError as error:
        raise recipe_refusal(path, f"cannot be written: {error.strerror}", "Name another file.") from error
