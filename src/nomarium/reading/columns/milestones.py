"""Dates in columns of their own, beside the date of a row: each is an event by itself."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.reading.columns.bycontent import LIMITS
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import normal
from nomarium.reading.columns.whenwords import is_record_date

_OPENING: Final = frozenset(("opens", "open", "opening", "opening date", "open date", "date opens"))


def without_limits(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """The columns, of which one of limits, `Deadline`, is not the date of the rows where another is headed as that and holds dates."""
    dated = [c for c in columns if c.field in ("date", "when") and c.filled]
    if len(dated) < 2:
        return columns
    limits = [c for c in dated if c.how != "asked" and re.search(LIMITS, normal(c.heading))]
    if not limits or not any(c not in limits and contents[c.at].dates >= MOSTLY for c in dated):
        return columns
    return [c._replace(field="", how="") if c in limits else c for c in columns]


def with_milestones(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """The columns of dates beside that of the row as milestones, unless they keep books. Of a first day and a limit, `Start`
    and `Due`, the limit is one; of `Opens` and `Deadline`, between which nothing need go on, both are."""
    headed = [c for c in columns if c.field in ("date", "start", "end", "end-date")]
    starts = [c for c in headed if c.field == "start" and _are_days(contents[c.at])]
    limits = [c for c in headed if starts and c.field == "date" and re.search(LIMITS, normal(c.heading))]
    apart = {c.at for c in limits if c.how != "asked" and _are_days(contents[c.at])}
    if apart and not any(c.field in ("end", "end-date") and _are_days(contents[c.at]) for c in headed):
        apart |= {c.at for c in starts if c.how != "asked" and normal(c.heading) in _OPENING}
    if not any(
        c.field in ("date", "when", "milestone") or (c.field == "start" and contents[c.at].dates)
        for c in columns
    ):
        return columns
    evidence = "its cells are dates, beside the date of the row"
    dated = [contents[c.at] for c in columns if c.field in ("date", "when", "start")]
    return [
        c._replace(field="milestone", how="content", evidence=evidence)
        if c.at in apart or _is_milestone(c, contents[c.at], dated)
        else c
        for c in columns
    ]


def _are_days(about: Contents) -> bool:
    """Whether cells are dates without a time; the first says mostly that they are none."""
    first = about.cells[0] if about.cells else ""
    return looks_like_date(first, about.lexicon) and about.dates >= MOSTLY and not about.times


def _is_milestone(column: Column, about: Contents, dated: Sequence[Contents]) -> bool:
    """`3/12` may as well be three of twelve, unless the dates of the rows, `dated`, are two figures too."""
    is_free = not column.field and column.how != "asked" and column.heading and column.filled
    if not is_free or about.dates < MOSTLY or about.numbers >= MOSTLY or is_record_date(column.heading):
        return False
    return not about.are_bare_days or any(one.are_bare_days for one in dated)
