"""Repeats in German, Spanish, Dutch, Italian and Portuguese, put into English words: `jeden Montag bis 9.11.2026`."""

import re
from functools import lru_cache
from pathlib import Path

from nomarium.reading.cells.words import Lexicon, lexicon_of

_PATH = Path(__file__).parents[1] / "data" / "repeatlanguages.txt"


def in_english(text: str) -> list[tuple[str, Lexicon]]:
    """A phrase with the words of each language that it has some of put into English ones, and the names of that language.

    >>> [said for said, _ in in_english("alle zwei Wochen bis 9.11.2026")]
    ['every two weeks until 9.11.2026']
    """
    found = []
    for code, words in _words().items():
        said = text
        for pattern, english in words:
            said = re.sub(pattern, english, said)
        names = lexicon_of(code) if said != text else None
        said = re.sub(r"\b(\d{1,2})\.\s+(?=[^\W\d_])", r"\1 ", said)  # 20. Oktober
        if names is not None:
            found.append((said, names))
    return found


@lru_cache(maxsize=1)
def _words() -> dict[str, list[tuple[str, str]]]:
    """The patterns of each language with the English for them."""
    found: dict[str, list[tuple[str, str]]] = {}
    for line in _PATH.read_text("utf-8").splitlines():
        if not line.startswith("#"):
            code, words, english = line.split("\t")
            found.setdefault(code, []).append((rf"(?i)(?<![\w-])(?:{words})(?![\w-])", english))
    return found
