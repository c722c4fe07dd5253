"""Which names of months and weekdays a table is read with."""

import re
from collections.abc import Iterable, Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, cell_text

_NUMBERED = r"([^\W\d_]+)\.?,?\s*\d{1,2}"
_TOP_ROWS = 30
"""Rows among which the weekdays must stand for their language to be found."""


def lexicon_for(options: ReadingOptions) -> Lexicon:
    """The names that dates are read with until the table shows that it needs others."""
    if not options.languages:
        return ENGLISH
    from nomarium.reading.cells.languages import asked_lexicon

    return asked_lexicon(options.languages)


def lexicon_of_weekdays(rows: Iterable[Row], options: ReadingOptions) -> Lexicon:
    """English or the languages asked for; else the language that knows a whole row of weekdays."""
    lexicon = lexicon_for(options)
    top = [row for _, row in islice(rows, _TOP_ROWS)]
    if options.languages or any(len(weekday_columns(row, lexicon)) >= 5 for row in top):
        return lexicon
    from nomarium.reading.cells.languages import weekday_lexicon

    for row in top:
        words = frozenset(fold(text).strip() for cell in row if (text := cell_text(cell)).isalpha())
        if 5 <= len(words) <= 8 and (known := weekday_lexicon(words, least=5)) is not None:
            return known
    return lexicon


def lexicon_of_numbered(rows: Iterable[Row], known: Lexicon) -> Lexicon:
    """The names known, or those of the language whose weekdays stand with numbers in one row, `lundi 7`, `mardi 8`."""
    for _, row in islice(rows, _TOP_ROWS):
        words = {fold(match[1]) for cell in row if (match := re.fullmatch(_NUMBERED, cell_text(cell)))}
        if len(words) >= 2 and not all(word in known.weekdays for word in words):
            from nomarium.reading.cells.languages import weekday_lexicon

            found = weekday_lexicon(frozenset(words))
            if found is not None:
                return found
    return known


_LEAST_OF_A_WEEK = 3


def weekday_columns(row: Sequence[Cell], lexicon: Lexicon, others: int = 1) -> dict[int, int]:
    """Column → weekday, 0 for Monday, of a row that names weekdays and at most so many `others`, else nothing. Beside three weekdays
    or more there may be two, beside five three: periods or names left of them, times, sums or remarks."""
    filled = [(at, fold(text).strip()) for at, cell in enumerate(row) if (text := cell_text(cell))]
    found = {at: lexicon.weekdays[word] for at, word in filled if word in lexicon.weekdays}
    distinct = len(set(found.values())) == len(found)
    most = max(others, len(found) // 2 + 1) if len(found) >= _LEAST_OF_A_WEEK else others
    return found if distinct and len(filled) - len(found) <= most else {}
