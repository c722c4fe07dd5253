"""What people write around a date that is none of it: a star for a note below, the week, from when it was moved, how many days it makes."""

import re
from typing import Final

from nomarium.reading.cells.dates import Day

AROUND: Final = "*"
"""What stands around a date that has a note below."""
_REMARK: Final = (
    r"(?i)\s*(?:\([^()\d]{2,60}\)|[*†‡#]+|\[\d{1,2}\]|\((?:wk|week|day|note|see|no\.?|lesson|session|term)\s?\d{1,2}\)|"
    r"\((?:was|originally|(?:moved|changed|postponed|brought forward|re-?scheduled) from)\b[^()]{2,40}\))$"
)
_COUNT_OF_DAYS: Final = r"(?i)\s*\((?P<days>\d{1,2}) (?:days|tage|jours|d[ií]as|dagen)\)$"
_CUT_YEAR: Final = r"(?:19|20)\d"


def without_remark(text: str) -> str | None:
    """A text without the remark at its end, in brackets, as a star or the number of a note; None without one.

    >>> [without_remark(text) for text in ("6 Oct (wk 5)", "6 Oct*", "6 Oct (moved from 5 Oct)", "6 Oct (moved to 8 Oct)")]
    ['6 Oct', '6 Oct', '6 Oct', None]
    """
    remark = re.search(_REMARK, text)
    return text[: remark.start()] if remark is not None else None


def without_count(text: str) -> tuple[str, int]:
    """A text without how many days it makes, and that, `6-8 Oct (3 days)`; 0 where it does not say it."""
    counted = re.search(_COUNT_OF_DAYS, text)
    return (text[: counted.start()], int(counted["days"])) if counted is not None else (text, 0)


def is_cut_year(text: str) -> bool:
    """Whether figures behind a date are a year that lacks one, which is a time of day as well: `6 Oct 206`."""
    return re.fullmatch(_CUT_YEAR, text) is not None


def days_between(first: Day | None, last: Day) -> int | None:
    """How many days a range has, by its first reading; None where that is open."""
    if first is None:
        return None
    begin, end = first.readings[0].date(2001), last.readings[0].date(2001)
    return (
        (end - begin).days + 1 if begin and end and first.readings[0].year == last.readings[0].year else None
    )
