"""Titles whose last words say that what they name is not held: `Kurs fällt aus`, `Cours annulé`, `Race will not take place`."""

import re
from typing import Final

from nomarium.reading.cells.choices import CANCELLING
from nomarium.reading.cells.movesabroad import STARTS

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
_OF_SENTENCES: Final = frozenset(
    "not no won' does don' cann can' didn fäll find muss müss gaat gaan lieu supp susp sosp cele real tien tend avrà svol luog stäl".split()
)
_MAY_BE_OFF: Final = (
    _OF_SENTENCES
    | STARTS
    | {word[:4] for word in CANCELLING | _LAST_WORDS}
    | frozenset("move re sche resc put brou dela chan now new rain snow long".split())
)
"""How the words begin of which one stands in every title that is not held, or not then, four letters of each in small."""
_WORD: Final = r"[^\W\d_]+(?:['’]t?)?"


def may_be_off(title: str) -> bool:
    """Whether a title needs a closer look for words that it is not held, or not then; most need none."""
    return has_word_of(title.casefold(), _MAY_BE_OFF)


def has_word_of(folded: str, starts: frozenset[str]) -> bool:
    """Whether a word of a text in small begins with one of these, its first four letters."""
    return not starts.isdisjoint([word[:4] for word in re.findall(_WORD, folded)])


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
    return has_word_of(bare, _OF_SENTENCES) and re.fullmatch(_SENTENCES, title) is not None
