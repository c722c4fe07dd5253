"""Parts of drawn cells with nothing but a space between them: `Mr Orr Loft 2`, `Knots Loft 1 Ms Reed`, `Knots: Mr Orr`."""

import re
from collections.abc import Callable, Collection
from typing import Final

_TITLED: Final = r"(?:(?-i:(?:[A-Z]\.\s?){1,2}[A-Z][\w'’-]+)|(?:mr|mrs|ms|mx|miss|dr|prof|herr|frau|mme|mlle|sr|sra|srta|dhr|mevr|mw|sig|pani|pan)\b\.?\s+[^\W\d_][\w'’-]+(?:\s(?:de|van|von|der|den|di|da|la|le)\s[^\W\d_][\w'’-]+)?)"
_NUMBERED: Final = r"(?:rooms?|rm\.?|loft|shed|hall|slip|lab|gym|studio|library|field|court|pool|yard|workshop|theatre|chapel|quay|pier|salle|atelier|raum|saal|sala|aula|lokaal|zaal)\s?(?:\d{1,3}[a-z]?|[a-z]\d{0,2})"
_FIRST: Final = re.compile(rf"(?i)(?P<said>{_TITLED}|{_NUMBERED})(?:\s*[:,–—-]\s*|\s+)(?P<rest>\S.*)")
_LAST: Final = re.compile(
    rf"(?i)(?P<rest>.*\S)(?:\s*[:,–—-]?\s+(?P<said>{_TITLED}|{_NUMBERED})|\s*:\s+(?P<initials>(?-i:[A-Z]{{2,3}})))"
)
_MOSTLY: Final = 0.6


def run_together(texts: Collection[str], parts: Callable[[str], list[str]]) -> bool:
    """Whether in most of these cells a part holds a person with a title, or a room with a number, beside something else."""
    return bool(texts) and sum(
        any(len(apart(part)) > 1 for part in parts(text)) for text in texts
    ) >= _MOSTLY * len(texts)


def apart(part: str) -> list[str]:
    """A part without the persons and rooms at its ends, and these, in their order.

    >>> apart("Mr Orr Loft 2"), apart("Knots Loft 1 Ms Reed"), apart("Keels: Mr Moss"), apart("Sail making")
    (['Mr Orr', 'Loft 2'], ['Knots', 'Loft 1', 'Ms Reed'], ['Keels', 'Mr Moss'], ['Sail making'])
    """
    before, behind = list[str](), list[str]()
    while (found := _FIRST.fullmatch(part)) is not None:
        before.append(found["said"])
        part = found["rest"]
    while (found := _LAST.fullmatch(part)) is not None:
        behind.insert(0, found["said"] or found["initials"])
        part = found["rest"]
    return [*before, part.rstrip(" :"), *behind]
