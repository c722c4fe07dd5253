"""`nomarium build`: spreadsheets into calendar files."""

import datetime as dt
import sys

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
    each: opt.Each = False,
    workers: opt.Workers = None,
    scheduler: opt.Scheduler = None,
    dry_run: opt.DryRun = False,
    ask: opt.Ask = False,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Turn spreadsheets, a plan or calendar files into a calendar; refuse, naming the cell, what cannot be read."""
    # what does the work is imported when there is work: --help shows every command
    from nomarium.cli.onebuild import Said, one_build

    said = Said(
        without, repeats, show_holidays, merge_duplicates, reminder, expect, split_by, name, color, method, with_page, base_url,
        partial, rejects, afresh, cancel_removed, edited, prefer, workers, dry_run,
    )  # fmt: skip
    if each or scheduler:
        from nomarium.cli.each import build_each
        from nomarium.cli.optionvalues import wrong

        if not each:
            raise wrong("--scheduler does the jobs of --each.", "Give --each too.")
        raise typer.Exit(build_each(output, asked, said, scheduler, json))
    from nomarium.cli.buildreport import say_build
    from nomarium.cli.keptstates import keep_state
    from nomarium.cli.render import say

    if ask:
        from nomarium.cli.asking import answered

        asked = answered(asked, dt.date.today())
    report = one_build(output, asked, said)
    told = keep_state(output, report, asked.named, asked.said())
    if told:
        say(told, sys.stderr)
    say_build(report, json, output, rejects, partial, details)
    raise typer.Exit(1 if report.problems else 0)
