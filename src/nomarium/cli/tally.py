"""`nomarium tally`: how many meetings and hours everybody gets."""

import os
import sys
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources
from nomarium.cli.render import (
    WIDTH,
    markup,
    report_table,
    rest_text,
    say,
    say_json,
    say_notes,
    say_problems,
    shortened,
)
from nomarium.model import wording
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem

if TYPE_CHECKING:
    from rich.table import Table

    from nomarium.school.tally import Tally

_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
EXAMPLE = "Example: nomarium tally year.xlsx --per term -o tally.png"


@takes_sources
def tally(
    asked: Asked,
    by: Annotated[
        str,
        typer.Option(
            "--by",
            metavar="FIELD",
            help="class, teacher, room, group, label, division, category, or any other field: the title, say.",
        ),
    ] = "class",
    per: Annotated[str, typer.Option("--per", metavar="month|term", help="What the columns are.")] = "month",
    output: Annotated[
        str | None,
        typer.Option(
            "--output",
            "-o",
            metavar="FILE",
            help="Keep it: .csv or .xlsx a table, .png, .svg or .pdf a chart.",
        ),
    ] = None,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Count meetings, periods and hours for each class, teacher, room or label, by month or term."""
    from nomarium.cli.outputs import check_outputs
    from nomarium.school.tally import tally_of
    from nomarium.sources.dated import dated_events

    kind, span = _kind_and_span(by, per)
    _check_target(output)
    reading = asked.reading()
    check_outputs({"-o": output}, asked.named, asked.files_read(reading))
    with asked.taken(reading) as taken:
        plan = taken.sources.plans[0] if taken.sources.plans else None
        events = dated_events(taken.sources.taught, taken.window, reading.zone)
        counted = tally_of(events, kind, span, plan, taken.sources.terms)
    problems = taken.problems()
    if output and not problems:
        _keep(counted, Path(output))
    notes = [
        *(one for one in taken.notes() if one.code == "crossed-out"),
        *(one for one in (plan.notes if plan else ()) if one.code not in ("bells-forward", "crossed-out")),
    ]
    if json:
        say_json({**counted._asdict(), "problems": problems, "notes": notes})
    else:
        _print(counted, notes, problems, output, details)
    raise typer.Exit(1 if problems else 0)


def _kind_and_span(by: str, per: str) -> tuple[str, str]:
    """What is counted, and what the columns are."""
    from nomarium.model.values import VALUE_FIELDS
    from nomarium.school.tally import SPANS

    names = {**{field: field for field in VALUE_FIELDS}, "category": "categories", "title": "summary"}
    asked, per = by.casefold(), per.casefold()
    kind = names.get(asked) or names.get(asked.removesuffix("s"))
    if kind is None or per not in SPANS:
        what = f"--by {by}" if kind is None else f"--per {per}"
        remedy = f"Use --by {', '.join(VALUE_FIELDS)}; --per {', '.join(SPANS)}."
        raise UsageError(Problem("usage", f"{what} is nothing to count by.", remedy))
    return kind, per


def _check_target(output: str | None) -> None:
    if output and Path(output).suffix.lower() not in (".csv", ".xlsx", ".png", ".svg", ".pdf"):
        raise UsageError(
            Problem(
                "usage",
                f"{output} does not say by its ending what it is to be.",
                "Use .csv, .xlsx, .png, .svg or .pdf.",
            )
        )


def _print(
    counted: "Tally", notes: list[Problem], problems: list[Problem], output: str | None, details: bool
) -> None:  # fmt: skip
    from rich.console import Console

    from nomarium.school.tally import table_of

    console = Console(width=None if sys.stdout.isatty() else WIDTH, highlight=False, emoji=False)
    if problems:
        say_problems(problems)
    say_notes(notes, details=details)
    rows = table_of(counted)
    has_lost = any(line.not_met for line in counted.lines)
    has_uneven = any(line.is_uneven for line in counted.lines)
    keep = [
        n
        for n, head in enumerate(rows[0])
        if (head != "Not met" or has_lost) and (head != "Uneven" or has_uneven)
    ]
    table = report_table(0)
    heads = [str(rows[0][0]), *_span_heads(counted), *map(str, rows[0][1 + len(counted.spans) :])]
    for n in keep:
        table.add_column(markup(heads[n]), justify="left" if n == 0 or rows[0][n] == "Uneven" else "right")
    shown, rest = shortened(rows[1:], details)
    for row in shown:
        table.add_row(*(markup(f"{row[n]:,.1f}" if isinstance(row[n], float) else str(row[n])) for n in keep),
                      style="yellow" if row[-1] else None)  # fmt: skip
    console.print(table)
    if rest:
        say(rest_text(rest, "line"))
    if counted.labels and counted.kind != "label":
        if details:
            console.print("\nHow often each label falls:")
            console.print(_labels_table(counted))
        else:
            labels = [f"{label} {sum(counts.values())}" for label, counts in counted.labels.items()]
            of = f" of {sum(counted.school_days.values()):,} school days" if counted.school_days else ""
            console.print(markup(f"Days of each label: {', '.join(shortened(labels, details)[0])}{of}"))
    if counted.uncounted:
        has, are = ("has", "is") if counted.uncounted == 1 else ("have", "are")
        events = wording.counted(counted.uncounted, "timed event")
        say(f"{events} {has} no {counted.kind} and {are} not counted.")
    if has_uneven:
        say("uneven: at least two periods fewer than another class with as many in a cycle.")
    if problems:
        say(
            f"{wording.counted(len(problems), 'problem')}: what could be read was counted.",
            sys.stderr,
        )
    elif output:
        say(f"Kept in {output}")


def _span_heads(counted: "Tally") -> list[str]:
    """What stands above the columns: terms; months by their names, with the year above its first."""
    if counted.span != "month":
        return [span or "no term" for span in counted.spans]
    heads, latest = [], ""
    for span in counted.spans:
        year, _, month = span.partition("-")
        heads.append(f"{year if year != latest else ''}\n{_MONTHS[int(month) - 1]}")
        latest = year
    return heads


def _labels_table(counted: "Tally") -> "Table":
    table = report_table(0)
    spans = list(counted.spans)
    for head in ("Label", *_span_heads(counted), "Days"):
        table.add_column(markup(head), justify="left" if head == "Label" else "right")
    for label, counts in counted.labels.items():
        table.add_row(markup(label), *(str(counts.get(span, 0)) for span in spans), str(sum(counts.values())))
    if counted.school_days:
        table.add_row(
            "school days",
            *(str(counted.school_days.get(span, 0)) for span in spans),
            str(sum(counted.school_days.values())),
            style="dim",
        )
    return table


def _keep(counted: "Tally", path: Path) -> None:
    from nomarium.targets.replacing import replace_file

    ending = path.suffix.lower()
    if ending in (".csv", ".xlsx"):
        from nomarium.school.tally import table_of
        from nomarium.targets.workbooks import write_rows

        replace_file(path, lambda file: write_rows(table_of(counted), ending[1:], "Tally", file))
        return
    os.environ["MPLBACKEND"] = "agg"  # nothing is shown, and a setting that makes no sense ends the import
    from nomarium.pictures.tallychart import draw_tally

    replace_file(path, lambda file: draw_tally(counted, ending[1:], file))
