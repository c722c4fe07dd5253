"""Cells that choose among few answers: yes and no, status, privacy, busy, priority."""

import re

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import fold
from nomarium.sheets.sheet import cell_text

_YES = frozenset(
    "yes y true t 1 x on ✓ ✔ ☑ ✅ √ oui o vrai ja j wahr si s verdadero cierto waar sim s v tak ano kylla igen evet".split()
)
_NO = frozenset(
    "no n false f 0 off - – ✗ ✘ ☐ ✕ non faux nein falsch falso nee onwaar nao nej nei nie ne ei nem hayir".split()
)

_LEAST_BEHIND = 7
"""Letters from which on a word for cancelled counts behind a title."""
_SHORT_BEHIND = frozenset("annule aflyst avlyst".split())
"""Shorter ones that do, and are no other words."""
_PUT_OFF = (
    "postponed reporte reportee verschoben aplazado aplazada pospuesto pospuesta uitgesteld rinviato rinviata"
)
"""What cancels a date, and not what was to be on it."""
_STATUS = {
    "CONFIRMED": "confirmed confirme confirmee bestatigt confirmado confirmada bevestigd definite firm final "
    "fest yes accepted scheduled ok active agreed approved booked go-ahead going-ahead zugesagt live published "
    "confermato confermata potwierdzone bekraftad bekræftet bekreftet "
    # how far a task is: its date stands
    "done complete completed finished closed paid open new to-do todo not-started started in-progress ongoing under-way "
    "underway sent submitted received ready on-track overdue erledigt offen fait hecho",
    "TENTATIVE": "tentative provisional provisoire vorlaufig provisorisch provisional tentativo voorlopig "
    "pencilled penciled planned draft maybe possible unconfirmed pending tbc tba to-be-confirmed weather-permitting subject-to-weather if-fine proposed option on-hold hold awaiting waiting requested enquiry "
    "geplant angefragt unter-vorbehalt in-planung sous-reserve prevu prevue a-confirmer a-confirmar por-confirmar pendiente provisorio provisoria "
    "provvisorio provvisoria da-confermare onder-voorbehoud preliminar preliminart preliminær foreløpig wstepnie wstepny",
    "CANCELLED": "cancelled canceled annule annulee annulle annullato annullata abgesagt storniert entfallt fallt-aus "
    "entfallen ausgefallen cancelado cancelada anulado anulada suspendido suspendida suspendu suspendue sospeso sospesa geannuleerd afgelast vervallen odwolane "
    "odwolany odwolana odwolano odwołane odwołany odwołana odwołano installt installd installda aflyst avlyst kansellert peruttu vervalt off withdrawn cancel called-off abandoned rained-off canx cxl "
    f"not-going-ahead not-running not-happening not-held scrapped declined rejected dropped {_PUT_OFF}",
}
_PRIVACY = {
    "PUBLIC": "public publique offentlich publico publica openbaar normal open everyone default",
    "PRIVATE": "private prive privee privat privado privada personal personnel personnelle personlich "
    "persoonlijk prive",
    "CONFIDENTIAL": "confidential confidentiel confidentielle vertraulich confidencial vertrouwelijk",
}
_BUSY = {
    "busy": "busy occupe occupee beschaftigt gebucht ocupado ocupada bezet opaque out-of-office oof away "
    "out-of-the-office working-elsewhere absent abwesend blocked unavailable",
    "free": "free libre frei verfugbar disponible vrij beschikbaar transparent available elsewhere",
}
_PRIORITIES = {"high": 1, "urgent": 1, "haute": 1, "elevee": 1, "hoch": 1, "alta": 1, "hoog": 1,
               "important": 1, "medium": 5, "normal": 5, "normale": 5, "moyenne": 5, "mittel": 5,
               "media": 5, "normaal": 5, "low": 9, "basse": 9, "faible": 9, "niedrig": 9, "baja": 9,
               "laag": 9, "none": 0}  # fmt: skip


def _table(groups: dict[str, str]) -> dict[str, str]:
    return {word: answer for answer, words in groups.items() for word in words.split()}


_STATUSES, _PRIVACIES, _BUSINESS = _table(_STATUS), _table(_PRIVACY), _table(_BUSY)


CANCELLING = frozenset(_STATUS["CANCELLED"].split())
CANCELLING_STARTS = frozenset(
    cased
    for word in (*CANCELLING, "fäll", "annulé", "odwoł", "inställ", "n/a")
    for cased in (word[:4], word[:4].upper(), word[:4].capitalize())
)
"""How a text may begin that says it is cancelled, four letters of it: for those who cannot look at all of it."""


def read_yes_no(cell: Cell) -> bool | Refusal:
    """A yes or a no in words, ticks or figures.

    >>> read_yes_no("Oui"), read_yes_no("✗"), read_yes_no(1.0)
    (True, False, True)
    """
    if isinstance(cell, bool):
        return cell
    text = cell_text(cell)
    word = fold(text)
    if word in _YES:
        return True
    if word in _NO:
        return False
    return Refusal("yes-no-unread", f"“{text}” is neither yes nor no.", "Write yes or no, or leave it blank.")


def read_status(text: str) -> str | Refusal:
    """CONFIRMED, TENTATIVE or CANCELLED (RFC 5545, 3.8.1.11)."""
    if says_cancelled_why(text):
        return "CANCELLED"
    return _chosen(text, _STATUSES, "status", "confirmed, tentative or cancelled")


def says_cancelled(text: str) -> bool:
    """Whether a text is a word for cancelled and nothing else."""
    return _STATUSES.get(_one_word(text)) == "CANCELLED"


_WITH_REASON = (
    r"(?P<word>[^\W\d_]+(?:[- ](?:off|running|happening|held|going ahead))?)"
    r"(?:\s*[-–—:;,(/].*|\s+(?:by|due|because|owing|as|through|after|following|wegen|pour|por|door)\b.*)"
)
_OTHERWISE = r"(?i)\b(?:if|unless|when|may|might|could|not|falls|si)\b"
_ALONE_ONLY = frozenset(("off", "cancel", "dropped", "rejected", "declined"))
"""What cancels where it stands alone: `Cancel by Friday` and `Dropped by parents` do not."""


def says_cancelled_why(text: str) -> bool:
    """Whether a text says that something is cancelled, and no more than why.

    >>> says_cancelled_why("Cancelled - wind"), says_cancelled_why("Cancelled if wet"), says_cancelled_why("Cancel by Friday")
    (True, False, False)
    """
    said = re.fullmatch(_WITH_REASON, text)
    if said is None or _one_word(said["word"]) in _ALONE_ONLY or not says_cancelled(said["word"]):
        return False
    return re.search(_OTHERWISE, text[said.end("word") :]) is None


def says_not_held(text: str) -> bool:
    """Whether a text says that something is not held, or not then, whatever it is about: one that may be declined is an answer.

    >>> says_not_held("Postponed"), says_not_held("CANCELLED - wind"), says_not_held("Declined"), says_not_held("2-1")
    (True, True, False, False)
    """
    if text.lstrip(" !*.")[:4] not in CANCELLING_STARTS:
        return False  # most texts
    return (says_cancelled(text) and _one_word(text) not in _ALONE_ONLY) or says_cancelled_why(text)


def says_put_off(text: str) -> bool:
    """Whether a text is a word for postponed and nothing else."""
    return _one_word(text) in _PUT_OFF.split()


def _one_word(text: str) -> str:
    return "-".join(fold(text).strip(" !*.").split())


def ends_cancelled(text: str) -> bool:
    """Whether a text that stands behind a title is a word for cancelled that is no other word there: `off` may be."""
    is_sure = len(text.strip(" !*.")) >= _LEAST_BEHIND or _one_word(text) in _SHORT_BEHIND
    return is_sure and says_cancelled(text)


def read_privacy(text: str) -> str | Refusal:
    """PUBLIC, PRIVATE or CONFIDENTIAL (RFC 5545, 3.8.1.3). A yes means private, a no public."""
    flag = read_yes_no(text)
    if isinstance(flag, bool):
        return "PRIVATE" if flag else "PUBLIC"
    return _chosen(text, _PRIVACIES, "privacy", "public, private or confidential")


def read_busy(cell: Cell) -> bool | str | Refusal:
    """Whether the time counts as taken (RFC 5545, TRANSP); TENTATIVE, a status, for time that may be taken."""
    text = cell_text(cell)
    if _STATUSES.get("-".join(fold(text).split())) == "TENTATIVE":
        return "TENTATIVE"
    answer = _chosen(text, _BUSINESS, "busy", "busy, free or tentative")
    if isinstance(answer, Refusal):
        flag = read_yes_no(cell)
        return answer if isinstance(flag, Refusal) else flag
    return answer == "busy"


def read_priority(text: str) -> int | Refusal:
    """0 to 9 (RFC 5545, 3.8.1.9), or a word for it."""
    word = fold(text)
    if word.isdecimal() and len(word) < 5 and int(word) <= 9:
        return int(word)
    if word in _PRIORITIES:
        return _PRIORITIES[word]
    return Refusal(
        "priority-unread",
        f"“{text}” is no priority.",
        "Write high, medium, low or a figure from 1 to 9.",
    )


def _chosen(text: str, answers: dict[str, str], name: str, forms: str) -> str | Refusal:
    word = "-".join(fold(text).split())
    if word in answers:
        return answers[word]
    return Refusal(f"{name}-unread", f"“{text}” is not a known {name}.", f"Write {forms}.")
