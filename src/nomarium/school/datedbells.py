"""A table of dates and labels that names each date's bells, too: the days on which they are not the regular ones."""

from nomarium.model.problem import Problem
from nomarium.reading.cells.offwords import changes_bells
from nomarium.school.bellsheets import DaysKind, kind_named
from nomarium.school.plantables import Item, Table
from nomarium.sheets.sheet import Row, Sheet


def days_with_bells(cycle: Table) -> Sheet | Problem | None:
    """The dates of a Cycle table whose bells are others than the regular ones, as a table of special days; None where it names no
    bells, and a problem where it names them and has no dates."""
    named = [
        item
        for item in cycle.items
        if (text := _bells_of(item)) and kind_named(text) != DaysKind() and item.text("label")
    ]
    if not named:
        return None
    if any(not item.text("date") for item in named):
        message = "The table names bells, and no date on which they ring."
        remedy = "Give the bells of a label a column Label in the table Bells, or list the dates in Special days (Date, Bells)."
        return named[0].problem("cycle-bells", "bells", message, remedy)
    rows: list[Row] = [(named[0].number - 1, ["Date", "Bells"])]
    rows += [(item.number, [item.cells["date"], _bells_of(item)]) for item in named]
    return cycle.sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0)


def _bells_of(item: Item) -> str:
    """The bells that a row names, in the column for them or in one that says other things, too."""
    said = item.text("said")
    return item.text("bells") or (said if changes_bells(said) else "")
