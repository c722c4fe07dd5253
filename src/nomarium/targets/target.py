"""What every kind of target is to the stream that fills it: a calendar file, a folder of them, a table."""

import datetime as dt
from collections.abc import Callable
from typing import TYPE_CHECKING, NamedTuple, Protocol

from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.calendarfile import Bodies
from nomarium.targets.replacing import WrittenFile

if TYPE_CHECKING:
    from nomarium.history.revisions import Sketch


class SharedOut(NamedTuple):
    """What a worker process wrote, for the target of the whole build."""

    bodies: dict[str, Bodies]
    """By value of the split."""
    marks: tuple[list[int], list[int]]
    low: int
    high: int
    last: dt.date | None
    has_floating: bool
    met: set[str]
    new: "list[Sketch]"
    changes: dict[str, int]


class Settled(NamedTuple):
    """An event that is settled with what people changed in the calendar, as it is to be written."""

    event: Event
    uid: str
    key: str
    """What an earlier build may have it by: its UID, of a date of a series its `key_of`."""
    sequence: int
    """The least that it may have."""
    base: str
    """The line X-NOMARIUM-BASE, finished, or nothing."""
    is_moved: bool
    last_start: dt.date | None
    calendars: Calendars


class Shared(Protocol):
    """A target that processes of their own can fill, each a stretch of it."""

    def prepare_sharing(self) -> None:
        """Make the folder in which worker processes write; closing the target removes it."""

    def handed_over(self) -> SharedOut:
        """Everything so far, for `take_over` in the process that this one was copied from."""

    def take_over(self, share: SharedOut) -> None:
        """Append what a worker process wrote."""


class PlainTarget(Protocol):
    """A target of one calendar, of which no earlier build is there: an event's lines can be taken as they are."""

    def write_plain(self, zone: str | None, summary: str, day: int, body: str, row_number: int) -> None:
        """Take an event that begins and ends on this day (an ordinal), as its finished lines from DTSTART on."""


class Target(Protocol):
    """Takes events one by one and, at the end, replaces what is there in one go."""

    has_floating: bool
    """Whether some timed event is in no zone."""
    changes: dict[str, int]
    """Against an earlier build, after `finish`: new, changed, moved, unchanged, removed, cancelled."""
    untold_count: int
    """Events with properties that this kind of target cannot hold."""

    def begin(self, place: Callable[[int], Place]) -> None:
        """The events of another source begin, whose rows stand at these places."""

    def write(self, event: Event, last_start: dt.date | None = None, calendars: Calendars = BY_VALUE) -> None:
        """Take an event; `last_start` is the last date of one that repeats by rule, `calendars` says into which
        calendars of a split it goes."""

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events so far."""

    @property
    def plain(self) -> PlainTarget | None:
        """The same target for finished lines of events; None where it needs the events themselves."""

    @property
    def shared(self) -> Shared | None:
        """The same target for worker processes; None where its events cannot be shared out (any more)."""

    def finish(self) -> list[WrittenFile]:
        """Write every file and put each in its place."""

    def kept_files(self) -> list[str]:
        """Files of an earlier build beside the target's that this one did not make."""

    def close(self) -> None:
        """Remove what was written on the way."""
