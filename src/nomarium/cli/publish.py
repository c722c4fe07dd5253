"""`nomarium publish`: a build on a calendar server, changing only what changed."""

import datetime as dt
import time
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import eventoptions as event
from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources
from nomarium.cli.panels import AGAIN, FIRST, SERVER

if TYPE_CHECKING:
    from nomarium.cli.publishing import Target

EXAMPLE = "Example: nomarium publish year.xlsx --to https://calendar.school.example/ --calendar School --user office"

To = Annotated[
    str,
    typer.Option("--to", metavar="URL", help="The calendar, or its server with --calendar.", show_default=False, rich_help_panel=FIRST),
]  # fmt: skip
Calendar = Annotated[
    str | None,
    typer.Option("--calendar", metavar="NAME", help="The calendar of this name on the server; made where there is none.", rich_help_panel=SERVER),
]  # fmt: skip
User = Annotated[
    str | None,
    typer.Option("--user", metavar="NAME", help="Whose calendar it is; the password comes from NOMARIUM_PASSWORD, the keyring, or is asked for.", rich_help_panel=SERVER),
]  # fmt: skip
CaFile = Annotated[
    str | None,
    typer.Option("--ca-file", metavar="FILE", help="Certificates (PEM) that are trusted.", rich_help_panel=SERVER),
]  # fmt: skip
Parallel = Annotated[
    int,
    typer.Option("--parallel", metavar="N", min=1, max=32, help="So many requests at once.", rich_help_panel=SERVER),
]  # fmt: skip
AsPart = Annotated[
    str | None,
    typer.Option("--as-part", metavar="NAME", help="The set that these sources are: another set's events in the same calendar stay. The calendar's name when not given.", rich_help_panel=SERVER),
]  # fmt: skip
Withdraw = Annotated[
    bool,
    typer.Option("--withdraw", help="Take back all that was published there; with --from only what is on that day or later.", rich_help_panel=AGAIN),
]  # fmt: skip
Invite = Annotated[
    bool,
    typer.Option("--invite", help="Let the server write to the guests; without it nobody is written to.", rich_help_panel=SERVER),
]  # fmt: skip


@takes_sources
def publish(
    to: To,
    asked: Asked,
    calendar: Calendar = None,
    user: User = None,
    ca_file: CaFile = None,
    parallel: Parallel = 8,
    as_part: AsPart = None,
    prefer: opt.Prefer = None,
    withdraw: Withdraw = False,
    invite: Invite = False,
    repeats: event.Repeats = "dated",
    show_holidays: event.ShowHolidays = False,
    reminder: event.Reminder = None,
    expect: event.Expect = None,
    name: opt.Name = None,
    dry_run: opt.DryRun = False,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Put what the sources hold on a calendar server (CalDAV), sending only what has changed; what people changed there stays."""
    from nomarium.cli import publishing
    from nomarium.exchange.discovery import check_address
    from nomarium.exchange.session import Waiting

    check_address(to)
    publishing.check_prefer(prefer)
    waiting = Waiting(time.sleep, lambda: dt.datetime.now(dt.UTC))
    target: Target = publishing.Target(
        to,
        calendar,
        as_part,
        prefer or "",
        parallel,
        ca_file and str(Path(ca_file)),
        invite,
        dry_run,
        waiting,
    )
    if withdraw:
        done = publishing.withdrawn(target, asked, user, name, json, details)
    else:
        build = publishing.Build(repeats, show_holidays, reminder, expect, name)
        done = publishing.published(target, asked, build, user, json, details)
    raise typer.Exit(0 if done else 1)
