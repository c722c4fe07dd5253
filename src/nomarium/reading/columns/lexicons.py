"""Which names of months and weekdays a table is read with."""

import re
from collections.abc import Iterable, Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.reading.cells.othermonths import OTHER_MONTHS
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, cell_text

_NUMBERED = r"([^\W\d_]+)\.?,?\s*\d{1,2}"
_LEFT = 2
"""Columns in which weekdays may stand one below the other."""
_LONGEST_MONTH = 20
_TOP_ROWS = 30
"""Rows among which the weekdays must stand for their language to be found."""


def lexicon_for(options: ReadingOptions) -> Lexicon:
    """The names that dates are read with until the table shows that it needs others."""
    if not options.languages:
        return ENGLISH
    from nomarium.reading.cells.languages import asked_lexicon

    return asked_lexicon(options.languages)


def lexicon_of_weekdays(rows: Iterable[Row], options: ReadingOptions) -> Lexicon:
    """English or the languages asked for; else the language that knows a whole row of weekdays, or a column at the left."""
    lexicon = lexicon_for(options)
    top = [row for _, row in islice(rows, _TOP_ROWS)]
    if options.languages or any(len(weekday_columns(row, lexicon)) >= 5 for row in top):
        return lexicon
    from nomarium.reading.cells.languages import weekday_lexicon

    columns = ([row[n] for row in top if n < len(row)] for n in range(_LEFT))
    for line in (*top, *columns):
        words = frozenset(fold(text).strip() for cell in line if (text := cell_text(cell)).isalpha())
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


_LEAST_MONTHS = 2
"""Months in a row or in a column from which on they show a language."""


def with_months(rows: Sequence[Row], known: Lexicon) -> Lexicon:
    """The names known, and those of the language whose months head columns, or stand one below the other, where `known` does not know
    them all: `septembre`, `octobre`."""
    top = [row for _, row in rows[:_TOP_ROWS]]
    lines = [*top, *([row[n] for row in top if n < len(row)] for n in range(2))]
    for line in lines:
        words = {word for cell in line if isinstance(cell, str) and (word := _month_word(cell))}
        named = words & (OTHER_MONTHS | known.months.keys())
        if len(named) >= _LEAST_MONTHS and not named <= known.months.keys():
            from nomarium.reading.cells.languages import language_of_months

            found = language_of_months(frozenset(named - known.months.keys()))
            if found is not None:
                return known.extended(found)
    return known


def _month_word(text: str) -> str:
    """The one word of a short text, folded, a year beside it; nothing for any other."""
    words = re.findall(r"[^\W\d_]+", text) if len(text) <= _LONGEST_MONTH else []
    return fold(words[0]) if len(words) == 1 else ""


_LEAST_OF_DAYS, _WEEK = 14, 7
"""Cells of a column, or of a row, that begin with the weekdays of a planner's days; and so many different ones."""


def with_weekdays_within(rows: Sequence[Row], known: Lexicon) -> Lexicon:
    """The names known, and those of the language whose weekdays stand beside the days of a planner, or begin their cells."""
    table = [row for _, row in rows]
    width = max(map(len, table), default=0)
    columns = ([row[n] for row in table if n < len(row)] for n in range(width))
    for line in (*columns, *table[:_TOP_ROWS]):
        words = [word for cell in line if (word := _first_word(cell))]
        named = frozenset(word for word in words if words.count(word) > 1)
        if (
            len(words) < _LEAST_OF_DAYS
            or not _WEEK - 2 <= len(named) <= _WEEK
            or named & known.weekdays.keys()
        ):
            continue
        from nomarium.reading.cells.languages import weekday_lexicon

        found = weekday_lexicon(named)
        if found is not None:
            return known.extended(found)
    return known


def _first_word(cell: Cell) -> str:
    match = re.match(r"[^\W\d_]+", cell) if isinstance(cell, str) else None
    return fold(match[0]) if match is not None else ""
