"""Sentences that say an event: `The regatta will be held on Saturday 12 September 2026 at the main slip, from 10am.` What is in
doubt is refused: a sentence with two dates, or one whose title nothing shows."""

import re
from collections.abc import Callable
from typing import Final, Literal, NamedTuple

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.linetimes import OF_SCHOOL
from nomarium.reading.layouts.proseforms import (
    CLOSED,
    DONE,
    DUE,
    ENDS,
    INVITED,
    LABELLED,
    LEAD_IN,
    NAMED,
    OPEN_HOURS,
    SUBJECT,
)
from nomarium.reading.layouts.prosefrench import Held, held_in_french, place_in_french
from nomarium.reading.layouts.proseparts import bare, beside, is_title, place_in, titled, without_place
from nomarium.reading.rows.datewithin import date_within, names_several, with_days_before
from nomarium.reading.rows.opendays import is_open_day

_POINT: Final = re.compile(
    r"(?i)\b(?:will (?:begin|start|open|meet|return)|begins|starts|opens|returns|meets|leaves|departs|arrives)\b"
)
"""What takes no days, and so says something else of a first and a last day."""
_STARTS: Final = (
    r"(?i)[,\s]+(?:will\s+)?(begins?|starts?|opens?|re-?opens?|returns?|resumes?|ends?|closes|finishes)\b"
)
"""What is said of a term, and belongs to the title: `Term 2 begins`."""
_AGAIN_OPEN: Final = r"(?i)re-?opens?|resumes?"
_DOING: Final = re.compile(
    r"\s*(?P<doing>(?!(?:dur|morn|even|includ|follow|spr|noth|everyth|someth|open|meet|bank)ing)[a-z]{2,}ing\b[^\0,;]*?)(?=\s*(?:\0|[,;]|\b(?:at|from)\s|$))"
)
_ADMITS: Final = r"(?i)\b(?:bookings?|registrations?|enrol\w+|entr(?:y|ies)|applications?|nominations?|admissions?|sales?|voting|polls?|sign-?ups?|window)(?: (?:for|to) .+)?$"
"""What is no event, but opens on its day."""
_LETTER_OF: Final = r"(?i)\b(?:letter|e-?mail|message|note|invoice|order|minutes|report|circular)\s+(?:of|dated|from)\s+(?:[^\W\d]+,?\s+)?\d[^.]*$"
"""What bears a date, and is no event."""
_SET_FOR: Final = (
    r"(?i)\b(?:(?:agreed|moved|set|fixed|booked|planned|arranged)(?:\s+(?:for|to|on|as)|\s*:)|agreed)\W*$"
)
"""Words before a date on which something is to be."""
_VERBS: Final = r"(?i)\b(?:is|are|be|was|were|will|can|has|have|had|please|must|should|may|might|we|you|your|us|do|does|did|get|goes?|holds?|includ\w+|bring|come|thanks?|happy|signed|born|version|photos|lost|found|ref|invoice|dear|since|next|no|results?|apolog\w+)\b"
"""Words by which what stands before a date is no title, but says something."""
_TO_BE: Final = r"(?i)[\s)]*(?:will (?:be|take place|start|begin)|takes place|starts|begins)\b"
_SIGNS: Final = " ,:(–—-"
"""What parts a title from the date behind it."""
_PAST: Final = r"(?i)\b(?:was|were|has been|have been|took place|had|met|opened|began|started|launched|thanked|agreed|reported|attended|held|played|won|lost|beat|drew|raised|visited|enjoyed|welcomed|celebrated)\b"
_DECIDED: Final = (
    r"(?i)\b(?:(?:has|have) (?:decided|agreed|voted)|(?:was|is|has been) (?:agreed|decided|resolved)) to\b"
)
"""What was decided is to come."""
_NOT: Final = r"(?i)\b(?:not|no|never|neither|cancelled|canceled|postponed|closed|shut|moved|instead|unless|until|except)\b|n['’]t\b"
"""Words by which a sentence says that something is not held, or not then."""
_MOVED_TO: Final = r"(?i)\b(?:moved|postponed)\s+(?:to|until)\s*\0"
_NOT_MISSED: Final = (
    r"(?i)\bno later than\b|\b(?:do not|don['’]t|not to be) (?:miss(?:ed)?|forget(?:ting)?)\b"
)
_CLOCK: Final = r"(?:\d{1,2}(?:[.:]\d\d)?(?:\s*[ap]\.?m\b\.?)?|noon|midday|midnight)"
_AT_TIME: Final = rf"(?:at|from|between)\s+{_CLOCK}(?:\s*(?:[-–—]|to|till?|until|and)\s*{_CLOCK})?"
_AGAIN: Final = (
    r"(?i)\b(?:for|over)\s+(?:the next\s+)?(?:\d+|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|several|some)\s+"
    r"(?:weeks|sessions|evenings|mornings|afternoons|months|lessons|days|nights|\w+days)\b|\b(?:every|weekly|fortnightly|monthly|daily|each \w+day|each week|(?:mon|tues|wednes|thurs|fri|satur|sun)days)\b"
)
"""Words by which a sentence says more than one date."""
_BETWEEN: Final = r"(?i)\bbetween\s+(\S+)\s+and\s+(\S+)"
_DOORS: Final = rf"(?i)[,;]?\s*\(?\b(?:the )?doors? (?:open )?(?:at|from) {_CLOCK}\)?"
_TO_COME: Final = r"(?i)\b(?:will|shall|is|are|be|please|must|should|can|join|come|invited?)\b"
_STATE: Final = re.compile(r"(?i)[,\s]+will be\s+(?P<state>[^\0]{2,80}?)\s*\0")
_HELD_WORDS: Final = (
    r"(?i)\b(?:held|hosted|staged|run|presented|celebrated|shown|laid|lit|sung|read|taught|given|cut|cast|performed|open(?:ed)?|launched|launching|happening|taking place|back|also|now|again|instead|once|more|"
    r"this|next|year|on|from|at|in|for|the|our|a|an|all|of|between|to|and|starting|beginning|by|over|during|as usual|usual|whole|day|days|evening|afternoon|morning|everybody|everyone|parents)\b"
)
"""What is said of what is held, and of no state."""
_OTHER_DAY: Final = re.compile(
    r"(?i)\b(?:on|by|before|until|till|is|are|this|next|coming)\s+(?:the\s+)?(?:(?P<of_now>today|tonight|tomorrow)\b|(?P<day>[^\W\d_]{3,9})s?(?=\s*(?:[.,;)]|$|\b(?:at|and|in|for|from|to|when|but|mornings?|afternoons?|evenings?|nights?|\d+)\b)))"
)
"""A day by its name alone, or as it is counted from now."""


class Said(NamedTuple):
    """What a sentence says: the columns of a row of text."""

    date: str
    time: str
    title: str
    place: str
    notes: str = ""
    """What else it says in figures."""


class _Parts(NamedTuple):
    """A sentence taken apart round its date."""

    text: str
    """The sentence without what leads into it."""
    is_led: bool
    """Whether words such as *save the date* stood before all."""
    before: str
    date: str
    after: str
    time: str
    """The time of each of several days, which was with these."""
    end: str
    """When it ends, where the sentence says that for itself."""
    is_timed: bool
    """Whether the date has a time."""
    is_range: bool

    @property
    def around(self) -> str:
        return f"{self.before} {self.after}"

    @property
    def whole(self) -> str:
        return f"{self.before.strip(' ,')} \0 {self.after.strip(' ,')}"


TimeIn = Callable[[str], tuple[str, str]]
"""The first time of a text, and the text without it."""
Doubt = Literal["past", "doubtful"]


def said_in(sentence: str, lexicon: Lexicon, time_in: TimeIn) -> Said | Doubt | None:
    """The event of a sentence; that it speaks of the past, that it is in doubt, or None when it has neither date nor time."""
    parts = _parts_of(sentence, lexicon, time_in)
    if not isinstance(parts, _Parts):
        return parts
    closed = CLOSED.match(" ".join(_with_subject_first(parts.whole).split()))
    if closed is not None and not parts.is_timed and not time_in(parts.around)[0]:
        why = closed["why"] or f" {closed['for'] or ''}"
        return Said(parts.date, "", titled(f"{bare(closed['what'])} closed{why}".strip()), "")
    if (doubt := _doubt_of(parts, lexicon, time_in)) is not None:
        return doubt
    if (due := DUE.match(parts.whole)) is not None:
        thing = re.sub(r"(?i)^all (?!of\b)", "", bare(_due_in(due, parts.whole)))
        return Said(parts.date, "", titled(f"Deadline: {thing}"), "") if is_title(thing) else "doubtful"
    if "fr" in lexicon.languages and (said := _in_french(parts, time_in)) is not None:
        return said
    if is_open_day(parts.before, parts.date, parts.after, lexicon):
        return "doubtful"  # The lift will be out of order from 18 January
    turned = _with_subject_first(parts.whole)
    match = INVITED.match(turned) or SUBJECT.match(turned)
    return _held(parts, match, time_in) if match is not None else _named(parts, time_in)


def _in_french(parts: _Parts, time_in: TimeIn) -> Said | Doubt | None:
    """The event of a French sentence; None where it has no form that is known."""
    held = held_in_french(parts.whole.strip())
    if not isinstance(held, Held):
        return held
    if _has_other_time(parts.around, parts.is_timed, time_in):
        return "doubtful"
    time, without = (parts.time, held.rest) if parts.is_timed else time_in(held.rest)
    if parts.end and not time and not parts.is_timed:
        return "doubtful"
    date, time = _until(parts.date, time, parts.end) if parts.end else (parts.date, time)
    return Said(date, time, held.title, place_in_french(without))


def _parts_of(sentence: str, lexicon: Lexicon, time_in: TimeIn) -> _Parts | Literal["doubtful"] | None:
    """A sentence round its date; None where it says neither date nor time."""
    plain = re.sub(_BETWEEN, r"\1-\2", re.sub(_DOORS, "", sentence.strip().rstrip(".!")))
    text = LABELLED.sub(r"\1 ", re.sub(LEAD_IN, "", plain))
    is_led = text != LABELLED.sub(r"\1 ", plain)
    ends = ENDS.findall(text)
    text = ENDS.sub("", text) if len(ends) == 1 else text
    found = date_within(f"{text} ·", lexicon) if any(map(str.isdigit, text)) else None
    if found is None:
        is_doubtful = time_in(text)[0] and _reads(text) and not OPEN_HOURS.search(text)
        return "doubtful" if is_doubtful else None
    date, before, after = with_days_before(found, lexicon)
    is_timed = found.moment.start is not None
    of_each = names_several(found, lexicon) and is_timed  # 8 and 9 December, 9 am to 12 noon
    time, date = time_in(date) if of_each else ("", date)
    if re.search(rf"\(\s*{re.escape(date)}\s*\)", text):
        if not re.match(_TO_BE, after):
            return "doubtful"  # Minutes of the last meeting (12/11/2026) are on the table
        before, after = before.rstrip(" ("), after.lstrip(" )")
    if (
        joint := re.search(r"(?i)\s+(?:at|in|from|by|to|à|au|de|dans)$", date)
    ) is not None:  # it leads to what follows
        date, after = date[: joint.start()], f"{joint[0]} {after}"
    end = ends[0] if len(ends) == 1 else ""
    return _Parts(text, is_led, before, date, after, time, end, is_timed, found.moment.last is not None)


def _doubt_of(parts: _Parts, lexicon: Lexicon, time_in: TimeIn) -> Doubt | None:
    """That a sentence speaks of the past, of several dates, or of what is not held then."""
    before, untimed = parts.before, time_in(parts.after)[1]
    if re.search(_AGAIN, f"{before} {untimed}"):
        return "doubtful"
    if re.search(_NOT, re.sub(_NOT_MISSED, "", re.sub(_MOVED_TO, "", f"{before}\0{untimed}"))):
        return "doubtful"
    if re.search(_LETTER_OF, f"{before.rstrip()} {parts.date}"):
        return "past"
    is_set = re.search(_SET_FOR, before) is not None
    around = re.sub(_DECIDED, "", parts.around)
    if not is_set and re.search(_PAST, around) and not re.search(_TO_COME, parts.around):
        return "past"
    others = date_within(f"{untimed.strip()} ·", lexicon) or date_within(f"{before.strip()} ·", lexicon)
    has_others = others is not None and re.search(r"[^\W\d_]{3}|[/.-]", others.text)
    return "doubtful" if has_others or _has_other_day(parts.around, lexicon) else None


def _has_other_day(text: str, lexicon: Lexicon) -> bool:
    """Whether the words round a date name another day: `on Thursday at 3.45pm`, `and the match is tomorrow`."""
    return any(one["of_now"] or fold(one["day"]) in lexicon.weekdays for one in _OTHER_DAY.finditer(text))


def _held(parts: _Parts, match: re.Match[str], time_in: TimeIn) -> Said | Literal["doubtful"]:
    """The event of a sentence that names it as its subject, or invites to it."""
    title = bare(match["title"].replace("\0", " "))
    if (
        "\0" in match["title"].strip(" \0,")
        or _has_other_time(parts.around, parts.is_timed, time_in)
        or not is_title(title)
        or (parts.is_range and _POINT.search(match.string))
    ):
        return "doubtful"
    doing, rest = _doing(match["rest"])
    done = DONE.match(match.string[match.end("title") :])
    if not doing and done is None and _is_in_a_state(match.string[match.end("title") :], time_in):
        return "doubtful"
    rest = rest.replace("\0", " ")
    time, without = (parts.time, rest) if parts.is_timed else time_in(rest)
    date = parts.date
    if parts.end:
        if not time and not parts.is_timed:
            return "doubtful"  # The library closes at 4pm on 5 July
        date, time = _until(date, time, parts.end)
    title = f"{title} {done['done']}" if done is not None else title
    title = _with_its_verb(title, match.string[match.end("title") :]) + doing
    place = place_in(without)
    return Said(date, time, titled(title), place, beside(place, without))


def _is_parted(parts: _Parts, time_in: TimeIn) -> bool:
    """Whether a sign parts a date from the title before or behind it; a comma does where a time is said, too (`Halifax, 5 July` heads
    a letter), or words such as *save the date* stand before all."""
    before, _, behind = map(str.strip, parts.text.partition(parts.date))
    if before:
        is_timed = parts.is_timed or time_in(parts.around)[0] != ""
        return before.endswith((":", "–", "—", " -", "(")) or (
            (is_timed or parts.is_led) and before.endswith(",")
        )
    return behind.startswith((":", "–", "—", "- "))


def _until(date: str, time: str, end: str) -> tuple[str, str]:
    """A date and a time with the end that the sentence says for itself; the date may have the time, before or behind it."""
    if time:
        return date, f"{time} - {end}"
    before = re.match(rf"(?i)(?:(?:at|from|à|de|dès)\s+)?(?P<start>{_CLOCK})(?=\s+(?:on\b|[^\W\d]))", date)
    return (
        (date[before.end() :].strip(), f"{before['start']} - {end}") if before else (f"{date} - {end}", time)
    )


def _named(parts: _Parts, time_in: TimeIn) -> Said | Literal["doubtful"]:
    """The event of a sentence that is a title and a date with no verb, and beside them nothing but a time and a place."""
    match = NAMED.match(f"{parts.before.strip(_SIGNS)} \0 {parts.after.strip(' ,')}".strip())
    title = bare((match["before"] or match["behind"]) if match is not None else "")
    if match is None or parts.end or not _is_parted(parts, time_in):
        return "doubtful"
    if not is_title(title) or re.search(_VERBS, title) or re.search(r"(?i)\b(?:is|are|was|were|be)$", title):
        return "doubtful"
    time, without = (parts.time, match["rest"]) if parts.is_timed else time_in(match["rest"])
    place = place_in(without)
    left = without_place(place, without)
    if re.search(r"\w{2}", re.sub(r"(?i)\b(?:at|from|on|in|the)\b", "", left)):
        return "doubtful"
    return Said(parts.date, time, titled(title), place)


def _due_in(due: re.Match[str], whole: str) -> str:
    """What is due by a day; with its verb where only the place follows, `Book at the office`."""
    names = ("title", "asked", "thing", "owed", "act", "open", "task", "reaching")
    thing = next(filter(None, map(due.group, names)), "")
    is_where = due["asked"] and re.match(r"(?i)(?:at|in|on|via|with|through|online)\b", due["asked"])
    return whole[: due.end("asked")] if is_where else thing


def _doing(rest: str) -> tuple[str, str]:
    """What somebody will be doing, which is of the title, `Year 8 will be visiting the museum`, and what follows it."""
    match = _DOING.match(rest)
    if match is None:
        return "", rest
    doing = match["doing"].rstrip()
    place = re.search(r"\s+in\s+(?:the\s+|our\s+)?(\S.*)$", doing)
    if place is not None and is_place(place[1]):
        doing = doing[: place.start()]
    return f" {doing.strip()}", rest[match.start("doing") + len(doing) :]


def _is_in_a_state(said: str, time_in: TimeIn) -> bool:
    """Whether a sentence says how something will be then, `out of order`, `on leave`, and not that it is held."""
    match = _STATE.match(said)
    untimed = time_in(match["state"])[1] if match is not None else ""
    left = re.sub(_HELD_WORDS, "", without_place(place_in(untimed), untimed))
    return re.search(r"[^\W\d_]{2}", left) is not None


def _with_its_verb(title: str, rest: str) -> str:
    """What opens or begins, with this, where it is no event of its own: `Term 2 begins`, `Booking opens`."""
    verb = re.match(_STARTS, rest)
    is_kept = verb and (
        OF_SCHOOL.search(title) or re.search(_ADMITS, title) or re.match(_AGAIN_OPEN, verb[1])
    )
    return f"{title} {verb[1]}" if verb and is_kept else title


def _has_other_time(text: str, has_time: bool, time_in: TimeIn) -> bool:
    """Whether a sentence says a second time, `… and returns at about 4pm`."""
    first, rest = time_in(text)
    return bool(first) and (has_time or bool(time_in(rest)[0]))


def _reads(text: str) -> bool:
    """Whether a sentence with a time and no date could say an event."""
    return SUBJECT.match(text) is not None or INVITED.match(text) is not None


def _with_subject_first(text: str) -> str:
    """`On DATE the fair will be held …` with its date behind the verb, and `join us on DATE for the fair` with it behind the fair."""
    if (is_what := _IS_WHAT.match(text.strip())) is not None:
        return f"there will be {is_what['what']} \0"
    joined = _JOIN_FIRST.match(text.strip())
    if joined is not None:
        return f"join us for {joined['what']} {joined['when']}"
    return re.sub(
        rf"(?i)^(?:(?P<first>{_AT_TIME})[,\s]+)?(?:on\s+|from\s+)?\0[,\s]+(?:(?P<when>{_AT_TIME})[,\s]+)?(?P<rest>.+)$",
        lambda match: f"{match['rest']} \0 {match['first'] or match['when'] or ''}",
        text.strip(),
    ).strip()


_IS_WHAT: Final = re.compile(
    r"(?i)^(?:on\s+)?\0\s+(?:is|will be)\s+(?:also\s+)?(?P<what>(?:an?|the|our)\s+[^\0]+)$"
)
"""A day that is something itself: `Monday 4 January is a staff training day`."""
_JOIN_FIRST: Final = re.compile(
    r"(?i)^(?:please )?(?:(?:do )?come and )?join us\b(?P<when>[^\0]*\0.*?)\s+for\s+(?P<what>(?:the|our|a|an|this)\s.+)$"
)
"""When somebody is asked to come before what for."""
