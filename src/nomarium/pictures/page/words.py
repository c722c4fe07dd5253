"""The few words of a page in the languages that it speaks; English where it does not speak one."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

_ENGLISH: Final = MappingProxyType({
    "month": "Month", "week": "Week", "list": "List", "earlier": "Earlier", "later": "Later", "today": "Today",
    "find": "Find", "show": "Show as", "all": "all", "categories": "Category", "teacher": "Teacher", "class": "Class",
    "room": "Room", "all_day": "all day", "until": "until", "of": "of", "events": "events", "none": "Nothing here.",
    "more": "More", "cancelled": "cancelled", "tentative": "not certain", "link": "Link", "join": "Join",
    "keys": "The arrow keys turn the pages of a month or week.", "calendars": "Calendars", "look": "Look",
    "subscribe": "Subscribe", "save": "Save the file", "event": "event", "no_title": "(no title)", "legend": "Colours", "labels": "days with a label",
})  # fmt: skip
_FRENCH: Final = MappingProxyType({
    "month": "Mois", "week": "Semaine", "list": "Liste", "earlier": "Avant", "later": "Après", "today": "Aujourd’hui",
    "find": "Chercher", "show": "Afficher", "all": "tout", "categories": "Catégorie", "teacher": "Enseignant",
    "class": "Cours", "room": "Salle", "all_day": "toute la journée", "until": "jusqu’au", "of": "sur",
    "events": "événements", "none": "Rien ici.", "more": "Plus", "cancelled": "annulé", "tentative": "incertain",
    "link": "Lien", "join": "Rejoindre", "keys": "Les flèches tournent les pages d’un mois ou d’une semaine.",
    "calendars": "Calendriers", "look": "Voir", "subscribe": "S’abonner", "save": "Enregistrer le fichier",
    "event": "événement", "no_title": "(sans titre)", "legend": "Couleurs", "labels": "jours avec un nom",
})  # fmt: skip
_GERMAN: Final = MappingProxyType({
    "month": "Monat", "week": "Woche", "list": "Liste", "earlier": "Früher", "later": "Später", "today": "Heute",
    "find": "Suchen", "show": "Zeigen als", "all": "alle", "categories": "Art", "teacher": "Lehrkraft",
    "class": "Kurs", "room": "Raum", "all_day": "ganztägig", "until": "bis", "of": "von", "events": "Termine",
    "none": "Hier ist nichts.", "more": "Mehr", "cancelled": "abgesagt", "tentative": "noch nicht sicher",
    "link": "Link", "join": "Teilnehmen", "keys": "Die Pfeiltasten blättern in Monat und Woche.",
    "calendars": "Kalender", "look": "Ansehen", "subscribe": "Abonnieren", "save": "Datei speichern",
    "event": "Termin", "no_title": "(ohne Titel)", "legend": "Farben", "labels": "benannte Tage",
})  # fmt: skip
_SPANISH: Final = MappingProxyType({
    "month": "Mes", "week": "Semana", "list": "Lista", "earlier": "Antes", "later": "Después", "today": "Hoy",
    "find": "Buscar", "show": "Mostrar", "all": "todo", "categories": "Categoría", "teacher": "Docente",
    "class": "Clase", "room": "Sala", "all_day": "todo el día", "until": "hasta el", "of": "de", "events": "actos",
    "none": "Nada aquí.", "more": "Más", "cancelled": "cancelado", "tentative": "sin confirmar", "link": "Enlace",
    "join": "Unirse", "keys": "Las flechas pasan las páginas de un mes o una semana.", "calendars": "Calendarios",
    "look": "Ver", "subscribe": "Suscribirse", "save": "Guardar el archivo", "event": "acto",
    "no_title": "(sin título)", "legend": "Colores", "labels": "días con nombre",
})  # fmt: skip
_LANGUAGES: Final = {"en": _ENGLISH, "fr": _FRENCH, "de": _GERMAN, "es": _SPANISH}


def words_in(language: str) -> Mapping[str, str]:
    """The words of a language (`fr-CA`)."""
    return _LANGUAGES.get(language.partition("-")[0], _ENGLISH)


def language_of(language: str) -> str:
    """The language in which the words are, as HTML has it."""
    return language if language.partition("-")[0] in _LANGUAGES else "en"
