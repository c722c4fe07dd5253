"""Words for a half of the day behind a weekday: `Tues eve`, `Thursday mornings`."""

import re
from typing import Literal

from nomarium.model.limits import LONGEST_CELL
from nomarium.reading.cells.words import fold

Half = Literal["", "am", "pm"]

_MORNING = r"a\.?m\.?|mornings?|matin|vormittags?|manana|ochtend|mattina"
_LATER = (
    r"p\.?m\.?|eves?|evenings?|nights?|afternoons?|apres-midi|soir|nachmittags?|abends?|tarde|noche|"
    r"middag|avond|pomeriggio|sera"
)
_BEHIND = rf"(.*[^\W\d_]{{2}}.*?)[\s,.(-]+(?:(?P<am>{_MORNING})|(?:{_LATER}))\)?"


def without_half(text: str) -> tuple[str, Half]:
    """A text without the half of the day at its end, and which half that is; the whole text and nothing where none stands there.

    >>> without_half("Tues eve"), without_half("Saturday (am)"), without_half("Friday")
    (('tues', 'pm'), ('saturday', 'am'), ('Friday', ''))
    """
    found = re.fullmatch(_BEHIND, fold(text).strip()) if len(text) <= LONGEST_CELL else None
    if found is None:
        return text, ""
    return found[1], "am" if found["am"] else "pm"


def in_half(time: str, half: Half) -> str:
    """A time, or a range of them, that begins in a half of the day; one that says its own stays.

    >>> in_half("7-9", "pm"), in_half("10 - 1", "am"), in_half("19:00", "pm"), in_half("7.30pm", "pm")
    ('7pm-9', '10am - 1', '19:00', '7.30pm')
    """
    if not half:
        return time
    return re.sub(
        r"^\s*(0?[1-9]|1[0-2])([:.]\d\d)?(?![\d:.]|\s*[ap]\.?m)", rf"\1\2{half}", time, flags=re.IGNORECASE
    )


_LONGEST_SESSION = 24
"""Characters of a text that names a session of a half of the day, at most."""


def without_session(text: str) -> str:
    """A text, folded, without the word and the number of a session that it may have beside its half of the day.

    >>> without_session("Morning session 2"), without_session("AM1"), without_session("PM 1.30"), without_session("Knots")
    ('morning', 'am', 'pm 130', 'knots')
    """
    plain = fold(text).replace(".", "")
    may_be_session = plain[-1:] in ")0123456789" or "session" in plain
    if len(plain) > _LONGEST_SESSION or not may_be_session or re.search(r"\d[.:]\d", text):
        return plain
    return re.sub(r"\bsessions?\b|[\s()\d]+", " ", plain).strip()
