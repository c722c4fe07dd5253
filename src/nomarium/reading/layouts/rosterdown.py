"""Rosters with a row for each date, and names, sessions or places across."""

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence
from itertools import groupby, pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly, unit_of
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
from nomarium.reading.layouts.rosterheads import groups_over, headed_twice, heads_of
from nomarium.reading.layouts.rosterslots import Drawing, Slot
from nomarium.reading.layouts.rostertimes import unread_times
from nomarium.reading.layouts.slots import slot_ends, time_of, usual_step
from nomarium.reading.layouts.unusedcolumns import called_off_beside
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text

_WEEKS = frozenset("week weeks woche semaine semana settimana vecka uke uge viikko tydzien".split())
"""Headings of days that stand for their weeks, where these are weeks apart."""
_BEGIN_WEEKS = frozenset((0, 5, 6))
"""Monday, Saturday and Sunday: weekdays on which weeks begin."""


def down(top: Top) -> Drawing | None:
    """A roster with a row for each date, and names, sessions or places across; only where its cells show that, or
    when it is asked for."""
    heads = heads_of(top)
    if heads is None:
        return None
    head, date_at = heads.cells, heads.date_at
    filled_down = fill_down_columns([*map(cell_text, head)], top.options, top.sheet.first_column)
    body = list(filled_rows(top.sheet, iter(heads.body), filled_down))
    body, key = _without_key(body, date_at, top.lexicon)
    head, body = _with_last_days(head, body, date_at, top.lexicon)
    columns = columns_of(top, heads.above, head, body, date_at)
    if columns is None:
        return None
    below = [one for one in body if _says_hours(one[1], date_at, columns)]
    body = [one for one in body if one not in below]
    head, told = _with_times(top, head, columns, [*heads.above, *body], below)
    groups = groups_over(heads, columns.slots)
    twice = None if groups else headed_twice(top, heads, columns.slots)
    used_texts = {cell_text(row[n]) for _, row in body for n in columns.slots if n < len(row)}
    weekday_at = _weekday_column(top, body, date_at, columns)
    dated = [
        (number, _with_weekday(row, date_at, weekday_at))
        for number, row in body
        if _may_be_dated(top, row, date_at, columns) and not is_of_key(row, used_texts)
    ]
    headed = _headed(top, dated, cell_text(head[date_at]), heads.above, weekday_at is not None)
    if columns.weekdays and not _are_weeks_apart(headed.days.values()):
        return None
    in_dates, steps = _times_of_dates(top, dated, headed.days) if columns.time is None else ({}, [])
    slots, others, problems = (
        list[Slot](),
        [*(heads.above[:-1] if groups else heads.above), *below, *key],
        [*headed.problems],
    )
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
            said = _part_in(row, head, columns)
            hours = in_dates.get(number, said.time) if time is NOTHING else time
            drawn = (_slot_down(number, n, head, row, headed.days[number], hours, columns) for n in filled)
            slots += [_in_group(one, groups.get(one.column, ""))._replace(part=said.name) for one in drawn]
    used = {*columns.slots, date_at, weekday_at, columns.time, columns.end, columns.part, columns.place}
    unused = unused_columns(top, head, body, used)
    problems += unread_times(top, body, unused) if columns.time is None else ()
    problems += called_off_beside(top.sheet, body, used)
    kind = f"a row for each {'week' if headed.are_weeks else 'date'}, {columns.kind} across"
    told += [heads.running.said(top.sheet.place(None, date_at))] if heads.running else []
    notes = [*headed.notes, *told, *steps, *unused_told(top, heads.number, [*unused.values()])]
    return Drawing(slots, kind, "", others, problems, notes=notes)


def _without_key(rows: Sequence[Row], date_at: int, lexicon: Lexicon) -> tuple[list[Row], list[Row]]:
    """The rows of dates, and those from a row of headings on below the last of these: what codes stand for."""
    dated = [
        n for n, (_, row) in enumerate(rows) if date_at < len(row) and looks_like_date(row[date_at], lexicon)
    ]
    last = max(dated, default=len(rows))
    heading = (
        n
        for n, (_, row) in enumerate(rows)
        if n > last and sum(match_exactly(text) is not None for cell in row if (text := cell_text(cell))) > 1
    )
    at = next(heading, len(rows))
    return list(rows[:at]), list(rows[at:])


def _with_last_days(
    head: Sequence[Cell], body: list[Row], date_at: int, lexicon: Lexicon
) -> tuple[Sequence[Cell], list[Row]]:
    """The headings and the rows, whose dates last until those of a column beside them, `From` and `Until`, where that holds no times."""
    heads = (n for n, cell in enumerate(head) if n != date_at and _heads_last_days(cell))
    last_at = next(heads, None)
    if last_at is None:
        return head, body
    lasts = [row[last_at] for _, row in body if last_at < len(row) and cell_text(row[last_at])]
    if not lasts or not all(looks_like_date(cell, lexicon) for cell in lasts):
        return head, body
    joined = list[Row]()
    for number, row in body:
        if max(date_at, last_at) < len(row) and cell_text(row[last_at]):
            first, last = cell_text(row[date_at]), cell_text(row[last_at])
            said = {date_at: f"{first} – {last}" if first and first != last else first, last_at: ""}
            row = [said.get(n, cell) for n, cell in enumerate(row)]
        joined.append((number, row))
    return ["" if n == last_at else cell for n, cell in enumerate(head)], joined


def _heads_last_days(cell: Cell) -> bool:
    match = match_exactly(cell_text(cell))
    return match is not None and match.field in ("end", "end-date")


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


def _headed(
    top: Top, dated: Sequence[tuple[int, Cell]], heading: str, above: Sequence[Row], has_weekdays: bool
) -> Headed:
    """The days of the rows: dates, the numbers of days of the month that stands above, or weeks where they are called so, are
    weeks apart, and no weekday beside them says that each is one day of its week."""
    keyed = [(number, number, cell) for number, cell in dated]
    are_dates = any(heads_dates([cell], top.lexicon) for _, cell in dated)
    if not are_dates and (numbers := numbered_days(keyed, top.lexicon, {})):
        return settled_numbers(top, numbers, [*above, (0, [heading])], above)
    headed = settled_dates(top, keyed, above, unit_of(heading).week)
    is_called_week = fold(heading).strip(" .:") in _WEEKS and not (has_weekdays and _are_within_weeks(headed))
    if is_called_week and _are_weeks_apart(headed.days.values()):
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


def _are_within_weeks(headed: Headed) -> bool:
    """Whether all days are of one weekday on which no week begins."""
    weekdays = {days.first.weekday() for days in headed.days.values() if isinstance(days.first, dt.date)}
    return len(weekdays) == 1 and weekdays.isdisjoint(_BEGIN_WEEKS)


def _are_weeks_apart(days: Iterable[Days]) -> bool:
    """Whether days stand for weeks: each is some weeks after the one before."""
    firsts = [one.first for one in days]
    return len(firsts) > 1 and all(b > a and (b - a).days % 7 == 0 for a, b in pairwise(firsts))


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
    where = cell_text(row[columns.place]) if columns.place is not None and columns.place < len(row) else ""
    if columns.weekdays:
        first = days.first
        day = first + dt.timedelta((columns.weekdays[column] - first.weekday()) % 7)
        own = said.time if said.time is not NOTHING else time
        return Slot(number, column, "", row[column], Days(day, day), own, stands_alone=True, where=where)
    if columns.kind != "parts of the day":
        if time is NOTHING and said.time is not NOTHING and said.name:
            heading, time = said.name, said.time
        return Slot(
            number, column, heading, row[column], days, time, is_place=columns.kind == "places", where=where
        )
    own = said.time if said.time is not NOTHING else time
    return Slot(number, column, said.name or heading, row[column], days, own, is_session=True, where=where)


def _part_in(row: Sequence[Cell], head: Sequence[Cell], columns: RosterColumns) -> Code:
    """The part of the day that a row says in a column of its own."""
    at = columns.part
    return Code("") if at is None else session_of(part_of(cell_text(row[at]), cell_text(head[at])))


def _in_group(slot: Slot, over: str) -> Slot:
    """A slot with what stands over its heading: hours are its own, where it has none, and anything else is its group."""
    hours = hours_in(over)
    return (
        slot._replace(time=hours)
        if hours is not NOTHING and slot.time is NOTHING
        else slot._replace(group=over)
    )
