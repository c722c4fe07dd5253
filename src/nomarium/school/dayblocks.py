"""Days side by side, each with columns of its own for its times, its classes and their rooms, in the order in which they come."""

from collections.abc import Iterator, Sequence
from functools import partial
from itertools import islice, pairwise
from typing import Final, NamedTuple

from nomarium.school.drawnheads import days_across
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 20
_TOP_ROWS: Final = 300
_WHEN: Final = frozenset(("time", "start", "period"))


class _Blocks(NamedTuple):
    at: int
    """Index of the row of days."""
    days: dict[int, str]
    """First column of each day → the day."""
    headings: list[str]
    """What heads the columns of every day."""
    is_headed: bool
    """Whether a row below the days says that."""


def day_blocks(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each class of each day, and the day in a column of its own; None where days do not stand side by
    side with the same columns each."""
    rows = list(islice(sheet.rows(), _TOP_ROWS + 1))
    blocks = _blocks_in(rows) if len(rows) <= _TOP_ROWS else None
    return None if blocks is None else sheet._replace(read_rows=partial(_in_rows, rows, blocks), merged=())


def _blocks_in(rows: Sequence[Row]) -> _Blocks | None:
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = {n: text for n, cell in enumerate(row) if (text := cell_text(cell))}
        days = days_across(texts)
        if (
            len(days) < 2
            or len(days) < len(texts)
            or len(set(days.values())) < len(days)
            or at + 1 >= len(rows)
        ):
            continue
        begins = sorted(days)
        width = begins[1] - begins[0]
        if width < 2 or any(b - a != width for a, b in pairwise(begins)):
            return None
        below = rows[at + 1][1]
        parts = [
            [cell_text(below[n]) if n < len(below) else "" for n in range(begin, begin + width)]
            for begin in begins
        ]
        fields = [field_of(text, "timetable") for text in parts[0]]
        if all(part == parts[0] for part in parts) and "class" in fields and _WHEN & set(fields):
            return _Blocks(at, days, parts[0], True)
        firsts = [row[n] for _, row in rows[at + 1 :] for n in begins if n < len(row) and cell_text(row[n])]
        are_timed = bool(firsts) and all(map(is_time, firsts))
        return (
            _Blocks(at, days, ["Time", "Class", *[""] * (width - 2)], False)
            if are_timed and width == 2
            else None
        )
    return None


def _in_rows(rows: Sequence[Row], blocks: _Blocks) -> Iterator[Row]:
    width = len(blocks.headings)
    for n, (number, row) in enumerate(rows):
        if n < blocks.at:
            yield number, [cell for cell in row if cell_text(cell)][:width]
        elif n == blocks.at:
            yield number, ["Day", *blocks.headings]
        elif n > blocks.at + blocks.is_headed:
            held = [(day, [*row[begin : begin + width]]) for begin, day in blocks.days.items()]
            filled = [(day, cells) for day, cells in held if any(map(cell_text, cells))]
            if not filled:
                yield number, []
            yield from ((number, [day, *cells]) for day, cells in filled)
