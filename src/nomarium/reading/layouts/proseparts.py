"""The title and the place within a sentence that says an event, and what it says beside them."""

import re
from typing import Final

from nomarium.reading.cells.placewords import is_place

_PLACE: Final = re.compile(
    r"(?:\b(?:at|in)|@)\s+(?P<place>(?:the\s+|our\s+)?(?!noon|midday|midnight|least|\d)[A-Za-z][^,.;:()]*?)(?=\s*(?:[,.;:()]|\bfrom\b|\bon\b|\bat\b|\band\b|\bwith\b|\bfor\b|\bto\b|$))"
)
_NO_PLACES: Final = r"(?i)(?:the )?(?:about|around|approximately|morning|afternoon|evening|end|beginning|start|middle|autumn|spring|summer|winter|advance|total|person|high (?:water|tide)|low (?:water|tide)|time|year|week|month|last|first)\b.*"
_ARTICLES: Final = r"(?i)^(?:the (?:new )?(?:date|day) (?:of|for) (?:the|our|this year['’]s)|the|our|a|an|this year['’]s|your|this)\s+"
_NO_TITLE: Final = r"(?i)(?:attend|join|come|participate)(?:ing)?|(?:hearing|seeing|welcoming)(?:\s+(?:from\s+)?(?:you|everyone)\b.*)?|meeting (?:you|everyone)\b.*"
"""What somebody is asked to do, and no name of an event."""
_LEADS: Final = r"(?i)^(?:from|at|in)\s+(?:(?:the|our)\s+)?"
_PRONOUNS: Final = frozenset(
    "it this that they we you he she i there which who these those everybody everyone all".split()
)


def beside(place: str, rest: str) -> str:
    """What a sentence says in figures beside its date, its time and its place."""
    rest = without_place(place, rest)
    return rest.strip(" ,;") if any(map(str.isdigit, rest)) else ""


def without_place(place: str, rest: str) -> str:
    pattern = rf"(?i)(?:\b(?:at|in)\s+)?(?:(?:the|our)\s+)?{re.escape(place)}"
    return re.sub(pattern, "", rest, count=1) if place else rest


def bare(title: str) -> str:
    """A title without its article, and without the words that lead to a date."""
    plain = re.sub(
        r"(?i)^(?:(?:dear|hello|hi)\b[\w ]{1,30},|(?:also|finally|then|and|so|once again|once more|as always|as usual)\b[,\s])\s*",
        "",
        " ".join(title.split()).strip(" ,–—-"),
    )
    plain = re.sub(_ARTICLES, "", plain)
    return re.sub(r"(?i)\s+(?:on|from|at|for|of)$", "", plain)


def titled(title: str) -> str:
    return title[:1].upper() + title[1:]


def is_title(title: str) -> bool:
    words = title.casefold().split()
    return (
        bool(words)
        and re.fullmatch(_NO_TITLE, title) is None
        and words[0] not in _PRONOUNS
        and len(words) <= 10
        and any(map(str.isalpha, title))
    )


def place_in(rest: str) -> str:
    """What follows *in* or *at* and is a place."""
    for match in _PLACE.finditer(rest):
        place = re.sub(r"(?i)^(?:the|our)\s+", "", " ".join(match["place"].split()))
        if place and place.casefold() != "the" and not re.fullmatch(_NO_PLACES, match["place"].strip()):
            return titled(place)
    pieces = (re.sub(_LEADS, "", piece.strip(" ()")) for piece in re.split(r"\s*[,;]\s*", rest))
    return next((titled(piece) for piece in pieces if is_place(piece)), "")
