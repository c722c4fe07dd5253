"""A row with a first and a last day whose repeat has an end of its own: no date of it lasts until the last one."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused

HEAD = "Event,Start date,End date,Time,Repeat\n"
EACH = [f"Knots {day}T19:00/{day}T21:00" for day in ("2026-09-15", "2026-09-22", "2026-09-29")]
AGREE: dict[str, tuple[str, list[str]]] = {
    "a count of weeks": (f"{HEAD}Knots,15 Sept 2026,29 Sept 2026,7–9pm,every Tuesday for 3 weeks", EACH),
    "a count": (f"{HEAD}Knots,15 Sept 2026,29 Sept 2026,7–9pm,weekly 3 times", EACH),
    "a last day of its own": (f"{HEAD}Knots,15 Sept 2026,29 Sept 2026,7–9pm,weekly until 29 Sept 2026", EACH),
    "a last day before the next date": (f"{HEAD}Knots,15 Sept 2026,2 Oct 2026,7–9pm,every Tuesday for 3 weeks", EACH),
    "both days in one cell": ("Event,Date,Time,Repeat\nKnots,15 Sept – 29 Sept 2026,7–9pm,every Tuesday for 3 weeks", EACH),
    "all day": (f"{HEAD}Knots,15 Sept 2026,22 Sept 2026,,weekly 2 times", ["Knots 2026-09-15/2026-09-16", "Knots 2026-09-22/2026-09-23"]),
    "three days each week": (f"{HEAD}Camp,18 Sept 2026,20 Sept 2026,,weekly 2 times", ["Camp 2026-09-18/2026-09-21", "Camp 2026-09-25/2026-09-28"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", AGREE)
def test_ends_that_agree_are_one(kind: str, tmp_path: Path) -> None:
    table, events = AGREE[kind]
    assert built(csv_file(tmp_path, table)) == events


@pytest.mark.parametrize("last", ["28 Sept 2026", "6 Oct 2026"])
def test_ends_that_differ_are_refused(last: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"{HEAD}Knots,15 Sept 2026,{last},7–9pm,every Tuesday for 3 weeks")
    assert "its repeat has another end" in refused(source)
