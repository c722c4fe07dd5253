"""A list under months that stand in rows of their own, or head its days: `January`, and below it `Mon 4 | School reopens | 9:00`."""

import re
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import MONTHS
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.headings import match_exactly, match_heading
from nomarium.reading.layouts import headtimes
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import day_and_clock, month_head, with_years
from nomarium.reading.layouts.slippedmonths import slipped_sections
from nomarium.sheets.sheet import Row, cell_text, is_blank

_ONE = r"(?:[^\W\d_]+\.?,?\s+)?\d{1,2}(?:st|nd|rd|th|er|\.)?(?:,?\s+[^\W\d_]+\.?)?"
DAYS = re.compile(
    rf"(?i)\s*(?P<first>{_ONE})(?:\s*(?P<sign>[-–—,&+]|\bto\b|\bau\b|\bbis\b|\band\b)\s*(?P<last>{_ONE}))?\s*"
)
_DAY_FIRST, _WEEKDAY_FIRST = r"^(\d{1,2}(?:st|nd|rd|th|\.)?),?\s+([^\W\d_]+\.?)$", r"\2 \1"
"""A day before its weekday, `11 Sun`, and the two turned."""
_LEAST_DAYS = 2
_SHARE = 0.7
"""Rows under months that begin with days, of all, from which on it is such a list."""


class _Found(NamedTuple):
    months: dict[int, tuple[int | None, int]]
    """By the numbers of their rows, each with its year where it says one."""
    days: dict[int, list[Cell]]
    """The rows that begin with days, by their numbers."""
    above: list[Row]
    head: int
    """The number of the row of headings below the first month; 0 where none stands there."""
    has_names: bool
    """Whether words stand over the columns below the first month, that are no headings of a list."""
    problems: tuple[Problem, ...] = ()
    """Of rows among the days that seem to be months, and are none."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list under months, or say why it is none."""
    found = _found(top)
    if found is None:
        message = f"{top.sheet.title} has no months in rows of their own over rows that begin with days."
        return not_read(top.sheet, "no-months", "it has no months over days", "date-column-missing", message)
    years = with_years(top, list(found.months.values()), found.above)
    if isinstance(years, Problem):
        return NotRead(top.sheet, "month-unnamed", "nothing says which year it is", years)
    month_of = dict(zip(found.months, years, strict=True))
    first = next(iter(month_of))
    written = (
        cell_text(cell)
        for number, row in top.sheet.rows()
        if number == first
        for cell in row
        if cell_text(cell)
    )
    text = next(written, "")
    message = (
        f"Rows that hold a month alone date the rows below them: row {first} is “{text}”, of {years[0][0]}."
    )
    if first == found.head:
        message = f"The month that heads the days is theirs: “{text}”, of {years[0][0]}."
    if not text:
        message = f"The sheet's name is the month of its days: “{top.sheet.name}”, of {years[0][0]}."
    told = note("month-sections", message).at(top.sheet.place())
    has_headings = any(_may_head(row, top.lexicon) for _, row in found.above)
    made = top.sheet._replace(
        read_rows=lambda: _dated(top, month_of, found, not has_headings and not found.head),
        notes=(*top.sheet.notes, told), dates_above=True,
    )  # fmt: skip
    options = top.options if has_headings else top.options._replace(header_row=found.head or 0)
    reading = list_in(Top(made, options, top.is_whole), made, top.seen)
    if isinstance(reading, NotRead) and reading.why == "no-titles":
        by_headings = headtimes.look(Top(made, options, top.is_whole))
        reading = by_headings if isinstance(by_headings, Reading) else reading
    if isinstance(reading, Reading):
        reading = reading._replace(problems=(*reading.problems, *found.problems))
    if isinstance(reading, Reading) and reading.table is not None and not (has_headings or found.head):
        unused = [c for c in reading.table.columns if c.is_ignored and c.filled]
        if len(unused) > (
            not found.has_names
        ):  # names or posts stand over its columns, that nothing is made of
            message = f"{top.sheet.title} has more than one column of words under its month."
            return not_read(
                top.sheet, "no-months", "it is drawn under its month", "date-column-missing", message
            )
    return reading


def _found(top: Top) -> _Found | None:
    """The months and the rows of days of a sheet; None where most rows below a month are none, or a wall planner is as good."""
    months: dict[int, tuple[int | None, int]] = {}
    days: dict[int, list[Cell]] = {}
    above: list[Row] = []
    has_more, others, head = False, 0, 0  # whether some row has more than a day and a text, or several days
    has_names = False
    if not any(_month_of(row, top.lexicon) for _, row in top.rows):
        called = month_head(top.sheet.name, top.lexicon) if top.sheet.name else None
        if called is None:
            return None
        months[0] = called  # a sheet for each month
    for number, row in top.sheet.rows():
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        if not filled:
            continue
        month = _month_of(row, top.lexicon, has_months=bool(months))
        if month is not None:
            months[number] = month
            if len(filled) > 1 and not head:
                head, above = number, [one for one in above if len(list(filter(cell_text, one[1]))) == 1]
        elif not months:
            above.append((number, row))
        elif (dated := _with_day(row, filled, top.lexicon)) is not None:
            days[number] = dated
            has_more |= len(list(filter(cell_text, dated))) > 2 or _is_several(dated)
        elif _heads(row):
            head = head or number
        else:
            others += 1
            has_names |= (
                not days and len(filled) > 1 and not any(map(str.isdigit, "".join(map(cell_text, row))))
            )
    if days and all(_has_month(cells, top.lexicon) for cells in days.values()):
        return None  # what stands over them says no more than they do
    is_wall = len(months) > 1 and not has_more and not head and not any(_heads(row) for _, row in above)
    least = (
        1 if 0 in months and (has_more or head) else _LEAST_DAYS
    )  # a heading of the document over a table of one row
    held = [cells for cells in days.values() if len(list(filter(cell_text, cells))) > 1]
    if len(held) < least or is_wall or len(days) < _SHARE * (len(days) + others):
        return None
    has_headings = any(_may_head(row, top.lexicon) for _, row in above)
    numbers = {
        number: int(figures[0])
        for number, cells in days.items()
        if (figures := re.findall(r"\d+", cell_text(cells[_first_filled(cells)])))
    }
    problems = tuple(slipped_sections(top.sheet, months, numbers))
    return _Found(months, days, above, 0 if has_headings else head, has_names, problems)


def _may_head(row: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether a row above the first month has several cells, and does not begin with a day."""
    filled = [n for n, cell in enumerate(row) if cell_text(cell)]
    return len(filled) > 1 and _with_day(row, filled, lexicon) is None


def _month_of(
    row: Sequence[Cell], lexicon: Lexicon, has_months: bool = False
) -> tuple[int | None, int] | None:
    """The month that a row says of the days below it."""
    titled = None if has_months else _month_titled(row, lexicon)
    return _month_alone(row, lexicon) or titled or _month_heading(row, lexicon)


def _month_heading(row: Sequence[Cell], lexicon: Lexicon) -> tuple[int | None, int] | None:
    """The month that heads the column of days in a row of headings: `September 2026 | Event | Where`."""
    filled = [cell for cell in row if cell_text(cell)]
    texts = list(map(cell_text, filled[1:]))
    known = lexicon.months.keys() | lexicon.weekdays.keys()
    is_plain = all(fold(text).strip(".") not in known and not any(map(str.isdigit, text)) for text in texts)
    is_short_year = bool(filled) and re.search(r"(?<!\d)\d{1,2}$", cell_text(filled[0])) is not None
    if not texts or not is_plain or (is_short_year and not (_heads(row) and "-" in cell_text(filled[0]))):
        return None  # Jan 12 is a day
    return month_head(filled[0], lexicon)


def _month_alone(row: Sequence[Cell], lexicon: Lexicon) -> tuple[int | None, int] | None:
    """The month that a row holds, and nothing else."""
    filled = [cell for cell in row if cell_text(cell)]
    return month_head(filled[0], lexicon) if len(filled) == 1 else None


def _month_titled(row: Sequence[Cell], lexicon: Lexicon) -> tuple[int | None, int] | None:
    """The month, with its year, with which a title ends: `Events in November 2026`."""
    filled = [text for cell in row if (text := cell_text(cell))]
    named = re.search(r"(?<!\d\s)\b([^\W\d]{3,})\s+(\d{4})$", filled[0]) if len(filled) == 1 else None
    return month_head(named[0], lexicon) if named is not None else None


def _heads(row: Sequence[Cell]) -> bool:
    """Whether a row below a month is one of headings."""
    texts = [text for cell in row if (text := cell_text(cell))]
    if len(texts) < 2 or any(map(str.isdigit, "".join(texts[1:]))):
        return False
    first = match_exactly(texts[0])
    heads_days = first is not None and first.field in ("date", "day")  # Day, over Dawn, Noon, Sunset
    return heads_days or sum(match_heading(text) is not None for text in texts) * 2 >= len(texts)


def _with_day(row: Sequence[Cell], filled: Sequence[int], lexicon: Lexicon) -> list[Cell] | None:
    """A row with its day, or days, in its first filled cell: a weekday may stand in one of its own before the number. Nothing need be
    on that day."""
    cells = list(row)
    first = filled[0]
    is_weekday = fold(cell_text(cells[first])).strip(".") in lexicon.weekdays
    is_apart = len(filled) == 2 and re.fullmatch(r"\d{1,2}", cell_text(cells[filled[1]])) is not None
    if is_weekday and (len(filled) > 2 or is_apart):
        cells[first], cells[filled[1]] = f"{cell_text(cells[first])} {cell_text(cells[filled[1]])}", ""
    match = DAYS.fullmatch(day_and_clock(cell_text(cells[first]))[0])
    if match is None:
        return None
    words = re.findall(
        r"[^\W\d_]{2,}", re.sub(r"(?<=\d)(?:st|nd|rd|th|er)\b", "", f"{match['first']} {match['last'] or ''}")
    )
    known = lexicon.weekdays.keys() | lexicon.months.keys()
    return cells if all(fold(word) in known for word in words) else None


def _has_month(cells: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether the day of a row names its month."""
    words = re.findall(r"[^\W\d_]{3,}", day_and_clock(cell_text(cells[_first_filled(cells)]))[0])
    return any(fold(word) in lexicon.months for word in words)


def _is_several(cells: Sequence[Cell]) -> bool:
    """Whether a row is of more days than one."""
    match = DAYS.fullmatch(day_and_clock(cell_text(cells[_first_filled(cells)]))[0])
    return match is not None and match["last"] is not None


def _dated(top: Top, month_of: dict[int, tuple[int, int]], found: _Found, needs_head: bool) -> Iterator[Row]:
    """The rows, those of days with the month and the year above them; that of a month has its first day, and nothing on it, or is
    that of the headings."""
    days = found.days
    month, begins = "", {number: _first_filled(cells) for number, cells in days.items()}
    if 0 in month_of:  # it stands over the table, or is the sheet's name
        month = f"{MONTHS[month_of[0][1] - 1]} {month_of[0][0]}"
    at = min(begins.values())
    if needs_head:
        yield 0, [*[""] * at, "Date", *[""] * (max(map(len, days.values())) - at - 1)]
    for number, row in top.sheet.rows():
        if number in month_of:
            year, which = month_of[number]
            month = f"{MONTHS[which - 1]} {year}"
            if number == found.head:
                first = _first_filled(row)
                yield number, [*row[:first], "Date", *row[first + 1 :]]
                continue
            yield number, [*[""] * at, f"1 {month}", *[""] * (len(row) - at - 1)]
        elif number in days and not is_blank(row):
            cells = [*days[number]]
            text, cells[begins[number]] = cell_text(cells[begins[number]]), ""
            beside = [
                n
                for n, cell in enumerate(row)
                if cell_text(cell) and not cell_text(cells[n]) and n != begins[number]
            ]
            cells[at if needs_head or not beside else beside[0]] = day_in_month(text, month, top.lexicon)
            yield number, cells
        else:
            yield number, row


def _first_filled(cells: Sequence[Cell]) -> int:
    return next(n for n, cell in enumerate(cells) if cell_text(cell))


def day_in_month(text: str, month: str, lexicon: Lexicon) -> str:
    """Days with their month: `15 – 19` in `February 2027`, `21 – 3 Jan` in `December 2026`."""
    text, time = day_and_clock(text)
    if time:
        return f"{day_in_month(text, month, lexicon)} {time}"
    match = DAYS.fullmatch(text)
    assert match is not None
    name, year = month.split()
    if match["last"] is None:
        return f"{re.sub(_DAY_FIRST, _WEEKDAY_FIRST, match['first'])} {month}"
    own = any(fold(word) in lexicon.months for word in re.findall(r"[^\W\d_]{3,}", match["last"]))
    return f"{match['first']} {month} {match['sign']} {match['last']}" + ("" if own else f" {name} {year}")
