"""The labels of a cycle that are listed in their order and nothing else: a column of them, a row, or one cell, `Keel, Rib, Plank`."""

import re
from collections.abc import Collection, Iterator, Sequence
from itertools import islice
from typing import Final

from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.school.planheads import heads_labels, plain
from nomarium.sheets.sheet import Row, RowsAgain, Sheet, cell_text

_BETWEEN: Final = r"\s*(?:[,;→➔>|/·\n]|->|\s[-–—]\s)\s*"
_HEADS: Final = r"\b(?:cycle|zyklus|ciclo|syklus|labels?|letters?|days?|jours?|tage?|dias?|giorn[oi]|order|ordre|orden|ordine|reihenfolge|names?|nom)\b"
_MOST_ROWS: Final = 40
_MOST_LABELS: Final = 20
_LONGEST: Final = 20


def listed_cycle(sheet: Sheet, texts: Collection[str]) -> Sheet | None:
    """The sheet as a table of labels, one a row, where it lists those of `texts` (the labels of classes) and others with them; None for
    any other sheet, and where they are weekdays."""
    wanted = {plain(part) for text in texts for part in re.split(r"[,;/&]", text)} - {""}
    if len(wanted) < 2 or WeekdayCodes(texts, ENGLISH).are_days:
        return None
    rows = [(number, row) for number, row in islice(sheet.rows(), _MOST_ROWS + 1) if any(map(cell_text, row))]
    if len(rows) > _MOST_ROWS:
        return None
    listed = next(filter(None, (_labels(one, wanted) for one in _lists(rows))), None)
    if listed is None:
        return None
    labels = [(number, [label]) for number, label in listed]
    return sheet._replace(read_rows=RowsAgain(lambda: iter([(labels[0][0], ["Label"]), *labels])))


def _lists(rows: Sequence[Row]) -> Iterator[list[tuple[int, str]]]:
    """The texts of each column of a small table, of each row, and of each cell that lists some; with the numbers of their rows."""
    width = max((len(row) for _, row in rows), default=0)
    beside = [n for n in range(width) if any(n < len(row) and cell_text(row[n]) for _, row in rows)]
    for column in beside if len(beside) <= 2 else ():
        yield [
            (number, text) for number, row in rows if column < len(row) and (text := cell_text(row[column]))
        ]
    if len(rows) <= 2:
        for number, row in rows:
            yield [(number, text) for cell in row if (text := cell_text(cell))]
            yield from ([(number, part) for part in re.split(_BETWEEN, cell_text(cell))] for cell in row)


def _labels(listed: Sequence[tuple[int, str]], wanted: set[str]) -> list[tuple[int, str]] | None:
    """Labels without what heads them, where they are the wanted ones and as many others at most."""
    if listed and plain(listed[0][1]) not in wanted and _is_heading(listed[0][1]):
        listed = listed[1:]
    said = [plain(text) for _, text in listed]
    are_labels = all(len(text) <= _LONGEST and not re.search(r"\d{3}", text) for _, text in listed)
    is_order = wanted <= set(said) and len(set(said)) == len(said) <= min(2 * len(wanted), _MOST_LABELS)
    return [*listed] if are_labels and is_order else None


def _is_heading(text: str) -> bool:
    return heads_labels(text.rstrip(" :")) or re.search(_HEADS, fold(text)) is not None
