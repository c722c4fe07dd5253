"""Sentences that say an event: `The regatta will be held on Saturday 12 September 2026 at the main slip, from 10am.` What is in
doubt is refused: a sentence with two dates, or one whose title nothing shows."""

import re
from collections.abc import Callable
from typing import Final, Literal, NamedTuple

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.linetimes import OF_SCHOOL
from nomarium.reading.rows.datewithin import date_within, names_several, with_days_before
from nomarium.reading.rows.opendays import is_open_day

_HELD: Final = (
    r"(?:will (?:again |also |now )?(?:be held|take place|be|happen|begin|start|open|run|meet|return)|(?:is|are) (?:to be )?held|takes? place|"
    r"(?:is|are)(?=[\s,]+(?:(?:on|from|at|in)\b|\0))|begins|starts|opens|returns|meets|runs|leaves|departs|arrives|(?<=\ws )(?:begin|start|open|return|meet|run)|(?:is|are) (?:planned|scheduled|set) for)"
)
_SUBJECT: Final = re.compile(
    rf"(?i)^(?P<title>(?:(?!\b(?:that|which|who|if|when|because|although)\b)[^.:;?!]){{3,80}}?)[,\s]+{_HELD}\b(?P<rest>.*)$"
)
_LABELLED: Final = re.compile(
    rf"(?i)^([^.:;?!]{{3,60}}?)(?::|\s[–—-])\s+(?:(?:it|this|they|these)\s+)?(?={_HELD}\b)".replace(
        r"|\0", ""
    )
)
"""A label that is the subject of what stands behind it: `Regatta: it will be held on`."""
_INVITED: Final = re.compile(
    r"(?i)^(?:please )?(?:(?:do )?(?:join us|come along|come)(?: for| to| at)?|you are (?:all )?(?:warmly |cordially )?invited to|we (?:warmly )?invite you to|"
    r"we(?: are|['’]re)? (?:very )?(?:pleased|delighted|happy|proud|glad) to (?:invite you to|announce|host)|(?:do not|don['’]t) miss|"
    r"we(?: are|['’]re)(?: also)? (?:holding|having|hosting|running)|we(?: will|['’]ll) (?:hold|have|be holding|host|be hosting)|we (?:hold|host)|we look forward to|"
    r"there(?: will be|['’]ll be| is)|save the date for)\s+(?P<title>[^.:;?!]{3,80}?)"
    r"(?=[,\s]+(?:on|from|at|in|this|next|which)\b|[,\s]+\0)(?P<rest>.*)$"
)
_DUE: Final = re.compile(
    r"(?i)^(?:the )?(?:deadline|closing date|last day) for (?P<title>[^.:;?!]{3,80}?) (?:is|will be)\b(?P<rest>.*)$|"
    r"^(?:please )?(?:return|send(?: in| back)?|submit|hand in|bring(?: in| back)?|pay|order|book|reply to) (?P<asked>[^.:;?!]{3,80}?)\s+(?:by|before|no later than)\b(?P<until>.*)$|"
    r"^(?P<thing>[^.:;?!]{3,80}?) (?:must|should|need to|have to|has to|are to|is to) be (?:returned|sent|submitted|handed in|paid|in|made|received|ordered)"
    r"(?: \w+){0,3}? (?:by|before|no later than)\b(?P<last>.*)$|"
    r"^(?:please )?(?P<act>(?:sign[- ]up|register|apply|rsvp|reply|respond|enroll?|book)(?: (?:for|to) [^.:;?!]{3,60}?)?) (?:by|before|no later than)\b(?P<since>.*)$"
)
_LEAD_IN: Final = (
    r"(?i)^(?:dear all[,:]?\s+)?(?:(?:I am|I['’]m|we are|we['’]re|I|we) (?:just )?(?:writing|write|pleased|delighted|happy) to (?:let you know|inform you|tell you|remind you|announce|confirm|say)|"
    r"(?:this is )?(?:just )?(?:a (?:quick )?reminder|to (?:let you know|remind you))|please (?:note|remember|be aware)|(?:just )?a (?:quick )?note to say|as you (?:may )?know|don['’]t forget) that\s+"
)
"""Words before what a letter says."""
_POINT: Final = re.compile(
    r"(?i)\b(?:will (?:begin|start|open|meet|return)|begins|starts|opens|returns|meets|leaves|departs|arrives)\b"
)
"""What takes no days, and so says something else of a first and a last day."""
_STARTS: Final = r"(?i)[,\s]+(?:will\s+)?(begins?|starts?|opens?|re-?opens?|returns?|resumes?)\b"
"""What is said of a term, and belongs to the title: `Term 2 begins`."""
_DOING: Final = re.compile(
    r"\s*(?P<doing>(?!(?:dur|morn|even|includ|follow|spr|noth|everyth|someth|open|meet|bank)ing)[a-z]{2,}ing\b[^\0,;]*?)(?=\s*(?:\0|[,;]|\b(?:at|from)\s|$))"
)
_ADMITS: Final = r"(?i)\b(?:bookings?|registrations?|enrol\w+|entr(?:y|ies)|applications?|nominations?|admissions?|sales?|voting|polls?|sign-?ups?|window)$"
"""What is no event, but opens on its day."""
_SET_FOR: Final = r"(?i)\b(?:(?:agreed|moved|set|fixed|booked|planned|arranged)\s+(?:for|to|on)|agreed)\W*$"
"""Words before a date on which something is to be."""
_PAST: Final = r"(?i)\b(?:was|were|has been|have been|took place|had|met|opened|began|started|launched|thanked|agreed|reported|attended|held)\b"
_NOT: Final = r"(?i)\b(?:not|no|never|neither|cancelled|canceled|postponed|closed|shut|moved|instead|unless|until|except)\b|n['’]t\b"
"""Words by which a sentence says that something is not held, or not then."""
_NOT_MISSED: Final = r"(?i)\b(?:do not|don['’]t|not to be) miss(?:ed)?\b"
_CLOCK: Final = r"(?:\d{1,2}(?:[.:]\d\d)?(?:\s*[ap]\.?m\b\.?)?|noon|midday|midnight)"
_AGAIN: Final = (
    r"(?i)\b(?:for|over)\s+(?:the next\s+)?(?:\d+|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|several|some)\s+"
    r"(?:weeks|sessions|evenings|mornings|afternoons|months|lessons|days|nights|\w+days)\b|\b(?:every|weekly|fortnightly|monthly|daily|each \w+day|each week)\b"
)
"""Words by which a sentence says more than one date."""
_BETWEEN: Final = r"(?i)\bbetween\s+(\S+)\s+and\s+(\S+)"
_DOORS: Final = rf"(?i)[,;]?\s*\(?\b(?:the )?doors? (?:open )?(?:at|from) {_CLOCK}\)?"
_TO_COME: Final = r"(?i)\b(?:will|shall|is|are|be|please|must|should|can|join|come|invited?)\b"
_PLACE: Final = re.compile(
    r"(?:\b(?:at|in)|@)\s+(?P<place>(?:the\s+|our\s+)?(?!noon|midday|midnight|least|\d)[A-Za-z][^,.;:()]*?)(?=\s*(?:[,.;:()]|\bfrom\b|\bon\b|\bat\b|\band\b|\bwith\b|\bfor\b|\bto\b|$))"
)
_NO_PLACES: Final = r"(?i)(?:the )?(?:about|around|approximately|morning|afternoon|evening|end|beginning|start|middle|autumn|spring|summer|winter|advance|total|person|high (?:water|tide)|low (?:water|tide)|time|year|week|month|last|first)\b.*"
_ARTICLES: Final = r"(?i)^(?:the|our|a|an|this year['’]s|your|this)\s+"
_PRONOUNS: Final = frozenset(
    "it this that they we you he she i there which who these those everybody everyone all".split()
)
_ABBREVIATED: Final = r"(?i)(?:\b\d{1,2}|\b(?:mr|mrs|ms|dr|prof|st|no|nr|approx|tel|e\.g|i\.e|a\.m|p\.m|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec|mon|tues?|wed|thu(?:rs?)?|fri|sat|sun)|\b[a-z])\.$"


_BEGINS: Final = re.compile(r"([A-Z][a-z]*)\s+[a-z]{2}")
"""The first two words of a sentence."""
_OPEN_HOURS: Final = re.compile(
    r"(?i)\b(?:(?:is|are|will be|stays?|remains?)\s+(?:also\s+|now\s+)?open|open(?:ing)?\s+(?:hours|times))\b.*(?:\b(?:mon|tue|wed|thu|fri|sat|sun)\w*\s*(?:[–—-]|to|until|and|&)\s*(?:mon|tue|wed|thu|fri|sat|sun)|"
    r"\b(?:weekdays|daily|every day|each day|seven days|all week)\b)"
)
"""When something is open day by day, which is no event."""


class Said(NamedTuple):
    """What a sentence says: the columns of a row of text."""

    date: str
    time: str
    title: str
    place: str
    notes: str = ""
    """What else it says in figures."""


def sentences_of(text: str, lexicon: Lexicon) -> list[str]:
    """The sentences of a paragraph; a full stop after an abbreviation ends none, nor does one after a number that goes on with
    a month or a name: `am 2. November`."""
    found: list[str] = []
    for piece in re.split(r"(?<=[.!?])[”\"’)]?\s+(?=[A-Z“\"‘])", text.strip()):
        begins = _BEGINS.match(piece)
        is_sentence = begins is not None and fold(begins[1]) not in lexicon.months
        if found and re.search(_ABBREVIATED, found[-1]) and not (is_sentence and _ends_with_place(found[-1])):
            found[-1] = f"{found[-1]} {piece}"
        else:
            found.append(piece)
    return found


def _ends_with_place(text: str) -> bool:
    """Whether the number or the letter that ends a text is that of a place, `in Shed A.`, or a figure."""
    return re.search(r"\d\.$", text) is not None or is_place(" ".join(text.rstrip(".").split()[-2:]))


def said_in(
    sentence: str, lexicon: Lexicon, time_in: Callable[[str], tuple[str, str]]
) -> Said | Literal["past", "doubtful"] | None:
    """The event of a sentence; that it speaks of the past, that it is in doubt, or None when it has neither date nor time.
    `time_in` gives the first time of a text, and the text without it."""
    plain = re.sub(_BETWEEN, r"\1-\2", re.sub(_DOORS, "", sentence.strip().rstrip(".!")))
    plain = _LABELLED.sub(r"\1 ", re.sub(_LEAD_IN, "", plain))
    found = date_within(f"{plain} ·", lexicon) if any(map(str.isdigit, plain)) else None
    if found is None:
        is_doubtful = time_in(plain)[0] and _reads(plain) and not _OPEN_HOURS.search(plain)
        return "doubtful" if is_doubtful else None
    date, before, after = with_days_before(found, lexicon)
    of_each = (
        names_several(found, lexicon) and found.moment.start is not None
    )  # 8 and 9 December, 9 am to 12 noon
    each, date = time_in(date) if of_each else ("", date)
    if re.search(rf"\(\s*{re.escape(date)}\s*\)", plain):
        return "doubtful"  # Minutes of the last meeting (12/11/2026) are on the table
    if (joint := re.search(r"(?i)\s+(?:at|in|from|by|to)$", date)) is not None:  # it leads to what follows
        date, after = date[: joint.start()], f"{joint[0]} {after}"
    around, untimed = f"{before} {after}", time_in(after)[1]
    if re.search(_AGAIN, f"{before} {untimed}"):
        return "doubtful"
    if re.search(_NOT, re.sub(_NOT_MISSED, "", f"{before} {untimed}")):
        return "doubtful"
    is_set = re.search(_SET_FOR, before) is not None
    if not is_set and re.search(_PAST, around) and not re.search(_TO_COME, around):
        return "past"
    others = date_within(f"{untimed.strip()} ·", lexicon) or date_within(f"{before.strip()} ·", lexicon)
    if others is not None and re.search(r"[^\W\d_]{3}|[/.-]", others.text):
        return "doubtful"
    whole = f"{before.strip(' ,')} \0 {after.strip(' ,')}"
    if (due := _DUE.match(whole)) is not None:
        thing = _due_in(due, whole)
        return (
            Said(date, "", _titled(f"Deadline: {_bare(thing)}"), "")
            if _is_title(_bare(thing))
            else "doubtful"
        )
    if is_open_day(before, date, after, lexicon):
        return "doubtful"  # The lift will be out of order from 18 January
    turned = _with_subject_first(whole)
    match = _INVITED.match(turned) or _SUBJECT.match(turned)
    if (
        match is None
        or "\0" in match["title"].strip(" \0,")
        or _has_other_time(around, found.moment.start is not None, time_in)
        or not _is_title(_bare(match["title"].replace("\0", " ")))
    ):
        return "doubtful"
    doing, rest = _doing(match["rest"])
    rest = rest.replace("\0", " ")
    if found.moment.last is not None and _POINT.search(turned):
        return "doubtful"
    time, without = time_in(rest) if found.moment.start is None else (each, rest)
    title = _with_its_verb(_bare(match["title"].replace("\0", " ")), turned[match.end("title") :]) + doing
    place = _place_in(without)
    left = _beside(place, without)
    return Said(date, time, _titled(title), place, left)


def _due_in(due: re.Match[str], whole: str) -> str:
    """What is due by a day; with its verb where only the place follows, `Book at the office`."""
    thing = due["title"] or due["asked"] or due["thing"] or due["act"]
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


def _with_its_verb(title: str, rest: str) -> str:
    """What opens or begins, with this, where it is no event of its own: `Term 2 begins`, `Booking opens`."""
    verb = re.match(_STARTS, rest) if OF_SCHOOL.search(title) or re.search(_ADMITS, title) else None
    return f"{title} {verb[1]}" if verb else title


def _beside(place: str, rest: str) -> str:
    """What a sentence says in figures beside its date, its time and its place."""
    if place:
        rest = re.sub(rf"(?i)(?:\b(?:at|in)\s+)?(?:(?:the|our)\s+)?{re.escape(place)}", "", rest, count=1)
    return rest.strip(" ,;") if any(map(str.isdigit, rest)) else ""


def _has_other_time(text: str, has_time: bool, time_in: Callable[[str], tuple[str, str]]) -> bool:
    """Whether a sentence says a second time, `… and returns at about 4pm`."""
    first, rest = time_in(text)
    return bool(first) and (has_time or bool(time_in(rest)[0]))


def _reads(text: str) -> bool:
    """Whether a sentence with a time and no date could say an event."""
    return _SUBJECT.match(text) is not None or _INVITED.match(text) is not None


def _with_subject_first(text: str) -> str:
    """`On DATE the fair will be held …` with its date behind the verb."""
    return re.sub(
        rf"(?i)^(?:on\s+|from\s+)?\0[,\s]+(?P<when>(?:at|from)\s+{_CLOCK}(?:\s*(?:[-–—]|to|till?|until)\s*{_CLOCK})?[,\s]+)?(?P<rest>.+)$",
        lambda match: f"{match['rest']} \0 {match['when'] or ''}",
        text.strip(),
    ).strip()


def _bare(title: str) -> str:
    """A title without its article, and without the words that lead to a date."""
    plain = re.sub(
        r"(?i)^(?:(?:dear|hello|hi)\b[\w ]{1,30},|(?:also|finally|then|and|so)\b[,\s])\s*",
        "",
        " ".join(title.split()).strip(" ,–—-"),
    )
    plain = re.sub(_ARTICLES, "", plain)
    return re.sub(r"(?i)\s+(?:on|from|at|for|of)$", "", plain)


def _titled(title: str) -> str:
    return title[:1].upper() + title[1:]


def _is_title(title: str) -> bool:
    words = title.casefold().split()
    return bool(words) and words[0] not in _PRONOUNS and len(words) <= 10 and any(map(str.isalpha, title))


def _place_in(rest: str) -> str:
    """What follows *in* or *at* and is a place."""
    for match in _PLACE.finditer(rest):
        place = re.sub(r"(?i)^(?:the|our)\s+", "", " ".join(match["place"].split()))
        if place and place.casefold() != "the" and not re.fullmatch(_NO_PLACES, match["place"].strip()):
            return _titled(place)
    return next((bare for piece in re.split(r"\s*[,;]\s*", rest) if is_place(bare := piece.strip(" ()"))), "")
