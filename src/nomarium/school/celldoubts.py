"""Drawn cells whose parts could be read in two ways: both readings, each with the option that says so."""

import re
from collections.abc import Sequence

from nomarium.model.refusal import Refusal
from nomarium.school.cellpatterns import Part


def class_or_teacher(parts: Sequence[str], at: int, other: int, kinds: Sequence[Part]) -> Refusal:
    """A cell whose class may be a person, or the other way: both readings, each with the option that says so."""
    message = f"“{parts[at]}” may be the class or its teacher, and “{parts[other]}” the class."
    first, second = list(kinds), list(kinds)
    if "teacher" in second:
        second[second.index("teacher")] = second[other]
    second[at], second[other] = "teacher", "class"
    remedy = f'Say which: --cell "{" ".join(first)}" or --cell "{" ".join(second)}".'
    return Refusal("cell-doubtful", message, remedy)


def unclear(parts: Sequence[str]) -> Refusal:
    message = f"Nothing says which part of “{', '.join(parts)}” is the class."
    return Refusal("cell-unclear", message, 'Say what the parts are: --cell "class, room".')


_OF_WEEKS = r"(?i)(?:(?:week|wk)\.?\s*)?[a-d]"
_IN_WEEK = r"(?i)\((?:week|wk)\.?\s*[a-d]\)|\(a\).*\(b\)"
"""What names the week of a class in brackets behind it."""


def doubtful(part: str, at: int, kinds: Sequence[Part], samples: Sequence[str], others: str) -> Refusal:
    """A part that may be a room as well as a teacher: both readings, each with the option that says so; `others` is the form of
    the cells without one."""
    shown = " and ".join(f"“{text}”" for text in samples[:2])
    if re.fullmatch(_OF_WEEKS, part) and any(re.search(_IN_WEEK, text) for text in samples):
        message = (
            f"“{part}” seems to name a week, in cells such as {shown}, and the class would be held in all."
        )
        remedy = "Give each week a sheet of its own, called Week A and Week B, or rows of its own with a column Week."
        return Refusal("cell-doubtful", message, remedy)
    message = f"“{part}” may be a room or a teacher, in cells such as {shown}."
    mark = re.search(r"[()@,;|/]", samples[0])
    patterns = []
    for kind in ("room", "teacher"):
        other = "room" if kind == "teacher" else "teacher"
        names = [kind if n == at else other if one == kind else one for n, one in enumerate(kinds)]
        patterns.append(
            f"{names[0]} ({names[1]})" if mark and mark[0] == "(" and len(names) == 2
            else (f"{mark[0]} " if mark and mark[0] not in "()" else " ").join(names)
        )  # fmt: skip
    remedy = f'A room: --cell "{patterns[0]}{others}". A teacher: --cell "{patterns[1]}{others}". Neither: --cell "class".'
    return Refusal("cell-doubtful", message, remedy)
