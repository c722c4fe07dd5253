"""The sheets of a plan as its tables: which is which, several that add up, those that are left out."""

from collections.abc import Mapping, Sequence
from itertools import islice
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Place, Problem, note
from nomarium.reading.options import ReadingOptions
from nomarium.school.bellsheets import (
    days_of_bells,
)
from nomarium.school.blocklists import block_columns
from nomarium.school.dailyweeks import WHY_DAILY, daily_week
from nomarium.school.datedbells import days_with_bells
from nomarium.school.datesoff import dates_off, rows_with
from nomarium.school.datewords import looks_like_date
from nomarium.school.daycolumns import days_in_rows
from nomarium.school.drawnlines import heads_of_lines, labels_drawn
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.finding import labels_of_sheets
from nomarium.school.foundtexts import class_texts, is_unfilled, label_texts, labels_in
from nomarium.school.keydates import WHY_KEY_DATES, KeyDates, key_dates
from nomarium.school.kind import Kind
from nomarium.school.kinds import draws_lessons, kind_of
from nomarium.school.labelcalendars import dated_labels, with_labelled_days
from nomarium.school.listedcycles import listed_cycle
from nomarium.school.numberedweeks import WHY_WEEKS, NumberedWeeks, Uncounted, numbered_weeks
from nomarium.school.planheads import asked_headings
from nomarium.school.plantables import EXPLANATION, TITLES, Table, cut_table
from nomarium.school.saidbeside import WHY_LINES, account_of_lines, said_beside
from nomarium.school.sheetforms import (
    as_rows,
    both_of,
    divisions_settled,
    may_be_dates_off,
    may_be_key_dates,
    one_table,
)
from nomarium.school.starter import is_untouched
from nomarium.school.tabledoubts import (
    beyond,
    called,
    counts_weeks,
    doubtful,
    holds_dates,
    in_doubt,
    is_beyond,
    left_out,
    passed_over,
    taken_told,
    twice,
    unfilled,
)
from nomarium.school.termsheets import on_its_day
from nomarium.sheets.sheet import Sheet

_OF_CLOSURES = frozenset(("terms", "daysoff"))
"""Tables that say when there is no school."""
_OF_THE_YEAR = frozenset(("settings", "terms", "daysoff", "cycle", "specialdays", "bells", "rotation"))
"""Tables that grow with the year and not with the school."""


class Taken(NamedTuple):
    """A sheet and what it was taken for."""

    sheet: Sheet
    kind: Kind


class SheetsFound(NamedTuple):
    """What the sheets of a plan are."""

    tables: dict[str, Table]
    """By name; several sheets of one table have their rows together."""
    grids: list[tuple[str, Sheet]]
    """Sheets that may be drawn, with whose they are."""
    events: list[Sheet]
    taken: list[Taken]
    accounts: list[Account]
    labels: list[str]
    """What heads the columns of days in lists of classes and of bells, also where nothing stands under it."""
    divisions: dict[str, str]
    """Divisions whose timetables are drawn on sheets that are called as their bells are, by their compared form."""


def sheets_found(
    sheets: Sequence[Sheet], options: ReadingOptions, terms: Sequence[Sheet], problems: list[Problem], notes: list[Problem]
) -> SheetsFound:  # fmt: skip
    """Find out what each sheet is; what is wrong with them and what was decided is added to the lists. `terms` are the
    Terms table of a plan that has none."""
    found = SheetsFound({}, [], [], [], [], [], {})
    untouched, idle, taught = list[str](), list[tuple[Sheet, Kind]](), list[tuple[Sheet, Kind]]()
    key, weeks = list[KeyDates](), list[NumberedWeeks | Uncounted]()
    asked, labels = asked_headings(options.columns), labels_of_sheets(sheets)
    for sheet in sheets:
        if sheet.name == EXPLANATION:
            continue
        sheet = one_table(sheet, labels, options, notes)
        default = "timetable" if options.layout == "timetable" else ""
        kind = kind_of(sheet, options.tables, default, asked)
        sheet, kind = with_labelled_days(sheet, kind, options, notes)
        if kind.table in _OF_THE_YEAR and is_beyond(sheet):
            problems.append(beyond(sheet, kind))
            continue
        dates = key_dates(sheet, asked) if may_be_key_dates(kind) else None
        found.taken.append(Taken(sheet, kind if dates is None else Kind("terms", WHY_KEY_DATES)))
        if dates is not None:
            key.append(dates)
        elif kind.table in TITLES and is_untouched(kind.table, (row for _, row in sheet.rows())):
            untouched.append(TITLES[kind.table])
        elif kind.other:
            problems.append(doubtful(sheet, kind))
        elif kind.has_days_off:
            _take(found, rows_with(sheet, kind.columns, are_off=False), kind, asked, problems, notes)
            off = kind._replace(table="daysoff", why=f"{kind.why}: holidays are days off")
            _take(found, rows_with(sheet, kind.columns, are_off=True), off, asked, problems, notes)
        elif may_be_dates_off(sheet, kind) and (off_days := dates_off(sheet)) is not None:
            _take(found, off_days, Kind("daysoff", "its name and nothing but dates"), asked, problems, notes)
        elif not kind.table and kind.why != "as asked" and (numbered := numbered_weeks(sheet)) is not None:
            _take_as(found, sheet, Kind("terms", WHY_WEEKS))
            weeks.append(numbered)
        elif kind.hint == "timetable" and is_unfilled(sheet):
            notes.append(unfilled(sheet))
        elif kind.hint not in ("", "timetable", "cycle"):
            passed_over(sheet, kind, problems, notes)
        elif not kind.table:
            idle.append((sheet, kind))
        elif kind.table == "events":
            found.events.append(sheet)
        elif kind.table.startswith("timetable:"):
            found.grids.append((kind.table.partition(":")[2], sheet))
        elif kind.table == "timetable":
            taught.append((sheet, kind))  # its columns may be labels of a table that stands behind it
        else:
            _take(found, sheet, kind, asked, problems, notes)
    for sheet, kind in taught:
        _take(found, sheet, kind, asked, problems, notes)
    _take_year(found, key, weeks, asked, problems, notes)
    said = _take_others(found, sheets, idle, options, problems, notes)
    _take_lines(found, said, options, problems, notes)
    found.divisions.update(divisions_settled(found.tables, [sheet.name for _, sheet in found.grids], notes))
    _take_terms(found, terms, asked, problems, notes)
    if untouched:
        notes.append(left_out(untouched, Place(sheets[0].file)))
    return found


def _take_others(
    found: SheetsFound,
    sheets: Sequence[Sheet],
    idle: Sequence[tuple[Sheet, Kind]],
    options: ReadingOptions,
    problems: list[Problem],
    notes: list[Problem],
) -> list[Sheet]:
    """Take the sheets that are no table by themselves; those whose lines say when there is school are given back, as they are
    written."""
    said, asked = list[Sheet](), asked_headings(options.columns)
    for sheet, kind in _without_events(found, idle, notes):
        written = next(one for one in sheets if (one.file, one.name) == (sheet.file, sheet.name))
        account = account_of_lines(written, options) if kind.why != "as asked" else None
        if account is not None:
            said.append(written)
            _take_as(found, sheet, Kind("terms", "lines that say when there is school, or when not"))
            found.accounts.append(account)
        else:
            _take_idle(
                found, sheet, kind, [one for one, _ in idle if one is not sheet], asked, problems, notes
            )
    return said


def _take_lines(
    found: SheetsFound,
    alone: Sequence[Sheet],
    options: ReadingOptions,
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take the days off that lines beside classes say, or those of sheets that hold nothing else (`alone`), and the terms where
    nothing else does; the lines have their account already."""
    asked = asked_headings(options.columns)
    has_terms = "terms" in found.tables or options.repeats_from is not None
    drawn = {sheet.name: sheet for _, sheet in found.grids}
    listed = {one.sheet.name: one.sheet for one in found.taken if one.kind.table == "timetable"}
    for sheet in [*{**listed, **drawn}.values(), *alone]:
        said = said_beside(sheet, options, has_terms, not found.tables.keys().isdisjoint(_OF_CLOSURES))
        problems += said.problems
        notes += said.notes
        for table, rows in (("daysoff", said.days_off), ("terms", said.terms)):
            if rows is not None:
                _take(found, rows, Kind(table, WHY_LINES), asked, problems, notes)
                found.accounts.pop()


def _take_terms(
    found: SheetsFound,
    terms: Sequence[Sheet],
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take the tables of terms beside a plan as its own, if it has none."""
    if "terms" not in found.tables:
        for sheet in terms:
            _take(found, sheet, Kind("terms", "as asked"), asked, problems, notes)
    elif terms:
        message = "--terms is of no use: the plan has terms of its own."
        there = found.tables["terms"].sheet.place()
        problems.append(Problem("terms-idle", message, "Leave the option out.", there))


def _without_events(
    found: SheetsFound, idle: Sequence[tuple[Sheet, Kind]], notes: list[Problem]
) -> list[tuple[Sheet, Kind]]:
    """Take dated sheets of a plan that has nothing else to put on a calendar as its events; the others."""
    if found.grids or found.events or {"timetable", "cycle", "rotation"} & found.tables.keys():
        return list(idle)
    others = list[tuple[Sheet, Kind]]()
    for sheet, kind in idle:
        dated = sum(any(map(looks_like_date, row)) for _, row in islice(sheet.rows(), MOST_TABLE_ROWS))
        if (
            dated == 0
            or kind.hint
            or kind.why == "as asked"
            or days_of_bells(sheet, found.tables.get("bells"))
        ):
            others.append((sheet, kind))
            continue
        found.events.append(sheet)
        dated_rows = Kind("events", "its rows are dated, and nothing else here goes on a calendar")
        _take_as(found, sheet, dated_rows)
        notes.append(taken_told(sheet, dated_rows))
    return others


def _take_as(found: SheetsFound, sheet: Sheet, kind: Kind) -> None:
    """Say what a sheet was taken for that is no table by itself."""
    found.taken[:] = [one._replace(kind=kind) if one.sheet is sheet else one for one in found.taken]


def _take_idle(
    found: SheetsFound,
    sheet: Sheet,
    kind: Kind,
    idle: Sequence[Sheet],
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take a sheet that is no table by itself as what the others make of it, those that are `idle` too; or pass it over."""
    is_asked, labels = kind.why == "as asked", labels_in(found.tables)
    texts = label_texts(found.tables, found.grids) or labels_drawn([*idle, *(one for _, one in found.grids)])

    def take(kind: Kind, rows: Sheet = sheet) -> None:
        _take_as(found, sheet, kind)
        _take(found, rows, kind, asked, problems, notes)

    if not is_asked and (ringing := days_of_bells(sheet, found.tables.get("bells"))) is not None:
        take(Kind("specialdays", "dates under the name of a bell schedule"), ringing)
    elif not is_asked and "cycle" not in found.tables and (columns := dated_labels(sheet, texts)):
        take(Kind("cycle", "dates with the labels of the classes", columns))
    elif not (is_asked or "cycle" in found.tables) and (order := listed_cycle(sheet, texts)) is not None:
        take(Kind("cycle", "the labels of the classes in their order"), order)
    elif not is_asked and days_in_rows(sheet, labels) is not None:
        take(Kind("timetable", "classes with a column a label"))
    elif not is_asked and labels and drawn_week(sheet, labels) is not None:
        _take_as(found, sheet, Kind("timetable", "a week drawn with the labels of the cycle"))
        found.grids.append(("", sheet))
    elif (
        not is_asked and (blocks := block_columns(sheet, class_texts(found.tables, found.grids))) is not None
    ):
        take(Kind("timetable", "classes with the blocks of a drawn week", blocks))
    elif not is_asked and (doubt := in_doubt(sheet, class_texts(found.tables, found.grids))) is not None:
        problems.append(doubt)
    elif not (is_asked or "timetable" in found.tables or found.grids) and daily_week(sheet) is not None:
        _take_as(found, sheet, Kind("timetable", WHY_DAILY))
        found.grids.append(("", sheet))
    elif not (is_asked or "timetable" in found.tables or found.grids) and heads_of_lines(sheet):
        found.grids.append(("", sheet))  # a week drawn with labels that nothing names: said where it is read
    elif not is_asked and (dates := holds_dates(sheet, found.tables.get("terms"))) is not None:
        problems.append(dates)
    else:
        passed_over(sheet, kind, problems, notes)


def _take_key_dates(
    found: SheetsFound,
    dates: KeyDates,
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take a list of key dates as terms and days off, with one account for both; beside a table of terms, as days off."""
    parts = [
        (dates.days_off, Kind("daysoff", "names of holidays with their dates")),
        (dates.special, Kind("specialdays", WHY_KEY_DATES)),
    ]
    if "terms" in found.tables:
        message = f"Of {called(dates.terms)} only the days off count: the terms are those of {called(found.tables['terms'].sheet)}."
        notes.append(note("key-dates", message).at(dates.terms.place()))
    else:
        parts.insert(0, (dates.terms, Kind("terms", WHY_KEY_DATES)))
        notes.append(dates.told)
    for sheet, kind in parts:
        if sheet is not None:
            _take(found, sheet, kind, asked, problems, notes)
            found.accounts.pop()  # one account for all of them
    found.accounts.append(dates.account)
    notes += dates.notes
    problems += dates.problems


def _take_year(
    found: SheetsFound,
    key: Sequence[KeyDates],
    weeks: Sequence[NumberedWeeks | Uncounted],
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take lists that say of the year what tables of terms and days off do."""
    for dates in key:
        _take_key_dates(found, dates, asked, problems, notes)
    for numbered in weeks:
        _take_weeks(found, numbered, asked, problems, notes)


def _take_weeks(
    found: SheetsFound,
    weeks: NumberedWeeks | Uncounted,
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take a list of weeks as the terms; beside a table of these it is asked about where classes name weeks."""
    classes = found.tables["timetable"].items if "timetable" in found.tables else ()
    are_named = any(item.text("week") for item in classes)
    if isinstance(weeks, Uncounted):
        if are_named:
            problems.append(weeks.problem)
        else:
            passed_over(weeks.sheet, Kind("", WHY_WEEKS), problems, notes)
    elif "terms" not in found.tables:
        notes.append(weeks.told)
        _take(found, weeks.terms, Kind("terms", "as asked"), asked, problems, notes)
        found.accounts[-1] = weeks.account
        problems += weeks.problems
    elif are_named:
        problems.append(counts_weeks(weeks.terms, found.tables["terms"].sheet))
    else:
        passed_over(weeks.terms, Kind("", WHY_WEEKS), problems, notes)


def _take(
    found: SheetsFound,
    sheet: Sheet,
    kind: Kind,
    asked: Mapping[str, str],
    problems: list[Problem],
    notes: list[Problem],
) -> None:
    """Take a sheet as a table."""
    name = kind.table
    there = found.tables.get(name)
    sheet, labels = as_rows(sheet, name, labels_in(found.tables), notes)
    found.labels.extend(labels)
    table, wrong, told = cut_table(sheet, name, kind.columns, asked)
    is_list = {"label", "period", "meets", "time", "start"} & table.columns.keys()
    is_drawn = name == "timetable" and (
        draws_lessons(sheet, asked) if is_list else drawn_week(sheet) is not None
    )
    if name in ("timetable", "rotation") and ((wrong and not table.items) or is_drawn):
        found.grids.append(("", sheet))  # no column for classes or blocks: a drawn week, or nothing
        return
    table = on_its_day(table) if name == "timetable" else table
    both = there and both_of(name, there, table)
    if there is not None and both is None:
        problems.append(twice(name, there, sheet))
        return
    problems += wrong
    notes += told
    if kind.why not in ("its name", "as asked", WHY_LINES):
        notes.append(taken_told(sheet, kind))
    found.accounts.append(table.account)
    found.tables[name] = both or table
    if name == "cycle" and (ringing := days_with_bells(table)) is not None:
        if isinstance(ringing, Problem):
            problems.append(ringing)
            return
        special = Kind("specialdays", "the bells that the dates of a cycle name")
        _take(found, ringing, special, asked, problems, notes)
        found.accounts.pop()  # its rows are counted above
