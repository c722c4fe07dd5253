"""What a person may have meant by a word that is not known."""

from collections.abc import Iterable


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
