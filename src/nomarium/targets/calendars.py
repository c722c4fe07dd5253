"""Calendar files as the target: one, or one for each value of a field."""

import datetime as dt
import shutil
from collections.abc import Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO

from nomarium.ical.lines import body_writer, event_head
from nomarium.model.event import NO_DETAILS, Event
from nomarium.reckoning.window import Window
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.calendarfile import CalendarFile, CalendarHead
from nomarium.targets.closing import Closing
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import WrittenFile, part_folder, replace_file

if TYPE_CHECKING:
    from nomarium.targets.carryover import CarryOver
    from nomarium.targets.splitting import Splitter
    from nomarium.targets.target import PlainTarget, Settled, Shared, SharedOut

_EVER = Window()


class CalendarTarget(Closing):
    """Takes events one by one and, at the end, replaces the files in one go."""

    untold_count = 0

    def __init__(
        self, target: Path | BinaryIO | None, head: CalendarHead, dtstamp: str, split_by: Sequence[str], afresh: bool,
        cancel_removed: bool, identities: Identities, window: Window = _EVER, is_dry: bool = False,
    ) -> None:  # fmt: skip
        """`window`: events of an earlier build outside it are neither removed nor cancelled. `is_dry`: nothing is written."""
        self._target = target
        self._head = head
        self._dtstamp = dtstamp
        self._stamp_line = f"DTSTAMP:{dtstamp}\r\n"
        self._split_by = split_by
        self._body_of = body_writer()
        self._splitter = _splitter(split_by) if split_by else None
        self._identities = identities
        self._uid_of, self._uid_made = identities.uid_of, identities.uid_made
        self._is_dry = is_dry
        self._folder = _working_folder(None if is_dry else target, bool(split_by))
        self._shared_folder: Path | None = None
        self._parts: dict[str, CalendarFile] = {}
        self._whole = None if split_by else self._part("")
        self._everywhere: list[tuple[str | None, str]] = []
        """Zone and text of events that go into every calendar of a split."""
        self._low, self._high = dt.date.max.toordinal(), 0
        self._last: dt.date | None = None
        """The last local date that an event touches."""
        self.has_floating = False
        self.changes: dict[str, int] = {}
        self._carry: CarryOver | None = None
        if not afresh and isinstance(target, Path) and target.exists():
            from nomarium.targets.carryover import carry_over

            files = self._earlier_files(target)
            self._carry = carry_over(files, bool(split_by), dtstamp, cancel_removed, window, self.changes)

    def _part(self, value: str) -> CalendarFile:
        head = self._head._replace(name=f"{self._head.name} – {_shown(value)}") if value else self._head
        part = self._parts[value] = CalendarFile(self._folder, head, 64 if self._split_by else 256)
        return part

    def write(self, event: Event, last_start: dt.date | None = None, calendars: Calendars = BY_VALUE) -> None:
        """Take an event; `last_start` is the last date of one that repeats by rule, `calendars` says into which
        calendars of a split it goes."""
        body = self._body_of(event)
        uid = self._uid_of(event, body)
        details = event[6]
        if self._carry is not None:
            block = self._carry.block_of(event, uid, body)
        elif details is not NO_DETAILS and (details.dtstamp or details.sequence):
            block = event_head(uid, details.dtstamp or self._dtstamp, details.sequence) + body
        elif len(uid) == 36:
            block = f"BEGIN:VEVENT\r\nUID:{uid}\r\n{self._stamp_line}{body}"
        else:
            block = event_head(uid, self._dtstamp, 0) + body
        self._add(event, block, last_start, calendars)

    def write_settled(self, one: "Settled") -> None:
        """Take an event that is settled with what people changed: its UID is its own for good."""
        body = self._body_of(one.event)
        uid, sequence, dtstamp = one.uid, one.sequence, one.event.details.dtstamp or self._dtstamp
        if self._carry is not None:
            _, sequence, dtstamp = self._carry.revision_of_settled(one, body, dtstamp)
        head = event_head(uid, dtstamp, sequence)
        self._add(one.event, f"{head}{one.base}{body}", one.last_start, one.calendars)

    def keep_gone(self, texts: Sequence[str]) -> None:
        """Write down which events are not to come back."""
        self._head = self._head._replace(gone=tuple(texts))
        for part in self._parts.values():
            part.head = part.head._replace(gone=tuple(texts))

    def write_plain(self, zone: str | None, summary: str, day: int, body: str, row_number: int) -> None:
        """Take an event that begins and ends on this day (an ordinal), as its finished lines from DTSTART on."""
        uid = self._uid_made(summary, day, body, row_number)
        if day < self._low:
            self._low = day
        if day >= self._high:
            self._reach(day, dt.date.fromordinal(day))
        if zone is None:
            self.has_floating = True
        assert self._whole is not None
        self._whole.add(zone, f"BEGIN:VEVENT\r\nUID:{uid}\r\n{self._stamp_line}{body}")

    def _add(self, event: Event, block: str, last_start: dt.date | None, calendars: Calendars) -> None:
        zone = event[3]
        if zone is None and not self.has_floating:
            self.has_floating = isinstance(event[1], dt.datetime)
        if (day := event[1].toordinal()) < self._low:
            self._low = day
        if (day := event[2].toordinal()) >= self._high:
            self._reach(day, event.last_day)
        if last_start is not None:
            self._widen_to(last_start)
        if self._whole is not None:
            self._whole.add(zone, block)
        elif calendars.everywhere:
            self._everywhere.append((zone, block))
        else:
            assert self._splitter is not None
            for value in self._splitter.names_of(event, calendars):
                part = self._parts.get(value) or self._part(value)
                part.add(zone, block)

    def _reach(self, day: int, last: dt.date) -> None:
        """Let the span reach the last date of an event whose end has this number."""
        # two ends on one day can mean two last days: an all-day event's end is the day after it
        if self._last is None or last > self._last:
            self._high, self._last = day, last

    def _widen_to(self, day: dt.date) -> None:
        """Let the span, in which zones are defined, reach a date."""
        self._low = min(self._low, day.toordinal())
        if self._last is None or day > self._last:
            self._high = max(self._high, day.toordinal())
            self._last = dt.date.fromordinal(day.toordinal())

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        return (dt.date.fromordinal(self._low), self._last) if self._last is not None else None

    @property
    def plain(self) -> "PlainTarget | None":
        """Itself, where all events go into one calendar and no earlier build is there."""
        return self if self._whole is not None and self._carry is None else None

    @property
    def shared(self) -> "Shared | None":
        """Itself, as long as no event has come: only then can the next ones be shared out among processes."""
        return self if self._last is None else None

    def prepare_sharing(self) -> None:
        """Make the folder in which worker processes write; `close` removes it with all that they left."""
        self._folder = self._shared_folder = part_folder(self._folder)
        if self._whole is not None:
            self._whole = self._part("")

    def handed_over(self) -> "SharedOut":
        """Everything so far, for `take_over` in the process that this one was copied from."""
        from nomarium.targets.target import SharedOut

        bodies = {value: part.handed_over() for value, part in self._parts.items()}
        met, new = (self._carry.met, self._carry.new) if self._carry is not None else (set[str](), [])
        return SharedOut(
            bodies, self._identities.handed_over(), self._low, self._high, self._last, self.has_floating, met, new, self.changes
        )  # fmt: skip

    def take_over(self, share: "SharedOut") -> None:
        """Append what a worker process wrote."""
        for value, bodies in share.bodies.items():
            (self._parts.get(value) or self._part(value)).take_over(bodies)
        self._identities.take_over(share.marks)
        self._low = min(self._low, share.low)
        if share.last is not None and share.high >= self._high:
            self._reach(share.high, share.last)
        self.has_floating |= share.has_floating
        if self._carry is not None:
            self._carry.met |= share.met
            self._carry.new += share.new
        for what, count in share.changes.items():
            self.changes[what] = self.changes.get(what, 0) + count

    def finish(self) -> list[WrittenFile]:
        """Carry over what moved, then write every file and put each in its place."""
        if self._everywhere and not self._parts:
            self._part("everyone")
        for part in self._parts.values():
            for zone, block in self._everywhere:
                part.add(zone, block)
        names = self._file_names()
        if self._carry is not None:
            self._carry_over(self._carry, names)
        written = [
            WrittenFile(names.get(value, ""), part.event_count, _shown(value))
            for value, part in sorted(self._parts.items())
        ]
        target, days = self._target, self.span
        if target is None or days is None or self._is_dry:
            return written
        if not isinstance(target, Path):
            for part in self._parts.values():
                part.write_to(target, *days)
            return written
        if self._split_by:
            target.mkdir(parents=True, exist_ok=True)
        for value, part in self._parts.items():
            path = target / names[value] if self._split_by else target
            path.parent.mkdir(exist_ok=True)
            write = part.write_json_to if path.suffix.lower() == ".json" else part.write_to
            replace_file(path, partial(write, first=days[0], last=days[1]))
        return written

    def _carry_over(self, carry: "CarryOver", names: dict[str, str]) -> None:
        """Give events that moved or were renamed their old UIDs; keep or count those that are gone."""
        revisions = carry.revisions()
        if revisions:
            for value, part in list(self._parts.items()):
                fresh = self._part(value)
                part.copy_revised(fresh, revisions)
                part.discard()
                if self._whole is part:
                    self._whole = fresh
        by_name = {name: value for value, name in names.items()}
        for name, zone, day, block in carry.withdrawn():
            value = by_name.get(name, "") if self._split_by else ""
            if value in self._parts:
                self._parts[value].add(zone, block)
                if day is not None:
                    self._widen_to(day)

    def _file_names(self) -> dict[str, str]:
        """The name of each value's file; the target itself when nothing is split."""
        if not self._split_by:
            target = self._target
            return {"": str(target) if isinstance(target, Path) else ""}
        from nomarium.targets.splitting import file_names

        return file_names(self._parts)

    def kept_files(self) -> list[str]:
        """Calendar files of an earlier build in the folder of a split that this build did not make."""
        target = self._target
        if not self._split_by or not isinstance(target, Path) or not target.is_dir():
            return []
        from nomarium.targets.carryover import is_ours

        made = set(self._file_names().values())
        found = self._earlier_files(target).items()
        return [name for path, name in found if name not in made and is_ours(path)]

    def _earlier_files(self, target: Path) -> dict[Path, str]:
        """The files that an earlier build may have left, and their names within a split."""
        if not self._split_by:
            return {target: target.name} if target.is_file() else {}
        from nomarium.targets.splitting import found_in

        return {path: path.relative_to(target).as_posix() for path in found_in(target, self._split_by)}

    def close(self) -> None:
        """Remove what was written on the way."""
        for part in self._parts.values():
            part.discard()
        if self._shared_folder is not None:
            shutil.rmtree(self._shared_folder, ignore_errors=True)


def _splitter(fields: Sequence[str]) -> "Splitter":
    from nomarium.targets.splitting import Splitter

    return Splitter(fields)


def _shown(value: str) -> str:
    """The name of a part as people see it."""
    if not value:
        return value
    from nomarium.targets.splitting import shown

    return shown(value)


def _working_folder(target: Path | BinaryIO | None, is_split: bool) -> Path:
    """Where the bodies are kept until the end: on the disk of the target, so that a file can be renamed into it."""
    if isinstance(target, Path):
        folder = target if is_split else target.parent
        # a folder that does not exist yet is made at the end; its parent can hold the parts
        while not folder.is_dir() and folder != folder.parent:
            folder = folder.parent
        return folder
    import tempfile

    return Path(tempfile.gettempdir())
