"""`nomarium starter`: an empty, explained spreadsheet to fill in."""

from pathlib import Path
from typing import Annotated

import typer

from nomarium.cli.render import say
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem

EXAMPLE = "Example: nomarium starter plan -o year.xlsx"


def starter(
    kind: Annotated[
        str, typer.Argument(metavar="KIND", help="What to fill in: events or plan.", show_default=False)
    ],
    output: Annotated[
        str,
        typer.Option(
            "--output",
            "-o",
            metavar="FILE",
            help="An .xlsx (with formats and drop-downs); for events a .csv, for a plan a folder of them.",
            show_default=False,
        ),
    ],
) -> None:
    """Write an empty, explained spreadsheet to fill in: a list of events, or the plan of a school year."""
    path = Path(output)
    if kind not in ("events", "plan"):
        raise _wrong(f"There is no starter for “{kind}”.", "There are two: events and plan.")
    if path.exists() and not (path.is_dir() and kind == "plan" and not any(path.iterdir())):
        raise _wrong(f"{output} is there already.", "Name another one, so that nothing is lost.")
    if kind == "events":
        _events(path, output)
        say(f"Wrote {output}: fill in one event a row, then: nomarium survey {output}")
    else:
        _plan(path, output)
        say(f"Wrote {output}: write your year over the example, then: nomarium survey {output}")


def _events(path: Path, output: str) -> None:
    from nomarium.reading.rows.reader import EXAMPLE_MARK
    from nomarium.targets.replacing import replace_file
    from nomarium.targets.starters import starter_csv, starter_workbook

    make = {".xlsx": starter_workbook, ".csv": starter_csv}.get(path.suffix.lower())
    if make is None:
        raise _wrong(f"{output} ends neither in .xlsx nor in .csv.", "Name one of these.")
    data = make(EXAMPLE_MARK)
    replace_file(path, lambda file: file.write(data))


def _plan(path: Path, output: str) -> None:
    from nomarium.targets.replacing import replace_file
    from nomarium.targets.starters import plan_files, plan_workbook

    if path.suffix.lower() == ".xlsx":
        data = plan_workbook()
        replace_file(path, lambda file: file.write(data))
        return
    if path.suffix:
        raise _wrong(f"{output} is neither an .xlsx nor a folder.", "Name one of these.")
    path.mkdir(parents=True, exist_ok=True)
    for name, data in plan_files():
        (path / name).write_bytes(data)


def _wrong(message: str, remedy: str) -> UsageError:
    return UsageError(Problem("usage", message, remedy))
