"""The labels of a plan that has no Cycle table: an evident run in its timetable and bells, such as Day 1 to Day 6 or A to H."""

import re
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import listed
from nomarium.reading.cells.weekdaycodes import WeekdayCodes, words_of_weekdays
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item
from nomarium.school.yeartables import CycleRow

_LEADS = r"(?i)\b(?:cycle\s*days?|days?|jours?|labels?|letters?|tage?)\b"
_LONGEST_RUN = 20


class Found(NamedTuple):
    """The cycle that labels show."""

    rows: list[CycleRow]
    problems: list[Problem]
    notes: list[Problem]


def labels_found(texts: Iterable[tuple[str, Item]]) -> Found:
    """The cycle that the labels of a timetable and of bells are a run of; `texts` are theirs, each with its row."""
    said = [(text, item) for text, item in texts if text and plain(text) not in ("all", "every", "everyday")]
    if not said or WeekdayCodes([text for text, _ in said], ENGLISH).are_days:
        return Found([], [], [])
    first: dict[str, Item] = {}
    strange: tuple[str, Item] | None = None
    for text, item in said:
        names = _names_in(text)
        if names is None:
            strange = strange or (text, item)
            continue
        for name in names:
            first.setdefault(name, item)
    item = said[0][1]
    if strange is not None or not first:
        among = _among_weekdays(said)
        if among is not None:
            return Found([], [among], [])
        text, item = strange or said[0]
        message = f"“{text}” is a label, and no table says in which order labels come."
        return Found([], [_asked(item, text, message)], [])
    run = sorted(first, key=lambda name: (len(name), name))
    whole = _whole_run(run)
    if len(run) == 1:
        message = f"The only label is {run[0]}, and one is no cycle."
        return Found([], [_asked(item, "", message)], [])
    lacking = [name for name in whole if name not in first]
    if lacking:
        message = f"Its labels are {listed(run)}: {listed(lacking)} {'is' if len(lacking) == 1 else 'are'} missing from the run."
        return Found([], [_asked(item, "", message)], [])
    rows = [CycleRow(name, "", None, "", None, first[name]) for name in run]
    message = f"The cycle is {run[0]} to {run[-1]}, as the labels show: each school day takes the next."
    remedy = "If it is another: a table Cycle with the column Label, in the order in which they come."
    return Found(rows, [], [note("cycle-found", message, remedy).at(item.table.sheet.place())])


def _among_weekdays(said: Sequence[tuple[str, Item]]) -> Problem | None:
    """The first label that names no weekday where most do, as the problem that it is; None where they are labels."""
    from nomarium.reading.cells.languages import weekday_lexicon

    texts = dict.fromkeys(text for text, _ in said)
    codes = WeekdayCodes(texts, weekday_lexicon(words_of_weekdays(texts), least=2) or ENGLISH)
    named = {text for text in texts if len(text) > 1 and not isinstance(codes.read(text), Refusal)}
    if len(named) * 2 < len(texts) or len(named) == len(texts):
        return None
    text, item = next(one for one in said if one[0] not in named)
    message = f"“{text}” does not say on which weekdays, and most of the other rows do."
    remedy = (
        "Write it like Mon/Wed or Mon-Fri; if it is a label of a cycle, list the labels in a table Cycle."
    )
    return Problem("weekday-unknown", message, remedy, item.place("label"), text)


def _asked(item: Item, text: str, message: str) -> Problem:
    remedy = "List the labels in a table Cycle, in the order in which they come."
    return Problem("cycle-missing", message, remedy, item.place("label"), text)


def _names_in(text: str) -> list[str] | None:
    """The labels that a cell names, `Day 1, 3` or `A-C`; None when one could be no part of a run."""
    bare = re.sub(_LEADS, " ", text)
    found: list[str] = []
    for part in re.findall(
        r"[^\s,;/&+]+(?:\s*[-–]\s*[^\s,;/&+]+)?", re.sub(r"(?i)\b(?:and|et|und)\b", " ", bare)
    ):
        ends = [end.strip().upper() for end in re.split(r"[-–]", part)]
        if len(ends) > 2 or not all(re.fullmatch(r"[A-Z]|\d{1,2}", end) for end in ends):
            return None
        if len(ends) == 2 and ends[0].isdecimal() != ends[1].isdecimal():
            return None
        span = _whole_run(ends) if len(ends) == 2 else ends
        if ends[0] not in span:
            return None  # `9-5` falls and `25-30` is longer than any cycle: neither is a run of labels
        found += span[span.index(ends[0]) :]
    return found or None


def _whole_run(names: Sequence[str]) -> list[str]:
    """Every label from the first that there could be to the last of these."""
    last = names[-1]
    if last.isdecimal():
        return [str(number) for number in range(1, min(int(last), _LONGEST_RUN) + 1)]
    return [chr(code) for code in range(ord("A"), ord(last) + 1)]
