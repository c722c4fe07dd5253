"""A column that says the school year of each row, `2026/27`, beside dates that say none."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import called
from nomarium.sheets.sheet import Sheet, cell_text

_SCHOOL_YEAR = r"(?:19|20)\d\d\s*[/–-]\s*(?:(?:19|20)?\d\d)"
_WITH_YEAR = r"\d{4}|[./-]\d\d$|['’]\d\d$"
_DATED = ("date", "when", "start", "end", "end-date", "milestone")


def years_unheard(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]
) -> dict[int, Problem]:
    """A problem for a column of school years, several, which nothing uses, where dates of the rows have no year of their own."""

    def texts(at: int) -> list[str]:
        return [text for row in rows if at < len(row) and (text := cell_text(row[at]))]

    of_years = [
        c
        for c in columns
        if c.is_ignored
        and c.how != "asked"
        and c.samples
        and all(re.fullmatch(_SCHOOL_YEAR, text) for text in c.samples)
    ]
    found: dict[int, Problem] = {}
    if not of_years or all(
        re.search(_WITH_YEAR, text) for c in columns if c.field in _DATED for text in texts(c.at)
    ):
        return found
    for column in of_years:
        said = texts(column.at)
        if len(set(said)) > 1 and all(re.fullmatch(_SCHOOL_YEAR, text) for text in said):
            message = f"The column {called(sheet, column)} says the school year of each row, and dates without a year would all be of one."
            remedy = "Write the year into the dates; or build one school year at a time, each from its own rows, with --school-year."
            place = sheet.place(None, column.at, column.heading)
            found[column.at] = Problem("column-when", message, remedy, place)
    return found
