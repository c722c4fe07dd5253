"""A day sheet: times down and places, tracks or people across, or turned, on one day that the title or `--set date=` says."""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.choices import says_not_held
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.daysaid import day_of_section, day_said, names_section
from nomarium.reading.layouts.drawn import DrawnEntry, date_part, events_of, merged_from
from nomarium.reading.layouts.grid import title_and_place
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.namedslots import is_break
from nomarium.reading.layouts.notdaysheets import (
    are_records,
    holds_its_kind,
    is_numbered,
    names_place,
    numbers_days,
)
from nomarium.reading.layouts.repeatedday import as_list_of
from nomarium.reading.layouts.slots import (
    NEXT_MORNING,
    Line,
    after_midnight,
    are_codes,
    forward,
    is_clear_time,
    later,
    number_others,
    slot_ends,
    time_of,
    typed_hours,
    usual_step,
)
from nomarium.reading.layouts.twoedges import with_ends_joined
from nomarium.reading.rows.titles import is_unheld
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_PERSON = re.compile(
    r"(?i:mr|mrs|ms|miss|mx|dr|prof|mme|mlle|m|herr|frau|sr|sra|dhr|mevr)\.?\s+\S.*|(?:[A-Z]\.\s?)+[A-Z][^\W\d]+(?:-[A-Z]\w+)?"
)
_PEOPLE = frozenset(
    "name names student students pupil pupils candidate candidates apprentice apprentices family families parent parents member members team teams child trainee eleve eleves schuler kandidat equipe".split()
)
"""Headings of people, or of those who play together."""
_OF_PEOPLE = frozenset(
    ("person", "teacher", "attendees", "group", "class", "organizer", "audience", "division")
)
"""What the heading over names says they are, where these are no places."""
_BREAKS = frozenset(("break", "pause"))
"""What stands in a slot in which nothing can be booked."""
_LEAST_SLOTS = 2
_ANY_DAY = dt.date(2000, 1, 1)
"""In place of the days of a programme that is held again and again."""
_RECORDS = frozenset(
    "candidate candidates role applicant student pupil parent parents child patient client customer speaker speakers presenter topic item agenda "
    "action owner chair company organisation organization position job age reason type name names member phone contact".split()
)
"""Headings of what rows of a list say, and of no place or person that has a column."""
_MARKS = frozenset("x X ✓ ✔ • * ● ■ ×".split())
"""Signs that say only that somebody is there, or something is on."""


class _Drawing(NamedTuple):
    """The sheet from its row of headings on."""

    head: Row
    lines: tuple[Line, ...]
    """The times: rows, or columns where these stand across."""
    headings: Mapping[int, str]
    """What stands beside them, by column, or by row number where the times stand across."""
    body: tuple[Row, ...]
    """The rows of slots."""
    above: tuple[Row, ...]
    below: tuple[Row, ...]
    """Rows that say nothing of a slot."""
    is_across: bool = False
    """Whether the times are."""
    unused: tuple[str, ...] = ()
    """Headings of numbers beside the places, `Capacity`."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as the programme of one day, or say why it is none."""
    least = 1 if top.sheet.part else _LEAST_SLOTS  # one of several programmes below each other
    drawing = _times_down(with_ends_joined(top.rows), top.of_weekdays, least) or _times_across(
        top.rows, top.of_weekdays
    )
    if drawing is None:
        reason = "it is no day sheet"
        message = f"{top.sheet.title} has no times on one side and places on the other."
        return not_read(top.sheet, "no-day", reason, "day-none", message)
    sheet, entries, problems = top.sheet, list[DrawnEntry | Problem](), list[Problem]()
    told = dict[Problem, None]()
    for part in _by_days(drawing, top.of_weekdays):
        is_section = bool(part.above) and part.above[-1] in drawing.below
        day = day_of_section(top, part.above) if is_section else day_said(top, part.above, part.head)
        if isinstance(day, Problem) and is_section:
            problems.append(day)
            continue
        if isinstance(day, Problem):
            return NotRead(top.sheet, "day-unnamed", "nothing says which day it is", day)
        date, where = day
        lines, moved = _lines(top, part)
        of_day, idle = _entries(sheet, part, _ANY_DAY if isinstance(date, str) else date, lines)
        nights = after_midnight([line.time for line in lines])
        entries += of_day
        told |= dict.fromkeys(_told(part, date, where, lines, nights))
        if idle:
            told[note("slots-idle", f"Slots in which nothing happens (a dash, “free” …): {idle}.")] = None
        if moved:
            told[
                note(
                    "grid-forward",
                    f"Times without am or pm run forward: {', '.join(moved)} in the afternoon.",
                )
            ] = None
        if isinstance(date, str):
            return as_list_of(top, date, entries, [*told], any(nights))

    def events(account: Account) -> Iterator[Event]:
        for number, row in (*drawing.above, drawing.head, *drawing.below):
            if row is not drawing.head[1]:
                _note(sheet, number, " ".join(filter(None, map(cell_text, row))), account)
        yield from events_of(sheet, entries, top.options, account)

    notes = (*sheet.notes, *(one.at(sheet.place()) for one in told))
    return Reading(sheet, "day", events, notes, tuple(problems))


def _by_days(drawing: _Drawing, lexicon: Lexicon) -> list[_Drawing]:
    """The drawing, or a part of it for each day that a row among its slots names and holds nothing else."""
    named = [
        one for one in drawing.below if len(_texts(one[1])) == 1 and names_section(_texts(one[1])[0], lexicon)
    ]
    if not named or drawing.is_across:
        return [drawing]
    found = []
    for (number, _), following in zip(named, [*named[1:], None], strict=True):
        end = following[0] if following else drawing.lines[-1].index + 1
        lines = tuple(line for line in drawing.lines if number < line.index < end)
        body = tuple(row for row in drawing.body if number < row[0] < end)
        above = (*drawing.above, *(one for one in drawing.below if one[0] == number))
        found += [drawing._replace(lines=lines, body=body, above=above)] if lines else []
    first = tuple(line for line in drawing.lines if line.index < named[0][0])
    if first:
        of_first = tuple(row for row in drawing.body if row[0] < named[0][0])
        found.insert(0, drawing._replace(lines=first, body=of_first))
    return found


def _told(
    drawing: _Drawing, date: dt.date | str, where: str, lines: Sequence[Line], nights: Sequence[bool]
) -> list[Problem]:
    """What is said of a day sheet that is read."""
    shown = f"“{date}”" if isinstance(date, str) else date
    sides = "times across, one row" if drawing.is_across else "times down, one column"
    told = [note("layout-day", f"Read as the programme of {shown} ({where}): {sides} a place or person.")]
    if drawing.unused:
        named = listed([f"“{heading}”" for heading in drawing.unused])
        told.append(note("column-unused", f"Not used: the column{'s' * (len(drawing.unused) > 1)} {named}."))
    if not usual_step([line.time for line in lines])[1] and any(line.time.end is None for line in lines):
        told.append(
            note("lines-run-on", "A time without an end lasts until the next one. If not, write the ends.")
        )
    if any(nights):
        shown = ", ".join(cell_text(lines[at].heading) for at, is_next in enumerate(nights) if is_next)
        told.append(note("slots-night", NEXT_MORNING.format(shown)))
    return told


def _note(sheet: Sheet, number: int, text: str, account: Account) -> None:
    """A row that says nothing of a slot; one that begins with a time, `19:00 Dinner`, is refused."""
    account.ledger.read += 1
    if not is_clear_time(text.partition(" ")[0]):
        account.note_row(number, text)
        return
    account.ledger.rejected += 1
    message = "It says a time in a row of its own, and stands in none of the columns."
    account.problems.append(
        Problem(
            "grid-stray",
            message,
            "Put the time into the column of times, and the rest beside it.",
            sheet.place(number),
            text,
        )
    )


def _times_down(rows: Sequence[Row], lexicon: Lexicon, least: int) -> _Drawing | None:
    filled = [(number, row) for number, row in rows if not is_blank(row)]
    for at, (number, row) in enumerate(filled):
        across = tuple(n for n, cell in enumerate(row) if n and cell_text(cell))
        if len(across) < 2 or not all(isinstance(row[n], str) for n in across):
            continue
        are_classes = are_codes([row[n] for n in across]) and _begin_with_times(filled[at + 1 :])
        if all(is_clear_time(row[n]) for n in across) and not are_classes:
            return None  # times across, and what begins the rows is a number: `Court`, 1, 2
        headings = [cell_text(row[n]) for n in across]
        if any(looks_like_date(row[n], lexicon) for n in across):
            return None
        known = [
            len(text) > 1
            and not is_numbered(text)
            and not _heads_remarks(text)
            and (match_exactly(text) or fold(text) in _RECORDS or any(map(lexicon.knows, fold(text).split())))
            for text in headings
        ]
        body = typed_hours(filled[at + 1 :], 0, cell_text(row[0]))
        slots = tuple(one for one in body if _slot(one) is not NOTHING)
        are_places = sum(map(names_place, headings)) * 2 > len(headings)  # Hall, Loft 2, Shed A
        if (
            (any(known) and not are_places)
            or len(slots) < (1 if are_places else least)
            or len(slots) < len(body) / 2
            or _slot((number, row)) is not NOTHING
            or number_others(cell_text(row[0]), [one[1][0] for one in slots])
            or numbers_days(cell_text(row[0]), [one[1][0] for one in slots], lexicon)
        ):
            return None
        below = tuple(one for one in body if one not in slots)
        if any(len(said) > 1 and not all(map(is_break, said)) for _, one in below if (said := _texts(one))):
            return None
        if are_records(slots, lexicon) or holds_its_kind(slots, dict(zip(across, headings, strict=True))):
            return None
        lines = tuple(Line(n, cells[0], time_of(cells[0])) for n, cells in slots)
        named = dict(zip(across, headings, strict=True))
        remarks = [n for n, heading in named.items() if _heads_remarks(heading)]
        unused = tuple(named.pop(n) for n in remarks)
        shown = tuple(
            (n, [_remark(cell, lexicon) if m in remarks else cell for m, cell in enumerate(cells)])
            for n, cells in slots
        )
        return _Drawing((number, row), lines, named, shown, tuple(filled[:at]), below, unused=unused)
    return None


def _heads_remarks(heading: str) -> bool:
    match = match_exactly(heading)
    return match is not None and match.field == "description"


def _remark(cell: Cell, lexicon: Lexicon) -> Cell:
    """A cell of remarks beside the places: nothing, unless it may say when something is, `Sat only`, or that it is not held."""
    words = re.findall(r"[^\W\d_]+|\d", fold(cell_text(cell)))
    return (
        cell
        if says_not_held(cell_text(cell)) or any(word.isdigit() or word in lexicon.weekdays for word in words)
        else ""
    )


def _texts(row: Sequence[Cell]) -> list[str]:
    return [text for cell in row if (text := cell_text(cell))]


def _begin_with_times(rows: Sequence[Row]) -> bool:
    """Whether most rows begin with a time that is no mere number."""
    return sum(bool(row) and is_clear_time(row[0]) for _, row in rows) * 2 > len(rows)


def _times_across(rows: Sequence[Row], lexicon: Lexicon) -> _Drawing | None:
    """The drawing where a row says nothing but times behind its first cell, and what begins the rows under it is none."""
    filled = [(number, row) for number, row in rows if not is_blank(row)]
    for at, (number, row) in enumerate(filled):
        across = [n for n, cell in enumerate(row) if n and cell_text(cell)]
        if len(across) < 2:
            continue
        lines = tuple(Line(n, row[n], time_of(row[n])) for n in across)
        below = tuple(
            one
            for one in filled[at + 1 :]
            if sum(bool(cell_text(cell)) for cell in one[1]) == 1 and not one[1][0]
        )
        body = tuple(one for one in filled[at + 1 :] if one not in below)
        counts = _counts_beside(row, across, body)
        across = [n for n in across if n not in counts]
        lines = tuple(line for line in lines if line.index not in counts)
        body = tuple((n, ["" if m in counts else cell for m, cell in enumerate(cells)]) for n, cells in body)
        of_kind = cell_text(row[0])
        if (
            of_kind
            and body
            and all(re.fullmatch(r"\d{1,3}", cell_text(cells[0])) for _, cells in body if cells)
        ):
            body = tuple((n, [f"{of_kind} {cell_text(cells[0])}", *cells[1:]]) for n, cells in body)
        if any(line.time.start is None for line in lines) or not _have_labels(body, lexicon):
            return None
        headings = {n: cell_text(cells[0]) for n, cells in body}
        unused = tuple(cell_text(row[n]) for n in counts)
        return _Drawing((number, row), lines, headings, body, tuple(filled[:at]), below, True, unused)
    return None


def _counts_beside(row: Sequence[Cell], across: Sequence[int], body: Sequence[Row]) -> list[int]:
    """The columns between the places and the times whose heading is no time and over numbers alone."""
    first = next((n for n in across if time_of(row[n]).start is not None), 0)
    found = []
    for n in across:
        texts = [text for _, cells in body if n < len(cells) and (text := cell_text(cells[n]))]
        if n < first and texts and all(map(str.isdecimal, texts)):
            found.append(n)
    return found


def _have_labels(rows: Sequence[Row], lexicon: Lexicon) -> bool:
    """Whether each row begins with a label that is no date, time or weekday, and has words behind it."""
    labels = [row[0] if row else "" for _, row in rows]
    cells = Contents([cell for _, row in rows for cell in row[1:]], lexicon)
    known = any(lexicon.knows(word) for label in labels for word in fold(cell_text(label)).split())
    about = Contents(labels, lexicon)
    are_labels = (
        about.cells and not about.blank and about.texts >= MOSTLY and about.times < MOSTLY and not known
    )
    are_words = cells.texts >= MOSTLY and cells.answers < MOSTLY and cells.times < MOSTLY
    return bool(are_labels and are_words) and not any(
        looks_like_date(one, lexicon) for one in (*labels, *cells.different)
    )


def _slot(row: Row) -> object:
    return time_of(row[1][0]) if row[1] else NOTHING


def _lines(top: Top, drawing: _Drawing) -> tuple[list[Line], list[str]]:
    """The slots in their half of the day, and the headings of those that are later than they are written."""
    above = " ".join(cell_text(cell) for _, row in drawing.above for cell in row)
    settled = forward(drawing.lines, top.options.clock, f"{top.sheet.name} {above}")
    return settled, later(drawing.lines, settled)


def _entries(
    sheet: Sheet, drawing: _Drawing, date: dt.date, lines: list[Line]
) -> tuple[list[DrawnEntry | Problem], int]:
    """The entries of the slots, and how many slots say that nothing happens."""
    times = [line.time for line in lines]
    usual, is_usual = usual_step(times)
    ends = slot_ends(times, usual if is_usual else None)
    nights = after_midnight(times)
    corner = cell_text(drawing.head[1][0]) if drawing.head[1] else ""
    match = match_exactly(corner)
    are_people = (
        fold(corner).strip() in _PEOPLE
        or (match is not None and match.field in _OF_PEOPLE)
        or are_codes([*drawing.headings.values()])  # 7A, 8A: classes
    )
    places = {line.index: at for at, line in enumerate(lines)}
    merged = merged_from(sheet)
    found: list[DrawnEntry | Problem] = []
    idle = 0
    for number, row in drawing.body:
        for n, cell in enumerate(row[1:], 1):
            text = cell_text(cell)
            if not text:
                continue
            if is_unheld(text) or text.casefold() in _BREAKS:
                idle += 1
                continue
            slot, name = (n, number) if drawing.is_across else (number, n)
            if slot not in places or name not in drawing.headings:
                heading = cell_text(drawing.head[1][n]) if n < len(drawing.head[1]) else ""
                message = "The cell stands outside the day sheet: nothing heads its column."
                remedy = "Give its column a heading, or take the cell out."
                if heading:
                    message = f"It may say when something is, or whether, and stands under “{heading}”, which is no place."
                    remedy = "Say it in the cells of the places, or take it out."
                found.append(Problem("grid-stray", message, remedy, sheet.place(number, n), text))
                continue
            area = merged.get((number, n))
            last_row = max(area.last_row + 1, number) if area else number
            last_column = area.last_column - sheet.first_column if area else n
            last_slot, last_name = (last_column, last_row) if drawing.is_across else (last_row, last_column)
            over = max(k for k, one in enumerate(lines) if k >= places[slot] and one.index <= last_slot)
            time = lines[places[slot]].time._replace(end=ends[over])
            named = [text for at, text in drawing.headings.items() if name <= at <= last_name]
            title, place = title_and_place(text)
            people = [one for one in named if are_people or _PERSON.fullmatch(one)]
            if text in _MARKS:
                title = ", ".join(named)
            elif people:
                title = f"{title} ({', '.join(people)})"
            else:
                place = ", ".join(filter(None, (", ".join(named), place)))
            day = date_part(date + dt.timedelta(nights[places[slot]]))
            found.append(DrawnEntry(number, n, title, day, time, place))
    return found, idle
