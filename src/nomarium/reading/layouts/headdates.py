"""Dates that head columns, or rows: whole ones, weeks, and numbers of days under a month."""

import datetime as dt
import re
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import MONTHS, WEEKDAYS
from nomarium.reading.cells.dates import DayReading
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.relativedays import are_calendar_weeks, day_of_programme
from nomarium.reading.cells.titlemonths import month_and_year
from nomarium.reading.cells.weeks import date_of_week, is_numbered_week
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import begins_week, looks_like_date
from nomarium.reading.columns.decisions import Decisions, resolve_day, told
from nomarium.reading.columns.evidence import decide
from nomarium.reading.columns.fitting import dates_within
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.columns.yearsabove import year_above
from nomarium.reading.layouts.layout import Top
from nomarium.reading.options import Order, ReadingOptions
from nomarium.reading.rows.datewithin import date_within
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, Sheet, cell_text

_NUMBER = r"(?:(?P<before>[^\W\d_]+)\.?,?\s*)?(?P<day>\d{1,2})(?:st|nd|rd|th|er|\.)?(?:,?\s*(?P<after>[^\W\d_]+)\.?)?"
_DAY = dt.timedelta(days=1)
_LEAST_NUMBERS = 3
"""Numbers that head fewer columns may number anything."""
_WORKDAYS = 5


class Days(NamedTuple):
    """The first and the last day of what a heading dates."""

    first: dt.date
    last: dt.date


class Headed(NamedTuple):
    """What dates the columns, or the rows, of a drawing."""

    days: Mapping[int, Days]
    """By column (0-based), or by row number."""
    problems: tuple[Problem, ...] = ()
    """Headings that cannot be settled; then `days` lacks them."""
    are_weeks: bool = False
    """Whether a heading names the week that begins on it."""
    notes: tuple[Problem, ...] = ()
    """What settled them."""


def week_text(cell: Cell) -> str:
    """The date of a text that names a week by it, `w/c 7 Sept`; nothing for any other."""
    return date_of_week(cell_text(cell)) if isinstance(cell, str) else ""


def heads_dates(cells: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether a cell of headings is a date or names a week by one."""
    return any(looks_like_date(cell, lexicon) or begins_week(cell, lexicon) for cell in cells)


def time_of_date(cell: Cell, lexicon: Lexicon) -> Part:
    """The time that stands with a date, `Sat 16 Jan 10am`; NOTHING for a date alone, or midnight as workbooks add it."""
    if isinstance(cell, dt.date) and not isinstance(cell, dt.datetime):
        return NOTHING
    moment = read_moment(cell, "date", lexicon)
    is_midnight = isinstance(cell, dt.datetime) and cell.time() == dt.time()
    if is_midnight or not isinstance(moment, Moment) or moment.first is None or moment.start is None:
        return NOTHING
    return Part(start=moment.start, end=moment.end)


def decide_days(
    sheet: Sheet, cells: Sequence[tuple[int, Cell]], options: ReadingOptions, weekday: str = "",
    above: Sequence[Row] = (),
) -> Decisions:  # fmt: skip
    """Settle the days of a drawing's headings together, as those of a column are. (row number, cell)

    `weekday` is the one that they all should fall on, where the drawing says so; `above` are the rows over it, which may
    name its year.
    """
    columns = [Column(0, "", "date"), Column(1, "", "day")]
    rows = [(number, [cell, weekday]) for number, cell in cells]
    title_rows = tuple(number for number, _ in above)
    year = year_above(sheet, TableHead((), title_rows[-1] + 1 if title_rows else 1, (), title_rows))
    return decide(sheet, columns if weekday else columns[:1], rows, options, lexicon_for(options), True, year)


def decide_spans(sheet: Sheet, spans: Sequence[tuple[int, Cell, Cell]], options: ReadingOptions) -> Decisions:
    """Settle first and last days together, of which none ends before it starts: (row number, first, last), the last blank for a day alone."""
    columns = [Column(0, "", "date"), Column(1, "", "end-date")]
    rows = [(number, [first, last]) for number, first, last in spans]
    year = year_above(sheet, TableHead((), 1, (), ()))
    return decide(sheet, columns, rows, options, lexicon_for(options), True, year)


def settled_dates(
    top: Top,
    cells: Sequence[tuple[int, int, Cell]],
    above: Sequence[Row],
    in_weeks: Literal["", "begins", "ends"] = "",
) -> Headed:
    """The days of headings that are dates, settled together: (key, row number, cell). `in_weeks`: each begins or
    ends its week, also where it is a plain date."""
    weeks = {key: text for key, _, cell in cells if (text := week_text(cell))}
    plain = [(key, number, weeks.get(key, cell)) for key, number, cell in cells]
    run = "" if top.options.date_order else _order_of_run([cell for _, _, cell in plain], top)
    options = top.options._replace(date_order=run) if run else top.options
    listed = [(number, cell) for _, number, cell in plain]
    decided = decide_days(top.sheet, listed, options, above=above)
    if run:
        named = "day first" if run == "dmy" else "month first"
        decided = decided._replace(order_evidence=f"{named}: only then are they whole weeks from a Monday on")
    days: dict[int, Days] = {}
    problems = [*decided.problems]
    for key, number, cell in plain:
        moment = read_moment(cell, "date", decided.lexicon, top.sheet.counts_1904)
        if isinstance(moment, Refusal) or moment.first is None:
            continue
        first = resolve_day(moment.first, decided)
        last = resolve_day(moment.last, decided) if moment.last is not None else first
        if isinstance(first, Refusal) or isinstance(last, Refusal):
            refusal = first if isinstance(first, Refusal) else last
            assert isinstance(refusal, Refusal)
            problems.append(refusal.problem(top.sheet.place(number), cell_text(cell)))
        else:
            if (in_weeks == "ends" or "week-ended" in moment.notes) and first == last:
                first = first - 6 * _DAY
            elif (key in weeks or in_weeks) and first == last:
                last = first + 6 * _DAY
            days[key] = Days(first, last)
    unlike = {
        (one.code, one.message if one.code != "date-no-year" else ""): one for one in reversed(problems)
    }
    notes = tuple(told(decided, top.sheet))
    return Headed(days, tuple(reversed(unlike.values())), bool(weeks) or bool(in_weeks), notes)


def _order_of_run(cells: Sequence[Cell], top: Top) -> Order:
    """The order of figures in which headings are the days of whole weeks from a Monday on, with their weekends or without;
    blank where they are in both or in neither. The same figures are one day of many months in the other order, and so a run
    that begins on another weekday shows nothing."""
    moments = [read_moment(cell, "date", top.lexicon, top.sheet.counts_1904) for cell in cells]
    days = [one.first.readings for one in moments if isinstance(one, Moment) and one.first is not None]
    if len(days) < max(_WORKDAYS, len(cells)) or all(len(readings) == 1 for readings in days):
        return ""
    orders: list[Order] = ["dmy", "mdy"]
    runs = [order for order in orders if _are_weeks(days, order, top.options.school_year)]
    return runs[0] if len(runs) == 1 else ""


def _are_weeks(
    days: Sequence[Sequence[DayReading]], order: Order, school_year: tuple[dt.date, dt.date] | None
) -> bool:
    found: list[dt.date] = []
    for readings in days:
        one = next((one for one in readings if one.order in ("", order)), None)
        within = list(dates_within(one, *school_year)) if one is not None and school_year is not None else []
        date = one.date() if one is not None and one.year is not None else None
        if date is None and len(within) != 1:
            return False
        found.append(date or within[0])
    steps = [(b - a).days for a, b in pairwise(found)]
    weekdays = [day.weekday() for day in found]
    for length in (_WORKDAYS, 7):
        whole = [n % length for n in range(len(found))]
        if len(found) % length == 0 and weekdays == whole and max(steps) <= 8 - length:
            return True
    return False


class Numbered(NamedTuple):
    """A heading that is the number of a day."""

    key: int
    row: int
    day: int
    weekday: int | None
    text: str


def numbered_days(
    cells: Sequence[tuple[int, int, Cell]], lexicon: Lexicon, weekdays: Mapping[int, int]
) -> list[Numbered]:
    """Headings that are numbers of days, with a weekday or without; none when some other heading stands among them.
    `weekdays` are those that stand beside the numbers, by key."""
    found = []
    for key, number, cell in cells:
        if isinstance(cell, bool) or (isinstance(cell, float) and not cell.is_integer()):
            return []
        match = re.fullmatch(_NUMBER, cell_text(cell))
        if match is None or not 1 <= int(match["day"]) <= 31:
            return []
        word = fold(match["before"] or match["after"] or "")
        if word and word not in lexicon.weekdays:
            return []
        weekday = lexicon.weekdays[word] if word else weekdays.get(key)
        found.append(Numbered(key, number, int(match["day"]), weekday, cell_text(cell)))
    return found if len(found) >= _LEAST_NUMBERS or all(one.weekday is not None for one in found) else []


def settled_numbers(
    top: Top, numbers: Sequence[Numbered], named_in: Sequence[Row], above: Sequence[Row]
) -> Headed:
    """The days of numbers in the month that the sheet's name or these rows name; `above` may hold its year."""
    texts = [top.sheet.name, *(cell_text(cell) for _, row in named_in for cell in row)]
    months = [named for text in texts if (named := month_in_title(text, top.lexicon))]
    months = months or _months_of_weeks(named_in, numbers[0], top.lexicon)
    if not months:
        message = "Numbers of days head its columns, and nothing says of which month."
        remedy = "Write the month above them, such as September 2026."
        problem = Problem("month-unnamed", message, remedy, top.sheet.place(numbers[0].row))
        return Headed({}, (problem,))
    year, month = months[-1]
    if year is None:
        return settled_dates(top, _with_month(numbers, month), above)
    return dated_numbers(top.sheet, numbers, (year, month))


def _months_of_weeks(rows: Sequence[Row], first: Numbered, lexicon: Lexicon) -> list[tuple[int | None, int]]:
    """The month of the date by which a cell names the week whose first day is a number, `w/c 07/09/2026` or `Rota from 07.09.26`
    beside 7."""
    texts = [text for _, row in rows for cell in row if (text := cell_text(cell))]
    moments = [read_moment(text, "date", lexicon) for cell in texts if (text := week_text(cell))]
    within = [one.moment for text in texts if (one := date_within(f"{text} ·", lexicon)) is not None]
    found = {
        (said.year, said.month)
        for moment in (*moments, *within)
        if isinstance(moment, Moment) and moment.first is not None
        for said in moment.first.readings
        if said.day == first.day and (first.weekday is None or _weekday_of(said) in (None, first.weekday))
    }
    return [*found] if len(found) == 1 else []


def _weekday_of(reading: DayReading) -> int | None:
    date = reading.date() if reading.year is not None else None
    return None if date is None else date.weekday()


def _with_month(numbers: Sequence[Numbered], month: int) -> list[tuple[int, int, Cell]]:
    """Numbers of days as dates without a year, which the school year or weekdays settle."""
    found: list[tuple[int, int, Cell]] = []
    before = 0
    for one in numbers:
        month = month % 12 + 1 if one.day < before else month
        before = one.day
        named = f"{one.day} {MONTHS[month - 1]}"
        found.append((one.key, one.row, named if one.weekday is None else f"{WEEKDAYS[one.weekday]} {named}"))
    return found


def dated_numbers(sheet: Sheet, numbers: Sequence[Numbered], month: tuple[int, int]) -> Headed:
    """Numbers of days that run on from a (year, month); one that is smaller than the last is in the next month."""
    year, at = month
    days: dict[int, Days] = {}
    problems = []
    before = 0
    for one in numbers:
        if one.day < before:
            year, at = (year + 1, 1) if at == 12 else (year, at + 1)
        before = one.day
        try:
            date = dt.date(year, at, one.day)
        except ValueError:
            message = f"{dt.date(year, at, 1):%B} {year} has no day {one.day}."
            problems.append(
                Problem("date-impossible", message, "Correct it.", sheet.place(one.row), one.text)
            )
            continue
        if one.weekday is not None and date.weekday() != one.weekday:
            message = f"{date} is a {WEEKDAYS[date.weekday()]}, not a {WEEKDAYS[one.weekday]}."
            remedy = "Correct the number, the weekday, or the month above."
            problems.append(Problem("date-weekday", message, remedy, sheet.place(one.row), one.text))
            continue
        days[one.key] = Days(date, date)
    return Headed(days, tuple(problems))


def month_in_title(text: str, lexicon: Lexicon) -> tuple[int | None, int] | None:
    """The one month that a title names, a day of it perhaps among its words (`Rota from 28 September 2026`)."""
    named = month_named(text, lexicon)
    if named is not None or len(text) >= 80:
        return named
    return month_named(re.sub(r"(?<!\d)\d{1,2}(?!\d)(?:st|nd|rd|th)?", " ", text), lexicon)


def month_named(text: str, lexicon: Lexicon = ENGLISH) -> tuple[int | None, int] | None:
    """The one month that a text names, with its year when it names one; None when it names none, or several.

    >>> month_named("Yard roster, Sept 2026"), month_named("October"), month_named("May be 5")
    ((2026, 9), (None, 10), None)
    """
    words = re.findall(r"[^\W\d_]+", text)
    months = {lexicon.months[word] for word in map(fold, words) if word in lexicon.months}
    years = re.findall(r"(?<!\d)(?:19|20|21)\d\d(?!\d)", text)
    rest = re.sub(r"(?<!\d)(?:19|20|21)\d\d(?!\d)", "", text)
    if not months and (said := month_and_year(text, lexicon)) is not None:
        return said
    if len(months) != 1 or len(set(years)) > 1 or len(words) > 8 or re.search(r"\d", rest):
        short = re.fullmatch(r"\s*[^\W\d_]+\.?[\s'’-]*(\d\d)\s*", text)
        return (2000 + int(short[1]), months.pop()) if short and len(months) == 1 else None
    return (int(years[0]) if years else None, months.pop())


def headed_by_weeks(
    top: Top, number: int, head: Sequence[Cell], weeks: Sequence[int], above: Sequence[Row]
) -> Headed:
    """The days of the weeks that head these columns: those from each date on, or counted from `--day-one`."""
    day_one = top.options.day_one
    if day_one is None or not all(is_numbered_week(cell_text(head[n])) for n in weeks):
        return settled_dates(top, [(n, number, head[n]) for n in weeks], above, "begins")
    of_year = are_calendar_weeks(day_one, cell_text(head[weeks[0]]))
    begun = {n: day_of_programme(day_one, cell_text(head[n]), "", top.lexicon, of_year) for n in weeks}
    return Headed({n: Days(day, day + 6 * _DAY) for n, day in begun.items() if isinstance(day, dt.date)})


def weekdays_beside(
    lexicon: Lexicon, rows: Sequence[Row], at: int, columns: Sequence[int]
) -> tuple[dict[int, int], int]:
    """The weekdays that stand in the row above or below headings, and whether it is the one below."""
    for step in (1, -1):
        row = rows[at + step][1] if 0 <= at + step < len(rows) else ()
        words = {n: fold(cell_text(row[n])).strip() for n in columns if n < len(row)}
        found = {n: lexicon.weekdays[word] for n, word in words.items() if word in lexicon.weekdays}
        is_someones = any(map(cell_text, row[: columns[0]])) and not _follow_each_other(list(found.values()))
        if len(found) >= len(columns) * 0.8 and not is_someones:
            return found, max(step, 0)
    return {}, 0


def _follow_each_other(weekdays: Sequence[int]) -> bool:
    """Whether most of these weekdays come the day after the one before, as they do over a run of dates: FR and SO may be
    classes."""
    steps = [(b - a) % 7 for a, b in pairwise(weekdays)]
    return steps.count(1) * 2 >= len(steps)
