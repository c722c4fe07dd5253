"""Paragraphs whose lines are labelled, `When: …`, `Where: …`: together they say one event."""

import re
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.textlines import TextLine, time_in
from nomarium.reading.rows.lone import date_within
from nomarium.sheets.sheet import Row

_LABEL: Final = re.compile(r"^(?P<label>[^\W\d][\w &/]{1,20}?)\s*[:：]\s*(?P<value>\S.*)$")
_MEANS: Final[Mapping[str, str]] = MappingProxyType({
    **dict.fromkeys(("when", "date", "day", "dates", "quand", "wann", "datum", "cuando", "fecha"), "date"),
    **dict.fromkeys(("from", "start", "starts", "begins", "von", "de", "du"), "from"),
    **dict.fromkeys(("to", "until", "end", "ends", "till", "bis", "au"), "to"),
    **dict.fromkeys(("time", "times", "at", "heure", "uhrzeit", "hora", "zeit", "hours"), "time"),
    **dict.fromkeys(("where", "place", "venue", "location", "room", "lieu", "ou", "wo", "ort", "lugar", "donde"), "place"),
    **dict.fromkeys(("event", "what", "title", "subject", "activity", "occasion", "name", "quoi", "was", "que", "evento"), "title"),
})  # fmt: skip


def labelled(lines: Sequence[TextLine], lexicon: Lexicon) -> Row | None:
    """The event of a paragraph with a labelled date and one label more, titled by a label or by the line above them; None
    where it is no such paragraph."""
    said: dict[str, str] = {}
    loose: list[str] = []
    for line in lines:
        match = _LABEL.match(line.text)
        field = _MEANS.get(fold(match["label"]).strip()) if match else None
        if match is None or field is None:
            loose.append(line.text)
        elif field in said:
            return None  # two events, or another form
        else:
            said[field] = match["value"]
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
