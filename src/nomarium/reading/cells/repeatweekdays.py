"""Repeats that are weekdays and nothing else, as courses write them, `MWF`, or in any language, `Mo/Mi`."""

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.languages import weekday_lexicon
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.cells.weekdaycodes import WeekdayCodes, words_of_weekdays
from nomarium.reading.cells.words import Lexicon


def weekly_on(text: str, lexicon: Lexicon) -> Repeat | None:
    """The weekly repeat of a cell that is weekdays; None for any other, and where they could be others.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> weekly_on("Mo-Fr", ENGLISH).rule.weekdays[-1], weekly_on("Di", ENGLISH)
    ((0, 4), None)
    """
    words = words_of_weekdays([text])
    names = (weekday_lexicon(words) if words else None) or lexicon
    days = WeekdayCodes([text], names).read(text)
    if isinstance(days, Refusal) or any(map(str.isdigit, text)):
        return None
    return Repeat(Rule("WEEKLY", weekdays=tuple((0, day) for day in sorted(days))), text=text)
