"""A wall planner: months across and days down, or the other way, or one month below another."""

import calendar
import datetime as dt
import re
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import partial
from itertools import pairwise
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.wording import WEEKDAYS, counted, listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.lexicons import with_weekdays_within
from nomarium.reading.layouts.celltimes import lines_of_cell
from nomarium.reading.layouts.codes import Code, are_figures, asked_codes, is_idle, key_in
from nomarium.reading.layouts.drawn import (
    DrawnEntry,
    after_remarks,
    date_part,
    days_or_times,
    may_be_days,
    merged_from,
    several_times,
)
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import Month, month_head, months_across, with_years
from nomarium.reading.layouts.narrowcells import in_whole_lines
from nomarium.reading.layouts.slippedmonths import no_month, slipped_months, slipped_sections
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, cell_text, column_texts, is_blank

_DAY = r"(?:(?P<before>[^\W\d_]+)\.?,?\s*)?(?P<day>\d{1,2})(?:st|nd|rd|th|er|\.)?(?:,?\s*(?P<after>[^\W\d_]+)\.?)?"
_MARKS = frozenset("x ✓ ✔ ✗ * • ● ■".split())
_LEAST_DAYS = 5


class _Cell(NamedTuple):
    """A filled cell of a day."""

    row: int
    column: int
    text: str
    month: Month
    day: int
    weekday: int | None = None
    last_day: int = 0
    """The last day of a merged span; 0 when it is one day."""


class _Drawing(NamedTuple):
    kind: str
    cells: list[_Cell]
    months: list[Month]
    others: list[Row]
    """Rows that are no part of it: titles, a key, remarks."""
    unused: tuple[str, ...] = ()
    """Columns that are no part of it."""
    headings: Mapping[int, str] = MappingProxyType({})
    """Column → what heads it above the months, where several are headed: for whom what stands in it is on."""
    problems: tuple[Problem, ...] = ()
    """Of headings that are no months, over what would be lost."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a wall planner, or say why it is none."""
    top = Top(in_whole_lines(top.sheet), top.options, top.is_whole)
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    lexicon = with_weekdays_within(rows, top.lexicon)
    for drawing in (_across(top, rows, lexicon), _down(top, rows, lexicon), _below(top, rows, lexicon)):
        if isinstance(drawing, Problem):
            return NotRead(top.sheet, "month-unnamed", "nothing says which year it is", drawing)
        if drawing is not None and not are_figures([cell.text for cell in drawing.cells]):
            return _reading(top, drawing)
    message = f"{top.sheet.title} is no wall planner: no months cross numbers of days."
    return not_read(top.sheet, "no-wall", "it is no wall planner", "wall-none", message)


def _reading(top: Top, drawing: _Drawing) -> Reading:
    sheet, options = top.sheet, top.options
    key, _ = key_in(drawing.others, {one.text for one in drawing.cells if len(one.text) <= 6})
    asked = asked_codes(options.codes)
    codes = {code.casefold(): said for code, said in key.items()} | asked
    entries: list[DrawnEntry | Problem] = []
    idle = 0
    for cell in drawing.cells:
        if is_idle(cell.text) and cell.text.casefold() not in codes:
            idle += 1
        else:
            of = tuple(filter(None, [drawing.headings.get(cell.column, "")]))
            found = _entries(top, cell, codes)
            entries += [
                replace(one, categories=of) if isinstance(one, DrawnEntry) and of else one for one in found
            ]
    first, last = drawing.months[0], drawing.months[-1]
    span = f"{dt.date(*first, 1):%B %Y} to {dt.date(*last, 1):%B %Y}"
    notes = [note("layout-wall", f"Read as a wall planner: {drawing.kind}, {span}.").at(sheet.place())]
    if key:
        notes.append(
            note("roster-key", f"What {listed(sorted(key))} stand for is beside it.").at(sheet.place())
        )
    if drawing.headings:
        message = f"What heads the columns ({listed([*drawing.headings.values()])}) is the category of what stands in them."
        notes.append(note("block-title", message).at(sheet.place()))
    if drawing.unused:
        message = f"Not used: the column{'s' if len(drawing.unused) > 1 else ''} {listed(drawing.unused)}."
        notes.append(note("column-unused", message).at(sheet.place()))
    if idle:
        message = f"{counted(idle, 'cell says', 'cells say')} that nothing happens (a dash, “off” …)."
        notes.append(note("slots-idle", message).at(sheet.place()))
    texts = {one.text.casefold() for one in drawing.cells}
    problems = [*drawing.problems] + [
        Problem("code-unmet", f"--set-code names “{code}”, and no cell of {sheet.title} has it.", "Leave it out.", sheet.place())
        for code in options.codes if code.casefold() not in texts
    ]  # fmt: skip

    events = partial(after_remarks, sheet, entries, options, drawing.others)
    return Reading(sheet, "wall", events, (*sheet.notes, *notes), tuple(problems))


def _entries(top: Top, cell: _Cell, codes: dict[str, Code]) -> list[DrawnEntry | Problem]:
    """The events of one day's cell, one a line."""
    place = top.sheet.place(cell.row, cell.column)
    year, month = cell.month
    if cell.day > calendar.monthrange(year, month)[1]:
        message = f"{dt.date(year, month, 1):%B %Y} has no day {cell.day}."
        return [Problem("date-impossible", message, "Put it on another day.", place, cell.text)]
    first = dt.date(year, month, cell.day)
    if cell.weekday is not None and first.weekday() != cell.weekday:
        message = f"{first} is a {WEEKDAYS[first.weekday()]}, not a {WEEKDAYS[cell.weekday]}."
        return [
            Problem(
                "date-weekday", message, "Correct the weekday, or the month and year above.", place, cell.text
            )
        ]
    last = dt.date(year, month, min(cell.last_day or cell.day, calendar.monthrange(year, month)[1]))
    found: list[DrawnEntry | Problem] = []
    for one in lines_of_cell(cell.text):
        line = one.text
        said = codes.get(line.casefold())
        if said is None and line.casefold() in _MARKS:
            message = f"Nothing says what “{line}” stands for."
            remedy = f'Say what happens on these days: --set-code "{line}=TITLE".'
            found.append(Problem("mark-unexplained", message, remedy, place, line))
            continue
        if said is None and (one.says_several or may_be_days(one, first)):
            found.append((several_times if one.says_several else days_or_times)(place, line))
            continue
        time, title = (said.time, said.name or line) if said is not None else (one.time, one.title)
        spans = [(first, last)] if time is NOTHING or first == last else _days(first, last)
        found += [
            DrawnEntry(cell.row, cell.column, title, date_part(*span), time, one.place, cell=line)
            for span in spans
        ]
    return found


def _days(first: dt.date, last: dt.date) -> list[tuple[dt.date, dt.date]]:
    days = [first + dt.timedelta(n) for n in range((last - first).days + 1)]
    return [(day, day) for day in days]


def _day_of(cell: Cell, lexicon: Lexicon) -> tuple[int, int | None] | None:
    """The number of a day, and the weekday that stands with it; None for any other cell."""
    if isinstance(cell, bool) or (isinstance(cell, float) and not cell.is_integer()):
        return None
    if isinstance(cell, dt.date):
        return cell.day, cell.weekday()
    match = re.fullmatch(_DAY, cell_text(cell))
    if match is None or not 1 <= int(match["day"]) <= 31:
        return None
    word = fold(match["before"] or match["after"] or "")
    if len(word) > 1 and word not in lexicon.weekdays:
        return None
    return int(match["day"]), lexicon.weekdays[word] if len(word) > 1 else None


def _month_heads(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, tuple[int | None, int]]:
    """Column → month of a row that months head; nothing for any other row."""
    filled = [n for n, cell in enumerate(row) if cell_text(cell)]
    found = months_across(row, lexicon)
    return found if len(found) >= 2 and len(found) * 2 >= len(filled) else {}


def _across(top: Top, rows: Sequence[Row], lexicon: Lexicon) -> _Drawing | Problem | None:
    """Months across, days down: numbered at the left of all, or in each month's own columns."""
    sheet = top.sheet
    at = next((at for at, (_, row) in enumerate(rows[:20]) if _month_heads(row, lexicon)), None)
    if at is None:
        return None
    heads = _month_heads(rows[at][1], lexicon)
    body = [(number, row) for number, row in rows[at + 1 :]]
    own = {n: _numbers_in(body, n, lexicon) for n in heads}
    label = next((n for n in range(min(heads)) if _numbers_in(body, n, lexicon)), None)
    if not all(own.values()) and label is None:
        return None
    months = with_years(top, list(heads.values()), rows[: at + 1])
    if isinstance(months, Problem):
        return months
    width = max(len(row) for _, row in body)
    merged = merged_from(sheet)
    cells, used = list[_Cell](), set[int]()
    head = rows[at][1]
    apart = {n for n, cell in enumerate(head) if n not in heads and cell_text(cell)}
    with_weekdays = {n for n in range(width) if _begin_with_weekdays(body, n, lexicon)}
    right = (n for n in range(max(heads) + 1, len(head)) if cell_text(head[n]))
    bounds = [*heads, next(right, max(width, max(heads) + 1))]
    for (first, end), month in zip(pairwise(bounds), months, strict=True):
        days_at = first if own[first] else label
        for number, row in body:
            day = _day_of(row[days_at], lexicon) if days_at is not None and days_at < len(row) else None
            if day is None:
                continue
            used.add(number)
            for n in range(first + bool(own[first]), min(end, len(row))):
                text = cell_text(row[n]) if n not in apart else ""
                if n in with_weekdays:
                    day, text = _without_weekday(day[0], text, lexicon)
                if not text or fold(text) in lexicon.weekdays or text in ("M", "T", "W", "F", "S"):
                    continue
                area = merged.get((number, n))
                last = day[0] + area.last_row - area.first_row if area else 0
                cells.append(_Cell(number, n, text, month, *day, last))
    others = [*rows[:at], *((number, row) for number, row in body if number not in used)]
    beside = {*range(bounds[-1], width), *(n for n in apart if n > (-1 if label is None else label))}
    beyond = [n for n in sorted(beside) if any(n < len(row) and cell_text(row[n]) for _, row in body)]
    unused = tuple(f"“{cell_text(head[n])}”" if n < len(head) else column_letter(n) for n in beyond)
    problems = slipped_months(sheet, *rows[at], body, heads, label)
    return (
        _Drawing("months across, days down", cells, months, others, unused, problems=tuple(problems))
        if cells
        else None
    )


def _begin_with_weekdays(body: Sequence[Row], column: int, lexicon: Lexicon) -> bool:
    """Whether the cells of a column begin with weekdays, `Mon Regatta`, and most are nothing else."""
    texts = column_texts(body, column)
    named = sum(fold(text.split()[0]).strip(".,:") in lexicon.weekdays for text in texts)
    return len(texts) >= _LEAST_DAYS and named * 5 >= len(texts) * 4


def _without_weekday(day: int, text: str, lexicon: Lexicon) -> tuple[tuple[int, int | None], str]:
    """A day with the weekday with which its cell begins, and the rest of the cell."""
    first, _, rest = text.partition(" ")
    weekday = lexicon.weekdays.get(fold(first).strip(".,:"))
    return ((day, None), text) if weekday is None else ((day, weekday), rest.strip(" :–-"))


def _numbers_in(body: Sequence[Row], column: int, lexicon: Lexicon) -> bool:
    """Whether a column numbers days."""
    cells = [row[column] for _, row in body if column < len(row) and cell_text(row[column])]
    days = [day[0] for cell in cells if (day := _day_of(cell, lexicon)) is not None]
    return (
        len(days) >= min(_LEAST_DAYS, 28)
        and len(days) * 5 >= len(cells) * 3
        and all(a < b for a, b in pairwise(days))
    )


def _down(top: Top, rows: Sequence[Row], lexicon: Lexicon) -> _Drawing | Problem | None:
    """Days across, a row (or several) for each month."""
    at = next((at for at, (_, row) in enumerate(rows[:20]) if _numbers_across(row, lexicon)), None)
    if at is None:
        return None
    days = _numbers_across(rows[at][1], lexicon)
    label = min(days) - 1
    named: list[tuple[Row, tuple[int | None, int]]] = []
    others, under, slips = list(rows[:at]), dict[int, int](), list[Problem]()
    for number, row in rows[at + 1 :]:
        month = month_head(row[label], lexicon) if label < len(row) else None
        if month is not None:
            named.append(((number, row), month))
        elif (called := cell_text(row[label] if label < len(row) else "")) or not named:
            others.append((number, row))
            held = [
                [cell]
                for n, cell in enumerate(row)
                if n in days and fold(cell_text(cell)) not in lexicon.weekdays
            ]
            slips += no_month(top.sheet, number, label, called, held) if called else []
            continue
        under[number] = len(named) - 1  # a second row of a month has no label
    if not named:
        return None
    months = with_years(top, [month for _, month in named], rows[: at + 1])
    if isinstance(months, Problem):
        return months
    merged = merged_from(top.sheet)
    cells = []
    for number, row in rows[at + 1 :]:
        for n, day in days.items():
            text = cell_text(row[n]) if n < len(row) and number in under else ""
            if text and fold(text) not in lexicon.weekdays:
                area = merged.get((number, n))
                last = day + area.last_column - area.first_column if area else 0
                cells.append(_Cell(number, n, text, months[under[number]], day, None, last))
    return (
        _Drawing("days across, months down", cells, months, others, problems=tuple(slips)) if cells else None
    )


def _numbers_across(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, int]:
    """Column → day of a row that numbers the days of a month; nothing for any other row."""
    found = {n: day[0] for n, cell in enumerate(row) if n and (day := _day_of(cell, lexicon)) is not None}
    numbers = list(found.values())
    return found if len(found) >= 20 and numbers == list(range(numbers[0], numbers[0] + len(numbers))) else {}


def _below(top: Top, rows: Sequence[Row], lexicon: Lexicon) -> _Drawing | Problem | None:
    """One month below another: its name alone in a row, then a row for each day."""
    named: list[tuple[int | None, int]] = []
    found: list[tuple[int, int, int, int, int | None, str]] = []
    others: list[Row] = []
    first_named, months_at, is_early = len(rows), set[int](), False
    for at, (number, row) in enumerate(rows):
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        month = month_head(row[filled[0]], lexicon) if len(filled) <= 2 else None
        if month is not None and all(fold(cell_text(row[n])) not in lexicon.weekdays for n in filled[1:]):
            first_named = min(first_named, at)
            named.append(month)
            months_at.add(number)
            continue
        day = _day_of(row[filled[0]], lexicon)
        if len(filled) > 1 and day is None and named and re.search(r"\d", cell_text(row[filled[0]])):
            return None  # 19–20: several days
        is_early |= len(filled) > 1 and day is not None and not named
        if day is None or not named:
            others.append((number, row))
            continue
        for n in filled[1:]:
            if fold(cell_text(row[n])) not in lexicon.weekdays:
                found.append((len(named) - 1, number, n, *day, cell_text(row[n])))
    if not found or len(named) < 2 or len(others) * 2 > len(rows):
        return None
    months = with_years(top, named, rows[:first_named])
    if isinstance(months, Problem):
        return months
    cells = [
        _Cell(number, n, text, months[which], day, weekday) for which, number, n, day, weekday, text in found
    ]
    used = sorted({cell.column for cell in cells})
    heads = [row for _, row in rows[:first_named] if all(n < len(row) and cell_text(row[n]) for n in used)]
    headings = {n: cell_text(heads[-1][n]) for n in used} if heads and len(used) > 1 else {}
    slips = tuple(slipped_sections(top.sheet, months_at, {number: day for _, number, _, day, _, _ in found}))
    if is_early and not slips:
        return None  # days that stand above all months
    return _Drawing("one month below another", cells, months, others, headings=headings, problems=slips)
