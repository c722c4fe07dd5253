"""What a table's date columns settle together: the order of figures, the language, the years.

One cell often cannot say whether 05/04 is April or May; the table can. Every cell's readings are
gathered; what contradicts a weekday, the calendar, the school year or the row's other date is out,
and what remains decides, or is refused with the option that settles it.
"""

import datetime as dt
import re
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING, NamedTuple, cast

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day, DayReading
from nomarium.reading.cells.moments import ROLES, Moment, plain_date, read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.decisions import ORDER_NAMES, Decisions, open_order
from nomarium.reading.columns.fitting import IN_SCHOOL_YEAR, left_readings, runs_forward
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.columns.midnights import Heard, midnight_columns
from nomarium.reading.options import Order, ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

if TYPE_CHECKING:
    from nomarium.reading.columns.yearsabove import YearAbove

_SEVERAL = r"\d[/.]\d{1,2}\.?(?:[/.]\d{2,4})?\s*(?:[,;&+]|and\b)\s*\d"
"""Days in figures of which there are several."""
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
    gathered = _Gathered(sheet, columns, lexicon, whole)
    gathered.above = above
    count = 0
    for count, (number, row) in enumerate(rows, 1):
        gathered.add(number, row)
        if count % ENOUGH_ROWS == 0 and not whole:
            decisions, lacks_years = _decisions(gathered, options, is_whole=False)
            if _is_settled(decisions, gathered, lacks_years):
                return decisions
    return _decisions(gathered, options, is_whole=True)[0]


class _Gathered:
    """The distinct contents of the date columns of a table, and where each was first seen."""

    def __init__(self, sheet: Sheet, columns: Sequence[Column], lexicon: Lexicon, whole: bool) -> None:
        self.sheet = sheet
        self.lexicon = lexicon
        dated = [c for c in columns if c.field in ROLES and (whole or c.has_days)]
        self.columns = [c for c in dated if c.field != "time"]
        in_weeks = any(unit_of(c.heading).week for c in self.columns)  # the weekday is another day's
        self.weekday_column = next((c for c in columns if c.field == "day" and not in_weeks), None)
        picked = [*self.columns, *([self.weekday_column] if self.weekday_column else [])]
        self.indices = [c.at for c in picked]
        self.last_index = max(self.indices, default=0)
        self.headings = {c.at: c.heading for c in columns}
        self.first_rows: dict[tuple[Cell, ...], int] = {}
        self.twins = [(c, c.twin_of) for c in columns if c.twin_of is not None]
        self.twin_problem: Problem | None = None
        self.plain_days: dict[int, set[dt.date]] = {}
        """By column: the dates about which nothing is open, of rows that have no others to be settled."""
        self.above: YearAbove | None = None
        self._heard: list[Heard] | None = None
        self._heard_in = lexicon
        self._heard_rows = 0

    def add(self, number: int, row: Sequence[Cell]) -> None:
        if len(row) > self.last_index:
            key = tuple([row[i] for i in self.indices])
        else:
            key = tuple([row[i] if i < len(row) else "" for i in self.indices])
        self.first_rows.setdefault(key, number)
        for column, other in self.twins:
            if self.twin_problem is None:
                self._compare_twins(number, row, column, other or 0)

    def _compare_twins(self, number: int, row: Sequence[Cell], column: Column, other: int) -> None:
        a, b = (cell_text(row[i]) if i < len(row) else "" for i in (other, column.at))
        if a and b and a != b and not self._same_moment(row[other], row[column.at], column.field):
            first, second = (self._called(i) for i in (other, column.at))
            message = f"Both {first} and {second} look like the {column.field}, and they differ: in row {number}, “{a}” and “{b}”."
            names = [self.headings[other] or first, column.heading or second]
            remedy = " or ".join(f'--column "{name}={column.field}"' for name in names)
            remedy = f"Say which one it is: {remedy}."
            if self.headings[other] == column.heading and column.field == "summary":
                message = f"Row {number} names two events, “{a}” and “{b}”: both columns are headed “{column.heading}”."
                remedy = "Give each event a row of its own, with its date."
            elif self.headings[other] == column.heading:
                letter = column_letter(column.at + self.sheet.first_column)
                remedy = f'Leave one out, such as the second with --column "{letter}=".'
            place = self.sheet.place(number, column.at, column.heading)
            self.twin_problem = Problem("columns-rival", message, remedy, place, b)

    def _same_moment(self, a: Cell, b: Cell, field_name: str) -> bool:
        if field_name not in ROLES:
            return cell_text(a).casefold() == cell_text(b).casefold()
        readings = []
        for cell in (a, b):
            moment = read_moment(cell, ROLES[field_name], self.lexicon, self.sheet.counts_1904)
            if isinstance(moment, Refusal) or moment.first is None:
                return False
            readings.append({one.date() for one in moment.first.readings if one.year})
        return bool(readings[0] & readings[1])

    def _called(self, index: int) -> str:
        heading = self.headings[index]
        return f"“{heading}”" if heading else f"column {column_letter(index + self.sheet.first_column)}"

    def moments(self) -> Sequence[Heard]:
        """Each distinct row of cells, but for rows of `plain_days`, read in the language found so far."""
        if (
            self._heard is None
            or self._heard_in is not self.lexicon
            or self._heard_rows != len(self.first_rows)
        ):
            self._heard = list(self._listen())
            self._heard_in, self._heard_rows = self.lexicon, len(self.first_rows)
        return self._heard

    def _listen(self) -> Iterable[Heard]:
        memo: dict[tuple[int, str, Cell], Moment | Refusal] = {}
        for cells, number in self.first_rows.items():
            if self.weekday_column is None and all(days := [plain_date(cell) for cell in cells]):
                for column, day in zip(self.columns, days, strict=True):
                    self.plain_days.setdefault(column.at, set()).add(cast("dt.date", day))
                continue
            moments: list[Moment | None] = []
            for column, cell in zip(self.columns, cells, strict=False):
                if not cell_text(cell):
                    moments.append(None)
                    continue
                key = (column.at, type(cell).__name__, cell)
                if key not in memo:
                    memo[key] = read_moment(cell, ROLES[column.field], self.lexicon, self.sheet.counts_1904)
                moment = memo[key]
                moments.append(None if isinstance(moment, Refusal) else moment)
            weekday = None
            if self.weekday_column is not None:
                weekday = self.lexicon.weekdays.get(fold(cell_text(cells[-1])).strip())
            yield number, cells, moments, weekday

    def unread_texts(self) -> list[str]:
        """Texts in date columns that hold words and cannot be read."""
        found: dict[str, None] = {}
        for _, cells, moments, _ in self.moments():
            for cell, moment in zip(cells, moments, strict=False):
                if (
                    moment is None
                    and isinstance(cell, str)
                    and any(map(str.isalpha, cell))
                    and len(cell) < 80
                ):
                    found.setdefault(cell)
                    if len(found) >= 300:
                        return list(found)
        return list(found)


def _is_settled(decisions: Decisions, gathered: _Gathered, lacks_years: bool) -> bool:
    """Whether no later row could change what the rows so far decide, short of contradicting it."""
    return not (
        decisions.order_refusal
        or decisions.problems
        or decisions.date_only_columns
        or decisions.moment_columns
        or gathered.twins
        or lacks_years
    )


def _decisions(gathered: _Gathered, options: ReadingOptions, is_whole: bool) -> tuple[Decisions, bool]:
    """What the rows gathered so far decide, and whether some of their dates have no year."""
    language = None
    if not options.languages:
        unread = gathered.unread_texts()
        if unread:
            from nomarium.reading.cells.languages import find_language

            language = find_language(unread)
        if language is not None:
            gathered.lexicon = language.lexicon
    problems = [gathered.twin_problem] if gathered.twin_problem else []
    if language is not None and language.rivals:
        message = (
            f"The names of months or weekdays could be {' or '.join(language.rivals)}, and mean others then."
        )
        remedy = f"Say which with --language, such as --language {language.code}."
        problems.append(Problem("language-ambiguous", message, remedy, gathered.sheet.place()))
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


class _Tally:
    """What each distinct row says for and against each order of figures."""

    def __init__(self, gathered: _Gathered, options: ReadingOptions) -> None:
        self.gathered = gathered
        self.options = options
        self.witnesses: dict[Order, Witness] = {}
        self.open_cell: tuple[int, str, Column, Day] | None = None
        self.lacks_years = self.is_above = False
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
        days = [
            (m.first, c, t)
            for m, c, t in zip(moments, self.gathered.columns, cells, strict=False)
            if m and m.first
        ]
        for day, column, cell in days:
            self.lacks_years |= day.readings[0].year is None
            check = (
                day.weekday if day.weekday is not None else weekday if column.field != "end-date" else None
            )
            fitting, reason = left_readings(day, check, self.options.school_year)
            if any(one.order == "ymd" for one in day.readings):  # the first figures may be a year
                for one in day.readings:
                    if one.order in self.short_years and one.year:
                        self.short_years[one.order].add(one.year)
            self._weigh(number, cell_text(cell), column, day, fitting, reason)
        for moment, column, cell in zip(moments, self.gathered.columns, cells, strict=False):
            if moment is None and isinstance(cell, str) and re.search(_SEVERAL, cell):
                self._hear_several(number, cell, column)
            if moment and moment.first and moment.last:
                self._weigh_pair(number, cell_text(cell), moment.first, moment.last)
            if moment and moment.last and column:
                self.lacks_years |= moment.last.readings[0].year is None
        starts = [day for day, column, _ in days if column.field in ("date", "start", "when")]
        ends = [(day, cell) for day, column, cell in days if column.field in ("end-date", "end")]
        if starts and ends:
            self._weigh_pair(number, cell_text(ends[0][1]), starts[0], ends[0][0])

    def _hear_several(self, number: int, text: str, column: Column) -> None:
        """What each day of a cell says that holds several, `30/11, 14/12`."""
        from nomarium.reading.cells.repeats import read_day_list

        listed = read_day_list(text, self.gathered.lexicon)
        for days in () if isinstance(listed, Refusal) else listed:
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
        for _, _, moments, _ in self.gathered.moments():
            for moment in moments:
                for day in (moment.first, moment.last) if moment else ():
                    known += [
                        date
                        for one in (day.readings if day else ())
                        if one.year and one.order in ("", order) and (date := one.date())
                    ]
        if not known:
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
        window = above.window(months)
        self.is_above = window is not None
        return window, f"{window[0]} and {window[1]}, by {above.where}" if window else ""


def _spread(years: set[int]) -> int:
    return max(years) - min(years) if years else 0
