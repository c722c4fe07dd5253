"""What of an earlier build goes on: UIDs and revisions of its events, and those that are gone."""

import datetime as dt
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from nomarium.history.pairing import pair_moved, with_distinct_uids
from nomarium.history.revisions import (
    EarlierEvent,
    Revision,
    Sketch,
    cancelled,
    day_of_block,
    read_earlier,
    revision_of,
    sketch_of,
    sketch_of_block,
    zone_of_block,
)
from nomarium.ical.blocks import blocks_of
from nomarium.ical.lines import event_head
from nomarium.model.event import Event
from nomarium.model.uids import is_made_uid
from nomarium.reckoning.window import Window
from nomarium.reckoning.zones import zone_named

if TYPE_CHECKING:
    from nomarium.targets.target import Settled


class CarryOver:
    """Compares each event with what the earlier files had, and counts what became of it."""

    def __init__(
        self,
        files: Mapping[Path, str],
        dtstamp: str,
        cancel_removed: bool,
        window: Window,
        changes: dict[str, int],
    ) -> None:
        """`files` are those of the earlier build, with their names. What is outside the window is none of this build's business. `changes` is where it counts: new, changed,
        moved, unchanged, removed, cancelled."""
        self._files = files
        self._dtstamp = dtstamp
        self._cancel_removed = cancel_removed
        self._window = window
        self._changes = changes
        self._earlier: dict[str, EarlierEvent] = {}
        for path in files:
            self._earlier.update(read_earlier(path))
        self.met: set[str] = set()
        """UIDs of the earlier build that this one has, too."""
        self.new: list[Sketch] = []
        """Events whose UIDs the earlier build did not have, and those that have changed under a UID that was made."""
        self._removed: dict[str, tuple[str, str]] = {}

    def block_of(self, event: Event, uid: str, body: str) -> str:
        """The text of an event, in the revision that it has after the earlier build."""
        earlier, details = self._earlier.get(uid), event.details
        revision = revision_of(uid, body, earlier, details.dtstamp or self._dtstamp, details.sequence)
        if earlier is None:
            if is_made_uid(uid):  # what its source calls by another name is another event
                self.new.append(sketch_of(event, uid, body))
            self._count("new")
        else:
            self.met.add(uid)
            is_same = (revision.dtstamp, revision.sequence) == (earlier.dtstamp, earlier.sequence)
            self._count("unchanged" if is_same else "changed")
            if not is_same and is_made(event, uid):
                self.new.append(sketch_of(event, uid, body))
        return event_head(revision.uid, revision.dtstamp, revision.sequence) + body

    def revision_of_settled(self, one: "Settled", body: str, dtstamp: str) -> Revision:
        """How to write an event whose UID is settled."""
        earlier = self._earlier.get(one.key)
        revision = revision_of(one.uid, body, earlier, dtstamp, one.sequence)
        if earlier is None:
            self._count("new")
            return revision
        self.met.add(one.key)
        is_same = (revision.dtstamp, revision.sequence) == (earlier.dtstamp, earlier.sequence)
        self._count("unchanged" if is_same else "moved" if one.is_moved else "changed")
        return revision

    def _count(self, what: str, by: int = 1) -> None:
        self._changes[what] = self._changes.get(what, 0) + by

    def revisions(self) -> dict[str, Revision]:
        """By the UIDs that they have, the events that are written with another one: those that clearly are earlier
        ones which moved or changed. To be asked once, after the last event.

        A UID that was made says only that it is the second event of its title and date, say: what another event was
        before goes before that.
        """
        new = {sketch.uid: sketch for sketch in self.new}
        old: dict[str, tuple[str, str]] = {}
        """By UID: the file's name and the event's text."""
        for path in self._files if self._earlier else ():
            for block in blocks_of(path):
                sketch = sketch_of_block(block)
                uid = sketch.uid
                is_open = uid not in self.met or uid in new
                if uid in self._earlier and is_open and sketch.touches(self._window):
                    old.setdefault(uid, (self._files[path], block))
        sketches = {
            uid: sketch_of_block(block)
            for uid, (_, block) in old.items()
            if "STATUS:CANCELLED\r\n" not in block and "\r\nRECURRENCE-ID" not in block
        }
        pairs = pair_moved(sketches.values(), new.values())
        going_on = {*pairs.values(), *new}
        self._removed = {uid: place for uid, place in old.items() if uid not in going_on}
        revisions = {}
        for uid, given in with_distinct_uids(pairs, new).items():
            if uid == given:
                if uid in self.met and uid in sketches and sketches[uid].when != new[uid].when:
                    self._count("changed", -1)
                    self._count("moved")
                continue
            self._count("changed" if uid in self.met else "new", -1)
            if uid not in pairs:  # its UID has gone to the event that it belongs to
                revisions[uid] = Revision(given, 0, self._dtstamp)
                self._count("new")
                continue
            earlier, before, now = self._earlier[given], sketches[given], new[uid]
            is_same = earlier.body == now.body
            sequence = earlier.sequence + (not is_same)
            revisions[uid] = Revision(given, sequence, earlier.dtstamp if is_same else self._dtstamp)
            self._count("unchanged" if is_same else "moved" if before.when != now.when else "changed")
        return revisions

    def withdrawn(self) -> Iterator[tuple[str, str | None, dt.date | None, str]]:
        """The events that are gone and stay as cancelled: the name of their file, zone, first date and text. They
        are counted either way."""
        self._count("cancelled" if self._cancel_removed else "removed", len(self._removed))
        for name, block in self._removed.values() if self._cancel_removed else ():
            zone = zone_of_block(block)
            if zone is None or zone_named(zone) is not None:
                yield name, zone, day_of_block(block), cancelled(block, self._dtstamp)


def is_made(event: Event, uid: str) -> bool:
    """Whether an event's UID was made from what it is, so that its source does not vouch for it."""
    return not event.details.uid or (is_made_uid(uid) and not event.details.dtstamp)


def carry_over(
    files: Mapping[Path, str],
    is_split: bool,
    dtstamp: str,
    cancel_removed: bool,
    window: Window,
    changes: dict[str, int],
) -> CarryOver | None:
    """What goes on from the files of an earlier build, with their names; None when there is none."""
    if is_split:
        files = {path: name for path, name in files.items() if is_ours(path)}
    return CarryOver(files, dtstamp, cancel_removed, window, changes) if files else None


def is_ours(path: Path) -> bool:
    """Whether a calendar file was written by this program."""
    with path.open("rb") as file:
        return b"PRODID:-//Nomarium//" in file.read(1024)
