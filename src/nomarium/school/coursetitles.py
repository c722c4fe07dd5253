"""Courses of a timetable whose code and whose name stand in columns of their own."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.coursenames import CODE_OF_COURSE
from nomarium.reading.columns.headings import normal
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, cell_text

_MOSTLY: Final = 0.8


def settle_titles(
    head: Sequence[Cell], rows: Sequence[Row], columns: dict[str, int], unused: list[tuple[int, str]]
) -> None:
    """Of two columns that are headed as the class, that of codes is it, and that of names is the title; sections are neither."""
    if "class" not in columns or "title" in columns:
        return
    claims = [n for n, text in unused if field_of(text, "timetable") == "class"]
    claims += [columns[field] for field in ("section", "number") if field in columns]
    claims = [n for n in claims if not normal(cell_text(head[n])).startswith("sec")]
    if _are_codes(rows, columns["class"]):
        names = [n for n in claims if _are_names(rows, n)]
    else:
        names = [columns["class"]] if _are_names(rows, columns["class"]) else []
        codes = [n for n in claims if _are_codes(rows, n) and n != columns.get("number")]
        if len(codes) != 1:
            return
        columns["class"] = codes[0]
    if len(names) == 1:
        columns["title"] = names[0]
    for field in ("section", "number"):
        if field in columns and columns[field] in (columns["class"], *names):
            columns.pop(field)
    unused[:] = [one for one in unused if one[0] not in columns.values()]


def _are_codes(rows: Sequence[Row], column: int) -> bool:
    """Whether cells are codes of courses, a few letters and a number."""
    texts = [text for _, row in rows if column < len(row) and (text := cell_text(row[column]))]
    coded = sum(re.fullmatch(CODE_OF_COURSE, text) is not None for text in texts)
    return bool(texts) and coded >= _MOSTLY * len(texts)


def _are_names(rows: Sequence[Row], column: int) -> bool:
    """Whether cells are words."""
    texts = [text for _, row in rows if column < len(row) and (text := cell_text(row[column]))]
    return bool(texts) and sum(
        re.search(r"[^\W\d_]{3}", text) is not None for text in texts
    ) >= _MOSTLY * len(texts)
