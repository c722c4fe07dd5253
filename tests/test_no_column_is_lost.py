"""Whatever heads a column of dates, times or words beside the date of the rows, what it says is used, told, or asked about."""

from pathlib import Path

import pytest

from helpers import csv_file, nomarium
from nomarium.reading.columns.headings import spellings

KINDS = {"dates": ("2027-02-03", "2027-02-09"), "times": ("10:15", "14:30"), "words": ("Alphabet", "Betamax")}
QUIET = {"uid", "reminder"}
"""Fields whose cells go into the calendar as they are, or say when to remind."""


def _one_heading_a_field() -> list[str]:
    first: dict[str, str] = {}
    for spelling, match in spellings().items():
        first.setdefault(match.field, spelling)
    return [spelling for field, spelling in first.items() if field not in QUIET]


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize(
    "heading", [*_one_heading_a_field(), "weekday", "invited", "host", "days", "staff meeting", "join"]
)
def test_what_a_column_says_is_never_lost_unseen(heading: str, kind: str, tmp_path: Path) -> None:
    one, other = KINDS[kind]
    source = csv_file(tmp_path, f"Event,Date,{heading}\nKnots,2027-03-05,{one}\nOars,2027-03-06,{other}")
    target = tmp_path / "o.csv"
    outcome = nomarium("build", source, "-o", target)
    if outcome.status == 0 and heading not in outcome.text:
        written = target.read_text("utf-8-sig")
        assert one in written or one.lstrip("0") in written
        are_people = any(word in written for word in ("Attendees", "Organizer", "Audience"))
        assert kind == "words" or not are_people, written
