"""Rows that a recipe leaves out, for a text that is a whole cell of theirs."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.sheets.sheet import cell_text


class LeftOut:
    """The texts that leave a row out, and which of them some row has had."""

    def __init__(self, texts: Sequence[str]) -> None:
        self._texts = {text.casefold(): text for text in texts}
        self._met: set[str] = set()

    def __bool__(self) -> bool:
        return bool(self._texts)

    def takes(self, row: Sequence[Cell]) -> bool:
        """Whether a row has one of the texts."""
        found = self._texts.keys() & {cell_text(cell).casefold() for cell in row}
        self._met |= found
        return bool(found)

    def unmet(self) -> list[str]:
        return [text for key, text in self._texts.items() if key not in self._met]
