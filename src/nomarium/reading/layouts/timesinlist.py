"""Lines that say several times at which something begins, `Concert, 2.15pm & 6pm`: an event at each."""

import re
from typing import Final

from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.linedoubts import doubt_of
from nomarium.reading.layouts.linetimes import time_in
from nomarium.reading.layouts.textlines import TextLine, text_line

_CLOCK: Final = r"(?:\d{1,2}(?:[.:]\d\d)?\s?[ap]\.?m\b\.?|(?:12\s)?noon\b|\d{1,2}[:.]\d\d(?![\d.:]))"
_LIST: Final = re.compile(
    rf"(?i)(?<![\w.:–—-])(?<![–—-]\s){_CLOCK}(?:\s*(?:,|&|/|\band\b|,\s*and\b)\s*{_CLOCK})+(?!\s*(?:[–—-]\s*\d|\bto\b))"
)
_SPAN: Final = re.compile(r"(?i)\b(?:between|from)\s*$")
_AND: Final = re.compile(r"(?i)&|\band\b")
_HALF: Final = re.compile(r"(?i)[ap]\.?m\b|noon")


def at_each_time(line: TextLine, lexicon: Lexicon) -> list[TextLine]:
    """The line once for each of the times that it lists, with that alone; nothing where it lists none, says another, is in doubt
    for more, or its times are not all of one form."""
    lists = list(_LIST.finditer(line.text))
    if len(lists) == 1 and not _AND.search(lists[0][0]):
        return []  # 9:00, 10:00 may be when it begins and ends
    if len(lists) != 1 or _SPAN.search(line.text[: lists[0].start()]):
        return []
    before, behind = line.text[: lists[0].start()], line.text[lists[0].end() :]
    times = re.findall(rf"(?i){_CLOCK}", lists[0][0])
    halves = {_HALF.search(time) is not None for time in times}
    if len(halves) > 1 or len(set(times)) < len(times) or time_in(f"{before} · {behind}")[0]:
        return []
    each = [
        text_line(line.number, f"{before}{time}{behind}", lexicon)._replace(is_bullet=line.is_bullet)
        for time in times
    ]
    is_sure = doubt_of(line, lexicon) is not None and not any(doubt_of(one, lexicon) for one in each)
    return each if is_sure else []
