"""Titles of events: put together from columns, and empty ones."""

import re
from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.bookkeeping import BOOKS
from nomarium.reading.cells.ditto import DITTO
from nomarium.reading.cells.titleparts import TitleParts
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.columns.titles import title_columns
from nomarium.sheets.sheet import cell_text

_NO_TITLE = frozenset(
    "- -- --- – — n/a n.a. none nil free bye spielfrei . .. ... … (empty) (free) (none) (vacant) vacant".split()
)
"""What people put where nothing happens."""
_UNHELD = frozenset("off free closed frei libre vrij".split())
"""What people write where nothing is held, in the cell of a drawing."""
NONE_HELD = r"(?i)no (?:services?|sessions?|class(?:es)?|lessons?|dut(?:y|ies)|meetings?|school|rehearsals?|practices?|training|cover|shifts?|one)\b"
"""How what stands where nothing is held may begin: `No session today`."""
_BYES = frozenset(
    ("bye", "byes", "no game", "no match", "rest", "spielfrei", "exempt", "descansa", "riposo", "vrij")
)
"""What stands somewhere in a row whose side meets nobody."""
_GROUND = 4
"""Letters of what says on whose ground two sides meet, at most: `home`."""
_POINTS = frozenset(">→⇒➔➜⟶»")
_ARROW = r"[-–—=.\s]*[>→⇒➔➜⟶»]+"
_ARROW_LAST = r"(?:[→⇒➔➜⟶]|[-–—=]>)\s*$"
IDLE_STARTS = frozenset(
    cased
    for word in (*_NO_TITLE, *BOOKS, *DITTO)
    for cased in (word[:4], word[:4].upper(), word[:4].capitalize())
)
"""How a title may begin that says nothing or speaks of the table, four letters of it: for those who cannot look at all of it."""


def is_no_title(text: str) -> bool:
    """Whether a text in a column of titles says that there is nothing; of two sides, that one has none to meet."""
    if isinstance(text, TitleParts) and any(side.casefold() == "bye" for side in text.values.values()):
        return True
    return text.casefold() in _NO_TITLE


def is_unheld(text: str) -> bool:
    """Whether the cell of a drawing says that nothing is held there: `off`, `closed`, `–`."""
    return is_no_title(text) or text.casefold() in _UNHELD


def is_no_session(text: str) -> bool:
    """Whether the cell of a slot says in words that nothing is held in it: `no class`, `No session this week`."""
    return (
        text[:3].casefold() == "no "
        and re.fullmatch(rf"{NONE_HELD}(?: today| this week)?[\s.!]*", text) is not None
    )


def is_ditto(text: str) -> bool:
    """Whether a text stands for the one above it, or left of it: `"`, `ditto`, `-->`."""
    text = text.strip()
    return text.casefold() in DITTO or (text[-1:] in _POINTS and re.fullmatch(_ARROW, text) is not None)


def goes_on(text: str) -> bool:
    """Whether a text ends in an arrow: what it says goes on beyond its cell."""
    return re.search(_ARROW_LAST, text) is not None


def whole_title(title: str) -> str:
    """A title without the line breaks of its cell; nothing for a sign that stands for the one above, which names nothing itself.

    >>> whole_title("Opening talk\\nI. Holm"), whole_title("Autumn fair\\n(if dry)"), whole_title("Rigging:\\ntheory")
    ('Opening talk, I. Holm', 'Autumn fair (if dry)', 'Rigging: theory')
    """
    if "\n" not in title:
        return "" if is_ditto(title) else title.strip()
    first, *more = [line for text in title.splitlines() if (line := " ".join(text.split()))] or [""]
    for line in more:
        goes_on = first[-1] in ":–—-,;&/" or line[0] == "(" or line[0].islower()
        first += f" {line}" if goes_on else f", {line}"
    return first


class TitleMaker:
    """Makes titles from a template such as `{Subject}: {title}`."""

    def __init__(
        self,
        template: str,
        headings: Sequence[str],
        first_column: int,
        at: Mapping[str, int],
        sides: Sequence[str] = (),
    ) -> None:
        """`at` is where each field stands; see `title_columns` for the names. `sides`: those of two that meet."""
        self._template, self._sides = template, sides
        self._columns, _ = title_columns(template, headings, first_column, at)

    def title(self, row: Sequence[Cell], summary: str) -> TitleParts:
        """The title of a row; nothing when all that it is made from is blank."""
        values = {name: cell_text(row[n]) if n < len(row) else "" for name, n in self._columns.items()}
        if self._sides and (alone := self._alone(values)):
            is_bye = any(cell_text(cell).casefold() in _BYES for cell in row)
            return TitleParts(self._template, {**values, alone: "bye"}) if is_bye else TitleParts("", {})
        return TitleParts(self._template, {**values, "title": summary})

    def _alone(self, values: Mapping[str, str]) -> str:
        """The side that a row leaves blank while it names the other one, or nothing else; nothing where both meet, or the row is
        called otherwise."""
        blank = [name for name in self._sides if not values.get(name)]
        is_called = any(len(text) > _GROUND and name not in self._sides for name, text in values.items())
        return blank[0] if blank and not (is_called and len(blank) == len(self._sides)) else ""


def lasts_all_day(title: str) -> bool:
    """Whether a title ends with that, and so is not over with its slot: `Trip (all day)`."""
    return re.search(r"(?i)[\s(,:–—-](?:all|whole|full)[ -]day\)?$", title) is not None


_FROM_DAY_TO_DAY: Final = r"\d(?:st|nd|rd|th|\.)?(?:\s[^\W\d_]{3,9}\.?)?\s?(?:[-–—&]|to|and|bis)\s?(?:[MTWFSLDJV][^\W\d_]{1,8}\.?,?\s)?\d"
_UNTIL: Final = (" to ", "ntil ", "till ", "thru ", "through ", " bis ", "jusqu")


@lru_cache(maxsize=2048)
def may_say_days(title: str) -> bool:
    """Whether a title may say more days than the one on which it stands: it has a day, a sign and another day, or a word such as
    *until* before a day, or ends with a weekday behind a dash. Most titles have none of it."""
    for word in _UNTIL:
        if word in title:
            rest = title[title.index(word) :]
            return any(map(str.isdigit, rest)) or _last_word(rest.rpartition(" ")[2]) in ENGLISH.weekdays
    has_dash = "-" in title or "–" in title or "—" in title
    if ":" in title and _last_word(title.partition(":")[0]) in ENGLISH.weekdays:
        return True
    if not has_dash and "&" not in title and " and " not in title:
        return False
    if any(map(str.isdigit, title)) and re.search(_FROM_DAY_TO_DAY, title):
        return True
    return has_dash and _last_word(title.replace("–", "-").rpartition("-")[2]) in ENGLISH.weekdays


def _last_word(text: str) -> str:
    return fold(text).strip(" .)!")
