"""Tables that only look like day sheets: records, days of a month, columns of a list."""

import re
from collections.abc import Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.namelist import known_by_likely
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.sheets.sheet import Row, cell_text, column_texts

_NUMBERED = re.compile(r"(?P<kind>[^\W\d_]{3,})\s*(?:\d{1,3}[a-z]?|[A-H])")
"""One of several of a kind, `Court 2`: no heading of a list."""


def are_records(slots: Sequence[Row], lexicon: Lexicon) -> bool:
    """Whether what stands beside the times are dates, or times mostly: a table whose first column holds small numbers."""
    cells = [cell for _, row in slots for cell in row[1:] if cell_text(cell)]
    if any(looks_like_date(cell, lexicon) for cell in cells):
        return True
    return Contents(cells, lexicon).times >= MOSTLY


def numbers_days(heading: str, labels: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether what stands under a heading that names a month are the numbers of its days."""
    is_of_month = any(word in lexicon.months for word in re.findall(r"[^\W\d_]{3,}", fold(heading)))
    return is_of_month and all(re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", cell_text(cell)) for cell in labels)


def holds_its_kind(slots: Sequence[Row], headings: Mapping[int, str]) -> bool:
    """Whether all that stands under some heading is one of the kind that it names, `Ward 3` under *Ward*: a column of a list."""
    for n, heading in headings.items():
        texts = column_texts(slots, n)
        one_of = rf"(?i){re.escape(heading)}\s+(?:\d{{1,3}}[a-z]?|[a-h])"
        if texts and all(re.fullmatch(one_of, text) for text in texts):
            return True
    return False


def names_place(heading: str) -> bool:
    """Whether a heading is a place, or one of several of a kind."""
    return is_place(heading) or is_numbered(heading)


def is_numbered(heading: str) -> bool:
    """Whether a heading is one of several of a kind, `Court 2`, and no day, `Mon 5`."""
    match = _NUMBERED.fullmatch(heading)
    return match is not None and not (
        ENGLISH.knows(fold(match["kind"])) or known_by_likely(fold(match["kind"]))
    )
