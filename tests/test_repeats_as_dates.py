"""Tables that say when by how often alone: weekdays of the month and every so many weeks, in the window that the person names."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused

YEAR = ("--from", "2027-01-01", "--until", "2027-06-30")


def days(source: Path, *options: object) -> list[str]:
    """Month and day of each event called Board."""
    return [one.split("T")[0].removeprefix("Board 2027-") for one in built(source, *options) if one.startswith("Board")]  # fmt: skip


@pytest.mark.parametrize(
    ("said", "expected"),
    [
        ("2nd Tuesday", ["01-12", "02-09", "03-09", "04-13", "05-11", "06-08"]),
        ("2nd Tues except March & May", ["01-12", "02-09", "04-13", "06-08"]),
        ("2nd Tuesday (exc. March & May)", ["01-12", "02-09", "04-13", "06-08"]),
        ("last Thu of month", ["01-28", "02-25", "03-25", "04-29", "05-27", "06-24"]),
        ("1st & 3rd Wed", ["01-06", "01-20", "02-03", "02-17", "03-03", "03-17", "04-07", "04-21", "05-05", "05-19", "06-02", "06-16"]),
        ("3rd Mon of Mar, Jun, Sep, Dec", ["03-15", "06-21"]),
        ("first Sat in May", ["05-01"]),
        ("1st of the month", ["01-01", "02-01", "03-01", "04-01", "05-01", "06-01"]),
    ],
)  # fmt: skip
@pytest.mark.parametrize("heading", ["Meets", "Repeats", "Frequency", "Schedule", "When", "Dates"])
def test_how_often_is_when_where_no_column_has_dates(heading: str, said: str, expected: list[str], tmp_path: Path) -> None:  # fmt: skip
    text = f'Committee,{heading},Time\nBoard,"{said}",7pm\nYouth,1st Monday of the month,6pm\n'
    source = csv_file(tmp_path, text)
    assert days(source, *YEAR) == expected
    assert len(built(source, *YEAR)) == len(expected) + 6


def test_every_so_many_weeks_is_counted_from_the_window_and_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Committee,Meets,Time\nBoard,every 2 weeks on Thursday,7pm\n")
    assert "--from DATE" in refused(source)
    assert days(source, *YEAR)[:3] == ["01-07", "01-21", "02-04"]
    text = nomarium("survey", source, *YEAR).text
    assert "says which of them: it is counted from 2027-01-01" in text


def test_a_repeat_that_cannot_be_read_is_refused_by_its_row(tmp_path: Path) -> None:
    text = "Committee,Meets,Time\nBoard,2nd Tuesday,7pm\nYouth,when needed,6pm\n"
    assert "row 3, column B “Meets”: “when needed”" in refused(csv_file(tmp_path, text), *YEAR)


def test_weekdays_of_every_week_stay_a_timetable(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Committee,Meets,Time\nBoard,Mon & Thu,7pm\n")
    assert days(source, *YEAR)[:3] == ["01-04", "01-07", "01-11"]
    assert "no column has dates" not in nomarium("survey", source, *YEAR).text


@pytest.mark.parametrize("pattern", ["4 on 4 off", "4 on, 4 off", "5 days on / 2 days off"])
def test_a_pattern_of_shifts_is_not_passed_over(pattern: str, tmp_path: Path) -> None:
    text = f'Name,Shift pattern,First day\nFinch,"{pattern}",2027-02-01\nOsei,"{pattern}",2027-02-03\n'
    assert "may say when rows are held, and is not read" in refused(csv_file(tmp_path, text))
