"""What the parts of a drawn cell are, class, room, teacher and group: found from what is known and from all cells together,
or as `--cell` says."""

import re
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.namewords import in_braces, in_brackets
from nomarium.reading.cells.placewords import is_place
from nomarium.school.atonce import class_at
from nomarium.school.celldoubts import class_or_teacher, doubtful, unclear
from nomarium.school.cellpatterns import Part, alternatives, patterns_of
from nomarium.school.planheads import plain
from nomarium.school.runtogether import apart, run_together

_BY_FORM = r"\s*\n\s*|\s*@\s*|\s*[()\[\]]\s*"
"""What parts a cell always: lines, brackets, @."""
_BY_MARK = rf"{_BY_FORM}|\s*[,;|/]\s*|\s+[-–—]\s+"
"""What parts it only where what stands behind it is a room, a teacher or a group."""
NAMED_ROOM = r"(?i)r\d{1,3}[a-z]?|(?:rooms?|rm\.?|loft|shed|hall|slip|lab|gym|studio|library|field|court|pool|yard|workshop|theatre|chapel|quay|pier|salle|atelier|quai|gymnase|biblioth[eè]que|labo|hangar|cour|raum|saal|werkstatt|sala|aula|taller|gimnasio|biblioteca|patio|lokaal|zaal)\b.*|.*(?:halle|werkstatt|saal|zaal|lokaal)|.*\b(?:room|loft|shed|hall|slip|lab|gym|studio|library|field|court|pool|yard|workshop|theatre)(?: \w{1,3}|\d{1,3})?"
"""Rooms by a word of their own; those by a letter and a number could be classes, `Rig 1`."""
_ROOM = rf"{NAMED_ROOM}|[A-Z]{{0,3}}[- ]?\d{{1,4}}[A-Z]?|[A-Z]\d?[.-]\d{{1,3}}[A-Z]?"
_TEACHER = r"(?:(?i:mr|mrs|ms|mx|miss|dr|prof|sr|sra|srta|dn|fr|m|mme|mlle|herr|frau|sir|dhr|mevr|mw|sig|sig\.ra|pani|pan)\b\.?\s+\S.*|(?:[A-Z]\.\s?){1,2}[A-Z][\w'’-]+|[A-Z][\w'’-]+,? [A-Z]\.)"
_NAME = r"[^\W\d_][\w'’-]+(?: [^\W\d_][\w'’-]*\.?){1,2}"
"""What a person may be called, and much else, too."""
_MOSTLY = 0.8
"""The share of texts that look like something, above which all of them are taken for it."""
CODE = r"[A-Z]{1,3}\d{1,2}[A-Z]?"
"""What a group may be called beside a class and its room."""
_INITIALS = r"[A-Z]{2,3}"
"""What a teacher is called behind a class; before one, it is a class."""
_GROUP = r"(?i)(?:year|yr|grade|gr|form|class|group|set|squad|team|student|pupil|apprentices?|journeym[ae]n|div(?:ision)?)\.?\s*\w{1,3}|(?:[1-9]|1[0-3])[A-Z]{1,2}(?:/\w+)?|apprentices|journeym[ae]n|beginners|improvers|juniors|seniors|intermediates|infants|novices|freshers|masters"
_NO_CLASS: Final = (_TEACHER, _GROUP, NAMED_ROOM, CODE, r"\d+")
_LIKE: Final[tuple[tuple[Part, str], ...]] = (("teacher", _TEACHER), ("group", _GROUP), ("room", _ROOM))


class Entry(NamedTuple):
    """One class of a cell."""

    code: str
    room: str = ""
    teacher: str = ""
    group: str = ""
    title: str = ""
    notes: str = ""


class KnownParts(NamedTuple):
    """What other tables know, in compared form."""

    classes: frozenset[str] = frozenset()
    rooms: frozenset[str] = frozenset()
    teachers: frozenset[str] = frozenset()
    groups: frozenset[str] = frozenset()
    terms: tuple[str, ...] = ()
    """The names of the terms, as they are written."""
    codes: frozenset[str] = frozenset()
    """Codes that Names has for anything."""

    def kind(self, text: str) -> Part | None:
        """What a text is known as."""
        key = plain(text)
        kinds: tuple[tuple[Part, frozenset[str]], ...] = (
            ("class", self.classes), ("room", self.rooms), ("teacher", self.teachers), ("group", self.groups),
        )  # fmt: skip
        return next((kind for kind, names in kinds if key in names), None)


class CellReader:
    """Reads the cells of drawn weeks, whose parts were found from all of them. `owned` is what the titles of the drawings
    say already, so that no part of a cell has to."""

    def __init__(
        self,
        cells: Iterable[str],
        known: KnownParts,
        pattern: str = "",
        owned: frozenset[str] = frozenset(),
        lessons: Sequence[object] = (),
    ) -> None:
        self._known, self._owned = known, owned
        self._patterns = [patterns_of(one) for one in alternatives(pattern)] if pattern else []
        self._are_together = False
        self._signs = set(re.findall(r"[^\w\s]", pattern))
        self._texts = list(cells)
        self._split = _BY_MARK if self._marks_part(dict.fromkeys(self._texts)) else _BY_FORM
        self._are_together = not pattern and run_together(
            dict.fromkeys(self._texts), lambda text: _parts(text, self._split)
        )
        self._alone = {plain(text) for text in self._texts if len(self._parts(text)) == 1}
        self._begins = {plain(parts[0]) for text in self._texts if (parts := self._parts(text))}
        below = {
            plain(parts[0])
            for text in self._texts
            for line in text.split("\n")[1:]
            if (parts := self._parts(line))
        }
        self._lines_begin = len(below & self._begins) * 2 > len(below)
        """Whether most second lines are as first ones are: cells are of several classes."""
        self.shapes: dict[int, tuple[Part, ...]] = {}
        """Number of parts → what each is."""
        self.samples: dict[int, list[str]] = {}
        self._doubtful: dict[int, tuple[int, str]] = {}
        """Number of parts → the place of one that is a room as well as a teacher, for all that can be told, and a text there."""
        self.seen: set[Part] = set()
        """The kinds of parts that cells show by their look, or that are known."""
        self._either: dict[int, tuple[int, int]] = {}
        """Number of parts → the places of two of which the second may be the class, and the first a teacher."""
        self._moments: dict[int, dict[object, list[list[str]]]] = {}
        """Number of parts → the parts of the cells of each lesson."""
        for lesson, text in zip(lessons, self._texts, strict=False):
            parts = self._parts(text)
            self._moments.setdefault(len(parts), {}).setdefault(lesson, []).append(parts)
        by_count: dict[int, list[list[str]]] = {}
        for text in dict.fromkeys(self._texts):
            for one in self._classes_in(text):
                parts = self._parts(one)
                by_count.setdefault(len(parts), []).append(parts)
                self.samples.setdefault(len(parts), []).append(" ".join(one.split()))
        for count, lists in by_count.items():
            if count > 1:
                self.shapes[count] = self._shape(count, lists)

    def read(self, text: str) -> list[Entry] | Refusal:
        """The classes of a cell."""
        found = []
        for one in self._classes_in(text):
            entry = self._asked(one) if self._patterns else self._entry(self._parts(one))
            if isinstance(entry, Refusal):
                return entry
            found.append(entry)
        return found

    def _parts(self, text: str) -> list[str]:
        named = in_braces(text, lambda inside: self._known.kind(inside) is not None)
        parts = (
            [in_brackets(part) for part in _parts(named, self._split)]
            if named != text
            else _parts(text, self._split)
        )
        if self._are_together:
            parts = [
                piece
                for part in parts
                for piece in ([part] if plain(part) in self._known.classes else apart(part))
            ]
        if len(parts) == 1 and plain(text) not in self._known.classes:
            first, _, rest = text.strip().partition(" ")
            if rest and plain(first) in self._known.classes | self._known.codes:
                return [first, rest.strip()]  # a code that is known, and its room
        return parts

    def _marks_part(self, texts: Collection[str]) -> bool:
        """Whether commas, slashes and dashes part a class from something else: what stands behind them is known, looks
        like a room, a teacher or a group, or comes back under other classes, at one place at least; or it is in each cell of a
        room."""
        parted = [(parts, len(_parts(text, _BY_FORM))) for text in texts if (parts := _parts(text, _BY_MARK))]
        if "room" in self._owned and all(len(parts) > max(count, 1) for parts, count in parted):
            return True
        by_place: dict[int, dict[str, set[str]]] = {}
        for parts, count in parted:
            for at, tail in enumerate(parts[1:] if len(parts) > count else ()):
                by_place.setdefault(at, {}).setdefault(tail, set()).add(plain(parts[0]))
        for heads in by_place.values():
            told = [tail for tail, under in heads.items() if len(under) > 1 or _looks_like(tail, self._known)]
            if len(told) * 5 >= len(heads) * 3:
                return True
        return False

    def _classes_in(self, text: str) -> list[str]:
        """The texts of the classes of a cell: two stand on lines of their own, or are parted by a slash."""
        if self._patterns:
            return [text]
        for mark in ("\n", "/"):
            pieces = [piece.strip() for piece in text.split(mark) if piece.strip()]
            parts = [found for piece in pieces if (found := self._parts(piece))]
            if len(pieces) > 1 and len(parts) == len(pieces) and self._are_classes(parts, mark):
                return pieces
        return [text]

    def _are_classes(self, pieces: Sequence[Sequence[str]], mark: str) -> bool:
        """Whether the pieces of a cell are classes: each is known or stands alone elsewhere; or each is a line with its room, say, and
        begins with neither a room nor a teacher; or most second lines are as first ones are."""
        heads = [plain(parts[0]) for parts in pieces]
        if all(self._is_class(head) for head in heads):
            return True
        if mark != "\n" or any(self._is_no_class(parts[0]) for parts in pieces):
            return False
        return all(len(parts) > 1 for parts in pieces) or all(
            head in self._begins and self._lines_begin for head in heads
        )

    def _is_no_class(self, text: str) -> bool:
        """Whether a text is known as something else, or looks like no class: `Tar 7B` may be one."""
        is_other = self._known.kind(text) not in (None, "class")
        return is_other or any(re.fullmatch(form, text) for form in _NO_CLASS)

    def _is_class(self, key: str) -> bool:
        return key in self._known.classes or key in self._alone

    def _shape(self, count: int, lists: Sequence[Sequence[str]]) -> tuple[Part, ...]:
        """What the parts of cells with so many parts are, position by position: what they look like, and of the others
        the first is the class."""
        columns = [[parts[at] for parts in lists] for at in range(len(lists[0]))]
        kinds = [self._kind(texts) for texts in columns]
        if "room" in self._owned:  # Knots (A1) below Loft 1
            are_codes = [_share(texts, CODE) == 1 for texts in columns]
            kinds = [
                "group" if kind == "room" and code else kind
                for kind, code in zip(kinds, are_codes, strict=True)
            ]
        if "room" not in kinds and (at := _only_rooms(columns, kinds)) is not None:
            kinds[at] = "room"
        rooms = [at for at, kind in enumerate(kinds) if kind == "room"]
        named = [at for at in rooms if _share(columns[at], NAMED_ROOM) > _MOSTLY]
        if len(rooms) > 1:  # Rig 1 / Loft 1; of R1 / B12 the first is the class
            kept = named[0] if len(named) == 1 else rooms[-1]
            others = [at for at in rooms if at != kept]
            are_groups = None in kinds and all(_share(columns[at], CODE) == 1 for at in others)
            kinds = [
                ("group" if are_groups else None) if at in others else kind for at, kind in enumerate(kinds)
            ]
        self.seen.update(kind for kind in kinds if kind is not None)
        found = [None if kind in kinds[:at] else kind for at, kind in enumerate(kinds)]
        if "class" not in found:
            at = found.index(None) if None in found else 0
            found[at] = "class"
            others = [n for n, kind in enumerate(found) if kind is None]
            if "room" in found and (held := class_at(at, others, self._moments.get(count, {}))) is not None:
                found[at], found[held] = "teacher", "class"
            elif (other := _better_class(at, others, lists)) is not None:
                self._either[count] = at, other
        for at, kind in enumerate(found):
            texts = [parts[at] for parts in lists]
            if kind is None and "teacher" not in found and all(re.fullmatch(_INITIALS, t) for t in texts):
                found[at] = "teacher"
        rest: list[Part] = [
            kind for kind in ("room", "teacher", "group") if kind not in found and kind not in self._owned
        ]
        if None in found and rest[:2] == ["room", "teacher"]:
            at = found.index(None)
            self._doubtful[count] = at, lists[0][at]
        for at in [at for at, kind in enumerate(found) if kind is None]:
            is_name = all(
                text[:1].isupper() or (text[:1].isdigit() and rest[:1] == ["group"]) for text in columns[at]
            )
            found[at] = rest.pop(0) if rest and is_name else "notes"  # `with oars` is nobody
        return tuple(kind or "notes" for kind in found)

    def _kind(self, texts: Sequence[str]) -> Part | None:
        """What the texts of one position are, most of them; None when they look like nothing."""
        said = Counter(kind for text in texts if (kind := self._known.kind(text)) is not None)
        if said and said.most_common(1)[0][1] * 2 > len(texts):
            return said.most_common(1)[0][0]
        for kind, pattern in _LIKE:
            if _share(texts, pattern) > _MOSTLY:
                return kind
        if sum(map(is_place, texts)) > _MOSTLY * len(texts):
            return "room"
        if _share(texts, _TEACHER) > 0 and _share(texts, f"{_TEACHER}|{_NAME}") == 1:
            return "teacher"  # some with a title or initials, the others with first and last names
        return None

    def _entry(self, parts: Sequence[str]) -> Entry | Refusal:
        if not parts:  # brackets with nothing in them
            return unclear(parts)
        if len(parts) == 1:
            return Entry(parts[0])
        if len(parts) not in self.shapes:  # of a drawing whose cells did not count
            self.shapes[len(parts)] = self._shape(len(parts), [parts])
            self.samples[len(parts)] = [" ".join(parts)]
        if len(parts) in self._either:
            return class_or_teacher(parts, *self._either[len(parts)], self.shapes[len(parts)])
        if len(parts) in self._doubtful:
            at, text = self._doubtful[len(parts)]
            others = " or class" if 1 in self.samples else ""
            return doubtful(text, at, self.shapes[len(parts)], self.samples[len(parts)], others)
        values: dict[str, str] = {}
        for kind, text in zip(self.shapes[len(parts)], parts, strict=True):
            values[kind] = f"{values[kind]}\n{text}" if kind in values else text
        code = values.pop("class", "")
        if not code:
            return unclear(parts)
        return Entry(code, **values)

    def _asked(self, text: str) -> Entry | Refusal:
        flat = re.sub(r"\s+", " ", text.strip())
        for by_line, by_space in self._patterns:
            match = by_line.fullmatch(text.strip()) or by_space.fullmatch(flat)
            if match is None:
                continue
            values = {name: value.strip() for name, value in match.groupdict().items() if value}
            if len(self._patterns) > 1 and any(self._signs & set(value) for value in values.values()):
                continue  # a sign of another alternative is no letter of this one's parts
            code = values.pop("class_", "")
            return Entry(code, **values) if code else unclear([flat])
        message = f"“{flat}” does not fit the pattern of --cell."
        return Refusal(
            "cell-unfit", message, "Correct the cell, or the pattern: “class (room) or class” has two forms."
        )

    def told(self) -> list[Problem]:
        """What the parts of cells are taken for, with samples."""
        found = []
        for count, kinds in sorted(self.shapes.items()):
            if self._patterns or count in self._doubtful:
                continue
            shown = " and ".join(f"“{text}”" for text in self.samples[count][:2])
            message = f"The parts of a cell are {', '.join(kinds)}: {shown}."
            remedy = f'If they are others: --cell "{", ".join(kinds)}".'
            found.append(note("cell-parts", message, remedy))
        return found


def _only_rooms(columns: Sequence[Sequence[str]], kinds: Sequence[Part | None]) -> int | None:
    """The one place behind the first of whose texts most look like rooms, where none at another does: `R12`, `R4` and `TH`."""
    shares = {at: _share(texts, _ROOM) for at, texts in enumerate(columns) if at and kinds[at] is None}
    likely = [at for at, share in shares.items() if share > 0]
    return likely[0] if len(likely) == 1 and shares[likely[0]] > 0.5 else None


def _better_class(at: int, others: Sequence[int], lists: Sequence[Sequence[str]]) -> int | None:
    """The place of a part that may be the class in place of the first one, whose texts look like the names of people: each
    of its own has one person, and people have several."""
    if _share([parts[at] for parts in lists], _NAME) < 1:
        return None
    for other in others:
        pairs = {(parts[at], parts[other]) for parts in lists}
        persons, classes = {person for person, _ in pairs}, {code for _, code in pairs}
        if len(pairs) == len(classes) > len(persons):
            return other
    return None


def _share(texts: Sequence[str], pattern: str) -> float:
    return sum(re.fullmatch(pattern, text) is not None for text in texts) / len(texts)


def look_of(text: str) -> Part | None:
    """What a text by itself looks like, a teacher, a group or a room; None for anything else."""
    return next((kind for kind, pattern in _LIKE if re.fullmatch(pattern, text.strip())), None)


def _looks_like(text: str, known: KnownParts) -> bool:
    """Whether a text is known as, or looks like, something else than a class."""
    kind = known.kind(text)
    if kind == "class":
        return False
    return (
        kind is not None
        or plain(text) in known.codes
        or any(re.fullmatch(pattern, text) for _, pattern in _LIKE)
    )


def _parts(text: str, split: str) -> list[str]:
    """The parts of a cell.

    >>> _parts("Knots (Loft 2)", _BY_FORM), _parts("Knots, Loft 2 / Quill", _BY_MARK)
    (['Knots', 'Loft 2'], ['Knots', 'Loft 2', 'Quill'])
    """
    parts = (part.strip(" ,;–—-") for part in re.split(split, text.strip()))
    return [part for part in parts if part]
