"""Paragraphs whose lines are labelled, `When: …`, `Where: …`: together they say one event."""

import re
from collections.abc import Iterator, Mapping, Sequence
from itertools import chain, pairwise
from types import MappingProxyType
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.asides import heads_paper
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.linedoubts import doubt_of
from nomarium.reading.layouts.linetimes import reads_as_time, time_in, with_clocks
from nomarium.reading.layouts.textlines import TextLine, is_sentence, text_line
from nomarium.reading.rows.datewithin import date_within, with_days_before
from nomarium.sheets.sheet import Row

_LEAST: Final = 2
_MOST_OVER: Final = 2
"""Lines over labels that may be the title of what they say, and words about it."""
_MORE_DAYS: Final = r"^\W*(?:&|and\b|\+)|(?:&|\band|\+)\W*$|\b\d{1,2}(?:st|nd|rd|th)\b"
_LABEL: Final = re.compile(r"^(?P<label>[^\W\d][\w &/]{1,20}?)\s*(?:[:：]|\?:?)\s*(?P<value>\S.*)$")
_MEANS: Final[Mapping[str, str]] = MappingProxyType({
    **dict.fromkeys(("when", "date", "day", "dates", "quand", "wann", "datum", "cuando", "fecha", "wanneer", "data", "quando"), "date"),
    **dict.fromkeys(("days", "weekdays", "weekday", "on", "jours", "tage", "wochentage", "dias", "dagen"), "days"),
    **dict.fromkeys(("from", "start", "starts", "begins", "depart", "departs", "departure", "leave", "leaves", "leaving", "von", "de", "du", "abfahrt", "salida"), "from"),
    **dict.fromkeys(("to", "until", "end", "ends", "till", "finish", "finishes", "return", "returns", "back", "bis", "au", "ruckkehr", "retour", "vuelta"), "to"),
    **dict.fromkeys(("time", "times", "what time", "at what time", "at", "heure", "à quelle heure", "um wie viel uhr", "uhrzeit", "hora", "zeit", "tijd", "ora", "godzina", "tid", "hours"), "time"),
    **dict.fromkeys(("duration", "length", "lasts", "dauer", "duree", "duracion", "duur", "durata", "duracao"), "length"),
    **dict.fromkeys(("where", "place", "venue", "location", "room", "lieu", "ou", "wo", "ort", "lugar", "donde", "locatie", "plaats", "waar", "luogo", "dove", "local", "onde", "miejsce", "plats"), "place"),
    **dict.fromkeys(("event", "course", "class", "workshop", "what", "title", "subject", "activity", "occasion", "name", "quoi", "was", "que", "evento"), "title"),
})  # fmt: skip


def least_labels(paragraphs: Sequence[Sequence[TextLine]]) -> int:
    """How many labels make an event: two, and where one is said so, a date's alone under its title."""
    said = any(_says_when(part) for some in paragraphs for part in parts_of(some))
    titled = sum(map(is_title_and_day, pairwise(chain.from_iterable(paragraphs))))
    return 1 if said or titled > 1 else _LEAST


def most_over(paragraphs: Sequence[Sequence[TextLine]], least: int) -> int:
    """How many lines over labels may belong to them: where several runs of labels have a title over them, as many as the one
    with the fewest, for what stands higher is the title of them all."""
    counts = [
        sum(may_stand_over(line) and not _is_remark(line) for line in some[max(0, at - _MOST_OVER) : at])
        for some in paragraphs
        for at in _runs_of_labels(some, least)
    ]
    return min(_MOST_OVER, *filter(None, counts)) if len(counts) > 1 and any(counts) else _MOST_OVER


def with_labels_together(paragraphs: Sequence[list[TextLine]]) -> list[list[TextLine]]:
    """The paragraphs, those that begin with a label joined to the one before them that ends with another one: `Date: …` and, below
    a blank line, `Time: …`."""
    found: list[list[TextLine]] = []
    for lines in paragraphs:
        before = found[-1] if found else []
        said: set[str] = set()
        for line in reversed(before):
            field, _ = _said(line)
            if not field:
                break
            said.add(field)
        field, _ = _said(lines[0])
        if said and field and field not in said:
            before.extend(lines)
        else:
            found.append(list(lines))
    return found


def is_title_and_day(lines: Sequence[TextLine]) -> bool:
    """Whether lines are a title and one label, that of a date: `Harvest supper` over `Date: 18 May 2027`."""
    if len(lines) != _LEAST or not may_stand_over(lines[0]) or heads_paper(lines[0].text):
        return False
    return not is_sentence(lines[0]) and not _said(lines[0])[0] and _said(lines[1])[0] == "date"


def _says_when(lines: Sequence[TextLine]) -> bool:
    fields = {_said(line)[0] for line in lines}
    return len(fields - {""}) >= _LEAST and ("date" in fields or {"from", "to"} <= fields)


def parts_of(
    lines: Sequence[TextLine], least: int = _LEAST, most: int = _MOST_OVER
) -> Iterator[list[TextLine]]:
    """The parts of a paragraph: each run of labels that say when, with a line or two over it that may be its title, `most` in a
    text with other such runs; and what stands between such runs."""
    others: list[TextLine] = []
    at = 0
    runs = _runs_of_labels(lines, least)
    while at < len(lines):
        run = runs.get(at)
        if run is None:
            others.append(lines[at])
            at += 1
            continue
        over: list[TextLine] = []
        while others and len(over) < _MOST_OVER and may_stand_over(others[-1]):
            over.insert(0, others.pop())
            is_of_others = len(runs) > 1 or most < _MOST_OVER
            if (is_of_others or heads_paper(others[-1].text if others else "")) and not _is_remark(over[0]):
                break  # what stands higher belongs to the one before
        if others:
            yield others
        yield [*over, *run]
        others, at = [], at + len(run)
    if others:
        yield others


def may_stand_over(line: TextLine) -> bool:
    """Whether a line may be the title of the labels below it."""
    return not (line.date or line.time) and (not line.is_bullet)


def _is_remark(line: TextLine) -> bool:
    return is_sentence(line) or re.search(r"[£$€@]|\d{3}", line.text) is not None


def _runs_of_labels(lines: Sequence[TextLine], least: int) -> dict[int, list[TextLine]]:
    """Where the runs of labels that say when begin, and their lines."""
    found: dict[int, list[TextLine]] = {}
    at = 0
    while at < len(lines):
        run = _run_of_labels(lines, at)
        fields = {_said(line)[0] for line in run}
        if len(run) >= least and ("date" in fields or {"from", "to"} <= fields):
            found[at] = run
            at += len(run)
        else:
            at += 1
    return found


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
    if match is None:
        return "", ""
    label = fold(match["label"]).strip()
    field = _MEANS.get(label, "")
    if not field and _MEANS.get(label.rpartition(" ")[2]) == "title":
        field = "title"  # Training course: First aid
    return (field, with_clocks(match["value"])) if field else ("", "")


def labelled(lines: Sequence[TextLine], lexicon: Lexicon, least: int = _LEAST) -> Row | None:
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
    for field in ("from", "to"):
        value = said.get(field, "")
        time, rest = time_in(value) if not reads_as_time(value) and "date" in said else ("", "")
        if time:  # Depart: 8:15 am from the yard gate
            said[field] = time
            loose += [rest.strip(" ,;")] if rest.strip(" ,;") else []
    if "from" in said and "to" in said and "date" not in said:
        said["date"] = f"{said['from']} - {said['to']}"
    elif "from" in said and reads_as_time(said["from"]) and "time" not in said:
        said["time"] = f"{said['from']} - {said['to']}" if "to" in said else said["from"]
    is_title = bool(loose) and (_LABEL.match(loose[0]) is None or loose == [lines[0].text])  # Exam: Knots
    title = said.get("title") or (loose[0] if is_title else "")
    if "date" not in said or len(said) < least or not title:
        return None
    days = f"{said['days']}, " if "days" in said else ""  # Days: Tuesdays, beside a first and a last one
    whole = text_line(lines[0].number, f"{days}{said['date']}", lexicon)
    if doubt_of(whole, lexicon) is linerefusals.REPEATED or (days and not whole.repeat):
        return None
    if whole.repeat:  # When: Mondays 7-8pm, 3 May to 28 June
        notes = ", ".join(filter(None, [*(text for text in loose if text != title), whole.rest]))
        time, place, length = said.get("time") or whole.time, said.get("place", ""), said.get("length", "")
        row = EventRow(
            whole.date, time, title.strip(" :!"), place, notes, length, whole.repeat, whole.without
        )
        return whole.number, row
    found = date_within(f"{said['date']} ·", lexicon)
    if found is None:
        return None
    date, before, after = with_days_before(found, lexicon)
    own, rest = time_in(f"{before} {after}") if found.moment.start is None else ("", "")
    time = said.get("time") or own
    words = [fold(word).strip(".,;:()") for word in rest.split()]
    if re.search(_MORE_DAYS, rest) or any(word.removesuffix("s") in lexicon.weekdays for word in words):
        date, rest = said["date"], ""  # more days than were read: the whole cell says them, or is refused
    if rest.strip(" ,;:–—-()"):
        loose.append(rest.strip())
    notes = ", ".join(text for text in loose if text != title)
    return lines[0].number, EventRow(
        date, time, title.strip(" :!"), said.get("place", ""), notes, said.get("length", "")
    )
