"""Programmes of several days on one sheet or in one text, and what a text says beside its events: nothing of it is lost unseen."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, nomarium

DAYS = ["Planking 2027-04-15T09:00/2027-04-15T10:00 @ Hall A", "Rigging 2027-04-15T09:00/2027-04-15T10:00 @ Hall B", "Steam 2027-04-16T09:00/2027-04-16T10:00 @ Hall A",
        "Oars 2027-04-16T09:00/2027-04-16T10:00 @ Hall B", "Sails 2027-04-15T10:00/2027-04-15T11:00 @ Hall A", "Close 2027-04-16T10:00/2027-04-16T11:00 @ Hall A"]  # fmt: skip

STACKED = {
    "places under each day": "Thursday 15 April 2027,,\n,Hall A,Hall B\n9:00,Planking,Rigging\n10:00,Sails,\n,,\nFriday 16 April 2027,,\n,Hall A,Hall B\n9:00,Steam,Oars\n10:00,Close,",
    "a title above, and a heading over the times": "Boat days,,\nThursday 15 April 2027,,\nTime,Hall A,Hall B\n9:00,Planking,Rigging\n10:00,Sails,\nFriday 16 April 2027,,\nTime,Hall A,Hall B\n9:00,Steam,Oars\n10:00,Close,",
    "places once, above all days": "Time,Hall A,Hall B\nThursday 15 April 2027,,\n9:00,Planking,Rigging\n10:00,Sails,\nFriday 16 April 2027,,\n9:00,Steam,Oars\n10:00,Close,",
    "the day beside the places": "Thursday 15 April 2027,Hall A,Hall B\n9:00,Planking,Rigging\n10:00,Sails,\nFriday 16 April 2027,Hall A,Hall B\n9:00,Steam,Oars\n10:00,Close,",
}


@pytest.mark.parametrize("kind", STACKED)
def test_day_sheets_below_each_other_are_read_one_by_one(kind: str, tmp_path: Path) -> None:
    source = tmp_path / "days.csv"
    source.write_text(STACKED[kind] + "\n", "utf-8")
    assert sorted(built(source)) == sorted(DAYS)


def test_days_beyond_the_first_rows_are_days_too(tmp_path: Path) -> None:
    """What stands below the rows that are looked at first is no part of the last day found in them."""
    day = "{} April 2027,,\n,Hall A,Hall B\n" + "".join(
        f"{8 + n // 6:02}:{n % 6}0,a{n},b{n}\n" for n in range(90)
    )
    source = tmp_path / "days.csv"
    source.write_text("".join(day.format(n) for n in range(1, 9)), "utf-8")
    assert len(built(source)) == 8 * 180


def test_a_list_under_days_is_no_day_sheet(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Thursday 15 April 2027,,\nTime,Event,Place\n9:00,Planking,Loft\nFriday 16 April 2027,,\nTime,Event,Place\n9:00,Steam,Shed\n10:00,Close,Hall\n", "utf-8")  # fmt: skip
    assert len(built(source)) == 3


def test_a_time_in_a_row_of_its_own_of_a_day_sheet_is_refused(tmp_path: Path) -> None:
    source = tmp_path / "day.csv"
    source.write_text("Thursday 15 April 2027,,\n,Hall A,Hall B\n9:00,Planking,Rigging\n10:00,Sails,Knots\n19:00 Dinner,,\n", "utf-8")  # fmt: skip
    ran = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert ran.status == 1 and "row 5" in ran.err and "a time in a row of its own" in ran.err


DRAWN = "Thursday 15 April 2027\n\n            Hall A      Hall B\n9:00        Planking    Rigging\n10:00       Sails\n\n"
SECOND = "Friday 16 April 2027\n\n            Hall A      Hall B\n9:00        Steam       Oars\n10:00       Close\n"


def text_of(folder: Path, text: str) -> Path:
    source = folder / "notice.txt"
    source.write_text(text, "utf-8")
    return source


def test_days_that_a_text_draws_are_read_one_by_one(tmp_path: Path) -> None:
    assert sorted(built(text_of(tmp_path, DRAWN + SECOND))) == sorted(DAYS)


@pytest.mark.parametrize(
    "text",
    (
        DRAWN + "Evening\n19:00 Dinner, Mess\n",
        DRAWN + SECOND + "\n19:00 Dinner\n",
        "8:00 Breakfast\n\n" + DRAWN,
    ),
)
def test_times_beside_a_drawing_are_not_lost(text: str, tmp_path: Path) -> None:
    ran = nomarium("build", text_of(tmp_path, text), "-o", tmp_path / "o.ics")
    assert ran.status == 1 and "has a time of its own" in ran.err, ran.text


def test_lines_of_a_programme_draw_nothing(tmp_path: Path) -> None:
    text = "Thursday 15 April 2027\n\n9:00     Welcome\n11:00    Sessions\n         A  Planking    Room 1\n         B  Rigging     Room 2\n12:30    Lunch\n14:00    Workshop      Loft 3\n17:00    Close\n"
    source = text_of(tmp_path, text)
    assert [one.split(" 2027")[0] for one in built(source)] == [
        "Welcome",
        "Sessions",
        "Lunch",
        "Workshop",
        "Close",
    ]
    assert "“A Planking Room 1” and 1 other" in nomarium("survey", source).text


TOLD = {
    "a line under a date without a time": ("Fri 4 December 2026\n7a - Outing\n9:00 Assembly\n", "Passed over, for it stands under a date and has no time: “7a - Outing”."),
    "opening hours": ("Sat 5 December 2026: Fair\nOpen Tuesday–Saturday 10am–4pm\n", "Taken for no event, although it has a date or a time: “Open Tuesday–Saturday 10am–4pm”."),
    "a paper": ("Minutes of the slip committee, 4 November 2026\n\nSat 5 December 2026: Fair\n", "Taken for no event, although it has a date or a time: “Minutes of the slip"),
    "what was": ("We met on 30 October 2026 to thank everybody who helped us.\n\nSat 5 December 2026: Fair\n", "Taken for no event, although it has a date or a time: “We met"),
}  # fmt: skip


@pytest.mark.parametrize("kind", TOLD)
def test_what_is_passed_over_is_told(kind: str, tmp_path: Path) -> None:
    text, told = TOLD[kind]
    ran = nomarium("build", text_of(tmp_path, text), "-o", tmp_path / "o.ics", "--dry-run")
    assert ran.status == 0 and told in ran.text, ran.text


def test_the_place_of_a_sentence_may_follow_its_time(tmp_path: Path) -> None:
    text = "The next staff meeting is Wednesday 9 December 2026, 4pm, Loft 2.\n"
    assert built(text_of(tmp_path, text)) == ["Next staff meeting 2026-12-09T16:00/2026-12-09T17:00 @ Loft 2"]


def test_a_grid_may_number_its_times_and_name_its_breaks(tmp_path: Path) -> None:
    """A break has a label and a time alone, and heads nothing: the rows below it are rows of the grid."""
    source = tmp_path / "grid.csv"
    table = "Period,Time,Mon 7 Dec 2026,Tue 8 Dec 2026\n1,8:30-9:30,Joinery,Rigging\nBreak,9:30-9:45,,\n2,9:45-10:45,,Steam\n"
    source.write_text(table, "utf-8")
    assert built(source) == [
        "Joinery 2026-12-07T08:30/2026-12-07T09:30",
        "Rigging 2026-12-08T08:30/2026-12-08T09:30",
        "Steam 2026-12-08T09:45/2026-12-08T10:45",
    ]
    people = table.replace("Period,", "Teacher,").replace("\n1,", "\nAmaro,").replace("\n2,", "\nBell,")
    source.write_text(people, "utf-8")
    assert [one.split(" 2026")[0] for one in built(source)] == [
        "Amaro: Joinery",
        "Amaro: Rigging",
        "Bell: Steam",
    ]


def test_times_among_words_and_months_written_once_are_asked_about(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Date,Event,Notes\n4 Dec 2026,Sale,£1\n11 Dec 2026,Carols,6pm\n", "utf-8")
    assert (
        'to keep it as it is: --column "Notes=description"'
        in nomarium("build", source, "-o", tmp_path / "o.ics").err
    )
    source.write_text("Month,Date,Event\nSeptember,7,Start\n,9,Fair\nOctober,26-30,Half term\n", "utf-8")
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--school-year", "2026:2027")
    assert "The row has a day and no month." in ran.err and '--fill-down "Month"' in ran.err
    assert len(built(source, "--school-year", "2026:2027", "--fill-down", "Month")) == 3
