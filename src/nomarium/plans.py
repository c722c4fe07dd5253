"""Plans as a source of a build."""

from __future__ import annotations

from typing import TYPE_CHECKING

from nomarium.reading.notebook import Notebook
from nomarium.report import BuildReport, SheetReport
from nomarium.school.clashes import clashes_in
from nomarium.school.plan import Plan
from nomarium.school.planevents import banners, meeting_events, own_events, persons_of, plan_sheets

if TYPE_CHECKING:
    from nomarium.stream import EventStream


def write_plan(plan: Plan, stream: EventStream, report: BuildReport, identity_name: str) -> None:
    """Write everything that a plan puts on calendars, and take its account into the report."""
    report.plans.append(plan)
    report.problems += plan.problems
    report.notes += plan.notes
    for title, ledger in plan.ledgers:
        report.ledger.add(ledger)
        report.sheets.append(SheetReport(title, ledger, []))
    for rows in plan.rejected:
        notebook = Notebook()
        notebook.rejected = rows
        report.notebooks.append(notebook)
    stream.persons_of = lambda event: persons_of(plan, event)
    stream.write_counted(meeting_events(plan, identity_name))
    found = plan_sheets(plan)
    report.problems += found.problems
    report.notes += found.notes
    report.passed_over += found.passed_over
    for reading, notebook, events in own_events(plan, found):
        stream.write_counted(events)
        report.ledger.add(notebook.ledger)
        report.sheets.append(SheetReport(reading.sheet.title, notebook.ledger, notebook.note_rows))
        report.problems += notebook.problems
        report.notes += notebook.all_notes()
        report.notebooks.append(notebook)
    report.clashes += clashes_in(plan.meetings)
    stream.write_counted(banners(plan, identity_name), everywhere=True)
