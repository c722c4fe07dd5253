"""`nomarium build`: spreadsheets into calendar files."""

import os
import sys
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.progress import counting
from nomarium.cli.sources import calendar_name, opened, revised
from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet
from nomarium.sources.daysoff import skipping

if TYPE_CHECKING:
    from nomarium.building.report import BuildOptions

EXAMPLE = "Example: nomarium build events.csv -o events.ics --timezone America/Halifax"


def build(
    output: Annotated[
        str,
        typer.Option(
            "--output",
            "-o",
            metavar="PATH",
            help="The calendar file (.ics, or .json for jCal); a table (.csv, .xlsx); a folder with --split-by; - for standard output.",
            show_default=False,
            rich_help_panel=opt.WRITING,
        ),
    ],
    sources: opt.Sources = None,
    sheet: opt.Sheets = None,
    layout: opt.As = None,
    column: opt.Columns = None,
    set_: opt.Sets = None,
    recipe: opt.Recipe = None,
    keep_extra: opt.KeepExtra = False,
    timezone: opt.Timezone = None,
    date_order: opt.DateOrder = None,
    school_year: opt.SchoolYear = None,
    language: opt.Languages = None,
    default_length: opt.DefaultLength = None,
    fill_down: opt.FillDown = None,
    day_one: opt.DayOne = None,
    from_: opt.From = None,
    until: opt.Until = None,
    repeats: Annotated[
        str,
        typer.Option(
            "--repeats",
            metavar="dated|rule",
            help="Expand repeats into dated events, or keep a rule with its exceptions where a rule can say it.",
            rich_help_panel=opt.EVENTS,
        ),
    ] = "dated",
    days_off: opt.DaysOffFiles = None,
    public_holidays: opt.PublicHolidayCodes = None,
    show_holidays: Annotated[
        bool,
        typer.Option(
            "--show-holidays",
            help="Add the public holidays as all-day events, too.",
            rich_help_panel=opt.EVENTS,
        ),
    ] = False,
    merge_duplicates: Annotated[
        bool,
        typer.Option(
            "--merge-duplicates",
            help="Write events that say the same, under whatever UIDs, once.",
            rich_help_panel=opt.EVENTS,
        ),
    ] = False,
    reminder: Annotated[
        str | None,
        typer.Option(
            "--reminder",
            metavar="LENGTH",
            help="A display alarm this long before each event that has none.",
            rich_help_panel=opt.EVENTS,
        ),
    ] = None,
    expect: Annotated[
        int | None,
        typer.Option(
            "--expect",
            metavar="N",
            min=0,
            help="Fail if the number of events is not N.",
            rich_help_panel=opt.EVENTS,
        ),
    ] = None,
    split_by: Annotated[
        str | None,
        typer.Option(
            "--split-by",
            metavar="FIELD",
            help="One file a value of this field: audience, categories, teacher, class, room …",
            rich_help_panel=opt.WRITING,
        ),
    ] = None,
    name: Annotated[
        str | None,
        typer.Option(
            "--name",
            metavar="TEXT",
            help="The calendar's name; the source's file name when not given.",
            rich_help_panel=opt.WRITING,
        ),
    ] = None,
    color: Annotated[
        str | None,
        typer.Option(
            "--color",
            metavar="NAME",
            help="The calendar's colour, a CSS name such as teal.",
            rich_help_panel=opt.WRITING,
        ),
    ] = None,
    partial: Annotated[
        bool,
        typer.Option(
            "--partial",
            help="Write what could be read although some rows were rejected; the exit status stays 1.",
            rich_help_panel=opt.WRITING,
        ),
    ] = False,
    rejects: Annotated[
        str | None,
        typer.Option(
            "--rejects",
            metavar="FILE",
            help="Put rejected rows, as they stood plus the reason, in this .csv or .xlsx: mend it and build it.",
            rich_help_panel=opt.WRITING,
        ),
    ] = None,
    afresh: Annotated[
        bool,
        typer.Option(
            "--afresh",
            help="Do not carry over UIDs from an output that is already there.",
            rich_help_panel=opt.WRITING,
        ),
    ] = False,
    cancel_removed: Annotated[
        bool,
        typer.Option(
            "--cancel-removed",
            help="Keep events that the output had and the source no longer has, as cancelled.",
            rich_help_panel=opt.WRITING,
        ),
    ] = False,
    workers: Annotated[
        int | None,
        typer.Option(
            "--workers",
            metavar="N",
            min=1,
            help="Write the meetings of a plan in this many processes. When not given: as many as there are processors, for plans with many thousand meetings. The files are the same.",
            show_default=False,
            rich_help_panel=opt.WRITING,
        ),
    ] = None,
    dry_run: Annotated[
        bool,
        typer.Option("--dry-run", help="Do everything but the writing.", rich_help_panel=opt.WRITING),
    ] = False,
    json: opt.Json = False,
) -> None:
    """Turn spreadsheets, a plan or calendar files into a calendar; refuse, naming the cell, what cannot be read."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.building.build import build as build_calendar
    from nomarium.building.report import BuildOptions, BuildReport
    from nomarium.cli.buildreport import say_build

    sources = sources or []
    first, last = opt.window_options(from_, until)
    reading = opt.reading_options(
        sheet=sheet, layout=layout, column=column, set_=set_, keep_extra=keep_extra, timezone=timezone,
        date_order=date_order, school_year=school_year, language=language, default_length=default_length,
        fill_down=fill_down, day_one=day_one, until=last, knows_days_off=bool(days_off or public_holidays),
    )  # fmt: skip
    if recipe:
        from nomarium.sources.recipe import with_recipe

        reading = with_recipe(reading, Path(recipe))
    called = name or calendar_name(sources, output)
    how = BuildOptions(
        output=None if dry_run else _target(output, split_by),
        calendar_name=called,
        identity_name=called,
        dtstamp=revised(sources),
        color=_color(color),
        first_day=first,
        last_day=last,
        reminder_secs=opt.length_option(reminder, "--reminder") if reminder else None,
        split_by=_split_field(split_by),
        expected=expect,
        partial=partial,
        afresh=afresh,
        cancel_removed=cancel_removed,
        by_rule=_by_rule(repeats, output),
        merge_duplicates=merge_duplicates,
    )
    how = (
        how._replace(workers=_processors())
        if workers is None
        else how._replace(workers=workers, share_from=1)
    )
    skipped = skipping(days_off or [], public_holidays or [], reading)
    alone = not sources
    if alone and not (public_holidays and first and last):
        raise _wrong(
            "There is no SOURCE to build from.",
            "Name a spreadsheet or a calendar file; public holidays alone need --public-holidays, --from and --until.",
        )
    if skipped.days_off:
        shown = tuple(skipped.holidays) if show_holidays or alone else ()
        how = how._replace(days_off=skipped.days_off, shown_holidays=shown)
    if skipped.problems:
        report = BuildReport()
        report.problems = skipped.problems
    else:
        with opened(sources, reading.sheets, reading.zone) as found, counting() as progress:
            if not name:
                how = _named_by_plan(how, found.sheets, reading)
            if not name and found.calendars and not found.sheets and found.calendars[0].name:
                how = how._replace(calendar_name=found.calendars[0].name)
            report = build_calendar(found.sheets, reading, how, progress, found.calendars)
    if rejects and report.problems:
        from nomarium.targets.rejects import write_rejects

        write_rejects([book.rejected for book in report.notebooks], Path(rejects))
    say_build(report, json, output, rejects, partial)
    raise typer.Exit(1 if report.problems else 0)


def _target(output: str, split_by: str | None):  # type: ignore[no-untyped-def]
    if output == "-":
        if split_by:
            raise _wrong(
                "--split-by makes several files, and - is one stream.",
                "Give a folder: -o calendars/",
            )
        return sys.stdout.buffer
    path = Path(output)
    if split_by:
        if path.is_file() or path.suffix.lower() == ".ics":
            raise _wrong(
                f"--split-by makes several files, and {output} is one.",
                "Give a folder: -o calendars/",
            )
        return path
    if path.is_dir():
        raise _wrong(f"{output} is a folder.", "Name a file in it, or give --split-by.")
    if path.suffix.lower() not in (".ics", ".csv", ".xlsx", ".json"):
        raise _wrong(
            f"{output} does not say by its ending what it is to be.",
            "Name it like events.ics (a calendar file), events.json (jCal), events.csv or events.xlsx (a table).",
        )
    if not path.parent.is_dir():
        raise _wrong(f"There is no folder {path.parent}.", "Make it first.")
    return path


def _named_by_plan(how: "BuildOptions", sheets: list[Sheet], reading: ReadingOptions) -> "BuildOptions":
    """The name that a plan's settings give, when the sources are one plan and nothing else."""
    if reading.layout != "plan" and not any(sheet.name for sheet in sheets):
        return how
    from nomarium.school.finding import plans_in, setting_of

    plans, others = plans_in(sheets, reading)
    called = setting_of(plans[0], "Calendar name") if len(plans) == 1 and not others else ""
    return how._replace(calendar_name=called, identity_name=called) if called else how


def _by_rule(repeats: str, output: str) -> bool:
    if repeats not in ("dated", "rule"):
        raise _wrong(f"--repeats {repeats} is neither dated nor rule.", "Use one of them.")
    if repeats == "rule" and Path(output).suffix.lower() in (".csv", ".xlsx"):
        raise _wrong("--repeats rule: a table holds dated events.", "Leave it out, or write a calendar file.")
    return repeats == "rule"


def _processors() -> int:
    """How many processors this process may use."""
    return len(os.sched_getaffinity(0)) if hasattr(os, "sched_getaffinity") else os.cpu_count() or 1


def _color(name: str | None) -> str:
    if not name:
        return ""
    from nomarium.ical.colors import CSS3_COLORS
    from nomarium.reading.cells.people import read_color

    color = read_color(name, CSS3_COLORS)
    if not isinstance(color, str):
        raise _wrong(f"--color: {color.message}", color.remedy)
    return color


def _split_field(text: str | None) -> str:
    if not text:
        return ""
    from nomarium.targets.splitting import SPLIT_FIELDS

    field = opt.field_option(text, "--split-by")
    if field not in SPLIT_FIELDS:
        raise _wrong(f"A build cannot be split by {field}.", f"Split by one of {', '.join(SPLIT_FIELDS)}.")
    return field


def _wrong(message: str, remedy: str) -> UsageError:
    return UsageError(Problem("usage", message, remedy))
