"""`nomarium view`: a calendar that one can see, before others do."""

import datetime as dt

import typer

from nomarium.cli import options as opt
from nomarium.cli import viewoptions as look
from nomarium.cli.asked import Asked, takes_sources

EXAMPLE = "Example: nomarium view year.xlsx --as month --from 2026-11-01"


@takes_sources
def view(
    asked: Asked,
    kinds: look.AsViewOrLayout = None,
    output: look.Output = None,
    color_by: look.ColorBy = None,
    days: look.Days = None,
    hours: look.Hours = None,
    heading: look.Heading = None,
    paper: look.Paper = "a4",
    split_by: opt.SplitBy = None,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """See a calendar before others do: an agenda, a week, a month or a year, here, as a picture or as a page."""
    from nomarium.cli.viewing import seen, show_it

    looking, layout = look.looking(kinds, output, color_by, days, hours, heading, paper, split_by)
    asked = asked.but(layout=layout)
    found = seen(asked, looking, dt.date.today())
    raise typer.Exit(show_it(found, looking, details, json))
