"""Rows whose cells hold several lines, each line of which goes with that of the others: `9:00⏎13:00` beside `Launch⏎Race`."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.sheets.sheet import cell_text


def rows_of_lines(row: Sequence[Cell], when_at: int, title_at: int, count: int) -> list[Sequence[Cell]]:
    """A row for each of so many days or times, with its line of each cell that has as many; the row itself for all where its title
    does not have as many lines as the cell that says when.

    >>> rows_of_lines(["9:00\\n13:00", "Launch\\nRace", "Quay"], 0, 1, 2)
    [['9:00', 'Launch', 'Quay'], ['13:00', 'Race', 'Quay']]
    """
    lines = [_lines(cell) for cell in row]
    are_paired = min(when_at, title_at) >= 0 and len(lines[when_at]) == len(lines[title_at]) == count > 1
    if not are_paired or any(line[0] in "(–—-" or line[0].islower() for line in lines[title_at]):
        return [row] * count  # The Lost Anchor⏎(a comedy), shown twice
    return [
        [own[n] if len(own) == count else cell for own, cell in zip(lines, row, strict=True)]
        for n in range(count)
    ]


def _lines(cell: Cell) -> list[str]:
    """The lines of a cell that hold something."""
    return (
        [line.strip() for line in cell_text(cell).split("\n") if line.strip()]
        if isinstance(cell, str)
        else []
    )
