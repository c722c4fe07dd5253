"""Lists with a column of months beside one of days, and lists whose sessions get their times by `--set-code`."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused

HEADS = "Month,Theme,Event,When\n"
ROWS = 'January,Cold,Open house,"Wed 13th, 6:30pm"\n,,Picture day,Tue 26th\nFebruary,Thaw,Half term,15-19\n,,Dance,"Fri 26, 7-9pm"\n,,Book fair,Feb 22-24\n'
EXPECTED = [
    "Open house 2027-01-13T18:30/2027-01-13T19:30", "Picture day 2027-01-26/2027-01-27", "Half term 2027-02-15/2027-02-20",
    "Book fair 2027-02-22/2027-02-25", "Dance 2027-02-26T19:00/2027-02-26T21:00",
]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "options"),
    [
        (f"Saltmarsh dates 2027\n{HEADS}{ROWS}", ()),
        (f"{HEADS}{ROWS}", ("--school-year", "2026:2027")),
        (f"{HEADS}{ROWS.replace('January', 'January 2027')}", ()),
        (f"{HEADS}{ROWS.replace('January,Cold', 'Jan 2027,Cold').replace(chr(10) + ',,', chr(10) + 'Feb 2027,,').replace('Feb 2027,,Picture', 'Jan 2027,,Picture').replace('February,', 'Feb 2027,')}", ()),
    ],
    ids=["a year above", "a school year", "a year once", "in each row"],
)  # fmt: skip
def test_days_are_of_the_month_beside_them(text: str, options: tuple[str, ...], tmp_path: Path) -> None:
    source = csv_file(tmp_path, text)
    assert sorted(built(source, *options)) == sorted(EXPECTED)
    assert "The days are those of the months beside them" in nomarium("survey", source, *options).text


def test_months_run_on_into_the_next_year(tmp_path: Path) -> None:
    rows = "November 2026,30,Launch\nJanuary,4,School reopens\n"
    expected = ["Launch 2026-11-30/2026-12-01", "School reopens 2027-01-04/2027-01-05"]
    assert built(csv_file(tmp_path, f"Month,When,Event\n{rows}")) == expected
    in_each = rows.replace("January,", "January 2027,")
    assert built(csv_file(tmp_path, f"Month,Day,Event\n{in_each}", "each.csv")) == expected


def test_months_without_a_year_are_asked_about(tmp_path: Path) -> None:
    assert "--school-year 2026:2027" in refused(csv_file(tmp_path, HEADS + ROWS))


EXAMS = "Exam,Date,Session,Duration\nRig 1,2027-05-11,AM,1h 45m\nRig 2,2027-05-20,am,1h 30m\nKnots,2027-05-21,PM,2h\n"


def test_the_times_of_sessions_can_be_said(tmp_path: Path) -> None:
    source = csv_file(tmp_path, EXAMS)
    text = refused(source)
    assert "nothing says at what time" in text
    assert '--set-code "AM=9:00-12:00"' in text
    assert built(source, "--set-code", "AM=9:00", "--set-code", "PM=13:30") == [
        "Rig 1 2027-05-11T09:00/2027-05-11T10:45", "Rig 2 2027-05-20T09:00/2027-05-20T10:30", "Knots 2027-05-21T13:30/2027-05-21T15:30",
    ]  # fmt: skip


def test_codes_that_no_row_has_are_of_no_use(tmp_path: Path) -> None:
    outcome = nomarium("build", csv_file(tmp_path, EXAMS), "-o", tmp_path / "a.ics", "--set-code", "E=9:00")
    assert (outcome.status, "no column of it names sessions by these codes" in outcome.err) == (2, True)


@pytest.mark.parametrize("word", ["Online", "TBA", "Asynchronous", "arr."])
def test_courses_that_meet_on_no_day_are_left_out_and_told(word: str, tmp_path: Path) -> None:
    text = f"Course,Meets,Room,Dates\nRigging,MW 1:00p-2:15p,L1,2027-02-01 - 2027-02-14\nKnots,{word},,2027-02-01 - 2027-02-14\n"
    source = csv_file(tmp_path, text)
    assert [one.split("T")[0] for one in built(source)] == [
        f"Rigging 2027-02-{day:02}" for day in (1, 3, 8, 10)
    ]
    outcome = nomarium("survey", source)
    assert "Left out, for nothing says on which day they are: row 3 (Knots)" in outcome.text
    assert "2 rows read = 1 event + 1 note" in outcome.text


@pytest.mark.parametrize(
    "weeks", [("1 (8/2)", "2 (15/2)"), ("Week 1: 8 Feb", "Week 2: 15 Feb"), ("Wk 1 (8 Feb)", "Wk 2 (15 Feb)")]
)
def test_weeks_of_a_planner_have_the_date_behind_their_number(weeks: tuple[str, str], tmp_path: Path) -> None:
    text = f"TERM 1 2027,,\nWEEK,MON,WED\n{weeks[0]},Assembly,\n{weeks[1]},,Regatta\n"
    assert built(csv_file(tmp_path, text)) == ["Assembly 2027-02-08/2027-02-09", "Regatta 2027-02-17/2027-02-18"]  # fmt: skip


def test_a_stage_may_be_a_step_of_the_work_and_is_no_place_unasked(tmp_path: Path) -> None:
    text = "Day,Time,Stage,Act\n2027-06-10,18:00-19:00,Main slip,Opening\n2027-06-11,20:00-21:00,Yard,Heron trio\n"
    acts = ["Opening 2027-06-10T18:00/2027-06-10T19:00", "Heron trio 2027-06-11T20:00/2027-06-11T21:00"]
    path = csv_file(tmp_path, text)
    assert built(path) == acts
    assert built(path, "--column", "Stage=location") == [f"{acts[0]} @ Main slip", f"{acts[1]} @ Yard"]


def test_when_the_crew_is_called_is_no_start(tmp_path: Path) -> None:
    text = "Boat,Launch date,Crew call,Launch time\nHeron,2027-03-12,07:30,09:15\n"
    assert "“Crew call” holds times" in refused(csv_file(tmp_path, text))
    assert built(tmp_path / "events.csv", "--column", "Crew call=") == ["Heron 2027-03-12T09:15/2027-03-12T10:15"]  # fmt: skip
