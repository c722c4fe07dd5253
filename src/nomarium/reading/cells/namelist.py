"""Which languages know a word as a month or a weekday: told by a list, since opening every language takes a second.

The list is `data/names.txt`; for another version of Babel its text is what `names_listed()` gives.
"""

from collections.abc import Iterable
from functools import lru_cache
from pathlib import Path

from nomarium.reading.cells.words import LIKELY_LANGUAGES, all_languages, lexicon_of

LIKELY = frozenset(LIKELY_LANGUAGES)


def languages_knowing(words: Iterable[str]) -> tuple[str, ...]:
    """The codes of the languages in which any of those words (folded) is a month or a weekday, the likeliest first.

    Where CLDR is of another version than the list, every language is opened.
    """
    sought = frozenset(words)
    listed = _listed_names()
    if listed is None:
        opened = ((code, lexicon_of(code, with_short=True)) for code in all_languages())
        return tuple(
            code for code, lexicon in opened if lexicon is not None and any(map(lexicon.knows, sought))
        )
    known = {code for word in sought for code in listed.get(word, ())}
    return tuple(code for code in all_languages() if code in known) if known else ()


def known_by_likely(word: str) -> bool:
    """Whether a word (folded) is a month or a weekday in a language that is likely."""
    listed = _listed_names()
    return listed is None or not LIKELY.isdisjoint(listed.get(word, ()))


@lru_cache(maxsize=1)
def _listed_names() -> dict[str, list[str]] | None:
    """Each name of a month or a weekday and the codes of its languages; None when the list is of another version."""
    from importlib import metadata  # a tenth of a start, and seldom needed

    version, *lines = (Path(__file__).parents[1] / "data/names.txt").read_text(encoding="utf-8").splitlines()
    if version != metadata.version("babel"):
        return None
    return {word: codes.split() for word, _, codes in (line.partition("\t") for line in lines)}


def names_listed() -> str:
    """What `data/names.txt` must hold: the version of Babel, then each name with the codes of its languages."""
    from babel import __version__

    codes: dict[str, list[str]] = {}
    for code in all_languages():
        lexicon = lexicon_of(code, with_short=True)
        for word in sorted({*lexicon.months, *lexicon.weekdays}) if lexicon else ():
            codes.setdefault(word, []).append(code)
    return "\n".join([__version__, *(f"{word}\t{' '.join(codes[word])}" for word in sorted(codes))]) + "\n"
