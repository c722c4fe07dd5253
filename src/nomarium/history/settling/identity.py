"""Who is who when a calendar is settled: which event of the last build is which of this one, and what was added on both sides."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

from nomarium.history.differences import words
from nomarium.history.pairing import pair_moved, with_distinct_uids
from nomarium.history.revisions import Sketch
from nomarium.history.settling.choices import is_changed
from nomarium.history.settling.fields import FIELDS, digest_of, value_of
from nomarium.history.settling.units import Unit, as_entry, utc_text
from nomarium.model.entry import Entry
from nomarium.model.event import Event
from nomarium.model.problem import Place
from nomarium.model.uids import is_made_uid
from nomarium.sources.source import BY_VALUE, Calendars


class Coming(NamedTuple):
    """An event of the source as it comes."""

    event: Event
    uid: str
    place: Place
    calendars: Calendars = BY_VALUE
    last_start: dt.date | None = None


def identified(coming: Sequence[Coming], there: Mapping[str, Unit]) -> list[str]:
    """The UID of each event of the source: that of the event that it was at the last build, else its own.

    A UID that was made says only that it is the second event of its title and date, say: what another event was before
    goes before that, as when a calendar is built without edits.
    """
    new: dict[str, Coming] = {}
    for one in coming:
        unit = there.get(one.uid)
        if unit is None:
            is_other = is_made_uid(one.uid)  # what its source calls by another name is another event
        else:
            main = unit.main
            is_other = (
                main is not None and _is_made(one) and is_changed(main, unit.of_main, as_entry(one.event))
            )
        if is_other:
            new[one.uid] = one
    if not new:
        return [one.uid for one in coming]
    own = {one.uid for one in coming}
    old = {
        uid: unit.main
        for uid, unit in there.items()
        if unit.main is not None and not unit.of_main.is_own and (uid not in own or uid in new)
        if unit.main.event.details.status != "CANCELLED" and not uid.startswith("\0")
    }
    names = _Names(new.values())
    sketches = [_sketch(uid, main, names.said(there[uid], main)) for uid, main in old.items()]
    pairs = pair_moved(
        sketches,
        (
            _sketch(uid, as_entry(one.event), (words(one.event.summary), words(one.event.location)))
            for uid, one in new.items()
        ),
    )
    given = with_distinct_uids(pairs, new)
    return [given.get(one.uid, one.uid) for one in coming]


def _is_made(one: Coming) -> bool:
    """Whether a UID was made from what the event is, so that its source does not vouch for it."""
    details = one.event.details
    return not details.uid or (is_made_uid(one.uid) and not details.dtstamp)


class _Names:
    """What the source called things that people call otherwise, as far as it calls any so now."""

    def __init__(self, coming: Iterable[Coming]) -> None:
        self._texts: dict[str, str] = {}
        for one in coming:
            for text in (words(one.event.summary), words(one.event.location)):
                self._texts[digest_of(text)] = text

    def said(self, unit: Unit, main: Entry) -> tuple[str, str]:
        """The title and the place that the source gave a unit, nothing that any event has where that is not known."""
        base = unit.of_main.base
        summary = self._texts.get(base["summary"], "\0") if "summary" in base else words(main.event.summary)
        location = (
            self._texts.get(base["location"], "\0") if "location" in base else words(main.event.location)
        )
        return summary, location


def _sketch(uid: str, entry: Entry, said: tuple[str, str]) -> Sketch:
    start, end = (
        moment.isoformat().replace("-", "").replace(":", "")
        for moment in (entry.event.start, entry.event.end)
    )
    summary, location = said
    rest = tuple(value_of(field, entry) for field in FIELDS if field not in ("summary", "location"))
    return Sketch(uid, summary, start, end, location, hash((said, rest)))


def joined(
    ours: Mapping[str, Coming], given: Mapping[str, Unit], edited: Mapping[str, Unit]
) -> dict[str, str]:
    """By the UID of an event of the source, the UID under which the calendar has one of its title and time: people typed it
    in, too, or an application gave it another UID."""
    open_theirs = defaultdict[tuple[str, ...], list[str]](list)
    for uid, unit in edited.items():
        is_added = uid not in given or given[uid].of_main.is_own
        if uid not in ours and is_added and unit.main is not None:
            for key in _keys(unit.main):
                open_theirs[key].append(uid)
    if not open_theirs:
        return {}
    found, taken = dict[str, str](), set[str]()
    for uid, one in ours.items():
        if uid in edited:
            continue
        known = given.get(uid)
        here = known.main if known is not None and known.main is not None else as_entry(one.event)
        for key in _keys(here):
            free = next((other for other in open_theirs.get(key, ()) if other not in taken), None)
            if free is not None:
                taken.add(free)
                found[uid] = free
                break
    return found


def _keys(entry: Entry) -> list[tuple[str, ...]]:
    """What an event is known by: its title and the moment; the time on the clock where it floats."""
    title = words(entry.event.summary).casefold()
    clock = f"{entry.event.start.isoformat()}/{entry.event.end.isoformat()}"
    return [(title, "at", utc_text(entry)), (title, "clock", clock)]
