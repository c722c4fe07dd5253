"""What `--cell` says: the parts of a drawn cell, and what stands between them."""

import re
from typing import Final, Literal

from nomarium.reading.cells.words import fold

Part = Literal["class", "room", "teacher", "group", "title", "notes"]
PARTS: Final[tuple[Part, ...]] = ("class", "room", "teacher", "group", "title", "notes")


def patterns_of(pattern: str) -> tuple[re.Pattern[str], re.Pattern[str]]:
    """A `--cell` pattern for cells whose parts stand on lines of their own, and for all others."""
    return _pattern_of(pattern, r"[^\S\n]*\n\s*"), _pattern_of(pattern, r"\s+")


def _pattern_of(pattern: str, space: str) -> re.Pattern[str]:
    """The expression of a `--cell` pattern: names of parts, with what stands between them; `space` is what a space alone
    stands for."""
    pieces = re.split(rf"\b({'|'.join(PARTS)})\b", pattern)
    built = ""
    for n, piece in enumerate(pieces):
        if n % 2:
            name = "class_" if piece == "class" else piece
            built += rf"(?P<{name}>.+?)"
        else:
            words = re.escape(re.sub(r"\s+", " ", piece))
            built += re.sub(r"(?:\\ )+", r"\\s*", words) if words.strip("\\ ") else (space if words else "")
    return re.compile(built)


def alternatives(pattern: str) -> list[str]:
    """The forms of cells that a `--cell` pattern names, `class (room) or class`, in the order in which they are tried."""
    return re.split(r"\s+or\s+", pattern.strip())


def repeated_part(pattern: str) -> str:
    """The first part that a form of a `--cell` pattern names twice; nothing where none does."""
    for form in alternatives(pattern):
        named = re.findall(rf"\b(?:{'|'.join(PARTS)})\b", form)
        twice = next((part for n, part in enumerate(named) if part in named[:n]), "")
        if twice:
            return twice
    return ""


def unknown_parts(pattern: str) -> list[str]:
    """Words of a `--cell` pattern that name no part."""
    words = re.findall(r"[^\W\d_]+", fold(" ".join(alternatives(pattern))))
    return [word for word in words if word not in PARTS]
