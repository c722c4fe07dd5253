"""Names of months and weekdays in a language, and the weekday with which a week begins there."""

import datetime as dt
from typing import NamedTuple


class Names(NamedTuple):
    """What a language calls months and weekdays."""

    code: str
    """The language as HTML has it: `fr-CA`."""
    months: tuple[str, ...]
    short_months: tuple[str, ...]
    days: tuple[str, ...]
    """From Monday."""
    short_days: tuple[str, ...]
    tiny_days: tuple[str, ...]
    """Two letters each."""
    first_weekday: int
    """0 is Monday."""

    def day(self, date: dt.date, with_year: bool = False) -> str:
        """A date as a heading has it: `Tue 8 September 2026`."""
        year = f" {date.year}" if with_year else ""
        return f"{self.short_days[date.weekday()]} {date.day} {self.months[date.month - 1]}{year}"

    def short_day(self, date: dt.date) -> str:
        """A date in few letters: `Tue 8 Sep`."""
        return f"{self.short_days[date.weekday()]} {date.day} {self.short_months[date.month - 1]}"

    def month(self, date: dt.date) -> str:
        """A month as a heading has it: `September 2026`."""
        return f"{self.months[date.month - 1]} {date.year}"

    def span(self, first: dt.date, last: dt.date) -> str:
        """Two dates: `8–14 September 2026`, with what they do not share."""
        if first == last:
            return self.day(first, with_year=True)
        month = self.months[last.month - 1]
        if (first.year, first.month) == (last.year, last.month):
            return f"{first.day}–{last.day} {month} {last.year}"
        year = f" {first.year}" if first.year != last.year else ""
        return f"{first.day} {self.months[first.month - 1]}{year} – {last.day} {month} {last.year}"


def names_in(language: str, zone_name: str | None) -> Names:
    """The names of a language (`fr`); the first weekday is that of the country whose zone it is, Monday where none is."""
    from babel import Locale, UnknownLocaleError
    from babel.core import get_global

    try:
        locale = Locale.parse(language.replace("-", "_") or "en")
    except (UnknownLocaleError, ValueError):
        locale = Locale("en")
    known = get_global("zone_territories").get(zone_name) if zone_name else None
    territory = locale.territory or (known if known not in ("ZZ", "001") else None)  # neither is a country
    try:
        first = Locale.parse(f"und_{territory}").first_week_day if territory else 0
    except (UnknownLocaleError, ValueError):
        first = 0
    months, short = locale.months["stand-alone"]["wide"], locale.months["format"]["abbreviated"]
    days, short_days = locale.days["stand-alone"]["wide"], locale.days["format"]["abbreviated"]
    return Names(
        f"{locale.language}-{territory}" if territory else locale.language,
        tuple(months[n] for n in range(1, 13)),
        tuple(short[n] for n in range(1, 13)),
        tuple(days[n] for n in range(7)),
        tuple(short_days[n] for n in range(7)),
        tuple(locale.days["format"]["short"][n][:2] for n in range(7)),
        first,
    )
