"""Lines of text onto the terminal, in colours where it has them."""

import os
import shutil
import sys
from collections.abc import Iterable

from nomarium.cli.render import shown
from nomarium.pictures.terminal.lines import Line, Part

_NARROWEST, _WITHOUT_TERMINAL = 60, 100
_COLORS = ("36", "35", "32", "33", "31", "34", "96", "95", "92", "93", "91", "94")
"""Foreground colours of the terminal's own palette, so that they suit a dark one and a light one alike (ECMA-48, SGR)."""
_LOOKS = {"bold": "1", "dim": "2", "struck": "9"}


def terminal_width() -> int:
    """How many cells a line may have: never fewer than 60."""
    return max(shutil.get_terminal_size((_WITHOUT_TERMINAL, 24)).columns, _NARROWEST)


def has_colors() -> bool:
    """Whether colours are wanted: on a terminal that can, unless NO_COLOR says otherwise."""
    return sys.stdout.isatty() and not os.environ.get("NO_COLOR") and os.environ.get("TERM") != "dumb"


def paint(lines: Iterable[Line]) -> None:
    """Print lines, without blanks at their ends."""
    colors = has_colors()
    for line in lines:
        parts = list(line)
        while parts and not parts[-1].text.strip():
            parts.pop()
        if parts:
            parts[-1] = parts[-1]._replace(text=parts[-1].text.rstrip())
        sys.stdout.write("".join(_painted(part) if colors else shown(part.text) for part in parts) + "\n")


def _painted(part: Part) -> str:
    codes = [_LOOKS[part.look]] if part.look in _LOOKS else []
    if part.key >= 0:
        codes.append(_COLORS[part.key % len(_COLORS)])
    text = shown(part.text)
    return f"\x1b[{';'.join(codes)}m{text}\x1b[0m" if codes and text.strip() else text
