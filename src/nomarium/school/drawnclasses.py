"""Drawn weeks as rows of a Timetable: their times settled, their cells taken apart."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.times import DAY_SECS
from nomarium.reading.layouts.drawn import ditto
from nomarium.reading.layouts.eveningsdown import in_evenings
from nomarium.reading.layouts.saidlengths import said_length
from nomarium.reading.layouts.slots import RUN_ON, Line, after_midnight, forward, later, line_ends
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.titles import is_ditto
from nomarium.reading.rows.when import NOTHING
from nomarium.school.bells import Bell
from nomarium.school.calledoff import said_off
from nomarium.school.cellparts import CellReader, Entry, KnownParts
from nomarium.school.drawncells import DrawnWeek, Held
from nomarium.school.drawnheads import heads_names
from nomarium.school.drawnlines import Slot, is_time
from nomarium.school.drawnowners import first_parts, kind_in_corner, kind_of_heading, said_by
from nomarium.school.drawnsheets import Drawing, with_owners
from nomarium.school.planheads import field_of
from nomarium.school.plantables import Item, Table
from nomarium.sheets.sheet import Sheet, cell_text

_HEADED = 'Give the sheet headings (Class, Day, Time); if it is no timetable, leave it out: --table "SHEET=".'
_SAYING_WHEN = frozenset(("label", "period", "time", "start", "end", "length", "meets", "first", "last"))
_FIELDS = ("class", "title", "room", "teacher", "group", "notes", "label", "week", "period", "time")


class DrawnClasses(NamedTuple):
    """The rows that drawn weeks come to."""

    items: list[Item]
    bells: dict[int, Bell]
    """By the identity of a row: the times that its line has."""
    accounts: list[Account]
    problems: list[Problem]
    notes: list[Problem]
    labels: list[str]
    """What heads the days that were drawn, also those without a class."""


def drawn_classes(drawings: Sequence[Drawing], known: KnownParts, options: ReadingOptions) -> DrawnClasses:
    """The classes of drawn weeks; the parts of their cells are found from those of all of them."""
    found = DrawnClasses([], {}, [], [], [], [])
    every = [held.text for one in drawings for held in one.week.held]
    seen = CellReader(every, known, options.cell).seen
    owned = list(with_owners(drawings, known, seen, found.notes))
    owners = [
        said_by(
            first_parts((held.whose, held.text) for held in one.week.held if held.whose),
            known,
            seen,
            found.notes,
            one.sheet,
            kind_in_corner(one.sheet),
            kind_of_heading(one.sheet.name),
        )
        for one in owned
    ]
    told = {kind for one in owned for kind in one.base}
    told |= {kind for names in owners for owner in names.values() for kind in owner}
    cells = [held for one in drawings for held in one.week.held if "class" not in one.base]
    lessons = [
        (held.week, held.labels, *((slot.period, cell_text(slot.heading)) for slot in held.slots))
        for held in cells
    ]
    reader = CellReader([held.text for held in cells], known, options.cell, frozenset(told), lessons)
    for drawing, names in zip(owned, owners, strict=True):
        _take(found, drawing, names, reader, options)
        found.labels.extend(drawing.week.labels)
    if drawings:
        found.notes.extend(one.at(drawings[0].sheet.place()) for one in reader.told())
    return found


def _entries(held: Held, reader: CellReader) -> list[Entry] | Refusal:
    """The classes of a cell, none of which is called after a time."""
    if is_ditto(held.text):
        return ditto(held.text)
    parts = re.split(r"\s*[\n,;()/]\s*|\s+[-–—]\s+", held.text)
    why = said_off(" ".join(held.text.split()), is_name=True) or next(
        filter(None, map(said_off, parts)), None
    )
    if why is not None:
        return why
    entries = reader.read(held.text)
    timed = [] if isinstance(entries, Refusal) else [one.code for one in entries if is_time(one.code)]
    if timed:
        message = f"“{timed[0]}” is a time, and stands where a class should."
        return Refusal("class-time", message, _HEADED)
    return entries


def _take(
    found: DrawnClasses,
    drawing: Drawing,
    owners: Mapping[str, Mapping[str, str]],
    reader: CellReader,
    options: ReadingOptions,
) -> None:
    sheet, week = drawing.sheet, drawing.week
    account = Account(sheet.title, "entries", is_plan=True)
    found.accounts.append(account)
    remarks = [row for row in week.others if any(map(cell_text, row[1]))]
    account.ledger.read = len(week.held) + week.idle + len(remarks)
    account.ledger.events, account.ledger.notes = len(week.held), week.idle + len(remarks)
    found.problems.extend(_open_cells(sheet, week))
    times = _times(found, sheet, week, options)
    tables: dict[int, Table] = {}
    told = set[str]()
    for held in week.held:
        table = tables.setdefault(
            held.column,
            Table(
                "timetable",
                sheet,
                dict.fromkeys(_FIELDS, held.column),
                dict.fromkeys(_FIELDS, ""),
                [],
                account,
                is_of_cells=True,
            ),
        )
        entries = _entries(held, reader)
        if any(times.get(id(slot), slot) is None for slot in held.slots):  # told with its line
            account.ledger.events -= 1
            account.ledger.rejected += 1
            continue
        if isinstance(entries, Refusal):
            if entries.message not in told:  # what holds of many cells is said of the first
                told.add(entries.message)
                found.problems.append(entries.problem(sheet.place(held.number, held.column), held.text))
            account.ledger.events -= 1
            account.ledger.rejected += 1
            continue
        base = {**drawing.base, **owners.get(held.whose, {}), **held.beside}
        for entry in entries:
            cells = {
                **base,
                **{
                    field: value
                    for field, value in zip(
                        ("class", "room", "teacher", "group", "title", "notes"), entry, strict=True
                    )
                    if value
                },
            }
            for slots in _joined_by_time(held, times):
                _add(found, Item(table, held.number, dict(cells)), held, slots, times)
    found.notes.extend(_told(sheet, week))


def _told(sheet: Sheet, week: DrawnWeek) -> Iterator[Problem]:
    """Notes of what a drawing holds that is no class, and of what its lines have from above."""
    if week.idle:
        message = f"{counted(week.idle, 'cell says', 'cells say')} that nothing is taught (a dash, “free” …)."
        yield note("slots-free", message).at(sheet.place())
    for heading in sorted(week.once):
        message = f"“{heading}” is written once a group: the lines below have it from above."
        yield note("group-once", message).at(sheet.place())
    if week.unused:
        shown = ", ".join(f"“{heading}”" for heading in week.unused.values())
        message = f"Not used, beside the names of the rows: {shown}."
        yield note("plan-column-unused", message).at(sheet.place())
    if week.above:
        named = listed([f"{part} “{value}”" for part, value in week.above.items()])
        message = f"All classes of the drawing have what stands above it: {named}."
        yield note("said-above", message).at(sheet.place())
    if week.unused_above:
        shown = listed([f"“{text}”" for text in week.unused_above])
        yield note("plan-column-unused", f"Not used, above the classes: {shown}.").at(sheet.place())
    if week.breaks:
        shown = listed(list(dict.fromkeys(week.breaks)))
        yield note("breaks", f"No classes are in {shown}.").at(sheet.place())


def _joined_by_time(held: Held, times: Mapping[int, Bell | None]) -> Iterable[tuple[Slot, ...]]:
    """The lines of a cell, together where they have times: a merged cell is one meeting."""
    if all(times.get(id(slot)) is not None for slot in held.slots):
        return (held.slots,)
    return ((slot,) for slot in held.slots)


def _add(
    found: DrawnClasses, item: Item, held: Held, slots: Sequence[Slot], times: Mapping[int, Bell | None]
) -> None:
    period = (
        slots[0].period
        if len(slots) == 1 or not slots[-1].period
        else f"{slots[0].period}–{slots[-1].period}"
    )
    item.cells.update({"label": ", ".join(held.labels), "week": held.week, "period": period})
    bells = [bell for slot in slots if (bell := times.get(id(slot))) is not None]
    if bells:
        found.bells[id(item)] = Bell(period, bells[0].start_secs, bells[-1].end_secs, "", item)
    found.items.append(item)


def _open_cells(sheet: Sheet, week: DrawnWeek) -> Iterator[Problem]:
    """What is wrong with cells of which nothing says when they are, or in which weeks."""
    for number, column, text in week.untimed:
        message = "No line says in which period, or at which time, this is."
        remedy = (
            "Write its time into the cell, as the others have theirs."
            if week.times_in_cells
            else "Give its row a period or a time left of the days."
        )
        yield Problem("cell-untimed", message, remedy, sheet.place(number, column), text)
    for (number, column), text in week.strange.items():
        message = "The heading stands between days and names none: when what stands under it is held cannot be told."
        remedy = "Write it as the others are, Thursday or Thu say; if it is no day, move its column right of the days."
        yield Problem("weekday-unknown", message, remedy, sheet.place(number, column), text)
    named = next((held for held in week.held if heads_names(re.sub("s$", "", held.whose))), None)
    if named is not None:
        message = f"“{named.whose}” heads a column of each day, beside columns of groups: whose it is cannot be told."
        remedy = "Write it into the cells of the classes, “Lofting (Loft 1)”."
        yield Problem("drawn-headings", message, remedy, sheet.place(named.number, named.column), named.text)
    for column, heading in week.unused.items():
        if field_of(heading, "timetable") in _SAYING_WHEN:
            message = f"The column “{heading}” beside the names says when the classes of a row are held, and is not read."
            remedy = f'If it does not: --table "{sheet.name}=" and a sheet without it; else give each class a row of its own.'
            yield Problem("plan-column-unheard", message, remedy, sheet.place(None, column, heading))
    if (twice := _held_twice(week)) is not None:
        message = f"{twice.labels[0]} stands twice here, with the same lines, and nothing says in which weeks or for whom."
        remedy = (
            "Write it beside the days (“Week A”, a column “Week”) or above each drawing (a class, a teacher)."
        )
        yield Problem("drawn-twice", message, remedy, sheet.place(twice.number, twice.column), twice.text)


_NEXT_DAY = Refusal(
    "drawn-night",
    "Below times of an evening this is on the next morning, and a timetable's day ends at midnight.",
    "Write it under the next weekday, above its other times; or, for one week only, say --day-one 2026-09-07.",
)


def _held_twice(week: DrawnWeek) -> Held | None:
    """The first cell on a day and a line that another drawing of the sheet has, too, where neither names its week or a class."""
    seen: dict[tuple[str, str, object], int] = {}
    for part, (begin, end) in enumerate(pairwise([*week.begins, len(week.held)])):
        for held in week.held[begin:end]:
            keys = [(name, slot.period, slot.time) for name in held.labels for slot in held.slots]
            if not (held.week or held.whose) and any(seen.setdefault(key, part) != part for key in keys):
                return held
    return None


def _times(
    found: DrawnClasses, sheet: Sheet, week: DrawnWeek, options: ReadingOptions
) -> dict[int, Bell | None]:
    """The times of lines, by their identity, those of each drawing run forward through the day; None for those refused."""
    times: dict[int, Bell | None] = {}
    taught = {id(slot): held for held in week.held for slot in held.slots}
    moved, length = list[str](), said_length(week.others)
    for slots, typed in zip(week.slots, _typed(week, options), strict=True):
        settled = forward(typed, options.clock, " ".join((sheet.name, *week.titles)))
        later_on = later([Line(slot.at, slot.heading, slot.time) for slot in slots], settled)
        moved += later_on
        if later_on and not week.times_in_cells:
            found.notes.append(_forward_told(sheet, later_on))
        if any(line.time.start is not None and line.time.end is None for line in settled):
            told = length.told if length is not None else RUN_ON
            found.notes.append(note("lines-run-on", told).at(sheet.place()))
        times_of = [line.time for line in settled]
        nights = after_midnight(times_of)
        idle = [n for n, slot in enumerate(slots) if id(slot) not in taught]
        ends = line_ends(times_of, idle, length.secs if length is not None else 0)
        table = Table("timetable", sheet, {}, {}, [], Account())
        for slot, line, end, is_next in zip(slots, settled, ends, nights, strict=True):
            if line.time is NOTHING or line.time.start is None:
                continue
            if is_next:
                found.problems.append(_NEXT_DAY.problem(sheet.place(), cell_text(slot.heading)))
            if line.time.refusal is not None:
                held = taught.get(id(slot)) if week.times_in_cells else None
                place = sheet.place(held.number, held.column) if held else sheet.place()
                found.problems.append(line.time.refusal.problem(place, cell_text(slot.heading)))
                times[id(slot)] = None
                continue
            start = line.time.start.secs
            end_secs = end.secs if end is not None and end.secs > start else start + options.length_secs
            if line.time.end is not None and line.time.end.secs <= start:
                end_secs = line.time.end.secs + DAY_SECS  # 23:00-07:00
            times[id(slot)] = Bell(slot.period, start, end_secs, "", Item(table, 0, {}))
    if moved and week.times_in_cells:
        found.notes.append(_forward_told(sheet, list(dict.fromkeys(moved))))
    return times


def _typed(week: DrawnWeek, options: ReadingOptions) -> list[list[Line]]:
    """The lines of each drawing as they are typed; where times stand in the cells, those of evenings say that they are."""
    lines = [[Line(slot.at, slot.heading, slot.time) for slot in slots] for slots in week.slots]
    if not week.times_in_cells or options.clock:
        return lines
    parts = in_evenings([[(line.time, cell_text(line.heading)) for line in of_day] for of_day in lines])
    pairs = (zip(of_day, own, strict=True) for of_day, own in zip(lines, parts, strict=True))
    return [[replace(line, time=part) for line, part in pair] for pair in pairs]


def _forward_told(sheet: Sheet, moved: Sequence[str]) -> Problem:
    shown = listed(moved[:6]) + (" and more" if len(moved) > 6 else "")
    message = f"Times without am or pm run forward through the day: {shown} in the afternoon."
    return note("bells-forward", message).at(sheet.place())
