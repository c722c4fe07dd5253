"""The week that a title over weekdays says, or what stands left of them: `Week of 5 October 2026`, `KW 41/2026`, `5.–9. Oktober 2026`."""

import datetime as dt
import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.othermonths import with_months_of
from nomarium.reading.cells.weeks import WEEK, WEEK_BEGINS, WEEK_LEADS, date_of_week_end, week_among_words
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.fitting import dates_within, left_readings
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.datewithin import date_within
from nomarium.sheets.sheet import cell_text

_WEEK_OF: Final = rf"(?i)(?:\s*(?:dates?|datum|from|starting|commencing|starts?|begins?|du|vom|ab)\b|.*?\b(?:{WEEK_BEGINS}|w ?[/.]? ?[cb]|{WEEK}(?: {WEEK_LEADS}| of| from)?)(?!\w))[\s:.–-]*(?P<date>.*\d.*)"
_FROM_THEN_ON: Final = r"(?i)\s*(?:from|starts|begins|ab)\b"
"""What leads to the first day of many weeks, and not of one."""
_NUMBER_OF_WEEK: Final = r"^\d{1,2}\s*[(:,–-]\s*(?=.*\d.*[ ./-])(.*?)\)?$"
"""The number of a week before its date: `Week 1 (7/12/26)`, `Week 1: 7 Dec`."""
_DAY: Final = dt.timedelta(days=1)
_LONGEST: Final = 6
"""Days from the first to the last of a week."""
_SUNDAY: Final = 6


def week_of(row: Sequence[Cell], weekday: int, lexicon: Lexicon, options: ReadingOptions) -> dt.date | None:
    """The date that a title, or what stands left of the weekdays, says a week begins on; figures are read so that it is the
    first of its weekdays."""
    heads = weekday_columns(row, lexicon)
    filled = (
        [cell for cell in row[: min(heads)] if cell_text(cell)]
        if len(heads) > 1
        else [cell for cell in row if cell_text(cell)]
    )
    if not 1 <= len(filled) <= 2 or (len(filled) == 2 and all(map(_says_a_week, filled))):
        return None  # two weeks beside one another are not the one of all rows below
    title = cell_text(filled[0]) if len(filled) == 1 else ""
    lexicon = with_months_of(cell_text(filled[0]).split(), lexicon)
    if (day := _of_number_or_end(title, weekday, lexicon)) is not None:
        return day
    said = re.fullmatch(_WEEK_OF, cell_text(filled[0]))
    cell = filled[-1] if said is None else re.sub(_NUMBER_OF_WEEK, r"\1", said["date"].strip())
    moment = read_moment(cell, "date", lexicon)
    if isinstance(moment, Refusal) and said is not None and re.fullmatch(_WEEK_OF, said["date"]) is not None:
        return week_of([said["date"]], weekday, lexicon, options)  # This week at Saltmarsh, w/c 8 March
    if isinstance(moment, Refusal) or moment.first is None:
        return _within_title(title, weekday, lexicon)
    text = cell_text(filled[0])
    if is_off(text) or (moment.last is None and re.match(_FROM_THEN_ON, text)):
        return None  # Half term w/c 15 February; from 8 February
    readings, _ = left_readings(moment.first, weekday, options.school_year)
    asked = [one for one in readings if one.order in ("", options.date_order)] or list(readings)
    days = {day for one in asked if (day := one.date()) is not None}
    if not days and options.school_year is not None:  # without a year: the one in which it begins a week
        within = (day for one in asked for day in dates_within(one, *options.school_year))
        days = {day for day in within if begins_week(day, weekday)}
    day = days.pop() if len(days) == 1 else None
    if day is None or not (begins_week(day, weekday) if said else day.weekday() == weekday):
        return None
    return day


def _says_a_week(cell: Cell) -> bool:
    """Whether a cell says a week by a date, or is one."""
    return looks_like_date(cell) or re.fullmatch(_WEEK_OF, cell_text(cell)) is not None


def _of_number_or_end(title: str, weekday: int, lexicon: Lexicon) -> dt.date | None:
    """The date of the first weekday in the week that a title names by its number in the year, or by its last day."""
    try:
        monday = week_among_words(title)
    except ValueError:
        return None
    if monday is not None and weekday != _SUNDAY:
        return monday + weekday * _DAY
    ended = date_of_week_end(title)
    moment = read_moment(ended, "date", lexicon) if ended else None
    last = _sure_day(moment) if isinstance(moment, Moment) and moment.last is None else None
    return None if last is None else last - (last.weekday() - weekday) % 7 * _DAY


def _within_title(title: str, weekday: int, lexicon: Lexicon) -> dt.date | None:
    """The first of the days of a week that a title has among its words, `Dienstplan vom 5.10.2026 bis 9.10.2026`."""
    within = date_within(title, lexicon) if title and not is_off(title) else None
    moment = within.moment if within is not None else None
    if moment is None or moment.first is None or moment.last is None:
        return None
    pairs = {
        (first, last)
        for one in moment.first.readings
        for other in moment.last.readings
        if one.order == other.order
        and one.year
        and other.year
        and (first := one.date())
        and (last := other.date())
    }
    weeks = {
        first for first, last in pairs if 0 < (last - first).days <= _LONGEST and first.weekday() == weekday
    }
    return weeks.pop() if len(weeks) == 1 else None


def _sure_day(moment: Moment) -> dt.date | None:
    days = {
        day for one in (moment.first.readings if moment.first else ()) if one.year and (day := one.date())
    }
    return days.pop() if len(days) == 1 else None


def begins_week(day: dt.date, first_weekday: int) -> bool:
    """Whether the columns of a week can count from a date: the first one's, or one of the two days before it."""
    return (first_weekday - day.weekday()) % 7 <= 2
