"""Courses of a timetable whose code and whose name stand in columns of their own."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.columns.contents import MOSTLY
from nomarium.reading.columns.coursenames import are_course_codes
from nomarium.reading.columns.headings import match_heading, normal
from nomarium.school.planheads import field_of
from nomarium.sheets.sheet import Row, cell_text, column_texts

_TITLED: Final = frozenset(
    "name names title titles descr desc description subject course class module unit what topic label long full text meaning nom intitule libelle titre "
    "bezeichnung titel fach kurs nombre asignatura materia curso titolo corso naam vak kursus nazwa przedmiot".split()
)
"""Words of the headings of what classes are called."""
_DIFFERENT: Final = 0.7
"""The share of rows whose names are different where these can be titles."""


def settle_titles(
    head: Sequence[Cell], rows: Sequence[Row], columns: dict[str, int], unused: list[tuple[int, str]]
) -> None:
    """Of two columns that are headed as the class, that of codes is it, and that of names is the title; sections are neither."""
    if "class" not in columns or "title" in columns:
        return
    claims = [n for n, text in unused if field_of(text, "timetable") == "class"]
    claims += [columns[field] for field in ("section", "number") if field in columns]
    claims = [n for n in claims if not normal(cell_text(head[n])).startswith("sec")]
    texts = {n: _texts(rows, n) for n in (columns["class"], *claims)}
    called = columns["class"]
    codes = [n for n in texts if are_course_codes(texts[n]) and n != columns.get("number")]
    names = [n for n in texts if n not in codes and _are_names(texts[n])]
    if len(names) != 1 or not codes or (called not in codes and (called not in names or len(codes) > 1)):
        return
    code = called if called in codes else codes[0]
    if _has_several(rows, code, names[0]):
        return  # what is done there: no code has two titles
    columns["class"], columns["title"] = code, names[0]
    for field in ("section", "number"):
        if field in columns and columns[field] in (columns["class"], columns["title"]):
            columns.pop(field)
    unused[:] = [one for one in unused if one[0] not in columns.values()]


def settle_coded(
    head: Sequence[Cell], rows: Sequence[Row], columns: dict[str, int], unused: list[tuple[int, str]]
) -> None:
    """Beside codes, `01` or `10200`, the one column of different names that no heading claims is what the classes are called: their
    title, or the class where the codes are those of sections."""
    called = columns.get("class", -1)
    if called < 0 or {"title", "section", "number"} & columns.keys() or _are_names(_texts(rows, called)):
        return
    texts = {n: _texts(rows, n) for n, heading in unused if _may_head_titles(heading)}
    least = _DIFFERENT * len(_texts(rows, called))
    named = [n for n in texts if _are_names(texts[n]) and len({*texts[n]}) >= least]
    if len(named) != 1:
        return
    if normal(cell_text(head[called])).startswith("sec"):
        columns["class"], columns["section"] = named[0], called
    else:
        columns["title"] = named[0]
    unused[:] = [one for one in unused if one[0] != named[0]]


def _may_head_titles(heading: str) -> bool:
    """Whether a heading may be that of what classes are called: never one of people, places, links, states or things to bring."""
    words = normal(heading).split()
    match = match_heading(heading)
    return (
        not words or bool(_TITLED & {*words}) or (match is not None and match.field in ("summary", "class"))
    )


def _has_several(rows: Sequence[Row], code: int, name: int) -> bool:
    """Whether a code stands beside several names."""
    said = {
        (cell_text(row[code]), cell_text(row[name]))
        for _, row in rows
        if max(code, name) < len(row) and cell_text(row[name])
    }
    return len({one for one, _ in said}) < len(said)


def _texts(rows: Sequence[Row], n: int) -> list[str]:
    return column_texts(rows, n)


def _are_names(texts: Sequence[str]) -> bool:
    """Whether texts are words."""
    named = sum(re.search(r"[^\W\d_]{3}", text) is not None for text in texts)
    return bool(texts) and named >= MOSTLY * len(texts)
