"""Why a line of text with a date or a time is no one event."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.linerepeats import without_plural
from nomarium.reading.layouts.linetimes import COMING, SAME_TIME, time_in
from nomarium.reading.layouts.openends import goes_on
from nomarium.reading.layouts.textlines import ALL_DAY, DAILY, TextLine, is_named
from nomarium.reading.layouts.weekdaylines import names_week
from nomarium.reading.rows.datewithin import LEADING_WORDS, date_within
from nomarium.reading.rows.opendays import has_several_days

_REPEATS: Final = re.compile(
    r"(?i)^\W*(?:every|each|weekly|fortnightly|monthly|daily|alternate|chaque|tous les|jede[nrs]?|cada|elke)\b"
)
_AGAIN: Final = re.compile(
    r"(?i)\b(?:every|alternate|fortnightly|each(?=\s+(?:(?:other|second|third)\s+)?(?:week|day|month|(?:mon|tue|wed|thu|fri|sat|sun)\w*)\b)|"
    r"(?:first|second|third|fourth|last|1st|2nd|3rd|4th)\s+\w+day\s+(?:of|in)\s+(?:the|each|every)\s+month)\b"
)
"""Words by which something is held again and again, wherever they stand."""
_LEFT_OVER: Final = re.compile(
    r"(?i)\b(?:weekly|fortnightly|bi-?weekly|monthly|daily|termly)\b(?![\s-]+[^\W\d_]{3})|\b(?:weekdays|weekends)\b|\b(?:except|excluding|but not|apart from)\W*$"
)
"""What says how often something is held, or on which days, and is left beside its date and its title."""
_NOT_ON: Final = re.compile(
    r"(?i)\b(?:except|excluding|excl\.?|but not|not|apart from|save)\s+(?:on\s+|for\s+)?(?P<day>[^\W\d_]{2,9}?)s?\b(?!\.?,?\s*\d)"
)
"""Words before a weekday on which something is not held."""
_COUNTED: Final = re.compile(
    r"(?i)(?<![\w:.-])(?:[2-9]|[1-4]\d)\s?(?:weeks|wks|evenings|mornings|afternoons|termine|abende|vormittage|nachmittage|wochen|mal|semaines|soir[ée]es|semanas|tardes|settimane|serate|weken|avonden)(?! (?:notice|before|after|to go|earlier|later|old|ago))\b"
)
_COUNTED_FROM: Final = re.compile(
    r"(?i)\b(?:from|starts?|starting|begins?|beginning|ab|beginn|dès|à partir|vanaf|dal)\b.*(?<![\w:.-])(?:[2-9]|[1-4]\d)\s?(?:sessions|lessons|classes|meetings|séances|lektionen|stunden|lessen|lezioni|sesiones|clases)\b"
)
"""How many dates there are from the one that the line says, `11 January, 10 evenings`."""
_LASTS_DAYS: Final = re.compile(
    r"(?i)\b(?:for\s+)?(?:two|three|four|five|six|seven|eight|ten|[2-9]|[1-3]\d)\s+(?:days|nights)\b(?!\s+(?:before|after|later|earlier|notice|old|ago|to go|left|away|in\b))"
)
"""How many days it lasts that the line says, beside the first of them."""
_LASTING: Final = Refusal(
    "text-lasting", "The line says how many days it lasts, and its first day alone.", "Write its first and its last day: “7–9 June 2027”.",
)  # fmt: skip
_LABELS: Final = frozenset(
    "when where date dates time times day days datum fecha data tijd hora uhrzeit heure from to until start end starts ends begins day all both everything quand wann von bis".split()
)
_LABELLED: Final = Refusal(
    "text-labelled", "The line says when, and no line beside it says what.", "Write the title on the same line: “Fri 16 April 2027: Open day”.",
)  # fmt: skip
_MORE_OF_TIME: Final = re.compile(
    r"(?i)(?:any ?time|(?:after|before|from|until)\b)(?:\s+(?:after|before|from|until|\d{1,2}(?:[.:]\d\d)?\s?(?:[ap]\.?m)?|noon|midday|midnight|lunch|school|onwards|the day))*[.!]?"
)
"""What says more of when, and not what."""
_UNSAID: Final = re.compile(r"(?i)^(?:the|our|this)\s.*\s(?:is|are|was|were|will be)\W*$")
"""A sentence whose end is its date, `The deadline is`."""
_UNKNOWN_DAY: Final = Refusal(
    "text-unread", "The word before the date seems to be a weekday, and is none in the languages found.",
    "Say the language, --language de, say, or take the word out.",
)  # fmt: skip
_COUNTING: Final = frozenset(("kl", "ca", "no", "nr", "tel", "st"))
"""Short words with a full stop before figures that are no weekdays."""
_DAY_OF_WEEK: Final = Refusal(
    "text-weekday", "The line names a week by its first day, and a weekday or a time in it.", "Write the date of that day.",
)  # fmt: skip
_SEVERAL_DAYS: Final = Refusal(
    "text-several", "The line says what is on several weekdays.", "Write each day on a line of its own, with its date.",
)  # fmt: skip
_RANGE: Final = r"\d.*(?:[-–—]|\bto\b|\buntil\b|\btill\b).*\d"
_REGIONS: Final = r"(?:Atlantic|Eastern|Central|Mountain|Pacific|Newfoundland|Halifax|London|UK|[Ll]ocal)"
_ZONE: Final = re.compile(
    r"\(?(?:UTC|GMT|[ECMPA][SD]?T|CES?T|WES?T|EES?T|BST|IST|MSK|JST|AE[SD]T|NZ[SD]T|(?:Africa|America|Antarctica|Arctic|Asia|Atlantic|Australia|Europe|Indian|Pacific)/[A-Z][A-Za-z_/-]+)(?:\s?[+-]\d{1,2}(?::?\d\d)?)?\)?(?![\w-])|"
    rf"\({_REGIONS}(?:\s[^()]*)?\)|{_REGIONS}\s(?:(?:standard|daylight|summer)\s)?[Tt]ime\b"
)
"""The short name of a time zone, right behind a time."""
_IN_ZONE: Final = Refusal(
    "text-zone", "The line says in which time zone its time is, which a line of text cannot say here.",
    "Take the zone out, and say it for all with --timezone; or put it into a table with a column “Time zone”.",
)  # fmt: skip
_USUAL_TIME: Final = re.compile(r"(?i)\busual (?:time|hour)s?\b")
_MOVED_FROM: Final = re.compile(
    r"(?i)\b(?:moved|postponed|re-?scheduled|changed|brought forward|put back|deferred)(?:\s+(?:again|now))?$"
)
_MOVED: Final = Refusal(
    "text-several", "The line says from which date something was moved, and to which.", "Write the new date alone.",
)  # fmt: skip
_AS_BEFORE: Final = Refusal(
    "text-undated", "The line says that its time is that of another.", "Write the time itself.",
)  # fmt: skip
_ALL_DAY_AND_TIME: Final = Refusal(
    "text-several", "The line says that something lasts all day, and a time.", "Write each event on a line of its own, or one of the two.",
)  # fmt: skip
_UNTIL_HOUR: Final = re.compile(
    r"(?i)\b(?:until|till|bis)\s+(?:about\s+|ca\.?\s+)?\d{1,2}\W*$|\s[–—-]\s?\d{1,2}[:.]\d\d$"
)
"""An end that is a mere number, or stands behind its title, `Interviews until 5`."""
_NAMED_BY_HOUR: Final = re.compile(r"(?i)\b(?:midnight|midday|noon)\s+(?=[^\W\d_]{3})")
"""An hour that names what is on, `Midnight service`."""
_WORDED_TIME: Final = re.compile(
    r"(?i)\b(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|twenty)\s+(?:to|past|till?|until)\s+(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|noon)\b"
)
"""A time in words that could be read, or from one hour to another."""
_BEFORE_START: Final = re.compile(
    rf"(?i)\(\s*{COMING}(?:\s+(?:opens?|times?|at|from|ab|um|à))*\s*:?\s*\d{{1,2}}(?:[:.h]\d\d)?\s?(?:[ap]\.?m\.?|uhr|h)?\s*\)"
)
"""When people come for what the line says, in brackets, `(doors 7pm)`."""
_EITHER: Final = re.compile(
    r"(?i)(?<![\w.:])\d{1,2}(?:[.:]\d\d)?(?:\s?[ap]\.?m\b\.?)?\s?/\s?\d{1,2}(?:[.:]\d\d)?\s?[ap]\.?m\b|"
    r"(?<![\w.:])\d{1,2}[:h]\d\d\s?/\s?\d{1,2}[:h]\d\d(?!\d)"
)
"""Two times of which one is a start and the other an end, or another start: `2pm/6pm`."""
_SEVERAL: Final = Refusal(
    "text-several", "The line says more than one date or time.", "Write each event on a line of its own."
)


_LISTED: Final = re.compile(
    r"(?:\d{1,2}(?:st|nd|rd|th)?, )+\d{1,2}(?:st|nd|rd|th)? (?!and\b|et\b|und\b|[&+])[^\W\d]"
)
"""Days with nothing but commas between them, `4, 16 February`."""
_DAY_OR_NUMBER: Final = Refusal(
    "text-several", "The first number before the month may be a day, or belong to the word before it.",
    "Write “Meeting: 4 and 16 February” for two days, or “Meeting 4: 16 February” for one.",
)  # fmt: skip


_PARTED: Final = r";|(?<=[^\W\d]{3})\.\s+(?=[A-Z])|(?<=:\d\d)\.\s+(?=[A-Z])"


_RESERVE: Final = re.compile(
    r"(?i)\b(?:in (?:the )?(?:case|event) of (?:rain|bad weather|poor weather|wind|storms?|snow)|if (?:it rains|it is wet|wet|raining|postponed|called off))\W{0,3}(?:(?:then|on|to|is|will be|held)\W{1,2}){0,3}$"
)
"""What leads to a day on which something is held if it cannot be on its own."""
_IN_RESERVE: Final = Refusal(
    "text-open", "The line says a day in reserve: what is on then is held if another day falls through.",
    "Write it with its title if it is to be an event, “Mon 21 June: Sports day, if not on Friday”, or take it out.",
)  # fmt: skip


def _is_of_last(line: TextLine) -> bool:
    """Whether a line names two things, parted by a semicolon or a full stop, and its time stands with the second: `Cake sale;
    disco 6pm`."""
    if "," in line.text and _is_whole_piece(line):
        return True
    first, *others = re.split(_PARTED, line.text.replace(line.date, " ", 1))
    said = [piece for piece in others if time_in(piece)[0]]
    is_named = any(re.search(r"[^\W\d_]{3}", time_in(piece)[1]) for piece in said)
    return is_named and not time_in(first)[0] and re.search(r"[^\W\d_]{3}", first) is not None


def _is_whole_piece(line: TextLine) -> bool:
    """Whether a part of a line behind a comma says a title, its time and its place, `Assembly, PTA meeting 7pm library`."""
    first, *others = re.split(r",\s+", line.text.replace(line.date, " ", 1))
    for piece in others:
        time, _ = time_in(piece)
        before, found, behind = piece.partition(time) if time else ("", "", "")
        if (
            found
            and len(before.split()) > 1
            and not is_place(before.strip())
            and is_place(behind.strip(" ,."))
        ):
            return not time_in(first)[0] and re.search(r"[^\W\d_]{3}", first) is not None
    return False


def _has_weekdays(word: str, lexicon: Lexicon) -> bool:
    """Whether a word is weekdays with a dash between them, `Tue–Sun`."""
    parts = re.split("[-–—/]", word)
    return len(parts) > 1 and any(part in lexicon.weekdays for part in parts)


def _has_other_date(rest: str, lexicon: Lexicon) -> bool:
    """Whether what a line says beside its date is another one, with the name of a month."""
    found = date_within(f"{rest} ·", lexicon)
    if found is not None and not any(map(str.isalpha, rest)):
        return True  # 19/11, 20/11, 21/11 at 19.30
    return found is not None and (
        is_named(found.text, lexicon) or re.search(r"\b(?:19|20)\d\d\b", found.text) is not None
    )


def _has_others(line: TextLine, words: Sequence[str], lexicon: Lexicon) -> bool:
    """Whether what a line says beside its date names other days, or goes on with them; `words` are its words, folded."""
    rest, has_strokes = line.rest, re.search(r"\d/\d", line.date) is not None
    return (
        any(a in lexicon.weekdays and re.fullmatch(r"\d{1,2}(?:st|nd|rd|th)?", b) for a, b in pairwise(words))
        or re.match(r"\d{1,2}\.\d{1,2}\.(?!\d)", rest) is not None  # 25.12., 26.12. and more
        or (any(map(str.isdigit, rest)) and _has_other_date(rest, lexicon))
        or (
            has_strokes and re.search(r"(?<![\d/])\d{1,2}/\d{1,2}(?![\d/])", rest) is not None
        )  # 20/3 away, 27/3 home
        or len(re.findall(r"(?:^|\|)\s*[^\W\d_]{2,12}: \S", rest)) > 1  # Early: Amaro   Late: Bell
        or re.search(r"^\W*(?:&|and\b|\+)|:\s*(?:&|and\b|\+)\s*\d|(?:&|\band|(?<=\s)\+)\W*$", rest)
        is not None
    )


_AND: Final = frozenset("and et und y e en och og".split())


def _may_number(line: TextLine, lexicon: Lexicon) -> bool:
    """Whether a list of days stands right behind one thing that its first may number, `Meeting 4, 16 February`: several have
    a plural's ending, what leads to a date is no thing, and days one after the other are days."""
    listed = _LISTED.match(line.date)
    if listed is None or line.date not in line.text:
        return False
    days = list(map(int, re.findall(r"\d+", listed[0])))
    if days == list(range(days[0], days[0] + len(days))):
        return False  # Fair 5, 6 December
    before = line.text[: line.text.index(line.date)]
    word = re.search(r"([^\W\d_]+)\s$", before)
    if word is None or word[1].casefold().endswith("s"):
        return False
    return fold(word[1]) not in LEADING_WORDS | _AND | lexicon.weekdays.keys() | lexicon.months.keys()


_FOUR_FIGURES: Final = re.compile(r"(?:^|[\s(,])(?:0\d|1[0-7]|2[1-3])[0-5][05]\)?$")
"""Figures behind a title that may be a time, `Staff meeting (1400)`; those of years are more likely one."""
_HOURS_OR_LENGTH: Final = re.compile(r"(?i)(?:^|[\s(,])(?:[7-9]|1[0-2])\s?h\)?$")
"""The same with an h, `réunion 9h`, where nothing shows the language: it may be a length."""
_MAY_BE_TIME: Final = Refusal(
    "text-unread", "The figures behind the title may be a time.", "Write it like 14:00; if it is none, put it before the title.",
)  # fmt: skip


def _doubt_of_time(line: TextLine, is_timed: bool) -> Refusal | None:
    """Why the time of a line is not that of one event."""
    if line.date and not is_timed and _EITHER.search(line.rest):
        return _SEVERAL
    if line.date and not is_timed and _WORDED_TIME.search(line.rest):
        return _SEVERAL  # ten to three: before three, or from ten on
    if line.date and not is_timed and (_FOUR_FIGURES.search(line.rest) or _HOURS_OR_LENGTH.search(line.rest)):
        return _MAY_BE_TIME
    if line.date and not is_timed and (SAME_TIME.search(line.rest) or _USUAL_TIME.search(line.rest)):
        return _AS_BEFORE
    if is_timed and not re.search(_RANGE, line.time or line.date) and _UNTIL_HOUR.search(line.rest):
        return _SEVERAL
    if is_timed and _ZONE.match(line.rest):
        return _IN_ZONE
    is_span = re.search(_RANGE, line.time) is not None  # leave 8.15, back 16.00
    if line.time and line.time != "all day" and not is_span and ALL_DAY.search(line.rest):
        return _ALL_DAY_AND_TIME
    if (is_timed and line.time != "all day") and (
        time_in(_BEFORE_START.sub("", _NAMED_BY_HOUR.sub("", line.rest)))[0] or _is_of_last(line)
    ):
        return _SEVERAL
    return None


def _says_more_of_repeat(line: TextLine, lexicon: Lexicon) -> bool:
    """Whether words of a line say more of how often it is held than was read: `fortnightly`, `except Tuesdays`, `and Sun only`."""
    if not line.date:
        return False
    barred = _NOT_ON.search(line.text)
    if barred is not None and fold(barred["day"]) in lexicon.weekdays:
        return True
    rest = {fold(word).strip(".,;:()&") for word in line.rest.split()}
    others = line.repeat and any(word.removesuffix("s") in lexicon.weekdays for word in rest)
    return bool(others) or _LEFT_OVER.search(line.rest) is not None


_AND_BEFORE: Final = re.compile(r"(?i)\d\.?\s*(?:und|u\.|et|y|e|en|och|og|sowie)\s*$")
"""A day before the one that was read, and what stands between them."""


def _doubt_beside_date(line: TextLine, lexicon: Lexicon) -> Refusal | None:
    """Why what stands beside the date of a line is no title, or leaves the date open."""
    before_date = line.text.partition(line.date)[0]
    if _AND_BEFORE.search(before_date):
        return _SEVERAL  # 5. und 6. November
    if _RESERVE.search(before_date):
        return _IN_RESERVE
    if re.search(r"(?i)\b\d{1,2}(?:st|nd|rd|th)?\s+(?:or|oder|ou|o)\s*$", before_date):
        return _SEVERAL  # 8 or 9 February
    if fold(line.rest).strip(" :") in _LABELS or _MORE_OF_TIME.fullmatch(line.rest):
        return _LABELLED
    if _UNSAID.search(line.rest):
        return linerefusals.PROSE
    before = re.match(r"([^\W\d]{2,3})\.\s*\d", line.text)
    if (
        before is not None
        and fold(before[1]) not in lexicon.weekdays.keys() | lexicon.months.keys() | _COUNTING
    ):
        return _UNKNOWN_DAY  # So. 20.9.2026, and nothing says that it is a Sunday
    return _DAY_OR_NUMBER if _may_number(line, lexicon) else None


_HEADS_COLUMNS: Final = Refusal(
    "text-several", "The line has a date and heads columns, and the lines below it say what is in each.",
    "Save it as a table, .csv or .tsv, which is read by its columns; or write each event on a line of its own.",
)  # fmt: skip


def of_those_below(line: TextLine, following: TextLine | None, opens: bool) -> Refusal | None:
    """Why a line with a time that opens its paragraph is no event of the day above: those below it have days of their own,
    `TALKS (Library, 2pm)` over `20 January: Tall ships`; or why a line with a date heads columns, and no day alone."""
    heads = line.parted.count(" | ") > 1 and line.date and not (line.time or line.has_time)
    is_slot = following is not None and bool(following.time) and following.text.startswith(following.time)
    if heads and is_slot and following is not None and not following.date and " | " in following.parted:
        return _HEADS_COLUMNS
    if not opens:
        return None
    is_over = following is not None and bool(following.date) and not following.has_time and not following.time
    begins = re.match(r"\D{0,6}\d", line.text) is not None  # de 9h à 10h: an entry of the day above
    is_of_all = is_over and not line.date and bool(line.time) and not begins
    return linerefusals.OF_ALL_TIMES if is_of_all else None


def doubt_of(line: TextLine, lexicon: Lexicon) -> Refusal | None:
    """Why a line with a date or a time is no one event: it repeats, or says another day or time. None when nothing tells."""
    if _says_more_of_repeat(line, lexicon):
        return linerefusals.REPEATED
    if line.date and (doubt := _doubt_beside_date(line, lexicon)) is not None:
        return doubt
    words = [fold(word).strip(".,;:()&") for word in without_plural(line.text).split()]
    are_several = any(
        word not in lexicon.weekdays
        and word not in lexicon.months  # mars, beside mar
        and word.removesuffix("s") in lexicon.weekdays
        for word in words
    )
    text = (
        re.sub(DAILY, "", line.text) if has_several_days(line.date) else line.text
    )  # 12 & 13 June, each day
    if not line.repeat and (_REPEATS.match(text) or are_several or _AGAIN.search(text)):
        return linerefusals.REPEATED
    days = time_in(line.date)[1] if line.has_time else line.date
    if (
        line.date
        and not (line.repeat or re.search(_RANGE, re.sub(r"\d{4}-\d\d-\d\d", "0", days)))
        and (_COUNTED.search(line.rest) or _COUNTED_FROM.search(line.text))
    ):
        return linerefusals.REPEATED
    if line.date and not (line.repeat or re.search(_RANGE, days)) and _LASTS_DAYS.search(line.rest):
        return _LASTING
    if line.date and (open_end := goes_on(line, lexicon)) is not None:
        return open_end
    rest = [fold(word).strip(".,;:()") for word in line.rest.split()]
    has_weekday = any(
        word in lexicon.weekdays or _has_weekdays(word, lexicon) for word in rest if word != "we"
    )
    is_timed = bool(line.time) or line.has_time
    if names_week(line.date) and (has_weekday or is_timed):
        return _DAY_OF_WEEK
    if (
        sum(a in lexicon.weekdays and b not in lexicon.weekdays for a, b in pairwise([*rest, ""])) > 1
        and not line.repeat
    ):
        return _SEVERAL_DAYS  # Mon Osei, Tue Quill
    if re.search(_RANGE, line.date) and _MOVED_FROM.search(line.text.partition(line.date)[0].rstrip()):
        return _MOVED
    if line.date and _has_others(line, rest, lexicon):
        return _SEVERAL
    if (doubt := _doubt_of_time(line, is_timed)) is not None:
        return doubt
    is_of_range = is_timed and not line.repeat and re.search(_RANGE, line.date) is not None
    if is_of_range and has_weekday:
        return linerefusals.REPEATED  # on these weekdays, and not daily
    return None


_NUMBERED_PLACE: Final = r"[^\W\d_]+\.?\s+(?:\d{1,3}[a-z]?|[A-Z])"
_OTHER_TIMES: Final = frozenset("above before usual yesterday previous oben gestern hier".split())


def says_nothing(title: str, lexicon: Lexicon) -> bool:
    """Whether a title is the name of a day or a month, a half of the day, a number, a place by its number, or open: it says nothing of
    what is on."""
    word = fold(title).strip(" .:;,()-")
    if (
        like := re.fullmatch(r"(?:(?:the )?same as|as|see|like|wie|comme)(?: on)? (?P<other>[^\W\d_]+)", word)
    ) is not None:
        return like["other"] in lexicon.weekdays or like["other"] in _OTHER_TIMES
    if re.fullmatch(_NUMBERED_PLACE, title.strip()) is not None and is_place(title):
        return True  # Loft 2
    is_name = word in lexicon.weekdays or (word in lexicon.months and len(word) > 2)
    return (
        is_name
        or re.fullmatch(
            r"[ap]\.?m|\d+(?:st|nd|rd|th)?|[\d.,½]+ ?(?:half )?(?:days?|nights?|weeks?|hours?|hrs?|minutes?|mins?)|tb[acd]|week|woche|semaine|semana|settimana|vecka|uke|uge|viikko|-*|start(?:s|ing)?|beg(?:ins|inning)|commencing|from|until|end(?:s|ing)?|(?:re)?scheduled(?: (?:for|to))?|(?:now )?moved(?: to)?|postponed(?: (?:to|until))?|new date|now|not|no|except|without|excluding|nicht|kein(?:e|er)?|außer|sauf|pas|excepto|salvo|niet|behalve",
            word,
        )
        is not None
    )
