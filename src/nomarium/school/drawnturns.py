"""Weeks that take turns in a drawing whose days name them in a row, a column or a line of their own: each day gets its week,
`Mon (Week A)`."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.school.codes import weekday_of
from nomarium.school.drawnheads import week_of
from nomarium.sheets.sheet import Row, cell_text

_CORNER: Final = r"(?i)\W*(?:weeks?|wks?|cycle|rotation|semaines?|wochen?|semanas?|settiman[ae])\W*"
_WEEK: Final = r"(?i)(?:(?:week|wk|semaine|woche)\s*)?(?P<week>[A-D]|[1-4])"


def with_weeks_beside_days(rows: Sequence[Row]) -> list[Row]:
    """Rows of which one says the weeks of the days right below or above it, `Week | A | A | B | B`, with these in the days."""
    found = list(rows)
    for at, (first, second) in enumerate(pairwise(rows)):
        for weeks, days, n in ((first[1], second[1], at), (second[1], first[1], at + 1)):
            by_column = _weeks_in(weeks, len(days))
            named = [c for c, cell in enumerate(days) if weekday_of(cell_text(cell)) is not None]
            if len(named) < 2 or not by_column or any(c not in by_column for c in named):
                continue
            joined = [
                f"{cell_text(cell)} (Week {by_column[c]})" if c in named else cell
                for c, cell in enumerate(days)
            ]
            other = 2 * at + 1 - n
            found[n], found[other] = (rows[n][0], [""] * len(weeks)), (rows[other][0], joined)
            return found
    return found


def _weeks_in(row: Sequence[Cell], width: int) -> dict[int, str]:
    """Column → the week that a row says, one that is written once for several columns in each; nothing where it is no such row."""
    texts = [(n, text) for n, cell in enumerate(row) if (text := cell_text(cell))]
    if len(texts) < 2 or not re.fullmatch(_CORNER, texts[0][1]):
        return {}
    said = {n: match["week"].upper() for n, text in texts[1:] if (match := re.fullmatch(_WEEK, text))}
    if len(said) < len(texts) - 1 or len(set(said.values())) < 2:
        return {}
    found: dict[int, str] = {}
    for n in range(min(said), width):
        found[n] = said.get(n) or found[n - 1]
    return found


def with_weeks_over_days(rows: Sequence[Row]) -> list[Row]:
    """Rows of days that stand below a line with a week alone, `Week A`, with it in each of their days, and without the line."""
    found: list[Row] = []
    week, column = "", -1
    above: Sequence[Cell] | None = None
    """The line with a week that stands right above."""
    for number, row in rows:
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        alone = week_of(cell_text(row[filled[0]])) if len(filled) == 1 else ""
        if alone:
            week, column = alone, filled[0]
        days = [n for n in filled if weekday_of(cell_text(row[n])) is not None]
        if week and days == [column] == filled[:1] and len(filled) > 1:
            row = [f"{cell_text(cell)} (Week {week})" if n == column else cell for n, cell in enumerate(row)]
            found = found[:-1] if found and found[-1][1] is above else found
        above = row if alone else None
        found.append((number, row))
    return found
