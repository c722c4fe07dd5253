"""Phrases about the school year: `every Keel day`, `every A-week Monday`, `last school day of each term`."""

import datetime as dt
import re
from collections import defaultdict
from collections.abc import Callable

from nomarium.reading.cells.words import fold
from nomarium.school.codes import weekday_of
from nomarium.school.planheads import plain
from nomarium.school.year import SchoolDay, Year

DatesFrom = Callable[[dt.date], list[dt.date]]
"""From a row's date to the dates of its repeat."""

_EVERY = r"(?:on\s+)?(?:every|each|all|chaque|tous les|toutes les)\s+"
_SCHOOL_DAY = r"(?:school|teaching|class) days?|jours? (?:d'ecole|de classe|scolaires?)"


def phrase_reader(year: Year) -> Callable[[str], DatesFrom | None]:
    """What reads phrases by a year; it gives None for a phrase that is not about one."""

    def read(text: str) -> DatesFrom | None:
        phrase = " ".join(text.split()).strip(" .")
        for reader in (_school_days, _termly, _week_days, _labels):
            found = reader(phrase, year)
            if found is not None:
                return found
        return None

    return read


def _those(days: list[SchoolDay]) -> DatesFrom:
    dates = [day.date for day in days]
    return lambda begin: [date for date in dates if date >= begin]


def _school_days(phrase: str, year: Year) -> DatesFrom | None:
    text = fold(phrase)
    if re.fullmatch(rf"(?:{_EVERY})?(?:{_SCHOOL_DAY})", text):
        return _those(year.days)
    match = re.fullmatch(
        rf"(?:{_EVERY})?(?:the |le )?(first|last|premier|dernier) (?:{_SCHOOL_DAY}) (?:of |in |de |du )?(?:the |each |every |chaque )?"
        r"(month|term|week|mois|trimestre|semestre|semaine)",
        text,
    )
    if match is None:
        return None
    kind = {"mois": "month", "trimestre": "term", "semestre": "term", "semaine": "week"}.get(
        match[2], match[2]
    )
    groups: dict[object, list[SchoolDay]] = defaultdict(list)
    for day in year.days:
        key = {"month": (day.date.year, day.date.month), "term": day.term, "week": (day.term, day.week)}[kind]
        groups[key].append(day)
    at = 0 if match[1] in ("first", "premier") else -1
    return _those([days[at] for days in groups.values()])


def _termly(phrase: str, year: Year) -> DatesFrom | None:
    """In each term, on the weekday and in the week of the term that the row's date has."""
    if not re.fullmatch(
        r"termly|(?:once )?(?:every|each|a|per) term|chaque trimestre|chaque semestre", fold(phrase)
    ):
        return None

    def dates(begin: dt.date) -> list[dt.date]:
        here = next((day for day in year.days if day.date >= begin), None)
        if here is None:
            return []
        return [
            day.date
            for day in year.days
            if day.week == here.week and day.date.weekday() == here.date.weekday() and day.date >= begin
        ]

    return dates


def _week_days(phrase: str, year: Year) -> DatesFrom | None:
    weeks = {plain(day.week_label): day.week_label for day in year.days if day.week_label}
    text = re.sub(rf"(?i)^{_EVERY}", "", phrase)
    match = re.fullmatch(
        r"(?i)(?P<week>\w+)[- ]?weeks? (?P<day>\w+)|(?P<day2>\w+) (?:of|in) (?:week )?(?P<week2>\w+)(?:[- ]weeks?)?",
        text,
    )
    if match is None:
        match = re.fullmatch(r"(?i)weeks? (?P<week>\w+) (?P<day>\w+)(?P<week2>)?(?P<day2>)?", text)
    if match is None:
        return None
    week, weekday = (
        plain(match["week"] or match["week2"] or ""),
        weekday_of(match["day"] or match["day2"] or ""),
    )
    if week not in weeks or weekday is None:
        return None
    return _those(
        [day for day in year.days if plain(day.week_label) == week and day.date.weekday() == weekday]
    )


def _labels(phrase: str, year: Year) -> DatesFrom | None:
    text = re.sub(rf"(?i)^{_EVERY}", "", phrase)
    pieces = re.split(r"\s*(?:,|&|\band\b|\bet\b)\s*", text)
    labels = [_label(piece, year) for piece in pieces if piece]
    if not labels or None in labels:
        return None
    wanted = {label for label in labels if label}
    return _those([day for day in year.days if day.label in wanted])


def _label(text: str, year: Year) -> str | None:
    return year.labels.find(text) or year.labels.find(re.sub(r"(?i)\s+(?:days?|jours?)$", "", text))
