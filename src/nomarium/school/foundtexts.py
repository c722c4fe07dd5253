"""What stands in the tables and drawings of a plan that were found: its labels and its classes, or nothing."""

from collections.abc import Iterable, Mapping

from nomarium.model.cell import Cell
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.drawnheads import days_across
from nomarium.school.drawnowners import first_part
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.meets import labels_met
from nomarium.school.planheads import plain
from nomarium.school.plantables import Table
from nomarium.sheets.sheet import Sheet, cell_text, is_blank


def label_texts(tables: Mapping[str, Table], grids: Iterable[tuple[str, Sheet]]) -> set[str]:
    """What stands as labels in the classes, the rotation and the drawings."""
    listed = [tables[name] for name in ("timetable", "rotation") if name in tables]
    texts = {item.text("label") for table in listed for item in table.items} - {""}
    met = [text for table in listed for item in table.items if (text := item.text("meets"))]
    bells = tables["bells"].items if "bells" in tables else ()
    texts |= {*labels_met(met, [item.text("period") for item in bells])}
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


def is_unfilled(sheet: Sheet) -> bool:
    """Whether a sheet has the headings of a drawn week, and no class in its cells."""
    rows = [row for _, row in sheet.rows() if not is_blank(row)]
    named = (n for n, row in enumerate(rows) if len(days_across(dict(enumerate(map(cell_text, row))))) > 1)
    at = next(named, 0)
    is_headed = len(rows) > at + 1 and len(list(filter(None, map(cell_text, rows[at])))) > 1
    return is_headed and all(_is_idle(cell) for row in rows[at + 1 :] for cell in row[1:])


def _is_idle(cell: Cell) -> bool:
    text = cell_text(cell)
    return not text or is_idle(text) or is_break(text) or plain(text) == "free"
