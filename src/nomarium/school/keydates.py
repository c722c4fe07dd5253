"""Lists of a year's key dates, in which rows say when terms begin and end and when there is no school."""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.offwords import changes_bells, is_off
from nomarium.reading.cells.words import fold
from nomarium.school.datewords import looks_like_date, read_date
from nomarium.school.plancolumns import columns_of, without_remarks
from nomarium.school.planheads import NOT_ASKED
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

WHY_KEY_DATES: Final = "key dates: when terms begin and end, and when there is no school"
_HELD: Final = r"(?:school|class(?:es)?|terms?|semesters?|trimesters?|quarters?|lessons|instruction|teaching|clases|cours|trimestres?|semestres?|unterrichts?|schule)"
_BEGINS: Final = (
    rf"^(?:starts?|begin(?:s|ning)?|first day|start date|from|beginn|debut|inicio)\W*$|\b(?:first day|start|beginning|return|back)\b.*\b{_HELD}\b|"
    rf"\b{_HELD}\b.*\b(?:begins?|starts?|resumes?|commences?|(?:re-?)?opens?)\b|\bfirst day (?:back|after)\b|"
    rf"\b(?:inicio|comienzo|debut|rentree|reprise|beginn)\b.*\b{_HELD}\b|\bunterrichtsbeginn\b|\bschulbeginn\b|\brentree des classes\b"
)
_ENDS: Final = rf"^(?:ends?|finish|last day|end date|until|to|ende|fin|fine)\W*$|\b(?:last day|end|close)\b.*\b{_HELD}\b|\b{_HELD}\b.*\b(?:ends?|finish(?:es)?|closes?)\b|\blast day before\b|\b(?:fin|ende)\b.*\b{_HELD}\b|\b(?:unterrichts|schul)ende\b|\bletzter schultag\b"
_OFF_BEGINS: Final = r"\b(?:begins?|starts?)\b"
_OFF_ENDS: Final = r"\b(?:ends?|finish(?:es)?)\b"
_FRAME: Final = (
    r"(?i)\b(?:the|of|for|all|students?|first|last|day|start|end|beginning|begins?|starts?|resumes?|ends?|"
    r"finish(?:es)?|commences?|classes|school|instruction|lessons|teaching)\b"
)
_FOLLOWS: Final = (
    r"\b(?:follow(?:s|ing)?|runs?|operate[sd]?|uses?|as)\s+(?:(?:as|on|an?|the)\s+)*"
    r"(?P<day>(?:mon|tues|wednes|thurs|fri|satur|sun)day)\b"
)
_HAS_CLASSES: Final = r"\b(?P<day>(?:mon|tues|wednes|thurs|fri|satur|sun)day)(?:'?s)?\s+(?:classes|lessons|timetable|schedule)\s+(?:meet|held|are|will|on|today|instead|timetable)\b"
"""`Monday classes meet on Tuesday`."""
_SHOWN: Final = 4
NAMELESS: Final = "Term"
"""What the one stretch of classes is called that nothing names."""


class KeyDates(NamedTuple):
    """What a list of key dates says of the year."""

    terms: Sheet
    days_off: Sheet | None
    account: Account
    told: Problem
    """A note of the terms, with the rows that say when they begin and end."""
    notes: list[Problem]
    special: Sheet | None = None
    """The days on which the timetable of another weekday is held."""
    problems: tuple[Problem, ...] = ()
    """Dates that seem to say something of the bells or the timetable, which is not read."""


class _Stretch(NamedTuple):
    number: int
    name: str
    first: Cell
    last: Cell
    said: str = ""
    """The texts that begin and end a term."""


def key_dates(sheet: Sheet, asked: Mapping[str, str] = NOT_ASKED) -> KeyDates | None:
    """The terms and the days off of a list of key dates; None where no rows say that terms begin and end, or where not every
    one that begins is seen to end."""
    rows = without_remarks(list(sheet.rows()))
    at, columns, _ = columns_of(rows, "daysoff", asked)
    if at < 0 or not {"name", "first"} <= columns.keys():
        return None
    terms, off = list[_Stretch](), list[_Stretch]()
    others: list[_Stretch] = []
    open_term: _Stretch | None = None
    open_off: _Stretch | None = None
    stretches = list(_stretches(rows[at + 1 :], columns))
    for one in stretches:
        said = fold(one.name)
        if re.search(_ENDS, said) and open_term is not None:
            terms.append(open_term._replace(last=one.first, said=f"“{open_term.said}” and “{one.name}”"))
            open_term = None
        elif re.search(_BEGINS, said) and not (is_off(one.name) and open_term is not None):
            if open_off is not None:  # School resumes
                last = _day_before(one.first)
                if last is None:
                    return None
                off.append(open_off._replace(last=last))
                open_off = None
            elif open_term is not None and "resume" not in said:
                return None
            open_term = open_term or one._replace(name=_term_name(one.name, len(terms)), said=one.name)
        elif is_off(one.name) and open_off is not None and re.search(_OFF_ENDS, said):
            off.append(open_off._replace(last=one.first))
            open_off = None
        elif is_off(one.name) and re.search(_OFF_BEGINS, said):
            if open_off is not None:
                return None
            open_off = one
        elif re.search(_ENDS, said):
            return None
        elif is_off(one.name):
            off.append(one)
        else:
            others.append(one)
    if not terms or open_term is not None or open_off is not None:
        return None
    if len(terms) == 1 and terms[0].name == f"{NAMELESS} 1":
        terms = [terms[0]._replace(name=NAMELESS)]
    special = [one for one in others if _other_weekday(one.name)]
    others = [one for one in others if one not in special]
    problems = [_unheard(one, sheet) for one in others if changes_bells(one.name)]
    idle = [one.name for one in others]
    notes = [_passed_over(idle, sheet)] if idle else []
    account = _account(sheet, len(stretches), len(idle))
    days_off = _as_sheet(sheet, off) if off else None
    return KeyDates(
        _as_sheet(sheet, terms),
        days_off,
        account,
        _told(terms, sheet),
        notes,
        _as_special(sheet, special),
        tuple(problems),
    )


def _other_weekday(name: str) -> str:
    """The weekday whose timetable is held on a date, `Follow Thursday timetable`; nothing for any other text."""
    match = re.search(_FOLLOWS, fold(name)) or re.search(_HAS_CLASSES, fold(name))
    return match["day"].capitalize() if match is not None else ""


def _as_special(sheet: Sheet, days: Sequence[_Stretch]) -> Sheet | None:
    rows: list[Row] = [(0, ["Date", "Name", "Label"])]
    rows += [(one.number, [one.first, one.name, _other_weekday(one.name)]) for one in days]
    return sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0) if days else None


def _unheard(one: _Stretch, sheet: Sheet) -> Problem:
    message = f"“{one.name}” seems to change the bells or the timetable of its date, and how is not read."
    remedy = "Say it in a table Special days (Date, Bells, Label), and take the row out here."
    return Problem("key-dates-open", message, remedy, sheet.place(one.number), one.name)


def _account(sheet: Sheet, dated: int, others: int) -> Account:
    """The account of every row of the sheet: what is dated is used, but for the others."""
    account = Account(f"{sheet.file}, {sheet.name}", is_plan=True)
    ledger, rows = (
        account.ledger,
        [row for number, row in sheet.rows() if number],
    )  # a heading of ours has none
    ledger.read, ledger.blank = len(rows), sum(map(is_blank, rows))
    ledger.events = dated - others
    ledger.notes = ledger.read - ledger.blank - ledger.events
    return account


def _stretches(rows: Sequence[Row], columns: Mapping[str, int]) -> Iterator[_Stretch]:
    for number, row in rows:
        cells = {field: row[column] for field, column in columns.items() if column < len(row)}
        if looks_like_date(cells.get("first", "")) and (name := cell_text(cells.get("name", ""))):
            yield _Stretch(number, name, cells["first"], cells.get("last", ""))


def _day_before(cell: Cell) -> dt.date | None:
    """The day before the one on which school is held again; None where the cell leaves its day open."""
    moment = read_date(cell)
    readings = moment.first.readings if isinstance(moment, Moment) and moment.first is not None else ()
    days = {one.date() for one in readings if one.year is not None}
    day = days.pop() if len(days) == 1 else None
    return day - dt.timedelta(1) if day is not None else None


def _term_name(text: str, before: int) -> str:
    """The name of the term that begins, `First day of Fall term`; by its number where the text has none."""
    text = re.sub(r"(?i)\b(?:back )?(?:after|from|following)\b.*", "", text)
    bare = " ".join(re.sub(_FRAME, " ", text).split()).strip(" -–:,.")
    return (
        bare
        if re.sub(r"(?i)\b(?:term|semester|trimester|quarter)\b", "", bare).strip()
        else f"{NAMELESS} {before + 1}"
    )


def _as_sheet(sheet: Sheet, stretches: Sequence[_Stretch]) -> Sheet:
    rows: list[Row] = [(0, ["Name", "First day", "Last day"])]
    rows += [(one.number, [one.name, one.first, one.last]) for one in stretches]
    return sheet._replace(read_rows=lambda: iter(rows), merged=(), first_column=0)


def _told(terms: Sequence[_Stretch], sheet: Sheet) -> Problem:
    found = [f"{one.name} from {cell_text(one.first)} to {cell_text(one.last)} ({one.said})" for one in terms]
    message = f"The terms are {listed(found)}."
    remedy = "If they are others, list them in a table Terms with the columns Name, First day and Last day."
    return note("key-dates", message, remedy).at(sheet.place())


def _passed_over(others: Sequence[str], sheet: Sheet) -> Problem:
    more = f" and {len(others) - _SHOWN} more" if len(others) > _SHOWN else ""
    are = (
        "date says neither when a term begins or ends nor that there is no school, and is",
        "dates say neither when a term begins or ends nor that there is no school, and are",
    )
    message = (
        f"{counted(len(others), *are)} passed over: {listed([f'“{one}”' for one in others[:_SHOWN]])}{more}."
    )
    remedy = "To put them into the calendar too, list them in a table Events; days without school belong into Days off."
    return note("key-dates", message, remedy).at(sheet.place())
