"""What every kind of source becomes: named sheets of rows of cells, read as often as needed."""

import datetime as dt
from bisect import bisect_left
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import chain, islice
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import LINES, Place, Problem, column_letter, sheet_called

Row = tuple[int, Sequence[Cell]]
"""A row's number, as the sheet shows it, and its cells."""


SENT = -1
"""The number of what is said above a table and is no line of the file: the day on which a message was sent."""
TOP_ROWS = 500
"""Rows from the top that are kept, since everything that finds out what a sheet is looks at them again."""


_KEPT = TOP_ROWS + 60
"""With those above a table: a look at the first rows of its data must not open the source again."""


class RowsAgain:
    """The rows of a sheet, as often as they are asked for; the source is opened once for the first of them, and
    never again when there are no more."""

    def __init__(self, read_rows: "Callable[[], Iterable[Row]]") -> None:
        self._read_rows = read_rows
        self._top: list[Row] | None = None
        self._is_all = False

    def __call__(self) -> "Iterator[Row]":
        if self._top is None:
            self._top = list(islice(self._read_rows(), _KEPT))
            self._is_all = len(self._top) < _KEPT
        if self._is_all:
            return iter(self._top)
        return chain(self._top, islice(self._read_rows(), _KEPT, None))


class Area(NamedTuple):
    """A merged area: 0-based rows and columns of the sheet, both ends inclusive."""

    first_row: int
    first_column: int
    last_row: int
    last_column: int


class Sheet(NamedTuple):
    """A table of cells that can be read again and again without holding its rows."""

    file: str
    """The name to call the file by in messages."""
    name: str
    """The sheet's name, or nothing when the file has just one table."""
    read_rows: Callable[[], Iterable[Row]]
    first_column: int = 0
    """The 0-based column of each row's first cell."""
    merged: tuple[Area, ...] = ()
    faults: Mapping[tuple[int, int], str] = MappingProxyType({})
    """Cells without a usable value, (row number, 0-based column): "#N/A", or a formula never computed."""
    hidden: frozenset[int] | None = None
    """The numbers of rows that are hidden in their workbook; None where that cannot be known."""
    hidden_columns: frozenset[int] = frozenset()
    """The 0-based columns that are hidden in their workbook."""
    notes: tuple[Problem, ...] = ()
    """What was decided on the way from bytes to cells."""
    counts_1904: bool = False
    """Whether plain numbers as dates count from 1904."""
    dates_above: bool = False
    """Whether the dates of its rows stand above them in the source, and were put into the rows."""
    heard: frozenset[int] = frozenset()
    """Columns, 0-based within the rows, whose cells say something that another column holds for them: they need no field."""
    part: str = ""
    """Which part of its sheet it is, where several tables stand on one."""
    part_title: str = ""
    """What stands above that part."""
    unit: str = "row"
    """What its numbers count: rows, or lines of a text."""
    read_lines: Callable[[], Iterable[Row]] | None = None
    """The lines of a text, each a row of one cell; None for what is no text."""
    is_text: bool = False
    """Whether it is lines and no table, whatever the file is called."""
    is_narrow: bool = False
    """Whether lines in its cells may be no more than the width of a page's column."""
    said_above: tuple[tuple[int, str], ...] = ()
    """Numbers and texts of lines over the table that are no rows of it, and may say its year; under `SENT`
    the day on which the message that holds the table was sent, `7 September 2026`."""
    is_cut: bool = False
    """Whether some of its cells are the first part of a longer text."""
    heads: tuple[tuple[int, str], ...] = ()
    """Of lines, those that stand over tables, and the names of these; when they are read, those whose dates the tables have."""
    pages: tuple[int, ...] = ()
    """How many lines stand before each page, where pages number their own; nothing: all are numbered through."""
    own_rows: tuple[int, ...] = ()
    """Where rows and columns are exchanged, the numbers of the rows in the source; a row's number is then its column there, from 0."""

    own_columns: tuple[int, ...] = ()
    """Where a column of the source stands for several, the 0-based column there of each."""

    def rows(self) -> Iterator[Row]:
        """The rows from the top, blank ones included."""
        return iter(self.read_rows())

    def place(self, row: int | None = None, column: int | None = None, heading: str = "") -> Place:
        """Where a cell of this sheet is; `column` counts from 0 within the rows."""
        if self.own_rows:
            has_own = column is not None and column < len(self.own_rows)
            row, column = self.own_rows[column or 0] if has_own else None, row
        if column is not None and column < len(self.own_columns):
            column = self.own_columns[column]
        letter = "" if column is None else column_letter(column + self.first_column)
        if self.pages and row is not None:
            page = bisect_left(self.pages, row)
            return Place(self.file, f"page {page}", row - self.pages[page - 1], "", heading, self.unit)
        return Place(self.file, self.name, row, letter if self.unit == "row" else "", heading, self.unit)

    @property
    def title(self) -> str:
        called = "its lines" if self.name == LINES else sheet_called(self.name)
        whole = f"{self.file}, {called}" if called else self.file
        return f"{whole}, {self.part}" if self.part else whole


def in_one_line(sheet: Sheet) -> Sheet:
    """A narrow sheet with each cell in one line, for those to whom lines in a cell say nothing."""
    if not sheet.is_narrow:
        return sheet

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [" ".join(cell.split()) if isinstance(cell, str) else cell for cell in row]

    return sheet._replace(read_rows=rows, is_narrow=False)


def cell_text(cell: Cell) -> str:
    """A cell as a person would read it, outer spaces gone.

    >>> cell_text(12.0), cell_text(dt.date(2027, 4, 12)), cell_text(True)
    ('12', '2027-04-12', 'yes')
    """
    if isinstance(cell, str):
        return cell.strip()
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, float):
        return str(int(cell)) if cell.is_integer() and abs(cell) < 1e15 else repr(cell)
    if isinstance(cell, dt.datetime):
        return cell.isoformat(" ", "seconds").removesuffix(":00")
    if isinstance(cell, dt.time):
        return cell.isoformat("seconds").removesuffix(":00") if cell.second == 0 else cell.isoformat()
    if isinstance(cell, dt.timedelta):
        minutes = round(cell.total_seconds() / 60)
        return f"{minutes // 60}:{minutes % 60:02}"
    return str(cell)


def is_blank(row: Sequence[Cell]) -> bool:
    """Whether no cell of a row holds anything but spaces."""
    return not any(cell != "" and (not isinstance(cell, str) or cell.strip()) for cell in row)


def column_texts(rows: Iterable[Row], column: int) -> list[str]:
    """The texts of a column, without its blanks; rows may be shorter."""
    return [text for _, row in rows if column < len(row) and (text := cell_text(row[column]))]
