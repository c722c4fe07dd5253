"""Planners, day sheets and rosters as they are drawn, and lines that single words used to mislead."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused, workbook
from pdf_maker import pdf
from test_pdf import read

YEAR = ("--school-year", "2026:2027", "--timezone", "America/Halifax")


@pytest.mark.parametrize("label", ["7 Sep", "w/c 7 Sep", "w/c 7 September 2026"])
@pytest.mark.parametrize("numbered", [True, False])
def test_a_cell_merged_over_days_of_a_planner_lasts_them(label: str, numbered: bool, tmp_path: Path) -> None:
    head = ["Week"] * numbered + ["Commencing", "Mon", "Tue", "Wed", "Thu", "Fri"]
    weeks = [[label, "", "Camp", "", "", "Fair"], [label.replace("7", "14", 1), "Exams", "", "", "", ""]]
    rows = [["Term planner 2026–27"], head, *([n + 1] * numbered + week for n, week in enumerate(weeks))]
    merged = ["D3:F3", "C4:G4"] if numbered else ["C3:E3", "B4:F4"]
    assert built(workbook(tmp_path, rows, merged), *YEAR) == [
        "Camp 2026-09-08/2026-09-11", "Fair 2026-09-11/2026-09-12", "Exams 2026-09-14/2026-09-19",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("rows", "merged"),
    [
        ([["W/C", "Mon", "Tue", "Wed"], ["7 September 2026", "", "9:00-15:00 Camp", ""], ["14 September 2026", "Fair", "", ""]], ["C2:D2"]),
        ([["September 2026"], ["Mon", "Tue", "Wed", "Thu", "Fri"], [7, 8, 9, 10, 11], ["", "9:00-15:00 Camp"], [14, 15, 16, 17, 18], ["Fair"]], ["B4:C4"]),
    ],
    ids=["planner", "month"],
)  # fmt: skip
def test_times_in_a_cell_merged_over_days_are_those_of_each_day(
    rows: list[list[object]], merged: list[str], tmp_path: Path
) -> None:
    assert built(workbook(tmp_path, rows, merged), *YEAR) == [
        "Camp 2026-09-08T09:00/2026-09-08T15:00", "Camp 2026-09-09T09:00/2026-09-09T15:00", "Fair 2026-09-14/2026-09-15",
    ]  # fmt: skip


@pytest.mark.parametrize(
    "above", [[["Programme – Friday 4 December 2026"]], [["Open day"], ["4 December 2026"]], []]
)
@pytest.mark.parametrize("starts", [["9:00", "9:45", "10:30"], ["9:00–9:45", "9:45–10:30", "10:30–11:15"]])
def test_rooms_across_one_day_are_places(above: list[list[str]], starts: list[str], tmp_path: Path) -> None:
    slots = [["Welcome", "", "Tour"], ["", "Ropes", ""], ["Tar", "Oars", ""]]
    rows = [
        *above,
        ["Time", "Hall", "Loft 2", "Shed A"],
        *([a, *b] for a, b in zip(starts, slots, strict=True)),
    ]
    source = csv_file(tmp_path, "\n".join(",".join(row) for row in rows))
    options = [] if above else ["--set", "date=2026-12-04"]
    assert sorted(built(source, *YEAR, *options)) == [
        "Oars 2026-12-04T10:30/2026-12-04T11:15 @ Loft 2", "Ropes 2026-12-04T09:45/2026-12-04T10:30 @ Loft 2",
        "Tar 2026-12-04T10:30/2026-12-04T11:15 @ Hall", "Tour 2026-12-04T09:00/2026-12-04T09:45 @ Shed A",
        "Welcome 2026-12-04T09:00/2026-12-04T09:45 @ Hall",
    ]  # fmt: skip


@pytest.mark.parametrize("day", ["Sat 5", "5 Sat", "Saturday 5th", "5"])
def test_days_under_months_in_rows_of_a_list(day: str, tmp_path: Path) -> None:
    text = f"Date,Event,Time,Venue\nSeptember 2026,,,\n{day},Fair,10:00,Hall\nOctober 2026,,,\n17,Supper,19:00,Hall\n"
    assert built(csv_file(tmp_path, text.replace("\n17,", f"\n{day.replace('5', '17')},").replace("17th", "17th")), *YEAR) == [
        "Fair 2026-09-05T10:00/2026-09-05T11:00 @ Hall", "Supper 2026-10-17T19:00/2026-10-17T20:00 @ Hall",
    ]  # fmt: skip


def test_names_beside_weekdays_and_dates_are_a_roster_and_no_month(tmp_path: Path) -> None:
    rows = [
        ["Rota December 2026"], ["", "Mon", "Tue", "Wed", "Thu", "Fri"], ["Name", "7-Dec", "8-Dec", "9-Dec", "10-Dec", "11-Dec"],
        ["Ada Quill", "E", "", "L", "E", "E"], ["Ben Osei", "L", "E", "", "L", "L"],
    ]  # fmt: skip
    found = built(
        workbook(tmp_path, rows), *YEAR, "--set-code", "E=7:00-15:00", "--set-code", "L=14:00-22:00"
    )
    assert len(found) == 8
    assert found[0].startswith("Ada Quill") and "2026-12-07T07:00/2026-12-07T15:00" in found[0]


LINES: dict[str, tuple[str, list[str]]] = {
    "what closes a day is no end of a time": (
        "Saturday 5 December 2026\n10:00 Tour\n12:30 – Closing words\n13:00 – Sunset sail (Slip 1)\n",
        ["Tour 2026-12-05T10:00/2026-12-05T12:30", "Closing words 2026-12-05T12:30/2026-12-05T13:00", "Sunset sail 2026-12-05T13:00/2026-12-05T14:00 @ Slip 1"],
    ),
    "a time till late is one": ("Sat 5 December 2026, 7pm - late: Dance, Boathouse\n", ["Dance 2026-12-05T19:00/2026-12-05T20:00 @ Boathouse"]),
    "a question at its time is an entry": (
        "Saturday 5 December 2026\n10:00 Wood or steel?\n11:00 Lunch\n",
        ["Wood or steel? 2026-12-05T10:00/2026-12-05T11:00", "Lunch 2026-12-05T11:00/2026-12-05T12:00"],
    ),
    "the day after the name of a term": (
        "Term dates\nAutumn term 7 September 2026 – 18 December 2026\nSpring term 5 January 2027 – 25 March 2027\n",
        ["Autumn term 2026-09-07/2026-12-19", "Spring term 2027-01-05/2027-03-26"],
    ),
    "a line that ends with am is whole": (
        "Dates\nSun 11 April 2027 – Regatta – 9:45 am\nFri 16 April 2027 to Tue 20 April 2027 – Varnishing\n",
        ["Regatta 2027-04-11T09:45/2027-04-11T10:45", "Varnishing 2027-04-16/2027-04-21"],
    ),
    "a word that another line shows to be a place": (
        "Dates\n5 December 2026: Fair, 10am, Wherry Yard\n7 December 2026: Supper (Wherry Yard)\n",
        ["Fair 2026-12-05T10:00/2026-12-05T11:00 @ Wherry Yard", "Supper 2026-12-07/2026-12-08 @ Wherry Yard"],
    ),
    "columns under a month": (
        "Calendar\n\nDecember 2026\n\nSat 5    Fair      9.15    Wherry Yard\nMon 7    Supper            Wherry Yard\n",
        ["Fair 2026-12-05T09:15/2026-12-05T10:15 @ Wherry Yard", "Supper 2026-12-07/2026-12-08 @ Wherry Yard"],
    ),
    "days of one month with their weekdays in a message": (
        "Dates\nMonday 5 – Friday 9 October 2026: Boat show\n", ["Boat show 2026-10-05/2026-10-10"],
    ),
    "one label under its title, again and again": (
        "Coming up\n\nFair\n----\n\nDate: 5 December 2026\n\nBring boots.\n\nSupper\nDate: 7 December to 8 December 2026\n",
        ["Fair 2026-12-05/2026-12-06", "Supper 2026-12-07/2026-12-09"],
    ),
    "a poster": (
        "Saltmarsh School of Boatbuilding\n\ninvites you to its\n\nOpen evening\n\nFriday 15 January 2027\n\n6:30 pm to 8 pm\n\nMain Hall\n",
        ["Open evening 2027-01-15T18:30/2027-01-15T20:00 @ Main Hall"],
    ),
    "times with an article before them": (
        "Dates à retenir\n\nMardi 8 septembre 2026\n\nde 9h à 10h Réunion des parents (Salle 2)\n\nSamedi 3 octobre 2026\n\nde 17h30 à 18h30 Visite du chantier (Salle 2)\n",
        ["Réunion des parents 2026-09-08T09:00/2026-09-08T10:00 @ Salle 2", "Visite du chantier 2026-10-03T17:30/2026-10-03T18:30 @ Salle 2"],
    ),
    "hours with minutes and an h": (
        "Fechas\n\n22 de septiembre de 2026\n16:00 – 17:00 h Visita al puerto (Salón de actos)\n\n5 de octubre de 2026\n8:30 h Regata (Aula 3)\n",
        ["Visita al puerto 2026-09-22T16:00/2026-09-22T17:00 @ Salón de actos", "Regata 2026-10-05T08:30/2026-10-05T09:30 @ Aula 3"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", LINES)
def test_lines_say_what_they_seem_to(name: str, tmp_path: Path) -> None:
    text, events = LINES[name]
    source = tmp_path / "dates.txt"
    source.write_text(text, "utf-8")
    assert built(source, *YEAR) == events


def test_a_mail_dates_the_days_of_its_table_after_itself(tmp_path: Path) -> None:
    source = tmp_path / "dates.eml"
    rows = "".join(
        f"<tr><td>{day}</td><td>{title}</td></tr>"
        for day, title in (("Date", "Event"), ("12 April", "Fair"), ("3 May", "Trip"))
    )
    source.write_text(
        f"From: a@b.example\nDate: Tue, 01 Sep 2026 09:00:00 -0300\nContent-Type: text/html\n\n<p>Dates</p><table>{rows}</table>\n",
        "utf-8",
    )
    assert built(source, "--timezone", "America/Halifax") == [
        "Fair 2027-04-12/2027-04-13",
        "Trip 2027-05-03/2027-05-04",
    ]


def test_a_table_of_a_document_without_a_year_stops_the_build(tmp_path: Path) -> None:
    source = tmp_path / "dates.md"
    table = "## {}\n\n| 5 | Fair | 14:00 |\n|---|---|---|\n| 9 | Trip | 9:00 |\n\n"
    source.write_text("Sat 3 October 2026: Regatta\n\n" + table.format("April"), "utf-8")
    said = refused(source, "--timezone", "America/Halifax")
    assert "nothing says of which year" in said and "--school-year 2026:2027" in said


def test_a_date_beside_the_middle_of_its_rows_is_that_of_all_of_them(tmp_path: Path) -> None:
    rows = [("9:00", "Knots"), ("13:00", "Oars"), ("9:30", "Tar"), ("14:00", "Sails"), ("16:00", "Rope")]
    marks = [(x, 100.0, text) for x, text in ((40.0, "Date"), (200.0, "Start"), (300.0, "Event"))]
    marks += [
        (x, 120.0 + 20 * n, text)
        for n, row in enumerate(rows)
        for x, text in zip((200.0, 300.0), row, strict=True)
    ]
    marks += [(40.0, 130.0, "10 May 2027"), (40.0, 180.0, "11 May 2027")]
    events, _ = read(tmp_path, pdf(marks))
    assert [re.sub("T.*", "", event.replace("Tar", "tar")) for event in events] == [
        "Knots 2027-05-10", "Oars 2027-05-10", "tar 2027-05-11", "Sails 2027-05-11", "Rope 2027-05-11",
    ]  # fmt: skip


def test_a_school_year_that_is_asked_for_beats_one_that_is_said(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Calendar 2020,,\nMarch,,\n3,Fair,10:00\n17,Trip,9:00\n")
    outcome = nomarium("build", source, "-o", tmp_path / "o.csv", *YEAR)
    assert outcome.status == 0 and "2027-03-03" in (tmp_path / "o.csv").read_text("utf-8")


@pytest.mark.parametrize(
    ("rows", "expected"),
    [
        (
            [["SPRING TERM 2027 planner"], ["Week", "Mon", "Tue", "Wed"], ["4 Jan", "", "Staff day", ""], ["11 Jan", "Launch", "", ""]],
            ["Launch 2027-01-11/2027-01-12", "Staff day 2027-01-05/2027-01-06"],
        ),
        (
            [["Planner 2026–27"], ["w/c", "Mon", "Tue", "Wed"], ["14 Dec", "", "", "Fair"], ["4 Jan", "Launch", "", ""]],
            ["Fair 2026-12-16/2026-12-17", "Launch 2027-01-04/2027-01-05"],
        ),
        (
            [["Open days 2026"], ["", "Thu 3 Dec", "Fri 4 Dec"], ["9:00-10:00", "Tour", ""], ["10:00-11:00", "", "Ropes"]],
            ["Ropes 2026-12-04T10:00/2026-12-04T11:00", "Tour 2026-12-03T09:00/2026-12-03T10:00"],
        ),
        (
            [["Saltmarsh open day 2026"], ["Friday 4 December"], ["Time", "Hall", "Loft 2"], ["9:00-9:45", "Welcome", ""], ["9:45-10:30", "", "Ropes"]],
            ["Ropes 2026-12-04T09:45/2026-12-04T10:30 @ Loft 2", "Welcome 2026-12-04T09:00/2026-12-04T09:45 @ Hall"],
        ),
    ],
    ids=["planner", "school year", "grid", "day sheet"],
)  # fmt: skip
def test_the_year_over_a_drawing_is_that_of_its_days(
    rows: list[list[str]], expected: list[str], tmp_path: Path
) -> None:
    source = csv_file(tmp_path, "\n".join(",".join(row) for row in rows))
    assert sorted(built(source, "--timezone", "America/Halifax")) == expected


TURNS = {
    "weeks of two posts": (
        "Week commencing,First on call,Second on call\nMon 04/01/2027,Quill,Osei\nMon 11/01/2027,Marlow,Quill\nMon 18/01/2027,Osei,Marlow",
        ["First on call: Marlow 2027-01-11/2027-01-18", "First on call: Osei 2027-01-18/2027-01-25", "First on call: Quill 2027-01-04/2027-01-11",
         "Second on call: Marlow 2027-01-18/2027-01-25", "Second on call: Osei 2027-01-04/2027-01-11", "Second on call: Quill 2027-01-11/2027-01-18"],
    ),
    "days whose month stands above, and a person who is never off": (
        "Rota February 2027\nDate,Quill,Osei,Marlow\nMon 1,9-5,13:00-21:00,OFF\nTue 2,13:00-21:00,9-5,OFF\nWed 3,OFF,9-5,13:00-21:00",
        ["Marlow 2027-02-03T13:00/2027-02-03T21:00", "Osei 2027-02-01T13:00/2027-02-01T21:00", "Osei 2027-02-02T09:00/2027-02-02T17:00",
         "Osei 2027-02-03T09:00/2027-02-03T17:00", "Quill 2027-02-01T09:00/2027-02-01T17:00", "Quill 2027-02-02T13:00/2027-02-02T21:00"],
    ),
    "parts of such days": (
        "Rota,Feb 2027\nDay,Early,Late\nMon 1,Quill,Osei\nTue 2,Marlow,Quill\nWed 3,Osei,Marlow",
        ["Marlow (Early) 2027-02-02/2027-02-03", "Marlow (Late) 2027-02-03/2027-02-04", "Osei (Early) 2027-02-03/2027-02-04",
         "Osei (Late) 2027-02-01/2027-02-02", "Quill (Early) 2027-02-01/2027-02-02", "Quill (Late) 2027-02-02/2027-02-03"],
    ),
    "such days with somebody free": (
        "Rota,Feb 2027\nDay,Early,Late\nMon 1,Quill,-\nTue 2,Marlow & Osei,Quill\nWed 3,Osei,Marlow",
        ["Marlow & Osei (Early) 2027-02-02/2027-02-03", "Marlow (Late) 2027-02-03/2027-02-04", "Osei (Early) 2027-02-03/2027-02-04",
         "Quill (Early) 2027-02-01/2027-02-02", "Quill (Late) 2027-02-02/2027-02-03"],
    ),
    "a month over parts of its days": (
        "Duties for February 2027\n,Early,Late\nMon 1,Quill,Osei\nTue 2,Marlow,Quill\nWed 3,Osei,",
        ["Marlow (Early) 2027-02-02/2027-02-03", "Osei (Early) 2027-02-03/2027-02-04", "Osei (Late) 2027-02-01/2027-02-02",
         "Quill (Early) 2027-02-01/2027-02-02", "Quill (Late) 2027-02-02/2027-02-03"],
    ),
    "a month that heads its days": (
        "Feb 2027,Early,Late\n1,Quill,Osei\n2,Marlow,Quill\n3,Osei,",
        ["Marlow (Early) 2027-02-02/2027-02-03", "Osei (Early) 2027-02-03/2027-02-04", "Osei (Late) 2027-02-01/2027-02-02",
         "Quill (Early) 2027-02-01/2027-02-02", "Quill (Late) 2027-02-02/2027-02-03"],
    ),
    "hours of which one is by the clock of 24": (
        "Date,Quill,Osei\n1/2/2027,9-5,13:00-21:00\n13/2/2027,OFF,8.30-3.15",
        ["Osei 2027-02-01T13:00/2027-02-01T21:00", "Osei 2027-02-13T08:30/2027-02-13T15:15", "Quill 2027-02-01T09:00/2027-02-01T17:00"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", TURNS)
def test_people_take_turns_under_their_posts_or_names(name: str, tmp_path: Path) -> None:
    text, expected = TURNS[name]
    assert sorted(built(csv_file(tmp_path, text))) == expected


@pytest.mark.parametrize("heads", ["Speaker,Chair", "First aid,Second hand"])
def test_two_columns_of_names_are_no_turns_by_themselves(heads: str, tmp_path: Path) -> None:
    rows = f"Date,{heads}\n04/01/2027,Quill,Osei\n11/01/2027,Marlow,Quill\n18/01/2027,Osei,Marlow"
    assert "says what each event is called" in refused(csv_file(tmp_path, rows))


def test_times_in_a_cell_of_a_grid_are_those_of_its_event_within_the_slot(tmp_path: Path) -> None:
    rows = [
        ["Hall bookings, week of 11 January 2027"], ["", "Mon", "Tue"], ["9-12", "Judo\n9.30-10.30\nLoft 2", "PE 8-9"],
        ["1-3", "Tea 1-1.30\nTalk 2-3", "Drama (Loft 2)"], ["5-9", "Sale 7-8pm", "Choir (7-9)"],
    ]  # fmt: skip
    assert sorted(built(workbook(tmp_path, rows))) == [
        "Choir 2027-01-12T19:00/2027-01-12T21:00", "Drama 2027-01-12T13:00/2027-01-12T15:00 @ Loft 2",
        "Judo 2027-01-11T09:30/2027-01-11T10:30 @ Loft 2", "PE 8-9 2027-01-12T09:00/2027-01-12T12:00",
        "Sale 2027-01-11T19:00/2027-01-11T20:00", "Talk 2027-01-11T14:00/2027-01-11T15:00", "Tea 2027-01-11T13:00/2027-01-11T13:30",
    ]  # fmt: skip
    rows[2][1] = "Judo 8.30-9.30"
    assert "not within those of its slot" in refused(workbook(tmp_path, rows, name="outside.xlsx"))


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
def test_lines_in_one_column_of_a_table_are_lines(kind: str, tmp_path: Path) -> None:
    lines = [
        "Tour dates 2027",
        "Fri 5 Mar – Tern Bay, The Quay",
        "Sat 6 Mar – Gull Rock, Harbour Hall",
        "Thu 11 Mar – Heron Point, Old Loft, 7pm",
    ]
    source = workbook(tmp_path, [[one] for one in lines])
    if kind == "csv":
        source = csv_file(tmp_path, "\n".join(f'"{one}"' for one in lines))
    assert built(source) == [
        "Tern Bay 2027-03-05/2027-03-06 @ The Quay", "Gull Rock 2027-03-06/2027-03-07 @ Harbour Hall",
        "Heron Point 2027-03-11T19:00/2027-03-11T20:00 @ Old Loft",
    ]  # fmt: skip
    assert "--set summary=TITLE" in refused(csv_file(tmp_path, "Date\n2027-03-05\n2027-03-06", "dates.csv"))


def test_months_alone_in_a_list_need_only_their_year(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Date,Event,Time\nSeptember,,\n1,Training,\n17,Open evening,6pm-8pm\nJanuary,,\n8,Photos,9am\n19-23,Fair,",
    )
    assert "--school-year 2026:2027" in refused(source)
    assert built(source, "--school-year", "2026:2027") == [
        "Training 2026-09-01/2026-09-02", "Open evening 2026-09-17T18:00/2026-09-17T20:00",
        "Photos 2027-01-08T09:00/2027-01-08T10:00", "Fair 2027-01-19/2027-01-24",
    ]  # fmt: skip


def test_sheets_called_after_months_are_of_their_days(tmp_path: Path) -> None:
    september = [["Day", "Event", "Time"], [3, "Launch", "10am"], [17, "Open evening", "6pm"]]
    january = [["Day", "Event", "Time"], [8, "Photos", "9am"], [22, "Fair", None]]
    more = {"September": september, "Jan 2027": january}
    source = workbook(tmp_path, [["Key"], ["Times are local"]], more=more)
    assert "--school-year" in refused(source)
    assert built(source, "--school-year", "2026:2027") == [
        "Launch 2026-09-03T10:00/2026-09-03T11:00", "Open evening 2026-09-17T18:00/2026-09-17T19:00",
        "Photos 2027-01-08T09:00/2027-01-08T10:00", "Fair 2027-01-22/2027-01-23",
    ]  # fmt: skip
