"""What stands over the dates of a roster and says for what its people are there: `Regatta` over 12 September."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.weeks import is_numbered_week
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.layouts.headdates import week_text
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.rosterslots import Slot, carried
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, cell_text


def words_over_heads(
    top: Top, rows: Sequence[Row], heads: Mapping[int, Sequence[int]]
) -> dict[int, dict[int, str]]:
    """For each row of dates, by its index, with its columns: what stands over them. Above a later one stands the last name of
    the block before, unless the row has the label of the one above the first."""
    found = dict[int, dict[int, str]]()
    first = next(iter(heads))
    for at, columns in heads.items() if first else ():
        if _label(rows[at - 1], columns[0]) == _label(rows[first - 1], columns[0]):
            found[at] = _words_over(top, rows[at - 1][1], columns)
    return {at: words for at, words in found.items() if words}


def _label(row: Row, first: int) -> list[str]:
    """What stands left of the dates."""
    return [*map(cell_text, row[1][:first])]


def _words_over(top: Top, above: Sequence[Cell], columns: Sequence[int]) -> dict[int, str]:
    """Column → what the row above the dates says of each, `Regatta`, `Fair`: words that say nothing of when, and not one title."""
    over = carried(above, columns[0], columns[-1])
    said = {n: over[n] for n in columns if over.get(n)}
    if len(said) < len(columns) or len(set(said.values())) < 2 or any(map(top.lexicon.knows, _words(said))):
        return {}
    is_when = any(
        week_text(text)
        or is_numbered_week(text)
        or looks_like_date(text, top.lexicon)
        or time_of(text) is not NOTHING
        or not re.search(r"[^\W\d_]{3}", text)
        for text in said.values()
    )
    return {} if is_when else said


def _words(said: Mapping[int, str]) -> list[str]:
    return [word for text in said.values() for word in re.findall(r"[^\W\d_]+", fold(text))]


def under(slots: Iterable[Slot], over: Mapping[int, str]) -> Iterator[Slot]:
    """Slots with what stands over their dates."""
    return (slot._replace(occasion=over.get(slot.column, "")) for slot in slots)


def told_over(top: Top, rows: Sequence[Row], over: Mapping[int, Mapping[int, str]]) -> Iterator[Problem]:
    """Notes of what stands over the dates."""
    for at, words in over.items():
        message = f"“{next(iter(words.values()))}” over a date is the category of what stands below it."
        yield note("roster-over", message).at(top.sheet.place(rows[at - 1][0]))
