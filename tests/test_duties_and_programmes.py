"""Duties by date and programmes of several days, made at random and written as a table, a page and a document's table: each comes
back as it was meant, or is refused; and what tells a rota, a programme and a list apart."""

from __future__ import annotations

import datetime as dt
import html
import random
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, read_or_refused, refused
from test_lines_beside_weekdays import plan_book

PEOPLE = ("Quill", "Moss", "Osei", "Tarn", "Brine", "Vance", "Ada Holt", "R. Sorrel")
POSTS = ("Gate", "Tea", "Safety boat", "Bar", "Setup", "Steward", "Flowers", "Front desk")
TITLES = (
    "Tar night",
    "Knots",
    "Oar making",
    "Lofting",
    "Sail repair",
    "Launch of the Heron",
    "Parents' evening",
)
PLACES = ("Loft A", "Sail loft", "Main shed", "Slip 2", "Room 4")
BETWEEN = (" & ", ", ", " / ", " and ")
Rows = list[list[str]]


def _duties(rng: random.Random) -> tuple[Rows, list[str]]:
    """A row for each date under posts, called a rota; and its events."""
    first, step = dt.date(2026, 9, 14) + dt.timedelta(rng.randrange(40)), rng.choice((1, 7, 14))
    days = [first + dt.timedelta(n * step) for n in range(rng.randint(4, 8))]
    posts = rng.sample(POSTS, rng.randint(2, 5))
    hours = rng.choice(("", "18:00-20:00", "6pm to 8pm"))
    rows, meant = [[f"{rng.choice(('Tea rota', 'Duty roster', 'Rota'))} {first.year}"], ["Date", *posts]], []
    for day in days:
        names = [rng.choice(BETWEEN).join(rng.sample(PEOPLE, rng.choice((1, 1, 1, 2)))) for _ in posts]
        names = [name if rng.random() > 0.15 else "" for name in names]
        if not any(names):
            continue  # a date alone says nobody's duty, which is told
        rows.append([f"{day:%a} {day.day} {day:%B} {day.year}", *names])
        until = f"{day}T18:00/{day}T20:00" if hours else f"{day}/{day + dt.timedelta(1)}"
        meant += [f"{post}: {name} {until}" for post, name in zip(posts, names, strict=True) if name]
    if hours:
        rows[1:] = [[row[0], "Time" if n == 0 else hours, *row[1:]] for n, row in enumerate(rows[1:])]
    return rows, meant


def _programme(rng: random.Random) -> tuple[Rows, list[str]]:
    """Days of a programme, each under its date, with or without headings; and its events."""
    first = dt.date(2026, 9, 14) + dt.timedelta(rng.randrange(40))
    head = ["Start", "End", "Event", "Place"] if rng.random() < 0.7 else []
    is_headed_once = rng.random() < 0.4
    lead = rng.choice(("", "Day {}: ", "Week {} ", "Round {} – "))
    form = rng.choice(
        ("{0:%A} {0.day} {0:%B} {0.year}", "{0:%B} {0.day}, {0.year}", "{0.day} {0:%b} {0.year}")
    )
    rows, meant = [["Autumn programme"], *([head] if head and is_headed_once else [])], []
    for n in range(rng.randint(2, 5)):
        day = first + dt.timedelta(7 * n)
        rows.append([lead.format(n + 1) + form.format(day)])
        rows += [head] if head and not is_headed_once else []
        begin = 13 * 60
        for _ in range(rng.randint(1, 4)):
            end, title, place = begin + rng.choice((30, 45, 90)), rng.choice(TITLES), rng.choice(PLACES)
            start, until = (f"{m // 60:02}:{m % 60:02}" for m in (begin, end))
            rows.append([start, until, title, place])
            meant.append(f"{title} {day}T{start}/{day}T{until} @ {place}")
            begin = end
        rows += [[]] if rng.random() < 0.5 else []
    return rows, meant


def _page(path: Path, rows: Rows) -> Path:
    """A web page with the rows as a table under its heading."""
    cells = ["".join(f"<td>{html.escape(cell)}</td>" for cell in row) for row in rows[1:]]
    table = "".join(f"<tr>{row}</tr>" for row in cells)
    path.write_text(f"<html><body><h1>{html.escape(rows[0][0])}</h1><table>{table}</table></body></html>")
    return path


def _noted(path: Path, rows: Rows) -> Path:
    """A note with the rows as a table under its heading."""
    width = max(map(len, rows))
    lines = ["| " + " | ".join([*row, *[""] * (width - len(row))]) + " |" for row in rows[1:]]
    rule = "|" + " --- |" * width
    path.write_text("\n".join([f"# {rows[0][0]}", "", lines[0], rule, *lines[1:], ""]))
    return path


@pytest.mark.parametrize("seed", range(30))
@pytest.mark.parametrize("make", [_duties, _programme])
def test_what_is_drawn_comes_back(make: object, seed: int, tmp_path: Path) -> None:
    assert callable(make)
    rows, meant = make(random.Random(seed))
    events, said = read_or_refused(tmp_path / "table.csv", rows)
    if events is None:  # two posts whose people are never the same, say
        assert make is _duties and "--as roster" in said
        events = built(tmp_path / "table.csv", "--as", "roster")
    assert sorted(events) == sorted(meant)
    if seed < 8:
        more = ["--as", "roster"] if make is _duties else []
        assert sorted(built(_page(tmp_path / "page.html", rows), *more)) == sorted(meant)
        assert sorted(built(_noted(tmp_path / "note.md", rows), *more)) == sorted(meant)


def test_names_under_two_posts_are_no_titles(tmp_path: Path) -> None:
    rows = "5 Nov 2026,Tarn,\n12 Nov 2026,Moss,Quill\n19 Nov 2026,R. Sorrel,Osei\n26 Nov 2026,Imre and Quill,R. Sorrel\n3 Dec 2026,Osei,Moss & Imre"
    said = refused(csv_file(tmp_path, f"Date,Tea,Steward\n{rows}"))
    assert "The same names stand under “Tea” and under “Steward”" in said and "--as roster" in said


def test_hours_are_no_titles(tmp_path: Path) -> None:
    rows = "Sat 17 October 2026,1pm-6pm,-,\nSat 31 October 2026,8am-12pm,9am-5pm,-\nSat 14 November 2026,OFF,8am-12pm,8am-12pm"
    assert sorted(built(csv_file(tmp_path, f",Brine,Osei,Tarn\n{rows}"))) == [
        "Brine 2026-10-17T13:00/2026-10-17T18:00",
        "Brine 2026-10-31T08:00/2026-10-31T12:00",
        "Osei 2026-10-31T09:00/2026-10-31T17:00",
        "Osei 2026-11-14T08:00/2026-11-14T12:00",
        "Tarn 2026-11-14T08:00/2026-11-14T12:00",
    ]


def test_where_ways_begin_and_end_is_no_rota(tmp_path: Path) -> None:
    rows = "5 Nov 2026,Halifax,Lunenburg,Chester\n12 Nov 2026,Lunenburg,Halifax,Chester\n19 Nov 2026,Chester,Halifax,Lunenburg"
    refused(csv_file(tmp_path, f"Ferry roster\nDate,Origin,Destination,Via\n{rows}"))


COUNTED_WEEKS = {
    "Week 1 September 29, 2026": "2026-09-29/2026-09-30",
    "Week 1, 29 September 2026": "2026-09-29/2026-09-30",
    "Wk 3: Mon 12 Oct 2026": "2026-10-12/2026-10-13",
    "Week 2 (12-16 Oct 2026)": "2026-10-12/2026-10-17",
    "Week 2 – 12 Oct to 16 Oct 2026": "2026-10-12/2026-10-17",
    "Week 7 September 2026": "2026-09-07/2026-09-08",
    "Semaine 3, 12 octobre 2026": "2026-10-12/2026-10-13",
}


@pytest.mark.parametrize("said", COUNTED_WEEKS)
def test_the_number_of_a_week_is_no_part_of_its_date(said: str, tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, f'Date,What\n"{said}",Knots')) == [f"Knots {COUNTED_WEEKS[said]}"]


@pytest.mark.parametrize("said", ["Week 1 Sep 29", "1 September 29, 2026", "1 September 29 2027"])
def test_a_day_that_could_be_a_short_year_is_asked_about(said: str, tmp_path: Path) -> None:
    assert said.split()[-1] in refused(csv_file(tmp_path, f'Date,What\n"{said}",Knots'))


def test_the_weekday_in_a_title_settles_its_figures(tmp_path: Path) -> None:
    rows = "10am–11am,Knots,,Sails\n11am–12pm,,Tar,\n12pm–1pm,Lunch,,"
    events = built(
        csv_file(tmp_path, f'"Open day programme, Tue 08.09.2026"\nTime,Sail loft,Main shed,Slip 2\n{rows}')
    )
    assert len(events) == 4 and "Tar 2026-09-08T11:00/2026-09-08T12:00 @ Main shed" in events


# -- headings in two rows, keys, lists beside themselves -------------------------------------------------

DUTIES = {
    "groups over the same headings": (
        "Date,Morning,,Afternoon,\n,Group A,Group B,Group A,Group B\n14/09/2026,Lofting,Oars,Oars,Sails\n15/09/2026,Oars,Sails,Lofting,Oars",
        ["Morning: Group A: Lofting", "Morning: Group B: Oars", "Afternoon: Group A: Oars", "Afternoon: Group B: Sails"],
    ),
    "halves of the day over places": (
        "Date,Morning,,Afternoon,\n,Loft,Slip,Shed,Quay\n14/09/2026,Moss,Quill,Moss,Quill\n15/09/2026,Quill,Moss,Brask,Moss",
        ["Morning: Moss @ Loft", "Morning: Quill @ Slip", "Afternoon: Moss @ Shed", "Afternoon: Quill @ Quay"],
    ),
    "posts of people under groups, in the row of the dates": (
        ",,Duty,,Kitchen,\nDate,Day,Lead,Second,Lead,Second\n14/09/2026,Mon,Moss,Quill,Moss,Quill\n15/09/2026,Tue,Quill,Moss,Brask,Moss",
        ["Duty: Lead: Moss", "Duty: Second: Quill", "Kitchen: Lead: Moss", "Kitchen: Second: Quill"],
    ),
    "a post whose heading is that of people": (
        "Date,Lead,Second,Cook\n14/09/2026,Moss,Quill,Brask\n21/09/2026,Quill,Brask,Moss\n28/09/2026,Brask,Moss,Quill",
        ["Lead: Moss", "Second: Quill", "Cook: Brask"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", DUTIES)
def test_duties_under_headings_of_several_kinds(name: str, tmp_path: Path) -> None:
    text, expected = DUTIES[name]
    found = [line for line in built(csv_file(tmp_path, text)) if " 2026-09-14/" in line]
    assert [line.replace(" 2026-09-14/2026-09-15", "") for line in found] == expected


def test_days_of_a_rota_go_on_in_their_month(tmp_path: Path) -> None:
    text = (
        ',,,\nFlower rota (tell Osei),,,\n,Flowers,Coffee,Doors\n"Sun 3rd Jan, 2027",Barr,Vane,\n10th,Moss,Barr,Nils\n17th,Vane,Moss,Barr\n'
        "24th (at Chester),---,---,---\n31st,Barr,Nils,Moss"
    )
    source = csv_file(tmp_path, text)
    found = built(source)
    assert len(found) == 11
    assert found[-1] == "Doors: Moss 2027-01-31/2027-02-01"
    assert "“10th” under “Sun 3rd Jan, 2027”" in nomarium("build", source, "-o", tmp_path / "x.ics").text


@pytest.mark.parametrize(
    ("dates", "expected"),
    [
        (["Jan 12 2027", "19", "26", "Feb 2", "9"], ["01-12", "01-19", "01-26", "02-02", "02-09"]),
        (["12 Jan 2027", "19", "26", "2"], None),  # no number alone is of the next month
        (["12 Jan 2027", "5", "19"], None),
    ],
)
def test_numbers_below_a_date_rise_in_its_month(
    dates: list[str], expected: list[str] | None, tmp_path: Path
) -> None:
    rows = [["Date", "Event"], *([date, f"E{n}"] for n, date in enumerate(dates))]
    found, _ = read_or_refused(tmp_path / "x.csv", rows)
    days = None if found is None else [line.split()[1][5:10] for line in found]
    assert days == expected


def test_hours_over_posts_are_theirs(tmp_path: Path) -> None:
    text = "Date,Day,8:00-12:00,,13:00-17:00,\n,,Gate,Slip,Gate,Slip\n14/09/2026,Mon,Moss,Quill,Quill,Moss\n15/09/2026,Tue,Moss,Quill,Quill,Moss"
    found = built(csv_file(tmp_path, text), "--as", "roster")
    assert found[:3] == [
        "Gate: Moss 2026-09-14T08:00/2026-09-14T12:00",
        "Slip: Quill 2026-09-14T08:00/2026-09-14T12:00",
        "Gate: Quill 2026-09-14T13:00/2026-09-14T17:00",
    ]


@pytest.mark.parametrize(
    "key",
    ["E=07:00-15:00,L=13:00-21:00,,", "Key,E: 7-15,L: 13-21,", "Key,E,7-15,L,13-21", ",,,\nE=7-15,L=13-21,,"],
)
def test_a_key_may_stand_in_the_columns_of_its_drawing(key: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Ward,7 Sep 2026,8 Sep 2026,9 Sep 2026\nMoss,E,L,L\nQuill,L,OFF,E\n{key}")
    found = built(source)
    assert len(found) == 5
    assert found[0] == "Moss: E 2026-09-07T07:00/2026-09-07T15:00"


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("1 Sep 2026,A,1 Oct 2026,B\n2 Sep 2026,C,2 Oct 2026,D\n3 Sep 2026,E,3 Oct 2026,F", "ACEBDF"),
        ("1 Sep 2026,A,9 Oct 2026,B,9 Nov 2026,C\n9 Sep 2026,D,3 Nov 2026,E,1 Dec 2026,F\n8 Oct 2026,G,4 Nov 2026,H,2 Dec 2026,I", "ADGBEHCFI"),
    ],
)  # fmt: skip
def test_a_list_goes_on_beside_itself_without_headings(text: str, expected: str, tmp_path: Path) -> None:
    assert "".join(line[0] for line in built(csv_file(tmp_path, text))) == expected


def test_what_may_be_last_days_or_the_list_going_on_is_asked_about(tmp_path: Path) -> None:
    text = "1 Sep 2026,Heron,30 Nov 2026,Loft\n5 Sep 2026,Tern,15 Dec 2026,Shed\n10 Oct 2026,Gull,20 Dec 2026,Slip"
    assert "The column C holds days and is none of those that say when." in refused(csv_file(tmp_path, text))


def test_no_beside_yes_is_nobody_on_duty_and_a_question_mark_is_asked_about(tmp_path: Path) -> None:
    head = "Name,Sat 12 Sep 2026,Sun 13 Sep 2026\nMoss,Y,N\n"
    assert built(csv_file(tmp_path, f"{head}Quill,N,Y")) == [
        "Moss 2026-09-12/2026-09-13",
        "Quill 2026-09-13/2026-09-14",
    ]
    assert "Nothing says what “?” stands for" in refused(csv_file(tmp_path, f"{head}Quill,N,?", "b.csv"))
    assert (
        len(built(csv_file(tmp_path, "Name,Sat 12 Sep 2026,Sun 13 Sep 2026\nMoss,D,N\nQuill,N,D", "c.csv")))
        == 4
    )


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        (
            'Date,Time,Event,Where\n12 Sep 2026,"9:00\n13:00","Launch\nRace","Slip\nQuay"\n13 Sep 2026,10:00,Talk,Loft',
            ["Launch 2026-09-12T09:00/2026-09-12T10:00 @ Slip", "Race 2026-09-12T13:00/2026-09-12T14:00 @ Quay", "Talk 2026-09-13T10:00/2026-09-13T11:00 @ Loft"],
        ),
        (
            'Date,Event\n"12 Sep 2026\n19 Sep 2026","Launch\nRace"\n"26 Sep 2026\n27 Sep 2026","The Lost Anchor\n(a comedy)"',
            ["Launch 2026-09-12/2026-09-13", "Race 2026-09-19/2026-09-20", "The Lost Anchor (a comedy) 2026-09-26/2026-09-27",
             "The Lost Anchor (a comedy) 2026-09-27/2026-09-28"],
        ),
    ],
)  # fmt: skip
def test_lines_of_cells_go_with_each_other(text: str, expected: list[str], tmp_path: Path) -> None:
    source = tmp_path / "lines.csv"
    source.write_text(text, "utf-8")
    assert built(source) == expected


def test_what_a_program_writes_round_its_report_is_no_title_of_the_rows(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Report: Room bookings,,\nRun 29/11/2026 08:12 by OSEI,,\n,,\nRoom,Start,Booked for\nLoft 1,30/11/2026 09:00,Knots\nPage 1 of 2,,\n"
        "Room,Start,Booked for\nSlip 2,01/12/2026 13:00,Oars",
    )
    built(source)
    assert "CATEGORIES" not in source.with_suffix(".ics").read_text("utf-8")


@pytest.mark.parametrize(
    "key",
    ["L,13:00-21:00\nD,9:00-17:00", ",,\nKey,,\nL,13:00-21:00\nD,Day 9:00-17:00", "L = 13-21,D = 9-17,"],
)
def test_a_key_stands_under_dates_too(key: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Date,Osei,Moss\n26/09/2026,D,L\n27/09/2026,L,D\n28/09/2026,off,L\n{key}")
    found = built(source)
    assert len(found) == 5
    assert {line.split(" ", 1)[1][-33:] for line in found if "Osei" in line} == {
        "2026-09-26T09:00/2026-09-26T17:00",
        "2026-09-27T13:00/2026-09-27T21:00",
    }


def test_hours_of_people_are_no_programme_that_runs_through_a_day(tmp_path: Path) -> None:
    text = "Date,Lund,Moss,Osei\n16/09/2026,9 - 5,7 - 3,9 - 5\n17/09/2026,7 - 3,9 - 5,7 - 3"
    assert built(csv_file(tmp_path, text))[:2] == [
        "Lund 2026-09-16T09:00/2026-09-16T17:00",
        "Moss 2026-09-16T07:00/2026-09-16T15:00",
    ]
    open_hours = text.replace("7 - 3,9 - 5,7 - 3", "7 - 3,6 - 2,7 - 3")
    assert "in the morning or in the afternoon" in refused(csv_file(tmp_path, open_hours, "b.csv"))
    one_a_row = csv_file(
        tmp_path,
        "Date,Lund,Moss\n20/09/2026,7-3,-\n21/09/2026,,6-2\n22/09/2026,9-5,-\n23/09/2026,,7-3",
        "c.csv",
    )
    assert "in the morning or in the afternoon" in refused(one_a_row)


def test_hours_beside_hours_are_no_titles(tmp_path: Path) -> None:
    text = "Date,Vane,Quill\nFri 18 Sep 2026,0900 to 1700,1930 to 0800\nSat 19 Sep 2026,,off\nSun 20 Sep 2026,0900 to 1700,off"
    assert built(csv_file(tmp_path, text)) == [
        "Vane 2026-09-18T09:00/2026-09-18T17:00",
        "Quill 2026-09-18T19:30/2026-09-19T08:00",
        "Vane 2026-09-20T09:00/2026-09-20T17:00",
    ]


def test_duties_are_where_a_column_beside_them_says(tmp_path: Path) -> None:
    duty = [["Duty", "Location", "Mon", "Tue"], ["Before school 8:00-8:25", "Main slip", "Finch", "Osei"], ["Recess 10:15-10:35", "Yard", "Osei", "Vane"]]  # fmt: skip
    terms = [["Term", "First day", "Last day"], ["Spring", "2027-02-08", "2027-02-09"]]
    assert built(plan_book(tmp_path, {"Duty": duty, "Terms": terms})) == [
        "Before school: Finch 2027-02-08T08:00/2027-02-08T08:25 @ Main slip", "Recess: Osei 2027-02-08T10:15/2027-02-08T10:35 @ Yard",
        "Before school: Osei 2027-02-09T08:00/2027-02-09T08:25 @ Main slip", "Recess: Vane 2027-02-09T10:15/2027-02-09T10:35 @ Yard",
    ]  # fmt: skip


SHIFTS = (
    "Shift,Mon 11/1/27,Tue 12/1/27,Wed 13/1/27\nEarly 6am-2pm,Finch,Finch,Osei\nLate 2pm-10pm,Bell,Bell,Quill\n"
    "Night 10pm-6am,Vane,Vane,-\n{0},Osei,Finch,Bell\n"
)  # fmt: skip


@pytest.mark.parametrize("label", ["On call", "Duty officer", "On site", "Hours", "Staffing", "Standby"])
def test_names_behind_a_duty_are_no_sum_and_no_key(label: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, SHIFTS.format(label))
    found = built(source)
    assert "Early: Finch 2027-01-11T06:00/2027-01-11T14:00" in found
    assert [one for one in found if one.startswith(label)] == [
        f"{label}: Osei 2027-01-11/2027-01-12", f"{label}: Finch 2027-01-12/2027-01-13", f"{label}: Bell 2027-01-13/2027-01-14",
    ]  # fmt: skip
    assert f"Others say when they are, and “{label}” not" in nomarium("survey", source).text


@pytest.mark.parametrize("row", ["Total,3,3,2", "On duty,3,3,2", "Hours,24,24h,16", "Staff on,3,3,2"])
def test_rows_of_figures_below_shifts_are_sums(row: str, tmp_path: Path) -> None:
    label, first, second, third = row.split(",")
    text = SHIFTS.format(label).replace("Osei,Finch,Bell", f"{first},{second},{third}")
    assert len(built(csv_file(tmp_path, text))) == 8


@pytest.mark.parametrize(
    ("text", "count"),
    [
        ("Date,Juniors,Training,Seniors\n12 Jan 2027,Knots,Caulking,Tar\n14 Jan 2027,Splices,Planking,Oars\n", 6),
        ("Time,Main stage,Workshop,Family tent\n12 Jan 2027 9:00,Knots,Caulking,Tar\n12 Jan 2027 10:00,Splices,Planking,Oars\n", 6),
    ],
)  # fmt: skip
def test_a_heading_of_titles_among_places_or_groups_is_one_of_them(
    text: str, count: int, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, text)
    assert "it is no list" in refused(source)
    assert len(built(source, "--as", "roster")) == count


@pytest.mark.parametrize(
    ("label", "cells", "is_where"),
    [
        ("Venue", "Slip 1,Old Mill,Loft", True), ("Venue", "R. Finch,K. Osei,M. Bell", False), ("Hall", "Reed,Vane,Tern", False),
        ("Pitch", "1,2,1", True), ("Court", "Gull,Moss,Vane", False), ("Room 1", "R. Finch,K. Osei,M. Bell", False), ("Where", "Loft,Shed 2,Quay", True),
    ],
)  # fmt: skip
def test_a_row_of_places_below_dates_has_places_in_it(
    label: str, cells: str, is_where: bool, tmp_path: Path
) -> None:
    rows = [
        "Post,Mon 11 Jan 2027,Tue 12 Jan 2027,Wed 13 Jan 2027",
        "Anchor,Vane,Reed,Moss",
        f"{label},{cells}",
        "Windlass,Tern,Skua,Gull",
    ]
    found = built(csv_file(tmp_path, "\n".join(rows)))
    assert len(found) == (6 if is_where else 9)
    assert any(one.endswith(f" @ {cells.split(',')[0]}") for one in found) is is_where


@pytest.mark.parametrize(
    "heading", ["Cover", "Lead", "First", "Minutes", "Host", "Staff", "Teacher", "Who", "Status", "Set"]
)
def test_names_under_any_heading_are_duties_of_a_roster_that_was_asked_for(
    heading: str, tmp_path: Path
) -> None:
    rows = [
        f"Date,Anchor,{heading},Windlass",
        "11 Jan 2027,Finch,Vane,Tern",
        "12 Jan 2027,Osei,Finch,Vane",
        "13 Jan 2027,Bell,Lark,Gull",
    ]
    assert len(built(csv_file(tmp_path, "\n".join(rows)), "--as", "roster")) == 9


CODED = (
    "Rota,Mon 11 Jan 2027,Tue 12 Jan 2027,Wed 13 Jan 2027,Thu 14 Jan 2027\nFinch,E,{0},L,E\nOsei,L,E,E,L\nBell,L,L,E,E\n\n"
    "E = 7:00-15:00\nL = 14:00-22:00\n"
)


@pytest.mark.parametrize(
    ("cell", "expected"),
    [
        ("E*", ["E* 2027-01-12T07:00/2027-01-12T15:00"]), ("E (Moss)", ["E (Moss) 2027-01-12T07:00/2027-01-12T15:00"]),
        ("E - Moss", ["E - Moss 2027-01-12T07:00/2027-01-12T15:00"]), ("cover E", ["cover E 2027-01-12T07:00/2027-01-12T15:00"]),
        ('"7-11, 15-19"', [" 2027-01-12T07:00/2027-01-12T11:00", " 2027-01-12T15:00/2027-01-12T19:00"]),
        ("7-15/16-20", [" 2027-01-12T07:00/2027-01-12T15:00", " 2027-01-12T16:00/2027-01-12T20:00"]),
        ("early start", ["early start 2027-01-12/2027-01-13"]), ("1", [" 2027-01-12/2027-01-13"]),
    ],
)  # fmt: skip
def test_a_remark_beside_a_code_leaves_it_its_hours(cell: str, expected: list[str], tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, CODED.format(cell)))
    assert "Osei: E 2027-01-12T07:00/2027-01-12T15:00" in found, "the key holds whatever else stands in cells"
    mine = [
        one.removeprefix("Finch").removeprefix(": ")
        for one in found
        if one.startswith("Finch") and "2027-01-12" in one
    ]
    assert mine == expected


@pytest.mark.parametrize("cell", ["E/L", "E L", "E+L", "7", "8h", "12 hrs", "7-11 & 3-7"])
def test_what_a_cell_of_a_roster_leaves_open_is_asked_about(cell: str, tmp_path: Path) -> None:
    said = refused(csv_file(tmp_path, CODED.format(cell)))
    assert "row 2, column C" in said


def test_how_many_a_room_holds_is_no_time_and_a_time_above_is_told(tmp_path: Path) -> None:
    text = "Open studios 2027, 11am-5pm\nRoom,Capacity,Mon 11 Jan 2027,Tue 12 Jan 2027\nLoft 1,24,Choir,Band\nShed 2,12,Tar,Oars\nHall,120,Fair,Exam\n"
    source = csv_file(tmp_path, text)
    assert {one.split("2027-")[1] for one in built(source)} == {"01-11/", "01-12/"}
    told = nomarium("survey", source).text
    assert "Not used: the column “Capacity”" in told and "A line above says a time" in told


def test_a_hall_among_rooms_is_a_room_and_one_word_below_a_pitch_is_asked_about(tmp_path: Path) -> None:
    rooms = "Room,Mon 11 Jan 2027,Tue 12 Jan 2027\nLoft 1,Choir,Band\nShed 2,Tar,Oars\nHall,Exam 1,Play 2\n"
    assert {"Exam 1 2027-01-11/2027-01-12 @ Hall", "Choir 2027-01-11/2027-01-12 @ Loft 1"} <= set(
        built(csv_file(tmp_path, rooms))
    )
    pitch = (
        "Team,Sat 9 Jan 2027,Sat 16 Jan 2027\nU12,v Cove,v Kedge\nU14,v Tiller,v Lanyard\nPitch,Top,Bottom\n"
    )
    assert "Head the row “Venue”" in refused(csv_file(tmp_path, pitch, "pitch.csv"))
    found = built(csv_file(tmp_path, pitch.replace("Pitch", "Venue"), "venue.csv"))
    assert len(found) == 4 and all(one.endswith((" @ Top", " @ Bottom")) for one in found)
    assert len(built(csv_file(tmp_path, pitch.replace("Pitch", "Duty on the pitch"), "duty.csv"))) == 6
