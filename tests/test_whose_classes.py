"""Whose the classes of a workbook are and what its sheets are: rules that workbooks of many forms taught."""

from __future__ import annotations

import csv
from pathlib import Path

from helpers import built, csv_file, nomarium, refused
from test_lines_beside_weekdays import plan_book

EARLY = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
BELL = [["Period", "Start", "End"], ["1", "9:00", "10:00"], ["2", "10:15", "11:15"]]
MON, TUE = "2027-02-08", "2027-02-09"


def rows_of(source: Path, *options: object) -> list[tuple[str, ...]]:
    """Title, date, start, room, teacher and group of each event."""
    target = source.with_suffix(".out.csv")
    outcome = nomarium("build", source, "-o", target, *options)
    assert outcome.status == 0, outcome.text
    with target.open(encoding="utf-8-sig", newline="") as lines:
        return [tuple(row.get(name, "") for name in ("Title", "Date", "Start", "Room", "Teacher", "Group")) for row in csv.DictReader(lines)]  # fmt: skip


def test_two_classes_with_their_rooms_in_a_cell_are_two(tmp_path: Path) -> None:
    grid = [["Period", "Mon", "Tue"], ["1", "Knots 7A (Loft 1)\nTar 7B (Shed 2)", "Oars 7A (Slip 1)\nRig 7B (Loft 2)"], ["2", "Charts 7A (Loft 1)", ""]]  # fmt: skip
    source = plan_book(tmp_path, {"Timetable": grid, "Bells": BELL, "Terms": EARLY})
    assert [one[:4] for one in rows_of(source)] == [
        ("Knots 7A", MON, "09:00", "Loft 1"), ("Tar 7B", MON, "09:00", "Shed 2"), ("Charts 7A", MON, "10:15", "Loft 1"),
        ("Oars 7A", TUE, "09:00", "Slip 1"), ("Rig 7B", TUE, "09:00", "Loft 2"),
    ]  # fmt: skip


def test_a_sheet_called_timetable_and_its_week_is_of_that_week(tmp_path: Path) -> None:
    week = {name: [["Period", "Mon", "Tue"], ["1", held, ""]] for name, held in (("Timetable - Week A", "Knots"), ("Timetable - Week B", "Tar"))}  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-16"]]
    source = plan_book(tmp_path, {**week, "Bells": BELL, "Terms": terms})
    assert [one[:2] + one[4:] for one in rows_of(source)] == [("Knots", MON, "", ""), ("Tar", "2027-02-15", "", "")]  # fmt: skip


def test_a_sheet_with_the_classes_of_the_others_is_not_passed_over(tmp_path: Path) -> None:
    drawn = [["Period", "Mon", "Tue"], ["1", "Knots", "Tar"], ["2", "Oars", "Rig"]]
    odd = [["Who", "Wednesday"], ["Knots", "9:00-10:00"], ["Tar", "10:15-11:15"], ["Oars", "11:30"]]
    source = plan_book(tmp_path, {"7A": drawn, "Extra": odd, "Bells": BELL, "Terms": EARLY})
    text = refused(source)
    assert "Extra names classes of the timetable (“Knots”, “Tar” and “Oars”)" in text
    assert len(built(source, "--table", "Extra=")) == 4


def test_sections_that_stand_beside_several_subjects_are_groups(tmp_path: Path) -> None:
    rows = [["Subject", "Section", "Day", "Period"], ["Knots", "7A", "Mon", 1], ["Tar", "7A", "Mon", 2], ["Knots", "7B", "Tue", 1], ["Tar", "7B", "Tue", 2]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": rows, "Bells": BELL, "Terms": EARLY})
    assert [(one[0], one[5]) for one in rows_of(source)] == [("Knots", "7A"), ("Tar", "7A"), ("Knots", "7B"), ("Tar", "7B")]  # fmt: skip


def test_lessons_over_periods_beside_two_columns_of_classes(tmp_path: Path) -> None:
    rows = [["Day", "Lesson", "Class", "Section"], ["Mon", 1, "Knots", "Keelers"], ["Mon", 2, "Tar", "Keelers"], ["Tue", 1, "Tar", "Riggers"], ["Tue", 2, "Knots", "Riggers"]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": rows, "Bells": BELL, "Terms": EARLY})
    assert [(one[0], one[2], one[5]) for one in rows_of(source)] == [("Knots", "09:00", "Keelers"), ("Tar", "10:15", "Keelers"), ("Tar", "09:00", "Riggers"), ("Knots", "10:15", "Riggers")]  # fmt: skip
    turned = plan_book(tmp_path, {"Classes": [[*row[:2], row[3], row[2]] for row in rows], "Bells": BELL, "Terms": EARLY})  # fmt: skip
    assert [(one[0], one[5]) for one in rows_of(turned)] == [("Knots", "Keelers"), ("Tar", "Keelers"), ("Tar", "Riggers"), ("Knots", "Riggers")]  # fmt: skip


def test_meetings_of_two_weeks_in_a_cell(tmp_path: Path) -> None:
    rows = [["Class", "Meets"], ["Knots", "A Mon P1, B Tue P2"], ["Tar", "A Tue P1; B Mon P1"]]
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-16"]]
    source = plan_book(tmp_path, {"Classes": rows, "Bells": BELL, "Terms": terms})
    assert [one[:3] for one in rows_of(source)] == [("Knots", MON, "09:00"), ("Tar", TUE, "09:00"), ("Tar", "2027-02-15", "09:00"), ("Knots", "2027-02-16", "10:15")]  # fmt: skip


def test_a_teacher_alone_on_a_day_and_rooms_by_their_sheets(tmp_path: Path) -> None:
    by_day = {"Mon": [["Teacher", "9:00-10:00", "10:15-11:15"], ["Quill", "Knots", ""], ["Bell", "", "Tar"]], "Tue": [["Teacher", "9:00-10:00", "10:15-11:15"], ["Quill", "", "Knots"]]}  # fmt: skip
    source = plan_book(tmp_path, {**by_day, "Terms": EARLY})
    assert [(one[0], one[4]) for one in rows_of(source)] == [("Knots", "Quill"), ("Tar", "Bell"), ("Knots", "Quill")]  # fmt: skip
    rooms = {f"Timetable - {room}": [["Period", "Mon", "Tue"], ["1", f"{held}\nQuill", ""]] for room, held in (("Loft 1", "Knots"), ("Library", "Tar"))}  # fmt: skip
    source = plan_book(tmp_path, {**rooms, "Bells": BELL, "Terms": EARLY})
    assert [(one[0], one[3], one[4]) for one in rows_of(source)] == [("Knots", "Loft 1", "Quill"), ("Tar", "Library", "Quill")]  # fmt: skip


def test_a_year_in_french_is_known_by_its_dates(tmp_path: Path) -> None:
    grid = [["", "Lundi", "Mardi", "Mercredi"], ["1", "Nœuds", "Voiles", "Rames"]]
    terms = [["Trimestre", "Début", "Fin"], ["Hiver", "8 février 2027", "17 février 2027"]]
    off = [["Congé", "Début", "Fin"], ["Relâche", "15 février 2027", "16 février 2027"]]
    source = plan_book(tmp_path, {"Horaire": grid, "Bells": BELL, "Trimestres": terms, "Congés": off})
    assert [one[:2] for one in rows_of(source)] == [("Nœuds", MON), ("Voiles", TUE), ("Rames", "2027-02-10"), ("Rames", "2027-02-17")]  # fmt: skip


def test_a_plain_grid_has_its_term_from_the_command_line(tmp_path: Path) -> None:
    grid = [["Period", "Mon", "Tue"], ["1", "Knots\nLoft 1", "Tar\nShed 2"]]
    source = plan_book(tmp_path, {"Timetable": grid, "Bells": BELL})
    assert "nothing says from when to when they are taught" in refused(source)
    assert [one[:2] for one in rows_of(source, "--from", MON, "--until", TUE)] == [("Knots", MON), ("Tar", TUE)]  # fmt: skip


def test_the_months_between_rows_say_the_year(tmp_path: Path) -> None:
    rows = "Day,When,Starts,Event\nDecember 2026,,,\nMonday,7 December,9:00,Regatta\nFriday,18 December,9:00,Market\nJanuary 2027,,,\nTuesday,5 January,9:00,Term starts\n"  # fmt: skip
    held = built(csv_file(tmp_path, rows, "events.csv"))
    assert [one.split()[-1][:10] for one in held] == ["2026-12-07", "2026-12-18", "2027-01-05"]


def test_rooms_beside_and_below_the_days_of_a_drawing(tmp_path: Path) -> None:
    beside = [["Time", "Mon", "Room", "Tue", "Room"], ["9:00-10:00", "Knots", "L1", "Tar", "S2"]]
    below = [["Period", "", "Mon", "Tue"], ["1", "Class", "Knots", "Tar"], ["", "Room", "L1", "S2"]]
    expected = [("Knots", MON, "09:00", "L1"), ("Tar", TUE, "09:00", "S2")]
    for sheets in ({"Timetable": beside}, {"Timetable": below, "Bells": BELL}):
        source = plan_book(tmp_path, {**sheets, "Terms": EARLY})
        assert [one[:4] for one in rows_of(source)] == expected


def test_labels_that_name_their_week_and_labels_alone_over_classes(tmp_path: Path) -> None:
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-16"]]
    rows = [["Subject", "Day", "Period"], ["Knots", "Mon A", 1], ["Tar", "Tue A", 1], ["Oars", "Mon B", 1], ["Rig", "Tue B", 2]]  # fmt: skip
    source = plan_book(tmp_path, {"Timetable": rows, "Bells": BELL, "Terms": terms})
    assert [one[:3] for one in rows_of(source)] == [("Knots", MON, "09:00"), ("Tar", TUE, "09:00"), ("Oars", "2027-02-15", "09:00"), ("Rig", "2027-02-16", "10:15")]  # fmt: skip
    parts = [[label] if not held else [1, held] for label, held in (("Keel", ""), ("", "Knots"), ("Rib", ""), ("", "Tar"))]  # fmt: skip
    listed = [parts[0], ["Period", "Class"], parts[1], parts[2], ["Period", "Class"], parts[3]]
    source = plan_book(tmp_path, {"Timetable": listed, "Cycle": [["Label"], ["Keel"], ["Rib"]], "Bells": BELL, "Terms": EARLY})  # fmt: skip
    assert [one[:2] for one in rows_of(source)] == [("Knots", MON), ("Tar", TUE)]


def test_a_week_of_labels_alone_with_its_term_below_it(tmp_path: Path) -> None:
    rows = [["Period", "A", "B", "C"], ["1 (9:00-10:00)", "Knots | Quill | L1", "Tar | Tern | S2", ""], ["2 (10:15-11:15)", "", "", "Rig | Quill | L1"], [], ["Spring term: 8 February 2027 – 10 March 2027"], ["No classes: 10 February 2027"]]  # fmt: skip
    held = rows_of(plan_book(tmp_path, {"Week": rows}))
    assert held[:3] == [("Knots", MON, "09:00", "L1", "Quill", ""), ("Tar", TUE, "09:00", "S2", "Tern", ""), ("Rig", "2027-02-11", "10:15", "L1", "Quill", "")]  # fmt: skip


def test_each_day_stands_alone_over_its_part_of_a_drawing(tmp_path: Path) -> None:
    head, monday, tuesday = ["", "7A", "7B"], [["P1 9.00-10.00", "Knots", "Tar"], ["P2 10.15-11.15", "Oars", ""]], [["P1 9.00-10.00", "Tar", "Rig"]]  # fmt: skip
    expected = [
        ("Knots", MON, "09:00", "7A"), ("Tar", MON, "09:00", "7B"), ("Oars", MON, "10:15", "7A"), ("Rig", TUE, "09:00", "7B"), ("Tar", TUE, "09:00", "7A"),
    ]  # fmt: skip
    for name, rows in {
        "each": [["MONDAY"], head, *monday, [], ["TUESDAY"], head, *tuesday],
        "once": [head, ["Monday:"], *monday, ["Tuesday:"], *tuesday],
    }.items():
        folder = tmp_path / name
        folder.mkdir()
        source = plan_book(folder, {"Timetable": rows, "Terms": EARLY})
        assert [one[:3] + one[5:] for one in rows_of(source)] == expected
    days = [
        ["Day A"],
        ["", "Loft 1", "Loft 2"],
        ["1", "Knots", "Tar"],
        ["Day B"],
        ["", "Loft 1", "Loft 2"],
        ["1", "Oars", "Rig"],
    ]
    source = plan_book(tmp_path, {"T": days, "Bells": BELL, "Terms": EARLY})
    assert [one[:2] + one[3:4] for one in rows_of(source)] == [("Knots", MON, "Loft 1"), ("Tar", MON, "Loft 2"), ("Oars", TUE, "Loft 1"), ("Rig", TUE, "Loft 2")]  # fmt: skip


def test_several_columns_with_a_meeting_each(tmp_path: Path) -> None:
    rows = [["Teacher: Quill"], ["Class", "Room", "Meeting 1", "Meeting 2"], ["Knots", "Loft 2", "Mon p1", "Tue p2"], ["Oars", "Shed A", "Tue 9:00-10:00", ""]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": rows, "Bells": BELL, "Terms": EARLY})
    assert [one[:5] for one in rows_of(source)] == [
        ("Knots", MON, "09:00", "Loft 2", "Quill"), ("Oars", TUE, "09:00", "Shed A", "Quill"), ("Knots", TUE, "10:15", "Loft 2", "Quill"),
    ]  # fmt: skip


def test_labels_above_a_list_of_classes_are_of_all_where_no_column_says_them(tmp_path: Path) -> None:
    rows = [["Teacher", "Quill"], ["Room: Loft 2"], ["Class", "Room", "Day", "Period"], ["Knots", "Slip 1", "Mon", "1"], ["Tar", "", "Tue", "2"]]  # fmt: skip
    source = plan_book(tmp_path, {"Classes": rows, "Bells": BELL, "Terms": EARLY})
    assert [one[3:5] for one in rows_of(source)] == [("Slip 1", "Quill"), ("", "Quill")]
    assert "have what stands above it: teacher “Quill”" in nomarium("survey", source).text


def test_a_week_under_words_that_nothing_names_asks_for_the_cycle(tmp_path: Path) -> None:
    week = [["", "Keel", "Rib", "Plank"], ["1", "Knots", "Tar", "Oars"], ["2", "Tar", "Oars", "Knots"]]
    sheets = {"Schedule": week, "Bells": BELL, "Terms": EARLY}
    text = refused(plan_book(tmp_path, sheets))
    assert "stand under Keel, Rib and Plank" in text and "list them in a table Cycle" in text
    cycle = {"Cycle": [["Label"], ["Keel"], ["Rib"], ["Plank"]]}
    folder = tmp_path / "named"
    folder.mkdir()
    source = plan_book(folder, {**sheets, **cycle})
    assert [one[:3] for one in rows_of(source)] == [("Knots", MON, "09:00"), ("Tar", MON, "10:15"), ("Tar", TUE, "09:00"), ("Oars", TUE, "10:15")]  # fmt: skip


def test_a_day_and_a_teacher_within_a_class_that_is_written_once(tmp_path: Path) -> None:
    classes = [["Class", "Day", "Period", "Teacher"], ["7A", "Mon", "1", "Finch"], ["", "", "2", ""], ["", "Tue", "1", "Moss"], ["", "", "2", ""], ["7B", "Mon", "1", "Cole"]]  # fmt: skip
    source = plan_book(tmp_path, {"Timetable": classes, "Bells": BELL, "Terms": EARLY})
    assert [(*one[:3], one[4]) for one in rows_of(source)] == [
        ("7A", MON, "09:00", "Finch"), ("7B", MON, "09:00", "Cole"), ("7A", MON, "10:15", "Finch"), ("7A", TUE, "09:00", "Moss"), ("7A", TUE, "10:15", "Moss"),
    ]  # fmt: skip


def test_a_class_on_every_label_is_written_once_over_others(tmp_path: Path) -> None:
    classes = [
        ["Class", "Day", "Period"],
        ["7A", "", "1"],
        ["", "Tue", "2"],
        ["7B", "Mon", "1"],
        ["", "", "2"],
    ]
    source = plan_book(tmp_path, {"Timetable": classes, "Bells": BELL, "Terms": EARLY})
    held = [one[:3] for one in rows_of(source)]
    assert sorted(held) == [
        ("7A", MON, "09:00"), ("7A", TUE, "09:00"), ("7A", TUE, "10:15"), ("7B", MON, "09:00"), ("7B", MON, "10:15"),
    ]  # fmt: skip


def test_a_length_beside_a_period_is_that_of_its_bells(tmp_path: Path) -> None:
    def book(heading: str, *lengths: str) -> Path:
        rows = [
            ["Class", "Day", "Period", heading],
            ["7A", "Mon", "1-2", lengths[0]],
            ["7B", "Tue", "1", lengths[1]],
        ]
        return plan_book(tmp_path, {"Timetable": rows, "Bells": BELL, "Terms": EARLY})

    assert (
        len(rows_of(book("Length", "double", "60 min"))) == 3
    )  # a gap of a quarter of an hour between the two
    assert "its period makes it 1 period" in refused(book("Length", "double", "2 periods"))
    assert "its period makes it 60 minutes" in refused(book("Duration", "", "90 min"))
    assert "says that a class lasts several periods" in refused(book("No. of periods", "2", "2"))
    assert len(rows_of(book("Periods per week", "2", "1"))) == 3


def test_a_length_beside_a_start_and_an_end_agrees_with_them(tmp_path: Path) -> None:
    rows = [["Class", "Day", "Start", "End", "Length"], ["7A", "Mon", "9:00", "10:00", "90 min"]]
    assert "The length is not the time from 9:00 to 10:00" in refused(
        plan_book(tmp_path, {"Timetable": rows, "Terms": EARLY})
    )
