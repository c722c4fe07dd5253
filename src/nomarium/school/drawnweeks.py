"""Weeks as schools draw them: weekdays or labels across and periods or times down, or turned, one below or beside another;
what each cell is in becomes the rows of a Timetable."""

import re
from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby, pairwise
from types import MappingProxyType
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.reading.rows.when import NOTHING
from nomarium.school.besidelines import beside_lines
from nomarium.school.drawncells import DrawnWeek, Grid, Held
from nomarium.school.drawnheads import (
    CORNERS,
    day_and_week,
    days_named,
    headings_among,
    heads_names,
    heads_parts,
    heads_weeks,
    letter_columns,
    lexicon_of,
    same_under_each,
    texts_but_corners,
    week_of,
    with_days_over_periods,
    without_week,
)
from nomarium.school.drawnlines import Slot, named_slot, slot_in
from nomarium.school.drawntitles import heads_drawings, of_sheet, said_of_drawing, titles_of
from nomarium.school.drawnturns import with_weeks_beside_days, with_weeks_over_days
from nomarium.school.planheads import plain
from nomarium.school.stackeddays import stacked_heads
from nomarium.school.timedcells import timed_week
from nomarium.school.timedlists import is_timed_list
from nomarium.school.turning import turn, turned
from nomarium.school.widerows import take_wide
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEADS_OR_TELLS: Final = r"(?i)\b(?:days?|dates?|cycle|labels?|weeks?)\b|:$"
"""In a name left of the days: the row is a second row of headings, or a remark, `Signed:`."""
_NOTHING: Final[Mapping[str, str]] = MappingProxyType({})


def drawn_week(sheet: Sheet, labels: frozenset[str] = frozenset()) -> DrawnWeek | None:
    """The drawn weeks of a sheet; None when it has none. `labels` are those that are known, in compared form."""
    rows = with_weeks_over_days(with_weeks_beside_days(with_days_over_periods(sheet.rows())))
    if is_timed_list(rows):
        return None
    reader = _Reader(sheet, rows, labels)
    return (
        reader.across()
        or reader.stacked()
        or (
            across := _Reader(turned(sheet, rows), with_weeks_beside_days(turn(rows)), labels, sheet)
        ).across()
        or reader.timed()
        or across.timed()
    )


class _Reader:
    """Reads drawings whose days stand across; a turned one is given turned, with the sheet that it comes from."""

    def __init__(
        self, sheet: Sheet, rows: Sequence[Row], labels: frozenset[str], turned: Sheet | None = None
    ) -> None:
        self._rows, self._labels = rows, labels
        self._grid = Grid(sheet, rows, turned)
        self._lexicon = lexicon_of(rows)
        self._read_days: dict[str, tuple[str, ...]] = {}
        self._goes_on = False
        self._of_sheet = frozenset[str]()
        self._unused, self._strange = dict[int, str](), dict[tuple[int, int], str]()
        self._once = set[str]()
        self._above: dict[str, str] = {}
        self._unused_above: dict[str, None] = {}

    def across(self) -> DrawnWeek | None:
        """The drawings, from one row of days to the next."""
        heads = [at for at, (_, row) in enumerate(self._rows) if len(self._days(row)) >= 2]
        heads = [at for at in heads if not any(map(heads_weeks, self._rows[at][1][:2]))]
        heads = [at for n, at in enumerate(heads) if n == 0 or heads[n - 1] < at - 1]
        if not heads:
            return None
        found = DrawnWeek([], [], [], [], 0, [], [], [], [])
        idle = 0
        found.others.extend(self._rows[: heads[0]])
        beside = {at: list(self._side_by_side(at)) for at in heads}
        spans = [(at, first, max(columns)) for at in heads for first, columns in beside[at]]
        self._of_sheet = of_sheet([titles_of(self._rows, *span, self._day)[0] for span in spans])
        for at, after in pairwise([*heads, len(self._rows)]):
            shared = range(0)  # periods that stand once, left of all drawings
            is_titled = heads_drawings(self._rows[after - 1][1], len(beside.get(after, ())))
            end = after - is_titled
            for first, columns in beside[at]:
                left = range(first, min(columns)) or shared
                shared = shared or left
                found.begins.append(len(found.held))
                idle += self._drawing(found, at, end, first, left, columns)
        return (
            found._replace(
                idle=idle,
                goes_on=self._goes_on,
                once=frozenset(self._once),
                unused=self._unused,
                strange=self._strange,
                above=self._above,
                unused_above=tuple(self._unused_above),
            )
            if found.held and not _are_numbers(found.held)
            else None
        )

    def stacked(self) -> DrawnWeek | None:
        """Days one below the other, each beside its periods, over a row a room, teacher or class."""
        heads = stacked_heads(self._rows, self._day)
        if len(heads) < 2 or len({head.names for head in heads}) < len(heads):
            return None
        texts = [list(filter(None, map(cell_text, row))) for _, row in self._rows[heads[0].begin :]]
        lines = sum(len(row) > 1 and bool(self._day(row[0])) for row in texts)
        if lines > sum(head.at == head.begin for head in heads):
            return None  # days are lines, of classes such as 7A that could be periods
        found = DrawnWeek([], [], [], [], 0, [], [], [name for head in heads for name in head.names], [])
        found.others.extend(self._rows[: heads[0].begin])
        ends = [*(head.begin for head in heads[1:]), len(self._rows)]
        idle = 0
        for (_, at, names, under), end in zip(heads, ends, strict=True):
            idle += self._wide(found, range(at, at + 1), end, {min(under): names}, under, "")
        return (
            found._replace(idle=idle, once=frozenset(self._once), unused=self._unused) if found.held else None
        )

    def timed(self) -> DrawnWeek | None:
        """Days over cells that say their times themselves."""
        return timed_week(self._grid, lambda row: self._days(row[1]))

    def _days(self, row: Sequence[Cell]) -> dict[int, tuple[str, ...]]:
        """Column → what the day that heads it is; nothing where a row is no row of days."""
        found: dict[int, tuple[str, ...]] = {}
        others: list[int] = []
        letters = letter_columns(row)
        for at, cell in enumerate(row):
            text = cell_text(cell)
            names = (text,) if at in letters else self._day(text) if text else ()
            if names:
                found[at] = names
            elif text and not re.fullmatch(CORNERS, text) and not (found and heads_parts(text)):
                others.append(at)
        end = max(found, default=-1) + 1  # what stands behind a gap is a remark
        is_apart = end < len(row) and not cell_text(row[end])
        return found if len(found) > sum(at < end or not is_apart for at in others) else {}

    def _day(self, text: str) -> tuple[str, ...]:
        """The days that a text is, each distinct one read once: a long list is looked at cell by cell."""
        names = self._read_days.get(text)
        if names is None:
            names = self._read_days[text] = days_named(text, self._labels, self._lexicon)
        return names

    def _side_by_side(self, at: int) -> Iterator[tuple[int, dict[int, tuple[str, ...]]]]:
        """The drawings of one row of days: where each begins, and its days. One begins where a day comes again, or the
        headings go on to another week (`Mon A`, `Mon B`)."""
        begin, part, week = 0, dict[int, tuple[str, ...]](), ""
        for column, names in self._days(self._rows[at][1]).items():
            before, week = week, self._week_in(at, column)
            if names in part.values() or (part and week != before):
                yield begin, part
                begin, part = max(part) + 1, {}
            part[column] = names
        yield begin, part

    def _week_in(self, at: int, column: int) -> str:
        return day_and_week(cell_text(self._rows[at][1][column]), self._lexicon)[1]

    def _drawing(
        self,
        found: DrawnWeek,
        at: int,
        end: int,
        first: int,
        left: range,
        days: Mapping[int, tuple[str, ...]],
    ) -> int:
        """Add one drawing; gives how many of its cells say that nothing is taught."""
        found.labels.extend(name for names in days.values() for name in names)
        groups = self._groups_under(at, end, left, days)
        under = {} if groups else self._periods_under(at, end, days)
        week, whose, above = self._titled(found, at, first, days)
        if under:
            return self._wide(found, range(at, at + 2), end, days, under, week)
        if groups:
            at, days = at + 1, {n: days[max(day for day in days if day <= n)] for n in groups}
        said = beside_lines(self._grid, at, end, left, self._is_line)
        self._once |= said.once
        free = [c for c in left if c not in said.columns]
        slots, lines = self._lines(found, at, end, free, days)
        are_named = any(heads_names(self._grid.filled(at, c)) for c in free if first <= c < min(days))
        found.slots.extend([*of_one] for _, of_one in groupby(slots, lambda slot: said.said.get(slot.at, {})))
        by_row = {slot.at: slot for slot in slots if slot.period or slot.time is not NOTHING}
        beside, idle = self._beside(at, days), 0
        self._strange |= headings_among(self._grid, at, days, self._days(self._rows[at][1]), beside, lines)
        for rows in lines:
            slot = rows[0][1]
            if slot is None:
                found.others.extend(self._rows[n] for n, _ in rows)
                if not slots or rows[0][0] > slots[0].at or self._is_named(rows[0][0], left, days):
                    found.untimed.extend(self._untimed(rows, left, days, is_all=not slots))
                else:  # above the first line stand headings
                    self._unused_above |= dict.fromkeys(self._more_headings(rows[0][0], days))
                continue
            for column in days:
                texts = [
                    text
                    for n, _ in rows
                    for right in beside
                    if (text := self._grid.filled(n, column + right))
                ]
                if not texts:
                    continue
                text = "\n".join(texts)
                self._goes_on = self._goes_on or len(texts) > 1
                if is_idle(text) or plain(text) in ("free", "study", "spare"):
                    idle += 1
                    continue
                n = rows[0][0]
                taken, names = self._spanned(n, column, slot, by_row, days)
                owner = groups.get(column, slot.period if are_named else whose)  # A1 (8:30-12:00)
                place = self._grid.place(n, column)
                own = {**above, **said.said.get(n, _NOTHING)}
                found.held.append(Held(*place, text, names, taken, week, owner, own))
        return idle

    def _titled(
        self, found: DrawnWeek, at: int, first: int, days: Mapping[int, tuple[str, ...]]
    ) -> tuple[str, str, Mapping[str, str]]:
        """The week of a drawing, whose it is, and what else labels above it say of all its classes."""
        above, title = titles_of(self._rows, at, first, max(days), self._day)
        above = [text for text in above if text not in self._of_sheet]
        week = self._week_in(at, min(days)) or next(
            (w for text in (*above, title) if (w := week_of(text))), ""
        )
        labelled = said_of_drawing(self._rows, at, first, max(days))
        self._above |= labelled.others
        self._unused_above |= dict.fromkeys(labelled.unused)
        whose = labelled.whose or next(filter(None, map(without_week, (title, *reversed(above)))), "")
        found.titles.extend(text for text in (*above, title) if text)
        return week, whose, labelled.others

    def _is_line(self, n: int, columns: Sequence[int]) -> bool:
        """Whether columns say the period or the time of a row."""
        row = self._rows[n][1]
        return self._slot(n, [row[c] for c in columns if c < len(row)]) is not None

    def _groups_under(
        self, at: int, end: int, left: range, days: Mapping[int, tuple[str, ...]]
    ) -> dict[int, str]:
        """Column → whose it is, where the row below the days says so under each, and lines stand below that."""
        if at + 2 >= end:
            return {}
        first = self._rows[at + 2][1]
        slot = self._slot(at + 2, [first[c] if c < len(first) else "" for c in left])
        names = same_under_each(self._rows[at + 1][1], left, days) if slot is not None else {}
        lines = [line for text in names.values() if (line := slot_in(0, [text])) is not None]
        is_period_first = slot is not None and slot.time is NOTHING
        are_lines = any(line.time is not NOTHING or is_period_first for line in lines)
        return {} if are_lines else names

    def _untimed(
        self,
        rows: Sequence[tuple[int, Slot | None]],
        left: Sequence[int],
        days: Mapping[int, tuple[str, ...]],
        is_all: bool,
    ) -> Iterator[tuple[int, int, str]]:
        """Row number, column and text of cells that no line says the time of: those of a drawing without lines, and rows with
        a name or with two or more; one alone is a signature, say."""
        for n, _ in rows:
            filled = [(column, text) for column in days if (text := self._grid.filled(n, column))]
            if is_all or len(filled) > 1 or self._is_named(n, left, days):
                for column, text in filled:
                    yield (*self._grid.place(n, column), text)

    def _is_named(self, n: int, left: Sequence[int], days: Mapping[int, tuple[str, ...]]) -> bool:
        """Whether a row has a name left of the days, `Registration`, `Gate`, and what stands under them is no second heading."""
        row = self._rows[n][1]
        names = [
            text for text in texts_but_corners(row[c] for c in left if c < len(row)) if not heads_parts(text)
        ]
        heads = any(self._is_date(text) or re.search(_HEADS_OR_TELLS, text) for text in names)
        return bool(names) and bool(self._more_headings(n, days)) and not heads

    def _more_headings(self, n: int, days: Mapping[int, tuple[str, ...]]) -> list[str]:
        """What stands under the days in a row, but their dates and labels."""
        texts = [text for column in days if (text := self._grid.filled(n, column))]
        return [text for text in texts if not (self._is_date(text) or self._day(text) or heads_parts(text))]

    def _is_date(self, text: str) -> bool:
        return looks_like_date(text, self._lexicon) or text.isdecimal()

    def _lines(
        self, found: DrawnWeek, at: int, end: int, left: Sequence[int], days: Mapping[int, tuple[str, ...]]
    ) -> tuple[list[Slot], list[list[tuple[int, Slot | None]]]]:
        """The lines of a drawing, and the rows of each: a row without a heading of its own goes on with the one above,
        its rooms, its teachers; the rows of no line have none."""
        slots, lines = list[Slot](), list[list[tuple[int, Slot | None]]]()
        goes_on = False
        for n in range(at + 1, end):
            row = self._rows[n][1]
            slot = self._slot(n, [row[c] if c < len(row) else "" for c in left])
            if slot is None and not any(
                self._grid.filled(n, column) for column in range(min(days), len(row))
            ):
                found.others.append(self._rows[n])
                goes_on = (
                    False  # what stands below a remark, a signature say, is no part of the line above it
                )
                continue
            if self._is_break(n, slot, days):
                said = {text for column in days if (text := self._grid.filled(n, column))}
                found.breaks.append(next(iter(said), cell_text(slot.heading) if slot else ""))
                slots += [slot._replace(period="")] if slot else []
                goes_on = False
                continue
            if slot is None:
                is_named = any(
                    (text := cell_text(row[c])) and not heads_parts(text) for c in left if c < len(row)
                )
                has_break = any(is_break(self._grid.filled(n, column)) for column in days)
                goes_on = goes_on and not is_named and not has_break
                lines[-1].append((n, None)) if goes_on else lines.append([(n, None)])
                continue
            slots.append(slot)
            lines.append([(n, slot)])
            goes_on = True
        return slots, lines

    def _beside(self, at: int, days: Mapping[int, tuple[str, ...]]) -> tuple[int, ...]:
        """How far right of each day its columns are, itself and those without a heading: its rooms, its teachers."""
        known, head = sorted(days), self._rows[at][1]
        step = min((b - a for a, b in pairwise(known)), default=1)
        between = [c for a, b in pairwise(known) for c in range(a + 1, b)]
        texts = [text for c in between if c < len(head) and (text := cell_text(head[c]))]
        return tuple(range(step)) if step > 1 and all(map(heads_parts, texts)) else (0,)

    def _wide(
        self, found: DrawnWeek, heads: range, end: int, days: Mapping[int, tuple[str, ...]], under: Mapping[int, Slot], week: str
    ) -> int:  # fmt: skip
        """A row a teacher, room or class, and the whole week across: each day over its periods."""
        idle, unused = take_wide(found, self._grid, heads, end, days, under, week)
        self._unused.update(unused)
        return idle

    def _periods_under(self, at: int, end: int, days: Mapping[int, tuple[str, ...]]) -> dict[int, Slot]:
        """Column → period, where the row below the days says the periods of each."""
        if at + 1 >= end:
            return {}
        row = self._rows[at + 1][1]
        found = {}
        for column in range(min(days), len(row)):
            slot = slot_in(column, [row[column]]) if cell_text(row[column]) else None
            if slot is None and cell_text(row[column]) and not is_break(cell_text(row[column])):
                return {}
            if slot is not None:
                found[column] = slot
        return found if len(found) > len(days) else {}

    def _slot(self, n: int, cells: Sequence[Cell]) -> Slot | None:
        """The period or time of a row, from the cells left of its days; one of them may be a name beside the time, `Clubs`."""
        said = [cell for cell in cells if (text := cell_text(cell)) and not heads_parts(text)]
        return slot_in(n, said) or named_slot(n, said)

    def _is_break(self, n: int, slot: Slot | None, days: Mapping[int, tuple[str, ...]]) -> bool:
        texts = {text for column in days if (text := self._grid.filled(n, column))}
        if slot is not None and is_break(cell_text(slot.heading)) and len(texts) <= 1:
            return True
        is_merged = self._grid.numbers_of(n, min(days)) is not None
        is_across = is_merged and self._grid.last_column(n, min(days)) >= max(days)
        return len(texts) == 1 and (is_across or all(is_break(text) for text in texts))

    def _spanned(
        self, n: int, column: int, slot: Slot, by_row: Mapping[int, Slot], days: Mapping[int, tuple[str, ...]]
    ) -> tuple[tuple[Slot, ...], tuple[str, ...]]:
        """The lines and the days that a cell takes: those of a merged one are several."""
        numbers = self._grid.numbers_of(n, column)
        if numbers is None:
            return (slot,), days[column]
        last = self._grid.last_column(n, column)
        taken = tuple(one for at, one in by_row.items() if self._grid.numbers[at] in numbers) or (slot,)
        return taken, tuple(name for c, names in days.items() if column <= c <= last for name in names)


def _are_numbers(held: Sequence[Held]) -> bool:
    """Whether cells are mostly numbers: those of a drawn month."""
    return sum(re.fullmatch(r"\d{1,2}", one.text) is not None for one in held) * 2 > len(held)
