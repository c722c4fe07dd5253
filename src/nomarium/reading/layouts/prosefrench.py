"""French sentences that say an event: `La fête aura lieu le samedi 12 juin 2027 de 14 h à 17 h au hangar.` In all of them `\\0` stands for
the date."""

import re
from typing import Final, Literal, NamedTuple

_HELD: Final = (
    r"(?:aur(?:a|ont) lieu|se tiend(?:ra|ront)|se déroule(?:ra|ront)?|(?:est|sont) (?:prévu|fixé|organisé|reporté)e?s? (?=\0|(?:au|le|pour|à|dans)\b)|"
    r"(?:sera|seront|est|sont)(?=\s+(?:le|à|au|dans|de|\0))|commence(?:ra|ront|nt)?|débute(?:ra|ront|nt)?|repren(?:d|nent|dra|dront)|ouvr(?:e|ent|ira|iront))"
)
_SUBJECT: Final = re.compile(
    rf"(?i)^(?P<title>(?:(?!\b(?:qui|que|si|quand|lorsque|car|parce)\b)[^.:;?!\0]){{3,80}}?)[,\s]+{_HELD}(?![\w])(?P<rest>.*)$"
)
_INVITED: Final = re.compile(
    r"(?i)^(?:nous (?:vous |avons le plaisir de vous )?(?:invitons|convions|attendons|inviter|convier)(?: tous)?(?: (?:cordialement|chaleureusement))?|"
    r"vous êtes (?:tou(?:s|tes) )?(?:cordialement |chaleureusement )?(?:invité|convié|attendu)e?s?|venez (?:nombreux )?(?:assister|participer)|"
    r"(?:rappel ?: )?n['’]oubliez pas|ne manquez pas|(?:il y aura|nous organisons|nous tiendrons))\s+(?:(?:à|a|au|aux|pour)\s+)?"
    r"(?P<title>[^.:;?!\0]{3,80}?)(?=[,\s]+(?:à|au|aux|dans|en|qui|de \d)\b|[,\s]+(?:le\s+)?\0)(?P<rest>.*)$"
)
_DUE: Final = re.compile(
    r"(?i)^(?:veuillez|merci de|prière de|nous vous prions de)\s+(?:bien vouloir\s+|nous\s+)?(?:rendre|remettre|retourner|renvoyer|envoyer|payer|régler|apporter|remplir)\s+"
    r"(?P<title>[^.:;?!\0]{3,80}?)\s+(?:avant|d['’]ici|au plus tard|pour)\s+(?:le\s+)?\0"
)
_DATE_FIRST: Final = re.compile(r"(?i)^(?:le\s+)?\0[,\s]+(?P<rest>.+)$")
_NOT: Final = r"(?i)\b(?:ne|n['’])\s?\S+.*\b(?:pas|plus|jamais)\b|\b(?:annulé|fermé)e?s?\b|\b(?:sauf|jusqu['’]|à partir)"
_NOT_MISSED: Final = r"(?i)\b(?:n['’]oubliez|ne manquez|n['’]oublions) pas\b"
_PAST: Final = r"(?i)\b(?:a|ont) eu lieu\b|\bs['’]est (?:tenu|déroulé)e?\b|\b(?:était|étaient|a été|ont été|avons\s+\w+[éui]s?)\b"
_AGAIN: Final = r"(?i)\b(?:tous les|toutes les|chaque|hebdomadaires?|mensuel(?:le)?s?|quotidien(?:ne)?s?)\b"
_BEGINS: Final = r"(?i)[,\s]+((?:commence|débute|repren|ouvr|termine)\w*)"
_OF_SCHOOL: Final = r"(?i)^(?:cours|classes?|leçons?|école|collège|trimestres?|semestres?|inscriptions?|réservations?|vacances|congés?)\b"
"""What is no event, but begins on its day, and has its verb in its title: `Cours reprennent`."""
_ARTICLES: Final = r"(?i)^(?:(?:la|le|les|notre|nos|votre|vos|une?|cette?)\s+|l['’]\s?)"
_PLACE: Final = re.compile(
    r"(?i)\b(?:à\s+(?:la|l['’])|au|aux|dans\s+(?:la|le|les|l['’])|en)\s*(?P<place>[^\W\d_][^,.;:()]*?)(?=\s*(?:[,.;:()]|\b(?:de|à|dès|vers)\s+\d|\ble\b|$))"
)


class Held(NamedTuple):
    """What a French sentence says is held, and what it says beside."""

    title: str
    rest: str


def held_in_french(whole: str) -> Held | Literal["past", "doubtful"] | None:
    """What is held on the date of a sentence; None where the sentence has none of the forms known."""
    if re.search(_AGAIN, whole) or re.search(_NOT, re.sub(_NOT_MISSED, "", whole)):
        return "doubtful"
    if re.search(_PAST, whole):
        return "past"
    if (due := _DUE.match(whole)) is not None:
        return Held(f"Date limite : {_bare(due['title'])}", "")
    first = _DATE_FIRST.match(whole)
    text = f"{first['rest']} \0" if first is not None else whole
    match = _INVITED.match(text) or _SUBJECT.match(text)
    if match is None or not (title := _bare(match["title"])):
        return None
    verb = re.match(_BEGINS, text[match.end("title") :])
    if verb is not None and re.search(_OF_SCHOOL, title):
        title = f"{title} {verb[1]}"
    return Held(title[:1].upper() + title[1:], match["rest"].replace("\0", " "))


def place_in_french(rest: str) -> str:
    """What follows *à la*, *au* or *dans* and is no time."""
    return next((" ".join(match["place"].split()) for match in _PLACE.finditer(rest)), "")


def _bare(title: str) -> str:
    return re.sub(_ARTICLES, "", " ".join(title.split()).strip(" ,–—-"))
