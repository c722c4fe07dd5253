"""Events to whole calendar files (RFC 5545, 3.4), one pass, in little memory.

The bodies go to a file beside the target as they come; the head needs what only the end knows
(which zones, from when to when), so it is written last, in front of the copied bodies. A target
is replaced in one step at the very end: a failure leaves it whole.
"""

import datetime as dt
import shutil
from collections.abc import Iterable, Iterator, Mapping
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO, NamedTuple

from nomarium._version import VERSION
from nomarium.ical.octets import escaped, folded
from nomarium.ical.vtimezone import vtimezone
from nomarium.targets.replacing import part_file

if TYPE_CHECKING:
    from nomarium.history.revisions import Revision


class CalendarHead(NamedTuple):
    """What a calendar says of itself."""

    name: str
    color: str = ""
    method: str = ""
    gone: tuple[str, ...] = ()
    """Values of X-NOMARIUM-GONE (`history.settling.marks`)."""


def head_text(
    head: CalendarHead, used_zones: Iterable[str], first: dt.date, last: dt.date, has_floating: bool = False
) -> str:
    """The lines in front of events that use these zones between two dates (both inclusive).

    `has_floating`: some timed event has no zone, and must not seem to be in the calendar's.
    """
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
    lines += [f"X-NOMARIUM-GONE:{escaped(text)}" for text in head.gone]
    zones = sorted(zone for zone in used_zones if zone != "UTC")
    if len(zones) == 1 and not has_floating:
        lines.append(f"X-WR-TIMEZONE:{zones[0]}")
    return "".join(map(folded, lines)) + "".join(vtimezone(zone, first, last) for zone in zones)


class Bodies(NamedTuple):
    """The events of a calendar file in the making, as another process hands them over."""

    paths: list[Path]
    """Files of finished blocks, in order."""
    event_count: int
    zones: set[str]
    has_floating: bool


class CalendarFile:
    """One calendar file in the making: `add` blocks, then `write_to`; `discard` in any case."""

    def __init__(self, folder: Path, head: CalendarHead, flush_at: int) -> None:
        """`flush_at` is how many blocks are kept before they go to the disk."""
        self._folder = folder
        self._flush_at = flush_at
        self.head = head
        self._pieces: list[str] = []
        self._flushed_count = 0
        self._paths: list[Path] = []
        self.zones: set[str] = set()
        self.has_floating = False

    @property
    def event_count(self) -> int:
        return self._flushed_count + len(self._pieces)

    def add(self, zone: str | None, block: str) -> None:
        """Append a VEVENT whose times are in a zone."""
        if zone is not None and zone not in self.zones:
            self.zones.add(zone)
        if zone is None and not self.has_floating and "\r\nDTSTART:" in block:
            self.has_floating = True
        self._pieces.append(block)
        if len(self._pieces) >= self._flush_at:
            self._flush()

    def _flush(self) -> None:
        if not self._paths:
            path, file = part_file(self._folder)
            file.close()
            self._paths.append(path)
        with self._paths[-1].open("ab") as file:
            file.write("".join(self._pieces).encode("utf-8", "replace"))
        self._flushed_count += len(self._pieces)
        self._pieces.clear()

    def handed_over(self) -> Bodies:
        """Everything so far, for `take_over` in another process; nothing of it is removed here."""
        self._flush()
        return Bodies(self._paths, self._flushed_count, self.zones, self.has_floating)

    def take_over(self, bodies: Bodies) -> None:
        """Append the events that another process made."""
        if self._pieces:
            self._flush()
        self._paths += bodies.paths
        self._flushed_count += bodies.event_count
        self.zones |= bodies.zones
        self.has_floating |= bodies.has_floating

    def blocks(self) -> Iterator[str]:
        """The blocks so far, in order."""
        from nomarium.ical.blocks import blocks_of

        self._flush()
        for path in self._paths:
            yield from blocks_of(path)

    def write_to(self, target: BinaryIO, first: dt.date, last: dt.date) -> None:
        """Write the whole calendar; its zones are defined from the first to the last date."""
        head = head_text(self.head, self.zones, first, last, self.has_floating)
        target.write(head.encode("utf-8", "replace"))
        for path in self._paths:
            with path.open("rb") as bodies:
                shutil.copyfileobj(bodies, target, 1 << 20)
        target.write("".join(self._pieces).encode("utf-8", "replace"))
        target.write(b"END:VCALENDAR\r\n")

    def write_json_to(self, target: BinaryIO, first: dt.date, last: dt.date) -> None:
        """The same as jCal (RFC 7265), made from its text."""
        import io
        import tempfile

        from nomarium.ical.jcal import write_jcal
        from nomarium.ical.octets import unfolded_lines

        with io.TextIOWrapper(tempfile.TemporaryFile(), encoding="utf-8", newline="") as text:
            self.write_to(text.buffer, first, last)
            text.seek(0)
            out = io.TextIOWrapper(target, encoding="utf-8", newline="\n")
            write_jcal(unfolded_lines(text), out)
            out.flush()
            out.detach()

    def copy_revised(self, fresh: "CalendarFile", revisions: "Mapping[str, Revision]") -> None:
        """Copy the events into another file, some in another revision, by their UIDs."""
        from nomarium.history.revisions import sketch_of_block, with_revision

        for block in self.blocks():
            revision = revisions.get(sketch_of_block(block).uid)
            fresh.add(None, with_revision(block, revision) if revision else block)
        fresh.zones, fresh.has_floating = self.zones, self.has_floating

    def discard(self) -> None:
        """Remove what was written on the way."""
        self._pieces.clear()
        for path in self._paths:
            path.unlink(missing_ok=True)
        self._paths.clear()
