"""A calendar settled three ways (by UID): the source at the last build, the source now, and what people made of it."""

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from nomarium.history.settling.choices import Choice, Clash, Prefer, chosen, has_edits, is_changed
from nomarium.history.settling.fields import FIELDS, Field, digest_of_all, is_edit, is_plainly_same, value_of
from nomarium.history.settling.identity import Coming, identified, joined
from nomarium.history.settling.marks import NO_MARKS, OWN, Gone, Marks
from nomarium.history.settling.series import Lost, SettledDate, with_dates
from nomarium.history.settling.units import Unit, Units, as_entry, last_start_of
from nomarium.model.entry import Entry
from nomarium.model.event import Event
from nomarium.model.uids import is_made_uid
from nomarium.reckoning.series import local_original
from nomarium.reckoning.window import Window
from nomarium.sources.source import BY_VALUE, Calendars

What = Literal["kept", "added", "deleted", "returned", "refused", "joined", "dropped", "left"]


class Settled(NamedTuple):
    """An event as it is to be written."""

    event: Event
    uid: str
    sequence: int
    """The least that it may have: over what both sides had, where it is another thing than either."""
    original: dt.date | dt.datetime | None = None
    """The start that it replaces in its series."""
    marks: Marks = NO_MARKS
    calendars: Calendars = BY_VALUE
    last_start: dt.date | None = None
    is_moved: bool = False
    """Whether its time is another one than the calendar was given."""


class Told(NamedTuple):
    """What was decided about an event."""

    what: What
    event: Event
    fields: Sequence[Field] = ()


class Conflict(NamedTuple):
    """What only a person can decide."""

    event: Event
    clash: Clash | None = None
    """The field; None: the source no longer has what people changed."""
    coming: Coming | None = None
    is_first: bool = False
    """Whether nothing is known of an earlier build, so that one cannot tell whether people changed it."""


class Outcome(NamedTuple):
    """What comes of it."""

    written: list[Settled]
    gone: dict[str, Gone]
    """Events that are not to come back, by UID."""
    told: list[Told]
    conflicts: list[Conflict]


def settle(
    given: Units | None, edited: Units, coming: Sequence[Coming], prefer: Prefer, window: Window
) -> Outcome:
    """Settle a calendar. `given` is what the last build wrote, None where that is not known; what lies outside the window
    is none of this build's business."""
    found = Outcome([], dict(given.gone) if given is not None else {}, [], [])
    _Settling(given, edited, prefer, window, found).all(coming)
    return found


class _Settling:
    def __init__(
        self, given: Units | None, edited: Units, prefer: Prefer, window: Window, found: Outcome
    ) -> None:
        self.given, self.edited, self.prefer, self.window = given, edited, prefer, window
        self.found = found

    def all(self, coming: Sequence[Coming]) -> None:
        given, edited = self.given.by_uid if self.given is not None else {}, self.edited.by_uid
        gone = self.found.gone
        uids = identified(coming, {uid: unit for uid, unit in given.items() if uid not in gone} or edited)
        ours = dict(zip(uids, coming, strict=True))
        doubles = joined(ours, given, edited)
        for uid, one in ours.items():
            before = given.get(uid) if uid not in gone else None
            theirs = edited.get(uid) or edited.get(doubles.get(uid, ""))
            if theirs is None:
                self._without(uid, one, before)
            else:
                self._with(uid, one, before, theirs, is_joined=uid in doubles)
        taken = set(doubles.values())
        for uid in taken:  # it goes on under another UID, and is not to stand beside itself
            main = edited[uid].main
            if main is not None and not uid.startswith("\0"):
                gone[uid] = Gone(False, digest_of_all(main))
        for uid, unit in edited.items():
            if uid not in ours and uid not in taken:
                self._not_ours(uid, given.get(uid) if uid not in gone else None, unit)

    def _with(self, uid: str, one: Coming, before: Unit | None, theirs: Unit, is_joined: bool) -> None:
        """Source and calendar have it."""
        found, source = self.found, as_entry(one.event)
        given = before.main if before is not None else None
        known = before.of_main if before is not None else NO_MARKS
        found.gone.pop(uid, None)
        is_new = is_joined and before is None
        main = theirs.main or given  # an export of single dates says nothing of the series
        choice = (
            chosen(given, known, source, main, self.prefer, fills=is_new)
            if main is not None
            else Choice(one.event, NO_MARKS, (), (), ())
        )
        event, marks, dates = choice.event, choice.marks, list[SettledDate]()
        choices: list[Choice] = [choice]
        if main is not None and (event.details.recurrence is not None or theirs.dates):
            series = with_dates(choice, before, source, theirs._replace(main=main), self.prefer)
            event, marks, dates = series.event, series.marks, list(series.dates)
            choices += series.choices
            self._lost(series.lost, one)
            if series.has_other_dates and "repeat" not in choice.kept:
                found.told.append(Told("kept", event, ("repeat",)))
            found.told.extend(Told("refused", one.event, ("when",)) for _ in range(series.dropped))
        for made in choices:
            found.conflicts.extend(Conflict(made.event, clash, one) for clash in made.clashes)
            if made.kept:
                found.told.append(Told("kept", made.event, made.kept))
            if made.refused:
                found.told.append(Told("refused", made.event, made.refused))
        if is_joined:
            found.told.append(Told("joined", event))
        last = one.last_start if "repeat" not in choice.kept else last_start_of(event, as_entry(event).zone)
        self._write(uid, event, marks, given, theirs.main, one.calendars, last)
        for date in dates:
            was = before.dates.get(_day(date.original)) if before is not None else None
            self._write(
                uid,
                date.event,
                date.marks,
                was,
                date.edited,
                one.calendars,
                date.event.last_day,
                date.original,
            )

    def _lost(self, lost: Sequence[Lost], one: Coming) -> None:
        for date in lost:
            self.found.conflicts.append(Conflict(date.edited.event, None, one))

    def _without(self, uid: str, one: Coming, before: Unit | None) -> None:
        """The source has it, the calendar has not: it is new, or people deleted it."""
        found, source = self.found, as_entry(one.event)
        mark = found.gone.get(uid)
        if mark is not None and not mark.is_deleted:  # the source has it again
            mark = None
            found.gone.pop(uid)
        marks = NO_MARKS._replace(is_unseen=True)
        given = before.main if before is not None else None
        if given is None and mark is None:
            self._write(uid, one.event, marks, None, None, one.calendars, one.last_start)
            return
        known = before.of_main if before is not None else NO_MARKS
        is_other = (
            is_changed(given, known, source)
            if given is not None
            else mark is None or mark.digest != digest_of_all(source)
        )
        if known.is_unseen and not (known.is_back and self.prefer == "edited"):
            marks = marks._replace(is_back=known.is_back)
            if known.is_back:
                found.told.append(Told("returned", one.event))
            self._write(uid, one.event, marks, given, None, one.calendars, one.last_start)
        elif is_other and self.prefer != "edited":
            found.gone.pop(uid, None)
            found.told.append(Told("returned", one.event))
            marks = marks._replace(is_back=True)
            self._write(uid, one.event, marks, given, None, one.calendars, one.last_start)
        else:
            found.gone[uid] = Gone(True, digest_of_all(source))
            found.told.append(Told("deleted", one.event))

    def _not_ours(self, uid: str, before: Unit | None, theirs: Unit) -> None:
        """The calendar has it, the source has not: people added it, or the source dropped it."""
        found, event = self.found, theirs.shown
        if not touches(theirs, self.window):
            return
        main = theirs.main
        if before is not None and before.of_main.is_own:
            self._write_own(uid, before, theirs)
            return
        if before is not None and before.main is not None:
            is_edited = (
                main is None
                or has_edits(before.main, before.of_main, main)
                or _has_edited_dates(before, theirs)
            )
        elif uid in found.gone:
            is_edited = main is None or digest_of_all(main) != found.gone[uid].digest
        elif not is_made_uid(uid):
            self._write_own(uid, None, theirs)
            return
        else:  # an earlier build made it: dropped since, or before anything is known
            is_edited = self.given is None
        if is_edited and self.prefer == "":
            found.conflicts.append(Conflict(event, is_first=self.given is None))
        elif is_edited and self.prefer == "edited":
            self._write_own(uid, before, theirs)
        else:
            found.told.append(Told("refused" if is_edited else "dropped", event))
            if main is not None and not uid.startswith("\0"):
                found.gone[uid] = Gone(False, digest_of_all(main))

    def _write_own(self, uid: str, before: Unit | None, theirs: Unit) -> None:
        """Write what people added, as it stands."""
        self.found.told.append(Told("added", theirs.shown))
        self.found.gone.pop(uid, None)
        entries = [(None, theirs.main)] if theirs.main is not None else []
        for day, entry in (*entries, *theirs.dates.items()):
            if entry is None:
                continue
            was = None
            if before is not None:
                was = before.main if day is None else before.dates.get(day)
            original = local_original(entry) if entry.original is not None else None
            last = last_start_of(entry.event, entry.zone) or entry.event.last_day
            sequence = entry.event.details.sequence
            moved = was is not None and value_of("when", was) != value_of("when", entry)
            self.found.written.append(
                Settled(entry.event, uid, sequence, original, OWN, BY_VALUE, last, moved)
            )

    def _write(
        self, uid: str, event: Event, marks: Marks, given: Entry | None, theirs: Entry | None, calendars: Calendars,
        last: dt.date | None, original: dt.date | dt.datetime | None = None,
    ) -> None:  # fmt: skip
        now = as_entry(event)
        is_other = given is None or _differs(given, now)
        sequence = event.details.sequence
        if theirs is not None:
            is_theirs = is_plainly_same(now, theirs) or not any(
                is_edit(field, now, theirs) for field in FIELDS
            )
            if not is_theirs or (is_other and given is not None):
                sequence = max(sequence, theirs.event.details.sequence + 1)
        if given is not None and is_other:
            sequence = max(sequence, given.event.details.sequence + 1)
        moved = is_other and given is not None and value_of("when", given) != value_of("when", now)
        self.found.written.append(Settled(event, uid, sequence, original, marks, calendars, last, moved))


def touches(unit: Unit, window: Window) -> bool:
    """Whether a unit has a date in a window."""
    if window.first is None and window.last is None:
        return True
    entries = [unit.main] if unit.main is not None else []
    for entry in (*entries, *unit.dates.values()):
        event, last = entry.event, last_start_of(entry.event, entry.zone)
        if last is not None:
            end = max(_day(event.end), last) + dt.timedelta(days=1)
            event = event._replace(start=_day(event.start), end=end)
        if window.takes(event):
            return True
    return False


def _day(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment


def _differs(one: Entry, other: Entry) -> bool:
    if is_plainly_same(one, other):
        return False
    return any(value_of(field, one) != value_of(field, other) for field in FIELDS)


def _has_edited_dates(before: Unit, theirs: Unit) -> bool:
    """Whether people changed dates of a series by themselves."""
    return (
        before.dates.keys() != theirs.dates.keys()
        or any(
            has_edits(before.dates[day], before.marks.get(day, NO_MARKS), entry)
            for day, entry in theirs.dates.items()
        )
        or bool(before.dates)
    )


def told_of(told: Sequence[Told], what: What) -> Iterator[Told]:
    """What was decided in one way, each event once."""
    seen = set[tuple[str, dt.date | dt.datetime, Sequence[Field]]]()
    for one in told:
        key = one.event.summary, one.event.start, one.fields
        if one.what == what and key not in seen:
            seen.add(key)
            yield one
