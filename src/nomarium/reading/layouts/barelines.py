"""Lines that say when and nothing else, and date no programme: their titles stand over or under them, and their places below."""

import re
from bisect import bisect_left, bisect_right
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.aboutlines import says_about
from nomarium.reading.layouts.asides import IDLE, heads_paper, may_title
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.linetimes import time_in
from nomarium.reading.layouts.monthlines import month_alone
from nomarium.reading.layouts.textlines import BULLET, MARKS, TextLine, text_line
from nomarium.sheets.sheet import Row

_OF_DAY: Final = re.compile(r"(?i)[^\d:]{2,40}\s(?:for|on|für|am|pour|le|para|el|voor)")
"""What is for a day, and said below it: `Cover for`, a date."""
_MOST_OF_TITLE: Final = 3
"""Words above which a line that ends as a sentence does is no title."""


_EDGE: Final = re.compile(r"(?i)starts?|begins?|opens?|re-?opens?|ends?|finish(?:es)?|closes?|beginnt|endet")
"""How something begins or ends that the line above names."""
_MOST_OVER_EDGE: Final = 6
"""Words of what begins or ends."""
_NOTHING: Final = frozenset("- – — -- n/a N/A".split())
"""What stands, beside words that say so, under a date on which nothing is on."""


class Bare(NamedTuple):
    """A line that says when, with the title and the place that were found for it; the title is blank where none was."""

    line: TextLine
    title: str
    place: str = ""


def titled_days(
    bare: Mapping[int, TextLine], lines: Sequence[tuple[int, str]], rows: Sequence[Row], lexicon: Lexicon
) -> Iterator[Bare]:
    """Lines that stand alone with a date, each with the line that it dates; what is for a day and said below it, `Cover for`,
    has no title."""
    dates = {str(cells[0]) for _, cells in rows}
    alone = {n for n, line in bare.items() if _OF_DAY.fullmatch(line.rest) and line.date not in dates}
    yield from (Bare(bare[n], "") for n in sorted(alone))
    yield from _titled_days({n: line for n, line in bare.items() if n not in alone}, lines, rows, lexicon)


def _titled_days(
    bare: Mapping[int, TextLine], lines: Sequence[tuple[int, str]], rows: Sequence[Row], lexicon: Lexicon
) -> Iterator[Bare]:
    """Lines that stand alone with a date, unless rows have it: each with the line that it dates. One that opens its paragraph
    has its title below, in the same paragraph or as the one line before the next date; any other has it right above."""
    date_of = {number: str(cells[0]) for number, cells in rows}
    dated = sorted((*bare, *date_of))
    texts = {number: MARKS.sub("", BULLET.sub("", text)).strip() for number, text in lines if text.strip()}
    numbers, first_of = sorted(texts), dict[int, int]()
    for number in numbers:
        first_of[number] = first_of.get(number - 1, number)  # of its paragraph
    used: set[int] = set()
    over: dict[int, str] = {}
    """The titles right above dates, and of those that stand right below these."""
    unclear = _unclear_paragraphs(bare, {n: text for n, text in texts.items() if n not in date_of}, first_of)
    for number, line in bare.items():
        after = next(iter(dated[bisect_right(dated, number) :]), None)
        if after is not None and date_of.get(after) == line.date and not (line.time or line.has_time):
            continue  # what it dates
        end = len(numbers) if after is None else bisect_left(numbers, after)
        under = [
            n
            for n in numbers[bisect_right(numbers, number) : end]
            if month_alone(texts[n], lexicon) is None and any(map(str.isalpha, time_in(texts[n])[1]))
        ]
        if texts.get(number + 1, "") in _NOTHING or (under and IDLE.fullmatch(texts[under[0]])):
            continue
        over_it = _titled_by(number, texts)
        above = texts.get(over_it, "")
        is_free = over_it not in bare and over_it not in date_of and over_it not in used
        opens = first_of[number] == number or first_of[number] in bare or first_of[number] in date_of
        if first_of[number] in unclear:
            yield Bare(line, "")
        elif above and is_free and not opens and month_alone(above, lexicon) is None:
            if heads_paper(above):
                continue
            place = texts[under[0]] if under and under[0] == number + 1 and is_place(texts[under[0]]) else ""
            used |= {under[0]} if place else set()
            is_text_above = bool(texts.get(over_it - 1)) and over_it - 1 not in {*date_of, *bare}
            if not place and is_place(above) and is_text_above:
                above, place = texts[over_it - 1], above  # a poster: what, where, when
                used |= {over_it - 1}
            over |= {} if place else {number: above}
            yield Bare(line, above, place)
        elif number - 1 in over:  # Open days, over several of them
            over[number] = over[number - 1]
            yield Bare(line, over[number])
        elif after is None or after in bare or (under and (number != dated[0] or under[0] == number + 1)):
            is_poster = len(dated) == 1 and bool(line.time or line.has_time) and number == numbers[0]
            title = texts[under[0]] if under and (len(under) == 1 or is_poster) else ""
            yield Bare(
                line, "" if len(title.split()) > _MOST_OF_TITLE and title.endswith((".", "!", "?")) else title
            )
        elif (
            number > dated[0]
            or line.time
            or line.has_time
            or re.search(r"\d\s*(?:,|&|\band\b).*\d\s+\w", line.date)
        ):
            yield Bare(line, "")  # Sat 31 Oct TBC, between other days


def _titled_by(number: int, texts: Mapping[int, str]) -> int:
    """The number of the line that may be the title of a date right below it, or below lines that say who leads it or what it costs."""
    at = number - 1
    while says_about(texts.get(at, "")):
        at -= 1
    if at == number - 1 or texts.get(at):
        return at
    is_heading = bool(texts.get(at - 1)) and not texts.get(at - 2) and not says_about(texts[at - 1])
    return at - 1 if is_heading else at  # a heading, and a blank line below it


def _unclear_paragraphs(
    bare: Mapping[int, TextLine], texts: Mapping[int, str], first_of: Mapping[int, int]
) -> set[int]:
    """The paragraphs, by their first lines, with several dates of which one has a line above it that is no title: the titles
    may as well stand below."""
    of_paragraph = Counter(first_of[number] for number in bare)
    return {
        first_of[number]
        for number in bare
        if of_paragraph[first_of[number]] > 1
        and first_of[number] not in bare
        and _is_no_title(texts.get(number - 1, ""))
    }


def _is_no_title(text: str) -> bool:
    time, rest = time_in(text)
    is_time = bool(time) and not any(map(str.isalpha, rest))
    return is_time or is_place(text) or re.search(r"[.!?]$|[@£$€]", text) is not None


def heads_programme(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line dates those below it: it says no more, or they have the times and it has none."""
    if line.time or line.has_time:
        return False
    if sum(map(str.isalpha, line.rest)) < 2 and "?" not in line.rest:
        return True
    if _OF_DAY.fullmatch(line.rest):
        return True
    if following is None or following.date or not following.time:
        return False
    return following.text.startswith(following.time) and any(
        map(str.isalpha, following.rest)
    )  # a line of a programme, and not `Hours 9:00 - 3:30`


def edge_of(line: TextLine, above: TextLine | None) -> Row | None:
    """What a line says that is a label, *Starts* or *Ends*, of the title above it: `Autumn term starts`."""
    label = line.rest.strip(" :")
    if above is None or _EDGE.fullmatch(label) is None or not line.text.startswith(label):
        return None
    if not may_title(above) or len(above.text.split()) > _MOST_OVER_EDGE:
        return None
    return line.number, EventRow(line.date, line.time, f"{above.text.strip(' :')} {label.lower()}")


_DAY_LABELS: Final = frozenset("date day when on datum tag wann quand jour fecha cuando".split())


def labels_day(line: TextLine, following: TextLine | None, lexicon: Lexicon) -> TextLine | None:
    """A line that is a date behind its label, over one that says a time, with that date: `Date: 22 April 2027` over `Arrival: 9.30am`."""
    label, colon, value = line.text.partition(":")
    if (
        not colon
        or following is None
        or not following.time
        or following.date
        or fold(label) not in _DAY_LABELS
    ):
        return None
    dated = text_line(line.number, value, lexicon)
    return dated if dated.date and not (dated.time or dated.has_time or dated.rest or dated.repeat) else None
