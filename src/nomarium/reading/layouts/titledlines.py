"""Dates under headings that are their titles: `## Paddle race` over `13 September, 4.45pm – Boathouse`, again and again."""

import re
from collections.abc import Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.monthlines import month_alone, month_in
from nomarium.reading.layouts.textlines import TextLine, is_sentence

_AT: Final = r"\s+(?:at|in|@)\s+"
_MOST_WORDS: Final = 9
_LEAST: Final = 2
"""Headings over one date each, from which on they are titles."""


class Titled(NamedTuple):
    title: str
    place: str
    uses_next: bool
    """Whether the place is the line under the date."""


def titles_over(
    paragraphs: Sequence[Sequence[TextLine]], marked: frozenset[int], lexicon: Lexicon
) -> Mapping[int, Titled]:
    """The titles of lines with a date that stand each alone under a heading, by their numbers, where what they say beside
    the date is a place or nothing. `marked` are the lines that the text itself marks as headings."""
    found: dict[int, Titled] = {}
    are_places: list[bool] = []
    for title, under in _sections(paragraphs, marked, lexicon):
        dated = [line for line in under if line.date]
        besides = [re.sub(r"^(?:at|in|@)\s+", "", line.rest) for line in dated]
        if not dated or under[0] != dated[0] or any(line.time for line in under if not line.date):
            continue
        if len(dated) > 1 and not all(map(_is_only_place, besides)):
            continue
        following = under[1].text if len(under) > 1 else ""
        uses_next = besides == [""] and is_place(following)
        are_places += [_is_only_place(beside) for beside in besides if beside]
        for line, beside in zip(dated, besides, strict=True):
            found[line.number] = Titled(title, following if uses_next else beside, uses_next)
    if len(found) < _LEAST or are_places.count(True) * 2 < len(are_places):
        return {}
    return found


def _is_only_place(text: str) -> bool:
    """Whether a text is a place, and not something that is held at one, `Art exhibition at Main slip`."""
    before, *behind = re.split(_AT, text, maxsplit=1)
    return is_place(text) and (not behind or is_place(before))


def _sections(
    paragraphs: Sequence[Sequence[TextLine]], marked: frozenset[int], lexicon: Lexicon
) -> list[tuple[str, list[TextLine]]]:
    """Each heading that could be a title, and the lines under it."""
    found: list[tuple[str, list[TextLine]]] = []
    for lines in paragraphs:
        first = lines[0]
        is_alone = len(lines) == 1 and not marked and not first.is_bullet
        if (first.number in marked or is_alone) and _may_be_title(first, lexicon):
            found.append((first.text.strip(" :"), list(lines[1:])))
        elif found:
            found[-1][1].extend(lines)
    return found


def _may_be_title(line: TextLine, lexicon: Lexicon) -> bool:
    if line.date or line.time or len(line.text.split()) > _MOST_WORDS:
        return False
    is_month = month_alone(line.text, lexicon) is not None or month_in(line.text, lexicon) is not None
    return any(map(str.isalpha, line.text)) and not is_month and not is_sentence(line)
