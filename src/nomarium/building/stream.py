"""The one stream of events: from sources, spread over their dates, filtered, counted, into a target."""

import datetime as dt
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.model.event import NO_DETAILS, TAKEN, Event
from nomarium.model.problem import Problem, note
from nomarium.reckoning.window import Window
from nomarium.sources.source import BY_VALUE, Source
from nomarium.targets.identities import Identities

if TYPE_CHECKING:
    from nomarium.model.entry import Series
    from nomarium.targets.target import SharedOut, Target

Progress = Callable[[int], None]
"""Called now and then with the number of events so far."""

_SUPERSEDED = note(
    "event-superseded",
    "A calendar file has an event with this row's UID: that one is taken, the row left out.",
)


class EventStream:
    """What lies between the sources and the target of one build."""

    def __init__(
        self, target: "Target", identities: Identities, how: BuildOptions, zone_name: str | None, report: BuildReport,
        progress: Progress | None, compares: bool,
    ) -> None:  # fmt: skip
        """`compares`: tell of events that say the same under different UIDs."""
        self._target = target
        self._identities = identities
        self._how = how
        self._zone_name = zone_name
        self._report = report
        self._progress = progress
        self._window = Window(how.first_day, how.last_day, how.days_off or frozenset())
        self._seen: set[int] | None = set() if compares or how.merge_duplicates else None
        self._revised_uids: set[str] = set()
        """UIDs of calendar files: their revision of an event is the newer one."""

    def take(self, source: Source) -> None:
        """Write the events of a source and take its accounts into the report."""
        report = self._report
        shares = self._shares(source.size)
        if shares > 1:
            self._take_shared(source, shares)
        elif (
            source.may_repeat or source.revises or self._revised_uids or self._how.by_rule
            or self._how.withheld is not None
        ):  # fmt: skip
            self._take_each(source)
        else:
            self._take_plain(source)
        report.clashes += source.clashes
        report.accounts += source.accounts
        self._take_repeats(source)
        for account in source.accounts:
            report.problems += account.all_problems()
            report.notes += account.all_notes()

    def _take_plain(self, source: Source) -> None:
        """The commonest case, in as few steps as there can be: no event repeats."""
        how, calendars = self._how, source.calendars
        plain = self._target.plain
        needs_events = (
            how.first_day or how.last_day or how.reminder_secs is not None or self._seen is not None
        )
        if plain is None or needs_events:
            items = source.events()
        else:
            from nomarium.building.plainlines import lines_into

            items = source.events_by(lines_into(plain))
        events = self._on_their_dates(items, source)  # type: ignore[arg-type]  # no series: they may repeat
        if how.first_day or how.last_day:
            events = self._within(events, source)
        if self._seen is not None:
            events = self._told_apart(events, source)
        if how.reminder_secs is not None and not calendars.everywhere:
            lead = how.reminder_secs
            events = (_reminded(event, lead) for event in events)
        write, progress = self._target.write, self._progress
        count = self._report.event_count
        if calendars is BY_VALUE:
            for event in events:
                if event is not TAKEN:
                    write(event)
                count += 1
                if progress is not None and not count & 1023:
                    progress(count)
        else:
            for event in events:
                write(event, None, calendars)
                count += 1
                if progress is not None and not count & 1023:
                    progress(count)
        self._report.event_count = count

    def _on_their_dates(self, events: Iterator[Event], source: Source) -> Iterator[Event]:
        """The events, with those that repeat although nothing at the top of their source showed it on each of their dates."""
        for event in events:
            if event.details is NO_DETAILS or event.details.recurrence is None:
                yield event
                continue
            from nomarium.building.spreading import Spreader

            window = self._window.also_without(source.days_off)
            spreader = Spreader(window, False, self._zone_name, self._report.spread, self._how.withheld)
            for one, _ in spreader.of(event):
                yield one

    def _within(self, events: Iterator[Event], source: Source) -> Iterator[Event]:
        """The events that touch the window; the others are left out."""
        takes = self._window.takes
        for event in events:
            if takes(event):
                yield event
            else:
                source.leave_out(event)

    def _told_apart(self, events: Iterator[Event], source: Source) -> Iterator[Event]:
        """The events but for those that say what an earlier one says, where these are to be left out."""
        for event in events:
            if self._is_repeated(event):
                source.leave_out(event)
            else:
                yield event

    def _take_each(self, source: Source) -> None:
        """Write each event on its dates, by rule where that is asked for, and none twice."""
        from nomarium.building.spreading import Spreader

        how, report, calendars = self._how, self._report, source.calendars
        write, progress = self._target.write, self._progress
        lead = None if calendars.everywhere else how.reminder_secs
        window = self._window.also_without(source.days_off)
        spreader = Spreader(window, how.by_rule, self._zone_name, report.spread, how.withheld)
        for item in source.events():
            if not source.revises and self._is_superseded(item, source):
                source.leave_out(item)
                continue
            if how.withheld is not None and how.withheld.takes_by_uid(item):
                source.leave_out(item)
                continue
            count = 0
            for event, last_start in spreader.of(item):
                if source.revises and event.details.uid:
                    self._revised_uids.add(event.details.uid)
                if self._seen is not None and self._is_repeated(event):
                    continue
                if lead is not None:
                    event = _reminded(event, lead)
                last = last_start.date() if isinstance(last_start, dt.datetime) else last_start
                write(event, last, calendars)
                count += 1
                if progress is not None and not (report.event_count + count) & 1023:
                    progress(report.event_count + count)
            report.event_count += count
            if not count:
                source.leave_out(item)
        if (
            spreader.skipped_rows and not source.revises
        ):  # in a calendar file it has one meaning (RFC 5545, 3.3.5)
            message = (
                "A clock change skips the local time of a date of the repeat: it is moved on by the gap."
            )
            for row in spreader.skipped_rows:
                source.account.notes.append(note("time-skipped", message).at(source.place(row)))

    def _is_superseded(self, item: "Event | Series", source: Source) -> bool:
        if not isinstance(item, Event) or item.details.uid not in self._revised_uids:
            return False
        source.account.count(_SUPERSEDED.at(source.place(item.row_number)))
        return True

    def _is_repeated(self, event: Event) -> bool:
        """Whether an earlier event says the same; then it is counted, and left out when it is to be."""
        assert self._seen is not None
        key = hash((event[:6], event.details.recurrence))
        if key not in self._seen:
            self._seen.add(key)
            return False
        self._report.duplicate_count += 1
        return self._how.merge_duplicates

    def _shares(self, count: int) -> int:
        """Among how many processes the writing of this many events is worth sharing out; 1 where it cannot be."""
        how = self._how
        if not count or self._seen is not None or how.withheld is not None or self._target.shared is None:
            return 1
        from nomarium.building.sharing import can_share

        if not can_share():
            return 1
        return max(1, min(how.workers, count // how.share_from))

    def _take_shared(self, source: Source, count: int) -> None:
        """Let processes of their own write the parts of a source."""
        from nomarium.building.sharing import shared_out

        shared = self._target.shared
        assert shared is not None
        shared.prepare_sharing()

        def work(part: Source, tell: Progress) -> "tuple[object, int, SharedOut]":
            self._progress = tell
            self._take_plain(part)
            return part.clashes, self._report.event_count, shared.handed_over()

        clashes = []
        for found, written_count, written in shared_out(work, source.parts(count), self._progress):
            shared.take_over(written)
            self._report.event_count += written_count
            clashes.append(found)
        source.take_over(clashes)  # type: ignore[arg-type]

    def _take_repeats(self, source: Source) -> None:
        """Tell of rows of a source that say the same again, and of uids that two of them have."""
        identities = self._identities
        for row, uid in identities.repeated_uids:
            message = f"An earlier row has the uid “{uid}” already; two events cannot share one."
            remedy = "Give the row another uid, or leave it blank."
            problem = Problem("uid-repeated", message, remedy, source.place(row, "uid"), uid)
            source.account.problems.append(problem)
        if identities.repeated_rows:
            rows = list(dict.fromkeys(identities.repeated_rows))
            numbers = dict.fromkeys(source.place(row).row or row for row in rows)
            listed = ", ".join(map(str, [*numbers][:5])) + (
                f" and {len(rows) - 5:,} more" if len(rows) > 5 else ""
            )
            place = source.place(rows[0])
            message = (
                f"{place.unit.capitalize()}s {listed} say the same as an earlier {place.unit}; each stays an event."
                if len(rows) > 1
                else f"{place.unit.capitalize()} {listed} says the same as an earlier {place.unit}; both stay events."
            )
            remedy = "Take the repeats out if they are slips."
            source.account.notes.append(note("row-repeated", message, remedy).at(place))
        identities.repeated_uids.clear()
        identities.repeated_rows.clear()


def _reminded(event: Event, secs: int) -> Event:
    """An event with an alarm that long before it, unless it has one of its own."""
    if event.details.reminder_secs is not None:
        return event
    return event._replace(details=event.details._replace(reminder_secs=secs))
