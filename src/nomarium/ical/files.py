"""Calendar files from disk: RFC 5545 text or jCal, told by their first bytes."""

import re
from collections.abc import Callable
from pathlib import Path

from nomarium.ical.frame import with_whole_marks
from nomarium.ical.jcal import lines_of
from nomarium.ical.reader import CalendarRead, read_calendar
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem


def is_calendar(head: bytes) -> bool:
    """Whether a file that begins so is a calendar file, of either form."""
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        head = head.decode("utf-16", "ignore").encode()
    start = with_whole_marks(b"\n" + head.removeprefix(b"\xef\xbb\xbf").lstrip()).lstrip()
    return bool(re.match(rb"(?i)begin:v(calendar|event)\s|\[\s*(\[\s*)?\"vcalendar\"", start))


def open_calendar(path: Path, name: str, zone_name: str | None = None) -> CalendarRead:
    """Read a calendar file, which messages call `name`. `zone_name` is the zone of times whose own zone
    nothing explains. Raises SourceError when it is broken as a whole."""
    dropped = list[None]()
    octets = calendar_octets(path, name, lambda: dropped.append(None))
    return read_calendar(octets, name, zone_name, len(dropped))


def calendar_octets(path: Path, name: str, drop: Callable[[], None] = lambda: None) -> bytes:
    """The file as RFC 5545 text, jCal turned into it; `drop` is told of what of it cannot be."""
    data = path.read_bytes()
    if not data.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"["):
        return data
    import json

    try:
        return "".join(lines_of(json.loads(data), drop)).encode()
    except (ValueError, RecursionError) as error:
        message = f"{name} is no whole jCal document: it was cut short or damaged."
        raise SourceError(
            Problem("source-broken", message, "Fetch or save it again.", Place(name))
        ) from error
