"""Lines of text that a page was too narrow for: put together again where the next word would not have fitted."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.wording import GOES_ON_AS_NUMBER
from nomarium.sheets.pdftext import Line

_FARTHEST: Final = 1.7
"""Heights of a line from one line's top to the next within a paragraph."""
_INDENT: Final = 40.0
"""Points by which lines of one column may begin apart: those under a bullet stand to its right."""
_ENDS_OPEN: Final = r".*(?:[,;:(–—&/-]|\b(?:the|of|in|at|and|or|to|for|with|by|on|from|de|la|le|du|des|et|der|die|das|und|im|am|van|het|en|el|los|y))"
_ENTRY: Final = re.compile(
    r"(?i)\W|\d|(?:mon|tue|wed|thu|fri|sat|sun|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?\s+\d|[^.:]{2,30}:\s"
)
"""What an entry of a list begins with."""
_MONTH: Final = r"(?i)(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)\w*(?:\s+\d{4})?"
_LEAST_WIDE: Final = 50
"""Characters of an entry that may not have fitted."""
_MOST_LEFT: Final = 2
"""Words that are left of an entry."""
_ENDED: Final = r"[.!?:;]\W*$"
_HALF: Final = r"(?i)\d\s?[ap]\.m\.\W*$"
"""A time that ends as a sentence does."""
_LEAST_WORDS: Final = 5
_LEAST_TEXT: Final = 25
_FEWEST_WRAPPED: Final = 2
"""Lines of a column that go on with a small letter, from which on it is running text."""


def whole_lines(lines: Sequence[Line]) -> list[tuple[int, str]]:
    """The texts of a page with the number of their first line, from 1. A line goes on in the next where its column leaves no room
    for the next word, and either its end or that word shows that it does."""
    found: list[tuple[int, str]] = []
    for n, line in enumerate(lines):
        before = lines[n - 1] if n else None
        if before is not None and found and _goes_on(before, line, lines):
            number, text = found[-1]
            found[-1] = (
                number,
                f"{text.removesuffix('-') if text[-2:-1].isalpha() and text.endswith('-') and line.text[:1].islower() else text + ' '}{line.text}",
            )
        else:
            found.append((n + 1, line.text))
    return found


def _goes_on(before: Line, line: Line, lines: Sequence[Line]) -> bool:
    text, following = before.text, line.text
    if not 0 < line.top - before.top <= _FARTHEST * max(before.height, line.height):
        return False
    if len(before.pieces) > 1 or len(line.pieces) > 1 or abs(_left(line) - _left(before)) > _INDENT:
        return False
    is_number = re.match(GOES_ON_AS_NUMBER, following) is not None and (
        following.strip(".,;)").isdigit() or not _ENTRY.match(text)
    )
    goes_on = (
        is_number or following[:1].islower() or following[:1] in "(“\"'" or re.fullmatch(_ENDS_OPEN, text)
    )
    if not goes_on and not _is_of_prose(before, following, lines) and not _is_left_over(text, following):
        return False
    if following[:1].isdigit() and not is_number and not re.fullmatch(_ENDS_OPEN, text):
        return False
    right = max(one.pieces[-1].right for one in _of_column(before, lines))
    word = following.split()[0]
    letter = (line.pieces[-1].right - _left(line)) / max(len(following), 1)
    return before.pieces[-1].right + (len(word) + 1) * letter * 1.1 > right


def _is_left_over(text: str, following: str) -> bool:
    """Whether a word or two are what was left of the entry above them, `…, Main` over `Hall`."""
    is_entry = len(text) >= _LEAST_WIDE and _ENTRY.match(text) is not None and _ENTRY.match(following) is None
    is_head = following.endswith(":") or re.fullmatch(_MONTH, following) is not None
    is_ended = re.search(_ENDED, text) or re.search(_ENDED, following)
    return is_entry and not is_head and not is_ended and len(following.split()) <= _MOST_LEFT


def _is_of_prose(before: Line, following: str, lines: Sequence[Line]) -> bool:
    """Whether a line with a capital goes on with the one before: both are of running text, as other lines of the column show."""
    if _ENTRY.match(before.text) or _ENTRY.match(following) or len(before.text.split()) < _LEAST_WORDS:
        return False
    if re.search(_ENDED, before.text):
        return False
    if (
        re.search(_ENDED, following)
        and not re.search(_HALF, following)
        and len(following.split()) < len(before.text.split())
    ):
        return True  # it ends a sentence that did not begin in it
    column = _of_column(before, lines)
    wrapped = sum(b.text[:1].islower() and len(a.text) >= _LEAST_TEXT for a, b in pairwise(column))
    return wrapped >= _FEWEST_WRAPPED


def _of_column(line: Line, lines: Sequence[Line]) -> list[Line]:
    return [one for one in lines if abs(_left(one) - _left(line)) <= _INDENT and len(one.pieces) == 1]


def _left(line: Line) -> float:
    return line.pieces[0].left
