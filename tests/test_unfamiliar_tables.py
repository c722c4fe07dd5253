"""Tables of kinds that nobody had in mind: each is read as a person reads it, or refused."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, events_in, nomarium, plain, refused, workbook

DECEMBER = ("--school-year", "2026:2027")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a rota whose posts have the headings of titles, by weeks": (
        "Week,Kitchen,Workshop,Bins\n30 Nov,Finch,Bell,Osei\n7 Dec,Bell,Osei,Finch\n14 Dec,Osei,Finch,Bell", DECEMBER,
        [f"{post}: {name} {first}" for first, names in (("2026-11-30/2026-12-07", "Finch Bell Osei"), ("2026-12-07/2026-12-14", "Bell Osei Finch"),
         ("2026-12-14/2026-12-21", "Osei Finch Bell")) for post, name in zip(("Kitchen", "Workshop", "Bins"), names.split(), strict=True)],
    ),
    "weeks by their number and their days": (
        "Week,Topic\n1 (30 Nov-4 Dec),Knots\nWk 2 (7-11 Dec),Splices", DECEMBER, ["Knots 2026-11-30/2026-12-05", "Splices 2026-12-07/2026-12-12"],
    ),
    "letters of weekdays over hours": (
        "Name,M,T,W,T,F\nAmaro,9-5,off,,12-8,\nBell,,9-5,9-5,off,9-5", ("--day-one", "2026-12-07"),
        ["Amaro 2026-12-07T09:00/2026-12-07T17:00", "Amaro 2026-12-10T12:00/2026-12-10T20:00", "Bell 2026-12-08T09:00/2026-12-08T17:00",
         "Bell 2026-12-09T09:00/2026-12-09T17:00", "Bell 2026-12-11T09:00/2026-12-11T17:00"],
    ),
    "letters of weekdays over a month": (
        "December 2026\nM,T,W,T,F,S,S\n,1,2,3,4 Fair,5,6\n7,8,9,10,11,12,13", (), ["Fair 2026-12-04/2026-12-05"],
    ),
    "letters of weekdays in French": ("Décembre 2026\nL,M,M,J,V,S,D\n,1,2,3,4 Foire,5,6\n7,8,9,10,11,12,13", ("--language", "fr"), ["Foire 2026-12-04/2026-12-05"]),
    "courts by number under times, one day below the other": (
        "Court,18:00,18:45\nTue 8 Dec 2026,,\n1,Amaro/Bell,Osei/Quill\n2,,Finch/Roe\nThu 10 Dec 2026,,\n1,Bell/Quill,", (),
        ["Amaro/Bell 2026-12-08T18:00/2026-12-08T18:45 @ Court 1", "Osei/Quill 2026-12-08T18:45/2026-12-08T19:30 @ Court 1",
         "Finch/Roe 2026-12-08T18:45/2026-12-08T19:30 @ Court 2", "Bell/Quill 2026-12-10T18:00/2026-12-10T18:45 @ Court 1"],
    ),
    "halves of the day, an evening among them": (
        "Exam,Date,Session\nKnots,11/01/2027,AM\nSails,22/01/2027,EVE", (), ["Knots 2027-01-11/2027-01-12", "Sails 2027-01-22/2027-01-23"],
    ),
    "lengths in days beside days": ("Event,Date,Duration\nCamp,2026-09-07,2 days", (), ["Camp 2026-09-07/2026-09-09"]),
    "a length of a day in hours": ("Event,Date,Time,Duration\nWatch,2026-09-07,9:00,24 h", (), ["Watch 2026-09-07T09:00/2026-09-08T09:00"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_a_table_of_an_unfamiliar_kind_is_read(kind: str, tmp_path: Path) -> None:
    table, options, events = READ[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert sorted(built(source, *options)) == sorted(events)


REFUSED = {
    "a place is no title": (
        "No.,Date,Venue\n1,14 Jan 2027,Loft 1\n2,21 Jan 2027,Loft 2",
        "--set summary=TITLE",
    ),
    "days that end something are not those of the rows": (
        "Week commencing,Topic,Homework due\n07/12/2026,Knots,Fri\n14/12/2026,Splices,Thu",
        "“Homework due” may say when",
    ),
    "a length in days beside a time": (
        "Training,Date,Time,Duration\nRadio,18/01/2027,09:00,2 days",
        "leaves open when each day ends",
    ),
    "hours under weekdays are no month": (
        "Name,Mon,Tue,Wed,Thu,Fri\nAmaro,9-5,9-5,off,12-8,12-8",
        "names weekdays, and nothing says",
    ),
}


@pytest.mark.parametrize("kind", REFUSED)
def test_what_an_unfamiliar_table_leaves_open_is_asked(kind: str, tmp_path: Path) -> None:
    table, says = REFUSED[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert says in refused(source)


def test_letters_that_are_read_as_weekdays_are_told(tmp_path: Path) -> None:
    source = tmp_path / "table.csv"
    source.write_text("Name,M,T,W,T,F,S,S\nAmaro,9-5,9-5,,,,,9-1\n", "utf-8")
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--day-one", "2026-12-07")
    assert ran.status == 0 and "are read as Monday to Sunday" in ran.text


CLASSES = [["Class", "Day", "Start", "End"], ["Knots", "Mon", "9:00", "10:00"]]
TERM = [["Term", "Start", "End"], ["Autumn", "7 Sep 2026", "25 Sep 2026"]]


@pytest.mark.parametrize(
    ("sheet", "rows", "mondays"),
    [
        ("INSET days", [["INSET days 2026-27"], ["7 September 2026, 21 September 2026"]], [14]),
        ("PD days", [["Monday 14 September 2026"], ["21 September 2026"]], [7]),
        ("Closures", [["Date", "Reason"], ["14 September 2026", "Fair"]], [7, 21]),
    ],
)
def test_dates_on_a_sheet_that_is_called_so_are_days_off(
    sheet: str, rows: list[list[str]], mondays: list[int], tmp_path: Path
) -> None:
    source = workbook(tmp_path, CLASSES, more={"Terms": TERM, sheet: rows})
    assert built(source, "--table", "Events=timetable") == [
        f"Knots 2026-09-{day:02}T09:00/2026-09-{day:02}T10:00" for day in mondays
    ]


def test_a_sheet_of_days_off_that_does_not_read_stops_the_plan(tmp_path: Path) -> None:
    source = workbook(
        tmp_path, CLASSES, more={"Terms": TERM, "INSET": [["14 & 21 September 2026, and the last Friday 9"]]}
    )
    assert "INSET is called as Days off would be" in refused(source, "--table", "Events=timetable")


def test_drawn_timetables_that_are_called_as_bells_have_these(tmp_path: Path) -> None:
    """Two divisions with bells of their own, each on a sheet of its name."""
    head = ["Period", "Mon", "Tue", "Wed"]
    apprentices = [head, ["1", "Joinery", "Sails", "Joinery"], ["2", "Sails", "Joinery", ""]]
    journeymen = [head, ["1", "Survey", "Lofting", "Survey"], ["2", "Lofting", "Survey", ""]]
    bells = {
        f"Bells {name}": [["Period", "Start", "End"], ["1", *first], ["2", *second]]
        for name, first, second in (
            ("Apprentices", ("8:30", "9:30"), ("9:40", "10:40")),
            ("Journeymen", ("9:00", "10:30"), ("10:45", "12:15")),
        )
    }
    more = {
        "Apprentices": apprentices,
        "Journeymen": journeymen,
        **bells,
        "Terms": [TERM[0], ["Autumn", "7 Sep 2026", "7 Sep 2026"]],
    }
    source = workbook(tmp_path, [["Class"]], more=more)
    ran = nomarium("build", source, "-o", tmp_path / "o.ics", "--table", "Events=")
    assert ran.status == 0 and "called as bells are have these: Apprentices and Journeymen" in ran.text, (
        ran.text
    )
    assert [plain(event) for event in events_in(tmp_path / "o.ics")] == [
        "Joinery 2026-09-07T08:30/2026-09-07T09:30", "Survey 2026-09-07T09:00/2026-09-07T10:30",
        "Sails 2026-09-07T09:40/2026-09-07T10:40", "Lofting 2026-09-07T10:45/2026-09-07T12:15",
    ]  # fmt: skip


PAGES = {
    "titles under days, and times with places under them": (
        "<h1>What's on</h1><div><span>07 Dec</span><h3>Fair</h3><p>10am – 2pm, Main hall</p></div><div><span>11 Dec</span><h3>Carols</h3><p>6.30pm, St Anne's church</p></div>"
        "<div><span>18 Dec</span><h3>End of term</h3><p>School closes at 1pm</p></div>",
        ["Fair 2026-12-07T10:00/2026-12-07T14:00 @ Main hall", "Carols 2026-12-11T18:30/2026-12-11T19:30 @ St Anne's church", "End of term 2026-12-18T13:00/2026-12-18T14:00"],
    ),
    "a day over its month": (
        "<div><div>07</div><div>Dec</div><div>Fair</div><div>10:00 - 14:00</div></div><div><div>11</div><div>Dec</div><div>Carols</div><div>18:30 - 20:00</div></div>",
        ["Fair 2026-12-07T10:00/2026-12-07T14:00", "Carols 2026-12-11T18:30/2026-12-11T20:00"],
    ),
    "what an element says to machines of the day that it shows": (
        '<ul><li><time datetime="2026-12-05T10:00">5 Dec</time> Fair</li><li><time datetime="2026-12-11T18:30Z">11 Dec</time> Carols</li><li><time datetime="2027-01-05">5 January</time> Term</li></ul>',
        ["Fair 2026-12-05T10:00/2026-12-05T11:00", "Carols 2026-12-11/2026-12-12", "Term 2027-01-05/2027-01-06"],
    ),
    "a title over its time and its place in one cell": (
        "<table><tr><td>Dec 7</td><td><b>Board</b><br>7 PM, Chart room</td></tr><tr><td>Dec 11</td><td><b>Carols</b><br>6:30 PM, Main hall</td></tr></table>",
        ["Board 2026-12-07T19:00/2026-12-07T20:00 @ Chart room", "Carols 2026-12-11T18:30/2026-12-11T19:30 @ Main hall"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", PAGES)
def test_a_page_is_read_as_it_looks(kind: str, tmp_path: Path) -> None:
    body, events = PAGES[kind]
    source = tmp_path / "page.html"
    source.write_text(f"<!DOCTYPE html><html><body>{body}</body></html>", "utf-8")
    assert sorted(built(source, *DECEMBER)) == sorted(events)


ADVICE: dict[str, tuple[str, list[tuple[str, ...]], list[str]]] = {
    "tides beside an event are no times of it": (
        "Event,Date,High water,Low water\nLaunch,12/12/2026,01:10,07:20\nFair,20/12/2026,07:05,00:50",
        [("--column", "High water=description"), ("--keep-extra",)], ["Fair 2026-12-20/2026-12-21", "Launch 2026-12-12/2026-12-13"],
    ),
    "two more times go into the description together": (
        "Event,Date,Setup,Start,End,Clear\nFair,2026-11-28,09:00,11:00,15:00,17:00\nQuiz,2026-12-04,18:00,19:30,22:00,23:00",
        [("--column", "Setup=description"), ("--keep-extra",)], ["Fair 2026-11-28T11:00/2026-11-28T15:00", "Quiz 2026-12-04T19:30/2026-12-04T22:00"],
    ),
    "weekdays beside dates are no post of a roster": (
        "Day,Date,Duty 1,Duty 2\nMon,7 Dec 2026,Amaro,Bell\nTue,8 Dec 2026,Bell,Osei", [("--as", "roster")],
        ["Duty 1: Amaro 2026-12-07/2026-12-08", "Duty 1: Bell 2026-12-08/2026-12-09", "Duty 2: Bell 2026-12-07/2026-12-08", "Duty 2: Osei 2026-12-08/2026-12-09"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", ADVICE)
def test_who_follows_the_advice_one_by_one_gets_what_was_meant(kind: str, tmp_path: Path) -> None:
    table, steps, events = ADVICE[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    given: list[str] = []
    for step in steps:
        said = refused(source, *given).replace('"', "")
        assert " ".join(step) in said
        given += step
    assert sorted(built(source, *given)) == events


def test_a_table_that_holds_days_is_not_to_be_put_on_one(tmp_path: Path) -> None:
    source = tmp_path / "table.csv"
    source.write_text("Month,Theme,Assembly,Trip\nDecember,Light,4th,11th\nJanuary,Ice,8th,22nd\n", "utf-8")
    assert "--set date" not in refused(source)


MORE: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "classes with their first and last days beside a week of times": (
        "Class,Start,End,Mon,Tue,Wed\nKnots,7 Sep 2026,18 Sep 2026,9:00,,9:00\nSails,7 Sep 2026,11 Sep 2026,,13:00-14:30,", (),
        [*(f"Knots 2026-09-{day:02}T09:00/2026-09-{day:02}T10:00" for day in (7, 9, 14, 16)), "Sails 2026-09-08T13:00/2026-09-08T14:30"],
    ),
    "who covers a class is its teacher": (
        "Cover list week beginning 7 December 2026,,\nDay,Class,Cover\nMon,Joinery 7a,Finch\nWed,Sails 7a,Bell", (),
        ["Joinery 7a 2026-12-07/2026-12-08", "Sails 7a 2026-12-09/2026-12-10"],
    ),
    "a month whose week begins on a Sunday, in letters": (
        "December 2026,,,,,,\nS,M,T,W,T,F,S\n,,1,2,3,4,5\n6,7 Board 7pm,8,9,10,11 Fair,12", (),
        ["Board 2026-12-07T19:00/2026-12-07T20:00", "Fair 2026-12-11/2026-12-12"],
    ),
    "places beside the labels of a roster": (
        "Activity,Location,Mon 7 Dec 2026,Tue 8 Dec 2026\nSwimming,Pool,09:00-10:00,14:00-15:00\nClimbing,Wall,,10:00-11:30", (),
        ["Climbing 2026-12-08T10:00/2026-12-08T11:30 @ Wall", "Swimming 2026-12-07T09:00/2026-12-07T10:00 @ Pool", "Swimming 2026-12-08T14:00/2026-12-08T15:00 @ Pool"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", MORE)
def test_more_tables_are_read(kind: str, tmp_path: Path) -> None:
    table, options, events = MORE[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert sorted(built(source, *options)) == sorted(events)


def test_hours_of_weeks_without_a_title_are_asked_about(tmp_path: Path) -> None:
    source = tmp_path / "table.csv"
    source.write_text("Week,Mon,Tue\n7 Dec 2026,9:00-17:00,\n14 Dec 2026,,10:00-18:00\n", "utf-8")
    assert "say when, and nothing says what" in refused(source)


def a_term_of(folder: Path, **others: str) -> Path:
    """A plan of one class with bells, whose other tables are given."""
    tables = {
        "Timetable": "Class,Day,Period\nJoinery,Mon,1\nJoinery,Thu,2\n",
        "Bells": "Period,Start,End\n1,8:30,9:20\n2,9:25,10:15\n3,10:35,11:25\n",
    }
    for name, table in (tables | others).items():
        (folder / f"{name}.csv").write_text(table, "utf-8")
    return folder


def a_week_of_key_dates(*more: str) -> str:
    return "\n".join(["Date,Event", "2026-09-07,First day of term", *more, "2026-09-11,Last day of term", ""])


def test_a_key_date_on_which_another_weekday_is_followed(tmp_path: Path) -> None:
    dates = a_week_of_key_dates("2026-09-08,Follow Thursday timetable", "2026-09-09,Picture day")
    assert built(a_term_of(tmp_path, Calendar=dates)) == [
        "Joinery 2026-09-07T08:30/2026-09-07T09:20",
        "Joinery 2026-09-08T09:25/2026-09-08T10:15",
        "Joinery 2026-09-10T09:25/2026-09-10T10:15",
    ]


@pytest.mark.parametrize(
    "said", ["Early dismissal 12:30", "Assembly bell schedule", "Half day", "Rotate to an odd timetable"]
)
def test_a_key_date_that_changes_the_bells_is_not_passed_over(said: str, tmp_path: Path) -> None:
    told = refused(a_term_of(tmp_path, Calendar=a_week_of_key_dates(f"2026-09-09,{said}")))
    assert f"“{said}” seems to change the bells or the timetable of its date" in told


def test_the_order_of_the_blocks_of_a_day_is_not_passed_over(tmp_path: Path) -> None:
    terms = "Name,First day,Last day\nFall,2026-09-07,2026-09-11\n"
    told = refused(a_term_of(tmp_path, Cycle="Day,Order\nKeel,1-2-3\nRib,2-3-1\n", Terms=terms))
    assert "“Order” seems to hold the order of each day's blocks" in told and "table Rotation" in told


def test_every_day_of_a_sentence_is_held(tmp_path: Path) -> None:
    source = tmp_path / "letter.txt"
    source.write_text(
        "The exams take place on 8 and 9 December 2026, 9 am to 12 noon, in Slip 2.\n"
        "The fair is on 11 & 12 December 2026 from 10:00 to 16:00.\n",
        "utf-8",
    )
    assert sorted(built(source)) == [
        "Exams 2026-12-08T09:00/2026-12-08T12:00 @ Slip 2",
        "Exams 2026-12-09T09:00/2026-12-09T12:00 @ Slip 2",
        "Fair 2026-12-11T10:00/2026-12-11T16:00",
        "Fair 2026-12-12T10:00/2026-12-12T16:00",
    ]


SEVERAL_DAYS = {
    "a row that holds one text": ("Event,Date,Place\nLaunch,1 December 2026,Slip 1\nExams on 8 and 9 December 2026,,", "names several days"),
    "a title over times": ("Programme for 8 and 9 December 2026,,\nTime,Event,Place\n9:00,Start,Loft", "No column of"),
    "a title over places": ("Sailing on 8 and 9 December 2026,,\nTime,Slip 1,Loft\n9:00,Knots,Tar\n10:00,Tar,Knots", "nothing says of which day"),
}  # fmt: skip


@pytest.mark.parametrize("kind", SEVERAL_DAYS)
def test_of_several_days_the_last_is_not_taken_for_all(kind: str, tmp_path: Path) -> None:
    table, told = SEVERAL_DAYS[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert told in refused(source)


def test_a_time_is_no_title_of_a_drawing(tmp_path: Path) -> None:
    source = tmp_path / "table.csv"
    source.write_text(
        "Opening hours December 2026,,\nDay,From,To\nMon-Thu,9:00,17:00\nFri,9:00,12:00\n24 Dec 2026,9:00,12:00\n",
        "utf-8",
    )
    assert "“12:00” is a time, and nothing says of what." in refused(source)


def test_a_title_over_places_is_that_of_all_of_them(tmp_path: Path) -> None:
    source = tmp_path / "club.txt"
    source.write_text(
        "Sailing club\nTue 1 Dec 2026, 19:00, Slip 1\nThu 3 Dec 2026, 19:00, Slip 2\n\nTalks\nMon 7 Dec 2026, 18:30, Loft\n",
        "utf-8",
    )
    assert sorted(built(source)) == [
        "Sailing club 2026-12-01T19:00/2026-12-01T20:00 @ Slip 1",
        "Sailing club 2026-12-03T19:00/2026-12-03T20:00 @ Slip 2",
        "Talks 2026-12-07T18:30/2026-12-07T19:30 @ Loft",
    ]


def test_cards_with_labels_of_their_own_and_lengths(tmp_path: Path) -> None:
    source = tmp_path / "exams.txt"
    source.write_text(
        "Exam: Knots\nDate: 9 December 2026\nStart: 9.00 am\nDuration: 1h 30m\nRoom: Loft\n\n"
        "Exam: Splices\nDate: 10 December 2026\nStart: 1.30 pm\nDuration: 45 minutes\nRoom: Slip 3\n",
        "utf-8",
    )
    assert sorted(built(source)) == [
        "Exam: Knots 2026-12-09T09:00/2026-12-09T10:30 @ Loft",
        "Exam: Splices 2026-12-10T13:30/2026-12-10T14:15 @ Slip 3",
    ]


def test_a_bare_time_among_evenings_is_asked_about(tmp_path: Path) -> None:
    source = tmp_path / "table.csv"
    source.write_text("Event,Date,Time\nChoir,3 Dec 2026,7pm\nSupper,4 Dec 2026,7.30\n", "utf-8")
    assert "7:30 could be in the morning or in the evening." in refused(source)
    assert built(source, "--clock", "24") == ["Choir 2026-12-03T19:00/2026-12-03T20:00", "Supper 2026-12-04T07:30/2026-12-04T08:30"]  # fmt: skip
    source.write_text("Event,Date,Start,End\nChoir,3 Dec 2026,6pm,8\nSupper,4 Dec 2026,7pm,8.30\n", "utf-8")
    assert built(source, "--afresh") == ["Choir 2026-12-03T18:00/2026-12-03T20:00", "Supper 2026-12-04T19:00/2026-12-04T20:30"]  # fmt: skip


def test_weeks_over_their_weekdays_are_no_cards(tmp_path: Path) -> None:
    source = tmp_path / "diary.txt"
    source.write_text(
        "School diary\n\nWeek beginning Monday 31 August 2026\nThursday: Regatta\nFriday: Open day, 8am\n\n"
        "Week beginning Monday 7 September 2026\nMonday: Fair\n",
        "utf-8",
    )
    assert sorted(built(source)) == ["Fair 2026-09-07/2026-09-08", "Open day 2026-09-04T08:00/2026-09-04T09:00", "Regatta 2026-09-03/2026-09-04"]  # fmt: skip


def test_the_number_of_a_group_is_no_day(tmp_path: Path) -> None:
    source = tmp_path / "groups.txt"
    source.write_text(
        "Group 2, 7 December 2026: Knots\nGroup 1, 3 and 10 December 2026: Tar\nFair 5, 6 December 2026\n",
        "utf-8",
    )
    assert sorted(built(source)) == [
        "Fair 2026-12-05/2026-12-06", "Fair 2026-12-06/2026-12-07", "Group 1: Tar 2026-12-03/2026-12-04", "Group 1: Tar 2026-12-10/2026-12-11",
        "Group 2: Knots 2026-12-07/2026-12-08",
    ]  # fmt: skip


def test_a_remark_below_a_list_takes_no_date_from_above(tmp_path: Path) -> None:
    source = tmp_path / "calendar.csv"
    source.write_text(
        "Wk,Date,What,Who\n1,11 Jan 2027,Term begins,All\n,,Safety talk,Bell\n2,18 Jan 2027,Regatta,Finch\n,,,\n* subject to change,,,\n",
        "utf-8",
    )
    assert '--fill-down "Date"' in refused(source)
    events = [
        "Regatta 2027-01-18/2027-01-19",
        "Safety talk 2027-01-11/2027-01-12",
        "Term begins 2027-01-11/2027-01-12",
    ]
    assert sorted(built(source, "--fill-down", "Date")) == events


def test_the_remedy_for_a_text_of_quotations_helps(tmp_path: Path) -> None:
    source = tmp_path / "mail.txt"
    quoted = "See below.\n\n> dates so far:\n> - Open evening: Thurs 3 Dec 2026, 18:00\n> - Mock exams: Mon 7 Dec 2026\n"
    source.write_text(quoted, "utf-8")
    assert "take their “>” away" in refused(source)
    source.write_text(quoted.replace("> ", ""), "utf-8")
    assert sorted(built(source)) == [
        "Mock exams 2026-12-07/2026-12-08",
        "Open evening 2026-12-03T18:00/2026-12-03T19:00",
    ]
