"""Tables of weekdays, across or down: the date of their week stands above them, or is asked for."""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.layouts.drawn import after_remarks, date_part, entries_of_cell
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.weektitles import week_of
from nomarium.sheets.sheet import Row, Sheet, cell_text

_DAY = dt.timedelta(days=1)
_LEAST_IN_ORDER = 3
_DAY_AND_CELL = 2
_CLOCK = r"(?i)\d[:.]\d\d|\d\s?[ap]\.?m\b"


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list whose weekdays get the dates of the week that stands above them."""
    dated = dated_weekdays(top, top.of_both)
    if dated is not None:
        return _drawn_days(top, dated) or list_in(top, dated, top.seen)
    message = f"{top.sheet.title} has no weekdays that a week could date."
    return not_read(top.sheet, "no-weekdays", "it has no weekdays", "date-column-missing", message)


def _drawn_days(top: Top, dated: Sheet) -> Reading | None:
    """Days down and one column of what is on, with times in some cells, read cell by cell as what is drawn: `Assembly 8.45` over
    `Choir 3.30`. None for lists."""
    days: list[tuple[int, dt.date, int, str]] = []
    others: list[Row] = []
    for number, row in dated.rows():
        filled = [(n, cell) for n, cell in enumerate(row) if cell_text(cell)]
        first, said = filled[0][1] if filled else "", filled[-1][1] if filled else ""
        if len(filled) == _DAY_AND_CELL and isinstance(first, dt.date) and isinstance(said, str):
            days.append((number, first, filled[-1][0], said))
        elif len(filled) == 1:
            others.append((number, row))
        elif filled:
            return None
    is_one_column = len({column for _, _, column, _ in days}) == 1
    if not is_one_column or not any(re.search(_CLOCK, text) for *_, text in days):
        return None
    entries = [
        entry
        for number, date, column, text in days
        for entry in entries_of_cell(dated, number, column, text.strip(), date_part(date, date))
    ]
    told = note("layout-planner", "Read as a planner: days down, what is on beside each.").at(dated.place())
    events = partial(after_remarks, dated, entries, top.options, others)
    return Reading(dated, "planner", events, (*dated.notes, told))


def dated_weekdays(top: Top, lexicon: Lexicon) -> Sheet | None:
    """The sheet with dates for the weekdays that head its columns or begin its rows, counted from the last row
    above them that says which week it is, else from `--day-one`; None where nothing says it."""
    sheet, options = top.sheet, top.options
    if not has_weekdays(top, lexicon):
        return None
    first_weekday = next(day for _, row in sheet.rows() for day in _weekdays(row, lexicon).values())
    dated = [
        (number, day)
        for number, row in sheet.rows()
        if (day := week_of(row, first_weekday, lexicon, options)) is not None
    ]
    if not dated and options.day_one is None:
        return None

    headless = _headless_weeks(sheet, dict(dated), lexicon)
    below = _week_below(sheet, dict(dated), lexicon)
    if len(dated) > 1 and not headless and not _weekdays_from(sheet, dated[0][0], lexicon):
        return None  # weeks between the entries, and which is whose, nothing says: --day-one would make one week of all

    def rows() -> Iterator[Row]:
        begins, weeks = below or options.day_one, dict(dated)
        latest = dt.date.min
        first_head: Mapping[int, int] = {}
        for number, row in sheet.rows():
            if number in headless:  # the weekdays stand once, over all weeks
                head = headless[number]
                dates = dates_of_weekdays(_weekdays(head, lexicon), weeks[number])
                yield number, [dates.get(at, cell) for at, cell in enumerate(head)]
                continue
            if headless and row in headless.values():
                continue
            if number in weeks:
                begins, latest = weeks[number], dt.date.min
            if number in weeks and not _weekdays(row, lexicon):
                # one cell of words, whatever it held: nothing that could be taken for an entry
                yield number, [" ".join(text for cell in row if (text := cell_text(cell)))]
                continue
            weekdays = _weekdays(row, lexicon)
            if len(weekdays) > 1:
                first_head = first_head or weekdays
                weekdays = weekdays if _heads_again(weekdays, first_head) else {}
            dates = dates_of_weekdays(weekdays, begins) if begins is not None else {}
            if len(dates) == 1:
                day = next(iter(dates.values()))
                if day < latest:  # a Monday after a Friday: which week it is in, nothing says
                    dates = {}
                latest = max(latest, day)
            first = min(dates, default=0) if number in weeks else 0  # what said the week has done its work
            yield number, [dates.get(at, "" if at < first else cell) for at, cell in enumerate(row)]

    where = f"row {dated[0][0]}" if dated else "--day-one"
    first = dated[0][1] if dated else options.day_one
    message = f"The weekdays are dated from {first} on ({where})."
    told = note("weekdays-dated", message).at(sheet.place())
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, told), dates_above=True)


def _heads_again(weekdays: Mapping[int, int], first: Mapping[int, int]) -> bool:
    """Whether a row that names weekdays heads them as the first such row does, or in their order: FR and SO may be classes."""
    order = [weekdays[at] for at in sorted(weekdays)]
    return weekdays == first or (len(order) >= _LEAST_IN_ORDER and order == sorted(order))


def _headless_weeks(
    sheet: Sheet, weeks: Mapping[int, dt.date], lexicon: Lexicon
) -> dict[int, Sequence[Cell]]:
    """The rows that say a week where the weekdays of all weeks stand once, straight above the first: each with that row of
    weekdays."""
    head: Sequence[Cell] | None = None
    has_begun = False
    for number, row in sheet.rows():
        is_head = len(weekday_columns(row, lexicon)) > 1
        if is_head and head is not None:
            return {}
        if number in weeks and head is None:
            return {}
        has_begun = has_begun or number in weeks
        if head is not None and not has_begun and any(map(cell_text, row)):
            return {}  # entries that stand above every week
        if is_head:
            head = row
    return dict.fromkeys(weeks, head) if head is not None else {}


def _weekdays_from(sheet: Sheet, line: int, lexicon: Lexicon) -> bool:
    """Whether weekdays stand in a row or below it."""
    return any(_weekdays(row, lexicon) for number, row in sheet.rows() if number >= line)


def _week_below(sheet: Sheet, weeks: Mapping[int, dt.date], lexicon: Lexicon) -> dt.date | None:
    """The week of a whole table where one line says it, below all entries: `Week beginning 14 September` as a footnote."""
    if len(weeks) != 1:
        return None
    (line,) = weeks
    first = last = 0
    for number, row in sheet.rows():
        first = first or (number if _weekdays(row, lexicon) else 0)
        last = number if any(map(cell_text, row)) else last
    return weeks[line] if 0 < first < line == last else None


def has_weekdays(top: Top, lexicon: Lexicon) -> bool:
    """Whether weekdays head columns or begin rows, several of them."""
    return sum(len(_weekdays(row, lexicon)) for _, row in top.rows) > 1


def _weekdays(row: Sequence[Cell], lexicon: Lexicon) -> dict[int, int]:
    """The weekdays by column, 0 for Monday, of a row that is headed by them, or the one that begins a row."""
    found = weekday_columns(row, lexicon)
    if len(found) >= 2:
        return found
    at = next((at for at, cell in enumerate(row) if cell_text(cell)), 0)
    weekday = lexicon.weekdays.get(fold(cell_text(row[at])).strip()) if row else None
    return {} if weekday is None else {at: weekday}


def dates_of_weekdays(weekdays: dict[int, int], begins: dt.date) -> dict[int, dt.date]:
    """The date of each weekday in the seven days from a date on, by column."""
    return {at: begins + (weekday - begins.weekday()) % 7 * _DAY for at, weekday in weekdays.items()}
