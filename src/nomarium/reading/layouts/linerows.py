"""What a line of text says beside its date and time: the title, the place, the length and the notes of a row of a list."""

import re
from typing import Final

from nomarium.reading.cells.placewords import NO_PLACE, PLACE_WORDS, is_place
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.linetimes import EDGES, SAME_TIME, time_in
from nomarium.reading.layouts.textlines import ALL_DAY, LEADS, TextLine
from nomarium.reading.layouts.vaguedates import is_like_a_date
from nomarium.sheets.sheet import Row

_PARTED: Final = re.compile(r"\s*[,;|\t]\s*|\s+[–—-]\s+")
"""What parts the pieces of a line, outside brackets and quotation marks."""
_OF_HALF: Final = re.compile(r"(?i)(?:morning|afternoon|evening)\s+\w")
HALF_OF_DAY: Final = re.compile(
    r"(?i)^(?:in the\s+)?(?P<half>(?:a\.?m\.?|p\.?m\.?)(?=[\s:.,|–—-])|(?:morning|afternoon|evening)(?=\s*[:.,|–—-]))[\s:.,|–—-]+(?P<rest>.*[^\W\d_]{2}.*)$"
)
"""A half of the day before what happens in it; `Morning tea` is a name."""
_COUNTED: Final = (
    r"(?:week|round|session|meeting|match|game|lesson|class|unit|stage|leg|part|group|heat|module|term|periods?|lessons|act|page|year|grade|item)\s+"
    r"\d{1,2}(?:\s?[-–]\s?\d{1,2})?"
)
_NAMED_BY_COUNT: Final = re.compile(_COUNTED, re.IGNORECASE)
_COUNT_AND_COMMA: Final = re.compile(rf"^({_COUNTED}),\s", re.IGNORECASE)
_PLACE_AFTER: Final = re.compile(r"^(?P<title>.*\S)\s+(?:@\s*|(?:at|in)\s+(?=the\s|[A-Z0-9]))(?P<place>.+)$")
_AT_IN_LANGUAGES: Final = {
    "de": r"am|im|in der|auf dem|beim|vor dem|an der", "fr": r"à la|à l['’]\s?(?=\w)|au|aux|dans (?:le|la|les)",
    "es": r"en (?:el|la|los|las)", "nl": r"in (?:de|het)|op (?:de|het)", "it": r"nel|nella|alla|al|presso",
}  # fmt: skip
_OF_SIDES: Final = re.compile(r"(?i)\s\((?:h|a|n|home|away|neutral)\)\W*$")
"""Where a side plays, `Saltmarsh – Quay (H)`."""
_NAME: Final = r"[A-Z][^\W\d_]+"
_NOTHING_IN: Final = r"\s*\(\s*\)"
_HELD: Final = r"(?i)[,:;]?\s+(?:which\s+|that\s+)?(?:(?:will|is|are|to)\s+)?(?:be\s+)?(?:held|taking place|takes? place|planned|scheduled|agreed|set|fixed|booked|arranged)(?:\s+for)?$"
_MOVED_TO: Final = r"(?i)[,:;]?\s+(?:[–—-]\s+)?(?:(?:it|this|they)\s+)?(?:(?:has|have|is|are|was|were)\s+)?(?:now\s+|been\s+)*(?:moved|postponed|re-?scheduled|brought forward|put back|deferred)\s+(?:to|until|till|for)$|\s*\(was\)$"
"""Words of a sentence between what is held and when; without a word that leads to the new date, what is put off is not held."""
_TITLE_LABEL: Final = re.compile(
    r"(?i)^(?:subject|re|betreff|betrifft|objet|asunto|event|title|titre|titel|what)\s*:\s*(?=\w)"
)
"""A label that says that what follows is the title."""
_TO_PLACE: Final = r"(?i)^(?:(?:in|at)\s+(?:the\s+)?|en\s+(?:el|la)\s+|im\s+|in\s+der\s+|dans\s+la\s+)(?=\S)"
_SENTENCE_END: Final = (
    r"(?<=[^\W\d_]{3})(?<!\bProf)(?<!\bCapt)(?<!\bMrs)(?<!\bRev)(?<!\bMme)(?<!\bStd)[\s,]*\.\s+(?=[A-Z])"
)
_PLACE_ENDS: Final = re.compile(r"(?P<place>[^\W\d_]{3,} (?:\d{1,2}|[A-Z]))[\s,]*\.\s+(?=[A-Z])")
"""A place with its number or letter that ends a sentence, `Slip 2. All welcome`."""
_IN_FIGURES: Final = r"(?:\d{1,3}(?=\s?m)|\d{1,2}(?:[.,]\d{1,2}|\s?[½¼¾])?|½)\s?(?:h(?:rs?|ours?)?\s?(?:\d{1,2}\s?(?:m(?:ins?)?)?)?|min(?:ute)?s?)"
_IN_WORDS: Final = r"(?:half an|an?|one|two|three|four|five|six)(?: and a half)? hours?(?: and a half)?|(?:fifteen|twenty|thirty|forty|forty-five|ninety) minutes"
_LENGTH: Final = re.compile(
    rf"(?i)(?:(?:[,;]\s*)?\b(?:for|lasting|during)\s+)?\(?(?<![\w.:,]){_IN_FIGURES}\b(?![\w-])\)?|"
    rf"(?:\b(?:for|lasting|during)\s+(?:{_IN_WORDS})|\((?:{_IN_WORDS})\))(?!\s+(?:before|after|early|earlier|later|of|ago|from)\b)|\(\d{{1,3}}\s?m\)|\(\dh[0-5]\d(?:\s?m(?:in)?)?\)"
)
"""How long something lasts, beside its time."""
_START: Final = r"(?i)\W*starts?\W*"
"""What is left of `(9.15am start)`."""
_CODE: Final = r"[A-Z]{0,2}\d{1,3}[a-z]?\.?|[A-Z]|[IVX]{2,5}\.?"
"""What counts a line, and is no title."""
_JOURNEYS: Final = r"(?i)(?:dep(?:art(?:s|ure)?)?|arr(?:iv(?:e|es|al))?|leave|leaves|from|to)\.?"
"""Titles that are none without the place that follows them."""
_COUNTED_OR_RATED: Final = r"\d{1,2}[A-Z]?\+?|\d{1,2}h\d\d"
"""Figures in brackets that are as often an age or a number as a room, `(12A)`, or a length."""
_BRACKETS_FIRST: Final = re.compile(r"\((?P<said>[^()]+)\)\s*[-–—:,]\s*(?P<title>[^\W\d_].*)$")
_SIDE_BY_SIDE: Final = r"\)\s*/\s*\w[^()]*\("
"""Two things at once, each with its place behind it: `A: Ropes (Loft 1) / B: Tar (Shed 2)`."""
_IN_BRACKETS: Final = re.compile(r"^(?P<title>.*\S)\s*\((?P<place>[^()]+)\)$")


def says_half_of_day(line: TextLine) -> bool:
    """Whether a line begins with a part of the day, `Morning: Trials`, `Evening service`."""
    return HALF_OF_DAY.match(line.rest) is not None or _OF_HALF.match(line.text) is not None


def at_same_time(line: TextLine, above: Row | None) -> TextLine:
    """A line that is held at the `same time` with the time of the event above it; without such a one it stays as it is."""
    if above is None or not line.date or line.time or line.has_time:
        return line
    said = SAME_TIME.search(line.rest)
    if said is None:
        return line
    date, time = map(str, above[1][:2])
    time = time or time_in(date)[0]
    if not time:
        return line
    rest = f"{line.rest[: said.start()]}, {line.rest[said.end() :].lstrip(EDGES)}"
    return line._replace(time=time, rest=rest.strip(EDGES))


def _without_length(text: str) -> tuple[str, str]:
    """What a line with a time says without how long it lasts, and this."""
    said = _LENGTH.search(text)
    if said is None:
        return text, ""
    rest = " ".join(f"{text[: said.start()]} {text[said.end() :]}".split()).strip(EDGES)
    return rest, re.sub(r"(?i)^\W*(?:(?:for|lasting|during)\b)?\W*", "", said[0]).strip("() ")


def row_of(line: TextLine, date: str, lexicon: Lexicon) -> Row:
    """A line as a row: its title, and what stands in brackets, after a comma or after `at` is the place."""
    half, text, place = "", line.rest, ""
    if (part_of_day := HALF_OF_DAY.match(text)) is not None and not (line.time or line.has_time):
        half, text = f" ({part_of_day['half']})", part_of_day["rest"].strip()
    text = re.sub(r"^(?:\.{2,}|…)\s*", "", ALL_DAY.sub("", text, count=1) or text)  # 10.00 ... Gates open
    if (before := _BRACKETS_FIRST.match(text)) is not None:
        text = f"{before['title']} ({before['said']})"  # 12:10, (Long Room) – P. Lind
    text, *more = _first_sentence(re.sub(r"(?<=[\w)])[\s,]*\.$", "", text))
    text, length = _without_length(text) if line.time or line.has_time else (text, "")
    brackets = _IN_BRACKETS.match(text)
    is_timed = bool(line.time) or line.has_time
    if (
        brackets
        and re.search(_SIDE_BY_SIDE, text) is None
        and not re.search(NO_PLACE, brackets["place"])
        and not re.fullmatch(_COUNTED_OR_RATED, brackets["place"])
        and (re.search(PLACE_WORDS, brackets["place"]) or is_place(brackets["place"]))
    ):
        text, place = brackets["title"], brackets["place"]
    parts = _parts_of(text)
    if (
        len(parts) > 1
        and all(map(_IN_BRACKETS.match, parts))
        and not re.search(PLACE_WORDS, " ".join(parts[1:]))
    ):
        parts = [", ".join(parts)]  # Tiller (viola), Bosun (piano)
    parts, at = _with_place(parts, text, line, lexicon)
    if at and not place:
        place = parts.pop(at)
        if (within := _IN_BRACKETS.match(place)) is not None:  # Staff room (with supper)
            place, more = within["title"], [within["place"], *more]
    elif len(parts) > 1 and not is_timed and "|" not in text:
        parts = [_COUNT_AND_COMMA.sub(r"\1: ", text)]  # Tobias, Ruth: what is on that day, all of it
    title, notes = (
        (parts[0] if parts else ""),
        ", ".join(one for one in (*parts[1:], *more) if not re.fullmatch(_START, one)),
    )
    notes = notes.lstrip(" .;,")
    bare = re.fullmatch(r"\(([^\W\d][^()]+)\)", title)
    if bare is not None and (bare[1][0].isupper() or is_place(bare[1])):
        title = bare[1]
    if re.fullmatch(_JOURNEYS, title) and place:
        title, place = f"{title} {place}", ""
    after = _PLACE_AFTER.match(title) or _place_after(title, lexicon) if not place else None
    if after and not _is_no_place(after["place"], lexicon):
        title, place = after["title"], re.sub(r"^the\s+", "", after["place"])
    title = re.sub(LEADS, "", re.sub(_MOVED_TO, "", re.sub(_HELD, "", _TITLE_LABEL.sub("", title))))
    return line.number, EventRow(
        date,
        line.time,
        f"{_without_empty_brackets(title).strip(' :')}{half}",
        re.sub(_TO_PLACE, "", _with_whole_brackets(_without_empty_brackets(place.strip()))),
        notes,
        length,
        line.repeat,
        line.without,
    )


def _first_sentence(text: str) -> list[str]:
    """The first sentence of a text, and the rest where there is more."""
    place = next((one for one in _PLACE_ENDS.finditer(text) if is_place(one["place"])), None)
    whole = re.split(_SENTENCE_END, text, maxsplit=1)
    if place is None or len(whole[0]) < place.end("place"):
        return whole
    return [text[: place.end("place")], text[place.end() :]]


def _with_place(parts: list[str], text: str, line: TextLine, lexicon: Lexicon) -> tuple[list[str], int]:
    """The pieces of a line, and which of them is the place, 0 for none: the first that a word shows to be one; of a line with a
    time another one, too, unless it may be anything."""
    may_be = [n for n, part in enumerate(parts) if n and not _is_no_place(part, lexicon)]
    named = [n for n in may_be if re.search(PLACE_WORDS, parts[n]) or is_place(parts[n])]
    is_timed = bool(line.time) or line.has_time
    unnamed = [n for n in may_be if is_timed and not _is_before_time(parts[n], line)]
    at = next(iter([*named, *unnamed]), 0)
    if at == 1 and (_OF_SIDES.search(text) or not named) and _may_be_anything(parts[0], parts[1], text):
        return [f"{parts[0]}{_sign_between(parts[0], parts[1], text)}{parts[1]}", *parts[2:]], 0
    return parts, at


def _sign_between(first: str, second: str, text: str) -> str:
    """What parts two pieces of a text, ` – ` or `, `."""
    begin = text.find(first) + len(first)
    return text[begin : max(begin, text.find(second, begin))]


def _may_be_anything(first: str, second: str, text: str) -> bool:
    """Whether the second piece of a text, which no word shows to be a place, may as well be a side, a person or more of the title:
    behind a dash, `Saltmarsh – Quay`, or the second of two names behind a colon, `Duty: Bell, Osei`."""
    sign = _sign_between(first, second, text)
    are_names = re.search(rf":\s*{_NAME}$", first) is not None and re.fullmatch(_NAME, second) is not None
    return any(dash in sign for dash in "–—-") or (are_names and "," in sign)


def _with_whole_brackets(text: str) -> str:
    """A text without a bracket at its edge that has no other: `Chart room)` of `(4pm, Chart room)`."""
    missing = text.count("(") - text.count(")")
    return text.removeprefix("(") if missing > 0 else text.removesuffix(")") if missing < 0 else text


def _without_empty_brackets(text: str) -> str:
    return re.sub(_NOTHING_IN, "", text).replace(" )", ")") if "(" in text else text


def _is_before_time(part: str, line: TextLine) -> bool:
    """Whether a part of a line stands before its time: `Remembrance, laying of wreaths 11.15` names no place."""
    at = line.text.find(line.time) if line.time else -1
    return 0 <= line.text.find(part) < at


def _place_after(title: str, lexicon: Lexicon) -> re.Match[str] | None:
    """The title and the place behind a word for *at* or *in* of the language of the text, `Treffen am Denkmal`."""
    words = "|".join(_AT_IN_LANGUAGES[code] for code in lexicon.languages if code in _AT_IN_LANGUAGES)
    return re.match(rf"^(?P<title>.*\S),?\s+(?:{words})\s+(?P<place>[^\W\d_].*)$", title) if words else None


def _pieces(text: str) -> list[str]:
    """What commas and dashes part; what is in brackets or between quotation marks stays whole."""
    found: list[str] = []
    begun = seen = depth = marks = 0
    for match in _PARTED.finditer(text):
        passed = text[seen : match.start()]
        depth += len(re.findall("[(“«]", passed)) - len(re.findall("[)”»]", passed))
        marks += passed.count('"')
        seen = match.end()
        if depth <= 0 and marks % 2 == 0:
            found.append(text[begun : match.start()])
            begun = seen
    return [*found, text[begun:]]


def _is_no_place(text: str, lexicon: Lexicon) -> bool:
    """Whether a piece of a line says a date or a time, is quoted, or says more than where; what is in brackets behind it says more of it."""
    within = _IN_BRACKETS.match(text)
    bare = within["title"] if within is not None else text
    return (
        re.search(NO_PLACE, bare) is not None
        or bare[0] in '"“‘«'
        or (bare[0].islower() and re.search(PLACE_WORDS, bare) is None)
        or _NAMED_BY_COUNT.fullmatch(bare) is not None
        or re.fullmatch(
            r"(?i)\d+\s?m\b\.?|(?:[A-Z]\.\s?)+[A-Z][\w'’-]+|(?:mr|mrs|ms|miss|dr|prof|revd?|fr|canon|pastor|father|sister|coach|capt|cllr|m\.|mme|frau|herr)\b.*",
            bare,
        )
        is not None
        or bool(time_in(bare)[0])
        or re.search(r"\d[.:]\d\d", bare) is not None
        or is_like_a_date(bare, lexicon)
    )


def _parts_of(text: str) -> list[str]:
    """The parts of what a line says beside its date: its columns where it has several, a code going with the next one,
    `R1: Heron - Tern`; else what commas and dashes part."""
    columns = [part for part in re.split(r"\s*\|\s*", text.strip(EDGES)) if part]
    if len(columns) > 1 and re.fullmatch(_CODE, columns[0]):
        return [f"{columns[0]}: {columns[1]}", *columns[2:]]
    pieces = [text] if len(columns) < 2 else columns
    split = ([piece] if " - " in piece and len(columns) > 1 else _pieces(piece) for piece in pieces)
    parts = [part for some in split for part in some if part and part.strip()]
    if len(parts) > 1 and _NAMED_BY_COUNT.fullmatch(parts[0]) and not is_place(parts[1].partition("(")[0]):
        return [f"{parts[0]}: {parts[1]}", *parts[2:]]
    return parts
