"""Lines that are no part of what a text says: front matter, code and quotations; of a letter its own date above the salutation, and
the signature below its close."""

import re
from collections.abc import Iterator, Sequence
from typing import Final

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.textlines import HEADING, TextLine, is_sentence
from nomarium.reading.rows.datewithin import date_within

_SALUTATION: Final = r"(?:dear|hello|hi|chers?|cheres?|madame|liebe[rs]?|sehr geehrte[rs]?|estimad[oa]s?|querid[oa]s?|beste|geachte|gentile|gentili|caros?|caras?)\b.{0,60}[,!:]?"
_CLOSE: Final = (
    r"(?:yours (?:sincerely|faithfully|truly)|(?:kind|best|warm) (?:regards|wishes)|regards|with (?:kind|best|warm) .{3,20}|many thanks|cordialement|"
    r"bien a vous|sincerement|mit (?:freundlichen|herzlichen|besten) gru(?:ss|ß)en|herzliche gru(?:ss|ß)e|atentamente|saludos|un saludo|met vriendelijke groet(?:en)?|cordiali saluti)\b[ ,.!]*"
)
_MINUTES: Final = r"(?i)(?:minutes|notes|record|report|protokoll|procès-verbal|acta|notulen)\b[^:]*\b(?:of|from|meeting|committee|du|der|des|de|van)\b"
_NOTES_OF: Final = r"(?:[\w']+\s+){1,3}(?:minutes|notes)[\s,:–—-]*\d"
_WROTE: Final = r"(?i:on\b.{6,80}\bwrote:?$|(?:sent|received|gesendet|envoyé)\s*:)"
"""What a mail says of the one that it answers."""
_ABOUT_PAPERS: Final = re.compile(
    r"(?i)\b(?:accounts|report|budget|results?|statements?|balance sheet|figures)\b.*\b(?:for|of|to) the (?:\w+ )?(?:year|quarter|period|term|season|month)s? (?:to|ended|ending|up to)\b|\b(?:accounts|balance sheet|statement) (?:as )?at \d|"
    r"\b(?:actions?|action points|decisions|summary|record|agenda)\s+(?:of|from|arising from|for)\s+(?:the\s+|our\s+)?(?:\w+\s+)?(?:meeting|committee)\b|"
    r"^(?-i:[A-Z][\w.'’-]*(?: [A-Z][\w.'’-]*){0,3}), (?:hon(?:orary)?\.? )?(?:secretary|treasurer|clerk|chair(?:man|woman|person)?|president|head(?: ?teacher|master|mistress)?|principal|director|manager|vicar|organi[sz]er|convenor)\b[^:]{0,30}[,\s]\d|"
    r"\b(?:minutes|notes|report|letter|decisions|results|accounts)\s+(?:of|from|dated)\s+(?:the\s+)?(?:\d|[^\W\d]+\.?\s+\d)|\bminutes\s+of\s+(?:the|a|our)\b.*\b(?:meeting|committee|session)\b"
)
"""What speaks of a paper by its date: `Approval of the minutes of 7 September`."""
_OF_MAIL: Final = r"(?i)(?P<label>from|to|cc|date|sent|subject|re|von|an|datum|gesendet|betreff|de|à|envoyé|objet|para|fecha|enviado|asunto)\**\s*:(?P<said>.*)"
_ABOUT: Final = frozenset(("subject", "re", "betreff", "objet", "asunto"))
_SENT: Final = frozenset(("sent", "gesendet"))
_BETWEEN: Final = frozenset(("from", "von", "de", "to", "an", "a", "para", *_SENT))
_HELD_ON: Final = r"(?:held|taken|present)\s+(?:on|at|in)\b"
_NEXT: Final = r"(?:the\s+)?next\s+(?:issue|edition|newsletter|bulletin|number)\b"
_ISSUE: Final = r"(?:[\w'’]+\s+){0,3}(?:issue|no\.?|number|vol(?:ume)?\.?|edition|bulletin|newsletter)\s*(?:no\.?\s*)?#?\d+\b[\s,–—|·-]*\S+(?:\s+\S+){0,4}$"
"""The head of a newsletter, `Issue 4 – 25 September 2026`."""
_PAPERS: Final = (
    r"(?i)\W*(?:[\w'’]+[\s–—:,-]+){0,5}?(?:news(?:letter)?|bulletin|notices?|update|circular|memo(?:randum)?|gazette|journal|diary|calendar|minutes|report|agenda|tagesordnung|ordre du jour)"
    r"(?:\W*(?:no|nr|issue|number|vol)?\W*\d{1,3})?\W*"
)
_AT_HOURS: Final = r"\s*(?:[:,–—-]|\b(?:at|from)\b)?\s*\d[\d.:\s]*(?:[ap]\.?m\.?)?(?:\s*(?:[–—-]|to|until)\s*\d[\d.:]*\s*(?:[ap]\.?m\.?)?)?\W*$"
_OPENS: Final = re.compile(
    rf"(?i)(?:doors?|gates?)(?:\s+(?:open|close)\w*)?{_AT_HOURS}|(?:office|opening|business|shop|reception|library)\s+(?:hours|times)\b|"
    r"open(?:ing)?\s*(?::|\d|(?:daily|from|at|to|until|on|mon|tue|wed|thu|fri|sat|sun)\w*\b)"
)
"""What says from when on people may come."""
IDLE: Final = re.compile(
    r"(?i)[^\W\d]+\s+(?:\|\s+)?[-–—]{1,3}|\W*(?:nothing|none|nil|no (?:events?|fixtures?|match(?:es)?|games?|meetings?|sessions?|practices?|rehearsals?|training|services?|clubs?))(?: (?:on|planned|today|scheduled|this \w+))?(?:\s*\([^()\d]*\))?\W*"
)
"""What says of a day that nothing is on."""
_HIGHEST: Final = 25
"""Lines among which a salutation stands."""
_LONGEST_CLOSE: Final = 15
"""Lines of a signature; more below a close is text again."""


def lines_about_letters(lines: Sequence[tuple[int, str]], lexicon: Lexicon) -> frozenset[int]:
    """The numbers of lines with the letter's own date, and of its signature."""
    salutation = next(
        (n for n, (_, text) in enumerate(lines[:_HIGHEST]) if re.fullmatch(_SALUTATION, fold(text).strip())),
        None,
    )
    if salutation is None:
        return frozenset()
    found = {number for number, text in lines[:salutation] if _is_dateline(text, lexicon)}
    closes = [
        n for n, (_, text) in enumerate(lines) if n > salutation and re.fullmatch(_CLOSE, fold(text).strip())
    ]
    for close in closes[:1]:
        found |= {number for number, _ in lines[close : close + _LONGEST_CLOSE]}
    return frozenset(found)


_STRUCK: Final = r"~~(?=\S).*?\S~~"
"""What is struck out in Markdown."""


def mail_heads(lines: Sequence[tuple[int, str]]) -> frozenset[int]:
    """The numbers of lines that head a mail that another one passes on, or a memorandum: who writes to whom, when and about what."""
    found: set[int] = set()
    run: dict[int, str] = {}
    for number, text in [*lines, (0, "")]:
        match = re.match(_OF_MAIL, text.lstrip("*> "))
        if match is not None:
            is_time = any(map(str.isdigit, match["said"])) and "@" not in match["said"]
            label = fold(match["label"])
            run[number] = "" if is_time and label in _BETWEEN - _SENT else label  # From: 9:00
            continue
        labels = set(run.values())
        if len(run) > 2 and labels & _ABOUT and labels & _BETWEEN:
            found |= run.keys()
        run = {}
    return frozenset(found)


_TICKED: Final = re.compile(r"\s*(?:[-*+•]\s+)?(?:\[[xX✓✔]\]|[☑☒])\s")


def ticked_off(lines: Sequence[tuple[int, str]]) -> dict[int, str]:
    """The entries of a list that are ticked as done, by their numbers: `- [x] Book the hall`."""
    return {number: text.strip() for number, text in lines if _TICKED.match(text)}


def _is_dateline(text: str, lexicon: Lexicon) -> bool:
    """Whether a line is a date, alone or behind a place: `Saltmarsh, 1 May 2027`."""
    within = date_within(f"{text} ·", lexicon)
    if within is None or within.moment.start is not None or within.moment.last is not None:
        return False
    before, _, after = within.rest.replace("·", "").partition("\0")
    return not after.strip(" .") and (
        not before.strip()
        or re.fullmatch(r"[^\W\d][^,:]{1,30},\s*(?:(?:le|den|am|the)\s*)?", before.strip() + " ") is not None
    )


def without_quotes(lines: Sequence[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """The lines without front matter, code, comments, quotations and what is struck out: a blank in the place of each."""
    end = ""
    for n, (number, text) in enumerate(lines):
        stripped = text.strip()
        if end:
            end = "" if end in stripped else end
            text = ""
        elif n == 0 and stripped == "---":
            end, text = "---", ""
        elif stripped.startswith("```"):
            end, text = "```", ""
        elif stripped.startswith("<!--"):
            end, text = ("" if "-->" in stripped else "-->"), ""
        elif stripped.startswith(">"):
            text = ""
        yield number, re.sub(_STRUCK, " ", text) if "~~" in text else text


_UNDER_HEADING: Final = re.compile(r"\s*(?:={3,}|-{3,}|~{3,}|–{3,})\s*")
"""What underlines a heading."""


def with_headings_marked(lines: Sequence[tuple[int, str]]) -> list[tuple[int, str]]:
    """The lines, one with a row of dashes or of `=` under it marked as a heading, and that row blank."""
    found: list[tuple[int, str]] = []
    for number, text in lines:
        above = found[-1][1].strip() if found else ""
        if above and _UNDER_HEADING.fullmatch(text) and not HEADING.match(above) and "   " not in above:
            found[-1] = (found[-1][0], f"# {above}")
            text = ""
        found.append((number, text))
    return found


def is_aside(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line with a date or a time says no event: `Minutes of the meeting, 3 September`, `Doors open at 7`. `Doors 18:15`
    is one as an entry of a programme, with another below it: `following`."""
    if line.date:
        return (
            _ABOUT_PAPERS.search(line.text) is not None
            or re.match(rf"{_MINUTES}|{_NOTES_OF}|{_HELD_ON}|{_WROTE}|(?i:{_NEXT})|{_ISSUE}", line.text)
            is not None
        )
    is_entry = following is not None and bool(following.time) and not following.date
    if (
        following is not None
        and is_entry
        and any(map(str.isalpha, following.rest))
        and line.text.startswith("Doors")
    ):
        return False
    return bool(line.time) and _OPENS.match(line.text.lstrip("( ")) is not None


def heads_paper(text: str) -> bool:
    """Whether a line says what kind of paper it is that bears a date, `Newsletter`."""
    return re.fullmatch(_PAPERS, text) is not None


def says_nothing_on(line: TextLine) -> bool:
    """Whether a line says of its day that nothing is on: `Wed 10 March: nothing`, `w/b 28 Sept –`."""
    ends_open = not line.rest and re.search(r"\s[-–—]\s*$", line.text) is not None
    return ends_open or IDLE.fullmatch(line.rest) is not None


def says_its_paper(line: TextLine) -> bool:
    """Whether a line says what paper this is, and its date: `Minutes, 4 November 2026`."""
    return (
        bool(line.date) and not line.time and not line.text.startswith(line.date) and heads_paper(line.rest)
    )


def heads_slots(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line says that what stands below it is on that day, at the times that it says: `Agenda, 3 May 2027`."""
    begins = (
        following is not None
        and following.time
        and not following.date
        and following.text.startswith(following.time)
    )
    is_agenda = (
        re.search(r"(?i)\b(?:agenda|tagesordnung|ordre du jour|calendar|diary)\b", line.rest) is not None
    )
    return bool(begins) and is_agenda and heads_paper(line.rest)


def heads_list(line: TextLine, following: TextLine | None) -> bool:
    """Whether a line with a date in brackets stands over a list of others: `To do before the regatta (12 June)`."""
    is_over = following is not None and following.is_bullet and bool(following.date) and not line.is_bullet
    return (
        is_over
        and bool(line.date)
        and re.search(rf"\(\s*{re.escape(line.date)}\s*\)\W*$", line.text) is not None
    )


def may_title(line: TextLine) -> bool:
    """Whether a line without a date may be the title of what stands below it, or beside it."""
    return not (is_sentence(line) or heads_paper(line.text))


def heading_of(line: TextLine | None) -> str:
    """What a line without a date calls what stands below it; nothing where it does not."""
    return line.text.strip(" #:") if line is not None and may_title(line) else ""
