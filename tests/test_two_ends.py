"""A row with a first and a last day whose repeat has an end of its own: no date of it lasts until the last one."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused

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


UNTIMED = {
    "a weekday later than the first day": "Event,Day,Start date,End date\nKnots,Friday,7 Sept 2026,26 Sept 2026",
    "the weekday of both days": "Event,Day,Start date,End date\nKnots,Wednesday,9 Sept 2026,30 Sept 2026",
    "both days in one cell": "Event,Weekday,Dates\nKnots,Monday,7 Sept - 14 Dec 2026",
}


@pytest.mark.parametrize("kind", UNTIMED)
def test_a_weekday_beside_two_days_and_no_time_is_asked_about(kind: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, UNTIMED[kind])
    assert "an event every week, or one long event?" in refused(source)
    assert len(built(source, "--spans", "whole")) == 1
    assert (
        "every week on"
        in nomarium("build", source, "-o", tmp_path / "weekly.ics", "--set", "repeat=weekly").text
    )


def test_a_weekday_may_name_the_first_day_of_a_long_one(tmp_path: Path) -> None:
    table = "Holiday,Day,Start date,End date\nHarvest,Monday,12 Oct 2026,12 Oct 2026\nWinter,Friday,18 Dec 2026,3 Jan 2027\n"
    assert built(csv_file(tmp_path, table)) == [
        "Harvest 2026-10-12/2026-10-13",
        "Winter 2026-12-18/2027-01-04",
    ]
