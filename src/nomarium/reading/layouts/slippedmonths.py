"""Headings among months that are none, `Ocotber`, or in a language that the others are not: what stands under them is not passed over."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.wording import MONTHS
from nomarium.reading.cells.weekdayslips import slips
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import match_exactly
from nomarium.sheets.sheet import Row, Sheet, cell_text

_SHORTEST: Final = 5
"""Letters of a month's name that may have two slips."""
_OTHER_WORDS: Final = frozenset(("match", "march"))
_MOST: Final = 2


def slipped_months(
    sheet: Sheet,
    number: int,
    head: Sequence[Cell],
    below: Sequence[Row],
    months: Collection[int],
    label: int | None = None,
) -> Iterator[Problem]:
    """The problem of each heading in row `number` between the columns of `months`, or between their `label` and them, that is none, and
    of one beside them that nearly is, over cells that say something."""
    for column, cell in enumerate(head):
        text = cell_text(cell)
        if not text or column in months or column == label or match_exactly(text) is not None:
            continue
        begins = min(months) if label is None else label
        if begins < column < max(months) or is_like_month(text):
            yield from no_month(sheet, number, column, text, [row[column : column + 1] for _, row in below])


def slipped_sections(sheet: Sheet, months: Collection[int], days: Mapping[int, int]) -> Iterator[Problem]:
    """The problem of each row among days that is one text, and nearly a month, or below which the days begin again. `months` are the
    numbers of rows that are months, `days` the day of each row that begins with one."""
    last, pending = 0, (0, 0, "")
    for number, row in sheet.rows():
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        text = cell_text(row[filled[0]]) if filled else ""
        if number in months:
            last, pending = 0, (0, 0, "")
        elif len(filled) == 1 and not any(map(str.isdigit, text)):
            pending = (number, filled[0], text)
        elif number in days or any(map(str.isdigit, text)):
            if pending[2] and (is_like_month(pending[2]) or days.get(number, last) < last):
                yield from no_month(sheet, *pending, [row])
            last, pending = days.get(number, 0), (0, 0, "")


def no_month(
    sheet: Sheet, number: int, column: int, text: str, cells: Sequence[Sequence[Cell]]
) -> list[Problem]:
    """The problem of a heading that is no month, where one of its `cells` says something."""
    if not any(cell_text(cell) for one in cells for cell in one):
        return []
    message = "The heading stands among months and is none: what stands under it would be passed over."
    remedy = "Write it as the others are; if it is no month, move it beside or below them."
    return [Problem("month-unknown", message, remedy, sheet.place(number, column), text)]


def is_like_month(text: str) -> bool:
    """Whether a heading is no month in English, and nearly one.

    >>> [is_like_month(text) for text in ("Ocotber", "Setpember", "October", "Match", "Notes")]
    [True, True, False, False, False]
    """
    word = fold(text).split()[0] if text.split() else ""
    names = [fold(name) for name in MONTHS]
    if word in names or word in _OTHER_WORDS or len(word) < _SHORTEST:
        return False
    return any(len(name) >= _SHORTEST and slips(word, name) <= _MOST for name in names)
