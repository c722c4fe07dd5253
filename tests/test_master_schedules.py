"""Timetables of a whole school on one sheet: a row a teacher or a group, what stands beside the lines, and no days."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused
from test_lines_beside_weekdays import plan_book
from test_whose_classes import BELL, EARLY, MON, TUE, rows_of

YEAR: dict[str, list[list[object]]] = {"Bells": [*BELL], "Terms": [*EARLY]}
DAYS = [["", "", "Mon", "", "Tue", ""]]
OF_EACH = [
    ("Oars", MON, "09:00", "Loft 1", "Finch", ""), ("Tar", MON, "09:00", "Shed 2", "Osei", ""),
    ("Rig", MON, "10:15", "Loft 1", "Finch", ""), ("Knots", TUE, "09:00", "Loft 1", "Finch", ""),
    ("Glue", TUE, "10:15", "Shed 2", "Osei", ""),
]  # fmt: skip
"""Title, date, start, room, teacher and group."""


@pytest.mark.parametrize(
    ("heads", "rows"),
    [
        (["Teacher", "Room"], [["Finch", "Loft 1"], ["Osei", "Shed 2"]]),
        (["Room", "Teacher"], [["Loft 1", "Finch"], ["Shed 2", "Osei"]]),
        (["Teacher", "Rm"], [["Finch", "Loft 1"], ["Osei", "Shed 2"]]),
    ],
)
def test_a_room_beside_the_name_of_a_row_is_that_of_its_classes(heads: list[str], rows: list[list[str]], tmp_path: Path) -> None:  # fmt: skip
    held = [["Oars", "Rig", "Knots", ""], ["Tar", "", "", "Glue"]]
    sheet = [*DAYS, [*heads, "1", "2", "1", "2"], *([*a, *b] for a, b in zip(rows, held, strict=True))]
    source = plan_book(tmp_path, {"Master": sheet, **YEAR})
    assert sorted(rows_of(source)) == sorted(OF_EACH)


def test_a_running_number_is_no_name_and_another_column_is_told(tmp_path: Path) -> None:
    sheet = [["", *DAYS[0]], ["#", "Dept", "Teacher", "1", "2", "1", "2"], ["1", "Wood", "Finch", "Oars", "Rig", "", ""], ["2", "Wood", "Osei", "Tar", "", "", ""]]  # fmt: skip
    source = plan_book(tmp_path, {"Master": sheet, **YEAR})
    assert {(one[0], one[4]) for one in rows_of(source)} == {("Oars", "Finch"), ("Rig", "Finch"), ("Tar", "Osei")}  # fmt: skip
    assert "Not used, beside the names of the rows: “Dept”" in nomarium("survey", source).text


def test_rooms_below_the_classes_of_a_row_are_theirs(tmp_path: Path) -> None:
    sheet = [["", "Mon", "", "Tue", ""], ["Teacher", "1", "2", "1", "2"], ["Finch", "Oars", "Rig", "Knots", ""], ["", "Loft 1", "Loft 1", "Loft 1", ""], ["Osei", "Tar", "", "", "Glue"], ["", "Shed 2", "", "", "Shed 2"], [], ["Signed: M. Harrow"]]  # fmt: skip
    source = plan_book(tmp_path, {"Master": sheet, **YEAR})
    assert sorted(rows_of(source)) == sorted(OF_EACH)


@pytest.mark.parametrize("is_once", [True, False], ids=["once", "each"])
@pytest.mark.parametrize(("heading", "field"), [("Class", 5), ("Form", 5), ("Teacher", 4)])
def test_groups_beside_the_lines_of_a_week_keep_their_classes_apart(heading: str, field: int, is_once: bool, tmp_path: Path) -> None:  # fmt: skip
    names = ("7A", "7B") if field == 5 else ("Finch", "Osei")
    sheet = [[heading, "Period", "Mon", "Tue"], [names[0], "1", "Oars", "Tar"], ["" if is_once else names[0], "2", "Tar", "Oars"], [names[1], "1", "Tar", "Tar"], ["" if is_once else names[1], "2", "Oars", ""]]  # fmt: skip
    source = plan_book(tmp_path, {"Week": sheet, **YEAR})
    assert {(one[0], one[1], one[2], one[field]) for one in rows_of(source)} == {
        ("Oars", MON, "09:00", names[0]), ("Tar", MON, "09:00", names[1]), ("Tar", MON, "10:15", names[0]),
        ("Oars", MON, "10:15", names[1]), ("Tar", TUE, "09:00", "; ".join(names)), ("Oars", TUE, "10:15", names[0]),
    }  # fmt: skip
    assert is_once is (f"“{heading}” is written once a group" in nomarium("survey", source).text)


def test_a_room_beside_the_lines_of_a_week_is_that_of_their_classes(tmp_path: Path) -> None:
    sheet = [["Period", "Room", "Mon", "Tue"], ["1", "Loft 1", "Oars", "Knots"], ["2", "Shed 2", "Tar", ""]]
    source = plan_book(tmp_path, {"Week": sheet, **YEAR})
    assert [one[:4] for one in rows_of(source)] == [
        ("Oars", MON, "09:00", "Loft 1"), ("Tar", MON, "10:15", "Shed 2"), ("Knots", TUE, "09:00", "Loft 1"),
    ]  # fmt: skip


def test_days_once_over_periods_with_a_column_a_group(tmp_path: Path) -> None:
    sheet = [["Day", "Period", "Room", "7A", "7B"], ["Mon", "1", "Loft 1", "Oars", ""], ["", "2", "Shed 2", "Tar", "Rig"], ["Tue", "1", "Loft 1", "Knots", "Tar"], ["", "2", "Shed 2", "", "Glue"]]  # fmt: skip
    source = plan_book(tmp_path, {"Week": sheet, **YEAR})
    assert sorted(one[:4] + one[5:] for one in rows_of(source)) == sorted([
        ("Oars", MON, "09:00", "Loft 1", "7A"), ("Tar", MON, "10:15", "Shed 2", "7A"), ("Rig", MON, "10:15", "Shed 2", "7B"),
        ("Knots", TUE, "09:00", "Loft 1", "7A"), ("Tar", TUE, "09:00", "Loft 1", "7B"), ("Glue", TUE, "10:15", "Shed 2", "7B"),
    ])  # fmt: skip


DAILY = [["Teacher", "Room", "1", "2"], ["Finch", "Loft 1", "Oars", "Rig"], ["Osei", "Shed 2", "Tar", "–"]]
EVERY_DAY = {(*one[:1], day, *one[2:5]) for one in OF_EACH[:3] for day in (MON, TUE)}


@pytest.mark.parametrize(
    "sheet",
    [
        DAILY,
        [["Saltmarsh, all classes – valid from 4 January 2027"], [], *DAILY],
        [["Teacher", "Room", "Period 1", "Period 2"], *DAILY[1:]],
        [["Teacher", "Room", "1 (9:00-10:00)", "2 (10:15-11:15)"], *DAILY[1:]],
        [["Teacher", "Finch", "Osei"], ["Room", "Loft 1", "Shed 2"], ["1", "Oars", "Tar"], ["2", "Rig", ""]],
        [["Teacher", "Room", "P1", "P2"], ["", "", "9:00-10:00", "10:15-11:15"], *DAILY[1:]],
    ],
    ids=["plain", "titled", "named", "timed", "turned", "times below"],
)
def test_periods_across_without_days_are_held_on_every_one(sheet: list[list[object]], tmp_path: Path) -> None:
    source = plan_book(tmp_path, {"Master": sheet, **YEAR})
    assert {one[:5] for one in rows_of(source)} == EVERY_DAY
    assert "they meet on every school day" in nomarium("survey", source).text


@pytest.mark.parametrize(
    "sheet",
    [
        [["Teacher", "1", "2"], ["Finch", "x", ""], ["Osei", "", "x"]],
        [["Teacher", "1", "2"], ["Finch", "12", "14"], ["Osei", "7", "9"]],
        [
            ["Evening of 8 February 2027"],
            ["Teacher", "1", "2"],
            ["Finch", "Quill", "Moss"],
            ["Osei", "", "Ash"],
        ],
    ],
    ids=["ticks", "numbers", "one evening"],
)
def test_marks_numbers_and_the_slots_of_one_date_are_no_classes_of_every_day(sheet: list[list[object]], tmp_path: Path) -> None:  # fmt: skip
    assert "no event to write" in refused(plan_book(tmp_path, {"Duty": sheet, **YEAR}))


def test_bells_of_weekdays_by_their_letters(tmp_path: Path) -> None:
    bells = [["Regular (M,W,Th,F)", "", "", "", "Early release (Tu)"], ["Period", "Start", "End", "", "Period", "Start", "End"], ["1", "9:00", "10:00", "", "1", "9:00", "9:40"], ["2", "10:15", "11:15", "", "2", "9:45", "10:25"]]  # fmt: skip
    source = plan_book(tmp_path, {"Master": DAILY, "Bells": bells, "Terms": [*EARLY]})
    assert {(one[0], one[1], one[2]) for one in rows_of(source)} == {
        ("Oars", MON, "09:00"), ("Rig", MON, "10:15"), ("Tar", MON, "09:00"),
        ("Oars", TUE, "09:00"), ("Rig", TUE, "09:45"), ("Tar", TUE, "09:00"),
    }  # fmt: skip


@pytest.mark.parametrize("both", ["AB", "A/B", "A & B", "both"])
def test_a_class_of_both_weeks_meets_in_each(both: str, tmp_path: Path) -> None:
    classes = [["Class", "Day", "Period", "Week"], ["Oars", "Mon", "1", "A"], ["Rig", "Mon", "1", "B"], ["Tar", "Tue", "2", both]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-19"]]
    source = plan_book(tmp_path, {"Classes": classes, "Bells": [*BELL], "Terms": terms})
    assert [one[:2] for one in rows_of(source)] == [("Oars", MON), ("Tar", TUE), ("Rig", "2027-02-15"), ("Tar", "2027-02-16")]  # fmt: skip


@pytest.mark.parametrize(
    ("pattern", "expected"),
    [
        ("M1 T2", [("Oars", MON, "09:00"), ("Oars", TUE, "10:15")]),
        ("MT 2", [("Oars", MON, "10:15"), ("Oars", TUE, "10:15")]),
        ("M1-2", [("Oars", MON, "09:00")]),
        ("M/T1", [("Oars", MON, "09:00"), ("Oars", TUE, "09:00")]),
        ("Mon 1, Tu2", [("Oars", MON, "09:00"), ("Oars", TUE, "10:15")]),
    ],
)
def test_weekdays_by_their_letters_with_periods(
    pattern: str, expected: list[tuple[str, ...]], tmp_path: Path
) -> None:
    bells = [*BELL[:2], ["2", "10:05", "11:05"]] if pattern == "M1-2" else BELL
    classes = [["Course", "Meeting pattern"], ["Oars", pattern], ["Rig", "W1 Th2 F1"]]
    source = plan_book(tmp_path, {"Sections": classes, "Bells": bells, "Terms": [*EARLY]})
    assert [one[:3] for one in rows_of(source)] == expected


def test_letters_that_could_be_two_weekdays_are_asked_about(tmp_path: Path) -> None:
    classes = [["Course", "Meeting pattern"], ["Oars", "TH1"], ["Rig", "M2"]]
    assert "TH" in refused(plan_book(tmp_path, {"Sections": classes, **YEAR}))


def test_periods_under_weekdays_in_lists_and_ranges_beside_dashes(tmp_path: Path) -> None:
    form = [["Subject", "Teacher", "Mon", "Tue"], ["Oars", "Finch", "1", "–"], ["Rig", "Osei", "2", "1 & 2"]]
    source = plan_book(tmp_path, {"Form 7": form, **YEAR})
    assert [one[:3] for one in rows_of(source)] == [
        ("Oars", MON, "09:00"), ("Rig", MON, "10:15"), ("Rig", TUE, "09:00"), ("Rig", TUE, "10:15"),
    ]  # fmt: skip


@pytest.mark.parametrize("turned", [False, True], ids=["rooms down", "rooms across"])
def test_sheets_of_weekdays_with_rooms_and_periods(turned: bool, tmp_path: Path) -> None:
    monday: list[list[object]] = [["Room", "1", "2"], ["Loft 1", "Oars 7", "Oars 8"], ["Shed 2", "", "Art 7"]]
    tuesday: list[list[object]] = [["Room", "1", "2"], ["Loft 1", "", "Oars 7"], ["Shed 2", "Art 7", ""]]
    sheets = {"Mon": monday, "Tue": tuesday}
    if turned:
        sheets = {day: [list(row) for row in zip(*rows, strict=True)] for day, rows in sheets.items()}
    assert [one[:4] for one in rows_of(plan_book(tmp_path, {**sheets, **YEAR}))] == [
        ("Oars 7", MON, "09:00", "Loft 1"), ("Art 7", MON, "10:15", "Shed 2"), ("Oars 8", MON, "10:15", "Loft 1"),
        ("Art 7", TUE, "09:00", "Shed 2"), ("Oars 7", TUE, "10:15", "Loft 1"),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("head", "names", "code"),
    [
        (["Code", "Name"], [["W1", "Early"], ["W2", "Late"]], ("W1", "W2")),
        (["Name"], [["Winter 2027"], ["Spring 2027"]], ("W27", "2027S")),
        (["Name"], [["Winter 2027"], ["Spring 2027"]], ("WI27", "SP27")),
    ],
)
def test_terms_by_their_codes(
    head: list[str], names: list[list[str]], code: tuple[str, str], tmp_path: Path
) -> None:
    spans = [["2027-02-08", "2027-02-12"], ["2027-02-15", "2027-02-19"]]
    terms = [[*head, "From", "To"], *([*a, *b] for a, b in zip(names, spans, strict=True))]
    classes = [["Course", "Day", "Start", "End", "Term"], ["Oars", "Mon", "9:00", "10:00", code[0]], ["Rig", "Mon", "9:00", "10:00", code[1]]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": classes, "Terms": terms})
    assert [one[:2] for one in rows_of(source)] == [("Oars", MON), ("Rig", "2027-02-15")]


def test_a_code_that_could_be_two_terms_is_none(tmp_path: Path) -> None:
    terms = [["Name", "From", "To"], ["Spring 2027", MON, "2027-02-12"], ["Summer 2027", "2027-02-15", "2027-02-19"]]  # fmt: skip
    classes = [["Course", "Day", "Start", "End", "Term"], ["Oars", "Mon", "9:00", "10:00", "S27"]]
    assert "There is no term “S27”" in refused(plan_book(tmp_path, {"Classes": classes, "Terms": terms}))


def test_a_class_written_once_has_its_title_in_every_row(tmp_path: Path) -> None:
    classes = [["Course", "Title", "Day", "Start", "End"], ["R1", "Rigging", "Mon", "9:00", "10:00"], ["", "", "Tue", "9:00", "10:00"], ["T2", "Tar", "Mon", "11:00", "12:00"], ["", "Tar lab", "Tue", "11:00", "12:00"]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": classes, "Terms": [*EARLY]})
    assert [one[:2] for one in rows_of(source)] == [("Rigging", MON), ("Tar", MON), ("Rigging", TUE), ("Tar lab", TUE)]  # fmt: skip


def test_a_row_of_classes_below_days_and_periods_may_be_nobodys(tmp_path: Path) -> None:
    sheet = [["Mon", "", "Tue", ""], ["1", "2", "1", "2"], ["Oars", "Rig", "Tar", "Glue"], ["", "", "", ""]]
    source = plan_book(tmp_path, {"Week": sheet, **YEAR})
    assert [one[:3] + one[4:] for one in rows_of(source)] == [
        ("Oars", MON, "09:00", "", ""), ("Rig", MON, "10:15", "", ""), ("Tar", TUE, "09:00", "", ""), ("Glue", TUE, "10:15", "", ""),
    ]  # fmt: skip


def test_dates_down_and_periods_across_are_classes_of_these_dates_alone(tmp_path: Path) -> None:
    cover = [
        ["Date", "1", "2"],
        ["Mon 8 Feb 2027", "Oars 7A (Loft 1)", "–"],
        ["Tue 9 Feb 2027", "", "Tar 8B"],
    ]
    source = plan_book(tmp_path, {"Cover": cover, "Bells": [*BELL]})
    assert [one[:4] for one in rows_of(source)] == [("Oars 7A", MON, "09:00", "Loft 1"), ("Tar 8B", TUE, "10:15", "")]  # fmt: skip
    off = [*cover, ["Sat 13 Feb 2027", "Glue 7A", ""]]
    text = refused(plan_book(tmp_path, {"Cover": off, **YEAR}))
    assert "Glue 7A is on 2027-02-13 alone, and that is no school day" in text


def test_classes_that_meet_on_no_school_day_are_told(tmp_path: Path) -> None:
    classes = [["Class", "Day", "Start", "End", "First day", "Last day"], ["Oars", "Mon", "9:00", "10:00", "", ""], ["Rig", "Fri", "9:00", "10:00", "", ""], ["Tar", "Mon", "9:00", "10:00", "2027-03-01", "2027-03-31"]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": classes, "Terms": [*EARLY]})
    assert "No school day is one of Rig (row 3), Tar (row 4): nothing is written of them." in nomarium("survey", source).text  # fmt: skip
    assert [one[0] for one in rows_of(source)] == ["Oars"]


@pytest.mark.parametrize("slot", ["Mon-1", "Mon 1", "Mon1", "M1", "Monday_1"])
def test_a_slot_may_be_a_weekday_and_a_period(slot: str, tmp_path: Path) -> None:
    classes = [["ClassCode", "Slot", "Room"], ["Oars", slot, "Loft 1"], ["Rig", "Tue-2", "Loft 1"]]
    if slot == "M1":
        classes[2][1] = "T2"
    source = plan_book(tmp_path, {"Classes": classes, **YEAR})
    assert [one[:3] for one in rows_of(source)] == [("Oars", MON, "09:00"), ("Rig", TUE, "10:15")]


def test_days_of_a_cycle_and_periods_run_together(tmp_path: Path) -> None:
    classes = [["Course", "Schedule"], ["Oars", "D1P1, D2P2"], ["Rig", "D2P1"]]
    source = plan_book(tmp_path, {"Classes": classes, **YEAR})
    assert [one[:3] for one in rows_of(source)] == [("Oars", MON, "09:00"), ("Rig", TUE, "09:00"), ("Oars", TUE, "10:15")]  # fmt: skip


def test_a_term_may_say_how_many_weeks_it_has(tmp_path: Path) -> None:
    terms = [["Term", "Begins", "Weeks"], ["Winter", "Mon 8 Feb 2027", 2]]
    classes = [["Class", "Day", "Start", "End"], ["Oars", "Mon", "18:00", "20:00"], ["Rig", "Fri", "18:00", "20:00"]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": classes, "Terms": terms})
    assert [one[:2] for one in rows_of(source)] == [("Oars", MON), ("Rig", "2027-02-12"), ("Oars", "2027-02-15"), ("Rig", "2027-02-19")]  # fmt: skip
    assert "2 weeks from 2027-02-08 end on 2027-02-21" in nomarium("survey", source).text


def test_bells_with_a_start_and_an_end_under_each_kind_of_day(tmp_path: Path) -> None:
    bells = [["", "Mon", "", "Tue", ""], ["Period", "Start", "End", "Start", "End"], ["1", "9:00", "10:00", "8:30", "9:10"], ["2", "10:15", "11:15", "9:15", "9:55"]]  # fmt: skip
    source = plan_book(tmp_path, {"Master": DAILY, "Bell times": bells, "Terms": [*EARLY]})
    assert ("Oars", TUE, "08:30") in {one[:3] for one in rows_of(source)}
    assert ("Rig", MON, "10:15") in {one[:3] for one in rows_of(source)}


def test_a_term_that_would_end_before_it_starts_settles_the_order_of_figures(tmp_path: Path) -> None:
    terms = [["Halbjahr", "Beginn", "Ende"], ["1. Halbjahr", "08.02.2027", "01.03.2027"]]
    source = plan_book(tmp_path, {"Master": DAILY, "Bells": [*BELL], "Halbjahre": terms})
    assert {one[1] for one in rows_of(source)} >= {MON, TUE, "2027-03-01"}
    assert "Dates in figures are read day first: row 2 is “01.03.2027” (the other order would end before it starts)." in nomarium("survey", source).text  # fmt: skip
    open_order = [*terms[:1], ["1. Halbjahr", "08.02.2027", "09.10.2027"]]
    source = plan_book(tmp_path, {"Master": DAILY, "Bells": [*BELL], "Halbjahre": open_order})
    assert "--date-order dmy" in refused(source)


@pytest.mark.parametrize("names", [("Sra. Ruiz", "Sr. Osei"), ("Herr Finke", "Frau Osei"), ("Mevr. Vos", "Dhr. Osei")])  # fmt: skip
def test_titles_of_people_tell_teachers_from_rooms(names: tuple[str, str], tmp_path: Path) -> None:
    week = [["Period", "Mon", "Tue"], ["1", f"Oars\n{names[0]}", f"Tar\n{names[1]}"], ["2", f"Tar\n{names[1]}", f"Oars\n{names[0]}"]]  # fmt: skip
    source = plan_book(tmp_path, {"Week": week, **YEAR})
    assert {(one[0], one[4]) for one in rows_of(source)} == {("Oars", names[0]), ("Tar", names[1])}


TWO_WEEKS = [["Term", "First day", "Last day"], ["Spring", MON, "2027-02-19"]]
TWO_TERMS = [["Term", "First day", "Last day"], ["S1", MON, "2027-02-12"], ["S2", "2027-02-15", "2027-02-19"]]


def test_weeks_and_terms_beside_the_names_of_rows_are_theirs(tmp_path: Path) -> None:
    sheet = [["", *DAYS[0][:2], *DAYS[0][2:]][1:], ["Teacher", "Week", "1", "2", "1", "2"], ["Finch", "A", "Oars", "", "Knots", ""], ["", "B", "", "Rig", "", ""], ["Osei", "A", "Tar", "", "", ""], ["", "B", "Glue", "", "", ""]]  # fmt: skip
    source = plan_book(tmp_path, {"Master": sheet, "Bells": [*BELL], "Terms": TWO_WEEKS})
    assert [(one[0], one[1], one[4]) for one in rows_of(source)] == [
        ("Oars", MON, "Finch"), ("Tar", MON, "Osei"), ("Knots", TUE, "Finch"), ("Glue", "2027-02-15", "Osei"), ("Rig", "2027-02-15", "Finch"),
    ]  # fmt: skip
    daily = [["Teacher", "Week", "1", "2"], ["Finch", "A", "Oars", ""], ["Finch", "B", "", "Rig"]]
    found = rows_of(plan_book(tmp_path, {"Master": daily, "Bells": [*BELL], "Terms": TWO_WEEKS}), "--afresh")
    assert {(one[0], one[1] < "2027-02-14") for one in found} == {("Oars", True), ("Rig", False)}
    in_terms = [["Teacher", "Term", "1", "2"], ["Finch", "S1", "Oars", ""], ["", "S2", "", "Rig"]]
    found = rows_of(
        plan_book(tmp_path, {"Master": in_terms, "Bells": [*BELL], "Terms": TWO_TERMS}), "--afresh"
    )
    assert {(one[0], one[1] < "2027-02-14", one[4]) for one in found} == {("Oars", True, "Finch"), ("Rig", False, "Finch")}  # fmt: skip


def test_days_beside_the_names_of_rows_are_theirs(tmp_path: Path) -> None:
    sheet = [["Teacher", "Days", "1", "2"], ["Finch", "MW", "Oars", "Rig"], ["Osei", "TTh", "Tar", ""]]
    assert [one[:3] + one[4:5] for one in rows_of(plan_book(tmp_path, {"Master": sheet, **YEAR}))] == [
        ("Oars", MON, "09:00", "Finch"), ("Rig", MON, "10:15", "Finch"), ("Tar", TUE, "09:00", "Osei"),
    ]  # fmt: skip


def test_what_says_when_beside_the_names_is_not_passed_over(tmp_path: Path) -> None:
    sheet = [
        ["Teacher", "Length", "1", "2"],
        ["Finch", "45 min", "Oars", "Rig"],
        ["Osei", "30 min", "Tar", ""],
    ]
    text = refused(plan_book(tmp_path, {"Master": sheet, **YEAR}))
    assert "The column “Length” beside the names says when the classes of a row are held" in text


OF_PERIODS = "Teacher,P1 (9:00-10:00),P2 (10:15-11:15)\nFinch,Oars,Rig\nOsei,Tar,"


def test_periods_across_in_a_file_of_their_own_are_held_on_every_day(tmp_path: Path) -> None:
    source = csv_file(tmp_path, OF_PERIODS)
    assert built(source, "--from", MON, "--until", MON) == [
        f"Oars {MON}T09:00/{MON}T10:00", f"Tar {MON}T09:00/{MON}T10:00", f"Rig {MON}T10:15/{MON}T11:15",
    ]  # fmt: skip
    assert "--from 2026" in refused(csv_file(tmp_path, OF_PERIODS, "again.csv"))


def test_times_across_that_are_no_periods_may_be_those_of_one_evening(tmp_path: Path) -> None:
    text = "Teacher,4:00,4:10\nFinch,Ada Cole,Ben Fir\nOsei,,Ada Cole"
    assert "--set date=" in refused(csv_file(tmp_path, text), "--from", MON, "--until", MON)


def test_initials_of_teachers_in_the_list_of_staff_are_their_names(tmp_path: Path) -> None:
    classes = [
        ["Class", "Day", "Start", "Finish", "Teacher"],
        ["Oars", "Mon", "9:00", "10:00", "AF"],
        ["Tar", "Tue", "9:00", "10:00", "KO"],
    ]
    staff = [
        ["Initials", "Name", "Email"],
        ["AF", "A. Finch", "finch@saltmarsh.example"],
        ["KO", "K. Osei", "osei@saltmarsh.example"],
    ]
    source = plan_book(tmp_path, {"Timetable": classes, "Staff": staff, "Terms": [*EARLY]})
    assert [(one[0], one[4]) for one in rows_of(source)] == [("Oars", "A. Finch"), ("Tar", "K. Osei")]
    nomarium("build", source, "-o", tmp_path / "each", "--split-by", "person")
    assert sorted(one.name for one in (tmp_path / "each").iterdir()) == ["a-finch.ics", "k-osei.ics"]
