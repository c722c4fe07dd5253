"""Classes of a plan that their row, or their cell, says are not held, or not then: they are refused, for they would be held."""

from functools import lru_cache
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import says_not_held
from nomarium.reading.cells.moves import LONGEST_MOVE, moved_away
from nomarium.reading.cells.notheld import may_be_off
from nomarium.reading.rows.calledoff import without_cancellation

_NOT_HELD: Final = Refusal(
    "row-called-off",
    "It says that the class is not held, and it would be.",
    "Take it out of the table; or, if something else is meant, say it in other words.",
)


@lru_cache(maxsize=4096)  # rooms and teachers come back
def said_off(text: str, is_name: bool = False) -> Refusal | None:
    """Why a class cannot stand of which this is said: that it is not held, or moved, and nothing else; `is_name`: or beside its name,
    `Knots (cancelled)`.

    >>> said_off("Loft 1"), said_off("Cancelled").code, said_off("moved to Friday").code, said_off("Knots (cancelled)", True).code
    (None, 'row-called-off', 'row-moved', 'row-called-off')
    """
    if is_name:
        return _NOT_HELD if may_be_off(text) and without_cancellation(text) is not None else None
    if says_not_held(text):
        return _NOT_HELD
    return moved_away(text) if len(text) <= LONGEST_MOVE and may_be_off(text) else None
