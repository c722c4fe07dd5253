"""The year that stands above a table, or in its sheet's name, for dates that have none."""

import datetime as dt
import re
from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.wording import MONTHS
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.head import TableHead
from nomarium.sheets.sheet import SENT, Row, Sheet, cell_text

_SCHOOL_YEAR = r"(?<![\d./-])((?:19|20)\d\d)\s?[-/–—]\s?((?:19|20)?\d\d)(?![\d/-]|\.\d)"
_MONTH_ALONE = re.compile(r"([^\W\d_]{3,})\.?,?\s+((?:19|20)\d\d)")
_YEAR = r"(?<![\d./-])(?:19|20)\d\d(?![\d/-]|\.\d)"


BEFORE_LETTER, AFTER_LETTER = dt.timedelta(days=31), dt.timedelta(days=333)
"""How far before and after the date of a letter its days without a year are."""
_MOST_RUN_ON, _LEAST_DISORDER = 5, 9
"""Months from one date to the next over the end of a year: up to so many a list runs on, from so many on the next stands before."""
_FIRST_MONTH = 8
"""That with which a school year begins."""


class YearAbove(NamedTuple):
    """A year, or a school year, that a text names."""

    first: int
    is_school_year: bool
    where: str
    """The text, and the row in which it stands."""
    sent: dt.date | None = None
    """When the message that holds the table was sent: its days are about then or later."""
    day: dt.date | None = None
    """The day that the text says: that of a paper, whose days are about then, in its year or another."""

    def of_month(self, month: int) -> int:
        """The year of the first month of a drawing."""
        if self.sent is not None:
            begin = self.sent - BEFORE_LETTER
            return begin.year + (month < begin.month)
        return self.first + (self.is_school_year and month < _FIRST_MONTH)

    def window(self, months: Sequence[int]) -> tuple[dt.date, dt.date] | None:
        """The first and last date of days of these months, in the order of their rows; None when it is not clear.

        A school year runs from August to July. A list that begins in one year and jumps back once runs on into the
        next, `Autumn 2026` with dates from September to January; steps back by a few months are disorder in the same.
        """
        if self.sent is not None:
            return self.sent - BEFORE_LETTER, self.sent + AFTER_LETTER
        if self.is_school_year:
            return dt.date(self.first, _FIRST_MONTH, 1), dt.date(self.first + 1, _FIRST_MONTH - 1, 31)
        if self.day is not None:
            near = year_about(self.day, months)
            return None if near is None else self._replace(first=near, day=None).window(months)
        ahead = [b + 12 - a for a, b in pairwise(months) if b < a]
        jumps = len(ahead)
        if all(months_on >= _LEAST_DISORDER for months_on in ahead):
            return dt.date(self.first, 1, 1), dt.date(self.first, 12, 31)
        begin = months[0]
        if jumps > 1 or ahead[0] > _MOST_RUN_ON or max(months[months.index(min(months)) :]) >= begin:
            return None
        return dt.date(self.first, begin, 1), dt.date(self.first + 1, begin, 1) - dt.timedelta(days=1)


def year_about(day: dt.date, months: Sequence[int]) -> int | None:
    """The year in which months in the order of a list begin that bears the date of a day; None when it may be one or the other.

    They go on about that day, or are the nearest: `10 December 2026` over January is of 2027, over September of 2026, and
    `3 February 2027` over September to July of 2026.
    """
    jumps = sum(b < a for a, b in pairwise(months))
    if not months or jumps > 1:
        return day.year
    at, first, last = day.year * 12 + day.month, months[0], months[-1] + 12 * jumps
    gaps = {
        year: max(year * 12 + first - at, at - year * 12 - last, 0)
        for year in range(day.year - 1, day.year + 2)
    }
    nearest, other = sorted(gaps, key=lambda year: (gaps[year], year != day.year))[:2]
    is_clear = gaps[nearest] * 2 < gaps[other] or not gaps[nearest]
    return nearest if is_clear and (nearest >= day.year or not gaps[nearest]) else None


def year_above(sheet: Sheet, head: TableHead, headings: Sequence[str] = ()) -> YearAbove | None:
    """The one year that the texts above a table name, the `headings` of its dates, or the name of its sheet; None when there is
    none, or several."""
    texts = [(f"the heading “{heading}”", heading) for heading in headings]
    texts += [(f"sheet “{sheet.name}”", sheet.name)] if sheet.name else []
    texts += [(f"line {number}: “{text[:60]}”", text) for number, text in sheet.said_above if number != SENT]
    if head.title_rows:
        last = max(head.title_rows)
        for number, row in sheet.rows():
            if number > last:
                break
            if number in head.title_rows:
                texts += [(f"row {number}: “{text[:60]}”", text) for cell in row if (text := cell_text(cell))]
    found: dict[tuple[int, bool], tuple[str, str]] = {}
    for where, text in texts:
        for year in _years_in(text):
            found.setdefault(year, (where, text))
    school_years = [year for year in found if year[1]]
    known = school_years or list(found)
    if not known:
        return _of_message(sheet)
    if len(known) != 1:
        return None
    first, is_school_year = known[0]
    where, text = found[known[0]]
    return YearAbove(first, is_school_year, where, day=None if is_school_year else _day_in(text, first))


def _day_in(text: str, year: int) -> dt.date | None:
    """The day with its month that a text says before a year, `Diary, 10 December 2026`; None where it says none, or several."""
    days = re.findall(
        rf"(?<![\w.:/–—-])(\d{{1,2}})(?:st|nd|rd|th|er)?\.?\s+([^\W\d_]{{3,}})\.?,?\s+{year}\b", text
    )
    days += [
        (b, a)
        for a, b in re.findall(rf"\b([^\W\d_]{{3,}})\.?\s+(\d{{1,2}})(?:st|nd|rd|th)?,?\s+{year}\b", text)
    ]
    found = {(int(day), ENGLISH.months[fold(name)]) for day, name in days if fold(name) in ENGLISH.months}
    if len(found) != 1:
        return None
    ((number, month),) = found
    return dt.date(year, month, min(max(number, 1), 28))


def _of_message(sheet: Sheet) -> YearAbove | None:
    """The year around the date on which the message was sent that holds a table."""
    for text in (text for number, text in sheet.said_above if number == SENT):
        day, month, year = text.split()
        sent = dt.date(int(year), MONTHS.index(month) + 1, int(day))
        return YearAbove(sent.year, False, f"the head of the message: “{text}”", sent)
    return None


def is_month_alone(row: Sequence[Cell]) -> bool:
    """Whether a row has the form of a month with its year, or is the name of one, and nothing beside."""
    text = row[0].strip() if row and isinstance(row[0], str) else ""
    is_such = bool(text) and (_MONTH_ALONE.fullmatch(text) is not None or fold(text) in ENGLISH.months)
    return is_such and not any(map(cell_text, row[1:]))


def year_of_months(rows: Iterable[Row], lexicon: Lexicon) -> YearAbove | None:
    """The year, or the school year, of months that stand in rows of their own between the dates, `September 2026`; None where
    there are none, or they are of more than one."""
    months: list[tuple[int, int]] = []
    where = ""
    for number, row in rows:
        match = _MONTH_ALONE.fullmatch(row[0].strip()) if row and isinstance(row[0], str) else None
        month = lexicon.months.get(fold(match[1])) if match is not None else None
        if match is not None and month is not None and not any(map(cell_text, row[1:])):
            months.append((int(match[2]), month))
            where = where or f"row {number}: “{match[0]}”"
    years = {year for year, _ in months}
    if len(years) == 1:
        return YearAbove(years.pop(), False, where)
    begun = {year if month > 7 else year - 1 for year, month in months}
    return YearAbove(begun.pop(), True, where) if len(begun) == 1 else None


def names_year(text: str) -> bool:
    """Whether a text names a year, or a school year."""
    return bool(_years_in(text))


def _years_in(text: str) -> list[tuple[int, bool]]:
    """The years that a text names, each with whether it is a school year.

    >>> _years_in("School calendar 2026–27"), _years_in("Dates for 2027"), _years_in("Printed 2026-11-26")
    ([(2026, True)], [(2027, False)], [])
    """
    found = []
    for match in re.finditer(_SCHOOL_YEAR, text):
        first, last = int(match[1]), int(match[2])
        if last in (first + 1, (first + 1) % 100):
            found.append((first, True))
    rest = re.sub(_SCHOOL_YEAR, " ", text)
    return found + [(int(match[0]), False) for match in re.finditer(_YEAR, rest)]
