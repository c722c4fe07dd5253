"""What of an earlier build goes on: UIDs and revisions of its events, and those that are gone."""

import datetime as dt
from collections.abc import Iterator, Sequence
from pathlib import Path

from nomarium.history.pairing import pair_moved
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
from nomarium.reckoning.zones import zone_named


class CarryOver:
    """Compares each event with what the earlier files had, and counts what became of it."""

    def __init__(
        self, files: Sequence[Path], dtstamp: str, cancel_removed: bool, changes: dict[str, int]
    ) -> None:
        """`changes` is where it counts: new, changed, moved, unchanged, removed, cancelled."""
        self._files = files
        self._dtstamp = dtstamp
        self._cancel_removed = cancel_removed
        self._changes = changes
        self._earlier: dict[str, EarlierEvent] = {}
        for path in files:
            self._earlier.update(read_earlier(path))
        self.met: set[str] = set()
        """UIDs of the earlier build that this one has, too."""
        self.new: list[Sketch] = []
        """Events whose UIDs the earlier build did not have."""
        self._removed: dict[str, tuple[str, str]] = {}

    def block_of(self, event: Event, uid: str, body: str) -> str:
        """The text of an event, in the revision that it has after the earlier build."""
        if not self._earlier:
            details = event.details
            return event_head(uid, details.dtstamp or self._dtstamp, details.sequence) + body
        earlier, details = self._earlier.get(uid), event.details
        revision = revision_of(uid, body, earlier, details.dtstamp or self._dtstamp, details.sequence)
        if earlier is None:
            self.new.append(sketch_of(event, uid, body))
            self._count("new")
        else:
            self.met.add(uid)
            is_same = (revision.dtstamp, revision.sequence) == (earlier.dtstamp, earlier.sequence)
            self._count("unchanged" if is_same else "changed")
        return event_head(revision.uid, revision.dtstamp, revision.sequence) + body

    def _count(self, what: str, by: int = 1) -> None:
        self._changes[what] = self._changes.get(what, 0) + by

    def revisions(self) -> dict[str, Revision]:
        """By their new UIDs, the events that clearly are earlier ones that moved or changed: how they are written.
        To be asked once, after the last event."""
        gone: dict[str, tuple[str, str]] = {}
        """By UID: the file's name and the event's text."""
        for path in self._files if self._earlier else ():
            for block in blocks_of(path):
                uid = sketch_of_block(block).uid
                if uid in self._earlier and uid not in self.met:
                    gone.setdefault(uid, (path.name, block))
        old = {
            uid: sketch_of_block(block)
            for uid, (_, block) in gone.items()
            if "STATUS:CANCELLED\r\n" not in block
        }
        new = {sketch.uid: sketch for sketch in self.new}
        revisions = {}
        for new_uid, old_uid in pair_moved(old.values(), new.values()).items():
            earlier, before, now = self._earlier[old_uid], old[old_uid], new[new_uid]
            is_same = earlier.body == now.body  # it had this UID from a build before that one
            revisions[new_uid] = Revision(
                old_uid, earlier.sequence + (not is_same), earlier.dtstamp if is_same else self._dtstamp
            )
            del gone[old_uid]
            self._count("new", -1)
            self._count("unchanged" if is_same else "moved" if before.when != now.when else "changed")
        self._removed = gone
        return revisions

    def withdrawn(self) -> Iterator[tuple[str, str | None, dt.date | None, str]]:
        """The events that are gone and stay as cancelled: the name of their file, zone, first date and text. They
        are counted either way."""
        self._count("cancelled" if self._cancel_removed else "removed", len(self._removed))
        for name, block in self._removed.values() if self._cancel_removed else ():
            zone = zone_of_block(block)
            if zone is None or zone_named(zone) is not None:
                yield name, zone, day_of_block(block), cancelled(block, self._dtstamp)


def carry_over(
    target: Path, is_split: bool, dtstamp: str, cancel_removed: bool, changes: dict[str, int]
) -> CarryOver | None:
    """What goes on from the files of an earlier build into this target; None when there is none."""
    files = [path for path in sorted(target.glob("*.ics")) if is_ours(path)] if is_split else [target]
    files = [path for path in files if path.is_file()]
    return CarryOver(files, dtstamp, cancel_removed, changes) if files else None


def is_ours(path: Path) -> bool:
    """Whether a calendar file was written by this program."""
    with path.open("rb") as file:
        return b"PRODID:-//Nomarium//" in file.read(1024)
