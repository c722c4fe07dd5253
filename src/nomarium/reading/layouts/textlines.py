"""One line of text: its date, its time, and what else it says; and the row of a list that it comes to."""

import re
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.rows.lone import date_within, keeps_books
from nomarium.sheets.sheet import Row

BULLET: Final = re.compile(r"^\s*(?:#{1,6}\s+|[-*•–+·▪]\s+|\d{1,2}[)]\s+)")
MARKS: Final = re.compile(r"\*\*|__|`|(?<!\w)[*_](?=\S)|(?<=\S)[*_](?!\w)")
_CLOCK: Final = (
    r"(?:12\s?(?:noon|midday|midnight)|\d{1,2}(?:[.:h]\d{2})?\s?(?:[ap]\.?m\b\.?)?|noon|midday|midnight)"
)
_TIME: Final = re.compile(
    rf"(?i)(?<![\w.:/$£€-])(?<![$£€] )(?:from\s+|at\s+|@\s*)?({_CLOCK}(?:\s?(?:[-–—]|to|until)\s?{_CLOCK})?)"
    r"(?![\w/%€]|[:.]\d|\s?(?:€|%|k?m\b|cm\b|kg\b|euros?\b|dollars?\b|pounds?\b|per\b))"
)
"""A time among words; figures with a unit or a currency are none."""
_CLEAR: Final = re.compile(r"(?i)\d[.:h]\d\d|\d\s?[ap]\.?m\b|noon|midday|midnight|\d\s?[-–—]\s?\d")
_LEADING: Final = re.compile(rf"(?i)^({_CLOCK}(?:\s?(?:[-–—]|to|until)\s?{_CLOCK})?)(?=[\s:,–—-])")
_PARTED: Final = re.compile(r"\s*[,;|\t]\s*|\s+[–—-]\s+")
_PLACE_AFTER: Final = re.compile(r"^(?P<title>.*\S)\s+(?:@\s*|(?:at|in)\s+(?=the\s|[A-Z0-9]))(?P<place>.+)$")
_LEAST_WORDS: Final = 7
"""Words from which on a line that ends as a sentence does is one."""
_LENGTH: Final = re.compile(
    r"(?i)\(?\b\d{1,2}\s?(?:h(?:rs?|ours?)?\s?(?:\d{1,2}\s?(?:m(?:ins?)?)?)?|min(?:ute)?s?)\b(?![\w-])\)?"
)
"""How long something lasts, beside its time."""
_IN_BRACKETS: Final = re.compile(r"^(?P<title>.*\S)\s*\((?P<place>[^()]+)\)$")
_DAY_OF_MONTH: Final = re.compile(
    r"^(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})(?:st|nd|rd|th|\.)?(?=[\s:,–—-]|$)(?![.:]\d)",
    re.IGNORECASE,
)


class TextLine(NamedTuple):
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


def is_like_a_date(text: str, lexicon: Lexicon) -> bool:
    """Whether a number stands beside the name of a month."""
    if keeps_books(text):
        return False
    words = [fold(word).strip(".,;:()") for word in text.split()]
    return any(
        (a in lexicon.months and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", b))
        or (b in lexicon.months and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", a))
        for a, b in pairwise(words)
    )


def is_sentence(line: TextLine) -> bool:
    """Whether a line is prose, and no entry of a list."""
    return (
        not line.is_bullet
        and len(line.text.split()) >= _LEAST_WORDS
        and line.text.rstrip().endswith((".", "!", "?"))
    )


def paragraphs_of(lines: Sequence[tuple[int, str]]) -> Iterator[list[tuple[int, str]]]:
    current: list[tuple[int, str]] = []
    for number, text in lines:
        if text.strip():
            current.append((number, text))
        elif current:
            yield current
            current = []
    if current:
        yield current


def text_line(number: int, text: str, lexicon: Lexicon) -> TextLine:
    is_bullet = BULLET.match(text) is not None
    plain = " ".join(MARKS.sub("", BULLET.sub("", text)).split())
    leading = _LEADING.match(plain)
    if leading and _reads_as_time(leading[1]):  # 10.00 Welcome: no 10th of anything
        return TextLine(number, plain, "", leading[1], plain[leading.end() :].strip(" :,–—-"), is_bullet)
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
        time, rest = time_in(plain)
        return TextLine(number, plain, "", time, rest, is_bullet)
    before, _, after = found.rest.replace("·", "").partition("\0")
    rest = ", ".join(part for part in (before.strip(" ,;:()–—-"), after.strip(" ,;:–—-")) if part)
    time, rest = time_in(rest)
    has_time = found.moment.start is not None
    return TextLine(
        number, plain, found.text, "" if has_time else time, rest.strip(" ,;:–—-"), is_bullet, has_time
    )


def _reads_as_time(text: str) -> bool:
    times = read_times(text)
    return bool(_CLEAR.search(text)) and isinstance(times, Times) and times.start is not None


def time_in(text: str) -> tuple[str, str]:
    """The first time that a text says, and the text without it."""
    for match in _TIME.finditer(text):
        if _reads_as_time(match[1].strip()):
            before, after = text[: match.start()].rstrip(" ,;:–—-("), text[match.end() :].lstrip(" ,;:–—-)")
            return match[1].strip(), ", ".join(part for part in (before, after) if part)
    return "", text


def month_alone(text: str, lexicon: Lexicon) -> str | None:
    """A line that names a month, with a year or without, and nothing else."""
    match = re.fullmatch(r"([^\W\d]+)\s*(\d{4})?:?", text.strip())
    return f"{match[1]} {match[2] or ''}".strip() if match and fold(match[1]) in lexicon.months else None


def in_month(line: TextLine, month: str, lexicon: Lexicon) -> TextLine | None:
    """A line that begins with a day of the month above it."""
    match = _DAY_OF_MONTH.match(line.text)
    if match is None or not 1 <= int(match["day"]) <= 31:
        return None
    if match["weekday"] and fold(match["weekday"]) not in lexicon.weekdays:
        return None
    time, rest = time_in(line.text[match.end() :].strip(" :,–—-"))
    return line._replace(
        date=f"{match['weekday'] or ''} {match['day']} {month}".strip(), time=time, rest=rest
    )


def row_of(line: TextLine, date: str) -> Row:
    """A line as a row: its title, and what stands in brackets, after a comma or after `at` is the place."""
    text, place, notes, length = line.rest, "", "", ""
    if line.time and (said := _LENGTH.search(text)) is not None:
        text, length = f"{text[: said.start()]} {text[said.end() :]}".strip(), said[0].strip("() ")
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
    return line.number, (date, line.time, title.strip(" :"), place.strip(), notes, length)


_REPEATS: Final = re.compile(
    r"(?i)^\W*(?:every|each|weekly|fortnightly|monthly|daily|alternate|chaque|tous les|jede[nrs]?|cada|elke)\b"
)
_REPEATED: Final = Refusal(
    "text-repeats", "The line says that it is held again and again, which a line of text cannot say here.",
    "Put it into a table with a column Repeat (“every Tuesday until 15 December”), or write each date.",
)  # fmt: skip
_SEVERAL: Final = Refusal(
    "text-several", "The line says more than one date or time.", "Write each event on a line of its own."
)


def doubt_of(line: TextLine, lexicon: Lexicon) -> Refusal | None:
    """Why a line with a date or a time is no one event: it repeats, or says another day or time. None when nothing tells."""
    words = [fold(word).strip(".,;:()&") for word in line.text.split()]
    if _REPEATS.match(line.text) or (
        words and words[0] not in lexicon.weekdays and words[0].removesuffix("s") in lexicon.weekdays
    ):
        return _REPEATED
    rest = [fold(word).strip(".,;:()") for word in line.rest.split()]
    if line.date and any(
        a in lexicon.weekdays and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", b) for a, b in pairwise(rest)
    ):
        return _SEVERAL
    if line.date and re.search(r"^\W*(?:&|and\b|\+)|(?:&|\band|\+)\W*$", line.rest):
        return _SEVERAL
    if line.time and any(_reads_as_time(match[1].strip()) for match in _TIME.finditer(line.rest)):
        return _SEVERAL
    return None
