"""Problems, notes and ledgers as text for people and as JSON for programs."""

import sys
from collections import Counter
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING, TextIO, TypeVar

from nomarium.model.problem import Problem
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from rich.table import Table

Row = TypeVar("Row")

_MOST_OF_A_KIND = 10
"""Problems of one code that are printed in full; --json and --rejects have them all."""


_UNSAFE = {
    **{code: chr(0x2400 + code) for code in range(32) if code not in (9, 10)},
    127: "\u2421",
    **dict.fromkeys(
        (*range(0x80, 0xA0), *range(0x202A, 0x202F), *range(0x2066, 0x206A), 0x2028, 0x2029), "\ufffd"
    ),
}
"""Characters that could steer a terminal, or turn the order of what it shows, and what stands for them."""


def shown(text: str) -> str:
    """A text from a file, a name or a server as a terminal may have it: nothing in it that could steer one."""
    return text if text.isprintable() else text.translate(_UNSAFE)


def markup(text: str) -> str:
    """The same for where square brackets are markup: shown as they stand."""
    from rich.markup import escape

    return escape(shown(text))


def say(text: str = "", to: TextIO | None = None) -> None:
    """Print a line."""
    print(shown(text), file=to or sys.stdout)


def problem_lines(problem: Problem) -> list[str]:
    """A problem as people read it: where, what stands there, what is wrong, what to do."""
    place = str(problem.place)
    cell = f": “{_short(problem.cell)}”" if problem.cell else ""
    lines = [f"{place}{cell}"] if place else []
    lines.append(f"    {problem.message}" if place else problem.message)
    if problem.remedy:
        lines.append(f"    → {problem.remedy}" if place else f"→ {problem.remedy}")
    return lines


def _short(text: str | None) -> str:
    plain = " ⏎ ".join((text or "").splitlines())
    return plain if len(plain) <= 80 else plain[:79] + "…"


def say_problems(problems: Sequence[Problem], to: TextIO | None = None) -> None:
    """Print problems in the order of the sheet, of each kind the first ten."""
    to = to or sys.stderr
    seen = Counter[str]()
    for problem in problems:
        seen[problem.code] += 1
        if seen[problem.code] <= _MOST_OF_A_KIND:
            for line in problem_lines(problem):
                say(line, to)
    for code, count in seen.items():
        if count > _MOST_OF_A_KIND:
            say(
                f"… and {count - _MOST_OF_A_KIND:,} more of this kind ({code}); --json lists every one.",
                to,
            )


def say_notes(notes: Iterable[Problem], to: TextIO | None = None, details: bool = False) -> None:
    """Print what was decided: all of a few; of more, the first of each kind with how many there are, unless `details` asks
    for all."""
    listed = list(notes)
    details = details or len(listed) <= _FEW_NOTES
    counts = Counter(note.code for note in listed)
    seen = Counter[str]()
    for note in listed:
        most = counts[note.code] if details else _EACH.get(note.code, 1)
        seen[note.code] += 1
        if seen[note.code] > most:
            continue
        more = counts[note.code] - most if seen[note.code] == most else 0
        place = str(note.place)
        text = (
            f"note: {f'{place}: ' if place else ''}{note.message}{f' {note.remedy}' if note.remedy else ''}"
        )
        say(f"{text} (and {more:,} more of this kind: --details)" if more > 0 else text, to)


_FEW_NOTES = 5
_EACH = {"repeat-read": 6}
"""Kinds of notes of which several are printed: how a phrase was understood says nothing of another one."""
WIDTH = 100
"""Cells of a line of a report that goes to no terminal."""
MOST_LINES = 12
"""Lines of a table that a report shows in full …"""
SHOWN_LINES = 10
"""… and those that it shows of a longer one."""


def shortened(rows: Sequence[Row], details: bool) -> tuple[Sequence[Row], int]:
    """The rows of a table that a report shows, and how many it only counts."""
    if details or len(rows) <= MOST_LINES:
        return rows, 0
    return rows[:SHOWN_LINES], len(rows) - SHOWN_LINES


def report_table(gap: int = 1) -> "Table":
    """An empty table as reports have them: light, with so many blanks and one between its columns."""
    from rich import box
    from rich.table import Table

    return Table(
        box=box.SIMPLE_HEAD, show_edge=False, pad_edge=False, padding=(0, gap, 0, 0), header_style="bold"
    )


def rest_text(count: int, thing: str, plural: str = "") -> str:
    """What stands below a table that is cut."""
    return f"… and {counted(count, f'more {thing}', f'more {plural or thing + chr(115)}')} (--details)"


def as_json(value: object) -> object:
    """Problems, places and other plain data as JSON has them."""
    if isinstance(value, Problem):
        place = value.place
        return {
            "code": value.code, "severity": value.severity, "file": place.file, "sheet": place.sheet,
            "row": place.row, "column": place.column, "heading": place.heading, "cell": value.cell,
            "message": value.message, "remedy": value.remedy,
        }  # fmt: skip
    if isinstance(value, dict):
        return {str(key): as_json(item) for key, item in value.items()}
    if isinstance(value, (list, tuple, set, frozenset)):
        return [as_json(item) for item in value]
    return value if isinstance(value, (str, int, float, bool)) or value is None else str(value)


def say_json(value: object, to: TextIO | None = None) -> None:
    """Print one JSON document."""
    import json

    text = json.dumps(as_json(value), indent=2, ensure_ascii=False)
    if not text.isprintable():
        text = "".join(f"\\u{ord(one):04x}" if ord(one) in _UNSAFE else one for one in text)
    print(text, file=to or sys.stdout)
