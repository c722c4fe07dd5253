"""Lines that stand alone in, above or around a table and say what happens on days of their own, `SCHOOL CLOSED 13 April`."""

import datetime as dt
import re
from collections.abc import Callable, Iterator, Sequence
from itertools import islice, pairwise
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.memo import REPEAT_FIELDS
from nomarium.reading.cells.offwords import line_is_off
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.bycontent import LIMITS
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.columns.table import TableReading
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.givenfields import event_alone, given_fields
from nomarium.reading.rows.lone import events_said_alone, is_remark, told_alone
from nomarium.reading.rows.lonerepeats import Often, often_said
from nomarium.reading.rows.otherwise import said_otherwise
from nomarium.reading.rows.when import Blame, When, recurrence_of
from nomarium.reading.rows.whenreader import WhenReader
from nomarium.sheets.sheet import TOP_ROWS, Sheet, cell_text

_FAR: Final = dt.timedelta(days=550)
"""Beyond this distance from all days of a table a line tells of something else: since when a club has been there."""
_WEEK: Final = dt.timedelta(weeks=1)
_LEAST_SHARED: Final = 4
"""Letters of a word by which two titles are of one event."""
_OF_LIMITS: Final = rf"(?i){LIMITS}|\b(?:opens?|opening|ends?|starts?|begins?)\b"
"""Words of a day that ends or opens something, and may be one of the table's own."""
_BEGINS: Final = (
    r"(?i)\b(?:week|wk|w/?[bc]|from|beginning|commencing|starting|woche|semaine|semana|ab|vom|du|dès)\b"
)
"""Words of a line whose day is the first of all of it."""
_OF_WEEK: Final = re.compile(
    r"(?i)\W*(?:(?:school\s+)?(?:week|wk|woche|kw|semaine|semana|settimana|vecka|uke|uge|viikko|term|cycle)\s*(?:no\.?\s*)?\d|w/?[bc]\b)"
)
"""A line that heads one week, or one term, of several: `Week 2 (12-16 October)`."""
_LATE: Final = Refusal(
    "repeat-unread", "The line says how often something is held, below all rows by which it was told what this table says.",
    "Give it a row of its own: its first and its last day, its time, and how often.",
)  # fmt: skip

ABOUT_ALL: Final = re.compile(
    r"(?i)\W*(?:(?:please note|n\.?b\.?|note)\W+)?(?:there\s+(?:is|are|will be)\s+)?(?:no|not|except|excluding|skip(?:ping)?|kein\w*|nicht|pas de|sauf|sin|excepto|salvo|geen|behalve|niente|tranne|eccetto|sem|exceto|ingen|inget|utom|undtagen|au(?:ß|ss)er)\b"
)
"""How a line begins that says of all rows when they are not held."""

Line = tuple[int, str]
"""The number of a row, and the one text in it."""


class Around(NamedTuple):
    """What is known of a table when lines around it are read."""

    sheet: Sheet
    decisions: Decisions
    options: ReadingOptions
    held: Sequence[Event] = ()
    """Events of the table, some hundred of them at least where it has as many."""
    title: int = 0
    """The number of the line that names all of it."""
    where: str = "beside"
    """Where the lines stand: beside the table, or above it."""

    @property
    def near(self) -> Decisions:
        """Its decisions, by which a day without a year is near its own where nothing else says so."""
        return _near(self.decisions, lambda: self.held)

    @property
    def days(self) -> list[dt.date]:
        return [event.first_day for event in self.held]


def said_within(
    text: str, table: TableReading, number: int, account: Account
) -> list[Event] | Refusal | None:
    """The events of a row among others that holds this text and nothing else; None when it says none."""
    decisions, options, place = table.decisions, table.options, table.sheet.place(number)
    if ABOUT_ALL.match(text) and repeats(table):
        return None  # it says when the others are not held
    often = often_said(text, decisions, options) if not is_remark(text) else None
    if often is not None and not table.says_often:
        return _LATE
    if isinstance(often, Refusal):
        return often
    if often is not None and often.are_of([event.first_day for event in events_at_top(table)]):
        return None
    if often is not None:
        events: list[Event] | Refusal | None = [_often_alone(often, number, options)]
        _tell(often.notes, table.sheet, number, account)
    else:
        events, near = _said_near(text, decisions, lambda: events_at_top(table), options, number)
        _tell(_years_told(near), table.sheet, number, account)
    if events and not isinstance(events, Refusal):
        account.count(told_alone(events).at(place))
    return events


def tell_lone(lines: Sequence[Line], last_number: int, table: TableReading, account: Account) -> None:
    """Tell of rows that hold one text and are no events: those before the last event, and below it those that say how often
    something is held."""
    for number, text in lines:
        told = _told_below(text, table) if number > last_number else None
        if number < last_number:
            told = note("row-lone", f"A row that holds one text alone is no event: “{text[:60]}”.")
        if told is not None:
            account.count(told.at(table.sheet.place(number)))


def repeats(table: TableReading) -> bool:
    """Whether rows of a table are held again and again: a column says so, or its first dates do."""
    if any(column.field in REPEAT_FIELDS and column.filled for column in table.columns):
        return True
    return any(event.details.recurrence is not None for event in events_at_top(table))


def events_at_top(table: TableReading) -> list[Event]:
    """The days and titles of the first rows of a table, as far as these are plain, and how they repeat."""
    when = WhenReader(table)
    column = table.column("summary")
    at = column.at if column is not None else -1
    found = []
    for _, row in islice(table.rows(), TOP_ROWS):
        cells = [*row, *[""] * (len(table.columns) - len(row))]
        title = cell_text(cells[at]) if at >= 0 else ""
        found += [event_alone(title, one, 0, {}) for one in _whens_of(cells, when)]
    return found


def _whens_of(row: Sequence[Cell], reader: WhenReader) -> Sequence[When]:
    when = reader.of(row)
    if isinstance(when, Blame):
        said = said_otherwise(row, when.field, reader)
        return said.whens if said is not None else ()
    return (when._replace(recurrence=recurrence_of(when.rule)) if when.rule is not None else when,)


def events_above(table: TableReading, account: Account) -> Iterator[Event]:
    """The events of lines above a list, which have been counted as notes."""
    above = frozenset(table.head.title_rows) - table.options.heard
    lines = [(number, text) for number, text in table.lines if number in above and _may_say(text)]
    if lines and not table.sheet.dates_above:
        held = events_at_top(table)
        known = Around(table.sheet, table.decisions, table.options, held, min(above, default=0), "above")
        yield from events_around(known, lines, account)


def events_around(known: Around, lines: Sequence[Line], account: Account) -> Iterator[Event]:
    """The events of lines that have been counted as notes. The one that names all of the table makes an event only when it says
    that nothing is held; what a line says and makes no event of is told."""
    for number, text in lines:
        if not _may_say(text):
            continue
        place = known.sheet.place(number)
        found = _found(known, number, text)
        if found is None:
            if (told := told_often(text)) is not None and known.held and not _is_of_weekday(known, text):
                account.count(told.at(place), text)
            continue
        events, notes = found
        if not events or re.search(_OF_LIMITS, text) or (number == known.title and not line_is_off(text)):
            account.count(_told_day(text, known.where).at(place), text)
            continue
        _tell(notes, known.sheet, number, account)
        account.count(told_alone(events).at(place), text)
        account.note_made_events(number, len(events))
        yield from events


def told_often(text: str) -> Problem | None:
    """The note of a line that says how often something is held, and not from when to when."""
    if often_in(text) is None or is_remark(text):
        return None
    message = f"“{text}” says how often something is held, and is no event."
    remedy = "If it is one, give it a row with its first and its last day, its time, and how often."
    return note("line-often", message, remedy)


def with_events_around(
    events: Callable[[Account], Iterator[Event]], known: Around, lines: Sequence[Line]
) -> Callable[[Account], Iterator[Event]]:
    """The way to the events of a drawing, and to those of lines around it, as far as these are its notes."""

    def with_them(account: Account) -> Iterator[Event]:
        held, before = list[Event](), len(account.note_rows)
        for event in events(account):
            held.append(event)
            yield event
        passed = {number for number, _ in account.note_rows[before:]}
        if held:
            yield from events_around(
                known._replace(held=held), [line for line in lines if line[0] in passed], account
            )

    return with_them


def _told_below(text: str, table: TableReading) -> Problem | None:
    """The note of a line below all events that says a day or how often, and makes no event; None where it says of the rows what
    these say themselves."""
    if often_in(text) is not None and often_said(text, table.decisions, table.options) is not None:
        return None
    if ABOUT_ALL.match(text) and repeats(table):
        return None
    return told_apart(text, table.decisions.lexicon)


def told_apart(text: str, lexicon: Lexicon) -> Problem | None:
    """The note of a line that says a day or how often, and makes no event; None for others, and for remarks."""
    return told_often(text) or (_told_day(text) if _names_day(text, lexicon) else None)


def _names_day(text: str, lexicon: Lexicon) -> bool:
    """Whether a line has the name of a month with a number beside it."""
    if not _may_say(text) or is_remark(text):
        return False
    words = re.findall(r"[^\W\d_]{3,}|\d+", fold(text))
    months = lexicon.months
    return any(
        (a in months and b.isdigit()) or (a.isdigit() and len(a) < 3 and b in months)
        for a, b in pairwise(words)
    )


def _told_day(text: str, where: str = "beside") -> Problem:
    message = f"“{text}” stands {where} the table and is no event."
    return note("date-above", message, "If it is one, give it a row of the table.")


def _near(decisions: Decisions, held: Callable[[], Sequence[Event]]) -> Decisions:
    """Decisions by which a day without a year is near those of the table, where nothing else says so."""
    if decisions.window is not None:
        return decisions
    days = [event.first_day for event in held()]
    if not days:
        return decisions
    window = (min(days), max(days))
    evidence = f"the dates of the rest ({window[0]} to {window[1]})"
    return decisions._replace(window=window, window_evidence=evidence, is_near=True)


def _said_near(
    text: str,
    decisions: Decisions,
    held: Callable[[], Sequence[Event]],
    options: ReadingOptions,
    number: int,
) -> tuple[list[Event] | Refusal | None, Decisions | None]:
    """The events of a line by the decisions of its table; where it only lacks a year, near the days of this, and the decisions by
    which it is."""
    events = events_said_alone(text, decisions, options, number)
    if not isinstance(events, Refusal) or events.code != "date-no-year":
        return events, None
    near = _near(decisions, held)
    events = events_said_alone(text, near, options, number)
    return events, None if isinstance(events, Refusal) else near


def _years_told(near: Decisions | None) -> tuple[Problem, ...]:
    """The note that says where the year of a line comes from, of which the table's own dates need none."""
    if near is None:
        return ()
    return (note("date-years", f"Days without a year are set near {near.window_evidence}."),)


def _may_say(text: str) -> bool:
    return re.search(r"\d", text) is not None and not keeps_books(text)


def _found(known: Around, number: int, text: str) -> tuple[list[Event], tuple[Problem, ...]] | None:
    """The events that a line says, none where it only names a day; None where it says none, or what the rows say themselves."""
    often = often_said(text, known.near, known.options)
    if isinstance(often, Often):
        return (
            None if often.are_of(known.days) else ([_often_alone(often, number, known.options)], often.notes)
        )
    events, near = (
        (often, None)
        if often is not None
        else _said_near(text, known.decisions, lambda: known.held, known.options, number)
    )
    if events is None:
        return None
    if isinstance(events, Refusal):
        return None if re.search(_BEGINS, text) else ([], ())
    if not known.held:
        return [], ()
    if _are_of_table(known, events, text):
        return None
    first, last = min(known.days), max(known.days)
    is_near = all(first - _FAR < one.first_day < last + _FAR for one in events)
    is_new = is_near and not any(_is_held(known, one) for one in events)
    return (events, _years_told(near)) if is_new else ([], ())


def _often_alone(often: Often, number: int, options: ReadingOptions) -> Event:
    return event_alone(often.title, often.when, number, given_fields(options), often.place, often.rest)


def _tell(notes: Sequence[Problem], sheet: Sheet, number: int, account: Account) -> None:
    for told in notes:
        account.count(told.at(sheet.place(number)), told.cell or told.message)


def _are_of_table(known: Around, events: Sequence[Event], text: str) -> bool:
    """Whether most days of a table lie in those that a line names: it says when all of it is."""
    if _OF_WEEK.match(text) is not None:
        return True
    into = min(known.days) - min(one.first_day for one in events)
    if dt.timedelta() <= into < _WEEK and re.search(_BEGINS, text):
        return True
    inside = sum(any(one.first_day <= day <= one.last_day for one in events) for day in known.days)
    return inside * 2 > len(known.days)


def _is_held(known: Around, event: Event) -> bool:
    """Whether an event of the table on the same day shares a word with this one's title."""
    words = _words(event.summary)
    return any(
        one.first_day <= event.last_day and event.first_day <= one.last_day and words & _words(one.summary)
        for one in known.held
    )


def _is_of_weekday(known: Around, text: str) -> bool:
    """Whether most days of a table are on weekdays that a line names."""
    words = re.findall(r"[^\W\d_]{3,}", fold(text))
    named = {known.decisions.lexicon.weekday(word) for word in words} - {None}
    return sum(day.weekday() in named for day in known.days) * 2 > len(known.days)


def _words(text: str) -> set[str]:
    return {word for word in re.findall(r"[^\W\d_]+", fold(text)) if len(word) >= _LEAST_SHARED}
