"""Where the sentences of a paragraph end."""

import re
from typing import Final

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold

_ABBREVIATED: Final = r"(?i)(?:(?<![£$€\d.,:])\b\d{1,2}|\b(?:mr|mrs|ms|dr|prof|st|no|nr|approx|tel|e\.g|i\.e|a\.m|p\.m|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec|mon|tues?|wed|thu(?:rs?)?|fri|sat|sun)|\b[a-z])\.$"
_BEGINS: Final = re.compile(r"([A-Z][a-z]*|[A-Z]{2,3})\s+[a-z]{2}")
"""The first two words of a sentence."""
_OPENS: Final = re.compile(
    r"(?:On|The|We|Our|A|An|In|At|For|It|This|These|Please|If|There|All|Join|Come|You|They|Tickets?|From|Also|Do|Don['’]t|More|Mrs?|Ms|Dr)\s"
)
"""Words that begin a sentence, and no name or month behind a number."""
_DAY_FIRST: Final = r"\d{1,2}(?:st|nd|rd|th)?\s+[A-Z][a-z]{2,8}\b[^.]{0,30}:\s"
"""A date that begins a sentence, with what is on behind it."""


def sentences_of(text: str, lexicon: Lexicon) -> list[str]:
    """The sentences of a paragraph; a full stop after an abbreviation ends none, nor does one after a number that goes on with
    a month or a name: `am 2. November`."""
    found: list[str] = []
    for piece in re.split(
        rf"(?<=[.!?])[”\"’)]?\s+(?=[A-Z“\"‘])|(?<=\w{{3}}[.!?])\s+(?={_DAY_FIRST})", text.strip()
    ):
        begins = _BEGINS.match(piece)
        is_sentence = begins is not None and fold(begins[1]) not in lexicon.months
        is_new = not found or _OPENS.match(piece) or (is_sentence and _ends_with_place(found[-1]))
        if not is_new and re.search(_ABBREVIATED, found[-1]):
            found[-1] = f"{found[-1]} {piece}"
        else:
            found.append(piece)
    return found


def _ends_with_place(text: str) -> bool:
    """Whether the number or the letter that ends a text is that of a place, `in Shed A.`, or a figure."""
    return re.search(r"\d\.$", text) is not None or is_place(" ".join(text.rstrip(".").split()[-2:]))
