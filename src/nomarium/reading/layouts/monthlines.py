"""Lines of text under a month: `September 2026` over `Sat 5 Regatta`, `23 Wed–25 Fri Camp`, `w/c 18 Mock exams`."""

import re
from typing import Final

from nomarium.model.wording import MONTHS
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.lineforms import clocked
from nomarium.reading.layouts.linetimes import EDGES, time_in
from nomarium.reading.layouts.textlines import TextLine

_DAY_OF_MONTH: Final = re.compile(
    r"^(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})(?:(?:st|nd|rd|th)?\s*[-–]\s*(?P<last>\d{1,2})(?![.:]\d))?(?:st|nd|rd|th|er|\.)?(?=[\s:,–—-]|$)(?![.:]\d)(?:\s*\((?P<behind>[^\W\d]+)\.?\))?",
    re.IGNORECASE,
)
_LATER_DAY: Final = re.compile(
    r"(?i)(?:(?P<weekday>[^\W\d_]{2,9})\.?,?\s+)?(?P<day>\d{1,2})(?P<ending>st|nd|rd|th)?(?=[\s:,–—-]+[^\W\d_])"
)
_DAY_THEN_WORD: Final = re.compile(r"\b(\d{1,2})(?:st|nd|rd|th)?\s+([^\W\d]{2,})\b\.?")
_TO_WEEKDAY: Final = re.compile(
    r"(?i)(?P<from>(?:from|du|vom|von|dal|del)\s+)?(?P<first>(?:[^\W\d]+[.,]?\s+)?\d{1,2})(?:st|nd|rd|th)?"
    r"\s*(?:[-–—]|\b(?:to|till?|until|au|bis(?:\s+zum)?|al|tot)\b)\s*(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?=\d{1,2}(?:st|nd|rd|th)?\b)"
)
_INTO_NEXT: Final = re.compile(
    r"^(?:(?P<weekday>[^\W\d]+)[.,]?\s+)?(?P<day>\d{1,2})\s*(?:[-–—]|to|until|till)\s*(?P<last>[^\W\d]{3,}\.?\s+\d{1,2}|\d{1,2}\s+[^\W\d]{3,})\b(?![.:]\d)(?!,?\s*(?:19|20)\d\d\b)"
)
"""From a day of the month above to one of the next: `21–Jan 1`, `28 – 1 Nov`."""
_NAMED_MONTH: Final = re.compile(r"(?:[^\W\d_]{2,}\s+){1,3}([^\W\d_]{4,})")
_ALSO_WORDS: Final = frozenset(("march", "marsch", "mark"))
"""Months, or their beginnings, that are other words as often."""
_FOUR_FIRST: Final = re.compile(r"^(0\d|1[0-8]|2[1-3])([0-5]\d)(?=\s+(?:\|\s+)?[^\W\d])")
"""Hours of four figures right behind a day, and what is on: `7th 0900 Crane`; 1960 and 2027 are years."""
SENT: Final = "\0"
"""Stands for the month of a message."""
_WEEK_BEFORE: Final = re.compile(
    r"(?i)(?:w\s?/?\s?[cb]|week\s+(?:commencing|beginning|of))\b\.?:?\s+(?=(?:[^\W\d]+\.?\s+)?\d{1,2}\b)"
)
"""What makes a day the first of its week."""


def month_in(text: str, lexicon: Lexicon) -> str | None:
    """The month that a title ends with, `Rota for November 2026`, also without its year, `Calendrier décembre`."""
    match = re.search(r"([^\W\d]+)\s+(\d{4})\W*$", text)
    if match and fold(match[1]) in lexicon.months:
        return f"{match[1]} {match[2]}"
    named = _NAMED_MONTH.fullmatch(text.strip(" :"))
    is_month = named is not None and fold(named[1]) in lexicon.months and fold(named[1]) not in _ALSO_WORDS
    return named[1] if named is not None and is_month else None


def month_alone(text: str, lexicon: Lexicon) -> str | None:
    """A line that names a month, with a year or without, and nothing else."""
    match = re.fullmatch(r"([^\W\d]+)\s*(\d{4})?:?", text.strip())
    return f"{match[1]} {match[2] or ''}".strip() if match and fold(match[1]) in lexicon.months else None


def month_of(date: str, lexicon: Lexicon) -> str | None:
    """The month of a date in words, `March 2027` of `Sunday 7 March 2027`; None where it names none, or several."""
    words = re.findall(r"[^\W\d_]+", date)
    months = [word for word in words if fold(word) in lexicon.months]
    year = re.search(r"\b(?:19|20)\d\d\b", date)
    return " ".join((months[0], *([year[0]] if year else []))) if len(months) == 1 else None


def goes_into_next(line: TextLine, lexicon: Lexicon) -> bool:
    """Whether a line begins with days of the month above it and of the next."""
    return _crossing(line.text, lexicon) is not None


def _crossing(text: str, lexicon: Lexicon) -> re.Match[str] | None:
    """The days of a month and the next with which a text begins, `28 – 1 Nov`; `Mon 5 – Fri 9 October` and `10–12 March` are of
    one."""
    match = _INTO_NEXT.match(text)
    if match is None or (match["weekday"] and fold(match["weekday"]) not in lexicon.weekdays):
        return None
    last = re.match(r"\d+", match["last"])
    if last is not None and int(match["day"]) < int(last[0]):
        return None
    names = {fold(word).strip(".") for word in re.findall(r"[^\W\d]+\.?", match["last"])}
    return match if names <= lexicon.months.keys() else None


def runs_on(line: TextLine, above: TextLine, lexicon: Lexicon) -> TextLine | None:
    """A line that begins with a later day of the month of the line above it, with its ending or its weekday: `8th – Trials`,
    `Sun 8 Trials` under `1st Nov – Opening`. None for any other."""
    begins = _LATER_DAY.match(line.text)
    day = re.search(r"\d{1,2}", above.date)
    month = month_of(above.date, lexicon)
    if line.date or begins is None or day is None or month is None:
        return None
    if re.match(rf"\D{{0,12}}{day[0]}(?!\d)", above.text) is None:
        return None  # the line above does not begin with its day
    is_weekday = begins["weekday"] is not None and fold(begins["weekday"]) in lexicon.weekdays
    if not (is_weekday or (begins["ending"] and not begins["weekday"])) or int(begins["day"]) <= int(day[0]):
        return None
    return in_month(line, month, lexicon)


def _weekdays_first(text: str, lexicon: Lexicon) -> str:
    """A line that begins with a day and then its weekday, with these turned: `23 Wed–25 Fri Camp`, `3 Thu – Staff only`."""

    def turned(match: re.Match[str]) -> str:
        return f"{match[2]} {match[1]}" if fold(match[2]) in lexicon.weekdays else match[0]

    return _DAY_THEN_WORD.sub(turned, text, count=2) if _DAY_THEN_WORD.match(text) else text


def _with_day_whole(text: str) -> str:
    """A line whose day and its weekday stand in columns of their own, with these as one: `Mon | 5 | Trials`."""
    text = re.sub(r"^([^\W\d_]{2,10}\.?) \| (?=\d{1,2}\b)", r"\1 ", text)
    return re.sub(r"^(\d{1,2}) \| (?=[^\W\d_]{2,10}\.?(?: \||$))", r"\1 ", text)


def _without_second_weekday(text: str, lexicon: Lexicon) -> str:
    """A line whose range of days says the weekday of the last one, too, or *from*, without that: `Mon 19 to Fri 23 Reading week`."""
    match = _TO_WEEKDAY.match(text)
    if match is None or not (match["from"] or match["weekday"]):
        return text
    is_weekday = match["weekday"] is None or fold(match["weekday"]) in lexicon.weekdays
    return f"{match['first']}-{text[match.end() :]}" if is_weekday else text


def month_after(month: str, lexicon: Lexicon) -> str:
    """The month after one that a line names, `January 2027` after `December 2026`."""
    name, *year = month.split()
    number = lexicon.months[fold(name).strip(".")] % 12
    years = [str(int(one) + (number == 0)) if one.isdecimal() else one for one in year]
    return " ".join((MONTHS[number], *years))


def in_month(line: TextLine, month: str, lexicon: Lexicon, needs_weekday: bool = False) -> TextLine | None:
    """A line that begins with a day of the month above it; with its weekday, where nothing less tells."""
    whole = _with_day_whole(line.parted or line.text)
    if (crossing := _crossing(whole, lexicon)) is not None:
        time, rest = time_in(clocked(whole[crossing.end() :].strip(EDGES), lexicon))
        return line._replace(date=f"{crossing['day']} {month} – {crossing['last']}", time=time, rest=rest)
    week = _WEEK_BEFORE.match(whole)
    text = whole[week.end() :] if week is not None else whole
    text = _without_second_weekday(_weekdays_first(text, lexicon), lexicon)
    match = _DAY_OF_MONTH.match(text)
    if (
        match is None
        or not 1 <= int(match["day"]) <= 31
        or (needs_weekday and not (match["weekday"] or match["behind"]))
    ):
        return None
    end = match.end()
    weekday = match["weekday"] or match["behind"] or ""
    if weekday and fold(weekday) not in lexicon.weekdays:
        if match["weekday"]:
            return None
        weekday, end = "", match.start("behind") - 1
    time, rest = time_in(clocked(_FOUR_FIRST.sub(r"\1:\2", text[end:].strip(EDGES)), lexicon))
    date = f"{weekday} {match['day']}{'-' + match['last'] if match['last'] else ''} {month}"
    if match["last"] and weekday:
        date = f"{weekday} {match['day']} {month} – {match['last']} {month}"
    if match["last"] and int(match["last"]) < int(match["day"]):
        date = f"{weekday} {match['day']} {month} – {match['last']} {month_after(month, lexicon)}"
    return line._replace(
        date=" ".join(f"{'w/c ' if week is not None else ''}{date}".split()),
        time=time,
        rest=rest,
    )


def after_message(date: str, sent: str) -> str:
    """A date without a month, in that of a message or, where its day was over when that was sent, in the next one."""
    day, month, year = sent.split()
    at = MONTHS.index(month) + (int(re.findall(r"\d+", date)[0]) < int(day))
    return date.replace(SENT, f"{MONTHS[at % 12]} {int(year) + at // 12}")
