"""A column of weekdays beside the dates of a table."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.model.recurrence import Rule
from nomarium.reading.cells.halves import Half, without_half
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.sheets.sheet import cell_text


class WeekdayCells:
    """What its cells say, each distinct one read once."""

    def __init__(self, at: int, samples: Sequence[str], lexicon: Lexicon) -> None:
        self.at = at
        self._lexicon = lexicon
        self._read: dict[Cell, tuple[int, ...]] = {}
        self._halves: dict[Cell, Half] = {}
        self.name_weekdays = any(map(self._named, samples))
        """Whether the cells are weekdays, and not the numbers of a programme."""

    def one(self, row: Sequence[Cell]) -> int | None:
        """The weekday of a row, 0 for Monday; None where it names none, or several."""
        found = self.all(row)
        return found[0] if len(found) == 1 else None

    def all(self, row: Sequence[Cell]) -> tuple[int, ...]:
        """The weekdays of a row: `Tuesday`, `Mon & Wed`, `Mon-Fri`."""
        cell = row[self.at]
        found = self._read.get(cell)
        if found is None:
            found = self._read[cell] = self._weekdays(without_half(cell_text(cell))[0])
        return found

    def half(self, row: Sequence[Cell]) -> Half:
        """The half of the day that a row names behind its weekday: `Tues eve`."""
        cell = row[self.at]
        found = self._halves.get(cell)
        if found is None:
            found = self._halves[cell] = without_half(cell_text(cell))[1] if self.all(row) else ""
        return found

    def say_something_else(self, row: Sequence[Cell]) -> bool:
        """Whether the cell of a row has words, and is no weekdays: `Half term`."""
        return not self.all(row) and any(map(str.isalpha, cell_text(row[self.at])))

    def are_others(self, said: str, days: int) -> bool:
        """Whether a text names other weekdays than those of a row of so many days."""
        named = len(set(self._named(said)))
        is_range = re.search(r"[-–—]|\bto\b", said) is not None
        return named > 1 and not (days > 1 if is_range else days == named)

    def _weekdays(self, text: str) -> tuple[int, ...]:
        if (one := self._lexicon.weekdays.get(fold(text).strip())) is not None:
            return (one,)
        found = read_repeat(text, self._lexicon, None)
        if not isinstance(found, Repeat):
            return ()
        weekdays = found.rule.weekdays
        if found != Repeat(Rule("WEEKLY", weekdays=weekdays), text=found.text):  # it says more
            return ()
        return tuple(weekday for ordinal, weekday in weekdays if not ordinal)

    def _named(self, text: str) -> list[int]:
        known = self._lexicon.weekdays
        return [known[word] for word in re.split(r"[^\w]+", fold(text)) if word in known]
