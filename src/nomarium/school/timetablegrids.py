"""Timetables drawn as grids: labels across and periods down, or the other way, a class in each cell."""

import re
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.school.codes import Codes
from nomarium.school.planheads import plain
from nomarium.school.timetable import Known, Slot, Timetable, labels_of
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text, is_blank

_ROOM_CODE = r"[A-Z]{0,3}-?\d{1,4}[A-Za-z]?|(?i:room|loft|shed|hall|slip|lab|salle|raum)\s?\w{1,3}"
_ROOM = r"(?s)^(?P<class>[^(@\n]+?)\s*(?:\((?P<brackets>[^)]*)\)|@\s*(?P<at>.+)|\n(?P<line>.+))?\s*$"


class Axis(NamedTuple):
    """One heading of a grid: where it stands and the codes that it names."""

    at: int
    codes: tuple[str, ...]


class Grid(NamedTuple):
    """A grid found in a sheet."""

    header: int
    """Index of the row of headings."""
    side: int
    """Index of the column of headings."""
    across: list[Axis]
    down: list[Axis]
    labels_across: bool


def find_grid(sheet: Sheet, known: Known) -> Grid | None:
    """The grid of a sheet, or None when it is none."""
    rows = list(sheet.rows())
    labels = labels_of(known)
    for labels_across in (True, False):
        head, side = (labels, known.periods) if labels_across else (known.periods, labels)
        for at, (_, row) in enumerate(rows[:20]):
            across = _axis(enumerate(row), head)
            if len(across) < (2 if len(rows) < 4 else 1) or not across:
                continue
            column = across[0].at - 1
            while column >= 0:
                down = _axis(
                    ((n, line[column]) for n, (_, line) in enumerate(rows) if n > at and column < len(line)),
                    side,
                )
                if down:
                    return Grid(at, column, across, down, labels_across)
                column -= 1
    return None


def _axis(cells: Iterable[tuple[int, Cell]], codes: Codes) -> list[Axis]:
    found = []
    for at, cell in cells:
        if not cell_text(cell):
            continue
        read = codes.read(cell)
        if not isinstance(read, Refusal):
            found.append(Axis(at, read))
    return found


def read_timetable_grid(
    sheet: Sheet,
    grid: Grid,
    known: Known,
    classes: frozenset[str],
    person: Slot | None,
    codes: frozenset[str] = frozenset(),
) -> tuple[Timetable, Account]:
    """The slots of a grid; each filled cell is an entry. `person` holds what the sheet's name adds to each;
    `classes` are class codes known from elsewhere, `codes` those that Names has for anything (compared form)."""
    found, account = Timetable([], [], []), Account(f"{sheet.file}, {sheet.name}", "entries", is_plan=True)
    ledger = account.ledger
    rows = list(sheet.rows())
    areas = {(area.first_row + 1, area.first_column): area for area in sheet.merged}
    covered = {
        (row + 1, column)
        for area in sheet.merged
        for row in range(area.first_row, area.last_row + 1)
        for column in range(area.first_column, area.last_column + 1)
    } - set(areas)
    for n, (number, row) in enumerate(rows):
        down = next((axis for axis in grid.down if axis.at == n), None)
        if down is None:
            is_note = not is_blank(row) and n != grid.header
            ledger.read += is_note
            ledger.notes += is_note
            continue
        for across in grid.across:
            cell = row[across.at] if across.at < len(row) else ""
            column = across.at + sheet.first_column
            text = cell_text(cell)
            if not text or (number, column) in covered:
                continue
            ledger.read += 1
            area = areas.get((number, column))
            spans = _spans(grid, n, across, area, sheet, rows, number)
            entries = _entries(cell, classes, codes)
            place = sheet.place(number, across.at)
            if isinstance(entries, Refusal):
                found.problems.append(entries.problem(place, text))
                ledger.rejected += 1
                continue
            ledger.events += 1
            for code, room in entries:
                base = person or Slot("", "", "")
                for label, period in spans:
                    found.slots.append(
                        base._replace(
                            code=code,
                            label=label,
                            period=period,
                            room=room or base.room,
                            place=place,
                            cell=text,
                        )
                    )
    found.problems.extend(_strays(sheet, grid, rows, known))
    return found, account


def _spans(
    grid: Grid, n: int, across: Axis, area: Area | None, sheet: Sheet, rows: Sequence[Row], number: int
) -> list[tuple[str, str]]:
    """The (label, period) pairs of a cell, of all that a merged one covers."""
    last_row = area.last_row + 1 if area else number
    last_column = area.last_column - sheet.first_column if area else across.at
    downs = [axis for axis in grid.down if number <= rows[axis.at][0] <= last_row] or [
        axis for axis in grid.down if axis.at == n
    ]
    acrosses = [axis for axis in grid.across if across.at <= axis.at <= last_column]
    pairs = [(a, d) for one in acrosses for a in one.codes for other in downs for d in other.codes]
    return pairs if grid.labels_across else [(label, period) for period, label in pairs]


def _entries(cell: Cell, classes: frozenset[str], codes: frozenset[str]) -> list[tuple[str, str]] | Refusal:
    """The classes of a cell, each with its room."""
    text = cell_text(cell)
    lines = [line.strip() for line in text.split("\n") if line.strip()]
    if len(lines) >= 2:
        heads = [re.split(r"[(@]", line)[0].strip() for line in lines]
        are_known = [plain(head) in classes for head in heads]
        if all(are_known):
            return [_one(line) for line in lines]
        if len(lines) > 2 or (are_known[1] and not are_known[0]):
            message = f"The cell has {len(lines)} lines, and not all are known classes."
            return Refusal(
                "cell-unclear",
                message,
                "Write one class, and its room on the second line, in brackets or after @.",
            )
    first, _, rest = text.strip().partition(" ")
    known, has_room = classes | codes, re.fullmatch(_ROOM_CODE, rest.strip()) is not None
    if len(lines) == 1 and has_room and plain(first) in known and plain(text) not in known:
        return [(first, rest.strip())]
    return [_one("\n".join(lines))]


def _one(text: str) -> tuple[str, str]:
    match = re.match(_ROOM, text)
    if match is None:
        return text, ""
    room = match["brackets"] or match["at"] or match["line"] or ""
    return match["class"].strip(), re.sub(r"^[(@]\s*|\)$", "", room.strip())


def _strays(sheet: Sheet, grid: Grid, rows: Sequence[Row], known: Known) -> list[Problem]:
    """Headings of the grid that name no label or period, over cells that hold something."""
    found = []
    labels = labels_of(known)
    head_codes, side_codes = (labels, known.periods) if grid.labels_across else (known.periods, labels)
    number, header = rows[grid.header]
    known_columns, known_rows = {axis.at for axis in grid.across}, {axis.at for axis in grid.down}
    for column in range(grid.side + 1, len(header)):
        filled = any(
            column < len(rows[axis.at][1]) and cell_text(rows[axis.at][1][column]) for axis in grid.down
        )
        if column not in known_columns and filled:
            text = cell_text(header[column])
            found.append(head_codes.unknown(text).problem(sheet.place(number, column), text))
    for n in range(grid.header + 1, len(rows)):
        number, row = rows[n]
        filled = any(axis.at < len(row) and cell_text(row[axis.at]) for axis in grid.across)
        text = cell_text(row[grid.side]) if grid.side < len(row) else ""
        if n not in known_rows and filled and text:
            found.append(side_codes.unknown(text).problem(sheet.place(number, grid.side), text))
    return found
