"""The rows of the tables that make the year, with their dates settled."""

import datetime as dt
import re
from collections.abc import Iterable
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import meant
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.columns.decisions import Decisions, resolve_day, told
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.headdates import decide_spans
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.daysoff import DaysOff
from nomarium.school.codes import weekday_of
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.sheets.sheet import cell_text

_DATE_FIELDS = {"first": "last", "date": "", "off": "offlast"}
"""Fields of dates, each with that of the last day of a stretch that begins there."""


class Term(NamedTuple):
    name: str
    first: dt.date
    last: dt.date
    """Inclusive."""
    division: str
    item: Item


class DayOff(NamedTuple):
    name: str
    first: dt.date
    last: dt.date
    """Inclusive."""
    effect: str
    """hold, pass or nothing: what it does to the cycle."""
    division: str
    kind: str
    called: str
    """Where it was said, as messages name it: `Days off row 4`, `--public-holidays CA-NS`."""


class Special(NamedTuple):
    """A special day, or a stretch of them."""

    first: dt.date
    last: dt.date
    label: str
    """As written; `none` for a school day outside the cycle."""
    effect: str
    """follow, hold, pass or nothing."""
    bells: str
    division: str
    name: str
    item: Item

    @property
    def is_range(self) -> bool:
        return self.last > self.first


class CycleRow(NamedTuple):
    label: str
    name: str
    weekday: int | None
    week: str
    date: dt.date | None
    item: Item


class Dates:
    """Reads the date cells of a whole plan, which share one order of figures and one stretch of years."""

    def __init__(self, tables: Iterable[Table], options: ReadingOptions) -> None:
        self.problems: list[Problem] = []
        spans: list[tuple[int, Cell, Cell]] = []
        sheet = None
        for table in tables:
            for item in table.items:
                for field, ends in _DATE_FIELDS.items():
                    cell, last = item.cells.get(field, ""), item.cells.get(ends, "")
                    if cell_text(cell) or cell_text(last):
                        sheet = sheet or table.sheet
                        spans.append((item.number, cell, last))
        self.decisions: Decisions | None = decide_spans(sheet, spans, options) if sheet else None
        self.problems += self.decisions.problems if self.decisions else ()
        of_file = Place(sheet.file) if sheet is not None else Place()
        decided = told(self.decisions, sheet) if self.decisions is not None and sheet is not None else []
        self.notes = [note("plan-dates", one.message, one.remedy).at(of_file) for one in decided]

    def read(self, item: Item, field: str) -> dt.date | Problem | None:
        """The date of a cell, None when it is blank."""
        cell = item.cells.get(field, "")
        if not cell_text(cell):
            return None
        assert self.decisions is not None
        moment = read_moment(cell, "date", self.decisions.lexicon, item.table.sheet.counts_1904)
        if isinstance(moment, Refusal):
            return moment.problem(item.place(field), cell_text(cell))
        if moment.first is None:
            return item.problem(
                "date-unread", field, f"“{cell_text(cell)}” is not a date.", "Write it like 2027-04-12."
            )
        beside = weekday_of(item.text("weekday")) if field in ("first", "date") else None
        day = resolve_day(moment.first, self.decisions, beside)
        return day.problem(item.place(field), cell_text(cell)) if isinstance(day, Refusal) else day

    def range(
        self, item: Item, begins: str = "first", ends_on: str = "last"
    ) -> tuple[dt.date, dt.date] | Problem:
        """The first and last day of a row; a range in the first cell counts as both."""
        cell = item.cells.get(begins, "")
        first, last = self.read(item, begins), self.read(item, ends_on)
        for one in (first, last):
            if isinstance(one, Problem):
                return one
        if first is None:
            return item.problem(
                "date-missing", begins, "The row has no date.", "Give it one, or take the row out."
            )
        assert not isinstance(first, Problem)
        assert not isinstance(last, Problem)
        if last is None and self.decisions is not None:
            moment = read_moment(cell, "date", self.decisions.lexicon, item.table.sheet.counts_1904)
            if not isinstance(moment, Refusal) and moment.last is not None:
                ends = resolve_day(moment.last, self.decisions)
                last = None if isinstance(ends, Refusal) else ends
        last = last or first
        if last < first:
            field = ends_on if ends_on in item.cells else begins
            return item.problem(
                "end-before-start",
                field,
                f"It ends on {last}, before it starts on {first}.",
                "Correct one of them.",
            )
        return first, last


class YearRows(NamedTuple):
    """The tables of the year as data, and what is wrong with them."""

    terms: list[Term]
    days_off: list[DayOff]
    specials: list[Special]
    cycle: list[CycleRow]
    problems: list[Problem]
    notes: list[Problem]

    def has_school(self, date: dt.date) -> bool:
        """Whether a date is in a term, if there are any, and no day off of the whole school."""
        is_off = any(one.first <= date <= one.last for one in self.days_off if not one.division)
        return not is_off and (not self.terms or any(one.first <= date <= one.last for one in self.terms))


def read_year_rows(tables: dict[str, Table], dates: Dates) -> YearRows:
    """Read Terms, Days off, Special days and Cycle."""
    rows = YearRows([], [], [], [], [], [])
    for item in _items(tables, "terms"):
        days = dates.range(item)
        if not isinstance(days, Problem) and (last := _last_of_weeks(item, days[0])) is not None:
            days = days[0], last
            message = f"{item.text('weeks')} weeks from {days[0]} end on {last}."
            rows.notes.append(
                note("term-weeks", message, "If breaks are not among them, give the term its last day.").at(
                    item.place("weeks")
                )
            )
        if isinstance(days, Problem):
            rows.problems.append(days)
        elif not item.text("last") and days[0] == days[1]:
            rows.problems.append(
                item.problem("date-missing", "last", "The term has no last day.", "Give it one.")
            )
        else:
            rows.terms.append(Term(item.text("name") or "Term", *days, item.text("division"), item))
            _break_in(item, dates, rows)
    _overlaps(rows)
    _read_others(tables, dates, rows)
    return rows


def _last_of_weeks(item: Item, first: dt.date) -> dt.date | None:
    """The last day of a term that says so many weeks and no last day; None for any other."""
    weeks = re.fullmatch(r"(\d{1,2})(?:\s*(?:weeks?|wks?))?", item.text("weeks"))
    if weeks is None or item.text("last") or not int(weeks[1]):
        return None
    return first + dt.timedelta(7 * int(weeks[1]) - 1)


def _read_others(tables: dict[str, Table], dates: Dates, rows: YearRows) -> None:
    """Read Days off, Special days and Cycle."""
    for item in _items(tables, "daysoff"):
        days = dates.range(item)
        effect = _effect(item, ("hold", "pass"), rows.problems)
        if isinstance(days, Problem):
            rows.problems.append(days)
        elif effect is not None:
            name = item.text("name") or "Day off"
            rows.days_off.append(
                DayOff(name, *days, effect, item.text("division"), item.text("kind"), item.called)
            )
    for item in _items(tables, "specialdays"):
        days = dates.range(item)
        effect = _effect(item, ("follow", "hold", "pass"), rows.problems)
        if isinstance(days, Problem):
            rows.problems.append(days)
        elif effect is not None:
            rows.specials.append(
                Special(
                    *days,
                    item.text("label"),
                    effect,
                    item.text("bells"),
                    item.text("division"),
                    item.text("name"),
                    item,
                )
            )
    known: dict[dt.date | str, CycleRow] = {}
    for item in _items(tables, "cycle"):
        _cycle_row(item, dates, rows, known)


def _break_in(item: Item, dates: Dates, rows: YearRows) -> None:
    """Take the days off that stand beside a term, under `Half term`, say."""
    if not item.text("off"):
        return
    days = dates.range(item, "off", "offlast")
    if isinstance(days, Problem):
        rows.problems.append(days)
        return
    name = re.sub(
        r"(?i)\s*\b(?:starts?|begins?|from|first day|dates?)\b", "", item.table.headings["off"]
    ).strip()
    rows.days_off.append(DayOff(name, *days, "", item.text("division"), "", item.called))
    first, last = days
    told = note("days-off-added", f"“{name}” beside a term is days off, from {first} to {last}.")
    rows.notes.append(told.at(item.place("off")))


def close_on(rows: YearRows, days_off: DaysOff) -> list[Problem]:
    """Take days off that the person names beside the plan, within the dates of the year, into its rows. Gives the note
    that tells of them."""
    days = [day for term in rows.terms for day in (term.first, term.last)]
    days = days or [row.date for row in rows.cycle if row.date is not None]
    if not days:
        return []
    known = {
        row.first + dt.timedelta(days=n)
        for row in rows.days_off
        if not row.division
        for n in range((row.last - row.first).days + 1)
    }
    added = [
        DayOff(name, first, last, "", "", "", "given beside the plan")
        for name, first, last in days_off.stretches(min(days), max(days))
        if not known.issuperset(first + dt.timedelta(days=n) for n in range((last - first).days + 1))
    ]
    rows.days_off.extend(added)
    if not added:
        return []
    listed = ", ".join(f"{one.first} {one.name}" for one in added[:5])
    more = f" and {len(added) - 5:,} more" if len(added) > 5 else ""
    are = "is a day off" if len(added) == 1 else "are days off"
    message = f"{len(added):,} given beside the plan {are} for the whole school: {listed}{more}."
    return [note("days-off-added", message)]


def _items(tables: dict[str, Table], name: str) -> list[Item]:
    return tables[name].items if name in tables else []


def _effect(item: Item, words: tuple[str, ...], problems: list[Problem]) -> str | None:
    """What a row does to the cycle; None, with a problem told, when its word is unknown."""
    text = item.text("cycle")
    word = {plain(one): one for one in words}.get(plain(text), "" if not text else None)
    if word is None:
        remedy = meant(text, words, f"Write {' or '.join(words)}, or leave it blank.")
        problems.append(
            item.problem(
                "cycle-effect", "cycle", f"“{text}” is nothing that a day does to the cycle.", remedy
            )
        )
    return word


def _overlaps(rows: YearRows) -> None:
    """A problem for each term that begins before another one of its division has ended."""
    reaching: dict[str, Term] = {}
    for term in sorted(rows.terms, key=lambda one: (one.first, one.item.number)):
        before = reaching.get(plain(term.division))
        if before is not None and term.first <= before.last:
            other, later = sorted((before, term), key=lambda one: one.item.number)
            message = f"The term overlaps {other.name} ({other.item.called}), which runs to {other.last}."
            rows.problems.append(later.item.problem("terms-overlap", "first", message, "Correct the dates."))
        if before is None or term.last > before.last:
            reaching[plain(term.division)] = term


def _cycle_row(item: Item, dates: Dates, rows: YearRows, known: dict[dt.date | str, CycleRow]) -> None:
    """Take a row of the cycle; `known` has those before it by their date, else by their label."""
    label = item.text("label")
    date = dates.read(item, "date")
    if isinstance(date, Problem):
        rows.problems.append(date)
        return
    if date is not None and (is_idle(label) or is_off(label)):
        if is_off(label) and not any(
            one.first <= date <= one.last for one in rows.days_off if not one.division
        ):
            rows.days_off.append(DayOff(label, date, date, "", "", "", item.called))
        return
    if not label and date is not None:
        told = note("label-blank", "A date without a label has no classes.")
        rows.notes.append(told.at(item.place("label")))
        return
    if not label:
        rows.problems.append(
            item.problem("label-missing", "label", "The row has no label.", "Give it one, or take it out.")
        )
        return
    weekday = None
    if item.text("weekday"):
        weekday = weekday_of(item.text("weekday"))
        if weekday is None:
            message = f"“{item.text('weekday')}” is no weekday."
            rows.problems.append(
                item.problem("weekday-unknown", "weekday", message, "Write Monday, Mon, lundi …")
            )
            return
    if date is not None:
        twin = known.get(date)
        if twin is not None and plain(twin.label) == plain(label):
            rows.notes.append(
                note("row-repeated", f"{item.called} says the same as row {twin.item.number}.").at(
                    item.place()
                )
            )
            return
        if twin is not None:
            message = f"{date} has the label {twin.label} in row {twin.item.number} already."
            rows.problems.append(item.problem("label-twice", "label", message, "A date has one label."))
            return
    elif weekday is None:
        twin = known.get(plain(label))
        if twin is not None:
            message = f"The label {label} is in row {twin.item.number} already."
            rows.problems.append(item.problem("label-twice", "label", message, "List each label once."))
            return
    row = CycleRow(label, item.text("name"), weekday, item.text("week"), date, item)
    known.setdefault(date or plain(label), row)
    rows.cycle.append(row)
