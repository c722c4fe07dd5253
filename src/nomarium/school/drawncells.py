"""What drawn weeks hold, and the cells of the sheet that they stand on, merged ones once."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.school.drawnlines import Slot
from nomarium.sheets.sheet import Row, Sheet, cell_text


class Held(NamedTuple):
    """One filled cell, with what heads it."""

    number: int
    column: int
    text: str
    labels: tuple[str, ...]
    """Weekdays by name, or labels."""
    slots: tuple[Slot, ...]
    """The lines that it takes: several where it is merged."""
    week: str
    whose: str
    """The title over its drawing, or the name of its row."""
    beside: Mapping[str, str] = MappingProxyType({})
    """What columns of their own left of the days say of it, its room, by field."""


class DrawnWeek(NamedTuple):
    """What a sheet of drawn weeks holds."""

    held: list[Held]
    slots: list[list[Slot]]
    """The lines of each drawing, in its order."""
    breaks: list[str]
    """Lines that are no classes: breaks and lunch."""
    others: list[Row]
    """Rows that are no part of a drawing."""
    idle: int
    """Cells that say that nothing is taught."""
    titles: list[str]
    untimed: list[tuple[int, int, str]]
    """Row number, column and text of cells under a day that no line says the time of."""
    labels: list[str]
    """What heads their days, also those on which nothing stands."""
    begins: list[int]
    """Where in `held` each drawing begins."""
    goes_on: bool = False
    """Whether some cell goes on in the row below, or the column beside."""
    times_in_cells: bool = False
    """Whether its times stand in the cells, so that each day has lines of its own."""
    once: frozenset[str] = frozenset()
    """Headings of columns beside its lines whose texts are written once over those that they hold for."""
    unused: Mapping[int, str] = MappingProxyType({})
    """Columns beside the names of rows that say what nothing uses, by their headings."""
    above: Mapping[str, str] = MappingProxyType({})
    """What labels above the days say of all classes, beside whose they are: the room, say."""
    unused_above: tuple[str, ...] = ()
    """What else they say."""
    strange: Mapping[tuple[int, int], str] = MappingProxyType({})
    """Row number and column of headings between the days that name none, over filled cells."""


class Grid:
    """The cells of a sheet, as its drawings are read; those of a turned one are given turned, with the sheet itself."""

    def __init__(self, sheet: Sheet, rows: Sequence[Row], turned: Sheet | None = None) -> None:
        self.rows, self.is_turned = rows, turned is not None
        self.numbers = [number for number, _ in rows]
        self._at = {number: n for n, number in enumerate(self.numbers)}
        self._first = first = sheet.first_column
        self._areas = {(area.first_row + 1, area.first_column - first): area for area in sheet.merged}
        self._covered = {
            (row + 1, column - first): (area.first_row + 1, area.first_column - first)
            for area in sheet.merged
            for row in range(area.first_row, area.last_row + 1)
            for column in range(area.first_column, area.last_column + 1)
        }
        self._own_numbers = [] if turned is None else [number for number, _ in turned.rows()]

    def filled(self, n: int, column: int) -> str:
        """What stands in a cell of row `n`; nothing in one that is covered by a merged one."""
        row = self.rows[n][1]
        here = (self.numbers[n], column)
        if self._covered.get(here, here) != here:
            return ""
        return cell_text(row[column]) if column < len(row) else ""

    def spread(self, n: int, column: int) -> str:
        """What stands in a cell of row `n`, or in the merged one that covers it."""
        here = (self.numbers[n], column)
        number, first = self._covered.get(here, here)
        at = n if (number, first) == here else self._at.get(number, -1)
        return self.filled(at, first) if at >= 0 else ""

    def last_column(self, n: int, column: int) -> int:
        """The last column that a cell takes."""
        area = self._areas.get((self.numbers[n], column))
        return area.last_column - self._first if area is not None else column

    def numbers_of(self, n: int, column: int) -> range | None:
        """The row numbers that a merged cell takes; None for any other."""
        area = self._areas.get((self.numbers[n], column))
        return range(area.first_row + 1, area.last_row + 2) if area is not None else None

    def place(self, n: int, column: int) -> tuple[int, int]:
        """Row number and column of a cell on the sheet itself: rows of a turned one are columns there."""
        return (self._own_numbers[column], n) if self.is_turned else (self.numbers[n], column)
