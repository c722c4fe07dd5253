"""Calendars drawn with the label of each school day in its cell: months, weeks down and weekdays across, and the like."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Collection, Iterable
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import NotRead, read_sheet
from nomarium.school.datewords import looks_like_date
from nomarium.school.kind import Kind
from nomarium.school.monthlabels import MOST_LABELS
from nomarium.school.planheads import plain
from nomarium.school.plantables import cut_table
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LEAST_DAYS: Final = 6
_LONGEST_LABEL: Final = 12
_SHOWN: Final = 5
_HEAD_ROWS: Final = 12
_LEAST_WEEKDAYS: Final = 3
_WEEK: Final = r"(?i)(?:(?:week|wk)\s*)?[A-D]"


class LabelledDays(NamedTuple):
    """The dated labels that a drawn calendar holds."""

    sheet: Sheet
    """Date and label, a day a row, numbered as in the drawing."""
    notes: list[Problem]


def labelled_days(sheet: Sheet, options: ReadingOptions) -> LabelledDays | None:
    """The days of a drawn calendar whose cells hold few labels that come back; None for any other sheet."""
    if (in_weeks := _dates_in_weeks(sheet)) is not None:
        return LabelledDays(in_weeks, [])
    plain_options = ReadingOptions(
        date_order=options.date_order, school_year=options.school_year, languages=options.languages
    )
    reading = read_sheet(sheet, plain_options, whole=True)
    if isinstance(reading, NotRead) or reading.layout == "events" or reading.problems:
        return None
    account = Account(sheet.title)
    events = [event for event in reading.events(account) if not is_idle(event.summary)]
    labels = _labels(events)
    if account.problems or len(labels) < 2:
        return None
    days = [event for event in events if event.summary in labels]
    others = [event for event in events if event.summary not in labels]
    if len(days) < max(_LEAST_DAYS, len(others)) or len({event.start for event in days}) < len(days):
        return None
    rows: list[Row] = [(0, ["Date", "Label"])]
    rows += [(event.row_number, [event.start, event.summary]) for event in sorted(days, key=_first_day)]
    untold = [event for event in others if not is_off(event.summary)]
    notes = [_passed_over(untold, sheet)] if untold else []
    return LabelledDays(sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0), notes)


def with_labelled_days(
    sheet: Sheet, kind: Kind, options: ReadingOptions, notes: list[Problem]
) -> tuple[Sheet, Kind]:
    """A sheet that is nothing else, and on whose days labels stand, as a table Cycle."""
    is_open = kind.table == "" and kind.hint in ("", "cycle") and kind.why != "as asked"
    is_called = kind.table == "cycle" and kind.why == "its name"
    if is_called and not cut_table(sheet, "cycle", kind.columns, {})[0].columns:
        is_open, kind = True, kind._replace(hint="cycle")  # its name is right, and it is drawn
    days = labelled_days(sheet, options) if is_open else None
    if days is None:
        return sheet, kind
    notes += days.notes
    return days.sheet, Kind(
        "cycle", f"{'its name and ' if kind.hint else ''}the labels on the days of a calendar"
    )


def _dates_in_weeks(sheet: Sheet) -> Sheet | None:
    """A sheet whose rows name a week, `A`, and have the dates of its days under their weekdays, as a date a row; None for any other."""
    rows = [(number, row) for number, row in sheet.rows() if any(map(cell_text, row))]
    heads = ((at, weekday_columns(row, ENGLISH)) for at, (_, row) in enumerate(rows[:_HEAD_ROWS]))
    at, days = next(((at, found) for at, found in heads if len(found) >= _LEAST_WEEKDAYS), (0, {}))
    if not days or not min(days):
        return None
    found: list[Row] = [(0, ["Date", "Label"])]
    for number, row in rows[at + 1 :]:
        labels = [text for cell in row[: min(days)] if re.fullmatch(_WEEK, text := cell_text(cell))]
        dates = [row[n] for n in days if n < len(row) and cell_text(row[n])]
        if len(labels) != 1 or not all(looks_like_date(date) for date in dates):
            return None
        found += [(number, [date, labels[0]]) for date in dates]
    names = Counter(cell_text(row[1]) for _, row in found[1:])
    if len(found) <= _LEAST_DAYS or not 2 <= len(names) <= MOST_LABELS:
        return None
    return sheet._replace(read_rows=lambda: iter(found), merged=(), first_column=0)


def _first_day(event: Event) -> dt.date:
    return event.first_day


def _labels(events: Iterable[Event]) -> frozenset[str]:
    """The titles that come back on single days, if they are few and short."""
    counts = Counter(
        event.summary for event in events if event.is_all_day and event.first_day == event.last_day
    )
    short = {title: count for title, count in counts.items() if len(title) <= _LONGEST_LABEL}
    forms = {_form(title) for title, count in short.items() if count > 1}
    labels = frozenset(title for title in short if _form(title) in forms)
    return labels if len(labels) <= MOST_LABELS else frozenset()


def _form(title: str) -> str:
    """What labels of one cycle have in common: `Day 3` and `Day 10`, `A` and `C`."""
    return re.sub(r"\d+|\b[A-Z]\b", "#", title)


def _passed_over(others: Iterable[Event], sheet: Sheet) -> Problem:
    titles = list(dict.fromkeys(event.summary for event in others))
    more = f" and {len(titles) - _SHOWN} more" if len(titles) > _SHOWN else ""
    message = f"{counted(len(titles), 'entry is', 'entries are')} no label: {listed(titles[:_SHOWN])}{more}."
    remedy = "If there is no school then, list it in Days off."
    return note("cycle-others", message, remedy).at(sheet.place())


def dated_labels(sheet: Sheet, texts: Collection[str]) -> dict[str, int]:
    """The columns of a sheet with a date a row and beside it, in one column, labels of these and no weekdays."""
    if not texts or WeekdayCodes(texts, ENGLISH).are_days:
        return {}
    labels = {plain(part) for text in texts for part in re.split(r"[,;/&]", text)}
    dated = [row for _, row in islice(sheet.rows(), MOST_TABLE_ROWS) if any(map(looks_like_date, row))]
    named = [{n for n, cell in enumerate(row) if plain(cell_text(cell)) in labels} for row in dated]
    dates = [{n for n, cell in enumerate(row) if looks_like_date(cell) and cell_text(cell)} for row in dated]
    told = [(day, label) for day, label in zip(dates, named, strict=True) if label]
    if len(told) < 2 or len(told) * 2 < len(dated) or any(len(one) != 1 for one in dates):
        return {}  # a day off has no label
    day, label = told[0]
    is_same = all(one == label and other == day for other, one in told)
    return {"date": min(day), "label": min(label)} if is_same and len(label) == 1 and day != label else {}
