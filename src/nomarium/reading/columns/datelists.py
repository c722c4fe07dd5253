"""Cells that list days."""

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import read_day_list
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date


def days_in(cell: Cell, lexicon: Lexicon) -> int:
    """How many days a cell lists, and nothing else.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> days_in("4 Jan, 18 Jan", ENGLISH), days_in("4 boats", ENGLISH)
    (2, 0)
    """
    if looks_like_date(cell, lexicon):
        return 1
    if not isinstance(cell, str) or not any(map(str.isdigit, cell)):
        return 0
    listed = read_day_list(cell, lexicon)
    return 0 if isinstance(listed, Refusal) or any(days.rest for days in listed) else len(listed)
