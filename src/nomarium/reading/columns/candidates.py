"""What the columns of a table that cannot be read could be, for the person who has to say it."""

import re
from typing import NamedTuple

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents


class Candidate(NamedTuple):
    """What a column holds, and the fields that it could be."""

    holds: str
    fields: tuple[str, ...]


_DAY = r"(?i)\b\d{1,2}(?:st|nd|rd|th)\b|(?<![\d/.-])\d{1,2}[/.-]\d{1,2}(?!\d)"
_NOTHING = Candidate("nothing", ())


def _plural(column: Column, lexicon: Lexicon) -> float:
    """The share of samples that are weekdays in the plural, `Tuesdays`."""
    words = [fold(text).strip().removesuffix("s") for text in column.samples]
    return sum(word in lexicon.weekdays for word in words) / len(words)


def _says_day(text: str, lexicon: Lexicon) -> bool:
    """Whether words and figures may name a day in some form: a month or a weekday, `1st`, `3/9`, and no `2026/114`."""
    is_known = any(map(lexicon.knows, re.findall(r"[^\W\d_]+", fold(text))))
    return is_known or re.search(_DAY, text) is not None


def candidate(column: Column, lexicon: Lexicon) -> Candidate:
    """What a column could be, judged by its samples."""
    about = Contents(column.samples, lexicon)
    if not about.cells:
        return _NOTHING
    for share, found in (
        (about.dates, Candidate("dates", ("date", "end-date"))),
        (about.weekdays or _plural(column, lexicon), Candidate("weekdays", ("day", "repeat"))),
        (about.times, Candidate("times", ("time", "start", "end"))),
        (about.plain_answers, Candidate("yes and no", ("all-day", "rsvp", "reminder"))),
        (about.numbers, Candidate("numbers", ("duration", "week", "priority"))),
    ):
        if share >= MOSTLY:
            return found
    words = [text for text in column.samples if any(map(str.isdigit, text))]
    if len(words) == len(column.samples):
        may_say_when = any(_says_day(text, lexicon) for text in words)
        fields = ("summary", "location", "description", *(("when",) if may_say_when else ()))
        return Candidate("words and figures", fields)
    return Candidate("words", ("summary", "location", "description", "categories", "teacher"))
