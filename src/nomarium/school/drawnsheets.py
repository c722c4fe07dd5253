"""What the names of sheets with drawn weeks say of them, or the titles over them: in which weeks they are held, and whose they are."""

import re
from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.model.problem import Problem
from nomarium.school.cellparts import KnownParts
from nomarium.school.cellpatterns import Part
from nomarium.school.daysheets import day_of
from nomarium.school.drawncells import DrawnWeek
from nomarium.school.drawnheads import week_of, without_week
from nomarium.school.drawnowners import first_parts, of_sheet_named, said_by, says_whose, whose_by_title
from nomarium.school.planheads import plain
from nomarium.school.termsheets import term_in
from nomarium.sheets.sheet import Sheet


class Drawing(NamedTuple):
    """A sheet with a drawn week."""

    sheet: Sheet
    week: DrawnWeek
    name: str = ""
    """Whose it is, as the name of a sheet `Timetable - NAME` says."""
    base: Mapping[str, str] = MappingProxyType({})
    """What the sheet's name adds to each class."""


def with_owners(
    drawings: Sequence[Drawing], known: KnownParts, seen: Collection[Part], notes: list[Problem]
) -> Iterator[Drawing]:
    """The drawings, with what the names of their sheets add: weeks A and B, else whose each is, where there are several."""
    own = _own_titles(drawings)
    said = {one.sheet.name: one.name or own.get(one.sheet.name, one.sheet.name) for one in drawings}
    names = _telling(drawings, said)
    weeks = {name: week for name in names if (week := week_of(said[name]))} or _lettered(names)
    called = {name: bare for name in names if (bare := without_week(said[name]))}
    if weeks and len(set(called.values())) < 2:
        called = {}  # they tell weeks apart, and nothing else
    if len(drawings) == 1 and not drawings[0].name:
        called = {name: text for name, text in called.items() if term_in(text, known.terms)}
    owners = _owners(drawings, called, known, seen, notes)
    for one in drawings:
        week = weeks.get(one.sheet.name, "")
        held = [
            held._replace(week=held.week or week, whose="" if one.sheet.name in own else held.whose)
            for held in one.week.held
        ]
        base = owners.get(called.get(one.sheet.name, ""), {})
        yield one._replace(week=one.week._replace(held=held), base=base)


def _own_titles(drawings: Sequence[Drawing]) -> dict[str, str]:
    """The title over the drawing of each sheet whose name says nothing: the first that says whose it is and that not every sheet
    has, where each of these has one."""
    counts = Counter(title for one in drawings for title in {*one.week.titles})
    found: dict[str, str] = {}
    for one in drawings:
        if one.name or says_whose(one.sheet.name) or len({held.whose for held in one.week.held}) > 1:
            continue
        own = [
            bare
            for title in one.week.titles
            if counts[title] < len(drawings) and (bare := without_week(title))
        ]
        if own:
            found[one.sheet.name] = own[0]
    have_all = all(one.sheet.name in found or one.name or says_whose(one.sheet.name) for one in drawings)
    return found if have_all and len(drawings) > 1 else {}


def _telling(drawings: Sequence[Drawing], said: Mapping[str, str]) -> set[str]:
    """The sheets whose names, or titles, may say weeks or owners: not those that are called after a day."""
    are_rooms = any(re.fullmatch(r"\d{3,}", text) for text in said.values())  # 101, beside 12
    names = {name for name, text in said.items() if says_whose(text) or (are_rooms and text.isdecimal())}
    return names - {
        one.sheet.name for one in drawings if day_of(one.sheet.name, frozenset(map(plain, one.week.labels)))
    }


def _owners(
    drawings: Sequence[Drawing],
    called: Mapping[str, str],
    known: KnownParts,
    seen: Collection[Part],
    notes: list[Problem],
) -> dict[str, Mapping[str, str]]:
    """What each name adds to classes, of those that sheets are `called`: what a title says, else what `said_by` finds."""
    there = [(one, called[one.sheet.name]) for one in drawings if one.sheet.name in called]
    titled = {name: owner for one, name in there if (owner := whose_by_title(name, one.week.titles))}
    texts = first_parts((name, held.text) for one, name in there for held in one.week.held)
    untitled = {name: below for name, below in texts.items() if name not in titled}
    owners = said_by(untitled, known, seen, notes, drawings[0].sheet) if drawings else {}
    for one, name in there:
        if one.name == name and not owners.get(name):
            owners[name] = of_sheet_named(name)
    return owners | titled


def _lettered(names: set[str]) -> dict[str, str]:
    """The weeks of sheets that are called by them, `Timetable A` and `Timetable B`: letters from A on, and nothing else but
    what any sheet is called."""
    found = {
        name: match["week"].upper() for name in names if (match := re.fullmatch(_LETTERED, name.strip()))
    }
    letters = sorted(found.values())
    return found if len(letters) > 1 and letters == [*"ABCD"[: len(letters)]] else {}


_LETTERED: Final = (
    r"(?i)(?:timetable|schedule|plan|stundenplan|horaire|horario)\s*[-–:(]?\s*(?P<week>[A-D])\)?"
)
