"""Intervals of ISO 8601, `2026-11-11/13`, as ranges with a dash."""

import re
from typing import Final

_ISO_INTERVAL: Final = (
    r"(?P<first>\d{4}-\d\d-\d\d(?:T\d\d:\d\d)?)\s?/\s?(?P<last>(?:(?:\d{4}-)?\d\d-)?\d\d(?:T\d\d:\d\d)?)"
)


def with_dash(text: str) -> str:
    """An interval of ISO 8601 with a dash for its slash, and its last day whole: `2026-11-11/13` ends on 2026-11-13."""
    match = re.fullmatch(_ISO_INTERVAL, text)
    if match is None:
        return text
    first, last = match["first"], match["last"]
    whole = first[: 10 - len(last)] + last if len(last) < 10 and "T" not in first else last
    return f"{first} – {whole}".replace("T", " ")
