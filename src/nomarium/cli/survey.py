"""`nomarium survey`: look at a spreadsheet and say how it would be read."""

import datetime as dt
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources
from nomarium.cli.render import say_json
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem

if TYPE_CHECKING:
    pass

EXAMPLE = "Example: nomarium survey export.xlsx --save export.toml"


@takes_sources
def survey(
    asked: Asked,
    save: Annotated[
        str | None,
        typer.Option(
            "--save",
            metavar="FILE",
            help="Keep the reading as a recipe (.toml).",
            rich_help_panel=opt.REPORT,
        ),
    ] = None,
    ask: opt.Ask = False,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Look at a spreadsheet or a plan and say how it would be read: columns, dates, terms, every row's fate."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.building.build import build as build_calendar
    from nomarium.building.options import BuildOptions
    from nomarium.cli.keeping import keep_recipe
    from nomarium.cli.outputs import check_outputs
    from nomarium.cli.sources import calendar_name
    from nomarium.cli.surveyreport import say_survey, survey_facts

    sources = asked.named
    if not sources:
        raise UsageError(Problem("usage", "There is no SOURCE to look at.", "Name a spreadsheet."))
    if ask:
        from nomarium.cli.asking import answered

        asked = answered(asked, dt.date.today())
    reading = asked.reading(knows_days_off=True)
    check_outputs({"--save": save}, sources, asked.files_read(reading))
    skipped = asked.skipping(reading)
    called = calendar_name(sources, "-")
    dry = BuildOptions(
        None,
        called,
        called,
        "19700101T000000Z",
        last_day=asked.window()[1],
        days_off=(skipped.days_off if skipped else None) or None,
    )
    with asked.opened(reading) as found:
        report = build_calendar(found, reading, dry)
    report.problems += skipped.problems if skipped else ()
    if save and report.readings:
        keep_recipe(report.readings, reading, Path(save))
    if json:
        say_json(survey_facts(report, sources, reading, save))
    else:
        say_survey(report, sources, reading, save, details)
    raise typer.Exit(1 if report.problems else 0)
