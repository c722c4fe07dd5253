"""What a timetable's classes are called where several columns could say it, and what stands beside them: nothing is lost, nothing
else becomes a title."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import events_in, nomarium, refused
from test_lines_beside_weekdays import plan_book

TERMS = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-10"]]
BELLS = [["Period", "Start", "End"], ["1", "9:00", "10:00"], ["2", "10:15", "11:15"], ["3", "11:30", "12:30"]]
WHEN = [("Mon", "1"), ("Tue", "2"), ("Wed", "3")]
NAMES = {"Class": ("7A", "7B", "8C"), "Subject": ("Knots", "Sails", "Masts"), "Klasse": ("7a", "7b", "8c"), "Fach": ("Knoten", "Segel", "Masten"),
         "Classe": ("5A", "5B", "6C"), "Matière": ("Nœuds", "Voiles", "Mâts"), "Group": ("G1", "G2", "G3"), "Form": ("Year 7", "Year 8", "Year 9"),
         "Course": ("Knots", "Sails", "Masts"), "Code": ("K-101", "S-102", "M-200"), "Activity": ("Splicing", "Caulking", "Rowing")}  # fmt: skip


def source_of(folder: Path, headings: tuple[str, ...], cells: dict[str, tuple[str, ...]]) -> Path:
    rows = [[*(cells[heading][n] for heading in headings), *WHEN[n]] for n in range(3)]
    return plan_book(
        folder, {"Timetable": [[*headings, "Day", "Period"], *rows], "Bells": BELLS, "Terms": TERMS}
    )


def met(source: Path) -> list[tuple[str, str, str]]:
    """Title, group and description of each meeting, in order."""
    assert (outcome := nomarium("build", source, "-o", source.with_suffix(".ics"))).status == 0, outcome.text
    found = sorted(events_in(source.with_suffix(".ics")), key=lambda event: str(event["DTSTART"].dt))
    return [
        (str(event["SUMMARY"]), str(event.get("X-NOMARIUM-GROUP", "")), str(event.get("DESCRIPTION", "")))
        for event in found
    ]


@pytest.mark.parametrize(
    "headings",
    [("Class", "Subject"), ("Klasse", "Fach"), ("Fach", "Klasse"), ("Classe", "Matière"), ("Form", "Course")],
)
def test_subjects_are_the_titles_and_classes_the_groups(headings: tuple[str, ...], tmp_path: Path) -> None:
    group, subject = sorted(headings, key=lambda one: one not in ("Class", "Klasse", "Classe", "Form"))
    assert met(source_of(tmp_path, headings, NAMES)) == [
        (NAMES[subject][n], NAMES[group][n], "") for n in range(3)
    ]


def test_a_group_beside_class_and_subject_is_kept_in_the_notes(tmp_path: Path) -> None:
    found = met(source_of(tmp_path, ("Class", "Group", "Subject"), NAMES))
    assert found == [("Knots", "7A", "G1"), ("Sails", "7B", "G2"), ("Masts", "8C", "G3")]


def test_what_is_done_in_a_class_is_kept_in_its_notes(tmp_path: Path) -> None:
    found = met(source_of(tmp_path, ("Class", "Activity"), NAMES))
    assert found == [("7A", "", "Splicing"), ("7B", "", "Caulking"), ("8C", "", "Rowing")]


@pytest.mark.parametrize("heading", ["Assistant", "Building", "Link", "Email", "Equipment", "Level"])
def test_other_columns_never_become_titles(heading: str, tmp_path: Path) -> None:
    beside = {heading: ("Orr", "Pike", "Wren"), **NAMES}
    assert [title for title, _, _ in met(source_of(tmp_path, ("Class", heading), beside))] == [
        "7A",
        "7B",
        "8C",
    ]


@pytest.mark.parametrize("heading", ["Long name", "Bezeichnung", "Course name"])
def test_names_beside_codes_are_titles(heading: str, tmp_path: Path) -> None:
    beside = {heading: ("Knots", "Sails", "Masts"), **NAMES}
    assert [title for title, _, _ in met(source_of(tmp_path, ("Code", heading), beside))] == [
        "Knots",
        "Sails",
        "Masts",
    ]


@pytest.mark.parametrize("heading", ["Status", "Notes", "Room", "Remark"])
def test_a_class_that_is_called_off_is_refused(heading: str, tmp_path: Path) -> None:
    said = refused(
        source_of(tmp_path, ("Class", heading), {heading: ("Loft 1", "Cancelled", "Loft 2"), **NAMES})
    )
    assert "row 3" in said and "Cancelled" in said and "not held" in said


def test_a_class_whose_meetings_have_several_titles_is_called_by_its_code(tmp_path: Path) -> None:
    cells = {"Class": ("K1", "K1", "S1"), "Title": ("Lecture", "Loft", "Sails")}
    source = source_of(tmp_path, ("Class", "Title"), cells)
    assert [title for title, _, _ in met(source)] == ["Lecture", "Loft", "Sails"]
    assert {str(event["X-NOMARIUM-CLASS"]) for event in events_in(source.with_suffix(".ics"))} == {
        "K1",
        "Sails",
    }


LISTED = [
    ["Day", "Time", "Group", "Subject", "Room"],
    ["Mon", "9:00-10:00", "7A", "Knots", "Loft 1"],
    ["Tue", "9:00-10:00", "7B", "Sails", "Slip 2"],
]


@pytest.mark.parametrize("names", [("Ms Reed", "Mr Moss"), ("Reed", "Moss"), ("Jane Reed", "Paul Moss")])
def test_lists_on_sheets_of_teachers_are_theirs(names: tuple[str, str], tmp_path: Path) -> None:
    later = [LISTED[0], *([day, "11:00-12:00", *rest] for day, _, *rest in LISTED[1:])]
    source = plan_book(tmp_path, {names[0]: LISTED, names[1]: later, "Terms": TERMS})
    assert (outcome := nomarium("build", source, "-o", source.with_suffix(".ics"))).status == 0, outcome.text
    found = {str(event["X-NOMARIUM-TEACHER"]) for event in events_in(source.with_suffix(".ics"))}
    assert found == set(names) and "taken for the teacher of their rows" in outcome.text


@pytest.mark.parametrize(
    "names", [("Morning", "Afternoon"), ("Upper school", "Lower school"), ("Classes 1", "Classes 2")]
)
def test_sheets_that_are_called_after_nobody_add_nothing(names: tuple[str, str], tmp_path: Path) -> None:
    other = [
        LISTED[0],
        ["Mon", "13:00-14:00", "7A", "Tar", "Loft 1"],
        ["Tue", "13:00-14:00", "7B", "Oars", "Slip 2"],
    ]
    source = plan_book(tmp_path, {names[0]: LISTED, names[1]: other, "Terms": TERMS})
    assert (outcome := nomarium("build", source, "-o", source.with_suffix(".ics"))).status == 0, outcome.text
    assert not any("X-NOMARIUM-TEACHER" in event for event in events_in(source.with_suffix(".ics")))


@pytest.mark.parametrize(
    "cell",
    [
        "Knots (cancelled)",
        "Knots\nCANCELLED",
        "CANCELLED",
        "Knots - cancelled",
        "Knots entfällt",
        "Knots, Loft 1, cancelled",
    ],
)
def test_a_drawn_class_that_is_called_off_is_refused(cell: str, tmp_path: Path) -> None:
    grid = [["Period", "Mon", "Tue"], ["1", cell, "Tar, Loft 2"], ["2", "Sails, Loft 1", "Knots, Loft 1"]]
    said = refused(plan_book(tmp_path, {"7A": grid, "Bells": BELLS, "Terms": TERMS}))
    assert "row 2" in said and "not held" in said


def test_a_class_is_called_off_behind_its_name(tmp_path: Path) -> None:
    said = refused(
        source_of(
            tmp_path,
            ("Class", "Room"),
            {"Class": ("Knots", "Sails (cancelled)", "Masts"), "Room": ("A1", "A2", "A3")},
        )
    )
    assert "row 3" in said and "Sails (cancelled)" in said
