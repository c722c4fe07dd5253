"""What is said about columns: those that nothing uses, those that were guessed, milestones."""

import re
from collections.abc import Collection, Sequence

from nomarium.model.cell import Cell
from nomarium.model.event import FACETS
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import PART_OF_DAY, Column
from nomarium.reading.columns.columns import is_of_record
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.headings import match_exactly, unit_of
from nomarium.sheets.sheet import Sheet, cell_text

_MOVED = (
    r"(?i)(?:new|revised|rearranged|rescheduled|changed|amended|moved|postponed|nouvelle|neues|nueva|nieuwe)"
    r"(?: (?:date|dates|day|to|for|until|datum|fecha))*"
)
_UNTIL = r"(?i)(?:repeat|recur).*"
_NOT_ON = r"(?i)(?:no|not)\b(?!\.| (?:before|after|later|earlier|until|till)\b).*"
_REPEATED = r"(?i)(?:repeat|recur).*|.*\bevery\b.*"
_OF_WORDS = frozenset((*FACETS, "categories", "description", "location"))


def column_notes(
    sheet: Sheet, columns: Sequence[Column], keeps_extra: bool, in_titles: Collection[int]
) -> list[Problem]:
    """The notes of the columns; those `in_titles` are used by a template."""
    notes = []
    unused = [c for c in columns if c.is_ignored and c.how != "asked" and c.filled and c.at not in in_titles]
    if unused and not keeps_extra:
        named = ", ".join(_called(sheet, c) for c in unused)
        message = f"Not used: the column{'s' if len(unused) > 1 else ''} {named}."
        notes.append(
            note("column-unused", message, "--keep-extra puts them into the description.").at(sheet.place())
        )
    for column in columns:
        if column.field == "milestone":
            message = (
                "Each date of it is an all-day event of its own, called “TITLE: "
                + (column.heading or "…")
                + "”."
            )
            remedy = f'To leave it out: --column "{column.heading}=".'
            notes.append(note("milestones", message, remedy).at(sheet.place(None, column.at, column.heading)))
        elif sheet.dates_above and column is columns[-1] and not column.heading:
            continue  # made of the dates above the rows, which are told
        elif column.how == "content" or "is like" in column.evidence:
            message = f"Read as the {column.field}: {column.evidence}."
            remedy = f'If it is not, say so with --column "{column.heading or _letter(sheet, column)}=FIELD".'
            place = sheet.place(None, column.at, column.heading)
            notes.append(note("column-guessed", message, remedy).at(place))
    return notes


def unused_times(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> list[Problem]:
    """A problem for each column of times, or of several days a cell, that nothing uses: what it says must not be lost
    unseen. So is one whose heading promises words, where no other column says the time."""
    found = []
    says_time = any(c.field in ("time", "start", "when", "week-span") for c in columns)
    for column in columns:
        takes_words = column.field in _OF_WORDS and not says_time
        if (
            not (column.is_ignored or takes_words)
            or column.how == "asked"
            or not column.filled
            or is_of_record(column.heading)
        ):
            continue
        about = Contents([row[column.at] if column.at < len(row) else "" for row in rows], lexicon)
        if column.field == "location" and about.numbers >= MOSTLY:
            continue  # rooms 4.10 and 4.20
        are_times = about.are_clear_times if takes_words else about.times >= MOSTLY > about.numbers
        is_timed = are_times or about.hold_clear_times
        if not says_time and _says_time(column.heading) and about.are_clock_figures:
            is_timed = True
        if takes_words and not is_timed:
            continue
        if unit_of(column.heading).times and about.texts >= MOSTLY and about.answers < MOSTLY:
            message = (
                f"The column {_called(sheet, column)} is headed by a time, and what happens then is not read."
            )
            remedy = f'Leave it out with --column "{column.heading}=", or give each event a row of its own.'
            found.append(
                Problem("column-times", message, remedy, sheet.place(None, column.at, column.heading))
            )
        is_dated = column.is_ignored and about.dates >= 0.5 and _has_sure_date(about)
        if is_timed or is_dated or any(_names_days(cell, lexicon) for cell in about.different):
            name = column.heading or _letter(sheet, column)
            what = "times" if is_timed else "days"
            message = f"The column {_called(sheet, column)} holds {what} and is none of those that say when."
            field = "time" if is_timed else "FIELD"
            remedy = (
                f'Say what it is with --column "{name}={field}", or leave it out with --column "{name}=".'
            )
            found.append(
                Problem("column-times", message, remedy, sheet.place(None, column.at, column.heading))
            )
    return found


def moved_dates(sheet: Sheet, columns: Sequence[Column]) -> list[Problem]:
    """A problem for each column that moves, repeats or leaves out its rows by its heading, and is taken for nothing or for
    dates of events beside them."""
    is_told = any(c.field in ("repeat", "day") for c in columns)
    found = []
    for column in columns:
        if column.field not in ("milestone", "") or column.how == "asked" or not column.filled:
            continue
        heading, is_dated = column.heading, column.field == "milestone"
        if is_dated and re.fullmatch(_MOVED, heading):
            says, remedy = "to which date a row is moved", "Write the new date in the place of the old one"
        elif is_dated and re.fullmatch(_NOT_ON, heading):
            says, remedy = "when a row is not held", f'Say so: --column "{heading}=except"'
        elif is_dated and re.fullmatch(_UNTIL, heading) and is_told:
            says, remedy = "until when a row repeats", f'Say so: --column "{heading}=end-date"'
        elif is_dated and re.fullmatch(_UNTIL, heading):
            says, remedy = (
                "until when a row repeats, and nothing says how",
                "Say how in a column headed Repeat",
            )
        elif not is_dated and re.fullmatch(_REPEATED, heading):
            says, remedy = "how a row repeats", f'Say so: --column "{heading}=repeat"'
        else:
            continue
        message = f"The column {_called(sheet, column)} seems to say {says}."
        remedy = f'{remedy}; or leave it out with --column "{heading}=".'
        found.append(Problem("column-moved", message, remedy, sheet.place(None, column.at, heading)))
    return found


def unread_sessions(sheet: Sheet, columns: Sequence[Column]) -> list[Problem]:
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


def _says_time(heading: str) -> bool:
    """Whether a word of the heading is one that heads a time: `Clinic time`."""
    matches = map(match_exactly, heading.split())
    return any(match is not None and match.field == "time" for match in matches)


def _has_sure_date(about: Contents) -> bool:
    """Whether a cell has a year or a month's name: `4.5` and `3/1` are heights and results too."""
    return any(re.search(r"\d{4}|[^\W\d_]{3}|\d[/.-]\d+[/.-]\d", cell_text(cell)) for cell in about.different)


def _names_days(cell: Cell, lexicon: Lexicon) -> bool:
    """Whether a cell lists days, `3, 10 and 17 November`, with a month's name."""
    text = cell.strip() if isinstance(cell, str) else ""
    if len(text) > 80 or not any(map(str.isdigit, text)) or not re.search(r"[^\W\d_]{3}", text):
        return False
    from nomarium.reading.cells.repeats import read_day_list

    listed = read_day_list(text, lexicon)
    return not isinstance(listed, Refusal) and len(listed) > 1 and not any(days.rest for days in listed)


def _called(sheet: Sheet, column: Column) -> str:
    return f"“{column.heading}”" if column.heading else _letter(sheet, column)


def _letter(sheet: Sheet, column: Column) -> str:
    return column_letter(column.at + sheet.first_column)
