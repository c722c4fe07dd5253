"""Lines of text: `Fri 14 April: Marketing webinar, 10–11am, Sail loft`; a date over lines with times; a month over days; an event over
the lines of a paragraph. Each becomes a row of a list, which is read as any other."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.account import Account
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.asides import is_aside, lines_about_letters, without_quotes
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.prose import Said, said_in, sentences_of
from nomarium.reading.layouts.textlines import (
    BULLET,
    MARKS,
    TextLine,
    doubt_of,
    in_month,
    is_like_a_date,
    is_sentence,
    month_alone,
    paragraphs_of,
    row_of,
    text_line,
    time_in,
)
from nomarium.reading.rows.lone import keeps_books
from nomarium.sheets.sheet import Row, cell_text

HEADINGS: Final = ("Date", "Time", "Event", "Where", "Notes", "Length")
_LOOKED_AT: Final = 500
"""Lines in which the words before dates are looked at."""
_PROSE: Final = Refusal(
    "text-prose",
    "It is a sentence with a date or a time: what of it is the title, and what the place, cannot be told.",
    "Write it as one line of a list: “Fri 16 April 2027: Open day, 10–11am, Sail loft”, or take it out.",
)
_UNDATED: Final = Refusal(
    "text-undated", "The line has a time, and neither it nor a line above it has a date.",
    "Write the date on a line above it; for one day, say it for all: --set date=2027-04-12.",
)  # fmt: skip


_EMPTY: Final = Refusal(
    "text-empty", "The date stands alone, and no line under it has a time: what is on that day cannot be told.",
    "Write the date and the title on one line: “Mon 7 June 2027: Inset day”.",
)  # fmt: skip
_NIGHT: Final = Refusal(
    "text-night", "It is earlier than the line above it: it may be on the next day.",
    "Write its date on a line above it, or its time as it is meant.",
)  # fmt: skip
_HALF: Final = re.compile(
    r"(?i)^(?P<half>a\.?m\.?|p\.?m\.?|morning|afternoon|evening)\b[\s:.–—-]+(?P<rest>.*[^\W\d_]{2}.*)$"
)
"""A half of the day before what happens in it."""
_SMALL_HOURS: Final = 6 * 3600
_EVENING: Final = 18 * 3600
_UNREAD: Final = Refusal(
    "text-unread",
    "It seems to hold a date, and none can be read in it.",
    "Correct the date, or take the line out.",
)


class _Found(NamedTuple):
    rows: list[Row]
    notes: int
    """Lines that are no events."""
    sample: str
    """How the first of them is read, after its number."""
    has_open_ends: bool
    refused: list[tuple[int, str, Refusal]]
    """Lines that have a date or a time and are no events, as they stand, and why."""


def look(top: Top) -> Reading | NotRead:
    """Read text line by line, or say why it has no events."""
    sheet = top.sheet
    if sheet.read_lines is None:
        message = f"{sheet.title} is no text: --as text is for lines of text."
        return not_read(sheet, "no-lines", "it is no text", "text-none", message, "Leave --as out.")
    lines = list(sheet.read_lines())
    lexicon = _with_weekdays(lines, top)
    found = _read(lines, lexicon, "date" in top.options.defaults)
    if not found.rows and found.refused:
        number, text, why = found.refused[0]
        problem = why.problem(sheet._replace(unit="line").place(number), text)
        return NotRead(
            sheet, "no-lines", f"no line of it is an event, and line {number} is “{text}”", problem
        )
    if not found.rows:
        message = f"No line of {sheet.title} has a date or a time."
        return not_read(
            sheet,
            "no-lines",
            "no line has a date or a time",
            "text-none",
            message,
            "Check that this is the right file.",
        )
    made = sheet._replace(read_rows=partial(_rows, found.rows), unit="line", read_lines=None)
    options = top.options._replace(header_row=None)
    reading = list_in(
        Top(made, options, top.is_whole),
        made,
        lexicon if lexicon.languages != top.lexicon.languages else top.seen,
    )
    if isinstance(reading, NotRead):
        return reading
    return reading._replace(
        layout="text", events=partial(_events, reading, found), notes=(*_told(found, reading), *reading.notes)
    )  # fmt: skip


def _with_weekdays(lines: Sequence[Row], top: Top) -> Lexicon:
    """The names of months and weekdays, with those of the language that knows the words before the dates."""
    lexicon = top.lexicon
    words = set[str]()
    for _, row in lines[:_LOOKED_AT]:
        text = " ".join(MARKS.sub("", BULLET.sub("", cell_text(row[0]) if row else "")).split())
        match = re.match(r"([^\W\d]{2,})[.,]*\s+\d", text)
        if match and fold(match[1]) not in lexicon.weekdays and fold(match[1]) not in lexicon.months:
            words.add(match[1])
    if not words or top.options.languages:
        return lexicon
    from nomarium.reading.cells.languages import weekday_lexicon

    known = weekday_lexicon(frozenset(fold(word) for word in words), least=1)
    return lexicon.extended(known) if known is not None else lexicon


def _rows(rows: Sequence[Row]) -> Iterator[Row]:
    yield 0, HEADINGS
    yield from rows


def _events(reading: Reading, found: _Found, account: Account) -> Iterator[Event]:
    yield from reading.events(account)
    account.ledger.read += found.notes + len(found.refused)
    account.ledger.notes += found.notes
    account.ledger.rejected += len(found.refused)
    account.problems += [
        why.problem(reading.sheet.place(number), text) for number, text, why in found.refused
    ]


def _told(found: _Found, reading: Reading) -> Iterator[Problem]:
    more = f"; so are {counted(len(found.rows) - 1, 'other')}" if len(found.rows) > 1 else ""
    first = reading.sheet.place(found.rows[0][0] if found.rows else None)._replace(file="", sheet="")
    yield note("text-lines", f"Read line by line: {first} {found.sample}{more}.").at(reading.sheet.place())
    if found.has_open_ends:
        message = "A time without an end lasts until the next line under the same date."
        yield note("text-ends", message, "If not, write the ends.").at(reading.sheet.place())


def _read(lines: Sequence[Row], lexicon: Lexicon, has_date: bool) -> _Found:
    """The rows that lines come to."""
    plain = list(without_quotes([(number, cell_text(row[0]) if row else "") for number, row in lines]))
    of_letters = lines_about_letters(plain, lexicon)
    plain = [(number, "" if number in of_letters else text) for number, text in plain]
    written = sum(bool(row) and bool(cell_text(row[0])) for _, row in lines)
    taking = _Taking(lexicon, has_date)
    taking.notes = written - sum(bool(text.strip()) for _, text in plain)
    paragraphs = [
        [text_line(number, text, lexicon) for number, text in some] for some in paragraphs_of(plain)
    ]
    following_of = {
        one.number: after for one, after in pairwise(line for some in paragraphs for line in some)
    }
    for read in paragraphs:
        over = _over_lines(read)
        if over is not None:
            taking.rows.append(over)
            taking.notes += len(read) - 1
            continue
        for line in read:
            taking.take(line, following_of.get(line.number))
    rows = taking.rows
    for number, title in _days_of_one_line(taking.headings, plain, rows, lexicon):
        text = taking.headings[number]
        if title is None:
            taking.refused.append((number, text, _EMPTY))
        else:
            rows.append((number, (text_line(number, text, lexicon).date, "", title, "", "", "")))
        taking.notes -= 1 if title is None else 2
    rows.sort(key=lambda row: row[0])
    ended = list(_with_ends(rows))
    has_open_ends = any(before[1] != after[1] for before, after in zip(rows, ended, strict=True))
    return _Found(ended, taking.notes, _sample(ended), has_open_ends, taking.refused)


class _Taking:
    """Takes line after line, under the month and the date that stand over it."""

    def __init__(self, lexicon: Lexicon, has_date: bool) -> None:
        self._lexicon, self._has_date = lexicon, has_date
        self._month = self._date = ""
        self.rows: list[Row] = []
        self.refused: list[tuple[int, str, Refusal]] = []
        self.headings: dict[int, str] = {}
        """Lines that date those below them."""
        self.notes = 0

    def take(self, line: TextLine, following: TextLine | None) -> None:
        """What a line comes to: a row, some rows, a refusal, what it says of those below it, or a note."""
        lexicon = self._lexicon
        if (named := month_alone(line.text, lexicon)) is not None:
            self._month, self._date = named, ""
            self.notes += 1
            return
        if line.date == "" and self._month and (day := in_month(line, self._month, lexicon)) is not None:
            line = day
        if is_sentence(line):
            said, doubtful = _said(line, lexicon)
            self.rows += said
            self.refused += [(line.number, text, _PROSE) for text in doubtful]
            self.notes += not said and not doubtful
        elif is_aside(line.text, bool(line.date), bool(line.time)):
            self.notes += 1
        elif (line.date or line.time) and (doubt := doubt_of(line, lexicon)) is not None:
            self._refuse(line, doubt)
        elif line.date and _is_heading(line, following):
            self._date, self.headings[line.number] = line.date, line.text
            self.notes += 1
        elif line.date:
            self.rows.append(row_of(line, line.date))
        elif line.time and line.rest:
            self._take_timed(line)
        elif self._date and (half := _HALF.match(line.text)):
            title = f"{half['rest'].strip()} ({half['half']})"
            self.rows.append((line.number, (self._date, "", title, "", "", "")))
        elif is_like_a_date(line.text, lexicon):
            self._refuse(line, _UNREAD)
        else:
            self.notes += 1

    def _take_timed(self, line: TextLine) -> None:
        if not self._date and not self._has_date:
            self._refuse(line, _UNDATED)
        elif _is_after_midnight(line, self.rows[-1] if self.rows else None, self._date):
            self._refuse(line, _NIGHT)
        else:
            self.rows.append(row_of(line, self._date))

    def _refuse(self, line: TextLine, why: Refusal) -> None:
        self.refused.append((line.number, line.text, why))


def _days_of_one_line(
    headings: Mapping[int, str], lines: Sequence[tuple[int, str]], rows: Sequence[Row], lexicon: Lexicon
) -> Iterator[tuple[int, str | None]]:
    """The dates that stand alone, and no line under them has a time: each with the one line that it dates, or None where
    there are several, or none."""
    dated = sorted((*headings, *(number for number, _ in rows)))
    for number in headings:
        after = next((one for one in dated if one > number), None)
        if after is not None and after not in headings:
            continue  # what it dates
        under = [
            text.strip() for n, text in lines
            if n > number and (after is None or n < after) and text.strip() and month_alone(text.strip(), lexicon) is None
        ]  # fmt: skip
        yield number, under[0] if len(under) == 1 else None


def _is_after_midnight(line: TextLine, before: Row | None, date: str) -> bool:
    """Whether a line under a date is earlier than those above it, in the small hours: it may be on the next day."""
    if before is None or before[1][0] != date or not before[1][1]:
        return False
    here, there = read_times(line.time), read_times(str(before[1][1]))
    if (
        not isinstance(here, Times)
        or not isinstance(there, Times)
        or here.start is None
        or there.start is None
    ):
        return False
    return here.start.secs < _SMALL_HOURS and there.start.secs >= _EVENING


def _said(line: TextLine, lexicon: Lexicon) -> tuple[list[Row], list[str]]:
    """The rows of the sentences of a line, and the sentences that leave in doubt what they say."""
    rows: list[Row] = []
    doubtful: list[str] = []
    for sentence in sentences_of(line.text):
        said = None if keeps_books(sentence) else said_in(sentence, lexicon, time_in)
        if isinstance(said, Said):
            rows.append((line.number, (said.date, said.time, said.title, said.place, "", "")))
        elif said == "doubtful":
            doubtful.append(sentence)
    return rows, doubtful


def _is_heading(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line dates those below it: it says no more, or they have the times and it has none."""
    if line.time or line.has_time:
        return False
    if sum(map(str.isalpha, line.rest)) < 2:
        return True
    return following is not None and bool(following.time) and not following.date


def _over_lines(lines: Sequence[TextLine]) -> Row | None:
    """The event that a paragraph of a few lines says: its title, when, and perhaps where. None when it is no such paragraph."""
    dated = [n for n, line in enumerate(lines) if line.date]
    if not 2 <= len(lines) <= 4 or len(dated) != 1 or any(line.is_bullet for line in lines):
        return None
    at = dated[0]
    others = [line for n, line in enumerate(lines) if n != at]
    if any(line.time for line in others) or sum(map(str.isalpha, lines[at].rest)) > 1:
        return None
    if at == 0 and len(others) > 1:
        return None
    title, *rest = [line.text for line in others]
    return lines[0].number, (
        lines[at].date,
        lines[at].time,
        title.strip(" :"),
        rest[0] if rest else "",
        " ".join(rest[1:]),
        "",
    )


def _with_ends(rows: Sequence[Row]) -> Iterator[Row]:
    """The rows whose times without an end last to the start of the next one under the same date."""
    for (number, cells), (_, following) in pairwise([*rows, (0, ("", "", "", "", "", ""))]):
        date, time, *rest = cells
        here, after = read_times(str(time)), read_times(str(following[1]))
        is_open = isinstance(here, Times) and here.start is not None and here.end is None and not cells[5]
        if is_open and date == following[0] and isinstance(after, Times) and after.start is not None:
            begins = re.split(r"\s*(?:[-–—]|\bto\b|\buntil\b)\s*", str(following[1]))[0]
            time = f"{time}-{begins}"
        yield number, (date, time, *rest)


def _sample(rows: Sequence[Row]) -> str:
    """How the first line is read, in words."""
    if not rows:
        return ""
    date, time, title, place, *_ = [str(cell) for cell in rows[0][1]]
    parts = [("date", date), ("time", time), ("title", title), ("place", place)]
    return "has the " + ", the ".join(f"{name} “{text}”" for name, text in parts if text)
