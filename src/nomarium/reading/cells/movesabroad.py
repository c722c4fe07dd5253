"""Remarks of other languages that move what they stand beside: `verschoben auf 21. Oktober`, `reporté au 21 octobre`, `neuer Termin: 9.9.`"""

import re
from functools import cache
from typing import Final, NamedTuple

from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import Lexicon, fold, lexicon_of


class _Words(NamedTuple):
    language: str
    moved: str
    """The participles, as a pattern."""
    since: str
    """What stands before the old date."""
    towards: str
    """What stands before the new one."""
    now: str
    """What says that a date, or a time, is a new one."""
    stems: str
    """Letters of which some stand in each of these words: the pattern is made for no other text."""


_WORDS: Final = (
    _Words("de", "(?:vor)?verlegt|verschoben|vertagt", "von|vom", "auf|zum", "neue[rs]? (?:termin|datum|zeit|uhrzeit|beginn)|ersatztermin|(?:jetzt|nun) (?:am|um)", "verlegt schoben vertagt neue ersatz jetzt nun"),
    _Words("fr", "(?:reporté|déplacé|avancé|décalé|repoussé)e?s?", "du|de", "au|à|aux|pour", "nouvelle (?:date|heure)|nouvel horaire|désormais (?:le|à)", "eporté éplacé vancé écalé epoussé nouve désormais"),
    _Words("es", "(?:aplazad|trasladad|pospuest|cambiad|movid|adelantad|reprogramad)[oa]s?", "del?", "al?|para|hasta", "nueva (?:fecha|hora)|nuevo horario|ahora (?:el|a las)", "plazad rasladad ospuest cambiad movid delantad eprogramad nuev ahora"),
    _Words("it", "(?:rinviat|spostat|posticipat|anticipat|rimandat)[oaie]", "dal?|dalle", "a|al|alle|all['’]", "nuova (?:data|ora)|nuovo orario", "inviat postat osticipat nticipat imandat nuov"),
    _Words("nl", "verplaatst|verzet|uitgesteld|verschoven|vervroegd", "van", "naar|tot", "nieuwe (?:datum|tijd)", "verplaatst verzet uitgesteld verschoven vervroegd nieuwe"),
    _Words("pt", "(?:adiad|transferid|remarcad|movid|antecipad)[oa]s?", "d[eo]", "para|até|ao?", "nova (?:data|hora)|novo horário", "diad ransferid emarcad movid ntecipad nov"),
    _Words("sv", "(?:fram)?flytta(?:d|t|s)", "från", "till", "ny tid|nytt datum", "flytta ny"),
    _Words("da", "flyttet|udsat", "fra", "til", "ny (?:dato|tid)", "flyttet udsat ny"),
    _Words("no", "flyttet|utsatt", "fra", "til", "ny (?:dato|tid)|nytt tidspunkt", "flyttet utsatt ny"),
    _Words("pl", "prze(?:niesion|łożon)[yaeo]", "z", "na", "now[ya] (?:termin|data|godzina)", "przenies przełoż now"),
)  # fmt: skip
STARTS: Final = frozenset(
    "vorv verl vers vert neue ersa jetz nun repo dépl avan déca repo nouv déso apla tras posp camb movi adel repr nuev ahor rinv spos post anti "
    "rima nuov verp verz uitg verv nieu adia tran rema ante nova novo fram flyt ny nytt udsa utsa prze nowy nowa".split()
)
"""How their words begin, four letters of each in small: most texts are spared the patterns."""
_REASON: Final = r"(?i)\s(?:wegen|aufgrund|weil|en raison|à cause|cause|pour|por|debido|per|a causa|vanwege|wegens|door|devido|på grund|grundet|z powodu)\b.*"
_LATER: Final = (
    r"(?i)morgen|nächste[nrs]? \w+|(?:un|einen) (?:anderen|späteren) \w+|demain|(?:la |le )?\w+ (?:prochaine?|suivante?)|lendemain|"
    r"mañana|(?:la |el )?(?:próxim[oa] \w+|\w+ (?:próxim[oa]|siguiente|que viene))|domani|(?:la |il )?(?:prossim[oa] \w+|\w+ (?:prossim[oa]|successiv[oa]))|"
    r"volgende \w+|amanhã|próxim[oa] \w+|nästa \w+|i morgon|neste \w+|næste \w+"
)
"""Days that are told from the one on which they are said."""
_BY: Final = (
    r"(?:um|d['’]|de|con|una?|di|met|em|med|o) ?(?:eine[nr]?|une?|una?|uno|een|uma?|en|ett|zwei|deux|dos|due|twee|två|to|\d+)? ?"
    r"(?:woche[n]?|tage?n?|stunden?|semaines?|jours?|heures?|semanas?|d[ií]as?|horas?|settiman[ae]|giorn[oi]|or[ae]|we(?:ek|ken)|dag(?:en)?|uur|veck[ao]r?|timm[ae]r?|uger?|timer?|tydzień)"
)
_SMALL: Final = r"(?:(?:den|dem|le|el|il|lo|la|las|de|o|os|den|am|um|kl|klo|godz|h)\b\.?\s)*"
"""Words between, and the day or the time: figures or a weekday."""


def moved_abroad(text: str) -> tuple[str, Moment, Lexicon] | None:
    """What a text says at its end of another date or time, and how that reads; None for others.

    >>> moved_abroad("Probe verschoben auf 21. Oktober")[0], moved_abroad("Cours (reporté au 21 octobre)")[0]
    ('verschoben auf 21. Oktober', 'reporté au 21 octobre')
    >>> moved_abroad("Probe verlegt in Raum 12"), moved_abroad("Cours déplacé au gymnase")
    (None, None)
    """
    folded = text.casefold()
    for words in _WORDS:
        found = _pattern(words).search(text) if any(map(folded.__contains__, words.stems.split())) else None
        lexicon = lexicon_of(words.language) if found is not None else None
        if found is None or lexicon is None:
            continue
        new = re.sub(_REASON, "", found["new"] or found["renewed"] or found["by"]).strip(" .!)]")
        is_weekday = len(new.split()) == 1 and fold(new.strip(".,")) in lexicon.weekdays
        if is_weekday or found["by"] or re.fullmatch(_LATER, new):
            return found["said"].rstrip(")] "), Moment(), lexicon
        read = (read_moment(new, role, lexicon) for role in ("date", "time"))
        moment = next((one for one in read if isinstance(one, Moment) and (one.first or one.start)), None)
        if moment is not None:
            return found["said"].rstrip(")] "), moment, lexicon
    return None


@cache
def _pattern(words: _Words) -> re.Pattern[str]:
    moved = rf"(?:{words.moved})(?:(?:\s(?:{words.since})\b.*?)?\s(?:{words.towards})\s{_SMALL}(?P<new>\w.*)|\s(?P<by>{_BY}))"
    renewed = rf"(?:{words.now})(?:\s(?:ist|est|es|è|is|é|är|er|to))?[\s:–-]+{_SMALL}(?P<renewed>\w.*)"
    return re.compile(rf"(?i)(?<!\w)(?P<said>{moved}|{renewed})$")
