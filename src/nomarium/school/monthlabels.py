"""Letter days listed by months: months across or down, and below each the numbers of its days with their labels, `Tue 8`, `1`."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

MOST_LABELS: Final = 12
_LEAST: Final = 6
_HEAD_ROWS: Final = 12
_LONGEST_LABEL: Final = 12
_MONTH: Final = re.compile(r"(?P<month>[^\W\d_]{3,})\.?(?:,?\s+(?P<year>\d{4}))?")
_DAY: Final = re.compile(
    r"(?i)(?:(?P<before>[^\W\d_]{1,9})\.?,?\s*)?(?P<day>\d{1,2})(?:st|nd|rd|th)?(?:\s+(?P<behind>[^\W\d_]{2,9}))?"
)
_SCHOOL_YEAR: Final = re.compile(r"(?<!\d)(?:20)?(?P<first>\d\d)\s?[-–/]\s?(?:20)?(?P<last>\d\d)(?!\d)")


class _Block(NamedTuple):
    """A month, and the columns below it."""

    month: int
    year: int
    first: int
    last: int


def days_by_months(sheet: Sheet, options: ReadingOptions) -> Sheet | None:
    """A list of letter days by months as a date and a label a row; None for any other sheet, where nothing says the year, or where
    a weekday is not that of its date."""
    if not any(_blocks(row, 0) for _, row in islice(sheet.rows(), _HEAD_ROWS)):
        return None
    rows = [(number, row) for number, row in sheet.rows() if any(map(cell_text, row))]
    autumn = _first_year(sheet, rows, options)
    blocks: list[_Block] = []
    found: list[tuple[int, dt.date, str]] = []
    for number, row in rows:
        if heads := _blocks(row, autumn):
            blocks = heads
            continue
        for block in blocks:
            day = _day(row, block)
            if day is not None:
                if day[0] is None:
                    return None
                found.append((number, day[0], day[1]))
    labels = Counter(label for _, _, label in found if label and not is_off(label))
    come_back = sum(count > 1 for count in labels.values())
    are_labels = all(len(label) <= _LONGEST_LABEL for label in labels) and come_back * 2 >= len(labels) >= 2
    dates = [date for _, date, _ in found]
    if (
        sum(labels.values()) < _LEAST
        or not are_labels
        or len(labels) > MOST_LABELS
        or len(set(dates)) < len(dates)
    ):
        return None
    listed: list[Row] = [(0, ["Date", "Label"])]
    listed += [
        (number, [date, label]) for number, date, label in sorted(found, key=lambda one: one[1]) if label
    ]
    return sheet._replace(read_rows=lambda: iter(listed), merged=(), first_column=0)


def _blocks(row: Sequence[Cell], autumn: int | None) -> list[_Block]:
    """The months of a row that holds nothing else, each with its columns."""
    named = [(n, _MONTH.fullmatch(text)) for n, cell in enumerate(row) if (text := cell_text(cell))]
    months = [
        (n, ENGLISH.months.get(fold(match["month"])), match["year"])
        for n, match in named
        if match is not None
    ]
    if not months or len(months) < len(named):
        return []
    found = list[_Block]()
    for (at, month, year), after in zip(months, [*(n for n, _, _ in months[1:]), 10_000], strict=True):
        if month is None or (year is None and autumn is None):
            return []
        found.append(_Block(month, int(year) if year else (autumn or 0) + (month < 7), at, after))
    return found


def _day(row: Sequence[Cell], block: _Block) -> tuple[dt.date | None, str] | None:
    """The date and the label of a row below a month; None where there is no day, a date of None where it cannot be."""
    texts = [text for cell in row[block.first : block.last] if (text := cell_text(cell))]
    weekdays = [text for text in texts if fold(text).strip(".") in ENGLISH.weekdays]
    texts = [text for text in texts if text not in weekdays]
    match = _DAY.fullmatch(texts[0]) if texts else None
    words = [word for word in (match["before"], match["behind"]) if word] if match is not None else []
    if match is None or any(fold(word) not in ENGLISH.weekdays for word in words):
        return None
    try:
        date = dt.date(block.year, block.month, int(match["day"]))
    except ValueError:
        return None, ""
    named = {ENGLISH.weekdays[fold(word).strip(".")] for word in (*words, *weekdays)}
    return (date if named <= {date.weekday()} else None), " ".join(texts[1:])


def _first_year(sheet: Sheet, rows: Sequence[Row], options: ReadingOptions) -> int | None:
    """The year in which the school year begins, as was said, or as the sheet's name or the rows above the months say."""
    if options.school_year is not None:
        return options.school_year[0].year
    for text in _above(sheet, rows):
        match = _SCHOOL_YEAR.search(text)
        if match is not None and int(match["last"]) == int(match["first"]) + 1:
            return 2000 + int(match["first"])
    return None


def _above(sheet: Sheet, rows: Sequence[Row]) -> Iterator[str]:
    yield sheet.name
    for _, row in rows[:3]:
        filled = [text for cell in row if (text := cell_text(cell))]
        if len(filled) == 1:
            yield filled[0]
