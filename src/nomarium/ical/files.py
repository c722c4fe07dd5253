"""Calendar files from disk: RFC 5545 text or jCal, told by their first bytes."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from pathlib import Path

from nomarium.ical.jcal import lines_of
from nomarium.ical.reader import CalendarRead, read_calendar
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem


def is_calendar(head: bytes) -> bool:
    """Whether a file that begins so is a calendar file, of either form."""
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        head = head.decode("utf-16", "ignore").encode()
    start = head.removeprefix(b"\xef\xbb\xbf").lstrip()
    return bool(re.match(rb"(?i)begin:v(calendar|event)\s|\[\s*(\[\s*)?\"vcalendar\"", start))


def open_calendar(path: Path, name: str) -> CalendarRead:
    """Read a calendar file, which messages call `name`. Raises SourceError when it is broken as a whole."""
    return read_calendar(calendar_octets(path, name), name)


def calendar_octets(path: Path, name: str) -> bytes:
    """The file as RFC 5545 text, jCal turned into it."""
    data = path.read_bytes()
    if not data.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"["):
        return data
    import json

    try:
        return "".join(lines_of(json.loads(data))).encode()
    except (ValueError, RecursionError) as error:
        message = f"{name} is no whole jCal document: it was cut short or damaged."
        raise SourceError(
            Problem("source-broken", message, "Fetch or save it again.", Place(name))
        ) from error


def blocks_of(path: Path) -> Iterator[str]:
    """The VEVENTs of a calendar file as text, one by one, with CRLF line ends; none of a file that is no
    calendar."""
    try:
        is_json = path.suffix.lower() == ".json"
        file = calendar_octets(path, path.name).decode("utf-8", "replace").splitlines() if is_json else None
    except SourceError:
        return
    if file is not None:
        yield from _blocks(file)
        return
    with path.open(encoding="utf-8", errors="replace", newline="") as lines:
        yield from _blocks(lines)


def _blocks(lines: Iterable[str]) -> Iterator[str]:
    found: list[str] = []
    inside = False
    for raw in lines:
        line = raw.rstrip("\r\n")
        if line == "BEGIN:VEVENT":
            inside, found = True, []
        if inside:
            found.append(line)
            if line == "END:VEVENT":
                inside = False
                yield "\r\n".join(found) + "\r\n"
