"""Lists of classes on several sheets that are called after their teachers, groups or rooms: whose their rows are."""

import re
from collections.abc import Collection, Iterable
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.cellparts import KnownParts
from nomarium.school.drawnheads import days_named, week_of
from nomarium.school.drawnowners import says_whose, whose
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, table_name

_KINDS: Final = ("teacher", "group", "room")
_NOBODY: Final = (
    r"(?i)\b(?:class(?:es)?|courses?|lessons?|clubs?|sections?|list|export|data|part|copy|term|semester|morning|afternoon|evening|day|upper|lower|middle|"
    r"junior|senior|school|campus|time ?tables?|schedule|all|new|old|draft|plan|stundenplan|horario|orario|lesrooster)\b|\d{3,}"
)
"""What the name of a sheet may say that is nobody's."""


def with_owners_of_lists(
    items: Iterable[Item], known: KnownParts, taken: Collection[str], notes: list[Problem]
) -> list[Item]:
    """The rows of classes with the teacher, the group or the room after which their sheet is called, where several are and their rows
    do not say it: as they look, or teachers where the rows say the group and the room. `taken`: names that say something else."""
    items = list(items)
    sheets = {item.table.sheet.name: item.table.sheet for item in items}
    names = [name for name in sheets if _may_say_whose(name) and plain(name) not in taken]
    if len(names) < 2 or len(names) < len(sheets):
        return items
    unsaid = [kind for kind in _KINDS if not any(item.text(kind) for item in items)]
    owners = {name: whose(name, known, ()) for name in names}
    looks = {next(iter(owner)) for owner in owners.values() if owner}
    kind = next(iter(looks)) if len(looks) == 1 else "teacher" if unsaid == ["teacher"] else ""
    if kind not in unsaid:
        return items
    message = (
        f"What the sheets of classes are called ({listed(names[:4])}) is taken for the {kind} of their rows."
    )
    told = note(
        "drawn-owner",
        message,
        f"If it is another, give the rows a column {kind.capitalize()}, or call the sheets by another name.",
    )
    notes.append(told.at(sheets[names[0]].place()))
    called = {name: owner.get(kind, name) for name, owner in owners.items()}
    return [item._replace(cells={**item.cells, kind: called[item.table.sheet.name]}) for item in items]


def _may_say_whose(name: str) -> bool:
    is_other = (
        re.search(_NOBODY, name)
        or table_name(name)
        or week_of(name)
        or days_named(name, frozenset(), ENGLISH)
    )
    return says_whose(name) and not is_other
