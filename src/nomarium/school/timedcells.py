"""Weeks drawn with their times in the cells: weekdays or labels across, below them perhaps studios or groups, and in each cell
when each class is, and which."""

from collections.abc import Callable, Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.reading.layouts.celltimes import lines_of_cell, time_alone
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.school.drawncells import DrawnWeek, Grid, Held
from nomarium.school.drawnlines import Slot
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row

_HEAD_ROWS: Final = 12
_TOP_ROWS: Final = 400
_MOSTLY: Final = 0.6


def timed_week(grid: Grid, days_in: Callable[[Row], Mapping[int, tuple[str, ...]]]) -> DrawnWeek | None:
    """The classes of a sheet whose cells say their times, under a row of days, which `days_in` finds; None for any other."""
    if len(grid.rows) > _TOP_ROWS:
        return None
    for at, row in enumerate(grid.rows[:_HEAD_ROWS]):
        days = days_in(row)
        if len(days) >= 2:
            return _drawing(grid, at, days)
    return None


def _drawing(grid: Grid, at: int, days: Mapping[int, tuple[str, ...]]) -> DrawnWeek | None:
    width = max(len(row) for _, row in grid.rows)
    columns = range(min(days), width)
    if any(grid.filled(n, c) for n in range(at, len(grid.rows)) for c in range(min(days))):
        return None  # a line, a name or a week stands beside
    first = next((n for n in range(at + 1, len(grid.rows)) if any(grid.filled(n, c) for c in columns)), at)
    whose = {c: text for c in columns if (text := grid.filled(first, c))}
    has_heads = len(whose) > 1 and not any(_times_in(text) for text in whose.values())
    begin = first + 1 if has_heads else at + 1
    cells = _cells_below(grid, begin, columns)
    texts = [text for held in cells.values() for _, text in held]
    timed = sum(_times_in(text) for text in texts)
    if timed < 2 or timed < _MOSTLY * sum(not is_idle(text) for text in texts):
        return None
    found = DrawnWeek([], [], [], [], 0, [], [], [name for names in days.values() for name in names], [0])
    found.others.extend(grid.rows[:at])
    classes = {
        c: [(n, one) for n, text in held if not _says_nothing(text) for one in _classes_of(text)]
        for c, held in cells.items()
    }
    for column, held in classes.items():
        day = max(d for d in days if d <= column)
        owner = whose.get(column, "") if has_heads else ""
        found.slots.append([])
        for n, one in held:
            place = grid.place(n, column)
            if one.time is NOTHING:
                found.untimed.append((*place, one.said))
                continue
            slot = Slot(len(found.slots[-1]), "", one.shown, one.time)
            found.slots[-1].append(slot)
            found.held.append(Held(*place, one.said, days[day], (slot,), "", owner))
    idle = sum(_says_nothing(text) for held in cells.values() for _, text in held)
    return found._replace(idle=idle, times_in_cells=True)


def _cells_below(grid: Grid, begin: int, columns: Sequence[int]) -> dict[int, list[tuple[int, str]]]:
    """The filled cells of each column, (row, text) each. Where a row without times stands below most rows of times, or several do, each
    of their cells below one that says a time, they go on with those: with the class, its teacher, its room."""
    rows = [
        (n, row)
        for n in range(begin, len(grid.rows))
        if (row := {c: text for c in columns if (text := grid.filled(n, c))})
    ]
    parts = list[list[tuple[int, dict[int, str]]]]()
    for n, row in rows:
        below = parts[-1][0][1] if parts else {}
        goes_on = not any(map(_says_time, row.values())) and all(_says_time(below.get(c, "")) for c in row)
        if goes_on and parts:
            parts[-1].append((n, row))
        else:
            parts.append([(n, row)])
    depths = [len(part) for part in parts]
    if any(2 * sum(one >= depth for one in depths) <= len(parts) for depth in set(depths) - {1}):
        parts = [[one] for one in rows]  # a class without a time may stand below one that has its own
    return {
        c: [
            (part[0][0], "\n".join(row[c] for _, row in part if c in row))
            for part in parts
            if c in part[0][1]
        ]
        for c in columns
    }


def _says_nothing(text: str) -> bool:
    return is_idle(text) or plain(text) == "free"


class _Class(NamedTuple):
    """What is held at one time of a cell."""

    time: Part
    said: str
    """Its name, and below it what else is said of it."""
    shown: str
    """The line that says its time."""


def _classes_of(text: str) -> list[_Class]:
    """The classes of a cell: a line without a time goes on with the one above, its teacher, its room."""
    found = list[_Class]()
    for line in lines_of_cell(text):
        said = "\n".join(part for part in (line.title, line.place) if part)
        if found and (line.time is NOTHING or found[-1].time is NOTHING):
            above = found.pop()
            time = line.time if above.time is NOTHING else above.time
            shown = above.shown if line.time is NOTHING else line.text
            found.append(_Class(time, f"{above.said}\n{said}", shown))
        else:
            found.append(_Class(line.time, said, line.text))
    return found


def _says_time(text: str) -> bool:
    return time_alone(text) is not NOTHING or any(line.time.start is not None for line in lines_of_cell(text))


def _times_in(text: str) -> bool:
    return any(line.time.start is not None and line.title for line in lines_of_cell(text))
