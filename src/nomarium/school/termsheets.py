"""Sheets of classes that are called after a term, a day or weeks, `Autumn timetable`: their classes are held in it and in no other."""

import re
from collections.abc import Iterable, Sequence
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.school.drawnheads import days_named, week_of
from nomarium.school.plantables import Item, Table

_SEASONS: Final = frozenset("autumn fall winter spring summer michaelmas lent hilary trinity".split())
_NUMBERED: Final = rf"\b(?:terms?|semester|trimester|quarter|half|sem|{'|'.join(sorted(_SEASONS))})\s*(?:term\s*)?([1-6]|i{{1,3}}v?)\b"
_NO_NAMES: Final = r"\b(?:time ?tables?|schedules?|classes|class|lessons|courses|weekly)\b|[–—_-]"


def term_in(name: str, terms: Sequence[str]) -> str:
    """The terms of a plan that a sheet's name says, or what it says in place of one that the plan does not have; nothing where
    it says none.

    >>> term_in("Autumn timetable", ["Autumn 2026", "Spring 2027"]), term_in("Term 2 classes", ["Term 1", "Term 2"])
    ('Autumn 2026', 'Term 2')
    >>> term_in("Winter classes", ["Term 1"]), term_in("Class 3", ["Term 1"]), term_in("Term timetable", ["Term 1"])
    ('Winter', '', '')
    """
    said = fold(name)
    keys = _seasons(said) | set(re.findall(_NUMBERED, said))
    if not terms or _is_nameless(terms) or not keys or is_off(name):
        return ""
    named = [
        term
        for term in terms
        if keys <= _seasons(fold(term)) | set(re.findall(r"\b\w\b|\bi+v?\b", fold(term)))
    ]
    left = " ".join(re.sub(_NO_NAMES, " ", name, flags=re.IGNORECASE).split())
    return ", ".join(named) or left or name


def _is_nameless(terms: Sequence[str]) -> bool:
    """Whether a plan has one term, whose name says neither a season nor a number: `Term dates`, the one stretch of its classes."""
    return len(terms) == 1 and not (
        _seasons(fold(terms[0])) or re.findall(r"\b\d\b|\bi+v?\b", fold(terms[0]))
    )


def _seasons(folded: str) -> frozenset[str]:
    return _SEASONS.intersection(re.findall(r"[^\W\d_]+", folded))


def with_terms(items: Iterable[Item], terms: Sequence[str], notes: list[Problem]) -> list[Item]:
    """The rows of classes with the term that the name of their sheet says, where they say none."""
    items = list(items)
    sheets = {item.table.sheet.name: item.table.sheet for item in items if not item.text("term")}
    said = {name: term for name in sheets if (term := term_in(name, terms))}
    if not said:
        return items
    notes += [told_of(name, term).at(sheets[name].place()) for name, term in said.items()]
    found: list[Item] = []
    for item in items:
        term = "" if item.text("term") else said.get(item.table.sheet.name, "")
        found.append(item._replace(cells={**item.cells, "term": term}) if term else item)
    return found


def told_of(name: str, term: str) -> Problem:
    return note(
        "sheet-term",
        f"The classes of “{name}” are held in {term}.",
        "If not, call the sheet, or what stands over it, by another name.",
    )


def on_its_day(table: Table) -> Table:
    """Classes of a sheet that is called as a day is, `A day`, `Monday`, or as weeks are, on that day, or in those weeks, where no column says it."""
    names = days_named(table.sheet.name, frozenset(), ENGLISH)
    week = week_of(table.sheet.name)
    field, said = ("label", ", ".join(names)) if names else ("week", week)
    if not said or field in table.columns or "meets" in table.columns:
        return table
    return table._replace(items=[item._replace(cells={**item.cells, field: said}) for item in table.items])
