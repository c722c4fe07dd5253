"""Dates on which nothing repeats: lists that the person gives, and public holidays."""

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import Any

from nomarium.model.errors import UsageError
from nomarium.model.event import Event
from nomarium.model.problem import Problem

_DAY = dt.timedelta(days=1)


class DaysOff:
    """A set of days, by ordinal, that grows by a year of public holidays whenever one is asked about."""

    def __init__(
        self, days: frozenset[int] = frozenset(), calendars: "Sequence[PublicHolidays]" = ()
    ) -> None:
        self._days = days
        self._calendars = calendars

    def __contains__(self, ordinal: object) -> bool:
        if ordinal in self._days:
            return True
        return any(calendar.has(ordinal) for calendar in self._calendars)  # type: ignore[arg-type]

    def __bool__(self) -> bool:
        return bool(self._days or self._calendars)


class PublicHolidays:
    """The public holidays of one country or region."""

    def __init__(self, code: str, languages: Sequence[str] = ()) -> None:
        """`code` is ISO 3166, such as NZ, CA-NS or DE-BY. Raises UsageError when there is none such."""
        self.code = code.strip().upper()
        self._calendar = _calendar(self.code, tuple(languages))

    def has(self, ordinal: int) -> bool:
        return dt.date.fromordinal(ordinal) in self._calendar

    def events(self, first: dt.date, last: dt.date) -> Iterator[Event]:
        """Its holidays between two dates (both inclusive) as all-day events."""
        for year in range(first.year, last.year + 1):
            dt.date(year, 1, 1) in self._calendar  # noqa: B015 - asking for a day makes its year
        for day, names in sorted(self._calendar.items()):
            if first <= day <= last:
                for name in names.split("; "):
                    yield Event(name, day, day + _DAY)


def _calendar(code: str, languages: tuple[str, ...]) -> Any:
    import holidays

    country, _, region = code.partition("-")
    known = holidays.list_supported_countries(include_aliases=True)
    if country not in known:
        near = _near(country, [*known])
        raise _unknown(f"There are no public holidays for “{code}”.", near)
    regions = known[country]
    if region and region not in regions:
        near = f"Its regions are {', '.join(sorted(regions)[:20])}." if regions else "It has no regions."
        raise _unknown(f"“{country}” has no region “{region}” with public holidays of its own.", near)
    spoken = holidays.list_localized_countries(include_aliases=True).get(country, [])
    language = next((own for wanted in languages for own in spoken if _speaks(own, wanted)), None)
    language = language or next((own for own in spoken if own.startswith("en")), None)
    return holidays.country_holidays(country, subdiv=region or None, language=language)


def _speaks(own: str, wanted: str) -> bool:
    return own.replace("_", "-").casefold().split("-")[0] == wanted.replace("_", "-").casefold().split("-")[0]


def _near(country: str, known: list[str]) -> str:
    import difflib

    close = difflib.get_close_matches(country, known, n=3, cutoff=0.5)
    return "Use a country's two letters, or a region's code, such as NZ or CA-NS." + (
        f" Did you mean {' or '.join(close)}?" if close else ""
    )


def _unknown(message: str, remedy: str) -> UsageError:
    return UsageError(Problem("holidays-unknown", message, remedy))


def days_of(events: Sequence[Event]) -> frozenset[int]:
    """The ordinals of every local day that these events touch."""
    return frozenset(
        ordinal
        for event in events
        for ordinal in range(event.first_day.toordinal(), event.last_day.toordinal() + 1)
    )
