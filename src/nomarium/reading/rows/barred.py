"""What the words of a row that repeats say of when it is not held: `No class 15 Feb`, `Choir (not 15th)`."""

import re
from typing import Final, NamedTuple

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Days
from nomarium.reading.cells.repeats import read_day_list
from nomarium.reading.cells.words import Lexicon, fold

_BARRED: Final = re.compile(
    r"(?i)(?<![\w-])(?:no\s+(?!later|earlier|more|less|longer|fewer|\d)[^\W\d_]+s?(?:\s+held)?|not(?:\s+(?:held|running|on|meeting|available))?|but\s+not|except(?:ing)?(?:\s+for)?|"
    r"excl(?:uding|\.)?|closed|cancelled|canceled|skipp?(?:ing|s)?|pas\s+de\s+[^\W\d_]+|sauf|kein\w*\s+[^\W\d_]+|außer|geen\s+[^\W\d_]+)\s*:?\s+(?:(?:on|in|for|the|during|week of|w/c|le|les|am)\s+)*"
)
"""Words right before the days on which something is not held."""
_OF_WEEK: Final = r"(?i)\b(?:week of|w/c)\b"
"""Words before the first day of a week, all of which is meant."""
_TOKEN: Final = re.compile(
    r"\s*(?:(?P<number>\d{1,4}(?:[/.]\d{1,2}(?:[/.]\d{2,4})?)?)(?P<ordinal>st|nd|rd|th|er)?(?![\w:])|(?P<word>[^\W\d_]+)\.?|(?P<sign>[,&+–—-]))"
)
_JOINS: Final = frozenset("and et und to au bis of".split())
_OFF: Final = re.compile(
    r"(?i)(?:(?:school|public|bank|statutory)\s+)?(?:half[ -]?terms?|holidays?|vacations?|school breaks?|reading week|christmas|easter|vacances|ferien)\b"
)


class Barred(NamedTuple):
    """A clause that leaves days out."""

    text: str
    days: tuple[Days, ...] | None
    """None where they cannot be read."""
    are_holidays: bool = False


def barred_in(text: str, lexicon: Lexicon) -> Barred | None:
    """The first clause of a text that says on which days something is not held; None where it says nothing of that kind."""
    if not any(map(str.isdigit, text)) and not _OFF.search(text):
        return None
    for match in _BARRED.finditer(text):
        rest = text[match.end() :]
        off = _OFF.match(rest)
        if off is not None:
            return Barred(f"{match[0]}{off[0]}".strip(), None, True)
        said, is_dated = days_at_start(rest, lexicon)
        if said:
            is_clear = is_dated and not re.search(_OF_WEEK, match[0])
            listed = read_day_list(said, lexicon) if is_clear else None
            days = None if isinstance(listed, Refusal) else listed
            return Barred(f"{match[0]}{said}".strip(), days)
    return None


def days_at_start(text: str, lexicon: Lexicon) -> tuple[str, bool]:
    """The days at the start of a text, and whether they name their months; nothing where it begins with none."""
    at = last = 0
    has_month = has_day = False
    while (token := _TOKEN.match(text, at)) is not None:
        word = fold(token["word"] or "")
        if token["number"]:
            is_whole = re.search(r"[/.]", token["number"]) is not None
            has_day |= is_whole or token["ordinal"] is not None
            has_month |= is_whole
        elif word in lexicon.months:
            has_month = has_day = True
        elif word not in _JOINS and word not in lexicon.weekdays and not token["sign"]:
            break
        at = token.end()
        if token["number"] or word in lexicon.months:
            last = at
    said = text[:last].strip()
    is_day = has_day and any(map(str.isdigit, said))
    return (said, has_month) if is_day else ("", False)
