"""What a sheet of a plan is taken for."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import NamedTuple


class Kind(NamedTuple):
    """What a sheet is taken for."""

    table: str
    """The table's name; `timetable:NAME` for a person's or room's grid, blank for none."""
    why: str
    columns: Mapping[str, int] = MappingProxyType({})
    """Field → column, where the cells and not the headings show it."""
    has_days_off: bool = False
    """Whether rows of a table of terms that are called holidays are days off."""
    other: str = ""
    """The other table that it could as well be: then a person must say."""
    hint: str = ""
    """The table that its name hints at, where it cannot be read as that."""
