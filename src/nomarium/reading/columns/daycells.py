"""Whether a cell tells a day: a date, a week by its first one, or a day that is not settled yet."""

import re
from collections.abc import Iterable

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.weeks import date_of_week
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold

_DOTTED_HALF = (
    r"(?i)\s*\d{1,2}\.\d\d\s?(?:[ap]\.?m\.?\s?)?(?:[-–—]|to|until)\s?\d{1,2}(?:\.\d\d)?\s?[ap]\.?m\.?\s*"
)
"""A time to another one, with am or pm: no 15 March at 4.15."""
_LONGEST = 60
"""Characters of the longest text that is a date; a range of them may be twice as long."""
_TWO_LONG = r"(?i)[^\W\d]{0,9}\.?,? ?(?:the )?(?:\d|[^\W\d]{3,9}\.? \d).{0,50}? (?:[-–—]|to|until) [^\W\d]{0,9}\.?,? ?(?:the )?(?:\d|[^\W\d]{3,9}\.? \d)"
_DOTTED_SPAN = r"(\d{1,2})\.(\d\d)\s?(?:[-–—]|to|until)\s?(\d{1,2})\.(\d\d)"
_YEAR_AND_DAY = r"(?<!\d)(?:\d{1,2}\D+(?:19|20|25)\d\d|(?:19|20|25)\d\d\D+\d{1,2})(?!\d)"
_BEHIND_WORD = r"(?i)(?:from|due|by|on|until|till)\s+(\S.*)"
_NO_DAY_YET = frozenset(("tbc", "tba", "tbd", "?", "??", "n/a"))
_BEFORE_DAY = frozenset(
    "every each mid early late end beginning start of first second third fourth last in on by st nd rd th".split()
)


def looks_like_date(cell: Cell, lexicon: Lexicon = ENGLISH) -> bool:
    """Whether a cell by itself holds a day (a bare number does not)."""
    if isinstance(cell, (float, int)):
        return False
    if isinstance(cell, str):
        text = cell.strip()
        if not text or not any(mark.isdigit() for mark in text):
            return False
        if len(text) > _LONGEST and (len(text) > 2 * _LONGEST or re.match(_TWO_LONG, text) is None):
            return False
        if ":" in text and len(text) < 12 and not any(sign in text for sign in "/-"):
            return False  # a time alone, the commonest cell that is no date
        if "." in text and _is_dotted_span(text):
            return False
        moment = read_moment(text, "date", lexicon)
        return (
            not isinstance(moment, Refusal) and moment.first is not None and "week-span" not in moment.notes
        )
    moment = read_moment(cell, "either", lexicon)
    return not isinstance(moment, Refusal) and moment.first is not None


def tells_day(cell: Cell, lexicon: Lexicon) -> bool:
    """Whether a cell holds a day, of its own or behind a word: `w/c 24.5.27`, `from 7 September`. No heading does."""
    if looks_like_date(cell, lexicon) or may_be_date(cell) or begins_week(cell, lexicon):
        return True
    is_dated = isinstance(cell, str) and any(map(str.isdigit, cell))
    behind = re.fullmatch(_BEHIND_WORD, cell) if isinstance(cell, str) and is_dated else None
    return behind is not None and looks_like_date(behind[1], lexicon)


def lists_dates(cell: Cell, lexicon: Lexicon) -> bool:
    """Whether a cell holds several dates, `9 Sep, 7 Oct`."""
    pieces = re.split(r"[,;&+\n]", cell) if isinstance(cell, str) else []
    return len(pieces) > 1 and all(looks_like_date(piece, lexicon) for piece in pieces)


def _is_dotted_span(text: str) -> bool:
    """Whether a text is a time to another one, written with dots, and can be no date: `10.10-11.00`, `3.15 - 4pm`."""
    if text[-1] in "mM." and re.fullmatch(_DOTTED_HALF, text):
        return True
    match = re.fullmatch(_DOTTED_SPAN, text)
    if match is None:
        return False
    hours, minutes = {int(match[1]), int(match[3])}, {int(match[2]), int(match[4])}
    are_times = max(hours) < 25 and max(minutes) < 60
    return are_times and not all(1 <= number <= 12 for number in minutes)  # the 15th month, or none


def may_be_date(cell: Cell) -> bool:
    """Whether a cell has a day's number and a year among words of a language that is not known yet."""
    return isinstance(cell, str) and not cell.isascii() and re.search(_YEAR_AND_DAY, cell) is not None


def begins_week(cell: Cell, lexicon: Lexicon = ENGLISH) -> bool:
    """Whether a cell names a week by the date on which it begins, `w/c 7 September`."""
    text = cell.strip() if isinstance(cell, str) else ""
    date = date_of_week(text) if text else ""
    return bool(date) and looks_like_date(date, lexicon)


def names_day(cell: Cell, lexicon: Lexicon) -> bool:
    """Whether a cell tells a day that is in doubt, and no heading: `TBC`, `Friday`, `every Friday`, `mid May`, `30.2.2027`."""
    if not isinstance(cell, str):
        return False
    folded = fold(cell).strip()
    words = re.findall(r"[^\W\d_]+", folded)
    if folded in _NO_DAY_YET or re.fullmatch(r"\d{1,2}[./-]\d{1,2}[./-](?:\d\d){1,2}", cell.strip()):
        return True
    return (
        bool(words)
        and lexicon.knows(words[-1])
        and all(word in _BEFORE_DAY or lexicon.knows(word) for word in words)
    )


def about_days(cells: Iterable[Cell], lexicon: Lexicon = ENGLISH) -> list[int]:
    """About which days (ordinals) cells name, one for each that does: what is still open in them moves them little."""
    found = list[int]()
    for cell in cells:
        moment = read_moment(cell, "date", lexicon) if looks_like_date(cell, lexicon) else None
        if moment is None or isinstance(moment, Refusal) or moment.first is None:
            continue
        dates = (one.date(2001) if one.year is None else one.date() for one in moment.first.readings[:1])
        found += [date.toordinal() for date in dates if date is not None]
    return found
