"""Lines beside rows that repeat and say when nothing is held, `No classes 26-30 October`: these rows are not held then."""

import datetime as dt
from collections.abc import Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.offwords import line_is_off
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.linesaround import ABOUT_ALL, events_at_top, repeats
from nomarium.reading.rows.offlines import of_their_rows, ordinals_of, said_lines, told_closed

_YEAR: Final = dt.timedelta(days=365)


class ClosedDays(NamedTuple):
    """What such lines come to."""

    days: frozenset[int] = frozenset()
    """Their days, as ordinals."""
    notes: tuple[Problem, ...] = ()
    problems: tuple[Problem, ...] = ()


def closed_by_lines(table: TableReading, lines: Sequence[tuple[int, str]]) -> ClosedDays:
    """The days on which `lines`, the texts that stand alone beside a table, say that its repeating rows are not held."""
    about = [(number, text) for number, text in lines if _is_about_all(text)]
    if not about:
        return ClosedDays()
    days = [event.first_day for event in events_at_top(table)]
    if not days or not repeats(table):
        return ClosedDays()
    options = table.options._replace(
        school_year=None, repeats_from=min(days), repeats_until=max(days) + _YEAR
    )
    said = of_their_rows(table.sheet, said_lines(about, options))
    said = [one for one in said if one.off or one.is_unread]
    closed = ordinals_of((span.first, span.last) for one in said for span in one.off)
    problems = tuple(one.unread(table.sheet) for one in said if one.is_unread)
    return ClosedDays(closed, (told_closed(table.sheet, said),) if closed else (), problems)


def _is_about_all(text: str) -> bool:
    """Whether a line with a figure says when nothing is held, and not when one thing is."""
    if not any(map(str.isdigit, text)) or keeps_books(text) or often_in(text) is not None:
        return False
    return line_is_off(text) or ABOUT_ALL.match(text) is not None
