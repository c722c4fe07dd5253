"""Cells of a plan that are dates, whatever language the names of their months are in."""

import re
from functools import lru_cache
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns import daycells
from nomarium.sheets.sheet import cell_text

_IN_WORDS: Final = r"\d{1,2}(?:\.|º|er|e)?\s+(?:de\s+)?[^\W\d_]{3,}"
_MOST_LANGUAGES: Final = 6
_LONGEST: Final = 80


def looks_like_date(cell: Cell) -> bool:
    """Whether a cell by itself holds a day, or a stretch of days (a bare number does not)."""
    if daycells.looks_like_date(cell):
        return True
    lexicon = _lexicon_of(cell) if isinstance(cell, str) else ENGLISH
    return lexicon is not ENGLISH and daycells.looks_like_date(cell, lexicon)


def read_date(cell: Cell) -> Moment | Refusal:
    """The days of a cell."""
    return read_moment(cell, "date", _lexicon_of(cell_text(cell)))


@lru_cache(maxsize=2048)
def _lexicon_of(text: str) -> Lexicon:
    """The names by which a text is a date: those of the likeliest language that knows one of its words, `8 septembre 2026`;
    English where that is none."""
    if len(text) > _LONGEST or re.search(_IN_WORDS, text) is None:
        return ENGLISH
    words = {fold(word) for word in re.findall(r"[^\W\d_]{3,}", text)}
    if any(map(ENGLISH.months.__contains__, words)):
        return ENGLISH
    from nomarium.reading.cells.namelist import languages_knowing
    from nomarium.reading.cells.words import lexicon_of

    for code in languages_knowing(words)[:_MOST_LANGUAGES]:
        lexicon = lexicon_of(code)
        moment = read_moment(text, "date", lexicon) if lexicon is not None else None
        if lexicon is not None and isinstance(moment, Moment) and moment.first is not None:
            return lexicon.extended(ENGLISH)
    return ENGLISH
