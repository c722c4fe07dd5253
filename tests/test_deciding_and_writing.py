"""What is decided for a whole table, and what goes out: tables, rejected rows, workbooks, splits, identities."""

from __future__ import annotations

import csv
import datetime as dt
import io
from pathlib import Path

import openpyxl
import pytest

from helpers import built, csv_file, nomarium, refused, workbook
from nomarium.model.account import RejectedRow
from nomarium.model.event import Details, Event, Person
from nomarium.model.problem import Problem
from nomarium.model.wording import clock_text, counted, listed, meant, nearest
from nomarium.reading.cells.times import Clock
from nomarium.reading.layouts.layout import LAYOUTS, NotRead, Reading
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import read_sheet
from nomarium.reading.rows.when import Part, Said, When, settle
from nomarium.sheets.opening import open_source
from nomarium.sheets.sheet import TOP_ROWS, RowsAgain
from nomarium.sources.source import BY_VALUE, Calendars
from nomarium.targets.eventtable import HEADINGS, cells_of
from nomarium.targets.identities import Identities
from nomarium.targets.rejects import write_rejects
from nomarium.targets.replacing import part_file, replace_file
from nomarium.targets.splitting import Splitter, file_names
from nomarium.targets.workbooks import guarded, write_rows

# -- a sheet is read once ------------------------------------------------------------------------------------------


def test_the_top_of_a_source_is_read_once_and_a_short_source_never_again() -> None:
    opened: list[int] = []

    def rows(count: int):
        opened.append(count)
        return ((n, [str(n)]) for n in range(1, count + 1))

    short = RowsAgain(lambda: rows(3))
    assert [list(short()) for _ in range(3)] == [[(1, ["1"]), (2, ["2"]), (3, ["3"])]] * 3
    assert opened == [3]
    long = RowsAgain(lambda: rows(TOP_ROWS + 5))
    assert next(iter(long())) == (1, ["1"])
    assert [number for number, _ in long()] == list(range(1, TOP_ROWS + 6))
    exact = RowsAgain(lambda: rows(TOP_ROWS))
    assert len(list(exact())) == len(list(exact())) == TOP_ROWS


def test_a_file_of_three_lines_is_opened_a_handful_of_times(tmp_path: Path, monkeypatch) -> None:
    source = csv_file(tmp_path, "Title,Date\nA,2027-04-12\nB,2027-04-13")
    opened: list[str] = []
    original = Path.open

    def watched(self: Path, *arguments: object, **named: object):
        if self == source:
            opened.append("r")
        return original(self, *arguments, **named)

    monkeypatch.setattr(Path, "open", watched)
    assert nomarium("build", source, "-o", tmp_path / "o.ics").status == 0
    assert len(opened) <= 5


# -- layouts -------------------------------------------------------------------------------------------------------

LIST = "Title,Date\nA,2027-04-12\nB,2027-04-13"
SHAPES = {
    "a list": (LIST, "events"),
    "a grid": (",2027-04-12,2027-04-13\n9:00,Sail,Rope\n10:00,Oars,", "grid"),
    "a planner": (
        "Week of,Monday,Tuesday,Wednesday\n2027-04-12,Sail,Rope,Oars\n2027-04-19,Knots,,",
        "planner",
    ),
    "sections": ("12 April 2027\n9:00,Sail\n10:00,Rope\n13 April 2027\n9:00,Oars", "events"),
}


@pytest.mark.parametrize("name", SHAPES)
def test_the_layout_of_a_sheet_is_found(name: str, tmp_path: Path) -> None:
    text, layout = SHAPES[name]
    (sheet,) = open_source(csv_file(tmp_path, text), "x.csv")
    reading = read_sheet(sheet, ReadingOptions())
    assert isinstance(reading, Reading)
    assert reading.layout == layout


WHYS = {
    "no-rows": ("Title,Date", None), "no-dates": ("Title,Colour\nA,red\nB,blue", None), "no-day-one": ("Week,Day,Title\n1,Mon,A\n2,Tue,B", None),
    "no-titles": ("Date,Start\n2027-04-12,9:00\n2027-04-13,10:00", None), "no-grid": (LIST, "grid"), "no-month": (LIST, "month"),
    "no-planner": (LIST, "planner"), "month-unnamed": ("Mon,Tue,Wed,Thu,Fri\n1,2,3,4,5\n8,9,10,11,12", None),
}  # fmt: skip


@pytest.mark.parametrize("why", WHYS)
def test_why_a_sheet_is_not_read(why: str, tmp_path: Path) -> None:
    text, layout = WHYS[why]
    (sheet,) = open_source(csv_file(tmp_path, text), "x.csv")
    found = read_sheet(sheet, ReadingOptions(layout=layout))
    assert isinstance(found, NotRead)
    assert found.why == why
    assert found.problem.message


def test_the_names_of_layouts_are_those_that_can_be_asked_for() -> None:
    from typing import get_args

    from nomarium.reading.options import Layout as Asked

    assert {layout.name for layout in LAYOUTS} <= set(get_args(Asked))


def test_blank_sheets_do_not_hide_the_telling_problem(tmp_path: Path) -> None:
    source = workbook(tmp_path, [], more={"Notes": [["Title", "Colour"], ["A", "red"]]})
    text = refused(source)
    assert "holds dates" in text
    assert "is blank" not in text
    assert "is blank" in refused(workbook(tmp_path, [], name="empty.xlsx"))


# -- grids: labels that hold for several rows or columns ----------------------------------------------------------


def test_rows_under_a_merged_time_have_that_time(tmp_path: Path) -> None:
    rows = [
        ["", dt.date(2027, 4, 12), dt.date(2027, 4, 13)],
        ["9:00", "Sail", "Rope"],
        ["", "Oars", ""],
        ["10:00", "Knots", ""],
    ]
    source = workbook(tmp_path, rows, ["A2:A3"])
    assert built(source) == [
        "Sail 2027-04-12T09:00/2027-04-12T10:00", "Rope 2027-04-13T09:00/2027-04-13T10:00",
        "Oars 2027-04-12T09:00/2027-04-12T10:00", "Knots 2027-04-12T10:00/2027-04-12T11:00",
    ]  # fmt: skip


def test_rows_under_a_time_without_one_of_their_own_have_it_with_a_note(tmp_path: Path) -> None:
    source = csv_file(tmp_path, ",2027-04-12,2027-04-13\n9:00,Sail,Rope\n,Oars,\n10:00,Knots,")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert outcome.status == 0
    assert "Rows without a label of their own belong to the one above: 3." in outcome.out


def test_a_date_merged_over_two_columns_is_that_of_both(tmp_path: Path) -> None:
    rows = [["", dt.date(2027, 4, 12), "", dt.date(2027, 4, 13)], ["9:00", "Sail", "Rope", "Oars"]]
    events = built(workbook(tmp_path, rows, ["B1:C1"]))
    assert [event[:15] for event in events] == ["Sail 2027-04-12", "Rope 2027-04-12", "Oars 2027-04-13"]


NUMBERED = {
    "numbers of periods are no times": (",2027-04-12,2027-04-13\n1,Sail,Rope\n2,Oars,", 1),
    "hours are": (",2027-04-12,2027-04-13\n9,Sail,Rope\n10,Oars,", 0),
    "hours with a zero in front are": (",2027-04-12,2027-04-13\n06,Sail,Rope\n07,Oars,", 0),
}


@pytest.mark.parametrize("name", NUMBERED)
def test_bare_numbers_beside_a_grid(name: str, tmp_path: Path) -> None:
    text, status = NUMBERED[name]
    assert nomarium("build", csv_file(tmp_path, text), "-o", tmp_path / "o.ics").status == status


WEEKS = {
    "one week": (
        "Monday,Tuesday,Wednesday\nSail,Oars,Rope",
        ["Sail 2027-04-12", "Oars 2027-04-13", "Rope 2027-04-14"],
    ),
    "two lines of one week": (
        "Monday,Tuesday\nSail,Oars\nRope,",
        ["Sail 2027-04-12", "Oars 2027-04-13", "Rope 2027-04-12"],
    ),
    "numbered weeks": (
        "Week,Monday,Friday\n1,Sail,Oars\n3,Rope,",
        ["Sail 2027-04-12", "Oars 2027-04-16", "Rope 2027-04-26"],
    ),
    "weeks by name": (
        "Week,Monday,Friday\nWeek 1,Sail,Oars\nWeek 2,,Rope",
        ["Sail 2027-04-12", "Oars 2027-04-16", "Rope 2027-04-23"],
    ),
}


@pytest.mark.parametrize("name", WEEKS)
def test_weekdays_across_are_dated_from_day_one(name: str, tmp_path: Path) -> None:
    text, expected = WEEKS[name]
    source = csv_file(tmp_path, text)
    assert [event.split("/")[0] for event in built(source, "--day-one", "2027-04-12")] == expected
    assert "--day-one" in nomarium("build", source, "-o", tmp_path / "x.ics").err


# -- decisions about a whole table ---------------------------------------------------------------------------------


def test_midnight_to_midnight_on_one_date_is_a_moment() -> None:
    day, midnight = Part(first=dt.date(2027, 4, 12)), Part(start=Clock(0, True))
    when = settle(Said(date=day, start=midnight, end=midnight), 3600)
    assert isinstance(when, When)
    assert when.start == when.end == dt.datetime(2027, 4, 12)
    later = settle(Said(date=day, start=Part(start=Clock(3600, True)), end=midnight), 3600)
    assert isinstance(later, When)
    assert later.end == dt.datetime(2027, 4, 13)


def test_years_are_looked_for_in_the_whole_table_where_some_are_missing(tmp_path: Path) -> None:
    rows = "\n".join(f"A{n},{1 + n % 28} April" for n in range(900))
    source = csv_file(tmp_path, f"Title,Date\n{rows}\nLast,3 May 2027")
    events = built(source)
    assert len(events) == 901
    assert all(" 2027-0" in event for event in events)


def test_a_row_that_contradicts_the_top_of_its_table_has_all_of_it_looked_at(tmp_path: Path) -> None:
    rows = "\n".join(f"A{n},13/04/2027" for n in range(3_000))
    text = refused(csv_file(tmp_path, f"Title,Date\n{rows}\nB,04/13/2027"))
    assert "contradict each other" in text


NEIGHBOURS = {
    "the last days of March above the first of April": (
        [29, 30, 31, 1, 2],
        ["Sail 2027-03-29", "Rope 2027-04-02"],
    ),
    "the first days of May below the last of April": (
        [26, 27, 28, 29, 30],
        ["Sail 2027-04-26", "Rope 2027-04-30"],
    ),
}


@pytest.mark.parametrize("name", NEIGHBOURS)
def test_how_far_a_neighbouring_month_reaches_into_a_drawn_one(name: str, tmp_path: Path) -> None:
    numbers, expected = NEIGHBOURS[name]
    rows = ["April 2027", "Mon,Tue,Wed,Thu,Fri", ",".join(map(str, numbers)), "Sail,,,,Rope"]
    assert [event.split("/")[0] for event in built(csv_file(tmp_path, "\n".join(rows)))] == expected


def test_a_number_too_far_from_its_month_is_refused(tmp_path: Path) -> None:
    rows = ["April 2027", "Mon,Tue,Wed,Thu,Fri", "22,23,24,25,26", "Sail,,,,Rope"]  # those of March
    assert "does not fall on the weekday" in refused(csv_file(tmp_path, "\n".join(rows)))


def test_a_recipes_default_length_holds_and_the_command_line_beats_it(tmp_path: Path) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text("default_length_minutes = 45\n", "utf-8")
    source = csv_file(tmp_path, "Title,Date,Start\nA,2027-04-12,9:00")
    assert built(source, "--recipe", recipe) == ["A 2027-04-12T09:00/2027-04-12T09:45"]
    assert built(source, "--recipe", recipe, "--default-length", "2h", "--afresh") == [
        "A 2027-04-12T09:00/2027-04-12T11:00"
    ]


# -- tables, workbooks, rejected rows ------------------------------------------------------------------------------

FULL = Event(
    "Keel laying", dt.datetime(2027, 4, 12, 9), dt.datetime(2027, 4, 13, 1, 30, 15), "America/Halifax", "Slip 1", "Bring gloves",
    Details(categories=("A", "B"), audience=("X",), organizer=Person("Maren", "m@x"), attendees=(Person("", "a@x"), Person("Bo", "", True)),
            url="https://x", status="TENTATIVE", privacy="PRIVATE", busy=False, reminder_secs=90, color="teal", priority=5,
            geo=(44.5, -63.25), uid="u", facets=(("teacher", "R. Finch"), ("room", "Loft"))),
)  # fmt: skip


def test_an_event_as_cells() -> None:
    cells = dict(zip(HEADINGS, cells_of(FULL), strict=True))
    assert {heading: cell for heading, cell in cells.items() if cell} == {
        "Title": "Keel laying", "Date": "2027-04-12", "Start": "09:00", "End": "01:30:15", "End date": "2027-04-13", "Location": "Slip 1",
        "Description": "Bring gloves", "Categories": "A; B", "Audience": "X", "Organizer": "Maren <m@x>", "Attendees": "a@x",
        "Optional attendees": "Bo", "URL": "https://x", "Status": "tentative", "Privacy": "private", "Busy": "no", "Reminder": "PT90S",
        "Color": "teal", "Priority": "5", "Coordinates": "44.500000; -63.250000", "Time zone": "America/Halifax", "UID": "u",
        "Teacher": "R. Finch", "Room": "Loft",
    }  # fmt: skip
    whole = dict(
        zip(HEADINGS, cells_of(Event("Fair", dt.date(2027, 4, 12), dt.date(2027, 4, 14))), strict=True)
    )
    assert (whole["Date"], whole["End date"], whole["All day"], whole["Start"]) == (
        "2027-04-12",
        "2027-04-13",
        "yes",
        "",
    )


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("=1+1", "'=1+1"),
        ("+1", "'+1"),
        ("-x", "'-x"),
        ("@a", "'@a"),
        ("\tx", "'\tx"),
        ("a=b", "a=b"),
        ("", ""),
    ],
)
def test_no_text_becomes_a_formula(text: str, expected: str) -> None:
    assert guarded(text) == expected


def rejected(*cells: str, headings: tuple[str, ...] = ("Title", "Date"), why: str = "No.") -> RejectedRow:
    return RejectedRow(headings, cells, (Problem("x", why, "Mend it."),))


def test_rejected_rows_of_several_tables_share_one_csv(tmp_path: Path) -> None:
    tables = [[rejected("A", "x")], [], [rejected("B", "y", "z", headings=("Title", "", "Title"))]]
    write_rejects(tables, tmp_path / "r.csv")
    rows = list(csv.reader(io.StringIO((tmp_path / "r.csv").read_text("utf-8-sig"))))
    assert rows == [
        ["Title", "Date", "Column 2", "Title 3", "Reason for rejection"],
        ["A", "x", "", "", "No. Mend it."], ["B", "", "y", "z", "No. Mend it."],
    ]  # fmt: skip


def test_rejected_rows_of_several_tables_have_a_sheet_each(tmp_path: Path) -> None:
    write_rejects([[rejected("=A", "x")], [rejected("B", "y")]], tmp_path / "r.xlsx")
    book = openpyxl.load_workbook(tmp_path / "r.xlsx")
    assert book.sheetnames == ["Rejected 1", "Rejected 2"]
    assert [cell.value for cell in book["Rejected 1"][2]] == ["=A", "x", "No. Mend it."]
    assert book["Rejected 1"]["A2"].data_type == "s"


def test_the_same_workbook_is_the_same_bytes() -> None:
    first, second = io.BytesIO(), io.BytesIO()
    for target in (first, second):
        write_rows([["Name", "Count"], ["A", 1], ["=B", 2.5]], "xlsx", "Tally", target)
    assert first.getvalue() == second.getvalue()
    rows = list(openpyxl.load_workbook(first)["Tally"].values)
    assert rows == [("Name", "Count"), ("A", 1), ("=B", 2.5)]


def test_a_file_is_replaced_whole_or_not_at_all(tmp_path: Path) -> None:
    target = tmp_path / "o.ics"
    target.write_bytes(b"old")
    target.chmod(0o640)

    def breaks(file) -> None:
        file.write(b"half")
        raise OSError("no space")

    with pytest.raises(OSError, match="no space"):
        replace_file(target, breaks)
    assert target.read_bytes() == b"old"
    replace_file(target, lambda file: file.write(b"new"))
    assert (target.read_bytes(), target.stat().st_mode & 0o777) == (b"new", 0o640)
    assert sorted(path.name for path in tmp_path.iterdir()) == ["o.ics"]
    one, two = part_file(tmp_path), part_file(tmp_path)
    assert one[0] != two[0]
    for path, file in (one, two):
        file.close()
        path.unlink()


# -- splits --------------------------------------------------------------------------------------------------------

VALUES = [
    ("audience", ("X",)), ("categories", ("A", "B")), ("organizer", ("Maren",)), ("location", ("Slip 1",)), ("status", ("TENTATIVE",)),
    ("teacher", ("R. Finch",)), ("room", ("Loft",)), ("group", ("no group",)), ("person", ("no person",)),
]  # fmt: skip


@pytest.mark.parametrize(("field", "expected"), VALUES)
def test_the_values_of_an_event_that_files_go_by(field: str, expected: tuple[str, ...]) -> None:
    assert Splitter((field,)).names_of(FULL, BY_VALUE) == expected


def test_whose_calendar_an_event_belongs_in_is_said_by_its_source() -> None:
    calendars = Calendars(persons_of=lambda event: (event.summary, event.summary, ""))
    assert Splitter(("person",)).names_of(FULL, calendars) == ("Keel laying",)


def test_two_teachers_are_parted_by_semicolons_or_lines_and_groups_also_by_commas() -> None:
    def of(field: str, text: str) -> tuple[str, ...]:
        return Splitter((field,)).names_of(FULL._replace(details=Details(facets=((field, text),))))

    assert of("teacher", "Finch, R.; O.  Tern\nM. Quill") == ("Finch, R.", "O. Tern", "M. Quill")
    assert of("group", "A, B; A") == ("A", "B")


def test_file_names_differ_without_regard_to_case() -> None:
    names = file_names(["Loft", "loft", "LOFT!", "con", "…"])
    assert sorted(names.values()) == ["calendar.ics", "con-.ics", "loft-2.ics", "loft-3.ics", "loft.ics"]


# -- identities ----------------------------------------------------------------------------------------------------


def event(title: str, number: int = 0, uid: str = "") -> Event:
    return Event(
        title, dt.date(2027, 4, 12), dt.date(2027, 4, 13), details=Details(uid=uid), row_number=number
    )


def test_identities_tell_what_says_the_same_from_what_does_not() -> None:
    identities = Identities("Slips")
    bodies = ["one", "two", "one", "three", "two"]
    uids = [identities.uid_of(event("Race", n), body) for n, body in enumerate(bodies, 1)]
    assert len(set(uids)) == 5
    assert identities.repeated_rows == [3, 5]
    assert [Identities("Slips").uid_of(event("Race"), "x"), Identities("Lofts").uid_of(event("Race"), "x")][
        0
    ] == uids[0]
    assert Identities("Lofts").uid_of(event("Race"), "x") != uids[0]


def test_identities_of_another_process_are_known_too() -> None:
    here, there = Identities("Slips"), Identities("Slips")
    first = there.uid_of(event("Race"), "one")
    here.uid_of(event("Tea"), "tea")
    here.take_over(there.handed_over())
    assert here.uid_of(event("Race", 7), "one") != first
    assert here.repeated_rows == [7]
    assert here.uid_of(event("Race", 8, "own"), "x") == "own"
    here.uid_of(event("Sail", 9, "own"), "y")
    assert here.repeated_uids == [(9, "own")]


# -- words ---------------------------------------------------------------------------------------------------------


def test_words_that_messages_share() -> None:
    assert (counted(0, "row"), counted(1, "class", "classes"), counted(1_234, "class", "classes")) == (
        "0 rows",
        "1 class",
        "1,234 classes",
    )
    assert (listed(["a"]), listed(["a", "b"]), listed(["a", "b", "c"])) == ("a", "a and b", "a, b and c")
    assert (clock_text(0), clock_text(86_399)) == ("0:00", "23:59")
    assert nearest("mondy", ["Monday", "Sunday"]) == "Monday"
    assert meant("xyz", ["Monday"], "Write a weekday.") == "Write a weekday."
