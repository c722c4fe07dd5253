"""Bell schedules of several kinds of day beside one another in a sheet, or each on a sheet of its own."""

import re
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.layouts.namedslots import is_break
from nomarium.reading.rows.sectiondate import date_of_title
from nomarium.school.codes import weekday_of
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnheads import days_named, letter_columns
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.planheads import field_of, plain
from nomarium.school.plantables import Item, Table
from nomarium.school.turning import turn
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_MOST_LINES: Final = 8
_LEAST_TIMES: Final = 2
_MOSTLY: Final = 0.8
_OF_BELLS: Final = r"\b(?:bells?|schedules?|times?|timetable|periods?|lessons?|daily|school|days?|class(?:es)?|hours|the|of|for|on|in)\b"
_REGULAR: Final = frozenset(
    ("", "regular", "normal", "standard", "usual", "ordinary", "full", "default", "every", "all")
)
_OF_DAYS: Final = r"(?i)\s+(?:days?|dates?|calendar)$"
_HEADINGS: Final = ("Period", "Schedule", "Label", "Start", "End", "Time")


class DaysKind(NamedTuple):
    """The kind of day that bells are for: a schedule by name, or labels or weekdays; both blank for the regular one."""

    schedule: str = ""
    labels: str = ""


class _Beside(NamedTuple):
    """The columns of one kind of day."""

    kind: DaysKind
    start: int
    end: int
    """The same column twice where each cell holds a span."""


def kind_named(text: str) -> DaysKind:
    """The kind of day that a heading, or the name of a sheet of bells, says.

    >>> kind_named("Friday bells"), kind_named("Regular schedule"), kind_named("Early dismissal")
    (DaysKind(schedule='', labels='Friday'), DaysKind(schedule='', labels=''), DaysKind(schedule='Early dismissal', labels=''))
    """
    for said in (text.strip(), bare := " ".join(re.sub(_OF_BELLS, " ", fold(text)).split())):
        if names := days_named(said, frozenset(), ENGLISH):
            return DaysKind(labels=", ".join(names))
    words = re.findall(r"[^\W\d]+", text)
    if len(words) > 1 and all(weekday_of(word) is not None for word in words):
        return DaysKind(labels=", ".join(words))  # Mon Tue Thu Fri
    days = [word for word in words if len(word) > 2 and weekday_of(word) is not None]
    if len(days) == 1:
        return DaysKind(labels=days[0])  # Wednesday (early release)
    return DaysKind() if bare in _REGULAR else DaysKind(schedule=" ".join(text.split()))


def together(first: Table, second: Table) -> Table | None:
    """Two sheets of bells as one table, where their names say different kinds of day: `Regular bells`, `Friday bells`.
    None where they do not."""
    known = {kind_named(item.table.sheet.name) for item in first.items}
    if kind_named(second.sheet.name) in known:
        return None
    return first._replace(items=[_of_its_kind(item) for item in (*first.items, *second.items)])


def _of_its_kind(item: Item) -> Item:
    """A row of bells with the kind of day that its sheet's name says, unless it says one itself."""
    kind = kind_named(item.table.sheet.name)
    if item.text("schedule") or item.text("label"):
        return item
    return item._replace(cells={**item.cells, "schedule": kind.schedule, "label": kind.labels})


def with_divisions(bells: Table, divisions: Collection[str]) -> Table:
    """A table of bells in which a kind of day that is the name of one of the `divisions` (compared form) is theirs."""
    found = []
    for item in bells.items:
        schedule = item.text("schedule")
        bare = re.sub(_OF_BELLS, " ", fold(schedule))
        is_division = bool(schedule) and not item.text("division") and plain(bare) in divisions
        cells = {**item.cells, "schedule": "", "division": bare.strip()}
        found.append(item._replace(cells=cells) if is_division else item)
    return bells._replace(items=found)


def divisions_drawn(names: Iterable[str], bells: Table) -> dict[str, str]:
    """The drawn timetables that are called as bells are, `Apprentices` beside `Bells Apprentices`: each is a division's. Their
    names, by their compared form."""
    called = {bare_schedule(item.text("schedule")) for item in bells.items if not item.text("division")}
    return {plain(name): name for name in names if name and plain(name) in called - {""}}


def bare_schedule(schedule: str) -> str:
    """The name of a schedule without the words that any has, in its compared form: `Late start` of `Late start bells`."""
    return plain(re.sub(_OF_BELLS, " ", fold(schedule)))


def with_bells_in_rows(sheet: Sheet) -> Sheet:
    """The sheet with a row for each period of each kind of day, whose times stood beside one another: a column of spans
    for each, or a start and an end. The sheet itself where there is one kind."""
    rows = list(sheet.rows())
    for at in range(min(len(rows), _HEAD_ROWS)):
        found = _pairs(rows, at) or _named_pairs(rows, at) or _spans(rows, at)
        if len({one.kind for one in found}) > 1:
            period = _periods_at(rows, at, min(one.start for one in found))
            return sheet._replace(read_rows=partial(_again, rows, at, period, found), merged=())
    stacked = _stacked(rows) or _stacked(_one_below_the_other(rows))
    return sheet._replace(read_rows=lambda: stacked, merged=()) if stacked else sheet


def upright(sheet: Sheet) -> Sheet:
    """The sheet with rows and columns exchanged, where periods stand across over a line of starts and one of ends, or of times."""
    rows = [one for one in islice(sheet.rows(), _MOST_LINES + 1) if any(map(cell_text, one[1]))]
    if not rows or len(rows) > _MOST_LINES:
        return sheet
    number, first = rows[0]
    if not cell_text(first[0]) and all(map(is_period, first[1:])):
        rows[0] = number, ["Period", *first[1:]]
    lines = {field_of(cell_text(row[0]), "bells"): row[1:] for _, row in rows}
    times = [cell for field in ("start", "end", "time") for cell in lines.get(field, ()) if cell_text(cell)]
    is_such = next(iter(lines)) == "period" and ({"start", "end"} <= lines.keys() or "time" in lines)
    is_such = is_such and lines.keys() <= {
        "period",
        "start",
        "end",
        "time",
        "name",
    }  # others are days with classes
    if not is_such or len(times) < _LEAST_TIMES or not all(map(is_time, times)):
        return sheet
    upright_rows = turn(rows)
    return sheet._replace(read_rows=lambda: iter(upright_rows), merged=(), own_rows=tuple(n for n, _ in rows))


def _stacked(rows: Sequence[Row]) -> list[Row]:
    """The rows of kinds of day one below the other, each under its name alone in a row, with that name in each; nothing where
    there are not two of them, or a column says the kind."""
    found: list[Row] = [(rows[0][0] if rows else 1, list(_HEADINGS))]
    kinds = list[DaysKind]()
    for number, row in rows:
        cells = [(n, cell) for n, cell in enumerate(row) if cell_text(cell)]
        texts = [cell_text(cell) for _, cell in cells]
        fields = {field_of(text, "bells") for text in texts}
        times = [cell for _, cell in cells if is_time(cell)]
        if times and any(looks_like_date(cell) and not is_time(cell) for _, cell in cells):
            return []  # what is on then
        if not times and {"schedule", "label"} & fields:
            return []
        if len(cells) == 1 and not times:
            if looks_like_date(cells[0][1]) or date_of_title(cells[0][1], ENGLISH):
                return []  # the programmes of several dates
            if kinds and found[-1][1][1:3] != [kinds[-1].schedule, kinds[-1].labels]:
                return []  # a name with no times below it: lines of a text are many
            kinds.append(_kind_with_days(texts[0]))
        elif times and len(cells) > len(times) + 2:
            return []  # classes at their times
        elif times and len(cells) > len(times) and kinds:
            name = next(cell for _, cell in cells if not is_time(cell))
            ends: list[Cell] = [times[0], times[1], ""] if len(times) > 1 else ["", "", times[0]]
            found.append((number, [name, kinds[-1].schedule, kinds[-1].labels, *ends]))
        elif cells and not ("period" in fields or {"start", "time"} & fields):
            return []
    filled = {(cells[1], cells[2]) for _, cells in found[1:]}
    return found if len(filled) > 1 and len(set(kinds)) == len(kinds) == len(filled) else []


def _one_below_the_other(rows: Sequence[Row]) -> list[Row]:
    """Kinds of day that stand side by side, each with a column for its periods under its name, one below the other; nothing
    where there are not two such."""
    for at, (_, head) in enumerate(rows[:_HEAD_ROWS]):
        begins = [n for n, cell in enumerate(head) if field_of(cell_text(cell), "bells") == "period"]
        if len(begins) < 2 or at == 0:
            continue
        found: list[Row] = []
        for first, end in zip(begins, [*begins[1:], len(head)], strict=True):
            parts = [(number, [*row[first:end]]) for number, row in rows[at - 1 :]]
            found += [one for one in parts if any(map(cell_text, one[1]))]
        return found
    return []


def _kind_with_days(text: str) -> DaysKind:
    """The kind of day of a name with its days in brackets, `Short (Plank, Sail)`, or of one without."""
    within = re.fullmatch(r"(?P<name>[^()]+)\((?P<days>[^()]+)\)", text.strip())
    days = re.split(r"\s*(?:,|&|/|\band\b)\s*", within["days"].strip()) if within is not None else []
    are_labels = days and all(re.fullmatch(r"[\w-]+", day) for day in days)
    return DaysKind(labels=", ".join(days)) if are_labels else kind_named(text)


def _again(rows: Sequence[Row], at: int, period: int, found: Sequence[_Beside]) -> Iterator[Row]:
    yield from (
        (number, [*row[:period], *([""] * (len(_HEADINGS) - period))])
        for number, row in rows[: max(at - 1, 0)]
    )
    yield rows[at][0], list(_HEADINGS)
    for number, row in rows[at + 1 :]:
        name = _cell(row, period)
        held = [one for one in found if cell_text(_cell(row, one.start))]
        if not held:
            yield number, [cell for cell in row if cell_text(cell)][: len(_HEADINGS)]
        for one in held:
            start, end = _cell(row, one.start), _cell(row, one.end)
            times: list[Cell] = ["", "", start] if one.start == one.end else [start, end, ""]
            yield number, [name, one.kind.schedule, one.kind.labels, *times]


def _pairs(rows: Sequence[Row], at: int) -> list[_Beside]:
    """Kinds of day over a start and an end each: `Monday–Thursday` over `Start` and `End`, `Friday` over both again."""
    fields = [field_of(cell_text(cell), "bells") for cell in rows[at][1]]
    starts = [n for n, field in enumerate(fields) if field == "start"]
    ends = [n for n, field in enumerate(fields) if field == "end"]
    if (
        at == 0
        or len(starts) < 2
        or len(starts) != len(ends)
        or any(a >= b for a, b in zip(starts, ends, strict=True))
    ):
        return []
    above, found = rows[at - 1][1], list[_Beside]()
    for n, (start, end) in enumerate(zip(starts, ends, strict=True)):
        named = [
            text
            for cell in above[(ends[n - 1] + 1 if n else starts[0]) : end + 1]
            if (text := cell_text(cell))
        ]
        if len(named) != 1:
            return []
        found.append(_Beside(kind_named(named[0]), start, end))
    return found


def _named_pairs(rows: Sequence[Row], at: int) -> list[_Beside]:
    """Kinds of day whose starts and ends say their own days, `Wed start`, `Wed end`, beside those of all others."""
    named: dict[DaysKind, dict[str, int]] = {}
    for n, cell in enumerate(rows[at][1]):
        match = re.fullmatch(r"(?i)(.*?)\s*\b(start|begin|from|end|finish|to)s?", cell_text(cell).strip())
        kind = kind_named(match[1]) if match else None
        if match is None or kind is None or (kind.schedule and not match[1]):
            continue
        edge = "start" if match[2].casefold() in ("start", "begin", "from") else "end"
        named.setdefault(kind, {}).setdefault(edge, n)
    found = [
        _Beside(kind, *(edges[one] for one in ("start", "end")))
        for kind, edges in named.items()
        if len(edges) == 2
    ]
    return found if len(found) == len(named) > 1 and any(one.kind.labels for one in found) else []


def _spans(rows: Sequence[Row], at: int) -> list[_Beside]:
    """Kinds of day that head a column of spans of time each: `Monday`, `Regular`, `Early dismissal`, `A` to `D`."""
    head, letters = rows[at][1], letter_columns(rows[at][1])
    is_headed = any(
        field_of(cell_text(cell), "bells") == "period" for n, cell in enumerate(head) if n not in letters
    )
    below = [row[0] for _, row in rows[at + 1 :] if row and cell_text(row[0])]
    if not is_headed and not (
        head
        and not cell_text(head[0])
        and len(below) > 1
        and all(is_period(cell) or is_break(cell_text(cell)) for cell in below)
    ):
        return []
    found = []
    for n, cell in enumerate(head):
        text = cell_text(cell)
        below = [row[n] for _, row in rows[at + 1 :] if n < len(row) and cell_text(row[n])]
        is_named = n in letters or field_of(text, "bells") is None
        if text and is_named and below and sum(map(_is_span, below)) >= _MOSTLY * len(below):
            found.append(_Beside(DaysKind(labels=text) if n in letters else kind_named(text), n, n))
    return found


def _is_span(cell: Cell) -> bool:
    return is_time(cell) and re.search(r"\d\D*\s*(?:-|–|—|\bto\b|\bà\b)\s*\D*\d", cell_text(cell)) is not None


def _periods_at(rows: Sequence[Row], at: int, before: int) -> int:
    """The column of the periods: as headed, else the first one left of the times that is filled."""
    for n in range(before):
        texts = [cell_text(_cell(row, n)) for _, row in rows[max(at - 1, 0) : at + 1]]
        if any(field_of(text, "bells") == "period" for text in texts):
            return n
    return next((n for n in range(before) if any(cell_text(_cell(row, n)) for _, row in rows[at + 1 :])), 0)


def _cell(row: Sequence[Cell], column: int) -> Cell:
    return row[column] if column < len(row) else ""


_LEAST_SHORTENED: Final = 3


def days_of_bells(sheet: Sheet, bells: Table | None) -> Sheet | None:
    """A sheet of dates that is called as a bell schedule is, `Early closing` or `Early closing days`, or that names one beside
    each date, as a table of special days on which these ring; None for any other."""
    called = re.sub(_OF_DAYS, "", sheet.name.strip())
    schedules = {plain(item.text("schedule")): item.text("schedule") for item in bells.items} if bells else {}
    schedules |= {bare: name for name in schedules.values() if (bare := bare_schedule(name))}
    schedule = (schedules.get(plain(called)) or _shortened(called, schedules)) if called else None
    rows = [row for row in sheet.rows() if any(map(cell_text, row[1]))] if schedules else []
    dated = [row for row in rows if any(map(looks_like_date, row[1]))]
    named = [_called_in(row, schedules) for _, row in dated]
    if not dated or not (schedule or all(len(names) == 1 for names in named)):
        return None
    found: list[Row] = [(dated[0][0] - 1, ["Date", "Bells"])]
    for number, row in rows:
        if number >= dated[0][0]:
            filled = [cell for cell in row if cell_text(cell)]
            date = next(filter(looks_like_date, filled), filled[0])
            ringing = next(iter(_called_in(row, schedules)), schedule or "")
            found.append((number, [date, ringing]))
    return sheet._replace(read_rows=lambda: iter(found))


def _shortened(called: str, schedules: Mapping[str, str]) -> str | None:
    """The one schedule of whose words these are the first letters, three at least of each: `Min` of `Minimum day`."""
    words = plain(called).split()
    if not words or any(len(word) < _LEAST_SHORTENED for word in words):
        return None
    alike = {
        name
        for known, name in schedules.items()
        if len(parts := known.split()) >= len(words)
        and all(part.startswith(word) for word, part in zip(words, parts, strict=False))
    }
    return alike.pop() if len(alike) == 1 else None


def _called_in(row: Sequence[Cell], schedules: Mapping[str, str]) -> list[str]:
    """The bell schedules that cells of a row name; `schedules` are theirs, by their compared form."""
    return [name for cell in row if (name := schedules.get(plain(cell_text(cell))))]
