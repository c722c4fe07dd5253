"""The terms of a plan as classes name them: by name, by the code that the table of terms has beside it, or by season and year."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.school.codes import Codes
from nomarium.school.planheads import plain
from nomarium.school.yeartables import Term

_SEASON: Final = r"(?i)(?P<season>fall|autumn|winter|spring|summer)\s*(?:term|semester|quarter|session)?\s*(?:20)?(?P<year>\d\d)"


def term_codes(terms: Sequence[Term]) -> Codes:
    """The names of terms, and what else says one of them and no other: `F26` is Fall 2026, where no other begins so."""
    others = [(text, term.name) for term in terms if (text := term.item.text("code"))]
    others += [
        (short, name) for name in dict.fromkeys(term.name for term in terms) for short in _shorts(name)
    ]
    known = {plain(term.name) for term in terms}
    counts = Counter(plain(text) for text, _ in {(plain(text), name) for text, name in others})
    return Codes(
        "term",
        [term.name for term in terms],
        [(text, name) for text, name in others if counts[plain(text)] == 1 and plain(text) not in known],
    )


def _shorts(name: str) -> Iterator[str]:
    """How courses write a season with its year: `F26`, `Fa26`, `26F`, `2026FA`."""
    match = re.fullmatch(_SEASON, name.strip())
    if match is None:
        return
    for size in (1, 2, 4, 6):
        season, year = match["season"][:size], match["year"]
        for one in (year, f"20{year}"):
            yield f"{season}{one}"
            yield f"{one}{season}"
