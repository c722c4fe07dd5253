"""What people do to events before they publish them: pick some, say the same of all, call them otherwise.

In this order: read, `--only` and `--leave-out`, `--set`, `--override`, `--rename`, `--title`.
"""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from typing import TYPE_CHECKING

from nomarium.model.account import Account
from nomarium.model.entry import Entry, Instant, Series
from nomarium.model.event import FACETS, Event, asked_to_reply
from nomarium.model.problem import Place, Problem, note
from nomarium.model.templates import filled, names_in
from nomarium.model.values import VALUE_FIELDS, values_of
from nomarium.model.wording import counted, meant
from nomarium.reading.cells.memo import FieldValue, value_memo
from nomarium.reading.cells.titleparts import TitleParts
from nomarium.reading.options import ReadingOptions
from nomarium.school.planheads import plain
from nomarium.sources.directories import Directories
from nomarium.sources.source import Source

if TYPE_CHECKING:
    from nomarium.school.clashes import Clash

_MOST_SEEN = 1_000
_FIELDS_LISTED = f"The fields are title, {', '.join(VALUE_FIELDS)}."


def read_with(options: ReadingOptions) -> ReadingOptions:
    """How tables are read whose events are edited: a value for all rows stands in for those that are blank, and one of
    a field by which events are picked is given after that."""
    picked = {field for field, _ in (*options.only, *options.dropped)} & set(SET_FIELDS) - {"summary"}
    given = {
        field: text
        for field, text in options.overrides.items()
        if field not in SET_FIELDS or field == "summary"
    }
    defaults = {field: text for field, text in options.defaults.items() if field not in picked}
    return options._replace(defaults={**defaults, **given})


class _Pick:
    """The values of one field that an option names, and which of them some event has had."""

    def __init__(self, field: str, values: Sequence[str]) -> None:
        self.field = field
        self.values = tuple(values)
        self.met: set[str] = set()
        self.seen: dict[str, None] = {}
        """What events say in the field, to tell what may have been meant."""
        self._patterns = [(value, _pattern(value)) for value in values]
        self._known: dict[tuple[int, tuple[str, ...]], bool] = {}

    def takes(self, event: Event, codes: Mapping[tuple[str, str], str]) -> bool:
        """Whether an event has one of the values. `codes` are other names of what it says, by field and name."""
        said = values_of(event, self.field)
        key = (id(codes), said)
        found = self._known.get(key)
        if found is None:
            found = False
            texts = [plain(text) for one in said for text in (one, codes.get((self.field, one), ""))]
            for value, pattern in self._patterns:
                if any(map(pattern.fullmatch, texts)) if value else not said:
                    self.met.add(value)
                    found = True
            self._known[key] = found
            if len(self.seen) < _MOST_SEEN:
                self.seen |= dict.fromkeys(said)
        return found


def _pattern(value: str) -> re.Pattern[str]:
    """What a value matches: as codes are compared, `*` any text."""
    return re.compile(".*".join(re.escape(plain(part)) for part in value.split("*")), re.DOTALL)


class Edits:
    """What the options ask for, and which of it has met something."""

    def __init__(self, options: ReadingOptions, directories: Directories) -> None:
        self._directories = directories
        self._only = [_Pick(field, values) for field, values in _by_field(options.only).items()]
        self._dropped = [_Pick(field, values) for field, values in _by_field(options.dropped).items()]
        picked = {pick.field for pick in (*self._only, *self._dropped)} - {"summary"}
        self._filled = _read({field: text for field, text in options.defaults.items() if field in picked})
        self._when = [field for field in options.overrides if field not in SET_FIELDS]
        self._overrides = _read({f: text for f, text in options.overrides.items() if f in SET_FIELDS})
        self._renamed = {plain(old): (old, new) for old, new in options.renamed.items()}
        self._renamed_met: set[str] = set()
        self.title = options.title
        self._titled_with: set[str] = set()
        """Names in the title that have been more than blank."""
        self._is_unfit = False
        self._recipe = options.recipe_name
        self._from_recipe = options.from_recipe

    def takes(self, event: Event, source: Source) -> bool:
        """Whether an event is wanted. What is about the year itself goes with any pick of `--only`."""
        codes = source.codes
        dropped = [pick.takes(event, codes) for pick in self._dropped]  # all of them: each must see the event
        kept = [pick.takes(event, codes) for pick in self._only]
        if source.calendars.everywhere:
            return not any(dropped)
        return all(kept) and not any(dropped)

    def edited(self, event: Event, source: Source) -> Event:
        """An event that is wanted, as it is to be."""
        for field, value in self._filled.items():
            if not values_of(event, field):
                event = with_value(event, field, value)
        for field, value in self._overrides.items():
            event = with_value(event, field, value)
        if self._renamed:
            event = self._with_new_name(event, source.codes)
        return self._directories.joined(event)

    def _with_new_name(self, event: Event, codes: Mapping[tuple[str, str], str]) -> Event:
        found = self._renamed.get(plain(event.summary))
        facets = dict(event.details.facets)
        own = facets.get("class", "")
        of_class = (
            self._renamed.get(plain(own)) or self._renamed.get(plain(codes.get(("class", own), "")))
            if own
            else None
        )
        if of_class is not None:
            self._renamed_met.add(of_class[0])
            name = of_class[1].replace("{title}", own)
            categories = tuple(name if one == own else one for one in event.details.categories)
            in_title = (
                name if found is None and own not in event.summary else event.summary.replace(own, name, 1)
            )
            details = event.details._replace(
                categories=categories,
                facets=tuple((key, name if key == "class" else v) for key, v in facets.items()),
            )
            return event._replace(summary=in_title, details=details)
        if found is None:
            return event
        self._renamed_met.add(found[0])
        return event._replace(summary=found[1].replace("{title}", event.summary))

    def titled(self, event: Event, source: Source, parts: TitleParts | None) -> Event:
        """An event called as the template says; `parts` is what its row has for that."""
        if self._is_unfit:
            return event
        template, values = (parts.template, dict(parts.values)) if parts is not None else (self.title, {})
        if not template or source.calendars.everywhere or (parts is None and source.names_columns):
            return event  # of a list: a line that is no row of its table
        for name in names_in(template):
            if name not in values and name in VALUE_FIELDS:
                values[name] = ", ".join(values_of(event, name))
        self._titled_with |= {name for name, text in values.items() if text}
        title = filled(template, {**values, "title": event.summary})
        if not title:
            remedy = "Give it one of the fields that --title names, or leave it out."
            message = f"“{event.summary}” has nothing of what its title is made from."
            source.account.problems.append(
                Problem("title-empty", message, remedy, source.place(event.row_number))
            )
            return event
        return event._replace(summary=title)

    def misfits(self, sources: Sequence[Source]) -> list[Problem]:
        """What cannot be done to sources that are no lists with columns."""
        problems = []
        plain_ones = [
            source for source in sources if not source.names_columns and not source.calendars.everywhere
        ]
        unknown = [name for name in names_in(self.title) if name != "title" and name not in VALUE_FIELDS]
        self._is_unfit = bool(unknown and plain_ones)
        for name in unknown if plain_ones else ():
            place = plain_ones[0].place(None)
            message = f"--title names “{name}”, and {place.file} has no columns: only fields of its events can be named."
            problems.append(
                Problem("title-unknown", message, meant(name, VALUE_FIELDS, _FIELDS_LISTED), place)
            )
        for field in self._when if plain_ones else ():
            place = plain_ones[0].place(None)
            message = f"--override {field}= works on the rows of lists, and {place.file} is none."
            problems.append(Problem("override-unfit", message, "Leave it out.", place))
        return problems

    def unmet(self) -> tuple[list[Problem], list[Problem]]:
        """Once every event has been taken: what has met nothing, as problems, and as notes where a recipe asks."""
        problems, notes = list[Problem](), self._directories.told()
        for option, picks in (("--only", self._only), ("--leave-out", self._dropped)):
            is_recipes = option[2:].replace("-", "_") in self._from_recipe
            for pick in picks:
                found = [_unmet(option, pick, value) for value in pick.values if value not in pick.met]
                problems += () if is_recipes else found
                notes += [self._as_note(one) for one in found] if is_recipes else ()
        for name in names_in(self.title):
            if name not in self._titled_with and name != "title" and self._titled_with:
                message = f"--title names “{name}”, and no event has any."
                problems.append(Problem("title-unmet", message, "Take it out of the title."))
        for old, new in self._renamed.values():
            if old in self._renamed_met:
                continue
            message = f"No event or class is called “{old}”, and it was to be “{new}”."
            found_none = Problem("rename-unmet", message, f'Correct --rename "{old}={new}", or leave it out.')
            if old in self._from_recipe:
                notes.append(self._as_note(found_none))
            else:
                problems.append(found_none)
        return problems, notes

    def _as_note(self, problem: Problem) -> Problem:
        """What a recipe asks for in vain: it is for many files, and told."""
        return problem._replace(severity="note", remedy="", place=Place(self._recipe))


def _unmet(option: str, pick: _Pick, value: str) -> Problem:
    if not value:
        return Problem(
            "pick-unmet", f"{option} {pick.field}= meets nothing: every event has one.", "Leave it out."
        )
    message = f"{option} {pick.field}={value} meets nothing: no event has that {pick.field}."
    seen = list(pick.seen)
    shown = ", ".join(f"“{one}”" for one in seen[:5]) + (
        f" and {len(seen) - 5:,} others" if len(seen) > 5 else ""
    )
    otherwise = f"There are {shown}." if seen else f"No event has any {pick.field}."
    return Problem("pick-unmet", message, meant(value, seen, otherwise))


def _by_field(pairs: Sequence[tuple[str, str]]) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for field, value in pairs:
        found.setdefault(field, []).append(value)
    return found


SET_FIELDS = (*(field for field in VALUE_FIELDS if field != "uid"), "reminder", "geo", "rsvp")
"""The fields that `--override` gives to events of any source."""


def _read(texts: Mapping[str, str]) -> dict[str, FieldValue]:
    return {field: value_memo(field, text)[""] for field, text in texts.items()}


def with_value(event: Event, field: str, value: FieldValue) -> Event:
    """An event with the value of one of `SET_FIELDS`, as `value_memo` reads it."""
    details = event.details
    if field in ("summary", "location", "description"):
        return event._replace(**{field: value})
    if field == "timezone":
        return event if event.is_all_day else event._replace(zone=value or None)
    if field in FACETS:
        facets = {**dict(details.facets), field: value}
        ordered = tuple((name, text) for name, text in facets.items() if text)
        was_room = field == "room" and event.location in ("", dict(details.facets).get("room", ""))
        location = value if was_room else event.location
        return event._replace(location=location, details=details._replace(facets=ordered))
    if field == "rsvp":
        people = tuple(map(asked_to_reply, details.attendees)) if value else details.attendees
        return event._replace(details=details._replace(attendees=people))
    name = {"reminder": "reminder_secs"}.get(field, field)
    if field == "busy" and value == "TENTATIVE":
        return event._replace(details=details._replace(busy=True, status="TENTATIVE"))
    return event._replace(details=details._replace(**{name: value}))


def _local(original: Instant | None, entry: Entry) -> dt.date | dt.datetime | None:
    """The start that an entry of a series replaces, in the local time of the series."""
    if (
        original is None
        or original.zone is None
        or entry.zone is None
        or not isinstance(original.utc, dt.datetime)
    ):
        return original.local if original is not None else None
    return original.utc.replace(tzinfo=dt.UTC).astimezone(entry.zone).replace(tzinfo=None)


class EditedSource(Source):
    """A source with its events as they are to be; those that are not wanted are left out."""

    def __init__(self, source: Source, edits: Edits) -> None:
        self._source, self._edits = source, edits
        self.accounts: Sequence[Account] = source.accounts
        self.may_repeat, self.revises, self.is_taught = source.may_repeat, source.revises, source.is_taught
        self.days_off, self.calendars, self.codes = source.days_off, source.calendars, source.codes
        self.names_columns = source.names_columns
        self._latest: Event | Series | None = None
        """What the source itself gave last: it does not know the edited one."""

    @property
    def clashes(self) -> "Sequence[Clash]":  # type: ignore[override]  # known at the end only
        return self._source.clashes

    @property
    def contradicts(self) -> bool:
        return self._source.contradicts

    @property
    def inner(self) -> Source:
        """The source whose events are edited."""
        return self._source

    def pairs(self) -> Iterator[tuple[Event | Series, Event | Series | None]]:
        """Each event as the source gives it, and as it is to be; None for one that is not wanted."""
        for item in self._source.events():
            yield item, self._series(item) if isinstance(item, Series) else self._event(item)

    def events(self) -> Iterator[Event | Series]:
        left_out = 0
        for item, edited in self.pairs():
            self._latest = item
            if edited is None:
                left_out += 1
                self._source.leave_out(item)
            else:
                yield edited
        if left_out and (self.is_taught or self.calendars.everywhere):
            message = f"{counted(left_out, 'meeting' if self.is_taught else 'banner')} left out, as asked."
            self.account.notes.append(note("events-left-out", message).at(self.place(None)))

    def _event(self, event: Event) -> Event | None:
        parts = event.summary if isinstance(event.summary, TitleParts) else None
        if parts is not None:
            event = event._replace(summary=parts.bare)
        if not self._edits.takes(event, self):
            return None
        return self._edits.titled(self._edits.edited(event, self), self, parts)

    def _series(self, series: Series) -> Series | None:
        """A series without the dates that are not wanted; None when none is."""
        edited = {id(entry): self._event(entry.event) for entry in series.entries}
        entries = [
            entry._replace(event=event)
            for entry in series.entries
            if (event := edited[id(entry)]) is not None
        ]
        if not entries:
            return None
        if series.main is None or edited[id(series.main)] is None:
            return Series(None, tuple(entries))
        first, replacing = entries[0], entries[1:]
        gone = [_local(entry.original, first) for entry in series.replacing if edited[id(entry)] is None]
        recurrence = first.event.details.recurrence
        if gone and recurrence is not None:
            details = first.event.details._replace(
                recurrence=recurrence._replace(left_out=(*recurrence.left_out, *filter(None, gone)))
            )
            first = first._replace(event=first.event._replace(details=details))
        return Series(first, tuple(replacing))

    def leave_out(self, item: Event | Series) -> None:
        if self._latest is not None:
            self._source.leave_out(self._latest)

    def place(self, row_number: int | None, field: str = "") -> Place:
        return self._source.place(row_number, field)
