"""The columns of a plan's table in a sheet: by their headings, and by what they hold where those say nothing."""

import re
from collections.abc import Iterator, Mapping, Sequence
from typing import Final, TypeAlias

from nomarium.model.cell import Cell
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.columns.headings import in_full
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.codes import weekday_of
from nomarium.school.columncells import MOSTLY, filled_in, mostly
from nomarium.school.coursetitles import settle_coded, settle_titles
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.groupcolumns import SECTIONS, is_name, settle_groups
from nomarium.school.planheads import LESSONS, NOT_ASKED, REQUIRED, field_of, plain
from nomarium.sheets.sheet import Row, cell_text

_HEAD_ROWS: Final = 40
_BODY_ROWS: Final = 300
_HALF: Final = 0.5
_LONGEST_NAME: Final = 60
"""Characters of the longest text that is still a name and no remark."""
_TITLES: Final = frozenset(("title", "name", "titre", "titel"))
"""Headings of what anything is called; `Course title` is that of a class."""
_SESSIONS: Final = frozenset(("session", "sessions", "ampm", "half", "halfday"))
_HALVES: Final = frozenset(("am", "pm", "morning", "afternoon", "evening"))
_CODES: Final = frozenset(("code", "classcode", "coursecode", "courseno", "coursenumber", "subjectcode"))
_COUNTED: Final = frozenset(("students", "pupils", "learners", "apprentices", "eleves", "participants"))
_SPACES: Final = frozenset(("places", "spaces", "seats"))
_DAYS: Final = frozenset(("day", "weekday", "dayofweek", "dayoftheweek", "dow", "jour"))
_HOURS: Final = frozenset(("hours", "hrs", "heures", "stunden", "horas", "uren"))
_SUBJECTS: Final = frozenset(("subject", "department", "prefix"))
_BUILDINGS: Final = frozenset(("building", "campus", "site"))

_MEETS: Final = r"(?:[\w-]{1,6}\s?\([\w,;/ -]{1,40}\)[\s,;]*)+|(?:[A-Z]\d{1,2}[\s,;]+)+[A-Z]\d{1,2}"
_DAYS_AND_PERIODS: Final = (
    r"(?i)(?:(?:(?:(?:day|jour)\s*\w{1,2}\s|[^\W\d_]{2,9}\.?)\s*p(?:er(?:iod)?)?\.?|(?:mon|tues?|wed(?:nes)?|thu(?:rs?)?|fri|satur|sat|sun)(?:day)?\.?\s)"
    r"\s*\d{1,2}(?:\s?[-–]\s?\d{1,2})?[\s,;/&]*)+"
)
_Columns: TypeAlias = dict[str, int]
_Unused: TypeAlias = list[tuple[int, str]]


def columns_of(
    rows: Sequence[Row], name: str, asked: Mapping[str, str] = NOT_ASKED
) -> tuple[int, _Columns, _Unused]:
    """The index of the row of headings of a table (-1: none), the column of each field, and columns of no field."""
    best: tuple[int, int, _Columns, _Unused] = (0, -1, {}, [])
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        columns, unused = by_heading(row, name, asked)
        needed = sum(field in columns for field in REQUIRED[name])
        score = (len(columns) + needed) * 2 - len(unused)
        if columns and score > best[0] and (needed or len(columns) > 1):
            best = (score, at, columns, unused)
    _, at, columns, unused = best
    if at >= 0:
        body = without_remarks(rows[at + 1 : at + 1 + _BODY_ROWS])
        _by_cells(rows[at][1], body, name, columns, unused)
    if not any(field in columns for field in REQUIRED[name]):
        return -1, {}, []
    return at, columns, unused


def without_remarks(rows: Sequence[Row]) -> list[Row]:
    """The rows that are not blank, without lone texts that stand under a blank one below wider rows."""
    found: list[Row] = []
    is_below = is_wide = False
    for one in rows:
        filled = sum(bool(cell_text(cell)) for cell in one[1])
        if filled > 1 or (filled and not (is_below and is_wide)):
            found.append(one)
        is_wide = is_wide or filled > 1
        is_below = filled == 0 or (is_below and filled == 1)
    return found


def by_heading(row: Sequence[Cell], name: str, asked: Mapping[str, str]) -> tuple[_Columns, _Unused]:
    """The columns that a row of headings names, and those that it heads by words of no field."""
    columns: _Columns = {}
    unused: _Unused = []
    for column, cell in enumerate(row):
        text = cell_text(cell)
        field = field_of(text, name, asked)
        if field == "class" and name == "timetable" and field in columns:
            field = _beside_class(cell_text(row[columns["class"]]), text)
        if (
            field == "room"
            and field in columns
            and plain(in_full(cell_text(row[columns["room"]]))) in _BUILDINGS
        ):
            columns["building"] = columns.pop("room")
        if field is not None and field not in columns:
            columns[field] = column
        elif text:
            unused.append((column, text))
    if name == "timetable":
        _section_first(row, columns)
    return columns, unused


def _beside_class(first: str, second: str) -> str:
    """What a second column is that could name the class: the number of a course beside its subject, else its section."""
    is_number = plain(in_full(first)) in _SUBJECTS and "section" not in fold(in_full(second))
    return "number" if is_number else "section"


def _section_first(row: Sequence[Cell], columns: _Columns) -> None:
    """A section left of its course is the section all the same."""
    if "section" in columns and "section" in fold(in_full(cell_text(row[columns["class"]]))):
        columns["class"], columns["section"] = columns["section"], columns["class"]


def _by_cells(
    head: Sequence[Cell], rows: Sequence[Row], name: str, columns: _Columns, unused: _Unused
) -> None:
    """Settle what headings leave open: whether `From` is a date or a time, and which column holds what a table needs."""
    if name == "timetable":
        _settle_edges(rows, columns, unused)
        _settle_periods(head, rows, columns, unused)
        _settle_halves(rows, columns, unused)
        _settle_counts(head, rows, columns, unused)
        settle_titles(head, rows, columns, unused)
        settle_coded(head, rows, columns, unused)
        _settle_sections(head, rows, columns)
        settle_groups(head, rows, columns, unused)
        _settle_meets(rows, columns, unused)
        if (
            "class" not in columns
            and "title" in columns
            and plain(cell_text(head[columns["title"]])) not in _TITLES
        ):
            columns["class"] = columns.pop("title")
    elif name == "bells":
        _settle_bells(head, rows, columns, unused)
    elif name in ("terms", "daysoff"):
        _settle_dates(head, rows, columns, unused)
    if name == "terms":
        _settle_breaks(rows, columns, unused)
    if name in ("daysoff", "specialdays", "cycle"):
        _settle_weekdays(head, rows, name, columns, unused)
    if "time" in columns and are_hours(cell_text(head[columns["time"]]), columns["time"], rows):
        column = columns.pop("time")
        if "start" in columns and "length" not in columns and name == "timetable":
            columns["length"] = column
        else:
            unused.append((column, cell_text(head[column])))


def _settle_edges(rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """`From` and `Starts` over times of day are times, and what beside them is headed as the first day is that; `Start` over
    dates is the first day."""
    for day, time in (("first", "start"), ("last", "end")):
        if day in columns and time not in columns and mostly(rows, columns[day], _is_clock):
            columns[time] = columns.pop(day)
            beside = [
                n
                for n, text in unused
                if field_of(text, "timetable") == day and mostly(rows, n, _is_date_only)
            ]
            if len(beside) == 1:
                _use(day, beside[0], columns, unused)
        elif time in columns and day not in columns and mostly(rows, columns[time], _is_date_only):
            columns[day] = columns.pop(time)


def _is_clock(cell: Cell) -> bool:
    """Whether a cell is a time of day, also one of four figures."""
    return is_time(cell) or re.fullmatch(r"(?:[01]\d|2[0-3])[0-5]\d", cell_text(cell)) is not None


def _is_date_only(cell: Cell) -> bool:
    return looks_like_date(cell) and not is_time(cell)


def _settle_periods(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """`Lesson` and `Module` over `P3` and `4` are the periods; over words they are what is taught."""
    if "period" in columns or not {"class", "title"} & columns.keys():
        return
    third = next((column for column, heading in unused if plain(heading) in LESSONS), -1)
    if third >= 0 and mostly(rows, third, _is_slot):  # beside two that name a class
        _use("period", third, columns, unused)
        return
    weekdays = sum(fold(cell_text(cell)).strip(" .") in ENGLISH.weekdays for cell in head)
    for field in ("class", "section", "number"):
        column = columns.get(field, -1)
        if column >= 0 and plain(cell_text(head[column])) in LESSONS and mostly(rows, column, _is_slot):
            is_beside = "title" in columns or "section" in columns
            if field != "class" or is_beside or weekdays > 1 or len(unused) > 1:  # days, or labels
                columns["period"] = columns.pop(field)
                if field == "class" and "section" in columns:
                    columns["class"] = columns.pop("section")
                    third = next(
                        (at for at, heading in unused if field_of(heading, "timetable") == "class"), -1
                    )
                    if third >= 0:
                        _use(
                            _beside_class(cell_text(head[columns["class"]]), cell_text(head[third])),
                            third,
                            columns,
                            unused,
                        )
            return


def _settle_halves(rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """`Session` over halves of the day, `AM`, `PM`, is the period."""
    at = next((column for column, heading in unused if plain(heading) in _SESSIONS), -1)
    is_open = at >= 0 and not {"period", "time", "start"} & columns.keys()
    if is_open and mostly(rows, at, lambda cell: plain(cell_text(cell)) in _HALVES):
        _use("period", at, columns, unused)


def _is_slot(cell: Cell) -> bool:
    return is_period(cell) or is_break(cell_text(cell))


def _settle_sections(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns) -> None:
    """`Section` over bare numbers beside `Course name` is no class by itself: it tells the classes of a course apart."""
    column = columns.get("class", -1)
    is_section = column >= 0 and plain(in_full(cell_text(head[column]))) in SECTIONS
    if is_section and "title" in columns and mostly(rows, column, _is_number):
        columns["section"] = columns.pop("class")
    second = columns.get("section", -1)
    is_coded = column >= 0 and plain(in_full(cell_text(head[column]))) in _CODES
    is_called = second >= 0 and plain(in_full(cell_text(head[second]))) not in SECTIONS
    if is_coded and is_called and "title" not in columns and mostly(rows, second, is_name):
        columns["title"] = columns.pop("section")  # Code | Class


def _settle_meets(rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """A column of labels and periods together, `1(A,C) 4(B)`, `Mon P1, Wed P3`, whatever heads it, where no other says when."""
    both = (
        field
        for field in ("time", "period", "label")
        if field in columns
        and (
            mostly(
                rows,
                columns[field],
                lambda cell: re.fullmatch(_DAYS_AND_PERIODS, cell_text(cell)) is not None,
            )
            or (field == "time" and mostly(rows, columns[field], _is_meeting))
        )
    )
    if "meets" not in columns and (field := next(both, "")):
        columns["meets"] = columns.pop(field)
    if {"label", "period", "meets", "start", "time"} & columns.keys():
        return
    found = [
        at
        for at, _ in unused
        if mostly(rows, at, lambda cell: re.fullmatch(_MEETS, cell_text(cell)) is not None)
    ]
    if len(found) == 1:
        columns["meets"] = found[0]
        unused[:] = [one for one in unused if one[0] != found[0]]


def _is_meeting(cell: Cell) -> bool:
    """Whether a cell holds labels with their periods, `A1; C2`, or one, which is no time."""
    return re.fullmatch(rf"{_MEETS}|[A-Z]\s?(?i:p(?:eriod)?\s?)?\d{{1,2}}", cell_text(cell)) is not None


def _settle_counts(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """`Students` over bare numbers says how many there are, and is no group; nor is `Places` a room."""
    for field, words in (("group", _COUNTED), ("room", _SPACES)):
        column = columns.get(field, -1)
        if column >= 0 and plain(cell_text(head[column])) in words and mostly(rows, column, _is_number):
            unused.append((columns.pop(field), cell_text(head[column])))
            others = [n for n, text in unused if n != column and field_of(text, "timetable") == field]
            if others:
                _use(field, others[0], columns, unused)


def _is_number(cell: Cell) -> bool:
    return cell_text(cell).isdecimal()


def _settle_bells(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """The periods stand in the only column of names beside the times, whatever heads it, if half of these are numbers or
    letters."""
    times = [columns[field] for field in ("start", "end", "time") if field in columns]
    if "period" in columns or not times or not all(mostly(rows, column, is_time) for column in times):
        return
    named = [columns["name"]] if "name" in columns else list(_names(head, rows, columns))
    if len(named) == 1 and mostly(rows, named[0], is_period, _HALF):
        columns.pop("name", None)
        _use("period", named[0], columns, unused)


def _settle_dates(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """Stretches of days are a column of dates or two, and the only column of names beside them."""
    dated = [n for n in range(len(head)) if mostly(rows, n, looks_like_date)]
    wanted = [field for field in ("first", "last") if field not in columns or columns[field] not in dated]
    for field in wanted:
        other = next((n for n in dated if n not in columns.values()), None)
        if other is not None and (field == "first" or len(dated) > 1):
            if field in columns:
                column = columns.pop(field)
                unused.append((column, cell_text(head[column])))
            _use(field, other, columns, unused)
    if "name" not in columns and len(found := list(_names(head, rows, columns))) == 1:
        _use("name", found[0], columns, unused)


def _settle_breaks(rows: Sequence[Row], columns: _Columns, unused: _Unused) -> None:
    """Dates under `Half term` beside those of a term are days off, in one column or as `Half term starts` and `ends`."""
    breaks = [column for column, text in unused if is_off(text) and mostly(rows, column, looks_like_date)]
    if 0 < len(breaks) < 3:
        for field, column in zip(("off", "offlast"), breaks, strict=False):
            _use(field, column, columns, unused)


def _settle_weekdays(
    head: Sequence[Cell], rows: Sequence[Row], name: str, columns: _Columns, unused: _Unused
) -> None:
    """A column of weekdays beside dates says the same again: each is held against its date."""
    label = columns.get("label", -1)
    others = [column for column, text in unused if field_of(text, name) == "label"]
    if name == "cycle" and others and _are_weekdays(head, rows, label):
        unused.append((label, cell_text(head[label])))
        _use("label", others[0], columns, unused)
    for column, _ in list(unused):
        if "weekday" not in columns and _are_weekdays(head, rows, column):
            _use("weekday", column, columns, unused)


def _are_weekdays(head: Sequence[Cell], rows: Sequence[Row], column: int) -> bool:
    """Whether a column headed `Day` holds the names of weekdays."""
    is_headed = 0 <= column < len(head) and plain(cell_text(head[column])) in _DAYS
    return is_headed and mostly(rows, column, lambda cell: weekday_of(cell_text(cell)) is not None, 1)


def _use(field: str, column: int, columns: _Columns, unused: _Unused) -> None:
    columns[field] = column
    unused[:] = [one for one in unused if one[0] != column]


def _names(head: Sequence[Cell], rows: Sequence[Row], columns: _Columns) -> Iterator[int]:
    """Columns of no field that name their rows: short words, in most rows, neither dates nor times."""
    for column in range(max((len(row) for _, row in rows), default=len(head))):
        cells = [cell for cell in filled_in(rows, column) if not looks_like_date(cell) and not is_time(cell)]
        is_full = len(cells) >= MOSTLY * len(rows)
        if (
            is_full
            and column not in columns.values()
            and max(map(len, map(cell_text, cells)), default=0) <= _LONGEST_NAME
        ):
            yield column


def are_hours(heading: str, column: int, rows: Sequence[Row]) -> bool:
    """Whether a column headed `Hours` holds bare numbers: how many there are, and no time of day."""
    texts = set(map(cell_text, filled_in(rows, column)))
    return (
        plain(heading) in _HOURS
        and bool(texts)
        and all(re.fullmatch(r"\d{1,2}(?:[.,]\d+)?", text) for text in texts)
    )
