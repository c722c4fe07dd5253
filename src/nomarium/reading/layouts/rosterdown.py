"""Rosters with a row for each date, and names, sessions or places across."""

import datetime as dt
import re
from collections.abc import Iterable, Mapping, Sequence
from itertools import groupby, pairwise
from types import MappingProxyType
from typing import Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.head import looks_like_date
from nomarium.reading.columns.headings import match_exactly, unit_of
from nomarium.reading.columns.table import fill_down_columns, filled_rows
from nomarium.reading.layouts.codes import Code, hours_in, is_code, is_idle, session_of, times_of_names
from nomarium.reading.layouts.headdates import (
    Days,
    heads_dates,
    month_in_title,
    numbered_days,
    settled_dates,
    settled_numbers,
    time_of_date,
)
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosteracross import unused_told
from nomarium.reading.layouts.rosterslots import Drawing, Slot, carried, is_session
from nomarium.reading.layouts.slots import slot_ends, time_of, usual_step
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEAD_ROWS = 30
_PLACES = (
    r"\b(?:room|rm|loft|shed|hall|slip|court|pitch|field|lab|studio|gym|pool|stage|track|table|kitchen|library|chapel|yard|dock|pier|berth|"
    r"bay|rink|theatre|salle|raum|saal|aula|zaal|lokaal|sala|halle|platz|terrain|veld)\b"
)
_WEEKS = frozenset("week weeks woche semaine semana settimana vecka uke uge viikko tydzien".split())
"""Headings of days that stand for their weeks, where these are weeks apart."""
_SIDES = frozenset("home away team opponent opponents host visitor visitors white black player side".split())


class _Columns(NamedTuple):
    """What the columns of a roster with dates down are."""

    slots: tuple[int, ...]
    kind: Literal["names or posts", "places", "parts of the day", "weekdays"]
    time: int | None
    end: int | None
    part: int | None = None
    """Where each row says the part of its day, `Early`, `Late`."""
    place: int | None = None
    """Where each row says the place, beside columns for the parts of its day."""
    weekdays: Mapping[int, int] = MappingProxyType({})
    """The weekday, 0 for Monday, of each column, where all are of one in the week of a row."""


def down(top: Top) -> Drawing | None:
    """A roster with a row for each date, and names, sessions or places across; only where its cells show that, or
    when it is asked for."""
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    found = _head_over_dates(top, rows)
    if found is None:
        return None
    at, date_at = found
    head = rows[at][1]
    filled_down = fill_down_columns([*map(cell_text, head)], top.options, top.sheet.first_column)
    body = list(filled_rows(top.sheet, iter(rows[at + 1 :]), filled_down))
    columns = _columns_of(top, head, body, date_at)
    if columns is None:
        return None
    head, told = _with_times(top, head, columns, [*rows[:at], *body])
    in_weeks = unit_of(cell_text(head[date_at])).week
    groups = _groups_over(rows[:at], head, columns.slots)
    twice = None if groups else _headed_twice(top, rows[: at + 1], columns.slots)
    dated = [(number, row[date_at]) for number, row in body if date_at < len(row) and cell_text(row[date_at])]
    keyed = [(number, number, cell) for number, cell in dated]
    numbers = numbered_days(keyed, top.lexicon, {})
    if numbers:
        headed = settled_numbers(top, numbers, rows[:at], rows[:at])
    else:
        headed = settled_dates(top, keyed, rows[:at], in_weeks)
    if fold(cell_text(head[date_at])).strip(" .:") in _WEEKS and _are_weeks_apart(headed.days.values()):
        headed = settled_dates(top, keyed, rows[:at], "begins")
    if columns.weekdays and not _are_weeks_apart(headed.days.values()):
        return None
    in_dates, steps = _times_of_dates(top, dated, headed.days) if columns.time is None else ({}, [])
    slots, others, problems = list[Slot](), list[Row](rows[: at - bool(groups)]), [*headed.problems]
    problems += [twice] if twice else []
    for number, row in body:
        filled = [n for n in columns.slots if n < len(row) and cell_text(row[n])]
        if not filled:
            others.append((number, row))
        elif number not in headed.days:
            problems += [] if headed.problems else [_undated(top, number, date_at, head, bool(headed.days))]
        elif isinstance(time := _time_in(top, number, row, columns), Problem):
            problems.append(time)
        else:
            part = columns.part
            said = (
                Code("")
                if part is None
                else session_of(_part_of(cell_text(row[part]), cell_text(head[part])))
            )
            hours = in_dates.get(number, said.time) if time is NOTHING else time
            slots += [
                _slot_down(number, n, head, row, headed.days[number], hours, columns)._replace(
                    group=groups.get(n, ""), part=said.name
                )
                for n in filled
            ]
    used = {*columns.slots, date_at, columns.time, columns.end, columns.part, columns.place}
    unused = [f"“{text}”" for n, cell in enumerate(head) if (text := cell_text(cell)) and n not in used]
    kind = f"a row for each {'week' if headed.are_weeks else 'date'}, {columns.kind} across"
    notes = [*headed.notes, *told, *steps, *unused_told(top, rows[at][0], unused)]
    return Drawing(slots, kind, "", others, problems, notes=notes)


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


def _undated(top: Top, number: int, date_at: int, head: Sequence[Cell], have_others: bool) -> Problem:
    """The problem of a row that has something and no date."""
    remedy = "Give it one, or take the row out."
    if have_others:
        remedy = f'Give it one; or, if a date written once holds for the rows below it: --fill-down "{cell_text(head[date_at])}".'
    return Problem("date-missing", "The row has no date.", remedy, top.sheet.place(number, date_at))


def _with_times(
    top: Top, head: Sequence[Cell], columns: _Columns, rows: Sequence[Row]
) -> tuple[Sequence[Cell], list[Problem]]:
    """A row that heads parts of the day, with the times that rows beside the drawing give to them, and a note of these."""
    names = [text for n in columns.slots if (text := cell_text(head[n]))]
    times = times_of_names(rows, names) if columns.kind == "parts of the day" else {}
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


def _groups_over(above: Sequence[Row], head: Sequence[Cell], columns: Sequence[int]) -> dict[int, str]:
    """What stands over each column in the row above the headings, where that tells equal headings apart."""
    if not above or _repeated(head, columns) is None:
        return {}
    over = carried(above[-1][1], columns[0], columns[-1])
    pairs = [(over[n], cell_text(head[n]).casefold()) for n in columns]
    return {n: over[n] for n in columns} if len(set(pairs)) == len(pairs) and all(over.values()) else {}


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


def _columns_of(top: Top, head: Sequence[Cell], body: Sequence[Row], date_at: int) -> _Columns | None:
    """The columns of a row of headings, where what stands under several of them is of one kind."""
    fields = {
        n: match.field if (match := match_exactly(cell_text(cell))) else "" for n, cell in enumerate(head)
    }
    fields[date_at] = "date"
    time = next((n for n, field in fields.items() if field in ("time", "start")), None)
    end = next((n for n, field in fields.items() if field == "end"), None)
    beside = [n for n in fields if n not in (date_at, time, end)]
    part = next(
        (n for n in beside if _says_parts(body, n, cell_text(head[n]) if n < len(head) else "")), None
    )
    numbered = {n for n in beside if _are_numbers(body, n)}
    columns = tuple(
        n for n, cell in enumerate(head)
        if n not in (date_at, time, end, part) and n not in numbered and cell_text(cell) and not _are_weekdays(top, body, n) and any(n < len(row) and cell_text(row[n]) for _, row in body)
        and (fields[n] in ("", "summary", "period", "location", "room") or is_session(cell) or _is_place(cell))
    )  # fmt: skip
    columns = _without_day_names(head, columns)
    if len(columns) < 2:
        return None
    place = next((n for n in columns if fields[n] in ("location", "room")), None)
    sessions = tuple(n for n in columns if n != place)
    if len(sessions) > 1 and all(is_session(head[n]) for n in sessions):
        return _Columns(sessions, "parts of the day", time, end, part, place)
    if sum(_is_place(head[n]) for n in columns) * 2 > len(columns):
        return _Columns(columns, "places", time, end, part)
    weekdays = {n: day for n in columns if (day := _weekday_of(top, cell_text(head[n]))) is not None}
    if len(weekdays) == len(columns) and len(set(weekdays.values())) > 1:
        return _Columns(columns, "weekdays", time, end, part, weekdays=weekdays)
    if top.options.layout == "roster" or _share_words(head, body, columns):
        return _Columns(columns, "names or posts", time, end, part)
    return None


def _without_day_names(head: Sequence[Cell], columns: tuple[int, ...]) -> tuple[int, ...]:
    """The columns without one headed *Day*, which names each date where no night stands beside it: a day of a cycle."""
    called = {n: fold(cell_text(head[n])).strip(" .:") for n in columns}
    has_night = any(re.search(r"night|evening|late|eve\b", text) for text in called.values())
    return (
        columns if has_night else tuple(n for n in columns if called[n] not in ("day", "jour", "tag", "dia"))
    )


def _weekday_of(top: Top, heading: str) -> int | None:
    """The weekday that a heading begins with, `Mon 9-10`; 0 for Monday."""
    words = re.findall(r"[^\W\d_]+", fold(heading))
    return top.of_weekdays.weekdays.get(words[0]) if len(words) == 1 else None


def _are_numbers(body: Sequence[Row], column: int) -> bool:
    """Whether all that stands in a column is plain numbers: a count, and nobody's duty."""
    texts = [text for _, row in body if column < len(row) and (text := cell_text(row[column]))]
    return bool(texts) and all(text.isdecimal() for text in texts)


def _are_weekdays(top: Top, body: Sequence[Row], column: int) -> bool:
    """Whether a column says nothing but the weekdays of the dates beside it."""
    texts = [
        text for _, row in body if column < len(row) and (text := fold(cell_text(row[column])).strip("."))
    ]
    return bool(texts) and all(
        text in top.of_weekdays.weekdays or text in top.lexicon.weekdays for text in texts
    )


def _says_parts(body: Sequence[Row], column: int, heading: str) -> bool:
    """Whether every row says in a column which part of the day it is, one more than another; numbers count under a heading of
    such parts, `Session`."""
    texts = [_part_of(cell_text(row[column]) if column < len(row) else "", heading) for _, row in body]
    if not all(map(is_session, texts)) or len(set(texts)) < 2:
        return False
    others = (
        cell for _, row in body for n, cell in enumerate(row) if n != column and not looks_like_date(cell)
    )
    are_hours = all(hours_in(text) is not NOTHING for text in texts)
    return not are_hours or all(hours_in(cell_text(cell)) is NOTHING for cell in others)  # else somebody's


def _part_of(text: str, heading: str) -> str:
    """What a cell calls its part of the day: a number with the heading before it, `Session 2`."""
    return f"{heading} {text}" if text.isdecimal() else text


def _time_in(top: Top, number: int, row: Sequence[Cell], columns: _Columns) -> Part | Problem:
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
    columns: _Columns,
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


def _head_over_dates(top: Top, rows: Sequence[Row]) -> tuple[int, int] | None:
    """The index of a row of headings over a column that is mostly dates, and that column."""
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = [text for cell in row if (text := cell_text(cell))]
        if len(texts) < 3 or any(len(text) > 40 for text in texts) or heads_dates(row, top.lexicon):
            continue
        body = rows[at + 1 :]
        for column in range(min(len(row), 4)):
            wide = [r for _, r in body if sum(map(bool, map(cell_text, r))) > 1]  # and no words below them
            cells = [r[column] for r in wide if column < len(r) and cell_text(r[column])]
            dates = sum(heads_dates([cell], top.lexicon) for cell in cells)
            if cells and dates >= max(1, len(cells) * 0.6):
                return at, column
            if _are_days_of_a_month(top, rows[:at], cells):
                return at, column
        return None
    return None


def _are_days_of_a_month(top: Top, above: Sequence[Row], cells: Sequence[Cell]) -> bool:
    """Whether cells are weekdays with the numbers of days, `Mon 1`, whose month stands above."""
    texts = [top.sheet.name, *(cell_text(cell) for _, row in above for cell in row)]
    return (
        len(cells) > 2
        and all(re.search(r"[^\W\d_]", cell_text(cell)) for cell in cells)
        and bool(numbered_days([(n, 0, cell) for n, cell in enumerate(cells)], top.lexicon, {}))
        and any(month_in_title(text, top.lexicon) for text in texts)
    )


def _is_place(cell: Cell) -> bool:
    return re.search(_PLACES, fold(cell_text(cell))) is not None


_DUTY = r"\b(?:on[- ]?call|duty|duties|stand-?by|reserve|cover|backup|lead|readers?|stewards?|drivers?|ushers?|wardens?|servers?|cooks?|lookout|watch|keyholder)\b"
"""Headings of posts, of which two side by side are held by the same people in turns."""


def _share_words(head: Sequence[Cell], body: Sequence[Row], columns: Sequence[int]) -> bool:
    """Whether the columns draw on the same few words, which say nothing without their headings: codes and hours, or
    posts, each of which stands in several of three columns or more. Two teams that meet are none of these."""
    if any(fold(cell_text(head[n])).split(" ")[0] in _SIDES for n in columns):
        return False
    seen: dict[str, set[int]] = {}
    count = codes = 0
    for _, row in body:
        for n in columns:
            text = cell_text(row[n]) if n < len(row) else ""
            if text and not is_idle(text) and not looks_like_date(row[n]):
                seen.setdefault("hours" if hours_in(text) is not NOTHING else text.casefold(), set()).add(n)
                codes += is_code(row[n]) or hours_in(text) is not NOTHING
                count += 1
    shared = sum(len(where) > 1 for where in seen.values())
    if codes * 5 >= count * 4:
        return bool(seen) and shared * 2 > len(seen)
    are_posts = all(re.search(_DUTY, fold(cell_text(head[n]))) for n in columns)
    return (len(columns) > 2 or are_posts) and shared * 10 >= len(seen) * 9 and len(seen) * 5 <= count * 3
