"""`nomarium survey`: look at a spreadsheet and say how it would be read."""

import datetime as dt
from typing import Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources
from nomarium.cli.render import say_json
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem

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
    from nomarium.cli.keeping import surveyed
    from nomarium.cli.outputs import check_outputs
    from nomarium.cli.surveyreport import say_survey, survey_facts

    sources = asked.named
    if not sources:
        raise UsageError(Problem("usage", "There is no SOURCE to look at.", "Name a spreadsheet."))
    if ask:
        from nomarium.cli.asking import answered

        asked = answered(asked, dt.date.today())
    reading = asked.reading(knows_days_off=True)
    check_outputs({"--save": save}, sources, asked.files_read(reading))
    report, unkept = surveyed(asked, reading, save)
    if unkept is not None:
        save = None
        report.notes.append(unkept)
    if json:
        say_json(survey_facts(report, sources, reading, save))
    else:
        say_survey(report, sources, reading, save, details)
    raise typer.Exit(1 if report.problems else 0)
