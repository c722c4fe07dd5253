"""The VEVENTs of a calendar file as they stand, one by one."""

from collections.abc import Iterable, Iterator
from pathlib import Path

from nomarium.model.errors import SourceError


def blocks_of(path: Path) -> Iterator[str]:
    """The VEVENTs of a calendar file as text, one by one, with CRLF line ends; none of a file that is no
    calendar."""
    if path.suffix.lower() == ".json":
        from nomarium.ical.files import calendar_octets

        try:
            yield from _blocks(calendar_octets(path, path.name).decode("utf-8", "replace").split("\n"))
        except SourceError:
            return
        return
    with path.open(encoding="utf-8", errors="replace", newline="") as lines:
        yield from _blocks(lines)


def blocks_in_text(text: str) -> Iterator[str]:
    """The same of a calendar that is not in a file."""
    return _blocks(text.split("\n"))


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
