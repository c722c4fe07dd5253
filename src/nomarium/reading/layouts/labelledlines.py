"""Paragraphs whose lines are labelled, `When: …`, `Where: …`: together they say one event."""

import re
from collections.abc import Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.textlines import TextLine, time_in
from nomarium.reading.rows.lone import date_within
from nomarium.sheets.sheet import Row

_MOST_OVER: Final = 2
"""Lines over labels that may be the title of what they say, and words about it."""
_LABEL: Final = re.compile(r"^(?P<label>[^\W\d][\w &/]{1,20}?)\s*[:：]\s*(?P<value>\S.*)$")
_MEANS: Final[Mapping[str, str]] = MappingProxyType({
    **dict.fromkeys(("when", "date", "day", "dates", "quand", "wann", "datum", "cuando", "fecha"), "date"),
    **dict.fromkeys(("from", "start", "starts", "begins", "von", "de", "du"), "from"),
    **dict.fromkeys(("to", "until", "end", "ends", "till", "bis", "au"), "to"),
    **dict.fromkeys(("time", "times", "at", "heure", "uhrzeit", "hora", "zeit", "hours"), "time"),
    **dict.fromkeys(("where", "place", "venue", "location", "room", "lieu", "ou", "wo", "ort", "lugar", "donde"), "place"),
    **dict.fromkeys(("event", "what", "title", "subject", "activity", "occasion", "name", "quoi", "was", "que", "evento"), "title"),
})  # fmt: skip


def parts_of(lines: Sequence[TextLine]) -> Iterator[list[TextLine]]:
    """The parts of a paragraph: each run of labels that say when, with a line or two over it that may be its title; and what
    stands between such runs."""
    others: list[TextLine] = []
    at = 0
    while at < len(lines):
        run = _run_of_labels(lines, at)
        fields = {_said(line)[0] for line in run}
        if len(run) < 2 or not ("date" in fields or {"from", "to"} <= fields):
            others.append(lines[at])
            at += 1
            continue
        over: list[TextLine] = []
        while (
            others
            and len(over) < _MOST_OVER
            and not (others[-1].date or others[-1].time or others[-1].is_bullet)
        ):
            over.insert(0, others.pop())
        if others:
            yield others
        yield [*over, *run]
        others, at = [], at + len(run)
    if others:
        yield others


def _run_of_labels(lines: Sequence[TextLine], at: int) -> list[TextLine]:
    """The lines from one on that are labelled, until one says again what another has said."""
    found: list[TextLine] = []
    fields: set[str] = set()
    for n in range(at, len(lines)):
        line = lines[n]
        field, _ = _said(line)
        is_other = not field and _LABEL.match(line.text) is not None and not line.date and not line.time
        if not (field or is_other) or field in fields:
            break
        fields |= {field} - {""}
        found.append(line)
    return found


def _said(line: TextLine) -> tuple[str, str]:
    """What the label of a line means, and what stands behind it; blank for a line without a label that is known."""
    match = _LABEL.match(line.text)
    field = _MEANS.get(fold(match["label"]).strip(), "") if match else ""
    return (field, match["value"]) if match and field else ("", "")


def labelled(lines: Sequence[TextLine], lexicon: Lexicon) -> Row | None:
    """The event of a paragraph with a labelled date and one label more, titled by a label or by the line above them; None
    where it is no such paragraph."""
    said: dict[str, str] = {}
    loose: list[str] = []
    for line in lines:
        field, value = _said(line)
        if field:
            said[field] = value
        elif line.date or line.time:
            return None  # an event of its own
        else:
            loose.append(line.text)
    if "from" in said and "to" in said and "date" not in said:
        said["date"] = f"{said['from']} - {said['to']}"
    title = said.get("title") or (loose[0] if loose and _LABEL.match(loose[0]) is None else "")
    if "date" not in said or len(said) < 2 or not title:
        return None
    found = date_within(f"{said['date']} ·", lexicon)
    if found is None:
        return None
    own, rest = (
        time_in(" ".join(found.rest.replace("·", "").split("\0"))) if found.moment.start is None else ("", "")
    )
    time = said.get("time") or own
    if rest.strip(" ,;:–—-()"):
        loose.append(rest.strip())
    notes = ", ".join(text for text in loose if text != title)
    return lines[0].number, (found.text, time, title.strip(" :!"), said.get("place", ""), notes, "", "")
