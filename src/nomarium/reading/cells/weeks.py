"""Weeks that are named by a date or by their number: `w/c 7 September`, `2026-W36`, `2026-W36-2` (ISO 8601)."""

import datetime as dt
import re
from typing import Final, Literal

WEEK_BEGINS = r"(?:wk|week)\.?\s+(?:beg(?:inning|ins?)?|comm?(?:encing|ences)?|start(?:ing|s)?)\b"
"""The words before the first day of a week, in full or as people shorten them, `wk beg`, `week comm`."""
WEEK: Final = (
    r"(?:wk|week|semaine|sem|woche|semana|settimana|veckan?|ugen?|uken?|viikko|vko|tydzie[nń]|t[yý]den)"
)
"""A week in the likely languages."""
WEEK_LEADS: Final = r"(?:of|from|du|des|vom|ab|van|de|del|dal|från|fra|od)"
"""What leads to the first day of one."""
_NAMED = (
    rf"(?i)(?:w\s?/?\s?[cb]|{WEEK_BEGINS}|{WEEK}\.?\s+{WEEK_LEADS})"
    r"\b\.?[\s:.–-]*(?P<date>\S.*)"
)
_BEGINNINGS: Final = ("w", "sem", "set", "vec", "vik", "vii", "vko", "uge", "uke", "tyd", "týd")
"""How names of weeks begin."""
_SHORT_BEGINNINGS: Final = ("kw", "cw", "v ", "v.", "cal", "kal")
"""How short ones do, and those of weeks of the calendar."""
_ENDED = r"(?i)(?:w(?:\s?/\s?|\s)e|(?:wk|week)\.?\s+(?:ending|ends|to))\b\.?[\s:.–-]*(?P<date>\S.*)"
_COUNTED = r"(?i)(?:week|wk|woche|semaine|sem|semana|settimana)\.?\s*(?P<week>\d{1,2})(?P<joint>\s*[,:;–—-]|\s)\s*(?P<date>\S.*\d.*|\d\s?[^\W\d_].*)"
_MAY_BE_YEAR = r"[^\W\d_]{3,}\.?,?\s[2-9]\d"
_NUMBERED = (
    r"(?P<year>\d{4})-?W(?P<week>\d{2})(?:-?(?P<day>[1-7]))?|"
    rf"(?:KW|CW|w|v|calendar week|kalenderwoche|{WEEK})\.?\s*(?P<of_year>\d{{1,2}})\s?(?:[/.,–-]\s?|\s)(?:de\s)?(?P<in_year>20\d\d)"
)
_WEEK_HEADING = (
    rf"\b(?:w ?[cb]|{WEEK_BEGINS}|week of|weeks? from|semaine du|woche (?:vom|ab|beginnend)|"
    r"week van|semana del|settimana del)\b"
)
"""What is in a heading, folded and without signs, whose dates begin weeks."""
_SIGNS = ("w c", "w b", "wc", "wb", "week", "woche", "semain", "seman", "settim", "wk", "w e")
"""One of them is in each such heading: the pattern is compiled when it is needed."""


def heads_weeks(heading: str) -> Literal["", "begins", "ends"]:
    """Whether the dates under a heading, folded and without signs, begin weeks, or end them.

    >>> heads_weeks("wk beg"), heads_weeks("week ending"), heads_weeks("date")
    ('begins', 'ends', '')
    """
    if not any(sign in heading for sign in _SIGNS):
        return ""
    if re.search(r"\b(?:week|wk) (?:ending|ends|to)\b|\bw e\b", heading):
        return "ends"
    return "begins" if re.search(_WEEK_HEADING, heading) else ""


def _may_name_week(text: str) -> bool:
    """Whether a text begins as one that names a week by a figure: few cells do, and the patterns are slow to compile."""
    return text[:3].casefold().startswith(_BEGINNINGS) and any(map(str.isdigit, text))


def date_of_week(text: str) -> str:
    """The date of a text that names a week by it; nothing for any other.

    >>> date_of_week("W/C: 7 Sept 2026"), date_of_week("week of 7/9"), date_of_week("Week 3")
    ('7 Sept 2026', '7/9', '')
    """
    match = re.fullmatch(_NAMED, text) if _may_name_week(text) else None
    return match["date"].strip() if match else ""


def date_of_counted_week(text: str) -> tuple[str, bool]:
    """The date behind the number of a week, and whether the number could be its day, and its day the year; nothing for any other.

    >>> date_of_counted_week("Week 1, September 29, 2026"), date_of_counted_week("Week 7 Sept 26"), date_of_counted_week("Week 3")
    (('September 29, 2026', False), ('Sept 26', True), ('', False))
    """
    match = re.fullmatch(_COUNTED, text) if _may_name_week(text) else None
    if match is None:
        return "", False
    is_open = match["joint"].isspace() and re.fullmatch(_MAY_BE_YEAR, match["date"]) is not None
    return match["date"], is_open


def date_of_week_end(text: str) -> str:
    """The date of a text that names a week by its last day; nothing for any other.

    >>> date_of_week_end("w/e 13 Nov"), date_of_week_end("week ending: 13/11"), date_of_week_end("w/c 9 Nov")
    ('13 Nov', '13/11', '')
    """
    match = re.fullmatch(_ENDED, text) if _may_name_week(text) else None
    return match["date"].strip() if match else ""


def is_numbered_week(text: str) -> bool:
    """Whether a text counts a week and says no more; when it is, another date says.

    >>> is_numbered_week("Week 2"), is_numbered_week("Wk 10"), is_numbered_week("Week B")
    (True, True, False)
    """
    return re.fullmatch(r"(?i)\s*(?:week|wk|w|woche|semaine|semana)\.?\s*\d{1,2}\s*", text) is not None


def numbered_week(text: str) -> tuple[dt.date, dt.date] | None:
    """The first and the last day of an ISO week, `KW 37/2026`, or its one day (ISO 8601, 5.2.3); None when the text is none.

    Raises ValueError for a week that its year does not have.
    """
    may_be = "W" in text[:6] or text[:3].casefold().startswith((*_BEGINNINGS, *_SHORT_BEGINNINGS))
    match = re.fullmatch(f"(?i){_NUMBERED}", text) if may_be and any(map(str.isdigit, text)) else None
    return None if match is None else _days_of(match)


def week_among_words(text: str) -> dt.date | None:
    """The Monday of the ISO week that a title ends with, `Menu KW 41/2026`; None where it says none.

    Raises ValueError for a week that its year does not have.
    """
    match = re.search(rf"(?i)(?:^|[\s,:(–-])(?:{_NUMBERED})\)?$", text.strip())
    return None if match is None or match["day"] else _days_of(match)[0]


def _days_of(match: re.Match[str]) -> tuple[dt.date, dt.date]:
    year, week = int(match["year"] or match["in_year"]), int(match["week"] or match["of_year"])
    if match["day"]:
        day = dt.date.fromisocalendar(year, week, int(match["day"]))
        return day, day
    return dt.date.fromisocalendar(year, week, 1), dt.date.fromisocalendar(year, week, 7)
