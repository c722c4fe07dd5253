"""A whole plan: its tables read, its year worked out, its classes met. Everything that is wrong is found in one go."""

import datetime as dt
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.account import Account, RejectedRow
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import WEEKDAYS, listed, nearest
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.daysoff import DaysOff
from nomarium.school.bells import Bells, read_bells, unrung
from nomarium.school.cellparts import KnownParts
from nomarium.school.classesfound import ClassesFound, classes_found
from nomarium.school.drawnlines import heads_of_lines
from nomarium.school.drawnowners import of_sheet_named, whose
from nomarium.school.lengthsbeside import lengths_unlike_bells
from nomarium.school.lessons import Lesson, poured, read_lessons
from nomarium.school.meetings import Meeting, NotMet, meet
from nomarium.school.namesandpeople import Naming, People, enrolled, names_and_people
from nomarium.school.periodtimes import with_times
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.school.settings import Settings, read_settings
from nomarium.school.sheetsfound import SheetsFound, Taken, sheets_found
from nomarium.school.teachingweeks import placed_in_weeks
from nomarium.school.termcodes import term_codes
from nomarium.school.timetable import Known, Slot, merged_slots, read_list, said_of_days
from nomarium.school.timetablegrids import find_grid, read_timetable_grid
from nomarium.school.year import Year, make_year
from nomarium.school.yearspan import with_weekdays
from nomarium.school.yeartables import Dates, Term, YearRows, close_on, read_year_rows
from nomarium.sheets.sheet import Sheet


class Plan(NamedTuple):
    """A plan read and worked out."""

    file: str
    settings: Settings
    rows: YearRows
    year: Year
    bells: Bells
    naming: Naming
    people: People
    slots: list[Slot]
    meetings: list[Meeting]
    not_met: list[NotMet]
    lessons: dict[int, Lesson]
    """By the index of their meeting."""
    taken: list[Taken]
    """What each of its sheets was taken for."""
    has_drawn_weeks: bool
    event_sheets: list[Sheet]
    accounts: list[Account]
    """One a table, with the rows that a problem names as they stood."""
    problems: list[Problem]
    notes: list[Problem]
    options: ReadingOptions
    """How its event list is read: the settings of the plan under the options of the command line."""

    @property
    def classes(self) -> dict[str, str]:
        """The codes of its classes, by compared form."""
        return {plain(slot.code): slot.code for slot in self.slots}

    @property
    def meets_by_cycle(self) -> bool:
        """Whether some class meets on labels that are no weekdays."""
        return any(meeting.slot.label not in WEEKDAYS for meeting in self.meetings)


def read_plan(
    sheets: Sequence[Sheet],
    options: ReadingOptions,
    days_off: DaysOff | None = None,
    terms: Sequence[Sheet] = (),
) -> Plan:
    """Read the sheets of one plan and work it out. `terms` are tables of terms beside it; `days_off` are dates on which
    the school is closed, beside those of the plan: the cycle treats them as rows of Days off that say nothing of it."""
    problems, notes = list[Problem](), list[Problem]()
    found_sheets = sheets_found(sheets, options, terms, problems, notes)
    tables = found_sheets.tables
    settings, found = read_settings(tables.get("settings"))
    problems += found
    settings, under = _under(settings, options, notes)
    dates = Dates(tables.values(), under)
    problems += dates.problems
    notes += dates.notes
    rows = read_year_rows(tables, dates)
    problems += rows.problems
    notes += rows.notes
    naming, people, found = names_and_people(tables.get("names"), tables.get("people"))
    problems += found
    taught = classes_found(found_sheets, naming, people, rows, dates, under, problems, notes)
    notes += close_on(rows, days_off) if days_off else []
    settings = with_weekdays(settings, taught.rows.weekdays, taught.rows.items, notes)
    divisions, drawn = _divisions(tables, problems, notes), found_sheets.divisions
    starts = _starts(settings, dates, problems)
    year = make_year(rows, settings, divisions | drawn.keys(), starts)
    problems += [*year.problems, *_starts_late(settings, starts, year)]
    bells = _bells(found_sheets, year, rows, problems, notes)
    accounts = [*found_sheets.accounts, *taught.accounts]
    slots = _slots(taught, year, _known(year, bells, rows), dates, naming, people, accounts, problems, notes)
    slots = [one._replace(division=one.division or drawn.get(plain(one.place.sheet), "")) for one in slots]
    notes += _unused_names(tables.get("names"), slots)
    slots, dropped = _kept(slots, naming, tables, notes)
    met = meet(slots, year, bells, settings) if not dates.problems else meet([], year, bells, settings)
    problems += [*lengths_unlike_bells(taught.rows.items, bells), *met.problems]
    notes += met.notes
    lessons, found = read_lessons(tables.get("lessons"))
    problems += found
    lessons = {code: listed for code, listed in lessons.items() if code not in dropped}
    has_gaps = bool(met.problems) or any(
        one.place.sheet == _sheet_name(tables, "timetable") for one in problems
    )
    classes = {plain(item.text("class")): item.text("class") for item in taught.rows.items}
    classes |= {plain(slot.code): slot.code for slot in slots}
    people, found = _attending(people, tables.get("enrolments"), slots, classes)
    problems += found
    by_meeting, found, left_over = poured(lessons, met.meetings, classes)
    problems += found if has_gaps else [*found, *left_over]
    if slots and not year.days and not problems:
        message = "The plan has classes and no school day: none of its terms has one."
        problems.append(Problem("terms-missing", message, "Correct the terms.", Place(sheets[0].file)))
    if not (slots or rows.cycle or found_sheets.events):
        notes.append(note("plan-empty", "The plan has neither classes, nor a cycle, nor events."))
    _reject([*(item for table in tables.values() for item in table.items), *taught.drawn], problems)
    return Plan(
        sheets[0].file, settings, rows, year, bells, naming, people, slots, met.meetings, met.not_met, by_meeting, found_sheets.taken, bool(taught.drawn), [with_times(sheet, bells, notes) for sheet in found_sheets.events],
        accounts, problems, notes, _event_options(under, year, dates, rows.terms),
    )  # fmt: skip


def _sheet_name(tables: dict[str, Table], name: str) -> str | None:
    return tables[name].sheet.name if name in tables else None


def _under(
    settings: Settings, options: ReadingOptions, notes: list[Problem]
) -> tuple[Settings, ReadingOptions]:
    """The options of the command line over the settings of the plan, each that beats one told."""
    for option, setting, name in (
        (options.zone, settings.zone, "--timezone"),
        (options.date_order, settings.date_order, "--date-order"),
    ):
        if option and setting and option != setting:
            notes.append(
                note("setting-overruled", f"{name} {option} beats the setting {setting} of the plan.")
            )
    zone = options.zone or settings.zone
    under = options._replace(zone=zone, date_order=options.date_order or settings.date_order, layout=None)
    return settings._replace(zone=zone), under


def _bells(
    found: SheetsFound, year: Year, rows: YearRows, problems: list[Problem], notes: list[Problem]
) -> Bells:
    """The bells of the plan, and what is said of those that ring on no date."""
    bells = read_bells(found.tables.get("bells"), year.labels)
    problems += bells.problems
    notes += bells.notes
    idle = [one.sheet for one in found.taken if one.kind.table in ("", "events", "daysoff", "terms")]
    for said in unrung(bells, rows.specials, idle):
        (notes if said.severity == "note" else problems).append(said)
    return bells


def _divisions(tables: dict[str, Table], problems: list[Problem], notes: list[Problem]) -> frozenset[str]:
    """The divisions that have classes, in compared form; blank for classes without one. A division that
    only one side knows is a slip."""
    has_classes = tables["timetable"].items if "timetable" in tables else []
    taught = {plain(item.text("division")): item for item in has_classes}
    named: dict[str, Item] = {}
    for name in ("bells", "terms", "daysoff", "specialdays"):
        for item in tables[name].items if name in tables else ():
            if item.text("division"):
                named.setdefault(plain(item.text("division")), item)
    for mine, others in ((taught, named), (named, taught)):
        for key, item in mine.items():
            if not key or key in others:
                continue
            text = item.text("division")
            near = nearest(key, filter(None, others), 0.75)
            if near:
                message = f"No other table knows the division “{text}”."
                remedy = f"Did you mean {others[near].text('division')}?"
                problems.append(item.problem("division-unknown", "division", message, remedy))
            elif mine is named and has_classes:
                message = f"No class is of the division “{text}”: what is said of it changes nothing."
                notes.append(note("division-idle", message).at(item.place("division")))
    return frozenset(taught) or frozenset([""])


def _starts(settings: Settings, dates: Dates, problems: list[Problem]) -> dt.date | None:
    """The date of the setting `Cycle starts`."""
    item = settings.starts
    if item is None:
        return None
    day = dates.read(item, "value") if dates.decisions is not None else None
    if day is None or isinstance(day, Problem):
        from nomarium.reading.cells.dates import Days, read_days
        from nomarium.reading.cells.words import ENGLISH

        days = read_days(item.text("value"), ENGLISH)
        readings = days.first.readings if isinstance(days, Days) and not days.rest else ()
        if len(readings) == 1 and readings[0].year and (date := readings[0].date()):
            return date
        message = f"“{item.text('value')}” is no date and not “the first school day”."
        problems.append(item.problem("setting-value", "value", message, "Write it like 2027-09-07."))
        return None
    return day


def _starts_late(settings: Settings, starts: dt.date | None, year: Year) -> list[Problem]:
    """A problem where the cycle starts after the last school day."""
    if starts is None or settings.starts is None or not year.days or starts <= year.days[-1].date:
        return []
    message = f"The cycle starts on {starts}, after the last school day, {year.days[-1].date}."
    return [settings.starts.problem("setting-value", "value", message, "Correct the date or the terms.")]


def _attending(
    people: People, table: Table | None, slots: Sequence[Slot], classes: dict[str, str]
) -> tuple[People, list[Problem]]:
    """The people with those who attend classes, which Enrolments names by code, or by title where only one has it."""
    codes: dict[str, set[str]] = {}
    for slot in slots:
        codes.setdefault(plain(slot.title), set()).add(slot.code)
    titles = {title: found.copy().pop() for title, found in codes.items() if title and len(found) == 1}
    return enrolled(
        people, table, titles | classes, dict.fromkeys(name for slot in slots for name in slot.teachers)
    )


def _known(year: Year, bells: Bells, rows: YearRows) -> Known:
    weekdays_work = year.moves == "by weekday" or not year.labels.names
    return Known(year.labels, bells.periods, term_codes(rows.terms), weekdays_work)


def _slots(
    taught: ClassesFound, year: Year, known: Known, dates: Dates, naming: Naming, people: People,
    accounts: list[Account], problems: list[Problem], notes: list[Problem],
) -> list[Slot]:  # fmt: skip
    """The slots of the list and of all grids."""
    slots: list[Slot] = []
    if taught.rows.items:
        found = read_list(taught.rows, known, dates)
        sheets = {(item.table.sheet.file, item.table.sheet.name) for item in taught.drawn}
        is_drawn = [(slot.place.file, slot.place.sheet) in sheets for slot in found.slots]
        slots += [slot for slot, one in zip(found.slots, is_drawn, strict=True) if not one]
        slots += merged_slots([slot for slot, one in zip(found.slots, is_drawn, strict=True) if one])
        problems += found.problems
        notes += found.notes
    classes = frozenset(
        {plain(slot.code) for slot in slots} | {c for c, k in naming.kinds.items() if k == "class"}
    )
    rooms = {plain(slot.room) for slot in slots if slot.room} | {
        c for c, k in naming.kinds.items() if k == "room"
    }
    drawn: list[Slot] = []
    for name, sheet in taught.grids:
        grid = find_grid(sheet, known)
        if grid is None:
            what = "neither a column “Class” nor labels and periods as headings of a grid"
            message = f"The sheet “{sheet.name}” has {what}."
            remedy = f"Labels are {', '.join(known.labels.names) or 'weekdays'}; periods are {', '.join(known.periods.names) or 'those of Bells'}."
            if names := heads_of_lines(sheet):
                message = f"The lines of the sheet “{sheet.name}” stand under {listed(names)}, and nothing says what these are."
                remedy = f"If {listed(names)} are the days of a cycle, list them in a table Cycle, in a column Label, in the order in which they come."
            problems.append(Problem("timetable-unread", message, remedy, sheet.place()))
            continue
        whose = _whose(name, rooms, people)
        found, account = read_timetable_grid(sheet, grid, known, classes, whose, naming.of_any)
        drawn += found.slots
        problems += found.problems
        accounts.append(account)
    placed = placed_in_weeks([*slots, *merged_slots(drawn)], year)
    problems += [*placed.problems, *said_of_days(placed.slots)]
    notes += placed.notes
    return placed.slots


def _whose(name: str, rooms: set[str], people: People) -> Slot | None:
    """What a sheet `Timetable - NAME` adds to its classes: a room or a group, as it is known or looks, or a teacher."""
    if not name:
        return None
    known = KnownParts(rooms=frozenset(rooms), groups=frozenset(people.groups))
    owner = whose(name, known, ()) or of_sheet_named(name)
    teachers = (owner["teacher"],) if "teacher" in owner else ()
    return Slot("", "", "", room=owner.get("room", ""), teachers=teachers, group=owner.get("group", ""))


def _unused_names(table: Table | None, slots: list[Slot]) -> list[Problem]:
    """Rows of Names for a class that no table has: likely a slip."""
    codes = {plain(slot.code): slot.code for slot in slots}
    found = []
    for item in table.items if table and codes else ():
        code = item.text("code")
        if plain(item.text("kind")).startswith("class") and plain(code) not in codes:
            near = nearest(code, codes.values())
            hint = f" Did you mean {near}?" if near else ""
            message = f"No class has the code “{code}”: the row changes nothing.{hint}"
            found.append(note("name-unused", message).at(item.place("code")))
    return found


def _kept(
    slots: list[Slot], naming: Naming, tables: dict[str, Table], notes: list[Problem]
) -> tuple[list[Slot], set[str]]:
    """The slots without the classes that Names does not keep."""
    dropped = {
        plain(slot.code)
        for slot in slots
        if (row := naming.of("class", slot.code)) is not None and not row.keep
    }
    if dropped:
        codes = ", ".join(dict.fromkeys(slot.code for slot in slots if plain(slot.code) in dropped))
        notes.append(note("class-dropped", f"Names does not keep {codes}: no meetings of it are written."))
        rows = [
            item
            for item in (tables["timetable"].items if "timetable" in tables else [])
            if plain(item.text("class")) in dropped
        ]
        for item in rows:
            item.table.account.leave_out()
    return [slot for slot in slots if plain(slot.code) not in dropped], dropped


def _reject(items: Iterable[Item], problems: Iterable[Problem]) -> None:
    """Account for the rows that a problem names as rejected, as they stood; of a drawing, for the cells."""
    reasons: dict[tuple[str, str, int], list[Problem]] = {}
    for one in problems:
        if one.place.row:
            reasons.setdefault((one.place.file, one.place.sheet, one.place.row), []).append(one)
    for item in items:
        sheet, headings = item.table.sheet, item.table.headings
        why = reasons.get((sheet.file, sheet.name, item.number))
        account = item.table.account
        if why and item.table.is_of_cells:
            why = [one for one in why if one.place.column in ("", item.place("class").column)]
        if why and account.ledger.events:
            account.ledger.events -= 1
            account.ledger.rejected += 1
            cells = tuple(item.cells.get(field, "") for field in headings)
            account.rejected.append(RejectedRow(tuple(headings.values()), cells, tuple(why)))


def _event_options(under: ReadingOptions, year: Year, dates: Dates, terms: Sequence[Term]) -> ReadingOptions:
    """How the plan's event lists are read: dates in the order and the years of the other tables."""
    from nomarium.school.phrases import phrase_reader
    from nomarium.school.termweeks import term_week_reader

    window = under.school_year or ((year.first, year.last) if year.first and year.last else None)
    order = under.date_order or (dates.decisions.order if dates.decisions is not None else "")
    return under._replace(
        date_order=order,
        school_year=window,
        repeats_until=under.repeats_until or year.last,
        knows_days_off=True,
        cycle=phrase_reader(year),
        term_week=term_week_reader(terms) if terms else None,
        sheets=(),
    )
