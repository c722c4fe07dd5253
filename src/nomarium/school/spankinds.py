"""Whether a sheet lists stretches of days, and of which kind: terms, days off, or both."""

import re
from collections.abc import Mapping
from pathlib import PurePath
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.offwords import OFF_WORDS, is_off, is_term
from nomarium.reading.cells.words import fold
from nomarium.school.datewords import looks_like_date, read_date
from nomarium.school.drawnlines import is_time
from nomarium.school.kind import Kind
from nomarium.school.look import Look, are_dates, share
from nomarium.sheets.sheet import cell_text

_HEAD_ROWS: Final = 40
_LONG_SPAN: Final = 21
"""Days from which a stretch is a term rather than a holiday."""


def spans_in(look: Look, hint: str) -> Kind | None:
    """A name and a date or two a row: terms, days off, or both in one table; `hint` is the table that the sheet's name hints at."""
    at, columns = max((look.head("terms"), look.head("daysoff")), key=lambda one: len(one[1]))
    shown: Mapping[str, int] = {}
    if at < 0 or not {"name", "first"} <= columns.keys() or not are_dates(look, at, columns["first"]):
        at, shown = _edges(look)
        if not shown:
            return None
        columns = {**shown}
    if any(share(look.cells(at, n), is_time) > 0.5 for n in range(look.width)):
        return None
    names = [cell_text(cell) for cell in look.cells(at, columns["name"])]
    if len(names) * 2 < len(look.cells(at, columns["first"])):
        return None  # a date a row, and now and then what is on
    are_terms = is_term(look.heading(at, columns["name"]))
    off = sum(map(is_off, names))
    terms = sum((are_terms or is_term(name)) and not is_off(name) for name in names)
    if shown and not (terms or off or hint in ("terms", "daysoff")):
        return None  # headings that say nothing, and names and a sheet that do not, either
    above = " ".join(cell_text(cell) for _, row in look.rows[: at + 1] for cell in row)
    said = re.sub(r"[_-]", " ", fold(f"{look.sheet.name} {PurePath(look.sheet.file).stem} {above}"))
    long = _long_spans(look, at, columns)
    if off and terms and off + terms == len(names) and long is not None:
        edges = {field: column for field, column in columns.items() if field in ("name", "first", "last")}
        return Kind("terms", "names of terms, and of holidays with them", edges, has_days_off=True)
    says_off = hint == "daysoff" or re.search(OFF_WORDS, said) is not None
    if off * 2 > len(names) or (says_off and not terms):
        other = "events" if off < len(names) and not says_off else ""
        return Kind("daysoff", "names of holidays with their dates", shown, other=other)
    if long is None or not names:
        return None
    if terms * 2 > len(names) or long == 1 or hint == "terms":
        is_doubtful = off > 0 or (long < 0.5 and hint != "terms" and not are_terms)
        return Kind("terms", "names of terms with their dates", shown, other="daysoff" if is_doubtful else "")
    return None


def _edges(look: Look) -> tuple[int, dict[str, int]]:
    """The index of the row above a name and two dates a row, whatever it is headed by, and their columns; none where the
    rows are no such."""
    for at, (_, row) in enumerate(look.rows[:_HEAD_ROWS]):
        dates = [n for n, cell in enumerate(row) if cell_text(cell) and looks_like_date(cell)]
        names = [n for n, cell in enumerate(row) if n not in dates and cell_text(cell)]
        if dates:
            is_one = at > 0 and len(dates) == 2 and len(names) > 0 and names[0] < dates[0]
            return (at - 1, {"name": names[0], "first": dates[0], "last": dates[1]}) if is_one else (-1, {})
    return -1, {}


def _long_spans(look: Look, at: int, columns: Mapping[str, int]) -> float | None:
    """The share of rows that span three weeks or more, from one cell or two; None where no row is a stretch of days."""
    edges = [columns[field] for field in ("first", "last") if field in columns]
    lengths = []
    for _, row in look.rows[at + 1 :]:
        days = [day for column in edges if column < len(row) for day in ordinals_about(row[column])]
        if len(days) > 1:
            lengths.append(days[-1] - days[0])
    return sum(length >= _LONG_SPAN for length in lengths) / len(lengths) if lengths else None


def ordinals_about(cell: Cell) -> list[int]:
    """About which days a cell of dates is, one or two: their order of figures may still be open, which moves them little
    against a term."""
    moment = read_date(cell)
    if not isinstance(moment, Moment):
        return []
    found = []
    for day in (moment.first, moment.last):
        readings = day.readings if day is not None else ()
        dates = [one.date(2001) if one.year is None else one.date() for one in readings]
        found += [one.toordinal() for one in dates if one is not None][-1:]
    return found
