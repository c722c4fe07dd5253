"""Rosters with a row for each date, and names, sessions or places across."""

import datetime as dt
import re
from collections.abc import Iterable, Mapping, Sequence
from itertools import groupby, pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import heads_times, match_exactly, unit_of
from nomarium.reading.columns.table import fill_down_columns, filled_rows
from nomarium.reading.layouts.codes import (
    Code,
    hours_in,
    is_of_key,
    session_of,
    times_of_names,
)
from nomarium.reading.layouts.headdates import (
    Days,
    Headed,
    heads_dates,
    month_in_title,
    numbered_days,
    settled_dates,
    settled_numbers,
    time_of_date,
)
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rostercolumns import (
    RosterColumns,
    columns_of,
    part_of,
    unused_columns,
    unused_told,
)
from nomarium.reading.layouts.rosterslots import Drawing, Slot, carried
from nomarium.reading.layouts.rostertimes import unread_times
from nomarium.reading.layouts.slots import slot_ends, time_of, usual_step
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEAD_ROWS = 30
_WEEKS = frozenset("week weeks woche semaine semana settimana vecka uke uge viikko tydzien".split())
"""Headings of days that stand for their weeks, where these are weeks apart."""


def down(top: Top) -> Drawing | None:
    """A roster with a row for each date, and names, sessions or places across; only where its cells show that, or
    when it is asked for."""
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    found = _headings(top, rows)
    if found is None:
        return None
    at, date_at, head, is_split = found
    filled_down = fill_down_columns([*map(cell_text, head)], top.options, top.sheet.first_column)
    body = list(filled_rows(top.sheet, iter(rows[at + 1 :]), filled_down))
    columns = columns_of(top, rows[:at], head, body, date_at)
    if columns is None:
        return None
    below = [one for one in body if _says_hours(one[1], date_at, columns)]
    body = [one for one in body if one not in below]
    head, told = _with_times(top, head, columns, [*rows[:at], *body], below)
    groups = _groups_over(rows[:at], date_at, head, columns.slots, is_split)
    twice = None if groups else _headed_twice(top, rows[: at + 1], columns.slots)
    used_texts = {cell_text(row[n]) for _, row in body for n in columns.slots if n < len(row)}
    weekday_at = _weekday_column(top, body, date_at, columns)
    dated = [
        (number, _with_weekday(row, date_at, weekday_at))
        for number, row in body
        if _may_be_dated(top, row, date_at, columns) and not is_of_key(row, used_texts)
    ]
    headed = _headed(top, dated, cell_text(head[date_at]), rows[:at])
    if columns.weekdays and not _are_weeks_apart(headed.days.values()):
        return None
    in_dates, steps = _times_of_dates(top, dated, headed.days) if columns.time is None else ({}, [])
    slots, others, problems = list[Slot](), [*rows[: at - bool(groups)], *below], [*headed.problems]
    problems += [twice] if twice else []
    for number, row in body:
        filled = [n for n in columns.slots if n < len(row) and cell_text(row[n])]
        if not filled or (number not in headed.days and is_of_key(row, used_texts)):
            others.append((number, row))
        elif number not in headed.days:
            problems += (
                [] if headed.problems else [_undated(top, number, row, date_at, head, bool(headed.days))]
            )
        elif isinstance(time := _time_in(top, number, row, columns), Problem):
            problems.append(time)
        else:
            part = columns.part
            said = (
                Code("") if part is None else session_of(part_of(cell_text(row[part]), cell_text(head[part])))
            )
            hours = in_dates.get(number, said.time) if time is NOTHING else time
            slots += [
                _in_group(
                    _slot_down(number, n, head, row, headed.days[number], hours, columns), groups.get(n, "")
                )._replace(part=said.name)
                for n in filled
            ]
    used = {*columns.slots, date_at, weekday_at, columns.time, columns.end, columns.part, columns.place}
    unused = unused_columns(top, head, body, used)
    problems += unread_times(top, body, unused) if columns.time is None else ()
    kind = f"a row for each {'week' if headed.are_weeks else 'date'}, {columns.kind} across"
    notes = [*headed.notes, *told, *steps, *unused_told(top, rows[at][0], [*unused.values()])]
    return Drawing(slots, kind, "", others, problems, notes=notes)


def _weekday_column(top: Top, body: Sequence[Row], date_at: int, columns: RosterColumns) -> int | None:
    """The column beside the dates that says their weekdays in every row; None where there is none."""
    for n in (date_at - 1, date_at + 1):
        words = [
            fold(cell_text(row[n])).strip(" .")
            for _, row in body
            if 0 <= n < len(row) > date_at and cell_text(row[date_at])
        ]
        if words and n not in columns.slots and all(word in top.lexicon.weekdays for word in words):
            return n
    return None


def _with_weekday(row: Sequence[Cell], date_at: int, weekday_at: int | None) -> Cell:
    """A date with the weekday beside it, which tells days and months apart."""
    date = row[date_at]
    is_bare = isinstance(date, str) and weekday_at is not None and not date[:1].isalpha()
    return f"{cell_text(row[weekday_at])} {date}" if is_bare and weekday_at is not None else date


def _may_be_dated(top: Top, row: Sequence[Cell], at: int, columns: RosterColumns) -> bool:
    """Whether what stands in the column of the dates may be one: a day, or whatever somebody's duty stands beside."""
    if at >= len(row) or not cell_text(row[at]):
        return False
    cell = row[at]
    is_day = heads_dates([cell], top.lexicon) or bool(numbered_days([(0, 0, cell)] * 3, top.lexicon, {}))
    return is_day or any(n < len(row) and cell_text(row[n]) for n in columns.slots)


def _headed(top: Top, dated: Sequence[tuple[int, Cell]], heading: str, above: Sequence[Row]) -> Headed:
    """The days of the rows: dates, the numbers of days of the month that stands above, or weeks where they are called so and
    are weeks apart."""
    keyed = [(number, number, cell) for number, cell in dated]
    are_dates = any(heads_dates([cell], top.lexicon) for _, cell in dated)
    if not are_dates and (numbers := numbered_days(keyed, top.lexicon, {})):
        return settled_numbers(top, numbers, [*above, (0, [heading])], above)
    headed = settled_dates(top, keyed, above, unit_of(heading).week)
    if fold(heading).strip(" .:") in _WEEKS and _are_weeks_apart(headed.days.values()):
        return settled_dates(top, keyed, above, "begins")
    return headed


def _times_of_dates(
    top: Top, dated: Sequence[tuple[int, Cell]], days: Mapping[int, Days]
) -> tuple[dict[int, Part], list[Problem]]:
    """The times that stand with the dates, `11/01/2027 09:20`, by row; those without an end last until the next one of their day where
    these follow in even steps, with a note."""
    found = {
        number: time
        for number, cell in dated
        if number in days and (time := time_of_date(cell, top.lexicon)) is not NOTHING
    }
    ordered = sorted(found, key=lambda n: (days[n].first, _start_secs(found[n])))
    usual, is_regular = usual_step([found[n] for n in ordered])
    for _, of_day in groupby(ordered if is_regular else (), key=lambda n: days[n].first):
        numbers = list(of_day)
        ends = slot_ends([found[n] for n in numbers], usual)
        found |= {n: found[n]._replace(end=end) for n, end in zip(numbers, ends, strict=True)}
    if not found:
        return found, []
    message = "The times beside the dates are those of their rows; one without an end lasts until the next of its day, where these follow in even steps."
    return found, [note("lines-run-on", message).at(top.sheet.place(min(found)))]


def _start_secs(time: Part) -> int:
    return time.start.secs if time.start is not None else 0


def _undated(
    top: Top, number: int, row: Sequence[Cell], date_at: int, head: Sequence[Cell], have_others: bool
) -> Problem:
    """The problem of a row that has something and no date."""
    if date_at < len(row) and (text := cell_text(row[date_at])):
        remedy = "Write the date alone, like 2027-04-12, and anything else beside it."
        return Problem(
            "date-unread", f"“{text}” is not a date.", remedy, top.sheet.place(number, date_at), text
        )
    remedy = "Give it one, or take the row out."
    if have_others and not top.options.fill_down:
        name = cell_text(head[date_at]) or column_letter(date_at + top.sheet.first_column)
        remedy = f'Give it one; or, if a date written once holds for the rows below it: --fill-down "{name}".'
    return Problem("date-missing", "The row has no date.", remedy, top.sheet.place(number, date_at))


def _says_hours(row: Sequence[Cell], date_at: int, columns: RosterColumns) -> bool:
    """Whether a row without a date says the hours of the parts of the day that head the columns, and nothing else."""
    if columns.kind != "parts of the day" or (date_at < len(row) and cell_text(row[date_at])):
        return False
    filled = [n for n, cell in enumerate(row) if cell_text(cell)]
    return filled == sorted(columns.slots) and all(hours_in(cell_text(row[n])) is not NOTHING for n in filled)


def _with_times(
    top: Top, head: Sequence[Cell], columns: RosterColumns, rows: Sequence[Row], below: Sequence[Row]
) -> tuple[Sequence[Cell], list[Problem]]:
    """A row that heads parts of the day, with the times that rows beside the drawing, or right `below` it, give to them, and a note
    of these."""
    names = [text for n in columns.slots if (text := cell_text(head[n]))]
    times = times_of_names(rows, names) if columns.kind == "parts of the day" else {}
    times |= {
        cell_text(head[n]): cell_text(row[n]) for _, row in below for n in columns.slots if n < len(row)
    }
    if not times:
        return head, []
    shown = listed([f"{name} ({text})" for name, text in times.items()])
    told = note("roster-parts", f"When the parts of the day are is said beside them: {shown}.")
    timed = [f"{text} ({times[text]})" if (text := cell_text(cell)) in times else cell for cell in head]
    return timed, [told.at(top.sheet.place())]


def _are_weeks_apart(days: Iterable[Days]) -> bool:
    """Whether days stand for weeks: each is some weeks after the one before."""
    firsts = [one.first for one in days]
    return len(firsts) > 1 and all(b > a and (b - a).days % 7 == 0 for a, b in pairwise(firsts))


def _headings(top: Top, rows: Sequence[Row]) -> tuple[int, int, Sequence[Cell], bool] | None:
    """The index of the row of headings, the column of the dates, the headings, and whether these are split: in two rows, with that
    of the dates in the first of them."""
    found = _head_over_dates(top, rows)
    if found is None:
        return None
    at, date_at = found
    upper = rows[at][1]
    if not _is_split(rows[at:], date_at):
        return at, date_at, upper, False
    lower = rows[at + 1][1]
    first = _first_filled(lower)
    return at + 1, date_at, [*upper[:first], *lower[first:]], True


def _is_split(rows: Sequence[Row], date_at: int) -> bool:
    """Whether the headings go on in the row below the first: each of what stands there is headed by what stands over several of
    them, and nothing stands there where the first heads the dates."""
    if len(rows) < 3:
        return False
    upper, lower = rows[0][1], rows[1][1]
    texts = {n: text for n, cell in enumerate(lower) if (text := cell_text(cell))}
    first = min(texts, default=date_at)
    over = {n for n, cell in enumerate(upper) if n >= first and cell_text(cell)}
    is_headed = date_at < first and first in over and over <= texts.keys() and len(over) < len(texts)
    return is_headed and not any(map(str.isdigit, "".join(texts.values())))


def _first_filled(row: Sequence[Cell]) -> int:
    return next(n for n, cell in enumerate(row) if cell_text(cell))


def _groups_over(
    above: Sequence[Row], date_at: int, head: Sequence[Cell], columns: Sequence[int], is_split: bool
) -> dict[int, str]:
    """What stands over each column in the row above the headings, where that tells equal headings apart, or is the first half of
    headings that are split."""
    if not above or (_repeated(head, columns) is None and not is_split):
        return {}
    over = carried(above[-1][1], min(date_at + 1, columns[0]), columns[-1])
    pairs = [(over[n], cell_text(head[n]).casefold()) for n in columns]
    return (
        {n: over[n] for n in columns}
        if len(set(pairs)) == len(pairs) and all(over[n] for n in columns)
        else {}
    )


def _headed_twice(top: Top, rows: Sequence[Row], columns: Sequence[int]) -> Problem | None:
    """A problem where columns share a heading, and the row above does not tell them apart: what it says would be lost.
    The last of `rows` is that of the headings."""
    number, head = rows[-1]
    at = _repeated(head, columns)
    if at is None or len(rows) < 2 or len(list(filter(cell_text, rows[-2][1]))) < 2:
        return None
    message = "Several columns have this heading, and the row above does not tell them apart."
    remedy = "Write into the row above what each is about."
    return Problem("roster-headings", message, remedy, top.sheet.place(number, at), cell_text(head[at]))


def _repeated(head: Sequence[Cell], columns: Sequence[int]) -> int | None:
    """The second of two columns that have one heading."""
    seen = set[str]()
    for n in columns:
        text = cell_text(head[n]).casefold()
        if text in seen:
            return n
        seen.add(text)
    return None


def _time_in(top: Top, number: int, row: Sequence[Cell], columns: RosterColumns) -> Part | Problem:
    """The hours that a row says in columns of their own."""
    parts = []
    for at in (columns.time, columns.end):
        cell = row[at] if at is not None and at < len(row) else ""
        part = time_of(cell) if cell_text(cell) else NOTHING
        if cell_text(cell) and part is NOTHING:
            message = f"“{cell_text(cell)}” is no time."
            return Problem(
                "roster-time",
                message,
                "Write it like 9:00-10:30.",
                top.sheet.place(number, at),
                cell_text(cell),
            )
        parts.append(part)
    start, end = parts
    return start._replace(end=end.start) if start.start is not None and end.start is not None else start


def _slot_down(
    number: int,
    column: int,
    head: Sequence[Cell],
    row: Sequence[Cell],
    days: Days,
    time: Part,
    columns: RosterColumns,
) -> Slot:
    heading = cell_text(head[column])
    said = session_of(heading)  # Morning (9:00-12:00)
    if columns.weekdays:
        first = days.first
        day = first + dt.timedelta((columns.weekdays[column] - first.weekday()) % 7)
        own = said.time if said.time is not NOTHING else time
        return Slot(number, column, "", row[column], Days(day, day), own, stands_alone=True)
    if columns.kind != "parts of the day":
        if time is NOTHING and said.time is not NOTHING and said.name:
            heading, time = said.name, said.time
        return Slot(number, column, heading, row[column], days, time, is_place=columns.kind == "places")
    own = said.time if said.time is not NOTHING else time
    where = cell_text(row[columns.place]) if columns.place is not None and columns.place < len(row) else ""
    return Slot(number, column, said.name or heading, row[column], days, own, is_session=True, where=where)


def _in_group(slot: Slot, over: str) -> Slot:
    """A slot with what stands over its heading: hours are its own, where it has none, and anything else is its group."""
    hours = hours_in(over)
    return (
        slot._replace(time=hours)
        if hours is not NOTHING and slot.time is NOTHING
        else slot._replace(group=over)
    )


def _head_over_dates(top: Top, rows: Sequence[Row]) -> tuple[int, int] | None:
    """The index of a row of headings over a column that is mostly dates, and that column."""
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = [text for cell in row if (text := cell_text(cell))]
        filled = [n for n, cell in enumerate(row) if cell_text(cell)]
        are_two = filled == [1, 2]  # names or posts, over dates that nothing heads
        if (
            (len(texts) < 3 and not are_two)
            or any(len(text) > 40 for text in texts)
            or heads_dates(row, top.lexicon)
        ):
            continue
        body = rows[at + 1 :]
        for column in range(min(len(row), 4)):
            wide = [r for _, r in body if sum(map(bool, map(cell_text, r))) > 1]  # and no words below them
            used_texts = {cell_text(cell) for r in wide for n, cell in enumerate(r) if n != column}
            wide = [r for r in wide if not is_of_key(r, used_texts)]
            cells = [r[column] for r in wide if column < len(r) and cell_text(r[column])]
            dates = sum(heads_dates([cell], top.lexicon) for cell in cells)
            if cells and dates >= max(1, len(cells) * 0.6) and not _are_clocks(row[column], cells):
                return at, column
            if _are_days_of_a_month(top, rows[:at], cells, cell_text(row[column])):
                return at, column
        return None
    return None


def _are_clocks(heading: Cell, cells: Sequence[Cell]) -> bool:
    """Whether cells under a heading of times are times with dots, `9.10`, and no days."""
    return heads_times(cell_text(heading)) and all(time_of(cell) is not NOTHING for cell in cells)


def _are_days_of_a_month(top: Top, above: Sequence[Row], cells: Sequence[Cell], heading: str) -> bool:
    """Whether cells are the numbers of days, `Mon 1`, or `1` under a heading of dates, whose month heads them or stands above."""
    texts = [top.sheet.name, *(cell_text(cell) for _, row in above for cell in row), heading]
    days = numbered_days([(n, 0, cell) for n, cell in enumerate(cells)], top.lexicon, {})
    match = match_exactly(heading)
    are_named = all(re.search(r"[^\W\d_]", cell_text(cell)) for cell in cells)
    are_headed = month_in_title(heading, top.lexicon) or (
        match is not None and match.field in ("date", "day")
    )
    rises = all(a.day < b.day for a, b in pairwise(days))
    return (
        len(days) > 2
        and (are_named or (are_headed and rises))
        and any(month_in_title(text, top.lexicon) for text in texts)
    )
