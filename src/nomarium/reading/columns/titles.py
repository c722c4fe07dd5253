"""Titles that one column alone does not make: two events of one title on one date, or one word on every row."""

import re
from collections import defaultdict
from collections.abc import Mapping, Sequence

from nomarium.model.problem import Problem
from nomarium.model.templates import names_in
from nomarium.model.values import VALUE_FIELDS
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.asked import asked_columns, heading_missing
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import ANSWERS
from nomarium.reading.columns.headings import normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LONGEST = 40
"""A text over so many characters is a remark, not half a title."""
_MOST_ALIKE = 0.8
_PARTS = frozenset(
    "paper component unit part module level tier stage section option topic chapter papier teil partie niveau parte".split()
)
"""Headings of parts of what a title names."""


def title_columns(
    template: str, headings: Sequence[str], first_column: int, at: Mapping[str, int]
) -> tuple[dict[str, int], list[str]]:
    """The columns that a template names, and the names that nothing has.

    A name is a heading, a field (`at` says where each stands), or `title`: what the title is without the template.
    """
    found: dict[str, int] = {}
    unknown = []
    for name in names_in(template):
        if name == "title":
            continue
        places = asked_columns(name, headings, first_column) or ([at[name]] if name in at else [])
        if places:
            found[name] = places[0]
        else:
            unknown.append(name)
    return found, unknown


def unknown_in_title(
    sheet: Sheet, headings: Sequence[str], columns: Sequence[Column], template: str
) -> list[Problem]:
    """A problem for each name in `--title` that is neither a heading of the table nor a field."""
    at = {c.field: c.at for c in columns if c.field}
    _, unknown = title_columns(template, headings, sheet.first_column, at)
    return [heading_missing(sheet, headings, name, "--title") for name in unknown if name not in VALUE_FIELDS]


_HALF = r"(?i)(?:a\.?m\.?|p\.?m\.?|mornings?|afternoons?|evenings?|matin|après-midi|soir)"


def half_titles(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Row], options: ReadingOptions
) -> list[Problem]:
    """A problem when another column is needed to tell rows apart, and nobody has said that it is not."""
    title = next((c for c in columns if c.field == "summary"), None)
    date = next((c for c in columns if c.field in ("date", "when", "start")), None)
    if title is None or date is None or title.how == "asked" or options.title or options.keep_extra:
        return []
    others = [
        c
        for c in columns
        if c.is_ignored and not c.is_kept and c.how != "asked" and c.heading and c.filled
        and not (_are_halves(c, rows) and any(one.field in ("start", "time") for one in columns))
    ]  # fmt: skip
    for other in others:
        is_pair = other.at < title.at and _makes_a_pair(title, other, rows)
        if is_pair or _tells_apart(title, date, other, rows) or _names_parts(title, other, rows):
            first, second = sorted((title, other), key=lambda column: column.at)
            both = f"{{{first.heading}}}: {{{second.heading}}}"
            message = f"Rows of one title (“{title.heading}”) are told apart by “{other.heading}”, which would be lost."
            remedy = (
                f'To put both into the title: --title "{both}"; to go without: --column "{other.heading}=", or '
                "--keep-extra for the description."
            )
            place = sheet.place(None, other.at, other.heading)
            return [Problem("title-half", message, remedy, place)]
    return []


def _are_halves(column: Column, rows: Sequence[Row]) -> bool:
    """Whether all that a column says is the half of the day, which its times say, too."""
    cells = (cell_text(row[column.at]) if column.at < len(row) else "" for _, row in rows)
    return all(re.fullmatch(_HALF, text) for text in cells if text)


def _names_parts(title: Column, other: Column, rows: Sequence[Row]) -> bool:
    """Whether a column headed as that of parts (`Paper`) says which of them a row is: a title comes again with another one,
    and no pair does."""
    if normal(other.heading) not in _PARTS:
        return False
    pairs = [
        tuple(cell_text(row[c.at]) if c.at < len(row) else "" for c in (title, other)) for _, row in rows
    ]
    pairs = [(name, part) for name, part in pairs if name and part]
    return len(set(pairs)) == len(pairs) > len({name for name, _ in pairs})


def _makes_a_pair(title: Column, other: Column, rows: Sequence[Row]) -> bool:
    """Whether a column left of the titles says what they are of: each of the two comes again with others of the other,
    and never the same pair (`Knots, Essay`, `Knots, Exam`, `Sails, Essay`)."""
    pairs = [
        tuple(cell_text(row[c.at]) if c.at < len(row) else "" for c in (other, title)) for _, row in rows
    ]
    pairs = [(left, right) for left, right in pairs if left and right]
    lefts, rights = {left for left, _ in pairs}, {right for _, right in pairs}
    are_words = all(any(map(str.isalpha, left)) and len(left) <= _LONGEST for left in lefts)
    are_answers = ANSWERS.issuperset(fold(left) for left in lefts)
    return (
        are_words
        and not are_answers
        and len(set(pairs)) == len(pairs) > max(len(lefts), len(rights))
        and len(lefts) > 1
        and len(rights) > 1
    )


def _tells_apart(title: Column, date: Column, other: Column, rows: Sequence[Row]) -> bool:
    groups: dict[tuple[str, str], set[str]] = defaultdict(set)
    titles: list[str] = []
    texts: list[str] = []
    for _, row in rows:
        name, day, text = (cell_text(row[c.at]) if c.at < len(row) else "" for c in (title, date, other))
        if name and day:
            groups[name, day].add(text)
            titles.append(name)
            texts.append(text)
    words = [text for text in texts if any(map(str.isalpha, text))]
    if len(words) < 2 or max(map(len, words)) > _LONGEST or len(words) < len(texts) / 2:
        return False
    usual = max(map(titles.count, set(titles)))
    is_one_word = len(titles) > 2 and usual >= _MOST_ALIKE * len(titles) and len(set(texts)) > len(texts) / 2
    return is_one_word or any(len(found) > 1 for found in groups.values())
