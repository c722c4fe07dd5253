"""`nomarium free`: when everybody is free."""

import datetime as dt
from typing import Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli import viewoptions as look
from nomarium.cli.asked import FOLLOWED, Asked, takes_sources
from nomarium.cli.panels import FIRST

EXAMPLE = 'Example: nomarium free year.xlsx --length 45m --who "R. Finch" --who "M. Quill"'

Length = Annotated[
    str,
    typer.Option("--length", metavar="LENGTH", help="How long all must be free.", show_default=False, rich_help_panel=FIRST),
]  # fmt: skip
Who = Annotated[
    list[str] | None,
    typer.Option("--who", metavar="NAME", help="A teacher, room, class, group or guest who must be free; everybody when nobody is named. May be repeated.", rich_help_panel=FIRST),
]  # fmt: skip
Between = Annotated[
    str | None,
    typer.Option("--between", metavar="TIMES", help="The hours of the day, such as 8:00-16:00.", rich_help_panel=FIRST),
]  # fmt: skip
EveryLabel = Annotated[
    bool,
    typer.Option("--every-label", help="Periods whatever the label of the day.", rich_help_panel=FIRST),
]  # fmt: skip
Output = Annotated[
    str | None,
    typer.Option("--output", "-o", metavar="OUT", help="Free times as .ics (VFREEBUSY), .csv, or drawn by weeks: .png, .svg, .pdf.", show_default=False, rich_help_panel=FIRST),
]  # fmt: skip


@takes_sources
def free(
    length: Length,
    asked: Asked,
    who: Who = None,
    between: Between = None,
    days: look.Days = None,
    every_label: EveryLabel = False,
    output: Output = None,
    paper: look.Paper = "a4",
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Find when everybody is free: by date, and by label and period of the cycle, best first."""
    from nomarium.cli.freetimes import Looking, found, show

    looking = Looking(
        length, tuple(who or ()), between, days, every_label, output, paper, asked.until is not None
    )
    horizon = dt.date.today() + FOLLOWED
    raise typer.Exit(show(found(asked, looking, horizon), looking, details, json))
