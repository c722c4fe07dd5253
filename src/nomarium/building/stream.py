"""The one stream of events: spread over their dates, filtered, counted, handed to the output."""

import datetime as dt
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import TYPE_CHECKING, TypeVar, cast

from nomarium.model.account import Ledger
from nomarium.model.event import Event
from nomarium.model.problem import Place, note
from nomarium.reading.notebook import Notebook
from nomarium.reading.reading import SheetReading

if TYPE_CHECKING:
    from nomarium.building.report import BuildOptions, BuildReport
    from nomarium.building.spreading import Spreader, ToWrite
    from nomarium.targets.calendars import Output, OutputShare
    from nomarium.targets.tables import TableOutput

Share = TypeVar("Share")
Result = TypeVar("Result")
Progress = Callable[[int], None]
"""Called now and then with the number of events so far."""

_SUPERSEDED = note(
    "event-superseded",
    "A calendar file has an event with this row's UID: that one is taken, the row left out.",
)


class EventStream:
    """What lies between the readings and the output of one build."""

    def __init__(
        self, output: "Output | TableOutput", how: "BuildOptions", zone_name: str | None, report: "BuildReport",
        progress: Progress | None, compares: bool,
    ) -> None:  # fmt: skip
        """`compares`: tell of events that say the same under different UIDs."""
        self._output = output
        self._how = how
        self._zone_name = zone_name
        self._report = report
        self._progress = progress
        self._seen: set[int] | None = set() if compares or how.merge_duplicates else None
        self._spreader: Spreader | None = None
        self.persons_of: Callable[[Event], tuple[str, ...]] | None = None
        """The people of a plan in whose calendar an event belongs."""
        self.calendar_uids: set[str] = set()
        """UIDs that a calendar file of this build has: its revision of an event is the newer one."""

    def spreader(self) -> "Spreader":
        """What spreads events over their dates; made when the first source needs it."""
        if self._spreader is None:
            from nomarium.building.spreading import Spreader
            from nomarium.reckoning.series import Window

            how = self._how
            window = Window(how.first_day, how.last_day, how.days_off or frozenset())
            self._spreader = Spreader(window, how.by_rule, self._zone_name)
        return self._spreader

    def write_sheet(self, reading: SheetReading, notebook: Notebook) -> None:
        """Write the events of a sheet, those that repeat on each of their dates."""
        events = reading.events(notebook)
        if not reading.may_repeat and self._seen is None:
            self._write_plain(events, notebook.ledger)
            return
        spreader = self.spreader()
        for event in events:
            if event.details.uid in self.calendar_uids:
                notebook.count(_SUPERSEDED.at(reading.sheet.place(event.row_number)))
                self.write_spread((), notebook.ledger)
                continue
            self.write_spread(spreader.of_event(event), notebook.ledger)
        if spreader.skipped_rows:
            message = (
                "A clock change skips the local time of a date of the repeat: it is moved on by the gap."
            )
            for row in spreader.skipped_rows:
                notebook.notes.append(note("time-skipped", message).at(reading.sheet.place(row)))
            spreader.skipped_rows.clear()

    def _write_plain(self, events: Iterator[Event], ledger: Ledger) -> None:
        """The commonest case, in as few steps as there can be."""
        how, report = self._how, self._report
        if how.first_day or how.last_day:
            events = _within(events, how.first_day, how.last_day, ledger)
        if how.reminder_secs is not None:
            lead = how.reminder_secs
            events = (_reminded(event, lead) for event in events)
        write, progress = self._output.write, self._progress
        count = report.event_count
        for event in events:
            write(event)
            count += 1
            if progress is not None and not count & 1023:
                progress(count)
        report.event_count = count

    def write_spread(self, found: "Iterable[ToWrite]", ledger: Ledger) -> None:
        """Write what became of one event of a source, which the ledger has counted; left out when nothing did."""
        report, lead = self._report, self._how.reminder_secs
        count = 0
        for event, last_start in found:
            if self._seen is not None and self._is_repeated(event):
                continue
            if lead is not None:
                event = _reminded(event, lead)
            last = last_start.date() if isinstance(last_start, dt.datetime) else last_start
            self._output.write(event, last)
            count += 1
            if self._progress is not None and not (report.event_count + count) & 1023:
                self._progress(report.event_count + count)
        report.event_count += count
        if not count:
            ledger.events -= 1
            ledger.left_out += 1

    def write_counted(self, events: Iterable[Event], everywhere: bool = False) -> None:
        """Write events whose sources are accounted for already; `everywhere`: into every file of a split."""
        how, report, progress = self._how, self._report, self._progress
        for event in events:
            if not _touches(event, how.first_day, how.last_day) or (
                self._seen is not None and self._is_repeated(event)
            ):
                continue
            if how.reminder_secs is not None and not everywhere:
                event = _reminded(event, how.reminder_secs)
            self._output.write(event, None, everywhere, self.persons_of)
            report.event_count += 1
            if progress is not None and not report.event_count & 1023:
                progress(report.event_count)

    def shares(self, count: int) -> int:
        """Among how many processes the writing of this many events is worth sharing out; 1 where it cannot be."""
        from nomarium.building.sharing import can_share

        if self._seen is not None or not self._output.is_empty or not can_share():
            return 1
        return max(1, min(self._how.workers, count // self._how.share_from))

    def write_shared(
        self, job: "Callable[[Share, EventStream], Result]", shares: Sequence[Share]
    ) -> list[Result]:
        """Let `job` write each share to a stream of its own in a process of its own, as `shares` has allowed;
        what it returns for each."""
        from nomarium.building.sharing import shared_out

        output = cast("Output", self._output)
        output.prepare_sharing()

        def work(share: Share, tell: Progress) -> "tuple[Result, int, OutputShare]":
            self._progress = tell
            made = job(share, self)
            return made, self._report.event_count, output.handed_over()

        found = []
        for made, count, written in shared_out(work, shares, self._progress):
            output.take_over(written)
            self._report.event_count += count
            found.append(made)
        return found

    def _is_repeated(self, event: Event) -> bool:
        """Whether an earlier event says the same; then it is counted, and left out when it is to be."""
        assert self._seen is not None
        key = hash((event[:6], event.details.recurrence))
        if key not in self._seen:
            self._seen.add(key)
            return False
        self._report.duplicate_count += 1
        return self._how.merge_duplicates

    def write_holidays(self) -> None:
        """Write the public holidays that are asked for, over the window or the days of the other events."""
        how, report = self._how, self._report
        if not how.shown_holidays:
            return
        span = self._output.span
        first, last = how.first_day or (span and span[0]), how.last_day or (span and span[1])
        if not first or not last:
            return
        found = dict.fromkeys(event for one in how.shown_holidays for event in one.events(first, last))
        for event in found:
            self._output.write(event)
        report.holiday_count = len(found)
        report.event_count += len(found)

    def conclude(self) -> None:
        """Take what was counted into the report."""
        report, spreader = self._report, self._spreader
        report.span = self._output.span
        report.has_floating = self._output.has_floating
        if spreader is not None:
            report.repeating_count, report.dated_count = spreader.repeating_count, spreader.dated_count
            report.rule_count, report.rule_date_count = spreader.rule_count, spreader.rule_date_count
        if report.duplicate_count:
            count = report.duplicate_count
            kept = "written once" if self._how.merge_duplicates else "each stays"
            remedy = "" if self._how.merge_duplicates else "To write each once: --merge-duplicates."
            message = f"{count:,} event{' says' if count == 1 else 's say'} the same as another: {kept}."
            report.notes.append(note("event-duplicate", message, remedy).at(Place()))
        untold = getattr(self._output, "untold_count", 0)
        if untold:
            message = f"{untold:,} event{' has' if untold == 1 else 's have'} properties that a table has no column for."
            report.notes.append(note("table-narrow", message, "A calendar file (.ics, .json) keeps them."))


def _within(
    events: Iterator[Event], first: dt.date | None, last: dt.date | None, ledger: Ledger
) -> Iterator[Event]:
    """The events that touch a window of dates, both ends inclusive; the others are left out."""
    for event in events:
        if _touches(event, first, last):
            yield event
        else:
            ledger.events -= 1
            ledger.left_out += 1


def _touches(event: Event, first: dt.date | None, last: dt.date | None) -> bool:
    """Whether an event is, at least in part, between two dates (both inclusive; None is open)."""
    return not ((first and event.last_day < first) or (last and event.first_day > last))


def _reminded(event: Event, secs: int) -> Event:
    """An event with an alarm that long before it, unless it has one of its own."""
    if event.details.reminder_secs is not None:
        return event
    return event._replace(details=event.details._replace(reminder_secs=secs))
