"""Cells that hold labels and periods together, `A1 B3 D2`, `1(A,C,E)` or `Day 2 P3`."""

import re
from collections.abc import Iterable, Sequence
from string import ascii_uppercase
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH
from nomarium.school.codes import Codes

_DAYS_AND_PERIODS: Final = r"(?<![^\W\d_])(?P<days>[A-Za-z]+(?:\s?[/&-]\s?[A-Za-z]+)*)\.?\s*[-:_]?\s*(?P<periods>\d{1,2}(?:\s?[-–+&/]\s?\d{1,2})*)(?![\w:.])"
_LABELS_AND_PERIODS: Final = (
    r"(?P<labels>[^\W\d_]+(?:\s?[-–,]\s?[^\W\d_]+)+)\s+(?P<periods>\d{1,2}(?:\s?[-–,]\s?\d{1,2})*)"
)
"""Several labels, and periods of each behind a space."""
_MOST_LABELS: Final = 12
"""Labels of the longest cycle that is found in such cells where no table says which labels there are."""


def read_meets(text: str, labels: Codes, periods: Codes) -> list[tuple[str, str]] | Refusal:
    """(label, period) pairs of `A1 B3 D2`, `1(A,C,E) 4(B)` or `Day 2 P3`."""
    found: list[tuple[str, str]] = []
    if (every := _each_of(text, labels, periods)) is not None:
        return every
    rest = re.sub(r"(?<=[\w)])\s*(?:[&+/]|\band\b)\s*(?=[^\W\d_])", " ", text.strip())  # A1 & C3, A1/B2
    while rest:
        match = re.match(r"([^\s,;()]+(?:\s+[^\s,;()]+)?)\s*\(([^)]*)\)\s*[,;]?\s*", rest)
        if match:
            pairs = _bracketed(match[1], match[2], labels, periods)
            if isinstance(pairs, Refusal):
                return pairs
            found += pairs
            rest = rest[match.end() :]
            continue
        taken = _pair(rest, labels, periods)
        if isinstance(taken, Refusal):
            return taken
        pairs, rest = taken
        found += pairs
    return list(dict.fromkeys(found))


def _each_of(text: str, labels: Codes, periods: Codes) -> list[tuple[str, str]] | None:
    """Each of several labels with each of the periods behind them, `A-C 4` or `A, C 1`; None for any other text."""
    match = re.fullmatch(_LABELS_AND_PERIODS, text.strip())
    if match is None:
        return None
    named, codes = labels.read(match["labels"]), periods.read(match["periods"])
    if isinstance(named, Refusal) or isinstance(codes, Refusal):
        return None
    return [(label, code) for label in named for code in codes]


class WeekdayMeets:
    """Cells that hold weekdays by their letters and periods, `M1 W1 F1`, `TTh 2`, `MWF 3-4`: what a letter means is told by all of them."""

    def __init__(self, texts: Iterable[str], periods: Codes) -> None:
        parsed = [match for text in texts for match in re.finditer(_DAYS_AND_PERIODS, text)]
        self._codes = WeekdayCodes([match["days"] for match in parsed], ENGLISH)
        self._periods = periods

    def read(self, text: str) -> list[tuple[str, str]] | Refusal | None:
        """(weekday, period) pairs of a cell; None where it holds anything else, or letters that are no weekdays."""
        matches = list(re.finditer(_DAYS_AND_PERIODS, text))
        rest = re.sub(_DAYS_AND_PERIODS, "", text)
        if not matches or rest.strip(" ,;/\n"):
            return None
        found = list[tuple[str, str]]()
        for match in matches:
            days = self._codes.read(match["days"])
            if isinstance(days, Refusal):
                return days if days.code != "weekday-unknown" else None
            codes = self._periods.read(match["periods"])
            if isinstance(codes, Refusal):
                return codes
            found += [(WEEKDAYS[day], code) for day in days for code in codes]
        return list(dict.fromkeys(found))


def labels_met(texts: Sequence[str], periods: Sequence[str]) -> list[str]:
    """The labels of `Meets` cells where no table says which there are: letters (`A1 B3`) or days by number (`Day 2 P3`), if
    every cell can be read so; none where it could be read in two ways, or in none."""
    found: list[list[str]] = []
    are_days = all(re.search(r"(?i)\b(?:(?:day|jour)\b|d\s?\d)", text) for text in texts)
    for names in (
        ascii_uppercase[:_MOST_LABELS],
        [str(n) for n in range(1, _MOST_LABELS + 1)] if are_days else [],
    ):
        labels = Codes("label", names)
        read = [read_meets(text, labels, Codes("period", periods)) for text in texts]
        pairs = [one for one in read if not isinstance(one, Refusal)]
        if pairs and len(pairs) == len(read):
            found.append(list(dict.fromkeys(label for one in pairs for label, _ in one)))
    return found[0] if len(found) == 1 else []


def _bracketed(head: str, inside: str, labels: Codes, periods: Codes) -> list[tuple[str, str]] | Refusal:
    """`1(A,C,E)` is a period and its labels; `A(1,3)` a label and its periods."""
    period, label = periods.find(head), labels.find(head)
    in_labels, in_periods = labels.read(inside), periods.read(inside)
    if period is not None and not isinstance(in_labels, Refusal):
        return [(one, period) for one in in_labels]
    if label is not None and not isinstance(in_periods, Refusal):
        return [(label, one) for one in in_periods]
    if period is not None and isinstance(in_labels, Refusal):
        return in_labels
    return _not_met(f"{head}({inside})", labels, periods)


def _pair(text: str, labels: Codes, periods: Codes) -> tuple[list[tuple[str, str]], str] | Refusal:
    """The label and period (or range of periods) at the start of a text, and what follows."""
    words = re.findall(r"[^\s,;]+|[,;]", text)
    for size in (1, 2, 3, 4):
        part = words[:size]
        if len(part) < size or any(word in ",;" for word in part):
            break
        found = _splits(" ".join(part), labels, periods)
        if len(found) > 1:
            shown = " or ".join(f"label {label} period {'–'.join(codes)}" for label, codes in sorted(found))
            return Refusal(
                "meets-ambiguous",
                f"“{' '.join(part)}” can be {shown}.",
                "Write it like 1(A, C): a period and its labels.",
            )
        if found:
            pattern = r"\s*".join(re.escape(word) for word in part) + r"[\s,;]*"
            match = re.match(pattern, text)
            assert match is not None
            label, codes = found.pop()
            return [(label, code) for code in codes], text[match.end() :]
    return _not_met(words[0] if words else text, labels, periods)


def _splits(text: str, labels: Codes, periods: Codes) -> set[tuple[str, tuple[str, ...]]]:
    """Every way to cut a text into a label and a period, or a range of periods."""
    found: set[tuple[str, tuple[str, ...]]] = set()
    for at in range(1, len(text)):
        head, tail = text[:at].strip(" -:"), text[at:].strip(" -:")
        if not head or not tail or (text[at - 1].isdigit() and text[at].isdigit() and " " in text):
            continue
        label = labels.find(head)
        if label is None:
            continue
        period = periods.find(tail)
        codes = (period,) if period is not None else periods.read(tail) if re.search(r"[-–+&]", tail) else ()
        if codes and not isinstance(codes, Refusal):
            found.add((label, codes))
    return found


def _not_met(text: str, labels: Codes, periods: Codes) -> Refusal:
    message = f"“{text}” is no label with a period."
    remedy = f"Write it like {(labels.names or ('A',))[0]}{(periods.names or ('1',))[0]}: labels are {', '.join(labels.names[:12])}; periods are {', '.join(periods.names[:12])}."
    return Refusal("meets-unread", message, remedy)
