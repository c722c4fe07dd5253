"""What a survey says of each column, in words."""

from nomarium.reading.cells.moments import ROLES
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.decisions import ORDER_NAMES, Decisions

_FIELD_WORDS = {
    "summary": "what the event is called",
    "duration": "lengths",
    "all-day": "yes or no",
    "private": "yes or no",
    "reminder-on": "yes or no",
    "categories": "names parted by commas or semicolons",
    "audience": "groups parted by commas or semicolons",
    "attendees": "people parted by semicolons",
    "optional-attendees": "people parted by semicolons, optional",
    "day": "weekdays or day numbers",
    "week": "week numbers",
    "time": "times",
    "status": "confirmed, tentative or cancelled",
    "confirmed": "yes or no",
    "privacy": "public, private or confidential",
    "busy": "busy or free",
    "priority": "high, medium, low or 1 to 9",
    "reminder": "lengths before the start",
    "organizer": "a person",
    "location": "a place",
}


def describe_column(column: Column, decisions: Decisions, keeps_extra: bool = False) -> str:
    """How a column is read and on what evidence."""
    if column.twin_of is not None:
        return f"the {column.field} again, the same on every row"
    if not column.field:
        if column.how == "asked":
            return "left out as asked"
        why = column.evidence or "no field of this name"
        is_kept = (keeps_extra and column.heading) or column.is_kept
        return f"{why}; kept in the description" if is_kept else f"{why}; not used"
    words = _FIELD_WORDS.get(column.field, "")
    if column.field in ROLES and column.field != "time":
        words = _dates(column, decisions)
    evidence = "" if column.evidence == "heading" else column.evidence
    return "; ".join(part for part in (words, evidence) if part) or "as text"


def _dates(column: Column, decisions: Decisions) -> str:
    is_clock = column.is_clock and column.field in ("start", "end")
    if not column.has_days or is_clock:
        return "times"
    parts = ["dates" if column.at not in decisions.moment_columns else "dates and times"]
    if decisions.order_evidence:
        # the evidence once, at the column that a reader looks at first
        is_first = column.field in ("date", "when", "start")
        parts.append(decisions.order_evidence if is_first else ORDER_NAMES.get(decisions.order, ""))
    if decisions.language:
        parts.append(decisions.language.evidence)
    if decisions.window_evidence:
        parts.append(f"years from {decisions.window_evidence}")
    if column.at in decisions.date_only_columns:
        parts.append("every cell ends in 00:00, so they are dates")
    return ", ".join(parts)
