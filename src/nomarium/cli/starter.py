"""`nomarium starter`: an empty, explained spreadsheet to fill in."""

from pathlib import Path
from typing import Annotated

import typer

from nomarium.cli.render import say
from nomarium.ical.calendar import replace_file
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem
from nomarium.reading.rows import EXAMPLE_MARK

EXAMPLE = "Example: nomarium starter events -o events.xlsx"


def starter(
    kind: Annotated[str, typer.Argument(metavar="KIND", help="What to fill in: events.", show_default=False)],
    output: Annotated[
        str,
        typer.Option(
            "--output",
            "-o",
            metavar="FILE",
            help="An .xlsx (with formats and drop-downs) or a .csv.",
            show_default=False,
        ),
    ],
) -> None:
    """Write an empty, explained spreadsheet to fill in."""
    from nomarium.sheets.starter import starter_csv, starter_workbook

    if kind != "events":
        raise UsageError(Problem("usage", f"There is no starter for “{kind}”.", "This version has: events."))
    path = Path(output)
    makers = {".xlsx": starter_workbook, ".csv": starter_csv}
    make = makers.get(path.suffix.lower())
    if make is None:
        raise UsageError(
            Problem("usage", f"{output} ends neither in .xlsx nor in .csv.", "Name one of these.")
        )
    if path.exists():
        raise UsageError(
            Problem(
                "usage",
                f"{output} is there already.",
                "Name another file, so that nothing is lost.",
            )
        )
    data = make(EXAMPLE_MARK)
    replace_file(path, lambda file: file.write(data))
    say(f"Wrote {output}: fill in one event a row, then: nomarium survey {output}")
