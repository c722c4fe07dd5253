"""Labels, periods and other codes: matched loosely, in lists and ranges."""

import datetime as dt
import re
from collections.abc import Iterable

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.model.wording import meant
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import cell_text

_LEADS = {
    "label": r"(?:cycle\s*)?(?:day|jour|label|d(?=\s?\d))",
    "period": r"(?:period|per|pd|p|block|periode|lesson|slot|hour|module|mod|session|stunde|heure)\.?",
    "term": r"(?:term|semester|trimester|quarter|trimestre|semestre|t(?=\s?\d)|s(?=\s?\d)|q(?=\s?\d))",
}
_WORDS = ("day", "period", "p", "block")
_OF_PERIODS = (*_WORDS, "lesson", "slot", "hour", "module", "session", "stunde", "heure", "periode")
_OF_LABELS = (*_WORDS, "d", "jour")
_OF_TERMS = ("term", "semester", "trimester", "quarter", "trimestre", "semestre", "t", "s", "q")


class Codes:
    """The known codes of one kind, in their order. `Day 3` and `Period 2` mean 3 and 2 where those are known."""

    def __init__(self, kind: str, names: Iterable[str] = (), others: Iterable[tuple[str, str]] = ()) -> None:
        """`others` are (another name, code)."""
        self.kind = kind
        self.names = tuple(dict.fromkeys(names))
        self._known = {plain(other): name for other, name in others}
        self._known.update({plain(name): name for name in self.names})
        if kind == "period":
            for name in self.names:
                self._known.setdefault(ordinal(name), name)

    def find(self, text: str) -> str | None:
        """The code that a text names, or None."""
        key = plain(text)
        if key in self._known:
            return self._known[key]
        if self.kind == "period" and (number := ordinal(text)) in self._known:
            return self._known[number]
        lead = _LEADS.get(self.kind)
        if lead:
            bare = re.sub(rf"^{lead}\s*(?=.)", "", text.strip(), flags=re.IGNORECASE)
            if bare != text.strip() and plain(bare) in self._known:
                return self._known[plain(bare)]
            words = {"term": _OF_TERMS, "label": _OF_LABELS, "period": _OF_PERIODS}.get(self.kind, _WORDS)
            for word in words:
                for other in (
                    f"{word}{plain(bare)}",
                    *([f"{plain(bare)}{word}"] if self.kind == "term" else []),
                ):
                    if other in self._known:
                        return self._known[other]
        return None

    def read(self, cell: Cell) -> tuple[str, ...] | Refusal:
        """The codes of a cell: one, a list (`1, 3, 5`) or a range (`A-D`)."""
        if isinstance(cell, dt.date):
            return self._made_a_date(f"{cell:%Y-%m-%d}", cell.month, cell.day)
        text = cell_text(cell)
        whole = self.find(text)
        if whole is not None:
            return (whole,)
        typed = re.fullmatch(r"(\d{1,2})-([A-Za-z]{3})(?:-\d\d)?|([A-Za-z]{3})-(\d{1,2})", text)
        if typed and (month := ENGLISH.months.get((typed[2] or typed[3]).casefold())):
            return self._made_a_date(text, month, int(typed[1] or typed[4]))
        found: list[str] = []
        for piece in re.split(r"\s*[,;\n]\s*", text):
            one = self.find(piece) if piece else None
            # a slash or an “and” may stand in a name: it parts only what is no name as a whole
            parts = [piece] if one is not None else re.split(r"\s*(?:[/&+]|\band\b|\bet\b)\s*", piece)
            for part in parts:
                codes = self._part(part) if part else []
                if isinstance(codes, Refusal):
                    return codes
                found += codes
        return tuple(dict.fromkeys(found))

    def _made_a_date(self, shown: str, month: int, day: int) -> Refusal:
        likely = f"{min(month, day)}-{max(month, day)}"
        message = f"The cell is a date, {shown}: a spreadsheet made one of “{likely}”, most likely."
        return Refusal(f"{self.kind}-date", message, f"Type it as text: '{likely} (with the apostrophe).")

    def _part(self, part: str) -> list[str] | Refusal:
        one = self.find(part)
        if one is not None:
            return [one]
        ends = re.split(r"\s*(?:-|–|—|\bto\b|\bthrough\b)\s*", part)
        if len(ends) == 2:
            first, last = (self.find(end) for end in ends)
            if first is not None and last is not None:
                at, to = self.names.index(first), self.names.index(last)
                if to < at:
                    message = f"The range {part} runs backwards: {last} comes before {first}."
                    return Refusal(f"{self.kind}-range", message, "Swap its ends, or list them with commas.")
                return list(self.names[at : to + 1])
        words = part.split()
        if len(words) > 1 and all(self.find(word) for word in words):
            return [code for word in words if (code := self.find(word))]
        return self.unknown(part)

    def unknown(self, text: str) -> Refusal:
        """The refusal of a text that is none of the codes."""
        there = ", ".join(self.names[:20])
        remedy = meant(text, self.names, f"There are {there}.", 0.5)
        if not there:
            where = {"period": "no Bells table says when a period is", "term": "there is no Terms table"}
            remedy = f"There is none at all: {where.get(self.kind, 'no table lists one')}."
        return Refusal(f"{self.kind}-unknown", f"There is no {self.kind} “{text}”.", remedy)


_NTH = "first second third fourth fifth sixth seventh eighth ninth tenth".split()
_ORDINAL = rf"(?i)(?:(?P<figure>\d{{1,2}})(?:st|nd|rd|th)|(?P<word>{'|'.join(_NTH)}))(?:\s+(?:period|block|lesson|slot|hour|class))?"


def ordinal(text: str) -> str:
    """The number of a period that is counted, `1st block`, `Third period`; the text itself in its compared form for any other.

    >>> ordinal("1st block"), ordinal("Third"), ordinal("Lunch")
    ('1', '3', 'lunch')
    """
    match = re.fullmatch(_ORDINAL, text.strip())
    if match is None:
        return plain(text)
    return match["figure"] or str(_NTH.index(match["word"].casefold()) + 1)


def natural(text: str) -> list[tuple[int, int, str]]:
    """Names in the order in which people list them: 2 before 10.

    >>> sorted(["B10", "B2"], key=natural)
    ['B2', 'B10']
    """
    pieces = re.findall(r"\d+|\D+", text.casefold())
    return [(0, int(piece), "") if piece.isdecimal() else (1, 0, piece) for piece in pieces]


def weekday_of(text: str) -> int | None:
    """The weekday that a text names, 0 is Monday, or None."""
    word = fold(text).strip()
    return ENGLISH.weekday(word)
