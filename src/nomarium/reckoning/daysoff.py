"""Dates on which nothing repeats, by name: lists that the person gives, what goes on without an end, and public
holidays."""

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Any, Protocol

from nomarium.model.entry import Series
from nomarium.model.errors import UsageError
from nomarium.model.event import Details, Event
from nomarium.model.problem import Problem

_DAY = dt.timedelta(days=1)
_FREE = Details(busy=False)
"""A holiday is no appointment: it keeps nobody busy."""


class Growing(Protocol):
    """Days off that are worked out when they are asked about."""

    def name_of(self, ordinal: int) -> str | None: ...


class DaysOff:
    """A set of days, by ordinal."""

    def __init__(
        self, named: Mapping[int, str] = MappingProxyType({}), growing: Sequence[Growing] = ()
    ) -> None:
        """`named`: what each day is called."""
        self._named = named
        self._growing = growing

    def __contains__(self, ordinal: object) -> bool:
        return isinstance(ordinal, int) and self.name_of(ordinal) is not None

    def __bool__(self) -> bool:
        return bool(self._named or self._growing)

    def name_of(self, ordinal: int) -> str | None:
        """What a day off is called; None for any other day."""
        name = self._named.get(ordinal)
        for one in self._growing if name is None else ():
            name = one.name_of(ordinal)
            if name is not None:
                break
        return name

    def stretches(self, first: dt.date, last: dt.date) -> Iterator[tuple[str, dt.date, dt.date]]:
        """The days off between two dates (both inclusive) as (name, first, last): neighbours of one name together."""
        name, begin = None, first
        for ordinal in range(first.toordinal(), last.toordinal() + 2):
            here = self.name_of(ordinal) if ordinal <= last.toordinal() else None
            if here != name:
                date = dt.date.fromordinal(ordinal)
                if name is not None:
                    yield name, begin, date - _DAY
                name, begin = here, date


class EndlessDays:
    """The days of a series that goes on for ever, looked at as far as somebody asks."""

    def __init__(self, series: Series) -> None:
        from nomarium.reckoning.series import series_occurrences
        from nomarium.reckoning.window import Window

        self._occurrences = series_occurrences(series, Window())
        self._named: dict[int, str] = {}
        self._reached = 0

    def name_of(self, ordinal: int) -> str | None:
        while self._reached <= ordinal:
            found = next(self._occurrences, None)
            if found is None:
                break
            self._named.update(_named_days(found.event))
            self._reached = found.event.start.toordinal()
        return self._named.get(ordinal)


class PublicHolidays:
    """The public holidays of one country or region."""

    def __init__(self, code: str, languages: Sequence[str] = ()) -> None:
        """`code` is ISO 3166, such as NZ, CA-NS or DE-BY. Raises UsageError when there is none such."""
        self.code = code.strip().upper()
        self._calendar = _calendar(self.code, tuple(languages))

    def name_of(self, ordinal: int) -> str | None:
        """What the holiday of a day is called; None when it is none."""
        name: str | None = self._calendar.get(dt.date.fromordinal(ordinal))
        return name

    def events(self, first: dt.date, last: dt.date) -> Iterator[Event]:
        """Its holidays between two dates (both inclusive) as all-day events."""
        for year in range(first.year, last.year + 1):
            dt.date(year, 1, 1) in self._calendar  # noqa: B015 - asking for a day makes its year
        for day, names in sorted(self._calendar.items()):
            if first <= day <= last:
                for name in names.split("; "):
                    yield Event(name, day, day + _DAY, details=_FREE)


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


def named_days(events: Iterable[Event]) -> dict[int, str]:
    """Every local day that these events touch, by ordinal, with the title of the first that does."""
    named: dict[int, str] = {}
    for event in events:
        for ordinal, name in _named_days(event).items():
            named.setdefault(ordinal, name)
    return named


def _named_days(event: Event) -> dict[int, str]:
    first, last = event.first_day.toordinal(), event.last_day.toordinal()
    return dict.fromkeys(range(first, last + 1), event.summary)
