"""Words that stand around a time, or in the place of one."""

from typing import Final

OPEN_ENDS: Final = frozenset("late dusk dark sunset close closing finish whenever".split())
"""Words for an end that no clock says, `10am till late`."""
UNKNOWN_WORDS: Final = frozenset("tbc tba tbd ? ?? ??? unknown nnb ntb volgt folgt pendiente følger avoin".split()) | {
    "a definir", "por definir", "a determinar", "da confermare", "da definire", "da stabilire", "a confirmar", "wird noch bekannt gegeben", "wird noch bekanntgegeben", "noch festzulegen", "meddelas senare", "ej bestamt", "oplyses senere", "kommer senere", "ilmoitetaan myohemmin", "do ustalenia", "do potwierdzenia",
    "open end", "open ended", "a determiner", "a preciser", "a venir", "por determinar", "noch offen", "offenes ende", "late", "dusk", "sunset", "to be confirmed", "to be announced", "to be decided", "a confirmer", "por confirmar", "nog te bepalen", "nader te bepalen", "n n", "n.n.", "n. n.", "n.t.b.", "n.n.b.", "offen", "steht noch nicht fest", "steht noch aus", "per definire",
}  # fmt: skip
_LEADS: Final = (
    "a las|a la|vers les|vers|gegen|environ|env|sobre las|hacia las|verso le|rond|a partir de las|a partir das|a partir de|desde las|from|ab|des|at|@|de|von|um|om|vanaf|van|desde|a|as|das|las|klo|kl|dalle ore|alle ore|ore|dalle|alle|o godz|godz|"
    "godzina|orele|ora|saat|pukul|jam|ura|luc|ob|u|v|vid|ot|в|с|о|з|от|στις|בשעה|שעה|الساعة|starts at|starting at|starts|start|begins at|begins|doors open at|doors open|doors at|doors|"
    "kick off at|kick off|kick-off|kickoff|ko|curtain up|curtain|ca|circa"
)
BEFORE: Final = rf"^(?:{_LEADS})\b\.?\s*|^@\s*"
FIRST_OF_LEADS: Final = frozenset(lead.split()[0] for lead in _LEADS.split("|"))
AFTER: Final = r"[\s,]*(?:\b(?:sharp|prompt|start|kick[- ]?off|ko|curtain(?: up)?|onwards?|(?:each|every|per) day|both days|daily|taglich|jeden tag|tous les jours|chaque jour)|[*†])$"
LAST_OF_AFTER: Final = (
    "sharp", "prompt", "start", "off", "ko", "curtain", "up", "*", "†", "onward", "onwards", "day", "days", "daily", "taglich", "tag", "jours", "jour",
)  # fmt: skip
"""How texts end that have such words; the pattern is tried on no others."""
ALL_DAY_WORDS: Final = frozenset(
    ("all day", "allday", "all-day", "full day", "whole day", "toute la journee", "journee entiere",
     "all-day event", "all day event", "journee complete", "jour entier", "ganztagig", "ganztags", "ganzer tag", "den ganzen tag",
     "todo el dia", "dia completo", "hele dag", "de hele dag", "ganse dag", "tutto il giorno", "intera giornata", "giornata intera",
     "tutta la giornata", "o dia todo", "dia todo", "dia inteiro", "todo o dia", "hela dagen", "heldag", "hele dagen", "heldags",
     "koko paiva", "koko paivan", "cały dzien", "całodniowe", "cely den", "celodenni")
)  # fmt: skip
