"""Blocks that rotate: a table says which block meets when, and a class meets whenever its block does."""

from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted, listed
from nomarium.school.bells import Bell
from nomarium.school.classrows import ClassRows
from nomarium.school.codes import Codes
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table


class Rotation(NamedTuple):
    """Which block meets when: a row for each meeting of each, its block in place of a class."""

    items: list[Item]
    bells: dict[int, Bell]
    """By the identity of a row: the times that its line has."""


def rotation_in(table: Table | None) -> Rotation:
    """The rows of a table Label, Period, Block."""
    items = [
        item._replace(cells={**item.cells, "class": item.cells.get("block", "")})
        for item in (table.items if table else ())
        if item.text("block")
    ]
    return Rotation(items, {})


def is_rotation(items: Sequence[Item], drawn: Sequence[Item]) -> bool:
    """Whether what a drawn week holds are the blocks of classes that are listed, and no classes themselves."""
    blocks = Codes("period", dict.fromkeys(item.text("class") for item in drawn))
    wanted = [item for item in items if item.text("period") and not item.text("label")]
    if not wanted or not drawn or len(wanted) * 2 < len(items):
        return False
    read = [blocks.read(item.cells["period"]) for item in wanted]
    return sum(not isinstance(one, Refusal) for one in read) * 5 >= len(read) * 4


def with_blocks(
    rows: ClassRows, rotation: Rotation, problems: list[Problem], notes: list[Problem]
) -> ClassRows:
    """The classes on the labels and periods of their blocks; a block that no class names is a class itself."""
    if not rotation.items:
        return rows
    blocks = Codes("period", dict.fromkeys(item.text("class") for item in rotation.items))
    when: dict[str, list[Item]] = {}
    for item in rotation.items:
        when.setdefault(plain(item.text("class")), []).append(item)
    found, bells, taken = list[Item](), dict(rows.bells), set[str]()
    for item in rows.items:
        if item.text("label") or item.text("meets") or not item.text("period"):
            found.append(item)
            continue
        read = blocks.read(item.cells["period"])
        if isinstance(read, Refusal):
            problems.append(read.problem(item.place("period"), item.text("period")))
            continue
        for block in read:
            taken.add(plain(block))
            for slot in when[plain(block)]:
                _add(found, bells, item, slot, rotation)
    free = [key for key in when if key not in taken]
    for key in free:
        for slot in when[key]:
            _add(found, bells, slot, slot, rotation)
    if free and taken:
        names = [when[key][0].text("class") for key in free]
        message = f"{counted(len(names), 'block')} that no class names {'is a class itself' if len(names) == 1 else 'are classes themselves'}: {listed(names)}."
        notes.append(
            note("blocks-free", message, 'To leave one out: Keep "no" in a table Names.').at(
                when[free[0]][0].place("class")
            )
        )
    return rows._replace(items=found, bells=bells)


def _add(found: list[Item], bells: dict[int, Bell], item: Item, slot: Item, rotation: Rotation) -> None:
    """Add a class in one slot of its block."""
    cells = {field: slot.cells.get(field, "") for field in ("label", "period", "week")}
    new = item._replace(cells={**item.cells, **cells})
    bell = bells.get(id(item)) or rotation.bells.get(id(slot))
    if bell is not None:
        bells[id(new)] = bell
    found.append(new)
