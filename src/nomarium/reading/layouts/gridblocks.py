"""The grids that a sheet draws: rows of headings, and what crosses them below."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.layouts.drawn import merged_from
from nomarium.reading.layouts.namedslots import is_break, is_slot, numbers_slot, numbers_slots, slot_of
from nomarium.reading.layouts.slots import (
    CODE,
    are_codes,
    heads_clocks,
    is_clear_time,
    number_others,
    typed_hours,
)
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LEAST_WORDS = 3
"""Words of a line; fewer are the name of a slot in which nothing is, `After school`."""


@dataclass(frozen=True)
class Block:
    """One grid of a sheet, from its row of headings to the next."""

    header_row: int
    label_column: int
    across: tuple[tuple[int, Cell], ...]
    """(0-based column, heading) of each column of slots."""
    rows: tuple[Row, ...]
    dates_across: bool
    under: Mapping[int, str] = field(default_factory=dict)
    """Column → what heads it below its date, a room or a group, where each date has several."""


def grid_blocks(sheet: Sheet, rows: Sequence[Row], lexicon: Lexicon) -> list[Block]:
    """The grids of a sheet, one below the other; none where a row of headings has nothing that crosses it."""
    heads = [
        (at, (_over_merged(head[0], number, sheet), head[1]))
        for at, (number, row) in enumerate(rows)
        if (head := _head(row, lexicon))
    ]
    while heads:
        ends = [at for at, _ in heads[1:]] + [len(rows)]
        blocks = [
            block
            for (at, head), end in zip(heads, ends, strict=True)
            if (block := _block(rows[at], head, rows[at + 1 : end], lexicon)) is not None
        ]
        if len(blocks) == len(heads):
            return blocks
        numbers = {block.header_row for block in blocks}
        heads = [
            one for one in heads if rows[one[0]][0] in numbers
        ]  # what heads nothing is a row of the one above
    return []


def lines_alone(blocks: Sequence[Block], lexicon: Lexicon) -> list[Row]:
    """The rows within and below grids that hold a line of words alone where times or dates stand: no slot, and nothing in one."""

    def is_line(block: Block, row: Sequence[Cell]) -> bool:
        texts = [(n, text) for n, cell in enumerate(row) if (text := cell_text(cell))]
        if len(texts) != 1 or texts[0][0] > block.label_column:
            return False
        (n, text) = texts[0]
        is_label = is_slot(row[n]) or is_break(text) or looks_like_date(row[n], lexicon)
        return len(text.split()) >= _LEAST_WORDS and not is_label

    return [(number, row) for block in blocks for number, row in block.rows if is_line(block, row)]


def _block(
    head: Row, across: tuple[tuple[tuple[int, Cell], ...], bool], body: Sequence[Row], lexicon: Lexicon
) -> Block | None:
    """The grid under a row of headings; None where nothing down crosses them, or more than its slots stand beside them."""
    for column in range(across[0][0][0]) if across[1] else ():
        body = typed_hours(body, column, cell_text(head[1][column]))
    label = _label_column(head[1], body, *across, lexicon)
    if label is None or (not across[1] and any(_are_dates(row, lexicon) for _, row in body)):
        return None  # hours of a roster, over the dates of another week
    under = headings_under(across[0], body, label) if across[1] else {}
    if under:
        wide = dict(across[0])
        dated = {n: max(column for column, _ in across[0] if column <= n) for n in under}
        across, body = (tuple((n, wide[dated[n]]) for n in sorted(under)), True), body[1:]
    block = Block(head[0], label, across[0], tuple(body), across[1], under)
    labelled = {n for n, cell in enumerate(head[1][: across[0][0][0]]) if cell_text(cell)}
    return block if len(labelled) < 2 or labelled <= numbering(block) | {label} else None


def _are_dates(row: Sequence[Cell], lexicon: Lexicon) -> bool:
    return sum(looks_like_date(cell, lexicon) for cell in row) > 2


def headings_under(across: Sequence[tuple[int, Cell]], body: Sequence[Row], label: int) -> dict[int, str]:
    """Column → its heading in the row right below dates, where this has no time, and the same headings under each date."""
    row = body[0][1] if len(body) > 1 else ()
    found = {n: text for n, cell in enumerate(row) if (text := cell_text(cell))}
    first = across[0][0]
    if (
        len(found) <= len({cell_text(cell) for _, cell in across})
        or min(found, default=0) < first
        or label in found
    ):
        return {}
    dates, sequences = dict(across), dict[str, list[str]]()
    for n, text in found.items():
        date = cell_text(dates[max(column for column in dates if column <= n)])
        sequences.setdefault(date, []).append(text)
    are_same = len({tuple(one) for one in sequences.values()}) == 1 and len(sequences) > 1
    return found if are_same and not any(map(is_slot, found.values())) else {}


def _head(row: Sequence[Cell], lexicon: Lexicon) -> tuple[tuple[tuple[int, Cell], ...], bool] | None:
    """A row of headings: dates, or times, in most of its cells, and whether they are dates."""
    filled = [(n, cell) for n, cell in enumerate(row) if cell_text(cell)]
    dates = () if heads_clocks(row) else tuple(one for one in filled if looks_like_date(one[1], lexicon))
    are_labels = len(filled) == len(dates) + 2 and filled[2:] == [*dates]
    if len(dates) >= 2 and (len(dates) >= len(filled) - 1 or are_labels):
        return dates, True
    filled = [one for one in filled if not one[0] or not is_break(cell_text(one[1]))]
    times = tuple((n, cell) for n, cell in filled if n and slot_of(cell)[1] is not NOTHING)
    if sum(is_slot(cell) for _, cell in times) * 2 < len(times):
        return None  # what is on, with its time
    cells = [cell for _, cell in times]
    if len(set(map(cell_text, cells))) < len(cells):
        return None  # hours of a roster: Quill, 9-5, 9-5
    codes = [cell for cell in cells if re.fullmatch(CODE, cell_text(cell))]
    if are_only_numbers(cells) or are_codes(codes):
        return None  # classes 7A, 8A, alone or beside the time of their row
    is_one_slot = (
        len(filled) == 2 and filled[1] in times
    )  # what it heads begins with a corner; 9:00 | Launch is a row
    if times and len(times) >= len(filled) - 1 and not dates and (len(times) > 1 or is_one_slot):
        return times, False
    return None


def _over_merged(
    across: tuple[tuple[int, Cell], ...], number: int, sheet: Sheet
) -> tuple[tuple[int, Cell], ...]:
    """The headings of a row, a merged one over each of its columns."""
    areas = {n: area for (row, n), area in merged_from(sheet).items() if row == number}
    found = []
    for n, cell in across:
        last = areas[n].last_column - sheet.first_column if n in areas else n
        found += [(column, cell) for column in range(n, last + 1)]
    return tuple(found)


def _label_column(
    head: Sequence[Cell],
    body: Sequence[Row],
    across: tuple[tuple[int, Cell], ...],
    dates_across: bool,
    lexicon: Lexicon,
) -> int | None:
    """The column left of the slots that holds the other kind of heading."""
    found: list[tuple[int, int]] = []
    held = [row for _, row in body if any(n < len(row) and cell_text(row[n]) for n, _ in across)]
    for column in range(across[0][0]):
        cells = [row[column] for row in held if column < len(row) and cell_text(row[column])]
        if dates_across and (are_only_numbers(cells) or are_codes(cells, cell_text(head[column]))):
            continue
        if dates_across and number_others(cell_text(head[column]), cells):
            continue
        fits = [is_slot(c) if dates_across else looks_like_date(c, lexicon) for c in cells]
        if fits and sum(fits) >= max(1, len(fits) / 2):
            sure = sum(is_clear_time(one) or slot_of(one)[1].end is not None for one in cells)
            found.append((-sure if dates_across else 0, column))
    return min(found)[1] if found else None  # 1, 2, Break may be hours, and 8:30 or 8.30-9.15 is one


def numbering(block: Block) -> frozenset[int]:
    """The columns left of the slots that number the times, `Period` beside `Time`, and name the breaks, and less than half of the
    others, `Clubs`."""
    columns = (n for n in range(block.across[0][0]) if n != block.label_column)
    labels = _texts(block, block.label_column)
    return frozenset(
        n
        for n in columns
        if numbers_slots([text for number, text in _texts(block, n).items() if labels.get(number)])
    )


def names_of_slots(block: Block) -> dict[int, str]:
    """Row number → what a slot is called beside its time, or with it, where that is no number and no break."""
    labels = _texts(block, block.label_column) if block.dates_across else {}
    said = {number: slot_of(text)[0] for number, text in labels.items()}
    for n in numbering(block):
        said |= {number: text for number, text in _texts(block, n).items() if text}
    return {number: text for number, text in said.items() if not numbers_slot(text)}


def _texts(block: Block, column: int) -> dict[int, str]:
    return {number: cell_text(row[column]) for number, row in block.rows if column < len(row)}


def are_only_numbers(cells: Sequence[Cell]) -> bool:
    """Whether headings are numbers of weeks or periods: whole numbers that begin before any school does. 9, 10, 11, 12,
    1 are hours."""
    numbers = [text for cell in cells if (text := cell_text(cell))]
    return bool(numbers) and all(map(str.isdecimal, numbers)) and int(numbers[0]) < 7 and len(numbers[0]) < 2


def day_cells(blocks: Sequence[Block]) -> list[tuple[int, Cell]]:
    """The cells of days that head blocks, with the numbers of their rows."""
    cells: list[tuple[int, Cell]] = []
    for block in blocks:
        if block.dates_across:
            cells += [(block.header_row, cell) for _, cell in block.across]
        else:
            column = block.label_column
            cells += [
                (n, row[column]) for n, row in block.rows if column < len(row) and cell_text(row[column])
            ]
    return cells
