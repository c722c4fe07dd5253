"""Weeks that are drawn with their times in the cells: weekdays across, and in each cell when something is held, and what, or,
beside the name of a group, only when. Each is a weekly event of the weeks that the person names."""

import re
from collections.abc import Collection, Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.times import Clock
from nomarium.reading.columns.daycells import begins_week, looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.layouts.celltimes import lines_of_cell
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.eveningsdown import TOLD, in_evenings
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.grid import title_and_place
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.layouts.weekly import with_passed, without_weeks
from nomarium.reading.layouts.weeklylines import weekly_lines
from nomarium.reading.options import in_one_week
from nomarium.reading.rows.datewithin import date_within
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEADINGS: Final = ("Title", "Day", "Time", "Location", "Teacher")
_FIRST_AND_LAST: Final = 2
_BOUNDS: Final = frozenset(("start", "end", "date", "end-date"))
_OF_PLACES: Final = frozenset(("location", "room"))
_OTHERS: Final = 3
"""Headings beside the weekdays, at most: a name, a group, a sum."""
_SEVEN: Final = 7 * 3600
_NOON: Final = 12 * 3600


class _Drawing(NamedTuple):
    rows: list[Row]
    """A row for each event: its title, weekday, time, place and teacher."""
    head: int
    """The number of the row of weekdays."""
    idle: int
    """Cells that say that nothing is held."""
    evenings: list[str]
    """Times that are in the evening since they stand below those of an afternoon."""
    has_bounds: bool = False
    """Whether each row says its first and its last day."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a week that repeats, or say why it is none."""
    sheet = top.sheet
    drawing = _drawn([*sheet.rows()], top)
    if drawing is None:
        message = f"{sheet.title} has no weekdays over cells that all say a time."
        return not_read(sheet, "no-weekdays", "it has no weekdays", "date-column-missing", message)
    lines = weekly_lines(sheet, drawing.head + 1, in_one_week(top.options))
    options = lines.options
    if drawing.has_bounds:
        days = "from the first to the last day of each row"
    elif options.repeats_from is None or options.repeats_until is None:
        return without_weeks(sheet, options)
    else:
        days = f"from {options.repeats_from} to {options.repeats_until}{options.weeks_of}"
    message = (
        f"Read as a week that repeats {days}: weekdays across (row {drawing.head}), a time in each cell."
    )
    told = [note("layout-week", message)]
    if drawing.evenings:
        told.append(note("lines-evening", TOLD.format(listed(drawing.evenings))))
    if drawing.idle:
        told.append(note("slots-idle", f"Cells in which nothing is held (a dash, “off” …): {drawing.idle}."))
    width = max(n + 1 for n in range(len(_HEADINGS)) if any(cells[n] for _, cells in drawing.rows) or n < 3)
    rows: list[Row] = [
        (drawing.head, _HEADINGS[:width]),
        *((n, cells[:width]) for n, cells in drawing.rows if n not in lines.passed),
    ]
    as_list = sheet._replace(
        read_rows=lambda: rows,
        merged=(),
        notes=(*sheet.notes, *(one.at(sheet.place()) for one in told), *lines.notes),
    )
    options = options._replace(
        header_row=drawing.head, columns={**options.columns, "Day": "date"}, tells_repeats=False
    )
    reading = list_in(Top(as_list, options, True), as_list, top.seen)
    if isinstance(reading, NotRead):
        return reading
    problems = (*lines.problems, *reading.problems)
    return with_passed(reading._replace(is_weekly=True, problems=problems, closed=lines.closed), lines.passed)


def _drawn(rows: Sequence[Row], top: Top) -> _Drawing | None:
    """The events of a drawn week; None where no row heads weekdays, or some cell under them says no time."""
    lexicon = top.of_weekdays
    at = next(
        (n for n, (_, row) in enumerate(rows) if len(weekday_columns(row, lexicon, _OTHERS)) >= 2), None
    )
    if at is None:
        return None
    number, head = rows[at]
    days = {
        column: f"every {WEEKDAYS[day]}" for column, day in weekday_columns(head, lexicon, _OTHERS).items()
    }
    first = min(days)
    bounds = _bounds_in(head[:first], rows[at + 1 :])
    labels = [n for n in range(first) if n not in bounds]
    below = [row[n] for n in labels for _, row in rows[at + 1 :] if n < len(row)]
    if any(looks_like_date(cell) or begins_week(cell) for cell in below):
        return None  # each row is of a week of its own, or stands under one
    field = next((match.field for n in labels if (match := match_exactly(cell_text(head[n])))), "")
    found, idle = list[Row](), 0
    lines = _lines_in(rows[at + 1 :], days)
    evenings = _settled(lines, days) if not (labels or top.options.clock) else []
    for row_number, row in rows[at + 1 :]:
        label = ", ".join(text for n in labels if n < len(row) and (text := cell_text(row[n])))
        if is_blank(row):
            continue
        beside = [
            text for n, cell in enumerate(row) if n >= first and n not in days and (text := cell_text(cell))
        ]
        if not all(re.fullmatch(r"\d{1,3}(?:[.,]\d{1,2})?\s?h?", text) for text in beside):
            return None  # but for sums of hours
        if not any(cell_text(row[n]) for n in days if n < len(row)):
            remark = label or ", ".join(beside)
            dated = (
                date_within(remark, lexicon) is not None
            )  # it may be about one of the weeks: refused by its text
            found.append((row_number, (remark, remark if dated else "", "", "", "")))
            continue
        for column, day in days.items():
            text = cell_text(row[column]) if column < len(row) else ""
            if is_idle(text):
                idle += 1
            elif text:
                if bounds:
                    day = f"{day.removeprefix('every ')}s, {cell_text(row[bounds[0]])} - {cell_text(row[bounds[1]])}"
                said = lines[row_number, column]
                if any(time.start is None or time.refusal for _, time, _ in said):
                    return None
                found += [(row_number, event) for event in _events_in(said, day, label, field)]
    return (
        _Drawing(found, number, idle, evenings, bool(bounds)) if any(event[2] for _, event in found) else None
    )


def _bounds_in(head: Sequence[Cell], rows: Sequence[Row]) -> tuple[int, ...]:
    """The columns of the first and the last day of each row; nothing where they are not two, or a row lacks one."""
    dated = [
        n
        for n, cell in enumerate(head)
        if (match := match_exactly(cell_text(cell))) is not None and match.field in _BOUNDS
        and all(n < len(row) and looks_like_date(row[n]) for _, row in rows if not is_blank(row))
    ]  # fmt: skip
    return tuple(dated) if len(dated) == _FIRST_AND_LAST else ()


_Lines = dict[tuple[int, int], list[tuple[str, Part, str]]]
"""By row number and column: titles with their times and places."""


def _lines_in(rows: Sequence[Row], days: Collection[int]) -> _Lines:
    """What is held in each cell under a day."""
    found: _Lines = {}
    for column in days:
        for number, row in rows:
            cell = row[column] if column < len(row) else ""
            alone = time_of(cell)
            lines = [("", alone, "")] if alone is not NOTHING else []
            found[number, column] = lines or [
                (one.title, one.time, one.place) for one in lines_of_cell(cell_text(cell))
            ]
    return found


def _settled(lines: _Lines, days: Collection[int]) -> list[str]:
    """Say of the times of evenings that they are, where what stands below is later in the day; the times that this moves."""
    columns = [[key for key in lines if key[1] == column] for column in days]
    written = [[(time, _written(time)) for key in keys for _, time, _ in lines[key]] for keys in columns]
    settled = in_evenings(written)
    for keys, times in zip(columns, settled, strict=True):
        left = iter(times)
        lines |= {key: [(title, next(left), place) for title, _, place in lines[key]] for key in keys}
    pairs = [pair for was, now in zip(written, settled, strict=True) for pair in zip(was, now, strict=True)]
    moved = (
        text
        for (was, text), now in pairs
        if was.start != now.start and not (was.start and was.start.is_doubtful)
    )
    return list(dict.fromkeys(moved))


def _events_in(
    lines: Sequence[tuple[str, Part, str]], day: str, label: str, field: str
) -> Iterator[tuple[str, str, str, str, str]]:
    """The events of a cell: title, weekday, time, place and teacher."""
    for what, time, place in lines:
        title, where = title_and_place(what) if what else ("", "")
        where = place or where or (label if field in _OF_PLACES else "")
        if not title:
            title = label
        elif label and field not in _OF_PLACES and field != "teacher":
            title = f"{label}: {title}"
        yield title, day, _written(time), where, label if field == "teacher" else ""


def _written(time: Part) -> str:
    if time.start is None:
        return ""
    return _clock(time.start) + (f" - {_clock(time.end)}" if time.end is not None else "")


def _clock(clock: Clock) -> str:
    """A time as it was typed, as far as that tells the clock that it is on: a zero in front does."""
    hours, minutes = clock.secs // 3600, clock.secs // 60 % 60
    if clock.has_meridiem and hours < 24:
        return f"{hours % 12 or 12}:{minutes:02} {'pm' if clock.secs >= _NOON else 'am'}"
    return f"{hours:0{2 if clock.secs < _SEVEN and not clock.is_doubtful else 1}}:{minutes:02}"
