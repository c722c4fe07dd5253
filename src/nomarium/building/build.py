"""The main job: sources → tables → events → filters → calendar files. Nothing here prints."""

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from nomarium.building.report import BuildOptions, BuildReport, SheetReport
from nomarium.building.stream import EventStream, Progress
from nomarium.model.problem import Place, Problem, note
from nomarium.reading.notebook import Notebook
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import SheetReading, read_sheets
from nomarium.sheets.sheet import Sheet
from nomarium.targets.calendarfile import Head
from nomarium.targets.calendars import Output
from nomarium.targets.identities import Identities

if TYPE_CHECKING:
    from nomarium.ical.reader import CalendarRead
    from nomarium.targets.tables import TableOutput

    AnyOutput = Output | TableOutput

__all__ = ("BuildOptions", "BuildReport", "SheetReport", "build")


def build(
    sheets: Sequence[Sheet],
    reading: ReadingOptions,
    options: BuildOptions,
    progress: Progress | None = None,
    calendars: "Sequence[CalendarRead]" = (),
) -> BuildReport:
    """Build calendar files from sheets and calendars. Nothing is replaced when there are problems,
    unless `partial`."""
    report, output = _attempt(sheets, calendars, reading, options, progress, whole=False)
    if output is None:  # a row contradicts what a part of its table had settled: look at all of it
        report, output = _attempt(sheets, calendars, reading, options, progress, whole=True)
    assert output is not None
    with output:
        if report.problems and not options.partial:
            return report
        if report.event_count:
            report.files = output.finish()
            report.kept_files = output.kept_files()
            report.changes = output.changes
            report.is_written = options.output is not None
    return report


def _attempt(
    sheets: Sequence[Sheet],
    calendars: "Sequence[CalendarRead]",
    options: ReadingOptions,
    how: BuildOptions,
    progress: Progress | None,
    whole: bool,
) -> "tuple[BuildReport, AnyOutput | None]":
    report = BuildReport()
    plans, lists = _plans(sheets, options)
    found = read_sheets(lists, options, whole)
    report.passed_over = found.passed_over
    report.problems += found.problems
    report.readings = found.readings
    report.notes += found.notes
    identities = Identities(how.identity_name)
    output = _output(how, identities)
    try:
        stream = EventStream(output, how, options.zone, report, progress, bool(calendars))
        for plan_sheets in plans:
            from nomarium.school.plan import read_plan
            from nomarium.sources.plans import write_plan

            write_plan(read_plan(plan_sheets, options), stream, report, how.identity_name)
        if calendars:
            from nomarium.sources.calendars import write_calendars

            write_calendars(calendars, stream, options, report)
        for reading in found.readings:
            if reading.problems:  # columns that contradict each other: no row can be trusted
                continue
            notebook = Notebook()
            stream.write_sheet(reading, notebook)
            if notebook.rejected and not reading.is_whole:
                output.close()
                return report, None
            _account(reading, notebook, identities, report)
        stream.write_holidays()
        stream.conclude()
        _conclude(report, how)
    except BaseException:
        output.close()
        raise
    return report, output


def _plans(sheets: Sequence[Sheet], options: ReadingOptions) -> tuple[list[list[Sheet]], Sequence[Sheet]]:
    """The sheets that are plans, and the others; what tells them apart is looked at only where sheets have names."""
    if options.layout != "plan" and not any(sheet.name for sheet in sheets):
        return [], sheets
    from nomarium.school.finding import plans_in

    return plans_in(sheets, options)


def _output(how: BuildOptions, identities: Identities) -> "AnyOutput":
    target = how.output
    if isinstance(target, Path) and not how.split_by and target.suffix.lower() in (".csv", ".xlsx"):
        from nomarium.targets.tables import TableOutput

        return TableOutput(target, identities)
    head = Head(how.calendar_name, how.color)
    return Output(target, head, how.dtstamp, how.split_by, how.afresh, how.cancel_removed, identities)


def _account(reading: SheetReading, notebook: Notebook, identities: Identities, report: BuildReport) -> None:
    """Take a sheet's account into the report."""
    sheet = reading.sheet
    column = reading.table.column("uid") if reading.table else None
    at, heading = (column.at, column.heading) if column else (None, "")
    for row, uid in identities.repeated_uids:
        message = f"An earlier row has the uid “{uid}” already; two events cannot share one."
        remedy = "Give the row another uid, or leave it blank."
        report.problems.append(Problem("uid-repeated", message, remedy, sheet.place(row, at, heading), uid))
    identities.repeated_uids.clear()
    if identities.repeated_rows:
        rows = list(dict.fromkeys(identities.repeated_rows))
        listed = ", ".join(map(str, rows[:5])) + (f" and {len(rows) - 5:,} more" if len(rows) > 5 else "")
        message = (
            f"Rows {listed} say the same as an earlier row; each stays an event."
            if len(rows) > 1
            else f"Row {listed} says the same as an earlier row; both stay events."
        )
        remedy = "Take the repeats out of the sheet if they are slips."
        report.notes.append(note("row-repeated", message, remedy).at(sheet.place(rows[0])))
        identities.repeated_rows.clear()
    report.ledger.add(notebook.ledger)
    report.sheets.append(SheetReport(sheet.title, notebook.ledger, notebook.note_rows))
    report.problems += notebook.problems
    report.notes += notebook.all_notes()
    report.notebooks.append(notebook)


def _conclude(report: BuildReport, how: BuildOptions) -> None:
    """What can only be said at the end: how many events there are."""
    if how.expected is not None and report.event_count != how.expected:
        count = report.event_count
        message = f"{count:,} event{' was' if count == 1 else 's were'} read and {how.expected:,} expected."
        remedy = "Look through the ledger for rows that are missing or too many, or correct --expect."
        report.problems.append(Problem("count-unexpected", message, remedy))
    if not report.event_count and not report.problems:
        message = "There is no event to write."
        remedy = "An empty calendar must not replace a full one: check the source"
        remedy += ", --from and --until." if how.first_day or how.last_day else "."
        report.problems.append(Problem("no-events", message, remedy, Place()))
