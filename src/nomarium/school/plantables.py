"""The tables of a plan: which sheet is which, where its columns are, its rows with their places."""

import re
from collections.abc import Iterable, Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import listed, nearest
from nomarium.reading.cells.bookkeeping import is_bookkeeping
from nomarium.reading.cells.offwords import changes_bells, is_off, is_term
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.columns.whenwords import speaks_of_when
from nomarium.school.calledoff import said_off
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnlines import is_time
from nomarium.school.plancolumns import are_hours, by_heading, columns_of
from nomarium.school.planheads import HEADINGS, NOT_ASKED, REQUIRED, plain
from nomarium.school.saidabove import said_above, told_above
from nomarium.sheets.sheet import Row, Sheet, cell_text, column_texts, is_blank

TITLES = {
    "settings": "Settings", "terms": "Terms", "daysoff": "Days off", "cycle": "Cycle", "specialdays": "Special days",
    "bells": "Bells", "timetable": "Timetable", "rotation": "Rotation", "names": "Names", "people": "People",
    "enrolments": "Enrolments", "lessons": "Lessons", "events": "Events",
}  # fmt: skip
"""Each table's name as people write it; `events` is read as an event list."""

_OF_DATES = frozenset(("repeat", "repeat-times", "repeat-until", "except", "also-on", "cancelled"))
"""Fields of a list that say on which dates a row is held."""

_ORDER = re.compile(r"[A-Za-z0-9]{1,3}(?:[-–, ]+[A-Za-z0-9]{1,3})+")
"""The blocks of a day in their order, `3-1-2`."""

_MARKS = frozenset("*†‡•·#(")
"""What remarks begin with."""

_TERM = r"(?i)(?:[sqth][1-4]|[1-4](?:st|nd|rd|th)? (?:sem|qtr|tri)\w*|(?:sem|qtr|tri)\w* ?[1-4]|fy|yr|full year|fall|autumn|winter|spring|summer)(?: ?\d{4})?"
"""A term by its code, `S1` or `FY`."""

_OF_THE_YEAR = frozenset(("terms", "daysoff", "specialdays", "bells"))
"""Tables in which every column of dates or times counts."""

EXPLANATION = "How to fill it in"
"""The sheet of a starter file that holds words for people only."""

_OTHER_NAMES = {
    "term": "terms", "holidays": "daysoff", "dayoff": "daysoff", "specialday": "specialdays", "bellschedule": "bells",
    "bellschedules": "bells", "classes": "timetable", "setting": "settings", "event": "events",
    "lesson": "lessons", "cycles": "cycle", "timetables": "timetable", "enrolment": "enrolments", "enrollments": "enrolments",
    "enrollment": "enrolments", "rotations": "rotation",
}  # fmt: skip


class Item(NamedTuple):
    """A row of a plan table: its cells by field, and where it stands."""

    table: "Table"
    number: int
    cells: dict[str, Cell]

    def text(self, field: str) -> str:
        """A cell as text, blank when the table has no such column."""
        return cell_text(self.cells.get(field, ""))

    def place(self, field: str = "") -> Place:
        """Where the cell of a field is, or the row."""
        column = self.table.columns.get(field)
        heading = self.table.headings.get(field, "")
        return self.table.sheet.place(self.number, column, heading)

    def problem(self, code: str, field: str, message: str, remedy: str = "") -> Problem:
        """A problem of one cell of this row."""
        return Problem(code, message, remedy, self.place(field), self.text(field))

    @property
    def called(self) -> str:
        """The row as messages name it: `Days off, row 4`."""
        return f"{TITLES.get(self.table.name, self.table.name)} row {self.number}"


class Table(NamedTuple):
    """One table of a plan, found and cut into rows."""

    name: str
    sheet: Sheet
    columns: dict[str, int]
    """Field → 0-based column within the rows."""
    headings: dict[str, str]
    items: list[Item]
    account: Account
    is_of_cells: bool = False
    """Whether each item is a cell of a drawing, and all its fields stand in it."""


def table_name(sheet_name: str) -> str | None:
    """The plan table that a sheet's name is, `timetable:NAME` for a person's or room's grid, or None."""
    known = plain(sheet_name)
    known = _OTHER_NAMES.get(known, known)
    if known in TITLES:
        return known
    match = re.fullmatch(r"(?i)\s*timetable\s*(?:-|–|—|:)\s*(.+?)\s*", sheet_name)
    return f"timetable:{match[1]}" if match else None


def table_title(name: str) -> str:
    """A table's name as people write it; a dash for none."""
    return TITLES.get(name.partition(":")[0], "–") if name else "–"


def near_table(sheet_name: str) -> str:
    """The table that a sheet's name may have been meant for, or nothing."""
    near = nearest(plain(sheet_name), [*TITLES, *_OTHER_NAMES], 0.7)
    return TITLES[_OTHER_NAMES.get(near, near)] if near else ""


def is_plan(names: Iterable[str], is_folder: bool = False) -> bool:
    """Whether sheets of these names are a plan. A folder is one as soon as it has something to put on a
    calendar; a workbook must look more like one, since many have a sheet called Events or Timetable."""
    tables = {(table_name(name) or "").partition(":")[0] for name in names} - {""}
    if is_folder or "cycle" in tables:
        return bool(tables & {"timetable", "cycle", "events"})
    year = tables & {"terms", "bells", "specialdays"}
    return bool(year and tables & {"timetable", "events"}) or {"timetable", "daysoff", "settings"} <= tables


def cut_table(
    sheet: Sheet,
    name: str,
    known: Mapping[str, int] = MappingProxyType({}),
    asked: Mapping[str, str] = NOT_ASKED,
) -> tuple[Table, list[Problem], list[Problem]]:
    """Cut a sheet into the rows of a plan table; `known` are columns that its cells show, whatever heads them, `asked` what headings mean. Gives the
    problems and the notes with it."""
    rows = list(sheet.rows())
    title = TITLES.get(name, name.capitalize())
    account = Account(f"{sheet.file}, {title}", is_plan=True)
    at, columns, ignored = columns_of(rows, name, asked)
    if known:
        dated = known.get("date", known.get("first", -1))
        if at < 0 and dated >= 0 and (at := _above_dates(rows, dated)) >= 0:
            columns, ignored = by_heading(rows[at][1], name, asked)
        columns = {f: c for f, c in columns.items() if f not in known and c not in known.values()} | dict(
            known
        )
        ignored = [(column, heading) for column, heading in ignored if column not in known.values()]
    head = rows[at][1] if at >= 0 else []
    headings = {field: cell_text(head[column]) for field, column in columns.items() if column < len(head)}
    table = Table(name, sheet, columns, headings, [], account)
    if (at < 0 and not known) or any(field not in columns for field in REQUIRED[name]):
        if all(is_blank(row) for _, row in rows):
            return table, [], [note("plan-table-blank", f"The {title} sheet is blank.").at(sheet.place())]
        missing = [HEADINGS[name][field].split(", ")[0] for field in REQUIRED[name] if field not in columns]
        message = f"{title} has no column {' and no column '.join(f'“{one}”' for one in missing)}."
        there = ", ".join(HEADINGS[name][field].split(", ")[0] for field in HEADINGS[name])
        return (
            table,
            [Problem("plan-column-missing", message, f"Its columns are {there}.", sheet.place())],
            [],
        )
    unheard, notes = _passed_over(table, rows, at, ignored, asked)
    said = said_above(rows[: max(at, 0)], columns) if name == "timetable" else {}
    if said:
        notes.append(told_above(sheet, rows[0][0], said))
    remarks = _cut_rows(table, rows, at, said)
    if name == "timetable":
        free = [column for column, heading in ignored if plain(heading) not in asked]
        unheard += _called_off(table, free)
    if remarks:
        notes.append(_remarks_told(sheet, remarks))
    return table, unheard, notes


def _passed_over(
    table: Table, rows: Sequence[Row], at: int, ignored: Sequence[tuple[int, str]], asked: Mapping[str, str]
) -> tuple[list[Problem], list[Problem]]:
    """The problems of the columns that a table has no use for, and the notes of those that are passed over."""
    sheet, name, columns, headings = table.sheet, table.name, table.columns, table.headings
    unheard, notes = list[Problem](), list[Problem]()
    for column, heading in ignored:
        twin = next((columns[f] for f, text in headings.items() if plain(text) == plain(heading)), None)
        if twin is not None and _differ(rows[at + 1 :], twin, column):
            unheard.append(_twice(sheet, rows[at][0], column, heading))
        elif (
            name == "cycle"
            and plain(heading) not in asked
            and "bells" not in columns
            and _names_bells(column, rows[at + 1 :])
        ):
            columns["said"] = column
            notes.append(_bells_told(sheet, rows[at][0], column, heading))
        elif plain(heading) not in asked and _is_unheard(name, heading, column, rows[at + 1 :]):
            of_terms = name == "timetable" and _are_terms(column, rows[at + 1 :])
            unheard.append(_unheard(sheet, rows[at][0], column, heading, name, of_terms))
        else:
            notes.append(_ignored_note(sheet, rows[at][0], column, heading, name))
    return unheard, notes


def _called_off(table: Table, ignored: Sequence[int]) -> list[Problem]:
    """A problem of each cell of a row of classes, or of a column that is passed over, that says that the class is not held."""
    found = [
        why.problem(item.place(field), item.text(field))
        for item in table.items
        for field, cell in item.cells.items()
        if (why := said_off(cell_text(cell), field in ("class", "title"))) is not None
    ]
    numbers = {item.number for item in table.items}
    for number, row in table.sheet.rows() if ignored else ():
        for column in ignored if number in numbers else ():
            text = cell_text(row[column]) if column < len(row) else ""
            if (why := said_off(text)) is not None:
                found.append(why.problem(table.sheet.place(number, column), text))
    return found


def _cut_rows(table: Table, rows: Sequence[Row], at: int, said: Mapping[str, Cell]) -> list[Row]:
    """Take the rows below the headings into a table, each of them counted; gives those that are remarks below it. `said` are
    cells that all of them have."""
    ledger, columns, remarks = table.account.ledger, table.columns, list[Row]()
    above = [row for _, row in rows[: max(at, 0)]]
    ledger.read += len(above)
    ledger.blank += sum(map(is_blank, above))
    ledger.notes += sum(not is_blank(row) for row in above)
    is_below = False
    for number, row in rows[at + 1 :]:
        ledger.read += 1
        if is_blank(row):
            ledger.blank += 1
            is_below = bool(table.items)
            continue
        cells = {field: row[column] for field, column in columns.items() if column < len(row)}
        filled = {field for field, cell in cells.items() if cell_text(cell)}
        if not filled or (len(filled) == 1 and len(columns) > 2 and _is_note(cells, filled, table.name)):
            ledger.notes += 1
        elif is_below and _is_remark(row, columns):
            ledger.notes += 1
            remarks.append((number, row))
        else:
            ledger.events += 1
            is_below = False
            table.items.append(Item(table, number, {**said, **cells}))
    return remarks


def _above_dates(rows: Sequence[Row], column: int) -> int:
    """The index of the row above the first date of a column; -1 when that is the first row."""
    dated = (n for n, (_, row) in enumerate(rows) if column < len(row) and looks_like_date(row[column]))
    return next(dated, 0) - 1


def _is_remark(row: Sequence[Cell], columns: Mapping[str, int]) -> bool:
    """Whether a row below a table, under a blank one, is words about it: one lone text that names no day, term or holiday."""
    texts = [cell for cell in row if cell_text(cell)]
    if len(texts) != 1 or len(columns) < 2 or not isinstance(texts[0], str):
        return False
    text = texts[0]
    return not (looks_like_date(text) or is_time(text) or is_off(text) or is_term(text)) and (
        len(text.split()) > 2 or text.lstrip()[:1] in _MARKS
    )


def _remarks_told(sheet: Sheet, remarks: Sequence[Row]) -> Problem:
    texts = [next(text for cell in row if (text := cell_text(cell))) for _, row in remarks]
    message = f"Below the table, and taken for remarks: {listed([f'“{text}”' for text in texts[:3]])}."
    return note("plan-remarks", message).at(sheet.place(remarks[0][0]))


def _is_note(cells: dict[str, Cell], filled: set[str], name: str) -> bool:
    """Whether a row with one filled cell is words about the table: none where that cell can stand alone."""
    (field,) = filled
    alone = {"cycle": {"label"}, "people": {"name"}, "specialdays": {"first"}, "names": {"code"}}.get(
        name, set()
    )
    return field not in alone and isinstance(cells[field], str) and len(str(cells[field])) > 25


def _says_when(heading: str, column: int, rows: Sequence[Row]) -> bool:
    """Whether a heading of a list would say on which dates a row is held, or the column speaks of when."""
    cells = [row[column] for _, row in rows if column < len(row) and cell_text(row[column])]
    match = match_heading(heading)
    is_known = match is not None and not match.near and match.field in _OF_DATES
    is_a_week = re.search(r"(?:\b(?:per|a|each|every)|/)\s?(?:week|wk)\b", fold(heading)) is not None
    if are_hours(heading, column, rows) or (is_a_week and all(cell_text(cell).isdecimal() for cell in cells)):
        return False  # how many a week
    if fold(heading).strip(" .") in ENGLISH.weekdays:
        return bool(cells)
    return bool(cells) and (is_known or speaks_of_when(heading, Contents(cells, ENGLISH), True))


def _differ(rows: Sequence[Row], first: int, second: int) -> bool:
    """Whether the second of two columns of one heading says anything that the first does not."""
    return any(
        (text := cell_text(row[second])) and text != cell_text(row[first])
        for _, row in rows
        if second < len(row)
    )


def _twice(sheet: Sheet, row: int, column: int, heading: str) -> Problem:
    message = f"Two columns are headed “{heading}”, and what the second says would be lost."
    remedy = "Put both into one cell, or give the second a heading that says what it is, or take it out."
    return Problem("plan-column-twice", message, remedy, sheet.place(row, column, heading))


def _names_bells(column: int, rows: Sequence[Row]) -> bool:
    """Whether some cells of a column beside dates and labels name other bells, `Early release`."""
    return any(changes_bells(cell_text(row[column])) for _, row in rows if column < len(row))


def _bells_told(sheet: Sheet, row: int, column: int, heading: str) -> Problem:
    message = f"The column “{heading}” names the bells of some dates; what else it says is passed over."
    remedy = f'If it does not, leave it out: --column "{heading}=".'
    return note("plan-column-unused", message, remedy).at(sheet.place(row, column, heading))


def _is_unheard(name: str, heading: str, column: int, rows: Sequence[Row]) -> bool:
    """Whether a column that a table has no use for says when: on which dates classes are held, in which order the blocks of a
    day come, or dates and times of the year."""
    if name == "timetable":
        counts = _counts_periods(heading, column, rows)
        return counts or _says_when(heading, column, rows) or _are_terms(column, rows)
    cells = [row[column] for _, row in rows if column < len(row) and cell_text(row[column])]
    if name == "cycle":
        texts = list(map(cell_text, cells))
        return bool(cells) and all(map(_ORDER.fullmatch, texts))
    are_when = sum(looks_like_date(cell) or is_time(cell) for cell in cells)
    return (
        name in _OF_THE_YEAR and bool(cells) and are_when >= 0.8 * len(cells) and not is_bookkeeping(heading)
    )


_OF_PERIODS = r"^(?:no|number|num|#|how many)\b\.?.*\b(?:periods?|lessons|blocks|slots)\b|^doubles?\b|\b(?:periods|lessons) long\b|^double (?:period|lesson)"


def _counts_periods(heading: str, column: int, rows: Sequence[Row]) -> bool:
    """Whether a column says that some class lasts several periods, `No. of periods`, and not how many it has a week."""
    if not re.search(_OF_PERIODS, fold(heading)) or "week" in fold(heading):
        return False
    texts = [text for _, row in rows if column < len(row) and (text := fold(cell_text(row[column])))]
    return any(text not in ("1", "no", "n", "single") for text in texts)


def _are_terms(column: int, rows: Sequence[Row]) -> bool:
    """Whether the cells of a column are names or codes of terms, and nothing else."""
    texts = column_texts(rows, column)
    return bool(texts) and all(re.fullmatch(_TERM, text) or is_term(text) for text in texts)


def _unheard(sheet: Sheet, row: int, column: int, heading: str, name: str, of_terms: bool) -> Problem:
    remedy = f'To leave it out: --column "{heading}=".'
    if name == "timetable":
        message = f"The column “{heading}” says on which dates classes are held, and a timetable has no use for it: they would be held on all."
        remedy = (
            "Put what it says into the tables Days off and Special days, or give rows their First day and Last day; "
            f'to leave it out: --column "{heading}=".'
        )
        if of_terms:
            message = f"The column “{heading}” says in which terms classes are held, and nothing reads it: they would be held in all."
            remedy = f'If it does: --column "{heading}=term"; to leave it out: --column "{heading}=".'
        if re.search(_OF_PERIODS, fold(heading)):
            message = f"The column “{heading}” says that a class lasts several periods, and nothing reads it: each would be in the period of its row alone."
            remedy = f'Name all of them in the column Period, 1-2; to leave it out: --column "{heading}=".'
        if fold(heading).strip(" .") in ENGLISH.weekdays:
            message = f"The column “{heading}” says which classes are held on that day, and they would be held on all days."
            remedy = "Give each class a row for each of its days, with a column Day, and beside it what the cell says (Room, Teacher, Period)."
    elif name == "cycle":
        message = f"The column “{heading}” seems to hold the order of each day's blocks, and Cycle has no use for it: every day would have the same order."
        remedy = f"Put it into a table Rotation (Label, Period, Block), a row for each period of each day; {remedy[0].lower()}{remedy[1:]}"
    else:
        message = f"The column “{heading}” holds dates or times, and {TITLES[name]} has no use for it."
    return Problem("plan-column-unheard", message, remedy, sheet.place(row, column, heading))


def _ignored_note(sheet: Sheet, row: int, column: int, heading: str, name: str) -> Problem:
    fields = [words.split(", ")[0] for words in HEADINGS[name].values()]
    near = nearest(heading, fields, 0.7).capitalize()
    near = f" Did you mean {near}?" if near else ""
    message = (
        f"{TITLES.get(name, name.capitalize())} has no use for a column “{heading}”: it is passed over.{near}"
    )
    return note("plan-column-unused", message).at(sheet.place(row, column, heading))
