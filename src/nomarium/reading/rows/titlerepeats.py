"""Titles that say more than one day, `Spring block: Tuesdays from 12 January 2027 (10 weeks)`, over what is held on each of them."""

import re
from typing import Final

from nomarium.model.problem import Problem
from nomarium.reading.cells.oftenwords import OFTEN, WEEKDAY
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.words import Lexicon

_HALF_OF_DAY: Final = rf"(?i)\b({WEEKDAY})\s+(?:mornings|afternoons|evenings|nights)\b"
_LISTED: Final = r"\d\s*(?:,|&|and)\s*\d"


def repeat_said(text: str, lexicon: Lexicon) -> str | Problem | None:
    """How often, and from when to when, a title says that what stands below it is held; None where it says one day or none.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> repeat_said("Spring block: Tuesdays from 12 January 2027 (10 weeks)", ENGLISH)
    'Tuesdays from 12 January 2027 (10 weeks)'
    """
    match = re.search(OFTEN, text)
    if match is None or re.search(r"\d", text) is None:
        return None
    phrase = re.sub(_HALF_OF_DAY, r"\1s", text[match.start() :].strip())
    if isinstance(read_repeat(phrase, lexicon), Repeat) or re.search(_LISTED, phrase):
        return phrase
    message = f"“{phrase}” says more than one day, and which days they are is not understood."
    remedy = (
        "Write it like “Tuesdays 12 January – 16 March 2027”; or, for one day only: --set date=2027-01-12."
    )
    return Problem("repeat-unread", message, remedy)
