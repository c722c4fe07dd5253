"""The headings of a plan's tables, and what a heading means in them."""

import re
from collections.abc import Mapping
from functools import cache, lru_cache
from types import MappingProxyType
from typing import Final

from nomarium.model.limits import LONGEST_CELL
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import in_full, match_heading

HEADINGS: dict[str, dict[str, str]] = {
    # table: field → its heading, and after it other spellings that are taken for it
    "settings": {"setting": "Setting, name, option, key, parametre, reglage", "value": "Value, is, valeur"},
    "terms": {
        "name": "Name, term, term name, title, semester, nom, trimestre, semestre, halbjahr, periode, periodo, cuatrimestre, naam, bezeichnung",
        "first": "First day, start, start date, begins, from, first, starts, premier jour, debut, du, dates, starts on, begins on, first day of classes, first class, von, ab, beginn, anfang, erster tag, inicio, desde, del, van, begin, inizio, dal",
        "last": "Last day, end, end date, ends, to, until, last, dernier jour, fin, au, finish, finishes, ends on, last day of classes, last class, bis, ende, letzter tag, hasta, al, tot, einde, fine",
        "division": "Division, section, school, departement",
        "weeks": "Weeks, number of weeks, no of weeks, wks, weeks long, length in weeks, nombre de semaines, semaines, wochen, semanas, weken",
        "code": "Code, term code, short, short name, abbreviation, abbr, sigle, kurzel, id",
    },
    "daysoff": {
        "name": "Name, what, holiday, title, day off, reason, event, description, nom, conge, closure, why, occasion, ferien, feiertag, anlass, grund, raison, motif, vacances, vacaciones, festivo, motivo, reden, vakantie, naam, vacanza, causale, anledning, arsag",
        "first": "First day, date, day, start, start date, from, first, begins, premier jour, debut, du, dates, when, closed, closed on, begins on, starts, von, ab, beginn, datum, inicio, desde, del, fecha, van, begin, inizio, dal, data",
        "last": "Last day, end, end date, to, until, last, ends, dernier jour, fin, au, bis, ende, hasta, al, tot, einde, fine",
        "cycle": "Cycle, rotation, effect on the cycle", "division": "Division, section, school",
        "kind": "Kind, type, category, categorie, genre",
    },
    "cycle": {
        "label": "Label, day, cycle day, code, letter, jour, jour du cycle, zyklustag, dia del ciclo, giorno del ciclo, etiquette, letter day, day letter, rotation day, day number, day no, day type, rotation", "name": "Name, day name, title, nom",
        "weekday": "Weekday, day of the week, day of week, jour de la semaine", "week": "Week, semaine",
        "date": "Date, dates", "bells": "Bells, schedule, bell schedule, day schedule, schedule type, bell",
    },
    "specialdays": {
        "first": "Date, first day, day, start, from, premier jour", "last": "Last day, end, to, until, end date, dernier jour",
        "label": "Label, cycle day, etiquette", "cycle": "Cycle, rotation, effect on the cycle",
        "bells": "Bells, schedule, bell schedule, horaire, sonnerie", "division": "Division, section, school",
        "name": "Name, what, title, event, occasion, nom, reason",
    },
    "bells": {
        "schedule": "Schedule, bell schedule, bells, day type, horaire", "label": "Label, day, cycle day, weekday",
        "division": "Division, section, school", "period": "Period, block, slot, lesson, code, periode, period no, period number, per, pd, prd, p, hour, class period, bell, session, stunde",
        "start": "Start, begins, start time, from, starts, debut, de, begin, begin time, starts at", "end": "End, ends, end time, to, until, fin, a, finish, finishes, ends at, finish time",
        "name": "Name, title, period name, nom", "time": "Time, times, hours, heures",
        "length": "Length, duration, minutes, mins, duree, dauer, duracion, durata, duur",
    },
    "timetable": {
        "class": "Class, what, course, section, class code, course code, code, subject, classe, cours, course number, course no, activity, lesson, module, club, kurs, fach, asignatura, materia, matiere, curso, vak, amne, disciplina, crs, crs-sec, course-section, crs section, unit, unit code, unit no, module code, subject code",
        "label": "Label, day, days, cycle day, jour, jours, weekday, weekdays, day of week, days of week, meeting days, letter day, day letter, rotation day, cycle days, letter, dow, letter days, day letters, tag, wochentag, tage, dia, dias, dag, giorno, giorni, dzien, veckodag",
        "period": "Period, periods, block, blocks, slot, periode, periodes, per, pd, prd, p, period no, hour, time slot",
        "start": "Start, start time, begin time, time start, starts at, begin, time from", "end": "End, end time, finish, finish time, time end, ends at, time to",
        "time": "Time, times, hours, when, heure, heures, class time", "length": "Length, duration, minutes, mins, length of class, duree, dauer, length (hours), hours long",
        "week": "Week, weeks, wk, wks, week type, week label, semaine, a b week, ab, ab week, odd even, odd/even, odd or even, a/b, a or b, a/b week, week a/b, week a b, which weeks, woche, wochen, semana, semanas, vecka, veckor, uke, uker, uge, settimana, kw, teaching weeks",
        "meets": "Meets, meeting times, pattern, meeting pattern, rencontres, meets on, days and times, days times, days & times, schedule, meetings, meeting days and times, when it meets, slots, days and periods",
        "title": "Title, name, course title, course name, class name, titre, unit name, unit title, module name, module title, subject name", "room": "Room, location, place, where, venue, salle, local, lieu",
        "teacher": "Teacher, teachers, instructor, staff, taught by, enseignant, prof, professeur, instructors, tutor, faculty, lehrer, docent, leader, coach, led by, run by", "group": "Group, groups, year group, form, students, audience, groupe",
        "term": "Term, terms, semester, trimestre, semestre, trm, sem, quarter, trimester, term code", "division": "Division, school", "notes": "Notes, note, description, comment, remarques, type, component, activity type, class type, format",
        "first": "First day, start date, from, starts, begins, first class, first meeting, class starts, course starts, from date, effective from, valid from, effective, effective date", "last": "Last day, end date, to, until, ends, last class, last meeting, class ends, course ends, runs until, to date, effective to, effective until, valid to, valid until",
    },
    "rotation": {
        "label": "Label, day, cycle day, letter, letter day", "period": "Period, slot, time slot", "block": "Block, blocks",
    },
    "enrolments": {
        "person": "Person, student, name, pupil, student name, learner, member, full name, attendee, eleve, apprentice", "class": "Class, course, classes, courses, section, class code, course code, cours, classe",
    },
    "names": {
        "code": "Code, short, abbreviation, abbr, initial, initials, class, key, kurzel, abkurzung, sigle, abreviatura, afkorting", "name": "Name, full name, title, long name, nom, subject, subject name, course, course name, course title, meaning, description, fach, matiere, asignatura, vak, teacher, teacher name, staff, staff name, instructor", "kind": "Kind, type, what, genre",
        "room": "Room, location, salle, local", "keep": "Keep, show, include, garder", "color": "Color, colour, couleur",
        "categories": "Categories, category, categorie, categories",
    },
    "people": {
        "name": "Name, full name, person, teacher, nom", "email": "Email, e-mail, mail, address, email address, courriel",
        "groups": "Groups, group, member of, groupes, groupe", "classes": "Classes, courses, enrolled in, cours",
        "code": "Initials, initial, staff code, teacher code, short name, abbreviation, abbr, kurzel, sigle, siglas, afkorting",
    },
    "places": {
        "name": "Name, place, place name, room, location, venue, where, code, lieu, salle, nom", "address": "Address, street, street address, adresse",
        "geo": "Coordinates, geo, lat long, latitude longitude, gps, coordonnees", "latitude": "Latitude, lat", "longitude": "Longitude, long, lon, lng",
        "url": "Link, url, map, map link, web, website, web page, lien",
    },
    "lessons": {
        "class": "Class, course, code, classe, cours", "title": "Title, lesson, topic, name, titre, lecon, sujet", "notes": "Notes, note, description, homework, remarques",
        "meetings": "Meetings, number of meetings, length, periods, lessons, rencontres",
    },
}  # fmt: skip
REQUIRED: dict[str, tuple[str, ...]] = {
    "settings": ("setting", "value"), "terms": ("name", "first"), "daysoff": ("name", "first"),
    "cycle": ("label",), "specialdays": ("first",), "bells": ("period",), "timetable": ("class",),
    "names": ("code",), "people": ("name",), "places": ("name",), "lessons": ("class", "title"), "enrolments": ("person", "class"),
    "rotation": ("block",),
}  # fmt: skip
_SAME: Final[Mapping[str, Mapping[str, str]]] = MappingProxyType({
    "timetable": {
        "location": "room", "day": "label", "repeat": "label", "duration": "length",
        "description": "notes", "audience": "group",
    },
    "bells": {"day": "label"},
})  # fmt: skip
"""Fields of a list, and what the tables of classes and bells call them."""
_TELLING: Final = frozenset(
    ("class", "label", "period", "start", "end", "time", "length", "room", "teacher", "group", "term", "division", "notes")
)  # fmt: skip
"""Fields that the heading of a list may say in a table of classes or bells."""
_OF_LABELS: Final = frozenset(
    "cycleday dayofcycle dayofthecycle dayofrotation daylabel letterday dayletter rotationday cyclelabel cycle dayincycle letter letters daytype typeofday".split()
)
_SUBJECTS: Final = frozenset(("subject", "department", "prefix"))
_BUILDINGS: Final = frozenset(("building", "campus", "site"))
_BESIDE: Final = r"[(\[].*?[)\]]|[*:]"
"""What may stand beside a heading: words in brackets, a colon."""
_ENDINGS: Final = r"(?i)(?<=\w)\s+(?:names?|no\.?|nr\.?|num|number|code|id|#)$|\s*#$"
"""What may follow a heading without making it another."""
NOT_ASKED: Final[Mapping[str, str]] = MappingProxyType({})
LESSONS: Final = frozenset(("lesson", "module", "lessons", "lessonno", "modul"))
"""Headings of periods over `P3` and `4`; over words they are those of classes."""


@lru_cache(maxsize=65_536)
def heads_labels(heading: str) -> bool:
    """Whether a heading can only be that of the labels of a cycle: `Day` could be a weekday's, `Cycle day` is not."""
    return plain(heading) in _OF_LABELS


def plain(text: str) -> str:
    """A name as names are compared: without case, accents, spaces, hyphens and underscores.

    >>> plain("Days-off") == plain(" days OFF ")
    True
    """
    return re.sub(r"[\s_\-‐–]+", "", fold(text))


@cache
def _spellings(name: str) -> Mapping[str, str]:
    found: dict[str, str] = {}
    most = max(listed.count(",") for listed in HEADINGS[name].values()) + 1
    for rank in range(most):  # every field's own heading first, then the other spellings in turn
        for field, listed in HEADINGS[name].items():
            words = listed.split(", ")
            if rank < len(words):
                found.setdefault(plain(words[rank]), field)
    return found


def asked_headings(columns: Mapping[str, str]) -> dict[str, str]:
    """What `--column` says that headings mean, in compared form."""
    return {plain(heading): field for heading, field in columns.items()}


def field_of(heading: str, name: str, asked: Mapping[str, str] = NOT_ASKED) -> str | None:
    """The field of a table that a heading names, None for none: as asked (`--column`), by a spelling of the table, written
    out in full, or in tables of classes and bells as a list's heading would."""
    if not heading or len(heading) > LONGEST_CELL:
        return None
    if plain(heading) in asked:
        field = asked[plain(heading)]
        return _SAME.get(name, NOT_ASKED).get(field, field) or None
    return _meant(heading, name)


@lru_cache(maxsize=4096)
def _meant(heading: str, name: str) -> str | None:
    known = _spellings(name)
    bare = re.sub(_BESIDE, "", heading)
    for form in (
        bare,
        in_full(bare),
        re.sub(_ENDINGS, "", bare.strip()),
        in_full(re.sub(_ENDINGS, "", bare.strip())),
    ):
        if plain(form) in known:
            return known[plain(form)]
    if name not in _SAME:
        return None
    parts = [part for part in re.split(r"[/|\n]", bare) if len(part.strip()) > 1]
    if len(parts) > 1:
        fields = {_meant(part, name) for part in parts}
        return fields.pop() if len(fields) == 1 else None
    match = match_heading(in_full(bare))
    field = _SAME[name].get(match.field, match.field) if match is not None else ""
    return field if field in _TELLING and field in HEADINGS[name] else None
