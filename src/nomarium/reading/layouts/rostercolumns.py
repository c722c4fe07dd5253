"""The columns of a roster with dates down: names, posts, parts of the day, places or weekdays, and what stands beside them."""

import re
from collections.abc import Collection, Mapping, Sequence, Set
from itertools import takewhile
from types import MappingProxyType
from typing import Final, Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.wording import listed
from nomarium.reading.cells.people import PERSON
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import SESSION_HEADINGS, match_exactly, normal
from nomarium.reading.columns.whenwords import is_before_start
from nomarium.reading.layouts.codes import hours_in
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosterslots import is_session
from nomarium.reading.layouts.rostertimes import SAY_WHERE, are_times
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.layouts.turns import DUTY, OF_PEOPLE, is_called_rota, share_words
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, cell_text, column_texts

_PLACES = (
    r"\b(?:room|rm|loft|shed|hall|slip|court|pitch|field|lab|studio|gym|pool|stage|track|table|kitchen|library|chapel|yard|dock|pier|berth|"
    r"bay|rink|theatre|salle|raum|saal|aula|zaal|lokaal|sala|halle|platz|terrain|veld)\b"
)

_TELEPHONE: Final = r"(?=(?:\D*\d){7})[+(\d][\d ()./+-]+|[$€£]\s?\d[\d.,]*|\d[\d.,]*\s?[$€£]"
_OF_NO_KIND: Final = frozenset("description url uid status reminder duration priority color geo".split())
"""Fields that make no category of what stands beside a name."""


class RosterColumns(NamedTuple):
    """What the columns of a roster with dates down are."""

    slots: tuple[int, ...]
    kind: Literal["names or posts", "places", "parts of the day", "weekdays"]
    time: int | None
    end: int | None
    part: int | None = None
    """Where each row says the part of its day, `Early`, `Late`."""
    place: int | None = None
    """Where each row says the place."""
    weekdays: Mapping[int, int] = MappingProxyType({})
    """The weekday, 0 for Monday, of each column, where all are of one in the week of a row."""


def columns_of(
    top: Top, above: Sequence[Row], head: Sequence[Cell], body: Sequence[Row], date_at: int
) -> RosterColumns | None:
    """The columns of a row of headings, where what stands under several of them is of one kind. `above`: the rows over
    the headings, which may call it a rota."""
    fields = {
        n: match.field if (match := match_exactly(cell_text(cell))) else "" for n, cell in enumerate(head)
    }
    fields[date_at] = "date"
    fields |= {n: "" for n in fields if is_before_start(cell_text(head[n])) and not _has_times(body, n)}
    time = next((n for n, field in fields.items() if field in ("time", "start")), None)
    if time is None:  # a *Slot* or *Session* that says no more than when
        halves = (n for n, cell in enumerate(head) if normal(cell_text(cell)) in SESSION_HEADINGS)
        time = next((n for n in halves if are_times(body, n)), None)
    starts = _starts_beside(head, body, date_at) if time is None else None
    time = starts if time is None else time
    end = next((n for n, field in fields.items() if field == "end"), None)
    if time is None:
        time, end = _unheaded_times(head, body, date_at, end)
    beside = [n for n in fields if n not in (date_at, time, end)]
    part = next(
        (n for n in beside if _says_parts(body, n, cell_text(head[n]) if n < len(head) else "")), None
    )
    numbered = {n for n in beside if _are_numbers(body, n)}
    reaching = {n for n in beside if n not in numbered and _reach_somebody(body, n)}
    if len(numbered) + len(reaching) < len(beside):  # else people are called by their addresses
        numbered |= reaching
    columns = tuple(
        n for n, cell in enumerate(head)
        if n not in (date_at, time, end, part) and n not in numbered and cell_text(cell) and not _are_weekdays(top, body, n) and any(n < len(row) and cell_text(row[n]) for _, row in body)
        and (fields[n] in ("", "summary", "period", "location", "room") or is_session(cell) or _is_place(cell))
    )  # fmt: skip
    columns = _with_posts_of_people(_without_day_names(head, columns), head, fields, body)
    if top.options.layout == "roster":
        names = {cell_text(row[n]) for _, row in body for n in columns if n < len(row)} - {""}
        people = (n for n in beside if n not in (part, *numbered) and _are_people(body, n, names))
        columns = tuple(sorted({*columns, *people}))
    if len(columns) < 2:
        return None
    place = next((n for n in columns if fields[n] in ("location", "room")), None)
    sessions = tuple(n for n in columns if n != place)
    duties = [n for n in sessions if not is_session(head[n]) and re.search(DUTY, fold(cell_text(head[n])))]
    are_parts = all(is_session(head[n]) or n in duties for n in sessions)
    known_time = (
        None if starts is not None else time
    )  # beside places and parts of the day it may be anything's
    if len(sessions) - len(duties) > 1 and are_parts:
        return RosterColumns(sessions, "parts of the day", known_time, end, part, place)
    if sum(_is_place(head[n]) for n in columns) * 2 > len(columns):
        places = tuple(n for n in columns if _is_place(head[n]) or not are_times(body, n))
        return RosterColumns(places, "places", known_time, end, part)
    place = _place_of_rows(head, body, columns)
    columns = tuple(n for n in columns if n != place)
    weekdays = {n: day for n in columns if (day := _weekday_of(top, cell_text(head[n]))) is not None}
    if len(weekdays) == len(columns) and len(set(weekdays.values())) > 1:
        return RosterColumns(columns, "weekdays", time, end, part, place, weekdays)
    if top.options.layout == "roster" or share_words(head, body, columns, is_called_rota(top.sheet, above)):
        return RosterColumns(columns, "names or posts", time, end, part, place)
    return None


def _place_of_rows(head: Sequence[Cell], body: Sequence[Row], columns: Sequence[int]) -> int | None:
    """The column that says where each row is, `Location`, and names nobody who stands under another."""
    for n in columns if len(columns) > 1 else ():
        if normal(cell_text(head[n])) in SAY_WHERE:
            others = {cell_text(row[m]) for _, row in body for m in columns if m != n and m < len(row)} - {""}
            return None if _are_people(body, n, others) else n
    return None


def _are_people(body: Sequence[Row], column: int, names: Set[str]) -> bool:
    """Whether all that stands in a column is names of people, or some of it is among the `names` of other columns: whatever its
    heading, it is their duty."""
    texts = column_texts(body, column)
    return bool(texts) and (not names.isdisjoint(texts) or all(re.fullmatch(PERSON, text) for text in texts))


def _has_times(body: Sequence[Row], column: int) -> bool:
    """Whether some cell of a column says a time: nobody's name under *Doors* does."""
    return any(column < len(row) and time_of(row[column]) is not NOTHING for _, row in body)


def _with_posts_of_people(
    columns: tuple[int, ...], head: Sequence[Cell], fields: Mapping[int, str], body: Sequence[Row]
) -> tuple[int, ...]:
    """The columns, and those of people half of whom stand under the others, too: a post, to be held in turns. So is each of several
    with one heading."""

    def said(n: int) -> set[str]:
        return set(column_texts(body, n))

    others = set[str]().union(*map(said, columns))
    posts = [n for n, field in fields.items() if field in OF_PEOPLE and n not in columns and said(n)]
    called = [fold(cell_text(cell)) for cell in head]
    named = {
        called[n] for n in posts if called.count(called[n]) > 1 or len(said(n) & others) * 2 >= len(said(n))
    }
    return tuple(sorted({*columns, *(n for n in posts if called[n] in named)}))


def _starts_beside(head: Sequence[Cell], body: Sequence[Row], date_at: int) -> int | None:
    """The column right of the dates that alone holds times, and no ends, whatever it is called: `Service` over `10.30am`. Hours of
    people have ends."""
    timed = [n for n in range(len(head)) if n != date_at and are_times(body, n)]
    if timed != [date_at + 1] or not cell_text(head[date_at + 1]):
        return None
    times = [time_of(row[date_at + 1]) for _, row in body if date_at + 1 < len(row)]
    return date_at + 1 if all(time.end is None for time in times) else None


def _unheaded_times(
    head: Sequence[Cell], body: Sequence[Row], date_at: int, end: int | None
) -> tuple[int | None, int | None]:
    """The columns without a heading right of the dates that hold times and nothing else: the first, and the end where there is a
    second."""
    blank = takewhile(lambda n: not cell_text(head[n]), range(date_at + 1, len(head)))
    timed = [n for n in blank if are_times(body, n)]
    first, second, *_ = [*timed, None, None]
    return first, second if end is None else end


def says_of_no_kind(heading: Cell, body: Sequence[Row], column: int) -> bool:
    """Whether a column beside names says of what kind nobody is: notes, addresses, telephones, and numbers with a heading."""
    texts = column_texts(body, column)
    match = match_exactly(cell_text(heading))
    has_letters = any(any(map(str.isalpha, text)) for text in texts)
    is_of_none = match is not None and match.field in _OF_NO_KIND
    return is_of_none or (not has_letters and bool(cell_text(heading))) or any("@" in text for text in texts)


def unused_columns(
    top: Top, head: Sequence[Cell], body: Sequence[Row], used: Collection[int | None]
) -> dict[int, str]:
    """The columns that hold something and are none of those used, and how they are called: by their headings, or by their letters."""
    filled = {n for _, row in body for n, cell in enumerate(row) if cell_text(cell) and n not in used}
    headings = {n: text for n, cell in enumerate(head) if (text := cell_text(cell))}
    offset = top.sheet.first_column
    return {n: f"“{headings[n]}”" if n in headings else column_letter(n + offset) for n in sorted(filled)}


def unused_told(top: Top, row: int, headings: Sequence[str]) -> list[Problem]:
    """A note of the columns that hold something and are no part of the roster."""
    if not headings:
        return []
    unique = list(dict.fromkeys(headings))
    message = f"Not used: the column{'s' if len(unique) > 1 else ''} {listed(unique)}."
    return [note("column-unused", message).at(top.sheet.place(row))]


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
    texts = column_texts(body, column)
    return bool(texts) and all(text.isdecimal() for text in texts)


def _reach_somebody(body: Sequence[Row], column: int) -> bool:
    """Whether what stands in a column is telephones, addresses or prices: nobody's duty."""
    texts = column_texts(body, column)
    if any(re.fullmatch(r"\S+@\S+\.\S+", text) for text in texts):
        return True
    return bool(texts) and all(
        re.fullmatch(_TELEPHONE, text) and time_of(text) is NOTHING and not looks_like_date(text)
        for text in texts
    )


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
    texts = [part_of(cell_text(row[column]) if column < len(row) else "", heading) for _, row in body]
    if not all(map(is_session, texts)) or len(set(texts)) < 2:
        return False
    others = (
        cell for _, row in body for n, cell in enumerate(row) if n != column and not looks_like_date(cell)
    )
    are_hours = all(hours_in(text) is not NOTHING for text in texts)
    return not are_hours or all(hours_in(cell_text(cell)) is NOTHING for cell in others)  # else somebody's


def part_of(text: str, heading: str) -> str:
    """What a cell calls its part of the day: a number with the heading before it, `Session 2`."""
    return f"{heading} {text}" if text.isdecimal() else text


def _is_place(cell: Cell) -> bool:
    return re.search(_PLACES, fold(cell_text(cell))) is not None
