"""What the drawn layouts share: cells that hold entries, and entries that become events."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from nomarium.model.account import Account
from nomarium.model.event import NO_DETAILS, Details, Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import says_not_held
from nomarium.reading.cells.lengths import length_behind
from nomarium.reading.cells.longtext import cut_refusal
from nomarium.reading.cells.memo import FieldValue, fault_of
from nomarium.reading.cells.times import DAY_SECS, Clock
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
from nomarium.reading.columns.titlesagain import AGAIN, says_again
from nomarium.reading.layouts.celltimes import CellLine, lines_of_cell, says_more_times, time_alone
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.calledoff import CANCELLED, moved_title, without_cancellation
from nomarium.reading.rows.givenfields import given_fields
from nomarium.reading.rows.titledays import TITLE_SPAN, with_days_of_title
from nomarium.reading.rows.titles import (
    goes_on,
    is_ditto,
    is_no_session,
    is_unheld,
    lasts_all_day,
    whole_title,
)
from nomarium.reading.rows.when import NOTES, NOTHING, Blame, Part, Said, When, settle
from nomarium.reckoning.zones import zone_named
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text, is_blank

if TYPE_CHECKING:
    from zoneinfo import ZoneInfo


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


def several_times(place: Place, text: str) -> Problem:
    """The problem of a cell of which nothing tells what is when."""
    remedy = "Write each event on a line of its own, with its time."
    return Problem("cell-times", "The cell says more than one time.", remedy, place, text)


def may_be_days(line: CellLine, day: object) -> bool:
    """Whether the hours of a line may as well be days from its own on, `Camp (4-6)` on the 4th."""
    start, end = line.time.start, line.time.end
    if not isinstance(day, dt.date) or start is None or end is None or start.has_meridiem or end.has_meridiem:
        return False
    return re.search(rf"(?<![\d.:]){day.day}\s?[-–—]\s?\d{{1,2}}(?![\d.:])", line.text) is not None


def days_or_times(place: Place, text: str) -> Problem:
    """The problem of such a line."""
    message = f"“{text}” could be from one hour to another, or on these days."
    remedy = "Write hours with their minutes, 4:00-6:00, or days with their month, 4-6 October."
    return Problem("cell-times", message, remedy, place, text)


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
        if may_be_days(one, date.first):
            found.append(days_or_times(sheet.place(row, column), one.text))
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


def events_of(
    sheet: Sheet, entries: Sequence[DrawnEntry | Problem], options: ReadingOptions, account: Account
) -> Iterator[Event]:
    """The events of a drawing's entries; an entry that makes none is a problem of its cell."""
    zone = zone_named(options.zone) if options.zone else None
    entries = _with_their_cancellations(entries)
    defaults = given_fields(options)
    ledger = account.ledger
    ledger.unit = "entries"
    often = Counter(entry.text for entry in entries if isinstance(entry, DrawnEntry))
    once = frozenset(text for text, count in often.items() if count == 1)
    found = _clock(entries, options)
    for told in clock_told(found):
        account.count(told.at(sheet.place()))
    for entry in entries:
        ledger.read += 1
        if isinstance(entry, Problem):
            _reject(account, entry)
            continue
        place = sheet.place(entry.row, entry.column)
        if is_unheld(entry.text) or (entry.time.start is not None and is_no_session(entry.text)):
            account.note_row(entry.row, entry.text)
            account.count(note("slots-idle", f"“{entry.text}” is no event: nothing happens there.").at(place))
            continue
        when = _when_of(entry, found, once, options, zone)
        if isinstance(when, Refusal):
            _reject(account, when.problem(place, entry.cell or entry.text))
            continue
        for code in dict.fromkeys(when.notes):
            account.count(note(code, NOTES[code]).at(place))
        if (
            entry.time is NOTHING
            and TITLE_SPAN not in when.notes
            and (holds_time(entry.text) or says_more_times(entry.text))
        ):
            told = title_timed(
                f"“{entry.text}”", "If this is its time, write it before the title: “9:00 Assembly”."
            )
            account.count(told.at(place))
        title = whole_title(entry.text)
        bare = without_cancellation(title)
        if bare is None and (moved := moved_title(title, when.start)) is not None:
            _reject(account, moved.problem(place, entry.cell or entry.text))
            continue
        ledger.events += 1
        location, description, details = _said_of(entry, defaults, when.is_tentative)
        if bare is not None:
            title, details = bare, details._replace(status="CANCELLED")
            account.count(CANCELLED.at(place))
        yield Event(title, when.start, when.end, when.zone, location, description, details, entry.row)


def _with_their_cancellations(entries: Sequence[DrawnEntry | Problem]) -> list[DrawnEntry | Problem]:
    """The entries, each with the word behind it that it is not held, `Knots - CANCELLED`, where that stands on the next line of its
    cell or was taken for its place."""
    found: list[DrawnEntry | Problem] = []
    for entry in entries:
        last = found[-1] if found else None
        if isinstance(entry, DrawnEntry):
            is_beside = isinstance(last, DrawnEntry) and (last.row, last.column) == (entry.row, entry.column)
            if (
                isinstance(last, DrawnEntry)
                and is_beside
                and entry.time is NOTHING
                and says_not_held(entry.text)
            ):
                found[-1] = replace(last, text=f"{last.text} - {entry.text}")
                continue
            places = entry.location.split(", ")
            said = next((place for place in places if says_not_held(place)), "")
            if said:
                others = ", ".join(place for place in places if place != said)
                entry = replace(entry, text=f"{entry.text} - {said}", location=others)
        found.append(entry)
    return found


def _when_of(
    entry: DrawnEntry, found: ClockFound, once: Collection[str], options: ReadingOptions, zone: "ZoneInfo | None"
) -> When | Refusal:  # fmt: skip
    """When an entry is, or why it makes no event. `once`: titles that stand on one day alone."""
    fault = (
        fault_of(entry.text)
        or cut_refusal(f"{entry.text}{entry.location}{entry.person}")
        or _untitled(entry.text)
    )
    time = _as_long_as_said(_in_its_half(entry.time, found), entry.text)
    if lasts_all_day(entry.text) and not holds_time(entry.cell or entry.text):
        time = Part(is_all_day=True)
    refusal = fault or entry.date.refusal or time.refusal
    if refusal is not None:
        return refusal
    when = settle(Said(date=entry.date, time=time, zone_name=options.zone, zone=zone), options.length_secs)
    if isinstance(when, Blame):
        return when.refusal
    if entry.text not in once:
        return when
    return _held_again(entry.text) if says_again(entry.text) else with_days_of_title(entry.text, when) or when


def _held_again(title: str) -> Refusal:
    remedy = "Write it on each of its days, without these words; or, if it is held on this day alone, take them out."
    return Refusal("title-again", AGAIN.format(title), remedy)


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
    if not text[:1].isdigit() or time_alone(text).start is None:
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


def _as_long_as_said(time: Part, title: str) -> Part:
    """The time of an entry whose title says how long it lasts in brackets behind it: no longer than its slot."""
    secs = length_behind(title) if time.start is not None else None
    if time.start is None or secs is None:
        return time
    last = time.start.secs + secs
    is_within = last < DAY_SECS and (time.end is None or time.start.secs < last < time.end.secs)
    return time._replace(end=Clock(last, True), notes=(*time.notes, "length-behind")) if is_within else time


def _reject(account: Account, problem: Problem) -> None:
    cell = problem.cell or ""
    account.reject(("Entry",), (cell,), [problem])


def date_part(day: dt.date, last: dt.date | None = None) -> Part:
    """A day or a range that is settled."""
    return Part(first=day, last=last if last != day else None)
