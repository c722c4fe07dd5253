"""Repeats in other languages than English and French, put into English words: `jeden Montag bis 9.11.2026`."""

import re
from functools import lru_cache
from pathlib import Path
from typing import Final

from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.words import Lexicon, fold, lexicon_of

_PATH = Path(__file__).parents[1] / "data" / "repeatlanguages.txt"
_ENDINGS: Final = ("", "s", "e", "en", "er", "ar", "sin", "isin")
"""Endings of weekdays on which something is held again and again: `montags`, `mandage`, `måndagar`, `maanantaisin`."""
_LEAST_OF_NAME: Final = 5
"""Letters of a weekday that is no month's short name."""
_DAY: Final = rf"(?:{'|'.join(WEEKDAYS)})"
_FROM_TO: Final = rf"(?i)(?:\b(?:von|vom|de|dal|van|från|fra|od)\s+)?({_DAY})\s*(?:bis|t/m|tot(?: en met)?|al?|ao|till|til|do|[-–])\s*({_DAY})"


def in_english(text: str) -> list[tuple[str, Lexicon]]:
    """A phrase with the words of each language that it has some of put into English ones, and the names of that language.

    >>> in_english("alle zwei Wochen bis 9.11.2026")[0][0]
    'every two weeks until 9.11.2026'
    """
    found = []
    for code, words in _words().items():
        names = lexicon_of(code)
        if names is None:
            continue
        said = re.sub(_FROM_TO, r"\1 to \2", _with_english_weekdays(text, names))
        for pattern, english in words:
            said = re.sub(pattern, english, said)
        if said != text:
            said = re.sub(r"\b([1-5])[.ºª]\s+(?=[^\W\d_]+day)", r"\1th ", said)  # jeden 2. Montag
            said = re.sub(r"\b(\d{1,2})\.\s+(?=[^\W\d_])", r"\1 ", said)  # 20. Oktober
            found.append((said, names))
    return found


def _with_english_weekdays(text: str, names: Lexicon) -> str:
    """A text with the English names of the weekdays that are written out in it, in the plural too."""
    return re.sub(r"[^\W\d_]+(?:-feiras?)?", lambda match: _weekday_of(match[0], names) or match[0], text)


def _weekday_of(word: str, names: Lexicon) -> str:
    folded = fold(word).partition("-")[0]
    known = (
        names.weekdays.get(folded.removesuffix(ending)) for ending in _ENDINGS if folded.endswith(ending)
    )
    day = next((one for one in known if one is not None), None) if len(folded) >= _LEAST_OF_NAME else None
    return WEEKDAYS[day] if day is not None else ""


@lru_cache(maxsize=1)
def _words() -> dict[str, list[tuple[str, str]]]:
    """The patterns of each language with the English for them."""
    found: dict[str, list[tuple[str, str]]] = {}
    for line in _PATH.read_text("utf-8").splitlines():
        if not line.startswith("#"):
            code, words, english = line.split("\t")
            found.setdefault(code, []).append((rf"(?i)(?<![\w-])(?:{words})(?![\w-])", english))
    return found
