"""Two columns of a timetable that could name the class: what is taught, and to whom, `7A`."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.headings import in_full
from nomarium.school.columncells import mostly
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row, cell_text

SECTIONS: Final = frozenset(("section", "sectionno", "sectionnumber"))
"""Headings of what tells the classes of one course apart."""
_GROUPS: Final = frozenset(
    (*SECTIONS, *"class form classe klasse clase klas klass turma klasa trida luokka".split())
)
"""Headings of classes that may as well be those who learn together."""
_TAUGHT: Final = frozenset(
    "subject subjects course lesson fach matiere cours asignatura materia curso vak amne disciplina przedmiot emne fag predmet oppiaine".split()
)
"""Headings of what is taught, also to a group that the column beside it names."""
_YEARS: Final = r"(?i)\b(?:year|grade|form|class|group|set|level|stage|klasse|stufe|jahrgang|classe|niveau|clase|grupo|klas|groep|gruppe|turma|ano|årskurs)\b"
"""Words of what people learn together, `Year 7`."""


def settle_groups(
    head: Sequence[Cell], rows: Sequence[Row], columns: dict[str, int], unused: list[tuple[int, str]]
) -> None:
    """`Class` and `Section` are groups, `7A`, where most of their names stand beside several subjects, or where they are names of
    groups beside a `Subject`; other codes of classes have the subject as their title. What then tells no classes apart is kept in
    the notes, or told."""
    first, second = columns.get("class", -1), columns.get("section", columns.get("number", -1))
    if min(first, second) < 0 or {"section", "number"} <= columns.keys():
        return
    said = {n: plain(in_full(cell_text(head[n]))) for n in (second, first)}
    at = next((n for words in (SECTIONS, _GROUPS) for n in said if said[n] in words), -1)
    subject = first if at == second else second
    is_open = "section" in columns and said[second] not in SECTIONS and said[first] not in SECTIONS
    if {"group", "title"} & columns.keys():
        if (
            is_open
            and "title" not in columns
            and at == first
            and said[subject] in _TAUGHT
            and mostly(rows, at, _is_code)
        ):
            _keep(head, columns.pop("group"), columns, unused)
            columns.update({"class": columns.pop("section"), "group": at})
        elif is_open:
            _keep(head, columns.pop("section"), columns, unused)
        return
    beside: dict[str, set[str]] = {}
    for _, row in rows:
        if max(at, subject) < len(row) and (name := plain(cell_text(row[at]))):
            beside.setdefault(name, set()).add(plain(cell_text(row[subject])))
    are_names = all(len(name) > 1 and re.search(r"[^\W\d_]", name) for name in beside)
    if at >= 0 and beside and are_names and sum(len(one) > 1 for one in beside.values()) * 2 > len(beside):
        columns.pop("section", columns.pop("number", None))
        columns.update({"class": subject, "group": at})
    elif at >= 0 and is_open and (are_names or at == first):
        columns.pop("section")
        if said[subject] not in _TAUGHT or not mostly(rows, at, _is_code):
            columns["class"] = at
            _keep(head, subject, columns, unused)
        elif any(len(one) > 1 for one in beside.values()) or mostly(rows, at, _is_group):
            columns.update({"class": subject, "group": at})
        else:
            columns.update({"class": at, "title": subject})


def _keep(head: Sequence[Cell], column: int, columns: dict[str, int], unused: list[tuple[int, str]]) -> None:
    """Have a column as the notes, or passed over and told where there are others."""
    if "notes" in columns:
        unused.append((column, cell_text(head[column])))
    else:
        columns["notes"] = column


def _is_code(cell: Cell) -> bool:
    """Whether a cell is the code of a class or a group, and no name of what is taught."""
    return not is_name(re.sub(_YEARS, "", cell_text(cell)))


def _is_group(cell: Cell) -> bool:
    """Whether a cell names those who learn together, `7A`, `Year 7`."""
    return re.fullmatch(rf"{_YEARS}.*|\d{{1,2}}\s?[A-Za-z]{{0,2}}\d?", cell_text(cell)) is not None


def is_name(cell: Cell) -> bool:
    """Whether a cell is a name of a class, and no code of a group."""
    return re.search(r"[^\W\d_]{3}", cell_text(cell)) is not None
