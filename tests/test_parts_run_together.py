"""Drawn cells whose parts have nothing but a space, a colon or square brackets between them, and whose they are on several sheets."""

from __future__ import annotations

from pathlib import Path

import pytest

from test_lines_beside_weekdays import plan_book
from test_whose_classes import rows_of

TERMS = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
LINES = ("1 (9:00-10:00)", "2 (10:30-11:30)")
MEETINGS = {
    "7A": [("Knots", "Loft 1", 0, 0, 0), ("Sails", "Slip 2", 1, 1, 0), ("Knots", "Loft 1", 0, 1, 1), ("Tar", "Shed 3", 2, 0, 1)],
    "8C": [("Knots", "Slip 2", 1, 0, 0), ("Tar", "Shed 3", 2, 1, 0), ("Sails", "Loft 1", 0, 0, 1), ("Knots", "Slip 2", 1, 1, 1)],
}  # fmt: skip
"""By group: the class, its room, which teacher, day and period."""
TITLED, PLAIN, DOTTED = (
    ("Ms Reed", "Mr Moss", "Dr Finch"),
    ("Reed", "Moss", "Finch"),
    ("J. Reed", "P. Moss", "A. Finch"),
)


def drawn(folder: Path, form: str, teachers: tuple[str, ...]) -> Path:
    sheets = {}
    for group, meetings in MEETINGS.items():
        grid = [["Period", "Mon", "Tue"], [LINES[0], "", ""], [LINES[1], "", ""]]
        for name, room, teacher, day, period in meetings:
            grid[1 + period][1 + day] = form.format(s=name, r=room, t=teachers[teacher])
        sheets[group] = grid
    return plan_book(folder, {**sheets, "Terms": TERMS})


def expected(teachers: tuple[str, ...], with_room: bool = True) -> list[tuple[str, ...]]:
    return sorted(
        (
            name,
            f"2027-02-0{8 + day}",
            ("09:00", "10:30")[period],
            room if with_room else "",
            teachers[teacher],
            group,
        )
        for group, meetings in MEETINGS.items()
        for name, room, teacher, day, period in meetings
    )


@pytest.mark.parametrize(
    "form",
    [
        "{s}\n{t} {r}",
        "{s} {r} {t}",
        "{t} {s} {r}",
        "{s}: {t} ({r})",
        "{t}: {s} ({r})",
        "{s}\n{r} {t}",
        "{s} [{t}] {r}",
    ],
)
@pytest.mark.parametrize("teachers", [TITLED, DOTTED], ids=["titled", "dotted"])
def test_persons_and_rooms_are_told_from_what_stands_beside_them(
    form: str, teachers: tuple[str, ...], tmp_path: Path
) -> None:
    assert sorted(rows_of(drawn(tmp_path, form, teachers))) == expected(teachers)


@pytest.mark.parametrize("form", ["{t}\n{s}\n{r}", "{t} / {s} / {r}", "{s}\n{t}\n{r}", "{t}, {s}, {r}"])
def test_who_is_in_two_places_at_once_is_a_class(form: str, tmp_path: Path) -> None:
    assert sorted(rows_of(drawn(tmp_path, form, PLAIN))) == expected(PLAIN)


def test_a_name_in_square_brackets_is_a_part(tmp_path: Path) -> None:
    assert sorted(rows_of(drawn(tmp_path, "{s} [{t}]", TITLED))) == expected(TITLED, with_room=False)


@pytest.mark.parametrize("title", ["Workshop: splicing", "Sail making", "Hall tidy", "Team Reed", "Rig 1"])
def test_titles_of_several_words_stay_whole(title: str, tmp_path: Path) -> None:
    grid = [["Period", "Mon", "Tue"], [LINES[0], title, "Knots"], [LINES[1], "Tar", title]]
    found = rows_of(plan_book(tmp_path, {"7A": grid, "Terms": TERMS}))
    assert sorted(one[0] for one in found) == sorted([title, title, "Knots", "Tar"])


def test_codes_of_rooms_are_rooms_all_of_them(tmp_path: Path) -> None:
    rooms = {
        room: [["Period", "Mon", "Tue"], [LINES[0], "7A Knots\nReed", ""], [LINES[1], "", "8C Tar\nMoss"]]
        for room in ("B12", "B14", "C3")
    }
    found = rows_of(plan_book(tmp_path, {**rooms, "Terms": TERMS}))
    assert {one[3] for one in found} == {"B12", "B14", "C3"}


@pytest.mark.parametrize(
    "names",
    [("Ms Reed", "Mr Moss"), ("Reed", "Moss"), ("Jane Reed", "Paul Moss")],
    ids=["titled", "surnames", "full"],
)
@pytest.mark.parametrize("form", ["{g} {s}\n{r}", "{s} {g} ({r})", "{s}\n{g}\n{r}"])
@pytest.mark.parametrize("group", ["7A", "Year 7"])
def test_who_stands_over_the_groups_of_a_day_teaches_them(
    names: tuple[str, str], form: str, group: str, tmp_path: Path
) -> None:
    cell = [
        form.format(g=group, s=name, r=room)
        for name, room in (("Knots", "Loft 1"), ("Tar", "Shed 3"), ("Sails", "Slip 2"))
    ]
    day = [["", *names], ["9:00-10:00", cell[0], cell[1]], ["10:30-11:30", cell[2], ""]]
    found = rows_of(plan_book(tmp_path, {"Monday": day, "Tuesday": day, "Terms": TERMS}))
    assert len(found) == 6 and {one[4] for one in found} == set(names)


def test_names_that_begin_with_one_word_are_what_it_says(tmp_path: Path) -> None:
    grid = [["Period", "Mon", "Tue"], [LINES[0], "Knots (Loft 1)", ""], [LINES[1], "", "Tar (Shed 3)"]]
    rows = [["Class Keel"], *grid, [], ["Class Rib"], *grid]
    found = rows_of(plan_book(tmp_path, {"Timetable": rows, "Terms": TERMS}))
    assert {one[5] for one in found} == {"Class Keel", "Class Rib"} or {one[5] for one in found} == {
        "Class Keel; Class Rib"
    }
    assert not any(one[4] for one in found)


def test_cells_of_several_lines_under_days_are_no_rooms(tmp_path: Path) -> None:
    heads = ["Class", "Mon 9:00-10:00", "Mon 10:30-11:30", "Tue 9:00-10:00"]
    rows = [
        heads,
        ["7A", "Ms Reed\nKnots\nLoft 1", "Mr Moss\nTar\nShed 3", ""],
        ["8C", "", "Ms Reed\nKnots\nSlip 2", "Mr Moss\nSails\nLoft 1"],
    ]
    found = rows_of(plan_book(tmp_path, {"Timetable": rows, "Terms": TERMS}))
    assert {one[0] for one in found} == {"Knots", "Tar", "Sails"} and {one[4] for one in found} == {
        "Ms Reed",
        "Mr Moss",
    }
