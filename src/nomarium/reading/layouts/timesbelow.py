"""When and where on the line below what is on, and on which day: `Summer fair – 12 June 2027` over `2pm – 4pm, Sail loft`."""

import re
from collections.abc import Sequence
from itertools import chain

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.textlines import TextLine, is_sentence, text_line


def with_times_below(paragraphs: Sequence[list[TextLine]], lexicon: Lexicon) -> list[list[TextLine]]:
    """The paragraphs, in which a line that says a title and a day has with it the one line below that says its time and its place;
    where more lines with times follow, they are a programme of the day."""
    every = list(chain.from_iterable(paragraphs))
    joined: dict[int, TextLine] = {}
    taken: set[int] = set()
    for n, line in enumerate(every[:-1]):
        below, after = every[n + 1], every[n + 2] if n + 2 < len(every) else None
        goes_on = after is not None and bool(after.time) and not after.date
        if _says_what_and_day(line) and _says_when_and_where(below) and not goes_on:
            joined[line.number] = text_line(line.number, f"{line.text}, {below.text}", lexicon)
            taken.add(below.number)
    if not joined:
        return list(paragraphs)
    kept = [
        [joined.get(line.number, line) for line in some if line.number not in taken] for some in paragraphs
    ]
    return [some for some in kept if some]


def _says_what_and_day(line: TextLine) -> bool:
    is_untimed = bool(line.date) and not (line.time or line.has_time or line.repeat)
    return (
        is_untimed and sum(map(str.isalpha, line.rest)) > 1 and not (is_sentence(line) or is_place(line.rest))
    )


def _says_when_and_where(line: TextLine) -> bool:
    """Whether a line begins with its time, and goes on with a place, which a sentence may follow."""
    if line.date or not line.time or not line.text.startswith(line.time):
        return False
    place = re.split(r"\s*[.;,(]\s*", line.rest.strip(" ,;.–—-"), maxsplit=1)[0]
    return is_place(place)
