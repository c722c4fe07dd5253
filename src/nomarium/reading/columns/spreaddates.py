"""Dates that are spread over columns, or said once for the rows below: what makes them whole."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.datejoins import DateJoins, find_date_joins
from nomarium.reading.columns.dateparts import DateParts, find_date_parts
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.runningmonths import RunningMonths, find_running_months, in_another_language
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet

if TYPE_CHECKING:
    from nomarium.reading.columns.yearrows import YearRows

    SpreadDates = DateParts | DateJoins | RunningMonths | YearRows
    """How the rows of a table get their dates; each puts them into `joined` rows, and has told so."""


def find_spread_dates(
    sheet: Sheet, head: TableHead, sample: Sequence[Sequence[Cell]], options: ReadingOptions, seen: Lexicon
) -> "SpreadDates | None":
    """What makes the dates of a table whole: of columns that say them together, of the month above a day, or of the year in a row
    of its own; None in most tables."""
    found = (
        find_date_parts(head.headings, sample, options.columns)
        or find_date_joins(head.headings, sample, options.columns, seen)
        or find_running_months(head.headings, sample, seen)
    )
    if found is None and (other := in_another_language(head.headings, sample, seen)) is not None:
        found = find_running_months(head.headings, sample, other)
    if found is not None or all(len(row) - row.count("") > 1 for row in sample):
        return found
    from nomarium.reading.columns.yearrows import find_year_rows  # few tables have rows of one cell

    return find_year_rows(sheet, head, sample, seen)
