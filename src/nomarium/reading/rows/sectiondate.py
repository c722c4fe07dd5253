"""Titles over the rows that are of their date, `Saturday 5 September`, `Round 3 – Saturday 5 September`, or of their month."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.othermonths import with_months_of
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.yearsabove import is_month_alone
from nomarium.reading.rows.datewithin import date_within, names_several
from nomarium.reading.rows.opendays import is_open_day
from nomarium.reading.rows.titlerepeats import repeat_said
from nomarium.sheets.sheet import cell_text

NOT_THEN: Final = r"(?i)\b(?:not|except|excluding|excl\.?|apart from|but not|without|skip(?:ping)?|nicht|ausser|außer|sauf|excepto|salvo|exceto|tranne|eccetto|behalve|utom|undtagen|unntatt)\W{0,4}(?:on|for|am|le|el|il|op|em|den)?\W{0,4}$"
"""How words end before a date that is left out."""
LABEL: Final = r"(?i)^(?:date|datum|day|jour)\s*:"
"""What a title may say before its date."""


def date_of_title(cell: Cell, lexicon: Lexicon) -> Cell:
    """The date that a title is, or that it names among other words; else nothing: it says when the table itself was made, or a
    day from which, or until which, something is, `Timetable valid from 4 January`."""
    lexicon = with_months_of(cell.split(), lexicon) if isinstance(cell, str) else lexicon
    if looks_like_date(cell, lexicon):
        return cell
    if not isinstance(cell, str) or keeps_books(re.sub(LABEL, "", cell)):
        return ""
    within = date_within(cell, lexicon)
    if (
        within is None
        or within.moment.last is not None
        or names_several(within, lexicon)
        or repeat_said(cell, lexicon)
    ):
        return ""
    before, _, behind = within.rest.partition("\0")
    if re.search(NOT_THEN, before):
        return ""
    return "" if is_open_day(before, within.text, behind, lexicon) else within.text


def days_of_title(cell: Cell, lexicon: Lexicon) -> Cell:
    """The date of a title, or the phrase by which what stands below it is held again and again; nothing for neither."""
    said = date_of_title(cell, lexicon) or (repeat_said(cell, lexicon) if isinstance(cell, str) else "")
    return "" if said is None or isinstance(said, Problem) else said


def without_titles(rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> Sequence[Sequence[Cell]]:
    """The rows but for those that hold a month alone, or a date alone over times, and lone texts below the last row; the same where
    there are none, or nothing else."""
    full = max((n for n, row in enumerate(rows) if any(map(cell_text, row[1:]))), default=len(rows))
    others = [row for row in rows[: full + 1] if not is_month_alone(row)]
    about = Contents([row[0] for row in others if row and any(map(cell_text, row[1:]))], lexicon)
    if about.times == 1 and not about.dates:
        others = [row for row in others if any(map(cell_text, row[1:])) or not date_of_title(row[0], lexicon)]
    return others if 0 < len(others) < len(rows) else rows
