"""Columns headed as parts of a day, `Session 1`, `AM`."""

import re
from typing import Final

from nomarium.reading.cells.words import fold
from nomarium.reading.columns.column import PART_OF_DAY, Column
from nomarium.reading.columns.contents import MOSTLY, Contents

_SESSION: Final = r"(?:week|wk|session|period|slot|block|lesson|part|talk|workshop|activity|match|game)\s?(?:\d{1,2}|[a-d])\b.*"
_HALVES_OF_DAY: Final = frozenset(
    "am pm morning mornings afternoon afternoons evening evenings matin apres-midi soir vormittag vormittags nachmittag nachmittags "
    "abend abends manana tarde noche ochtend middag avond".split()
)
_FIRST_WORD: Final = r"[^\W\d_]+(?:-[^\W\d_]+)*"


def without_sessions(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns headed `Session 1`, `Session 2`, or `AM`, `PM`, are parts of a day, and none of them is the title."""
    numbered = [c for c in columns if c.how != "asked" and any(map(str.isdigit, c.heading))]
    if len(numbered) < 2:  # lettered ones go with a session of the like name
        numbered = [c for c in columns if c.how != "asked" and c.heading[-2:-1] == " "]
    parts = {c.at for c in numbered if re.fullmatch(_SESSION, c.heading.casefold())}
    halves = {
        c.at
        for c in columns
        if c.how != "asked" and c.filled and _is_half_of_day(c.heading) and contents[c.at].times < MOSTLY
    }
    parts |= halves if len(halves) > 1 else set()
    if len(parts) < 2:
        return columns
    return [
        c._replace(field="", how="", is_weak=False, evidence=PART_OF_DAY) if c.at in parts else c
        for c in columns
    ]


def _is_half_of_day(heading: str) -> bool:
    """Whether a heading is a half of the day, alone or with its hours, `AM (9-12)`."""
    text = fold(heading).strip()
    word = re.match(_FIRST_WORD, text)
    if word is None or word[0] not in _HALVES_OF_DAY:
        return False
    behind = text[word.end() :]
    return not behind or any(map(str.isdigit, behind))
