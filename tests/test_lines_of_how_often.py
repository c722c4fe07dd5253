"""Lines above and below weekly tables by which these are held less often than every week."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused

WEEKS = ("--from", "2027-01-11", "--until", "2027-01-26")
LIST = "Class,Day,Time\nKnots*,Monday,18:00-19:00\nOars,Tuesday,18:00-19:00\n"
DRAWN = "Time,Monday,Tuesday\n9:00-10:00,Knots*,Oars\n10:00-11:00,Rig,Tar\n"
NAMES = "Class,Monday,Tuesday\nKnots*,16:00-17:00,16:00-17:00\nRig,17:00-18:00,\n"
OFTEN = [
    "Classes run fortnightly", "Evening classes (alternate weeks)", "All clubs: every other week", "Held in odd weeks",
    "Clubs (first week of each month)", "Sessions are once a month", "* fortnightly",
]  # fmt: skip


@pytest.mark.parametrize("line", OFTEN)
@pytest.mark.parametrize("table", [LIST, DRAWN, NAMES])
def test_a_line_that_says_how_often_stops_what_would_be_held_every_week(line: str, table: str, tmp_path: Path) -> None:  # fmt: skip
    assert "says how often" in refused(csv_file(tmp_path, f"{line},,\n{table}"), *WEEKS)
    (tmp_path / "below").mkdir()
    assert line in refused(csv_file(tmp_path / "below", f"{table}{line},,\n"), *WEEKS)


@pytest.mark.parametrize("table", [LIST, DRAWN, NAMES])
@pytest.mark.parametrize("line", ["* starts 1 February 2027", "* not 18 January 2027"])
def test_a_line_about_some_rows_is_not_heard_for_all(line: str, table: str, tmp_path: Path) -> None:
    assert "what is marked with *" in refused(csv_file(tmp_path, f"{table}{line},,\n"), *WEEKS)


@pytest.mark.parametrize("table", [LIST, DRAWN, NAMES])
@pytest.mark.parametrize("line", ["Term time only", "No clubs in school holidays"])
def test_holidays_that_nothing_says_are_asked_for(line: str, table: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"{line},,\n{table}")
    assert "It leaves out holidays" in refused(source, *WEEKS)
    off = tmp_path / "off.csv"
    off.write_text("Name,First day,Last day\nBreak,2027-01-18,2027-01-22\n", "utf-8")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *WEEKS, "--days-off", off)
    assert outcome.status == 0, outcome.text
    text = (tmp_path / "o.ics").read_text("utf-8")
    assert "DTSTART:20270119" not in text and "DTSTART:20270126" in text


@pytest.mark.parametrize("line", ["* bring gloves", "Newsletter every week", "Questions? Ask Ms Quill"])
def test_other_lines_say_nothing_of_when(line: str, tmp_path: Path) -> None:
    assert len(built(csv_file(tmp_path, f"{LIST}{line},,\n"), *WEEKS)) == 6


def test_weeks_and_days_off_beside_names_and_times_are_heard(tmp_path: Path) -> None:
    text = f"Clubs run 11 January to 2 February 2027,,\n{NAMES}No classes 18-29 January 2027,,\n"
    assert sorted(one.split("T")[0] for one in built(csv_file(tmp_path, text))) == [
        "Knots* 2027-01-11", "Knots* 2027-01-12", "Knots* 2027-02-01", "Knots* 2027-02-02", "Rig 2027-01-11", "Rig 2027-02-01",
    ]  # fmt: skip
