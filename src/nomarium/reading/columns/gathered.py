"""The distinct contents of a table's date columns, and what each says by itself."""

import datetime as dt
from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING, cast

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_PHRASE
from nomarium.model.problem import Problem, column_letter
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import ROLES, Moment, plain_date, read_moment
from nomarium.reading.cells.times import plain_clock
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.columns.midnights import Heard
from nomarium.sheets.sheet import Sheet, cell_text

if TYPE_CHECKING:
    from nomarium.reading.columns.yearsabove import YearAbove


@lru_cache(maxsize=4096)
def _but_for_clocks(cell: Cell) -> Cell:
    """A cell, or nothing where it is a time of day alone: that says nothing about dates, and nearly every row has others."""
    is_clock = isinstance(cell, dt.time) or (isinstance(cell, str) and plain_clock(cell.strip()) is not None)
    return "" if is_clock else cell


class Gathered:
    """The distinct contents of the date columns of a table, and where each was first seen."""

    def __init__(self, sheet: Sheet, columns: Sequence[Column], lexicon: Lexicon, whole: bool) -> None:
        self.sheet = sheet
        self.lexicon = lexicon
        dated = [c for c in columns if c.field in ROLES and (whole or c.has_days)]
        self.columns = [c for c in dated if c.field != "time"]
        in_weeks = any(unit_of(c.heading).week for c in self.columns)  # the weekday is another day's
        self.weekday_column = next((c for c in columns if c.field == "day" and not in_weeks), None)
        picked = [*self.columns, *([self.weekday_column] if self.weekday_column else [])]
        self.indices = [c.at for c in picked]
        self.clocked = [n for n, c in enumerate(self.columns) if c.field in ("start", "end")]
        self.spoken = [c.field not in ("start", "end") for c in self.columns]
        """Whether a column has had anything but times of day."""
        self.last_index = max(self.indices, default=0)
        self.headings = {c.at: c.heading for c in columns}
        self.first_rows: dict[tuple[Cell, ...], int] = {}
        self.twins = [(c, c.twin_of) for c in columns if c.twin_of is not None]
        self.twin_problem: Problem | None = None
        self.plain_days: dict[int, set[dt.date]] = {}
        """By column: the dates about which nothing is open, of rows that have no others to be settled."""
        self.above: YearAbove | None = None
        self._heard: list[Heard] | None = None
        self._heard_in = lexicon
        self._heard_rows = 0

    def add(self, number: int, row: Sequence[Cell]) -> None:
        if len(row) > self.last_index:
            cells = [row[i] for i in self.indices]
        else:
            cells = [row[i] if i < len(row) else "" for i in self.indices]
        for at in self.clocked:
            cell = cells[at] = _but_for_clocks(cells[at])
            if cell != "":
                self.spoken[at] = True
        self.first_rows.setdefault(tuple(cells), number)
        for column, other in self.twins:
            if self.twin_problem is None:
                self._compare_twins(number, row, column, other or 0)

    def _compare_twins(self, number: int, row: Sequence[Cell], column: Column, other: int) -> None:
        a, b = (cell_text(row[i]) if i < len(row) else "" for i in (other, column.at))
        if a and b and a != b and not self._same_moment(row[other], row[column.at], column.field):
            first, second = (self._called(i) for i in (other, column.at))
            message = f"Both {first} and {second} look like the {column.field}, and they differ: in row {number}, “{a}” and “{b}”."
            names = [self.headings[other] or first, column.heading or second]
            remedy = " or ".join(f'--column "{name}={column.field}"' for name in names)
            remedy = f"Say which one it is: {remedy}."
            if self.headings[other] == column.heading and column.field == "summary":
                message = f"Row {number} names two events, “{a}” and “{b}”: both columns are headed “{column.heading}”."
                remedy = "Give each event a row of its own, with its date."
            elif self.headings[other] == column.heading:
                letter = column_letter(column.at + self.sheet.first_column)
                remedy = f'Leave one out, such as the second with --column "{letter}=".'
            place = self.sheet.place(number, column.at, column.heading)
            self.twin_problem = Problem("columns-rival", message, remedy, place, b)

    def _same_moment(self, a: Cell, b: Cell, field_name: str) -> bool:
        if field_name not in ROLES:
            return cell_text(a).casefold() == cell_text(b).casefold()
        readings = []
        for cell in (a, b):
            moment = read_moment(cell, ROLES[field_name], self.lexicon, self.sheet.counts_1904)
            if isinstance(moment, Refusal) or moment.first is None:
                return False
            readings.append({one.date() for one in moment.first.readings if one.year})
        return bool(readings[0] & readings[1])

    def _called(self, index: int) -> str:
        heading = self.headings[index]
        return f"“{heading}”" if heading else f"column {column_letter(index + self.sheet.first_column)}"

    def moments(self) -> Sequence[Heard]:
        """Each distinct row of cells, but for rows of `plain_days`, read in the language found so far."""
        if (
            self._heard is None
            or self._heard_in is not self.lexicon
            or self._heard_rows != len(self.first_rows)
        ):
            self._heard = list(self._listen())
            self._heard_in, self._heard_rows = self.lexicon, len(self.first_rows)
        return self._heard

    def _listen(self) -> Iterable[Heard]:
        memo: dict[tuple[int, str, Cell], Moment | Refusal] = {}
        spoken = [(n, column) for n, column in enumerate(self.columns) if self.spoken[n]]
        for cells, number in self.first_rows.items():
            if self.weekday_column is None and all(days := [plain_date(cells[n]) for n, _ in spoken]):
                for (_, column), day in zip(spoken, days, strict=True):
                    self.plain_days.setdefault(column.at, set()).add(cast("dt.date", day))
                continue
            moments: list[Moment | None] = [None] * len(self.columns)
            for n, column in spoken:
                cell = cells[n]
                if not cell_text(cell):
                    continue
                key = (column.at, type(cell).__name__, cell)
                if key not in memo:
                    memo[key] = read_moment(cell, ROLES[column.field], self.lexicon, self.sheet.counts_1904)
                moment = memo[key]
                moments[n] = None if isinstance(moment, Refusal) else moment
            weekday = None
            if self.weekday_column is not None:
                weekday = self.lexicon.weekdays.get(fold(cell_text(cells[-1])).strip())
            yield number, cells, moments, weekday

    def unread_texts(self) -> list[str]:
        """Texts in date columns that hold words and cannot be read."""
        found: dict[str, None] = {}
        for _, cells, moments, _ in self.moments():
            for cell, moment in zip(cells, moments, strict=False):
                if (
                    moment is None
                    and isinstance(cell, str)
                    and any(map(str.isalpha, cell))
                    and len(cell) <= LONGEST_PHRASE
                ):
                    found.setdefault(cell)
                    if len(found) >= 300:
                        return list(found)
        return list(found)
