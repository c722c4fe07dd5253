"""Titles whose last words say that what they name is not held: `Kurs fällt aus`, `Cours annulé`, `Race will not take place`."""

import re
from typing import Final

from nomarium.reading.cells.choices import CANCELLING_BEHIND, CANCELLING_STARTS

_SENTENCES: Final = (
    r"(?i).*\w\W*\s(?:"
    r"(?:not|no longer)(?: being)? (?:happening|running|held|going ahead|taking place|meeting)|(?:is|are) not on|"
    r"(?:will not|won['’]t|does not|doesn['’]t|do not|don['’]t|cannot|can['’]t|did not|didn['’]t) (?:run|happen|take place|go ahead|meet|proceed|be held)|"
    r"fällt(?: \w+){0,2} aus|(?:muss|müssen)(?: \w+){0,2} (?:aus|ent)fallen|findet(?: \w+){0,2} nicht statt|finden(?: \w+){0,2} nicht statt|"
    r"gaat(?: \w+){0,2} niet door|gaan(?: \w+){0,2} niet door|"
    r"n['’]a(?:ura|uront)? pas lieu|n['’]ont pas lieu|(?:est|sont|a été|ont été|sera|seront) (?:suspendue?s?|supprimée?s?)|"
    r"no se (?:celebra(?:rá)?|realiza(?:rá)?)|no (?:tiene|tendrá) lugar|non si (?:tiene|terrà|svolge|svolgerà)|non avrà luogo|(?:è|sono) sospes[oi]|"
    r"não se realiza(?:rá)?|(?:está|foi) suspenso|ställs in"
    r")(?: (?:today|tonight|tomorrow|this (?:week|month|term|year|time)|(?:due|because|owing)\b.*))?[\s.!)]*"
)
"""A title, and behind it that it is not held."""
_LAST_WORDS: Final = frozenset(
    "suspended scrapped entfällt entfallen entfaellt abgesagt ausgefallen storniert verschoben annulé annulée annulés annulées reporté reportée "
    "reportés reportées cancelado cancelada cancelados canceladas anulado anulada suspendido suspendida suspendidas suspensa aplazado aplazada "
    "pospuesto pospuesta adiado adiada annullato annullata annullati annullate cancellato cancellata sospesa rinviato rinviata vervalt vervallen "
    "afgelast geannuleerd uitgesteld inställd inställt inställda aflyst avlyst kansellert peruttu odwołany odwołana odwołane odwołano odwolany "
    "odwolana odwolane odwolano".split()
)
"""Last words that are no others in a title. Not among them: `suspendu`, for bridges are, and `reporte`, which is a report in Spanish."""
_RAINED: Final = ("rained off", "snowed off", "called off")
_ENDS: Final = frozenset(
    cased for word in CANCELLING_BEHIND | _LAST_WORDS for cased in (word[-4:], word[-4:].upper())
)
"""How such a title may end, four letters of it."""
_INSIDE: Final = (
    "ancel", "ANCEL", "oved", "OVED", "ostpon", "bandoned", "alled off", "ained off", "eferred", "chedul", "elayed", "new ", "NEW ", "now ",
    "put ", "rought ", "hanged", " not ", "n't ", "n’t ", "o longer", " aus", " nicht ", " niet ", " pas ", "uspend", "supprim", "no se ",
    "no t", "non ", "não ", "sospes", "ställs",
)  # fmt: skip
"""Some of which stands within a title that says that it is not held, or not then, where neither its beginning nor its end does."""


def may_be_off(title: str) -> bool:
    """Whether a title needs a closer look for words that it is not held, or not then; most need none."""
    return (
        title[:4] in CANCELLING_STARTS
        or title[-4:] in _ENDS
        or title.rstrip(" .!)")[-4:] in _ENDS
        or any(map(title.__contains__, _INSIDE))
    )


def ends_not_held(title: str) -> bool:
    """Whether the last words of a title say that it is not held.

    >>> ends_not_held("Kurs fällt leider aus"), ends_not_held("Cours annulé"), ends_not_held("Race will not take place")
    (True, True, True)
    >>> ends_not_held("Pont suspendu"), ends_not_held("annulé"), ends_not_held("Evening not to be missed")
    (False, False, False)
    """
    bare = title.rstrip(" .!)").casefold()
    before, _, last = bare.rpartition(" ")
    if before and (last in _LAST_WORDS or bare.endswith(_RAINED)):
        return True
    return (bare[-4:] in _ENDS or any(map(bare.__contains__, _INSIDE))) and re.fullmatch(
        _SENTENCES, title
    ) is not None
