"""The day, or the days, that a day sheet is of: `--set date=`, the rows above it, or its name says so."""

import datetime as dt
import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.othermonths import with_months_of
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.decisions import resolve_day
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.layouts.headdates import decide_days
from nomarium.reading.layouts.layout import Top
from nomarium.reading.rows.sectiondate import date_of_title
from nomarium.reading.rows.titlerepeats import repeat_said
from nomarium.sheets.sheet import Row, cell_text

_NTH_DAY: Final = r"(?i)(?:day|jour|tag|d[ií]a|giorno|dag)\s?(?:\d{1,2}|one|two|three)"
_Text = tuple[str, int | None, Cell]
"""Where what may say the day stands, its row number, and its cell."""


def day_said(top: Top, above: Sequence[Row], head: Row) -> tuple[dt.date | str, str] | Problem:
    """The day of the sheet, or the phrase by which it is held again and again, and what says so."""
    texts, lexicon = _saying_days(top, above, head), lexicon_for(top.options)
    return _said_again(top, texts, lexicon) or _one_day(top, texts, lexicon, above, head[0])


def names_section(text: str, lexicon: Lexicon) -> bool:
    """Whether a text that stands alone among the slots of a day sheet names the day of those below it: a date, a weekday, `Day 2`."""
    is_day = lexicon.weekday(fold(text).strip(" .:")) is not None or re.fullmatch(_NTH_DAY, text.strip(" :"))
    return bool(is_day) or bool(cell_text(date_of_title(text, lexicon)))


def day_of_section(top: Top, above: Sequence[Row]) -> tuple[dt.date, str] | Problem:
    """The day that a row among the slots names, the last of those above them, and what says so."""
    lexicon, (number, row) = lexicon_for(top.options), above[-1]
    text = next(filter(None, map(cell_text, row)))
    if not cell_text(date_of_title(text, lexicon)):
        message = "The row heads slots of a day, and says no date."
        return Problem(
            "day-unknown",
            message,
            "Write the date itself: “Sat 16 January 2027”.",
            top.sheet.place(number),
            text,
        )
    texts: list[_Text] = [(f"row {number}", number, cell) for cell in row if cell_text(cell)]
    return _one_day(top, texts, lexicon, above, number)


def _saying_days(top: Top, above: Sequence[Row], head: Row) -> list[_Text]:
    """What may say the day of a sheet."""
    if asked := top.options.defaults.get("date", ""):
        return [("--set date", None, asked)]
    at, titles = head
    texts: list[_Text] = [
        (f"row {n}", n, cell) for n, row in (*above, (at, titles[:1])) for cell in row if cell_text(cell)
    ]
    return [*texts, *([("the sheet's name", None, top.sheet.name)] if top.sheet.name else [])]


def _said_again(top: Top, texts: Sequence[_Text], lexicon: Lexicon) -> tuple[str, str] | Problem | None:
    """The phrase by which a sheet says that it is held again and again, and where it stands; None where it says one day."""
    for where, number, cell in texts:
        said = repeat_said(cell_text(cell), lexicon)
        if said is not None:
            return said.at(top.sheet.place(number)) if isinstance(said, Problem) else (said, where)
    return None


def _one_day(
    top: Top, texts: Sequence[_Text], lexicon: Lexicon, above: Sequence[Row], head: int
) -> tuple[dt.date, str] | Problem:
    """The day of the sheet, and what says so: `--set date=`, the rows above it, or the sheet's name."""
    for where, number, cell in texts:
        lexicon = with_months_of(cell_text(cell).split(), lexicon)
        said = date_of_title(cell, lexicon)
        moment = read_moment(said, "date", lexicon) if cell_text(said) else None
        if not isinstance(moment, Moment) or moment.first is None or moment.last is not None:
            continue
        settled = decide_days(top.sheet, [(number or head, said)], top.options, above=above)
        date = resolve_day(moment.first, settled)
        if isinstance(date, Refusal):
            return date.problem(top.sheet.place(number), cell_text(cell))
        called = lexicon.weekdays.get(fold(top.sheet.name).strip())
        if called is not None and called != date.weekday():
            message = f"{date} is a {WEEKDAYS[date.weekday()]}, and the sheet is called {top.sheet.name}."
            return Problem("date-weekday", message, "Give each sheet the date of its day.", top.sheet.place())
        return date, where
    message = (
        f"{top.sheet.title} has times on one side and places on the other, and nothing says of which day."
    )
    remedy = "Say which: --set date=2027-04-12."
    if fold(top.sheet.name).strip() in lexicon.weekdays:
        remedy = "It is called after a weekday: to hold it every week, --as timetable --from 2026-09-07 --until 2026-12-18."
    return Problem("day-unknown", message, remedy, top.sheet.place())
