"""A window of dates: the one test of whether an event touches it."""

import datetime as dt
from collections.abc import Container
from typing import NamedTuple

from nomarium.model.event import Event


class Window(NamedTuple):
    """Dates, both inclusive, that an event must touch; None is open. `days_off` are ordinals on which
    nothing repeats."""

    first: dt.date | None = None
    last: dt.date | None = None
    days_off: Container[int] = frozenset()

    def also_without(self, days_off: Container[int]) -> "Window":
        """The window with more days off, which may be none."""
        if not self.days_off or not days_off:
            return self._replace(days_off=self.days_off or days_off)
        return self._replace(days_off=_AnyOf(self.days_off, days_off))

    def takes(self, event: Event) -> bool:
        """Whether an event touches the window."""
        if self.first is not None and event.last_day < self.first:
            return False
        return self.last is None or event.first_day <= self.last


class _AnyOf:
    """What is in one of several sets."""

    def __init__(self, *sets: Container[int]) -> None:
        self._sets = sets

    def __contains__(self, day: object) -> bool:
        return any(day in one for one in self._sets)
