"""A sheet with its rows and columns exchanged."""

from collections.abc import Sequence

from nomarium.sheets.sheet import Area, Row, Sheet


def turn(rows: Sequence[Row]) -> list[Row]:
    """Rows and columns exchanged; the number of a row is then that of its column, from 0."""
    width = max((len(row) for _, row in rows), default=0)
    return [(n, [row[n] if n < len(row) else "" for _, row in rows]) for n in range(width)]


def on_its_side(sheet: Sheet) -> Sheet:
    """A sheet whose rows are its columns."""
    rows = turn([*sheet.rows()])
    return sheet._replace(read_rows=lambda: iter(rows))


def turned(sheet: Sheet, rows: Sequence[Row]) -> Sheet:
    """A sheet whose merged areas are exchanged as its rows and columns are."""
    at = {number: n for n, (number, _) in enumerate(rows)}
    merged = tuple(
        Area(
            one.first_column - sheet.first_column - 1,
            at[one.first_row + 1],
            one.last_column - sheet.first_column - 1,
            at[one.last_row + 1],
        )
        for one in sheet.merged
        if one.first_row + 1 in at and one.last_row + 1 in at
    )
    return sheet._replace(merged=merged, first_column=0)
