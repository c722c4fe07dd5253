"""Lines of text: `Fri 14 April: Marketing webinar, 10–11am, Sail loft`; a date over lines with times; a month over days; an event over
the lines of a paragraph. Each becomes a row of a list, which is read as any other."""

import re
from collections.abc import Iterator, Sequence
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
from nomarium.reading.rows.lone import date_within, keeps_books
from nomarium.sheets.sheet import Row, cell_text

HEADINGS: Final = ("Date", "Time", "Event", "Where", "Notes")
_BULLET: Final = re.compile(r"^\s*(?:#{1,6}\s+|[-*•–+·▪]\s+|\d{1,2}[)]\s+)")
_MARKS: Final = re.compile(r"\*\*|__|`|(?<!\w)[*_](?=\S)|(?<=\S)[*_](?!\w)")
_CLOCK: Final = (
    r"(?:12\s?(?:noon|midday|midnight)|\d{1,2}(?:[.:h]\d{2})?\s?(?:[ap]\.?m\b\.?)?|noon|midday|midnight)"
)
_TIME: Final = re.compile(
    rf"(?i)(?<![\w.:/$£€-])(?<![$£€] )(?:from\s+|at\s+|@\s*)?({_CLOCK}(?:\s?(?:[-–—]|to|until)\s?{_CLOCK})?)"
    r"(?![\w:/%€]|\.\d|\s?(?:€|%|k?m\b|cm\b|kg\b|euros?\b|dollars?\b|pounds?\b|per\b))"
)
"""A time among words; figures with a unit or a currency are none."""
_CLEAR: Final = re.compile(r"(?i)\d[.:h]\d\d|\d\s?[ap]\.?m\b|noon|midday|midnight|\d\s?[-–—]\s?\d")
_LEADING: Final = re.compile(rf"(?i)^({_CLOCK}(?:\s?(?:[-–—]|to|until)\s?{_CLOCK})?)(?=[\s:,–—-])")
_PARTED: Final = re.compile(r"\s*[,;|\t]\s*|\s+[–—-]\s+")
_PLACE_AFTER: Final = re.compile(r"^(?P<title>.*\S)\s+(?:@\s*|(?:at|in)\s+(?=the\s|[A-Z0-9]))(?P<place>.+)$")
_LOOKED_AT: Final = 500
"""Lines in which the words before dates are looked at."""
_LEAST_WORDS: Final = 7
"""Words from which on a line that ends as a sentence does is one."""
_IN_BRACKETS: Final = re.compile(r"^(?P<title>.*\S)\s*\((?P<place>[^()]+)\)$")
_DAY_OF_MONTH: Final = re.compile(
    r"^(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})(?:st|nd|rd|th|\.)?(?=[\s:,–—-]|$)(?![.:]\d)",
    re.IGNORECASE,
)


_PROSE: Final = Refusal(
    "text-prose",
    "It is a sentence with a date or a time: what of it is the title, and what the place, cannot be told.",
    "Write it as one line of a list: “Fri 16 April 2027: Open day, 10–11am, Sail loft”, or take it out.",
)
_UNDATED: Final = Refusal(
    "text-undated", "The line has a time, and neither it nor a line above it has a date.",
    "Write the date on a line above it; for one day, say it for all: --set date=2027-04-12.",
)  # fmt: skip


_UNREAD: Final = Refusal(
    "text-unread",
    "It seems to hold a date, and none can be read in it.",
    "Correct the date, or take the line out.",
)


class _Line(NamedTuple):
    number: int
    text: str
    date: str
    """The date as it is written; nothing where it has none."""
    time: str
    rest: str
    """What else it says."""
    is_bullet: bool
    has_time: bool = False
    """Whether its date has a time with it."""


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
        return NotRead(sheet, "no-lines", "no line of it is an event", problem)
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
        text = " ".join(_MARKS.sub("", _BULLET.sub("", cell_text(row[0]) if row else "")).split())
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
    rows: list[Row] = []
    refused: list[tuple[int, str, Refusal]] = []
    written = sum(bool(row) and bool(cell_text(row[0])) for _, row in lines)
    notes, month, date = written - sum(bool(text.strip()) for _, text in plain), "", ""
    paragraphs = [[_line(number, text, lexicon) for number, text in some] for some in _paragraphs(plain)]
    following_of = {
        one.number: after for one, after in pairwise(line for some in paragraphs for line in some)
    }
    for read in paragraphs:
        over = _over_lines(read)
        if over is not None:
            rows.append(over)
            notes += len(read) - 1
            continue
        for line in read:
            if (named := _month_alone(line.text, lexicon)) is not None:
                month, date = named, ""
                notes += 1
                continue
            if line.date == "" and month and (day := _in_month(line, month, lexicon)) is not None:
                line = day
            if _is_sentence(line):
                said, doubtful = _said(line, lexicon)
                rows += said
                refused += [(line.number, text, _PROSE) for text in doubtful]
                notes += not said and not doubtful
            elif is_aside(line.text, bool(line.date), bool(line.time)):
                notes += 1
            elif line.date and _is_heading(line, following_of.get(line.number)):
                date = line.date
                notes += 1
            elif line.date:
                rows.append(_row(line, line.date))
            elif line.time and line.rest and (date or has_date):
                rows.append(_row(line, date))
            elif line.time and line.rest:
                refused.append((line.number, line.text, _UNDATED))
            elif _is_like_a_date(line.text, lexicon):
                refused.append((line.number, line.text, _UNREAD))
            else:
                notes += 1
    ended = list(_with_ends(rows))
    has_open_ends = any(before[1] != after[1] for before, after in zip(rows, ended, strict=True))
    return _Found(ended, notes, _sample(ended), has_open_ends, refused)


def _said(line: _Line, lexicon: Lexicon) -> tuple[list[Row], list[str]]:
    """The rows of the sentences of a line, and the sentences that leave in doubt what they say."""
    rows: list[Row] = []
    doubtful: list[str] = []
    for sentence in sentences_of(line.text):
        said = None if keeps_books(sentence) else said_in(sentence, lexicon, _time_in)
        if isinstance(said, Said):
            rows.append((line.number, (said.date, said.time, said.title, said.place, "")))
        elif said == "doubtful":
            doubtful.append(sentence)
    return rows, doubtful


def _is_like_a_date(text: str, lexicon: Lexicon) -> bool:
    """Whether a number stands beside the name of a month."""
    if keeps_books(text):
        return False
    words = [fold(word).strip(".,;:()") for word in text.split()]
    return any(
        (a in lexicon.months and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", b))
        or (b in lexicon.months and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", a))
        for a, b in pairwise(words)
    )


def _is_sentence(line: _Line) -> bool:
    """Whether a line is prose, and no entry of a list."""
    return (
        not line.is_bullet
        and len(line.text.split()) >= _LEAST_WORDS
        and line.text.rstrip().endswith((".", "!", "?"))
    )


def _paragraphs(lines: Sequence[tuple[int, str]]) -> Iterator[list[tuple[int, str]]]:
    current: list[tuple[int, str]] = []
    for number, text in lines:
        if text.strip():
            current.append((number, text))
        elif current:
            yield current
            current = []
    if current:
        yield current


def _line(number: int, text: str, lexicon: Lexicon) -> _Line:
    is_bullet = _BULLET.match(text) is not None
    plain = " ".join(_MARKS.sub("", _BULLET.sub("", text)).split())
    leading = _LEADING.match(plain)
    if leading and _reads_as_time(leading[1]):  # 10.00 Welcome: no 10th of anything
        return _Line(number, plain, "", leading[1], plain[leading.end() :].strip(" :,–—-"), is_bullet)
    found = (
        date_within(f"{plain} ·", lexicon)
        if any(map(str.isdigit, plain)) and not keeps_books(plain)
        else None
    )
    if (
        found is not None
        and re.fullmatch(r"\d{1,2}\.\d{1,2}", found.text)
        and not plain.startswith(found.text)
    ):
        found = None  # 12.5 km
    if found is None:
        time, rest = _time_in(plain)
        return _Line(number, plain, "", time, rest, is_bullet)
    before, _, after = found.rest.replace("·", "").partition("\0")
    rest = ", ".join(part for part in (before.strip(" ,;:()–—-"), after.strip(" ,;:–—-")) if part)
    time, rest = _time_in(rest)
    has_time = found.moment.start is not None
    return _Line(
        number, plain, found.text, "" if has_time else time, rest.strip(" ,;:–—-"), is_bullet, has_time
    )


def _reads_as_time(text: str) -> bool:
    times = read_times(text)
    return bool(_CLEAR.search(text)) and isinstance(times, Times) and times.start is not None


def _time_in(text: str) -> tuple[str, str]:
    """The first time that a text says, and the text without it."""
    for match in _TIME.finditer(text):
        if _reads_as_time(match[1].strip()):
            before, after = text[: match.start()].rstrip(" ,;:–—-("), text[match.end() :].lstrip(" ,;:–—-)")
            return match[1].strip(), ", ".join(part for part in (before, after) if part)
    return "", text


def _month_alone(text: str, lexicon: Lexicon) -> str | None:
    """A line that names a month, with a year or without, and nothing else."""
    match = re.fullmatch(r"([^\W\d]+)\s*(\d{4})?:?", text.strip())
    return f"{match[1]} {match[2] or ''}".strip() if match and fold(match[1]) in lexicon.months else None


def _in_month(line: _Line, month: str, lexicon: Lexicon) -> _Line | None:
    """A line that begins with a day of the month above it."""
    match = _DAY_OF_MONTH.match(line.text)
    if match is None or not 1 <= int(match["day"]) <= 31:
        return None
    if match["weekday"] and fold(match["weekday"]) not in lexicon.weekdays:
        return None
    time, rest = _time_in(line.text[match.end() :].strip(" :,–—-"))
    return line._replace(
        date=f"{match['weekday'] or ''} {match['day']} {month}".strip(), time=time, rest=rest
    )


def _is_heading(line: _Line, following: _Line | None) -> bool:
    """Whether a line dates those below it: it says no more, or they have the times and it has none."""
    if line.time or line.has_time:
        return False
    if sum(map(str.isalpha, line.rest)) < 2:
        return True
    return following is not None and bool(following.time) and not following.date


def _over_lines(lines: Sequence[_Line]) -> Row | None:
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
    )


def _row(line: _Line, date: str) -> Row:
    """A line as a row: its title, and what stands in brackets, after a comma or after `at` is the place."""
    text = line.rest
    place = notes = ""
    brackets = _IN_BRACKETS.match(text)
    if brackets:
        text, place = brackets["title"], brackets["place"]
    parts = [part for part in _PARTED.split(text) if part and part.strip()]
    title = parts[0] if parts else ""
    if len(parts) > 1 and not place:
        place, parts = parts[1], [parts[0], *parts[2:]]
    notes = ", ".join(parts[1:])
    after = _PLACE_AFTER.match(title) if not place else None
    if after:
        title, place = after["title"], re.sub(r"^the\s+", "", after["place"])
    return line.number, (date, line.time, title.strip(" :"), place.strip(), notes)


def _with_ends(rows: Sequence[Row]) -> Iterator[Row]:
    """The rows whose times without an end last to the start of the next one under the same date."""
    for (number, cells), (_, following) in pairwise([*rows, (0, ("", "", "", "", ""))]):
        date, time, *rest = cells
        here, after = read_times(str(time)), read_times(str(following[1]))
        is_open = isinstance(here, Times) and here.start is not None and here.end is None
        if is_open and date == following[0] and isinstance(after, Times) and after.start is not None:
            begins = re.split(r"\s*(?:[-–—]|\bto\b|\buntil\b)\s*", str(following[1]))[0]
            time = f"{time}-{begins}"
        yield number, (date, time, *rest)


def _sample(rows: Sequence[Row]) -> str:
    """How the first line is read, in words."""
    if not rows:
        return ""
    date, time, title, place, _ = [str(cell) for cell in rows[0][1]]
    parts = [("date", date), ("time", time), ("title", title), ("place", place)]
    return "has the " + ", the ".join(f"{name} “{text}”" for name, text in parts if text)
