"""A table within a text, its columns apart by spaces or tabs under a line of headings: `Date      Opponent      Time`."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from itertools import pairwise
from typing import Final

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top
from nomarium.reading.layouts.textlines import text_line
from nomarium.sheets.sheet import Row, cell_text

_PIECE: Final = re.compile(r"\S+(?:[ ]\S+)*")
LEAST_COLUMNS: Final = 3
_LEAST_ROWS: Final = 2
_DAYS: Final = frozenset(("date", "when", "start"))
_FARTHEST: Final = 2
"""Characters by which a cell begins left or right of its heading."""

Piece = tuple[int, str]
"""Where it begins, and its text."""


def table_of_lines(top: Top, lines: Sequence[Row], lexicon: Lexicon) -> Reading | None:
    """A text that holds a table, its columns apart by spaces, where that reads as a list."""
    rows = _rows_of(lines, lexicon)
    if rows is None:
        return None
    sheet = top.sheet._replace(read_rows=lambda: rows, unit="line", read_lines=None)
    options = top.options._replace(header_row=rows[0][0])
    reading = list_in(Top(sheet, options, top.is_whole), sheet, top.seen)
    if isinstance(reading, NotRead) or not all("--fill-down" in one.remedy for one in reading.problems):
        return None
    others = len([row for _, row in lines if row and cell_text(row[0]).strip()]) - len(rows)
    message = f"Read as a table: the columns under the headings of line {rows[0][0]}."
    told = note("text-columns", message, "If it is none: --as text.").at(sheet.place())
    return reading._replace(
        layout="text", events=partial(with_others, reading, others), notes=(told, *reading.notes)
    )


def with_others(reading: Reading, others: int, account: Account) -> Iterator[Event]:
    """The events of a table within a text, whose other lines are notes."""
    yield from reading.events(account)
    account.ledger.read += others
    account.ledger.notes += others


def _rows_of(lines: Sequence[Row], lexicon: Lexicon) -> list[Row] | None:
    """The rows of a table that a text holds, the headings first, where all its other lines are without a date. A table may stand
    in several pieces, each under the same headings."""
    texts = [(number, str(row[0]).expandtabs().rstrip() if row else "") for number, row in lines]
    heads = [n for n, (_, text) in enumerate(texts) if _are_headings(pieces_of(text))]
    names = [[name for _, name in pieces_of(texts[n][1])] for n in heads]
    if not heads or any(one != names[0] for one in names):
        return None
    rows: list[Row] = [(texts[heads[0]][0], names[0])]
    of_tables: set[int] = set()
    for head in heads:
        columns = pieces_of(texts[head][1])
        end = next((n for n in range(head + 1, len(texts)) if not texts[n][1].strip()), len(texts))
        for number, text in texts[head + 1 : end]:
            cells = cells_of(text, columns)
            if cells is None:
                return None
            rows.append((number, cells))
        of_tables |= set(range(head, end))
    others = [line for n, line in enumerate(texts) if n not in of_tables]
    if len(rows) <= _LEAST_ROWS or any(text_line(number, text, lexicon).date for number, text in others):
        return None
    return rows


def pieces_of(text: str) -> list[Piece]:
    """What stands in a line apart by two spaces or more."""
    return [(match.start(), match[0]) for match in _PIECE.finditer(text)]


def _are_headings(pieces: Sequence[Piece]) -> bool:
    """Whether the pieces of a line are headings, one of which is that of dates."""
    if len(pieces) < LEAST_COLUMNS or any(map(str.isdigit, "".join(text for _, text in pieces))):
        return False
    fields = [match.field if (match := match_heading(text)) is not None else "" for _, text in pieces]
    return bool(_DAYS & set(fields)) and len(list(filter(None, fields))) > 1


def cells_of(text: str, columns: Sequence[Piece]) -> list[str] | None:
    """The parts of a line by their columns, each of which begins where its heading does. None where one does not."""
    begins = [place for place, _ in columns]
    if all(place >= len(text) or not text[:place] or text[place - 1] == " " for place in begins):
        return [text[a:b].strip() for a, b in pairwise([0, *begins[1:], max(len(text), begins[-1])])]
    pieces = pieces_of(text)
    if len(pieces) == len(columns):
        return [text for _, text in pieces]
    cells = [""] * len(columns)
    for begin, piece in pieces:
        at = next((n for n, place in enumerate(begins) if abs(place - begin) <= _FARTHEST), None)
        if at is None or cells[at]:
            return None
        cells[at] = piece
    return cells
