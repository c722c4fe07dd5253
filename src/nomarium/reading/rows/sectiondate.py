"""The date of a title over the rows that are of it: `Saturday 5 September`, `Round 3 – Saturday 5 September`."""

import re
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.rows.datewithin import date_within, names_several
from nomarium.reading.rows.lone import keeps_books
from nomarium.reading.rows.opendays import is_open_day

LABEL: Final = r"(?i)^(?:date|datum|day|jour)\s*:"
"""What a title may say before its date."""


def date_of_title(cell: Cell, lexicon: Lexicon) -> Cell:
    """The date that a title is, or that it names among other words; else nothing: it says when the table itself was made, or a
    day from which, or until which, something is, `Timetable valid from 4 January`."""
    if looks_like_date(cell, lexicon):
        return cell
    if not isinstance(cell, str) or keeps_books(re.sub(LABEL, "", cell)):
        return ""
    within = date_within(cell, lexicon)
    if within is None or within.moment.last is not None or names_several(within, lexicon):
        return ""
    before, _, behind = within.rest.partition("\0")
    return "" if is_open_day(before, within.text, behind, lexicon) else within.text
