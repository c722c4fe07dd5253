"""`nomarium recall`: a calendar file that takes an earlier one back."""

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.panels import FIRST
from nomarium.cli.render import say, say_json, say_problems

if TYPE_CHECKING:
    from nomarium.history.recall import Recalled

EXAMPLE = "Example: nomarium recall wrong.ics -o take-back.ics"

Edited = Annotated[
    str | None,
    typer.Option(
        "--edited",
        metavar="CALENDAR",
        help="The calendar as people have it now: what is taken back is a later revision than theirs.",
        rich_help_panel=FIRST,
    ),
]


def recall(
    calendar: Annotated[
        str,
        typer.Argument(metavar="CALENDAR", help="The calendar file that people have.", show_default=False),
    ],
    output: Annotated[
        str,
        typer.Option(
            "--output",
            "-o",
            metavar="OUT",
            help="The .ics that takes it back.",
            show_default=False,
            rich_help_panel=FIRST,
        ),
    ],
    from_: Annotated[
        str | None,
        typer.Option(
            "--from",
            metavar="DATE",
            help="Take back only what is on this day or later.",
            rich_help_panel=FIRST,
        ),
    ] = None,
    edited: Edited = None,
    json: opt.Json = False,
) -> None:
    """Write a calendar file that withdraws every event of another one: opened like it, it takes the events out again."""
    from nomarium.cli.optionvalues import date_option, wrong
    from nomarium.cli.outputs import check_outputs
    from nomarium.cli.sources import opened, revised
    from nomarium.history.recall import over_revisions, recalled
    from nomarium.targets.changes import write_recall

    if Path(output).suffix.lower() != ".ics":
        raise wrong(f"-o {output} is no calendar file.", "Name it like take-back.ics.")
    check_outputs({"-o": output}, [calendar], [edited])
    first = date_option(from_, "--from") if from_ else None
    with opened([calendar]) as found, opened([edited] if edited else []) as theirs:
        for name, side in ((calendar, found), (edited, theirs)):
            if name and not side.calendars:
                raise wrong(f"{name} is no calendar file.", "Recall the calendar that was built from it.")
        taken: Recalled = recalled(found.calendars[0], first)
        if edited:
            taken = over_revisions(taken, theirs.calendars[0])
    problems = [*found.calendars[0].problems, *taken.problems]
    if not problems:
        write_recall(taken, Path(output), revised([calendar]))
    if json:
        say_json({"withdrawn": len(taken.withdrawn), "shortened": len(taken.shortened), "problems": problems})
    else:
        say_problems(problems)
        if not problems:
            for line in taken.told():
                say(line)
            say(f"Wrote {output}: opened like {calendar}, it takes back what is said above.")
    raise typer.Exit(1 if problems else 0)
