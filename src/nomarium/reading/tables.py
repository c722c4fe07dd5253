"""Sheets on which several tables stand, below each other or side by side: each is read as a sheet of its own."""

import datetime as dt
from collections.abc import Iterator, Sequence
from itertools import islice, pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import column_letter, note
from nomarium.model.wording import listed
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.columns.daycells import about_days, looks_like_date
from nomarium.reading.columns.headings import match_exactly, normal
from nomarium.sheets.sheet import TOP_ROWS, Row, RowsAgain, Sheet, cell_text

_DATED = frozenset(("date", "when", "start"))
_SAYS_WHEN = _DATED | {"end", "end-date", "time", "duration", "day", "week", "all-day"}
_LONGEST_HEADING = 40
_LEAST_PLACES = 2
_TITLE_ROWS = 12
"""Rows from the top in which headings of tables side by side are looked for."""


class _Part(NamedTuple):
    """Where one table is: the rows from one number on, before another, and its columns."""

    name: str
    title: str
    """The lone text above it; nothing when there is none."""
    first_row: int = 0
    end_row: int | None = None
    first_column: int = 0
    end_column: int | None = None
    head: Row | None = None
    """The row of headings above all tables, which goes below one row of this one."""
    head_below: int = 0
    said_above: tuple[tuple[int, str], ...] = ()
    """The lone texts above all tables, where they are of each."""


def tables_of(sheet: Sheet) -> list[Sheet]:
    """The tables of a sheet, each as a sheet; the sheet itself when there is only one."""
    top = list(islice(sheet.rows(), TOP_ROWS))
    parts = (
        _side_by_side(sheet, top)
        or _beside_without_headings(sheet, top)
        or _beside_under_titles(sheet, top)
        or _stacked(top)
        or _headed_again(top)
        or _programmes(sheet, top)
    )
    if len(parts) < 2:
        return [sheet]
    message = f"Several tables stand on it, and are read one by one: {listed([part.name for part in parts])}."
    told = note("tables-apart", message).at(sheet.place())
    cut = [_cut(sheet, part) for part in parts]
    return [cut[0]._replace(notes=(*sheet.notes, told)), *cut[1:]]


def _side_by_side(sheet: Sheet, top: Sequence[Row]) -> list[_Part]:
    """Tables whose headings stand in one row, each with a date and something that happens."""
    for at, (_, row) in enumerate(top[:_TITLE_ROWS]):
        texts = [cell_text(cell) for cell in row]
        named = [text for text in texts if text]
        if len(set(named)) == len(named) or not _are_headings(row):
            continue
        groups = _groups(texts)
        if len(groups) < 2 or not all(_is_table(texts[first:end]) for first, end in groups):
            continue
        if any(cell_text(cell) for _, below in top[at + 1 :] for cell in below[: groups[0][0]]):
            continue  # what stands left of all is of each
        ends = [first for first, _ in groups[1:]] + [None]
        above = top[at - 1][1] if at else ()
        return [
            _Part(_columns_called(sheet, first, end), _lone_text(above[first:last]), 0, None, first, last)
            for (first, end), last in zip(groups, ends, strict=True)
        ]
    return []


def _beside_without_headings(sheet: Sheet, top: Sequence[Row]) -> list[_Part]:
    """One list that goes on beside itself without headings, dates and what is on then in turns: each month, or as many as a page
    is high. Two columns of dates alone may as well be first and last days, unless each is of a month or of days in a row."""
    if any(_heads_lists(row) for _, row in top[:_TITLE_ROWS]):
        return []  # as most tables have: the dates below need not be looked for
    body = [row for _, row in top if sum(map(looks_like_date, row)) > 1]
    if len(body) < _LEAST_ROWS:
        return []
    width = max(map(len, body))
    columns = [[row[n] for row in body if n < len(row) and cell_text(row[n])] for n in range(width)]
    dates = [
        n for n, cells in enumerate(columns) if len(cells) >= _LEAST_ROWS and all(map(looks_like_date, cells))
    ]
    steps = {b - a for a, b in pairwise(dates)}
    between = {n for first in dates for n in range(first + 1, first + min(steps, default=0))}
    if (
        len(steps) != 1
        or min(steps) < _LEAST_PLACES
        or any(looks_like_date(cell) for n in between if n < width for cell in columns[n])
    ):
        return []
    days = [about_days(columns[n]) for n in dates]
    if any(max(before) >= min(after) for before, after in pairwise(days)):
        return []
    if len(dates) == _LEAST_PLACES and not all(map(_are_of_a_month, days)):
        return []
    bounds = [*pairwise(dates), (dates[-1], dates[-1] + min(steps))]
    is_on = {n for _, row in sheet.rows() for n, cell in enumerate(row) if n not in dates and cell_text(cell)}
    return [
        _Part(_columns_called(sheet, first, end), "", 0, None, first, end)
        for first, end in bounds
        if not is_on.isdisjoint(range(first, end))  # else nothing is on in that month
    ]


def _beside_under_titles(sheet: Sheet, top: Sequence[Row]) -> list[_Part]:
    """Lists of two columns each beside each other, dates and what is on, every one under a title: `Home games,,Away games,`."""
    for at, (_, row) in enumerate(top[:_TITLE_ROWS]):
        titled = [n for n, cell in enumerate(row) if cell_text(cell)]
        if len(titled) < _LEAST_PLACES or {b - a for a, b in pairwise(titled)} != {2}:
            continue
        if any(looks_like_date(row[n]) or match_exactly(cell_text(row[n])) for n in titled):
            continue
        below = [other for _, other in top[at + 1 :] if any(map(cell_text, other))]
        if len(below) < _LEAST_PLACES or not all(_are_days_and_words(below, n) for n in titled):
            continue
        above = tuple((line, text) for line, other in top[:at] if (text := _lone_text(other)))
        return [
            _Part(
                _columns_called(sheet, n, n + 2),
                cell_text(row[n]),
                0,
                None,
                n,
                n + 2,
                said_above=above if n else (),
            )
            for n in titled
        ]
    return []


def _are_days_and_words(rows: Sequence[Sequence[Cell]], at: int) -> bool:
    """Whether one of two columns holds dates and nothing else, and the other none."""
    pairs = [
        tuple(looks_like_date(cell) for cell in row[at : at + 2])
        for row in rows
        if any(cell_text(cell) for cell in row[at : at + 2])
    ]
    return bool(pairs) and set(pairs) in ({(True, False)}, {(False, True)})


_LEAST_ROWS = 3
"""Rows with two dates of lists that stand beside each other, at least."""


def _heads_lists(row: Sequence[Cell]) -> bool:
    """Whether a row holds headings of a list."""
    texts = [cell for cell in row if isinstance(cell, str) and cell]
    return len(texts) > 1 and not any(map(str.isdigit, "".join(texts))) and any(map(match_exactly, texts))


def _are_of_a_month(days: Sequence[int]) -> bool:
    """Whether days follow each other, or are of one month."""
    dates = [dt.date.fromordinal(day) for day in days]
    return len({(date.year, date.month) for date in dates}) == 1 or all(b == a + 1 for a, b in pairwise(days))


def _columns_called(sheet: Sheet, first: int, end: int) -> str:
    return (
        f"columns {column_letter(first + sheet.first_column)}–{column_letter(end - 1 + sheet.first_column)}"
    )


def _groups(texts: Sequence[str]) -> list[tuple[int, int]]:
    """The stretches of headings from each that repeats the first one to the next."""
    starts = [n for n, text in enumerate(texts) if text and normal(text) == normal(next(filter(None, texts)))]
    bounds = [*starts, len(texts)]
    found = []
    for first, end in pairwise(bounds):
        last = max(n for n in range(first, end) if texts[n]) + 1
        found.append((first, last))
    return found


def _is_table(texts: Sequence[str]) -> bool:
    """Whether headings name a date and something else than when."""
    fields = [match.field if (match := match_exactly(text)) else "" for text in texts if text]
    return bool(_DATED & set(fields)) and any(field not in _SAYS_WHEN for field in fields)


def _are_headings(row: Sequence[Cell]) -> bool:
    filled = [cell for cell in row if cell_text(cell)]
    short = all(isinstance(cell, str) and len(cell) <= _LONGEST_HEADING for cell in filled)
    return len(filled) >= 2 and short and not any(looks_like_date(cell) for cell in filled)


def _stacked(top: Sequence[Row]) -> list[_Part]:
    """Tables below each other whose headings differ; one whose headings stand again is one table in blocks."""
    heads = [(at, first) for at, first in _after_gaps(top) if _heads_a_table(top, at)]
    different = {tuple(normal(cell_text(cell)) for cell in top[at][1]) for at, _ in heads}
    if len(different) < 2:
        return []
    bounds = [top[first][0] for _, first in heads[1:]]
    parts = []
    for n, (at, first) in enumerate(heads):
        title = next((text for _, row in reversed(top[first:at]) if (text := _lone_text(row))), "")
        end = bounds[n] if n < len(bounds) else None
        parts.append(_Part(f"rows from {top[at][0]}", title, top[first][0] if n else 0, end))
    return parts


def _headed_again(top: Sequence[Row]) -> list[_Part]:
    """Tables below each other whose headings are the same but for the first, which says what each is about: `Autumn`, `Starts`,
    `Ends` over rows, `Spring`, `Starts`, `Ends` over others."""
    for _, row in top[:_TITLE_ROWS]:
        tail = list(row[1:])
        if len(tail) < _LEAST_PLACES or not row[0] or not isinstance(tail[0], str) or not _heads_days(tail):
            continue
        heads = [at for at, (_, other) in enumerate(top) if list(other[1:]) == tail and cell_text(other[0])]
        names = [cell_text(top[at][1][0]) for at in heads]
        if len(heads) > 1 and len(set(names)) == len(names) and not any(map(match_exactly, names)):
            bounds = [*(top[at][0] for at in heads[1:]), None]
            above = tuple((number, text) for number, row in top[: heads[0]] if (text := _lone_text(row)))
            return [
                _Part(
                    f"rows from {top[at][0]}",
                    name,
                    top[at][0] if n else 0,
                    end,
                    said_above=above if n else (),
                )
                for n, (at, name, end) in enumerate(zip(heads, names, bounds, strict=True))
            ]
    return []


def _heads_days(cells: Sequence[Cell]) -> bool:
    """Whether cells head days, times and nothing else."""
    texts = [text for cell in cells if (text := cell_text(cell))]
    if len(texts) < _LEAST_PLACES or any(any(map(str.isdigit, text)) for text in texts):
        return False
    fields = [match.field if (match := match_exactly(text)) else "" for text in texts]
    return not _DATED.isdisjoint(fields) and _SAYS_WHEN.issuperset(fields)


def _programmes(sheet: Sheet, top: Sequence[Row]) -> list[_Part]:
    """Day sheets below each other: each a lone text with a figure, the day, and rows of times, under a row of places of its
    own or under the one above them all; or the day begins its row of places."""
    if len(top) == TOP_ROWS:
        top = list(sheet.rows()) if len(_days_over_programmes(top)[0]) > 1 else []
    days, head = _days_over_programmes(top)
    if len(days) < 2:
        return []
    numbers = [top[at][0] for at in days]
    bounds = [*numbers[1:], None]
    return [
        _Part(f"rows from {number}", "", number if n else 0, end, head=head, head_below=number)
        for n, (number, end) in enumerate(zip(numbers, bounds, strict=True))
    ]


def _days_over_programmes(rows: Sequence[Row]) -> tuple[list[int], Row | None]:
    """The indices of the rows that name the day of a programme below them, and the row of places above all of them where
    they have none of their own."""
    near = [row for _, row in rows[:_TITLE_ROWS]]
    if max(map(len, near), default=0) <= _LEAST_PLACES or not any(
        _lone_figure(row) or _are_places(row, True) for row in near
    ):
        return [], None  # a plain list, for the most part
    filled = [at for at, (_, row) in enumerate(rows) if any(map(cell_text, row))]
    with_head = [
        day
        for day, head, first in zip(filled, filled[1:], filled[2:], strict=False)
        if (_lone_figure(rows[day][1]) and _are_places(rows[head][1]) and _says_time(rows[first][1]))
    ]
    if with_head:
        return with_head, None
    in_head = [
        day
        for day, first in pairwise(filled)
        if _are_places(rows[day][1], True) and _says_time(rows[first][1])
    ]
    if len(in_head) > 1:
        return in_head, None
    for heads, begins in ((_are_places, _says_time), (_are_clocks, _has_label)):
        days = [
            day for day, first in pairwise(filled) if _lone_figure(rows[day][1]) and begins(rows[first][1])
        ]
        above = filled[: filled.index(days[0])] if days else []
        head = next((rows[at] for at in above if heads(rows[at][1])), None)
        if head is not None:
            return days, head
    return [], None


def _are_clocks(row: Sequence[Cell]) -> bool:
    """Whether a row heads its columns with times, and what is beside them with a word or nothing."""
    clocks = [cell for cell in row[1:] if cell_text(cell)]
    is_dated = bool(row) and bool(cell_text(row[0])) and _is_figure(row[0])
    return (
        len(clocks) > 1
        and all(_says_time((clock,)) for clock in clocks)
        and not (is_dated or _says_time(row))
    )


def _has_label(row: Sequence[Cell]) -> bool:
    """Whether a row begins with a label, and more stands in it."""
    return bool(row) and bool(cell_text(row[0])) and any(map(cell_text, row[1:]))


def _lone_figure(row: Sequence[Cell]) -> bool:
    filled = [cell for cell in row if cell_text(cell)]
    return len(filled) == 1 and _is_figure(filled[0])


def _is_figure(cell: Cell) -> bool:
    return not isinstance(cell, str) or any(map(str.isdigit, cell))


def _are_places(row: Sequence[Cell], under_date: bool = False) -> bool:
    """Whether a row heads the columns of a programme: words behind a first cell that is blank or says *time*, or the day,
    none of which heads a column of a list."""
    named = [text for cell in row[1:] if (text := cell_text(cell))]
    if len(named) < _LEAST_PLACES or not all(isinstance(cell, str) for cell in row[1:]):
        return False
    if under_date and (not _is_figure(row[0]) or not looks_like_date(row[0]) or _says_time(row)):
        return False  # 9.10 is a time among others
    first = "" if under_date else cell_text(row[0])
    if first and ((match := match_exactly(first)) is None or match.field not in _SAYS_WHEN):
        return False
    if any(looks_like_date(text) or _says_time((text,)) for text in named):
        return False
    fields = {match.field for text in named if (match := match_exactly(text)) is not None}
    return not fields or (fields == {"location"} and all(map(is_place, named)))  # Hall, Loft


def _says_time(row: Sequence[Cell]) -> bool:
    from nomarium.reading.layouts.slots import is_clear_time  # few tables stand below each other

    return bool(row) and is_clear_time(row[0])


def _after_gaps(top: Sequence[Row]) -> list[tuple[int, int]]:
    """The indices of full rows at the top and after blank rows or titles, each with that of the first of these; none when
    there is only the first."""
    found: list[tuple[int, int]] = []
    start = 0
    for at, (_, row) in enumerate(top):
        filled = len(row) - row.count("")
        if filled < 2:
            is_title = filled == 1 and any(map(cell_text, row))
            start = at if start < 0 or not is_title else start
        elif start >= 0:
            found.append((at, start))
            start = -1
    return found if len(found) > 1 else []


def _heads_a_table(top: Sequence[Row], at: int) -> bool:
    """Whether a row holds the headings of a table, and dates stand in the row below it."""
    row = top[at][1]
    if at + 1 >= len(top) or not _are_headings(row) or not _is_table(list(map(cell_text, row))):
        return False
    return any(looks_like_date(cell) for cell in top[at + 1][1])


def _lone_text(cells: Sequence[Cell]) -> str:
    filled = [text for cell in cells if (text := cell_text(cell))]
    return filled[0] if len(filled) == 1 and not looks_like_date(filled[0]) else ""


def _cut(sheet: Sheet, part: _Part) -> Sheet:
    """One table of a sheet. Row numbers stay as the sheet shows them."""

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            if part.end_row is not None and number >= part.end_row:
                return
            if number >= part.first_row and (part.head is None or number != part.head[0]):
                yield number, row[part.first_column : part.end_column]
            if part.head is not None and number == part.head_below:
                yield part.head

    def lines() -> Iterator[Row]:
        assert sheet.read_lines is not None
        for number, line in sheet.read_lines():
            if number >= part.first_row and (part.end_row is None or number < part.end_row):
                yield number, line

    return sheet._replace(
        read_rows=RowsAgain(rows),
        read_lines=None if sheet.read_lines is None else lines,
        first_column=sheet.first_column + part.first_column,
        part=part.name,
        part_title=part.title,
        said_above=(*sheet.said_above, *part.said_above),
        notes=(),
    )
