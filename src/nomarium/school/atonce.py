"""Which part of drawn cells is the class, by what stands in several drawings at once: nobody teaches two classes in one lesson."""

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Final

from nomarium.school.planheads import plain

Moments = Mapping[object, Sequence[Sequence[str]]]
"""The parts of the cells of each lesson."""
_ENOUGH: Final = 2


def class_at(first: int, others: Sequence[int], moments: Moments) -> int | None:
    """The place of the part that is the class in place of the first one: its texts stand in several cells of one lesson, at twice or
    more, and those of the first never do. None where nothing shows it."""
    if not others or _twice(first, moments):
        return None
    found = [at for at in others if _twice(at, moments) >= _ENOUGH]
    return found[0] if len(found) == 1 else None


def _twice(at: int, moments: Moments) -> int:
    """How many texts at a place stand in several cells of one lesson."""
    return sum(
        count > 1
        for cells in moments.values()
        for count in Counter(plain(parts[at]) for parts in cells if at < len(parts)).values()
    )
