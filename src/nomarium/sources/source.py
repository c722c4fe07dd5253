"""What every kind of source is to those who take events from it: lists, calendars, plans, holidays."""

from collections.abc import Callable, Container, Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Place

if TYPE_CHECKING:
    from nomarium.model.entry import Series
    from nomarium.reading.rows.plainrows import ReaderOf
    from nomarium.school.clashes import Clash


class Calendars(NamedTuple):
    """Into which of the calendars of a split the events of a source go."""

    everywhere: bool = False
    """Into every one: they are about the year itself, not about somebody."""
    persons_of: Callable[[Event], tuple[str, ...]] | None = None
    """Whose calendars an event belongs in, where there is one a person."""


BY_VALUE = Calendars()
"""Into those of the event's own values."""


class Source:
    """A source of events with the accounts of what was read for them.

    The accounts are complete when the last event has been taken.
    """

    accounts: Sequence[Account]
    may_repeat: bool = True
    """Whether some of its events repeat or are series."""
    revises: bool = False
    """Whether its UIDs come with revisions, so that another source's event of the same UID is an older state."""
    is_taught: bool = False
    """Whether its events are the meetings of classes."""
    days_off: Container[int] = frozenset()
    """Dates (ordinals) on which nothing of it repeats, beside those of the whole build."""
    calendars: Calendars = BY_VALUE
    codes: Mapping[tuple[str, str], str] = MappingProxyType({})
    """(field, what events say in it) → the code that the source has for it."""
    names_columns: bool = False
    """Whether a template of titles can name its columns, and has been looked at when it was read."""
    clashes: "Sequence[Clash]" = ()
    """Who it puts in two places at once; known when the last event has been taken."""

    def events(self) -> "Iterator[Event | Series]":
        """The events in their order; a series is one of a calendar file, with what replaces its dates."""
        raise NotImplementedError

    def events_by(self, reader_of: "ReaderOf") -> "Iterator[Event | Series]":
        """The same, where the plain rows of a table may be read by a reader of the caller's own."""
        return self.events()

    def leave_out(self, item: "Event | Series") -> None:
        """No date of an event that was given is wanted: account for it so. Nothing to do where the events are
        not rows of the source."""

    def take_over(self, clashes: "Sequence[Sequence[Clash]]") -> None:
        """Take what its parts have found, in their order."""

    def place(self, row_number: int | None, field: str = "") -> Place:
        """Where a row is, as the person sees it; `field` is the one whose column is meant."""
        raise NotImplementedError

    @property
    def account(self) -> Account:
        """Where a note about one of its rows is written down."""
        return self.accounts[0]

    @property
    def size(self) -> int:
        """How many events it has, where that is known before and it can be parted; else 0."""
        return 0

    def parts(self, count: int) -> "Sequence[Source]":
        """The source as at most this many, which processes of their own can write."""
        return (self,)

    @property
    def contradicts(self) -> bool:
        """Whether a row has turned out to contradict what a part of its table had settled, so that the table
        must be looked at as a whole. Known when the last event has been taken."""
        return False
