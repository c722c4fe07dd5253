"""Headings that seem to be days with a slip, beside days: what stands under them is not passed over."""

import re
from collections.abc import Collection, Iterator, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.weekdayslips import is_like_weekday
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.codes import are_figures
from nomarium.sheets.sheet import Row, Sheet, cell_text

_SUMS: Final = (
    r"(?i)\b(?:totals?|sums?|hours?|hrs|days|weeks?|wk|count|shifts|summe|stunden|tage|heures|jours)\b"
)
_NEARLY_A_DATE: Final = (
    r"(?i)(?:[^\W\d_]{2,9}\.?,?\s+)?\d{1,2}(?:st|nd|rd|th)?(?:\.?\s+[^\W\d_]{3,}|[./-]\d{1,2}).*"
)
"""What stands beside dates and reads as none, `31 Sep 2026`."""


def slipped_days(
    sheet: Sheet,
    number: int,
    head: Sequence[Cell],
    below: Sequence[Row],
    days: Collection[int],
    label: int | None = None,
) -> Iterator[Problem]:
    """The problem of each heading in row `number` between the columns of `days` that is none, and of one beside them that nearly
    is, over cells that say something: no sums, and no column that is headed as another thing."""
    for column, cell in enumerate(head):
        text = cell_text(cell)
        is_between = min(days) < column < max(days)
        if (
            column in days
            or column == label
            or not text
            or re.search(_SUMS, text)
            or match_exactly(text) is not None
        ):
            continue
        if not (is_between or is_like_weekday(text) or re.fullmatch(_NEARLY_A_DATE, text)):
            continue
        cells = [row[column] for _, row in below if column < len(row) and cell_text(row[column])]
        if cells and not are_figures(cells):
            message = "The heading stands beside days and is none: what stands under it would be passed over."
            remedy = "Write it as the others are; if it is no day, call it otherwise, and move it right of the days."
            yield Problem("weekday-unknown", message, remedy, sheet.place(number, column), text)
