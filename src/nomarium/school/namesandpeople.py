"""The Names and People tables: what codes are called, who is who."""

import re
from collections import defaultdict
from collections.abc import Iterable, Mapping
from typing import NamedTuple

from nomarium.ical.colors import CSS3_COLORS
from nomarium.model.event import Person
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import meant
from nomarium.reading.cells.choices import read_yes_no
from nomarium.reading.cells.people import read_color, read_list
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table

KINDS = ("class", "teacher", "room", "group", "label", "period", "division", "term")


class Named(NamedTuple):
    """A row of Names."""

    code: str
    name: str
    kind: str
    room: str
    keep: bool
    color: str
    categories: tuple[str, ...]
    item: Item


class Naming:
    """What codes are called. A row without a kind means everything of its code."""

    def __init__(self, rows: list[Named]) -> None:
        self._rows: dict[tuple[str, str], Named] = {}
        for row in rows:
            self._rows.setdefault((row.kind, plain(row.code)), row)
        self.kinds = {plain(row.code): row.kind for row in rows if row.kind}
        self.of_any = frozenset(plain(row.code) for row in rows if not row.kind)
        """Codes that are of no kind."""

    def of(self, kind: str, code: str) -> Named | None:
        """The row of a code as a kind."""
        key = plain(code)
        return self._rows.get((kind, key)) or self._rows.get(("", key))

    def name(self, kind: str, code: str) -> str:
        """What a code is called, itself when nothing names it."""
        row = self.of(kind, code)
        return row.name if row is not None and row.name else code


class People(NamedTuple):
    """Those whom the People table knows."""

    persons: tuple[Person, ...] = ()
    groups: dict[str, tuple[str, ...]] = {}  # noqa: RUF012 - never changed
    """Names of the members of each group (compared form)."""
    classes: dict[str, tuple[str, ...]] = {}  # noqa: RUF012 - never changed
    """Names of those who attend each class (compared form of its code)."""

    def addressed(self, person: Person) -> Person:
        """A person with the address that the table knows."""
        if person.email:
            return person
        known = next((one for one in self.persons if plain(one.name) == plain(person.name)), None)
        return person._replace(email=known.email) if known is not None else person

    def invited(self, person: Person) -> tuple[Person, ...]:
        """A person with their address; the members of a group, when it is one."""
        members = self.groups.get(plain(person.name)) if not person.email else None
        if not members:
            return (self.addressed(person),)
        return tuple(self.addressed(Person(name, "", person.optional)) for name in members)

    def names_of(self, teachers: tuple[str, ...], groups: tuple[str, ...], code: str = "") -> tuple[str, ...]:
        """The people of the table who teach something, attend its class (of this code), or are in one of its groups."""
        own = {plain(name) for name in teachers}
        found = [one.name for one in self.persons if plain(one.name) in own]
        found += self.classes.get(plain(code), ()) if code else ()
        for group in groups:
            found += self.groups.get(plain(group), ())
        return tuple(dict.fromkeys(found))


def _kind(text: str) -> str | None:
    """The kind that a cell names, blank for a blank one, None for no kind at all."""
    words = {plain(one): one for one in KINDS} | {
        "": "",
        "classe": "class",
        "course": "class",
        "salle": "room",
    }
    key = plain(text)
    return next(
        (words[form] for form in (key, key.removesuffix("s"), key.removesuffix("es")) if form in words), None
    )


def names_and_people(names: Table | None, people: Table | None) -> tuple[Naming, People, list[Problem]]:
    """Read the tables Names and People."""
    naming, problems = names_in(names, people)
    known, more = people_in(people)
    return naming, known, [*problems, *more]


def names_in(table: Table | None, people: Table | None = None) -> tuple[Naming, list[Problem]]:
    """Read the Names table, and the initials of teachers in that of people, which it need not repeat."""
    rows, problems = list[Named](), list[Problem]()
    seen: dict[tuple[str, str], Item] = {}
    for item in table.items if table else ():
        code, kind_text = item.text("code"), item.text("kind")
        if not code:
            problems.append(
                item.problem("code-missing", "code", "The row has no code.", "Give it one, or take it out.")
            )
            continue
        kind = _kind(kind_text)
        if kind is None:
            remedy = meant(kind_text, KINDS, f"Use one of {', '.join(KINDS)}, or leave it blank.")
            problems.append(
                item.problem("kind-unknown", "kind", f"“{kind_text}” is no kind of code.", remedy)
            )
            continue
        if (kind, plain(code)) in seen:
            message = f"{code} is named in row {seen[kind, plain(code)].number} already."
            problems.append(
                item.problem("name-twice", "code", message, "Keep one of the rows, or give each a kind.")
            )
            continue
        seen[kind, plain(code)] = item
        keep = read_yes_no(item.cells["keep"]) if item.text("keep") else True
        color = read_color(item.text("color"), CSS3_COLORS) if item.text("color") else ""
        for field, value in (("keep", keep), ("color", color)):
            if isinstance(value, Refusal):
                problems.append(value.problem(item.place(field), item.text(field)))
        if keep is False and kind not in ("", "class"):
            message = f"Keep is for classes, and {code} is a {kind}."
            problems.append(item.problem("keep-kind", "keep", message, "Leave the cell blank."))
        if isinstance(keep, Refusal) or isinstance(color, Refusal):
            continue
        rows.append(
            Named(
                code,
                item.text("name"),
                kind,
                item.text("room"),
                keep is not False,
                color,
                read_list(item.text("categories")),
                item,
            )
        )
    known = {plain(row.code) for row in rows if row.kind in ("", "teacher")}
    for item in people.items if people else ():
        if (code := item.text("code")) and plain(code) not in known:
            rows.append(Named(code, item.text("name"), "teacher", "", True, "", (), item))
    return Naming(rows), problems


def people_in(table: Table | None) -> tuple[People, list[Problem]]:
    """Read the People table."""
    persons, problems = list[Person](), list[Problem]()
    groups: dict[str, list[str]] = defaultdict(list)
    classes: dict[str, list[str]] = defaultdict(list)
    for item in table.items if table else ():
        name, email = item.text("name"), item.text("email").removeprefix("mailto:")
        if email and not re.fullmatch(r"[^\s@<>,;]+@[^\s@<>,;]+", email):
            problems.append(
                item.problem("address-unread", "email", f"“{email}” is not an e-mail address.", "Correct it.")
            )
            continue
        if not name:
            problems.append(item.problem("name-missing", "name", "The row has no name.", "Give it one."))
            continue
        other = next((one for one in persons if plain(one.name) == plain(name) and one.email != email), None)
        if other is not None:
            message = f"{name} has two addresses, {other.email or 'none'} and {email or 'none'}."
            problems.append(
                item.problem("name-twice", "name", message, "Keep one row, or tell the two people apart.")
            )
            continue
        persons.append(Person(name, email))
        for group in read_list(item.text("groups")):
            groups[plain(group)].append(name)
        for code in read_list(item.text("classes")):
            classes[plain(code)].append(name)
    return People(tuple(persons), _frozen(groups), _frozen(classes)), problems


def _frozen(names: dict[str, list[str]]) -> dict[str, tuple[str, ...]]:
    return {key: tuple(dict.fromkeys(found)) for key, found in names.items()}


def enrolled(
    people: People, table: Table | None, codes: Mapping[str, str], teachers: Iterable[str]
) -> tuple[People, list[Problem]]:
    """The people with those whom Enrolments puts into classes; all teachers are people then, too. `codes` are those of
    the classes that are known, by compared form."""
    if table is None:
        return people, []
    problems = list[Problem]()
    classes = {key: list(names) for key, names in people.classes.items()}
    names = {plain(one.name): one for one in people.persons}
    for item in table.items:
        person = item.text("person")
        if not person:
            problems.append(item.problem("name-missing", "person", "The row has no person.", "Give it one."))
            continue
        names.setdefault(plain(person), Person(person, ""))
        for code in read_list(item.text("class")):
            if plain(code) not in codes:
                message = f"No class has the code “{code}”."
                remedy = meant(code, list(codes.values()), "Correct it, or take the row out.")
                problems.append(item.problem("class-unknown", "class", message, remedy))
            else:
                classes.setdefault(plain(codes[plain(code)]), []).append(names[plain(person)].name)
    for teacher in teachers:
        names.setdefault(plain(teacher), Person(teacher, ""))
    return people._replace(persons=tuple(names.values()), classes=_frozen(classes)), problems
