"""Dates in columns of their own, beside the date of a row: each is an event by itself."""

import re
from typing import Final

from nomarium.reading.columns.bycontent import LIMITS
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.headings import normal
from nomarium.reading.columns.whenwords import is_of_record

_OPENING: Final = frozenset(("opens", "open", "opening", "opening date", "open date", "date opens"))


def with_milestones(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """The columns of dates beside that of the row as milestones, unless they keep books. Of a first day and a limit, `Start`
    and `Due`, the limit is one; of `Opens` and `Deadline`, between which nothing need go on, both are."""
    dated = [c for c in columns if contents[c.at].dates >= MOSTLY]
    starts = [c for c in dated if c.field == "start" and not contents[c.at].times]
    limits = (
        [c for c in dated if c.field == "date" and re.search(LIMITS, normal(c.heading))] if starts else []
    )
    ended = any(c.field in ("end", "end-date") for c in dated)
    apart = {c.at for c in limits if c.how != "asked"}
    if apart and not ended:
        apart |= {c.at for c in starts if c.how != "asked" and normal(c.heading) in _OPENING}
    if not any(
        c.field in ("date", "when", "milestone") or (c.field == "start" and contents[c.at].dates)
        for c in columns
    ):
        return columns
    evidence = "its cells are dates, beside the date of the row"
    return [
        c._replace(field="milestone", how="content", evidence=evidence)
        if c.at in apart or _is_milestone(c, contents[c.at])
        else c
        for c in columns
    ]


def _is_milestone(column: Column, about: Contents) -> bool:
    is_free = not column.field and column.how != "asked" and column.heading and column.filled
    return bool(
        is_free and about.dates >= MOSTLY and about.numbers < MOSTLY and not is_of_record(column.heading)
    )
