"""Stretches of time, as pairs of numbers of which the second is exclusive: joined, and what lies between them."""

from bisect import bisect_right
from collections.abc import Iterable, Iterator, Sequence

Interval = tuple[int, int]


def joined(intervals: Iterable[Interval]) -> list[Interval]:
    """The same stretches in order, those that overlap or touch made one.

    >>> joined([(5, 7), (1, 3), (2, 4), (7, 8)])
    [(1, 4), (5, 8)]
    """
    found: list[Interval] = []
    for start, end in sorted(intervals):
        if found and start <= found[-1][1]:
            found[-1] = found[-1][0], max(found[-1][1], end)
        else:
            found.append((start, end))
    return found


def gaps(busy: Sequence[Interval], start: int, end: int, length: int) -> Iterator[Interval]:
    """What is free between two moments for so long or longer; `busy` is joined.

    >>> list(gaps([(2, 3), (6, 20)], 0, 10, 2))
    [(0, 2), (3, 6)]
    """
    at = start
    for n in range(max(bisect_right(busy, (start, start)) - 1, 0), len(busy)):
        first, last = busy[n]
        if first >= end:
            break
        if first - at >= length:
            yield at, first
        at = max(at, last)
    if end - at >= length:
        yield at, end


def is_free(busy: Sequence[Interval], start: int, end: int) -> bool:
    """Whether nothing of a stretch is busy; `busy` is joined.

    >>> is_free([(2, 4)], 4, 5), is_free([(2, 4)], 3, 5)
    (True, False)
    """
    at = bisect_right(busy, (start, start))
    return not (at < len(busy) and busy[at][0] < end) and not (at and busy[at - 1][1] > start)
