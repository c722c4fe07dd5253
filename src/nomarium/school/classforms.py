"""The forms in which schools write their classes that are no row for each class: which one a sheet has, and its classes in rows."""

from collections.abc import Callable, Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem
from nomarium.school.datedperiods import classes_on_dates
from nomarium.school.dayblocks import day_blocks
from nomarium.school.daycolumns import days_in_rows
from nomarium.school.daysabove import days_above
from nomarium.school.dutycolumns import duties_in_rows
from nomarium.school.groupdays import groups_in_rows
from nomarium.school.headlessclasses import headless_classes
from nomarium.school.meetinglists import meetings_in_rows
from nomarium.school.periodcolumns import classes_in_periods
from nomarium.school.periodspans import periods_in_one
from nomarium.school.rangecolumns import ranges_apart
from nomarium.school.roomcolumns import rooms_in_rows
from nomarium.sheets.sheet import Sheet


class InRows(NamedTuple):
    """A sheet of classes with a row for each of them."""

    sheet: Sheet
    why: str
    """What shows that it is a timetable."""
    labels: Sequence[str] = ()
    """What headed its columns of days, also where nothing stands under it."""
    notes: Sequence[Problem] = ()


def classes_in_rows(sheet: Sheet, labels: frozenset[str] = frozenset()) -> InRows | None:
    """The classes of a sheet in rows; None where it has none of the forms. `labels` are known ones, in their compared form."""
    if (across := days_in_rows(sheet, labels)) is not None:
        return InRows(across.sheet, "classes with a column a weekday", across.days)
    for read, why in _FORMS:
        if (found := read(sheet)) is not None:
            return InRows(found, why, notes=found.notes[len(sheet.notes) :])
    if (headed := headless_classes(sheet)) is not None:
        return InRows(
            headed.sheet,
            "classes without headings, each with its weekday and its time or period",
            notes=headed.notes,
        )
    if (in_parts := days_above(sheet, labels)) is not None:
        return InRows(in_parts.sheet, "classes in parts, each under its day", notes=(in_parts.told,))
    return None


_FORMS: Final[tuple[tuple[Callable[[Sheet], Sheet | None], str], ...]] = (
    (classes_in_periods, "classes with a column for each period of each weekday"),
    (groups_in_rows, "a weekday's classes, with a row a group, a teacher or a room"),
    (rooms_in_rows, "days and periods with a column a room, a group or a week"),
    (day_blocks, "days side by side, each with its times and classes"),
    (duties_in_rows, "duties with a column a weekday"),
    (periods_in_one, "classes from one period to another"),
    (classes_on_dates, "dates with a column a period"),
    (meetings_in_rows, "classes with several days and times in a cell"),
    (ranges_apart, "classes with their first and last days in one cell"),
)
"""In the order in which they win."""
