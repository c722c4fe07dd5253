"""Lists whose rows say a weekday and no date: each is a weekly event of the weeks that the person names."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import name_some_weeks
from nomarium.reading.columns.head import TableHead, find_head
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.columns.meetingplaces import with_places_apart
from nomarium.reading.columns.weekdaycolumn import Weekly, weekdays_in
from nomarium.reading.layouts.classlists import names_sections
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.weekdaysabove import in_parts
from nomarium.reading.layouts.weeklylines import weekly_lines, yearless_line
from nomarium.reading.options import ReadingOptions, in_one_week
from nomarium.sheets.sheet import Row, Sheet, cell_text

_SEVERAL: Final = r"\d\s*[-–,;&]\s*\d"
"""Weeks by their numbers, `1-3` or `2, 4`: no count of them."""


class _Unheard(NamedTuple):
    """A column that a list does not hear."""

    problem: Problem
    of_weeks: bool
    """Whether it says in which weeks a row is held, rather than in which terms."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list of weekly events."""
    lexicon, options = top.of_both, top.options
    sheet, head, weekly = _weekdays(in_parts(top), lexicon, options)
    if head is None or weekly is None:
        message = f"{sheet.title} has no column of weekdays."
        return not_read(sheet, "no-weekdays", "it has no weekdays", "date-column-missing", message)
    lines = weekly_lines(sheet, head.first_row, in_one_week(options))
    options, weekly = lines.options, _without(weekly, lines.passed)
    if options.repeats_from is None or options.repeats_until is None:
        return without_weeks(sheet, options)
    heading = weekly.heading(head)
    columns = {**options.columns, weekly.named(sheet, head): "date"}
    left_out = {*weekly.unsettled, *weekly.unread, *lines.passed}

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            if number not in left_out:
                yield number, weekly.row(number, row, head)

    notes = _told(weekly, heading, options)
    place = sheet.place(None, weekly.at, heading)
    dated = sheet._replace(
        read_rows=rows, notes=(*sheet.notes, *(one.at(place) for one in notes), *lines.notes)
    )
    reading = list_in(
        Top(
            dated,
            options._replace(columns=columns, header_row=head.header_rows[0], tells_repeats=False),
            True,
        ),
        dated,
        top.seen,
    )
    if isinstance(reading, NotRead):
        return reading
    assert reading.table is not None
    of_days = _of_days(reading.table.columns, weekly.at)
    table = reading.table._replace(columns=of_days)
    reading = reading._replace(is_weekly=True, table=table)
    unheard = _unheard_weeks(sheet, head.first_row, of_days)
    problems = (
        *lines.problems,
        *_untimed_periods(sheet, of_days, options),
        *weekly.problems,
        *(one.problem for one in unheard),
        *reading.problems,
    )
    is_timetable = names_sections(table) or any(one.of_weeks or options.weeks_of for one in unheard)
    reading = reading._replace(problems=problems, is_of_classes=is_timetable, closed=lines.closed)
    reading = _with_unsettled(_with_unread(reading, weekly, head.headings), weekly)
    free = {
        number: text for number, text in _free_slots(sheet, head.first_row, of_days) if number not in left_out
    }
    left_out.update(free)
    return with_passed(_told_free(reading, free), {**lines.passed, **free})


def _weekdays(
    sheet: Sheet, lexicon: Lexicon, options: ReadingOptions
) -> tuple[Sheet, TableHead | None, Weekly | None]:
    """The sheet, with the places of its meetings apart, its headings, and the weekdays of its rows."""
    head = find_head(sheet, lexicon, options.header_row)
    if head is None or not head.header_rows:
        return sheet, head, None
    if (placed := with_places_apart(sheet, head)) is not None:
        sheet = placed
        head = find_head(sheet, lexicon, options.header_row) or head
    return sheet, head, None if _counts_weeks(head.headings) else weekdays_in(sheet, head, lexicon, options)


def _of_days(columns: Sequence[Column], at: int) -> tuple[Column, ...]:
    """The columns, of which the one of the weekdays says how rows repeat."""
    return tuple(
        column._replace(field="repeat", how="content", evidence="its weekdays repeat")
        if column.at == at
        else column
        for column in columns
    )


def _without(weekly: Weekly, passed: Mapping[int, str]) -> Weekly:
    """The weekdays without the lines that are no rows."""
    unread = {number: one for number, one in weekly.unread.items() if number not in passed}
    unsettled = {number: text for number, text in weekly.unsettled.items() if number not in passed}
    return weekly._replace(unread=unread, unsettled=unsettled)


def _told(weekly: Weekly, heading: str, options: ReadingOptions) -> list[Problem]:
    days = f"from {options.repeats_from} to {options.repeats_until}"
    message = f"The weekdays of “{heading}” repeat every week {days}{options.weeks_of}."
    found = [note("weekly", message)]
    if weekly.filled:
        message = f"A weekday written once holds for the rows below it ({counted(weekly.filled, 'row')})."
        found.append(note("weekday-once", message))
    return found


def _counts_weeks(headings: Sequence[str]) -> bool:
    """Whether a table is a programme in weeks and days: its weekdays come once."""
    return any((match := match_heading(one)) is not None and match.field == "week" for one in headings if one)


def _untimed_periods(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> list[Problem]:
    """A problem where rows are held in periods, and nothing says when these are."""
    fields = {c.field: c for c in columns if c.filled}
    period = fields.get("period")
    given = {*fields, *options.defaults, *options.overrides}
    if period is None or period.how == "asked" or given & {"time", "start", "when", "all-day", "duration"}:
        return []
    message = f"“{period.heading}” says in which period a row is held, and nothing says when the periods are."
    remedy = (
        "Give a table of them with the columns Period, Start and End as a second source, with --as plan; "
        f'to hold each row all day: --column "{period.heading}=description".'
    )
    return [Problem("periods-untimed", message, remedy, sheet.place(None, period.at, period.heading))]


def _unheard_weeks(sheet: Sheet, first_row: int, columns: Sequence[Column]) -> list[_Unheard]:
    """A problem for each column that says in which terms or weeks its rows are held: all would repeat in all of them."""
    fields = ("term", "", "repeat-times")
    doubtful = [column for column in columns if column.field in fields and column.how != "asked"]
    said: dict[int, set[str]] = {column.at: set() for column in doubtful}
    for number, row in sheet.rows():
        for column in doubtful if number >= first_row else ():
            if column.at < len(row) and (text := cell_text(row[column.at])):
                said[column.at].add(text.casefold())
    found = list[_Unheard]()
    for column in doubtful:
        words = said[column.at]
        is_counted = column.field == "repeat-times" and any(re.search(_SEVERAL, word) for word in words)
        is_of_weeks = is_counted or (column.is_ignored and name_some_weeks(column.heading, words))
        if not is_of_weeks and (column.field != "term" or len(words) < 2):
            continue
        message = f"“{column.heading}” says in which {'weeks' if is_of_weeks else 'terms'} a row is held, and all rows would be in all."
        remedy = "" if is_of_weeks else "Give --terms FILE with the dates of the terms; or g"
        remedy += (
            f"{'G' if is_of_weeks else ''}ive each row its first and its last day, or build one of them at a time; "
            f'if it says nothing of when: --column "{column.heading}={column.field}".'
        )
        place = sheet.place(None, column.at, column.heading)
        found.append(_Unheard(Problem("weeks-unheard", message, remedy, place), is_of_weeks))
    return found


def without_weeks(sheet: Sheet, options: ReadingOptions) -> NotRead:
    """A sheet whose weekdays have no weeks, and how to say them."""
    message = f"{sheet.title} names weekdays, and nothing says from when to when they repeat."
    if (options.repeats_from is None) != (options.repeats_until is None):
        missing = "--from" if options.repeats_from is None else "--until"
        remedy = f"Give {missing} too: {missing} {'2026-09-07' if missing == '--from' else '2026-12-18'}."
    elif options.school_year is None and (line := yearless_line(sheet, options)):
        message = f"“{line}” says in which weeks the weekdays of {sheet.title} repeat, and not of which year."
        remedy = "Say it: --school-year 2026:2027; or give the weeks: --from 2026-09-07 --until 2026-12-18."
    else:
        remedy = "Say so: --from 2026-09-07 --until 2026-12-18, or --terms FILE with the dates of the terms; for one week only, --day-one 2026-09-07."
    return not_read(sheet, "no-weeks", "its weekdays have no weeks", "weeks-missing", message, remedy)


def _with_unread(reading: Reading, weekly: Weekly, headings: Sequence[str]) -> Reading:
    """The reading with the rows whose weekdays cannot be read."""

    def refuse(account: Account) -> None:
        for row, problem in weekly.unread.values():
            account.ledger.read += 1
            account.reject(headings, row, [problem])

    return _and_then(reading, refuse) if weekly.unread else reading


def _with_unsettled(reading: Reading, weekly: Weekly) -> Reading:
    """The reading with the rows that are left out because their days are not settled."""
    if not weekly.unsettled:
        return reading

    def pass_over(account: Account) -> None:
        for number, text in weekly.unsettled.items():
            account.ledger.read += 1
            account.note_row(number, text)

    told = weekly.told_unsettled(reading.sheet)
    return _and_then(reading._replace(notes=(*reading.notes, *told)), pass_over)


def _free_slots(sheet: Sheet, first_row: int, columns: Sequence[Column]) -> Iterator[tuple[int, str]]:
    """The rows that say a period or a time and nothing that is on then, right of it, in a table that says it of others: periods of a
    person's week in which nothing is held. Where titles stand left of the times, one may be written once for several."""
    title = next((c.at for c in columns if c.field in ("summary", "class") and c.filled), None)
    slots = [c.at for c in columns if c.field in ("period", "time", "start", "end")]
    if title is None or not slots or title < max(slots):
        return
    idle = {*slots, *(c.at for c in columns if c.field in ("repeat", "week", "term"))}
    for number, row in sheet.rows():
        filled = {n for n, cell in enumerate(row) if cell_text(cell)}
        if number >= first_row and filled & {*slots} and filled <= idle:
            yield number, " ".join(cell_text(row[n]) for n in sorted(filled))


def _told_free(reading: Reading, free: Mapping[int, str]) -> Reading:
    if not free:
        return reading
    are_free = counted(len(free), "row is a free period", "rows are free periods")
    told = note("slots-free", f"{are_free}: nothing is said to be on then.")
    return reading._replace(notes=(*reading.notes, told.at(reading.sheet.place(next(iter(free))))))


def with_passed(reading: Reading, passed: Mapping[int, str]) -> Reading:
    """The reading with the lines that say when nothing is held, and are no events."""

    def pass_over(account: Account) -> None:
        for number, text in passed.items():
            account.ledger.read += 1
            account.note_row(number, text)

    return _and_then(reading, pass_over) if passed else reading


def _and_then(reading: Reading, account_for: Callable[[Account], None]) -> Reading:
    """The reading that accounts for other rows after its own."""
    listing = reading.events

    def events(account: Account) -> Iterator[Event]:
        yield from listing(account)
        account_for(account)

    return reading._replace(events=events)
