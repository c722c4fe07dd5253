"""The classes of a plan, listed and drawn, and what of the year they show where no table says it."""

import re
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.options import ReadingOptions
from nomarium.school.cellparts import KnownParts, look_of
from nomarium.school.classrows import ClassRows, class_rows, in_weeks
from nomarium.school.codes import Codes
from nomarium.school.cycleweeks import as_weeks, in_cycle_weeks, told, weeks_found
from nomarium.school.dailyweeks import daily_week, told_daily
from nomarium.school.drawncells import DrawnWeek
from nomarium.school.drawnclasses import DrawnClasses, drawn_classes
from nomarium.school.drawnheads import week_of
from nomarium.school.drawnowners import says_whose
from nomarium.school.drawnsheets import Drawing
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.foundtexts import is_unfilled
from nomarium.school.labelruns import labels_found
from nomarium.school.listowners import with_owners_of_lists
from nomarium.school.meets import labels_met
from nomarium.school.namesandpeople import Naming, People
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.school.rotation import Rotation, is_rotation, rotation_in, with_blocks
from nomarium.school.sheetsfound import SheetsFound
from nomarium.school.tabledoubts import unfilled
from nomarium.school.teachingweeks import with_teaching_weeks
from nomarium.school.termsheets import with_terms
from nomarium.school.timetable import Known
from nomarium.school.timetablegrids import find_grid
from nomarium.school.yearspan import term_of_classes
from nomarium.school.yeartables import Dates, Term, YearRows
from nomarium.sheets.sheet import Sheet


class ClassesFound(NamedTuple):
    """The classes of a plan before its year is known."""

    rows: ClassRows
    grids: list[tuple[str, Sheet]]
    """Sheets that are grids of the labels and periods of the plan's tables, with whose they are."""
    drawn: list[Item]
    """Those of the rows that come from drawn weeks."""
    accounts: list[Account]


def classes_found(
    sheets: SheetsFound, naming: Naming, people: People, year: YearRows, dates: Dates, options: ReadingOptions,
    problems: list[Problem], notes: list[Problem],
) -> ClassesFound:  # fmt: skip
    """Find the classes. A cycle and a term that they show are added to the rows of the year."""
    table, terms = sheets.tables.get("timetable"), [term.name for term in year.terms]
    if table is not None:
        termed = with_terms(table.items, terms, notes)
        known = _known_parts(termed, naming, people)
        taken = {*sheets.divisions, *(plain(term) for term in terms)}
        table = table._replace(items=with_owners_of_lists(termed, known, taken, notes))
    has_bells = "bells" in sheets.tables
    rows = (
        class_rows(table, options, bool(year.cycle), has_bells) if table else ClassRows([], {}, None, [], [])
    )
    known = _known_parts(rows.items, naming, people)._replace(terms=tuple(terms))
    known = known._replace(groups=known.groups | sheets.divisions.keys())
    waits = any(item.text("period") and not item.text("label") for item in rows.items)
    drawn, grids = _drawn_or_not(sheets, year, known, options, notes, waits)
    rotation, own = rotation_in(sheets.tables.get("rotation")), drawn.items
    if is_rotation(rows.items, drawn.items):
        rotation, own = Rotation(drawn.items, drawn.bells), []
        rows = with_blocks(rows, rotation, problems, notes)
        rows = rows._replace(weekdays=_weekdays_of(rows.items))
    else:
        rows = _together(with_blocks(rows, rotation, problems, notes), drawn)
    problems += [*rows.problems, *drawn.problems]
    notes += [*rows.notes, *drawn.notes]
    if not year.terms and not any(row.date for row in year.cycle):
        bells = sheets.tables.get("bells")
        taught = rows.items or (bells.items if bells is not None and grids else ())
        term = term_of_classes(taught, dates, options, notes, len(sheets.taken) == 1)
        if isinstance(term, Term):
            year.terms.append(term)
        elif term is not None:
            problems.append(term)
    rows = in_weeks(rows, with_teaching_weeks(rows.items))._replace(weekdays=rows.weekdays)
    has_cycle = bool(year.cycle)
    if not has_cycle:
        heads = [*sheets.labels, *drawn.labels]
        rows = _with_cycle(rows, heads, sheets.tables.get("bells"), year, problems, notes)
    if any(item.text("week") for item in rows.items):
        year.cycle[:] = as_weeks(rows.items, year.cycle, year.has_school) or year.cycle
        items, unknown, told_of = in_cycle_weeks(rows.items, year.cycle, not has_cycle)
        problems += unknown
        notes += told_of
        rows = in_weeks(rows, items)
    return ClassesFound(rows, grids, own, drawn.accounts)


def _known_parts(items: Sequence[Item], naming: Naming, people: People) -> KnownParts:
    """What the tables of a plan know as classes, rooms, teachers and groups."""

    def named(kind: str) -> set[str]:
        return {code for code, known in naming.kinds.items() if known == kind}

    def said(field: str) -> set[str]:
        return {plain(item.text(field)) for item in items if item.text(field)}

    teachers = said("teacher") | named("teacher") | {plain(one.name) for one in people.persons}
    return KnownParts(
        frozenset(said("class") | named("class")),
        frozenset(said("room") | named("room")),
        frozenset(teachers),
        frozenset(said("group") | named("group") | set(people.groups)),
        codes=naming.of_any,
    )


def _drawn_or_not(
    sheets: SheetsFound,
    year: YearRows,
    known: KnownParts,
    options: ReadingOptions,
    notes: list[Problem],
    waits: bool,
) -> tuple[DrawnClasses, list[tuple[str, Sheet]]]:
    """The classes of the sheets that are drawn as schools draw them, and the sheets that are plain grids of the labels
    and periods of the plan's own tables; `waits`: listed classes have a block and no label, which a drawing may hold."""
    labels = [row.label for row in year.cycle]
    bells = sheets.tables.get("bells")
    periods = [text for item in (bells.items if bells else ()) if (text := item.text("period"))]
    is_by_weekday = not labels or all(row.weekday is not None for row in year.cycle)
    plain_form = Known(
        Codes("label", labels, _names(year)), Codes("period", periods), Codes("term"), is_by_weekday
    )
    drawings, grids = list[Drawing](), list[tuple[str, Sheet]]()
    for name, sheet in sheets.grids:
        week = drawn_week(sheet, frozenset(map(plain, labels)))
        if week is None and (week := daily_week(sheet)) is not None:
            notes.append(told_daily(sheet))
            drawings.append(Drawing(sheet, week, name))
            continue
        if week is None and is_unfilled(sheet):
            notes.append(unfilled(sheet))
        elif week is None or (
            not waits
            and find_grid(sheet, plain_form) is not None
            and not _names_teachers(week, known)
            and _is_plain(week, _ALONE if name else _PLAIN)
            and (name or (len(sheets.grids) == 1 and not says_whose(sheet.name)))
            and not week_of(name)
        ):
            grids.append((name, sheet))
        else:
            drawings.append(Drawing(sheet, week, name))
    return drawn_classes(drawings, known, options), grids


def _names(year: YearRows) -> Iterator[tuple[str, str]]:
    return ((row.name, row.label) for row in year.cycle if row.name)


_ALONE: Final = r"(?:(?!\s[-–—]\s)[^(@\n/,;|])+"
"""A class without a room: whose sheet it is may say that."""
_PLAIN: Final = rf"{_ALONE}(?:\([^()@\n/,;|]*\)|@[^(@\n/,;|]+|\n[^(@\n/,;|]+)?"
"""A class, and its room in brackets, behind @ or below it."""


def _names_teachers(week: DrawnWeek, known: KnownParts) -> bool:
    """Whether what stands behind the classes of a drawing are teachers, and no rooms."""
    behind = [part for held in week.held for part in re.split(r"[(@\n)]", held.text)[1:] if part.strip()]
    return bool(behind) and all(
        known.kind(part.strip()) == "teacher" or look_of(part) == "teacher" for part in behind
    )


def _is_plain(week: DrawnWeek, form: str) -> bool:
    """Whether a drawing says no more than labels, periods and in each cell what is of a `form`."""
    has_times = any(slot.time.start is not None for slots in week.slots for slot in slots)
    if len({held.whose for held in week.held}) > 1:
        return False
    is_said = any(held.week or held.beside or re.fullmatch(form, held.text) is None for held in week.held)
    return (
        not has_times
        and not is_said
        and not week.goes_on
        and not week.breaks
        and not week.idle
        and len(week.slots) == 1
    )


def _together(rows: ClassRows, drawn: DrawnClasses) -> ClassRows:
    """Listed and drawn rows as one."""
    items = [*rows.items, *drawn.items]
    weekdays = rows.weekdays
    if drawn.items and (weekdays is not None or not rows.items):
        weekdays = _weekdays_of(items)
    return rows._replace(items=items, bells=rows.bells | drawn.bells, weekdays=weekdays)


def _weekdays_of(items: Sequence[Item]) -> WeekdayCodes | None:
    codes = WeekdayCodes([item.text("label") for item in items], ENGLISH)
    return codes if codes.are_days else None


def _rung(bells: Table, beside: bool) -> list[tuple[str, Item]]:
    """The labels that bells are for, each with its row; weekdays are none `beside` labels of classes."""
    said = [(item.text("label"), item) for item in bells.items if item.text("label")]
    codes = WeekdayCodes([text for text, _ in said], ENGLISH)
    return [one for one in said if not beside or isinstance(codes.read(one[0]), Refusal)]


def _met(items: Sequence[Item], bells: Table | None) -> list[tuple[str, Item]]:
    """The labels that the `Meets` cells of a timetable name, each with a row."""
    met = [item for item in items if item.text("meets")]
    periods = [item.text("period") for item in (bells.items if bells else ())]
    return [(label, met[0]) for label in labels_met([item.text("meets") for item in met], periods)]


def _with_cycle(
    rows: ClassRows, heads: Sequence[str], bells: Table | None, year: YearRows, problems: list[Problem], notes: list[Problem]
) -> ClassRows:  # fmt: skip
    """The rows with the cycle that they show added to those of the year: A and B weeks, or a run of labels."""
    if weeks := weeks_found(rows.items):
        year.cycle.extend(weeks)
        notes.append(told(weeks))
        return rows
    texts = [(item.text("label"), item) for item in rows.items] if rows.weekdays is None else []
    texts += _rung(bells, bool(texts)) if bells else []
    if rows.weekdays is None:
        texts += _met(rows.items, bells)
        texts += [(label, rows.items[0]) for label in heads if rows.items and label not in WEEKDAYS]
    shown = labels_found(texts)
    year.cycle.extend(shown.rows)
    problems += shown.problems
    notes += shown.notes
    return rows._replace(items=[]) if shown.problems else rows  # one problem says it, not one a row
