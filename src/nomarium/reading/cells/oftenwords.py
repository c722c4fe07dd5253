"""Words by which something is held in some weeks only, as parts of patterns that do not mind case."""

import re
from typing import Final

WEEKDAY: Final = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
SOME_WEEKS: Final = (
    r"(?:fortnightly|bi-?weekly|(?:every|each) (?:other|second|third|fourth|2nd|3rd|4th|two|three|four|2|3|4) weeks?|alternat(?:e|ing) weeks?|alt\.? weeks?|"
    r"(?:odd|even) weeks?|once a (?:month|fortnight)|14-?täg(?:lich|ig)|(?:vierzehn|zwei)(?:tägig|wöchentlich|wöchig)|alle (?:2|zwei|3|drei|vier|4) wochen|alle 14 tage|"
    r"jede (?:zweite|andere|dritte|vierte|[234]\.) woche|(?:nur )?(?:in )?(?:un)?geraden? (?:kw|wochen|kalenderwochen)|einmal im monat|"
    r"semaines? (?:im)?paires?|une semaine sur (?:deux|trois|[23])|tous les (?:15|quinze) jours|toutes les (?:deux|trois|[23]) semaines|aux (?:deux|trois) semaines|"
    r"par quinzaine|bimensuel(?:le)?|une fois par mois|semanas? (?:alternas?|alternadas?|(?:im|ím)?pares?)|cada (?:dos|tres|[23]) semanas|cada (?:15|quince) días|"
    r"quincenal(?:mente)?|una vez al mes|(?:a )?settimane (?:alterne|pari|dispari)|ogni (?:due|tre|[23]) settimane|ogni (?:15|quindici) giorni|quindicinale|"
    r"una volta al mese|(?:on)?even weken|om de (?:andere |(?:twee|2) )?we(?:ek|ken)|(?:twee|drie)wekelijks|veertiendaags|elke (?:twee|drie|[23]) weken|"
    r"quinzenal(?:mente)?|(?:a )?cada (?:duas|2) semanas|de 15 em 15 dias|varannan vecka|var (?:tredje|fjärde) vecka|(?:o?jämna|udda) veckor|hver anden uge|"
    r"une? \w+ sur (?:deux|trois|[23])|jede[nr] (?:zweiten?|dritten?|[23]\.) \w+tag|cada segundo \w+|un \w+ sí y otro no|un \w+ sì e uno no|ogni secondo \w+|"
    r"(?:om de|elke tweede) \w+dag|varannan \w+dag|(?:hver anden|annenhver) \w+dag|co drug[ia] \w+|annenhver uke|(?:u)?lige uger|(?:partalls|oddetalls)uker|co (?:dwa|trzy|[23]) tygodnie|tygodnie (?:nie)?parzyste|joka toinen viikko)"
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
