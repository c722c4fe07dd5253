"""Places that other lines of a text show to be places: `Lunch – Canteen` where `Canteen` is one elsewhere, or where most lines end with
one behind the same sign."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.placewords import NO_PLACE, is_place
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.textlines import TextLine
from nomarium.sheets.sheet import Row

_MOST_OF_PLACE: Final = 3
"""Words of a line below an event that is where it is."""
_LEAST: Final = 3
"""Lines with a place behind a sign from which on another one has its place there, too."""
_TIMES_MORE: Final = 2
"""How many times as many they are as those in which nothing shows it."""
_ENDS: Final = re.compile(
    r"^(?P<title>.*[^\s,–—(-])(?:(?P<sign>\s*\(|,\s|\s[–—-]\s)(?P<place>[^\W\d_a-z][^(),–—]*?)\)?)$"
)
"""A title that ends with something in brackets, or behind a sign."""


def says_when_and_where(line: TextLine, row: Row) -> bool:
    """Whether a line begins with its date and says beside it and its time a place alone, `2 December, 4pm, Loft 2`."""
    before, _, behind = line.text.partition(line.date)
    if line.has_time and not behind and line.text.split()[:1] == line.date.split()[:1]:
        before = ""  # its hour was written in another way, `18 h`
    begins = not before or (bool(line.repeat) and before.split() == [before.strip()])
    return begins and behind[:1] != ":" and is_place(str(row[1][2])) and not row[1][3]


def may_be_place_below(line: TextLine) -> bool:
    """Whether a line is a few words that name a place, and nothing else: that of the event above it."""
    if line.date or line.time or line.is_bullet or re.match(r"\w\s", line.text) is not None:
        return False
    return len(line.text.split()) <= _MOST_OF_PLACE and is_place(line.text)


def heads_place(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line is a place over lines that begin with times: `Room 1` over `9:00 Finance`."""
    if following is None or following.date or not following.time:
        return False
    return following.text.startswith(following.time) and is_place(line.text)


def with_places_told(rows: Sequence[Row], lines: Sequence[TextLine]) -> list[Row]:
    """The rows, of those without a place those whose title ends with one with this apart."""
    rows = [(number, _without_stop(cells)) for number, cells in rows]
    texts = {line.number: line.text for line in lines}
    known = {_plain(str(cells[3])) for _, cells in rows if cells[3]}
    if not known:
        return list(rows)
    ends = {
        n: match
        for n, (_, cells) in enumerate(rows)
        if not cells[3] and (match := _ENDS.match(str(cells[2]))) is not None and _may_be_place(match)
    }
    signs = _signs_of_places(rows, texts)
    open_of = Counter(_sign(match) for match in ends.values())
    return [
        (number, _parted(cells, ends[n]))
        if n in ends and (_plain(ends[n]["place"]) in known or _shows(signs, open_of, _sign(ends[n])))
        else (number, cells)
        for n, (number, cells) in enumerate(rows)
    ]


def _without_stop(cells: Sequence[Cell]) -> Sequence[Cell]:
    """The cells of a row whose place ends as its sentence does; `Elm St.` keeps what is short for something."""
    place = str(cells[3])
    is_end = re.search(r"[^\W\d_]{4,}\.$", place) is not None
    return [*cells[:3], place[:-1], *cells[4:]] if is_end else cells


def _shows(signs: Counter[str], open_of: Counter[str], sign: str) -> bool:
    """Whether what stands behind a sign is a place in enough other lines. A comma parts anything."""
    return sign != "," and signs[sign] >= max(_LEAST, _TIMES_MORE * open_of[sign])


def _signs_of_places(rows: Sequence[Row], texts: Mapping[int, str]) -> Counter[str]:
    """The signs before the places of lines, and how often each is."""
    found: Counter[str] = Counter()
    for number, cells in rows:
        place = str(cells[3])
        text = texts.get(number, "")
        at = text.rfind(place) if place else -1
        before = text[:at].removesuffix("the ").rstrip() if at > 0 else ""
        found["(" if before.endswith("(") else before[-1:].translate(_DASHES)] += bool(before)
    return found


_DASHES: Final = str.maketrans("—-", "––")


def _sign(match: re.Match[str]) -> str:
    return match["sign"].strip().translate(_DASHES)


def _may_be_place(match: re.Match[str]) -> bool:
    return re.search(NO_PLACE, match["place"]) is None and any(map(str.isalpha, match["title"]))


def _plain(place: str) -> str:
    return place.casefold().removeprefix("the ").strip()


def _parted(cells: Sequence[object], match: re.Match[str]) -> EventRow:
    return EventRow(*map(str, cells))._replace(title=match["title"].strip(), place=match["place"].strip())
