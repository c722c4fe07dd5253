"""Cells over several rows of a table without lines: a date written once, half-way down the rows that it is for."""

from collections.abc import Sequence
from itertools import pairwise
from statistics import median
from typing import Final, NamedTuple

from nomarium.sheets.sheet import Area

_LEAST_ROWS: Final = 2
_MOST_APART: Final = 1.5
"""How many times as far apart two rows stand as two others, at most: lines that wrap stand closer."""
_OFF: Final = 0.25
"""Of the way from one row to the next: how far the end of a group may miss the middle between two rows."""


class Grouped(NamedTuple):
    rows: list[list[str]]
    merged: tuple[Area, ...]


def grouped(tops: Sequence[float], rows: Sequence[list[str]]) -> Grouped | None:
    """The rows of a table whose first column holds what stands once for several, centred beside them, each of these at the
    first of its rows. None where a line is neither a row nor such a cell, or where the places do not add up.

    Each such cell stands in the middle of its rows: from the top of the first row on, that says where each group ends.
    """
    head = 1 if rows and all(rows[0]) else 0
    records = [n for n in range(head, len(rows)) if any(rows[n][1:])]
    labels = [n for n in range(head, len(rows)) if rows[n][0]]
    alone = [n for n in labels if n not in records]
    if len(records) < _LEAST_ROWS or not labels or (not alone and labels[0] == records[0]):
        return None
    steps = [tops[b] - tops[a] for a, b in pairwise(records)]
    if max(steps) > _MOST_APART * min(steps):
        return None
    step = median(steps)
    begin, at = tops[records[0]] - step / 2, 0
    made: list[list[str]] = [list(row) for row in rows[:head]]
    merged: list[Area] = []
    for label in labels:
        end = 2 * tops[label] - begin
        group = [n for n in records[at:] if tops[n] < end]
        after = records[at + len(group)] if at + len(group) < len(records) else None
        middle = (
            (tops[group[-1]] + tops[after]) / 2
            if group and after is not None
            else tops[records[-1]] + step / 2
        )
        if not group or abs(end - middle) > _OFF * step * len(group):
            return None
        if len(group) > 1:
            merged.append(Area(len(made), 0, len(made) + len(group) - 1, 0))
        made += [[rows[label][0] if n == group[0] else "", *rows[n][1:]] for n in group]
        begin, at = middle, at + len(group)
    if at < len(records):
        return None
    return Grouped(made, tuple(merged))
