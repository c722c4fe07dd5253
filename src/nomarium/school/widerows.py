"""Drawn weeks with a row a teacher, room or class, and the periods of all days across."""

import re
from collections.abc import Collection, Mapping, Sequence
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.drawncells import DrawnWeek, Grid, Held
from nomarium.school.drawnheads import heads_names
from nomarium.school.drawnlines import Slot
from nomarium.school.drawnowners import part_of_heading
from nomarium.school.planheads import field_of, plain
from nomarium.sheets.sheet import cell_text

_OF_TIME: Final = ("week", "term")
"""Fields that say in which weeks, or in which term, a row is held."""
_NUMBER: Final = r"\d{1,4}[.)]?"
"""A running number of rows."""


class _Sides(NamedTuple):
    """The columns left of the periods."""

    names: Sequence[int]
    """Those that say whose a row is, the one that says it first."""
    parts: Mapping[int, str]
    """Those that say more of it, its room, by field."""
    unused: Mapping[int, str]
    """The headings of those that nothing uses."""


def take_wide(
    found: DrawnWeek,
    grid: Grid,
    heads: range,
    end: int,
    days: Mapping[int, tuple[str, ...]],
    under: Mapping[int, Slot],
    week: str,
) -> tuple[int, Mapping[int, str]]:
    """Add the classes of the rows below their `heads`, those of days and of periods, up to row `end`. `days` are by the first column of each, `under` the periods by
    column. Gives how many cells say that nothing is taught, and the headings of columns that nothing uses, by column."""
    known = sorted(days)
    of_column = {n: days[max(day for day in known if day <= n)] for n in under}
    for names in dict.fromkeys(of_column.values()):
        found.slots.append([slot for n, slot in under.items() if of_column[n] == names])
    of_time = _OF_TIME if any(days.values()) else (*_OF_TIME, "label")
    sides = _sides(grid, heads, end, known[0], of_time)
    idle = 0
    for n, after, name in _rows_of(found, grid, range(heads.stop, end), sides, under):
        beside = {field: text for c, field in sides.parts.items() if (text := grid.filled(n, c))}
        in_week, on_days = beside.pop("week", week), beside.pop("label", "")
        for column, slot in under.items():
            text = "\n".join(filter(None, (grid.filled(m, column) for m in range(n, after))))
            if not text or is_break(cell_text(slot.heading)):
                continue
            if is_idle(text) or plain(text) == "free":
                idle += 1
                continue
            taken = tuple(one for c, one in under.items() if column <= c <= grid.last_column(n, column))
            place = grid.place(n, column)
            found.held.append(
                Held(
                    *place,
                    text,
                    (on_days,) if on_days else of_column[column],
                    taken,
                    in_week,
                    name,
                    MappingProxyType(beside),
                )
            )
    return idle, sides.unused


def _rows_of(
    found: DrawnWeek, grid: Grid, below: range, sides: _Sides, under: Mapping[int, Slot]
) -> list[tuple[int, int, str]]:
    """The rows of each name, the first, the one behind the last, and the name: one without a name goes on with the one above, its
    rooms, or is another week or term of it; what stands alone is no part of the drawing."""
    rows = list[tuple[int, int, str]]()
    of_time = [c for c, field in sides.parts.items() if field in (*_OF_TIME, "label")]
    for n in below:
        filled = sum(bool(grid.filled(n, column)) for column in under)
        name = _name(grid, n, sides.names)
        above = rows[-1] if rows and rows[-1][1] == n else None
        if name:
            rows.append((n, n + 1, name))
        elif filled and above is not None and any(grid.filled(n, c) for c in of_time):
            rows.append((n, n + 1, above[2]))
        elif filled and above is not None:
            rows[-1] = above[0], n + 1, above[2]
        elif filled > 1:
            rows.append((n, n + 1, ""))  # of nobody, as far as can be told
        else:
            found.others.append(grid.rows[n])
    return rows


def _name(grid: Grid, n: int, names: Sequence[int]) -> str:
    return next((text for column in names if (text := grid.filled(n, column))), "")


def _part(heading: str, of_time: Collection[str]) -> str:
    """The field of a column beside the names; nothing for one that says neither a part of a class nor what is `of_time`."""
    field = field_of(heading, "timetable") or ""
    return part_of_heading(heading) or (field if field in of_time else "")


def _sides(grid: Grid, heads: range, end: int, first: int, of_time: Collection[str]) -> _Sides:
    """What the columns left of the first period say."""
    texts = {c: [text for n in range(heads.stop, end) if (text := grid.filled(n, c))] for c in range(first)}
    texts = {c: cells for c, cells in texts.items() if cells}
    headings = {c: next((text for n in reversed(heads) if (text := grid.filled(n, c))), "") for c in texts}
    free = [c for c, cells in texts.items() if not all(re.fullmatch(_NUMBER, text) for text in cells)]
    free = free or [*texts]
    owner = next((c for c in texts if heads_names(headings[c])), next(iter(free), -1))
    parts = {c: field for c, text in headings.items() if c != owner and (field := _part(text, of_time))}
    others = [c for c in free if c != owner and c not in parts]
    unused = {c: headings[c] for c in others if headings[c]}
    names = [owner] if owner >= 0 else []
    return _Sides([*names, *(c for c in others if not headings[c])], parts, unused)
