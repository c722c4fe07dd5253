"""What a survey says: each sheet and its columns, plans, the account, problems, the command to run next."""

import shlex
import sys
from typing import TYPE_CHECKING

from nomarium.building.report import BuildReport
from nomarium.cli.addresses import without_password
from nomarium.cli.buildreport import account_lines
from nomarium.cli.render import (
    WIDTH,
    as_json,
    markup,
    report_table,
    rest_text,
    say,
    say_notes,
    say_problems,
    shortened,
)
from nomarium.cli.sources import calendar_name
from nomarium.model.account import Account
from nomarium.model.problem import column_letter
from nomarium.model.wording import counted
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.describe import describe_column
from nomarium.reading.layouts.layout import NotRead, Reading
from nomarium.reading.options import ReadingOptions

if TYPE_CHECKING:
    from rich.console import Console


def say_survey(
    report: BuildReport, sources: list[str], options: ReadingOptions, save: str | None, details: bool
) -> None:
    """Say as text how the sources are read and what to do next."""
    from rich.console import Console

    width = None if sys.stdout.isatty() else WIDTH
    console = Console(width=width, highlight=False, emoji=False)
    titled = [account for account in report.accounts if account.title]
    accounts = {account.title: account for account in titled}
    for plan in report.plans:
        from nomarium.cli.plansurvey import print_plan

        print_plan(console, plan, details)
    for reading in report.readings:
        _print_sheet(console, reading, accounts.get(reading.sheet.title), details)
    for unread in report.unread:
        _print_unread(console, unread, accounts.get(unread.sheet.title))
    read_as_tables = {one.sheet.title for one in report.readings} | {one.sheet.title for one in report.unread}
    for account in titled if not report.plans else ():
        if account.title not in read_as_tables:
            say(f"{account.title}: a calendar file")
            say(f"{account.ledger}")
            if report.spread.repeating:
                dates = counted(report.spread.dated, "date")
                say(f"{report.spread.repeating:,} of them repeat, on {dates}")
            say()
    for passed in report.passed_over:
        say(f"Passed over: {passed.sheet.title}: {passed.reason}.")
    sys.stdout.flush()
    of_drawings = {one for reading in report.readings if reading.table is None for one in reading.notes}
    say_notes([n for n in report.notes if n.code not in _IN_TABLES or n in of_drawings], details=details)
    if report.problems:
        say()
        say_problems(report.problems, sys.stdout)
        say()
    if report.plans:
        for line in account_lines(report, details):
            say(line)
    if len(titled) != 1:
        say(f"Together: {report.ledger}")
    if save:
        say(f"Kept this reading in {save}")
    say(f"Next: {next_command(report, sources, options, save)}")


_IN_TABLES = ("date-order", "column-guessed", "column-unused", "table-found")
"""Notes that say what a survey's tables show."""


def _print_sheet(console: "Console", reading: Reading, account: Account | None, details: bool) -> None:

    console.print(f"[bold]{markup(reading.sheet.title)}[/bold]")
    console.print(markup(_whereabouts(reading)))
    if reading.table:
        table = report_table()
        for heading in ("", "Heading", "Field", "How it is read", "Samples", "Blank"):
            table.add_column(heading, justify="right" if heading == "Blank" else "left")
        shown = [column for column in reading.table.columns if column.heading or column.filled]
        first, rest = shortened(sorted(shown, key=lambda column: column.is_ignored), details)
        for column in sorted(first, key=lambda column: column.at):
            table.add_row(*(markup(text) for text in _column_cells(reading, column)),
                          style="dim" if column.is_ignored else None)  # fmt: skip
        console.print(table)
        if rest:
            console.print(rest_text(rest, "column"))
    if account:
        console.print(markup(str(account.ledger)))
        for row, text in account.note_rows[:5]:
            console.print(markup(f"  note in row {row}: {text[:70]}"), style="dim")
    console.print()


def _print_unread(console: "Console", unread: NotRead, account: Account | None) -> None:
    """A sheet that is refused: its columns, and what each could be."""

    console.print(f"[bold]{markup(unread.sheet.title)}[/bold]")
    console.print(markup(f"not read: {unread.reason}"))
    table = report_table()
    for heading in ("", "Heading", "Taken for", "Holds", "Could be", "Samples"):
        table.add_column(heading)
    for facts in _unread_columns(unread):
        cells = (
            facts["column"],
            facts["heading"],
            facts["field"] or "—",
            facts["holds"],
            facts["could_be"],
            facts["samples"],
        )
        table.add_row(*(markup(_shown(cell)) for cell in cells))
    if unread.columns:
        console.print(table)
    if account:
        console.print(markup(str(account.ledger)))
    console.print()


def _shown(cell: object) -> str:
    return ", ".join(map(str, cell)) if isinstance(cell, list) else str(cell)


def _unread_columns(unread: NotRead) -> list[dict[str, object]]:
    from nomarium.reading.cells.words import ENGLISH
    from nomarium.reading.columns.candidates import candidate

    facts: list[dict[str, object]] = []
    for column in unread.columns:
        if not column.heading and not column.filled:
            continue
        holds, fields = candidate(column, ENGLISH)
        letter = column_letter(column.at + unread.sheet.first_column)
        facts.append({
            "column": letter, "heading": column.heading, "field": column.field or None, "holds": holds,
            "could_be": [] if column.field else list(fields), "samples": list(column.samples),
        })  # fmt: skip
    return facts


def _column_cells(reading: Reading, column: Column) -> list[str]:
    assert reading.table
    letter = column_letter(column.at + reading.sheet.first_column)
    field = column.field or "—"
    samples = " | ".join(sample if len(sample) <= 24 else sample[:23] + "…" for sample in column.samples)
    how = describe_column(column, reading.table.decisions, _keeps_extra(reading))
    return [
        letter,
        column.heading,
        field,
        how,
        samples.replace("\n", " ⏎ "),
        str(column.blank or ""),
    ]


def _whereabouts(reading: Reading) -> str:
    if reading.table is None:
        return f"drawn as a {'day sheet' if reading.layout == 'day' else reading.layout}"
    head = reading.table.head
    if reading.layout == "text":
        return "read line by line"
    if not head.header_rows:
        return f"no headings; data from row {head.first_row} on"
    rows = " and ".join(map(str, head.header_rows))
    return f"headings in row {rows}; data from row {head.first_row} on"


_TO_CHOOSE = {
    "date-ambiguous": ("--date-order", "dmy or mdy"),
    "date-orders-differ": ("--date-order", "dmy or mdy"),
    "date-no-year": ("--school-year", "FIRST:LAST, the years of the dates"),
    "day-one-missing": ("--day-one", "the date of the first day of week 1"),
    "clock-open": ("--clock", "12 or 24"),
    "dates-swapped": ("--swapped", "yes or no"),
    "spans-open": ("--spans", "daily or whole"),
}
"""By the code of a problem: the option that settles it, and what may stand there."""


def next_command(report: BuildReport, sources: list[str], options: ReadingOptions, save: str | None) -> str:
    """The build command that follows from a survey; where a person must choose, what from; where a cell must be mended
    first, that."""
    target = f"{calendar_name(sources, '-')}.ics"
    target = f"new-{target}" if target in sources else target
    words = ["nomarium", "build", *map(without_password, sources), "-o", target]
    if save:
        words += ["--recipe", save]
    else:
        words += _said_again(options)
    for option, day in (("--from", options.repeats_from), ("--until", options.repeats_until)):
        words += [option, str(day)] if day else []
    codes = {problem.code for problem in report.problems}
    if others := codes - _TO_CHOOSE.keys():
        count = sum(problem.code in others for problem in report.problems)
        return f"mend {'the problem' if count == 1 else 'the problems'} above, and survey again."
    choices = dict(_TO_CHOOSE[problem.code] for problem in report.problems)
    line = shlex.join(words)
    for option in choices:
        line += f" {option} …"
    return line + (f"    (… is {'; '.join(choices.values())})" if choices else "")


def _said_again(options: ReadingOptions) -> list[str]:
    words: list[str] = []
    for name in options.sheets:
        words += ["--sheet", name]
    for heading, field in options.columns.items():
        words += ["--column", f"{heading}={field}"]
    for field, value in options.defaults.items():
        words += ["--set", f"{field}={value}"]
    if options.zone:
        words += ["--timezone", options.zone]
    if options.date_order:
        words += ["--date-order", options.date_order]
    if options.school_year:
        words += ["--school-year", ":".join(map(str, options.school_year))]
    for code in options.languages:
        words += ["--language", code]
    if options.default_length_secs:
        words += ["--default-length", f"{options.default_length_secs // 60} min"]
    for heading in options.fill_down:
        words += ["--fill-down", heading]
    if options.day_one:
        words += ["--day-one", str(options.day_one)]
    if options.layout:
        words += ["--as", options.layout]
    for option, value in (
        ("--clock", options.clock), ("--spans", options.spans), ("--hidden-rows", options.hidden_rows), ("--swapped", options.swapped),
        ("--title", options.title),
    ):  # fmt: skip
        words += [option, value] if value else []
    for option, pairs in (
        ("--set-code", options.codes.items()), ("--weekdays", options.weekdays.items()), ("--table", options.tables.items()), ("--only", options.only), ("--leave-out", options.dropped),
        ("--override", options.overrides.items()), ("--rename", options.renamed.items()),
    ):  # fmt: skip
        words += [word for left, right in pairs for word in (option, f"{left}={right}")]
    for option, files in (
        ("--people", options.people),
        ("--places", options.places),
        ("--terms", options.terms),
    ):
        words += [word for file in files for word in (option, file)]
    return [*words, "--keep-extra"] if options.keep_extra else words


def survey_facts(
    report: BuildReport, sources: list[str], options: ReadingOptions, save: str | None
) -> dict[str, object]:
    """The same facts for a machine."""
    titled = [account for account in report.accounts if account.title]
    accounts = {account.title: account for account in titled}
    plans: list[dict[str, object]] = []
    for plan in report.plans:
        from nomarium.cli.plansurvey import plan_facts

        plans.append(plan_facts(plan))
    return {
        "plans": plans,
        "sheets": [_sheet_facts(reading, accounts.get(reading.sheet.title)) for reading in report.readings],
        "unread": [
            {"sheet": one.sheet.title, "reason": one.reason, "columns": _unread_columns(one)}
            for one in report.unread
        ],
        "passed_over": [{"sheet": p.sheet.title, "reason": p.reason} for p in report.passed_over],
        "ledger": report.ledger.as_dict(),
        "problems": as_json(report.problems),
        "notes": as_json(report.notes),
        "recipe": save,
        "next": next_command(report, sources, options, save),
    }


def _sheet_facts(reading: Reading, account: Account | None) -> dict[str, object]:
    table = reading.table
    facts: dict[str, object] = {
        "file": reading.sheet.file,
        "sheet": reading.sheet.name,
        "layout": reading.layout,
    }
    if table:
        facts["header_rows"] = list(table.head.header_rows)
        facts["first_row"] = table.head.first_row
        facts["date_order"] = table.decisions.order or None
        facts["columns"] = [
            {
                "column": column_letter(c.at + reading.sheet.first_column), "heading": c.heading,
                "field": c.field or None, "found": c.how or None, "evidence": c.evidence,
                "how": describe_column(c, table.decisions, _keeps_extra(reading)),
                "samples": list(c.samples), "filled": c.filled, "blank": c.blank,
            }
            for c in table.columns
        ]  # fmt: skip
    if account:
        facts["ledger"] = account.ledger.as_dict()
        facts["note_rows"] = [{"row": row, "text": text} for row, text in account.note_rows]
    return facts


def _keeps_extra(reading: Reading) -> bool:
    """Whether columns without a field go into the description."""
    return reading.table is not None and reading.table.options.keep_extra
