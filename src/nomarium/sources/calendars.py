"""Calendar files as a source of a build."""

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from nomarium.building.report import BuildReport, SheetReport
from nomarium.ical.merging import merged
from nomarium.ical.reader import CalendarRead
from nomarium.model.account import Ledger
from nomarium.model.entry import Entry, Series
from nomarium.model.problem import Place, Problem, note
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.zones import zone_named

if TYPE_CHECKING:
    from nomarium.building.spreading import ToWrite
    from nomarium.building.stream import EventStream


def write_calendars(
    calendars: Sequence[CalendarRead], stream: "EventStream", options: ReadingOptions, report: BuildReport
) -> None:
    """Merge the events of calendar files and write them; every component read is accounted for."""
    ledgers = {id(calendar): Ledger("entries") for calendar in calendars}
    owners: dict[int, CalendarRead] = {}
    for calendar in calendars:
        ledger = ledgers[id(calendar)]
        ledger.rejected = len(calendar.problems)
        ledger.left_out = calendar.left_out
        report.problems += calendar.problems
        report.notes += calendar.notes
        calendar.entries = [_in_zone(entry, options.zone) for entry in calendar.entries]
        owners.update((id(entry), calendar) for entry in calendar.entries)
    found = merged(entry for calendar in calendars for entry in calendar.entries)
    for entry in found.superseded:
        ledgers[id(owners[id(entry)])].left_out += 1
    if found.superseded:
        count = len(found.superseded)
        message = f"{count:,} older state{'' if count == 1 else 's'} of events with the same UID {'is' if count == 1 else 'are'} left out."
        first = found.superseded[0]
        report.notes.append(note("event-superseded", message).at(_place(owners[id(first)], first)))
    spreader = stream.spreader()
    for series in found.series:
        entries = [entry for entry in (series.main, *series.replacing) if entry is not None]
        calendar = owners[id(entries[0])]
        ledger = ledgers[id(calendar)]
        if series.is_endless and options.repeats_until is None:
            ledger.rejected += len(entries)
            report.problems.append(_endless(series, calendar))
            continue
        ledger.events += len(entries)
        written = Ledger()
        written.events = 1
        stream.write_spread(_noting_uids(spreader.of_series(series), stream.calendar_uids), written)
        if not written.events:
            ledger.events -= len(entries)
            ledger.left_out += len(entries)
    spreader.skipped_rows.clear()  # a calendar file's skipped times have one meaning (RFC 5545, 3.3.5)
    for calendar in calendars:
        ledger = ledgers[id(calendar)]
        report.ledger.add(ledger)
        report.sheets.append(SheetReport(calendar.file, ledger, []))


def _in_zone(entry: Entry, zone_name: str | None) -> Entry:
    """An entry whose floating times are in the zone that was asked for."""
    event = entry.event
    if zone_name is None or event.zone is not None or entry.zone is not None or event.is_all_day:
        return entry
    return entry._replace(event=event._replace(zone=zone_name), zone=zone_named(zone_name))


def _noting_uids(found: "Iterator[ToWrite]", uids: set[str]) -> "Iterator[ToWrite]":
    for one in found:
        if one.event.details.uid:
            uids.add(one.event.details.uid)
        yield one


def _endless(series: Series, calendar: CalendarRead) -> Problem:
    assert series.main is not None
    message = f"“{series.main.event.summary}” repeats without an end."
    remedy = "Say until when to read it: --until DATE."
    return Problem("repeat-endless", message, remedy, _place(calendar, series.main))


def _place(calendar: CalendarRead, entry: Entry) -> Place:
    return Place(calendar.file, "", entry.event.row_number, unit="line")
