"""Spaces of other widths, or of none, and hyphens that do not break, as text copied from a page has them: they mean no more than
plain ones, or nothing."""

from collections.abc import Iterator
from functools import partial
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.sheets.sheet import RowsAgain, Sheet

_WIDE = "\u00a0\u2007\u2009\u202f"
"""No-break and thin spaces."""
_UNSEEN = "\u200b\u2060\ufeff"
"""Spaces without a width: nobody sees them, and no date can be read with them."""
_HYPHENS = "\u2010\u2011"
_PLAIN = {
    **dict.fromkeys(map(ord, _HYPHENS), "-"),
    **dict.fromkeys(map(ord, _WIDE), " "),
    **dict.fromkeys(map(ord, _UNSEEN), ""),
}
_LOOKED_AT = 200


def has_wide_spaces(text: str) -> bool:
    """Whether a text has one of them, or a hyphen of another kind; most have nothing but ASCII."""
    return not text.isascii() and any(space in text for space in _WIDE + _UNSEEN + _HYPHENS)


def with_plain_spaces(sheet: Sheet) -> Sheet:
    """The sheet with plain spaces, where its first rows show others."""
    rows = (row for _, row in islice(sheet.rows(), _LOOKED_AT))
    return (
        plain_spaced(sheet)
        if any(isinstance(c, str) and has_wide_spaces(c) for row in rows for c in row)
        else sheet
    )


def plain_spaced(sheet: Sheet) -> Sheet:
    """The sheet with plain spaces in all its texts."""
    return sheet._replace(read_rows=RowsAgain(partial(_plain_rows, sheet)))


def _plain_rows(sheet: Sheet) -> "Iterator[tuple[int, list[Cell]]]":
    for number, row in sheet.rows():
        yield number, [cell.translate(_PLAIN) if isinstance(cell, str) else cell for cell in row]
