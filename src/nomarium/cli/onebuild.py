"""One build, from what a command line says to what was found and done."""

from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from nomarium.building.build import build as build_calendar
from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.cli import buildoptions as meant
from nomarium.cli.optionvalues import length_option
from nomarium.cli.progress import counting
from nomarium.cli.settling import with_edits
from nomarium.cli.sources import calendar_name, revised
from nomarium.model.problem import Place, Problem

if TYPE_CHECKING:
    from nomarium.cli.asked import Asked


class Said(NamedTuple):
    """The options of a build beside those of reading, as they were typed."""

    without: list[str] | None
    repeats: str
    show_holidays: bool
    merge_duplicates: bool
    reminder: str | None
    expect: int | None
    split_by: list[str] | None
    name: str | None
    color: str | None
    method: str | None
    with_page: bool
    base_url: str | None
    partial: bool
    rejects: str | None
    afresh: bool
    cancel_removed: bool
    edited: list[str] | None
    prefer: str | None
    workers: int | None
    dry_run: bool


def one_build(output: str, asked: "Asked", said: Said) -> BuildReport:
    """Build what a command line asks for. Raises UsageError and SourceError as its parts do."""
    sources = asked.named
    first, last = asked.window()
    reading = asked.reading()
    meant.check_files(output, said.rejects, sources, [*asked.files_read(reading), *(said.without or ())])
    split = meant.split_option(said.split_by) or reading.split_by
    called = said.name or calendar_name(sources, output)
    how = BuildOptions(
        output=meant.target_option(output, split), is_dry=said.dry_run, calendar_name=called, identity_name=called,
        dtstamp=revised(sources), color=meant.color_option(said.color), first_day=first, last_day=last,
        reminder_secs=length_option(said.reminder, "--reminder") if said.reminder else None,
        split_by=split, expected=said.expect, partial=said.partial, afresh=said.afresh,
        cancel_removed=said.cancel_removed, by_rule=meant.by_rule_option(said.repeats, output),
        merge_duplicates=said.merge_duplicates, method=meant.method_option(said.method, output),
    )  # fmt: skip
    how = meant.with_pages(how, said.with_page, said.base_url, reading.languages)
    how = meant.with_workers(how, said.workers)
    skipped = asked.skipping(reading)
    how = meant.with_days_off(how, skipped, said.show_holidays, not sources)
    if skipped is not None and skipped.problems:
        report = BuildReport()
        report.problems += skipped.problems
    else:
        with asked.opened(reading) as found, counting() as progress:
            how = meant.with_withheld(how, said.without or reading.without, found, reading)
            how = with_edits(how, said.edited, said.prefer, reading)
            how = how if said.name else meant.named_by_source(how, found, reading)
            report = build_calendar(found, reading, how, progress)
    if said.rejects and report.rejected_rows and not said.dry_run:
        _keep_rejects(report, Path(said.rejects))
    return report


def _keep_rejects(report: BuildReport, path: Path) -> None:
    """Write the rejected rows. The calendar is there by now: what goes wrong is a problem beside it."""
    from nomarium.targets.rejects import write_rejects

    try:
        write_rejects([account.rejected for account in report.accounts], path)
    except OSError as error:
        message = f"The rejected rows were not kept: {error.strerror or error}."
        report.problems.append(
            Problem("rejects-unwritten", message, "Name another file for --rejects.", Place(str(path)))
        )
        report.has_kept_rejects = False
        return
    report.has_kept_rejects = True
