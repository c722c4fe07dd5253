"""`nomarium build`: spreadsheets into calendar files."""

import datetime as dt
import sys
from pathlib import Path

import typer

from nomarium.cli import eventoptions as event
from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources

EXAMPLE = "Example: nomarium build events.csv -o events.ics --timezone America/Halifax"


@takes_sources
def build(
    output: opt.Output,
    asked: Asked,
    without: event.Without = None,
    repeats: event.Repeats = "dated",
    show_holidays: event.ShowHolidays = False,
    merge_duplicates: event.MergeDuplicates = False,
    reminder: event.Reminder = None,
    expect: event.Expect = None,
    split_by: opt.SplitBy = None,
    name: opt.Name = None,
    color: opt.Color = None,
    method: opt.Method = None,
    with_page: opt.WithPage = False,
    base_url: opt.BaseUrl = None,
    partial: opt.Partial = False,
    rejects: opt.Rejects = None,
    afresh: opt.Afresh = False,
    cancel_removed: opt.CancelRemoved = False,
    edited: opt.Edited = None,
    prefer: opt.Prefer = None,
    workers: opt.Workers = None,
    dry_run: opt.DryRun = False,
    ask: opt.Ask = False,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Turn spreadsheets, a plan or calendar files into a calendar; refuse, naming the cell, what cannot be read."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.building.build import build as build_calendar
    from nomarium.building.options import BuildOptions
    from nomarium.building.report import BuildReport
    from nomarium.cli import buildoptions as meant
    from nomarium.cli.buildreport import say_build
    from nomarium.cli.keptstates import keep_state
    from nomarium.cli.optionvalues import length_option
    from nomarium.cli.progress import counting
    from nomarium.cli.render import say
    from nomarium.cli.settling import with_edits
    from nomarium.cli.sources import calendar_name, revised

    if ask:
        from nomarium.cli.asking import answered

        asked = answered(asked, dt.date.today())
    sources = asked.named
    first, last = asked.window()
    reading = asked.reading()
    meant.check_files(output, rejects, sources, [*asked.files_read(reading), *(without or ())])
    split = meant.split_option(split_by) or reading.split_by
    called = name or calendar_name(sources, output)
    how = BuildOptions(
        output=meant.target_option(output, split), is_dry=dry_run, calendar_name=called, identity_name=called,
        dtstamp=revised(sources), color=meant.color_option(color), first_day=first, last_day=last,
        reminder_secs=length_option(reminder, "--reminder") if reminder else None,
        split_by=split, expected=expect, partial=partial, afresh=afresh,
        cancel_removed=cancel_removed, by_rule=meant.by_rule_option(repeats, output), merge_duplicates=merge_duplicates,
        method=meant.method_option(method, output),
    )  # fmt: skip
    how = meant.with_workers(meant.with_pages(how, with_page, base_url, reading.languages), workers)
    skipped = asked.skipping(reading)
    how = meant.with_days_off(how, skipped, show_holidays, not sources)
    if skipped is not None and skipped.problems:
        report = BuildReport()
        report.problems += skipped.problems
    else:
        with asked.opened(reading) as found, counting() as progress:
            how = meant.with_withheld(how, without or reading.without, found, reading)
            how = with_edits(how, edited, prefer, reading)
            how = how if name else meant.named_by_source(how, found, reading)
            report = build_calendar(found, reading, how, progress)
    if rejects and report.rejected_rows:
        from nomarium.targets.rejects import write_rejects

        write_rejects([account.rejected for account in report.accounts], Path(rejects))
    told = keep_state(output, report, sources, asked.said())
    if told:
        say(told, sys.stderr)
    say_build(report, json, output, rejects, partial, details)
    raise typer.Exit(1 if report.problems else 0)
