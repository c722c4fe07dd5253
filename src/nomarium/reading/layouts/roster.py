"""A roster: names, posts or classes against dates, and in each cell a code, hours, a post or a place."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from functools import partial

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.lengths import read_length
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import either_or, may_be_class
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.clocks import Clocks
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.strokes import has_stroke, strokes_in, strokes_told
from nomarium.reading.columns.timesinwords import holds_time
from nomarium.reading.layouts.celltimes import says_more_times, time_and_text, timed_parts
from nomarium.reading.layouts.codes import (
    LONGEST_CODE,
    Code,
    asked_codes,
    codes_in,
    hours_in,
    in_their_half,
    is_code,
    is_idle,
    is_nobody,
    key_in,
    names_shift,
    with_remark,
)
from nomarium.reading.layouts.drawn import (
    DrawnEntry,
    after_remarks,
    date_part,
    several_times,
)
from nomarium.reading.layouts.grid import read_grid
from nomarium.reading.layouts.halvesofdates import with_halves, without_halves
from nomarium.reading.layouts.headdates import week_text
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.rosteracross import across, with_dates
from nomarium.reading.layouts.rosterdaysnamed import on_named_days
from nomarium.reading.layouts.rosterdown import down
from nomarium.reading.layouts.rosternotes import (
    codes_told,
    overlaps_told,
    remarks_told,
    sessions_told,
    untimed_told,
)
from nomarium.reading.layouts.rosterorder import out_of_order
from nomarium.reading.layouts.rosterslots import Drawing, Slot, is_session
from nomarium.reading.layouts.rosterweeks import weeks_across
from nomarium.reading.layouts.slots import are_codes, in_part_of_day, number_others, time_of
from nomarium.reading.layouts.timesunder import with_times_joined
from nomarium.reading.rows.showings import listed_times
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Sheet, cell_text

_YES = frozenset(("y", "yes"))
"""Answers beside which N is one, too."""
_MARKS = frozenset("x ✓ ✔ ✗ * • ● ■ 1 yes y".split())
"""What says that it is this one, and no more."""
_FIGURE = r"(?i)\d{1,2}(?:[.,]\d{1,2})?(?:\s?(?:h|hrs?|hours?|std\.?))?"
_FIGURES = r"\d{1,2}(?:\s*(?:[,&+]|\band\b|\bund\b|\bet\b)\s*\d{1,2})+"
_BAR = r"[█▓▒░■▬━═=#]{2,}"
"""What draws a bar through its days."""
_POSTS = frozenset(
    "post posts rota roster jobs tasks duty duties role roles position positions shift place location room station task job area site "
    "vehicle van bus minibus activity class subject course group form lesson topic unit boat crew poste posten dienst lieu salle fach".split()
)
"""Headings of labels that are no people."""

_DAYS_OF_WEEK = r"(?i)\b(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?s?\b"
"""Names of weekdays in a cell of a whole week, `Leave (Mon-Wed)`."""
_SHIFTS = r"(?i)(?:p(?:eriod)?\s?\d{1,2}|lesson \d{1,2})|(?:earl(?:y|ies)|lates?|days?|nights?|standby|on[- ]call)(?: (?:shift|duty|turn))?"
"""Labels that are shifts, and no people."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a roster, or say why it is none."""
    top, halves = without_halves(with_times_joined(top))
    drawing = weeks_across(top) or across(top) or down(top)
    if drawing is not None and _are_times([slot.label for slot in drawing.slots], drawing.label_heading):
        return read_grid(with_dates(top, drawing), top.options)
    if drawing is None or _are_dates([slot.label for slot in drawing.slots]):
        message = f"{top.sheet.title} is no roster: no dates cross names, posts or classes."
        remedy = "Put the dates into the top row and the names into the first column, or the other way."
        return not_read(top.sheet, "no-roster", "it is no roster", "roster-none", message, remedy)
    return _reading(top, with_halves(on_named_days(top, drawing), halves))


def look_over_weekdays(top: Top) -> Reading | NotRead:
    """Read a sheet as a roster of weekdays, or say why it is none."""
    drawing = weeks_across(top)
    if drawing is None:
        message = f"{top.sheet.title} has no weekdays below the days of weeks."
        return not_read(top.sheet, "no-roster", "it is no roster", "roster-none", message)
    return _reading(top, drawing)


def _are_dates(labels: Sequence[str]) -> bool:
    """Whether the labels are the dates of something else, whose headings only look like dates: `9.10` over 7 September."""
    return bool(labels) and all(
        looks_like_date(one) and re.search(r"\d{4}|[^\W\d_]{3}", one) for one in labels
    )


def _are_times(labels: Sequence[str], heading: str) -> bool:
    """Whether the labels are the times of a grid whose dates are numbers of days."""
    return (
        bool(labels)
        and not are_codes(labels, heading)
        and not number_others(heading, labels)
        and sum(time_of(one) is not NOTHING for one in labels) * 2 > len(labels)
    )


def _reading(top: Top, drawing: Drawing) -> Reading:
    sheet, options = top.sheet, top.options
    are_answers = "N" not in options.codes and any(slot.text.casefold() in _YES for slot in drawing.slots)
    filled = [
        slot
        for slot in drawing.slots
        if not (is_nobody(slot.text) or (are_answers and slot.text.casefold() == "n"))
    ]
    idle = len(drawing.slots) - len(filled)
    slots = [part for slot in filled for part in _each_timed(slot)]
    in_cells = {slot.text for slot in slots if is_code(slot.cell) or names_shift(slot.text)}
    shifts = {said for slot in slots for said in slot.categories}  # of a column beside the names
    key, key_rows = key_in(
        drawing.others, shifts | {slot.text for slot in slots if len(slot.text) <= LONGEST_CODE}
    )
    asked = asked_codes(options.codes)
    known = {code.casefold(): said for code, said in key.items()} | asked
    free = {code for code, said in known.items() if said.time is NOTHING and said.name and is_idle(said.name)}
    idle += sum(slot.text.casefold() in free for slot in slots)  # RD = rest day
    slots = [slot for slot in slots if slot.text.casefold() not in free]
    strokes = strokes_in([slot.cell for slot in slots], "time", ENGLISH)
    slots, codes, evidence = _with_hours(slots, known, options.clock)
    people = _are_people(drawing)
    entries: list[DrawnEntry | Problem] = []
    timeless: Counter[str] = Counter()
    met = free & asked.keys()
    among_hours = any(
        (said := codes.get(slot.text.casefold())) is not None and said.time is not NOTHING for slot in slots
    )
    for slot in slots:
        met |= {slot.text.casefold(), slot.label.casefold(), slot.part.casefold()} & asked.keys()
        is_open = strokes.are_open and has_stroke(slot.cell)
        entry = _stroke_open(sheet, slot) if is_open else _entry(sheet, slot, codes, people, among_hours)
        entries.append(entry)
        if isinstance(entry, DrawnEntry) and entry.time is NOTHING and slot.text in in_cells:
            timeless[slot.text] += not _is_mark(slot.text)
    told = note("layout-roster", f"Read as a roster: {drawing.kind}. Each filled cell is an event.")
    notes = [told.at(sheet.place()), *drawing.notes]
    if evidence:
        message = f"Hours from 1:00 to 6:59 are in the afternoon: {evidence}."
        notes.append(note("clock-12", message, "If they are not: --clock 24.").at(sheet.place()))
    notes += [one.at(sheet.place()) for one in strokes_told(strokes)]
    notes += [*remarks_told(sheet, slots, codes), *_times_above(sheet, drawing, entries)]
    notes += [*codes_told(sheet, key, key_rows, timeless, idle), *untimed_told(sheet, slots, entries)]
    notes += [*sessions_told(sheet, slots, entries), *overlaps_told(sheet, entries, options)]
    unmet = [code for code in options.codes if code.casefold() not in met]
    turned = out_of_order(sheet, slots) if evidence else []
    problems = [*drawing.problems, *turned, *(_unmet(sheet, code, in_cells) for code in unmet)]
    problems += [
        _unread(sheet, code, said)
        for code, said in key.items()
        if said.time is NOTHING and code.casefold() not in asked and re.search(_HOURS_LEFT, said.name)
    ]
    remarks = [row for row in drawing.others if any(map(cell_text, row[1]))]

    events = partial(after_remarks, sheet, entries, options, remarks)
    return Reading(sheet, "roster", events, (*sheet.notes, *notes), tuple(problems))


def _times_above(
    sheet: Sheet, drawing: Drawing, entries: Sequence[DrawnEntry | Problem]
) -> Iterator[Problem]:
    """A note of a line above a drawing that says a time, where nothing else does."""
    if any(isinstance(entry, Problem) or entry.time is not NOTHING for entry in entries):
        return
    first = min((slot.row for slot in drawing.slots), default=0)
    for number, row in drawing.others:
        text = " ".join(filter(None, map(cell_text, row)))
        if number < first and holds_time(text):
            message = f"A line above says a time (“{text}”), and no cell does: its events last all day."
            remedy = "If it is the time of all, write it into the cells, or into the labels: “Loft 1 (11:00-17:00)”."
            yield note("title-timed", message, remedy).at(sheet.place(number))
            return


def _each_timed(slot: Slot) -> list[Slot]:
    """A slot for each part of a cell that has a time of its own, `Knots 9-12 / Ropes 1-4`; else the slot itself."""
    parts = timed_parts(slot.cell) if isinstance(slot.cell, str) else []
    parts = parts if len(parts) > 1 or not isinstance(slot.cell, str) else _hours_in_turn(slot.cell)
    if len(parts) < 2 and isinstance(slot.cell, str) and not re.search(r"\d\s?[-–—]\s?\d", slot.cell):
        parts = listed_times(slot.cell)
    return [slot._replace(cell=part) for part in parts] if len(parts) > 1 else [slot]


def _hours_in_turn(text: str) -> list[str]:
    """The hours of a cell that are one after the other, `7-11, 15-19`; nothing where an afternoon might be meant."""
    parts = [part for part in re.split(r"\s*[,/&+]\s*|(?<=\d)\s+(?=\d)", text.strip()) if part]
    hours = [hours_in(part) for part in parts]
    clocks = [clock.secs for one in hours for clock in (one.start, one.end) if clock is not None]
    return parts if len(clocks) == 2 * len(parts) and clocks == sorted(set(clocks)) else []


def _with_hours(
    slots: Sequence[Slot], codes: Mapping[str, Code], clock: Clocks
) -> tuple[list[Slot], dict[str, Code], str]:
    """The slots, the codes, and the hours that stand in cells themselves, all on one clock; and what shows which."""
    known = {
        text.casefold(): Code("", hours)
        for slot in slots
        if (hours := hours_in(text := slot.text)) is not NOTHING
    }
    known |= codes
    known = {
        text: one._replace(time=in_part_of_day(one.time, one.name or text)) for text, one in known.items()
    }
    slots = [slot._replace(time=in_part_of_day(slot.time, slot.label)) for slot in slots]
    heard = {text: one.time for text, one in known.items() if one.time is not NOTHING}
    heard |= {_of_label(slot): slot.time for slot in slots if slot.time is not NOTHING}
    settled, evidence = in_their_half(heard, clock)
    timed = [slot._replace(time=settled.get(_of_label(slot), slot.time)) for slot in slots]
    return (
        timed,
        {text: one._replace(time=settled.get(text, one.time)) for text, one in known.items()},
        evidence,
    )


def _of_label(slot: Slot) -> str:
    """What the hours of a slot's row or column are known by: no cell's text."""
    return f"{slot.label}\n{slot.time.start}\n{slot.time.end}"


_HOURS_LEFT = r"\d[:.h]?\d\d|\d\s?(?:[-–—]|to\b)\s?\d"
"""Figures that look like hours."""


def _unread(sheet: Sheet, code: str, said: Code) -> Problem:
    message = f"What “{code}” stands for holds figures that are not read as its hours: “{said.name}”."
    return Problem("code-unread", message, f'Say them: --set-code "{code}=7:00-15:00".', sheet.place())


def _stroke_open(sheet: Sheet, slot: Slot) -> Problem:
    """The problem of a cell with two times and a stroke between, beside cells with one."""
    return either_or(slot.text).problem(sheet.place(slot.row, slot.column), slot.text)


def _is_mark(text: str) -> bool:
    return text.casefold() in _MARKS or re.fullmatch(_BAR, text) is not None


def _are_people(drawing: Drawing) -> bool:
    """Whether the labels are people: nothing says otherwise."""
    words = set(re.findall(r"[a-z]+", drawing.label_heading.casefold()))
    are_shifts = all(is_session(slot.label) or re.fullmatch(_SHIFTS, slot.label) for slot in drawing.slots)
    return not (
        words & _POSTS or are_shifts or any(slot.is_place or slot.is_session for slot in drawing.slots)
    )


def _doubt_of(
    sheet: Sheet, slot: Slot, codes: Mapping[str, Code], said: Code | None, among_hours: bool
) -> Problem | None:
    """Why nothing tells what one cell says; None where something does. `among_hours`: other cells have codes with hours."""
    text, cell = slot.text, slot.cell
    if isinstance(cell, dt.date) or (text not in codes and looks_like_date(cell)):
        message = "The cell holds a date where a code or hours should stand."
        remedy = "If hours were typed (9-5) and the spreadsheet made a date of them, write 9:00-17:00."
        return Problem("roster-date", message, remedy, sheet.place(slot.row, slot.column), text)
    if week_text(slot.label):
        message = f"“{slot.label}” names a week, where a name, a post or a place should stand."
        remedy = "Write the dates of the week above its days; or take the row out."
        return Problem("roster-label", message, remedy, sheet.place(slot.row, slot.column), text)
    if type(read_length(slot.label)) is int:
        message = f"“{slot.label}” is a length, where a name, a post or a place should stand."
        remedy = "If it is that of the hours beside it, correct one of them; or take it out."
        return Problem("roster-label", message, remedy, sheet.place(slot.row, slot.column), text)
    if slot.days.first < slot.days.last and re.search(_DAYS_OF_WEEK, text):
        message = "The cell says on which days of its week, and would be all of it."
        remedy = "Write the dates themselves into a list, or give each day a column of its own."
        return Problem("roster-days", message, remedy, sheet.place(slot.row, slot.column), text)
    if said is None and len(several := codes_in(text, codes)) > 1:
        message = f"“{text}” names {listed([f'“{one}”' for one in several])}, and not when each is."
        remedy = f'Say its hours: --set-code "{text}=7:00-15:00"; or give each a row of its own.'
        return Problem("code-several", message, remedy, sheet.place(slot.row, slot.column), text)
    if said is None and re.fullmatch(_FIGURE, text) and not _is_mark(text):
        message = f"“{text}” could be an hour, a number of hours, or what happens then."
        remedy = f'Write hours like 9:00-17:00; or say what it stands for: --set-code "{text}=TITLE".'
        return Problem("mark-unexplained", message, remedy, sheet.place(slot.row, slot.column), text)
    if said is None and re.fullmatch(_FIGURES, text):
        message = f"“{text}” could be hours, or what happens then."
        remedy = f'Write hours like 10:00 & 14:00; or say what it stands for: --set-code "{text}=TITLE".'
        return Problem("mark-unexplained", message, remedy, sheet.place(slot.row, slot.column), text)
    is_bare = slot.is_place or slot.is_session or slot.stands_alone
    is_bare |= text.casefold() == "x" and among_hours  # it is a code too
    if said is None and ((_is_mark(text) and is_bare) or not text.strip("? ")):
        message = f"Nothing says what “{text}” stands for."
        remedy = f'Say what happens then: --set-code "{text}=TITLE".'
        return Problem("mark-unexplained", message, remedy, sheet.place(slot.row, slot.column), text)
    return None


def _entry(
    sheet: Sheet, slot: Slot, codes: Mapping[str, Code], people: bool, among_hours: bool
) -> DrawnEntry | Problem:
    """The event of one cell."""
    text = slot.text
    said = codes.get(text.casefold()) or with_remark(text, codes)
    if (doubt := _doubt_of(sheet, slot, codes, said, among_hours)) is not None:
        return doubt
    time, what = _said_in(text, said)
    if not what and (slot.is_place or slot.stands_alone) and not any(map(str.isdigit, text)):
        time, what = slot.time if slot.time is not NOTHING else time, text  # Mittag in the hall
    if time is not NOTHING and says_more_times(what):
        return several_times(sheet.place(slot.row, slot.column), text)
    if slot.is_session:
        time = in_part_of_day(time, slot.label)
    label = codes.get(slot.label.casefold()) if slot.is_session else None
    if time is NOTHING:
        of_part = codes.get(slot.part.casefold()) if slot.part else None
        hours = (one.time for one in (label, of_part) if one is not None)
        time = next((one for one in hours if one is not NOTHING), slot.time)
    if time is NOTHING and _is_mark(text):
        times = (codes[said.casefold()].time for said in slot.categories if said.casefold() in codes)
        time = next((one for one in times if one is not NOTHING), NOTHING)
    location = slot.label if slot.is_place else slot.where
    if not location and (where := re.fullmatch(r"\(([^()]+)\)", what)) is not None and is_place(where[1]):
        location, what = where[1], ""  # 9:00 (Loft A)
    if slot.is_place or slot.stands_alone:
        title = what
    elif slot.is_session:
        title = f"{what} ({slot.label})" if time.start is None else what
    else:
        title = f"{slot.label}: {what}" if what and slot.label and not _is_mark(text) else slot.label
    if slot.part and title:
        title = f"{title} ({slot.part})"
    if slot.group and title:
        title = f"{slot.group}: {title}"
    if not title:
        message = "Nothing says whose cell it is."
        return Problem(
            "roster-label", message, "Give its row a name.", sheet.place(slot.row, slot.column), text
        )
    person = slot.label if people else ""
    part = date_part(*slot.days)
    categories = (*slot.categories, slot.occasion) if slot.occasion else slot.categories
    return DrawnEntry(slot.row, slot.column, title, part, time, location, person, categories, text)


def _said_in(text: str, said: Code | None) -> tuple[Part, str]:
    """The hours that a cell says, by itself or as a code, and what is left of it."""
    if said is not None:
        name = f"{text} ({said.name})" if said.name and said.name != text else text
        return said.time, "" if hours_in(text) is not NOTHING else name
    alone = NOTHING if may_be_class(text) or _is_mark(text) else time_of(text)
    return (alone, "") if alone is not NOTHING else time_and_text(text)


def _unmet(sheet: Sheet, code: str, in_cells: set[str]) -> Problem:
    message = f"--set-code names “{code}”, and no cell of {sheet.title} has it."
    there = listed(sorted(in_cells)[:12]) if in_cells else ""
    return Problem(
        "code-unmet", message, f"Its codes are {there}." if there else "Leave it out.", sheet.place()
    )
