"""Codes in drawn cells, such as E for an early shift: what a key beside the drawing, or `--set-code`, says of them."""

import re
from collections.abc import Collection, Mapping, Sequence
from itertools import takewhile
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.choices import says_cancelled
from nomarium.reading.cells.times import DAY_SECS, Clock, Times, end_after, may_be_class, read_times
from nomarium.reading.columns.clocks import ClockFound, Clocks, clock_from
from nomarium.reading.layouts.celltimes import CLEAR_CLOCK, counts, time_and_text
from nomarium.reading.rows.titles import NONE_HELD, is_unheld
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text

LONGEST_CODE = 6
_NOON = DAY_SECS // 2
_IDLE = frozenset((*"no non nein rest rdo x/o day-off dayoff ruhe repos".split(), "day off", "rest day"))
_NAME_AND_HOURS = r"(?i)(?P<name>.*[^\W\d_].*?)[\s:,(\[]+(?P<hours>\d[\d:.]*\s?(?:[ap]\.?m\.?)?\s*(?:[-–—]|\bto\b|\buntil\b|\bbis\b|\bà\b)\s*\d[\d:.]*\s?(?:[ap]\.?m\.?)?)[)\]]?"
_PARTED = r"^(?P<code>[^\s=:–-]{1,6})\s*(?:=|:|\s[-–]\s)\s*(?P<said>.+)$"

_SPACED = r"^(?P<code>\S{1,6})\s+(?P<said>.+)$"
_KEY_LABEL = r"(?i)\W*(?:key|legend|codes?|abbreviations?|shifts?|legende|schlüssel|légende|clé|leyenda|clave|legenda)\b\W*"


class Code(NamedTuple):
    """What a code stands for."""

    name: str = ""
    time: Part = NOTHING


def is_idle(text: str) -> bool:
    """Whether a cell says that nothing happens."""
    return is_unheld(text) or text.casefold() in _IDLE


def is_nobody(text: str) -> bool:
    """Whether a roster's cell says that nobody is wanted: nothing happens, or nothing is held that day.

    >>> is_nobody("off"), is_nobody("NO SERVICE"), is_nobody("Nowak")
    (True, True, False)
    """
    return is_idle(text) or says_cancelled(text) or re.match(NONE_HELD, text) is not None


_SHIFTS = frozenset("open opening close closing early late mid middle night nights days".split())


def names_shift(text: str) -> bool:
    """Whether a cell is a word for hours that every house has its own of: `close`, `Early`."""
    return text.casefold() in _SHIFTS


def is_code(cell: Cell) -> bool:
    """Whether a cell may be a code: a short word that is no hours and does not say that nothing happens."""
    text = cell_text(cell)
    return (
        isinstance(cell, str) and 0 < len(text) <= LONGEST_CODE and " " not in text and not is_idle(text)
        and not _is_clock(text) and (len(text) == 1 or text.upper() == text)
    )  # fmt: skip


def are_figures(cells: Sequence[Cell]) -> bool:
    """Whether most of a drawing's cells are numbers: counts, scores, prices, which are nothing that happens."""
    numbers = sum(isinstance(cell, float) or _is_number(cell_text(cell)) for cell in cells)
    return numbers * 2 > len(cells)


def _is_number(text: str) -> bool:
    return text != "1" and re.fullmatch(r"[-+]?\d+(?:[.,]\d+)?%?", text) is not None


def hours_in(text: str) -> Part:
    """The hours that a cell is, `9-5`; NOTHING for any other text, and for one time alone."""
    if not any(map(str.isdigit, text)) or may_be_class(text):
        return NOTHING
    times = read_times(text)
    if not isinstance(times, Times) or times.start is None or times.end is None:
        return NOTHING
    return Part(start=times.start, end=times.end, notes=times.notes)


def in_their_half(hours: Mapping[str, Part], asked: Clocks) -> tuple[dict[str, Part], str]:
    """Hours by their texts, those without am or pm in the half of the day that all of them together show (`7-3` beside
    `3-11`), and what shows it where that has changed one."""
    heard = [
        (clock, text.partition("\n")[0])  # a label, which its hours may follow
        for text, one in hours.items()
        for clock in (one.start, one.end)
        if clock is not None
    ]
    found = ClockFound(asked, "as asked") if asked else clock_from(heard)
    settled = {text: _in_its_half(one, found.clock == "12") for text, one in hours.items()}
    settled |= {text: night for text, one in hours.items() if (night := _night(one, settled)) is not None}
    moved = any(_begins(settled[text]) != _begins(one) for text, one in hours.items())
    return settled, found.evidence if moved and not asked else ""


def _begins(hours: Part) -> int | None:
    return hours.start.secs if hours.start is not None else None


def _night(hours: Part, others: Mapping[str, Part]) -> Part | None:
    """The hours of a shift that closes the round of others, `11-7` after `3-11` and before `7-3`: it is at night."""
    start, end = hours.start, hours.end
    if start is None or end is None or start.has_meridiem or end.has_meridiem or start.secs >= _NOON:
        return None
    begins = {one.start.secs for one in others.values() if one.start is not None}
    ends = {one.end.secs for one in others.values() if one.end is not None}
    if start.secs + _NOON in ends and end.secs in begins and end.secs < start.secs:
        return hours._replace(start=Clock(start.secs + _NOON, True), end=Clock(end.secs, True))
    return None


def _in_its_half(hours: Part, by_twelve: bool) -> Part:
    start, end = hours.start, hours.end
    if start is None or end is None:
        return hours
    if by_twelve and start.is_doubtful:
        start = Clock(start.secs + _NOON, True)
    counts_to_24 = start.secs >= _NOON + 3600 and not start.has_meridiem  # 19:30-8:00: till the morning
    if not end.has_meridiem and end.secs <= start.secs and not counts_to_24:
        end = end_after(start, end)
        if start.secs < _NOON < end.secs:  # 9-5: over midday, so that both halves are known
            start = start._replace(has_meridiem=True)
    return hours._replace(start=start, end=end)


def said_of(text: str) -> Code:
    """What the words beside a code say: a name, its times, or both."""
    hours = hours_in(text)
    if hours is not NOTHING:
        return Code("", hours)
    named = re.fullmatch(_NAME_AND_HOURS, text)
    hours = hours_in(named["hours"]) if named else NOTHING
    if named and hours is not NOTHING and not counts(named["name"]):  # (Yr 7-8)
        return Code(named["name"].strip(" :,–-()"), hours)
    cleaned = re.sub(r"[()\[\]]", " ", text)
    time, name = time_and_text(" ".join(cleaned.split()))
    if time is not NOTHING and time.end is not None:
        return Code(name.strip(" :,–-"), time)
    return Code(text)


def session_of(heading: str) -> Code:
    """What the heading of a part of the day says: its name and its times, or when it begins.

    >>> session_of("Morning (9:00)").name, session_of("Session 1").time.start
    ('Morning', None)
    """
    said = said_of(heading)
    if said.time is not NOTHING or re.search(CLEAR_CLOCK, heading) is None:
        return said
    time, name = time_and_text(" ".join(re.sub(r"[()\[\]]", " ", heading).split()))
    return Code(name.strip(" :,–-"), time) if time is not NOTHING else said


def times_of_names(rows: Sequence[Row], names: Collection[str]) -> dict[str, str]:
    """The times that rows beside a drawing give to what heads its columns, `Session 1 = 9-10.30; Session 2 = 11-12.30`, as they
    are written."""
    found: dict[str, str] = {}
    texts = (text for _, row in rows for cell in row if (text := cell_text(cell)))
    for piece in (piece.strip() for text in texts for piece in re.split(r"[;\n]|,\s+(?=\D)|\s[/|]\s", text)):
        for name in names:
            said = re.fullmatch(rf"(?i){re.escape(name)}\s*[=:–-]?\s*\(?(?P<times>\d.*?)\)?", piece)
            if said is not None and isinstance(times := read_times(said["times"]), Times) and times.start:
                found.setdefault(name, said["times"])
    return found


def is_of_key(row: Sequence[Cell], codes: Collection[str]) -> bool:
    """Whether a row explains codes, and says nothing else: the hours of one, what cells behind a word for a key set beside each, or
    what each of its cells sets a sign behind, `E = Early`, `L = Late`."""
    texts = [text for cell in row if (text := cell_text(cell))]
    if len(texts) == 2 and texts[0] in codes:
        is_said = len(texts[1]) > LONGEST_CODE or texts[1] not in codes
        if is_said or hours_in(texts[1]) is not NOTHING:
            return True
    if len(texts) in (3, 4) and texts[0] in codes and _say_start_and_end(texts[1:]):
        return True
    is_labelled = bool(texts) and re.fullmatch(_KEY_LABEL, texts[0]) is not None
    said = texts[1:] if is_labelled else texts
    if not said or not (is_labelled or all(re.search(r"[=:–-]", text) for text in said)):
        return False
    known = {code.casefold() for code in codes}
    are_pairs = is_labelled and len(said) % 2 == 0 and all(text.casefold() in known for text in said[::2])
    return are_pairs or all(_explained(text, known) for text in said)


def _say_start_and_end(texts: Sequence[str]) -> bool:
    """Whether two cells beside a code, behind its name or not, are when it begins and when it ends."""
    *named, start, end = texts
    is_named = not named or (len(named) == 1 and not _is_clock(named[0]))
    return is_named and all(_is_clock(text) and not text.isdecimal() for text in (start, end))


def has_key(rows: Sequence[Row], codes: Collection[str]) -> bool:
    """Whether rows say the hours of codes, or what these stand for, in lines of their own."""
    return any(is_of_key(row, codes) for _, row in rows)


def key_in(rows: Sequence[Row], codes: Collection[str]) -> tuple[dict[str, Code], set[int]]:
    """The codes that rows beside a drawing explain, and the numbers of these rows. `codes` are those in its cells."""
    known = {code.casefold(): code for code in codes}
    found: dict[str, Code] = {}
    used: set[int] = set()
    for number, row in rows:
        texts = [text for cell in row if (text := cell_text(cell))]
        is_duty = bool(texts) and texts[0].casefold() not in known and not re.match(_KEY_LABEL, texts[0])
        for at, text in enumerate(texts):
            for code, said in _explained(text, known):
                found.setdefault(known[code.casefold()], said_of(said))
                used.add(number)
            # names behind `On call` are on duty; and no code stands for another one
            if (
                at + 1 < len(texts)
                and text.casefold() in known
                and not (is_duty or texts[at + 1].casefold() in known)
            ):
                behind = takewhile(lambda one: one.casefold() not in known, texts[at + 2 : at + 4])
                found.setdefault(known[text.casefold()], _together([texts[at + 1], *behind]))
                used.add(number)
    return found, used


def _explained(text: str, known: Collection[str]) -> list[tuple[str, str]]:
    """The codes of `known` (folded) that a text explains, each with what it says of them: `E = 7-15; L = 15-23`, or, several of them
    or behind a word for a key, `Key: E 0600-1400; RD rest day`."""
    label = re.match(_KEY_LABEL, text)
    found, loose = list[tuple[str, str]](), list[tuple[str, str]]()
    in_order = sorted(filter(None, known), key=len, reverse=True)
    codes = "|".join(
        re.escape(code) + (r"(?=\s*=)" if code.isdecimal() else "") for code in in_order
    )  # no 7 of 7:00
    before = (
        rf"|(?i:\s+(?=(?:{codes})(?!(?<=\d)\d)\s*[=:–-]?\s*\d)|\s{{2,}}(?=(?:{codes})(?![^\W_])))"
        if codes
        else ""
    )  # E 7-15 L 14-22
    signed_code = rf"|,\s*(?=(?i:{codes})\s*[=:])|\s+(?=(?i:{codes})\s*=)" if codes else ""
    parted = rf"[;\n|]|,\s+(?=\S{{1,6}}\s){signed_code}|\s{{3,}}{before}"
    pieces = [
        one.strip(" ,.") for one in re.split(parted, text[label.end() :] if label is not None else text)
    ]
    are_timed = all(hours_in(piece.partition(" ")[2]) is not NOTHING for piece in pieces)
    for piece in pieces:
        signed, spaced = re.match(_PARTED, piece), re.match(_SPACED, piece)
        is_time = (
            signed is not None and signed["code"].isdecimal() and hours_in(piece) is not NOTHING
        )  # 7:00-15:00
        if signed is not None and signed["code"].casefold() in known and not is_time:
            found.append((signed["code"], signed["said"].strip()))
        elif spaced is not None and spaced["code"].casefold() in known:
            said = spaced["said"].strip()
            if are_timed or spaced["code"].isupper():  # Early 7-15
                (found if are_timed else loose).append((spaced["code"], said))
    return [*found, *(loose if label is not None or len(loose) > 1 else [])]


_REMARKED: Final = (
    r"[\[(]?(?P<code>[^\s()\[\]*?!,;:/+&–-]{1,6})[\])*?!]*(?P<rest>\s+[^\s(–-].*|\s*[,;(–-].*|)"
)
_BETWEEN_CODES: Final = r"\s*[/+&,]\s*|\s+"


def codes_in(text: str, known: Mapping[str, Code]) -> list[str]:
    """The codes with hours that make a cell, `E/L`, one at least; nothing where it has other words."""
    parts = [part for part in re.split(_BETWEEN_CODES, text) if part]
    return (
        parts
        if all(part.casefold() in known and known[part.casefold()].time is not NOTHING for part in parts)
        else []
    )


def with_remark(text: str, known: Mapping[str, Code]) -> Code | None:
    """What the code stands for beside which a cell has a sign or a remark without figures, `E*`, `E (Moss)`, `cover E`; None for any
    other text, and where that names another code."""
    match = re.fullmatch(_REMARKED, text)
    before, _, last = text.rpartition(" ")
    for code, rest in ((match["code"], match["rest"]) if match is not None else ("", ""), (last, before)):
        said = known.get(code.casefold())
        words = re.findall(r"\w+", rest)
        is_sure = code.isupper() or rest.lstrip()[:1] in ("", "(", ",", ";", "-", "–")
        if said is not None and said.time is not NOTHING and is_sure and not any(map(str.isdigit, rest)):
            return None if any(word.casefold() in known for word in words) else said
    return None


def _together(texts: Sequence[str]) -> Code:
    """What the cells beside a code say: its name and its times, the times in one cell or in two."""
    said = [said_of(text) for text in texts]
    name = next((one.name for one in said if one.name and not _is_clock(one.name)), "")
    time = next((one.time for one in said if one.time is not NOTHING), NOTHING)
    clocks = [
        times.start
        for text in texts
        if isinstance(times := read_times(text), Times) and times.start and not times.end
    ]
    if time is NOTHING and len(clocks) == 2:
        time = Part(start=clocks[0], end=clocks[1])
    return Code(name, time)


def _is_clock(text: str) -> bool:
    times = read_times(text)
    return isinstance(times, Times) and times.start is not None


def asked_codes(texts: Mapping[str, str]) -> dict[str, Code]:
    """The codes of `--set-code`, by their text as it is compared."""
    return {code.casefold(): said_of(text) for code, text in texts.items()}
