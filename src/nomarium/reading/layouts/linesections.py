"""Headings over groups of lines with dates of their own: `ARRIVALS` over some, `DEPARTURES` over others."""

import re
from collections.abc import Mapping, Sequence, Set
from typing import Final

from nomarium.reading.cells.offwords import is_term
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.asides import may_title
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.textlines import TextLine
from nomarium.sheets.sheet import Row

_MOST_WORDS: Final = 5
_LEAST: Final = 2
"""Headings from which on each is the category of its lines."""


def with_sections(
    rows: Sequence[Row], paragraphs: Sequence[Sequence[TextLine]], lexicon: Lexicon
) -> list[Row]:
    """The rows of lines with a date, with the heading right above them, where several headings each stand over such lines
    and nothing else."""
    section_of = _sections(paragraphs, {number for number, _ in rows}, lexicon)
    if len(set(section_of.values())) < _LEAST:
        return list(rows)
    return [
        (number, EventRow(*map(str, cells))._replace(section=section_of[number]))
        if number in section_of and section_of[number] not in map(str, cells)
        else (number, cells)
        for number, cells in rows
    ]


def _sections(
    paragraphs: Sequence[Sequence[TextLine]], taken: Set[int], lexicon: Lexicon
) -> Mapping[int, str]:
    """The headings of lines, by their numbers."""
    found: dict[int, str] = {}
    heading = ""
    for lines in paragraphs:
        first, *others = lines
        if _may_head(first, lexicon) and first.number not in taken:
            heading = first.text.strip(" :*#=-–—")
            lines = others
        elif not all(line.date for line in lines):
            heading = ""
        if heading and all(line.date and line.number in taken for line in lines):
            found |= {line.number: heading for line in lines}
            if is_term(heading) and len(lines) > 1:
                heading = ""  # after a gap may follow days of every term
        elif lines:
            heading = ""
    return found


def _may_head(line: TextLine, lexicon: Lexicon) -> bool:
    words = re.findall(r"[^\W\d_]+", fold(line.text))
    is_plain = not (line.date or line.time or line.is_bullet) and may_title(line)
    is_numbered = re.search(r"\d{3}", line.text) is not None and not is_term(line.text)  # Autumn term 2026
    is_when = any(lexicon.knows(word) for word in words) or is_numbered
    return bool(words) and is_plain and not is_when and len(words) <= _MOST_WORDS
