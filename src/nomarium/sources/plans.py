"""Plans: the meetings of all classes, the plan's own lists, banners about the year."""

from collections.abc import Iterator, Mapping, Sequence
from functools import cached_property, partial

from nomarium.model.account import Account
from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.reading.layouts.layout import Reading
from nomarium.school.clashes import Clash, clashes_in, joined
from nomarium.school.events import (
    addressed,
    banners,
    codes_by_name,
    codes_of,
    days_without_school,
    meeting_events,
    meets_weekly,
    persons_of,
    shares_of,
    weekly_events,
)
from nomarium.school.plan import Plan
from nomarium.sources.lists import ListSource
from nomarium.sources.source import Calendars, Source


class MeetingSource(Source):
    """The dated meetings of a plan's classes. The rows of its tables are used for them, and are no events themselves."""

    may_repeat = False
    is_taught = True

    def __init__(
        self, plan: Plan, identity_name: str, calendars: Calendars, share: range | None = None
    ) -> None:
        self.plan = plan
        self.accounts = plan.accounts or [Account()]
        self.calendars = calendars
        self.clashes: list[Clash] = []
        self._identity_name = identity_name
        self._share = range(len(plan.meetings)) if share is None else share

    @cached_property
    def codes(self) -> Mapping[tuple[str, str], str]:  # type: ignore[override]  # made when it is asked for
        return codes_of(self.plan)

    def events(self) -> Iterator[Event | Series]:
        share = self._share
        yield from meeting_events(self.plan, self._identity_name, share)
        self.clashes = clashes_in(self.plan.meetings[share.start : share.stop])

    @property
    def size(self) -> int:
        return len(self._share)

    def parts(self, count: int) -> Sequence[Source]:
        return [
            MeetingSource(self.plan, self._identity_name, self.calendars, share)
            for share in shares_of(self.plan, count)
        ]

    def take_over(self, clashes: Sequence[Sequence[Clash]]) -> None:
        self.clashes = joined(clashes)

    def place(self, row_number: int | None, field: str = "") -> Place:
        """Where the slot of a meeting stands in the timetable; its events have the number of the slot as their row."""
        slots = self.plan.slots
        return (
            slots[row_number - 1].place if row_number and row_number <= len(slots) else Place(self.plan.file)
        )


class WeeklySource(MeetingSource):
    """The same with classes on weekdays as events that repeat."""

    may_repeat = True

    def events(self) -> Iterator[Event | Series]:
        yield from weekly_events(self.plan, self._identity_name)
        self.clashes = clashes_in(self.plan.meetings)

    def parts(self, count: int) -> Sequence[Source]:
        return [self]


class BannerSource(Source):
    """All-day events about the year itself: labels, weeks, days off."""

    may_repeat = False
    calendars = Calendars(everywhere=True)

    def __init__(self, plan: Plan, identity_name: str) -> None:
        self.accounts = (Account(),)
        self._plan = plan
        self._identity_name = identity_name

    def events(self) -> Iterator[Event | Series]:
        return banners(self._plan, self._identity_name)

    def place(self, row_number: int | None, field: str = "") -> Place:
        return Place(self._plan.file)


def plan_sources(plan: Plan, readings: Sequence[Reading], identity_name: str, by_rule: bool) -> list[Source]:
    """Everything that a plan puts on calendars; `readings` are those of its own event lists, `by_rule` keeps classes on
    weekdays as rules."""
    kind = WeeklySource if by_rule and any(map(meets_weekly, plan.slots)) else MeetingSource
    calendars = Calendars(persons_of=partial(persons_of, plan, codes_by_name(plan)))
    own = [
        ListSource(reading, days_without_school(plan), calendars, partial(addressed, plan))
        for reading in readings
    ]
    return [kind(plan, identity_name, calendars), *own, BannerSource(plan, identity_name)]
