"""What people write around a date that is none of it: a star for a note below, the week, from when it was moved, how many days it makes."""

import re
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day

AROUND: Final = "*"
"""What stands around a date that has a note below."""
_REMARK: Final = (
    r"(?i)\s*(?:\([^()\d]{2,60}\)|[*†‡#]+|\[\d{1,2}\]|\((?:wk|week|day|note|see|no\.?|lesson|session|term)\s?\d{1,2}\)|"
    r"\((?:was|originally|(?:moved|changed|postponed|brought forward|re-?scheduled) from)\b[^()]{2,40}\))$"
)
_OFTEN: Final = r"(?i)\b(?:yearly|annual(?:ly)?|monthly|weekly|fortnightly|bi-?weekly|daily|every|each|recurring|repeats?|jährlich|monatlich|wöchentlich|annuel\w*|mensuel\w*|hebdomadaire)\b"
"""Words of how often something is held, which is no remark."""
_COUNT_OF_DAYS: Final = r"(?i)\s*\((?P<days>\d{1,2}) (?:days|tage|jours|d[ií]as|dagen)\)$"
_CUT_YEAR: Final = r"(?:19|20)\d"


def without_remark(text: str) -> str | None:
    """A text without the remark at its end, in brackets, as a star or the number of a note; None without one.

    >>> [without_remark(text) for text in ("6 Oct (wk 5)", "6 Oct*", "6 Oct (moved from 5 Oct)", "6 Oct (moved to 8 Oct)")]
    ['6 Oct', '6 Oct', '6 Oct', None]
    """
    remark = re.search(_REMARK, text)
    if remark is None or says_how_often(remark[0]):
        return None  # 13 Oct 2026 (yearly)
    return text[: remark.start()]


_FROM: Final = r"(?i)(?:from|desde|vanaf)\b"


def opens_range(text: str) -> bool:
    """Whether a date stands behind a word for *from*: it is the first day of some."""
    return text[:1] in "fFdDvV" and re.match(_FROM, text) is not None


def says_called_off(remark: str) -> bool:
    """Whether a remark behind a date says that what is on is cancelled."""
    from nomarium.reading.cells.choices import says_cancelled  # seldom needed

    return says_cancelled(remark)


def says_how_often(text: str) -> bool:
    """Whether what stands behind a date says how often something is held, `(yearly)`."""
    return re.search(_OFTEN, text) is not None


def rest_refused(rest: str, remedy: str) -> Refusal:
    """Why a date with this behind it cannot be read; `remedy` is that of a time which is none."""
    if says_how_often(rest):
        message = f"“{rest}” says how often the row is held, and a date is one day."
        return Refusal("date-rest", message, "Write how often into a column “Repeat”, or take it out.")
    return Refusal("date-rest", f"“{rest}” after the date is not a time.", remedy)


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
