"""A table found in a sheet: its head, its columns, what its dates mean, and its rows of data."""

from collections.abc import Iterator, Sequence, Set
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.columns.asked import asked_columns
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.nights import Nights, Watch, without_nights
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

if TYPE_CHECKING:
    from nomarium.reading.columns.spreaddates import SpreadDates


class TableReading(NamedTuple):
    """Everything decided about one sheet before its rows become events."""

    sheet: Sheet
    head: TableHead
    columns: tuple[Column, ...]
    decisions: Decisions
    options: ReadingOptions
    problems: tuple[Problem, ...] = ()
    """What keeps the table as a whole from being read."""
    notes: tuple[Problem, ...] = ()
    parts: "SpreadDates | None" = None
    """The columns over which dates are spread, when they are."""
    lines: tuple[tuple[int, str], ...] = ()
    """The rows above it and among its first ones that hold one text and nothing else, by their numbers."""

    @property
    def says_often(self) -> bool:
        """Whether one of its lines may say how often something is held."""
        return any(often_in(text) for _, text in self.lines)

    @property
    def is_whole(self) -> bool:
        """Whether every row was looked at before it was decided how they are read."""
        clock = self.decisions.clock
        return self.decisions.is_whole and (clock is None or clock.is_whole)

    def column(self, field: str) -> Column | None:
        """The column of a field, the first when two agree."""
        return next((c for c in self.columns if c.field == field and c.twin_of is None), None)

    @property
    def headings(self) -> tuple[str, ...]:
        return tuple(c.heading for c in self.columns)

    def rows(self) -> Iterator[Row]:
        """The rows of data, what merged cells and `--fill-down` say filled in."""
        data = data_rows(self.sheet, self.head)
        down = fill_down_columns(self.headings, self.options, self.sheet.first_column)
        idle = frozenset(column.at for column in self.columns if column.field in ("", "week"))
        times = [c.at for c in self.columns if c.field in ("time", "start") and not c.has_days]
        dates = frozenset(c.at for c in self.columns if c.has_days)
        nights = Nights(dates, times[0]) if times and dates else None
        rows = filled_rows(self.sheet, data, down, idle, nights)
        if self.sheet.dates_above and nights is not None:
            rows = without_nights(rows, nights)
        return self.parts.joined(rows) if self.parts else rows


def data_rows(sheet: Sheet, head: TableHead) -> Iterator[Row]:
    """The rows from the first row of data on."""
    return islice(sheet.rows(), head.rows_above + len(head.header_rows), None)


def fill_down_columns(
    headings: Sequence[str], options: ReadingOptions, first_column: int = 0
) -> tuple[int, ...]:
    """The columns that `--fill-down` names, by heading or letter."""
    named = (asked_columns(heading, headings, first_column) for heading in options.fill_down)
    return tuple(dict.fromkeys(at for places in named for at in places))


def filled_rows(
    sheet: Sheet,
    rows: Iterator[Row],
    fill_down: tuple[int, ...],
    idle: Set[int] = frozenset(),
    nights: Nights | None = None,
) -> Iterator[Row]:
    """The rows of data; a cell merged over several rows says its value in each of them. A lone text in a column that says
    nothing of an event, one of `idle`, is a remark, and takes nothing from above."""
    spans = {
        (row, column): (area.first_row, area.first_column)
        for area in sheet.merged
        if area.last_row > area.first_row
        for row in range(area.first_row + 1, area.last_row + 1)
        for column in (area.first_column,)
    }
    if not spans and not fill_down:
        return rows
    return _fill(rows, spans, fill_down, idle, sheet.first_column, nights)


def _fill(
    rows: Iterator[Row],
    spans: dict[tuple[int, int], tuple[int, int]],
    fill_down: tuple[int, ...],
    idle: Set[int],
    offset: int,
    nights: Nights | None,
) -> Iterator[Row]:
    watch = Watch()
    dates = nights.dates.intersection(fill_down) if nights else frozenset[int]()
    above: dict[int, Cell] = {}
    merged: dict[tuple[int, int], Cell] = {}
    starts = set(spans.values())
    for number, row in rows:
        cells = list(row)
        for column in range(len(cells)):
            at = (number - 1, column + offset)
            if at in starts:
                merged[at] = cells[column]
            elif at in spans and cells[column] == "":
                cells[column] = merged.get(spans[at], "")
        filled = [n for n, cell in enumerate(cells) if cell_text(cell)]
        if nights is not None and filled and nights.dates.issuperset(filled):
            above = {n: cell for n, cell in above.items() if n in dates}  # a new day
        elif filled and not (len(filled) == 1 and filled[0] in idle):
            is_new_day = any(column < len(cells) and cell_text(cells[column]) for column in dates)
            is_night = nights is not None and watch.is_past_midnight(nights.secs(cells), is_new_day)
            for column in fill_down:
                if column < len(cells):
                    if cell_text(cells[column]):
                        above[column] = cells[column]
                    elif not (is_night and column in dates):
                        cells[column] = above.get(column, "")
        yield number, cells
