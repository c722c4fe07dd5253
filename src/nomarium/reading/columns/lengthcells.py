"""Columns whose cells are lengths, `1h52`, `45 mins` and `2:11` among them, and no times of day."""

import re
from collections.abc import Collection
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.lengths import read_length
from nomarium.sheets.sheet import cell_text

_CLEAR: Final = (
    r"(?i)\d+(?:[.,:]\d+)?\s?(?:h|hrs?|hours?|m|mins?|minutes?)(?:\b|(?=\d))[\s\d]*(?:m|mins?|minutes?)?"
)
"""A length that is no time of day."""


def are_lengths(cells: Collection[Cell]) -> bool:
    """Whether all cells are lengths, and half of them at least can be nothing else: `9h30` alone is a time."""
    texts = [cell_text(cell) for cell in cells]
    clear = sum(re.fullmatch(_CLEAR, text) is not None for text in texts)
    return bool(texts) and clear * 2 >= len(texts) and all(type(read_length(text)) is int for text in texts)
