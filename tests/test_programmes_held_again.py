"""A programme of one day, and one that is held again and again: what stands above it says which."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused

HALLS = "Time,Loft 1,Loft 2\n18:00-19:00,Knots,Rig\n19:00-20:00,Oars,\n"
ON_TWO = [
    "Knots 2027-01-12T18:00/2027-01-12T19:00 @ Loft 1", "Knots 2027-01-19T18:00/2027-01-19T19:00 @ Loft 1",
    "Oars 2027-01-12T19:00/2027-01-12T20:00 @ Loft 1", "Oars 2027-01-19T19:00/2027-01-19T20:00 @ Loft 1",
    "Rig 2027-01-12T18:00/2027-01-12T19:00 @ Loft 2", "Rig 2027-01-19T18:00/2027-01-19T19:00 @ Loft 2",
]  # fmt: skip


@pytest.mark.parametrize(
    "title",
    [
        "Spring block: Tuesdays from 12 January 2027 (2 weeks)",
        "Every Tuesday 12 January to 19 January 2027",
        "Tuesday evenings, 12 January – 19 January 2027",
        "Tuesdays 12 & 19 January 2027",
        "Weekly from Tuesday 12 January 2027 for 2 weeks",
    ],
)
def test_a_programme_under_its_days_is_held_on_each(title: str, tmp_path: Path) -> None:
    assert sorted(built(csv_file(tmp_path, f'"{title}",,\n{HALLS}'))) == ON_TWO
    alone = csv_file(tmp_path, HALLS)
    assert sorted(built(alone, "--set", f"date={title.removeprefix('Spring block: ')}")) == ON_TWO


def test_times_across_are_held_again_too(tmp_path: Path) -> None:
    text = "Tuesdays from 12 January 2027 (2 weeks),,\nCourt,6.00pm,7.00pm\n1,Juniors,Free\n2,,Hire\n"
    found = built(csv_file(tmp_path, text))
    assert sorted(found) == [
        "Hire 2027-01-12T19:00/2027-01-12T20:00 @ Court 2", "Hire 2027-01-19T19:00/2027-01-19T20:00 @ Court 2",
        "Juniors 2027-01-12T18:00/2027-01-12T19:00 @ Court 1", "Juniors 2027-01-19T18:00/2027-01-19T19:00 @ Court 1",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("title", "said"),
    [
        ("Tuesdays from 12 January 2027", "has no end"),
        ("Weekly in the lofts 12 January 2027", "says more than one day"),
        ("Most Tuesdays of term from about 12 January 2027", "says more than one day"),
    ],
)
def test_days_that_cannot_be_told_are_asked_about(title: str, said: str, tmp_path: Path) -> None:
    assert said in refused(csv_file(tmp_path, f"{title},,\n{HALLS}"))


def test_a_programme_that_goes_on_after_midnight_is_not_held_again(tmp_path: Path) -> None:
    text = f"Tuesdays from 12 January 2027 (2 weeks),,\n{HALLS}23:00-00:30,Tar,\n00:30-01:30,Glue,\n"
    assert "on the next morning" in refused(csv_file(tmp_path, text))


@pytest.mark.parametrize("title", ["Tuesday 12 January 2027", "Children's day, 12 January 2027"])
def test_one_day_is_one_day(title: str, tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, f'"{title}",,\n{HALLS}'))
    assert sorted(found) == [one for one in ON_TWO if "2027-01-12" in one]


@pytest.mark.parametrize(
    "title", ["Timetable from 12 January 2027", "New times as of 12 January 2027", "12 January 2027 onwards"]
)
def test_a_day_from_which_a_programme_is_held_is_not_its_only_one(title: str, tmp_path: Path) -> None:
    assert "nothing says of which day" in refused(csv_file(tmp_path, f"{title},,\n{HALLS}"))
    assert "--set date=" in refused(csv_file(tmp_path, f"{title},\nTime,Class\n18:00,Knots\n19:00,Oars\n"))


@pytest.mark.parametrize(
    "title", ["Clubs: 12 January 2027 for 10 weeks", "Weekly in the lofts 12 January 2027"]
)
def test_a_title_of_several_weeks_is_no_single_date_of_a_list(title: str, tmp_path: Path) -> None:
    assert "--set date=" in refused(csv_file(tmp_path, f"{title},\nTime,Class\n18:00,Knots\n19:00,Oars\n"))


def test_rows_of_a_list_are_held_on_the_days_above_them(tmp_path: Path) -> None:
    text = (
        "Class,Time,Room\n"
        "Tuesdays from 12 January 2027 (2 weeks),,\nKnots,6pm,Loft 1\n"
        "Thursdays: 14 January 2027 to 21 January 2027,,\nRig,6pm,Loft 2\n"
    )
    assert sorted(built(csv_file(tmp_path, text))) == [
        "Knots 2027-01-12T18:00/2027-01-12T19:00 @ Loft 1", "Knots 2027-01-19T18:00/2027-01-19T19:00 @ Loft 1",
        "Rig 2027-01-14T18:00/2027-01-14T19:00 @ Loft 2", "Rig 2027-01-21T18:00/2027-01-21T19:00 @ Loft 2",
    ]  # fmt: skip
    bare = "Tuesdays from 12 January 2027 (2 weeks)\n6pm,Knots,Loft 1\nThursdays from 14 January 2027 (2 weeks)\n6pm,Rig,Loft 1\n"
    (tmp_path / "bare").mkdir()
    assert "Give each row its date" in refused(csv_file(tmp_path / "bare", bare))


def test_remarks_beside_the_places_are_none_of_them(tmp_path: Path) -> None:
    text = "Tuesday 12 January 2027,,,\nTime,Main slip,Sail loft,Notes\n18:00-19:00,Juniors,Yoga,Bring mats\n19:00-20:00,Seniors,,\n"
    found = built(csv_file(tmp_path, text))
    assert sorted(found) == [
        "Juniors 2027-01-12T18:00/2027-01-12T19:00 @ Main slip", "Seniors 2027-01-12T19:00/2027-01-12T20:00 @ Main slip",
        "Yoga 2027-01-12T18:00/2027-01-12T19:00 @ Sail loft",
    ]  # fmt: skip
    (tmp_path / "when").mkdir()
    said = refused(csv_file(tmp_path / "when", text.replace("Bring mats", "From 19 January")))
    assert "may say when something is" in said and "“Notes”" in said


def test_the_day_on_which_a_sheet_was_printed_is_not_its_day(tmp_path: Path) -> None:
    text = f"Last updated 12 January 2027,,\n{HALLS}"
    assert "nothing says of which day" in refused(csv_file(tmp_path, text))
