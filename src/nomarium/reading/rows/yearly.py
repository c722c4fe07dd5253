"""Birthdays and anniversaries: dates that come back every year."""

import datetime as dt
import re
from calendar import isleap
from typing import TYPE_CHECKING

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.table import TableReading

if TYPE_CHECKING:
    from nomarium.model.recurrence import Rule

_YEARLY = (
    r"\b(?:birthdays?|(?:wedding |work )?anniversar(?:y|ies)|anniversaires?|geburtstage?|jahrestage?|cumpleanos|aniversarios?|"
    r"verjaardag(?:en)?|compleann[oi]|date of birth|birth ?date|dob|d\.o\.b|geburtsdatum|geboren(?: am)?|geboortedatum|date de naissance|"
    r"ne(?:\(e\)|e|\.e)? le|fecha de nacimiento|data di nascita|nat[oa] il|data de nascimento|fodelse(?:dag|datum)(?:ar)?|fodselsda[gt]o?|"
    r"f[oø]dsels(?:dag|dato)|urodziny|data urodzenia|syntymapaiva|narozeniny|datum narozeni)\b"
)

_LEAP_YEAR = 2024

_SIGNS = (
    "birth",
    "nivers",
    "annivers",
    "geburt",
    "geboren",
    "jahrest",
    "cumple",
    "verjaar",
    "complean",
    "dob",
    "d.o.b",
    "geboorte",
    "naissance",
    "nacimiento",
    "ne le",
    "nee le",
    "ne(e) le",
    "ne.e le",
    "nasci",
    "nato il",
    "nata il",
    "fodels",
    "dsels",
    "urodz",
    "syntym",
    "naroze",
)
"""One of them is in each of these words: the pattern is compiled when it is needed."""


def is_yearly(heading: str) -> bool:
    """Whether a column's dates come back every year, as its heading says.

    >>> is_yearly("Birthday"), is_yearly("Date de l'anniversaire"), is_yearly("Date")
    (True, True, False)
    """
    folded = fold(heading)
    return any(sign in folded for sign in _SIGNS) and re.search(_YEARLY, folded) is not None


def yearly_heading(reading: TableReading) -> str:
    """The heading of a table's dates, where these come back every year; else nothing."""
    date = reading.column("date") or reading.column("when")
    return date.heading if date is not None and is_yearly(date.heading) else ""


def any_year(first_day: dt.date | None) -> tuple[dt.date, dt.date]:
    """A year in which a day may be set that comes back every year, and that has each of them: not after the first day asked for."""
    year = (first_day.year if first_day is not None else _LEAP_YEAR) // 4 * 4
    year -= 4 * (not isleap(year))
    return dt.date(year, 1, 1), dt.date(year, 12, 31)


def yearly_rule(heading: str, first: dt.date, last_day: dt.date | None) -> "Rule | Refusal":
    """Every year from the first date to the last day asked for; the 29th of February is the last day of that month."""
    from nomarium.model.recurrence import Rule

    if last_day is None:
        message = (
            f"“{heading}” comes back every year, and nothing says from when and until when it is wanted."
        )
        return Refusal("repeat-endless", message, "Say both: --from 2026-09-01 --until 2027-08-31.")
    if (first.month, first.day) == (2, 29):
        return Rule("YEARLY", until=last_day, months=(2,), month_days=(-1,))
    return Rule("YEARLY", until=last_day)
