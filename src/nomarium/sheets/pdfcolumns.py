"""Tables without lines: words that stand under one another in columns, with gaps between."""

import re
from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from itertools import pairwise
from statistics import median
from typing import Final, NamedTuple

from nomarium.sheets.pdfgroups import grouped
from nomarium.sheets.pdftext import Line, Piece, parted_at
from nomarium.sheets.pdfzones import in_reading_order
from nomarium.sheets.sheet import Area

_MOST_BETWEEN: Final = 2.6
"""Heights of a line from one line's top to the next within one table."""
_FEWEST: Final = 3
"""Lines with several pieces that make a table."""
_HALF: Final = 0.7
"""Heights of a line from one line's top to the next, below which both are of one row."""
_SAME_COLUMN: Final = 2.0
"""Points by which what stands in one column begins apart at most."""
_SHARE: Final = 0.3
"""Rows of a table that have something in several columns, of all."""
_GUTTER: Final = 0.45
"""Of the height of a line: how wide the gap between columns is at least."""
_NARROW: Final = 0.1
"""The same where several lines have something that begins right there."""
_RIGHT_THERE: Final = 0.5
"""Points by which they begin apart at most."""
_LONG_TEXT: Final = 28
"""Characters of most lines of running text, where pages are set in columns."""


class Block(NamedTuple):
    """Lines that make a table, or run on as text."""

    top: float
    bottom: float
    lines: tuple[Line, ...]
    rows: list[list[str]] | None
    """The rows of the table; None for lines of text."""
    edges: tuple[float, ...] = ()
    merged: tuple[Area, ...] = ()
    """Its cells over several rows."""


def blocks_of(lines: Sequence[Line]) -> list[Block]:
    """The lines of a page as tables and text, in the order in which they are read."""
    found: list[Block] = []
    parts = (run for part in in_reading_order(lines) for run in _runs(_parted(part)))
    for run in (run for part in parts for run in _under_heads(part)):
        table = _table(run)
        if table is None:
            found += [Block(line.top, line.bottom, (line,), None) for line in run]
        else:
            found.append(table)
    return found


def _parted(lines: Sequence[Line]) -> list[Line]:
    """The lines, those whose columns nearly touch parted where columns begin in several others."""
    edges = _begun([piece.left for line in lines for piece in line.pieces[1:]], _SAME_COLUMN)
    return [parted_at(line, edges) for line in lines] if edges else list(lines)


def _begun(lefts: Sequence[float], near: float) -> list[float]:
    """The places at which several pieces begin, of all where pieces do."""
    ordered = sorted(lefts)
    return [
        left
        for left in ordered
        if bisect_right(ordered, left + near) - bisect_left(ordered, left - near) >= _FEWEST
    ]


def _runs(lines: Sequence[Line]) -> Iterator[list[Line]]:
    """Lines that stand close under one another, cut so that a run with columns begins and ends with them."""
    close: list[list[Line]] = []
    for line in lines:
        before = close[-1][-1] if close else None
        if before is not None and line.top - before.top <= _MOST_BETWEEN * max(before.height, line.height):
            close[-1].append(line)
        else:
            close.append([line])
    for run in close:
        many = [n for n, line in enumerate(run) if len(line.pieces) > 1]
        if len(many) < _FEWEST:
            yield run
            continue
        first, last = many[0], many[-1] + 1
        while last < len(run) and (
            _hangs_under(run[last], run[many[0]]) or _is_more(run[last], run[first:last])
        ):
            last += 1
        yield from (part for part in (run[:first], run[first:last], run[last:]) if part)


def _is_more(line: Line, above: Sequence[Line]) -> bool:
    """Whether a line is the second one of a cell in the last row above: as close to it as such lines are, and in its column."""
    gaps = [b.top - a.top for a, b in pairwise(above)]
    is_close = max(gaps) > 1.15 * min(gaps) and line.top - above[-1].top < 1.1 * min(gaps)
    return (
        is_close
        and len(line.pieces) == 1
        and any(abs(piece.left - line.pieces[0].left) < _SAME_COLUMN for piece in above[-1].pieces)
    )


def _under_heads(run: list[Line]) -> Iterator[list[Line]]:
    """A run, or its parts under the lines of one piece that head tables with columns of their own, as the days of a programme do."""
    several = [line for line in run if len(line.pieces) > 1]
    if len(several) < _FEWEST or len(_columns(several)) == max(len(line.pieces) for line in run):
        yield run
        return
    left = min(line.pieces[0].left for line in run)
    heads = [
        n
        for n, line in enumerate(run)
        if len(line.pieces) == 1 and line.pieces[0].left - left < line.height and re.search(r"\d", line.text)
    ]
    cuts = sorted({0, *heads, *(n + 1 for n in heads), len(run)})
    parts = [run[a:b] for a, b in pairwise(cuts)]
    if all(a in heads or _table(part) is not None for a, part in zip(cuts, parts, strict=False)):
        yield from parts
    else:
        yield run


def _hangs_under(line: Line, head: Line) -> bool:
    """Whether a line of one piece goes on in a column that is not the first."""
    return line.pieces[0].left > head.pieces[0].right


def _table(lines: Sequence[Line]) -> Block | None:
    several = [line for line in lines if len(line.pieces) > 1]
    if len(several) < _FEWEST:
        return None
    columns = _columns(several)
    if len(columns) < 2 or _are_texts_side_by_side(several, columns):
        return None
    rows = [_cells(line.pieces, columns) for line in lines]
    beside = sum(sum(map(bool, row)) > 1 for row in rows)
    if beside < _FEWEST or beside < _SHARE * len(rows):
        return None  # a few gaps among lines of text
    edges = tuple(left for left, _ in columns)
    if (groups := grouped([line.top for line in lines], rows)) is not None:
        return Block(lines[0].top, lines[-1].bottom, tuple(lines), groups.rows, edges, groups.merged)
    rows, tops = _overlapping([line.top for line in lines], rows, median(line.height for line in lines))
    goes_on = _going_on([b - a for a, b in pairwise(tops)], rows)
    whole: list[list[str]] = []
    for row, is_more in zip(rows, (False, *goes_on), strict=True):
        if is_more:
            whole[-1] = [f"{above}\n{text}".strip() for above, text in zip(whole[-1], row, strict=True)]
        else:
            whole.append(row)
    return Block(lines[0].top, lines[-1].bottom, tuple(lines), whole, edges)


def _overlapping(
    tops: Sequence[float], rows: Sequence[list[str]], height: float
) -> tuple[list[list[str]], list[float]]:
    """The rows with those made one that stand half a line apart: a cell of two lines beside cells that are centred."""
    whole: list[list[str]] = []
    at: list[float] = []
    last = float("-inf")
    for top, row in zip(tops, rows, strict=True):
        if top - last < _HALF * height:
            whole[-1] = [f"{above}\n{text}".strip() for above, text in zip(whole[-1], row, strict=True)]
        else:
            whole.append(row)
            at.append(top)
        last = top
    return whole, at


def _going_on(gaps: Sequence[float], rows: Sequence[Sequence[str]]) -> list[bool]:
    """Which rows from the second on go on with the cells above them: those that stand closer to them than others do, and fill
    fewer columns, the first one least of all."""
    if not gaps:
        return []
    middle = (min(gaps) + max(gaps)) / 2
    close = [gap < middle and max(gaps) > 1.15 * min(gaps) for gap in gaps]
    filled = [sum(map(bool, row)) for row in rows[1:]]
    opening = [n for n, is_close in zip(filled, close, strict=True) if not is_close]
    hanging = [n for n, is_close in zip(filled, close, strict=True) if is_close]
    if not hanging or len(opening) < 2 or sum(hanging) / len(hanging) + 0.3 > sum(opening) / len(opening):
        return [False] * len(gaps)
    return close


def _columns(lines: Sequence[Line]) -> list[tuple[float, float]]:
    """Where the columns stand: between gaps that nearly no line covers."""
    pieces = sorted(piece for line in lines for piece in line.pieces)
    height = median(line.height for line in lines)
    allowed = len(lines) // 12
    begun = set(_begun([piece.left for piece in pieces], _RIGHT_THERE))
    places = sorted({edge for piece in pieces for edge in (piece.left, piece.right)})
    columns: list[tuple[float, float]] = []
    begin: float | None = None
    gap_from = places[0]
    for left, right in pairwise(places):
        covering = sum(piece.left < right and piece.right > left for piece in pieces)
        if covering > allowed:
            if begin is None:
                begin = left
            elif gap_from > begin and left - gap_from >= (_NARROW if left in begun else _GUTTER) * height:
                columns.append((begin, gap_from))
                begin = left
            gap_from = right
    if begin is not None:
        columns.append((begin, gap_from))
    return columns


def _cells(pieces: Sequence[Piece], columns: Sequence[tuple[float, float]]) -> list[str]:
    cells = [""] * len(columns)
    for piece in pieces:
        at = max((n for n, (left, _) in enumerate(columns) if piece.left >= left - 1), default=0)
        centred = [n for n, (left, right) in enumerate(columns) if piece.left < right and piece.right > left]
        at = centred[0] if centred and at not in centred else at
        cells[at] = f"{cells[at]} {piece.text}".strip()
    return cells


def _are_texts_side_by_side(lines: Sequence[Line], columns: Sequence[tuple[float, float]]) -> bool:
    """Whether two columns are running text: long lines on both sides."""
    if len(columns) > 3 or len(lines) < 5:
        return False
    longs = [
        median(len(piece.text) for line in lines for piece in line.pieces if left <= piece.left <= right)
        for left, right in columns
    ]
    return min(longs) > _LONG_TEXT
