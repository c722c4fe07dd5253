"""`nomarium compare`: what has become of a calendar between two states."""

import datetime as dt
from collections import Counter
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import FOLLOWED, Asked, takes_sources
from nomarium.cli.panels import FIRST
from nomarium.cli.render import rest_text, say, say_json, say_problems, shortened

if TYPE_CHECKING:
    from nomarium.history.differences import Dated, Differences
    from nomarium.model.problem import Problem
    from nomarium.reading.options import ReadingOptions

EXAMPLE = "Example: nomarium compare last-week.ics year.xlsx -o changes.html"
_ENDINGS = (".csv", ".xlsx", ".html", ".ics")


@takes_sources
def compare(
    asked: Asked,
    old: Annotated[
        str, typer.Argument(metavar="OLD", help="What it was: anything that build reads.", show_default=False)
    ],
    new: Annotated[str, typer.Argument(metavar="NEW", help="What it is now.", show_default=False)],
    output: Annotated[
        str | None,
        typer.Option(
            "--output",
            "-o",
            metavar="FILE",
            help="For those who must be told: .html, .csv, .xlsx; .ics holds only what is new, changed or gone.",
            rich_help_panel=FIRST,
        ),
    ] = None,
    expect_same: Annotated[
        bool,
        typer.Option("--expect-same", help="End with exit status 1 when they differ.", rich_help_panel=FIRST),
    ] = False,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Say what was added, removed, moved and changed between two states of a calendar, whatever each of them is in."""
    from nomarium.cli.outputs import check_outputs
    from nomarium.cli.sources import revised
    from nomarium.history.differences import differences

    _check_target(output)
    reading = asked.reading()
    if reading.repeats_until is None:
        reading = reading._replace(horizon=dt.date.today() + FOLLOWED)
    check_outputs({"-o": output}, [old, new], asked.files_read(reading))
    (before, wrong), (after, more) = (_side(asked, source, reading) for source in (old, new))
    problems = [*wrong, *more]
    found = differences(before, after)
    if output and not problems:
        _keep(found, Path(output), f"{Path(old).name} → {Path(new).name}", revised([old, new]))
    if json:
        say_json({**_facts(found), "problems": problems})
    else:
        say_problems(problems)
        _print(found, output if not problems else None, details)
    raise typer.Exit(1 if problems or (expect_same and found.listed) else 0)


def _check_target(output: str | None) -> None:
    from nomarium.cli.optionvalues import wrong

    if output and Path(output).suffix.lower() not in _ENDINGS:
        raise wrong(f"{output} does not say by its ending what it is to be.", f"Use {', '.join(_ENDINGS)}.")


def _side(asked: Asked, source: str, reading: "ReadingOptions") -> "tuple[list[Dated], list[Problem]]":
    """The events of one side, and what is wrong with it."""
    from nomarium.cli.progress import counting
    from nomarium.history.differences import dated_in

    with asked.but(sources=[source]).taken(reading) as taken, counting("Comparing") as progress:
        found = list(dated_in(taken.sources.listed, taken.window, reading.zone, reading.horizon, progress))
        return found, taken.problems()


def _facts(found: "Differences") -> dict[str, object]:
    from nomarium.history.letter import as_facts

    facts: dict[str, object] = {}
    for what in ("added", "removed", "moved", "changed"):
        here = [one for one in found.listed if one.what == what]
        if what in ("added", "removed"):
            facts[what] = [as_facts(one.shown) for one in here]
        else:
            facts[what] = [
                {"from": as_facts(one.old), "to": as_facts(one.new), "fields": list(one.fields)}
                for one in here
                if one.old and one.new
            ]
    return {**facts, "unchanged": found.unchanged}


def _print(found: "Differences", output: str | None, details: bool) -> None:
    from nomarium.history.letter import day_text, letter

    lines = [(day, line) for day, sentences in letter(found.listed) for line in sentences]
    shown, rest = shortened(lines, details)
    for day, line in shown:
        say(f"{day_text(day)}: {line}")
    if rest:
        say(rest_text(rest, "difference"))
    if found.loose_count:
        say(
            f"note: {found.loose_count:,} events float on one side and have a zone on the other: the same time of the clock is the same."
        )
    counts = Counter(one.what for one in found.listed)
    said = [f"{counts[what]:,} {what}" for what in ("added", "removed", "moved", "changed") if counts[what]]
    say(f"{', '.join(said) or 'No difference'}; {found.unchanged:,} unchanged.")
    if output:
        say(f"Kept in {output}")


def _keep(found: "Differences", path: Path, heading: str, dtstamp: str) -> None:
    from nomarium.targets.replacing import replace_file

    ending = path.suffix.lower()
    if ending in (".csv", ".xlsx"):
        from nomarium.history.letter import rows_of
        from nomarium.targets.workbooks import write_rows

        replace_file(path, lambda file: write_rows(rows_of(found.listed), ending[1:], "Changes", file))
    elif ending == ".html":
        from nomarium.history.letter import day_text, letter
        from nomarium.pictures.page.page import letter_text

        days = [(day.isoformat(), day_text(day), sentences) for day, sentences in letter(found.listed)]
        text = letter_text(heading, days)
        replace_file(path, lambda file: file.write(text.encode("utf-8", "replace")))
    else:
        from nomarium.targets.changes import write_changes

        write_changes(found.listed, path, dtstamp)
