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
        str,
        typer.Argument(
            metavar="KIND",
            help="What to fill in: events, plan or timetable (a drawn week).",
            show_default=False,
        ),
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
    plan: Annotated[
        list[str] | None,
        typer.Option(
            "--plan",
            metavar="SOURCE",
            help="With timetable: a sheet for each teacher of this plan, with its labels, periods and times; -o is a folder.",
        ),
    ] = None,
) -> None:
    """Write an empty, explained spreadsheet to fill in: a list of events, the plan of a school year, or a drawn week."""
    path = Path(output)
    if kind not in ("events", "plan", "timetable"):
        raise _wrong(f"There is no starter for “{kind}”.", "There are three: events, plan and timetable.")
    if plan and kind != "timetable":
        raise _wrong(f"--plan goes with the starter timetable, not with {kind}.", "Leave it out.")
    takes_folder = kind == "plan" or bool(plan)
    if path.exists() and not (path.is_dir() and takes_folder and not any(path.iterdir())):
        raise _wrong(f"{output} is there already.", "Name another one, so that nothing is lost.")
    if kind == "events":
        _events(path, output)
        say(f"Wrote {output}: fill in one event a row, then: nomarium survey {output}")
    elif plan:
        count = _teachers(path, plan)
        sources = " ".join(plan)
        say(
            f"Wrote {count} sheets into {output}: fill them in, then: nomarium build {sources} {path}/*.xlsx --as plan -o year.ics"
        )
    elif kind == "timetable":
        _timetable(path, output)
        say(f"Wrote {output}: draw your week over the example, then: nomarium survey {output}")
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


def _timetable(path: Path, output: str) -> None:
    from nomarium.targets.replacing import replace_file
    from nomarium.targets.starters import timetable_workbook

    if path.suffix.lower() != ".xlsx":
        raise _wrong(f"{output} is no .xlsx.", "A drawn week needs a workbook: name one.")
    data = timetable_workbook()
    replace_file(path, lambda file: file.write(data))


def _teachers(path: Path, plan: list[str]) -> int:
    """Write a sheet for each teacher of a plan into a folder; gives how many."""
    from nomarium.cli.render import say_problems
    from nomarium.cli.sources import opened
    from nomarium.reading.options import ReadingOptions
    from nomarium.school.fillin import fill_in
    from nomarium.school.plan import read_plan
    from nomarium.targets.splitting import file_names
    from nomarium.targets.starters import teacher_sheet

    with opened(plan) as found:
        sheets = fill_in(read_plan(found.sheets, ReadingOptions(layout="plan")))
    if isinstance(sheets, Problem):
        say_problems([sheets])
        raise typer.Exit(1)
    path.mkdir(parents=True, exist_ok=True)
    names = file_names(sheets.teachers)
    for name in sheets.teachers:
        (path / names[name]).with_suffix(".xlsx").write_bytes(
            teacher_sheet(name, sheets.labels, sheets.lines)
        )
    return len(sheets.teachers)


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
