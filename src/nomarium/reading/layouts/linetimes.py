"""Times among the words of a line: `10–11am`, `from 7.30pm`, `1930 hrs`."""

import re
from collections.abc import Iterator
from typing import Final

from nomarium.reading.cells.fourfigures import FOUR, hours_with_colons, with_colons
from nomarium.reading.cells.spokentimes import in_clocks
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.verses import is_verse

EDGES: Final = " ,;:–—-|"
"""What parts the pieces of a line."""
_CLOCK: Final = r"(?:(?:1[3-9]|2[0-3])\s?h(?=\s*(?:[,;:.()|–—-]|$))|12(?:[:.]00)?\s?(?:noon|midday|midnight)|\d{1,2}(?:[.:h]\d{2})?(?:\s?[ap]\.m\b\.?|\s?[ap]m\b(?:\.(?!\s+[A-Z]))?|(?<=\d)[ap]\b)?|noon|midday|midnight)"
OPEN: Final = r"\s+till(?=\s*(?:[,;:.()|·–—-]|$))"
"""Behind a time whose end nothing says, before what parts it from other words."""
TIME: Final = re.compile(
    rf"(?i)(?<![\w.:/$£€-])(?<![$£€] )(?:\b(?:k\.?o\.?|kick-?off|start(?:s|ing)?|begin(?:s|ning)?|beginnt)\s*:?\s+)?(?:from\s+|at\s+|@\s*|(?:à|a)\s+partir\s+d(?:as?|es?)\s+(?:las\s+)?(?=\d)|à\s+|h\.?\s+(?=\d{{1,2}}[:.]\d\d)|dès\s+|um\s+|ab\s+|von\s+|(?:om|van|vanaf)\s+(?=\d)|das\s+(?=\d)|(?:desde\s+|a\s+)?las?\s+(?=\d)|(?:d?alle\s+)?ore\s+(?=\d)|d?alle\s+(?=\d)|(?:kl|klo|klokken|godz|orele|ora|saat|às)\b\.?\s*(?=\d)|de\s+(?=\d{{1,2}}(?:\s?[:h]|\s+a\s+\d)))?"
    r"(?:\b(?:ca?|approx)\.?\s?(?=\d)|\b(?:circa|about|around|approximately|gegen|vers)\s+)?"
    rf"({_CLOCK}(?:\s?(?:[-–—]|to|till?|until|bis|à|às|alle|tot|til)\s?{_CLOCK}|\s+a\s+(?:las\s+)?\d{{1,2}}[.:]\d\d|{OPEN})?)(?:\s?(?:uhr|uur|hrs?|hours|heures|horas?|o['’]clock|h(?=\.?(?:\s|\)|$)))\b)?(?:\s+(?:sharp|prompt)\b)?"
    r"(?![\w/%€]|[:.]\d|(?<=(?<!\d)[0-6]h\d\d)\)|\s?(?:€|%|k?m\b|cm\b|kg\b|euros?\b|dollars?\b|pounds?\b|per\b))"
)
"""A time among words; figures with a unit or a currency are none."""
_CLEAR: Final = re.compile(
    r"(?i)\d[.:h]\d\d|(?:1[3-9]|2[0-3])\s?h\b|\d[ap]?\s?[-–—]\s?\d{1,2}(?:[.:]\d\d)?[ap]\b|\d\s?[ap]\.?m\b|noon|midday|midnight|\d\s?[-–—]\s?\d"
)
LEADING: Final = re.compile(
    rf"(?i)^({_CLOCK}(?:\s?(?:[-–—]|to|till?|until|bis)\s?{_CLOCK}|{OPEN})?)(?:\s?(?:uhr|uur|h)\b)?(?=[\s:,–—-]|$)"
)
NO_START: Final = re.compile(
    r"(?i)\b(?:finish(?:es|ing)?|ends?|ending|until|till?|by|before|unterrichtsende|schulschluss|schluss|endet)(?:\s+(?:at|um))?\s*$|"
    r"[(,;–—-]\s*(?:return(?:s|ing)?|back)(?:\s+(?:at|by|about|approx\.?))?\s*$"
)
"""Words after which a time alone is an end."""
_OF_FIGURES: Final = re.compile(
    r"(?i)\b(?:age[sd]?|aged (?:from|between)|years?|grades?|pages?|classes|periods?|lessons?|weeks?|nos?\.?|numbers?|items?|psalms?|exercises?|ex\.?|figure|fig\.|versions?|sections?|paragraph|para\.?|articles?|clauses?|verses?|won|lost|drew|drawn|beat(?:en)?|scores?|"
    r"bring|costs?|prices?|pay|fees?|donations?|deposit|balance|charge|(?P<place>rooms?|quai|salle|local|porte|étage|atelier))\s*$"
)
"""Words after which figures without am or pm are no time; those of places number them, and no clock does: `atelier 14:00`."""


_HALF_SAID: Final = re.compile(r"(?i)[ap]\.?m\b")
_CLEAR_BEHIND_PLACE: Final = re.compile(
    r"(?i)[ap]\.?m\b|^\D*\d{1,2}(?::\d\d|\s?h(?:\b|\d\d)|\s?(?:uhr|uur)\b|(?:\.\d\d)?\s?[-–—]\s?\d{1,2}(?:\.\d\d)?\s?(?:uhr|uur|h)\b)|^\s*[^\W\d]"
)
"""What makes figures behind them a time: `atelier 14:00`, `atelier alle ore 14`."""
OF_SCHOOL: Final = re.compile(
    r"(?i)\b(?:term|semester|trimester|quarter|school|half[- ]term|lessons|classes|year|break|holidays?)(?:\s+\w{1,2})?\s*$"
)
"""What begins and ends, and is called by that."""
_BEGINS: Final = re.compile(r"(?i)(?:starts?|begins?)(?=\s)")
_AT_HOUR: Final = re.compile(
    r"(?i)(?<![\w.:/-])(?:\b(?:at|from|um|ab|kl\.?|klo|klokken|ore|alle|om|a las|desde las)|@)\s+((?:[1-9]|1[0-2])(?:\s?(?:[-–—]|to|till?|until|bis)\s?(?:[1-9]|1[0-2]))?)(?=\s*(?:[.,;)]?$|[.,;)]\s))"
)
"""An hour alone that ends what is said, `Launch at 10`."""
_HOUR_OF_DAY: Final = re.compile(
    r"(?i)(?<![\w.:/-])(?:\b(?:dalle|alle|(?:d?alle\s+)?ore|om|vanaf|a las|desde las|às|klo|klokken|kl\.?|um))\s+((?:1[3-9]|2[0-3]))(?=\s*(?:[.,;)]?$|[.,;)]\s))"
)
"""The same of an hour in the afternoon, which other languages say: `ore 14`."""
_TILL_HOUR: Final = re.compile(
    r"(?i)(?:(?<![\w.:/-])(?P<till>(?:[1-9]|1[0-2])\s+(?:till?|until)\s+(?:[1-9]|1[0-2]))|(?<=\()(?P<to>(?:[1-9]|1[0-2])\s+to\s+(?:[1-9]|1[0-2])))(?=\s*(?:[.,;)]?$|[.,;)]\s|\)))"
)
"""Hours alone from one to the other, `6 till 8`; with *to* in brackets of their own, `(10 to 2)`."""
COMING: Final = (
    r"(?:doors?|gates?|call|muster|meet(?:ing)?|arriv(?:e|al)|warm[- ]?up|set[- ]?up|registration|sign[- ]in|teas?|coffee|drinks|refreshments|"
    r"einlass|treffpunkt|accueil|portes)"
)
"""Words for what is before the beginning."""
_COMING_FIRST: Final = re.compile(rf"(?i)\(\s*{COMING}\b[^()\d]*$")
_OF_TIDE: Final = re.compile(
    r"(?i)\b(?:(?:high|low)\s+(?:water|tide)|[hl]\.?w\.?|sun(?:rise|set)|dusk|dawn)\s*(?:at\s+)?$"
)
"""Words before a time that is the event's only where there is no other."""
_FOUR_TO_FOUR: Final = re.compile(
    rf"(?i)(?<![\w.:/-])({FOUR})(\s?(?:[-–—]|to|till?|until)\s?)({FOUR})(?![\w/-]|[.:]\d)"
)
_FOUR_IN_COLUMN: Final = re.compile(rf"\s*({FOUR})(?:\s?[-–—]\s?({FOUR}))?\s*\|\s*")
_HALF_LETTER: Final = re.compile(r"\s*(?:[-*•–]\s+)?\d{1,2}(?:p|:\d\d[ap])\b")
_LEADING_HALF: Final = re.compile(
    r"^\s*(?:[-*•–]\s+)?\d{1,2}(?::\d\d)?[ap]\b(?:\s?[-–—]\s?\d{1,2}(?::\d\d)?[ap]\b)?"
)
_LEADING_FOUR: Final = re.compile(
    rf"^(\s*(?:[-*•–]\s+)?(?:(?:c|ca|approx|about|from|ab)\.?\s*)?)({FOUR})(?:\s?[-–—]\s?({FOUR}))?(?=\s+(?!h(?:(?:ou)?rs?)?\b)(?P<word>[^\W\d])?\S)"
)
SAME_TIME: Final = re.compile(
    r"(?i)[\s,;(]*\b(?:(?:at\s+)?(?:the\s+)?same (?:time|hour)|(?:zur\s+)?gleichen? (?:uhr)?zeit|(?:à la )?même heure|(?:a la )?misma hora|stess[ao] or(?:a|ario)|zelfde (?:tijd|uur)|samme tid)\b\)?"
)
"""Words by which a line takes the time of another."""
_THERE_AND_BACK: Final = re.compile(
    rf"(?i)\b(?:dep(?:art(?:s|ing|ure)?)?|leav(?:e|es|ing)|start(?:s|ing)?|d[ée]part|out)\b\.?:?\s*(?:at\s+|à\s+)?(?P<first>{_CLOCK})(?:\s*[,;/–—-]\s*|\s+(?:and|et)\s+)"
    rf"(?:(?:return(?:s|ing)?|retour|back|arr(?:iv\w*)?|finish(?:es|ing)?|end(?:s|ing)?)\b\.?:?\s*(?:at\s+|by\s+|à\s+|about\s+)?)(?P<last>{_CLOCK})(?![\w/]|[.:]\d)"
)
"""`depart 08:45, return 15:30`: from one time to the other."""
_COUNTED_BEFORE: Final = re.compile(r"(?P<count>\d{1,2})\s+[-–—]\s+(?P<time>\d{1,2}[.:]\d\d.*)")
_ENDS_WITH_NAME: Final = re.compile(
    r"(?<![^\W\d])(?!(?i:from|at|between|ab|um|von|de|da|at|times?|start|mon|tue|wed|thu|fri|sat|sun|and)\w*\s$)[^\W\d_]{3,}\s$"
)
"""A word whose number a time behind a dash follows, `Slip 1 – 9:00`: together they are no times from one to the other."""
_HOURS_SAID: Final = re.compile(r"(?i)\d\s?(?:uhr|uur|hrs|heures|horas|o['’]clock)\b")
_LASTING: Final = re.compile(r"(?i)(?:\d|1[0-2]|2[4-9]|[3-9]\d)\s?(?:hrs|heures|horas)")
_LEAST_CLOCKS: Final = 2
_HOURS_ALONE: Final = re.compile(r"(\d{1,2})\s?[-–—]\s?(\d{1,2})")
_THINGS: Final = (
    r"groups|tables|teams|sets|courts|lanes|forms|sections|bays|gates|crews?|boats|squads|pools|blocks|floors|slips|lofts|sheds|berths|docks|"
    r"halls|studios|labs|heats|parts|modules|levels|rounds|chapters|units|vol(?:ume)?s|acts|scenes|stations|ranks|houses|tents|pitches|"
    r"zones|questions|exercises|seats|rows|tickets|steps|stages|legs|holes|bins|depts|departments|divisions|stops|platforms|cabins|tracks|"
    r"gruppen|klassen|jahrgänge|stufen|seiten|kapitel|groupes|niveaux|années|chapitres|grupos|niveles|cursos|capítulos"
)
"""What is counted: `groups 1-3` are no hours."""
_OF_THINGS: Final = re.compile(
    rf"(?i)(?<!\bthe )(?<!\bour )(?<!\ball )(?<!\bder )(?<!\bles )(?<![^\W_])(?:{_THINGS}|yr|y|u)\s*$"
)
_ONE_OF_THINGS: Final = re.compile(
    r"(?i)(?:^|[:;,–—-])\s*(?:group|team|set|form|section|crew|squad|heat|part|module|level|round|chapter|unit|act|scene|exercise|stage|leg)\s*$"
)
"""One of them that a title begins with, `Group 10-12 trip`; a `Youth group 10-12` meets."""
_BEFORE_THINGS: Final = re.compile(
    rf"(?i)\s?(?:-\s?)?(?:{_THINGS}|people|persons?|helpers?|volunteers?|players?|pupils?|students?|children|adults?|members?|staff|years?|yrs?|places?|weeks?|days?|months?|"
    r"entries|points?|degrees|km|miles|metres?|meters?|items?|copies|cakes|cars|rooms?|times|personen|kinder|plätze|wochen|tage|personnes|enfants|places|semaines|jours|personas|niños|semanas|días)\b"
)
_NAMED_THINGS: Final = re.compile(
    r"\s?(?:Boats|Knots|Staff|Members|Children|Players|Volunteers|Helpers|Teams|Groups|Crews?|Squads|Adults|Students|Pupils|Stages|Acts|Labs|Tracks)\b"
)
"""What a title names that begins with them behind its hours: `9-11 Staff meeting`."""
_DIGIT_H: Final = re.compile(r"(?i)\d\s?h")
_SPAN_WITH_H: Final = re.compile(
    r"(?i)(?<![\w:.])([01]?\d|2[0-4])\s?h\s?([0-5]\d)?\s?[-–—/]\s?([01]?\d|2[0-4])\s?h\s?([0-5]\d)?(?![\w:])"
)
"""Hours with an h from one to the other."""
_FIRST_HOUR: Final = 7
"""The earliest hour from which a day lasts to a smaller one, `8-4`."""


def with_clocks(text: str) -> str:
    """A text whose hours of four figures, `1930 hrs` or `0700 to 1000`, have a colon, and whose times between others a dash."""
    if not any(map(str.isdigit, text)):
        return text
    text = _FOUR_TO_FOUR.sub(_unless_years, hours_with_colons(text))
    text = _THERE_AND_BACK.sub(r"\g<first>-\g<last>", text)
    return re.sub(rf"(?i)\bbetween\s+({_CLOCK})\s+and\s+({_CLOCK})", r"\1-\2", text)


def _unless_years(match: re.Match[str]) -> str:
    are_years = all(match[n][:2] in ("19", "20") for n in (1, 3))
    return match[0] if are_years else with_colons(match)


def french_hours(text: str) -> str:
    """A text whose hours are written `9 h`, `à 18h30`, with a colon in them.

    >>> french_hours("Mardi 6 octobre, 14h-16 h 30 : visite")
    'Mardi 6 octobre, 14:00-16:30 : visite'
    """
    text = re.sub(r"(?i)\b([01]?\d|2[0-4])\s?h\s?([0-5]\d)\b", r"\1:\2", text)
    return re.sub(r"(?i)(?<![:.\d])([01]?\d|2[0-4])\s?h\b", r"\1:00", text)


_HALF_FIRST: Final = re.compile(
    r"(?i)^(\s*)([ap]m|[ap]\.m\.)\s*[:–-]?\s+(\d{1,2}(?:[.:]\d\d)?)(?![\d.:]|\s*[ap]\.?m\b)"
)


def spans_with_colons(text: str) -> str:
    """A text whose hours from one to the other have an h each, `9h-12h30`, with colons in them; a length begins with less.

    >>> spans_with_colons("Werkstatt 14h-16h"), spans_with_colons("a walk of 2h-3h")
    ('Werkstatt 14:00-16:00', 'a walk of 2h-3h')
    """
    return _SPAN_WITH_H.sub(
        lambda at: f"{at[1]}:{at[2] or '00'}-{at[3]}:{at[4] or '00'}" if int(at[1]) >= _FIRST_HOUR else at[0],
        text,
    )


def with_leading_clocks(lines: list[tuple[int, str]]) -> list[tuple[int, str]]:
    """Lines of which several begin with hours of four figures, `0900 Loading`, with a colon in these; years stay. A half of the day
    before a time, `AM 9.00 Knots`, stands behind it."""
    lines = [(number, _HALF_FIRST.sub(r"\1\3 \2", text)) for number, text in lines]
    found = {n: match for n, (_, text) in enumerate(lines) if (match := _LEADING_FOUR.match(text))}
    named = sum(match["word"] is not None for match in found.values())  # 0940 2nd race is no name by itself
    if named < _LEAST_CLOCKS or all(match[2][:2] in ("19", "20") for match in found.values()):
        return lines
    return [
        (
            number,
            _LEADING_FOUR.sub(
                lambda m: m[1] + ":".join((m[2][:2], m[2][2:])) + (f"-{m[3][:2]}:{m[3][2:]}" if m[3] else ""),
                text,
            ),
        )
        if n in found
        else (number, text)
        for n, (number, text) in enumerate(lines)
    ]


def with_whole_halves(lines: list[tuple[int, str]]) -> list[tuple[int, str]]:
    """Lines of which one begins with `7p` or `9:30a`, with am and pm written out where others begin so, too."""
    if not any(map(_HALF_LETTER.match, (text for _, text in lines))):
        return lines
    return [(number, _LEADING_HALF.sub(r"\g<0>m", text)) for number, text in lines]


def with_clock_in_column(text: str, date: str) -> str:
    """What follows a date, with a colon in hours of four figures that are a column by themselves: `0830 | Safety talk`. What could
    be the year of the date stays."""
    match = _FOUR_IN_COLUMN.match(text)
    if match is None or (match[1][:2] in ("19", "20") and re.search(r"\d{4}", date) is None):
        return text
    times = "-".join(f"{hours[:2]}:{hours[2:]}" for hours in match.groups() if hours)
    return f"{times} | {text[match.end() :]}"


ARRIVAL: Final = re.compile(
    rf"(?i)(?<![\w.:/-])(?:at\s+|from\s+)?({_CLOCK}\s+for\s+{_CLOCK})(?![\w/]|[.:]\d)"
)
"""When people come and when it starts, `7 for 7.30`."""


def reads_as_time(text: str) -> bool:
    """Whether a text says when something starts, and is no mere number. `3-2` would last the whole night: it is a score."""
    hours = _HOURS_ALONE.fullmatch(text)
    if hours is not None and int(hours[2]) <= int(hours[1]) < _FIRST_HOUR:
        return False
    times = read_times(text)
    return bool(_CLEAR.search(text)) and isinstance(times, Times) and times.start is not None


def are_counted(before: str, hours: str, behind: str) -> bool:
    """Whether hours alone, `1-3`, number or count what stands right beside them: `groups 1-3`, `3-5 helpers`."""
    if _HOURS_ALONE.fullmatch(hours.strip()) is None:
        return False
    if _OF_THINGS.search(before) or _ONE_OF_THINGS.search(before):
        return True
    return _BEFORE_THINGS.match(behind) is not None and (bool(before) or _NAMED_THINGS.match(behind) is None)


def _says_hours(match: re.Match[str]) -> bool:
    """Whether a word for hours stands behind figures, `10 bis 16 Uhr`, and they read as times."""
    is_said = match.end(1) < match.end() and _HOURS_SAID.search(match[0]) is not None
    if match.string[: match.start()].endswith(("(", " for ")) and _LASTING.fullmatch(match[0].strip()):
        return False  # (2 hrs)
    times = read_times(match[1].strip()) if is_said else None
    return isinstance(times, Times) and times.start is not None


def is_no_time(before: str, figures: str) -> bool:
    """Whether what stands before figures makes them an end, a number or a price."""
    numbers = _OF_FIGURES.search(before)
    clear = _CLEAR_BEHIND_PLACE if numbers is not None and numbers["place"] else _HALF_SAID
    is_number = numbers is not None and clear.search(figures) is None
    return is_number or NO_START.search(before) is not None


def time_in(text: str) -> tuple[str, str]:
    """The first time that a text says, and the text without it."""
    time, before, after = time_among(text)
    return (time, joined(before, after)) if time else ("", text)


_NEAR: Final = 200
"""Characters before and behind a time that may say what it is."""


def _times_of(text: str) -> Iterator[re.Match[str]]:
    """What looks like a time; also the end of what begins with a number that is none, `salle 2 à 9:00`."""
    for match in TIME.finditer(text):
        yield match
        number = re.match(r"\D*\d+", match[0])
        if number is not None and number.end() < len(match[0]) and _OF_FIGURES.search(_before(match)):
            inner = TIME.search(text, match.start() + number.end())
            if inner is not None and inner.end() <= match.end() and any(map(str.isdigit, inner[0])):
                yield inner


def _before(match: re.Match[str]) -> str:
    return match.string[max(0, match.start() - _NEAR) : match.start()]


def time_among(text: str) -> tuple[str, str, str]:
    """The first time that a text says, and what stands before and behind it; no time, and the whole text, where it says none."""
    found = _time_among(in_clocks(spans_with_colons(text) if _DIGIT_H.search(text) else text))
    return found or ("", text, "")


def _time_among(text: str) -> tuple[str, str, str] | None:
    if " for " in text and (arrival := ARRIVAL.search(text)) and isinstance(read_times(arrival[1]), Times):
        return arrival[1], text[: arrival.start()], text[arrival.end() :]
    clear = (match for match in _times_of(text) if reads_as_time(match[1].strip()) or _says_hours(match))
    alone = (*_AT_HOUR.finditer(text), *_HOUR_OF_DAY.finditer(text), *_TILL_HOUR.finditer(text))
    found = [
        match
        for match in (*clear, *alone)
        if not is_no_time(_before(match), match[0])
        and not are_counted(_before(match), match[0], text[match.end() : match.end() + _NEAR])
        and not is_verse(_before(match), match[0])
    ]
    if not found:
        return None
    least = (_OF_TIDE, _COMING_FIRST) if "(" in text else (_OF_TIDE,)
    match = next((one for one in found if not any(form.search(_before(one)) for form in least)), found[0])
    time, begin = (match[1] or match["to"]).strip(), match.start()
    if (verb := _BEGINS.match(match[0])) is not None and OF_SCHOOL.search(text[:begin]):
        begin += verb.end()  # Term begins 8.45am
    counted = _COUNTED_BEFORE.match(time)
    if counted is not None and _ENDS_WITH_NAME.search(text[:begin]):
        time, begin = counted["time"], begin + text[begin:].index(time) + len(counted["count"])
    return time, text[:begin], text[match.end() :]


_END: Final = re.compile(
    r"(?i)[\s,;]*(?P<open>\()?\s*\b(?:until|till?|ends?(?:\s+at)?|ending(?:\s+at)?|finish(?:es|ing)?(?:\s+(?:at|by))?|bis|jusqu['’]à|hasta(?:\s+las)?|tot|fino\s+alle)\s+"
    r"(?P<end>\d{1,2}(?:[:.h]\d\d\s?(?:[ap]\.?m\b\.?)?|\s?[ap]\.?m\b\.?)|noon|midday|midnight)(?:\s*uhr\b)?(?(open)\s*\))(?![\w:.]*\d)"
)
"""When something ends that has begun at a time before it: `(until 16.30)`, `, ends 4.30pm`."""


def end_in(text: str) -> tuple[str, str]:
    """When something ends, as words behind its title say, and the text without it; nothing where none does, or two times."""
    match = _END.search(text)
    if match is None or _END.search(text[match.end() :]) is not None:
        return "", text
    return match["end"], joined(text[: match.start()], text[match.end() :])


def joined(before: str, after: str) -> str:
    """What stands before a time and what stands after it; brackets stay round the words that were with it, `(noon dismissal)`."""
    before, after = before.rstrip(EDGES), after.lstrip(EDGES)
    if before.count("(") > before.count(")"):
        within, _, behind = after.partition(")")
        words = f"{before[before.rindex('(') + 1 :]} {within.strip(EDGES)}".strip()
        before = before[: before.rindex("(")].rstrip(EDGES)
        before, after = f"{before} ({words})".strip() if words else before, behind.strip(EDGES)
    joint = " " if after.startswith("(") else ", "
    return joint.join(part for part in (before, after.lstrip(f"{EDGES})")) if part)
