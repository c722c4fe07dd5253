"""Titles that say nothing without their heading: `1st`, `2nd` under `Meeting`, `1`, `2` under `Round`, names under `Chair`."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.reading.columns.column import BESIDE_NAMES, Column
from nomarium.reading.columns.headings import normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet

_COUNT: Final = (
    r"(?i)\d{1,3}(?:st|nd|rd|th|\.|e|er|ère|º|ª)?|first|second|third|(?:four|fif|six|seven|eigh|nin|ten)th"
)
_COUNTED: Final = frozenset(
    "round session meeting lesson race heat match game leg stage workshop lecture seminar practice rehearsal training visit exam test episode matchday "
    "runde spieltag sitzung stunde tour manche seance journee jornada ronda sesion speelronde".split()
)
"""Headings of what comes back by its number."""
POSTS: Final = frozenset(
    "chair chairperson secretary treasurer reader preacher celebrant steward invigilator driver cook marshal umpire referee scorer lifeguard caretaker "
    "keyholder warden tutor caller host speaker".split()
)
"""Headings of those who do something then."""
_DUE: Final = r"(?:next|upcoming) [^\W\d_].*|(?:.+ )?(?:renewal|expiry|expires|inspection|service|servicing|check-?up|mot)(?: (?:date|due|on))?"
"""Headings of dates that say what is due then, `Next service`; the title says of what."""
_BARE: Final = "what stands in the column says nothing without its heading"


def with_headed_titles(
    sheet: Sheet, columns: Sequence[Column], options: ReadingOptions, told: Sequence[Problem] = ()
) -> tuple[ReadingOptions, list[Problem]]:
    """The options with a title made of a heading and what stands under it, where nothing else says what each event is called; and
    a note that says so, after those that were `told`."""
    if options.title or "summary" in options.defaults:
        return options, [*told]
    titled = [c for c in columns if c.field in ("summary", "class")]
    posts = [c for c in titled if c.how == "content" and normal(c.heading) in POSTS]
    if (named := next((c for c in titled if c.evidence == BESIDE_NAMES), None)) is not None:
        course = next(c for c in titled if c.field == "class")
        return _titled(
            sheet, course, f"{{{course.heading}}}: {{{named.heading}}}", options, "both may be what happens"
        )
    due = [
        c
        for c in columns
        if c.field == "date" and c.how == "content" and re.fullmatch(_DUE, normal(c.heading))
    ]
    is_alone = not any(c.field == "milestone" for c in columns)
    if (
        len(due) == 1
        and is_alone
        and len(titled) == 1
        and _is_of_whom(titled[0])
        and "{" not in due[0].heading
    ):
        return _titled(
            sheet,
            titled[0],
            f"{{{titled[0].heading}}}: {due[0].heading}",
            options,
            "the heading of its date says what is due",
        )
    counting = [c for c in columns if _counts(c) and (c in titled or (c.is_ignored and c.how != "asked"))]
    if len(counting) == 1 and titled in ([], posts, counting):
        return _titled(sheet, counting[0], f"{counting[0].heading} {{{counting[0].heading}}}", options)
    if posts and titled == posts:
        return _titled(sheet, posts[0], f"{posts[0].heading}: {{{posts[0].heading}}}", options)
    return options, [*told]


def _is_of_whom(column: Column) -> bool:
    """Whether titles say of whom or of what something is, and not what happens: they are the only words, or names."""
    return column.how == "content" or normal(column.heading) in ("name", "full name")


def _titled(
    sheet: Sheet, column: Column, template: str, options: ReadingOptions, why: str = _BARE
) -> tuple[ReadingOptions, list[Problem]]:
    message = f"The title of each event is {template}: {why}."
    remedy = 'If it is not: --column "HEADING=summary", or another --title.'
    told = note("title-sides", message, remedy).at(sheet.place(None, column.at, column.heading))
    return options._replace(title=template), [told]


def _counts(column: Column) -> bool:
    """Whether half of a column's cells or more are numbers that say which of them its heading names a row is."""
    if normal(column.heading) not in _COUNTED:
        return False
    counts = sum(re.fullmatch(_COUNT, text.strip()) is not None for text in column.samples)
    return counts * 2 >= len(column.samples) > 0
