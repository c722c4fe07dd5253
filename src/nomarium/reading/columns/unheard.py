"""Columns that nothing uses, or that were taken for something else, and that may say when a row is held: each stops the
table, for what it says must not be lost unseen."""

import re
from collections.abc import Collection, Sequence
from typing import Literal

from nomarium.model.cell import Cell
from nomarium.model.event import FACETS
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import listed
from nomarium.reading.cells.lengths import read_length
from nomarium.reading.cells.serials import from_serial
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import PART_OF_DAY, WEEKS_LONG, Column
from nomarium.reading.columns.columnnotes import called, letter_of
from nomarium.reading.columns.contents import HOURS_TO_HOURS, MOSTLY, Contents
from nomarium.reading.columns.dottedtimes import are_dotted_times
from nomarium.reading.columns.headings import DATE_FIELDS, is_placeholder, unit_of
from nomarium.reading.columns.lengthcells import are_lengths
from nomarium.reading.columns.offunheard import rows_called_off
from nomarium.reading.columns.repeatsunheard import (
    begun_without_end,
    moved_dates,
    repeats_in_notes,
    weeks_counted,
    weeks_or_one,
)
from nomarium.reading.columns.schoolyears import years_unheard
from nomarium.reading.columns.timesinwords import says_time
from nomarium.reading.columns.titlesagain import titles_held_again
from nomarium.reading.columns.whenwords import (
    are_hours_unheaded,
    are_of_others,
    heads_clock,
    is_before_start,
    is_of_nature,
    is_of_record,
    names_weekdays,
    speaks_of_when,
)
from nomarium.sheets.sheet import Sheet, cell_text

_INTERVAL = r"(?i)\binterval"
_IN_ONE_CELL = "If a row repeats every so many weeks, say both in one cell: “every 2 weeks”. "
_LONGEST_CLOCK = 12
_CLOCKS = r"(?i)(?:\d{1,2}[:.h]\d\d\s?(?:[ap]\.?m\.?|h|uhr)?(?:\s?[,;/&+|–-]\s?|\sand\s|$)){2,40}"
_NEAR_YEARS = 3
_OF_WORDS = frozenset((*FACETS, "categories", "description", "location"))


def unheard(
    sheet: Sheet,
    columns: Sequence[Column],
    rows: Sequence[Sequence[Cell]],
    lexicon: Lexicon,
    in_titles: Collection[int] = (),
    repeats: bool = False,
    keeps_extra: bool = False,
) -> list[Problem]:
    """A problem for each column that may say when rows are held and does not count. What columns `in_titles` say is in the
    titles, and what `keeps_extra` keeps in the descriptions. `repeats`: the rows do, as was asked or by a rule of their own."""
    free = [c for c in columns if c.at not in in_titles]
    found = {
        **rows_called_off(sheet, free, rows),
        **({} if repeats else {**begun_without_end(sheet, columns), **weeks_or_one(sheet, columns)}),
        **_may_say_when(sheet, free, rows, lexicon, repeats),
        **moved_dates(sheet, columns, repeats),
        **_unused_times(sheet, columns, rows, lexicon, keeps_extra),
        **({} if repeats else repeats_in_notes(sheet, columns, rows, lexicon)),
        **weeks_counted(sheet, columns, rows, lexicon),
        **_times_of_no_date(sheet, columns),
        **years_unheard(sheet, free, rows),
    }
    sessions = _unread_sessions(sheet, [c for c in free if c.at not in found])
    hours = [] if keeps_extra else _under_hours(sheet, [c for c in free if c.at not in found])
    again = [] if repeats else titles_held_again(sheet, columns, rows, lexicon)
    return [*(found[at] for at in sorted(found)), *sessions, *hours, *again]


def _unused_times(
    sheet: Sheet,
    columns: Sequence[Column],
    rows: Sequence[Sequence[Cell]],
    lexicon: Lexicon,
    keeps_extra: bool,
) -> dict[int, Problem]:
    """A problem for each column of times, or of several days a cell, that nothing uses: what it says must not be lost
    unseen. So is one whose heading promises words, where no other column says the time."""
    found: dict[int, Problem] = {}
    has_words = any(c.field == "description" for c in columns)
    says_time = any(c.field == "week-span" or _says_time_of_day(c, rows, lexicon) for c in columns)
    for column in columns:
        takes_words = column.field in _OF_WORDS and not says_time
        is_free = column.is_ignored or takes_words
        is_kept = keeps_extra and column.is_ignored and column.heading
        if not is_free or is_kept or _is_settled(column):
            continue
        about = Contents([row[column.at] if column.at < len(row) else "" for row in rows], lexicon)
        names_days = any(_names_days(cell, lexicon) for cell in about.different)
        are_others = are_of_others(column.heading, about) and not names_days
        if (column.field == "location" and about.numbers >= MOSTLY) or are_others:
            continue  # rooms 4.10 and 4.20, prices 12.30
        are_times = about.are_clear_times if takes_words else about.times >= MOSTLY > about.numbers
        are_times = are_times or (is_before_start(column.heading) and about.say_only_times)
        is_timed = are_times or about.hold_clear_times or (column.is_ignored and _hold_clocks(about))
        is_timed = is_timed or (not says_time and _are_hours(column, about))
        is_timed = is_timed or (column.is_ignored and are_dotted_times(column, about, columns, rows))
        if takes_words and not is_timed:
            continue
        if unit_of(column.heading).times and about.texts >= MOSTLY and about.answers < MOSTLY:
            message = (
                f"The column {called(sheet, column)} is headed by a time, and what happens then is not read."
            )
            remedy = f'Leave it out with --column "{column.heading}=", or give each event a row of its own.'
            found[column.at] = Problem(
                "column-times", message, remedy, sheet.place(None, column.at, column.heading)
            )
        are_bare = about.are_bare_days and about.dates >= MOSTLY
        is_dated = column.is_ignored and about.dates >= 0.5 and (_has_sure_date(about) or are_bare)
        is_dated = is_dated and not _are_codes(about, columns, rows)
        if is_timed or is_dated or names_days:
            says_length = are_lengths(about.different)
            if says_length and any(c.field in ("duration", "end") and c.filled for c in columns):
                continue  # Extra time, Break
            is_known = is_timed and any(_says_time_of_day(c, rows, lexicon) for c in columns)
            is_more = is_known or is_of_nature(column.heading)
            what = _held(says_length, is_more, is_timed, are_bare)
            found[column.at] = _unused(sheet, column, what, is_timed, takes_words, has_words)
            has_words = has_words or is_more  # a second one has no column of its own to go to
    return found


_What = Literal["length", "more", "time", "figures", "days"]
"""What a column holds that nothing uses; `more`: times beside those of the row."""


def _held(says_length: bool, is_more: bool, is_timed: bool, are_bare: bool) -> _What:
    if says_length:
        return "length"
    if is_more:
        return "more"
    return "time" if is_timed else "figures" if are_bare else "days"


def _unused(
    sheet: Sheet, column: Column, what: _What, is_timed: bool, takes_words: bool, has_words: bool
) -> Problem:
    """The problem of a column of times or of days that nothing uses, with what there is to do."""
    name = column.heading or letter_of(sheet, column)
    held = "times" if is_timed else "days"
    message = f"The column {called(sheet, column)} holds {held} and is none of those that say when."
    left_out = f'--column "{name}="'
    if what in ("length", "time"):
        field = "duration" if what == "length" else "time"
        keep = f'to keep it as it is: --column "{name}={column.field}"; or ' if takes_words else "or "
        remedy = f'Say what it is with --column "{name}={field}", {keep}leave it out with {left_out}.'
    elif what == "more":
        kept = "--keep-extra" if has_words else f'--column "{name}=description"'
        begins = f'If it is when the row begins: --column "{name}=start". ' * (not is_before_start(name))
        remedy = f"{begins}To keep what it says: {kept}; to leave it out: {left_out}."
    elif what == "figures":
        remedy = f"If each is a day on which something is, write its month in letters; else leave it out: {left_out}."
    else:
        remedy = (
            f'If it is the date of the row: --column "{name}=date"; if something is held on several, give each day a row of its own; '
            f"to keep what it says: --keep-extra; to leave it out: {left_out}."
        )
    return Problem("column-times", message, remedy, sheet.place(None, column.at, column.heading))


def _is_settled(column: Column) -> bool:
    """Whether a column needs no look: it was asked for, or is blank, or keeps books."""
    return column.how == "asked" or not column.filled or is_of_record(column.heading)


def _says_time_of_day(column: Column, rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    """Whether a column says at what time; one of when does not where its cells are days alone."""
    if column.field != "when":
        return column.field in ("time", "start")
    return Contents([row[column.at] if column.at < len(row) else "" for row in rows], lexicon).date_hours


def _hold_clocks(about: Contents) -> bool:
    """Whether each cell has a time of day in it beside little else, `+1 09:00`, or lists some, `08:00, 14:00 & 20:00`."""
    texts = list(map(cell_text, about.different))
    return bool(texts) and all(
        text[0].isdigit() and re.fullmatch(_CLOCKS, text)
        if len(text) > _LONGEST_CLOCK
        else re.search(r"\d[:h]\d\d", text) or re.fullmatch(_CLOCKS, text)
        for text in texts
    )


def _are_hours(column: Column, about: Contents) -> bool:
    """Whether a column is headed by a time and holds hours in figures; or is headed by nothing, and two of five of its cells at
    least are hours from one to another, `9-12`, or say a time."""
    if not column.is_ignored or not is_placeholder(column.heading):
        is_headed = heads_clock(column.heading) and about.are_clock_figures
        return is_headed or (column.is_ignored and are_hours_unheaded(column.heading, about))
    texts = [text for text in map(cell_text, about.cells) if len(text) <= _LONGEST_CLOCK]
    hours = sum(re.fullmatch(HOURS_TO_HOURS, text) is not None or says_time(text) for text in texts)
    return hours > 1 and hours * 5 >= len(about.cells) * 2


def _times_of_no_date(sheet: Sheet, columns: Sequence[Column]) -> dict[int, Problem]:
    """A problem for a column of times in a table whose rows have several dates, each an event of its own, and none of which
    is the date of the row: it is open which of them the times are of."""
    dated = [c for c in columns if c.field == "milestone" and c.filled]
    times = [c for c in columns if c.field in ("time", "start") and c.filled and not c.has_days]
    if (
        not dated
        or not times
        or any(
            c.field in ("date", "when", "day", "week", "repeat") or c.has_days
            for c in columns
            if c not in dated
        )
    ):
        return {}
    time = times[0]
    message = f"The column {called(sheet, time)} says a time, and not of which date: {listed([f'“{c.heading}”' for c in dated])} are each an event of their own."
    remedy = f'Say which is the date of the row: --column "{dated[-1].heading}=date"; or leave the times out: --column "{time.heading or letter_of(sheet, time)}=".'
    return {time.at: Problem("column-times", message, remedy, sheet.place(None, time.at, time.heading))}


def _may_say_when(
    sheet: Sheet,
    columns: Sequence[Column],
    rows: Sequence[Sequence[Cell]],
    lexicon: Lexicon,
    repeats: bool,
) -> dict[int, Problem]:
    """A problem for each column that nothing uses and whose heading or cells speak of when: an unused column is passed over
    with a note only where it is about something else."""
    repeats = repeats or any(c.field in ("repeat", "day", "repeat-times") for c in columns)
    has_weekday = any(c.field in ("day", "repeat") for c in columns)
    found: dict[int, Problem] = {}
    for column in columns:
        if not column.is_ignored or column.is_kept or column.how == "asked" or not column.filled:
            continue
        about = Contents([row[column.at] if column.at < len(row) else "" for row in rows], lexicon)
        lost = not has_weekday and names_weekdays(column.heading, about)
        if column.evidence in (PART_OF_DAY, WEEKS_LONG) or not (
            lost or speaks_of_when(column.heading, about, repeats)
        ):
            continue
        if about.halves >= MOSTLY and _halves_fit(column.at, columns, rows):
            continue
        is_interval = re.search(_INTERVAL, column.heading) is not None
        if is_interval and {cell_text(cell) for cell in about.different} == {"1"}:
            continue
        name = column.heading or letter_of(sheet, column)
        shown = listed([f"“{cell_text(cell)}”" for cell in about.different[:2]])
        message = f"The column {called(sheet, column)} may say when rows are held, and is not read: {shown}."
        counts = f'If it counts the dates of a row: --column "{name}=repeat-times". '
        counts = _IN_ONE_CELL if is_interval else counts * (repeats and about.numbers >= MOSTLY)
        if all(isinstance(read_length(cell_text(cell)), int) for cell in about.different):
            counts = f'If it is how long each lasts: --column "{name}=duration". '
        halves = "Write the times with am and pm, or on the 24-hour clock. " * (about.halves >= MOSTLY)
        remedy = (
            f"{halves or counts}Put what it says into the columns that say when; "
            f'{_into_title(columns, name)}if it says nothing of when: --column "{name}=".'
        )
        place = sheet.place(None, column.at, column.heading)
        found[column.at] = Problem("column-when", message, remedy, place)
    return found


def _into_title(columns: Sequence[Column], name: str) -> str:
    """How a column that says when in words goes into the title, beside times that say it whole."""
    title = next((c.heading for c in columns if c.field == "summary" and c.heading), "")
    is_timed = {"start", "end"} <= {c.field for c in columns if c.filled}
    return f'to keep it in the title: --title "{{{title}}}: {{{name}}}"; ' if title and is_timed else ""


def _halves_fit(at: int, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether a column of halves of the day says what the times beside it say anyway: no `PM` stands beside 9.00."""
    clocks = [c.at for c in columns if c.field in ("time", "start")]
    for row in rows:
        half = fold(cell_text(row[at])).replace(".", "") if at < len(row) else ""
        for clock in clocks:
            times = read_times(cell_text(row[clock])) if half and clock < len(row) else None
            if not isinstance(times, Times) or times.start is None:
                continue
            is_morning = half in ("am", "morning", "matin", "vormittag")
            hour = times.start.secs // 3600
            if is_morning != (hour < 12 and (times.start.has_meridiem or hour >= 7)):
                return False
    return bool(clocks)


def _unread_sessions(sheet: Sheet, columns: Sequence[Column]) -> list[Problem]:
    """A problem where columns are the sessions of a day, and nobody asked to leave out what happens in them."""
    parts = [
        c for c in columns if c.is_ignored and c.how != "asked" and c.filled and c.evidence == PART_OF_DAY
    ]
    if not parts:
        return []
    named = listed([f"“{c.heading}”" for c in parts])
    message = f"What stands under {named}, parts of a day, is not read."
    left_out = " ".join(f'--column "{c.heading}="' for c in parts)
    remedy = f"If each filled cell is an event: --as roster. If not, leave them out: {left_out}."
    return [Problem("column-sessions", message, remedy, sheet.place(None, parts[0].at, parts[0].heading))]


def _under_hours(sheet: Sheet, columns: Sequence[Column]) -> list[Problem]:
    """A problem where several columns of words that nothing uses are headed by hours in figures, `9-11` and `11-1`: one alone may
    be an age or a class."""
    slots = [
        c
        for c in columns
        if c.is_ignored and not _is_settled(c) and re.fullmatch(_HOURS, c.heading.strip()) and _has_words(c)
    ]
    if len(slots) < _LEAST_SLOTS:
        return []
    named = listed([f"“{c.heading}”" for c in slots])
    message = f"What stands under {named}, which may be hours, is not read."
    left_out = " ".join(f'--column "{c.heading}="' for c in slots)
    remedy = f"If each filled cell is an event, take the other columns but the dates out of the sheet: it is a grid. If not, leave these out: {left_out}."
    return [Problem("column-times", message, remedy, sheet.place(None, slots[0].at, slots[0].heading))]


_HOURS = r"\d{1,2}\s?[-–—]\s?\d{1,2}"
_LEAST_SLOTS = 2


def _has_words(column: Column) -> bool:
    return any(character.isalpha() for sample in column.samples for character in sample)


def _has_sure_date(about: Contents) -> bool:
    """Whether a cell has a year or a month's name: `4.5` and `3/1` are heights and results too."""
    return any(re.search(r"\d{4}|[^\W\d_]{3}|\d[/.-]\d+[/.-]\d", cell_text(cell)) for cell in about.different)


def _are_codes(about: Contents, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether cells are numbers that a spreadsheet could mean days by, and that are years away from all dates of the table: codes."""
    texts = [cell_text(cell) for cell in about.different]
    if not all(re.fullmatch(r"\d{5}", text) for text in texts):
        return False
    dated = [c.at for c in columns if c.field in DATE_FIELDS]
    years = {year for at in dated for row in rows if at < len(row) for year in _years_in(row[at])}
    days = [moment for text in texts if (moment := from_serial(float(text))) is not None]
    return bool(years) and all(abs(moment.year - year) > _NEAR_YEARS for moment in days for year in years)


def _years_in(cell: Cell) -> list[int]:
    return [int(year) for year in re.findall(r"(?<!\d)(?:19|20)\d\d(?!\d)", cell_text(cell))]


def _names_days(cell: Cell, lexicon: Lexicon) -> bool:
    """Whether a cell lists days, `3, 10 and 17 November`, with a month's name."""
    text = cell.strip() if isinstance(cell, str) else ""
    if len(text) > 80 or not any(map(str.isdigit, text)) or not re.search(r"[^\W\d_]{3}", text):
        return False
    from nomarium.reading.cells.repeats import read_day_list

    listed = read_day_list(text, lexicon)
    return not isinstance(listed, Refusal) and len(listed) > 1 and not any(days.rest for days in listed)
