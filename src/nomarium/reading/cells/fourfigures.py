"""Hours of four figures with a word for hours behind them, `1930 hrs`: no year."""

import re
from typing import Final

FOUR: Final = r"(?:[01]\d|2[0-4])[0-5]\d"
_HOURS: Final = rf"(?i)(?<![\w.:/-])(?:({FOUR})(?:\s?h(?:ou)?rs?|\s?h)?(\s?(?:[-–—]|to|till?|until)\s?))?({FOUR})\s?(?:h(?:ou)?rs?|h)\b\.?"

_FIRST_LIKELY_YEAR: Final = "1860"
_TIES: Final = frozenset("-/.")


def is_hour_apart(text: str, at: int, end: int) -> bool:
    """Whether the four figures of a text from `at` on stand apart and are an hour, and no year: so early a year is none of what is to
    come.

    >>> is_hour_apart("12 September 1830", 13, 17), is_hour_apart("12-09-1830", 6, 10), is_hour_apart("12 September 2030", 13, 17)
    (True, False, False)
    """
    return (
        text[at:end] < _FIRST_LIKELY_YEAR
        and re.fullmatch(FOUR, text[at:end]) is not None
        and text[at - 1 : at] not in _TIES
        and text[end : end + 1] not in _TIES
    )


def ends_in_hour(before: str, last: str) -> bool:
    """Whether the last part of a date whose month has a name is four figures that could be an hour, and the part before does not tie
    them to it."""
    return re.fullmatch(FOUR, last) is not None and before not in _TIES


def hours_with_colons(text: str) -> str:
    """A text whose hours of four figures have a colon.

    >>> hours_with_colons("1 Sept, 0815 hrs"), hours_with_colons("0900–1030h"), hours_with_colons("1 Sept 2026")
    ('1 Sept, 08:15', '09:00–10:30', '1 Sept 2026')
    """
    return re.sub(_HOURS, with_colons, text) if "h" in text.casefold() else text


def with_colons(match: re.Match[str]) -> str:
    """One or two hours, parted by what the second group of a match is, with colons."""
    first, joint, last = match.groups()
    return f"{first[:2]}:{first[2:]}{joint}{last[:2]}:{last[2:]}" if first else f"{last[:2]}:{last[2:]}"
