"""Columns by which people join from elsewhere, and those that ask for an answer: their cells must bear them out."""

import re
from collections.abc import Sequence

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.people import read_conference
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.sheets.sheet import cell_text

_JOINING = frozenset("join joining meet meeting dial dialin video videocall call conference".split())
_LOOSE = ("", "url", "summary", "location", "description")


def with_links(columns: Sequence[Column], contents: Sequence[Contents]) -> list[Column]:
    """Columns whose headings say join, meet, dial or video are links where their cells are; a “Meet” of names is none.
    An “RSVP” of dates is no yes or no."""
    found = []
    for column in columns:
        about = contents[column.at]
        if column.how == "asked" or not about.cells:
            pass
        elif column.field == "conference" and not _are_links(about):
            column = column._replace(field="", how="", evidence="its cells are no links to join by")
        elif column.field == "rsvp" and about.dates >= MOSTLY:
            column = column._replace(field="", how="", evidence="its cells are dates, not yes or no")
        elif column.field in _LOOSE and _says_join(column.heading) and _are_links(about):
            column = column._replace(
                field="conference", how="heading", evidence="heading; its cells are links"
            )
        found.append(column)
    return found


def _are_links(about: Contents) -> bool:
    if about.dates >= MOSTLY or about.times >= MOSTLY:
        return False  # a planning meeting on 2026-12-02 is no number to dial
    read = [read_conference(cell_text(cell)) for cell in about.different]
    return sum(not isinstance(one, Refusal) for one in read) >= MOSTLY * len(read)


def _says_join(heading: str) -> bool:
    return not _JOINING.isdisjoint(re.split(r"[^a-z]+", heading.casefold()))
