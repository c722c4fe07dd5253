"""Years in rows of their own: the days below `2026`, or `Autumn term 2026`, are of that year, and those below `Spring term 2027` of
the next."""

import datetime as dt
import re
from collections.abc import Collection, Iterable, Iterator, Sequence
from itertools import pairwise, takewhile
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Days, read_days
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_YEAR: Final = re.compile(
    r"(?:(?P<words>[^\W\d]{3,}(?:\s+(?:[^\W\d]{3,}|[1-6]))*)\s+)?(?P<year>(?:19|20)\d\d)"
)
_OF_YEARS: Final = frozenset(
    "autumn fall spring summer winter michaelmas hilary trinity lent easter term semester trimester quarter half session year calendar dates first second "
    "third fourth automne printemps ete hiver trimestre semestre session herbst fruhjahr sommer halbjahr schuljahr otono primavera verano invierno".split()
)
"""Words with which a year is a part of it, and nothing that happens."""
_FIGURES: Final = r"\d{1,2}(?P<sign>[./-])\d{1,2}\.?"
_LONGEST: Final = 40
_MOSTLY: Final = 0.8
"""The share of a column's cells below the first year that must be days without one."""


class YearRows(NamedTuple):
    """The column whose days have the year above them."""

    at: int
    lexicon: Lexicon
    first: str
    """The first year, and the first day below it."""
    day: str
    begins: int = 0
    """The year that stands over the table, where the first rows have that; 0 where one of its rows says it."""

    def renamed(self, head: TableHead) -> TableHead:
        """The head as it stands."""
        return head

    def asking(self, options: ReadingOptions, head: TableHead) -> ReadingOptions:
        """The options as they stand."""
        return options

    def told(self, sheet: Sheet, columns: list[Column], filled: Collection[str]) -> Problem:
        """A note of what was supplied."""
        message = (
            f"Rows that hold a year alone are that of the days below them: “{self.day}” is of {self.first}."
        )
        return note("date-years-above", message).at(sheet.place(None, self.at, columns[self.at].heading))

    def joined(self, rows: Iterable[Row]) -> Iterator[Row]:
        """Rows whose days all have their years; those of the years themselves say nothing more."""
        year = self.begins
        for number, row in rows:
            if said := _year_alone(row):
                year = said
                yield number, [""] * len(row)
                continue
            cell = row[self.at] if self.at < len(row) else ""
            days = _without_year(cell, self.lexicon) if year else None
            if days is None:
                yield number, row
            else:
                cells = list(row)
                cells[self.at] = _with_year(cell_text(cell), days, year)
                yield number, cells


def find_year_rows(
    sheet: Sheet, head: TableHead, sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> YearRows | None:
    """The column of dates that have their year from rows above them, or None."""
    years = [(n, year) for n, row in enumerate(sample) if (year := _year_alone(row))]
    if not years or any(b - a not in (0, 1) for (_, a), (_, b) in pairwise(years)):
        return None
    first, year = years[0]
    last = max(head.title_rows, default=0)
    above = takewhile(lambda one: one[0] <= last, sheet.rows())
    begins = next(
        (year for number, row in above if number in head.title_rows and (year := _year_alone(row))), 0
    )
    if begins and year - begins not in (0, 1):
        return None
    numbered = {n for n, _ in years}
    dated = [row for n, row in enumerate(sample) if n not in numbered]
    for at in range(max(map(len, sample))):
        before = [row[at] for row in sample[:first] if at < len(row) and cell_text(row[at])]
        cells = [cell for row in dated if at < len(row) and cell_text(cell := row[at])]
        known = [cell for cell in cells if _without_year(cell, lexicon) is not None]
        if known and len(known) >= _MOSTLY * len(cells) and (begins or not before):
            return YearRows(at, lexicon, str(begins or year), cell_text(known[0]), begins)
    return None


def _year_alone(row: Sequence[Cell]) -> int:
    """The year that is all that a row holds, or a part of it; 0 for any other."""
    if len(row) - row.count("") > 1:
        return 0  # the commonest row by far
    filled = [cell for cell in row if cell_text(cell)]
    text = cell_text(filled[0]) if len(filled) == 1 and not isinstance(filled[0], dt.date) else ""
    match = re.fullmatch(_YEAR, text) if len(text) <= _LONGEST else None
    words = re.findall(r"[^\W\d]+", fold(match["words"] or "")) if match is not None else []
    return int(match["year"]) if match is not None and _OF_YEARS.issuperset(words) else 0


def _without_year(cell: Cell, lexicon: Lexicon) -> Days | None:
    """The days of a cell that has no year; None for any other."""
    text = cell_text(cell) if isinstance(cell, str) else ""
    if not text or not any(map(str.isdigit, text)) or text.isdigit():
        return None
    days = read_days(text, lexicon)
    if isinstance(days, Refusal) or days.first.readings[0].year is not None:
        return None
    return None if days.last is not None and days.last.readings[0].year is not None else days


def _with_year(text: str, days: Days, year: int) -> str:
    """A text of days with their year, before what follows them."""
    if days.last is not None and days.last.readings[0].month < days.first.readings[0].month:
        year += 1  # 28 Dec – 3 Jan: the year of its end, which that of its beginning follows from
    said = text.removesuffix(days.rest).rstrip(" ,;")
    figures = re.fullmatch(_FIGURES, said)
    dated = f"{said.rstrip('.')}{figures['sign']}{year}" if figures else f"{said} {year}"
    return f"{dated} {days.rest}".rstrip()
