"""A planner: weeks down, each with a date of its own, and weekdays across; what happens stands in the cells."""

import datetime as dt
import re
from collections.abc import Callable, Sequence
from functools import partial
from itertools import pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.relativedays import are_calendar_weeks, day_of_programme
from nomarium.reading.cells.weeks import date_of_week, heads_weeks
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.daycells import begins_week as week_begins
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.decisions import Decisions, resolve_day, told
from nomarium.reading.columns.headings import heads_times, match_exactly, normal
from nomarium.reading.columns.lexicons import weekday_columns
from nomarium.reading.layouts.drawn import (
    DrawnEntry,
    after_remarks,
    date_part,
    entries_of_cell,
    merged_from,
    padded_rows,
)
from nomarium.reading.layouts.headdates import decide_days
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.month import has_day_numbers
from nomarium.reading.layouts.narrowcells import in_whole_lines
from nomarium.reading.layouts.slippeddays import slipped_days
from nomarium.reading.layouts.slots import is_clear_time
from nomarium.reading.layouts.unusedcolumns import called_off_beside, unused_columns
from nomarium.reading.layouts.weekdays import dates_of_weekdays
from nomarium.reading.layouts.weekrosters import week_column
from nomarium.reading.layouts.weektitles import begins_week, week_of
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text

_WEEK_DAYS: Final = 7
_NUMBER_AND_DATE: Final = r"(?i)(?:week|wk\.?|w|woche|kw|semaine|sem\.?|semana)?\s*\d{1,2}\s*(?:\((?P<within>[^()]+)\)|:\s+(?P<behind>.+))"
"""The number of a week and its first day, `1 (7/9)` or `Week 1: 7 Sept`."""
_OTHER_COLUMNS: Final = 3
"""Most columns of a planner besides its weekdays: a week's number, its date, remarks."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a planner, or say why it is none."""
    sheet, options, lexicon = in_whole_lines(top.sheet), top.options, top.of_weekdays
    rows = padded_rows(sheet)
    heads = _heads(rows, lexicon)
    if not heads or week_column(rows, lexicon) is not None:
        return _no_planner(sheet)
    head, weekdays = heads[0]
    repeated = {at for at, _ in heads[1:]}
    weeks = [
        (number, _with_first_days(row, min(weekdays), lexicon))
        for at, (number, row) in enumerate(rows)
        if at > head and at not in repeated
    ]
    are_times = _are_times([text for _, row in weeks for at in weekdays if (text := cell_text(row[at]))])
    if are_times and _dated_columns(weeks, min(weekdays), lexicon) != 1:
        return _no_planner(sheet)  # when classes are, which other columns name
    if has_day_numbers(weeks):
        return _no_planner(sheet)  # a month, whose name is missing
    settled, said = list[Problem](), list[tuple[int, dt.date]]()
    begin_of: Callable[[Cell], dt.date | Refusal] = _in_no_week
    label, counted = _label_column(rows[head][1], weeks, min(weekdays), lexicon), "counted from its date"
    if label is not None:
        labels = [(number, row[label]) for number, row in weeks if cell_text(row[label])]
        days = decide_days(sheet, labels, options, WEEKDAYS[weekdays[min(weekdays)]], rows[:head])
        begin_of, settled = partial(_week_of, weekdays=weekdays, days=days), told(days, sheet)
    elif said := _weeks_said(rows, head, weekdays, lexicon, options):
        counted = f"all in that of {said[0][1]} (row {said[0][0]})" if len(said) == 1 else "as rows above say"
    elif options.day_one is not None:
        label = _number_column(weeks, min(weekdays))
        if label is not None and not _number_weeks(rows[head][1][label], [row[label] for _, row in weeks]):
            return _no_planner(sheet)  # names, posts or rooms, of a roster
        first = next((text for _, row in weeks if (text := cell_text(row[label or 0]))), "")
        headed = f"{cell_text(rows[head][1][label])} {first}" if label is not None else ""
        of_year = label is not None and any(
            are_calendar_weeks(options.day_one, one) for one in (first, headed)
        )
        begin_of = partial(_week_from, options.day_one, of_year)
        if label is not None and _are_days(cell_text(rows[head][1][label]), [row[label] for _, row in weeks]):
            begin_of = _day_without_month
        counted = _counted_from(options.day_one, label is not None, of_year)
    else:
        return _no_planner(sheet)
    entries, undated = (
        _in_said_weeks(sheet, weeks, weekdays, said)
        if said
        else _entries(sheet, weeks, weekdays, label, begin_of)
    )
    remarks = [row for at, row in enumerate(rows) if at < head or at in repeated] + undated
    what = "a week a row" if label is not None else "one week" if len(said) < 2 else "weeks below one another"
    used = {*weekdays} if label is None else {label, *weekdays}
    unused = unused_columns(sheet, rows[head][1], weeks, used)
    notes = [_told(what, counted).at(sheet.place()), *settled, *unused]
    events = partial(after_remarks, sheet, entries, options, remarks)
    slips = slipped_days(sheet, *rows[head], weeks, weekdays, label)
    problems = [*slips, *called_off_beside(sheet, weeks, used)]
    problems += [_untitled(sheet, rows[head][0])] if are_times else []
    return Reading(sheet, "planner", events, (*sheet.notes, *notes), tuple(problems))


def _entries(
    sheet: Sheet,
    weeks: Sequence[Row],
    weekdays: dict[int, int],
    label: int | None,
    begin_of: Callable[[Cell], dt.date | Refusal],
) -> tuple[list[DrawnEntry | Problem], list[Row]]:
    """What stands under the weekdays, a cell merged over several on all of them; and the rows without a week, which hold nothing."""
    merged = merged_from(sheet)
    entries: list[DrawnEntry | Problem] = []
    undated: list[Row] = []
    for number, row in weeks:
        filled = [(at, text) for at in weekdays if (text := cell_text(row[at]))]
        begins = begin_of(row[label] if label is not None else "")
        if isinstance(begins, Refusal):
            if filled:
                entries.append(begins.problem(sheet.place(number, label), cell_text(row[label or 0])))
            else:
                undated.append((number, row))
            continue
        dates = dates_of_weekdays(weekdays, begins)
        for at, text in filled:
            last = _last_column(sheet, merged.get((number, at)), at)
            ends = max(day for column, day in dates.items() if at <= column <= last)
            entries += entries_of_cell(sheet, number, at, text, date_part(dates[at], max(ends, dates[at])))
    return entries, undated


def _with_first_days(row: Sequence[Cell], before: int, lexicon: Lexicon) -> list[Cell]:
    """A row whose week stands left of its weekdays as `w/c 7 September`, or behind its number, `1 (7/9)`, with its first day there."""
    labels = (date_of_week(cell_text(cell)) if week_begins(cell, lexicon) else cell for cell in row[:before])
    return [*(_behind_number(cell, lexicon) for cell in labels), *row[before:]]


def _behind_number(cell: Cell, lexicon: Lexicon) -> Cell:
    """The date behind the number of a week; any other cell as it stands."""
    match = re.fullmatch(_NUMBER_AND_DATE, cell.strip()) if isinstance(cell, str) else None
    date = (match["within"] or match["behind"]).strip() if match is not None else ""
    return date if date and looks_like_date(date, lexicon) else cell


def _last_column(sheet: Sheet, area: Area | None, at: int) -> int:
    """The last column of a cell, which may be merged over several."""
    return at if area is None else area.last_column - sheet.first_column


def _heads(rows: Sequence[Row], lexicon: Lexicon) -> list[tuple[int, dict[int, int]]]:
    """The indices of the rows that are headed by weekdays, and these by column."""
    found = ((at, weekday_columns(row, lexicon, _OTHER_COLUMNS)) for at, (_, row) in enumerate(rows))
    heads = [(at, weekdays) for at, weekdays in found if len(weekdays) > 1]
    return [one for one in heads if one[1] == heads[0][1]]  # SO and FR among classes are none


def _told(rows_are: str, counted: str) -> Problem:
    return note("layout-planner", f"Read as a planner: {rows_are}, {counted}, weekdays across.")


def _are_times(texts: Sequence[str]) -> bool:
    return bool(texts) and all(map(is_clear_time, texts))


def _untitled(sheet: Sheet, number: int) -> Problem:
    message = "The cells under its weekdays say when, and nothing says what."
    remedy = "Write into each cell what is on, behind its time: “9:00-17:00 Slip duty”."
    return Problem("summary-missing", message, remedy, sheet.place(number))


def _dated_columns(weeks: Sequence[Row], before: int, lexicon: Lexicon) -> int:
    """How many columns left of the weekdays hold dates."""
    filled = [[row[at] for _, row in weeks if cell_text(row[at])] for at in range(before)]
    return sum(bool(cells) and all(looks_like_date(cell, lexicon) for cell in cells) for cells in filled)


def _no_planner(sheet: Sheet) -> NotRead:
    message = f"{sheet.title} is no planner: no column of dates stands left of weekdays."
    remedy = "Put the date of each week into the first column and the weekdays across."
    return not_read(sheet, "no-planner", "it is no planner", "planner-none", message, remedy)


def _label_column(head: Sequence[Cell], weeks: Sequence[Row], before: int, lexicon: Lexicon) -> int | None:
    """The column left of the weekdays whose cells are mostly dates; under `Time`, 9.10 is none."""
    for at in range(before):
        if heads_times(cell_text(head[at])):
            continue
        cells = [row[at] for _, row in weeks if cell_text(row[at])]
        if cells and sum(looks_like_date(cell, lexicon) for cell in cells) * 2 > len(cells):
            return at
    return None


def _number_column(weeks: Sequence[Row], before: int) -> int | None:
    """The column left of the weekdays that numbers the weeks; None when nothing stands there."""
    filled = [at for at in range(before) if any(cell_text(row[at]) for _, row in weeks)]
    return filled[0] if filled else None


_WEEK = r"(?:week|wk|woche|kw|semaine|sem|semana|settimana|vecka|uke|uge|viikko|vko|tydzien|tydz|het|tyden|saptamana|uka|w)"


def _number_weeks(heading: Cell, labels: Sequence[Cell]) -> bool:
    """Whether labels are numbers of weeks: they say so, `Week 2`, or their heading does. `Loft 1` and `Loft 2` are places,
    and 1 and 2 may be periods where nothing heads them."""
    texts = [fold(text).strip() for cell in labels if (text := cell_text(cell))]
    headed = fold(cell_text(heading)).strip()
    match = match_exactly(cell_text(heading))
    is_headed = (match is not None and match.field in ("week", "date")) or re.match(
        rf"{_WEEK}\b", headed
    ) is not None
    if all(re.match(rf"{_WEEK}\b\W*\d|{_WEEK}\d", text) for text in texts):
        return True
    are_numbers = all(re.match(r"\d{1,2}(?:st|nd|rd|th)?\b", text) for text in texts)
    return bool(texts) and are_numbers and is_headed


def _weeks_said(
    rows: Sequence[Row], head: int, weekdays: dict[int, int], lexicon: Lexicon, options: ReadingOptions
) -> list[tuple[int, dt.date]]:
    """The rows that say by themselves which week is below them, `Menu – week beginning 8 March 2027`, and its first day, in order;
    none where entries stand above the first, or something left of the weekdays."""
    begins = min(weekdays)
    if any(cell_text(cell) for _, row in rows[head:] for cell in row[:begins]):
        return []
    found = [
        (number, day)
        for number, row in rows
        if (day := week_of(row, weekdays[begins], lexicon, options)) is not None
    ]
    above = [row for number, row in rows[head + 1 :] if found and number < found[0][0]]
    return [] if any(cell_text(cell) for row in above for cell in row) else found


def _in_said_weeks(
    sheet: Sheet, rows: Sequence[Row], weekdays: dict[int, int], said: Sequence[tuple[int, dt.date]]
) -> tuple[list[DrawnEntry | Problem], list[Row]]:
    """What stands under the weekdays, each row in the week that is said last above it."""
    entries: list[DrawnEntry | Problem] = []
    others = [row for row in rows if row[0] in dict(said)]
    ends = [*(number for number, _ in said[1:]), rows[-1][0] + 1 if rows else 0]
    for (number, day), end in zip(said, ends, strict=True):
        below = [row for row in rows if number < row[0] < end]
        more, undated = _entries(sheet, below, weekdays, None, partial(_of_one_week, day))
        entries, others = [*entries, *more], [*others, *undated]
    return entries, others


def _of_one_week(begins: dt.date, _: Cell) -> dt.date | Refusal:
    return begins


def _in_no_week(_: Cell) -> dt.date | Refusal:
    return Refusal("planner-none", "Nothing says which week it is in.", "Write its first day.")


def _counted_from(day_one: dt.date, is_labelled: bool, of_year: bool) -> str:
    """How weeks are counted from a day, in words."""
    if of_year:
        return f"by its number in the year, from that of {day_one} on"
    return f"counted from {day_one} on" if is_labelled else f"all in that of {day_one}"


def _week_from(day_one: dt.date, of_year: bool, cell: Cell) -> dt.date | Refusal:
    """The date from which the days of a week of this number count; those of a row without one are in the first."""
    return day_of_programme(day_one, cell_text(cell), "", ENGLISH, of_year)


def _are_days(heading: str, labels: Sequence[Cell]) -> bool:
    """Whether the numbers of weeks are days of a month, on which these begin: their heading says so, or they go on by seven."""
    numbers = [int(found[0]) for cell in labels if (found := re.search(r"\d+", cell_text(cell)))]
    steps = [after - before for before, after in pairwise(numbers)]
    return heads_weeks(normal(heading)) != "" or (
        _WEEK_DAYS in steps and all(s == _WEEK_DAYS or s < 0 for s in steps)
    )


def _day_without_month(cell: Cell) -> Refusal:
    message = (
        f"“{cell_text(cell)}” is the day on which a week begins, or ends, and nothing says of which month."
    )
    return Refusal("date-unread", message, "Write it with its month and its year, such as 4 January 2027.")


def _week_of(cell: Cell, weekdays: dict[int, int], days: Decisions) -> dt.date | Refusal:
    """The date from which the days of a week count."""
    if not cell_text(cell):
        return Refusal("date-missing", "The row has no date.", "Give the week the date on which it begins.")
    moment = read_moment(cell, "date", days.lexicon)
    if isinstance(moment, Refusal):
        return moment
    if not isinstance(moment, Moment) or moment.first is None:
        return Refusal(
            "date-unread", "The week's cell holds no date.", "Give it the date on which it begins."
        )
    begins = resolve_day(moment.first, days)
    first = weekdays[min(weekdays)]
    if isinstance(begins, Refusal) or begins_week(begins, first):
        return begins
    message = f"{begins} is a {WEEKDAYS[begins.weekday()]}, and the week begins with {WEEKDAYS[first]}."
    return Refusal("date-weekday", message, "Correct the date, or the weekdays above.")
