"""Words that messages share: counts, lists, names of weekdays, clock times, and what a person may have meant."""

from collections.abc import Iterable, Sequence
from typing import Final

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
MONTHS = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December",
)  # fmt: skip

GOES_ON_AS_NUMBER: Final = r"\d+[.,;)]?(?=\s+(?!(?:am|pm|a\.m|p\.m|uhr|h|noon)\b)[a-z]|\s*$)"
"""A number at the beginning of a line that counts what follows, or ends a sentence, and is no day and no time."""


def counted(number: int, thing: str, plural: str = "") -> str:
    """A number of things.

    >>> counted(1, "row"), counted(1_200, "row"), counted(2, "class", "classes")
    ('1 row', '1,200 rows', '2 classes')
    """
    return f"{number:,} {thing if number == 1 else plural or f'{thing}s'}"


def listed(words: Sequence[str]) -> str:
    """Words in a row.

    >>> listed(["Keel", "Rib", "Plank"]), listed(["Keel"])
    ('Keel, Rib and Plank', 'Keel')
    """
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def clock_text(secs: int) -> str:
    """Seconds after midnight as a clock shows them.

    >>> clock_text(13 * 3600 + 5 * 60)
    '13:05'
    """
    return f"{secs // 3600}:{secs // 60 % 60:02}"


def nearest(wanted: str, known: Iterable[str], cutoff: float = 0.6) -> str:
    """The known word most like a wanted one, in its own spelling; "" when none is like it.

    `cutoff` is how alike they must be, 0 (anything) to 1 (equal); case does not count.

    >>> nearest("folow", ["Follow", "hold", "pass"]), nearest("xyz", ["hold"])
    ('Follow', '')
    """
    import difflib  # a tenth of a command's own start-up, and only needed for slips

    words = {one.casefold(): one for one in known}
    close = difflib.get_close_matches(wanted.casefold(), words, n=1, cutoff=cutoff)
    return words[close[0]] if close else ""


def meant(wanted: str, known: Iterable[str], otherwise: str, cutoff: float = 0.6) -> str:
    """A remedy: the nearest known word, or what else to do."""
    near = nearest(wanted, known, cutoff)
    return f"Did you mean {near}?" if near else otherwise
