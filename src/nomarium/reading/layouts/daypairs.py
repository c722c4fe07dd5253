"""Dates across, each over columns of its own: the times, what is on, and perhaps where. `Mon 7 Sept` over `9.00` and `Knots`."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.problem import note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.slots import night_refused, time_of
from nomarium.reading.rows.sectiondate import date_of_title
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEAD_ROWS: Final = 20
_HEADINGS: Final = ("Date", "Time", "Title", "Place")
_WIDTHS: Final = (2, 3)
"""Columns of a date: its times and what is on, or where, too."""
_MOSTLY: Final = 0.8


class _Drawing(NamedTuple):
    head: Row
    days: tuple[int, ...]
    """The first column of each date, that of its times."""
    width: int
    body: tuple[Row, ...]
    above: tuple[Row, ...]


def look(top: Top) -> Reading | NotRead:
    """Read dates over pairs of columns as a list of what stands under them, or say why there are none."""
    sheet = top.sheet
    drawing = _drawing_of(top, top.lexicon)
    if drawing is None:
        message = f"{sheet.title} has no dates over columns of times and of what is on."
        return not_read(
            sheet, "no-weekdays", "it has no dates over pairs of columns", "date-column-missing", message
        )
    number, head = drawing.head
    for day in drawing.days:
        timed = [(at, day, row[day]) for at, row in drawing.body if day < len(row) and cell_text(row[day])]
        if (night := night_refused(sheet, timed)) is not None:
            return NotRead(sheet, "no-titles", "one of its times may be on the next day", night)

    def rows() -> list[Row]:
        found: list[Row] = [(number, _HEADINGS[: 1 + drawing.width])]
        for day in drawing.days:
            for at, row in drawing.body:
                said = [row[n] if n < len(row) else "" for n in range(day, day + drawing.width)]
                if any(map(cell_text, said)) and not is_idle(cell_text(said[1])):
                    found.append((at, [date_of_title(head[day], top.lexicon), *said]))
        return sorted(found, key=lambda one: one[0])

    told = note(
        "layout-day-columns", "Read by dates across: under each its times, and what is on beside them."
    )
    above = [(n, " ".join(filter(None, map(cell_text, row)))) for n, row in drawing.above]
    listed = sheet._replace(
        read_rows=rows, merged=(), notes=(*sheet.notes, told.at(sheet.place())), said_above=(*sheet.said_above, *above),
    )  # fmt: skip
    return list_in(Top(listed, top.options._replace(header_row=number), top.is_whole), listed, top.seen)


def _drawing_of(top: Top, lexicon: Lexicon) -> _Drawing | None:
    rows = [one for one in top.sheet.rows() if not is_blank(one[1])]
    for at, (number, row) in enumerate(rows[:_HEAD_ROWS]):
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        steps = {b - a for a, b in pairwise(filled)}
        if len(steps) != 1 or not all(date_of_title(row[n], lexicon) for n in filled):
            continue
        width = steps.pop()
        below = rows[at + 1 :]
        body = below[1:] if below and _are_headings(below[0], filled) else below
        if width in _WIDTHS and body and _are_times_and_words(body, filled, width):
            return _Drawing((number, row), tuple(filled), width, tuple(body), tuple(rows[:at]))
        return None
    return None


def _are_headings(row: Row, days: Sequence[int]) -> bool:
    """Whether a row below the dates heads their columns, `Time`, `What`."""
    matches = [match_exactly(cell_text(row[1][n])) for n in days if n < len(row[1])]
    return bool(matches) and all(
        match is not None and match.field in ("time", "start", "when") for match in matches
    )


def _are_times_and_words(body: Sequence[Row], days: Sequence[int], width: int) -> bool:
    """Whether the first column of each date holds times, the next one words, and no other column holds anything."""
    columns = {n for day in days for n in range(day, day + width)}
    if any(cell_text(cell) for _, row in body for n, cell in enumerate(row) if n not in columns):
        return False
    times = [row[n] for _, row in body for n in days if n < len(row) and cell_text(row[n])]
    words = [row[n + 1] for _, row in body for n in days if n + 1 < len(row) and cell_text(row[n + 1])]
    timed = sum(time_of(cell) is not NOTHING for cell in times)
    worded = sum(
        isinstance(cell, str) and any(map(str.isalpha, cell)) and time_of(cell) is NOTHING for cell in words
    )
    return len(times) > 1 and timed >= len(times) * _MOSTLY and worded >= len(words) * _MOSTLY > 0
