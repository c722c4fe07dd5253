"""Second tables that events are joined with by name: addresses of people, where places are."""

from collections import Counter
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.event import FACETS, Event, Person
from nomarium.model.problem import Place, Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.people import read_geo, read_url
from nomarium.school.namesandpeople import People, people_in
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table, cut_table
from nomarium.sheets.sheet import Sheet


class KnownPlace(NamedTuple):
    """A row of a table of places."""

    name: str
    address: str
    geo: tuple[float, float] | None
    url: str


class Directories:
    """The tables of `--people` and `--places`, and what they lacked."""

    def __init__(self, people: Sequence[Sheet] = (), places: Sequence[Sheet] = ()) -> None:
        self.problems: list[Problem] = []
        self._has_people, self._has_places = bool(people), bool(places)
        self._people = People()
        self._places: dict[str, KnownPlace] = {}
        for sheet in people:
            found, problems = people_in(self._table(sheet, "people"))
            self._people = People(
                self._people.persons + found.persons, {**self._people.groups, **found.groups}
            )
            self.problems += problems
        for sheet in places:
            self._read_places(self._table(sheet, "places"))
        self._unknown: dict[str, Counter[str]] = {"people": Counter(), "places": Counter()}

    def _table(self, sheet: Sheet, name: str) -> Table:
        table, problems, _ = cut_table(sheet, name)
        self.problems += problems
        return table

    def _read_places(self, table: Table) -> None:
        for item in table.items:
            name = item.text("name")
            if not name:
                self.problems.append(
                    item.problem("name-missing", "name", "The row has no name.", "Give it one.")
                )
                continue
            geo, url = _geo_of(item), read_url(item.text("url")) if item.text("url") else ""
            for field, value in (("geo", geo), ("url", url)):
                if isinstance(value, Refusal):
                    self.problems.append(value.problem(item.place(field), item.text(field)))
            if isinstance(geo, Refusal) or isinstance(url, Refusal):
                continue
            place = KnownPlace(name, item.text("address"), geo, url)
            if self._places.setdefault(plain(name), place) != place:
                message = f"“{name}” has two rows that differ."
                self.problems.append(item.problem("place-twice", "name", message, "Keep one of them."))

    def joined(self, event: Event) -> Event:
        """An event with the addresses of its people, and where its place is."""
        if self._has_people and (event.details.attendees or event.details.organizer):
            event = self._addressed(event)
        return self._placed(event) if self._has_places and event.location else event

    def _addressed(self, event: Event) -> Event:
        details = event.details
        organizer = self._people.addressed(details.organizer) if details.organizer else None
        attendees = tuple(one for person in details.attendees for one in self._invited(person))
        for person in (organizer, *attendees):
            if person is not None and not person.email:
                self._unknown["people"][person.name] += 1
        return event._replace(details=details._replace(organizer=organizer, attendees=attendees))

    def _invited(self, person: Person) -> tuple[Person, ...]:
        return tuple(one._replace(parameters=person.parameters) for one in self._people.invited(person))

    def _placed(self, event: Event) -> Event:
        place = self._places.get(plain(event.location))
        if place is None:
            self._unknown["places"][event.location] += 1
            return event
        details = event.details
        facets = {"room": event.location, **dict(details.facets)}
        ordered = tuple(
            (name, facets[name]) for name in (*FACETS, *(facets.keys() - set(FACETS))) if name in facets
        )
        location = f"{event.location}, {place.address}" if place.address else event.location
        details = details._replace(geo=details.geo or place.geo, url=details.url or place.url, facets=ordered)
        return event._replace(location=location, details=details)

    def told(self) -> list[Problem]:
        """What the tables lacked, once every event has been taken."""
        notes = []
        for what, option, lacks in (
            ("people", "--people", "has no address for"),
            ("places", "--places", "has no row for"),
        ):
            names = list(self._unknown[what])
            if names:
                some = listed(
                    [f"“{name}”" for name in names[:3]] + ([f"{len(names) - 3:,} more"] if names[3:] else [])
                )
                message = f"The table of {option} {lacks} {counted(len(names), 'name')}: {some}."
                notes.append(note(f"{what}-unknown", message).at(Place()))
        return notes


def _geo_of(item: Item) -> tuple[float, float] | Refusal | None:
    text = item.text("geo")
    if not text and item.text("latitude") and item.text("longitude"):
        text = f"{item.text('latitude')}; {item.text('longitude')}"
    return read_geo(text) if text else None
