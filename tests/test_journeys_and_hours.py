"""Journeys and stays, opening hours, months written once over their days, bars, counted rows."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, nomarium, refused

READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a journey through the night": (
        "Flight,Date,Departs,Arrives\nA,2026-12-07,10:00,17:00\nB,2026-12-13,22:00,06:00", (),
        ["A 2026-12-07T10:00/2026-12-07T17:00", "B 2026-12-13T22:00/2026-12-14T06:00"],
    ),
    "a journey, shortened": ("Flight,Date,Dep,Arr\nB,2026-12-13,22:00,06:00", (), ["B 2026-12-13T22:00/2026-12-14T06:00"]),
    "a stay, whatever stands first": (
        "Guest,Date,Leaves,Arrives\nA,2026-12-07,17:00,9:00\nB,2026-12-13,16:00,10:00", (),
        ["A 2026-12-07T09:00/2026-12-07T17:00", "B 2026-12-13T10:00/2026-12-13T16:00"],
    ),
    "opening hours": ("Date,Opening,Closing\n2026-12-07,10:00,17:00", ("--set", "summary=Open"), ["Open 2026-12-07T10:00/2026-12-07T17:00"]),
    "months written once over their days": (
        ",December 2026,,January 2027,\nQuill,5,12,9,16\nTiller,6,13,10,", (),
        [f"Quill {a}/{b}" for a, b in (("2026-12-05", "2026-12-06"), ("2026-12-12", "2026-12-13"), ("2027-01-09", "2027-01-10"), ("2027-01-16", "2027-01-17"))]
        + [f"Tiller {a}/{b}" for a, b in (("2026-12-06", "2026-12-07"), ("2026-12-13", "2026-12-14"), ("2027-01-10", "2027-01-11"))],
    ),
    "days from a start": ("Task,Start,Days\nPlank,07/12/2026,3\nPaint,13/12/2026,1", (), ["Plank 2026-12-07/2026-12-10", "Paint 2026-12-13/2026-12-14"]),
    "days from a start to an end": ("Course,Starts,Ends,Days\nPlank,07/12/2026,09/12/2026,3\nCaulk,20/12/2026,21/12/2026,2", (), ["Plank 2026-12-07/2026-12-10", "Caulk 2026-12-20/2026-12-22"]),
    "sessions that are only counted": (
        "Course,Session,Date,Start,End\nKnots,1 of 2,13/01/2027,19:00,21:00\nKnots,2 of 2,20/01/2027,19:00,21:00", (),
        ["Knots 2027-01-13T19:00/2027-01-13T21:00", "Knots 2027-01-20T19:00/2027-01-20T21:00"],
    ),
    "a list on its side": (
        "When,Sat 12 Dec 2026 7.30pm,Sun 13 Dec 2026 3pm\nWhat,Winter concert,Tea dance\nWhere,Main hall,Loft 2\nTickets,£8,£5", (),
        ["Winter concert 2026-12-12T19:30/2026-12-12T20:30 @ Main hall", "Tea dance 2026-12-13T15:00/2026-12-13T16:00 @ Loft 2"],
    ),
    "bars through their days": (
        "Task,Mon 7 Dec 2026,Tue 8 Dec 2026,Wed 9 Dec 2026\nPlank hull,████,████,\nPaint,,,██", (),
        ["Plank hull 2026-12-07/2026-12-08", "Plank hull 2026-12-08/2026-12-09", "Paint 2026-12-09/2026-12-10"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_what_columns_say_together(kind: str, tmp_path: Path) -> None:
    table, options, events = READ[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert sorted(built(source, *options)) == sorted(events)


ASKED = {
    "opening hours without a title": ("Date,Opening,Closing\n2026-12-07,10:00,17:00", "--set summary=TITLE"),
    "rows that are only counted": ("Sitting,Adults,Date,Time\n1st,20,2026-12-12,12:00\n2nd,18,2026-12-12,13:30", "says what each event is called"),
    "a list on its side without dates": ("Title,A,B\nDate,soon,later\nStart,9:00,10:00", "lie on its side"),
    "a programme of one day": ("Time,Item,By,Mins\n09:30,Welcome,Quill,10\n,Minutes,,5\n10:15,Break,,15", "For one day only: --set date="),
}  # fmt: skip


@pytest.mark.parametrize("kind", ASKED)
def test_what_columns_leave_open(kind: str, tmp_path: Path) -> None:
    table, said = ASKED[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert said in refused(source)


def test_closed_hours_under_titles_are_counted(tmp_path: Path) -> None:
    source = tmp_path / "prayers.csv"
    source.write_text("Date,Matins,Evensong\n2026-12-07,8:00,17:30\n2026-12-08,closed,17:30\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert said.status == 0, said.text
    assert "Cells in which nothing is held (a dash, “closed” …): 1." in said.text


def test_the_time_of_a_post_by_the_remedy_to_the_letter(tmp_path: Path) -> None:
    source = tmp_path / "duties.csv"
    source.write_text("Duty,Mon 7 Dec 2026,Tue 8 Dec 2026\nGate 8.15-8.40,Ines,Paul\nLock-up 17:30,Paul,\n17:45 Alarm,,Ines\n", "utf-8")  # fmt: skip
    assert built(source) == [
        "Gate: Ines 2026-12-07T08:15/2026-12-07T08:40",
        "Gate: Paul 2026-12-08T08:15/2026-12-08T08:40",
        "Lock-up: Paul 2026-12-07T17:30/2026-12-07T18:30",
        "Alarm: Ines 2026-12-08T17:45/2026-12-08T18:45",
    ]


@pytest.mark.parametrize(
    ("row", "cell", "said"),
    [
        (",,Thu,8.30,10", "“What”", "The row says when and not what."),
        ("Bray,Rig,Thu,half past eightish,10", "“from”", "is not a time."),
    ],
)
def test_one_odd_row_of_weekdays_is_blamed_for_what_it_lacks(
    row: str, cell: str, said: str, tmp_path: Path
) -> None:
    source = tmp_path / "lofts.csv"
    source.write_text(f"Who,What,Day(s),from,till\nBray,Sail,Mon + Wed,9.15,10.45\nPerrin,Mould,Tue,13h30,15h\n{row}\n", "utf-8")  # fmt: skip
    text = refused(source, "--from", "2026-11-30", "--until", "2026-12-20")
    assert said in text
    assert cell in text
    assert "is not a date" not in text
    assert "1 problem." in text
