"""What stands in the tables and drawings of a plan that were found: its labels and its classes."""

from collections.abc import Iterable, Mapping

from nomarium.school.drawnowners import first_part
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.planheads import plain
from nomarium.school.plantables import Table
from nomarium.sheets.sheet import Sheet


def label_texts(tables: Mapping[str, Table], grids: Iterable[tuple[str, Sheet]]) -> set[str]:
    """What stands as labels in the classes, the rotation and the drawings."""
    listed = [tables[name] for name in ("timetable", "rotation") if name in tables]
    texts = {item.text("label") for table in listed for item in table.items} - {""}
    for _, grid in grids:
        texts |= {*drawn.labels} if (drawn := drawn_week(grid)) is not None else set()
    return texts


def labels_in(tables: Mapping[str, Table]) -> frozenset[str]:
    """The labels of the table Cycle, in their compared form."""
    cycle = tables.get("cycle")
    return frozenset(plain(item.text("label")) for item in cycle.items) - {""} if cycle else frozenset()


def class_texts(tables: Mapping[str, Table], grids: Iterable[tuple[str, Sheet]]) -> frozenset[str]:
    """What the classes of the lists and the drawings are called, in their compared form."""
    listed = tables["timetable"].items if "timetable" in tables else ()
    found = {plain(item.text("class")) for item in listed}
    for _, grid in grids:
        drawn = drawn_week(grid)
        found |= {first_part(held.text) for held in drawn.held} if drawn is not None else set()
    return frozenset(found - {""})
