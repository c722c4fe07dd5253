"""The main job: sources → tables → events → filters → calendar files. Nothing here prints."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import BinaryIO, NamedTuple

from nomarium.ical.calendar import Head
from nomarium.ical.identity import Identities
from nomarium.model.event import Event
from nomarium.model.ledger import Ledger
from nomarium.model.problem import Place, Problem, note
from nomarium.output import Output, WrittenFile
from nomarium.reading.notebook import Notebook
from nomarium.reading.options import ReadingOptions
from nomarium.reading.sheets import SheetReading, read_sheets
from nomarium.reading.tables import PassedOver
from nomarium.sheets.table import Sheet


class BuildOptions(NamedTuple):
    """What is to be made of the events."""

    output: Path | BinaryIO | None
    """The calendar file, the folder of a split, an open binary stream, or None for a dry run."""
    calendar_name: str
    identity_name: str
    """The name that UIDs are made from: the same for a part as for the whole."""
    dtstamp: str
    """When the sources were last revised, `20270412T120000Z`."""
    color: str = ""
    first_day: dt.date | None = None
    last_day: dt.date | None = None
    reminder_secs: int | None = None
    split_by: str = ""
    expected: int | None = None
    partial: bool = False
    afresh: bool = False
    cancel_removed: bool = False


class SheetReport(NamedTuple):
    """What became of one sheet."""

    title: str
    ledger: Ledger
    note_rows: list[tuple[int, str]]


class BuildReport:
    """Everything that a build found and did."""

    def __init__(self) -> None:
        self.ledger = Ledger()
        self.sheets: list[SheetReport] = []
        self.passed_over: list[PassedOver] = []
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []
        self.readings: list[SheetReading] = []
        self.notebooks: list[Notebook] = []
        self.files: list[WrittenFile] = []
        self.kept_files: list[str] = []
        """Files of an earlier build in the folder that this one no longer makes."""
        self.event_count = 0
        """Distinct events that were (or would be) written."""
        self.span: tuple[dt.date, dt.date] | None = None
        """First and last local date of the events."""
        self.has_floating = False
        """Whether some timed event is in no zone."""
        self.is_written = False
        self.changes: dict[str, int] = {}
        """Against the earlier build: new, changed, moved, unchanged, removed, cancelled."""


Progress = Callable[[int], None]
"""Called now and then with the number of events so far."""


def build(
    sheets: Sequence[Sheet],
    reading: ReadingOptions,
    options: BuildOptions,
    progress: Progress | None = None,
) -> BuildReport:
    """Build calendar files from sheets. Nothing is replaced when there are problems, unless `partial`."""
    report, output = _attempt(sheets, reading, options, progress, whole=False)
    if output is None:  # a row contradicts what a part of its table had settled: look at all of it
        report, output = _attempt(sheets, reading, options, progress, whole=True)
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
    options: ReadingOptions,
    how: BuildOptions,
    progress: Progress | None,
    whole: bool,
) -> tuple[BuildReport, Output | None]:
    report = BuildReport()
    found = read_sheets(sheets, options, whole)
    report.passed_over = found.passed_over
    report.problems += found.problems
    report.readings = found.readings
    report.notes += found.notes
    identities = Identities(how.identity_name)
    output = Output(
        how.output,
        Head(how.calendar_name, how.color),
        how.dtstamp,
        how.split_by,
        how.afresh,
        how.cancel_removed,
        identities,
    )
    try:
        for reading in found.readings:
            if reading.problems:  # columns that contradict each other: no row can be trusted
                continue
            notebook = Notebook()
            _write_all(reading, notebook, how, output, report, progress)
            if notebook.rejected and not reading.is_whole:
                output.close()
                return report, None
            _account(reading, notebook, identities, report)
        _conclude(report, how)
    except BaseException:
        output.close()
        raise
    return report, output


def _write_all(
    reading: SheetReading, notebook: Notebook, how: BuildOptions, output: Output,
    report: BuildReport, progress: Progress | None,
) -> None:  # fmt: skip
    events = reading.events(notebook)
    if how.first_day or how.last_day:
        events = _within(events, how.first_day, how.last_day, notebook.ledger)
    if how.reminder_secs is not None:
        events = _reminding(events, how.reminder_secs)
    write = output.write
    count = report.event_count
    for event in events:
        write(event)
        count += 1
        if progress is not None and not count & 1023:
            progress(count)
    report.event_count = count
    report.span = output.span
    report.has_floating = output.has_floating


def _within(
    events: Iterator[Event], first: dt.date | None, last: dt.date | None, ledger: Ledger
) -> Iterator[Event]:
    """The events that touch a window of dates, both ends inclusive; the others are left out."""
    for event in events:
        if (first and event.last_day < first) or (last and event.first_day > last):
            ledger.events -= 1
            ledger.left_out += 1
        else:
            yield event


def _reminding(events: Iterator[Event], secs: int) -> Iterator[Event]:
    for event in events:
        if event.details.reminder_secs is None:
            event = event._replace(details=event.details._replace(reminder_secs=secs))
        yield event


def _account(reading: SheetReading, notebook: Notebook, identities: Identities, report: BuildReport) -> None:
    """Take a sheet's account into the report."""
    sheet = reading.sheet
    for row, uid in identities.repeated_uids:
        message = f"An earlier row has the uid “{uid}” already; two events cannot share one."
        remedy = "Give the row another uid, or leave it blank."
        report.problems.append(Problem("uid-repeated", message, remedy, sheet.place(row), uid))
    identities.repeated_uids.clear()
    if identities.repeated_rows:
        rows = identities.repeated_rows
        listed = ", ".join(map(str, rows[:5])) + (f" and {len(rows) - 5:,} more" if len(rows) > 5 else "")
        message = (
            f"Row{'s' if len(rows) > 1 else ''} {listed} say the same as an earlier row; each stays an event."
        )
        remedy = "Take the repeats out of the sheet if they are slips."
        report.notes.append(note("row-repeated", message, remedy).at(sheet.place(rows[0])))
        rows.clear()
    report.ledger.add(notebook.ledger)
    report.sheets.append(SheetReport(sheet.title, notebook.ledger, notebook.note_rows))
    report.problems += notebook.problems
    report.notes += notebook.all_notes()
    report.notebooks.append(notebook)


def _conclude(report: BuildReport, how: BuildOptions) -> None:
    """What can only be said at the end: how many events there are."""
    if how.expected is not None and report.event_count != how.expected:
        message = f"{report.event_count:,} events were read and {how.expected:,} were expected."
        remedy = "Look through the ledger for rows that are missing or too many, or correct --expect."
        report.problems.append(Problem("count-unexpected", message, remedy))
    if not report.event_count and not report.problems:
        message = "There is no event to write."
        remedy = "An empty calendar must not replace a full one: check the source"
        remedy += ", --from and --until." if how.first_day or how.last_day else "."
        report.problems.append(Problem("no-events", message, remedy, Place()))
