"""What the drawn layouts share: cells that hold entries, and entries that become events."""

import datetime as dt
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import NO_DETAILS, Details, Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import FieldValue, fault_of, value_memo
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.verses import is_verse
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.clocks import (
    ClockFound,
    clock_from,
    clock_told,
    half_of,
    in_evening,
    is_settled_by_rows,
    past_noon,
)  # fmt: skip
from nomarium.reading.columns.headings import NO_UNIT
from nomarium.reading.columns.timesinwords import holds_time, title_timed
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.datewithin import COUNTED
from nomarium.reading.rows.titles import (
    CANCELLED,
    goes_on,
    is_ditto,
    is_no_title,
    lasts_all_day,
    whole_title,
    without_cancellation,
)
from nomarium.reading.rows.when import NOTES, NOTHING, Blame, Part, Said, settle
from nomarium.reckoning.zones import zone_named
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text, is_blank

_SET_FIELDS = (
    "location", "description", "categories", "audience", "organizer", "attendees", "url", "conference", "status",
    "privacy", "busy", "color", "priority", "geo",
)  # fmt: skip
_TIME_FIRST = re.compile(
    r"^(?P<time>\d[\d:.h]*\s?(?:[ap]\.?m\.?)?(?:\s?[-–—]\s?\d[\d:.h]*\s?(?:[ap]\.?m\.?)?)?|noon|midnight)(?:\s+|:\s+|\s*[-–—]\s+)(?P<text>\D.*)$",
    re.IGNORECASE | re.DOTALL,
)
_CLOCK = r"(?:\d{1,2}(?:[:.h]\d{2})?\s?(?:[ap]\.?m\b\.?)?|noon|midday|midnight)"
_TIME_LAST = re.compile(
    rf"^(?P<text>.*?[^\s,(–—-])[\s,(–—-]+(?:(?P<lead>from|at|um|@)\s*|(?:von|à|de)\s+)?(?P<time>{_CLOCK}(?:\s?(?:[-–—]|to|till?|until|bis|à)\s?{_CLOCK})?)\)?$",
    re.IGNORECASE | re.DOTALL,
)
CLEAR_CLOCK = r"(?i)\d[:.h]\d\d|\d\s?[ap]\.?m\b"
"""A time that is no other number."""
_CLEAR = re.compile(rf"{CLEAR_CLOCK}|noon|midday|midnight")
_HOURS = r"(?:[1-9]|1[0-2])(?:\s?(?:[-–—]|to|till?|until|bis|à)\s?(?:[1-9]|1[0-2]))?"
_MORE_TIMES = rf"{CLEAR_CLOCK}|(?<![\w.:/-])(?:[1-9]|1[0-2])\s?[-–—]\s?(?:[1-9]|1[0-2])(?![\w/.:-])"
_SCORED = r"(?i)\b(?:v|vs|beat|lost|won|score|results?|[wld])\b"
_COUNTED = COUNTED | frozenset("race chapter exercise form group".split())
_NUMBERED = r"(?i)\b(?:rooms?|raum|salle|sala|versions?|sections?|chapters?|pages?|psalms?|exercises?|ex\.?|figure|fig\.|paragraph|para\.?|articles?|clauses?|verses?|§)$"
"""Words whose number has a dot, `Room 9.15`."""
_NOON, _SEVEN = 12 * 3600, 7 * 3600
_ENDS = re.compile(r"(?i)\b(?:until|till?|by|before|after|ends?|finish(?:es)?|bis|jusqu.à)$")
"""Words behind which a time is no start."""


@dataclass(frozen=True)
class DrawnEntry:
    """One cell (or line of one) that says what happens in a slot."""

    row: int
    column: int
    text: str
    date: Part
    time: Part = NOTHING
    location: str = ""
    person: str = ""
    """Whose it is, where the drawing says so."""
    categories: tuple[str, ...] = ()
    cell: str = ""
    """The cell as it stands, where its title is more than that."""


def merged_from(sheet: Sheet) -> dict[tuple[int, int], Area]:
    """Merged areas by (row number, 0-based column within the rows) of their first cell."""
    return {(area.first_row + 1, area.first_column - sheet.first_column): area for area in sheet.merged}


def padded_rows(sheet: Sheet) -> list[Row]:
    """The rows that hold something, all as wide as the widest."""
    rows = [(number, row) for number, row in sheet.rows() if not is_blank(row)]
    width = max((len(row) for _, row in rows), default=0)
    return [(number, [*row, *[""] * (width - len(row))]) for number, row in rows]


def after_remarks(
    sheet: Sheet,
    entries: "Sequence[DrawnEntry | Problem]",
    options: ReadingOptions,
    remarks: Sequence[Row],
    account: Account,
) -> Iterator[Event]:
    """The events of entries, once the rows that are none of them are accounted for as notes."""
    account.ledger.read += len(remarks)
    for number, row in remarks:
        account.note_row(number, " ".join(filter(None, map(cell_text, row))))
    yield from events_of(sheet, entries, options, account)


def time_and_text(text: str) -> tuple[Part, str]:
    """An entry's time, at its beginning or its end, and the rest of it.

    >>> time_and_text("9:00 Assembly")[1], time_and_text("3 boats launched")[1]
    ('Assembly', '3 boats launched')
    """
    for match in (_TIME_FIRST.match(text), _TIME_LAST.match(text)):
        if match is None or _ENDS.search(match["text"]):
            continue
        times = read_times(match["time"])
        if isinstance(times, Times) and times.start is not None and _is_time(match, times):
            return Part(start=times.start, end=times.end, notes=times.notes), match["text"].strip(" :")
    return NOTHING, text


class CellLine(NamedTuple):
    """One event of a drawn cell."""

    title: str
    time: Part
    place: str
    text: str
    """Its line, or its lines, as they stand."""

    @property
    def says_several(self) -> bool:
        """Whether it says more than one time, and not which of them is its own."""
        return self.time is not NOTHING and says_more_times(self.title)


def says_more_times(title: str) -> bool:
    """Whether what is left of a text without its time says another one."""
    return re.search(_MORE_TIMES, title) is not None


def several_times(place: Place, text: str) -> Problem:
    """The problem of a cell of which nothing tells what is when."""
    remedy = "Write each event on a line of its own, with its time."
    return Problem("cell-times", "The cell says more than one time.", remedy, place, text)


def lines_of_cell(text: str) -> list[CellLine]:
    """The events of a drawn cell, one a line. A line that is a time and nothing else is that of the title above it, or, where
    that has one, of the title below; and the name of a place below such a time is its place.

    >>> [(one.title, one.place) for one in lines_of_cell("Regatta\\n10am–4pm\\nMain slip\\nSupper")]
    [('Regatta', 'Main slip'), ('Supper', '')]
    """
    bare = (part.strip(" \t•*-") or part.strip() for part in text.splitlines())
    lines = [line for part in bare for line in _each_timed(part) if line]
    found, waiting, may_have_place = list[CellLine](), NOTHING, False
    for line in lines:
        alone = _time_alone(line) if len(lines) > 1 else NOTHING
        if alone is not NOTHING and found and found[-1].time is NOTHING and waiting is NOTHING:
            found[-1] = found[-1]._replace(time=alone, text=f"{found[-1].text} {line}")
            may_have_place = True
        elif alone is not NOTHING and waiting is NOTHING and line is not lines[-1]:
            waiting, may_have_place = alone, False
        elif may_have_place and is_place(line):
            found[-1] = found[-1]._replace(place=line)
            may_have_place = False
        else:
            time, title = time_and_text(line)
            if waiting is not NOTHING:  # a time above one that has its own leaves open which is which
                time, title = waiting, line
            found.append(CellLine(title, time, "", line))
            may_have_place, waiting = waiting is not NOTHING, NOTHING
    return found


def entries_of_cell(
    sheet: Sheet, row: int, column: int, text: str, date: Part
) -> "list[DrawnEntry | Problem]":
    """The events of a drawn cell, all on one date, or on each day of several where they have times of a day; a problem for each
    of which nothing tells when it is."""
    found: list[DrawnEntry | Problem] = []
    for one in lines_of_cell(text):
        if one.says_several:
            found.append(several_times(sheet.place(row, column), one.text))
            continue
        is_within_day = one.time.start is not None and one.time.end is not None
        days = _each_day(date) if is_within_day else [date]
        found += [DrawnEntry(row, column, one.title, day, one.time, one.place) for day in days]
    return found


def _each_day(date: Part) -> list[Part]:
    """A day, or each of several."""
    if not isinstance(date.first, dt.date) or not isinstance(date.last, dt.date):
        return [date]
    count = (date.last - date.first).days + 1
    return [date_part(date.first + dt.timedelta(n)) for n in range(count)]


def _each_timed(line: str) -> list[str]:
    """The parts of a line each of which has a title and a time of its own, `Assembly 9am, Chapel 10am`; else the line."""
    return timed_parts(line, r"[,;/]|\s&\s")


def timed_parts(line: str, between: str = r"[,;/\n]|\s&\s") -> list[str]:
    """The parts of a text, each of which has a title and a time of its own; else the text."""
    parts = [part.strip() for part in re.split(between, line)]
    if len(parts) < 2 or not all(part and part[-1:] != "(" for part in parts):
        return [line]
    said = [time_and_text(part) for part in parts]
    are_timed = all(time is not NOTHING and re.search(r"[^\W\d_]{3}", title) for time, title in said)
    return parts if are_timed and not any(says_more_times(title) for _, title in said) else [line]


def _time_alone(line: str) -> Part:
    """What a line says that is a clear time and nothing else; NOTHING for any other."""
    times = read_times(line) if not line.isdigit() else None
    if not isinstance(times, Times):
        return NOTHING
    is_clear = _CLEAR.search(line) or re.fullmatch(_HOURS, line) or re.search(r"[^\W\d_]{3}", line)  # 10 Uhr
    if times.start is None or not is_clear:
        return Part(is_all_day=True) if times.is_all_day else NOTHING
    return Part(start=times.start, end=times.end, notes=times.notes)


def _is_time(match: re.Match[str], times: Times) -> bool:
    """Whether figures at an end of a text are a time, and count nothing: they are clear, are led to, or are hours from one to
    the other as people work, `Sale 10-4`; `Rooms 9-12` and `Heron 3-2` are none."""
    text = match["time"].strip()
    if _CLEAR.search(text):
        is_last = match.re is _TIME_LAST
        is_number = is_last and "." in text and re.search(_NUMBERED, match["text"])
        return not (is_number or (is_last and is_verse(match["text"], text)))
    is_first = match.re is _TIME_FIRST
    if is_first and re.fullmatch(r"\d{1,4}\.?", text):
        return False  # 1. Heat
    if not is_first and (match["lead"] or not re.fullmatch(_HOURS, text)):
        return re.fullmatch(_HOURS, text) is not None
    # the patterns of lines are slow to compile, and seldom needed here
    from nomarium.reading.layouts.linetimes import are_counted, is_no_time

    if is_first:
        return not are_counted("", text, match["text"])
    before = match["text"]
    counts = fold(before).split()[-1].removesuffix("s") in _COUNTED or is_no_time(before, text)
    if counts or re.search(_SCORED, before) or times.start is None or times.end is None:
        return False
    begins, ends = (clock.secs + _NOON * (clock.secs < _SEVEN) for clock in (times.start, times.end))
    return begins < ends


def events_of(
    sheet: Sheet, entries: Sequence[DrawnEntry | Problem], options: ReadingOptions, account: Account
) -> Iterator[Event]:
    """The events of a drawing's entries; an entry that makes none is a problem of its cell."""
    zone = zone_named(options.zone) if options.zone else None
    defaults = _defaults(options)
    ledger = account.ledger
    ledger.unit = "entries"
    found = _clock(entries, options)
    for told in clock_told(found):
        account.count(told.at(sheet.place()))
    for entry in entries:
        ledger.read += 1
        if isinstance(entry, Problem):
            _reject(account, entry)
            continue
        place = sheet.place(entry.row, entry.column)
        if is_no_title(entry.text):
            account.note_row(entry.row, entry.text)
            account.count(note("slots-idle", f"“{entry.text}” is no event: nothing happens there.").at(place))
            continue
        fault = fault_of(entry.text) or _untitled(entry.text)
        time = _in_its_half(entry.time, found)
        if lasts_all_day(entry.text) and not holds_time(entry.cell or entry.text):
            time = Part(is_all_day=True)
        if fault or entry.date.refusal or time.refusal:
            refusal = fault or entry.date.refusal or time.refusal
            assert refusal is not None
            _reject(account, refusal.problem(place, entry.cell or entry.text))
            continue
        row = Said(date=entry.date, time=time, zone_name=options.zone, zone=zone)
        when = settle(row, options.length_secs)
        if isinstance(when, Blame):
            _reject(account, when.refusal.problem(place, entry.cell or entry.text))
            continue
        for code in dict.fromkeys(when.notes):
            account.count(note(code, NOTES[code]).at(place))
        if entry.time is NOTHING and (holds_time(entry.text) or says_more_times(entry.text)):
            told = title_timed(
                f"“{entry.text}”", "If this is its time, write it before the title: “9:00 Assembly”."
            )
            account.count(told.at(place))
        ledger.events += 1
        location, description, details = _said_of(entry, defaults, when.is_tentative)
        title = whole_title(entry.text)
        if (bare := without_cancellation(title)) is not None:
            title, details = bare, details._replace(status="CANCELLED")
            account.count(CANCELLED.at(place))
        yield Event(title, when.start, when.end, when.zone, location, description, details, entry.row)


def ditto(text: str) -> Refusal:
    """The refusal of a cell that stands for the one above it, or left of it."""
    message = f"“{text}” stands for the cell above or before it, and does not say whether that goes on or is held again."
    return Refusal("cell-ditto", message, "Write what is on in each cell, or merge the cells of one event.")


def _untitled(text: str) -> Refusal | None:
    """Why a cell of a drawing names nothing: it stands for the one above, or it is a time, and the table may be no drawing."""
    if is_ditto(text):
        return ditto(text)
    if goes_on(text):
        message = f"“{text}” says that it goes on, and not until when."
        remedy = "Take the arrow out, and write what is on in each cell, or merge the cells of one event."
        return Refusal("cell-ditto", message, remedy)
    if not text[:1].isdigit() or _time_alone(text).start is None:
        return None
    remedy = "Write what is then beside its time; if the table is a list, say so: --as events."
    return Refusal("cell-untitled", f"“{text}” is a time, and nothing says of what.", remedy)


def _said_of(
    entry: DrawnEntry, defaults: Mapping[str, FieldValue], is_tentative: bool
) -> tuple[str, str, Details]:
    """The place, the description and the details of an entry: its own, else what --set says."""
    given = dict(defaults)
    location = entry.location or given.pop("location", "")
    description = given.pop("description", "")
    given.pop("location", None)
    if is_tentative:
        given.setdefault("status", "TENTATIVE")
    if entry.person:
        given["facets"] = (("person", entry.person),)
    if entry.categories:
        given["categories"] = (*entry.categories, *given.get("categories", ()))
    return location, description, Details(**given) if given else NO_DETAILS


def _clock(entries: Sequence[DrawnEntry | Problem], options: ReadingOptions) -> ClockFound:
    """How the times in the cells are read that say neither am nor pm."""
    if options.clock:
        return ClockFound(options.clock, "as asked")
    return clock_from(
        (clock, entry.cell or entry.text)
        for entry in entries
        if isinstance(entry, DrawnEntry)
        for clock in (entry.time.start, entry.time.end)
        if clock is not None
    )


def _in_its_half(time: Part, found: ClockFound) -> Part:
    halves = []
    end = past_noon(time.start, time.end) if is_settled_by_rows(found) else time.end
    for clock in (time.start, end):
        half = half_of(clock, found, NO_UNIT)
        if isinstance(half, Refusal):
            return time._replace(refusal=half)
        halves.append(half)
    start, end = halves
    end = in_evening(start, end) if found.clock == "12" else end
    return time._replace(start=start, end=end) if time.start or time.end else time


def _defaults(options: ReadingOptions) -> dict[str, FieldValue]:
    found = {f: value_memo(f, text)[""] for f, text in options.defaults.items() if f in _SET_FIELDS}
    return {field: value for field, value in found.items() if not isinstance(value, Refusal)}


def _reject(account: Account, problem: Problem) -> None:
    cell = problem.cell or ""
    account.reject(("Entry",), (cell,), [problem])


def date_part(day: dt.date, last: dt.date | None = None) -> Part:
    """A day or a range that is settled."""
    return Part(first=day, last=last if last != day else None)
