"""Events that are there twice, and times that a clock change skips or repeats."""

import datetime as dt
from collections.abc import Callable, Iterator

from nomarium.checking.finding import Finding, Party, party
from nomarium.model.event import Event
from nomarium.reckoning.zones import change_dates, local_time_kind, zone_named


class Doubles:
    """Takes events one by one and finds those with one title, time and place under different UIDs."""

    def __init__(self, where: Callable[[int, int], str]) -> None:
        self._where = where
        self._first: dict[int, tuple[str, int, int]] = {}
        """What an event says, as a number → the UID, source and row of the first one."""
        self._found: dict[tuple[str, str], list[tuple[dt.date, Party, Party]]] = {}

    def take(self, event: Event, source: int) -> None:
        """Take an event of a source, by its number."""
        if event.details.status == "CANCELLED":
            return
        place = " ".join(event.location.casefold().split())
        key = hash((event.summary, event.start, event.end, event.zone, place))
        here = (event.details.uid, source, event.row_number)
        first = self._first.setdefault(key, here)
        if first is here or (first[0] and first[0] == here[0]):
            return
        one = party(event, self._where(first[1], first[2]))._replace(uid=first[0])
        other = party(event, self._where(source, event.row_number))
        self._found.setdefault((event.summary, place), []).append((event.first_day, one, other))

    def findings(self) -> Iterator[Finding]:
        """Each title and place once, with all dates."""
        for (summary, _), met in self._found.items():
            dates = tuple(sorted({day for day, _, _ in met}))
            more = f", and on {len(dates) - 1} more" if len(dates) > 1 else ""
            message = f"“{summary}” is there twice at the same time and place on {dates[0]}{more}."
            yield Finding("duplicate", "", dates, met[0][1:], message)


class ClockChanges:
    """Takes events one by one and finds those whose local times a clock change skips or repeats."""

    def __init__(self, where: Callable[[int, int], str]) -> None:
        self._where = where
        self._found: list[Finding] = []
        self._near: dict[tuple[int, int], Event] = {}
        """Events on dates of clock changes, by source and row."""

    def take(self, event: Event, source: int, is_skipped: bool = False) -> None:
        """Take an event; `is_skipped`: a repeat gave it a time that does not exist, so that it was moved on."""
        start, zone = event.start, zone_named(event.zone) if event.zone and event.zone != "UTC" else None
        if (
            zone is None
            or not isinstance(start, dt.datetime)
            or start.date() not in change_dates(zone, start.year)
        ):
            return
        kind = "skipped" if is_skipped else local_time_kind(start, zone)
        if kind == "plain" and isinstance(event.end, dt.datetime):
            kind = local_time_kind(event.end, zone)
        if kind == "plain":
            self._near[source, event.row_number] = event
            return
        self._take(event, source, kind)

    def take_moved(self, source: int, row: int | None) -> None:
        """Take a row whose time does not exist, so that its event was moved on when it was read."""
        event = self._near.get((source, row or 0))
        if event is not None:
            self._take(event, source, "skipped")

    def _take(self, event: Event, source: int, kind: str) -> None:
        said = (
            "happens twice: the first is taken"
            if kind == "repeated"
            else "does not exist: it is moved on by the gap"
        )
        message = f"On {event.first_day} the clock changes, and a time of “{event.summary}” {said}."
        found = party(event, self._where(source, event.row_number))
        self._found.append(Finding(f"clock-{kind}", "", (event.first_day,), (found,), message))

    def findings(self) -> list[Finding]:
        """Each event once."""
        return self._found
