"""Hours of four figures with a word for hours behind them, `1930 hrs`: no year."""

import re
from typing import Final

FOUR: Final = r"(?:[01]\d|2[0-4])[0-5]\d"
_HOURS: Final = rf"(?i)(?<![\w.:/-])(?:({FOUR})(?:\s?h(?:ou)?rs?|\s?h)?(\s?(?:[-–—]|to|till?|until)\s?))?({FOUR})\s?(?:h(?:ou)?rs?|h)\b\.?"


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
