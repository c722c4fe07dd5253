"""Calendars drawn with the label of each school day in its cell: months, weeks down and weekdays across, and the like."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Iterable
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import NotRead, read_sheet
from nomarium.sheets.sheet import Row, Sheet

MOST_LABELS: Final = 12
_LEAST_DAYS: Final = 6
_LONGEST_LABEL: Final = 12
_SHOWN: Final = 5


class LabelledDays(NamedTuple):
    """The dated labels that a drawn calendar holds."""

    sheet: Sheet
    """Date and label, a day a row, numbered as in the drawing."""
    notes: list[Problem]


def labelled_days(sheet: Sheet, options: ReadingOptions) -> LabelledDays | None:
    """The days of a drawn calendar whose cells hold few labels that come back; None for any other sheet."""
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
    notes = [_passed_over(others, sheet)] if others else []
    return LabelledDays(sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0), notes)


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
