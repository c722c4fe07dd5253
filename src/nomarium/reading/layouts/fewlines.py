"""Paragraphs of a few lines that together say one event: what, when and where, each on a line of its own."""

import re
from collections.abc import Sequence, Set
from itertools import pairwise
from typing import Final

from nomarium.reading.cells.placewords import NO_PLACE, is_place
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.aboutlines import says_about
from nomarium.reading.layouts.asides import heads_paper, may_title
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.textlines import TextLine, is_sentence
from nomarium.reading.layouts.weekdaylines import begins_with_weekday
from nomarium.sheets.sheet import Row

_LEAST_ALIKE: Final = 2
"""Paragraphs of one form from which on it is that of a text."""
_PLACE_LABEL: Final = re.compile(
    r"(?i)(?:where|location|place|venue|room|wo|ort|lieu|où|lugar|dónde|waar|plaats|luogo|dove)\s*:\s*(?=\S)"
)


def event_of_few_lines(
    lines: Sequence[TextLine], lexicon: Lexicon, over: Sequence[TextLine] = (), dates_first: bool = False
) -> Row | None:
    """The event that a paragraph of a few lines says: its title, when, and perhaps where. None when it is no such paragraph.
    `over`: the line that stands alone above it, the title where all others say more of what it is. `dates_first`: in such a text
    paragraphs begin with their dates, and then say what."""
    if len(lines) > 2 and heads_paper(lines[0].text) and not lines[0].date:
        lines = lines[1:]  # AGENDA, over the committee that meets
    dated = [n for n, line in enumerate(lines) if line.date]
    if not 2 <= len(lines) <= 5 or len(dated) != 1 or any(line.is_bullet for line in lines[1:]):
        return None
    at = dated[0]
    if lines[0].is_bullet and at != 1:
        return None
    others = [line for n, line in enumerate(lines) if n != at]
    times = [line for line in others if line.time and not any(map(str.isalpha, line.rest))]
    if len(times) == 1 and not lines[at].time and len(others) > 1:  # a date, a time, a title, a place
        others.remove(times[0])
    elif times or (
        at == 0
        and len(others) > 1
        and not dates_first
        and not (is_place(others[1].text.partition(",")[0]) or all(map(is_sentence, others[1:])))
    ):
        return None
    if re.match(r"\s*:\s+\w", lines[at].text.removeprefix(lines[at].date)) and at:
        return None  # After half term: over Monday 2 November: back to work
    if any(_begins_entry(line.text, lexicon) for line in others) or heads_paper(lines[0].text):
        return None
    is_bare = sum(map(str.isalpha, lines[at].rest)) < 2
    beside, *more = [""] if is_bare else [str(part) for part in re.split(r"[.;]\s+|,\s+", lines[at].rest)]
    if any(line.time for line in others) or (beside and not (at == len(others) == 1 and is_place(beside))):
        return None
    others = _title_first(others, over)
    if not others:
        return None
    title, *rest = [*(line.text for line in others), *[beside] * bool(beside), *more]
    labelled_at = next((n for n, text in enumerate(rest) if _PLACE_LABEL.match(text)), None)
    if labelled_at is not None:  # Location: Slip 4
        rest.insert(0, _PLACE_LABEL.sub("", rest.pop(labelled_at)))
    elif (
        len(rest) > 1
        and not beside
        and (at_place := next((n for n, text in enumerate(rest) if is_place(text)), 0))
    ):
        rest.insert(0, rest.pop(at_place))
    elif rest and not beside and (re.search(rf"{NO_PLACE}|^\w+:\s", rest[0]) or is_sentence(others[1])):
        rest.insert(0, "")
    return lines[0].number, EventRow(
        lines[at].date,
        lines[at].time or (times[0].time if times else ""),
        title.strip(" :"),
        rest[0] if rest else "",
        " ".join(rest[1:]),
        repeat=lines[at].repeat,
        without=lines[at].without,
    )


def _begins_entry(text: str, lexicon: Lexicon) -> bool:
    return begins_with_weekday(text, lexicon) or re.match(r"(?i)[ap]\.?m\b", text) is not None


def apart_at_dates(paragraphs: Sequence[list[TextLine]], marked: Set[int]) -> list[list[TextLine]]:
    """The paragraphs, one that is a date and what is on then, again and again with no blank line between, in its parts. `marked`: the
    lines that are headings."""
    found: list[list[TextLine]] = []
    for lines in paragraphs:
        begins = [n for n, line in enumerate(lines) if line.date]
        parts = [list(lines[a:b]) for a, b in pairwise([*begins, len(lines)])]
        over = lines[: begins[0]] if begins else []
        is_headed = all(line.number in marked for line in over)
        are_alike = len(parts) > 1 and is_headed and all(map(_begins_with_date, parts))
        found += [*filter(None, [list(over)]), *parts] if are_alike else [list(lines)]
    return found


def are_dates_first(paragraphs: Sequence[Sequence[TextLine]]) -> bool:
    """Whether several paragraphs of a few lines begin with a date and a time or nothing, and say what is on then below it."""
    return sum(_begins_with_date(lines) for lines in paragraphs) >= _LEAST_ALIKE


def _begins_with_date(lines: Sequence[TextLine]) -> bool:
    first, *others = lines
    is_bare = bool(first.date) and not first.is_bullet and sum(map(str.isalpha, first.rest)) < 2
    return (
        is_bare
        and 1 < len(others) < 5
        and not any(line.date or line.time or line.is_bullet for line in others)
    )


def _title_first(others: Sequence[TextLine], over: Sequence[TextLine]) -> list[TextLine]:
    """The lines beside a date with the first that may be its title before the others, or with that which stands over them all; none
    where all of them say more of what it is."""
    named = next((n for n, line in enumerate(others) if not says_about(line.text)), None)
    if named is None or (over and named):  # Tutor: M. Quill, below its course
        is_title = len(over) == 1 and not (over[0].date or over[0].time or says_about(over[0].text))
        return [over[0], *others] if is_title and may_title(over[0]) else []
    return [others[named], *others[:named], *others[named + 1 :]]


def under_its_title(row: Row | None, above: Sequence[TextLine]) -> Row | None:
    """The event of a paragraph that says when and where, with the line that stands alone above it as what; any other as it is."""
    if row is None or not above or above[0].date or above[0].time:
        return row
    event = EventRow(*map(str, row[1]))
    if event.place or not is_place(event.title.partition(",")[0]):
        return row
    return row[0], event._replace(title=above[0].text.strip(" :"), place=event.title)
