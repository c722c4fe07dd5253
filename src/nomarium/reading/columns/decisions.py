"""How the dates of one table are read, once its columns have settled it; and each day by that."""

import datetime as dt
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.dates import Day, DayReading
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.options import Order
from nomarium.sheets.sheet import Sheet

if TYPE_CHECKING:
    from nomarium.reading.cells.languages import LanguageFound
    from nomarium.reading.columns.clocks import ClockFound

ORDER_NAMES = {"dmy": "day first", "mdy": "month first", "ymd": "year first"}


class Decisions(NamedTuple):
    """How the dates of one table are read."""

    lexicon: Lexicon
    order: Order = ""
    """"" when no cell needs one, or when none could be settled (`order_refusal` says why)."""
    order_evidence: str = ""
    order_refusal: Refusal | None = None
    language: "LanguageFound | None" = None
    window: tuple[dt.date, dt.date] | None = None
    """First and last date that a day without a year may be."""
    window_evidence: str = ""
    is_near: bool = False
    """Whether the window is only where other dates are: a day may lie beside it."""
    date_only_columns: frozenset[int] = frozenset()
    """Columns whose cells all end in 00:00: they are dates."""
    moment_columns: frozenset[int] = frozenset()
    """Workbook columns in which some date has a time: a bare date there is its midnight."""
    is_whole: bool = True
    """Whether every row was looked at."""
    problems: tuple[Problem, ...] = ()
    is_above: bool = False
    """Whether the window is the year that stands above the table."""
    has_unread: bool = False
    """Whether a text among the dates is none: it may say how something repeats."""
    is_swapped: bool = False
    """Whether days and months of a workbook's own dates are to be exchanged."""
    clock: "ClockFound | None" = None
    """By which clock times without am or pm are read; None where none are looked at together."""


_ORDER_REMEDY = "Say which with --date-order dmy (day first) or --date-order mdy (month first)."


def open_order(text: str, readings: tuple[DayReading, ...]) -> Refusal:
    """The refusal of a day whose order of figures nothing settles."""
    named = "It" if text == "It" else f"“{text}”"
    message = (
        f"{named} could be {_either(readings)}, and nothing in the table settles it "
        "(no day over 12, no weekday, no school year)."
    )
    return Refusal("date-ambiguous", message, _ORDER_REMEDY)


def _either(readings: tuple[DayReading, ...]) -> str:
    dates = [one for one in readings if one.order != "ymd"]
    names = []
    for one in dates:
        month = dt.date(2000, one.month, 1).strftime("%B")
        names.append(f"{one.day} {month}{f' {one.year}' if one.year else ''}")
    return " or ".join(names)


def resolve_day(day: Day, decisions: Decisions, weekday: int | None = None) -> dt.date | Refusal:
    """The date that a day is, by the table's decisions. `weekday` is what the row's weekday column says."""
    stated = day.weekday if day.weekday is not None else weekday
    readings = day.readings
    if readings[0].order:
        ordered = _in_order(readings, decisions)
        if isinstance(ordered, Refusal):
            return ordered
        readings = ordered
    one = readings[0]
    date = one.date() if one.year is not None else _with_year(one, decisions, stated)
    if isinstance(date, Refusal):
        return date
    if date is None:
        message = f"There is no {one.day}/{one.month} in {one.year}."
        return Refusal("date-impossible", message, "Check the day, the month and the year.")
    if (
        day.may_be_hour
        and decisions.window is not None
        and decisions.window_evidence
        and _is_far(date, decisions.window)
    ):
        message = f"{date} is years away from {decisions.window_evidence}: its last figures may be an hour."
        remedy = f"Write an hour with its colon, 10:00; or, if it is the year, the date like {date}."
        return Refusal("date-year", message, remedy)
    if stated is not None and date.weekday() != stated:
        message = f"{date} is a {WEEKDAYS[date.weekday()]}, not a {WEEKDAYS[stated]}."
        return Refusal("date-weekday", message, "Correct the date or the weekday.")
    return date


def _is_far(date: dt.date, window: tuple[dt.date, dt.date]) -> bool:
    """Whether a date is more than three years from a window."""
    return date.year < window[0].year - 3 or date.year > window[1].year + 3


def _in_order(readings: tuple[DayReading, ...], decisions: Decisions) -> tuple[DayReading, ...] | Refusal:
    found = tuple(one for one in readings if one.order == decisions.order)
    if found:
        return found
    likely = [one for one in readings if one.order != "ymd"] or list(readings)
    if len({(one.year, one.month, one.day) for one in likely}) == 1 and len(likely) > 1:
        return (likely[0],)  # the same day in either order
    if decisions.order_refusal:
        refusal = decisions.order_refusal
        return open_order("It", readings) if refusal.remedy == _ORDER_REMEDY else refusal
    if not decisions.order:
        return (likely[0],) if len(likely) == 1 else open_order("It", readings)
    name = ORDER_NAMES[decisions.order]
    message = f"It does not fit the order of the other dates, {decisions.order_evidence or name}."
    if decisions.order_evidence == "as asked":
        message = f"It is no date when read {name}, as --date-order asks."
    return Refusal("date-order-broken", message, "Correct the date, or write it with its month's name.")


def _with_year(one: DayReading, decisions: Decisions, weekday: int | None) -> dt.date | Refusal:
    name = f"{one.day} {dt.date(2000, one.month, 1):%B}"
    if decisions.window is None:
        message = f"{name} has no year."
        return Refusal("date-no-year", message, "Say which school year it is in: --school-year 2026:2027.")
    first, last = decisions.window
    years = range(max(first.year - 1, 1), min(last.year + 1, 9999) + 1)
    dates = [date for year in years if (date := one.date(year)) is not None]
    inside = [date for date in dates if first <= date <= last]
    if not inside and decisions.is_near:
        near = [d for d in dates if min(abs((d - first).days), abs((d - last).days)) < 183]
        inside = near if len(near) == 1 else []
    if len(inside) > 1 and weekday is not None:
        inside = [date for date in inside if date.weekday() == weekday]
    if len(inside) == 1:
        return inside[0]
    why = "falls in more than one year of" if inside else "is not within"
    message = f"{name} has no year, and it {why} {decisions.window_evidence}."
    return Refusal("date-no-year", message, "Write the year, or give --school-year FIRST:LAST.")


def told(decisions: Decisions, sheet: Sheet) -> list[Problem]:
    """The decisions as notes for the person."""
    notes = []
    if decisions.order_evidence and decisions.order_evidence != "as asked":
        notes.append(note("date-order", f"Dates in figures are read {decisions.order_evidence}."))
    if decisions.language is not None and not decisions.language.rivals:
        notes.append(note("date-language", f"Dates have {decisions.language.evidence}."))
    for at in sorted(decisions.date_only_columns):
        message = "Every cell ends in 00:00, so the column is read as dates."
        notes.append(note("date-midnights", message).at(sheet.place(None, at)))
    if decisions.window and decisions.is_near:
        where = "between" if decisions.is_above else "near"
        notes.append(note("date-years", f"Days without a year are set {where} {decisions.window_evidence}."))
    return [one if one.place.column else one.at(sheet.place()) for one in notes]
