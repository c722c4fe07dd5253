"""What lines above and below a drawn week say of its year, as tables of a plan."""

from collections.abc import Container
from functools import partial
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.saidofall import lone_texts
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.linesaround import told_apart
from nomarium.reading.rows.offlines import MOST_CELLS, Span, gaps_between, lines_beside
from nomarium.reading.rows.oftenlines import often_lines
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

WHY_LINES: Final = "lines beside a timetable"
_ELSE: Final = "If it is no day off, take the line out of the sheet."
_OTHER_TERMS: Final = "If they are held at other times: --from DATE --until DATE."


class SaidBeside(NamedTuple):
    """What the lines beside a drawn week say."""

    days_off: Sheet | None
    terms: Sheet | None
    """Those of a plan that has none."""
    notes: list[Problem]
    problems: list[Problem]


def said_beside(sheet: Sheet, options: ReadingOptions, has_terms: bool, knows_days_off: bool) -> SaidBeside:
    """The days off and the terms that lines beside a drawn week say; a problem for each line that says when there is no
    school and cannot be read. Between stretches of one plan that `has_terms` of another kind, `--from` and `--until`, say, there is no
    school either."""
    off, terms, spans = list[Row](), list[Row](), list[Span]()
    notes, problems = list[Problem](), list[Problem]()
    lines = lines_beside(sheet, options)
    knows_days_off = knows_days_off or options.knows_days_off or any(line.off for line in lines)
    problems += often_lines(sheet, {line.number for line in lines}, knows_days_off)
    for line in lines:
        if line.is_unread:
            problems.append(line.unread(sheet))
        if line.off:
            off += [(line.number, [*one]) for one in line.off]
            message = f"“{line.text}” stands beside the timetable: no classes are held on days that it names as such."
            notes.append(note("line-off", message, _ELSE).at(sheet.place(line.number)))
        terms += [(line.number, [*one]) for one in line.held]
        spans += line.held
        for one in line.held if not has_terms else ():
            message = f"Classes are held from {one.first} to {one.last}, as “{line.text}” beside the timetable says."
            notes.append(note("line-term", message, _OTHER_TERMS).at(sheet.place(line.number)))
    notes += _told_apart(sheet, {line.number for line in lines})
    gaps = gaps_between(spans) if options.repeats_from is not None else []
    for first, last in gaps:
        off.append((terms[0][0], ["Break", first, last]))
        message = f"No classes are held from {first} to {last}, between the terms that lines beside the timetable say."
        notes.append(note("line-off", message).at(sheet.place(terms[0][0])))
    return SaidBeside(_as_sheet(sheet, off), None if has_terms else _as_sheet(sheet, terms), notes, problems)


def _told_apart(sheet: Sheet, heard: Container[int]) -> list[Problem]:
    """A note of each other line that says a day, or how often something is held: no class is made of it."""
    lines = lone_texts(islice(sheet.rows(), MOST_TABLE_ROWS))
    told = ((number, told_apart(text, ENGLISH)) for number, text in lines if number not in heard)
    return [one.at(sheet.place(number)) for number, one in told if one is not None]


def account_of_lines(sheet: Sheet, options: ReadingOptions) -> Account | None:
    """The account of a sheet of nothing but lines, each a text or a name with its dates, of which some say when there is
    school, or when not; None for any other."""
    rows = [row for _, row in islice(sheet.rows(), MOST_TABLE_ROWS)]
    are_lines = all(sum(map(bool, map(cell_text, row))) <= MOST_CELLS for row in rows)
    said = lines_beside(sheet, options) if are_lines else []
    if not said:
        return None
    account = Account(f"{sheet.file}, {sheet.name}", is_plan=True)
    ledger = account.ledger
    ledger.read, ledger.blank = len(rows), sum(map(is_blank, rows))
    ledger.events = len(said)
    ledger.notes = ledger.read - ledger.blank - ledger.events
    return account


def _as_sheet(sheet: Sheet, rows: list[Row]) -> Sheet | None:
    listed: list[Row] = [(0, ["Name", "First day", "Last day"]), *rows]
    return sheet._replace(read_rows=partial(iter, listed), merged=(), first_column=0) if rows else None
