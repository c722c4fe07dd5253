"""Dates that say a half of their day, `Sat 10 Oct am` and `Sat 10 Oct pm`, over or beside the cells of a roster."""

import re
from collections.abc import Iterator, Mapping
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosterslots import Drawing, Slot
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, RowsAgain

_WITH_HALF: Final = re.compile(
    r"(?i)(?P<date>.*\d.*?)[\s,(–-]+(?P<half>[ap]\.?m\.?|mornings?|afternoons?|evenings?|eve|night|matin|apr[èe]s-midi|soir|vormittags?|nachmittags?|abends?)\)?"
)
_LONGEST: Final = 40
_LEAST: Final = 2


class Halves(NamedTuple):
    """The halves that dates say: where several in a row do, by column, and in a column, by row."""

    over: Mapping[int, str] = MappingProxyType({})
    beside: Mapping[int, str] = MappingProxyType({})


def without_halves(top: Top) -> tuple[Top, Halves]:
    """The top of a sheet whose dates do not say their halves, and these; the sheet's own where none does."""
    found = {
        (number, n): half
        for number, row in top.rows
        for n, cell in enumerate(row)
        if (half := _half_of(cell, top.lexicon)) is not None
    }
    rows = [number for number, _ in found]
    columns = [n for _, n in found]
    head = next((number for number in dict.fromkeys(rows) if rows.count(number) >= _LEAST), None)
    beside = next((n for n in dict.fromkeys(columns) if columns.count(n) >= _LEAST), None)
    if head is not None:
        halves = Halves(over={n: half for (number, n), (_, half) in found.items() if number == head})
    elif beside is not None:
        halves = Halves(beside={number: half for (number, n), (_, half) in found.items() if n == beside})
    else:
        return top, Halves()

    def bare() -> Iterator[Row]:
        for number, row in top.sheet.rows():
            yield (
                number,
                [found[number, n][0] if (number, n) in found else cell for n, cell in enumerate(row)],
            )

    return Top(top.sheet._replace(read_rows=RowsAgain(bare)), top.options, top.is_whole), halves


def with_halves(drawing: Drawing, halves: Halves) -> Drawing:
    """The drawing with each entry in the half of the day that its date says, where nothing else says when it is."""
    slots = [_in_half(slot, halves) for slot in drawing.slots]
    return drawing._replace(slots=slots) if halves != Halves() else drawing


def _in_half(slot: Slot, halves: Halves) -> Slot:
    half = halves.over.get(slot.column) or halves.beside.get(slot.row, "")
    return (
        slot
        if slot.part or slot.is_session or slot.time is not NOTHING or not half
        else slot._replace(part=half)
    )


def _half_of(cell: Cell, lexicon: Lexicon) -> tuple[str, str] | None:
    """The date of a cell and the half of its day."""
    match = _WITH_HALF.fullmatch(cell.strip()) if isinstance(cell, str) and len(cell) <= _LONGEST else None
    if match is None or not looks_like_date(match["date"], lexicon) or match["date"].isdecimal():
        return None
    return match["date"], match["half"]
