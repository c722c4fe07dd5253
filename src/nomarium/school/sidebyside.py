"""A table of a plan that goes on beside itself, `Class, Day, Period` and again `Class, Day, Period`: one below the other."""

from collections.abc import Iterator, Sequence
from functools import partial
from itertools import islice, pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.school.planheads import HEADINGS, field_of, plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_LEAST_HEADINGS: Final = 2


def one_below_the_other(sheet: Sheet) -> Sheet:
    """The sheet with the parts of its table below each other; the sheet itself where its headings do not come again as a whole,
    or something stands over them that tells them apart."""
    above: Row | None = None
    for number, row in islice(sheet.rows(), _HEAD_ROWS):
        parts = _parts(row)
        if parts and sum(map(bool, map(cell_text, above[1] if above else ()))) < len(parts):
            return sheet._replace(read_rows=partial(_below, sheet, number, parts))
        above = (number, row)
    return sheet


def _parts(row: Sequence[Cell]) -> list[tuple[int, int]]:
    """From which column to which, exclusive, each part of a table has its headings; none where they do not come again."""
    names = [plain(cell_text(cell)) for cell in row]
    first = next((name for name in names if name), "")
    starts = [n for n, name in enumerate(names) if name and name == first]
    bounds = [*starts, len(names)]
    groups = [[name for name in names[a:b] if name] for a, b in pairwise(bounds)]
    are_same = len(groups) > 1 and all(group == groups[0] for group in groups)
    if not are_same or len(groups[0]) < _LEAST_HEADINGS:
        return []
    headings = [cell_text(cell) for cell in row[starts[0] : bounds[1]] if cell_text(cell)]
    if not any(all(field_of(text, table) for text in headings) for table in HEADINGS):
        return []
    return list(pairwise(bounds))


def _below(sheet: Sheet, head: int, parts: Sequence[tuple[int, int]]) -> Iterator[Row]:
    width = max(end - first for first, end in parts)
    for number, row in sheet.rows():
        if number < head:
            yield number, row
            continue
        for first, end in parts[:1] if number == head else parts:
            cells = [*row[first:end], *[""] * (width - len(row[first:end]))]
            if number == head or first == parts[0][0] or any(map(cell_text, cells)):
                yield number, cells
