"""A day sheet that is held again and again, `Tuesdays 12 January – 16 March 2027` above it: read as a list, with what says its days as
the date of each entry."""

from collections.abc import Iterable, Sequence
from typing import Final

from nomarium.model.problem import Problem
from nomarium.model.wording import clock_text
from nomarium.reading.layouts.drawn import DrawnEntry
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top
from nomarium.sheets.sheet import Row

_HEADINGS: Final = ("Title", "Date", "Start", "End", "Location")


def as_list_of(
    top: Top, phrase: str, entries: Iterable[DrawnEntry | Problem], notes: Sequence[Problem], has_nights: bool
) -> Reading | NotRead:
    """The entries of a day sheet, each on the days that a phrase says; the first problem of one where there is any."""
    sheet, head = top.sheet, top.rows[0][0]
    if has_nights:
        message = f"It is held again and again (“{phrase}”), and some of its times are on the next morning."
        remedy = "Give each of these a row of its own in a list, with its days and times."
        return NotRead(
            sheet,
            "day-unnamed",
            "it goes on after midnight",
            Problem("day-nights", message, remedy, sheet.place()),
        )
    rows: list[Row] = [(head, _HEADINGS)]
    for one in entries:
        if isinstance(one, DrawnEntry) and one.time.refusal is not None:
            one = one.time.refusal.problem(sheet.place(one.row, one.column), one.text)
        if isinstance(one, Problem):
            return NotRead(sheet, "day-unnamed", "an entry of it is wrong", one)
        start, end = (
            f"{clock_text(clock.secs):0>5}" if clock else "" for clock in (one.time.start, one.time.end)
        )
        rows.append((one.row, (one.text, phrase, start, end, one.location)))
    as_list = sheet._replace(
        read_rows=lambda: rows, merged=(), notes=(*sheet.notes, *(one.at(sheet.place()) for one in notes))
    )
    options = top.options._replace(header_row=head, clock="24", defaults={**top.options.defaults, "date": ""})
    return list_in(Top(as_list, options, True), as_list, top.seen)
