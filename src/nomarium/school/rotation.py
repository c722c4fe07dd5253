"""Blocks that rotate: a table says which block meets when, and a class meets whenever its block does."""

import re
from collections.abc import Sequence
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted, listed
from nomarium.school.bells import Bell
from nomarium.school.classrows import ClassRows
from nomarium.school.codes import Codes
from nomarium.school.drawnlines import is_period
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LEAST: Final = 3
"""Rows, and columns, of the smallest rotation."""
_DAYS: Final = r"(?i)\W*(?:(?:cycle|rotation|letter)\s*)?(?:days?|labels?)\W*"
_ORDER: Final = r"(?:[A-Z]|\d{1,2})(?:[\s,;/>→–-]*(?:[A-Z]|(?<!\d)\d{1,2})){2,}"
"""Blocks in the order in which they are held, `A B C D`, `ABCD`, `A-B-C-D`."""
_MOST_DAYS: Final = 12
_PERIODS: Final = r"(?i)\W*(?:periods?|slots?|per\.?)\W*"


class Rotation(NamedTuple):
    """Which block meets when: a row for each meeting of each, its block in place of a class."""

    items: list[Item]
    bells: dict[int, Bell]
    """By the identity of a row: the times that its line has."""


def in_rows(sheet: Sheet) -> Sheet:
    """A rotation whose days stand on one side and its periods on the other, the blocks in its cells, as rows of Label, Period,
    Block; any other sheet as it is. The corner says which side the days are, or the periods do, `P1`."""
    rows = [(number, row) for number, row in sheet.rows() if any(map(cell_text, row))]
    if in_order := _orders(rows):
        message = "The blocks of each day fill its periods from the first on, in the order in which they are listed."
        told = note(
            "blocks-in-order", message, "If not: a table Rotation with the columns Label, Period and Block."
        )
        return sheet._replace(
            read_rows=lambda: in_order, merged=(), notes=(*sheet.notes, told.at(sheet.place()))
        )
    if len(rows) < _LEAST or len(rows[0][1]) < _LEAST:
        return sheet
    corner, *across = map(cell_text, rows[0][1])
    down = [cell_text(row[0]) for _, row in rows[1:]]
    are_days_down = _are_days(corner, down, across)
    if not (all(across) and all(down)) or are_days_down is None:
        return sheet
    listed_rows: list[Row] = [(rows[0][0], ["Label", "Period", "Block"])]
    for (number, row), left in zip(rows[1:], down, strict=True):
        for over, cell in zip(across, row[1:], strict=False):
            day, period = (left, over) if are_days_down else (over, left)
            if cell_text(cell):
                listed_rows.append((number, [day, period, cell]))
    return sheet._replace(read_rows=lambda: listed_rows, merged=())


def lists_orders(sheet: Sheet) -> bool:
    """Whether a sheet is a rotation with the order of the blocks of each day in one cell."""
    top = list(islice(sheet.rows(), _MOST_DAYS + 1))
    return bool(_orders([(number, row) for number, row in top if any(map(cell_text, row))]))


def _orders(rows: Sequence[Row]) -> list[Row]:
    """A rotation of which each row has a day and the order of its blocks in one cell, `Day 2`, `B C D E`, as rows of Label, Period,
    Block: they fill the periods from the first on. None of any other."""
    if (
        not _LEAST <= len(rows) <= _MOST_DAYS + 1
        or len(rows[0][1]) < 2
        or not re.fullmatch(_DAYS, cell_text(rows[0][1][0]))
    ):
        return []
    found: list[Row] = [(rows[0][0], ["Label", "Period", "Block"])]
    orders = list[list[str]]()
    for number, row in rows[1:]:
        filled = [text for cell in row[1:] if (text := cell_text(cell))]
        blocks = re.findall(r"[A-Z]|\d{1,2}", filled[0]) if len(filled) == 1 else []
        if (
            not cell_text(row[0])
            or not re.fullmatch(_ORDER, filled[0] if filled else "")
            or len(set(blocks)) < _LEAST
        ):
            return []
        orders.append(blocks)
        found += [(number, [row[0], str(n), block]) for n, block in enumerate(blocks, start=1)]
    return found if len({*map(len, orders)}) == 1 and len({*map(tuple, orders)}) > 1 else []


def _are_days(corner: str, down: Sequence[str], across: Sequence[str]) -> bool | None:
    """Whether days stand down, and periods across; None where that is open, or none of either."""
    periods = [all(map(is_period, side)) for side in (down, across)]
    if re.fullmatch(_DAYS, corner):
        return True if periods[1] else None
    if re.fullmatch(_PERIODS, corner):
        return False if periods[0] else None
    named = [all(re.match(r"(?i)p(?:er(?:iod)?)?\.?\s*\d", text) for text in side) for side in (down, across)]
    return named[1] if not corner and named[0] != named[1] else None


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
