"""Cells that stand for the one above them: `"`, `ditto`."""

from typing import Final

from nomarium.model.refusal import Refusal

DITTO: Final = frozenset("\" '' ″ 〃 “ ” „ ↓ ⇓ | ditto dito idem".split())
"""What people put where the cell above goes on, or comes again."""
LONGEST_DITTO: Final = max(map(len, DITTO))


def ditto_of(text: str) -> Refusal:
    """The refusal of a cell of a list that stands for the one above it: rows may have been sorted, or left out, since it was written."""
    message = f"“{text}” stands for the cell above it, which may not be the one that was meant."
    return Refusal("cell-ditto", message, "Write into the cell what it stands for.")
