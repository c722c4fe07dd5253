"""The top of a sheet that may be a table of a plan, and what its columns hold."""

import re
from collections.abc import Callable, Mapping, Sequence
from functools import cached_property
from itertools import combinations, islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawncells import DrawnWeek
from nomarium.school.drawnlines import is_time
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.plancolumns import columns_of, without_remarks
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_TOP_ROWS: Final = 300
_MOSTLY: Final = 0.8
_WEEKS: Final = frozenset("week weektype woche semaine semana settimana".split())

_NUMBERED_DAY: Final = r"(?i)(?:cycle\s*)?(?:day|jour|letter)\s*[-:]?\s*(?:\d{1,2}|[A-Z])"


class Look:
    """The top of a sheet, and what its columns hold."""

    def __init__(self, sheet: Sheet, headings: Mapping[str, str]) -> None:
        self.sheet, self._headings = sheet, headings
        self.rows: list[Row] = without_remarks(list(islice(sheet.rows(), _TOP_ROWS)))

    def head(self, table: str) -> tuple[int, dict[str, int]]:
        """The index of the row of headings of a table (-1: none), and its columns."""
        at, columns, _ = columns_of(self.rows, table, self._headings)
        return at, columns

    def cells(self, at: int, column: int) -> list[Cell]:
        """What stands in a column under a row of headings."""
        return [row[column] for _, row in self.rows[at + 1 :] if column < len(row) and cell_text(row[column])]

    def heading(self, at: int, column: int) -> str:
        """What stands over a column in a row of headings; nothing where there is none (-1)."""
        row = self.rows[at][1] if at >= 0 else ()
        return cell_text(row[column]) if column < len(row) else ""

    @cached_property
    def is_drawn_week(self) -> bool:
        """Whether the sheet is a drawn week."""
        return self._drawn is not None

    @cached_property
    def draws_classes(self) -> bool:
        """Whether the sheet is a drawn week whose cells are mostly classes, and no times of bells."""
        held = [one.text for one in self._drawn.held] if self._drawn is not None else []
        timed = sum(all(map(is_time, text.splitlines())) for text in held)  # a start over its end
        return timed * 2 < len(held)

    @cached_property
    def _drawn(self) -> DrawnWeek | None:
        """Several tests ask for it, and finding out reads the whole sheet."""
        return None if any(self._has_weekdays_down(n) for n in range(self.width)) else drawn_week(self.sheet)

    def _has_weekdays_down(self, column: int) -> bool:
        """Whether seven words come back down a column in the same order, three weeks at least: the weekdays beside the days of a planner."""
        texts = [text for _, row in self.rows if column < len(row) and (text := cell_text(row[column]))]
        days = texts[-_ROUNDS * _ROUND :]
        return len(days) == _ROUNDS * _ROUND and len({*days}) == _ROUND and days[_ROUND:] == days[:-_ROUND]

    @cached_property
    def width(self) -> int:
        return max((len(row) for _, row in self.rows), default=0)


_ROUNDS, _ROUND = 3, 7


def share(cells: Sequence[Cell], test: Callable[[Cell], bool]) -> float:
    """The share of cells that pass a test; 0 of none."""
    return sum(map(test, cells)) / len(cells) if cells else 0.0


def share_classes(look: Look, at: int, columns: Mapping[str, int]) -> bool:
    """Whether columns of no field have the same words, as the days of a drawn week have the same classes."""
    others = [n for n in range(look.width) if n not in columns.values() and look.heading(at, n)]
    words = [
        {
            text
            for cell in look.cells(at, n)
            if not is_time(cell) and re.search(r"[^\W\d_]{3}", text := cell_text(cell))
        }
        for n in others
    ]
    return any(one & other for one, other in combinations(words, 2))


def are_lettered_weeks(look: Look, at: int, column: int) -> bool:
    """Whether a column headed as weeks names them by letters, A and B."""
    is_headed = plain(look.heading(at, column)) in _WEEKS
    return is_headed and all(
        re.fullmatch(r"(?i)(?:week\s*)?[A-D]", cell_text(cell)) for cell in look.cells(at, column)
    )


def is_title(row: Sequence[Cell]) -> bool:
    """Whether a row is one text alone."""
    return sum(map(bool, map(cell_text, row))) == 1


def numbers_days(rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether some column is headed as the date and holds the numbers of days of a month."""
    heads = next(
        (
            (at, n)
            for at, row in enumerate(rows)
            for n, cell in enumerate(row)
            if fold(cell_text(cell)) == "date"
        ),
        None,
    )
    if heads is None:
        return False
    at, column = heads
    below = [cell_text(row[column]) for row in rows[at + 1 :] if column < len(row)]
    days = [text for text in below if text]
    return bool(days) and all(re.fullmatch(r"(?:[1-9]|[12]\d|3[01])(?:st|nd|rd|th)?", text) for text in days)


def are_numbered_days(cells: Sequence[Cell]) -> bool:
    """Whether cells number the days of a cycle, `Day 3`, and come back."""
    texts = [text for text in map(cell_text, cells) if not is_idle(text) and not is_off(text)]
    return len({*texts}) < len(texts) and all(re.fullmatch(_NUMBERED_DAY, text) for text in texts)


def are_dates(look: Look, at: int, column: int) -> bool:
    cells = look.cells(at, column)
    return len(cells) > 0 and share(cells, looks_like_date) >= _MOSTLY and share(cells, is_time) < 0.5
