"""The rows of a table by which its columns are told apart: those that hold what all hold."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.rows.faults import repeats_headings
from nomarium.sheets.sheet import Row, is_blank


def held_rows(rows: Sequence[Row], headings: Sequence[str]) -> list[Sequence[Cell]]:
    """The rows that hold something, but for the headings where they come again."""
    first = headings[0] if headings else ""
    return [
        row
        for _, row in rows
        if not is_blank(row) and not (row[0] == first and repeats_headings(row, headings))
    ]


def without_sections(rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> Sequence[Sequence[Cell]]:
    """The rows but for those that say which rows below are of them, and for lone texts below the last; the same where none does,
    which is found out at the least cost."""
    if not any(row and row[0] and not any(row[1:]) for row in rows):
        return rows
    from nomarium.reading.rows.sectiondate import without_titles

    return without_titles(rows, lexicon)
