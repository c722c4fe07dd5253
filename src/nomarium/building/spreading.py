"""Events that repeat, spread over their dates or kept as rules; and what of all events a window takes."""

import datetime as dt
from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, NamedTuple

from nomarium.building.report import SpreadCounts
from nomarium.model.entry import Series
from nomarium.model.event import Event

if TYPE_CHECKING:
    from nomarium.building.withheld import Withheld
    from nomarium.reckoning.series import Occurrence
    from nomarium.reckoning.window import Window


class ToWrite(NamedTuple):
    """An event as it is to be written."""

    event: Event
    last_start: dt.date | dt.datetime | None = None
    """The last start of one that repeats by rule."""


class Spreader:
    """Spreads what repeats in one source, and counts."""

    def __init__(
        self,
        window: "Window",
        by_rule: bool,
        zone_name: str | None,
        counts: SpreadCounts,
        withheld: "Withheld | None",
    ) -> None:
        self._window = window
        self._by_rule = by_rule
        self._zone_name = zone_name
        self._counts = counts
        self._withheld = withheld
        self.skipped_rows: list[int] = []
        """Rows of repeats one of whose dates a clock change skips."""

    def of(self, item: Event | Series) -> Iterable[ToWrite]:
        """An event, or a series of a calendar file, on each of its dates in the window."""
        alone = item if isinstance(item, Event) else _alone(item)
        if alone is None or alone.details.recurrence is not None:
            return self._several(item)
        if self._window.takes(alone) and not (self._withheld and self._withheld.takes(alone)):
            return (ToWrite(alone),)
        return ()

    def _several(self, item: Event | Series) -> Iterator[ToWrite]:
        from nomarium.reckoning.series import dates_of
        from nomarium.reckoning.zones import zone_named

        if isinstance(item, Series):
            found = self._wanted(dates_of(item, self._window, self._zone_name))
            main = item.main
            if main is None or main.event.details.recurrence is None:
                yield from (ToWrite(one.event) for one in found)
            elif any(entry.and_following for entry in item.replacing):
                yield from self._dated(found)
            else:
                yield from self._spread(main.event, main.zone, found)
        else:
            found = self._wanted(dates_of(item, self._window, self._zone_name))
            yield from self._spread(item, zone_named(item.zone) if item.zone else None, found)

    def _wanted(self, found: "Iterator[Occurrence]") -> "Iterator[Occurrence]":
        withheld = self._withheld
        return found if withheld is None else (one for one in found if not withheld.takes(one.event))

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
        counts = self._counts
        counts.by_rule += 1
        counts.rule_dates += ruled.date_count
        yield ToWrite(ruled.event, ruled.last_start)
        if ruled.apart:
            yield from self._dated(ruled.apart)
            counts.repeating -= 1
        counts.repeating += 1

    def _dated(self, found: "Iterable[Occurrence]") -> Iterator[ToWrite]:
        count = 0
        for one in found:
            count += 1
            if one.is_skipped and one.event.row_number not in self.skipped_rows:
                self.skipped_rows.append(one.event.row_number)
            yield ToWrite(one.event)
        self._counts.dated += count
        self._counts.repeating += count > 0


def _alone(series: Series) -> Event | None:
    """The one event of a series that nothing replaces, and whose times are in a zone that can be named: most of a calendar file."""
    main = series.main
    if main is None or series.replacing or (main.zone is not None and main.event.zone is None):
        return None
    return main.event
