"""A calendar file around its events: where each VEVENT stands, the calendar's own properties, its zones."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from nomarium.ical.contentlines import Unfolder, decoded, parsed
from nomarium.ical.filezones import FileZone, Zone, ZoneNames, read_vtimezone
from nomarium.ical.octets import unescaped

_LEFT_OUT = frozenset(("VTODO", "VJOURNAL", "VFREEBUSY"))
_ONLY_BETWEEN = b"\nEND:VEVENT\nBEGIN:VEVENT"
"""What stands between the texts of two neighbouring events and nothing else."""


class Block(NamedTuple):
    """Where the text of a VEVENT is: from after its BEGIN to before its END, or to what comes instead."""

    start: int
    end: int
    is_finished: bool


class Frame:
    """What a file says around its events."""

    def __init__(self) -> None:
        self.name = ""
        self.color = ""
        self.zones = ZoneNames({}, {})
        self.default_zone: tuple[str, Zone] | None = None
        """X-WR-TIMEZONE: the zone of times that have none."""
        self.methods: list[str] = []
        """METHOD of each VCALENDAR, blank where it has none."""
        self.others = Counter[str]()
        """Components that are no events."""
        self.gone: list[str] = []
        """X-NOMARIUM-GONE: events that are not to come back when it is built again."""
        self.is_unfinished = False

    @property
    def is_cancelled(self) -> bool:
        """Whether the whole file withdraws its events (RFC 5546, 3.2.5)."""
        return bool(self.methods) and all(method == "CANCEL" for method in self.methods)


def with_plain_ends(data: bytes) -> bytes:
    """UTF-8 or Windows-1252 with LF as line ends, component names in upper case, a line end in front."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        data = data.decode("utf-16", "replace").encode()
    data = data.removeprefix(b"\xef\xbb\xbf")
    data = data.replace(b"\r\n", b"\n") if b"\n" in data else data.replace(b"\r", b"\n")
    data = b"\n" + data
    if b"\nBEGIN:VCALENDAR" not in data or _ODD_MARK.search(data):
        data = re.sub(rb"(?im)^(?:begin|end):[a-z-]+", lambda mark: mark[0].upper(), with_whole_marks(data))
    return data


_BROKEN_MARK = re.compile(
    rb"(?i)\n(?=[BE](?:[A-Z:-]*\r?\n[ \t])+[A-Z:-]*\r?(?:\n|$))[A-Z:\r\n \t-]{2,60}?(?=\r?(?:\n(?![ \t])|$))"
)
"""A line of letters, folded, that could begin or end a component."""


def with_whole_marks(data: bytes) -> bytes:
    """The same with the lines that begin or end a component in one piece, however they are folded (3.1)."""

    def whole(match: re.Match[bytes]) -> bytes:
        line = re.sub(rb"\r?\n[ \t]", b"", match[0])
        return line if re.fullmatch(rb"(?i)\n(?:BEGIN|END):[A-Z-]+", line) else match[0]

    return _BROKEN_MARK.sub(whole, data)


_ODD_MARK = re.compile(rb"\n(?:begin:|Begin:|BEGIN:v|BEGIN:Ve|end:|End:|END:v|[BEbe][A-Za-z:-]*\r?\n[ \t])")
"""Signs that a file writes where its components begin and end in other than upper case, or folds it."""


def blocks_in(data: bytes) -> Iterator[Block]:
    """Where each VEVENT is, in order."""
    begin = _line(data, b"\nBEGIN:VEVENT", 0, len(data))
    while begin >= 0:
        start = begin + 13
        following = _line(data, b"\nBEGIN:VEVENT", start, len(data))
        limit = following if following >= 0 else len(data)
        end = data.find(b"\nEND:VEVENT", start, limit)
        if end < 0:
            closing = data.find(b"\nEND:VCALENDAR", start, limit)
            yield Block(start, closing if closing >= 0 else limit, False)
        else:
            yield Block(start, end, True)
        begin = following


def _line(data: bytes, name: bytes, at: int, limit: int) -> int:
    """Where a line that is no more than `name` begins, or -1."""
    found = data.find(name, at, limit)
    while found >= 0 and data[found + len(name) : found + len(name) + 1] not in (
        b"\r",
        b"\n",
        b" ",
        b"\t",
        b"",
    ):
        found = data.find(name, found + 1, limit)
    return found


def read_frame(data: bytes, blocks: Sequence[Block], unfolded: Unfolder) -> Frame:
    """Read everything around the events."""
    frame = Frame()
    own: dict[str, FileZone] = {}
    hints: dict[str, str] = {}
    properties: list[str] = []
    zone_lines: list[str] | None = None
    depth = begun = ended = 0
    for line in _lines_around(data, blocks, unfolded):
        if line == "BEGIN:VTIMEZONE":
            zone_lines = []
        elif line == "END:VTIMEZONE" and zone_lines is not None:
            tzid, zone, hint = read_vtimezone(zone_lines)
            hints[tzid] = hint
            zone_lines = None
            if zone is not None:
                own[tzid] = zone
        elif zone_lines is not None:
            zone_lines.append(line)
        elif line.startswith("BEGIN:"):
            kind = line[6:].strip()
            if kind == "VCALENDAR":
                begun, depth = begun + 1, 0
                frame.methods.append("")
            elif kind != "VEVENT":
                if kind in _LEFT_OUT and depth == 0:
                    frame.others[kind] += 1
                depth += 1
        elif line.startswith("END:"):
            kind = line[4:].strip()
            ended += kind == "VCALENDAR"
            depth -= kind not in ("VCALENDAR", "VEVENT") and depth > 0
        elif depth == 0 and line.upper().startswith("METHOD:") and frame.methods:
            frame.methods[-1] = line[7:].strip().upper()
        elif depth == 0 and line:
            properties.append(line)
    frame.zones = ZoneNames(own, hints)
    frame.is_unfinished = begun > ended
    for line in properties:
        _take_property(frame, line)
    return frame


def _lines_around(data: bytes, blocks: Sequence[Block], unfolded: Unfolder) -> Iterator[str]:
    at = 0
    for start, end, _ in [*blocks, Block(len(data), len(data), True)]:
        gap = data[at:start]
        at = end
        if gap != _ONLY_BETWEEN:
            yield from decoded(unfolded(gap)).replace("\r", "\n").split("\n")


def _take_property(frame: Frame, line: str) -> None:
    found = parsed(line)
    if found is None:
        return
    name, value = found[0].name, unescaped(found[1]).strip()
    if name in ("NAME", "X-WR-CALNAME") and not frame.name:
        frame.name = value
    elif name == "COLOR":
        frame.color = value.casefold()
    elif name == "X-NOMARIUM-GONE":
        frame.gone.append(value)
    elif name == "X-WR-TIMEZONE":
        zone_name, zone = frame.zones.find(value)
        if zone_name and zone is not None and zone_name != "UTC":
            frame.default_zone = zone_name, zone
