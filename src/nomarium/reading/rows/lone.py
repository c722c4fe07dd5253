"""Rows that hold one text alone, written across the table: `SCHOOL CLOSED 13 April`, `Last updated 3 March`."""

import datetime as dt
import re

from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.moments import Moment
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.cells.partmemo import last_of_range
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.calledoff import moved_title, without_cancellation
from nomarium.reading.rows.datewithin import DateWithin, date_within, names_several
from nomarium.reading.rows.givenfields import event_alone, given_fields
from nomarium.reading.rows.several import run_on
from nomarium.reading.rows.when import Blame, Part, Said, settle
from nomarium.reckoning.zones import zone_named

_REMARK = (
    r"(?i)^\W*(?:(?:please|n\.?b\.?|p\.?s\.?)(?:\s+\S+){2}|(?:notes?|key|legend|source|nota|hinweis|remarque)\s*[:=–-]|\*+\s*\w+\s|"
    r"(?:for\s+)?(?:more|further|full|additional)\s+(?:info\w*|details)\b|(?:contact|call|ring|e-?mail|phone|tel\w*|visit|see|questions)\b.*(?:\d{3}\D?\d{3,4}|@\w|www\.|://|\.\w{2,7}/)|"
    r"(?:all\s+|the\s+|these\s+)*(?:dates|times|events|fixtures|details|rooms|venues)\b.*\b(?:are|may|can|will|might|subject)\b|"
    r"end\s+of\s+(?:list|page|table|calendar|document|schedule|programme)\b|page\s+\d|(?:www\.|https?://)\S+\W*$|©|copyright\b)"
)
"""A line that is about the table, or to whom to turn, and no title."""
_JOINTS = r"(?:on|from|the|le|du|am|vom|den|de|el|dal|op|van|om|für|for)"
_AND = r"^\s*(?:[,;&+]\s*)?(?:(?:and|or|et|ou|und|oder|y|o|e|en)\s+)?"
"""What may part a date from the next one of a list, but for the comma that went with the first."""
_JOINT = r"(?:\s*[,;&+]|\s+(?:and|or|et|ou|und|oder|y|o|e|en))"
"""What parts the days of a list."""
OFTEN_UNREAD = Refusal(
    "repeat-unread", "The line says how often something is held, and how is not understood.",
    "Give it a row of its own: its first and its last day, its time, and how often.",
)  # fmt: skip
_IN_STEAD = re.compile(
    r"(?i)\W*(?:if (?:it (?:is|rains)|wet|raining|cancelled|postponed)\b|in (?:case|the event) of\b|"
    r"bei (?:regen|schlechtem wetter)\b|en cas de (?:pluie|mauvais temps)\b)"
)
"""How a line begins that says when something is held if it is not held on its day."""
_MOST_DAYS = 31
"""Days of a range whose times are those of each of them."""
_MOST_WORDS = 25
"""Words of a row of a table that says an event by itself; more are a remark."""


def lone_event(text: str, decisions: Decisions) -> tuple[str, list[Part]] | Refusal | None:
    """The title of an event that a lone text names, and its days, several where it lists them; why not, where a date cannot be
    settled. None when it names none: it has no date, nothing but a date, or keeps the books of the table."""
    if keeps_books(text) or not any(map(str.isdigit, text)) or text.count(" ") >= _MOST_WORDS:
        return None
    found = date_within(text, decisions.lexicon)
    if found is None or isinstance(read_repeat(text, decisions.lexicon), Repeat):
        return None  # `Mondays 7 Dec to 21 Dec` says when, and not what
    moment = found.moment
    if names_several(found, decisions.lexicon):
        return Refusal("date-several", f"“{text}” names several days.", "Give each day a row of its own.")
    from nomarium.reading.rows.opendays import is_open_day

    before, _, behind = found.rest.partition("\0")
    is_open = is_open_day(before, found.text, behind, decisions.lexicon)
    earlier, before = _days_before(before, decisions)
    later, behind = _days_behind(behind, decisions)
    title = text.strip() if is_open else _tidy(f"{before}\0{behind}")  # Pool closed from 13 April
    if sum(map(str.isalpha, title)) < 2 or moment.first is None:
        return None
    listed = [one.moment for one in (*earlier, found, *later)]
    firsts = run_on([one.first for one in listed if one.first is not None], decisions)
    if isinstance(firsts, Refusal):
        return firsts
    parts = []
    for one, first in zip(listed, firsts, strict=True):
        part = _part(one, first, decisions)
        if isinstance(part, Refusal):
            return part
        parts.append(part)
    return title, parts


def _days_before(text: str, decisions: Decisions) -> tuple[list[DateWithin], str]:
    """The dates that a list has before the longest of them, `4 January, 1 June and`, and what stands before the first."""
    found: list[DateWithin] = []
    while (joined := re.search(rf"{_JOINT}\s*$", text)) is not None:
        text_before = text[: joined.start()]
        last = max((match.end() for match in re.finditer(rf"{_JOINT}\s", text_before)), default=0)
        one = date_within(f"· {text_before[last:]}", decisions.lexicon)
        if one is None or one.rest.partition("\0")[2].strip():
            break
        found.insert(0, one)
        text = text_before[:last] + one.rest.partition("\0")[0].removeprefix("·")
    return found, text


def _days_behind(text: str, decisions: Decisions) -> tuple[list[DateWithin], str]:
    """The dates that go on with a list of them, `, 4 January, 1 June`, and what stands behind the last."""
    found: list[DateWithin] = []
    while (rest := re.sub(_AND, "", text)).strip():
        one = date_within(f"{rest} ·", decisions.lexicon)
        if one is None or one.rest.partition("\0")[0].strip():
            break
        found.append(one)
        text = one.rest.partition("\0")[2].removesuffix("·")
    return found, text


def _part(moment: Moment, first: dt.date, decisions: Decisions) -> Part | Refusal:
    last = last_of_range(moment.last, first, decisions) if moment.last is not None else None
    if isinstance(last, Refusal):
        return last
    if last is not None and last < first:
        return Refusal("end-before-start", "A day of the list ends before it starts.", "Correct the date.")
    return Part(first, last, moment.start, moment.end, moment.is_all_day, moment.is_unknown)


def events_said_alone(
    text: str, decisions: Decisions, options: ReadingOptions, number: int
) -> list[Event] | Refusal | None:
    """The events of a row of this number that holds this text and nothing else; None when it says none."""
    said = lone_event(text, decisions) if _IN_STEAD.match(text) is None else None
    if said is None or isinstance(said, Refusal):
        return said
    title, parts = said
    first = parts[0].first
    if first is not None and (moved := moved_title(text, first)) is not None:
        return moved
    if often_in(text) is not None and (title == text.strip() or any(part.last for part in parts)):
        return OFTEN_UNREAD  # its days are those of the repeat
    zone = zone_named(options.zone) if options.zone else None
    given = given_fields(options)
    if (bare := without_cancellation(title)) is not None:
        title, given = bare, {**given, "status": "CANCELLED"}
    events = []
    for day in (day for part in parts for day in _each_day(part)):
        settled = settle(Said(date=day, zone_name=options.zone, zone=zone), options.length_secs)
        if isinstance(settled, Blame):
            return settled.refusal
        events.append(event_alone(title, settled, number, given))
    return events


def _each_day(part: Part) -> list[Part]:
    """The days of a range that has times within a day, `Camp 19-23 October 9am-3pm`; else what it is."""
    if part.first is None or part.last is None or part.start is None or part.end is None:
        return [part]
    count = (part.last - part.first).days + 1
    if part.end.secs <= part.start.secs or not 1 < count <= _MOST_DAYS:
        return [part]
    return [part._replace(first=part.first + dt.timedelta(n), last=None) for n in range(count)]


def told_alone(events: list[Event]) -> Problem:
    """The note that a row with one text has these events."""
    what = "a date in it is an event"
    if len(events) > 1:
        what = f"{len(events)} dates in it is as many events"
    return note("lone-event", f"A row that holds one text with {what}: “{events[0].summary}”.")


def is_remark(text: str) -> bool:
    """Whether a text that stands alone in its row is about the table, `Please note: times may change`, and no title of an event."""
    return keeps_books(text) or re.search(_REMARK, text) is not None or _heads_section(text)


_TERM = r"(?:(?:school\s)?(?:terms?|semesters?|trimesters?|quarters?|trimestres?|semestres?|halbjahr|quadrimestre)|semester)"
_SEASON = r"(?:autumn|spring|summer|winter|fall|michaelmas|hilary|trinity|lent|herbst|frühjahr|sommer|automne|printemps|hiver|été)"
_NUMBER = r"(?:\d|one|two|three|four|first|second|third|fourth|\d(?:st|nd|rd|th|er?|ère|ème)|premier|deuxième|troisième|[12]\.)"
_HEADS_SECTION = re.compile(
    rf"(?:{_SEASON}(?:\s?{_TERM})?|{_TERM}\s{_NUMBER}|{_NUMBER}\s{_TERM})(?:\s(?:19|20)\d\d(?:\s?[/–-]\s?\d{{2,4}})?)?(?:\sdates)?",
    re.IGNORECASE,
)


def _heads_section(text: str) -> bool:
    """Whether a text that stands alone in its row is the title of rows below: a term or a season, or what ends in a colon."""
    said = " ".join(text.split())
    return said[-1:] == ":" or _HEADS_SECTION.fullmatch(said) is not None


def _tidy(rest: str) -> str:
    """What stands around a date without the signs and small words that joined them."""
    before, _, after = rest.partition("\0")
    before = re.sub(rf"(?i)(?:[\s,;:(–—-]|\b{_JOINTS}\b\.?)+$", "", before.strip())
    after = re.sub(r"^[\s,;:)–—-]+", "", after.strip())
    return " ".join(f"{before} {after}".split()).strip(" ,;:–—-")
