"""Lines that stand alone and say how often something is held, `Rehearsals every Tuesday 7.30pm from 8 September to 15 December`."""

import datetime as dt
import re
from collections.abc import Sequence
from itertools import islice
from typing import Final, NamedTuple

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.otherwise import first_day, says_often
from nomarium.reading.rows.repeating import bounds_of, repeated
from nomarium.reading.rows.when import Blame, Part, Said, When, settle
from nomarium.reckoning.starts import starts
from nomarium.reckoning.zones import zone_named

_EDGES: Final = " \t,;:.–—-|•*"
_PLACE: Final = re.compile(r"(?i)(?:in|at|@)\s+(?=\S)")
_GOES_ON: Final = r"(?i)\b(?:or|and|ou|et|oder|und|o|y|e)\W*$"
"""What leads from another repeat to this one."""
_OPEN: Final = frozenset(("repeat-undated", "repeat-endless", "days-off-missing"))
"""Codes of repeats of which a line does not say when they begin or end."""
_MOST_HELD: Final = 1000
"""Dates of a repeat that are compared with those of a table."""
_REMEDY: Final = "Give it a row of its own: its first and its last day, its time, and how often."


class Often(NamedTuple):
    """What such a line says."""

    title: str
    when: When
    place: str = ""
    rest: str = ""
    """What else it says."""
    notes: tuple[Problem, ...] = ()

    def are_of(self, days: Sequence[dt.date]) -> bool:
        """Whether it is held on most of these: then it says of them what they say themselves."""
        rules = self.when.recurrence.rules if self.when.recurrence is not None else ()
        held = islice(starts(rules[0], self.when.start), _MOST_HELD) if rules else ()
        dates = {start.date() if isinstance(start, dt.datetime) else start for start in held}
        return sum(day in dates for day in days) * 2 > len(days)


def often_said(text: str, decisions: Decisions, options: ReadingOptions) -> Often | Refusal | None:
    """What a line says that names a repeat with its first and its last day; a refusal where its dates contradict each other or
    figures of it are not understood. None where it says no repeat, or leaves open from when or until when."""
    match = often_in(text)
    if match is None:
        return None
    before, words = text[: match.start()].strip(_EDGES), text[match.start() :].split()
    for size in range(len(words), 1, -1):
        repeat = read_repeat(" ".join(words[:size]).strip(_EDGES), decisions.lexicon, options.cycle)
        if isinstance(repeat, Repeat) and says_often(repeat):
            return _often(repeat, before, " ".join(words[size:]).strip(_EDGES), decisions, options)
    return None


def _often(
    repeat: Repeat, before: str, behind: str, decisions: Decisions, options: ReadingOptions
) -> Often | Refusal | None:
    begin = first_day(repeat, decisions, options.repeats_from)
    if begin is None or isinstance(begin, Refusal):
        return begin
    zone = zone_named(options.zone) if options.zone else None
    when = settle(Said(date=Part(begin), zone_name=options.zone, zone=zone), options.length_secs)
    if isinstance(when, Blame):
        return when.refusal
    found = repeated(when, {"repeat": repeat._replace(first=None)}, decisions, bounds_of(options))
    if isinstance(found, Blame):
        return None if found.refusal.code in _OPEN else found.refusal
    strange = behind if re.search(r"\d", behind) else before if re.search(_GOES_ON, before) else ""
    if strange:
        message = f"It says how often something is held, and “{strange}” is not understood."
        return Refusal("repeat-unread", message, _REMEDY)
    is_place = _PLACE.match(behind) is not None
    title = before or ("" if is_place else behind)
    if sum(map(str.isalpha, title)) < 2:
        return None
    return Often(
        title,
        found.when._replace(recurrence=found.recurrence),
        _PLACE.sub("", behind, count=1) if is_place else "",
        "" if is_place or not before else behind,
        found.notes,
    )
