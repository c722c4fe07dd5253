"""Cells such as `Sep-26` in a column of dates: a day of September, or September 2026, as spreadsheets show a month."""

import re
from collections.abc import Mapping, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.column import Column
from nomarium.sheets.sheet import Sheet, cell_text

_MONTH_AND_NUMBER: Final = r"([^\W\d_]{3,9})\.?[-'’](\d\d)"
_LONGEST: Final = 13
"""Characters of such a cell."""
_MONTH: Final = r"\b(?:months?|mois|monat|mes|mese|maand|manad|maned)\b"


def may_be_months(cells: Sequence[Cell]) -> bool:
    """Whether cells are several months, each with one and the same number, which may be that of the year: `Sep-26`, `Oct-26`."""
    matches = [re.fullmatch(_MONTH_AND_NUMBER, cell) if isinstance(cell, str) else None for cell in cells]
    found = [match for match in matches if match is not None]
    return len(found) == len(cells) and len({match[2] for match in found}) == 1 < len(
        {fold(match[1]) for match in found}
    )


def months_or_days(
    sheet: Sheet, columns: Sequence[Column], rows: Mapping[tuple[Cell, ...], int]
) -> list[Problem]:
    """A problem for a column whose cells are all a month and one and the same number, which may be that of the year: several months, or
    a heading that says so. `rows` are the distinct cells of the date columns, and the number of the first row that has them."""
    for n, column in enumerate(columns):
        first = cell_text(next((row[n] for row in rows if row[n] != ""), ""))
        if not (first[:3].isalpha() and first[-2:].isdigit() and len(first) <= _LONGEST):
            continue
        cells = [(row[n], number) for row, number in rows.items() if row[n] != ""]
        is_headed = (
            re.search(_MONTH, fold(column.heading)) is not None and len({cell for cell, _ in cells}) == 1
        )
        text = re.fullmatch(_MONTH_AND_NUMBER, first)
        if text is not None and (is_headed or may_be_months([cell for cell, _ in cells])):
            number = cells[0][1]
            message = f"“{text[0]}” could be the {text[2]}th of {text[1]}, or {text[1]} 20{text[2]}, and so could all of its column."
            remedy = f"Write the year in full, {text[1]} 20{text[2]}, or the day before its month, {text[2]} {text[1]}."
            return [
                Problem(
                    "date-ambiguous", message, remedy, sheet.place(number, column.at, column.heading), text[0]
                )
            ]
    return []
