"""Whose drawn weeks are: what the names of their sheets, the titles over them and the names of their rows add to each class."""

import re
from collections import Counter
from collections.abc import Collection, Iterable, Mapping
from itertools import islice
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.placewords import is_place
from nomarium.school.cellparts import CODE, NAMED_ROOM, KnownParts, look_of
from nomarium.school.cellpatterns import Part
from nomarium.school.drawnlines import slot_in
from nomarium.school.planheads import field_of, plain
from nomarium.school.termsheets import term_in, told_of
from nomarium.sheets.sheet import Sheet, cell_text

_HEAD_ROWS: Final = 10
_OTHER: Final = "If it is another, say so in a table Names or People."
_BEHIND: Final = r"\s*[\n(@,;|/]|\s+[-–—]\s"
"""What stands behind the first part of a cell."""
_TITLED: Final = r"(?i)\b(?:(?:weekly|class|school)\s+)?(?:time ?table|schedule)(?:\s+(?:of|for))?\b"
_KIND_WORDS: Final = (
    ("group", r"class|form|group|year|grade|set|tutor group|division|klasse|classe|groupe|gruppe|klas|grupo"),
    ("room", r"room|salle|raum|lokaal|aula|sala"),
    ("teacher", r"teacher|tutor|staff|lehrer(?:in)?|enseignante?|professeure?|docente?|leraar"),
)
"""Words before a name that say what it is of."""


_HONORIFICS: Final = "mr|mrs|ms|miss|mx|dr|prof|professor|mme|madame|mlle|monsieur|herr|frau|sra?|dhr|mevr"


def kind_of_heading(text: str) -> str:
    """What the names under a heading are, `Form`, `Room` or `Teacher`; nothing for any other heading."""
    return next((kind for kind, words in _KIND_WORDS if re.fullmatch(rf"(?i)\s*(?:{words})s?\s*", text)), "")


def part_of_heading(text: str) -> str:
    """The field that the heading of a column beside lines says, a `Class` among them being a group; nothing for any other heading."""
    field = field_of(text, "timetable") if not any(map(str.isdigit, text)) else None  # Form 1 is a name
    return kind_of_heading(text) or (field if field in ("teacher", "room", "group") else "")


def kind_in_corner(sheet: Sheet) -> str:
    """What the heading over the names of rows says that they are, `Form` or `Room`; nothing where none does. What stands beside
    the lines of a drawing is none."""
    for _, row in islice(sheet.rows(), _HEAD_ROWS):
        first = next((cell for cell in row if cell_text(cell)), "")
        if slot_in(0, [first]) is not None and len(list(filter(None, map(cell_text, row)))) > 1:
            break
        if kind := next((kind for cell in row[:2] if (kind := kind_of_heading(cell_text(cell)))), ""):
            return kind
    return ""


def says_whose(name: str) -> bool:
    """Whether the name of a sheet may say in which weeks, or whose, the classes drawn on it are."""
    return re.fullmatch(_NO_NAME, name) is None


_NO_NAME = (
    r"(?i)(?:sheet|table|page|tab|timetable|schedule|week|feuille|blatt|hoja)\s*\d*(?:(?<=\d)\s*[A-D])?|\d*"
)
"""Names of sheets that say nothing."""


def first_part(text: str) -> str:
    """The first part of a cell, its class mostly, in its compared form."""
    return plain(re.split(_BEHIND, text.strip(), maxsplit=1)[0])


def first_parts(held: Iterable[tuple[str, str]]) -> dict[str, frozenset[str]]:
    """The first parts of the cells under each title or name, in their compared form."""
    found: dict[str, set[str]] = {}
    for name, text in held:
        found.setdefault(name, set()).add(first_part(text))
    return {name: frozenset(texts) for name, texts in found.items()}


def said_by(
    texts: Mapping[str, frozenset[str]],
    known: KnownParts,
    seen: Collection[Part],
    notes: list[Problem],
    sheet: Sheet,
    headed: str = "",
    called: str = "",
) -> dict[str, Mapping[str, str]]:
    """What the names of sheets, the titles over drawings or the names of rows add to classes: a term, a teacher, a room or a
    group. `texts` are the first parts of the cells under each name, `seen` the kinds of parts that cells show by their look,
    `headed` what the names are headed by, `called` what the sheet is."""
    terms = {name: term for name in sorted(texts) if (term := term_in(name, known.terms))}
    notes += [told_of(name, term).at(sheet.place()) for name, term in terms.items()]
    others = {name: below for name, below in texts.items() if name not in terms}
    if headed:
        owners = {
            name: whose(name, known, seen) if known.kind(name) or ":" in name else {headed: name}
            for name in others
        }
    else:
        owners = _guessed(others, known, seen, notes, sheet, called)
    return {**owners, **{name: {"term": term} for name, term in terms.items()}}


def _guessed(
    texts: Mapping[str, frozenset[str]],
    known: KnownParts,
    seen: Collection[Part],
    notes: list[Problem],
    sheet: Sheet,
    called: str,
) -> dict[str, Mapping[str, str]]:
    """What names are of which no heading says it: what the sheet is called, `Rooms`, else what they look like; of several, those
    that look like nothing are what most of the others are."""
    found = {
        name: {called: name} if called and not known.kind(name) else whose(name, known, seen)
        for name in texts
    }
    if len(texts) < 2:
        return found
    if not called:
        _codes_alike(found, known)
        found |= _headed_alike(found, known)
    kinds = Counter(next(iter(owner)) for owner in found.values() if owner)
    usual = kinds.most_common(1)[0][0] if kinds else _usual_kind(texts.values(), seen)
    found = {name: owner or {usual: _bare(name)} for name, owner in found.items()}
    for kind in ("teacher", "group", "room"):
        alike = sorted(name for name, owner in found.items() if kind in owner and known.kind(name) != kind)
        if alike:
            message = f"What stands over or beside drawn weeks ({listed(alike[:4])}) is taken for the {kind} of their classes."
            notes.append(note("drawn-owner", message, _OTHER).at(sheet.place()))
    return found


def _headed_alike(found: Mapping[str, Mapping[str, str]], known: KnownParts) -> dict[str, Mapping[str, str]]:
    """Names of which all begin with one word that says what they are, `Class Keel`, `Class Rib`, as that."""
    for kind, words in _KIND_WORDS:
        if all(re.match(rf"(?i)(?:{words})\s+\S", name) and not known.kind(name) for name in found):
            return {name: {kind: name if kind == "group" else name.split(None, 1)[1]} for name in found}
    return {}


def _codes_alike(found: dict[str, Mapping[str, str]], known: KnownParts) -> None:
    """Have all codes among names, `B12` and `C3`, be what most of them are, the longer ones first."""
    codes = [
        name
        for name, owner in found.items()
        if owner and not known.kind(name) and re.fullmatch(CODE, _bare(name))
    ]
    kinds = Counter(next(iter(found[name])) for name in sorted(codes, key=len, reverse=True))
    if len(kinds) > 1:
        kind = kinds.most_common(1)[0][0]
        found.update({name: {kind: _bare(name)} for name in codes})


def _usual_kind(texts: Collection[frozenset[str]], seen: Collection[Part]) -> str:
    """What names are of which nothing else says it: what cells do not show beside; teachers each have classes of their own, while
    most classes of a group are those of another, too."""
    open_kinds = [kind for kind in ("group", "teacher", "room") if kind not in seen]
    if {"group", "teacher"} & {*seen}:
        return open_kinds[0] if open_kinds else "group"
    counts = Counter(text for one in texts for text in one)
    shared = sum(count > 1 for count in counts.values())
    return "group" if shared * 2 > len(counts) else "teacher"


def of_sheet_named(name: str) -> Mapping[str, str]:
    """Whose a sheet `Timetable - NAME` is where nothing knows the name and it looks like nothing: a place's, else a teacher's."""
    return {"room" if is_place(name) else "teacher": name}


def whose_by_title(name: str, titles: Iterable[str]) -> Mapping[str, str]:
    """What a sheet's name is, by a title over its drawing: `Class A1` on the sheet `A1`, `Ms Quill` on `Quill`. Nothing where none
    says so."""
    for title in titles:
        if re.search(rf"(?i)\b(?:{_HONORIFICS})\.?\s+{re.escape(name)}\b", title):
            return {"teacher": name}
        for kind, words in _KIND_WORDS:
            if re.search(rf"(?i)\b(?:{words})\s*:?\s*{re.escape(name)}\b", title):
                return {kind: name}
    return {}


def whose(name: str, known: KnownParts, seen: Collection[Part]) -> Mapping[str, str]:
    """What a name is, as it says itself, `Teacher: Quill`, as it is known or as it looks; nothing where none of this says it."""
    for said, words in _KIND_WORDS:
        if (titled := re.fullmatch(rf"(?i)\s*(?:{words})s?\s*[:–-]\s*(?P<name>\S.*?)\s*", name)) is not None:
            return {said: titled["name"]}
    name = _bare(name)
    kind = known.kind(name)
    if kind in ("room", "teacher", "group"):
        return {kind: name}
    look = look_of(name)
    is_called = re.search(r"[^\W\d_]{3,}", name) is not None and not is_place(
        name
    )  # App 1, beside Loft 1 and B12
    is_code = re.fullmatch(CODE, name) is not None and re.fullmatch(NAMED_ROOM, name) is None
    is_short = re.fullmatch(r"[A-Z]\d", name) is not None and "group" not in seen  # A1 may be either
    if look == "room" and (is_called or (is_code and ("room" in seen or is_short))):
        return {"group": name}
    return {look: name} if look else {}


_OF_YEAR: Final = r"(?i)[\s,–—(:-]+(?:(?:autumn|spring|summer|fall|winter)\s+(?:term\s+)?)?20\d\d(?:\s?[-–/]\s?(?:20)?\d\d)?\)?$"


def _bare(name: str) -> str:
    """A title without the words that say that it stands over a timetable, and of which year: `7A` of `7A timetable`, `Timetable: 7A` and
    `7A – 2026-27`."""
    return re.sub(_OF_YEAR, "", re.sub(_TITLED, "", name)).strip(" -–_:,(") or name
