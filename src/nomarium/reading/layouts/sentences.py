"""The events of a line that is prose, sentence by sentence."""

import re
from typing import Final, Literal, NamedTuple

from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.lineforms import clocked
from nomarium.reading.layouts.linetimes import time_in
from nomarium.reading.layouts.prose import Said, said_in
from nomarium.reading.layouts.sentenceends import sentences_of
from nomarium.reading.layouts.textlines import TextLine, is_sentence
from nomarium.sheets.sheet import Row

_SAME_DAY: Final = re.compile(
    r"(?i)\b(?:mon|tues|wednes|thurs|fri|satur|sun)day\s+(?:the\s+)?\d{1,2}(?:st|nd|rd|th)\b|\bon\s+(?:mon|tues|wednes|thurs|fri|satur|sun)day\b(?!\s*(?:to\b|and\b|[-–—&,]))|\b(?:that|the\s+same|on\s+the)\s+(?:day|date|morning|afternoon|evening|night|mon|tues|wednes|thurs|fri|satur|sun)"
)
"""Words by which a sentence speaks of the day of another."""


_OF_PARTS: Final = re.compile(
    r"(?i)\b(?:starts?|begins?|starting|beginning|kick-?off|warm-?up|racing|curtain|registration|arrive|arrival|meet at|finish(?:es)?|runs? from)\b"
)
"""Words by which a sentence says when an event begins, or a part of it."""
_REPORTED: Final = re.compile(
    r"(?i)\b(?:reported|noted|explained|said|advised|stated|complained|told us|pointed out) that\b"
)
"""Words by which the minutes of a meeting say what somebody said there."""
_IT_IS_HELD: Final = re.compile(
    r"(?i)^(?:it|this|(?:the|this) event)(?=\s+(?:will (?:now |again |also )?be held|will (?:now |again |also )?take place|takes place|is (?:to be |being )?held)\b)"
)
"""A sentence about what its heading names: only events are held."""


class BySentences(NamedTuple):
    """What the sentences of a line come to."""

    rows: list[Row]
    doubtful: list[str]
    """Those that leave in doubt what they say."""
    timed: list[str]
    """Those that say a time and no date."""
    past: list[str]
    """Those that speak of what was, or of the paper."""


def said_by_sentences(line: TextLine, lexicon: Lexicon, heading: str = "") -> BySentences:
    """What the sentences of a line come to. `heading`: what stands over the line, which its sentences may speak of."""
    rows, doubtful, timed, past = BySentences([], [], [], [])
    for sentence in sentences_of(clocked(line.text, lexicon), lexicon):
        if heading:
            sentence = _IT_IS_HELD.sub(lambda _: heading, sentence)
        said = None if keeps_books(sentence) else said_in(sentence, lexicon, time_in)
        if isinstance(said, Said):
            rows.append((line.number, EventRow(said.date, said.time, said.title, said.place, said.notes)))
        elif said is None and _says_when(sentence) and any(not _has_time(row) for row in rows):
            doubtful.append(sentence)  # of the event before it
        elif said == "doubtful" or (said is None and time_in(sentence)[0] and _SAME_DAY.search(sentence)):
            doubtful.append(sentence)
        elif said is None and time_in(sentence)[0]:
            timed.append(sentence)
        if said == "past" or keeps_books(sentence):
            past.append(sentence)
    if line.date and not (rows or doubtful or past):
        doubtful.append(line.text)  # its date is in none of its sentences
    return BySentences(rows, doubtful, timed, past)


def _says_when(sentence: str) -> bool:
    """Whether a sentence without a date says when the parts of something begin, `Warm-up 5.15pm, racing from 6pm`."""
    return bool(time_in(sentence)[0]) and _OF_PARTS.search(sentence) is not None


def _has_time(row: Row) -> bool:
    return bool(row[1][1] or time_in(str(row[1][0]))[0])


def sentence_of_list(line: TextLine, lexicon: Lexicon) -> Row | Literal["past"] | None:
    """What an entry of a list says that is written as a sentence, and says one event, or what was."""
    if not is_sentence(line._replace(is_bullet=False)):
        return None
    said = said_by_sentences(line, lexicon)
    if not said.rows and (not said.doubtful or all(map(_REPORTED.search, said.doubtful))):
        return "past"
    return said.rows[0] if len(said.rows) == 1 and not (said.doubtful or said.past) else None
