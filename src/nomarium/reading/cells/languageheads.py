"""Which language a table is headed in, where the short names of its weekdays are of several: `Di` is a Sunday under *Jour* and a
Tuesday under *Tag*."""

import re
from collections.abc import Iterable
from typing import Final

from nomarium.reading.cells.words import fold

_HEADS: Final = {
    "fr": "jour jours heure heures horaire horaires cours lieu salle matiere professeur prof activite evenement debut fin classe eleve nom semaine equipe",
    "de": "tag tage datum zeit uhrzeit uhr ort raum fach lehrer lehrerin lehrkraft kurs thema veranstaltung beginn ende klasse schuler woche dienst gruppe",
    "es": "dia dias fecha hora horas horario lugar aula sala clase curso profesor profesora actividad asignatura inicio evento alumno semana equipo nombre",
    "nl": "dag dagen datum tijd tijden plaats lokaal les vak docent activiteit begin eind einde klas week dienst groep naam wie wat waar",
    "it": "giorno giorni data ora orario luogo aula corso materia docente insegnante attivita inizio fine classe settimana squadra nome",
    "sv": "dag datum tid plats lokal lektion kurs larare klass vecka grupp namn aktivitet",
    "da": "dag dato tid sted lokale lektion fag laerer klasse uge hold navn aktivitet",
    "nb": "dag dato tid sted rom time fag laerer klasse uke gruppe navn aktivitet",
    "fi": "paiva paivamaara aika kello paikka luokka kurssi opettaja viikko ryhma nimi",
}
"""Words (folded) that head columns in a language; those that several share say nothing between these."""
_LOOKED_AT: Final = 400
"""Texts among which they are looked for."""


def headed_in(codes: Iterable[str], texts: Iterable[str]) -> str:
    """The one of some languages that the most of its words head a table in; empty when none does, or several do."""
    words = set[str]()
    for _, text in zip(range(_LOOKED_AT), texts, strict=False):
        words |= set(re.findall(r"[^\W\d_]{2,}", fold(text)))
    counts = {code: len(words & set(_HEADS.get(code, "").split())) for code in codes}
    most = max(counts.values(), default=0)
    first = [code for code, count in counts.items() if count == most]
    return first[0] if most and len(first) == 1 else ""
