"""Public holidays as events of their own."""

import datetime as dt
from collections.abc import Iterator, Sequence

from nomarium.model.account import Account
from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.reckoning.daysoff import PublicHolidays
from nomarium.sources.source import Calendars, Source


class HolidaySource(Source):
    """The public holidays of some countries or regions between two dates (both inclusive), each once."""

    may_repeat = False
    calendars = Calendars(everywhere=True)

    def __init__(self, holidays: Sequence[PublicHolidays], first: dt.date, last: dt.date) -> None:
        self.accounts = (Account(),)
        self._holidays = holidays
        self._first, self._last = first, last

    def events(self) -> Iterator[Event | Series]:
        found = (event for one in self._holidays for event in one.events(self._first, self._last))
        return iter(dict.fromkeys(found))

    def place(self, row_number: int | None, field: str = "") -> Place:
        return Place("--public-holidays")
