"""Drawings in parts, each under a line that is its day and nothing else: the day goes into a column before its lines."""

from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.drawnheads import days_named
from nomarium.sheets.sheet import Row, cell_text


def with_column_of_days(rows: Sequence[Row], labels: frozenset[str]) -> list[Row] | None:
    """The rows with the day of each part before its lines; None where fewer than two lines are days, or the parts have neither
    the same headings nor some above them all."""
    days = {n: day for n, (_, row) in enumerate(rows) if (day := day_alone(row, labels))}
    if len(days) < 2:
        return None
    first = min(days)
    above = [texts for _, row in rows[:first] if sum(map(bool, texts := _texts(row))) > 1]
    head = above[-1] if above else next((_texts(row) for _, row in rows[first + 1 :] if any(_texts(row))), [])
    found: list[Row] = []
    day = ""
    has_head = bool(above)
    for n, (number, row) in enumerate(rows):
        texts = _texts(row)
        is_lone = sum(map(bool, texts)) < 2
        if n in days:
            day = next(filter(None, texts)).rstrip(" :")
            found.append((number, [""]))
        elif n < first or (is_lone and any(texts)):
            found.append((number, ["", *row]))
        elif texts == head:
            found.append((number, [""] if has_head else ["", *row]))
            has_head = True
        else:
            found.append((number, [day, *row] if any(texts) else [""]))
    heads = sum(_texts(row) == head for _, row in rows)
    return found if heads == (1 if above else len(days)) else None


def day_alone(row: Sequence[Cell], labels: frozenset[str]) -> str:
    """The day that a line is which says nothing else; several of them parted by commas."""
    texts = [text for cell in row if (text := cell_text(cell))]
    names = days_named(texts[0].rstrip(" :"), labels, ENGLISH) if len(texts) == 1 else ()
    return ", ".join(names)


def _texts(row: Sequence[Cell]) -> list[str]:
    """The cells of a row without the blank ones at its end."""
    texts = [cell_text(cell) for cell in row]
    while texts and not texts[-1]:
        texts.pop()
    return texts
