"""Dated rows of a plan that name a period and no time, `8 December, AM, Knots`: they have the times of its bells."""

from collections.abc import Iterator, Sequence
from functools import partial
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.school.bells import Bell, Bells
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnlines import is_time
from nomarium.school.planheads import field_of, plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_PERIODS: Final = frozenset(("session", "sessions", "sitting", "part", "lesson"))
"""What heads the periods of dated rows, beside the headings of a timetable's."""


def with_times(sheet: Sheet, bells: Bells, notes: list[Problem]) -> Sheet:
    """The sheet with the start and the end of each row's period in columns of their own, where its rows have a date, a period
    that the bells know, and no time, and the bells are the same on every day; any other as it is."""
    if len(bells.sets) != 1:
        return sheet
    rung = next(iter(bells.sets.values()))
    rows = list(sheet.rows())
    for at, (number, row) in enumerate(rows[:_HEAD_ROWS]):
        named = [n for n, cell in enumerate(row) if _heads_periods(cell_text(cell))]
        below = [under for _, under in rows[at + 1 :] if any(map(looks_like_date, under))]
        if len(named) != 1 or not below or any(is_time(cell) for under in below for cell in under):
            continue
        periods = [cell_text(under[named[0]]) if named[0] < len(under) else "" for under in below]
        if not any(periods) or any(text and not _bells_of(text, bells, rung) for text in periods):
            return sheet
        message = f"The times of the rows are those of the bells: “{row[named[0]]}” names the period."
        notes.append(note("period-times", message).at(sheet.place(number, named[0])))
        return sheet._replace(read_rows=partial(_timed, rows, at, named[0], bells, rung))
    return sheet


def _heads_periods(heading: str) -> bool:
    return plain(heading) in _PERIODS or field_of(heading, "timetable") == "period"


def _bells_of(text: str, bells: Bells, rung: dict[str, Bell]) -> list[Bell]:
    """The bells of the periods that a cell names; none where one of them does not ring."""
    codes = bells.periods.read(text) if text else ()
    if isinstance(codes, Refusal):
        return []
    found = [rung[code] for code in codes if code in rung]
    return found if len(found) == len(codes) else []


def _timed(rows: Sequence[Row], at: int, column: int, bells: Bells, rung: dict[str, Bell]) -> Iterator[Row]:
    width = max(len(row) for _, row in rows)
    for n, (number, row) in enumerate(rows):
        wide = [*row, *([""] * (width - len(row)))]
        if n <= at:
            yield number, [*wide, *(("Start", "End") if n == at else ("", ""))]
            continue
        found = _bells_of(cell_text(wide[column]), bells, rung) if any(map(looks_like_date, row)) else []
        times = (_clock(found[0].start_secs), _clock(found[-1].end_secs)) if found else ("", "")
        yield number, [*wide, *times]


def _clock(secs: int) -> str:
    return f"{secs // 3600:02}:{secs // 60 % 60:02}"
