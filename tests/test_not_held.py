"""Words of rows and cells that repeat and say when they are not held: heard, or refused, and never passed over."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.rows.barred import barred_in
from test_lines_beside_weekdays import plan_book
from test_whose_classes import BELL

WEEKS = ("--from", "2027-02-08", "--until", "2027-02-26")
TERM = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-26"]]


@pytest.mark.parametrize(
    ("text", "said", "count"),
    [
        ("No class 15 Feb", "No class 15 Feb", 1),
        ("Choir - not on 15th February", "not on 15th February", 1),
        ("closed 15/2 and 22/2", "closed 15/2 and 22/2", 2),
        ("(no swimming Feb 15 & 22)", "no swimming Feb 15 & 22", 2),
        ("excl. 15-19 Feb", "excl. 15-19 Feb", 1),
        ("Chapel, not 15th", "not 15th", None),
        ("not running w/c 15 Feb", "not running w/c 15 Feb", None),
        ("No classes during half term", "No classes during half term", None),
    ],
)
def test_a_clause_that_leaves_days_out(text: str, said: str, count: int | None) -> None:
    barred = barred_in(text, ENGLISH)
    assert barred is not None
    assert (barred.text, barred.days and len(barred.days)) == (said, count)
    assert barred.are_holidays is ("half term" in text)


@pytest.mark.parametrize(
    "text",
    ["Not suitable for under 5s", "no later than 15 Feb", "No. 3", "not 15 minutes", "not before 7pm", "Limited to 12, not 15", "no more than 12 people", "no refunds after 15 Feb", "Except Mondays", ""],
)  # fmt: skip
def test_other_words_leave_no_days_out(text: str) -> None:
    assert barred_in(text, ENGLISH) is None


def choir(row: str) -> str:
    return f"Class,Day,Time,Notes\n{row}\nOars,Tuesday,6pm,\n"


HEARD = [
    '"Choir - not 15 Feb",Monday,7pm,',
    "Choir,Monday,7pm,No class 15 Feb",
    "Choir,Monday,7pm,Closed 15/2",
]


@pytest.mark.parametrize("row", HEARD)
def test_days_that_the_words_of_a_weekly_row_leave_out_are_left_out_and_told(row: str, tmp_path: Path) -> None:  # fmt: skip
    source = csv_file(tmp_path, choir(row))
    held = [one.split("T")[0][-5:] for one in built(source, *WEEKS) if one.startswith("Choir")]
    assert held == ["02-08", "02-22"]
    assert "in the words of a row leaves these dates out of it" in nomarium("survey", source, *WEEKS).text


@pytest.mark.parametrize(
    ("row", "says"),
    [
        ("Choir,Monday,7pm,not on 15th", "“not on 15th” says when the row is not held"),
        ("Choir (not w/c 15 Feb),Monday,7pm,", "“not w/c 15 Feb” says when the row is not held"),
        ("Choir,Monday,7pm,except half term", "nothing says when they are"),
    ],
)
def test_days_that_cannot_be_read_stop_the_row(row: str, says: str, tmp_path: Path) -> None:
    assert says in refused(csv_file(tmp_path, choir(row)), *WEEKS)


def test_holidays_that_are_given_are_those_that_words_leave_out(tmp_path: Path) -> None:
    off = csv_file(tmp_path, "Name,First day,Last day\nHalf term,2027-02-15,2027-02-19\n", "off.csv")
    source = csv_file(tmp_path, choir("Choir,Monday,7pm,except half term"))
    held = [one for one in built(source, *WEEKS, "--days-off", off) if one.startswith("Choir")]
    assert [one[6:16] for one in held] == ["2027-02-08", "2027-02-22"]


def test_rows_of_one_date_may_say_when_something_is_not(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Notes\nChoir,2027-02-08,No class 15 Feb\n")
    assert built(source) == ["Choir 2027-02-08/2027-02-09"]


def test_a_rule_of_its_own_is_heard_with_the_words_beside_it(tmp_path: Path) -> None:
    text = "Title,Date,Time,Repeat,Notes\nChoir,2027-02-08,7pm,weekly until 22 Feb 2027,no session 15 Feb\n"
    assert [one[6:16] for one in built(csv_file(tmp_path, text))] == ["2027-02-08", "2027-02-22"]
    rule = nomarium("build", tmp_path / "events.csv", "-o", tmp_path / "rule.ics", "--repeats", "rule")
    assert rule.status == 0
    assert "EXDATE" in (tmp_path / "rule.ics").read_text("utf-8")


def test_a_drawn_week_has_no_place_for_such_words(tmp_path: Path) -> None:
    week = "Monday,Tuesday\n7pm Choir (Chapel) - not 15th,6pm Rowing (Slip 1)\n"
    assert "“not 15th” says when the row is not held" in refused(csv_file(tmp_path, week), *WEEKS)
    drawn = [["Period", "Mon", "Tue"], ["1", "Oars (not 15 Feb)", "Rig"], ["2", "Tar", "Glue"]]
    listed = [["Class", "Day", "Period", "Notes"], ["Oars", "Mon", "1", "no class 15 Feb"]]
    for sheet in (drawn, listed):
        source = plan_book(tmp_path, {"Week": sheet, "Bells": [*BELL], "Terms": TERM})
        assert "seems to say when the class meets or does not, and is not read" in refused(source)


MORE = [
    "fortnightly", "alternate weeks", "every other week", "1st Monday of the month only", "2nd & 4th Mondays", "odd weeks", "6 weeks", "Week 2 only",
    "15 Feb only", "also 17 Feb", "Starts 15 Feb", "from 22 February", "until 15 Feb", "Chapel, first Monday", "once",
]  # fmt: skip


@pytest.mark.parametrize("words", MORE)
def test_words_that_say_when_a_weekly_row_is_held_are_not_passed_over(words: str, tmp_path: Path) -> None:
    says = "seems to say when the row is held, and the row would be held on other days"
    assert says in refused(csv_file(tmp_path, choir(f'Choir,Monday,7pm,"{words}"')), *WEEKS)
    if "," not in words:
        assert says in refused(csv_file(tmp_path, choir(f"Choir ({words}),Monday,7pm,")), *WEEKS)


@pytest.mark.parametrize(
    "words",
    ["Book by 1 Feb", "monthly fee 10", "Showcase 12 March", "from age 7", "Starts 8 Feb", "until 26 February", "6 weeks of fun", "First Friday club news", "open from 7pm"],
)  # fmt: skip
def test_other_words_beside_a_weekly_row_are_its_description(words: str, tmp_path: Path) -> None:
    held = [one for one in built(csv_file(tmp_path, choir(f"Choir,Monday,7pm,{words}")), *WEEKS) if one.startswith("Choir")]  # fmt: skip
    assert len(held) == 3


def test_what_the_refusal_proposes_is_read(tmp_path: Path) -> None:
    source = csv_file(tmp_path, choir("Choir,Mondays fortnightly from 15 February 2027,7pm,"))
    assert [one[:16] for one in built(source, *WEEKS) if one.startswith("Choir")] == ["Choir 2027-02-15"]
    edges = "Class,Day,Time,First day,Last day,Notes\nChoir,Monday,7pm,2027-02-15,2027-02-22,Starts 15 Feb\n"
    assert [one[6:16] for one in built(csv_file(tmp_path, edges, "edges.csv"))] == [
        "2027-02-15",
        "2027-02-22",
    ]


def test_a_repeat_that_says_more_itself_needs_no_words(tmp_path: Path) -> None:
    text = "Title,Date,Time,Repeat,Notes\nChoir,2027-02-08,7pm,every other Monday until 15 March 2027,fortnightly\n"
    assert [one[6:16] for one in built(csv_file(tmp_path, text))] == [
        "2027-02-08",
        "2027-02-22",
        "2027-03-08",
    ]


@pytest.mark.parametrize("words", ["fortnightly", "starts 15 Feb", "Week 2 only"])
def test_a_timetable_has_no_place_for_such_words_either(words: str, tmp_path: Path) -> None:
    drawn = [["Period", "Mon", "Tue"], ["1", f"Oars ({words})", "Rig"], ["2", "Tar", "Glue"]]
    listed = [["Class", "Day", "Period", "Notes"], ["Oars", "Mon", "1", words]]
    for sheet in (drawn, listed):
        source = plan_book(tmp_path, {"Week": sheet, "Bells": [*BELL], "Terms": TERM})
        assert f"“{words}” seems to say when the class meets or does not" in refused(source)


def test_term_time_alone_needs_to_know_the_holidays(tmp_path: Path) -> None:
    source = csv_file(tmp_path, choir("Choir,Monday,7pm,Term time only"))
    assert "“Term time only” leaves out holidays" in refused(source, *WEEKS)
    off = csv_file(tmp_path, "Name,First day,Last day\nHalf term,2027-02-15,2027-02-19\n", "off.csv")
    assert len([one for one in built(source, *WEEKS, "--days-off", off) if one.startswith("Choir")]) == 2
