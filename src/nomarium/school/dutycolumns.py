"""Duties down, weekdays across, or the other way: in each cell who has the duty, a roster that comes back every week."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.drawnheads import days_across
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of, plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_TOP_ROWS: Final = 300
_TITLE_ROWS: Final = 5
_DUTIES: Final = frozenset(
    "duty duties post posts role roles job jobs task tasks station stations supervision aufsicht dienst surveillance rota roster cover".split()
)
_TIME: Final = r"\d{1,2}[:.h]\d\d(?:\s?[ap]\.?m\.?)?"
_WITH_TIME: Final = rf"(?i)(?P<name>.*?[^\W\d].*?)[\s(,:–-]+(?P<time>{_TIME}(?:\s*(?:-|–|to)\s*{_TIME})?)\)?"
_PARTED: Final = r"\s*(?:[/,&;\n]|\band\b)\s*"
_HEADINGS: Final = ("Class", "Teacher", "Day", "Time", "Start", "End", "Room")


class _Head(NamedTuple):
    at: int
    duty: int
    days: Mapping[int, str]
    times: Mapping[str, int]
    """The columns of times, by their field."""
    room: int
    """The column of where it is; -1 for none."""


def duties_in_rows(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each duty that somebody has on a weekday, with its time; None where it is no such roster, or one
    of its duties has no time."""
    rows = list(islice(sheet.rows(), _TOP_ROWS + 1))
    head = _head_of(rows) if len(rows) <= _TOP_ROWS else None
    if head is None and len(rows) <= _TOP_ROWS and _is_of_duties(sheet, rows):
        rows = _turned(rows)
        head = _head_of(rows)
    if head is None:
        return None
    below = [row for _, row in rows[head.at + 1 :] if sum(map(bool, map(cell_text, row))) > 1]
    if not below or not all(_name_and_times(row, head)[1] for row in below):
        return None
    return sheet._replace(read_rows=partial(_in_rows, rows, head), merged=())


def _is_of_duties(sheet: Sheet, rows: Sequence[Row]) -> bool:
    """Whether the name of a sheet, or what stands above it or in its corner, says that it is of duties."""
    texts = [sheet.name, *(cell_text(cell) for _, row in rows[:_TITLE_ROWS] for cell in row[:1])]
    return any(_DUTIES & set(re.findall(r"[^\W\d_]+", fold(text))) for text in texts)


def _turned(rows: Sequence[Row]) -> list[Row]:
    """Weekdays down and duties across, with rows and columns exchanged; the rows as they are where they are no such roster."""
    for at, (number, row) in enumerate(rows[:_HEAD_ROWS]):
        duties = [n for n, cell in enumerate(row) if n and re.fullmatch(_WITH_TIME, cell_text(cell))]
        below = [one for _, one in rows[at + 1 :] if any(map(cell_text, one))]
        days = days_across({n: cell_text(one[0]) for n, one in enumerate(below) if cell_text(one[0])})
        if (
            len(duties) > 1
            and len(days) == len(below) > 1
            and len(duties) == sum(map(bool, map(cell_text, row[1:])))
        ):
            head: Row = (number, ["Duty", *(cell_text(one[0]) for one in below)])
            return [
                head,
                *((number, [row[n], *(one[n] if n < len(one) else "" for one in below)]) for n in duties),
            ]
    return list(rows)


def _head_of(rows: Sequence[Row]) -> _Head | None:
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        texts = {n: text for n, cell in enumerate(row) if (text := cell_text(cell))}
        duties = [n for n, text in texts.items() if plain(text) in _DUTIES]
        days = days_across(texts)
        times = {
            field: n
            for n, text in texts.items()
            if (field := field_of(text, "timetable")) in ("time", "start", "end")
        }
        rooms = [n for n, text in texts.items() if n not in days and field_of(text, "timetable") == "room"]
        others = len(texts) - len(days) - len(times) - len(rooms[:1])
        if len(duties) == 1 == others and len(days) > 1:
            room = next(iter(rooms), -1)
            return _Head(at, duties[0], days, {str(field): n for field, n in times.items()}, room)
    return None


def _name_and_times(row: Sequence[Cell], head: _Head) -> tuple[str, dict[str, Cell]]:
    """What a duty is called, and its times by their field; none where nothing says them."""
    text = cell_text(row[head.duty]) if head.duty < len(row) else ""
    times = {field: row[n] for field, n in head.times.items() if n < len(row) and is_time(row[n])}
    if times:
        return text, times
    within = re.fullmatch(_WITH_TIME, text)
    return (within["name"], {"time": within["time"]}) if within is not None else (text, {})


def _in_rows(rows: Sequence[Row], head: _Head) -> Iterator[Row]:
    for n, (number, row) in enumerate(rows):
        if n == head.at:
            yield number, list(_HEADINGS)
            continue
        held = {m: text for m in head.days if m < len(row) and (text := cell_text(row[m]))}
        if n < head.at or not held:
            yield number, [cell for cell in row if cell_text(cell)][: len(_HEADINGS)]
            continue
        name, times = _name_and_times(row, head)
        for m, who in held.items():
            title = who if is_idle(who) else f"{name}: {' '.join(who.split())}"
            people = "; ".join(filter(None, re.split(_PARTED, who)))
            room = row[head.room] if 0 <= head.room < len(row) else ""
            yield (
                number,
                [title, people, head.days[m], *(times.get(f, "") for f in ("time", "start", "end")), room],
            )
