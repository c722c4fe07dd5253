"""Words by which something is held in some weeks only, as parts of patterns that do not mind case."""

import re
from typing import Final

WEEKDAY: Final = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
SOME_WEEKS: Final = (
    r"(?:fortnightly|bi-?weekly|(?:every|each) (?:other|second|third|fourth|2nd|3rd|4th|two|three|four|2|3|4) weeks?|alternat(?:e|ing) weeks?|alt\.? weeks?|"
    r"(?:odd|even) weeks?|once a (?:month|fortnight)|14-?täglich|alle zwei wochen|quinzenal|une semaine sur deux|aux deux semaines)"
)
OFTEN: Final = (
    rf"(?i)\b(?:(?:\d{{1,2}}\s+)?{WEEKDAY}s\b(?!['’])|(?:every|each|alternate)\s+(?:(?:other|second|2nd|third|3rd)\s+)?(?:week|day|month|{WEEKDAY}|weekday)|"
    rf"{WEEKDAY}\s+(?:mornings|afternoons|evenings|nights)\b|weekly\b|fortnightly\b|monthly\b|(?:for\s+)?\d{{1,2}}\s+weeks\b)"
)
"""Words by which a line says more than one day."""

_OFTEN_ELSEWHERE: Final = r"(?i)\b(?:jede[nrs]?|chaque|tous\s+les|toutes\s+les|cada|todos\s+(?:los|os)|todas\s+(?:las|as)|ogni|tutti\s+i|elke|iedere|varje|hver|każd\w+|wöchentlich|hebdomadaire|(?:montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonnabend|sonntag)s|(?:lun|mar|mercre|jeu|vendre|same)dis|dimanches|los\s+(?:lunes|martes|miércoles|jueves|viernes|sábados|domingos))\b"
"""The same in other languages."""


def often_in(text: str) -> re.Match[str] | None:
    """Where a text begins to say more than one day; None where it has no words of repeats, or no figure."""
    if re.search(r"\d", text) is None:
        return None
    return re.search(OFTEN, text) or re.search(_OFTEN_ELSEWHERE, text)
