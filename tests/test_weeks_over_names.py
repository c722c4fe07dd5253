"""Rosters of weekdays whose weeks stand above, beside or over the names, and what tables count in weeks."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from helpers import built, nomarium, refused

WEEK = ("--school-year", "2026:2027")
TWO_WEEKS = [
    "Quill: Loft 2026-12-15/2026-12-16", "Quill: Slip 1 2026-12-07/2026-12-08", "Quill: Slip 2 2026-12-08/2026-12-09",
    "Tiller: Loft 2026-12-08/2026-12-09", "Tiller: Slip 2 2026-12-14/2026-12-15",
]  # fmt: skip
FIRST, SECOND = "Quill,Slip 1,Slip 2\nTiller,OFF,Loft", "Quill,,Loft\nTiller,Slip 2,-"
WEEKS_OVER_NAMES = {
    "weekdays once above all weeks": f"Name,Mon,Tue\nW/C 7 December 2026,,\n{FIRST}\nW/C 14 December 2026,,\n{SECOND}",
    "the week at the head of its names": f"Week commencing 7 Dec 2026,Mon,Tue\n{FIRST}\nWeek commencing 14 Dec 2026,Mon,Tue\n{SECOND}",
    "weeks by number and date": f",Mon,Tue\nWeek 1 (7/12/26),,\n{FIRST}\nWeek 2 (14/12/26),,\n{SECOND}",
    "weeks by number and day": f"Week 1: 7 Dec,Mon,Tue\n{FIRST}\nWeek 2 – 14 Dec,Mon,Tue\n{SECOND}",
    "a column of weeks": "Week,Name,Mon,Tue\n7 Dec 2026,Quill,Slip 1,Slip 2\n7 Dec 2026,Tiller,OFF,Loft\n14 Dec 2026,Quill,,Loft\n14 Dec 2026,Tiller,Slip 2,-",
    "a column of weeks behind the names": "Name,w/c,Mon,Tue\nQuill,w/c 7 Dec 2026,Slip 1,Slip 2\nTiller,w/c 7 Dec 2026,OFF,Loft\nQuill,w/c 14 Dec 2026,,Loft\nTiller,w/c 14 Dec 2026,Slip 2,-",
}  # fmt: skip


@pytest.mark.parametrize("kind", WEEKS_OVER_NAMES)
def test_each_name_is_in_its_own_week(kind: str, tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text(WEEKS_OVER_NAMES[kind] + "\n", "utf-8")
    assert sorted(built(source, *WEEK)) == TWO_WEEKS


WEEKS_ACROSS = {
    "weeks over weekdays": (",Week of 7 Dec 2026,Week of 14 Dec 2026\nMon,Quill,Perrin\nTue (half),Bell,-", ["Bell 8", "Perrin 14", "Quill 7"]),
    "posts under each week": (
        ",7/12/2026,,14/12/2026,\n,Lead,Helper,Lead,Helper\nMon,Quill,Bell,Perrin,\nTue,,Bell,,Quill",
        ["Helper: Bell 7", "Helper: Bell 8", "Helper: Quill 15", "Lead: Perrin 14", "Lead: Quill 7"],
    ),
    "posts beside the weekdays": (
        "Day,Duty,w/c 7 Dec 2026,w/c 14 Dec 2026\nMon,Lock-up,Quill,Perrin\n,Tea,Bell,\nTue,Tea,,Quill",
        ["Lock-up: Perrin 14", "Lock-up: Quill 7", "Tea: Bell 7", "Tea: Quill 15"],
    ),
    "the days on which weeks end": (",w/e 11 Dec 2026,w/e 18 Dec 2026\nMon,Quill,Perrin\nTue,Bell,-", ["Bell 8", "Perrin 14", "Quill 7"]),
    "from a day to another one": (",7-11 Dec 2026,14-18 Dec 2026\nMon,Quill,Perrin\nTue,Bell,-", ["Bell 8", "Perrin 14", "Quill 7"]),
    "weeks by their number": (",Week 1,Week 2\nMon,Quill,Perrin\nTue,Bell,-", ["Bell 8", "Perrin 14", "Quill 7"]),
    "posts under each date": (",7 Dec 2026,,8 Dec 2026,\n,Lead,Helper,Lead,Helper\nSlip,Quill,Bell,Perrin,-\nLoft,,Bell,,", ["Loft: Bell (Helper) 7", "Slip: Bell (Helper) 7", "Slip: Perrin (Lead) 8", "Slip: Quill (Lead) 7"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", WEEKS_ACROSS)
def test_weeks_stand_across_weekdays(kind: str, tmp_path: Path) -> None:
    text, expected = WEEKS_ACROSS[kind]
    source = tmp_path / "duties.csv"
    source.write_text(text + "\n", "utf-8")
    options = ("--day-one", "2026-12-07") if "Week 1" in text else ()
    days = [f"{one.split(' 2026-')[0]} {int(one[-2:]) - 1}" for one in built(source, *options)]
    assert sorted(days) == expected


def test_a_row_between_weekdays_that_is_none_is_refused(tmp_path: Path) -> None:
    source = tmp_path / "duties.csv"
    source.write_text(
        ",Week of 7 Dec 2026,Week of 14 Dec 2026\nMon,Quill,Perrin\nTue,Bell,-\nWeekend,Quill,\n", "utf-8"
    )
    assert "row 4, column A: “Weekend”" in refused(source)


def test_weeks_of_hours_are_not_held_in_every_week(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Name,Mon,Tue\nW/C 7 December 2026,,\nQuill,9-5,OFF\nW/C 14 December 2026,,\nQuill,12-8,9-5\n", "utf-8")  # fmt: skip
    events = ["Quill 2026-12-07T09:00/2026-12-07T17:00", "Quill 2026-12-14T12:00/2026-12-14T20:00", "Quill 2026-12-15T09:00/2026-12-15T17:00"]  # fmt: skip
    assert sorted(built(source, "--from", "2026-12-07", "--until", "2026-12-20")) == events


def test_a_week_that_is_written_once_for_its_names_is_asked_about(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Week,Name,Mon,Tue\n7 Dec 2026,Quill,Slip 1,Slip 2\n,Tiller,OFF,Loft\n14 Dec 2026,Quill,,Loft\n,Tiller,Slip 2,-\n", "utf-8")  # fmt: skip
    assert '--fill-down "Week"' in refused(source, *WEEK)
    assert sorted(built(source, "--fill-down", "Week", *WEEK)) == TWO_WEEKS
    source = tmp_path / "other.csv"
    source.write_text("Week,Name,Mon,Tue\n9 Dec 2026,Quill,Slip 1,\n9 Dec 2026,Tiller,,Loft\n", "utf-8")
    assert "“9 Dec 2026” is no day on which its week can begin." in refused(source)


def test_what_stands_below_a_drawn_week_is_accounted_for(tmp_path: Path) -> None:
    source, weeks = tmp_path / "week.csv", ("--from", "2026-12-07", "--until", "2026-12-13")
    drawn = "Name,Mon,Tue\nQuill,9-5,OFF\nTiller,,12-8\n"
    source.write_text(drawn + "Swaps through the office,,\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics", "--json", *weeks)
    account = json.loads(said.out)["ledger"]
    assert (account["read"], account["events"], account["notes"]) == (3, 2, 1), said.text
    source.write_text(drawn + '"w/c 7 Dec 2026 only, then see the board",,\n', "utf-8")
    assert "“w/c 7 Dec 2026 only, then see the board”" in refused(source, *weeks)


HOURS = {
    "nine to five, and nothing else": ("9-5", "2026-12-07T09:00/2026-12-07T17:00"),
    "an evening until twelve": ("4-12", "2026-12-07T16:00/2026-12-08T00:00"),
}


@pytest.mark.parametrize("kind", HOURS)
def test_hours_of_a_roster(kind: str, tmp_path: Path) -> None:
    hours, span = HOURS[kind]
    source = tmp_path / "rota.csv"
    beside = "9-5" if hours == "9-5" else "8-4"
    source.write_text(f"Name,7 Dec 2026,8 Dec 2026\nQuill,{hours},\nTiller,,{beside}\n", "utf-8")
    assert f"Quill {span}" in built(source)


def test_twelve_after_an_evening_is_midnight(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Event,Date,Time\nDance,2026-12-07,7pm-12\nParty,2026-12-08,8pm-12.30\n", "utf-8")
    assert built(source) == ["Dance 2026-12-07T19:00/2026-12-08T00:00", "Party 2026-12-08T20:00/2026-12-09T00:30"]  # fmt: skip


def test_shifts_are_no_people_and_what_shows_the_clock_is_told_in_words(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Shift,Mon 7/12/26,Tue 8/12/26\nEarly (7-3),Amaro,Bell\nLate (3-11),Osei,Osei\n", "utf-8")  # fmt: skip
    said = nomarium("build", source, "-o", tmp_path / "o.csv").text
    assert "Clock(" not in said
    assert "Person" not in (tmp_path / "o.csv").read_text("utf-8").splitlines()[0]
    assert "Early: Amaro" in (tmp_path / "o.csv").read_text("utf-8")


COUNTED = {
    "a heading in weeks": "Course,Starts,Duration (weeks),Time\nKnots,2027-01-12,2,7pm-9pm\nTar,2027-01-16,1,9:00-12:00",
    "cells in weeks beside weekdays": "Course,Starts,Duration,Day,Time\nKnots,2027-01-12,2 weeks,Tuesdays,7pm-9pm\nTar,2027-01-16,1 day,Saturday,9:00-12:00",
    "cells in weeks": "Course,When,Length\nKnots,12 Jan 2027 7pm-9pm,2 weeks\nTar,16 Jan 2027 9:00-12:00,1 week",
}  # fmt: skip


@pytest.mark.parametrize("kind", COUNTED)
def test_a_length_in_weeks_of_rows_with_times_is_how_often_they_meet(kind: str, tmp_path: Path) -> None:
    source = tmp_path / "courses.csv"
    source.write_text(COUNTED[kind] + "\n", "utf-8")
    assert sorted(built(source)) == [
        "Knots 2027-01-12T19:00/2027-01-12T21:00",
        "Knots 2027-01-19T19:00/2027-01-19T21:00",
        "Tar 2027-01-16T09:00/2027-01-16T12:00",
    ]


def test_a_length_in_weeks_without_times_is_a_length_and_other_units_count_nothing(tmp_path: Path) -> None:
    source = tmp_path / "yard.csv"
    source.write_text("Refit,Begins,Duration (weeks)\nGull,2027-01-12,2\nTern,2027-02-14,1\n", "utf-8")
    assert built(source) == ["Gull 2027-01-12/2027-01-26", "Tern 2027-02-14/2027-02-21"]
    source = tmp_path / "courses.csv"
    source.write_text("Course,Starts,Duration,Time\nKnots,2027-01-12,2 weeks,7pm-9pm\nTar,2027-01-16,3 months,7pm-9pm\n", "utf-8")  # fmt: skip
    assert "“3 months” does not say how many times the row takes place." in refused(source)


def test_a_date_of_several_that_is_not_known_yet_is_told(tmp_path: Path) -> None:
    source = tmp_path / "groups.csv"
    source.write_text("Group,First,Second\nA,2027-01-12,2027-01-19\nB,2027-01-13,TBC\n", "utf-8")
    said = json.loads(nomarium("build", source, "-o", tmp_path / "o.ics", "--json").out)
    told = [one for one in said["notes"] if one["code"] == "milestone-open"]
    assert [(one["row"], one["column"], one["cell"]) for one in told] == [(3, "C", "TBC")]


def test_heads_that_are_a_working_week_show_the_order_of_their_figures(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Staff,07/12/26,08/12/26,09/12/26,10/12/26,11/12/26\nQuill,AL,W,W,W,W\nTiller,W,W,S,W,W\n", "utf-8")  # fmt: skip
    said = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert said.status == 0, said.text
    assert "read day first: only then are they whole weeks from a Monday on" in said.text
    assert built(source)[0] == "Quill: AL 2026-12-07/2026-12-08"


def test_the_first_of_each_month_is_no_week(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Staff,01/08/26,01/09/26,01/10/26,01/11/26,01/12/26\nQuill,AL,W,W,W,W\nTiller,W,W,S,W,W\n", "utf-8")  # fmt: skip
    assert "could be 1 August 2026 or 8 January 2026" in refused(source)


def test_what_settles_the_dates_of_a_drawing_is_told(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Staff,12/12/2026,13/12/2026\nQuill,AL,W\nTiller,W,S\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert "row 1 is “13/12/2026” (13 is no month)" in said.text


def test_short_rows_beside_weeks_have_none(tmp_path: Path) -> None:
    source = tmp_path / "rota.csv"
    source.write_text("Week,Name,Mon,Tue\n7 Dec 2026,Quill,Slip 1,\n7 Dec 2026,Tiller,,Loft\n\n,,\n14 Dec 2026,Quill\n14 Dec 2026,Tiller,Loft\n", "utf-8")  # fmt: skip
    assert built(source)[-1] == "Tiller: Loft 2026-12-14/2026-12-15"
