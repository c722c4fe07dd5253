"""Courses of a timetable whose code and whose name stand in columns of their own."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.columns.contents import MOSTLY
from nomarium.reading.columns.coursenames import are_course_codes
from nomarium.reading.columns.headings import normal
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, cell_text


def settle_titles(
    head: Sequence[Cell], rows: Sequence[Row], columns: dict[str, int], unused: list[tuple[int, str]]
) -> None:
    """Of two columns that are headed as the class, that of codes is it, and that of names is the title; sections are neither."""
    if "class" not in columns or "title" in columns:
        return
    claims = [n for n, text in unused if field_of(text, "timetable") == "class"]
    claims += [columns[field] for field in ("section", "number") if field in columns]
    claims = [n for n in claims if not normal(cell_text(head[n])).startswith("sec")]
    texts = {
        n: [text for _, row in rows if n < len(row) and (text := cell_text(row[n]))]
        for n in (columns["class"], *claims)
    }
    called = columns["class"]
    codes = [n for n in texts if are_course_codes(texts[n]) and n != columns.get("number")]
    names = [n for n in texts if n not in codes and _are_names(texts[n])]
    if len(names) != 1 or not codes or (called not in codes and (called not in names or len(codes) > 1)):
        return
    columns["class"], columns["title"] = (called if called in codes else codes[0]), names[0]
    for field in ("section", "number"):
        if field in columns and columns[field] in (columns["class"], columns["title"]):
            columns.pop(field)
    unused[:] = [one for one in unused if one[0] not in columns.values()]


def _are_names(texts: Sequence[str]) -> bool:
    """Whether texts are words."""
    named = sum(re.search(r"[^\W\d_]{3}", text) is not None for text in texts)
    return bool(texts) and named >= MOSTLY * len(texts)
