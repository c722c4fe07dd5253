"""Any source as one of invitations: its events that have guests (RFC 5546, 3.2.2)."""

from collections.abc import Iterator

from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.sources.source import Source


class Invitations(Source):
    """The events of a source to which somebody is invited; the others are left out, and counted."""

    def __init__(self, source: Source) -> None:
        self._source = source
        self.accounts = source.accounts
        self.may_repeat, self.revises, self.is_taught = source.may_repeat, source.revises, source.is_taught
        self.days_off, self.calendars, self.codes = source.days_off, source.calendars, source.codes

    def events(self) -> "Iterator[Event | Series]":
        left_count = 0
        for item in self._source.events():
            event = item.entries[0].event if isinstance(item, Series) else item
            if not event.details.attendees:
                left_count += 1
                self._source.leave_out(item)
                continue
            if event.details.organizer is None:
                self.account.problems.append(self._nameless(event))
            yield item
        self.clashes = self._source.clashes
        if left_count:
            message = f"{counted(left_count, 'event has', 'events have')} no guests: nobody is invited to {'it' if left_count == 1 else 'them'}."
            self.account.notes.append(note("guests-missing", message).at(Place(self.place(None).file)))

    def _nameless(self, event: Event) -> Problem:
        message = f"“{event.summary}” has guests and nobody who invites them."
        remedy = "Name an organizer in the row, or for all: --set organizer=ADDRESS."
        return Problem("organizer-missing", message, remedy, self.place(event.row_number, "organizer"))

    def leave_out(self, item: "Event | Series") -> None:
        self._source.leave_out(item)

    def place(self, row_number: int | None, field: str = "") -> Place:
        return self._source.place(row_number, field)

    @property
    def contradicts(self) -> bool:
        return self._source.contradicts
