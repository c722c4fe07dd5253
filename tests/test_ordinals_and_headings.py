"""Days with their endings in phrases that repeat, months before their days, and headings over notices that are not their titles."""

from pathlib import Path

import pytest

from helpers import built, csv_file

TUESDAYS = ["2026-10-06", "2026-10-13", "2026-10-20", "2026-10-27"]
NEXT = ["2026-10-06", "2026-10-07", "2026-10-08"]


@pytest.mark.parametrize(
    ("repeat", "days"),
    [
        ("every Tuesday until 27th October 2026", TUESDAYS), ("Tuesdays until the 27th of October 2026", TUESDAYS),
        ("weekly until October 27th, 2026", TUESDAYS), ("each Tuesday to 27th October 2026", TUESDAYS),
        ("alternate Tuesdays until 27th October 2026", TUESDAYS[::2]), ("every day for 3 days", NEXT),
        ("daily until 8th October 2026", NEXT), ("first Tuesday of the month until 3rd November 2026", ["2026-10-06", "2026-11-03"]),
    ],
)  # fmt: skip
def test_days_with_their_endings_bound_repeats(repeat: str, days: list[str], tmp_path: Path) -> None:
    text = f"Event,Date,Repeat\nKnots,2026-10-06,{repeat!r}".replace("'", '"')
    assert [one.split()[1].split("/")[0] for one in built(csv_file(tmp_path, text))] == days


@pytest.mark.parametrize(
    ("when", "days"),
    [
        ("Every Tuesday 14:00-15:00 from 6th October 2026, 4 sessions", TUESDAYS),
        ("Every day 2pm - 3pm from 6th October 2026 to 8th October 2026", NEXT),
        ("Tuesdays, 14:00 - 15:00, 6th October 2026 - 27th October 2026", TUESDAYS),
        ("Every Tuesday and Wednesday 2:00pm - 3:00pm from 6th October 2026 to 13th October 2026", [*NEXT[:2], TUESDAYS[1]]),
    ],
)  # fmt: skip
def test_phrases_of_when_with_days_that_have_endings(when: str, days: list[str], tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, f'Event,When\nKnots,"{when}"'))
    assert [one.split()[1] for one in found] == [f"{day}T14:00/{day}T15:00" for day in days]


NOTICES = [
    "{}\n\n28 December 2026 12:30pm Prize giving at Great Hall\n\n1 February 2027 1pm Mock exam at Great Hall\n",
    "{}\n\nDecember 28 2026 – 12:30 PM – Prize giving – Great Hall\nFebruary 1 2027 – 1:00 PM – Mock exam – Great Hall\n",
]


@pytest.mark.parametrize("notice", NOTICES)
@pytest.mark.parametrize("heading", ["Dates for your diary", "SALTMARSH NEWS", "Please note these dates."])
def test_a_heading_over_a_notice_is_no_title_of_its_lines(notice: str, heading: str, tmp_path: Path) -> None:
    path = tmp_path / "notice.txt"
    path.write_text(notice.format(heading), "utf-8")
    assert built(path) == [
        "Prize giving 2026-12-28T12:30/2026-12-28T13:30 @ Great Hall", "Mock exam 2027-02-01T13:00/2027-02-01T14:00 @ Great Hall",
    ]  # fmt: skip


@pytest.mark.parametrize("line", ["September 9 – 2:00 PM – Concert – Town hall", "September 9 - 2:00 PM–3:00 PM - Concert - Town hall"])  # fmt: skip
def test_a_day_behind_its_month_is_no_hour(line: str, tmp_path: Path) -> None:
    path = tmp_path / "notice.txt"
    path.write_text(f"Dates\n\n{line}\nOctober 11 – 5:30 PM – Meeting – Library\n", "utf-8")
    assert (
        built(path, "--school-year", "2026:2027")[0]
        == "Concert 2026-09-09T14:00/2026-09-09T15:00 @ Town hall"
    )


def test_an_hour_behind_a_day_and_its_month_is_one(tmp_path: Path) -> None:
    path = tmp_path / "notice.txt"
    path.write_text("Dates\n\n5 September 9 – 11.30am Regatta\n", "utf-8")
    assert built(path, "--school-year", "2026:2027") == ["Regatta 2026-09-05T09:00/2026-09-05T11:30"]


def test_dated_lines_that_are_places_are_of_the_heading_over_them(tmp_path: Path) -> None:
    path = tmp_path / "tour.md"
    path.write_text(
        "## Paddle race\n\n13 September 2026, 4.45pm – Boathouse\n\n## Sail day\n\n20 September 2026, 2pm – Main slip\n", "utf-8"
    )  # fmt: skip
    assert [one.split(" 2026")[0] for one in built(path)] == ["Paddle race", "Sail day"]
