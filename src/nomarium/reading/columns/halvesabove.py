"""Rows that hold a half of the day alone, `Morning`, `Evening`, over others that say their times: these are in that half."""

import datetime as dt
import re
from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final, Literal

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import listed
from nomarium.sheets.sheet import Row, RowsAgain, Sheet, cell_text

_LOOKED_AT: Final = 120
_HALF: Final = (
    r"(?i)\W*(?:(?P<am>mornings?|forenoon|a\.?m\.?|matin|vormittags?|ma[ñn]ana|ochtend)|"
    r"(?P<pm>afternoons?|p\.?m\.?|apr[èe]s[- ]midi|nachmittags?|tarde|middag)|(?P<late>evenings?|nights?|soir[ée]e?|abends?|noche|avond))"
    r"(?:\s+(?:sessions?|programme|program|events?))?\W*"
)
_OPEN: Final = r"(?P<hour>1[0-2]|[1-9])(?:[:.][0-5]\d)?(?:\s?[-–—]\s?(?:1[0-2]|[1-9])(?:[:.][0-5]\d)?)?"
"""A time, or two, of which neither says its half of the day."""
_Half = Literal["am", "pm", "late"]
_HOURS: Final[dict[_Half, frozenset[int]]] = {
    "am": frozenset(range(5, 12)),
    "pm": frozenset((12, 1, 2, 3, 4, 5, 6)),
    "late": frozenset(range(4, 12)),
}
"""The hours by which each half is meant; any other is left as it stands."""


def with_halves_said(sheet: Sheet) -> Sheet:
    """The sheet with the half of the day in the times of rows that stand below such a row, and a note of it; the sheet itself
    where none does."""
    top = list(islice(sheet.rows(), _LOOKED_AT))
    found = {number: text for number, row in top if _half_alone(row) is not None and (text := _lone(row))}
    if not found or not any(_moved(row, half) != list(row) for _, row, half in _below(top)):
        return sheet

    def rows() -> Iterator[Row]:
        for number, row, half in _below(sheet.rows()):
            yield number, _moved(row, half) if half else row

    named = listed(list(dict.fromkeys(f"“{text}”" for text in found.values())))
    message = f"Rows below {named}, alone in a row, have their times in that half of the day."
    told = note("halves-above", message).at(sheet.place(min(found)))
    return sheet._replace(read_rows=RowsAgain(rows), notes=(*sheet.notes, told))


def _below(rows: "Sequence[Row] | Iterator[Row]") -> Iterator[tuple[int, Sequence[Cell], _Half | None]]:
    """Each row with the half of the day that the last lone text above it says."""
    half: _Half | None = None
    for number, row in rows:
        if _lone(row):
            half = _half_alone(row)
        yield number, row, half


def _lone(row: Sequence[Cell]) -> str:
    """The one text of a row; nothing where it has several."""
    texts = [text for cell in row if (text := cell_text(cell))]
    return texts[0] if len(texts) == 1 else ""


def _half_alone(row: Sequence[Cell]) -> _Half | None:
    text = _lone(row)
    match = re.fullmatch(_HALF, text) if text else None
    if match is None:
        return None
    return "am" if match["am"] else "pm" if match["pm"] else "late"


def _moved(row: Sequence[Cell], half: _Half | None) -> list[Cell]:
    """A row with its half of the day in the times with which it begins."""
    cells = list(row)
    for n, cell in enumerate(cells):
        if half is None or (text := cell_text(cell)) == "":
            continue
        if isinstance(cell, dt.time):
            if half != "am" and cell.hour in _HOURS[half] and cell.hour < 12:
                cells[n] = cell.replace(hour=cell.hour + 12)
            continue
        match = re.fullmatch(_OPEN, text) if isinstance(cell, str) else None
        if match is None:
            break  # what is on
        if int(match["hour"]) in _HOURS[half]:
            cells[n] = f"{text} {'am' if half == 'am' else 'pm'}"
    return cells
