"""The titles and the headings of drawn months: which month of which year it is, what heads its days, and their numbers."""

import datetime as dt
import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.titlemonths import month_and_year
from nomarium.reading.cells.weekdayslips import is_like_weekday
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, cell_text

_LEAST_WEEKDAYS: Final = 5
NUMBERED: Final = re.compile(
    r"(?P<day>\d{1,2})(?:st|nd|rd|th)?(?![\d:.h]*\d|\s?[ap]\.?m\b)(?P<rest>[\s.:,–-].*)?$",
    re.DOTALL,
)
"""A cell that begins with the number of its day."""


def month_below(rows: Sequence[Row], lexicon: Lexicon, options: ReadingOptions) -> tuple[int, int] | None:
    """The month that is named below the last week of a drawing, and nowhere among its weeks."""
    titles = [
        month
        for _, row in rows
        if (
            month := title_month(
                [(n, cell) for n, cell in enumerate(row) if cell_text(cell)], lexicon, options
            )
        )
    ]
    return (
        titles[0]
        if len(titles) == 1
        and title_month(
            [(n, cell) for n, cell in enumerate(rows[-1][1]) if cell_text(cell)], lexicon, options
        )
        else None
    )


def month_above(rows: Sequence[Row], lexicon: Lexicon, options: ReadingOptions) -> tuple[int, int] | None:
    """The month of a title in two rows: one has the year alone, the other the month."""
    texts = [" ".join(filter(None, map(cell_text, row))) for _, row in rows]
    years = [text for text in texts if re.fullmatch(r"(?:19|20|21)\d\d", text)]
    months = [text for text in texts if fold(text).strip(".") in lexicon.months]
    alone = len(years) == len(months) == 1
    return month_of(f"{months[0]} {years[0]}", lexicon, options) if alone else None


def bare_titles(rows: Sequence[Row], lexicon: Lexicon) -> dict[int, int]:
    """Row number → month, of the rows that hold the name of a month alone, without a year, straight above weekdays or the
    first day: it is that of the month drawn before, or the next."""
    found = {}
    for (number, row), (_, below) in pairwise(rows):
        filled = [text for cell in row if (text := cell_text(cell))]
        month = lexicon.months.get(fold(filled[0]).strip(" .")) if len(filled) == 1 else None
        first = next((day_number(cell)[0] for cell in below if cell_text(cell)), None)
        if month is not None and (first == 1 or days_headed(below, lexicon)):
            found[number] = month
    return found


def month_of(text: str, lexicon: Lexicon, options: ReadingOptions) -> tuple[int, int] | None:
    """The year and month that a title names; the year may come from the school year."""
    if (said := month_and_year(text, lexicon)) is not None:
        return said
    words = re.findall(r"[^\W\d_]+", text)
    months = {lexicon.months[word] for word in map(fold, words) if word in lexicon.months}
    years = re.findall(r"\b(?:19|20|21)\d\d\b", text)
    if len(months) != 1 or len(years) > 1 or len(words) > 6:
        return None
    month = months.pop()
    if years:
        return int(years[0]), month
    if options.school_year:
        first, last = options.school_year
        fitting = [
            year for year in range(first.year, last.year + 1)
            if first.replace(day=1) <= dt.date(year, month, 1) <= last
        ]  # fmt: skip
        return (fitting[0], month) if len(fitting) == 1 else None
    return None


def title_month(
    filled: Sequence[tuple[int, Cell]], lexicon: Lexicon, options: ReadingOptions
) -> tuple[int, int] | None:
    if len(filled) > 2:
        return None
    cells = [cell for _, cell in filled]
    if isinstance(cells[0], dt.date) and cells[0].day == 1:
        return cells[0].year, cells[0].month
    if not all(isinstance(cell, str) or (isinstance(cell, float) and 1900 < cell < 2200) for cell in cells):
        return None
    text = " ".join(map(cell_text, cells))
    if (said := month_and_year(text, lexicon)) is not None:
        return said
    if len(re.findall(r"\d+", text)) > 1 or re.search(r"\b\d{1,2}\b", text):
        return None
    return month_of(text, lexicon, options)


def day_number(cell: Cell) -> tuple[int | None, str]:
    if isinstance(cell, dt.date):
        return cell.day, ""
    if isinstance(cell, float):
        return (int(cell), "") if cell.is_integer() and 1 <= cell <= 31 else (None, "")
    match = NUMBERED.match(cell_text(cell))
    if match is None or not 1 <= int(match["day"]) <= 31:
        return None, ""
    return int(match["day"]), (match["rest"] or "").strip(" \n\t.:,–-")


def may_be_day(cell: Cell) -> bool:
    return any(map(str.isdigit, cell_text(cell)))


def days_headed(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, int]:
    """Column → weekday of a row that heads the days of weeks, with a column for the week and one for remarks at most beside them.
    A heading between them that names none, `Thrs`, is that of its place: the numbers below prove it."""
    weekdays = weekday_columns(row, lexicon)
    return _with_slips(row, weekdays) if len(weekdays) >= _LEAST_WEEKDAYS else {}


def _with_slips(row: Sequence[Cell], weekdays: dict[int, int]) -> dict[int, int]:
    columns = sorted(weekdays)
    first, last, step = columns[0], columns[-1], min(b - a for a, b in pairwise(columns))
    places = {first + n * step: (weekdays[first] + n) % 7 for n in range(-6, 7) if first + n * step >= 0}
    if any(places.get(column) != day for column, day in weekdays.items()):
        return weekdays
    slipped = {
        column: day
        for column, day in places.items()
        if column < len(row)
        and day not in weekdays.values()
        and (text := cell_text(row[column]))
        and (first < column < last or is_like_weekday(text))
    }
    return dict(sorted((weekdays | slipped).items()))
