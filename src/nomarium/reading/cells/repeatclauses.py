"""What a phrase of repetition says besides how often: its times, the months in which it is held, its first and last day."""

import re
from calendar import monthrange
from typing import NamedTuple

from nomarium.model.wording import MONTHS
from nomarium.reading.cells.dates import Days, read_days
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import Lexicon, fold

_HOUR, _MERIDIEM = r"\d{1,2}(?:[:.h]\d{2}|\s?h(?!\w))?", r"\s?[ap]\.?m\.?"
_CLOCK = rf"(?:{_HOUR}{_MERIDIEM}|\d{{1,2}}[:.h]\d{{2}}|\d{{1,2}}\s?h(?:\s?\d{{2}})?(?![\w])|(?:12\s?)?(?:noon|midnight|midday))"
_DAY_IN_FIGURES = r"\d{1,2}\.(?:0?[1-9]|1[0-2])"
"""With a full stop behind it: the second of `12.12., 13.12.`, say."""
_TIMES = (
    rf"(?i)[\s,;(]*(?<![\w./:-])(?:(?:at|from|um|à|a las|om|@|de|von|alle|dalle|às|das|kl\.?|klo)\s+)?"
    rf"(?P<times>(?:{_HOUR}(?:{_MERIDIEM})?\s*(?:-|–|—|to|until|till|bis|à|a|tot)\s*{_CLOCK}|{_HOUR}{_MERIDIEM}\s*(?:-|–|—|to)\s*{_HOUR}(?=\s*(?:[,;)]|$))|(?:{_HOUR}\s*(?:-|–|—|bis|tot)\s*)?{_HOUR}(?=\s?(?:uhr|uur)\b)|{_CLOCK})"
    rf"|(?<=\bat )\d{{1,2}}(?=[\s,;)]|$))(?:\s?(?:uhr|uur|h))?(?![\w:]|[./]\d)\)?"
)
_BARE_HOURS = rf"(?i)(?<=[a-z.])[\s,;(]+(?:from\s+)?(?P<times>{_HOUR}\s*(?:-|–|—|to)\s*{_HOUR})\)?(?=\s*(?:[,;)]|$)|\s+(?:from|starting|beginning|until|till)\b)"
"""Hours without minutes or a half of the day, `Mondays 7-9, 14 Sept - 5 Oct`: behind a word that says which days, and before
no month."""
_OF_DAYS = r"(?i)\b(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:days?|s)?\.?$|\b(?:daily|weekdays|weekends|week|day|month)$"
_DASH = r"\s*(?:-|–|—|to|until|till|through|bis|à|au|a|tot)\s*"
_WORD = r"([^\W\d_]{3,}\.?)"
_NO_DAY = r"(?<!\d )(?<!\dst )(?<!\dnd )(?<!\drd )(?<!\dth )(?<! of )"
"""What does not stand before a month that is a whole one."""
_YEARED_MONTHS = (
    rf"(?i)[\s,;(]+(?:from\s+|in\s+|during\s+|en\s+|im\s+)?(?:(?P<first>[^\W\d_]{{3,}})\.?(?:\s+(?P<since>\d{{4}}))?{_DASH})?"
    rf"{_NO_DAY}(?P<last>[^\W\d_]{{3,}})\.?\s+(?P<until>(?:19|20)\d\d)\)?$"
)


class Months(NamedTuple):
    """The months in which something is held, from the first to the last."""

    first: int
    last: int
    left_out: frozenset[int] = frozenset()

    @property
    def held(self) -> tuple[int, ...]:
        """Their numbers, in the order of the calendar."""
        run = [(self.first - 1 + n) % 12 + 1 for n in range((self.last - self.first) % 12 + 1)]
        return tuple(sorted(month for month in run if month not in self.left_out))


def without_times(text: str) -> tuple[str, Times | None]:
    """A phrase without its times, and these.

    >>> from nomarium.model.wording import clock_text
    >>> text, times = without_times("Mondays 4pm-5pm, 7 Sept - 28 Sept 2026")
    >>> text, clock_text(times.start.secs)
    ('Mondays, 7 Sept - 28 Sept 2026', '16:00')
    """
    for match in re.finditer(_TIMES, text):
        times = read_times(match["times"])
        is_day = text[match.end("times") :].startswith(".") and re.fullmatch(
            _DAY_IN_FIGURES, match["times"].strip()
        )
        if isinstance(times, Times) and times.start is not None and not is_day:
            return f"{text[: match.start()]}{text[match.end() :]}".strip(" ,;"), times
    return _without_hours(text) if re.search(_BARE_HOURS, text) is not None else (text, None)


def _without_hours(text: str) -> tuple[str, Times | None]:
    """A phrase without the bare hours behind its weekdays, and these."""
    for match in re.finditer(_BARE_HOURS, text):
        times = (
            read_times(match["times"]) if re.search(_OF_DAYS, text[: match.start()].strip(" ,;(")) else None
        )
        if isinstance(times, Times) and times.start is not None and times.end is not None:
            return f"{text[: match.start()]} {text[match.end() :]}".strip(" ,;"), times
    return text, None


def without_months(text: str, lexicon: Lexicon) -> tuple[str, Months | None]:
    """A phrase without the months from which to which it is held, and these.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> without_months("2nd Tuesday of the month, Sept–May", ENGLISH)
    ('2nd Tuesday of the month', Months(first=9, last=5, left_out=frozenset()))
    """
    for match in re.finditer(
        rf"(?i)[\s,;(]*{_NO_DAY}(?<!\w)(?:from\s+|in\s+)?{_WORD}{_DASH}{_WORD}(?!\s*\d)\)?", text
    ):
        first, last = (lexicon.months.get(fold(word)) for word in match.groups())
        if first and last:
            return f"{text[: match.start()]}{text[match.end() :]}".strip(" ,;"), Months(first, last)
    return text, None


def months_as_days(text: str, lexicon: Lexicon) -> str:
    """A phrase whose months say their year, with their first and their last day.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> months_as_days("Tuesdays in November 2026", ENGLISH), months_as_days("Fridays, Sept 2026 - June 2027", ENGLISH)
    ('Tuesdays 1 November 2026 – 30 November 2026', 'Fridays 1 September 2026 – 30 June 2027')
    """
    match = re.search(_YEARED_MONTHS, text)
    if match is None:
        return text
    last = lexicon.months.get(fold(match["last"]))
    first = lexicon.months.get(fold(match["first"])) if match["first"] else last
    if not first or not last:
        return text
    end = int(match["until"])
    begin = int(match["since"]) if match["since"] else end - (first > last)
    days = f"1 {MONTHS[first - 1]} {begin} – {monthrange(end, last)[1]} {MONTHS[last - 1]} {end}"
    return f"{text[: match.start()]} {days}{text[match.end() :]}"


def months_alone(text: str, lexicon: Lexicon) -> frozenset[int]:
    """The months of a text that names some and nothing else."""
    words = [
        word for word in re.split(r"[\s,;&+/]+|\b(?:and|et|und|y|or|in)\b", text) if word and word.strip(")")
    ]
    found = [lexicon.months.get(fold(word.strip(")"))) for word in words]
    return frozenset(month for month in found if month) if found and all(found) else frozenset()


def without_range(text: str, lexicon: Lexicon) -> tuple[str, Days | None]:
    """A phrase without the first and the last day at its end, and these: `Tuesdays 8 Sept – 29 Sept`."""
    for match in re.finditer(r"[\s,;:(]*(?<!\w)(?=\d|(?P<month>[^\W\d_]{3,9})\.?\s\d)", text):
        if match["month"] and fold(match["month"]) not in lexicon.months:
            continue
        days = read_days(text[match.end() :].rstrip(")"), lexicon)
        if isinstance(days, Days) and days.last is not None and not days.rest and match.start():
            before = re.sub(r"(?i)\s+(?:from|between|du|vom|del?|van)$", "", text[: match.start()])
            return before.strip(" ,;("), days
    return text, None
