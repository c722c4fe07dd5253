"""Events to whole calendar files (RFC 5545, 3.4), one pass, in little memory.

The bodies go to a file beside the target as they come; the head needs what only the end knows
(which zones, from when to when), so it is written last, in front of the copied bodies. A target
is replaced in one step at the very end: a failure leaves it whole.
"""

from __future__ import annotations

import datetime as dt
import os
import re
import shutil
from collections.abc import Callable, Iterator
from itertools import count
from pathlib import Path
from typing import BinaryIO, NamedTuple

from nomarium._version import VERSION
from nomarium.ical.octets import escaped, folded
from nomarium.ical.timezones import vtimezone
from nomarium.model.event import Event


class Head(NamedTuple):
    """What a calendar says of itself."""

    name: str
    color: str = ""
    method: str = ""


def head_text(head: Head, spans: dict[str, tuple[dt.date, dt.date]]) -> str:
    """The lines in front of the events; `spans` has the first and last local date in each zone."""
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", f"PRODID:-//Nomarium//Nomarium {VERSION}//EN"]
    lines.append("CALSCALE:GREGORIAN")
    if head.method:
        lines.append(f"METHOD:{head.method}")
    if head.name:
        name = escaped(head.name)
        lines += [
            f"NAME:{name}",
            f"X-WR-CALNAME:{name}",
        ]  # the second is older and more widely read
    if head.color:
        lines.append(f"COLOR:{head.color}")
    zones = sorted(zone for zone in spans if zone != "UTC")
    if len(zones) == 1:
        lines.append(f"X-WR-TIMEZONE:{zones[0]}")
    return "".join(map(folded, lines)) + "".join(vtimezone(zone, *spans[zone]) for zone in zones)


class CalendarFile:
    """One calendar file in the making: `add` blocks, then `finish`; or `discard`."""

    def __init__(self, folder: Path, head: Head, flush_at: int) -> None:
        """`flush_at` is how many characters are kept before they go to the disk."""
        self._folder = folder
        self._flush_at = flush_at
        self._head = head
        self._pieces: list[str] = []
        self._size = 0
        self._path: Path | None = None
        self.spans: dict[str, tuple[dt.date, dt.date]] = {}
        self.event_count = 0

    def add(self, event: Event, block: str) -> None:
        """Append an event's block."""
        zone = event[3]
        if zone is not None:
            span = self.spans.get(zone)
            if span is None or event[1] < span[0] or event[2] > span[1]:
                self._widen(zone, event[1], event[2])
        self.event_count += 1
        self._pieces.append(block)
        self._size += len(block)
        if self._size > self._flush_at:
            self._flush()

    def add_block(self, block: str) -> None:
        """Append a finished VEVENT."""
        self.event_count += 1
        self._pieces.append(block)
        self._size += len(block)
        if self._size > self._flush_at:
            self._flush()

    def add_earlier_block(self, block: str) -> None:
        """Append a VEVENT of an earlier build; its zone must be one that some event here has."""
        times = re.findall(r"^DT(?:START|END);TZID=\"?([^:\"]+)\"?:(\d{8})", block, re.MULTILINE)
        for zone, digits in times:
            day = dt.datetime.strptime(digits, "%Y%m%d")
            self._widen(zone, day, day)
        self.add_block(block)

    def _widen(self, zone: str, start: dt.date, end: dt.date) -> None:
        span = self.spans.get(zone)
        if span is None:
            self.spans[zone] = (start, end)
        elif start < span[0] or end > span[1]:
            self.spans[zone] = (min(start, span[0]), max(end, span[1]))

    def _flush(self) -> None:
        if self._path is None:
            self._path, file = part_file(self._folder)
            file.close()
        with self._path.open("ab") as file:
            file.write("".join(self._pieces).encode("utf-8", "replace"))
        self._pieces.clear()
        self._size = 0

    def blocks(self) -> Iterator[str]:
        """The blocks so far, in order."""
        from nomarium.ical.earlier import blocks_of

        self._flush()
        if self._path is not None:
            yield from blocks_of(self._path)

    def write_to(self, target: BinaryIO) -> None:
        """Write the whole calendar."""
        dates = {zone: (_day(first), _day(last)) for zone, (first, last) in self.spans.items()}
        target.write(head_text(self._head, dates).encode("utf-8", "replace"))
        if self._path is not None:
            with self._path.open("rb") as bodies:
                shutil.copyfileobj(bodies, target, 1 << 20)
        target.writelines(piece.encode("utf-8", "replace") for piece in self._pieces)
        target.write(b"END:VCALENDAR\r\n")

    def discard(self) -> None:
        """Remove what was written on the way."""
        self._pieces.clear()
        if self._path is not None:
            self._path.unlink(missing_ok=True)
            self._path = None


def _day(moment: dt.date) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment


def replace_file(path: Path, write: Callable[[BinaryIO], object]) -> None:
    """Write a file beside `path` and rename it into place; `write` gets the open binary file."""
    part, file = part_file(path.parent)
    try:
        with file:
            write(file)
        if path.exists():
            part.chmod(path.stat().st_mode & 0o777)
        part.replace(path)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def part_file(folder: Path) -> tuple[Path, BinaryIO]:
    """A new file in a folder, open for writing, that no other run has."""
    for number in count():
        path = folder / f".nomarium-{os.getpid()}-{number}.part"
        try:
            return path, path.open("xb", buffering=1 << 17)
        except FileExistsError:
            continue
    raise AssertionError("count() does not end")
