"""Years that head columns: under each stand its dates, without it."""

import re
from collections.abc import Sequence


def years_of(headings: Sequence[str]) -> dict[int, int]:
    """Column → the year that heads it; nothing where a year stands twice.

    >>> years_of(("Holiday", "2026", "2027"))
    {1: 2026, 2: 2027}
    """
    found = {n: int(text) for n, text in enumerate(headings) if re.fullmatch(r"(?:19|20)\d\d", text.strip())}
    return found if len(set(found.values())) == len(found) else {}
