"""What a table's date columns settle together: the order of figures, the language, the years.

One cell often cannot say whether 05/04 is April or May; the table can. Every cell's readings are
gathered; what contradicts a weekday, the calendar, the school year or the row's other date is out,
and what remains decides, or is refused with the option that settles it.
"""

import datetime as dt
import re
from collections.abc import Iterable, Sequence
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day, DayReading
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.decisions import ORDER_NAMES, Decisions, open_order
from nomarium.reading.columns.fitting import IN_SCHOOL_YEAR, left_readings, runs_forward
from nomarium.reading.columns.gathered import Gathered
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.columns.midnights import midnight_columns
from nomarium.reading.columns.shortyears import months_or_days
from nomarium.reading.options import Order, ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

if TYPE_CHECKING:
    from nomarium.reading.columns.yearsabove import YearAbove

_SEVERAL = r"\d\D*(?:[,;&+\n]|\band\b)\D*\d"
"""What may be several days."""
ENOUGH_ROWS = 2_000
"""Rows after which evidence that nothing later could overturn is enough (a later contradiction is
noticed when its row is read, and then the whole table is gathered)."""


class Witness(NamedTuple):
    """A cell that only one order of figures fits."""

    row: int
    text: str
    reason: str


def decide(
    sheet: Sheet, columns: Sequence[Column], rows: Iterable[Row], options: ReadingOptions,
    lexicon: Lexicon, whole: bool = False, above: "YearAbove | None" = None,
) -> Decisions:  # fmt: skip
    """Gather what the date columns hold and settle it. `rows` are the table's rows of data, `above` the year that
    stands over it."""
    gathered = Gathered(sheet, columns, lexicon, whole)
    gathered.above = above
    count = 0
    for count, (number, row) in enumerate(rows, 1):
        gathered.add(number, row)
        if count % ENOUGH_ROWS == 0 and not whole:
            decisions, lacks_years = _decisions(gathered, options, is_whole=False)
            if _is_settled(decisions, gathered, lacks_years):
                return decisions
    return _decisions(gathered, options, is_whole=True)[0]


def _is_settled(decisions: Decisions, gathered: Gathered, lacks_years: bool) -> bool:
    """Whether no later row could change what the rows so far decide, short of contradicting it."""
    return not (
        decisions.order_refusal
        or decisions.problems
        or decisions.date_only_columns
        or decisions.moment_columns
        or gathered.twins
        or lacks_years
    )


def _decisions(gathered: Gathered, options: ReadingOptions, is_whole: bool) -> tuple[Decisions, bool]:
    """What the rows gathered so far decide, and whether some of their dates have no year."""
    language = None
    if not options.languages:
        unread = gathered.unread_texts()
        if unread:
            from nomarium.reading.cells.languages import find_language

            language = find_language(unread, _around(gathered))
        if language is not None:
            gathered.lexicon = language.lexicon
    problems = [gathered.twin_problem] if gathered.twin_problem else []
    if language is not None and language.rivals:
        message = (
            f"The names of months or weekdays could be {' or '.join(language.rivals)}, and mean others then."
        )
        remedy = f"Say which with --language, such as --language {language.code}."
        problems.append(Problem("language-ambiguous", message, remedy, gathered.sheet.place()))
    problems += months_or_days(gathered.sheet, gathered.columns, gathered.first_rows)
    if gathered.weekday_column is None and gathered.sheet.name:  # a text file has no dates of its own
        from nomarium.reading.columns.swapped import swapped_dates

        problems += swapped_dates(gathered.sheet, gathered.columns, gathered.first_rows, options.swapped)
    tally = _Tally(gathered, options)
    order, evidence, refusal = tally.settle_order()
    window, window_evidence = tally.window(order)
    date_only, moment_columns = midnight_columns(gathered.columns, gathered.moments(), gathered.plain_days)
    decisions = Decisions(
        gathered.lexicon, order, evidence, refusal, language, window, window_evidence,
        not options.school_year, date_only, moment_columns, is_whole, tuple(problems),
        is_above=tally.is_above, is_swapped=options.swapped == "yes", has_unread=bool(gathered.unread_texts()),
    )  # fmt: skip
    return decisions, tally.lacks_years


_LOOKED_AT = 60
"""Rows around dates."""


def _around(gathered: Gathered) -> list[str]:
    """What stands around dates, by which languages are told apart that share short names of weekdays."""
    headings = [column.heading for column in gathered.columns]
    rows = islice(gathered.first_rows, _LOOKED_AT)
    return headings + [cell for row in rows for cell in row if isinstance(cell, str)]


_OF_OTHER_DAYS = frozenset(("end-date", "milestone"))
"""Dates of which the weekday of the row is not."""


class _Tally:
    """What each distinct row says for and against each order of figures."""

    def __init__(self, gathered: Gathered, options: ReadingOptions) -> None:
        self.gathered = gathered
        self.options = options
        self.witnesses: dict[Order, Witness] = {}
        self.open_cell: tuple[int, str, Column, Day] | None = None
        self.lacks_years = self.is_above = False
        self.months_listed: list[list[int]] = []
        """The months of the days of each cell that lists several."""
        self.days_listed: list[Day] = []
        self.short_years: dict[Order, set[int]] = {"dmy": set(), "ymd": set()}
        for number, cells, moments, weekday in gathered.moments():
            self._hear(number, cells, moments, weekday)

    def _hear(
        self,
        number: int,
        cells: Sequence[Cell],
        moments: Sequence[Moment | None],
        weekday: int | None,
    ) -> None:
        for moment, column, cell in zip(moments, self.gathered.columns, cells, strict=False):
            if moment is None and cell and isinstance(cell, str) and re.search(_SEVERAL, cell):
                self._hear_several(number, cell, column)
        if not any(moments):
            return
        days = [
            (m.first, m.last, c, t)
            for m, c, t in zip(moments, self.gathered.columns, cells, strict=False)
            if m and m.first
        ]
        for day, last, column, cell in days:
            self.lacks_years |= day.readings[0].year is None
            beside = weekday if column.field not in _OF_OTHER_DAYS else None
            check = day.weekday if day.weekday is not None else beside
            fitting, reason = left_readings(day, check, self._years_of(day, check), last)
            if any(one.order == "ymd" for one in day.readings):  # the first figures may be a year
                for one in day.readings:
                    if one.order in self.short_years and one.year:
                        self.short_years[one.order].add(one.year)
            self._weigh(number, cell_text(cell), column, day, fitting, reason)
        for moment, column, cell in zip(moments, self.gathered.columns, cells, strict=False):
            if moment and moment.first and moment.last:
                self._weigh_pair(number, cell_text(cell), moment.first, moment.last)
            if moment and moment.last and column:
                self.lacks_years |= moment.last.readings[0].year is None
        starts = [day for day, _, column, _ in days if column.field in ("date", "start", "when")]
        ends = [(day, cell) for day, _, column, cell in days if column.field in ("end-date", "end")]
        if starts and ends:
            self._weigh_pair(number, cell_text(ends[0][1]), starts[0], ends[0][0])

    def _years_of(self, day: Day, weekday: int | None) -> tuple[dt.date, dt.date] | None:
        """The school year; for a day that has a weekday and no year, the one that stands above the table: `Mon 10/5` in 2026."""
        above = self.gathered.above
        if self.options.school_year or above is None or weekday is None or day.readings[0].year is not None:
            return self.options.school_year
        return (
            above.window([])
            if above.is_school_year
            else (dt.date(above.first, 1, 1), dt.date(above.first, 12, 31))
        )

    def _hear_several(self, number: int, text: str, column: Column) -> None:
        """What each day of a cell says that holds several, `30/11, 14/12`."""
        from nomarium.reading.cells.repeats import read_day_list

        listed = read_day_list(text, self.gathered.lexicon)
        if isinstance(listed, Refusal):
            return
        self.months_listed.append([days.first.readings[0].month for days in listed])
        self.days_listed += [days.first for days in listed]
        for days in listed:
            self.lacks_years |= days.first.readings[0].year is None
            fitting, reason = left_readings(days.first, days.first.weekday, self.options.school_year)
            self._weigh(number, text, column, days.first, fitting, reason)

    def _weigh(
        self,
        number: int,
        text: str,
        column: Column,
        day: Day,
        fitting: tuple[DayReading, ...],
        reason: str,
    ) -> None:
        # two figures first are a year only where nothing else fits
        likely = [one for one in fitting if one.order != "ymd"] or list(fitting)
        if not likely or likely[0].order == "":
            return
        if len(likely) > 1 and len({(one.year, one.month, one.day) for one in likely}) == 1:
            return  # 5/5: the same day either way
        if len(likely) == 1:
            order = likely[0].order
            said = self.witnesses.get(order)
            if said is None or (said.reason == IN_SCHOOL_YEAR and reason != IN_SCHOOL_YEAR):
                self.witnesses[order] = Witness(number, text, reason)
        elif self.open_cell is None:
            self.open_cell = (number, text, column, day)

    def _weigh_pair(self, number: int, text: str, first: Day, last: Day) -> None:
        """A range must not run backwards: an order in which it does is out for its row."""
        either: tuple[Order, ...] = ("dmy", "mdy")
        forward = [order for order in either if runs_forward(first, last, order)]
        needs_order = any(one.order for one in (*first.readings, *last.readings))
        if needs_order and len(forward) == 1:
            reason = "the other order would end before it starts"
            self.witnesses.setdefault(forward[0], Witness(number, text, reason))

    def settle_order(self) -> tuple[Order, str, Refusal | None]:
        """The order of figures, the evidence for it, or why there is none."""
        asked = self.options.date_order
        if asked:
            return asked, "as asked", None
        for column in self.gathered.columns:
            unit = unit_of(column.heading).date_order
            if unit:
                return unit, f"{ORDER_NAMES[unit]}: the heading “{column.heading}” says so", None
        sure = {order: one for order, one in self.witnesses.items() if one.reason != IN_SCHOOL_YEAR}
        if len(sure) == 1:
            self.witnesses = sure  # some dates are of another year
        if len(self.witnesses) > 1:
            (a, first), (b, second) = list(self.witnesses.items())[:2]
            message = (
                f"The dates contradict each other: row {first.row} “{first.text}” is {ORDER_NAMES[a]} "
                f"({first.reason}), row {second.row} “{second.text}” is {ORDER_NAMES[b]} ({second.reason})."
            )
            remedy = (
                "Correct one of them, or say which order holds with --date-order dmy or --date-order mdy."
            )
            return "", "", Refusal("date-orders-differ", message, remedy)
        if self.witnesses:
            order, witness = next(iter(self.witnesses.items()))
            if (
                order == "dmy"
                and _spread(self.short_years["dmy"]) > 5
                and _spread(self.short_years["ymd"]) <= 2
            ):
                message = f"Row {witness.row} “{witness.text}” could begin with its year or with its day."
                return (
                    "",
                    "",
                    Refusal("date-ambiguous", message, "Say which with --date-order ymd or dmy."),
                )
            evidence = f"{ORDER_NAMES[order]}: row {witness.row} is “{witness.text}” ({witness.reason})"
            return order, evidence, None
        if self.open_cell is not None:
            _, text, _, day = self.open_cell
            return "", "", open_order(text, day.readings)
        return "", "", None

    def window(self, order: Order) -> tuple[tuple[dt.date, dt.date] | None, str]:
        """Where days without a year fall: the school year, else near the dates that have one."""
        if self.options.school_year:
            first, last = self.options.school_year
            return (first, last), f"the school year {first} to {last}"
        if not self.lacks_years:
            return None, ""
        known = [day for days in self.gathered.plain_days.values() for day in days]
        heard = [
            day
            for _, _, moments, _ in self.gathered.moments()
            for m in moments
            if m
            for day in (m.first, m.last)
        ]
        known += [
            date
            for day in (*heard, *self.days_listed)
            for one in (day.readings if day else ())
            if one.year and one.order in ("", order) and (date := one.date())
        ]
        above = self.gathered.above
        if not known or (above is not None and above.is_school_year and _are_within(known, above)):
            return self._window_above(order)
        return (min(known), max(known)), f"the dates with a year ({min(known)} to {max(known)})"

    def _window_above(self, order: Order) -> tuple[tuple[dt.date, dt.date] | None, str]:
        """The window that the year above the table makes of its days."""
        above = self.gathered.above
        if above is None:
            return None, ""
        months = [
            one.month
            for _, _, moments, _ in self.gathered.moments()
            for moment in moments
            for day in ((moment.first, moment.last) if moment else ())
            for one in (day.readings if day else ())
            if one.order in ("", order)
        ]
        lists = self.months_listed
        windows = {above.window(of_list) for of_list in (lists if lists and not months else [months, *lists])}
        window = windows.pop() if len(windows) == 1 else None
        self.is_above = window is not None
        return window, f"{window[0]} and {window[1]}, by {above.where}" if window else ""


def _are_within(days: Sequence[dt.date], above: "YearAbove") -> bool:
    """Whether days are those of the school year that stands over them: it says more than they do."""
    window = above.window(())
    return window is not None and all(window[0] <= day <= window[1] for day in days)


def _spread(years: set[int]) -> int:
    return max(years) - min(years) if years else 0
