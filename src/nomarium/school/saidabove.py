"""What lines over a list of classes say of all of them: `Teacher: Quill`, or the label and the name in cells of their own."""

from collections.abc import Collection, Mapping, Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_OF_ALL: Final = frozenset(("teacher", "room", "group", "division", "term"))
_LONGEST: Final = 60


def said_above(rows: Sequence[Row], known: Collection[str]) -> dict[str, str]:
    """Field → what the rows above the headings say that it is for all classes, where no column (`known`) says it for each."""
    found: dict[str, str] = {}
    for _, row in rows:
        for label, value in _pairs(row):
            field = field_of(label, "timetable")
            if field in _OF_ALL and field not in known:
                found.setdefault(field, value)
    return found


def _pairs(row: Sequence[Cell]) -> list[tuple[str, str]]:
    """The labels of a row with what stands behind their colons, or in the next cell."""
    texts = [text for cell in row if (text := cell_text(cell))]
    pairs = [(label.strip(), value.strip()) for text in texts for label, _, value in [text.partition(":")]]
    if len(texts) == 2 and not pairs[0][1]:
        pairs = [(pairs[0][0], texts[1])]
    return [(label, value) for label, value in pairs if label and 0 < len(value) <= _LONGEST]


def told_above(sheet: Sheet, row: int, said: Mapping[str, str]) -> Problem:
    """The note that all classes have these."""
    named = listed([f"{field} “{value}”" for field, value in said.items()])
    message = f"All classes of the table have what stands above it: {named}."
    return note("said-above", message, "If not, give them a column.").at(sheet.place(row))
