"""Which table of a plan a sheet is: by what was said, by its name, else by its headings and cells."""

import re
from collections.abc import Callable, Mapping, Sequence
from pathlib import PurePath
from types import MappingProxyType
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.bellsheets import with_bells_in_rows
from nomarium.school.classforms import classes_in_rows
from nomarium.school.datewords import looks_like_date, read_date
from nomarium.school.daysheets import day_of
from nomarium.school.drawnlines import is_time
from nomarium.school.kind import Kind
from nomarium.school.look import (
    Look,
    are_dates,
    are_lettered_weeks,
    are_numbered_days,
    is_title,
    numbers_days,
    share,
    share_classes,
)
from nomarium.school.planheads import NOT_ASKED, heads_labels, plain
from nomarium.school.plantables import table_name
from nomarium.school.rotation import lists_orders
from nomarium.school.sidebyside import one_below_the_other
from nomarium.school.spankinds import spans_in
from nomarium.sheets.sheet import Sheet, cell_text

_HEAD_ROWS: Final = 40
_MOSTLY: Final = 0.8
_MOST_LABELS: Final = 12

_NAMED: Final[tuple[tuple[str, str], ...]] = (
    ("rotation", r"rotation(?! (?:days?|calendar))|rotating|block (?:schedule|order|plan)"),
    ("cycle", r"letter days?|day letters?|day numbers?|cycle|rotation (?:days?|calendar)|a ?(?:/|&|and|-) ?b (?:days|weeks)|weeks? a ?(?:/|&|and|-) ?b|week (?:types?|letters?|cycle)|day (?:types?|order)"),
    ("bells", r"bells?\b|bell times|daily schedule|period times|lesson times|school day\b|day schedule|hours of (?:the )?day|class times"),
    ("daysoff", r"holidays?|days? off|(?<!\w )off$|closures?|no school|vacations?|breaks?\b|non ?school|conges?|feries|ferien|feiertage|\w*vakanties?|vacances|vacaciones|festivos|feriados|vacanze|ferie\b|ferier|lov\b|lomat|inset\b|(?:staff|teacher) (?:training|development|work) days?|(?:training|closure|p\.?d\.?|in-?service|professional (?:development|learning)) days?"),
    ("terms", r"terms?\b|term dates|semesters?|trimesters?|trimestres?|quarters|halbjahre?|semestres?|cuatrimestres?|trimestri|quadrimestri|periodes?\b|periodos?\b|periodi\b|kwartalen"),
    ("enrolments", r"enrol|registrations?|class members|class lists?|rosters?|students by|choices"),
    ("people", r"staff\b|people|directory|contacts|addresses|teachers"),
    ("names", r"codes?\b|abbreviations|course names|subjects|key\b"),
    ("timetable", r"timetables?|time ?table|classes|meetings|courses|sections|class schedule|master schedule|lessons?|week\b|stundenplan|horario|emploi du temps|horaire"),
)  # fmt: skip
"""Words in a sheet's name, and the table that they hint at."""


def asked_table(sheet: Sheet, tables: Mapping[str, str]) -> str | None:
    """The table that `--table` says a sheet is, "" for one that is left out; None when it does not name the sheet."""
    path = PurePath(sheet.file)
    names = {plain(name) for name in (sheet.name, path.name, path.stem) if name}
    if sheet.name:
        names |= {plain(f"{path.name}/{sheet.name}"), plain(f"{path.stem}/{sheet.name}")}
        names -= {plain(path.name), plain(path.stem)} - {plain(sheet.name)}
    return next((table for named, table in tables.items() if plain(named) in names), None)


def kind_of(
    sheet: Sheet,
    tables: Mapping[str, str] = MappingProxyType({}),
    default: str = "",
    headings: Mapping[str, str] = NOT_ASKED,
) -> Kind:
    """What a sheet is taken for, and why; the `default` where nothing says it. `headings` says what some mean."""
    asked = asked_table(sheet, tables)
    sheet = one_below_the_other(sheet)
    look = Look(sheet, headings)
    if asked is not None:
        return Kind(asked, "as asked", _columns(look, asked))
    named = table_name(sheet.name)
    if named == "terms":
        found = _stretches(look)
        has_days_off = found is not None and found.has_days_off
        columns = found.columns if found is not None and has_days_off else {}
        return Kind(named, "its name", columns, has_days_off)
    if named == "cycle" and "label" not in look.head(named)[1]:
        shown = _columns(look, named)
        return Kind(named, "its name", shown) if shown else Kind("", "nothing in it says so", hint="cycle")
    if named == "lessons" and "title" not in look.head(named)[1] and (found := _timetable(look)) is not None:
        return found  # lessons of a week, and not what each of them is about
    if named == "rotation" and (found := _cycle(look)) is not None:
        return found  # the days of a rotation, and not the order of its blocks
    if named == "bells" and "period" not in look.head(named)[1] and look.draws_classes:
        return Kind("timetable", "a drawn week")  # the order of the blocks, beside the times
    if named is not None:
        return Kind(named, "its name")
    hint = _hinted(sheet)
    chosen: Kind | None = None
    for test in _TESTS:
        kind = test(look)
        if kind is not None and (chosen is None or kind.table == hint):
            chosen = kind
        if chosen is not None and hint in ("", chosen.table):
            break  # what others would say makes no difference, and some look at the whole sheet
    if chosen is None:
        if default:
            return Kind(default, "as asked")
        return Kind("", "nothing in it says so", hint=hint if hint in _NEEDED else "")
    if chosen.table == hint:
        return chosen._replace(why=f"its name and {chosen.why}", other="")
    return chosen


def _hinted(sheet: Sheet) -> str:
    """The table that a sheet's name hints at; the file's name where the sheet's says nothing."""
    if day_of(sheet.name):
        return "timetable"
    for name in (sheet.name, PurePath(sheet.file).stem):
        words = re.sub(r"[_\-]+", " ", fold(name))
        hint = next((table for table, pattern in _NAMED if re.search(rf"\b(?:{pattern})", words)), "")
        if hint:
            return hint
    return ""


_NEEDED: Final = frozenset(("terms", "daysoff", "cycle", "bells", "timetable", "rotation"))
"""Tables without which a calendar is wrong: a sheet whose name hints at one is not passed over."""


def _columns(look: Look, table: str) -> dict[str, int]:
    """The columns of a table that its cells show rather than its headings."""
    if table == "cycle":
        found = _cycle(look)
        return dict(found.columns) if found is not None else {}
    return _of_days(look, table) if table in ("daysoff", "terms") else {}


def _of_days(look: Look, table: str) -> dict[str, int]:
    """The columns of names and of days where the headings of a table do not say them: the only one of words, and a date or two."""
    at, columns = look.head(table)
    if {"name", "first"} <= columns.keys() or look.width < 2:
        return {}
    dates = next(
        filter(None, ([n for n in range(look.width) if are_dates(look, at, n)] for at in range(-1, 10))), []
    )
    words = [n for n in range(look.width) if n not in dates and look.cells(at, n)]
    if not 0 < len(dates) < 3 or len(words) != 1:
        return {}
    return {"name": words[0], **dict(zip(("first", "last"), dates, strict=False))}


def _timetable(look: Look) -> Kind | None:
    """Classes with labels, weekdays or blocks, and periods or times; no dates of single events."""
    if (in_rows := classes_in_rows(look.sheet)) is not None:
        return Kind("timetable", in_rows.why)
    at, columns = look.head("timetable")
    if at < 0 or "class" not in columns or not look.cells(at, columns["class"]):
        return None
    when = [columns[field] for field in ("label", "period", "meets", "start", "time") if field in columns]
    of_dates = [column for column in range(look.width) if are_dates(look, at, column)]
    edges = {columns[field] for field in ("first", "last") if field in columns}
    if not when or set(of_dates) - edges or not any(look.cells(at, column) for column in when):
        return None
    if _draws_lessons(look):
        return None
    if {"label", "meets"}.isdisjoint(columns):
        periods = look.cells(at, columns["period"]) if "period" in columns else []
        if not periods or all(map(is_time, periods)):  # slots of one day
            return None
    return Kind("timetable", "classes with their days and periods or times")


def draws_lessons(sheet: Sheet, headings: Mapping[str, str]) -> bool:
    """Whether a sheet whose headings are those of a list of classes is a drawn week all the same."""
    return _draws_lessons(Look(one_below_the_other(sheet), headings))


def _draws_lessons(look: Look) -> bool:
    """Whether Lesson and Time head the lines of a drawn week, under whose days the same classes stand: looked for before the week
    is, which asks for the whole sheet."""
    at, columns = look.head("timetable")
    return at >= 0 and share_classes(look, at, columns) and look.is_drawn_week


def _drawn(look: Look) -> Kind | None:
    """A week drawn with weekdays or labels across or down, and periods or times."""
    full = [row for _, row in look.rows if len(list(filter(cell_text, row))) > 1]  # a title may say dates
    if any(looks_like_date(cell) and not is_time(cell) for row in full for cell in row) or numbers_days(full):
        return None
    return Kind("timetable", "a drawn week") if look.is_drawn_week else None


def _rotation(look: Look) -> Kind | None:
    """Labels and periods with the block that meets then; or labels with the order of their blocks."""
    if lists_orders(look.sheet):
        return Kind("rotation", "labels with the order of their blocks")
    at, columns = look.head("rotation")
    if at < 0 or len(columns) < 3 or len(set(columns.values())) < 3:
        return None
    return Kind("rotation", "labels and periods with their blocks")


def _bells(look: Look) -> Kind | None:
    """Periods with a start and an end, or with several; no dates, no classes."""
    if with_bells_in_rows(look.sheet) is not look.sheet and not look.draws_classes:
        return Kind("bells", "periods with times for several kinds of day")
    at, columns = look.head("bells")
    if (
        at < 0
        or "period" not in columns
        or not (
            {"start", "end"} <= columns.keys() or {"start", "length"} <= columns.keys() or "time" in columns
        )
    ):
        return None
    times = [columns[field] for field in ("start", "end", "time") if field in columns]
    if any(share(look.cells(at, column), is_time) < _MOSTLY for column in times):
        return None
    of_classes = look.head("timetable")[1].get("class", columns["period"])
    if of_classes != columns["period"] or any(are_dates(look, at, n) for n in range(look.width)):
        return None
    if look.is_drawn_week or share_classes(look, at, columns):
        return None  # a period and a time begin the lines of a drawn week, too
    return Kind("bells", "periods with a start and an end")


def _cycle(look: Look) -> Kind | None:
    """A date a row, and a column of few short labels that come back."""
    for at in range(-1, min(len(look.rows), 10)):
        dates = next((n for n in range(look.width) if are_dates(look, at, n)), None)
        if dates is None:
            continue
        cells = look.cells(at, dates)
        if not looks_like_date(cells[0]) or is_title(look.rows[at + 1][1]):
            continue  # a heading, or a title, stands above the first date
        are_weeks = re.search(r"(?i)\bw\s?/\s?[bc]\b|\bweeks?\b", look.heading(at, dates)) is not None
        others = [n for n in range(look.width) if n != dates and look.cells(at, n)]
        told = [
            n
            for n in others
            if heads_labels(look.heading(at, n))
            or are_lettered_weeks(look, at, n)
            or are_numbered_days(look.cells(at, n))
        ]
        least = 2 if are_weeks or told or _hinted(look.sheet) == "cycle" else 6
        if len(cells) < least or len(set(map(cell_text, cells))) < len(cells):
            return None
        if any(share(look.cells(at, n), is_time) > 0.5 for n in others) or len(others) > 4:
            return None
        labels = [n for n in others if _are_labels(look.cells(at, n), len(cells), n in told, are_weeks)]
        labels = [n for n in labels if n in told] or labels
        if len(labels) == 1:
            return Kind(
                "cycle", "a date a row, and few labels that come back", {"date": dates, "label": labels[0]}
            )
        return None
    return None


def _specials(look: Look) -> Kind | None:
    """A date a row, and the weekday whose timetable it has, which is mostly another than its own: `14 Oct`, `Monday`."""
    for at in range(-1, min(len(look.rows), 10)):
        dates = next((n for n in range(look.width) if are_dates(look, at, n)), None)
        if dates is None or not looks_like_date(look.cells(at, dates)[0]):
            continue
        days = [(_weekday_of(row[dates]), row) for _, row in look.rows[at + 1 :] if dates < len(row)]
        for n in range(look.width):
            codes = WeekdayCodes(look.cells(at, n) if n != dates else (), ENGLISH)
            read = [(own, codes.read(row[n])) for own, row in days if n < len(row) and cell_text(row[n])]
            if codes.are_days and all(
                own is not None and (own,) != said and len(said) == 1 for own, said in read
            ):
                columns = {"first": dates, "label": n}
                return Kind("specialdays", "a date a row, and another weekday than its own", columns)
        return None
    return None


def _weekday_of(cell: Cell) -> int | None:
    """The weekday of a date that is beyond doubt."""
    moment = read_date(cell)
    readings = moment.first.readings if isinstance(moment, Moment) and moment.first is not None else ()
    days = {day for one in readings if one.year is not None and (day := one.date()) is not None}
    return days.pop().weekday() if len(days) == 1 else None


def _are_labels(cells: Sequence[Cell], count: int, is_told: bool, are_of_weeks: bool) -> bool:
    """Whether cells are few short labels that come back, of weeks perhaps only one of them; where a heading `is_told` to be
    that of labels, they need not."""
    texts = [text for text in map(cell_text, cells) if not is_idle(text) and not is_off(text)]
    few = set(map(plain, texts))
    come_back = is_told or len(few) * (1 if are_of_weeks else 2) <= len(texts) - are_of_weeks
    if not 2 <= len(few) <= _MOST_LABELS or not come_back or len(texts) * 2 < count:
        return False
    short = all(
        len(re.sub(r"(?i)\b(?:day|jour|cycle|week|letter)\b", "", text).strip()) <= 8 for text in texts
    )
    return short and not WeekdayCodes(texts, ENGLISH).are_days


def _stretches(look: Look) -> Kind | None:
    return spans_in(look, _hinted(look.sheet))


def _enrolments(look: Look) -> Kind | None:
    """Persons beside classes, and nothing that says when."""
    at, columns = look.head("enrolments")
    if at < 0 or not {"person", "class"} <= columns.keys() or columns["person"] == columns["class"]:
        return None
    if any(are_dates(look, at, n) or share(look.cells(at, n), is_time) > 0.5 for n in range(look.width)):
        return None
    _, timed = look.head("timetable")
    return (
        None
        if timed.keys() & {"label", "period", "meets", "start", "time"}
        else Kind("enrolments", "persons beside classes")
    )


def _people(look: Look) -> Kind | None:
    at, columns = look.head("people")
    if at < 0 or not {"name", "email"} <= columns.keys():
        return None
    is_address = share(look.cells(at, columns["email"]), lambda cell: "@" in cell_text(cell))
    return Kind("people", "names with their addresses") if is_address >= _MOSTLY else None


def _names(look: Look) -> Kind | None:
    at, columns = look.head("names")
    if at < 0 or not {"code", "name"} <= columns.keys():
        return None
    return Kind("names", "codes beside longer names")


_TESTS: Final[tuple[Callable[[Look], Kind | None], ...]] = (
    _timetable, _rotation, _bells, _cycle, _specials, _stretches, _enrolments, _people, _drawn, _names,
)  # fmt: skip
"""In the order in which they win, where a sheet's name hints at none."""
