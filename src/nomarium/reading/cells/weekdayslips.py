"""Words that seem to be weekdays written with a slip, `Thrs`, `Firday`, or in a language that the others are not."""

import re
from typing import Final

from nomarium.reading.cells.namelist import known_by_likely
from nomarium.reading.cells.words import ENGLISH, fold

_OTHER_WORDS: Final = frozenset(
    "sum set due son sub man men stat seat red web fun run moon sunny wd mo sa".split()
)
"""Words as near to a weekday that head columns of their own."""
_SHORTEST: Final = 3
_LONG: Final = 6
"""Letters from which on a word may have two slips."""


def is_like_weekday(text: str) -> bool:
    """Whether a heading begins with what is no weekday, and nearly one.

    >>> [is_like_weekday(text) for text in ("Thrs", "Firday 11 Sep", "Mom", "Jeu", "Notes", "Sum", "Room 3", "Fri")]
    [True, True, True, True, False, False, False, False]
    """
    first = re.match(r"\W*([^\W\d_]+)", text)
    word = fold(first[1]) if first is not None else ""
    if len(word) < _SHORTEST or word in _OTHER_WORDS or word in ENGLISH.weekdays or word in ENGLISH.months:
        return False
    if known_by_likely(word):
        return True
    most = 2 if len(word) >= _LONG else 1
    return any(
        len(name) >= _SHORTEST and slips(word, name) <= min(most, 2 if len(name) >= _LONG else 1)
        for name in ENGLISH.weekdays
    )


def slips(word: str, name: str) -> int:
    """How many letters are too many, too few, others or exchanged with the next one (Damerau and Levenshtein's distance of
    neighbouring letters)."""
    before, row = list[int](), list(range(len(name) + 1))
    for n, letter in enumerate(word, 1):
        last, before = before, row
        row = [n]
        for m, other in enumerate(name, 1):
            cost = min(before[m] + 1, row[m - 1] + 1, before[m - 1] + (letter != other))
            if n > 1 and m > 1 and letter == name[m - 2] and word[n - 2] == other:
                cost = min(cost, last[m - 2] + 1)
            row.append(cost)
    return row[-1]
