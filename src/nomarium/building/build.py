"""The main job: sources into calendar files. Nothing here prints."""

import contextlib
from pathlib import Path
from typing import TYPE_CHECKING

from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.building.stream import EventStream, Progress
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.window import Window
from nomarium.sources.invitations import Invitations
from nomarium.sources.opening import Opened, Sources, sources_in
from nomarium.targets.identities import Identities

if TYPE_CHECKING:
    from nomarium.history.settling.identity import Coming
    from nomarium.targets.pages import PageLook
    from nomarium.targets.settled import SettledTarget
    from nomarium.targets.target import Target

__all__ = ("BuildOptions", "BuildReport", "build", "collected")


def build(
    opened: Opened, options: ReadingOptions, how: BuildOptions, progress: Progress | None = None
) -> BuildReport:
    """Build calendar files from everything that was opened. Nothing is replaced when there are problems, unless
    `partial`."""
    report, target = _attempt(opened, options, how, progress, is_whole=False)
    if target is None:  # a row contradicts what a part of its table had settled: look at all of it
        report, target = _attempt(opened, options, how, progress, is_whole=True)
    assert target is not None
    with contextlib.closing(target):
        if report.problems and not how.partial:
            return report
        if report.event_count:
            report.files = target.finish()
            report.kept_files = target.kept_files()
            report.changes = target.changes
            report.is_written = how.output is not None and not how.is_dry
    return report


def collected(
    opened: Opened, options: ReadingOptions, how: BuildOptions, progress: Progress | None = None
) -> "tuple[BuildReport, list[Coming]]":
    """The events that a build would write, each with its UID, for those who put them elsewhere than into a file."""
    from nomarium.targets.collected import CollectedTarget

    report, target = _attempt(opened, options, how, progress, is_whole=False, collects=True)
    if target is None:
        report, target = _attempt(opened, options, how, progress, is_whole=True, collects=True)
    assert isinstance(target, CollectedTarget)
    return report, target.coming


def _attempt(
    opened: Opened,
    options: ReadingOptions,
    how: BuildOptions,
    progress: Progress | None,
    is_whole: bool,
    collects: bool = False,
) -> "tuple[BuildReport, Target | None]":
    """A build up to the writing; no target when a table must be looked at as a whole."""
    report = BuildReport()
    sources = sources_in(opened, options, how.days_off, how.identity_name, is_whole, how.by_rule)
    report.passed_over, report.unread = sources.passed_over, sources.unread
    report.problems += sources.problems
    report.notes += sources.notes
    report.readings = sources.readings
    report.plans = sources.plans
    identities = Identities(how.identity_name)
    if collects:
        from nomarium.targets.collected import CollectedTarget

        target: Target = CollectedTarget(identities)
    else:
        target = _target(how, identities, sources)
    settled = _settled(target, how, identities)
    target = settled or target
    try:
        stream = EventStream(
            target, identities, how, options.zone, report, progress, compares=bool(opened.calendars)
        )
        for source in map(Invitations, sources.listed) if how.method else sources.listed:
            target.begin(source.place)
            stream.take(source)
            if source.contradicts and not is_whole:
                target.close()
                return report, None
        _take_holidays(stream, target, how, report)
        _conclude(report, target, sources, how)
        if settled is not None and how.edited is not None:
            from nomarium.building.settling import settle

            settle(settled, how.edited, report)
    except BaseException:
        target.close()
        raise
    return report, target


def _settled(target: "Target", how: BuildOptions, identities: Identities) -> "SettledTarget | None":
    """What stands before a calendar that people have changed."""
    from nomarium.targets.calendars import CalendarTarget

    if how.edited is None or not isinstance(target, CalendarTarget):
        return None
    from nomarium.targets.settled import SettledTarget

    return SettledTarget(target, identities, how.edited, Window(how.first_day, how.last_day))


def _target(how: BuildOptions, identities: Identities, sources: Sources) -> "Target":
    output = how.output
    ending = output.suffix.lower() if isinstance(output, Path) and not how.split_by else ""
    if isinstance(output, Path) and ending in (".csv", ".xlsx"):
        from nomarium.targets.tables import TableTarget

        return TableTarget(output, identities, how.is_dry)
    if isinstance(output, Path) and ending == ".html":
        from nomarium.targets.pages import PageTarget

        return PageTarget(None if how.is_dry else output, identities, _look(how, sources))
    from nomarium.targets.calendarfile import CalendarHead
    from nomarium.targets.calendars import CalendarTarget

    head = CalendarHead(how.calendar_name, how.color, how.method)
    window = Window(how.first_day, how.last_day)
    if how.with_pages and isinstance(output, Path) and not how.is_dry:
        from nomarium.targets.pages import FolderWithPages

        return FolderWithPages(
            output, head, how.dtstamp, how.split_by, how.afresh, how.cancel_removed, identities, window, _look(how, sources)
        )  # fmt: skip
    return CalendarTarget(
        output,
        head,
        how.dtstamp,
        how.split_by,
        how.afresh,
        how.cancel_removed,
        identities,
        window,
        how.is_dry,
    )


def _look(how: BuildOptions, sources: Sources) -> "PageLook":
    """What pages say beside the events."""
    from nomarium.pictures.shown import days_of
    from nomarium.targets.pages import PageLook

    return PageLook(how.calendar_name, how.language, days_of(sources.plans), how.base_url)


def _take_holidays(stream: EventStream, target: "Target", how: BuildOptions, report: BuildReport) -> None:
    """Write the public holidays that are asked for, over the window or the days of the other events."""
    span = target.span
    first, last = how.first_day or (span and span[0]), how.last_day or (span and span[1])
    if not how.shown_holidays or not first or not last:
        return
    from nomarium.sources.holidays import HolidaySource

    before = report.event_count
    stream.take(HolidaySource(how.shown_holidays, first, last))
    report.holiday_count = report.event_count - before


def _conclude(report: BuildReport, target: "Target", sources: Sources, how: BuildOptions) -> None:
    """What can only be said at the end: how many events there are, and what they lack."""
    report.span = target.span
    report.has_floating = target.has_floating
    if report.duplicate_count:
        count = report.duplicate_count
        kept = "written once" if how.merge_duplicates else "each stays"
        remedy = "" if how.merge_duplicates else "To write each once: --merge-duplicates."
        message = f"{counted(count, 'event says', 'events say')} the same as another: {kept}."
        report.notes.append(note("event-duplicate", message, remedy).at(Place()))
    if target.untold_count:
        untold = target.untold_count
        message = f"{counted(untold, 'event has', 'events have')} properties that a table has no column for."
        report.notes.append(note("table-narrow", message, "A calendar file (.ics, .json) keeps them."))
    if how.by_rule and any(plan.meets_by_cycle for plan in sources.plans):
        message = "The meetings of a plan's classes stay dated events where a cycle moves them: no rule can say one."
        report.notes.append(note("meetings-dated", message))
    if sources.edits is not None:
        problems, notes = sources.edits.unmet()
        report.problems += problems
        report.notes += notes
    if how.withheld is not None:
        count = how.withheld.count
        message = (
            f"{counted(count, 'event')} left out: --without holds {'it' if count == 1 else 'them'} already."
        )
        if not count:
            message = "--without leaves nothing out: the sources have none of its events."
        report.notes.append(note("events-withheld", message).at(Place()))
    if how.expected is not None and report.event_count != how.expected:
        count = report.event_count
        message = f"{counted(count, 'event was', 'events were')} read and {how.expected:,} expected."
        remedy = "Look through the ledger for rows that are missing or too many, or correct --expect."
        report.problems.append(Problem("count-unexpected", message, remedy))
    if not report.event_count and not report.problems:
        message = "There is no event to write."
        remedy = "An empty calendar must not replace a full one: check the source"
        narrowing = ["--from and --until"] if how.first_day or how.last_day else []
        narrowing += ["--only and --leave-out"] if sources.edits is not None else []
        narrowing += ["--without"] if how.withheld is not None else []
        remedy += f", {', '.join(narrowing)}." if narrowing else "."
        report.problems.append(Problem("no-events", message, remedy, Place()))
