"""Lists whose headings say what happens, and whose cells when: `Date`, `Morning prayer`, `Evensong` over times of day."""

import re
from collections.abc import Mapping, Sequence
from itertools import chain, islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.clocks import clock_from
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.head import find_head
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.table import data_rows
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.slots import Line, clocks_of, forward, in_part_of_day, night_refused, time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import TOP_ROWS, Row, cell_text, is_blank

_HEADINGS: Final = ("Date", "Time", "Title")
_OF_ALL: Final = frozenset(("location", "room", "description", "categories", "organizer", "url"))
_BETWEEN: Final = r"\s*(?:[,;&+/]|\band\b)\s*"
_LEAST: Final = 2
"""Columns of times from which on their headings are the titles."""

_HALF: Final = 12 * 3600
_SEVEN: Final = 7 * 3600


class _Columns(NamedTuple):
    date: int
    weekday: int | None
    titles: dict[int, str]
    """Column → its heading."""
    others: tuple[int, ...]
    """Columns that say something of all that happens in a row."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet whose headings are titles, or say why it is none."""
    sheet = top.sheet
    head = find_head(sheet, top.lexicon, top.options.header_row)
    columns = None
    if head is not None and head.header_rows:
        sample = [row for _, row in islice(data_rows(sheet, head), TOP_ROWS) if not is_blank(row)]
        columns = _columns_of(top, head.headings, sample)
    if head is None or columns is None:
        message = f"{sheet.title} has no columns of times under headings that say what happens."
        return not_read(sheet, "no-weekdays", "its headings are no titles", "summary-column-missing", message)
    first = head.header_rows[-1]
    body = [*data_rows(sheet, head)]
    timed = {
        number: [at for at in columns.titles if at < len(row) and cell_text(row[at])] for number, row in body
    }
    idle = sum(is_idle(cell_text(row[at])) for number, row in body for at in timed[number])
    lines = {
        number: [
            Line(at, cell, in_part_of_day(time_of(cell), columns.titles[at]))
            for at in timed[number]
            if not is_idle(cell_text(row[at]))
            for cell in _each_time(row[at])
        ]
        for number, row in body
    }
    if any(map(_are_shifts, lines.values())):
        message = f"{sheet.title} has hours under its headings that are at once, or run past midnight: people's, and no programme."
        return not_read(sheet, "no-weekdays", "its headings are no titles", "summary-column-missing", message)
    settled = _night_in(top, lines) or _through_the_day(top, lines)
    if isinstance(settled, Problem):
        return NotRead(sheet, "no-titles", "its times are open", settled)

    def rows() -> list[Row]:
        return [
            (first, (*_HEADINGS, *(head.headings[at] for at in columns.others))),
            *(one for number, row in body for one in _of_row(columns, number, row, lines[number], settled)),
        ]

    named = ", ".join(f"“{title}”" for title in dict.fromkeys(columns.titles.values()))
    message = f"The headings {named} say what happens, and the times below them when."
    told = [note("layout-head-titles", message, "If not: --as events.")]
    if idle:
        told.append(note("slots-idle", f"Cells in which nothing is held (a dash, “closed” …): {idle}."))
    if settled:
        message = "The times of each row run forward through its day: those that come after noon are in the afternoon."
        told.append(note("grid-forward", message, "If not: --clock 24."))
    above = [
        (number, " ".join(filter(None, map(cell_text, row))))
        for number, row in islice(sheet.rows(), head.first_row)
        if number in head.title_rows
    ]
    listed = sheet._replace(
        read_rows=rows, merged=(), notes=(*sheet.notes, *(one.at(sheet.place()) for one in told)),
        said_above=(*sheet.said_above, *above),
    )  # fmt: skip
    options = top.options._replace(header_row=first, clock="" if settled else top.options.clock)
    return list_in(Top(listed, options, top.is_whole), listed, top.seen)


def _are_shifts(lines: Sequence[Line]) -> bool:
    """Whether hours of a row, from one to another without am or pm, cannot follow each other through a day: `9-5`, `7-3`."""
    spans = [
        (a.secs, b.secs)
        for line in lines
        if (a := line.time.start) and (b := line.time.end) and not a.has_meridiem
    ]
    if any(end <= start < _SEVEN for start, end in spans):
        return True  # 6-2 may be early, or late
    before = 0
    for start, end in spans if len(spans) > 1 else ():
        begin = start if start >= before else start + _HALF
        last = end if end > begin else end + _HALF
        if begin < before or last <= begin or begin >= 2 * _HALF:
            return True
        before = last
    return False


def _of_row(
    columns: _Columns,
    number: int,
    row: Sequence[Cell],
    lines: Sequence[Line],
    settled: Mapping[tuple[int, int, str], str],
) -> list[Row]:
    """A row of a list for each time of a row."""
    date = row[columns.date] if columns.date < len(row) else ""
    if columns.weekday is not None and isinstance(date, str):
        date = f"{cell_text(row[columns.weekday])} {date}".strip()
    said = [row[at] if at < len(row) else "" for at in columns.others]
    times = [settled.get((number, line.index, cell_text(line.heading)), line.heading) for line in lines]
    return [
        (number, (date, time, columns.titles[line.index], *said))
        for line, time in zip(lines, times, strict=True)
    ]


def _through_the_day(
    top: Top, lines: Mapping[int, Sequence[Line]]
) -> dict[tuple[int, int, str], str] | Problem:
    """Times without am or pm as the 24-hour clock has them, by row and column: those of a row run forward through its day. A problem
    where they could all be in the morning or in the afternoon."""
    asked = top.options.clock
    if asked == "24" or (not asked and clock_from(clocks_of(chain(*lines.values()))).clock == "24"):
        return {}
    found = dict[tuple[int, int, str], str]()
    for number, row in lines.items():
        settled = forward(row, asked)
        for line in settled:
            start, end = line.time.start, line.time.end
            if isinstance(line.time.refusal, Refusal):
                refused = line.time.refusal
                place = top.sheet.place(number, line.index)
                return Problem(refused.code, refused.message, refused.remedy, place, cell_text(line.heading))
            written = time_of(line.heading)
            if start is not None and (written.start, written.end) != (start, end):
                clocks = [
                    f"{clock.secs // 3600:02}:{clock.secs // 60 % 60:02}" for clock in (start, end) if clock
                ]
                found[number, line.index, cell_text(line.heading)] = "-".join(clocks)
    return found


def _night_in(top: Top, lines: Mapping[int, Sequence[Line]]) -> Problem | None:
    """A problem of the first time that is on the day after that of its row."""
    rows = ([(number, line.index, line.heading) for line in row] for number, row in lines.items())
    return next((found for row in rows if (found := night_refused(top.sheet, row)) is not None), None)


def _columns_of(top: Top, headings: Sequence[str], sample: Sequence[Sequence[Cell]]) -> _Columns | None:
    """The columns, where all but the date and its weekday hold times and nothing else; numbers alone may count something."""
    date = weekday = None
    titles: dict[int, str] = {}
    others: list[int] = []
    for at, heading in enumerate(headings):
        cells = [row[at] for row in sample if at < len(row) and cell_text(row[at])]
        if not cells:
            continue
        about = Contents(cells, top.lexicon)
        match = match_exactly(heading)
        if about.dates == 1 and date is None:
            date = at
        elif about.weekdays == 1 and weekday is None:
            weekday = at
        elif match is not None and match.field in _OF_ALL:
            others.append(at)
        elif heading and (match is None or match.field == "summary") and _are_times(cells, top.lexicon):
            titles[at] = heading
        else:
            return None
    cells = [row[at] for row in sample for at in titles if at < len(row)]
    if (
        date is None
        or len(titles) < _LEAST
        or all(cell_text(cell).isdecimal() or not _is_time(cell) for cell in cells)
    ):
        return None
    return _Columns(date, weekday, titles, tuple(others))


def _each_time(cell: Cell) -> list[Cell]:
    """The times of a cell that names several, `2.30pm & 7.30pm`; else the cell itself."""
    pieces = re.split(_BETWEEN, cell.strip()) if isinstance(cell, str) else []
    return [*pieces] if len(pieces) > 1 and all(map(_is_time, pieces)) else [cell]


def _are_times(cells: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether cells are times, or say that nothing is held."""
    held = [cell for cell in cells if not is_idle(cell_text(cell))]
    return all(map(_is_time, held)) or Contents(held, lexicon).say_only_times


def _is_time(cell: Cell) -> bool:
    return time_of(cell) is not NOTHING
