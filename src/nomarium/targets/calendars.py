"""Where events go: one calendar file, or one for each value of a field; carried over from before."""

import datetime as dt
import shutil
from collections.abc import Callable
from functools import partial
from pathlib import Path
from types import TracebackType
from typing import TYPE_CHECKING, BinaryIO, NamedTuple

from nomarium.ical.lines import body_writer, head_of
from nomarium.model.event import NO_DETAILS, Event
from nomarium.reckoning.zones import zone_named
from nomarium.targets.calendarfile import Bodies, CalendarFile, Head
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import replace_file
from nomarium.targets.splitting import Splitter, file_names

if TYPE_CHECKING:
    from nomarium.history.pairing import EarlierEvent, Revision, Sketch


class WrittenFile(NamedTuple):
    """A file of a build."""

    name: str
    event_count: int
    value: str = ""
    """The value of the split field that its events have."""


class OutputShare(NamedTuple):
    """What a worker process wrote, for the output of the whole build."""

    bodies: dict[str, Bodies]
    """By value of the split."""
    marks: list[int]
    low: int
    latest: Event | None
    has_floating: bool
    met: set[str]
    new: "list[Sketch]"
    changes: dict[str, int]


class Output:
    """Takes events one by one and, at the end, replaces the files in one go."""

    def __init__(
        self, target: Path | BinaryIO | None, head: Head, dtstamp: str, split_by: str, afresh: bool,
        cancel_removed: bool,
        identities: Identities,
    ) -> None:  # fmt: skip
        self._target = target
        self._head = head
        self._dtstamp = dtstamp
        self._stamp_line = f"DTSTAMP:{dtstamp}\r\n"
        self._split_by = split_by
        self._cancel_removed = cancel_removed
        self._body_of = body_writer()
        self._values_of = Splitter(split_by).values_of
        self._identities = identities
        self._uid_of = identities.uid_of
        self._folder = self._working_folder()
        self._shared_folder: Path | None = None
        self._parts: dict[str, CalendarFile] = {}
        self._whole = None if split_by else self._part("")
        self._earlier_files = [] if afresh else self._find_earlier()
        self._earlier: dict[str, EarlierEvent] = {}
        if self._earlier_files:
            from nomarium.history.pairing import read_earlier

            for path in self._earlier_files:
                self._earlier.update(read_earlier(path))
        self._everywhere: list[tuple[str | None, str]] = []
        self._met: set[str] = set()
        self._new: list[Sketch] = []
        self._low, self._high = dt.date.max.toordinal(), 0
        self._latest: Event | None = None
        self.has_floating = False
        """Whether some timed event is in no zone."""
        self.changes: dict[str, int] = {}

    def _working_folder(self) -> Path:
        target = self._target
        if isinstance(target, Path):
            folder = target if self._split_by else target.parent
            # a folder that does not exist yet is made at the end; its parent can hold the parts
            while not folder.is_dir() and folder != folder.parent:
                folder = folder.parent
            return folder
        import tempfile

        return Path(tempfile.gettempdir())

    def _find_earlier(self) -> list[Path]:
        target = self._target
        if not isinstance(target, Path):
            return []
        if not self._split_by:
            return [target] if target.is_file() else []
        return [path for path in sorted(target.glob("*.ics")) if _is_ours(path)]

    def _part(self, value: str) -> CalendarFile:
        head = self._head._replace(name=f"{self._head.name} – {value}") if value else self._head
        part = self._parts[value] = CalendarFile(self._folder, head, 64 if self._split_by else 1_000)
        return part

    def write(
        self, event: Event, last_start: dt.date | None = None, everywhere: bool = False,
        persons_of: Callable[[Event], tuple[str, ...]] | None = None,
    ) -> None:  # fmt: skip
        """Take an event; `last_start` is the last date of one that repeats by rule. `everywhere` puts it into
        every file of a split, `persons_of` says whose calendars it belongs in."""
        body = self._body_of(event)
        uid = self._uid_of(event, body)
        details = event[6]
        if self._earlier:
            block = self._revised(event, uid, body)
        elif details is not NO_DETAILS and (details.dtstamp or details.sequence):
            block = head_of(uid, details.dtstamp or self._dtstamp, details.sequence) + body
        elif len(uid) == 36:
            block = f"BEGIN:VEVENT\r\nUID:{uid}\r\n{self._stamp_line}{body}"
        else:
            block = head_of(uid, self._dtstamp, 0) + body
        if event[3] is None and not self.has_floating:
            self.has_floating = isinstance(event[1], dt.datetime)
        if (day := event[1].toordinal()) < self._low:
            self._low = day
        if (day := event[2].toordinal()) >= self._high:
            self._reach(day, event)
        if last_start is not None:
            self._widen_to(last_start)
        if self._whole is not None:
            self._whole.add(event[3], block)
            return
        if everywhere:
            self._everywhere.append((event[3], block))
            return
        if self._split_by == "person":
            values = (persons_of(event) if persons_of else ()) or ("no person",)
        else:
            values = self._values_of(event)
        for value in values:
            part = self._parts.get(value) or self._part(value)
            part.add(event[3], block)

    def _reach(self, day: int, event: Event) -> None:
        """Take an event whose end has this number for the latest, unless another touches a later day."""
        # two ends on one day can mean two last days: an all-day event's end is the day after it
        if day > self._high or self._latest is None or event.last_day > self._latest.last_day:
            self._high, self._latest = day, event

    def _widen_to(self, day: dt.date) -> None:
        """Let the span, in which zones are defined, reach a date."""
        self._low = min(self._low, day.toordinal())
        if self._latest is None or day > self._latest.last_day:
            self._high = max(self._high, day.toordinal())
            self._latest = Event("", dt.date.fromordinal(day.toordinal()), day + dt.timedelta(days=1))

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        return (dt.date.fromordinal(self._low), self._latest.last_day) if self._latest else None

    def _revised(self, event: Event, uid: str, body: str) -> str:
        from nomarium.history.pairing import revision_of, sketch_of

        earlier = self._earlier.get(uid)
        details = event.details
        revision = revision_of(uid, body, earlier, details.dtstamp or self._dtstamp, details.sequence)
        if earlier is None:
            self._new.append(sketch_of(event, uid, body))
            self._tally("new")
        else:
            self._met.add(uid)
            self._tally("unchanged" if revision.dtstamp == earlier.dtstamp and
                        revision.sequence == earlier.sequence else "changed")  # fmt: skip
        return head_of(revision.uid, revision.dtstamp, revision.sequence) + body

    def _tally(self, what: str, by: int = 1) -> None:
        self.changes[what] = self.changes.get(what, 0) + by

    @property
    def is_empty(self) -> bool:
        """Whether no event has come yet: only then can the next ones be shared out among processes."""
        return self._latest is None

    def prepare_sharing(self) -> None:
        """Make the folder in which worker processes write; `close` removes it with all that they left."""
        import tempfile

        self._folder = self._shared_folder = Path(tempfile.mkdtemp(".part", ".nomarium-", self._folder))
        if self._whole is not None:
            self._whole = self._part("")

    def handed_over(self) -> OutputShare:
        """Everything so far, for `take_over` in the process that this one was copied from."""
        bodies = {value: part.handed_over() for value, part in self._parts.items()}
        return OutputShare(
            bodies, self._identities.handed_over(), self._low, self._latest, self.has_floating,
            self._met, self._new, self.changes,
        )  # fmt: skip

    def take_over(self, share: OutputShare) -> None:
        """Append what a worker process wrote."""
        for value, bodies in share.bodies.items():
            (self._parts.get(value) or self._part(value)).take_over(bodies)
        self._identities.take_over(share.marks)
        self._low = min(self._low, share.low)
        if share.latest is not None and (day := share.latest.end.toordinal()) >= self._high:
            self._reach(day, share.latest)
        self.has_floating |= share.has_floating
        self._met |= share.met
        self._new += share.new
        for what, count in share.changes.items():
            self._tally(what, count)

    def finish(self) -> list[WrittenFile]:
        """Carry over what moved, then write every file and put each in its place."""
        if self._everywhere and not self._parts:
            self._part("everyone")
        for part in self._parts.values():
            for zone, block in self._everywhere:
                part.add(zone, block)
        names = self._file_names()
        if self._earlier:
            self._carry_over(names)
        written = [
            WrittenFile(names.get(value, ""), part.event_count, value)
            for value, part in sorted(self._parts.items())
        ]
        target, days = self._target, self.span
        if target is None or days is None:
            return written
        if not isinstance(target, Path):
            for part in self._parts.values():
                part.write_to(target, *days)
            return written
        if self._split_by:
            target.mkdir(parents=True, exist_ok=True)
        for value, part in self._parts.items():
            path = target / names[value] if self._split_by else target
            write = partial(_write_json if path.suffix.lower() == ".json" else CalendarFile.write_to, part)
            replace_file(path, lambda file, write=write: write(file, *days))  # type: ignore[misc]
        return written

    def _file_names(self) -> dict[str, str]:
        """The name of each value's file; the target itself when nothing is split."""
        if not self._split_by:
            target = self._target
            return {"": str(target) if isinstance(target, Path) else ""}
        return file_names(self._parts)

    def _carry_over(self, names: dict[str, str]) -> None:
        """Give events that moved or were renamed their old UIDs; keep or count those that are gone."""
        from nomarium.history.pairing import (
            Revision,
            cancelled,
            day_of_block,
            pair_moved,
            sketch_of_block,
            zone_of_block,
        )
        from nomarium.ical.blocks import blocks_of

        gone: dict[str, tuple[str, str]] = {}
        for path in self._earlier_files:
            for block in blocks_of(path):
                sketch = sketch_of_block(block)
                if sketch.uid in self._earlier and sketch.uid not in self._met:
                    gone.setdefault(sketch.uid, (path.name, block))
        sketches = [
            sketch_of_block(block) for _, block in gone.values() if "STATUS:CANCELLED\r\n" not in block
        ]
        moved = pair_moved(sketches, self._new)
        if moved:
            bodies = {sketch.uid: sketch.body for sketch in self._new}
            revisions = {}
            for new, old in moved.items():
                earlier = self._earlier[old]
                is_same = earlier.body == bodies[new]  # it had this UID from a build before that one
                revisions[new] = Revision(
                    old, earlier.sequence + (not is_same), earlier.dtstamp if is_same else self._dtstamp
                )
                self._tally("new", -1)
                self._tally("unchanged" if is_same else "moved")
            for value, part in list(self._parts.items()):
                self._parts[value] = self._rewritten(value, part, revisions)
        removed = {uid: place for uid, place in gone.items() if uid not in set(moved.values())}
        if not self._cancel_removed:
            self._tally("removed", len(removed))
            return
        self._tally("cancelled", len(removed))
        by_name = {name: value for value, name in names.items()}
        for name, block in removed.values():
            value = by_name.get(name, "") if self._split_by else ""
            if value in self._parts:
                zone = zone_of_block(block)
                if zone is None or zone_named(zone) is not None:
                    self._parts[value].add(zone, cancelled(block, self._dtstamp))
                    if day := day_of_block(block):
                        self._widen_to(day)

    def _rewritten(self, value: str, part: CalendarFile, revisions: "dict[str, Revision]") -> CalendarFile:
        from nomarium.history.pairing import sketch_of_block, with_revision

        fresh = self._part(value)
        for block in part.blocks():
            revision = revisions.get(sketch_of_block(block).uid)
            fresh.add(None, with_revision(block, revision) if revision else block)
        fresh.zones, fresh.has_floating = part.zones, part.has_floating
        part.discard()
        if self._whole is part:
            self._whole = fresh
        return fresh

    def kept_files(self) -> list[str]:
        """Calendar files of an earlier build in the folder of a split that this build did not make."""
        target = self._target
        if not self._split_by or not isinstance(target, Path) or not target.is_dir():
            return []
        made = set(self._file_names().values())
        return [
            path.name for path in sorted(target.glob("*.ics")) if path.name not in made and _is_ours(path)
        ]

    def close(self) -> None:
        """Remove what was written on the way."""
        for part in self._parts.values():
            part.discard()
        if self._shared_folder is not None:
            shutil.rmtree(self._shared_folder, ignore_errors=True)

    def __enter__(self) -> "Output":
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.close()


def _write_json(part: CalendarFile, target: BinaryIO, first: dt.date, last: dt.date) -> None:
    """Write a calendar as jCal, from its text."""
    import io
    import tempfile

    from nomarium.ical.jcal import write_jcal
    from nomarium.ical.octets import unfolded_lines

    with io.TextIOWrapper(tempfile.TemporaryFile(), encoding="utf-8", newline="") as text:
        part.write_to(text.buffer, first, last)
        text.seek(0)
        out = io.TextIOWrapper(target, encoding="utf-8", newline="\n")
        write_jcal(unfolded_lines(text), out)
        out.flush()
        out.detach()


def _is_ours(path: Path) -> bool:
    with path.open("rb") as file:
        return b"PRODID:-//Nomarium//" in file.read(1024)
