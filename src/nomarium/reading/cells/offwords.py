"""Words in the names of terms and of days without school."""

import re
from typing import Final

from nomarium.reading.cells.words import fold

OFF_WORDS: Final = (
    r"\b(?:holidays?|day off|no school|no (?:class(?:es)?|lessons?)|week off|clos(?:ed|ure)|breaks?|vacation|recess|pd day|p\.?d\.?|in-?service|inset|staff day|snow days?|storm days?|professional (?:development|learning)|"
    r"half[- ]?terms?|thanksgiving|christmas|easter|remembrance|labou?r day|victoria day|new year|good friday|heritage day|march break|reading weeks?|"
    r"conges?|ferie|vacances|relaches?|fermee?s?|fermetures?|\w*ferien|feiertage?|geschlossen|schlie(?:ss|ß)tage?|feriados?|festivos?|vacaciones|puentes?|cerrad[oa]s?|cierre|asueto|"
    r"vacanz[ae]|chius[oa]|chiusura|\w*vakanties?|gesloten|ferias|fechad[oa]|(?:host|sport|pask|jul|sommar)lov|stangt|\w*ferier?|\w*ferien|lukket|stengt|helligdage?|\w*loma|suljettu|"
    r"przerwa|zamkniete|prazdniny)\b"
)
_CLOSED: Final = r"\b(?:no (?:school|classes|class|lessons?)|clos(?:ed|ure)|day off|schulfrei|unterrichtsfrei|fermee?s?|geschlossen|cerrad[oa]s?|chius[oa]|gesloten|fechad[oa]|stangt|lukket|stengt)\b"
_EVENTS: Final = (
    r"\b(?:fairs?|fayre|part(?:y|ies)|concerts?|camps?|lunch(?:eon)?|dinner|breakfast|tea|market|trips?|shows?|plays?|performances?|assembly|service|carols?|races?|"
    r"regatta|disco|sale|bazaar|menu|registration|enrolment|workshops?|clubs?|practices?|rehearsals?|meetings?|picnic|walk|hunt|parade|ceremony|crafts?|cards?|quiz|"
    r"raffle|exams?|tests?|deadline|production|nativity|panto(?:mime)?|gala|match(?:es)?|tournament|cup|cruise|supper|ball|homework|courses?|training|markt|feier|konzert|fete|marche)\b"
)
"""What is held on a day that is named after a feast or a holiday: `Christmas fair`, `Half term camp`."""
_TERM_WORDS: Final = r"\b(?:terms?|semesters?|trimesters?|trimestres?|quarters?|half[- ]?year|halbjahr|semestre|autumn|fall|winter|spring|summer|michaelmas|lent|hilary|trinity)\b"
_OF_BELLS: Final = (
    r"\b(?:timetable|schedule|bells?|dismissal|early (?:closing|finish|release|close|departure)|late (?:start|opening|arrival)|"
    r"(?:half|short|minimum|shortened|early) days?|noon|midday|collapsed)\b"
)


def is_off(name: str) -> bool:
    """Whether a name is that of days without school: `Half term`, `Easter break`; not `Easter term`."""
    said = fold(name)
    if re.search(_EVENTS, said) and not re.search(_CLOSED, said):
        return False
    if re.search(
        r"\b(?:term|semester|trimester|quarter)\b", re.sub(r"\bhalf[- ]?terms?\b(?!\s*\d)", "", said)
    ):
        return re.search(r"\b(?:holidays?|breaks?|clos(?:ed|ure)|no school|vacation)\b", said) is not None
    return re.search(OFF_WORDS, said) is not None


def line_is_off(text: str) -> bool:
    """Whether a line that names days says that they are without school: `Half term 26-30 October`, which is no second half."""
    return is_off(re.sub(r"\d+", " ", text))


def is_term(name: str) -> bool:
    """Whether a name is that of a term, or of the holidays after one."""
    return re.search(_TERM_WORDS, fold(name)) is not None


def changes_bells(name: str) -> bool:
    """Whether what is on changes the bells or the timetable of its date: `Early closing`, `Half day`."""
    return re.search(_OF_BELLS, fold(name)) is not None
