"""A column of titles that hold dates of their own: they are when something happens, beside dates of something else."""

import re
from collections.abc import Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.sheets.sheet import Sheet, cell_text

_MOST_LOOKED_AT: Final = 20
_LEAST: Final = 2
"""Titles with another date, from which on they are no slip."""
_DATED: Final = ("date", "when", "start", "milestone")


def dated_titles(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> list[Problem]:
    """A problem where half of the titles or more hold a day that is none of their rows' own, `Sat 16 Jan v Tern` beside other
    dates; a title may repeat the date of its row."""
    title = next((c for c in columns if c.field == "summary" and c.how != "asked"), None)
    dated = [c.at for c in columns if c.field in _DATED]
    if title is None or not dated:
        return []
    titled = [
        row for row in islice(rows, _MOST_LOOKED_AT) if title.at < len(row) and cell_text(row[title.at])
    ]
    if sum(any(map(str.isdigit, cell_text(row[title.at]))) for row in titled) * 2 < len(titled):
        return []
    others = [
        text
        for row in titled
        if (days := _days_within(text := cell_text(row[title.at]), lexicon))
        and days.isdisjoint(day for at in dated if at < len(row) for day in _days_of(row[at], lexicon))
    ]
    if len(others) < _LEAST or len(others) * 2 < len(titled):
        return []
    message = f"Titles under “{title.heading}” hold days that are not those of their rows: “{others[0]}”."
    remedy = (
        "Give each of these days a row of its own, with what is on; "
        f'to keep the titles as they are: --column "{title.heading}=summary".'
    )
    return [Problem("title-dated", message, remedy, sheet.place(None, title.at, title.heading))]


def _days_within(text: str, lexicon: Lexicon) -> set[tuple[int, int]]:
    """The month and the day of a date among the words of a text, where it names its month or has three figures; both where
    either figure may be the month."""
    has_name = any(fold(word) in lexicon.months for word in re.findall(r"[^\W\d_]{3,}", text))
    if not has_name and re.search(r"\d[./-]\d{1,2}[./-]\d{2}", text) is None:
        return set()
    from nomarium.reading.rows.datewithin import date_within  # few titles get so far

    found = date_within(f"{text} ·", lexicon)
    return _first_days(found.moment) if found is not None else set()


def _days_of(cell: Cell, lexicon: Lexicon) -> set[tuple[int, int]]:
    moment = read_moment(cell, "date", lexicon)
    return _first_days(moment) if isinstance(moment, Moment) else set()


def _first_days(moment: Moment) -> set[tuple[int, int]]:
    return {(day.month, day.day) for day in moment.first.readings} if moment.first is not None else set()
