"""What a roster is before its cells are read: filled cells with what heads them."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.layouts.headdates import Days
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text


class Slot(NamedTuple):
    """One filled cell of a roster."""

    row: int
    column: int
    label: str
    """The name, post or class that heads it."""
    cell: Cell
    days: Days
    time: Part = NOTHING
    """The hours of its row or column, where these say them."""
    is_place: bool = False
    """Whether its label is a place, in which the cell's text happens."""
    is_session: bool = False
    """Whether its label is a part of the day."""
    categories: tuple[str, ...] = ()

    @property
    def text(self) -> str:
        return cell_text(self.cell)


class Drawing(NamedTuple):
    """A roster as it is drawn, before its cells are read."""

    slots: Sequence[Slot]
    kind: str
    """What stands where, for the note."""
    label_heading: str
    others: Sequence[Row] = ()
    """Rows that are no part of it: titles, keys, remarks."""
    problems: Sequence[Problem] = ()
    headed: Mapping[int, Mapping[int, Days]] = MappingProxyType({})
    """By the number of a row of headings: the days of its columns."""
    notes: Sequence[Problem] = ()
