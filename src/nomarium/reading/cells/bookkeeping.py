"""Lines and titles that speak of the table itself: when it was changed, printed or agreed on. They are no events."""

import re
from typing import Final

from nomarium.reading.cells.words import fold

_MADE: Final = r"(?:(?:next\s+)?updated?|posted|published|uploaded|printed|revised|revision|rev(?=\.?\s*[\d:])|reviewed|created|modified|generated|issued|saved|prepared|compiled|approved|adopted|ratified|endorsed|amended|stand|dated?|draft|version(?:\s+[\d.]+)?+|page)"
_PAPER: Final = r"(?:(?:this|the)\s+)?(?:page|calendar|timetable|list|programme|program|schedule|rota|sheet|table|document|file|plan|version|newsletter|term dates|dates)"
_NAME: Final = r"(?:(?:(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?|jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\b|[^\W\d_]+\.?\s+\d{4}\W*$)"
_BOOKKEEPING: Final = (
    rf"(?i)^\W*(?:{_PAPER}\s+(?:was\s+|is\s+)?)?{_MADE}\s*(?:[:.,;(]|[–—]|-\s|$|\d|(?:on|at|by|as|am|vom|le|du|of\s+(?:issue|print\w*|last))\b|{_NAME})|"
    r"\blast\s+(?:updated?|changed?|modified|revised|reviewed|saved)\b|\bas\s+(?:of|at)\b|\bcorrect\s+(?:of|at)\b|\bmise?\s+à\s+jour\b|\baktualisiert\b|"
    r"\bvalid\s+from\b|\b(?:updated|printed|revised|reviewed|created|modified|generated|dated)\s*(?:(?:on|at)\b|:|\d)|\bpage\s+\d+\s*(?:of|/)\s*\d|"
    r"\bversion\s+[\d.]+\s*(?:[,;()–—-]|of\b|$)|[(,–—-]\s*stand\s*(?:vom\b|:|\d)|^\W*(?:\w+\s+){0,4}subject\s+to\s+(?:change|changes|revision|approval|confirmation)\b"
)
"""A table, a list or a paper, or nothing, and what was done to it, before a date: `Report cards issued 20 November` is an event."""
_TITLE: Final = r"(?:last\s+(?:updated?|changed?|modified|revised|saved)|updated|printed|generated|created|modified|revised|version)(?:\s+(?:on|at|by))?"
_IN_OTHERS: Final = (
    *("mis à jour", "mise à jour", "dernière mise à jour", "prochaine mise à jour", "dernière modification", "modifié", "imprimé", "édité"),
    *("édition", "créé", "établi", "document établi", "révisé", "exporté", "état", "approuvé", "généré", "publié"),
    *("stand", "aktualisiert", "letzte aktualisierung", "nächste aktualisierung", "letzte änderung", "geändert", "zuletzt geändert"),
    *("zuletzt aktualisiert", "zuletzt bearbeitet", "gedruckt", "druckdatum", "erstellt", "ausdruck", "exportiert", "beschlossen", "fassung"),
    *("genehmigt", "freigegeben", "actualizado", "actualizada", "última actualización", "próxima actualización", "última modificación"),
    *("fecha de actualización", "fecha de impresión", "impreso", "creado", "versión", "revisado", "exportado", "aprobado", "elaborado"),
    *("aggiornato", "aggiornata", "ultimo aggiornamento", "prossimo aggiornamento", "ultima modifica", "stampato", "creato", "versione"),
    *("approvato", "esportato", "rivisto", "bijgewerkt", "laatst bijgewerkt", "laatst gewijzigd", "laatste wijziging", "laatste update"),
    *("gewijzigd", "afgedrukt", "geprint", "gemaakt", "opgesteld", "versie", "vastgesteld", "geëxporteerd", "atualizado", "atualizada"),
    *("última atualização", "próxima atualização", "última modificação", "impresso", "criado", "versão", "aprovado", "revisto", "exportado"),
    *("uppdaterad", "senast uppdaterad", "senast ändrad", "ändrad", "utskriven", "skapad", "fastställd", "reviderad", "opdateret"),
    *("sidst opdateret", "sidst ændret", "udskrevet", "oprettet", "revideret", "godkendt", "oppdatert", "sist oppdatert", "sist endret"),
    *("utskrevet", "opprettet", "versjon", "revidert", "godkjent", "päivitetty", "viimeksi päivitetty", "tulostettu", "muutettu", "versio"),
    *("luotu", "zaktualizowano", "aktualizacja", "ostatnia aktualizacja", "wydrukowano", "utworzono", "wersja", "stan na"),
    *("aktualizováno", "poslední aktualizace", "vytištěno", "vytvořeno", "verze", "version"),
)  # fmt: skip
_OTHERS: Final = frozenset(map(fold, _IN_OTHERS))
_AGREED: Final = frozenset(("approuvé", "approvato", "aprobado", "aprovado"))
"""What is said in lines, and in no title: these begin as other words do."""
_FIRST: Final = frozenset(said.split()[0] for said in _OTHERS)
_JOINTS: Final = frozenset(
    "le la du de au en am vom per zum der dem el del al il op van em a den af av i o dnia na den dne ao as the on".split()
)
BOOKS: Final = (
    *("last", "updated", "printed", "generated", "created", "modified", "revised", "version"),
    *(word for said in _IN_OTHERS if said not in _AGREED for word in (said, fold(said))),
)
"""How such a title begins."""
_BEGIN: Final = frozenset(word[:4] for word in BOOKS)


def keeps_books(text: str) -> bool:
    """Whether a text speaks of the table itself: when it was changed, printed or is valid.

    >>> keeps_books("Printed on 3 March"), keeps_books("Zuletzt geändert am Montag, 7. September"), keeps_books("Report cards issued 20 May")
    (True, True, False)
    """
    return re.search(_BOOKKEEPING, text) is not None or _in_other_language(text)


def is_bookkeeping(title: str) -> bool:
    """Whether a title speaks of the table itself: when it was changed or printed.

    >>> is_bookkeeping("Last updated"), is_bookkeeping("Letzte Änderung:"), is_bookkeeping("Updated safety training")
    (True, True, False)
    """
    if title[:4].casefold() not in _BEGIN:
        return False
    said = title.strip(" :").casefold()
    return re.fullmatch(_TITLE, said) is not None or _is_made(re.findall(r"\w+", fold(said)))


def _in_other_language(text: str) -> bool:
    """Whether what stands before the first figure of a text is what was done to a table."""
    before = re.split(r"\d", text, maxsplit=1)
    return len(before) > 1 and _is_made(re.findall(r"\w+", fold(before[0])))


def _is_made(words: list[str]) -> bool:
    """Whether words (folded) are one of `_OTHERS`, but for weekdays and months, and for those that lead to a date."""
    if not words or words[0] not in _FIRST:
        return False
    if _without_joints(words) in _OTHERS:
        return True
    from nomarium.reading.cells.namelist import known_by_likely  # reads the list of all names

    return _without_joints([word for word in words if not known_by_likely(word)]) in _OTHERS


def _without_joints(words: list[str]) -> str:
    """Words without those at their end that lead to a date."""
    last = next((n for n in range(len(words), 0, -1) if words[n - 1] not in _JOINTS), 0)
    return " ".join(words[:last])
