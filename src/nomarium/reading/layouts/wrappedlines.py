"""Lines that a writer's program broke where the width ended, put together again: `… will be held on` over `Saturday 12 September
…` is one sentence, and neither half of it says the event."""

import re
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.wording import GOES_ON_AS_NUMBER
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.monthlines import month_alone

_GO_ON: Final = frozenset(
    "a an the of on at in to for from with by and or our your their its is are will be held until between that which who as "
    "de du des le la les un une à au aux et en pour par sur avec der die das den dem am im um von vom zu zum zur mit und für ein eine "
    "el los las del al y con para il lo gli di da e con per het een van op te met en".split()
)
"""Words with which no line ends that is whole."""
_LEAD_ON: Final = frozenset(
    "at on in from to until with and or for by of à au en dans avec et um am im ab mit und".split()
)
"""Words with which no line begins that stands by itself."""
_MARKED: Final = re.compile(r"^\s*(?:#{1,6}\s|[-*•–+·▪|>])|\t|(?<![\s!?])\s{3,}\S|\|")
_NUMBER: Final = re.compile(r"^\s*\d{1,2}[.)]\s")
_LABEL: Final = re.compile(r"^\s*[^\W\d][\w &/]{1,30}:\s")
_NO_BREAK: Final = re.compile("|".join(form.pattern for form in (_MARKED, _NUMBER, _LABEL)))
"""What begins a line of its own, or parts the columns of one."""
_HALF_ENDS: Final = re.compile(r"(?i)\d\s?[ap]\.m\.\s*$")
"""A line that ends with its time, and with no sentence."""
_TILL: Final = re.compile(r"[–—-]\s*\d")
_CLOCK_ENDS: Final = re.compile(r"(?:\d|[ap]\.?m\.?)\s*$")
"""A time, and the sign that leads from one to its end."""
_TIMED: Final = re.compile(
    r"\d{1,2}(?:[:.]\d\d|\s?[ap]\.?m\b|[/-]\d|(?:st|nd|rd|th)?\.?\s+(?P<month>[^\W\d]{3,}))"
)
"""What begins an entry: a time, or a day with its month."""
_DATE_ENDS: Final = re.compile(
    r"(?:[^\W\d]{3,}\.?\s+\d{1,2}(?:st|nd|rd|th)?|\d{1,2}(?:st|nd|rd|th)?\.?\s+[^\W\d]{3,}\.?),?$"
)
"""A day and its month at the end of a line."""
_DAY: Final = re.compile(r"\d{1,2}(?:st|nd|rd|th)?\.?")
_WHOLE_DATE: Final = re.compile(
    r"\d{1,2}(?:st|nd|rd|th|er)?\.?\s+(?P<month>[^\W\d]{3,})\.?(?:,?\s+(?:19|20)\d\d)?\W*"
)
"""A day with its month, and nothing else."""
_IN_DATE: Final = re.compile(r"(?:\d{1,2}(?:st|nd|rd|th)?|(?:19|20)\d\d|[^\W\d]+)[.,;)]?$")
"""A day, a year or a word, with which a date goes on."""
_BEGINS: Final = re.compile(
    r"(?:from|du|vom|von|dal|del|van|ab|dès)\s+(?:[^\W\d]+\.?\s+)?\d|(?:every|each|alternate|fortnightly)\s.*\d"
)
"""A range of days, or how often something is held, with which a line begins although it begins with a small letter."""
_WITHIN_SENTENCE: Final = r"(?i)[a-z0-9][.!?]\s+[A-Z]|\b(?:is|are|will|takes place|please|for more)\b"
_ENDED: Final = re.compile(r"[.!?:;…]\W*$")
_LEAST_WORDS: Final = 5
_LEAST_WIDTH: Final = 50
_MOST_WIDTH: Final = 140
_LONGEST: Final = 1500
"""Characters of the longest paragraph that is put together."""
_LEAST_LENGTH: Final = 30
"""Characters from which on a line without a date goes on below, where that begins with a small letter."""


def unwrapped(lines: Sequence[tuple[int, str]], lexicon: Lexicon) -> list[tuple[int, str]]:
    """The lines with those that go on below joined with what follows them; each has the number of its first."""
    lines = _with_whole_paragraphs(lines, lexicon)
    width = max((len(text.rstrip()) for _, text in lines), default=0)
    found: list[tuple[int, str]] = []
    last = ""
    for number, text in lines:
        if found and re.fullmatch(r"\s*\d{1,2}", last) and month_alone(text, lexicon) is not None:
            found[-1] = found[-1][0], f"{last.strip()} {text.strip()}"  # 07 over Dec
        elif (
            found
            and last.strip()
            and text.strip()
            and _goes_on(found[-1][1], last, text.strip(), width, lexicon)
        ):
            found[-1] = found[-1][0], f"{found[-1][1].rstrip()} {text.strip()}"
        else:
            found.append((number, text))
        last = text.rstrip()
    return found


def _with_whole_paragraphs(lines: Sequence[tuple[int, str]], lexicon: Lexicon) -> Sequence[tuple[int, str]]:
    """The lines with each run of prose, all of whose breaks are where the width ended, in one; each has the number of its first."""
    runs: list[list[tuple[int, str]]] = [[]]
    for line in lines:
        last = runs[-1][-1][1] if runs[-1] else ""
        is_new = not line[1].strip() or (last and _ends_before(last, line[1].strip(), lexicon))
        runs += [[]] if is_new else []
        runs[-1] += [line] if line[1].strip() else []
    width = max((len(text.rstrip()) for some in runs for _, text in some[:-1]), default=0)
    if not _LEAST_WIDTH <= width <= _MOST_WIDTH:
        return lines
    joined: dict[int, str] = {}
    taken: set[int] = set()
    for some in (part for run in runs for part in _filled(run, width)):
        texts = [text.strip() for _, text in some]
        if len(texts) > 1 and _is_prose(texts, lexicon):
            joined[some[0][0]] = " ".join(texts)
            taken |= {number for number, _ in some[1:]}
    return [(number, joined.get(number, text)) for number, text in lines if number not in taken]


def _filled(run: Sequence[tuple[int, str]], width: int) -> Iterator[list[tuple[int, str]]]:
    """The parts of a run of lines in which each line but the last had no room for the first word of the next one."""
    part: list[tuple[int, str]] = []
    for line in run:
        if part and len(part[-1][1].rstrip()) + 1 + len(line[1].split()[0]) <= width:
            yield part
            part = []
        part.append(line)
    yield part


def _ends_before(text: str, after: str, lexicon: Lexicon) -> bool:
    """Whether a line ends with its sentence, and the next one begins another; `am 2.` over a month does not."""
    is_ended = re.search(r"(?:\d|[\w)”\"'’]{2}|\.)[.!?]\s*$", text) is not None
    return is_ended and after[0].isupper() and not _is_of_date(after.split()[0], lexicon)


def _is_prose(texts: Sequence[str], lexicon: Lexicon) -> bool:
    """Whether lines are a paragraph of sentences, and no entries one below the other: labels, numbers of a list, or dates."""
    whole = " ".join(texts)
    if len(whole) > _LONGEST or _ENDED.search(whole) is None or _HALF_ENDS.search(whole):
        return False
    if all(text[0].isupper() for text in texts) and all(_has_day(text, lexicon) for text in texts):
        return False  # each line begins with what is on, and says its own day
    forms = [form for form in (_LABEL, _NUMBER) if form.match(texts[0])]
    others = [
        text
        for last, text in pairwise(texts)
        if not (text[0].islower() or (_TILL.match(text) and _CLOCK_ENDS.search(last)))
        and not (text.startswith(("– ", "— ")) and _ENDED.search(last) is None)
        and last.split()[-1] not in _GO_ON
    ]
    if _MARKED.search(texts[0]) or any(form.search(text) for text in others for form in (_MARKED, *forms)):
        return False
    return sum(_begins_entry(text, lexicon) for text in texts) * 2 <= len(texts)


def _has_day(text: str, lexicon: Lexicon) -> bool:
    """Whether a line says a day with its month, before or behind it, or in figures."""
    pairs = re.findall(
        r"(\d{1,2})(?:st|nd|rd|th)?\.?\s+(?:of\s+)?([^\W\d]{3,})|([^\W\d]{3,})\.?\s+\d{1,2}(?!\d)|(\d{1,4}[/.-]\d{1,2}[/.-]\d)",
        text,
    )
    return any(figures or fold(after or before) in lexicon.months for _, after, before, figures in pairs)


def _begins_entry(text: str, lexicon: Lexicon) -> bool:
    """Whether a line begins with a time or a day, and says more; `March 2027` goes on from the day above."""
    if (timed := _TIMED.match(text)) is not None:
        return any(map(str.isalpha, text[timed.end() :])) and (
            timed["month"] is None or fold(timed["month"]) in lexicon.months
        )
    return _is_of_date(text.split()[0], lexicon) and re.match(r"\S+\s+(?:19|20)\d\d\b", text) is None


def _goes_on(whole: str, last: str, after: str, width: int, lexicon: Lexicon) -> bool:
    """Whether a line, of which `last` is what was written last, goes on with the one after it."""
    if (
        len(whole) > _LONGEST
        or _ENDED.search(last)
        or _NO_BREAK.search(after)
        or _NO_BREAK.search(last.strip())
    ):
        return False
    words, first = whole.split(), after.split()[0]
    if len(words) > 1 and fold(words[-1]).strip(".,;:()–—-") in lexicon.weekdays:
        day = _WHOLE_DATE.fullmatch(after)
        if day is not None and fold(day["month"]) in lexicon.months:
            return True  # Notices for the week beginning Sunday / 7 March 2027
    if len(words) < _LEAST_WORDS:
        return False
    end = words[-1].strip(",")
    is_full = _LEAST_WIDTH <= width <= _MOST_WIDTH and len(last) + 1 + len(first) > width
    begins_entry = words[0][0].isdigit() or _is_of_date(words[0], lexicon)
    is_half = end == "am" and re.search(r"\d\s*am$", last) is not None  # 9:45 am; German am goes on
    if (end in _GO_ON and not is_half) or (
        is_full and _is_of_date(end, lexicon) and not begins_entry and _IN_DATE.match(first)
    ):
        return True
    if (
        re.match(r"(?:19|20)\d\d\b", after)
        and _DATE_ENDS.search(whole)
        and _is_of_date(words[-2 if end[0].isdigit() else -1], lexicon)
    ):
        return True  # on Sunday, June 14, / 2026
    if (
        not begins_entry
        and _DAY.fullmatch(end)
        and fold(words[-2]).strip(".,;:()") in lexicon.weekdays
        and fold(first).strip(".,;:()") in lexicon.months
    ):
        return True  # on Thursday 15 / October
    if (
        is_full
        and not begins_entry
        and re.match(GOES_ON_AS_NUMBER, after)
        and re.search(_WITHIN_SENTENCE, whole)
    ):
        return True  # Please see page / 4 for details.
    if _is_of_date(first, lexicon) or first[0].isdigit() or _BEGINS.match(after):
        return False
    sentence = re.split(r"(?<=[^\W\d]{3})[.!?]\s+(?=[A-Z])", whole)[-1]  # the one that would go on
    has_figures = any(map(str.isdigit, sentence))
    if not first[0].islower():
        return is_full and not has_figures
    is_going = len(whole) > len(last.strip())
    return is_full or first in _LEAD_ON or (len(last) >= _LEAST_LENGTH and (is_going or not has_figures))


def _is_of_date(word: str, lexicon: Lexicon) -> bool:
    """Whether a word is the name of a weekday or of a month; `we` is mostly none."""
    bare = fold(word).strip(".,;:()")
    return (bare in lexicon.weekdays and bare != "we") or bare in lexicon.months
