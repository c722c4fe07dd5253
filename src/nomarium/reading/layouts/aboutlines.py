"""Lines that say more of an event, and never what it is: `Tutor: M. Quill`, `Fee $120`, `Tickets: 902 555 0142`."""

import re
from typing import Final

from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import match_exactly

_LABEL: Final = re.compile(r"(?P<label>[^\W\d][\w &/'’]{1,24}?)\s*[:：]\s*\S")
_PRICE: Final = re.compile(
    r"(?i)(?:entry |course |ticket )?(?:fees?|costs?|prices?|tickets?|entry|admission|kosten|preis|prix|tarif|precio)\b[^:]{0,20}?(?:[$£€]|\d|\bfree\b|\bgratis\b)"
)
_OF_EVENT: Final = frozenset(
    ("teacher", "organizer", "attendees", "room", "location", "group", "audience", "description", "url", "conference", "status", "rsvp")
)  # fmt: skip
"""What headings may call a column that is beside the titles."""
_ABOUT: Final = frozenset(
    "fee fees cost costs price prices charge level ages age tickets ticket booking bookings bring dress chair coach speaker "
    "speakers equipment materials prerequisites admission entry email mail tel telephone phone mobile website capacity places "
    "kosten preis gebuhr leitung leiter leiterin referent referentin anmeldung prix tarif cout animateur animatrice "
    "intervenant inscription precio imparte coste docente costo".split()
)


def says_about(text: str) -> bool:
    """Whether a line says who leads an event, what it costs or whom to ask, by its label.

    >>> says_about("Course leader: A. Moss"), says_about("Fee $65"), says_about("Exam: Knots"), says_about("Fair: all welcome")
    (True, True, False, False)
    """
    if _PRICE.match(text):
        return True
    labelled = _LABEL.match(text)
    if labelled is None:
        return False
    label = fold(labelled["label"]).strip()
    last = label.rpartition(" ")[2]
    if {label, last} & _ABOUT or label.endswith((" by", " code", " to")):
        return True
    found = match_exactly(label) or match_exactly(last)
    return found is not None and not found.is_weak and found.field in _OF_EVENT
