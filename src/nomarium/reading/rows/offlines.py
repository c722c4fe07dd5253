"""Lines above and below weekdays that say when there is no school, or when it is held: `No classes 15–19 February`."""

import calendar
import datetime as dt
import re
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import islice, pairwise
from typing import Final, Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_CELL, MOST_TABLE_ROWS
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.dates import Day
from nomarium.reading.cells.offwords import is_off, is_term
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.datewithin import DateWithin, date_within, names_several
from nomarium.reading.rows.opendays import is_open_day
from nomarium.reading.rows.sectiondate import NOT_THEN
from nomarium.sheets.sheet import Sheet, cell_text

_NO: Final = r"(?:no|kein\w*|pas de|pas d['’]|sin|geen|niente|nessuna?|sem|ingen|inget|ikke|ei|brak)"
_NOT_HELD: Final = (
    rf"\b(?:{_NO}|not|without|except|excluding|skip(?:ping)?)\s+(?:\w+\s+){{0,2}}(?:classes|class|lessons?|school|teaching|timetable|sessions?|meetings?|held|on|"
    r"unterricht|kurse?|cours|clases?|les(?:sen)?|lezion[ei]|aulas?|lektion\w*|undervisning|kursus|timer?|lekcji|zajec|tunti\w*|opetusta)\b|\bsuspended\b|\bcancelled\b|^\W*off\W*$"
)
_NONE_OF_IT: Final = (
    r"^\W*(?:(?:please note|n\.?b\.?|note)\W+)?(?:(?:that )?there (?:is|are|will be)\s+)?(?:no|kein\w*|pas de|sin|geen|niente|sem|ingen|inget)\s+"
    r"(?!(?:one|longer|later|more|less|fewer|need|charge|cost|fee|smoking|parking|entry|admission|refunds?|dogs|food|change|problem|booking|bookings|limit|ball games)\b)"
    r"(?P<what>(?:[^\W\d_]+(?:['’-][^\W\d_]+)?\s+){1,3}?)(?:(?:on|from|between|in|during|for|vom|am|du|le|del|el|dal|il|op|van|em|den|d)\b)?\W*$"
)
"""Words before a date that say what is not held then, `No training`, `There is no choir on`."""
_OF_ALL: Final = frozenset(
    "class classes lesson lessons school teaching session sessions meeting meetings training trainings practice practices rehearsal rehearsals "
    "week weeks beginning commencing half term terms day days date activity activities club clubs coaching games match matches fixtures event events group groups duty duties unterricht training cours clases lessen kurs kurse clase les lezione lezioni aula aulas lektion lektioner undervisning monday tuesday wednesday thursday friday saturday sunday evening morning afternoon".split()
)
"""What a line says that may be of all rows, whatever they are called."""
_LEAST_OF_NAME: Final = 4
_HELD: Final = r"\b(?:timetable|schedule|classes|lessons|teaching|valid|stundenplan|horario|emploi du temps|lesrooster)\b"
_BEGINS: Final = r"\b(?:begins?|starts?|starting|commenc(?:es?|ing)|opens?|from|first (?:day|session|class)|start|beginn\w*|commencent?|empiezan?)\b"
_RUNS: Final = r"\b(?:starts?|starting|begins?|commenc(?:es?|ing)|runs?|running|first (?:day|session|class)|weeks?|clubs?|sessions?|courses?|season|programme|activities|rehearsals|training)\b"
"""Words of a line that says when what stands in a weekly table is held, where nothing else is said to begin then."""
_NOT_RUN: Final = r"\b(?:registration|register|enrol\w*|bookings?|sign ?-?up|appl\w+|payments?|fees?|sale|sales|tickets?|deadline|due|updated|printed|open house|open day|assembly|exam\w*|camp)\b"
_OWN: Final = r"(?i)\b(?:every|each|weekly|\w+days)\b|\d\s?[ap]\.?m\b|\d[:.]\d\d"
_SO_MANY: Final = r"(?i)\b(\d{1,2})[\s-]*weeks?\b"
_ENDS: Final = r"\b(?:ends?|ending|finish(?:es)?|until|till|to|last day|end|enden?|finissent|terminan?)\b"
_NO_NAMES: Final = r"(?i)\b(?:terms?|semesters?|dates?|school|year|trimestres?|semestres?)\b(?!\s*\d\b)"
_AND: Final = r"(?i)\b(?:and|or|nor|also|plus|then|again|on|from|et|ou|und|oder|sowie|y|o|en|of)\b"
_EDGES: Final = " ,;:.()–—-"
_WEEK: Final = r"(?i)\b(?:w\s?/\s?[bc]|wc|wb|week\s+(?:of|beginning|commencing|starting))\W*$"
MOST_CELLS: Final = 3
"""A name, a first and a last day."""
_LEAP_YEAR: Final = 2000
_LEAST_NAMED: Final = 7
_LEAST_TERM: Final = 21
"""Days of a stretch from which on it may be that in which a timetable holds; fewer where it is called a term."""


class Span(NamedTuple):
    """A first and a last day, as dates; as texts where nothing says their year."""

    name: str
    first: dt.date | str
    last: dt.date | str


class SaidLine(NamedTuple):
    """A line that says when there is no school, or when there is."""

    number: int
    text: str
    off: tuple[Span, ...]
    held: tuple[Span, ...]
    is_unread: bool
    """Whether it says days without school that cannot be read for sure."""
    is_of_some: bool = False
    """Whether it may say when only some of the rows beside it are not held, `No choir 26 October`."""

    def unread(self, sheet: Sheet) -> Problem:
        if self.is_of_some:
            message = f"“{self.text}” says when something is not held, and not for sure what of all that stands beside it."
            remedy = "If all of it: “No classes 26 October”; if not, take the line out and leave these days out of its rows (a column “Except”)."
            return Problem("line-off", message, remedy, sheet.place(self.number), self.text)
        message = f"“{self.text}” seems to say when there is no school, and its days cannot be read for sure."
        remedy = "Write it like “No classes: 15–19 February 2027”, or list the days with --days-off FILE and take the line out."
        return Problem("line-off", message, remedy, sheet.place(self.number), self.text)


def lines_beside(sheet: Sheet, options: ReadingOptions) -> list[SaidLine]:
    """What the rows of a sheet that hold one text say of when school is held."""
    return of_their_rows(sheet, said_lines(list(_lines(sheet)), options))


def of_their_rows(sheet: Sheet, lines: Sequence[SaidLine]) -> list[SaidLine]:
    """What lines say of when nothing is held, none of it where a line names what neither a title of the sheet nor each row names."""
    names = {line.number: said for line in lines if (said := _named_in(line.text))}
    if not names:
        return [*lines]
    rows = [row for number, row in islice(sheet.rows(), MOST_TABLE_ROWS) if number not in names]
    titles = [row for row in rows if sum(map(bool, map(cell_text, row))) == 1]
    of_all = _words_in(" ".join((sheet.name, *(cell_text(cell) for row in titles for cell in row))))
    of_some = {number for number, said in names.items() if not (said <= of_all or _in_all(said, rows))}
    return [
        line._replace(off=(), is_unread=True, is_of_some=True)
        if line.number in of_some and line.off
        else line
        for line in lines
    ]


def _named_in(text: str) -> set[str]:
    """The words by which a line says what is not held."""
    parts = _parted(text)
    said = re.match(_NONE_OF_IT, fold(parts[0][0])) if parts else None
    return _words_in(said["what"]) - _OF_ALL if said is not None else set()


def _in_all(words: set[str], rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether one of the words stands in each cell of some columns, below their headings, and nowhere else."""
    columns = [
        [_words_in(cell_text(row[n])) for row in rows if n < len(row)]
        for n in range(max(map(len, rows), default=0))
    ]
    with_it = [column for column in columns if any(words & said for said in column)]
    return bool(with_it) and all(words & said for column in with_it for said in column[1:] if said)


def _words_in(text: str) -> set[str]:
    return {word for word in re.findall(r"[^\W\d_]+", fold(text)) if len(word) >= _LEAST_OF_NAME}


def said_lines(lines: Sequence[tuple[int, str]], options: ReadingOptions) -> list[SaidLine]:
    """What lines, with their numbers, say of when school is held."""
    years = _Years({int(year) for _, text in lines for year in re.findall(r"\b20\d\d\b", text)}, options)
    found = []
    for number, text in lines:
        dated = _begun_and_ended(list(_dates_of(text)))
        if all(one.is_left_out for one in dated):  # and it says no days of its own
            dated = [one._replace(kind="off") for one in dated]
        off = [None if one.is_open else _span(one, years) for one in dated if one.kind == "off"]
        held = [
            span for one in dated if one.kind == "term" and (span := _span(one, years)) and _is_term(span)
        ] or _of_weeks(text, dated, years)
        closed = tuple(span for span in off if span is not None)
        if off or held:
            found.append(SaidLine(number, text, closed, tuple(held), len(closed) < len(off)))
    return found


def ordinals_of(spans: Iterable[tuple[dt.date | str, dt.date | str]]) -> frozenset[int]:
    """The days of stretches whose years are known."""
    return frozenset(
        ordinal
        for first, last in spans
        if isinstance(first, dt.date) and isinstance(last, dt.date)
        for ordinal in range(first.toordinal(), last.toordinal() + 1)
    )


def told_closed(sheet: Sheet, lines: Sequence[SaidLine]) -> Problem:
    """The note that nothing is held on days that lines name."""
    takes = "take" if len(lines) > 1 else "takes"
    message = f"Nothing is held on the days that {quoted(lines)} {takes} out."
    told = note("line-off", message, "If something is, take the line out.")
    return told.at(sheet.place(lines[0].number))


def quoted(lines: Sequence[SaidLine]) -> str:
    return listed([f"“{line.text}”" for line in lines])


def _is_name(name: str) -> bool:
    """Whether a name is that of one term, `Spring term`; `Term dates` is none."""
    return is_term(re.sub(_NO_NAMES, " ", name))


def gaps_between(spans: list[Span]) -> list[tuple[dt.date, dt.date]]:
    """The first and the last day of each gap between stretches whose years are known."""
    ends = sorted(
        (one.first, one.last)
        for one in spans
        if isinstance(one.first, dt.date) and isinstance(one.last, dt.date)
    )
    day = dt.timedelta(1)
    return [(last + day, first - day) for (_, last), (first, _) in pairwise(ends) if last + day < first]


class _Dated(NamedTuple):
    name: str
    kind: Literal["off", "term", ""]
    date: DateWithin
    is_open: bool
    is_week: bool
    is_left_out: bool
    """Whether it is what the words before it leave out, `Training (not 22 Dec)`."""
    lead: str
    """The words before it."""


class _Years(NamedTuple):
    """What says the year of a date that has none."""

    written: set[int]
    """The years in the lines beside the week."""
    options: ReadingOptions

    def of(self, month: int, day: int) -> int | None:
        begin, end = self.options.repeats_from, self.options.repeats_until
        if begin is not None and end is not None and (year := self._within(begin, end, month, day)):
            return year
        if len(self.written) == 1:
            return next(iter(self.written))
        if self.options.school_year is not None:
            return self._within(*self.options.school_year, month, day)
        first, last = self.options.repeats_from, self.options.repeats_until
        if first is None or last is None:
            return None
        fits = [
            year
            for year in range(first.year, last.year + 1)
            if (first.month, first.day) <= (month, day) or year > first.year
        ]
        return fits[0] if fits else None

    @staticmethod
    def _within(first: dt.date, last: dt.date, month: int, day: int) -> int | None:
        fits = [
            year
            for year in range(first.year, last.year + 1)
            if (first.year, first.month, first.day) <= (year, month, day) <= (last.year, last.month, last.day)
        ]
        return fits[0] if len(fits) == 1 else None


def _lines(sheet: Sheet) -> Iterator[tuple[int, str]]:
    """The rows that hold one text alone, with figures in it; or a text and beside it one or two dates, `Half term | 15 Feb | 19 Feb`."""
    for number, row in islice(sheet.rows(), MOST_TABLE_ROWS):
        filled = [cell for cell in row if cell_text(cell)]
        text = " – ".join(cell_text(cell) for cell in filled[1:])
        text = " ".join(f"{cell_text(filled[0])}{': ' if text else ''}{text}".split()) if filled else ""
        is_line = len(filled) == 1 or (len(filled) <= MOST_CELLS and all(map(_is_dated, filled[1:])))
        if is_line and any(map(str.isdigit, text)) and not keeps_books(text):
            yield number, text


def _is_dated(cell: Cell) -> bool:
    """Whether a cell is a date, or says some among a few words: `26-30 Oct 2026 and 15-19 Feb 2027`."""
    return looks_like_date(cell) or (
        isinstance(cell, str)
        and len(cell) <= LONGEST_CELL
        and _parted(cell) != ()
        and not any(_has_words(part) for part, _, _ in _parted(cell))
    )


def _has_words(text: str) -> bool:
    return any(map(str.isalpha, re.sub(_AND, "", text)))


def _dates_of(text: str) -> Iterator[_Dated]:
    """Each date of a line, with the words before it that say what is then; a line that begins with a date has them behind it.
    A date without words has those of the one before."""
    parts = _parted(text)
    begins = bool(parts) and not any(map(str.isalpha, parts[0][0]))
    name = ""
    kind: Literal["off", "term", ""] = ""
    left_out = False
    for before, found, behind in parts:
        words = behind if begins else before
        if any(map(str.isalpha, re.sub(_AND, "", words))):
            name, kind = _tidy(words), _kind(words)
            if len(parts) == 1 and _is_off_behind(kind, before, behind):
                kind = "off"
            left_out = kind != "off" and re.search(NOT_THEN, words) is not None
        is_open = names_several(found, ENGLISH) or is_open_day(before, found.text, behind, ENGLISH)
        yield _Dated(
            name,
            kind,
            found,
            is_open,
            "week-span" in found.moment.notes or re.search(_WEEK, f"{before}{found.text[:2]}") is not None,
            left_out,
            before,
        )


def _is_off_behind(kind: str, before: str, behind: str) -> bool:
    """Whether what stands behind the one date of a line says that nothing is held then, `Market day 12 October – no classes`; where the
    words before it are about a term, nothing else may stand there: `Week of 12 October off`."""
    return re.fullmatch(r"\W*off\W*", fold(behind)) is not None or (
        not kind and _kind(f"{before} {behind}") == "off"
    )


def _begun_and_ended(dated: list[_Dated]) -> list[_Dated]:
    """The dates of a line, of which two are one stretch where it says that school begins on the first and ends on the other."""
    if len(dated) < 2 or dated[0].kind != "term" or not re.search(_BEGINS, fold(dated[0].lead)):
        return dated
    first, second, *more = dated
    if not re.search(_ENDS, fold(second.lead)) or first.date.moment.last or second.date.moment.last:
        return dated
    moment = first.date.moment._replace(last=second.date.moment.first)
    return [first._replace(date=first.date._replace(moment=moment), is_week=False), *more]


def _says_own(words: str) -> bool:
    """Whether words are about something with a time or a weekday of its own, `Every Thursday 6pm`."""
    return re.search(_OWN, words) is not None


def _kind(words: str) -> Literal["off", "term", ""]:
    said = fold(words)
    if is_off(words) or re.search(_NOT_HELD, said) or re.match(_NONE_OF_IT, said):
        return "off"
    runs = re.search(_RUNS, said) is not None and not re.search(_NOT_RUN, said) and not _says_own(words)
    return "term" if is_term(words) or re.search(_HELD, said) or runs else ""


@lru_cache(maxsize=256)  # several look at the same lines, and one of many dates takes long
def _parted(text: str) -> tuple[tuple[str, DateWithin, str], ...]:
    """The dates of a text in their order, each with what stands before it and behind it, as far as the next ones."""
    found = date_within(f"{text} ·", ENGLISH)
    if found is None:
        return ()
    before, _, behind = found.rest.removesuffix("·").partition("\0")
    left, right = _parted(before), _parted(behind)
    lead = left[-1][2] if left else before
    tail = right[0][0] if right else behind
    return (*left, (lead, found, tail), *right)


def _span(one: _Dated, years: _Years) -> Span | None:
    """The stretch of a date; None where the order of its figures is open."""
    first = _day(one.date.moment.first, years)
    last = _day(one.date.moment.last, years) if one.date.moment.last is not None else first
    if one.is_week and isinstance(first, dt.date) and last == first:
        last = first + dt.timedelta(6)
    elif one.is_week:
        return None
    return Span(one.name, first, last) if first and last else None


def _of_weeks(text: str, dated: list[_Dated], years: _Years) -> list[Span]:
    """The stretch of a line that says a first day and so many weeks, `10 weeks from 14 September`; nothing for any other."""
    weeks = re.search(_SO_MANY, text)
    span = _span(dated[0]._replace(is_week=False), years) if weeks and len(dated) == 1 else None
    if weeks is None or span is None or span.first != span.last or not isinstance(span.first, dt.date):
        return []
    if dated[0].kind == "off" or re.search(_NOT_RUN, fold(text)) or _says_own(text):
        return []
    return [span._replace(last=span.first + dt.timedelta(7 * int(weeks[1]) - 1))]


def _is_term(span: Span) -> bool:
    least = _LEAST_NAMED if is_term(span.name) or re.search(_BEGINS, fold(span.name)) else _LEAST_TERM
    return (
        isinstance(span.first, dt.date)
        and isinstance(span.last, dt.date)
        and (span.last - span.first).days >= least
    )


def _day(day: Day | None, years: _Years) -> dt.date | str:
    """The date, or its text where its year is open; nothing where it is open which figure is the month."""
    readings = day.readings if day is not None else ()
    if len({(one.month, one.day) for one in readings}) != 1:
        return ""
    one = readings[0]
    date = one.date(years.of(one.month, one.day) or _LEAP_YEAR)
    has_year = one.year or years.of(one.month, one.day)
    return (date or "") if has_year else f"{one.day} {calendar.month_name[one.month]}"


def _tidy(words: str) -> str:
    """The name in the words around a date, `Spring term` of `Timetable – Spring term (`."""
    pieces = [piece for piece in re.split(r"\s[–—-]\s|[:;]", words) if is_off(piece) or is_term(piece)]
    bare = (pieces[-1] if pieces else words).strip(_EDGES)
    bare = re.sub(r"(?i)\s*\b(?:on|from|for|between|is|are|the|of|will be|during)\s*$", "", bare)
    return re.sub(r"(?i)^(?:and|&)\s+", "", bare.strip(_EDGES))
