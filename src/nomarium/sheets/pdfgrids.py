"""Ruled tables of a page: the grid that lines make, which of its cells are one, and what stands in each."""

from bisect import bisect_left
from collections.abc import Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.sheets.pdfpages import Letter, Rule
from nomarium.sheets.pdftext import Line, lines_of, text_of
from nomarium.sheets.sheet import Area

_NEAR: Final = 3.0
"""Points by which lines may miss each other and still meet."""
_FEW_ROWS: Final = 3
"""Rows of a grid that may each hold several: a head, and everything under it."""
_MOST_LINES: Final = 600
"""Lines of one grid in either direction."""


class Grid(NamedTuple):
    """A ruled table: where it stands, its rows of texts, its merged cells and the left edges of its columns."""

    top: float
    bottom: float
    left: float
    right: float
    rows: list[list[str]]
    merged: list[Area]
    edges: tuple[float, ...]


def grids_of(letters: Sequence[Letter], rules: Sequence[Rule]) -> list[Grid]:
    """The ruled tables of a page, from the top down. A frame around text, and lines that part only rows or only columns, are
    none: their columns are found by the gaps between words."""
    across = _joined([rule for rule in rules if rule.right - rule.left > rule.bottom - rule.top], True)
    down = _joined([rule for rule in rules if rule.right - rule.left <= rule.bottom - rule.top], False)
    found = []
    for rows, columns in _meeting(across, down):
        edges = _edges([rule.left for rule in columns])
        levels = _edges([rule.top for rule in rows])
        if len(edges) < 3 or len(levels) < 3 or max(len(edges), len(levels)) > _MOST_LINES:
            continue
        inside = [
            one for one in letters
            if edges[0] <= (one.left + one.right) / 2 <= edges[-1] and levels[0] <= (one.top + one.bottom) / 2 <= levels[-1]
        ]  # fmt: skip
        if inside:
            found.append(_grid(edges, levels, rows, columns, inside))
    return sorted(_outermost(found), key=lambda grid: grid.top)


def _outermost(grids: Sequence[Grid]) -> list[Grid]:
    """The grids that stand in no other."""
    return [
        one for one in grids
        if not any(
            other is not one and other.left <= one.left and other.right >= one.right and other.top <= one.top and other.bottom >= one.bottom
            for other in grids
        )
    ]  # fmt: skip


def _joined(rules: Sequence[Rule], is_across: bool) -> list[Rule]:
    """Lines in one direction, those that go on from one another made one."""
    found: list[Rule] = []
    for rule in sorted(rules, key=lambda one: (round(one.top if is_across else one.left), one.left, one.top)):
        last = found[-1] if found else None
        if (
            last is not None
            and is_across
            and abs(last.top - rule.top) < 1.5
            and rule.left <= last.right + _NEAR
        ):
            found[-1] = last._replace(right=max(last.right, rule.right))
        elif (
            last is not None
            and not is_across
            and abs(last.left - rule.left) < 1.5
            and rule.top <= last.bottom + _NEAR
        ):
            found[-1] = last._replace(bottom=max(last.bottom, rule.bottom))
        else:
            found.append(rule)
    return found


def _meeting(across: Sequence[Rule], down: Sequence[Rule]) -> list[tuple[list[Rule], list[Rule]]]:
    """Groups of lines that meet each other, directly or by way of others."""
    left = set(range(len(down)))
    groups = []
    unseen = set(range(len(across)))
    while unseen:
        rows, columns, todo = [], [], [(True, unseen.pop())]
        while todo:
            is_across, at = todo.pop()
            if is_across:
                rows.append(across[at])
                met = {n for n in left if _meet(across[at], down[n])}
                left -= met
                todo += [(False, n) for n in met]
            else:
                columns.append(down[at])
                met = {n for n in unseen if _meet(across[n], down[at])}
                unseen -= met
                todo += [(True, n) for n in met]
        groups.append((rows, columns))
    return groups


def _meet(across: Rule, down: Rule) -> bool:
    return (
        across.left - _NEAR <= down.left <= across.right + _NEAR
        and down.top - _NEAR <= across.top <= down.bottom + _NEAR
    )


def _edges(places: Sequence[float]) -> list[float]:
    """The places of lines, those that are nearly the same made one."""
    found: list[float] = []
    for place in sorted(places):
        if not found or place - found[-1] > _NEAR:
            found.append(place)
    return found


def _grid(
    edges: list[float],
    levels: list[float],
    rows: Sequence[Rule],
    columns: Sequence[Rule],
    letters: Sequence[Letter],
) -> Grid:
    heights, widths = list(pairwise(levels)), list(pairwise(edges))
    owner = _owners(heights, widths, rows, columns)
    held: dict[tuple[int, int], list[Letter]] = {}
    for letter in letters:
        row = _at(levels, (letter.top + letter.bottom) / 2)
        column = _at(edges, (letter.left + letter.right) / 2)
        held.setdefault(owner[row, column], []).append(letter)
    texts: list[list[str]] = []
    starts: list[int] = []
    for row in range(len(heights)):
        starts.append(len(texts))
        cells = {column: held.get((row, column), []) for column in range(len(widths))}
        texts += (_split(cells, len(widths)) if len(heights) <= _FEW_ROWS else None) or [
            [text_of(cells[column]) for column in range(len(widths))]
        ]
    starts.append(len(texts))
    merged = _merged(owner, starts)
    return Grid(levels[0], levels[-1], edges[0], edges[-1], texts, merged, tuple(edges[:-1]))


def _at(edges: Sequence[float], place: float) -> int:
    """The span between edges in which a place is."""
    return min(max(bisect_left(edges, place) - 1, 0), len(edges) - 2)


def _owners(
    heights: Sequence[tuple[float, float]],
    widths: Sequence[tuple[float, float]],
    rows: Sequence[Rule],
    columns: Sequence[Rule],
) -> dict[tuple[int, int], tuple[int, int]]:
    """The first cell of the rectangle that each cell belongs to: cells between which no line stands are one."""
    owner: dict[tuple[int, int], tuple[int, int]] = {}
    for row, (top, bottom) in enumerate(heights):
        for column, (left, right) in enumerate(widths):
            is_open_left = column > 0 and not any(
                abs(rule.left - left) <= _NEAR and rule.top <= (top + bottom) / 2 <= rule.bottom
                for rule in columns
            )
            is_open_above = row > 0 and not any(
                abs(rule.top - top) <= _NEAR and rule.left <= (left + right) / 2 <= rule.right
                for rule in rows
            )
            owner[row, column] = (
                owner[row, column - 1]
                if is_open_left
                else owner[row - 1, column]
                if is_open_above
                else (row, column)
            )
    return owner


def _merged(owner: dict[tuple[int, int], tuple[int, int]], starts: Sequence[int]) -> list[Area]:
    """Cells of several places; `starts` are the rows of texts at which the rows of the grid begin."""
    ends: dict[tuple[int, int], tuple[int, int]] = {}
    for (row, column), first in owner.items():
        last = ends.get(first, first)
        ends[first] = max(last[0], row), max(last[1], column)
    return [
        Area(starts[row], column, starts[last_row + 1] - 1, last_column)
        for (row, column), (last_row, last_column) in ends.items()
        if (last_row, last_column) != (row, column)
    ]


def _split(cells: dict[int, list[Letter]], width: int) -> list[list[str]] | None:
    """The rows of a cell row that holds several: where lines of type stand beside each other in several columns, and nothing
    is ruled between them."""
    lines = {column: lines_of(letters) for column, letters in cells.items() if letters}
    if len(lines) < 2:
        return None
    levels = _edges_of_lines([line for found in lines.values() for line in found])
    beside = [sum(any(_is_on(line, level) for line in found) for found in lines.values()) for level in levels]
    first = lines.get(min(cells), ())
    begun = sum(any(_is_on(line, level) for line in first) for level in levels)
    if len(levels) < 3 or min(begun, sum(count > 1 for count in beside)) < 0.7 * len(levels):
        return None
    return [
        [
            " ".join(line.text for line in lines.get(column, ()) if _is_on(line, level))
            for column in range(width)
        ]
        for level in levels
    ]


def _edges_of_lines(lines: Sequence[Line]) -> list[float]:
    found: list[float] = []
    for line in sorted(lines, key=lambda one: one.top):
        middle = (line.top + line.bottom) / 2
        if not found or middle - found[-1] > 0.4 * line.height:
            found.append(middle)
    return found


def _is_on(line: Line, level: float) -> bool:
    return abs((line.top + line.bottom) / 2 - level) <= 0.4 * line.height
