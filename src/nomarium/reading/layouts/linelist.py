"""What lines of text came to, read as the rows of a list."""

import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import Final

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.table import TableReading
from nomarium.reading.columns.yearsabove import AFTER_LETTER, BEFORE_LETTER, names_year
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.eventrow import ALWAYS, COLUMNS, HEADINGS
from nomarium.reading.layouts.layout import NotRead, Reading, Top
from nomarium.reading.layouts.linesfound import Found, told_of
from nomarium.reading.layouts.undatedweeks import WeekdayLines
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.datewithin import date_within
from nomarium.sheets.sheet import SENT, Row, Sheet

_YEAR: Final = r"\b(?:19|20)\d\d\b"
_FIRST_YEAR, _LAST_YEAR = 1900, 2200
"""Years within which a letter is dated."""


def as_list(
    top: Top, sheet: Sheet, found: Found, lexicon: Lexicon, weekly: WeekdayLines | None
) -> Reading | NotRead:
    """What lines came to, read as the rows of a list."""
    made = sheet._replace(
        read_rows=partial(_rows, found.rows), said_above=tuple(found.above), unit="line", read_lines=None
    )
    columns = {**COLUMNS, **top.options.columns}
    ours = weekly.options._replace(tells_repeats=False) if weekly is not None else top.options
    ours = ours._replace(header_row=None, columns=columns, recipe_name="")  # no recipe named these
    options, told = _in_years(ours, found, lexicon)
    reading = list_in(
        Top(made, options, top.is_whole or weekly is not None),
        made,
        lexicon if lexicon.languages != top.lexicon.languages else top.seen,
    )
    if isinstance(reading, NotRead):
        return reading
    if weekly is not None:
        told = [*weekly.notes, *told]
        reading = reading._replace(
            is_weekly=True, closed=weekly.closed, problems=(*weekly.problems, *reading.problems)
        )
    return reading._replace(
        table=_as_said(reading.table, top.options), layout="text", events=partial(_events, reading, found), notes=(*told_of(found, reading), *told, *reading.notes)
    )  # fmt: skip


def _as_said(table: TableReading | None, options: ReadingOptions) -> TableReading | None:
    """A table made of lines, whose columns were asked for by what the lines say, and not by a person."""
    if table is None:
        return None
    columns = (
        c._replace(how="heading", evidence="heading")
        if c.how == "asked" and c.heading not in options.columns
        else c
        for c in table.columns
    )
    return table._replace(columns=tuple(columns), options=table.options._replace(columns=options.columns))


def _in_years(
    options: ReadingOptions, found: Found, lexicon: Lexicon
) -> tuple[ReadingOptions, list[Problem]]:
    """The options with the year after the date that a letter or a newsletter bears, where no event has a year and no line
    above them names one; and a note that says so."""
    has_year = any(re.search(_YEAR, str(cells[0])) for _, cells in found.rows)
    if has_year or options.school_year is not None:
        return options, []
    is_said = any(number != SENT and names_year(text) for number, text in found.above)
    for number, text in found.above:
        if number == SENT and is_said:
            continue  # Term dates 2026–27, in a message of February
        within = date_within(f"{text} ·", lexicon)
        day = within.moment.first if within is not None and within.moment.last is None else None
        dates = [one.date() for one in day.readings if one.year is not None] if day is not None else []
        if len(dates) != 1 or dates[0] is None or not _FIRST_YEAR < dates[0].year < _LAST_YEAR:
            continue
        window = dates[0] - BEFORE_LETTER, dates[0] + AFTER_LETTER
        message = f"Days without a year are set between {window[0]} and {window[1]}, by {'the head of the message' if number == SENT else f'line {number}'}: “{text.strip()[:60]}”."
        return options._replace(school_year=window), [
            note("text-year", message, "If not: --school-year 2026:2027.")
        ]
    return options, []


def _rows(rows: Sequence[Row]) -> Iterator[Row]:
    width = max(
        (n + 1 for _, cells in rows for n in range(ALWAYS, len(HEADINGS)) if cells[n]), default=ALWAYS
    )
    yield 0, HEADINGS[:width]
    for number, cells in rows:
        yield number, cells[:width]


def _events(reading: Reading, found: Found, account: Account) -> Iterator[Event]:
    yield from reading.events(account)
    account.ledger.read += found.notes + len(found.refused)
    account.ledger.notes += found.notes
    account.ledger.rejected += len(found.refused)
    account.problems += [
        why.problem(reading.sheet.place(number), text) for number, text, why in found.refused
    ]
