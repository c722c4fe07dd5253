"""Events that repeat, spread over their dates or kept as rules; and what of all events a window takes."""

import datetime as dt
from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.event import Event
from nomarium.reckoning.zones import zone_named

if TYPE_CHECKING:
    from nomarium.model.entry import Series
    from nomarium.reckoning.series import Occurrence, Window


class ToWrite(NamedTuple):
    """An event as it is to be written."""

    event: Event
    last_start: dt.date | dt.datetime | None = None
    """The last start of one that repeats by rule."""


class Spreader:
    """Spreads what repeats, and counts."""

    def __init__(self, window: "Window", by_rule: bool, zone_name: str | None) -> None:
        self._window = window
        self._by_rule = by_rule
        zone = zone_named(zone_name) if zone_name else None
        self._to_zone = (zone_name, zone) if zone_name and zone else None
        self.repeating_count = 0
        """Events of the source that repeat and have a date in the window."""
        self.dated_count = 0
        """Dated events that they became."""
        self.rule_count = 0
        """Events that were kept as a rule."""
        self.rule_date_count = 0
        """Dates that those rules stand for."""
        self.skipped_rows: list[int] = []
        """Rows of repeats one of whose dates a clock change skips."""

    def of_event(self, event: Event) -> Iterator[ToWrite]:
        """An event of a table on each of its dates in the window."""
        from nomarium.reckoning.series import occurrences

        zone = zone_named(event.zone) if event.zone else None
        if event.details.recurrence is None:
            if self._window.takes(event):
                yield ToWrite(event)
            return
        yield from self._spread(event, zone, occurrences(event, zone, self._window, self._to_zone))

    def of_series(self, series: "Series") -> Iterator[ToWrite]:
        """A series of a calendar file on each of its dates in the window."""
        from nomarium.reckoning.series import series_occurrences

        main = series.main
        found = series_occurrences(series, self._window, self._to_zone)
        is_moved = any(entry.and_following for entry in series.replacing)
        if main is None or main.event.details.recurrence is None:
            yield from (ToWrite(one.event) for one in found)
        elif is_moved:
            yield from self._dated(found)
        else:
            yield from self._spread(main.event, main.zone, found)

    def _spread(
        self, event: Event, zone: dt.tzinfo | None, found: "Iterable[Occurrence]"
    ) -> Iterator[ToWrite]:
        if not self._by_rule:
            yield from self._dated(found)
            return
        from nomarium.reckoning.asrule import as_rule

        listed = list(found)
        ruled = as_rule(event, zone, listed)
        if ruled is None:
            yield from self._dated(listed)
            return
        self.rule_count += 1
        self.rule_date_count += ruled.date_count
        yield ToWrite(ruled.event, ruled.last_start)
        if ruled.apart:
            yield from self._dated(ruled.apart)
            self.repeating_count -= 1
        self.repeating_count += 1

    def _dated(self, found: "Iterable[Occurrence]") -> Iterator[ToWrite]:
        count = 0
        for one in found:
            count += 1
            if one.is_skipped and one.event.row_number not in self.skipped_rows:
                self.skipped_rows.append(one.event.row_number)
            yield ToWrite(one.event)
        self.dated_count += count
        self.repeating_count += count > 0
