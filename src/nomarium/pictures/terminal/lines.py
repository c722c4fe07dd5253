"""Lines of text whose parts look different, as wide as they are on a terminal."""

import unicodedata
from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

_ZERO_WIDTH = ("Mn", "Me", "Cf")


class Part(NamedTuple):
    """A stretch of a line."""

    text: str
    look: str = ""
    """`bold`, `dim`, `off` (no school), or nothing."""
    key: int = -1
    """The number of the colour; -1 is the terminal's own."""


Line = Sequence[Part]


@lru_cache(10_000)
def width_of(text: str) -> int:
    """How many cells of a terminal a text takes (Unicode Standard Annex 11: wide and full-width ones take two).

    >>> width_of("Keel"), width_of("竜骨"), width_of("e\\u0301")
    (4, 4, 1)
    """
    if text.isascii():
        return len(text)
    return sum(
        0
        if unicodedata.category(one) in _ZERO_WIDTH
        else 2
        if unicodedata.east_asian_width(one) in "WF"
        else 1
        for one in text
    )


def cut(text: str, width: int) -> str:
    """A text that fits; with a sign where something is missing.

    >>> cut("Steam shed", 10), cut("Steam shed", 7), cut("Steam", 1), cut("Steam", 0)
    ('Steam shed', 'Steam …', '…', '')
    """
    if width_of(text) <= width:
        return text
    if width < 1:
        return ""
    kept = ""
    for one in text:
        if width_of(kept + one) > width - 1:
            break
        kept += one
    return kept + "…"


def padded(text: str, width: int) -> str:
    """A text that takes just so many cells."""
    text = cut(text, width)
    return text + " " * (width - width_of(text))


def wrapped(text: str, width: int) -> list[str]:
    """A text in lines that fit; a word that is longer than a line goes on in the next.

    >>> wrapped("Launch of the skiff", 9)
    ['Launch of', 'the skiff']
    >>> wrapped("Dampfbiegen", 6)
    ['Dampfb', 'iegen']
    """
    lines, line = list[str](), ""
    for word in text.split():
        joined = f"{line} {word}" if line else word
        if width_of(joined) <= width:
            line = joined
            continue
        if line:
            lines.append(line)
        line = word
        while width_of(line) > width:
            at = max(n for n in range(1, len(line)) if n == 1 or width_of(line[:n]) <= width)
            lines.append(line[:at])
            line = line[at:]
    return [*lines, line] if line else lines


def plain(line: Line) -> str:
    """The text of a line alone."""
    return "".join(part.text for part in line).rstrip()
