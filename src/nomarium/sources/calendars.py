"""Calendar files: the newest state of every event, each VEVENT accounted for in its own file."""

from collections.abc import Iterator, Mapping, Sequence

from nomarium.ical.merging import merged
from nomarium.ical.reader import CalendarRead
from nomarium.model.account import Account
from nomarium.model.entry import Entry, Series
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.zones import zone_named
from nomarium.sources.source import Source


class CalendarSource(Source):
    """The series whose first entry stands in one calendar file."""

    revises = True

    def __init__(self, file: str, owners: "Mapping[int, CalendarSource]", may_be_endless: bool) -> None:
        """`owners`: the source of each entry, by its id; a series may have entries of several files."""
        self.file = file
        self.accounts = (Account(file, "entries"),)
        self.series: list[Series] = []
        self._owners = owners
        self._may_be_endless = may_be_endless

    def events(self) -> Iterator[Event | Series]:
        for series in self.series:
            entries = series.entries
            if series.is_endless and not self._may_be_endless:
                for entry in entries:
                    self._owners[id(entry)].account.ledger.rejected += 1
                self.account.problems.append(self._endless(series))
                continue
            for entry in entries:
                self._owners[id(entry)].account.ledger.events += 1
            yield series

    def leave_out(self, item: Event | Series) -> None:
        for entry in item.entries if isinstance(item, Series) else ():
            self._owners[id(entry)].account.leave_out()

    def place(self, row_number: int | None, field: str = "") -> Place:
        return Place(self.file, "", row_number, "", field.upper(), "line")

    def _endless(self, series: Series) -> Problem:
        assert series.main is not None
        event = series.main.event
        message = f"“{event.summary}” repeats without an end."
        return Problem(
            "repeat-endless",
            message,
            "Say until when to read it: --until DATE.",
            self.place(event.row_number),
        )


def calendar_sources(
    calendars: Sequence[CalendarRead], options: ReadingOptions, may_be_endless: bool = False
) -> list[CalendarSource]:
    """Merge the events of calendar files: one source a file. A series without an end is refused unless
    something says until when to read it, or it `may_be_endless`."""
    may_be_endless = may_be_endless or options.last_repeat is not None
    owners: dict[int, CalendarSource] = {}
    sources, entries = [], list[Entry]()
    for calendar in calendars:
        source = CalendarSource(calendar.file, owners, may_be_endless)
        sources.append(source)
        account = source.account
        account.ledger.read = calendar.read
        account.ledger.rejected = len(calendar.problems)
        account.ledger.left_out = calendar.left_out
        account.problems += calendar.problems
        account.notes += calendar.notes
        for entry in calendar.entries:
            entry = _in_zone(entry, options.zone)
            entries.append(entry)  # held here, so that its id stays its own
            owners[id(entry)] = source
    found = merged(entries)
    for entry in found.superseded:
        owners[id(entry)].account.ledger.left_out += 1
    if found.superseded:
        count, first = len(found.superseded), found.superseded[0]
        message = f"{counted(count, 'older state')} of events with the same UID {'is' if count == 1 else 'are'} left out."
        owner = owners[id(first)]
        owner.account.notes.append(note("event-superseded", message).at(owner.place(first.event.row_number)))
    for series in found.series:
        owners[id(series.entries[0])].series.append(series)
    return sources


def _in_zone(entry: Entry, zone_name: str | None) -> Entry:
    """An entry whose floating times are in the zone that was asked for."""
    event = entry.event
    if zone_name is None or event.zone is not None or entry.zone is not None or event.is_all_day:
        return entry
    return entry._replace(event=event._replace(zone=zone_name), zone=zone_named(zone_name))
