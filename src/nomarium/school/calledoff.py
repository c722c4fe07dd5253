"""Classes of a plan that their row, or their cell, says are not held, or not then: they are refused, for they would be held."""

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Final

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import CANCELLING_STARTS, says_not_held
from nomarium.reading.cells.moves import LONGEST_MOVE, moved_away
from nomarium.reading.cells.notheld import may_be_off
from nomarium.reading.rows.calledoff import without_cancellation
from nomarium.sheets.sheet import Sheet, cell_text

if TYPE_CHECKING:
    from nomarium.school.plantables import Item

_NOT_HELD: Final = Refusal(
    "row-called-off",
    "It says that the class is not held, and it would be.",
    "Take it out of the table; or, if something else is meant, say it in other words.",
)


def said_off(text: str, is_name: bool = False) -> Refusal | None:
    """Why a class cannot stand of which this is said: that it is not held, or moved, and nothing else; `is_name`: or beside its name,
    `Knots (cancelled)`.

    >>> said_off("Loft 1"), said_off("Cancelled").code, said_off("moved to Friday").code, said_off("Knots (cancelled)", True).code
    (None, 'row-called-off', 'row-moved', 'row-called-off')
    """
    if is_name:
        return _NOT_HELD if may_be_off(text) and without_cancellation(text) is not None else None
    if text[:4] in CANCELLING_STARTS and says_not_held(text):
        return _NOT_HELD
    return moved_away(text) if len(text) <= LONGEST_MOVE and may_be_off(text) else None


def rows_off(items: "Sequence[Item]", sheet: Sheet, ignored: Sequence[int]) -> list[Problem]:
    """A problem of each cell of a row of classes, or of a column that is passed over, that says so."""
    return [*_in_items(items), *_beside(items, sheet, ignored)]


def _in_items(items: "Sequence[Item]") -> Iterator[Problem]:
    for item in items:
        for field, cell in item.cells.items():
            if (why := said_off(cell_text(cell), field in ("class", "title"))) is not None:
                yield why.problem(item.place(field), item.text(field))


def _beside(items: "Sequence[Item]", sheet: Sheet, ignored: Sequence[int]) -> Iterator[Problem]:
    numbers = {item.number for item in items} if ignored else set()
    for number, row in sheet.rows() if ignored else ():
        for column in ignored if number in numbers else ():
            text = cell_text(row[column]) if column < len(row) else ""
            if (why := said_off(text)) is not None:
                yield why.problem(sheet.place(number, column), text)
