"""Plans as a source of a build."""

from typing import TYPE_CHECKING

from nomarium.building.report import BuildReport, SheetReport
from nomarium.reading.notebook import Notebook
from nomarium.school.clashes import Clash, clashes_in, merged
from nomarium.school.events import banners, meeting_events, own_events, persons_of, plan_sheets, shares_of
from nomarium.school.plan import Plan

if TYPE_CHECKING:
    from nomarium.building.stream import EventStream


def write_plan(plan: Plan, stream: "EventStream", report: BuildReport, identity_name: str) -> None:
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
    report.clashes += _write_meetings(plan, stream, identity_name)
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
    stream.write_counted(banners(plan, identity_name), everywhere=True)


def _write_meetings(plan: Plan, stream: "EventStream", identity_name: str) -> list[Clash]:
    """Write the meetings, in several processes where there are many, and say which of them clash."""
    count = stream.shares(len(plan.meetings))
    if count == 1:
        stream.write_counted(meeting_events(plan, identity_name))
        return clashes_in(plan.meetings)

    def write(share: range, to: "EventStream") -> list[Clash]:
        to.write_counted(meeting_events(plan, identity_name, share))
        return clashes_in(plan.meetings[share.start : share.stop])

    return merged(stream.write_shared(write, shares_of(plan, count)))
