"""What is said of sheets that could be two tables of a plan, that cannot be read, or that are none."""

import re
from collections.abc import Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.offwords import is_off
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import DATE_FIELDS, match_heading
from nomarium.school.codes import weekday_of
from nomarium.school.datewords import looks_like_date
from nomarium.school.drawnlines import is_time
from nomarium.school.drawnowners import first_part
from nomarium.school.kind import Kind
from nomarium.school.planheads import HEADINGS
from nomarium.school.plantables import TITLES, Table, near_table
from nomarium.school.spankinds import ordinals_about
from nomarium.sheets.sheet import Sheet, cell_text, is_blank

_MEANS = {
    "terms": "say when school is held", "daysoff": "say when there is none",
    "events": "are events like any other",
}  # fmt: skip
"""What the rows of tables mean that could be either."""
_OF_THE_PAPER: Final = r"\b(?:versions?|changes?|change log|changelog|revisions?|history|log|authors?|edited|updated?|modified|to ?do|tasks?|actions?|owner|status)\b"
"""Words in the name or the headings of a sheet whose dates are about the workbook, or about work to be done."""
_LEAST_CLASSES = 3
"""Classes, and days or times, that a sheet must name to look like a timetable."""
_LONGEST_NAME = 40
"""Longer texts are remarks, and no names of days."""


def called(sheet: Sheet) -> str:
    """A sheet as messages name it."""
    return sheet.name or sheet.file


def taken_told(sheet: Sheet, kind: Kind) -> Problem:
    """The note that says which table a sheet was taken for, and why."""
    message = f"{called(sheet)} is taken for {TITLES[kind.table]}: {kind.why}."
    remedy = f'If it is another: --table "{called(sheet)}=TABLE".'
    return note("table-found", message, remedy).at(sheet.place())


def doubtful(sheet: Sheet, kind: Kind) -> Problem:
    """A sheet that could be either of two tables, with what its first rows would mean."""
    one, other = TITLES[kind.table], TITLES[kind.other]
    message = f"{called(sheet)} could be {one} ({kind.why}) or {other}."
    dated = (row for _, row in sheet.rows() if any(map(looks_like_date, row)))
    shown = [", ".join(text for cell in row if (text := cell_text(cell))) for row in islice(dated, 2)]
    if shown:
        message += f" As {one}, {' and '.join(f'“{text}”' for text in shown)} {_MEANS[kind.table]}; as {other}, {_MEANS[kind.other]}."
    remedy = (
        f'Say which: --table "{called(sheet)}={one.lower()}" or --table "{called(sheet)}={other.lower()}".'
    )
    return Problem("table-doubtful", message, remedy, sheet.place())


def counts_weeks(weeks: Sheet, terms: Sheet) -> Problem:
    """A list of numbered weeks beside a table of terms, whose weeks classes name: each counts them in its way."""
    message = (
        f"Classes name weeks by their numbers, and both {called(weeks)} and {called(terms)} could count them."
    )
    remedy = f'Keep the one that is meant: leave out the other with --table "{called(weeks)}=" or --table "{called(terms)}=".'
    return Problem("table-doubtful", message, remedy, weeks.place())


def _unread(sheet: Sheet, kind: Kind) -> Problem:
    """A sheet that a plan would be wrong without, and that cannot be read."""
    title = TITLES[kind.hint]
    message = f"{called(sheet)} is called as {title} would be, and it does not read as that."
    there = ", ".join(words.split(", ")[0] for words in HEADINGS[kind.hint].values())
    remedy = f'Give it headings ({there}); if it is none, leave it out: --table "{called(sheet)}=".'
    return Problem("table-unread", message, remedy, sheet.place())


def in_doubt(sheet: Sheet, classes: frozenset[str]) -> Problem | None:
    """A problem where a sheet that is no part of a plan seems to say when there is no school, or names `classes` (compared form)."""
    return _closes_school(sheet) or _has_classes(sheet, classes)


def _closes_school(sheet: Sheet) -> Problem | None:
    """A problem where a sheet has a date beside the name of a day without school: classes would be held on it."""
    for number, row in islice(sheet.rows(), MOST_TABLE_ROWS):
        text = next((text for cell in row if _is_closed(text := cell_text(cell))), "")
        if text and any(looks_like_date(cell) for cell in row if cell_text(cell) and cell_text(cell) != text):
            message = f"“{text}” in {called(sheet)} seems to say that there is no school, and the sheet is no part of the plan."
            remedy = (
                f'To read it, give it the headings Name, First day and Last day, and say --table "{called(sheet)}=daysoff"; '
                f'if all of it are events: --table "{called(sheet)}=events"; to leave it out: --table "{called(sheet)}=".'
            )
            return Problem("table-unread", message, remedy, sheet.place(number))
    return None


def holds_dates(sheet: Sheet, terms: Table | None) -> Problem | None:
    """A problem where the rows of a sheet that is no part of a plan have dates: they may be days without school, which all classes
    would be held on; words that come back are said of school days, too."""
    rows = [(number, row) for number, row in islice(sheet.rows(), MOST_TABLE_ROWS) if not is_blank(row)]
    headed = fold(" ".join((called(sheet), *(cell_text(cell) for _, row in rows[:1] for cell in row))))
    for n in range(max((len(row) for _, row in rows), default=0)):
        dated = {number: row for number, row in rows if n < len(row) and looks_like_date(row[n])}
        match = match_heading(cell_text(rows[0][1][n])) if n < len(rows[0][1]) else None
        is_headed = match is not None and match.field in DATE_FIELDS
        if not dated or len(dated) * 2 < len(rows) - 1 or (len(dated) == 1 and not is_headed):
            continue
        words = [" ".join(map(cell_text, (*row[:n], *row[n + 1 :]))).strip() for row in dated.values()]
        are_each_another = any(words) and len({*words}) * 2 > len(words)
        days = [row[n] for row in dated.values()]
        says_more = (
            max(sum(_is_word(cell) for cell in row) for row in dated.values()) > 1
        )  # what, and who or where
        if are_each_another and (
            says_more or re.search(_OF_THE_PAPER, headed) or not _is_in_terms(days, terms)
        ):
            continue
        message = f"The sheet “{called(sheet)}” holds dates, and is no part of the plan as it stands: what they say would be lost."
        remedy = (
            f'Say what they are: --table "{called(sheet)}=daysoff", or specialdays, cycle, terms or events in place of daysoff; '
            f'to leave it out: --table "{called(sheet)}=".'
        )
        return Problem("table-unread", message, remedy, sheet.place(next(iter(dated))))
    return None


def _is_word(cell: Cell) -> bool:
    """Whether a cell is words, and neither a day nor its weekday."""
    text = cell_text(cell)
    return any(map(str.isalpha, text)) and not looks_like_date(cell) and weekday_of(text) is None


def _is_in_terms(days: Sequence[Cell], terms: Table | None) -> bool:
    """Whether some of the days of cells are in the terms, or may be."""
    if terms is None:
        return True
    edges = [day for item in terms.items for cell in item.cells.values() for day in ordinals_about(cell)]
    return any(
        min(edges, default=0) <= day <= max(edges, default=0) for cell in days for day in ordinals_about(cell)
    )


def _has_classes(sheet: Sheet, classes: frozenset[str]) -> Problem | None:
    """A problem where a sheet names several `classes` beside days, periods or times: others of them would be lost."""
    named, times = dict[str, str](), 0
    for _, row in islice(sheet.rows(), MOST_TABLE_ROWS):
        for text in filter(None, map(cell_text, row)):
            times += is_time(text) or weekday_of(text) is not None
            if (key := first_part(text)) in classes and not text.isdecimal():
                named.setdefault(key, text.split("\n")[0])
    if len(named) < _LEAST_CLASSES or times < _LEAST_CLASSES:
        return None
    shown = listed([f"“{text}”" for text in list(named.values())[:_LEAST_CLASSES]])
    message = f"{called(sheet)} names classes of the timetable ({shown}) beside days or times, and it does not read as one."
    remedy = f'Give it the headings Class, Day and Period or Time, or draw it as the other sheets are; if it is none: --table "{called(sheet)}=".'
    return Problem("table-unread", message, remedy, sheet.place())


def _is_closed(text: str) -> bool:
    return len(text) <= _LONGEST_NAME and any(map(str.isalpha, text)) and is_off(text)


def passed_over(sheet: Sheet, kind: Kind, problems: list[Problem], notes: list[Problem]) -> None:
    """Note that a sheet is no part of a plan, or say that it should be, as its name has it; one that is blank says nothing."""
    if all(is_blank(row) for _, row in sheet.rows()):
        return
    if kind.hint:
        problems.append(_unread(sheet, kind))
        return
    if kind.why == "as asked":
        notes.append(note("plan-sheet-unused", f"“{called(sheet)}” is left out, as asked.").at(sheet.place()))
        return
    near = near_table(sheet.name)
    hint = f" Did you mean {near}?" if near else ""
    message = f"The sheet “{called(sheet)}” is no part of a plan: it is passed over.{hint}"
    remedy = f'If it is: --table "{called(sheet)}=TABLE".'
    notes.append(note("plan-sheet-unused", message, remedy).at(sheet.place()))


def unfilled(sheet: Sheet) -> Problem:
    """The note that a drawing has no class."""
    return note("plan-table-blank", f"{called(sheet)} is not filled in.").at(sheet.place())


def left_out(tables: Sequence[str], place: Place) -> Problem:
    message = f"Left out, for they hold the examples of the starter plan and nothing else: {listed(tables)}."
    return note("example-left-out", message, "Write your own over them.").at(place)


def twice(name: str, there: Table, sheet: Sheet) -> Problem:
    message = f"The plan has two sheets for {TITLES[name]}, “{called(there.sheet)}” and “{called(sheet)}”."
    remedy = f'Put them into one, or leave one out: --table "{called(sheet)}=".'
    return Problem("plan-table-twice", message, remedy, sheet.place())


def is_beyond(sheet: Sheet) -> bool:
    return next(islice(sheet.rows(), MOST_TABLE_ROWS, None), None) is not None


def beyond(sheet: Sheet, kind: Kind) -> Problem:
    message = f"{called(sheet)} has more than {MOST_TABLE_ROWS:,} rows, the most that {TITLES[kind.table]} may have."
    return Problem("table-beyond", message, "Leave only the rows of the year.", sheet.place())
