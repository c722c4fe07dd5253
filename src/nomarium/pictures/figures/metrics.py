"""How wide texts are, and with which font each letter is drawn: the default one, or the first on the machine that has it."""

import contextlib
from collections.abc import Iterable, Iterator
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Literal

if TYPE_CHECKING:
    from matplotlib.ft2font import FT2Font

Weight = Literal["plain", "bold", "head"]
_FILES: dict[Weight, str] = {
    "plain": "DejaVuSans.ttf",
    "bold": "DejaVuSans-Bold.ttf",
    "head": "DejaVuSerif-Bold.ttf",
}
FAMILIES: dict[Weight, str] = {"plain": "DejaVu Sans", "bold": "DejaVu Sans", "head": "DejaVu Serif"}
BOX = "□"
"""What is drawn for a letter that no font has."""
_BOXES = "Last Resort"
"""A font that has a box for every letter."""
_UNIT = 64
LINE = 1.28
"""The height of a line, in sizes."""


class Metrics:
    """The fonts of a picture. `families` are those that some letter needs beside the default ones."""

    def __init__(self) -> None:
        from matplotlib import get_data_path
        from matplotlib.ft2font import FT2Font

        folder = Path(get_data_path(), "fonts", "ttf")
        # fonts of its own: those that drawing uses change their size with every text
        self._fonts: dict[Weight, FT2Font] = {
            weight: FT2Font(str(folder / name)) for weight, name in _FILES.items()
        }
        for font in self._fonts.values():
            font.set_size(_UNIT, 72)
        self._advances: dict[tuple[str, Weight], float] = {}
        self.families: list[str] = []
        self.missing: set[str] = set()
        """Letters that no font on the machine has."""

    def width(self, text: str, size: float, weight: Weight = "plain") -> float:
        """The width of a line of text, in the unit of its size."""
        return sum(self._advance(one, weight) for one in text) * size

    def _advance(self, letter: str, weight: Weight) -> float:
        """The width of a letter at size 1."""
        key = (letter, weight)
        if key not in self._advances:
            self._advances[key] = self._measured(letter, weight)
        return self._advances[key]

    def _measured(self, letter: str, weight: Weight) -> float:
        font = self._fonts[weight]
        code = ord(letter)
        if not font.get_char_index(code) and not letter.isspace():
            other = self._other(code, weight)
            if other is None:
                self.missing.add(letter)
                code = ord(BOX)
            font = other or font
        return font.load_char(code).linearHoriAdvance / 65536 / _UNIT

    def _other(self, code: int, weight: Weight) -> "FT2Font | None":
        """The font by which a letter is drawn that the default one lacks: of the first family that has it."""
        for family in [*self.families, *_families_with(code)]:
            font = _font_of(family, weight != "plain")
            if font is not None and font.get_char_index(code):
                if family not in self.families:
                    self.families.append(family)
                return font
        return None

    def drawable(self, text: str, weight: Weight) -> str:
        """A text with a box for each letter that no font has."""
        for letter in text:
            self._advance(letter, weight)
        return "".join(BOX if letter in self.missing else letter for letter in text) if self.missing else text

    # -- texts in a width --------------------------------------------------------------------------------

    def cut(self, text: str, width: float, size: float, weight: Weight = "plain") -> str:
        """A text in one line that fits, with a sign where something is missing."""
        if self.width(text, size, weight) <= width:
            return text
        room = width - self.width("…", size, weight)
        at = 0
        for letter in text:
            room -= self._advance(letter, weight) * size
            if room < 0:
                break
            at += 1
        return text[:at].rstrip() + "…" if width > 0 else ""

    def wrapped(self, text: str, width: float, size: float, weight: Weight = "plain") -> list[str]:
        """A text in lines that fit; a word that is longer than a line goes on in the next."""
        return list(self._lines(text, width, size, weight))

    def _lines(self, text: str, width: float, size: float, weight: Weight) -> Iterator[str]:
        space = self._advance(" ", weight) * size
        line, used = "", 0.0
        for word in text.split():
            wide = self.width(word, size, weight)
            if line and used + space + wide <= width:
                line, used = f"{line} {word}", used + space + wide
                continue
            if line:
                yield line
            while wide > width and len(word) > 1:
                at = self._fitting(word, width, size, weight)
                yield word[:at]
                word = word[at:]
                wide = self.width(word, size, weight)
            line, used = word, wide
        if line:
            yield line

    def _fitting(self, word: str, width: float, size: float, weight: Weight) -> int:
        """How many of the first letters of a word fit, at least one."""
        used, at = 0.0, 0
        for letter in word:
            used += self._advance(letter, weight) * size
            if used > width:
                break
            at += 1
        return max(at, 1)


def _families_with(code: int) -> Iterator[str]:
    """The families on the machine that have a letter, in a fixed order."""
    return (font.family_name for font in _installed() if font.get_char_index(code))


@lru_cache
def _font_of(family: str, is_bold: bool) -> "FT2Font | None":
    """The font that drawing takes for a family."""
    from matplotlib.font_manager import FontProperties, findfont
    from matplotlib.ft2font import FT2Font

    weight = "bold" if is_bold else "normal"
    try:
        font = FT2Font(findfont(FontProperties(family=[family], weight=weight), fallback_to_default=False))
    except (OSError, RuntimeError, ValueError):
        return None
    font.set_size(_UNIT, 72)
    return font


@lru_cache(1)
def _installed() -> "tuple[FT2Font, ...]":
    """The other fonts of the machine, in a fixed order; those that cannot be opened are not there."""
    import logging

    from matplotlib.font_manager import fontManager
    from matplotlib.ft2font import FT2Font

    logging.getLogger("matplotlib.font_manager").setLevel(
        logging.ERROR
    )  # a family without a bold font is no trouble

    def opened(paths: Iterable[str]) -> Iterator[FT2Font]:
        for path in paths:
            with contextlib.suppress(OSError, RuntimeError):
                yield FT2Font(path)

    entries = (
        one
        for one in fontManager.ttflist
        if one.style == "normal" and one.weight in (400, "normal", "regular")
    )
    return tuple(opened(sorted({one.fname for one in entries if not one.name.startswith(_BOXES)})))
