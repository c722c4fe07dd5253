"""What lines above, below and among weekly rows say of the weeks in which these are held."""

import datetime as dt
from collections.abc import Mapping
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.offlines import gaps_between, lines_beside, ordinals_of, quoted, told_closed
from nomarium.reading.rows.oftenlines import often_lines
from nomarium.sheets.sheet import Sheet

_SOME_YEAR: Final = (dt.date(2026, 8, 1), dt.date(2027, 7, 31))
"""A school year, with which days without a year can be read."""


class WeeklyLines(NamedTuple):
    """The lines beside weekly rows, heard."""

    options: ReadingOptions
    """With the weeks that lines say, where nothing else does."""
    closed: frozenset[int]
    """Days (ordinals) on which nothing is held."""
    passed: Mapping[int, str]
    """The lines among the rows, which are none."""
    notes: tuple[Problem, ...]
    problems: tuple[Problem, ...]


def weekly_lines(sheet: Sheet, first_row: int, options: ReadingOptions) -> WeeklyLines:
    """What the lines of a sheet say whose rows begin with `first_row`."""
    lines = lines_beside(sheet, options)
    held = [span for line in lines for span in line.held]
    days = [day for span in held for day in (span.first, span.last) if isinstance(day, dt.date)]
    spans = [*((one.first, one.last) for line in lines for one in line.off), *gaps_between(held)]
    closed = ordinals_of(spans)
    notes = list[Problem]()
    if days and options.repeats_from is None and options.repeats_until is None:
        options = options._replace(repeats_from=min(days), repeats_until=max(days))
        message = f"The weeks are those that {quoted([line for line in lines if line.held])} says."
        notes.append(
            note("line-term", message, "If they are others: --from DATE --until DATE.").at(sheet.place())
        )
    if closed:
        notes.append(told_closed(sheet, [line for line in lines if line.off or len(line.held) > 1] or lines))
    options = options._replace(heard=frozenset(line.number for line in lines))
    passed = {line.number: line.text for line in lines if line.number >= first_row}
    problems = [line.unread(sheet) for line in lines if line.is_unread]
    knows_days_off = options.knows_days_off or bool(options.weeks_of or closed)
    problems += often_lines(sheet, {line.number for line in lines}, knows_days_off)
    return WeeklyLines(options, closed, passed, tuple(notes), tuple(problems))


def yearless_line(sheet: Sheet, options: ReadingOptions) -> str:
    """The line beside weekly rows that says in which weeks they are held, and not of which year; nothing where none does."""
    lines = lines_beside(sheet, options._replace(school_year=_SOME_YEAR))
    return next((line.text for line in lines if line.held), "")
