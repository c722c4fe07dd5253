"""Days as people write them. What one cell leaves open (which figure is the month, which year) is
kept open here, as readings, for the whole column to settle (`evidence`)."""

import datetime as dt
import re
from functools import cache
from typing import Final, NamedTuple

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.datetokens import OF_NUMBERS, Token, tokens_of
from nomarium.reading.cells.fourfigures import ends_in_hour
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.options import Order


class DayReading(NamedTuple):
    """One way to read a day. A valid date once its year is known."""

    order: Order
    """The order of figures that it supposes; "" when it supposes none."""
    year: int | None
    month: int
    day: int

    def date(self, year: int | None = None) -> dt.date | None:
        """The date, in `year` when the text has none; None when that year has no such day."""
        try:
            return dt.date(self.year or year or 0, self.month, self.day)
        except ValueError:
            return None


class Day(NamedTuple):
    """A day as written: every reading that the text allows by itself, and the weekday it names."""

    readings: tuple[DayReading, ...]
    weekday: int | None = None
    """0 is Monday."""
    has_short_year: bool = False
    """Whether its year has two figures, which could be an hour as well."""
    may_be_hour: bool = False
    """Whether its year has figures that could be an hour as well: two of them, or `12 September 2015`."""


class Days(NamedTuple):
    """One day, or a range of days, both ends inclusive, and what follows them in the cell."""

    first: Day
    last: Day | None = None
    rest: str = ""


_FORMS: Final = "Write the date like 2027-04-12 or 12 April 2027."

# the shape of a text is the kinds of its tokens, one character each
_W = r"(?:W[.,]*|\(W\)[.,]*)?"
_HOURS = r"[-/](?!W|no?[./-]?M|no?[./]n[./])"
"""What follows the first hour of a time range (5 Sept 10-12.30, 10-noon) and no year: it begins no date."""
_YEAR = rf"(?:y(?!:)|n(?![o:.hp]|[.]?[-/ ]?[M~]|{_HOURS}))?"
_WORDED = rf"no?[./-]?M[.]?[,./-]*{_YEAR}"
_HYPHENED = r"n(?P<hyphen{0}>[-/])M[.]?(?P=hyphen{0})n(?![:])"
"""A day, a month and two figures parted alike, `4-Nov-26`: they are a year, whatever follows."""
_MONTH_FIRST = rf"M[.]?[-/]?no?,?[-/,]*{_YEAR}"
_YEAR_FIRST = r"y[-/., ]?M[.]?[-/.,]?no?|y[.]?n[.]?M|y(?P<ysep{0}>[-/.,]?)n(?P=ysep{0})n|N"
_FIGURES = r"n(?P<sep{0}>[-/.,]?)n(?P=sep{0})[y]|n(?P<two{0}>[-/.])n(?P=two{0})n(?![:hp])"
_SHORT = r"n(?:/n(?!/)|[.]n[.]|[.]n(?![n.:p]))"


def _day_pattern(number: int) -> str:
    kinds = (_YEAR_FIRST, _FIGURES, _HYPHENED, _WORDED, _MONTH_FIRST, _SHORT)
    body = "|".join(kind.format(number) if "{0}" in kind else kind for kind in kinds)
    return rf"{_W}(?P<day{number}>{body})(?:[.]?,?\(?W[.]?\)?(?![o]))?"


_ONE = _day_pattern(1)
_RANGE = rf"{_day_pattern(1)}[~-]{_day_pattern(2)}"
_HEAD_RANGE = rf"{_W}(?P<head>no?[.]?)[~-](?!M){_day_pattern(2)}"
_TAIL_RANGE = rf"{_W}(?P<day1>M[.]?no?|no?[.]?M[.]?|n/n)[~-]{_W}(?P<tail>no?)(?![:n/M.])[,]*(?P<year>y)?"
_TWO_DAYS = rf"{_W}(?:no?[,&+])+no?M"

_LATE, _EARLY = 22, 9
"""Days of a month from which on, and until which, a range that names its last month only may be of two of them."""
_compiled = cache(re.compile)
"""Patterns are compiled when first needed: ISO dates need none of them, and they are slow to compile."""


def read_days(text: str, lexicon: Lexicon) -> Days | Refusal:
    """One day or a range at the start of a text; what follows it is `rest`.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> days = read_days("28 Oct – 3 Nov 2027", ENGLISH)
    >>> days.first.readings[0].date(), days.last.readings[0].date()
    (datetime.date(2027, 10, 28), datetime.date(2027, 11, 3))
    """
    tokens = tokens_of(text, lexicon)
    shape = "".join(token.kind for token in tokens)
    days = _match(tokens, shape, text) if shape[:1] in "nyNMW(" else None
    if days is None and "~" in shape:  # a long dash may part figures too: 12–4–2027
        days = _match(tokens, shape.replace("~", "-"), text)
    if days is not None:
        return days
    return _why_not(text, tokens, shape)


_INCLUSIVE: Final = frozenset(
    "inc incl inclusive inclusively inklusive inkl einschliesslich einschl inclus incluse compris incluso inclusief".split()
)
"""What people write behind the last of some days, which is one of them anyway."""


_STOPPED_DAY: Final = r"\d{1,2}\.(?:0?[1-9]|1[0-2])\."


def is_stopped_day(text: str) -> bool:
    """Whether a text is a day and its month, each with a full stop, and so no time.

    >>> is_stopped_day("05.10."), is_stopped_day("9.30."), is_stopped_day("5.10")
    (True, False, False)
    """
    return text[-1:] == "." and re.fullmatch(_STOPPED_DAY, text) is not None


def figures_day(a: int, b: int, year: int) -> Day:
    """The day of `a/b/year`, whichever of the first two is the month. It may have no reading at all.

    >>> [one.order for one in figures_day(5, 4, 2027).readings]
    ['dmy', 'mdy']
    """
    return Day(_valid((DayReading("dmy", year, b, a), DayReading("mdy", year, a, b))))


def _match(tokens: list[Token], shape: str, text: str) -> Days | None:
    for pattern in (_RANGE, _HEAD_RANGE, _TAIL_RANGE, _ONE):
        match = _compiled(pattern).match(shape)
        if match is None:
            continue
        days = _build(pattern, match, tokens)
        if days is not None:
            end = tokens[match.end() - 1].end
            rest = text[end:].strip(" \t,;")
            first, _, others = rest.partition(" ")  # 10 września 2026 r. godz. 16
            is_day = days.first.readings[0].year is not None or any(
                map(str.isalpha, text[:end])
            )  # and no 3.2 m
            is_told = (
                not first or (is_day and fold(first) in OF_NUMBERS) or fold(first).strip("().,") in _INCLUSIVE
            )
            return days._replace(rest=others.strip(" \t,;") if is_told else rest)
    return None


def _build(pattern: str, match: re.Match[str], tokens: list[Token]) -> Days | None:
    if pattern is _HEAD_RANGE:
        last = _day(tokens, match, "day2")
        number = tokens[match.start("head")].value
        is_dotted = any(token.kind == "." for token in tokens[match.start("day2") : match.end("day2")])
        readings = tuple(
            one._replace(day=number)
            for one in last.readings
            if number <= one.day and not (is_dotted and one.order == "mdy")  # 10-12.30 is a time
        )
        if not readings and any(token.kind == "M" for token in tokens[: match.end()]):
            readings = tuple(filter(None, (_in_month_before(one, number) for one in last.readings)))
        first = Day(_valid(readings), _weekday(tokens, match.start(), match.start("head")))
        return Days(first, last) if first.readings else None
    first = _day(tokens, match, "day1")
    if pattern is _TAIL_RANGE:
        number = tokens[match.start("tail")].value
        if any(
            one.order == "dmy" for one in first.readings
        ):  # 5/9-10 may be the 5th, from ten on; 9/26-27 is days
            return None
        year = _year(tokens[match.start("year")]) if match["year"] else None
        ends = tuple(one._replace(day=number, year=year) for one in first.readings if number >= one.day)
        starts = tuple(one._replace(year=year) for one in first.readings)
        last = Day(_valid(ends), _weekday(tokens, match.end("day1"), match.start("tail")))
        return Days(Day(_valid(starts), first.weekday), last) if last.readings else None
    if pattern is _ONE:
        return Days(first) if first.readings else None
    last = _day(tokens, match, "day2")
    if not first.readings or not last.readings:
        return None
    first, last = _with_shared_year(first, last)
    return Days(first, last) if first.readings and last.readings else None


def _in_month_before(last: DayReading, number: int) -> DayReading | None:
    """The day of the month before with which a week or two begin that end on another, `28–2 Oct`; None for longer ones."""
    if number <= last.day or number < _LATE or last.day > _EARLY:
        return None
    year = last.year - 1 if last.year is not None and last.month == 1 else last.year
    return last._replace(year=year, month=(last.month - 2) % 12 + 1, day=number)


def _with_shared_year(first: Day, last: Day) -> tuple[Day, Day]:
    """A range's year said once holds for both ends, which are in one order of figures; over New Year the other end is in the
    next one: `30.11. - 2.12.2026` is three days."""
    first, last = _in_order_of(first, last), _in_order_of(last, first)
    if not first.readings or not last.readings:
        return first, last
    if first.readings[0].year is None and (year := last.readings[0].year) is not None:
        readings = tuple(
            one._replace(
                year=year if any(_of_year(one) <= _of_year(end) for end in _in_order(last, one)) else year - 1
            )
            for one in first.readings
        )
        return first._replace(readings=_valid(readings)), last
    if last.readings[0].year is None and (year := first.readings[0].year) is not None:
        readings = tuple(
            one._replace(
                year=year
                if any(_of_year(one) >= _of_year(start) for start in _in_order(first, one))
                else year + 1
            )
            for one in last.readings
        )
        return first, last._replace(readings=_valid(readings))
    return first, last


def _of_year(day: DayReading) -> tuple[int, int]:
    return day.month, day.day


def _in_order(day: Day, other: DayReading) -> tuple[DayReading, ...]:
    """The readings of a day that go with one of another."""
    return tuple(one for one in day.readings if one.order == other.order or not (one.order and other.order))


def _in_order_of(day: Day, other: Day) -> Day:
    """A day with the readings that go with some of another."""
    return day._replace(readings=tuple(one for one in day.readings if _in_order(other, one)))


def _day(tokens: list[Token], match: re.Match[str], group: str) -> Day:
    start, end = match.span(group)
    body = tokens[start:end]
    numbers = [token for token in body if token.kind in "nyN"]
    months = [token for token in body if token.kind == "M"]
    before = match.start() if group == "day1" else start - 3
    weekday = _weekday(tokens, max(before, 0), start)
    if weekday is None:
        weekday = _weekday(tokens, end, min(end + 3, match.end()))
    short = len(numbers) > 1 and bool(months) and numbers[1].kind == "n" and len(numbers[1].text) == 2
    readings = _readings(numbers, months)
    if len(numbers) == 2 and not months and any(token.kind == "." for token in body):
        readings = tuple(one for one in readings if one.order != "mdy")  # 1.30 is a time, or no day
    return Day(
        readings,
        weekday,
        short,
        short or (bool(months) and ends_in_hour(*(token.text for token in body[-2:]))),
    )


def _readings(numbers: list[Token], months: list[Token]) -> tuple[DayReading, ...]:
    if numbers[0].kind == "N":
        value = numbers[0].value
        return _valid((DayReading("", value // 10_000, value // 100 % 100, value % 100),))
    if months:
        month = months[0].value
        if numbers[0].kind == "y" and len(numbers) > 1:
            return _valid((DayReading("", _year(numbers[0]), month, numbers[1].value),))
        if len(numbers) > 1 and len(numbers[1].text) == 1:  # 5 Sept 9: an hour as likely; never a year
            return ()
        year = _year(numbers[1]) if len(numbers) > 1 else None
        return _valid((DayReading("", year, month, numbers[0].value),))
    values = [number.value for number in numbers]
    if numbers[0].kind == "y":
        return _valid((DayReading("", values[0], values[1], values[2]),))
    year = _year(numbers[2]) if len(numbers) > 2 else None
    found = [DayReading("dmy", year, values[1], values[0]), DayReading("mdy", year, values[0], values[1])]
    if len(numbers) > 2 and len(numbers[2].text) == 1:  # 5/9/7: a slip more likely than a year
        found = []
    may_begin = len(numbers) > 2 and numbers[2].kind == "n" and (bool(found) or len(numbers[0].text) == 2)
    if may_begin:  # 27/04/12 may begin with the year
        found.append(DayReading("ymd", _year(numbers[0]), values[1], values[2]))
    return _valid(tuple(found))


def _year(token: Token) -> int:
    """A year as written; two figures mean 1970 to 2069."""
    if token.value >= 100 or len(token.text) > 2:
        return token.value
    return token.value + (2000 if token.value < 70 else 1900)


def _valid(readings: tuple[DayReading, ...]) -> tuple[DayReading, ...]:
    """The readings that some year has; a day that no year has is none."""
    return tuple(one for one in readings if one.date(2000) is not None)


def _possible(month: int, day: int) -> bool:
    return bool(_valid((DayReading("", None, month, day),)))


def _weekday(tokens: list[Token], start: int, end: int) -> int | None:
    return next((token.value for token in tokens[start:end] if token.kind == "W"), None)


def _why_not(text: str, tokens: list[Token], shape: str) -> Refusal:
    """Say what is wrong with a text that is no date."""
    plain = shape.replace("o", "").replace(",", "").replace(".", "")
    if _compiled(_TWO_DAYS).match(shape):
        return Refusal("date-several", f"“{text}” names several days.", "Give each day a row of its own.")
    if plain in ("My", "yM", "M"):
        return Refusal("date-no-day", f"“{text}” names a month but no day.", _FORMS)
    if plain == "W":
        return Refusal("date-weekday-only", f"“{text}” names a weekday but no date.", _FORMS)
    numbers = [token.value for token in tokens if token.kind in "nyN"]
    months = [token for token in tokens if token.kind == "M"]
    if months and len(numbers) > 1 and numbers[1] < 10 and _possible(months[0].value, numbers[0]):
        return Refusal(
            "date-year",
            f"“{text}” is not a date: “{numbers[1]}” is no year.",
            "Write a year in four figures (2027), and an hour like 9:00 or 9 am.",
        )
    if months and numbers and numbers[0] <= 99 and re.match(r"W?,*(nM|Mn)", plain):
        return Refusal("date-impossible", impossible(months[0].value, numbers), _FORMS)
    if re.match(r"W?,*n([-/.])n\1n$", shape) and len(tokens[-1].text) == 1:
        year = f"“{text}” is not a date: “{tokens[-1].text}” is no year."
        return Refusal("date-year", year, "Write the year in two or four figures.")
    if re.match(r"W?(n[-/]?n[-/]?[ny]|n,n,y|y[-/,]?n[-/,]?n|N)$", plain):
        return Refusal("date-impossible", f"There is no such date as {text}.", _FORMS)
    unknown = [token.text for token in tokens if token.kind == "x"]
    if unknown and (numbers or months):
        return Refusal(
            "date-word",
            f"“{text}” is not a date: “{unknown[0]}” is no month and no weekday.",
            _FORMS,
        )
    return Refusal("date-unread", f"“{text}” is not a date.", _FORMS, "unlike")


def impossible(month: int, numbers: list[int]) -> str:
    """Say why a day and a month's name make no date.

    >>> impossible(2, [30]), impossible(2, [29])
    ('There is no 30 February: it has 29 days at most.', 'There is no 29 February in that year, which is no leap year.')
    """
    import calendar  # for this message only

    longest = calendar.monthrange(2000, month)[1]
    day = f"There is no {numbers[0]} {calendar.month_name[month]}"
    if numbers[0] == longest:
        return f"{day} in that year, which is no leap year."
    return f"{day}: it has {longest} days at most."
