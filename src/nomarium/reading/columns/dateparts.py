"""Dates written over several columns (Day, Month, perhaps Year), put together before anything else is decided."""

import re
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import ENGLISH_MONTHS
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_DAY = frozenset("day days date dates dom jour tag dia dag".split()) | {
    "day of month",
    "day no",
    "day number",
    "date no",
}
_MONTH = frozenset("month mois monat mes maand".split()) | {"month no", "month number", "month name"}
_YEAR = frozenset("year yr annee jahr ano jaar".split())
_WHOLE = frozenset(("date", "dates", "full date", "whole date", "datum", "fecha", "data"))
"""Headings of the whole date, which its parts beside it only repeat."""
_WHOLE_FORM = r"(?s).*(?:\d{4}|\d\W\d{1,2}\W\d\d).*"
_MONTH_FORM = r"0?[1-9]|1[0-2]|[^\W\d_]{3,12}\.?(?:,?\s+\d{4})?"
"""A number or a name, in whatever language, perhaps with its year: which one it is, the dates' own reading says."""
_DAY_FIGURE = r"0?(?:[1-9]|[12]\d|3[01])(?:st|nd|rd|th|er|\.)?(?:\s*(?:[,;&+–-]|and|et|und|to)\s*\d{1,2}(?:st|nd|rd|th|er|\.)?)*"
"""A day, or several, `5, 12 & 19`."""


class DateParts(NamedTuple):
    """The columns that make up a date together."""

    day: int
    month: int
    year: int | None
    gap: str = ""
    """The heading of the months, where some row has a day and none."""

    def renamed(self, head: TableHead) -> TableHead:
        """The head of the table whose day column holds the whole date."""
        headings = list(head.headings)
        parts = (self.day, self.month) if self.year is None else (self.day, self.month, self.year)
        headings[self.day] = ", ".join(headings[at] for at in parts)
        return head._replace(headings=tuple(headings))

    def asking(self, options: ReadingOptions, head: TableHead) -> ReadingOptions:
        """Options that make the column of whole dates the date, if the person did not choose another field."""
        return options._replace(columns={head.headings[self.day]: "date", **options.columns})

    def told(self, sheet: Sheet, columns: list[Column], filled: Collection[str]) -> Problem:
        """A note of what was put together; the column says so as its evidence."""
        date = columns[self.day]
        if date.field == "date":
            columns[self.day] = date._replace(how="heading", evidence="put together from several columns")
        message = f"Dates are put together from the columns {date.heading}."
        remedy = (
            f'A month written once holds for the rows below it with --fill-down "{self.gap}".'
            if self.gap and self.gap not in filled
            else ""
        )
        return note("date-joined", message, remedy).at(sheet.place(None, date.at, date.heading))

    def joined(self, rows: Iterable[Row]) -> Iterator[Row]:
        """Rows whose day column holds the whole date; the cells of month and year are blank."""
        for number, row in rows:
            yield number, self.joined_cells(row)

    def joined_cells(self, row: Sequence[Cell]) -> Sequence[Cell]:
        cells = [*row, *[""] * (max(self.day, self.month, self.year or 0) + 1 - len(row))]
        month = cell_text(cells[self.month])
        if re.fullmatch(r"0?[1-9]|1[0-2]", month):
            month = ENGLISH_MONTHS[int(month) - 1].split()[0].capitalize()
        elif month and not re.fullmatch(_MONTH_FORM, month):
            month = f"of month “{month}”"  # a figure that is no month must not be taken for a day
        year = cell_text(cells[self.year]) if self.year is not None else ""
        cells[self.day] = " ".join(part for part in (cell_text(cells[self.day]), month, year) if part)
        cells[self.month] = ""
        if self.year is not None:
            cells[self.year] = ""
        return cells


def find_date_parts(
    headings: Sequence[str], sample: Sequence[Sequence[Cell]], asked: Mapping[str, str]
) -> DateParts | None:
    """The columns that hold a date in parts, or None. `asked` are the fields that the person chose by heading:
    such a column stands by itself. (A recipe leaves out the month and the year, which went into the date.)"""
    taken = {name for heading, field in asked.items() if (name := normal(heading)) in _DAY or field}
    plain = [name if (name := normal(heading)) not in taken else "" for heading in headings]

    def only(words: frozenset[str], form: str) -> int | None:
        found = [at for at, heading in enumerate(plain) if heading in words and _mostly(sample, at, form)]
        return found[0] if len(found) == 1 else None

    month = only(_MONTH, _MONTH_FORM)  # what few tables have is looked for first
    day = only(_DAY, _DAY_FIGURE) if month is not None else None
    if day is None or month is None or only(_WHOLE, _WHOLE_FORM) is not None:
        return None
    has_gaps = any(
        max(day, month) < len(row) and cell_text(row[day]) and not cell_text(row[month]) for row in sample
    )
    return DateParts(day, month, only(_YEAR, r"(?:\d\d)?\d\d"), headings[month] if has_gaps else "")


def _mostly(sample: Sequence[Sequence[Cell]], at: int, form: str) -> bool:
    """Whether the cells of a column mostly have a form; those that are blank are not looked at."""
    texts = [text for row in sample if at < len(row) and (text := cell_text(row[at]))]
    return sum(re.fullmatch(form, text) is not None for text in texts) * 2 >= max(len(texts), 1)
