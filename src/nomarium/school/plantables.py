"""The tables of a plan: which sheet is which, where its columns are, its rows with their places."""

import re
from collections.abc import Iterable, Mapping, Sequence
from functools import lru_cache
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import nearest
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.head import looks_like_date
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

HEADINGS: dict[str, dict[str, str]] = {
    # table: field → its heading, and after it other spellings that are taken for it
    "settings": {"setting": "Setting, name, option, key, parametre, reglage", "value": "Value, is, valeur"},
    "terms": {
        "name": "Name, term, term name, title, semester, nom, trimestre, semestre",
        "first": "First day, start, start date, begins, from, first, starts, premier jour, debut, du, dates, starts on, begins on, first day of classes, first class",
        "last": "Last day, end, end date, ends, to, until, last, dernier jour, fin, au, finish, finishes, ends on, last day of classes, last class",
        "division": "Division, section, school, departement",
    },
    "daysoff": {
        "name": "Name, what, holiday, title, day off, reason, event, description, nom, conge",
        "first": "First day, date, day, start, start date, from, first, begins, premier jour, debut, du, dates, when, closed, closed on, begins on, starts",
        "last": "Last day, end, end date, to, until, last, ends, dernier jour, fin, au",
        "cycle": "Cycle, rotation, effect on the cycle", "division": "Division, section, school",
        "kind": "Kind, type, category, categorie, genre",
    },
    "cycle": {
        "label": "Label, day, cycle day, code, letter, jour, etiquette, letter day, day letter, rotation day, day number, day no, day type, rotation", "name": "Name, day name, title, nom",
        "weekday": "Weekday, day of the week, day of week, jour de la semaine", "week": "Week, semaine",
        "date": "Date, dates",
    },
    "specialdays": {
        "first": "Date, first day, day, start, from, premier jour", "last": "Last day, end, to, until, end date, dernier jour",
        "label": "Label, cycle day, etiquette", "cycle": "Cycle, rotation, effect on the cycle",
        "bells": "Bells, schedule, bell schedule, horaire, sonnerie", "division": "Division, section, school",
        "name": "Name, what, title, event, occasion, nom, reason",
    },
    "bells": {
        "schedule": "Schedule, bell schedule, bells, day type, horaire", "label": "Label, day, cycle day, weekday",
        "division": "Division, section, school", "period": "Period, block, slot, lesson, code, periode, period no, period number, per, pd, hour, class period",
        "start": "Start, begins, start time, from, starts, debut, de, begin, begin time, starts at", "end": "End, ends, end time, to, until, fin, a, finish, finishes, ends at, finish time",
        "name": "Name, title, period name, nom", "time": "Time, times, hours, heures",
    },
    "timetable": {
        "class": "Class, course, section, class code, course code, subject, classe, cours, course number, course no, activity, lesson, module, club",
        "label": "Label, day, days, cycle day, jour, jours, weekday, weekdays, day of week, days of week, meeting days, letter day, day letter, rotation day, cycle days, letter, dow, letter days, day letters",
        "period": "Period, periods, block, blocks, slot, periode, periodes, per, pd, period no, hour, time slot",
        "start": "Start, start time, begin time, time start, starts at, begin, time from", "end": "End, end time, finish, finish time, time end, ends at, time to",
        "time": "Time, times, hours, when, heure, heures, class time", "length": "Length, duration, minutes, mins, length of class, duree, dauer, length (hours), hours long",
        "week": "Week, weeks, week type, week label, semaine, a b week, ab",
        "meets": "Meets, meeting times, pattern, meeting pattern, rencontres, meets on, days and times, days times, days & times, schedule",
        "title": "Title, name, course title, course name, class name, titre", "room": "Room, location, place, where, venue, salle, local, lieu",
        "teacher": "Teacher, teachers, instructor, staff, taught by, enseignant, prof, professeur, instructors, tutor, faculty, lehrer, docent", "group": "Group, groups, year group, form, students, audience, groupe",
        "term": "Term, terms, semester, trimestre, semestre", "division": "Division, school", "notes": "Notes, note, description, comment, remarques",
        "first": "First day, start date, from, starts, begins, first class, first meeting, class starts, course starts, from date", "last": "Last day, end date, to, until, ends, last class, last meeting, class ends, course ends, runs until, to date",
    },
    "rotation": {
        "label": "Label, day, cycle day, letter, letter day", "period": "Period, slot, time slot", "block": "Block, blocks",
    },
    "enrolments": {
        "person": "Person, student, name, pupil, student name, learner, member, full name, attendee, eleve, apprentice", "class": "Class, course, classes, courses, section, class code, course code, cours, classe",
    },
    "names": {
        "code": "Code, short, abbreviation, class, key", "name": "Name, full name, title, long name, nom", "kind": "Kind, type, what, genre",
        "room": "Room, location, salle, local", "keep": "Keep, show, include, garder", "color": "Color, colour, couleur",
        "categories": "Categories, category, categorie, categories",
    },
    "people": {
        "name": "Name, full name, person, teacher, nom", "email": "Email, e-mail, mail, address, email address, courriel",
        "groups": "Groups, group, member of, groupes, groupe", "classes": "Classes, courses, enrolled in, cours",
    },
    "places": {
        "name": "Name, place, place name, room, location, venue, where, code, lieu, salle, nom", "address": "Address, street, street address, adresse",
        "geo": "Coordinates, geo, lat long, latitude longitude, gps, coordonnees", "latitude": "Latitude, lat", "longitude": "Longitude, long, lon, lng",
        "url": "Link, url, map, map link, web, website, web page, lien",
    },
    "lessons": {
        "class": "Class, course, code, classe, cours", "title": "Title, lesson, topic, name, titre, lecon, sujet", "notes": "Notes, note, description, homework, remarques",
        "meetings": "Meetings, number of meetings, length, periods, lessons, rencontres",
    },
}  # fmt: skip
REQUIRED: dict[str, tuple[str, ...]] = {
    "settings": ("setting", "value"), "terms": ("name", "first", "last"), "daysoff": ("name", "first"),
    "cycle": ("label",), "specialdays": ("first",), "bells": ("period",), "timetable": ("class",),
    "names": ("code",), "people": ("name",), "places": ("name",), "lessons": ("class", "title"), "enrolments": ("person", "class"),
    "rotation": ("block",),
}  # fmt: skip
TITLES = {
    "settings": "Settings", "terms": "Terms", "daysoff": "Days off", "cycle": "Cycle", "specialdays": "Special days",
    "bells": "Bells", "timetable": "Timetable", "rotation": "Rotation", "names": "Names", "people": "People",
    "enrolments": "Enrolments", "lessons": "Lessons", "events": "Events",
}  # fmt: skip
"""Each table's name as people write it; `events` is read as an event list."""

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


@lru_cache(maxsize=65_536)
def plain(text: str) -> str:
    """A name as names are compared: without case, accents, spaces, hyphens and underscores.

    >>> plain("Days-off") == plain(" days OFF ")
    True
    """
    return re.sub(r"[\s_\-‐–]+", "", fold(text))


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


def columns_of(rows: Sequence[Row], name: str) -> tuple[int, dict[str, int], list[tuple[int, str]]]:
    """The index of the row of headings of a table (-1: none), the column of each field, and columns of no field."""
    return _find_head(rows, _spellings(name), name)


def cut_table(
    sheet: Sheet, name: str, known: Mapping[str, int] = MappingProxyType({})
) -> tuple[Table, list[Problem], list[Problem]]:
    """Cut a sheet into the rows of a plan table; `known` are columns that its cells show, whatever heads them. Gives the
    problems and the notes with it."""
    spellings = _spellings(name)
    rows = list(sheet.rows())
    title = TITLES.get(name, name.capitalize())
    account = Account(f"{sheet.file}, {title}", is_plan=True)
    ledger = account.ledger
    at, columns, ignored = _find_head(rows, spellings, name)
    if known:
        at = _above_dates(rows, known["date"]) if at < 0 and "date" in known else at
        columns = {f: c for f, c in columns.items() if f not in known and c not in known.values()} | dict(
            known
        )
        ignored = [(column, heading) for column, heading in ignored if column not in known.values()]
    headings = {field: cell_text(rows[at][1][column]) for field, column in columns.items()} if at >= 0 else {}
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
    notes = [_ignored_note(sheet, rows[at][0], column, heading, name) for column, heading in ignored]
    ledger.read = max(at, 0)
    ledger.notes += sum(not is_blank(row) for _, row in rows[: max(at, 0)])
    ledger.blank += sum(is_blank(row) for _, row in rows[: max(at, 0)])
    for number, row in rows[at + 1 :]:
        ledger.read += 1
        if is_blank(row):
            ledger.blank += 1
            continue
        cells = {field: row[column] for field, column in columns.items() if column < len(row)}
        filled = {field for field, cell in cells.items() if cell_text(cell)}
        if not filled or (len(filled) == 1 and len(columns) > 2 and _is_note(cells, filled, name)):
            ledger.notes += 1
            continue
        ledger.events += 1
        table.items.append(Item(table, number, cells))
    return table, [], notes


def _above_dates(rows: Sequence[Row], column: int) -> int:
    """The index of the row above the first date of a column; -1 when that is the first row."""
    dated = (n for n, (_, row) in enumerate(rows) if column < len(row) and looks_like_date(row[column]))
    return next(dated, 0) - 1


def _is_note(cells: dict[str, Cell], filled: set[str], name: str) -> bool:
    """Whether a row with one filled cell is words about the table: none where that cell can stand alone."""
    (field,) = filled
    alone = {"cycle": {"label"}, "people": {"name"}, "specialdays": {"first"}, "names": {"code"}}.get(
        name, set()
    )
    return field not in alone and isinstance(cells[field], str) and len(str(cells[field])) > 25


def _spellings(name: str) -> dict[str, str]:
    found: dict[str, str] = {}
    for rank in range(24):  # every field's own heading first, then the other spellings in turn
        for field, listed in HEADINGS[name].items():
            words = listed.split(", ")
            if rank < len(words):
                found.setdefault(plain(words[rank]), field)
    return found


_SECOND = {("timetable", "class"): "section"}
"""Fields of a second column that could be another's: a course and its section."""


_BESIDE = r"[(\[].*?[)\]]|[*:]"
"""What may stand beside a heading: words in brackets, a colon."""


def field_of(heading: str, name: str) -> str | None:
    """The field of a table that a heading names, None for none."""
    bare = re.sub(_BESIDE, "", heading)
    return _spellings(name).get(plain(bare)) if heading else None


def _find_head(
    rows: Sequence[Row], spellings: dict[str, str], name: str
) -> tuple[int, dict[str, int], list[tuple[int, str]]]:
    """The index of the row of headings (-1: none), the column of each field, and columns of no field."""
    best: tuple[int, int, dict[str, int], list[tuple[int, str]]] = (0, -1, {}, [])
    for at, (_, row) in enumerate(rows[:40]):
        columns: dict[str, int] = {}
        ignored: list[tuple[int, str]] = []
        for column, cell in enumerate(row):
            text = cell_text(cell)
            field = spellings.get(plain(re.sub(_BESIDE, "", text))) if text else None
            if field in columns:
                field = _SECOND.get((name, field), field)
            if field is not None and field not in columns:
                columns[field] = column
            elif text:
                ignored.append((column, text))
        score = len(columns) * 2 + sum(2 for field in REQUIRED[name] if field in columns) - len(ignored)
        if columns and score > best[0] and any(field in columns for field in REQUIRED[name]):
            best = (score, at, columns, ignored)
    return best[1:]


def _ignored_note(sheet: Sheet, row: int, column: int, heading: str, name: str) -> Problem:
    fields = [words.split(", ")[0] for words in HEADINGS[name].values()]
    near = nearest(heading, fields, 0.7).capitalize()
    near = f" Did you mean {near}?" if near else ""
    message = (
        f"{TITLES.get(name, name.capitalize())} has no use for a column “{heading}”: it is passed over.{near}"
    )
    return note("plan-column-unused", message).at(sheet.place(row, column, heading))
