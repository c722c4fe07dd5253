"""`nomarium build`: spreadsheets into calendar files."""

from pathlib import Path

import typer

from nomarium.cli import eventoptions as event
from nomarium.cli import options as opt

EXAMPLE = "Example: nomarium build events.csv -o events.ics --timezone America/Halifax"


def build(
    output: opt.Output,
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
    clock: opt.Clock = None,
    spans: opt.Spans = None,
    swapped: opt.Swapped = None,
    hidden_rows: opt.HiddenRows = None,
    set_code: opt.SetCodes = None,
    weekdays: opt.Weekdays = None,
    table: opt.Tables = None,
    cell: opt.CellPattern = None,
    terms: opt.Terms = None,
    title: opt.Title = None,
    only: event.Only = None,
    leave_out: event.LeaveOut = None,
    override: event.Override = None,
    rename: event.Rename = None,
    people: event.People = None,
    places: event.Places = None,
    without: event.Without = None,
    from_: event.From = None,
    until: event.Until = None,
    repeats: event.Repeats = "dated",
    days_off: event.DaysOffFiles = None,
    public_holidays: event.PublicHolidayCodes = None,
    show_holidays: event.ShowHolidays = False,
    merge_duplicates: event.MergeDuplicates = False,
    reminder: event.Reminder = None,
    expect: event.Expect = None,
    split_by: opt.SplitBy = None,
    name: opt.Name = None,
    color: opt.Color = None,
    partial: opt.Partial = False,
    rejects: opt.Rejects = None,
    afresh: opt.Afresh = False,
    cancel_removed: opt.CancelRemoved = False,
    workers: opt.Workers = None,
    dry_run: opt.DryRun = False,
    json: opt.Json = False,
) -> None:
    """Turn spreadsheets, a plan or calendar files into a calendar; refuse, naming the cell, what cannot be read."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.building.build import build as build_calendar
    from nomarium.building.options import BuildOptions
    from nomarium.building.report import BuildReport
    from nomarium.cli import buildoptions as asked
    from nomarium.cli.buildreport import say_build
    from nomarium.cli.optionvalues import (
        edits_asked,
        length_option,
        meanings_asked,
        reading_options,
        window_options,
    )
    from nomarium.cli.progress import counting
    from nomarium.cli.sources import calendar_name, opened, revised

    sources = sources or []
    first, last = window_options(from_, until)
    reading = reading_options(
        sheet=sheet, layout=layout, column=column, set_=set_, keep_extra=keep_extra, timezone=timezone,
        date_order=date_order, school_year=school_year, language=language, default_length=default_length, fill_down=fill_down, day_one=day_one, clock=clock, spans=spans, swapped=swapped, hidden_rows=hidden_rows, terms=terms, title=title, edits=meanings_asked(edits_asked(only, leave_out, override, rename, people, places), set_code, weekdays, table, cell), first=first, until=last, knows_days_off=bool(days_off or public_holidays), recipe=recipe,
    )  # fmt: skip
    asked.check_files(output, rejects, sources, [recipe, *(days_off or []), *(without or ())], reading)
    split = asked.split_option(split_by) or reading.split_by
    called = name or calendar_name(sources, output)
    how = BuildOptions(
        output=None if dry_run else asked.target_option(output, split), calendar_name=called, identity_name=called,
        dtstamp=revised(sources), color=asked.color_option(color), first_day=first, last_day=last,
        reminder_secs=length_option(reminder, "--reminder") if reminder else None,
        split_by=split, expected=expect, partial=partial, afresh=afresh,
        cancel_removed=cancel_removed, by_rule=asked.by_rule_option(repeats, output), merge_duplicates=merge_duplicates,
    )  # fmt: skip
    how = asked.with_workers(how, workers)
    how, problems = asked.with_days_off(
        how, days_off or [], public_holidays or [], show_holidays, not sources, reading
    )
    if problems:
        report = BuildReport()
        report.problems += problems
    else:
        with (
            opened(
                sources, reading.sheets, reading.zone, reading.people, reading.places, reading.terms
            ) as found,
            counting() as progress,
        ):
            how = asked.with_withheld(how, without or reading.without, found, reading)
            how = how if name else asked.named_by_source(how, found, reading)
            report = build_calendar(found, reading, how, progress)
    if rejects and report.rejected_rows:
        from nomarium.targets.rejects import write_rejects

        write_rejects([account.rejected for account in report.accounts], Path(rejects))
    say_build(report, json, output, rejects, partial)
    raise typer.Exit(1 if report.problems else 0)
