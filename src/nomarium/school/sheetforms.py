"""The sheets of a plan before they are taken for its tables: each as one table, and what it may be; two of one table together."""

from collections.abc import Sequence

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.options import ReadingOptions
from nomarium.school.bellsheets import divisions_drawn, together, upright, with_bells_in_rows, with_divisions
from nomarium.school.classforms import classes_in_rows
from nomarium.school.daysheets import with_days_above
from nomarium.school.headless import with_headings, with_periods
from nomarium.school.kind import Kind
from nomarium.school.kinds import asked_table
from nomarium.school.monthlabels import days_by_months
from nomarium.school.planheads import plain
from nomarium.school.plantables import Table, cut_table
from nomarium.school.rotation import in_rows
from nomarium.school.sidebyside import one_below_the_other
from nomarium.sheets.sheet import Sheet

_ADD_UP = frozenset(("terms", "timetable", "daysoff", "specialdays", "names", "people", "enrolments"))
"""Tables of which there may be several sheets."""


def one_table(sheet: Sheet, labels: frozenset[str], options: ReadingOptions, notes: list[Problem]) -> Sheet:
    """A sheet with headings, its tables one below the other, its bells upright, its letter days dated, and its days over the
    classes."""
    if (
        asked_table(sheet, options.tables) in (None, "cycle")
        and (dated := days_by_months(sheet, options)) is not None
    ):
        return dated
    sheet = upright(one_below_the_other(with_headings(sheet)))
    by_day = with_days_above(sheet, labels)
    notes += by_day.notes[len(sheet.notes) :] if by_day is not None else ()
    return by_day or sheet


def as_rows(
    sheet: Sheet, name: str, labels: frozenset[str], notes: list[Problem]
) -> tuple[Sheet, Sequence[str]]:
    """A sheet with a row for each class, bell or block that stands in its columns or under its lines, and the labels that head its
    columns of days. `labels` are those of the cycle, in their compared form."""
    if name == "timetable" and (classes := classes_in_rows(sheet, labels)) is not None:
        notes += classes.notes
        return classes.sheet, classes.labels
    if name == "bells":
        return with_bells_in_rows(sheet), ()
    if name == "rotation":
        turned = in_rows(with_periods(sheet))
        notes += turned.notes[len(sheet.notes) :]
        return turned, ()
    return sheet, ()


def may_be_dates_off(sheet: Sheet, kind: Kind) -> bool:
    """Whether a sheet is about days off by its name, and has no headings that say what its columns are."""
    is_named = kind.table == "daysoff" and kind.why == "its name"
    return kind.hint == "daysoff" or (is_named and not cut_table(sheet, "daysoff", kind.columns, {})[0].items)


def may_be_key_dates(kind: Kind) -> bool:
    return kind.table in ("", "terms", "daysoff") and kind.why != "as asked"


def both_of(name: str, one: Table, other: Table) -> Table | None:
    """Two sheets of one table together; None where there can be only one."""
    if name == "bells":
        return together(one, other)
    return one._replace(items=[*one.items, *other.items]) if name in _ADD_UP else None


def divisions_settled(tables: dict[str, Table], drawn: Sequence[str], notes: list[Problem]) -> dict[str, str]:
    """Give bells that are called by a division of the classes, or as a drawn timetable is, to it; the divisions of sheets that are
    `drawn`, by their compared form."""
    if "bells" not in tables:
        return {}
    if "timetable" in tables:
        divisions = {plain(item.text("division")) for item in tables["timetable"].items}
        tables["bells"] = with_divisions(tables["bells"], divisions - {""})
    found = divisions_drawn(drawn, tables["bells"])
    if found:
        tables["bells"] = with_divisions(tables["bells"], found.keys())
        message = f"Sheets that are called as bells are have these: {listed([*found.values()])}."
        notes.append(note("divisions-drawn", message))
    return found
