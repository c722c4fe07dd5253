"""Courses whose code and whose name stand in columns of their own: what each is called is its name."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.headings import normal
from nomarium.sheets.sheet import cell_text

_CODE: Final = r"[^\W\d_]{2,8}[\s.-]?\d{1,5}[^\W\d_]?|\d{3,6}"
"""`BOAT101`, `1021`: 7A is a class of pupils, and B1 may be one."""


def with_course_names(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Of columns that are headed as the class, or one of them as the title, that of names is the title and that of codes the class.
    Sections are classes of their own, as plans have them."""
    claims = [c for c in columns if c.field in ("class", "summary") and c.how == "heading" and c.filled]
    if len(claims) == 1 and normal(claims[0].heading).startswith("sec") and contents[claims[0].at].are_codes:
        return _without_section(columns, contents, claims[0])
    if any(normal(c.heading).startswith("sec") for c in claims):
        return columns
    codes = [c for c in claims if are_course_codes(list(map(cell_text, contents[c.at].different)))]
    names = [c for c in claims if c not in codes and contents[c.at].texts >= MOSTLY]
    if len(names) != 1 or not codes or len(names) + len(codes) != len(claims):
        return columns
    code = max(codes, key=lambda c: (_have_letters(contents[c.at]), -c.at))
    field = {names[0].at: "summary", code.at: "class"}
    evidence = "another column is the class"
    return [
        c._replace(field=field[c.at])
        if c.at in field
        else c._replace(field="", how="", evidence=evidence)
        if c in codes
        else c
        for c in columns
    ]


def _without_section(columns: list[Column], contents: list[Contents], section: Column) -> list[Column]:
    """The columns, of which that of sections without names, `01`, is none of titles where a column of different words is free."""
    free = [c for c in columns if not c.field and c.how != "asked" and c.heading]
    if not any(contents[c.at].texts >= MOSTLY and not contents[c.at].are_codes for c in free):
        return columns
    evidence = "its cells name no class"
    return [c._replace(field="", how="", evidence=evidence) if c is section else c for c in columns]


def are_course_codes(texts: Sequence[str]) -> bool:
    """Whether texts are the codes of courses."""
    coded = sum(re.fullmatch(_CODE, text) is not None for text in texts)
    return bool(texts) and coded >= MOSTLY * len(texts)


def _have_letters(about: Contents) -> bool:
    return any(any(map(str.isalpha, cell_text(cell))) for cell in about.different)
